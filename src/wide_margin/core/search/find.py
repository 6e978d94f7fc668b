"""Exact find: across line ends, hyphenation and ligatures, ignoring case and accents."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.layout import fold, folded_with_places, tidy

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph


class Hit(NamedTuple):
    """One place where the words stand."""

    paragraph: int
    start: int
    """First character in the paragraph's text; end is exclusive."""
    end: int


@dataclass(frozen=True, slots=True)
class Findable:
    """A document as one folded text, with where each paragraph starts in it."""

    text: str
    starts: tuple[int, ...]


def make_findable(paragraphs: Sequence[Paragraph]) -> Findable:
    """Fold every paragraph once."""
    parts, starts, at = [], [], 0
    for paragraph in paragraphs:
        folded = (
            folded_with_places(paragraph.text)[0]
            if not paragraph.text.isascii()
            else (" ".join(paragraph.text.lower().split()))
        )
        starts.append(at)
        parts.append(folded)
        at += len(folded) + 1
    return Findable("\n".join(parts), tuple(starts))


def find_all(
    findable: Findable,
    paragraphs: Sequence[Paragraph],
    wanted: str,
    *,
    whole_words: bool = False,
    exactly: bool = False,
    most: int | None = None,
    near: int = 0,
) -> list[Hit]:
    """Every place where some words stand, in reading order; none for blank words.

    Args:
        findable: From make_findable.
        paragraphs: The same that it was made of.
        wanted: The words.
        whole_words: Leave out places inside of longer words.
        exactly: Capitals and accents count.
        most: So many at most; all where None.
        near: Page index from which on those are taken where there are more.
    """
    needle = " ".join(fold(tidy(wanted)).split())
    if not needle:
        return []
    first = 0
    if most is not None and near > 0:
        first = bisect_left(paragraphs, near, key=lambda paragraph: paragraph.page)
    start = findable.starts[first] if first < len(findable.starts) else 0

    def among(low: int, high: int) -> Iterator[Hit]:
        """The places that begin in a part of the text."""
        return _hits(findable, paragraphs, wanted, needle, (low, high), whole_words, exactly)

    hits = list(islice(among(start, len(findable.text)), most))
    left = most - len(hits) if most is not None else None
    return [*islice(among(0, start), left), *hits]


def _hits(
    findable: Findable, paragraphs: Sequence[Paragraph], wanted: str, needle: str,
    within: tuple[int, int], whole_words: bool, exactly: bool,
) -> Iterator[Hit]:  # fmt: skip
    places: Sequence[int] = ()
    mapped = -1
    at = findable.text.find(needle, within[0])
    while 0 <= at < within[1]:
        row = bisect_right(findable.starts, at) - 1
        if row != mapped:
            places, mapped = _places(paragraphs[row].text), row
        first = at - findable.starts[row]
        hit = Hit(row, places[first], places[first + len(needle) - 1] + 1)
        if (not whole_words or _is_whole(findable.text, at, len(needle))) and (
            not exactly or tidy(wanted) in tidy(paragraphs[row].text[hit.start : hit.end])
        ):
            yield hit
        at = findable.text.find(needle, at + len(needle))


def _places(text: str) -> Sequence[int]:
    """For each character of a folded text the place it came from."""
    if text.isascii() and " ".join(text.split()) == text:
        return range(len(text))  # nothing but its capitals is folded
    return folded_with_places(text)[1]


def _is_whole(text: str, at: int, length: int) -> bool:
    before = text[at - 1] if at else " "
    after = text[at + length] if at + length < len(text) else " "
    return not before.isalnum() and not after.isalnum()
