"""The second, finer ranking: sentences of the best passages, and the pages they stand on."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
from wide_margin.core.passages import Text
from wide_margin.core.search.analysis import is_common
from wide_margin.core.search.index import Index
from wide_margin.core.search.query import SPELLED_OUT, Query, Term
from wide_margin.core.search.rank import K1, B, Ranked, entry_weights, title_weights
from wide_margin.core.search.vectors import vectors_of

N_PASSAGES = 150
"""Passages whose sentences are weighed one by one."""
OF_PASSAGE, OF_WINDOW, OF_SENTENCE = 3.0, 1.5, 4.0
"""BM25 of the passage, of a sentence with its neighbours, and of the sentence alone."""
NEAR_SENTENCE, NEAR_PASSAGE = 2.0, 2.5
"""How near the words of sentence and passage come to each word of the question."""
OF_TITLE, OF_SIGN, OF_CODE, OF_WORKS = 6.0, 2.2, -2.0, -1.0
"""The weights are of a listwise softmax over pages, fitted on the demo handbook's questions
alone and rounded; those of code and works, which the handbook does not have, are set by hand."""
SAYS_WINDOW, SAYS_SENTENCE, SAYS_NEAR, SAYS_AROUND = 1.5, 0.3, 2.2, 4.0
SAYS_SIGN, SAYS_NEXT, SAYS_HEADING, SAYS_COLON = 2.6, -0.8, -2.6, -2.3
"""What makes one sentence of a page the answer, fitted in the same way to the sentences of the
right pages, of the handbook and of six manuals: its neighbours count more than itself, and the
one before more than the one after, since an answer follows on what the question repeats."""
HELD_BY_TERM = 0.8
"""What a word of the described term counts in its description."""
FAR, NEAREST = 0.3, 0.8
"""Cosine at which a word begins to count as near, and what the nearest other word counts."""


@dataclass(frozen=True, slots=True, eq=False)
class Weighed:
    """Sentences with their scores; n sentences, w words of the question."""

    sentences: IntArray
    """(n,) rows, in reading order of their passages, best passage first."""
    scores: FloatArray
    """(n,) evidence of each, as the logarithm of odds."""
    says: FloatArray
    """(n,) how likely each is the answer, given that its page is the right one; log odds."""
    held: FloatArray
    """(n, w) how far each holds each word, 0 to 1."""
    held_around: FloatArray
    """(n, w) the same of its passage."""
    titled: FloatArray
    """(n, w) the same of the titles above it."""
    pages: dict[int, float]
    """Page index to the evidence on it: log of the sum of its sentences' odds."""

    def page_score(self, page: int) -> float:
        """Evidence on a page."""
        return self.pages.get(page, -np.inf)


def weigh(
    index: Index,
    text: Text,
    query: Query,
    ranked: Ranked,
    signs: Callable[[IntArray], FloatArray],
) -> Weighed:
    """Weigh every sentence of the best passages.

    Several sentences of a page that each say something of the question weigh more together
    than one alone: a page's evidence is the sum of their odds.

    Args:
        index: The document's.
        text: The document's.
        query: From read_terms.
        ranked: From rank, for this query.
        signs: Given rows of sentences, how far each has the form of the wanted answer.

    Source:
        BM25 as in rank; words are matched softly by the cosine of their vectors, the nearest
        word of a sentence standing for each word of the question.
    """
    passages = ranked.passages[:N_PASSAGES]
    starts = np.array([text.passages[p].first for p in passages], dtype=np.int64)
    ends = np.array([text.passages[p].end for p in passages], dtype=np.int64)
    sizes = ends - starts
    n = int(sizes.sum())
    w = len(query.terms)
    if not n or not w:
        none = np.zeros((0, w), np.float32)
        return Weighed(np.zeros(0, np.int64), np.zeros(0), np.zeros(0), none, none, none, {})
    block = np.repeat(np.arange(len(passages)), sizes)
    first = np.concatenate(([0], np.cumsum(sizes)[:-1]))
    rows = np.arange(n) - first[block] + starts[block]
    entries = index.sentence_entry[rows]
    joined = (block[1:] == block[:-1]) & _same_entry(text, rows, entries)
    weights = np.array([term.weight for term in query.terms], np.float32)
    total = max(float(weights.sum()), 1e-6)

    by_sentence, by_window = _bm25(index, query, rows, joined)
    held = _near_words(index, query, rows)
    sections = np.array([text.sentences[row].section for row in rows], dtype=np.int64)
    described = np.stack([entry_weights(index, term)[entries] for term in query.terms], axis=1)
    titled = np.stack([title_weights(index, term)[sections] for term in query.terms], axis=1)
    titled = np.maximum(titled, described)
    held = np.maximum(held, HELD_BY_TERM * described)
    around = np.maximum.reduceat(held, first, axis=0)[block]
    kinds = np.array([text.sentences[row].kind for row in rows])
    turning = weights * np.array([not term.is_aside for term in query.terms])
    on_topic = (1.5 * held @ turning + 0.5 * around @ turning) / max(float(turning.sum()), 1e-6)
    on_topic = np.minimum(1.0, on_topic)
    signed = signs(rows)
    after = np.zeros(n, np.float32)
    after[:-1] = by_sentence[1:] * joined
    ends_open = np.array([_ends_open(text, int(row)) for row in rows])
    says = (
        SAYS_SENTENCE * by_sentence / total
        + SAYS_WINDOW * by_window / total
        + SAYS_NEAR * (held @ weights) / total
        + SAYS_AROUND * (_beside(held, joined) @ weights) / total
        + SAYS_SIGN * signed
        + SAYS_NEXT * after / total
        + SAYS_HEADING * (kinds == "heading")
        + SAYS_COLON * ends_open
    )
    scores = (
        OF_PASSAGE * ranked.plain[:N_PASSAGES][block] / total
        + OF_WINDOW * by_window / total
        + OF_SENTENCE * by_sentence / total
        + NEAR_SENTENCE * (held @ weights) / total
        + NEAR_PASSAGE * (around @ weights) / total
        + OF_TITLE * (titled @ weights) / total
        + OF_SIGN * on_topic * signed
        + OF_CODE * np.isin(kinds, ("code", "heading"))
        + OF_WORKS * (kinds == "works")
    )
    pages = np.array([text.sentences[row].page for row in rows], dtype=np.int64)
    return Weighed(rows, scores, says, held, around, titled, _page_evidence(pages, scores))


