"""The Outline view: sections, what the witnesses say of each, and setting it right."""

from wide_margin.desktop.outline_view.outline_view import OutlineView

__all__ = ["OutlineView"]
