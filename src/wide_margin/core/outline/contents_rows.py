"""Lines of a contents page as rows: a title, the page number at its end, and how it is set."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.geometry import Box, around
from wide_margin.core.later import regex
from wide_margin.core.layout import tidy
from wide_margin.core.lexicon import LEADER, bare, squashed
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.pages.model import LINE_END_HYPHEN

if TYPE_CHECKING:
    from wide_margin.core.layout.model import Line

_LEADERS = regex(rf"\s*(?:[{LEADER}]\s?){{3,}}\s*")
_PAGE_AT_END = regex(
    rf"(?P<title>.*?\S)(?P<gap>[\s{LEADER}]+)(?:[Pp](?:age|\.)\s*)?"
    r"(?P<page>\d{1,4}|[ivxlcIVXLC]{1,8}|(?:[A-Z]|\d{1,3})[-–]\d{1,3})\s*$"
)
_DOT_AFTER = regex(rf"(?<=[\divxlcIVXLC])\s?[{LEADER}]$")
"""A last dot of the leaders, drawn behind the page number."""
_ONLY_PAGE = regex(
    rf"^[{LEADER}\s]*"
    r"(\d{1,4}|[ivxlc]{1,8}|[IVXLC]{1,8}|(?:[A-Z]|\d{1,3})[-–]\d{1,3})$"
)
_RUN_ON = regex(r"\s\d{1,4}\s*[•·∙‧|]\s*\S")
_BULLET_BETWEEN = regex(r"(?<=\d)\s*[•·∙‧|]\s*")
_NUMBER_BETWEEN = regex(r"[^\W\d_]\S*\s\d{1,4}\s+[^\W\d_]")
_AFTER_NUMBER = regex(r"(?<=\s\d)\s+|(?<=\s\d{2})\s+|(?<=\s\d{3})\s+|(?<=\s\d{4})\s+")
_CONTENTS = squashed("contents")
_LISTS_OF_FIGURES = squashed("list_of")

FEWEST_RAGGED, RAGGED = 5, 0.7
"""Lines that end in a number, and their share of a page's, for all of them to be entries."""
CLOSE = 3.0
"""Points within which two lines start at the same indentation."""


class Row(NamedTuple):
    """A line of a contents page, or one of several entries on it."""

    text: str
    printed: str
    """The page number at its end, "" without one."""
    page: int
    box: Box
    indent: float
    """Distance of its start from the right edge of the page's rows, negative; so that mirrored
    margins of left and right pages do not matter."""
    size: float
    is_bold: bool
    is_led: bool
    """Whether it has leaders; then most of its characters are dots, whose size says nothing."""


def title_kind(text: str) -> str:
    """Of which list a line is the title: "contents", "figures", or "" for none."""
    if len(text) > 48:
        return ""
    words = text.replace("\t", " ").split()
    if len(words) > 1 and re.fullmatch(r"\d+|[ivxlc]+", words[-1]):
        words.pop()  # a running head with its page number
    plain = bare("".join(words))
    if plain in _CONTENTS:
        return "contents"
    return "figures" if plain in _LISTS_OF_FIGURES else ""


def rows_of(lines: Sequence[Line]) -> list[Row]:
    """Lines with the page number at their end, put together across the gap where need be.

    Args:
        lines: Of one page, in reading order.
    """
    alone = [line for line in lines if _ONLY_PAGE.match(line.text.strip())]
    rows: list[Row] = []
    taken: set[int] = set()
    ragged = _is_ragged(lines)
    run: list[Line] = []

    def ended(run: Sequence[Line]) -> list[Row]:
        apart = _run_apart(run, lines) if run else []
        if apart is not None and not _falls(rows, apart):
            return apart
        others = (line for line in run if not any(line is other for other in alone))
        return [_row(line, lines, alone, taken, ragged=ragged) for line in others]

    for line in lines:
        if run and _goes_on_in(run, line):
            run.append(line)
            continue
        if any(line is other for other in alone):
            continue
        rows += ended(run)
        run = [line] if _RUN_ON.search(line.text) or _runs_on(line) else []
        if not run:
            rows.append(_row(line, lines, alone, taken, ragged=ragged))
    return _unglued(rows + ended(run))


_GLUED = regex(r"(?P<title>.*[^\W\d_])(?P<page>\d{1,4})$")
NEAR_EDGE = 3.0
"""Points by which the right edges of page numbers differ."""


def _unglued(rows: list[Row]) -> list[Row]:
    """Rows whose title fills its line up to the page number, with the two taken apart.

    The number stands where those of the other rows do, and counts on between theirs.
    """
    edge = max((row.box[2] for row in rows if row.printed), default=0.0)
    found = list(rows)
    for k, row in enumerate(rows):
        glued = None if row.printed else _GLUED.match(row.text)
        if glued is None or abs(row.box[2] - edge) > NEAR_EDGE:
            continue
        before = [int(r.printed) for r in rows[:k] if r.printed.isdigit()][-1:]
        after = [int(r.printed) for r in rows[k + 1 :] if r.printed.isdigit()][:1]
        number = int(glued["page"])
        if before and after and before[0] <= number <= after[0]:
            found[k] = row._replace(text=glued["title"], printed=glued["page"])
    return found


