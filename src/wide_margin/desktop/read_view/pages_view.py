"""The pages: their text to select, and the marks laid over them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QContextMenuEvent,
    QDragEnterEvent,
    QDragMoveEvent,
    QDropEvent,
    QGuiApplication,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
)
from PySide6.QtWidgets import QWidget

from wide_margin.core.geometry import contains
from wide_margin.core.layout import SpanOnPage
from wide_margin.desktop.read_view.desk_view import DeskView
from wide_margin.desktop.read_view.page_hand import PageHand
from wide_margin.desktop.read_view.page_painting import by_page, paint_ends, paint_page
from wide_margin.desktop.read_view.text_selection import Position, TextSelection

if TYPE_CHECKING:
    from wide_margin.core.pages import FileFacts, Link
    from wide_margin.core.session import Session
    from wide_margin.desktop.background import Background
    from wide_margin.desktop.read_view.page_painting import Laid

COMMAND_LETTERS = ("E", "T", "A", "M", "N", "1", "2", "3", "4", "5", "6", "U", "S", "+", "-")
ENTRY_MIME = "application/x-wide-margin-entry"
"""What is dragged from the list of entries: the id of one."""

END_PX = 4
"""So near to the end of a mark the hand takes it."""


class MarkEnd(NamedTuple):
    """An end of a mark that the hand can take."""

    key: str
    """Of the mark."""
    fixed: Position
    """The other end."""
    at: Position


class PagesView(DeskView):
    """Pages to read: select in, cut from, and act on by keys."""

    selection_changed = Signal()
    selection_made = Signal()  # the hand has let go
    letter_pressed = Signal(str)
    retry_asked = Signal(int)
    link_clicked = Signal(object)  # Link
    region_cut = Signal(int, object)  # page index, box in page space
    menu_asked = Signal(QPoint)
    mark_dragged = Signal(str, object)  # its entry, the characters it has now
    text_pointed = Signal(int, int)  # page index and character under the pointer; -1 for none
    entry_dropped = Signal(str, int, float)  # its id, page index, y

    def __init__(self, background: Background, parent: QWidget | None = None) -> None:
        super().__init__(background, parent)
        self.selection = TextSelection(self.images)
        self._laid: dict[str, list[Laid]] = {}
        self._laid_on: dict[str, dict[int, list[Laid]]] = {}
        self._chosen_mark = ""
        """The mark whose ends can be dragged."""
        self._hand = PageHand(self)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.viewport().setMouseTracking(True)
        self.setAcceptDrops(True)
        self.viewport().setAcceptDrops(True)
        self.setAccessibleName("Pages")
        self.setMinimumWidth(260)

    def show_document(self, session: Session | None, facts: FileFacts | None) -> None:
        """Show the pages of a document, from its first."""
        self.selection = TextSelection(self.images)
        self._laid, self._laid_on = {}, {}
        super().show_document(session, facts)

    # --- what lies over the pages

    def lay(self, layer: str, items: Sequence[Laid]) -> None:
        """Replace what one layer lays over the pages: hits, hit, evidence, marks."""
        self._laid[layer] = list(items)
        self._laid_on[layer] = by_page(items)
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

    def characters_of(self, spans: Sequence[SpanOnPage]) -> str:
        """The characters of a passage as far as its pages are in view, a blank between ranges."""
        layers = ((span, self.images.layer(span.page)) for span in spans)
        return " ".join(
            "".join(layer.page.chars[span.start : span.end])
            for span, layer in layers if layer is not None
        )  # fmt: skip

    def mark_end_at(self, point: QPointF) -> MarkEnd | None:
        """The end of the chosen mark that lies under a point of the viewport."""
        for k, (x, box) in enumerate(self.mark_ends()):
            if abs(point.x() - x) <= END_PX and box.top() <= point.y() <= box.bottom():
                spans = self._chosen_spans()
                layer = self.images.layer(spans[0].page)
                assert layer is not None
                where = {int(c): at for at, c in enumerate(layer.order.tolist())}
                both = where[spans[0].start], where[spans[-1].end - 1] + 1
                page = spans[0].page
                return MarkEnd(self._chosen_mark, (page, both[1 - k]), (page, both[k]))
        return None

    def mark_ends(self) -> list[tuple[float, QRectF]]:
        """X and line of the first and of the last end of the chosen mark, in the viewport.

        A mark over two pages has none: the hand cannot hold both.
        """
        spans = self._chosen_spans()
        if not spans or spans[0].page != spans[-1].page:
            return []
        page = spans[0].page
        boxes = [self.to_view(page, box) for box in self.images.boxes_of(page, spans)]
        return [(boxes[0].left(), boxes[0]), (boxes[-1].right(), boxes[-1])] if boxes else []

    def _chosen_spans(self) -> tuple[SpanOnPage, ...]:
        laid = self._laid.get("marks", ()) if self._chosen_mark else ()
        return next((item.spans for item in laid if item.key == self._chosen_mark), ())

    def choose_mark(self, key: str) -> None:
        """Show the ends of a mark, to be dragged; "" for none."""
        if key != self._chosen_mark:
            self._chosen_mark = key
            self.viewport().update()

    def choose_mark_at(self, point: QPointF) -> None:
        """Choose the mark under a point of the viewport, or none where there is none."""
        under = self.under(point)
        found = ""
        if under is not None:
            page, x, y = under
            for item in self._laid_on.get("marks", {}).get(page, ()):
                if any(contains(box, x, y) for box in self.images.boxes_of(page, item.spans)):
                    found = item.key
        self.choose_mark(found)

    # --- selection

    @property
    def has_selection(self) -> bool:
        """Whether any text is selected."""
        return bool(self.selection.spans())

    def clear_selection(self) -> None:
        """Select nothing."""
        if self.selection.ends() is not None:
            self.selection.clear()
            self.selection_moved()

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
            self.selection_moved()
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

    def selection_moved(self) -> None:
        """Draw the selection anew and tell of it."""
        self.viewport().update()
        self.selection_changed.emit()

    def selection_done(self) -> None:
        """The hand has let go of a selection."""
        if self.has_selection:
            clipboard = QGuiApplication.clipboard()
            if clipboard.supportsSelection():
                clipboard.setText(self.selected_text(), clipboard.Mode.Selection)
            self.selection_made.emit()

    def position_at(self, point: QPointF) -> Position | None:
        """The place between characters under a point of the viewport."""
        under = self.under(point)
        layer = self.images.layer(under[0]) if under else None
        if under is None or layer is None:
            return None
        return under[0], layer.position_at(under[1], under[2])

    def tell_pointed(self, point: QPointF) -> None:
        """Tell the character under a point of the viewport."""
        at = self.position_at(point)
        layer = self.images.layer(at[0]) if at else None
        is_on_text = False
        if layer is not None and (under := self.under(point)):
            is_on_text = layer.is_on_text(under[1], under[2])
        if at is not None and layer is not None and is_on_text and at[1] < len(layer.order):
            self.text_pointed.emit(at[0], int(layer.order[at[1]]))
        else:
            self.text_pointed.emit(at[0] if at else 0, -1)

    def extend_selection(self, at: Position) -> None:
        """Move the free end of the selection."""
        if self.selection.fixed is None:
            self.selection.set(at, at)
        assert self.selection.fixed is not None
        first, last = sorted((self.selection.fixed[0], at[0]))
        for page in range(first, last + 1):
            self.images.need_layer(page)
        self.selection.moving = at
        self.selection_moved()

    # --- an entry dragged from the list

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """Take entries."""
        if event.mimeData().hasFormat(ENTRY_MIME):
            event.acceptProposedAction()
        else:
            event.ignore()  # a file is for the window

    def dragMoveEvent(self, event: QDragMoveEvent) -> None:
        """On pages alone."""
        event.setAccepted(self.under(event.position()) is not None)

    def dropEvent(self, event: QDropEvent) -> None:
        """The place that an entry is given."""
        under = self.under(event.position())
        if under is not None and event.mimeData().hasFormat(ENTRY_MIME):
            entry_id = bytes(event.mimeData().data(ENTRY_MIME).data()).decode()
            self.entry_dropped.emit(entry_id, under[0], float(under[2]))
            event.acceptProposedAction()

    # --- the mouse

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Start a selection, a cutting or a drag; the third click takes the sentence."""
        self._hand.press(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Extend the selection, drag the pages, or show what is under the pointer."""
        self._hand.move(event)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """The hand lets go."""
        self._hand.release(event)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Select a word."""
        self._hand.double_click(event)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        """Offer what can be done here."""
        self.menu_asked.emit(event.globalPos())

    def link_at(self, point: QPointF) -> Link | None:
        """The link under a point of the viewport."""
        return self._hand.link_at(point)

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
        start = self.selection.fixed or self.position_at(QPointF(80.0, 40.0))
        if start is None or self.images.layer(start[0]) is None:
            return True
        self.selection.step(start, *step)
        self.selection_moved()
        self.selection_made.emit()
        return True

    # --- painting

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the desk, the pages in view and what lies over them."""
        painter = QPainter(self.viewport())
        painter.fillRect(event.rect(), QColor(self.colours.desk))
        selected = self.selected_spans()
        for page in self.visible_pages():
            paint_page(painter, self, page, self._laid_on, selected)
        paint_ends(painter, self.mark_ends(), self.colours)
        painter.end()
