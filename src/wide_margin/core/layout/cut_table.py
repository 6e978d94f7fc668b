"""Rows and columns of a region that was cut out of a page.

Where rules are drawn they part the columns and rows; else columns are parted by what is white over
all lines, and a line that fills only some of the columns, close under another, goes on with it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import union
from wide_margin.core.layout.paragraphs import CAPTION
from wide_margin.core.layout.ruled import level_among, upright_among
from wide_margin.core.layout.text import HYPHENS, tidy

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box, FloatArray
    from wide_margin.core.layout.selecting import TextLayer
    from wide_margin.core.pages import PageText

JOINED = 2.5
"""Rules so near each other, in points, are one."""
MUCH = 0.2
"""A rule between columns is at least so much of the region's height, in its pieces together."""
WIDE = 0.6
"""White between columns is at least so many times the size of the letters; more over few lines."""
FEW_LINES = 4
CROSSED = 0.15
"""So much of the lines may lie across what parts two columns, as heads over several do."""
CLOSE = 1.15
"""A line that goes on stands within so many usual steps of the line above."""
LOOSE = 1.5
"""The lines of a caption stand within so many times their height of each other."""
MOST_LINES = 4
"""Of a caption."""
RULED, RULED_BOTH_WAYS = 0.8, 0.5
"""Where rules part so many of the lines that have a label, they part all rows; fewer need do so
where rules part the columns too."""
GLUED = 0.35
"""Letters farther apart, in their height, are of two words even where no space stands."""
Rows = tuple[tuple[str, ...], ...]


@dataclass(frozen=True, slots=True)
class _Word:
    text: str
    x0: float
    y0: float
    x1: float
    y1: float

    @property
    def middle(self) -> float:
        return (self.x0 + self.x1) / 2

    @property
    def height(self) -> float:
        return (self.y0 + self.y1) / 2


def cells_of(layer: TextLayer, box: Box, rules: FloatArray) -> Rows:
    """The cells of a region.

    Args:
        layer: The page's text.
        box: The region, in page space.
        rules: (n, 4) straight rules of the page; see pages.rules.

    Returns:
        Rows of equally many texts, a caption left out; empty where there are no columns.
    """
    lines = _without_caption(_lines(_words(layer, box)))
    if len(lines) < 2:
        return ()
    within = _within(rules, box)
    uprights = _uprights(within, lines)
    edges = _edges(uprights, lines)
    if not edges:
        return ()
    placed = [_placed(line, edges) for line in lines]
    share = RULED_BOTH_WAYS if uprights else RULED
    rows = _rows(placed, lines, _levels(within, lines), share)
    used = [k for k in range(len(edges) + 1) if any(row[k] for row in rows)]
    texts = [tuple(_said(row[k]) for k in used) for row in rows]
    found = tuple(row for row in texts if any(row))
    return found if len(used) > 1 and len(found) > 1 else ()


def _words(layer: TextLayer, box: Box) -> list[_Word]:
    """The words whose middles lie in the region."""
    x0, y0, x1, y1 = box
    page, found = layer.page, []
    for row in range(len(layer.lines)):
        letters: list[int] = []
        for at in layer.order[layer.starts[row] : layer.starts[row + 1]].tolist():
            is_seen = not page.chars[at].isspace() and not np.isnan(page.boxes[at, 0])
            if letters and (not is_seen or _is_apart(page.boxes[letters[-1]], page.boxes[at])):
                found.append(_word(page, letters))
                letters = []
            letters += [at] if is_seen else []
        if letters:
            found.append(_word(page, letters))
    return [word for word in found if x0 <= word.middle <= x1 and y0 <= word.height <= y1]


def _is_apart(before: FloatArray, box: FloatArray) -> bool:
    """Whether two letters stand as far apart as those of two words."""
    return not -1.0 < (box[0] - before[2]) / max(float(box[3] - box[1]), 1.0) < GLUED


def _word(page: PageText, letters: Sequence[int]) -> _Word:
    x0, y0, x1, y1 = union(page.boxes[letters])
    return _Word("".join(page.chars[at] for at in letters), x0, y0, x1, y1)


