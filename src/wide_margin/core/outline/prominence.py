"""Whether a line is set as headings usually are: larger, heavier, in capitals, or numbered.

What a reader's eye goes by before it reads. The trees of heading-trees.json weigh it with the
rest, and a heading of the usual look needs less of their consent.
"""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout import STOPS, word_count
from wide_margin.core.lexicon import alternatives
from wide_margin.core.outline.candidates import LARGER, Style, is_code, style_of
from wide_margin.core.outline.numbering import goes_on, number_of

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline.candidates import Candidate

SMALLER = 0.88
"""Times the text's size below which nothing stands out."""
ITALIC_LARGER = 1.05
"""The same from which a line in italics stands out."""
PURE_LARGE, PURE = 0.3, 0.4
"""Share of the paragraphs of a style that must stand out for the style to be one of headings:
of a style that is larger than the text, and of one that is not."""
FEWEST_ONLY, ONLY = 5, 0.5
"""Lines of a style that stand out, and their share of it, from which it sets headings alone."""
OFTEN = 6
"""Times from which a title that most of a style repeats is a label, not a heading."""
LEAST_TEXT, LARGEST_TEXT = 0.85, 1.25
"""Times the usual size between which running text is set; most may be code, and smaller."""
MUCH_TEXT = 25
"""Words from which a paragraph is running text."""
_FRONT_WORDS = alternatives(
    "abstract", "summary", "preface", "introduction", "contents", "acknowledgements"
)
_TEX_ROMAN = regex(r"(?:CM|SF|EC)(?!SS|TT)")
"""Names of TeX's faces with serifs, whatever their weight and slope."""
_FRONT = regex(rf"^(?:{_FRONT_WORDS}|keywords|about\b)", re.I)


@dataclass(frozen=True, slots=True)
class Look:
    """What a document's text looks like, and which candidates stand out from it."""

    is_bold: bool
    """Whether most of the text is bold: then being bold says nothing."""
    first_row: int
    """Row of the first running text."""
    use: Mapping[Style, int]
    """Paragraphs of each style."""
    out: tuple[bool, ...]
    """(n candidates,) whether each stands out."""
    matter: frozenset[int]
    """Rows of title, authors and imprint: what stands out before the first running text."""


def look_of(
    candidates: Sequence[Candidate], paragraphs: Sequence[Paragraph], body_size: float
) -> Look:
    """Look at a document once, for all who ask."""
    is_bold, first_row = mostly_bold(paragraphs), first_text(paragraphs, body_size)
    out = tuple(
        stands_out(c, paragraphs[c.paragraph], body_size, body_is_bold=is_bold) for c in candidates
    )
    standing = [c for c, is_out in zip(candidates, out, strict=True) if is_out]
    return Look(
        is_bold, first_row, Counter(style_of(paragraph) for paragraph in paragraphs), out,
        _title_matter(standing, first_row),
    )  # fmt: skip


def usual_headings(
    candidates: Sequence[Candidate], look: Look, body_size: float, n_paragraphs: int, face: str
) -> list[bool]:
    """For each candidate whether it is set, placed and numbered as headings usually are.

    What stands before the first running text is the title, its authors and the imprint, unless
    it is the heading of that text or is called as front matter is.
    """
    both = zip(look.out, candidates, strict=True)
    out = [is_out and c.paragraph not in look.matter for is_out, c in both]
    strong = strong_styles(candidates, out, look.use, body_size, n_paragraphs)
    only = styles_of_headings(candidates, out, strong, look, face)
    seen: set[str] = set()
    usual = []
    for candidate, stands in zip(candidates, out, strict=True):
        is_out = stands or (candidate.style in only and candidate.paragraph not in look.matter)
        number = number_of(candidate.title)
        deep = number is not None and number.scheme in ("decimal", "lettered") and number.depth > 1
        is_usual = is_out and (candidate.style in strong or deep)
        if is_usual and number is not None:
            style = candidate.style
            set_off = style.is_bold or style.is_capital or style.size >= LARGER * body_size
            is_usual = set_off or goes_on(number.identifier, seen)
            if is_usual:
                seen.add(number.identifier)
        usual.append(is_usual)
    return usual


def is_same_family(one: str, other: str) -> bool:
    """Whether two faces are of one family, a bold one and the text's."""
    if one.startswith(other) or other.startswith(one):
        return True
    return bool(_TEX_ROMAN.match(one) and _TEX_ROMAN.match(other))


