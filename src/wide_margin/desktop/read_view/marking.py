"""Marks: made in an ink and a form, made longer or shorter, and erased in part."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.margin import (
    EntryKind,
    Ink,
    MarkBody,
    MarkForm,
    joined,
    new_entry,
    touch,
    without,
)
from wide_margin.desktop.ink_edges import INK_KEYS

if TYPE_CHECKING:
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.margin import Anchor, Entry
    from wide_margin.desktop.read_view.read_view import ReadView

FORM_KEYS = {"U": MarkForm.UNDERLINE, "S": MarkForm.STRIKE}
LONGER, SHORTER = "+", "-"
LETTERS = ("M", *INK_KEYS, *FORM_KEYS, LONGER, SHORTER)
"""What acts on a selection as a mark."""
MORE_COMMANDS = (
    ("Underline", "U"), ("Strike out", "S"),
    ("Add to the mark beside it", LONGER), ("Take from the mark", SHORTER),
)  # fmt: skip
"""Name and letter of what is offered in the menu besides the words of the tab."""


class Marking:
    """What is done with marks on the pages; each step can be undone."""

    ink = Ink.CLAIM
    """The ink that was used last."""

    def __init__(self, view: ReadView) -> None:
        """For one view."""
        self._view = view

    def act(self, letter: str, anchor: Anchor) -> None:
        """Mark what is selected, or change the marks it touches."""
        if letter == LONGER:
            self._lengthen(anchor)
        elif letter == SHORTER:
            self._shorten(anchor)
        else:
            self.ink = INK_KEYS.get(letter, self.ink)
            form = FORM_KEYS.get(letter, MarkForm.HIGHLIGHT)
            body = MarkBody(ink=self.ink, form=form)
            self._view.reader.keeper.add(new_entry(EntryKind.MARK, anchor, body))

    def change(self, entry_id: str, **values: object) -> None:
        """Give a mark another ink or form."""
        entry = self._view.reader.keeper.latest(entry_id)
        if entry is not None and isinstance(entry.body, MarkBody):
            self._change([entry.with_body(**values)], "Change mark")

    def reshape(self, entry_id: str, spans: tuple[SpanOnPage, ...]) -> None:
        """Let a mark reach as far as its end was dragged."""
        entry = self._view.reader.keeper.latest(entry_id)
        if entry is not None and spans:
            self._change([self._at(entry, spans)], "Change mark")

    def _touched(self, anchor: Anchor) -> list[Entry]:
        return [
            entry for entry in self._view.reader.entries.values()
            if entry.kind is EntryKind.MARK and touch(entry.anchor.spans, anchor.spans)
        ]  # fmt: skip

    def _lengthen(self, anchor: Anchor) -> None:
        marks = self._touched(anchor)
        if not marks:
            self._view.show_status("No mark stands beside these words.", for_ms=6000)
            return
        longer = [self._at(m, joined(m.anchor.spans, anchor.spans)) for m in marks[:1]]
        self._change(longer, "Lengthen mark")

    def _shorten(self, anchor: Anchor) -> None:
        left = [(m, without(m.anchor.spans, anchor.spans)) for m in self._touched(anchor)]
        left = [(mark, spans) for mark, spans in left if spans != mark.anchor.spans]
        if not left:
            self._view.show_status("These words are in no mark.", for_ms=6000)
            return
        self._change([self._at(m, spans) for m, spans in left if spans], "Shorten mark")
        self._view.reader.keeper.remove_all([m.id for m, spans in left if not spans])

    def _at(self, entry: Entry, spans: tuple[SpanOnPage, ...]) -> Entry:
        quote = " ".join(self._view.pages.characters_of(spans).split())
        anchor = replace(entry.anchor, page=spans[0].page, y=-1.0, spans=spans, quote=quote)
        return replace(entry.with_body(), anchor=anchor)

    def _change(self, entries: list[Entry], name: str) -> None:
        self._view.reader.keeper.change_all(entries, name)
