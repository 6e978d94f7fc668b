"""The way from a statement to its very words on a page."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.layout import SpanOnPage, page_shown

if TYPE_CHECKING:
    from wide_margin.core.document.model import ReadDocument
    from wide_margin.core.passages import Sentence


@dataclass(frozen=True, slots=True)
class Locator:
    """The way from a statement to its very words on a page; only made from an excerpt."""

    page: int
    label: str | None
    spans: tuple[SpanOnPage, ...]
    path: tuple[str, ...]
    """Section titles from the outermost down."""
    quote: str = ""
    """The words it leads to: they find the place again in a new version of the file."""
    is_lost: bool = False
    """Whether the file that is open no longer has these words."""
    y: float = -1.0
    """Top of its first line, points from the top of the page; -1 where it is not known."""

    @property
    def shown(self) -> str:
        """As written on screen and in copies: "p. 57"."""
        return page_shown(self.label, self.page)


def locator_for(document: ReadDocument, sentence: int, end: int | None = None) -> Locator:
    """The locator of consecutive sentences [sentence, end)."""
    last = (end or sentence + 1) - 1
    spans: list[SpanOnPage] = []
    for row in range(sentence, last + 1):
        part = document.text.sentences[row]
        spans.extend(document.paragraphs[part.paragraph].spans(part.start, part.end))
    first = document.text.sentences[sentence]
    return Locator(
        page=first.page,
        label=document.labels.of(first.page),
        spans=tuple(spans),
        path=document.path_at(first.section),
        quote=" ".join(s.text for s in document.text.sentences[sentence : last + 1]),
        y=_top_of(document, first),
    )


def _top_of(document: ReadDocument, sentence: Sentence) -> float:
    """Top of the line that a sentence starts on."""
    top = -1.0
    for at, line, _ in document.paragraphs[sentence.paragraph].pieces:
        if at > sentence.start and top >= 0:
            break
        top = line.box[1]
    return float(top)


def paragraph_locator(document: ReadDocument, row: int) -> Locator:
    """The locator of a whole paragraph."""
    paragraph = document.paragraphs[row]
    section = document.outline.at_paragraph(row)
    return Locator(
        paragraph.page, document.labels.of(paragraph.page),
        paragraph.spans(0, len(paragraph.text)), document.path_at(section), paragraph.text,
        y=float(paragraph.pieces[0].line.box[1]),
    )  # fmt: skip
