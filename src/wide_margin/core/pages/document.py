"""Open a PDF with PDFium and ask it about the file: sizes, labels, bookmarks, links."""

from __future__ import annotations

import ctypes
import logging
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any, TypeVar

import numpy as np
import pypdfium2 as pdfium
import pypdfium2.raw as pdfium_c

from wide_margin.core.errors import PageFailedError, PasswordNeededError, UnreadableFileError
from wide_margin.core.geometry import to_page_space
from wide_margin.core.pages.files import check_is_pdf
from wide_margin.core.pages.model import USUAL_SIZE, Bookmark, FileFacts, Frame, Link
from wide_margin.core.pages.native import utf16_result
from wide_margin.core.pages.parted import SHARE
from wide_margin.core.plain import FACT_LENGTH, LABEL_LENGTH, one_line

if TYPE_CHECKING:
    from wide_margin.core.pages.model import PageSize

    pass

log = logging.getLogger(__name__)
Part = TypeVar("Part")

MAX_BOOKMARKS = 20_000
"""Far above any real file; ends the walk in a file whose outline runs in circles."""
MAX_BOOKMARK_LEVEL = 24
"""Deeper outlines are traps: following one 30,000 levels down takes gigabytes."""
MAX_LABEL_LETTERS = 2_000_000
"""Of all labels together; past that the file's labels are done without."""
TOLD_BY = 1_500
"""So many words tell whether a file's words are run together: its writer set them all."""
LEAST_PAGE = 200
"""Bytes that a page takes at least in a file whose number of pages can be believed at first."""
MAX_LINKS = 4_000
"""Of one page."""
TellPart = Callable[[str], None]


def no_part(part: str) -> None:
    """Stand where nobody watches."""


