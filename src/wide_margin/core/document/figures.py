"""Figures and tables: their captions, where they stand, and what stands in them."""

from collections.abc import Sequence
from dataclasses import dataclass

from wide_margin.core.document.model import ReadDocument
from wide_margin.core.geometry import Box, around
from wide_margin.core.later import regex
from wide_margin.core.layout import Paragraph, SpanOnPage, tidy
from wide_margin.core.outline.titles import squash

_NUMBER = regex(r"\s*([^\W\d_]+\.?)\s+((?:[A-Z]?\d+(?:[.–-]\d+)*|[IVX]+|[A-Z])\w?)\b")
FEW_WORDS = 4
"""A line of so many words may stand inside of a figure or be left over from a cell."""
BEFORE, AFTER = 40, 60
"""Paragraphs looked at before and after a caption for what it belongs to."""


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure or table, by its caption."""

    caption: str
    page: int
    spans: tuple[SpanOnPage, ...]
    """Of the caption."""
    box: Box
    """The caption with what it belongs to, as far as the lines around it tell."""
    text: tuple[SpanOnPage, ...]
    """Of the caption and of all words in the box; empty where only a printed list names it."""

    @property
    def name(self) -> str:
        """As it is called: "Table 2"; its caption where it has no number."""
        match = _NUMBER.match(self.caption)
        return f"{match[1]} {match[2]}" if match else self.caption


def figure_numbered(document: ReadDocument, word: str, number: str) -> Figure | None:
    """The figure or table with a number; "fig." and "figure" are one word."""
    for figure in find_figures(document):
        match = _NUMBER.match(figure.caption)
        if match is None or not figure.text or match[2].lower() != number.lower():
            continue
        if match[1].lower()[:3] == word.lower()[:3]:
            return figure
    return None


def find_figures(document: ReadDocument) -> tuple[Figure, ...]:
    """Figures and tables in the order of the pages, by their captions and printed lists."""
    found = []
    for row, paragraph in enumerate(document.paragraphs):
        if paragraph.kind == "caption":
            spans = paragraph.spans(0, len(paragraph.text))
            caption = tidy(paragraph.text)[:200]
            region = _region(document, row)
            found.append(
                Figure(caption, paragraph.page, spans, region, _within(document, row, region))
            )
    found += _only_listed(document, found)
    return tuple(sorted(found, key=lambda figure: (figure.page, figure.box[1])))


def _only_listed(document: ReadDocument, found: Sequence[Figure]) -> list[Figure]:
    """Figures and tables that a printed list names and no caption was found for."""
    known = {figure.page: [] for figure in found}  # type: dict[int, list[str]]
    for figure in found:
        known[figure.page].append(squash(figure.caption))
    made = []
    for entry in document.contents.figures:
        if entry.page is None:
            continue
        title = squash(entry.title)
        near = [
            c for page in (entry.page - 1, entry.page, entry.page + 1) for c in known.get(page, ())
        ]
        if any(title[-24:] in caption for caption in near):
            continue
        width, height = (float(side) for side in document.facts.sizes[entry.page])
        made.append(Figure(entry.title, entry.page, (), (0.0, 0.0, width, height), ()))
    return made


def _is_table(caption: Paragraph) -> bool:
    return caption.text.lstrip().lower().startswith("tab")


def _region(document: ReadDocument, row: int) -> Box:
    """The area from the text before a caption to the text after it, on its page.

    A table stands under its caption, a figure over it; rows of a table belong to it.
    """
    paragraph = document.paragraphs[row]
    boxes = [piece.line.shown for piece in paragraph.pieces if piece.line.page == paragraph.page]
    x0, y0, x1, y1 = around(boxes)
    on_page = [
        around([piece.line.shown for piece in p.pieces if piece.line.page == paragraph.page])
        for p in document.paragraphs[max(0, row - BEFORE) : row + AFTER]
        if p.page == paragraph.page and p is not paragraph and p.kind in ("body", "item", "code")
        and len(p.text.split()) > FEW_WORDS  # not the words inside of a figure
    ]  # fmt: skip
    height = float(document.facts.sizes[paragraph.page, 1])
    if _is_table(paragraph):
        below = [box[1] for box in on_page if box[1] > y1]
        y1 = min([b for b in below if b > y1 + 30] or [height * 0.9]) - 6
    else:
        above = [box[3] for box in on_page if box[3] < y0]
        y0 = max(above or [height * 0.07]) + 6
    margin = 0.08 * float(document.facts.sizes[paragraph.page, 0])
    return min(x0, margin), y0, max(x1, float(document.facts.sizes[paragraph.page, 0]) - margin), y1


def _within(document: ReadDocument, row: int, region: Box) -> tuple[SpanOnPage, ...]:
    """The words of a caption and of the lines that lie in its region.

    The rows of a table that follow on its caption belong to it on the next page too.
    """
    caption = document.paragraphs[row]
    spans = list(caption.spans(0, len(caption.text)))
    for paragraph in document.paragraphs[row + 1 :]:
        if paragraph.kind not in ("row", "entry") and len(paragraph.text.split()) > FEW_WORDS:
            break
        if paragraph.page > caption.page and _is_table(caption):
            spans.extend(paragraph.spans(0, len(paragraph.text)))
    x0, y0, x1, y1 = region
    for paragraph in document.paragraphs[max(0, row - BEFORE) : row + AFTER]:
        if paragraph is caption or paragraph.kind == "caption":
            continue
        for at, line, length in paragraph.pieces:
            middle = 0.5 * (line.box[1] + line.box[3])
            if (
                line.page == caption.page
                and y0 <= middle <= y1
                and line.shown[0] < x1
                and line.shown[2] > x0
            ):
                spans.extend(paragraph.spans(at, at + length))
    return tuple(sorted(spans))
