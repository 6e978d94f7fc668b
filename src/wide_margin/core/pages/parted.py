"""Words that PDFium runs together, and words whose letters it takes for words.

Some writers move the pen for a space right after they have moved it to bring two letters nearer;
PDFium then sees one movement only, and "many thanks" is read as "manythanks". Titles whose letters
are set apart for show have a space after every letter, as wide between words as within them.
"""

from __future__ import annotations

from itertools import pairwise
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.geometry import middle
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray

SPACE = 0.17
"""A gap of so many font sizes between two letters of a word is a space."""
TIGHT, CLOSE_UP = 0.1, 0.03
"""So is a narrower one, from the first on, where hardly any gap between letters is wider than the
second and narrower than that: the letters of such a page touch, and its lines are squeezed."""
HARDLY, CLOSE, NOT_FEW = 0.2, 2, 0.01
"""Gaps between those two, and letters that touch, for each gap that is wider: most of words whose
letters are set apart evenly are wider; and the share of all words that have a wider one.
Of some four hundred files one is squeezed; where letters of code stand apart there are as many of
one sort as of the other."""
AT_MOST = 3.0
"""A wider one is no space."""
SHARE = 0.003
"""Share of the words that are run together where a file does so; a gap in a word of others is one
between a letter and a raised or lowered one."""
LEVEL = 0.2
"""Letters of a word differ in height by no more font sizes."""
TOUCHING = 0.05
"""Letters that are nearer than so much of their height have no space between them."""
NEAR = 0.15
"""Gaps of blanks, in heights of a letter, that may be no wider than those between all letters."""
SPACED, AS_BETWEEN_LETTERS = 0.05, 0.03
"""Gaps between the letters of a word, in the same, that set them apart; how much wider one may be
that is of them."""
BESIDE = 4
"""Letters on either side of a blank by which their distance is told."""
NOTHING = "\u200b"
_AFTER = frozenset(",.;:!?)]”’»•–—")
"""Signs that a space follows."""
LETTERS_APART = 0.45
"""Times its height by which the letters of a word are set apart at most."""
EVEN, WORD_APART = 1.35, 1.8
"""Times the middle gap of such letters up to which a gap is one of theirs, and from which it is one
between words."""
_LETTERS_APART = regex(r"(?<![^\W_])(?:[^\W\d_] ){4,}[^\W\d_](?![^\W_])")
_SPACE_IN_WORD = regex(r"(?<=[^\W\d_]) (?=[^\W\d_])")
_NEW_LINE, _RETURN, _BLANK = 10, 13, 32
_LATIN_END = 0x2E80
"""Scripts from here on are set without spaces."""


class Parted(NamedTuple):
    """Where the words of a page are told apart."""

    rows: IntArray
    """(k,) characters that follow a gap within what is read as one word."""
    touching: float
    """Letters that are nearer than so much of their height have no space between them."""


def parted_at(chars: str, boxes: FloatArray, starts: IntArray, sizes: FloatArray) -> Parted:
    """Where a word begins although no space stands before it.

    Args:
        chars: n characters of a page.
        boxes: (n, 4) box of each.
        starts: (r,) first character of each run of one font and size.
        sizes: (r,) its font size in points.
    """
    if len(chars) < 2 or not len(starts):
        return Parted(np.zeros(0, dtype=np.int32), TOUCHING)
    codes = np.frombuffer(chars.encode("utf-32-le"), dtype=np.uint32)
    size = sizes[np.maximum(np.searchsorted(starts, np.arange(1, len(chars)), "right") - 1, 0)]
    with np.errstate(invalid="ignore"):
        gap = boxes[1:, 0] - boxes[:-1, 2]
        level = np.abs(boxes[1:, 1] - boxes[:-1, 1]) < LEVEL * size
        level &= (codes[1:] < _LATIN_END) & (codes[:-1] < _LATIN_END)
        is_squeezed = _is_squeezed(chars, (gap / size)[level], level)
        space = TIGHT if is_squeezed else SPACE
        found = level & (gap > space * size) & (gap < AT_MOST * size)
    rows = [
        k for k in np.flatnonzero(found).tolist()
        if (chars[k + 1].isalpha() and (chars[k].isalpha() or chars[k] in _AFTER))
        or (chars[k].isalpha() and chars[k + 1].isdecimal())
    ]  # fmt: skip
    touching = CLOSE_UP if is_squeezed else TOUCHING
    return Parted(np.array(rows, dtype=np.int32) + 1, touching)


def _is_squeezed(chars: str, gaps: FloatArray, level: BoolArray) -> bool:
    """Whether narrow gaps on a page are spaces.

    Args:
        chars: n characters of a page.
        gaps: (k,) after each that is on one line with the next, in font sizes.
        level: (n - 1,) which these are.
    """
    wide = np.flatnonzero((gaps > TIGHT) & (gaps < SPACE))
    if len(wide) < NOT_FEW * len(chars.split()):
        return False
    rows = np.flatnonzero(level)
    letters = np.array([chars[k].isalpha() and chars[k + 1].isalpha() for k in rows.tolist()])
    n_wide = int(letters[wide].sum())
    n_between = int((letters & (gaps > CLOSE_UP) & (gaps <= TIGHT)).sum())
    n_close = int((letters & (gaps <= CLOSE_UP)).sum())
    is_marked = n_between <= HARDLY * n_wide and n_close >= CLOSE * n_wide
    return n_wide >= NOT_FEW * len(chars.split()) and is_marked


