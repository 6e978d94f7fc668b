"""Asked how many pages, figures or chapters there are: counted, where the document does not say."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.signs import NUMBER
from wide_margin.core.document import find_figures
from wide_margin.core.later import regex
from wide_margin.core.lexicon import thing_of
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.plain import counted

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.digest.facts import Facts
    from wide_margin.core.document import ReadDocument

SAYS_IT = 0.6
"""The chance that a quoted sentence must have to be taken for the document's own count."""
_OF_FILE = ("pages", "words")
"""Of these the file tells the number."""
_WHOLE = (
    r"(?:document|book|paper|article|manual|guide|handbook|report|thesis|text|file|pdf|volume|work)"
)
_ASKS = regex(
    r"^\W*how many\s+(?P<what>pages|figures|tables|chapters|sections|words)\s+(?:are\s+there|exist|has\s+it"
    rf"|do(?:es)?\s+(?:it|this|(?:the|this)\s+{_WHOLE})\s+(?:have|contain|include|consist\s+of))?"
    rf"(?:\s*(?:in|of)\s+(?:total|all|it|this|(?:the|this)\s+(?:whole\s+|entire\s+)?{_WHOLE}))*\W*$", re.I
)  # fmt: skip


def asks_count(typed: str) -> bool:
    """Whether a question is how many parts of some kind the whole document has."""
    return _ASKS.match(typed) is not None


def answer_count(document: ReadDocument, facts: Facts, typed: str, found: Answer) -> Answer:
    """The document's own count, where a sentence gives one; else what is counted, told beside.

    Args:
        document: It.
        facts: Its facts.
        typed: The question.
        found: What a search found to it.
    """
    asked = _ASKS.match(typed)
    if asked is None:
        return found
    what = asked["what"].lower()
    said = found.quotes[0].text.lower() if found.quotes else ""
    counts = re.compile(rf"(?:{NUMBER.pattern})\s(?:\w+\s){{0,2}}{what}\b", re.I)
    if what not in _OF_FILE and found.sure >= SAYS_IT and counts.search(said):
        return found
    n = _count(document, facts, what)
    reason = f"Counted: {counted(n, what[:-1])}." if n else f"No {what} were found to count."
    return replace(found, quotes=(), missing=(), reason=reason, sure=0.0)


def _count(document: ReadDocument, facts: Facts, what: str) -> int:
    if what == "pages":
        return facts.n_pages
    if what == "words":
        return facts.n_words
    if what in ("figures", "tables"):
        return sum(f.caption.lower().startswith(what[:3]) for f in find_figures(document) if f.text)
    sections = document.outline.sections
    if what == "sections":
        return len(sections)
    named = [n for section in sections if (n := number_of(section.title)) is not None]
    chapters = {n.identifier for n in named if thing_of(n.scheme) == "chapter"}
    numbered = {n.identifier for n in named if n.scheme == "decimal" and n.depth == 1}
    depths = document.outline.depths
    top = int(depths.count(0) == 1 < len(sections))  # the title may stand over all
    return len(chapters or numbered) or depths.count(top)
