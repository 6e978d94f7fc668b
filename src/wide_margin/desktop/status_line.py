"""A quiet line under a view, with a word to act on where there is something to do."""

from collections.abc import Callable

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QHBoxLayout, QWidget

from wide_margin.desktop.words import Words, menu_text, word_button

Act = tuple[str, Callable[[], object]]
"""A word that can be acted on, and what it does."""


class StatusLine(QWidget):
    """Says one thing at a time; hidden while there is nothing to say."""

    def __init__(self) -> None:
        super().__init__()
        self.words = Words()
        self.words.setContentsMargins(12, 2, 12, 2)
        self.words.setWordWrap(True)  # a long sentence makes no window wider
        self.act = word_button("")
        self.act.hide()
        self.setObjectName("statusLine")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 12, 0)
        row.addWidget(self.words, 1)
        row.addWidget(self.act)
        self.hide()
        self.act.clicked.connect(self._do_offered)
        self._offered: Callable[[], object] = lambda: None

    def text(self) -> str:
        """What is being said."""
        return self.words.text()

    def say(self, text: str, *, for_ms: int = 0, act: Act | None = None) -> None:
        """Say something, for a while or until something else is said.

        Args:
            text: What is said; nothing hides the line.
            for_ms: Milliseconds; 0 until something else is said.
            act: A word, and what it does, where something can be done about it.
        """
        self.words.setText(text)
        self.setVisible(bool(text))
        self.act.setVisible(act is not None)
        if act is not None:
            self.act.setText(menu_text(act[0]))
            self._offered = act[1]
        if for_ms:
            QTimer.singleShot(for_ms, self.words, lambda: self._end(text))

    def _do_offered(self) -> None:
        self.say("")
        self._offered()

    def _end(self, text: str) -> None:
        if self.words.text() == text:
            self.say("")
