"""What is drawn over every page at one place, as a button of a page from the web is."""

from __future__ import annotations

from collections import defaultdict
from statistics import median
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from collections.abc import Iterator, Mapping, Sequence

    from wide_margin.core.layout.model import Line

FEWEST, OF_PAGES = 4, 0.6
"""Pages that have it, and their share."""
SHORTEST, LONGEST = 6, 80
"""Characters that it has."""
LEVEL = 8.0
"""Points by which its height differs at most: the line that it has got into may be higher."""
FEWEST_SLIDES, SHORTEST_OF_BAR, SMALL_PRINT = 8, 3, 0.8
"""Slides that a bar runs along, characters of its texts, and share of the text's size that they
are smaller than."""
ALONE = 0.8
"""Share of the pages on which it may stand in a line of its own: then it is a running head."""


def overlaid_texts(pages: Sequence[Sequence[Line]]) -> dict[str, float]:
    """Texts that are drawn first or last of all on most pages, into other lines.

    Args:
        pages: Lines of every page, without its running heads.

    Returns:
        For each text its height on the page, in points.
    """
    found: dict[str, list[tuple[float, bool]]] = defaultdict(list)
    for lines in pages:
        for text, line in set(_first_and_last(lines)):
            if SHORTEST <= len(text) <= LONGEST:
                found[text].append((line.box[1], line.text.strip() == text))
    least = max(FEWEST, OF_PAGES * len(pages))
    return {
        text: median(y for y, _ in places) for text, places in found.items()
        if len(places) >= least and sum(alone for _, alone in places) <= ALONE * len(places)
        and _is_level([y for y, _ in places])
    }  # fmt: skip


def bars_of_slides(pages: Sequence[Sequence[Line]], size: float) -> dict[str, float]:
    """Texts in small print at one place on most slides: the sections that run along a talk.

    Args:
        pages: Lines of every page, its running heads and what stands beside its text with them.
        size: Of the text, in points.

    Returns:
        For each text its height on the page, in points.
    """
    found: dict[str, list[float]] = defaultdict(list)
    sizes: dict[str, list[float]] = defaultdict(list)
    for lines in pages:
        seen = {text.strip(): line for line in lines for _, _, text in _parts(line)}
        for text, line in seen.items():
            if SHORTEST_OF_BAR <= len(text) <= LONGEST:
                found[text].append(line.box[1])
                if line.text.strip() == text:
                    sizes[text].append(line.size)
    least = max(FEWEST_SLIDES, OF_PAGES * len(pages))
    return {
        text: median(heights) for text, heights in found.items()
        if len(heights) >= least and _is_level(heights)
        and text in sizes and median(sizes[text]) < SMALL_PRINT * size
    }  # fmt: skip


def _is_level(heights: Sequence[float]) -> bool:
    """Whether most of some heights, in points, are about the same."""
    middle = median(heights)
    return sum(abs(y - middle) <= LEVEL for y in heights) >= ALONE * len(heights)


def _first_and_last(lines: Sequence[Line]) -> Iterator[tuple[str, Line]]:
    """The parts of lines that are drawn first and last on a page."""
    if not lines:
        return
    first = min(lines, key=lambda line: min(line.spans))
    last = max(lines, key=lambda line: max(line.spans))
    yield min(_parts(first), key=lambda part: part[1])[2].strip(), first
    yield max(_parts(last), key=lambda part: part[1])[2].strip(), last


def _parts(line: Line) -> list[tuple[int, tuple[int, int], str]]:
    """The parts of a line that are drawn by themselves: where each begins, its span, its text."""
    found, at = [], 0
    for first, end in line.spans:
        found.append((at, (first, end), line.text[at : at + end - first]))
        at += end - first + 1
    return found


def without_overlaid(line: Line, texts: Mapping[str, float]) -> Line | None:
    """A line without the parts that are drawn over every page; None where nothing is left.

    A title of which only that part was not bold is bold.

    Args:
        line: Of text.
        texts: From overlaid_texts.
    """
    texts = {text: y for text, y in texts.items() if abs(y - line.box[1]) <= LEVEL}
    parts = _parts(line) if texts else []
    kept = [part for part in parts if part[2].strip() not in texts]
    if len(kept) == len(parts):
        return line
    if not kept:
        return None
    said = [kept[0][2]]
    for at, _, text in kept[1:]:
        said += [line.text[at - 1], text]
    text = "".join(said)
    cells = tuple(
        cell for cell, part in zip(line.cells, line.text.split("\t"), strict=False)
        if part.strip() not in texts
    )  # fmt: skip
    x0, y0, x1, y1 = line.box
    if cells:
        x0, x1 = min(left for left, _ in cells), max(right for _, right in cells)
    # What is told by places in the text holds only where nothing before them was cut.
    is_begin = line.text.startswith(text)
    lead = line.lead if is_begin else 0
    is_all_lead = lead >= len(text.rstrip()) > 0
    return line._replace(
        text=text, spans=tuple(span for _, span, _ in kept), box=(x0, y0, x1, y1),
        marks=tuple(mark for mark in line.marks if is_begin and mark[1] <= len(text)),
        cells=cells if "\t" in text else (), lead=0 if is_all_lead else lead,
        is_bold=line.is_bold or is_all_lead,
    )  # fmt: skip
