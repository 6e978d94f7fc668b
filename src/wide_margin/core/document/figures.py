"""Figures and tables: their captions, where they stand, and what stands in them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.document.locators import Locator
from wide_margin.core.geometry import Box, around
from wide_margin.core.later import regex
from wide_margin.core.layout import SpanOnPage, tidy
from wide_margin.core.outline.titles import squash

if TYPE_CHECKING:
    from wide_margin.core.document.model import ReadDocument
    from wide_margin.core.layout import Paragraph

_NUMBER = regex(r"\s*([^\W\d_]+\.?)\s+((?:[A-Z]?\d+(?:[.–-]\d+)*|[IVX]+|[A-Z])\w?)\b")
FEW_WORDS = 4
"""A line of so many words may stand inside of a figure or be left over from a cell."""
FEW_LINES = 5
"""Fewer lines do not tell a column."""
ROOM = 4.0
"""What a caption names takes at least so many times the size of its letters."""
OWN_TEXT = 30.0
"""Points from a table's caption in which text is of its cells."""
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


def figure_locator(document: ReadDocument, figure: Figure) -> Locator:
    """The way to the caption of a figure or table."""
    path = document.path_at(document.outline.at_place(figure.page, figure.box[1]))
    label = document.labels.of(figure.page)
    return Locator(figure.page, label, figure.spans, path, figure.caption, y=figure.box[1])


def find_figures(document: ReadDocument) -> tuple[Figure, ...]:
    """Figures and tables in the order of the pages, by their captions and printed lists."""
    captions = [
        _around(document, k) for k, p in enumerate(document.paragraphs) if p.kind == "caption"
    ]
    found = []
    for caption, under in zip(captions, _sides(document, captions), strict=True):
        paragraph = document.paragraphs[caption.row]
        region = _region(caption, under)
        within = _within(document, caption.row, region, under)
        spans = paragraph.spans(0, len(paragraph.text))
        found.append(Figure(tidy(paragraph.text)[:200], paragraph.page, spans, region, within))
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
        width, height = document.facts.sizes[entry.page]
        made.append(Figure(entry.title, entry.page, (), (0.0, 0.0, width, height), ()))
    return made


def _is_table(caption: Paragraph) -> bool:
    return caption.text.lstrip().lower().startswith("tab")


@dataclass(frozen=True, slots=True)
class _Caption:
    """A caption and what stands around it on its page, or in its column there; in points."""

    row: int
    """Of its paragraph."""
    is_table: bool
    size: float
    """Of its letters."""
    box: Box
    column: tuple[float, float]
    """Left and right of what it may name."""
    texts: tuple[Box, ...]
    """Of the running texts and the other captions."""
    height: float
    """Of the page."""

    @property
    def above(self) -> float:
        """Where the text above it ends, or the page's head."""
        return max([box[3] for box in self.texts if box[3] <= self.box[1]] or [0.07 * self.height])

    @property
    def below(self) -> float:
        """Where the text under it begins, or the page's foot."""
        return min([box[1] for box in self.texts if box[1] >= self.box[3]] or [0.93 * self.height])


def _around(document: ReadDocument, row: int) -> _Caption:
    paragraph = document.paragraphs[row]
    line, page = paragraph.pieces[0].line, paragraph.page
    near = document.paragraphs[max(0, row - BEFORE) : row + AFTER]
    width, height = document.facts.sizes[page]
    same = [
        piece.line.shown for p in near for piece in p.pieces
        if piece.line.page == line.page and piece.line.column == line.column
    ]  # fmt: skip
    left, _, right, _ = around(same)
    is_column = len(same) >= FEW_LINES and right - left < 0.55 * width
    texts = tuple(
        _on_page(p, page) for p in near
        if p.page == page and p is not paragraph
        and p.kind in ("body", "item", "code", "caption")
        and len(p.text.split()) > FEW_WORDS  # not the words inside of a figure
        and (not is_column or p.pieces[0].line.column == line.column)
    )  # fmt: skip
    column = (left, right) if is_column else (0.08 * width, 0.92 * width)
    is_table = _is_table(paragraph)
    return _Caption(row, is_table, line.size, _on_page(paragraph, page), column, texts, height)


def _on_page(paragraph: Paragraph, page: int) -> Box:
    """The box of what of a paragraph stands on a page."""
    return around([piece.line.shown for piece in paragraph.pieces if piece.line.page == page])


def _region(caption: _Caption, under: bool) -> Box:
    """The area from the text before a caption to the text after it, on its page.

    Args:
        caption: It.
        under: Whether what it names stands under it.
    """
    x0, y0, x1, y1 = caption.box
    left, right = caption.column
    if under:
        below = [box[1] for box in caption.texts if box[1] > y1 + OWN_TEXT]
        y1 = min(below or [caption.height * 0.9]) - 6
    else:
        own = OWN_TEXT if caption.is_table else 0.0
        above = [box[3] for box in caption.texts if box[3] < y0 - own]
        y0 = max(above or [caption.height * 0.07]) + 6
    return min(x0, left), y0, max(x1, right), y1


def _stands_under(document: ReadDocument, caption: _Caption) -> bool | None:
    """Whether what a caption names stands under it; None where nothing tells.

    The rows of a table tell, else where there is more room without text.
    """
    if caption.is_table:
        before, after = (_is_row(document, caption.row, step) for step in (-1, 1))
        if before != after:
            return after
    above, below = caption.box[1] - caption.above, caption.below - caption.box[3]
    if max(above, below) < ROOM * caption.size or 0.4 < above / max(above + below, 1.0) < 0.6:
        return None
    return below > above


def _is_row(document: ReadDocument, row: int, step: int) -> bool:
    """Whether the paragraph before or after a caption is of a table."""
    at, page = row + step, document.paragraphs[row].page
    if not 0 <= at < len(document.paragraphs) or document.paragraphs[at].page != page:
        return False
    paragraph = document.paragraphs[at]
    return paragraph.kind == "row" or (paragraph.kind == "entry" and "\t" in paragraph.text)


def _sides(document: ReadDocument, captions: Sequence[_Caption]) -> list[bool]:
    """For each caption whether what it names stands under it; as most of its kind where untold.

    A table stands under its caption and a figure over it where no caption of the document tells.
    """
    told = [_stands_under(document, caption) for caption in captions]
    usual = {}
    for is_table in (True, False):
        known = [
            under for caption, under in zip(captions, told, strict=True)
            if caption.is_table is is_table and under is not None
        ]  # fmt: skip
        votes = sum(1 if under else -1 for under in known)
        usual[is_table] = votes > 0 if votes else is_table
    return [
        usual[caption.is_table] if under is None else under
        for caption, under in zip(captions, told, strict=True)
    ]


def _within(document: ReadDocument, row: int, region: Box, under: bool) -> tuple[SpanOnPage, ...]:
    """The words of a caption and of the lines that lie in its region.

    The rows of a table that follow on its caption belong to it on the next page too.
    """
    caption = document.paragraphs[row]
    spans = list(caption.spans(0, len(caption.text)))
    for paragraph in document.paragraphs[row + 1 :] if under else ():
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
