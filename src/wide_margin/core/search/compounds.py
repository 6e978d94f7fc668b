"""Compounds of languages that write them as one word: what a question's word has to do with others.

A word that the document does not have may be made of two that it has ("Seildicke" of "Seil" and
"Dicke"), and one that it has may end its compounds ("Hanfseil"). Both ways are tried as
Monz and de Rijke (2002) found them to help retrieval in German and Dutch: by the document's own
words alone, without a lexicon.
"""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

from wide_margin.core.search.analysis import is_common

if TYPE_CHECKING:
    from wide_margin.core.search.index import Index

LINKS = {
    "de": ("", "s", "es", "n", "en", "er", "e"), "nl": ("", "s", "en", "e", "er"),
    "sv": ("", "s", "e", "o"), "da": ("", "s", "e"), "no": ("", "s", "e"), "fi": ("", "n"),
    "hu": ("",),
}  # fmt: skip
"""Letters that may stand between the two parts, by language."""
SHORTEST_PART, SHORTEST_FIRST, SHORTEST_END = 4, 3, 5
"""Letters of a part as it is written, of its stem, and of the stem of a word that ends others."""
MOST = 12
"""Compounds that a word stands at the end of, those that stand in most passages first."""


def parts_of(word: str, index: Index) -> list[int]:
    """The two terms of the document that make up a word which it does not have; [] where none do.

    Args:
        word: Of a question, in small letters.
        index: Of the document.
    """
    links = LINKS.get(index.language)
    if links is None or not word.isalpha() or _stem(word, index) in index.term_ids:
        return []
    found = (
        [second, first]
        for at in range(SHORTEST_PART, len(word) - SHORTEST_PART + 1)
        if (second := _term(word[at:], index)) >= 0
        for link in links
        if word[:at].endswith(link)
        and len(begin := word[: at - len(link)]) >= SHORTEST_PART
        and (first := _term(begin, index)) >= 0
    )
    return next(found, [])


def ending_with(word: str, index: Index) -> list[int]:
    """The document's compounds that a word is the last part of, the most frequent first.

    Args:
        word: Of a question, in small letters.
        index: Of the document.
    """
    stem = _stem(word, index)
    if index.language not in LINKS or not stem.isalpha() or len(stem) < SHORTEST_END:
        return []
    found = [
        index.term_ids[term] for term in _by_ending(index).get(stem[-SHORTEST_END:], ())
        if term.endswith(stem) and len(term) >= len(stem) + SHORTEST_FIRST
    ]  # fmt: skip
    return sorted(found, key=lambda number: -int(index.document_frequency[number]))[:MOST]


@lru_cache(maxsize=1)  # a worker answers from one document
def _by_ending(index: Index) -> dict[str, list[str]]:
    """The terms that may be compounds, by their last SHORTEST_END letters."""
    found: dict[str, list[str]] = {}
    for term in index.term_ids:
        if len(term) >= SHORTEST_END + SHORTEST_FIRST:
            found.setdefault(term[-SHORTEST_END:], []).append(term)
    return found


def _term(part: str, index: Index) -> int:
    stem = _stem(part, index)
    is_word = len(stem) >= SHORTEST_FIRST and not is_common(part, index.language)
    return index.term_ids.get(stem, -1) if is_word else -1


def _stem(word: str, index: Index) -> str:
    return (index.analyser.terms_of(word) or ("",))[0]
