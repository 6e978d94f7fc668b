"""A translation facing the pages, paragraph by paragraph."""

from wide_margin.desktop.read_view.facing.column import FacingColumn

__all__ = ["FacingColumn"]
