"""Finding words: the field, the hits on the pages, in the list and on the spine."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer

from wide_margin.core.layout import PageLabels
from wide_margin.core.session.model import MOST_FOUND
from wide_margin.desktop.read_view.contents_panel import Row
from wide_margin.desktop.read_view.page_painting import Laid

if TYPE_CHECKING:
    from wide_margin.core.session import FoundHit
    from wide_margin.desktop.read_view.read_view import ReadView

FIND_DELAY_MS = 150
MAX_LISTED = 1000
_NO_LABELS = PageLabels(())


class Finding(QObject):
    """What is looked for, and the hit that is shown."""

    def __init__(self, view: ReadView) -> None:
        super().__init__(view)
        self._view = view
        self.hits: list[FoundHit] = []
        self.at = -1
        """Index of the hit that is shown."""
        self._wanted = ""
        self._whole_words = self._exactly = False
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(FIND_DELAY_MS)
        self._timer.timeout.connect(self.find_again)

    def forget(self) -> None:
        """Another document is opened."""
        self.hits, self.at = [], -1

    def type(self, text: str) -> None:
        """Look for words once the hand rests."""
        self._wanted = text.strip()
        if not self._wanted:
            self._timer.stop()
            self.show("", [])
        else:
            self._timer.start()

    def whole_words(self, wanted: bool) -> None:
        """Whether parts of longer words are left out."""
        self._whole_words = wanted
        self.find_again()

    def exactly(self, wanted: bool) -> None:
        """Whether capitals and accents count."""
        self._exactly = wanted
        self.find_again()

    def find_again(self) -> None:
        """Look for the same words."""
        reader = self._view.reader
        if not self._wanted:
            return
        if not reader.is_ready:
            self._view.place_line.show_count("still reading")
            return
        assert reader.session is not None
        wanted = self._wanted
        found = reader.session.find(
            wanted, whole_words=self._whole_words, exactly=self._exactly, near=self._view.here()[0]
        )
        reader.watch(found, done=lambda hits: self.show(wanted, hits))

    def show(self, wanted: str, hits: list[FoundHit]) -> None:
        """Show where words stand, unless others are looked for by now."""
        if wanted != self._wanted:
            return
        view = self._view
        self.hits, self.at = hits, -1
        view.pages.lay("hits", [Laid(hit.spans, "hits") for hit in hits])
        view.pages.lay("hit", [])
        view.spine.show_hits([hit.page + 0.5 for hit in hits])
        self._list(wanted, hits)
        if not wanted:
            view.place_line.show_count("")
        elif not hits:
            view.place_line.show_count("not found")
        else:
            here = view.here()[0]
            self.go_to(next((k for k, hit in enumerate(hits) if hit.page >= here), 0))

    def _list(self, wanted: str, hits: list[FoundHit]) -> None:
        summary = self._view.reader.summary
        labels = summary.labels if summary else _NO_LABELS
        rows = [
            Row(hit.line, labels.listed(hit.page), k) for k, hit in enumerate(hits[:MAX_LISTED])
        ]
        self._view.contents.show_hits(rows, wanted)

    def step(self, step: int) -> None:
        """To the next (1) or previous (-1) place where the words stand."""
        if self.hits:
            self.go_to((self.at + step) % len(self.hits))

    def go_to(self, index: int) -> None:
        """Show one of the hits."""
        self.at = index
        hit = self.hits[index]
        n, more = len(self.hits), " and more" if len(self.hits) >= MOST_FOUND else ""
        self._view.place_line.show_count(f"{index + 1:,} of {n:,}{more}")
        self._view.pages.lay("hit", [Laid(hit.spans, "tint", bar=True)])
        self._view.pages.reveal(hit.spans)
