"""The list of entries in groups: what, where, tags; words that are looked for are marked."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QAbstractListModel, QModelIndex, QPointF, QRect, QSize, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QFont,
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QTextCharFormat,
    QTextLayout,
    QTextOption,
)
from PySide6.QtWidgets import QFrame, QStyledItemDelegate, QStyleOptionViewItem, QWidget

from wide_margin.core.export.entries import said_in
from wide_margin.core.layout import fold, folded_with_places
from wide_margin.core.margin import Entry, EntryKind
from wide_margin.core.margin.gathering import ink_of
from wide_margin.core.plain import one_line
from wide_margin.desktop.ink_edges import INK_KEYS, paint_ink
from wide_margin.desktop.look import DAY, sans_font, serif_font
from wide_margin.desktop.tall_rows import TallRows

if TYPE_CHECKING:
    from wide_margin.core.margin.gathering import Group
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.tall_rows import Index

LEFT, EDGE, GAP = 22, 7, 13
PLACE, TAGS = 74, 128
"""Pixels of the columns with the page and the tags."""
HEAD_HEIGHT = 38
ABOVE = 8
MOST_LINES = 2
_ROW = Qt.ItemDataRole.UserRole


@dataclass(slots=True)
class Row:
    """A heading of a group, or one of its entries."""

    name: str = ""
    n: int = 0
    n_all: int = 0
    entry: Entry | None = None

    @property
    def about(self) -> str:
        """What it is, for entries other than marks."""
        if self.entry is None or self.entry.kind is EntryKind.MARK:
            return ""
        return str(self.entry.kind).capitalize()

    @property
    def text(self) -> str:
        """Its chief words."""
        entry = self.entry
        assert entry is not None
        if entry.kind in (EntryKind.MARK, EntryKind.CUTTING):
            return one_line(" ".join(entry.anchor.quote.split())) or str(entry.kind)
        return one_line(entry.headline)

    @property
    def detail(self) -> str:
        """What is said besides."""
        entry = self.entry
        assert entry is not None
        said = [one_line(line) for line in said_in(entry)]
        rest = [line for line in said if line and line != self.text]
        return rest[0] if rest else ""


class Rows(QAbstractListModel):
    """All groups, one after the other."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Row] = []
        self.place_of: Callable[[Entry], str] = lambda entry: ""
        """How the page of an entry is written."""

    def show(self, rows: list[Row], place_of: Callable[[Entry], str]) -> None:
        """Show other rows."""
        self.beginResetModel()
        self.rows, self.place_of = rows, place_of
        self.endResetModel()

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        """How many."""
        return 0 if parent.isValid() else len(self.rows)

    def data(self, index: Index, role: int = int(Qt.ItemDataRole.DisplayRole)) -> Any:
        """The row itself, or its words for those who hear them."""
        row = self.rows[index.row()]
        if role == _ROW:
            return row
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            if row.entry is None:
                return row.name
            return f"{row.about} {row.text} {self.place_of(row.entry)}".strip()
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        """Headings cannot be chosen."""
        if self.rows[index.row()].entry is None:
            return Qt.ItemFlag.NoItemFlags
        return Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable


