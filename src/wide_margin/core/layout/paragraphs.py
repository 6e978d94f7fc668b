"""Paragraphs: lines that belong together, hyphenation undone."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from itertools import accumulate, groupby, pairwise
from operator import attrgetter
from statistics import median
from typing import TYPE_CHECKING

from wide_margin.core.jobs import here
from wide_margin.core.later import regex
from wide_margin.core.layout.display import is_formula, with_figures
from wide_margin.core.layout.hanging import hanging_rows
from wide_margin.core.layout.model import Paragraph, Piece
from wide_margin.core.layout.text import HYPHENS, ITEM, UNSPACED
from wide_margin.core.lexicon import alternatives
from wide_margin.core.pages import LINE_END_HYPHEN

if TYPE_CHECKING:
    from wide_margin.core.jobs import Aside
    from wide_margin.core.layout.model import Line

CAPTION = regex(
    rf"^{alternatives('figure', 'table', 'listing')}"
    r"[^\S\t]+(?:[A-Z]?\d+(?:[.–-]\d+)*[a-z]?|[IVX]+|[A-Z])\b",
    re.I,
)
_DRAWN = regex(rf"^{alternatives('figure', 'table')}[^\S\t]", re.I)
_NUMBERED = regex(r"^(?:[A-Z]|\d{1,3})(?:\.\d{1,3})*\.?\s+[^\W\d_]")
RUN_IN = regex(r"(?P<number>\d{1,4})\*?\.\s+(?P<title>[^\W\d_a-z].*)\.")
"""A number with a title, both in bold, before the text of a paragraph."""
_NUMBERED_LEAD = regex(r"\d+(?:\.\d+)+\.?\t[^\W\d_a-z][^\t]*")
"""The same of the number of a section, a gap behind it and none behind the title."""
NOTE_MARK = regex(r"^\s*(\d{1,3}(?!\.?\d)|[*†‡§¶]{1,3})\s{0,4}(?=\S)")
"""How a footnote begins."""
SOME_STEPS = 5
"""From so many on, steps between lines of one size tell how far apart those stand."""
LEADING_PAGES, LEADING_LINES = 60, 12
"""How far lines are apart is told by so many pages, and columns of so many lines."""
MUCH_LEADING = 1.5
"""Lines that are so many times further apart than usual are no text."""
TITLE_LINES, TITLE_NEAR = 3, 2.0
"""The title under the number of a caption has so many lines at most, and begins no further down, in
font sizes."""
HEADING_SIZE = 1.12
"""Times the text's size from which what begins with a number is a heading, not the rest of a
sentence."""
BESIDE_TEXT = ("note", "caption", "figure", "side", "row")
"""Kinds that a sentence may go on over, from one page or column to the next."""
_WORD = regex(r"[^\W\d_]+(?:-[^\W\d_]+)*")
_HALF_SHORT = regex(r"(?:^|[\s(])[^\W\d_]\.$")
"""Ends in the first half of an abbreviation: "(z." before "B."."""
_SENTENCE_END = regex(r"[.!?:;…][\"'”’)\]]*\s*$")
_BEFORE_UNSPACED = regex(f"[{UNSPACED}\u3000-\u303f\uff00-\uffef]$")
_UNSPACED = regex(f"[{UNSPACED}\u3000-\u303f\uff00-\uffef]")
"""Nothing joins two lines where no blanks stand between words."""
_DASHES = "–—-"
_HYPHENS_WITHIN = ("-", "\u2010", "\u2011")
_LAST_PART = regex(rf"([^\W\d_]+)[{HYPHENS}]$")
_FIRST_PART = regex(r"^([^\W\d_]+)")


BEFORE_DASH = regex(r"\W{0,2}[^\W\d_][^.:;!?–—\t]{0,40}\s(?:--|[–—])\s\S")
"""Begins with a term and a dash, "Lid -- what closes a well"; several such lines are a list."""
SHORT_BY = 2
"""Font sizes by which a line is shorter than its column that ends before a line of such a list."""


def count_words(lines: Iterable[Line], words: Counter[str]) -> None:
    """Count each word that stands within a line, hyphenated words whole, in small letters."""
    words.update(_WORD.findall("\n".join([line.text for line in lines]).lower()))


def vocabulary(pages: Iterable[Iterable[Line]]) -> Counter[str]:
    """How often each word stands in the lines of some pages."""
    words: Counter[str] = Counter()
    for lines in pages:
        count_words(lines, words)
    return words


@dataclass(frozen=True, slots=True)
class _Measure:
    """What is usual in one column of one page."""

    left: float
    right: float
    reach: float
    """Where full lines end, whatever sticks out."""
    leading: float
    size: float
    leadings: Mapping[int, float] = field(default_factory=dict)
    """Of the lines of each size, in whole points, where there are enough of them."""

    def leading_of(self, line: Line) -> float:
        """How far lines of such a size are apart."""
        return self.leadings.get(round(line.size), self.leading)


def paragraphs_of(
    pages: Sequence[Sequence[Line]], body_size: float, words: Counter[str], aside: Aside = here
) -> list[Paragraph]:
    """Group the lines of a document to paragraphs, in reading order.

    Args:
        pages: Lines of every page, furniture set aside.
        body_size: The usual font size, in points.
        words: The document's vocabulary, which says whether a hyphen at a line end belongs to
            the word ("hand-engraved") or to the line end.
        aside: Groups the lines of half of the pages.

    Returns:
        Every line is in exactly one paragraph. A paragraph that a page end cuts is one.
    """
    leading = _usual_leading(pages)
    half = len(pages) // 2
    second = aside(partial(_grouped, pages[half:], leading, body_size))
    groups: list[tuple[str, list[Line]]] = []
    for lines in pages[:half]:
        groups += _groups_on(lines, leading, body_size)
    for lines, found in zip(pages[half:], second(), strict=True):
        groups += [(kind, [lines[row] for row in rows]) for kind, rows in found]
    whole: list[tuple[str, list[Line]]] = []
    last_body: list[Line] | None = None
    for kind, group in groups:
        if kind == "body" and last_body is not None and _continues(last_body, group, body_size):
            last_body.extend(group)
            continue
        whole.append((kind, group))
        if kind in ("body", "item", "entry"):
            last_body = group
        elif kind not in BESIDE_TEXT:
            last_body = None
    return [_paragraph(group, kind, words) for kind, group in whole]


def _grouped(
    pages: Sequence[Sequence[Line]], leading: float, body_size: float
) -> list[list[tuple[str, list[int]]]]:
    """The groups of some pages, their lines by their rows."""
    made = []
    for lines in pages:
        row_of = {id(line): row for row, line in enumerate(lines)}
        groups = _groups_on(lines, leading, body_size)
        made.append([(kind, [row_of[id(line)] for line in group]) for kind, group in groups])
    return made


def _groups_on(
    lines: Sequence[Line], leading: float, body_size: float
) -> list[tuple[str, list[Line]]]:
    """The groups of lines of one page that belong together, each with its kind."""
    on_page = [
        (_kind(group, lines, body_size, is_hanging=is_hanging), group)
        for column in _columns(lines) for group, is_hanging in _groups_in_column(column, leading)
    ]  # fmt: skip
    return with_figures(_with_entries(_with_titles(_with_marked_rows(on_page))), body_size)


def _columns(lines: Sequence[Line]) -> list[list[Line]]:
    """The lines of a page, column by column."""
    return [list(column) for _, column in groupby(lines, key=attrgetter("column"))]


def _usual_leading(pages: Sequence[Sequence[Line]]) -> float:
    """How far the lines of a document are apart, in font sizes."""
    every = max(1, len(pages) // LEADING_PAGES)
    told = [
        (measure.leading / max(measure.size, 1.0), len(column))
        for lines in pages[::every] for column in _columns(lines)
        if len(column) >= LEADING_LINES and (measure := _measure(column))
    ]  # fmt: skip
    if not told:
        return float("inf")
    told.sort()
    half = sum(n for _, n in told) / 2
    for leading, n in told:
        half -= n
        if half <= 0:
            return leading
    return told[-1][0]


def _groups_in_column(lines: list[Line], leading: float) -> list[tuple[list[Line], bool]]:
    """Lines that belong together, and whether they are an entry that hangs on its first line."""
    measure = _measure(lines)
    if not lines[0].apart and measure.leading > MUCH_LEADING * leading * measure.size:
        # Nothing but headings, or short paragraphs, stands here.
        measure = replace(measure, leading=leading * measure.size)
    tabbed = [
        "\t" in line.text and not _is_stretched(line) and not _runs_in(line) for line in lines
    ]  # fmt: skip
    hanging = {} if lines[0].apart else hanging_rows(lines)
    groups = [[lines[0]]]
    for k in range(1, len(lines)):
        before, line = lines[k - 1], lines[k]
        if line.table_row or before.table_row:
            if line.table_row == before.table_row:
                groups[-1].append(line)
            else:
                groups.append([line])
            continue
        if k in hanging and not ITEM.match(line.text):
            if hanging[k]:
                groups[-1].append(line)
            else:
                groups.append([line])
            continue
        is_row = tabbed[k] and (tabbed[k - 1] or (k + 1 < len(lines) and tabbed[k + 1]))
        was_row = tabbed[k - 1] and (tabbed[k] or (k > 1 and tabbed[k - 2]))
        below = lines[k + 1] if k + 1 < len(lines) else None
        starts = is_row or was_row or _starts_paragraph(before, line, below, groups[-1], measure)
        goes_on = _is_stretched(before) and not tabbed[k]
        if starts and not goes_on and _hangs_on(before, line, groups[-1], measure):
            if len(groups[-1]) > 1 and _begins_entry(groups[-1][-2], before, measure):
                groups.append([groups[-1].pop()])
            groups[-1].append(line)
        elif starts and not (goes_on or _ends_in_remark(before, line, groups[-1], measure)):
            groups.append([line])
        else:
            groups[-1].append(line)
    firsts = accumulate(map(len, groups), initial=0)
    return [(group, len(group) > 1 and hanging.get(first + 1, False))
            for first, group in zip(firsts, groups, strict=False)]  # fmt: skip


def _measure(lines: list[Line]) -> _Measure:
    lefts = Counter(round(line.box[0]) for line in lines)
    by_size: dict[int, list[float]] = {}
    for a, b in pairwise(lines):
        step = b.box[3] - a.box[3]
        if not b.table_row and abs(a.size - b.size) < 0.5 and 0.8 * b.size < step < 3 * b.size:
            by_size.setdefault(round(b.size), []).append(step)
    steps = sorted(step for some in by_size.values() for step in some)
    size = median(line.size for line in lines)
    leading = _usual(steps) if steps else 1.2 * size
    if len(lines) < 8:  # too few to tell
        leading = min(leading, 1.35 * size)
    return _Measure(
        left=float(lefts.most_common(1)[0][0]),
        right=max(line.box[2] for line in lines),
        reach=sorted(line.box[2] for line in lines)[int(FULL * (len(lines) - 1))],
        leading=leading,
        size=size,
        leadings={
            k: _usual(sorted(some)) for k, some in by_size.items()
            if len(some) >= SOME_STEPS and len(by_size) > 1
        },
    )  # fmt: skip


def _usual(steps: Sequence[float]) -> float:
    """Not the median: on a page of short paragraphs most steps lead from one to the next."""
    return steps[int(0.3 * (len(steps) - 1))]


def _starts_paragraph(
    before: Line, line: Line, below: Line | None, group: list[Line], measure: _Measure
) -> bool:
    em = max(line.size, 1.0)
    step = line.box[3] - before.box[3]

    def goes_on() -> bool:
        return _goes_on_within(before, line, group, measure)

    if abs(line.size - before.size) > 0.08 * em and not (_is_level(step, measure) and goes_on()):
        return True
    if line.is_bold != before.is_bold and not goes_on():
        return True
    # The lines of a heading stand as far apart as its own size asks for.
    usual = max(measure.leading_of(line), (1.25 if line.size > 1.1 * measure.size else 1.05) * em)
    if _ends_slanted_title(before, line, group, measure):
        return True
    if BEFORE_DASH.match(line.text) and BEFORE_DASH.match(group[0].text):  # "RED -- in battle"
        is_short = before.box[2] < measure.right - SHORT_BY * em
        if is_short or before.text.rstrip().endswith((".", "!", "?", ";", ")")):
            return True
    if line.is_fixed != before.is_fixed:  # a line of code, or a name at the end of a sentence?
        return abs(line.box[0] - before.box[0]) > 0.5 * em or step > 1.1 * usual
    if step > 1.3 * usual or step < 0 or _is_next_note(line, group, measure):
        return True
    marker = ITEM.match(line.text)
    if marker and marker[0].strip()[0] in _DASHES + "[" and goes_on():
        return False
    if marker and not _ends_in_number(marker[0], before, line, measure):
        return not line.text.lstrip()[0].isalpha() or line.box[0] <= group[0].box[0] + em
    set_off = line.is_bold or line.size > 1.1 * measure.size
    if set_off and _NUMBERED.match(line.text) and before.text.rstrip()[-1:] not in HYPHENS:
        return True  # the next heading
    if line.size > 1.1 * measure.size:
        return False  # the lines of a title may be centred, or hang under its number
    if line.box[0] > before.box[0] + 0.8 * em:  # an indent, unless a hanging one
        hangs = ITEM.match(before.text) or (set_off and _NUMBERED.match(before.text))
        return not (len(group) == 1 and bool(hangs))
    if line.box[0] < before.box[0] - 0.8 * em and len(group) > 1 and not goes_on():
        return True
    if len(group) == 1 and _is_head_of_indented(before, line, below, measure):
        return True
    if len(group) == 1 and _breaks_off(before, line, measure):
        return True
    if len(group) == 1 and _is_centred_over(before, line, measure):
        return True
    short = before.box[2] < measure.right - 0.25 * (measure.right - measure.left)
    return short and bool(_SENTENCE_END.search(before.text)) and line.text[:1].isupper()


IN_COLUMN = 2.0
"""Points that cells of one column begin apart at most."""
FULL, ROOM, FAR_IN = 0.8, 1.5, 2.5
"""Share of the lines of a column that end no further right than full ones, font sizes that a line
has room for beyond the next word where it was broken off, and those that no first line is set
in."""
LINES_OF_BRACKETS = 4
"""Lines over one that closes brackets, among which they were opened."""
_IN_BRACKETS = regex(r"\([^\W\d_]{3,}[\s,]")
"""Words in brackets begin, and no item: "(a) …", "(iv) …"."""
_CITED = regex(r"\[\d{1,3}\](?:[,.;:)]|\s+[a-z])")
"""The number of a work within a sentence: "[3], as", "[9] and"."""


def _is_head_of_indented(before: Line, line: Line, below: Line | None, measure: _Measure) -> bool:
    """Whether a few words are set in as far as the first line of a paragraph under them.

    That line is full, and begins a sentence. Where the one below it goes back to the margin they
    may be more than a few: "Copyright 2020 the well keepers" over "Permission is granted".
    """
    em, width = max(line.size, 1.0), measure.right - measure.left
    is_indented = before.box[0] > measure.left + 0.8 * em
    is_alike = abs(line.box[0] - before.box[0]) < 0.3 * em
    goes_back = below is not None and abs(below.box[0] - measure.left) < 0.5 * em
    is_few = before.box[2] - before.box[0] < (0.75 if goes_back else 0.4) * width
    is_full = line.box[2] > measure.right - 0.1 * width
    return is_indented and is_alike and is_few and is_full and line.text[:1].isupper()


def _breaks_off(before: Line, line: Line, measure: _Measure) -> bool:
    """Whether a line set further in ends though the first word of the next had room on it.

    It is what is said of a term, over the next one: the first line of a paragraph is full. So is
    one that is set in further than first lines are, and ends a sentence.
    """
    em = max(line.size, 1.0)
    middles = [0.5 * (each.box[0] + each.box[2]) for each in (before, line)]
    if before.is_fixed or "\t" in before.text or "\t" in line.text or not line.text[:1].isalpha():
        return False  # of a program, a table or a formula
    if before.lead and before.text[: before.lead].rstrip().endswith("."):
        return False  # a title runs in
    further = (before.box[0] - line.box[0]) / em
    if further <= 0.8 or abs(middles[0] - middles[1]) < em:
        return False
    if further > FAR_IN and _SENTENCE_END.search(before.text):
        return True
    width = (line.box[2] - line.box[0]) * len(line.text.split(maxsplit=1)[0]) / len(line.text)
    return measure.reach - before.box[2] > width + ROOM * em


def _is_centred_over(before: Line, line: Line, measure: _Measure) -> bool:
    """Whether a few words stand in the middle over a full line, as "Abstract" does."""
    em, width = max(line.size, 1.0), measure.right - measure.left
    middle = 0.5 * (measure.left + measure.right)
    is_centred = abs(0.5 * (before.box[0] + before.box[2]) - middle) < em
    is_far_in = (
        before.box[0] - line.box[0] > 0.2 * width and line.box[2] - before.box[2] > 0.2 * width
    )
    return is_centred and is_far_in and line.box[2] > measure.right - 0.1 * width


def _goes_on_within(before: Line, line: Line, group: list[Line], measure: _Measure) -> bool:
    """Whether a line goes on in the middle of a sentence, flush under a full line.

    Words that are set bold over most of a line are stressed then, and a dash at its beginning is
    none of an item.
    """
    full = before.box[2] > measure.right - 0.15 * (measure.right - measure.left)
    flush = abs(line.box[0] - measure.left) < 0.5 * max(line.size, 1.0)
    if not full or not flush or _SENTENCE_END.search(before.text):
        return False
    if not line.is_bold and all(each.is_bold for each in group):
        return False  # a heading over its text
    begins = line.text.lstrip(_DASHES + " ")[:1]
    is_bracket = _IN_BRACKETS.match(line.text) or _is_cited(line, group)
    return begins.islower() or bool(is_bracket) or _closes(line, group)


def _is_cited(line: Line, group: Sequence[Line]) -> bool:
    """Whether a line begins with the number of a work that the text speaks of: "[9] and [13]."."""
    is_listed = group[0].text.lstrip().startswith("[")
    return not is_listed and not line.is_fixed and bool(_CITED.match(line.text))


def _closes(line: Line, group: Sequence[Line]) -> bool:
    """Whether a line closes brackets that a line over it has opened."""
    text = " ".join(above.text for above in group[-LINES_OF_BRACKETS:])
    closes, opens = line.text.find(")"), line.text.find("(")
    is_closed = closes >= 0 and not 0 <= opens < closes
    return is_closed and text.count("(") > text.count(")")


def _is_level(step: float, measure: _Measure) -> bool:
    """Whether a line stands as far under the one before as lines of the text do.

    Where most of a line is a name in typewriter letters, its size is theirs.
    """
    text = max(measure.leadings.values(), default=measure.leading)
    return any(abs(step - usual) < 0.1 * usual for usual in (measure.leading, text))


def _is_next_note(line: Line, group: list[Line], measure: _Measure) -> bool:
    """Whether a footnote begins under another one."""
    if line.size > 0.95 * measure.size:
        return False
    mark, above = NOTE_MARK.match(line.text), NOTE_MARK.match(group[0].text)
    if mark is None or above is None:
        return False
    numbers = mark[1].isdecimal() and above[1].isdecimal()
    return int(mark[1]) == int(above[1]) + 1 if numbers else mark[1] != above[1]


def _ends_in_number(marker: str, before: Line, line: Line, measure: _Measure) -> bool:
    """Whether what looks like an item's number or letter belongs to the sentence before it.

    "... with n = / 6. The weights ..." and "... by the keeper / J. Holm, who ..." stand flush
    under a full line that is not at its end.
    """
    sign = marker.strip()[:-1]
    if marker.strip()[-1:] != "." or not (sign.isdecimal() or (len(sign) == 1 and sign.isupper())):
        return False
    # The number would not have found room at the end of the line before.
    full = before.box[2] > measure.right - 0.6 * line.size * (len(marker.strip()) + 1)
    flush = abs(line.box[0] - measure.left) < 0.5 * line.size
    has_end = _SENTENCE_END.search(before.text) and not _HALF_SHORT.search(before.text)
    goes_on = not has_end and not ITEM.match(before.text)
    return full and flush and goes_on and before.box[0] <= line.box[0] + line.size


def _ends_slanted_title(before: Line, line: Line, group: list[Line], measure: _Measure) -> bool:
    """Whether lines in italics that end short of the margin stand over text that is upright."""
    if not before.is_italic or line.is_italic or not all(each.is_italic for each in group):
        return False
    short = before.box[2] < measure.right - 0.12 * (measure.right - measure.left)
    return short and len(group) <= 3 and not line.text[:1].islower()


def _hangs_on(before: Line, line: Line, group: list[Line], measure: _Measure) -> bool:
    """Whether a line goes on under the description that a line with a term has begun."""
    em = max(line.size, 1.0)
    if "\t" in line.text or line.box[0] < before.box[0] + 0.8 * em:
        return False
    if len(group) > 1 and not (line.text[:1].islower() or before.text[-1:] in HYPHENS):
        return False  # the first line of another paragraph, or a formula
    if line.is_fixed or before.is_fixed or line.is_bold != before.is_bold or ITEM.match(line.text):
        return False
    if abs(line.size - before.size) > 0.08 * em or before.column != line.column:
        return False
    step = line.box[3] - before.box[3]
    if not 0 < step <= 1.3 * max(measure.leading, 1.05 * em):
        return False
    full = before.box[2] > measure.right - 0.2 * (measure.right - measure.left)
    return full and ("\t" in before.text or not _SENTENCE_END.search(before.text))


def _begins_entry(above: Line, line: Line, measure: _Measure) -> bool:
    """Whether a line at the left begins an entry that the one after it hangs on."""
    short = above.box[2] < measure.right - 0.1 * (measure.right - measure.left)
    return short or "\t" in line.text or bool(_SENTENCE_END.search(above.text))


def _ends_in_remark(before: Line, line: Line, group: list[Line], measure: _Measure) -> bool:
    """Whether a line ends the sentence of the one before, with something at the right margin.

    "… and then removed / completely.            (see 6.4)" is no row of a table.
    """
    if len(line.cells) != 2 or "\t" in before.text or _SENTENCE_END.search(before.text):
        return False
    width, em = measure.right - measure.left, max(before.size, 1.0)
    is_full = before.box[2] > measure.right - 0.25 * width
    is_flush = abs(line.cells[0][0] - group[-1].box[0]) < 0.5 * em
    ends_at_margin = line.cells[1][1] > measure.right - em
    near = 0 < line.box[3] - before.box[3] <= 1.3 * max(measure.leading, 1.05 * em)
    return is_full and is_flush and ends_at_margin and near and line.text[:1].islower()


def _runs_in(line: Line) -> bool:
    """Whether the gaps of a line only set its number and title off: "14.   Input.   The file …".

    The number of a section may be all that is set off: "2.1.3   Input The file …".
    """
    if not line.lead or "\t" in line.text[line.lead :].lstrip():
        return False
    lead, n_gaps = line.text[: line.lead].rstrip(), line.text.count("\t")
    return bool(RUN_IN.fullmatch(lead) if n_gaps > 1 else _NUMBERED_LEAD.fullmatch(lead))


def _is_stretched(line: Line) -> bool:
    """Whether a line with wide gaps is one of text, spread to the margin.

    Its last word goes on in the next line, and all its words are as far from each other.
    """
    if line.text[-1:] not in HYPHENS or len(line.cells) < 3 or " " in line.text:
        return False
    gaps = [after[0] - before[1] for before, after in pairwise(line.cells)]
    return max(gaps) - min(gaps) < 0.1 * max(gaps)


def _with_marked_rows(groups: list[tuple[str, list[Line]]]) -> list[tuple[str, list[Line]]]:
    """Rows of a table that begin as items of a list do: "* or End" under "Home", with its cells."""
    made = list(groups)
    for k, (kind, group) in enumerate(groups):
        if kind != "item" or not group[0].cells:
            continue
        beside = made[max(k - 1, 0) : k] + made[k + 1 : k + 2]
        if any(other == "row" and _are_in_columns(group[0], lines[-1]) for other, lines in beside):
            made[k] = ("row", group)
    return made


def _are_in_columns(line: Line, other: Line) -> bool:
    """Whether all cells of a line, more than one, begin where those of another do."""
    lefts = [left for left, _ in other.cells]
    return len(line.cells) > 1 and all(
        any(abs(left - each) < IN_COLUMN for each in lefts) for left, _ in line.cells
    )


def _with_titles(groups: list[tuple[str, list[Line]]]) -> list[tuple[str, list[Line]]]:
    """Captions whose number stands on a line of its own, with the title under it."""
    made: list[tuple[str, list[Line]]] = []
    for kind, group in groups:
        before = made[-1][1] if made and made[-1][0] == "caption" else None
        if kind == "body" and before and _is_title_of(before, group):
            before.extend(group)
        else:
            made.append((kind, list(group)))
    return made


def _is_title_of(label: list[Line], group: list[Line]) -> bool:
    """Whether some lines name what a line with nothing but "Table 2." above them numbers."""
    if len(label) > 1:
        return False
    line, first = label[0], group[0]
    match = CAPTION.match(line.text.strip())
    if not match or not _DRAWN.match(match[0]) or line.text.strip()[match.end() :].strip(" .:—–-"):
        return False
    em = max(line.size, first.size)
    middle = abs((line.box[0] + line.box[2]) - (first.box[0] + first.box[2])) / 2
    is_aligned = middle < em or abs(line.box[0] - first.box[0]) < 0.5 * em
    near = 0 < first.box[1] - line.box[3] + em <= TITLE_NEAR * em
    return line.column == first.column and len(group) <= TITLE_LINES and is_aligned and near


def _with_entries(groups: list[tuple[str, list[Line]]]) -> list[tuple[str, list[Line]]]:
    """Tell the entries of a list of terms, one line long or more, from the rows of a table."""
    lefts = {
        round(group[0].box[0])
        for _, group in groups
        if len(group) > 1 and not group[0].table_row and _n_tabs(group) == 1
    }
    return [
        ("entry" if kind in ("row", "body") and _n_tabs(group) == 1
         and round(group[0].box[0]) in lefts else kind, group)
        for kind, group in groups
    ]  # fmt: skip


def _n_tabs(group: Sequence[Line]) -> int:
    """How many tabs part the cells of a group's first line, or of the row that it is."""
    if group[0].table_row:
        return len({line.table_column for line in group}) - 1
    return 0 if _runs_in(group[0]) else group[0].text.count("\t")


