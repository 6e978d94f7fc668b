"""The worker process: one request after the other, until the other end hangs up."""

import contextlib
import importlib
import logging
import os
import resource
import socket
import threading
import time
from collections import deque
from collections.abc import Callable
from functools import partial
from multiprocessing.connection import Connection
from typing import Any, Protocol

from wide_margin.core.errors import WideMarginError
from wide_margin.core.jobs import Cancelled

log = logging.getLogger(__name__)

SIGN, NO_REQUEST = 5.0, -1
"""Seconds after which a worker that gives way says that it is alive, and what it says it of."""

Send = Callable[[str, Any], None]
Request = tuple[int, str, tuple[Any, ...]]
"""Number, name and arguments."""


class Service(Protocol):
    """What a worker does; its public methods are the requests it knows.

    One that is long at a request calls ``give_way`` now and then: requests whose names are in its
    EARLY are then answered in between, unless one of its CHANGING is waiting before them. Where
    nothing is half made, ``give_way_to_any`` answers all but those.
    """

    give_way: Callable[[], None]
    give_way_to_any: Callable[[], None]
    is_asked: Callable[[], bool]
    """Whether a request is waiting."""

    def afterwards(self) -> None:
        """What need not be waited for: called after each answer was sent."""

    def spare(self) -> bool:
        """A short piece of what will be wanted later, called while nothing is asked.

        Returns:
            Whether there is more of it.
        """
        return False

    def close(self) -> None:
        """Give everything back."""


def serve(connection: Connection, service: Service) -> None:
    """Answer requests until the connection closes.

    A request is (id, name, arguments); the method is called with a function that reports
    progress first. What goes wrong is sent back as a WideMarginError.
    """
    waiting: deque[Request] = deque()
    early: frozenset[str] = getattr(service, "EARLY", frozenset())
    changing: frozenset[str] = getattr(service, "CHANGING", frozenset())

    signed = time.monotonic()

    def give_way(*, to_any: bool = False) -> None:
        """Answer at once what can be answered in the middle of a long request."""
        nonlocal signed
        if time.monotonic() - signed > SIGN:  # what is long at a request is not taken to hang
            connection.send((NO_REQUEST, "alive", None))
            signed = time.monotonic()
        while connection.poll(0):
            try:
                item = connection.recv()
            except (EOFError, OSError):
                os._exit(0)  # nobody waits for the long one any more
            # What was asked after a change is to be answered after it.
            is_changed = any(name in changing for _, name, _ in waiting)
            if ((to_any and item[1] not in changing) or item[1] in early) and not is_changed:
                _answer(connection, service, item)
            else:
                waiting.append(item)

    service.give_way = give_way
    service.give_way_to_any = partial(give_way, to_any=True)
    service.is_asked = lambda: bool(waiting) or connection.poll(0)
    spare = getattr(service, "spare", None)
    while True:
        if not waiting and spare is not None:
            try:
                while not waiting and not connection.poll(0) and spare():
                    pass
            except OSError:
                break
            except Exception:
                log.exception("what was prepared in spare time failed")
                spare = None  # it is made when it is asked for, and fails there if it must
        try:
            item = waiting.popleft() if waiting else connection.recv()
        except (EOFError, OSError):
            break
        if not _answer(connection, service, item):
            break
        with contextlib.suppress(BrokenPipeError, ConnectionResetError):
            service.afterwards()
    service.close()


def _answer(connection: Connection, service: Service, item: Request) -> bool:
    """Answer one request; whether the other end is still there."""
    request, name, arguments = item

    def send(kind: str, value: Any) -> None:
        connection.send((request, kind, value))

    try:
        send("done", getattr(service, name)(send, *arguments))
    except Cancelled:
        send("failed", WideMarginError("This was cancelled."))
    except WideMarginError as error:
        send("failed", error)
    except (BrokenPipeError, ConnectionResetError):
        return False
    except MemoryError:
        os._exit(77)  # the state of the process is unknown; the session starts another
    except Exception:
        log.exception("request %s failed", name)
        send("failed", WideMarginError("Something went wrong in Wide Margin."))
    return True


def end_with_parent(parent: int) -> None:
    """Leave once the application has ended, whatever this process is at.

    Asked of the kernel again and again: a signal at the parent's death (prctl) comes when the
    *thread* ends that started this process, and workers are replaced from threads.
    """
    while os.getppid() == parent:
        time.sleep(0.5)
    os._exit(0)


def be_worker(role: str, descriptor: int, memory_mb: int, parent: int) -> None:
    """Be the worker of a role until nobody asks any more.

    Args:
        role: "page", "reading" or "recognise"; names the module that serves it.
        descriptor: Of the socket on which requests come.
        memory_mb: Limit on the address space.
        parent: The process it was forked from; it ends with it.
    """
    threading.Thread(target=end_with_parent, args=(parent,), daemon=True).start()
    limit = memory_mb * 1024 * 1024
    with contextlib.suppress(ValueError, OSError):
        resource.setrlimit(resource.RLIMIT_AS, (limit, limit))
    os.nice({"reading": 5, "recognise": 10}.get(role, 0))  # give way to the pages and the window
    logging.basicConfig(level=os.environ.get("WIDE_MARGIN_LOG", "WARNING"))
    module = importlib.import_module(f"wide_margin.core.session.{role}_service")
    connection = Connection(socket.socket(fileno=descriptor).detach())
    with contextlib.suppress(KeyboardInterrupt):
        serve(connection, module.make_service())
