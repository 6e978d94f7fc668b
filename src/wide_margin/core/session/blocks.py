"""Blocks of pages already read, on disk, so that a replaced worker goes on where it was.

Two workers share the blocks of a document, one from the front and one from the back; a block
is there once its file has its name.
"""

from __future__ import annotations

import logging
import os
import pickle
from collections import Counter, deque
from collections.abc import Iterable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.errors import PageFailedError
from wide_margin.core.layout import Line, count_words, lines_of
from wide_margin.core.outline import is_listing
from wide_margin.core.pages import Frame
from wide_margin.core.pages.source import TextSource

if TYPE_CHECKING:
    from wide_margin.core.jobs import Progress
    from wide_margin.core.pages.document import PdfFile
    from wide_margin.core.pages.recognising import RecognisedPages

log = logging.getLogger(__name__)

BLOCK = 16
"""Pages in a block: a quarter of a second of work."""
MAX_CHARACTERS = 400_000
"""A page with more is a trap or a plot with a label at every point; it is set aside."""


@dataclass(slots=True)
class BlockRead:
    """What reading some pages gives."""

    lines: list[list[Line]] = field(default_factory=list)
    frames: list[Frame | None] = field(default_factory=list)
    failed: list[int] = field(default_factory=list)
    listings: list[int] = field(default_factory=list)
    """Pages that only list places: contents, indexes."""
    words: Counter[str] = field(default_factory=Counter)
    """How often each word stands within a line."""
    recognised: dict[int, float] = field(default_factory=dict)
    """Pages whose text was recognised in a picture, and how sure the engine was."""
    garbled: list[int] = field(default_factory=list)
    """Pages whose text is damaged and has not been replaced."""
    blank: list[int] = field(default_factory=list)
    """Pages on which nothing is printed."""

    def add(self, page: int, lines: list[Line], frame: Frame | None, *, failed: bool) -> None:
        """Add the next page."""
        self.lines.append(lines)
        self.frames.append(frame)
        if failed:
            self.failed.append(page)
        if is_listing(lines):
            self.listings.append(page)
        count_words(lines, self.words)


class Order:
    """Blocks in the order to read them; some can be put in front while reading goes on."""

    def __init__(self, blocks: Iterable[int]) -> None:
        """As they come."""
        self._left = deque(blocks)

    def __iter__(self) -> Iterator[int]:
        """The next block, as often as there is one."""
        while self._left:
            yield self._left.popleft()

    def put_first(self, pages: Iterable[int]) -> None:
        """Read the blocks of these pages next, in this order; those that were read stay so."""
        wanted = [b for b in dict.fromkeys(page // BLOCK for page in pages) if b in self._left]
        for block in wanted:
            self._left.remove(block)
        self._left.extendleft(reversed(wanted))


def around(page: int) -> tuple[int, ...]:
    """The pages whose blocks are wanted where somebody reads at a page: its own, the neighbours."""
    return page, page + BLOCK, page - BLOCK


def n_blocks(n_pages: int) -> int:
    """How many blocks a document has."""
    return (n_pages + BLOCK - 1) // BLOCK


def read_blocks(
    pdf: PdfFile,
    folder: Path | None,
    order: Iterable[int],
    skip: frozenset[int],
    at_page: Progress,
    over: RecognisedPages | None = None,
) -> dict[int, BlockRead]:
    """Read the blocks that are not there yet.

    Args:
        pdf: The open file.
        folder: Where blocks are kept; None where nothing can be written.
        order: Block numbers in the order to take them.
        skip: Page indexes that ended a worker before.
        at_page: Told (page index, pages of the document) before each page is touched.
        over: Pages that were recognised.

    Returns:
        Those that could not be written.
    """
    unwritten: dict[int, BlockRead] = {}
    for block in order:
        target = folder / f"block-{block:05}" if folder is not None else None
        if target is not None and target.exists():
            continue
        done = BlockRead()
        for page in range(block * BLOCK, min((block + 1) * BLOCK, pdf.n_pages)):
            at_page(page, pdf.n_pages)
            _read_page(pdf, page, skip, over, done)
        if target is None or not _written(done, target):
            unwritten[block] = done
    return unwritten


def _written(done: BlockRead, target: Path) -> bool:
    part = target.with_suffix(f".{os.getpid()}")
    try:
        part.write_bytes(pickle.dumps(done, protocol=5))
        part.replace(target)
    except OSError:
        log.warning("a block of pages could not be kept", exc_info=True)
        with suppress(OSError):
            part.unlink(missing_ok=True)
        return False
    return True


def _read_page(
    pdf: PdfFile,
    page: int,
    skip: frozenset[int],
    over: RecognisedPages | None,
    done: BlockRead,
) -> None:
    """Read the next page of a block into it."""
    if page in skip:
        done.add(page, [], None, failed=True)
        return
    try:
        told = TextSource(pdf, [over] if over is not None else []).told(page, only_edges=True)
        is_small = len(told.text.chars) <= MAX_CHARACTERS
        lines = lines_of(told.text, told.rules) if is_small else []
    except PageFailedError:
        done.add(page, [], None, failed=True)
        return
    except (ArithmeticError, LookupError, TypeError, ValueError):
        # No page can be so odd that the others are not read: it is named as one that failed.
        log.exception("page %d was not understood", page + 1)
        done.add(page, [], None, failed=True)
        return
    done.add(page, lines, told.text.frame, failed=False)
    if not told.text.chars and pdf.is_blank(page):
        done.blank.append(page)
    kept = over.recognised(page) if over is not None and told.is_over else None
    if kept is not None:
        done.recognised[page] = kept.sure
    elif told.is_garbled:
        done.garbled.append(page)


def gather_blocks(
    pdf: PdfFile,
    folder: Path | None,
    unwritten: dict[int, BlockRead],
    skip: frozenset[int],
    at_page: Progress,
    over: RecognisedPages | None = None,
) -> BlockRead:
    """All blocks of a document as one; a damaged one is dropped and read again."""
    whole = BlockRead()
    for block in range(n_blocks(pdf.n_pages)):
        part = unwritten.get(block) or _loaded(folder, block)
        if part is None:
            part = read_blocks(pdf, None, [block], skip, at_page, over)[block]
        whole.lines.extend(part.lines)
        whole.frames.extend(part.frames)
        whole.failed.extend(part.failed)
        whole.listings.extend(part.listings)
        whole.words.update(part.words)
        whole.recognised.update(part.recognised)
        whole.garbled.extend(part.garbled)
        whole.blank.extend(part.blank)
    return whole


def _loaded(folder: Path | None, block: int) -> BlockRead | None:
    if folder is None:
        return None
    return loaded_block(folder / f"block-{block:05}")


def blocks_so_far(folder: Path) -> dict[int, Path]:
    """The blocks that are finished, by their numbers."""
    try:
        found = {path: path.name.removeprefix("block-") for path in folder.glob("block-*")}
    except OSError:
        return {}
    return {int(name): path for path, name in sorted(found.items()) if name.isdecimal()}


def loaded_block(path: Path) -> BlockRead | None:
    """A finished block; None where it is damaged, which is then dropped."""
    try:
        part = pickle.loads(path.read_bytes())
    except Exception:
        log.warning("a block of pages was damaged and is read again", exc_info=True)
        with suppress(OSError):
            path.unlink(missing_ok=True)
        return None
    return part if isinstance(part, BlockRead) else None
