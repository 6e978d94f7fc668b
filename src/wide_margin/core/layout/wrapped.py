"""Rows of tables whose cells are several lines long, taken apart into their cells.

Read line by line, the cells of such a row are mixed: "needs more room since / is limited by the" of
two cells beside each other. Where a row ends is told by the space between rows, or by how full the
cells are: a cell goes on in the next line where the first word of that would not have fitted in.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import inf
from operator import or_
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout.text import HYPHENS, UNSPACED

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

ALIGNED = 2.0
"""Left edges of one column differ by no more points."""
FEWEST_ROWED, FEWEST_LINES = 2, 3
"""Lines of several cells, and lines at all, that a table with such rows has at least."""
NEAR, NEAREST = 2.4, 0.5
"""Font sizes between the feet of two of its lines, at most and at least."""
ALIKE = 0.08
"""How far sizes may differ, in font sizes."""
SET_APART = 1.1
"""Rows are this much further apart than the lines of their cells, where that tells them."""
MOST_TRIED = 3
"""Steps that may be those between rows, at most, the greatest differences first."""
AT_TOP = 2.0
"""Points by which a cell may be off the top of its row, or off its half."""
MOSTLY_TOLD = 0.6
"""Share of the lines that stand so near to the one before, which go on with it by what they say."""
BLANK = 0.25
"""Font sizes of the blank before a word."""
GUTTER = 1.25
"""Font sizes between the cells of a column and the next one, at most, where they are full."""
CROWDED, FEWEST_FULL = 1.5, 2
"""Font sizes from the end of a column within which full lines end, and how many show that its cells
are so long, where the space between rows tells nothing."""


_UNSPACED = regex(f"[{UNSPACED}]{{4}}")
"""A text that has no blanks between its words."""
_LEADERS = regex(r"(?:\s*[.·]){4,}")
"""Between a title and its page, in a list of contents, whose rows are one line each."""


@dataclass(frozen=True, slots=True)
class _Part:
    """What of a line stands in a column: its edges in points, its range in the line's text."""

    column: int
    left: float
    right: float
    start: int
    end: int


def parted_rows(lines: list[Line]) -> list[Line]:
    """The lines of a page, those of rows with long cells cell by cell, with row and column."""
    if sum(bool(line.cells) for line in lines) < FEWEST_ROWED or len(lines) < FEWEST_LINES:
        return lines
    made: list[Line] = []
    first, n_rows = 0, max(line.table_row for line in lines)
    while first < len(lines):
        end = _block_end(lines, first)
        block = lines[first:end]
        if len(block) < FEWEST_LINES or sum(bool(line.cells) for line in block) < FEWEST_ROWED:
            made += block
            first = end
            continue
        for row in _rows_of(block):
            if len(row) == 1:
                made.append(row[0][0])
            else:
                n_rows += 1
                made += _cells_of(row, n_rows)
        first = end
    return made


_Row = list[tuple["Line", list[_Part]]]


def _block_end(lines: Sequence[Line], first: int) -> int:
    """One past the last line that is set like the first, each near under the one before."""
    end = first + 1
    while end < len(lines):
        before, line = lines[end - 1], lines[end]
        em = max(line.size, 1.0)
        step = line.box[3] - before.box[3]
        is_near = NEAREST * em < step < NEAR * em and abs(line.size - before.size) < ALIKE * em
        if not is_near or line.column != before.column or line.apart or before.apart:
            break
        if line.table_row or before.table_row:  # told by rules
            break
        end += 1
    return end


def _rows_of(block: Sequence[Line]) -> list[_Row]:
    """The lines of a block by the rows that they belong to; one that is in no table by itself."""
    alone: list[_Row] = [[(line, [])] for line in block]
    if any(_LEADERS.search(line.text) for line in block):
        return alone  # of a contents page
    columns = columns_of(block)
    if len(columns) < 2:
        return alone
    parts = [_parts(line, columns) for line in block]
    made: list[_Row] = []
    row = 0
    while row < len(block):
        end = row
        while end < len(block) and parts[end]:
            end += 1
        table = list(zip(block[row:end], parts[row:end], strict=True))
        made += _rows_of_table(table) if end - row >= FEWEST_LINES else alone[row:end]
        made += alone[end : end + 1]
        row = end + 1
    return made


