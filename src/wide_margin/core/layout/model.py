"""What layout gives: lines that remember their characters, and paragraphs made of lines."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from wide_margin.core.geometry import Box


class SpanOnPage(NamedTuple):
    """A range of characters of one page; end is exclusive."""

    page: int
    start: int
    end: int


class Line(NamedTuple):
    """One line of text in its column.

    ``text`` has one character for each character of ``spans``, plus one separator between
    two spans (a tab where the gap is as wide as between table cells, else a space), so a
    position in the text is a position on the page.
    """

    page: int
    text: str
    spans: tuple[tuple[int, int], ...]
    box: Box
    size: float
    is_bold: bool
    is_italic: bool
    is_fixed: bool
    lead: int
    """How many characters at the start are set off from the rest (bold or italic), else 0."""
    column: int
    """Which column or zone of the page, in reading order."""
    marks: tuple[tuple[int, int], ...] = ()
    """Ranges of ``text`` that are marks of footnotes."""
    face: str = ""
    """Family of the font that most of it is set in."""
    is_caps: bool = False
    """Whether that font has small capitals."""
    apart: str = ""
    """Why it belongs to no column: "number" (of lines), "side" (in the margin), "stamp"."""
    cells: tuple[tuple[float, float], ...] = ()
    """Left and right edge of each part between tabs, in points; empty without a tab."""
    table_row: int = 0
    """Which row of a table on its page it is part of a cell of, from 1; 0 for any other line."""
    table_column: int = 0
    """Which column that cell stands in."""
    mirror: float = 0.0
    """Width of a page that is read from right to left, whose mirror image ``box`` and ``cells``
    lie on; 0 for any other."""

    @property
    def shown(self) -> Box:
        """The box as it lies on the page."""
        if not self.mirror:
            return self.box
        x0, y0, x1, y1 = self.box
        return self.mirror - x1, y0, self.mirror - x0, y1

    @property
    def parts(self) -> list[tuple[float, float, int, int]]:
        """Left and right edge, in points, and range in ``text`` of each part between tabs.

        All of it where it has no tab.
        """
        if not self.cells:
            return [(self.box[0], self.box[2], 0, len(self.text))]
        found, at = [], 0
        for (x0, x1), text in zip(self.cells, self.text.split("\t"), strict=False):
            found.append((x0, x1, at, at + len(text)))
            at += len(text) + 1
        return found

    def part(self, x0: float, x1: float, start: int, end: int) -> Line:
        """One of its parts as a line of its own."""
        spans, at = [], 0
        for first, last in self.spans:
            if start <= at < end:
                spans.append((first, last))
            at += last - first + 1
        return self._replace(
            text=self.text[start:end], spans=tuple(spans),
            box=(x0, self.box[1], x1, self.box[3]), cells=(),
            lead=min(self.lead, end) if start == 0 else 0,
            marks=tuple((a - start, b - start) for a, b in self.marks if start <= a and b <= end),
        )  # fmt: skip

    def characters(self, start: int, end: int) -> list[SpanOnPage]:
        """The page characters behind text[start:end]."""
        found, at = [], 0
        for first, last in self.spans:
            low, high = max(start - at, 0), min(end - at, last - first)
            if low < high:
                found.append(SpanOnPage(self.page, first + low, first + high))
            at += last - first + 1
        return found


class Piece(NamedTuple):
    """Where a line's text lies in its paragraph's text."""

    at: int
    line: Line
    length: int
    """Characters of the line that were taken; a hyphen at its end is not."""


@dataclass(frozen=True, slots=True)
class Paragraph:
    """Lines that belong together, as one text with hyphenation undone."""

    text: str
    pieces: tuple[Piece, ...]
    kind: str
    """body, item (of a list), entry (a term, a tab and its description), row (of a table), note
    (foot of the page), caption, code, formula, figure (words inside of one), side (a note in the
    margin), number (of a line), stamp (over the text)."""

    @property
    def page(self) -> int:
        """Page index of its first line."""
        return self.pieces[0].line.page

    @property
    def unmarked(self) -> str:
        """The text with blanks in place of footnote marks: as long as the text itself."""
        text = self.text
        for at, line, length in self.pieces:
            for first, end in line.marks:
                if end <= length:
                    text = text[: at + first] + " " * (end - first) + text[at + end :]
        return text

    def spans(self, start: int, end: int) -> tuple[SpanOnPage, ...]:
        """The page characters behind text[start:end], line by line."""
        found: list[SpanOnPage] = []
        for at, line, length in self.pieces:
            low, high = max(start - at, 0), min(end - at, length)
            if low < high:
                found.extend(line.characters(low, high))
        return tuple(found)


LONG_LINE, FEWEST_LONG, ENOUGH_LONG = 40, 30, 0.2
"""Characters of a line of running text, how many of them tell its size, and the share of all
characters that stand in such."""


def usual_size(pages: Sequence[Sequence[Line]]) -> float:
    """The font size that most characters of the document have, in points.

    Those of long lines are counted, where there are enough: drawings may have more letters.
    """
    exactly: defaultdict[float, int] = defaultdict(int)
    long: defaultdict[float, int] = defaultdict(int)
    for lines in pages:
        for line in lines:
            exactly[line.size] += len(line.text)
            if len(line.text) >= LONG_LINE:
                long[line.size] += len(line.text)
    n_long = sum(long.values())
    if n_long >= max(ENOUGH_LONG * sum(exactly.values()), LONG_LINE * FEWEST_LONG):
        exactly = long
    weight: Counter[float] = Counter()
    for size, n_characters in exactly.items():
        weight[round(size * 4) / 4] += n_characters
    return weight.most_common(1)[0][0] if weight else 10.0
