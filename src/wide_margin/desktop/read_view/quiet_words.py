"""What is said quietly in the Read view while something goes on, with what can be done about it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wide_margin.core.plain import counted

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.desktop.read_view.read_view import ReadView


class QuietWords:
    """Puts what the reader tells into the status line."""

    def __init__(self, view: ReadView) -> None:
        """For one view."""
        self._view, reader = view, view.reader
        reader.entries_offered.connect(self._offer_entries)
        reader.file_changed.connect(self._offer_new_version)
        reader.read_progress.connect(self._reading)
        reader.asking.connect(lambda _: view.show_status("Searching the document…"))
        reader.problem.connect(self._problem)
        reader.told.connect(lambda text: view.show_status(text, for_ms=20000))
        reader.recognising.progressed.connect(self._recognising)

    def _offer_new_version(self) -> None:
        again = self._view.reader.read_again
        self._view.show_status("The file was changed on disk.", act=("Read it again", again))

    def _offer_entries(self, n_entries: int) -> None:
        said = f"Another version of this document has {counted(n_entries, 'entry', 'entries')}."
        self._view.show_status(said, act=("Take them over", self._view.reader.take_offered))

    def _reading(self, done: int, total: int) -> None:
        self._view.show_status(f"Reading page {done} of {total}…")

    def _recognising(self, done: int, total: int) -> None:
        if done < total:
            said = f"Recognising text: {done} of {counted(total, 'page')} done…"
            stop = self._view.reader.recognising.stop_and_use
            self._view.show_status(said, act=("Stop", stop))

    def _problem(self, error: WideMarginError) -> None:
        self._view.show_status(f"{error.message} {error.hint}".strip(), for_ms=15000)
