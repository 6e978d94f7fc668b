"""Headings that the numbers of others ask for: where 4.6 and 4.8 are, "4.7" is one too."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.lexicon import thing_of
from wide_margin.core.outline.candidates import is_code
from wide_margin.core.outline.numbering import number_of

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray
    from wide_margin.core.outline.candidates import Candidate

ASKED_FOR = -3.0
"""Log odds from which a candidate is what the chain lacks, however it is set."""
IN_WORDS = 4
"""Plain words of a bold title that speaks of code."""
ASKED_FOR_ALIKE = -6.0
"""The same for one that is set as its neighbours in the chain are, or larger than what it holds."""


def completed(candidates: Sequence[Candidate], kept: Iterable[int], odds: FloatArray) -> list[int]:
    """The rows that are kept, and those that the chain of their numbers lacks.

    "2.3" asks for a "2.2" and for a "2" before it, where there are any between the headings that
    come before them and itself.

    Args:
        candidates: All, in reading order.
        kept: Rows of those that are headings by themselves.
        odds: (n,) log odds of every candidate.
    """
    names = [_name(candidate) for candidate in candidates]
    rows_of: dict[tuple[int, ...], list[int]] = defaultdict(list)
    for row, name in enumerate(names):
        if name:
            rows_of[name].append(row)
    chosen = set(kept)
    chapters = {_of_chapter(candidates[row]) for row in chosen}
    left = sorted(row for row in chosen if names[row])
    while left:
        row = left.pop()
        for needed in _needed(names[row]):
            there = rows_of.get(needed, [])
            if not there or needed in chapters or any(k in chosen for k in there):
                continue
            first = max((k for k in chosen if k < row and () < names[k] < needed), default=-1)
            fit = [
                k for k in there
                if first < k < row and odds[k] > _least(candidates[k], candidates[row],
                                                        is_parent=len(needed) < len(names[row]))
            ]  # fmt: skip
            if fit:
                best = max(fit, key=lambda k: (odds[k], k))
                chosen.add(best)
                left.append(best)
    return sorted(chosen)


def unlinked(candidates: Sequence[Candidate]) -> BoolArray:
    """(n,) which have a number of several parts that stands in no chain: "4.7 per cent of all"."""
    names = [_name(candidate) for candidate in candidates]
    known = set(names)
    return np.array(
        [
            len(name) > 1 and (*name[:-1], name[-1] + 1) not in known
            and not any(needed in known for needed in _needed(name))
            for name in names
        ], dtype=bool,
    )  # fmt: skip


def _name(candidate: Candidate) -> tuple[int, ...]:
    """The parts of a decimal number; () without one, and before a line of code.

    A title may speak of code: "2.2 How do I get lift() to work?".
    """
    number = number_of(candidate.title)
    if number is None or number.scheme != "decimal":
        return ()
    if is_code(candidate.title):
        n_plain = sum(word.strip("?!.,:").isalpha() for word in number.rest.split())
        if not candidate.style.is_bold or n_plain < IN_WORDS:
            return ()
    return tuple(map(int, number.identifier.split(".")))


def _of_chapter(candidate: Candidate) -> tuple[int, ...]:
    """The number that a heading "Chapter 4" gives to what stands under it; () for all others."""
    number = number_of(candidate.title)
    if number is None or thing_of(number.scheme) != "chapter":
        return ()
    return (int(number.identifier),) if number.identifier.isdecimal() else ()


def _needed(name: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
    """What stands before a number: the one it counts on from, and the one above it."""
    if name[-1] > 1:
        yield (*name[:-1], name[-1] - 1)
    if len(name) > 1:
        yield name[:-1]


def _least(candidate: Candidate, asking: Candidate, *, is_parent: bool) -> float:
    style, other = candidate.style, asking.style
    alike = style.size >= other.size if is_parent else style.without_face == other.without_face
    return ASKED_FOR_ALIKE if alike else ASKED_FOR
