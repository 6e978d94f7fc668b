"""Abbreviations that a document spells out, so that either form finds the other."""

from collections.abc import Iterable, Mapping

from wide_margin.core.later import regex
from wide_margin.core.search.analysis import is_common

_IN_BRACKETS = regex(r"\(([A-Z][A-Za-z]{1,7})\)")
_WITH_BRACKETS = regex(r"\b([A-Z][A-Z0-9]{1,6})\s+\(([^()]{4,60})\)")
_ROW = regex(r"([A-Z][A-Z0-9]{1,6})\s+(\S.{2,60})")
_WORD = regex(r"[^\W\d_][\w’'-]*")
LONGEST = 60
"""Characters before an abbreviation in brackets that its long form may take."""


def find_abbreviations(texts: Iterable[str]) -> dict[str, tuple[str, ...]]:
    """Abbreviations as written, in capitals, to the words they stand for, in small letters.

    "closing error (CE)", "CE (closing error)" and a row that begins "CE closing error" are taken
    where the initials agree; of several spellings the first counts.

    Source:
        Initials are matched from the last letter backwards, as in Schwartz and Hearst, A Simple
        Algorithm for Identifying Abbreviation Definitions in Biomedical Text, PSB 2003.
    """
    found: dict[str, tuple[str, ...]] = {}
    for text in texts:
        if "(" in text:
            for match in _IN_BRACKETS.finditer(text):
                before = text[max(0, match.start() - LONGEST) : match.start()]
                _take(found, match[1], _WORD.findall(before))
            for match in _WITH_BRACKETS.finditer(text):
                _take(found, match[1], _WORD.findall(match[2]))
        if text[1:2].isupper() and (row := _ROW.match(text)):
            _take_front(found, row[1], _WORD.findall(row[2]))
    return found


def _take(found: dict[str, tuple[str, ...]], short: str, words: list[str]) -> None:
    """The last words whose initials are the abbreviation's letters, small words passed over."""
    letters = _letters(short)
    at = len(words)
    for letter in reversed(letters):
        at -= 1
        while at >= 0 and is_common(words[at].lower()):
            at -= 1
        if at < 0 or words[at][0].lower() != letter:
            return
    found.setdefault(short.upper(), tuple(word.lower() for word in words[at:]))


def _letters(short: str) -> list[str]:
    """The letters that stand for words: the capitals, where there are two of them ("DoD")."""
    capitals = [letter.lower() for letter in short if letter.isupper()]
    return capitals if len(capitals) > 1 else [c.lower() for c in short if c.isalpha()]


def _take_front(found: dict[str, tuple[str, ...]], short: str, words: list[str]) -> None:
    """The first words whose initials are the abbreviation's letters."""
    at = -1
    for letter in _letters(short):
        at += 1
        while at < len(words) and is_common(words[at].lower()):
            at += 1
        if at >= len(words) or words[at][0].lower() != letter:
            return
    if at >= 1:
        found.setdefault(short.upper(), tuple(word.lower() for word in words[: at + 1]))


def other_forms(
    words: list[str], known: Mapping[str, tuple[str, ...]]
) -> dict[str, tuple[str, ...]]:
    """For words of a question, the words that the document's abbreviations put beside them.

    An abbreviation gets the words of its long form; the last word of a long form that stands whole
    in the question gets the abbreviation.
    """
    beside: dict[str, tuple[str, ...]] = {}
    for word in words:
        if long := known.get(word.upper()):
            beside[word] = tuple(w for w in long if not is_common(w))
    line = f" {' '.join(words)} "
    for short, long in known.items():
        if len(long) > 1 and f" {' '.join(long)} " in line:
            beside[long[-1]] = (*beside.get(long[-1], ()), short.lower())
    return beside
