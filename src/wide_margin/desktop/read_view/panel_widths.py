"""The widths of contents, pages and margin, kept for the next time."""

from PySide6.QtWidgets import QSplitter


class PanelWidths:
    """Of the two splitters of the Read view."""

    def __init__(self, outer: QSplitter, inner: QSplitter) -> None:
        """The outer one divides contents from the rest, the inner one pages from margin."""
        self._outer, self._inner = outer, inner

    def now(self) -> list[int]:
        """As they are."""
        return [*self._outer.sizes(), *self._inner.sizes()]

    def restore(self, kept: object) -> None:
        """Take widths that were kept; anything else is left alone."""
        try:
            widths = [int(width) for width in kept]  # type: ignore[attr-defined]
        except (TypeError, ValueError):
            return
        if len(widths) == 4:
            self._outer.setSizes(widths[:2])
            self._inner.setSizes(widths[2:])
