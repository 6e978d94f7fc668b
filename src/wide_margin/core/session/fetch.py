"""Bring a PDF from an address to a file on this machine."""

import re
from pathlib import Path
from urllib.parse import unquote, urlsplit

import httpx

from wide_margin.core.errors import UnreadableFileError
from wide_margin.core.jobs import CancelToken, Progress
from wide_margin.core.pages.document import check_is_pdf

MAX_BYTES = 1_000_000_000
_UNSAFE = re.compile(r"[^\w.() -]+")


def is_address(text: str) -> bool:
    """Whether a text is an address rather than a path."""
    return urlsplit(text).scheme in ("http", "https", "file")


def local_path(address: str) -> Path | None:
    """The path that a file: address names, None for any other."""
    parts = urlsplit(address)
    return Path(unquote(parts.path)) if parts.scheme == "file" else None


def fetch_pdf(
    address: str,
    folder: Path,
    token: CancelToken,
    progress: Progress,
    *,
    max_bytes: int = MAX_BYTES,
) -> Path:
    """Fetch a PDF; what came before is not fetched again under another name.

    Args:
        address: http, https or file.
        folder: Where to put it.
        token: Checked at every piece.
        progress: Told (bytes so far, bytes in all or 0 where the server does not say).
        max_bytes: More than this is refused.

    Raises:
        UnreadableFileError: No answer, an error, too large, or not a PDF.
        Cancelled: The token was cancelled; nothing is left behind.
    """
    if (path := local_path(address)) is not None:
        check_is_pdf(path)
        return path
    folder.mkdir(parents=True, exist_ok=True)
    name = _UNSAFE.sub("_", unquote(Path(urlsplit(address).path).name)) or "document"
    target = folder / (name if name.lower().endswith(".pdf") else f"{name}.pdf")
    part = target.with_suffix(".part")
    try:
        _download(address, part, token, progress, max_bytes)
        check_is_pdf(part)
        part.replace(target)
    except (httpx.HTTPError, httpx.InvalidURL) as error:
        raise UnreadableFileError(
            f"{address} did not answer.", hint="Check the address and the connection."
        ) from error
    except UnreadableFileError as error:
        if part.exists():
            raise UnreadableFileError(
                f"What {address} gives is not a PDF.", hint="It may be a page that links to one."
            ) from error
        raise
    finally:
        part.unlink(missing_ok=True)
    return target


def _download(
    address: str, part: Path, token: CancelToken, progress: Progress, max_bytes: int
) -> None:
    limits = httpx.Timeout(30.0, connect=10.0)
    with httpx.stream("GET", address, timeout=limits, follow_redirects=True) as response:
        if response.status_code != 200:
            raise UnreadableFileError(
                f"{address} answered with an error ({response.status_code}).",
                hint="Check the address.",
            )
        total = int(response.headers.get("Content-Length", 0) or 0)
        n_bytes = 0
        with part.open("wb") as file:
            for piece in response.iter_bytes(65536):
                token.check()
                n_bytes += len(piece)
                if max(n_bytes, total) > max_bytes:
                    part.unlink()
                    raise UnreadableFileError(
                        f"The file is larger than {max_bytes // 1_000_000} MB.",
                        hint="Fetch it by other means and open it from the disk.",
                    )
                file.write(piece)
                progress(n_bytes, total)
