"""From paragraphs and outline to sentences and passages."""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Callable, Container, Iterator, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.layout import UNSPACED, tidy
from wide_margin.core.lexicon import alternatives, bare, squashed
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.outline.page_titles import GOES_ON
from wide_margin.core.passages.entries import find_terms
from wide_margin.core.passages.model import Passage, Said, Sentence, Text
from wide_margin.core.passages.sentences import split_sentences
from wide_margin.core.passages.titles_listed import rows_of_titles

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline import Outline

MANY_WORDS = 110
"""A passage is closed at the end of a paragraph past half of this, and of a sentence past it."""
_LISTING_TITLE = regex(rf"(?<!\w){alternatives('contents', 'list_of', 'index')}[\s.]*$", re.I)
_WORKS_TITLE = regex(rf"(?<!\w){alternatives('references')}(?: (?:list|cited))?[\s.]*$", re.I)
_CONTENTS = squashed("contents")
_INDEX = squashed("index")
_LISTS = frozenset(_CONTENTS) | frozenset(_INDEX)
_WORKS = squashed("references")
LONGEST_TITLE = max(map(len, _CONTENTS)) + 8
"""Characters of the title over a table of contents, with its blanks and signs."""
LISTED = 0.4
"""Share of a section's text that must look like rows or works for its title to be believed."""
_ENDS_IN_PLACES = regex(
    r"(?:[\s,]|(?<!\d)\.|(?<=v\d\.\d)\.)(?:\d{1,4}|[ivxlc]{1,6})(?:\s*[–-]\s*\d{1,4})*\s*$"
)
"""The last place alone: a long row of them would be gone through from each of its numbers. "0.43"
is none; the version of the next row, "v2.1.0", stands behind some in a list of changes."""
_ENDS_IN_NUMBERS = regex(r":\s*(?:\d{1,4},\s*)*\d{1,4}\.\s*$")
"""An entry of an index that ends with a full stop: "depth: 5, 52."."""
_YEAR = regex(r"\b(?:1[5-9]|20)\d\d[a-z]?\b")
_OF_WORK = regex(
    r"\b[^\W\d_]\.(?:[ -]?[^\W\d_]\.)*,?\s|\bpp?\.|\d+\s*(?:\(\d+\))?\s*:\s*\d+"
    r"|(?-i:\b[A-Z]\w[\w\u200b’'-]*\s[A-Z]{1,3}(?:,\s|\s\((?:1[5-9]|20)\d\d))|\d+\(\d+\),\s*[a-z]?\d+[–-]"
    r"|\b(?:doi|isbn|issn|https?|press|verlag|journal|ed(?:s|itors?)?|technical report|proceedings|proc\.|conference"
    r"|symposium|workshop|university|thesis)\b|^\[[\w+-]{1,12}\]\s",
    re.I,
)
_UNSPACED = regex(f"[{UNSPACED}]")
"""A letter of a script that sets no blanks between words."""
_LEADERS = regex(r"(?:\.\s?){4,}|…{2,}|\t")
MOST_BETWEEN, SENTENCE = 800, 60
"""Characters of sentences between the entries of contents, more of which are no part of them; and
of the shortest that counts."""
PROSE, FEW_DIGITS = 120, 0.04
"""Characters of running text at least, and the share of digits that it stays under."""
SHORT_ROW = 20
"""Characters of a row that says nothing: a letter of an index, a name of code."""
RUNS_ON = 40
"""Characters of text after a heading from which it runs into its paragraph."""
_NOTE_NUMBER = regex(r"\s*(?:\d{1,3}|[*†‡§¶]{1,3})(?=\s{0,4}[“\"‘(\[]?[^\W\d_])")
"""The mark that a footnote begins with, and a word."""
_LEFT_BY_MARK = regex(r"\s+([,.;:!?)])")
"""The blank that a footnote mark leaves before a sign of punctuation."""


