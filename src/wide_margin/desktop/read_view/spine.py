"""The spine: the whole document to scale, and where things are in it. It is the scroll bar."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from PySide6.QtCore import QEvent, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPixmap
from PySide6.QtWidgets import QWidget

from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline
from wide_margin.desktop.look import DAY

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours

WIDTH = 58
PAD = 12


class Spine(QWidget):
    """Sections as blocks, the view as a bracket, excerpts as strokes, entries as dots."""

    went = Signal(float)  # share of the document, 0 to 1
    pointed = Signal(float, int)  # share of the document, height of the pointer
    left = Signal()
    stroke_chosen = Signal(int)
    dot_chosen = Signal(int)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFixedWidth(WIDTH)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName("Spine: the whole document to scale")
        self.setAccessibleDescription("Up and down move through the document.")
        self.setMouseTracking(True)
        self.colours: Colours = DAY
        self._kept: QPixmap | None = None
        self._n_pages = 0
        self._heights: list[float] = []
        self._outline = Outline()
        self._labels = PageLabels(())
        self._view = (0.0, 0.0)
        self._strokes: list[tuple[float, bool]] = []
        self._hits: list[float] = []
        self._dots: list[float] = []
        self._dots_apart: list[float] = []

    def show_document(self, n_pages: int, outline: Outline, labels: PageLabels) -> None:
        """Draw a document's sections."""
        self._n_pages, self._outline, self._labels = n_pages, outline, labels
        self._strokes, self._hits, self._dots, self._dots_apart = [], [], [], []
        self._changed()

    def measure(self, heights: Sequence[float]) -> None:
        """How high each page is, in points: a place lies as far down as it does on its page."""
        self._heights = list(heights)
        self._changed()

    def show_view(self, first: float, last: float) -> None:
        """Where the view is, in pages from the start (2.5 is the middle of the third)."""
        self._view = (first, last)
        self.update()

    def show_strokes(self, places: Sequence[tuple[float, bool]]) -> None:
        """Where the excerpts of the held answer lie; True for those it quotes."""
        self._strokes = list(places)
        self.update()

    def show_hits(self, places: Sequence[float]) -> None:
        """Where the words looked for stand."""
        self._hits = list(places)
        self.update()

    def show_dots(self, places: Sequence[float]) -> None:
        """Where entries are."""
        self._dots = list(places)
        self._dots_apart = list(dict.fromkeys(places))
        self.update()

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        self._changed()

    def _y(self, place: float) -> float:
        span = max(self.height() - 2 * PAD, 1)
        return PAD + span * min(max(place / max(self._n_pages, 1), 0.0), 1.0)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw everything."""
        painter = QPainter(self)
        c = self.colours
        painter.drawPixmap(0, 0, self._ground())
        if not self._n_pages:
            return
        painter.setPen(Qt.PenStyle.NoPen)
        for place in self._hits:
            painter.fillRect(QRectF(27, self._y(place), 19, 1.5), QColor(c.ochre))
        for place, is_quoted in self._strokes:
            width = 19 if is_quoted else 11
            painter.fillRect(QRectF(23 - width, self._y(place) - 1, width, 3), QColor(c.madder))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(QColor(c.ochre))
        for place in self._dots_apart:
            painter.drawEllipse(QPointF(51, self._y(place)), 2.5, 2.5)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        self._paint_bracket(painter)

    def _ground(self) -> QPixmap:
        """The blocks, which change with the document alone: thousands are drawn once."""
        ratio = self.devicePixelRatioF()
        kept, size = self._kept, self.size() * ratio
        if kept is None or kept.size() != size:
            kept = QPixmap(size)
            kept.setDevicePixelRatio(ratio)
            kept.fill(QColor(self.colours.panel))
            painter = QPainter(kept)
            painter.fillRect(QRectF(WIDTH - 1, 0, 1, self.height()), QColor(self.colours.rule))
            if self._n_pages:
                self._paint_blocks(painter)
            painter.end()
            self._kept = kept
        return kept

    def _changed(self) -> None:
        """Draw all of it anew."""
        self._kept = None
        self.update()

    def _paint_blocks(self, painter: QPainter) -> None:
        c = self.colours
        block = QColor(c.rule)
        other = QColor(c.chosen) if c.is_night else QColor(c.desk)
        sections = self._outline.sections
        top = min((s.level for s in sections), default=0)
        tops = [s for s in sections if s.level == top]
        edges = [s.page + self._share(s.page, s.y) for s in tops] or [0.0]
        if edges[0] > 0.4:
            edges.insert(0, 0.0)
        edges.append(float(self._n_pages))
        for k, (first, last) in enumerate(pairwise(edges)):
            y, height = self._y(first), self._y(last) - self._y(first)
            colour = block if k % 2 else other
            painter.fillRect(QRectF(26, y, 20, max(height - 2, 1)), colour)
        tick = QColor(c.secondary)
        tick.setAlpha(110)
        last_y = -9.0
        for section in sections:
            if section.level != top + 1:
                continue
            y = self._y(section.page + self._share(section.page, section.y))
            if y - last_y >= 3:
                painter.fillRect(QRectF(26, y, 11, 1), tick)
                last_y = y

    def _share(self, page: int, y: float) -> float:
        height = self._heights[page] if page < len(self._heights) else 792.0
        return min(y / max(height, 1.0), 1.0)

    def _paint_bracket(self, painter: QPainter) -> None:
        first, last = self._y(self._view[0]), self._y(self._view[1])
        middle, half = (first + last) / 2, max((last - first) / 2, 5.0)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QColor(self.colours.ink))
        for inset in (0, 1):
            painter.drawRect(
                QRectF(3 + inset, middle - half + inset, 50 - 2 * inset, 2 * half - 2 * inset)
            )
        if self.hasFocus():
            painter.setPen(QColor(self.colours.verdigris))
            painter.drawRect(self.rect().adjusted(0, 0, -2, -1))

    def _place(self, y: float) -> float:
        return min(max((y - PAD) / max(self.height() - 2 * PAD, 1), 0.0), 1.0)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Go there, or to the stroke or dot under the pointer."""
        x, y = event.position().x(), event.position().y()
        stroke = self._near([place for place, _ in self._strokes], y) if x < 25 else -1
        dot = self._near(self._dots, y) if x > 46 else -1
        if stroke >= 0:
            self.stroke_chosen.emit(stroke)
        elif dot >= 0:
            self.dot_chosen.emit(dot)
        else:
            self.went.emit(self._place(y))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Scrub, and tell what the pointer is at."""
        share = self._place(event.position().y())
        if event.buttons() & Qt.MouseButton.LeftButton:
            self.went.emit(share)
        if self._n_pages:
            self.pointed.emit(share, int(event.position().y()))

    def leaveEvent(self, event: QEvent) -> None:
        """The pointer left."""
        self.left.emit()

    def _near(self, places: Sequence[float], y: float) -> int:
        """Index of the nearest of some places within four pixels, else -1."""
        distances = [abs(self._y(place) - y) for place in places]
        nearest = min(range(len(distances)), key=distances.__getitem__, default=-1)
        return nearest if nearest >= 0 and distances[nearest] <= 4 else -1

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Up and down by a page, Page Up and Page Down by a twentieth."""
        moves = {Qt.Key.Key_Up: -1.0, Qt.Key.Key_Down: 1.0,
                 Qt.Key.Key_PageUp: -self._n_pages / 20,
                 Qt.Key.Key_PageDown: self._n_pages / 20}  # fmt: skip
        move = moves.get(Qt.Key(event.key()))
        if move is None or not self._n_pages:
            super().keyPressEvent(event)
            return
        self.went.emit(min(max((self._view[0] + move) / self._n_pages, 0.0), 1.0))
