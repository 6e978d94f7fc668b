"""Asked what a part of the document says about a matter: the sentences of that part which have it."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING, Protocol

from wide_margin.core.answers.form import take_form
from wide_margin.core.digest.asked import named_part, part_abroad
from wide_margin.core.digest.mentioned import (
    CERTAIN,
    declining,
    quote_of,
    rows_saying,
    rows_that_may_say,
    thing_in,
    with_quotes,
)
from wide_margin.core.digest.overview import rows_within
from wide_margin.core.later import first_match, regex, whole_forms

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Reach
    from wide_margin.core.document import ReadDocument

MOST = 5
"""Sentences that are quoted."""
_IN = r"(?:\s+(?:in|of|by|under|on|within))?(?:\s+the)?"
"""What is left before a part that was taken out."""
_ASKS = whole_forms(
    rf"what\s+(?:does|do|did){_IN}\s+(?:say|tell(?:\s+(?:us|me))?|write)\s+(?:about|on|of)\s+(?P<what>.+?)",
    rf"what\s+(?:is|was)\s+(?:said|told|written)\s+(?:about|on|of)\s+(?P<what>.+?){_IN}",
    rf"(?:does|do|did){_IN}\s+(?:mention|discuss|cover|address|(?:talk|speak|say\s+(?:anything|something))\s+(?:about|of|on)|deal\s+with)\s+(?P<what>.+?)",
    rf"(?:is|are)\s+(?P<what>.+?)\s+(?:mentioned|discussed|covered|spoken\s+of){_IN}",
)
_MAY_ASK = regex(
    r"\b(?:say|said|tell|told|writ|mention|discuss|cover|address|talk|sp[eo]ak|deal|über|sur|su|sul\w*|sugli|sui|sobre|acerca|propos|over|om)",
    re.I,
)
"""Has a word of one of these forms."""
_ASKS_ABROAD = regex(
    r"^(?P<lead>.+?)\s+(?:über|sur|su(?:l(?:l[aeo]|l['’])?|i|gli)?|sobre|acerca\s+de|à\s+propos\s+d[eu]|over|om)\s+(?P<what>.+?)"
    r"(?:\s+(?P<tail>gesagt|geschrieben|berichtet|erklärt|gezegd|geschreven))?\W*$", re.I
)  # fmt: skip
"""The same in other languages; its lead asks what a part says."""


class Search(Protocol):
    """Finds an answer within a reach."""

    def __call__(self, typed: str, reach: Reach) -> Answer:
        """An answer to a question."""


def answer_in_part(document: ReadDocument, typed: str, search: Search) -> Answer | None:
    """The sentences of a part that speak of a matter, else that it does not; None if not asked."""
    if not _MAY_ASK.search(typed):  # as most questions, for which no part is looked for
        return None
    part, thing = _asked_of(document, take_form(typed)[0])
    if part is None or not thing:
        return None
    found = replace(search(thing, reach=part), question=typed, reach=part)
    rows = rows_saying(document, thing, rows_within(document, part))
    if not rows:
        elsewhere = rows_saying(document, thing, rows_that_may_say(document, thing))
        pages = dict.fromkeys(document.text.sentences[row].page for row in elsewhere)
        shown = ", ".join(map(document.labels.shown, list(pages)[:MOST]))
        but = f", but on {shown}" if shown else ""
        return declining(found, f"“{thing}” is not mentioned in “{part.name}”{but}.")
    return with_quotes(found, [quote_of(document, r) for r in rows[:MOST]], CERTAIN, len(rows))


def _asked_of(document: ReadDocument, text: str) -> tuple[Reach | None, str]:
    """The part that is asked, and on which matter."""
    part, rest = named_part(document, text)
    if part is not None and (asked := first_match(_ASKS, " ".join(rest.split()))):
        return part, thing_in(asked["what"])
    if asked := _ASKS_ABROAD.match(text):
        part = part_abroad(document, f"{asked['lead']} {asked['tail'] or ''}")
        return part, thing_in(asked["what"])
    return None, ""
