"""Going along the spine: scrubbing, looking ahead, and what part of it is in view."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QPoint

from wide_margin.desktop.read_view.preview import PREVIEW_SCALE

if TYPE_CHECKING:
    from wide_margin.core.document import Locator
    from wide_margin.core.pages import FileFacts
    from wide_margin.desktop.read_view.read_view import ReadView


class AlongSpine:
    """Ties the spine of the Read view to its pages."""

    def __init__(self, view: ReadView) -> None:
        """For one view."""
        self._view = view

    def scrub(self, share: float) -> None:
        """Go to a share of the document's length."""
        at = share * self._view.pages.n_pages
        page = min(int(at), max(self._view.pages.n_pages - 1, 0))
        if self._view.reader.facts is not None and self._view.pages.n_pages:
            height = self._view.reader.facts.sizes[page][1]
            self._view.pages.go_to(
                page, (at - page) * height, view_y=self._view.pages.viewport().height() / 2
            )

    def preview(self, share: float, y: int) -> None:
        """Show what is at a place of the spine: a picture, its section and page."""
        summary, session = self._view.reader.summary, self._view.reader.session
        if summary is None or session is None:
            return
        page = min(int(share * summary.n_pages), summary.n_pages - 1)
        section = summary.outline.at_place(page, 300.0)
        title = summary.outline.sections[section].title if section >= 0 else ""
        top = self._view.spine.mapTo(self._view, QPoint(0, y)).y()
        if self._view.preview.show_page(page, f"{summary.labels.shown(page)}  {title}", top):
            self._view.reader.watch(
                session.draw(page, PREVIEW_SCALE),
                done=partial(self._view.preview.show_picture, page),
                failed=lambda _: None,  # the page itself tells why it cannot be drawn
            )

    def measure(self, facts: FileFacts | None) -> None:
        """Take the heights of the pages."""
        if facts is not None:
            self._view.spine.measure(facts.heights)

    def place_of(self, place: Locator) -> float:
        """A place in pages from the start, by where its first character lies on its page."""
        layer = self._view.pages.images.layer(place.page) if place.spans else None
        if layer is not None and self._view.reader.facts is not None:
            span = place.spans[0]
            top = float(layer.page.boxes[span.start : span.end, 1].min(initial=1e9))
            if top < 1e8:
                return float(place.page) + top / self._view.reader.facts.sizes[place.page][1]
        return float(place.page) + 0.5

    def show_view(self) -> None:
        """Mark the part of the document that is in view."""
        height = self._view.pages.viewport().height()
        first, last = self._view.pages.place_at(0.0), self._view.pages.place_at(float(height))
        facts = self._view.reader.facts
        if first and last and facts is not None:
            sizes = facts.sizes
            self._view.spine.show_view(
                first[0] + first[1] / sizes[first[0]][1], last[0] + last[1] / sizes[last[0]][1]
            )
