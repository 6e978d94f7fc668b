import json
import subprocess
import sys

import pytest

from wide_margin import cli
from wide_margin.core.answers import answer_quoted
from wide_margin.core.services.stand_in import StandIn


def run(capsys, monkeypatch, *arguments):
    """Exit code, what went out and what went to the error stream."""
    monkeypatch.setattr(sys, "argv", ["wide-margin", *map(str, arguments)])
    try:
        cli.main()
        code = 0
    except SystemExit as stop:
        code = stop.code or 0
    captured = capsys.readouterr()
    return code, captured.out, captured.err


@pytest.fixture
def wide_margin(capsys, monkeypatch):
    return lambda *arguments: run(capsys, monkeypatch, *arguments)


def test_outline_prints_an_indented_list(wide_margin, small_pdf):
    code, out, err = wide_margin("outline", small_pdf)
    assert (code, err) == (0, "")
    assert out == "1 Wells  1\n2 Buckets  2\n"


def test_outline_as_json_has_the_promised_form(wide_margin, small_pdf):
    code, out, _ = wide_margin("outline", small_pdf, "--json")
    rows = json.loads(out)
    assert code == 0
    assert [set(row) for row in rows] == [{"title", "level", "page", "label", "y"}] * 2
    assert rows[1]["title"] == "2 Buckets"
    assert (rows[1]["page"], rows[1]["label"], rows[1]["level"]) == (2, "2", 0)


def test_a_question_is_answered_in_text(wide_margin, small_pdf):
    code, out, _ = wide_margin("ask", small_pdf, "How many litres does a bucket hold?")
    assert code == 0
    assert "12 litres" in out
    assert "[p. 2]" in out
    assert "3 of 3 pages searched" in out


def test_declining_is_a_result(wide_margin, small_pdf):
    code, out, err = wide_margin("ask", small_pdf, "Who won the election in Peru?")
    assert (code, err) == (0, "")
    assert out.startswith("The document does not say.")


def test_questions_of_a_file_are_answered_one_a_line(wide_margin, small_pdf, tmp_path):
    asked = tmp_path / "questions.jsonl"
    asked.write_text(
        '{"id": "a", "question": "When is the rope changed?"}\n\n'
        '{"id": "b", "question": "Who won the election in Peru?"}\n',
        encoding="utf-8",
    )
    code, out, _ = wide_margin("ask", small_pdf, "--questions", asked, "--json")
    first, second = map(json.loads, out.splitlines())
    assert code == 0
    assert (first["id"], first["declined"]) == ("a", False)
    assert first["answer"][0]["locators"][0]["page"] == 1
    assert first["answer"][0]["backing"] == "backed"
    assert first["ms"] > 0
    assert (second["id"], second["declined"], second["answer"]) == ("b", True, [])
    assert (first["pages_searched"], first["pages_total"]) == (3, 3)


@pytest.mark.parametrize(
    "arguments",
    [
        ("ask", "{file}"),
        ("ask", "{file}", "A question?", "--questions", "{file}"),
        ("ask",),
        ("outline", "{file}", "--nonsense"),
    ],
)
def test_bad_usage_is_code_2(wide_margin, small_pdf, arguments):
    code, out, err = wide_margin(*[a.format(file=small_pdf) for a in arguments])
    assert code == 2
    assert out == ""
    assert "Traceback" not in err


def test_a_file_that_cannot_be_read_is_one_sentence_and_code_1(wide_margin, tmp_path):
    wrong = tmp_path / "wrong.pdf"
    wrong.write_text("hello", encoding="utf-8")
    for path in (tmp_path / "none.pdf", tmp_path, wrong):
        code, out, err = wide_margin("outline", path)
        assert (code, out) == (1, "")
        assert len(err.strip().splitlines()) == 1
        assert "Traceback" not in err


def test_a_password_file_opens_a_locked_document(wide_margin, tmp_path):
    from reportlab.pdfgen.canvas import Canvas

    path, password = tmp_path / "locked.pdf", tmp_path / "password"
    canvas = Canvas(str(path), encrypt="sesame")
    canvas.drawString(72, 700, "The door is open.")
    canvas.save()
    password.write_text("sesame\n", encoding="utf-8")
    assert wide_margin("ask", path, "Is the door open?", "--password-file", password)[0] == 0
    password.write_text("wrong\n", encoding="utf-8")
    code, _, err = wide_margin("outline", path, "--password-file", password)
    assert code == 1
    assert "does not open" in err


def test_help_and_version_read_well(wide_margin):
    code, out, _ = wide_margin("--help")
    assert code == 0
    for word in ("outline", "ask", "open", "stand-in"):
        assert word in out
    assert wide_margin("--version")[1].startswith("wide-margin ")


