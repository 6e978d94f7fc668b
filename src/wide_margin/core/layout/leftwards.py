"""Pages that are read from right to left, and words of the other direction within a line.

Such a page is laid out as its mirror image: columns, indents, items and cells are then found by the
rules for any other page, and its lines come out in the order they are read in. PDFium gives the
characters of a word in logical order whatever its direction (Unicode Standard Annex 9); what is
left to do is the order of the words within a row.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.pages import PageText

_SIGNS = "\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc"
_LEFTWARDS = regex(f"[{_SIGNS}]")
_RIGHTWARDS = regex(f"[^\\W\\d_{_SIGNS}]")
MOSTLY = 0.5
"""A page is read from right to left where more than this share of its letters is."""


def has_leftwards(chars: str) -> bool:
    """Whether a page has letters of a script that is written from right to left."""
    return not chars.isascii() and _LEFTWARDS.search(chars) is not None


def is_leftwards(chars: str) -> bool:
    """Whether most letters of a page are of such a script."""
    n_left, n_right = len(_LEFTWARDS.findall(chars)), len(_RIGHTWARDS.findall(chars))
    return n_left > MOSTLY * (n_left + n_right)


def mirrored(page: PageText) -> PageText:
    """The page with its left and right sides exchanged; its characters stay as they are."""
    boxes = page.boxes.copy()
    boxes[:, 0], boxes[:, 2] = page.width - page.boxes[:, 2], page.width - page.boxes[:, 0]
    return replace(page, boxes=boxes)


def direction_of(text: str) -> int:
    """1 for words read to the right, -1 to the left, 0 for what has no direction of its own."""
    if _LEFTWARDS.search(text):
        return -1
    return 1 if _RIGHTWARDS.search(text) else 0


def in_reading_order(row: list[int], directions: Sequence[int], base: int) -> list[int]:
    """A row's segments with each run of the other direction turned round.

    Args:
        row: Segments from where a line of the base direction begins.
        directions: Of every segment of the page.
        base: Direction of the page, 1 or -1.
    """
    made: list[int] = []
    run: list[int] = []
    neutral: list[int] = []
    for item in row:
        if directions[item] == -base:
            run += neutral if run else []
            made += [] if run else neutral
            neutral = []
            run.append(item)
        elif directions[item] == 0:
            neutral.append(item)
        else:
            made += [*reversed(run), *neutral, item]
            run, neutral = [], []
    return [*made, *reversed(run), *neutral]
