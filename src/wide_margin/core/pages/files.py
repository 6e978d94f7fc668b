"""The file of a document: what can be said of it without PDFium, and what it is kept by."""

import hashlib
import stat
from pathlib import Path

import platformdirs

from wide_margin.core.errors import UnreadableFileError

RECOGNISED = 1
"""Version of what is kept of a recognised page; raised when it changes."""


def check_is_pdf(path: Path) -> None:
    """Say plainly what is wrong with a path before PDFium is asked.

    Raises:
        UnreadableFileError: Missing, a folder, empty, or without a PDF header.
    """
    try:
        if path.is_dir():
            raise UnreadableFileError(
                f"“{path.name}” is a folder.", hint="Choose a PDF file in it."
            )
        if not stat.S_ISREG(path.stat().st_mode):  # reading a pipe or a device may never end
            raise UnreadableFileError(f"“{path.name}” is not a file.", hint="Choose a PDF file.")
        with path.open("rb") as file:
            start = file.read(1024)
    except FileNotFoundError as error:
        raise UnreadableFileError(
            f"There is no file “{path}”.", hint="Check the name, or choose the file again."
        ) from error
    except (OSError, ValueError) as error:  # ValueError: a name with a null in it
        reason = getattr(error, "strerror", None) or "its name is none that a file can have"
        raise UnreadableFileError(
            f"“{path.name[:200]}” cannot be read: {reason}.", hint="Check its permissions."
        ) from error
    if not start:
        raise UnreadableFileError(
            f"“{path.name}” is empty.", hint="Get the file again; its download may have broken off."
        )
    if b"%PDF-" not in start:
        raise UnreadableFileError(
            f"“{path.name}” is not a PDF.", hint="Wide Margin reads PDF files only."
        )


def sha256_of(path: Path) -> str:
    """The file's SHA-256 in hex, read in pieces.

    Raises:
        UnreadableFileError: It went away, or cannot be read.
    """
    try:
        with path.open("rb") as file:
            return hashlib.file_digest(file, "sha256").hexdigest()
    except OSError as error:
        raise UnreadableFileError(
            f"“{path.name}” cannot be read any more: {error.strerror}.", hint="Is it still there?"
        ) from error


def recognised_folder(sha256: str) -> Path:
    """Where the recognised pages of a file are kept, under the user's cache folder."""
    folder = Path(platformdirs.user_cache_dir("wide-margin", appauthor=False)) / "recognised"
    return folder / f"{sha256[:40]}-{RECOGNISED}"
