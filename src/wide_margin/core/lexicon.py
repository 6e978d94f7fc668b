"""Words for the parts of a document and for numbers, in many languages: one place for all rooms."""

from __future__ import annotations

import re
import unicodedata
from functools import cache
from typing import TYPE_CHECKING, Any

from wide_margin.core.later import loaded_later
from wide_margin.core.shipped import text_of

if TYPE_CHECKING:
    import tomllib
else:
    tomllib = loaded_later("tomllib")

LEADER = ".·…_‥"
"""Characters that lead from a title to its page number."""
_ROMAN_VALUES = {"i": 1, "v": 5, "x": 10, "l": 50, "c": 100, "d": 500, "m": 1000}
_ROMAN_WORTHS = (1000, 900, 500, 400, 100, 90, 50, 40, 10, 9, 5, 4, 1)
_ROMAN_LETTERS = ("m", "cm", "d", "cd", "c", "xc", "l", "xl", "x", "ix", "v", "iv", "i")


@cache
def _tables() -> dict[str, Any]:
    return tomllib.loads(text_of("lexicon.toml"))


@cache
def words_for(thing: str) -> tuple[str, ...]:
    """The words for one thing in every language, in small letters, each once.

    Args:
        thing: A table of data/lexicon.toml: "chapter", "contents", "figure", …

    Raises:
        KeyError: There is no such table.
    """
    by_language = _tables()["words"][thing]
    return tuple(dict.fromkeys(word for words in by_language.values() for word in words))


@cache
def alternatives(*things: str, in_text: bool = False) -> str:
    """A group of a regular expression that matches any word for these things.

    Longer words stand first, so that "sections" is not taken for "section".

    Args:
        things: Tables of data/lexicon.toml.
        in_text: Leave out words that mean something else too, such as "del" and "les".
    """
    words = {word for thing in things for word in words_for(thing)}
    if in_text:
        words -= set(_tables()["ambiguous"]["words"])
    return "(?:" + "|".join(re.escape(w) for w in sorted(words, key=lambda w: (-len(w), w))) + ")"


@cache
def first_words(*things: str) -> frozenset[str]:
    """The words that the words for these things begin with, in small letters, without full stop.

    A look-up here is a tenth of the work of an expression of all of them.
    """
    return frozenset(word.split()[0].rstrip(".") for thing in things for word in words_for(thing))


def first_word(text: str) -> str:
    """The first word of a text as first_words has it."""
    return text.split(None, 1)[0].rstrip(".:").casefold() if text.strip() else ""


@cache
def squashed(*things: str) -> frozenset[str]:
    """The words for these things without spaces, accents and signs, in small letters."""
    return frozenset(bare(word) for thing in things for word in words_for(thing))


def bare(text: str) -> str:
    """Letters and digits of a text, without accents, in small letters."""
    folded = text.casefold()
    if not folded.isascii():
        folded = unicodedata.normalize("NFKD", folded)
    return "".join(filter(str.isalnum, folded))


@cache
def thing_of(word: str) -> str:
    """What a word before a number means: "Kapitel" and "chap." are "chapter"; "" where unknown."""
    wanted = word.casefold()
    for thing in ("chapter", "part", "section", "appendix", "book", "article", "figure", "table"):
        if wanted in words_for(thing) or wanted.rstrip(".") in words_for(thing):
            return thing
    return ""


@cache
def number_words(*languages: str) -> dict[str, int]:
    """What number each word is, from "zero" to "thousand"; of all languages where none is given."""
    numbers = _places_in("numbers", languages)
    for language, values in _tables()["tens"].items():
        if not languages or language in languages:
            numbers |= values
    return numbers


@cache
def ordinal_words(*languages: str) -> dict[str, int]:
    """What place each ordinal is: {"first": 1, …}; of all languages where none is given."""
    return _places_in("ordinals", languages)


def _places_in(table: str, languages: tuple[str, ...]) -> dict[str, int]:
    """Each word of a table's lists with its place there; the first language to have it decides."""
    found: dict[str, int] = {}
    for language, words in _tables()[table].items():
        if not languages or language in languages:
            for value, word in enumerate(words):
                if word:
                    found.setdefault(word, value)
    return found


def number_in(word: str, *languages: str) -> int | None:
    """The number that a word writes in figures or letters: "12", "twelve", "twenty-one", "third".

    Args:
        word: One word, in any case.
        languages: Whose words count; those of all where none is given.
    """
    word = word.strip().casefold()
    if word.isascii() and word.isdigit():
        return int(word)
    known = number_words(*languages)
    if word in known:
        return known[word]
    tens, _, ones = word.partition("-")
    if known.get(tens, 0) >= 20 and 0 < known.get(ones, 0) < 10:
        return known[tens] + known[ones]
    return ordinal_words(*languages).get(word)


def roman_value(text: str) -> int:
    """The value of a roman numeral in small letters, 0 where it is none as it would be written."""
    if not text or set(text) - set(_ROMAN_VALUES):
        return 0
    values = [_ROMAN_VALUES[letter] for letter in text]
    total = sum(
        -value if after > value else value
        for value, after in zip(values, [*values[1:], 0], strict=True)
    )
    return total if 0 < total < 4000 and roman(total) == text else 0


def roman(value: int) -> str:
    """A number from 1 to 3999 in small roman numerals."""
    written = ""
    for worth, letters in zip(_ROMAN_WORTHS, _ROMAN_LETTERS, strict=True):
        written += letters * (value // worth)
        value %= worth
    return written
