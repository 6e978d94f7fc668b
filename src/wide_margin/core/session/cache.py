"""What was read, kept under the user's cache folder by the file's hash and our version.

The cache is written and read by this program alone, as pickles in a folder only the user can
write to; a cache that cannot be read is dropped and made again.
"""

import hashlib
import logging
import os
import pickle
import shutil
import zlib
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace
from pathlib import Path
from typing import Any, BinaryIO, NamedTuple

import platformdirs

from wide_margin.core.document import ReadDocument
from wide_margin.core.session.made import Made
from wide_margin.core.session.model import ReadSummary

log = logging.getLogger(__name__)

ANALYSIS = 80
"""Raised whenever what is kept changes: layout to index, definitions, scores, facts, phrases,
questions worth asking."""
PIECE = 4_000
"""Paragraphs, and sentences, that are kept together."""
KEPT = 40
"""Documents kept; the one not used for longest goes first."""
DOCUMENT, FRONT, MADE = ".document", ".front", ".made"
"""Ends of the names of documents that were read, of what is told of one at once, and of what was
made of one as a whole."""
CHUNK = 1 << 20
"""Bytes that are checked at once."""


def cache_folder() -> Path:
    """Where read documents are kept; made when missing, for the user only.

    Raises:
        OSError: It cannot be made.
    """
    folder = Path(platformdirs.user_cache_dir("wide-margin", appauthor=False)) / "read"
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    return folder


def _path(sha256: str, variant: str, kind: str) -> Path:
    return cache_folder() / f"{_name(sha256, variant)}{kind}"


def _name(sha256: str, variant: str) -> str:
    key = hashlib.sha256(f"{sha256}:{ANALYSIS}:{variant}".encode()).hexdigest()
    return key[:40]


def load(sha256: str, variant: str = "") -> ReadDocument | None:
    """The document read before, None where there is none that can be used."""
    found = _loaded(sha256, variant, DOCUMENT)
    return found if isinstance(found, ReadDocument) else None


def save(document: ReadDocument, summary: ReadSummary, sha256: str, variant: str = "") -> bool:
    """Keep a read document; whether it could be. A full disk costs the cache, not the reading."""
    if not _saved(document, sha256, variant, DOCUMENT):
        return False
    front = _Front(*_mark_of(_path(sha256, variant, DOCUMENT)), replace(summary, from_cache=True))
    return _saved(front, sha256, variant, FRONT)


def summary_of(sha256: str, variant: str = "") -> ReadSummary | None:
    """What is told of a document read before; None where that is not there whole and sound.

    The document itself takes a while to take up where it is long: it can be had with ``load``.
    """
    front = _loaded(sha256, variant, FRONT)
    if not isinstance(front, _Front):
        return None
    try:
        is_sound = _mark_of(_path(sha256, variant, DOCUMENT)) == (front.n_bytes, front.crc)
    except OSError:
        return None
    return front.summary if is_sound else None


def is_kept(sha256: str, variant: str = "") -> bool:
    """Whether a document was read before, as far as can be told at once."""
    return isinstance(_loaded(sha256, variant, FRONT), _Front)


class _Front(NamedTuple):
    """What is told of a document at once, and how the file that holds it is known to be whole."""

    n_bytes: int
    crc: int
    summary: ReadSummary


def _mark_of(path: Path) -> tuple[int, int]:
    """Length of a file, and its CRC-32."""
    crc = n_bytes = 0
    with path.open("rb") as file:
        while part := file.read(CHUNK):
            crc = zlib.crc32(part, crc)
            n_bytes += len(part)
    return n_bytes, crc


class Keeping:
    """Where what was made of one document as a whole is kept."""

    def __init__(self, key: tuple[str, str] | None) -> None:
        """Under the hash and the variant of a document; None keeps nothing."""
        self._key = key

    def load(self) -> Made | None:
        """What was made before, None where there is none that can be used."""
        found = _loaded(*self._key, MADE) if self._key is not None else None
        return found if isinstance(found, Made) else None

    def save(self, made: Made) -> bool:
        """Keep what was made; whether it could be."""
        return self._key is not None and _saved(made, *self._key, MADE)


