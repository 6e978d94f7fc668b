import csv
import io
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lxml import etree
from markdown_it import MarkdownIt

from wide_margin.core.export import export_outline, read_outline
from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline, Section
from wide_margin.core.plain import (
    counted,
    for_cell,
    for_json_on_screen,
    for_markdown,
    for_xml,
    from_cell,
    one_line,
    plain,
)

HARM = [
    "<script>alert(1)</script>", "[click](javascript:alert(1))", "=HYPERLINK(\"x\")", "+1", "-1",
    "@sum", "safe\u202egnp.exe", "\ufffe and \x00 and \x1b[31m", "![x](http://x/y.png)",
    "| a | b |", "1. not a list", "- nor this", "&lt;b&gt;", "`code`", "**bold** _it_",
    "# not a heading", "<img src=x onerror=y>", "'quoted",
]  # fmt: skip


def outline_of(titles):
    return Outline(tuple(Section(t, 0, k, 0.0, k, k + 1, k, 1.0) for k, t in enumerate(titles)))


def test_controls_and_overrides_go():
    assert plain("a\x1b[31mb\u202ec\u2066d\x00") == "a [31mbcd "
    assert one_line("a\n b\t c", 4) == "a b…"


@pytest.mark.parametrize("text", HARM)
def test_markdown_shows_the_text_and_nothing_else(text):
    shown = MarkdownIt("commonmark").render(f"- {for_markdown(plain(text))}")
    inner = etree.fromstring(f"<div>{shown}</div>", etree.HTMLParser())
    assert {e.tag for e in inner.iter()} <= {"html", "body", "div", "ul", "li", "p"}
    assert " ".join("".join(inner.itertext()).split()) == " ".join(plain(text).split())


@given(st.text(max_size=30))
def test_cells_come_back_and_are_no_formulas(text):
    cell = for_cell(text)
    assert from_cell(cell) == text
    assert cell[:1] not in ("=", "+", "-", "@", "\t", "\r")


@given(st.text(max_size=30))
def test_json_for_the_screen_is_the_same_value(text):
    shown = for_json_on_screen(json.dumps({"a": text}, ensure_ascii=False))
    assert json.loads(shown) == {"a": text}
    assert "\u202e" not in shown


def test_what_is_written_of_harmful_titles_is_read_back(tmp_path):
    outline, labels = outline_of(HARM), PageLabels(tuple(HARM))
    for form in ("opml", "json"):
        path = tmp_path / f"outline.{form}"
        path.write_text(export_outline(outline, labels, form, HARM[0]), encoding="utf-8")
        back = [row["title"] for row in read_outline(path)]
        clean = for_xml if form == "opml" else str
        assert back == [one_line(clean(title)) for title in HARM]


def test_csv_holds_no_formula():
    text = export_outline(outline_of(HARM), PageLabels(tuple(HARM)), "csv")
    rows = list(csv.reader(io.StringIO(text)))
    assert [from_cell(row[1]) for row in rows[1:]] == HARM
    assert not any(cell[:1] in "=+-@" for row in rows[1:] for cell in (row[1], row[3]) if cell)


def test_html_holds_no_tag_of_theirs():
    text = export_outline(outline_of(HARM), PageLabels(tuple(HARM)), "html", HARM[0])
    tree = etree.fromstring(text, etree.HTMLParser())
    assert not {e.tag for e in tree.iter()} & {"script", "img", "a", "b"}


@pytest.mark.parametrize(("n", "said"), [(0, "0 pages"), (1, "1 page"), (2415, "2,415 pages")])
def test_numbers_agree_with_their_noun(n, said):
    assert counted(n, "page") == said
