"""The contents panel: sections, figures and entries, each a click away."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from PySide6.QtCore import (
    QByteArray,
    QMimeData,
    QModelIndex,
    QPersistentModelIndex,
    QRect,
    QSize,
    Qt,
    QTimer,
    Signal,
)
from PySide6.QtGui import QColor, QFontMetrics, QGuiApplication, QImage, QKeyEvent, QPainter
from PySide6.QtWidgets import (
    QButtonGroup,
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QStackedWidget,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.layout import fold
from wide_margin.core.plain import one_line
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.read_view.pages_view import ENTRY_MIME
from wide_margin.desktop.words import Words, set_row_tip, set_tip, tip_of

if TYPE_CHECKING:
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.outline import Outline
    from wide_margin.desktop.look import Colours

ROW_HEIGHT = 25
INDENT = 15
_PLACE = Qt.ItemDataRole.UserRole
_LABEL = Qt.ItemDataRole.UserRole + 1
_LEVEL = Qt.ItemDataRole.UserRole + 2
_PICTURE = Qt.ItemDataRole.UserRole + 3
PICTURE_ROW = 74
PICTURE_WIDTH = 84
EDGE, BESIDE_TAB = 6, 16
"""Pixels beside the tabs, and beside the word of each."""
LONGEST = 300
"""Characters of a title that a row says."""
AT_ONCE = 250
"""Rows that are made in one go: some ten milliseconds."""


class Row(NamedTuple):
    """A row of the figures or entries list."""

    title: str
    label: str
    key: object


class _Section(QTreeWidgetItem):
    """The row of a section, which puts together what it says when it is looked at.

    Most of the thousands that a long document has never are.
    """

    def __init__(self, title: str, label: str, level: int, index: int) -> None:
        super().__init__()
        self._kept: dict[int, object] = {}
        self.say(title, label, level, index)

    def say(self, title: str, label: str, level: int, index: int) -> None:
        """What it says and leads to from now on."""
        self._title = title
        self._kept = {_PLACE: index, _LABEL: label, _LEVEL: level}

    def data(self, column: int, role: int) -> object:
        """Its title, its tip, or what it was given."""
        if role == Qt.ItemDataRole.DisplayRole:
            return one_line(self._title, LONGEST)
        if role == Qt.ItemDataRole.ToolTipRole:
            return tip_of(f"{self._title}  {self._kept[_LABEL]}")
        kept = self._kept.get(role)
        return kept if kept is not None else super().data(column, role)


class _Delegate(QStyledItemDelegate):
    """Draws a row: title, shortened if need be, and its page at the right edge."""

    def __init__(self, tree: Rows) -> None:
        super().__init__(tree)
        self._tree = tree

    def sizeHint(
        self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> QSize:
        return QSize(80, PICTURE_ROW if self._tree.has_pictures else ROW_HEIGHT)

    def paint(
        self,
        painter: QPainter,
        option: QStyleOptionViewItem,
        index: QModelIndex | QPersistentModelIndex,
    ) -> None:
        c = self._tree.colours
        rect = QRect(0, option.rect.top(), self._tree.viewport().width(), option.rect.height())
        chosen = index == self._tree.currentIndex()
        if chosen:
            painter.fillRect(rect, QColor(c.chosen))
            painter.fillRect(QRect(0, rect.top(), 3, rect.height()), QColor(c.verdigris))
        if self._tree.has_pictures:
            self._paint_with_picture(painter, rect, index)
            return
        level = int(index.data(_LEVEL) or 0)
        has_children = self._tree.model().hasChildren(index)
        font = sans_font(-0.5)
        font.setBold(bool(chosen or (has_children and self._tree.isExpanded(index))) and level == 0)
        label = str(index.data(_LABEL) or "")
        metrics = QFontMetrics(font)
        label_width = metrics.horizontalAdvance(label) + 12
        left = 12 + level * INDENT
        painter.setFont(font)
        painter.setPen(QColor(c.secondary))
        right = rect.adjusted(0, 0, -10, 0)
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.drawText(right, Qt.AlignmentFlag.AlignRight | middle, label)
        painter.setPen(QColor(c.ink))
        room = rect.width() - left - label_width - 6
        title = metrics.elidedText(str(index.data()), Qt.TextElideMode.ElideRight, max(room, 20))
        painter.drawText(rect.adjusted(left, 0, 0, 0), Qt.AlignmentFlag.AlignLeft | middle, title)

    def _paint_with_picture(
        self, painter: QPainter, rect: QRect, index: QModelIndex | QPersistentModelIndex
    ) -> None:
        c = self._tree.colours
        frame = QRect(12, rect.top() + 6, PICTURE_WIDTH, PICTURE_ROW - 12)
        image = index.data(_PICTURE)
        painter.fillRect(frame, QColor(c.page))
        if isinstance(image, QImage) and not image.isNull():
            size = image.size().scaled(frame.size(), Qt.AspectRatioMode.KeepAspectRatio)
            inside = QRect(frame.topLeft(), size)
            inside.moveCenter(frame.center())
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(inside, image)
        painter.setFont(sans_font(-1))
        words = rect.adjusted(PICTURE_WIDTH + 20, 5, -8, -5)
        painter.setPen(QColor(c.secondary))
        label = str(index.data(_LABEL) or "")
        painter.drawText(words, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignBottom, label)
        painter.setPen(QColor(c.ink))
        flags = Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap
        room = max(words.width() * 3 - 40, 60)
        title = painter.fontMetrics().elidedText(
            str(index.data()), Qt.TextElideMode.ElideRight, room
        )
        painter.drawText(words, flags, title)


class Rows(QTreeWidget):
    """A list of rows with a place each, nested or flat."""

    chosen = Signal(object)
    beside = Signal(object)  # chosen with Ctrl: to be shown beside

    def __init__(self, name: str, *, has_pictures: bool = False) -> None:
        super().__init__()
        self.colours: Colours = DAY
        self.has_pictures = has_pictures
        self._waiting: list[Row] = []
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(0)
        self._later.timeout.connect(self._add_waiting)
        self.setHeaderHidden(True)
        self.setRootIsDecorated(False)
        self.setIndentation(0)
        self.setUniformRowHeights(True)
        self.setItemDelegate(_Delegate(self))
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setVerticalScrollMode(QTreeWidget.ScrollMode.ScrollPerPixel)
        self.setAccessibleName(name)
        self.itemClicked.connect(self._clicked)

    def _clicked(self, item: QTreeWidgetItem) -> None:
        self._choose(item, QGuiApplication.keyboardModifiers())

    def _choose(self, item: QTreeWidgetItem, modifiers: Qt.KeyboardModifier) -> None:
        is_beside = modifiers & Qt.KeyboardModifier.ControlModifier
        (self.beside if is_beside else self.chosen).emit(item.data(0, _PLACE))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Return goes to the row's place, with Ctrl it is shown beside."""
        item = self.currentItem()
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and item is not None:
            self._choose(item, event.modifiers())
            return
        super().keyPressEvent(event)

    def mimeTypes(self) -> list[str]:
        """Rows are dragged as the entries they stand for."""
        return [ENTRY_MIME]

    def mimeData(self, items: Sequence[QTreeWidgetItem]) -> QMimeData:
        """The id of the entry that is dragged."""
        data = QMimeData()
        if items:
            data.setData(ENTRY_MIME, QByteArray(str(items[0].data(0, _PLACE)).encode()))
        return data

    def row(self, title: str, label: str, level: int, key: object) -> QTreeWidgetItem:
        """A row that stands nowhere yet."""
        item = QTreeWidgetItem()
        self.fill(item, title, label, level, key)
        return item

    def fill(self, item: QTreeWidgetItem, title: str, label: str, level: int, key: object) -> None:
        """What a row says and leads to."""
        item.setText(0, one_line(title, LONGEST))
        item.setData(0, _PLACE, key)
        item.setData(0, _LABEL, label)
        item.setData(0, _LEVEL, level)
        set_row_tip(item, 0, f"{title}  {label}")

    def show_rows(self, rows: Sequence[Row]) -> None:
        """Replace all rows of a flat list; those far down follow in the next moments."""
        self.clear()
        self._waiting = list(rows)
        self._add_waiting()

    def _add_waiting(self) -> None:
        now, self._waiting = self._waiting[:AT_ONCE], self._waiting[AT_ONCE:]
        self.addTopLevelItems([self.row(row.title, row.label, 0, row.key) for row in now])
        if self._waiting:
            self._later.start()

    @property
    def is_filled(self) -> bool:
        """Whether every row is there."""
        return not self._waiting


