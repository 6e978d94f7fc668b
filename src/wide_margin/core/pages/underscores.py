"""Underscores that are drawn as a short rule between two words: names in code, set by TeX.

TeX's first encoding has no underscore; its macro draws a rule on the line of writing, three tenths
of an em long (LaTeX2e, ltoutenc.dtx, textunderscore). PDFium tells the gap as a blank.
"""

from __future__ import annotations

import re
from typing import TYPE_CHECKING, Any

import numpy as np

from wide_margin.core.later import regex
from wide_margin.core.pages.rules import short_rules

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray
    from wide_margin.core.pages.model import Font, Frame

_OF_TEX = regex(r"(?:^|\+)cm[a-z]+\d+$", re.I)
"""Computer Modern in its first encodings, that of formulas, too: a text that TeX has set in other
fonts draws its underscores as well. Of 682 of them 69 are on pages with formulas alone in it."""
SHORTEST, LONGEST = 1.2, 8.0
"""Points of such a rule."""
OFF = 1.5
"""Points between the end of a word and its rule at most."""
LOWEST = 0.65
"""How far down the letters it is drawn, as a share of their height: a dash is drawn higher."""


def may_draw_underscores(font: Font) -> bool:
    """Whether a font is one of those that a document has which draws its underscores."""
    return _OF_TEX.search(font.name) is not None


def with_underscores(
    page: Any, frame: Frame, chars: str, boxes: FloatArray, first: BoolArray, last: BoolArray
) -> str:
    """The characters of a page, blanks that hold a short rule made underscores.

    Args:
        page: Of PDFium.
        frame: How it lies in page space.
        chars: n characters.
        boxes: (n, 4) in page space; of the first and last character of each word at least. Those
            of underscores are mended.
        first: (n,) which are the first of a word.
        last: (n,) which are the last.
    """
    between = np.flatnonzero(last[:-2] & first[2:]) + 1
    between = between[[chars[k] == " " for k in between.tolist()]]
    if not len(between):
        return chars
    rules = short_rules(page, frame, SHORTEST, LONGEST)
    before, after = boxes[between - 1], boxes[between + 1]
    bottom = np.maximum(before[:, 3], after[:, 3])
    lowest = before[:, 1] + LOWEST * (before[:, 3] - before[:, 1])
    found: list[int] = []
    for x0, _, x1, y1 in rules.tolist():
        is_there = (np.abs(before[:, 2] - x0) < OFF) & (np.abs(after[:, 0] - x1) < OFF)
        is_there &= (lowest < y1) & (y1 < bottom + OFF)
        found += between[is_there].tolist()
    if not found:
        return chars
    parts = list(chars)
    for at in found:
        parts[at] = "_"
        boxes[at] = boxes[at - 1, 2], boxes[at - 1, 1], boxes[at + 1, 0], boxes[at - 1, 3]
    return "".join(parts)
