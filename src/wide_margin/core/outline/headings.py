"""Headings on the pages, told by size, weight, numbering and position."""

import re
from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from wide_margin.core.layout import Paragraph, tidy
from wide_margin.core.layout.model import Line
from wide_margin.core.outline.numbering import number_of

MAX_WORDS = 22
_LETTERS = re.compile(r"[^\W\d_]")
_LEADERS = re.compile(r"(?:\. ?){4,}")
_BARE_LABEL = re.compile(
    r"^(?:chapter|part|appendix|annex|kapitel|teil|anhang|chapitre|partie|annexe|capítulo|parte)"
    r"\s+(?:\d+|[IVXLC]+|[A-Z]|[a-z]+)$",
    re.I,
)
_BARE_NUMBER = re.compile(r"^(?:\d{1,2}|[IVXLC]{1,5}|[A-Z])$")


class Heading(NamedTuple):
    """A heading found on a page."""

    title: str
    level: int
    page: int
    y: float
    paragraph: int


class Style(NamedTuple):
    """How a line is set; headings of one level share it."""

    size: float
    is_bold: bool
    is_italic: bool
    is_capital: bool


@dataclass(frozen=True, slots=True)
class _Candidate:
    title: str
    style: Style
    paragraph: int
    page: int
    y: float


def find_headings(
    paragraphs: Sequence[Paragraph], body_size: float, listings: frozenset[int]
) -> list[Heading]:
    """Find the headings of a document and their levels.

    A paragraph is a candidate when it is short, does not read like a sentence, and is set
    larger or heavier than the text. A style of candidates counts when text of its kind is
    mostly that: a bold word in running text does not make a heading style.
    """
    style_use: Counter[Style] = Counter()
    body_is_bold = _body_is_bold(paragraphs)
    candidates = []
    for row, paragraph in enumerate(paragraphs):
        style = style_of(paragraph)
        style_use[style] += 1
        if paragraph.page in listings and style.size < 1.25 * body_size:
            continue
        if _may_be_heading(paragraph, style, body_size, body_is_bold):
            line = paragraph.pieces[0].line
            title = tidy(paragraph.text.replace("\t", " "))
            candidates.append(_Candidate(title, style, row, line.page, line.box[1]))
    candidates = _join_labels(candidates)
    candidates = _drop_weak_styles(candidates, style_use, body_size, len(paragraphs))
    levels = _levels(candidates)
    return [Heading(c.title, level, c.page, c.y, c.paragraph)
            for c, level in zip(candidates, levels, strict=True)]  # fmt: skip


def style_of(paragraph: Paragraph) -> Style:
    """The style of a paragraph's first line."""
    line = paragraph.pieces[0].line
    letters = [c for c in line.text if c.isalpha()]
    capital = len(letters) > 3 and sum(c.isupper() for c in letters) > 0.9 * len(letters)
    return Style(round(line.size * 2) / 2, line.is_bold, line.is_italic, capital)


def _body_is_bold(paragraphs: Sequence[Paragraph]) -> bool:
    bold = sum(len(p.text) for p in paragraphs if p.pieces[0].line.is_bold)
    return bold > 0.5 * sum(len(p.text) for p in paragraphs)


def _may_be_heading(
    paragraph: Paragraph, style: Style, body_size: float, body_is_bold: bool
) -> bool:
    text = paragraph.text.replace("\t", " ").strip()
    line: Line = paragraph.pieces[0].line
    if paragraph.kind in ("caption", "note") or len(paragraph.pieces) > 4:
        return False
    if len(text) < 2 or len(text.split()) > MAX_WORDS or _LEADERS.search(text):
        return False
    n_letters = len(_LETTERS.findall(text))
    if n_letters < 2 or n_letters < 0.45 * len(text.replace(" ", "")):
        return False
    if text[-1] in ",;" or (text[-1] == "." and len(text.split()) > 8):
        return False
    larger = style.size >= 1.12 * body_size
    if paragraph.kind == "code" and not larger:
        return False
    if larger:
        return True
    if text[-1] == ":" or style.size < 0.88 * body_size:
        return False
    numbered = number_of(text)
    starts_well = text[0].isupper() or text[0].isdigit() or text[0] in '§“"(¿¡'
    if style.is_bold and not body_is_bold:
        return starts_well or numbered is not None
    if numbered and numbered.scheme in ("decimal", "lettered", "paragraph") and numbered.depth > 1:
        return (style.is_italic or style.is_capital) and len(text.split()) <= 14
    set_off = style.is_capital and not line.is_fixed
    return set_off and len(paragraph.pieces) <= 2 and len(text.split()) >= (1 if numbered else 2)


