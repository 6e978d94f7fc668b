"""Headings on the pages: found by many signs weighed together, levels by number and type."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.geometry import Box, around
from wide_margin.core.layout import tidy, word_count
from wide_margin.core.outline.agendas import agenda_items
from wide_margin.core.outline.candidates import (
    BULLET,
    CODE,
    LARGER,
    MUCH_LARGER,
    Candidate,
    Style,
    body_face,
    candidate_at,
    find_candidates,
    style_of,
    title_in,
)
from wide_margin.core.outline.chains import completed, unlinked
from wide_margin.core.outline.dividers import divider_pages, under_dividers
from wide_margin.core.outline.heading_signs import SIGNS, signs_of
from wide_margin.core.outline.jumps import without_jumps
from wide_margin.core.outline.listed_ahead import NOTHING_AHEAD, listed_ahead
from wide_margin.core.outline.numbered_text import titled_paragraphs
from wide_margin.core.outline.numbering import goes_on, number_before, number_of
from wide_margin.core.outline.outdented import outdented
from wide_margin.core.outline.page_titles import page_titles
from wide_margin.core.outline.prominence import is_same_family, look_of, usual_headings
from wide_margin.core.outline.set_alike import set_alike
from wide_margin.core.outline.small_numbers import counted_small
from wide_margin.core.outline.titles import forms_of
from wide_margin.core.outline.trees import trees_named
from wide_margin.core.outline.type_levels import levels_of

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline.prominence import Look

SURE = 1.0
"""Log odds from which a candidate is a heading, whatever it looks like."""
LEAST = -2.0
"""Those that one of the usual look must have; both chosen on families of documents left out."""
LEAST_CAPITAL = -4.0
"""The same for one in capitals: hardly a document that the trees were grown on has headings in
capitals of the text's size, so they know little of them."""
LEAST_ASKED = -4.0
"""The same for a question that is much larger than the text: hardly a title on the pages that the
trees were grown on is one."""
SMALL = 0.95
"""Of the text's size: what is set smaller."""
FEWEST_UNLISTED, UNLISTED_LARGE, UNLISTED_BOLD = 3, 1.4, 1.2
"""Headings of a style that stand below what the contents page lists, and times the text's size,
from which they are kept: of all, and of bold ones that have numbers where the listed ones have."""
BY_CHANCE = 0.1
"""Share of them that may be called as a listed section is."""
IN_FROM_EDGE, OFF_CENTRE = 0.015, 0.06
"""Shares of a column's width: a centred line begins so far in, and is so little out of the middle."""
FEWEST_LIKE, LIKE, NEARLY = 8, 0.6, 0.5
"""Headings of a style, and their share of what looks like one, from which others of it are as well
that have so much less of the log odds."""
HALF, LEAST_COUNTED = 0.5, -1.0
"""The same for those whose numbers count on, and the log odds they must have."""
LEAST_LED_IN, FEWEST_LED_IN = -3.0, 3
"""Log odds of bold lines that end in a colon, and their number, where no other heading is."""
AS_TITLE_MATTER = 3.0
"""Log odds that it takes from a candidate to stand among title, authors and imprint."""
TREES = "heading-trees.json"
"""Grown by bench/fit_headings.py."""


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
    is_sure: bool = False
    """Whether it is one even where a list of all sections leaves it out."""


