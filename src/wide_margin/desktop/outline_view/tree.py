"""The tree of sections with their witnesses, pages and lengths."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import (
    QAbstractItemModel,
    QModelIndex,
    QPersistentModelIndex,
    QRect,
    QSize,
    Qt,
    QTimer,
    Signal,
)
from PySide6.QtGui import QColor, QFontMetrics, QKeyEvent, QMouseEvent, QPainter, QResizeEvent
from PySide6.QtWidgets import (
    QHeaderView,
    QLineEdit,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTreeWidget,
    QTreeWidgetItem,
    QWidget,
)

from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import WITNESSES, Outline
from wide_margin.core.plain import one_line
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.words import set_row_tip, tip_of

if TYPE_CHECKING:
    from wide_margin.core.outline import Section
    from wide_margin.desktop.look import Colours

ROW_HEIGHT = 28
INDENT = 22
LEFT = 14
SQUARE = 9
_INDEX = Qt.ItemDataRole.UserRole
_SHOWN, _EDITED = Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole
_TIP = Qt.ItemDataRole.ToolTipRole
_EDITABLE = (
    Qt.ItemFlag.ItemIsEditable | Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
    | Qt.ItemFlag.ItemIsDragEnabled | Qt.ItemFlag.ItemIsDropEnabled
)  # fmt: skip
WIDTHS = {1: 190, 2: 60, 3: 84, 4: 72}
"""Pixels of the columns beside the titles."""
SQUARES, SHORT = 1, 90
"""The column of the witnesses, and its pixels where it does not name each."""
LEAST_TITLE, GIVEN_UP = 220, (4, 3)
"""Pixels that titles have at least, and the columns given up for them, one after the other."""
COLUMNS = ("Section", "Witnesses\nbookmark · contents · heading", "Page", "Printed", "Length")
Index = QModelIndex | QPersistentModelIndex


class SectionTree(QTreeWidget):
    """Sections as rows. Keys: < > level, F2 title, Delete, Return to read it there."""

    chosen = Signal(int)
    opened = Signal(int)
    renamed = Signal(int, str)
    key_pressed = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.colours: Colours = DAY
        self.outline = Outline()
        self.labels = PageLabels(())
        self.heights: Sequence[float] = ()
        self._items: list[_Row] = []
        self._closed: set[tuple[str, int, float]] = set()
        self.setAccessibleName("Sections")
        self.setColumnCount(len(COLUMNS))
        self.setHeaderLabels(list(COLUMNS))
        self.setRootIsDecorated(False)
        self.setIndentation(0)
        self.setUniformRowHeights(True)
        self.setItemDelegate(_Delegate(self))
        self.setEditTriggers(QTreeWidget.EditTrigger.EditKeyPressed)
        self.setVerticalScrollMode(QTreeWidget.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        header = self.header()
        header.setStretchLastSection(False)
        header.setSectionsMovable(False)
        header.setDefaultAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        for column in range(len(COLUMNS)):  # a style sheet passes over the header's own
            self.headerItem().setFont(column, sans_font(-1))
        self.headerItem().setTextAlignment(0, left)
        self.headerItem().setTextAlignment(1, Qt.AlignmentFlag.AlignCenter)
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        for column, width in WIDTHS.items():
            header.setSectionResizeMode(column, QHeaderView.ResizeMode.Fixed)
            header.resizeSection(column, width)
        set_row_tip(
            self.headerItem(), 1,
            "Bookmark in the file, printed contents page, heading on the page:\n"
               "full where it agrees, empty where it is silent, with a dot where it disagrees"
        )  # fmt: skip
        set_row_tip(self.headerItem(), 2, "Page of the file")
        set_row_tip(self.headerItem(), 3, "Page number as printed")
        set_row_tip(self.headerItem(), 4, "Length in pages")
        self.currentItemChanged.connect(self._tell_chosen)
        self.itemDoubleClicked.connect(lambda item, _: self.opened.emit(item.data(0, _INDEX)))
        self.itemCollapsed.connect(lambda item: self._closed.add(self._key(item)))
        self.itemExpanded.connect(lambda item: self._closed.discard(self._key(item)))

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Give up what matters least where titles would have no room."""
        room = self.viewport().width() - sum(WIDTHS.values())
        is_short = room < LEAST_TITLE
        self.header().resizeSection(SQUARES, SHORT if is_short else WIDTHS[SQUARES])
        name = COLUMNS[SQUARES]
        self.headerItem().setText(SQUARES, name.split("\n")[0] if is_short else name)
        room += (WIDTHS[SQUARES] - SHORT) * is_short
        for column in GIVEN_UP:
            self.setColumnHidden(column, room < LEAST_TITLE)
            room += WIDTHS[column] * (room < LEAST_TITLE)
        super().resizeEvent(event)

    def show_outline(
        self, outline: Outline, labels: PageLabels, heights: Sequence[float], at: int = -1
    ) -> None:
        """Show sections; what was closed stays closed, and a row stays chosen."""
        if at < 0:
            at = self.current()
        top = self.verticalScrollBar().value()
        before, self.outline, self.labels = self.outline, outline, labels
        is_same = list(self.heights) == list(heights) and same_shape(before, outline)
        self.heights = heights
        self.blockSignals(True)
        if is_same:
            self._show_differences(before)
        else:
            self._build(outline)
        if self._items:
            self.setCurrentItem(self._items[min(max(at, 0), len(self._items) - 1)])
        self.blockSignals(False)
        self.verticalScrollBar().setValue(top)
        if (chosen := self.currentItem()) is not None:
            self.scrollToItem(chosen)
            self._tell_chosen()

    def _show_differences(self, before: Outline) -> None:
        """Write the rows anew whose sections are not as they were."""
        for index, (old, new) in enumerate(
            zip(before.sections, self.outline.sections, strict=True)
        ):
            if old != new:
                if (old.title, old.page, old.y) in self._closed:
                    self._closed.discard((old.title, old.page, old.y))
                    self._closed.add((new.title, new.page, new.y))
                self._items[index].tell_changed()

    def _build(self, outline: Outline) -> None:
        self.clear()
        self._items = []
        roots: list[QTreeWidgetItem] = []
        for index, parent in enumerate(outline.parents):
            item = _Row(self, index)
            if parent >= 0:
                self._items[parent].addChild(item)
            else:
                roots.append(item)
            self._items.append(item)
        self.addTopLevelItems(roots)
        closed = self._closed
        if closed:
            for item in self._items:
                item.setExpanded(self._key(item) not in closed)
        else:
            self.expandAll()

    def current(self) -> int:
        """Index of the chosen section, -1 for none."""
        item = self.currentItem()
        return int(item.data(0, _INDEX)) if item is not None else -1

    def choose(self, index: int) -> None:
        """Choose a section, opening what it hangs under."""
        if 0 <= index < len(self._items):
            above = self._items[index].parent()
            while above is not None:
                above.setExpanded(True)
                above = above.parent()
            self.setCurrentItem(self._items[index])
            self.scrollToItem(self._items[index], QTreeWidget.ScrollHint.PositionAtCenter)

    def edit_title(self) -> None:
        """Open the title of the chosen section for editing."""
        if (item := self.currentItem()) is not None:
            self.editItem(item, 0)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of sections; the rest moves about."""
        if self.state() == QTreeWidget.State.EditingState:
            return  # a key that the title's editor leaves over
        if event.text() in ("<", ">"):
            self.key_pressed.emit(event.text())
        elif event.key() == Qt.Key.Key_Delete:
            self.key_pressed.emit("Delete")
        elif event.key() == Qt.Key.Key_Insert:
            self.key_pressed.emit("Insert")
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.opened.emit(self.current())
        else:
            super().keyPressEvent(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """The mark before a title opens and closes it."""
        item = self.itemAt(event.position().toPoint())
        if item is not None and item.childCount():
            level = self.outline.sections[item.data(0, _INDEX)].level
            left = LEFT + level * INDENT - 8
            if left - 4 <= event.position().x() <= left + 14:
                item.setExpanded(not item.isExpanded())
                return
        super().mousePressEvent(event)

    def length(self, section: Section) -> float:
        """Pages from a section's start to its end."""

        def at(page: int, y: float) -> float:
            height = self.heights[page] if 0 <= page < len(self.heights) else 1.0
            return page + y / height

        return max(at(section.end_page, section.end_y) - at(section.page, section.y), 0.0)

    def cell(self, index: int, column: int) -> str:
        """What a row says of its section in a column."""
        section = self.outline.sections[index]
        if column == 0:
            return one_line(section.title, 300)
        if column == 2:
            return str(section.page + 1)
        if column == 3:
            return self._printed(section)
        length = self.length(section)
        return f"{length:.0f}" if length >= 9.95 else f"{length:.1f}"

    def tip(self, index: int, column: int) -> str:
        """What a row says under the pointer."""
        section = self.outline.sections[index]
        return section.title if column == 0 else witness_words(section, self.outline.sources)

    def _printed(self, section: Section) -> str:
        label = self.labels.of(section.page) or ""
        reading = section.reading("contents")
        if reading and any(
            d.about == "page" and d.witness == "contents" for d in section.disagreements
        ):
            return f"{label or '–'} ≠ {reading.printed}"
        return label

    def _key(self, item: QTreeWidgetItem) -> tuple[str, int, float]:
        section = self.outline.sections[item.data(0, _INDEX)]
        return section.title, section.page, section.y

    def _tell_chosen(self, *_: object) -> None:
        if (index := self.current()) >= 0:
            self.chosen.emit(index)


