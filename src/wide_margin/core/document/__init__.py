"""A document that has been read, and the places in it: every module above asks this room."""

from wide_margin.core.document.figures import Figure, figure_numbered, find_figures
from wide_margin.core.document.locators import Locator, locator_for, paragraph_locator
from wide_margin.core.document.model import ReadDocument, understand, with_outline
from wide_margin.core.document.notes import Tie, find_notes
from wide_margin.core.document.paths import PathsAt
from wide_margin.core.document.places import Place, read_place, section_numbered, section_titled
from wide_margin.core.document.tables import Cell, Table, find_tables
from wide_margin.core.document.texts import ParagraphText, texts_of

__all__ = [
    "Cell",
    "Figure",
    "Locator",
    "ParagraphText",
    "PathsAt",
    "Place",
    "ReadDocument",
    "Table",
    "Tie",
    "figure_numbered",
    "find_figures",
    "find_notes",
    "find_tables",
    "locator_for",
    "paragraph_locator",
    "read_place",
    "section_numbered",
    "section_titled",
    "texts_of",
    "understand",
    "with_outline",
]
