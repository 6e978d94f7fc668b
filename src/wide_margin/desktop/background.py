"""Slow work off the UI thread: results come back to the window's own thread."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from concurrent.futures import Future
from typing import Any

import shiboken6
from PySide6.QtCore import QObject, QRunnable, Qt, QThreadPool, Signal

from wide_margin.core.errors import WideMarginError
from wide_margin.core.jobs import Cancelled, CancelToken

log = logging.getLogger(__name__)

Report = Callable[[object], None]


class Job(QObject):
    """One piece of work; what it reports is handed to callbacks in the UI thread."""

    # One signal for everything, so that what a job sends arrives in the order it was sent.
    _arrived = Signal(str, object)

    def __init__(
        self,
        parent: Background,
        done: Callable[[Any], None],
        failed: Callable[[WideMarginError], None] | None,
        progressed: Callable[[Any], None] | None,
    ) -> None:
        super().__init__(parent)  # the parent keeps it alive until deleteLater
        self.token = CancelToken()
        self._callbacks = {"done": done, "failed": failed, "progressed": progressed}
        self._owner = parent
        self._telling = threading.Lock()
        """Held while a thread tells how it went: what is telling is not deleted meanwhile."""
        self._is_dropped = False
        # A method of a QObject that lives in the UI thread: it is called there.
        self._arrived.connect(self._dispatch, Qt.ConnectionType.QueuedConnection)

    def cancel(self) -> None:
        """Ask the work to stop; whatever it still sends is dropped."""
        self.token.cancel()

    def report(self, value: object) -> None:
        """Called by the work, from its own thread."""
        self._arrived.emit("progressed", value)

    def finish(self, work: Callable[[], Any]) -> None:
        """Run the work, or take a future's result, and tell how it went."""
        kind, value = "done", None
        try:
            value = work()
        except Cancelled:
            kind = ""  # whoever cancelled knows
        except WideMarginError as known:
            kind, value = "failed", known
        except Exception:
            log.exception("background work failed")
            hint = "Try it again."
            value = WideMarginError("Something went wrong in Wide Margin.", hint=hint)
            kind = "failed"
        with self._telling:
            if self._is_dropped or not shiboken6.isValid(self):
                return
            if kind:
                self._arrived.emit(kind, value)
            self._arrived.emit("ended", None)

    def drop(self) -> None:
        """Have nothing told any more; returns once no thread is telling it."""
        with self._telling:
            self._is_dropped = True

    def _dispatch(self, kind: str, value: Any) -> None:
        if kind == "ended":
            self._owner.forget(self)
            return
        callback: Callable[[Any], None] | None = self._callbacks.get(kind)
        receiver = getattr(callback, "__self__", None)
        gone = isinstance(receiver, QObject) and not shiboken6.isValid(receiver)
        if callback is not None and not gone and not self.token.is_cancelled:
            callback(value)


class _Runner(QRunnable):
    def __init__(self, job: Job, work: Callable[[CancelToken, Report], Any]) -> None:
        super().__init__()
        self._job, self._work = job, work

    def run(self) -> None:
        job = self._job
        job.finish(lambda: self._work(job.token, job.report))


class Background(QObject):
    """Owns the jobs of one window; closing it cancels them and waits."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(4)
        self._jobs: set[Job] = set()
        self._closed = False

    @property
    def n_running(self) -> int:
        """Jobs that have not ended."""
        return len(self._jobs)

    def submit(
        self,
        work: Callable[[CancelToken, Report], Any],
        *,
        done: Callable[[Any], None],
        failed: Callable[[WideMarginError], None] | None = None,
        progressed: Callable[[Any], None] | None = None,
    ) -> Job:
        """Run work(token, report) in a thread of the pool; the callbacks run in the UI thread."""
        job = self._start(done, failed, progressed)
        self._pool.start(_Runner(job, work))
        return job

    def watch(
        self,
        future: Future[Any],
        *,
        done: Callable[[Any], None],
        failed: Callable[[WideMarginError], None] | None = None,
    ) -> Job:
        """Tell when a future of the session is there; the callbacks run in the UI thread."""
        job = self._start(done, failed, None)

        def arrived(finished: Future[Any]) -> None:
            if not self._closed and shiboken6.isValid(job):
                job.finish(finished.result)

        future.add_done_callback(arrived)
        return job

    def close(self) -> None:
        """Cancel every job and wait for those in threads."""
        self._closed = True
        for job in self._jobs:
            job.cancel()
            job.drop()
        self._pool.waitForDone()
        self._jobs.clear()

    def forget(self, job: Job) -> None:
        """A job has ended."""
        self._jobs.discard(job)
        job.drop()  # the thread may be in the middle of telling it
        job.deleteLater()

    def _start(
        self,
        done: Callable[[Any], None],
        failed: Callable[[WideMarginError], None] | None,
        progressed: Callable[[Any], None] | None,
    ) -> Job:
        job = Job(self, done, failed, progressed)
        self._jobs.add(job)
        return job
