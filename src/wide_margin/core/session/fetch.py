"""Bring a PDF from an address to a file on this machine."""

from __future__ import annotations

import hashlib
from contextlib import suppress
from pathlib import Path
from typing import TYPE_CHECKING
from urllib.parse import unquote, urlsplit

import platformdirs

from wide_margin.core.errors import ServiceError, UnreadableFileError
from wide_margin.core.later import regex
from wide_margin.core.pages.files import check_is_pdf
from wide_margin.core.services.http import Exchange, Limits

if TYPE_CHECKING:
    from wide_margin.core.jobs import CancelToken, Progress

MAX_BYTES = 1_000_000_000
LONGEST = 1800.0
"""Seconds that fetching may take."""
NAME_BYTES = 120
"""Of a file's name; file systems allow 255, and a suffix is added while it comes."""
_UNSAFE = regex(r"[^\w.() -]+")


def is_address(text: str) -> bool:
    """Whether a text is an address rather than a path."""
    try:
        return urlsplit(text).scheme in ("http", "https", "file")
    except ValueError:  # such as http://[bad: meant as an address all the same
        return text.lower().startswith(("http:", "https:", "file:"))


def local_path(address: str) -> Path | None:
    """The path that a file: address names, None for any other."""
    try:
        parts = urlsplit(address)
    except ValueError:
        return None
    return Path(unquote(parts.path)) if parts.scheme == "file" else None


def fetched_folder() -> Path:
    """Where fetched files are kept, under the user's data folder."""
    return Path(platformdirs.user_data_dir("wide-margin", appauthor=False)) / "fetched"


def place_for(address: str, folder: Path) -> Path:
    """Where what an address gives is kept: a folder of its own, and the name it has there."""
    own = hashlib.sha256(address.encode("utf-8", "surrogatepass")).hexdigest()[:20]
    try:
        last = unquote(urlsplit(address).path).rstrip("/").rpartition("/")[2]
    except ValueError:
        last = ""
    name = _UNSAFE.sub("_", last).strip(". ") or "document"
    name = name.removesuffix(".pdf").removesuffix(".PDF")
    name = name.encode()[:NAME_BYTES].decode("utf-8", "ignore")
    return folder / own / f"{name}.pdf"


def fetch_pdf(
    address: str,
    folder: Path,
    token: CancelToken,
    progress: Progress,
    *,
    max_bytes: int = MAX_BYTES,
) -> Path:
    """Fetch a PDF into a place that only this address has.

    Args:
        address: http, https or file.
        folder: Where fetched files are kept.
        token: Cancelling it closes the connection at once.
        progress: Told (bytes so far, bytes in all or 0 where the server does not say).
        max_bytes: More than this is refused, before the first byte where the server says it.

    Raises:
        UnreadableFileError: No answer, an error, too slow, too large, or not a PDF.
        Cancelled: The token was cancelled; nothing is left behind.
    """
    if (path := local_path(address)) is not None:
        check_is_pdf(path)
        return path
    target = place_for(address, folder)
    part = target.with_suffix(".part")
    try:
        target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        _download(address, part, token, progress, max_bytes)
        _check(address, part)
        part.replace(target)
    except ServiceError as error:
        raise UnreadableFileError(error.message, hint=error.hint) from error
    except OSError as error:
        raise UnreadableFileError(
            "The document could not be kept on this machine.",
            hint=f"Is {folder} full, or read-only?",
        ) from error
    finally:
        with suppress(OSError):
            part.unlink(missing_ok=True)
            target.parent.rmdir()  # only where nothing came of it: it is empty then
    return target


def _check(address: str, part: Path) -> None:
    try:
        check_is_pdf(part)
    except UnreadableFileError as error:
        raise UnreadableFileError(
            f"What {address} gives is not a PDF.", hint="It may be a page that links to one."
        ) from error


def _download(
    address: str, part: Path, token: CancelToken, progress: Progress, max_bytes: int
) -> None:
    limits = Limits(silence=30.0, whole=LONGEST, n_bytes=max_bytes + 1_000_000)
    with Exchange(
        "GET", address, token, limits=limits, follow_redirects=True, trust_env=True
    ) as exchange:
        if exchange.status != 200:
            raise UnreadableFileError(
                f"{address} answered with an error ({exchange.status}).", hint="Check the address."
            )
        if exchange.n_announced > max_bytes:
            raise _too_large(max_bytes)
        n_bytes = 0
        with part.open("wb") as file:
            for piece in exchange.pieces():
                token.check()
                n_bytes += len(piece)
                if n_bytes > max_bytes:
                    raise _too_large(max_bytes)
                file.write(piece)
                progress(n_bytes, exchange.n_announced)


def _too_large(max_bytes: int) -> UnreadableFileError:
    return UnreadableFileError(
        f"The file is larger than {max_bytes // 1_000_000} MB.",
        hint="Fetch it by other means and open it from the disk.",
    )
