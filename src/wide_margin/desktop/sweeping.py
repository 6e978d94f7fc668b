"""When memory is swept of objects that refer to each other: while nobody waits for the window.

Python looks through all that is kept whenever enough has been added. With a long document open that
takes a tenth of a second, and comes while pages are scrolled.
"""

from __future__ import annotations

import gc
import time

from PySide6.QtCore import QObject, Qt, QTimer
from PySide6.QtGui import QCursor, QGuiApplication

EVERY_MS = 1000
SOME, MANY = 2_000, 12_000
"""Objects made since the last look: from so many on they are looked through, some two milliseconds'
work; so many at once are a document's, which stay as long as it is open."""
YOUNG = 8
"""Looks at what is new after which what came through them is looked through as well."""
STILL_S, LONGEST_S = 20.0, 600.0
"""Seconds without a move of the pointer after which all is looked through in a window that has been
in front for so long."""


class Sweeper(QObject):
    """Looks through what is new every second, and through all while the window is not in use."""

    def __init__(self, application: QGuiApplication) -> None:
        super().__init__(application)
        gc.disable()
        self._n_looks = 0
        self._swept = self._moved = time.monotonic()
        self._pointer = QCursor.pos()
        application.applicationStateChanged.connect(self._turned_to)
        timer = QTimer(self)
        timer.setInterval(EVERY_MS)
        timer.timeout.connect(self.look)
        timer.start()

    def look(self) -> None:
        """Look through what is new, or set it aside where it is too much."""
        now, pointer = time.monotonic(), QCursor.pos()
        if pointer != self._pointer:
            self._pointer, self._moved = pointer, now
        if now - self._swept > LONGEST_S and now - self._moved > STILL_S:
            self.sweep()
            return
        n_new = gc.get_count()[0]
        if n_new >= MANY:
            gc.freeze()
        elif n_new >= SOME:
            self._n_looks += 1
            gc.collect(1 if self._n_looks % YOUNG == 0 else 0)

    def sweep(self) -> None:
        """Look through everything."""
        gc.unfreeze()
        gc.collect()
        gc.freeze()
        self._swept = time.monotonic()

    def sweep_soon(self) -> None:
        """Look through everything in a moment: a window has been closed."""
        QTimer.singleShot(EVERY_MS, self.sweep)

    def _turned_to(self, state: Qt.ApplicationState) -> None:
        if state != Qt.ApplicationState.ApplicationActive:
            QTimer.singleShot(EVERY_MS, self._sweep_if_left)

    def _sweep_if_left(self) -> None:
        if QGuiApplication.applicationState() != Qt.ApplicationState.ApplicationActive:
            self.sweep()
