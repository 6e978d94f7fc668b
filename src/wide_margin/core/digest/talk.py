"""A talk on a document or a part of it: its course, a sheet for each chief section, an ending.

Every point is cut from the document's own sentences and leads to its page; what to say stands
with each sheet.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from wide_margin.core.answers import WHOLE, section_reach
from wide_margin.core.answers.reading import paragraphs_within
from wide_margin.core.digest.by_kind import CONCLUSION, LIMITS, NEXT, fill
from wide_margin.core.digest.kinds import DocumentKind
from wide_margin.core.digest.overview import is_step, is_untold, rows_within
from wide_margin.core.digest.roles import Role, roles_of
from wide_margin.core.digest.section_lines import section_lines
from wide_margin.core.document import Figure, Locator, find_figures
from wide_margin.core.explain import take_apart
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach
    from wide_margin.core.digest.digest import Digester
    from wide_margin.core.digest.gist import GistLine
    from wide_margin.core.digest.section_lines import SectionLine
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.outline import Outline

USUAL_MINUTES = 15
MINUTES_A_SHEET = 2.0
LEAST_SHEETS, MOST_SHEETS = 2, 24
"""Sheets on sections, whatever the length."""
POINTS, OPENING_POINTS, LEAST_POINTS = 4, 3, 3
POINT_WORDS = 20
"""Words of a point, at most: a longer sentence is cut where it pauses, and marked with "…"."""
CHOSEN_FROM = 10
"""Sentences that the points of a sheet are chosen from: short ones go first."""
LEAST_MAIN = 5
LEAST_WORDS = 60
"""A shorter section has no sheet."""
NOTE_WORDS = 170
"""Of what to say with a sheet: a minute and a half."""
_WITH_ENDING = frozenset([DocumentKind.ARTICLE, DocumentKind.REPORT, DocumentKind.THESIS])
"""Kinds that end with findings, limits and what comes next; others by what they say at most."""
_LEFT_OUT = frozenset([Role.THANKS, Role.LEGAL])
_NO_SHEET = regex(
    r"^(?:[\dA-Z.]+\s+)?(?:references|bibliography|index|contents|glossary|preface|foreword"
    r"|acknowledge?ments|list of|abbreviations|literatur|bibliographie|índice)\b", re.I
)  # fmt: skip
_SUBORDINATE = regex(
    r"(?:of|in|to|for|from|with|since|although|if|when|while|because|as|given|despite|by)\b", re.I
)
_ELSEWHERE = regex(
    r"\b(?:see|shown in|described in|listed in|given in|in) (?:also )?(?:the )?(?:figure|fig\.|table|section|chapter|appendix|file|next)\b",
    re.I,
)  # fmt: skip
_PAUSE = regex(r"[;:]\s|\s[—–]\s|,\s")


@dataclass(slots=True)
class Point:
    """A line of a sheet."""

    text: str
    locator: Locator | None = None
    """Where its words stand; None for the reader's own."""
    doubt: str = ""
    """What of it the document does not back, where a writing model has put it."""
    is_own: bool = False
    """Whether the reader has worded it."""

    @property
    def unbacked(self) -> str:
        """What is told of it wherever it is taken to, "" where the document backs it."""
        return f"[unbacked: {self.doubt}]" if self.doubt else ""

    @property
    def shown(self) -> str:
        """With its page, and with what is doubtful of it."""
        text = f"{self.text} {self.unbacked}".strip()
        return f"{text} ({self.locator.shown})" if self.locator is not None else text


@dataclass(slots=True)
class Sheet:
    """What is shown at once, and what is said with it."""

    title: str
    points: list[Point] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    """What to say: passages, verbatim, each with its page."""
    locator: Locator | None = None
    figure: Figure | None = None
    """One that the section rests on."""


@dataclass(slots=True)
class Talk:
    """A talk; it can be changed freely."""

    title: str
    subtitle: str
    minutes: int
    sheets: list[Sheet] = field(default_factory=list)
    ending: Sheet = field(default_factory=lambda: Sheet("At the end"))

    @property
    def course(self) -> list[str]:
        """The titles of its sheets, as they are told at the beginning."""
        return [sheet.title for sheet in self.sheets]


