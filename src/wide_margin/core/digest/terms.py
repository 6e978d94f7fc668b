"""The terms a document works with: most telling first, with its own definition where it gives one."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from itertools import islice
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.evidence import SAYS_WHAT
from wide_margin.core.answers.signs import sign_of
from wide_margin.core.digest.gist import CHIEFLY_LEGAL
from wide_margin.core.digest.nominal import SAMPLE, Nominal
from wide_margin.core.digest.roles import Role
from wide_margin.core.document import Locator, locator_for
from wide_margin.core.later import regex
from wide_margin.core.layout import BULLETS
from wide_margin.core.search import is_common
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain.definitions import Definition, Definitions
    from wide_margin.core.passages import Sentence

N_TERMS = 40
MOST_WORDS = 3
OF_WORDS, OF_DEFINED = 0.45, 1.6
"""What counts for each further word of a term, and for a definition in the document."""
SURELY_DEFINED = 0.6
"""A definition of less weight makes no term of a word."""
EVERYDAY = 300
"""A word among so many of the most frequent is no term unless the document defines it."""
OWN_SHARE = 0.5
"""A shorter term beside a longer one stands on its own so often at least."""
N_STEMS = 400
"""The stems that tell most; every term holds one of them."""
LEAST_OFTEN = 3
"""A term of several words stands so often at least."""
N_PLACES = 60
NOUNS_ARE_CAPITAL, MOSTLY_CAPITAL = frozenset(["de"]), 0.5
"""Languages that write nouns with a capital, and the share from which a word is one."""
NO_TEXT = ("listing", "works", "code", "row", "heading", "formula", "figure")
"""Kinds of sentences that are no running text."""
_DECLARES = regex(r"\b\w+_\w+\s?\((?=\w+ |[^()]*, ?\w+ )[^()]{3,}\)")
_CODE_BEFORE = frozenset("_$\\<@#&")
_CODE_AFTER = regex(r"[_=<>$\[{@#*]|\(\)|\(\w|::|\.\w|/\w+/")
_WORD = regex(r"[^\W\d_]+(?:[-’'][^\W\d_]+)*")


@dataclass(frozen=True, slots=True)
class KeyTerm:
    """A term, what the document says it is, and where it is taken up."""

    term: str
    n_times: int
    definition: str
    """The defining sentence, verbatim but for a bullet; "" where there is none."""
    locator: Locator
    """Of the definition, else of the first sentence with the term."""
    spread: tuple[float, ...]
    """Where it stands, in pages from the start; at most N_PLACES of them."""


def key_terms(
    document: ReadDocument,
    scored: Scored,
    definitions: Definitions,
    counted: Counter[str],
    n: int = N_TERMS,
) -> tuple[KeyTerm, ...]:
    """The terms that weigh most, each with its places; ``counted`` are those of phrases_of."""
    index, stem_of = document.index, _Stems(document)
    ranked: list[tuple[float, str]] = []
    for phrase, often in counted.items():
        key = stem_of(phrase)
        numbers = [index.term_ids[stem] for stem in key if stem in index.term_ids]
        if not numbers:
            continue
        is_defined = any(d.weight >= SURELY_DEFINED for d in definitions.get(key, ())[:1])
        if len(key) == 1 and not is_defined and (frequency_rank(phrase) or EVERYDAY) < EVERYDAY:
            continue
        weight = float(np.mean(scored.weight[numbers])) * (OF_DEFINED if is_defined else 1.0)
        ranked.append((weight * np.log1p(often) * (1.0 + OF_WORDS * (len(key) - 1)), phrase))
    ranked.sort(key=lambda pair: (-pair[0], pair[1]))
    chosen: dict[tuple[str, ...], str] = {}
    for _, phrase in ranked:
        if len(chosen) == n:
            break
        key = stem_of(phrase)
        if key not in chosen and not any(
            _says_the_same(key, counted[phrase], other, counted[name])
            for other, name in chosen.items()
        ):
            chosen[key] = phrase
    return tuple(
        _key_term(document, definitions, phrase, counted[phrase]) for phrase in chosen.values()
    )


class _Stems:
    """The stems of a phrase, each word looked up once."""

    def __init__(self, document: ReadDocument) -> None:
        self._analyser = document.index.analyser
        self._known: dict[str, str] = {}

    def __call__(self, phrase: str) -> tuple[str, ...]:
        return tuple(self._stem(word) for word in phrase.split())

    def _stem(self, word: str) -> str:
        if word not in self._known:
            self._known[word] = (self._analyser.terms_of(word) or (word,))[0]
        return self._known[word]


def _says_the_same(
    one: tuple[str, ...], often: int, other: tuple[str, ...], other_often: int
) -> bool:
    """Whether a term hardly stands without another one that holds it, or is held by it."""
    if set(one) < set(other):
        return often - other_often < OWN_SHARE * often
    if set(other) < set(one):
        return often > (1 - OWN_SHARE) * other_often
    return set(one) == set(other)


def phrases_of(document: ReadDocument, scored: Scored) -> Counter[str]:
    """Words and neighbouring words with content, by how often they stand in running text.

    What stands under the titles of licences is left out, unless most of the document does.
    """
    language, counted = document.index.language, Counter[str]()
    is_telling, stem_of = _telling(document, scored), _Stems(document)
    known: dict[str, bool | None] = {}
    """Whether a word tells much; None for one without content."""
    legal = _legal_sections(document, scored)
    for sentence in document.text.sentences:
        is_text = sentence.kind not in NO_TEXT and sentence.section not in legal
        if not is_text or _is_declared(document, sentence):
            continue
        text, run, tells, end = sentence.text.lower(), list[str](), False, -1
        for match in _WORD.finditer(text):
            word = match[0]
            if word not in known:
                has_content = len(word) > 2 and not is_common(word, language)
                known[word] = stem_of(word)[0] in is_telling if has_content else None
            is_part = _is_part(text, match)
            is_apart = known[word] is None or is_part or text[end : match.start()] not in (" ", "-")
            if run and is_apart:
                if tells:
                    _count_run(run, known, counted)
                run, tells = [], False
            end = match.end()
            if known[word] is not None and not is_part:
                run.append(word)
                tells = tells or bool(known[word])
        if tells:
            _count_run(run, known, counted)
    often = {p: n for p, n in counted.items() if n >= LEAST_OFTEN or (" " not in p and n >= 2)}
    if language == "en":
        sentences = [s.text for s in document.text.sentences if s.kind not in NO_TEXT]
        nominal = Nominal(sentences[:: 1 + len(sentences) // SAMPLE])
        often = {phrase: n for phrase, n in often.items() if nominal.is_term(phrase)}
    elif language in NOUNS_ARE_CAPITAL:
        nouns = _capital_words(document)
        often = {phrase: n for phrase, n in often.items() if phrase.rpartition(" ")[2] in nouns}
    return Counter(often)


def _legal_sections(document: ReadDocument, scored: Scored) -> frozenset[int]:
    """The sections under the titles of licences; none where they are most of the document."""
    found = frozenset(k for k, role in enumerate(scored.roles) if role is Role.LEGAL)
    sentences = document.text.sentences
    n_legal = sum(sentence.section in found for sentence in sentences)
    return found if n_legal < CHIEFLY_LEGAL * len(sentences) else frozenset()


def _capital_words(document: ReadDocument) -> frozenset[str]:
    """Words that mostly have a capital within sentences, in small letters."""
    counted, capital = Counter[str](), Counter[str]()
    for sentence in document.text.sentences:
        if sentence.kind in NO_TEXT:
            continue
        for match in islice(_WORD.finditer(sentence.text), 1, None):
            small = match[0].lower()
            counted[small] += 1
            capital[small] += match[0] != small
    return frozenset(word for word, n in capital.items() if n > MOSTLY_CAPITAL * counted[word])


def _is_part(text: str, match: re.Match[str]) -> bool:
    """Whether a word is a piece of a name in code, as "sort" in "sort_by_mass"."""
    before = text[match.start() - 1] if match.start() else ""
    return before in _CODE_BEFORE or bool(_CODE_AFTER.match(text, match.end()))


def _is_declared(document: ReadDocument, sentence: Sentence) -> bool:
    """Whether a sentence is the head of a function with its arguments, or has one in it."""
    if "(" not in sentence.text:
        return False
    term = document.text.terms[sentence.term].text if sentence.term >= 0 else ""
    return sentence.text == term or bool(_DECLARES.search(sentence.text))


def _telling(document: ReadDocument, scored: Scored) -> frozenset[str]:
    """The stems that tell most."""
    index, n_terms = document.index, len(scored.weight)
    often = np.log1p(np.bincount(index.tokens, minlength=n_terms)[:n_terms])
    best = np.argsort(-scored.weight * often, kind="stable")[:N_STEMS]
    wanted = set(best.tolist())
    return frozenset(stem for stem, number in index.term_ids.items() if number in wanted)


def _count_run(run: list[str], known: dict[str, bool | None], counted: Counter[str]) -> None:
    """Count the words and neighbouring words of a run that hold a telling one."""
    for at in range(len(run)):
        tells = False
        for end in range(at + 1, min(at + MOST_WORDS, len(run)) + 1):
            tells = tells or bool(known[run[end - 1]])
            if tells:
                counted[" ".join(run[at:end])] += 1


def _key_term(document: ReadDocument, definitions: Definitions, phrase: str, often: int) -> KeyTerm:
    analyser = document.index.analyser
    key = tuple((analyser.terms_of(word) or (word,))[0] for word in phrase.split())
    found = definitions.get(key, ())
    rows = _rows_with(document, key)
    first = rows[0] if rows else 0
    spread = tuple(
        float(document.text.sentences[row].page) for row in rows[:: max(1, len(rows) // N_PLACES)]
    )
    topic = tuple(phrase.split())
    row = next((d.sentence for d in found if _clearly_defines(document, d, topic)), -1)
    if row >= 0:
        text = document.text.sentences[row].text.lstrip(f" {BULLETS}")
        return KeyTerm(phrase, often, text, locator_for(document, row), spread)
    return KeyTerm(phrase, often, "", locator_for(document, first), spread)


def _clearly_defines(
    document: ReadDocument, definition: Definition, topic: tuple[str, ...]
) -> bool:
    """Whether what was found says what a term is; how a section of that name begins may not."""
    text = document.text.sentences[definition.sentence].text
    if definition.weight < SURELY_DEFINED or text.endswith("?"):
        return False
    if definition.kind != "section" or sign_of("what is", text, topic) >= SAYS_WHAT:
        return True
    named = " ".join(topic)
    return text.lower().rstrip(" .").endswith((f" is a {named}", f" is an {named}"))


def _rows_with(document: ReadDocument, key: tuple[str, ...]) -> list[int]:
    index = document.index
    numbers = [index.term_ids[stem] for stem in key if stem in index.term_ids]
    if not numbers:
        return []
    rows = index.by_sentence.of(numbers[0])[0]
    for number in numbers[1:]:
        rows = np.intersect1d(rows, index.by_sentence.of(number)[0])
    kinds = ("listing", "works", "heading")
    return [int(row) for row in rows if document.text.sentences[int(row)].kind not in kinds]
