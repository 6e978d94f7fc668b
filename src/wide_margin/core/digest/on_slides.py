"""What a talk printed as slides is about: its title, what it says it is for, and its sections.

Slides are made of few words that end in no full stop; the few whole sentences on them are asides.
"""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import replace
from itertools import takewhile
from statistics import median
from typing import TYPE_CHECKING

from wide_margin.core.answers.lists import list_after
from wide_margin.core.digest.gist import gist_lines, printed_title
from wide_margin.core.digest.telling import tells
from wide_margin.core.later import regex
from wide_margin.core.layout import BULLETS, word_count
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.outline.page_titles import GOES_ON

if TYPE_CHECKING:
    from collections.abc import Container, Mapping, Sequence

    from wide_margin.core.digest.gist import GistLine
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.outline import Section

MOST_ENDED, FEW_WORDS = 0.35, 90
"""Share of the lines of slides that end as sentences do, at most; or so many words on the middle
one of all slides."""
FEWEST_PAGES = 5
"""Fewer wide pages are a sheet of figures, or a card."""
FRONT, MOST_OF_AIM, AIM_WORDS = 60, 6, 4
"""Lines among which a talk says what it is for, so many of it with a list, and its words at least."""
MOST_SECTIONS, FEWEST_SECTIONS = 8, 2
"""Sections that are named, at most; where there are fewer, those within them are."""
_COUNTED = regex(r"\s*[(\[]\s*\d+\s*/\s*\d+\s*[)\]]$")
"""After the title of several slides: "(1/2)"."""
_BULLET = regex(rf"^\s*[{BULLETS}–—-]\s+(?=\w)")
"""Before a point."""
_KINDS, _ENDS = ("body", "item"), (".", "!", "?", "。")
"""What is said on slides, and how a sentence ends."""
_AIM = regex(
    r"\W*(?:(?:the|our|main|unser\w*|notre|nuestro|il|le|der|das)\s)*(?:goals?|aims?|objectives?|purpose|ziele?|zweck|objectifs?|(?<=le )but|(?<=notre )but|objetivos?"
    r"|obiettiv[oi]|scopo|doel(?:en)?)(?:\s+of\s+th(?:is|e)\s+talk)?\s*(?::|is\b|are\b|ist\b|sind\b|est\b|es\b|è\b)", re.I
)  # fmt: skip
"""Begins what says what a talk is for: "Goal: …", "Le but est …"."""
_UNSAID = squashed("contents", "list_of", "references", "acknowledgements", "index") | frozenset(
    map(bare, ["outline", "agenda", "questions", "any questions", "thank you", "thanks", "overview",
               "gliederung", "übersicht", "fragen", "danke", "plan", "merci", "sommaire",
               "preguntas", "gracias", "domande", "grazie", "vragen"])
)  # fmt: skip
"""What slides are called that stand beside the talk itself."""


def is_talk(document: ReadDocument) -> bool:
    """Whether a document is made of slides without sentences."""
    if not document.facts.is_wide or document.facts.n_pages < FEWEST_PAGES:
        return False
    said = [s.text.rstrip() for s in document.text.sentences if s.kind in _KINDS]
    if sum(text.endswith(_ENDS) for text in said) <= MOST_ENDED * len(said):
        return True
    on_page = Counter[int]()
    for paragraph in document.paragraphs:
        on_page[paragraph.page] += word_count(paragraph.text)
    return median(on_page.values()) <= FEW_WORDS


def about_slides(
    document: ReadDocument, rows: Sequence[int], limits: Mapping[str, int]
) -> tuple[GistLine, ...]:
    """The title of a talk, what it is for, and what its sections are called.

    Of a part of one what the slides in it are called; nothing where that is a single slide.

    Args:
        document: It.
        rows: Of the sentences that are asked about.
        limits: "n_words" and "n_sentences", 0 for none.
    """
    sentences, within = document.text.sentences, set(rows)
    title = bare(printed_title(document))
    on_front = takewhile(lambda row: sentences[row].page == 0, rows)
    named = [row for row in on_front if (said := bare(sentences[row].text)) and said in title][:1]
    aims = [row for row in _aims(document, rows) if row not in named] if named else []
    headings = [row for row in _headings(document, title, within) if row not in named]
    if not named and len(headings) < FEWEST_SECTIONS:
        return ()
    chosen: list[int] = []
    n_words = 0
    for row in (*named, *aims, *headings):
        n_words += word_count(sentences[row].text)
        if chosen and limits.get("n_words") and n_words > limits["n_words"]:
            break
        chosen.append(row)
    lines = gist_lines(document, chosen[: limits.get("n_sentences") or len(chosen)])
    return tuple(replace(line, text=_BULLET.sub("", line.text)) for line in lines)


def _aims(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """Rows of what a talk says it is for, with the list that it leads in to."""
    sentences = document.text.sentences
    for row in rows[:FRONT]:
        said = sentences[row]
        leads_in = said.text.rstrip().endswith(":")
        is_aim = bool(_AIM.match(said.text)) or tells("purpose", said.text.lower(), is_front=True)
        if said.kind in _KINDS and is_aim and (leads_in or word_count(said.text) >= AIM_WORDS):
            return [row, *(list_after(document, row) if leads_in else ())][:MOST_OF_AIM]
    return []


def _place(section: tuple[Section, int]) -> int:
    return section[0].first_paragraph


def _headings(document: ReadDocument, title: str, within: Container[int]) -> list[int]:
    """Rows of the headings of a talk's sections, or of those in a part of it, each once.

    Args:
        document: It.
        title: Of the talk, squashed.
        within: Rows of the sentences that are asked about.
    """
    outline = document.outline
    told: list[tuple[int, int, str]] = []
    for section, depth in sorted(zip(outline.sections, outline.depths, strict=True), key=_place):
        rows = document.rows_of(section.first_paragraph, section.first_paragraph + 1)
        said = bare(unnumbered(section.title))
        if rows and rows.start in within and said and said not in _UNSAID and said not in title:
            named = bare(_COUNTED.sub("", GOES_ON.sub("", section.title)))
            told.append((depth, rows.start, named))
    deepest = min((depth for depth, _, _ in told), default=0)
    while sum(depth <= deepest for depth, _, _ in told) < min(FEWEST_SECTIONS, len(told)):
        deepest += 1
    first: dict[str, int] = {}
    for depth, row, named in told:
        if depth <= deepest:
            first.setdefault(named, row)
    return list(first.values())[:MOST_SECTIONS]