def _row(
    line: Line, lines: Sequence[Line], alone: Sequence[Line], taken: set[int], *, ragged: bool
) -> Row:
    text = tidy(line.text.replace("\t", " "))
    right = _right_edge(line, lines)
    box, printed, led = line.box, "", bool(_LEADERS.search(text))
    match = _PAGE_AT_END.match(_DOT_AFTER.sub("", text) if led else text)
    is_set_off = "\t" in line.text or led or ragged or line.box[2] > right - 40
    if match and is_set_off and not title_kind(text):
        printed, text = match["page"], match["title"]
    else:
        number = _beside(line, alone, taken)
        if number is not None:
            taken.add(id(number))
            printed = number.text.strip(f" \t{LEADER}")
            box = around([box, number.box])
    text = _LEADERS.sub(" ", text).strip(f" {LEADER}") or text
    is_bold = line.is_bold or line.lead > 0
    return Row(
        tidy(text), printed, line.page, box, line.box[0] - right, line.size, is_bold, led
    )  # fmt: skip


SHARED = 0.4
"""Share of the lines of a column that end at its edge."""


def _right_edge(line: Line, lines: Sequence[Line]) -> float:
    """Of the column that a line stands in: where most end, since one too long may stick out."""
    beside = [other.box[2] for other in lines if _share_a_column(line, other)]
    edge, n = Counter(map(round, beside)).most_common(1)[0] if beside else (0, 0)
    return float(edge) if n >= SHARED * len(beside) else max(beside, default=line.box[2])


def _is_ragged(lines: Sequence[Line]) -> bool:
    """Whether the numbers follow their titles after a blank, wherever these end."""
    found = [_PAGE_AT_END.match(tidy(line.text)) for line in lines]
    # "Wells, 7" is an entry of an index.
    n_numbered = sum(bool(match and not match["title"].endswith(",")) for match in found)
    return n_numbered >= FEWEST_RAGGED and n_numbered >= RAGGED * len(lines)


def _goes_on_in(run: Sequence[Line], line: Line) -> bool:
    """Whether a line belongs to the entries that run on in one paragraph above it."""
    last = run[-1]
    return (
        abs(line.box[0] - last.box[0]) < CLOSE
        and 0 < line.box[1] - last.box[1] < 2 * last.size
        and number_of(line.text.replace("\t", " ")) is None
    )


def _falls(rows: Sequence[Row], following: Sequence[Row]) -> bool:
    """Whether the numbers of some rows are below the last one before them."""
    before = [int(row.printed) for row in rows if row.printed.isdigit()]
    after = [int(row.printed) for row in following if row.printed.isdigit()]
    return bool(before and after) and after[0] < before[-1]


def _runs_on(line: Line) -> bool:
    """Whether a line has a page number and after it the next entry: "Wells 5 Ropes 7"."""
    text = line.text
    if "\t" in text or _LEADERS.search(text) or number_of(text) is not None:
        return False
    return _NUMBER_BETWEEN.search(text) is not None


def _run_apart(run: Sequence[Line], lines: Sequence[Line]) -> list[Row] | None:
    """Entries that run on in one paragraph ("Wells 5 • Ropes 7 • Buckets 9"), a row for each.

    Nothing but blanks may stand between them; None where the numbers are then none of pages.
    """
    first, box = run[0], around([line.box for line in run])
    text = "".join(
        line.text.removesuffix(LINE_END_HYPHEN) + " " * (not line.text.endswith(LINE_END_HYPHEN))
        for line in run
    )
    indent = first.box[0] - _right_edge(first, lines)
    entries = _BULLET_BETWEEN.split(tidy(text))
    if len(entries) == 1:
        entries = [each.strip() for each in _AFTER_NUMBER.split(tidy(text)) if each.strip()]
        printed_all = [int(each.split()[-1]) for each in entries if each.split()[-1].isdigit()]
        if len(printed_all) < len(entries) or printed_all != sorted(printed_all):
            return None
        if any(each.isdigit() for each in entries):
            return None
    rows = []
    for entry in entries:
        match = _PAGE_AT_END.match(entry)
        title, printed = (match["title"], match["page"]) if match else (entry, "")
        rows.append(Row(title, printed, first.page, box, indent, first.size, first.is_bold, False))
    return rows


def _share_a_column(one: Line, other: Line) -> bool:
    """Whether two lines stand above one another, as in the same column."""
    return one.box[0] < other.box[2] and other.box[0] < one.box[2]


def _beside(line: Line, alone: Sequence[Line], taken: set[int]) -> Line | None:
    """The bare number at the right of a line, at its height."""
    middle = 0.5 * (line.box[1] + line.box[3])
    right = [
        other for other in alone
        if id(other) not in taken and other.box[0] >= line.box[2] - 2
        and other.box[1] - 2 <= middle <= other.box[3] + 2
    ]  # fmt: skip
    return min(right, key=lambda other: other.box[0], default=None)
