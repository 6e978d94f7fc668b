"""The Map view: the document to scale, its sections as nested bars, and where things stand."""

from wide_margin.desktop.map_view.map_view import MapView

__all__ = ["MapView"]
