"""A document that has been read, and the places in it: every module above asks this room."""

from wide_margin.core.document.figures import Figure, figure_numbered, find_figures
from wide_margin.core.document.locators import Locator, locator_for, paragraph_locator
from wide_margin.core.document.model import ReadDocument, understand, with_outline
from wide_margin.core.document.places import Place, read_place, section_numbered, section_titled

__all__ = [
    "Figure",
    "Locator",
    "Place",
    "ReadDocument",
    "figure_numbered",
    "find_figures",
    "locator_for",
    "paragraph_locator",
    "read_place",
    "section_numbered",
    "section_titled",
    "understand",
    "with_outline",
]
