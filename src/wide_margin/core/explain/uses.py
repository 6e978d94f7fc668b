"""Where a document first says something with a word, and where it comes back to a subject."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from math import log
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.document import locator_for
from wide_margin.core.explain.model import Leaning, Often
from wide_margin.core.explain.standing_for import LABEL
from wide_margin.core.explain.verbs import is_verb, seems_to_have_verb
from wide_margin.core.later import regex
from wide_margin.core.layout import SpanOnPage, fold
from wide_margin.core.search import is_common, rank, read_terms
from wide_margin.core.search.analysis import words
from wide_margin.core.search.ranking import sentence_scores
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.search.query import Query, Term

MAX_LEANING = 3
MAX_LATER = 2
EVERYDAY = 600
"""A word among so many of the most frequent is no term unless it is clearly defined."""
INTRODUCED = 4000
"""A word among so many of the most frequent is introduced nowhere."""
OFTEN_HERE = 3
"""A word that stands so often in the document is one that it works with."""
NEVER_HEARD = 100_000
"""The rank of a word that the language's list does not have."""
LOOKED_AT = 200
"""Sentences with the words that are looked at for the first telling one."""
_POINTS_BACK = regex(
    r"(?:[•▪–—-]\s*)?(?:(?:in|for|by|with|from|of|to|on|at|under|because of|as)\s+)?"
    r"(?:this|these|such|those|that|the (?:former|latter|same|result|resulting|other)|both"
    r"|each of (?:these|them)|it|its|they|them|their|he|his|she|her)\b", re.I
)  # fmt: skip
_PAIR = regex(r"(?<!\w)([^\W\d_]{3,})(?=[ -]([^\W\d_]{3,})(?!\w))")
Spans = tuple[SpanOnPage, ...]


def how_often(document: ReadDocument, text: str) -> Often | None:
    """How often some words stand, and where most; None where they do not."""
    index, sections = document.index, document.outline.sections
    terms = [t for word in words(text) for t in index.analyser.terms(word)]
    numbers = [index.term_ids[term] for term in terms if term in index.term_ids]
    if not numbers or len(numbers) < len(terms):
        return None
    n = len(index.tokens) - len(numbers) + 1
    there = np.ones(max(n, 0), dtype=bool)
    for k, number in enumerate(numbers):
        there &= index.tokens[k : k + n] == number
    ends = index.token_starts[1:]
    rows = np.searchsorted(ends, np.flatnonzero(there), side="right")
    if not len(rows):
        return None
    within = [document.text.sentences[int(row)].section for row in rows]
    count = Counter(within)
    best = max(count, key=lambda section: (section >= 0, count[section], -section))
    n_sections = sum(section >= 0 for section in count)
    first = int(rows[within.index(best)])
    title = sections[best].title if best >= 0 else ""
    return Often(len(rows), n_sections, title, count[best], locator_for(document, first))


def most_said(document: ReadDocument, text: str) -> Often | None:
    """Of the words of a selection the one that the document works with most; None without one."""
    found: list[tuple[float, Often]] = []
    for word in dict.fromkeys(words(text)):
        often = None if is_everyday(word) else how_often(document, word)
        if often and often.n_times >= OFTEN_HERE:
            strange = log(frequency_rank(word) or NEVER_HEARD)  # said here more than elsewhere
            found.append((often.n_times * strange, often._replace(about=word)))
    return max(found, key=lambda each: each[0])[1] if found else None


def is_everyday(word: str, among: int = EVERYDAY) -> bool:
    """Whether a word is so frequent in the language that a document can take it for granted."""
    return is_common(word) or (frequency_rank(word) or among + 1) <= among


TELLS_NOTHING = 3
"""From ``_telling``."""


def first_used(document: ReadDocument, text: str, rows: Sequence[int] = ()) -> list[Leaning]:
    """The first sentence that says something with some words; none where no sentence does.

    Args:
        document: The document.
        text: The words.
        rows: The sentences in which they were chosen: the reader has those under the eye.
    """
    query = read_terms(text, document.index)
    if not query.terms or not all(term.is_exact for term in query.terms):
        return []
    holding = set.intersection(*(set(_holding(document, term)) for term in query.terms))
    found = sorted(
        (_telling(document, row, text), row in rows, row) for row in sorted(holding)[:LOOKED_AT]
        if document.text.sentences[row].text not in text
    )  # fmt: skip
    if elsewhere := [use for use in found if not use[1] and use[0] < TELLS_NOTHING]:
        found = elsewhere
    if not found or found[0][0] >= TELLS_NOTHING:
        return []
    row = found[0][-1]
    return [Leaning("", document.text.sentences[row].text, locator_for(document, row))]


