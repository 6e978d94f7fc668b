"""Slides that begin a part of a talk: they have its name, in the middle, and nothing else."""

from __future__ import annotations

from collections import defaultdict
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.layout import word_count
from wide_margin.core.outline.jumps import without_jumps

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence

    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline.candidates import Candidate

FEWEST, MOST_OF_PAGES = 2, 0.5
"""Such slides, and their share of all pages."""
LONGEST, MOST_LINES = 15, 2
"""Words of a name; a label such as "Section 2" may stand over it."""


def divider_pages(paragraphs: Sequence[Paragraph], titles: Mapping[int, bool]) -> frozenset[int]:
    """Pages that only name what the slides after them are on; empty where there are too few.

    Args:
        paragraphs: All, in reading order.
        titles: From page_titles: what stands at the height where slides have their titles. A slide
            with a picture has one there, too.
    """
    by_page: dict[int, list[Paragraph]] = defaultdict(list)
    for paragraph in paragraphs:
        by_page[paragraph.page].append(paragraph)
    titled = {paragraphs[row].page for row in titles}
    pages = sorted(by_page)
    found = {
        page for page, following in pairwise(pages[1:])
        if page not in titled and _only_names(by_page[page]) and not _only_names(by_page[following])
    }  # fmt: skip
    return frozenset(found) if FEWEST <= len(found) <= MOST_OF_PAGES * len(pages) else frozenset()


def _only_names(on_page: Sequence[Paragraph]) -> bool:
    n_words = sum(word_count(paragraph.text) for paragraph in on_page)
    return len(on_page) <= MOST_LINES and 0 < n_words <= LONGEST


def under_dividers(
    candidates: Sequence[Candidate], levels: Sequence[int], pages: frozenset[int], usual: int
) -> list[int]:
    """Levels in which the titles of slides hang under the slide that begins their part.

    Args:
        candidates: The headings, in order.
        levels: Of each.
        pages: From divider_pages.
        usual: The level of the titles of slides.
    """
    first = next((k for k, c in enumerate(candidates) if c.page in pages), len(candidates))
    moved = [
        level if k < first else 0 if c.page in pages else max(level - usual, 0) + 1
        for k, (c, level) in enumerate(zip(candidates, levels, strict=True))
    ]  # fmt: skip
    return without_jumps(moved)
