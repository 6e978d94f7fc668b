"""The entries of all documents that were read here, not of the open one alone."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QMenu

from wide_margin.core.margin import DocumentRecord, Entry
from wide_margin.desktop.words import set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.desktop.commonplace_view.commonplace_view import CommonplaceView

MOST_DOCUMENTS = 500
Kept = list[tuple[DocumentRecord, tuple[Entry, ...]]]


class Everywhere:
    """Reads the store in its own thread; what is changed goes through the keeper of entries."""

    def __init__(self, view: CommonplaceView) -> None:
        """For one view."""
        self._view = view
        self.is_on = False
        self._records: dict[int, DocumentRecord] = {}
        self.button = word_button("This document ▾", "Choose whose entries are shown")
        menu = QMenu(self.button)
        menu.addAction("This document", partial(self.turn, False))
        menu.addAction("All documents read here", partial(self.turn, True))
        self.button.setMenu(menu)
        view.reader.opened.connect(lambda _: self.turn(False))
        view.reader.keeper.others_changed.connect(self._changed)

    @property
    def entries(self) -> list[Entry]:
        """Those of the open document as they are now, then those of the others."""
        keeper = self._view.reader.keeper
        return [*keeper.entries.values(), *keeper.of_others.values()]

    def record_of(self, entry: Entry) -> DocumentRecord | None:
        """The document that an entry belongs to; None for the one that is open."""
        number = self._view.reader.keeper.record_of_other(entry.id) if self.is_on else None
        return self._records.get(number) if number is not None else None

    def turn(self, is_on: bool) -> None:
        """Show the entries of all documents, or of the open one again."""
        if not is_on:
            self._show(False, [])
            return
        reader = self._view.reader
        store, own = reader.store, reader.record

        def load() -> Kept:
            records = store.documents(MOST_DOCUMENTS)
            kept = [r for r in records if r.n_entries and (own is None or r.id != own.id)]
            return [(record, store.entries(record.id).entries) for record in kept]

        reader.watch(
            store.later(load), done=lambda kept: self._show(True, kept), failed=self._not_read
        )

    def _show(self, is_on: bool, kept: Kept) -> None:
        self.is_on = is_on
        if is_on:  # what is known stays known where it is off, for undo
            self._view.reader.keeper.know_others({record.id: found for record, found in kept})
            self._records = {record.id: record for record, _ in kept}
        set_word(self.button, "All documents ▾" if is_on else "This document ▾")
        self._view.forget_counts()
        self._view.show_all()

    def _changed(self) -> None:
        if self.is_on:
            self._view.forget_counts()
            self._view.show_soon()

    def _not_read(self, error: WideMarginError) -> None:
        self._view.say(f"{error.message} {error.hint}".strip())
