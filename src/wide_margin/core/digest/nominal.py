"""Which words of a document name things: told by what stands before and after them.

The lists of the language say which words may be verbs; whether one is, in this document, its
neighbours say. "The filter" and "of filters" name, "to filter" and "we filter" do not.
"""

from collections import Counter
from collections.abc import Iterable
from itertools import pairwise

from wide_margin.core.explain.verbs import CONJUNCTIONS, PREPOSITIONS, is_base, is_past, is_verb
from wide_margin.core.later import regex
from wide_margin.core.lexicon import number_words
from wide_margin.core.search import is_common
from wide_margin.core.search.vectors import frequency_rank

MODIFIES = 0.75
"""Share of the places at which a word stands before another one for it to name nothing itself."""
LEAST_ARTICLED = 2
"""Times that what ends in -ing has an article before it where it is a thing: "the mapping"."""
SAMPLE = 8_000
"""Sentences that are looked at; of a longer document every second, third, … one."""
_WORD = regex(r"[^\W\d_]+(?:[-’'][^\W\d_]+)*")
_BEFORE_NAMES_WORDS = """
    a an the this that these those my your his her its our their each every any some no all both
    another which what whose of in on at by for with from into between under over about as per
    and or many few several more most less other without via within
"""
_BEFORE_NAMES = frozenset(_BEFORE_NAMES_WORDS.split())
_ARTICLES_WORDS = """
    a an the this that each every its their your
"""
_ARTICLES = frozenset(_ARTICLES_WORDS.split())
_BEFORE_VERBS_WORDS = """
    to can could will would shall should may might must not cannot i you we they he she it who
    please then also always never let do does did don't doesn't
"""
_BEFORE_VERBS = frozenset(_BEFORE_VERBS_WORDS.split())
_BEFORE_STATES_WORDS = """
    is are was were be been being become becomes very more most so too
"""
_BEFORE_STATES = frozenset(_BEFORE_STATES_WORDS.split())
_OF_TEXT_WORDS = """
    example examples note notes figure figures section sections chapter chapters table tables
    page pages appendix document manual guide introduction reference references case cases
    difference differences usage description definition definitions number way ways thing things
    part parts kind kinds detail details information item items step steps following user users
    people point points use uses need needs reason reasons result results value values time
    times line lines list lists paper article book text order term terms question questions
    answer answers
"""
_OF_TEXT = frozenset(_OF_TEXT_WORDS.split())
"""What every text speaks of; by themselves they are terms of none."""
_BEGINS_NONE_WORDS = """
    following new old several various different certain given same other above below see using
    such specified resulting corresponding particular next previous first second third last
    whole entire possible example figure table section
"""
_BEGINS_NONE = frozenset(_BEGINS_NONE_WORDS.split())
_NUMBERS = frozenset(number_words("en"))


class Nominal:
    """The words of an English document, by what stands beside them."""

    def __init__(self, sentences: Iterable[str]) -> None:
        """Count.

        Args:
            sentences: Running text.
        """
        self._all, self._leads = Counter[str](), Counter[str]()
        self._named, self._articled = Counter[str](), Counter[str]()
        self._done, self._said = Counter[str](), Counter[str]()
        for text in sentences:
            self._count(text.lower())

    def _count(self, text: str) -> None:
        found = list(_WORD.finditer(text))
        words = [match[0] for match in found]
        joined = [
            text[a.end() : b.start()] == " " for a, b in pairwise(found)
        ]  # fmt: skip
        for k, word in enumerate(words):
            if is_common(word, "en"):
                continue
            self._all[word] += 1
            after = words[k + 1] if k < len(joined) and joined[k] else ""
            leads = bool(after) and not is_common(after, "en")
            self._leads[word] += leads
            before = words[k - 1] if k and joined[k - 1] else ""
            if before in _BEFORE_VERBS:
                self._done[word] += 1
            elif before in _BEFORE_STATES:
                self._said[word] += not leads
            elif before in _BEFORE_NAMES or (before and not is_common(before, "en")):
                self._named[word] += not leads
                self._articled[word] += before in _ARTICLES and not leads

    def is_term(self, phrase: str) -> bool:
        """Whether one word or more, in small letters, can be the name of a thing."""
        first, *rest = phrase.split()
        if not rest:
            return first not in _OF_TEXT and self._names(first)
        if first in _BEGINS_NONE or first in _NUMBERS or self._is_deed(first) or _is_adverb(first):
            return False
        return self._names(rest[-1]) and not any(map(_is_adverb, rest))

    def _names(self, word: str) -> bool:
        if word in PREPOSITIONS or word in CONJUNCTIONS:
            return False
        if _is_adverb(word) or self._is_deed(word) or (is_past(word) and not is_base(word)):
            return False
        if frequency_rank(word) is None:
            return True
        if _is_gerund(word):
            return self._articled[word] >= LEAST_ARTICLED
        if self._leads[word] >= MODIFIES * self._all[word]:
            return False
        return self._named[word] > max(self._done[word], self._said[word])

    def _is_deed(self, word: str) -> bool:
        """Whether it is mostly a verb here."""
        is_done = self._done[word] > self._named[word]
        return is_verb(word) and (is_done or self._is_third(word))

    def _is_third(self, word: str) -> bool:
        """Whether it is the form of a verb in -s that nothing here is called by: "provides"."""
        if not word.endswith("s") or is_base(word):
            return False
        stems = {word[:-1], word[:-2], f"{word[:-3]}y"}
        return not any(self._named[s] > self._done[s] for s in stems if is_base(s))


def _is_gerund(word: str) -> bool:
    stem = word[:-3]
    return word.endswith("ing") and any(map(is_base, (stem, f"{stem}e", stem[:-1])))


def _is_adverb(word: str) -> bool:
    return len(word) > 5 and word.endswith("ly") and frequency_rank(word[:-2]) is not None
