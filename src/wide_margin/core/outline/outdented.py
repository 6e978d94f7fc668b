"""Headings that stand out to the left: bold lines that begin where no text does."""

from __future__ import annotations

from collections import defaultdict
from typing import TYPE_CHECKING

from wide_margin.core.layout import STOPS, word_count

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence

    from wide_margin.core.layout import Paragraph

FEWEST = 4
"""Headings of the highest level."""
ALL_TITLES, DIFFERENT = 0.85, 0.7
"""Of the characters that begin at one edge, the share that titles have; of these, that are no
other's."""
STRAY = 0.005
"""Share of a document's characters that may begin anywhere, as a label of a figure does."""
FEW = 0.002
"""The same for what may begin at one edge with headings, as a foot of the last page does."""
FAR_OUT = 1.0
"""Sizes that headings begin before the text, at least."""
LONGEST, MOST_LINES = 15, 2
"""Words and lines of a heading."""
LEVEL = 3.0
"""Points by which the edges of one level differ at most."""
LIKE_TEXT = 1.25
"""Times the text's size: what is larger is told by that."""
_APART = ("side", "number", "stamp", "figure")


def outdented(paragraphs: Sequence[Paragraph], body_size: float) -> dict[int, int]:
    """Rows of headings that begin left of all text, each with its level, from 0; empty for none.

    The further out, the higher, and at one edge the larger: printed manual pages have sections at
    the page's edge, their subsections set in a little, and the text further in, where terms are as
    bold as headings.

    Args:
        paragraphs: All, in reading order.
        body_size: The usual font size, in points.
    """
    n_at: dict[float, int] = defaultdict(int)
    titles_at: dict[float, list[int]] = defaultdict(list)
    for row, paragraph in enumerate(paragraphs):
        if paragraph.kind in _APART:
            continue
        for _, line, length in paragraph.pieces:
            n_at[line.box[0]] += length
        if _is_title(paragraph, body_size):
            titles_at[paragraph.pieces[0].line.box[0]].append(row)
    found: dict[int, tuple[float, float]] = {}
    total = sum(n_at.values())
    for edges in _gathered(sorted(n_at)):
        n = sum(n_at[edge] for edge in edges)
        rows = [row for edge in edges for row in titles_at[edge]]
        n_titles = sum(len(paragraphs[row].text) for row in rows)
        n_different = len({paragraphs[row].text for row in rows})
        all_titles = n_titles >= ALL_TITLES * n or (2 * n_titles > n and n - n_titles < FEW * total)
        if rows and all_titles and n_different >= DIFFERENT * len(rows):
            if not found and len(rows) < FEWEST:
                return {}
            found |= {row: (edges[0], -_size_of(paragraphs[row])) for row in rows}
        elif n > STRAY * total:  # here the text begins
            last = max((edge for edge, _ in found.values()), default=edges[0])
            return _levels(found) if edges[0] - last >= FAR_OUT * body_size else {}
    return {}


def _size_of(paragraph: Paragraph) -> float:
    return round(2 * paragraph.pieces[0].line.size) / 2


def _levels(found: Mapping[int, tuple[float, float]]) -> dict[int, int]:
    """Levels by edge and, at one edge, by size."""
    levels = {key: level for level, key in enumerate(sorted(set(found.values())))}
    return {row: levels[key] for row, key in found.items()}


def _gathered(edges: Sequence[float]) -> list[list[float]]:
    """Left edges from left to right, those of one level together."""
    found: list[list[float]] = []
    for edge in edges:
        if found and edge - found[-1][0] <= LEVEL:
            found[-1].append(edge)
        else:
            found.append([edge])
    return found


def _is_title(paragraph: Paragraph, body_size: float) -> bool:
    """Whether it is bold, of about the text's size, and short."""
    line, text = paragraph.pieces[0].line, paragraph.text.strip()
    return (
        line.is_bold and not line.lead and line.size < LIKE_TEXT * body_size
        and len(paragraph.pieces) <= MOST_LINES and word_count(text) <= LONGEST
        and not (text.endswith(tuple(STOPS)) and word_count(text) > 1)
    )  # fmt: skip
