"""The outline as the window knows it: as found, or as the reader has changed it."""

from __future__ import annotations

import logging
from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QObject, QTimer, Signal
from PySide6.QtGui import QUndoCommand

from wide_margin.core.errors import WideMarginError
from wide_margin.core.outline import Outline
from wide_margin.core.outline.editing import OutlineEditor, as_rows, carried_over, from_store

if TYPE_CHECKING:
    from wide_margin.core.outline.editing import Edit
    from wide_margin.desktop.reader import Reader

log = logging.getLogger(__name__)

_DAMAGED = WideMarginError(
    "Your outline of this document is damaged and is left out.",
    hint="The sections are shown as they were found.",
)
TELL_DELAY_MS = 600
"""Several changes in a row are told to the reading worker as one: it counts its terms anew."""


class OutlineKeeper(QObject):
    """Keeps the reader's changes: in the store first, then on screen, then in the worker."""

    changed = Signal(object, int)  # Outline, index of the section that was changed or -1

    def __init__(self, reader: Reader) -> None:
        super().__init__(reader)
        self._reader = reader
        self.found = Outline()
        """As the document gives it by itself."""
        self._tell_timer = QTimer(self)
        self._tell_timer.setSingleShot(True)
        self._tell_timer.setInterval(TELL_DELAY_MS)
        self._tell_timer.timeout.connect(self._tell_worker)
        reader.hub.changed.connect(self._elsewhere)

    @property
    def outline(self) -> Outline:
        """The one that counts."""
        summary = self._reader.summary
        return summary.outline if summary else Outline()

    @property
    def heights(self) -> list[float]:
        """Page heights, points."""
        facts = self._reader.facts
        return facts.heights if facts is not None else []

    def take_up(self) -> None:
        """Go by the outline that was kept for this document, where there is one."""
        reader, record = self._reader, self._reader.record
        if record is not None:
            reader.watch(reader.store.later(reader.store.outline, record.id), done=self._use_kept)

    def _use_kept(self, kept: tuple[str, list[dict[str, Any]]] | None) -> None:
        record = self._reader.record
        if kept is None or record is None:
            return
        sha256, rows = kept
        try:
            outline = from_store(rows, self.found, self.heights)
        except (ValueError, LookupError, TypeError):
            log.warning("a kept outline is damaged and left out", exc_info=True)
            self._reader.problem.emit(_DAMAGED)
            return
        if sha256 != record.sha256:
            outline = carried_over(outline, self.found, self.heights)
        self.show(outline)

    def change(self, what: str, make: Callable[[OutlineEditor, Outline], Edit]) -> None:
        """Change the outline, if anything is different; undo brings the one before back."""
        before = self.outline
        edit = make(OutlineEditor(self.heights), before)
        if edit.outline is not before:
            self._reader.undo.push(_Change(self, what, before, edit.outline, edit.at))

    def use(self, outline: Outline, at: int = -1) -> None:
        """Go by an outline from now on."""
        reader, record = self._reader, self._reader.record
        if reader.summary is None:
            return
        if record is not None:
            rows = as_rows(outline) if outline.is_edited else None
            reader.watch(
                reader.store.later(reader.store.put_outline, record.id, record.sha256, rows),
                done=lambda _: None,
            )
        self.show(outline, at)
        if record is not None:
            reader.hub.changed.emit(self, record.id, "outline", outline)

    def _elsewhere(self, who: QObject, record: int, what: str, value: object) -> None:
        """Another window changed the outline of the same document."""
        here = self._reader.record
        is_same = here is not None and here.id == record
        if who is not self and is_same and isinstance(value, Outline):
            self.show(value)

    def show(self, outline: Outline, at: int = -1) -> None:
        """Another window may have changed it: only show it, and tell the worker."""
        reader = self._reader
        if reader.summary is None:
            return
        reader.summary = replace(reader.summary, outline=outline)
        self.changed.emit(outline, at)
        self._tell_timer.start()

    def _tell_worker(self) -> None:
        reader = self._reader
        if reader.session is not None and reader.summary is not None:
            reader.watch(reader.session.use_outline(reader.summary.outline), done=lambda _: None)


class _Change(QUndoCommand):
    """One change of the outline."""

    def __init__(
        self, keeper: OutlineKeeper, what: str, before: Outline, after: Outline, at: int
    ) -> None:
        super().__init__(what)
        self._keeper, self._before, self._after, self._at = keeper, before, after, at

    def redo(self) -> None:
        self._keeper.use(self._after, self._at)

    def undo(self) -> None:
        self._keeper.use(self._before, min(self._at, len(self._before.sections) - 1))
