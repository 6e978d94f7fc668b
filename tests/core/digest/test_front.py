"""A front whose title stands right over lists and columns of text: what of it is no fact."""

from types import SimpleNamespace

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document, wrapped
from wide_margin.core.digest import facts
from wide_margin.core.digest.authors import _of_text
from wide_margin.core.digest.facts import find_facts
from wide_margin.core.digest.front import FULL_PAGE, FrontLine, front_lines

SAID = (
    "The keeper draws the bucket up by hand, and closes the lid as soon as it is up and empty."
    " Who takes a bucket to the shed signs for it in the book of the well, by day and by night."
)


WIDE = 140


def read(path, title, blocks, size=22):
    """Facts of a page with a title over paragraphs in a narrow column."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Times-Roman", size)
    for k, line in enumerate(title):
        canvas.drawCentredString(A4[0] / 2, 780 - 1.2 * size * k, line)
    canvas.setFont("Times-Roman", 10)
    y = 720
    for block in blocks:
        for line in wrapped(block, "Times-Roman", 10, WIDE):
            canvas.drawString(60, y, line)
            y -= 12
        y -= 6
    canvas.showPage()
    canvas.save()
    return find_facts(read_document(path))


def line_of(text, paragraph=0):
    return FrontLine(text, 0, 10.0, 400.0, 60.0, 200.0, False, (), paragraph)


@pytest.mark.parametrize(
    ("text", "paragraph", "is_nobody"),
    [
        ("• Amber Olsen", "• Amber Olsen", True),
        ("Amber Olsen.", "For all that is not said ask the Amber Olsen.", True),
        ("Amber Olsen", f"{SAID} {SAID}", True),
        ("Amber Olsen", "Amber Olsen", False),
        ("Amber Olsen.", "Amber Olsen.", False),
    ],
)
def test_on_a_full_page_lists_and_running_text_name_nobody(text, paragraph, is_nobody):
    document = SimpleNamespace(paragraphs=[SimpleNamespace(text=paragraph)])
    line = line_of(text)
    lines = [line, *[line_of("", -1)] * FULL_PAGE]
    assert (id(line) in _of_text(document, lines)) == is_nobody
    assert (id(line) in _of_text(document, [line])) == text.startswith("•")


def test_where_a_column_of_text_begins_is_no_subtitle(tmp_path, monkeypatch):
    pages = [[("title", "A Manual of Wells"), ("text", "Of ropes and lids"), ("text", SAID * 2)]]
    make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    for text, is_text in (("Of ropes", False), ("The keeper", True)):
        said = [line for line in front_lines(document) if line.text.startswith(text)]
        monkeypatch.setattr(facts, "subtitle_of", lambda *_, said=said: said)
        assert (find_facts(document).subtitle is None) == is_text


@pytest.mark.parametrize("named", ["Table of Contents", "Tabla de contenidos"])
def test_the_heading_of_contents_is_no_subtitle(tmp_path, named):
    found = read(tmp_path / "a.pdf", ["A Manual of Wells", named], ["Ropes", "Lids", *[SAID] * 8])
    assert found.title.text == "A Manual of Wells"
    assert found.subtitle is None


@pytest.mark.parametrize(
    ("lines", "title"),
    [
        (["Keeping the buc-", "kets of a village"], "Keeping the buckets of a village"),
        (["Rules for well-", "keepers"], "Rules for well-keepers"),
        (["Winch 2.6.1 -", "A guide for keepers"], "Winch 2.6.1 - A guide for keepers"),
    ],
)
def test_a_title_in_two_lines_is_joined_as_it_is_meant(tmp_path, lines, title):
    said = f"The buckets are oak. {SAID}"
    assert read(tmp_path / "a.pdf", lines, [said, *[SAID] * 5]).title.text == title
