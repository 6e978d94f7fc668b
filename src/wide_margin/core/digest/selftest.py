"""Questions to test oneself with: one at a time, each with one answer that the document gives.

A question never holds its own answer: a statement is asked with a word left out only where that
word stands nowhere else in it, and a term is asked for by a definition that does not name it.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.digest.phrasing import LEGAL, Wording
from wide_margin.core.digest.roles import Role
from wide_margin.core.digest.sentences import strangeness, without_asides
from wide_margin.core.document import Locator, locator_for
from wide_margin.core.explain.definitions import says_which_things
from wide_margin.core.explain.verbs import PREPOSITIONS, has_clause, is_order, is_past, is_verb
from wide_margin.core.later import regex
from wide_margin.core.layout import BULLETS
from wide_margin.core.lexicon import number_words, ordinal_words
from wide_margin.core.search import is_common
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain.definitions import Definitions

N_QUESTIONS = 24
N_LOOKED_AT = 4000
"""The best sentences; more are only in the way."""
GAP = "____"
SHORTEST, LONGEST = 8, 34
"""Words of a statement that is asked with a gap."""
_UNITS = (
    r"(?:mm|cm|m|km|metres?|meters?|miles?|feet|ft|inch(?:es)?|kg|g|grams?|kilograms?|litres?|liters?|seconds?|minutes?|hours?|days?|weeks?|months?|years?"
    r"|per cent|percent|%|degrees?|°C?|volts?|watts?|hertz|Hz|kHz|MHz|bytes?|kilobytes?|megabytes?|MB|GB|kB|bits?|pages?|words?|characters?|copies|persons?|people|times|points?"
    r"|dollars?|euros?|pounds?|stations?|members?|participants?|observations?|samples?|rows?|columns?)"
)
_COUNTS = "|".join(word for word, value in number_words("en").items() if 1 < value < 100)
_NUMBER = regex(rf"(?<![\w.§/-])(?<!\d[ \u2009\u202f\u00a0])(?<!hundred and )(?<!thousand and )(?<!hundred )(?<!thousand )(?P<n>\d{{1,3}}(?:[ \u2009\u202f\u00a0]\d{{3}})+|\d+(?:[.,]\d+)*|{_COUNTS})\s?(?P<unit>{_UNITS})\b")  # fmt: skip
_IN_FORMULA = regex(r"[+*/=<>±×÷−]\s*$")
"""Before a number that is a part of one."""
_TRIFLING = regex(r"two\b|\d+\s?bits?\b", re.I)
"""Hardly the point of a sentence: "between two samples", "a 64 bit system"."""
_YEAR = regex(r"\b(?:in|since|until|of|by)\s+(?P<n>1[5-9]\d\d|20\d\d)\b")
_CAUSE = regex(r"^(?P<what>[^,;]{12,120}?),?\s+(?:because(?! of\b)|since it|in order to|so that)\s+(?P<why>[^.;]{12,140})[.]$", re.I)  # fmt: skip
_DEFINES = regex(
    r"^(?:(?P<article>an?|the)\s+)?(?P<term>[A-Za-z][\w’'-]*(?:\s[\w’'-]+){0,3}?)\s+(?:is|are|means|denotes|refers to(?![^,.;:]+\sas\s))\s+(?P<what>(?:an?|the|any|that|one|all|those)\b.{18,220})[.]$", re.I
)  # fmt: skip
_LIMITS = frozenset(["just", "only", "simply", "merely", "partly", "mainly", "mostly", "not"])
"""Before "because", what limits the reason."""
_ONE_OF_THEM = (
    "next last previous other another same single different certain particular negative positive optional perhaps most"
    " more only common typical general important additional special usual main whole example instance better worse larger smaller simpler easier faster"
)
_NO_SUBJECT = frozenset(
    ["if", "while", "when", "you", "to", "there", "first", "note", "for", "with", "by", "in"]
)
"""Begins no statement that a reason is asked for."""
_SAYS_WHAT = regex(
    r"\b(?:is|are|means?|refers? to|denotes?|consists? of)\b(?!\s+(?:\w+ly\s+)?used\b)", re.I
)
_ONE_OF = frozenset(ordinal_words("en")) | frozenset(_ONE_OF_THEM.split())
"""Words of what is one of several, and no term."""
_NO_WORDS = regex(r"[^\w\s’'.+-]|\band\b|\bor\b")
_GIVES = frozenset(
    ["provides", "offers", "gives", "has", "contains", "requires", "allows", "includes", "makes", "takes",
     "brings", "becomes", "needs", "lacks"]
)  # fmt: skip
"""Before "means", which is then what something gives: "The mole provides means to …"."""
_WHEN = frozenset(
    ["always", "never", "often", "usually", "sometimes", "also", "then", "now", "still"]
)
"""Between a term and what it is said to be: "The name always refers to …"."""
SHORT, _SHORT_WORDS = 3, frozenset(["new", "old", "low", "big", "hot", "wet", "dry", "fat", "raw"])
"""Letters of a word that says how something is, and the few that have no more."""
_MOST = regex(r"\w{3,}est")
"""The form of "simplest", which "forest" and "digest" have, too."""
SURELY, LISTED = 0.66, 0.9
"""Weights from which a definition in a sentence and one in a glossary are asked for."""
SHORTEST_ANSWER, STRANGE = 6, 0.2
_HANGS = regex(r"\b(?:this|these|those|it|its|they|their|them|above|below|following|he|she|we|our|here|figure|table|section|chapter|equation)\b", re.I)  # fmt: skip
_VAGUE = regex(r"\b(?:this|that|these|those|it|its|they|their|them|above|below|following|former|latter|he|she|we|our|here|figure|table|section|chapter|equation)\b", re.I)  # fmt: skip


@dataclass(frozen=True, slots=True)
class TestQuestion:
    """A question, its answer, and the sentence where it stands."""

    __test__ = False

    question: str
    answer: str
    text: str
    """The sentence, verbatim."""
    locator: Locator
    section: int
    shape: str
    """definition, number, date, cause or statement."""


def self_test(
    document: ReadDocument, scored: Scored, definitions: Definitions, n: int = N_QUESTIONS,
    check: Callable[[], None] = lambda: None,
) -> tuple[TestQuestion, ...]:  # fmt: skip
    """Questions spread over the document, no two about the same sentence or with one answer.

    Args:
        document: It.
        scored: Its sentences.
        definitions: All of it.
        n: How many questions.
        check: Called now and then.
    """
    wording = Wording(document)
    found = list(_of_definitions(document, scored, definitions, wording))
    for row in np.argsort(-scored.prior, kind="stable")[:N_LOOKED_AT].tolist():
        check()
        sentence, prior = document.text.sentences[row], float(scored.prior[row])
        usable = np.isfinite(prior) and sentence.kind == "body"
        is_appended = sentence.section >= 0 and scored.roles[sentence.section] is Role.APPENDIX
        is_legal = any(map(LEGAL.search, document.path_at(sentence.section)))
        if not usable or is_appended or is_legal or strangeness(sentence.text) > STRANGE:
            continue
        made = next(_questions(document, row, wording), None)
        if made is not None:
            found.append((prior + _SHAPES[made.shape], made))
    return _spread(found, document.facts.n_pages, n)


_SHAPES = {"definition": 1.0, "number": 0.8, "date": 0.5, "cause": 0.9, "statement": 0.0}
"""How good a question of each shape usually is."""


def _of_definitions(
    document: ReadDocument, scored: Scored, definitions: Definitions, wording: Wording
) -> Iterator[tuple[float, TestQuestion]]:
    """What the document's own definitions say, each asked for by its term."""
    for definition in (found[0] for found in definitions.values()):
        sentence = document.text.sentences[definition.sentence]
        text, term = without_asides(sentence.text), definition.term.strip("“”\"‘’'")
        is_defined = definition.kind == "defined" and (
            definition.weight >= SURELY or says_which_things(text) is not None
        )
        is_listed = definition.kind == "glossary" and definition.weight >= LISTED
        if not (is_defined or is_listed) or definition.first >= 0 or text.endswith(":"):
            continue
        if not SHORTEST_ANSWER <= len(text.split()) <= LONGEST or strangeness(text) > STRANGE:
            continue
        label = re.match(rf"\W*{re.escape(term)}\s*[:–—-]\s+", text, re.I)
        answer = (text[label.end() :] if label else text).lstrip(f"{BULLETS} ")
        is_said = label or re.match(rf"\W*(?:an?|the)?\s*{re.escape(term)}\b", text, re.I)
        if not is_said or _HANGS.search(answer) or not _is_asked_for(term):
            continue
        place = locator_for(document, definition.sentence)
        if (not label and not _SAYS_WHAT.search(text)) or any(map(LEGAL.search, place.path)):
            continue
        if question := wording.what_is(term, text):
            if re.match(rf"\W*(?:the\s+)?{re.escape(term)}\s+are\b", text, re.I):
                question = re.sub("^What is", "What are", question)
            worth = float(scored.prior[definition.sentence])
            worth = worth if np.isfinite(worth) else 0.0
            made = TestQuestion(
                question, f"{answer[:1].upper()}{answer[1:]}", sentence.text, place,
                sentence.section, "definition",
            )  # fmt: skip
            yield worth + _SHAPES["definition"], made


