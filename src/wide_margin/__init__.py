"""Wide Margin: read one long PDF with a wide margin beside it."""

__version__ = "0.1.0"
