"""The margin: entries beside their passages, the held answer at the top."""

from __future__ import annotations

from bisect import insort
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PySide6.QtCore import QRect, Qt, QTimer, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QPushButton, QScrollArea, QWidget

from wide_margin.core.margin import Entry
from wide_margin.desktop.look import DAY
from wide_margin.desktop.read_view.cards import HeldAnswer, NoteCard, WorthAsking, card_for
from wide_margin.desktop.words import set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.digest import GistLine
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.cards import Card, EntryActions

SIDE = 16
APART = 10
TOP = 12
LOWEST = 48
"""A card that would start nearer to the bottom is only counted there."""
HELD_SHARE, OPEN_SHARE = 0.62, 0.92
"""Shares of the margin that the held answer takes at most, the second with its excerpts open or
with no other card in view; it scrolls past that."""
LEAST_HELD = 0.34
"""Share of the margin that the held answer keeps where it gives way to what was just made."""
MAX_CARDS = 120
"""Cards kept built; those out of view longest go first."""

Wanted = tuple[float, str, Entry]
"""Where an entry's passage is in the viewport, when it was made, and the entry."""


@dataclass(frozen=True, slots=True)
class Standing:
    """A card in view: which entry, and where its edge is."""

    entry: Entry
    rect: QRect
    """In the margin's coordinates."""
    edge: str


