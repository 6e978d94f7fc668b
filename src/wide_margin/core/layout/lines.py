"""Lines of a page in reading order."""

from __future__ import annotations

from bisect import bisect_right
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.layout.apart import set_apart
from wide_margin.core.layout.centred import labels_first
from wide_margin.core.layout.columns import reading_zones, rows_of
from wide_margin.core.layout.leftwards import (
    direction_of,
    has_leftwards,
    in_reading_order,
    is_leftwards,
    mirrored,
)
from wide_margin.core.layout.marks import footnote_marks
from wide_margin.core.layout.model import Line
from wide_margin.core.layout.ruled import may_be_ruled, ruled_rows
from wide_margin.core.layout.segments import FEWEST_LEVEL, LEVEL, NEAR_LINES, WIDE_GAP, segments_of
from wide_margin.core.layout.wrapped import parted_rows

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.geometry import FloatArray, IntArray
    from wide_margin.core.layout.segments import Segments
    from wide_margin.core.pages import PageText

TEXT_AFTER = 2
"""Words after a heading in its line, which are text."""
MOSTLY = 0.6
"""A line is bold when more than this share of it is."""
OF_CELL = 0.7
"""Font sizes between two cells at least, where each is drawn as a whole; blanks of a stretched line
are seldom as wide."""
NEXT = 2
"""Characters between segments drawn one after the other, at most: blanks and ends of lines."""
_BLANKS = "\r\n\t\xa0"


def lines_of(page: PageText, rules: Callable[[], FloatArray] | None = None) -> list[Line]:
    """All lines of a page, column after column, each with its characters.

    Every inked character of the page is in exactly one line. Lines of a page that is read from
    right to left have the boxes of its mirror image; ``Line.shown`` gives those on the page.

    Args:
        page: Its text.
        rules: Gives (n, 4) the straight rules of the page, asked where there may be a table.
    """
    if not has_leftwards(page.chars):
        return _lines(page, rules)
    if not is_leftwards(page.chars):
        return _lines(page, rules, base=1)
    return [line._replace(mirror=page.width) for line in _lines(mirrored(page), base=-1)]


def _lines(
    page: PageText, rules: Callable[[], FloatArray] | None = None, *, base: int = 0
) -> list[Line]:
    """The lines of a page; ``base`` is its direction where it has words of the other one."""
    segments = segments_of(page)
    plain = _Plain(page, segments)
    plain.is_mixed = base != 0
    spans = zip(plain.first, plain.end, strict=True)
    directions = [direction_of(page.chars[a:b]) for a, b in spans] if base else ()
    marks = footnote_marks(page)
    lines = []
    apart = set_apart(page, segments)
    zones: list[tuple[str, IntArray]] = [("", zone) for zone in _columns(segments, apart)]
    for column, (kind, zone) in enumerate([*zones, *apart]):
        for row in rows_of(segments.boxes, zone):
            if base and len(row) > 1:
                row[:] = in_reading_order(row, directions, base)
            line = _line(plain, row, column)
            if kind:
                line = line._replace(apart=kind)
            lines.append(_with_marks(line, marks) if marks else line)
    if rules is not None and may_be_ruled(lines):
        lines = ruled_rows(lines, rules())
    return parted_rows(labels_first(lines))


def _columns(segments: Segments, apart: list[tuple[str, IntArray]]) -> list[IntArray]:
    """The zones of the text, in reading order, without what stands apart."""
    if not apart:
        return reading_zones(segments.boxes)
    text = np.ones(len(segments), dtype=bool)
    for _, rows in apart:
        text[rows] = False
    kept = np.flatnonzero(text)
    return [kept[zone] for zone in reading_zones(segments.boxes[kept])]


def _with_marks(line: Line, marks: list[tuple[int, int]]) -> Line:
    found, at = [], 0
    for first, end in line.spans:
        # One that begins a line is the number of a note, and no mark.
        found += [
            (at + a - first, at + b - first) for a, b in marks
            if first <= a and b <= end and (first < a or at)
        ]  # fmt: skip
        at += end - first + 1
    return line._replace(marks=tuple(found)) if found else line


class _Plain:
    """A page's segments as plain lists: asked item by item, arrays are five times slower."""

    is_mixed = False
    """Whether rows are not in the order in which they stand on the page."""

    def __init__(self, page: PageText, segments: Segments) -> None:
        self.index = page.index
        self.chars = page.chars
        for blank in _BLANKS:  # five times quicker than a table of four signs
            self.chars = self.chars.replace(blank, " ")
        self.first, self.end = segments.first.tolist(), segments.end.tolist()
        self.boxes, self.size = segments.boxes.tolist(), segments.size.tolist()
        self.bold, self.italic = segments.bold.tolist(), segments.italic.tolist()
        self.fixed = segments.fixed.tolist()
        self.in_column = segments.in_column.tolist()
        self.run_starts = page.run_starts.tolist()
        self.run_fonts = [page.fonts[k] for k in page.run_fonts.tolist()]