def find_headings(
    paragraphs: Sequence[Paragraph],
    body_size: float,
    listings: frozenset[int],
    listed: frozenset[int] = frozenset(),
    contents: frozenset[str] = frozenset(),
) -> list[Heading]:
    """Find the headings of a document and their levels.

    Whatever is short and set off may be one; how it is set, numbered and placed, what stands
    around it, and what others of its style are like tell together whether it is.

    Args:
        paragraphs: All, in reading order.
        body_size: The usual font size, in points.
        listings: Page indexes of contents pages and indexes.
        listed: Rows of paragraphs that are entries of a contents page.
        contents: Squashed titles of those entries, with and without their numbers.
    """
    ahead = NOTHING_AHEAD if contents else listed_ahead(paragraphs)
    passed_over = listed | ahead.listed | _on_listings(paragraphs, listings, body_size)
    face = body_face(paragraphs)
    candidates = find_candidates(paragraphs, body_size, face, passed_over)
    n_pages = paragraphs[-1].page + 1 if paragraphs else 0
    look = look_of(candidates, paragraphs, body_size)
    signs = signs_of(candidates, paragraphs, body_size, face, look, contents, n_pages)
    odds = trees_named(TREES).log_odds(signs)
    matter = np.array([c.paragraph in look.matter for c in candidates], dtype=bool)
    odds = odds - AS_TITLE_MATTER * (matter & ~_recur(candidates, odds, matter))
    usual = np.array(usual_headings(candidates, look, body_size, len(paragraphs), face), bool)
    least = _least_odds(signs)
    stands = (odds > SURE) | (usual & (odds > least))
    stands |= _near_their_like(candidates, odds, usual, least, stands)
    stands |= _by_number(candidates, odds, signs, stands)
    stands |= ~matter & _alike(candidates, paragraphs, look, body_size, face, stands)
    stands, odds = _without_text(candidates, signs, stands, odds)
    stands &= ~np.array([bool(BULLET.match(c.title)) for c in candidates], dtype=bool)
    small = counted_small(candidates) if not look.is_bold else frozenset()
    named = small | ahead.rows
    stands |= np.array([c.paragraph in named for c in candidates], dtype=bool)
    stands = _else_led_in(candidates, stands, odds, matter, is_bold=look.is_bold)
    titles = page_titles(paragraphs)
    stands = _of_slides(candidates, paragraphs, titles, stands)
    out = outdented(paragraphs, body_size) if not look.is_bold else {}
    stands &= _beside_outdented(out, paragraphs, candidates)
    stands &= ~_in_boxes(candidates, paragraphs, body_size)
    kept = completed(candidates, np.flatnonzero(stands).tolist(), odds)
    sure = _sure(candidates, kept, odds, signs[:, SIGNS.index("in contents")] == 1, body_size, face)
    sure |= {row for row, is_new in titles.items() if is_new} | named | set(out)
    candidates = _without_labels(_placed([candidates[k] for k in kept], paragraphs), small)
    if not out:  # beside those, terms in bold begin what is said of them
        candidates = _with_run_ins(candidates, paragraphs, listings)
    candidates = _with_titles(_without_strays(candidates), paragraphs, titles, out)
    levels = _below_larger(candidates, _level_titles(candidates, titles, paragraphs), out)
    candidates, levels = _with_agenda(candidates, levels, paragraphs)
    return [
        Heading(c.title, level, c.page, c.y, c.paragraph, _box_of(c, paragraphs), c.style,
                c.paragraph in sure)
        for c, level in zip(candidates, levels, strict=True)
    ]  # fmt: skip


def _on_listings(
    paragraphs: Sequence[Paragraph], listings: frozenset[int], body_size: float
) -> frozenset[int]:
    """Rows of what stands on contents pages and is not much larger than the text."""
    return frozenset(
        row for row, p in enumerate(paragraphs)
        if p.page in listings and p.pieces[0].line.size < 1.25 * body_size
    )  # fmt: skip


def _least_odds(signs: FloatArray) -> FloatArray:
    """(n,) the log odds from which each is a heading that looks as headings usually do."""
    capital = signs[:, SIGNS.index("capital")] > 0
    asked = (signs[:, SIGNS.index("ends in question")] > 0) & (
        signs[:, SIGNS.index("size")] >= MUCH_LARGER
    )
    return np.select([capital, asked], [LEAST_CAPITAL, LEAST_ASKED], LEAST)


def _of_slides(
    candidates: Sequence[Candidate],
    paragraphs: Sequence[Paragraph],
    titles: Mapping[int, bool],
    stands: BoolArray,
) -> BoolArray:
    """(n,) the headings; on a slide its title alone, and that where it is a new one."""
    titled = {paragraphs[row].page for row in titles}
    on_slide = np.array([c.page in titled for c in candidates], dtype=bool)
    begins = np.array([titles.get(c.paragraph, False) for c in candidates], dtype=bool)
    return np.where(on_slide, begins, stands)


def _recur(candidates: Sequence[Candidate], odds: FloatArray, matter: BoolArray) -> BoolArray:
    """(n,) what is set like headings that stand past the title again and again.

    The first of all is the title, however it is set; under it a list of releases begins at once.
    """
    later = Counter(candidates[k].style for k in np.flatnonzero(~matter & (odds > SURE)).tolist())
    return np.array(
        [k > 0 and later[c.style] >= FEWEST_LIKE for k, c in enumerate(candidates)], dtype=bool
    )


