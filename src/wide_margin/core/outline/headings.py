"""Headings on the pages, told by size, weight, numbering and position."""

import re
from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

from wide_margin.core.geometry import Box, around
from wide_margin.core.layout import Paragraph, tidy
from wide_margin.core.lexicon import LEADER, alternatives, number_words
from wide_margin.core.outline.jumps import without_jumps
from wide_margin.core.outline.numbering import number_before, number_of

MAX_WORDS = 22
_LETTERS = re.compile(r"[^\W\d_]")
_LEADERS = re.compile(rf"(?:[{LEADER}] ?){{4,}}")
_PART_WORDS = alternatives("chapter", "part", "section", "appendix", "book", "article")
_BARE_LABEL = re.compile(rf"^{_PART_WORDS}\s+(?:\d+|[IVXLC]+|[A-Z]|[a-z]+)$", re.I)
_BARE_NUMBER = re.compile(r"^(?:\d{1,2}|[IVXLC]{1,5}|[A-Z])$")
_COUNTED = re.compile(
    rf"^(?:{_PART_WORDS}\s+)?(?:{'|'.join(number_words('en'))})(?:[ -](?:{'|'.join(number_words('en'))}))?$",
    re.I,
)
_CODE = re.compile(r"\w\(|[_={}\\;<>|]|\(\)")
_FRONT_WORDS = alternatives(
    "abstract", "summary", "preface", "introduction", "contents", "acknowledgements"
)
_FRONT = re.compile(rf"^(?:{_FRONT_WORDS}|keywords|about\b)", re.I)


class Style(NamedTuple):
    """How a line is set; headings of one level share it."""

    size: float
    is_bold: bool
    is_italic: bool
    is_capital: bool


class Heading(NamedTuple):
    """A heading found on a page."""

    title: str
    level: int
    """From 0; -1 for a paragraph that only another witness calls a heading."""
    page: int
    y: float
    paragraph: int
    box: Box
    style: Style


@dataclass(frozen=True, slots=True)
class _Candidate:
    title: str
    style: Style
    paragraph: int
    page: int
    y: float
    last: int = -1
    """Row of its last paragraph, where several were joined."""
    last_y: float = -1.0
    """Top of that."""


def find_headings(
    paragraphs: Sequence[Paragraph], body_size: float, listings: frozenset[int]
) -> list[Heading]:
    """Find the headings of a document and their levels.

    A paragraph is a candidate when it is short, does not read like a sentence, and is set
    larger or heavier than the text, or has a number that counts on from those before it. A
    style of candidates counts when text of its kind is mostly that: a bold word in running
    text does not make a heading style. What stands before the first running text is the title.
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
            title = _unspaced(tidy(paragraph.text.replace("\t", " ")))
            candidates.append(_Candidate(title, style, row, line.page, line.box[1]))
    candidates = _join_labels(candidates)
    candidates = _without_title_matter(candidates, paragraphs, body_size)
    candidates = _drop_weak_styles(candidates, style_use, body_size, len(paragraphs))
    candidates = _counting_on(candidates, body_size)
    candidates = _with_run_ins(candidates, paragraphs, listings)
    levels = _levels(candidates)
    return [
        Heading(c.title, level, c.page, c.y, c.paragraph, _box_of(c, paragraphs), c.style)
        for c, level in zip(candidates, levels, strict=True)
    ]


def heading_of(paragraph: Paragraph, row: int, title: str = "") -> Heading:
    """A paragraph that only another witness calls a heading, by the title that stands there."""
    line = paragraph.pieces[0].line
    title = title or _unspaced(tidy(paragraph.text.replace("\t", " ")))
    box = around([piece.line.box for piece in paragraph.pieces if piece.line.page == line.page])
    return Heading(title, -1, line.page, line.box[1], row, box, style_of(paragraph))


def _box_of(candidate: _Candidate, paragraphs: Sequence[Paragraph]) -> Box:
    rows = paragraphs[candidate.paragraph : max(candidate.last, candidate.paragraph) + 1]
    return around(
        [piece.line.box for p in rows for piece in p.pieces if piece.line.page == candidate.page]
    )


def _unspaced(title: str) -> str:
    """Letters set apart for show ("C O N T E N T S") as a word."""
    tokens = title.split()
    n_single = sum(len(token) == 1 and token.isalpha() for token in tokens)
    return "".join(tokens) if len(tokens) >= 5 and n_single >= 0.8 * len(tokens) else title


def style_of(paragraph: Paragraph) -> Style:
    """The style of a paragraph's first line."""
    line = paragraph.pieces[0].line
    capital = line.text.isupper() and sum(map(str.isalpha, line.text)) > 3
    return Style(round(line.size * 2) / 2, line.is_bold, line.is_italic, capital)


def _body_is_bold(paragraphs: Sequence[Paragraph]) -> bool:
    bold = sum(len(p.text) for p in paragraphs if p.pieces[0].line.is_bold)
    return bold > 0.5 * sum(len(p.text) for p in paragraphs)


