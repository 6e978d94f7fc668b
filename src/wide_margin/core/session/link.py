"""The link to a worker process: requests go out, results, progress and its end come in.

A worker is forked from a process that has loaded what it needs (``forking.py``), does one request
after the other, and is replaced when it ends, hangs or outgrows its memory limit.
"""

from __future__ import annotations

import itertools
import logging
import queue
import socket
import threading
import time
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future
from multiprocessing.connection import Connection
from pathlib import Path
from typing import TYPE_CHECKING, Any

from wide_margin.core.errors import WideMarginError, WorkerLostError
from wide_margin.core.session.forking import FORK_SERVER
from wide_margin.core.session.pace import processor_seconds

if TYPE_CHECKING:
    from wide_margin.core.session.forking import WorkerProcess

log = logging.getLogger(__name__)

Report = Callable[[str, Any], None]
"""Called in the listening thread with what a request reports on its way: (kind, value)."""


MEMORY_MB = 1536
"""Address space of a worker for a file of usual size. Reading 2,415 pages takes 0.9 GB of it, most
of that shared libraries."""
MEMORY_PER_MB = 12
"""What a worker may have on top for each megabyte of the file."""


def memory_for(path: Path) -> int:
    """Megabytes of address space that workers on a file may take."""
    try:
        return MEMORY_MB + MEMORY_PER_MB * (path.stat().st_size // 1_000_000)
    except (OSError, ValueError):
        return MEMORY_MB


UNHURRIED = 10
"""Times its patience that a worker is given between steps: no page can hang there, and one step
takes a quarter of a minute on ten thousand pages."""
STARVED = 3
"""Times its patience that a worker is given which hardly gets a turn at the processor: on a busy
machine it is late, and does not hang."""


class _Pending:
    def __init__(self, future: Future[Any], report: Report | None) -> None:
        self.future, self.report = future, report


class Worker:
    """A worker process and its pending requests."""

    def __init__(self, role: str, *, patience: float = 30.0, memory_mb: int = MEMORY_MB) -> None:
        """Start the process.

        Args:
            role: "page" or "reading"; names the module that serves it.
            patience: Seconds without a sign of life, while it has work, after which it is ended;
                three times as long where it had the processor for less than half of them.
            memory_mb: Limit on its address space.
        """
        self.role, self._patience = role, patience
        self._pending: OrderedDict[int, _Pending] = OrderedDict()
        self._ids = itertools.count()
        self._lock = threading.Lock()
        self._closing = False
        self._outbox: queue.SimpleQueue[tuple[int, str, tuple[object, ...]] | None] = (
            queue.SimpleQueue()
        )
        self.is_lost = False
        self._heard = time.monotonic()
        self._since, self._had = 0.0, 0.0
        """Since when it gives no sign, and the processor time that it had had until then."""
        self._at_steps: int | None = None
        """The request between the steps that follow reading, which touch nothing of a file."""
        ours, theirs = socket.socketpair()
        self._process: WorkerProcess | None = None
        self._is_there = threading.Event()
        self._connection = Connection(ours.detach())
        # The first of its role waits for what it needs to be loaded, and the window must not.
        self._listener = threading.Thread(
            target=self._listen, args=(theirs, memory_mb), name=f"{role} worker", daemon=True
        )
        self._listener.start()
        # A request can be large, and a worker that is busy reads none: whoever asks, the window
        # above all, must not wait for it to be taken.
        threading.Thread(target=self._send, name=f"to {role} worker", daemon=True).start()

    @property
    def process_id(self) -> int:
        """For tests that end a worker on purpose, and for the bench; waits until it is there."""
        self._is_there.wait()
        return self._process.process_id if self._process is not None else 0

    def call(self, name: str, *arguments: object, report: Report | None = None) -> Future[Any]:
        """Ask for something; the future gets the result or a WideMarginError."""
        future: Future[Any] = Future()
        future.set_running_or_notify_cancel()
        with self._lock:
            if self.is_lost or self._closing:
                future.set_exception(_lost(self.role))
                return future
            request = next(self._ids)
            if not self._pending:
                self._heard = time.monotonic()
            self._pending[request] = _Pending(future, report)
        self._outbox.put((request, name, arguments))
        return future

    def _send(self) -> None:
        while (request := self._outbox.get()) is not None:
            try:
                self._connection.send(request)
            except OSError:
                return  # the listener finds the same, and tells whoever waits
            except Exception:
                log.exception("request %s could not be sent", request[1])
                self._deliver(request[0], "failed", _not_sent())

    def close(self) -> None:
        """End the process at once; pending requests fail. A second time does nothing."""
        with self._lock:
            is_closing, self._closing = self._closing, True
        if is_closing:
            return
        self._outbox.put(None)
        if self._process is not None:
            self._process.kill()
        if threading.current_thread() is not self._listener:
            self._listener.join(timeout=2.0)
        self._connection.close()

    def _listen(self, theirs: socket.socket, memory_mb: int) -> None:
        process = self._started(theirs, memory_mb)
        if process is not None:
            self._hear(process)
            process.wait()
        with self._lock:
            self.is_lost = True
            pending, self._pending = self._pending, OrderedDict()
        self._outbox.put(None)
        if not self._closing:
            log.warning("%s worker ended", self.role)
        for item in pending.values():
            item.future.set_exception(_lost(self.role))

    def _started(self, theirs: socket.socket, memory_mb: int) -> WorkerProcess | None:
        """The process, where it could be started and is still wanted."""
        with theirs:
            if not self._closing:
                try:
                    self._process = FORK_SERVER.fork(self.role, theirs, memory_mb)
                except Exception:  # whatever it is: whoever asks must hear that there is none
                    log.exception("no %s worker could be started", self.role)
        self._is_there.set()
        if self._closing and self._process is not None:
            self._process.kill()
        return self._process

    def _hear(self, process: WorkerProcess) -> None:
        """Deliver what the process sends until it has ended."""
        self._heard = time.monotonic()
        try:
            while True:
                if self._connection.poll(0.5):
                    request, kind, value = self._connection.recv()
                    self._heard = time.monotonic()
                    if kind == "step":
                        self._at_steps = request if value[0] < value[1] else None
                    elif kind == "failed" and request == self._at_steps:
                        self._at_steps = None
                    self._deliver(request, kind, value)
                elif self._hangs(process.process_id):
                    silent = time.monotonic() - self._heard
                    log.warning("%s worker gave no sign for %.0f s", self.role, silent)
                    process.kill()
        except (EOFError, OSError):
            pass
        except Exception:  # whoever waits must hear that nothing more will come
            log.exception("what the %s worker sent cannot be read", self.role)
            process.kill()

    def _hangs(self, process_id: int) -> bool:
        with self._lock:
            if not self._pending:
                return False
            patience = self._patience * (1.0 if self._at_steps is None else UNHURRIED)
            had = processor_seconds(process_id)
            if self._since != self._heard:
                self._since, self._had = self._heard, had
            silent = time.monotonic() - self._since
            is_starved = had - self._had < patience / 2
            return silent > patience * (STARVED if is_starved else 1)

    def _deliver(self, request: int, kind: str, value: Any) -> None:
        with self._lock:
            final = kind in ("done", "failed")
            item = self._pending.pop(request, None) if final else self._pending.get(request)
        if item is None:
            return
        if kind == "done":
            item.future.set_result(value)
        elif kind == "failed":
            item.future.set_exception(value)
        elif item.report is not None:
            try:
                item.report(kind, value)
            except Exception:
                log.exception("a report of the %s worker was not taken: %s", self.role, kind)


_DOES = {"page": "draws pages", "recognise": "recognises text"}


def _not_sent() -> WideMarginError:
    return WideMarginError("Something went wrong in Wide Margin.", hint="Try it again.")


def _lost(role: str) -> WorkerLostError:
    return WorkerLostError(
        f"The process that {_DOES.get(role, 'reads the document')} ended.",
        hint="It is started again; try once more.",
    )
