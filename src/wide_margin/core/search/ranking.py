"""Rank passages, then sentences, by the terms of a question."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.search.query import Query

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray
    from wide_margin.core.passages import Text
    from wide_margin.core.search.index import Index
    from wide_margin.core.search.postings import Postings
    from wide_margin.core.search.query import Term

K1, B = 1.2, 0.6
TITLE_WEIGHT = 0.4
OF_ENTRY = 1.0
"""What the term that a passage describes counts against a title above it."""


@dataclass(frozen=True, slots=True, eq=False)
class Ranked:
    """Passages by falling score, with what each sentence in them has of the question."""

    query: Query
    passages: IntArray
    """(n,) rows, best first."""
    scores: FloatArray
    """(n,) their scores."""
    plain: FloatArray
    """(n,) the part of the scores that comes from the passages' own words."""
    coverage: FloatArray
    """(n,) share of the question's weight that the passage holds, 0 to 1."""


def rank(index: Index, text: Text, query: Query, *, allowed: BoolArray | None = None) -> Ranked:
    """Rank passages by BM25 over the question's words, each with its variants as one term.

    Args:
        index: The document's.
        text: The document's.
        query: From read_terms, for this index.
        allowed: (p,) the passages to choose from; all where None.

    Source:
        Robertson and Zaragoza, The Probabilistic Relevance Framework, 2009. Variants share
        the saturation of their word, so five synonyms in a row do not count five times.
    """
    n = len(index.passage_lengths)
    score = np.zeros(n, dtype=np.float32)
    plain = np.zeros(n, dtype=np.float32)
    covered = np.zeros(n, dtype=np.float32)
    total = sum(term.weight for term in query.terms) or 1.0
    sections = np.array([p.section for p in text.passages], dtype=np.int64)
    firsts = np.array([p.first for p in text.passages], dtype=np.int64)
    mean_length = float(index.passage_lengths.mean()) if n else 1.0
    norm = K1 * (1 - B + B * index.passage_lengths / max(mean_length, 1.0))
    for term in query.terms:
        gain, present = _gain(index, term, norm)
        title = title_weights(index, term)[sections]
        if n and len(index.sentence_entry):
            entry = entry_weights(index, term)[index.sentence_entry]
            title = np.maximum(title, OF_ENTRY * np.maximum.reduceat(entry, firsts))
        plain += gain
        score += gain + TITLE_WEIGHT * term.weight * title
        covered += term.weight * np.maximum(present, 0.7 * title)
    if allowed is not None:
        score = np.where(allowed, score, 0.0)
    order = np.argsort(-score, kind="stable")
    order = order[score[order] > 0]
    return Ranked(query, order, score[order], plain[order], covered[order] / total)


def _gain(index: Index, term: Term, norm: FloatArray) -> tuple[FloatArray, FloatArray]:
    """What one word of the question adds to each passage's score.

    Returns:
        (p,) gain, half the sum and half the best of the variants' own gains; (p,) weight of
        the best variant present.
    """
    n = len(index.passage_lengths)
    gain, best, present = (np.zeros(n, np.float32) for _ in range(3))
    for variant, weight in term.variants:
        rows, counts = index.by_passage.of(variant)
        one = term.share * weight * index.idf(variant) * counts * (K1 + 1) / (counts + norm[rows])
        gain[rows] += one
        best[rows] = np.maximum(best[rows], one)
        present[rows] = np.maximum(present[rows], weight)
    return 0.5 * (gain + best), present


def title_weights(index: Index, term: Term) -> FloatArray:
    """(k + 1,) how far each section's titles hold the word; the last row is for no section."""
    return _weights(index.titles, term)


def entry_weights(index: Index, term: Term) -> FloatArray:
    """(e + 1,) how far each described term holds the word; the last row is for none."""
    return _weights(index.entries, term)


def _weights(postings: Postings, term: Term) -> FloatArray:
    weights = np.zeros(postings.n_rows, np.float32)
    for variant, weight in term.variants:
        rows, values = postings.of(variant)
        weights[rows] = np.maximum(weights[rows], weight * values)
    return weights


def sentence_scores(
    index: Index, query: Query, sentences: IntArray
) -> tuple[FloatArray, FloatArray]:
    """How much of a question each sentence holds.

    Returns:
        (n,) summed worth of the words it holds, and (n, w) the weight of the best variant of
        each of the w words, 0 where the sentence has none.
    """
    held = np.zeros((len(sentences), len(query.terms)), np.float32)
    for k, term in enumerate(query.terms):
        for variant, weight in term.variants:
            present = index.by_sentence.held_by(variant, sentences)
            held[:, k] = np.maximum(held[:, k], weight * present)
    weights = np.array([term.weight for term in query.terms], np.float32)
    return held @ weights, held
