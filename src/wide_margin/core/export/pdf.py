"""Copies of a PDF with an outline of ours; the original is never touched."""

from pathlib import Path

import pikepdf

from wide_margin.core.errors import WideMarginError
from wide_margin.core.outline import Outline


def write_bookmarks(
    source: Path, target: Path, outline: Outline, *, password: str | None = None
) -> int:
    """Write a copy of a PDF that has the sections as its bookmarks.

    Returns:
        How many bookmarks were written.

    Raises:
        WideMarginError: The copy would replace the original, or cannot be written.
    """
    if target.resolve() == source.resolve():
        raise WideMarginError("A copy cannot replace the file itself.", hint="Give another name.")
    try:
        with pikepdf.open(source, password=password or "") as pdf:
            with pdf.open_outline() as written:
                written.root.clear()
                open_: list[tuple[int, pikepdf.OutlineItem]] = []
                for section in outline.sections:
                    page = pdf.pages[section.page]
                    top = float(page.cropbox[3]) - section.y
                    item = pikepdf.OutlineItem(section.title, section.page, "XYZ", top=top)
                    while open_ and open_[-1][0] >= section.level:
                        open_.pop()
                    (open_[-1][1].children if open_ else written.root).append(item)
                    open_.append((section.level, item))
            pdf.save(target)
    except (pikepdf.PdfError, OSError) as error:
        raise WideMarginError(
            f"The copy “{target.name}” could not be written.", hint="Is its folder there?"
        ) from error
    return len(outline.sections)
