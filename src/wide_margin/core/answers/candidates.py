"""Candidates: the sentences that may answer, with the signs that speak for each."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import cache
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.answers.measures import measure_asked
from wide_margin.core.answers.signs import (
    asked_relation,
    asked_thing,
    asks_of_all,
    begins_alike,
    counted_thing,
    counts_all,
    counts_it,
    defined_term,
    has_relation,
    says_whether,
    sign_of,
)
from wide_margin.core.answers.times import fits
from wide_margin.core.later import regex
from wide_margin.core.passages import is_said, names_in
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.answers.question import Question
    from wide_margin.core.answers.times import AskedTime
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
    from wide_margin.core.passages import Sentence
    from wide_margin.core.search import Query, Weighed

N_STATEMENTS = 60
OF_PAGE = 10.0
"""What the evidence on its page counts for a sentence of the answer."""
OF_WORKS = 2.0
"""What it counts for a work to be asked for, and against it where none is."""
POINTER = 8
"""Words of a sentence that only says where to look."""
UNFIT = 6.0
"""What not reading as a statement costs it."""
OF_THING = 0.25
"""What the word for the kind of thing that is asked for weighs as a sign: "method", "option"."""
OF_DEFINING = 3.0
"""What the form of a definition counts against the signs of other kinds of answer."""
OF_ENTRY = 1.3
"""What weighs as a sign that a sentence begins the description of the term asked for."""
RELATED = 1.5
"""What it weighs as a sign that a sentence goes on where the question ends: "written in"."""
COUNTED, COUNTED_ALL = 1.5, 2.2
"""What a number in front of the thing that is counted weighs as a sign, and what that of all of them
does where it is asked how many there are."""
MEASURED, NOT_MEASURED = 1.0, 0.3
"""What a figure weighs as a sign in the unit asked for ("how long"), and any other at most."""
WHETHER = 0.5
"""What it weighs as a sign to say that something can or must be, or not, where that is asked."""
OF_TIME = 5.0
"""What it counts for a sentence to say something of the time asked about, in other figures."""
HELD = 0.5
INHERITED = 0.8
"""What a sentence that leans on the one before takes over of that one's words."""
_PLAIN = regex(r"[A-Za-zÀ-ÿ ,.’']")
_CODE = regex(r"[\\{}@$<>=;|#^_~]")
_LAST = 0x2020
"""Above the letters that either has."""
MUCH_CODE, MUCH_STRANGE = 0.05, 0.22
"""Shares of signs of code, and of what is no letter, above which a sentence is no statement."""
LEANS = regex(
    r"^(?:it|its|this|these|that|those|they|their|he|she|such|both|here|there|then|thus|hence|so|therefore|consequently"
    r"|accordingly|however|otherwise|instead|in (?:this|that|such) case|for (?:this|that|these) reasons?|for example"
    r"|as a result)\b", re.I
)  # fmt: skip
_ELIDED = regex(r"(?:=\s*\w+|\w*[\d_]\w*) ?\((?:\s*\.){3}\s*\)")
"""A call of which the arguments are left out: "y = ode (. . .)"."""
OF_CODE = regex(r"\s*\[(?:\w+ )?(?:variable|function|command|macro|method|constant)\]", re.I)
"""What a name is, beside it where it is declared: "rope [Variable]" does not say what a rope is."""
_OPTIONS = regex(r"(?<!\S)\W?[–—-]{1,2}(\w[\w-]*)")
REFERS = regex(
    r"\(?(?:please )?(?:see|refer to|siehe|voir|véase|veja|vedi|zie|patrz|viz|см)\b", re.I
)


class Candidate(NamedTuple):
    """A sentence that may answer."""

    sentence: int
    page: int
    score: float
    """As a sentence of the answer, log odds."""
    place: float
    """As a place to look at: the evidence on its page."""
    held: tuple[float, ...]
    """Weight of the best variant of each of the question's words in the sentence."""
    around: tuple[float, ...]
    """The same in its passage and titles."""


