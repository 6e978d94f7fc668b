"""What several answers look for alike: the sentences that say something in the very words."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.named import SAYS_NOTHING, content_of
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from collections.abc import Callable, Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_MAYBE = regex(r"\b(?:if|whether|unless|when|once|in case)\b[^,;:]*$", re.I)
"""Before what is so only under a condition, or is asked."""


def rows_saying(document: ReadDocument, words: str, says: Callable[[str], object]) -> list[int]:
    """Rows of the sentences that have the words, but for the small ones, and say what is wanted.

    Args:
        document: It.
        words: Of the question.
        says: Whether the text of a sentence says it.
    """
    sentences = document.text.sentences
    return [
        row for row in rows_with(document, sorted(content_of(document, words)))
        if sentences[row].kind not in SAYS_NOTHING and says(sentences[row].text)
    ]  # fmt: skip


def is_said_plainly(text: str, pattern: re.Pattern[str]) -> bool:
    """Whether a text says what a pattern finds, and not under a condition."""
    match = pattern.search(text)
    return match is not None and not _MAYBE.search(text[: match.start()])


def told_by_first(
    document: ReadDocument, answer: Answer, rows: Sequence[int], sure: float, end: int = 0
) -> Answer:
    """The answer that the first of some rows gives; as it is, but surer, where it begins with one.

    Args:
        document: It.
        answer: What was found.
        rows: Of the sentences that say it; not empty.
        sure: The chance that these answer.
        end: The row after what is quoted; 0 for the first sentence alone.
    """
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    if told and told[0] in rows:
        return replace(answer, sure=max(answer.sure, sure))
    return told_by(document, answer, rows[0], end or rows[0] + 1, sure)
