"""The place line: where one is, how to get back, and finding words."""

from markupsafe import Markup
from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFontMetrics, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLineEdit, QToolButton, QWidget

from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import RichWords, Words, set_tip


class FindField(QLineEdit):
    """Words to find; Return goes on, Shift+Return back, Escape ends it."""

    stepped = Signal(int)
    ended = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setPlaceholderText("Find in the document")
        self.setAccessibleName("Find words in the document")
        set_tip(self, "Find words (Ctrl+F); F3 and Shift+F3 step through them")
        self.setFixedWidth(230)
        self.setClearButtonEnabled(False)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Step and end."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            back = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
            self.stepped.emit(-1 if back else 1)
        elif event.key() == Qt.Key.Key_Escape:
            self.clear()
            self.ended.emit()
        else:
            super().keyPressEvent(event)


class ElidedLabel(RichWords):
    """A label that shortens its middle when there is no room; the tooltip has it whole."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__()
        self.setParent(parent)
        self._parts: list[str] = []
        self.setMinimumWidth(40)

    def show_path(self, parts: list[str]) -> None:
        """Section titles from the outermost down; the last one is emphasised."""
        self._parts = parts
        set_tip(self, " / ".join(parts))
        self._shorten()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Shorten anew."""
        super().resizeEvent(event)
        self._shorten()

    def _shorten(self) -> None:
        if not self._parts:
            self.setText("")
            return
        metrics, bold = QFontMetrics(self.font()), QFontMetrics(sans_font(bold=True))
        last = bold.elidedText(
            self._parts[-1], Qt.TextElideMode.ElideRight, max(self.width() - 30, 40)
        )
        room = self.width() - bold.horizontalAdvance(last) - 12
        above = "  /  ".join(self._parts[:-1])
        above = metrics.elidedText(above, Qt.TextElideMode.ElideMiddle, room) if room > 60 else ""
        gap = Markup("&nbsp;&nbsp;/&nbsp;&nbsp;") if above else ""
        self.setText(Markup("{}{}<b>{}</b>").format(above, gap, last))


class PlaceLine(QFrame):
    """Back, forward, page field, place, section path, find."""

    back_asked = Signal()
    forward_asked = Signal()
    page_typed = Signal(str)
    find_typed = Signal(str)
    find_stepped = Signal(int)
    find_ended = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("placeLine")
        self.setFixedHeight(36)
        self.back = self._arrow("←", "Back to where you were (Alt+Left)", self.back_asked)
        self.forward = self._arrow("→", "Forward again (Alt+Right)", self.forward_asked)
        self.page = QLineEdit()
        self.page.setFixedWidth(52)
        self.page.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.page.setAccessibleName("Page")
        set_tip(self.page, "Printed page number; “file 69” is page 69 of the file (Ctrl+G)")
        self.page.returnPressed.connect(lambda: self.page_typed.emit(self.page.text()))
        self.place = Words("", role="secondary")
        self.path = ElidedLabel()
        self.find_field = FindField()
        self.find_field.textChanged.connect(self.find_typed)
        self.find_field.stepped.connect(self.find_stepped)
        self.find_field.ended.connect(self.find_ended)
        self.count = Words("", role="secondary")
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 3, 14, 3)
        row.setSpacing(8)
        for widget in (self.back, self.forward, self.page, self.place):
            row.addWidget(widget)
        row.addSpacing(8)
        row.addWidget(self.path, 1)
        row.addWidget(self.count)
        row.addWidget(self.find_field)

    def show_place(
        self,
        label: str | None,
        page: int,
        n_pages: int,
        last_label: str | None,
        sure: float | None = None,
    ) -> None:
        """Say where one is: "p. 57 of 172 · file page 69 of 184".

        Args:
            label: Of the page.
            page: Its index.
            n_pages: Of the file.
            last_label: The last label there is.
            sure: How sure the engine was, where the page's text was recognised in its picture.
        """
        if not self.page.hasFocus():
            self.page.setText(label or str(page + 1))
        file_page = f"file page {page + 1} of {n_pages}"
        if sure is not None:
            file_page += f" · text recognised, {sure:.0%} sure"
        if label is None:
            self.place.setText(file_page)
        elif last_label:
            self.place.setText(f"p. {label} of {last_label} · {file_page}")
        else:
            self.place.setText(f"p. {label} · {file_page}")

    def show_count(self, text: str) -> None:
        """How many places were found."""
        self.count.setText(text)

    def _arrow(self, text: str, tip: str, signal: object) -> QToolButton:
        button = QToolButton()
        button.setText(text)
        button.setFont(sans_font(2))
        set_tip(button, tip)
        button.setAccessibleName(tip.split(" (")[0])
        button.setEnabled(False)
        button.clicked.connect(signal)
        return button
