"""The demo handbook is what it is meant to be: written, varied and flawed in the right places."""

import itertools
import json
import re
import subprocess
import sys
from collections import Counter
from pathlib import Path

import pypdfium2
import pytest

from wide_margin.core.layout import fold

DEMO = Path(__file__).resolve().parents[2] / "demo"
SOURCES = sorted((DEMO / "handbook").glob("*.md"))
PDF = DEMO.parent / "src" / "wide_margin" / "data" / "handbook.pdf"
KINDS = {"who", "when", "number", "definition", "procedure", "where", "list", "yes-no", "why",
         "compare", "table", "errata", "withdrawn", "follow-up", "reach", "form"}  # fmt: skip


def lines_of(name: str) -> list[dict]:
    return [json.loads(line) for line in (DEMO / name).read_text(encoding="utf-8").splitlines()]


def plain(text: str) -> str:
    return re.sub(r"[\W_]", "", fold(text.casefold()))


@pytest.fixture(scope="module")
def pages() -> list[str]:
    with pypdfium2.PdfDocument(PDF) as document:
        return [page.get_textpage().get_text_range().replace("\x02", "") for page in document]


@pytest.fixture(scope="module")
def written() -> list[list[str]]:
    """The words of each paragraph, without what stands in tables and headings."""
    found = []
    for path in SOURCES:
        for block in re.split(r"\n\s*\n", path.read_text(encoding="utf-8")):
            text = "\n".join(line for line in block.split("\n") if not re.match(r"[|#@]", line))
            found.append(re.findall(r"[^\W\d_]+|\d+", text.casefold()))
    return found


def test_it_is_built_to_the_same_bytes(tmp_path):
    again = tmp_path / "handbook.pdf"
    before = (DEMO / "outline.json").read_bytes()
    subprocess.run([sys.executable, str(DEMO / "build.py"), str(again)], check=True)
    assert again.read_bytes() == PDF.read_bytes()
    assert (DEMO / "outline.json").read_bytes() == before
    assert PDF.stat().st_size < 4_000_000


def test_it_has_forty_thousand_words():
    text = " ".join(path.read_text(encoding="utf-8") for path in SOURCES)
    assert len(re.findall(r"[^\W_]+(?:[’'.,-][^\W_]+)*", text)) >= 40_000


def test_no_eight_words_stand_twice_in_a_row(written):
    runs = Counter(tuple(words[k : k + 8]) for words in written for k in range(len(words) - 7))
    assert [" ".join(run) for run, n in runs.items() if n > 1] == []


def test_station_entries_share_little():
    text = (DEMO / "handbook" / "08-annex.md").read_text(encoding="utf-8")
    gazetteer = text[: text.index("@annex B")]
    entries = re.split(r"^### .+$", gazetteer, flags=re.M)[1:]
    assert len(entries) == 48
    vocabularies = [set(re.findall(r"[^\W\d_]+", entry.casefold())) for entry in entries]
    shares = [len(a & b) / len(a | b) for a, b in itertools.combinations(vocabularies, 2)]
    assert max(shares) < 0.30


def test_its_pages_vary(pages):
    with pypdfium2.PdfDocument(PDF) as document:
        assert 170 <= len(document) <= 195
        sizes = [page.get_size() for page in document]
        turned = [page.get_rotation() for page in document]
    wide = [k for k, (width, height) in enumerate(sizes) if width > height and not turned[k]]
    assert len(wide) == 1
    assert "Tolerances by instrument" in pages[wide[0]]
    assert turned.count(90) == 1
    assert "Ninety days at Ravnhead" in pages[turned.index(90)]
    assert [k for k, text in enumerate(pages) if not text.strip()] == [118]


def test_the_contents_page_errs_once(handbook):
    wrong = [
        (section.title, dispute.about)
        for section in handbook.outline.sections
        for dispute in section.disagreements
    ]
    assert wrong == [("9.3 Closing error", "page")]


def test_its_bookmarks_are_incomplete(handbook):
    true = lines_of_outline()
    bookmarked = [s for s in handbook.outline.sections if "bookmark" in s.witnesses]
    assert 30 < len(bookmarked) < len([row for row in true if row["level"] < 2])


def lines_of_outline() -> list[dict]:
    return json.loads((DEMO / "outline.json").read_text(encoding="utf-8"))


def test_its_true_outline_is_found(handbook):
    true = {(plain(row["title"]), row["page"]) for row in lines_of_outline()}
    found = {(plain(s.title), s.page + 1) for s in handbook.outline.sections}
    right = len(true & found)
    assert 2 * right / (len(true) + len(found)) > 0.98


def test_questions_of_every_kind_are_there():
    counts = Counter(question["kind"] for question in lines_of("questions.jsonl"))
    assert sum(counts.values()) == 90
    assert counts["unanswerable"] == 14
    assert {kind for kind, n in counts.items() if n >= 4} >= KINDS


@pytest.mark.parametrize("question", lines_of("questions.jsonl"), ids=lambda q: q["id"])
def test_a_question_has_its_quotes_on_its_pages(question, pages):
    text = plain("".join(pages[page - 1] for page in question["pages"]))
    for quote in question["quotes"]:
        assert plain(quote) in text
    quoted = plain(" ".join(question["quotes"]))
    if question["kind"] == "unanswerable":
        assert not question["pages"]
    else:
        assert all(plain(answer) in quoted for answer in question["answers"])
    asked = {other["id"] for other in lines_of("questions.jsonl")}
    assert question.get("after", question["id"]) in asked


def test_half_of_the_questions_share_no_word_with_their_sentence(handbook):
    from wide_margin.core.search.analysis import is_common, words

    terms_of = handbook.index.analyser.terms_of
    apart = answerable = 0
    for question in lines_of("questions.jsonl"):
        if not question["quotes"]:
            continue
        answerable += 1
        asked, said = (
            {terms_of(word)[0] for word in words(text) if not is_common(word)}
            for text in (question["question"], " ".join(question["quotes"]))
        )
        apart += not asked & said
    assert apart >= answerable / 2


def test_pairs_for_backing_are_balanced():
    pairs = lines_of("backing.jsonl")
    assert len(pairs) == 150
    assert set(Counter(pair["change"] for pair in pairs).values()) == {25}
    assert len({pair["sentence"] for pair in pairs}) == 150
