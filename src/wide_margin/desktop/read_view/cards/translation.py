"""Sentences and their translations, pair by pair."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QEnterEvent, QFocusEvent, QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QPlainTextEdit, QVBoxLayout

from wide_margin.core.margin import State, TranslationBody
from wide_margin.core.plain import counted
from wide_margin.core.translate import LANGUAGES, RIGHT_TO_LEFT, Pair, language_name
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.card import Card
from wide_margin.desktop.words import WrappedWords, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry

ACTIONS = {
    State.RUNNING: "Cancel", State.WAITING: "Cancel", State.FAILED: "Try again",
    State.BROKEN_OFF: "Go on",
}  # fmt: skip


def progress_told(body: TranslationBody) -> str:
    """How far a translation is, and what has gone wrong with it; "" where nothing needs saying."""
    far = ""
    if body.is_facing:
        far = f"{body.n_done} of {counted(len(body.pairs), 'sentence')}"
    if body.state is State.BROKEN_OFF:
        return body.problem or " · ".join(
            filter(None, (far, "It broke off; what is here was kept."))
        )
    if body.problem:
        return " · ".join(filter(None, (far, body.problem)))
    return " · ".join(filter(None, (far, "Translating…" if body.state.is_under_way else "")))


class TranslationCard(Card):
    """The language, then the pairs."""

    def fill(self) -> None:
        """Build it."""
        self.language = word_button("", "Choose the language to translate to")
        menu = QMenu(self.language)
        for code, name in LANGUAGES.items():
            choose = partial(self._choose, code)
            menu.addAction(name, choose)
        self.language.setMenu(menu)
        self.action = word_button("Cancel")
        self.action.clicked.connect(self._act)
        self.facing = word_button("Show it facing", "Beside the pages, paragraph by paragraph")
        self.facing.clicked.connect(lambda: self.commands.show_facing(self.entry.id))
        self.facing.setVisible(self._body.is_facing)
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.language)
        row.addWidget(self.facing)
        row.addWidget(self.action)
        row.addStretch(1)
        self.column.addLayout(row)
        self.message = WrappedWords("", sans_font(-0.5))
        self.column.addWidget(self.message)
        self._pairs: list[PairBox] = []
        self.show_entry(self.entry)

    @property
    def _body(self) -> TranslationBody:
        assert isinstance(self.entry.body, TranslationBody)
        return self.entry.body

    def show_entry(self, entry: Entry) -> bool:
        """Show what has arrived."""
        self.entry = entry
        body = self._body
        language = language_name(body.language)
        set_word(self.language, f"Into {language} ▾")
        parts = ["Translation", language]
        if body.pairs and all(pair.origin == "glosses" for pair in body.pairs):
            parts = ["Glosses, word by word: no translation", language]
        elif "stand-in" in body.model:
            parts.append("simulated")
        elif body.model:
            parts.append(f"composed by {body.model}")
        self.head.setText(" · ".join(parts))
        if body.is_facing:
            parts.insert(1, body.of)
            self.head.setText(" · ".join(parts))
        set_word(self.action, ACTIONS.get(body.state, ""))
        self.action.setVisible(body.state in ACTIONS)
        told = progress_told(body)
        self.message.setText(told)
        self.message.setVisible(bool(told))
        while not body.is_facing and len(self._pairs) < len(body.pairs):
            self._add_pair(len(self._pairs))
        for box, pair in zip(self._pairs, body.pairs, strict=False):
            box.show_pair(pair, body.language)
        self.resized.emit()
        return True

    def _choose(self, code: str) -> None:
        self.commands.choose_language(self.entry.id, code)

    def _add_pair(self, row: int) -> None:
        box = PairBox()
        box.corrected.connect(lambda text: self.commands.correct_pair(self.entry.id, row, text))
        box.resized.connect(self.resized)
        box.entered.connect(lambda: self.commands.point_at_pair(self.entry.id, row))
        box.gone.connect(lambda: self.commands.point_at_pair(self.entry.id, -1))
        self.column.addWidget(box)
        self._pairs.append(box)

    def _act(self) -> None:
        if self._body.state.is_under_way:
            self.commands.cancel(self.entry.id)
        else:
            self.commands.go_on(self.entry.id)


class PairBox(QFrame):
    """A sentence over its translation, with what is doubtful; can be corrected in place."""

    entered = Signal()
    gone = Signal()
    corrected = Signal(str)
    resized = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._pair = Pair("", "")
        self.offers_always = False
        """Whether correcting is offered where the pointer is not on it, too."""
        self.source = WrappedWords("", serif_font(-0.5), role="secondary")
        self.target = WrappedWords("", sans_font())
        self.doubts = WrappedWords("", sans_font(-1), role="warning")
        self.near = WrappedWords("", sans_font(-1), role="secondary")
        self.correct = word_button("Correct", "Write it better; it is remembered")
        self.correct.clicked.connect(self.edit)
        self.correct.hide()
        self.field: Correction | None = None
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 2, 0, 2)
        self._column.setSpacing(1)
        for widget in (self.source, self.target, self.doubts, self.near):
            self._column.addWidget(widget)
        self._column.addWidget(self.correct, 0, Qt.AlignmentFlag.AlignRight)

    def set_margins(self, side: int, above: int) -> None:
        """Keep so many pixels free around it."""
        self._column.setContentsMargins(side, above, side, above)

    def show_pair(self, pair: Pair, language: str) -> None:
        """Show what is there of a pair."""
        self._pair = pair
        self.source.setText(pair.source)
        origin = {"memory": "from memory", "corrected": "corrected"}.get(pair.origin, "")
        told = [*pair.doubts] if pair.target and pair.origin != "glosses" else []
        self.target.setText(pair.target)
        direction = (
            Qt.LayoutDirection.RightToLeft
            if language in RIGHT_TO_LEFT
            else (Qt.LayoutDirection.LeftToRight)
        )
        self.target.setLayoutDirection(direction)
        self.target.setVisible(bool(pair.target) and self.field is None)
        self.doubts.setText("Check: " + "; ".join(told) if told else "")
        self.doubts.setVisible(bool(told))
        beside = "; ".join(filter(None, (origin, pair.near)))
        self.near.setText(beside)
        self.near.setVisible(bool(beside))

    def edit(self) -> None:
        """Put a field in place of the translation."""
        if self.field is not None:
            return
        self.field = Correction(self._pair.target)
        self.field.done.connect(self._edited)
        self._column.insertWidget(1, self.field)
        self.target.hide()
        self.field.setFocus()
        self.resized.emit()

    def _edited(self, text: str) -> None:
        field, self.field = self.field, None
        if field is None:
            return
        field.hide()
        field.deleteLater()
        self.target.setVisible(bool(self._pair.target))
        if text.strip() and text.strip() != self._pair.target:
            self.corrected.emit(text)
        self.resized.emit()

    def enterEvent(self, event: QEnterEvent) -> None:
        """The pointer came."""
        self.correct.setVisible(bool(self._pair.target) and self.field is None)
        self.resized.emit()
        self.entered.emit()

    def leaveEvent(self, event: QEvent) -> None:
        """The pointer left."""
        self.correct.setVisible(self.offers_always and bool(self._pair.target))
        self.resized.emit()
        self.gone.emit()


class Correction(QPlainTextEdit):
    """Where a translation is written better: Ctrl+Enter or leaving it keeps it, Escape does not."""

    done = Signal(str)

    def __init__(self, text: str) -> None:
        super().__init__(text)
        self._before = text
        self.setAccessibleName("Translation")
        self.setFont(sans_font())
        self.setTabChangesFocus(True)
        lines = max(2, min(8, len(text) // 40 + 1))
        self.setFixedHeight(lines * self.fontMetrics().lineSpacing() + 14)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Keep, or give up."""
        enter = event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if enter and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.done.emit(self.toPlainText())
        elif event.key() == Qt.Key.Key_Escape:
            self.done.emit(self._before)
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        """Keep what was written."""
        super().focusOutEvent(event)
        self.done.emit(self.toPlainText())
