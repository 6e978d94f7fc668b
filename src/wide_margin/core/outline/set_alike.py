"""Headings by how all of their style are set: short lines apart, and nothing else looks so."""

from __future__ import annotations

from collections import defaultdict
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.layout import STOPS, word_count
from wide_margin.core.outline.candidates import BULLET, CODE, style_of
from wide_margin.core.outline.heading_signs import neighbour

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence

    from wide_margin.core.geometry import BoolArray
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline.candidates import Candidate, Style

FEWEST, FEWEST_PAGES = 6, 3
"""Headings of a style, and pages that they stand on."""
NEARLY_ALL, MUCH, MORE, MOST, FEW = 0.9, 0.8, 0.6, 0.5, 0.1
"""Shares of a style. Of a bold one nearly all must be titles, since the terms of lists are bold."""
APART = 0.9
"""Sizes of white space above a heading, on average."""
ENOUGH_SPACE = 3.0
"""Sizes of it; more says no more."""
LEVEL = 0.5
"""Sizes that the text below begins further in, at most: what is said of a term is set in."""
SOME_LEVEL, FEWEST_LEVEL, ALL = 0.34, 5, 0.95
"""Share of a style's headings over lines of text of which that is seen; or their number, where
nearly all stand over text."""
SHORT, LONGEST = 8.0, 30
"""Words of a heading, on average and at most."""
FEW_IN_TURN, DIFFERENT = 0.34, 0.6
"""Shares of a style's headings that follow each other with no text between, and that are no
other's title."""
LARGER, AS_LARGE = 1.04, 0.05
"""Times the text's size from which a style is another than the text's by that alone, and the
share by which text differs from the usual size."""
_NO_TEXT = ("code", "item", "caption")


class _Place(NamedTuple):
    """How a line stands among its neighbours."""

    above: float | None
    """Sizes of white space above; None at the top of a column."""
    inset: float | None = None
    """Sizes that the text below begins further in; None where no lines of text follow."""
    is_over_text: bool = False
    is_set_in: bool = False
    """Whether what is below begins further in, be it text or not."""
    is_in_turn: bool = False
    """Whether the next is of the same style."""


def set_alike(
    candidates: Sequence[Candidate],
    paragraphs: Sequence[Paragraph],
    use: Mapping[Style, int],
    body_size: float,
    face: str,
) -> BoolArray:
    """(n,) which are headings because all that is set as they are stands as headings do.

    Sections of a low level are often told from the text by nothing but slanted letters or another
    face; that they are headings shows only in all of them together.

    Args:
        candidates: In reading order.
        paragraphs: All of the document.
        use: Paragraphs of each style.
        body_size: The usual font size, in points.
        face: The family that most of the text is set in.
    """
    members: dict[Style, list[int]] = defaultdict(list)
    for k, candidate in enumerate(candidates):
        if _differs(candidate.style, body_size, face):
            members[candidate.style].append(k)
    found = np.zeros(len(candidates), dtype=bool)
    for style, rows in members.items():
        inside = [candidates[k] for k in rows]
        alone = NEARLY_ALL if style.is_bold else MUCH
        if len(rows) < max(FEWEST, alone * use.get(style, 0)) or not _are_titles(inside):
            continue
        n_code = sum(_is_code(c, paragraphs) for c in inside)
        places = [_place_of(c, paragraphs, body_size) for c in inside]
        if n_code <= FEW * len(rows) and _stand_apart(places):
            found[rows] = _are_headings(places)
    return found


def _differs(style: Style, body_size: float, face: str) -> bool:
    larger = style.size >= LARGER * body_size
    return style.is_italic or style.is_bold or larger or style.face != face


def _is_code(candidate: Candidate, paragraphs: Sequence[Paragraph]) -> bool:
    title = candidate.title
    reads_so = not candidate.style.is_bold or not title[:1].isalpha() or CODE.search(title)
    return paragraphs[candidate.paragraph].pieces[0].line.is_fixed and bool(reads_so)


def _are_titles(inside: Sequence[Candidate]) -> bool:
    """Whether they read as titles: short, no sentences, hardly one said twice, on several pages."""
    n = len(inside)
    words = [word_count(c.title) for c in inside]
    n_stops = sum(c.title.endswith((*STOPS, ":", "：", ",", ";")) for c in inside)
    n_different = len({c.title.casefold() for c in inside})
    return (
        len({c.page for c in inside}) >= FEWEST_PAGES
        and sum(words) <= SHORT * n and max(words) <= LONGEST
        and n_stops <= FEW * n and n_different >= DIFFERENT * n
        and not any(BULLET.match(c.title) for c in inside)
    )  # fmt: skip


def _stand_apart(places: Sequence[_Place]) -> bool:
    """Whether they stand apart from what is above, most of them over text."""
    n = len(places)
    above = [place.above for place in places if place.above is not None]
    n_seen = sum(place.inset is not None for place in places)
    n_over = sum(place.is_over_text for place in places)
    are_seen = n_seen >= SOME_LEVEL * n or (n_seen >= FEWEST_LEVEL and n_over >= ALL * n)
    return (
        bool(above) and sum(above) >= APART * len(above) and n_over >= MOST * n and are_seen
        and sum(place.is_in_turn for place in places) <= FEW_IN_TURN * n
    )  # fmt: skip


def _are_headings(places: Sequence[_Place]) -> list[bool]:
    """Which of them are headings: over text that begins as far left.

    Where some are not, they are the terms of a list, and what is said of others may be too short
    to tell.
    """
    seen = [place.inset for place in places if place.inset is not None]
    n_level = sum(inset <= LEVEL for inset in seen)
    if n_level >= NEARLY_ALL * len(seen):
        return [True] * len(places)
    return [n_level >= MORE * len(seen) and not place.is_set_in for place in places]


def _place_of(candidate: Candidate, paragraphs: Sequence[Paragraph], body_size: float) -> _Place:
    line = paragraphs[candidate.paragraph].pieces[0].line
    unit = max(line.size, 1.0)
    before = neighbour(paragraphs, candidate.paragraph - 1, candidate)
    above = None
    if before is not None:
        space = (line.box[1] - before.pieces[-1].line.box[3]) / unit
        above = min(space, ENOUGH_SPACE)
    after = neighbour(paragraphs, candidate.last + 1, candidate)
    if after is None:
        return _Place(above)
    if style_of(after) == candidate.style:
        return _Place(above, is_in_turn=True)
    is_as_large = abs(after.pieces[0].line.size - body_size) <= AS_LARGE * body_size
    is_text = is_as_large and after.kind not in _NO_TEXT
    inset, further = None, (after.pieces[0].line.box[0] - line.box[0]) / unit
    if is_text and len(after.pieces) > 1:  # the first line may be set in
        inset = (min(piece.line.box[0] for piece in after.pieces) - line.box[0]) / unit
    return _Place(above, inset, is_over_text=is_text, is_set_in=further > LEVEL)
