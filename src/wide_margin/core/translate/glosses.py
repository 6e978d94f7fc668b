"""Word glosses from a dictionary service: a help for reading, and no translation."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.later import regex
from wide_margin.core.search.analysis import is_common

if TYPE_CHECKING:
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.services.dictionary import Dictionary

_THREE_LETTERS = {
    "en": "eng", "de": "deu", "fr": "fra", "es": "spa", "it": "ita", "pt": "por", "nl": "nld",
    "pl": "pol", "cs": "ces", "sv": "swe", "da": "dan", "fi": "fin", "tr": "tur", "ru": "rus",
    "uk": "ukr", "ar": "ara", "zh": "zho", "ja": "jpn", "ko": "kor", "hu": "hun", "no": "nor",
}  # fmt: skip
_WORD = regex(r"[^\W\d_]+(?:['’-][^\W\d_]+)*")
_MARKS = regex(r"<[^<>]*>|\[[^\[\]]*\]|\{[^{}]*\}|/[^/]*/|\([^()]*\)")
_ASIDE = regex(r"^\s*(?:see|synonyms?|note|\d+\.)\s*:?", re.I)
LONGEST = 40


class Gloss(NamedTuple):
    """A word and what a dictionary gives for it; "" where it has nothing."""

    word: str
    gloss: str


def database_for(dictionary: Dictionary, source: str, target: str) -> str | None:
    """Name of the dictionary from one language into another; None where the service has none.

    Raises:
        ServiceError: The service does not answer.
    """
    wanted = f"{_THREE_LETTERS.get(source, source)}-{_THREE_LETTERS.get(target, target)}"
    for database in dictionary.databases():
        if wanted in database.name.lower():
            return database.name
    return None


def gloss_words(
    text: str,
    source: str,
    database: str,
    dictionary: Dictionary,
    token: CancelToken,
    known: dict[str, str],
    on_word: Callable[[Gloss], None] = lambda _: None,
) -> list[Gloss]:
    """Gloss the words of a text one by one; small words are passed over.

    Args:
        text: What to gloss.
        source: Code of its language.
        database: From database_for.
        dictionary: The service.
        token: Checked before every word.
        known: Glosses found before; new ones are put in.
        on_word: Told each gloss as it comes.

    Raises:
        ServiceError: The service does not answer.
        Cancelled: The token was cancelled.
    """
    found = []
    for word in _WORD.findall(text):
        token.check()
        key = word.lower()
        if is_common(key, source) or len(key) < 2:
            continue
        if key not in known:
            known[key] = _first_of(dictionary, word, database)
        gloss = Gloss(word, known[key])
        found.append(gloss)
        on_word(gloss)
    return found


def _first_of(dictionary: Dictionary, word: str, database: str) -> str:
    """The first rendering of a word, or of the form that it may be an inflection of."""
    for form in dict.fromkeys((word, word.lower(), *_bare_forms(word.lower()))):
        for sense in dictionary.define(form, database):
            if rendering := rendering_of(sense.text):
                return rendering
    return ""


def _bare_forms(word: str) -> Sequence[str]:
    """Forms that a word may be made from, by its ending."""
    forms = []
    for ending, bare in (("ies", "y"), ("es", ""), ("s", ""), ("ing", ""), ("ing", "e"), ("ed", ""),
                         ("ed", "e"), ("en", ""), ("n", ""), ("er", ""), ("e", "")):  # fmt: skip
        if word.endswith(ending) and len(word) - len(ending) >= 3:
            forms.append(word[: -len(ending)] + bare)
    return forms[:4]


def rendering_of(text: str) -> str:
    """The first rendering in the text of a definition, without marks of grammar."""
    for line in text.splitlines()[1:] or text.splitlines():
        plain = " ".join(_MARKS.sub(" ", line).split())
        if plain and not _ASIDE.match(plain) and '"' not in plain:
            first = re.split(r"[;,]", plain)[0].strip(" .")
            if first and len(first) <= LONGEST:
                return first
    return ""