def without_false_spaces(chars: str, boxes: FloatArray, touching: float) -> str:
    """The text without spaces in the middle of a word, each a character of no width instead.

    Args:
        chars: n characters of a page whose words are run together elsewhere.
        boxes: (n, 4) box of each.
        touching: Letters that are nearer than so much of their height have no space between them.
    """
    made = list(chars)
    for found in _SPACE_IN_WORD.finditer(chars):
        at = found.start()
        before, after = boxes[at - 1], boxes[at + 1]
        if abs(float(after[0] - before[2])) < touching * float(before[3] - before[1]):
            made[at] = NOTHING
    return "".join(made)


def with_words_joined(
    chars: str, boxes: FloatArray, boxes_of: Callable[[IntArray], FloatArray]
) -> str:
    """The text without blanks and line ends within words: characters of no width instead.

    PDFium makes line ends up on pages with leaders, between two letters brought nearer to each
    other, and blanks beside narrow letters of words that are set a little apart; some writers draw
    a blank under a letter that stands over the one before it.

    Args:
        chars: n characters of a page.
        boxes: (n, 4) box of each that begins or ends a word.
        boxes_of: Gives the (k, 4) boxes of k characters.
    """
    codes = np.frombuffer(chars.encode("utf-32-le"), dtype=np.uint32)
    ends = np.flatnonzero((codes[1:-2] == _RETURN) & (codes[2:-1] == _NEW_LINE)) + 1
    blanks = np.flatnonzero(codes[1:-1] == _BLANK) + 1
    gap, _ = _gaps(boxes, ends - 1, ends + 2)
    false = ends[np.abs(gap) < TOUCHING].tolist()
    gap, step = _gaps(boxes, blanks - 1, blanks + 1)
    over = [
        at for at in blanks[(gap < -TOUCHING) & (step > 0)].tolist()
        if chars[at - 1].isalpha() and chars[at + 1].isalpha()
    ]  # fmt: skip
    near = blanks[(gap > SPACED) & (gap < NEAR)].tolist()
    apart = [at for at in near if _is_within_spaced_word(chars, at, boxes_of)]
    if not false and not over and not apart:
        return chars
    made = list(chars)
    for at in (*false, *(at + 1 for at in false), *over, *apart):
        made[at] = NOTHING
    return "".join(made)


def _is_within_spaced_word(chars: str, at: int, boxes_of: Callable[[IntArray], FloatArray]) -> bool:
    """Whether the letters around a blank stand as far apart as those that it parts.

    Args:
        chars: Of a page.
        at: Where the blank is.
        boxes_of: Gives the (k, 4) boxes of k characters.
    """
    first, end = at, at + 1
    while first and at - first < BESIDE and chars[first - 1].isalpha():
        first -= 1
    while end < len(chars) and end - at <= BESIDE and chars[end].isalpha():
        end += 1
    if first == at or end == at + 1 or end - first < BESIDE:
        return False
    rows = np.array([k for k in range(first, end) if k != at])
    boxes = boxes_of(rows)
    steps = np.arange(len(rows) - 1)
    gap, _ = _gaps(boxes, steps, steps + 1)
    here = at - first - 1
    others = np.delete(gap, here)
    if not len(others) or np.isnan(gap).any():
        return False
    usual = middle(others)
    return usual > SPACED and float(gap[here]) < usual + AS_BETWEEN_LETTERS


def _gaps(boxes: FloatArray, before: IntArray, after: IntArray) -> tuple[FloatArray, FloatArray]:
    """(k,) gap between two characters in heights of the first; (k,) how far the second starts on.

    Both are NaN where the two do not stand on one line, or have no boxes.

    Args:
        boxes: (n, 4) in points.
        before: (k,) the first of each two.
        after: (k,) the second.
    """
    first, second = boxes[before], boxes[after]
    height = first[:, 3] - first[:, 1]
    with np.errstate(invalid="ignore", divide="ignore"):
        is_apart = ~(np.abs(second[:, 3] - first[:, 3]) < TOUCHING * height)
        gap, step = (second[:, 0] - first[:, 2]) / height, second[:, 0] - first[:, 0]
    gap[is_apart] = step[is_apart] = np.nan
    return gap, step


def with_letters_joined(chars: str, boxes: FloatArray, alone: BoolArray) -> str:
    """The text with the letters of words that are set apart for show following each other.

    The spaces within a word become characters of no width; those between words are told by their
    gaps. Letters in the order of the alphabet, and letters at uneven distances, are no words.

    Args:
        chars: n characters of a page.
        boxes: (n, 4) box of each that begins or ends a word.
        alone: (n,) which characters are a word each.
    """
    if not (alone[:-4] & alone[2:-2] & alone[4:]).any():  # as on most pages
        return chars
    made: list[str] = []
    for found in _LETTERS_APART.finditer(chars):
        rows = np.arange(found.start(), found.end(), 2)
        letters = found[0][::2].casefold()
        n_rising = sum(a < b for a, b in pairwise(letters))
        gaps = boxes[rows[1:], 0] - boxes[rows[:-1], 2]
        height = middle(boxes[rows, 3] - boxes[rows, 1])
        if np.isnan(gaps).any():
            continue
        usual = middle(gaps)
        between = gaps >= WORD_APART * usual
        is_even = usual > 0 and not ((gaps > EVEN * usual) & ~between).any()
        if n_rising > 0.8 * (len(letters) - 1) or not is_even or usual > LETTERS_APART * height:
            continue
        made = made or list(chars)
        for row in rows[1:][~between].tolist():
            made[row - 1] = NOTHING
    return "".join(made) if made else chars
