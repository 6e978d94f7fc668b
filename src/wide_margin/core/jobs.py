"""Long work in core: it reports how far it is, and can be stopped at safe points."""

import threading
from collections.abc import Callable

Progress = Callable[[int, int], None]
"""Called with (done, total); never goes back."""


class Cancelled(Exception):
    """Raised at a safe point of work that was asked to stop."""


class CancelToken:
    """Shared by whoever may cancel and by the work that checks."""

    def __init__(self) -> None:
        """Start uncancelled."""
        self._event = threading.Event()

    def cancel(self) -> None:
        """Ask the work to stop at its next safe point."""
        self._event.set()

    @property
    def is_cancelled(self) -> bool:
        """Whether cancel() was called."""
        return self._event.is_set()

    def check(self) -> None:
        """Raise Cancelled when cancel() was called."""
        if self._event.is_set():
            raise Cancelled


def no_progress(done: int, total: int) -> None:
    """Stand where nobody watches."""
