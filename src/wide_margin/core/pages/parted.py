"""Words that PDFium runs together: a space drawn as a gap that it takes for none.

Some writers move the pen for a space right after they have moved it to bring two letters nearer;
PDFium then sees one movement only, and "many thanks" is read as "manythanks".
"""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray, IntArray

SPACE = 0.17
"""A gap of so many font sizes between two letters of a word is a space."""
AT_MOST = 3.0
"""A wider one is no space."""
SHARE = 0.003
"""Share of the words that are run together where a file does so; a gap in a word of others is one
between a letter and a raised or lowered one."""
LEVEL = 0.2
"""Letters of a word differ in height by no more font sizes."""
TOUCHING = 0.05
"""Letters that are nearer than so much of their height have no space between them."""
NOTHING = "\u200b"
_AFTER = frozenset(",.;:!?)]”’»•–—")
"""Signs that a space follows."""
_SPACE_IN_WORD = regex(r"(?<=[^\W\d_]) (?=[^\W\d_])")
_LATIN_END = 0x2E80
"""Scripts from here on are set without spaces."""


def parted_at(chars: str, boxes: FloatArray, starts: IntArray, sizes: FloatArray) -> IntArray:
    """Where a word begins although no space stands before it.

    Args:
        chars: n characters of a page.
        boxes: (n, 4) box of each.
        starts: (r,) first character of each run of one font and size.
        sizes: (r,) its font size in points.

    Returns:
        (k,) characters that follow a gap within what is read as one word.
    """
    if len(chars) < 2 or not len(starts):
        return np.zeros(0, dtype=np.int32)
    codes = np.frombuffer(chars.encode("utf-32-le"), dtype=np.uint32)
    size = sizes[np.maximum(np.searchsorted(starts, np.arange(1, len(chars)), "right") - 1, 0)]
    with np.errstate(invalid="ignore"):
        gap = boxes[1:, 0] - boxes[:-1, 2]
        found = (gap > SPACE * size) & (gap < AT_MOST * size)
        found &= np.abs(boxes[1:, 1] - boxes[:-1, 1]) < LEVEL * size
    found &= (codes[1:] < _LATIN_END) & (codes[:-1] < _LATIN_END)
    rows = [
        k for k in np.flatnonzero(found).tolist()
        if (chars[k + 1].isalpha() and (chars[k].isalpha() or chars[k] in _AFTER))
        or (chars[k].isalpha() and chars[k + 1].isdecimal())
    ]  # fmt: skip
    return np.array(rows, dtype=np.int32) + 1


def without_false_spaces(chars: str, boxes: FloatArray) -> str:
    """The text without spaces in the middle of a word, each a character of no width instead.

    Args:
        chars: n characters of a page whose words are run together elsewhere.
        boxes: (n, 4) box of each.
    """
    made = list(chars)
    for found in _SPACE_IN_WORD.finditer(chars):
        at = found.start()
        before, after = boxes[at - 1], boxes[at + 1]
        if abs(float(after[0] - before[2])) < TOUCHING * float(before[3] - before[1]):
            made[at] = NOTHING
    return "".join(made)
