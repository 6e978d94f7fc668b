"""A list whose rows are of many heights, quick for thousands of them.

The heights of rows that nobody sees are guessed until there is time to measure them. So a list of
5,000 rows can show its last one without setting the words of all that stand above it.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from PySide6.QtCore import (
    QItemSelection,
    QItemSelectionModel,
    QModelIndex,
    QPersistentModelIndex,
    QPoint,
    QRect,
    Qt,
    QTimer,
)
from PySide6.QtGui import QPainter, QPaintEvent, QRegion, QResizeEvent
from PySide6.QtWidgets import QAbstractItemView, QStyle, QStyleOptionViewItem, QWidget

from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    import numpy as np

    from wide_margin.core.geometry import BoolArray, IntArray
else:
    np = loaded_later("numpy")

MEASURED_AT_ONCE = 100
"""Rows measured between two events, some 7 ms of work."""
GUESSED = 60
"""Pixels of a row that is not measured yet, where none is."""
Index = QModelIndex | QPersistentModelIndex
_Move = QAbstractItemView.CursorAction
_Hint = QAbstractItemView.ScrollHint


class TallRows(QAbstractItemView):
    """Rows of a flat model, each as high in pixels as the delegate's size hint says.

    The model may be reset and its rows may change; rows that come or go one by one it does not see.
    """

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._heights: IntArray = np.zeros(0, np.int64)
        self._is_measured: BoolArray = np.zeros(0, np.bool_)
        self._tops: IntArray = np.zeros(1, np.int64)
        self._idle = QTimer(self)
        self._idle.setInterval(0)
        self._idle.timeout.connect(self._measure_more)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)

    def forget_heights(self) -> None:
        """Measure all rows anew, as when their width changed; the top one stays at the top."""
        top, within = self._at_top()
        self._begin(len(self._heights))
        self._go_to(top, within)

    def reset(self) -> None:
        """Show the model from its beginning."""
        super().reset()
        self._begin(self.model().rowCount() if self.model() is not None else 0)
        self._go_to(0, 0)

    def _begin(self, n: int) -> None:
        """Guess the heights of n rows by those that were measured last."""
        seen = self._heights[self._is_measured]
        guess = int(np.median(seen)) if len(seen) else GUESSED
        self._heights = np.full(n, guess, np.int64)
        self._is_measured = np.zeros(n, np.bool_)
        self._sum_up()
        self._idle.start()

    def _go_to(self, row: int, within: int) -> None:
        """Put a row to the top, some pixels of it scrolled away."""
        self.verticalScrollBar().setValue(int(self._tops[row]) + within)
        self._measure_from(self.verticalOffset())
        self.viewport().update()

    def _sum_up(self) -> None:
        self._tops = np.concatenate(([0], np.cumsum(self._heights)))
        self.updateGeometries()

    def _measure(self, rows: IntArray | range) -> bool:
        """Measure those that are not yet; whether a height changed."""
        option = QStyleOptionViewItem()
        self.initViewItemOption(option)
        model, delegate, changed = self.model(), self.itemDelegate(), False
        for row in rows:
            if self._is_measured[row]:
                continue
            height = delegate.sizeHint(option, model.index(int(row), 0)).height()
            changed = changed or height != self._heights[row]
            self._heights[row], self._is_measured[row] = height, True
        return changed

    def _measure_from(self, y: int) -> None:
        """Measure the rows that are seen if y stands at the top; no row above moves."""
        row, room = self._row_at(y), self.viewport().height()
        changed = False
        while row < len(self._heights) and room > 0:
            changed = self._measure(range(row, row + 1)) or changed
            room -= int(self._heights[row])
            row += 1
        if changed:
            self._sum_up()

    def _measure_more(self) -> None:
        """Measure some of the rest while nothing else is to be done; what is seen stays."""
        rest = np.flatnonzero(~self._is_measured)[:MEASURED_AT_ONCE]
        if not len(rest):
            self._idle.stop()
            return
        top, within = self._at_top()
        if self._measure(rest):
            self._sum_up()
            self.verticalScrollBar().setValue(int(self._tops[top]) + within)

    def _row_at(self, y: int) -> int:
        """The row at a height of the whole list."""
        return max(int(np.searchsorted(self._tops, y, side="right")) - 1, 0)

    def _at_top(self) -> tuple[int, int]:
        """The row at the top, and how much of it has been scrolled away."""
        row = min(self._row_at(self.verticalOffset()), max(len(self._heights) - 1, 0))
        return row, self.verticalOffset() - int(self._tops[row])

    def updateGeometries(self) -> None:
        """The scroll bar is as long as all rows together."""
        height = self.viewport().height()
        bar = self.verticalScrollBar()
        bar.setPageStep(height)
        bar.setSingleStep(GUESSED // 2)
        bar.setRange(0, max(int(self._tops[-1]) - height, 0))
        super().updateGeometries()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Another width breaks the words elsewhere."""
        super().resizeEvent(event)
        if event.oldSize().width() != event.size().width():
            self.forget_heights()
        else:
            self._measure_from(self.verticalOffset())
            self.updateGeometries()

    def verticalOffset(self) -> int:
        """Pixels scrolled away."""
        return self.verticalScrollBar().value()

    def horizontalOffset(self) -> int:
        """Nothing is scrolled sideways."""
        return 0

    def isIndexHidden(self, index: Index) -> bool:
        """None is."""
        return False

    def visualRect(self, index: Index) -> QRect:
        """Where a row stands in the viewport."""
        if not index.isValid() or index.row() >= len(self._heights):
            return QRect()
        top = int(self._tops[index.row()]) - self.verticalOffset()
        return QRect(0, top, self.viewport().width(), int(self._heights[index.row()]))

    def indexAt(self, point: QPoint) -> QModelIndex:
        """The row at a point of the viewport."""
        y = point.y() + self.verticalOffset()
        if not 0 <= y < self._tops[-1]:
            return QModelIndex()
        return self.model().index(self._row_at(y), 0)

    def scrollTo(self, index: Index, hint: _Hint = _Hint.EnsureVisible) -> None:
        """Bring a row into sight, with as little scrolling as that takes."""
        if not index.isValid() or index.row() >= len(self._heights):
            return
        row, room = index.row(), self.viewport().height()
        first, above = row, 0
        while first >= 0 and above < room:  # what will stand above it is measured first
            self._measure(range(first, first + 1))
            above += int(self._heights[first])
            first -= 1
        self._sum_up()
        top, bottom, offset = int(self._tops[row]), int(self._tops[row + 1]), self.verticalOffset()
        if hint is _Hint.PositionAtTop or (hint is _Hint.EnsureVisible and top < offset):
            offset = top
        elif hint is _Hint.PositionAtBottom or (
            hint is _Hint.EnsureVisible and bottom > offset + room
        ):
            offset = min(bottom - room, top)
        elif hint is _Hint.PositionAtCenter:
            offset = (top + bottom - room) // 2
        self.verticalScrollBar().setValue(offset)
        self._measure_from(self.verticalOffset())
        self.viewport().update()

    def moveCursor(self, action: _Move, modifiers: Qt.KeyboardModifier) -> QModelIndex:
        """The row that a key leads to; those that cannot be chosen are passed over."""
        n, row = len(self._heights), self.currentIndex().row()
        step, page = 1, max(self.viewport().height(), 1)
        if action in (_Move.MoveHome, _Move.MoveEnd):
            row, step = (0, 1) if action is _Move.MoveHome else (n - 1, -1)
        elif action in (_Move.MovePageUp, _Move.MovePageDown):
            step = -1 if action is _Move.MovePageUp else 1
            row = min(self._row_at(max(int(self._tops[max(row, 0)]) + step * page, 0)), n - 1)
        else:
            step = -1 if action in (_Move.MoveUp, _Move.MovePrevious, _Move.MoveLeft) else 1
            row += step
        for way in (step, -step):
            at = row
            while 0 <= at < n:
                index = self.model().index(at, 0)
                if self.model().flags(index) & Qt.ItemFlag.ItemIsSelectable:
                    return index
                at += way
            if action not in (_Move.MovePageUp, _Move.MovePageDown):
                break
        return self.currentIndex()

    def setSelection(self, rect: QRect, command: QItemSelectionModel.SelectionFlag) -> None:
        """Choose the rows that a rectangle of the viewport touches."""
        rect, offset = rect.normalized(), self.verticalOffset()
        n = len(self._heights)
        if not n:
            return
        first = min(self._row_at(rect.top() + offset), n - 1)
        last = min(self._row_at(max(rect.bottom(), rect.top()) + offset), n - 1)
        model = self.model()
        self.selectionModel().select(
            QItemSelection(model.index(first, 0), model.index(last, 0)), command
        )

    def visualRegionForSelection(self, selection: QItemSelection) -> QRegion:
        """What has to be painted when a selection changes."""
        region, seen = QRegion(), self.viewport().rect()
        for piece in selection.toList():
            area = self.visualRect(piece.topLeft()).united(self.visualRect(piece.bottomRight()))
            region += QRegion(area & seen)
        return region

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the rows that are seen."""
        self._measure_from(self.verticalOffset())
        model, chosen = self.model(), self.selectionModel()
        option = QStyleOptionViewItem()
        self.initViewItemOption(option)
        painter = QPainter(self.viewport())
        bottom = event.rect().bottom() + self.verticalOffset()
        row = self._row_at(max(event.rect().top() + self.verticalOffset(), 0))
        while row < len(self._heights) and self._tops[row] <= bottom:
            index = model.index(row, 0)
            option.rect = self.visualRect(index)
            option.state &= ~QStyle.StateFlag.State_Selected
            if chosen.isSelected(index):
                option.state |= QStyle.StateFlag.State_Selected
            self.itemDelegate().paint(painter, option, index)
            row += 1
        painter.end()

    def dataChanged(self, first: Index, last: Index, roles: Any = ()) -> None:
        """Other words may need another height."""
        super().dataChanged(first, last, roles)
        self._is_measured[first.row() : last.row() + 1] = False
        self._idle.start()
        self.viewport().update()