def _alike(
    candidates: Sequence[Candidate],
    paragraphs: Sequence[Paragraph],
    look: Look,
    body_size: float,
    face: str,
    stands: BoolArray,
) -> BoolArray:
    """(n,) which are headings past the title for how all of their style are set.

    Only beside other headings: in a text that has none such lines are a hand's notes, or a form's.
    """
    if not stands.any():
        return np.zeros(len(candidates), dtype=bool)
    past_title = np.array([c.paragraph >= look.first_row - 1 for c in candidates], dtype=bool)
    found: BoolArray = set_alike(candidates, paragraphs, look.use, body_size, face) & past_title
    return found


def _near_their_like(
    candidates: Sequence[Candidate],
    odds: FloatArray,
    usual: BoolArray,
    least: FloatArray,
    stands: BoolArray,
) -> BoolArray:
    """(n,) what looks like a heading and is nearly as sure as others of its style that are some."""
    members: dict[Style, list[int]] = defaultdict(list)
    for k in np.flatnonzero(usual).tolist():
        members[candidates[k].style].append(k)
    near = np.zeros(len(candidates), dtype=bool)
    for rows in members.values():
        if stands[rows].sum() >= FEWEST_LIKE and stands[rows].mean() >= LIKE:
            near[rows] = odds[rows] > least[rows] - NEARLY
    return near


def _by_number(
    candidates: Sequence[Candidate], odds: FloatArray, signs: FloatArray, stands: BoolArray
) -> BoolArray:
    """(n,) which are headings by their numbers: these count on, or stand in the contents."""
    counting = _counting_on(candidates, odds, signs, stands)
    return counting | _listed_once(candidates, signs, stands)


def _listed_once(
    candidates: Sequence[Candidate], signs: FloatArray, stands: BoolArray
) -> BoolArray:
    """(n,) which a contents page names with their number, and which are found once: "2. Ropes".

    They are headings, whatever pages it gives, where most of those are set so that they look like
    none.
    """
    said = Counter(c.title.casefold() for c in candidates)
    rows = [
        k for k in np.flatnonzero(signs[:, SIGNS.index("in contents")] == 1).tolist()
        if said[candidates[k].title.casefold()] == 1 and number_of(candidates[k].title) is not None
    ]  # fmt: skip
    found = np.zeros(len(candidates), dtype=bool)
    found[rows] = bool(rows) and stands[rows].mean() < HALF
    return found


def _counting_on(
    candidates: Sequence[Candidate], odds: FloatArray, signs: FloatArray, stands: BoolArray
) -> BoolArray:
    """(n,) bold ones that count on as "2.4" does, where half of their style stand by themselves."""
    members: dict[Style, list[int]] = defaultdict(list)
    for k, candidate in enumerate(candidates):
        if candidate.style.is_bold:
            members[candidate.style].append(k)
    counts = (signs[:, SIGNS.index("counts on")] > 0) & (signs[:, SIGNS.index("depth")] > 1)
    found = np.zeros(len(candidates), dtype=bool)
    for rows in members.values():
        if stands[rows].sum() >= FEWEST_LIKE and stands[rows].mean() >= HALF:
            found[rows] = counts[rows] & (odds[rows] > LEAST_COUNTED)
    return found


def _else_led_in(
    candidates: Sequence[Candidate],
    stands: BoolArray,
    odds: FloatArray,
    matter: BoolArray,
    *,
    is_bold: bool,
) -> BoolArray:
    """(n,) the headings; for want of any, bold lines that end in a colon: "Care of the rope:".

    What stands among title and authors is no section of a text that has no other, nor is one line
    alone over all of these.

    Args:
        candidates: All.
        stands: (n,) whether each is a heading.
        odds: (n,) log odds of each.
        matter: (n,) whether each stands among title, authors and imprint.
        is_bold: Whether the text itself is.
    """
    others = np.flatnonzero(stands & ~matter)
    if len(others) > 1 or (len(others) == 1 and candidates[others[0]].page > 0):
        return stands
    ends = np.array([
        c.style.is_bold and c.title.endswith((":", "：")) and len(c.title.split()) > 1
        for c in candidates
    ], dtype=bool)  # fmt: skip
    ends &= ~matter & (odds > LEAST_LED_IN) & (not is_bold)
    rows = np.flatnonzero(ends)
    different = {candidates[k].title for k in rows.tolist()}
    is_told = len(different) >= FEWEST_LED_IN and (not len(others) or others[0] < rows[0])
    otherwise = stands if len(others) else np.zeros(len(candidates), dtype=bool)
    return ends if is_told else otherwise


