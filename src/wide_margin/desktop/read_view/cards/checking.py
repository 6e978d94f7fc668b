"""Under a note beside a passage: its words held against it, slips mended, wording changed."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QHBoxLayout, QMenu, QVBoxLayout, QWidget

from wide_margin.core.explain.model import Manner
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.read_view.cards.backed import Backed
from wide_margin.desktop.words import WrappedWords, word_button

if TYPE_CHECKING:
    from wide_margin.core.explain import OwnWords
    from wide_margin.desktop.read_view.cards.notes import NoteCard

LEFT_OUT_SHOWN = 160
MOST_SHOWN = 3


class Checking(QWidget):
    """Two words to act on, and what came of it. It is there while the note says something."""

    def __init__(self, card: NoteCard) -> None:
        super().__init__(card)
        self._card = card
        self.check_button = word_button(
            "Hold it against the passage", "What of your words the passage has, and has not"
        )
        self.check_button.clicked.connect(self.check)
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.check_button)
        if card.commands.has_model:
            row.addWidget(self._otherwise())
        row.addStretch(1)
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(4)
        self._column.addLayout(row)
        self.found: OwnWords | None = None
        self._checked = ""
        self._shown: QWidget | None = None
        card.column.addWidget(self)
        self.setVisible(bool(card.field.toPlainText().strip()))

    def _otherwise(self) -> QWidget:
        button = word_button("Reword ▾", "Have the writing model put your words otherwise")
        menu = QMenu(button)
        for manner in Manner:
            menu.addAction(str(manner), partial(self._put, manner))
        button.setMenu(menu)
        return button

    def _put(self, manner: Manner) -> None:
        self._card.save()
        self._card.commands.put_otherwise(self._card.entry.id, manner)

    def check(self) -> None:
        """Hold what is written against the passage."""
        self._checked = self._card.field.toPlainText()
        self._card.commands.check_words(self._card.entry.id, self._checked, self.show_found)

    def forget(self) -> None:
        """What was found is of other words than those that stand there now."""
        self.setVisible(bool(self._card.field.toPlainText().strip()))
        if self._shown is not None:
            self._shown.hide()
            self._shown.deleteLater()
            self._shown = self.found = None

    def show_found(self, found: OwnWords) -> None:
        """Show what was found, if it is still of the words that stand there."""
        if self._card.field.toPlainText() != self._checked:
            return
        self.forget()
        self.found = found
        self._shown = QWidget()
        column = QVBoxLayout(self._shown)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        for quote in found.sentences:
            column.addWidget(Backed(quote, self._card.colours))
        for sentence in found.missing[:MOST_SHOWN]:
            short = sentence if len(sentence) <= LEFT_OUT_SHOWN else f"{sentence[:LEFT_OUT_SHOWN]}…"
            column.addWidget(WrappedWords(f"Left out: “{short}”", sans_font(-1)))
        if found.slips:
            said = ", ".join(f"{slip.written} → {slip.better}" for slip in found.slips)
            column.addWidget(WrappedWords(f"Perhaps: {said}", sans_font(-1)))
            mend = word_button("Mend all of these", "Put the better words in place")
            mend.clicked.connect(self.mend)
            column.addWidget(mend)
        self._column.addWidget(self._shown)
        self._shown.show()  # the card is measured with it at once
        self._card.resized.emit()

    def mend(self) -> None:
        """Put right what was found to be a slip; Ctrl+Z in the field takes it back."""
        if self.found is not None:
            cursor = self._card.field.textCursor()
            cursor.select(cursor.SelectionType.Document)
            from wide_margin.core.explain.own_words import mended  # not for every card

            cursor.insertText(mended(self._checked, self.found.slips))