def make_talk(
    document: ReadDocument,
    digester: Digester,
    reach: Reach = WHOLE,
    minutes: int = USUAL_MINUTES,
) -> Talk:
    """Make a talk of a reach, for a length in minutes."""
    facts = digester.facts
    title = reach.name if reach.kind == "section" else (facts.title.text if facts.title else "")
    n_sheets = min(max(round(minutes / MINUTES_A_SHEET) - 2, LEAST_SHEETS), MOST_SHEETS)
    authors = ", ".join(fact.text for fact in facts.authors[:4])
    talk = Talk(title or document.facts.title or "A talk", authors, minutes)
    figures = find_figures(document)
    if reach.kind == "document" and (opening := _opening(digester, reach)).points:
        talk.sheets.append(opening)
    own_lines, lengths = section_lines(document, digester.scored), _lengths(document)
    said: set[str] = {point.text for sheet in talk.sheets for point in sheet.points}
    for row in _chief(document, reach, max(n_sheets - len(talk.sheets), LEAST_SHEETS)):
        sheet = _sheet(document, digester, row, figures, own_lines, lengths, said)
        said |= {point.text for point in sheet.points}
        talk.sheets.append(sheet)
    talk.ending = _ending(document, digester, reach, said)
    return talk


def _opening(digester: Digester, reach: Reach) -> Sheet:
    """What the document is, the sentence first that says it."""
    sheet = Sheet("What it is")
    quotes = digester.answer("What is this about?", reach, None).quotes
    for quote in quotes[:OPENING_POINTS]:
        _add(sheet, quote.text, quote.locators[0])
    return sheet


def _ending(
    document: ReadDocument, digester: Digester, reach: Reach, said: Collection[str]
) -> Sheet:
    """What it comes to: conclusions, limits and what comes next, each said once in a talk.

    Where a kind of document has no such end, what says it in so many words is taken alone.
    """
    sheet, rows = Sheet("At the end"), rows_within(document, reach)
    has_end = digester.facts.kind in _WITH_ENDING
    for slot in (CONCLUSION, LIMITS, NEXT):
        for line in fill(document, digester.scored, slot, rows, only_told=not has_end).lines[:2]:
            if cut_short(line.text) not in said:
                _add(sheet, line.text, line.locator)
    if not sheet.points:
        for line in digester.gist(reach, n_sentences=2 * POINTS):
            if cut_short(line.text) not in said and len(sheet.points) < POINTS:
                _add(sheet, line.text, line.locator)
    return sheet


def _add(sheet: Sheet, text: str, locator: Locator) -> None:
    """A sentence as a point, and whole among what is said."""
    sheet.points.append(Point(cut_short(text), locator))
    sheet.notes.append(f"{text} ({locator.shown})")


def _chief(document: ReadDocument, reach: Reach, n: int) -> list[int]:
    """Rows of the sections that have a sheet, in reading order: the longest of a level.

    The level is the outermost that has sections enough, within the reach.
    """
    outline = document.outline
    first, end = 0, len(document.paragraphs)
    if reach.kind == "section":
        first, end = paragraphs_within(document, reach)
    inside = [
        k for k, s in enumerate(outline.sections)
        if first <= s.first_paragraph and s.end_paragraph <= end
    ]  # fmt: skip
    lengths = _lengths(document)
    roles = roles_of(outline)
    told = [
        k for k in inside
        if lengths[k] >= LEAST_WORDS and roles[k] not in _LEFT_OUT
        and not _NO_SHEET.match(outline.sections[k].title)
    ]  # fmt: skip
    parents = outline.parents
    chapters = [k for k in told if not is_untold(document, k, roles, parents[k])]
    told = chapters if len(chapters) >= min(n, 3) else told
    depths = outline.depths
    for depth in sorted({depths[k] for k in told}):
        level = [k for k in told if depths[k] == depth]
        if len(level) >= min(n, 3):
            return sorted(sorted(level, key=lambda k: -lengths[k])[:n])
    return sorted(sorted(told, key=lambda k: -lengths[k])[:n])