def asked_term(document: ReadDocument, question: Question) -> tuple[str, ...]:
    """The words with content of the term that is to be explained; () where none is asked for."""
    term = defined_term(question.text) if question.kind == "what is" else ""
    return tuple(word for word in words(term) if not is_common(word, document.index.language))


def signs_of(document: ReadDocument, question: Question, rows: IntArray) -> FloatArray:
    """(n,) how far each sentence has the form of the wanted answer."""
    text = document.text
    topic = asked_term(document, question)
    thing, relation = counted_thing(question.text), asked_relation(question.text)
    measure, wants_all = measure_asked(question.text), asks_of_all(question.text)
    whether = says_whether(question.text) if question.kind == "yes or no" else None
    found = OF_THING * _names_thing(document, question, rows)
    for k, row in enumerate(rows):
        sentence = text.sentences[row].text
        sign = sign_of(question.kind, sentence, topic)
        if measure:
            sign = MEASURED if measure.search(sentence) else min(sign, NOT_MEASURED)
        if topic and explains(document, int(row), topic):
            sign = OF_ENTRY
        if topic:
            sign *= OF_DEFINING
        if thing and counts_it(sentence, thing):
            is_all = wants_all and counts_all(sentence, thing)
            sign = max(sign, COUNTED_ALL if is_all else COUNTED)
        if relation and has_relation(sentence, relation):
            sign = max(sign, RELATED)
        if whether and whether.search(sentence):
            sign = WHETHER
        found[k] += sign
    return found


def _names_thing(document: ReadDocument, question: Question, rows: IntArray) -> FloatArray:
    """(n,) 1 where a sentence has the word for the kind of thing that is asked for."""
    index = document.index
    stems = index.analyser.terms_of(asked_thing(question.text))
    if not stems or stems[0] not in index.term_ids or question.kind == "where":
        return np.zeros(len(rows), np.float32)
    return (index.by_sentence.counts_of(index.term_ids[stems[0]], rows) > 0).astype(np.float32)


def explains(document: ReadDocument, row: int, topic: tuple[str, ...]) -> bool:
    """Whether a sentence begins the description of a term, word for word the one in question."""
    text = document.text
    term = text.sentences[row].term
    if term < 0 or text.sentences[row].kind == "code":
        return False
    before = text.sentences[row - 1] if row else None
    if before and before.term == term and before.paragraph != text.terms[term].paragraph:
        return False  # not the first one
    if (
        before
        and before.term == term
        and text.sentences[row].kind == "entry"
        and before.kind == "entry"
    ):
        return False
    called = text.terms[term].text
    if options := _OPTIONS.findall(called):  # what "-x PLUG" is given is not described
        called = " ".join(options)
    named = [w for w in words(names_in(called)) if not is_common(w, document.index.language)]
    if len(named) != len(topic):
        return False
    if not all(begins_alike(a, b) for a, b in zip(named, topic, strict=True)):
        return False
    described = document.paragraphs[text.sentences[row].paragraph].text
    rest = described.removeprefix(text.terms[term].text)
    if OF_CODE.search(text.terms[term].text) or OF_CODE.match(rest):
        return len(topic) > 1 or frequency_rank(topic[0]) is None
    return is_said(rest)


def find_candidates(
    document: ReadDocument, weighed: Weighed, *, about_works: bool
) -> list[Candidate]:
    """The weighed sentences, best first."""
    text = document.text
    held, rows = weighed.held.copy(), weighed.sentences.tolist()
    for k in range(1, len(rows)):  # "It is changed …" speaks of what the one before names
        if rows[k] == rows[k - 1] + 1 and LEANS.match(text.sentences[rows[k]].text):
            held[k] = np.maximum(held[k], INHERITED * held[k - 1])
    around = np.maximum(weighed.held_around, 0.7 * weighed.titled)
    sentences = [text.sentences[row] for row in rows]
    evidence = np.array([weighed.page_score(sentence.page) for sentence in sentences])
    score = weighed.says + OF_PAGE * evidence - UNFIT * (1 - np.array(fitness_of(sentences)))
    of_works = np.array([sentence.kind == "works" for sentence in sentences], dtype=bool)
    score[of_works] += OF_WORKS if about_works else -OF_WORKS
    evidence[of_works] += about_works
    order = np.lexsort((weighed.sentences, -score)).tolist()
    scores, places, holds, near = score.tolist(), evidence.tolist(), held.tolist(), around.tolist()
    found = [
        Candidate(rows[k], sentences[k].page, scores[k], places[k], tuple(holds[k]), tuple(near[k]))
        for k in order
    ]
    telling = [c for c in found if not only_points(text.sentences[c.sentence].text)]
    return telling or found


