"""Titles that begin some of the paragraphs of a text that is numbered throughout."""

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document, wrapped

SAID = (
    "reads the staff at the turn of every tide and writes the height into the book of"
    " the station, whether or not anybody has asked for it on that day or on the one before."
)


def numbered(path, titles, n=30):
    """Paragraphs with their numbers in bold, some of which have a title after it."""
    canvas = Canvas(str(path), invariant=1)
    keepers = [f"Keeper {one}{other}" for one in ("Aa", "Bo", "Ki") for other in "bdfghklmnp"]
    for k in range(1, n + 1):
        y = 760 - 120 * ((k - 1) % 6)
        x = 72
        for part in (f"{k}.", *([f"{titles[k]}."] if k in titles else [])):
            canvas.setFont("Times-Bold", 11)
            canvas.drawString(x, y, part)
            x += canvas.stringWidth(part, "Times-Bold", 11) + 12
        canvas.setFont("Times-Roman", 11)
        first, *rest = wrapped(f"{keepers[k - 1]} {SAID}", "Times-Roman", 11, 540 - x)
        canvas.drawString(x, y, first)
        for line, text in enumerate(wrapped(" ".join(rest), "Times-Roman", 11, 468), start=1):
            canvas.drawString(72, y - 14 * line, text)
        if k % 6 == 0:
            canvas.showPage()
    canvas.save()
    return read_document(path)


def test_a_number_with_a_title_begins_a_section_and_one_alone_goes_on_in_it(tmp_path):
    document = numbered(tmp_path / "a.pdf", {1: "Introduction", 9: "The staff", 20: "The book"})
    assert [(s.title, s.level, s.page) for s in document.outline.sections] == [
        ("1. Introduction", 0, 0), ("9. The staff", 0, 1), ("20. The book", 0, 3),
    ]  # fmt: skip
    assert not [p for p in document.paragraphs if p.kind == "row"]
    whole = [s.text for s in document.text.sentences if SAID in s.text]
    assert len(whole) >= 26  # the last of a page may go on in the next one


EACH = {k: f"Staff {'abcdefghij'[k % 10]}" for k in range(1, 31)}


@pytest.mark.parametrize("titles", [{4: "The staff"}, EACH])
def test_one_title_and_titles_throughout_are_none_of_that_kind(tmp_path, titles):
    sections = numbered(tmp_path / "a.pdf", titles).outline.sections
    assert not [s for s in sections if "taff" in s.title and s.level == 0 and "." in s.title[:3]]
