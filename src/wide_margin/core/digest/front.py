"""The front of a document: the lines of its first pages, as a reader takes a first look at them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import takewhile
from typing import TYPE_CHECKING

from wide_margin.core.document import Locator
from wide_margin.core.later import regex
from wide_margin.core.layout import SpanOnPage, tidy
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.passages import rows_of_titles
from wide_margin.core.plain import one_line

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.layout import Line

NEXT_ROWS, FEW_ROWS = 5, 2
"""Lines after a title of contents, of which so many at least end as rows of contents do."""
FRONT_PAGES = 5
"""Title page, its back, and what comes before the contents."""
SAME_SIZE = 0.94
"""Lines of a title have at least this share of its largest line's size."""
APART, APART_ON_TITLE_PAGE = 2.2, 3.0
"""Lines of one title lie at most so many sizes apart, from top to top."""
FULL_PAGE = 25
"""A page with more lines is no title page."""
PROSE = 30
"""Words from which a paragraph of the front is text, and no line of its title page."""
_NOTE, _MARKED = regex(r"(\d)(?=[A-Z])"), regex(r"(?<=[^\W\d_])\s(\d)$")
OF_NOTE = 0.7
"""Notes on a title are set in at most this share of its size, their mark before their first word."""
_LISTS = squashed("contents", "list_of", "index")
_ROW_END = regex(r"(?:\s{3,}|(?:\s?\.){3,}\s*)(?:\d{1,4}|[ivxlc]{1,6})$")
"""A leader, or a wide gap, and a page number."""
_NUMBER_END = regex(r"[\s.](?:\d{1,4}|[ivxlc]{1,6})$")
LISTED = 3
"""So many rows one after the other are a listing, under a heading or not."""
_LETTERS = regex(r"[^\W\d_]")
_ABSTRACT = regex(
    r"^\W*(?:abstract|summary|zusammenfassung|résumé|resumen|sommario|resumo|samenvatting)\b", re.I
)


@dataclass(frozen=True, slots=True)
class FrontLine:
    """A line of the front, its footnote marks left out."""

    text: str
    page: int
    size: float
    """Of its type, points."""
    top: float
    """Points from the top of the page."""
    left: float
    right: float
    is_bold: bool
    spans: tuple[SpanOnPage, ...]
    paragraph: int

    @property
    def n_letters(self) -> int:
        """How many letters it has."""
        return len(_LETTERS.findall(self.text))


@dataclass(frozen=True, slots=True)
class Fact:
    """One thing the document says of itself, and where."""

    text: str
    locator: Locator


def front_lines(document: ReadDocument) -> list[FrontLine]:
    """The lines of the first pages, page by page from the top down, none beside the text.

    Titles that are listed there one after the other are none of them.

    Pages whose text is damaged have none: no title can be read off them.
    """
    found, damaged = [], frozenset(document.garbled)
    front = list(takewhile(lambda p: p.page < FRONT_PAGES, document.paragraphs))
    listed = rows_of_titles(front, document.outline)
    for row, paragraph in enumerate(front):
        if row in listed:
            continue
        for piece in paragraph.pieces:
            is_sound = piece.line.page not in damaged and piece.line.apart != "side"
            if piece.line.page < FRONT_PAGES and is_sound:
                found.append(_front_line(piece.line, row))
    order = sorted(
        range(len(found)), key=lambda k: (found[k].page, round(found[k].top), found[k].left)
    )
    return _without_marks([found[k] for k in order if found[k].text])


def _without_marks(lines: list[FrontLine]) -> list[FrontLine]:
    """The lines, a large one without the mark of a note at the foot of its page: "Manual 1"."""
    notes = {
        (line.page, note[1]): line.size for line in lines if (note := _NOTE.match(line.text))
    }  # fmt: skip
    kept = []
    for line in lines:
        mark = _MARKED.search(line.text)
        size = notes.get((line.page, mark[1])) if mark else None
        if mark and size is not None and size <= OF_NOTE * line.size:
            line = replace(line, text=line.text[: mark.start()])
        kept.append(line)
    return kept


def running_lines(document: ReadDocument) -> list[FrontLine]:
    """The running heads and feet of the first pages."""
    return [_front_line(line, -1) for line in document.running]


def _front_line(line: Line, row: int) -> FrontLine:
    text = line.text
    for first, end in reversed(line.marks):
        text = text[:first] + " " + text[end:]
    x0, y0, x1, _ = line.box
    spans = tuple(SpanOnPage(line.page, first, end) for first, end in line.spans)
    return FrontLine(
        "   ".join(tidy(cell) for cell in text.split("\t")).strip(),
        line.page,
        line.size,
        y0,
        x0,
        x1,
        line.is_bold,
        spans,
        row,
    )


