"""The map to point at: by mouse and by keyboard."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPixmap, QResizeEvent
from PySide6.QtWidgets import QWidget

from wide_margin.desktop.look import DAY
from wide_margin.desktop.map_view.drawing import HEAD, Geometry, draw, draw_pointed

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.map_view.model import MapModel


class MapCanvas(QWidget):
    """Draws the model once, and over it what is pointed at."""

    pointed = Signal(int)  # section
    followed = Signal(int, float)  # section (-1 for none), place in pages from the start
    zoomed = Signal(int)  # steps
    changed = Signal()  # what is open

    def __init__(self, model: MapModel, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.model = model
        self.colours: Colours = DAY
        self.section = -1
        self.tied: Sequence[int] = ()
        """Sections that lines are drawn to from the one that is pointed at."""
        self._drawn: QPixmap | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAccessibleName("Map of the document to scale")
        self.setAccessibleDescription(
            "Up and down point at sections, left and right close and open them, Return goes there."
        )

    @property
    def geometry_now(self) -> Geometry:
        """Where everything is."""
        return Geometry(self.model, float(self.height()))

    def redraw(self) -> None:
        """The model shows something else."""
        self._drawn = None
        self.setMinimumWidth(int(self.geometry_now.width))
        self.update()

    def point_at(self, section: int, tied: Sequence[int] = ()) -> None:
        """Frame a section."""
        is_new = section != self.section
        self.section, self.tied = section, tied
        self.update()
        if is_new:
            self.pointed.emit(section)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Draw to the new scale."""
        self._drawn = None
        super().resizeEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw what is kept drawn, then the frame."""
        if self._drawn is None:
            ratio = self.devicePixelRatioF()
            self._drawn = QPixmap(self.size() * ratio)
            self._drawn.setDevicePixelRatio(ratio)
            self._drawn.fill(self.colours.paper)
            painter = QPainter(self._drawn)
            draw(painter, self.geometry_now, self.colours)
            painter.end()
        painter = QPainter(self)
        area = event.rect()
        ratio = self._drawn.devicePixelRatioF()
        source = area.topLeft() * ratio
        painter.drawPixmap(
            area.x(), area.y(), area.width(), area.height(), self._drawn, int(source.x()),
            int(source.y()), int(area.width() * ratio), int(area.height() * ratio),
        )  # fmt: skip
        draw_pointed(painter, self.geometry_now, self.colours, self.section, self.tied)
        painter.end()

    # --- the mouse

    def _under(self, point: QPointF) -> int:
        """The section under a point: in its column, beside the bars the innermost one there."""
        if point.y() < HEAD:
            return -1
        geometry = self.geometry_now
        column = geometry.column_at(point.x())
        bar = self.model.bar_at(geometry.place(point.y()), column if column >= 0 else 99)
        return bar.section if bar is not None else -1

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Point at what is under the pointer."""
        section = self._under(event.position())
        if section >= 0 and section != self.section:
            self.point_at(section)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Open or close a section."""
        section = self._under(event.position())
        if event.button() == Qt.MouseButton.LeftButton and section >= 0:
            self.point_at(section)
            self._toggle(section)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Go there."""
        place = self.geometry_now.place(event.position().y())
        self.followed.emit(self._under(event.position()), place)

    def _toggle(self, section: int) -> None:
        if self.model.can_open(section):
            self.model.toggle(section)
            self.changed.emit()

    # --- the keyboard

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Go through the sections, open and close them, go there, draw larger or smaller."""
        key, model = event.key(), self.model
        steps = {
            Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1, Qt.Key.Key_PageDown: 10, Qt.Key.Key_PageUp: -10,
            Qt.Key.Key_Home: -(10**6), Qt.Key.Key_End: 10**6,
        }  # fmt: skip
        if (by := steps.get(Qt.Key(key))) is not None:
            self.point_at(model.step(self.section, by))
        elif key == Qt.Key.Key_Right and self.section >= 0:
            if not model.is_open(self.section):
                self._toggle(self.section)
            elif model.can_open(self.section):
                self.point_at(model.step(self.section, 1))
        elif key == Qt.Key.Key_Left and self.section >= 0:
            if model.is_open(self.section):
                self._toggle(self.section)
            elif (parent := model.parent(self.section)) >= 0:
                self.point_at(parent)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.section >= 0:
            section = model.outline.sections[self.section]
            self.followed.emit(self.section, model.place(section.page, section.y))
        elif event.text() in ("+", "-"):
            self.zoomed.emit(1 if event.text() == "+" else -1)
        else:
            super().keyPressEvent(event)