class PdfFile:
    """A PDF open in this process. Not for use by several threads (PDFium is not safe for it)."""

    def __init__(self, path: Path, password: str | None = None, *, at_once: bool = False) -> None:
        """Open the file.

        Args:
            path: Of the file.
            password: That it is opened with.
            at_once: Believe how many pages it says it has, where it is large enough for them;
                ``count_truly`` tells. To count them takes longer than to draw the first.

        Raises:
            UnreadableFileError: It is missing, a folder, empty, not a PDF, or damaged.
            PasswordNeededError: It is encrypted and the password does not open it.
        """
        check_is_pdf(path)
        self.path = path
        self._frames: dict[int, Frame | None] | None = {}
        self.runs_together: bool | None = None
        """Whether some of its words are read as one; None while too few have been looked at."""
        self._n_words = self._n_parted = 0
        self._kept: tuple[int, Any] | None = None
        """The page that was used last, and its index."""
        try:
            self._pdf = pdfium.PdfDocument(path, password=password)
            self.n_pages = len(self._pdf)
        except pdfium.PdfiumError as error:
            raise _opening_error(path, error, password) from error
        if not (at_once and self.n_pages * LEAST_PAGE < path.stat().st_size):
            self.count_truly()
        if self.n_pages == 0:
            raise UnreadableFileError(
                f"“{path.name}” is a PDF without any page.", hint="Get the file again."
            )
        self._pdf.init_forms()

    def tell_parted(self, n_words: int, n_parted: int) -> None:
        """Count words that were read, and those of them that were run into the one before."""
        self._n_words += n_words
        self._n_parted += n_parted
        if self._n_words >= TOLD_BY:
            self.runs_together = self._n_parted > SHARE * self._n_words

    def close(self) -> None:
        """Give the file back."""
        if self._kept is not None:
            self._kept[1].close()
            self._kept = None
        self._pdf.close()

    @contextmanager
    def page(self, index: int) -> Iterator[Any]:
        """Load a page for a while.

        It is kept until another one is used: after its text what is drawn on it may be asked for.

        Raises:
            PageFailedError: PDFium cannot load this page.
        """
        page = self._taken(index)
        try:
            yield page
        finally:
            if self._kept is not None:
                self._kept[1].close()
            self._kept = index, page

    def _taken(self, index: int) -> Any:
        """The page that is kept, where it is the one; loaded anew else."""
        kept, self._kept = self._kept, None
        if kept is not None and kept[0] == index:
            return kept[1]
        if kept is not None:
            kept[1].close()
        try:
            return self._pdf[index]
        except pdfium.PdfiumError as error:
            raise PageFailedError(
                f"Page {index + 1} of the file cannot be loaded.",
                hint="The page is damaged; the other pages can be read.",
            ) from error

    def is_blank(self, index: int) -> bool:
        """Whether nothing at all is printed on a page.

        Raises:
            PageFailedError: PDFium cannot load this page.
        """
        with self.page(index) as page:
            return bool(pdfium_c.FPDFPage_CountObjects(page.raw) == 0)

    def count_truly(self) -> None:
        """Set ``n_pages`` to how many there are, where the file says more than it holds."""
        self.n_pages = self._n_true_pages(self.n_pages)

    def _n_true_pages(self, n_said: int) -> int:
        """How many pages there are, where the file says more than it holds.

        /Count of the page tree (ISO 32000-1, 7.7.3.2) is only said: one page may be called a
        million. Where none of the last pages is there, the last that is there is looked for.
        """
        if n_said <= 8 or any(self._is_there(n_said - k) for k in range(1, 9)):
            return n_said
        low, high = 0, n_said - 8  # pages before low are there, those from high on are not
        while low < high:
            middle = (low + high) // 2
            if any(self._is_there(k) for k in range(middle, min(middle + 8, high))):
                low = middle + 1
            else:
                high = middle
        return max((k + 1 for k in range(low, min(low + 8, n_said)) if self._is_there(k)),
                   default=low)  # fmt: skip

    def _is_there(self, index: int) -> bool:
        size = pdfium_c.FS_SIZEF()
        return bool(pdfium_c.FPDF_GetPageSizeByIndexF(self._pdf.raw, index, size))

    def facts(
        self,
        *,
        first_pages: int | None = None,
        without: frozenset[str] = frozenset(),
        at_part: TellPart = no_part,
    ) -> FileFacts:
        """Everything that is known without reading a page.

        Args:
            first_pages: Measure so many pages and take the others to be like the last of them,
                without labels: for showing the first page of a long document at once.
            without: Names of PARTS that ended a process before and are not asked for.
            at_part: Told the name of a part before it is asked for, "" after: so that whoever
                watches this process knows what ended it.
        """
        n_sized = self.n_pages if first_pages is None else min(first_pages, self.n_pages)
        none: tuple[str | None, ...] = (None,) * self.n_pages
        left_out = set(without)

        def part(name: str, ask: Callable[[], Part], otherwise: Part) -> Part:
            if name in without:
                return otherwise
            at_part(name)
            try:
                return ask()
            except Exception:
                log.warning("the %s of a file are done without", name, exc_info=True)
                left_out.add(name)
                return otherwise
            finally:
                at_part("")

        nothing: dict[str, str] = {}
        about = part("about", self._about, nothing)
        labels = part("labels", self._labels, none) if first_pages is None else none
        return FileFacts(
            n_pages=self.n_pages,
            sizes=self.sizes(n_sized),
            labels=labels,
            title=about.get("Title", ""),
            author=about.get("Author", ""),
            created=about.get("CreationDate", ""),
            changed=about.get("ModDate", ""),
            producer=about.get("Producer", ""),
            identity=about.get("ID", ""),
            is_sized=n_sized == self.n_pages,
            left_out=tuple(sorted(left_out)),
        )

    def _about(self) -> dict[str, str]:
        about = self._pdf.get_metadata_dict(skip_empty=True)
        found = {name: one_line(value, FACT_LENGTH) for name, value in about.items()}
        return {**found, "ID": self._identity()}

    def sizes(self, n_pages: int | None = None) -> tuple[PageSize, ...]:
        """Width and height of every page; past n_pages those of the last one measured."""
        n_pages = self.n_pages if n_pages is None else n_pages
        sizes: list[PageSize] = []
        size = pdfium_c.FS_SIZEF()
        for index in range(n_pages):
            is_told = pdfium_c.FPDF_GetPageSizeByIndexF(self._pdf.raw, index, size)
            sizes.append((max(size.width, 1.0), max(size.height, 1.0)) if is_told else USUAL_SIZE)
        last = sizes[-1] if sizes else USUAL_SIZE
        return (*sizes, *[last] * (self.n_pages - len(sizes)))

    def links(self, index: int) -> tuple[Link, ...]:
        """The link annotations of a page that lead somewhere."""
        found: list[Link] = []
        with self.page(index) as page:
            frame, turns = frame_of(page), page.get_rotation() // 90
            position, raw = ctypes.c_int(0), pdfium_c.FPDF_LINK()
            while len(found) < MAX_LINKS and pdfium_c.FPDFLink_Enumerate(page.raw, position, raw):
                rect = pdfium_c.FS_RECTF()
                if not pdfium_c.FPDFLink_GetAnnotRect(raw, rect):
                    continue
                corners = np.array([[rect.left, rect.bottom, rect.right, rect.top]])
                row = to_page_space(corners, frame, turns)[0]
                box = (float(row[0]), float(row[1]), float(row[2]), float(row[3]))
                if link := self._link(raw, box):
                    found.append(link)
        return tuple(found)

    def _link(self, raw: Any, box: tuple[float, float, float, float]) -> Link | None:
        destination = pdfium_c.FPDFLink_GetDest(self._pdf.raw, raw)
        action = pdfium_c.FPDFLink_GetAction(raw)
        if not destination and action:
            if pdfium_c.FPDFAction_GetType(action) == pdfium_c.PDFACTION_URI:
                n = pdfium_c.FPDFAction_GetURIPath(self._pdf.raw, action, None, 0)
                buffer = ctypes.create_string_buffer(n)
                pdfium_c.FPDFAction_GetURIPath(self._pdf.raw, action, buffer, n)
                return Link(box, address=one_line(buffer.value.decode("utf-8", "replace")))
            destination = pdfium_c.FPDFAction_GetDest(self._pdf.raw, action)
        if not destination:
            return None
        page, y = self._place(destination)
        return None if page is None else Link(box, page, y)

    def _labels(self) -> tuple[str | None, ...]:
        raw, n_letters = self._pdf.raw, 0
        labels: list[str | None] = []
        for index in range(self.n_pages):
            label = utf16_result(partial(pdfium_c.FPDF_GetPageLabel, raw, index))
            n_letters += len(label)
            if n_letters > MAX_LABEL_LETTERS:
                raise ValueError("the labels are longer than labels are")
            labels.append(one_line(label, LABEL_LENGTH) or None)
        return tuple(labels)

    def _identity(self) -> str:
        raw, kind = self._pdf.raw, pdfium_c.FILEIDTYPE_PERMANENT
        n = pdfium_c.FPDF_GetFileIdentifier(raw, kind, None, 0)
        if n <= 1:
            return ""
        buffer = ctypes.create_string_buffer(n)
        pdfium_c.FPDF_GetFileIdentifier(raw, kind, buffer, n)
        return buffer.raw[: n - 1].hex()

    def frame(self, index: int) -> Frame:
        """The visible box of a page in user space and the quarter turns of its /Rotate."""
        with self.page(index) as page:
            return frame_now(page)

    def bookmarks(
        self, frames: Sequence[Frame | None] = (), *, with_heights: bool = True
    ) -> Iterator[Bookmark]:
        """The file's outline items in order.

        Args:
            frames: Of every page, where they are known; a page that an item names and whose
                frame is not known is loaded, which takes some milliseconds.
            with_heights: Whether to tell where on its page an item leads.
        """
        self._frames = dict(enumerate(frames)) if with_heights else None
        raw = self._pdf.raw
        seen: set[int] = set()
        first = pdfium_c.FPDFBookmark_GetFirstChild(raw, None)
        waiting = [(first, 0)] if first else []
        while waiting and len(seen) < MAX_BOOKMARKS:
            item, level = waiting.pop()
            address = ctypes.cast(item, ctypes.c_void_p).value or 0
            if address in seen:
                continue
            seen.add(address)
            title = utf16_result(partial(pdfium_c.FPDFBookmark_GetTitle, item))
            page, y = self._place(pdfium_c.FPDFBookmark_GetDest(raw, item))
            yield Bookmark(one_line(title, FACT_LENGTH), level, page, y)
            if after := pdfium_c.FPDFBookmark_GetNextSibling(raw, item):
                waiting.append((after, level))
            if level < MAX_BOOKMARK_LEVEL and (
                below := pdfium_c.FPDFBookmark_GetFirstChild(raw, item)
            ):
                waiting.append((below, level + 1))

    def _place(self, destination: Any) -> tuple[int | None, float | None]:
        """Page index and distance from the top that a destination names."""
        if not destination:
            return None, None
        index = pdfium_c.FPDFDest_GetDestPageIndex(self._pdf.raw, destination)
        if not 0 <= index < self.n_pages:
            return None, None
        has_x, has_y, has_zoom = ctypes.c_int(), ctypes.c_int(), ctypes.c_int()
        x, y, zoom = ctypes.c_float(), ctypes.c_float(), ctypes.c_float()
        pdfium_c.FPDFDest_GetLocationInPage(destination, has_x, has_y, has_zoom, x, y, zoom)
        if not has_y.value or self._frames is None:
            return index, None
        known = self._frames.get(index)
        if known is None:
            try:
                known = self._frames[index] = self.frame(index)
            except PageFailedError:
                return index, None
        frame, turns = known
        point = np.array([[x.value, y.value, x.value, y.value]])
        top = float(to_page_space(point, frame, turns)[0, 1])
        height = frame[2] - frame[0] if turns % 2 else frame[3] - frame[1]
        return index, min(max(top, 0.0), height)


def frame_now(page: Any) -> Frame:
    """The frame of a page that is loaded."""
    return Frame(frame_of(page), page.get_rotation() // 90)


def frame_of(page: Any) -> tuple[float, float, float, float]:
    """The visible box of a page in user space: CropBox within MediaBox."""
    rect = pdfium_c.FS_RECTF()
    if not pdfium_c.FPDF_GetPageBoundingBox(page.raw, rect):
        return 0.0, 0.0, 612.0, 792.0
    return rect.left, rect.bottom, rect.right, rect.top


def _opening_error(
    path: Path, error: pdfium.PdfiumError, password: str | None
) -> UnreadableFileError | PasswordNeededError:
    if getattr(error, "err_code", None) == pdfium_c.FPDF_ERR_PASSWORD:
        if password:
            return PasswordNeededError("This password does not open the file.", hint="Try again.")
        return PasswordNeededError(
            f"“{path.name}” is protected by a password.", hint="Give the password to open it."
        )
    return UnreadableFileError(
        f"“{path.name}” is damaged: it starts as a PDF but cannot be opened.",
        hint="Get the file again; part of it may be missing.",
    )
