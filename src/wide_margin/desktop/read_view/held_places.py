"""The held answer and its places: holding, following a locator, stepping through."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject

from wide_margin.core.margin import QuestionBody
from wide_margin.desktop.read_view.page_painting import Laid

if TYPE_CHECKING:
    from wide_margin.core.document import Locator
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.read_view.read_view import ReadView

N_NEAREST = 3
"""Places of an answer that the document does not give: the nearest passages."""


class HeldPlaces(QObject):
    """Which answer is held, and which of its places is visited."""

    def __init__(self, view: ReadView) -> None:
        super().__init__(view)
        self._view = view
        self.places: tuple[Locator, ...] = ()
        self.at = -1
        """Index of the place that is visited, -1 before the first."""
        self._n_steps = 0

    def forget(self) -> None:
        """Another document is opened."""
        self.places, self.at, self._n_steps = (), -1, 0

    @property
    def here(self) -> Locator | None:
        """The place that is visited."""
        is_held = self._view.margin.held is not None
        return self.places[self.at] if is_held and 0 <= self.at < len(self.places) else None

    def hold(self, entry_id: str) -> None:
        """Hold an answer at the top of the margin."""
        view = self._view
        entry = view.reader.entries[entry_id]
        if not isinstance(entry.body, QuestionBody):
            return
        n_quoted = entry.body.n_quoted
        self.places = entry.body.places
        if not n_quoted:
            self.places = self.places[:N_NEAREST]
        self._n_steps = n_quoted or len(self.places)
        self.at = -1
        view.margin.composes = view.reader.composer.has_model
        view.passages.drop()
        view.margin.hold(entry)
        strokes = [(view.along_spine.place_of(p), k < n_quoted) for k, p in enumerate(self.places)]
        view.spine.show_strokes(strokes)

    def let_go(self) -> None:
        """Return the held answer to its place."""
        view = self._view
        self.forget()
        view.ask_line.ask_on_from("", "")
        view.margin.hold(None)
        view.spine.show_strokes([])
        view.pages.lay("evidence", [])

    def show_changed(self, entry: Entry) -> None:
        """The held answer has changed: it is shown as it is now."""
        held = self._view.margin.held
        if held is not None and held.entry.id == entry.id:
            self.hold(entry.id)

    def step(self, step: int) -> None:
        """Visit the next or previous place of the held answer."""
        held = self._view.margin.held
        if held is not None and self._n_steps:
            at = self.at if 0 <= self.at < self._n_steps else (-1 if step > 0 else 0)
            self.follow(held.entry.id, (at + step) % self._n_steps)

    def follow(self, entry_id: str, index: int) -> None:
        """Go where a locator leads and mark the very words."""
        view, held = self._view, self._view.margin.held
        if held is not None and held.entry.id == entry_id:
            places = self.places
            self.at = index
            held.show_here(index)
        else:
            places = view.reader.entries[entry_id].body.places
            if card := view.margin.card(entry_id):
                card.show_here(index)
        if not 0 <= index < len(places):
            return
        place = places[index]
        if place.is_lost:
            view.show_status("The file no longer has these words.", for_ms=8000)
            return
        view.leave_place()
        view.pages.lay("evidence", [Laid(place.spans, "tint", bar=True)])
        if place.spans:
            view.pages.reveal(place.spans)
        else:
            view.pages.go_to(place.page)
        view.draw_leaders()

    def follow_stroke(self, index: int) -> None:
        """Go where a stroke on the spine leads."""
        if self._view.margin.held is not None:
            self.follow(self._view.margin.held.entry.id, index)