def _lines(words: Sequence[_Word]) -> list[list[_Word]]:
    """Words at one height, from left to right; the lines from the top down."""
    lines: list[list[_Word]] = []
    for word in sorted(words, key=lambda word: word.y1):
        tall = word.y1 - word.y0
        if lines and abs(word.height - _height(lines[-1])) < 0.45 * tall:
            lines[-1].append(word)
        else:
            lines.append([word])
    return [sorted(line, key=lambda word: word.x0) for line in lines]


def _height(line: Sequence[_Word]) -> float:
    return float(np.median([word.height for word in line]))


def _steps(lines: Sequence[Sequence[_Word]]) -> list[float]:
    return [_height(b) - _height(a) for a, b in pairwise(lines)]


def _without_caption(lines: list[list[_Word]]) -> list[list[_Word]]:
    """Without the lines of a caption above or below."""
    if len(lines) < 2:
        return lines
    steps = _steps(lines)
    for k, line in enumerate(lines):
        if not CAPTION.match(" ".join(word.text for word in line)):
            continue
        if k > len(lines) // 2:
            return lines[:k]
        tall = max(word.y1 - word.y0 for word in line)
        end = k + 1
        while end < len(lines) and steps[end - 1] < LOOSE * tall and not _is_parted(lines[end]):
            end += 1
        return lines[end if end - k <= MOST_LINES else k + 1 :]
    return lines


def _is_parted(line: Sequence[_Word]) -> bool:
    """Whether words of a line stand apart as those of two cells."""
    return any(b.x0 - a.x1 > a.y1 - a.y0 for a, b in pairwise(line))


def _within(rules: FloatArray, box: Box) -> FloatArray:
    """Rules that lie in the region, cut to it."""
    x0, y0, x1, y1 = (box[0] - JOINED, box[1] - JOINED, box[2] + JOINED, box[3] + JOINED)
    low, high = np.array([x0, y0]), np.array([x1, y1])
    cut = np.concatenate([np.maximum(rules[:, :2], low), np.minimum(rules[:, 2:], high)], axis=1)
    return cut[(cut[:, 2] >= cut[:, 0]) & (cut[:, 3] >= cut[:, 1])]


def _gathered(at: FloatArray, lengths: FloatArray, least: float) -> list[float]:
    """Where rules stand that are long enough in all their pieces, in order."""
    found: list[float] = []
    order = np.argsort(at)
    group: list[int] = []
    for k in [*order.tolist(), -1]:
        if group and (k < 0 or at[k] - at[group[-1]] > JOINED):
            if lengths[group].sum() >= least:
                found.append(float(at[group].mean()))
            group = []
        if k >= 0:
            group.append(k)
    return found


def _edges(uprights: Sequence[float], lines: Sequence[Sequence[_Word]]) -> list[float]:
    """What parts the columns, from left to right; empty where there is one column.

    A table with upright rules at its sides is ruled throughout. One that only sets off its labels
    with a rule has white between its other columns.
    """
    middles = [word.middle for line in lines for word in line]
    ruled = [x for x in uprights if min(middles) < x < max(middles)]
    if ruled and len(ruled) < len(uprights):
        return ruled
    edges = list(ruled)
    for x0, x1 in pairwise([-np.inf, *ruled, np.inf]):
        part = [[word for word in line if x0 <= word.middle < x1] for line in lines]
        edges += _white_edges([line for line in part if line])
    return _without_rare(lines, sorted(edges))


def _uprights(rules: FloatArray, lines: Sequence[Sequence[_Word]]) -> list[float]:
    """Where upright rules stand, from left to right."""
    high = max(word.y1 for word in lines[-1]) - min(word.y0 for word in lines[0])
    upright = upright_among(rules)
    return _gathered(upright[:, [0, 2]].mean(axis=1), upright[:, 3] - upright[:, 1], MUCH * high)