def leans_on(
    document: ReadDocument,
    selected: str,
    rows: Sequence[int],
    shown: Collection[Spans],
    named: Collection[str],
) -> list[Leaning]:
    """Earlier sentences that introduce what a selection takes for granted.

    Args:
        document: The document.
        selected: The selection.
        rows: The sentences that it lies in.
        shown: Places that are shown already.
        named: Words that are explained already.
    """
    ranked = _terms_in(document, LABEL.sub("", selected), named)
    sentences = document.text.sentences
    before = rows[0] if rows else len(sentences)
    paragraphs = {sentences[row].paragraph for row in rows}
    found: dict[int, Leaning] = {}
    if rows and _POINTS_BACK.match(selected) and (said := _said_before(document, rows[0])):
        found[rows[0] - 1] = said
    for word, holding in ranked:
        early = [
            (_telling(document, row, word), row) for row in holding[:30]
            if row < before - 1 and sentences[row].paragraph not in paragraphs
        ]  # fmt: skip
        if not early or min(early)[0] > 1:
            continue
        row = min(early)[1]
        locator = locator_for(document, row)
        if row not in found and locator.spans not in shown:
            found[row] = Leaning(word, sentences[row].text, locator)
        if len(found) == MAX_LEANING:
            break
    if rows and not found and not named and (said := _said_before(document, rows[0])):
        return [said]  # nothing else can be told of it
    return list(found.values())


def _said_before(document: ReadDocument, row: int) -> Leaning | None:
    """The sentence before: what a selection that begins with "This code" points back to."""
    sentences = document.text.sentences
    if not row:
        return None
    before, here = sentences[row - 1], sentences[row]
    if before.section != here.section or before.kind not in ("body", "item", "entry"):
        return None
    return Leaning("", before.text, locator_for(document, row - 1))


def _terms_in(
    document: ReadDocument, selected: str, named: Collection[str]
) -> list[tuple[str, list[int]]]:
    """Words and pairs of neighbouring words that the document works with, and where they stand.

    The most telling first; a pair before the words in it.
    """
    weights: dict[str, tuple[float, set[int]]] = {}
    for term in read_terms(selected, document.index).terms:
        names = term.word.isalpha() and not term.word.endswith(("ed", "ing", "ly"))
        if term.is_exact and len(term.word) > 2 and names:
            weights[term.word] = term.weight, set(_holding(document, term))
    ranked: list[tuple[float, str, list[int]]] = []
    for match in _PAIR.finditer(selected.lower()):
        first, second = match[1], match[2]
        if first not in weights or second not in weights or {first, second} & set(named):
            continue
        pair = f"{first} {second}"
        both = weights[first][1] & weights[second][1]
        rows = [r for r in sorted(both)[:LOOKED_AT]
                if pair in document.text.sentences[r].text.lower()]  # fmt: skip
        if len(rows) >= OFTEN_HERE - 1:
            ranked.append((-weights[first][0] - weights[second][0], pair, rows))
    in_pairs = {word for _, pair, _ in ranked for word in pair.split()}
    for word, (weight, holding) in weights.items():
        known = word in named or word in in_pairs or is_everyday(word, INTRODUCED)
        known = known or is_verb(word)
        if not known and len(holding) >= OFTEN_HERE:
            ranked.append((-weight, word, sorted(holding)))
    return [(word, rows) for _, word, rows in sorted(ranked)]


def taken_up_again(
    document: ReadDocument, selected: str, rows: Sequence[int], shown: Collection[Spans]
) -> list[Leaning]:
    """Where later sections come back to what a selection speaks of."""
    query = read_terms(selected, document.index)
    if not rows or not query.terms:
        return []
    sections = {document.text.sentences[rows[0]].section}
    found: list[Leaning] = []
    for at in rank(document.index, document.text, query).passages[:20]:
        passage = document.text.passages[at]
        after = passage.first > rows[-1] and passage.section not in sections
        if passage.kind != "text" or not after:
            continue
        row = _best_of(document, query, range(passage.first, passage.end))
        if row is None or (locator := locator_for(document, row)).spans in shown:
            continue
        sections.add(passage.section)
        found.append(Leaning("", document.text.sentences[row].text, locator))
        if len(found) == MAX_LATER:
            break
    return found


def _holding(document: ReadDocument, term: Term) -> Iterable[int]:
    """Rows of the sentences with a word in some inflection."""
    for variant, weight in term.variants:
        if weight == 1.0:
            yield from document.index.by_sentence.of(variant)[0].tolist()


def _telling(document: ReadDocument, row: int, text: str) -> int:
    """How little a sentence tells of some words: 0 much, 3 nothing."""
    sentence = document.text.sentences[row]
    if sentence.kind not in ("body", "item", "entry", "note"):
        return TELLS_NOTHING
    n_words = len(sentence.text.split())
    opens = sentence.text[:1].isalpha() and not sentence.text.startswith(("See ", "see "))
    if n_words < 6 or not seems_to_have_verb(sentence.text) or not opens:
        return 2
    at = fold(sentence.text).find(fold(text)[:12])
    return 0 if 0 <= at < 0.4 * len(sentence.text) and n_words < 50 else 1


def _best_of(document: ReadDocument, query: Query, rows: range) -> int | None:
    """The sentence of a passage that speaks of the subject most; None where none clearly does.

    One word of a whole sentence, or words that every document has, are no subject.
    """
    scores, held = sentence_scores(document.index, query, np.array(rows))
    telling = np.array([not is_everyday(t.word, INTRODUCED) for t in query.terms])
    least, few = min(len(query.terms), 2), len(query.terms) <= 2
    for k in np.argsort(-scores, kind="stable").tolist():
        sentence = document.text.sentences[rows[k]]
        if sentence.kind in ("body", "item", "entry") and len(sentence.text.split()) >= 6:
            exact = held[k] > 0.9
            enough = exact.sum() >= least and (few or (exact & telling).any())
            return rows[k] if enough else None
    return None
