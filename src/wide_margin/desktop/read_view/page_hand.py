"""The hand on the pages: what the mouse presses, drags and lets go."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, QPointF, QRect, Qt, QTimer
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QRubberBand

from wide_margin.core.geometry import contains
from wide_margin.desktop.words import set_tip

if TYPE_CHECKING:
    from wide_margin.core.pages import Link
    from wide_margin.desktop.read_view.pages_view import PagesView

TRIPLE_CLICK_MS = 400
SMALLEST_CUT_PX = 8


class PageHand:
    """Selects by dragging, drags the pages with the middle button, cuts regions with Ctrl."""

    def __init__(self, view: PagesView) -> None:
        """For one view of pages, which hands its mouse events on."""
        self._view = view
        self._dragging = False
        self._pan_from: QPointF | None = None
        self._cut_from: QPoint | None = None
        self._mark_held = ""
        """The mark whose end is dragged."""
        self._band = QRubberBand(QRubberBand.Shape.Rectangle, view.viewport())
        self._double_clicked = QTimer(view)
        self._double_clicked.setSingleShot(True)
        self._double_clicked.setInterval(TRIPLE_CLICK_MS)

    def press(self, event: QMouseEvent) -> None:
        """Start a selection, a cutting or a drag; the third click takes the sentence."""
        self._band.hide()
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = event.position()
            self._view.viewport().setCursor(Qt.CursorShape.ClosedHandCursor)
            return
        if event.button() != Qt.MouseButton.LeftButton:
            return
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._cut_from = event.position().toPoint()
            return
        under = self._view.under(event.position())
        if under and under[0] in self._view.images.failures:
            self._view.retry_asked.emit(under[0])
            return
        end = self._view.mark_end_at(event.position())
        at = self._view.position_at(event.position())
        if end is not None and not self._double_clicked.isActive():
            self._mark_held, self._dragging = end.key, True
            self._view.selection.set(end.fixed, end.at)
        elif at and self._double_clicked.isActive():
            self._view.selection.select_sentence(at)
            self._view.selection_moved()
            self._view.selection_done()
        elif at and event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self._view.extend_selection(at)
        else:
            self._view.clear_selection()
            self._dragging = at is not None
            if at:
                self._view.selection.set(at, at)

    def move(self, event: QMouseEvent) -> None:
        """Extend the selection, drag the pages, or show what is under the pointer."""
        point = event.position()
        if self._pan_from is not None:
            moved = point - self._pan_from
            self._pan_from = point
            for bar, by in ((self._view.horizontalScrollBar(), moved.x()),
                            (self._view.verticalScrollBar(), moved.y())):  # fmt: skip
                bar.setValue(int(bar.value() - by))
        elif self._cut_from is not None:
            self._band.setGeometry(QRect(self._cut_from, point.toPoint()).normalized())
            self._band.show()
        elif self._dragging and event.buttons() & Qt.MouseButton.LeftButton:
            if at := self._view.position_at(point):
                self._view.extend_selection(at)
        else:
            self._show_pointer(point)

    def release(self, event: QMouseEvent) -> None:
        """The hand lets go."""
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = None
            self._show_pointer(event.position())
            return
        if self._cut_from is not None:
            self._finish_cutting()
            return
        self._dragging = False
        if self._mark_held:
            held, self._mark_held = self._mark_held, ""
            spans = self._view.selected_spans()
            self._view.clear_selection()
            self._view.mark_dragged.emit(held, spans)
            return
        link = self.link_at(event.position())
        if link is not None and not self._view.has_selection:
            self._view.link_clicked.emit(link)
            return
        if not self._view.has_selection:
            self._view.choose_mark_at(event.position())
        self._view.selection_done()

    def double_click(self, event: QMouseEvent) -> None:
        """Select a word."""
        if at := self._view.position_at(event.position()):
            self._view.selection.select_word(at)
            self._view.selection_moved()
            self._double_clicked.start()

    def _finish_cutting(self) -> None:
        self._cut_from = None
        rect = self._band.geometry()
        self._band.hide()
        if min(rect.width(), rect.height()) < SMALLEST_CUT_PX:
            return
        start, end = (
            self._view.under(QPointF(rect.topLeft())),
            self._view.under(QPointF(rect.bottomRight())),
        )
        if start is None or end is None or self._view.facts is None:
            return
        page = start[0]
        x0, y0 = start[1:]
        x1, y1 = end[1:] if end[0] == page else self._view.facts.sizes[page]
        width, height = self._view.facts.sizes[page]
        box = (max(min(x0, x1), 0.0), max(min(y0, y1), 0.0),
               min(max(x0, x1), width), min(max(y0, y1), height))  # fmt: skip
        self._view.region_cut.emit(page, box)

    def link_at(self, point: QPointF) -> Link | None:
        """The link under a point of the viewport."""
        under = self._view.under(point)
        if under is None:
            return None
        links = self._view.images.links(under[0])
        return next((link for link in links if contains(link.box, under[1], under[2])), None)

    def _show_pointer(self, point: QPointF) -> None:
        link = self.link_at(point)
        shape = Qt.CursorShape.ArrowCursor
        if self._view.mark_end_at(point) is not None:
            shape = Qt.CursorShape.SplitHCursor
        elif link is not None:
            shape = Qt.CursorShape.PointingHandCursor
        elif self._is_on_text(point):
            shape = Qt.CursorShape.IBeamCursor
        self._view.viewport().setCursor(shape)
        self._view.tell_pointed(point)
        set_tip(self._view.viewport(), link.address if link is not None else "")

    def _is_on_text(self, point: QPointF) -> bool:
        under = self._view.under(point)
        layer = self._view.images.layer(under[0]) if under else None
        return under is not None and layer is not None and layer.is_on_text(under[1], under[2])
