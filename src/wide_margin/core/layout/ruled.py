"""Rows of tables that drawn rules part from each other, taken apart into their cells.

Where a rule goes under every row, a cell may be as long as it likes and stand at any height of its
row: what lies between two rules is one row, but for rows that have no rule between them.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.layout.wrapped import BLANK, columns_of, first_word

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray
    from wide_margin.core.layout.model import Line

NARROWEST = 100.0
"""Points from one side of a table to the other at least."""
LEVEL, NEXT_PIECE = 1.0, 3.0
"""Points by which pieces of one rule are off its height, and lie apart, at most."""
SIDES = 3.0
"""Points by which the rules of one table end at different places."""
THIN, HIGHEST = 3.0, 300.0
"""Points between two rules that are one double rule, and between those of one row at most."""
FEWEST_BANDS, FEWEST_RULES = 2, 4
"""Rows at least, and level rules where no upright one parts the columns: three set off the head and
the end of a table, whatever rows are in it."""
CLOSE = 2.5
"""Font sizes between the feet of two lines of one row."""
MOSTLY_ROWS = 0.6
"""Share of what lies between rules that stands in columns, in a table without upright ones."""
RUNS_OVER = 0.8
"""Share of the next column that a cell may run over."""
ALONG = 0.5
"""Share of the height of a table that an upright rule goes along."""
MOST_LABEL, MOST_APART = 4, 1.6
"""Lines of the first cell of a row of several long ones, and how many times as far apart as the
nearest lines of the row any of them are."""
MOSTLY_FULL = 0.5
"""Share of the lines of its cells that are full, from which on a row of several is one."""
MOST_RULES = 2_000
"""Rules of a page beyond which it is a drawing."""


@dataclass(frozen=True, slots=True)
class _Grid:
    """The rules of a table: its sides, where its level ones lie, and its upright ones between."""

    left: float
    right: float
    levels: tuple[float, ...]
    uprights: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class _Cell:
    """A part of a line in the column of its cell."""

    column: int
    line: Line
    left: float
    right: float
    start: int
    end: int


def may_be_ruled(lines: Sequence[Line]) -> bool:
    """Whether a cell of a table seems to go on in the next line: its rules are worth a look then.

    A line stands under one of several cells, at the edge of one of them or beside another.
    """
    n_cells = sum(bool(line.cells) for line in lines)
    return n_cells >= FEWEST_BANDS and any(
        _is_beside(one, other) or _is_beside(other, one) for one, other in pairwise(lines)
    )


def _is_beside(row: Line, line: Line) -> bool:
    """Whether a line without cells stands close to one of several, as a part of one of these."""
    if not row.cells or line.cells or row.apart or line.apart:
        return False
    if abs(row.box[3] - line.box[3]) > CLOSE * max(line.size, 1.0):
        return False
    x0, _, x1, _ = line.box
    is_under = any(abs(left - x0) < SIDES for left, _ in row.cells[1:])
    return is_under or x1 < row.cells[1][0]


def ruled_rows(lines: list[Line], rules: FloatArray) -> list[Line]:
    """The lines of a page, those of rows between rules cell by cell, with row and column.

    Args:
        lines: In reading order.
        rules: (n, 4) the straight rules of the page; see pages.rules.
    """
    n_rows = 0
    for grid in _grids(rules) if len(rules) <= MOST_RULES else ():
        made = _in_rows(lines, grid, n_rows)
        if made is not None:
            lines = made
            n_rows = max(line.table_row for line in lines)
    return lines


def _in_rows(lines: list[Line], grid: _Grid, n_rows: int) -> list[Line] | None:
    """All lines, those within a grid by its rows and cells; None where that tells nothing new."""
    inside = [
        k for k, line in enumerate(lines)
        if not line.apart and not line.table_row
        and grid.levels[0] < _middle(line) < grid.levels[-1]
        and line.box[0] > grid.left - SIDES and line.box[2] < grid.right + SIDES
    ]  # fmt: skip
    bands: list[list[Line]] = [[] for _ in grid.levels[1:]]
    for k in inside:
        bands[bisect_right(grid.levels, _middle(lines[k])) - 1].append(lines[k])
    told = [band for band in bands if band]
    if len(told) < FEWEST_BANDS or all(len(band) == 1 for band in told):
        return None
    lefts = columns_of([line for band in told for line in band])
    edges = (grid.left, *grid.uprights) if grid.uprights else tuple(lefts)
    if len(edges) < 2:
        return None
    limits = (*grid.uprights, grid.right) if grid.uprights else (*edges[1:], grid.right)
    in_cells = [_cells(band, edges, limits) for band in told]
    if not grid.uprights and sum(map(_has_columns, in_cells)) < MOSTLY_ROWS * len(told):
        return None  # text between boxes
    made: list[Line] = []
    for band, cells in zip(told, in_cells, strict=True):
        if len(band) == 1 or not cells or not _is_one_row(cells, limits):
            made += band
            continue
        n_rows += 1
        made += [
            cell.line.part(cell.left, cell.right, cell.start, cell.end)._replace(
                table_row=n_rows, table_column=cell.column
            )
            for cell in cells
        ]
    if all(not line.table_row for line in made):
        return None
    column, taken = lines[inside[0]].column, set(inside)
    made = [line._replace(column=column) for line in made]
    rest = [line for k, line in enumerate(lines) if k > inside[0] and k not in taken]
    return [*lines[: inside[0]], *made, *rest]


def _has_columns(cells: Sequence[_Cell] | None) -> bool:
    """Whether something stands in more than one column, and is not all code."""
    return bool(cells) and len({cell.column for cell in cells or ()}) > 1 and not all(
        cell.line.is_fixed for cell in cells or ()
    )  # fmt: skip


def _middle(line: Line) -> float:
    return (line.box[1] + line.box[3]) / 2


def _cells(
    band: Sequence[Line], edges: Sequence[float], limits: Sequence[float]
) -> list[_Cell] | None:
    """The parts of some lines column by column; None where one goes far over into the next one.

    Args:
        band: The lines.
        edges: Where the columns begin.
        limits: Where they end.
    """
    cells = []
    for line in band:
        for left, right, start, end in line.parts:
            column = bisect_right(edges, left + SIDES) - 1
            if column < 0 or right > _reach(column, limits):
                return None
            cells.append(_Cell(column, line, left, right, start, end))
    return sorted(cells, key=lambda cell: (cell.column, cell.line.box[3], cell.left))


def _reach(column: int, limits: Sequence[float]) -> float:
    """How far a cell may run over its column: over most of the next one, where words are long.

    What goes on to the end of that is of both.
    """
    if column + 1 == len(limits):
        return limits[column] + SIDES
    return limits[column] + RUNS_OVER * (limits[column + 1] - limits[column])


def _is_one_row(cells: Sequence[_Cell], limits: Sequence[float]) -> bool:
    """Whether all that stands between two rules is one row.

    It is where one column alone has several lines; else the lines must be full, so that what stands
    in the next one would not have fitted in. Rows that no rule parts are as short as they are.
    """
    columns = [[c for c in cells if c.column == k] for k in sorted({c.column for c in cells})]
    if len(columns) < 2:
        return False
    long = [column for column in columns if len({c.line.box[3] for c in column}) > 1]
    if len(long) < 2:
        return True
    if all(_is_of_names(column) for column in long[:2]) or _is_of_names(long[0], fewest=3):
        return False
    nearest = max(min(step for column in long for step in _steps(column)), cells[0].line.size)
    if len(long[0]) > MOST_LABEL or max(_steps(long[0])) > MOST_APART * nearest:
        return False  # labels of several rows leave room
    return all(_is_mostly_full(column, limits) for column in long)


def _steps(column: Sequence[_Cell]) -> list[float]:
    """Points from each line of a column to the next."""
    return [b.line.box[3] - a.line.box[3] for a, b in pairwise(column)]


def _is_of_names(column: Sequence[_Cell], fewest: int = 2) -> bool:
    """Whether each line of a column is a single word, which may be a row of its own."""
    said = [cell.line.text[cell.start : cell.end].split() for cell in column]
    return len(said) >= fewest and all(len(some) == 1 for some in said)


def _is_mostly_full(column: Sequence[_Cell], limits: Sequence[float]) -> bool:
    """Whether most lines of a column are full."""
    full = [_is_full(above, below, limits) for above, below in pairwise(column)]
    return sum(full) >= MOSTLY_FULL * len(full)


def _is_full(above: _Cell, below: _Cell, limits: Sequence[float]) -> bool:
    """Whether the first word of a line would not have fitted in the line above it."""
    word = first_word(below.line.text[below.start : below.end], below.right - below.left)
    return above.right + BLANK * below.line.size + word > limits[above.column] - SIDES


def _grids(rules: FloatArray) -> Iterator[_Grid]:
    """The grids of a page: level rules over each other that begin and end alike."""
    level = _joined(level_among(rules).tolist(), along=0)
    upright = _joined(upright_among(rules).tolist(), along=1)
    open_: list[list[tuple[float, float, float]]] = []
    for rule in sorted(rule for rule in level if rule[2] - rule[1] >= NARROWEST):
        y, x0, x1 = rule
        for table in open_:
            last = table[-1]
            is_alike = abs(last[1] - x0) <= SIDES and abs(last[2] - x1) <= SIDES
            if is_alike and y - last[0] <= HIGHEST:
                if y - last[0] > THIN:
                    table.append(rule)
                break
        else:
            open_.append([rule])
    for table in open_:
        levels = tuple(y for y, _, _ in table)
        left, right = table[0][1], table[0][2]
        between = tuple(
            x for x, y0, y1 in upright
            if left + SIDES < x < right - SIDES
            and min(y1, levels[-1]) - max(y0, levels[0]) >= ALONG * (levels[-1] - levels[0])
        )  # fmt: skip
        if len(levels) > FEWEST_BANDS and (between or len(levels) >= FEWEST_RULES):
            yield _Grid(left, right, levels, between)


def level_among(rules: FloatArray) -> FloatArray:
    """(k, 4) those of (n, 4) rules that lie level."""
    return rules[(rules[:, 2] - rules[:, 0]) > 2 * (rules[:, 3] - rules[:, 1])]


def upright_among(rules: FloatArray) -> FloatArray:
    """(k, 4) those of (n, 4) rules that stand upright."""
    return rules[(rules[:, 3] - rules[:, 1]) > 2 * (rules[:, 2] - rules[:, 0])]


def _joined(rules: Sequence[Sequence[float]], *, along: int) -> list[tuple[float, float, float]]:
    """Rules as (where they lie, from, to), the pieces of one put together, in order.

    Args:
        rules: Left, top, right and bottom of each.
        along: 0 for level ones, 1 for upright ones.
    """
    pieces = sorted(
        ((rule[1 - along] + rule[3 - along]) / 2, rule[along], rule[along + 2]) for rule in rules
    )
    found: list[list[float]] = []
    for at, start, end in pieces:
        same = _goes_on_from(found, at, start, end)
        if same is not None:
            same[1], same[2] = min(same[1], start), max(same[2], end)
        else:
            found.append([at, start, end])
    return [(at, start, end) for at, start, end in found]


def _goes_on_from(
    found: Sequence[list[float]], at: float, start: float, end: float
) -> list[float] | None:
    """The rule that a piece goes on from; those found lie in order, so that few are looked at."""
    for rule in reversed(found):
        if at - rule[0] > LEVEL:
            break
        if start <= rule[2] + NEXT_PIECE and end >= rule[1] - NEXT_PIECE:
            return rule
    return None
