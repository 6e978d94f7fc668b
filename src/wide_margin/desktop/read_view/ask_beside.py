"""Asking the file that is shown beside: its answer stands with it, and leads to its pages."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLineEdit, QScrollArea, QVBoxLayout, QWidget

from wide_margin.core.answers import WHOLE
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.answer import PERHAPS_SAID
from wide_margin.desktop.words import Words, WrappedWords, word_button

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Quote
    from wide_margin.core.document import Locator
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.session import Session
    from wide_margin.desktop.background import Background
    from wide_margin.desktop.look import Colours

HIGHEST = 0.45
"""Share of the place beside that an answer takes at most."""
ROOM = 14


class AskBeside(QFrame):
    """A line to ask in, and the answer above it; both only for another file."""

    place_asked = Signal(object)  # Locator
    answered = Signal(object)  # Answer

    def __init__(self, background: Background, colours: Colours) -> None:
        super().__init__()
        self._background, self.colours = background, colours
        self._session: Session | None = None
        self._answer: Answer | None = None
        self._places: list[Locator] = []
        self.answer_area = QScrollArea()
        self.answer_area.setWidgetResizable(True)
        self.answer_area.setFrameShape(QFrame.Shape.NoFrame)
        self.answer_area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.answer_area.hide()
        self.field = QLineEdit()
        self.field.setAccessibleName("Question to the file beside")
        self.field.returnPressed.connect(self.ask)
        row = QHBoxLayout()
        row.setContentsMargins(8, 4, 8, 6)
        row.addWidget(self.field)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.answer_area)
        column.addLayout(row)
        self.hide()

    def serve(self, session: Session | None) -> None:
        """Ask this session from now on; none hides the line and what was answered."""
        self._session = session
        self.put_away()
        self.field.clear()
        if session is not None:
            self.field.setPlaceholderText("Question to the file beside")
        self.setVisible(session is not None)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        if self._answer is not None:
            self._show(self._answer)

    def ask(self) -> None:
        """Ask what was typed."""
        session, question = self._session, self.field.text().strip()
        if session is None or not question:
            return

        def arrived(answer: Answer) -> None:
            if self._session is session:
                self.field.clear()
                self._show(answer)
                self.answered.emit(answer)
                if self._places:
                    self.place_asked.emit(self._places[0])

        def failed(error: WideMarginError) -> None:
            if self._session is session:
                self._say([WrappedWords(f"{error.message} {error.hint}", sans_font())])

        self._say([WrappedWords("Looking…", sans_font(), role="secondary")])
        self._background.watch(session.ask(question, WHOLE), done=arrived, failed=failed)

    def put_away(self) -> None:
        """Show no answer."""
        self._answer, self._places = None, []
        self.answer_area.hide()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape puts the answer away."""
        if event.key() == Qt.Key.Key_Escape and self.answer_area.isVisible():
            self.put_away()
        else:
            super().keyPressEvent(event)

    def _show(self, answer: Answer) -> None:
        self._answer, self._places = answer, []
        lines: list[QWidget] = [WrappedWords(answer.question, sans_font(bold=True))]
        if answer.is_perhaps:
            lines.append(WrappedWords(PERHAPS_SAID, sans_font(-0.5), role="secondary"))
        lines += [self._statement(quote) for quote in answer.quotes]
        if answer.declined:
            said = f"The document does not say. {answer.reason}".strip()
            lines.append(WrappedWords(said, sans_font()))
        self._say(lines)

    def _statement(self, quote: Quote) -> WrappedWords:
        link = Markup('<a href="{}" style="color:{}">{}</a>')
        first, self._places = len(self._places), [*self._places, *quote.locators]
        places = Markup(" ").join(
            link.format(first + k, self.colours.madder, place.shown)
            for k, place in enumerate(quote.locators)
        )
        line = WrappedWords(Markup("“{}” {}").format(quote.text, places), serif_font())
        line.linkActivated.connect(lambda at: self.place_asked.emit(self._places[int(at)]))
        return line

    def _say(self, lines: Sequence[QWidget]) -> None:
        inside = QWidget()
        column = QVBoxLayout(inside)
        column.setContentsMargins(ROOM, 8, ROOM, 8)
        column.setSpacing(6)
        head = QHBoxLayout()
        head.addWidget(Words("Asked of this file", sans_font(-1.5), role="secondary"), 1)
        close = word_button("Put away", "Show no answer here (Esc); it is kept with the file")
        close.clicked.connect(self.put_away)
        head.addWidget(close)
        column.addLayout(head)
        for line in lines:
            column.addWidget(line)
        column.addStretch(1)
        self.answer_area.setWidget(inside)
        self.answer_area.show()
        self._fit()

    def _fit(self) -> None:
        """As high as the answer, as far as there is room."""
        inside, above = self.answer_area.widget(), self.parentWidget()
        if inside is None or above is None:
            return
        layout = inside.layout()
        wanted = layout.heightForWidth(max(self.width(), 200)) if layout is not None else 0
        self.answer_area.setFixedHeight(min(wanted + 4, int(HIGHEST * above.height())))
