"""Questions spelled as the document spells: "colour" where it writes "color", or the other way."""

from __future__ import annotations

import re
from collections import Counter
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.search.analysis import has_two_spellings, is_common, spelled_otherwise, words

if TYPE_CHECKING:
    from collections.abc import Iterable

    from wide_margin.core.document import ReadDocument
    from wide_margin.core.search.index import Index

LEAST_HALF = 3
"""Letters of either half of a word that may be written as two."""
TIMES_JOINED = 2
"""Two words are joined where a document has them as one in so many times more places."""
LOOKED_THROUGH = 100
"""Sentences with a word's stem that are looked through for how it is spelled."""
_WORD = regex(r"(?<![\w\\@$])(?<!--)[^\W\d_]+(?!\w|[.:(]\w)")
"""A word by itself, and no part of a name of code."""
_TWO_WORDS = regex(
    rf"(?<![\w\\@$-])([^\W\d_]{{{LEAST_HALF},}}) (?=([^\W\d_]{{{LEAST_HALF},}})(?![\w-]))"
)
"""Two words that follow each other, the second one left for the next two."""
_JOINED_NAME = regex(r"\b[^\W_][^\W_]*(?:_[^\W_]+)+\b")
"""A name of code in parts: "well_depth"."""
_SORT_AFTER = regex(
    r"(?<=what is )(?:the |an? )?(?P<name>\w+_\w+|\\\w+|(?-i:[A-Z][A-Z\d]{2,}))\s+"
    r"(?:variable|option|parameter|argument|function|command|macro|environment|keyword|method|class|setting|directive"
    r"|attribute|field|flag)(?=\W*$)", re.I
)  # fmt: skip
"""A name of code with the sort of thing it is, which a text seldom says beside it."""
_CHIEF = regex(
    r"\b(?P<chief>main|key|major|principal|chief|most important)\s+(?=(?P<thing>[a-z]{4,})\W*$)"
)
"""Asks for the chief ones of a kind of things, at the end of a question."""


def as_spelled(document: ReadDocument, question: str) -> str:
    """A question with those words changed that the document mostly has in the other spelling.

    What a term is called is compared letter by letter in places; ``read_terms`` has no need of it.
    """
    question = _SORT_AFTER.sub(lambda match: match["name"], question)
    question = _JOINED_NAME.sub(lambda match: _as_printed(document, match[0]), question)
    question = _TWO_WORDS.sub(lambda match: _in_one(document, match), question)
    if document.index.language != "en":
        return question
    question = _WORD.sub(lambda match: _as_written(document, match[0]), question)
    return _WORD.sub(lambda match: _in_two(document, match[0]), question)


def _in_one(document: ReadDocument, match: re.Match[str]) -> str:
    """The first of two words, joined to the second where the document mostly has one for them.

    "bootloader" for "boot loader". Where they stand apart as often they find more as they are.
    """
    index, first, second = document.index, match[1].lower(), match[2].lower()
    joined = _rows_of(index, first + second)
    if not joined or any(is_common(word, index.language) for word in (first, second)):
        return match[0]
    both = set(_rows_of(index, first)).intersection(_rows_of(index, second))
    end = second[:-1]
    n_apart = _n_with(document, rf"\b{first}[\s-]{end}", both)
    n_joined = _n_with(document, rf"\b{first}{end}", joined)
    return match[1] if n_joined > TIMES_JOINED * n_apart else match[0]


def _n_with(document: ReadDocument, pattern: str, rows: Iterable[int]) -> int:
    """How many of some sentences have a pattern."""
    said = re.compile(pattern, re.I)
    return sum(said.search(document.text.sentences[row].text) is not None for row in rows)


def _in_two(document: ReadDocument, written: str) -> str:
    """A word that the document has only as two: "superblock" where it writes "super block"."""
    index, word = document.index, written.lower()
    terms = index.analyser.terms_of(word)
    if len(word) < 2 * LEAST_HALF or not terms or terms[0] in index.term_ids:
        return written
    for at in range(LEAST_HALF, len(word) - LEAST_HALF + 1):
        halves = word[:at], word[at:]
        numbers = [_number_of(index, half) for half in halves]
        if min(numbers) < 0:
            continue
        rows = _rows_of(index, halves[1])[:LOOKED_THROUGH]
        said = re.compile(rf"\b{halves[0]}\s{halves[1][:-1]}", re.I)
        if any(said.search(document.text.sentences[row].text) for row in rows):
            return " ".join(halves)
    return written


def unranked(document: ReadDocument, question: str) -> str:
    """A question for the main things of a kind, without "main" where no text calls them so."""
    match = _CHIEF.search(question)
    if match is None or document.index.language != "en":
        return question
    index = document.index
    rows = _rows_of(index, match["thing"])
    said = re.compile(rf"\b{match['chief']}\s+(?:\w+\s+)?{match['thing'][:-1]}", re.I)
    if not rows or any(said.search(document.text.sentences[row].text) for row in rows):
        return question
    return question[: match.start()] + question[match.end() :]


def _rows_of(index: Index, word: str) -> list[int]:
    """The sentences that have a word, as numbers."""
    number = _number_of(index, word)
    rows: list[int] = index.by_sentence.of(number)[0].tolist() if number >= 0 else []
    return rows


def _number_of(index: Index, word: str) -> int:
    """The number of a word's term in an index; -1 where it has none."""
    return index.term_ids.get((index.analyser.terms_of(word) or ("",))[0], -1)


def _as_printed(document: ReadDocument, name: str) -> str:
    """A name with blanks for the strokes that its font draws as lines, which are no characters."""
    index = document.index
    whole, *parts = index.analyser.terms_of(name.lower()) or ("",)
    if whole in index.term_ids or not parts or not all(part in index.term_ids for part in parts):
        return name
    plain = name.replace("_", " ")
    rows = index.by_sentence.of(index.term_ids[parts[-1]])[0][:LOOKED_THROUGH].tolist()
    is_there = any(plain in document.text.sentences[row].text for row in rows)
    return plain if is_there else name


def _as_written(document: ReadDocument, written: str) -> str:
    index, word = document.index, written.lower()
    if not has_two_spellings(word):
        return written
    number = _number_of(index, word)
    if number < 0 or index.forms[number] == word or is_common(word, index.language):
        return written
    sentences = document.text.sentences
    rows = index.by_sentence.of(number)[0][:LOOKED_THROUGH].tolist()
    said = Counter(each for row in rows for each in words(sentences[row].text.lower()))
    others = [each for each in said if spelled_otherwise(word, each) and said[each] > said[word]]
    if not others:
        return written
    other = max(others, key=lambda each: said[each])
    return other.capitalize() if written[0].isupper() else other