def test_the_command_line_does_not_load_qt(small_pdf):
    code = (
        "import sys; sys.argv = ['wide-margin', 'outline', sys.argv[1]]\n"
        "from wide_margin.cli import main\n"
        "try: main()\nexcept SystemExit: pass\n"
        "assert not any(name.startswith('PySide6') for name in sys.modules)"
    )
    subprocess.run([sys.executable, "-c", code, str(small_pdf)], check=True, capture_output=True)


def test_text_and_json_tell_the_same_answer(handbook):
    answer = answer_quoted(handbook, "How large may the closing error be?")
    text, data = cli.answer_as_text(answer), cli.answer_as_json(answer)
    assert data["answer"][0]["text"] in text
    assert data["answer"][0]["locators"][0]["label"] in text


def test_outline_can_be_written_in_other_formats(wide_margin, small_pdf, tmp_path):
    target = tmp_path / "outline.md"
    code, out, _ = wide_margin("outline", small_pdf, "--format", "md", "-o", target)
    assert (code, out) == (0, "")
    assert "- 1 Wells, 1\n" in target.read_text("utf-8")
    assert wide_margin("outline", small_pdf, "--format", "rtf")[0] == 2


def test_outline_can_be_written_into_a_copy(wide_margin, small_pdf, tmp_path):
    copy = tmp_path / "copy.pdf"
    code, _, err = wide_margin("outline", small_pdf, "--write-pdf", copy)
    assert code == 0
    assert "2 bookmarks" in err
    assert wide_margin("outline", copy)[1] == "1 Wells  1\n2 Buckets  2\n"


def test_a_password_given_at_the_prompt_serves_the_copy_too(capsys, monkeypatch, tmp_path):
    from reportlab.pdfgen.canvas import Canvas

    path, copy = tmp_path / "locked.pdf", tmp_path / "copy.pdf"
    canvas = Canvas(str(path), encrypt="sesame")
    canvas.drawString(72, 700, "The door is open.")
    canvas.save()
    monkeypatch.setattr(cli.sys.stdin, "isatty", lambda: True, raising=False)
    monkeypatch.setattr(cli.typer, "prompt", lambda *_, **__: "sesame")
    code, _, err = run(capsys, monkeypatch, "outline", path, "--write-pdf", copy)
    assert code == 0, err
    assert copy.exists()


@pytest.mark.usefixtures("shared_cache")
def test_witnesses_can_be_left_out_and_their_conflicts_are_told(wide_margin, handbook_path):
    _, out, _ = wide_margin("outline", handbook_path, "--format", "json")
    rows = {row["title"]: row for row in json.loads(out)}
    conflict = rows["9.3 Closing error"]["disagreements"][0]
    assert (conflict["about"], conflict["witness"]) == ("page", "contents")
    _, out, _ = wide_margin(
        "outline", handbook_path, "--format", "json", "--no-bookmarks", "--no-contents-page"
    )
    assert {w for row in json.loads(out) for w in row["witnesses"]} == {"heading"}


def test_an_outline_from_a_file_takes_the_place_of_ours(wide_margin, small_pdf, tmp_path):
    mine = tmp_path / "mine.json"
    mine.write_text('[{"title": "Water", "level": 0, "page": 2}]', encoding="utf-8")
    copy = tmp_path / "copy.pdf"
    code, out, err = wide_margin(
        "outline", small_pdf, "--from", mine, "--write-pdf", copy, "--json"
    )
    assert code == 0
    assert [(row["title"], row["page"]) for row in json.loads(out)] == [("Water", 2)]
    assert "1 bookmarks" in err
    _, out, _ = wide_margin("outline", copy, "--format", "json")
    conflicts = [d["reason"] for row in json.loads(out) for d in row["disagreements"]]
    assert len(conflicts) == 1
    assert conflicts[0].startswith("The bookmark reads “Water”.")


def test_a_document_without_witnesses_says_so(wide_margin, tmp_path):
    from tests.making import make_pdf, plain_pages

    make_pdf(tmp_path / "a.pdf", plain_pages(6))
    code, out, err = wide_margin("outline", tmp_path / "a.pdf")
    assert code == 0
    assert "parts by pages" in err
    assert out.startswith("Pages 1 to 2")


# --- digest


def test_a_digest_as_json_has_the_promised_form(wide_margin, small_pdf):
    code, out, err = wide_margin("digest", small_pdf, "--words", "30", "--json")
    made = json.loads(out)
    assert (code, err) == (0, "")
    assert {"facts", "gist", "by_kind", "sections", "terms"} <= set(made)
    assert sum(len(line["text"].split()) for line in made["gist"]) <= 30
    assert all(1 <= line["page"] <= 3 for line in made["gist"])