def _kind(
    group: list[Line], page_lines: Sequence[Line], body_size: float, *, is_hanging: bool
) -> str:
    first = group[0]
    if first.apart:
        return first.apart
    if first.table_row:
        return "row"
    if (named := CAPTION.match(first.text.strip())) and not _speaks_of_it(
        first, first.text.strip()[named.end() :], body_size
    ):
        return "caption"
    # A row that begins with a day or a year is no footnote.
    has_cells = "\t" in first.text and not _is_stretched(first) and not _runs_in(first)
    is_small = first.size < 0.93 * body_size and not first.is_fixed
    if is_small and NOTE_MARK.match(first.text) and not has_cells:
        lowest = max(line.box[3] for line in page_lines)
        if first.box[1] > 0.5 * lowest:
            return "note"
    if is_formula(group, page_lines):
        return "formula"
    if ITEM.match(first.text):
        return "item"
    if has_cells and not is_hanging and (len(group) == 1 or first.text.count("\t") > 1):
        return "row"
    if all(line.is_fixed for line in group):
        return "code"
    return "body"


def _speaks_of_it(line: Line, after: str, body_size: float) -> bool:
    """Whether a line goes on as a sentence: "Table 2 provides …" is no caption."""
    goes_on = after[:1] == " " and after.lstrip()[:1].islower()
    return goes_on and not line.lead and not line.is_bold and line.size > 0.95 * body_size


