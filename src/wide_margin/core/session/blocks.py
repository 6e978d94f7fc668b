"""Blocks of pages already read, on disk, so that a replaced worker goes on where it was.

Two workers share the blocks of a document, one from the front and one from the back; a block
is there once its file has its name.
"""

import os
import pickle
from collections.abc import Iterable
from pathlib import Path

from wide_margin.core.errors import PageFailedError
from wide_margin.core.jobs import Progress
from wide_margin.core.layout import Line, lines_of
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.text import read_text

BLOCK = 16
"""Pages in a block: a quarter of a second of work."""
MAX_CHARACTERS = 400_000
"""A page with more is a trap or a plot with a label at every point; it is set aside."""


def n_blocks(n_pages: int) -> int:
    """How many blocks a document has."""
    return (n_pages + BLOCK - 1) // BLOCK


def read_blocks(
    pdf: PdfFile, folder: Path, order: Iterable[int], skip: frozenset[int], at_page: Progress
) -> None:
    """Read the blocks that are not there yet.

    Args:
        pdf: The open file.
        folder: Where blocks are kept.
        order: Block numbers in the order to take them.
        skip: Page indexes that ended a worker before.
        at_page: Told (page index, pages of the document) before each page is touched.
    """
    for block in order:
        target = folder / f"block-{block:05}"
        if target.exists():
            continue
        lines: list[list[Line]] = []
        failed: list[int] = []
        for page in range(block * BLOCK, min((block + 1) * BLOCK, pdf.n_pages)):
            at_page(page, pdf.n_pages)
            if page in skip:
                lines.append([])
                failed.append(page)
                continue
            try:
                text = read_text(pdf, page)
                lines.append(lines_of(text) if len(text.chars) <= MAX_CHARACTERS else [])
            except PageFailedError:
                lines.append([])
                failed.append(page)
        part = target.with_suffix(f".{os.getpid()}")
        part.write_bytes(pickle.dumps((lines, failed), protocol=5))
        part.replace(target)


def gather_blocks(folder: Path, n_pages: int) -> tuple[list[list[Line]], list[int]]:
    """Lines of every page, and the pages that failed."""
    lines: list[list[Line]] = []
    failed: list[int] = []
    for block in range(n_blocks(n_pages)):
        some_lines, some_failed = pickle.loads((folder / f"block-{block:05}").read_bytes())
        lines.extend(some_lines)
        failed.extend(some_failed)
    return lines, failed
