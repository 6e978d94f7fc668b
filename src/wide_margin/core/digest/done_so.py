"""Asked how something is done: the sentence that says in these words what is done to do it."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from wide_margin.core.digest.in_these_words import rows_saying, told_by_first
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_ASKS = regex(
    r"^\W*how\s+(?:(?:do|can|should|would|could|must)\s+(?:i|you|we|one|users?)|to)\s+(?P<does>[a-z][\w-]*\s+\S.*?)\W*$",
    re.I,
)
_ARTICLE = r"(?:(?:an?|the|this|that|your|my|our|its|one['’]s|any|some|all|each)\s+){0,2}"
_SMALL = regex(rf"\b{_ARTICLE.replace('{0,2}', '+')}", re.I)
_TO = (
    r"(?:^|[.;:]\s|\n)\W*(?:in order\s|(?:if|when|whenever)\s(?:you|one)\s(?:want|wish|need|would like|intend)s?\s)?to\s+"
    r"(?:\w+ly\s+)?"
)
MOST_WORDS = 7
"""Words of what is to be done: longer ones are never said in the same words."""
UP_TO_COMMA = 60
"""Letters of what may still be said of it before what is done: "To save a rope in a chest, …"."""
SO_MANY = 3
"""Sentences that tell it."""
SAID_SO = 0.85
"""The chance that what says "To do this, do that" tells how it is done."""


def with_what_is_done(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with the first sentence that says what is done to do what is asked after."""
    asked = _ASKS.match(answer.question)
    words = _SMALL.sub("", asked["does"]).split() if asked is not None else []
    if not 1 < len(words) <= MOST_WORDS or answer.reach.kind != "document":
        return answer
    does = rf"\s+{_ARTICLE}".join(_in_either_number(word) for word in words)
    says = re.compile(rf"{_TO}{does}(?!\w|\s+of\b)[^.;:,\n]{{0,{UP_TO_COMMA}}}[,:]\s?(?=\S)", re.I)
    rows = rows_saying(document, " ".join(words), lambda text: says.search(f"{text} "))
    if not rows:
        return answer
    sentences, end = document.text.sentences, rows[0] + 1
    while end < min(rows[0] + SO_MANY, len(sentences)) and (
        sentences[end].paragraph == sentences[rows[0]].paragraph or sentences[end].kind == "code"
    ):
        end += 1
    return told_by_first(document, answer, rows, SAID_SO, end)


def _in_either_number(word: str) -> str:
    return rf"{re.escape(word.removesuffix('s'))}(?:e?s)?"