def _lengths(document: ReadDocument) -> list[int]:
    """Words of each section, those within it included."""
    own = [0] * len(document.outline.sections)
    for sentence in document.text.sentences:
        if sentence.section >= 0 and sentence.kind in ("body", "item", "entry"):
            own[sentence.section] += len(sentence.text.split())
    parents = document.outline.parents
    for k in range(len(own) - 1, -1, -1):
        if (parent := parents[k]) >= 0:
            own[parent] += own[k]
    return own


def _sheet(
    document: ReadDocument, digester: Digester, row: int, figures: tuple[Figure, ...],
    own_lines: Sequence[SectionLine], lengths: Sequence[int], said: Collection[str],
) -> Sheet:  # fmt: skip
    """A sheet of a section: what stands for it and for its chief parts, else its gist."""
    section = document.outline.sections[row]
    parts = [k for k, parent in enumerate(document.outline.parents) if parent == row]
    chief = sorted(parts, key=lambda k: -lengths[k])[: POINTS - 1]
    found = [own_lines[k].line for k in (row, *sorted(chief)) if len(chief) > 1]
    lines = [line for line in found if line is not None and not _leads_away(line.text)]
    lines = sorted({line.sentence: line for line in lines}.values(), key=lambda x: x.sentence)
    if len(lines) < LEAST_POINTS:
        lines = _of_gist(digester, section_reach(section))
    sheet = Sheet(section.title)
    fresh = [line for line in lines if cut_short(line.text) not in said]
    for line in fresh or lines:
        _add(sheet, line.text, line.locator)
    while len(sheet.notes) > 1 and sum(len(note.split()) for note in sheet.notes) > NOTE_WORDS:
        sheet.notes.pop()
    sheet.locator = lines[0].locator if lines else None
    sheet.figure = _figure_in(document.outline, row, figures)
    return sheet


def _of_gist(digester: Digester, reach: Reach) -> list[GistLine]:
    """The chief sentences of a section, short ones first."""
    found = digester.gist(reach, n_sentences=CHOSEN_FROM)
    telling = [line for line in found if not _leads_away(line.text)] or list(found)
    short = [line for line in telling if len(line.text.split()) <= POINT_WORDS]
    others = [line for line in telling if line not in short]
    kept = (short + others)[:POINTS]
    return [line for line in found if line in kept]


def _leads_away(text: str) -> bool:
    """Whether a sentence asks, is a step, or tells where something else is to be found."""
    return text.endswith("?") or is_step(text) or bool(_ELSEWHERE.search(text))


def _figure_in(outline: Outline, row: int, figures: tuple[Figure, ...]) -> Figure | None:
    """The first figure or table that a section holds."""
    section = outline.sections[row]
    start, end = (section.page, section.y), (section.end_page, section.end_y)
    inside = (f for f in figures if f.spans and start <= (f.page, f.box[1]) < end)
    return next(inside, None)


def cut_short(text: str, most: int = POINT_WORDS) -> str:
    """A sentence in so many words at most: its main statement where it can be told apart.

    Else it is cut where it pauses, or after a word. What is left out is marked with "…".
    """
    if len(text.split()) <= most:
        return text
    main = [part.text for part in take_apart(text) if part.kind == "main"]
    if main and LEAST_MAIN <= len(main[0].split()) <= most:
        said = main[0].rstrip(" .,;:")
        return f"{said[:1].upper()}{said[1:]} …"
    ends = [match.start() for match in _PAUSE.finditer(text)]
    fitting = [end for end in ends if most // 2 <= len(text[:end].split()) <= most]
    if fitting and not _SUBORDINATE.match(text):
        return f"{text[: fitting[-1]].rstrip(' ,;:—–')} …"
    return " ".join(text.split()[:most]) + " …"
