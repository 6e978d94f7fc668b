"""Recognising the text of pages that are only pictures, while the reader reads on."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Qt, Signal

from wide_margin.core.plain import counted

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.session import Session
    from wide_margin.desktop.reader import Reader


class Recognising(QObject):
    """Has pages recognised, then has the document read again with their text."""

    progressed = Signal(int, int)  # pages done, pages
    done = Signal(object)  # the pages that have text now

    _arrived = Signal(object, int, int)

    def __init__(self, reader: Reader) -> None:
        super().__init__(reader)
        self._reader = reader
        self._session: Session | None = None
        """That recognises just now."""
        self._n_failed = 0
        """Pages to tell of when the document has been read again."""
        self._arrived.connect(self._tell)
        reader.opened.connect(self._forget_failed)
        # after the window has told that it is ready
        reader.ready.connect(self._tell_failed, Qt.ConnectionType.QueuedConnection)

    @property
    def is_running(self) -> bool:
        """Whether pages are being recognised."""
        return self._session is not None

    def start(self) -> None:
        """Recognise every page whose text is missing or damaged; what was done before is kept."""
        reader, summary = self._reader, self._reader.summary
        session = reader.session
        if session is None or summary is None or self.is_running:
            return
        pages = summary.to_recognise
        if not pages:
            reader.told.emit("Every page has text of its own.")
            return
        self._session = session
        future = session.recognise(
            reader.sha256, pages, summary.language,
            lambda done, of: self._arrived.emit(session, done, of),
        )  # fmt: skip
        reader.watch(future, done=lambda failed: self._ended(pages, failed), failed=self._not_done)

    def stop(self) -> None:
        """Stop; the pages that are done have text, and the others can be done later."""
        session, self._session = self._session, None
        if session is not None:
            session.stop_recognising()

    def stop_and_use(self) -> None:
        """Stop, and read the document again with what has been recognised."""
        summary = self._reader.summary
        if self.is_running and summary is not None:
            self.stop()
            self._use(summary.to_recognise)

    def _tell(self, session: object, done: int, of: int) -> None:
        if session is self._session:
            self.progressed.emit(done, of)

    def _ended(self, pages: tuple[int, ...], failed: tuple[int, ...]) -> None:
        self._session = None
        self._n_failed = len(failed)
        if len(failed) < len(pages):
            self._use(tuple(page for page in pages if page not in failed))
        else:  # there is nothing new to read
            self.done.emit(())
            self._tell_failed()

    def _forget_failed(self) -> None:
        self._n_failed = 0  # they were another document's, or it could not be read again

    def _tell_failed(self) -> None:
        n_failed, self._n_failed = self._n_failed, 0
        if n_failed:
            self._reader.told.emit(f"{counted(n_failed, 'page')} could not be recognised.")

    def _use(self, pages: tuple[int, ...]) -> None:
        self.done.emit(pages)
        if self._reader.session is not None:
            self._reader.read()

    def _not_done(self, error: WideMarginError) -> None:
        was_running, self._session = self.is_running, None
        if was_running:  # one that was stopped is no problem
            self._reader.problem.emit(error)
