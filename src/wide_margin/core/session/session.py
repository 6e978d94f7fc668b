"""An open document: its workers started, watched and replaced."""

import logging
import threading
from collections.abc import Callable
from concurrent.futures import Future
from pathlib import Path
from typing import Any

from wide_margin.core.answers import WHOLE, Answer, Reach
from wide_margin.core.errors import PageFailedError, WideMarginError, WorkerLostError
from wide_margin.core.explain import Explanation
from wide_margin.core.geometry import Box, FloatArray
from wide_margin.core.layout import TextLayer
from wide_margin.core.outline import Outline
from wide_margin.core.pages import FileFacts, Link, Picture
from wide_margin.core.session.link import Worker
from wide_margin.core.session.model import FoundHit, ReadSummary

log = logging.getLogger(__name__)

MAX_RESTARTS = 8
"""A file that ends this many workers is given up on."""

MIN_PAGES_FOR_TWO = 100
"""A shorter document is read before a second process has started."""

PageProgress = Callable[[int, int], None]


class Session:
    """A document open in worker processes.

    Every request returns a future; its callbacks run in a listening thread, not in the
    window's. Closing ends all processes at once.

        with Session(Path("handbook.pdf")) as session:
            facts = session.open().result()
            summary = session.read().result()
            answer = session.ask("Who signs a failed line?").result()
    """

    def __init__(self, path: Path, *, two_readers: bool = True, patience: float = 30.0) -> None:
        """Start the processes; nothing is opened yet.

        Args:
            path: The PDF.
            two_readers: Whether a second process helps to read a long document.
            patience: Seconds a page may take.
        """
        self.path = path
        self._password: str | None = None
        self._patience = patience
        self._closed = False
        self._lock = threading.RLock()
        self._page = Worker("page", patience=patience)
        self._reading = Worker("reading", patience=patience)
        self._two_readers = two_readers
        self._helper: Worker | None = None
        self._skip: frozenset[int] = frozenset()
        self._hide: frozenset[str] = frozenset()
        self._n_page_restarts = 0

    def __enter__(self) -> "Session":
        """For use in a with statement."""
        return self

    def __exit__(self, *_: object) -> None:
        """Close."""
        self.close()

    @property
    def password(self) -> str | None:
        """The password the file was opened with."""
        return self._password

    @property
    def worker_ids(self) -> dict[str, int]:
        """Process ids by role."""
        found = {"page": self._page.process_id, "reading": self._reading.process_id}
        if self._helper is not None:
            found["helper"] = self._helper.process_id
        return found

    def close(self) -> None:
        """End every process."""
        with self._lock:
            self._closed = True
            workers = [self._page, self._reading, self._helper]
        for worker in workers:
            if worker is not None:
                worker.close()

    def open(self, password: str | None = None) -> "Future[FileFacts]":
        """Open the file in the page worker; can be called again with another password."""
        self._password = password
        return self._page.call("open", self.path, password)

    def sizes(self) -> "Future[FloatArray]":
        """(n_pages, 2) the size of every page."""
        return self._page.call("sizes")

    def fingerprint(self) -> "Future[str]":
        """The file's SHA-256."""
        return self._page.call("fingerprint")

    def wait_for_workers(self) -> None:
        """Return once the processes are there; the bench starts its clock then."""
        for worker in (self._page, self._reading):
            worker.call("ping").result()

    def draw(self, page: int, scale: float, clip: Box | None = None) -> "Future[Picture]":
        """A bitmap of a page, or of a part of it in page space; scale pixels a point."""
        return self._on_page(page, "draw", page, scale, clip)

    def text(self, page: int) -> "Future[TextLayer]":
        """Characters, boxes and lines of a page."""
        return self._on_page(page, "text", page)

    def links(self, page: int) -> "Future[tuple[Link, ...]]":
        """Link areas of a page."""
        return self._on_page(page, "links", page)

    def read(
        self, progress: PageProgress | None = None, *, hide: frozenset[str] = frozenset()
    ) -> "Future[ReadSummary]":
        """Read the whole document; progress gets (pages read, pages).

        ``hide`` names witnesses of the outline to go without: "bookmark", "contents".
        """
        self._hide = hide
        outcome: Future[ReadSummary] = Future()
        outcome.set_running_or_notify_cancel()
        _Reading(self, outcome, progress).start()
        return outcome

    def ask(
        self, question: str, reach: Reach | str = WHOLE, before: str | None = None
    ) -> "Future[Answer]":
        """A quoted answer; fails with NotReadyError while the document is being read.

        Args:
            question: As typed.
            reach: Where to look; a string such as "section 4.2" or "pages 40-60" is looked up.
            before: The question that this one may lean on.
        """
        return self.query("ask", question, reach, before)

    def worth(self, kind: str = "") -> "Future[tuple[str, list[str]]]":
        """The kind of the document, found where it is not given, and what is worth asking."""
        return self.query("worth", kind)

    def find(
        self, wanted: str, *, whole_words: bool = False, exactly: bool = False
    ) -> "Future[list[FoundHit]]":
        """Every place where some words stand."""
        return self.query("find", wanted, whole_words, exactly)

    def explain(self, text: str) -> "Future[Explanation]":
        """What the document says about a selection."""
        return self.query("explain", text)

    def use_outline(self, outline: Outline) -> "Future[None]":
        """Go by an outline that the reader has changed."""
        return self.query("use_outline", outline)

    def query(self, name: str, *arguments: object) -> "Future[Any]":
        """Ask the reading worker; see ReadingService for what it knows."""
        return self._reading.call(name, *arguments)

    def _on_page(self, page: int, name: str, *arguments: object) -> "Future[Any]":
        """Ask the page worker; when it ends over this page, start another one."""
        outcome: Future[Any] = Future()
        outcome.set_running_or_notify_cancel()

        def ask(attempt: int) -> None:
            worker = self._page
            worker.call(name, *arguments).add_done_callback(lambda f: arrived(f, worker, attempt))

        def arrived(future: "Future[Any]", worker: Worker, attempt: int) -> None:
            error = future.exception()
            if error is None:
                outcome.set_result(future.result())
            elif isinstance(error, WorkerLostError) and not self._closed:
                self._replace_page_worker(worker)
                if attempt == 0 and self._n_page_restarts <= MAX_RESTARTS:
                    ask(1)  # it may have been the request before this one
                else:
                    outcome.set_exception(_page_ended_worker(page))
            else:
                outcome.set_exception(error)

        ask(0)
        return outcome

    def _replace_page_worker(self, lost: Worker) -> None:
        with self._lock:
            if self._page is not lost or self._closed:
                return
            self._n_page_restarts += 1
            self._page = Worker("page", patience=self._patience)
            self._page.call("open", self.path, self._password)


