"""Asked what the something of something is: the sentence that says so in these words."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from wide_margin.core.digest.in_these_words import is_said_plainly, rows_saying, told_by_first
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
_OF_OTHER = regex(r"\bthat\b[^,;:]*$", re.I)
"""Before what is said of something else, or only thought."""
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
    rows = rows_saying(document, " ".join(words), lambda text: _says(text, says))
    return told_by_first(document, answer, rows, SAID_OF) if rows else answer


def _says(text: str, says: re.Pattern[str]) -> bool:
    """Whether a sentence says it plainly, and of nothing else: "that the length of the rope is"."""
    match = says.search(text)
    is_of_other = match is not None and _OF_OTHER.search(text[: match.start()])
    return is_said_plainly(text, says) and not is_of_other
