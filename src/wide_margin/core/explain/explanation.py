"""What a selection means here, by the document's own words."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from wide_margin.core.document import Locator, ReadDocument, locator_for
from wide_margin.core.explain.definitions import MAX_TERM_WORDS, Definition, Definitions
from wide_margin.core.explain.references import Reference, find_references
from wide_margin.core.search import is_common, rank, read_terms
from wide_margin.core.search.analysis import words
from wide_margin.core.search.rank import sentence_scores

MAX_MEANINGS = 6


class Meaning(NamedTuple):
    """A term of the selection and what the document says of it."""

    term: str
    text: str
    """The defining sentence, verbatim; for an abbreviation with its long form there."""
    kind: str
    """glossary, defined, abbreviation, or used (no definition: how it is used)."""
    locator: Locator
    long_form: str = ""


@dataclass(frozen=True, slots=True)
class Explanation:
    """What the document itself says about a selection."""

    text: str
    meanings: tuple[Meaning, ...]
    references: tuple[Reference, ...]

    @property
    def is_empty(self) -> bool:
        """Whether the document says nothing about the selection's terms."""
        return not self.meanings and not self.references


def explain(document: ReadDocument, definitions: Definitions, text: str) -> Explanation:
    """Explain a selection: its terms as the document defines them, its references resolved.

    Args:
        document: The document.
        definitions: From find_definitions.
        text: The selected words.
    """
    selected = " ".join(text.split())
    meanings = _defined(document, definitions, selected)
    content = [w for w in words(selected) if not is_common(w, document.index.language)]
    if not meanings and 0 < len(content) <= 3:
        meanings = _used(document, selected)
    return Explanation(selected, tuple(meanings), tuple(find_references(document, selected)))


def _defined(document: ReadDocument, definitions: Definitions, text: str) -> list[Meaning]:
    analyser = document.index.analyser
    content = [w for w in words(text) if not is_common(w, analyser.language)]
    stems = [(analyser.terms_of(word) or (word,))[0] for word in content]
    meanings: list[Meaning] = []
    seen: set[int] = set()
    at = 0
    while at < len(stems) and len(meanings) < MAX_MEANINGS:
        for length in range(min(MAX_TERM_WORDS, len(stems) - at), 0, -1):
            chosen = _best(document, definitions.get(tuple(stems[at : at + length]), ()), text)
            if chosen is not None:
                if chosen.sentence not in seen:
                    seen.add(chosen.sentence)
                    meanings.append(_meaning(document, chosen))
                at += length
                break
        else:
            at += 1
    return meanings


def _best(
    document: ReadDocument, found: tuple[Definition, ...] | list[Definition], text: str
) -> Definition | None:
    """The surest definition that is not the selection itself."""
    for definition in found:
        if document.text.sentences[definition.sentence].text not in text:
            return definition
    return None


def _meaning(document: ReadDocument, definition: Definition) -> Meaning:
    sentence = document.text.sentences[definition.sentence]
    text, end = sentence.text, definition.sentence + 1
    if definition.kind == "glossary":  # an entry goes on to the end of its paragraph
        sentences = document.text.sentences
        while end < len(sentences) and sentences[end].paragraph == sentence.paragraph:
            text = f"{text} {sentences[end].text}"
            end += 1
        if text.startswith(definition.term):  # the card names the term already
            text = text[len(definition.term) :].lstrip(" :—–-")
    locator = locator_for(document, definition.sentence, end)
    return Meaning(definition.term, text, definition.kind, locator, definition.long_form)


def _used(document: ReadDocument, text: str) -> list[Meaning]:
    """Where nothing is defined: the sentences that say most with the word."""
    query = read_terms(text, document.index)
    if not any(term.is_exact for term in query.terms):
        return []
    ranked = rank(document.index, document.text, query)
    found: list[Meaning] = []
    for row in ranked.passages[:6]:
        passage = document.text.passages[row]
        if passage.kind in ("listing", "heading"):
            continue
        rows = np.arange(passage.first, passage.end)
        scores, held = sentence_scores(document.index, query, rows)
        if held.min(axis=1).max() < 0.99:  # the words themselves, not their neighbours
            continue
        best = int(rows[int(np.argmax(np.where(held.min(axis=1) >= 0.99, scores, 0)))])
        sentence = document.text.sentences[best]
        if sentence.text not in text and sentence.kind != "heading":
            found.append(Meaning(text, sentence.text, "used", locator_for(document, best)))
        if len(found) == 2:
            break
    return found
