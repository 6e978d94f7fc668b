import numpy as np
import pypdfium2 as pdfium
import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, page_texts
from wide_margin.core.later import regex
from wide_margin.core.pages import text as reading
from wide_margin.core.pages.document import PdfFile


def test_every_character_has_a_box_in_page_space(small_pdf):
    page = page_texts(small_pdf)[0]
    assert len(page.boxes) == len(page.chars)
    inked = [k for k, c in enumerate(page.chars) if not c.isspace()]
    boxes = page.boxes[inked]
    assert not np.isnan(boxes).any()
    assert (boxes[:, 2] > boxes[:, 0]).all()
    assert (boxes[:, 3] > boxes[:, 1]).all()
    assert (boxes[:, 3] < A4[1]).all()


def test_the_heading_is_above_the_text_and_larger(small_pdf):
    page = page_texts(small_pdf)[0]
    heading, text = page.chars.index("Wells"), page.chars.index("hole")
    assert page.boxes[heading, 1] < page.boxes[text, 1]
    run_of = np.searchsorted(page.run_starts, [heading, text], side="right") - 1
    assert page.run_sizes[run_of[0]] == pytest.approx(18)
    assert page.run_sizes[run_of[1]] == pytest.approx(11)


def test_faces_are_told_apart_by_their_names(tmp_path):
    path = tmp_path / "faces.pdf"
    make_pdf(path, [[("h2", "Bold words"), ("head", "Italic words"), ("code", "fixed words")]])
    page = page_texts(path)[0]
    told = {(f.is_bold, f.is_italic, f.is_fixed) for f in page.fonts}
    assert {(True, False, False), (False, True, False), (False, False, True)} <= told


@pytest.mark.parametrize("turns", [0, 90, 180, 270])
def test_text_of_a_rotated_page_is_where_it_is_seen(tmp_path, turns):
    path = tmp_path / "turned.pdf"
    canvas = Canvas(str(path), pagesize=(400, 600))
    canvas.drawString(20, 570, "Corner")  # the upper left before turning
    canvas.save()
    straight = pdfium.PdfDocument(path.read_bytes())
    straight[0].set_rotation(turns)
    straight.save(path)
    straight.close()
    page = page_texts(path)[0]
    wide = turns in (90, 270)
    assert (page.width, page.height) == ((600, 400) if wide else (400, 600))
    middle = np.nanmean(page.boxes[:, :2], axis=0)
    is_left, is_top = middle[0] < page.width / 2, middle[1] < page.height / 2
    assert (is_left, is_top) == {
        0: (True, True), 90: (False, True), 180: (False, False), 270: (True, False)
    }[turns]  # fmt: skip


def test_a_page_without_text_gives_nothing_and_no_error(blank_pdf):
    page = page_texts(blank_pdf)[0]
    assert page.chars == ""
    assert page.boxes.shape == (0, 4)


def test_the_arrays_of_a_page_cannot_be_changed(small_pdf):
    page = page_texts(small_pdf)[0]
    with pytest.raises(ValueError, match="read-only"):
        page.boxes[0, 0] = 1.0


@pytest.mark.parametrize("flag", [reading._FIXED_FLAG, 0])
@pytest.mark.parametrize(("font", "is_fixed"), [("Courier", True), ("Helvetica", False)])
def test_a_font_of_one_width_is_told_by_its_words(tmp_path, monkeypatch, font, is_fixed, flag):
    """Neither its name nor what the file says of it is needed, or believed."""
    monkeypatch.setattr(reading, "_FIXED", regex(r"^no name says so$"))
    monkeypatch.setattr(reading.pdfium_c, "FPDFFont_GetFlags", lambda handle: flag)
    path = tmp_path / "words.pdf"
    canvas = Canvas(str(path))
    canvas.setFont(font, 10)
    for k, line in enumerate(
        ("family milliliter memory", "jimmy filmmaker witless", "mild maltlike")
    ):
        canvas.drawString(72, 700 - 14 * k, line)
    canvas.save()
    pdf = PdfFile(path)
    try:
        (face,) = reading.read_text(pdf, 0, only_edges=True).fonts
    finally:
        pdf.close()
    assert face.is_fixed is is_fixed