def _may_be_heading(
    paragraph: Paragraph, style: Style, body_size: float, body_is_bold: bool
) -> bool:
    if not _stands_out(paragraph, style, body_size, body_is_bold):
        return False
    text = paragraph.text.replace("\t", " ").strip()
    if paragraph.kind in ("caption", "note") or len(paragraph.pieces) > 4 or len(text) < 2:
        return False
    number = number_of(text)
    is_label = bool(_BARE_LABEL.match(text) or _COUNTED.match(text))
    if not is_label and not _reads_as_title(text, number.rest if number else text):
        return False
    larger = style.size >= 1.12 * body_size
    if paragraph.kind == "code" and not larger:
        return False
    if larger:
        return True
    if text[-1] == ":" or style.size < 0.88 * body_size or _CODE.search(text):
        return False
    starts_well = text[0].isupper() or text[0].isdigit() or text[0] in '§“"(¿¡'
    if style.is_bold and not body_is_bold:
        return starts_well or number is not None
    if number and number.scheme in ("decimal", "lettered") and number.depth > 1:
        # Nothing but the number sets it off: it must count on (see _counting_on).
        return len(paragraph.pieces) == 1 and len(text.split()) <= 12 and text[-1] != "."
    if number and number.scheme == "paragraph":
        return (style.is_italic or style.is_capital) and len(text.split()) <= 14
    set_off = style.is_capital and not paragraph.pieces[0].line.is_fixed
    enough = len(text.split()) >= (1 if number else 2) or len(text) > 6
    return set_off and enough and len(paragraph.pieces) <= 2


def _stands_out(paragraph: Paragraph, style: Style, body_size: float, body_is_bold: bool) -> bool:
    """A quick look, before the words are: most paragraphs end here."""
    if len(paragraph.text) > 300 or style.size < 0.88 * body_size:
        return False
    if style.size >= 1.12 * body_size or style.is_capital or (style.is_bold and not body_is_bold):
        return True
    start = paragraph.text.lstrip()[:2]
    return start[:1].isdigit() or start[:1] == "§" or start[1:2] in (".", " ")


def _reads_as_title(text: str, rest: str) -> bool:
    """Whether a text has the length, the letters and the end of a title."""
    words = rest.split()
    if not words or len(words) > MAX_WORDS or _LEADERS.search(text):
        return False
    n_letters = len(_LETTERS.findall(rest))
    if n_letters < 2 or n_letters < 0.45 * len(rest.replace(" ", "")):
        return False
    # Notes of music and formulas come as single letters; so do letters set apart for show.
    long_words = sum(len(_LETTERS.findall(word)) >= 3 for word in words)
    if len(words) > 3 and long_words < 0.3 * len(words) and _unspaced(rest) == rest:
        return False
    return text[-1] not in ",;" and not (text[-1] == "." and len(words) > 8)


def _join_labels(candidates: list[_Candidate]) -> list[_Candidate]:
    """Join "Chapter 3" or a bare "3" to its title, and the lines of a title to one."""
    joined: list[_Candidate] = []
    for candidate in candidates:
        if joined and (title := _joined_title(joined[-1], candidate)):
            first = joined[-1]
            joined[-1] = replace(
                first, title=title, style=candidate.style, last=candidate.paragraph,
                last_y=candidate.y,
            )  # fmt: skip
        else:
            joined.append(replace(candidate, last=candidate.paragraph, last_y=candidate.y))
    return [c for c in joined if not _BARE_NUMBER.match(c.title) and not _COUNTED.match(c.title)]


def _joined_title(first: _Candidate, second: _Candidate) -> str:
    """The two as one title, "" where they are two headings."""
    if second.page != first.page or second.paragraph != first.last + 1:
        return ""
    counted = _COUNTED.match(first.title)
    bare = counted or _BARE_LABEL.match(first.title) or _BARE_NUMBER.match(first.title)
    if _BARE_LABEL.match(second.title):
        return ""
    if bare and first.style.size >= 0.6 * second.style.size:
        return second.title if counted else f"{first.title} {second.title}"
    close = 0 <= second.y - first.last_y < 1.7 * second.style.size
    if second.style == first.style and close and number_of(second.title) is None:
        return f"{first.title} {second.title}"
    return ""


def _without_title_matter(
    candidates: list[_Candidate], paragraphs: Sequence[Paragraph], body_size: float
) -> list[_Candidate]:
    """Leave out title, authors and imprint: what stands before the first running text.

    The last of them may be the heading of that text; so may whatever has a number or is
    called as such headings are.
    """
    first_text = next(
        (
            row for row, p in enumerate(paragraphs)
            if len(p.text.split()) >= 25 and abs(p.pieces[0].line.size - body_size) < 0.15 * body_size
        ),
        0,
    )  # fmt: skip
    before = [c for c in candidates if c.paragraph < first_text and c.page <= 3]
    if len(before) < 2:
        return candidates
    kept = {
        c.paragraph for c in before
        if _FRONT.match(c.title) or (number_of(c.title) and c.page > 0) or (
            c is before[-1] and first_text - c.paragraph <= 2
        )
    }  # fmt: skip
    dropped = {c.paragraph for c in before} - kept
    return [c for c in candidates if c.paragraph not in dropped]


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
        commonest = Counter(member.title.casefold() for member in members).most_common(1)[0][1]
        if share < (0.3 if larger else 0.4) or (commonest > 0.4 * len(members) and commonest > 6):
            continue
        if not larger and len(members) > 0.3 * n_paragraphs:
            continue
        kept.add(style)
    return [c for c in candidates if c.style in kept or _is_decimal(c.title)]


