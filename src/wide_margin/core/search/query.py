"""What a question asks about, as terms with their variants."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.later import regex
from wide_margin.core.search.abbreviations import other_forms
from wide_margin.core.search.analysis import is_common, language_asked, words
from wide_margin.core.search.compounds import ending_with, parts_of
from wide_margin.core.search.equals import equal_words
from wide_margin.core.search.index import FAMILY, vectors_in
from wide_margin.core.search.inverted import plainly_asked
from wide_margin.core.search.spelling import is_unheard_of, meant_by
from wide_margin.core.search.vectors import frequent_words, said_rarely, vectors_of

if TYPE_CHECKING:
    from wide_margin.core.search.index import Index

N_NEIGHBOURS = 6
MIN_COSINE = 0.42
NEIGHBOUR_WEIGHT = 0.6
"""A neighbour counts this times its cosine; measured in shared/data on three documents."""


_SORTS = frozenset(["kinds", "sorts", "types"])
"""Say the same where it is asked which or how many there are."""


@dataclass(frozen=True, slots=True)
class Term:
    """One word of a question, with the document's terms that may stand for it."""

    word: str
    variants: tuple[tuple[int, float], ...]
    """(term, weight); weight 1 is the word itself."""
    weight: float
    """How much the word matters: the idf of its rarest exact form, or of a word unknown."""
    share: float = 1.0
    """Less for a word of everyday speech, or one taken over from the question before; ``weight``
    has it in already."""

    is_aside: bool = False
    """Whether the question does not turn on it: it only says where the thing asked is used."""

    @property
    def is_exact(self) -> bool:
        """Whether the document has the word itself, in some inflection."""
        return bool(self.variants) and self.variants[0][1] == 1.0


@dataclass(frozen=True, slots=True)
class Query:
    """The terms of a question."""

    text: str
    terms: tuple[Term, ...]


_EXISTS = regex(
    r"^\W*(?:which|what)\s+(?!is\b|are\b)\S.*\b(?:is|are)\s+(?:\w+ly\s+)?"
    r"(?P<is>available|supported|offered|provided|defined|included|implemented|possible|allowed"
    r"|permitted|accepted)\W*$", re.I
)  # fmt: skip
"""Asks which things of a kind there are."""


def read_terms(text: str, index: Index) -> Query:
    """Find the content words of a text and their variants in a document.

    A word that the document does not have is kept: it weighs as much as a word that stands
    in one passage, so an answer without it shows as uncovered.
    """
    plain = plainly_asked(text, index.language)
    languages = {index.language, language_asked(text, index.language)}
    content = [
        w for w in dict.fromkeys(words(plain))
        if not any(is_common(w, language) for language in languages)
    ]  # fmt: skip
    if not content:
        content = list(dict.fromkeys(words(text)))
    neighbours = _neighbours(content, index)
    highest = (
        float(np.log1p(len(index.passage_lengths) / 1.5 - 1.0 + 1e-9))
        if len(index.passage_lengths) > 1
        else 1.0
    )
    asked = list(words(text))
    beside = other_forms(asked, index.abbreviations)
    for word, others in equal_words(asked, index.equals, index.analyser).items():
        beside[word] = (*beside.get(word, ()), *others)
    for word in _SORTS.intersection(asked) if index.language == "en" else ():
        beside[word] = (*beside.get(word, ()), *sorted(_SORTS - {word}))
    terms = []
    for word in content:
        exact = _exact(word, index) or _misspelt(word, text, index) or parts_of(word, index)
        variants = {term: 1.0 for term in exact}
        for other in beside.get(word, ()):
            for term in _exact(other, index):
                variants.setdefault(term, SPELLED_OUT)
        for term in _family(word, index):
            variants.setdefault(term, OF_FAMILY)
        for term in ending_with(word, index):
            variants.setdefault(term, OF_COMPOUND)
        for term, weight in neighbours.get(word, ()):
            variants.setdefault(term, weight)
        share = said_rarely(word) if index.language == "en" else 1.0
        weight = share * max((index.idf(term) for term in exact), default=highest)
        ordered = sorted(variants.items(), key=lambda pair: -pair[1])
        terms.append(Term(word, tuple(ordered), weight, share))
    return _without_existence(Query(text, tuple(terms)))


