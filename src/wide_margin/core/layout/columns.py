"""Columns and rows: in which order the segments of a page are read."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import middle

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray

MIN_COLUMN = 90.0
"""Narrowest column of running text, in points."""
MIN_ROWS = 5
"""Fewer rows than this on a side are a table or a heading set apart, not a column."""
SWITCHES, SWITCH_SHARE = 2, 0.12
"""Columns are drawn one after the other, but for so many turns from side to side, and for so many
of each hundred lines."""
LEAST_LABELS, LABELS_SHARE, UNDER_LABEL = 3, 3, 1.6
"""So many labels stand before their text, so many times as many as other turns to the right; and
heights of a line from a label down to its text, at most."""
LABELLED = 0.4
"""How wide half of the lines of labelled text are beside the widest, at least."""
JUSTIFIED, FLUSH = 40, 0.85
"""Lines from which columns may be drawn line by line, where half of them are that wide at least."""
COLUMN_ROWS, FILLED = 12, 0.7
"""Lines on either side of columns below a wide table, of which a quarter are that wide at least."""
BAND_ROWS, BAND_FILLED = 3, 0.6
"""Lines on either side of columns that take a part of the page, half of them that wide at least."""
SAME = 1.0
"""Points by which edges differ, at most, that are one."""
APART = 4.0
"""Points between the tops of two rows, at least."""
MOST_TURNS = 64
"""What is drawn with more turns upwards to the right is a figure."""
UP = 2.0
"""Times a line's height by which the next column begins above the end of the one before."""
BESIDE = 0.8
"""Share of the height of the shorter of two columns that stands beside the other."""


def reading_zones(boxes: FloatArray) -> list[IntArray]:
    """Part the segments of a page into zones that are read one after the other.

    Args:
        boxes: (n, 4) segments in page space, in the order of the content stream.

    Returns:
        Row numbers per zone, in reading order; each row is in exactly one zone.

    Source:
        The recursive X-Y cut (Nagy and Seth, ICPR 1984), with one addition: a gutter parts
        columns only when the content stream also reads one side before the other. Cells of
        a table share the gutter, but are drawn row by row.
    """
    everything: IntArray = np.arange(len(boxes))
    return _zones(boxes, everything) if len(boxes) else []


def _zones(boxes: FloatArray, rows: IntArray) -> list[IntArray]:
    gutter = _find_gutter(boxes[rows])
    if gutter is None:
        return _zones_around_band(boxes, rows)
    left, right, across = _sides(boxes[rows], gutter)
    bands = np.sort(boxes[rows[across], 1])
    zone = np.searchsorted(bands, boxes[rows, 1] + 0.1)
    found: list[IntArray] = []
    wide: list[IntArray] = []
    for band in range(len(bands) + 1):
        inside = zone == band
        wide.append(rows[inside & across])
        if (left & inside).any() and _n_rows(boxes[rows[inside & ~across]]) == 1:
            wide.append(rows[inside & ~across])  # level with each other: a row of a table
            continue
        columns = [rows[side & inside] for side in (left, right) if (side & inside).any()]
        if len(columns) == 2 and _stands_below(boxes[columns[0]], boxes[columns[1]]):
            columns.reverse()  # a title at the right over a heading at the left
        if columns and any(map(len, wide)):
            found.append(np.concatenate(wide))
            wide = []
        for column in columns:
            found.extend(_zones(boxes, column))
    if any(map(len, wide)):
        found.append(np.concatenate(wide))
    return found


def _zones_around_band(boxes: FloatArray, rows: IntArray) -> list[IntArray]:
    """Zones of text in one column, a part of which may be set in two or more."""
    band = _find_band(boxes[rows])
    if band is None:
        return [rows]
    first, second = band
    inside = first | second
    is_above = ~inside & (boxes[rows, 1] < boxes[rows[inside], 1].min())
    rest = (rows[is_above], rows[~inside & ~is_above])
    return [
        zone for some in (rest[0], rows[first], rows[second], rest[1]) if len(some)
        for zone in _zones(boxes, some)
    ]  # fmt: skip


def _find_band(boxes: FloatArray) -> tuple[BoolArray, BoolArray] | None:
    """The first column of a band of columns between lines of full width, and all after it.

    Where the content stream turns from the end of one column to the head of the next, it goes up
    and to the right, and no other text stands level with the two.
    """
    if len(boxes) < 2 * BAND_ROWS:
        return None
    height = middle(boxes[:, 3] - boxes[:, 1])
    goes_up = boxes[1:, 1] < boxes[:-1, 1] - UP * height
    to_right = boxes[1:, 0] > boxes[:-1, 2]
    turns = np.flatnonzero(goes_up & to_right) + 1
    for turn in turns.tolist() if len(turns) <= MOST_TURNS else ():
        before = _run(boxes[turn - 1 :: -1, 2] < boxes[turn, 0])
        start = turn - before
        gutter = boxes[start:turn, 2].max()
        end = turn + _run(boxes[turn:, 0] > gutter)
        top, bottom = boxes[turn:end, 1].min() - 0.5 * height, boxes[start:turn, 3].max()
        first, second = np.zeros((2, len(boxes)), dtype=bool)
        first[start:turn] = boxes[start:turn, 1] >= top
        second[turn:end] = boxes[turn:end, 1] <= bottom
        if _is_band(boxes, first, second):
            return first, second
    return None


