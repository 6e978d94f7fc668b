"""The section path at a place of a page."""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from wide_margin.core.document.model import ReadDocument


class PathsAt:
    """Finds paths by the characters of pages; goes through the document once."""

    def __init__(self, document: ReadDocument) -> None:
        """Of one document as read."""
        self.document = document
        self._starts: dict[int, list[tuple[int, int, int]]] = {}
        """By page: the ranges of characters of its paragraphs, and their rows."""
        for row, paragraph in enumerate(document.paragraphs):
            for span in paragraph.spans(0, len(paragraph.text)):
                self._starts.setdefault(span.page, []).append((span.start, span.end, row))

    def at(self, page: int, character: int) -> tuple[str, ...]:
        """Titles from the outermost down; those at the top of the page where no text is there."""
        outline = self.document.outline
        for first, end, row in self._starts.get(page, ()):
            if first <= character < end:
                return self.document.path_at(outline.at_paragraph(row))
        return outline.path(outline.at_place(page, 1.0))
