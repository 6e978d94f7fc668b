"""What the map shows: which sections are open, how long they are, and what stands where. No Qt."""

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from wide_margin.core.digest.structure import Occurrence
from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline

MOST_TERMS = 6
MOST_LEVELS = 5


class Bar(NamedTuple):
    """A section as it is drawn."""

    section: int
    column: int
    start: float
    """In pages from the start, as is the end."""
    end: float
    is_open: bool
    """Whether the sections within it are shown beside it."""


@dataclass(slots=True)
class TermColumn:
    """A term and the places where it stands; None while they are looked for."""

    term: str
    places: tuple[Occurrence, ...] | None = None


@dataclass(slots=True)
class MapModel:
    """The document to scale. Places are in pages from the start: 2.5 is the middle of the third."""

    outline: Outline = field(default_factory=Outline)
    labels: PageLabels = field(default_factory=lambda: PageLabels(()))
    n_pages: int = 0
    heights: Sequence[float] = ()
    levels: int = 2
    terms: list[TermColumn] = field(default_factory=list)
    figures: tuple[float, ...] = ()
    entries: tuple[float, ...] = ()
    held: tuple[float, ...] = ()
    closed: set[int] = field(default_factory=set)
    """Sections that the reader has closed; all others down to the level asked for are open."""
    opened: set[int] = field(default_factory=set)
    """Sections opened beyond that level."""
    _bars: list[Bar] | None = None
    _depths: tuple[int, ...] = ()
    _parents: tuple[int, ...] = ()
    _has_children: frozenset[int] = frozenset()

    def show_document(
        self, outline: Outline, labels: PageLabels, n_pages: int, heights: Sequence[float]
    ) -> None:
        """Show another document, or the same by another outline."""
        self.outline, self.labels, self.n_pages, self.heights = outline, labels, n_pages, heights
        self._depths, self._parents = outline.depths, outline.parents
        self._has_children = frozenset(p for p in self._parents if p >= 0)
        self.closed.clear()
        self.opened.clear()
        self._bars = None

    @property
    def n_levels(self) -> int:
        """How many levels there are to be shown."""
        return min(max(self._depths, default=-1) + 1, MOST_LEVELS)

    def depth(self, section: int) -> int:
        """How many sections stand around one."""
        return self._depths[section]

    def parent(self, section: int) -> int:
        """The section around one, -1 for none."""
        return self._parents[section]

    def place(self, page: int, y: float) -> float:
        """A place in pages from the start."""
        height = self.heights[page] if 0 <= page < len(self.heights) else 0.0
        return page + min(max(y / height, 0.0), 0.999) if height else float(page)

    def ask_for_levels(self, levels: int) -> None:
        """Open everything down to a level, and nothing beyond."""
        self.levels = min(max(levels, 1), max(self.n_levels, 1))
        self.closed.clear()
        self.opened.clear()
        self._bars = None

    def is_open(self, section: int) -> bool:
        """Whether the sections within one are shown."""
        if section not in self._has_children or section in self.closed:
            return False
        return self._depths[section] + 1 < self.levels or section in self.opened

    def can_open(self, section: int) -> bool:
        """Whether there is anything within it."""
        return section in self._has_children and self._depths[section] + 1 < MOST_LEVELS

    def toggle(self, section: int) -> None:
        """Open a section, or close it."""
        if not self.can_open(section):
            return
        if self.is_open(section):
            self.closed.add(section)
            self.opened.discard(section)
        else:
            self.closed.discard(section)
            self.opened.add(section)
        self._bars = None

    def bars(self) -> list[Bar]:
        """The sections that are shown, in reading order."""
        if self._bars is None:
            self._bars = list(self._shown())
        return self._bars

    def _shown(self) -> Iterable[Bar]:
        shown: set[int] = set()
        for k, section in enumerate(self.outline.sections):
            parent = self._parents[k]
            if parent >= 0 and not (parent in shown and self.is_open(parent)):
                continue
            shown.add(k)
            start = self.place(section.page, section.y)
            end = self.place(section.end_page, section.end_y)
            yield Bar(k, self._depths[k], start, max(end, start), self.is_open(k))

    @property
    def n_columns(self) -> int:
        """How many columns of bars are drawn."""
        return max((bar.column for bar in self.bars()), default=0) + 1

    def bar_at(self, place: float, column: int) -> Bar | None:
        """The bar at a place: in a column, else the innermost one there."""
        found: Bar | None = None
        for bar in self.bars():
            if bar.start <= place < bar.end and bar.column <= max(column, 0):
                found = bar
        return found

    def step(self, section: int, by: int) -> int:
        """The section so many bars further on, or before; the first where none is pointed at."""
        rows = [bar.section for bar in self.bars()]
        if not rows:
            return -1
        if section not in rows:
            return rows[max(bisect_right(rows, section) - 1, 0)] if section >= 0 else rows[0]
        return rows[min(max(rows.index(section) + by, 0), len(rows) - 1)]

    def counts_by_bar(self, term: TermColumn) -> dict[int, int]:
        """How often a term stands in each section that is drawn, those within it included."""
        found: dict[int, int] = {}
        shown = {bar.section for bar in self.bars()}
        for occurrence in term.places or ():
            section = occurrence.section
            while section >= 0:
                if section in shown:
                    found[section] = found.get(section, 0) + 1
                section = self._parents[section]
        return found

    def shown_outline(self) -> Outline:
        """The sections that are drawn, as an outline."""
        return Outline(tuple(self.outline.sections[bar.section] for bar in self.bars()))
