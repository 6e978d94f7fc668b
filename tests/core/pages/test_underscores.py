"""Underscores drawn as rules between words are characters of the text."""

import numpy as np
import pytest
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.pages import text as pages_text
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.model import Font
from wide_margin.core.pages.text import read_text
from wide_margin.core.pages.underscores import may_draw_underscores

SIZE, RULE = 11, 3.5


def drawn(path, *parts, down=1.0, rule=RULE, thick=0.4):
    """A line of words with a short rule between each two, so far under the line of writing."""
    canvas = Canvas(str(path), pagesize=(400, 400))
    canvas.setFont("Times-Roman", SIZE)
    canvas.drawString(50, 300, "The rope of the tower is wound by")
    x = 50.0
    for k, part in enumerate(parts):
        canvas.drawString(x, 280, part)
        x += stringWidth(part, "Times-Roman", SIZE) + 0.5
        if k + 1 < len(parts):
            canvas.rect(x, 280 - down, rule, thick, stroke=0, fill=1)
            x += rule + 0.5
    canvas.save()


@pytest.fixture
def of_tex(monkeypatch):
    monkeypatch.setattr(pages_text, "may_draw_underscores", lambda font: True)


def read(path, **how):
    pdf = PdfFile(path)
    try:
        return read_text(pdf, 0, **how)
    finally:
        pdf.close()


@pytest.mark.parametrize("only_edges", [False, True])
def test_a_short_rule_between_two_words_joins_them(tmp_path, of_tex, only_edges):
    drawn(tmp_path / "a.pdf", "wind", "rope", "now(drum)")
    text = read(tmp_path / "a.pdf", only_edges=only_edges)
    assert "wind_rope_now(drum)" in text.chars
    assert "The rope of the tower is wound by" in text.chars


def test_an_underscore_lies_between_its_words(tmp_path, of_tex):
    drawn(tmp_path / "a.pdf", "wind", "rope")
    text = read(tmp_path / "a.pdf")
    at = text.chars.index("_")
    before, own, after = text.boxes[at - 1 : at + 2]
    assert np.isclose(own[0], before[2])
    assert np.isclose(own[2], after[0])
    assert own[1] < own[3]


@pytest.mark.parametrize(
    "how", [{"down": -3.5}, {"down": -12}, {"down": 8}, {"rule": 14.0}, {"thick": 2.5}]
)
def test_dashes_fractions_and_boxes_are_no_underscores(tmp_path, of_tex, how):
    drawn(tmp_path / "a.pdf", "wind", "rope", **how)
    assert "_" not in read(tmp_path / "a.pdf").chars


def test_only_pages_in_the_fonts_of_tex_are_asked(tmp_path):
    drawn(tmp_path / "a.pdf", "wind", "rope")
    assert "wind rope" in read(tmp_path / "a.pdf").chars
    names = ("ABCDEF+CMR10", "CMTT12", "Times-Roman", "ABCDEF+SFRM1000")
    fonts = [Font(name, is_bold=False, is_italic=False, is_fixed=False) for name in names]
    assert [may_draw_underscores(font) for font in fonts] == [True, True, False, False]
