"""Pages on which nothing is printed lack no text."""

import os

import pikepdf
import pytest
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.answers import WHOLE
from wide_margin.core.session.reading_service import ReadingService
from wide_margin.core.session.requests import ReadRequest

SAID = "The rope of the well is changed every eighteen months by the keeper of the gate."


@pytest.fixture
def with_blanks(tmp_path):
    """Text, a blank page, a page with a drawing, a blank page."""
    path = tmp_path / "a.pdf"
    canvas = Canvas(str(path))
    canvas.drawString(72, 700, SAID)
    canvas.showPage()
    canvas.showPage()
    canvas.rect(100, 100, 200, 200)
    canvas.showPage()
    canvas.save()
    with pikepdf.open(path, allow_overwriting_input=True) as pdf:
        pdf.add_blank_page()
        pdf.save(path)
    return path


def nothing(kind, value):
    """Reports are for others."""


def test_blank_pages_are_searched_and_not_to_be_recognised(with_blanks):
    service = ReadingService()
    summary = service.read(nothing, ReadRequest(with_blanks, os.getpid()))
    assert summary.without_text == (2,)
    assert summary.to_recognise == (2,)
    answer = service.ask(nothing, "How often is the rope changed?", WHOLE)
    assert (answer.n_searched, answer.n_pages, answer.without_text) == (3, 4, (2,))
