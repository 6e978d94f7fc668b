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
        if len(widths) == self._outer.count() + self._inner.count():
            self._outer.setSizes(widths[:2])
            self._inner.setSizes(widths[2:])

    def share(self, left: int, margin: int) -> None:
        """Share the room of the pages between both places, with a margin of so many pixels.

        Args:
            left: Pixels that the margin leaves to each place at least.
            margin: Of the margin, where that leaves enough.
        """
        whole = sum(self._inner.sizes())
        margin = min(margin, max(whole - 2 * left, 0))
        half = (whole - margin) // 2
        self._inner.setSizes([half, whole - margin - half, margin])
