"""A note with one key, from any view: the pages stay where they are."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QButtonGroup,
    QFrame,
    QHBoxLayout,
    QPlainTextEdit,
    QRadioButton,
    QVBoxLayout,
)

from wide_margin.core.margin import Anchor, EntryKind, NoteBody, Scope, new_entry
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import Words, menu_text, set_tip, word_button

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.main_window import MainWindow

WIDTH, HEIGHT = 380, 236
AWAY = 24
"""Pixels from the window's right and lower edge."""
LONGEST = 44


class QuickNote(QFrame):
    """A sheet in the corner of the window. What is written is kept, however it is closed."""

    def __init__(self, window: MainWindow) -> None:
        super().__init__(window)
        self._window = window
        self._entry: Entry | None = None
        """A note that is there already and has no place yet; None for a new one."""
        self.setObjectName("quickNote")
        self.setFixedSize(WIDTH, HEIGHT)
        self.setAccessibleName("Quick note")
        self.field = QPlainTextEdit()
        self.field.setPlaceholderText("Write a note")
        self.field.setAccessibleName("Note")
        self.field.setFont(sans_font())
        self.field.setTabChangesFocus(True)
        self.scopes = {scope: QRadioButton() for scope in Scope}
        group = QButtonGroup(self)
        places = QVBoxLayout()
        places.setSpacing(2)
        for button in self.scopes.values():
            button.setFont(sans_font(-1))
            group.addButton(button)
            places.addWidget(button)
        keep = word_button("Keep", "Keep the note (Ctrl+Return, or Escape)")
        keep.clicked.connect(self.keep)
        throw = word_button("Throw away", "Keep nothing of what is written here")
        throw.clicked.connect(self.throw_away)
        row = QHBoxLayout()
        row.addWidget(Words("Quick note", sans_font(-1), role="secondary"))
        row.addStretch(1)
        row.addWidget(throw)
        row.addWidget(keep)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 6, 12, 10)
        column.setSpacing(6)
        column.addLayout(row)
        column.addWidget(self.field, 1)
        column.addLayout(places)
        for keys in ("Ctrl+Return", "Ctrl+Enter"):
            shortcut = QShortcut(QKeySequence(keys), self)
            shortcut.setContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            shortcut.activated.connect(self.keep)
        self.hide()

    def write(self) -> None:
        """Begin a note at the place that is read; where one is begun, go on with it."""
        if self._window.reader.path is None:
            return
        if not self.isVisible():
            self._open(None, "", Scope.PASSAGE)
        self.field.setFocus()

    def edit(self, entry: Entry) -> None:
        """Go on with a note that has no place yet."""
        self.keep()
        if isinstance(entry.body, NoteBody):
            self._open(entry, entry.body.text, entry.anchor.scope)
            self.field.setFocus()

    def _open(self, entry: Entry | None, text: str, scope: Scope) -> None:
        self._entry = entry
        self.field.setPlainText(text)
        view = self._window.read_view
        page, _ = view.here()
        summary = self._window.reader.summary
        where = summary.labels.shown(page) if summary else f"file page {page + 1}"
        section = self._section_title()
        names = {
            Scope.PASSAGE: f"Here, {where}", Scope.SECTION: f"On the section “{section}”",
            Scope.DOCUMENT: "On the whole document", Scope.LOOSE: "No place yet",
        }  # fmt: skip
        for one, button in self.scopes.items():
            name = names[one]
            button.setText(menu_text(name if len(name) <= LONGEST else name[:LONGEST] + "…”"))
            set_tip(button, name)
        self.scopes[Scope.SECTION].setVisible(bool(section))
        self.scopes[scope].setChecked(True)
        self.move(self._window.width() - WIDTH - AWAY, self._window.height() - HEIGHT - 2 * AWAY)
        self.show()
        self.raise_()

    def _section_title(self) -> str:
        summary, at = self._window.reader.summary, self._window.read_view.section
        known = summary is not None and 0 <= at < len(summary.outline.sections)
        return summary.outline.sections[at].title if summary is not None and known else ""

    def _anchor(self) -> Anchor:
        """Where the note is to stand."""
        scope = next(s for s, button in self.scopes.items() if button.isChecked())
        summary, view = self._window.reader.summary, self._window.read_view
        if scope is Scope.PASSAGE:
            page, y = view.here()
            return Anchor(page, y)
        if scope is Scope.SECTION and summary is not None:
            section = summary.outline.sections[view.section]
            return Anchor(section.page, section.y, quote=section.title, scope=scope)
        return Anchor(0, 0.0, scope=scope)

    def keep(self) -> None:
        """Keep the note where it belongs; an empty one is none."""
        if not self.isVisible():
            return
        text, keeper = self.field.toPlainText(), self._window.reader.keeper
        entry = self._entry
        self._close()
        if entry is not None:
            changed = entry.with_body(text=text)
            keeper.change_all([replace(changed, anchor=self._anchor())], "Change note")
        elif text.strip():
            keeper.add(new_entry(EntryKind.NOTE, self._anchor(), NoteBody(text)))

    def throw_away(self) -> None:
        """Keep nothing of what was written; a note that was there stays as it was."""
        self._close()

    def _close(self) -> None:
        self.hide()
        self._entry = None
        self.field.clear()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape keeps the note, too: nothing that was written is lost."""
        if event.key() == Qt.Key.Key_Escape:
            self.keep()
            return
        super().keyPressEvent(event)


def place_note(window: MainWindow, entry_id: str, page: int, y: float) -> None:
    """Give a note the place it was dragged to."""
    keeper = window.reader.keeper
    entry = keeper.latest(entry_id)
    if entry is not None and entry.kind is EntryKind.NOTE:
        keeper.change_all([replace(entry.with_body(), anchor=Anchor(page, y))], "Place note")
    elif entry is not None:
        window.read_view.show_status("Only a note can be given another place.", for_ms=6000)
