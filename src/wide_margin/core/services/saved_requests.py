"""Requests that the reader uses again, in a TOML file: a name, what is asked, of what, how.

They come from the reader alone, never from a document.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from enum import StrEnum
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
import platformdirs

from wide_margin.core.errors import WideMarginError
from wide_margin.core.later import loaded_later
from wide_margin.core.layout import fold
from wide_margin.core.plain import one_line

if TYPE_CHECKING:
    import tomlkit
else:
    tomlkit = loaded_later("tomlkit")

MOST, LONGEST_NAME, LONGEST_TEXT = 300, 60, 1000


class Whereof(StrEnum):
    """What a request is asked of."""

    WHOLE = "whole document"
    SECTION = "this section"
    SELECTION = "the selection"


class SavedRequest(msgspec.Struct, frozen=True, omit_defaults=True):
    """A question or an instruction to be used again."""

    name: str
    ask: str
    """The question or instruction."""
    of: Whereof = Whereof.WHOLE
    composed: bool = False
    """Whether a writing model composes the answer."""
    kind: str = ""
    """The kind of document that it is for; "" for every one."""


class _File(msgspec.Struct):
    request: list[SavedRequest] = []


def requests_path() -> Path:
    """Where they are kept, under the user's configuration folder."""
    return Path(platformdirs.user_config_dir("wide-margin", appauthor=False)) / "requests.toml"


def read_requests(text: str) -> tuple[SavedRequest, ...]:
    """Requests from the text of a file.

    Raises:
        WideMarginError: It is not such a file.
    """
    try:
        found = msgspec.toml.decode(text, type=_File).request
    except (msgspec.MsgspecError, ValueError, RecursionError) as error:
        raise WideMarginError(
            "This file holds no saved requests.",
            hint="It is a TOML file with [[request]], name and ask, as Save to a file makes it.",
        ) from error
    return tidied(found)


def tidied(requests: Iterable[SavedRequest]) -> tuple[SavedRequest, ...]:
    """Requests with names and texts in one line, each name once: the last one counts."""
    kept: dict[str, SavedRequest] = {}
    for request in requests:
        name, ask = one_line(request.name, LONGEST_NAME), one_line(request.ask, LONGEST_TEXT)
        if name and ask:
            kept[fold(name)] = msgspec.structs.replace(request, name=name, ask=ask)
    return tuple(kept.values())[:MOST]


def requests_as_text(requests: Sequence[SavedRequest]) -> str:
    """The text of a file with requests."""
    return tomlkit.dumps({"request": [msgspec.to_builtins(r) for r in requests]})


def load_requests(path: Path | None = None) -> tuple[SavedRequest, ...]:
    """The reader's requests; none where there is no file.

    Raises:
        WideMarginError: The file cannot be read, or holds something else.
    """
    path = path or requests_path()
    try:
        return read_requests(path.read_text(encoding="utf-8"))
    except FileNotFoundError:
        return ()
    except (OSError, UnicodeDecodeError) as error:
        raise WideMarginError(
            f"“{path.name}” cannot be read.", hint="Is it there, and a text file?"
        ) from error


def named_request(requests: Iterable[SavedRequest], typed: str) -> SavedRequest | None:
    """The request of a name as people type it, None where there is none."""
    wanted = fold(" ".join(typed.split()))
    return next((request for request in requests if fold(request.name) == wanted), None)
