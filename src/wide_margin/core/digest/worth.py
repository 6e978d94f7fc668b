"""Questions worth asking of a document that one has not read, each answered beforehand.

They come from what the digest knows: what a reader asks of this kind of document, the terms it
works with, what its sections teach to do, its reasons, numbers and differences. One is offered only
where the answer stands at the place that it came from.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers import WHOLE, Answer
from wide_margin.core.digest.by_kind import tells_news
from wide_margin.core.digest.kinds import DocumentKind
from wide_margin.core.digest.phrasing import (
    ASKS,
    BREAKS,
    IS_QUESTION,
    LEANS,
    LEGAL,
    Wording,
    defines,
    question_from,
)
from wide_margin.core.digest.roles import Role, role_of_title
from wide_margin.core.explain.verbs import is_order, is_past
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search.analysis import words
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.digest.digest import Digester
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain.definitions import Definitions

N_OFFERED = 6
N_TRIED = 10
"""Candidates of one shape that are put to the document."""
SALIENT = 60
"""Terms of which one must stand in a question that comes from a sentence."""
SPARED = frozenset([Role.THANKS, Role.LEGAL, Role.APPENDIX])
"""Sections that nobody begins with."""
BEGINNING = 40
"""Characters of a sentence by which it is found in an answer, which may cut what follows."""
SHORTEST = 6
"""Words of a definition."""
LEANING = 60
"""Characters of a definition within which nothing may lean on what stands before it."""
LONGEST_TITLE, SHORTEST_TITLE = 60, 7
LEAST_WORDS, MOST_WORDS, LONGEST_QUESTION = 6, 45, 90
"""Words of a sentence that a question may come from, and characters of the question."""
SURE, SURE_SLOT = 0.6, 0.8
"""The least chance that the answer to what is offered is right, and that a slot is well filled."""
_POINTS_BACK = regex(r"\b(?:they|them|their|these|those|this|that|he|him|his|she|her|else)\b", re.I)
"""Means what another title named."""
TOO_USUAL = 1_500
"""A word among so many of the most frequent alone does not say what a title asks about."""
FEWEST_SAID = 3
"""Sentences of a section that treats something; what answers the question in its title is one."""
WIDEST = 0.5
"""A section with more of the document than this is the document."""

_BY_NAME = regex(
    r"(?:introduction|preface|foreword|abstract|discussion|conclusion|summary"
    r"|(?P<several>methods|results|conclusions))$", re.I
)  # fmt: skip
"""Sections that have one name in every document."""
_OF_SLOT = {
    "Findings": "What are the main findings?",
    "Limits": "What are its limits?",
    "Conclusion": "What does it conclude?",
    "What comes next": "What is left for later?",
    "Why it was made": "Why was it made?",
    "For whom": "Who is it for?",
    "Needed first": "What do I need before I start?",
}
"""What a reader asks, by the part of the digest that answers it; in words that ``asked`` knows."""
_USUALLY = {
    DocumentKind.ARTICLE: "slot, term, why, slot, difference, number, part, how to",
    DocumentKind.THESIS: "slot, term, why, slot, difference, number, part, how to",
    DocumentKind.MANUAL: "how to, term, example, difference, why, slot, number, who, part",
    DocumentKind.REPORT: "slot, number, when, who, why, term, part, how to",
    DocumentKind.STATUTE: "who, term, number, why, when, part, difference, slot",
    DocumentKind.NARRATIVE: "why, who, when, part, number, term, slot, difference",
    DocumentKind.FORM: "who, number, when, term, part, why, slot, how to",
    DocumentKind.OTHER: "term, slot, example, why, number, part, difference, when, how to",
}
_FIRST = {kind: ("asked", *shapes.split(", ")) for kind, shapes in _USUALLY.items()}
"""Shapes of question by kind of document, those that its readers ask most first."""
_CONTENTS = squashed("contents", "list_of", "references", "index")
"""Titles of sections that only list other sections or works."""
_NO_MATTER = regex(
    rf"{LEGAL.pattern}|[/\\]|--|\b(?:class|struct|union|namespace|file|interface) reference\b",
    re.I,
)
_OF_ANY_WORDS = """
    and or of the class classes function functions file files namespace member members data method
    methods documentation reference deprecated list lists index miscellaneous other further
    additional general more command commands option options parameter parameters argument arguments
    example examples note notes detail details usage hierarchical type types variable variables
    macro macros module modules constant constants structure structures
    name names synopsis description exit status environment caveats diagnostics bugs reporting
    standards history version versions see also
    considerations instructions requirements issues conventions
