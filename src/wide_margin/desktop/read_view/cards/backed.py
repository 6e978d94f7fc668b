"""Statements with the bar that tells whether they stand in the passage they rest on."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from wide_margin.core.answers import Verdict
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import WrappedWords, set_tip

if TYPE_CHECKING:
    from wide_margin.core.answers import Quote
    from wide_margin.desktop.look import Colours

TELLS = {
    Verdict.BACKED: "Backed: the document's own words",
    Verdict.PARTLY: "Partly backed: the excerpt holds only part of this",
    Verdict.UNBACKED: "Unbacked: the excerpt does not hold this",
}


class Backing(QWidget):
    """The bar at the left of a statement: full, half or hollow."""

    def __init__(self, quote: Quote, colours: Colours) -> None:
        super().__init__()
        self._verdict, self._colours = quote.backing, colours
        self.setFixedWidth(4)
        is_sure = quote.backing is Verdict.BACKED and quote.notes
        tells = "Backed" if is_sure else TELLS[quote.backing]
        set_tip(self, "\n".join([tells, *(f"· {note}" for note in quote.notes)]))
        self.setAccessibleName(tells)

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the bar."""
        painter = QPainter(self)
        colour = QColor(self._colours.verdigris)
        rect = self.rect()
        if self._verdict is Verdict.BACKED:
            painter.fillRect(rect, colour)
            return
        painter.setPen(colour)
        painter.drawRect(rect.adjusted(0, 0, -1, -1))
        if self._verdict is Verdict.PARTLY:
            painter.fillRect(rect.adjusted(0, rect.height() // 2, 0, 0), colour)


class Backed(QWidget):
    """A statement beside its bar, and under it in a few words what is not backed."""

    def __init__(self, quote: Quote, colours: Colours) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(Backing(quote, colours))
        column = QVBoxLayout()
        column.setSpacing(0)
        column.addWidget(WrappedWords(quote.text, sans_font(-0.5)))
        if quote.notes:
            said = "; ".join(quote.notes)
            column.addWidget(WrappedWords(said, sans_font(-1.5), role="secondary"))
        row.addLayout(column, 1)