def build_passages(
    paragraphs: Sequence[Paragraph], outline: Outline, listings: frozenset[int],
    ahead: Callable[[], Sequence[Sequence[Said]]] = tuple,
) -> Text:  # fmt: skip
    """Split paragraphs to sentences and gather these to passages.

    Args:
        paragraphs: All paragraphs in reading order.
        outline: Its sections refer to rows of paragraphs.
        listings: Page indexes of contents pages and indexes.
        ahead: Gives the sentences of the last paragraphs, where they have been told.
    """
    kinds = _section_kinds(outline, paragraphs, listings)
    headings, whole_titles = _headings(paragraphs, outline)
    headings |= _titles_again(paragraphs, outline)
    starts = [s.first_paragraph for s in outline.sections]
    listed = _listed_rows(paragraphs, starts, listings)
    titles = rows_of_titles(paragraphs, outline)
    over = _rows_over_contents(paragraphs, listings)
    under = _rows_under_headings(paragraphs, headings, listings)
    works = _rows_of_works(paragraphs, starts)
    terms, term_of = find_terms(paragraphs, headings)
    of_works = {k for k, term in enumerate(terms) if _WORKS_TITLE.search(term.text)}
    sentences: list[Sentence] = []
    section = -1
    told = ahead()
    first_told = len(paragraphs) - len(told)
    for row, paragraph in enumerate(paragraphs):
        while section + 1 < len(starts) and starts[section + 1] <= row:
            section += 1
        lead = _lead(paragraph) if row in headings and row not in whole_titles else 0
        is_heading = row in headings and not lead
        kind = "heading" if is_heading else kinds.get(section) or paragraph.kind
        term = term_of[row]
        if term in of_works and kind != "heading":
            kind = "works"
        if kind != "heading" and row in titles:
            kind = "listing"
        elif kind != "heading" and paragraph.page in listings:
            is_text = row in over or _is_prose(paragraph)
            is_text |= row in under and kind != "listing" and not _is_row(paragraph)
            kind = paragraph.kind if is_text else "listing"
        elif kind != "heading" and row in listed:
            kind = "listing"
        elif kind != "heading" and row in works:
            kind = "works"
        whole = kind == "heading" or (kind == "works" and _is_one_work(paragraph))
        if row >= first_told and not (lead or whole):
            said = told[row - first_told]
        else:
            said = sentences_in(paragraph, lead, whole=whole)
        sentences += [
            Sentence(each.text, each.page, section, row, each.start, each.end,
                     "heading" if lead and not each.start else kind, term) for each in said
        ]  # fmt: skip
    of_term = {term.paragraph: k for k, term in enumerate(terms)}
    return Text(tuple(sentences), tuple(_gather(sentences, of_term)), terms)


def _titles_again(paragraphs: Sequence[Paragraph], outline: Outline) -> set[int]:
    """Rows of what begins a page and says again what its section is called, as a slide may."""
    titles = [bare(section.title) for section in outline.sections]
    again: set[int] = set()
    page = -1
    for row, paragraph in enumerate(paragraphs):
        if paragraph.page == page or not titles:
            continue
        page, section = paragraph.page, outline.at_paragraph(row)
        if section >= 0 and bare(GOES_ON.sub("", paragraph.text)) == titles[section]:
            again.add(row)
    return again


def _headings(paragraphs: Sequence[Paragraph], outline: Outline) -> tuple[set[int], set[int]]:
    """Rows of the paragraphs of headings, however many each takes: "Chapter 3" and its title.

    Returns:
        All of them, and those that are the title of their section and nothing more, although it
        may look run in: "6.1 wind: fill the drum".
    """
    starts = {section.first_paragraph for section in outline.sections}
    found: set[int] = set()
    whole: set[int] = set()
    for section in outline.sections:
        if "heading" not in section.witnesses:
            continue
        row = section.first_paragraph
        found.add(row)
        titles = {bare(section.title), *(bare(reading.title) for reading in section.readings)}
        if bare(paragraphs[row].text) in titles:
            whole.add(row)
            continue
        said = ""
        for following in range(row + 1, min(row + 1 + MOST_OF_HEADING, len(paragraphs))):
            if following in starts or paragraphs[following].page != paragraphs[row].page:
                break
            said = f"{said} {paragraphs[following].text}"
            if bare(said) in titles or bare(paragraphs[row].text + said) in titles:
                found.update(range(row + 1, following + 1))
                break
    return found, whole


MOST_OF_HEADING = 3
"""Paragraphs that a heading goes on in, at most."""


def _section_kinds(
    outline: Outline, paragraphs: Sequence[Paragraph], listings: frozenset[int]
) -> dict[int, str]:
    """Sections that only list: 'listing' or 'works'; subsections too.

    The title alone does not tell ("Refractive index", "Cross references"): what stands in the
    section must look like it as well.
    """
    kinds: dict[int, str] = {}
    for index, (section, parent) in enumerate(zip(outline.sections, outline.parents, strict=True)):
        kind = kinds.get(parent, "")
        inside = paragraphs[section.first_paragraph + 1 : section.end_paragraph]
        if _LISTING_TITLE.search(section.title):
            if _share(inside, lambda p: _is_entry(p, listings)) >= LISTED:
                kind = "listing"
        elif _WORKS_TITLE.search(section.title):
            # An index without a title of its own may follow.
            before = [paragraph for paragraph in inside if paragraph.page not in listings]
            kind = "works" if _share(before, _is_work) >= LISTED else kind
        if kind:
            kinds[index] = kind
    return kinds


