"""The drawing of the map: the same for the window, for pictures and for SVG files."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QFontMetricsF, QPainter, QPen

from wide_margin.core.plain import one_line
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.map_view.model import MapModel

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.map_view.model import Bar

AXIS, HEAD, FOOT = 40.0, 34.0, 12.0
WIDTHS = (176.0, 136.0, 96.0, 72.0, 60.0)
"""Of the columns of bars, from the outermost level."""
BESIDE, LINES = 4.0, 34.0
"""Between two columns of bars, and after them, where lines between sections are drawn."""
STROKES, APART = 52.0, 18.0
"""Of a column of strokes, and between two."""
BIN = 3.0
"""Strokes nearer than this are one, and longer."""
LEAST_LABEL = 12.0
"""A lower bar has no label."""
CROSSED = 12
"""Pixels from the middle of a label within which a line goes through it."""
NAMES = (("figures", "Figures"), ("entries", "Entries"), ("held", "Held answer"))
LEVELS = ("Parts", "Chapters", "Sections")


@dataclass(frozen=True, slots=True)
class Geometry:
    """Where everything is, for a height in pixels."""

    model: MapModel
    height: float

    def y(self, place: float) -> float:
        """Pixels from the top of a place."""
        span = max(self.height - HEAD - FOOT, 1.0)
        return HEAD + span * min(max(place / max(self.model.n_pages, 1), 0.0), 1.0)

    def place(self, y: float) -> float:
        """The reverse of y."""
        span = max(self.height - HEAD - FOOT, 1.0)
        return (y - HEAD) / span * self.model.n_pages

    def bar_x(self, column: int) -> float:
        """Left edge of a column of bars."""
        return AXIS + sum(WIDTHS[:column]) + BESIDE * column

    @property
    def bars_end(self) -> float:
        """Right edge of the last column of bars."""
        return self.bar_x(self.model.n_columns) - BESIDE

    def column_at(self, x: float) -> int:
        """The column of bars at a distance from the left; -1 beside them."""
        for column in range(self.model.n_columns):
            if self.bar_x(column) <= x < self.bar_x(column) + WIDTHS[column] + BESIDE:
                return column
        return -1

    def strokes_x(self, k: int) -> float:
        """Left edge of a column of strokes."""
        return self.bars_end + LINES + k * (STROKES + APART)

    @property
    def width(self) -> float:
        """Of everything."""
        return self.strokes_x(len(self.model.terms) + len(NAMES))


def draw(painter: QPainter, geometry: Geometry, colours: Colours) -> None:
    """Draw everything but what is pointed at."""
    model = geometry.model
    painter.fillRect(QRectF(0, 0, geometry.width, geometry.height), QColor(colours.paper))
    if not model.n_pages:
        return
    _axis(painter, geometry, colours)
    _bars(painter, geometry, colours)
    tops = [
        (geometry.y(b.start), geometry.y(b.end), b.section) for b in model.bars() if not b.column
    ]
    for k, term in enumerate(model.terms):
        x = geometry.strokes_x(k)
        _column(painter, geometry, colours, x, term.term)
        places = [place.at for place in term.places or ()]
        _strokes(painter, geometry, x, places, colours.ink)
        counts = model.counts_by_bar(term)
        _counts(painter, x, tops, counts, colours)
    for k, (name, title) in enumerate(NAMES, start=len(model.terms)):
        x = geometry.strokes_x(k)
        _column(painter, geometry, colours, x, title)
        colour = {"figures": colours.secondary, "entries": colours.ochre, "held": colours.madder}
        for place in getattr(model, name):
            painter.fillRect(QRectF(x, geometry.y(place) - 1, 10, 2), QColor(colour[name]))


def _axis(painter: QPainter, geometry: Geometry, colours: Colours) -> None:
    """Page numbers down the left edge, so many as there is room for."""
    model = geometry.model
    painter.setFont(sans_font(-2))
    painter.setPen(QColor(colours.secondary))
    pixels = (geometry.height - HEAD - FOOT) / max(model.n_pages, 1)
    step = next((s for s in (1, 2, 5, 10, 20, 50, 100, 200, 500) if s * pixels >= 34), 1000)
    for page in [0, *range(step - 1, model.n_pages, step)]:
        if 0 < page < step / 2:
            continue
        shown = model.labels.of(page) or str(page + 1)
        room = QRectF(0, geometry.y(page) - 8, AXIS - 6, 16)
        painter.drawText(
            room, int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter), shown
        )


def _bars(painter: QPainter, geometry: Geometry, colours: Colours) -> None:
    model = geometry.model
    painter.setFont(sans_font(-1.5))
    painter.setPen(QColor(colours.secondary))
    for column in range(model.n_columns):
        name = LEVELS[column] if column < len(LEVELS) and model.n_columns > 1 else "Sections"
        room = QRectF(geometry.bar_x(column) + 6, 6, WIDTHS[column] - 6, HEAD - 12)
        painter.drawText(room, int(Qt.AlignmentFlag.AlignVCenter), name)
    grounds = (QColor(colours.rule), QColor(colours.chosen if colours.is_night else colours.desk))
    nth = [0] * (model.n_columns + 1)
    font = sans_font(-1.5)
    metrics = QFontMetricsF(font)
    painter.setFont(font)
    for bar in model.bars():
        nth[bar.column] += 1
        area = _area(geometry, bar)
        painter.fillRect(area, grounds[nth[bar.column] % 2])
        if area.height() >= LEAST_LABEL:
            painter.setPen(QColor(colours.ink))
            title = one_line(model.outline.sections[bar.section].title, 120)
            can_open = model.can_open(bar.section)
            sign = ("− " if bar.is_open else "+ ") if can_open else ""
            width = WIDTHS[bar.column] - 10
            shown = metrics.elidedText(sign + title, Qt.TextElideMode.ElideRight, width)
            painter.drawText(area.adjusted(6, 0, -4, 0), int(Qt.AlignmentFlag.AlignVCenter), shown)


def _area(geometry: Geometry, bar: Bar) -> QRectF:
    top, bottom = geometry.y(bar.start), geometry.y(bar.end)
    height = max(bottom - top - (1.5 if bottom - top > 4 else 0.3), 0.7)
    return QRectF(geometry.bar_x(bar.column), top, WIDTHS[bar.column], height)


def _column(painter: QPainter, geometry: Geometry, colours: Colours, x: float, title: str) -> None:
    painter.fillRect(QRectF(x, HEAD, STROKES, geometry.height - HEAD - FOOT), QColor(colours.panel))
    font = sans_font(-1.5)
    painter.setFont(font)
    painter.setPen(QColor(colours.ink))
    shown = QFontMetricsF(font).elidedText(
        one_line(title, 60), Qt.TextElideMode.ElideRight, STROKES + APART - 4
    )
    room = QRectF(x, 6, STROKES + APART - 2, HEAD - 12)
    painter.drawText(room, int(Qt.AlignmentFlag.AlignVCenter), shown)


def _strokes(
    painter: QPainter, geometry: Geometry, x: float, places: Iterable[float], colour: str
) -> None:
    """A stroke where something stands; where it stands often, a longer one."""
    often: dict[int, int] = {}
    for place in places:
        key = int(geometry.y(place) / BIN)
        often[key] = often.get(key, 0) + 1
    most = max(often.values(), default=1)
    for key, n in often.items():
        length = 10 + (STROKES - 12) * (math.log1p(n) / math.log1p(max(most, 4)))
        painter.fillRect(QRectF(x, key * BIN, min(length, STROKES), 2), QColor(colour))


def _counts(
    painter: QPainter,
    x: float,
    tops: Sequence[tuple[float, float, int]],
    counts: dict[int, int],
    colours: Colours,
) -> None:
    """How often, beside each outermost section that is high enough."""
    painter.setFont(sans_font(-2.5))
    painter.setPen(QColor(colours.secondary))
    for top, bottom, section in tops:
        if bottom - top >= LEAST_LABEL and counts.get(section):
            room = QRectF(x + STROKES - 20, top, 34, bottom - top)
            flags = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
            painter.drawText(room, int(flags), str(counts[section]))


def draw_pointed(
    painter: QPainter, geometry: Geometry, colours: Colours, section: int, tied: Sequence[int]
) -> None:
    """A frame around a section over all columns, and lines to the sections it is tied to."""
    sections = geometry.model.outline.sections
    if not 0 <= section < len(sections):
        return
    model = geometry.model

    def middle(row: int) -> float:
        one = sections[row]
        start, end = model.place(one.page, one.y), model.place(one.end_page, one.end_y)
        return (geometry.y(start) + geometry.y(end)) / 2

    painter.setPen(QPen(QColor(colours.verdigris), 1))
    x, here = geometry.bars_end + 2, middle(section)
    for k, row in enumerate(tied):
        out = x + 8 + 3 * (k % 7)
        there = middle(row)
        for a, b in (
            ((x, here), (out, here)),
            ((out, here), (out, there)),
            ((out, there), (x, there)),
        ):
            painter.drawLine(QPointF(*a), QPointF(*b))
    one = sections[section]
    top = geometry.y(model.place(one.page, one.y))
    bottom = max(geometry.y(model.place(one.end_page, one.end_y)), top + 3)
    painter.setPen(QPen(QColor(colours.ink), 1.5))
    painter.drawRect(QRectF(AXIS - 2, top - 1, geometry.bars_end - AXIS + 4, bottom - top + 1))
    _name_pointed(painter, geometry, colours, section, (top + bottom) / 2)


def _name_pointed(
    painter: QPainter, geometry: Geometry, colours: Colours, section: int, y: float
) -> None:
    """The titles of a section and of those around it whose bars are too low for a label."""
    model, font = geometry.model, sans_font(-1.5, bold=True)
    metrics = QFontMetricsF(font)
    painter.setFont(font)
    rows = [section]
    while (above := model.parent(rows[-1])) >= 0:
        rows.append(above)
    areas = {bar.section: _area(geometry, bar) for bar in model.bars() if bar.section in rows}
    labels = {k: a.center().y() for k, a in areas.items() if a.height() >= LEAST_LABEL}
    for row in rows:
        column = model.depth(row)
        at = labels.get(row, y)
        is_crossed = row != section and abs(at - y) < CROSSED  # by the frame, which would strike it
        if column < model.n_columns and (row not in labels or is_crossed):
            width = WIDTHS[column] - 8
            title = one_line(model.outline.sections[row].title, 120)
            shown = metrics.elidedText(title, Qt.TextElideMode.ElideRight, width)
            room = QRectF(geometry.bar_x(column) + 2, at - 8, WIDTHS[column] - 4, 16)
            painter.fillRect(room, QColor(colours.paper))
            painter.setPen(QColor(colours.ink))
            painter.drawText(room.adjusted(4, 0, 0, 0), int(Qt.AlignmentFlag.AlignVCenter), shown)