class MarginColumn(QFrame):
    """Cards move with the pages. Heights are those of the pages' viewport.

    Only entries of the pages in view are looked at, and only their cards are built.
    """

    more_asked = Signal()
    moved = Signal()

    def __init__(self, actions: EntryActions, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("margin")
        self.setMinimumWidth(260)
        self.setAccessibleName("Margin")
        self.colours: Colours = DAY
        self._actions = actions
        self._cards: dict[str, Card] = {}
        self._entries: dict[str, Entry] = {}
        self._on_page: dict[int, list[tuple[str, str]]] = {}
        self._where: Callable[[Entry], float | None] = lambda entry: None
        self._pages_in_view: Callable[[], Iterable[int]] = lambda: ()
        self._kept_free: tuple[int, int] | None = None
        self._standing: list[Standing] = []
        self._fresh = ""
        self._is_arranging = False
        self.worth: WorthAsking | None = None
        self._first_page: Callable[[], float | None] = lambda: None
        self._worth: tuple[str, list[str] | None] | None = None
        self._gist: tuple[GistLine, ...] = ()
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

    def place_by(
        self, where: Callable[[Entry], float | None], pages_in_view: Callable[[], Iterable[int]]
    ) -> None:
        """Give the functions that tell an entry's height in view and which pages are."""
        self._where, self._pages_in_view = where, pages_in_view

    def place_first_page_by(self, where: Callable[[], float | None]) -> None:
        """Give the function that tells where the first page begins, None where out of view."""
        self._first_page = where

    def offer(self, kind: str, questions: list[str] | None) -> None:
        """Offer questions beside the first page; say that they are looked for where None."""
        self.stop_offering()
        self._worth = kind, questions
        self.worth = WorthAsking(kind, questions, self._actions, self.colours, self, self._gist)
        self.arrange()

    def show_gist(self, gist: Sequence[GistLine]) -> None:
        """Show what the document says in short, above the questions to begin with."""
        self._gist = tuple(gist)
        if self._worth is not None:
            self.offer(*self._worth)

    def stop_offering(self) -> None:
        """Offer nothing."""
        if self.worth is not None:
            self.worth.hide()
            self.worth.deleteLater()
            self.worth = self._worth = None
            self.arrange()

    def standing(self) -> list[Standing]:
        """The cards in view, for the leaders."""
        return self._standing

    # --- entries

    def show_entries(self, entries: Sequence[Entry]) -> None:
        """Replace all entries."""
        for entry_id in list(self._cards):
            self._drop_card(entry_id)
        self._fresh = ""
        self._entries = {entry.id: entry for entry in entries}
        self._on_page = {}
        for entry in entries:
            self._on_page.setdefault(entry.anchor.page, []).append((entry.created, entry.id))
        for row in self._on_page.values():
            row.sort()
        self.arrange()

    def put(self, entry: Entry, *, is_fresh: bool = False) -> None:
        """Add or change an entry; one that was just made is always in sight."""
        self._forget_place(entry.id)
        self._entries[entry.id] = entry
        insort(self._on_page.setdefault(entry.anchor.page, []), (entry.created, entry.id))
        if is_fresh:
            self._fresh = entry.id
        card = self._cards.get(entry.id)
        if card is not None and not card.show_entry(entry):
            self._drop_card(entry.id)
        self.arrange()

    def take(self, entry_id: str) -> None:
        """Remove an entry."""
        self._forget_place(entry_id)
        self._entries.pop(entry_id, None)
        self._drop_card(entry_id)
        self.arrange()

    def _forget_place(self, entry_id: str) -> None:
        if before := self._entries.get(entry_id):
            row = self._on_page.get(before.anchor.page, [])
            if (place := (before.created, entry_id)) in row:
                row.remove(place)

    def _drop_card(self, entry_id: str) -> None:
        if card := self._cards.pop(entry_id, None):
            if isinstance(card, NoteCard):
                card.save()
            card.hide()
            card.deleteLater()

    def see_no_more(self) -> None:
        """What was just made may go out of sight again: the reader has moved on."""
        self._fresh = ""

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
        scrolled = self._held_area.verticalScrollBar().value()
        same = self.held is not None and entry is not None and self.held.entry.id == entry.id
        if entry is not None and not same:
            self.see_no_more()
        if self.held is not None:
            self._held_area.takeWidget()
            self.held.deleteLater()
            self.held = None
        self._held_area.setVisible(entry is not None)
        if entry is not None:
            held = HeldAnswer(entry, self._actions, self.colours, composes=self.composes)
            held.resized.connect(self.arrange)
            held.excerpts_opened.connect(self._show_excerpts)
            self.held = held
            self._held_area.setWidget(held)
            held.ask_for_pictures()
            QTimer.singleShot(0, self.arrange)  # sizes are those of the style once it is shown
        self.arrange()
        if same:
            self._held_area.verticalScrollBar().setValue(scrolled)

    def _show_excerpts(self) -> None:
        self.see_no_more()
        self.arrange()
        if self.held is not None:
            self._held_area.ensureVisible(0, self.held.excerpts_top() + 160, 0, 0)

    def wear(self, colours: Colours) -> None:
        """Change colours: every card is made anew."""
        self.colours = colours
        held, fresh = self.held.entry if self.held else None, self._fresh
        self.show_entries(list(self._entries.values()))
        self._fresh = fresh
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
        if self._is_arranging:
            return  # a card that is measured may say that its size has changed
        self._is_arranging = True
        try:
            self._arrange()
        finally:
            self._is_arranging = False
        self.moved.emit()

    def _arrange(self) -> None:
        width = max(self.width() - 2 * SIDE, 100)
        wanted = self._wanted()
        fresh = next((item for item in wanted if item[2].id == self._fresh), None)
        reserved = self._place_for_fresh(fresh, width) if fresh else None
        held_to = self._arrange_held(width, reserved, is_alone=not wanted)
        top = self._arrange_worth(width, held_to)
        if fresh is not None and reserved is not None:
            wanted = self._around(fresh, reserved[0], wanted, top, width)
        shown: set[str] = set()
        self._standing = []
        n_hidden = 0
        for y, _, entry in wanted:
            is_fresh = reserved is not None and entry.id == self._fresh
            if not is_fresh and max(int(y), top) > self.height() - LOWEST:
                n_hidden += 1  # not even built
                continue
            card = self._card(entry)
            height = card.height_at(width)
            if reserved is not None and is_fresh:
                at = max(reserved[0], top)
            else:
                at = self._free_from(max(int(y), top), height, reserved, top)
            if at > self.height() - LOWEST:
                n_hidden += 1
                continue
            card.setGeometry(SIDE, at, width, height)
            card.show()
            shown.add(entry.id)
            self._standing.append(Standing(entry, card.geometry(), card.edge))
            top = max(top, at + height + APART)
        self._hide_others(shown)
        self._say_more(n_hidden)

    def _wanted(self) -> list[Wanted]:
        """The entries beside what is in view, the highest first."""
        held = self.held.entry.id if self.held is not None else ""
        wanted: list[Wanted] = []
        for page in self._pages_in_view():
            for created, entry_id in self._on_page.get(page, ()):
                entry = self._entries[entry_id]
                if entry_id != held and (y := self._where(entry)) is not None:
                    wanted.append((y, created, entry))
        wanted.sort(key=lambda item: item[:2])
        return wanted

    def _around(
        self, fresh: Wanted, at_fresh: int, wanted: list[Wanted], top: int, width: int
    ) -> list[Wanted]:
        """The entries in the order to place them.

        Those with room above what was just made come first, then that, then the others.
        """
        above: list[Wanted] = []
        below: list[Wanted] = []
        for item in wanted:
            if item is fresh:
                continue
            if item[0] <= fresh[0] and not below:
                height = self._card(item[2]).height_at(width)
                at = min(max(int(item[0]), top), at_fresh - APART - height)
                if at >= top:
                    above.append(item)
                    top = at + height + APART
                    continue
            below.append(item)
        return [*above, fresh, *below]

    def _place_for_fresh(self, fresh: Wanted, width: int) -> tuple[int, int] | None:
        """Top and bottom of what was just made: beside its passage, or as near as it is seen."""
        height = self._card(fresh[2]).height_at(width)
        held = self._least_held(width) + APART if self.held is not None else 0
        lowest = self.height() - min(height, self.height() - held - 2 * TOP) - TOP
        at = max(min(int(fresh[0]), lowest), held + TOP)
        if self._kept_free and at < self._kept_free[1] and at + height > self._kept_free[0]:
            at = self._kept_free[1] + 6
        return at, at + height

    def _least_held(self, width: int) -> int:
        wanted = self.held.height_at(width) if self.held is not None else 0
        return min(wanted, int(self.height() * LEAST_HELD))

    def _arrange_held(self, width: int, reserved: tuple[int, int] | None, *, is_alone: bool) -> int:
        if self.held is None:
            return 8
        share = OPEN_SHARE if self.held.shows_excerpts or is_alone else HELD_SHARE
        most = int(self.height() * share)
        if reserved is not None:
            most = max(min(most, reserved[0] - TOP - APART), self._least_held(width))
        wanted = max(self.held.height_at(width), 60)
        height = min(wanted, most)
        bar = 10 if wanted > height else 0
        if bar:
            wanted = self.held.height_at(width - bar)
        self._held_area.setGeometry(SIDE, TOP, width, height)
        self.held.resize(width - bar, wanted)
        self._held_area.raise_()
        return TOP + height + APART

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

    def _free_from(self, at: int, height: int, reserved: tuple[int, int] | None, top: int) -> int:
        """Where a card can stand: below what lies over the margin, and what was just made."""
        if reserved is not None and at < reserved[1] + APART and at + height > reserved[0] - APART:
            above = reserved[0] - APART - height
            at = above if above >= top else reserved[1] + APART
        if self._kept_free and at < self._kept_free[1] and at + height > self._kept_free[0]:
            at = self._kept_free[1] + 6
        return at

    def _hide_others(self, shown: set[str]) -> None:
        for entry_id, card in self._cards.items():
            if entry_id not in shown:
                card.hide()
        for entry_id in list(self._cards):
            if len(self._cards) <= MAX_CARDS:
                break
            if entry_id not in shown:
                self._drop_card(entry_id)

    def _say_more(self, n_hidden: int) -> None:
        self._more.setVisible(n_hidden > 0)
        if n_hidden:
            set_word(self._more, f"{n_hidden} more here: see Entries")
            height = self._more.sizeHint().height() + 4
            self._more.setGeometry(SIDE, self.height() - height, self.width() - 2 * SIDE, height)
            self._more.raise_()

    def _card(self, entry: Entry) -> Card:
        card = self._cards.get(entry.id)
        if card is None:
            card = card_for(entry, self._actions, self.colours, self)
            card.resized.connect(self.arrange)
            self._cards[entry.id] = card
        return card

    def card(self, entry_id: str) -> Card | None:
        """The card of an entry, where it has one."""
        return self._cards.get(entry_id)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Arrange anew; heights of text are known once the new width has settled."""
        super().resizeEvent(event)
        self.arrange()
        QTimer.singleShot(0, self.arrange)
