"""Tables as rows of cells, each cell with the way back to the page."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import median
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout import Line, SpanOnPage, tidy
from wide_margin.core.layout.paragraphs import CAPTION

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

LEAST_ROWS = 2
"""Fewer rows with cells are no table."""
NEAR = 2.4
"""A line without cells belongs to a table within so many times its size of the row before."""
CAPTION_AWAY = 2
"""A table's caption is at most so many paragraphs before or after it."""
CLOSER = 0.9
"""A line this much closer to the row before than rows usually are goes on with its cells."""
CLOSE = 1.15
"""A line that goes on with a wrapped cell stands within so many usual steps of the row."""
MOST_BETWEEN = 2
"""So many lines without cells may stand between two rows."""
MOST_HEADS = 3
"""So many rows at the top name the columns at most."""
_FIGURES = regex(r"\d")
VALUE = regex(
    r"[<>≤≥~≈±(]?\s*[$€£¥]?\s*(?P<number>[-+−]?\d[\d,]*(?:\.\d+)?)"
    r"\s*(?P<unit>[%°\w/²³µ·]{0,9})\)?(?:\s*[(±\[].*)?"
)
"""A cell that holds a number, perhaps with a currency, a unit and what is said in brackets; a name
with a number in it begins with letters."""

Placed = list[tuple[Line, int, int, int]]
"""What stands in one column: line, start and end in its text, and how many columns it is over."""


@dataclass(frozen=True, slots=True)
class Cell:
    """What stands in one row and column."""

    text: str
    """Tidied; "" where nothing stands."""
    spans: tuple[SpanOnPage, ...] = ()
    width: int = 1
    """How many columns it lies over."""


@dataclass(frozen=True, slots=True)
class Table:
    """Rows of equally many cells."""

    rows: tuple[tuple[Cell, ...], ...]
    paragraphs: tuple[int, int]
    """Rows of its first paragraph and one past its last."""
    caption: int | None
    """Row of the paragraph that names it."""
    n_head: int
    """How many rows at the top name the columns."""
    page: int

    @property
    def heads(self) -> tuple[str, ...]:
        """The name of each column, from all its head rows; "" where it has none."""
        columns = zip(*self.rows[: self.n_head], strict=True) if self.n_head else ()
        named = tuple(" ".join(c.text for c in column if c.text) for column in columns)
        return named or ("",) * len(self.rows[0])


def find_tables(paragraphs: Sequence[Paragraph]) -> tuple[Table, ...]:
    """The tables of a document, in reading order.

    A table is a run of rows whose parts are set apart by wide gaps; its columns are where the
    parts of its fullest rows stand. A line that lies closer under a row than rows do goes on
    with that row's cells.
    """
    found = []
    for first, end in _runs(paragraphs):
        lines = [piece.line for p in paragraphs[first:end] for piece in p.pieces]
        rows = _rows(lines)
        if len(rows) >= LEAST_ROWS:
            caption = _caption(paragraphs, first, end)
            head = _n_head(rows, lines)
            found.append(Table(rows, (first, end), caption, head, lines[0].page))
    return tuple(found)


def _runs(paragraphs: Sequence[Paragraph]) -> Iterator[tuple[int, int]]:
    """Ranges of paragraphs that are the rows of one table."""
    row = 0
    while row < len(paragraphs):
        if paragraphs[row].kind != "row":
            row += 1
            continue
        end = row + 1
        while end < len(paragraphs):
            if _goes_on(paragraphs[end - 1], paragraphs[end]):
                end += 1
            elif between := _between(paragraphs, end):
                end += between + 1
            else:
                break
        if sum(len(p.pieces) for p in paragraphs[row:end]) >= LEAST_ROWS:
            yield row, end
        row = end


def _goes_on(before: Paragraph, paragraph: Paragraph) -> bool:
    return paragraph.kind in ("row", "entry") and _is_under(before, paragraph)


def _between(paragraphs: Sequence[Paragraph], row: int) -> int:
    """How many short lines without cells stand between two rows; 0 where it is not so.

    Two do where they stand right of the labels, as what is said of some heads does.
    """
    cells = (piece.line.cells for piece in paragraphs[row - 1].pieces[::-1])
    edges = next(filter(None, cells), ())
    for n in range(1, MOST_BETWEEN + 1):
        lines = paragraphs[row : row + n + 1]
        if len(lines) <= n or lines[n - 1].kind != "body" or len(lines[n - 1].pieces) != 1:
            return 0
        if not _is_under(paragraphs[row + n - 2], lines[n - 1]):
            return 0
        if lines[n].kind == "row" and _is_under(lines[n - 1], lines[n]):
            return n
        if not edges or lines[n - 1].pieces[0].line.box[0] < edges[0][1]:
            return 0
    return 0


def _is_under(before: Paragraph, paragraph: Paragraph) -> bool:
    lines = [piece.line for piece in before.pieces if piece.line.page == paragraph.page]
    above = max(lines or [before.pieces[-1].line], key=lambda line: line.box[3])
    below = paragraph.pieces[0].line
    step = below.box[3] - above.box[3]
    near = 0 < step <= NEAR * max(above.size, below.size)
    alike = abs(above.size - below.size) <= 0.08 * below.size  # a heading is no row
    return above.page == below.page and above.column == below.column and near and alike


def _units(lines: Sequence[Line]) -> list[list[Line]]:
    """The lines of a table by rows, where layout has found rows of several lines."""
    units: list[list[Line]] = []
    for line in lines:
        last = units[-1][-1] if units else None
        if line.table_row and last is not None and line.table_row == last.table_row:
            units[-1].append(line)
        else:
            units.append([line])
    return units


