"""The tab of words that a selection brings, at the page's right edge."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QFrame, QGridLayout, QPushButton, QWidget

from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import Words, set_tip

COMMANDS = (
    ("Explain", "E", "What the document says of these words"),
    ("Translate", "T", "Translate these words, sentence by sentence"),
    ("Ask", "A", "Ask about these words"),
    ("Mark", "M", "Highlight these words in the last ink; 1 to 6 choose one"),
    ("Note", "N", "Write a note beside these words"),
)


class SelectionTab(QFrame):
    """Five words; each acts on what is selected."""

    chosen = Signal(str)  # the letter

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("selectionTab")
        self.setAccessibleName("What to do with the selection")
        grid = QGridLayout(self)
        grid.setContentsMargins(2, 4, 8, 4)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(0)
        for row, (name, letter, tip) in enumerate(COMMANDS):
            button = QPushButton(name)
            button.setFont(sans_font(-0.5))
            set_tip(button, f"{tip} ({letter})")
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _=False, key=letter: self.chosen.emit(key))
            key = Words(letter, sans_font(-1), role="secondary")
            grid.addWidget(button, row, 0)
            grid.addWidget(key, row, 1)
        self.adjustSize()
        self.hide()
