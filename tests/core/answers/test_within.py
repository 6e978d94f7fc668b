"""Which sentences lie within some spans, in whatever order the pages of their paragraphs come."""

from dataclasses import replace
from types import SimpleNamespace

from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.answers.within import pages_covered, rows_within
from wide_margin.core.layout import SpanOnPage

PAGES = [0, 1, 2, 3, 4, 0, 5]
"""A sentence for each page of one long paragraph, then the note at the foot of its first page."""


class Document:
    """As much of a document as is asked for."""

    def __init__(self):
        sentences = [
            SimpleNamespace(page=page, paragraph=row, start=0, end=9)
            for row, page in enumerate(PAGES)
        ]
        self.text = SimpleNamespace(sentences=sentences)
        self.paragraphs = [Paragraph(page, 10 * row) for row, page in enumerate(PAGES)]


class Paragraph:
    """Ten characters of a page."""

    def __init__(self, page, first):
        self.page, self.first = page, first

    def spans(self, start, end):
        return (SpanOnPage(self.page, self.first + start, self.first + end),)


def test_a_note_is_found_after_pages_that_follow_its_own():
    document = Document()
    assert rows_within(document, (SpanOnPage(0, 50, 59),)) == [5]
    assert rows_within(document, (SpanOnPage(4, 40, 41),)) == [4]
    assert rows_within(document, (SpanOnPage(0, 0, 60), SpanOnPage(5, 60, 61))) == [0, 5, 6]
    assert rows_within(document, ()) == []


def test_pages_whose_text_is_damaged_are_not_searched(small):
    assert pages_covered(small, WHOLE) == (3, 3, ())
    damaged = replace(small, garbled=(1,), without_text=(2,))
    assert pages_covered(damaged, WHOLE) == (1, 3, (1, 2))
    assert damaged.n_searched == 1


def test_where_nothing_can_be_read_a_question_is_declined_for_that(small):
    damaged = replace(small, garbled=(0, 1, 2))
    answer = answer_quoted(damaged, "Who paints the iron lids in Hallan?")
    assert answer.declined
    assert answer.reason == "None of its pages has text that can be read."
