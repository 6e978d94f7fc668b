"""Long chains of nouns parted into the pieces that the document uses by themselves.

"page fault error code" is an error code, and it is that of a page fault: the document speaks of
both without the rest. Where it shows nothing of the kind a chain stays whole; no word is changed.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.explain.model import NounChain
from wide_margin.core.explain.verbs import (
    AUXILIARIES,
    DETERMINERS,
    PREPOSITIONS,
    finite_at,
    is_base,
)
from wide_margin.core.later import regex
from wide_margin.core.search import is_common
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

LEAST_WORDS, MOST_WORDS = 3, 7
LOOKED_AT = 300
"""Sentences with a word that are looked at."""
SEEN = 2
"""A piece counts as one where the document has it by itself so often."""
CLOSED = 0.25
"""Of a noun so many of the places after an article have no other noun after it; of an adjective
few have."""
OF_VERB = 0.08
"""A word that can be a verb is one, unless it stands so in that share of its sentences."""
_TOKEN = regex(r"[^\W_]+(?:[-'’][^\W_]+)*|\S")
_WORD = regex(r"[^\W\d_][^\W_]*(?:-[^\W_]+)*")
_DESCRIBES = regex(r".+(?:ly|ous|ful|less|able|ible|ic|ical|ive|ary|ual|ial|ional)")
"""How words end that mostly stand before a noun and are none."""
_ENDS = (
    PREPOSITIONS | AUXILIARIES
    | {"and", "or", "that", "which", "who", "if", "when", "but", "not"}
)  # fmt: skip
_NO_NOUNS = (
    DETERMINERS | PREPOSITIONS | AUXILIARIES
    | {"instead", "less", "left", "right", "first", "second", "third", "last", "next"}
)  # fmt: skip
MOST_CHAINS = 3
"""Told of a selection."""


def noun_chains(document: ReadDocument, text: str) -> tuple[NounChain, ...]:
    """The chains of nouns in an English text that the document shows how to part.

    Args:
        document: What shows it.
        text: A selection.

    Returns:
        At most MOST_CHAINS, each once, of LEAST_WORDS to MOST_WORDS words; none where the document
        is in another language.
    """
    if document.index.language != "en":
        return ()
    evidence = _Evidence(document)
    found = {}
    for words in _runs(text):
        nouns = list(words)
        while nouns and not evidence.as_noun(nouns[0]):
            nouns.pop(0)
        if LEAST_WORDS <= len(nouns) <= MOST_WORDS and all(map(evidence.as_noun, nouns)):
            parts = _parted([word.lower() for word in nouns], evidence)
            if len(parts) > 1:
                chain = " ".join(nouns)
                found[chain] = NounChain(chain, tuple(" ".join(part) for part in parts))
    return tuple(found.values())[:MOST_CHAINS]


def _runs(text: str) -> Iterator[list[str]]:
    """Words that follow each other with nothing between and may all be nouns."""
    tokens = _TOKEN.findall(text)
    small = [token.lower() for token in tokens]
    run: list[str] = []
    for at, token in enumerate(tokens):
        may = (
            _WORD.fullmatch(token)
            and not is_common(small[at])
            and small[at] not in _NO_NOUNS
            and not finite_at(small, at)
        )
        if may:
            run.append(token)
            continue
        if _is_chain(run, small[at]):
            yield run
        run = []
    if _is_chain(run, ""):
        yield run


def _is_chain(run: Sequence[str], after: str) -> bool:
    """Whether words may be a chain that ends in a noun: no verb with what follows, no name."""
    if len(run) < LEAST_WORDS:
        return False
    last = run[-1].lower()
    leads_on = is_base(last) and after.isalpha() and not _ends_phrase(after)
    many = any(w.endswith("s") and not w.endswith(("ss", "us", "is")) for w in run[1:-1])
    return not leads_on and not many and frequency_rank(last) is not None


def _parted(words: Sequence[str], evidence: _Evidence) -> list[list[str]]:
    """The pieces of a chain, what it is a kind of first; one piece where nothing tells."""
    best, at = 0, 0
    for k in range(1, len(words)):
        seen = min(evidence.alone(words[:k], words[k]), evidence.led(words[k:], words[k - 1]))
        if seen > best:
            best, at = seen, k
    if best < SEEN:
        return [list(words)]
    kind, which = list(words[at:]), list(words[:at])
    more = _parted(which, evidence) if len(which) >= LEAST_WORDS else [which]
    return [kind, *more]


class _Evidence:
    """What a document shows of words that stand beside each other."""

    def __init__(self, document: ReadDocument) -> None:
        self._document = document
        self._sentences: dict[str, list[str]] = {}
        self._nouns: dict[str, int] = {}

    def _holding(self, word: str) -> list[str]:
        """Sentences that hold a word, in small letters."""
        if word not in self._sentences:
            index = self._document.index
            terms = index.analyser.terms_of(word)
            number = index.term_ids.get(terms[0]) if terms else None
            rows = index.by_sentence.of(number)[0].tolist() if number is not None else []
            text = self._document.text.sentences
            self._sentences[word] = [text[row].text.lower() for row in rows[:LOOKED_AT]]
        return self._sentences[word]

    def as_noun(self, word: str) -> int:
        """How often a word stands with an article before it and no noun after it."""
        word = word.lower()
        if word not in self._nouns:
            after = [
                after for sentence in self._holding(word)
                for before, after in _around(sentence, word) if before in DETERMINERS
            ]  # fmt: skip
            n_closed = sum(not other[:1].isalnum() or _ends_phrase(other) for other in after)
            least = max(CLOSED * len(after), OF_VERB * is_base(word) * len(self._holding(word)))
            is_noun = not _DESCRIBES.fullmatch(word) and n_closed >= least
            self._nouns[word] = n_closed if is_noun else 0
        return self._nouns[word]

    def alone(self, words: Sequence[str], after: str) -> int:
        """How often words stand together and are not followed by a certain one."""
        return self._count(words, rf"(?![\s-]+{re.escape(after)})")

    def led(self, words: Sequence[str], before: str) -> int:
        """How often words stand together and a certain one does not lead to them."""
        return self._count(words, rf"(?<!\b{re.escape(before)}[\s-])", is_before=True)

    def _count(self, words: Sequence[str], other: str, *, is_before: bool = False) -> int:
        if len(words) == 1:
            return self.as_noun(words[0])
        rarest = min(map(self._holding, words), key=len)
        run = r"\b" + r"[\s-]+".join(map(re.escape, words)) + r"s?\b"
        pattern = re.compile(other + run if is_before else run + other)
        return sum(bool(pattern.search(sentence)) for sentence in rarest)


def _around(sentence: str, word: str) -> Iterator[tuple[str, str]]:
    """The tokens before and after each place of a word or its plural."""
    tokens = ["", *_TOKEN.findall(sentence), ""]
    for (before, here), after in zip(pairwise(tokens), tokens[2:], strict=False):
        if here in (word, f"{word}s", word.removesuffix("s")):
            yield before, after


def _ends_phrase(word: str) -> bool:
    return word != "to" and word in _ENDS
