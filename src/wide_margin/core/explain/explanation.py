"""What a selection means here: its terms, its references, what it leans on, its parts."""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property
from typing import TYPE_CHECKING

from wide_margin.core.document import Locator, find_notes, locator_for
from wide_margin.core.explain.chained import noun_chains
from wide_margin.core.explain.clauses import take_apart
from wide_margin.core.explain.definitions import MAX_TERM_WORDS, SURE, exact_key, find_definitions
from wide_margin.core.explain.measures import other_units
from wide_margin.core.explain.model import Explanation, Meaning, Reference
from wide_margin.core.explain.references import find_references
from wide_margin.core.explain.standing_for import stands_for
from wide_margin.core.explain.targets import Targets
from wide_margin.core.explain.uses import (
    first_used,
    how_often,
    is_everyday,
    leans_on,
    most_said,
    taken_up_again,
)
from wide_margin.core.later import regex
from wide_margin.core.layout import fold, tidy
from wide_margin.core.passages import split_sentences
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain.definitions import Definition, Definitions
    from wide_margin.core.explain.model import Often, Part, StandsFor

MAX_MEANINGS = 6
ENOUGH_TOLD = 2
"""Of fewer things told of a passage, where its word stands most is told too."""
MAX_SENTENCES = 60
"""A selection is taken to lie in at most so many."""
LONGEST_ONCE = 3
"""Words of a term that stands once, to be told."""
FEW_WORDS = 5
"""A selection of so few words with content is a term, of which every definition counts."""
OF_LANGUAGE = 3000
"""A word among so many of the most frequent is used more often than named."""
_SHORT = regex(r"(?<![\w.])(?:(?:[A-Z]\.){2,6}|[A-Z][A-Za-z0-9&/-]*[A-Z][A-Za-z0-9&/-]*)s?(?!\w)")
_SYMBOL = regex(
    r"(?<![\w'’.-])(?:[^\W\d_][₀-₉′″]{0,2}|[^\W\d_]\d|[α-ωΑ-Ω]\w?)(?![\w'’-])|[†‡§¶‖*#]{1,2}(?!\w)"
)