def _below_larger(
    candidates: Sequence[Candidate], levels: Sequence[int], out: Mapping[int, int]
) -> list[int]:
    """Levels in which headings that stand out to the left lie as they do, under what is larger."""
    largest = max((c.style.size for c in candidates if c.paragraph in out), default=0.0)
    above = [
        level for c, level in zip(candidates, levels, strict=True) if c.style.size > LARGER * largest
    ]  # fmt: skip
    outermost = max(above) + 1 if above else 0
    return [
        outermost + out[c.paragraph] if c.paragraph in out else level
        for c, level in zip(candidates, levels, strict=True)
    ]


def _in_boxes(
    candidates: Sequence[Candidate], paragraphs: Sequence[Paragraph], body_size: float
) -> BoolArray:
    """(n,) which begin a box beside the text: set smaller than it, and so is what follows.

    Those with numbers are sections of a part in small type.
    """
    small = SMALL * body_size
    return np.array([
        c.style.size < small and number_of(c.title) is None
        and c.last + 1 < len(paragraphs) and paragraphs[c.last + 1].page == c.page
        and paragraphs[c.last + 1].pieces[0].line.size < small
        for c in candidates
    ], dtype=bool)  # fmt: skip


def _beside_outdented(
    out: Collection[int], paragraphs: Sequence[Paragraph], candidates: Sequence[Candidate]
) -> BoolArray:
    """(n,) which candidates may be headings where others stand out to the left.

    Those do, what is larger, and several words in bold capitals: one is a term like another.
    """
    largest = max((paragraphs[row].pieces[0].line.size for row in out), default=0.0)
    return np.array([
        c.paragraph in out or c.style.size > LARGER * largest
        or (c.style.is_bold and c.style.is_capital and word_count(c.title) > 1 and "," not in c.title)
        for c in candidates
    ], dtype=bool)  # fmt: skip


def _with_titles(
    candidates: list[Candidate],
    paragraphs: Sequence[Paragraph],
    titles: Mapping[int, bool],
    out: Collection[int],
) -> list[Candidate]:
    """Headings, with those of slides, of a numbered text and out to the left that look like none.

    They come in order.
    """
    taken = {c.paragraph for c in candidates}
    more = [candidate_at(paragraphs, row) for row, is_new in titles.items() if is_new]
    more += titled_paragraphs(paragraphs)
    more += [candidate_at(paragraphs, row) for row in out]
    added = [c for c in more if c.paragraph not in taken]
    return sorted([*candidates, *added], key=lambda c: c.paragraph)


def _with_agenda(
    candidates: list[Candidate], levels: list[int], paragraphs: Sequence[Paragraph]
) -> tuple[list[Candidate], list[int]]:
    """Headings, and their levels, under the sections that the agenda of a talk begins."""
    items = agenda_items(paragraphs)
    if not items:
        return candidates, levels
    begun = [candidate_at(paragraphs, row) for row in items]
    pages = {candidate.page for candidate in begun}
    first = min(candidate.paragraph for candidate in begun)
    both = [(candidate, 0) for candidate in begun]
    both += [
        (c, level + (c.paragraph > first)) for c, level in zip(candidates, levels, strict=True)
        if c.page not in pages
    ]  # fmt: skip
    both.sort(key=lambda pair: pair[0].paragraph)
    return [candidate for candidate, _ in both], without_jumps([level for _, level in both])


