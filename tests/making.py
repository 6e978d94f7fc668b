"""Made documents: PDFs with known text, and what reading them gives."""

from collections.abc import Sequence
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.document import ReadDocument, understand
from wide_margin.core.jobs import CancelToken, no_progress
from wide_margin.core.layout import lines_of
from wide_margin.core.pages import PageText
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.source import TextSource
from wide_margin.core.pages.text import read_text

PATIENT = 120.0
"""Seconds within which what must come has come, also on a machine with much else to do."""
WIDTH, HEIGHT = A4
STYLES = {
    "head": ("Times-Italic", 9),
    "title": ("Times-Bold", 26),
    "h1": ("Times-Bold", 18),
    "h2": ("Times-Bold", 13),
    "text": ("Times-Roman", 11),
    "small": ("Times-Roman", 8),
    "bold": ("Times-Bold", 11),
    "bold12": ("Times-Bold", 12),
    "slanted": ("Times-Italic", 11),
    "code": ("Courier", 10),
    "item": ("Times-Roman", 11),
    "said": ("Times-Roman", 11),
    "entry": ("Times-Roman", 11),
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


def make_pdf(
    path: Path,
    pages: Sequence[Sequence[Block]],
    *,
    numbers: bool = True,
    labels: Sequence[str] | None = None,
    bookmarks: Sequence[tuple[str, int, int]] = (),
) -> None:
    """Write a PDF of A4 pages, each a list of (style, text); page numbers at the foot.

    A style "toc1" is a contents line, indented by one step: its text is "title|number" with
    leaders between, "title||number" without, "first line/second line|number" on two lines, or a
    title alone. A style "said" is text further in, under a term; an "entry" is "term|description"
    with the description hanging beside. Labels are printed in place of numbers. Bookmarks are
    (title, level, page index).
    """
    canvas = Canvas(str(path), pagesize=A4, invariant=1)
    for k, (title, level, _) in enumerate(bookmarks):
        canvas.addOutlineEntry(title, f"mark{k}", level=level, closed=False)
    for number, blocks in enumerate(pages, start=1):
        for k, (_, _, page) in enumerate(bookmarks):
            if page == number - 1:
                canvas.bookmarkPage(f"mark{k}")
        y = HEIGHT - 90
        for style, text in blocks:
            if style.startswith("toc"):
                y = _contents_line(canvas, y, 20 * int(style[3:] or 0), text)
                continue
            font, size = STYLES[style]
            canvas.setFont(font, size)
            left = {"said": 112.0, "entry": 182.0}.get(style, 72.0)
            if style == "entry":
                term, _, text = text.partition("|")
                canvas.drawString(72, y - size * 0.8, term)
            if style == "head":
                canvas.drawString(72, HEIGHT - 45, text)
                continue
            y -= size * 0.8
            for line in wrapped(text, font, size, WIDTH - 72 - left):
                canvas.drawString(left, y, line)
                y -= size * 1.25
            y -= size * 0.6
        if numbers and blocks:
            canvas.setFont("Times-Roman", 9)
            printed = labels[number - 1] if labels else str(number)
            canvas.drawCentredString(WIDTH / 2, 40, printed)
        canvas.showPage()
    canvas.save()


def _contents_line(canvas: Canvas, y: float, indent: float, text: str) -> float:
    canvas.setFont("Times-Roman", 11)
    title, _, number = text.partition("|")
    led = not number.startswith("|")
    first, *rest = title.split("/")
    for k, line in enumerate([first, *rest]):
        y -= 14
        canvas.drawString(72 + indent + (10 if k else 0), y, line)
        end = 72 + indent + (10 if k else 0) + stringWidth(line, "Times-Roman", 11)
    if number:
        canvas.drawRightString(WIDTH - 72, y, number.lstrip("|"))
        if led:
            dots = ". " * int((WIDTH - 72 - 30 - end) / stringWidth(". ", "Times-Roman", 11))
            canvas.drawRightString(WIDTH - 72 - 24, y, dots.strip())
    return y


def plain_pages(n: int) -> list[list[Block]]:
    """Pages of running text without a heading, each with words of its own."""
    months = ("May", "June", "July", "August", "March", "April")
    return [
        [
            ("text", f"In {months[k % 6]} of year {k} the well was dry. The rope was mended, and"
                     " the lid was carried home to be painted before the first frost came."),
            ("text", "Nobody drew water for some weeks, and the path to it grew over with grass"
                     f" as it had done {k + 2} years before, when the old keeper had died."),
        ]
        for k in range(n)
    ]  # fmt: skip


def page_texts(path: Path) -> list[PageText]:
    """The characters of every page."""
    pdf = PdfFile(path)
    try:
        return [read_text(pdf, index) for index in range(pdf.n_pages)]
    finally:
        pdf.close()


def read_document(
    path: Path, *, use_bookmarks: bool = True, damaged: Sequence[int] = ()
) -> ReadDocument:
    """Read a PDF in this process, without workers or cache."""
    pdf = PdfFile(path)
    try:
        facts = pdf.facts()
        bookmarks = list(pdf.bookmarks()) if use_bookmarks else []
        pages = map(TextSource(pdf).told, range(pdf.n_pages))
        lines = [lines_of(page.text, page.rules) for page in pages]
    finally:
        pdf.close()
    return understand(facts, bookmarks, lines, [], CancelToken(), no_progress, damaged=damaged)