def _run(holds: BoolArray) -> int:
    """How many of the first values are true."""
    return len(holds) if holds.all() else int(np.argmin(holds))


def _is_band(boxes: FloatArray, first: BoolArray, second: BoolArray) -> bool:
    """Whether two sets of segments stand beside each other as columns, and nothing else does."""
    one, other = boxes[first], boxes[second]
    if min(_n_rows(one), _n_rows(other)) < BAND_ROWS:
        return False
    if min(_width(one), _width(other)) < MIN_COLUMN:
        return False
    if min(_filled(_in_rows(one)), _filled(_in_rows(other))) < BAND_FILLED:
        return False
    top, bottom = float(one[:, 1].min()), float(one[:, 3].max())
    shared = min(bottom, other[:, 3].max()) - max(top, other[:, 1].min())
    middle = (boxes[:, 1] + boxes[:, 3]) / 2
    level = ~first & ~second & (middle > top) & (middle < bottom)
    if shared < BESIDE * min(_height(one), _height(other)) or level.any():
        return False
    return not _is_row_of_table(one, other, boxes[~first & ~second])


def _is_row_of_table(one: FloatArray, other: FloatArray, outside: FloatArray) -> bool:
    """Whether two cells of several lines begin level, and others stand beside each other as they.

    Args:
        one: (n, 4) what may be a cell.
        other: (m, 4) what may be the one at its right.
        outside: (k, 4) all else.
    """
    if abs(one[:, 1].min() - other[:, 1].min()) >= SAME:
        return False
    below = outside[np.abs(outside[:, 0] - other[:, 0].min()) < SAME]
    beside = outside[outside[:, 2] < other[:, 0].min()]
    return bool((np.abs(below[:, None, 1] - beside[:, 1]) < SAME).any())


def _in_rows(boxes: FloatArray) -> FloatArray:
    """One box for all segments that stand level: an entry of a list and its page number."""
    ordered = boxes[np.argsort(boxes[:, 1], kind="stable")]
    starts = np.flatnonzero(np.append(True, np.diff(ordered[:, 1]) > APART))
    low = np.minimum.reduceat(ordered[:, :2], starts)
    return np.hstack([low, np.maximum.reduceat(ordered[:, 2:], starts)])


def _width(boxes: FloatArray) -> float:
    return float(boxes[:, 2].max() - boxes[:, 0].min())


def _stands_below(boxes: FloatArray, others: FloatArray) -> bool:
    """Whether some segments stand wholly below others."""
    return bool(boxes[:, 1].min() >= others[:, 3].max())


def _sides(boxes: FloatArray, gutter: float) -> tuple[BoolArray, BoolArray, BoolArray]:
    """Which boxes stand left of a gutter, right of it, and across.

    What stands level with a box across the gutter belongs to its row: cells of a wide table.
    """
    left, right = boxes[:, 2] <= gutter + 2, boxes[:, 0] >= gutter - 2
    across = ~left & ~right
    if across.any():
        half = 0.5 * (boxes[:, 3] - boxes[:, 1])
        tops, ends = boxes[across, 1], boxes[across, 3]
        shared = np.minimum(boxes[:, 3, None], ends) - np.maximum(boxes[:, 1, None], tops)
        level = (shared >= half[:, None]).any(axis=1) & (half > 0)
        across = across | level
    return left & ~across, right & ~across, across


def _find_gutter(boxes: FloatArray) -> float | None:
    """X of the empty strip between two columns, None where the text is one column."""
    if len(boxes) < 2 * MIN_ROWS:
        return None
    low, high = float(boxes[:, 0].min()), float(boxes[:, 2].max())
    if high - low < 2 * MIN_COLUMN:
        return None
    grid = np.arange(low + MIN_COLUMN, high - MIN_COLUMN, 2.0)
    if not len(grid):  # rounded: as wide as two columns and no wider
        return None
    crossing = (boxes[:, 0, None] < grid - 1) & (boxes[:, 2, None] > grid + 1)
    n_crossing = crossing.sum(axis=0)
    least = int(n_crossing.min())
    if least > 0.3 * len(boxes):
        return None
    best = np.flatnonzero(n_crossing == least)
    middle = (low + high) / 2
    gutter = float(grid[best[np.argmin(np.abs(grid[best] - middle))]])
    return gutter if _is_gutter(boxes, gutter) else None