"""
_OF_ANY = frozenset(_OF_ANY_WORDS.split())
"""A title of these words alone says of no manual what it is about."""
_THINGS = regex(
    r"[^\W\d_]{3,}(?:[ -][^\W\d_]{2,})?[ -](?!questions|answers|problems)[^\W\d_]{2,}[^\W\d_isu]s",
    re.I,
)
"""A title of two or three words that names things of a kind."""
_OF_SENTENCES = ("why", "number", "who", "when", "difference")
MOST = {"asked": 6, "part": 3, "how to": 2, "term": 2, "slot": 2}
"""How many of a shape are offered at most; one of any other."""


@dataclass(frozen=True, slots=True)
class Worth:
    """A question that the document answers well."""

    question: str
    shape: str
    """What it asks for: one of those in _FIRST."""
    answer: Answer


@dataclass(frozen=True, slots=True)
class _Candidate:
    question: str
    pages: frozenset[int]
    """The answer must begin on one of these."""
    says: str = ""
    """What must stand in it."""


def worth_asking(
    document: ReadDocument,
    digester: Digester,
    definitions: Definitions,
    kind: DocumentKind | None = None,
    check: Callable[[], None] = lambda: None,
) -> list[Worth]:
    """Questions that a reader would begin with, of several shapes, each answered.

    Args:
        document: Read.
        digester: Of this document.
        definitions: That it gives.
        kind: What it is read as; found where None.
        check: Called between the questions that are tried; may raise to stop.
    """
    kind = kind or digester.facts.kind
    found: list[Worth] = []
    for source in (
        _Source(document, digester, definitions, kind),
        _Source(document, digester, definitions, kind, is_modest=True),
    ):
        candidates = {shape: source.candidates(shape) for shape in _FIRST[kind]}
        left = dict.fromkeys(_FIRST[kind], N_TRIED)
        for turn in range(max(MOST.values())):
            for shape in _FIRST[kind]:
                if len(found) == N_OFFERED:
                    return found
                if turn < MOST.get(shape, 1) or source.is_modest:
                    worth = _next(digester, shape, candidates[shape], left, found, check)
                    found += [worth] if worth is not None else []
    return found


def _next(
    digester: Digester,
    shape: str,
    candidates: Iterator[_Candidate],
    left: dict[str, int],
    found: Sequence[Worth],
    check: Callable[[], None],
) -> Worth | None:
    """The next candidate of a shape that the document answers where it came from."""
    while left[shape] and (candidate := next(candidates, None)) is not None:
        check()
        left[shape] -= 1
        answer = digester.answer(candidate.question, WHOLE, None)
        pages = {place.page for quote in answer.quotes[:1] for place in quote.locators[:1]}
        is_sure = answer.quotes and answer.sure >= SURE
        told = {quote.text for quote in answer.quotes[:1]}
        says = answer.quotes[0].text if answer.quotes else ""
        again = any(
            worth.question == candidate.question or told & {q.text for q in worth.answer.quotes[:1]}
            for worth in found
        )
        is_there = pages & candidate.pages and candidate.says[:BEGINNING] in says
        if is_sure and is_there and not again and not says.endswith("?"):
            return Worth(candidate.question, shape, answer)
    return None


class _Source:
    """Where the questions of one document come from."""

    def __init__(
        self, document: ReadDocument, digester: Digester, definitions: Definitions,
        kind: DocumentKind, *, is_modest: bool = False,
    ) -> None:  # fmt: skip
        """Of a document; where ``is_modest``, what is less promising as well."""
        self.is_modest = is_modest
        self._document, self._digester, self._definitions = document, digester, definitions
        self._kind = kind

    def candidates(self, shape: str) -> Iterator[_Candidate]:
        """Questions of a shape, the most promising first."""
        if shape in _OF_SENTENCES:
            return self._of_sentences(shape)
        make = {"slot": self._of_slots, "term": self._of_terms, "part": self._of_parts,
                "how to": self._of_tasks, "asked": self._of_questions,
                "example": self._of_examples}[shape]  # fmt: skip
        return make()

    @cached_property
    def _wording(self) -> Wording:
        return Wording(self._document)

    @cached_property
    def _salient(self) -> frozenset[str]:
        terms = self._digester.terms(self._definitions, SALIENT)
        stems = self._document.index.analyser.terms
        return frozenset(stem for term in terms for stem in stems(term.term))

    def _of_slots(self) -> Iterator[_Candidate]:
        for filled in self._digester.by_kind(self._kind):
            question = _OF_SLOT.get(filled.slot.name)
            if question and filled.sure >= (SURE if self.is_modest else SURE_SLOT):
                yield _Candidate(question, frozenset(line.locator.page for line in filled.lines))

    def _of_terms(self) -> Iterator[_Candidate]:
        for term in self._digester.terms(self._definitions):
            said = term.definition
            if len(said.split()) < SHORTEST or LEANS.search(said[:LEANING]):
                continue
            if not defines(said, term.term) or any(map(LEGAL.search, term.locator.path)):
                continue
            if question := self._wording.what_is(term.term, said):
                yield _Candidate(question, frozenset([term.locator.page]), term.definition)

    def _of_parts(self) -> Iterator[_Candidate]:
        for row in self._telling_sections(most_level=2 if self.is_modest else 0):
            if not self.is_modest and role_of_title(self._bare_title(row)) is not Role.BODY:
                continue
            title = self._wording.in_sentence(self._bare_title(row))
            if BREAKS.search(title) or ASKS.match(title) or _NO_MATTER.search(title):
                continue
            if all(word in _OF_ANY for word in words(title)) or bare(title) in _CONTENTS:
                continue
            printed = self._bare_title(row)
            if self._wording.how_to(printed):
                continue  # asked as a task
            if match := _BY_NAME.match(title):
                question = f"What do{'' if match['several'] else 'es'} the {title.lower()} say?"
            elif self._kind is DocumentKind.NARRATIVE:
                question = f"What happens in the chapter “{printed}”?"
            elif self._document.index.language != "en" or _is_apart(title):
                question = f"What does the section “{printed}” say?"
            else:
                question = f"What does the section on {title} say?"
            yield _Candidate(question, self._pages(row))

    def _of_questions(self) -> Iterator[_Candidate]:
        for row in self._telling_sections(most_level=9):
            title = self._bare_title(row)
            if IS_QUESTION.match(title) and self._names_something(title):
                plain = title.rstrip("? ")
                question = self._wording.how_to(plain) or f"{plain}?"  # "How to wind a rope?"
                yield _Candidate(question, self._pages(row))

    def _of_tasks(self) -> Iterator[_Candidate]:
        for row in self._telling_sections(most_level=9):
            title = self._bare_title(row)
            if role_of_title(title) is not Role.BODY:
                continue
            if question := self._wording.how_to(title):
                yield _Candidate(question, self._pages(row))

    def _of_examples(self) -> Iterator[_Candidate]:
        """Things that there is code for in a section of their own."""
        if self._document.index.language != "en":
            return
        shown = {s.section for s in self._document.text.sentences if s.kind == "code"}
        for row in self._telling_sections(most_level=9):
            title = self._bare_title(row)
            is_plain = _THINGS.fullmatch(title) and not _is_no_noun(title)
            if row not in shown or not is_plain or self._wording.how_to(title):
                continue
            if role_of_title(title) is not Role.BODY or _NO_MATTER.search(title):
                continue
            if any(word in _OF_ANY for word in words(title.casefold())):
                continue
            question = f"Can you show me an example of {self._wording.in_sentence(title)}?"
            yield _Candidate(question, self._pages(row))

    def _of_sentences(self, shape: str) -> Iterator[_Candidate]:
        stems = self._document.index.analyser.terms
        for row in self._telling_sentences:
            sentence = self._document.text.sentences[row]
            question = question_from(sentence.text, shape)
            if not question or len(question) > LONGEST_QUESTION:
                continue
            if self._salient.intersection(stems(question)):
                yield _Candidate(question, frozenset([sentence.page]), sentence.text)

    def _names_something(self, title: str) -> bool:
        """Whether a title that asks says what of: "What went wrong?" and "How are they kept?" do not."""
        if _POINTS_BACK.search(title):
            return False
        ranks = [frequency_rank(word) for word in words(title) if word.isalpha()]
        return any(rank is None or rank >= TOO_USUAL for rank in ranks)

    @cached_property
    def _telling_sentences(self) -> list[int]:
        """Rows of sentences that can stand alone, those first that say most."""
        sentences, prior = self._document.text.sentences, self._digester.scored.prior
        rows = [
            k for k, s in enumerate(sentences)
            if s.kind in ("body", "item") and np.isfinite(prior[k])
            and LEAST_WORDS <= len(s.text.split()) <= MOST_WORDS
            and not self._is_spared(s.section)
        ]  # fmt: skip
        return sorted(rows, key=lambda k: -prior[k])

    def _is_spared(self, section: int) -> bool:
        return section >= 0 and self._digester.scored.roles[section] in SPARED

    def _telling_sections(self, *, most_level: int) -> list[int]:
        """Sections that treat something down to a level, those with most sentences first."""
        sections = self._document.outline.sections
        return [k for k in self._sections if sections[k].level <= most_level]

    @cached_property
    def _sections(self) -> list[int]:
        """Sections that have a fitting title and sentences of their own, the largest first."""
        document, prior = self._document, self._digester.scored.prior
        weight = np.zeros(len(document.outline.sections))
        for row, sentence in enumerate(document.text.sentences):
            if sentence.section >= 0 and np.isfinite(prior[row]):
                weight[sentence.section] += 1.0
        parents = document.outline.parents
        for section in range(len(weight) - 1, -1, -1):
            if parents[section] >= 0:
                weight[parents[section]] += weight[section]
        whole = max(len(document.text.sentences), 1)
        title = self._digester.facts.title
        named = {title.text.casefold(), *title.text.casefold().split()} if title else set()
        changes = tells_news(document)
        kept = [
            k for k in range(len(weight))
            if not self._is_spared(k) and k not in changes
            and len(bare := self._bare_title(k)) >= SHORTEST_TITLE
            and len(bare) <= (LONGEST_QUESTION if bare.endswith("?") else LONGEST_TITLE)
            and bare.casefold() not in named
            and (1 if bare.endswith("?") else FEWEST_SAID) <= weight[k] <= WIDEST * whole
        ]  # fmt: skip
        return sorted(kept, key=lambda k: -weight[k])

    def _bare_title(self, row: int) -> str:
        return unnumbered(self._document.outline.sections[row].title).strip(" –—-:")

    def _pages(self, row: int) -> frozenset[int]:
        section = self._document.outline.sections[row]
        paragraphs = self._document.paragraphs[section.first_paragraph : section.end_paragraph]
        return frozenset(paragraph.page for paragraph in paragraphs)


_AS_PRINTED = regex(r"[^\W\d_a-z]{5,}(?:\s|$)|An?\s")
"""Begins a title that is named as it is printed: in capitals, or with an article."""


def _is_apart(title: str) -> bool:
    """Whether a title stands in a sentence only as it is printed."""
    return _is_of_two_minds(title) or _is_no_noun(title) or bool(_AS_PRINTED.match(title))


def _is_no_noun(title: str) -> bool:
    """Whether a title is an order ("Try it out"), leans ("How it is used"), or begins with a participle."""
    tokens = title.lower().split()
    return is_order(tokens) or bool(LEANS.search(title)) or is_past(tokens[0])


def _is_of_two_minds(title: str) -> bool:
    """Whether some words of a title are names and others are not: "A mad Tea-Party"."""
    parts = [part for part in title.split() if part[:1].isalpha() and not part.isupper()]
    named = sum(part[:1].isupper() for part in parts)
    return 0 < named < len(parts)
