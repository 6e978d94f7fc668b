"""Quotes: sentences verbatim, with the term or the head of the table that they belong to."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.answers.model import Quote
from wide_margin.core.answers.question import read_question
from wide_margin.core.answers.signs import emphasis_for
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers.model import Answer
    from wide_margin.core.answers.question import Question
    from wide_margin.core.document import Locator, ReadDocument

LONGEST_TERM = 14
"""A described term of more words, a function with many forms, is not quoted."""
_COUNTED = regex(r"\W*\d+\s+\S*[^\W\d]")
"""Begins the row of a number, and what it stands for."""
_OPTION = regex(r"\W{0,2}[–—-]{1,2}\w")
"""Begins the row of an option."""
MOST_SHOWN = 25
"""Words of code that is quoted with the rest of its sentence."""


def quote_rows(document: ReadDocument, question: Question, first: int, end: int) -> Quote:
    """Consecutive sentences, verbatim.

    A table's row comes with the head of its table, a description with the term it describes, the
    rest of a sentence with the code that stands in it; the
    place of what is said goes before that of what it belongs to.
    """
    sentences = document.text.sentences
    term = _rows_of_term(document, first)
    if term and term[1] == first:
        first = term[0]
    first = _with_display(document, first)
    text = _joined(document, first, end)
    locators: tuple[Locator, ...] = (locator_for(document, first, end),)
    if term and term[0] < first:
        text = f"{document.text.terms[sentences[first].term].text} … {text}"
        locators = (*locators, locator_for(document, *term))
    head = _head_row(document, first) if sentences[first].kind == "row" else first
    if head != first:
        text = f"{sentences[head].text} … {text}"
        locators = (*locators, locator_for(document, head))
    return Quote(text, locators, emphasis=emphasis_for(question.kind, text, question.text))


def _with_display(document: ReadDocument, row: int) -> int:
    """The row from which the code is quoted that a sentence goes on after."""
    sentences = document.text.sentences
    said, before = sentences[row], sentences[max(row - 1, 0)]
    if not row or not said.text[:1].islower() or said.kind != "body":
        return row
    if before.kind != "code" or before.page != said.page:
        return row
    first = document.rows_of(before.paragraph, before.paragraph + 1).start
    n_words = sum(len(sentences[k].text.split()) for k in range(first, row))
    return first if n_words <= MOST_SHOWN else row


def _joined(document: ReadDocument, first: int, end: int) -> str:
    """Sentences [first, end) as one text; items, rows and the next term described begin a line."""
    sentences, terms = document.text.sentences, document.text.terms
    parts = [_as_printed(document, first)]
    for row, (before, sentence) in enumerate(pairwise(sentences[first:end]), start=first + 1):
        is_apart = sentence.paragraph != before.paragraph and (
            bool({sentence.kind, before.kind} & {"item", "row", "code"})
            or sentence.term != before.term
        )
        if sentence.term >= 0 and terms[sentence.term].paragraph == before.paragraph:
            is_apart = False  # a description follows its term
        parts.append(("\n" if is_apart else " ") + _as_printed(document, row))
    return "".join(parts)


def _as_printed(document: ReadDocument, row: int) -> str:
    """A sentence; of code, line by line as it stands."""
    said = document.text.sentences[row]
    paragraph = document.paragraphs[said.paragraph]
    if said.kind != "code" or said.text != paragraph.text or len(paragraph.pieces) == 1:
        return said.text
    starts = [piece.at for piece in paragraph.pieces]
    lines = (said.text[at:end] for at, end in pairwise([*starts, len(said.text)]))
    return "\n".join(filter(None, map(str.strip, lines)))


def _rows_of_term(document: ReadDocument, row: int) -> tuple[int, int] | None:
    """Rows [first, end) of the sentences that name what a sentence describes, where it does not."""
    sentences = document.text.sentences
    if sentences[row].term < 0 or sentences[row].kind == "heading":
        return None
    term = document.text.terms[sentences[row].term]
    if term.is_label or len(term.text.split()) > LONGEST_TERM:
        return None
    end = row
    while end and sentences[end - 1].paragraph > term.paragraph:
        end -= 1
    first = end
    while first and sentences[first - 1].paragraph == term.paragraph:
        first -= 1
    if sentences[row].page > sentences[first].page + 1:
        return None  # too far away to be read together
    if sentences[first].kind == "entry":  # the term stands in the first sentence itself
        return (first, first + 1) if first < row else None
    return (first, end) if first < end else None


def told_by(document: ReadDocument, answer: Answer, first: int, end: int, sure: float) -> Answer:
    """The answer that the sentences [first, end) give instead of what was quoted."""
    quote = quote_rows(document, read_question(answer.question), first, end)
    return replace(answer, quotes=(quote,), missing=(), reason="", sure=sure)


def _head_row(document: ReadDocument, row: int) -> int:
    """The first row of the table that a row belongs to."""
    sentences = document.text.sentences
    head = row
    while (
        head
        and sentences[head - 1].kind == "row"
        and (
            sentences[head - 1].section == sentences[row].section
            and sentences[head - 1].page == sentences[row].page
        )
    ):
        head -= 1
    both = sentences[head].text, sentences[row].text
    # Of a list of options, or of numbers, the first is no head.
    is_list = all(map(_OPTION.match, both)) or all(map(_COUNTED.match, both))
    return row if is_list else head
