"""Footnote marks are told from the figures of words, and stand in no sentence."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document


def page_with(path, parts):
    """A line of (text, raise, size) parts, and one under it."""
    canvas = Canvas(str(path), pagesize=A4)
    x = 72.0
    for text, rise, size in parts:
        canvas.setFont("Times-Roman", size)
        canvas.drawString(x, 700 + rise, text)
        x += stringWidth(text, "Times-Roman", size)
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(72, 686, "The next line of the paragraph goes on for a while. It ends here.")
    canvas.save()


@pytest.mark.parametrize(
    ("parts", "sentence"),
    [
        ([("The owner takes over maintenance.", 0, 11), ("2", 4, 7), (" Or else he", 0, 11)],
         "The owner takes over maintenance."),
        ([("The work is done", 0, 11), ("12", 4, 7), (" by the owner. He", 0, 11)],
         "The work is done by the owner."),
        ([("A field of 30 m", 0, 11), ("2", 4, 7), (" is small. It", 0, 11)],
         "A field of 30 m2 is small."),
        ([("The variable x", 0, 11), ("1", -2, 7), (" is free. It", 0, 11)],
         "The variable x1 is free."),
        ([("Release", 0, 11), ("7", 0, 11), (" came late. It", 0, 11)], "Release7 came late."),
    ],
)  # fmt: skip
def test_a_sentence_has_no_mark_and_keeps_its_figures(tmp_path, parts, sentence):
    page_with(tmp_path / "marked.pdf", parts)
    document = read_document(tmp_path / "marked.pdf")
    assert document.text.sentences[0].text == sentence


def test_the_words_of_a_marked_sentence_are_still_found_on_the_page(tmp_path):
    page_with(tmp_path / "m.pdf", [("It is taken over.", 0, 11), ("3", 4, 7), (" Then", 0, 11)])
    document = read_document(tmp_path / "m.pdf")
    sentence = document.text.sentences[0]
    spans = document.paragraphs[0].spans(sentence.start, sentence.end)
    assert (spans[0].start, spans[-1].end) == (0, len("It is taken over."))


def test_the_letters_that_tie_authors_to_their_places_of_work_are_marks(tmp_path):
    parts = [("Marta Lindqvist", 0, 11), ("a", 4, 7), (" and Aino Heikkila", 0, 11), ("b,c", 4, 7)]
    page_with(tmp_path / "a.pdf", parts)
    first = read_document(tmp_path / "a.pdf").paragraphs[0]
    assert first.unmarked.split()[:5] == ["Marta", "Lindqvist", "and", "Aino", "Heikkila"]
    page_with(tmp_path / "b.pdf", [("The idea", 0, 11), ("a", 0, 11), (" of Agenda", 0, 11)])
    assert "ideaa of Agenda" in read_document(tmp_path / "b.pdf").paragraphs[0].unmarked
