"""Contents that give no pages, and links to what is next: titles of sections and nothing else."""

from __future__ import annotations

import re
from collections import defaultdict
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence

    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline import Outline

FEWEST = 5
"""Titles that follow each other, from which they are contents."""
FEWEST_TOGETHER, USUAL = 3, 11
"""The same for those that run together in one paragraph, and how long these are on average: short
ones may be a line of code."""
SHORTEST = 4
"""Letters and digits of a title; shorter ones are words of any text."""
LONGEST, LOOKED_AT = 3000, 12
"""Characters of a paragraph that is looked at, and by how many it is seen that it may be one."""
_NO_END = frozenset(".,;:")
"""Signs that no title ends with; most text does."""
MOST_WORDS = 14
"""Words of a title."""
_NUMBERED = regex(r"(?<!\S)(\d{1,3}(?:\.\d{1,3})+)\.?\s+(?=[^\W\d_])")
_TO_NEXT = regex(
    r"\W*(?:next|previous|prev|up)\s*:\s(?:[^.!?]|[.!?](?=\S)){1,160}?[,\s|]\s*(?:next|previous|prev|up|top|home)\s*:\s",
    re.I,
)
"""Leads from one page of a manual on the web to others: "Next: Ropes, Previous: Wells, Up: Top"."""


def rows_of_titles(paragraphs: Sequence[Paragraph], outline: Outline) -> set[int]:
    """Rows of paragraphs that list titles, as the page of a manual on the web does at its top.

    The headings themselves are none of them, and no list is one that a sentence leads in to.
    """
    own = {section.first_paragraph for section in outline.sections}
    beginning: dict[str, set[str]] = defaultdict(set)
    for section in outline.sections:
        for title in {bare(section.title), bare(unnumbered(section.title))}:
            if len(title) >= SHORTEST:
                beginning[title[:SHORTEST]].add(title)
    found: set[int] = set()
    run: dict[int, list[str]] = {}
    for row, paragraph in enumerate(paragraphs):
        if row not in own and _TO_NEXT.match(paragraph.text):
            found.add(row)
        said = [] if row in own else _titles_in(paragraph.text, beginning)
        if said:
            run[row] = said
        elif run:
            found.update(run if _lists(paragraphs, run) else ())
            run = {}
    return found | set(run if run and _lists(paragraphs, run) else ())


def _lists(paragraphs: Sequence[Paragraph], run: Mapping[int, list[str]]) -> bool:
    """Whether paragraphs of titles that follow each other are contents: by how many there are."""
    titles = {title for said in run.values() for title in said}
    are_together = any(
        len(said) >= FEWEST_TOGETHER and sum(map(len, said)) >= USUAL * len(said)
        for said in run.values()
    )
    return (len(titles) >= FEWEST or are_together) and not _is_led_in(paragraphs, min(run))


def _counted(text: str) -> list[str]:
    """The numbers with which a text begins and goes on, where titles of few words follow each."""
    split = _NUMBERED.split(text)
    parts, numbers = [part.strip() for part in split[::2]], split[1::2]
    if parts[0] or any(not 0 < len(part.split()) <= MOST_WORDS for part in parts[1:]):
        return []
    if any(part.endswith((".", ";", ",", ":")) for part in parts[1:]):
        return []
    values = [tuple(map(int, number.split("."))) for number in numbers]
    return numbers if all(a < b for a, b in pairwise(values)) else []


def _is_led_in(paragraphs: Sequence[Paragraph], row: int) -> bool:
    """Whether a sentence leads in to an item: "Read these chapters first:"."""
    before = paragraphs[row - 1].text.rstrip() if row else ""
    return paragraphs[row].kind == "item" and before.endswith((":", "："))


def _titles_in(text: str, beginning: Mapping[str, set[str]]) -> list[str]:
    """The titles that a text consists of; none where it has anything else.

    A title may be one that only its number tells, of a part that is not there.

    Args:
        text: Of a paragraph.
        beginning: Squashed titles by their first letters.
    """
    if text[-1:] in _NO_END:
        return []
    if _NUMBERED.match(text) and (counted := _counted(text[:LONGEST])):
        return counted
    if bare(text[:LOOKED_AT])[:SHORTEST] not in beginning:
        return []
    left = bare(text) if len(text) < LONGEST else ""
    found: list[str] = []
    while left:
        fits = [title for title in beginning.get(left[:SHORTEST], ()) if left.startswith(title)]
        if not fits:
            return []
        found.append(max(fits, key=len))
        left = left[len(found[-1]) :]
    return found
