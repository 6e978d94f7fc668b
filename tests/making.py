"""Made documents: PDFs with known text, and what reading them gives."""

from collections.abc import Sequence
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.jobs import CancelToken, no_progress
from wide_margin.core.layout import lines_of
from wide_margin.core.pages import PageText
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.text import read_text
from wide_margin.core.search import ReadDocument, understand

WIDTH, HEIGHT = A4
STYLES = {
    "head": ("Times-Italic", 9),
    "h1": ("Times-Bold", 18),
    "h2": ("Times-Bold", 13),
    "text": ("Times-Roman", 11),
    "small": ("Times-Roman", 8),
    "code": ("Courier", 10),
    "item": ("Times-Roman", 11),
}
Block = tuple[str, str]


def wrapped(text: str, font: str, size: float, width: float) -> list[str]:
    """Words set into lines of a width."""
    lines, line = [], ""
    for word in text.split():
        longer = f"{line} {word}".strip()
        if line and stringWidth(longer, font, size) > width:
            lines.append(line)
            line = word
        else:
            line = longer
    return [*lines, line]


def make_pdf(path: Path, pages: Sequence[Sequence[Block]], *, numbers: bool = True) -> None:
    """Write a PDF of A4 pages, each a list of (style, text); page numbers at the foot."""
    canvas = Canvas(str(path), pagesize=A4, invariant=1)
    for number, blocks in enumerate(pages, start=1):
        y = HEIGHT - 90
        for style, text in blocks:
            font, size = STYLES[style]
            canvas.setFont(font, size)
            if style == "head":
                canvas.drawString(72, HEIGHT - 45, text)
                continue
            y -= size * 0.8
            for line in wrapped(text, font, size, WIDTH - 144):
                canvas.drawString(72, y, line)
                y -= size * 1.25
            y -= size * 0.6
        if numbers and blocks:
            canvas.setFont("Times-Roman", 9)
            canvas.drawCentredString(WIDTH / 2, 40, str(number))
        canvas.showPage()
    canvas.save()


def page_texts(path: Path) -> list[PageText]:
    """The characters of every page."""
    pdf = PdfFile(path)
    try:
        return [read_text(pdf, index) for index in range(pdf.n_pages)]
    finally:
        pdf.close()


def read_document(path: Path, *, use_bookmarks: bool = True) -> ReadDocument:
    """Read a PDF in this process, without workers or cache."""
    pdf = PdfFile(path)
    try:
        facts = pdf.facts()
        bookmarks = list(pdf.bookmarks()) if use_bookmarks else []
        lines = [lines_of(read_text(pdf, index)) for index in range(pdf.n_pages)]
    finally:
        pdf.close()
    return understand(facts, bookmarks, lines, [], CancelToken(), no_progress)
