"""Which sentences lie within some spans, in whatever order the pages of their paragraphs come."""

from types import SimpleNamespace

from wide_margin.core.answers.within import rows_within
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
