"""Asked what a figure or a table shows: its caption, and what the text says of it."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers import Quote
from wide_margin.core.digest.mentioned import with_quotes
from wide_margin.core.document import figure_numbered
from wide_margin.core.explain import explain_figure, naming_figure
from wide_margin.core.later import regex
from wide_margin.core.lexicon import thing_of

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import Figure, ReadDocument

SHOWN, UNSEEN = 0.9, 0.05
"""The chance that a caption with what is said of it answers; that anything does, where the document
has no such figure and speaks of none."""
MOST_SAID = 2
"""Sentences on it beside its caption."""
_WORDS = r"(?P<word>figures?|fig\.|tables?|tab\.|charts?|plates?|diagrams?|listings?|abbildung|tabelle|tableau|figura|tabla)"
_ASKS = regex(
    rf"^\W*(?:(?:what|was|que|qué|cosa|o que)(?:['’]s| zeigt| steht in| montre| représente| muestra| mostra| is| are| does| do| did| can (?:i|we|one|you) (?:see|learn|read))?|describe|explain|summari[sz]e"
    rf"|tell me (?:about|what)|what is it that)\s+(?:(?:is\s+)?(?:shown|said|depicted|displayed|illustrated|presented)\s+)?(?:(?:in|on|by|about|from)\s+)?"
    rf"(?:the\s+)?{_WORDS}\s*(?P<id>[A-Z]?\d+(?:[.–-]\d+)*[a-z]?|[IVX]+)"
    r"(?:\s+(?:is|are))?(?:\s+(?:shows?|showing|says?|tells?(?: us| me)?|depicts?|illustrates?|contains?|about|means?|represents?|presents?|displays?"
    r"|lists?|for|gives?|used for|describes?|summari[sz]es?|say|tell))*\W*$", re.I
)  # fmt: skip


def answer_figure(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What a figure or table is about, by its caption and by what is said of it.

    Where the document has none of that number and nowhere speaks of it, that is said; where only
    the text speaks of it, the search answers.

    Args:
        document: It.
        typed: The question; None is returned where it asks anything else.
        search: Finds an answer to a question.
    """
    asked = _ASKS.match(typed)
    if asked is None:
        return None
    found, word, identifier = search(typed), asked["word"], asked["id"]
    figure = figure_numbered(document, word, identifier)
    if figure is None and (thing := thing_of(word)):  # "Abbildung 1" of a text in English
        figure = figure_numbered(document, thing, identifier)
    if figure is not None:
        return _told(document, figure, found)
    named = naming_figure(word, identifier)
    if any(named.search(sentence.text) for sentence in document.text.sentences):
        return found
    reason = f"No {thing_of(word) or word.lower()} {identifier} was found."
    return replace(found, quotes=(), missing=(), reason=reason, sure=min(found.sure, UNSEEN))


def _told(document: ReadDocument, figure: Figure, found: Answer) -> Answer:
    told = explain_figure(document, figure)
    caption = Quote(told.caption, (told.locator,))
    said = tuple(Quote(line.text, (line.locator,)) for line in told.spoken_of[:MOST_SAID])
    return with_quotes(found, (caption, *said), SHOWN, kind="figure")