def _join_labels(candidates: list[_Candidate]) -> list[_Candidate]:
    """Join "Chapter 3" or a bare "3" to the title that follows it on the page."""
    joined: list[_Candidate] = []
    for candidate in candidates:
        if joined:
            label = joined[-1]
            near = candidate.page == label.page and candidate.paragraph == label.paragraph + 1
            bare = _BARE_LABEL.match(label.title) or _BARE_NUMBER.match(label.title)
            if near and bare and label.style.size >= 0.6 * candidate.style.size:
                title = f"{label.title} {candidate.title}"
                style = max(label.style, candidate.style)
                joined[-1] = _Candidate(title, style, label.paragraph, label.page, label.y)
                continue
            if (
                near
                and candidate.style == label.style
                and 0 <= candidate.y - label.y < (1.7 * candidate.style.size)
                and number_of(candidate.title) is None
            ):  # a title over two lines
                title = f"{label.title} {candidate.title}"
                joined[-1] = _Candidate(title, label.style, label.paragraph, label.page, label.y)
                continue
        joined.append(candidate)
    return [c for c in joined if not _BARE_NUMBER.match(c.title)]


def _drop_weak_styles(
    candidates: list[_Candidate], style_use: Counter[Style], body_size: float, n_paragraphs: int
) -> list[_Candidate]:
    by_style: dict[Style, list[_Candidate]] = defaultdict(list)
    for candidate in candidates:
        by_style[candidate.style].append(candidate)
    kept = set()
    for style, members in by_style.items():
        share = len(members) / style_use[style] if style_use[style] else 1.0
        larger = style.size >= 1.12 * body_size
        texts = Counter(member.title.casefold() for member in members)
        repeats = 1 - len(texts) / len(members)
        if share < (0.35 if larger else 0.5) or (repeats > 0.5 and len(members) > 6):
            continue
        if not larger and len(members) > 0.25 * n_paragraphs:
            continue
        kept.add(style)
    return [c for c in candidates if c.style in kept]


def _levels(candidates: list[_Candidate]) -> list[int]:
    """Levels from numbering first, typography second, one level for each style."""
    order = _style_order(candidates)
    ranks = []
    for candidate in candidates:
        number = number_of(candidate.title)
        base = order[candidate.style]
        ranks.append((base, number))
    by_depth: dict[tuple[str, int], Counter[int]] = defaultdict(Counter)
    for base, number in ranks:
        if number:
            by_depth[number.scheme, number.depth][base] += 1
    raw = []
    for base, number in ranks:
        if number and number.scheme in ("decimal", "lettered"):
            top = by_depth[number.scheme, 1].most_common(1) if number.depth > 1 else []
            if top:
                raw.append(top[0][0] + number.depth - 1)
                continue
        raw.append(base)
    return _without_jumps(raw)


def _style_order(candidates: list[_Candidate]) -> dict[Style, int]:
    def prominence(style: Style) -> tuple[float, bool, bool, bool]:
        return (-style.size, not style.is_bold, not style.is_capital, style.is_italic)

    styles = sorted({c.style for c in candidates}, key=prominence)
    return {style: level for level, style in enumerate(styles)}


def _without_jumps(raw: list[int]) -> list[int]:
    """Make levels go down one at a time; a heading hangs under the last of lower rank."""
    levels: list[int] = []
    open_: list[int] = []
    for rank in raw:
        while open_ and open_[-1] >= rank:
            open_.pop()
        levels.append(len(open_))
        open_.append(rank)
    return levels
