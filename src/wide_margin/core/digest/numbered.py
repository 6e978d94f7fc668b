"""Asked of one of several that a number tells apart: "version 2", "VST 2", "table of 1914"."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.defined import MENTIONED
from wide_margin.core.digest.imprint import MONTH_NAMES, has_date
from wide_margin.core.digest.named import SAYS_NOTHING, content_of
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Quote
    from wide_margin.core.document import ReadDocument

_NAMED = regex(
    r"(?<=\s)(?P<name>[A-Z][\w+-]*)[\s-](?P<number>\d+(?:\.\d+)*)(?![\w.]*\d|\s*(?:%|percent))"
)
"""A name with its number, within a question."""
_MONTH = regex(MONTH_NAMES, re.I)
"""A time lies within spans as well, and is minded by the search."""
OF_IT = 0.45
"""The chance that a sentence on the one that is asked about, with most of what else is asked,
answers."""
MOST_ASKED = 0.5
"""The share of what else is asked that it has at least."""


_RELEASED = regex(
    r"^\W*(?:(?P<when>when|on\s+(?:which|what)\s+(?:day|date)|in\s+(?:which|what)\s+year)\b|who\s+(?:made|wrote|released|published|did)\b).{0,60}?"
    r"\b(?:version|release|v\.?)\s?(?P<number>\d[\w.]*\w|\d)\b[^?]{0,40}\W*$", re.I
)  # fmt: skip
"""Asks when a version came out, or who made it."""
_MAKER = regex(
    r"\((?-i:[A-Z])[\w.’'-]+(?:\s+[\w.’'-]+)+\)|\bby\s+(?-i:[A-Z])[\w.’'-]+\s+(?-i:[A-Z])", re.I
)
"""Names somebody: "(Ann Bale)", "by Ann Bale"."""
MOST_OF_HEAD, OF_HEAD = 16, 0.75
"""Words of a line that heads what is told of a version, at most; and the chance that it tells when."""


def with_its_number(document: ReadDocument, answer: Answer) -> Answer:
    """The answer from what speaks of the one that a number names; less sure where nothing does.

    "Does it cover VST 2?" is not answered by what is said of VST 3. A number that the document does
    not give the thing tells nothing.
    """
    match = _NAMED.search(answer.question)
    if (
        match is None
        or _MONTH.fullmatch(match["name"])
        or not answer.quotes
        or answer.reach.kind != "document"
    ):
        return answer
    named = re.compile(
        rf"\b{re.escape(match['name'])}[\s-]?{re.escape(match['number'])}(?![\w.]*\d)", re.I
    )
    if any(named.search(_around(document, quote)) for quote in answer.quotes):
        return answer
    sentences = document.text.sentences
    rows = [
        row for row in rows_with(document, document.index.analyser.terms(match["name"])[:1])
        if sentences[row].kind not in SAYS_NOTHING and named.search(sentences[row].text)
    ]  # fmt: skip
    if not rows:
        return answer
    others = content_of(document, answer.question.replace(match[0], " "))
    held = [len(others & content_of(document, sentences[row].text)) for row in rows]
    if not others or max(held) < MOST_ASKED * len(others):
        return replace(answer, sure=min(answer.sure, MENTIONED))
    best = rows[held.index(max(held))]
    return told_by(document, answer, best, best + 1, OF_IT)


def with_its_release(document: ReadDocument, answer: Answer) -> Answer:
    """The answer to when a version came out, or who made it, from the line it stands under.

    "27 Oct 2014 (Guild of Wells) Wellkeep version 5.0" heads what is told of that version.
    """
    match = _RELEASED.match(answer.question)
    if match is None or answer.reach.kind != "document":
        return answer
    number, asks_when = match["number"], match["when"] is not None
    exact = re.compile(rf"(?<![\w.]){re.escape(number)}(?![\w.]*\d)")
    for row in rows_with(document, document.index.analyser.terms(number)):
        said = document.text.sentences[row]
        is_head = said.kind == "heading" or len(said.text.split()) <= MOST_OF_HEAD
        if not is_head or said.kind in ("listing", "works") or not exact.search(said.text):
            continue
        if has_date(said.text) if asks_when else _MAKER.search(said.text):
            return told_by(document, answer, row, row + 1, OF_HEAD)
    return answer


def _around(document: ReadDocument, quote: Quote) -> str:
    """What is quoted, with the titles it stands under."""
    told = rows_within(document, quote.locators[0].spans)
    titles = document.path_at(document.text.sentences[told[0]].section) if told else ()
    return " ".join((quote.text, *titles))
