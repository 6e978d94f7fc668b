"""Asked to tell about a matter in the document: what it is, its section, or where it is spoken of."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.digest.mentioned import IT, not_mentioned, places_of, thing_in
from wide_margin.core.digest.named import content_of
from wide_margin.core.later import regex
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.outline import Section

SPOKEN_OF = 0.6
"""The chance that the places that have the very words tell what is asked of them."""
NOT_NAMED = 0.3
"""The same of what was found without the words."""
MOST_MEANING = 2
"""Statements of what a matter is, before what its section tells."""
DEPTH = 1
"""Levels of the outline, from 0, of titles that may have one more word than a matter."""
_ASKS = tuple(
    (is_told, regex(rf"^\W*(?:please\s+|can\s+you\s+|could\s+you\s+)?{pattern}[\s?!.]*$", re.I))
    for is_told, pattern in (
        (True, r"(?:explain|describe)\s+(?:to\s+me\s+)?(?P<what>.+?)(?:\s+to\s+me)?(?:\s+please)?"),
        (True, r"tell\s+me\s+(?:more\s+|something\s+|a\s+bit\s+(?:more\s+)?)?about\s+(?P<what>.+?)(?:\s+please)?"),
        (False, rf"what\s+(?:does|do|did)\s+{IT}\s+(?:say|tell(?:\s+(?:us|me))?|write)\s+(?:about|on|of)\s+(?P<what>.+?)"),
        (False, r"what\s+(?:is|was)\s+(?:said|told|written)\s+(?:about|on|of)\s+(?P<what>.+?)"),
        (False, r"what\s+(?:do|can)\s+(?:i|we|you|one)\s+learn\s+(?:about|on|of)\s+(?P<what>.+?)"),
        (False, rf"(?:show|give|find)\s+(?:me\s+)?(?:where\s+{IT}\s+(?:talks?|speaks?|writes?)\s+(?:about|of|on)|(?:the\s+|all\s+|any\s+|every\s+)*"
                r"(?:passages?|places?|parts?|sentences?|pages?|text)\s+(?:about|on|that\s+mentions?|mentioning|where))\s+(?P<what>.+?)"),
        (True, r"(?:erkläre?|beschreibe?|expliquez?(?:-moi)?|décris|explica|spiega|explique|leg\s+uit)\s+(?:mir\s+)?(?P<what>.+?)(?:\s+bitte)?"),
        (False, r"was\s+(?:steht|wird|sagt\s+(?:es|er|das\s+\w+|die\s+\w+|der\s+\w+))\s+(?:darin\s+|drin\s+|da\s+)?über\s+(?P<what>.+?)"
                r"(?:\s+(?:gesagt|geschrieben|berichtet|drin|darin))?"),
        (False, r"que\s+dit\s+(?:on|le\s+\w+|la\s+\w+|ce\s+\w+)\s+(?:sur|de)\s+(?P<what>.+?)"),
        (False, r"(?:qué\s+dice|che\s+cosa\s+dice|cosa\s+dice|o\s+que\s+diz)\s+(?:\w+\s+\w+\s+)?(?:sobre|su|de)\s+(?P<what>.+?)"),
    )
)  # fmt: skip


class Matter(NamedTuple):
    """What a question wants told about."""

    thing: str
    is_told: bool
    """Whether it is to be explained, and not only found."""


def matter_asked(typed: str) -> Matter | None:
    """The matter that a question wants told about; None for other questions."""
    for is_told, pattern in _ASKS:
        if (asked := pattern.match(typed)) and (thing := thing_in(asked["what"])):
            return Matter(thing, is_told)
    return None


def section_on(document: ReadDocument, matter: Matter) -> Section | None:
    """The section that is called by a matter, the outermost of several.

    "Pruning the tree" tells of pruning where no section is called by that and nothing else.
    """
    asked = content_of(document, matter.thing)
    outline = document.outline
    called = []
    for k, section in enumerate(outline.sections if asked else ()):
        title = unnumbered(section.title)
        named = content_of(document, title)
        begins = content_of(document, " ".join(title.split()[: len(matter.thing.split())]))
        is_more = asked < named and len(named) == len(asked) + 1 and begins == asked
        if named == asked or (is_more and outline.depths[k] <= DEPTH):
            called.append((is_more, outline.depths[k], k))
    return outline.sections[min(called)[2]] if called else None


def spoken_of(document: ReadDocument, matter: Matter, found: Answer) -> Answer:
    """The places that speak of a matter; where none does, what was found, or that there are none.

    Args:
        document: It.
        matter: What is asked for.
        found: What a search for it found.
    """
    told = places_of(document, matter.thing, found)
    if told is not None:
        return replace(told, sure=min(told.sure, SPOKEN_OF))
    known = document.index.term_ids
    if matter.is_told and all(term in known for term in content_of(document, matter.thing)):
        return replace(found, sure=min(found.sure, NOT_NAMED))
    reason = not_mentioned(matter.thing)
    return replace(found, quotes=(), missing=(), reason=reason, sure=min(found.sure, NOT_NAMED))


def with_meaning(told: Answer, meaning: Answer) -> Answer:
    """What a section tells of a matter, after what the matter is."""
    said = {quote.text for quote in meaning.quotes}
    others = [quote for quote in told.quotes if quote.text not in said]
    return replace(told, quotes=(*meaning.quotes[:MOST_MEANING], *others))
