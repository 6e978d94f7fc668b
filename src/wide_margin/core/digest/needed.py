"""Asked which version of a thing is needed: what gives one, and says that it must be had."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_within
from wide_margin.core.digest.defined import MENTIONED
from wide_margin.core.digest.named import SAYS_NOTHING
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_ASKS = regex(
    r"^\W*(?:which|what)\s+(?:is\s+the\s+)?(?:(?:minimum|minimal|lowest|oldest|earliest)\s+)?(?:versions?|releases?)\s+of\s+(?P<name>\S.*?)"
    r"\s+(?:is|are|do|does|must|should|has|have|will)\b.*\b(?:need\w*|requir\w+|necessary|installed?|depends?|support\w*|works?|run|use|have|follow|implement|target|conform\s+to|comply\s+with)\W*$"
    r"|^\W*(?:which|what)\s+(?P<before>\S.*?)\s+versions?\s+(?:is|are|do|does)\b.*\b(?:need\w*|requir\w+|necessary|depends?|support\w*|works?)\W*$",
    re.I,
)  # fmt: skip
"""Asks which version of a thing must be had, or may."""
_NUMBER = r"v?\d+(?:\.\d+)*(?:\.x)?"
_LEAST = r"(?:≥|⩾|>=)\s*"
"""A version, and the sign before the least one."""
_BOUND = rf"{_NUMBER}\s*(?:\(?or\s+(?:later|newer|higher|above|greater|better|more recent)|\+|and\s+(?:above|up|later|newer|higher))"
_MUST = r"(?:needs?|needed|requires?|required|depends?\s+on|at\s+least|minimum|must\s+(?:be|have)|works?\s+(?:only\s+)?(?:with|under|on)|compatible\s+with|tested\s+(?:with|on|under))"
"""A version, "or later" behind it, and what says that it must be had."""
_PLACE = regex(r"(?:\b(?:sections?|chapters?|pages?|tables?|figures?|appendix)|§)\s*\d[\d.]*", re.I)
APART, FAR = 40, 100
"""Letters between a name and its version, and between what says that it must be had and the name."""
SHORT = 2
"""Letters of a name that is told from small letters of code by its case."""
NEEDED, BOUND, OF_STANDARD = 0.75, 0.8, 0.6
"""The chance that what says so answers; of what says "or later" too; of what speaks of a standard in
that version."""
_STANDARD = r"(?:spec(?:ification)?s?|standards?|complian\w+|conforman\w+|support)"


def with_needed_version(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with the first sentence that says which version of a thing must be had."""
    asked = _ASKS.match(answer.question.strip())
    if asked is None or answer.reach.kind != "document":
        return answer
    name = (asked["name"] or asked["before"]).strip(" “”\"'")
    # "Quorble2.4" is one word; "r" is no R.
    exactly = "(?-i:" if len(name) <= SHORT else "(?:"
    named = rf"(?<!\w){exactly}{re.escape(name)})(?![^\W\d])"
    thing = rf"{named}(?:(?=\d)|.{{0,{APART}}}?(?<![\w.]))"
    at_least = re.compile(rf"{thing}(?:{_BOUND}|{_LEAST}{_NUMBER})", re.I)
    version = re.compile(
        rf"\b{_MUST}\b[^.;()]{{0,{FAR}}}?{thing}{_NUMBER}(?!\w)|{thing}{_NUMBER}\s.*\b{_MUST}\b", re.I
    )  # fmt: skip
    standard = re.compile(rf"{thing}{_NUMBER}\s+{_STANDARD}\b", re.I)
    sentences = document.text.sentences
    rows = [
        row for row, said in enumerate(sentences)
        if said.kind not in SAYS_NOTHING and name.lower() in said.text.lower()
    ]  # fmt: skip
    texts = {row: _PLACE.sub(" ", sentences[row].text) for row in rows}
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    for pattern, sure in ((at_least, BOUND), (version, NEEDED), (standard, OF_STANDARD)):
        found = [row for row in rows if pattern.search(texts[row])]
        if found and told and told[0] in found:
            return replace(answer, sure=max(answer.sure, sure))
        if found:
            return told_by(document, answer, found[0], found[0] + 1, sure)
    is_named = any(re.search(named, quote.text, re.I) for quote in answer.quotes)
    return answer if is_named else replace(answer, sure=min(answer.sure, MENTIONED))
