"""Pages that only list headings of later pages, as a contents page without numbers goes on."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout import word_count
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.outline.titles import squash

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline.reconcile import Record

FEWEST, MOST_WORDS = 3, 16
"""Paragraphs of a page that lists, and words of each: a page that bears a title alone has fewer."""
AGAIN = 0.5
"""Share of the headings on such a page that have numbers, and that later pages have again."""

_ENDS_IN_PAGE = regex(r"[\s.](?:\d+|[ivxlc]+)\s*$")
"""The row of a list of figures or tables: "3.2 Gauges . . . 14"."""


def without_told_again(records: Sequence[Record], paragraphs: Sequence[Paragraph]) -> list[Record]:
    """Leave out the headings of pages without text whose headings come again on later pages.

    Args:
        records: What is said of the sections. Those that bookmarks or a contents page name stay.
        paragraphs: All paragraphs in reading order.
    """
    said: dict[int, list[Record]] = defaultdict(list)
    last: dict[tuple[str, str], int] = {}
    for record in records:
        page = record.place[0]
        said[page].append(record)
        called = _called(record)
        last[called] = max(last.get(called, page), page)
    lengths: dict[int, list[int]] = {
        page: [] for page, on_page in said.items()
        if not any(record.is_listed for record in on_page)
        and _n_again(on_page, last) >= AGAIN * len(on_page)
    }  # fmt: skip
    for paragraph in paragraphs if lengths else ():
        if paragraph.page in lengths:
            lengths[paragraph.page].append(_length(paragraph))
    lists = {p for p, n in lengths.items() if len(n) >= FEWEST and max(n) <= MOST_WORDS}
    return [record for record in records if record.place[0] not in lists]


def _n_again(on_page: Sequence[Record], last: Mapping[tuple[str, str], int]) -> int:
    """How many numbered headings of a page stand on a later one, too."""
    called = ((_called(record), record.place[0]) for record in on_page)
    return sum(bool(name[0]) and last[name] > page for name, page in called)


def _called(record: Record) -> tuple[str, str]:
    """The number of a heading, "" where it has none, and its words squashed."""
    number = number_of(record.title)
    return (number.identifier, squash(number.rest)) if number else ("", squash(record.title))


def _length(paragraph: Paragraph) -> int:
    """Words of a paragraph that may be a title; of any other more than a title has."""
    if paragraph.kind == "row" and _ENDS_IN_PAGE.search(paragraph.text):
        return 0
    return word_count(paragraph.text) if paragraph.kind == "body" else MOST_WORDS + 1
