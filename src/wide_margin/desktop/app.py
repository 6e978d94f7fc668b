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
from wide_margin.desktop.main_window import MainWindow

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


def run(
    file: Path | None, *, page: str | None = None, model: str | None = None,
    password: str | None = None,
) -> int:  # fmt: skip
    """Open the window and stay until it is closed; the exit code."""
    logging.basicConfig(level=os.environ.get("WIDE_MARGIN_LOG", "WARNING"))
    application = make_application()
    settings, trouble = _settings()
    if model:
        settings = replace(settings, model_address=model, model_name="")
    window = MainWindow(Store(default_store_path()), settings)
    window.show()
    if trouble is not None:
        window.read_view.show_status(f"{trouble.message} {trouble.hint}")
    if file is not None:
        window.open(file, page=page, password=password)
    # Python sees Ctrl+C only when it runs; the timer lets it.
    signal.signal(signal.SIGINT, lambda *_: window.close())
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
