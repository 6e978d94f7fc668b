"""The Commonplace view: all that was kept of a document, sorted, searched and taken away."""

from wide_margin.desktop.commonplace_view.commonplace_view import CommonplaceView

__all__ = ["CommonplaceView"]