def _listed_rows(
    paragraphs: Sequence[Paragraph], starts: Sequence[int], listings: frozenset[int]
) -> set[int]:
    """Rows of contents that stand on a page with text, with the title over them.

    The outline leaves that title out; what is under it down to its last entry is no text.
    """
    found: set[int] = set()
    for row, paragraph in enumerate(paragraphs):
        if row in found or len(paragraph.text) > LONGEST_TITLE:
            continue
        if bare(paragraph.text) not in _CONTENTS:
            continue
        after = bisect_right(starts, row)
        end = starts[after] if after < len(starts) else len(paragraphs)
        entries = [k for k in range(row + 1, end) if _is_entry(paragraphs[k], listings)]
        last = entries[-1] if entries else row
        if bare(paragraph.text) not in _INDEX:
            last = _last_listed(paragraphs, range(row + 1, last + 1), listings)
        rows = range(row, last + 1) if last > row else range(0)
        inside = [paragraphs[k] for k in rows[1:]]
        if rows and _share(inside, lambda p: _is_entry(p, listings)) >= LISTED:
            found.update(rows)
    return found


def _rows_over_contents(paragraphs: Sequence[Paragraph], listings: frozenset[int]) -> set[int]:
    """Rows of text, such as an abstract, that stand over the title of the contents of their page."""
    found: set[int] = set()
    above: list[int] = []
    for row, paragraph in enumerate(paragraphs):
        if paragraph.page not in listings or (
            above and paragraphs[above[0]].page != paragraph.page
        ):
            above = []
        if paragraph.page not in listings:
            continue
        if len(paragraph.text) <= LONGEST_TITLE and bare(paragraph.text) in _CONTENTS:
            found.update(above)
        if not _lists_places(paragraph):
            above.append(row)
    return found


def _rows_under_headings(
    paragraphs: Sequence[Paragraph], headings: Container[int], listings: frozenset[int]
) -> set[int]:
    """Rows on pages that list, from a heading on: text that begins below the contents."""
    found: set[int] = set()
    row = 0
    while row < len(paragraphs):
        page, begun = paragraphs[row].page, row
        row += 1
        if page not in listings or begun not in headings:
            continue
        if bare(paragraphs[begun].text) in _LISTS:
            continue
        while (
            row < len(paragraphs) and paragraphs[row].page == page and row not in headings
            and bare(paragraphs[row].text) not in _LISTS
        ):  # fmt: skip
            row += 1
        inside = paragraphs[begun + 1 : row]
        if _share(inside, lambda p: _is_row(p) or len(p.text) < SHORT_ROW) < LISTED:
            found.update(range(begun + 1, row))
    return found


def _last_listed(paragraphs: Sequence[Paragraph], rows: range, listings: frozenset[int]) -> int:
    """The last row of contents, after which text follows, with a short label here and there."""
    last, apart = rows.start - 1, 0
    for row in rows:
        text = paragraphs[row].text.strip()
        if paragraphs[row].page in listings or _ENDS_IN_PLACES.search(text):
            last, apart = row, 0
        elif text[-1:] in ".!?:;。！？：；" and _length(text) >= SENTENCE:
            apart += _length(text)
            if apart > MOST_BETWEEN:
                break
        elif not apart and paragraphs[row].page == paragraphs[last].page:
            last = row
    return last


def _rows_of_works(paragraphs: Sequence[Paragraph], starts: Sequence[int]) -> set[int]:
    """Rows of a list of works under its title, down to the last of them before the next section.

    Many contents pages leave that title out, and the outline with them; and tables and listings
    may follow that have no title of their own.
    """
    found: set[int] = set()
    for row, paragraph in enumerate(paragraphs):
        if row in found or len(paragraph.text) > LONGEST_TITLE:
            continue
        if bare(unnumbered(paragraph.text)) not in _WORKS:
            continue
        after = bisect_right(starts, row)
        end = starts[after] if after < len(starts) else len(paragraphs)
        last = max((k for k in range(row + 1, end) if _is_work(paragraphs[k])), default=row)
        if _share(paragraphs[row + 1 : last + 1], _is_work) >= LISTED:
            found.update(range(row, last + 1))
    return found


def _is_entry(paragraph: Paragraph, listings: frozenset[int]) -> bool:
    return paragraph.page in listings or _lists_places(paragraph)


def _share(paragraphs: Sequence[Paragraph], holds: Callable[[Paragraph], bool]) -> float:
    """Share of the text for which something holds."""
    whole = sum(len(p.text) for p in paragraphs)
    return sum(len(p.text) for p in paragraphs if holds(p)) / whole if whole else 0.0


