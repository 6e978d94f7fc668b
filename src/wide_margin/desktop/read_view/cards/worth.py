"""What the document says in short, and questions to begin with, beside the first page."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QVBoxLayout, QWidget

from wide_margin.core.digest import DocumentKind
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.card import unbroken
from wide_margin.desktop.words import Words, WrappedWords, set_tip, word_button

if TYPE_CHECKING:
    from wide_margin.core.digest import GistLine
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.cards.actions import EntryActions

APART = 7
LOOKING = "Questions worth asking are being looked for…"


class WorthAsking(QFrame):
    """Stands beside the first page; says that it looks for questions until they are there."""

    def __init__(
        self,
        kind: str,
        questions: Sequence[str] | None,
        actions: EntryActions,
        colours: Colours,
        parent: QWidget,
        gist: Sequence[GistLine] = (),
    ) -> None:
        """Show the gist and questions, or that they are being looked for where None."""
        super().__init__(parent)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(APART)
        self.gist = [_gist_line(line, actions, colours) for line in gist]
        if gist:
            column.addWidget(Words("In short", sans_font(-1), role="secondary"))
            for said_in_short in self.gist:
                column.addWidget(said_in_short)
            column.addSpacing(APART)
        head = QHBoxLayout()
        head.setSpacing(4)
        head.addWidget(Words("Worth asking", sans_font(-1), role="secondary"))
        self.kind = word_button(
            f"of {DocumentKind(kind).with_article} ▾", "What kind of document this is"
        )
        menu = QMenu(self.kind)
        for other in DocumentKind:
            shown = other.with_article
            menu.addAction(shown[0].upper() + shown[1:], partial(actions.choose_kind, str(other)))
        self.kind.setMenu(menu)
        self.kind.setVisible(questions is not None)
        head.addWidget(self.kind)
        head.addStretch(1)
        column.addLayout(head)
        self.lines: list[WrappedWords] = []
        for question in questions or ():
            link = Markup('<a href="ask:" style="color:{};text-decoration:none">{}</a>')
            line = WrappedWords(link.format(colours.ink, question), serif_font(0.5))
            set_tip(line, "Ask this")
            line.linkActivated.connect(lambda _, asked=question: actions.ask(asked))
            column.addWidget(line)
            self.lines.append(line)
        if not questions:
            said = LOOKING if questions is None else "Nothing in particular was found."
            column.addWidget(WrappedWords(said, sans_font(-0.5), role="secondary"))
        self._column = column

    def height_at(self, width: int) -> int:
        """Pixels that the lines take at a width."""
        return self._column.heightForWidth(width) + 6


def _gist_line(line: GistLine, actions: EntryActions, colours: Colours) -> WrappedWords:
    """A sentence of the gist with its page, which leads there."""
    place = Markup('<a href="read:" style="color:{};text-decoration:none">{}</a>')
    text = Markup("{} {}").format(line.text, place.format(colours.madder, unbroken(line.locator)))
    shown = WrappedWords(text, serif_font(0.5))
    shown.linkActivated.connect(lambda _: actions.read_passage(line.locator))
    return shown
