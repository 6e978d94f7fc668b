"""Pages on the desk: how they are scaled, arranged and scrolled, and where their places are."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, QTimer, Signal
from PySide6.QtGui import QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QAbstractScrollArea, QFrame, QWidget

from wide_margin.desktop.look import DAY
from wide_margin.desktop.read_view.arrangement import Arrangement
from wide_margin.desktop.read_view.page_images import PageImages

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.pages import FileFacts
    from wide_margin.core.session import Session
    from wide_margin.desktop.background import Background
    from wide_margin.desktop.look import Colours

SIDE_PX = 20
KEPT_PX = 48.0
"""What is this far below the top of the view stays there when the pages are arranged anew."""
MAX_WHOLE_PIXELS = 8_000_000
"""A page that takes more is drawn whole at a coarser scale, and sharply where it is seen."""
MIN_SCALE, MAX_SCALE = 0.2, 6.0
ZOOM_STEP = 1.15


class DeskView(QAbstractScrollArea):
    """Pages to scroll, zoom and turn. Scale is in pixels for each point."""

    scrolled = Signal()
    scrolled_by_hand = Signal()
    place_changed = Signal(int, float)  # page index and y of what is read

    def __init__(self, background: Background, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.images = PageImages(background, self)
        for signal in (self.images.image_arrived, self.images.layer_arrived,
                       self.images.page_failed):  # fmt: skip
            signal.connect(self._page_arrived)
        self.colours: Colours = DAY
        self.fit = "width"
        self._facts: FileFacts | None = None
        self._desk = Arrangement([], 1.0)
        self._pending_reveal: tuple[SpanOnPage, ...] = ()
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self._settle = QTimer(self)
        self._settle.setSingleShot(True)
        self._settle.setInterval(40)
        self._settle.timeout.connect(self._ask_for_pages)
        self.verticalScrollBar().valueChanged.connect(self._on_scroll)
        self.horizontalScrollBar().valueChanged.connect(self._on_scroll)

    # --- document, scale and arrangement

    def show_document(self, session: Session | None, facts: FileFacts | None) -> None:
        """Show the pages of a document, from its first."""
        self._facts = facts
        self.images.show(session)
        self._arrange()
        self.verticalScrollBar().setValue(0)
        self._ask_for_pages()

    def measure_anew(self, facts: FileFacts) -> None:
        """Take the true sizes of all pages; the place that is read stays."""
        self._facts = facts
        self._keeping_place(KEPT_PX, self._apply_fit)

    @property
    def facts(self) -> FileFacts | None:
        """Sizes and number of the pages; None without a document."""
        return self._facts

    @property
    def turns(self) -> int:
        """Quarters that the pages are turned clockwise."""
        return self._desk.turns

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

    def _keeping_place(self, view_y: float, change: Callable[[], None]) -> None:
        place = self.place_at(view_y)
        change()
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
        across = sorted(size[1 if turned else 0] for size in sizes)
        # One wide fold-out does not shrink the rest.
        usual = across[int(0.9 * (len(across) - 1))]
        n_across = 2 if self.mode == "facing" else 1
        room = self.viewport().width() - 2 * SIDE_PX - 12 * (n_across - 1)
        scale = room / (usual * n_across)
        if self.fit == "page":
            tallest = max(size[0 if turned else 1] for size in sizes)
            scale = min(scale, (self.viewport().height() - 24) / tallest)
        self._arrange(scale=scale)

    def _arrange(self, *, scale: float | None = None) -> None:
        sizes = self._facts.sizes if self._facts is not None else ()
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
        return self.to_view(page, (0.0, y, 0.0, y)).top()

    def place_at(self, view_y: float) -> tuple[int, float] | None:
        """Page index and y at a height of the viewport."""
        if not self._desk.rows or self._facts is None:
            return None
        offset = self._offset()
        page = self._desk.rows[self._desk.row_at(view_y + offset.y())][0]
        _, y = self._desk.to_page(page, self._desk.corner(page)[0], view_y + offset.y())
        return page, min(max(y, 0.0), self._facts.sizes[page][1])

    def reading_place(self) -> tuple[int, float] | None:
        """Page index and y of what is being read: a quarter down the view."""
        return self.place_at(self.viewport().height() / 4)

    def place_read(self) -> tuple[int, float] | None:
        """The same; where a page's upper margin lies there, its first line."""
        place = self.reading_place()
        layer = self.images.layer(place[0]) if place is not None else None
        if place is None or layer is None or not layer.lines:
            return place
        first = min((line.shown for line in layer.lines), key=lambda box: box[1])
        return place if first[1] < place[1] else (place[0], (first[1] + first[3]) / 2)

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
        boxes = self.images.boxes_of(page, spans)
        if boxes:
            self._bring_into_view(page, boxes)
        else:
            self.go_to(page)
        self.viewport().update()

    def _bring_into_view(self, page: int, boxes: list[Box]) -> None:
        height = self.viewport().height()
        first, last = self.to_view(page, boxes[0]), self.to_view(page, boxes[-1])
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
            if page < self.n_pages:
                boxes = self.images.boxes_of(page, spans)
                found.extend(self.to_view(page, box) for box in boxes)
        return found

    def right_of(self, spans: Sequence[SpanOnPage]) -> QPoint | None:
        """Where a leader from a passage starts: at the right of its first line, in the viewport.

        Where the line goes on after the passage, or other cells of its row stand beside it, that is
        the end of the line or row, so that no leader runs through text.
        """
        boxes = self.boxes_in_view(spans)
        layer = self.images.layer(spans[0].page) if spans else None
        if not boxes or layer is None:
            return None
        first = boxes[0]
        middle, right = first.center().y(), first.right()
        level = [
            (line, box) for line in layer.lines
            if (box := self.to_view(spans[0].page, line.box)).top() < middle < box.bottom()
        ]  # fmt: skip
        for line, box in level:
            if box.left() < first.right() <= box.right() + 1:
                beside = (other.right() for each, other in level
                          if line.table_row and each.table_row == line.table_row)  # fmt: skip
                right = max(right, box.right(), *beside)
        return QPoint(int(right) + 2, int(middle))

    def to_view(self, page: int, box: Box) -> QRectF:
        """A box in page space, in the viewport."""
        x0, y0, x1, y1 = self._desk.to_desk(page, box)
        offset = self._offset()
        return QRectF(x0 - offset.x(), y0 - offset.y(), x1 - x0, y1 - y0)

    def under(self, point: QPointF) -> tuple[int, float, float] | None:
        """Page index and page space point under a point of the viewport."""
        if not self._desk.rows:
            return None
        on_desk = point + self._offset()
        page = self._desk.page_at(on_desk.x(), on_desk.y())
        return page, *self._desk.to_page(page, on_desk.x(), on_desk.y())

    # --- events

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Keep the place; keep the fit."""
        self._keeping_place(KEPT_PX, self._apply_fit)

    def scrollContentsBy(self, dx: int, dy: int) -> None:
        """Painted anew: the marks must move together with the pages."""
        self.viewport().update()

    def _on_scroll(self) -> None:
        self._settle.start()
        if place := self.place_read():
            self.place_changed.emit(*place)
        self.scrolled.emit()

    def _page_arrived(self, page: int, *_: object) -> None:
        if self._pending_reveal and self._pending_reveal[0].page == page:
            self.reveal(self._pending_reveal)
        self.viewport().update()
        if (place := self.place_read()) and place[0] == page:
            self.place_changed.emit(*place)
        self.scrolled.emit()

    def _ask_for_pages(self) -> None:
        visible = self.visible_pages()
        if not visible:
            return
        near = [max(visible) + 1, min(visible) - 1]
        wanted = visible + [page for page in near if 0 <= page < self.n_pages]
        scale = self.scale * self.devicePixelRatioF()
        assert self._facts is not None
        largest = max(w * h for w, h in (self._facts.sizes[page] for page in visible))
        whole = min(scale, (MAX_WHOLE_PIXELS / largest) ** 0.5)
        self.images.want(wanted, whole, night=self.colours.is_night)
        if whole < scale:
            for page in visible:
                self.images.want_detail(page, self._part_in_view(page), scale)

    def _part_in_view(self, page: int) -> Box:
        """The part of a page that is seen, with a border to scroll into."""
        assert self._facts is not None
        width, height = self._facts.sizes[page]
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

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Scroll; zoom about the pointer with Ctrl held."""
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom(1 if event.angleDelta().y() > 0 else -1, at=event.position().y())
            event.accept()
            return
        self.scrolled_by_hand.emit()
        super().wheelEvent(event)
