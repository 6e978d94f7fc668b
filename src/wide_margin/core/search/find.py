"""Exact find: across line ends, hyphenation and ligatures, ignoring case and accents."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from wide_margin.core.layout import Paragraph, fold, folded_with_places, tidy


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
) -> list[Hit]:
    """Every place where some words stand, in reading order; none for blank words.

    Args:
        findable: From make_findable.
        paragraphs: The same that it was made of.
        wanted: The words.
        whole_words: Leave out places inside of longer words.
        exactly: Capitals and accents count.
    """
    needle = " ".join(fold(tidy(wanted)).split())
    if not needle:
        return []
    hits = []
    at = findable.text.find(needle)
    places: list[int] = []
    mapped = -1
    while at >= 0:
        row = bisect_right(findable.starts, at) - 1
        if row != mapped:
            places, mapped = folded_with_places(paragraphs[row].text)[1], row
        first = at - findable.starts[row]
        hit = Hit(row, places[first], places[first + len(needle) - 1] + 1)
        if (not whole_words or _is_whole(findable.text, at, len(needle))) and (
            not exactly or tidy(wanted) in tidy(paragraphs[row].text[hit.start : hit.end])
        ):
            hits.append(hit)
        at = findable.text.find(needle, at + len(needle))
    return hits


def _is_whole(text: str, at: int, length: int) -> bool:
    before = text[at - 1] if at else " "
    after = text[at + length] if at + length < len(text) else " "
    return not before.isalnum() and not after.isalnum()