def _loaded(sha256: str, variant: str, kind: str) -> object:
    try:
        path = _path(sha256, variant, kind)
        file = path.open("rb")
    except OSError:
        return None
    try:
        with file:
            found = _put_together(file)
        os.utime(path)
    except Exception:
        log.warning("what was kept of a document could not be used", exc_info=True)
        with suppress(OSError):
            path.unlink(missing_ok=True)
        return None
    return found


def _saved(what: object, sha256: str, variant: str, kind: str) -> bool:
    part = None
    try:
        path = _path(sha256, variant, kind)
        part = path.with_suffix(f".{os.getpid()}")
        with part.open("wb") as file:
            for piece in _pieces(what):
                pickle.dump(piece, file, protocol=5)
        part.replace(path)
        _drop_oldest(path.parent, kind)
        _drop_parts(path.parent)
    except OSError:
        log.warning("what was read of a document could not be cached", exc_info=True)
        if part is not None:
            with suppress(OSError):
                part.unlink(missing_ok=True)
        return False
    return True


def _pieces(what: object) -> Iterator[object]:
    """What is kept in pieces: of a document its paragraphs and sentences by themselves.

    A pickle remembers all that is in it until it ends; of ten thousand pages at once that takes a
    third of a gigabyte.
    """
    if not isinstance(what, ReadDocument):
        yield what
        return
    paragraphs, sentences = what.paragraphs, what.text.sentences
    yield replace(what, paragraphs=(), text=replace(what.text, sentences=()))
    for whole in (paragraphs, sentences):
        yield len(whole)
        for start in range(0, len(whole), PIECE):
            yield whole[start : start + PIECE]


def _put_together(file: BinaryIO) -> object:
    """The reverse of ``_pieces``, from a file."""
    what: object = pickle.load(file)
    if not isinstance(what, ReadDocument):
        return what
    parts: list[tuple[Any, ...]] = []
    for _ in range(2):
        whole: list[Any] = []
        n = pickle.load(file)
        while len(whole) < n:
            whole += pickle.load(file)
        parts.append(tuple(whole))
    paragraphs, sentences = parts
    return replace(what, paragraphs=paragraphs, text=replace(what.text, sentences=sentences))


def block_folder(owner: int, sha256: str) -> Path | None:
    """Where the blocks of a document lie while one application reads it.

    Args:
        owner: The application's process id: two of them on one file keep their blocks apart.
        sha256: Of the file.

    Returns:
        None where nothing can be written: then reading keeps its blocks to itself.
    """
    try:
        folder = cache_folder() / f"{_name(sha256, 'blocks')}.{owner}.blocks"
        folder.mkdir(exist_ok=True, mode=0o700)
        probe = folder / f"probe.{os.getpid()}"
        probe.write_bytes(bytes(4096))  # a full disk makes folders and empty files all the same
        probe.unlink()
    except OSError:
        log.warning("no blocks can be kept while reading", exc_info=True)
        return None
    return folder


def drop_blocks(owner: int, sha256: str) -> None:
    """The document is whole; its blocks go, and those that applications left behind."""
    with suppress(OSError):
        folder = cache_folder()
        own = folder / f"{_name(sha256, 'blocks')}.{owner}.blocks"
        for found in folder.glob("*.blocks"):
            if found == own or not _is_alive(found.name.split(".")[-2]):
                shutil.rmtree(found, ignore_errors=True)


def _is_alive(process: str) -> bool:
    return process.isdigit() and Path(f"/proc/{process}").exists()


def _drop_oldest(folder: Path, kind: str) -> None:
    kept = []
    for path in folder.glob(f"*{kind}"):
        with suppress(OSError):  # another process may have dropped it
            kept.append((path.stat().st_mtime, path))
    for _, path in sorted(kept)[:-KEPT]:
        path.unlink(missing_ok=True)


def _drop_parts(folder: Path) -> None:
    """What processes left half written that have ended: a window may be closed at any moment."""
    for path in folder.iterdir():
        process = path.suffix.removeprefix(".")
        if process.isdigit() and path.is_file() and not _is_alive(process):
            path.unlink(missing_ok=True)
