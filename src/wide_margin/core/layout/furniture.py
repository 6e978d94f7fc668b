"""Running heads and feet, numbers of pages and lines, stamps: of the page, not of the text."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from statistics import median
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout.model import usual_size
from wide_margin.core.layout.overlaid import bars_of_slides, overlaid_texts, without_overlaid
from wide_margin.core.layout.page_labels import page_number

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

_Look = tuple[float, bool, bool, str]
"""Size in half points, bold, italic, face."""
EDGE = 0.13
"""Furniture lies in this share of the page height at the top or at the bottom."""
USUAL_LOOK = 0.2
"""Share of the lines that repeat which are set like a usual one."""
GAP_BELOW = 1.2
"""A running head further from the edge has a gap of so many font sizes under it."""
FAR_EDGE = 0.25
"""A number alone may be a page's as far from the edge: the paper can be larger than the layout."""
SAME_HEIGHT = 3.0
"""Furniture of one kind lies at the same height within this many points."""
MOSTLY_RUNNING = 0.4
"""Share of the lines at a height that must repeat for it to be that of running heads."""
OFTEN = 0.15
"""Share of the pages that have a line that repeats at such a height."""
SOME_RUNNING, MANY_HEADS, MOST_ALIKE = 0.15, 0.3, 0.9
"""Or this share repeats, where lines stand at that height on so many of all pages, and so many of
these are set alike and apart from the text."""
LOOKED_AT = 100
"""So many of them, over the whole document, tell whether they are apart."""
MOSTLY_BESIDE = 0.5
"""Share of the pages that have the same beside their text for it to be of the page."""
LARGEST_COUNTING, MOST_COUNTING = 1.08, 14
"""Times the usual size, and words, up to which a line with the page's number is a running head."""
LARGEST_ALIKE = 1.35
"""Times the usual size up to which what says the same beside its page's number is a running
head."""
FEWEST_ALIKE, FEWEST_PARTED = 3, 2
"""Pages on which what counts along with them is a running head; and where a gap lies before the
number."""
DISPLAY, OF_MANY = 1.6, 0.2
"""Times the usual size from which a line is of a title, unless so many of all pages have it:
"Functions to" may begin the titles of some chapters."""
FEWEST_SLIDES, MOST_ON_SLIDE = 8, 900
"""Pages with text, and characters on one in the middle of all: fewer pages, and fuller ones, are no
slides."""
TITLED_SLIDES, NEW_TITLES, LEAST_TITLE = 0.5, 0.4, 0.95
"""Shares of the slides that begin with a title at one height, and of these titles that say
something else than the one before; and the least size of one, times the usual."""
OF_AGENDA = 4
"""Lines on a page that may be an agenda."""
OF_HALF = 8
"""Letters that a half of a running head has at least, to be known again by itself."""
_ROMAN = r"[ivxlcdm]{1,8}"
_NUMBER_ONLY = regex(
    rf"^[\W_]*(?:page\s+)?(?:\d{{1,4}}|{_ROMAN})(?:\s+(?:of|/)\s+\d+)?[\W_]*$", re.I
)
_NUMBER_AT_EDGE = regex(rf"^(?:\d{{1,4}}|{_ROMAN})\b|\b(?:\d{{1,4}}|{_ROMAN})$", re.I)
_FIGURES = regex(r"\d+")
_DIGITS = regex(rf"\d+|^{_ROMAN}\b|\b{_ROMAN}$")
_SECTION_NUMBER = regex(r"^(?:\d+|[A-Z])(?:\.\d+)+\.?(?=\s)")

_Places = defaultdict[tuple[object, ...], list[tuple[float, int, int]]]
"""Heights, pages and rows of what may be one running head, by what tells it."""


