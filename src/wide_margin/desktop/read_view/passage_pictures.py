"""Small pictures of passages, drawn one after the other, the words in question tinted."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QRectF
from PySide6.QtGui import QColor, QImage, QPainter

from wide_margin.core.geometry import around
from wide_margin.core.layout import SpanOnPage, boxes_of
from wide_margin.core.session import Session
from wide_margin.desktop.look import Colours
from wide_margin.desktop.read_view.page_images import image_from

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout import TextLayer
    from wide_margin.core.pages import Picture
    from wide_margin.desktop.background import Background

SCALE = 1.5
"""Pixels a point: enough to be enlarged under the pointer."""
SIDES, ABOVE = 12.0, 15.0
"""Points shown beside and above and below the words."""
LEAST, MOST = 64.0, 150.0
"""Points of height at least and at most."""

Shown = Callable[[QImage], None]


@dataclass(frozen=True, slots=True)
class _Wish:
    session: Session
    page: int
    spans: tuple[SpanOnPage, ...]
    colours: Colours
    shown: Shown
    heights: tuple[float, float]


class PassagePictures(QObject):
    """Draws what is wished for; a new answer drops the wishes of the one before."""

    def __init__(self, background: Background, parent: QObject) -> None:
        super().__init__(parent)
        self._background = background
        self._wishes: deque[_Wish] = deque()
        self._drawing: _Wish | None = None

    def drop(self) -> None:
        """Forget what is not drawn yet."""
        self._wishes.clear()
        self._drawing = None

    def want(
        self,
        session: Session,
        spans: Sequence[SpanOnPage],
        colours: Colours,
        shown: Shown,
        heights: tuple[float, float] = (LEAST, MOST),
    ) -> None:
        """Draw the first page of a passage around its words, so many points of it high."""
        if not spans:
            return
        page = spans[0].page
        here = tuple(span for span in spans if span.page == page)
        self._wishes.append(_Wish(session, page, here, colours, shown, heights))
        if self._drawing is None:
            self._next()

    def _next(self) -> None:
        self._drawing = self._wishes.popleft() if self._wishes else None
        if wish := self._drawing:
            self._background.watch(
                wish.session.text(wish.page),
                done=partial(self._draw, wish),
                failed=partial(self._go_on, wish),
            )

    def _draw(self, wish: _Wish, layer: TextLayer) -> None:
        boxes = boxes_of(layer.page, wish.spans)
        if not boxes or wish is not self._drawing:
            self._go_on(wish)
            return
        shown = _frame(
            boxes,
            [line.box for line in layer.lines],
            layer.page.width,
            layer.page.height,
            wish.heights,
        )
        self._background.watch(
            wish.session.draw(wish.page, SCALE, shown),
            done=partial(self._drawn, wish, boxes, shown),
            failed=partial(self._go_on, wish),
        )

    def _drawn(self, wish: _Wish, boxes: Sequence[Box], shown: Box, picture: Picture) -> None:
        if wish is self._drawing:
            image = image_from(picture, night=wish.colours.is_night)
            tint_words(image, boxes, shown, SCALE, wish.colours)
            wish.shown(image)
        self._go_on(wish)

    def _go_on(self, wish: _Wish, *_: object) -> None:
        if wish is self._drawing:
            self._next()


def _frame(
    boxes: Sequence[Box],
    lines: Sequence[Box],
    width: float,
    height: float,
    heights: tuple[float, float],
) -> Box:
    """What is shown of a page: the column of the words, not too low and not too high."""
    least, most = heights
    x0, y0, x1, y1 = around(boxes)
    near = [
        line for line in lines
        if line[1] < y1 + least and line[3] > y0 - least and line[0] < x1 and line[2] > x0
    ]  # fmt: skip
    x0, _, x1, _ = around([(x0, y0, x1, y1), *near])
    missing = max(least - (y1 - y0) - 2 * ABOVE, 0.0) / 2
    top = max(y0 - ABOVE - missing, 0.0)
    bottom = min(max(y1 + ABOVE + missing, top + least), top + most, height)
    return max(x0 - SIDES, 0.0), top, min(x1 + SIDES, width), bottom


def tint_words(
    image: QImage, boxes: Sequence[Box], shown: Box, scale: float, colours: Colours
) -> None:
    """Lay the evidence tint under words.

    Args:
        image: A picture of a part of a page.
        boxes: Of the words, in page space.
        shown: The part that the picture shows.
        scale: Pixels a point.
        colours: Day or night.
    """
    painter = QPainter(image)
    night = QPainter.CompositionMode.CompositionMode_Screen
    day = QPainter.CompositionMode.CompositionMode_Multiply
    painter.setCompositionMode(night if colours.is_night else day)
    for x0, y0, x1, y1 in boxes:
        area = QRectF((x0 - shown[0] - 3) * scale, (y0 - shown[1] - 2) * scale,
                      (x1 - x0 + 6) * scale, (y1 - y0 + 4) * scale)  # fmt: skip
        painter.fillRect(area, QColor(colours.tint))
    painter.end()
