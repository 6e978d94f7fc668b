"""Entries: terms set above or beside their descriptions, as manuals and glossaries have them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.later import regex
from wide_margin.core.layout import UNSPACED, tidy
from wide_margin.core.lexicon import bare, squashed

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

INDENT = 1.6
"""How many ems a description stands further in than its term; a first line stands in less."""
MAX_WORDS = 8
"""A line of text with more words is no term."""
LABEL = 5
"""A term that stands so often is a label."""
MAX_LINES = 6
"""A term in a fixed font may have several forms, one a line."""
SHORT_LINE = 4
"""Several lines of text are forms of a term only where each has no more words."""
MANY_FIGURES, OF_FIGURES = 3, 3
"""Numbers that make a line of output of a description, as many as a third of its words."""
FEWEST_PLAIN = 3
"""Words of letters alone that describe a term, and half of what stands there."""
_UNSPACED = regex(f"[{UNSPACED}]")
_ARGUMENTS = regex(r"\([^()]*\)|\[[^\[\]]*\]|(?<=\w)\([^()]*$|^[^()]*[,*][^()]*\)")
"""What a function takes, also where a line breaks within: "int wind(ROPE *rope,", "int turns)"."""
_TOLD_AT_ONCE = regex(r"[–—-]{1,2}\w\S*(?:\s\S{1,2}|\s\(\S+\))?\s+[^\W\d_]+\s[^\W\d_]")
"""An option with its description in the line: "--deep Also measure the depth"."""
_PARTS = squashed("abstract", "contents", "references", "acknowledgements")
"""Stand over parts of a document, which do not describe them."""
_CLOSED = regex(r"[.;,!?]\s*$")


class Term(NamedTuple):
    """What an entry describes: an option, a function with its forms, a word explained."""

    text: str
    paragraph: int
    """Row of its paragraph, of the last one where its forms stand in several."""
    parent: int
    """The term in whose description it stands, -1 for none."""
    is_label: bool = False
    """Whether it stands again and again, as "Note" and "Usage" do: it names nothing."""


def find_terms(
    paragraphs: Sequence[Paragraph], headings: Collection[int]
) -> tuple[tuple[Term, ...], list[int]]:
    """Tell which paragraphs describe a term that stands above or before them.

    Args:
        paragraphs: All paragraphs in reading order.
        headings: Rows of those that are headings; nothing is described across one.

    Returns:
        The terms, and for each paragraph the term that it describes, -1 for none. The paragraph
        of a term itself is described by the term around it, an entry by its own.
    """
    lefts = [_left(paragraph) for paragraph in paragraphs]
    margins = _margins(paragraphs, lefts)
    terms: list[Term] = []
    of: list[int] = []
    open_: list[tuple[float, int]] = []  # (left, term), outermost first
    for row, paragraph in enumerate(paragraphs):
        if row in headings or (open_ and _is_beside(paragraphs[row - 1], paragraph)):
            open_.clear()
        if row in headings:
            of.append(-1)
            continue
        left = lefts[row] - margins[_side(paragraph)]
        needed = INDENT * max(paragraph.pieces[0].line.size, 1.0)
        before = open_[-1] if open_ else None
        while open_ and left < open_[-1][0] + needed:
            open_.pop()
        parent = open_[-1][1] if open_ else -1
        text = _term_of(paragraph)
        if not text:
            of.append(parent)
            if paragraph.kind not in ("row", "note", "caption"):
                while open_ and open_[-1][0] >= left - 1.0:
                    open_.pop()
            continue
        forms = before and terms[before[1]].paragraph == row - 1 and abs(before[0] - left) < 1.0
        leads_in = before and terms[before[1]].text.endswith(":")  # "The three parts are:"
        is_told = before and _TOLD_AT_ONCE.match(terms[before[1]].text)
        if forms and before and not (leads_in or is_told) and paragraph.kind != "entry":
            text = f"{terms[before[1]].text} {text}"
        terms.append(Term(text, row, parent))
        of.append(len(terms) - 1 if paragraph.kind == "entry" else parent)
        open_.append((left, len(terms) - 1))
    often = {text for text, n in Counter([t.text for t in terms]).items() if n >= LABEL}
    return tuple(t._replace(is_label=t.text in often) for t in terms), of


def _left(paragraph: Paragraph) -> float:
    pieces = paragraph.pieces
    if len(pieces) == 1:
        return pieces[0].line.box[0]
    return min([piece.line.box[0] for piece in pieces])


def _side(paragraph: Paragraph) -> int:
    """Left and right pages may have different margins."""
    return paragraph.page % 2


def _margins(paragraphs: Sequence[Paragraph], lefts: Sequence[float]) -> tuple[float, float]:
    """The left edge of the text on even and on odd pages."""
    found = []
    for side in (0, 1):
        pairs = zip(paragraphs, lefts, strict=True)
        here = Counter([round(left) for p, left in pairs if _side(p) == side])
        usual = [left for left, n in here.items() if n >= 0.05 * here.total()]
        found.append(float(min(usual, default=0)))
    return found[0], found[1]


def _is_beside(before: Paragraph, paragraph: Paragraph) -> bool:
    """Whether a paragraph begins another column: higher up on the same page."""
    last, first = before.pieces[-1].line, paragraph.pieces[0].line
    return last.page == first.page and first.box[3] < last.box[3] - 1.0


def _term_of(paragraph: Paragraph) -> str:
    """The term that a paragraph is, or begins with; "" where it is text."""
    if paragraph.kind == "entry":
        return tidy(paragraph.text.split("\t", 1)[0])
    if paragraph.kind not in ("body", "code") or len(paragraph.pieces) > MAX_LINES:
        return ""
    if _CLOSED.search(paragraph.text, max(len(paragraph.text) - 4, 0)):
        return ""
    lefts = [piece.line.box[0] for piece in paragraph.pieces]
    if max(lefts) - min(lefts) > 2.0:
        return ""
    longest = max(len(_ARGUMENTS.sub("", piece.line.text).split()) for piece in paragraph.pieces)
    short = len(lefts) == 1 or paragraph.kind == "code" or longest <= SHORT_LINE
    text = tidy(paragraph.text) if short and longest <= MAX_WORDS else ""
    return text if any(c.isalnum() for c in text) and bare(text) not in _PARTS else ""


def names_in(term: str) -> str:
    """A term without the arguments that a call is written with."""
    return _ARGUMENTS.sub(" ", term)


def is_said(text: str) -> bool:
    """Whether a description is in words, and does not only give names and numbers."""
    if _UNSPACED.search(text):
        return True
    parts = text.split()
    plain = sum(part.strip("(“\"‘'.,;:!?”’)").isalpha() for part in parts)
    figures = sum(any(map(str.isdigit, part)) for part in parts)
    if figures >= MANY_FIGURES and OF_FIGURES * figures >= len(parts):
        return False
    return plain >= FEWEST_PLAIN and 2 * plain >= len(parts)
