"""The answer held at the top of the margin while its places are visited."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFontInfo, QImage, QMouseEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QSizePolicy, QVBoxLayout, QWidget

from wide_margin.core.export import ANSWER_FORMS
from wide_margin.core.layout import page_shown
from wide_margin.core.margin import Origin, State
from wide_margin.core.plain import counted
from wide_margin.desktop.flow import Flow
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.picture_frame import PictureFrame
from wide_margin.desktop.read_view.cards.answer import (
    PERHAPS_SAID,
    origin_of,
    question_in,
    said_instead,
)
from wide_margin.desktop.read_view.cards.backed import Backing
from wide_margin.desktop.read_view.cards.card import Card, shortened, statement
from wide_margin.desktop.read_view.page_images import png_of
from wide_margin.desktop.words import WrappedWords, set_picture_tip, set_tip, word_button

if TYPE_CHECKING:
    from wide_margin.core.answers import Excerpt, Quote
    from wide_margin.core.margin import Entry, QuestionBody
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.cards.actions import EntryActions

MOST_RECOGNISED = 3
N_NEAREST = 3
"""Passages shown where the document does not say."""


class HeldAnswer(Card):
    """Question, statements with their backing, coverage, actions, excerpts."""

    excerpts_opened = Signal()

    def __init__(
        self,
        entry: Entry,
        actions: EntryActions,
        colours: Colours,
        parent: QWidget | None = None,
        *,
        composes: bool,
    ) -> None:
        self._composes = composes
        self.pictures: list[PassagePicture] = []
        super().__init__(entry, actions, colours, parent)

    def fill(self) -> None:
        """Build it for the answer as it is now."""
        self.setObjectName("held")
        self.edge = self.colours.paper
        self.column.setContentsMargins(14, 8, 14, 8)
        self.column.setSpacing(8)
        body = question_in(self.entry)
        self.head.setText(f"Held question · {body.reach.name} · {origin_of(body)}")
        if body.before is not None:
            earlier = f"after “{shortened(body.before.question, 70)}”"
            self.column.addWidget(WrappedWords(earlier, sans_font(-1.5), role="secondary"))
        self.column.addWidget(WrappedWords(body.question, sans_font(0.5, bold=True)))
        self._add_statements(body)
        if body.problem:
            self.column.addWidget(WrappedWords(body.problem, sans_font(-0.5)))
        if body.missing and body.quotes:
            words = ", ".join(f"“{word}”" for word in body.missing)
            self.column.addWidget(WrappedWords(f"Nothing found on {words}.", sans_font(-0.5)))
        hair = QFrame()
        hair.setObjectName("hair")
        hair.setFixedHeight(1)
        self.column.addWidget(hair)
        self.column.addWidget(WrappedWords(coverage(body), sans_font(-1.5), role="secondary"))
        if body.n_sent:
            sent = WrappedWords(of_sending(body), sans_font(-1.5), role="secondary")
            set_tip(sent, "\n".join(body.restated))
            self.column.addWidget(sent)
        self._add_actions(body)
        self._add_further(body)
        self._add_excerpts(body)

    def _add_statements(self, body: QuestionBody) -> None:
        is_quoted = body.origin is Origin.QUOTED
        if body.is_perhaps:
            self.column.addWidget(WrappedWords(PERHAPS_SAID, sans_font(-0.5), role="secondary"))
        size = -0.5 if body.is_perhaps else 0.5
        at = 0
        for quote in body.quotes:
            first, at = at, at + len(quote.locators)
            row = QHBoxLayout()
            row.setSpacing(8)
            if not body.is_perhaps:
                row.addWidget(Backing(quote, self.colours))

            def make(q: Quote = quote, k: int = first) -> Markup:
                return statement(self, q, k, is_quoted=is_quoted)

            row.addWidget(self.rich(serif_font(size) if is_quoted else sans_font(size), make), 1)
            self.column.addLayout(row)
        if not body.quotes:
            self.column.addWidget(WrappedWords(said_instead(body), sans_font(0.5)))

    def _add_actions(self, body: QuestionBody) -> None:
        row = Flow()
        n = len(body.excerpts)
        self.excerpts_button = word_button(
            counted(n, "excerpt"), "Show what the answer was found among"
        )
        self.excerpts_button.setCheckable(True)
        self.excerpts_button.toggled.connect(self._show_excerpts)
        self.excerpts_button.setVisible(not body.is_declined and n > 0)
        following = word_button("Next place", "Visit the next place of this answer ( ] )")
        following.clicked.connect(self.commands.next_place)
        letting = word_button("Let go", "Return the answer to its place in the margin")
        letting.clicked.connect(self.commands.let_go)
        reword = word_button("Ask again", "Put the question back into the ask line")
        reword.clicked.connect(lambda: self.commands.reword(self.entry.id))
        for button in (self.excerpts_button, following, reword, letting):
            row.addWidget(button)
        self.column.addLayout(row)

    def _add_further(self, body: QuestionBody) -> None:
        row = Flow()
        on = word_button("Ask on from here", "The next question may lean on this one")
        on.clicked.connect(lambda: self.commands.ask_on(self.entry.id))
        row.addWidget(on)
        if body.state.is_under_way:
            stop = word_button("Cancel", "Stop composing")
            stop.clicked.connect(lambda: self.commands.cancel(self.entry.id))
            row.addWidget(stop)
        elif body.origin is Origin.COMPOSED:
            if body.state is State.BROKEN_OFF:
                go_on = word_button("Go on", "Have the rest composed; it broke off")
                go_on.clicked.connect(lambda: self.commands.go_on(self.entry.id))
                row.addWidget(go_on)
            back = word_button("Quote again", "Show the document's own words")
            back.clicked.connect(lambda: self.commands.quote_again(self.entry.id))
            row.addWidget(back)
            self._offer_composing(row, freely=not body.is_free, again=True)
        elif not body.is_declined:
            self._offer_composing(row, freely=False, again=False)
        elif self._composes and body.excerpts and not body.n_sent:
            looking = word_button(
                "Look with the model", "Have the writing model restate it, and judge what is found"
            )
            looking.clicked.connect(lambda: self.commands.compose(self.entry.id, freely=False))
            row.addWidget(looking)
        if body.quotes:
            copy = word_button("Copy ▾", "Put the answer on the clipboard")
            menu = QMenu(copy)
            for form, name in ANSWER_FORMS.items():
                menu.addAction(name, partial(self.commands.copy, self.entry.id, form))
            copy.setMenu(menu)
            row.addWidget(copy)
        self.column.addLayout(row)
        if body.struck:
            again = word_button("Ask again from what is kept", "Leave the struck excerpts out")
            again.clicked.connect(lambda: self.commands.ask_from_kept(self.entry.id))
            self.column.addWidget(again, 0, Qt.AlignmentFlag.AlignLeft)

    def _offer_composing(self, row: Flow, *, freely: bool, again: bool) -> None:
        if not self._composes:
            return
        manner = ("close to their words", "in the model's own words")[freely]
        tip = f"Have the writing model compose an answer from the excerpts that are kept, {manner}"
        name = ("Compose closely", "Compose freely")[freely] if again else "Compose"
        button = word_button(name, tip)
        button.clicked.connect(lambda: self.commands.compose(self.entry.id, freely=freely))
        row.addWidget(button)

    def _add_excerpts(self, body: QuestionBody) -> None:
        declined = body.is_declined
        self._excerpts = QWidget()
        column = QVBoxLayout(self._excerpts)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        if declined and body.excerpts:
            column.addWidget(WrappedWords("The nearest passages:", sans_font(-1), role="secondary"))
        for k, excerpt in enumerate(body.excerpts[:N_NEAREST] if declined else body.excerpts):
            self._add_excerpt(column, k, excerpt, body)
        self._excerpts.setVisible(declined)
        self.column.addWidget(self._excerpts)
        if body.struck:
            self.excerpts_button.setChecked(True)

    def _add_excerpt(
        self, column: QVBoxLayout, k: int, excerpt: Excerpt, body: QuestionBody
    ) -> None:
        """Its place, its picture with the words marked, and the words where they are wanted."""
        place, index = excerpt.locator, body.n_quoted + k
        family, size = QFontInfo(sans_font()).family(), sans_font(-1.5).pointSizeF()

        def head() -> Markup:
            return Markup(
                "{} <span style=\"font-family:'{}';font-size:{}pt;color:{}\">{}</span>"
            ).format(
                self.link(index, place), family, size, self.colours.secondary,
                " / ".join(place.path),
            )  # fmt: skip

        is_struck = k in body.struck
        said = Markup("<s>{}</s>") if is_struck else Markup("{}")
        words = WrappedWords(said.format(shortened(excerpt.text, 600)), serif_font(-0.5))
        picture = PassagePicture(place.shown)
        picture.clicked.connect(partial(self.commands.follow, self.entry.id, index))
        self.pictures.append(picture)
        show_words = word_button("Words", "Show the words of this passage, to read or copy")
        show_words.setCheckable(True)
        show_words.toggled.connect(partial(self._show_words, words))
        # Without characters of its own there is nothing to draw.
        picture.setVisible(bool(place.spans))
        words.setVisible(not place.spans)
        show_words.setVisible(bool(place.spans))
        line = QHBoxLayout()
        line.setSpacing(8)
        line.addWidget(self.rich(serif_font(-0.5), head), 1)
        line.addWidget(show_words, 0, Qt.AlignmentFlag.AlignTop)
        if not body.is_declined:
            strike = word_button(
                "Keep" if is_struck else "Strike", "Whether to answer from this excerpt"
            )
            strike.clicked.connect(partial(self.commands.strike, self.entry.id, k))
            line.addWidget(strike, 0, Qt.AlignmentFlag.AlignTop)
        column.addLayout(line)
        column.addWidget(picture)
        column.addWidget(words)
        column.addSpacing(4)

    def _show_words(self, words: QWidget, shown: bool) -> None:
        words.setVisible(shown)
        self.resized.emit()

    @property
    def shows_excerpts(self) -> bool:
        """Whether what the answer was found among is open."""
        return not self._excerpts.isHidden()

    def excerpts_top(self) -> int:
        """Pixels from the top to the first excerpt."""
        return self._excerpts.y()

    def ask_for_pictures(self) -> None:
        """Wish for the pictures of the excerpts that are in view."""
        if self.shows_excerpts:
            for k, picture in enumerate(self.pictures):
                if not picture.is_asked_for:
                    picture.is_asked_for = True
                    self.commands.want_picture(self.entry.id, k, picture.show_image)

    def _show_excerpts(self, shown: bool) -> None:
        self._excerpts.setVisible(shown)
        self.ask_for_pictures()
        self.resized.emit()
        if shown:
            self.excerpts_opened.emit()


def coverage(body: QuestionBody) -> str:
    """The line under an answer: pages searched out of pages there are."""
    line = f"{body.n_searched:,} of {counted(body.n_pages, 'page')} searched"
    if body.so_far:
        line = f"{body.so_far:,} of {counted(body.n_pages, 'page')} read so far"
    if body.origin is Origin.QUOTED and body.n_found > len(body.quotes):
        line = f"{len(body.quotes)} of {body.n_found:,} shown · {line}"
    if len(body.without_text) == 1:
        line += f" · {page_shown(None, body.without_text[0])} has no readable text"
    elif body.without_text:
        line += f" · {len(body.without_text)} pages have no readable text"
    if body.quotes and body.origin is Origin.QUOTED and body.sure < 1.0:
        n_right = max(round(10 * body.sure), 1)
        line += f" · such answers are right {n_right} times in 10"
    for page, sure in body.recognised[:MOST_RECOGNISED]:
        line += f" · {page_shown(None, page)} recognised in its picture, {sure:.0%} sure"
    return line


def of_sending(body: QuestionBody) -> str:
    """What a writing model was sent, and what its help in finding came to."""
    line = f"{counted(body.n_sent, 'word')} sent to the model"
    if body.restated:
        line += f" · looked for in {counted(len(body.restated), 'other wording')} too"
    if body.n_judged:
        line += f" · {counted(body.n_judged, 'excerpt')} found to answer"
    return line


class PassagePicture(PictureFrame):
    """A small picture of where an excerpt stands; larger under the pointer."""

    clicked = Signal()
    HIGH, LARGE = 64, 460
    """Pixels of the strip's height and of the larger picture's width."""

    def __init__(self, shown: str) -> None:
        super().__init__(highest=self.HIGH)
        self.setMinimumWidth(60)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"Picture of {shown}")
        self.is_asked_for = False

    def show_image(self, image: QImage) -> None:
        """Show the picture, and the larger one under the pointer."""
        super().show_image(image)
        set_picture_tip(self, png_of(image), self.LARGE)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Go there."""
        self.clicked.emit()
