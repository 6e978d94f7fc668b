"""Segments: stretches of characters that follow each other on one line without a wide gap."""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.pages import LINE_END_HYPHEN

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.geometry import BoolArray
    from wide_margin.core.pages import PageText

WIDE_GAP = 1.1
"""A gap of this many font sizes parts two segments: cells of a table, columns of text. TeX leaves
a little less between the number of a heading and its title."""
BETWEEN_NUMBERS = 0.95
"""One of so many does between two numbers: TeX sets the columns of tables 12 points apart, 1.1
sizes of 11-point type and 1.0 of 12-point type. No text has two numbers that far apart."""

NARROW_GAP, TIMES_USUAL = 0.5, 1.5
"""A gap of so many font sizes does, too, where cells of other lines near begin right there and it
is so much wider than those beside it."""
NEAR_LINES, LEVEL, FEWEST_LEVEL = 6.0, 1.0, 2
"""Font sizes up or down to such lines, points by which they begin elsewhere at most, and their
number."""
DOUBLED, LEAST_DOUBLED = 0.25, 3
"""The same characters, so many at least, are drawn twice where they lie within that share of their
size of each other."""
OTHER_SIZE = 2.5
"""Words whose sizes differ by more than this factor are no one segment."""


@dataclass(frozen=True, slots=True, eq=False)
class Segments:
    """Segments of a page in the order of the content stream; arrays of one row each."""

    boxes: FloatArray
    """(n, 4) in page space; top and bottom are means over the characters."""
    first: IntArray
    """First character."""
    end: IntArray
    """One past the last character."""
    size: FloatArray
    bold: FloatArray
    """Share of bold characters, 0 to 1; likewise the next two."""
    italic: FloatArray
    fixed: FloatArray
    spread: FloatArray
    """From the top of the highest character to the bottom of the lowest, in points."""
    in_column: BoolArray
    """Whether it begins a cell under or over others, however near it is to the one before."""

    def __len__(self) -> int:
        """How many segments."""
        return len(self.first)


