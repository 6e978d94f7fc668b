"""A passage in the reader's own words, held against it; and the slips of the pen in them."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers import Quote
from wide_margin.core.answers.backing import check_backing
from wide_margin.core.later import regex
from wide_margin.core.passages import split_sentences
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from spellchecker import SpellChecker

    from wide_margin.core.search.analysis import Analyser

LEFT_OUT = 0.34
"""A sentence of the passage of which less is said again is left out."""
LEAST_WORDS = 5
MOST_SLIPS = 12
SELDOM = 12
"""A misspelling stands at least so many times lower in the list of words by frequency."""
LONGEST = 20_000
"""Characters that are looked at."""
LANGUAGES = frozenset(["en", "de", "es", "fr", "it", "nl", "pt", "ru"])
"""Those that the spelling library has words of, here."""
Known = Callable[[str], bool]
_WORD = regex(r"[^\W\d_]+(?:['’-][^\W\d_]+)*")
_TWICE = regex(r"\b([^\W\d_]+)\s+\1\b", re.I)
_MAY_BE_TWICE = frozenset(["that", "had", "die", "der", "das", "nous", "vous", "si", "bye"])
_BEFORE_MARK = regex(r"(?<=\w)\s+([,;:.!?])(?=\s|$|[^\W\d_])")
_SMALL_START = regex(r"(?:^|(?<=[.!?]\s))([a-zà-öø-ÿ]\w*)")
_NO_BLANK = regex(r"(?<=[a-zà-öø-ÿ])([,;])(?=[^\W\d_])")


class Slip(NamedTuple):
    """Something misspelt or mistyped."""

    start: int
    """Place in the text, as `end`."""
    end: int
    written: str
    better: str
    why: str


class OwnWords(NamedTuple):
    """What a check of a restatement found."""

    sentences: tuple[Quote, ...]
    """Each sentence of it with its backing by the passage and what is not there."""
    missing: tuple[str, ...]
    """Sentences of the passage that it leaves out."""
    slips: tuple[Slip, ...]


def check_own_words(
    text: str, passage: str, analyser: Analyser, known: Known = lambda word: False
) -> OwnWords:
    """Hold a restatement against the passage that it restates.

    Args:
        text: In the reader's words.
        passage: The document's.
        analyser: Of the document's language.
        known: Tells whether a word in small letters is spelt right besides: the document's.
    """
    text = text[:LONGEST]
    said = [text[a:b] for a, b in split_sentences(text)]
    whole = [passage]
    checked = []
    for sentence in said:
        backing = check_backing(sentence, whole, analyser)
        checked.append(Quote(sentence, (), backing.verdict, notes=backing.reasons))
    flat = " ".join(passage.split())
    missing = [
        sentence for a, b in split_sentences(flat)
        if len((sentence := flat[a:b]).split()) >= LEAST_WORDS
        and check_backing(sentence, [text], analyser).share < LEFT_OUT
    ]  # fmt: skip
    words = {word.lower() for word in _WORD.findall(passage)}
    slips = find_slips(text, analyser.language, lambda word: word in words or known(word))
    return OwnWords(tuple(checked), tuple(missing), slips)


def find_slips(text: str, language: str, known: Known = lambda word: False) -> tuple[Slip, ...]:
    """Misspelt words, words written twice, blanks and capitals amiss, in order of their places.

    A word counts as misspelt where neither the spelling library nor the document knows it, no
    capital makes it a name, and there is a word near it that may be meant.
    """
    found = [*_misspelt(text, language, known), *_mistyped(text)]
    return tuple(sorted(found)[:MOST_SLIPS])


def mended(text: str, slips: Sequence[Slip]) -> str:
    """A text with slips put right."""
    for slip in sorted(slips, reverse=True):
        text = text[: slip.start] + slip.better + text[slip.end :]
    return text


def _misspelt(text: str, language: str, known: Known) -> list[Slip]:
    if language not in LANGUAGES:
        return []
    speller, found = _speller(language), []
    for match in _WORD.finditer(text):
        word = match[0]
        low = word.lower().replace("’", "'").removesuffix("'s")
        is_name = word[:1].isupper() and not _begins(text, match.start())
        if len(low) < 3 or is_name or not low.isalpha() or word.isupper() or known(low):
            continue
        if not speller.unknown([low]):
            continue
        better = speller.correction(low)
        if better and better != low and not (language == "en" and _is_used(low, better)):
            better = better.capitalize() if word[0].isupper() else better
            found.append(Slip(match.start(), match.end(), word, better, "spelling"))
    return found


def _is_used(word: str, better: str) -> bool:
    """Whether an English word is written often enough beside the one that may be meant.

    Misspellings are written too, but far less often; "colour" is not one of "color".
    """
    rank, other = frequency_rank(word), frequency_rank(better)
    return rank is not None and (other is None or rank < SELDOM * other)


def _mistyped(text: str) -> list[Slip]:
    found = [
        Slip(m.start(), m.end(), m[0], m[1], "written twice")
        for m in _TWICE.finditer(text) if m[1].lower() not in _MAY_BE_TWICE
    ]  # fmt: skip
    found += [
        Slip(
            m.start(),
            m.end(),
            m[0],
            m[1] + " " * text[m.end() : m.end() + 1].isalpha(),
            "no blank before a mark",
        )
        for m in _BEFORE_MARK.finditer(text)
    ]
    found += [
        Slip(m.start(), m.end(), m[0], f"{m[1]} ", "a blank after a mark")
        for m in _NO_BLANK.finditer(text)
    ]
    if len(text.split()) >= LEAST_WORDS:
        found += [
            Slip(m.start(), m.start() + 1, m[1][0], m[1][0].upper(), "a sentence begins so")
            for m in _SMALL_START.finditer(text)
        ]
    return found


def _begins(text: str, at: int) -> bool:
    before = text[:at].rstrip()
    return not before or before[-1] in ".!?:"


@lru_cache(maxsize=4)
def _speller(language: str) -> SpellChecker:
    from spellchecker import SpellChecker  # rarely needed

    # Two changed letters apart is a guess rather than a correction, and takes a second a word.
    return SpellChecker(language=language, distance=1)
