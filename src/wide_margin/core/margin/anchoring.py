"""Finding the places of entries again in a new version of their document, by their words.

Letters and digits alone are compared, without case and accents: hyphenation, line ends, spacing
and typographic marks differ between versions while the words stay.
"""

import unicodedata
from bisect import bisect_right
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from wide_margin.core.answers import Locator
from wide_margin.core.layout import Paragraph, SpanOnPage
from wide_margin.core.margin.entries import Anchor, Entry

LEAST_LETTERS = 4
"""Fewer letters could stand anywhere."""
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
        parts = [letters for part in quote.split("…") if (letters := letters_of(part)[0])]
        if sum(map(len, parts)) < LEAST_LETTERS:
            return None
        spans: list[SpanOnPage] = []
        first = self._nearest(parts[0], near_page)
        if first is None:
            return None
        start, length = first
        spans.extend(self._spans(start, start + length))
        at = start + length
        for part in parts[1:]:
            found = self._text.find(part, at)
            if found < 0 or found - at > 20_000:
                continue
            spans.extend(self._spans(found, found + len(part)))
            at = found + len(part)
        return Found(spans[0].page, tuple(spans)) if spans else None

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

    anchor = entry.anchor
    if anchor.quote.strip():
        found = letters.find(anchor.quote, anchor.page)
        if found is None:
            anchor = replace(anchor, spans=(), is_lost=True)
        else:
            anchor = Anchor(found.page, -1.0, found.spans, anchor.quote)
    return replace(entry, anchor=anchor, body=entry.body.with_places(moved))
