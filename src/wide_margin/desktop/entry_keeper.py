"""The entries of the open document: in the store first, then on screen, then in other windows."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QUndoCommand

from wide_margin.core.errors import WideMarginError
from wide_margin.core.margin import Entry, ExplanationBody, QuestionBody, State, TranslationBody
from wide_margin.core.outline import Outline
from wide_margin.core.plain import counted

if TYPE_CHECKING:
    from wide_margin.core.margin import DocumentRecord, KeptEntries
    from wide_margin.desktop.reader import Reader


class EntryHub(QObject):
    """Tells every window about entries, so that two windows on one document share them."""

    changed = Signal(object, int, str, object)  # who, document record, what, entry or its id


class EntryKeeper(QObject):
    """Adds, changes and removes entries. Writing happens in the store's own thread.

    ``entries`` are those on screen; what is still on its way to the disk is known by ``latest``,
    from which a further change has to be made.
    """

    shown = Signal()  # all of a document's, once it is known
    added = Signal(object)  # Entry
    changed = Signal(object)  # Entry
    removed = Signal(str)  # its id
    others_changed = Signal()  # entries of other documents, by this window or another

    def __init__(self, reader: Reader, hub: EntryHub) -> None:
        super().__init__(reader)
        self._reader, self._hub = reader, hub
        self.entries: dict[str, Entry] = {}
        self._on_the_way: dict[str, Entry] = {}
        self.of_others: dict[str, Entry] = {}
        """Entries of other documents that are shown with these, and may be changed from here."""
        self._records: dict[str, int] = {}
        """The record of the document of each of those."""
        self._others: frozenset[int] = frozenset()
        hub.changed.connect(self._elsewhere)

    @property
    def _record(self) -> DocumentRecord | None:
        return self._reader.record

    def load(self, kept: KeptEntries) -> None:
        """Show the entries of a document; what broke off when a window was closed says so."""
        self.entries = {entry.id: _settled(entry) for entry in kept.entries}
        if kept.n_damaged:
            said = f"{counted(kept.n_damaged, 'entry', 'entries')} in the store cannot be read."
            self._reader.problem.emit(WideMarginError(said, hint="The others are all here."))
        self.shown.emit()

    def forget(self) -> None:
        """The document is closed."""
        self.entries, self._on_the_way = {}, {}
        self.know_others({})

    def know_others(self, others: Mapping[int, Sequence[Entry]]) -> None:
        """Let the entries of other documents be changed too; by the records of these."""
        self.of_others = {entry.id: entry for kept in others.values() for entry in kept}
        self._records = {entry.id: one for one, kept in others.items() for entry in kept}
        self._others = frozenset(others)

    def latest(self, entry_id: str) -> Entry | None:
        """An entry with every change so far, on disk yet or not."""
        known = self.entries.get(entry_id) or self.of_others.get(entry_id)
        return self._on_the_way.get(entry_id) or known

    def record_of_other(self, entry_id: str) -> int | None:
        """The record of the other document that an entry belongs to; None for one of this."""
        return self._records.get(entry_id)

    def _record_of(self, entry_id: str) -> int | None:
        """The record of the document that an entry belongs to; None where it is not known yet."""
        own = self._record.id if self._record is not None else None
        return self._records.get(entry_id, own)

    def add(self, entry: Entry, then: Callable[[Entry], None] | None = None) -> None:
        """Keep an entry; ``then`` is called once it is on screen."""
        self._put(entry, partial(self._was_added, then))

    def add_all(self, entries: Sequence[Entry], name: str) -> int:
        """Keep several entries; one undo takes them all out again.

        Returns:
            How many of them were none yet.
        """
        new = [entry for entry in entries if self.latest(entry.id) is None]
        if new:
            self._reader.undo.push(_Additions(self, name, new))
        return len(new)

    def change(self, entry: Entry) -> None:
        """Keep a changed entry; nothing happens where it was deleted meanwhile."""
        if self.latest(entry.id) is not None:
            self._put(entry, self._was_changed)

    def change_body(self, entry_id: str, **values: object) -> None:
        """Change some of an entry's body, whatever else of it has changed."""
        if entry := self.latest(entry_id):
            self.change(entry.with_body(**values))

    def _put(self, entry: Entry, then: Callable[[Entry], None]) -> None:
        record, reader = self._record_of(entry.id), self._reader
        if record is None:
            reader.find_record(lambda: self._put(entry, then))
            return
        self._on_the_way[entry.id] = entry
        reader.watch(
            reader.store.later(reader.store.put, record, entry),
            done=lambda _: self._arrived(entry, then),
            failed=lambda error: self._not_saved(entry, error),
        )

    def _arrived(self, entry: Entry, then: Callable[[Entry], None]) -> None:
        if self._on_the_way.get(entry.id) is entry:
            del self._on_the_way[entry.id]
        then(entry)

    def _not_saved(self, entry: Entry, error: WideMarginError) -> None:
        if self._on_the_way.get(entry.id) is entry:
            del self._on_the_way[entry.id]
        self._reader.problem.emit(error)

    def _was_added(self, then: Callable[[Entry], None] | None, entry: Entry) -> None:
        self._tell("added", entry)
        if then is not None:
            then(entry)

    def _was_changed(self, entry: Entry) -> None:
        if entry.id in self.entries or entry.id in self.of_others:
            self._tell("changed", entry)

    def remove(self, entry_id: str) -> None:
        """Delete an entry; undo brings it back."""
        if entry := self.entries.get(entry_id):
            self._reader.undo.push(_Removal(self, entry))

    def remove_all(self, entry_ids: Sequence[str]) -> None:
        """Delete several entries; one undo brings them all back."""
        known = self.of_others | self.entries
        found = [known[one] for one in entry_ids if one in known]
        if not found:
            return
        undo = self._reader.undo
        undo.beginMacro(f"Delete {counted(len(found), 'entry', 'entries')}")
        for entry in found:
            undo.push(_Removal(self, entry))
        undo.endMacro()

    def change_all(self, changed: Sequence[Entry], name: str) -> None:
        """Change several entries; one undo changes them back."""
        before = [self.latest(entry.id) for entry in changed]
        pairs = [(old, new) for old, new in zip(before, changed, strict=True) if old is not None]
        if pairs:
            self._reader.undo.push(_Changes(self, name, pairs))

    def delete(self, entry: Entry) -> None:
        """Take an entry out of the store, then off the screen."""
        store = self._reader.store
        self._reader.watch(
            store.later(store.delete, entry.id), done=lambda _: self._was_removed(entry.id)
        )

    def restore(self, entry: Entry) -> None:
        """Bring a deleted entry back."""
        store = self._reader.store
        self._reader.watch(
            store.later(store.restore, entry.id), done=lambda _: self._tell("added", entry)
        )

    def _was_removed(self, entry_id: str) -> None:
        self._on_the_way.pop(entry_id, None)
        self.of_others.pop(entry_id, None)
        if self.entries.pop(entry_id, None) is not None:
            self.removed.emit(entry_id)
        if (record := self._record_of(entry_id)) is not None:
            self._hub.changed.emit(self, record, "removed", entry_id)
        if entry_id in self._records:
            self.others_changed.emit()

    def _tell(self, what: str, entry: Entry) -> None:
        if entry.id in self._records:
            self.of_others[entry.id] = entry
        else:
            self._take(what, entry)
        if (record := self._record_of(entry.id)) is not None:
            self._hub.changed.emit(self, record, what, entry)
        if entry.id in self._records:
            self.others_changed.emit()

    def tell_others(self, who: QObject, record: int, entry: Entry) -> None:
        """Tell every window that an entry of another document was added."""
        self._hub.changed.emit(who, record, "added", entry)

    def _take(self, what: str, entry: Entry) -> None:
        self.entries[entry.id] = entry
        (self.added if what == "added" else self.changed).emit(entry)

    def _elsewhere(
        self, who: QObject, record: int, what: str, value: Entry | Outline | str
    ) -> None:
        """Another window changed an entry of the same document, or one of another's shown here."""
        if who is self:
            return
        if record in self._others and not isinstance(value, Outline):
            self._take_of_other(record, value)
        if self._record is None or self._record.id != record:
            return
        if isinstance(value, Entry):
            self._take(what, value)
        elif isinstance(value, str):
            self.entries.pop(value, None)
            self.removed.emit(value)

    def _take_of_other(self, record: int, value: Entry | str) -> None:
        if isinstance(value, Entry):
            self.of_others[value.id], self._records[value.id] = value, record
        else:
            self.of_others.pop(value, None)
        self.others_changed.emit()


