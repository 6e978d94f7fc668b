"""Entries whose first line stands out to the left of the others: references, glossaries."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.layout.text import ITEM

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

LEAST_IN, MOST_IN = 0.8, 5.0
"""How far the other lines are set in, in font sizes."""
ALIKE, LEVEL = 0.08, 0.4
"""How far sizes, and the places where lines begin, may differ and be the same, in font sizes."""
FULL = 0.15
"""Share of the width by which a line may end before the margin and is full."""
SOME, OF_TWO_LEFTS = 3, 0.95
"""Lines that are set in, of which so many tell; share of lines that begin at either place."""
AFTER_FULL, AFTER_SHORT = 0.85, 0.6
"""Shares of the lines set in that follow a full line, and of those standing out that follow one
set in that ends before the margin: of paragraphs whose first line is set in, hardly any do."""
OF_OTHERS = 0.3
"""Share of lines that begin items, or are in typewriter letters, in one that is told otherwise."""
OUT_AND_FULL = 0.1
"""Share of the lines standing out that are full and followed by another: those of paragraphs."""
FAR = 2.5
"""Font sizes between the feet of two lines from which they are not of one list."""


def hanging_rows(lines: Sequence[Line]) -> dict[int, bool]:
    """The lines of lists whose entries hang on their first line.

    Args:
        lines: Of one column, from the top down.

    Returns:
        Rows of lines, and whether each goes on with the entry of the row before.
    """
    found: dict[int, bool] = {}
    for first, end in _blocks(lines):
        block = lines[first:end]
        if len(block) <= SOME or (outer := _outer(block)) is None:
            continue
        n_others = sum(ITEM.match(line.text) is not None or line.is_fixed for line in block)
        if n_others > OF_OTHERS * len(block):
            continue
        least = outer + LEAST_IN * max(block[0].size, 1.0)
        for row, line in enumerate(block, start=first):
            found[row] = row > first and line.box[0] > least
    return found


def _blocks(lines: Sequence[Line]) -> Iterator[tuple[int, int]]:
    """First and end row of lines set alike that follow each other closely."""
    first = 0
    for row, (before, line) in enumerate(pairwise(lines), start=1):
        em = max(line.size, 1.0)
        is_alike = abs(line.size - before.size) <= ALIKE * em
        is_near = 0 < line.box[3] - before.box[3] <= FAR * em
        if line.is_bold or before.is_bold or not (is_alike and is_near):
            yield first, row
            first = row
    yield first, len(lines)


def _outer(lines: Sequence[Line]) -> float | None:
    """Where the first lines of entries begin; None where these lines are no such list."""
    em = max(lines[0].size, 1.0)
    lefts = Counter(round(line.box[0]) for line in lines)
    outer = float(min(lefts))
    inner = max((left for left in lefts if left > outer + LEAST_IN * em), key=lefts.__getitem__,
                default=None)  # fmt: skip
    if inner is None or inner > outer + MOST_IN * em:
        return None
    is_in = [abs(line.box[0] - inner) < LEVEL * em for line in lines]
    is_out = [abs(line.box[0] - outer) < LEVEL * em for line in lines]
    if sum(is_in) < SOME or sum(is_in) + sum(is_out) < OF_TWO_LEFTS * len(lines):
        return None
    right = max(line.box[2] for line in lines)
    least = right - FULL * (right - outer)
    full = [line.box[2] >= least for line in lines]
    pairs = list(pairwise(range(len(lines))))
    after_full = [full[a] for a, b in pairs if is_in[b]]
    after_short = [lines[a].box[2] < right - em for a, b in pairs if is_in[a] and is_out[b]]
    if len(after_short) < 2 or sum(after_short) < AFTER_SHORT * len(after_short):
        return None
    run_on = [lines[b].text for a, b in pairs if is_out[a] and is_out[b] and full[a]]
    if len(run_on) > OUT_AND_FULL * sum(is_out) or any(text[:1].islower() for text in run_on):
        return None
    return outer if sum(after_full) >= AFTER_FULL * len(after_full) else None
