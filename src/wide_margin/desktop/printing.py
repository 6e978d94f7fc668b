"""Printing pages at their true size."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import TYPE_CHECKING, NamedTuple

from PySide6.QtCore import QMarginsF, QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QColor, QPageLayout, QPageSize, QPainter, QPen
from PySide6.QtPrintSupport import QPrintDialog, QPrinter

from wide_margin.core.export.entries import said_in
from wide_margin.core.margin.gathering import ink_of
from wide_margin.core.plain import counted, plain
from wide_margin.core.session.placing import placed
from wide_margin.desktop.ink_edges import ink_name
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.read_view.page_images import image_from

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry
    from wide_margin.core.pages import Picture
    from wide_margin.core.pages.model import PageSize
    from wide_margin.core.session import Session
    from wide_margin.desktop.main_window import MainWindow

DOTS_PER_INCH = 200
MARGIN, INSET, APART = 230.0, 14.0, 8.0
"""Points: width of a printed margin, its inset, and between two entries in it."""
MOST_LINES = 12
TYPE = 8.0
"""Points of its type."""


class InMargin(NamedTuple):
    """An entry as it is printed beside its page."""

    y: float
    """Of its passage, points from the top of the page."""
    about: str
    """What it is, in a word or two."""
    said: tuple[str, ...]


def in_margin(entry: Entry, y: float) -> InMargin:
    """An entry to be printed beside its passage."""
    ink = ink_of(entry)
    about = ink_name(ink) if ink is not None else str(entry.kind)
    return InMargin(y, " · ".join([about, *entry.tags]), tuple(said_in(entry)[:MOST_LINES]))


def margin_on(session: Session, entries: Sequence[Entry], page: int) -> list[InMargin]:
    """What stands in the margin of a page; waits for the page's text."""
    own = [e for e in entries if e.anchor.page == page and e.anchor.has_place]
    boxes = {
        item.entry.id: min((box[1] for at, box in item.boxes if at == page), default=0.0)
        for item in placed(session, own)
    }
    return [in_margin(e, boxes[e.id] or max(e.anchor.y, 0.0)) for e in own]


def _print_margin(
    painter: QPainter, dots: float, area: QRectF, entries: Sequence[InMargin]
) -> None:
    """Print entries down a margin, each at its passage or below the one before.

    Args:
        painter: On the printer.
        dots: Of the printer for each point.
        area: The margin, in points.
        entries: What stands in it, in any order.
    """
    font = sans_font()
    font.setPixelSize(max(int(TYPE * dots), 1))
    painter.setFont(font)
    painter.setPen(QPen(QColor(DAY.rule), 0.5 * dots))
    left, right = area.left() + INSET, area.right() - INSET
    painter.drawLine(
        QPointF(area.left() * dots, INSET * dots), QPointF(area.left() * dots, area.height() * dots)
    )
    top = INSET
    for entry in sorted(entries):
        text = plain("\n".join([entry.about, *entry.said]))
        room = QRectF(left * dots, max(top, entry.y) * dots, (right - left) * dots, 1e6)
        flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap
        taken = painter.boundingRect(room, int(flags), text)
        lowest = (area.height() - INSET) * dots - taken.height()
        room.moveTop(max(min(room.top(), lowest), top * dots))
        room.setHeight(taken.height())
        painter.fillRect(
            QRectF((left - 5) * dots, room.top(), 1.5 * dots, room.height()), QColor(DAY.verdigris)
        )
        painter.setPen(QColor(DAY.ink))
        painter.drawText(room, int(flags), text)
        top = room.bottom() / dots + APART


def print_pages(
    printer: QPrinter,
    pages: Sequence[int],
    sizes: Sequence[PageSize],
    draw: Callable[[int, float], Picture],
    margin_of: Callable[[int], Sequence[InMargin]] | None = None,
) -> int:
    """Print pages, each on paper of its own size where the printer allows, at true scale.

    Args:
        printer: Where to.
        pages: Page indexes.
        sizes: Of the document's pages.
        draw: Gives a picture of a page at some pixels a point.
        margin_of: What stands in the margin of a page, where that is printed beside it.

    Returns:
        How many pages were printed.
    """
    printer.setFullPage(True)
    painter = QPainter()
    n_printed = 0
    for page in pages:
        width, height = sizes[page]
        beside = MARGIN if margin_of is not None else 0.0
        size = QPageSize(QSizeF(width + beside, height), QPageSize.Unit.Point)
        printer.setPageLayout(QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF()))
        if not painter.isActive():
            if not painter.begin(printer):
                return 0
        else:
            printer.newPage()
        image = image_from(draw(page, DOTS_PER_INCH / 72))
        dots = printer.resolution() / 72
        painter.drawImage(QRectF(0, 0, width * dots, height * dots), image)
        if margin_of is not None:
            area = QRectF(width, 0, beside, height)
            _print_margin(painter, dots, area, margin_of(page))
        n_printed += 1
    painter.end()
    return n_printed


class Printing:
    """Prints the document of a window."""

    def __init__(self, window: MainWindow) -> None:
        """For one window."""
        self._window = window

    def ask(self, *, with_margin: bool = False) -> None:
        """Print some pages at their true size."""
        facts, session = self._window.reader.facts, self._window.reader.session
        if facts is None or session is None:
            return
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setFromTo(1, facts.n_pages)
        dialog = QPrintDialog(printer, self._window)
        dialog.setOption(QPrintDialog.PrintDialogOption.PrintPageRange)
        dialog.setMinMax(1, facts.n_pages)
        if dialog.exec():
            self.print_to(printer, with_margin=with_margin)

    def print_to(self, printer: QPrinter, *, with_margin: bool = False) -> None:
        """Print the printer's range of pages, off the UI thread."""
        facts, session = self._window.reader.facts, self._window.reader.session
        assert facts is not None
        assert session is not None
        first, last = printer.fromPage() or 1, printer.toPage() or facts.n_pages
        pages = range(first - 1, min(last, facts.n_pages))
        self._window.read_view.show_status(f"Printing {counted(len(pages), 'page')}…")
        entries = list(self._window.reader.entries.values())
        margin_of = partial(margin_on, session, entries) if with_margin else None
        self._window.reader.background.submit(
            lambda token, report: print_pages(
                printer,
                pages,
                facts.sizes,
                lambda page, scale: session.draw(page, scale).result(),
                margin_of,
            ),
            done=lambda n: self._window.read_view.show_status(
                f"{counted(n, 'page')} {'was' if n == 1 else 'were'} printed.", for_ms=8000
            ),
            failed=self._window.reader.problem.emit,
        )
