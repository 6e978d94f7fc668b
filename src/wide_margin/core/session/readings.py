"""The reading workers of one document: started, watched, replaced, and asked."""

from __future__ import annotations

import logging
import os
import threading
from collections import Counter
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

from wide_margin.core.errors import WideMarginError, WorkerLostError
from wide_margin.core.session.link import Worker, memory_for
from wide_margin.core.session.requests import MIN_PAGES_FOR_TWO, ReadRequest

if TYPE_CHECKING:
    from wide_margin.core.outline import Outline
    from wide_margin.core.session.model import ReadSummary

log = logging.getLogger(__name__)

MAX_RESTARTS = 8
"""A file that ends this many workers in one reading is given up on."""
TRIES = 2
"""A page is tried so often: what ended the worker the first time may not have been the page."""

PageProgress = Callable[[int, int], None]
"""Called with (pages read, pages)."""


class Readings:
    """The worker that reads and is then asked, and its helper while it reads.

    A worker that ends is replaced: while it reads, the new one goes on where the old one was;
    afterwards the new one takes the document from the cache and answers what was asked.
    """

    def __init__(self, path: Path, *, two_readers: bool, patience: float) -> None:
        """Start the worker; nothing is read yet."""
        self._request = ReadRequest(path, os.getpid(), is_alone=not two_readers)
        self._two_readers, self._patience = two_readers, patience
        self._lock = threading.RLock()
        self._is_closed = False
        self._was_read = self._holds_back = False
        self._outline: Outline | None = None
        self._again: Future[ReadSummary] | None = None
        self._helper: Worker | None = None
        self._worker = self._new_worker()

    @property
    def worker_ids(self) -> dict[str, int]:
        """Process ids by role."""
        found = {"reading": self._worker.process_id}
        if self._helper is not None:
            found["helper"] = self._helper.process_id
        return found

    def ping(self) -> Future[None]:
        """Done once the worker has nothing else to do."""
        return self._worker.call("ping")

    def close(self) -> None:
        """End the processes."""
        with self._lock:
            self._is_closed = True
            workers = [self._worker, self._helper]
        for worker in workers:
            if worker is not None:
                worker.close()

    def read(
        self,
        password: str | None,
        hide: frozenset[str],
        progress: PageProgress | None,
        near: int = 0,
    ) -> Future[ReadSummary]:
        """Read the whole document, beginning near a page."""
        self._request = replace(self._request, password=password, hide=hide, near=near)
        outcome: Future[ReadSummary] = Future()
        outcome.set_running_or_notify_cancel()
        outcome.add_done_callback(self._note_read)
        _Reading(self, outcome, progress).start()
        return outcome

    def _note_read(self, outcome: Future[ReadSummary]) -> None:
        self._was_read = outcome.exception() is None

    def use_outline(self, outline: Outline) -> Future[None]:
        """Go by an outline that the reader has changed, whichever worker answers."""
        self._outline = outline
        return self.query("use_outline", outline)

    def query(self, name: str, *arguments: object) -> Future[Any]:
        """Ask the worker; where it has ended, its successor answers."""
        outcome: Future[Any] = Future()
        outcome.set_running_or_notify_cancel()

        def ask(*, is_last: bool) -> None:
            worker = self._worker
            future = worker.call(name, *arguments)
            future.add_done_callback(lambda f: arrived(f, worker, is_last=is_last))

        def arrived(future: Future[Any], worker: Worker, *, is_last: bool) -> None:
            error = future.exception()
            if error is None:
                outcome.set_result(future.result())
            elif isinstance(error, WorkerLostError) and not is_last and self._was_read:
                again = self._read_again(worker)
                again.add_done_callback(lambda f: read_again(f))
            else:
                outcome.set_exception(error)

        def read_again(future: Future[ReadSummary]) -> None:
            if error := future.exception():
                outcome.set_exception(error)
            else:
                ask(is_last=True)

        ask(is_last=False)
        return outcome

    def _read_again(self, lost: Worker) -> Future[ReadSummary]:
        """Replace a worker that ended after reading; several requests may find it at once."""
        with self._lock:
            if self._again is not None and not self._again.done():
                return self._again
            if self._worker is not lost and not self._worker.is_lost and self._again is not None:
                return self._again
            outcome: Future[ReadSummary] = Future()
            outcome.set_running_or_notify_cancel()
            self._again = outcome
            if self._is_closed:
                outcome.set_exception(WorkerLostError("The document was closed."))
                return outcome
            self._worker = self._new_worker()
        log.warning("the reading worker ended and is replaced")
        reading: Future[ReadSummary] = Future()
        reading.set_running_or_notify_cancel()

        def arrived(future: Future[ReadSummary]) -> None:
            if error := future.exception():
                outcome.set_exception(error)
                return
            if self._outline is not None:
                self._worker.call("use_outline", self._outline)
            outcome.set_result(future.result())

        reading.add_done_callback(arrived)
        _Reading(self, reading, None).start()
        return outcome

    def hold_back(self, *, on: bool) -> None:
        """Leave most of the machine to others while reading goes on, or no longer."""
        with self._lock:
            self._holds_back = on
            for worker in (self._worker, self._helper):
                if worker is not None:
                    worker.call("hold_back", on)

    def _new_worker(self) -> Worker:
        memory = memory_for(self._request.path)
        worker = Worker("reading", patience=self._patience, memory_mb=memory)
        if self._holds_back:
            worker.call("hold_back", True)
        return worker


