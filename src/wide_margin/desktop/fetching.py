"""Fetching a document from an address, in the window."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PySide6.QtCore import QObject

from wide_margin.core.session.fetch import fetch_pdf, fetched_folder

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.desktop.background import Background, Job
    from wide_margin.desktop.read_view.message import Message


class Fetching(QObject):
    """One fetch at a time; opening something else ends it."""

    def __init__(self, background: Background, message: Message, parent: QObject) -> None:
        super().__init__(parent)
        self._background, self._message = background, message
        self._job: Job | None = None

    @property
    def is_under_way(self) -> bool:
        """Whether something is being fetched."""
        return self._job is not None

    def stop(self) -> None:
        """End it; the connection is closed at once."""
        if self._job is not None:
            self._job.cancel()
            self._job = None
            self._message.hide()

    def start(self, address: str, fetched: Callable[[Path], None]) -> None:
        """Fetch what is at an address; ``fetched`` gets the path."""
        self.stop()
        self._message.say("Fetching the document…", address, "Cancel")

        def told(value: object) -> None:
            done, total = cast("tuple[int, int]", value)
            of = f" of {total / 1e6:.1f}" if total else ""
            said = f"{done / 1e6:.1f}{of} MB from {address}"
            self._message.say("Fetching the document…", said, "Cancel")

        def arrived(path: Path) -> None:
            self._job = None
            fetched(path)

        self._job = self._background.submit(
            lambda token, report: fetch_pdf(
                address, fetched_folder(), token, lambda done, total: report((done, total))
            ),
            done=arrived, failed=self._failed, progressed=told,
        )  # fmt: skip

    def _failed(self, error: WideMarginError) -> None:
        self._job = None
        self._message.say(error.message, error.hint, "Choose another file…")
