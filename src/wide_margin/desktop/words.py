"""Texts on screen: the only place where labels, tooltips and messages get their words.

What comes from a document, a file name, a server or a reader is text and nothing else. Qt takes
a text that looks like markup for markup and would fetch the pictures it names; so plain labels
are told that they are plain, and rich ones take only ``Markup``, into which everything that is
not ours is put with ``format``, which escapes it. A test keeps other modules from setting texts
in any other way.
"""

from markupsafe import Markup, escape
from PySide6.QtCore import QPoint, QSize, Qt
from PySide6.QtGui import QFont, QTextDocument
from PySide6.QtGui import Qt as QtText
from PySide6.QtWidgets import (
    QInputDialog,
    QLabel,
    QLineEdit,
    QMessageBox,
    QPushButton,
    QSizePolicy,
    QToolTip,
    QTreeWidgetItem,
    QWidget,
)

from wide_margin.core.plain import plain
from wide_margin.desktop.look import sans_font

MOST_LETTERS = 4_000
"""Of a label; a longer text is nobody's to read there and takes seconds to lay out."""
MOST_IN_TIP = 1_200


class Words(QLabel):
    """A label of plain text."""

    def __init__(self, text: str = "", font: QFont | None = None, *, role: str = "") -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        if font is not None:
            self.setFont(font)
        if role:
            self.setProperty("role", role)
        self.setText(text)

    def setText(self, text: str) -> None:
        """Show a text as it is."""
        super().setText(plain(text, MOST_LETTERS))


class RichWords(QLabel):
    """A label of markup of our own, with links; it wraps only where it is told to."""

    def __init__(self, markup: str = "", font: QFont | None = None) -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.RichText)
        if font is not None:
            self.setFont(font)
        self.setText(markup)

    def setText(self, markup: str) -> None:
        """Show markup; a text that is not said to be ours is escaped."""
        super().setText(_markup(markup))


class WrappedWords(RichWords):
    """Rich words that wrap and ask for exactly the height they take.

    QLabel measures rich text of mixed fonts some pixels short, and asks for the height of a
    narrow column as its least height.
    """

    def __init__(self, markup: str = "", font: QFont | None = None, *, role: str = "") -> None:
        self._heights: dict[tuple[int, int, str], int] = {}
        super().__init__(_markup(markup), font)
        if role:
            self.setProperty("role", role)
        self.setWordWrap(True)
        self.setTextInteractionFlags(
            Qt.TextInteractionFlag.TextSelectableByMouse
            | Qt.TextInteractionFlag.LinksAccessibleByMouse
            | Qt.TextInteractionFlag.LinksAccessibleByKeyboard
        )
        policy = QSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def setText(self, markup: str) -> None:
        """Show markup; a text that is not said to be ours is escaped."""
        self._heights.clear()
        super().setText(markup)

    def heightForWidth(self, width: int) -> int:
        """Pixels that the text takes at a width; layouts ask again and again."""
        whole, inside = self.rect(), self.contentsRect()  # the style sheet may pad it
        padded = width - (whole.width() - inside.width())
        known = (width, padded, self.font().key())
        if known not in self._heights:
            height = whole.height() - inside.height()
            self._heights[known] = self._measured(padded) + height
        return self._heights[known]

    def _measured(self, width: int) -> int:
        document = QTextDocument()
        document.setDefaultFont(self.font())
        document.setDocumentMargin(0)
        document.setHtml(self.text())
        document.setTextWidth(max(width, 20))
        return int(document.size().height()) + 3

    def minimumSizeHint(self) -> QSize:
        """One line: the height follows from the width."""
        return QSize(40, self.fontMetrics().height())

    def sizeHint(self) -> QSize:
        """As high as the text at the width it has."""
        return QSize(200, self.heightForWidth(max(self.width(), 200)))


def word_button(text: str, tip: str = "") -> QPushButton:
    """A word that can be acted on."""
    button = QPushButton()
    set_word(button, text)
    button.setProperty("role", "word")
    button.setFont(sans_font(-1))
    set_tip(button, tip)
    button.setCursor(Qt.CursorShape.PointingHandCursor)
    return button


