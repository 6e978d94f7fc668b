"""Sections, and the outline they make."""

from bisect import bisect_right
from dataclasses import dataclass
from typing import NamedTuple


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
    witnesses: tuple[str, ...]
    """Which of "bookmark" and "heading" name it."""


@dataclass(frozen=True, slots=True)
class Outline:
    """All sections in reading order."""

    sections: tuple[Section, ...] = ()

    def path(self, index: int) -> tuple[str, ...]:
        """Titles from the outermost section down to this one; empty for index -1."""
        if index < 0:
            return ()
        titles = [self.sections[index].title]
        level = self.sections[index].level
        for section in reversed(self.sections[:index]):
            if section.level < level:
                titles.append(section.title)
                level = section.level
        return tuple(reversed(titles))

    def at_paragraph(self, paragraph: int) -> int:
        """Index of the innermost section that holds a paragraph, -1 before the first."""
        starts = [section.first_paragraph for section in self.sections]
        return bisect_right(starts, paragraph) - 1

    def at_place(self, page: int, y: float) -> int:
        """Index of the section that is being read at a place, -1 before the first."""
        found = -1
        for index, section in enumerate(self.sections):
            if (section.page, section.y) > (page, y + 1.0):
                break
            found = index
        return found
