"""The link to a worker process: requests go out, results, progress and its end come in.

A worker is started as a fresh interpreter (never forked: the window has threads), does one
request after the other, and is replaced when it ends, hangs or outgrows its memory limit.
"""

import itertools
import logging
import os
import queue
import socket
import subprocess
import sys
import threading
import time
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from wide_margin.core.errors import WideMarginError, WorkerLostError

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


class _Pending:
    def __init__(self, future: "Future[Any]", report: Report | None) -> None:
        self.future, self.report = future, report


class Worker:
    """A worker process and its pending requests."""

    def __init__(self, role: str, *, patience: float = 30.0, memory_mb: int = MEMORY_MB) -> None:
        """Start the process.

        Args:
            role: "page" or "reading"; names the module that serves it.
            patience: Seconds without a sign of life, while it has work, after which it is ended.
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
        ours, theirs = socket.socketpair()
        command = [
            sys.executable,
            "-m",
            "wide_margin.core.session.worker",
            role,
            str(theirs.fileno()),
            str(memory_mb),
        ]
        environment = {**os.environ, "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}
        self._process = subprocess.Popen(
            command, pass_fds=[theirs.fileno()], stdin=subprocess.DEVNULL, env=environment
        )
        theirs.close()
        self._connection = Connection(ours.detach())
        self._listener = threading.Thread(target=self._listen, name=f"{role} worker", daemon=True)
        self._listener.start()
        # A request can be large, and a worker that is busy reads none: whoever asks, the window
        # above all, must not wait for it to be taken.
        threading.Thread(target=self._send, name=f"to {role} worker", daemon=True).start()

    @property
    def process_id(self) -> int:
        """For tests that end a worker on purpose, and for the bench."""
        return self._process.pid

    def call(self, name: str, *arguments: object, report: Report | None = None) -> "Future[Any]":
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
        if self._process.poll() is None:
            self._process.kill()
        self._process.wait()
        if threading.current_thread() is not self._listener:
            self._listener.join(timeout=2.0)
        self._connection.close()

    def _listen(self) -> None:
        try:
            while True:
                if self._connection.poll(0.5):
                    request, kind, value = self._connection.recv()
                    self._heard = time.monotonic()
                    self._deliver(request, kind, value)
                elif self._hangs():
                    log.warning("%s worker gave no sign for %.0f s", self.role, self._patience)
                    self._process.kill()
        except (EOFError, OSError):
            pass
        self._process.wait()
        with self._lock:
            self.is_lost = True
            pending, self._pending = self._pending, OrderedDict()
        self._outbox.put(None)
        if not self._closing:
            log.warning("%s worker ended with code %s", self.role, self._process.returncode)
        for item in pending.values():
            item.future.set_exception(_lost(self.role))

    def _hangs(self) -> bool:
        with self._lock:
            return bool(self._pending) and time.monotonic() - self._heard > self._patience

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
            item.report(kind, value)


_DOES = {"page": "draws pages", "recognise": "recognises text"}


def _not_sent() -> WideMarginError:
    return WideMarginError("Something went wrong in Wide Margin.", hint="Try it again.")


def _lost(role: str) -> WorkerLostError:
    return WorkerLostError(
        f"The process that {_DOES.get(role, 'reads the document')} ended.",
        hint="It is started again; try once more.",
    )
