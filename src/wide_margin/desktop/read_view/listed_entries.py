"""The entries in the Read view: margin, list, dots on the spine, marks on the pages."""

from __future__ import annotations

from bisect import bisect_left
from typing import TYPE_CHECKING

from wide_margin.core.layout import PageLabels
from wide_margin.core.margin import EntryKind, MarkBody, Scope
from wide_margin.desktop.read_view.contents_panel import Row
from wide_margin.desktop.read_view.page_painting import Laid

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.read_view.read_view import ReadView

NOWHERE = 10**9
"""In place of a page, for what has no place yet."""


class ListedEntries:
    """Keeps margin, list, dots and marks at one with the entries."""

    def __init__(self, view: ReadView) -> None:
        """For one view."""
        self._view = view
        self._order: list[tuple[int, float, str]] = []

    def go_to(self, index: int) -> None:
        """Go to the entry at a position in the order of places."""
        if 0 <= index < len(self._order):
            self._view.go_to_entry(self._order[index][2])

    def height_of(self, entry: Entry) -> float | None:
        """Height of an entry's passage in the viewport, None where it is out of view."""
        anchor = entry.anchor
        if anchor.scope is Scope.LOOSE:
            return None
        if not self._view.pages.n_pages or anchor.page >= self._view.pages.n_pages:
            return None
        boxes = self._view.pages.boxes_in_view(anchor.spans)
        if boxes:
            y = boxes[0].top()
        elif anchor.spans and anchor.page in self._view.pages.visible_pages():
            return None  # until the page's text has come
        else:
            y = self._view.pages.y_in_view(anchor.page, max(anchor.y, 0.0))
        return y if -30 < y < self._view.pages.viewport().height() - 10 else None

    def first_page_top(self) -> float | None:
        """Where the first page begins in the viewport, None where it is out of view."""
        if 0 not in self._view.pages.visible_pages():
            return None
        return self._view.pages.y_in_view(0, 0.0)

    def added(self, entry: Entry) -> None:
        """Show a new entry."""
        self._view.margin.put(entry, is_fresh=entry.kind is not EntryKind.QUESTION)
        at = bisect_left(self._order, place := _place_of(entry))
        self._order.insert(at, place)
        self._view.contents.put_entry(at, self._row(entry))
        self.show_dots()
        if entry.kind is EntryKind.MARK:
            self._lay_marks()

    def changed(self, entry: Entry) -> None:
        """Show what has become of an entry."""
        self._view.margin.put(entry)
        self._view.held.show_changed(entry)
        at = next((k for k, (_, _, known) in enumerate(self._order) if known == entry.id), -1)
        if at < 0 or self._order[at] != _place_of(entry):
            self._list()
            return
        self._view.contents.change_entry(at, self._row(entry))
        if entry.kind is EntryKind.MARK:
            self._lay_marks()

    def removed(self, entry_id: str) -> None:
        """Take an entry away."""
        if self._view.margin.held is not None and self._view.margin.held.entry.id == entry_id:
            self._view.held.let_go()
        self._view.margin.take(entry_id)
        at = next((k for k, (_, _, known) in enumerate(self._order) if known == entry_id), -1)
        if at >= 0:
            del self._order[at]
            self._view.contents.take_entry(at)
        self.show_dots()
        self._lay_marks()
        self._view.show_status("Deleted. Ctrl+Z brings it back.", for_ms=8000)

    def show_all(self) -> None:
        """All entries, as they are now."""
        self._view.margin.show_entries(list(self._view.reader.entries.values()))
        self._list()

    def _list(self) -> None:
        entries = self._view.reader.entries
        self._order = sorted(map(_place_of, entries.values()))
        self._view.contents.show_entries([self._row(entries[key]) for *_, key in self._order])
        self.show_dots()
        self._lay_marks()

    def _row(self, entry: Entry) -> Row:
        summary = self._view.reader.summary
        labels = summary.labels if summary else PageLabels(())
        title = f"{entry.kind.capitalize()}: {entry.headline}"
        if entry.anchor.is_lost:
            return Row(title, "no place", entry.id)
        if entry.anchor.scope is Scope.LOOSE:
            return Row(title, str(Scope.LOOSE), entry.id)
        return Row(title, labels.listed(entry.anchor.page), entry.id)

    def show_dots(self) -> None:
        """A dot on the spine for each entry."""
        self._view.spine.show_dots([page + 0.5 for page, _, _ in self._order if page < NOWHERE])

    def _lay_marks(self) -> None:
        marks = (e for e in self._view.reader.entries.values() if e.kind is EntryKind.MARK)
        self._view.pages.lay(
            "marks",
            [
                Laid(m.anchor.spans, str(body.ink), ink=body.ink, form=body.form, key=m.id)
                for m in marks
                if isinstance(body := m.body, MarkBody)
            ],
        )


def _place_of(entry: Entry) -> tuple[int, float, str]:
    """Where an entry comes in the order of places; those without any come last."""
    if entry.anchor.scope is Scope.LOOSE:
        return NOWHERE, 0.0, entry.id
    return entry.anchor.page, entry.anchor.y, entry.id