def _is_row(paragraph: Paragraph) -> bool:
    """Whether a paragraph ends in leaders or page numbers."""
    return any(p.search(paragraph.text) for p in (_ENDS_IN_PLACES, _ENDS_IN_NUMBERS, _LEADERS))


def _lists_places(paragraph: Paragraph) -> bool:
    """Whether it is a row of an index or of contents: words, then page numbers, and no sentence."""
    ends = (_ENDS_IN_PLACES, _ENDS_IN_NUMBERS)
    return _length(paragraph.text) < 30 or any(pattern.search(paragraph.text) for pattern in ends)


def _length(text: str) -> int:
    """Characters of a text; where no blanks stand between words each says as much as two."""
    return len(text) + len(_UNSPACED.findall(text))


def _is_prose(paragraph: Paragraph) -> bool:
    """Whether it is running text, such as an abstract that stands over the table of contents."""
    text = paragraph.text.strip()
    n_digits = sum(map(str.isdigit, text))
    return (
        paragraph.kind == "body" and len(paragraph.pieces) > 1
        and _length(text) >= PROSE
        and text[-1] in ".!?:。！？：" and n_digits < FEW_DIGITS * len(text)
        and not _LEADERS.search(text)
    )  # fmt: skip


def _is_work(paragraph: Paragraph) -> bool:
    """Whether it names a published work: a year, and names with initials or a place to find it."""
    text = paragraph.text
    return bool(_YEAR.search(text)) and bool(_OF_WORK.search(text))


def _lead(paragraph: Paragraph) -> int:
    """Characters of a heading that runs into its paragraph; 0 for one that stands alone."""
    lead = paragraph.pieces[0].line.lead
    return lead if lead and len(paragraph.text) >= lead + RUNS_ON else 0


def _is_one_work(paragraph: Paragraph) -> bool:
    """Whether it is an entry of a list of works that is quoted whole."""
    return paragraph.kind == "item" and len(paragraph.text.split()) <= MANY_WORDS


def sentences_in(paragraph: Paragraph, lead: int = 0, *, whole: bool = False) -> list[Said]:
    """The sentences of a paragraph.

    Args:
        paragraph: Any.
        lead: So many characters at its beginning are a heading that runs into it.
        whole: It is one thing, as a number with its title and a work with its year are.
    """
    pages = paragraph.pieces[0].line.page, paragraph.pieces[-1].line.page
    said = paragraph.unmarked
    if paragraph.kind == "note" and (number := _NOTE_NUMBER.match(said)):
        said = " " * number.end() + said[number.end() :]
    ranges = [(0, len(said))] if whole else split_sentences(said[lead:])
    if lead:
        ranges = [(0, lead), *((lead + start, lead + end) for start, end in ranges)]
    found = []
    for start, end in ranges:
        text = tidy(said[start:end])
        if said is not paragraph.text:
            text = _LEFT_BY_MARK.sub(r"\1", text)
        if not text:
            continue
        page = pages[0]
        if pages[0] != pages[-1] and (spans := paragraph.spans(start, start + 1)):
            page = spans[0].page
        found.append(Said(text, page, start, end))
    return found


def _gather(sentences: Sequence[Sentence], of_term: dict[int, int]) -> Iterator[Passage]:
    first, n_words = 0, 0
    for row, sentence in enumerate(sentences):
        described = (
            row
            and sentence.term >= 0
            and sentence.term == of_term.get(sentences[row - 1].paragraph)
        )  # a term is not parted from what it is about
        if row > first and not described and _parts(sentences[row - 1], sentence, n_words):
            yield _passage(sentences, first, row)
            first, n_words = row, 0
        n_words += len(sentence.text.split())
    if first < len(sentences):
        yield _passage(sentences, first, len(sentences))


def _parts(before: Sentence, sentence: Sentence, n_words: int) -> bool:
    """Whether a new passage starts at this sentence."""
    if sentence.section != before.section or (sentence.kind == "listing") != (
        before.kind == "listing"
    ):
        return True
    if sentence.page > before.page + 1:
        return True
    new_paragraph = sentence.paragraph != before.paragraph
    # A list or a table stays with the sentence that introduces it.
    if sentence.kind in ("item", "row", "code") and n_words < 1.5 * MANY_WORDS:
        return False
    if new_paragraph and n_words > MANY_WORDS / 2:
        return True
    return n_words > MANY_WORDS


def _passage(sentences: Sequence[Sentence], first: int, end: int) -> Passage:
    kinds = {s.kind for s in sentences[first:end]}
    kind = next((k for k in ("listing", "works") if k in kinds), "text")
    if kinds == {"heading"}:
        kind = "heading"
    return Passage(first, end, sentences[first].section, sentences[first].page, kind)
