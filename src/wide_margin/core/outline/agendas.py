"""Sections of a talk: its agenda is shown again where each of them begins."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from typing import TYPE_CHECKING

from wide_margin.core.outline.candidates import style_of

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

FEWEST = 3
"""Sections, and pages that show the agenda."""
MOST = 30
"""Paragraphs on a page that may be one."""


def agenda_items(paragraphs: Sequence[Paragraph]) -> list[int]:
    """Rows of the items that begin a section each, where an agenda comes again for every one.

    The page is the same each time but for its colours: at the first one the first item is meant, at
    the second one the second. A page before them all may show it for itself.

    Args:
        paragraphs: All, in reading order.
    """
    by_page: dict[int, list[int]] = defaultdict(list)
    for row, paragraph in enumerate(paragraphs):
        by_page[paragraph.page].append(row)
    alike: dict[tuple[str, ...], list[int]] = defaultdict(list)
    for page, rows in by_page.items():
        if FEWEST <= len(rows) <= MOST:
            alike[tuple(paragraphs[row].text for row in rows)].append(page)
    for pages in sorted(alike.values(), key=len, reverse=True):
        begun = [page for page in pages if page + 1 not in pages]  # the last of those in a row
        if len(begun) < FEWEST:
            break
        places = _items([paragraphs[row] for row in by_page[begun[0]]])
        if len(begun) == len(places) + 1:
            begun = begun[1:]
        if len(begun) == len(places):
            return [by_page[page][at] for page, at in zip(begun, places, strict=True)]
    return []


def _items(paragraphs: Sequence[Paragraph]) -> list[int]:
    """Places of what may be the items: all that is set as most of a page is."""
    sizes = [style_of(paragraph).size for paragraph in paragraphs]
    usual = Counter(sizes).most_common(1)[0][0]
    return [at for at, size in enumerate(sizes) if size == usual]
