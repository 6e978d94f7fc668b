"""One outline from the bookmarks in the file and the headings on the pages."""

from collections import defaultdict
from collections.abc import Sequence
from difflib import SequenceMatcher
from functools import lru_cache
from typing import NamedTuple

from wide_margin.core.layout import Paragraph, fold, tidy
from wide_margin.core.outline.headings import Heading, find_headings
from wide_margin.core.outline.model import Outline, Section
from wide_margin.core.outline.numbering import Number, number_of
from wide_margin.core.pages import Bookmark

ALIKE = 0.85
"""Titles with at least this similarity (difflib ratio over letters and digits) are the same."""


class _Start(NamedTuple):
    title: str
    level: int
    page: int
    y: float
    paragraph: int
    witnesses: tuple[str, ...]


def build_outline(
    paragraphs: Sequence[Paragraph],
    bookmarks: Sequence[Bookmark],
    body_size: float,
    listings: frozenset[int],
    page_heights: Sequence[float],
) -> Outline:
    """Find the sections: from bookmarks where the file has them, else from headings.

    Args:
        paragraphs: All paragraphs in reading order.
        bookmarks: The file's outline items, none to go by the pages alone.
        body_size: The usual font size, in points.
        listings: Page indexes of contents pages and indexes.
        page_heights: In points.
    """
    placed = [b for b in bookmarks if b.page is not None and b.title]
    listings = between(listings)
    headings = find_headings(paragraphs, body_size, listings)
    if placed:
        starts = _supplemented(_from_bookmarks(placed, paragraphs), headings)
    else:
        starts = [_Start(h.title, h.level, h.page, h.y, h.paragraph, ("heading",))
                  for h in headings]  # fmt: skip
    return _close(starts, len(paragraphs), page_heights)


def squash(title: str) -> str:
    """Letters and digits alone, for comparing titles."""
    return "".join(c for c in fold(title) if c.isalnum())


def alike(a: str, b: str) -> bool:
    """Whether two titles are the same but for numbers in front, spelling and spaces."""
    forms_a, forms_b = _forms(a), _forms(b)
    if forms_a & forms_b - {""}:
        return True
    return any(
        _similarity(x, y) >= ALIKE
        for x in forms_a for y in forms_b
        if x and y and 2 * min(len(x), len(y)) >= ALIKE * (len(x) + len(y))
    )  # fmt: skip


def _similarity(a: str, b: str) -> float:
    matcher = SequenceMatcher(None, a, b, autojunk=False)
    return matcher.ratio() if matcher.quick_ratio() >= ALIKE else 0.0


@lru_cache(maxsize=100_000)
def _forms(title: str) -> frozenset[str]:
    number = number_of(title)
    forms = {squash(title), squash(number.rest) if number else squash(title)}
    return frozenset(forms)


def _from_bookmarks(bookmarks: Sequence[Bookmark], paragraphs: Sequence[Paragraph]) -> list[_Start]:
    on_page: dict[int, list[int]] = defaultdict(list)
    for row, paragraph in enumerate(paragraphs):
        on_page[paragraph.page].append(row)
    starts = []
    for bookmark in bookmarks:
        assert bookmark.page is not None
        heading = _heading_of(bookmark, on_page, paragraphs)
        if heading is None:
            y = bookmark.y or 0.0
            row = _first_after(bookmark.page, y, on_page, paragraphs)
            starts.append(
                _Start(bookmark.title, bookmark.level, bookmark.page, y, row, ("bookmark",))
            )
            continue
        row = heading
        line = paragraphs[row].pieces[0].line
        written = tidy(paragraphs[row].text.replace("\t", " "))
        title = bookmark.title
        if number_of(written) and not number_of(title) and squash(written).endswith(squash(title)):
            title = written
        starts.append(
            _Start(title, bookmark.level, line.page, line.box[1], row, ("bookmark", "heading"))
        )
    return starts


