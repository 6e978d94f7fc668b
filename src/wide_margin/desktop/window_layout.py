"""What a window remembers of how it lay on the screen: its place, its panels."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

import platformdirs
from PySide6.QtCore import QSettings

if TYPE_CHECKING:
    from wide_margin.desktop.main_window import MainWindow


def _file() -> QSettings:
    folder = Path(platformdirs.user_state_dir("wide-margin", appauthor=False))
    return QSettings(str(folder / "window.ini"), QSettings.Format.IniFormat)


def restore_layout(window: MainWindow) -> None:
    """Lay a window out as the last one that was closed."""
    kept = _file()
    if geometry := kept.value("geometry"):
        window.restoreGeometry(geometry)
    if kept.contains("panels"):
        window.read_view.panels.restore(kept.value("panels"))
    shown = kept.value("contents", True, type=bool)
    window.menus.contents.setChecked(bool(shown))
    window.show_contents()


def keep_layout(window: MainWindow) -> None:
    """Remember how a window is laid out."""
    kept = _file()
    kept.setValue("geometry", window.saveGeometry())
    kept.setValue("panels", window.read_view.panels.now())
    kept.setValue("contents", window.menus.contents.isChecked())
