"""The page of the digest: a list set like a reference book, with its places in the margin."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QPersistentModelIndex,
    QRect,
    QSize,
    Qt,
    Signal,
)
from PySide6.QtGui import (
    QColor,
    QFont,
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QResizeEvent,
)
from PySide6.QtWidgets import (
    QAbstractItemView,
    QListView,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from wide_margin.core.plain import one_line
from wide_margin.desktop.digest_view.rows import Shape
from wide_margin.desktop.look import DAY, sans_font, serif_font

if TYPE_CHECKING:
    from wide_margin.core.document import Locator
    from wide_margin.desktop.digest_view.rows import DigestRow
    from wide_margin.desktop.look import Colours

LEFT, NAMES, PLACES, GAP = 28, 132, 84, 16
BESIDE_TEXT = LEFT + NAMES + PLACES + 3 * GAP
"""Pixels of what stands beside the text."""
"""Pixels: before the names, of the names, of the places, between columns."""
WIDEST = 660
"""Pixels of a line of text; longer ones are hard to read."""
INDENT, MARK = 18, 16
STRIP = 7
Index = QModelIndex | QPersistentModelIndex
_WRAPPED = int(Qt.TextFlag.TextWordWrap) | int(Qt.AlignmentFlag.AlignLeft)


class _Lines(QAbstractListModel):
    """Rows of the digest for the list."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[DigestRow] = []

    def rowCount(self, parent: Index | None = None) -> int:
        """How many lines there are."""
        return len(self.rows)

    def data(self, index: Index, role: int = int(Qt.ItemDataRole.DisplayRole)) -> object:
        """What is said of a line; the delegate draws the line itself."""
        row = self.rows[index.row()]
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            return one_line(row.said)
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        """Headings cannot be chosen."""
        if self.rows[index.row()].shape is Shape.HEAD:
            return Qt.ItemFlag.ItemIsEnabled
        return Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable

    def replace(self, rows: list[DigestRow]) -> None:
        """Show other lines."""
        self.beginResetModel()
        self.rows = rows
        self.endResetModel()


