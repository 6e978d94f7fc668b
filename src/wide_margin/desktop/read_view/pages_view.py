"""The pages: one below the other, with their text to select and the marks laid over them."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QGuiApplication,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QWheelEvent,
)
from PySide6.QtWidgets import QAbstractScrollArea, QFrame, QWidget

from wide_margin.core.geometry import Box
from wide_margin.core.layout import SpanOnPage, TextLayer, boxes_of
from wide_margin.core.pages import FileFacts
from wide_margin.core.session import Session
from wide_margin.desktop.background import Background
from wide_margin.desktop.look import DAY, Colours, sans_font
from wide_margin.desktop.read_view.page_images import PageImages

GAP_PX = 12
SIDE_PX = 20
MIN_SCALE, MAX_SCALE = 0.2, 6.0
ZOOM_STEP = 1.15


@dataclass(frozen=True, slots=True)
class Selection:
    """Selected text: where it starts and ends, in reading order."""

    first_page: int
    first: int
    last_page: int
    last: int


@dataclass(frozen=True, slots=True)
class Laid:
    """Something laid over passages of the pages."""

    spans: tuple[SpanOnPage, ...]
    colour: str
    """Name in Colours."""
    bar: bool = False
    """Whether a bar stands at the start, as for evidence."""


class PagesView(QAbstractScrollArea):
    """Continuous pages. Scale is in device-independent pixels for each point."""

    scrolled = Signal()
    place_changed = Signal(int, float)  # page index and y of what is read
    selection_changed = Signal()
    selection_made = Signal()  # the hand has let go
    letter_pressed = Signal(str)
    retry_asked = Signal(int)

    def __init__(self, background: Background, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.images = PageImages(background, self)
        self.images.image_arrived.connect(self._page_arrived)
        self.images.layer_arrived.connect(self._page_arrived)
        self.images.page_failed.connect(self._page_arrived)
        self.colours: Colours = DAY
        self._facts: FileFacts | None = None
        self._tops: list[float] = []
        self._scale = 1.0
        self.fits_width = True
        self._selection: Selection | None = None
        self._anchor: tuple[int, int] | None = None
        self._laid: dict[str, list[Laid]] = {}
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.viewport().setMouseTracking(True)
        self.setAccessibleName("Pages")
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(40)
        self._settle.timeout.connect(self._ask_for_pages)
        self.verticalScrollBar().valueChanged.connect(self._on_scroll)
        self.horizontalScrollBar().valueChanged.connect(self._on_scroll)

    # --- document and scale

    def show_document(self, session: Session | None, facts: FileFacts | None) -> None:
        """Show the pages of a document, from its first."""
        self._facts = facts
        self._selection, self._laid = None, {}
        self.images.show(session)
        self._arrange()
        self.verticalScrollBar().setValue(0)
        self._ask_for_pages()

    def measure_anew(self, facts: FileFacts) -> None:
        """Take the true sizes of all pages; the place that is read stays."""
        place = self.place_at(24.0)
        self._facts = facts
        if self.fits_width:
            self._scale = self._width_scale()
        self._arrange()
        if place:
            self._scroll_to(place[0], place[1], 24.0)
        self.viewport().update()
        self.scrolled.emit()

    @property
    def n_pages(self) -> int:
        """Pages of the document, 0 without one."""
        return self._facts.n_pages if self._facts else 0

    @property
    def scale(self) -> float:
        """Device-independent pixels for each point."""
        return self._scale

    def wear(self, colours: Colours) -> None:
        """Change colours; pages are drawn anew for the night."""
        self.colours = colours
        self._ask_for_pages()
        self.viewport().update()

    def set_scale(self, scale: float, *, fits_width: bool = False) -> None:
        """Zoom; what is at the middle of the view stays there."""
        place = self.place_at(self.viewport().height() / 2)
        self.fits_width = fits_width
        self._scale = min(max(scale, MIN_SCALE), MAX_SCALE)
        self._arrange()
        if place:
            self._scroll_to(place[0], place[1], self.viewport().height() / 2)
        self._ask_for_pages()
        self.viewport().update()
        self.scrolled.emit()

    def zoom(self, steps: int) -> None:
        """In (1) or out (-1)."""
        self.set_scale(self._scale * ZOOM_STEP**steps)

    def fit_width(self) -> None:
        """As wide as the view allows, and kept so."""
        self.set_scale(self._width_scale(), fits_width=True)

    def _width_scale(self) -> float:
        if self._facts is None:
            return 1.0
        widths = sorted(float(w) for w in self._facts.sizes[:, 0])
        usual = widths[int(0.9 * (len(widths) - 1))]  # one wide fold-out does not shrink the rest
        return max((self.viewport().width() - 2 * SIDE_PX) / usual, MIN_SCALE)

    def _arrange(self) -> None:
        self._tops = []
        top = float(GAP_PX)
        if self._facts is not None:
            for height in self._facts.sizes[:, 1]:
                self._tops.append(top)
                top += float(height) * self._scale + GAP_PX
        bar = self.verticalScrollBar()
        bar.setRange(0, max(0, int(top - self.viewport().height())))
        bar.setPageStep(max(1, int(self.viewport().height() * 0.9)))
        bar.setSingleStep(48)
        width = max((float(w) for w in self._facts.sizes[:, 0]), default=0.0) if self._facts else 0
        side = self.horizontalScrollBar()
        extra = int(width * self._scale + 2 * SIDE_PX - self.viewport().width())
        side.setRange(0, max(0, extra) if not self.fits_width else 0)
        side.setPageStep(max(1, self.viewport().width()))

    # --- places

    def page_rect(self, page: int) -> QRectF:
        """Where a page is, in the viewport."""
        assert self._facts is not None
        width, height = (float(v) * self._scale for v in self._facts.sizes[page])
        left = max((self.viewport().width() - width) / 2, float(SIDE_PX))
        left -= self.horizontalScrollBar().value()
        return QRectF(left, self._tops[page] - self.verticalScrollBar().value(), width, height)

    def y_in_view(self, page: int, y: float) -> float:
        """Where a height on a page is, in the viewport."""
        return self._tops[page] + y * self._scale - self.verticalScrollBar().value()

    def place_at(self, view_y: float) -> tuple[int, float] | None:
        """Page index and y at a height of the viewport."""
        if not self._tops:
            return None
        at = view_y + self.verticalScrollBar().value()
        page = max(0, bisect_right(self._tops, at) - 1)
        assert self._facts is not None
        y = min(max((at - self._tops[page]) / self._scale, 0.0), float(self._facts.sizes[page, 1]))
        return page, y

    def reading_place(self) -> tuple[int, float] | None:
        """Page index and y of what is being read: a quarter down the view."""
        return self.place_at(self.viewport().height() / 4)

    def visible_pages(self) -> list[int]:
        """Page indexes in view, the one nearest to the middle first."""
        if not self._tops:
            return []
        top = self.place_at(0.0)
        bottom = self.place_at(float(self.viewport().height()))
        middle = self.place_at(self.viewport().height() / 2)
        if top is None or bottom is None or middle is None:
            return []
        pages = range(top[0], bottom[0] + 1)
        return sorted(pages, key=lambda page: abs(page - middle[0]))

    def go_to(self, page: int, y: float = 0.0, *, view_y: float = 24.0) -> None:
        """Scroll so that a place is near the top of the view."""
        if not self._tops:
            return
        self._scroll_to(page, y, view_y)
        self._ask_for_pages()

    def reveal(self, spans: Sequence[SpanOnPage]) -> None:
        """Scroll so that a passage is comfortably in view; stay where it is already."""
        if not spans or not self._tops:
            return
        page = spans[0].page
        layer = self.images.layer(page)
        if layer is None:
            self._pending_reveal = tuple(spans)
            self.images.need_layer(page)
            self.go_to(page)
            return
        self._pending_reveal = ()
        boxes = boxes_of(layer.page, spans)
        if not boxes:
            self.go_to(page)
            return
        height = self.viewport().height()
        top, bottom = self.y_in_view(page, boxes[0][1]), self.y_in_view(page, boxes[-1][3])
        if top < 40 or bottom > height - 40:
            self._scroll_to(page, boxes[0][1], height * 0.3)
        self.viewport().update()

    _pending_reveal: tuple[SpanOnPage, ...] = ()

    def _scroll_to(self, page: int, y: float, view_y: float) -> None:
        self.verticalScrollBar().setValue(int(self._tops[page] + y * self._scale - view_y))

    def boxes_in_view(self, spans: Sequence[SpanOnPage]) -> list[QRectF]:
        """Boxes of a passage in the viewport; none where its page is not at hand."""
        found: list[QRectF] = []
        for page in dict.fromkeys(span.page for span in spans):
            layer = self.images.layer(page)
            if layer is None or page >= len(self._tops):
                continue
            for box in boxes_of(layer.page, [s for s in spans if s.page == page]):
                found.append(self._to_view(page, box))
        return found

    def _to_view(self, page: int, box: Box) -> QRectF:
        frame = self.page_rect(page)
        return QRectF(
            frame.left() + box[0] * self._scale,
            frame.top() + box[1] * self._scale,
            (box[2] - box[0]) * self._scale,
            (box[3] - box[1]) * self._scale,
        )

    # --- what lies over the pages

    def lay(self, layer: str, items: Sequence[Laid]) -> None:
        """Replace what one layer lays over the pages: "hits", "evidence", "marks"."""
        self._laid[layer] = list(items)
        self.viewport().update()

    # --- selection

    @property
    def has_selection(self) -> bool:
        """Whether any text is selected."""
        return self._selection is not None and bool(self.selected_spans())

    def clear_selection(self) -> None:
        """Select nothing."""
        if self._selection is not None:
            self._selection = None
            self.viewport().update()
            self.selection_changed.emit()

    def select(self, selection: Selection) -> None:
        """Select some text."""
        self._selection = selection
        self.viewport().update()
        self.selection_changed.emit()

    def select_spans(self, spans: Sequence[SpanOnPage]) -> None:
        """Select the characters of a passage on one page, for commands and tests."""
        layer = self.images.layer(spans[0].page)
        if layer is None:
            return
        order = layer.order.tolist()
        wanted = [k for k, c in enumerate(order) if any(s.start <= c < s.end for s in spans)]
        if wanted:
            page = spans[0].page
            self.select(Selection(page, wanted[0], page, wanted[-1] + 1))
            self.selection_made.emit()

    def selected_spans(self) -> tuple[SpanOnPage, ...]:
        """The selected characters, page by page."""
        found: list[SpanOnPage] = []
        for layer, first, last in self._selected_ranges():
            found.extend(layer.spans(first, last))
        return tuple(found)

    def selected_text(self) -> str:
        """The selected words, hyphenation and ligatures undone."""
        return "\n".join(layer.text(first, last) for layer, first, last in self._selected_ranges())

    def _selected_ranges(self) -> list[tuple[TextLayer, int, int]]:
        chosen = self._selection
        if chosen is None:
            return []
        found = []
        for page in range(chosen.first_page, chosen.last_page + 1):
            layer = self.images.layer(page)
            if layer is None:
                continue
            first = chosen.first if page == chosen.first_page else 0
            last = chosen.last if page == chosen.last_page else layer.n
            if first < last:
                found.append((layer, first, last))
        return found

    def copy(self) -> None:
        """Put the selected words on the clipboard."""
        if text := self.selected_text():
            QGuiApplication.clipboard().setText(text)

    def _position_at(self, point: QPointF) -> tuple[int, int] | None:
        place = self.place_at(point.y())
        if place is None:
            return None
        page = place[0]
        layer = self.images.layer(page)
        if layer is None:
            return None
        frame = self.page_rect(page)
        x, y = (point.x() - frame.left()) / self._scale, (point.y() - frame.top()) / self._scale
        return page, layer.position_at(x, y)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Start a selection."""
        if event.button() != Qt.MouseButton.LeftButton:
            return
        at = self._position_at(event.position())
        page = self.place_at(event.position().y())
        if page and page[0] in self.images.failures:
            self.retry_asked.emit(page[0])
            return
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier and self._anchor and at:
            self._extend(at)
            return
        self._anchor = at
        self.clear_selection()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Extend the selection, or show what is under the pointer."""
        if event.buttons() & Qt.MouseButton.LeftButton and self._anchor:
            at = self._position_at(event.position())
            if at:
                self._extend(at)
            return
        self.viewport().setCursor(
            Qt.CursorShape.IBeamCursor if self._is_on_text(event.position())
            else Qt.CursorShape.ArrowCursor
        )  # fmt: skip

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """The hand lets go."""
        if self.has_selection:
            clipboard = QGuiApplication.clipboard()
            if clipboard.supportsSelection():
                clipboard.setText(self.selected_text(), clipboard.Mode.Selection)
            self.selection_made.emit()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Select a word."""
        at = self._position_at(event.position())
        layer = self.images.layer(at[0]) if at else None
        if at and layer:
            first, last = layer.word_at(at[1])
            self._anchor = (at[0], first)
            self.select(Selection(at[0], first, at[0], last))

    def _extend(self, at: tuple[int, int]) -> None:
        assert self._anchor is not None
        first, last = sorted((self._anchor, at))
        for page in range(first[0], last[0] + 1):
            self.images.need_layer(page)
        self.select(Selection(first[0], first[1], last[0], last[1]))

    def _is_on_text(self, point: QPointF) -> bool:
        place = self.place_at(point.y())
        layer = self.images.layer(place[0]) if place else None
        if place is None or layer is None:
            return False
        frame = self.page_rect(place[0])
        x, y = (point.x() - frame.left()) / self._scale, (point.y() - frame.top()) / self._scale
        return layer.is_on_text(x, y)

    # --- events

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Scroll; zoom with Ctrl held."""
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom(1 if event.angleDelta().y() > 0 else -1)
            event.accept()
            return
        super().wheelEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Keys of reading; letters act on a selection."""
        key, bar = event.key(), self.verticalScrollBar()
        plain = event.modifiers() in (
            Qt.KeyboardModifier.NoModifier,
            Qt.KeyboardModifier.KeypadModifier,
        )
        letter = event.text().upper()
        if plain and self.has_selection and letter in ("E", "T", "A", "M", "N"):
            self.letter_pressed.emit(letter)
        elif event.key() == Qt.Key.Key_Escape and self._selection is not None:
            self.clear_selection()
        elif plain and key == Qt.Key.Key_Home:
            bar.setValue(bar.minimum())
        elif plain and key == Qt.Key.Key_End:
            bar.setValue(bar.maximum())
        elif key == Qt.Key.Key_Space:
            back = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
            bar.setValue(bar.value() + (-bar.pageStep() if back else bar.pageStep()))
        else:
            super().keyPressEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        """The selection's commands are on the tab and in the menus."""
        event.ignore()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Keep the place; keep the fit."""
        place = self.place_at(24.0)
        if self.fits_width:
            self._scale = self._width_scale()
        self._arrange()
        if place:
            self._scroll_to(place[0], place[1], 24.0)
        self._settle.start()
        self.scrolled.emit()

    def scrollContentsBy(self, dx: int, dy: int) -> None:
        """Painted anew: the marks must move together with the pages."""
        self.viewport().update()

    def _on_scroll(self) -> None:
        self._settle.start()
        if place := self.reading_place():
            self.place_changed.emit(*place)
        self.scrolled.emit()

    def _page_arrived(self, page: int, *_: object) -> None:
        if self._pending_reveal and self._pending_reveal[0].page == page:
            self.reveal(self._pending_reveal)
        self.viewport().update()
        self.scrolled.emit()

    def _ask_for_pages(self) -> None:
        visible = self.visible_pages()
        if not visible:
            return
        near = [max(visible) + 1, min(visible) - 1]
        wanted = visible + [page for page in near if 0 <= page < self.n_pages]
        ratio = self.devicePixelRatioF()
        self.images.want(wanted, self._scale * ratio, night=self.colours.is_night)

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the desk, the pages in view and what lies over them."""
        painter = QPainter(self.viewport())
        painter.fillRect(event.rect(), QColor(self.colours.desk))
        for page in self.visible_pages():
            self._paint_page(painter, page)
        painter.end()

    def _paint_page(self, painter: QPainter, page: int) -> None:
        frame = self.page_rect(page)
        shadow = QColor(0, 0, 0, 60 if self.colours.is_night else 28)
        painter.fillRect(frame.adjusted(1, 2, 2, 3), shadow)
        painter.fillRect(frame, QColor(self.colours.page))
        drawn = self.images.image(page)
        if drawn is not None and drawn.is_night == self.colours.is_night:
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(frame, drawn.image)
        elif page in self.images.failures:
            error = self.images.failures[page]
            painter.setPen(QColor(self.colours.ink))
            painter.setFont(sans_font(1))
            text = f"{error.message}\n{error.hint}\nClick here to try again."
            painter.drawText(frame.adjusted(40, 40, -40, -40), Qt.AlignmentFlag.AlignCenter
                             | Qt.TextFlag.TextWordWrap, text)  # fmt: skip
        layer = self.images.layer(page)
        if layer is not None:
            self._paint_laid(painter, page, layer)

    def _paint_laid(self, painter: QPainter, page: int, layer: TextLayer) -> None:
        mode = QPainter.CompositionMode
        painter.setCompositionMode(
            mode.CompositionMode_Screen if self.colours.is_night else mode.CompositionMode_Multiply
        )
        bars: list[QRectF] = []
        for name in ("marks", "hits", "hit", "evidence"):
            for item in self._laid.get(name, ()):
                spans = [span for span in item.spans if span.page == page]
                if not spans:
                    continue
                boxes = [self._to_view(page, box) for box in boxes_of(layer.page, spans)]
                colour = QColor(getattr(self.colours, item.colour))
                for box in boxes:
                    painter.fillRect(box.adjusted(-1, -1, 1, 1), colour)
                if item.bar and boxes:
                    bars.append(QRectF(boxes[0].left() - 5, boxes[0].top(), 3, boxes[0].height()))
        if self._selection and self._selection.first_page <= page <= self._selection.last_page:
            spans = [span for span in self.selected_spans() if span.page == page]
            for chosen in boxes_of(layer.page, spans):
                painter.fillRect(self._to_view(page, chosen), QColor(self.colours.selection))
        painter.setCompositionMode(mode.CompositionMode_SourceOver)
        for bar in bars:
            painter.fillRect(bar, QColor(self.colours.madder))

    def right_of(self, spans: Sequence[SpanOnPage]) -> QPoint | None:
        """Where a leader from a passage starts: at the right of its first line, in the viewport.

        Where the line goes on after the passage, that is the end of the line, so that no
        leader runs through text.
        """
        boxes = self.boxes_in_view(spans)
        layer = self.images.layer(spans[0].page) if spans else None
        if not boxes or layer is None:
            return None
        first = boxes[0]
        middle = first.center().y()
        right = first.right()
        for line in layer.lines:
            box = self._to_view(spans[0].page, line.box)
            if box.top() < middle < box.bottom() and box.left() < first.right() < box.right():
                right = box.right()
        return QPoint(int(right) + 2, int(middle))