def segments_of(page: PageText) -> Segments:
    """Cut a page's characters into segments.

    A new segment starts where the next character is on another line, lies to the left, or
    lies further to the right than a wide space.
    """
    codes = np.frombuffer(page.chars.encode("utf-32-le"), dtype=np.uint32)
    inked = np.flatnonzero((codes > 32) & (codes != 0xA0) & ~np.isnan(page.boxes[:, 0]))
    if not len(inked):
        none = np.zeros(0, dtype=np.int32)
        flat = np.zeros(0, dtype=np.float32)
        return Segments(
            np.zeros((0, 4), np.float32), none, none, flat, flat, flat, flat, flat, flat > 0
        )
    boxes = page.boxes[inked]
    size, bold, italic, fixed = _styles(page, inked)
    # PDFium puts a space wherever it sees a gap, so a word is never parted but where that was
    # found to be wrong; between its first and last character there may be none that has a box.
    n_spaces = np.cumsum((codes <= 32) | (codes == 0xA0))[inked]
    between_words = (np.diff(n_spaces) > 0) | (codes[inked[:-1]] == ord(LINE_END_HYPHEN))

    def is_text(rows: IntArray) -> BoolArray:
        of_code: BoolArray = (fixed[rows] > 0) & (fixed[rows + 1] > 0)
        return of_code | _end_sentences(codes, inked[rows])

    numbers = np.isin(codes[inked[:-1]], _DIGITS) & np.isin(codes[inked[1:]], _BEGIN_NUMBERS)
    numbers &= between_words & ~((fixed[:-1] > 0) & (fixed[1:] > 0))
    breaks, in_column = _breaks(boxes, size, between_words, numbers, is_text)
    if page.parted:
        breaks |= np.isin(inked[1:], page.parted)
    cuts = np.concatenate(([0], np.flatnonzero(breaks) + 1))
    ends = np.concatenate((cuts[1:], [len(inked)]))
    counts = (ends - cuts).astype(np.float32)

    def mean(values: FloatArray) -> FloatArray:
        return np.add.reduceat(values.astype(np.float32), cuts) / counts

    around = np.stack(
        (
            np.minimum.reduceat(boxes[:, 0], cuts),
            mean(boxes[:, 1]),
            np.maximum.reduceat(boxes[:, 2], cuts),
            mean(boxes[:, 3]),
        ),
        axis=1,
    )
    # The middle one of three: a raised mark in the middle of a line does not make it small.
    inside = ends - 1 - cuts
    asked = size[cuts + np.stack((inside // 4, inside // 2, 3 * inside // 4))]
    middle = np.sort(asked, axis=0)[1]
    last = inked[ends - 1] + 1
    spread = np.maximum.reduceat(boxes[:, 3], cuts) - np.minimum.reduceat(boxes[:, 1], cuts)
    begins = np.concatenate(([False], in_column))[cuts]
    found = Segments(
        around, inked[cuts], last, middle, mean(bold), mean(italic), mean(fixed), spread, begins
    )
    return _without_doubles(found, page.chars)


def _without_doubles(found: Segments, chars: str) -> Segments:
    """Segments without those drawn again on the same place, as shadows and false bold are."""
    spans = zip(found.first.tolist(), found.end.tolist(), strict=True)
    texts = [chars[first:end] for first, end in spans]
    if len(set(texts)) == len(texts):  # as on most pages
        return found
    seen: dict[str, list[int]] = {}
    doubled: list[int] = []
    for row, text in enumerate(texts):
        others = seen.setdefault(text, [])
        if len(text) >= LEAST_DOUBLED and others:
            away = np.abs(found.boxes[others] - found.boxes[row]).max(axis=1)
            if away.min() < DOUBLED * found.size[row]:
                doubled.append(row)
                continue
        others.append(row)
    if not doubled:
        return found
    kept = np.delete(np.arange(len(found)), doubled)
    return Segments(*(getattr(found, field.name)[kept] for field in fields(Segments)))


def _breaks(
    boxes: FloatArray,
    size: FloatArray,
    between_words: BoolArray,
    numbers: BoolArray,
    is_text: Callable[[IntArray], BoolArray],
) -> tuple[BoolArray, BoolArray]:
    """(n - 1,) whether a segment begins after each character, and whether it does in a column.

    Args:
        boxes: (n, 4) of the characters.
        size: (n,) of their type, in points.
        between_words: (n - 1,) whether something stands between each and the next.
        numbers: (n - 1,) whether one number ends and the next begins there.
        is_text: Tells of some that no cell begins after them for being in a column: they end a
            sentence, or are letters of one width, which stand in columns anyhow.
    """
    before, after = boxes[:-1], boxes[1:]
    height = np.minimum(before[:, 3] - before[:, 1], after[:, 3] - after[:, 1])
    overlap = np.minimum(before[:, 3], after[:, 3]) - np.maximum(before[:, 1], after[:, 1])
    gap = after[:, 0] - before[:, 2]
    em = np.maximum(np.maximum(size[:-1], size[1:]), 1.0)
    is_level = overlap >= 0.4 * height
    result: BoolArray = ~is_level | (gap > WIDE_GAP * em) | (gap < -0.8 * em)
    # A stamp drawn over the last line of the text.
    result |= np.minimum(size[:-1], size[1:]) * OTHER_SIZE < em
    result &= between_words
    in_column: BoolArray = numbers & is_level & (gap > BETWEEN_NUMBERS * em)
    gaps = np.flatnonzero((gap > NARROW_GAP * em) & between_words & is_level)
    n_wide = int(np.count_nonzero(result[gaps]))
    if FEWEST_LEVEL <= n_wide < len(gaps):
        words = np.flatnonzero(between_words & is_level)
        beside = _gaps_beside(gap / em, words, gaps)
        found = gaps[_in_columns(gap[gaps] / em[gaps], beside, after[gaps], em[gaps])]
        if len(found):
            in_column[found] |= ~is_text(found)
    return result | in_column, in_column


def _gaps_beside(gap: FloatArray, words: IntArray, asked: IntArray) -> FloatArray:
    """(n,) the wider of the gaps before and after each of some, wide ones left out.

    Args:
        gap: (k,) in font sizes, after each character.
        words: (m,) characters after which a word begins in the same line, in order.
        asked: (n,) those of them that are asked for.
    """
    usual = np.where(gap[words] < WIDE_GAP, gap[words], 0.0)
    padded = np.concatenate(([0.0], usual, [0.0]))
    at = np.searchsorted(words, asked)
    wider: FloatArray = np.maximum(padded[at], padded[at + 2])
    return wider


def _end_sentences(codes: IntArray, rows: IntArray) -> BoolArray:
    """(n,) which characters end a sentence: after it blanks are wider in some texts.

    Args:
        codes: Of all characters of the page.
        rows: (n,) places of those that are asked about.
    """
    before = codes[np.maximum(rows - 1, 0)]
    is_stop = np.isin(codes[rows], _STOPS) & ~np.isin(before, _STOPS)
    found: BoolArray = is_stop & (before > ord(" "))
    return found


_STOPS = [ord(stop) for stop in ".!?"]
_DIGITS = [ord(sign) for sign in "0123456789%"]
_BEGIN_NUMBERS = [ord(sign) for sign in "0123456789-−+<≤±"]


def _in_columns(gap: FloatArray, beside: FloatArray, box: FloatArray, em: FloatArray) -> BoolArray:
    """(n,) which words begin a cell though near to the one before: others begin right there.

    Args:
        gap: (n,) font sizes from the word before.
        beside: (n,) the wider of the gaps of the words beside.
        box: (n, 4) boxes of first letters.
        em: (n,) font sizes.
    """
    found = np.zeros(len(gap), dtype=bool)
    wide = np.flatnonzero(gap > WIDE_GAP)
    narrow = np.flatnonzero((gap <= WIDE_GAP) & (gap > TIMES_USUAL * beside))
    if len(wide) >= FEWEST_LEVEL and len(narrow):
        size = em[narrow, None]
        away = np.abs(box[narrow, None, 1] - box[None, wide, 1])
        begins = np.abs(box[narrow, None, 0] - box[None, wide, 0]) < LEVEL
        near = (away < NEAR_LINES * size) & (away > 0.5 * size)
        found[narrow] = (near & begins).sum(axis=1) >= FEWEST_LEVEL
    return found


def _styles(page: PageText, inked: IntArray) -> tuple[FloatArray, ...]:
    """Size, bold, italic and fixed of each inked character."""
    n = len(inked)
    if not len(page.run_starts):
        height = page.boxes[inked, 3] - page.boxes[inked, 1]
        return height, np.zeros(n), np.zeros(n), np.zeros(n)
    run = np.searchsorted(page.run_starts, inked, side="right") - 1
    faces = np.array([(f.is_bold, f.is_italic, f.is_fixed) for f in page.fonts], np.float32)
    chosen = faces[page.run_fonts[run]]
    return page.run_sizes[run], chosen[:, 0], chosen[:, 1], chosen[:, 2]
