"""Where translated paragraphs stand beside their sources; no Qt."""

from collections.abc import Sequence
from typing import NamedTuple


class Extent(NamedTuple):
    """Heights that a piece of text takes in the view, in pixels from its top."""

    top: float
    bottom: float


def runs_of(extents: Sequence[Extent], *, slack: float = 6.0) -> list[tuple[int, int, Extent]]:
    """Paragraphs that can be aligned one by one, and those that only can together.

    In one column each paragraph lies below the one before. Columns, and pages that lie side by
    side, bring paragraphs back up: all that share their heights are one run, whose translations
    stand under each other.

    Args:
        extents: Of the paragraphs in reading order.
        slack: Pixels by which lines of one column may reach into each other.

    Returns:
        First paragraph, the one after the last, and the extent of each run, from the top down.
    """
    runs: list[tuple[int, int, Extent]] = []
    for row, (top, bottom) in enumerate(extents):
        first, whole = row, Extent(top, max(top, bottom))
        while runs and runs[-1][2].bottom > whole.top + slack:
            before, _, other = runs.pop()
            first = before
            whole = Extent(min(whole.top, other.top), max(whole.bottom, other.bottom))
        runs.append((first, row + 1, whole))
    return runs


def tops_beside(
    sources: Sequence[Extent], heights: Sequence[int], line: float, gap: int
) -> list[float]:
    """Tops of the translations of runs, so that what is read stands level with its source.

    A translation is mostly longer than its source. What crosses the line that is read at shares
    the same part above it on both sides; what is above and below stands beside its source where
    there is room, else gives way. Scrolling moves all of it steadily, without jumps.

    Args:
        sources: Extents of the sources, from the top down.
        heights: Pixels that each translation takes.
        line: Height of what is read.
        gap: Pixels between two translations.
    """
    if not sources:
        return []
    at = max((k for k, source in enumerate(sources) if source.top <= line), default=0)
    tops = [0.0] * len(sources)
    tops[at] = _level(sources[at], heights[at], line)
    for k in range(at + 1, len(sources)):
        tops[k] = max(sources[k].top, tops[k - 1] + heights[k - 1] + gap)
    for k in range(at - 1, -1, -1):
        tops[k] = min(sources[k].top, tops[k + 1] - gap - heights[k])
    return tops


def _level(source: Extent, height: int, line: float) -> float:
    """Top of a translation that has the same part of itself above the line as its source."""
    spare = height - (source.bottom - source.top)
    if spare <= 0 or line <= source.top:
        return source.top
    part = min((line - source.top) / max(source.bottom - source.top, 1.0), 1.0)
    return source.top - part * spare
