"""The contents while the document is still being read: its bookmarks, or what the pages tell."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer

from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.desktop.read_view.read_view import ReadView

AGAIN, LEAST = 3, 24
"""Asked again once so many times as many pages are read, and so many at least."""
SETTLED_MS = 250
"""After which a place that was gone to is one that is read at."""


class ContentsSoFar(QObject):
    """Asks now and then what is known of the sections, and has the reader's place read first."""

    def __init__(self, view: ReadView) -> None:
        super().__init__(view)
        self._view = view
        self.outline, self.labels = Outline(), PageLabels(())
        self._next = 1
        """Pages read from which it is asked again."""
        self._is_asked = False
        self._settled = QTimer(self)
        self._settled.setSingleShot(True)
        self._settled.setInterval(SETTLED_MS)
        self._settled.timeout.connect(self._come_near)
        view.reader.opened.connect(lambda _: self._begin())
        view.reader.read_progress.connect(self._progress)
        view.pages.place_changed.connect(lambda *_: self._settled.start())

    def _begin(self) -> None:
        self.outline, self.labels = Outline(), PageLabels(())
        self._next, self._is_asked = 1, False

    def _progress(self, done: int, _: int) -> None:
        reader = self._view.reader
        if reader.session is None or reader.is_ready or self._is_asked or done < self._next:
            return
        self._is_asked = True
        self._next = max(AGAIN * done, LEAST)
        reader.watch(
            reader.session.listed_so_far(), done=self._came, failed=lambda error: self._not_yet()
        )

    def _came(self, listed: tuple[Outline, PageLabels] | None) -> None:
        self._is_asked = False
        if listed is None or self._view.reader.is_ready or listed[0] == self.outline:
            return
        self.outline, self.labels = listed
        self._view.contents.show_outline(self.outline, self.labels)
        self._view.spine.show_document(self._view.pages.n_pages, self.outline, self.labels)
        self._view.place_anew()

    def _not_yet(self) -> None:
        self._is_asked = False

    def _come_near(self) -> None:
        """Have the pages around what is read now read next."""
        reader, place = self._view.reader, self._view.pages.reading_place()
        if reader.session is None or reader.is_ready or place is None or not reader.sha256:
            return

        def nothing(error: WideMarginError) -> None:
            """It is read all the same, only later."""

        reader.watch(reader.session.come_near(place[0]), done=lambda _: None, failed=nothing)
