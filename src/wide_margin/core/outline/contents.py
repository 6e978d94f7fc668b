"""The printed contents page: where it stands, its entries, and the pages they mean."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.geometry import Box, around
from wide_margin.core.layout.page_labels import page_number
from wide_margin.core.layout.text import HYPHENS
from wide_margin.core.outline.contents_rows import CLOSE, Row, rows_of, title_kind
from wide_margin.core.outline.numbering import number_before, number_of
from wide_margin.core.outline.titles import forms_of, squash
from wide_margin.core.pages.model import LINE_END_HYPHEN

if TYPE_CHECKING:
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.layout.model import Line

MIN_ENTRIES = 3
"""A page with fewer lines that end in page numbers is no contents page, title or not."""
MAX_WITHOUT = 5
"""After so many rows without a number a list is over."""
NEAR_LINE = 0.5
"""Times a row's height that the second line of its title is away from it, at most."""
FAR = 3.0
"""Times a row's height that the foot of the page is away from the last entry, at least."""


class ContentsEntry(NamedTuple):
    """One entry of a printed contents page."""

    title: str
    level: int
    """From 0, by number first, indentation and weight second."""
    printed: str
    """The page number as printed; "" for an entry without one."""
    page: int | None
    """Page index it means, None where that cannot be told."""
    at_page: int
    """Page index of the contents page."""
    box: Box
    """Of the entry there, its number included."""


@dataclass(frozen=True, slots=True)
class Contents:
    """All that the contents pages of a document say."""

    entries: tuple[ContentsEntry, ...] = ()
    figures: tuple[ContentsEntry, ...] = ()
    """Entries of lists of figures and tables."""
    pages: frozenset[int] = frozenset()
    """Page indexes that hold nothing else."""


class _Found(NamedTuple):
    """An entry before its level is told."""

    title: str
    printed: str
    first: Row
    box: Box


def find_contents(pages: Sequence[Sequence[Line]], listings: frozenset[int]) -> Contents:
    """Find and parse the contents pages; the pages that entries mean are not told yet.

    A contents page is titled as one, or goes on from one, and its lines end in page numbers
    that do not fall. Without a title a page counts when its lines have leaders as well. Lists
    of figures and tables are told by their titles. Of a short and a full table of contents
    the full one is taken.

    Args:
        pages: Lines of every page, in reading order, running heads and numbers left out.
        listings: Page indexes that only list places (see listings.is_listing).
    """
    tables: list[list[_Found]] = []
    figures: list[_Found] = []
    found: set[int] = set()
    whole: set[int] = set()
    kind = ""
    for page, lines in enumerate(pages):
        if kind and page - 1 not in found:
            kind = ""
        if not kind and not _may_start(page, len(pages), listings, lines):
            continue
        kind_here = kind or ("" if page in listings else "none")
        on_page: list[_Found] = []
        on = _without_head(rows_of(lines), kind)
        for part_kind, has_title, rows in _split_at_titles(on, kind_here):
            entries = _without_foot(_entries_of(rows, tables[-1] if tables else ()))
            least = 1 if has_title and part_kind == "figures" else MIN_ENTRIES if part_kind else 5
            if not _is_list_of_places(entries, rows, least, titled=bool(part_kind)):
                continue
            kind = part_kind or "contents"
            on_page += entries
            if kind == "figures":
                figures += entries
            elif tables and not _starts_again(tables[-1], entries):
                tables[-1] += entries
            else:
                tables.append(list(entries))
        if on_page:
            found.add(page)
            if page in listings or _mostly_entries(lines, on_page):
                whole.add(page)
    return Contents(
        tuple(_levelled(max(tables, key=len, default=[]))),
        tuple(_contents_entry(entry, 0) for entry in figures),
        frozenset(whole),
    )