def _is_asked_for(term: str) -> bool:
    """Whether a term is the name of one thing, in words."""
    tokens = term.lower().split()
    is_plain = not _NO_WORDS.search(term) and not tokens[0].endswith("ly")
    is_plain &= not _ONE_OF.intersection(tokens) and not (len(tokens) == 1 and is_past(tokens[0]))
    is_plain &= not _is_superlative(tokens[-1]) and len(set(tokens)) == len(tokens)
    is_plain &= not any(token in PREPOSITIONS and token != "of" for token in tokens)
    is_plain &= tokens[-1] not in _GIVES and tokens[-1] not in _WHEN
    return is_plain and _names_something(term) and not is_order(tokens)


def _is_superlative(word: str) -> bool:
    """Whether a word says that something is the most of all."""
    stem = word[:-3]
    doubled = stem[:-1] if stem[-2:-1] == stem[-1:] else ""
    forms = {stem, f"{stem}e", f"{stem[:-1]}y", doubled} - {""}
    known = [
        rank for form in forms
        if (len(form) > SHORT or form in _SHORT_WORDS) and not is_verb(form)
        and (rank := frequency_rank(form)) is not None
    ]  # fmt: skip
    own = frequency_rank(word)
    return bool(_MOST.fullmatch(word)) and bool(known) and (own is None or min(known) < own)


