"""What stands beside or over the text of a page: numbers of lines, notes in the margin, stamps."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
    from wide_margin.core.layout.segments import Segments
    from wide_margin.core.pages import PageText

LEAST_NUMBERS = 4
"""Fewer numbers in a column number no lines."""
MANY_NUMBERS = 15
"""So many at even distances number lines, whatever their size."""
STEPS = (1, 2, 5, 10)
"""Lines are numbered in steps of these."""
SMALLER = 0.93
"""Notes in the margin are set in at most this share of the text's size, or slanted."""
NARROW = 0.3
"""A note in the margin is at most this share of the page wide."""
FEW = 0.3
"""Notes in the margin hold at most this share of the page's characters."""
BAR_SMALLER, BAR_LEAST, BAR_WIDE = 0.8, 3, 0.25
"""A bar beside a slide has at least so many words or lines, all at most this share of the text's
size, in a strip of at most this share of the page."""
UPRIGHT, ACROSS, LEAST_SIDEWAYS = 3.0, 1.6, 5
"""A word of so many letters runs sideways where it is this many times its size high, and at most
so many times wide."""
CLIMBING, STEEP, LEAST_CLIMBING = 1.5, 0.25, 3
"""Words of so many letters run across the page where their last letter stands this many times its
size above or below the first, and at least this share of the way aside."""
HUGE = 2.5
"""A stamp ("DRAFT") is set in this many times the text's size or more, over several lines."""


def set_apart(page: PageText, segments: Segments) -> list[tuple[str, IntArray]]:
    """Tell the segments of a page that belong to no column of its text.

    Returns:
        Kind ("number", "side", "stamp") and the rows of segments, for each kind that is there.
    """
    n_chars = segments.end - segments.first
    across = _across(page, segments, n_chars)
    if len(segments) < 2 * LEAST_NUMBERS:
        return [] if across is None else [("side", np.flatnonzero(across))]
    usual = _usual_size(segments.size, n_chars)
    taken: BoolArray = np.zeros(len(segments), dtype=bool)
    found: list[tuple[str, IntArray]] = []
    for kind, chosen in (
        ("stamp", _stamps(segments, usual)),
        ("side", across),
        ("side", _sideways(segments, n_chars)),
        ("number", _line_numbers(page, segments, n_chars, usual)),
        ("side", _side_notes(page, segments, n_chars, usual)),
        ("side", _side_bar(page, segments, n_chars, usual)),
    ):
        if chosen is not None and (chosen & ~taken).any():
            found.append((kind, np.flatnonzero(chosen & ~taken)))
            taken |= chosen
    return found


