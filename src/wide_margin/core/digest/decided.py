"""Asked whether a thing is so: the sentence that says in the same words that it is, or is not."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from functools import partial
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_within
from wide_margin.core.digest.in_these_words import is_said_plainly, rows_saying
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_ASKS = regex(r"^\W*(?:is|are|was|were)\s+(?P<rest>[^?,;]+?)\W*$", re.I)
"""Asks whether something is so."""
_ARTICLE = regex(r"^(?:an?|the)\s+", re.I)
_ITSELF = frozenset(["it", "this"])
_IS = (
    r"\s+(?:is|are|was|were)(?:n['’]t)?(?:\s+(?:not|never|no longer|now|also|still|only|always|currently|by no means|\w+ly))*\s+"
    r"(?:(?:an?|the)\s+)?"
)
"""What stands between a thing and what is said of it, or denied."""
MOST_WORDS = 9
"""Words of a question beside its verb: longer ones are never said in the same words."""
MOST_BETWEEN = 2
"""Words between the thing and the verb: "MPI support is", "Wells of wood are"."""
DECIDED = 0.85
"""The chance that what says in the words of the question that it is so, or not, answers it."""


def with_what_decides(
    document: ReadDocument, names: Callable[[], Sequence[str]], answer: Answer
) -> Answer:
    """The answer with the first sentence that says that what is asked is so, or is not.

    Args:
        document: It.
        names: Gives what it calls what it is about, in small letters.
        answer: What was found.
    """
    asked = _ASKS.match(answer.question)
    if asked is None or answer.reach.kind != "document":
        return answer
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    for things, said in _parted(asked["rest"].split(), names()):
        either = "|".join(re.escape(thing) for thing in things)
        decides = re.compile(
            rf"(?<![\w-])(?:{either})(?:\s[\w-]+){{0,{MOST_BETWEEN}}}{_IS}{_written(said)}(?![\w-])",
            re.I,
        )
        rows = rows_saying(document, said, partial(is_said_plainly, pattern=decides))
        if rows and any(row in told for row in rows):
            return replace(answer, sure=max(answer.sure, DECIDED))
        if rows:
            return told_by(document, answer, rows[0], rows[0] + 1, DECIDED)
    return answer


def _parted(words: Sequence[str], names: Sequence[str]) -> Iterator[tuple[Sequence[str], str]]:
    """The ways to part a question: what the thing may be called, and what it is asked to be."""
    for at in range(1, len(words)) if len(words) <= MOST_WORDS else ():
        thing = _ARTICLE.sub("", " ".join(words[:at])).lower()
        said = _ARTICLE.sub("", " ".join(words[at:]))
        if not thing or not said:
            continue
        if thing in _ITSELF:
            if names:
                yield tuple(names), said
            continue
        is_own = any(bare(thing) == bare(name) for name in names)
        is_own |= any(thing.endswith(f" {name}") for name in names)  # "Berkeley DB" of "DB"
        yield (thing, *names) if is_own else (thing,), said


def _written(said: str) -> str:
    return r"\s+".join(re.escape(word) for word in said.split())
