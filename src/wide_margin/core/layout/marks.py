"""Marks of footnotes: small raised figures and signs that point to a note and belong to no word."""

from __future__ import annotations

from bisect import bisect_right
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.later import regex
from wide_margin.core.pages import marks_called_for, marks_in

if TYPE_CHECKING:
    from wide_margin.core.pages import PageText

SMALLER = 0.86
"""A mark's type is at most this share of the type before it."""
RAISED = 0.12
"""Its middle lies at least this share of the type's size above the middle of what is before it."""
OF_NOTE = 0.95
"""Type of a note's number beside that of the text, at most."""
LOOKED_AT, WORDS_OF_NOTE = 40, 3
"""Characters from which a note begins, and the words that stand there at least."""
_WORD = regex(r"[^\W\d_]{2,}")
"""One of those words."""
NEAR = 0.6
"""Font sizes between a word and a mark that the file parts from it, at most."""


def footnote_marks(page: PageText) -> list[tuple[int, int]]:
    """Character ranges [first, end) of the marks on a page.

    What stands after a sign of punctuation or a word of four letters and more is one by its looks
    alone; after a short word or a figure it must be the only one that a note asks for, so that
    "m2" and "x1" keep their figures, however they are set. On the first page letters may be
    marks, too: those of the authors' places of work.
    """
    if len(page.run_starts) < 2:
        return []
    starts = page.run_starts.tolist()
    found = [
        span for span in sorted(marks_in(page.chars, page.index)) if _is_mark(page, starts, *span)
    ]  # fmt: skip
    told = {page.chars[first:end] for first, end in found}
    for notes, places in marks_called_for(page.chars):
        if places and page.chars[slice(*places[0])] not in told:
            called = [span for span in places if _is_called_for(page, starts, notes, *span)]
            found += called if len(called) == 1 else []
    return sorted(found)


def _is_called_for(
    page: PageText, starts: list[int], notes: list[int], first: int, end: int
) -> bool:
    """Whether some characters are raised right after a word, and one of the notes is small.

    Args:
        page: Its text.
        starts: Where its runs start.
        notes: Characters at which lines begin with the same sign.
        first: Where they begin.
        end: One past the last.
    """
    before = first - 1
    while before >= 0 and page.chars[before].isspace():
        before -= 1
    if before < 0:
        return False
    size, usual = _size_at(page, starts, first), _size_at(page, starts, before)
    if size > SMALLER * usual or not any(
        _size_at(page, starts, note) <= OF_NOTE * usual
        and page.boxes[note, 1] > page.boxes[first, 3]
        and len(_WORD.findall(page.chars[note : note + LOOKED_AT])) >= WORDS_OF_NOTE
        for note in notes
    ):
        return False
    one, other = page.boxes[before], page.boxes[first]
    is_apart = before < first - 1 and not (
        abs(other[0] - one[2]) < NEAR * usual and one[1] < other[3] < one[3]
    )
    return not is_apart and _is_raised(page, before, first, end, usual)


def _is_mark(page: PageText, starts: list[int], first: int, end: int) -> bool:
    """Whether some characters are smaller than the word before them, and raised.

    Args:
        page: Its text.
        starts: Where its runs start.
        first: Where they begin.
        end: One past the last.
    """
    before = first - 1 if not page.chars[first - 1].isspace() else end
    if not 0 <= before < len(page.chars) or min(first, before) < starts[0]:
        return False
    size, usual = _size_at(page, starts, first), _size_at(page, starts, before)
    return size <= SMALLER * usual and _is_raised(page, before, first, end, usual)


def _size_at(page: PageText, starts: list[int], at: int) -> float:
    """The size of a character's type, in points."""
    return float(page.run_sizes[max(bisect_right(starts, at) - 1, 0)])


def _is_raised(page: PageText, before: int, first: int, end: int, usual: float) -> bool:
    """Whether the middle of some characters lies above that of a word.

    Args:
        page: Its text.
        before: A character of the word, its last where they follow it.
        first: Where they begin.
        end: One past the last.
        usual: Size of the word's type, in points.
    """
    return _middle(page, first, end) < _middle(page, *_word_around(page, before)) - RAISED * usual


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