def _settled(entry: Entry) -> Entry:
    """Nothing is being written yet when a document is opened: what says so has broken off."""
    body = entry.body
    if (
        isinstance(body, QuestionBody | TranslationBody | ExplanationBody)
        and body.state.is_under_way
    ):
        return replace(entry, body=replace(body, state=State.BROKEN_OFF))
    return entry


class _Changes(QUndoCommand):
    """Changing entries, undone by what they were before."""

    def __init__(self, keeper: EntryKeeper, name: str, pairs: list[tuple[Entry, Entry]]) -> None:
        super().__init__(name)
        self._keeper, self._pairs = keeper, pairs

    def redo(self) -> None:
        for _, after in self._pairs:
            self._keeper.change(after)

    def undo(self) -> None:
        for before, _ in self._pairs:
            self._keeper.change(before)


class _Additions(QUndoCommand):
    """Adding entries, undone by taking them out."""

    def __init__(self, keeper: EntryKeeper, name: str, entries: Sequence[Entry]) -> None:
        super().__init__(name)
        self._keeper, self._entries = keeper, entries

    def redo(self) -> None:
        for entry in self._entries:
            self._keeper.add(entry)

    def undo(self) -> None:
        for entry in self._entries:
            self._keeper.delete(entry)


class _Removal(QUndoCommand):
    """Deleting an entry, undone by bringing it back."""

    def __init__(self, keeper: EntryKeeper, entry: Entry) -> None:
        super().__init__(f"Delete {entry.kind}")
        self._keeper, self._entry = keeper, entry

    def redo(self) -> None:
        self._entry = self._keeper.latest(self._entry.id) or self._entry
        self._keeper.delete(self._entry)

    def undo(self) -> None:
        self._keeper.restore(self._entry)
