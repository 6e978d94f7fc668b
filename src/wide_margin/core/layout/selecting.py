"""Selecting text on a page: from points to characters in reading order and back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from wide_margin.core.geometry import IntArray, line_boxes
from wide_margin.core.later import loaded_later
from wide_margin.core.layout.model import Line, SpanOnPage
from wide_margin.core.layout.text import tidy
from wide_margin.core.pages import LINE_END_HYPHEN, PageText

if TYPE_CHECKING:
    import numpy as np

    from wide_margin.core.geometry import BoolArray, Box, FloatArray
else:
    np = loaded_later("numpy")


@dataclass(frozen=True, slots=True, eq=False)
class TextLayer:
    """The text of a page as the hand meets it: lines in reading order over characters.

    A *position* is a place between two characters in reading order, 0 to ``n``.
    """

    page: PageText
    lines: tuple[Line, ...]
    order: IntArray = field(init=False)
    """(n,) index into the page's characters for every position."""
    line_of: IntArray = field(init=False)
    """(n,) row into lines for every position."""
    starts: IntArray = field(init=False)
    """(len(lines) + 1,) first position of each line."""

    def __post_init__(self) -> None:
        """Lay the characters of the lines one after the other."""
        order: list[int] = []
        starts = [0]
        for line in self.lines:
            for first, end in line.spans:
                order.extend(range(first, end))
            starts.append(len(order))
        object.__setattr__(self, "order", np.array(order, dtype=np.int64))
        object.__setattr__(self, "starts", np.array(starts, dtype=np.int64))
        lengths = np.diff(self.starts)
        object.__setattr__(self, "line_of", np.repeat(np.arange(len(self.lines)), lengths))

    @property
    def n(self) -> int:
        """Number of characters that can be selected."""
        return len(self.order)

    def position_at(self, x: float, y: float) -> int:
        """The position nearest to a point of the page; 0 where the page has no text."""
        if not self.lines:
            return 0
        boxes = np.array([line.shown for line in self.lines])
        dx = np.maximum(np.maximum(boxes[:, 0] - x, x - boxes[:, 2]), 0)
        dy = np.maximum(np.maximum(boxes[:, 1] - y, y - boxes[:, 3]), 0)
        # A line at the same height is nearer than one above, however far to the side, unless
        # that would cross to another column.
        row = int(np.argmin(dx + 4 * dy))
        start, end = int(self.starts[row]), int(self.starts[row + 1])
        edges = self.page.boxes[self.order[start:end]]
        middle = (edges[:, 0] + edges[:, 2]) / 2
        before = _filled(middle) > x if self.lines[row].mirror else _filled(middle) < x
        return start + int(np.count_nonzero(before))

    def is_on_text(self, x: float, y: float) -> bool:
        """Whether a point lies on a line of text."""
        return any(b[0] <= x <= b[2] and b[1] <= y <= b[3] for b in (ln.shown for ln in self.lines))

    def running_text(self) -> tuple[str, list[int]]:
        """All lines as one text, and the position of each of its characters.

        Lines are joined by a space, or by nothing after a hyphen at a line end; a space between
        two lines has the position where the second starts.
        """
        characters: list[str] = []
        positions: list[int] = []
        for row in range(len(self.lines)):
            first, end = int(self.starts[row]), int(self.starts[row + 1])
            if characters and characters[-1] != LINE_END_HYPHEN:
                characters.append(" ")
                positions.append(first)
            characters.extend(self.page.chars[k] for k in self.order[first:end].tolist())
            positions.extend(range(first, end))
        return "".join(characters), positions

    def word_starts(self) -> list[int]:
        """Positions at which a word starts, in order."""
        text, positions = self.running_text()
        return [
            positions[k] for k, c in enumerate(text)
            if not c.isspace() and (k == 0 or text[k - 1].isspace())
        ]  # fmt: skip

    def line_at(self, position: int) -> int:
        """Row of the line that holds a position."""
        if not self.n:
            return 0
        return int(self.line_of[min(max(position, 0), self.n - 1)])

    def x_of(self, position: int) -> float:
        """Where the character at a position begins, and at the end of the text where it ends."""
        if not self.n:
            return 0.0
        box = self.page.boxes[self.order[min(position, self.n - 1)]]
        line = self.lines[self.line_at(position)]
        starts, ends = (2, 0) if line.mirror else (0, 2)
        x = float(box[ends] if position >= self.n else box[starts])
        return line.shown[starts] if np.isnan(x) else x

    def spans(self, start: int, end: int) -> tuple[SpanOnPage, ...]:
        """Character ranges between two positions, in reading order."""
        chosen = self.order[min(start, end) : max(start, end)]
        if not len(chosen):
            return ()
        parts = np.split(chosen, np.flatnonzero(np.diff(chosen) != 1) + 1)
        return tuple(SpanOnPage(self.page.index, int(part[0]), int(part[-1]) + 1) for part in parts)

    def text(self, start: int, end: int) -> str:
        """The words between two positions, hyphenation undone, one line break a paragraph."""
        low, high = min(start, end), max(start, end)
        pieces: list[str] = []
        for row in range(len(self.lines)):
            first, last = max(low, int(self.starts[row])), min(high, int(self.starts[row + 1]))
            if first >= last:
                continue
            part = "".join(self.page.chars[k] for k in self.order[first:last])
            whole = first == self.starts[row] and last == self.starts[row + 1]
            if whole:
                part = self.lines[row].text
            pieces.append(part.rstrip())
            pieces.append(self._joint(row, part) if last < high else "")
        # A hyphen at a line end goes together with the line end.
        joined = "".join(pieces).replace(LINE_END_HYPHEN + "\u0000", "")
        lines = joined.split("\n")
        return "\n".join(tidy(line) for line in lines)

    def _joint(self, row: int, part: str) -> str:
        if part.endswith(LINE_END_HYPHEN):
            return "\u0000"
        if row + 1 < len(self.lines):
            here, below = self.lines[row], self.lines[row + 1]
            gap = below.box[1] - here.box[3]
            if below.column == here.column and gap < 0.7 * here.size and below.size == here.size:
                return " "
        return "\n"

    def spans_in(self, box: Box) -> tuple[SpanOnPage, ...]:
        """Character ranges that lie in a region by their middles, in reading order."""
        spans: list[SpanOnPage] = []
        for first, last in self._runs_in(box):
            spans.extend(self.spans(first, last))
        return tuple(spans)

    def words_in(self, box: Box) -> str:
        """The words in a region, one line of the page a line."""
        return "\n".join(self.text(first, last) for first, last in self._runs_in(box))

    def _runs_in(self, box: Box) -> list[tuple[int, int]]:
        """Positions (first, end) of each line's part in a region."""
        boxes = self.page.boxes[self.order]
        x, y = (boxes[:, 0] + boxes[:, 2]) / 2, (boxes[:, 1] + boxes[:, 3]) / 2
        inside = (x >= box[0]) & (x <= box[2]) & (y >= box[1]) & (y <= box[3])
        runs = []
        for row in range(len(self.lines)):
            first, end = int(self.starts[row]), int(self.starts[row + 1])
            at = np.flatnonzero(inside[first:end])
            if len(at):
                runs.append((first + int(at[0]), first + int(at[-1]) + 1))
        return runs

    def word_at(self, position: int) -> tuple[int, int]:
        """Positions around the word at a position."""
        position = min(max(position, 0), max(self.n - 1, 0))
        if not self.n:
            return 0, 0
        line = int(self.line_of[position])
        low, high = int(self.starts[line]), int(self.starts[line + 1])
        text = "".join(self.page.chars[k] for k in self.order[low:high])
        at = position - low
        first = at
        while first > 0 and not text[first - 1].isspace():
            first -= 1
        last = at
        while last < len(text) and not text[last].isspace():
            last += 1
        while first < last and not text[first].isalnum():
            first += 1
        while last > first and not text[last - 1].isalnum():
            last -= 1
        return low + first, low + last


