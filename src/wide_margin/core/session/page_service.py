"""What the page worker does: bitmaps and text boxes of single pages."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.errors import UnreadableFileError
from wide_margin.core.layout import TextLayer, lines_of
from wide_margin.core.layout.cut_table import cells_of
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.files import recognised_folder, sha256_of
from wide_margin.core.pages.recognising import RecognisedPages
from wide_margin.core.pages.render import draw
from wide_margin.core.pages.rules import rules_of
from wide_margin.core.pages.source import TextSource

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout.cut_table import Rows
    from wide_margin.core.pages import FileFacts, Link, Picture
    from wide_margin.core.pages.model import PageSize
    from wide_margin.core.session.worker import Send

FIRST_PAGES = 24
"""Pages measured before the first is shown; 2400 take a tenth of a second."""


class PageService:
    """One open file."""

    def __init__(self) -> None:
        """Nothing is open yet."""
        self._pdf: PdfFile | None = None
        self._recognised: RecognisedPages | None = None

    def open(
        self, send: Send, path: Path, password: str | None, without: frozenset[str] = frozenset()
    ) -> FileFacts:
        """Open a file; see PdfFile for what can be wrong with it, and for ``without``."""
        self.close()
        self._pdf = PdfFile(path, password, at_once=True)
        return self._pdf.facts(first_pages=FIRST_PAGES, without=without)

    def sizes(self, send: Send) -> tuple[PageSize, ...]:
        """The size of every page; of fewer pages than were told where it lied."""
        pdf = self._open_file()
        pdf.count_truly()
        return pdf.sizes()

    def fingerprint(self, send: Send) -> str:
        """The file's SHA-256."""
        return sha256_of(self._open_file().path)

    def ping(self, send: Send) -> None:
        """Nothing: the process is there."""

    def draw(self, send: Send, index: int, scale: float, clip: Box | None) -> Picture:
        """A bitmap of a page, scale pixels a point."""
        return draw(self._open_file(), index, scale, clip=clip)

    def text(self, send: Send, index: int) -> TextLayer:
        """Characters, boxes and lines of a page."""
        pdf = self._open_file()
        if self._recognised is None:
            folder = recognised_folder(sha256_of(pdf.path))
            self._recognised = RecognisedPages(folder)
        told = TextSource(pdf, [self._recognised]).told(index)
        return TextLayer(told.text, tuple(lines_of(told.text, told.rules)))

    def cells(self, send: Send, index: int, box: Box) -> Rows:
        """The cells of a region, if it is a table."""
        return cells_of(self.text(send, index), box, rules_of(self._open_file(), index))

    def links(self, send: Send, index: int) -> tuple[Link, ...]:
        """Link areas of a page."""
        return self._open_file().links(index)

    def afterwards(self) -> None:
        """Nothing waits."""

    def close(self) -> None:
        """Give the file back."""
        if self._pdf is not None:
            self._pdf.close()
            self._pdf = self._recognised = None

    def _open_file(self) -> PdfFile:
        if self._pdf is None:
            raise UnreadableFileError("No document is open.", hint="Open a PDF first.")
        return self._pdf


def make_service() -> PageService:
    """The service of role "page"."""
    return PageService()
