"""The process that workers are forked from: it has loaded what they need and does nothing else.

A fresh interpreter for each worker would load the same modules for most of a second, each time. The
window itself has threads and is never forked; this process has none.
"""

import atexit
import gc
import importlib
import logging
import os
import pickle
import pkgutil
import select
import signal
import socket
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from pathlib import Path
from typing import NoReturn

from wide_margin.core.later import compiled_ahead

log = logging.getLogger(__name__)

Run = Callable[[str, int, int, int], None]
"""Be a worker: role, descriptor of its connection, megabytes, process that it ends with."""

MAX_REQUEST = 1 << 17
"""Bytes of a request; the environment is the most of it."""
TO_READ = ("session.page_service", "layout", "outline", "passages", "document",
           "session.reading_service")  # fmt: skip
"""What every document needs, in the order in which it is wanted. Of a room the modules are loaded
one by one: who asks for a worker meanwhile waits for one of them, not for a tenth of a second."""
TO_ANSWER = ("answers", "explain", "digest", "session.prepared")
"""What is needed when something is asked."""
QUIET = 0.3
"""Seconds without a request after which that is loaded: before, a first page is being drawn."""
LOOKS_AGAIN = 0.02
"""Seconds after which a process without such a descriptor is looked for again."""
REPLY = 16
"""Bytes of a reply: a process id in decimal."""


class WorkerProcess:
    """A forked process, held by a descriptor that names it even when its number is used again."""

    def __init__(self, process_id: int, descriptor: int | None) -> None:
        """Take a process over.

        Args:
            process_id: Its number.
            descriptor: The one that names it (pidfd); None where the system has none.
        """
        self.process_id = process_id
        self._descriptor = descriptor
        self._has_ended = False
        self._lock = threading.Lock()

    def kill(self) -> None:
        """End it at once; nothing where it has ended."""
        with self._lock, suppress(ProcessLookupError):
            if self._has_ended:
                return
            if self._descriptor is not None:
                signal.pidfd_send_signal(self._descriptor, signal.SIGKILL)
            else:
                os.kill(self.process_id, signal.SIGKILL)

    def wait(self) -> None:
        """Return once it has ended; to be called by one thread, once."""
        if self._descriptor is not None:
            ended = select.poll()  # unlike select it takes descriptors above a thousand
            ended.register(self._descriptor, select.POLLIN)
            ended.poll()
        else:
            with suppress(ProcessLookupError):
                while True:
                    os.kill(self.process_id, 0)
                    time.sleep(LOOKS_AGAIN)
        with self._lock:
            self._has_ended = True
            if self._descriptor is not None:
                os.close(self._descriptor)


class ForkServer:
    """The other side of that process, for the application; started when first needed."""

    def __init__(self) -> None:
        """Nothing is started yet."""
        self._lock = threading.Lock()
        self._socket: socket.socket | None = None
        self._process: subprocess.Popen[bytes] | None = None

    @property
    def process_id(self) -> int | None:
        """The number of the process, None where it does not run."""
        return self._process.pid if self._process is not None else None

    def start(self) -> None:
        """Start the process, where it does not run, and return at once."""
        with self._lock:
            self._connected()

    def fork(self, role: str, connection: socket.socket, memory_mb: int) -> WorkerProcess:
        """A worker of a role on one end of a socket pair; waits until it is there.

        Raises:
            OSError: No process can be started.
        """
        request = pickle.dumps((role, memory_mb, dict(os.environ), str(Path.cwd())))
        with self._lock:
            try:
                return self._asked(request, connection)
            except (OSError, EOFError):
                log.warning("the process that starts workers ended and is replaced", exc_info=True)
                self._stop()
                return self._asked(request, connection)

    def _asked(self, request: bytes, connection: socket.socket) -> WorkerProcess:
        asked = self._connected()
        socket.send_fds(asked, [request], [connection.fileno()])
        reply, descriptors, _, _ = socket.recv_fds(asked, REPLY, 1)
        if not reply:
            raise EOFError
        return WorkerProcess(int(reply), descriptors[0] if descriptors else None)

    def _connected(self) -> socket.socket:
        if self._socket is None:
            ours, theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
            ours.setsockopt(socket.SOL_SOCKET, socket.SO_SNDBUF, MAX_REQUEST)
            with theirs:
                self._process = subprocess.Popen(
                    [sys.executable, "-m", __name__, str(theirs.fileno())],
                    pass_fds=[theirs.fileno()], stdin=subprocess.DEVNULL,
                    env={**os.environ, "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"},
                )  # fmt: skip
            self._socket = ours
            atexit.register(self.stop)
        return self._socket

    def stop(self) -> None:
        """End the process, and with it every worker."""
        with self._lock:
            self._stop()

    def _stop(self) -> None:
        atexit.unregister(self.stop)
        if self._socket is not None and self._process is not None:
            self._socket.close()
            self._process.kill()
            self._process.wait()
        self._socket = self._process = None