def _why(what: str, wording: Wording) -> str:
    """The question for the reason of what is said, "" where it says no such thing."""
    tokens = what.lower().split()
    if not has_clause(tokens) or is_order(tokens) or tokens[0] in _NO_SUBJECT:
        return ""
    if (tokens[0] == "the" and tokens[1] in _ONE_OF) or tokens[-1] in _LIMITS:
        return ""  # "The next shows …"
    first, _, rest = what.partition(" ")
    first = first.lower() if is_common(first.lower(), "en") else wording.in_sentence(first)
    return f"Why is it that {first} {rest}?"


def _questions(document: ReadDocument, row: int, wording: Wording) -> Iterator[TestQuestion]:
    sentence = document.text.sentences[row]
    text = without_asides(sentence.text)
    if not SHORTEST <= len(text.split()) <= LONGEST or "…" in text:
        return

    def make(question: str, answer: str, shape: str) -> TestQuestion:
        return TestQuestion(
            question, answer, sentence.text, locator_for(document, row), sentence.section, shape
        )

    vague = bool(_VAGUE.search(text))
    if not vague and (match := _DEFINES.match(text)):
        term, what = match["term"], match["what"]
        is_its_subject = (match["article"] or "").lower() != "the" or _in_titles(
            term, document.path_at(sentence.section)
        )
        fits = not _shares(term, what) and _is_asked_for(term) and is_its_subject
        if fits and (question := wording.what_is(term, text)):
            yield make(question, f"{what[:1].upper()}{what[1:]}.", "definition")
    if not vague and (match := _CAUSE.match(text)) and text[:2] != "I " and " I " not in text:
        why = match["why"]
        if not _shares(why, match["what"], most=2) and (question := _why(match["what"], wording)):
            yield make(question, why, "cause")
    for match in _NUMBER.finditer(text):
        number = match["n"]
        if _TRIFLING.match(match[0]) or text.startswith("(") or " I " in text:
            continue
        if _IN_FORMULA.search(text[: match.start()]):
            continue
        if not vague and len(re.findall(rf"(?<!\w){re.escape(number)}(?!\w)", text)) == 1:
            yield make(_with_gap(text, match.start("n"), match.end("n")),
                       f"{number} {match['unit']}", "number")  # fmt: skip
    if not vague and (match := _YEAR.search(text)) and text.count(match["n"]) == 1:
        yield make(_with_gap(text, match.start("n"), match.end("n")), match["n"], "date")


