"""The fields a reader wants of every document of a kind: plain lists of questions, kept as files."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

import platformdirs

from wide_margin.core.digest.fields import questions_in
from wide_margin.core.errors import WideMarginError

if TYPE_CHECKING:
    from wide_margin.core.digest.kinds import DocumentKind


def default_folder() -> Path:
    """Where the lists are kept, one file for each kind of document."""
    return Path(platformdirs.user_data_dir("wide-margin", appauthor=False)) / "fields"


class FieldSets:
    """The kept lists; each is a file that can be edited, copied and handed on."""

    def __init__(self, folder: Path | None = None) -> None:
        """Those in a folder; in the usual place where None."""
        self._folder = folder or default_folder()

    def text_of(self, kind: DocumentKind) -> str:
        """The list for a kind as the reader wrote it, "" where there is none."""
        try:
            return self._path(kind).read_text(encoding="utf-8")
        except (OSError, UnicodeDecodeError):
            return ""

    def questions_of(self, kind: DocumentKind) -> tuple[str, ...]:
        """Its questions."""
        return tuple(questions_in(self.text_of(kind)))

    def keep(self, kind: DocumentKind, text: str) -> None:
        """Keep a list for the next documents of the kind; an empty one is dropped.

        Raises:
            WideMarginError: The folder cannot be written.
        """
        path = self._path(kind)
        try:
            if not text.strip():
                path.unlink(missing_ok=True)
                return
            self._folder.mkdir(parents=True, exist_ok=True)
            part = path.with_suffix(".part")
            part.write_text(text, encoding="utf-8")
            part.replace(path)
        except OSError as error:
            raise WideMarginError(
                f"The list could not be kept in “{self._folder}”.",
                hint="Is there room, and may it be written?",
            ) from error

    def _path(self, kind: DocumentKind) -> Path:
        return self._folder / f"{kind.name.lower()}.txt"
