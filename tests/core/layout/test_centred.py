"""Labels that stand at half the height of the text beside them."""

from pathlib import Path

import pytest
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.layout import lines_of
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.text import read_text

CELLS = {
    "Low": ["The risk is small, or the keeper has", "said that it is of no account."],
    "Middle": ["Some of the nets may be lost, which", "would be bad for the name of the",
               "harbour and cost some money."],
    "Unknown": ["How large the risk is was not looked into."],
    "High": ["Boats may be lost, and the harbour", "would be closed by the office."],
}  # fmt: skip


def drawn(path: Path, *, centred: bool, padding: float = 8.0):
    canvas = Canvas(str(path), invariant=1)
    canvas.setFont("Times-Roman", 10)
    y = 700.0
    for label, text in CELLS.items():
        canvas.drawString(80, y - (6 * (len(text) - 1) if centred else 0), label)
        for k, line in enumerate(text):
            canvas.drawString(180, y - 12 * k, line)
        y -= 12 * len(text) + padding
    canvas.save()
    return read_text(PdfFile(path), 0)


@pytest.mark.parametrize("centred", [True, False])
def test_a_label_comes_before_the_text_it_names(tmp_path, centred):
    lines = lines_of(drawn(tmp_path / "table.pdf", centred=centred))
    told = [part for line in lines for part in line.text.split("\t")]
    assert told == [part for label, text in CELLS.items() for part in (label, *text)]
    assert [line.text.split("\t")[0] for line in lines if line.cells] == list(CELLS)


def test_a_place_in_such_a_line_is_a_place_on_the_page(tmp_path):
    page = drawn(tmp_path / "table.pdf", centred=True)
    for line in lines_of(page):
        for word in ("Middle", "Some", "bad", "Low", "Boats"):
            if word in line.text:
                at = line.text.index(word)
                (span,) = line.characters(at, at + len(word))
                assert page.chars[span.start : span.end] == word


def test_every_character_is_in_one_line(tmp_path):
    page = drawn(tmp_path / "table.pdf", centred=True)
    found = [k for line in lines_of(page) for first, end in line.spans for k in range(first, end)]
    assert len(found) == len(set(found))
    inked = {k for k, c in enumerate(page.chars) if not c.isspace()}
    assert inked <= set(found)


def test_rows_as_near_as_their_lines_are_left_as_they_are(tmp_path):
    lines = lines_of(drawn(tmp_path / "table.pdf", centred=False, padding=0.0))
    told = [part for line in lines for part in line.text.split("\t")]
    assert told == [part for label, text in CELLS.items() for part in (label, *text)]