def _in_titles(term: str, titles: Sequence[str]) -> bool:
    """Whether a section is about a term: elsewhere "the answer is …" defines nothing."""
    return any(term.casefold() in title.casefold() for title in titles)


def _names_something(term: str) -> bool:
    """Whether a term is a name for a thing, and not the middle of a clause or of a heading."""
    tokens = term.split()
    return (
        len(term) > 3
        and not _VAGUE.search(term)
        and not any(is_common(token.lower(), "en") for token in (tokens[0], tokens[-1]))
        and not re.search(r"\b[IVXLC]+$|\d|^(?:every|some|any|no)(?:thing|one|body)\b", term, re.I)
    )


def _with_gap(text: str, start: int, end: int) -> str:
    return f"{text[:start]}{GAP}{text[end:]}"


def _shares(one: str, other: str, most: int = 0) -> bool:
    """Whether two texts have more than so many words of four letters in common."""
    a, b = ({w.casefold()[:5] for w in re.findall(r"\w{4,}", t)} for t in (one, other))
    return len(a & b) > most


def _spread(
    found: Sequence[tuple[float, TestQuestion]], n_pages: int, n: int
) -> tuple[TestQuestion, ...]:
    """The best, from all over the document: each further one of a stretch counts less."""
    stretches: dict[int, int] = {}
    shapes: dict[str, int] = {}
    asked: set[str] = set()
    chosen: list[TestQuestion] = []
    left = sorted(found, key=lambda pair: -pair[0])[:400]

    def worth(pair: tuple[float, TestQuestion]) -> float:
        stretch = pair[1].locator.page * 12 // max(n_pages, 1)
        return pair[0] - 0.4 * stretches.get(stretch, 0) - 0.12 * shapes.get(pair[1].shape, 0)

    while left and len(chosen) < n:
        best = max(left, key=worth)
        left.remove(best)
        question = best[1]
        key = " ".join(sorted(re.findall(r"\w{5,}", question.question.casefold()))[:6])
        told = {question.text, f"{question.shape}: {question.answer}"}
        if key in asked or told & asked:
            continue
        asked |= {key, *told}
        chosen.append(question)
        stretch = question.locator.page * 12 // max(n_pages, 1)
        stretches[stretch] = stretches.get(stretch, 0) + 1
        shapes[question.shape] = shapes.get(question.shape, 0) + 1
    return tuple(sorted(chosen, key=lambda q: (q.locator.page, q.locator.y)))