def _supplemented(starts: list[_Start], headings: Sequence[Heading]) -> list[_Start]:
    """Add numbered headings that the bookmarks leave out, under the section of their number.

    Only where the bookmarks have the parent ("9" for "9.3"): a file whose bookmarks stop at
    chapters is completed, and one that numbers something else is left alone.
    """
    taken = {start.paragraph for start in starts}
    level_of: dict[str, int] = {}
    for start in starts:
        if (number := number_of(start.title)) is not None:
            level_of.setdefault(number.identifier, start.level)
    added = []
    for heading in headings:
        number = number_of(heading.title)
        if number is None or heading.paragraph in taken or number.identifier in level_of:
            continue
        parent = number.identifier.rpartition(".")[0]
        sibling_level = _sibling_level(number, level_of)
        if parent in level_of:
            level = level_of[parent] + 1
        elif sibling_level is not None:
            level = sibling_level
        else:
            continue
        level_of[number.identifier] = level
        added.append(
            _Start(heading.title, level, heading.page, heading.y, heading.paragraph, ("heading",))
        )
    return starts + added


def _sibling_level(number: Number, level_of: dict[str, int]) -> int | None:
    """Level of the chapters before and after one that has no bookmark; None unless both have."""
    if number.depth != 1 or not number.identifier.isdigit():
        return None
    before, after = (level_of.get(str(int(number.identifier) + k)) for k in (-1, 1))
    return before if before is not None and before == after else None


def between(listings: frozenset[int]) -> frozenset[int]:
    """Listing pages with the single pages between two of them."""
    return listings | {page + 1 for page in listings if page + 2 in listings}


def _heading_of(
    bookmark: Bookmark, on_page: dict[int, list[int]], paragraphs: Sequence[Paragraph]
) -> int | None:
    """The paragraph on the bookmark's page that is its heading."""
    assert bookmark.page is not None
    best, best_distance = None, 1e9
    for row in on_page.get(bookmark.page, ()):
        paragraph = paragraphs[row]
        if len(paragraph.text) > 2 * len(bookmark.title) + 40:
            continue
        if alike(bookmark.title, tidy(paragraph.text.replace("\t", " "))):
            distance = abs(paragraph.pieces[0].line.box[1] - (bookmark.y or 0.0))
            if distance < best_distance:
                best, best_distance = row, distance
    return best


def _first_after(
    page: int, y: float, on_page: dict[int, list[int]], paragraphs: Sequence[Paragraph]
) -> int:
    for row in on_page.get(page, ()):
        if paragraphs[row].pieces[0].line.box[3] > y:
            return row
    later = [rows[0] for other, rows in on_page.items() if other > page and rows]
    return min(later, default=len(paragraphs))


def _close(starts: list[_Start], n_paragraphs: int, heights: Sequence[float]) -> Outline:
    """Order the starts and give each section its end."""
    starts = sorted(starts, key=lambda start: (start.paragraph, start.page, start.y))
    last_page = len(heights) - 1
    sections = []
    for k, start in enumerate(starts):
        after = next((s for s in starts[k + 1 :] if s.level <= start.level), None)
        end_paragraph, end_page, end_y = n_paragraphs, last_page, float(heights[last_page])
        if after is not None:
            end_paragraph, end_page, end_y = after.paragraph, after.page, after.y
        sections.append(
            Section(start.title, start.level, start.page, start.y, start.paragraph,
                    end_paragraph, end_page, end_y, start.witnesses)
        )  # fmt: skip
    return Outline(tuple(sections))


def heading_rows(outline: Outline) -> dict[int, int]:
    """Paragraph row to section index, for paragraphs that are a section's heading."""
    return {
        s.first_paragraph: k for k, s in enumerate(outline.sections) if "heading" in s.witnesses
    }


__all__ = ["Heading", "alike", "build_outline", "heading_rows", "squash"]
