"""Footnotes tied to the marks that point to them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.layout import NOTE_MARK, tidy

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph


class Tie(NamedTuple):
    """A mark in the text and the footnote it points to."""

    paragraph: int
    """Row of the paragraph with the mark."""
    start: int
    """The mark in that paragraph's text, end exclusive."""
    end: int
    note: int
    """Row of the paragraph that is the note."""


def find_notes(paragraphs: Sequence[Paragraph]) -> tuple[Tie, ...]:
    """Tie each mark to the first note on its page, or the next, that begins with it.

    A note is tied once; the marks of a page are taken in reading order.
    """
    notes: dict[tuple[int, str], list[int]] = defaultdict(list)
    for row, paragraph in enumerate(paragraphs):
        if paragraph.kind == "note" and (match := NOTE_MARK.match(paragraph.text)):
            notes[paragraph.page, match[1]].append(row)
    ties = []
    for row, paragraph in enumerate(paragraphs) if notes else ():
        for at, line, length in paragraph.pieces:
            for first, end in line.marks:
                if end > length:
                    continue
                mark = tidy(line.text[first:end])
                found = notes.get((line.page, mark)) or notes.get((line.page + 1, mark))
                if found and found[0] != row:
                    ties.append(Tie(row, at + first, at + end, found.pop(0)))
    return tuple(ties)
