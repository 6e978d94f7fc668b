"""Titles of slides: what stands first on most pages, in one style and at one height."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from statistics import median
from typing import TYPE_CHECKING

from wide_margin.core.outline.candidates import LARGER, Style, style_of, title_in

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

FEWEST_PAGES, MOST_LETTERS = 8, 900
"""Pages with text, and characters on one in the middle of all: fewer pages, and fuller ones, are no
slides."""
LONGEST = 15
"""Words of a title."""
OF_PAGES, OF_STYLE, DIFFERENT = 0.5, 0.6, 0.4
"""Shares: of the pages that have such a title, of what is set in its style that is one, and of the
titles that say something else than the one before."""
LEVEL = 24.0
"""Points by which titles may stand higher or lower than usual."""


def _look(paragraph: Paragraph, body: float) -> Style:
    """How a paragraph is set; of what is larger than the text the size alone.

    A title in two scripts is in two faces, of which one may be bold.
    """
    style = style_of(paragraph)
    return Style(style.size, False, False, False) if style.size >= LARGER * body else style


def _usual_size(paragraphs: Sequence[Paragraph]) -> float:
    """Of most letters."""
    letters: Counter[float] = Counter()
    for paragraph in paragraphs:
        letters[round(paragraph.pieces[0].line.size * 2) / 2] += len(paragraph.text)
    return letters.most_common(1)[0][0] if letters else 0.0


def page_titles(paragraphs: Sequence[Paragraph]) -> dict[int, bool]:
    """Rows of the titles of slides, each with whether it says something else than the one before.

    Empty where a document is none of slides. Of a document of running text only the length of its
    paragraphs is looked at.

    Args:
        paragraphs: All, in reading order.
    """
    by_page: dict[int, list[int]] = defaultdict(list)
    for row, paragraph in enumerate(paragraphs):
        by_page[paragraph.page].append(row)
    if len(by_page) < FEWEST_PAGES:
        return {}
    full = median(sum(len(paragraphs[row].text) for row in rows) for rows in by_page.values())
    if full > MOST_LETTERS:
        return {}
    body = _usual_size(paragraphs)
    firsts: dict[Style, list[int]] = defaultdict(list)
    for rows in by_page.values():
        top = min(rows, key=lambda row: paragraphs[row].pieces[0].line.box[1])
        if len(paragraphs[top].text.split()) <= LONGEST:
            firsts[_look(paragraphs[top], body)].append(top)
    use = Counter(_look(paragraph, body) for paragraph in paragraphs)
    style = max(firsts, key=lambda one: len(firsts[one]), default=None)
    if style is None:
        return {}
    usual = median(paragraphs[row].pieces[0].line.box[1] for row in firsts[style])
    level = [
        row for row in firsts[style] if abs(paragraphs[row].pieces[0].line.box[1] - usual) <= LEVEL
    ]
    if len(level) < OF_PAGES * len(by_page) or len(level) < OF_STYLE * use[style]:
        return {}
    titles = [title_in(paragraphs[row]) for row in level]
    new = [k == 0 or title != titles[k - 1] for k, title in enumerate(titles)]
    return dict(zip(level, new, strict=True)) if sum(new) >= DIFFERENT * len(new) else {}
