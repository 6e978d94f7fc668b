"""What a document says of itself, and what was read of it."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QFormLayout, QWidget

from wide_margin.desktop.words import Words, show_title

if TYPE_CHECKING:
    from wide_margin.core.pages import FileFacts
    from wide_margin.core.session import ReadSummary

_PDF_DATE = re.compile(r"D:(\d{4})(\d{2})?(\d{2})?(\d{2})?(\d{2})?")


def plain_date(text: str) -> str:
    """A date of a PDF (ISO 32000-1, 7.9.4) as people write it; the text itself if it is none."""
    match = _PDF_DATE.match(text)
    if not match:
        return text
    year, month, day, hour, minute = match.groups()
    date = "-".join(part for part in (year, month, day) if part)
    return f"{date} {hour}:{minute}" if hour and minute else date


def property_rows(
    path: str, facts: FileFacts, summary: ReadSummary | None, megabytes: float = 0.0
) -> list[tuple[str, str]]:
    """Names and values, those that are known.

    Args:
        path: Of the file.
        facts: What it says of itself.
        summary: What was read of it; None while it is being read.
        megabytes: Memory that reading and drawing it take; 0 where it is not known.
    """
    millimetres = [f"{side * 25.4 / 72:.0f}" for side in facts.sizes[0]]
    rows = [
        ("Title", facts.title), ("Author", facts.author), ("Created", plain_date(facts.created)),
        ("Changed", plain_date(facts.changed)), ("Made with", facts.producer), ("File", path),
        ("Pages", str(facts.n_pages)),
        ("First page", f"{millimetres[0]} × {millimetres[1]} mm"),
    ]  # fmt: skip
    if summary is None:
        rows.append(("Read", "still reading"))
    else:
        bookmarked = sum("bookmark" in s.witnesses for s in summary.outline.sections)
        sections = f"{len(summary.outline.sections)}, {bookmarked} of them bookmarks of the file"
        rows += [
            ("Sections", sections), ("Figures and tables", str(len(summary.figures))),
            ("Sentences", str(summary.n_sentences)), ("Language", summary.language),
            ("Without text", _pages(summary.without_text)),
            ("Damaged text", _pages(summary.garbled)),
            ("Not readable", _pages(summary.failed)),
            ("Left out", ", ".join(summary.left_out)),
        ]  # fmt: skip
    if megabytes:
        rows.append(("Memory", f"{megabytes:.0f} MB"))
    return [(name, value) for name, value in rows if value]


def _pages(pages: tuple[int, ...]) -> str:
    if not pages:
        return "no page"
    shown = ", ".join(str(page + 1) for page in pages[:12])
    return f"file page{'s' if len(pages) > 1 else ''} {shown}" + (
        f" and {len(pages) - 12} more" if len(pages) > 12 else ""
    )


class PropertiesDialog(QDialog):
    """A form of names and values."""

    def __init__(self, rows: list[tuple[str, str]], parent: QWidget) -> None:
        super().__init__(parent)
        show_title(self, "Document properties")
        form = QFormLayout(self)
        form.setContentsMargins(24, 16, 24, 16)
        form.setHorizontalSpacing(24)
        for name, value in rows:
            label = Words(value)
            label.setWordWrap(True)
            label.setMinimumWidth(360)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
            form.addRow(Words(name, role="secondary"), label)