class _Reading:
    """One reading of a document, over as many workers as it takes."""

    def __init__(
        self, session: Session, outcome: "Future[ReadSummary]", progress: PageProgress | None
    ) -> None:
        self._session, self._outcome, self._progress = session, outcome, progress
        self._seen: set[int] = set()
        self._last_page: int | None = None
        self._helper_page: int | None = None
        self._n_restarts = 0

    def start(self) -> None:
        session = self._session
        future = session._reading.call(
            "read", session.path, session._password, session._skip, session._hide,
            report=self._report,
        )  # fmt: skip
        future.add_done_callback(self._arrived)

    def _call_helper(self, n_pages: int) -> None:
        session = self._session
        with session._lock:
            unwanted = not session._two_readers or n_pages < MIN_PAGES_FOR_TWO
            if session._closed or unwanted or session._helper is not None:
                return
            session._helper = Worker("reading", patience=session._patience)
        future = session._helper.call(
            "help_read", session.path, session._password, session._skip, report=self._report_helper
        )
        future.add_done_callback(self._helper_done)

    def _helper_done(self, future: "Future[None]") -> None:
        session = self._session
        with session._lock:
            helper, session._helper = session._helper, None
        if helper is None or session._closed:
            return
        if isinstance(future.exception(), WorkerLostError) and self._helper_page is not None:
            session._skip = session._skip | {self._helper_page}
        threading.Thread(target=helper.close, daemon=True).start()

    def _report(self, kind: str, value: tuple[int, int]) -> None:
        if kind == "page":
            if self._last_page is None:  # it is being read, not taken from the cache
                self._call_helper(value[1])
            self._last_page = value[0]
            self._count(value)
        elif kind == "step":
            self._last_page = None

    def _report_helper(self, kind: str, value: tuple[int, int]) -> None:
        if kind == "page":
            self._helper_page = value[0]
            self._count(value)

    def _count(self, value: tuple[int, int]) -> None:
        page, n_pages = value
        self._seen.add(page)
        if self._progress is not None:
            self._progress(len(self._seen), n_pages)

    def _arrived(self, future: "Future[ReadSummary]") -> None:
        session, error = self._session, future.exception()
        if error is None:
            self._outcome.set_result(future.result())
            return
        if not isinstance(error, WorkerLostError) or session._closed:
            self._outcome.set_exception(error)
            return
        self._n_restarts += 1
        if self._n_restarts > MAX_RESTARTS:
            self._outcome.set_exception(
                WideMarginError(
                    "This document ended the reading process again and again.",
                    hint="Its pages can be looked at, but not searched.",
                )
            )
            return
        if self._last_page is not None:
            log.warning("page %d ended a reading worker and is skipped", self._last_page)
            session._skip = session._skip | {self._last_page}
        with session._lock:
            if session._closed:
                self._outcome.set_exception(error)
                return
            session._reading = Worker("reading", patience=session._patience)
        self.start()


def _page_ended_worker(page: int) -> PageFailedError:
    return PageFailedError(
        f"Page {page + 1} of the file stopped the PDF engine.",
        hint="The other pages can be read; this one can be tried again.",
    )