def _usual_size(size: FloatArray, n_chars: IntArray) -> float:
    """The size that the middle one of all characters has."""
    order = np.argsort(size)
    below = np.cumsum(n_chars[order])
    return float(size[order[np.searchsorted(below, below[-1] // 2)]])


def _stamps(segments: Segments, usual: float) -> BoolArray | None:
    """Huge letters that lie over at least three other segments."""
    if segments.size.max() <= HUGE * usual:
        return None
    chosen: BoolArray = np.zeros(len(segments), dtype=bool)
    boxes = segments.boxes
    for row in np.flatnonzero(segments.size > HUGE * usual).tolist():
        x0, y0, x1, y1 = boxes[row]
        over = (boxes[:, 0] < x1) & (boxes[:, 2] > x0) & (boxes[:, 1] < y1) & (boxes[:, 3] > y0)
        chosen[row] = np.count_nonzero(over) > 3
    return chosen


def _across(page: PageText, segments: Segments, n_chars: IntArray) -> BoolArray | None:
    """Words that climb or fall across the page, as a mark under the text of every page does.

    A page that was laid askew under the scanner climbs less, and as a whole. The parts of a formula
    are lines of their own to the reader of the file.
    """
    tall = (segments.spread > (1 + CLIMBING) * segments.size) & (n_chars >= LEAST_CLIMBING)
    if not tall.any():
        return None
    spans = zip(segments.first[tall].tolist(), segments.end[tall].tolist(), strict=True)
    rows = np.flatnonzero(tall)[["\n" not in page.chars[a:b] for a, b in spans]]
    first = page.boxes[segments.first[rows]]
    last = page.boxes[segments.end[rows] - 1]
    aside = np.abs(last[:, 0] - first[:, 0])
    climbed = np.abs(last[:, 1] + last[:, 3] - first[:, 1] - first[:, 3]) / 2
    size = segments.size[rows]
    climbs = (climbed > CLIMBING * size) & (climbed > STEEP * aside) & (aside > size)
    chosen: BoolArray = np.zeros(len(segments), dtype=bool)
    chosen[rows[climbs]] = True
    is_few = n_chars[chosen].sum() <= 0.5 * n_chars.sum()
    return chosen if chosen.any() and is_few else None


def _sideways(segments: Segments, n_chars: IntArray) -> BoolArray | None:
    """Words that run up or down beside the text, and what else stands in their strip."""
    boxes = segments.boxes
    width = boxes[:, 2] - boxes[:, 0]
    runs = (segments.spread > UPRIGHT * segments.size) & (width < ACROSS * segments.size)
    runs &= n_chars >= LEAST_SIDEWAYS
    chosen: BoolArray = np.zeros(len(segments), dtype=bool)
    middle = 0.5 * (boxes[:, 0] + boxes[:, 2])
    for row in np.flatnonzero(runs).tolist():
        inside = (middle >= boxes[row, 0]) & (middle <= boxes[row, 2])
        chosen |= inside & (width < ACROSS * segments.size[row])
    if not chosen.any() or n_chars[chosen].sum() > FEW * n_chars.sum():
        return None
    return chosen


def _line_numbers(
    page: PageText, segments: Segments, n_chars: IntArray, usual: float
) -> BoolArray | None:
    """Numbers that stand in one column left of the text and count on by one step.

    They are smaller than the text, or so many at one distance that they are no list.
    """
    short = np.flatnonzero(n_chars <= 4)
    if len(short) < LEAST_NUMBERS:
        return None
    values = {}
    for row in short.tolist():
        text = page.chars[segments.first[row] : segments.end[row]]
        if text.isdecimal():
            values[row] = int(text)
    if len(values) < LEAST_NUMBERS:
        return None
    chosen: BoolArray = np.zeros(len(segments), dtype=bool)
    rows = np.array(list(values), dtype=np.int32)
    others = np.delete(segments.boxes, rows, axis=0)
    for column in _columns(segments.boxes[rows, 2]):
        counted = rows[column]
        if len(counted) < LEAST_NUMBERS:
            continue
        counted = counted[np.argsort(segments.boxes[counted, 1])]
        if not _counts_on([values[row] for row in counted.tolist()]):
            continue
        tops = np.diff(segments.boxes[counted, 1])
        even = float(np.mean(np.abs(tops - np.median(tops)) < 1.0)) > 0.9
        is_small = np.median(segments.size[counted]) < SMALLER * usual
        if not is_small and not (even and len(counted) >= MANY_NUMBERS):
            continue
        within = others[:, 0] < segments.boxes[counted, 2].max()
        if np.count_nonzero(within) <= 0.1 * len(others):
            chosen[counted] = True
    return chosen


def _columns(edges: FloatArray) -> list[IntArray]:
    """Rows whose edges agree within two points."""
    order = np.argsort(edges)
    return np.split(order, np.flatnonzero(np.diff(edges[order]) > 2.0) + 1)


def _counts_on(values: list[int]) -> bool:
    steps = np.diff(values)
    usual = int(np.median(steps))
    return usual in STEPS and float(np.mean(steps == usual)) >= 0.8


def _side_notes(
    page: PageText, segments: Segments, n_chars: IntArray, usual: float
) -> BoolArray | None:
    """Small or slanted text wholly left or right of the columns, at the height of their lines."""
    boxes = segments.boxes
    other = (segments.size < SMALLER * usual) | (segments.italic > 0.6)
    if not other.any():
        return None
    is_main = (np.abs(segments.size - usual) < 0.05 * usual) & (segments.italic < 0.5)
    wide = is_main & (boxes[:, 2] - boxes[:, 0] > NARROW * page.width)
    if np.count_nonzero(wide) < 2 * LEAST_NUMBERS:
        return None
    chosen: BoolArray = np.zeros(len(segments), dtype=bool)
    left, right = _usual_edges(boxes[wide])
    top, bottom = boxes[wide, 1].min(), boxes[wide, 3].max()
    other &= (boxes[:, 1] >= top - usual) & (boxes[:, 3] <= bottom + usual)
    for beside in (boxes[:, 0] >= right + 5, boxes[:, 2] <= left - 5):
        rows = beside & other
        # Where text of the usual size stands there too, it is a column.
        if not rows.any() or n_chars[beside & ~other].sum() > 0.2 * n_chars[rows].sum():
            continue
        around = boxes[rows]
        narrow = around[:, 2].max() - around[:, 0].min() <= NARROW * page.width
        if narrow and n_chars[rows].sum() <= FEW * n_chars[is_main].sum():
            chosen |= rows
    return chosen


def _side_bar(
    page: PageText, segments: Segments, n_chars: IntArray, usual: float
) -> BoolArray | None:
    """Small words in a strip that nothing else reaches into, as the contents beside a slide."""
    if page.width <= page.height:
        return None
    is_small: BoolArray = segments.size <= BAR_SMALLER * usual
    if np.count_nonzero(is_small) < BAR_LEAST:
        return None
    boxes, text = segments.boxes, segments.boxes[~is_small]
    strips: tuple[BoolArray, BoolArray] = (
        is_small & (boxes[:, 2] < text[:, 0].min()), is_small & (boxes[:, 0] > text[:, 2].max()),
    )  # fmt: skip
    for strip in strips:
        if np.count_nonzero(strip) < BAR_LEAST or n_chars[strip].sum() > n_chars[~strip].sum():
            continue
        left, right = boxes[strip, 0].min(), boxes[strip, 2].max()
        others = boxes[~strip]
        is_free = not ((others[:, 0] < right) & (others[:, 2] > left)).any()
        if is_free and right - left <= BAR_WIDE * page.width:
            return strip
    return None


def _usual_edges(boxes: FloatArray) -> tuple[float, float]:
    """Left and right edge of the text, one line in twenty left out on either side."""
    few = len(boxes) // 20
    left, right = np.sort(boxes[:, 0]), np.sort(boxes[:, 2])
    return float(left[few]), float(right[-1 - few])