def _same_entry(text: Text, rows: IntArray, entries: IntArray) -> BoolArray:
    """(n - 1,) whether a sentence and the next describe the same term, or one names it."""
    same: BoolArray = entries[1:] == entries[:-1]
    for k in np.flatnonzero(~same):
        before, after = text.sentences[rows[k]], text.sentences[rows[k + 1]]
        same[k] = after.term >= 0 and text.terms[after.term].paragraph == before.paragraph
    return same


def _ends_open(text: Text, row: int) -> bool:
    """Whether a sentence ends in a colon and what it announces is not quoted with it."""
    sentences = text.sentences
    if not sentences[row].text.endswith(":"):
        return False
    return row + 1 == len(sentences) or sentences[row + 1].kind not in ("item", "entry", "code")


def _beside(held: FloatArray, joined: BoolArray) -> FloatArray:
    """(n, w) what each sentence or one of its neighbours in the passage holds."""
    wide = held.copy()
    wide[1:] = np.maximum(wide[1:], held[:-1] * joined[:, None])
    wide[:-1] = np.maximum(wide[:-1], held[1:] * joined[:, None])
    return wide


def _page_evidence(pages: IntArray, scores: FloatArray) -> dict[int, float]:
    top = float(scores.max())
    there, at = np.unique(pages, return_inverse=True)
    sums = np.log(np.bincount(at, np.exp(scores - top))) + top
    return {int(page): float(value) for page, value in zip(there, sums, strict=True)}


def _bm25(
    index: Index, query: Query, rows: IntArray, joined: BoolArray
) -> tuple[FloatArray, FloatArray]:
    """(n,) BM25 of each sentence, and of it with the neighbours of its passage."""
    lengths = np.diff(index.token_starts)[rows].astype(np.float32)
    wide = lengths.copy()
    wide[1:] += lengths[:-1] * joined
    wide[:-1] += lengths[1:] * joined
    alone, together = np.zeros(len(rows), np.float32), np.zeros(len(rows), np.float32)
    norm_alone = K1 * (1 - B + B * lengths / max(float(lengths.mean()), 1.0))
    norm_wide = K1 * (1 - B + B * wide / max(float(wide.mean()), 1.0))
    for term in query.terms:
        sums, best = np.zeros((2, len(rows)), np.float32), np.zeros((2, len(rows)), np.float32)
        for variant, weight in term.variants:
            counts = index.by_sentence.counts_of(variant, rows)
            if not counts.any():
                continue
            around = counts.copy()
            around[1:] += counts[:-1] * joined
            around[:-1] += counts[1:] * joined
            worth = term.share * weight * index.idf(variant) * (K1 + 1)
            gains = np.stack((counts / (counts + norm_alone), around / (around + norm_wide)))
            sums += worth * gains
            best = np.maximum(best, worth * gains)
        alone += 0.5 * (sums[0] + best[0])
        together += 0.5 * (sums[1] + best[1])
    return alone, together


def _near_words(index: Index, query: Query, rows: IntArray) -> FloatArray:
    """(n, w) how near the nearest word of each sentence is to each word of the question."""
    starts, ends = index.token_starts[rows], index.token_starts[rows + 1]
    lengths = (ends - starts).astype(np.int64)
    filled = lengths > 0
    offsets = np.concatenate(([0], np.cumsum(lengths)[:-1]))
    at = np.arange(int(lengths.sum())) + np.repeat(starts - offsets, lengths)
    tokens = index.tokens[at]
    held = np.zeros((len(rows), len(query.terms)), np.float32)
    for k, term in enumerate(query.terms):
        worth = _worth_of_terms(index, term)[tokens]
        if filled.any():
            held[filled, k] = np.maximum.reduceat(worth, offsets[filled])
    return held


def _worth_of_terms(index: Index, term: Term) -> FloatArray:
    """(t,) what each term of the document counts for a word of the question, 0 to 1."""
    worth = np.zeros(len(index.term_ids), np.float32)
    if len(index.vectors) and not is_common(term.word, index.language):
        vector, found = vectors_of([term.word])
        if found:
            near = (index.vectors @ vector[0] - FAR) / (1 - FAR)
            np.maximum.at(worth, index.vector_terms, NEAREST * np.clip(near, 0.0, 1.0) ** 1.5)
    for variant, weight in term.variants:
        if weight >= SPELLED_OUT:
            worth[variant] = weight
    return worth