def _line(page: _Plain, row: list[int], column: int) -> Line:
    spans = tuple((page.first[item], page.end[item]) for item in row)
    if len(row) == 1:
        longest = row[0]
        text = page.chars[spans[0][0] : spans[0][1]]
        is_bold = page.bold[longest] > MOSTLY
        is_italic = page.italic[longest] > MOSTLY
        is_fixed = page.fixed[longest] > MOSTLY
        x0, y0, x1, y1 = page.boxes[longest]
    else:
        text = _joined(page, row, spans)
        weights = [last - first for first, last in spans]
        longest = row[weights.index(max(weights))]
        total = MOSTLY * sum(weights)

        def mostly(shares: list[float]) -> bool:
            share: float = sum(w * shares[k] for w, k in zip(weights, row, strict=True))
            return bool(share > total)

        is_bold, is_italic, is_fixed = mostly(page.bold), mostly(page.italic), mostly(page.fixed)
        boxes = [page.boxes[item] for item in row]
        x0, y0 = min(b[0] for b in boxes), min(b[1] for b in boxes)
        x1, y1 = max(b[2] for b in boxes), max(b[3] for b in boxes)
    first, end = spans[row.index(longest)]
    begins = _after_number(text) if len(row) == 1 else 0
    at = bisect_right(page.run_starts, first + begins if begins else (first + end) // 2) - 1
    font = page.run_fonts[at] if at >= 0 else None
    if begins and font:
        whole, rest = end - first, MOSTLY * (end - first - begins)
        is_bold = is_bold or (font.is_bold and page.bold[longest] * whole > rest)
        is_italic = is_italic or (font.is_italic and page.italic[longest] * whole > rest)
    lead = 0 if is_italic else _lead(page, spans[0][0], spans[-1][1])
    if is_bold:
        is_bold = not _runs_in(text, lead)
        lead = 0 if is_bold else lead
    return Line(
        page=page.index,
        text=text,
        spans=spans,
        box=(x0, y0, x1, y1),
        size=page.size[longest],
        is_bold=is_bold,
        is_italic=is_italic,
        is_fixed=is_fixed,
        lead=lead,
        column=column,
        face=font.family if font else "",
        is_caps=font.is_caps if font else False,
        cells=_cells(page, row, text) if "\t" in text else (),
    )


def _runs_in(text: str, lead: int) -> bool:
    """Whether a line begins with a heading, told by face and stop, and goes on with text."""
    after = text[lead:].split()
    return lead > 0 and text[:lead].rstrip()[-1:] in (".", ":") and len(after) >= TEXT_AFTER


def _after_number(text: str) -> int:
    """Where the words of a numbered title begin: its number may have a face of its own."""
    if not text[:1].isdigit():
        return 0
    return next((k for k, sign in enumerate(text) if sign.isalpha()), 0)


def _cells(page: _Plain, row: list[int], text: str) -> tuple[tuple[float, float], ...]:
    """The edges of the parts of a row between tabs."""
    cells: list[tuple[float, float]] = []
    at = -1
    for item in row:
        x0, _, x1, _ = page.boxes[item]
        if cells and text[at] != "\t":
            cells[-1] = (min(cells[-1][0], x0), max(cells[-1][1], x1))
        else:
            cells.append((x0, x1))
        at += page.end[item] - page.first[item] + 1
    return tuple(cells)


def _joined(page: _Plain, row: list[int], spans: tuple[tuple[int, int], ...]) -> str:
    """The texts of a row's segments, tabs where the gaps are wide."""
    parts = [page.chars[spans[0][0] : spans[0][1]]]
    placed = sorted(row, key=lambda item: page.boxes[item][0]) if page.is_mixed else row
    for k in range(1, len(row)):
        gap = page.boxes[placed[k]][0] - page.boxes[placed[k - 1]][2]
        is_cell = gap > WIDE_GAP * page.size[row[k]] or page.in_column[placed[k]]
        is_cell = is_cell or _begins_cell(page, placed[k - 1], placed[k], gap)
        parts.append("\t" if is_cell else " ")
        parts.append(page.chars[spans[k][0] : spans[k][1]])
    return "".join(parts)


def _begins_cell(page: _Plain, before: int, item: int, gap: float) -> bool:
    """Whether a segment is a line of a cell of several, drawn after the whole cell before it."""
    size, (x, y, _, _) = page.size[item], page.boxes[item]
    first, end = page.first[before], page.end[before]
    is_next = 0 <= page.first[item] - end <= NEXT
    if is_next or gap < OF_CELL * size or " " not in page.chars[first:end].strip():
        return False
    level: int = sum(
        abs(other[0] - x) < LEVEL and 0.5 * size < abs(other[1] - y) < NEAR_LINES * size
        for other in page.boxes
    )
    return level >= FEWEST_LEVEL


def _lead(page: _Plain, first: int, end: int) -> int:
    """Length of the bold or italic start of a line that goes on in another face."""
    runs = page.run_starts
    at = bisect_right(runs, first) - 1
    if at < 0:
        return 0
    font = page.run_fonts[at]
    if not (font.is_bold or font.is_italic):
        return 0
    after = at + 1
    while after < len(runs) and page.run_fonts[after] == font:
        after += 1
    stop = runs[after] if after < len(runs) else end
    return min(stop, end) - first
