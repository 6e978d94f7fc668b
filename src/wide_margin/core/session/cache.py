"""What was read, kept under the user's cache folder by the file's hash and our version.

The cache is written and read by this program alone, as pickles in a folder only the user can
write to; a cache that cannot be read is dropped and made again.
"""

import hashlib
import logging
import os
import pickle
import shutil
from pathlib import Path

import platformdirs

from wide_margin.core.search import ReadDocument

log = logging.getLogger(__name__)

ANALYSIS = 14
"""Raised whenever layout, outline, passages or index change what they give."""
KEPT = 40
"""Documents kept; the one not used for longest goes first."""


def cache_folder() -> Path:
    """Where read documents are kept; made when missing, for the user only."""
    folder = Path(platformdirs.user_cache_dir("wide-margin", appauthor=False)) / "read"
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    return folder


def _name(sha256: str, variant: str) -> str:
    key = hashlib.sha256(f"{sha256}:{ANALYSIS}:{variant}".encode()).hexdigest()
    return key[:40]


def load(sha256: str, variant: str = "") -> ReadDocument | None:
    """The document read before, None where there is none that can be used."""
    path = cache_folder() / f"{_name(sha256, variant)}.document"
    try:
        data = path.read_bytes()
    except OSError:
        return None
    try:
        document = pickle.loads(data)
        os.utime(path)
    except Exception:
        log.warning("a cached document could not be used and is read again", exc_info=True)
        path.unlink(missing_ok=True)
        return None
    return document if isinstance(document, ReadDocument) else None


def save(document: ReadDocument, sha256: str, variant: str = "") -> None:
    """Keep a read document; a full disk costs the cache, not the reading."""
    path = cache_folder() / f"{_name(sha256, variant)}.document"
    part = path.with_suffix(f".{os.getpid()}")
    try:
        part.write_bytes(pickle.dumps(document, protocol=5))
        part.replace(path)
        _drop_oldest(path.parent)
    except OSError:
        log.warning("a read document could not be cached", exc_info=True)
        part.unlink(missing_ok=True)


def block_folder(sha256: str) -> Path:
    """Where the blocks of a document that is being read lie."""
    folder = cache_folder() / f"{_name(sha256, 'blocks')}.blocks"
    folder.mkdir(exist_ok=True, mode=0o700)
    return folder


def drop_blocks(sha256: str) -> None:
    """The document is whole; its blocks go."""
    shutil.rmtree(cache_folder() / f"{_name(sha256, 'blocks')}.blocks", ignore_errors=True)


def _drop_oldest(folder: Path) -> None:
    kept = sorted(folder.glob("*.document"), key=lambda path: path.stat().st_mtime)
    for path in kept[:-KEPT]:
        path.unlink(missing_ok=True)
