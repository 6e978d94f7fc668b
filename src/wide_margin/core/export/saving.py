"""Files that are saved whole or not at all."""

from contextlib import suppress
from pathlib import Path

from wide_margin.core.errors import WideMarginError


def save_whole(path: Path, data: bytes) -> None:
    """Write a file; one that is there already stays as it is until the new one is complete.

    Raises:
        WideMarginError: It cannot be written.
    """
    part = path.with_name(f".{path.name}.part")
    try:
        if path.exists() and not path.is_file():  # a device or a pipe is written to as it is
            path.write_bytes(data)
            return
        part.write_bytes(data)
        part.replace(path)
    except OSError as error:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise WideMarginError(
            f"“{path}” cannot be written.", hint="Is its folder there, and may it be written to?"
        ) from error
