"""Entries as cards in the margin: what was asked, explained, translated, marked or noted."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtWidgets import QWidget

from wide_margin.core.margin import EntryKind
from wide_margin.desktop.read_view.cards.actions import EntryActions
from wide_margin.desktop.read_view.cards.answer import AnswerCard
from wide_margin.desktop.read_view.cards.card import Card
from wide_margin.desktop.read_view.cards.explanation import ExplanationCard
from wide_margin.desktop.read_view.cards.held import HeldAnswer
from wide_margin.desktop.read_view.cards.notes import CuttingCard, MarkCard, NoteCard
from wide_margin.desktop.read_view.cards.translation import TranslationCard
from wide_margin.desktop.read_view.cards.worth import WorthAsking

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.look import Colours

__all__ = [
    "AnswerCard",
    "Card",
    "CuttingCard",
    "EntryActions",
    "ExplanationCard",
    "HeldAnswer",
    "MarkCard",
    "NoteCard",
    "TranslationCard",
    "WorthAsking",
    "card_for",
]

_KINDS: dict[EntryKind, type[Card]] = {
    EntryKind.QUESTION: AnswerCard,
    EntryKind.EXPLANATION: ExplanationCard,
    EntryKind.TRANSLATION: TranslationCard,
    EntryKind.MARK: MarkCard,
    EntryKind.NOTE: NoteCard,
    EntryKind.CUTTING: CuttingCard,
}


def card_for(entry: Entry, actions: EntryActions, colours: Colours, parent: QWidget) -> Card:
    """The card of an entry's kind."""
    return _KINDS[entry.kind](entry, actions, colours, parent)
