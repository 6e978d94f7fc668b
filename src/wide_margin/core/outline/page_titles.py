"""Titles of slides: what stands first on most pages, in one style and at one height."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Sequence
from statistics import median
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout import word_count
from wide_margin.core.layout.furniture import FEWEST_SLIDES, LEAST_TITLE, MOST_ON_SLIDE
from wide_margin.core.outline.candidates import LARGER, Style, style_of, title_in
from wide_margin.core.outline.numbering import number_of

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

LONGEST = 15
"""Words of a title."""
OF_PAGES, OF_STYLE, DIFFERENT = 0.5, 0.6, 0.4
"""Shares: of the pages that have such a title, of what is set in its style that is one, and of the
titles that say something else than the one before."""
OF_LEVEL, ALL_APART, APART = 0.75, 0.9, 1.2
"""Where text is set like the titles: the share of the pages that have one, and of these titles that
have a gap under them, of so many times their size."""
GOES_ON = regex(
    r"\s*[(\[]\s*(?:cont(?:['’]?d|inued)?|ctd|forts(?:etzung)?|suite|cont(?:inuación|inuação)|segue|vervolg)\.?\s*[)\]]$",
    re.I,
)
"""After the title of a slide that goes on with the one before."""
NUMBERED = 0.5
"""Titles of which so large a share have each a number of their own are those of chapters."""
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
    if len(by_page) < FEWEST_SLIDES:
        return {}
    full = median(sum(len(paragraphs[row].text) for row in rows) for rows in by_page.values())
    if full > MOST_ON_SLIDE:
        return {}
    body = _usual_size(paragraphs)
    firsts: dict[Style, list[int]] = defaultdict(list)
    for rows in by_page.values():
        # The names of the sections may run above the title, in small print.
        large = [row for row in rows if paragraphs[row].pieces[0].line.size >= LEAST_TITLE * body]
        top = min(large or rows, key=lambda row: paragraphs[row].pieces[0].line.box[1])
        if word_count(paragraphs[top].text) <= LONGEST:
            firsts[_look(paragraphs[top], body)].append(top)
    use = Counter(_look(paragraph, body) for paragraph in paragraphs)
    style = max(firsts, key=lambda one: len(firsts[one]), default=None)
    if style is None:
        return {}
    usual = median(paragraphs[row].pieces[0].line.box[1] for row in firsts[style])
    level = [
        row for row in firsts[style] if abs(paragraphs[row].pieces[0].line.box[1] - usual) <= LEVEL
    ]
    if len(level) < OF_PAGES * len(by_page):
        return {}
    if len(level) < OF_STYLE * use[style]:
        n_apart = sum(_is_apart(paragraphs, by_page[paragraphs[row].page], row) for row in level)
        if len(level) < OF_LEVEL * len(by_page) or n_apart < ALL_APART * len(level):
            return {}
    titles = [GOES_ON.sub("", title_in(paragraphs[row])) for row in level]
    if _n_chapters(titles) >= NUMBERED * len(titles):
        return {}
    new = [k == 0 or title != titles[k - 1] for k, title in enumerate(titles)]
    return dict(zip(level, new, strict=True)) if sum(new) >= DIFFERENT * len(new) else {}


def _n_chapters(titles: Sequence[str]) -> int:
    """How many numbers of chapters begin titles: "1 Wells", "2 Ropes"."""
    numbers = [number for number in map(number_of, titles) if number is not None]
    return len({n.identifier for n in numbers if n.scheme == "decimal" and n.depth == 1})


def _is_apart(paragraphs: Sequence[Paragraph], rows: Sequence[int], title: int) -> bool:
    """Whether a gap lies under the first paragraph of a page."""
    line = paragraphs[title].pieces[-1].line
    tops = (paragraphs[row].pieces[0].line.box[1] for row in rows if row != title)
    below = min((top for top in tops if top > line.box[1]), default=line.box[3] + 2 * line.size)
    return below - line.box[3] >= APART * line.size