def test_pages_without_an_end_go_to_the_last(wide_margin, small_pdf):
    _, out, _ = wide_margin("digest", small_pdf, "--pages", "2-", "--sentences", "2", "--json")
    made = json.loads(out)
    assert made["reach"] == "pages 2 to the end"
    assert len(made["gist"]) == 2
    assert all(line["page"] >= 2 for line in made["gist"])


def test_a_digest_of_a_section(wide_margin, small_pdf):
    _, out, _ = wide_margin("digest", small_pdf, "--section", "Buckets", "--points", "1", "--json")
    assert json.loads(out)["gist"][0]["section"] == ["2 Buckets"]


def test_a_section_that_is_not_there_gets_a_sentence(wide_margin, small_pdf):
    code, out, err = wide_margin("digest", small_pdf, "--section", "Pumps")
    assert (code, out) == (1, "")
    assert err.startswith("The document has no “Pumps”.")


def test_a_digest_as_a_word_file_needs_a_name(wide_margin, small_pdf, tmp_path):
    code, _, err = wide_margin("digest", small_pdf, "--format", "docx")
    assert code == 2
    assert "-o" in err
    code, _, _ = wide_margin("digest", small_pdf, "--format", "docx", "-o", tmp_path / "made.docx")
    assert code == 0
    assert (tmp_path / "made.docx").read_bytes()[:2] == b"PK"


def test_two_lengths_are_too_many(wide_margin, small_pdf):
    code, _, err = wide_margin("digest", small_pdf, "--words", "30", "--points", "3")
    assert code == 2
    assert "one of" in err


def test_fields_of_a_list_of_questions(wide_margin, small_pdf, tmp_path):
    asked = tmp_path / "fields.txt"
    asked.write_text("How many litres does a bucket hold?\nHow many pumps are there?\n")
    code, out, _ = wide_margin("digest", small_pdf, "--fields", asked, "--json")
    made = json.loads(out)
    assert code == 0
    assert "12 litres" in made["How many litres does a bucket hold?"]["text"]
    assert made["How many litres does a bucket hold?"]["page"] == 2
    assert made["How many pumps are there?"] == {"text": None}
    code, out, _ = wide_margin("digest", small_pdf, "--fields", asked)
    assert out.splitlines()[0] == "name,value,page"


def test_the_kind_can_be_chosen(wide_margin, small_pdf):
    _, out, _ = wide_margin("digest", small_pdf, "--kind", "statute", "--json")
    assert "Duties" in json.loads(out)["by_kind"]


ROPE = "How often is the rope changed?"


def test_an_answer_is_composed_and_what_is_sent_is_said_before(wide_margin, small_pdf):
    with StandIn() as server:
        code, out, err = wide_margin(
            "ask", small_pdf, ROPE, "--composed", "--model", server.address, "--json"
        )
        n_helping = sum("restate" in m[-1][1] or "judge" in m[-1][1] for m in server.asked)
    assert code == 0
    answer = json.loads(out)
    assert "eighteen months" in answer["answer"][0]["text"]
    assert answer["answer"][0]["locators"][0]["page"] == 1
    assert n_helping == 2
    first, *others = err.splitlines()
    assert first.startswith("Sending about ")
    assert f"for finding, to {server.address}" in first
    assert any("excerpt" in line for line in others)


def test_a_model_that_is_not_to_help_in_finding_is_sent_the_excerpts_alone(wide_margin, small_pdf):
    with StandIn() as server:
        code, _, err = wide_margin(
            "ask", small_pdf, ROPE, "--composed", "--model", server.address, "--found-alone"
        )
        assert len(server.asked) == 1
    assert code == 0
    assert "for finding" not in err


def test_a_model_that_refuses_is_one_sentence(wide_margin, small_pdf, monkeypatch):
    monkeypatch.setattr("wide_margin.core.services.writing_model._wait", lambda *_: None)
    with StandIn(misbehave="refuses") as server:
        code, out, err = wide_margin(
            "ask", small_pdf, ROPE, "--composed", "--model", server.address
        )
    assert code == 1
    assert not out
    assert "Traceback" not in err
    assert "too often" in err


def test_a_question_that_the_document_does_not_answer_stays_declined(wide_margin, small_pdf):
    with StandIn() as server:
        code, out, _ = wide_margin(
            "ask", small_pdf, "Who was the first emperor of Rome?", "--composed",
            "--model", server.address, "--json",
        )  # fmt: skip
    assert code == 0
    assert json.loads(out)["declined"] is True