def set_word(button: QPushButton, text: str) -> None:
    """What a button says; an ampersand is one, and no shortcut."""
    button.setText(menu_text(text))


def menu_text(text: str) -> str:
    """A text for a menu or a button, where an ampersand would mark a shortcut."""
    return plain(text, 200).replace("&", "&&")


def set_tip(widget: QWidget, text: str) -> None:
    """What a widget says under the pointer."""
    widget.setToolTip(_tip(text))


def set_row_tip(item: QTreeWidgetItem, column: int, text: str) -> None:
    """What a row of a list says under the pointer."""
    item.setToolTip(column, _tip(text))


def tip_of(text: str) -> str:
    """What a row of a model gives as its tip."""
    return _tip(text)


def set_picture_tip(widget: QWidget, png: str, width: int) -> None:
    """A picture of ours under the pointer, as PNG in base 64."""
    widget.setToolTip(Markup('<img width="{}" src="data:image/png;base64,{}">').format(width, png))


def show_tip(where: QPoint, text: str, widget: QWidget) -> None:
    """Say something at a place right now; nothing more for an empty text."""
    if text:
        QToolTip.showText(where, _tip(text), widget)
    else:
        QToolTip.hideText()


def _tip(text: str) -> str:
    """A text that a tooltip does not take for markup."""
    text = plain(text, MOST_IN_TIP)
    if not QtText.mightBeRichText(text):
        return text
    lines = Markup("<br>").join(escape(line) for line in text.split("\n"))
    return Markup("<span>{}</span>").format(lines)


def _markup(text: str) -> Markup:
    if isinstance(text, Markup):
        return Markup(plain(text))
    lines = plain(text, MOST_LETTERS).split("\n")
    return Markup("<br>").join(escape(line) for line in lines)


# --- dialogs: each is one function here, so that tests can answer in its place


def agrees(parent: QWidget, title: str, text: str) -> bool:
    """Ask a question that is answered with yes or no."""
    box = _message(parent, title, text)
    box.setStandardButtons(QMessageBox.StandardButton.Yes | QMessageBox.StandardButton.No)
    return bool(box.exec() == QMessageBox.StandardButton.Yes)


def tell(parent: QWidget, title: str, text: str) -> None:
    """Say something that is to be read before going on."""
    box = _message(parent, title, text)
    box.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    box.open()


def _message(parent: QWidget, title: str, text: str) -> QMessageBox:
    box = QMessageBox(parent)
    box.setWindowTitle(plain(title, 200))
    box.setTextFormat(Qt.TextFormat.PlainText)
    box.setText(plain(text, MOST_LETTERS))
    return box


def ask_text(
    parent: QWidget, title: str, label: str, *, text: str = "", is_secret: bool = False
) -> str | None:
    """Ask for one line of text; None where the reader declines."""
    dialog = _input(parent, title, label)
    dialog.setTextValue(text)
    if is_secret:
        dialog.setTextEchoMode(QLineEdit.EchoMode.Password)
    return dialog.textValue() if dialog.exec() else None


def ask_row(
    parent: QWidget, title: str, label: str, rows: list[str], chosen: int, size: QSize
) -> int:
    """Ask for one of some rows; -1 where the reader declines."""
    dialog = _input(parent, title, label)
    dialog.setOption(QInputDialog.InputDialogOption.UseListViewForComboBoxItems)
    dialog.setComboBoxItems([plain(row, 200) for row in rows])
    dialog.setTextValue(plain(rows[chosen], 200))
    dialog.resize(size)
    if not dialog.exec():
        return -1
    shown = [plain(row, 200) for row in rows]
    return shown.index(dialog.textValue()) if dialog.textValue() in shown else -1


def _input(parent: QWidget, title: str, label: str) -> QInputDialog:
    dialog = QInputDialog(parent)
    dialog.setWindowTitle(plain(title, 200))
    dialog.setLabelText("")
    for shown in dialog.findChildren(QLabel):
        shown.setTextFormat(Qt.TextFormat.PlainText)
    dialog.setLabelText(plain(label, 600))
    return dialog


def show_title(window: QWidget, text: str) -> None:
    """The title of a window."""
    window.setWindowTitle(plain(text, 300))
