"""Marks of footnotes: small raised figures and signs that point to a note and belong to no word."""

from __future__ import annotations

from bisect import bisect_right
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.pages import marks_in

if TYPE_CHECKING:
    from wide_margin.core.pages import PageText

SMALLER = 0.86
"""A mark's type is at most this share of the type before it."""
RAISED = 0.12
"""Its middle lies at least this share of the type's size above the middle of what is before it."""


def footnote_marks(page: PageText) -> list[tuple[int, int]]:
    """Character ranges [first, end) of the marks on a page.

    Only what stands after a sign of punctuation or a word of four letters and more counts, so
    that "m2" and "x1" keep their figures, however they are set. On the first page letters may be
    marks, too: those of the authors' places of work.
    """
    found = []
    starts = page.run_starts.tolist()
    for first, end in sorted(marks_in(page.chars, page.index)) if len(starts) > 1 else ():
        before = first - 1 if not page.chars[first - 1].isspace() else end
        run, other = bisect_right(starts, first) - 1, bisect_right(starts, before) - 1
        if not 0 <= before < len(page.chars) or run < 0 or other < 0:
            continue
        size, usual = float(page.run_sizes[run]), float(page.run_sizes[other])
        if size > SMALLER * usual:
            continue
        if _middle(page, first, end) < _middle(page, *_word_around(page, before)) - RAISED * usual:
            found.append((first, end))
    return found


def _word_around(page: PageText, at: int) -> tuple[int, int]:
    first = end = at
    while first and not page.chars[first - 1].isspace():
        first -= 1
    while end < len(page.chars) and not page.chars[end].isspace():
        end += 1
    return first, min(end, at + 1) if first < at else end


def _middle(page: PageText, first: int, end: int) -> float:
    """Height of the middle of some characters; NaN where none has a box."""
    boxes = page.boxes[first:end]
    boxes = boxes[~np.isnan(boxes[:, 1])]
    return float((boxes[:, 1] + boxes[:, 3]).mean() / 2) if len(boxes) else float("nan")
