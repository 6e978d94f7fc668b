"""Whether the evidence found is enough to answer from, or the document does not say."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.question import Question
from wide_margin.core.geometry import FloatArray
from wide_margin.core.search import Query, Weighed
from wide_margin.core.search.analysis import words
from wide_margin.core.search.spelling import is_unheard_of
from wide_margin.core.shipped import json_of

if TYPE_CHECKING:
    from wide_margin.core.answers.candidates import Candidate

EVIDENCE = ("bias", "page", "document", "exact", "words", "top", "absent name")
"""What tells whether a question is answered: the share of its weight that stands on the best page,
and that the document knows at all; words met exactly; words; the best page's evidence; names,
figures and unheard-of words of the question that the document does not have."""
ENOUGH = -0.2
ENOUGH_NARROWED = -3.0
"""Where the reader has said where to look, less is asked of the evidence."""
_NAME = re.compile(r"(?<=\s)[“\"‘(]?([A-Z][\w’'-]*|\d[\d.,]*\w*|\w+[A-Z_]\w*)")


def is_enough(
    question: Question,
    query: Query,
    weighed: Weighed,
    candidates: list[Candidate],
    *,
    narrowed: bool,
    language: str,
) -> bool:
    """Whether the evidence holds what the question turns on."""
    odds = odds_of_answer(question, query, weighed, candidates, language)
    return odds >= (ENOUGH_NARROWED if narrowed else ENOUGH)


def odds_of_answer(
    question: Question, query: Query, weighed: Weighed, candidates: list[Candidate], language: str
) -> float:
    """Log odds that the best page answers a question.

    They rise with the share of the question's weight that stands on the page, with the share
    that the document knows at all, with the number of words met exactly, and fall with each
    name, figure or unheard-of word of the question that the document does not have.
    """
    if not candidates or not query.terms:
        return float("-inf")
    return float(evidence_of(question, query, weighed, candidates, language) @ evidence_weights())


@lru_cache(maxsize=1)
def evidence_weights() -> FloatArray:
    """(EVIDENCE,) by a logistic fit to questions that a document answers and does not answer."""
    weights = json_of("answer-weights.json")["answered"]
    return np.array([weights[name] for name in EVIDENCE])


def evidence_of(
    question: Question, query: Query, weighed: Weighed, candidates: list[Candidate], language: str
) -> FloatArray:
    """(EVIDENCE,) the signs that a question is answered; there are words and candidates."""
    best = candidates[0]
    weights: FloatArray = np.array([term.weight for term in query.terms])
    total = float(weights.sum()) or 1.0
    around = np.maximum(best.held, best.around)
    on_page = np.max(
        [np.maximum(c.held, c.around) for c in candidates if c.page == best.page], axis=0
    )
    known = np.array([term.is_exact for term in query.terms])
    names = _names_in(question.text)
    absent = sum(
        not t.is_exact and (t.word in names or (language == "en" and is_unheard_of(t.word)))
        for t in query.terms
    )
    return np.array([
        1.0, float(weights @ on_page) / total, float(weights @ known) / total,
        int((around > 0.99).sum()), len(query.terms), max(weighed.pages.values()), absent,
    ], dtype=float)  # fmt: skip


def _names_in(text: str) -> set[str]:
    """Words of the names and figures in a question; its first word does not count."""
    return {word for match in _NAME.finditer(text) for word in words(match[1])}
