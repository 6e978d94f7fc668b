"""The Read view: pages with the spine and the contents at their left, the margin at their right."""

from wide_margin.desktop.read_view.read_view import ReadView

__all__ = ["ReadView"]
