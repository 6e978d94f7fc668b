"""The front of a document: the lines of its first pages, as a reader takes a first look at them."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from wide_margin.core.document import Locator, ReadDocument
from wide_margin.core.later import regex
from wide_margin.core.layout import Line, SpanOnPage, tidy

FRONT_PAGES = 5
"""Title page, its back, and what comes before the contents."""
_LETTERS = regex(r"[^\W\d_]")
_ABSTRACT = regex(
    r"^\W*(?:abstract|summary|zusammenfassung|résumé|resumen|sommario|resumo|samenvatting)\b", re.I
)


@dataclass(frozen=True, slots=True)
class FrontLine:
    """A line of the front, its footnote marks left out."""

    text: str
    page: int
    size: float
    """Of its type, points."""
    top: float
    """Points from the top of the page."""
    left: float
    right: float
    is_bold: bool
    spans: tuple[SpanOnPage, ...]
    paragraph: int

    @property
    def n_letters(self) -> int:
        """How many letters it has."""
        return len(_LETTERS.findall(self.text))


def front_lines(document: ReadDocument) -> list[FrontLine]:
    """The lines of the first pages, page by page from the top down."""
    found = []
    for row, paragraph in enumerate(document.paragraphs):
        if paragraph.page >= FRONT_PAGES:
            break
        for piece in paragraph.pieces:
            if piece.line.page < FRONT_PAGES:
                found.append(_front_line(piece.line, row))
    order = sorted(
        range(len(found)), key=lambda k: (found[k].page, round(found[k].top), found[k].left)
    )
    return [found[k] for k in order if found[k].text]


def running_lines(document: ReadDocument) -> list[FrontLine]:
    """The running heads and feet of the first pages."""
    return [_front_line(line, -1) for line in document.running]


def _front_line(line: Line, row: int) -> FrontLine:
    text = line.text
    for first, end in reversed(line.marks):
        text = text[:first] + " " + text[end:]
    x0, y0, x1, _ = line.box
    spans = tuple(SpanOnPage(line.page, first, end) for first, end in line.spans)
    return FrontLine(
        "   ".join(tidy(cell) for cell in text.split("\t")).strip(),
        line.page,
        line.size,
        y0,
        x0,
        x1,
        line.is_bold,
        spans,
        row,
    )


def line_locator(document: ReadDocument, lines: Sequence[FrontLine], quote: str = "") -> Locator:
    """The locator of some lines of one page."""
    first = lines[0]
    spans = tuple(span for line in lines for span in line.spans)
    return Locator(
        first.page, document.labels.of(first.page), spans, (),
        quote or " ".join(line.text for line in lines), y=first.top,
    )  # fmt: skip


def begins_abstract(text: str) -> bool:
    """Whether a line is the heading of an abstract, or begins one."""
    return bool(_ABSTRACT.match(text))
