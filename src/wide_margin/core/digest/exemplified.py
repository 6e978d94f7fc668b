"""Asked for an example of something: the code or the sentences that give one."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.articles import without_article
from wide_margin.core.digest.mentioned import thing_in
from wide_margin.core.digest.named import content_of
from wide_margin.core.later import first_match, regex, whole_forms

if TYPE_CHECKING:
    from collections.abc import Callable, Iterator

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

NOT_GIVEN = 0.3
"""The chance at most that what only speaks of a thing is an example of it."""
MOST_CODE, MOST_ROWS = 70, 12
"""Words of code, and rows of it, that are quoted of an example."""
NEAR = 2
"""Rows after a sentence in which the code stands that it speaks of."""
_ASKS = whole_forms(
    r"(?:(?:please\s+|can\s+you\s+|could\s+you\s+)*(?:give|show|find|provide)(?:\s+me)?|is\s+there|are\s+there|what(?:['’]s|\s+is|\s+are)|i\s+(?:need|want)|list)?"
    r"\s*(?:an?\s+|the\s+|some\s+|any\s+|one\s+)?(?:\w+\s+)?(?:examples?|samples?|snippets?)(?:\s+code)?\s+(?:of|for|on|with|using|showing)\s+"
    r"(?:how\s+(?:to|i\s+can)\s+(?:use\s+|write\s+|call\s+|make\s+|do\s+)?)?(?P<what>.+?)",
    r"(?:show|give)\s+(?:me\s+)?(?:the\s+|some\s+)?code\s+(?:of|for|to)\s+(?P<what>.+?)",
    r"(?:gib|zeig|nenne?)e?\s+(?:mir\s+)?(?:bitte\s+)?ein(?:ige)?\s*beispiele?\s+(?:für|von|mit|zu)\s+(?P<what>.+?)",
    r"(?:donnez?|montrez?)(?:[\s-]moi)?\s+(?:un|des)\s+exemples?\s+(?:de\s+|d['’]|pour\s+)(?P<what>.+?)",
    r"(?:dame|muéstrame|muestra|da)\s+(?:un|algún)\s+ejemplo\s+(?:de|para|con)\s+(?P<what>.+?)",
    r"(?:dammi|fammi|mostrami)\s+un\s+esempio\s+(?:di|per|con)\s+(?P<what>.+?)",
    r"(?:dê|dá|mostra|mostre)(?:[\s-]me)?\s+um\s+exemplo\s+(?:de|para|com)\s+(?P<what>.+?)",
)  # fmt: skip
_GIVES = regex(
    r"\b(?:for\s+(?:example|instance)|examples?\b(?!\s+(?:files?|data|programs?|director\w+|input|output)\b)|to\s+illustrate|illustrat\w+|zum\s+beispiel|z\.\s?b\.|beispiel\w*"
    r"|par\s+exemple|exemples?|por\s+ejemplo|ejemplos?|per\s+esempio|esempi\w*|por\s+exemplo|exemplos?)(?!\w)", re.I
)  # fmt: skip
_LEADS = regex(
    r"(?::|\b(?:e\.\s?g\.|as\s+follows|such\s+as|like\s+this|consider)[.,:]?)\W*$|\be\.\s?g\.", re.I
)
"""Leads in to code, which may be an example; without code it gives none."""
LEAST_SAID = 4
"""Words of a sentence that gives an example without code."""
_POINTS = regex(r"\b(?:see|cf\.?|refer\s+to)\b[^.]{0,40}\b(?:examples?\b|e\.\s?g\.|instance)", re.I)
"""Only says where one is."""
_NUMBERED = regex(r"\b(?:example|listing|beispiel|exemple)\s+(?P<number>\d+(?:[.-]\d+)*)", re.I)
CALLED, NAMED, CODE_ALONE = 0.8, 0.6, 0.3
"""The chance that code with what leads in to it is an example of a thing, in a section called after
that or where the sentence names it, and that code is which only has its name: of some forty
answers in sections called so nine in ten were right."""
WITHOUT_CODE, SET_APART = 0.6, 0.75
"""Shares of it that are left without code, and for one set apart that does not name the thing."""
FAR = 80
"""Rows before and after a sentence in which the example stands that it names by its number."""


class _Example(NamedTuple):
    """Where an example stands."""

    sure: float
    """The chance that it is one of what is asked for."""
    first: int
    end: int
    """Rows of the sentences."""


def answer_example(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """The best example of what is asked for; None where none is asked for.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_ASKS, typed)
    thing = without_article(thing_in(asked["what"])) if asked else ""
    if not thing:
        return None
    found = replace(search(thing), question=typed.strip())
    best = max(_examples(document, thing), key=lambda e: (e.sure, -e.first), default=None)
    if best is None:
        return replace(found, sure=min(found.sure, NOT_GIVEN))
    told = told_by(document, found, best.first, best.end, best.sure)
    return replace(told, kind="overview: example")


