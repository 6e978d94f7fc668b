"""Bold lines that small letters and small roman numerals count: "b) Ropes", "iii. Lids"."""

from __future__ import annotations

from collections import defaultdict
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import roman_value

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wide_margin.core.outline.candidates import Candidate, Style

FEWEST, COUNTED_ON, WITH_TEXT = 4, 0.9, 0.8
"""Lines of one style that are headings if so many of them begin anew or count on from the one
before, and have text between them."""
BEGINS = ("a", "i")
_SMALL = regex(r"(?-i:(?P<id>[a-z]|[ivx]{1,5}))[.)]\s+(?=\S)")


def counted_small(candidates: Sequence[Candidate]) -> frozenset[int]:
    """Rows of the paragraphs of bold candidates that are headings by how they count."""
    of_style: dict[Style, list[tuple[int, str]]] = defaultdict(list)
    for row, candidate in enumerate(candidates):
        match = _SMALL.match(candidate.title) if candidate.style.is_bold else None
        if match is not None:
            of_style[candidate.style].append((row, match["id"]))
    found: set[int] = set()
    for rows in of_style.values():
        pairs = list(pairwise(rows))
        n_on = 1 + sum(_follows(before, after) for (_, before), (_, after) in pairs)
        n_apart = sum(
            candidates[b].paragraph - candidates[a].paragraph > 1 for (a, _), (b, _) in pairs
        )
        counts = any(after not in BEGINS for _, (_, after) in pairs)
        if (
            len(rows) >= FEWEST and counts and n_on >= COUNTED_ON * len(rows)
            and n_apart >= WITH_TEXT * len(pairs)
        ):  # fmt: skip
            found.update(candidates[row].paragraph for row, _ in rows)
    return frozenset(found)


def _follows(before: str, after: str) -> bool:
    """Whether a letter or numeral begins anew, or comes next after another one."""
    if after in BEGINS:
        return True
    if 0 < roman_value(after) == roman_value(before) + 1:
        return True
    return len(before) == len(after) == 1 and ord(after) == ord(before) + 1
