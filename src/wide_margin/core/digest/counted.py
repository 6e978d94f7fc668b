"""Asked how many pages, figures or chapters there are: counted, where the document does not say."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from wide_margin.core.answers.signs import NUMBER
from wide_margin.core.digest.mentioned import A_DOCUMENT, IT, declining
from wide_margin.core.document import find_figures
from wide_margin.core.later import regex
from wide_margin.core.lexicon import thing_of
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.plain import counted

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer
    from wide_margin.core.digest.facts import Facts
    from wide_margin.core.document import ReadDocument

SAYS_IT = 0.6
"""The chance that a quoted sentence must have to be taken for the document's own count."""
_OF_FILE = ("pages", "words")
"""Of these the file tells the number."""
_ASKS = regex(
    r"^\W*how many\s+(?P<what>pages|figures|tables|chapters|sections|words)\s+(?:are\s+there|exist|has\s+it"
    rf"|do(?:es)?\s+{IT}\s+(?:have|contain|include|consist\s+of))?"
    rf"(?:\s*(?:in|of)\s+(?:total|all|{IT}))*\W*$", re.I
)  # fmt: skip
_ABROAD = regex(
    r"^\W*(?:wie\s+viele|combien\s+de|cu[áa]nt[oa]s|quant[ieoa]s?|hoeveel)\s+(?P<what>[^\W\d_]{5,})"
    r"(?:\s+(?:gibt\s+es|hat\s+(?:es|das\s+\w+|die\s+\w+|der\s+\w+)|y\s+a-t-il|hay|tiene|ci\s+sono|há|tem|zijn\s+er|heeft\s+het"
    r"|comporte\s+\S+\s\w+|contient\s+\S+\s\w+)(?:\s+(?:el|la|il|lo|o|a|le|het|de)\s+\w+)?)?(?:\s+(?:insgesamt|in\s+\w+|en\s+\w+|dans\s+\w+)(?:\s\w+)?)*\W*$",
    re.I,
)
"""The same in six other languages."""
_HOW_LONG = regex(rf"^\W*how\s+(?:long|big)\s+is\s+{A_DOCUMENT}\W*$", re.I)
_NAMES = {
    "pages": "seiten pages páginas pagine bladzijden",
    "figures": "abbildungen figures figuras figure afbeeldingen",
    "tables": "tabellen tableaux tablas tabelle tabelas",
    "chapters": "kapitel chapitres capítulos capitoli hoofdstukken",
    "sections": "abschnitte sections secciones sezioni seções secções paragrafen",
    "words": "wörter palabras parole palavras woorden",
}
_THINGS = {name: what for what, names in _NAMES.items() for name in names.split()}


def _thing_asked(typed: str) -> str:
    """The parts that are to be counted: "pages", "figures" …; "" where none are."""
    if asked := _ASKS.match(typed):
        return asked["what"].lower()
    abroad = _ABROAD.match(typed)
    return _THINGS.get(abroad["what"].lower(), "") if abroad else ""


def answer_count(
    document: ReadDocument, facts: Facts, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """The document's own count, where a sentence gives one; else what is counted, told beside.

    Args:
        document: It.
        facts: Its facts.
        typed: The question; None is returned where it asks for no count of the document's parts.
        search: Finds an answer to a question.
    """
    if _HOW_LONG.match(typed):
        told = f"{counted(facts.n_pages, 'page')}, {counted(facts.n_words, 'word')}"
        return declining(search(typed), f"Counted: {told}.")
    what = _thing_asked(typed)
    if not what:
        return None
    found = search(typed)
    said = found.quotes[0].text.lower() if found.quotes else ""
    counts = re.compile(rf"(?:{NUMBER.pattern})\s(?:\w+\s){{0,2}}{what}\b", re.I)
    if what not in _OF_FILE and found.sure >= SAYS_IT and counts.search(said):
        return found
    n = _count(document, facts, what)
    reason = f"Counted: {counted(n, what[:-1])}." if n else f"No {what} were found to count."
    return declining(found, reason)


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
    return len(chapters | numbered) or depths.count(top)
