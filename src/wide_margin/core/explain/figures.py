"""A figure or a table explained: its caption, its columns, and the sentences that speak of it."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import TYPE_CHECKING

from wide_margin.core.document import figure_locator, find_figures, find_tables, locator_for
from wide_margin.core.explain.model import Column, FigureExplanation, Leaning
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.document import Figure, ReadDocument, Table
    from wide_margin.core.geometry import Box

MOST_SENTENCES = 5
ROW_LIKE = ("listing", "heading", "caption", "row")
LONGEST_HEAD = 4
"""Words."""
FEW = 2
"""A column with fewer numbers has no range."""
_NUMBER = regex(r"[-−+]?\d[\d  ,]*(?:\.\d+)?")
_UNIT = regex(r"[(\[]([^()\[\]]{1,20})[)\]]\s*$")
_PARTED = regex(r"(?P<word>[^\W\d_]+)\.?\s+(?P<number>.+)")


def figure_at(document: ReadDocument, page: int, box: Box) -> Figure | None:
    """The figure or table that shares most of a region; None where less than half is shared."""

    def shared(other: Box) -> float:
        width = min(box[2], other[2]) - max(box[0], other[0])
        height = min(box[3], other[3]) - max(box[1], other[1])
        smaller = min((b[2] - b[0]) * (b[3] - b[1]) for b in (box, other))
        return max(width, 0.0) * max(height, 0.0) / max(smaller, 1.0)

    near = [f for f in find_figures(document) if f.page == page and f.spans]
    best = max(near, key=lambda figure: shared(figure.box), default=None)
    return best if best is not None and shared(best.box) >= 0.5 else None


def explain_figure(document: ReadDocument, figure: Figure) -> FigureExplanation:
    """Tell what the document says of a figure or table."""
    table = _table_of(document, figure)
    return FigureExplanation(
        figure.caption, figure_locator(document, figure),
        tuple(_columns(table)) if table is not None else (),
        len(table.rows) - max(table.n_head, _names_columns(table)) if table else 0,
        tuple(_spoken_of(document, figure)),
    )  # fmt: skip


def _table_of(document: ReadDocument, figure: Figure) -> Table | None:
    """The table under a caption, or over it; a figure has none."""
    if not figure.caption.lower().startswith("tab"):
        return None
    pages = range(figure.page - 1, figure.page + 2)
    paragraphs = [p for p in document.paragraphs if p.page in pages]
    inside = {(s.page, at) for s in figure.text for at in range(s.start, s.end)}

    def nearness(table: Table) -> tuple[bool, int]:
        own = paragraphs[table.caption] if table.caption is not None else None
        is_named = own is not None and own.spans(0, len(own.text)) == figure.spans
        n_shared = sum(
            (span.page, span.start) in inside
            for row in table.rows for cell in row for span in cell.spans
        )  # fmt: skip
        return is_named, n_shared

    best = max(find_tables(paragraphs), key=nearness, default=None)
    return best if best is not None and nearness(best) > (False, FEW) else None


def _columns(table: Table) -> Iterator[Column]:
    heads, n_head = table.heads, table.n_head
    if not n_head and _names_columns(table):
        heads, n_head = tuple(cell.text for cell in table.rows[0]), 1
    for k, head in enumerate(heads):
        cells = [row[k].text for row in table.rows[n_head:] if row[k].text.strip()]
        unit = _UNIT.search(head)
        name = head[: unit.start()].strip() if unit else head.strip()
        numbers = [
            (float(re.sub(r"[  ,]", "", match[0]).replace("−", "-")), match[0])
            for cell in cells if (match := _NUMBER.fullmatch(cell.strip(" %")))
        ]  # fmt: skip
        has_range = len(numbers) > FEW and 2 * len(numbers) >= len(cells)
        least, greatest = (min(numbers)[1], max(numbers)[1]) if has_range else ("", "")
        if name or cells:
            yield Column(name, unit[1] if unit else "", len(cells), least, greatest)


def _names_columns(table: Table) -> bool:
    """Whether the first row reads as names of columns: a few words in each cell, no numbers."""
    first = [cell.text.strip() for cell in table.rows[0]]
    return all(
        cell[:1].isupper() and len(cell.split()) <= LONGEST_HEAD and not re.search(r"\d", cell)
        for cell in first
    )


def naming_figure(word: str, number: str) -> re.Pattern[str]:
    """Finds where a text speaks of a figure or table: "Fig. 3", "Tables 1, 2 and 3"."""
    return re.compile(
        rf"\b{re.escape(word[:3])}\w*\.?\s+(?:[\w.]+(?:\s*,\s*|\s+(?:and|und|et|y|e|to)\s+))*{re.escape(number)}(?![\w]|\.\d)",
        re.I,
    )


def _spoken_of(document: ReadDocument, figure: Figure) -> list[Leaning]:
    parted = _PARTED.fullmatch(figure.name)
    if parted is None:
        return []
    named = naming_figure(parted["word"], parted["number"])
    rows = [
        k for k, sentence in enumerate(document.text.sentences)
        if sentence.kind not in ROW_LIKE and named.search(sentence.text)
    ]  # fmt: skip
    rows.sort(key=lambda k: abs(document.text.sentences[k].page - figure.page))
    return [
        Leaning("", document.text.sentences[k].text, locator_for(document, k))
        for k in rows[:MOST_SENTENCES]
    ]
