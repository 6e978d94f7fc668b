"""What a quoted sentence leads in to: the list, the command or the line after its colon."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.lists import MAX_LIST_WORDS, items_after, leads_in
from wide_margin.core.answers.model import PERHAPS
from wide_margin.core.answers.question import read_question
from wide_margin.core.answers.quoting import quote_rows
from wide_margin.core.answers.within import rows_within
from wide_margin.core.digest.exemplified import end_of_code

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wide_margin.core.answers import Answer, Quote
    from wide_margin.core.document import ReadDocument

MOST_WORDS = 40
"""Words that are quoted of a paragraph which is led in to."""
_FOLLOWS = ("body", "code", "formula")
_OF_ONE_THING = ("who", "when", "where", "yes or no")
"""Kinds of question that no list answers."""


def with_what_follows(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with what its first unfinished sentence leads in to.

    "To update it, use this program:" says nothing without the line after it.
    """
    if answer.kind in _OF_ONE_THING:
        return answer
    rows = [rows_within(document, q.locators[0].spans) if q.locators else [] for q in answer.quotes]
    looked_at = rows if answer.sure >= PERHAPS else rows[:1]
    for k, its in enumerate(looked_at):
        if not its or _is_of_list(document, its[-1]):
            continue
        told = {row for others in rows for row in others}
        if its[-1] + 1 in told:  # it is quoted already
            continue
        if after := _after(document, answer, its[-1], told):
            return replace(
                answer, quotes=(*answer.quotes[: k + 1], *after, *answer.quotes[k + 1 :])
            )
    return answer


def _is_of_list(document: ReadDocument, row: int) -> bool:
    """Whether a sentence is an item that leads in to nothing but other items."""
    sentences = document.text.sentences
    follows = sentences[row + 1].kind if row + 1 < len(sentences) else ""
    is_led = leads_in(sentences[row].text) and follows in _FOLLOWS
    return sentences[row].kind == "item" and not is_led


def _after(document: ReadDocument, answer: Answer, row: int, told: set[int]) -> Sequence[Quote]:
    """The list that a sentence leads in to, else the paragraph right after it."""
    sentences = document.text.sentences
    is_item = sentences[row].kind == "item"  # of a list, which is not what it leads in to
    if not is_item and (items := items_after(document, row, set(), MAX_LIST_WORDS)):
        firsts = (rows_within(document, item.locators[0].spans)[0] for item in items)
        return [item for item, first in zip(items, firsts, strict=True) if first not in told]
    if row + 1 >= len(sentences):
        return ()
    following = sentences[row + 1]
    # "You can run it by typing" has no colon.
    is_cut = sentences[row].kind == "body" and sentences[row].text[-1:].isalnum()
    is_cut = is_cut and following.kind == "code"
    if not is_cut and not leads_in(sentences[row].text):
        return ()
    if following.kind not in _FOLLOWS or following.section != sentences[row].section:
        return ()
    if following.kind == "code":
        end = end_of_code(document, row + 1)
    else:
        end, n_words = row + 2, len(following.text.split())
        while end < len(sentences) and sentences[end].paragraph == following.paragraph:
            n_words += len(sentences[end].text.split())
            if n_words > MOST_WORDS:
                break
            end += 1
    return (quote_rows(document, read_question(answer.question), row + 1, end),)
