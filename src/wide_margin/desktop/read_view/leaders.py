"""Leaders: hairlines with right angles that join an entry to its passage."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygon
from PySide6.QtWidgets import QWidget

if TYPE_CHECKING:
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.desktop.read_view.read_view import ReadView


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


def leaders_of(view: ReadView) -> list[Leader]:
    """Leaders from the passages in view to their cards, and from the one that is held.

    None while something stands between pages and margin: they would run through its text.
    """
    if view.beside.isVisible() or view.facing.isVisible():
        return []
    viewport, margin = view.pages.viewport(), view.margin
    origin = viewport.mapTo(view, QPoint(0, 0))
    left = margin.mapTo(view, QPoint(0, 0))
    drawn: list[Leader] = []

    def join(spans: Sequence[SpanOnPage], end: QPoint, colour: str) -> None:
        start = view.pages.right_of(spans)
        if start is None or not 0 <= start.y() <= viewport.height() or start.x() > viewport.width():
            return
        page_edge = int(view.pages.page_rect(spans[0].page).right())
        turn = origin.x() + min(page_edge + 6, viewport.width() - 4) + 5 * (len(drawn) % 3)
        drawn.append(Leader(start + origin, end, colour, turn))

    if (here := view.held.here) is not None and here.spans:
        join(here.spans, QPoint(left.x() + 16, left.y() + 40), view.colours.madder)
    for standing in margin.standing():
        if standing.entry.anchor.spans:
            end = QPoint(left.x() + standing.rect.left(), left.y() + standing.rect.top() + 10)
            join(standing.entry.anchor.spans, end, standing.edge)
    return drawn
