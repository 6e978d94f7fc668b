"""Typescripts: where all of a document is set in letters of one width, they tell no code."""

from __future__ import annotations

from collections import Counter
from typing import TYPE_CHECKING

from wide_margin.core.later import regex

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wide_margin.core.layout.model import Line

TYPED = 0.9
"""Share of the letters that are of one width in a typescript; in a manual that is mostly examples
of code, what is said between them is set otherwise."""
OF_SIGNS = 0.12
"""Share of a line's characters that are signs of code, or drawn, in one that is no text."""
UNDERLINED = 2.0
"""Font sizes by which an underline may be longer or shorter than its line."""
AS_LARGE = {"#": 1.5, "*": 1.45, "=": 1.4, "-": 1.25, "_": 1.25, "~": 1.15, "^": 1.15, '"': 1.1}
"""A title that is underlined so counts as so many times as large as the text: typists have no other
way to say which of two hangs under which, and most take the double line for the higher."""
BLANKS = 2.5
"""Letters from whose width on a gap is one between cells."""
AGAIN = 3
"""A line that stands so often in a document is a label and no title; but for a numbered one, which
contents pages may list, and one in capitals, which collected pages of a manual have."""
EMPTY_ROW = 1.9
"""Font sizes between the feet of two lines with an empty row between them."""
_SIGNS = regex(r"[{}\[\]<>=|#$\\^~`@*+&%]|[-_/.]{3,}|[\w)]\(\)?|::|;$")
_LEADERS = regex(r"(?:\s*\.){4,}\s*\S*$")
"""Dots that lead to a page's number."""
_RULE = regex(r"([-=~_*^\"#])\1{2,}")
_TITLE = regex(r".{2,60}(?<![.,;:!\-\u00ad])")
_NUMBERED = regex(r"(?:§\s*|[^\W\d_]{3,} )?(?:\d+(?:\.\d+)*|[IVXL]+)(?:[.:)]| ) *[^\W\d_]")
LONG_WORD = 4
"""Letters of a word that is written large in a title."""
_LETTER = regex(r"[^\W\d_]")


def as_typed(pages: Sequence[Sequence[Line]]) -> list[list[Line]]:
    """The lines of a typescript as those of running text, but for code; any others as they are.

    Args:
        pages: Lines of text of each page.
    """
    n_typed = sum(len(line.text) for lines in pages for line in lines if line.is_fixed)
    n_letters = sum(len(line.text) for lines in pages for line in lines)
    if not n_typed or n_typed < TYPED * n_letters:
        return [list(lines) for lines in pages]
    said = Counter(line.text.strip() for lines in pages for line in lines)
    return [_typed(lines, said) for lines in pages]


def _typed(lines: Sequence[Line], said: Counter[str]) -> list[Line]:
    """The lines of a page of a typescript; those set off by rules or by room are bold.

    The rules themselves stand apart, after the text.

    Args:
        lines: Of one page.
        said: How often each line stands in the document.
    """
    if not lines:
        return []
    found = [
        _without_double_blanks(line)._replace(is_fixed=_reads_as_code(line.text)) for line in lines
    ]
    edges = {line.column: line.box[0] for line in sorted(lines, key=lambda line: -line.box[0])}
    around = zip([None, *found[:-1]], found, [*found[1:], None], strict=True)
    told = []
    for before, line, after in around:
        larger = _underlined(line, after)
        is_alone = _is_set_off(before, line, after, edges[line.column]) and not _recurs(line, said)
        is_title = larger > 1 or is_alone
        told.append(line._replace(is_bold=True, size=line.size * larger) if is_title else line)
    column = max(line.column for line in lines) + 1
    rules = [line._replace(apart="stamp", column=column) for line in told if _is_rule(line)]
    return [line for line in told if not _is_rule(line)] + rules


def _is_rule(line: Line) -> bool:
    """Whether a line is drawn with signs."""
    return _RULE.fullmatch(line.text.strip()) is not None


def _without_double_blanks(line: Line) -> Line:
    """A line in which two blanks, as typists end sentences with, are no gap between cells."""
    parts = line.text.split("\t")
    if len(parts) != len(line.cells) or len(parts) < 2:
        return line
    widths = [
        (x1 - x0) / max(len(part), 1) for part, (x0, x1) in zip(parts, line.cells, strict=True)
    ]
    most = BLANKS * max(widths)
    text, cells = parts[0], [line.cells[0]]
    for part, (x0, x1) in zip(parts[1:], line.cells[1:], strict=True):
        if x0 - cells[-1][1] < most:
            text, cells[-1] = f"{text} {part}", (cells[-1][0], x1)
        else:
            text = f"{text}\t{part}"
            cells.append((x0, x1))
    return line._replace(text=text, cells=tuple(cells) if len(cells) > 1 else ())


def _recurs(line: Line, said: Counter[str]) -> bool:
    """Whether a line stands in the document again and again, as "Note" does."""
    text = line.text.strip()
    is_named = text.isupper() or _NUMBERED.match(text) is not None
    return said[text] >= AGAIN and not is_named


def _underlined(line: Line, after: Line | None) -> float:
    """How many times as large as the text a line is set, so to speak, by the rule under it."""
    if after is None or not _is_rule(after) or _is_far(line, after):
        return 1.0
    if line.is_fixed or not _LETTER.search(line.text):
        return 1.0
    rule = after.text.strip()
    em = max(line.size, 1.0)
    is_level = abs(after.box[0] - line.box[0]) < em
    is_as_long = abs(after.box[2] - line.box[2]) < UNDERLINED * em
    return AS_LARGE[rule[0]] if is_level and is_as_long else 1.0


def _is_set_off(before: Line | None, line: Line, after: Line | None, edge: float) -> bool:
    """Whether a line stands under a rule, or alone at the margin as a title does."""
    if line.is_bold or line.is_fixed or not _LETTER.search(line.text):
        return line.is_bold
    em = max(line.size, 1.0)
    if after and _is_rule(after) and not _is_far(line, after):
        return False
    if after is None or not _is_far(line, after) or line.box[0] > edge + em:
        return False
    is_free = before is None or _is_far(before, line) or _is_rule(before)
    return bool(is_free and _reads_as_title(line.text.strip()))


def _reads_as_title(text: str) -> bool:
    """Whether a short text is numbered, or written large throughout: no sentence's beginning."""
    if not _TITLE.fullmatch(text):
        return False
    long = [word for word in text.split() if len(word) >= LONG_WORD]
    is_large = all(word[:1].isupper() for word in long or text.split())
    return bool((text[:1].isupper() and is_large) or _NUMBERED.match(text))


def _is_far(above: Line, below: Line) -> bool:
    """Whether there is a row left empty between two lines of a column, or a column ends."""
    if above.column != below.column:
        return True
    step = below.box[3] - above.box[3]
    return step > EMPTY_ROW * max(above.size, below.size) or step < 0


def _reads_as_code(text: str) -> bool:
    """Whether a line is of code, of a drawing or a rule, by its signs."""
    plain = _LEADERS.sub("", text).strip()
    n_signs = sum(len(found) for found in _SIGNS.findall(plain))
    return n_signs > OF_SIGNS * max(len(plain.replace(" ", "")), 1)
