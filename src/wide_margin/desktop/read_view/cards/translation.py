"""Sentences and their translations, pair by pair."""

from functools import partial

from PySide6.QtCore import QEvent, Signal
from PySide6.QtGui import QEnterEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QVBoxLayout

from wide_margin.core.margin import Entry, State, TranslationBody
from wide_margin.core.translate import LANGUAGES, language_name
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.card import Card
from wide_margin.desktop.words import WrappedWords, set_word, word_button

_ACTIONS = {
    State.RUNNING: "Cancel", State.WAITING: "Cancel", State.FAILED: "Try again",
    State.BROKEN_OFF: "Go on",
}  # fmt: skip


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
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.language)
        row.addWidget(self.action)
        row.addStretch(1)
        self.column.addLayout(row)
        self.message = WrappedWords("", sans_font(-0.5))
        self.column.addWidget(self.message)
        self._pairs: list[tuple[WrappedWords, WrappedWords]] = []
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
        if "stand-in" in body.model:
            parts.append("simulated")
        elif body.model:
            parts.append(f"composed by {body.model}")
        self.head.setText(" · ".join(parts))
        set_word(self.action, _ACTIONS.get(body.state, ""))
        self.action.setVisible(body.state in _ACTIONS)
        told = body.problem or ("Translating…" if body.state.is_under_way else "")
        if body.state is State.BROKEN_OFF:
            told = body.problem or "It broke off; what is here was kept."
        self.message.setText(told)
        self.message.setVisible(bool(told))
        while len(self._pairs) < len(body.pairs):
            self._add_pair(len(self._pairs))
        for (source, target), pair in zip(self._pairs, body.pairs, strict=False):
            source.setText(pair.source)
            doubts = f"\nNumbers missing: {', '.join(pair.doubts)}" if pair.doubts else ""
            target.setText(pair.target + doubts)
            target.setVisible(bool(pair.target))
        self.resized.emit()
        return True

    def _choose(self, code: str) -> None:
        self.commands.choose_language(self.entry.id, code)

    def _add_pair(self, row: int) -> None:
        source = WrappedWords("", serif_font(-0.5), role="secondary")
        target = WrappedWords("", sans_font())
        box = _PairBox(source, target)
        box.entered.connect(lambda: self.commands.point_at_pair(self.entry.id, row))
        box.gone.connect(lambda: self.commands.point_at_pair(self.entry.id, -1))
        self.column.addWidget(box)
        self._pairs.append((source, target))

    def _act(self) -> None:
        if self._body.state.is_under_way:
            self.commands.cancel(self.entry.id)
        else:
            self.commands.go_on(self.entry.id)


class _PairBox(QFrame):
    """A sentence over its translation; tells when the pointer is on it."""

    entered = Signal()
    gone = Signal()

    def __init__(self, source: WrappedWords, target: WrappedWords) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 2, 0, 2)
        column.setSpacing(1)
        column.addWidget(source)
        column.addWidget(target)

    def enterEvent(self, event: QEnterEvent) -> None:
        """The pointer came."""
        self.entered.emit()

    def leaveEvent(self, event: QEvent) -> None:
        """The pointer left."""
        self.gone.emit()
