"""Places as people type them: a page label, a section number, a heading."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives, roman, thing_of
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.outline.titles import squash

if TYPE_CHECKING:
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.outline import Outline

_SECTION = regex(
    lambda: rf"^(?P<word>{alternatives('section', 'chapter', 'part', 'appendix')}|§)?\s*"
    r"(?P<id>\d+(?:\.\d+)*|[IVXLC]+|[A-Z](?:\.\d+)*)\.?$", re.I
)  # fmt: skip
MANY = 100
"""Chapters with roman numerals are fewer."""


@dataclass(frozen=True, slots=True)
class Place:
    """Where a typed text leads."""

    page: int
    y: float
    name: str
    """How it is said beforehand: "p. 57", "9.3 Closing error"."""
    others: tuple[int, ...] = ()
    """Other page indexes that carry the same label."""


def read_place(text: str, labels: PageLabels, outline: Outline) -> Place | None:
    """The place that a whole text names; None where it is not a place but a question.

    A number is a page label first, then a page of the file; a number with dots, or after a
    word such as "section", is a section number; anything else must be a heading.
    """
    typed = " ".join(text.split())
    if not typed:
        return None
    match = _SECTION.match(typed)
    if match and (match["word"] or "." in match["id"]):
        if place := _at(outline, section_numbered(outline, match["word"] or "", match["id"])):
            return place
        if match["word"]:
            return None
    if pages := labels.find(typed):
        return Place(pages[0], 0.0, labels.shown(pages[0]), tuple(pages[1:]))
    return _at(outline, section_titled(outline, typed))


def section_numbered(outline: Outline, word: str, identifier: str) -> int:
    """Row of the section with a number, -1 where there is none.

    Args:
        outline: Where to look.
        word: What stands before the number, such as "annex"; "" where nothing does.
        identifier: The number: "4.2", "B", "IV". Where several have it, the outermost is meant.
    """
    fitting, roman_tops = [], []
    may_be_roman = identifier.isdecimal() and thing_of(word) in ("chapter", "part")
    as_roman = roman(int(identifier)) if may_be_roman and 0 < int(identifier) < MANY else ""
    for row, section in enumerate(outline.sections):
        number = number_of(section.title)
        if number and number.identifier.casefold() == identifier.casefold():
            other_word = bool(word) and thing_of(number.scheme) != thing_of(word)
            fitting.append((other_word, section.level, row))
        elif number and number.identifier.casefold() == as_roman and section.level == 0:
            roman_tops.append(row)
    # "Chapter 2" is II, where the sections of each chapter are counted anew in figures.
    is_counted_anew = len(fitting) != 1 and all(level for _, level, _ in fitting)
    if roman_tops and is_counted_anew:
        return roman_tops[0]
    return min(fitting)[2] if fitting else -1


def section_titled(outline: Outline, title: str) -> int:
    """Row of the section with a title, its number left out or not; -1 where there is none."""
    wanted = squash(title)
    if len(wanted) < 3:
        return -1
    return next((k for k, s in enumerate(outline.sections) if wanted in _called(s.title)), -1)


@lru_cache(maxsize=1 << 15)
def _called(title: str) -> frozenset[str]:
    """What a title is looked up by, at every letter that is typed: with its number and without."""
    number = number_of(title)
    return frozenset({squash(title), squash(number.rest) if number else ""})


def _at(outline: Outline, row: int) -> Place | None:
    if row < 0:
        return None
    section = outline.sections[row]
    return Place(section.page, section.y, section.title)