def _examples(document: ReadDocument, thing: str) -> Iterator[_Example]:
    """What may be examples: in sections called after a thing, and where sentences name it."""
    sentences, wanted = document.text.sentences, content_of(document, thing)
    names = re.compile(rf"(?<![\w-]){re.escape(thing)}(?![\w-])", re.I)
    for section in document.outline.sections:
        if wanted and wanted <= content_of(document, section.title):
            rows = document.rows_of(document.under_heading(section), section.end_paragraph)
            yield from filter(None, (_at(document, row, CALLED, wanted) for row in rows))
    named = (row for row, said in enumerate(sentences) if names.search(said.text))  # "C++"
    for row in rows_with(document, sorted(wanted)) if wanted else named:
        said = sentences[row]
        if said.kind in ("listing", "works", "heading"):
            continue
        if said.kind == "code":
            if names.search(said.text):
                yield _Example(CODE_ALONE, row, end_of_code(document, row))
        elif (example := _at(document, row, NAMED, wanted)) is not None:
            yield example


def _at(document: ReadDocument, row: int, sure: float, wanted: frozenset[str]) -> _Example | None:
    """The example that a sentence gives, leads in to or names by its number; None where none is."""
    said = document.text.sentences[row]
    if said.kind not in ("body", "item", "entry", "caption"):
        return None
    named = _NUMBERED.search(said.text)
    if named is None:
        return _with_code(document, row, sure)
    if named.start():
        at = _numbered(document, row, named["number"])
        return None if at is None else _with_code(document, at, sure)
    is_of_it = wanted <= content_of(document, said.text)
    return _with_code(document, row, sure if is_of_it else SET_APART * sure)


def _with_code(document: ReadDocument, row: int, sure: float) -> _Example | None:
    """A sentence with the code that follows on it; surer than one without."""
    sentences = document.text.sentences
    said = sentences[row]
    gives = _GIVES.search(said.text) is not None and _POINTS.search(said.text) is None
    after = range(row + 1, min(row + 1 + NEAR, len(sentences)))
    code = next((k for k in after if sentences[k].kind == "code"), None)
    if code is not None and sentences[code].section == said.section:
        leads = gives or _LEADS.search(said.text) is not None
        return _Example(sure, row, end_of_code(document, code)) if leads else None
    is_said = gives and len(said.text.split()) >= LEAST_SAID and not said.text.endswith(":")
    return _Example(WITHOUT_CODE * sure, row, row + 1) if is_said else None


def _numbered(document: ReadDocument, row: int, number: str) -> int | None:
    """Row of what begins with "Example" and a number, near a sentence that names it."""
    sentences = document.text.sentences
    for at in range(max(0, row - FAR), min(row + FAR, len(sentences))):
        named = _NUMBERED.match(sentences[at].text)
        if named is not None and named["number"] == number and sentences[at].kind != "listing":
            return at
    return None


def end_of_code(document: ReadDocument, row: int) -> int:
    """The row after the code that begins in a row, as much of it as is quoted."""
    sentences, end = document.text.sentences, row + 1
    n_words = len(sentences[row].text.split())
    while end < min(row + MOST_ROWS, len(sentences)) and sentences[end].kind == "code":
        n_words += len(sentences[end].text.split())
        if n_words > MOST_CODE:
            break
        end += 1
    return end
