"""Printing pages at their true size."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QMarginsF, QRectF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter
from PySide6.QtPrintSupport import QPrinter

from wide_margin.core.geometry import FloatArray
from wide_margin.core.pages import Picture
from wide_margin.desktop.read_view.page_images import image_from

DOTS_PER_INCH = 200


def print_pages(
    printer: QPrinter,
    pages: Sequence[int],
    sizes: FloatArray,
    draw: Callable[[int, float], Picture],
) -> int:
    """Print pages, each on paper of its own size where the printer allows, at true scale.

    Args:
        printer: Where to.
        pages: Page indexes.
        sizes: (n, 2) sizes of the document's pages in points.
        draw: Gives a picture of a page at some pixels a point.

    Returns:
        How many pages were printed.
    """
    printer.setFullPage(True)
    painter = QPainter()
    n_printed = 0
    for page in pages:
        width, height = (float(side) for side in sizes[page])
        size = QPageSize(QSizeF(width, height), QPageSize.Unit.Point)
        printer.setPageLayout(QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF()))
        if not painter.isActive():
            if not painter.begin(printer):
                return 0
        else:
            printer.newPage()
        image = image_from(draw(page, DOTS_PER_INCH / 72))
        dots = printer.resolution() / 72
        painter.drawImage(QRectF(0, 0, width * dots, height * dots), image)
        n_printed += 1
    painter.end()
    return n_printed
