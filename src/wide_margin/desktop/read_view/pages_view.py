"""The pages: arranged on the desk, with their text to select and the marks laid over them."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from PySide6.QtCore import QPoint, QPointF, QRect, QRectF, Qt, QTimer, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QGuiApplication,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
    QTransform,
    QWheelEvent,
)
from PySide6.QtWidgets import QAbstractScrollArea, QFrame, QRubberBand, QWidget

from wide_margin.core.geometry import Box, contains
from wide_margin.core.layout import SpanOnPage, TextLayer, boxes_of
from wide_margin.core.pages import FileFacts, Link
from wide_margin.core.session import Session
from wide_margin.desktop.background import Background
from wide_margin.desktop.look import DAY, Colours, sans_font
from wide_margin.desktop.read_view.arrangement import Arrangement
from wide_margin.desktop.read_view.page_images import PageImages
from wide_margin.desktop.read_view.text_selection import Position, TextSelection
from wide_margin.desktop.words import set_tip

SIDE_PX = 20
KEPT_PX = 48.0
"""What is this far below the top of the view stays there when the pages are arranged anew."""
MAX_WHOLE_PIXELS = 8_000_000
"""A page that takes more is drawn whole at a coarser scale, and sharply where it is seen."""
MIN_SCALE, MAX_SCALE = 0.2, 6.0
ZOOM_STEP = 1.15
TRIPLE_CLICK_MS = 400
COMMAND_LETTERS = ("E", "T", "A", "M", "N")


@dataclass(frozen=True, slots=True)
class Laid:
    """Something laid over passages of the pages, or around a region of one."""

    spans: tuple[SpanOnPage, ...]
    colour: str
    """Name in Colours."""
    bar: bool = False
    """Whether a bar stands at the start, as for evidence."""
    region: tuple[int, Box] | None = None
    """Page index and box to draw a line around."""


class PagesView(QAbstractScrollArea):
    """Pages to scroll, zoom, turn and select in. Scale is in pixels for each point."""

    scrolled = Signal()
    scrolled_by_hand = Signal()
    place_changed = Signal(int, float)  # page index and y of what is read
    selection_changed = Signal()
    selection_made = Signal()  # the hand has let go
    letter_pressed = Signal(str)
    retry_asked = Signal(int)
    link_clicked = Signal(object)  # Link
    region_cut = Signal(int, object)  # page index, box in page space
    menu_asked = Signal(QPoint)

    def __init__(self, background: Background, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.images = PageImages(background, self)
        for signal in (self.images.image_arrived, self.images.layer_arrived,
                       self.images.page_failed):  # fmt: skip
            signal.connect(self._page_arrived)
        self.colours: Colours = DAY
        self.selection = TextSelection(self.images)
        self.fit = "width"
        self._facts: FileFacts | None = None
        self._desk = Arrangement([], 1.0)
        self._laid: dict[str, list[Laid]] = {}
        self._laid_on: dict[str, dict[int, list[Laid]]] = {}
        self._pending_reveal: tuple[SpanOnPage, ...] = ()
        self._dragging = False
        self._pan_from: QPointF | None = None
        self._cut_from: QPoint | None = None
        self._band = QRubberBand(QRubberBand.Shape.Rectangle, self.viewport())
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.viewport().setMouseTracking(True)
        self.setAccessibleName("Pages")
        self.setMinimumWidth(260)
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(40)
        self._settle.timeout.connect(self._ask_for_pages)
        self._double_clicked = QTimer(self)
        self._double_clicked.setSingleShot(True)
        self._double_clicked.setInterval(TRIPLE_CLICK_MS)
        self.verticalScrollBar().valueChanged.connect(self._on_scroll)
        self.horizontalScrollBar().valueChanged.connect(self._on_scroll)

    # --- document, scale and arrangement

    def show_document(self, session: Session | None, facts: FileFacts | None) -> None:
        """Show the pages of a document, from its first."""
        self._facts = facts
        self.selection = TextSelection(self.images)
        self._laid, self._laid_on = {}, {}
        self.images.show(session)
        self._arrange()
        self.verticalScrollBar().setValue(0)
        self._ask_for_pages()

    def measure_anew(self, facts: FileFacts) -> None:
        """Take the true sizes of all pages; the place that is read stays."""
        self._facts = facts
        self._keeping_place(KEPT_PX, self._apply_fit)

    @property
    def n_pages(self) -> int:
        """Pages of the document, 0 without one."""
        return self._facts.n_pages if self._facts else 0

    @property
    def scale(self) -> float:
        """Device-independent pixels for each point."""
        return self._desk.scale

    @property
    def mode(self) -> str:
        """How pages are arranged: column, facing or single."""
        return self._desk.mode

    def wear(self, colours: Colours) -> None:
        """Change colours; pages are drawn anew for the night."""
        self.colours = colours
        self._ask_for_pages()
        self.viewport().update()

    def set_scale(self, scale: float, *, at: float | None = None) -> None:
        """Zoom freely; what is at a height of the view (its middle) stays there."""
        self.fit = "free"
        at = self.viewport().height() / 2 if at is None else at
        self._keeping_place(at, lambda: self._arrange(scale=scale))

    def zoom(self, steps: int, *, at: float | None = None) -> None:
        """In (1) or out (-1)."""
        self.set_scale(self.scale * ZOOM_STEP**steps, at=at)

    def fit_width(self) -> None:
        """As wide as the view allows, and kept so."""
        self.fit = "width"
        self._keeping_place(KEPT_PX, self._apply_fit)

    def fit_page(self) -> None:
        """So that a whole page is seen, and kept so."""
        self.fit = "page"
        self._keeping_place(KEPT_PX, self._apply_fit)

    def arrange_as(self, mode: str) -> None:
        """One column, facing pages, or single pages."""
        self._keeping_place(KEPT_PX, lambda: self._rearrange(mode, self._desk.turns))

    def turn(self, quarters: int) -> None:
        """Turn all pages clockwise by quarters."""
        turns = (self._desk.turns + quarters) % 4
        self._keeping_place(KEPT_PX, lambda: self._rearrange(self.mode, turns))

    def _rearrange(self, mode: str, turns: int) -> None:
        self._desk = replace(self._desk, mode=mode, turns=turns)
        self._apply_fit()

    def _keeping_place(self, view_y: float, change: object) -> None:
        place = self.place_at(view_y)
        change()  # type: ignore[operator]
        if place:
            self._scroll_to(place[0], place[1], view_y)
        self._settle.start()
        self.viewport().update()
        self.scrolled.emit()

    def _apply_fit(self) -> None:
        if self._facts is None or self.fit == "free":
            self._arrange()
            return
        sizes = self._facts.sizes
        turned = self._desk.turns % 2
        across, along = sizes[:, 1 if turned else 0], sizes[:, 0 if turned else 1]
        # One wide fold-out does not shrink the rest.
        usual = float(sorted(across.tolist())[int(0.9 * (len(across) - 1))])
        n_across = 2 if self.mode == "facing" else 1
        room = self.viewport().width() - 2 * SIDE_PX - 12 * (n_across - 1)
        scale = room / (usual * n_across)
        if self.fit == "page":
            scale = min(scale, (self.viewport().height() - 24) / float(along.max()))
        self._arrange(scale=scale)

    def _arrange(self, *, scale: float | None = None) -> None:
        sizes = self._facts.sizes.tolist() if self._facts is not None else []
        view = float(self.viewport().width()), float(self.viewport().height())
        scale = min(max(self.scale if scale is None else scale, MIN_SCALE), MAX_SCALE)
        self._desk = replace(self._desk, sizes=sizes, scale=scale, view=view)
        bar, side = self.verticalScrollBar(), self.horizontalScrollBar()
        bar.setRange(0, max(0, int(self._desk.height - view[1])))
        bar.setPageStep(max(1, int(view[1] * 0.9)))
        bar.setSingleStep(48)
        extra = int(self._desk.width - view[0])
        middle = side.maximum() == 0
        side.setRange(0, max(0, extra) if self.fit != "width" else 0)
        side.setPageStep(max(1, int(view[0])))
        side.setSingleStep(48)
        if middle:
            side.setValue(side.maximum() // 2)

    # --- places

    def _offset(self) -> QPointF:
        shift = (self._desk.width - self.viewport().width()) / 2 if self.fit == "width" else 0.0
        return QPointF(self.horizontalScrollBar().value() + shift, self.verticalScrollBar().value())

    def page_rect(self, page: int) -> QRectF:
        """Where a page is, in the viewport."""
        left, top = self._desk.corner(page)
        width, height = self._desk.page_size(page)
        offset = self._offset()
        return QRectF(left - offset.x(), top - offset.y(), width, height)

    def y_in_view(self, page: int, y: float) -> float:
        """Where a height on a page is, in the viewport."""
        return self._to_view(page, (0.0, y, 0.0, y)).top()

    def place_at(self, view_y: float) -> tuple[int, float] | None:
        """Page index and y at a height of the viewport."""
        if not self._desk.rows or self._facts is None:
            return None
        offset = self._offset()
        page = self._desk.rows[self._desk.row_at(view_y + offset.y())][0]
        _, y = self._desk.to_page(page, self._desk.corner(page)[0], view_y + offset.y())
        return page, min(max(y, 0.0), float(self._facts.sizes[page, 1]))

    def reading_place(self) -> tuple[int, float] | None:
        """Page index and y of what is being read: a quarter down the view."""
        return self.place_at(self.viewport().height() / 4)

    def visible_pages(self) -> list[int]:
        """Page indexes in view, those nearest to the middle first."""
        top, height = self._offset().y(), self.viewport().height()
        pages = self._desk.pages_between(top, top + height)
        middle = self.place_at(height / 2)
        return sorted(pages, key=lambda page: abs(page - (middle[0] if middle else 0)))

    def go_to(self, page: int, y: float = 0.0, *, view_y: float = 24.0) -> None:
        """Scroll so that a place is near the top of the view."""
        if 0 <= page < self.n_pages:
            self._scroll_to(page, y, view_y)
            self._ask_for_pages()

    def reveal(self, spans: Sequence[SpanOnPage]) -> None:
        """Scroll so that a passage is comfortably in view; stay where it is already."""
        if not spans or not 0 <= spans[0].page < self.n_pages:
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
        if boxes:
            self._bring_into_view(page, boxes)
        else:
            self.go_to(page)
        self.viewport().update()

    def _bring_into_view(self, page: int, boxes: list[Box]) -> None:
        height = self.viewport().height()
        first, last = self._to_view(page, boxes[0]), self._to_view(page, boxes[-1])
        if first.top() < 40 or last.bottom() > height - 40:
            bar = self.verticalScrollBar()
            bar.setValue(int(bar.value() + first.top() - height * 0.3))
        width = self.viewport().width()
        if first.left() < 0 or first.left() > width - 40:
            side = self.horizontalScrollBar()
            side.setValue(int(side.value() + first.left() - 40))

    def _scroll_to(self, page: int, y: float, view_y: float) -> None:
        _, top, _, _ = self._desk.to_desk(page, (0.0, y, 0.0, y))
        if self.mode == "single":
            top = self._desk.tops[self._desk.row_at(top)]
            view_y = 6.0
        self.verticalScrollBar().setValue(int(top - view_y))

    def boxes_in_view(self, spans: Sequence[SpanOnPage]) -> list[QRectF]:
        """Boxes of a passage in the viewport; none where its page is not at hand."""
        found: list[QRectF] = []
        for page in dict.fromkeys(span.page for span in spans):
            layer = self.images.layer(page)
            if layer is not None and page < self.n_pages:
                boxes = boxes_of(layer.page, [s for s in spans if s.page == page])
                found.extend(self._to_view(page, box) for box in boxes)
        return found

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
        middle, right = first.center().y(), first.right()
        for line in layer.lines:
            box = self._to_view(spans[0].page, line.box)
            if box.top() < middle < box.bottom() and box.left() < first.right() < box.right():
                right = box.right()
        return QPoint(int(right) + 2, int(middle))

    def _to_view(self, page: int, box: Box) -> QRectF:
        x0, y0, x1, y1 = self._desk.to_desk(page, box)
        offset = self._offset()
        return QRectF(x0 - offset.x(), y0 - offset.y(), x1 - x0, y1 - y0)

    def _under(self, point: QPointF) -> tuple[int, float, float] | None:
        """Page index and page space point under a point of the viewport."""
        if not self._desk.rows:
            return None
        on_desk = point + self._offset()
        page = self._desk.page_at(on_desk.x(), on_desk.y())
        return page, *self._desk.to_page(page, on_desk.x(), on_desk.y())

    # --- what lies over the pages

    def lay(self, layer: str, items: Sequence[Laid]) -> None:
        """Replace what one layer lays over the pages: hits, hit, evidence, marks."""
        self._laid[layer] = list(items)
        on: dict[int, list[Laid]] = {}
        for item in items:
            pages = {span.page for span in item.spans}
            if item.region is not None:
                pages.add(item.region[0])
            for page in pages:
                on.setdefault(page, []).append(item)
        self._laid_on[layer] = on
        self.viewport().update()

    def laid(self, layer: str) -> list[Laid]:
        """What one layer lays over the pages."""
        return self._laid.get(layer, [])

    def part_of(self, spans: Sequence[SpanOnPage], sentence: str) -> tuple[SpanOnPage, ...]:
        """The characters of a passage that make up one of its sentences."""
        letters: list[tuple[str, SpanOnPage]] = []
        for span in spans:
            layer = self.images.layer(span.page)
            if layer is None:
                return ()
            for k in range(span.start, span.end):
                if layer.page.chars[k].isalnum():
                    letters.append((layer.page.chars[k], SpanOnPage(span.page, k, k + 1)))
        whole = "".join(letter for letter, _ in letters)
        wanted = "".join(c for c in sentence if c.isalnum())
        at = whole.find(wanted)
        if at < 0 or not wanted:
            return ()
        joined: list[SpanOnPage] = []
        for _, span in letters[at : at + len(wanted)]:
            if joined and joined[-1].page == span.page and span.start - joined[-1].end <= 3:
                joined[-1] = SpanOnPage(span.page, joined[-1].start, span.end)
            else:
                joined.append(span)
        return tuple(joined)

    # --- selection

    @property
    def has_selection(self) -> bool:
        """Whether any text is selected."""
        return bool(self.selection.spans())

    def clear_selection(self) -> None:
        """Select nothing."""
        if self.selection.ends() is not None:
            self.selection.clear()
            self._selection_moved()

    def select_spans(self, spans: Sequence[SpanOnPage]) -> None:
        """Select the characters of a passage on one page, for commands and tests."""
        layer = self.images.layer(spans[0].page)
        if layer is None:
            return
        order = layer.order.tolist()
        wanted = [k for k, c in enumerate(order) if any(s.start <= c < s.end for s in spans)]
        if wanted:
            page = spans[0].page
            self.selection.set((page, wanted[0]), (page, wanted[-1] + 1))
            self._selection_moved()
            self.selection_made.emit()

    def selected_spans(self) -> tuple[SpanOnPage, ...]:
        """The selected characters, page by page."""
        return self.selection.spans()

    def selected_text(self) -> str:
        """The selected words, hyphenation and ligatures undone."""
        return self.selection.text()

    def copy(self) -> None:
        """Put the selected words on the clipboard."""
        if text := self.selected_text():
            QGuiApplication.clipboard().setText(text)

    def _selection_moved(self) -> None:
        self.viewport().update()
        self.selection_changed.emit()

    def _selection_done(self) -> None:
        if self.has_selection:
            clipboard = QGuiApplication.clipboard()
            if clipboard.supportsSelection():
                clipboard.setText(self.selected_text(), clipboard.Mode.Selection)
            self.selection_made.emit()

    def _position_at(self, point: QPointF) -> Position | None:
        under = self._under(point)
        layer = self.images.layer(under[0]) if under else None
        if under is None or layer is None:
            return None
        return under[0], layer.position_at(under[1], under[2])

    def _extend(self, at: Position) -> None:
        if self.selection.fixed is None:
            self.selection.set(at, at)
        assert self.selection.fixed is not None
        first, last = sorted((self.selection.fixed[0], at[0]))
        for page in range(first, last + 1):
            self.images.need_layer(page)
        self.selection.moving = at
        self._selection_moved()

    # --- the mouse

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Start a selection, a cutting or a drag; the third click takes the sentence."""
        self._band.hide()
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = event.position()
            self.viewport().setCursor(Qt.CursorShape.ClosedHandCursor)
            return
        if event.button() != Qt.MouseButton.LeftButton:
            return
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._cut_from = event.position().toPoint()
            return
        under = self._under(event.position())
        if under and under[0] in self.images.failures:
            self.retry_asked.emit(under[0])
            return
        at = self._position_at(event.position())
        if at and self._double_clicked.isActive():
            self.selection.select_sentence(at)
            self._selection_moved()
            self._selection_done()
        elif at and event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self._extend(at)
        else:
            self.clear_selection()
            self._dragging = at is not None
            if at:
                self.selection.set(at, at)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Extend the selection, drag the pages, or show what is under the pointer."""
        point = event.position()
        if self._pan_from is not None:
            moved = point - self._pan_from
            self._pan_from = point
            for bar, by in ((self.horizontalScrollBar(), moved.x()),
                            (self.verticalScrollBar(), moved.y())):  # fmt: skip
                bar.setValue(int(bar.value() - by))
        elif self._cut_from is not None:
            self._band.setGeometry(QRect(self._cut_from, point.toPoint()).normalized())
            self._band.show()
        elif self._dragging and event.buttons() & Qt.MouseButton.LeftButton:
            if at := self._position_at(point):
                self._extend(at)
        else:
            self._show_pointer(point)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """The hand lets go."""
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = None
            self._show_pointer(event.position())
            return
        if self._cut_from is not None:
            self._finish_cutting()
            return
        self._dragging = False
        link = self.link_at(event.position())
        if link is not None and not self.has_selection:
            self.link_clicked.emit(link)
            return
        self._selection_done()

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Select a word."""
        if at := self._position_at(event.position()):
            self.selection.select_word(at)
            self._selection_moved()
            self._double_clicked.start()

    def _finish_cutting(self) -> None:
        self._cut_from = None
        rect = self._band.geometry()
        self._band.hide()
        if rect.width() < 8 or rect.height() < 8:
            return
        start, end = self._under(QPointF(rect.topLeft())), self._under(QPointF(rect.bottomRight()))
        if start is None or end is None or self._facts is None:
            return
        page = start[0]
        x0, y0 = start[1:]
        x1, y1 = end[1:] if end[0] == page else (float(s) for s in self._facts.sizes[page])
        width, height = (float(s) for s in self._facts.sizes[page])
        box = (max(min(x0, x1), 0.0), max(min(y0, y1), 0.0),
               min(max(x0, x1), width), min(max(y0, y1), height))  # fmt: skip
        self.region_cut.emit(page, box)

    def link_at(self, point: QPointF) -> Link | None:
        """The link under a point of the viewport."""
        under = self._under(point)
        if under is None:
            return None
        links = self.images.links(under[0])
        return next((link for link in links if contains(link.box, under[1], under[2])), None)

    def _show_pointer(self, point: QPointF) -> None:
        link = self.link_at(point)
        shape = Qt.CursorShape.ArrowCursor
        if link is not None:
            shape = Qt.CursorShape.PointingHandCursor
        elif self._is_on_text(point):
            shape = Qt.CursorShape.IBeamCursor
        self.viewport().setCursor(shape)
        set_tip(self.viewport(), link.address if link is not None else "")

    def _is_on_text(self, point: QPointF) -> bool:
        under = self._under(point)
        layer = self.images.layer(under[0]) if under else None
        return under is not None and layer is not None and layer.is_on_text(under[1], under[2])

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Scroll; zoom about the pointer with Ctrl held."""
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom(1 if event.angleDelta().y() > 0 else -1, at=event.position().y())
            event.accept()
            return
        self.scrolled_by_hand.emit()
        super().wheelEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        """Offer what can be done here."""
        self.menu_asked.emit(event.globalPos())

    # --- the keyboard

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Keys of reading; letters act on a selection; Shift with arrows selects."""
        key, bar = event.key(), self.verticalScrollBar()
        modifiers = event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
        plain = modifiers == Qt.KeyboardModifier.NoModifier
        letter = event.text().upper()
        if plain and letter in COMMAND_LETTERS and self.has_selection:
            self.letter_pressed.emit(letter)
        elif modifiers & Qt.KeyboardModifier.ShiftModifier and self._step_selection(event):
            return
        elif key == Qt.Key.Key_Escape and self.selection.ends() is not None:
            self.clear_selection()
        elif plain and key == Qt.Key.Key_Home:
            bar.setValue(bar.minimum())
        elif plain and key == Qt.Key.Key_End:
            bar.setValue(bar.maximum())
        elif self.mode == "single" and key in (Qt.Key.Key_PageDown, Qt.Key.Key_PageUp):
            self._turn_leaf(1 if key == Qt.Key.Key_PageDown else -1)
        elif key == Qt.Key.Key_Space:
            back = modifiers & Qt.KeyboardModifier.ShiftModifier
            bar.setValue(bar.value() + (-bar.pageStep() if back else bar.pageStep()))
        else:
            super().keyPressEvent(event)

    def _turn_leaf(self, by: int) -> None:
        if place := self.place_at(30.0):
            self.go_to(min(max(place[0] + by, 0), self.n_pages - 1))

    def _step_selection(self, event: QKeyEvent) -> bool:
        control = event.modifiers() & Qt.KeyboardModifier.ControlModifier
        across = "word" if control else "character"
        steps = {
            Qt.Key.Key_Left: (across, -1), Qt.Key.Key_Right: (across, 1),
            Qt.Key.Key_Up: ("line", -1), Qt.Key.Key_Down: ("line", 1),
        }  # fmt: skip
        step = steps.get(Qt.Key(event.key()))
        if step is None:
            return False
        start = self.selection.fixed or self._position_at(QPointF(80.0, 40.0))
        if start is None or self.images.layer(start[0]) is None:
            return True
        self.selection.step(start, *step)
        self._selection_moved()
        self.selection_made.emit()
        return True

    # --- events

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Keep the place; keep the fit."""
        self._keeping_place(KEPT_PX, self._apply_fit)

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
        scale = self.scale * self.devicePixelRatioF()
        assert self._facts is not None
        largest = max(float(w) * float(h) for w, h in self._facts.sizes[visible])
        whole = min(scale, (MAX_WHOLE_PIXELS / largest) ** 0.5)
        self.images.want(wanted, whole, night=self.colours.is_night)
        if whole < scale:
            for page in visible:
                self.images.want_detail(page, self._part_in_view(page), scale)

    def _part_in_view(self, page: int) -> Box:
        """The part of a page that is seen, with a border to scroll into."""
        assert self._facts is not None
        width, height = (float(side) for side in self._facts.sizes[page])
        offset, view = self._offset(), self.viewport()
        right, bottom = offset.x() + view.width(), offset.y() + view.height()
        corners = [
            self._desk.to_page(page, x, y)
            for x in (offset.x(), right)
            for y in (offset.y(), bottom)
        ]
        x0, x1 = min(x for x, _ in corners), max(x for x, _ in corners)
        y0, y1 = min(y for _, y in corners), max(y for _, y in corners)
        border = 0.2 * (y1 - y0)
        return (min(max(x0 - border, 0.0), width - 1), min(max(y0 - border, 0.0), height - 1),
                max(min(x1 + border, width), 1.0), max(min(y1 + border, height), 1.0))  # fmt: skip

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
            painter.drawImage(frame, self._turned(drawn.image))
            detail = self.images.detail(page)
            wanted = self.scale * self.devicePixelRatioF()
            sharper = detail is not None and drawn.scale < 0.99 * wanted
            if sharper and detail is not None and abs(detail.scale - wanted) < 0.01 * wanted:
                assert detail.clip is not None
                part = self._to_view(page, detail.clip)
                painter.drawImage(part, self._turned(detail.image))
        elif page in self.images.failures:
            error = self.images.failures[page]
            painter.setPen(QColor(self.colours.ink if self.colours.is_night else DAY.ink))
            painter.setFont(sans_font(1))
            text = f"{error.message}\n{error.hint}\nClick here to try again."
            flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
            painter.drawText(frame.adjusted(40, 40, -40, -40), flags, text)
        layer = self.images.layer(page)
        if layer is not None:
            self._paint_laid(painter, page, layer)

    def _turned(self, image: QImage) -> QImage:
        turns = self._desk.turns
        return image.transformed(QTransform().rotate(90 * turns)) if turns else image

    def _paint_laid(self, painter: QPainter, page: int, layer: TextLayer) -> None:
        mode = QPainter.CompositionMode
        painter.setCompositionMode(
            mode.CompositionMode_Screen if self.colours.is_night else mode.CompositionMode_Multiply
        )
        bars: list[QRectF] = []
        regions: list[QRectF] = []
        for name in ("marks", "hits", "hit", "evidence"):
            for item in self._laid_on.get(name, {}).get(page, ()):
                if item.region is not None and item.region[0] == page:
                    regions.append(self._to_view(page, item.region[1]))
                spans = [span for span in item.spans if span.page == page]
                boxes = [self._to_view(page, box) for box in boxes_of(layer.page, spans)]
                colour = QColor(getattr(self.colours, item.colour))
                for box in boxes:
                    painter.fillRect(box.adjusted(-1, -1, 1, 1), colour)
                if item.bar and boxes:
                    bars.append(QRectF(boxes[0].left() - 5, boxes[0].top(), 3, boxes[0].height()))
        selected = [span for span in self.selected_spans() if span.page == page]
        for chosen in boxes_of(layer.page, selected):
            painter.fillRect(self._to_view(page, chosen), QColor(self.colours.selection))
        painter.setCompositionMode(mode.CompositionMode_SourceOver)
        for bar in bars:
            painter.fillRect(bar, QColor(self.colours.madder))
        painter.setPen(QPen(QColor(self.colours.madder), 1.5))
        for region in regions:
            painter.drawRect(region.adjusted(-3, -3, 3, 3))
