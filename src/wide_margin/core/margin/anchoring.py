"""Finding the places of entries again in a new version of their document, by their words.

Letters and digits alone are compared, without case and accents: hyphenation, line ends, spacing
and typographic marks differ between versions while the words stay.
"""

from __future__ import annotations

import unicodedata
from bisect import bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from wide_margin.core.layout import SpanOnPage
from wide_margin.core.passages import split_sentences

if TYPE_CHECKING:
    from wide_margin.core.document import Locator
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.margin.entries import Entry

LEAST_LETTERS = 4
"""Fewer letters could stand anywhere."""
MOST_OF_IT = 0.5
"""Share of a quote's letters that must be found for its place to be."""
FURTHEST = 20_000
"""Letters that may lie between two parts of one quote."""
PART_LETTERS = 24
"""Of a long quote, so many letters of its start and of its end may stand for all of it."""


@dataclass(frozen=True, slots=True)
class Found:
    """Where some words stand now."""

    page: int
    spans: tuple[SpanOnPage, ...]


class Letters:
    """All letters of a document in reading order, and the way back to the page."""

    def __init__(self, paragraphs: Sequence[Paragraph]) -> None:
        """Lay the paragraphs one after the other."""
        self._paragraphs = paragraphs
        self._starts: list[int] = []
        parts: list[str] = []
        at = 0
        for paragraph in paragraphs:
            self._starts.append(at)
            parts.append(letters_of(paragraph.text)[0])
            at += len(parts[-1])
        self._text = "".join(parts)

    def find(self, quote: str, near_page: int) -> Found | None:
        """Where a quote stands, the place nearest to a page; None where it does not.

        A "…" in the quote is a cut: what stands around it must follow in this order.
        """
        parts = [part for part in quote.split("…") if letters_of(part)[0]]
        n_letters = sum(len(letters_of(part)[0]) for part in parts)
        if n_letters < LEAST_LETTERS:
            return None
        spans: list[SpanOnPage] = []
        n_found, at = 0, -1
        for part in parts:
            for start, length in self._stretches(part, near_page, at):
                spans.extend(self._spans(start, start + length))
                n_found, at = n_found + length, start + length
        if not spans or n_found < MOST_OF_IT * n_letters:
            return None
        return Found(spans[0].page, tuple(spans))

    def _stretches(self, part: str, near_page: int, at: int) -> list[tuple[int, int]]:
        """Starts and lengths of what is left of a part: all of it, or those of its sentences."""
        whole = self._placed(letters_of(part)[0], near_page, at)
        if whole is not None:
            return [whole]
        found = []
        for start, end in split_sentences(part):
            letters = letters_of(part[start:end])[0]
            place = self._placed(letters, near_page, at) if len(letters) >= LEAST_LETTERS else None
            if place is not None:
                found.append(place)
                at = place[0] + place[1]
        return found

    def _placed(self, letters: str, near_page: int, at: int) -> tuple[int, int] | None:
        """Start and length: right after what was found before, else nearest to a page."""
        if at < 0:
            return self._nearest(letters, near_page)
        found = self._text.find(letters, at)
        return (found, len(letters)) if 0 <= found - at < FURTHEST else None

    def _nearest(self, letters: str, near_page: int) -> tuple[int, int] | None:
        """Start and length of the occurrence nearest to a page, else of its two ends."""
        places = list(self._all(letters))
        if places:
            return min(places, key=lambda at: abs(self._page_at(at) - near_page)), len(letters)
        if len(letters) < 2 * PART_LETTERS:
            return None
        head, tail = letters[:PART_LETTERS], letters[-PART_LETTERS:]
        for start in sorted(self._all(head), key=lambda at: abs(self._page_at(at) - near_page)):
            end = self._text.find(tail, start)
            if 0 <= end - start < 1.5 * len(letters):  # some words in between were changed
                return start, end + len(tail) - start
        return None

    def _all(self, letters: str) -> list[int]:
        places: list[int] = []
        at = self._text.find(letters)
        while at >= 0 and len(places) < 500:
            places.append(at)
            at = self._text.find(letters, at + 1)
        return places

    def _page_at(self, at: int) -> int:
        return self._paragraphs[self._row_at(at)].page

    def _row_at(self, at: int) -> int:
        return bisect_right(self._starts, at) - 1

    def _spans(self, start: int, end: int) -> list[SpanOnPage]:
        found: list[SpanOnPage] = []
        row = self._row_at(start)
        while row < len(self._starts) and self._starts[row] < end:
            places = letters_of(self._paragraphs[row].text)[1]
            low = max(start - self._starts[row], 0)
            high = min(end - self._starts[row], len(places))
            if low < high:
                found.extend(self._paragraphs[row].spans(places[low], places[high - 1] + 1))
            row += 1
        return found


def letters_of(text: str) -> tuple[str, list[int]]:
    """The letters and digits of a text, folded, and the place of each in the text."""
    letters: list[str] = []
    places: list[int] = []
    for place, character in enumerate(text):
        if character.isascii():
            if character.isalnum():
                letters.append(character.lower())
                places.append(place)
            continue
        for part in unicodedata.normalize("NFKD", character.casefold()):
            if part.isalnum():
                letters.append(part)
                places.append(place)
    return "".join(letters), places


def anchored_again(entry: Entry, letters: Letters, label_of: Callable[[int], str | None]) -> Entry:
    """An entry whose passage and every place within lead to where their words stand now.

    Args:
        entry: As kept for an older version of the document.
        letters: Of the version that is open.
        label_of: The printed page number of a page index.

    Returns:
        The entry; places whose words are nowhere are marked as lost and keep their words.
    """

    def moved(place: Locator) -> Locator:
        found = letters.find(place.quote, place.page)
        if found is None:
            return replace(place, spans=(), is_lost=bool(place.quote))
        return replace(
            place, page=found.page, label=label_of(found.page), spans=found.spans, is_lost=False
        )

    body = entry.body.with_places(moved)
    anchor = entry.anchor
    if anchor.quote.strip():
        found = letters.find(anchor.quote, anchor.page)
        kept = next((place for place in body.places if not place.is_lost and place.spans), None)
        if found is None and kept is not None:  # an answer stands beside what is left of it
            found = Found(kept.page, kept.spans)
        if found is None:
            anchor = replace(anchor, spans=(), is_lost=True)
        else:
            anchor = replace(anchor, page=found.page, y=-1.0, spans=found.spans, is_lost=False)
    return replace(entry, anchor=anchor, body=body)
