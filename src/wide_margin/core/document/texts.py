"""The text of a reach, paragraph by paragraph; a table by its rows, a row by its cells."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.document.locators import Locator, paragraph_locator
from wide_margin.core.document.tables import find_tables

if TYPE_CHECKING:
    from wide_margin.core.document.model import ReadDocument
    from wide_margin.core.document.tables import Cell
    from wide_margin.core.geometry import BoolArray
    from wide_margin.core.layout import SpanOnPage

AROUND = 3
"""Paragraphs looked at before and after a reach, so that a table is found whole."""


@dataclass(frozen=True, slots=True)
class ParagraphText:
    """A paragraph as it is read out of a document."""

    kind: str
    """The paragraph's; "row" for a row of a table."""
    sentences: tuple[str, ...]
    """Of a row, its cells."""
    locator: Locator


def texts_of(document: ReadDocument, allowed: BoolArray) -> tuple[ParagraphText, ...]:
    """The paragraphs of a reach in reading order.

    Args:
        document: It.
        allowed: (n sentences,) which belong to the reach.
    """
    by_paragraph: dict[int, list[str]] = {}
    taken: dict[int, list[tuple[int, int]]] = {}
    for row, sentence in enumerate(document.text.sentences):
        if allowed[row]:
            by_paragraph.setdefault(sentence.paragraph, []).append(sentence.text)
            taken.setdefault(sentence.paragraph, []).append((sentence.start, sentence.end))
    rows = _rows_of_tables(document, taken)
    found = []
    for row, sentences in by_paragraph.items():
        if row in rows:
            found += rows[row]
        else:
            kind = document.paragraphs[row].kind
            found.append(ParagraphText(kind, tuple(sentences), paragraph_locator(document, row)))
    return tuple(found)


def _rows_of_tables(
    document: ReadDocument, taken: dict[int, list[tuple[int, int]]]
) -> dict[int, list[ParagraphText]]:
    """For each paragraph of a table, the rows that stand in its first one; none in the others."""
    if not taken:
        return {}
    first = max(min(taken) - AROUND, 0)
    near = document.paragraphs[first : max(taken) + 1 + AROUND]
    rows: dict[int, list[ParagraphText]] = {}
    for table in find_tables(near):
        inside = range(first + table.paragraphs[0], first + table.paragraphs[1])
        here = [row for row in inside if row in taken]
        spans = [
            span
            for row in here for start, end in taken[row]
            for span in document.paragraphs[row].spans(start, end)
        ]  # fmt: skip
        told = [
            ParagraphText("row", tuple(c.text for c in cells), _locator(document, inside, cells))
            for row in table.rows
            if (cells := [cell for cell in row if cell.text]) and _overlap(cells, spans)
        ]
        rows |= {row: told if row == here[0] else [] for row in here}
    return rows


def _overlap(cells: Sequence[Cell], spans: Sequence[SpanOnPage]) -> bool:
    """Whether any character of some cells is in some spans."""
    return any(
        mine.page == span.page and mine.start < span.end and span.start < mine.end
        for cell in cells for mine in cell.spans for span in spans
    )  # fmt: skip


def _locator(document: ReadDocument, inside: Sequence[int], cells: Sequence[Cell]) -> Locator:
    """The locator of a row of a table that takes some paragraphs."""
    spans = tuple(span for cell in cells for span in cell.spans)
    page, at = spans[0].page, spans[0].start
    top = next(
        (
            float(piece.line.box[1])
            for row in inside for piece in document.paragraphs[row].pieces
            for span in piece.line.characters(0, len(piece.line.text))
            if span.page == page and span.start <= at < span.end
        ),
        -1.0,
    )  # fmt: skip
    path = document.path_at(document.outline.at_paragraph(inside[0]))
    quote = " ".join(cell.text for cell in cells)
    return Locator(page, document.labels.of(page), spans, path, quote, y=top)
