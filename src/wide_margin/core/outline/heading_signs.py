"""What speaks for a paragraph being a heading: signs of its own, of its style, of the document."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.layout import STOPS, word_count
from wide_margin.core.lexicon import bare, first_word, first_words, squashed
from wide_margin.core.outline.candidates import CODE
from wide_margin.core.outline.numbering import number_before, number_of
from wide_margin.core.outline.prominence import strong_styles
from wide_margin.core.outline.titles import forms_of

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box, FloatArray
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline.candidates import Candidate, Style
    from wide_margin.core.outline.numbering import Number
    from wide_margin.core.outline.prominence import Look

OWN = (
    "size", "bold", "italic", "capital", "fixed", "column text bold", "words", "lines", "letters",
    "code", "ends in stop", "ends in colon", "ends in question", "starts well", "numbered", "depth",
    "counts on", "named part", "front word", "gap above", "gap below", "top of page", "width",
    "indent", "centred", "text after", "candidate before", "candidate after", "item", "row",
    "before text", "how far", "in contents", "has gap", "lead", "other face", "small capitals",
    "note", "running place", "stands out",
)  # fmt: skip
OF_STYLE = (
    "style count", "style purity", "style per page", "style numbered", "style counting on",
    "style repeated", "style words", "style text after", "style stops",
    "style larger ones", "style gap above", "style first page", "style strong",
)  # fmt: skip
OF_DOCUMENT = ("pages", "candidates per page", "body bold")
SIGNS = OWN + OF_STYLE + OF_DOCUMENT
"""The names of the columns."""
MUCH_TEXT = 90
"""Characters from which a paragraph is running text."""
_PARTS = first_words("chapter", "part", "section", "appendix", "book", "article")
_FRONT = squashed(
    "abstract", "summary", "preface", "introduction", "contents", "acknowledgements", "references",
    "index", "glossary", "conclusion", "list_of",
)  # fmt: skip
FAR = 8.0
"""Lines of white space; more of it says no more."""


class _Page(NamedTuple):
    """Where the text of a page stands."""

    left: float
    right: float
    height: float
    """Of the lowest line."""


def signs_of(
    candidates: Sequence[Candidate],
    paragraphs: Sequence[Paragraph],
    body_size: float,
    face: str,
    look: Look,
    contents: frozenset[str],
    n_pages: int,
) -> FloatArray:
    """(n, SIGNS) what speaks for and against each candidate.

    Args:
        candidates: In reading order.
        paragraphs: All of the document.
        body_size: The usual font size, in points.
        face: The family that most of the text is set in.
        look: From look_of, for these candidates.
        contents: Squashed titles of the contents page's entries, with and without numbers.
        n_pages: Of the document.
    """
    if not candidates:
        return np.zeros((0, len(SIGNS)), np.float32)
    pages = _pages(paragraphs)
    rows = {c.paragraph for c in candidates}
    seen: set[str] = set()
    own = []
    for candidate, stands_out in zip(candidates, look.out, strict=True):
        number = number_of(candidate.title)
        counts = number is not None and counts_on(number, seen)
        if number is not None and (counts or number.depth == 1):
            seen.add(number.identifier)
        own.append(
            _own(candidate, paragraphs, body_size, face, pages[candidate.page], number, rows,
                 counts=counts, is_before_text=candidate.paragraph < look.first_row,
                 how_far=candidate.page / max(n_pages - 1, 1),
                 in_contents=_in_contents(candidate.title, contents), stands_out=stands_out)
        )  # fmt: skip
    table = np.array(own, np.float32)
    strong = strong_styles(candidates, look.out, look.use, body_size, len(paragraphs))
    of_style = _of_styles(candidates, table, look.use, strong, n_pages)
    of_document = np.tile(
        np.array([
            min(n_pages, 500),
            min(len(candidates) / max(n_pages, 1), 20.0), look.is_bold,
        ], np.float32), (len(candidates), 1),
    )  # fmt: skip
    return np.concatenate([table, of_style, of_document], axis=1)


def _in_contents(title: str, contents: frozenset[str]) -> float:
    """Whether a contents page names it; between both where there is none to ask."""
    return float(bool(forms_of(title) & contents)) if contents else 0.5


def counts_on(number: Number, seen: set[str]) -> bool:
    """Whether a number goes on from those before it: "2.3" from "2.2", "2.1" from "2"."""
    parent, _, last = number.identifier.rpartition(".")
    if not parent:
        before = number_before(number)
        return not before or before in seen
    if not last.isdigit() or number.identifier in seen:
        return False
    return f"{parent}.{int(last) - 1}" in seen or (last in ("0", "1") and parent in seen)


def _own(
    candidate: Candidate,
    paragraphs: Sequence[Paragraph],
    body_size: float,
    face: str,
    page: _Page,
    number: Number | None,
    rows: set[int],
    *,
    counts: bool,
    is_before_text: bool,
    how_far: float,
    in_contents: float,
    stands_out: bool,
) -> list[float]:
    """The signs named in OWN."""
    paragraph = paragraphs[candidate.paragraph]
    line, title = paragraph.pieces[0].line, candidate.title
    before = neighbour(paragraphs, candidate.paragraph - 1, candidate)
    after = neighbour(paragraphs, candidate.last + 1, candidate)
    bottom = paragraphs[candidate.last].pieces[-1].line.box[3]
    unit = max(line.size, 1.0)
    above = (candidate.y - before.pieces[-1].line.box[3]) / unit if before else FAR
    below = (after.pieces[0].line.box[1] - bottom) / unit if after else FAR
    width = max(page.right - page.left, 1.0)
    left, right = line.box[0] - page.left, page.right - line.box[2]
    rest = number.rest if number else title
    n_letters = sum(map(str.isalpha, rest))
    is_text_after = after is not None and len(after.text) > MUCH_TEXT
    return [
        candidate.style.size / body_size, candidate.style.is_bold, candidate.style.is_italic,
        candidate.style.is_capital, line.is_fixed,
        bool(after and after.pieces[0].line.is_bold), word_count(title),
        sum(len(p.pieces) for p in paragraphs[candidate.paragraph : candidate.last + 1]),
        n_letters / max(len(rest.replace(" ", "")), 1), bool(CODE.search(title)),
        title.endswith(tuple(STOPS)), title.endswith((":", "：")),
        title.endswith(("?", "!", "？", "！")),
        title[:1].isupper() or title[:1].isdigit() or title[:1] in '§“"(¿¡«',
        number is not None, number.depth if number else 0, counts,
        first_word(title) in _PARTS, len(rest) < 40 and bare(rest) in _FRONT,
        min(max(above, -FAR), FAR), min(max(below, -FAR), FAR), before is None,
        (line.box[2] - line.box[0]) / width, left / width,
        abs(left - right) < 0.06 * width and left > 0.08 * width, is_text_after,
        candidate.paragraph - 1 in rows, candidate.last + 1 in rows, paragraph.kind == "item",
        paragraph.kind in ("row", "entry"), is_before_text, how_far, in_contents,
        "\t" in paragraph.text, line.lead > 0, line.face != face, line.is_caps,
        paragraph.kind == "note", line.box[1] / page.height, stands_out,
    ]  # fmt: skip


def _of_styles(
    candidates: Sequence[Candidate],
    table: FloatArray,
    use: Mapping[Style, int],
    strong: frozenset[Style],
    n_pages: int,
) -> FloatArray:
    """(n, OF_STYLE) what the candidates of one style have in common."""
    members: dict[Style, list[int]] = defaultdict(list)
    for k, candidate in enumerate(candidates):
        members[candidate.style].append(k)
    larger = _larger_ones(members)
    found = np.zeros((len(candidates), len(OF_STYLE)), np.float32)
    column = {name: table[:, k] for k, name in enumerate(OWN)}
    for style, inside in members.items():
        titles = Counter(candidates[k].title.casefold() for k in inside)
        commonest = titles.most_common(1)[0][1]
        n = len(inside)
        found[inside] = [
            min(n, 400), n / max(use.get(style, 0), n), n / max(n_pages, 1),
            column["numbered"][inside].mean(), column["counts on"][inside].mean(),
            (commonest - 1) / n,
            column["words"][inside].mean(), column["text after"][inside].mean(),
            (column["ends in stop"][inside] + column["ends in colon"][inside]).mean(),
            larger[style], column["gap above"][inside].mean(), candidates[inside[0]].page < 1,
            style in strong,
        ]  # fmt: skip
    return found


def _larger_ones(members: dict[Style, list[int]]) -> dict[Style, int]:
    """How many styles that are used more than once are more prominent than each."""
    used = [style for style, inside in members.items() if len(inside) > 1]
    return {
        style: sum((other.size, other.is_bold) > (style.size, style.is_bold) for other in used)
        for style in members
    }


def _pages(paragraphs: Sequence[Paragraph]) -> dict[int, _Page]:
    """Where the text of every page stands."""
    edges: dict[int, list[Box]] = defaultdict(list)
    for paragraph in paragraphs:
        edges[paragraph.page].append(paragraph.pieces[0].line.box)
    return {
        page: _Page(min(b[0] for b in boxes), max(b[2] for b in boxes),
                    max(max(b[3] for b in boxes), 1.0))
        for page, boxes in edges.items()
    }  # fmt: skip


def neighbour(paragraphs: Sequence[Paragraph], row: int, candidate: Candidate) -> Paragraph | None:
    """The paragraph in a row, where it stands in the same column of the same page."""
    if not 0 <= row < len(paragraphs) or paragraphs[row].page != candidate.page:
        return None
    here = paragraphs[candidate.paragraph].pieces[0].line
    there = paragraphs[row].pieces[0].line
    return paragraphs[row] if there.column == here.column else None