def columns_of(block: Sequence[Line]) -> list[float]:
    """Where the columns of a table begin: the left edges that several of its cells share."""
    lefts = sorted(left for line in block if line.cells for left, _ in line.cells)
    groups: list[list[float]] = []
    for left in lefts:
        if groups and left - groups[-1][-1] <= ALIGNED:
            groups[-1].append(left)
        else:
            groups.append([left])
    return [group[0] for group in groups if len(group) >= FEWEST_ROWED]


def _parts(line: Line, columns: Sequence[float]) -> list[_Part]:
    """The parts of a line by columns; none where one of them begins or ends elsewhere."""
    found = []
    for left, right, start, end in line.parts:
        column = next(
            (k for k, edge in enumerate(columns) if -0.1 <= left - edge <= 2 * ALIGNED), None
        )
        if column is None or (column + 1 < len(columns) and right > columns[column + 1] + ALIGNED):
            return []
        found.append(_Part(column, left, right, start, end))
    return found


def _rows_of_table(table: _Row) -> list[_Row]:
    """The lines of a table by rows."""
    n_columns = len({part.column for _, parts in table for part in parts})
    goes_on = _near_ones(table)
    if goes_on is None:
        goes_on = _full_ones(table)
    in_first = any(
        parts[0].column == 0 for (_, parts), on in zip(table, goes_on, strict=True) if on
    )
    if n_columns < 3 and not in_first:
        return [[each] for each in table]  # a list of terms, which is grouped as one
    return _split(table, goes_on)


def _split(table: _Row, goes_on: Sequence[bool]) -> list[_Row]:
    """The lines of a table, cut before each that does not go on with a row."""
    rows: list[_Row] = []
    for each, on in zip(table, goes_on, strict=True):
        if on and rows:
            rows[-1].append(each)
        else:
            rows.append([each])
    return rows


def _near_ones(table: _Row) -> list[bool] | None:
    """Which lines go on with a row, standing nearer to the one before; None if none do so."""
    steps = [line.box[3] - before.box[3] for (before, _), (line, _) in pairwise(table)]
    ordered = sorted(steps)
    limits = _limits(table, inf)
    apart = sorted(
        ((b / a, a) for a, b in pairwise(ordered) if b >= SET_APART * a), reverse=True
    )  # fmt: skip
    for _, most in apart[:MOST_TRIED]:
        near = [False, *(step <= 1.01 * most for step in steps)]
        told = [_told_in(row, limits) for row in _split(table, near)]
        lines = [tells for each in told for tells in each]
        if lines and sum(lines) >= MOSTLY_TOLD * len(lines):
            return [tells for each in told for tells in (False, *(all(each) for _ in each))]
    return None


def _told_in(row: _Row, limits: Mapping[int, float]) -> list[bool]:
    """Of each line after the first of what may be a row, whether it is one of it.

    Each of its cells goes on with one that was full, or begins one that stands at half the height
    of the row. Beside such a one all that goes on is text: names are rows beside their label.
    """
    if len(row) == 1:
        return []
    above: dict[int, tuple[Line, _Part]] = {part.column: (row[0][0], part) for part in row[0][1]}
    feet: dict[int, list[float]] = {}
    for line, parts in row:
        for part in parts:
            feet.setdefault(part.column, []).append(line.box[3])
    first, last = row[0][0].box[3], row[-1][0].box[3]
    is_level = [abs(at[0] - first) < AT_TOP for at in feet.values()]
    at_half = [abs(at[0] + at[-1] - first - last) < 2 * AT_TOP for at in feet.values()]
    is_placed = all(map(or_, is_level, at_half))
    told = []
    for line, parts in row[1:]:
        beside = [part for part in parts if part.column in above]
        over = [above[part.column] for part in beside]
        each = (
            [(beside, over)]
            if all(is_level)
            else [([b], [o]) for b, o in zip(beside, over, strict=True)]
        )
        may = not beside or all(_may_go_on(line, *some, limits, 2) for some in each)
        told.append(is_placed and may)
        above.update({part.column: (line, part) for part in parts})
    return told


