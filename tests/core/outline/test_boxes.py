"""What stands in a box beside the text, in smaller type, has no sections."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document

SAID = "The keeper draws the bucket up by hand, and closes the lid as soon as it is up and empty."


@pytest.mark.parametrize(("number", "is_kept"), [("", False), ("1.{} ", True)])
def test_the_title_of_a_box_in_smaller_type_is_no_section(tmp_path, number, is_kept):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4, invariant=1)
    for k, name in enumerate(("Ropes", "Lids", "Keys", "Oars", "Nets", "Boats")):
        canvas.setFont("Times-Bold", 14)
        canvas.drawString(72, 780, f"{name} of the harbour")
        canvas.setFont("Times-Roman", 10)
        for row in range(10):
            canvas.drawString(72, 760 - 12 * row, f"{SAID} {row}")
        canvas.setFont("Helvetica-Bold", 9)
        canvas.drawString(90, 610, f"{number.format(k + 1)}Care of {name.lower()}")
        canvas.setFont("Helvetica", 9)
        for row in range(6):
            canvas.drawString(90, 595 - 12 * row, f"{SAID} {row}")
        canvas.showPage()
    canvas.save()
    titles = [s.title for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert ("Ropes of the harbour" in titles, f"{number.format(1)}Care of ropes" in titles) == (
        True,
        is_kept,
    )
