"""Long work in core: it reports how far it is, and can be stopped at safe points."""

import contextlib
import threading
from collections.abc import Callable, Iterator
from typing import Protocol, TypeVar

Made = TypeVar("Made")

Progress = Callable[[int, int], None]
"""Called with (done, total); never goes back."""


class Cancelled(Exception):
    """Raised at a safe point of work that was asked to stop."""


class CancelToken:
    """Shared by whoever may cancel and by the work that checks."""

    def __init__(self) -> None:
        """Start uncancelled."""
        self._event = threading.Event()
        self._lock = threading.Lock()
        self._watchers: list[Callable[[], None]] = []

    def cancel(self) -> None:
        """Ask the work to stop at its next safe point, and wake it where it waits."""
        with self._lock:
            self._event.set()
            watchers = list(self._watchers)
        for wake in watchers:
            wake()

    @property
    def is_cancelled(self) -> bool:
        """Whether cancel() was called."""
        return self._event.is_set()

    def check(self) -> None:
        """Raise Cancelled when cancel() was called."""
        if self._event.is_set():
            raise Cancelled

    @contextlib.contextmanager
    def waking(self, wake: Callable[[], None]) -> Iterator[None]:
        """While work waits for something outside, have wake() called when it is cancelled.

        It is called in the thread that cancels; at once where that has happened already.
        """
        with self._lock:
            self._watchers.append(wake)
            is_late = self._event.is_set()
        if is_late:
            wake()
        try:
            yield
        finally:
            with self._lock:
                self._watchers.remove(wake)


class Aside(Protocol):
    """Has something made while the work goes on with something else."""

    def __call__(self, make: Callable[[], Made]) -> Callable[[], Made]:
        """Begin with it, if there is somebody to do it; what is returned waits for it."""


def here(make: Callable[[], Made]) -> Callable[[], Made]:
    """Make it when it is waited for: there is nobody else to do it."""
    return make


def no_progress(done: int, total: int) -> None:
    """Stand where nobody watches."""
