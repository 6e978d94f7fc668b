"""The digest taken away: JSON, Markdown, HTML, Word, and fields as CSV."""

import csv
import io
import json
from dataclasses import replace

import docx
import pytest
from markdown_it import MarkdownIt

from wide_margin.core.digest import Digester, Fact, Field, as_csv, fields_of, questions_in
from wide_margin.core.explain import find_definitions
from wide_margin.core.export import digest_as_json, export_digest, fields_as_json

EVIL = '<img src="http://evil.example/x.png"> =HYPERLINK("x") *bold* \x00\u202e'


@pytest.fixture(scope="module")
def digest(handbook):
    return Digester(handbook).digest(find_definitions(handbook), n_words=80)


@pytest.fixture(scope="module")
def evil(digest):
    title = Fact(EVIL, digest.facts.title.locator)
    return replace(
        digest,
        facts=replace(digest.facts, title=title, authors=(title,)),
        gist=tuple(replace(line, text=EVIL) for line in digest.gist),
    )


def test_json_has_the_promised_form(digest, handbook):
    made = json.loads(export_digest(digest, handbook.outline, "json"))
    assert made["facts"]["title"] == {
        "text": "The Skerrow Sound Tide Network", "page": 1, "label": "i", "section": []
    }  # fmt: skip
    assert made["facts"]["authors"] == []
    assert made["facts"]["date"] is None
    assert made["facts"]["kind"] == "manual"
    assert all({"text", "page"} <= set(line) for line in made["gist"])
    assert len(made["sections"]) == len(handbook.outline.sections)
    assert digest_as_json(digest, handbook.outline) == made


def test_markdown_names_every_page(digest, handbook):
    text = export_digest(digest, handbook.outline, "md").decode()
    assert text.startswith("# The Skerrow Sound Tide Network\n")
    for line in digest.gist:
        assert line.locator.shown in text
    assert "not stated" in text


def test_html_holds_no_markup_of_the_document(evil, handbook):
    page = export_digest(evil, handbook.outline, "html").decode()
    assert "<img" not in page
    assert "&lt;img" in page
    assert "\x00" not in page
    assert "\u202e" not in page


def test_markdown_holds_no_markup_of_the_document(evil, handbook):
    text = export_digest(evil, handbook.outline, "md").decode()
    page = MarkdownIt("commonmark").render(text)
    assert "<img" not in page
    assert "<em>bold" not in page


def test_word_holds_what_the_digest_says(digest, evil, handbook):
    written = export_digest(digest, handbook.outline, "docx")
    paragraphs = [p.text for p in docx.Document(io.BytesIO(written)).paragraphs]
    assert paragraphs[0] == "The Skerrow Sound Tide Network"
    for line in digest.gist:
        assert any(line.text in paragraph for paragraph in paragraphs)
    docx.Document(io.BytesIO(export_digest(evil, handbook.outline, "docx")))


def test_an_unknown_format_is_an_error(digest, handbook):
    with pytest.raises(ValueError, match="format must be one of"):
        export_digest(digest, handbook.outline, "odt")


def test_no_cell_is_a_formula(digest):
    at = digest.facts.title.locator
    rows = list(
        csv.reader(io.StringIO(as_csv([Field("=cmd()", EVIL[38:], at), Field("x", "", None)])))
    )
    assert rows[0] == ["name", "value", "page"]
    assert not any(cell.startswith(("=", "+", "-", "@")) for row in rows for cell in row)
    assert rows[1][2] == "1"
    assert rows[2] == ["x", "", ""]


def test_fields_are_name_value_and_page(digest):
    fields = fields_of(digest.facts)
    made = fields_as_json(fields)
    assert made["title"]["text"] == "The Skerrow Sound Tide Network"
    assert made["title"]["page"] == 1
    assert made["date"] == {"text": None}
    at = digest.facts.title.locator
    several = fields_as_json([Field("authors", "A B", at), Field("authors", "C D", at)])
    assert [value["text"] for value in several["authors"]] == ["A B", "C D"]


def test_questions_of_a_plain_list():
    text = "# my form\nWho wrote it?\n\n  How high is it?  \n"
    assert questions_in(text) == ["Who wrote it?", "How high is it?"]
