from .furniture import Furniture, find_furniture
from .lines import lines_of
from .model import Line, Paragraph, Piece, SpanOnPage, usual_size
from .page_labels import PageLabels, label_pages, page_shown
from .paragraphs import BEFORE_DASH, NOTE_MARK, RUN_IN, count_words, paragraphs_of, vocabulary
from .selecting import TextLayer, boxes_of
from .text import (
    BULLETS,
    STOPS,
    UNSPACED,
    fold,
    folded_with_places,
    is_spaced,
    is_torn,
    tidy,
    word_count,
)
from .typescript import as_typed

__all__ = [
    "BEFORE_DASH",
    "BULLETS",
    "NOTE_MARK",
    "RUN_IN",
    "STOPS",
    "UNSPACED",
    "Furniture",
    "Line",
    "PageLabels",
    "Paragraph",
    "Piece",
    "SpanOnPage",
    "TextLayer",
    "as_typed",
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
    "word_count",
]
