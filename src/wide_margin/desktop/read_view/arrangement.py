"""Where each page lies: in one column, facing, or one at a time; turned or not. No Qt here."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import accumulate
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box

GAP = 12.0
MODES = ("column", "facing", "single")


@dataclass(slots=True)
class Arrangement:
    """Pages on the desk. Desk coordinates are pixels from the top left of the whole desk.

    ``scale`` is in pixels for each point; ``turns`` quarter turns clockwise that the reader
    asked for, on top of the page's own.
    """

    sizes: Sequence[tuple[float, float]]
    scale: float
    mode: str = "column"
    turns: int = 0
    view: tuple[float, float] = (600.0, 800.0)
    """Width and height of what is seen of the desk."""
    rows: list[tuple[int, ...]] = field(init=False)
    tops: list[float] = field(init=False)
    height: float = field(init=False)
    width: float = field(init=False)
    _heights: list[float] = field(init=False)
    _row_of: list[int] = field(init=False)

    def __post_init__(self) -> None:
        """Lay the rows out."""
        n = len(self.sizes)
        if self.mode == "facing":  # as in a book: the first page stands alone, at the right
            pairs = [tuple(range(k, min(k + 2, n))) for k in range(1, n, 2)]
            self.rows = [(0,), *pairs] if n else []
        else:
            self.rows = [(k,) for k in range(n)]
        sides = [(w * self.scale, h * self.scale) for w, h in self.sizes]
        if self.turns % 2:
            sides = [(h, w) for w, h in sides]
        tallest = [max(sides[row[0]][1], sides[row[-1]][1]) for row in self.rows]
        if self.mode == "single":
            least = self.view[1] - GAP
            tallest = [max(height, least) for height in tallest]
        *self.tops, self.height = accumulate((height + GAP for height in tallest), initial=GAP)
        self._heights = tallest
        widest = max(
            (sides[first][0] + (sides[last][0] + GAP if last != first else 0.0)
             for first, last in ((row[0], row[-1]) for row in self.rows)),
            default=0.0,
        )  # fmt: skip
        self.width = max(widest + 2 * GAP, self.view[0])
        self._row_of = [k for k, row in enumerate(self.rows) for _ in row]

    def page_size(self, page: int) -> tuple[float, float]:
        """Width and height of a page in pixels, turned."""
        width, height = (side * self.scale for side in self.sizes[page])
        return (height, width) if self.turns % 2 else (width, height)

    def corner(self, page: int) -> tuple[float, float]:
        """Top left corner of a page on the desk."""
        row = self._row_of[page]
        pages = self.rows[row]
        middle = self.width / 2
        if self.mode == "facing" and len(pages) == 1 and page == 0 and len(self.sizes) > 1:
            left = middle + GAP / 2
        elif self.mode == "facing":
            left = middle - GAP / 2 - self.page_size(pages[0])[0]
            if page != pages[0]:
                left = middle + GAP / 2
        else:
            left = middle - self.page_size(page)[0] / 2
        top = self.tops[row]
        if self.mode == "single":
            top += (self._heights[row] - self.page_size(page)[1]) / 2
        return left, top

    def row_at(self, y: float) -> int:
        """The row at a height of the desk; the last one that starts above it."""
        return max(0, bisect_right(self.tops, y) - 1)

    def pages_between(self, top: float, bottom: float) -> list[int]:
        """Pages of the rows that are seen between two heights."""
        if not self.rows:
            return []
        first, last = self.row_at(top), self.row_at(bottom)
        return [page for row in self.rows[first : last + 1] for page in row]

    def page_at(self, x: float, y: float) -> int:
        """The page nearest to a point of the desk."""
        pages = self.rows[self.row_at(y)]
        return min(pages, key=lambda page: self._distance(page, x))

    def _distance(self, page: int, x: float) -> float:
        left = self.corner(page)[0]
        return max(left - x, x - left - self.page_size(page)[0], 0.0)

    def to_desk(self, page: int, box: Box) -> Box:
        """A box in page space, on the desk."""
        left, top = self.corner(page)
        width, height = self.sizes[page]
        x0, y0, x1, y1 = _turned(box, width, height, self.turns)
        s = self.scale
        return left + x0 * s, top + y0 * s, left + x1 * s, top + y1 * s

    def to_page(self, page: int, x: float, y: float) -> tuple[float, float]:
        """A point of the desk, in page space of a page."""
        left, top = self.corner(page)
        u, v = (x - left) / self.scale, (y - top) / self.scale
        width, height = self.sizes[page]
        return {
            0: (u, v),
            1: (v, height - u),
            2: (width - u, height - v),
            3: (width - v, u),
        }[self.turns % 4]


def _turned(box: Box, width: float, height: float, turns: int) -> Box:
    x0, y0, x1, y1 = box
    if turns % 4 == 1:
        return height - y1, x0, height - y0, x1
    if turns % 4 == 2:
        return width - x1, height - y1, width - x0, height - y0
    if turns % 4 == 3:
        return y0, width - x1, y1, width - x0
    return box
