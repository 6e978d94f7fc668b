"""Whether the evidence found is enough to answer from, or the document does not say."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.answers.candidates import N_STATEMENTS, asked_term, explains
from wide_margin.core.answers.signs import sign_of
from wide_margin.core.answers.wanted import LOOKED_AT, WANTED, wanted_in
from wide_margin.core.later import regex
from wide_margin.core.search.analysis import words
from wide_margin.core.search.spelling import is_unheard_of
from wide_margin.core.shipped import json_of

if TYPE_CHECKING:
    from wide_margin.core.answers.candidates import Candidate
    from wide_margin.core.answers.question import Question
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import FloatArray
    from wide_margin.core.search import Query, Weighed

EVIDENCE = (
    "bias", "page", "document", "exact", "words", "top", "absent name", *WANTED, "meaning",
    "first page", "lead", "nearer",
)  # fmt: skip
"""What tells whether a question is answered: the share of its weight that stands on the best page,
and that the document knows at all; words met exactly; words; the evidence of words on a page;
names, figures and unheard-of words of the question that the document does not have; whether there
is what it asks for; how near the best sentences come to it as a whole, in the vectors of sentences.
And whether that page is the right one, which a document that does not answer hardly has: its share
of the evidence on the best few, how far it is ahead of the next, and how much nearer its sentences
come to the question than those of other pages."""
ENOUGH = 0.0
ENOUGH_NARROWED = -3.0
"""Where the reader has said where to look, less is asked of the evidence: of 381 questions asked of
three pages with the right one among them 0.013 are declined, of those of other documents 0.21."""
HARDLY = 0.14
"""The least chance of being right with which the whole document is said to answer: of thirteen
less sure answers to questions on 27 documents two were right, and none of 27 to questions whose
pages had been taken away."""
SAYS_WHAT = 0.6
"""From the sign of a definition on, a sentence says what a term is."""
RIVALS = 4
"""Pages that the best one is compared with, itself among them: a longer document has no more."""
MOST = 20.0
"""Evidence on a page beyond which more says nothing: few questions of the fit had so much, and
a page that says one word in every line has three times that."""
ALONE = 5.0
"""How far the only page with evidence is ahead, and any page at most."""
_NAME = regex(r"(?<=\s)[“\"‘(]?([A-Z][\w’'-]*|\d[\d.,]*\w*|\w+[A-Z_]\w*)")


class Judged(NamedTuple):
    """What the evidence for an answer comes to."""

    odds: float
    """Log odds that the document answers the question at all."""
    sure: float
    """The chance that the best sentences are the answer, 0 to 1; calibrated on documents left out
    of the fit."""

    def is_enough(self, *, narrowed: bool) -> bool:
        """Whether to answer."""
        if narrowed:
            return self.odds >= ENOUGH_NARROWED
        return self.odds >= ENOUGH and self.sure >= HARDLY


NOTHING = Judged(float("-inf"), 0.0)


def judge(
    question: Question,
    query: Query,
    weighed: Weighed,
    candidates: list[Candidate],
    document: ReadDocument,
    told: Collection[str] = (),
) -> Judged:
    """Weigh the evidence for an answer.

    It rises with the share of the question's weight that stands on the best page, with the number
    of words met exactly and with that page's lead over the others, and falls with each name,
    figure or unheard-of word of the question that the document does not have. Words that are
    ``told`` in other figures, as a year within a span is, count as known.
    """
    if not candidates or not query.terms:
        return NOTHING
    evidence = evidence_of(question, query, weighed, candidates, document, told)
    answered, sure = evidence_weights(with_meaning=weighed.meaning is not None)
    odds = float(evidence @ answered)
    return Judged(odds, float(1.0 / (1.0 + np.exp(-float(evidence @ sure)))))


@lru_cache(maxsize=2)
def evidence_weights(*, with_meaning: bool) -> tuple[FloatArray, FloatArray]:
    """(EVIDENCE,) of the odds of an answer and of its being right, by logistic fits."""
    data = json_of("answer-weights.json")["with meaning" if with_meaning else "by words"]
    answered, sure = ([data[of][name] for name in EVIDENCE] for of in ("answered", "sure"))
    return np.array(answered), np.array(sure)


def evidence_of(
    question: Question,
    query: Query,
    weighed: Weighed,
    candidates: list[Candidate],
    document: ReadDocument,
    told: Collection[str] = (),
) -> FloatArray:
    """(EVIDENCE,) the signs that a question is answered; there are words and candidates."""
    best = candidates[0]
    weights: FloatArray = np.array([term.weight for term in query.terms])
    total = float(weights.sum()) or 1.0
    around = np.maximum(best.held, best.around)
    on_page = np.max(
        [np.maximum(c.held, c.around) for c in candidates if c.page == best.page], axis=0
    )
    known = np.array([term.is_exact or term.word in told for term in query.terms])
    names = _names_in(question.text)
    is_english = document.index.language == "en"
    absent = sum(
        not k and (t.word in names or (is_english and is_unheard_of(t.word)))
        for t, k in zip(query.terms, known, strict=True)
    )
    said = [document.text.sentences[c.sentence].text for c in candidates[:LOOKED_AT]]
    pages = sorted(weighed.pages.values(), reverse=True)
    share = 1.0 / float(np.exp(np.array(pages[:RIVALS]) - pages[0]).sum())
    lead = min(pages[0] - pages[1], ALONE) if len(pages) > 1 else ALONE
    meaning, nearer = _nearness(weighed, candidates)
    return np.array([
        1.0, float(weights @ on_page) / total, float(weights @ known) / total,
        int((around > 0.99).sum()), len(query.terms), min(weighed.by_words, MOST), absent,
        *wanted_in(question, said, is_defined=_is_defined(document, question, candidates)),
        meaning, share, lead, nearer,
    ], dtype=float)  # fmt: skip


def _nearness(weighed: Weighed, candidates: Sequence[Candidate]) -> tuple[float, float]:
    """How near the best sentences come to the question, and the best page nearer than others."""
    if weighed.meaning is None:
        return 0.0, 0.0
    near = dict(zip(weighed.sentences.tolist(), weighed.meaning.tolist(), strict=True))
    best = max(near[candidate.sentence] for candidate in candidates[:LOOKED_AT])
    page, looked_at = candidates[0].page, candidates[:N_STATEMENTS]
    on_page = [near[c.sentence] for c in looked_at if c.page == page]
    elsewhere = [near[c.sentence] for c in looked_at if c.page != page]
    return best, max(on_page) - max(elsewhere, default=0.0)


def _is_defined(
    document: ReadDocument, question: Question, candidates: Sequence[Candidate]
) -> bool | None:
    """Whether the best sentences say what a term is; None where no term is asked for."""
    topic = asked_term(document, question)
    if not topic:
        return None
    rows = [candidate.sentence for candidate in candidates[:LOOKED_AT]]
    return any(
        sign_of("what is", document.text.sentences[row].text, topic) >= SAYS_WHAT
        or explains(document, row, topic)
        for row in rows
    )


def _names_in(text: str) -> set[str]:
    """Words of the names and figures in a question; its first word does not count."""
    return {word for match in _NAME.finditer(text) for word in words(match[1])}