def line_locator(document: ReadDocument, lines: Sequence[FrontLine], quote: str = "") -> Locator:
    """The locator of some lines of one page."""
    first = lines[0]
    spans = tuple(span for line in lines for span in line.spans)
    return Locator(
        first.page, document.labels.of(first.page), spans, (),
        quote or " ".join(line.text for line in lines), y=first.top,
    )  # fmt: skip


def begins_abstract(text: str) -> bool:
    """Whether a line is the heading of an abstract, or begins one."""
    return bool(_ABSTRACT.match(text))


def fact_of(document: ReadDocument, lines: Sequence[FrontLine]) -> Fact:
    """What some lines say, joined to one text, and where."""
    parts = [lines[0].text]
    for line in lines[1:]:
        parts[-1], blank = _joint(document, parts[-1], line.text)
        parts.append(f"{blank}{line.text}")
    text = one_line("".join(parts))
    return Fact(text, line_locator(document, lines, text))


def _joint(document: ReadDocument, text: str, following: str) -> tuple[str, str]:
    """The end of a line as it stands before the next one, and what is between both.

    A hyphen that only divides a word goes: the document has the word whole elsewhere.
    """
    begun, goes_on = _BEGUN.search(text), _GOES_ON.match(following)
    if not begun:
        return text, " "
    if goes_on:
        index = document.index
        stems = index.analyser.terms(f"{begun[1]}{goes_on[0]}".lower())
        rows = [index.term_ids[stem] for stem in stems if stem in index.term_ids]
        if any(len(index.by_sentence.of(row)[0]) >= FEWEST_WHOLE for row in rows):
            return text[:-1], ""
    return text, ""


FEWEST_WHOLE = 2
"""Sentences that have a word whole, one of which may be what is looked at."""
_BEGUN, _GOES_ON = regex(r"([^\W\d_]+)-$|\S-$"), regex(r"[^\W\d_]+")
"""A word divided at the end of a line, or a mark with a hyphen; and what goes on with a word."""


def without_listings(lines: Sequence[FrontLine]) -> list[FrontLine]:
    """The lines without tables of contents: what they name is no title and no author."""
    kept: list[FrontLine] = []
    lists = -1
    for k, line in enumerate(lines):
        if line.page == lists:
            continue
        following = lines[k : k + LISTED]
        is_row = len(following) == LISTED and all(
            _ROW_END.search(row.text) and row.page == line.page for row in following
        )
        is_title = bare(line.text) in _LISTS
        if is_row or (is_title and _goes_on_in_rows(lines, k)):
            lists = line.page
        elif not is_title:
            kept.append(line)
    return kept


def _goes_on_in_rows(lines: Sequence[FrontLine], row: int) -> bool:
    """Whether a title of contents has some under it; a page from the web may have left them out."""
    after = [line for line in lines[row + 1 : row + 1 + NEXT_ROWS] if line.page == lines[row].page]
    return not after or sum(_NUMBER_END.search(line.text) is not None for line in after) >= FEW_ROWS


def blocks_of(lines: Sequence[FrontLine], apart: float = APART) -> list[list[FrontLine]]:
    """Lines of one size that follow each other closely, in a column of their own or not."""
    blocks: list[list[FrontLine]] = []
    for line in lines:
        for block in reversed(blocks):
            last = block[-1]
            if line.top - last.top <= apart * line.size and _look_alike(line, last):
                block.append(line)
                break
            if overlap_across(line, last):
                blocks.append([line])
                break
        else:
            blocks.append([line])
    return blocks


def _look_alike(line: FrontLine, last: FrontLine) -> bool:
    sizes = line.size, last.size
    return (
        min(sizes) >= SAME_SIZE * max(sizes)
        and line.is_bold == last.is_bold
        and overlap_across(line, last)
    )


def overlap_across(line: FrontLine, other: FrontLine) -> bool:
    """Whether lines stand one above the other, or on either side of the middle of one column."""
    return line.left < other.right and other.left < line.right


def letters_of(text: str) -> str:
    """The letters and digits of a text, in small letters."""
    return "".join(re.findall(r"\w", text.casefold()))


def is_of_paragraph(document: ReadDocument, line: FrontLine) -> bool:
    """Whether a line belongs to a paragraph of text; running lines belong to none."""
    return line.paragraph >= 0 and len(document.paragraphs[line.paragraph].text.split()) > PROSE