def _level_titles(
    candidates: list[Candidate], titles: Mapping[int, bool], paragraphs: Sequence[Paragraph]
) -> list[int]:
    """Levels by number and type in which the titles of slides are all on one, however each is set.

    Where they have numbers these tell. They hang under the slides that begin a part.
    """
    levels = levels_of(candidates)
    if any(number_of(c.title) for c in candidates if c.paragraph in titles):
        return levels
    usual = Counter(
        level for c, level in zip(candidates, levels, strict=True) if c.paragraph in titles
    ).most_common(1)
    levels = [
        usual[0][0] if c.paragraph in titles else level
        for c, level in zip(candidates, levels, strict=True)
    ]
    begun = divider_pages(paragraphs, titles) if usual else frozenset()
    return under_dividers(candidates, levels, begun, usual[0][0]) if begun else levels


def _sure(
    candidates: Sequence[Candidate],
    kept: Sequence[int],
    odds: FloatArray,
    in_contents: BoolArray,
    body_size: float,
    face: str,
) -> set[int]:
    """Rows of the paragraphs that are headings even where a list of all sections has none of them.

    With most of a style all of it is; so is what is much larger than the text, or in the bold face
    of the listed headings that is none of the text's, again and again, where the contents page
    goes less deep.

    Args:
        candidates: All, n of them.
        kept: Rows of those that are headings.
        odds: (n,) log odds of each.
        in_contents: (n,) whether the contents page names each.
        body_size: The usual font size, in points.
        face: The family that most of the text is set in.
    """
    members: dict[Style, list[int]] = defaultdict(list)
    for k in kept:
        members[candidates[k].style].append(k)
    listed = [
        style for style, inside in members.items()
        if in_contents[inside].sum() > 1 and (odds[inside] > SURE).any()
    ]  # fmt: skip
    least = min(((style.size, style.is_bold) for style in listed), default=(0.0, False))
    faces = {style.face for style in listed}
    face_of_headings = faces.pop() if len(faces) == 1 else ""
    if is_same_family(face_of_headings, face):
        face_of_headings = ""
    counted = {style: _are_counted(candidates, inside) for style, inside in members.items()}
    are_counted = any(counted[style] for style in listed)
    found = set()
    for style, inside in members.items():
        sure = [k for k in inside if odds[k] > SURE]
        is_alike = style.is_bold and counted[style] == are_counted
        is_large = style.size >= (UNLISTED_BOLD if is_alike else UNLISTED_LARGE) * body_size
        is_deeper = (
            len(inside) >= FEWEST_UNLISTED
            and in_contents[inside].mean() <= BY_CHANCE
            and (style.size, style.is_bold) <= least
        )
        is_of_face = style.is_bold and style.face == face_of_headings != ""
        is_kind = is_large or is_of_face
        all_are = (is_kind and is_deeper) or 2 * len(sure) >= len(inside)
        found |= {candidates[k].paragraph for k in (inside if all_are else sure)}
    return found


def _are_counted(candidates: Sequence[Candidate], rows: Sequence[int]) -> bool:
    """Whether most of some headings have numbers."""
    return 2 * sum(number_of(candidates[k].title) is not None for k in rows) > len(rows)


def _placed(candidates: Sequence[Candidate], paragraphs: Sequence[Paragraph]) -> list[Candidate]:
    """Candidates with whether each stands in the middle of its column."""
    edges: dict[tuple[int, int], list[tuple[float, float]]] = defaultdict(list)
    pages = {candidate.page for candidate in candidates}
    for paragraph in paragraphs:
        if paragraph.page not in pages:
            continue
        for piece in paragraph.pieces[1:]:  # the first line may be set in
            line = piece.line
            edges[line.page, line.column].append((line.box[0], line.box[2]))
    placed = []
    for candidate in candidates:
        line = paragraphs[candidate.paragraph].pieces[0].line
        around_it = edges[line.page, line.column] or [(line.box[0], line.box[2])]
        left = line.box[0] - min(a for a, _ in around_it)
        right = max(b for _, b in around_it) - line.box[2]
        width = line.box[2] - line.box[0] + left + right
        is_centred = left > IN_FROM_EDGE * width and abs(left - right) < OFF_CENTRE * width
        placed.append(replace(candidate, is_centred=is_centred))
    return placed


