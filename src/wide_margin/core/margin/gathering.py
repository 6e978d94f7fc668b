"""Entries gathered for the Commonplace view: filtered, searched, grouped and counted."""

from collections import Counter
from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from wide_margin.core.layout import fold
from wide_margin.core.margin.bodies import MarkBody
from wide_margin.core.margin.entries import Entry
from wide_margin.core.margin.kinds import EntryKind, Ink, Scope

Path = tuple[str, ...]
SectionOf = Callable[[Entry], Path]
InkName = Callable[[Ink], str]
"""What the reader calls an ink."""
MOST_FOLDED = 20_000
"""Entries whose words are kept ready to be searched."""
NO_PLACE, WHOLE = "No place", "The whole document"
PLURALS = {
    EntryKind.QUESTION: "Questions", EntryKind.EXPLANATION: "Explanations",
    EntryKind.TRANSLATION: "Translations", EntryKind.MARK: "Marks", EntryKind.NOTE: "Notes",
    EntryKind.CUTTING: "Cuttings",
}  # fmt: skip


class GroupBy(StrEnum):
    """What entries are put together by."""

    SECTION = "section"
    KIND = "kind"
    INK = "ink"
    TAG = "tag"
    DAY = "day"


@dataclass(frozen=True, slots=True)
class Wanted:
    """Which entries are shown; everything that is set must hold."""

    kinds: frozenset[EntryKind] = frozenset()
    inks: frozenset[Ink] = frozenset()
    tags: frozenset[str] = frozenset()
    """An entry must have all of them."""
    words: str = ""
    """Every one must stand in it, answers and excerpts included; beginnings of words count."""


@dataclass(frozen=True, slots=True)
class Group:
    """Entries that stand together, under a name."""

    name: str
    entries: tuple[Entry, ...]
    n_all: int
    """How many it has without the filter."""


@dataclass(frozen=True, slots=True)
class Counts:
    """How many entries there are of each sort, of all and not of those shown."""

    n_all: int = 0
    kinds: Counter[EntryKind] = field(default_factory=Counter)
    inks: Counter[Ink] = field(default_factory=Counter)
    tags: Counter[str] = field(default_factory=Counter)


def ink_of(entry: Entry) -> Ink | None:
    """The ink of a mark; None for other entries."""
    return entry.body.ink if isinstance(entry.body, MarkBody) else None


def count(entries: Iterable[Entry]) -> Counts:
    """Count the entries of each kind, ink and tag."""
    entries = list(entries)
    return Counts(
        len(entries),
        Counter(entry.kind for entry in entries),
        Counter(ink for entry in entries if (ink := ink_of(entry)) is not None),
        Counter(tag for entry in entries for tag in entry.tags),
    )


def matching(entries: Iterable[Entry], wanted: Wanted) -> list[Entry]:
    """The entries that are wanted, in their order."""
    words = fold(wanted.words).split()
    if words:
        entries = [e for e in entries if all(_holds(_folded(e), word) for word in words)]
    return [
        entry for entry in entries
        if (not wanted.kinds or entry.kind in wanted.kinds)
        and (not wanted.inks or ink_of(entry) in wanted.inks)
        and wanted.tags <= set(entry.tags)
    ]  # fmt: skip


_folded_words: dict[tuple[str, str], str] = {}
"""By the id of an entry and when it was changed."""


def _folded(entry: Entry) -> str:
    known = entry.id, entry.changed
    if known not in _folded_words:
        if len(_folded_words) >= MOST_FOLDED:
            _folded_words.clear()
        _folded_words[known] = f" {fold(entry.words)}"
    return _folded_words[known]


def _holds(text: str, word: str) -> bool:
    """Whether a word of the text begins so."""
    if f" {word}" in text:
        return True
    at = text.find(word)
    while at > 0 and text[at - 1].isalnum():
        at = text.find(word, at + 1)
    return at >= 0


Ordered = Sequence[tuple[Entry, Collection[str]]]
"""Entries in their order, each with the names of the groups it is in."""


def in_order(
    entries: Sequence[Entry], by: GroupBy, section_of: SectionOf, ink_name: InkName = str
) -> Ordered:
    """All entries as they are gathered, whatever is wanted of them; see gather."""
    newest = by is GroupBy.DAY
    ordered = sorted(entries, key=(lambda e: e.created) if newest else _place, reverse=newest)
    return [(entry, _names(entry, by, section_of, ink_name)) for entry in ordered]


def gather(
    entries: Sequence[Entry],
    wanted: Wanted,
    by: GroupBy,
    section_of: SectionOf,
    ink_name: InkName = str,
) -> tuple[Group, ...]:
    """The wanted entries in groups; groups without any are left out.

    Args:
        entries: All of them.
        wanted: Which are shown.
        by: What they are grouped by; by day the last day comes first, else places in order.
        section_of: The section path at an entry's place; () for one without a place.
        ink_name: What the reader calls an ink.
    """
    return gather_ordered(in_order(entries, by, section_of, ink_name), wanted, by, ink_name)


def gather_ordered(
    ordered: Ordered, wanted: Wanted, by: GroupBy, ink_name: InkName = str
) -> tuple[Group, ...]:
    """The same of entries that are in order already, as when only what is wanted has changed."""
    shown = {entry.id for entry in matching((entry for entry, _ in ordered), wanted)}
    groups: dict[str, list[Entry]] = {}
    whole: Counter[str] = Counter()
    for entry, names in ordered:
        is_shown = entry.id in shown
        for name in names:
            whole[name] += 1
            kept = groups.setdefault(name, [])
            if is_shown:
                kept.append(entry)
    found = [Group(name, tuple(kept), whole[name]) for name, kept in groups.items() if kept]
    if by in (GroupBy.SECTION, GroupBy.DAY):  # in the order of their first entry
        return tuple(sorted(found, key=lambda group: group.name == NO_PLACE))
    rank = {name: k for k, name in enumerate((*PLURALS.values(), *map(ink_name, Ink)))}
    return tuple(
        sorted(found, key=lambda g: (rank.get(g.name, 99), g.name.startswith("("), g.name))
    )


def _place(entry: Entry) -> tuple[int, float, str]:
    first = entry.anchor.spans[0].start if entry.anchor.spans else 0
    return entry.anchor.page, max(entry.anchor.y, 0.0) or float(first), entry.created


def _names(entry: Entry, by: GroupBy, section_of: SectionOf, ink_name: InkName) -> Collection[str]:
    match by:
        case GroupBy.SECTION:
            if entry.anchor.scope is Scope.DOCUMENT:
                return [WHOLE]
            if entry.anchor.scope is Scope.LOOSE:
                return [NO_PLACE]
            return [" / ".join(section_of(entry)[:2]) or NO_PLACE]
        case GroupBy.KIND:
            return [PLURALS[entry.kind]]
        case GroupBy.INK:
            ink = ink_of(entry)
            return [ink_name(ink) if ink is not None else "(no ink)"]
        case GroupBy.TAG:
            return entry.tags or ["(no tag)"]
        case GroupBy.DAY:
            return [entry.created[:10]]