def _edges(unit: Sequence[Line]) -> Sequence[tuple[float, float]]:
    """Left and right edges of the cells of a row; none where it has but one."""
    if len(unit) == 1:
        return unit[0].cells
    cells: dict[int, list[Line]] = {}
    for line in unit:
        cells.setdefault(line.table_column, []).append(line)
    return [(min(x.box[0] for x in some), max(x.box[2] for x in some)) for some in cells.values()]


def _columns(units: Sequence[Sequence[Line]]) -> list[tuple[float, float]]:
    """Left and right edges of the columns: where the parts of the fullest rows stand."""
    rows = [edges for edges in map(_edges, units) if edges]
    counts = Counter(map(len, rows))
    often = [n for n, times in counts.items() if times >= 2] or list(counts)
    fullest = max(often)
    columns: list[tuple[float, float]] = []
    for edges in rows:
        if len(edges) != fullest:
            continue
        for k, (x0, x1) in enumerate(edges):
            if len(columns) <= k:
                columns.append((x0, x1))
            else:
                columns[k] = min(columns[k][0], x0), max(columns[k][1], x1)
    return [
        (x0, min(x1, after[0]) if after else x1)
        for (x0, x1), after in zip(columns, [*columns[1:], None], strict=True)
    ]


def _rows(lines: Sequence[Line]) -> tuple[tuple[Cell, ...], ...]:
    units = _units(lines)
    columns = _columns(units)
    steps = [b[0].box[3] - max(x.box[3] for x in a) for a, b in pairwise(units)]
    usual = median(steps) if steps else 0.0
    rows: list[list[Placed]] = []
    for k, unit in enumerate(units):
        placed: list[Placed] = [[] for _ in columns]
        for line in unit:
            for x0, x1, start, end in line.parts:
                column, width = _column_of(x0, x1, columns)
                placed[column].append((line, start, end, width))
        closer = k > 0 and steps[k - 1] < CLOSER * usual
        goes_on = closer and not placed[0] and len(_edges(unit)) < len(columns)
        near = k > 0 and steps[k - 1] <= CLOSE * usual
        is_line = not unit[0].table_row
        if is_line and rows and (goes_on or (near and _is_wrapped(placed, rows[-1]))):
            for column, parts in enumerate(placed):
                rows[-1][column].extend(parts)
        else:
            rows.append(placed)
    return tuple(tuple(_cell(parts) for parts in row) for row in rows)


def _is_wrapped(placed: Sequence[Placed], above: Sequence[Placed]) -> bool:
    """Whether a line goes on with words in few of the cells above it, and not in the first."""
    filled = [k for k, parts in enumerate(placed) if parts]
    said = [
        line.text[start:end].strip() for k in filled for line, start, end, _ in placed[k]
    ]  # fmt: skip
    return (
        bool(filled) and filled[0] > 0 and len(filled) <= max(len(placed) // 2, 1)
        and all(above[k] for k in [0, *filled])
        and all(text[:1].islower() for text in said)
    )  # fmt: skip


def _column_of(x0: float, x1: float, columns: Sequence[tuple[float, float]]) -> tuple[int, int]:
    """The column that a part stands in, and over how many it lies."""
    shared = [min(x1, right) - max(x0, left) for left, right in columns]
    under = [k for k, overlap in enumerate(shared) if overlap > 1.0]
    if len(under) > 1:
        inner = [k for k in under if shared[k] > 0.5 * (columns[k][1] - columns[k][0])]
        if len(inner) > 1:
            return inner[0], inner[-1] - inner[0] + 1
    return shared.index(max(shared)), 1


def _cell(parts: Placed) -> Cell:
    text = tidy(" ".join(line.text[start:end] for line, start, end, _ in parts))
    spans = tuple(span for line, start, end, _ in parts for span in line.characters(start, end))
    return Cell(text, spans, max((width for *_, width in parts), default=1))


def _caption(paragraphs: Sequence[Paragraph], first: int, end: int) -> int | None:
    """The nearest caption before or after, on the same page."""
    page = paragraphs[first].page
    for away in range(1, CAPTION_AWAY + 1):
        for row in (first - away, end - 1 + away):
            if 0 <= row < len(paragraphs) and paragraphs[row].page == page:
                paragraph = paragraphs[row]
                if paragraph.kind == "caption" and CAPTION.match(paragraph.text.strip()):
                    return row
    return None


def _n_head(rows: Sequence[Sequence[Cell]], lines: Sequence[Line]) -> int:
    """How many rows at the top name the columns.

    They hold names while the ones below hold numbers, or are set bold, or leave the corner empty.
    """

    def values(row: Sequence[Cell]) -> int:
        return sum(bool(VALUE.fullmatch(cell.text)) for cell in row[1:])

    below = [values(row) for row in rows[1:]]
    is_under_names = not values(rows[0]) and bool(below) and median(below) >= 1
    has_corner = not rows[0][0].text and all(cell.text for cell in rows[0][1:])
    if is_under_names or (has_corner and len(rows[0]) > 2):
        n = 1
        while n < min(MOST_HEADS, len(rows) - 1) and _is_more_of_head(rows[n], rows[:n]):
            n += 1
        return n
    return 1 if lines[0].is_bold and not lines[-1].is_bold else 0


def _is_more_of_head(row: Sequence[Cell], above: Sequence[Sequence[Cell]]) -> bool:
    """Whether a row goes on with names: no figure in it, and one name at most for the labels."""
    is_free = not row[0].text or not any(other[0].text for other in above)
    return is_free and not any(_FIGURES.search(cell.text) for cell in row)
