"""The widths of contents, pages and margin, kept for the next time."""

from PySide6.QtWidgets import QSplitter, QWidget


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

    def share(self, beside: QWidget, left: int, margin: int, part: float = 0.5) -> None:
        """Share the room of the pages between both places, with a margin of so many pixels.

        Args:
            beside: What is shown beside the pages, in the inner splitter.
            left: Pixels that the margin leaves to each place at least.
            margin: Of the margin, where that leaves enough.
            part: Of the room of both that the pages get.
        """
        whole = sum(self._inner.sizes())
        margin = min(margin, max(whole - 2 * left, 0))
        half = int((whole - margin) * part)
        sizes = [0] * self._inner.count()
        sizes[0], sizes[self._inner.indexOf(beside)], sizes[-1] = (
            half,
            whole - margin - half,
            margin,
        )
        self._inner.setSizes(sizes)