def _is_decimal(title: str) -> bool:
    number = number_of(title)
    return number is not None and number.scheme in ("decimal", "lettered") and number.depth > 1


def _counting_on(candidates: list[_Candidate], body_size: float) -> list[_Candidate]:
    """Of headings that only their number sets off, keep those that count on.

    "1.2" needs a "1.1" or a "1" before it; a decimal in a table has neither.
    """
    seen: set[str] = set()
    kept = []
    for candidate in candidates:
        number = number_of(candidate.title)
        if number is None:
            kept.append(candidate)
            continue
        stands_out = candidate.style.is_bold or candidate.style.size >= 1.12 * body_size
        if stands_out or candidate.style.is_capital or _counts_on(number.identifier, seen):
            seen.add(number.identifier)
            kept.append(candidate)
    return kept


def _with_run_ins(
    candidates: list[_Candidate], paragraphs: Sequence[Paragraph], listings: frozenset[int]
) -> list[_Candidate]:
    """Add headings that run into their paragraph: "2.1.1 Siting. The gauge stands ...".

    A numbered one counts when it counts on from the others. Those without a number are bold and
    end in a full stop, and count when the document has several of them, each once: a bold
    "Note." or "Warning." comes again and again.
    """
    if not candidates:
        return candidates
    taken = {c.paragraph for c in candidates}
    seen = {n.identifier for c in candidates if (n := number_of(c.title)) is not None}
    numbered, plain = [], []
    for row, paragraph in enumerate(paragraphs):
        line = paragraph.pieces[0].line
        if not line.lead or row in taken or paragraph.kind not in ("body", "item"):
            continue
        if paragraph.page in listings or len(paragraph.text) < line.lead + 40:
            continue
        lead = tidy(line.text[: line.lead].replace("\t", " "))
        style = Style(round(line.size * 2) / 2, True, False, False)
        title = lead.rstrip(" .:")
        found = _Candidate(title, style, row, line.page, line.box[1], row, line.box[1])
        number = number_of(title)
        if not 3 <= len(title) <= 80 or not title[0].isalnum() or _CODE.search(title):
            continue
        if number is not None and number.depth > 1:
            if _counts_on(number.identifier, seen):
                seen.add(number.identifier)
                numbered.append(found)
        elif lead.endswith(".") and paragraph.kind == "body" and title[0].isupper():
            plain.append(found)
    names = Counter(c.title.casefold() for c in plain)
    if len(names) < 3 or len(names) < 0.8 * len(plain) or len(plain) > 0.1 * len(paragraphs):
        plain = []
    lowest = min(c.style.size for c in candidates)
    plain = [replace(c, style=c.style._replace(size=lowest - 1.0)) for c in plain]
    return sorted([*candidates, *numbered, *plain], key=lambda c: c.paragraph)


def _counts_on(identifier: str, seen: set[str]) -> bool:
    parent, _, last = identifier.rpartition(".")
    if not parent:
        return True
    if not last.isdigit() or identifier in seen:
        return False
    before = f"{parent}.{int(last) - 1}"
    return before in seen or (last == "1" and (parent in seen or not seen or "." not in parent))


def _levels(candidates: list[_Candidate]) -> list[int]:
    """Levels from numbering first, typography second, one level for each style.

    "3.1" hangs under the last heading numbered "3", whatever its scheme calls it. Other
    headings take the level that numbered ones of their style have, else one by prominence.
    """
    order = _style_order(candidates)
    ranks: list[float] = []
    last_of: dict[str, float] = {}
    learned: dict[Style, Counter[float]] = defaultdict(Counter)
    for candidate in candidates:
        number = number_of(candidate.title)
        rank = float(order[candidate.style])
        if number is not None:
            parent = number.identifier.rpartition(".")[0]
            if parent in last_of and number.scheme in ("decimal", "lettered"):
                rank = last_of[parent] + 1
            elif candidate.style not in learned and (before := number_before(number)) in last_of:
                rank = last_of[before]  # "2" is what "1" was, however it is set
            last_of[number.identifier] = rank
            learned[candidate.style][rank] += 1
        ranks.append(rank)
    for k, candidate in enumerate(candidates):
        if number_of(candidate.title) is None and learned[candidate.style]:
            ranks[k] = learned[candidate.style].most_common(1)[0][0]
    return without_jumps(ranks)


def _style_order(candidates: list[_Candidate]) -> dict[Style, int]:
    def prominence(style: Style) -> tuple[float, bool, bool, bool]:
        return (-style.size, not style.is_bold, not style.is_capital, style.is_italic)

    styles = sorted({c.style for c in candidates}, key=prominence)
    return {style: level for level, style in enumerate(styles)}
