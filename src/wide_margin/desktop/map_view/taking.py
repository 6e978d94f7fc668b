"""The map taken away: as a drawing, as a picture, or as the outline of what is open."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QRectF, QSize, Qt
from PySide6.QtGui import QImage, QPainter
from PySide6.QtSvg import QSvgGenerator

from wide_margin.core.export import export_outline
from wide_margin.desktop.map_view.drawing import Geometry, draw

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.map_view.model import MapModel

FORMS = {
    "svg": "Drawing (*.svg)", "png": "Picture (*.png)", "md": "Markdown (*.md)",
    "opml": "OPML (*.opml)",
}  # fmt: skip
SCALE = 2.0
"""Pixels of a picture for each on screen."""
LEAST_HEIGHT = 720.0


def map_as(form: str, model: MapModel, height: float, colours: Colours, title: str) -> bytes:
    """The map as the bytes of a file, in one of FORMS.

    Args:
        form: "svg", "png", "md" or "opml"; the last two hold the sections that are open.
        model: What is shown.
        height: Pixels that it is drawn to.
        colours: To draw in.
        title: Of the document.
    """
    geometry = Geometry(model, max(height, LEAST_HEIGHT))
    match form:
        case "svg":
            return _svg(geometry, colours, title)
        case "png":
            return _png(geometry, colours)
        case _:
            return export_outline(model.shown_outline(), model.labels, form, title).encode()


def _svg(geometry: Geometry, colours: Colours, title: str) -> bytes:
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    generator = QSvgGenerator()
    generator.setOutputDevice(buffer)
    size = QSize(int(geometry.width), int(geometry.height))
    generator.setSize(size)
    generator.setViewBox(QRectF(0, 0, size.width(), size.height()))
    generator.setTitle(title)
    painter = QPainter(generator)
    draw(painter, geometry, colours)
    painter.end()
    buffer.close()
    return bytes(data.data())


def _png(geometry: Geometry, colours: Colours) -> bytes:
    image = QImage(
        int(geometry.width * SCALE), int(geometry.height * SCALE), QImage.Format.Format_RGB32
    )
    image.fill(Qt.GlobalColor.white)
    painter = QPainter(image)
    painter.scale(SCALE, SCALE)
    draw(painter, geometry, colours)
    painter.end()
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    image.save(buffer, "PNG")  # type: ignore[call-overload]
    return bytes(data.data())
