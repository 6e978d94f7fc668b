"""A question and its answer, beside its first place."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt

from wide_margin.core.margin import Origin, QuestionBody, State
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.card import Card, statement
from wide_margin.desktop.words import WrappedWords, word_button

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry

PERHAPS_SAID = "Not sure to answer; the nearest sentences are these:"
N_SHOWN = 2
"""Statements of an answer that is not held."""


class AnswerCard(Card):
    """The question, its first statements, and the way to hold it again."""

    def fill(self) -> None:
        """Build it for the answer as it is now."""
        body = question_in(self.entry)
        self.edge = self.colours.madder
        self.head.setText(f"Question · {body.reach.name} · {origin_of(body)}")
        self.column.addWidget(WrappedWords(body.question, sans_font(bold=True)))
        is_quoted = body.origin is Origin.QUOTED
        if body.is_perhaps:
            self.column.addWidget(WrappedWords(PERHAPS_SAID, sans_font(-0.5), role="secondary"))
        at = 0
        for quote in body.quotes[:N_SHOWN]:
            first, at = at, at + len(quote.locators)
            self.column.addWidget(
                self.rich(
                    serif_font() if is_quoted else sans_font(),
                    partial(statement, self, quote, first, is_quoted=is_quoted),
                )
            )
        if not body.quotes:
            self.column.addWidget(WrappedWords(said_instead(body), sans_font()))
        hold = word_button("Hold", "Hold this answer at the top of the margin")
        hold.clicked.connect(lambda: self.commands.hold(self.entry.id))
        self.column.addWidget(hold, 0, Qt.AlignmentFlag.AlignLeft)


def question_in(entry: Entry) -> QuestionBody:
    """The body of a question's entry."""
    assert isinstance(entry.body, QuestionBody)
    return entry.body


def origin_of(body: QuestionBody) -> str:
    """Whose words an answer is made of."""
    if body.origin is Origin.COMPOSED:
        if "stand-in" in body.model:
            return "composed, simulated"
        return f"composed by {body.model}" if body.model else "composed"
    if body.is_perhaps:
        return "perhaps"
    return "quoted" if body.quotes else "declined"


def said_instead(body: QuestionBody) -> str:
    """What stands where statements would."""
    if body.state.is_under_way:
        return "Composing…"
    if body.state is State.BROKEN_OFF:
        return "Composing broke off."
    return " ".join(filter(None, ("The document does not say.", body.reason)))
