"""Footnote marks are told from the figures of words, and stand in no sentence."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document
from wide_margin.core.document.notes import find_notes


def with_line(path, parts):
    """A page with a line of (text, raise, size) parts."""
    canvas = Canvas(str(path), pagesize=A4)
    x = 72.0
    for text, rise, size in parts:
        canvas.setFont("Times-Roman", size)
        canvas.drawString(x, 700 + rise, text)
        x += stringWidth(text, "Times-Roman", size)
    canvas.setFont("Times-Roman", 11)
    return canvas


def page_with(path, parts):
    """A line of parts, and one under it."""
    canvas = with_line(path, parts)
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


def noted_page(path, parts, note=("1", 5), *, under=120.0):
    """A line of parts over others, and a note in small type at the foot of the page."""
    canvas = with_line(path, parts)
    for k in range(6):
        canvas.drawString(
            72, 686 - 14 * k, "Another line of the paragraph goes on for a while, and"
        )
    canvas.drawString(72, 686 - 14 * 6, "it ends here.")
    mark, size = note
    canvas.setFont("Times-Roman", size)
    canvas.drawString(72, under + 3, mark)
    canvas.setFont("Times-Roman", 8)
    canvas.drawString(76, under, "What is kept in a well is told by the keeper in his book.")
    canvas.save()


@pytest.mark.parametrize(
    ("parts", "said"),
    [
        ([("It holds a bug", 0, 11), ("1", 4, 6), (" since long. It", 0, 11)],
         "It holds a bug since"),
        ([("It broke in 2012", 0, 11), ("1", 4, 6), (" and later. It", 0, 11)],
         "It broke in 2012 and"),
        ([("It is free of it. ", 0, 11), ("1", 4, 6), (" Most of all", 0, 11)],
         "It is free of it. Most of all"),
        ([("It stands in ESS", 0, 11), ("1", 4, 6), (") and more. It", 0, 11)],
         "It stands in ESS) and"),
    ],
)  # fmt: skip
def test_a_note_asks_for_its_mark_after_a_short_word_or_a_figure(tmp_path, parts, said):
    noted_page(tmp_path / "noted.pdf", parts)
    document = read_document(tmp_path / "noted.pdf")
    words = " ".join(sentence.text for sentence in document.text.sentences[:2]).split()
    assert " ".join(words).startswith(said)
    (tie,) = find_notes(document.paragraphs)
    assert document.paragraphs[tie.note].text.startswith("1")


@pytest.mark.parametrize(
    ("parts", "kept"),
    [
        ([("The field of 3 m", 0, 11), ("1", 4, 6), (" is small. It", 0, 11)], "3 m1 is"),
        ([("It is at 30 km", 0, 11), ("1", 4, 6), (" or 40 km", 0, 11), ("1", 4, 6),
          (" from here. It", 0, 11)], "30 km1 or 40 km1"),
        ([("It is at 30 km", 0, 11), ("1", 4, 6), (" from the town.", 0, 11), ("1", 4, 6),
          (" There", 0, 11)], "30 km1 from the town."),
        ([("The row xab", 0, 11), ("1", -3, 6), (" is below. It", 0, 11)], "xab1 is"),
    ],
)  # fmt: skip
def test_a_power_is_no_mark_nor_what_stands_more_than_once(tmp_path, parts, kept):
    noted_page(tmp_path / "noted.pdf", parts)
    assert kept in read_document(tmp_path / "noted.pdf").text.sentences[0].text


@pytest.mark.parametrize(("mark", "n_left_out"), [("1", 1), ("*", 1), ("1.", 0)])
def test_a_note_is_quoted_without_its_mark(tmp_path, mark, n_left_out):
    noted_page(tmp_path / "noted.pdf", [("It holds a bug since long.", 0, 11)], note=(mark, 5))
    document = read_document(tmp_path / "noted.pdf")
    (note,) = (s for s in document.text.sentences if s.kind == "note" and "well" in s.text)
    paragraph = document.paragraphs[note.paragraph]
    assert note.text == paragraph.text[n_left_out:].lstrip()
    assert paragraph.text[note.start : note.end] == note.text


def test_without_a_small_note_below_no_mark_is_called_for(tmp_path):
    parts = [("It holds a bug", 0, 11), ("1", 4, 6), (" since long. It", 0, 11)]
    noted_page(tmp_path / "above.pdf", parts, under=760.0)
    noted_page(tmp_path / "large.pdf", parts, note=("1", 11))
    for name in ("above.pdf", "large.pdf"):
        said = " ".join(p.unmarked for p in read_document(tmp_path / name).paragraphs)
        assert "a bug1 since" in " ".join(said.split())
