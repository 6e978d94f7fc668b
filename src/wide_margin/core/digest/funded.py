"""Asked who paid for a work: what says by whom it was supported, mostly among the thanks."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.asked import names_thing
from wide_margin.core.digest.roles import Role, role_of_title
from wide_margin.core.digest.sentences import says_who_paid
from wide_margin.core.later import first_match, regex, whole_forms
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE = 0.85
"""The chance that such a sentence says who paid: of nineteen on some three hundred documents all
did, one of them of a forerunner."""
NOT_SAID = 0.3
"""The chance at most that what only speaks of money does: none of five did."""
_PAID = r"(?:funded|financed|sponsored|paid\s+for|financially\s+supported|supported\s+financially)"
_WORK = (
    r"(?:work|research|stud(?:y|ies)|projects?|developments?|papers?|reports?|surveys?|thesis|manual|guide|handbook|book"
    r"|documents?|package|software|library|programs?|investigation|article|analysis|creation|writing)"
)
_OF_IT = rf"(?:(?:the|this|that|their|its|his|her|all\s+this)\s+(?:\w+\s+){{0,2}}?{_WORK}|it|this|(?P<thing>[\w./-]+(?:\s[\w./-]+)?))"
_ABROAD = (
    r"(?:wer\s+hat\s+.{0,40}(?:finanziert|gefördert|bezahlt)|von\s+wem\s+wurde\s+.{0,40}(?:finanziert|gefördert)"
    r"|qui\s+a\s+(?:financé|payé)\s+.{0,40}|par\s+qui\s+.{0,40}financée?|qui[eé]n\s+(?:financió|pagó|ha\s+financiado)\s+.{0,40}"
    r"|chi\s+ha\s+(?:finanziato|pagato)\s+.{0,40}|quem\s+(?:financiou|pagou)\s+.{0,40})"
)
_ASKS = whole_forms(
    rf"(?:who|(?:which|what)\s+(?:\w+\s+){{1,3}}?)\s*(?:has\s+|have\s+)?(?:{_PAID}|funds?|finances?|sponsors?|pays?\s+for)\s+{_OF_IT}",
    rf"(?:who|by\s+whom|how|which\s+\w+)\s+(?:was|is|were)\s+{_OF_IT}\s+{_PAID}(?:\s+by)?",
    rf"(?:was|is|were)\s+{_OF_IT}\s+{_PAID}(?:\s+by\s+(?:anyone|anybody|someone|somebody|whom|a\s+grant|any\s+\w+))?",
    rf"(?:what|who)\s+(?:is|was|are|were)\s+(?:the|its|their)\s+(?:funding|funders?|sponsors?|(?:source|sources)\s+of\s+funding|funding\s+(?:sources?|agency|body))"
    rf"(?:\s+(?:of|for|behind)\s+{_OF_IT})?",
    r"(?:who\s+gave|where\s+did)\s+the\s+(?:money|grant|funding)(?:\s+(?:for\s+(?:it|this|the\s+\w+)|come\s+from))?",
    r"(?:the\s+)?funding(?:\s+sources?)?",
    _ABROAD,
)  # fmt: skip
_ON_IT = regex(r"\bfunding|\bsponsor|\bförder|\bfinan", re.I)
"""In the title of a section on that."""


def answer_funding(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What says by whom the work was paid for, else at most the nearest; None where it is not asked.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_ASKS, typed)
    if asked is None:
        return None
    thing = asked.groupdict().get("thing")
    if thing and not names_thing(document, thing):
        return None
    rows = [row for row in range(len(document.text.sentences)) if _tells(document, row)]
    found = search(typed)
    if not rows:
        return replace(found, sure=min(found.sure, NOT_SAID))
    best = min(rows, key=lambda row: (not _is_usual(document, row), row))
    return replace(told_by(document, found, best, best + 1, SURE), kind="overview: funding")


def _tells(document: ReadDocument, row: int) -> bool:
    """Whether a sentence of the text says by whom something was paid for."""
    said = document.text.sentences[row]
    return said.kind in ("body", "item", "entry", "note") and says_who_paid(said.text)


def _is_usual(document: ReadDocument, row: int) -> bool:
    """Whether it stands in a section of thanks, or in one on that."""
    section = document.text.sentences[row].section
    if section < 0:
        return False
    title = unnumbered(document.outline.sections[section].title)
    return role_of_title(title) is Role.THANKS or _ON_IT.search(title) is not None
