"""A message in the page area: what is wrong, and what can be done."""

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtWidgets import QFrame, QVBoxLayout, QWidget

from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import Words, set_word, word_button


class Message(QFrame):
    """Stands in the middle of its parent until something is done."""

    acted = Signal()

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("message")
        self._title = Words("", sans_font(2, bold=True))
        self._hint = Words("", role="secondary")
        self._action = word_button("")
        self._action.setFont(sans_font())
        self._action.clicked.connect(self.acted)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 20, 24, 20)
        column.setSpacing(8)
        for label in (self._title, self._hint):
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
            column.addWidget(label)
        column.addWidget(self._action, 0, Qt.AlignmentFlag.AlignLeft)
        parent.installEventFilter(self)
        self.hide()

    @property
    def text(self) -> str:
        """What it says."""
        return f"{self._title.text()} {self._hint.text()}".strip()

    def say(self, title: str, hint: str, action: str) -> None:
        """Show a message and the one thing to do."""
        self._title.setText(title)
        self._hint.setText(hint)
        self._hint.setVisible(bool(hint))
        set_word(self._action, action)
        self.show()
        self.raise_()
        self._centre()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Stay in the middle."""
        if event.type() == QEvent.Type.Resize:
            self._centre()
        return False

    def _centre(self) -> None:
        room, layout = self.parentWidget(), self.layout()
        if room is None or layout is None:
            return
        width = min(440, max(room.width() - 40, 200))
        height = layout.heightForWidth(width) if layout.hasHeightForWidth() else 140
        self.setGeometry(
            (room.width() - width) // 2, max((room.height() - height) // 3, 8), width, height
        )
