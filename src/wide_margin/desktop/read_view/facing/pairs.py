"""The translations that stand facing the pages: which paragraphs, where, and their pairs; no Qt."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.margin import TranslationBody
from wide_margin.core.outline.titles import squash

if TYPE_CHECKING:
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.margin import Entry
    from wide_margin.core.outline import Outline
    from wide_margin.core.translate import Pair

PairAt = tuple[str, int]
"""An entry and one of its pairs."""


class Key(NamedTuple):
    """A paragraph of a translation."""

    entry_id: str
    number: int


class FacingPairs:
    """All translations of pages and sections into one language, in the order of the pages."""

    def __init__(self, entries: Callable[[], Mapping[str, Entry]]) -> None:
        """Of the entries of the open document, as they are when asked."""
        self._entries = entries
        self.language = ""
        self.on_page: dict[int, list[Key]] = {}
        """The paragraphs that begin on each page."""
        self._titles: frozenset[str] = frozenset()
        """Of the sections: paragraphs that are headings."""

    def body(self, entry_id: str) -> TranslationBody | None:
        """The translation that an entry holds, None where it holds none."""
        entry = self._entries().get(entry_id)
        return entry.body if entry is not None and isinstance(entry.body, TranslationBody) else None

    def bodies(self) -> list[tuple[str, TranslationBody]]:
        """Facing translations into the language shown, the oldest first."""
        found = [
            (entry.created, entry.id, entry.body)
            for entry in self._entries().values()
            if isinstance(entry.body, TranslationBody)
            and entry.body.is_facing and entry.body.language == self.language
        ]  # fmt: skip
        return [(entry_id, body) for _, entry_id, body in sorted(found, key=lambda f: f[:2])]

    def gather(self, outline: Outline) -> None:
        """Find which paragraphs are there; of one translated twice the later counts."""
        self._titles = frozenset(squash(section.title) for section in outline.sections)
        by_place: dict[tuple[SpanOnPage, ...], tuple[int, int, Key]] = {}
        for entry_id, body in self.bodies():
            for number, paragraph in enumerate(body.paragraphs):
                if spans := paragraph.place.spans:
                    key = Key(entry_id, number)
                    by_place[spans] = paragraph.place.page, spans[0].start, key
        self.on_page = {}
        for page, _, key in sorted(by_place.values(), key=lambda item: (item[0], item[2])):
            self.on_page.setdefault(page, []).append(key)

    def known(self) -> set[Key]:
        """Every paragraph there is."""
        return {key for keys in self.on_page.values() for key in keys}

    def near(self, pages: Sequence[int], by: int) -> Iterator[Key]:
        """The paragraphs of these pages and of so many about them, in reading order."""
        if pages:
            for page in range(min(pages) - by, max(pages) + by + 1):
                yield from self.on_page.get(page, ())

    def over(self, page: int) -> list[Key]:
        """Paragraphs that begin on a page, or on the one before and may go on."""
        return [*self.on_page.get(page - 1, ()), *self.on_page.get(page, ())]

    def spans_of(self, key: Key) -> tuple[SpanOnPage, ...]:
        """The characters of a paragraph's source."""
        body = self.body(key.entry_id)
        return body.paragraphs[key.number].place.spans if body is not None else ()

    def is_heading(self, key: Key) -> bool:
        """Whether a paragraph is the title of a section."""
        body = self.body(key.entry_id)
        if body is None:
            return False
        return squash(body.paragraphs[key.number].place.quote) in self._titles

    def is_row(self, key: Key) -> bool:
        """Whether a paragraph is a row of a table."""
        body = self.body(key.entry_id)
        return body is not None and body.paragraphs[key.number].is_row

    def rows(self, key: Key) -> range:
        """The pairs of a paragraph."""
        body = self.body(key.entry_id)
        if body is None:
            return range(0)
        following = key.number + 1
        is_last = following == len(body.paragraphs)
        last = len(body.pairs) if is_last else body.paragraphs[following].row
        return range(body.paragraphs[key.number].row, last)

    def pair(self, at: PairAt) -> Pair | None:
        """A pair, None where there is none."""
        body = self.body(at[0])
        return body.pairs[at[1]] if body is not None and 0 <= at[1] < len(body.pairs) else None

    def paragraph_of(self, at: PairAt) -> Key | None:
        """The paragraph that a pair belongs to."""
        body = self.body(at[0])
        numbers = [k for k, p in enumerate(body.paragraphs) if p.row <= at[1]] if body else []
        return Key(at[0], max(numbers)) if numbers else None

    def in_order(self) -> list[PairAt]:
        """All pairs in the order they are read."""
        keys = (key for page in sorted(self.on_page) for key in self.on_page[page])
        return [(key.entry_id, row) for key in keys for row in self.rows(key)]

    def doubtful(self) -> list[PairAt]:
        """Those that a check has marked, in order."""
        found = ((at, self.pair(at)) for at in self.in_order())
        return [at for at, pair in found if pair and pair.doubts and pair.origin != "glosses"]


def holds(spans: Sequence[SpanOnPage], page: int, character: int) -> bool:
    """Whether a character of a page is among some."""
    return any(s.page == page and s.start <= character < s.end for s in spans)
