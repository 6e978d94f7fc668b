"""A document as far as it has been read, so that it can be asked while reading goes on."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.document import understand
from wide_margin.core.jobs import CancelToken, no_progress
from wide_margin.core.session.blocks import BLOCK, blocks_so_far, loaded_block

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.layout import Line
    from wide_margin.core.pages import Bookmark, FileFacts

GROWN = 1.3
"""It is made anew once so many times as many pages are read: the making takes its time."""
LEAST_PAGES = 16
"""Fewer pages cannot be asked."""


class SoFar:
    """Made of the blocks that both readers have finished, when it is asked for."""

    def __init__(
        self, facts: FileFacts, folder: Path | None, bookmarks: Sequence[Bookmark] = ()
    ) -> None:
        """Nothing is read yet.

        Args:
            facts: What the file says of itself.
            folder: Where finished blocks lie; None where none can be kept: then it stays empty.
            bookmarks: Of the file, perhaps without their heights on the pages.
        """
        self._facts, self._folder, self._bookmarks = facts, folder, tuple(bookmarks)
        self._listed: ReadDocument | None = None
        """Of the bookmarks alone."""
        self._made: ReadDocument | None = None
        self._n_made_of = 0

    def document(self) -> ReadDocument | None:
        """The document with the pages read so far, the others counted as unread; None at first."""
        if self._folder is None:
            return None
        finished = blocks_so_far(self._folder)
        n_pages = min(len(finished) * BLOCK, self._facts.n_pages)
        if self._made is not None and n_pages < GROWN * self._n_made_of:
            return self._made
        if n_pages < min(LEAST_PAGES, self._facts.n_pages):
            return None
        self._made, self._n_made_of = self._make(finished), n_pages
        return self._made

    @property
    def made(self) -> ReadDocument | None:
        """The document as last made, perhaps of fewer pages than are read by now."""
        return self._made

    def renew(self) -> None:
        """Make the document anew when it is asked for next, however little it has grown."""
        self._n_made_of = 0

    def unread_of(self, pages: Iterable[int]) -> list[int]:
        """Which of these pages are not read yet."""
        finished = blocks_so_far(self._folder) if self._folder is not None else {}
        n_pages = self._facts.n_pages
        return [page for page in pages if 0 <= page < n_pages and page // BLOCK not in finished]

    def listed(self) -> ReadDocument | None:
        """What tells the sections best so far: the bookmarks at once, else the pages read.

        None while there is neither.
        """
        if not self._bookmarks:
            return self.document()
        if self._listed is None:
            self._listed = self._make({})
        return self._made or self._listed

    def _make(self, finished: dict[int, Path]) -> ReadDocument:
        n = self._facts.n_pages
        lines: list[list[Line]] = [[] for _ in range(n)]
        unread = set(range(n))
        failed: list[int] = []
        listings: list[int] = []
        blank: list[int] = []
        damaged: list[int] = []
        recognised: dict[int, float] = {}
        for block, path in finished.items():
            part = loaded_block(path)
            if part is None:
                continue
            for k, on_page in enumerate(part.lines):
                lines[block * BLOCK + k] = on_page
                unread.discard(block * BLOCK + k)
            failed += part.failed
            listings += part.listings
            blank += part.blank
            damaged += part.garbled
            recognised |= part.recognised
        document = understand(
            self._facts,
            self._bookmarks,
            lines,
            failed,
            CancelToken(),
            no_progress,
            listings=listings,
            blank=blank,
            damaged=damaged,
        )  # fmt: skip
        return replace(
            document, unread=frozenset(unread), recognised=tuple(sorted(recognised.items())),
            without_text=tuple(page for page in document.without_text if page not in unread),
        )  # fmt: skip
