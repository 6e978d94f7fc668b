"""What a page of corrections says about a sentence that is about to be quoted."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.outline.numbering import number_of

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.search import Query

_TITLE = regex(
    r"\b(?:corrections?|corrigend(?:a|um)|errat(?:a|um)|berichtigung(?:en)?|druckfehler|rectificatifs?)\b", re.I
)  # fmt: skip
_NAMES_PLACE = regex(
    r"^(?:(?:section|sect\.|chapter|§|abschnitt)\s*(?P<section>[A-Z]?\d*(?:\.\d+)*)|(?:page|p\.|seite)\s*(?P<page>\w+))", re.I
)  # fmt: skip


@lru_cache(maxsize=2)
def _lists_in(document: ReadDocument) -> tuple[int, ...]:
    """The sections that list corrections."""
    return tuple(k for k, s in enumerate(document.outline.sections) if _TITLE.search(s.title))


def corrections_of(
    document: ReadDocument, sentence: int, query: Query, used: set[int]
) -> list[int]:
    """Rows of the sentences that correct a passage on the matter of a question.

    A correction begins with the section or page that it corrects. Of those for the place of the
    sentence only the ones that share a word with the question are taken.

    Args:
        document: Read, with its outline.
        sentence: Row of the sentence to be quoted.
        query: The question's terms.
        used: Rows that are quoted already; the rows found are added.
    """
    sections = document.outline.sections
    listed = _lists_in(document)
    if not listed:
        return []
    place = document.text.sentences[sentence]
    numbers = _numbers_above(document, place.section)
    label = document.labels.of(place.page)
    wanted = {v for term in query.terms for v, weight in term.variants if weight == 1.0}
    found: list[int] = []
    for section in listed:
        if place.section == section:
            return []
        first, end = sections[section].first_paragraph, sections[section].end_paragraph
        named = False
        for row in document.rows_of(first, end):
            other = document.text.sentences[row]
            if match := _NAMES_PLACE.match(other.text):
                named = (match["section"] or "").rstrip(".") in numbers if match["section"] else (
                    match["page"] == label
                )  # fmt: skip
                starts = row
            elif other.paragraph != document.text.sentences[row - 1].paragraph:
                named = False
            if not named or not _shares(document, starts, row, wanted):
                continue
            if row not in used and len(found) < 2:
                found.append(row)
                used.add(row)
    return found


_NAME = regex(r"(?<![.!?:]\s)(?<=\s)[A-Z][\w’'-]+")


def is_about_another(correction: str, question: str) -> bool:
    """Whether a correction names something else than what the question names."""
    asked, named = set(_NAME.findall(question)), set(_NAME.findall(correction))
    return bool(asked and named) and not asked & named


def _numbers_above(document: ReadDocument, section: int) -> set[str]:
    """Numbers of a section and of the sections it lies in."""
    sections = document.outline.sections
    numbers: set[str] = set()
    while section >= 0:
        if number := number_of(sections[section].title):
            numbers.add(number.identifier)
        section = document.outline.parents[section]
    return numbers


def _shares(document: ReadDocument, start: int, row: int, wanted: set[int]) -> bool:
    index = document.index
    tokens = index.tokens[index.token_starts[start] : index.token_starts[row + 1]]
    return bool(wanted & set(tokens.tolist()))
