"""The application: Qt is set up here, and nowhere else."""

import logging
import os
import signal
import sys
from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication

from wide_margin.core.errors import WideMarginError
from wide_margin.core.margin import Store, default_store_path
from wide_margin.core.services import Settings, load_settings
from wide_margin.core.session.fetch import is_address
from wide_margin.desktop.main_window import MainWindow
from wide_margin.desktop.reader import EntryHub

log = logging.getLogger(__name__)


def make_application() -> QApplication:
    """The QApplication, made once."""
    existing = QApplication.instance()
    if isinstance(existing, QApplication):
        return existing
    application = QApplication(sys.argv[:1])
    application.setApplicationName("wide-margin")
    application.setApplicationDisplayName("")
    application.setStyle("Fusion")
    return application


class Windows:
    """All windows of the application; they share the store and hear of each other's entries."""

    def __init__(self, store: Store, settings: Settings) -> None:
        self._store, self._settings = store, settings
        self._hub = EntryHub()
        self.open: list[MainWindow] = []

    def add(self, path: Path | None = None) -> MainWindow:
        """Another window, on a document or on the start page."""
        window = MainWindow(self._store, self._settings, self._hub)
        window.window_asked.connect(self.add)
        self.open.append(window)
        if len(self.open) > 1:
            window.move(window.pos().x() + 32, window.pos().y() + 32)
        window.show()
        if path is not None:
            window.open(path)
        return window

    def close(self) -> None:
        """Close every window."""
        for window in self.open:
            window.close()


def run(
    file: Path | str | None, *, page: str | None = None, model: str | None = None,
    password: str | None = None,
) -> int:  # fmt: skip
    """Open the window and stay until it is closed; the exit code."""
    logging.basicConfig(level=os.environ.get("WIDE_MARGIN_LOG", "WARNING"))
    application = make_application()
    settings, trouble = _settings()
    if model:
        settings = replace(settings, model_address=model, model_name="")
    windows = Windows(Store(default_store_path()), settings)
    window = windows.add()
    if trouble is not None:
        window.read_view.show_status(f"{trouble.message} {trouble.hint}")
    if file is not None:
        if is_address(str(file)):
            window.open_text(str(file), page=page)
        else:
            window.open(Path(file), page=page, password=password)
    # Python sees Ctrl+C only when it runs; the timer lets it.
    signal.signal(signal.SIGINT, lambda *_: windows.close())
    heartbeat = QTimer()
    heartbeat.start(250)
    heartbeat.timeout.connect(lambda: None)
    return application.exec()


def _settings() -> tuple[Settings, WideMarginError | None]:
    try:
        return load_settings(), None
    except WideMarginError as error:
        log.warning("settings: %s", error.message)
        return Settings(), error
