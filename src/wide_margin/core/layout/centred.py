"""Rows of two cells whose label stands at half the height of the text beside it.

Read line by line, such a label falls into the middle of its text: "The risk is small, or / Low / is
no risk that matters". It is put before the first line of that text.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

ALIGNED = 2.0
"""Left edges of one column of text differ by no more points."""
SAME_STEP = 1.12
"""Lines of a cell are this much further apart at most than the two nearest."""
AT_HALF = 0.3
"""A label lies within so many steps of the middle of its text."""
LEAST_ROWS = 2
"""So many rows of two cells, or labels between two lines, make a table."""


def labels_first(lines: list[Line]) -> list[Line]:
    """The lines of a page with every label of such a row before the text that it names."""
    if len(lines) <= LEAST_ROWS:
        return lines
    made: list[Line] = []
    first = 0
    for end in range(1, len(lines) + 1):
        if end == len(lines) or _sort_of(lines[end]) != _sort_of(lines[first]):
            told = lines[first].table_row > 0
            made += lines[first:end] if told else _in_column(lines[first:end])
            first = end
    return made


def _sort_of(line: Line) -> tuple[int, bool]:
    """The column of a line, and whether its row has been told already."""
    return line.column, line.table_row > 0


def _in_column(lines: list[Line]) -> list[Line]:
    left = _text_edge(lines)
    if left is None:
        return lines
    result: list[Line] = []
    k = 0
    while k < len(lines):
        end = _cell_end(lines, k, left)
        row = _row(lines[k:end], left) if end - k > 1 and _is_apart(lines, k, end) else None
        result += row or lines[k : max(end, k + 1)]
        k = max(end, k + 1)
    return result


def _text_edge(lines: Sequence[Line]) -> float | None:
    """Where the text of a table of two columns begins; None where there is no such table."""
    edges: Counter[float] = Counter()
    edges.update(round(line.cells[1][0], 0) for line in lines if len(line.cells) == 2)
    for before, label in pairwise(lines):
        if _interleaves(before, label):
            edges[round(before.box[0], 0)] += 1
    edge, n = edges.most_common(1)[0] if edges else (0.0, 0)
    return edge if n >= LEAST_ROWS else None


def _interleaves(before: Line, label: Line) -> bool:
    """Whether a line begins left of the one before, beside it, and before that one has ended."""
    beside = label.box[2] < before.box[0]
    return beside and before.box[1] < label.box[1] < before.box[3] - 0.05 * label.size


def _right(line: Line, left: float) -> bool:
    """Whether the text of a cell stands in a line: alone, or behind its label."""
    if len(line.cells) == 2:
        return abs(line.cells[1][0] - left) <= ALIGNED
    return not line.cells and abs(line.box[0] - left) <= ALIGNED


def _is_label(line: Line, left: float) -> bool:
    return not line.cells and line.box[2] < left


def _cell_end(lines: Sequence[Line], start: int, left: float) -> int:
    """One past the last line of a cell and its label, that begins with the text of a line."""
    if not _right(lines[start], left) or lines[start].cells:
        return start
    last, step, end = start, 0.0, start + 1
    while end < len(lines):
        line = lines[end]
        if _is_label(line, left) and line.box[1] < lines[last].box[3] + 0.5 * line.size:
            end += 1
            continue
        down = line.box[3] - lines[last].box[3]
        is_other = step and not step / SAME_STEP <= down <= SAME_STEP * step
        if not _right(line, left) or down <= 0 or is_other:
            break
        if not step and down > 2.0 * line.size:
            break
        step, last, end = step or down, end, end + 1
    return end if lines[end - 1] is lines[last] else last + 1


def _is_apart(lines: Sequence[Line], start: int, end: int) -> bool:
    """Whether the lines of a cell are nearer to each other than to those before and after.

    A label between two lines, at the height of neither, needs no such sign.
    """
    cell = [line for line in lines[start:end] if line.cells] and lines[start:end]
    if not cell:
        return True
    step = SAME_STEP * (cell[1].box[3] - cell[0].box[3])
    above = cell[0].box[3] - lines[start - 1].box[3] if start else step + 1
    below = lines[end].box[3] - cell[-1].box[3] if end < len(lines) else step + 1
    return above > step and below > step


def _row(lines: Sequence[Line], left: float) -> list[Line] | None:
    """The lines of one cell with its label first; None where it has not one at half height."""
    labels = [line for line in lines if _is_label(line, left)]
    within = [line for line in lines if line.cells]
    if len(labels) + len(within) != 1:
        return None
    label, rest = (labels[0], None) if labels else (within[0].part(*p) for p in within[0].parts)
    text = [rest if line in within and rest else line for line in lines if line not in labels]
    middle = (text[0].box[1] + text[-1].box[3]) / 2
    step = text[1].box[3] - text[0].box[3]
    if abs((label.box[1] + label.box[3]) / 2 - middle) > AT_HALF * step:
        return None
    return [_joined(label, text[0]), *text[1:]]


def _joined(label: Line, text: Line) -> Line:
    """A label and the first line of its text as one line of two cells."""
    at = len(label.text) + 1
    return text._replace(
        text=f"{label.text}\t{text.text}", spans=label.spans + text.spans,
        box=(label.box[0], text.box[1], text.box[2], text.box[3]),
        cells=((label.box[0], label.box[2]), (text.box[0], text.box[2])),
        marks=(*label.marks, *((a + at, b + at) for a, b in text.marks)), lead=0,
    )  # fmt: skip
