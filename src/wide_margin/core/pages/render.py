"""Bitmaps of pages."""

from __future__ import annotations

import ctypes
from typing import TYPE_CHECKING

import pypdfium2 as pdfium
import pypdfium2.raw as pdfium_c

from wide_margin.core.errors import PageFailedError
from wide_margin.core.pages.model import Picture

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.pages.document import PdfFile

MAX_PIXELS = 60_000_000
"""Above this a picture is drawn smaller: 240 MB is what one page may cost."""


def draw(pdf: PdfFile, index: int, scale: float, *, clip: Box | None = None) -> Picture:
    """Draw a page, or a part of it, with its annotations and filled-in form fields.

    Args:
        pdf: The open file.
        index: Page index.
        scale: Pixels for each point.
        clip: The part to draw, in page space; the whole page where None.

    Raises:
        PageFailedError: The page cannot be loaded or drawn.
    """
    with pdf.page(index) as page:
        width, height = page.get_size()
        box = clip or (0.0, 0.0, width, height)
        pixels = (box[2] - box[0]) * (box[3] - box[1]) * scale * scale
        if pixels > MAX_PIXELS:
            scale *= (MAX_PIXELS / pixels) ** 0.5
        crop = (box[0], height - box[3], width - box[2], box[1])
        try:
            bitmap = page.render(
                scale=scale,
                crop=crop,
                rev_byteorder=False,
                force_bitmap_format=pdfium_c.FPDFBitmap_BGRx,
            )
        except (pdfium.PdfiumError, ValueError) as error:
            raise PageFailedError(
                f"Page {index + 1} of the file cannot be drawn.",
                hint="The page is damaged; the other pages can be read.",
            ) from error
        data = ctypes.string_at(bitmap.buffer, bitmap.stride * bitmap.height)
        picture = Picture(bitmap.width, bitmap.height, bitmap.stride, data)
        bitmap.close()
        return picture