def _title_matter(out: Sequence[Candidate], first_row: int) -> frozenset[int]:
    """Rows of what stands on the first pages before the first running text and is no heading."""
    before = [c for c in out if c.paragraph < first_row and c.page <= 3]
    if len(before) < 2:
        return frozenset()
    return frozenset(
        c.paragraph for c in before
        if not (_FRONT.match(c.title) or (number_of(c.title) and c.page > 0)
                or (c is before[-1] and first_row - c.paragraph <= 2))
    )  # fmt: skip


def first_text(paragraphs: Sequence[Paragraph], body_size: float) -> int:
    """Row of the first running text."""
    for row, paragraph in enumerate(paragraphs):
        size = paragraph.pieces[0].line.size
        is_text = LEAST_TEXT * body_size < size < LARGEST_TEXT * body_size
        if is_text and word_count(paragraph.text) >= MUCH_TEXT:
            return row
    return 0


def mostly_bold(paragraphs: Sequence[Paragraph]) -> bool:
    """Whether most of the text is bold: then being bold says nothing."""
    bold = sum(len(p.text) for p in paragraphs if p.pieces[0].line.is_bold)
    return bold > 0.5 * sum(len(p.text) for p in paragraphs)


def stands_out(
    candidate: Candidate, paragraph: Paragraph, body_size: float, *, body_is_bold: bool
) -> bool:
    """Whether a candidate is set off from the text as headings are."""
    text, style = candidate.title, candidate.style
    if len(text) > 300 or style.size < SMALLER * body_size or not text:
        return False
    number = number_of(text)
    if text[-1] in STOPS and word_count(number.rest if number else text) > 8:
        return False
    larger = style.size >= LARGER * body_size
    if larger or paragraph.kind == "code":
        return larger
    if text[-1] == ":" or is_code(text):
        return False
    starts_well = text[0].isupper() or text[0].isdigit() or text[0] in '§“"(¿¡'
    if style.is_bold and not body_is_bold:
        return starts_well or number is not None or style.size >= ITALIC_LARGER * body_size
    if style.is_italic and style.size >= ITALIC_LARGER * body_size:
        return starts_well and text[-1] != "."
    if number and number.scheme in ("decimal", "lettered") and number.depth > 1:
        return len(paragraph.pieces) == 1 and word_count(text) <= 12 and text[-1] not in STOPS
    if number and number.scheme == "paragraph":
        return (style.is_italic or style.is_capital) and word_count(text) <= 14
    set_off = style.is_capital and not paragraph.pieces[0].line.is_fixed
    enough = word_count(text) >= (1 if number else 2) or len(text) > 6
    return set_off and enough and len(paragraph.pieces) <= 2


def styles_of_headings(
    candidates: Sequence[Candidate],
    out: Sequence[bool],
    strong: Container[Style],
    look: Look,
    face: str,
) -> frozenset[Style]:
    """Strong styles, bold and in a face that the text is not set in, that hardly do anything else.

    All that is set so is a heading, be it a name in small letters or end in a colon.
    """
    n_out = Counter(c.style for c, stands in zip(candidates, out, strict=True) if stands)
    return frozenset(
        style for style, n in n_out.items()
        if style in strong and style.is_bold and not look.is_bold
        and not is_same_family(style.face, face)
        and n >= FEWEST_ONLY and n >= ONLY * look.use.get(style, 1)
    )  # fmt: skip


def strong_styles(
    candidates: Sequence[Candidate],
    out: Sequence[bool],
    use: Mapping[Style, int],
    body_size: float,
    n_paragraphs: int,
) -> frozenset[Style]:
    """Styles of headings: text set so mostly stands out, and does not say the same each time.

    Args:
        candidates: All.
        out: Whether each stands out.
        use: Paragraphs of each style.
        body_size: The usual font size, in points.
        n_paragraphs: Of the document.
    """
    members: dict[Style, list[Candidate]] = defaultdict(list)
    for candidate, stands in zip(candidates, out, strict=True):
        if stands:
            members[candidate.style].append(candidate)
    strong = set()
    for style, inside in members.items():
        share = len(inside) / max(use.get(style, 1), 1)
        larger = style.size >= LARGER * body_size
        commonest = Counter(c.title.casefold() for c in inside).most_common(1)[0][1]
        repeats = commonest > OFTEN and commonest > 0.4 * len(inside)
        much = not larger and len(inside) > 0.3 * n_paragraphs
        if share >= (PURE_LARGE if larger else PURE) and not repeats and not much:
            strong.add(style)
    return frozenset(strong)
