"""Pages that list places instead of saying something: contents pages and indexes."""

import re
from collections.abc import Sequence

from wide_margin.core.layout.model import Line

_LEADERS = re.compile(r"(?:[.·…_]\s?){4,}\s*(?:\d+|[ivxlc]+)?\s*$")
_ENDS_IN_PAGE = re.compile(r"(?:[\s,]+(?:\d{1,4}|[ivxlc]{1,6}|[A-Z]-?\d{1,3}))+\s*$")


def listing_pages(pages: Sequence[Sequence[Line]]) -> frozenset[int]:
    """Page indexes on which most lines end in leaders or page numbers."""
    found = set()
    for page, lines in enumerate(pages):
        texts = [line.text.replace("\t", " ").strip() for line in lines]
        texts = [text for text in texts if len(text) > 2]
        if len(texts) < 5:
            continue
        n_led = sum(bool(_LEADERS.search(text)) for text in texts)
        n_ending = sum(bool(_ENDS_IN_PAGE.search(text)) for text in texts)
        n_wordy = sum(len(text.split()) > 12 for text in texts)
        if n_led >= 0.35 * len(texts) or (
            n_ending >= 0.6 * len(texts) and n_wordy < 0.2 * len(texts)
        ):
            found.add(page)
    return frozenset(found)