@dataclass(frozen=True, slots=True)
class Furniture:
    """Which lines of each page are furniture: row numbers into that page's lines."""

    rows: tuple[frozenset[int], ...]
    overlaid: Mapping[str, float] = field(default_factory=dict)
    """Texts that are drawn into the lines of every page, each with its height."""

    def text_lines(self, page: int, lines: Sequence[Line]) -> list[Line]:
        """The page's lines without its furniture."""
        set_aside = self.rows[page]
        kept = [line for row, line in enumerate(lines) if row not in set_aside]
        if not self.overlaid:
            return kept
        return [cut for line in kept if (cut := without_overlaid(line, self.overlaid)) is not None]

    def texts(self, pages: Sequence[Sequence[Line]]) -> list[list[Line]]:
        """The lines of all pages without their furniture."""
        return [self.text_lines(page, lines) for page, lines in enumerate(pages)]


def find_furniture(
    pages: Sequence[Sequence[Line]], heights: Sequence[float], *, is_wide: bool = False
) -> Furniture:
    """Find the running heads, feet and page numbers of a whole document.

    Args:
        pages: Lines of every page.
        heights: Page heights in points.
        is_wide: Whether pages are wider than high, as slides are.

    Returns:
        For each page the lines that repeat, but for their numbers, at the same height on at
        least three pages, lines with a page number at a height where others repeat, numbers of
        lines and stamps over the text.
    """
    candidates = [_edge_rows(lines, height) for lines, height in zip(pages, heights, strict=True)]
    size = usual_size(pages)
    largest = 1.15 * size
    repeats = _repeating(pages, candidates, largest, DISPLAY * size)
    _add_counting(pages, candidates, repeats, size)
    _add_halves(pages, candidates, repeats, LARGEST_COUNTING * size)
    usual_heights = _usual_heights(pages, candidates, repeats)
    looks = _looks(pages, repeats)
    bars = _side_bars(pages)
    titles = _slide_titles(pages, candidates, LEAST_TITLE * size) if is_wide else {}
    rows: list[frozenset[int]] = []
    for page, (lines, nearest_first, found) in enumerate(
        zip(pages, candidates, repeats, strict=True)
    ):
        title = titles.get(page, -1)
        chosen = found - {title}
        for side in nearest_first:
            for row in side:
                line = lines[row]
                small = line.size <= largest  # a chapter's title at the top of its page is text
                is_at = row != title and small and _at(line.box[1], usual_heights)
                if row in chosen or (is_at and _is_alike(lines, row, looks)):
                    chosen.add(row)
                    if is_at and (second := _second_line(lines, row)) >= 0:
                        chosen.add(second)
                else:
                    break  # what lies inside of a line of text is text
        beside = [
            row for row, line in enumerate(lines)
            if line.apart in ("number", "stamp") or (line.apart and _bar_of(line) in bars)
        ]  # fmt: skip
        at_edges = [row for side in nearest_first for row in side if row in chosen]
        rows.append(frozenset((*at_edges, *beside)))
    kept = Furniture(tuple(rows))
    along = bars_of_slides(pages, size) if is_wide else {}
    return replace(kept, overlaid=overlaid_texts(kept.texts(pages)) | along)


def _is_alike(lines: Sequence[Line], row: int, looks: frozenset[_Look]) -> bool:
    """Whether a row has a page number at its edge, or looks as running heads do and is apart."""
    line = lines[row]
    numbered = _NUMBER_AT_EDGE.search(_plain(line))
    return bool(numbered) or (_look(line) in looks and _is_apart(lines, row))


def _slide_titles(
    pages: Sequence[Sequence[Line]],
    candidates: Sequence[tuple[list[int], list[int]]],
    least: float,
) -> dict[int, int]:
    """The row of the title of each slide, by its page; it may go on over several of them.

    What runs along a talk says the same for longer, or is smaller than its text.
    """
    letters = [sum(len(line.text) for line in lines) for lines in pages if lines]
    if len(letters) < FEWEST_SLIDES or median(letters) > MOST_ON_SLIDE:
        return {}
    first = [
        (pages[page][top[0]].box[1], page, top[0]) for page, (top, _) in enumerate(candidates)
        if top and pages[page][top[0]].size >= least
    ]  # fmt: skip
    group = max(_by_height(sorted(first)), key=len, default=[])
    if len(group) < TITLED_SLIDES * len(letters):
        return {}
    titles = {page: row for _, page, row in sorted(group, key=lambda place: place[1])}
    texts = [_plain(pages[page][row]) for page, row in titles.items()]
    n_new = 1 + sum(text != before for before, text in pairwise(texts))
    return titles if n_new >= NEW_TITLES * len(titles) else {}


