"""Asked where the document's thing may be had from: what says so with an address of the web."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.gist import own_words_of
from wide_margin.core.digest.telling import THING
from wide_margin.core.later import first_match, regex, whole_forms
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from collections.abc import Callable, Set

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE = 0.8
"""The chance that such a sentence says it: of twenty in 167 manuals and papers seventeen did."""
_IT = rf"(?:it|this|one|a\s+copy(?:\s+of\s+it)?|(?:the|this)\s+(?:latest\s+)?(?:{THING}|version|release|source(?:\s+code)?|sources|code|binar(?:y|ies)|installer)|(?P<name>[\w./+-]+))"
_GET = r"(?:get|download|obtain|find|fetch)"
_ASKS = whole_forms(
    rf"(?:where|how)\s+(?:can|could|do|may|should|would)\s+(?:i|we|one|you)\s+(?:{_GET}|get\s+hold\s+of)\s+{_IT}(?:\s+from)?",
    rf"from\s+where\s+(?:can|could|do|may|should)\s+(?:i|we|one|you)\s+{_GET}\s+{_IT}",
    rf"where\s+(?:is|are)\s+{_IT}\s+(?:available|hosted|to\s+be\s+had)(?:\s+from)?",
    rf"where\s+(?:can|may|could)\s+{_IT}\s+be\s+(?:downloaded|found|had|obtained|gotten)(?:\s+from)?",
    r"(?:what(?:['’]s|\s+is)\s+)?(?:the|its)\s+(?:home\s?page|web\s?site|web\s?page|web\s+address|url)(?:\s+of\s+(?:the|this)\s+\w+)?",
    r"(?:does\s+it|do\s+they)\s+have\s+a\s+(?:home\s?page|web\s?site|web\s?page)",
)  # fmt: skip
_ADDRESS = regex(r"(?:https?|ftp)://\S|\bwww\.\w", re.I)
_WHOLE_ADDRESS = regex(r"(?:(?:https?|ftp)://|\bwww\.)\S+", re.I)
_ALONE = regex(r"^\W*(?:(?:https?|ftp)://|www\.)\S+\W*$", re.I)
"""An address in a line of its own."""
_HAD = regex(
    r"\b(?:available|download\w*|obtain(?:ed|able)?|home\s?page|web\s?(?:site|page)|hosted|repositor(?:y|ies)|can\s+be\s+(?:found|had)"
    r"|distributed\s+(?:from|at|via|through|on|by)|get\s+(?:it|the)\b)", re.I
)  # fmt: skip
_OF_IT = regex(
    rf"^\W*(?:it|(?:this|the)\s+(?:(?:latest|current|newest)\s+)?(?:{THING}|version|release|source(?:s|\s+code)?|binaries|installer))\b"
    r"|\bthe\s+source\s+code\b|\b(?:latest|new|newest|current)\s+versions?\b|^\W*sources?\b", re.I
)  # fmt: skip
"""Speaks of the thing without its name."""
_OTHERS = regex(
    r"\b(?:if\s+you\s+wish|specifications?|information|details|documentation|manuals?|tutorials?|examples?|help|support|licen[sc]e|data|article|paper|requires?|needs?|depends?|based\s+on)\b",
    re.I,
)
"""What else is available at an address, and what it needs from elsewhere."""


def answer_had_from(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What says where the thing may be had from; None where that is not asked or not said.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_ASKS, typed)
    if asked is None:
        return None
    own = own_words_of(document)
    name = asked.groupdict().get("name") or ""
    if name and not own & set(words(name.lower())):
        return None
    row = _row_saying(document, own)
    if row is None:
        return None
    sentences = document.text.sentences
    end = row + 1 if _ADDRESS.search(sentences[row].text) else row + 2
    return replace(told_by(document, search(typed), row, end, SURE), kind="overview: source")


def _row_saying(document: ReadDocument, own: Set[str]) -> int | None:
    """The first sentence with an address that says where the thing is to be had."""
    sentences = document.text.sentences
    for row, said in enumerate(sentences):
        if said.kind not in ("body", "item", "entry", "note") or not _HAD.search(said.text):
            continue
        after = sentences[row + 1].text if row + 1 < len(sentences) else ""
        if not (_ADDRESS.search(said.text) or _ALONE.match(after)):
            continue
        is_of_it = _OF_IT.search(said.text) is not None or bool(own & set(words(said.text.lower())))
        if is_of_it and not _OTHERS.search(_WHOLE_ADDRESS.sub(" ", said.text)):
            return row
    return None
