"""Asked who paid for a work: what says by whom it was supported, mostly among the thanks."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.asked import names_thing
from wide_margin.core.digest.roles import Role, role_of_title
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
_DONE = (
    r"(?:work|research|stud(?:y|ies)|projects?|developments?|authors?|investigations?|effort|analys[ei]s|papers?|thesis|software"
    r"|survey|he|she|we|i|creation|writing|activities)"
)
_GIVERS = (
    r"(?:grants?|foundation|council|funds?|fund(?:ing|ed)|ministry|programme|program|universit(?:y|ies)|awards?|scholarship"
    r"|fellowship|institut\w*|agency|NSF|DFG|NIH|EPSRC|EU|european|commission|society|department|national|academy|cent(?:re|er)"
    r"|inc|ltd|gmbh|corporation|company|contract)"
)
_SAYS = regex(
    rf"\b{_DONE}\b[^;]{{0,90}}?\b(?:was|were|is|are|been|being|be)\s+(?:\w+ly\s+|also\s+){{0,2}}(?:supported|funded|financed|sponsored|paid\s+for)\b"
    rf"(?:\s+(?:in\s+part|partially|partly|financially|jointly))*\s*,?\s*(?:by|through|from|under|within|with|via)\b[^;]{{0,160}}\b{_GIVERS}\b"
    rf"|\b(?:funding|financial\s+(?:support|assistance)|(?:research|travel)\s+grants?)\b[^.;]{{0,60}}?\b(?:by|from|of|through)\b[^;]{{0,120}}\b{_GIVERS}\b"
    r"|\bsupport(?:ed)?\s+(?:by|from|of|under)\b[^;]{0,60}\bgrants?\b"
    r"|\b(?:gefördert|finanziert)\s+(?:durch|von|vom|aus)\b|\b(?:durch|von|vom)\s(?:\S+\s){1,10}(?:gefördert|finanziert)\b"
    r"|\bfinanc(?:ée?s?|iad[oa]s?)\s+(?:par|por|pelo|pela)\b|\bfinanziat[oaie]\s+d(?:a|al|alla|all['’])",
    re.I,
)  # fmt: skip
_MAY_SAY = regex(r"fund|finan|sponsor|paid|support|grant|förder", re.I)
"""What every such sentence has: nearly all others are passed over by it."""
_SOUGHT = regex(
    r"\b(?:if|may|can|could|must|should|request\w*|appl(?:y|ied|ies|ication)|eligible|will)\b", re.I
)
"""Speaks of money that somebody may be given."""
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
    """Whether a sentence says by whom something was paid for, and not who may ask for money."""
    said = document.text.sentences[row]
    if said.kind not in ("body", "item", "entry", "note") or not _MAY_SAY.search(said.text):
        return False
    return _SAYS.search(said.text) is not None and _SOUGHT.search(said.text) is None


def _is_usual(document: ReadDocument, row: int) -> bool:
    """Whether it stands in a section of thanks, or in one on that."""
    section = document.text.sentences[row].section
    if section < 0:
        return False
    title = unnumbered(document.outline.sections[section].title)
    return role_of_title(title) is Role.THANKS or _ON_IT.search(title) is not None
