"""Painting pages, and what is laid over them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QImage, QPainter, QPen, QTransform

from wide_margin.core.geometry import Box
from wide_margin.core.layout import SpanOnPage, boxes_of
from wide_margin.core.margin import Ink, MarkForm
from wide_margin.desktop.ink_edges import ink_pen
from wide_margin.desktop.look import DAY, sans_font

if TYPE_CHECKING:
    from wide_margin.core.layout import TextLayer
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.desk_view import DeskView

LAYERS = ("marks", "hits", "hit", "evidence")
"""What is laid over the pages, the lowest first."""


@dataclass(frozen=True, slots=True)
class Laid:
    """Something laid over passages of the pages, or around a region of one."""

    spans: tuple[SpanOnPage, ...]
    colour: str
    """Name in Colours."""
    bar: bool = False
    """Whether a bar stands at the start, as for evidence."""
    region: tuple[int, Box] | None = None
    """Page index and box to draw a line around."""
    ink: Ink | None = None
    """Of a mark: its line is drawn under the words, so that not the colour alone tells it."""
    form: MarkForm = MarkForm.HIGHLIGHT
    """Of a mark: only a highlight fills the ground of the words."""
    key: str = ""
    """Of a mark: its entry."""


def by_page(items: Sequence[Laid]) -> dict[int, list[Laid]]:
    """What lies on each page."""
    on: dict[int, list[Laid]] = {}
    for item in items:
        pages = {span.page for span in item.spans}
        if item.region is not None:
            pages.add(item.region[0])
        for page in pages:
            on.setdefault(page, []).append(item)
    return on


def paint_page(
    painter: QPainter,
    view: DeskView,
    page: int,
    laid: Mapping[str, Mapping[int, Sequence[Laid]]],
    selected: Iterable[SpanOnPage],
) -> None:
    """Draw one page where it is in the view, with what lies over it.

    Args:
        painter: On the view's viewport.
        view: Where the page is, and its picture.
        page: Page index.
        laid: For each of LAYERS, what lies on each page.
        selected: The selected characters.
    """
    frame = view.page_rect(page)
    shadow = QColor(0, 0, 0, 60 if view.colours.is_night else 28)
    painter.fillRect(frame.adjusted(1, 2, 2, 3), shadow)
    painter.fillRect(frame, QColor(view.colours.page))
    drawn = view.images.image(page)
    if drawn is not None and drawn.is_night == view.colours.is_night:
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(frame, _turned(view, drawn.image))
        detail = view.images.detail(page)
        wanted = view.scale * view.devicePixelRatioF()
        sharper = detail is not None and drawn.scale < 0.99 * wanted
        if sharper and detail is not None and abs(detail.scale - wanted) < 0.01 * wanted:
            assert detail.clip is not None
            part = view.to_view(page, detail.clip)
            painter.drawImage(part, _turned(view, detail.image))
    elif page in view.images.failures:
        error = view.images.failures[page]
        painter.setPen(QColor(view.colours.ink if view.colours.is_night else DAY.ink))
        painter.setFont(sans_font(1))
        text = f"{error.message}\n{error.hint}\nClick here to try again."
        flags = Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap
        painter.drawText(frame.adjusted(40, 40, -40, -40), flags, text)
    layer = view.images.layer(page)
    if layer is not None:
        _paint_laid(painter, view, page, layer, laid, selected)


def paint_ends(painter: QPainter, ends: Sequence[tuple[float, QRectF]], colours: Colours) -> None:
    """Draw what the hand takes the ends of a mark by: x and line of each."""
    for k, (x, line) in enumerate(ends):
        painter.fillRect(QRectF(x - 1, line.top() - 2, 2, line.height() + 4), QColor(colours.ink))
        y = line.top() - 6 if k == 0 else line.bottom() + 1
        painter.fillRect(QRectF(x - 3, y, 6, 5), QColor(colours.ink))


def _turned(view: DeskView, image: QImage) -> QImage:
    return image.transformed(QTransform().rotate(90 * view.turns)) if view.turns else image


def _paint_laid(
    painter: QPainter,
    view: DeskView,
    page: int,
    layer: TextLayer,
    laid: Mapping[str, Mapping[int, Sequence[Laid]]],
    selected: Iterable[SpanOnPage],
) -> None:
    mode = QPainter.CompositionMode
    painter.setCompositionMode(
        mode.CompositionMode_Screen if view.colours.is_night else mode.CompositionMode_Multiply
    )
    bars: list[QRectF] = []
    lines: list[tuple[QRectF, Laid]] = []
    regions: list[QRectF] = []
    for name in LAYERS:
        for item in laid.get(name, {}).get(page, ()):
            if item.region is not None and item.region[0] == page:
                regions.append(view.to_view(page, item.region[1]))
            boxes = [view.to_view(page, box) for box in view.images.boxes_of(page, item.spans)]
            colour = QColor(getattr(view.colours, item.colour))
            for box in boxes if item.form is MarkForm.HIGHLIGHT else ():
                painter.fillRect(box.adjusted(-1, -1, 1, 1), colour)
            if item.ink is not None:
                lines += [(box, item) for box in boxes]
            if item.bar and boxes:
                bars.append(QRectF(boxes[0].left() - 5, boxes[0].top(), 3, boxes[0].height()))
    chosen_here = [span for span in selected if span.page == page]
    for chosen in boxes_of(layer.page, chosen_here):
        painter.fillRect(view.to_view(page, chosen), QColor(view.colours.selection))
    painter.setCompositionMode(mode.CompositionMode_SourceOver)
    for box, item in lines:
        assert item.ink is not None
        painter.setPen(ink_pen(item.ink, view.colours))
        y = box.center().y() if item.form is MarkForm.STRIKE else box.bottom()
        painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
    for bar in bars:
        painter.fillRect(bar, QColor(view.colours.madder))
    painter.setPen(QPen(QColor(view.colours.madder), 1.5))
    for region in regions:
        painter.drawRect(region.adjusted(-3, -3, 3, 3))
