"""Asked whom a work thanks: the sentences that give thanks, mostly in a section of their own."""

from __future__ import annotations

from dataclasses import replace
from itertools import takewhile
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.named import content_of
from wide_margin.core.digest.roles import Role, role_of_title
from wide_margin.core.digest.sentences import gives_thanks
from wide_margin.core.later import first_match, whole_forms
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from collections.abc import Callable, Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE, LISTED = 0.85, 0.6
"""The chance that sentences of thanks answer, and that what only stands under such a title does."""
NOT_SAID = 0.3
"""The chance at most that anything else does."""
MOST = 4
"""Sentences quoted at most."""
_WRITERS = r"(?:the\s+|its\s+)?(?:authors?|writers?|developers?|editors?|paper|document|book|manual|report|thesis|they|he|she|it)"
_FOR = r"(?:\s+(?:for|in)\s+(?P<what>.+?))?"
_ASKS = whole_forms(
    rf"(?:who|whom|which\s+people)\s+(?:does|do|did)\s+{_WRITERS}\s+(?:thank|acknowledge){_FOR}",
    rf"(?:who|which\s+people)\s+(?:is|are|was|were|gets?|has\s+been|have\s+been)\s+(?:thanked|acknowledged){_FOR}",
    rf"to\s+whom\s+(?:is|are|was|were)\s+{_WRITERS}\s+(?:grateful|thankful|indebted){_FOR}",
    rf"whom?\s+(?:is|are|was|were)\s+{_WRITERS}\s+(?:grateful|thankful|indebted)\s+to{_FOR}",
    r"(?:what\s+(?:is|are)\s+)?(?:the\s+|its\s+)?acknowledge?ments?",
    r"wem\s+(?:dankt|danken|dankte|dankten)\s+(?:der|die|das)?\s*\w+",
    r"qui\s+(?:est-ce\s+qu['’e]\s*)?(?:l['’]auteure?|les\s+auteurs|il|elle)\s+(?:remercie|remercient)(?:-t-(?:il|elle|ils))?",
    r"a\s+qui[eé]n(?:es)?\s+(?:agradece|agradecen|da\s+las\s+gracias)\s+(?:el|la|los|las)\s+\w+",
    r"chi\s+(?:ringrazia|ringraziano)\s+(?:l['’]|gli\s+|il\s+)?\w+",
)  # fmt: skip


def answer_thanks(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What says who is thanked, else at most the nearest; None where it is not asked.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_ASKS, typed)
    if asked is None:
        return None
    found, language = search(typed), document.index.language
    sentences = document.text.sentences
    said = [
        row for row, s in enumerate(sentences)
        if s.kind in ("body", "item", "entry", "note") and gives_thanks(s.text, language)
    ]  # fmt: skip
    rows = [row for row in said if _is_of_thanks(document, row)] or said
    if wanted := content_of(document, asked.groupdict().get("what") or ""):
        rows = [row for row in rows if wanted & content_of(document, sentences[row].text)] or rows
    sure = SURE if rows else LISTED
    rows = rows or [row for row in range(len(sentences)) if _is_of_thanks(document, row)]
    if not rows:
        return replace(found, sure=min(found.sure, NOT_SAID))
    end = rows[0] + len(_in_a_row(rows))
    return replace(told_by(document, found, rows[0], end, sure), kind="overview: thanks")


def _in_a_row(rows: Sequence[int]) -> list[int]:
    """The first of some rows with those that follow on it, as many as are quoted."""
    return [row for _, row in takewhile(
        lambda pair: pair[1] == rows[0] + pair[0], enumerate(rows[:MOST])
    )]  # fmt: skip


def _is_of_thanks(document: ReadDocument, row: int) -> bool:
    """Whether a sentence stands in a section of thanks, and is not its title."""
    said = document.text.sentences[row]
    if said.section < 0 or said.kind in ("heading", "running", "listing"):
        return False
    title = unnumbered(document.outline.sections[said.section].title)
    return role_of_title(title) is Role.THANKS