class ContentsPanel(QFrame):
    """Contents, Figures and Entries, one at a time."""

    section_chosen = Signal(object)  # index into the outline
    figure_chosen = Signal(object)
    entry_chosen = Signal(object)  # entry id
    hit_chosen = Signal(object)  # index of a hit
    figures_shown = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._items: list[_Section] = []
        self._listed: tuple[Outline, PageLabels] | None = None
        self._followed = -1
        self._entry_rows: list[Row] = []
        self._are_entries_stale = True
        self.contents, self.figures = Rows("Contents"), Rows("Figures", has_pictures=True)
        self.entries, self.hits = Rows("Entries"), Rows("Hits")
        self.entries.setDragEnabled(True)
        self.hits.chosen.connect(self.hit_chosen)
        self.contents.chosen.connect(self.section_chosen)
        self.figures.chosen.connect(self.figure_chosen)
        self.entries.chosen.connect(self.entry_chosen)
        self._stack = QStackedWidget()
        self._empty = Words("", role="secondary")
        self._empty.setWordWrap(True)
        self._empty.setContentsMargins(12, 8, 8, 8)
        head = QHBoxLayout()
        head.setContentsMargins(EDGE, 8, EDGE, 4)
        head.setSpacing(2)
        group = QButtonGroup(self)
        self._buttons: list[QPushButton] = []
        for index, (name, rows) in enumerate(
            (
                ("Contents", self.contents),
                ("Figures", self.figures),
                ("Entries", self.entries),
                ("Hits", self.hits),
            )
        ):
            self._stack.addWidget(rows)
            button = QPushButton(name)
            button.setProperty("role", "panel")
            button.setCheckable(True)
            button.setChecked(index == 0)
            button.setFont(sans_font(-1))
            button.clicked.connect(lambda _=False, k=index: self._show(k))
            group.addButton(button)
            self._buttons.append(button)
            head.addWidget(button)
        head.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self._show_hits_tab(is_shown=False)
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("Filter")
        self.filter.setAccessibleName("Filter the list")
        set_tip(self.filter, "Show only rows with these words")
        self.filter.textChanged.connect(self._filter)
        held = QHBoxLayout()
        held.setContentsMargins(8, 0, 8, 4)
        held.addWidget(self.filter)
        column.addLayout(head)
        column.addLayout(held)
        column.addWidget(self._empty)
        column.addWidget(self._stack, 1)
        self._say_if_empty()

    def _show_hits_tab(self, *, is_shown: bool) -> None:
        """Show or hide the tab of the hits; the panel is as wide as its tabs at least."""
        self._buttons[3].setVisible(is_shown)
        metrics = QFontMetrics(sans_font(-1))
        shown = self._buttons if is_shown else self._buttons[:3]
        taken = sum(metrics.horizontalAdvance(b.text()) + BESIDE_TAB for b in shown)
        self.setMinimumWidth(taken + 2 * EDGE)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        for rows in (self.contents, self.figures, self.entries, self.hits):
            rows.colours = colours
            rows.viewport().update()

    def show_reading(self) -> None:
        """Nothing is known yet."""
        self._items = []
        for rows in (self.contents, self.figures, self.entries, self.hits):
            rows.clear()
        self._empty.setText("Reading the document…")
        self._empty.show()

    def show_outline(self, outline: Outline, labels: PageLabels) -> None:
        """List the sections; the outermost are open when they are few."""
        before, self._listed = self._listed, (outline, labels)
        if before is not None and self._items and before[0].parents == outline.parents:
            self._show_differences(before[0], before[1])
            return
        self.contents.clear()
        self._items = []
        roots: list[QTreeWidgetItem] = []
        parents, depths = outline.parents, outline.depths
        for index, section in enumerate(outline.sections):
            label = labels.listed(section.page)
            item = _Section(section.title, label, depths[index], index)
            if parents[index] >= 0:
                self._items[parents[index]].addChild(item)
            else:
                roots.append(item)
            self._items.append(item)
        self.contents.addTopLevelItems(roots)
        self._say_if_empty()

    def _show_differences(self, before: Outline, labels_before: PageLabels) -> None:
        """Write the rows anew whose sections are not as they were."""
        assert self._listed is not None
        outline, labels = self._listed
        depths, sections = outline.depths, outline.sections
        for index, (old, new) in enumerate(zip(before.sections, sections, strict=True)):
            label = labels.listed(new.page)
            if old != new or label != labels_before.listed(old.page):
                self._items[index].say(new.title, label, depths[index], index)
        self.contents.viewport().update()

    def show_figures(self, rows: Sequence[Row]) -> None:
        """List the figures and tables."""
        self.figures.show_rows(rows)
        self._say_if_empty()

    def show_picture(self, row: int, image: QImage) -> None:
        """Show what a figure looks like."""
        if item := self.figures.topLevelItem(row):
            item.setData(0, _PICTURE, image)

    def show_entries(self, rows: Sequence[Row]) -> None:
        """List the entries in the order of their places; filled once it is looked at."""
        self._entry_rows = list(rows)
        self._are_entries_stale = True
        if self._stack.currentWidget() is self.entries:
            self._fill_entries()
        self._say_if_empty()

    def _fill_entries(self) -> None:
        if self._are_entries_stale:
            self._are_entries_stale = False
            self.entries.show_rows(self._entry_rows)

    def put_entry(self, at: int, row: Row) -> None:
        """List one more entry, at a place in the order."""
        self._entry_rows.insert(at, row)
        if not self.entries.is_filled:
            self.show_entries(self._entry_rows)
        elif not self._are_entries_stale:
            item = self.entries.row(row.title, row.label, 0, row.key)
            self.entries.insertTopLevelItem(at, item)
        self._say_if_empty()

    def change_entry(self, at: int, row: Row) -> None:
        """An entry says something else."""
        self._entry_rows[at] = row
        item = self.entries.topLevelItem(at)
        if not self._are_entries_stale and item is not None:
            self.entries.fill(item, row.title, row.label, 0, row.key)

    def take_entry(self, at: int) -> None:
        """An entry is gone."""
        del self._entry_rows[at]
        if not self.entries.is_filled:
            self.show_entries(self._entry_rows)
        elif not self._are_entries_stale:
            self.entries.takeTopLevelItem(at)
        self._say_if_empty()

    def show_hits(self, rows: Sequence[Row], wanted: str) -> None:
        """List where words stand; the list is there while something is looked for."""
        self.hits.show_rows(rows)
        self._show_hits_tab(is_shown=bool(wanted))
        if not wanted and self._stack.currentWidget() is self.hits:
            self._buttons[0].setChecked(True)
            self._show(0)
        self._say_if_empty()

    def _filter(self, text: str) -> None:
        """Hide rows without the words; what a shown row hangs under stays."""
        rows = self._stack.currentWidget()
        if not isinstance(rows, Rows):
            return
        wanted = fold(text.strip())

        def visit(item: QTreeWidgetItem | None) -> bool:
            if item is None:
                return False
            below = [visit(item.child(k)) for k in range(item.childCount())]
            shown = wanted in fold(item.text(0)) or any(below)
            item.setHidden(not shown)
            if wanted and any(below):
                item.setExpanded(True)
            return shown

        for k in range(rows.topLevelItemCount()):
            visit(rows.topLevelItem(k))

    def follow(self, section: int) -> None:
        """Mark the section that is being read; its branch is opened."""
        if section == self._followed and self.contents.currentItem() is not None:
            return
        self._followed = section
        if not 0 <= section < len(self._items):
            self.contents.setCurrentIndex(QModelIndex())
            return
        item = self._items[section]
        above = item.parent()
        while above is not None:
            above.setExpanded(True)
            above = above.parent()
        item.setExpanded(True)
        self.contents.setCurrentItem(item)
        self.contents.scrollToItem(item)

    def show_entries_list(self) -> None:
        """Turn to the entries."""
        self._buttons[2].setChecked(True)
        self._show(2)

    def _show(self, index: int) -> None:
        self._stack.setCurrentIndex(index)
        if self._stack.currentWidget() is self.entries:
            self._fill_entries()
        if self._stack.currentWidget() is self.figures:
            self.figures_shown.emit()
        self._filter(self.filter.text())
        self._say_if_empty()

    def _say_if_empty(self) -> None:
        index = self._stack.currentIndex()
        rows = self._stack.currentWidget()
        texts = ("No sections were found.", "No captions of figures or tables were found.",
                 "Nothing is kept yet. Select words on a page, or ask below.",
                 "The words were not found.")  # fmt: skip
        empty = isinstance(rows, Rows) and rows.topLevelItemCount() == 0
        if rows is self.entries:
            empty = not self._entry_rows
        self._empty.setText(texts[index] if index >= 0 else "")
        self._empty.setVisible(empty)