def _continues(before: list[Line], group: list[Line], body_size: float) -> bool:
    """Whether a group on the next page or in the next column goes on with a sentence."""
    last, first = before[-1], group[0]
    if first.page == last.page and first.column == last.column:
        return False
    if first.page - last.page > 1 or abs(first.size - last.size) > 0.08 * last.size:
        return False
    if first.is_bold or last.is_bold:
        return False
    text = first.text.lstrip()
    if last.text.endswith((LINE_END_HYPHEN, "\u2010")):
        return True
    if _SENTENCE_END.search(last.text) or not text:
        return False
    if text[0].isdigit():
        return first.size < HEADING_SIZE * body_size  # "2 Ropes" on the page after "Contents"
    return text[0].islower() or text[0] in "(“\"‘'"


def _paragraph(group: list[Line], kind: str, words: Counter[str]) -> Paragraph:
    parts: list[str] = []
    pieces: list[Piece] = []
    at = 0
    for k, line in enumerate(group):
        text = line.text
        length = len(text)
        joint = " " if k + 1 < len(group) else ""
        if joint and line.table_row and group[k + 1].table_column != line.table_column:
            pieces.append(Piece(at, line, length))
            parts.append(f"{text}\t")
            at += length + 1
            continue
        if joint and _BEFORE_UNSPACED.search(text) and _UNSPACED.match(group[k + 1].text):
            joint = ""
        if joint and text and text[-1] in HYPHENS:
            joint = ""
            if not _keeps_hyphen(text, group[k + 1].text, words):
                length -= 1
        pieces.append(Piece(at, line, length))
        parts.append(text[:length] + joint)
        at += length + len(joint)
    return Paragraph("".join(parts), tuple(pieces), kind)


def _keeps_hyphen(text: str, after: str, words: Counter[str]) -> bool:
    left, right = _LAST_PART.search(text), _FIRST_PART.search(after)
    if not left or not right:
        return True
    first, second = left[1].lower(), right[1].lower()
    with_hyphen, without = words[f"{first}-{second}"], words[first + second]
    if with_hyphen or without:
        return with_hyphen > without
    if text[: left.start()][-1:] in _HYPHENS_WITHIN:  # "box-and-", then "arrow"
        return words[first] > 0 and words[second] > 0
    # Neither form stands elsewhere: a capital after the hyphen, or two whole words the
    # document knows well, speak for a compound.
    return right[1][0].isupper() or (
        text[-1] in "-\u2010" and words[first] > 3 and words[second] > 3
    )
