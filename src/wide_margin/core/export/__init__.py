"""Export: what is found and kept, in standard formats."""

from wide_margin.core.export.outline import FORMATS, export_outline
from wide_margin.core.export.pdf import write_bookmarks

__all__ = ["FORMATS", "export_outline", "write_bookmarks"]
