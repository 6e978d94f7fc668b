"""What is said of a document that was read, and of pages as they are typed."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wide_margin.core.plain import counted
from wide_margin.core.translate import language_name
from wide_margin.desktop.look import lacks_letters_of

if TYPE_CHECKING:
    from wide_margin.core.session import ReadSummary

_PARTS_NAMED = {"labels": "page labels", "bookmarks": "bookmarks", "about": "title and author"}


def read_sentence(summary: ReadSummary) -> str:
    """What was read, in one sentence."""
    n = len(summary.outline.sections)
    parts = [counted(summary.n_pages, "page")]
    parts.append(
        counted(n, "part by pages", "parts by pages")
        if summary.outline.is_by_pages
        else counted(n, "section")
    )
    if summary.without_text:
        parts.append(f"{counted(len(summary.without_text), 'page')} without text")
    if summary.garbled:
        parts.append(f"{counted(len(summary.garbled), 'page')} with damaged text")
    if summary.failed:
        parts.append(f"{len(summary.failed)} that could not be read")
    said = f"Read: {', '.join(parts)}."
    if summary.left_out:
        names = ", ".join(_PARTS_NAMED.get(part, part) for part in summary.left_out)
        said += f" The file’s {names} could not be read and are left out."
    if lacks_letters_of(summary.language):
        said += (
            f" No font here has the letters of {language_name(summary.language)}: what is quoted"
            " shows boxes in their place. Install one that has them, such as Noto."
        )
    return said


def told_for_ms(summary: ReadSummary) -> int:
    """Milliseconds that it takes to read that sentence, and to act on it."""
    return 15000 if summary.to_recognise or lacks_letters_of(summary.language) else 8000


def file_page(typed: str, n_pages: int) -> list[int]:
    """The page index that a typed number means before the labels are known, or none."""
    digits = typed.lower().removeprefix("file").strip().removeprefix("page").strip()
    is_number = digits.isascii() and digits.isdigit() and len(digits) < 9
    return [int(digits) - 1] if is_number and 0 < int(digits) <= n_pages else []
