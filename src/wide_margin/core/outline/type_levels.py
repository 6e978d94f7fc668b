"""Levels of headings as their numbers and their type tell them."""

from __future__ import annotations

import itertools
from collections import Counter, defaultdict
from collections.abc import Collection, Mapping, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.lexicon import bare, squashed, words_for
from wide_margin.core.outline.jumps import without_jumps
from wide_margin.core.outline.numbering import number_before, number_of

if TYPE_CHECKING:
    from wide_margin.core.outline.candidates import Candidate, Style

_LISTS = squashed("contents", "list_of", "abstract")
"""Titles of what has no sections of its own, however large they are set."""

_OF_CHAPTERS = ("decimal", "roman", "chapter")
"""Schemes that number chapters."""
FEWEST_PARTS = 2
"""Parts, and chapters in them, from which chapters that are set like parts hang under them."""
FEWEST_FIRST, NEARLY_ALWAYS = 3, 0.85
"""Times that a style which is above another begins what hangs under a heading, and their share
where the other is there, too."""
FEW_CAPITAL = 0.2
"""Times the headings of a style that are in capitals only for what they say."""
SELDOM = 2
"""Headings of a style that may be a title and its like."""


def levels_of(candidates: list[Candidate]) -> list[int]:
    """Levels from numbering first, typography second, one level for each style.

    "3.1" hangs under the last heading numbered "3", whatever its scheme calls it. Other
    headings take the level that numbered ones of their style have, else one by prominence.
    """
    order = _style_order(candidates)
    parted = _parted_by_place(candidates)
    ranks: list[float] = []
    last_of: dict[str, float] = {}
    learned: dict[Style, Counter[float]] = defaultdict(Counter)
    counted: dict[Style, float] = {}
    """The ranks of styles of which the first number counts on from one that is set otherwise."""
    for candidate in candidates:
        number = number_of(candidate.title)
        style = candidate.style.without_face
        rank = float(order[style])
        if style in parted and not candidate.is_centred:
            rank += 0.5  # under those of its style that are centred
        if number is not None:
            parent = _nearest(number.identifier, last_of)
            if parent and number.scheme in ("decimal", "lettered"):
                rank = last_of[parent] + number.identifier.count(".") - parent.count(".")
            elif style in counted:
                rank = counted[style]
            elif style not in learned and (before := number_before(number)) in last_of:
                rank = last_of[before]  # "2" is what "1" was, however it is set
                counted[style] = rank
            last_of[number.identifier] = rank
            learned[style][rank] += 1
        ranks.append(rank)
    usual = {style: ranks_seen.most_common(1)[0][0] for style, ranks_seen in learned.items()}
    least = _least_ranks(order, usual)
    for k, candidate in enumerate(candidates):
        style = candidate.style.without_face
        if number_of(candidate.title) is None:
            ranks[k] = usual[style] if style in usual else max(ranks[k], least[style])
    freed = _freed(candidates, ranks)
    return without_jumps(_under_chapters(candidates, _under_parts(candidates, freed)))


def _least_ranks(order: Mapping[Style, int], usual: Mapping[Style, float]) -> dict[Style, float]:
    """How deep each style without numbers lies at least: under those that are more prominent.

    Numbers may tell that several levels are set alike; what is set smaller is below all of these.
    """
    least: dict[Style, float] = {}
    above = deepest = -1.0
    last = -1
    for style, place in order.items():
        if place != last:
            above, last = deepest, place
        least[style] = usual.get(style, max(place, above + 1))
        deepest = max(deepest, least[style])
    return least


def _parted_by_place(candidates: Sequence[Candidate]) -> frozenset[Style]:
    """Styles of which some headings are centred and others, under them, are not; without numbers.

    The first of them is centred, and neither are strays.
    """
    members: dict[Style, list[bool]] = defaultdict(list)
    numbered: set[Style] = set()
    for candidate in candidates:
        style = candidate.style.without_face
        members[style].append(candidate.is_centred)
        if number_of(candidate.title) is not None:
            numbered.add(style)
    return frozenset(
        style for style, places in members.items()
        if style not in numbered and places[0] and min(sum(places), len(places) - sum(places)) > 1
    )  # fmt: skip


def _freed(candidates: Sequence[Candidate], ranks: Sequence[float]) -> list[float]:
    """Ranks under which no chapter hangs under what is no part.

    A title, a list of tables or a name that is set larger than the chapters does not hold them:
    what does comes again and again, each time with chapters of its own.
    """
    freed = list(ranks)
    seen: set[str] = set()
    for k in range(len(candidates) - 1):
        title = bare(candidates[k].title)
        if title in _LISTS and title not in seen:
            freed[k] = max(freed[k], freed[k + 1])
            seen.add(title)  # a later one is a chapter on what something holds
    held = _held_chapters(candidates, freed)
    use = Counter(c.style.without_face for c in candidates)
    holders = Counter(candidates[k].style.without_face for k in held)
    for k, chapters in held.items():
        style = candidates[k].style.without_face
        if holders[style] == 1 and use[style] <= SELDOM and _count_on(candidates, chapters):
            outermost = min(freed[row] for row in chapters)
            for row, candidate in enumerate(candidates):
                if candidate.style.without_face == style:  # its like before it holds none either
                    freed[row] = max(freed[row], outermost)
    return freed