def _may_start(page: int, n_pages: int, listings: frozenset[int], lines: Sequence[Line]) -> bool:
    """Whether a first contents page may stand here; at the end only with its title."""
    if page in listings and page < max(30, n_pages // 8):
        return True
    near = page < max(30, n_pages // 8) or page >= n_pages - 12
    return near and any(title_kind(line.text) for line in lines[:40])


def _without_head(rows: Sequence[Row], kind: str) -> Sequence[Row]:
    """The rows of a page that goes on with a list, without the list's title as running head."""
    is_head = bool(kind and rows and rows[0].printed) and title_kind(rows[0].text) == kind
    return rows[1:] if is_head else rows


def _split_at_titles(rows: Sequence[Row], kind: str) -> Iterator[tuple[str, bool, list[Row]]]:
    """The rows of a page, cut where a list with a title starts: its kind, whether titled here.

    ``kind`` is what goes on from the page before, "" when an untitled list may start here,
    "none" when only a titled one may.
    """
    part: list[Row] = []
    has_title = False
    for row in rows:
        if not row.printed and (title := title_kind(row.text)):
            if part and kind != "none":
                yield kind, has_title, _as_far_as_listed(part)
            kind, has_title, part = title, True, []
        else:
            part.append(row)
    if part and kind != "none":
        yield kind, has_title, _as_far_as_listed(part)


def _as_far_as_listed(rows: list[Row]) -> list[Row]:
    """The rows up to the last number before the text begins, where a page goes on with text."""
    last, without = 0, 0
    for k, row in enumerate(rows):
        without = 0 if row.printed else without + 1
        if row.printed:
            last = k + 1
        elif without >= MAX_WITHOUT and last >= MIN_ENTRIES:
            return rows[:last]
    return rows


def _entries_of(rows: Sequence[Row], before: Sequence[_Found] = ()) -> list[_Found]:
    """Entries of rows, the lines of a long title joined.

    A row without a number belongs to the next one when it is set like it and that one does
    not start with a number of its own; else it is an entry without a page, such as a part.

    Args:
        rows: Of one page.
        before: The entries of the list on the pages before.
    """
    made: list[_Found] = []
    listed = {squash(entry.title) for entry in before if entry.printed}
    waiting: list[Row] = []
    for k, row in enumerate(rows):
        following = rows[k + 1] if k + 1 < len(rows) else None
        if row.printed:
            title = _in_one([*(w.text for w in waiting), row.text])
            box = around([*(w.box for w in waiting), row.box])
            made.append(_Found(title, row.printed, waiting[0] if waiting else row, box))
            listed.add(squash(title))
            waiting = []
        elif following is not None and _goes_on(row, following, has_waiting=bool(waiting)):
            waiting.append(row)
        elif waiting:
            waiting = []
        elif squash(row.text) in listed:
            break  # the first section begins on the page of its contents
        elif number_of(row.text) is not None and len(row.text.split()) <= 14:
            made.append(_Found(row.text, "", row, row.box))
        elif made and made[-1].printed and _is_second_line(rows[k - 1], row):
            last = made[-1]
            made[-1] = last._replace(
                title=f"{last.title} {row.text}", box=around([last.box, row.box])
            )
    return made


def _in_one(lines: Sequence[str]) -> str:
    """The lines of a title as one; a number goes on after a hyphen: "MCF-" and "7 cells"."""
    title = lines[0]
    for line in lines[1:]:
        goes_on = title.endswith("-") and line[:1].isdigit()
        title = title.removesuffix(LINE_END_HYPHEN) + ("" if goes_on else " ") + line
    return title


def _without_foot(entries: list[_Found]) -> list[_Found]:
    """The entries of a page without its foot, which ends in the page's own number.

    It stands far below the last entry, and its number falls.
    """
    if len(entries) < MIN_ENTRIES:
        return entries
    before, last = entries[-2:]
    numbers = _numbers([before, last])
    falls = len(numbers) == 2 and (numbers[0][0] != numbers[1][0] or numbers[1][1] < numbers[0][1])
    gap = last.first.box[1] - before.box[3]
    return entries[:-1] if falls and gap > FAR * last.first.size else entries


def _goes_on(row: Row, following: Row, *, has_waiting: bool) -> bool:
    """Whether a row without a number is the first line of the next one's title."""
    if row.page != following.page:
        return False
    looks_other = row.is_bold != following.is_bold or abs(row.size - following.size) > 0.6
    begins = number_of(following.text) is not None and row.text[-1:] not in HYPHENS
    if begins or (looks_other and not _is_hung(row, following)):
        return False
    # An accent may stand far above its line.
    step, gap = following.box[3] - row.box[3], following.box[1] - row.box[3]
    if step < 0.5 * row.size or gap > 0.9 * row.size:
        return False
    return following.indent >= row.indent - CLOSE or has_waiting


def _is_hung(row: Row, following: Row) -> bool:
    """Whether a row has a second line, whose look its leaders hide or make up."""
    is_counted = number_of(row.text) is not None
    gap = following.box[1] - row.box[3]
    is_in = following.indent > row.indent + CLOSE
    return following.is_led and is_in and (row.is_bold or is_counted) and gap < NEAR_LINE * row.size


def _is_second_line(above: Row, row: Row) -> bool:
    """Whether a row without a number continues the entry above it, whose number came first."""
    gap = row.box[1] - above.box[3]
    return row.indent > above.indent + CLOSE and gap < 0.6 * row.size and len(row.text) < 60


def _is_list_of_places(
    entries: Sequence[_Found], rows: Sequence[Row], least: int, *, titled: bool
) -> bool:
    """Whether most lines have a number at their end, and the numbers do not fall."""
    numbers = _numbers(entries)
    n_numbered = sum(bool(entry.printed) for entry in entries)
    if n_numbered < least:
        return False
    n_lines = sum(len(row.text) > 2 for row in rows)
    if n_numbered < (0.35 if titled else 0.6) * n_lines:
        return False
    if not titled and sum(row.is_led for row in rows) < 0.4 * n_lines:
        return False
    n_falls = sum(a[0] == b[0] and b[1] < a[1] for a, b in pairwise(numbers))
    n_long = sum(len(entry.title.split()) > 25 for entry in entries)
    return n_falls <= 0.12 * len(numbers) + 1 and n_long <= 0.1 * len(entries)


def _numbers(entries: Sequence[_Found]) -> list[tuple[str, int]]:
    """Kind and value of the entries' page numbers; "3-12" has no value of its own."""
    return [number for entry in entries if (number := page_number(entry.printed))]


def _starts_again(table: Sequence[_Found], entries: Sequence[_Found]) -> bool:
    """Whether entries begin a second table instead of going on with the first."""
    before, after = _numbers(table), _numbers(entries)
    return (
        bool(before and after)
        and before[-1][0] == after[0][0]
        and (after[0][1] < before[-1][1] - 1)
    )


def _mostly_entries(lines: Sequence[Line], entries: Sequence[_Found]) -> bool:
    covered = sum(
        any(e.box[1] - 1 <= 0.5 * (line.box[1] + line.box[3]) <= e.box[3] + 1 for e in entries)
        for line in lines
    )
    return covered >= 0.6 * len(lines)


def _levelled(found: Sequence[_Found]) -> list[ContentsEntry]:
    """Levels: "3.1" under the last "3"; else by indentation, then by weight and size."""
    open_: list[tuple[Row, int]] = []
    told: dict[str, list[tuple[float, int]]] = defaultdict(list)
    """By number: how far in each such entry is set, in points, and its level."""
    levelled = []
    for entry in found:
        number = number_of(entry.title)
        parent = number.identifier.rpartition(".")[0] if number else ""
        while open_ and not _hangs_under(entry.first, open_[-1][0]):
            open_.pop()
        level = open_[-1][1] + 1 if open_ else 0
        if number is not None and parent in told and number.scheme in ("decimal", "lettered"):
            level = told[parent][-1][1] + 1
        elif number is not None and (before := number_before(number)) in told:
            # "2" is what "1" was: the one set in as far, where each chapter counts anew.
            alike = (at for indent, at in reversed(told[before])
                     if abs(indent - entry.first.indent) <= CLOSE)  # fmt: skip
            level = next(alike, told[before][-1][1])
        while open_ and open_[-1][1] >= level:
            open_.pop()
        open_.append((entry.first, level))
        if number is not None:
            told[number.identifier].append((entry.first.indent, level))
        levelled.append(_contents_entry(entry, level))
    return levelled


def _contents_entry(entry: _Found, level: int) -> ContentsEntry:
    return ContentsEntry(entry.title, level, entry.printed, None, entry.first.page, entry.box)


def _hangs_under(row: Row, above: Row) -> bool:
    if row.indent > above.indent + CLOSE:
        return True
    if abs(row.indent - above.indent) > CLOSE:
        return False
    smaller = not row.is_led and not above.is_led and above.size > row.size + 0.9
    return smaller or (above.is_bold and not row.is_bold)


def map_to_pages(
    contents: Contents, labels: PageLabels, places: Mapping[str, Sequence[int]]
) -> Contents:
    """Tell the page of the file that each entry means.

    The labels are believed when they lead to the entries' words; else the distance between
    printed number and file page that most words agree on is used, for each kind of number.

    Args:
        contents: As found.
        labels: Of the pages.
        places: Page indexes where a title's words stand by themselves, by squashed title.
    """
    votes: dict[str, Counter[int]] = {}
    n_right = n_known = 0
    for entry in contents.entries:
        number = page_number(entry.printed)
        pages = [
            page for form in forms_of(entry.title) for page in places.get(form, ())
            if page not in contents.pages
        ]  # fmt: skip
        if number is None or not pages:
            continue
        for page in set(pages):
            votes.setdefault(number[0], Counter())[page - number[1]] += 1
        by_label = labels.find(entry.printed) if entry.printed in labels.labels else []
        n_known += 1
        n_right += bool(by_label) and by_label[0] in pages
    by_labels = n_right >= 0.6 * n_known if n_known else any(labels.labels)
    offsets = {kind: counter.most_common(1)[0] for kind, counter in votes.items()}

    def page_of(printed: str) -> int | None:
        if by_labels and printed in labels.labels:
            return labels.find(printed)[0]
        number = page_number(printed)
        if number is not None and number[0] in offsets:
            offset, n = offsets[number[0]]
            page = number[1] + offset
            sure = n >= 2 or len(votes[number[0]]) == 1
            if sure and 0 <= page < len(labels.labels):
                return page
        found = labels.find(printed) if printed else []
        return found[0] if found else None

    def mapped(entries: Sequence[ContentsEntry]) -> tuple[ContentsEntry, ...]:
        made = [entry._replace(page=page_of(entry.printed)) for entry in entries]
        # An entry without a number starts where the next one does.
        following: int | None = None
        for k in range(len(made) - 1, -1, -1):
            if not made[k].printed and following is not None:
                made[k] = made[k]._replace(page=following)
            following = made[k].page if made[k].page is not None else following
        return tuple(made)

    return replace(contents, entries=mapped(contents.entries), figures=mapped(contents.figures))
