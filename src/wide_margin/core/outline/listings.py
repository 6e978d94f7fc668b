"""Pages that list places instead of saying something: contents pages and indexes."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import LEADER

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

_LEADERS = regex(rf"(?:[{LEADER}]\s?){{4,}}\s*(?:(?:\d+|[ivxlc]+)(?:\s?[{LEADER}])?)?\s*$")
_WORDS = regex(r"[^\W\d_]{2}")
_DECIMAL_INSIDE = regex(r"[^\W\d_].*\s\d+[.,]\d")
_ENDS_IN_PAGE = regex(r"(?:[\s,]+(?:\d{1,4}|[ivxlc]{1,6}|[A-Z]-?\d{1,3}))+\s*$")


def is_listing(lines: Sequence[Line]) -> bool:
    """Whether most lines of a page end in leaders or page numbers."""
    texts = [line.text.replace("\t", " ").strip() for line in lines]
    texts = [text for text in texts if len(text) > 2]
    if len(texts) < 5:
        return False
    n_led = sum("." in text[-12:] and bool(_LEADERS.search(text)) for text in texts)
    if n_led >= 0.35 * len(texts):
        return True
    n_ending = sum(text[-1].isalnum() and _ends_in_pages(text) for text in texts)
    n_wordy = sum(text.count(" ") > 11 for text in texts)
    return (n_ending >= 0.6 * len(texts) and n_wordy < 0.2 * len(texts)) or _lists_titles(texts)


ROWS_OF_TITLES, OF_TITLES, OF_DEEP = 20, 0.85, 0.15
"""Rows of a page that lists titles without their pages, the share of them that have a number in
front and no stop behind, and of those whose number has several parts."""
_TITLE_ROW = regex(r"(?P<id>(?:\d{1,3}|[A-Z])(?:\.\d{1,3})*)\.?\s+[^\W\d_](?:.*[^.;:,!\s])?$")


def _lists_titles(texts: Sequence[str]) -> bool:
    """Whether the rows of a page are the numbered titles of sections and nothing else."""
    if len(texts) < ROWS_OF_TITLES:
        return False
    numbers = [
        match["id"] for text in texts
        if (match := _TITLE_ROW.match(text)) and not _DECIMAL_INSIDE.search(text)
    ]  # fmt: skip
    n_deep = sum("." in number for number in numbers)
    return len(numbers) >= OF_TITLES * len(texts) and n_deep >= OF_DEEP * len(texts)


def _ends_in_pages(text: str) -> bool:
    """Whether words and then page numbers stand in a line; a table's row has other figures."""
    if not _ENDS_IN_PAGE.search(text[-24:]):
        return False
    return bool(_WORDS.search(text)) and not _DECIMAL_INSIDE.search(text)


def listing_pages(pages: Sequence[Sequence[Line]]) -> frozenset[int]:
    """Page indexes that only list places."""
    return frozenset(page for page, lines in enumerate(pages) if is_listing(lines))
