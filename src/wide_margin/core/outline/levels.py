"""One level for each section, from witnesses that each have a scale of their own."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from typing import TYPE_CHECKING

from wide_margin.core.lexicon import bare, squashed, words_for
from wide_margin.core.outline.jumps import without_jumps
from wide_margin.core.outline.model import WITNESSES
from wide_margin.core.outline.numbering import number_of

if TYPE_CHECKING:
    from wide_margin.core.outline.reconcile import Record

_AROUND = squashed(
    "contents", "list_of", "index", "preface", "abstract", "acknowledgements", "glossary",
    "references",
)  # fmt: skip
"""What stands before and after the chapters."""
_LISTS = squashed("list_of")
"""Titles of lists of figures and the like."""
CONSISTENT = 0.9
"""A scale refines another when at least this share of the sections goes along with that."""


def settle_levels(records: Sequence[Record]) -> list[int]:
    """Levels of records in reading order, from 0, never jumping down by more than one.

    The bookmarks' levels lead, else those of the contents page, else those of the headings;
    unless another witness tells levels apart that the leading one throws together: what loses
    levels is a flattened list, what invents them consistently is rare.
    """
    lead = _leading(records)
    scales = {name: _scale(records, name, lead) for name in WITNESSES}
    ranks: list[int] = []
    rank_of_number: dict[str, int] = {}
    for record in records:
        rank = _rank(record, lead, scales, rank_of_number, ranks)
        number = number_of(record.title)
        if number is not None:
            rank_of_number[number.identifier] = rank
        ranks.append(rank)
    for k in range(len(ranks) - 2, -1, -1):
        is_list = not records[k].is_listed and bare(records[k].title) in _LISTS
        if is_list and ranks[k] < ranks[k + 1]:
            ranks[k] = ranks[k + 1]  # however large its title, a list of figures holds no chapter
    return without_jumps(ranks)


def _rank(
    record: Record, lead: str, scales: dict[str, dict[int, int]],
    rank_of_number: dict[str, int], ranks: Sequence[int],
) -> int:  # fmt: skip
    if (level := record.level(lead)) is not None:
        return level
    number = number_of(record.title)
    if number is not None and (parent := number.identifier.rpartition(".")[0]) in rank_of_number:
        return rank_of_number[parent] + 1
    for name in ("bookmark", "contents", "heading"):
        level = record.level(name)
        if level is not None and scales[name]:
            return _mapped(level, scales[name])
    return ranks[-1] if ranks else 0


def _leading(records: Sequence[Record]) -> str:
    n = {name: sum(r.level(name) is not None for r in records) for name in WITNESSES}
    lead = "heading"
    if n["contents"] >= 0.5 * len(records):
        lead = "contents"
    if n["bookmark"]:
        lead = "bookmark"
    for name in WITNESSES:
        if name != lead and _refines(records, name, lead):
            lead = name
    return lead


def _refines(records: Sequence[Record], finer: str, coarser: str) -> bool:
    """Whether one witness tells levels apart that another does not, and agrees otherwise.

    Chapters with a name of code in their titles are set in another type, and are chapters still.
    """
    pairs = Counter(
        (a, b) for r in records
        if (a := r.level(finer)) is not None and (b := r.level(coarser)) is not None
        and not _holds_no_part(r.title)
    )  # fmt: skip
    total = sum(pairs.values())
    is_most = total >= 0.4 * len(records) or _has_outermost(records, finer, coarser)
    if total < 5 or not is_most:
        return False
    majority: dict[int, tuple[int, int]] = {}
    for (a, b), n in pairs.items():
        majority[a] = max(majority.get(a, (0, 0)), (n, b))
    if sum(n for n, _ in majority.values()) < CONSISTENT * total:
        return False
    coarse = [majority[a][1] for a in sorted(majority) if majority[a][0] > 1]
    if coarse != sorted(coarse):
        return False  # what lies deeper in the one lies further out in the other

    # A single odd heading makes no level.
    def n_levels(side: int) -> int:
        use: Counter[int] = Counter()
        for pair, n in pairs.items():
            use[pair[side]] += n
        return sum(n >= 2 for n in use.values())

    return n_levels(0) > n_levels(1)


def _has_outermost(records: Sequence[Record], some: str, others: str) -> bool:
    """Whether what one witness leaves out lies deeper than all it has, as another one tells.

    So a contents page that lists the sections and none of their parts.
    """
    had = Counter(r.level(others) for r in records if r.level(some) is not None)
    left = [level for r in records if r.level(some) is None
            and (level := r.level(others)) is not None]  # fmt: skip
    deepest = max((level for level, n in had.items() if level is not None and n > 1), default=0)
    return bool(left) and sum(level > deepest for level in left) >= CONSISTENT * len(left)


def _holds_no_part(title: str) -> bool:
    """Whether a title is of what holds no chapters, however large it is set: an appendix."""
    number = number_of(title)
    if number is not None:
        return number.depth == 1 and number.scheme in words_for("appendix")
    return bare(title) in _AROUND


def _scale(records: Sequence[Record], name: str, lead: str) -> dict[int, int]:
    """Which level of the leading witness each level of another one mostly goes with.

    Of two that would go with levels the other way round, that of more sections counts.
    """
    seen: dict[int, Counter[int]] = defaultdict(Counter)
    for record in records:
        own, leading = record.level(name), record.level(lead)
        if own is not None and leading is not None:
            seen[own][leading] += 1
    found = {own: counts.most_common(1)[0] for own, counts in seen.items()}
    scale: dict[int, int] = {}
    for own in sorted(found, key=lambda own: -found[own][1]):
        level = found[own][0]
        turned = ((known - own) * (at - level) < 0 for known, at in scale.items())
        if not any(turned):
            scale[own] = level
    return scale


def _mapped(level: int, scale: dict[int, int]) -> int:
    """A level on the leading scale, counted on from the nearest one that is known."""
    nearest = min(scale, key=lambda known: (abs(known - level), known))
    return scale[nearest] + level - nearest


def disputes_of_level(
    records: Sequence[Record], levels: Sequence[int]
) -> list[list[tuple[str, int]]]:
    """For each record, the witnesses that put it at another level than is chosen, and which.

    Scales differ, so a witness is only in dispute where it gives a section the level that it
    mostly gives to sections one level further out, or further in. What a heading says by its
    type alone is our own guess: it is in dispute where its number speaks.
    """
    disputes: list[list[tuple[str, int]]] = [[] for _ in records]
    for name in WITNESSES:
        usual = _usual(records, levels, name)
        for k, record in enumerate(records):
            own, level = record.level(name), levels[k]
            if own is None or (name == "heading" and not _number_speaks(record.title)):
                continue
            outer, inner = usual.get(level - 1), usual.get(level + 1)
            too_far_out = outer is not None and own <= outer
            too_far_in = inner is not None and own >= inner and own > usual[level]
            if too_far_out or too_far_in:
                disputes[k].append((name, level - 1 if too_far_out else level + 1))
    return disputes


def _number_speaks(title: str) -> bool:
    number = number_of(title)
    return number is not None and number.depth > 1


def _usual(records: Sequence[Record], levels: Sequence[int], name: str) -> dict[int, int]:
    """The level that a witness gives most sections of each chosen level."""
    seen: dict[int, Counter[int]] = defaultdict(Counter)
    for record, level in zip(records, levels, strict=True):
        if (own := record.level(name)) is not None:
            seen[level][own] += 1
    return {level: counts.most_common(1)[0][0] for level, counts in seen.items()}