def same_shape(one: Outline, other: Outline) -> bool:
    """Whether two outlines have as many sections, each below the same one, by the same witnesses.

    A list of the one can then show the other by writing some of its rows anew.
    """
    return one.parents == other.parents and one.sources == other.sources


def witness_words(section: Section, sources: Sequence[str]) -> str:
    """What each witness does, in words: for the tooltip and for those who hear the window."""
    names = {"bookmark": "Bookmark", "contents": "Contents page", "heading": "Heading"}
    if not section.readings:
        return "Your own section" if sources else "A part by pages"
    lines = []
    for witness in WITNESSES:
        if witness not in sources:
            lines.append(f"{names[witness]}: the document has none")
        elif section.disputes(witness):
            lines.append(f"{names[witness]}: disagrees")
        elif section.reading(witness):
            lines.append(f"{names[witness]}: agrees")
        else:
            lines.append(f"{names[witness]}: silent")
    return "\n".join(lines)


class _Row(QTreeWidgetItem):
    """A section's row. It is asked for what it says once it is seen: thousands are made at once."""

    def __init__(self, tree: SectionTree, index: int) -> None:
        super().__init__()
        self._tree, self._index = tree, index
        self.setFlags(_EDITABLE)

    def data(self, column: int, role: int) -> Any:
        """The section's index, what the columns say, and what it says under the pointer."""
        if role == _INDEX:
            return self._index
        if self._index >= len(self._tree.outline.sections):
            return None  # other sections are there, and the rows for them are being made
        if role in (_SHOWN, _EDITED) and column != 1:
            return self._tree.cell(self._index, column)
        if role == _TIP and column < 2:
            return tip_of(self._tree.tip(self._index, column))
        return super().data(column, role)

    def tell_changed(self) -> None:
        """The section is another now."""
        self.emitDataChanged()


