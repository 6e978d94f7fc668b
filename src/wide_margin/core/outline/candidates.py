"""Paragraphs that may be headings, and how they are set."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.later import regex
from wide_margin.core.layout import tidy, word_count
from wide_margin.core.lexicon import LEADER, alternatives, first_word, first_words, number_words
from wide_margin.core.outline.numbering import number_of

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph

MAX_WORDS = 22
MAX_WORDS_ASKED = 60
"""Of a question that is much larger than the text."""
MUCH_LARGER = 1.3
"""Times the text's size from which a line is much larger."""
FEW_WORDS = 4
SINGLE = 3
"""Words from which those of a single letter are looked at."""
FEW = 0.55
"""Share of different letters that even a word has, whose letters are set apart."""
LABEL_LEAST = 0.5
"""Of its title's size, "Chapter 3" over it has at least this much."""
SIDEWAYS = 1.6
"""Words in the margin are at least this many times their size wide, unless they run up or down."""
LEVEL = 3.0
"""Points by which the edges of the lines of a title differ at most."""
_VERSION = regex(r"\bv?\d+(?:\.\d+)+|\b\d{4}[-/.]\d\d")
LARGER = 1.12
"""Times the text's size from which a line counts as larger."""
CODE = regex(r"\w\(|[_={}\\;<>|]|\(\)")
"""Signs that a line is a command or a formula."""
BULLET = regex(r"[•◦‣▪▸►○●∙·]\s")
_NAME = regex(r"(?:[\w.:-]+\s){0,3}[\w.:-]+(?:\(\))?|\S+(?:,\s\S+){0,2}\s::\s\S+")
"""A function, or a parameter after its type: "integer :: n_turns", "real(kind=dp) :: slack"."""
_DECLARED = regex(
    r"(\d+(?:\.\d+)+\.?\s(?P<name>[^\s(]+)\(\)(?:\s\[\d+/\d+\])?)\s(?:.*[^\w])?(?P=name)\s?\("
)
"""The name of a function, then what it takes: "3.1 open() File* open (", "3.1 put() [1/2] …"."""
_LETTERS = regex(r"[^\W\d_]")
_LEADERS = regex(rf"(?:[{LEADER}] ?){{4,}}")
_PART_WORDS = alternatives("chapter", "part", "section", "appendix", "book", "article")
_BARE_NUMBER = regex(r"^(?:\d{1,2}|[IVXLC]{1,5}|[A-Z])$")
_LABELS = first_words("chapter", "part", "section", "appendix", "book", "article") | set(
    number_words("en")
)
_COUNT = regex(r"^(\d{1,5})[.:)]?\s")
CLOSE_LINES, COUNT_APART = 1.6, 2
"""Lines whose tops are so many sizes apart, and whose numbers differ by so much, are counted."""
_ONES = "|".join(number_words("en"))
_COUNTS = "|".join(word for word in number_words() if word.isalpha())
BARE_LABEL = regex(
    rf"^(?:{_PART_WORDS}\s+(?:\d+|[IVXLC]+|[A-Z]|{_COUNTS})"
    r"|第\s?(?:\d+|[零一二三四五六七八九十百]+)\s?(?:章|节|節|部分|部|篇|編|卷)"
    r"|제\s?(?:\d+|[IVXLC]+)\s?[장편부절])$", re.I
)  # fmt: skip
_COUNTED = regex(rf"^(?:{_PART_WORDS}\s+)?(?:{_ONES})(?:[ -](?:{_ONES}))?$", re.I)


class Style(NamedTuple):
    """How a line is set; headings of one level share it."""

    size: float
    is_bold: bool
    is_italic: bool
    is_capital: bool
    face: str = ""
    """Its family: labels in the text's own face are none of the headings in another."""

    @property
    def without_face(self) -> Style:
        """What a level goes by: a title may begin with a word in another face."""
        return self._replace(face="")


