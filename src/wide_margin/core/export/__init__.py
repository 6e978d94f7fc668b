"""Taking things away from a document, and bringing an outline back in, in open formats."""

from wide_margin.core.export.citations import ANSWER_FORMS, Source, Statement, answer_as, year_of
from wide_margin.core.export.outline import FORMATS, export_outline, section_row
from wide_margin.core.export.outline_in import read_outline
from wide_margin.core.export.pdf import write_bookmarks

__all__ = [
    "ANSWER_FORMS",
    "FORMATS",
    "Source",
    "Statement",
    "answer_as",
    "export_outline",
    "read_outline",
    "section_row",
    "write_bookmarks",
    "year_of",
]
