from .figures import Figure, figure_locator, figure_numbered, find_figures
from .locators import Locator, locator_for, paragraph_locator
from .model import ReadDocument, understand, with_outline
from .notes import Tie, find_notes
from .paths import PathsAt
from .places import Place, read_place, section_numbered, section_titled
from .tables import Cell, Table, find_tables
from .texts import ParagraphText, texts_of

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
    "figure_locator",
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
