"""A talk being edited: its sheets and points as an outline, what to say beside it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QCloseEvent, QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QFileDialog,
    QHBoxLayout,
    QPlainTextEdit,
    QSpinBox,
    QTreeWidget,
    QTreeWidgetItem,
    QTreeWidgetItemIterator,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.answers import WHOLE
from wide_margin.core.digest.talk import USUAL_MINUTES, Point, Sheet
from wide_margin.core.export.looks import LOOKS
from wide_margin.core.export.saving import save_whole
from wide_margin.core.export.talk import TalkFormat, talk_as
from wide_margin.core.plain import counted, one_line
from wide_margin.core.session.picturing import figure_pictures
from wide_margin.desktop.status_line import StatusLine
from wide_margin.desktop.talk_writing import TalkWriter
from wide_margin.desktop.words import Words, set_row_tip, set_word, show_title, word_button

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach
    from wide_margin.core.digest.talk import Talk
    from wide_margin.core.errors import WideMarginError
    from wide_margin.desktop.main_window import MainWindow

_VALUE = Qt.ItemDataRole.UserRole
TYPING_MS = 400
"""How long what is composed waits while something is being typed."""
_FORMS = {
    TalkFormat.PPTX: "Presentation (*.pptx)", TalkFormat.HTML: "HTML (*.html)",
    TalkFormat.MARKDOWN: "Markdown (*.md)",
}  # fmt: skip


class TalkWindow(QWidget):
    """Sheets can be moved, reworded, dropped and added, and so can their points."""

    def __init__(self, window: MainWindow, reach: Reach = WHOLE) -> None:
        super().__init__(window, Qt.WindowType.Window)
        self._window, self._reader, self._reach = window, window.reader, reach
        self.talk: Talk | None = None
        show_title(self, "A talk — Wide Margin")
        self.resize(980, 640)
        self.minutes = QSpinBox()
        self.minutes.setRange(3, 120)
        self.minutes.setValue(USUAL_MINUTES)
        self.minutes.setSuffix(" minutes")
        self.minutes.setAccessibleName("Length")
        again = word_button("Make it anew", "For this length; what was changed here is given up")
        again.clicked.connect(self.make)
        self.composed = word_button("Compose", "Have the writing model put the points freely")
        self.composed.clicked.connect(self.compose)
        self.writer = TalkWriter(self._reader)
        self._reader.opened.connect(self.writer.cancel)  # it is of another document then
        self.look, self.night = QComboBox(), QCheckBox("dark sheets")
        self.look.addItems(list(LOOKS))
        self.look.setAccessibleName("Look")
        self.told = Words("", role="secondary")
        strip = QHBoxLayout()
        for widget in (self.minutes, again, self.composed, self.told):
            strip.addWidget(widget)
        strip.addStretch(1)
        strip.addWidget(self.look)
        strip.addWidget(self.night)
        strip.addSpacing(16)
        strip.addWidget(Words("Save as", role="secondary"))
        for form, name in _FORMS.items():
            save = word_button(name.split(" (")[0], f"Save as {form}")
            save.clicked.connect(partial(self._ask_where, form))
            strip.addWidget(save)
        self.tree = QTreeWidget()
        self.tree.setObjectName("talkSheets")
        self.tree.setHeaderHidden(True)
        self.tree.setAccessibleName("Sheets and points")
        self.tree.setWordWrap(True)
        self.tree.itemChanged.connect(self._reworded)
        self.tree.currentItemChanged.connect(lambda *_: self._show_notes())
        self.notes = QPlainTextEdit()
        self.notes.setAccessibleName("What to say")
        self.notes.setPlaceholderText("What to say")
        self.notes.textChanged.connect(self._noted)
        middle = QHBoxLayout()
        middle.addWidget(self.tree, 3)
        middle.addWidget(self.notes, 2)
        self.status = StatusLine()
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 12, 16, 8)
        column.addLayout(strip)
        column.addLayout(middle, 1)
        column.addLayout(self._actions())
        column.addWidget(self.status)
        self.make()

    def _actions(self) -> QHBoxLayout:
        row = QHBoxLayout()
        for name, tip, keys, slot in (
            ("Up", "Move it up", "Alt+Up", partial(self.move_by, -1)),
            ("Down", "Move it down", "Alt+Down", partial(self.move_by, 1)),
            ("Add a point", "Below this one", "Ctrl+Return", self.add_point),
            ("Add a sheet", "After this one", "Ctrl+Shift+Return", self.add_sheet),
            ("Drop", "Leave it out", "Ctrl+Delete", self.drop),
            ("Read it there", "Go to its page in Read", "Ctrl+G", self.follow),
        ):
            button = word_button(name, f"{tip} ({keys})")
            button.clicked.connect(slot)
            shortcut = QShortcut(QKeySequence(keys), self)
            shortcut.activated.connect(slot)
            row.addWidget(button)
        row.addWidget(Words("F2 or a double click rewords.", role="secondary"))
        row.addStretch(1)
        return row

    # --- the talk

    def make(self) -> None:
        """Make the talk for the length that is set."""
        session = self._reader.session
        if session is None or not self._reader.is_ready:
            self.status.say("The document is still being read.")
            return
        self.told.setText("Being made…")
        self._reader.watch(
            session.query("talk", self._reach, self.minutes.value()), done=self.show_talk,
            failed=lambda error: self.status.say(f"{error.message} {error.hint}"),
        )  # fmt: skip

    def show_talk(self, talk: Talk) -> None:
        """Show a talk to be changed."""
        self.talk = talk
        self._show(talk.sheets[0] if talk.sheets else talk.ending)

    def compose(self) -> None:
        """Have the writing model put the points of all sheets, one sheet after the other.

        Those that the reader has worded stay. Clicked while it writes, it stops, and what has been
        written stays.
        """
        if self.writer.is_writing:
            self.writer.cancel()
            return
        talk = self.talk
        if talk is None:
            return
        sheets = [sheet for sheet in (*talk.sheets, talk.ending) if sheet.notes]
        n_words = sum(len(note.split()) for sheet in sheets for note in sheet.notes)
        address = self._reader.settings.model_address
        said = f"what is said with {counted(len(sheets), 'sheet')}, {n_words} words, to {address}"
        if sheets and self._window.read_view.commands.may_send(said):
            set_word(self.composed, "Stop")
            self.writer.write(sheets, self._composed, self._composing_ended)

    def _composed(self, sheet: Sheet, points: list[Point], done: str) -> None:
        if self.tree.state() == QTreeWidget.State.EditingState:
            # What is being typed is finished first.
            QTimer.singleShot(TYPING_MS, self, partial(self._composed, sheet, points, done))
            return
        if self.talk is None or all(
            one is not sheet for one in (*self.talk.sheets, self.talk.ending)
        ):
            return  # it was dropped meanwhile
        pointed_sheet, pointed = self._current()
        sheet.points = [*points, *(point for point in sheet.points if point.is_own)]
        is_there = pointed_sheet is not sheet or any(one is pointed for one in sheet.points)
        self._show(pointed if pointed is not None and is_there else pointed_sheet)
        self.status.say(f"Composed {done}.")

    def _composing_ended(self, problem: str) -> None:
        set_word(self.composed, "Compose")
        n = sum(bool(p.doubt) for s in (self.talk.sheets if self.talk else []) for p in s.points)
        doubts = f" Marked “?” and not backed by the document: {counted(n, 'point')}." if n else ""
        self.status.say(problem or f"Composed, and checked.{doubts}", for_ms=12000)

    def closeEvent(self, event: QCloseEvent) -> None:
        """What is being written is given up."""
        self.writer.cancel()
        self.writer.deleteLater()
        super().closeEvent(event)

    def _fill(self) -> None:
        assert self.talk is not None
        self.tree.blockSignals(True)
        self.tree.clear()
        for sheet in [*self.talk.sheets, self.talk.ending]:
            item = self._item(sheet, sheet.title)
            self.tree.addTopLevelItem(item)
            for point in sheet.points:
                item.addChild(self._item(point, point.text))
            item.setExpanded(True)
        self.tree.blockSignals(False)
        self.composed.setVisible(self.writer.has_model)
        n = len(self.talk.sheets) + 2
        self.told.setText(f"{counted(n, 'sheet')}: title and course, these, and the ending")

    def _item(self, value: Sheet | Point, text: str) -> QTreeWidgetItem:
        doubt = value.doubt if isinstance(value, Point) else ""
        item = QTreeWidgetItem([one_line(f"? {text}" if doubt else text, 300)])
        item.setData(0, _VALUE, value)
        item.setFlags(item.flags() | Qt.ItemFlag.ItemIsEditable)
        if isinstance(value, Sheet):
            font = item.font(0)
            font.setBold(True)
            item.setFont(0, font)
        elif value.locator is not None or doubt:
            shown = value.locator.shown if value.locator is not None else ""
            told = f"The document does not back it: {doubt}." if doubt else ""
            set_row_tip(item, 0, f"{shown} {told}".strip())
        return item

    def _current(self) -> tuple[Sheet | None, Point | None]:
        """The sheet that is pointed at, and the point of it if one is."""
        item = self.tree.currentItem()
        if item is None:
            return None, None
        value, parent = item.data(0, _VALUE), item.parent()
        if isinstance(value, Sheet) or parent is None:
            return value, None
        return parent.data(0, _VALUE), value

    def _show(self, value: Any) -> None:
        """Draw the outline anew, with something pointed at."""
        self._fill()
        for item in self._items():
            if item.data(0, _VALUE) is value:
                self.tree.setCurrentItem(item)

    def _items(self) -> Iterator[QTreeWidgetItem]:
        walk = QTreeWidgetItemIterator(self.tree)
        while (item := walk.value()) is not None:
            yield item
            walk += 1

    def _edit(self) -> None:
        if (item := self.tree.currentItem()) is not None:
            self.tree.editItem(item)

    # --- changing it

    def _reworded(self, item: QTreeWidgetItem) -> None:
        value, text = item.data(0, _VALUE), one_line(item.text(0), 400)
        if isinstance(value, Sheet):
            value.title = text
        elif text.removeprefix("? ") != value.text:  # what the reader writes is the reader's
            value.text, value.doubt, value.is_own = text.removeprefix("? "), "", True

    def move_by(self, by: int) -> None:
        """Move the sheet or point that is pointed at; a point past an end changes its sheet."""
        sheet, point = self._current()
        talk = self.talk
        if talk is None or sheet is None:
            return
        if point is None:
            rows, value = talk.sheets, sheet
            if sheet is talk.ending:
                return
            at = _index(rows, value)
            to = min(max(at + by, 0), len(rows) - 1)
            rows.insert(to, rows.pop(at))
            self._show(sheet)
            return
        at = _index(sheet.points, point)
        if 0 <= at + by < len(sheet.points):
            sheet.points.insert(at + by, sheet.points.pop(at))
        else:
            order = [*talk.sheets, talk.ending]
            other = _index(order, sheet) + by
            if not 0 <= other < len(order):
                return
            sheet.points.pop(at)
            order[other].points.insert(0 if by > 0 else len(order[other].points), point)
        self._show(point)

    def add_point(self) -> None:
        """A point of the reader's own below the one that is pointed at."""
        sheet, point = self._current()
        if sheet is None:
            return
        made = Point("A point", is_own=True)
        at = _index(sheet.points, point) + 1 if point is not None else len(sheet.points)
        sheet.points.insert(at, made)
        self._show(made)
        self._edit()

    def add_sheet(self) -> None:
        """A sheet of the reader's own after the one that is pointed at."""
        sheet, _ = self._current()
        if self.talk is None:
            return
        made = Sheet("A sheet")
        rows = self.talk.sheets
        is_one = sheet is not None and sheet is not self.talk.ending
        rows.insert(_index(rows, sheet) + 1 if is_one else len(rows), made)
        self._show(made)
        self._edit()

    def drop(self) -> None:
        """Leave out the sheet or point that is pointed at; the ending stays, if empty."""
        sheet, point = self._current()
        if self.talk is None or sheet is None:
            return
        if point is not None:
            sheet.points.pop(_index(sheet.points, point))
            self._show(sheet)
        elif sheet is self.talk.ending:
            sheet.points.clear()
            self._show(sheet)
        else:
            at = _index(self.talk.sheets, sheet)
            self.talk.sheets.pop(at)
            self._show([*self.talk.sheets, self.talk.ending][at])

    def _show_notes(self) -> None:
        sheet, _ = self._current()
        self.notes.blockSignals(True)
        self.notes.setPlainText("\n\n".join(sheet.notes) if sheet is not None else "")
        self.notes.blockSignals(False)

    def _noted(self) -> None:
        sheet, _ = self._current()
        if sheet is not None:
            parts = self.notes.toPlainText().split("\n\n")
            sheet.notes = [part for part in parts if part.strip()]

    def follow(self) -> None:
        """Go where the words of a point stand."""
        sheet, point = self._current()
        locator = point.locator if point is not None else sheet.locator if sheet else None
        if locator is not None:
            self._window.show_view("Read")
            self._window.read_view.go_to_passage(locator)

    # --- taking it away

    def _ask_where(self, form: TalkFormat) -> None:
        path = self._reader.path
        start = str(path.with_name(f"{path.stem}-talk.{form}")) if path else ""
        name, _ = QFileDialog.getSaveFileName(self, "Save the talk", start, _FORMS[form])
        if name:
            self.save(Path(name), form)

    def save(self, path: Path, form: TalkFormat) -> None:
        """Save it off the UI thread, with pictures of the figures it rests on."""
        talk, session = self.talk, self._reader.session
        if talk is None or session is None:
            return
        look, night = self.look.currentText(), self.night.isChecked()
        pictures = figure_pictures(session)

        def write(*_: object) -> None:
            save_whole(path, talk_as(form, talk, look=look, night=night, picture_of=pictures))

        def failed(error: WideMarginError) -> None:
            self.status.say(f"{error.message} {error.hint}")

        self._reader.background.submit(
            write, done=lambda _: self.status.say(f"The talk is in {path}.", for_ms=8000),
            failed=failed,
        )  # fmt: skip


def _index(rows: list[Any], value: object) -> int:
    """The place of this very value: two points may say the same."""
    return next(k for k, row in enumerate(rows) if row is value)
