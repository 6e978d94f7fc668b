"""Asked what one has to know before reading: what says which knowledge is taken for granted."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.by_kind import n_in_front
from wide_margin.core.later import first_match, regex, whole_forms

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE = 0.8
"""The chance that such a sentence near the front tells it."""
_KNOW = (
    r"(?:know|understand|be\s+(?:familiar|acquainted)\s+with|have\s+(?:learn(?:t|ed)|read|studied))"
)
_KNOWLEDGE = (
    r"(?:knowledge|experience|skills?|background|familiarity|understanding|education|training)"
)
_BEFORE = (
    r"(?:first|beforehand|already|in\s+advance|(?:before|in\s+order\s+to|to)\s+(?:(?:I|you|one|we)\s+)?"
    r"(?:start|begin|read|us|follow|understand|study|work)\w*\b[^?]{0,40})"
)
_ASKS = whole_forms(
    rf"what\s+(?:do|does|should|must)\s+(?:I|you|one|we|readers?|the\s+reader)\s+(?:already\s+)?(?:(?:need|have)\s+to\s+)?{_KNOW}(?:\s+{_BEFORE})?",
    rf"(?:what|which)\s+(?:(?:prior|previous|basic|special|\w+)\s+)?{_KNOWLEDGE}\s+(?:is|are|does|do|must|should)\b[^?]{{0,60}}",
    rf"(?:is|are)\s+(?:any|some)\s+(?:prior|previous|special|\w+)?\s*{_KNOWLEDGE}\b[^?]{{0,40}}\b(?:needed|required|necessary|assumed|expected)",
    rf"(?:do|must|should)\s+(?:I|you|one|readers?)\s+(?:need|have)\s+(?:to\s+have\s+)?(?:any|some|a)?\s*(?:prior|previous|special)\s+{_KNOWLEDGE}(?:\s+{_BEFORE})?",
    r"(?:what\s+(?:are|is)\s+)?(?:the\s+)?prerequisites?(?:\s+(?:for|of|to)\s+(?:reading|using)?\s*(?:it|this(?:\s+\w+)?|the\s+(?:manual|guide|book|course|tutorial|text|document)))?",
    r"what\s+(?:is|does\s+(?:it|this(?:\s+\w+)?|the\s+\w+))\s+(?:assumed?|expect(?:ed)?|take(?:n)?\s+for\s+granted)(?:\s+of\s+(?:me|readers?|the\s+reader))?",
)  # fmt: skip
_TAKES = r"(?:assum\w+|presum\w+|expect\w+|suppos\w+|presuppos\w+|take(?:s|n)?\s+for\s+granted|requires?)"
_LEARNT = rf"(?:famil\w+|acquaint\w+|{_KNOWLEDGE}|knows?\b|understands?\b)"
_SAYS = regex(
    rf"\b(?:readers?|users?|you|we|it|I|this\s+\w+|the\s+(?:manual|guide|book|tutorial|text|document|author)s?|is|are|knowledge)\s+(?:\w+\s+){{0,2}}?{_TAKES}\b[^.;]{{0,80}}?\b{_LEARNT}"
    rf"|\b{_KNOWLEDGE}\s+(?:of|with|in)\s[^.;]{{1,80}}\s(?:is|are)\s+(?:\w+\s+)?(?:assumed|required|expected|needed|necessary|presupposed|helpful|useful)\b"
    rf"|\bprerequisites?\b(?!\s+(?:section|chapter|list))(?:\s\w+){{0,6}}?\s(?:is|are|include)\b|\b(?:no|without(?:\s+any)?)\s+(?:prior|previous|special)\s+{_KNOWLEDGE}\b"
    rf"|(?<!all )(?<!everything )(?<!what )\b(?:readers?|users?|you)\s+(?:should|must|need\s+to|ought\s+to)\s+(?:already\s+)?(?:be\s+(?:\w+ly\s+)?familiar|know\s+(?:how|the|some|about|a\s+little)|have\s+(?:some|a(?:t\s+least)?)\s+(?:\w+\s+){{0,2}}?{_KNOWLEDGE})",
    re.I,
)  # fmt: skip
_OF_MACHINES = regex(
    r"\b(?:functions?|routines?|commands?|algorithms?|method|scripts?|program|compiler|parser|kernel|servers?|clients?|macros?|packages?)\s+(?:\w+\s+)?(?:assumes?|expects?|requires?)\b",
    re.I,
)
"""What a program takes for granted is no knowledge of readers."""


def answer_known_before(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What says near the front which knowledge readers have; None where it is not asked or said.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    if first_match(_ASKS, typed) is None:
        return None
    sentences = document.text.sentences
    n_front = n_in_front(len(sentences))
    rows = [
        row for row, said in enumerate(sentences[:n_front])
        if said.kind in ("body", "item", "entry")
        and _SAYS.search(said.text) and not _OF_MACHINES.search(said.text)
    ]  # fmt: skip
    if not rows:
        return None
    first = rows[0]
    goes_on = first + 1 in rows and sentences[first + 1].paragraph == sentences[first].paragraph
    told = told_by(document, search(typed), first, first + 1 + goes_on, SURE)
    return replace(told, kind="overview: needs")
