"""Terms that a document itself says are the same: "IDE (also known as PATA)"."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.search.analysis import is_common, words

if TYPE_CHECKING:
    from wide_margin.core.passages import Sentence, Term
    from wide_margin.core.search.analysis import Analyser

Pair = tuple[tuple[str, ...], tuple[str, ...]]
"""Two terms, each as its words in small letters."""

MAX_WORDS = 3
"""A term of more words is not taken: it is more often half a sentence."""
_NAME = r"[\w’-]+(?: [\w’-]+){0,2}"
_QUOTED = r"[“\"‘'](?P<quoted>[^”\"’']{2,40})[”\"’']"
_PLAIN = (
    rf"(?:an? |the )?(?P<plain>{_NAME})"
    r"(?=\s*(?:[,.;:)]|—|\b(?:and|or|which|that|is|are)\b|$))"
)
_SAYS = regex(
    r"[\s,(—–]+(?:which (?:is|are) |is |are |was |were )?(?:"
    r"(?:also|sometimes|otherwise|commonly) (?:called|known as|termed|referred to as|spelled)"
    r"|synonymous with|another (?:name|word|term) for"
    rf"|the same as(?=\s+[“\"‘']))\s+(?:{_QUOTED}|{_PLAIN})"
)  # fmt: skip
_SAYING = (
    "called",
    "known as",
    "termed",
    "referred to",
    "spelled",
    "synonym",
    "another",
    "same as",
)
"""One of these is in whatever _SAYS finds."""
_BEFORE = 60
"""Characters in front in which the term must stand that is called otherwise."""
_SEE = regex(rf"(?:see|siehe|voir|a synonym for|same as) (?P<plain>{_NAME})\.?$", re.I)
_INDEX = regex(rf"(?P<before>(?!\d){_NAME}), see (?P<plain>{_NAME})$")


def find_equals(
    sentences: Iterable[Sentence], terms: Sequence[Term], language: str
) -> tuple[Pair, ...]:
    """Pairs of terms that mean the same, by the document's own words.

    Taken are "X, also called Y", "X is the same as “Y”", an entry whose description is "See Y"
    or "A synonym for Y", and "X, see Y" in an index.
    """
    found: dict[Pair, None] = {}
    explained = {term.text.lower() for term in terms}
    for sentence in sentences:
        text = sentence.text
        if sentence.kind == "listing":
            if ", see " in text and (match := _INDEX.match(text)):
                _take(found, match["before"], match["plain"], language)
            continue
        if sentence.term >= 0 and len(text) < 2 * _BEFORE:
            term = terms[sentence.term].text
            said = text.removeprefix(term).strip() if sentence.kind == "entry" else text
            match = _SEE.match(said)
            if match and match["plain"].lower() in explained:
                _take(found, term, match["plain"], language)
                continue
        if not any(word in text for word in _SAYING):
            continue
        for match in _SAYS.finditer(text):
            before = re.split(r"[.;:()]", text[max(0, match.start() - _BEFORE) : match.start()])[-1]
            _take(found, before, match["quoted"] or match["plain"] or "", language)
    return tuple(found)


def _take(found: dict[Pair, None], first: str, second: str, language: str) -> None:
    one, other = _last_words(first, language), _last_words(second, language)
    whole = len(other) == len(list(words(second)))  # not "when the file", of which "file" is left
    if one and other and whole and not set(one) & set(other):
        found[one, other] = None


def _last_words(text: str, language: str) -> tuple[str, ...]:
    """The words at the end of a text, back to the first small one or three of them."""
    taken: list[str] = []
    for word in reversed(list(words(re.split(r"[,—–]\s", text.strip(" .,\"“”'‘’"))[-1]))):
        if is_common(word, language) or len(taken) == MAX_WORDS:
            break
        taken.insert(0, word)
    return tuple(taken)


def equal_words(
    asked: Sequence[str], pairs: Iterable[Pair], analyser: Analyser
) -> dict[str, tuple[str, ...]]:
    """For words of a question, the words of terms that the document says are the same.

    A term counts where all of its words are in the question; the last of them then gets the
    words of the other term.
    """
    stems = {(analyser.terms_of(word) or (word,))[0]: word for word in asked}
    beside: dict[str, tuple[str, ...]] = {}
    for pair in pairs:
        for one, other in (pair, pair[::-1]):
            own = [(analyser.terms_of(word) or (word,))[0] for word in one]
            if all(stem in stems for stem in own):
                last = stems[own[-1]]
                beside[last] = (*beside.get(last, ()), *other)
    return beside