def _side_bars(pages: Sequence[Sequence[Line]]) -> frozenset[tuple[str, int]]:
    """What stands beside the text at the same height on most pages, as the contents of a talk."""
    counts: Counter[tuple[str, int]] = Counter()
    for lines in pages:
        counts.update({_bar_of(line) for line in lines if line.apart == "side"})
    least = max(3, MOSTLY_BESIDE * len(pages))
    return frozenset(bar for bar, n in counts.items() if n >= least)


def _bar_of(line: Line) -> tuple[str, int]:
    return line.text, round(line.box[1] / SAME_HEIGHT)


def _edge_rows(lines: Sequence[Line], height: float) -> tuple[list[int], list[int]]:
    """Up to three rows from the top edge inwards, and from the bottom edge inwards."""
    rows = [row for row, line in enumerate(lines) if not line.apart]
    top = [row for row in rows if _is_within(lines[row], lines[row].box[3], height)]
    bottom = [row for row in rows if _is_within(lines[row], height - lines[row].box[1], height)]
    top += [row for row in _set_apart_at_top(lines, rows, height) if row not in top]
    top.sort(key=lambda row: lines[row].box[1])
    bottom.sort(key=lambda row: -lines[row].box[3])
    return top[:3], bottom[:3]


def _set_apart_at_top(lines: Sequence[Line], rows: list[int], height: float) -> list[int]:
    """The first row of a page whose text begins far from its edge, where it may be a running head.

    A gap lies under it, or it has a page number at its edge.
    """
    if not rows:
        return []
    first = min(rows, key=lambda row: lines[row].box[1])
    line = lines[first]
    if line.box[3] >= FAR_EDGE * height:
        return []
    beside = [row for row in rows if lines[row].box[1] < line.box[3]]
    below = min((lines[row].box[1] for row in rows if row not in beside), default=height)
    bottom = max(lines[row].box[3] for row in beside)
    is_numbered = any(_NUMBER_AT_EDGE.search(_plain(lines[row])) for row in beside)
    return beside if is_numbered or below - bottom > GAP_BELOW * line.size else []


def _is_within(line: Line, depth: float, height: float) -> bool:
    """Whether a line that reaches so far from an edge of the page may be furniture there."""
    if depth >= FAR_EDGE * height:  # as most lines do
        return False
    return depth < EDGE * height or bool(_NUMBER_ONLY.match(_plain(line)))


def _plain(line: Line) -> str:
    return " ".join(line.text.split())


def _pattern(text: str, *, large: bool) -> str:
    if _NUMBER_ONLY.match(text):
        return "#"
    if large:
        return text  # headings at the top of pages differ by their numbers too
    section = _SECTION_NUMBER.match(text)  # two headings of one name are not one running head
    kept = section[0] if section else ""
    return kept + _DIGITS.sub("#", text[len(kept) :].casefold())


def _repeating(
    pages: Sequence[Sequence[Line]],
    candidates: Sequence[tuple[list[int], list[int]]],
    large: float,
    display: float,
) -> list[set[int]]:
    seen: dict[tuple[int, str], list[tuple[float, int, int]]] = defaultdict(list)
    for page, sides in enumerate(candidates):
        for side, rows in enumerate(sides):
            for row in rows:
                line = pages[page][row]
                pattern = _pattern(_plain(line), large=line.size > large)
                seen[side, pattern].append((line.box[1], page, row))
    found: list[set[int]] = [set() for _ in pages]
    # What stands on a page that is there again, as the agenda of a talk, is no running head yet.
    whole = [
        hash(_FIGURES.sub("", "\n".join([line.text for line in lines])))
        if len(lines) >= OF_AGENDA else page
        for page, lines in enumerate(pages)
    ]  # fmt: skip
    for places in seen.values():
        places.sort()
        for group in _by_height(places):
            n_pages = len({whole[page] for _, page, _ in group})
            _, page, row = group[0]
            least = OF_MANY * len(pages) if pages[page][row].size > display else 0
            if n_pages >= max(3, least) or (n_pages == 2 and len(pages) <= 4):
                for _, page, row in group:
                    found[page].add(row)
    return found


