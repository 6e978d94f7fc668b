"""Page labels: the numbers people mean when they name a page."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import roman, roman_value

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

_FILE_PAGE = regex(r"^file(?:\s+page)?\s+(\d+)$", re.I)
_TYPED = regex(r"^(?:pages?|pp?\.?)\s+(\S+)$", re.I)
_TRIM = "-–—|·•[]().,: "


@dataclass(frozen=True, slots=True)
class PageLabels:
    """The label of every page, and the way from a typed label to pages."""

    labels: tuple[str | None, ...]
    _pages: dict[str, list[int]] = field(default_factory=dict, repr=False, compare=False)

    def __post_init__(self) -> None:
        """Sort the pages of each label: those of the longest sequence first."""
        length = _sequence_lengths(self.labels)
        for page, label in enumerate(self.labels):
            if label is not None:
                self._pages.setdefault(label, []).append(page)
        for pages in self._pages.values():
            pages.sort(key=lambda page: (-length[page], page))

    def of(self, page: int) -> str | None:
        """The label of a page index."""
        return self.labels[page] if 0 <= page < len(self.labels) else None

    def shown(self, page: int) -> str:
        """What to call a page: "p. 57", or "file page 69" where it has no label."""
        return page_shown(self.of(page), page)

    def listed(self, page: int) -> str:
        """The same in a column of page numbers: bare, where no other number could be meant."""
        label = self.of(page)
        if label or any(self.labels):
            return label or page_shown(None, page)
        return str(page + 1)

    def find(self, typed: str) -> list[int]:
        """Page indexes that a typed page number may mean, best first.

        A number is a label first; "file 69" is the file page; a number that is nobody's
        label is a file page too. Labels keep their case.
        """
        typed = typed.strip()
        if match := _FILE_PAGE.match(typed):
            return self._file_page(match[1])
        if match := _TYPED.match(typed):
            typed = match[1]
        if pages := self._pages.get(typed):
            return list(pages)
        return self._file_page(typed)

    def _file_page(self, digits: str) -> list[int]:
        if not digits.isascii() or not digits.isdigit():
            return []
        page = int(digits) - 1
        return [page] if 0 <= page < len(self.labels) else []


def page_shown(label: str | None, page: int) -> str:
    """What to call a page everywhere: "p. 57" by its label, else "file page 69"."""
    return f"p. {label}" if label else f"file page {page + 1}"


def _sequence_lengths(labels: Sequence[str | None]) -> list[int]:
    """For every page, how many pages its unbroken run of counting labels has."""
    lengths = [0] * len(labels)
    start = 0
    for page in range(1, len(labels) + 1):
        before = page_number(labels[page - 1])
        here = page_number(labels[page]) if page < len(labels) else None
        goes_on = (
            before is not None
            and here is not None
            and here[0] == before[0]
            and here[1] == before[1] + 1
        )
        if not goes_on:
            lengths[start:page] = [page - start] * (page - start)
            start = page
    return lengths


def label_pages(
    from_file: Sequence[str | None], pages: Sequence[Sequence[Line]], heights: Sequence[float]
) -> PageLabels:
    """Choose the labels: the file's own unless the printed numbers contradict them.

    Args:
        from_file: /PageLabels, one each page, None where the file has none.
        pages: Lines of every page, furniture included.
        heights: Page heights in points.
    """
    printed = printed_numbers(pages, heights)
    if any(from_file):
        both = [(a, b) for a, b in zip(from_file, printed, strict=True) if a and b]
        n_same = sum(a.casefold() == b.casefold() for a, b in both)
        if len(both) < 3 or 2 * n_same >= len(both):
            return PageLabels(tuple(from_file))
    return PageLabels(tuple(printed))


def printed_numbers(pages: Sequence[Sequence[Line]], heights: Sequence[float]) -> list[str | None]:
    """The page number printed on each page, None where there is none.

    A number counts when pages around it count along with it. Pages without a number between
    two that agree (openings of chapters, full-page figures) get theirs by counting.
    """
    votes: dict[tuple[str, int], set[int]] = defaultdict(set)
    for page, (lines, height) in enumerate(zip(pages, heights, strict=True)):
        for kind, value in _candidates(lines, height):
            votes[kind, value - page].add(page)
    chosen: dict[int, tuple[int, str, int]] = {}
    for (kind, offset), found in votes.items():
        for page in found:
            near = sum(other in found for other in range(page - 5, page + 6))
            if near >= 3 and near > chosen.get(page, (0, "", 0))[0]:
                chosen[page] = near, kind, offset
    result: list[str | None] = [None] * len(pages)
    known = sorted(chosen)
    for page in known:
        result[page] = _written(chosen[page][1], page + chosen[page][2])
    for before, after in pairwise(known):
        if chosen[before][1:] == chosen[after][1:] and after - before <= 12:
            for page in range(before + 1, after):
                result[page] = _written(chosen[before][1], page + chosen[before][2])
    return result


def _candidates(lines: Sequence[Line], height: float) -> set[tuple[str, int]]:
    found = set()
    at_edge = [line for line in lines if line.box[3] < 0.13 * height or line.box[1] > 0.87 * height]
    for line in at_edge:
        words = line.text.split()
        for word in {words[0], words[-1]} if words else set():
            if number := page_number(word.strip(_TRIM)):
                found.add(number)
    return found


def page_number(text: str | None) -> tuple[str, int] | None:
    """Kind (arabic, roman, ROMAN) and value of a page number."""
    if not text:
        return None
    if text.isascii() and text.isdigit() and len(text) <= 4:
        return "arabic", int(text)
    if len(text) <= 8 and (text.islower() or text.isupper()):
        value = roman_value(text.lower())
        if value:
            return ("roman" if text.islower() else "ROMAN"), value
    return None


def _written(kind: str, value: int) -> str | None:
    if value <= 0:
        return None
    if kind == "arabic":
        return str(value)
    return roman(value) if kind == "roman" else roman(value).upper()
