"""The outline as a file: taken away, written into a copy of the PDF, taken from a file."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QFileDialog

from wide_margin.core.errors import WideMarginError
from wide_margin.core.export import FORMATS, export_outline, read_outline, write_bookmarks
from wide_margin.core.export.saving import save_whole
from wide_margin.core.outline.editing import Edit

if TYPE_CHECKING:
    from wide_margin.desktop.outline_view.outline_view import OutlineView

_KINDS = {
    "md": "Markdown (*.md)", "opml": "OPML (*.opml)", "json": "JSON (*.json)",
    "csv": "Comma-separated values (*.csv)", "html": "HTML (*.html)",
}  # fmt: skip


class OutlineFiles:
    """Saves and takes the outline of a view."""

    def __init__(self, view: OutlineView) -> None:
        """For one view."""
        self._view = view

    def ask_where_to_save(self) -> None:
        """Ask for a file and a format."""
        start = self._beside("md")
        name, kind = QFileDialog.getSaveFileName(
            self._view, "Save the outline", str(start), ";;".join(_KINDS.values())
        )
        if name:
            path = Path(name)
            if path.suffix.lstrip(".") not in FORMATS:
                suffix = next((k for k, words in _KINDS.items() if words == kind), "md")
                path = path.with_name(f"{path.name}.{suffix}")
            self.save(path)

    def ask_where_to_write(self) -> None:
        """Ask for the file of the copy."""
        start = self._beside("pdf")
        name, _ = QFileDialog.getSaveFileName(
            self._view, "Write the outline into a copy", str(start), "PDF (*.pdf)"
        )
        if name:
            self.write_copy(Path(name))

    def ask_which_file(self) -> None:
        """Ask for an outline file to take."""
        name, _ = QFileDialog.getOpenFileName(
            self._view, "Take an outline from a file", str(self._beside("opml").parent),
            "Outlines (*.opml *.json)",
        )  # fmt: skip
        if name:
            self.take_from_file(Path(name))

    def _beside(self, suffix: str) -> Path:
        path = self._view.reader.path or Path("outline.pdf")
        return path.with_name(f"{path.stem}-outline.{suffix}")

    def save(self, path: Path) -> None:
        """Write the outline in the format of the file's suffix."""
        summary = self._view.reader.summary
        if summary is None:
            return
        title = summary.title or (self._view.reader.path.stem if self._view.reader.path else "")
        text = export_outline(summary.outline, summary.labels, path.suffix.lstrip("."), title)
        try:
            save_whole(path, text.encode())
        except WideMarginError:
            self._view.say(f"“{path.name}” could not be written. Is its folder there?")
            return
        self._view.say(f"The outline is in “{path.name}”.")

    def write_copy(self, target: Path) -> None:
        """Write a copy of the PDF with this outline as its bookmarks, off the UI thread."""
        reader, outline = self._view.reader, self._view.outline
        source, session = reader.path, reader.session
        if source is None or session is None:
            return
        self._view.say("Writing the copy…", for_ms=600_000)
        password = session.password
        reader.background.submit(
            lambda token, report: write_bookmarks(source, target, outline, password=password),
            done=lambda n: self._view.say(f"“{target.name}” has {n} bookmarks."),
            failed=lambda error: self._view.say(f"{error.message} {error.hint}".strip()),
        )

    def take_from_file(self, path: Path) -> None:
        """Put an outline read from a file in place of this one."""
        try:
            rows = read_outline(path)
        except WideMarginError as error:
            self._view.say(f"{error.message} {error.hint}".strip())
            return
        self._view.reader.outline.change(
            "Outline from a file", lambda e, o: Edit(e.from_rows(o, rows), 0)
        )
        self._view.say(f"{len(rows)} sections were taken from “{path.name}”.")