def _add_halves(
    pages: Sequence[Sequence[Line]],
    candidates: Sequence[tuple[list[int], list[int]]],
    found: list[set[int]],
    large: float,
) -> None:
    """Add edge lines a half of which repeats from page to page: a chapter beside its sections.

    Of three parts with the page's number among them one is enough, whatever their size.

    A row of a table or the head of a description has text close to it, or stands on pages far
    from each other.
    """
    places: dict[tuple[int, str], list[tuple[float, int, int]]] = defaultdict(list)
    for page, sides in enumerate(candidates):
        for side, rows in enumerate(sides):
            for row in rows:
                line = pages[page][row]
                halves = line.text.split("\t")
                is_usual = len(halves) == 2 and line.size <= large
                is_usual |= len(halves) == 3 and any(map(page_number, halves))
                if not is_usual or not _is_apart(pages[page], row):
                    continue
                for half in halves:
                    if sum(map(str.isalpha, half)) >= OF_HALF:
                        pattern = _pattern(" ".join(half.split()), large=False)
                        places[side, pattern].append((line.box[1], page, row))
    for each in places.values():
        each.sort()
        for group in _by_height(each):
            on = {page for _, page, _ in group}
            near = [item for item in group if on & {item[1] + k for k in (-2, -1, 1, 2)}]
            if len({page for _, page, _ in near}) >= 3:
                for _, page, row in near:
                    found[page].add(row)


def _add_counting(
    pages: Sequence[Sequence[Line]],
    candidates: Sequence[tuple[list[int], list[int]]],
    found: list[set[int]],
    size: float,
) -> None:
    """Add edge lines whose number counts along with the pages at the same height.

    The running head of a part of four pages is on two left-hand pages only; its page number
    is one of a long sequence all the same. One that says the same beside its number each time
    may be larger: where most of a document is small print, its running heads are. Where a gap
    parts the two, it is one on two pages already.
    """
    short: _Places = defaultdict(list)
    alike: _Places = defaultdict(list)
    parted: _Places = defaultdict(list)
    for page, sides in enumerate(candidates):
        for side, rows in enumerate(sides):
            for row in rows:
                line = pages[page][row]
                words = _plain(line).split()
                if line.size > LARGEST_ALIKE * size:
                    continue
                for at in {0, len(words) - 1} if words else set():
                    if (number := page_number(words[at])) is None:
                        continue
                    place = line.box[1], page, row
                    if len(words) <= MOST_COUNTING and line.size <= LARGEST_COUNTING * size:
                        short[side, number[0], number[1] - page].append(place)
                    if len(words) > 1:
                        rest = " ".join(words[1:] if at == 0 else words[:-1]).casefold()
                        places = parted if "\t" in line.text else alike
                        places[side, number[1] - page, rest].append(place)
    _add_groups(short, found, FEWEST_ALIKE)
    _add_groups(alike, found, FEWEST_ALIKE)
    _add_groups(parted, found, FEWEST_PARTED)


def _add_groups(places: _Places, found: list[set[int]], fewest: int) -> None:
    """Add what stands at one height on so many pages."""
    for sequence in places.values():
        sequence.sort()
        for group in _by_height(sequence):
            if len({page for _, page, _ in group}) >= fewest:
                for _, page, row in group:
                    found[page].add(row)


def _by_height(places: list[tuple[float, int, int]]) -> list[list[tuple[float, int, int]]]:
    groups: list[list[tuple[float, int, int]]] = []
    for place in places:
        if groups and place[0] - groups[-1][-1][0] <= SAME_HEIGHT:
            groups[-1].append(place)
        else:
            groups.append([place])
    return groups


