"""From paragraphs and outline to sentences and passages."""

import re
from collections.abc import Iterator, Sequence

from wide_margin.core.layout import Paragraph, tidy
from wide_margin.core.outline import Outline
from wide_margin.core.passages.entries import find_terms
from wide_margin.core.passages.model import Passage, Sentence, Text
from wide_margin.core.passages.sentences import split_sentences

MANY_WORDS = 110
"""A passage is closed at the end of a paragraph past half of this, and of a sentence past it."""
_LISTING_TITLE = re.compile(
    r"\b(?:(?:table of )?contents|list of (?:figures|tables|symbols)|index|inhalt(?:sverzeichnis)?"
    r"|sachregister|stichwortverzeichnis|table des mati[eè]res|sommaire|[ií]ndice)\s*$",
    re.I,
)
_WORKS_TITLE = re.compile(
    r"\b(?:references|bibliography|literature(?: (?:list|cited))?|works cited|literatur(?:verzeichnis)?"
    r"|bibliographie|références|bibliograf[ií]a|further reading)\s*$",
    re.I,
)


def build_passages(
    paragraphs: Sequence[Paragraph], outline: Outline, listings: frozenset[int]
) -> Text:
    """Split paragraphs to sentences and gather these to passages.

    Args:
        paragraphs: All paragraphs in reading order.
        outline: Its sections refer to rows of paragraphs.
        listings: Page indexes of contents pages and indexes.
    """
    kinds = _section_kinds(outline)
    headings = {s.first_paragraph for s in outline.sections if "heading" in s.witnesses}
    starts = [s.first_paragraph for s in outline.sections]
    terms, term_of = find_terms(paragraphs, headings)
    sentences: list[Sentence] = []
    section = -1
    for row, paragraph in enumerate(paragraphs):
        while section + 1 < len(starts) and starts[section + 1] <= row:
            section += 1
        kind = "heading" if row in headings else kinds.get(section) or paragraph.kind
        term = term_of[row]
        if term >= 0 and kind != "heading" and _WORKS_TITLE.search(terms[term].text):
            kind = "works"
        if paragraph.page in listings and kind != "heading":
            kind = "listing"
        sentences.extend(_sentences_of(paragraph, row, section, kind, term))
    of_term = {term.paragraph: k for k, term in enumerate(terms)}
    return Text(tuple(sentences), tuple(_gather(sentences, of_term)), terms)


def _section_kinds(outline: Outline) -> dict[int, str]:
    """Sections that only list: 'listing' or 'works', by their titles; subsections too."""
    kinds: dict[int, str] = {}
    inherited: list[tuple[int, str]] = []
    for index, section in enumerate(outline.sections):
        while inherited and inherited[-1][0] >= section.level:
            inherited.pop()
        kind = inherited[-1][1] if inherited else ""
        if _LISTING_TITLE.search(section.title):
            kind = "listing"
        elif _WORKS_TITLE.search(section.title):
            kind = "works"
        inherited.append((section.level, kind))
        if kind:
            kinds[index] = kind
    return kinds


def _sentences_of(
    paragraph: Paragraph, row: int, section: int, kind: str, term: int
) -> Iterator[Sentence]:
    pages = paragraph.pieces[0].line.page, paragraph.pieces[-1].line.page
    whole = (
        kind == "works" and paragraph.kind == "item" and len(paragraph.text.split()) <= MANY_WORDS
    )
    ranges = [(0, len(paragraph.text))] if whole else split_sentences(paragraph.text)
    for start, end in ranges:  # a work with its author and its year is one thing
        text = tidy(paragraph.text[start:end])
        if not text:
            continue
        page = pages[0]
        if pages[0] != pages[-1] and (spans := paragraph.spans(start, start + 1)):
            page = spans[0].page
        yield Sentence(text, page, section, row, start, end, kind, term)


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