class _Reading:
    """One reading of the document, over as many workers as it takes."""

    def __init__(
        self, readings: Readings, outcome: Future[ReadSummary], progress: PageProgress | None
    ) -> None:
        self._readings, self._outcome, self._progress = readings, outcome, progress
        self._seen: set[int] = set()
        self._page: int | None = None
        self._part = ""
        self._helper_page: int | None = None
        self._n_ended: Counter[int] = Counter()
        self._n_restarts = 0

    def start(self) -> None:
        readings = self._readings
        self._page, self._part = None, ""
        future = readings._worker.call("read", readings._request, report=self._report)
        future.add_done_callback(self._arrived)

    def _call_helper(self, n_pages: int) -> None:
        readings = self._readings
        with readings._lock:
            unwanted = not readings._two_readers or n_pages < MIN_PAGES_FOR_TWO
            if readings._is_closed or unwanted or readings._helper is not None:
                return
            helper = readings._helper = readings._new_worker()
        future = helper.call("help_read", readings._request, report=self._report_helper)
        future.add_done_callback(self._helper_done)

    def _helper_done(self, future: Future[None]) -> None:
        readings = self._readings
        with readings._lock:
            helper, readings._helper = readings._helper, None
        if helper is None or readings._is_closed:
            return
        if isinstance(future.exception(), WorkerLostError) and self._helper_page is not None:
            self._blame_page(self._helper_page)
        threading.Thread(target=helper.close, daemon=True).start()

    def _report(self, kind: str, value: Any) -> None:
        if kind == "page":
            if self._page is None and not self._seen:  # it is being read, not from the cache
                self._call_helper(value[1])
            self._page = value[0]
            self._count(value)
        elif kind == "part":
            self._part = value
        elif kind == "step":
            self._page = None

    def _report_helper(self, kind: str, value: tuple[int, int]) -> None:
        if kind == "page":
            self._helper_page = value[0]
            self._count(value)

    def _count(self, value: tuple[int, int]) -> None:
        page, n_pages = value
        self._seen.add(page)
        if self._progress is not None:
            self._progress(len(self._seen), n_pages)

    def _blame_page(self, page: int) -> None:
        """Skip a page that ended a worker twice."""
        self._n_ended[page] += 1
        if self._n_ended[page] >= TRIES:
            log.warning("page %d ended %d reading workers and is skipped", page, TRIES)
            request = self._readings._request
            self._readings._request = replace(request, skip=request.skip | {page})

    def _blame_part(self, part: str) -> None:
        """Go without a part of the file that ended a worker."""
        log.warning("asking for the %s of a file ended a worker; they are done without", part)
        request = self._readings._request
        self._readings._request = replace(request, without=request.without | {part})

    def _arrived(self, future: Future[ReadSummary]) -> None:
        readings, error = self._readings, future.exception()
        if error is None:
            self._outcome.set_result(future.result())
            return
        if not isinstance(error, WorkerLostError) or readings._is_closed:
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
        if self._part:
            self._blame_part(self._part)
        elif self._page is not None:
            self._blame_page(self._page)
        with readings._lock:
            if readings._is_closed:
                self._outcome.set_exception(error)
                return
            readings._worker = readings._new_worker()
        self.start()