def _filled(values: FloatArray) -> FloatArray:
    """Values with each NaN replaced by the value before it."""
    known = ~np.isnan(values)
    if not known.any():
        return np.zeros_like(values)
    at = np.maximum.accumulate(np.where(known, np.arange(len(values)), 0))
    return values[at]


def boxes_of(page: PageText, spans: Sequence[SpanOnPage]) -> list[Box]:
    """One box for each line that some character ranges of a page cover."""
    found: list[Box] = []
    is_own = np.zeros(len(page.boxes), np.bool_)
    for span in spans:
        if span.page == page.index:
            found.extend(line_boxes(page.boxes[span.start : span.end]))
            is_own[span.start : span.end] = True
    return _apart(page, _merged(found), is_own)


def _apart(page: PageText, boxes: list[Box], is_own: BoolArray) -> list[Box]:
    """Boxes that end before the middles of letters of the lines above and below.

    A bracket or a rule can be so high that the box of its line lies over the next one.
    """
    wide = page.boxes[:, 2] > page.boxes[:, 0]  # not so where there is no shape
    x = (page.boxes[:, 0] + page.boxes[:, 2]) / 2
    y = (page.boxes[:, 1] + page.boxes[:, 3]) / 2
    found = []
    for x0, y0, x1, y1 in boxes:
        is_in = wide & (x >= x0) & (x <= x1) & (y >= y0) & (y <= y1)
        own, others = y[is_in & is_own], y[is_in & ~is_own]
        if len(own) and len(others):
            middle = np.median(own)  # of this line: some of the next may be chosen too
            height = np.median((page.boxes[:, 3] - page.boxes[:, 1])[is_in & is_own])
            own = own[abs(own - middle) <= height]
            first, last = own.min(), own.max()
            above, below = others[others < first], others[others > last]
            y0 = float((above.max() + first) / 2) if len(above) else y0
            y1 = float((below.min() + last) / 2) if len(below) else y1
        found.append((x0, y0, x1, y1))
    return found


def _merged(boxes: list[Box]) -> list[Box]:
    """Boxes of one line that touch, joined."""
    merged: list[Box] = []
    for box in boxes:
        if merged:
            last = merged[-1]
            overlap = min(last[3], box[3]) - max(last[1], box[1])
            height = min(last[3] - last[1], box[3] - box[1])
            if overlap > 0.5 * height and -2 <= box[0] - last[2] < 1.2 * height:
                merged[-1] = (
                    min(last[0], box[0]), min(last[1], box[1]),
                    max(last[2], box[2]), max(last[3], box[3]),
                )  # fmt: skip
                continue
        merged.append(box)
    return merged