def only_points(text: str) -> bool:
    """Whether a sentence says nothing but where to look: "See help for the pump."."""
    return bool(REFERS.match(text)) and len(text.split()) <= POINTER


def of_the_time(
    document: ReadDocument, query: Query, candidates: list[Candidate], time: AskedTime
) -> list[Candidate]:
    """The candidates with those ahead that say something of the time that is asked about.

    A sentence "from 1985 until 1990" holds "1987" as if it were written there.
    """
    columns = [k for k, term in enumerate(query.terms) if term.word in time.words]
    if not columns:
        return candidates
    found = []
    for candidate in candidates:
        text = document.text.sentences[candidate.sentence].text
        if fits(time, text):
            n_new = sum(candidate.held[k] < HELD for k in columns)
            held, around = (
                tuple(1.0 if k in columns else value for k, value in enumerate(values))
                for values in (candidate.held, candidate.around)
            )
            score = candidate.score + OF_TIME * (n_new > 0)
            candidate = candidate._replace(score=score, held=held, around=around)
        found.append(candidate)
    found.sort(key=lambda c: (-c.score, c.sentence))
    return found


def fitness(sentence: Sentence) -> float:
    """Less for what does not read as a statement: headings, code, scraps, very long runs."""
    return fitness_of([sentence])[0]


def fitness_of(sentences: Sequence[Sentence]) -> list[float]:
    """The fitness of each of some sentences, whose letters are counted all at once."""
    texts = [sentence.text for sentence in sentences]
    code, strange = _shares(texts)
    return [
        _fitness(sentence, *shares)
        for sentence, *shares in zip(sentences, code, strange, strict=True)
    ]


def _shares(texts: Sequence[str]) -> tuple[list[float], list[float]]:
    """The share of signs of code in each text, and that of signs which are not of plain words."""
    codes = np.frombuffer("".join(texts).encode("utf-32-le", "surrogatepass"), np.uint32)
    codes = np.minimum(codes, _LAST)
    lengths = np.array([len(text) for text in texts], np.int64)
    ends = np.cumsum(lengths)
    shares = []
    for is_such in _tables():
        before = np.concatenate(([0], np.cumsum(is_such[codes])))
        n_such = before[ends] - before[ends - lengths]
        shares.append((n_such / np.maximum(lengths, 1)).tolist())
    return shares[0], shares[1]


@cache
def _tables() -> tuple[BoolArray, BoolArray]:
    """Up to _LAST, whether a code point is a sign of code, and whether it is none of plain words."""
    signs = [chr(code) for code in range(_LAST + 1)]
    is_code = np.array([_CODE.match(sign) is not None for sign in signs])
    return is_code, np.array([_PLAIN.match(sign) is None for sign in signs])


def _fitness(sentence: Sentence, code: float, strange: float) -> float:
    """The fitness of a sentence with such shares of signs."""
    if sentence.kind == "heading":
        return 0.55
    if sentence.kind == "figure":  # words on axes and in boxes say nothing by themselves
        return 0.4
    n_words = len(sentence.text.split())
    if sentence.kind == "code" or n_words < 4:
        return 0.7
    if sentence.text.endswith("?") or REFERS.match(sentence.text):
        return 0.7
    if code > MUCH_CODE:
        return 0.7
    if sentence.text.count(".") >= 3 and _ELIDED.search(sentence.text):
        return 0.7
    if sentence.kind in ("row", "note"):
        return 0.9
    if strange > MUCH_STRANGE:  # formulas, listings, rows of figures
        return 0.75
    if n_words > 70:
        return 0.8
    return 1.0