class _Delegate(QStyledItemDelegate):
    """Draws rows: title with its mark, squares for the witnesses, numbers at the right."""

    def __init__(self, tree: SectionTree) -> None:
        super().__init__(tree)
        self._tree = tree
        self._typed: tuple[int, str] | None = None
        self.closeEditor.connect(lambda *_: self._editor_closed())

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        return QSize(60, ROW_HEIGHT)

    def createEditor(self, parent: QWidget, option: QStyleOptionViewItem, index: Index) -> QWidget:
        editor = QLineEdit(parent)
        editor.setFont(sans_font(-0.5))
        editor.setAccessibleName("Title of the section")
        return editor

    def updateEditorGeometry(
        self, editor: QWidget, option: QStyleOptionViewItem, index: Index
    ) -> None:
        level = self._section(index).level
        editor.setGeometry(option.rect.adjusted(LEFT + level * INDENT, 1, -4, -1))

    def setModelData(self, editor: QWidget, model: QAbstractItemModel, index: Index) -> None:
        if isinstance(editor, QLineEdit) and editor.text().strip():
            self._typed = int(index.sibling(index.row(), 0).data(_INDEX)), editor.text()

    def _editor_closed(self) -> None:
        """Tell the new title once the editor is gone: the tree is made anew for it."""
        typed, self._typed = self._typed, None
        if typed is not None:
            QTimer.singleShot(0, self._tree, lambda: self._tree.renamed.emit(*typed))

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        c, section, rect = self._tree.colours, self._section(index), option.rect
        row = index.sibling(index.row(), 0)
        is_chosen = row == self._tree.currentIndex().siblingAtColumn(0)
        if is_chosen:
            painter.fillRect(rect, QColor(c.chosen))
        painter.setPen(QColor(c.rule))
        painter.drawLine(rect.bottomLeft(), rect.bottomRight())
        if index.column() == 0:
            if is_chosen:
                painter.fillRect(QRect(0, rect.top(), 3, rect.height()), QColor(c.verdigris))
            self._paint_title(painter, rect, index, section)
        elif index.column() == 1:
            self._paint_witnesses(painter, rect, section)
        else:
            painter.setFont(sans_font(-0.5))
            disputed = index.column() == 3 and "≠" in str(index.data())
            painter.setPen(QColor(c.madder if disputed else c.ink if is_chosen else c.secondary))
            inner = rect.adjusted(0, 0, -12, 0)
            flags = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
            painter.drawText(inner, flags, str(index.data() or ""))

    def _section(self, index: Index) -> Section:
        return self._tree.outline.sections[int(index.sibling(index.row(), 0).data(_INDEX))]

    def _paint_title(self, painter: QPainter, rect: QRect, index: Index, section: Section) -> None:
        c = self._tree.colours
        left = LEFT + section.level * INDENT
        font = sans_font(-0.5)
        font.setBold(section.level == 0)
        if self._tree.model().hasChildren(index.sibling(index.row(), 0)):
            painter.setFont(sans_font(-2))
            painter.setPen(QColor(c.secondary))
            mark = "▾" if self._tree.isExpanded(index.sibling(index.row(), 0)) else "▸"
            place = QRect(left - 10, rect.top(), 14, rect.height())
            painter.drawText(place, Qt.AlignmentFlag.AlignCenter, mark)
        painter.setFont(font)
        painter.setPen(QColor(c.madder if section.disagreements else c.ink))
        room = rect.right() - left - 16
        title = QFontMetrics(font).elidedText(
            section.title, Qt.TextElideMode.ElideRight, max(room, 40)
        )
        flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        painter.drawText(rect.adjusted(left + 8, 0, 0, 0), flags, title)

    def _paint_witnesses(self, painter: QPainter, rect: QRect, section: Section) -> None:
        c, sources = self._tree.colours, self._tree.outline.sources
        if not section.readings:
            painter.setFont(sans_font(-1))
            painter.setPen(QColor(c.secondary))
            word = "yours" if self._tree.outline.is_edited else "by pages"
            painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, word)
            return
        left = rect.center().x() - (3 * SQUARE + 10) // 2
        top = rect.center().y() - SQUARE // 2
        for k, witness in enumerate(WITNESSES):
            if witness in sources:
                square = QRect(left + k * (SQUARE + 5), top, SQUARE, SQUARE)
                paint_witness(painter, square, section, witness, c)


def paint_witness(
    painter: QPainter, square: QRect, section: Section, witness: str, colours: Colours
) -> None:
    """A square: full for agreeing, empty for silent, with a dot for disagreeing."""
    inner = square.adjusted(0, 0, -1, -1)
    if section.disputes(witness):
        painter.setPen(QColor(colours.madder))
        painter.drawRect(inner)
        painter.fillRect(square.adjusted(3, 3, -3, -3), QColor(colours.madder))
    elif section.reading(witness):
        painter.fillRect(square, QColor(colours.ink))
    else:
        painter.setPen(QColor(colours.secondary))
        painter.drawRect(inner)