def _usual_heights(
    pages: Sequence[Sequence[Line]],
    candidates: Sequence[tuple[list[int], list[int]]],
    repeats: Sequence[set[int]],
) -> list[float]:
    """Heights where running heads stand on many pages, and text on few."""
    counts: Counter[float] = Counter()
    there: Counter[float] = Counter()
    for page, (sides, rows) in enumerate(zip(candidates, repeats, strict=True)):
        counts.update({round(pages[page][row].box[1]) for row in rows})
        there.update({round(pages[page][row].box[1]) for side in sides for row in side})

    def around(counted: Counter[float], height: float) -> int:
        return sum(n for other, n in counted.items() if abs(other - height) <= SAME_HEIGHT)

    def holds(height: float, n: int) -> bool:
        n_there = around(there, height)
        share = around(counts, height) / n_there
        if n >= OFTEN * len(pages) and share >= MOSTLY_RUNNING:
            return True
        may_be = share >= SOME_RUNNING and n_there >= MANY_HEADS * len(pages)
        return may_be and _is_of_heads(pages, candidates, height)

    return [height for height, n in counts.items() if holds(height, n)]


def _is_of_heads(
    pages: Sequence[Sequence[Line]],
    candidates: Sequence[tuple[list[int], list[int]]],
    height: float,
) -> bool:
    """Whether what stands outermost at a height is set alike on many pages, apart from the text.

    The heads of a work of reference change from entry to entry, and few of them come again.
    """
    first = [
        (page, side[0]) for page, sides in enumerate(candidates) for side in sides
        if side and abs(pages[page][side[0]].box[1] - height) <= SAME_HEIGHT
    ]  # fmt: skip
    if len(first) < MANY_HEADS * len(pages):
        return False
    looks = Counter(_look(pages[page][row]) for page, row in first)
    if looks.most_common(1)[0][1] < MOST_ALIKE * len(first):
        return False
    some = first[:: max(len(first) // LOOKED_AT, 1)]
    return sum(_is_apart(pages[page], row) for page, row in some) >= MOST_ALIKE * len(some)


def _look(line: Line) -> _Look:
    return round(line.size * 2) / 2, line.is_bold, line.is_italic, line.face


def _looks(pages: Sequence[Sequence[Line]], repeats: Sequence[set[int]]) -> frozenset[_Look]:
    """How lines that repeat, and are more than a number, are usually set."""
    counts = Counter(
        _look(pages[page][row]) for page, rows in enumerate(repeats) for row in rows
        if not _NUMBER_ONLY.match(_plain(pages[page][row]))
    )  # fmt: skip
    return frozenset(look for look, n in counts.items() if n >= USUAL_LOOK * counts.total())


def _is_apart(lines: Sequence[Line], row: int) -> bool:
    """Whether a gap lies between a line and the text below or above it.

    A long running head goes on in a second line.
    """
    second = _second_line(lines, row)
    line = lines[row]
    top, bottom = line.box[1], lines[second].box[3] if second >= 0 else line.box[3]
    others = [other.box for k, other in enumerate(lines) if not other.apart and k != second]
    below = [box[1] - bottom for box in others if box[1] > top + 1]
    above = [top - box[3] for box in others if box[1] < top - 1]
    inwards = below if len(below) > len(above) else above
    return bool(inwards) and min(inwards) > GAP_BELOW * line.size


def _second_line(lines: Sequence[Line], row: int) -> int:
    """The row of what goes on right below a line, set like it, not flush left as text is; or -1."""
    line = lines[row]

    def is_aligned(other: Line) -> bool:
        left, right = (other.box[side] - line.box[side] for side in (0, 2))
        return abs(left) > SAME_HEIGHT >= min(abs(right), abs(left + right) / 2)

    return next(
        (
            k for k, other in enumerate(lines)
            if k != row and -0.5 * line.size < other.box[1] - line.box[3] < 0.5 * line.size
            and other.box[3] > line.box[3] + 1 and _look(other) == _look(line) and is_aligned(other)
        ),
        -1,
    )  # fmt: skip


def _at(y: float, heights: Sequence[float]) -> bool:
    return any(abs(y - height) <= SAME_HEIGHT for height in heights)