class EntryList(TallRows):
    """Entries to choose, one or several; Enter goes to the place."""

    followed = Signal(object)  # Entry
    pointed = Signal(object)  # Entry or None
    delete_asked = Signal()
    ink_asked = Signal(object)  # Ink
    tag_asked = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("entryList")
        self.setAccessibleName("Entries")
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setSelectionMode(TallRows.SelectionMode.ExtendedSelection)
        self.colours: Colours = DAY
        self.words: tuple[str, ...] = ()
        self._has_tags = False
        self.rows = Rows()
        self.setModel(self.rows)
        self.setItemDelegate(_Setter(self))
        self.selectionModel().currentChanged.connect(
            lambda now, _: self.pointed.emit(self._at(now))
        )

    def show(self, groups: Sequence[Group], place_of: Callable[[Entry], str], words: str) -> None:  # type: ignore[override]
        """Show groups; what was chosen stays chosen where it is still there."""
        kept = {entry.id for entry in self.chosen()}
        current = self.current()
        self.words = tuple(fold(words).split())
        rows = []
        for group in groups:
            rows.append(Row(group.name, len(group.entries), group.n_all))
            rows += [Row(entry=entry) for entry in group.entries]
        is_entry = [k for k, row in enumerate(rows) if row.entry is not None]
        pointed = current.id if current is not None else ""
        if kept == {pointed}:  # pointing chooses it again
            kept = set()
        same = (k for k in is_entry if (entry := rows[k].entry) and entry.id == pointed)
        at = next(same, is_entry[0] if is_entry else None)
        self._has_tags = any(row.entry.tags for row in rows if row.entry is not None)
        self.rows.show(rows, place_of)
        model = self.selectionModel()
        for k in is_entry if kept else ():
            if (entry := rows[k].entry) and entry.id in kept:
                model.select(self.rows.index(k), model.SelectionFlag.Select)
        if at is not None:
            flag = model.SelectionFlag.NoUpdate if kept else model.SelectionFlag.Select
            model.setCurrentIndex(self.rows.index(at), flag)
        else:
            self.pointed.emit(None)

    def _at(self, index: Index) -> Entry | None:
        return self.rows.rows[index.row()].entry if index.isValid() else None

    def current(self) -> Entry | None:
        """The entry that is pointed at."""
        return self._at(self.currentIndex())

    def chosen(self) -> list[Entry]:
        """Those that are chosen, each once."""
        rows = sorted(index.row() for index in self.selectedIndexes())
        found = {}
        for row in rows:
            if 0 <= row < len(self.rows.rows) and (entry := self.rows.rows[row].entry) is not None:
                found[entry.id] = entry
        return list(found.values())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Go there, delete, change ink, tag."""
        entry = self.current()
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and entry is not None:
            self.followed.emit(entry)
        elif event.key() == Qt.Key.Key_Delete:
            self.delete_asked.emit()
        elif event.text() in INK_KEYS:
            self.ink_asked.emit(INK_KEYS[event.text()])
        elif event.text().lower() == "t":
            self.tag_asked.emit()
        else:
            super().keyPressEvent(event)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Go there."""
        entry = self._at(self.indexAt(event.position().toPoint()))
        if entry is not None:
            self.followed.emit(entry)

    def tags_width(self) -> int:
        """Pixels for the tags of an entry; none where no entry that is shown has one."""
        return TAGS if self._has_tags else 0

    def text_width(self) -> int:
        """Pixels for the words of an entry."""
        taken = LEFT + EDGE + 2 * GAP + PLACE + self.tags_width()
        return max(self.viewport().width() - taken, 120)