@dataclass(frozen=True, slots=True)
class Candidate:
    """A paragraph, or a few joined, that may be a heading."""

    title: str
    style: Style
    paragraph: int
    """Row of its first paragraph."""
    page: int
    y: float
    last: int
    """Row of its last paragraph, where several were joined."""
    last_y: float
    """Top of that."""
    is_centred: bool = False


def style_of(paragraph: Paragraph) -> Style:
    """The style of a paragraph's first line."""
    line = paragraph.pieces[0].line
    capital = line.is_caps or line.text.isupper()
    capital = capital and sum(map(str.isupper, line.text)) > 3
    return Style(round(line.size * 2) / 2, line.is_bold, line.is_italic, capital, line.face)


def title_in(paragraph: Paragraph) -> str:
    """A paragraph's text as a title, without the marks of footnotes.

    Of a function's name under a number, and its declaration in the same line, the name.
    """
    title = unspaced(tidy(paragraph.unmarked.replace("\t", " ")))
    named = _DECLARED.match(title)
    return named[1] if named else title


def unspaced(title: str) -> str:
    """Letters set apart for show ("C O N T E N T S") as a word."""
    tokens = title.split()
    n_single = sum(len(token) == 1 and token.isalpha() for token in tokens)
    return "".join(tokens) if len(tokens) >= 5 and n_single >= 0.8 * len(tokens) else title


_DAY_ALONE = regex(
    r"^\W*(?:[^\W\d_]{3,10}\.?\s+\d{1,2}(?:st|nd|rd|th)?|\d{1,2}(?:\.|st|nd|rd|th)?\s+(?:de\s+)?[^\W\d_]{3,10}\.?),?\s+(?:de\s+)?"
    r"(?:19|20)\d\d\W*$"
)
"""A day, its month and its year: "January 3, 2023", "3. Januar 2023"."""


_HELD = regex(r"\W*(?:copyright\s*(?:©|\(c\)|\d{4})|©\s*(?:copyright\s*)?\d{4})", re.I)
"""Says who holds the rights: "Copyright © 2008 Ann Bale"."""


_COUNTED_SO = regex(r"\[\d{1,4}\]\s")
"""Begins what a program has put out, "[1] TRUE", and works."""


def find_candidates(
    paragraphs: Sequence[Paragraph], body_size: float, face: str, passed_over: frozenset[int]
) -> list[Candidate]:
    """Everything that could be a heading: short, not a sentence, and set off or numbered.

    Args:
        paragraphs: All, in reading order.
        body_size: The usual font size, in points.
        face: The family that most of the text is set in: see body_face.
        passed_over: Rows that are none, such as the entries of a contents page.
    """
    found = []
    for row, paragraph in enumerate(paragraphs):
        if row in passed_over or not _could_be(paragraph, body_size, face):
            continue
        if _is_counted_row(paragraphs, row):
            continue
        found.append(candidate_at(paragraphs, row))
    days = [each for each in found if _DAY_ALONE.match(each.title)]
    if len(days) == 1 and days[0].page == 0 and found[0] is not days[0]:
        found.remove(days[0])  # of issue, as it has none like it and stands under a title
    return _joined(found, paragraphs)


def candidate_at(paragraphs: Sequence[Paragraph], row: int) -> Candidate:
    """A paragraph as a candidate."""
    paragraph = paragraphs[row]
    line, style = paragraph.pieces[0].line, style_of(paragraph)
    y = line.box[1]
    return Candidate(title_in(paragraph), style, row, line.page, y, row, y)


def body_face(paragraphs: Sequence[Paragraph]) -> str:
    """The family that most of the text is set in."""
    counts: Counter[str] = Counter()
    for paragraph in paragraphs:
        counts[paragraph.pieces[0].line.face] += len(paragraph.text)
    return counts.most_common(1)[0][0] if counts else ""


