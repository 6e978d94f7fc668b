"""Parts by page ranges, for a document without bookmarks, contents page or headings."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.layout import tidy
from wide_margin.core.outline.model import Outline, Section

if TYPE_CHECKING:
    from wide_margin.core.layout import PageLabels, Paragraph

MIN_PAGES = 4
"""A document with fewer pages is left whole."""
MAX_PARTS = 24


def parts_by_pages(
    paragraphs: Sequence[Paragraph], heights: Sequence[float], labels: PageLabels,
    damaged: Collection[int] = (),
) -> Outline:  # fmt: skip
    """Equal stretches of pages, each called after its pages and the first sound line on them."""
    n_pages = len(heights)
    if n_pages < MIN_PAGES or not paragraphs:
        return Outline()
    length = max(2, -(-n_pages // MAX_PARTS))
    if n_pages > 20:
        length = max(length, 5)
    first_of: dict[int, int] = {}
    for row, paragraph in enumerate(paragraphs):
        first_of.setdefault(paragraph.page, row)
    sections = []
    for page in range(0, n_pages, length):
        last = min(page + length, n_pages) - 1
        row = next((first_of[p] for p in range(page, n_pages) if p in first_of), len(paragraphs))
        sound = (p for p in range(page, last + 1) if p in first_of and p not in damaged)
        line = next((first_of[p] for p in sound), None)
        words = (
            tidy(paragraphs[line].pieces[0].line.text).replace("\t", " ")
            if line is not None
            else ""
        )
        title = f"{_range(page, last, labels)}: {words}" if words else _range(page, last, labels)
        end_row = next(
            (first_of[p] for p in range(last + 1, n_pages) if p in first_of), len(paragraphs)
        )
        end_page, end_y = (last + 1, 0.0) if last + 1 < n_pages else (last, float(heights[last]))
        sections.append(Section(title, 0, page, 0.0, row, end_row, end_page, end_y))
    return Outline(tuple(sections))


def _range(first: int, last: int, labels: PageLabels) -> str:
    a, b = labels.of(first), labels.of(last)
    if a and b:
        return f"Pages {a} to {b}" if a != b else f"Page {a}"
    return f"File pages {first + 1} to {last + 1}" if first != last else f"File page {first + 1}"