class _Setter(QStyledItemDelegate):
    """Sets the rows."""

    def __init__(self, entries: EntryList) -> None:
        super().__init__(entries)
        self._list = entries
        self._heights: dict[tuple[str, str, int], int] = {}

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        """As high as its words need, two lines of them at most."""
        row, width = self._list.rows.rows[index.row()], self._list.text_width()
        if row.entry is None:
            return QSize(width, HEAD_HEIGHT)
        key = (row.entry.id, row.entry.changed, width)
        if key not in self._heights:
            self._heights[key] = self._height(row, width)
        return QSize(width, self._heights[key])

    def _height(self, row: Row, width: int) -> int:
        height = 2 * ABOVE
        if row.about:
            height += QFontMetrics(sans_font(-1)).lineSpacing()
        metrics = QFontMetrics(serif_font())
        n_lines = min(MOST_LINES, 1 + metrics.horizontalAdvance(row.text) // max(width - 8, 1))
        height += n_lines * metrics.lineSpacing()
        small = QFontMetrics(sans_font(-1))
        height += small.lineSpacing() if row.detail else 0
        tags = ", ".join(row.entry.tags) if row.entry is not None else ""
        n_tags = min(2, 1 + small.horizontalAdvance(tags) // (TAGS - GAP))
        return max(height, 2 * ABOVE + n_tags * small.lineSpacing())

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        """Draw one row."""
        row, c, area = index.data(_ROW), self._list.colours, QRect(option.rect)
        painter.save()
        if row.entry is None:
            self._head(painter, row, area)
        else:
            self._entry(painter, row, row.entry, area, index)
        painter.setPen(QColor(c.rule))
        painter.drawLine(area.left() + LEFT, area.bottom(), area.right() - GAP, area.bottom())
        painter.restore()

    def _head(self, painter: QPainter, row: Row, area: QRect) -> None:
        c = self._list.colours
        painter.setFont(sans_font(0, bold=True))
        painter.setPen(QColor(c.ink))
        room = area.adjusted(LEFT, 0, -GAP - 90, -6)
        name = _cut(one_line(row.name), sans_font(0, bold=True), room.width())
        flags = Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignLeft
        painter.drawText(room, int(flags), name)
        painter.setFont(sans_font(-0.5))
        painter.setPen(QColor(c.secondary))
        counted = str(row.n) if row.n == row.n_all else f"{row.n} of {row.n_all}"
        flags = Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignRight
        painter.drawText(area.adjusted(0, 0, -GAP, -6), int(flags), counted)

    def _entry(self, painter: QPainter, row: Row, entry: Entry, area: QRect, index: Index) -> None:
        c = self._list.colours
        if self._list.selectionModel().isSelected(index):
            painter.fillRect(area, QColor(c.chosen))
        if self._list.currentIndex() == index and self._list.hasFocus():
            painter.fillRect(QRect(area.left(), area.top(), 3, area.height()), QColor(c.verdigris))
        if (ink := ink_of(entry)) is not None:
            edge = QRect(area.left() + LEFT, area.top() + ABOVE, EDGE, area.height() - 2 * ABOVE)
            paint_ink(painter, edge, ink, c)
        left, width = area.left() + LEFT + EDGE + GAP, self._list.text_width()
        y = area.top() + ABOVE
        if row.about:
            y += self._words(
                painter, row.about, sans_font(-1), c.secondary, QRect(left, y, width, 40), 1
            )
        y += self._words(
            painter, row.text, serif_font(), c.ink, QRect(left, y, width, 80), MOST_LINES
        )
        if row.detail:
            self._words(
                painter, row.detail, sans_font(-1), c.secondary, QRect(left, y, width, 40), 1
            )
        at = left + width + GAP
        top = area.top() + ABOVE
        painter.setFont(sans_font(-1, bold=True))
        painter.setPen(QColor(c.madder))
        place = QRect(at, top, PLACE, 22)
        painter.drawText(
            place, int(Qt.AlignmentFlag.AlignLeft), one_line(self._list.rows.place_of(entry))
        )
        if tags := one_line(", ".join(entry.tags)):
            room = QRect(at + PLACE, top, self._list.tags_width() - GAP, 60)
            self._words(painter, tags, sans_font(-1), c.secondary, room, 2)

    def _words(
        self, painter: QPainter, text: str, font: QFont, colour: str, room: QRect, most: int
    ) -> int:
        """Draw words over some lines, those that are looked for marked; pixels that they take."""
        layout = QTextLayout(text, font)
        option = QTextOption(Qt.AlignmentFlag.AlignLeft)
        option.setWrapMode(QTextOption.WrapMode.WrapAtWordBoundaryOrAnywhere)
        layout.setTextOption(option)
        layout.setFormats(self._marked(text))
        spacing = QFontMetrics(font).lineSpacing()
        layout.beginLayout()
        n = 0
        while n < most and (line := layout.createLine()).isValid():
            line.setLineWidth(room.width())
            line.setPosition(QPointF(0, n * spacing))
            n += 1
            if n == most and line.textStart() + line.textLength() < len(text):
                layout.endLayout()
                start = line.textStart()
                fitted = text[:start] + _cut(text[start:], font, room.width() - 2)
                return self._words(painter, fitted, font, colour, room, most + 1)
        layout.endLayout()
        painter.setPen(QColor(colour))
        layout.draw(painter, QPointF(room.left(), room.top()))
        return n * spacing

    def _marked(self, text: str) -> list[QTextLayout.FormatRange]:
        found: list[QTextLayout.FormatRange] = []
        if not self._list.words:
            return found
        folded, places = folded_with_places(text)
        for word in self._list.words:
            for match in re.finditer(rf"(?<!\w){re.escape(word)}", folded):
                piece = QTextLayout.FormatRange()
                piece.start = places[match.start()]
                piece.length = places[match.end() - 1] + 1 - piece.start
                form = QTextCharFormat()
                form.setBackground(QColor(self._list.colours.hits))
                piece.format = form
                found.append(piece)
        return found


def _cut(text: str, font: QFont, width: int) -> str:
    """A text cut where it is wider than there is room."""
    return QFontMetrics(font).elidedText(text, Qt.TextElideMode.ElideRight, width)