class Explainer:
    """Explains selections of one document; what it needs of the whole is gathered once."""

    def __init__(self, document: ReadDocument, definitions: Definitions | None = None) -> None:
        """Nothing is gathered before it is asked for."""
        self._document = document
        if definitions is not None:
            self.__dict__["definitions"] = definitions

    @cached_property
    def definitions(self) -> Definitions:
        """Every definition of the document."""
        return find_definitions(self._document)

    def prepare(self) -> bool:
        """Gather one thing that explanations need of the whole; whether there is more."""
        for name in ("definitions", "targets", "_notes", "_on_page"):
            if name not in self.__dict__:
                getattr(self, name)
                return True
        return False

    @cached_property
    def targets(self) -> Targets:
        """What references can lead to."""
        return Targets(self._document)

    @cached_property
    def _notes(self) -> dict[int, list[tuple[int, int]]]:
        """For each paragraph with marks: (place of the mark, row of its note)."""
        found: dict[int, list[tuple[int, int]]] = {}
        for tie in find_notes(self._document.paragraphs):
            found.setdefault(tie.paragraph, []).append((tie.start, tie.note))
        return found

    @cached_property
    def _on_page(self) -> tuple[list[int], list[int]]:
        """Rows of sentences by page, and their pages, in order."""
        rows = sorted(range(len(self._document.text.sentences)),
                      key=lambda row: (self._document.text.sentences[row].page, row))  # fmt: skip
        return rows, [self._document.text.sentences[row].page for row in rows]

    def explain(self, text: str, page: int = -1) -> Explanation:
        """Explain a selection.

        Args:
            text: The selected words.
            page: Page index where they stand; -1 where it is not known.
        """
        selected = " ".join(text.split())
        rows = self._place(selected, page)
        content = [w for w in words(selected) if not is_common(w, self._document.index.language)]
        meanings = self._defined(selected, rows, is_term=len(content) <= FEW_WORDS)
        is_term = 0 < len(content) <= 3 and not selected.rstrip().endswith(".")
        if not any(m.kind != "symbol" for m in meanings) and is_term:
            meanings += [
                Meaning(selected, use.text, "used", use.locator)
                for use in first_used(self._document, selected, rows)
            ]
        first = rows[0] if rows else -1
        references = find_references(self._document, selected, self.targets, first)
        references += self._footnotes(selected, rows)
        shown = {m.locator.spans for m in meanings}
        said = {m.text for m in meanings}
        named = {word for m in meanings for word in words(m.term)}
        is_long = len(content) > 3
        told = Explanation(
            selected,
            tuple(meanings),
            tuple(references),
            self._taken_apart(selected) if is_long else (),
            self._pointing_back(selected, rows) if is_long else (),
            tuple(leans_on(self._document, selected, rows, shown, named)) if is_long else (),
            tuple(
                again
                for again in taken_up_again(self._document, selected, rows, shown)
                if again.text not in said
            ),
            other_units(selected),
            noun_chains(self._document, selected),
            self._often(selected) if is_term else None,
        )
        if not is_term and told.n_told < ENOUGH_TOLD:
            return replace(told, often=most_said(self._document, selected))
        return told

    def _often(self, selected: str) -> Often | None:
        """How often a term stands; that a phrase comes only once is nothing to tell."""
        often = how_often(self._document, selected)
        is_phrase = len(selected.split()) > LONGEST_ONCE
        return None if often and often.n_times == 1 and is_phrase else often

    def _place(self, selected: str, page: int) -> list[int]:
        """Rows of the sentences that a selection lies in; none where it is not found."""
        wanted = _plain(selected)
        if len(wanted) < 4:
            return []
        if page >= 0:
            rows, pages = self._on_page
            near = rows[bisect_right(pages, page - 2) : bisect_right(pages, page)]
            if found := self._among(wanted, near):
                return found
        return self._among(wanted, range(len(self._document.text.sentences)))

    def _among(self, wanted: str, rows: Sequence[int]) -> list[int]:
        start = wanted[:40]
        for k, row in enumerate(rows):
            plain = _plain(self._document.text.sentences[row].text)
            if start in plain or (len(plain) > 20 and plain in wanted):
                found = [row]
                for other in rows[k + 1 : k + MAX_SENTENCES]:
                    after = _plain(self._document.text.sentences[other].text)
                    if len(after) <= 8 or after not in wanted:
                        break
                    found.append(other)
                return found
        return []

    def _defined(self, text: str, rows: Sequence[int], *, is_term: bool) -> list[Meaning]:
        meanings: list[Meaning] = []
        seen: set[tuple[int, str]] = set()

        def take(definition: Definition | None) -> bool:
            if definition is None:
                return False
            if (key := (definition.sentence, definition.long_form)) not in seen:
                seen.add(key)
                meanings.append(self._meaning(definition))
            return True

        for short in dict.fromkeys(m[0] for m in _SHORT.finditer(text)):
            found = self.definitions.get(exact_key(short)) or self.definitions.get(
                exact_key(short.removesuffix("s")), []
            )
            take(self._best(found, text, 0.0))
        if is_term and not meanings:
            take(self._best(self.definitions.get(exact_key(text.upper()), []), text, 0.0))
        if is_term or len(text.split()) > FEW_WORDS:
            for symbol in dict.fromkeys(m[0] for m in _SYMBOL.finditer(text)):
                if symbol not in ("a", "A", "I", "i", "*", "#"):
                    take(self._nearest(self.definitions.get(exact_key(symbol), []), rows))
        least = 0.0 if is_term else SURE
        analyser = self._document.index.analyser
        content = [w for w in words(text) if not is_common(w, analyser.language)]
        stems = [(analyser.terms_of(word) or (word,))[0] for word in content]
        at = 0
        is_worded = is_term and any(letter.isalpha() for letter in text)
        is_unknown = is_worded and tuple(stems) not in self.definitions and not meanings
        if is_unknown and take(self._best(self._wider(frozenset(stems)), text, 0.0)):
            return meanings
        while at < len(stems) and len(meanings) < MAX_MEANINGS:
            for length in range(min(MAX_TERM_WORDS, len(stems) - at), 0, -1):
                key = tuple(stems[at : at + length])
                everyday = length == 1 and not is_term and is_everyday(content[at], OF_LANGUAGE)
                floor = max(least, 0.8) if everyday else least
                found = self.definitions.get(key, [])
                if not is_term:
                    found = [d for d in found if _is_named(d, text)]
                if take(self._best(found, text, floor)):
                    at += length
                    break
            else:
                at += 1
        return meanings[:MAX_MEANINGS]

    def _wider(self, stems: frozenset[str]) -> list[Definition]:
        """Definitions of longer terms that hold all of some words: "native source package"."""
        found = [
            (0.2 * (len(key) - len(stems)) - definitions[0].weight, definitions[0])
            for key, definitions in self.definitions.items()
            if len(key) - len(stems) <= 2 and stems < set(key)
        ]
        return [definition for _, definition in sorted(found)[:3]]

    def _best(self, found: Sequence[Definition], text: str, least: float) -> Definition | None:
        """The surest definition that is not the selection itself."""
        for definition in found:
            said = self._document.text.sentences[definition.sentence].text
            itself = said.rstrip(" .:;") in text  # chosen with its full stop or without
            if definition.weight >= least and not (itself and definition.kind != "abbreviation"):
                return definition
        return None

    def _nearest(self, found: Sequence[Definition], rows: Sequence[int]) -> Definition | None:
        """The definition of a symbol that holds here: the last before, in the same chapter."""
        if not rows:
            return found[0] if len(found) == 1 else None
        document = self._document

        def chapter(row: int) -> tuple[str, ...]:
            return document.path_at(document.text.sentences[row].section)[:1]

        here = [
            d for d in found if chapter(d.sentence) == chapter(rows[0]) and d.sentence not in rows
        ]
        before = [d for d in here if d.sentence < rows[0]]
        if before:
            return max(before, key=lambda d: d.sentence)
        return min(here, key=lambda d: d.sentence) if here else None

    def _meaning(self, definition: Definition) -> Meaning:
        sentences = self._document.text.sentences
        sentence = sentences[definition.sentence]
        first = definition.first if definition.first >= 0 else definition.sentence
        end = definition.sentence + 1
        text = " ".join(s.text for s in sentences[first:end])
        if definition.kind in ("glossary", "entry"):  # an entry goes on to the end of its paragraph
            most = 3 if definition.kind == "entry" else len(sentences)
            while (
                end < len(sentences)
                and sentences[end].paragraph == sentence.paragraph
                and end - first < most
            ):
                text = f"{text} {sentences[end].text}"
                end += 1
            if text.startswith(definition.term):  # the card names the term already
                text = text[len(definition.term) :].lstrip(" :—–-")
        locator = locator_for(self._document, first, end)
        return Meaning(definition.term, text, definition.kind, locator, definition.long_form)

    def _footnotes(self, selected: str, rows: Sequence[int]) -> list[Reference]:
        """The footnotes whose marks stand in the selection."""
        found = []
        document = self._document
        for row in rows:
            sentence = document.text.sentences[row]
            for at, note in self._notes.get(sentence.paragraph, ()):
                if sentence.start <= at <= sentence.end + 1:
                    paragraph = document.paragraphs[note]
                    spans = paragraph.spans(0, len(paragraph.text))
                    path = document.path_at(sentence.section)
                    locator = Locator(
                        paragraph.page, document.labels.of(paragraph.page), spans, path
                    )
                    mark = tidy(document.paragraphs[sentence.paragraph].text[at : at + 3]).split(
                        " "
                    )[0]
                    found.append(
                        Reference(f"note {mark.rstrip('.,;')}", tidy(paragraph.text), locator)
                    )
        return found

    def _taken_apart(self, selected: str) -> tuple[tuple[Part, ...], ...]:
        """The parts of each sentence; English only, and only where there is more than one."""
        if self._document.index.language != "en":
            return ()
        found = [take_apart(selected[a:b]) for a, b in split_sentences(selected)]
        return tuple(parts for parts in found if len(parts) > 1)

    def _pointing_back(self, selected: str, rows: Sequence[int]) -> tuple[StandsFor, ...]:
        if self._document.index.language != "en":
            return ()
        before: list[str] = []
        if rows:
            sentences = self._document.text.sentences
            first = sentences[rows[0]]
            before = [
                s.text for s in sentences[max(0, rows[0] - 2) : rows[0]]
                if s.section == first.section and s.kind in ("body", "item", "entry")
            ]  # fmt: skip
        return stands_for(selected, before)


def explain(
    document: ReadDocument, definitions: Definitions, text: str, page: int = -1
) -> Explanation:
    """Explain one selection: see Explainer, which is quicker for more than one."""
    return Explainer(document, definitions).explain(text, page)


def _is_named(definition: Definition, text: str) -> bool:
    """Whether a text names what an entry of a list describes, and does not just use its word."""
    if definition.kind not in ("entry", "glossary") or definition.weight > 0.9:
        return True
    written = re.search(rf"(?<!\w){re.escape(definition.term)}(?!\w)", text)
    return bool(written) and not is_everyday(definition.term.lower(), OF_LANGUAGE)


def _plain(text: str) -> str:
    return "".join(c for c in fold(text) if c.isalnum())