FORK_SERVER = ForkServer()
"""One for the application; it ends when the application does, whichever way that ends."""


def serve_forks(asked: socket.socket, run: Run) -> None:
    """Fork a worker for each request, until the application is gone.

    Args:
        asked: Where requests come from.
        run: Called in the new process.
    """
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # Ctrl+C is for the application
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # nobody waits for their exit codes
    gc.disable()  # nothing is made and dropped here
    ahead = _made_ahead()
    server = os.getpid()
    pause: float | None = 0.0
    while True:
        while pause is not None and not select.select([asked], [], [], pause)[0]:
            pause = next(ahead, None)
        message, descriptors, _, _ = socket.recv_fds(asked, MAX_REQUEST, 1)
        if not message:
            return
        role, memory_mb, environment, folder = pickle.loads(message)
        _load(role)
        process_id = os.fork()
        if process_id == 0:
            asked.close()
            os.set_inheritable(descriptors[0], False)
            _be_worker(run, (role, descriptors[0], memory_mb, server), environment, folder)
        os.close(descriptors[0])
        try:
            _tell(asked, process_id)
        except BrokenPipeError:
            return


def _tell(asked: socket.socket, process_id: int) -> None:
    """Send a process's number, with the descriptor that names it where the system has one."""
    named = None
    with suppress(OSError):
        named = os.pidfd_open(process_id)
    try:
        socket.send_fds(asked, [str(process_id).encode()], [] if named is None else [named])
    finally:
        if named is not None:
            os.close(named)


def _made_ahead() -> Iterator[float]:
    """Make what workers will need, piece by piece, while none is asked for.

    Yields:
        Seconds without a request that are to pass before the next piece.
    """
    yield from _loaded_ahead(TO_READ)
    with suppress(Exception):  # a worker that needs what is missing or damaged says so itself
        importlib.import_module("numpy.ma")  # asked for by the first median
    yield QUIET
    yield from _loaded_ahead(TO_ANSWER)
    with suppress(Exception):
        importlib.import_module("wide_margin.core.search.vectors").vectors_of(("well",))
        yield 0.0
        importlib.import_module("wide_margin.core.search.encoder").sentence_encoder()
    for _ in compiled_ahead():
        yield 0.0
    gc.freeze()


def _loaded_ahead(names: Sequence[str]) -> Iterator[float]:
    """Load modules of the core, and those of its rooms, one by one; it takes no pause."""
    for name in (f"wide_margin.core.{each}" for each in names):
        with suppress(ImportError):  # a worker that needs it says so itself
            inside = pkgutil.iter_modules(getattr(importlib.import_module(name), "__path__", []))
            for module in [f"{name}.{each.name}" for each in inside]:
                importlib.import_module(module)
                yield 0.0
        yield 0.0
        gc.freeze()  # collections in the workers leave these pages shared


def _load(role: str) -> None:
    """Load what a role needs, once; a worker that cannot load it says so itself."""
    if f"wide_margin.core.session.{role}_service" not in sys.modules:
        with suppress(ImportError):
            importlib.import_module(f"wide_margin.core.session.{role}_service")
        gc.freeze()  # collections in the workers leave these pages shared


def _be_worker(
    run: Run,
    job: tuple[str, int, int, int],
    environment: dict[str, str],
    folder: str,
) -> NoReturn:
    """Be the new process, with the environment that the application has now."""
    code = 1
    try:
        gc.enable()
        signal.signal(signal.SIGCHLD, signal.SIG_DFL)  # a worker may start programs
        for name in os.environ.keys() - environment.keys() - {"OPENBLAS_NUM_THREADS"}:
            del os.environ[name]
        os.environ.update(environment)
        with suppress(OSError):
            os.chdir(folder)
        run(*job)
        code = 0
    except Exception:
        log.exception("a worker failed")
    finally:
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(code)


def main() -> None:
    """Run as ``python -m wide_margin.core.session.forking FD``."""
    from wide_margin.core.session.worker import be_worker

    with socket.socket(fileno=int(sys.argv[1])) as asked, suppress(ConnectionError):
        serve_forks(asked, be_worker)


if __name__ == "__main__":
    main()
