"""A layout of words in lines: what does not fit on one goes on in the next."""

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem, QWidget


class Flow(QLayout):
    """Puts its widgets side by side, each at its own size, in as many lines as they need."""

    def __init__(self, apart: int = 12, between: int = 4) -> None:
        """Set the pixels between widgets of a line, and between lines."""
        super().__init__()
        self._apart, self._between = apart, between
        self._items: list[QLayoutItem] = []
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem) -> None:
        """Take a widget in."""
        self._items.append(item)

    def count(self) -> int:
        """How many widgets there are."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        """One of them."""
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        """Take one out."""
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def expandingDirections(self) -> Qt.Orientation:
        """It takes no more room than it needs."""
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        """The height follows from the width."""
        return True

    def heightForWidth(self, width: int) -> int:
        """Pixels that the lines take at a width."""
        return self._lay(QRect(0, 0, width, 0), moves=False)

    def setGeometry(self, rect: QRect) -> None:
        """Move the widgets to their places."""
        super().setGeometry(rect)
        self._lay(rect, moves=True)

    def sizeHint(self) -> QSize:
        """As small as the widest widget."""
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        """As small as the widest widget."""
        size = QSize()
        for item in self._items:
            if not _is_hidden(item.widget()):
                size = size.expandedTo(item.minimumSize())
        return size

    def _lay(self, rect: QRect, *, moves: bool) -> int:
        """Go through the lines, moving the widgets if wanted; the height they take."""
        x, y, line = rect.x(), rect.y(), 0
        for item in self._items:
            if _is_hidden(item.widget()):
                continue
            size = item.sizeHint()
            if x > rect.x() and x + size.width() > rect.right() + 1:
                x, y, line = rect.x(), y + line + self._between, 0
            if moves:
                item.setGeometry(QRect(QPoint(x, y), size))
            x += size.width() + self._apart
            line = max(line, size.height())
        return y + line - rect.y()


def _is_hidden(widget: QWidget | None) -> bool:
    return widget is None or widget.isHidden()
