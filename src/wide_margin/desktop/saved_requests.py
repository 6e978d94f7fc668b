"""Requests that are used again: kept, changed, run, taken from and to a file."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QObject, QSize, Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QComboBox,
    QDialog,
    QFileDialog,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPlainTextEdit,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.digest import DocumentKind
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.saving import save_whole
from wide_margin.core.plain import one_line
from wide_margin.core.services.saved_requests import (
    LONGEST_NAME,
    SavedRequest,
    Whereof,
    load_requests,
    read_requests,
    requests_as_text,
    requests_path,
    tidied,
)
from wide_margin.desktop.words import Words, show_title, word_button

if TYPE_CHECKING:
    from wide_margin.desktop.main_window import MainWindow

Run = Callable[[list[SavedRequest]], None]
_KIND = "TOML (*.toml)"


class Requests(QObject):
    """The saved requests of the reader, as one window knows them."""

    def __init__(self, window: MainWindow) -> None:
        super().__init__(window)
        self._window = window
        self.known: tuple[SavedRequest, ...] = ()
        self.dialog: RequestsDialog | None = None
        self._kind = ""
        """Of the document that is open, once it is known."""
        self._load()
        window.reader.ready.connect(lambda _: self._load())
        window.reader.worth_found.connect(lambda kind, _: self._offer(kind))

    def _load(self) -> None:
        try:
            self.known = load_requests()
        except WideMarginError as error:
            self._tell(error)
        self._offer("")

    def _offer(self, kind: str) -> None:
        """Let those for this kind of document be run by their names."""
        self._kind = kind
        fitting = [r for r in self.known if not (r.kind and kind) or r.kind == kind]
        self._window.read_view.ask_line.know_requests(fitting)

    def show(self) -> None:
        """Show them, to be changed and run."""
        self._load()
        dialog = self.dialog = RequestsDialog(self.known, self._window)
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.run_button.clicked.connect(self._run)
        dialog.finished.connect(lambda _: self.keep(dialog.requests()))
        dialog.open()

    def keep(self, requests: tuple[SavedRequest, ...]) -> None:
        """Keep them as they are now."""
        if requests == self.known:
            return
        self.known = requests
        path = requests_path()
        try:
            path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            save_whole(path, requests_as_text(requests).encode())
        except OSError:
            self._tell(WideMarginError("The requests could not be saved.", hint=f"Is {path} free?"))
        except WideMarginError as error:
            self._tell(error)
        self._offer(self._kind)

    def _run(self) -> None:
        assert self.dialog is not None
        chosen = self.dialog.chosen()
        self.dialog.accept()
        if self._window.reader.path is not None and chosen:
            self._window.show_view("Read")
            self._window.read_view.commands.run(chosen)

    def _tell(self, error: WideMarginError) -> None:
        self._window.reader.problem.emit(error)


@dataclass(slots=True)
class _Draft:
    """A request while it is changed; it may have no name yet."""

    request: SavedRequest


class RequestsDialog(QDialog):
    """A list at the left, the one that is pointed at to the right of it."""

    def __init__(self, requests: tuple[SavedRequest, ...], parent: QWidget) -> None:
        super().__init__(parent)
        show_title(self, "Saved requests")
        self.resize(760, 420)
        self._drafts = [_Draft(request) for request in requests]
        self._shown: _Draft | None = None
        self.list = QListWidget()
        self.list.setAccessibleName("Saved requests")
        self.list.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.list.setFixedWidth(240)
        self.list.currentRowChanged.connect(self._show)
        self.name, self.ask = QLineEdit(), QPlainTextEdit()
        self.name.setMaxLength(LONGEST_NAME)
        self.name.setPlaceholderText("What it is called in the ask line")
        self.ask.setPlaceholderText("The question, or what is to be told")
        self.ask.setTabChangesFocus(True)
        self.of, self.kind = QComboBox(), QComboBox()
        self.of.addItems([str(one) for one in Whereof])
        self.kind.addItems(["every document", *(str(kind) for kind in DocumentKind)])
        self.composed = QCheckBox("Composed by the writing model, where one is connected")
        form = QFormLayout()
        form.setHorizontalSpacing(16)
        for name, field in (("Name", self.name), ("Asks", self.ask), ("Of", self.of),
                            ("For", self.kind), ("", self.composed)):  # fmt: skip
            field.setAccessibleName(name or "Composed")
            form.addRow(Words(name, role="secondary"), field)
        self.name.textEdited.connect(self._changed)
        self.ask.textChanged.connect(self._changed)
        for choice in (self.of, self.kind):
            choice.currentIndexChanged.connect(self._changed)
        self.composed.toggled.connect(self._changed)
        self.run_button = word_button("Run those chosen", "Ask them one after the other")
        self.told = Words("", role="secondary")
        below = QHBoxLayout()
        for text, tip, slot in (
            ("New", "Begin another request", self.add),
            ("Delete", "Delete those chosen", self.delete),
            ("Take from a file…", "Add the requests of a file", self._ask_which),
            ("Save to a file…", "Save all of them as a text file", self._ask_where),
        ):
            button = word_button(text, tip)
            button.clicked.connect(slot)
            below.addWidget(button)
        below.addWidget(self.told, 1)
        below.addWidget(self.run_button)
        middle = QHBoxLayout()
        middle.setSpacing(20)
        middle.addWidget(self.list)
        middle.addLayout(form, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 16, 20, 12)
        column.addLayout(middle, 1)
        column.addLayout(below)
        self._fill(0)

    def requests(self) -> tuple[SavedRequest, ...]:
        """All of them that have a name and ask something."""
        return tidied(draft.request for draft in self._drafts)

    def chosen(self) -> list[SavedRequest]:
        """Those that are chosen and ask something."""
        rows = sorted(index.row() for index in self.list.selectedIndexes())
        return [r for row in rows if (r := self._drafts[row].request).ask.strip()]

    def add(self) -> None:
        """Begin another one."""
        self._drafts.append(_Draft(SavedRequest("", "")))
        self._fill(len(self._drafts) - 1)
        self.name.setFocus()

    def delete(self) -> None:
        """Delete those that are chosen."""
        gone = {index.row() for index in self.list.selectedIndexes()}
        self._drafts = [draft for k, draft in enumerate(self._drafts) if k not in gone]
        self._fill(min(gone, default=0))

    def take(self, path: Path) -> None:
        """Add the requests of a file; of the same name, those of the file count."""
        try:
            found = read_requests(path.read_text(encoding="utf-8"))
        except (OSError, UnicodeDecodeError):
            self.told.setText(f"“{path.name}” cannot be read: is it there, and a text file?")
            return
        except WideMarginError as error:
            self.told.setText(f"{error.message} {error.hint}")
            return
        self._drafts = [_Draft(request) for request in tidied([*self.requests(), *found])]
        self._fill(0)

    def save(self, path: Path) -> None:
        """Save all of them as a text file."""
        try:
            save_whole(path, requests_as_text(self.requests()).encode())
        except WideMarginError as error:
            self.told.setText(f"{error.message} {error.hint}")

    def _ask_which(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Take requests from a file", "", _KIND)
        if name:
            self.take(Path(name))

    def _ask_where(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Save the requests", "requests.toml", _KIND)
        if name:
            self.save(Path(name))

    def _fill(self, row: int) -> None:
        self._shown = None
        self.list.clear()
        for draft in self._drafts:
            item = QListWidgetItem(one_line(draft.request.name) or "(no name yet)")
            item.setSizeHint(QSize(200, 26))
            self.list.addItem(item)
        self.list.setCurrentRow(min(row, len(self._drafts) - 1))
        if not self._drafts:
            self._show(-1)

    def _show(self, row: int) -> None:
        draft = self._drafts[row] if 0 <= row < len(self._drafts) else None
        self._shown = None  # what is shown is no change
        for field in (self.name, self.ask, self.of, self.kind, self.composed):
            field.setEnabled(draft is not None)
        request = draft.request if draft is not None else SavedRequest("", "")
        self.name.setText(request.name)
        self.ask.setPlainText(request.ask)
        self.of.setCurrentText(str(request.of))
        self.kind.setCurrentText(request.kind or self.kind.itemText(0))
        self.composed.setChecked(request.composed)
        self._shown = draft

    def _changed(self, *_: object) -> None:
        if self._shown is None:
            return
        kind = self.kind.currentText() if self.kind.currentIndex() > 0 else ""
        self._shown.request = msgspec.structs.replace(
            self._shown.request, name=self.name.text(), ask=self.ask.toPlainText(),
            of=Whereof(self.of.currentText()), kind=kind, composed=self.composed.isChecked(),
        )  # fmt: skip
        item = self.list.item(self._drafts.index(self._shown))
        item.setText(one_line(self.name.text()) or "(no name yet)")
