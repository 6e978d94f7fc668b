"""The second, finer ranking: sentences of the best passages, and the pages they stand on."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.search.analysis import is_common
from wide_margin.core.search.coded import places
from wide_margin.core.search.encoder import sentence_encoder
from wide_margin.core.search.index import vectors_in
from wide_margin.core.search.query import SPELLED_OUT
from wide_margin.core.search.ranking import K1, B, entry_weights, title_weights
from wide_margin.core.search.vectors import vectors_of
from wide_margin.core.shipped import json_of

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray
    from wide_margin.core.passages import Text
    from wide_margin.core.search.index import Index
    from wide_margin.core.search.query import Query, Term
    from wide_margin.core.search.ranking import Ranked

N_PASSAGES = 150
"""Passages whose sentences are weighed one by one."""
PAGE_SIGNALS = (
    "passage", "window", "sentence", "near sentence", "near passage", "title", "sign", "code",
    "works", "meaning",
)  # fmt: skip
"""What speaks for the page that a sentence stands on: BM25 of its passage, of it with its
neighbours and of it alone; how near the words of sentence and passage come to the question's; the
titles above; the form of the wanted answer; being code or a heading; being in a list of works; how
near it comes to the question as a whole, in the vectors of sentences."""
ANSWER_SIGNALS = (
    "sentence", "window", "near", "around", "sign", "next", "heading", "colon", "meaning",
)  # fmt: skip
"""What makes one sentence of a page the answer: BM25 of it, and with its neighbours; how near its
words come, and those of it or a neighbour; the form of the wanted answer; BM25 of the next one;
being a heading; ending in a colon with nothing after it; how near it comes as a whole."""
N_MEANT = 20
"""Sentences whose meaning is held against the question's, the best by all other signals. With 20
the first page was right as often as with 60 or all, with 12 nearly so."""
MEANING = -1
"""The column of that among PAGE_SIGNALS and ANSWER_SIGNALS."""
FARTHEST = 4
"""The farthest one in so many of them tells how near all the others are taken to be."""
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
    by_words: float
    """The most evidence on a page, by words alone."""
    meaning: FloatArray | None
    """(n,) cosine to the question as a whole; None where that is not told."""

    def page_score(self, page: int) -> float:
        """Evidence on a page."""
        return self.pages.get(page, -np.inf)


@dataclass(frozen=True, slots=True, eq=False)
class Signals:
    """What is known of each sentence of the best passages before anything is weighed."""

    sentences: IntArray
    """(n,) rows, in reading order of their passages, best passage first."""
    pages: FloatArray
    """(n, PAGE_SIGNALS)."""
    answers: FloatArray
    """(n, ANSWER_SIGNALS)."""
    held: FloatArray
    """(n, w) how far each holds each word of the question, 0 to 1."""
    held_around: FloatArray
    """(n, w) the same of its passage."""
    titled: FloatArray
    """(n, w) the same of the titles above it."""


@lru_cache(maxsize=2)
def ranking_weights(*, with_meaning: bool) -> dict[str, FloatArray]:
    """The fitted weights of PAGE_SIGNALS ("page") and ANSWER_SIGNALS ("answer")."""
    data = json_of("answer-weights.json")["with meaning" if with_meaning else "by words"]
    return {
        "page": np.array([data["page"][name] for name in PAGE_SIGNALS], np.float32),
        "answer": np.array([data["answer"][name] for name in ANSWER_SIGNALS], np.float32),
    }


def weigh(
    index: Index,
    text: Text,
    query: Query,
    ranked: Ranked,
    signs: Callable[[IntArray], FloatArray],
    asked: str = "",
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
        asked: The question whose meaning counts too; "" where words alone decide.
    """
    found = read_signals(index, text, query, ranked, signs)
    pages = np.array([text.sentences[row].page for row in found.sentences], dtype=np.int64)
    weights = ranking_weights(with_meaning=False)
    scores = found.pages @ weights["page"]
    evidence = page_evidence(pages, scores) if len(pages) else {}
    by_words, meaning = max(evidence.values(), default=0.0), None
    if asked and len(pages):
        found = with_meaning(found, text, asked)
        weights, meaning = ranking_weights(with_meaning=True), found.pages[:, MEANING]
        scores = found.pages @ weights["page"]
        evidence = page_evidence(pages, scores)
    return Weighed(
        found.sentences, scores, found.answers @ weights["answer"], found.held,
        found.held_around, found.titled, evidence, by_words, meaning,
    )  # fmt: skip


