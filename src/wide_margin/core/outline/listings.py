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
    return n_ending >= 0.6 * len(texts) and n_wordy < 0.2 * len(texts)


def _ends_in_pages(text: str) -> bool:
    """Whether words and then page numbers stand in a line; a table's row has other figures."""
    if not _ENDS_IN_PAGE.search(text[-24:]):
        return False
    return bool(_WORDS.search(text)) and not _DECIMAL_INSIDE.search(text)


def listing_pages(pages: Sequence[Sequence[Line]]) -> frozenset[int]:
    """Page indexes that only list places."""
    return frozenset(page for page, lines in enumerate(pages) if is_listing(lines))
