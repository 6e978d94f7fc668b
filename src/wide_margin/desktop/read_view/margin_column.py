"""The margin: entries beside their passages, the held answer at the top."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from PySide6.QtCore import QRect, Qt, QTimer, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QPushButton, QScrollArea, QWidget

from wide_margin.core.margin import Entry
from wide_margin.desktop.look import DAY, Colours
from wide_margin.desktop.read_view.cards import (
    Card,
    HeldAnswer,
    NoteCard,
    TranslationCard,
    WorthAsking,
    card_for,
    word_button,
)

SIDE = 16
APART = 10
LOWEST = 48
"""A card that would start nearer to the bottom is only counted there."""
HELD_SHARE, OPEN_SHARE = 0.62, 0.92
"""Shares of the margin that the held answer takes at most, the second with its excerpts open; it
scrolls past that."""


@dataclass(frozen=True, slots=True)
class Standing:
    """A card in view: which entry, and where its edge is."""

    entry: Entry
    rect: QRect
    """In the margin's coordinates."""
    edge: str


class MarginColumn(QFrame):
    """Cards move with the pages. Heights are those of the pages' viewport."""

    place_chosen = Signal(str, int)  # entry id, index of the place
    delete_asked = Signal(str)
    hold_asked = Signal(str)
    let_go = Signal()
    next_asked = Signal()
    text_changed = Signal(str, str)
    language_chosen = Signal(str, str)
    cancel_asked = Signal(str)
    retry_asked = Signal(str)
    pair_entered = Signal(str, int)
    more_asked = Signal()
    ask_on = Signal(str)
    again_asked = Signal(str)
    reword_asked = Signal(str)
    compose_asked = Signal(str, bool)
    quote_asked = Signal(str)
    composing_cancelled = Signal(str)
    struck = Signal(str, int)
    picture_wanted = Signal(int)
    copy_asked = Signal(str, str)
    worth_asked = Signal(str)
    kind_chosen = Signal(str)
    moved = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("margin")
        self.setMinimumWidth(260)
        self.setAccessibleName("Margin")
        self.colours: Colours = DAY
        self._cards: dict[str, Card] = {}
        self._entries: dict[str, Entry] = {}
        self._where: Callable[[Entry], float | None] = lambda entry: None
        self._kept_free: tuple[int, int] | None = None
        self._standing: list[Standing] = []
        self.worth: WorthAsking | None = None
        self._first_page: Callable[[], float | None] = lambda: None
        self._worth: tuple[str, list[str]] | None = None
        self.held: HeldAnswer | None = None
        self.composes = False
        """Whether a writing model is there to compose answers."""
        self._held_area = QScrollArea(self)
        self._held_area.setObjectName("marginHeld")
        self._held_area.setWidgetResizable(False)
        self._held_area.setFrameShape(QFrame.Shape.NoFrame)
        self._held_area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._held_area.hide()
        self._more: QPushButton = word_button("", "Show all entries")
        self._more.setParent(self)
        self._more.setObjectName("more")
        self._more.clicked.connect(self.more_asked)
        self._more.hide()

    def place_by(self, where: Callable[[Entry], float | None]) -> None:
        """Give the function that tells an entry's height in view, None where out of view."""
        self._where = where

    def place_first_page_by(self, where: Callable[[], float | None]) -> None:
        """Give the function that tells where the first page begins, None where out of view."""
        self._first_page = where

    def offer(self, kind: str, questions: list[str] | None) -> None:
        """Offer questions beside the first page; none for None."""
        if self.worth is not None:
            self.worth.hide()
            self.worth.deleteLater()
            self.worth = None
        self._worth = None
        if questions is not None:
            self._worth = kind, questions
            self.worth = WorthAsking(kind, questions, self.colours, self)
            self.worth.asked.connect(self.worth_asked)
            self.worth.kind_chosen.connect(self.kind_chosen)
        self.arrange()

    def standing(self) -> list[Standing]:
        """The cards in view, for the leaders."""
        return self._standing

    # --- entries

    def show_entries(self, entries: Sequence[Entry]) -> None:
        """Replace all entries."""
        for card in self._cards.values():
            card.hide()
            card.deleteLater()
        self._cards = {}
        self._entries = {entry.id: entry for entry in entries}
        self.arrange()

    def put(self, entry: Entry) -> None:
        """Add or change an entry."""
        self._entries[entry.id] = entry
        if card := self._cards.get(entry.id):
            card.update_entry(entry)
        self.arrange()

    def take(self, entry_id: str) -> None:
        """Remove an entry."""
        self._entries.pop(entry_id, None)
        if card := self._cards.pop(entry_id, None):
            card.hide()
            card.deleteLater()
        self.arrange()

    def edit(self, entry_id: str) -> None:
        """Put the cursor into a note."""
        card = self._cards.get(entry_id)
        if isinstance(card, NoteCard):
            card.field.setFocus()

    def save_all(self) -> None:
        """Keep whatever is being typed."""
        for card in self._cards.values():
            if isinstance(card, NoteCard):
                card.save()

    # --- the held answer

    def hold(self, entry: Entry | None) -> None:
        """Hold an answer at the top, or let go of it."""
        if self.held is not None:
            self._held_area.takeWidget()
            self.held.deleteLater()
            self.held = None
        self._held_area.setVisible(entry is not None)
        if entry is not None:
            held = HeldAnswer(entry, self.colours, composes=self.composes)
            held.place_chosen.connect(self.place_chosen)
            held.delete_asked.connect(self.delete_asked)
            held.let_go.connect(self.let_go)
            held.next_asked.connect(self.next_asked)
            held.ask_on.connect(self.ask_on)
            held.again_asked.connect(self.again_asked)
            held.reword_asked.connect(self.reword_asked)
            held.compose_asked.connect(self.compose_asked)
            held.quote_asked.connect(self.quote_asked)
            held.cancel_asked.connect(self.composing_cancelled)
            held.struck.connect(self.struck)
            held.copy_asked.connect(self.copy_asked)
            held.resized.connect(self.arrange)
            held.excerpts_opened.connect(self._show_excerpts)
            held.picture_wanted.connect(self.picture_wanted)
            self.held = held
            self._held_area.setWidget(held)
            held.ask_for_pictures()
            QTimer.singleShot(0, self.arrange)  # sizes are those of the style once it is shown
        self.arrange()

    def _show_excerpts(self) -> None:
        if self.held is not None:
            self._held_area.ensureVisible(0, self.held.excerpts_top() + 160, 0, 0)

    def wear(self, colours: Colours) -> None:
        """Change colours: every card is made anew."""
        self.colours = colours
        held = self.held.entry if self.held else None
        self.show_entries(list(self._entries.values()))
        self.hold(held)
        if self._worth is not None:
            self.offer(*self._worth)

    # --- arrangement

    def keep_free(self, band: tuple[int, int] | None) -> None:
        """Entries give way to what lies over the margin between two heights."""
        if band != self._kept_free:
            self._kept_free = band
            self.arrange()

    def arrange(self) -> None:
        """Put every card in view beside its passage, none over another."""
        width = max(self.width() - 2 * SIDE, 100)
        top = self._arrange_worth(width, self._arrange_held(width))
        wanted = []
        for entry in self._entries.values():
            if self.held is not None and entry.id == self.held.entry.id:
                continue
            y = self._where(entry)
            if y is not None:
                wanted.append((y, entry.created, entry))
        wanted.sort(key=lambda item: item[:2])
        shown: set[str] = set()
        self._standing = []
        n_hidden = 0
        for y, _, entry in wanted:
            card = self._card(entry)
            height = card.height_at(width)
            at = self._free_from(max(int(y), top), height)
            if at > self.height() - LOWEST:
                n_hidden += 1
                continue
            card.setGeometry(SIDE, at, width, height)
            card.show()
            shown.add(entry.id)
            self._standing.append(Standing(entry, card.geometry(), card.edge))
            top = at + height + APART
        for entry_id, card in self._cards.items():
            if entry_id not in shown:
                card.hide()
        self._say_more(n_hidden)
        self.moved.emit()

    def _arrange_held(self, width: int) -> int:
        if self.held is None:
            return 8
        wanted = max(self.held.height_at(width), 60)
        share = OPEN_SHARE if self.held.shows_excerpts else HELD_SHARE
        height = min(wanted, int(self.height() * share))
        bar = 10 if wanted > height else 0
        if bar:
            wanted = self.held.height_at(width - bar)
        self._held_area.setGeometry(SIDE, 12, width, height)
        self.held.resize(width - bar, wanted)
        self._held_area.raise_()
        return 12 + height + APART

    def _arrange_worth(self, width: int, top: int) -> int:
        if self.worth is None:
            return top
        y = self._first_page()
        is_shown = y is not None and self.held is None
        self.worth.setVisible(is_shown)
        if y is None or not is_shown:
            return top
        at, height = max(int(y) + 24, top), self.worth.height_at(width)
        self.worth.setGeometry(SIDE, at, width, height)
        return at + height + APART

    def _free_from(self, at: int, height: int) -> int:
        if self._kept_free and at < self._kept_free[1] and at + height > self._kept_free[0]:
            return self._kept_free[1] + 6
        return at

    def _say_more(self, n_hidden: int) -> None:
        self._more.setVisible(n_hidden > 0)
        if n_hidden:
            self._more.setText(f"{n_hidden} more here: see Entries")
            height = self._more.sizeHint().height() + 4
            self._more.setGeometry(SIDE, self.height() - height, self.width() - 2 * SIDE, height)
            self._more.raise_()

    def _card(self, entry: Entry) -> Card:
        card = self._cards.get(entry.id)
        if card is None:
            card = card_for(entry, self.colours, self)
            card.place_chosen.connect(self.place_chosen)
            card.delete_asked.connect(self.delete_asked)
            card.hold_asked.connect(self.hold_asked)
            card.resized.connect(self.arrange)
            if isinstance(card, NoteCard):
                card.text_changed.connect(self.text_changed)
            if isinstance(card, TranslationCard):
                card.language_chosen.connect(self.language_chosen)
                card.cancel_asked.connect(self.cancel_asked)
                card.retry_asked.connect(self.retry_asked)
                card.pair_entered.connect(self.pair_entered)
            self._cards[entry.id] = card
        return card

    def card(self, entry_id: str) -> Card | None:
        """The card of an entry, where it has one."""
        return self._cards.get(entry_id)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Arrange anew."""
        super().resizeEvent(event)
        self.arrange()