def _without_existence(query: Query) -> Query:
    """A query that turns on the things asked for, not on their being there: "… are available?"."""
    match = _EXISTS.match(query.text)
    if match is None:
        return query
    others = frozenset(term.word for term in query.terms if term.word != match["is"].lower())
    return turning_on(query, others)


OF_FAMILY, SHARED = 0.5, 0.8
"""What a word of the same family counts, and the share of the longer stem they have in common."""
OF_COMPOUND = 0.6
"""What a compound counts for the word that it ends with: as much as the nearest neighbour at most;
37 German questions to three documents were read with it, no other was tried."""
SPELLED_OUT = 0.9
"""What a word of an abbreviation's long form counts for it, and the other way about."""
BESIDE_TERM = 0.5
"""What a word counts that only says where a term is used: "an engraver in the program"."""
FROM_BEFORE = 0.5
"""What a word of the question before counts in one that leans on it."""


def leaning_on(query: Query, before: Query, *, without: frozenset[str] = frozenset()) -> Query:
    """A query with the words of the one before added at a lower weight.

    Args:
        query: What is asked now.
        before: What was asked before.
        without: Words of the one before that the new question has replaced.
    """
    own = {variant for term in query.terms for variant, weight in term.variants if weight == 1.0}
    words_now = {term.word for term in query.terms}
    added = [
        replace(term, weight=FROM_BEFORE * term.weight, share=FROM_BEFORE * term.share)
        for term in before.terms
        if term.word not in words_now | without
        and not any(variant in own for variant, weight in term.variants if weight == 1.0)
    ]
    return Query(query.text, (*query.terms, *added))


def turning_on(query: Query, turns_on: frozenset[str]) -> Query:
    """A query in which only some words weigh in full: the term that is to be defined."""
    if not any(term.word in turns_on for term in query.terms):
        return query
    return Query(
        query.text,
        tuple(
            term
            if term.word in turns_on
            else replace(
                term,
                weight=BESIDE_TERM * term.weight,
                share=BESIDE_TERM * term.share,
                is_aside=True,
            )
            for term in query.terms
        ),
    )


def _exact(word: str, index: Index) -> list[int]:
    """The term of a word; those of its parts where the document has all of them."""
    terms = index.analyser.terms_of(word)
    found = [index.term_ids[term] for term in terms if term in index.term_ids]
    if terms and terms[0] in index.term_ids:
        return found[:1]
    return found if len(found) == len(terms) - 1 else []


def _misspelt(word: str, text: str, index: Index) -> list[int]:
    """Terms that a word means which is one letter off; not for names, which may be others."""
    if index.language != "en" or word.capitalize() in text or not is_unheard_of(word):
        return []
    meant = meant_by(word, index.forms) or meant_by(word, frequent_words())
    return [term for other in meant for term in _exact(other, index)]


def _family(word: str, index: Index) -> list[int]:
    """Terms whose stems share most of their letters from the front: "divert", "diversion"."""
    stem = (index.analyser.terms_of(word) or ("",))[0]
    found = []
    for other in index.families.get(stem[:FAMILY], ()):
        pairs = zip(stem, other, strict=False)
        shared = next((k for k, (a, b) in enumerate(pairs) if a != b), min(len(stem), len(other)))
        if shared >= SHARED * max(len(stem), len(other)):
            found.append(index.term_ids[other])
    return found


def _neighbours(content: list[str], index: Index) -> dict[str, list[tuple[int, float]]]:
    of_document, terms = vectors_in(index)
    if not len(of_document):
        return {}
    vectors, found = vectors_of(content)
    cosines = vectors @ of_document.T
    result: dict[str, list[tuple[int, float]]] = {}
    for row, k in enumerate(found):
        order = np.argsort(-cosines[row])[: 4 * N_NEIGHBOURS]
        near: dict[int, float] = {}
        for column in order:
            cosine = float(cosines[row, column])
            if cosine < MIN_COSINE or len(near) == N_NEIGHBOURS:
                break
            if cosine < 0.999:
                near.setdefault(int(terms[column]), NEIGHBOUR_WEIGHT * cosine)
        result[content[k]] = list(near.items())
    return result
