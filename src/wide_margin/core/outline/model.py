"""Sections, what the witnesses say of them, and the outline they make."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from wide_margin.core.geometry import Box

WITNESSES = ("bookmark", "contents", "heading")
"""Bookmarks in the file, the printed contents page, headings on the pages."""


class Reading(NamedTuple):
    """What one witness says of a section."""

    witness: str
    """One of WITNESSES."""
    title: str
    level: int | None
    """On the witness's own scale, from 0; None where it does not tell."""
    page: int | None
    """Page index it names."""
    y: float = 0.0
    """On that page, points from its top."""
    printed: str = ""
    """The number that a contents page prints."""
    seen_page: int = -1
    """Where the words of the witness can be seen, -1 for a bookmark."""
    seen_box: Box = (0.0, 0.0, 0.0, 0.0)


class Disagreement(NamedTuple):
    """A conflict between the witnesses, and the choice made."""

    about: str
    """ "title", "page" or "level"."""
    witness: str
    """The one that is not followed."""
    reason: str
    """What it says, what is used and why, in a sentence or two."""
    level: int = -1
    """For a conflict of level: the one it would have by this witness."""


class Section(NamedTuple):
    """One section: it starts at its heading and ends where the next of its level starts."""

    title: str
    """With its number, as on the page."""
    level: int
    """From 0."""
    page: int
    """Page index of its heading."""
    y: float
    """Top of its heading, points from the top of the page."""
    first_paragraph: int
    """Row of its heading (or of its first text) in the document's paragraphs."""
    end_paragraph: int
    """One past its last paragraph, subsections included."""
    end_page: int
    """Page index where it ends."""
    end_y: float
    readings: tuple[Reading, ...] = ()
    """In the order of WITNESSES, one for each that names it; none for a section of the reader's
    own, or for a part of a document without witnesses."""
    disagreements: tuple[Disagreement, ...] = ()
    """Conflicts that nobody has settled."""

    @property
    def witnesses(self) -> tuple[str, ...]:
        """Which witnesses name it."""
        return tuple(reading.witness for reading in self.readings)

    def reading(self, witness: str) -> Reading | None:
        """What a witness says of it."""
        return next((r for r in self.readings if r.witness == witness), None)

    def disputes(self, witness: str) -> bool:
        """Whether a witness says something else than is used."""
        return any(d.witness == witness for d in self.disagreements)


def _parents(sections: Sequence[Section]) -> tuple[int, ...]:
    found: list[int] = []
    open_: list[int] = []
    for index, level in enumerate(section.level for section in sections):
        while open_ and sections[open_[-1]].level >= level:
            open_.pop()
        found.append(open_[-1] if open_ else -1)
        open_.append(index)
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Outline:
    """All sections in reading order."""

    sections: tuple[Section, ...] = ()
    sources: tuple[str, ...] = ()
    """Which of WITNESSES the document has; without any the sections are parts by pages."""
    is_edited: bool = False
    """Whether the reader has changed it."""
    parents: tuple[int, ...] = field(init=False, repr=False, compare=False)
    """The section around each section, -1 for none: asked for again and again, by every view."""

    def __post_init__(self) -> None:
        """Find the parents once."""
        object.__setattr__(self, "parents", _parents(self.sections))

    @property
    def is_by_pages(self) -> bool:
        """Whether the sections are parts of some pages each, for want of any witness."""
        return bool(self.sections) and not self.sources and not self.is_edited

    @property
    def n_levels(self) -> int:
        """How many levels there are."""
        return len({section.level for section in self.sections})

    @property
    def depths(self) -> tuple[int, ...]:
        """How many sections stand around each, which goes down by one at a time."""
        found: list[int] = []
        for parent in self.parents:
            found.append(found[parent] + 1 if parent >= 0 else 0)
        return tuple(found)

    @property
    def disputed(self) -> tuple[int, ...]:
        """Indexes of the sections about which the witnesses disagree."""
        return tuple(k for k, section in enumerate(self.sections) if section.disagreements)

    def path(self, index: int) -> tuple[str, ...]:
        """Titles from the outermost section down to this one; empty for index -1."""
        titles = []
        while index >= 0:
            titles.append(self.sections[index].title)
            index = self.parents[index]
        return tuple(reversed(titles))

    def path_at(self, page: int, y: float) -> tuple[str, ...]:
        """Titles down to the section at a place; ``y`` in points, below 0 for a page's top."""
        return self.path(self.at_place(page, max(y, 0.0) + 1.0))

    def at_paragraph(self, paragraph: int) -> int:
        """Index of the innermost section that holds a paragraph, -1 before the first."""
        return bisect_right(self.sections, paragraph, key=lambda s: s.first_paragraph) - 1

    def at_place(self, page: int, y: float) -> int:
        """Index of the section that is being read at a place, -1 before the first."""
        place = page, y + 1.0
        return bisect_right(self.sections, place, key=lambda s: (s.page, s.y)) - 1


def close_sections(
    sections: Sequence[Section],
    n_paragraphs: int,
    heights: Sequence[float],
    sources: tuple[str, ...] = (),
    *,
    is_edited: bool = False,
) -> Outline:
    """An outline of sections in reading order, each with its end."""
    last_page = len(heights) - 1
    end = n_paragraphs, last_page, float(heights[last_page]) if last_page >= 0 else 0.0
    closed: list[Section] = []
    following: list[tuple[int, int, int, float]] = []  # level, paragraph, page, y
    for section in reversed(sections):
        while following and following[-1][0] > section.level:
            following.pop()
        paragraph, page, y = following[-1][1:] if following else end
        closed.append(section._replace(end_paragraph=paragraph, end_page=page, end_y=y))
        following.append((section.level, section.first_paragraph, section.page, section.y))
    return Outline(tuple(reversed(closed)), sources, is_edited)
