"""Layout: from characters with boxes to lines and paragraphs in reading order."""

from wide_margin.core.layout.furniture import Furniture, find_furniture
from wide_margin.core.layout.lines import lines_of
from wide_margin.core.layout.model import Line, Paragraph, Piece, SpanOnPage, usual_size
from wide_margin.core.layout.page_labels import PageLabels, label_pages, page_shown
from wide_margin.core.layout.paragraphs import (
    NOTE_MARK,
    RUN_IN,
    count_words,
    paragraphs_of,
    vocabulary,
)
from wide_margin.core.layout.selecting import TextLayer, boxes_of
from wide_margin.core.layout.text import (
    BULLETS,
    UNSPACED,
    fold,
    folded_with_places,
    is_spaced,
    is_torn,
    tidy,
)

__all__ = [
    "BULLETS",
    "NOTE_MARK",
    "RUN_IN",
    "UNSPACED",
    "Furniture",
    "Line",
    "PageLabels",
    "Paragraph",
    "Piece",
    "SpanOnPage",
    "TextLayer",
    "boxes_of",
    "count_words",
    "find_furniture",
    "fold",
    "folded_with_places",
    "is_spaced",
    "is_torn",
    "label_pages",
    "lines_of",
    "page_shown",
    "paragraphs_of",
    "tidy",
    "usual_size",
    "vocabulary",
]
