"""Answers made of the document's own sentences."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.candidates import find_candidates, of_the_time, signs_of
from wide_margin.core.answers.cells import answer_from_cells, compares
from wide_margin.core.answers.choosing import choose_quotes
from wide_margin.core.answers.evidence import HARDLY, judge
from wide_margin.core.answers.model import PERHAPS, WHOLE, Answer, Excerpt
from wide_margin.core.answers.question import topic_of
from wide_margin.core.answers.reading import read_asked
from wide_margin.core.answers.refusing import why_not
from wide_margin.core.answers.signs import defined_term
from wide_margin.core.answers.times import asked_time, conflicts, fits
from wide_margin.core.answers.where import (
    OF_TITLE,
    heading_excerpts,
    is_called_so,
    rank_sections,
    section_quote,
    titles_share,
)
from wide_margin.core.answers.within import allowed_passages, pages_covered, rows_within
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex
from wide_margin.core.search import leaning_on, rank, read_terms, turning_on, weigh
from wide_margin.core.search.analysis import language_asked, words

if TYPE_CHECKING:
    from wide_margin.core.answers.candidates import Candidate
    from wide_margin.core.answers.evidence import Judged
    from wide_margin.core.answers.model import Quote, Reach
    from wide_margin.core.answers.question import Question
    from wide_margin.core.answers.reading import Asked
    from wide_margin.core.answers.times import AskedTime
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import FloatArray, IntArray
    from wide_margin.core.search import Query, Weighed

N_EXCERPTS = 12
OF_CELL, OF_CELLS = 0.65, 0.5
"""The chance at least that the one cell which a question names by row and column answers it, and that
one of two does: of twelve on some 900 questions ten did."""
OTHER_TIME = 0.4
"""What an answer that speaks of another time than was asked about is worth."""
_OF_WORKS = regex(
    r"\b(?:authors?|written by|wrote|literature|bibliograph\w+|reading list|publications?|cited|citations?"
    r"|technical reports?|list of references|references? (?:on|about|for|to)|further reading)\b", re.I
)  # fmt: skip


def answer_quoted(
    document: ReadDocument,
    text: str,
    reach: Reach = WHOLE,
    before: str | None = None,
    *,
    whatever: bool = False,
    by_meaning: bool = True,
) -> Answer:
    """Answer a question from whole sentences of the document, or decline.

    The same question of the same document is answered the same way every time.

    Args:
        document: Where the answer must stand.
        text: As typed.
        reach: Where to look.
        before: The question that this one may lean on ("and on Sundays?").
        whatever: Quote the best there is, however unsure: the fit of that chance needs it.
        by_meaning: Hold the meaning of sentences against the question's, too, where both are
            English.
    """
    asked = read_asked(document, text, reach, before)
    question, reach = asked.question, asked.reach
    query = _query_of(document, asked)
    weighed = _weighed(document, asked, query, reach, by_meaning=by_meaning)
    about_works = bool(_OF_WORKS.search(question.text))
    candidates = find_candidates(document, weighed, about_works=about_works)
    time = asked_time(question.text)
    if time is not None:
        candidates = of_the_time(document, query, candidates, time)
    if reach.kind in ("selection", "figure"):
        within = set(rows_within(document, reach.spans))
        candidates = [c for c in candidates if c.sentence in within]
    n_searched, n_pages, without = pages_covered(document, reach)
    excerpts = _excerpts(document, candidates)
    quotes: tuple[Quote, ...] = ()
    cells = answer_from_cells(document, question.text, query) if reach.kind == "document" else ()
    judged = _judged(document, question, query, weighed, candidates, time)
    if judged.is_enough(narrowed=reach.kind != "document") or (whatever and candidates):
        if question.kind == "where":
            in_title = titles_share(document, query)
            sections = rank_sections(document, question, in_title, weighed, candidates)
            quotes = tuple(section_quote(document, k, c) for k, c, _ in sections[:2])
            excerpts = heading_excerpts(document, sections) + excerpts
            if is_called_so(in_title, sections):
                judged = judged._replace(sure=max(judged.sure, OF_TITLE))
        unsure = judged.sure < PERHAPS
        quotes = quotes or choose_quotes(document, asked, query, candidates, unsure=unsure)
    if cells:
        told = {at.page for quote in cells for at in quote.locators}
        others = tuple(q for q in quotes if not any(at.page in told for at in q.locators))
        quotes = (*cells, *others[:1])
        judged = _of_cells(judged, cells, question)
    return Answer(
        question=text.strip(), kind=question.kind, reach=reach, quotes=quotes,
        excerpts=excerpts, n_searched=n_searched, n_pages=n_pages, without_text=without,
        missing=_missing(query, candidates) if quotes else (), sure=_sure(judged, time, quotes),
        reason="" if quotes else why_not(question.text, query, candidates, n_searched, without),
    )  # fmt: skip


def _weighed(
    document: ReadDocument, asked: Asked, query: Query, reach: Reach, *, by_meaning: bool
) -> Weighed:
    """The sentences of the best passages within reach, weighed."""
    allowed = allowed_passages(document, reach)
    ranked = rank(document.index, document.text, query, allowed=allowed)

    def signs(rows: IntArray) -> FloatArray:
        return signs_of(document, asked.question, rows)

    meant = _meaning_asked(document, asked) if by_meaning else ""
    return weigh(document.index, document.text, query, ranked, signs, meant)


def _meaning_asked(document: ReadDocument, asked: Asked) -> str:
    """What the meaning of sentences is held against; "" where not both are English.

    A question that leans on the one before means nothing without it.
    """
    text = asked.question.text
    language = document.index.language
    if not language == language_asked(text, language) == "en":
        return ""
    return f"{asked.before} {text}" if asked.before else text


def _judged(
    document: ReadDocument,
    question: Question,
    query: Query,
    weighed: Weighed,
    candidates: list[Candidate],
    time: AskedTime | None,
) -> Judged:
    """What the evidence comes to, the time that is asked about minded."""
    best = document.text.sentences[candidates[0].sentence].text if candidates else ""
    known = time.words if time is not None and fits(time, best) else ()
    return judge(question, query, weighed, candidates, document, known)


def _of_cells(judged: Judged, cells: Sequence[Quote], question: Question) -> Judged:
    """What the evidence comes to where cells are named; the largest of some may be of others."""
    if compares(question.text):
        return judged
    return judged._replace(sure=max(judged.sure, OF_CELL if len(cells) == 1 else OF_CELLS))


def _sure(judged: Judged, time: AskedTime | None, quotes: Sequence[Quote]) -> float:
    """The chance that the quotes answer; less where they speak of another time than is asked.

    Where nothing is quoted it is no more than what is too little to quote anything.
    """
    if not quotes:
        return min(judged.sure, HARDLY)
    if time is not None and conflicts(time, " ".join(quote.text for quote in quotes)):
        return OTHER_TIME * judged.sure
    return judged.sure


def _query_of(document: ReadDocument, asked: Asked) -> Query:
    query = read_terms(topic_of(asked.question), document.index)
    term = defined_term(asked.question.text) if asked.question.kind == "what is" else ""
    if term:
        query = turning_on(query, frozenset(words(term)))
    if not asked.before:
        return query
    earlier = read_asked(document, asked.before).question
    before = read_terms(topic_of(earlier), document.index)
    return leaning_on(query, before, without=_replaced(asked.question.text, earlier.text))


def _replaced(text: str, before: str) -> frozenset[str]:
    """Names in the question before that a name in this one takes the place of."""
    if not _names(text):
        return frozenset()
    return frozenset(word.lower() for name in _names(before) for word in name.split())


def _names(text: str) -> list[str]:
    return re.findall(r"(?<=\s)[A-Z][\w’'-]+(?:\s[A-Z][\w’'-]+)*", text)


def _excerpts(document: ReadDocument, candidates: list[Candidate]) -> tuple[Excerpt, ...]:
    """The best sentence of each page by the evidence on it, then of the other passages."""
    passage_of = document.index.sentence_passage
    firsts: list[Candidate] = []
    others: list[Candidate] = []
    pages: set[int] = set()
    passages: set[int] = set()
    for candidate in candidates:  # best sentence first
        passage = int(passage_of[candidate.sentence])
        if passage in passages:
            continue
        passages.add(passage)
        (others if candidate.page in pages else firsts).append(candidate)
        pages.add(candidate.page)
    firsts.sort(key=lambda c: (-c.place, c.sentence))
    chosen = (firsts + others)[:N_EXCERPTS]
    return tuple(_excerpt(document, candidate) for candidate in chosen)


def _excerpt(document: ReadDocument, candidate: Candidate) -> Excerpt:
    passage = document.text.passages[int(document.index.sentence_passage[candidate.sentence])]
    first = max(passage.first, candidate.sentence - 1)
    end = min(passage.end, candidate.sentence + 2)
    near = document.text.sentences[first:end]
    best = document.text.sentences[candidate.sentence]
    text = " ".join(s.text for s in near if s.kind != "heading" or s is best)
    return Excerpt(text, locator_for(document, candidate.sentence), candidate.place)


def _missing(query: Query, candidates: list[Candidate]) -> tuple[str, ...]:
    """Words of the question that weigh much and that none of the best evidence holds."""
    weights: FloatArray = np.array([term.weight for term in query.terms])
    if not len(weights):
        return ()
    held = np.max([np.maximum(c.held, c.around) for c in candidates[:6]], axis=0)
    heavy = weights >= 0.6 * weights.max()
    return tuple(t.word for t, h, w in zip(query.terms, held, heavy, strict=True) if w and h < 0.3)