def _could_be(paragraph: Paragraph, body_size: float, face: str) -> bool:
    text = paragraph.text.strip()
    if not 2 <= len(text) <= 300 or len(paragraph.pieces) > 4:
        return False
    if paragraph.kind == "caption" or (paragraph.kind == "note" and not text[:1].isdigit()):
        return False
    line = paragraph.pieces[0].line
    if paragraph.kind == "side" and line.box[2] - line.box[0] < SIDEWAYS * line.size:
        return False  # runs up beside a chart
    larger = line.size >= 1.04 * body_size
    start = text[:2]
    numbered = start[:1].isdigit() or start[:1] == "§" or start[1:2] in (".", " ", ")")
    set_off = line.is_bold or line.is_italic or line.is_caps or line.face != face
    if not (larger or set_off or numbered or text.isupper()):
        return False
    if _is_date_of_issue(paragraph) or _HELD.match(text) or _COUNTED_SO.match(text):
        return False
    if line.size < 0.75 * body_size:
        return False
    plain = text.replace("\t", " ")
    number = number_of(plain)
    if line.is_fixed and not (larger or line.is_bold):
        is_deep = number is not None and number.depth > 1
        if not start[:1].isdigit() or not (is_deep or line.face == face):
            return False
    if is_label(plain) or _BARE_NUMBER.match(plain):
        return True
    stands_out = line.is_bold and line.size >= LARGER * body_size
    rest = number.rest if number else plain
    most = MAX_WORDS if line.size < MUCH_LARGER * body_size else MAX_WORDS_ASKED
    return _reads_as_title(plain, rest, most if rest[-1:] == "?" else MAX_WORDS,
                           stands_out=stands_out)  # fmt: skip


def _is_date_of_issue(paragraph: Paragraph) -> bool:
    """Whether it is a day alone on the first page, and not set as a heading of its own would be."""
    is_day = _DAY_ALONE.match(paragraph.text) is not None
    return is_day and paragraph.page == 0 and not paragraph.pieces[0].line.is_bold


def _is_counted_row(paragraphs: Sequence[Paragraph], row: int) -> bool:
    """Whether a plain line counts lines that stand close: of output, of a program, of a list."""
    paragraph = paragraphs[row]
    line, value = paragraph.pieces[0].line, _count_of(paragraph)
    if value is None or line.is_bold:
        return False
    for beside, sign in ((row - 1, -1), (row + 1, 1)):
        if not 0 <= beside < len(paragraphs) or paragraphs[beside].page != paragraph.page:
            continue
        other = _count_of(paragraphs[beside])
        away = sign * (paragraphs[beside].pieces[0].line.box[1] - line.box[1])
        n_lines = len(paragraphs[min(row, beside)].pieces)
        is_near = 0 < away < CLOSE_LINES * line.size * n_lines
        if other is not None and is_near and 0 < sign * (other - value) < COUNT_APART + n_lines:
            return True
    return False


def _count_of(paragraph: Paragraph) -> int | None:
    """The whole number that a paragraph begins with."""
    match = _COUNT.match(paragraph.text)
    return int(match[1]) if match else None


def is_code(title: str) -> bool:
    """Whether a title reads as a command or a formula; a name under a number is none."""
    number = number_of(title)
    if number is not None and number.depth > 1 and _NAME.fullmatch(number.rest):
        return False
    return bool(CODE.search(title))


def is_label(text: str) -> bool:
    """Whether a text only names a part: "Chapter 3", "Part II", "Seven"."""
    if first_word(text) not in _LABELS and text[:1] not in ("第", "제"):
        return False
    return bool(BARE_LABEL.match(text) or _COUNTED.match(text))


def _reads_as_title(text: str, rest: str, most: int, *, stands_out: bool) -> bool:
    """Whether a text has the length and the letters of a title.

    A version or a date may be one where it stands out: "[2015/06/01 v0.1]".
    """
    words = rest.split()
    if not words or word_count(rest) > most or _LEADERS.search(text):
        return False
    if _are_signs(text.split()) or _GAP_WITHIN.search(text):
        return False
    n_letters = len(_LETTERS.findall(rest))
    if stands_out and len(words) <= FEW_WORDS and _VERSION.search(rest):
        return text[-1] not in ",;"
    if n_letters < 2 or n_letters < 0.2 * len(rest.replace(" ", "")):
        return False
    return text[-1] not in ",;"