def _may_go_on(
    line: Line,
    parts: Sequence[_Part],
    over: Sequence[tuple[Line, _Part]],
    limits: Mapping[int, float],
    fewest_words: int,
) -> bool:
    """Whether parts of a line may go on with the cells over them, by how full those are.

    What stands in them would not have fitted there; one cell at least is a text of so many words,
    numbers aside.
    """
    if line.is_fixed and all(before.is_fixed for before, _ in over):
        return False
    texts = [
        (before.text[above.start : above.end], line.text[part.start : part.end])
        for part, (before, above) in zip(parts, over, strict=True)
    ]
    is_full = all(
        above.right + BLANK * line.size + first_word(text, part.right - part.left)
        > limits[part.column]
        for part, (_, above), (_, text) in zip(parts, over, texts, strict=True)
    )
    is_text = any(
        _n_words(text) >= fewest_words or text[-1:] in HYPHENS or _UNSPACED.search(text)
        for text, _ in texts
    )
    return is_full and is_text and not _is_fresh(texts)


def _full_ones(table: _Row) -> list[bool]:
    """Which lines go on with a row, by the full cells before them, and by how they begin."""
    limits = _limits(table, GUTTER)
    crowded = Counter(
        part.column for line, parts in table for part in parts
        if part.right > limits[part.column] - CROWDED * line.size
    )  # fmt: skip
    found = [False]
    for (before, above), (line, parts) in pairwise(table):
        in_column = {part.column: part for part in above}
        over = [(before, in_column[part.column]) for part in parts if part.column in in_column]
        goes_on = is_whole = len(over) == len(parts)
        if is_whole and (goes_on := _may_go_on(line, parts, over, limits, 3)):
            ends = [before.text[part.start : part.end][-1:] in HYPHENS for _, part in over]
            begins = [line.text[part.start : part.end].lstrip()[:1] for part in parts]
            goes_on = any(ends) or any(map(str.islower, begins))
            goes_on = goes_on and not any(
                (sign.isupper() and not is_parted) or crowded[part.column] < FEWEST_FULL
                for sign, is_parted, part in zip(begins, ends, parts, strict=True)
            )
        found.append(goes_on)
    return found


def _limits(table: _Row, gutter: float) -> dict[int, float]:
    """How far to the right the cells of each column may reach, the next one so many sizes away."""
    lefts: dict[int, float] = {}
    limits: dict[int, float] = {}
    for _, parts in table:
        for part in parts:
            lefts[part.column] = min(lefts.get(part.column, part.left), part.left)
            limits[part.column] = max(limits.get(part.column, 0.0), part.right)
    gutter *= table[0][0].size
    return {
        column: max(limit, lefts[column + 1] - gutter) if column + 1 in lefts else limit
        for column, limit in limits.items()
    }


def _n_words(text: str) -> int:
    """How many words a text has, numbers aside."""
    return sum(any(map(str.isalpha, word)) for word in text.split())


def _is_fresh(texts: Sequence[tuple[str, str]]) -> bool:
    """Whether a line begins a row, by what it says under the cells of the line before.

    One of its cells begins as the one above does, or all have a capital or a figure in front.
    """
    firsts = [((above.split() or [""])[0], (text.split() or [""])[0]) for above, text in texts]
    if any(first == second for first, second in firsts):
        return True
    return len(texts) > 1 and all(
        (second[:1].isupper() or second[:1].isdigit()) and above[-1:] not in HYPHENS
        for (above, _), (_, second) in zip(texts, firsts, strict=True)
    )


def first_word(text: str, width: float) -> float:
    """Points that the first word of a text takes which is so many points wide."""
    n = len(text.split(maxsplit=1)[0]) if text.strip() else 0
    return n * width / max(len(text), 1)


def _cells_of(row: _Row, number: int) -> list[Line]:
    """The lines of a row cell by cell."""
    if len({part.column for _, parts in row for part in parts}) == 1:
        return [line for line, _ in row]
    placed = sorted(
        ((part.column, k, line, part) for k, (line, parts) in enumerate(row) for part in parts),
        key=lambda each: each[:2],
    )
    return [
        line.part(part.left, part.right, part.start, part.end)._replace(
            table_row=number, table_column=column
        )
        for column, _, line, part in placed
    ]