class DigestPage(QListView):
    """Lines with names and places. Return goes to the place; Right and Left open and close."""

    pointed = Signal(object)  # Locator
    followed = Signal(object)  # Locator
    section_followed = Signal(int)
    toggled = Signal(int)  # section

    def __init__(self) -> None:
        super().__init__()
        self.colours: Colours = DAY
        self.n_pages = 1
        self.lines = _Lines()
        self.setModel(self.lines)
        self.setItemDelegate(_Setter(self))
        self.setObjectName("digestPage")
        self.setAccessibleName("Digest")
        self.setMouseTracking(True)
        self.setUniformItemSizes(False)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.entered.connect(self._point)
        self.selectionModel().currentChanged.connect(lambda now, _: self._point(now))

    def show_rows(self, rows: list[DigestRow]) -> None:
        """Show lines; what stood at the top and was chosen stays where it can."""
        chosen, top = self.current(), self.verticalScrollBar().value()
        self.lines.replace(rows)
        if chosen is not None:
            same = next((k for k, row in enumerate(rows) if _is_same(row, chosen)), -1)
            if same >= 0:
                self.selectionModel().setCurrentIndex(
                    self.lines.index(same), self.selectionModel().SelectionFlag.ClearAndSelect
                )
        self.verticalScrollBar().setValue(top)

    def current(self) -> DigestRow | None:
        """The chosen line."""
        index = self.currentIndex()
        return self.lines.rows[index.row()] if index.isValid() else None

    def go_to_part(self, part: str) -> None:
        """Show a part of the digest from its heading on."""
        for k, row in enumerate(self.lines.rows):
            if row.part == part:
                self.scrollTo(self.lines.index(k), QAbstractItemView.ScrollHint.PositionAtTop)
                first = k + (row.shape is Shape.HEAD)
                self.setCurrentIndex(self.lines.index(min(first, len(self.lines.rows) - 1)))
                self.scrollTo(self.lines.index(k), QAbstractItemView.ScrollHint.PositionAtTop)
                return

    def choose(self, locator: Locator) -> None:
        """Choose the line of a place."""
        for k, row in enumerate(self.lines.rows):
            if row.locator == locator:
                self.setCurrentIndex(self.lines.index(k))
                return

    def text_width(self) -> int:
        """Pixels of the column of text."""
        room = self.viewport().width() - BESIDE_TEXT
        return max(min(room, WIDEST), 160)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        self.viewport().update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Lines break anew."""
        super().resizeEvent(event)
        self.scheduleDelayedItemsLayout()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Open a section at its mark; anywhere else go to the place."""
        super().mouseReleaseEvent(event)
        index = self.indexAt(event.position().toPoint())
        if event.button() is not Qt.MouseButton.LeftButton or not index.isValid():
            return
        row = self.lines.rows[index.row()]
        start = LEFT + NAMES + GAP
        if row.shape is Shape.SECTION and row.has_deeper and event.position().x() < start:
            self.toggled.emit(row.section)
        else:
            self._follow(row)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Return follows; Right opens a section and Left closes it."""
        row = self.current()
        if row is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._follow(row)
            return
        wanted = {Qt.Key.Key_Right: False, Qt.Key.Key_Left: True}.get(Qt.Key(event.key()))
        if row is not None and wanted is not None and row.has_deeper and row.is_open is wanted:
            self.toggled.emit(row.section)
            return
        super().keyPressEvent(event)

    def _follow(self, row: DigestRow) -> None:
        if row.shape is Shape.SECTION:
            self.section_followed.emit(row.section)
        elif row.locator is not None:
            self.followed.emit(row.locator)

    def _point(self, index: QModelIndex) -> None:
        if index.isValid() and (locator := self.lines.rows[index.row()].locator) is not None:
            self.pointed.emit(locator)


def _is_same(one: DigestRow, other: DigestRow) -> bool:
    if one.shape is Shape.SECTION:
        return other.shape is Shape.SECTION and one.section == other.section
    return (one.shape, one.part, one.section, one.locator, one.name) == (
        other.shape, other.part, other.section, other.locator, other.name
    )  # fmt: skip


class _Setter(QStyledItemDelegate):
    """Sets the lines: names at the left, text, places at the right."""

    def __init__(self, page: DigestPage) -> None:
        super().__init__(page)
        self._page = page

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """As high as the line breaks."""
        row = self._page.lines.rows[index.row()]
        width = self._page.viewport().width()
        above, below = _room(row)
        return QSize(width, above + self._height(row) + below)

    def _height(self, row: DigestRow) -> int:
        width = self._page.text_width()
        if row.shape is Shape.SECTION:
            inside = width - row.depth * INDENT
            title = _needed(row.name, _title_font(row), inside)
            return title + (_needed(row.text, _text_font(row), inside) if row.text else 0)
        text = _needed(row.text, _text_font(row), width)
        name = _needed(row.name, _name_font(row), NAMES) if row.name else 0
        return max(text, name) + (STRIP + 6 if row.spread else 0)

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        """Draw one line."""
        row, page = self._page.lines.rows[index.row()], self._page
        c, area = page.colours, QRect(option.rect)
        painter.save()
        if page.currentIndex() == index and row.shape is not Shape.HEAD:
            painter.fillRect(area, QColor(c.chosen))
            if page.hasFocus():
                painter.fillRect(
                    QRect(area.left(), area.top(), 3, area.height()), QColor(c.verdigris)
                )
        above, _ = _room(row)
        top, start, width = area.top() + above, LEFT + NAMES + GAP, page.text_width()
        if row.shape is Shape.HEAD:
            line = area.top() + above - 9
            painter.fillRect(
                QRect(LEFT, line, start - LEFT + width + GAP + PLACES, 1), QColor(c.rule)
            )
        if row.shape is Shape.SECTION:
            self._section(painter, row, top, start, width)
        else:
            self._line(painter, row, top, start, width)
        if row.place:
            painter.setFont(sans_font(-0.5))
            painter.setPen(QColor(c.secondary if row.shape is Shape.SECTION else c.madder))
            at = QRect(start + width + GAP, top + 1, PLACES, 24)
            painter.drawText(at, int(Qt.AlignmentFlag.AlignLeft), one_line(row.place))
        painter.restore()

    def _section(self, painter: QPainter, row: DigestRow, top: int, start: int, width: int) -> None:
        c, shift = self._page.colours, row.depth * INDENT
        if row.has_deeper:
            painter.setFont(sans_font(0.5))
            painter.setPen(QColor(c.verdigris))
            at = QRect(start - MARK - 8, top - 1, MARK + 4, 22)
            painter.drawText(at, int(Qt.AlignmentFlag.AlignHCenter), "–" if row.is_open else "+")
        height = _needed(row.name, _title_font(row), width - shift)
        painter.setFont(_title_font(row))
        painter.setPen(QColor(c.ink))
        painter.drawText(
            QRect(start + shift, top, width - shift, height), _WRAPPED, one_line(row.name)
        )
        painter.setFont(_text_font(row))
        rest = QRect(start + shift, top + height, width - shift, 4000)
        painter.drawText(rest, _WRAPPED, one_line(row.text))

    def _line(self, painter: QPainter, row: DigestRow, top: int, start: int, width: int) -> None:
        c = self._page.colours
        if row.name:
            painter.setFont(_name_font(row))
            painter.setPen(QColor(c.ink if row.shape is Shape.TERM else c.secondary))
            painter.drawText(QRect(LEFT, top + 1, NAMES, 4000), _WRAPPED, one_line(row.name))
        painter.setFont(_text_font(row))
        painter.setPen(QColor(c.secondary if row.shape is Shape.NONE else c.ink))
        text = one_line(row.text)
        painter.drawText(QRect(start, top, width, 4000), _WRAPPED, text)
        if row.spread:
            height = _needed(text, _text_font(row), width)
            strip = QRect(start, top + height + 4, width, STRIP)
            painter.fillRect(QRect(strip.left(), strip.bottom(), width, 1), QColor(c.rule))
            for place in row.spread:
                x = strip.left() + int(width * (place + 0.5) / max(self._page.n_pages, 1))
                painter.fillRect(QRect(x, strip.top(), 2, STRIP), QColor(c.ochre))


def _room(row: DigestRow) -> tuple[int, int]:
    """Pixels above and below a line."""
    if row.shape is Shape.HEAD:
        return 34, 6
    if row.shape is Shape.TITLE:
        return 24, 8
    return 4, 4


def _text_font(row: DigestRow) -> QFont:
    if row.shape is Shape.TITLE:
        return serif_font(7)
    if row.shape is Shape.HEAD:
        return sans_font(0.5, bold=True)
    if row.shape is Shape.NONE:
        return sans_font(-0.5)
    return serif_font(0.5)


def _title_font(row: DigestRow) -> QFont:
    return sans_font(-0.5 if row.depth else 0.0, bold=True)


def _name_font(row: DigestRow) -> QFont:
    return sans_font(-0.5, bold=row.shape is Shape.TERM)


def _needed(text: str, font: QFont, width: int) -> int:
    metrics = QFontMetrics(font)
    return metrics.boundingRect(QRect(0, 0, width, 4000), _WRAPPED, one_line(text)).height()
