"""Leaders: hairlines with right angles that join an entry to its passage."""

from dataclasses import dataclass

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygon
from PySide6.QtWidgets import QWidget


@dataclass(frozen=True, slots=True)
class Leader:
    """From a passage to a card, in the overlay's coordinates."""

    start: QPoint
    end: QPoint
    colour: str
    turn: int
    """x of the upright part."""


class Leaders(QWidget):
    """Lies over pages and margin and lets everything through."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setAttribute(Qt.WidgetAttribute.WA_NoSystemBackground)
        self._leaders: list[Leader] = []

    @property
    def shown(self) -> list[Leader]:
        """The leaders that are drawn."""
        return self._leaders

    def show_leaders(self, leaders: list[Leader]) -> None:
        """Draw these."""
        if leaders != self._leaders:
            self._leaders = leaders
            self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw each as three straight lines."""
        painter = QPainter(self)
        for leader in self._leaders:
            painter.setPen(QPen(QColor(leader.colour), 1))
            corner, other = (
                QPoint(leader.turn, leader.start.y()),
                QPoint(leader.turn, leader.end.y()),
            )
            painter.drawPolyline(QPolygon([leader.start, corner, other, leader.end]))