def _without_text(
    candidates: Sequence[Candidate], signs: FloatArray, stands: BoolArray, odds: FloatArray
) -> tuple[BoolArray, FloatArray]:
    """(n,) the headings, and the odds of each, without what is no more than text.

    Set as the text is are rows of the list that a chapter begins with, "2.1. Knots" where "Knots"
    follows, set off; no number asks for them. So is what counts on from nothing.
    """
    as_text = _as_text(candidates, signs)
    set_off = {form for c, one in zip(candidates, stands & ~as_text, strict=True) if one
               for form in forms_of(c.title)}  # fmt: skip
    again = np.array([
        is_text and bool(forms_of(c.title) & set_off)
        for c, is_text in zip(candidates, as_text.tolist(), strict=True)
    ], dtype=bool)  # fmt: skip
    return stands & ~(again | (as_text & unlinked(candidates))), np.where(again, -np.inf, odds)


def _as_text(candidates: Sequence[Candidate], signs: FloatArray) -> BoolArray:
    """(n,) which are set as the text is."""
    other = (signs[:, SIGNS.index("other face")] > 0) | (signs[:, SIGNS.index("size")] >= LARGER)
    marked = [c.style.is_bold or c.style.is_italic or c.style.is_capital for c in candidates]
    plain: BoolArray = ~other & ~np.array(marked, dtype=bool)
    return plain


def heading_of(paragraph: Paragraph, row: int, title: str = "") -> Heading:
    """A paragraph that only another witness calls a heading, by the title that stands there."""
    line = paragraph.pieces[0].line
    title = title or title_in(paragraph)
    box = around([piece.line.box for piece in paragraph.pieces if piece.line.page == line.page])
    return Heading(title, -1, line.page, line.box[1], row, box, style_of(paragraph))


def _box_of(candidate: Candidate, paragraphs: Sequence[Paragraph]) -> Box:
    rows = paragraphs[candidate.paragraph : max(candidate.last, candidate.paragraph) + 1]
    return around(
        [piece.line.box for p in rows for piece in p.pieces if piece.line.page == candidate.page]
    )


def _with_run_ins(
    candidates: list[Candidate], paragraphs: Sequence[Paragraph], listings: frozenset[int]
) -> list[Candidate]:
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
        found = Candidate(title, style, row, line.page, line.box[1], row, line.box[1])
        number = number_of(title)
        if not 3 <= len(title) <= 80 or not title[0].isalnum() or CODE.search(title):
            continue
        if number is not None and number.depth > 1:
            if goes_on(number.identifier, seen):
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


def _without_labels(candidates: list[Candidate], counted: Collection[int]) -> list[Candidate]:
    """The candidates without the labels of a drawing, which are set as nothing else is.

    All of a style stand on one page, side by side, and none begins as a title does or is counted.
    """
    members: dict[Style, list[Candidate]] = defaultdict(list)
    for candidate in candidates:
        members[candidate.style].append(candidate)
    labels = {
        style for style, its in members.items()
        if len(its) > 1 and len({c.page for c in its}) == 1 and len(members) > 1
        and all(c.title[:1].islower() and number_of(c.title) is None for c in its)
        and not any(c.paragraph in counted for c in its)
    }  # fmt: skip
    return [c for c in candidates if c.style not in labels]


def _without_strays(candidates: list[Candidate]) -> list[Candidate]:
    """The candidates without those whose number another one of them has with better right.

    "2 Institute of Wells" under the authors is no section where a "2" follows "1" further on, or
    where another "2" is set as "1" is.
    """
    rooted = [
        (k, number)
        for k, candidate in enumerate(candidates)
        if (number := number_of(candidate.title)) and number.scheme == "decimal"
        and number.depth == 1
    ]  # fmt: skip
    styles = Counter(candidates[k].style.without_face for k, _ in rooted)
    held: dict[str, int] = {}
    early: dict[str, int] = {}
    strays = set()
    for k, number in rooted:
        before, identifier = number_before(number), number.identifier
        if not before:
            held.clear()  # a part counts anew
        elif before not in held:
            early.setdefault(identifier, k)
            continue
        if (first := held.get(identifier)) is not None:
            rarer, other = sorted(
                (first, k), key=lambda row: styles[candidates[row].style.without_face]
            )
            uses = [styles[candidates[row].style.without_face] for row in (rarer, other)]
            if uses[0] == 1 < uses[1]:
                strays.add(rarer)
        held[identifier] = k
        if identifier in early:
            strays.add(early.pop(identifier))
    return [c for k, c in enumerate(candidates) if k not in strays]
