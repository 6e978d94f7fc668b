"""Outline: the sections of a document, where they start and end, and how we know."""

from wide_margin.core.outline.build import build_outline
from wide_margin.core.outline.listings import is_listing, listing_pages
from wide_margin.core.outline.model import Outline, Section

__all__ = ["Outline", "Section", "build_outline", "is_listing", "listing_pages"]
