"""Pictures of figures and tables for what is taken away."""

from __future__ import annotations

import io
from collections.abc import Callable
from typing import TYPE_CHECKING

from PIL import Image

from wide_margin.core.errors import WideMarginError

if TYPE_CHECKING:
    from wide_margin.core.digest.talk import Sheet
    from wide_margin.core.pages import Picture
    from wide_margin.core.session.session import Session

SCALE = 2.0
"""Pixels of a picture for each point."""


def figure_pictures(session: Session) -> Callable[[Sheet], bytes | None]:
    """A function that draws the figure of a sheet as PNG; None where there is none to draw."""

    def drawn(sheet: Sheet) -> bytes | None:
        figure = sheet.figure
        if figure is None:
            return None
        try:
            return png_of(session.draw(figure.page, SCALE, figure.box).result())
        except WideMarginError:
            return None

    return drawn


def png_of(picture: Picture) -> bytes:
    """A bitmap as PNG."""
    size = picture.width, picture.height
    image = Image.frombuffer("RGB", size, picture.data, "raw", "BGRX", picture.stride, 1)
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()
