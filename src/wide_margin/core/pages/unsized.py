"""Fonts whose size says nothing: glyphs drawn as pictures of dots, in units of their own.

Some writers put glyphs in a file as pictures (Type 3, ISO 32000-1, 9.6.5) and scale them in the
font instead of the text, so that all text is "0.12 points" high. How large it is then is told by
the letters themselves: small ones, tall ones and digits have much the same share of the size in
all roman faces.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.pages import native

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray, IntArray

LEAST = 2.0
"""In points; no text is set so small, which is said of it where its size says nothing."""
X_HEIGHT, TALL, DIGIT, DEEP = 0.46, 0.70, 0.67, 0.65
"""Height of letters in sizes, with the dots at their edge: x, capitals and those with ascenders,
digits, with descenders."""
ASCENT, DESCENT = 0.75, 0.25
"""What boxes of other fonts reach above and below the line of writing, in sizes."""
APART = 3.0
"""A font so many times as large as usual, or as small, has letters with false boxes."""
STEP = 0.5
"""Sizes are told to so many points: dots are too coarse for more."""
_SHARE = (
    dict.fromkeys("acemnorsuvwxz", X_HEIGHT) | dict.fromkeys("bdfhkl", TALL)
    | dict.fromkeys("ABCDEFGHIJKLMNOPRSTUVWXYZ", TALL) | dict.fromkeys("0123456789", DIGIT)
    | dict.fromkeys("gpqy", DEEP)
)  # fmt: skip


def measured(
    letters: Sequence[str], heights: Sequence[float], groups: Sequence[tuple[int, float]]
) -> dict[tuple[int, float], float]:
    """The size of fonts that is told by their letters.

    Args:
        letters: To measure, n of them.
        heights: How high the ink of each is, in points.
        groups: The font of each, and the size that it says.

    Returns:
        For each font and size that is too small to be true, points; that of the page's other
        such fonts where one has no letters to tell.
    """
    told: defaultdict[tuple[int, float], list[float]] = defaultdict(list)
    for letter, height, group in zip(letters, heights, groups, strict=True):
        if group[1] >= LEAST:
            continue
        found = told[group]
        if (share := _SHARE.get(letter)) and height > 0:
            found.append(height / share)
    every = [size for sizes in told.values() for size in sizes]
    usual = float(np.median(every)) if every else LEAST
    found_of = {group: float(np.median(sizes or [usual])) for group, sizes in told.items()}
    return {
        group: max(round(size / STEP) * STEP, LEAST)
        for group, size in (
            (group, size if 1 / APART < size / usual < APART else usual)
            for group, size in found_of.items()
        )
    }


def stand_on_line(
    address: int, loose: FloatArray, rows: IntArray, spots: IntArray, sizes: FloatArray
) -> None:
    """Give the boxes of upright characters the height that their size has, in place.

    Args:
        address: The page's text.
        loose: (n, 4) left, bottom, right, top in user space.
        rows: (k,) those to mend.
        spots: (k,) the characters that they are of.
        sizes: (k,) their sizes in points.
    """
    y, upright = native.baselines(address, spots.tolist())
    some = rows[upright]
    loose[some, 1] = y[upright] - DESCENT * sizes[upright]
    loose[some, 3] = y[upright] + ASCENT * sizes[upright]
