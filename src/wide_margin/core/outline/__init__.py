"""Outline: the sections of a document, where they start and end, and how we know."""

from wide_margin.core.outline.build import anchored, build_outline, close_sections
from wide_margin.core.outline.contents import Contents, ContentsEntry, find_contents
from wide_margin.core.outline.listings import is_listing, listing_pages
from wide_margin.core.outline.model import WITNESSES, Disagreement, Outline, Reading, Section

__all__ = [
    "WITNESSES",
    "Contents",
    "ContentsEntry",
    "Disagreement",
    "Outline",
    "Reading",
    "Section",
    "anchored",
    "build_outline",
    "close_sections",
    "find_contents",
    "is_listing",
    "listing_pages",
]