def _under_parts(candidates: Sequence[Candidate], ranks: Sequence[float]) -> list[float]:
    """Ranks in which chapters hang under the parts before them where both are set alike.

    What has no number, and an appendix, stays beside the parts.
    """
    numbers = [number_of(candidate.title) for candidate in candidates]
    named = words_for("part")
    parts = [k for k, number in enumerate(numbers) if number and number.scheme in named]
    if len(parts) < FEWEST_PARTS:
        return list(ranks)
    outermost, beside = ranks[parts[0]], {*named, *words_for("appendix")}
    moved, inside, n_chapters = list(ranks), False, 0
    for k in range(parts[0], len(ranks)):
        number = numbers[k]
        if ranks[k] <= outermost:
            inside = number is not None and number.scheme not in beside
            n_chapters += inside and ranks[k] == outermost
        moved[k] += inside
    return moved if n_chapters >= FEWEST_PARTS else list(ranks)


def _under_chapters(candidates: Sequence[Candidate], ranks: Sequence[float]) -> list[float]:
    """Ranks in which sections "1", "2" hang under "Chapter 3" before them, set alike.

    They do where their numbers begin anew.
    """
    numbers = [number_of(candidate.title) for candidate in candidates]
    named = words_for("chapter")
    chapters = [k for k, number in enumerate(numbers) if number and number.scheme in named]
    if len(chapters) < FEWEST_PARTS:
        return list(ranks)
    outermost, moved, inside, begun = ranks[chapters[0]], list(ranks), False, 0
    for k in range(chapters[0], len(ranks)):
        number = numbers[k]
        if ranks[k] <= outermost and number is not None:
            inside = number.scheme == "decimal" and ranks[k] == outermost
            begun += inside and number.identifier == "1"
        elif ranks[k] <= outermost:
            inside = False
        moved[k] += inside
    return moved if begun >= FEWEST_PARTS else list(ranks)


def _held_chapters(candidates: Sequence[Candidate], ranks: Sequence[float]) -> dict[int, list[int]]:
    """For each heading without a number the rows of the chapters that hang under it."""
    held: dict[int, list[int]] = defaultdict(list)
    open_: list[int] = []
    for k, candidate in enumerate(candidates):
        while open_ and ranks[open_[-1]] >= ranks[k]:
            open_.pop()
        number = number_of(candidate.title)
        if number and number.depth == 1 and number.scheme in _OF_CHAPTERS:
            for holder in open_:
                if number_of(candidates[holder].title) is None:
                    held[holder].append(k)
        open_.append(k)
    return held


def _count_on(candidates: Sequence[Candidate], rows: Sequence[int]) -> bool:
    """Whether one of them counts on from another."""
    numbers = [number for row in rows if (number := number_of(candidates[row].title))]
    names = {number.identifier for number in numbers}
    return any(number_before(number) in names for number in numbers)


def _nearest(identifier: str, known: Collection[str]) -> str:
    """The nearest number above another one that is known: "5" of "5.2.1", where no 5.2 is."""
    parent = identifier.rpartition(".")[0]
    while parent and parent not in known:
        parent = parent.rpartition(".")[0]
    return parent


def _style_order(candidates: list[Candidate]) -> dict[Style, int]:
    """The place of each style, the most prominent first.

    Of two of one size, that is above which comes first wherever both are.
    """

    def prominence(style: Style) -> tuple[float, bool, bool, bool]:
        return (-style.size, not style.is_bold, not style.is_capital, style.is_italic)

    as_set = [c.style.without_face for c in candidates]
    like = {style: _usual_case(style, as_set) for style in set(as_set)}
    set_so = [like[style] for style in as_set]
    styles = sorted(set(set_so), key=prominence)
    for _ in range(len(styles)):
        for k, (one, other) in enumerate(itertools.pairwise(styles)):
            if one.size == other.size and _comes_first(other, one, set_so, set(styles[:k])):
                styles[k], styles[k + 1] = other, one
                break
        else:
            break
    places = {style: styles.index(usual) for style, usual in like.items()}
    return dict(sorted(places.items(), key=lambda each: (each[1], prominence(each[0]))))


def _usual_case(style: Style, as_set: Sequence[Style]) -> Style:
    """The style itself; of a few titles in capitals, "CD-ROM", that which most are set in.

    Chapters in capitals over their sections are none of those: they begin, and most hold some.
    """
    other = style._replace(is_capital=False)
    both = [one for one in as_set if one in (style, other)]
    n = both.count(style)
    if not style.is_capital or not n <= FEW_CAPITAL * (len(both) - n):
        return style
    n_holding = sum(one == style and after == other for one, after in itertools.pairwise(both))
    is_above = n >= FEWEST_FIRST and both[0] == style and 2 * n_holding >= n
    return style if is_above else other


def _comes_first(one: Style, other: Style, set_so: Sequence[Style], above: set[Style]) -> bool:
    """Whether headings of a style begin nearly all that another is in, under what is above both."""
    groups: list[list[Style]] = [[]]
    for style in set_so:
        if style in above:
            groups.append([])
        elif style in (one, other):
            groups[-1].append(style)
    groups = [group for group in groups if group]
    n_first = sum(group[0] == one for group in groups)
    of_both = [group[0] == one for group in groups if other in group]
    return n_first >= min(FEWEST_FIRST, len(groups)) and sum(of_both) >= NEARLY_ALWAYS * len(
        of_both
    )
