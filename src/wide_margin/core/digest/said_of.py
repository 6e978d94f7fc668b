"""Asked what the something of something is: the sentence that says so in these words."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.named import SAYS_NOTHING, content_of
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_ASKS = regex(
    r"^\W*(?:what|which|who)(?:['’]s|\s+(?:is|are|was|were))\s+(?P<thing>the\s+\w[^?,;:]*?\s(?:of|for|in|on|between)\s[^?,;:]+?)\W*$",
    re.I,
)
"""Asks for what one thing is to another: "What is the length of the rope?"."""
_ARTICLE = r"(?:(?:an?|the|this|our|its)\s+)?"
_SMALL = regex(rf"\b{_ARTICLE.removesuffix('?')}", re.I)
_IS = (
    r"(?:\s\([^()]{1,40}\))?\s+(?:is|are|was|were|equals?)\s+"
    r"(?!not\b|called\b|as follows|used\b|given in\b|described\b|shown\b|discussed\b)"
)
_MAYBE = regex(r"\b(?:if|whether|unless|when|once|in case|that)\b[^,;:]*$", re.I)
"""Before what is so only under a condition, or is of something else."""
MOST_WORDS = 9
"""Words of what is asked for: more are never said in the same words."""
SAID_OF = 0.85
"""The chance that what says "The length of the rope is …" answers what that is."""


def with_what_it_is(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with the first sentence that says what the thing asked for is, in its words."""
    asked = _ASKS.match(answer.question)
    words = _SMALL.sub("", asked["thing"]).split() if asked is not None else []
    if not 2 < len(words) <= MOST_WORDS or answer.reach.kind != "document":
        return answer
    thing = rf"\s+{_ARTICLE}".join(map(re.escape, words))
    says = re.compile(rf"(?<![\w-]){thing}{_IS}", re.I)
    sentences = document.text.sentences
    rows = [
        row for row in rows_with(document, sorted(content_of(document, " ".join(words))))
        if sentences[row].kind not in SAYS_NOTHING
        and (match := says.search(sentences[row].text)) is not None
        and not _MAYBE.search(sentences[row].text[: match.start()])
    ]  # fmt: skip
    if not rows:
        return answer
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    if told and told[0] in rows:
        return replace(answer, sure=max(answer.sure, SAID_OF))
    return told_by(document, answer, rows[0], rows[0] + 1, SAID_OF)