def _without_rare(lines: Sequence[Sequence[_Word]], edges: list[float]) -> list[float]:
    """Edges without those to the left of what stands in one line only."""
    if len(lines) <= FEW_LINES:
        return edges
    kept: list[float] = []
    for x0, x1 in pairwise([*edges, np.inf]):
        n = sum(any(x0 <= word.middle < x1 for word in line) for line in lines)
        kept += [x0] if n > 1 else []
    return kept


def _white_edges(lines: Sequence[Sequence[_Word]]) -> list[float]:
    """The middles of what is white over nearly all lines."""
    if len(lines) < 2:
        return []
    size = float(np.median([word.y1 - word.y0 for line in lines for word in line]))
    left = min(word.x0 for line in lines for word in line)
    right = max(word.x1 for line in lines for word in line)
    n = max(int(2 * (right - left)) + 2, 2)  # half points
    inked = np.zeros(n, np.int64)
    for line in lines:
        here = np.zeros(n, np.bool_)
        for word in line:
            here[int(2 * (word.x0 - left)) : int(2 * (word.x1 - left)) + 1] = True
        inked += here
    # Two lines may leave the same white by chance, so that few lines must leave more of it.
    wide = WIDE * size * (2.0 if len(lines) <= FEW_LINES else 1.0)
    is_white = inked <= max(CROSSED * len(lines), len(lines) > FEW_LINES)
    found, start = [], -1
    for k, white in enumerate([*is_white.tolist(), False]):
        if white and start < 0:
            start = k
        elif not white and start >= 0:
            if start > 0 and k < n and (k - start) / 2 >= wide:
                found.append(left + (start + k) / 4)
            start = -1
    return found


def _placed(line: Sequence[_Word], edges: Sequence[float]) -> list[list[_Word]]:
    """The words of a line by columns; what lies across an edge goes on in its column."""
    columns: list[list[_Word]] = [[] for _ in range(len(edges) + 1)]
    for word in line:
        columns[int(np.searchsorted(edges, word.middle))].append(word)
    return columns


def _levels(rules: FloatArray, lines: Sequence[Sequence[_Word]]) -> list[float]:
    """Heights of the level rules that go over most of the width."""
    left = min(word.x0 for line in lines for word in line)
    right = max(word.x1 for line in lines for word in line)
    level = level_among(rules)
    return _gathered(level[:, [1, 3]].mean(axis=1), level[:, 2] - level[:, 0], 0.7 * (right - left))


def _rows(
    placed: Sequence[Sequence[list[_Word]]],
    lines: Sequence[Sequence[_Word]],
    levels: Sequence[float],
    share: float,
) -> list[list[list[_Word]]]:
    """Lines put together to rows; share is what of them level rules part where they part all."""
    band = [int(np.searchsorted(levels, _height(line))) for line in lines]
    n_named = sum(bool(columns[0]) for columns in placed)
    is_grid = len(set(band)) >= 3 and len(set(band)) >= share * n_named
    steps = _steps(lines)
    usual = float(np.median(steps))
    rows: list[list[list[_Word]]] = []
    for k, columns in enumerate(placed):
        if k == 0 or band[k] != band[k - 1]:
            goes_on = False
        elif is_grid:
            goes_on = True
        else:
            filled = [bool(words) for words in columns]
            under_filled = all(bool(rows[-1][c]) for c, is_filled in enumerate(filled) if is_filled)
            goes_on = not filled[0] and under_filled and steps[k - 1] <= CLOSE * usual
            goes_on = goes_on and sum(filled) <= max(len(filled) // 2, 1)
        if goes_on:
            for words, more in zip(rows[-1], columns, strict=True):
                words.extend(more)
        else:
            rows.append([list(words) for words in columns])
    return rows


def _said(words: Sequence[_Word]) -> str:
    """The words of a cell, a word that was broken at a line's end put together."""
    text = ""
    for before, word in pairwise([None, *words]):
        assert word is not None
        is_next = before is not None and word.y0 > before.height
        if is_next and text[-1:] in HYPHENS and word.text[:1].islower():
            text = text[:-1] + word.text
        else:
            text = f"{text} {word.text}"
    return tidy(text)
