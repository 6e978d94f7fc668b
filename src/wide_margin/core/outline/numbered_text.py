"""Titles in a text whose paragraphs are numbered throughout, as where a program is explained."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout import RUN_IN, tidy
from wide_margin.core.outline.candidates import Candidate, Style

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

FEWEST, FEWEST_TITLED = 20, 2
"""Numbered paragraphs, and those of them with a title."""
BARE = 2
"""Times as many have none: else they are items of a list that each have one."""
IN_ORDER = 0.9
"""Share of the numbers that are larger than the one before."""
_BARE = regex(r"(\d{1,4})\*?\.")


def titled_paragraphs(paragraphs: Sequence[Paragraph]) -> list[Candidate]:
    """The paragraphs that begin with a number and a title in bold, where most have a number alone.

    "14. Input. The file …" begins a section, and "15. If it cannot be opened …" goes on in it. A
    star at the number says that the paragraph was changed.

    Args:
        paragraphs: All, in reading order.
    """
    numbers: list[int] = []
    titled: list[Candidate] = []
    for row, paragraph in enumerate(paragraphs):
        line = paragraph.pieces[0].line
        if not line.lead or paragraph.kind not in ("body", "item"):
            continue
        lead = line.text[: line.lead].strip()
        if match := RUN_IN.fullmatch(lead):
            title = tidy(f"{match['number']}. {match['title']}".replace("\t", " "))
            style = Style(round(line.size * 2) / 2, True, False, False)
            titled.append(Candidate(title, style, row, line.page, line.box[1], row, line.box[1]))
            numbers.append(int(match["number"]))
        elif match := _BARE.fullmatch(lead):
            numbers.append(int(match[1]))
    n_rising = sum(after > before for before, after in pairwise(numbers))
    is_throughout = len(numbers) >= FEWEST and n_rising >= IN_ORDER * (len(numbers) - 1)
    few = len(titled) >= FEWEST_TITLED and (1 + BARE) * len(titled) <= len(numbers)
    return titled if is_throughout and few else []
