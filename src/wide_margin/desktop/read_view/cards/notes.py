"""Notes, marks and cuttings: the reader's own words, kept while they are typed."""

from __future__ import annotations

import base64
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QRect, QSize, Qt, QTimer
from PySide6.QtGui import QImage, QPainter, QPaintEvent
from PySide6.QtWidgets import QMenu, QPlainTextEdit, QPushButton, QSizePolicy, QWidget

from wide_margin.core.margin import CuttingBody, Ink, MarkBody, MarkForm, NoteBody, Scope
from wide_margin.desktop.ink_edges import ink_colour, ink_name
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.card import Card, shortened
from wide_margin.desktop.read_view.cards.checking import Checking
from wide_margin.desktop.words import WrappedWords, menu_text, set_tip, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry

PAUSE_MS, LONGEST_MS = 250, 1000
"""What is typed is kept after a pause, and at least once a second without one."""
MOST_LINES = 12
FEW_WORDS = 4
"""A passage of fewer words is not restated."""
_OF = {Scope.SECTION: " on the section “{}”", Scope.DOCUMENT: " on the whole document"}


class NoteCard(Card):
    """A field that grows with its text."""

    NAME, PROMPT = "Note", "Write a note"

    def fill(self) -> None:
        """Build it."""
        self.edge = self.colours.ochre
        self.head.setText(
            self.NAME
            + _OF.get(self.entry.anchor.scope, "").format(
                shortened(" ".join(self.entry.anchor.quote.split()), 60)
            )
        )
        self._kept = self._text
        self.field = QPlainTextEdit(self._kept)
        self.field.setPlaceholderText(self.PROMPT)
        self.field.setAccessibleName("Note" if self.NAME == "Note" else "Comment")
        self.field.setFont(sans_font())
        self.field.setTabChangesFocus(True)
        self.field.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._pause, self._at_latest = (QTimer(self) for _ in range(2))
        for timer, milliseconds in ((self._pause, PAUSE_MS), (self._at_latest, LONGEST_MS)):
            timer.setSingleShot(True)
            timer.setInterval(milliseconds)
            timer.timeout.connect(self.save)
        self.field.textChanged.connect(self._typed)
        self.column.addWidget(self.field)
        self._checking = Checking(self) if self._has_passage else None
        self._fit()

    @property
    def _has_passage(self) -> bool:
        """Whether it stands beside words that can be put in the reader's own."""
        is_passage = self.entry.anchor.scope is Scope.PASSAGE
        return is_passage and len(self.entry.anchor.quote.split()) >= FEW_WORDS

    @property
    def _text(self) -> str:
        assert isinstance(self.entry.body, NoteBody)
        return self.entry.body.text

    def show_entry(self, entry: Entry) -> bool:
        """Show a text that was changed elsewhere; what is being typed here is not lost by it."""
        self.entry = entry
        typed, theirs = self.field.toPlainText(), self._text
        before, self._kept = self._kept, theirs
        if theirs in (before, typed):
            return True
        at = self.field.textCursor().position()
        self.field.setPlainText(merged(before, typed, theirs))
        cursor = self.field.textCursor()
        cursor.setPosition(min(at, len(self.field.toPlainText())))
        self.field.setTextCursor(cursor)
        return True

    def save(self) -> None:
        """Keep what is typed."""
        self._pause.stop()
        self._at_latest.stop()
        text = self.field.toPlainText()
        if text != self._kept:
            self._kept = text
            self.commands.save_text(self.entry.id, text)

    def _typed(self) -> None:
        self._pause.start()
        if not self._at_latest.isActive():
            self._at_latest.start()
        self._fit()
        if self._checking is not None:
            self._checking.forget()
        self.resized.emit()

    def _fit(self) -> None:
        lines = max(1, int(self.field.document().size().height()))
        spacing = self.field.fontMetrics().lineSpacing()
        self.field.setFixedHeight(min(lines, MOST_LINES) * spacing + 14)


