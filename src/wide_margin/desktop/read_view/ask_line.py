"""The ask line: one field for a question or a place, with reach and draw on in view."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QAction, QActionGroup, QKeyEvent
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QMenu,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.answers import WHOLE
from wide_margin.core.layout import fold
from wide_margin.core.services.saved_requests import named_request
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import Words, menu_text, set_tip

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach
    from wide_margin.core.services.saved_requests import SavedRequest
    from wide_margin.core.session import Place

_DRAWN_ON = {
    False: "This document only",
    True: "This document first, then general knowledge (composed answers)",
}


class AskField(QLineEdit):
    """Return does what the line says it will do; Ctrl+Return always asks."""

    submitted = Signal(bool)  # whether asking is meant, whatever the text
    left = Signal()
    completion = ""
    """What Tab completes the text to."""

    def event(self, event: QEvent) -> bool:
        """Tab completes, where there is something to complete to."""
        is_tab = isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Tab
        if event.type() == QEvent.Type.KeyPress and is_tab and self.completion:
            self.setText(self.completion)
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Submit, or leave to the pages."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.submitted.emit(bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier))
        elif event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


class Choice(QWidget):
    """A named choice that is always in view: a small name above, the value below."""

    def __init__(self, name: str, tip: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        caption = Words(name, sans_font(-2), role="secondary")
        self.button = QToolButton()
        self.button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextOnly)
        set_tip(self.button, tip)
        self.menu = QMenu(self.button)
        self.button.setMenu(self.menu)
        self._name = name
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 2, 8, 2)
        column.setSpacing(0)
        column.addWidget(caption)
        column.addWidget(self.button)

    def show_value(self, text: str) -> None:
        """Say what is chosen."""
        shown = text if len(text) <= 34 else text[:32] + "…"
        self.button.setText(menu_text(f"{shown} ▾"))
        self.button.setAccessibleName(f"{self._name}: {text}")


class AskLine(QFrame):
    """The line along the bottom of pages and margin."""

    asked = Signal(str)
    went = Signal(object)  # Place
    request_named = Signal(object)  # SavedRequest
    left = Signal()
    pages_wanted = Signal()
    selection_wanted = Signal()
    figure_wanted = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("askLine")
        self.setFixedHeight(46)
        self.reach: Reach = WHOLE
        self.before = ""
        """The entry of the question that the next one may lean on."""
        self._place: Place | None = None
        self._titles: list[tuple[str, str]] = []
        self._requests: Sequence[SavedRequest] = ()
        self._request: SavedRequest | None = None
        """The one whose name is typed."""
        self._resolve: Callable[[str], Place | None] = lambda text: None
        self.field = AskField()
        self.field.setPlaceholderText("Question, page, section or heading")
        self.field.setAccessibleName("Question, page, section or heading")
        set_tip(self.field, "Ask, or go to a place (Ctrl+L). Ctrl+Return always asks.")
        self.field.setFont(sans_font(0.5))
        self.field.textChanged.connect(self._look)
        self.field.submitted.connect(self._submit)
        self.field.left.connect(self.left)
        self.after = QToolButton()
        set_tip(self.after, "The next question leans on this one; click to ask on its own again")
        self.after.clicked.connect(lambda: self.ask_on_from("", ""))
        self.after.hide()
        self.offer = Words("", sans_font(-1), role="secondary")
        self.verdict = QToolButton()
        set_tip(self.verdict, "What Return will do")
        self.verdict.clicked.connect(lambda: self._submit(False))
        self.reach_choice = Choice("Reach", "What is asked; it stays until it is changed")
        self.draw_on = Choice("Draw on", "Where answers may come from")
        self.draws_on_general = False
        """Whether composed answers may add general knowledge, which is marked as such."""
        self._fill_draw_on()
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 0, 8, 0)
        row.setSpacing(8)
        row.addWidget(self.after)
        row.addWidget(self.field, 1)
        row.addWidget(self.offer)
        row.addWidget(self.verdict)
        for choice in (self.reach_choice, self.draw_on):
            divider = QFrame()
            divider.setObjectName("divider")
            divider.setFixedWidth(1)
            row.addWidget(divider)
            row.addWidget(choice)
        self._offered: tuple[Reach | None, Reach] | None = None
        self.offer_section(None)
        self._look("")

    def _fill_draw_on(self) -> None:
        group = QActionGroup(self)
        for is_general, text in _DRAWN_ON.items():
            action = QAction(text, group)
            action.setCheckable(True)
            action.setChecked(is_general == self.draws_on_general)
            action.triggered.connect(partial(self.set_draw_on, is_general=is_general))
            self.draw_on.menu.addAction(action)
        self._general = self.draw_on.menu.actions()[1]
        self.set_draw_on(is_general=False)
        self.set_model(is_there=False)

    def set_draw_on(self, *_: object, is_general: bool) -> None:
        """Let composed answers draw on this document only, or on general knowledge after it."""
        self.draws_on_general = is_general
        self.draw_on.menu.actions()[is_general].setChecked(True)
        self.draw_on.show_value("Document, then general" if is_general else _DRAWN_ON[False])

    def set_model(self, *, is_there: bool) -> None:
        """General knowledge needs a writing model."""
        self._general.setEnabled(is_there)
        self._general.setToolTip("" if is_there else "Needs a writing model")
        if not is_there and self.draws_on_general:
            self.set_draw_on(is_general=False)

    def ask_on_from(self, entry_id: str, question: str) -> None:
        """Let the next question lean on this one; "" to ask on its own."""
        self.before = entry_id
        short = question if len(question) <= 28 else question[:26].rsplit(" ", 1)[0] + "…"
        self.after.setText(menu_text(f"after “{short}” ✕"))
        self.after.setAccessibleName(f"Asked on from: {question}")
        self.after.setVisible(bool(entry_id))
        if entry_id:
            self.field.setFocus()

    def complete_with(self, titles: list[str]) -> None:
        """Headings to complete to with the Tab key."""
        self._titles = [(fold(title), title) for title in titles]
        self._look(self.field.text())

    def know_requests(self, requests: Sequence[SavedRequest]) -> None:
        """The requests that are run by typing their names."""
        self._requests = requests
        self._look(self.field.text())

    def _completion(self, text: str) -> str:
        """The first heading that has the text in it, at a word's start; "" where none has."""
        wanted = fold(text.strip())
        if len(wanted) < 2:
            return ""
        named = ((fold(request.name), request.name) for request in self._requests)
        for folded, title in (*named, *self._titles):
            if folded.startswith(wanted) or f" {wanted}" in folded:
                return title if folded != wanted else ""
        return ""

    def resolve_with(self, resolve: Callable[[str], Place | None]) -> None:
        """Give the function that tells whether a text is a place."""
        self._resolve = resolve
        self._look(self.field.text())

    def offer_section(self, section: Reach | None) -> None:
        """Offer the section that is being read; what is chosen already stays."""
        now = section, self.reach
        if now == self._offered:
            return
        self._offered = now
        menu = self.reach_choice.menu
        menu.clear()
        group = QActionGroup(menu)
        offered = [(WHOLE, "Whole document")]
        if section is not None:
            offered.append((section, f"This section: {section.name}"))
        if self.reach not in (WHOLE, section):
            offered.append((self.reach, _reach_name(self.reach)))
        for reach, text in offered:
            self._offer(group, reach, text)
        menu.addSeparator()
        menu.addAction("Pages…", self.pages_wanted.emit)
        menu.addAction("The selection", self.selection_wanted.emit)
        menu.addAction("A figure or table…", self.figure_wanted.emit)
        self.reach_choice.show_value(_reach_name(self.reach))

    def _offer(self, group: QActionGroup, reach: Reach, text: str) -> None:
        action = QAction(menu_text(text), group)
        action.setCheckable(True)
        action.setChecked(reach == self.reach)
        action.triggered.connect(lambda: self.set_reach(reach))
        self.reach_choice.menu.addAction(action)

    def set_reach(self, reach: Reach) -> None:
        """Ask of this from now on."""
        self.reach = reach
        self.reach_choice.show_value(_reach_name(reach))

    def _look(self, text: str) -> None:
        self._request = named_request(self._requests, text)
        is_place = bool(text.strip()) and self._request is None
        self._place = self._resolve(text) if is_place else None
        self.field.completion = self._completion(text)
        self.offer.setText(f"Tab: {self.field.completion}" if self.field.completion else "")
        name = self._place.name if self._place else ""
        short = name if len(name) <= 60 else name[:58] + "…"
        said = f"Go to {short}" if self._place else "Run it" if self._request else "Ask"
        self.verdict.setText(menu_text(said))
        self.verdict.setEnabled(bool(text.strip()))

    def _submit(self, always_ask: bool) -> None:
        text = self.field.text().strip()
        if not text:
            return
        if self._request is not None and not always_ask:
            request = self._request
            self.field.clear()
            self.request_named.emit(request)
        elif self._place is not None and not always_ask:
            place = self._place
            self.field.clear()
            self.went.emit(place)
        else:
            self.asked.emit(text)


def _reach_name(reach: Reach) -> str:
    return "Whole document" if reach.kind == "document" else reach.name