def _is_gutter(boxes: FloatArray, gutter: float) -> bool:
    left, right = boxes[:, 2] <= gutter + 2, boxes[:, 0] >= gutter - 2
    sides = right[left | right]
    n_switches = _n_switches(sides)
    fewer, more = sorted((_n_rows(boxes[left]), _n_rows(boxes[right])))
    # The end of a two-column article: a few lines at one side, drawn all before the other.
    is_rest = fewer >= 2 and n_switches == 1 and bool((left | right).all())
    if more < MIN_ROWS or (fewer < MIN_ROWS and not is_rest):
        return False
    shared = min(boxes[left, 3].max(), boxes[right, 3].max())
    shared -= max(boxes[left, 1].min(), boxes[right, 1].min())
    if (
        shared < 0.3 * _height(boxes)
        and not is_rest
        and not (
            # A few lines at either side on a last page, whose foot stands far below.
            n_switches <= SWITCHES
            and shared >= BESIDE * min(_height(boxes[left]), _height(boxes[right]))
            and min(_filled(boxes[left]), _filled(boxes[right])) > FILLED
        )
    ):
        return False
    if _is_in_turn(sides):
        return not _are_labels(boxes[left | right], sides)
    # Some producers draw justified columns line by line: both sides are then filled.
    if len(sides) >= JUSTIFIED and min(_filled(boxes[left]), _filled(boxes[right])) > FLUSH:
        return True
    return fewer >= COLUMN_ROWS and _is_below_table(boxes, gutter)


def _is_below_table(boxes: FloatArray, gutter: float) -> bool:
    """Whether columns of text stand between rows that run across: below a wide table, say.

    The cells of the table are read from one side to the other; the text below it is not.
    """
    left, right, across = _sides(boxes, gutter)
    if not across.any():
        return False
    zone = np.searchsorted(np.sort(boxes[across, 1]), boxes[:, 1] + 0.1)
    for band in np.unique(zone[left]):
        inside = (zone == band) & (left | right)
        one, other = boxes[inside & left], boxes[inside & right]
        if min(_n_rows(one), _n_rows(other)) < COLUMN_ROWS:
            continue
        if _is_in_turn(right[inside]):
            return min(_filled(one, 0.75), _filled(other, 0.75)) > FILLED
    return False


def _height(boxes: FloatArray) -> float:
    return float(boxes[:, 3].max() - boxes[:, 1].min())


def _n_switches(sides: BoolArray) -> int:
    """How often the content stream turns from one side to the other."""
    return int(np.count_nonzero(sides[1:] != sides[:-1]))


def _is_in_turn(sides: BoolArray) -> bool:
    """Whether one side is drawn before the other: (n,) in drawing order, true at the right."""
    return _n_switches(sides) <= SWITCHES + SWITCH_SHARE * len(sides)


def _are_labels(boxes: FloatArray, sides: BoolArray) -> bool:
    """Whether what stands at the left are labels, each drawn before its text at the right.

    From a column one goes up to the head of the next, from a label straight to its text or to the
    line under it.
    """
    at = np.flatnonzero(~sides[:-1] & sides[1:])
    down = (boxes[at + 1, 1] - boxes[at, 1]) / np.maximum(boxes[at, 3] - boxes[at, 1], 1.0)
    n_near = int(np.count_nonzero((down > -0.5) & (down < UNDER_LABEL)))
    is_before_each = n_near >= LEAST_LABELS and n_near > LABELS_SHARE * (len(at) - n_near)
    return is_before_each and _filled(boxes[sides]) > LABELLED  # no table beside a figure


def _filled(boxes: FloatArray, share: float = 0.5) -> float:
    """How wide a column's lines are beside the widest, of which this share is no wider."""
    widths = np.sort(boxes[:, 2] - boxes[:, 0])
    return float(widths[int(share * (len(widths) - 1))]) / max(_width(boxes), 1.0)


def _n_rows(boxes: FloatArray) -> int:
    if not len(boxes):
        return 0
    tops = np.sort(boxes[:, 1])
    return 1 + int(np.count_nonzero(np.diff(tops) > APART))


def rows_of(boxes: FloatArray, zone: IntArray) -> list[list[int]]:
    """Group the segments of a zone into rows, top to bottom, each left to right.

    Args:
        boxes: (n, 4) all segments of the page.
        zone: The rows of boxes that belong to the zone.

    Returns:
        Lists of row numbers. A segment joins the row whose height it shares by half.
    """
    inside = boxes[zone]
    usual = middle(inside[:, 3] - inside[:, 1])
    order = np.argsort(inside[:, 1] + inside[:, 3], kind="stable")
    items, ordered = zone[order].tolist(), inside[order].tolist()
    left = dict(zip(items, inside[order, 0].tolist(), strict=True))
    rows: list[list[int]] = []
    top = bottom = -1.0
    for item, (_, y0, _, y1) in zip(items, ordered, strict=True):
        height = y1 - y0
        shared = min(bottom, y1) - max(top, y0)
        if rows and shared >= 0.5 * min(height, bottom - top):
            rows[-1].append(item)
            if height <= 2 * usual:
                top, bottom = min(top, y0), max(bottom, y1)
                if bottom - top > 2 * usual:  # a chain of raised marks must not swallow a line
                    top, bottom = y0, y1
        else:
            rows.append([item])
            top, bottom = y0, y1
    for row in rows:
        if len(row) > 1:
            row.sort(key=left.__getitem__)
    return rows
