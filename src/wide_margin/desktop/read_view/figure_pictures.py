"""The pictures in the list of figures, drawn one after the other."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from wide_margin.desktop.read_view.contents_panel import PICTURE_WIDTH
from wide_margin.desktop.read_view.page_images import image_from

if TYPE_CHECKING:
    from wide_margin.core.pages import Picture
    from wide_margin.core.session import ReadSummary
    from wide_margin.desktop.read_view.read_view import ReadView


class FigurePictures:
    """Draws them while the list is looked at."""

    def __init__(self, view: ReadView) -> None:
        """For one view."""
        self._view = view
        self._n_drawn = 0

    def begin(self) -> None:
        """The list is new: none of its pictures is drawn."""
        self._n_drawn = 0

    def draw_next(self) -> None:
        """Draw the pictures of the figures list, one after the other."""
        summary, session = self._view.reader.summary, self._view.reader.session
        row = self._n_drawn
        if summary is None or session is None or row >= len(summary.figures):
            return
        figure = summary.figures[row]
        scale = 2 * PICTURE_WIDTH / max(figure.box[2] - figure.box[0], 40.0)
        self._n_drawn += 1
        self._view.reader.watch(
            session.draw(figure.page, scale, figure.box),
            done=partial(self._drawn, summary, row),
            failed=lambda _: self.draw_next(),
        )

    def _drawn(self, summary: ReadSummary, row: int, picture: Picture) -> None:
        now = self._view.reader.summary
        if now is not None and summary.figures is now.figures:
            self._view.contents.show_picture(
                row, image_from(picture, night=self._view.colours.is_night)
            )
            self.draw_next()
