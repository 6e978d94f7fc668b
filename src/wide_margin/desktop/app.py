"""The application: Qt is set up here, and nowhere else."""

from __future__ import annotations

import logging
import os
import signal
import sys
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QApplication

from wide_margin.core.margin import default_store_path, open_store
from wide_margin.core.services import SettingsKeeper
from wide_margin.core.session.fetch import is_address
from wide_margin.desktop.entry_keeper import EntryHub
from wide_margin.desktop.handover import Handover, hand_over
from wide_margin.desktop.main_window import MainWindow
from wide_margin.desktop.sweeping import Sweeper

if TYPE_CHECKING:
    from wide_margin.core.margin import Store

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
    """All windows of the application; they share store and settings, and hear of each other."""

    def __init__(
        self, store: Store, settings: SettingsKeeper, sweeper: Sweeper | None = None
    ) -> None:
        self._store, self._settings, self._sweeper = store, settings, sweeper
        self._hub = EntryHub()
        self.open: list[MainWindow] = []
        application = QApplication.instance()
        if isinstance(application, QApplication):
            application.focusWindowChanged.connect(self._share)

    def add(self, path: Path | None = None) -> MainWindow:
        """Another window, on a document or on the start page."""
        window = MainWindow(self._store, self._settings, self._hub)
        window.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        window.window_asked.connect(self.add)
        window.closed.connect(lambda: self._closed(window))
        self.open.append(window)
        if len(self.open) > 1:
            window.move(window.pos().x() + 32, window.pos().y() + 32)
        window.show()
        if path is not None:
            window.open(path)
        return window

    def _closed(self, window: MainWindow) -> None:
        self.open.remove(window)
        if self._sweeper is not None and self.open:  # a window refers to itself
            self._sweeper.sweep_soon()

    def _share(self, *_: object) -> None:
        """The window in front is read first; the others take what is left."""
        front = next((window for window in self.open if window.isActiveWindow()), None)
        if front is not None:  # a dialog or another application changes nothing
            for window in self.open:
                window.reader.hold_back(on=window is not front)

    def show(self, request: dict[str, str | None]) -> None:
        """Do what a later start of the application asks for."""
        file = request.get("file")
        window = next((w for w in self.open if w.reader.path is None), None) or self.add()
        if file:
            _open_in(window, str(file), request.get("page"), request.get("password"))
        window.raise_()
        window.activateWindow()

    def close(self) -> None:
        """Close every window."""
        for window in list(self.open):
            window.close()


def _open_in(window: MainWindow, file: str, page: str | None, password: str | None) -> None:
    if is_address(file):
        window.open_text(file, page=page)
    else:
        window.open(Path(file), page=page, password=password)


def run(
    file: Path | str | None, *, page: str | None = None, model: str | None = None,
    password: str | None = None,
) -> int:  # fmt: skip
    """Open the window and stay until it is closed; the exit code."""
    logging.basicConfig(level=os.environ.get("WIDE_MARGIN_LOG", "WARNING"))
    application = make_application()
    sweeper = Sweeper(application)
    where = default_store_path()
    named = str(file) if file is not None else None
    if named is not None and not is_address(named):
        named = str(Path(named).absolute())
    if model is None and hand_over(where, {"file": named, "page": page, "password": password}):
        return 0
    settings = SettingsKeeper()
    if model:
        settings.hold_for_now(model_address=model, model_name="")
    opened = open_store(where)
    windows = Windows(opened.store, settings, sweeper)
    window = windows.add()
    for trouble in (settings.trouble, opened.trouble):
        if trouble is not None:
            log.warning("%s", trouble.message)
            window.read_view.show_status(f"{trouble.message} {trouble.hint}")
            window.start_page.say(f"{trouble.message} {trouble.hint}")
    if named is not None:
        _open_in(window, named, page, password)
    handover = Handover(where)  # while the first page is on its way
    handover.asked.connect(windows.show)
    # Python sees Ctrl+C only when it runs; the timer lets it.
    signal.signal(signal.SIGINT, lambda *_: windows.close())
    heartbeat = QTimer()
    heartbeat.start(250)
    heartbeat.timeout.connect(lambda: None)
    code = application.exec()
    handover.close()
    opened.store.close()
    return code