_GAP_WITHIN = regex(r"\w([-–=*#~])\1{2,}\w")
"""Within a word: data of an example, "AACC---T"."""


def _are_signs(words: Sequence[str]) -> bool:
    """Whether it is a few letters again and again, as notes of music in a font of signs are.

    A word whose letters are set apart has many of them.
    """
    letters = "".join(words)
    n_single = sum(sum(map(str.isalnum, word)) <= 1 for word in words)  # "C'" is one, too
    return n_single > 0.6 * len(words) >= 0.6 * SINGLE and len(set(letters)) < FEW * len(letters)


def _joined(candidates: list[Candidate], paragraphs: Sequence[Paragraph]) -> list[Candidate]:
    """Join "Chapter 3" or a bare "3" to its title, and the lines of a title to one.

    Args:
        candidates: In reading order.
        paragraphs: All of the document.
    """
    joined: list[Candidate] = []
    for candidate in candidates:
        aside = joined and _is_page_number(joined[-1], candidate, paragraphs)
        title = "" if aside or not joined else _joined_title(joined[-1], candidate)
        title = title or (_around_number(joined[-1], candidate, paragraphs) if joined else "")
        if title:
            first = joined[-1]
            joined[-1] = replace(
                first, title=title, style=candidate.style, last=candidate.paragraph,
                last_y=candidate.y,
            )  # fmt: skip
        else:
            joined.append(candidate)
    return [c for c in joined if not _BARE_NUMBER.match(c.title) and not _COUNTED.match(c.title)]


def _around_number(first: Candidate, second: Candidate, paragraphs: Sequence[Paragraph]) -> str:
    """Two lines of a title whose number stands beside the second, "" where they are none."""
    above = paragraphs[first.last].pieces[-1].line
    line = paragraphs[second.paragraph].pieces[0].line
    label, tab, rest = paragraphs[second.paragraph].text.partition("\t")
    is_beside = bool(tab) and bool(_BARE_NUMBER.match(label.strip())) and len(line.cells) == 2
    if not is_beside or number_of(first.title) or second.paragraph != first.last + 1:
        return ""
    is_alike = first.style.without_face == second.style.without_face and first.page == second.page
    is_near = line.box[3] - above.box[3] > 0 and second.y - above.box[1] < 1.7 * second.style.size
    edges = zip((above.box[0], above.box[2]), line.cells[1], strict=True)
    is_level = any(abs(one - other) <= LEVEL for one, other in edges)
    if not (is_alike and is_near and is_level and line.cells[0][1] < above.box[0]):
        return ""
    return f"{label.strip()} {first.title} {tidy(rest)}"


def _is_page_number(first: Candidate, second: Candidate, paragraphs: Sequence[Paragraph]) -> bool:
    """Whether a bare number is that of the page: small, and beyond where the title ends."""
    if not _BARE_NUMBER.match(first.title) or first.style.size >= second.style.size:
        return False
    box, title = (paragraphs[c.paragraph].pieces[0].line.box for c in (first, second))
    return box[3] < title[1] and box[0] > title[2]


def _joined_title(first: Candidate, second: Candidate) -> str:
    """The two as one title, "" where they are two headings."""
    if second.page != first.page or second.paragraph != first.last + 1:
        return ""
    counted = _COUNTED.match(first.title)
    bare = counted or BARE_LABEL.match(first.title) or _BARE_NUMBER.match(first.title)
    if BARE_LABEL.match(second.title):
        return ""
    style = second.style
    set_alike = style.size >= 0.75 * first.style.size or style.is_bold or style.is_capital
    if bare and set_alike and first.style.size >= LABEL_LEAST * style.size:
        return second.title if counted else f"{first.title} {second.title}"
    close = 0 <= second.y - first.last_y < 1.7 * second.style.size
    if style.without_face == first.style.without_face and close and number_of(second.title) is None:
        return f"{first.title} {second.title}"
    return ""