class MarkCard(NoteCard):
    """The marked words, and room for a comment."""

    NAME, PROMPT = "Mark", "Add a comment"

    def fill(self) -> None:
        """Build it."""
        super().fill()
        body = self.entry.body
        if isinstance(body, MarkBody):
            self.edge = ink_colour(body.ink, self.colours).name()
            self._shown = body.ink, body.form
            self.offer(self._choice(body))
        quote = " ".join(self.entry.anchor.quote.split())
        said = WrappedWords(f"“{shortened(quote, 120)}”", serif_font(-0.5))
        self.column.insertWidget(1, said)

    def show_entry(self, entry: Entry) -> bool:
        """Show a changed comment; with another ink or form the card is made anew."""
        body = entry.body
        is_as_shown = isinstance(body, MarkBody) and (body.ink, body.form) == self._shown
        return super().show_entry(entry) and is_as_shown

    def _choice(self, body: MarkBody) -> QPushButton:
        """Its ink and form, to be changed."""
        button = word_button("", "Choose another ink or form")
        form = "" if body.form is MarkForm.HIGHLIGHT else f", {body.form}"
        set_word(button, f"{ink_name(body.ink)}{form} ▾")
        menu, change, own = QMenu(button), self.commands.change_mark, self.entry.id
        for ink in Ink:
            menu.addAction(menu_text(ink_name(ink)), partial(change, own, ink=ink))
        menu.addSeparator()
        for shape in MarkForm:
            menu.addAction(str(shape), partial(change, own, form=shape))
        button.setMenu(menu)
        return button


class CuttingCard(NoteCard):
    """A region of a page as a picture, and room for a comment."""

    NAME, PROMPT = "Cutting", "Add a comment"

    def show_entry(self, entry: Entry) -> bool:
        """Show a changed comment; where its cells have been found the card is made anew."""
        had_rows = isinstance(self.entry.body, CuttingBody) and bool(self.entry.body.rows)
        has_rows = isinstance(entry.body, CuttingBody) and bool(entry.body.rows)
        return super().show_entry(entry) and had_rows == has_rows

    def fill(self) -> None:
        """Build it."""
        super().fill()
        assert isinstance(self.entry.body, CuttingBody)
        picture = _Picture(QImage.fromData(base64.b64decode(self.entry.body.png)))
        beneath = self.entry.anchor.quote[:400]
        set_tip(picture, beneath)
        picture.setAccessibleName(beneath or "Picture")
        self.column.insertWidget(1, picture)
        if self.entry.body.rows:
            self.offer(self._table_button())
        explain = word_button("Explain", "What the document says of this figure, table or text")
        explain.clicked.connect(lambda: self.commands.explain_cutting(self.entry.id))
        self.offer(explain)

    def _table_button(self) -> QPushButton:
        button = word_button("Table ▾", "Take the rows and columns of this table away")
        menu, take, own = QMenu(button), self.commands.take_table, self.entry.id
        menu.addAction("Copy its cells", partial(take, own, to_file=False))
        menu.addAction("Save its cells…", partial(take, own, to_file=True))
        button.setMenu(menu)
        return button


def merged(before: str, ours: str, theirs: str) -> str:
    """One text of two that were made of the same; where both were changed, both are kept."""
    if ours == before:
        return theirs
    if theirs in (before, ours) or ours.startswith(theirs):
        return ours
    if theirs.startswith(ours):
        return theirs
    return f"{ours}\n\n{theirs}"


class _Picture(QWidget):
    """A picture as wide as there is room, at most twice its points."""

    def __init__(self, image: QImage) -> None:
        super().__init__()
        self._image = image
        policy = QSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def heightForWidth(self, width: int) -> int:
        """Pixels, keeping the picture's shape."""
        if self._image.isNull():
            return 0
        shown = min(width, self._image.width())
        return min(int(shown * self._image.height() / self._image.width()), 260)

    def sizeHint(self) -> QSize:
        """Some width; the height follows."""
        return QSize(200, self.heightForWidth(max(self.width(), 200)))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it."""
        if self._image.isNull():
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        size = self._image.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
        painter.drawImage(QRect(0, 0, size.width(), size.height()), self._image)