def with_meaning(found: Signals, text: Text, asked: str, most: int = N_MEANT) -> Signals:
    """The same signals of some sentences, with how near the best come to a question in meaning."""
    by_words = found.pages @ ranking_weights(with_meaning=False)["page"]
    best = np.argsort(-by_words, kind="stable")[:most]
    said = [text.sentences[row].text for row in found.sentences[best]]
    vectors = sentence_encoder().encode([asked, *said])
    near = vectors[1:] @ vectors[0]
    far = np.sort(near)[: -(-len(near) // FARTHEST)].mean()
    column = np.full(len(found.sentences), far, np.float32)
    column[best] = near
    pages, answers = found.pages.copy(), found.answers.copy()
    pages[:, MEANING] = answers[:, MEANING] = column
    return replace(found, pages=pages, answers=answers)


def read_signals(
    index: Index,
    text: Text,
    query: Query,
    ranked: Ranked,
    signs: Callable[[IntArray], FloatArray],
) -> Signals:
    """The signals of every sentence of the best passages; arguments as for weigh.

    Source:
        BM25 as in rank; words are matched softly by the cosine of their vectors, the nearest
        word of a sentence standing for each word of the question.
    """
    rows, block, first = _rows_of(text, ranked)
    w = len(query.terms)
    if not len(rows) or not w:
        none = np.zeros((0, w), np.float32)
        return Signals(rows[:0], np.zeros((0, len(PAGE_SIGNALS))),
                       np.zeros((0, len(ANSWER_SIGNALS))), none, none, none)  # fmt: skip
    entries = index.sentence_entry[rows]
    joined = (block[1:] == block[:-1]) & _same_entry(text, rows, entries)
    weights = np.array([term.weight for term in query.terms], np.float32)
    total = max(float(weights.sum()), 1e-6)
    by_sentence, by_window = _bm25(index, query, rows, joined)
    held, titled = _held_and_titled(index, text, query, rows, entries)
    around = np.maximum.reduceat(held, first, axis=0)[block]
    kinds = np.array([text.sentences[row].kind for row in rows])
    signed = signs(rows)
    after = np.zeros(len(rows), np.float32)
    after[:-1] = by_sentence[1:] * joined
    near = (held @ weights) / total
    untold = np.zeros(len(rows), np.float32)
    of_page = (
        ranked.plain[:N_PASSAGES][block] / total, by_window / total, by_sentence / total, near,
        (around @ weights) / total, (titled @ weights) / total,
        _on_topic(query, held, around) * signed,
        np.isin(kinds, ("code", "heading")), kinds == "works", untold,
    )  # fmt: skip
    of_answer = (
        by_sentence / total, by_window / total, near, (_beside(held, joined) @ weights) / total,
        signed, after / total, kinds == "heading",
        [_ends_open(text, int(row)) for row in rows], untold,
    )  # fmt: skip
    return Signals(
        rows,
        np.stack(of_page, axis=1).astype(np.float32),
        np.stack(of_answer, axis=1).astype(np.float32),
        held,
        around,
        titled,
    )


def _rows_of(text: Text, ranked: Ranked) -> tuple[IntArray, IntArray, IntArray]:
    """Rows of the best passages' sentences; the passage of each; where each passage begins."""
    passages = ranked.passages[:N_PASSAGES]
    starts = np.array([text.passages[p].first for p in passages], dtype=np.int64)
    sizes = np.array([text.passages[p].end for p in passages], dtype=np.int64) - starts
    block = np.repeat(np.arange(len(passages)), sizes)
    first = np.concatenate(([0], np.cumsum(sizes)[:-1])).astype(np.int64)
    rows = np.arange(int(sizes.sum())) - first[block] + starts[block]
    return rows, block, first


def _held_and_titled(
    index: Index, text: Text, query: Query, rows: IntArray, entries: IntArray
) -> tuple[FloatArray, FloatArray]:
    """(n, w) how far each sentence, and the titles above it, hold each word."""
    sections = np.array([text.sentences[row].section for row in rows], dtype=np.int64)
    described = np.stack([entry_weights(index, term)[entries] for term in query.terms], axis=1)
    titled = np.stack([title_weights(index, term)[sections] for term in query.terms], axis=1)
    held = np.maximum(_near_words(index, query, rows), HELD_BY_TERM * described)
    return held, np.maximum(titled, described)


def _on_topic(query: Query, held: FloatArray, around: FloatArray) -> FloatArray:
    """(n,) how far each sentence is about what the question turns on, 0 to 1."""
    turning = np.array([term.weight * (not term.is_aside) for term in query.terms], np.float32)
    share = (1.5 * held @ turning + 0.5 * around @ turning) / max(float(turning.sum()), 1e-6)
    return np.minimum(1.0, share)


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


def page_evidence(pages: IntArray, scores: FloatArray) -> dict[int, float]:
    """Page index to the log of the sum of its sentences' odds."""
    top = float(scores.max())
    there, at = np.unique(pages, return_inverse=True)
    with np.errstate(divide="ignore"):  # a page without any is infinitely unlikely
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
    offsets = np.cumsum(lengths) - lengths
    tokens = index.tokens[places(starts, lengths)]
    held = np.zeros((len(rows), len(query.terms)), np.float32)
    for k, term in enumerate(query.terms):
        worth = _worth_of_terms(index, term)[tokens]
        if filled.any():
            held[filled, k] = np.maximum.reduceat(worth, offsets[filled])
    return held


def _worth_of_terms(index: Index, term: Term) -> FloatArray:
    """(t,) what each term of the document counts for a word of the question, 0 to 1."""
    worth = np.zeros(len(index.term_ids), np.float32)
    vectors, terms = vectors_in(index)
    if len(vectors) and not is_common(term.word, index.language):
        vector, found = vectors_of([term.word])
        if found:
            near = (vectors @ vector[0] - FAR) / (1 - FAR)
            np.maximum.at(worth, terms, NEAREST * np.clip(near, 0.0, 1.0) ** 1.5)
    for variant, weight in term.variants:
        if weight >= SPELLED_OUT:
            worth[variant] = weight
    return worth
