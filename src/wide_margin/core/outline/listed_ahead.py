"""Headings that a list names before them, without saying where they are: "• Ropes", then "Ropes".

Pages from the web begin with such a list, chapters may, and so do questions that are answered one
after the other.
"""

from __future__ import annotations

from collections import defaultdict
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.layout import word_count
from wide_margin.core.lexicon import bare

if TYPE_CHECKING:
    from collections.abc import Iterator, Mapping, Sequence

    from wide_margin.core.layout import Paragraph
    from wide_margin.core.layout.model import Line

FEWEST, OF_RUN, MOST_BETWEEN = 5, 0.6, 2
"""Lines that name headings in one list, their share of its lines, and how many others may follow
each other in it."""
SHORTEST, MOST_WORDS = 4, 22
"""Letters and digits of a title, and its words."""
LARGER = 1.12
"""Times the size of the line in the list from which a title is larger."""


class Ahead(NamedTuple):
    """What lists name before it comes."""

    rows: frozenset[int]
    """Of the headings."""
    listed: frozenset[int]
    """Of the paragraphs that list them."""


NOTHING_AHEAD = Ahead(frozenset(), frozenset())


def listed_ahead(paragraphs: Sequence[Paragraph]) -> Ahead:
    """The paragraphs that a list before them names, and that are larger or heavier than it is.

    It is of use where no contents page says more.

    Args:
        paragraphs: All, in reading order.
    """
    places: dict[str, list[int]] = defaultdict(list)
    for row, paragraph in enumerate(paragraphs):
        title = bare(paragraph.text) if word_count(paragraph.text) <= MOST_WORDS else ""
        if len(title) >= SHORTEST and paragraph.kind in ("body", "item", "code"):
            places[title].append(row)
    headings: set[int] = set()
    listed: set[int] = set()
    for run, n_lines in _runs(paragraphs, places):
        if len({heading for _, heading in run}) >= FEWEST and len(run) >= OF_RUN * n_lines:
            listed.update(row for row, _ in run)
            headings.update(heading for _, heading in run)
    return Ahead(frozenset(headings - listed), frozenset(listed))


def _runs(
    paragraphs: Sequence[Paragraph], places: Mapping[str, list[int]]
) -> Iterator[tuple[list[tuple[int, int]], int]]:
    """Lines that name headings one after the other, with few between, and how many all these are.

    Each is the row of its paragraph and that of the heading.
    """
    run: list[tuple[int, int]] = []
    n_lines = n_missed = 0
    for row, paragraph in enumerate(paragraphs):
        for _, line, _ in paragraph.pieces:
            heading = _named(line, row, paragraphs, places)
            if heading >= 0:
                run.append((row, heading))
                n_lines, n_missed = n_lines + 1 + n_missed, 0
            elif run:
                n_missed += 1
            if n_missed > MOST_BETWEEN:
                yield run, n_lines
                run, n_lines, n_missed = [], 0, 0
    yield run, n_lines


def _named(
    line: Line, row: int, paragraphs: Sequence[Paragraph], places: Mapping[str, list[int]]
) -> int:
    """The row of the next paragraph that is what a line names, larger or heavier; -1 for none."""
    title = bare(line.text)
    for other in places.get(title, ()):
        if other > row:
            head = paragraphs[other].pieces[0].line
            if head.size >= LARGER * line.size or (head.is_bold and not line.is_bold):
                return other
    return -1
