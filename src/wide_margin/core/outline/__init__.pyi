from .build import anchored, build_outline
from .contents import Contents, ContentsEntry, find_contents
from .listings import is_listing, listing_pages
from .model import WITNESSES, Disagreement, Outline, Reading, Section, close_sections

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
