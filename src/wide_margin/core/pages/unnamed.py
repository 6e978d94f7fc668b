"""Fonts that have no name, as bitmaps of letters have none: told by how wide their letters are.

Their weight and their kind cannot be read off a name. But the letters of a bold cut are all wider
than those of the text by the same share, and those of a typewriter face are all as wide as each
other (Computer Modern: "a" 0.500, bold 0.559, typewriter 0.525 of the size).
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from statistics import median
from typing import TYPE_CHECKING

import numpy as np

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
    from wide_margin.core.pages.model import Font

_NUMBERED = "\0"
"""Begins what such a font is called for the time that its page is read."""
LETTERS = 4
"""Different letters by which two fonts are compared."""
WIDER, WIDEST = 1.06, 1.35
"""So many times as wide as those of the text the letters of its bold cut are; slanted ones are 1.02
times as wide, small capitals mostly more."""
ALIKE = 1.12
"""How much the shares of single letters may differ, from the first to the last quarter of them."""
SMALLER = 0.95
"""Share of the size of the text below which letters are cut wider for their size alone."""
SAME, MOST = 1.01, 0.6
"""How much letters of one width differ, and the share of those that do not: some reach over their
box, and a full stop behind a word is of the text."""
_NARROW = frozenset("fijltrI1.,:;")


def numbered(fonts: Mapping[int | None, Font]) -> dict[int | None, Font]:
    """Fonts by their address, those without a name called so that they can be told apart."""
    bare = [handle for handle, font in fonts.items() if not font.name]
    if len(bare) < 2:
        return dict(fonts)
    called = {h: replace(fonts[h], name=f"{_NUMBERED}{n}") for n, h in enumerate(bare)}
    return {handle: called.get(handle, font) for handle, font in fonts.items()}


def with_weights(
    chars: str, boxes: FloatArray, edges: BoolArray, starts: IntArray, fonts_of: IntArray,
    sizes: FloatArray, fonts: tuple[Font, ...],
) -> tuple[Font, ...]:  # fmt: skip
    """The fonts of a page, those that have been numbered without a name again, with what they are.

    Args:
        chars: n characters.
        boxes: (n, 4) of those at ``edges`` at least, in points.
        edges: (n,) first and last characters of words.
        starts: (r,) at which runs of one font begin.
        fonts_of: (r,) their fonts.
        sizes: (r,) in points.
        fonts: Of the page.
    """
    bare = {number for number, font in enumerate(fonts) if font.name.startswith(_NUMBERED)}
    if not bare:
        return fonts
    at = np.flatnonzero(edges)
    run = np.searchsorted(starts, at, side="right") - 1
    width = (boxes[at, 2] - boxes[at, 0]) / np.maximum(sizes[run], 1e-3)
    seen = zip(at.tolist(), fonts_of[run].tolist(), width.tolist(), strict=True)
    wide = _widths(chars, bare, seen)
    letters = {number: sum(map(len, wide[number].values())) for number in bare}
    usual = {number: {c: median(ws) for c, ws in wide[number].items()} for number in bare}
    size = {number: float(np.median(sizes[fonts_of == number])) for number in bare}
    told = list(fonts)
    for number in bare:
        is_fixed = fonts[number].is_fixed or _is_of_one_width(usual[number])
        told[number] = replace(fonts[number], name="", is_fixed=is_fixed)
    text = max(
        (n for n in bare if not told[n].is_fixed), key=lambda n: (letters[n], -n), default=-1
    )
    for number in bare - {text} if text >= 0 else ():
        large = size[number] >= SMALLER * size[text]
        if large and not told[number].is_fixed and _is_wider(usual[number], usual[text]):
            told[number] = replace(told[number], is_bold=True)
    return tuple(told)


def _widths(
    chars: str, among: set[int], seen: Iterable[tuple[int, int, float]]
) -> defaultdict[int, defaultdict[str, list[float]]]:
    """Of each font, and each of its letters, how wide it is each time."""
    found: defaultdict[int, defaultdict[str, list[float]]] = defaultdict(lambda: defaultdict(list))
    for k, number, width in seen:
        if number in among and width > 0 and (chars[k].isalpha() or chars[k] in _NARROW):
            found[number][chars[k]].append(width)
    return found


def _is_of_one_width(usual: Mapping[str, float]) -> bool:
    """Whether most letters of a font, narrow ones and others, are as wide as each other."""
    if len(usual) < LETTERS:
        return False
    width = median(usual.values())
    alike = {letter for letter, w in usual.items() if width <= SAME * w and w <= SAME * width}
    return len(alike) >= MOST * len(usual) and bool(alike & _NARROW) and not alike <= _NARROW


def _is_wider(usual: Mapping[str, float], text: Mapping[str, float]) -> bool:
    """Whether the letters of a font are those of the text in bold: all wider by much the same."""
    shares: Sequence[float] = sorted(
        width / text[letter] for letter, width in usual.items() if letter in text
    )
    if len(shares) < LETTERS:
        return False
    quarter = len(shares) // 4
    is_even = shares[-1 - quarter] <= ALIKE * shares[quarter]
    return is_even and WIDER <= median(shares) <= WIDEST
