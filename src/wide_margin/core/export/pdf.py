"""Copies of a PDF with an outline of ours; the original is never touched."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.errors import PasswordNeededError, WideMarginError
from wide_margin.core.geometry import to_user_space
from wide_margin.core.later import loaded_later
from wide_margin.core.plain import plain

if TYPE_CHECKING:
    import pikepdf

    from wide_margin.core.outline import Outline, Section
else:
    pikepdf = loaded_later("pikepdf")


def write_bookmarks(
    source: Path, target: Path, outline: Outline, *, password: str | None = None
) -> int:
    """Write a copy of a PDF that has the sections as its bookmarks.

    Returns:
        How many bookmarks were written.

    Raises:
        WideMarginError: The copy would replace the original, or cannot be written.
    """
    with copy_of(source, target, password) as pdf, pdf.open_outline() as written:
        written.root.clear()
        items: list[pikepdf.OutlineItem] = []
        for section, parent in zip(outline.sections, outline.parents, strict=True):
            items.append(_item(pdf.pages[section.page], section))
            (items[parent].children if parent >= 0 else written.root).append(items[-1])
    return len(outline.sections)


@contextmanager
def copy_of(source: Path, target: Path, password: str | None) -> Iterator[pikepdf.Pdf]:
    """A PDF to change; what was changed is written as a copy, whole or not at all.

    Raises:
        WideMarginError: The copy would replace the original, or cannot be written.
    """
    if target.resolve() == source.resolve():
        raise WideMarginError("A copy cannot replace the file itself.", hint="Give another name.")
    part = target.with_name(f".{target.name}.{os.getpid()}.part")
    try:
        with pikepdf.open(source, password=password or "") as pdf:
            yield pdf
            # The copy is protected as the original is, or not at all.
            pdf.save(part, encryption=_same_protection(pdf, password))
        part.replace(target)
    except pikepdf.PasswordError as error:
        raise PasswordNeededError(
            f"“{source.name}” is protected by a password.", hint="Give the password to copy it."
        ) from error
    except (pikepdf.PdfError, OSError) as error:
        raise WideMarginError(
            f"The copy “{target.name}” could not be written.", hint="Is its folder there?"
        ) from error
    finally:
        with suppress(OSError):
            part.unlink(missing_ok=True)


def frame_of(page: pikepdf.Page) -> tuple[tuple[float, float, float, float], int]:
    """The visible box of a page in user space, and its quarter turns clockwise."""
    box = [float(side) for side in page.cropbox]
    frame = min(box[0], box[2]), min(box[1], box[3]), max(box[0], box[2]), max(box[1], box[3])
    return frame, int(page.rotation) // 90 % 4


def _same_protection(pdf: pikepdf.Pdf, password: str | None) -> bool | pikepdf.Encryption:
    """How to protect the copy: with the password that opened the original, and its permissions.

    Raises:
        WideMarginError: Only the user's password is known; the owner's would have to be made up.
    """
    if not pdf.is_encrypted:
        return False
    if not password or pdf.owner_password_matched:
        return pikepdf.Encryption(user=password or "", owner=password or "", allow=pdf.allow)
    raise WideMarginError(
        "The file is protected, and its copy would not be.",
        hint="Open it with the owner's password to write a copy that is protected too.",
    )


def _item(page: pikepdf.Page, section: Section) -> pikepdf.OutlineItem:
    """A bookmark that leads to the top of a section, wherever /Rotate puts that."""
    frame, turns = frame_of(page)
    left, top = to_user_space(0.0, section.y, frame, turns)
    title = plain(section.title)
    return pikepdf.OutlineItem(title, section.page, "XYZ", left=left, top=top, zoom=0)
