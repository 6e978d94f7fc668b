"""A document as it is read aloud: sentence by sentence, without what only the eye needs.

Left out are running heads and page numbers (which are no sentences here), contents pages and
indexes, rows of tables, code, formulas and the marks of footnotes; footnotes follow their
paragraph if wished.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Collection, Iterator
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.document.locators import Locator, locator_for
from wide_margin.core.document.notes import find_notes
from wide_margin.core.later import regex
from wide_margin.core.layout import tidy

if TYPE_CHECKING:
    from wide_margin.core.document.model import ReadDocument

SPOKEN = frozenset(["body", "item", "entry", "heading", "caption"])
_MOSTLY_SIGNS = 0.4
"""A sentence with fewer letters among its signs is a formula or a rule."""
_CITED = regex(r"\s*\[\d+(?:\s*[,–-]\s*\d+)*\]")
_LEADERS = regex(r"(?:\s?\.){4,}|[_=*~-]{4,}|•")
_SAID = {
    "en": {
        "e.g.": "for example", "i.e.": "that is", "cf.": "compare", "etc.": "and so on",
        "vs.": "versus", "approx.": "approximately", "pp.": "pages", "p.": "page",
        "Fig.": "Figure", "Figs.": "Figures", "fig.": "figure", "Sec.": "Section",
        "sec.": "section", "Eq.": "Equation", "no.": "number", "No.": "Number", "Dr.": "Doctor",
    },
    "de": {
        "z. B.": "zum Beispiel", "z.B.": "zum Beispiel", "d. h.": "das heißt", "d.h.": "das heißt",
        "usw.": "und so weiter", "bzw.": "beziehungsweise", "ca.": "circa", "vgl.": "vergleiche",
        "S.": "Seite", "Abb.": "Abbildung", "Nr.": "Nummer", "Tab.": "Tabelle",
    },
    "fr": {"p. ex.": "par exemple", "c.-à-d.": "c’est-à-dire", "fig.": "figure", "p.": "page"},
    "es": {"p. ej.": "por ejemplo", "fig.": "figura", "pág.": "página", "etc.": "etcétera"},
}  # fmt: skip
"""Abbreviations, and how they are said. Those before a number only are said so there alone."""
_BEFORE_NUMBER = frozenset(
    ["p.", "pp.", "no.", "No.", "S.", "Nr.", "Sec.", "sec.", "Eq.", "Fig.", "fig.", "Figs."]
)


class Spoken(NamedTuple):
    """A sentence to be said."""

    text: str
    locator: Locator
    kind: str
    """The paragraph's kind, or "heading"."""
    paragraph: int
    """Row of its paragraph: a new one begins a new breath."""


def spoken(
    document: ReadDocument, rows: Collection[int] | None = None, *, with_notes: bool = False
) -> tuple[Spoken, ...]:
    """What is said of a document, in reading order.

    Args:
        document: The document.
        rows: Of its sentences; all of them where None.
        with_notes: Whether footnotes are said at the end of the paragraph with their mark.
    """
    ties = find_notes(document.paragraphs)
    marks: dict[int, list[tuple[int, int]]] = defaultdict(list)
    notes: dict[int, list[int]] = defaultdict(list)
    for tie in ties:
        marks[tie.paragraph].append((tie.start, tie.end))
        notes[tie.paragraph].append(tie.note)
    sentences = document.text.sentences
    of_note: dict[int, list[int]] = defaultdict(list)
    for row, sentence in enumerate(sentences):
        if sentence.kind == "note":
            of_note[sentence.paragraph].append(row)
    found: list[Spoken] = []
    wanted = range(len(sentences)) if rows is None else sorted(rows)
    last = -1
    for row in wanted:
        paragraph = sentences[row].paragraph
        if with_notes and last >= 0 and paragraph != last:
            for note in notes.get(last, ()):
                found += _said(document, of_note[note], marks, is_note=True)
        found += _said(document, [row], marks)
        last = paragraph
    if with_notes and last >= 0:
        for note in notes.get(last, ()):
            found += _said(document, of_note[note], marks, is_note=True)
    return tuple(found)


def _said(
    document: ReadDocument,
    rows: Collection[int],
    marks: dict[int, list[tuple[int, int]]],
    *,
    is_note: bool = False,
) -> Iterator[Spoken]:
    language = document.index.language
    for row in rows:
        sentence = document.text.sentences[row]
        if not is_note and sentence.kind not in SPOKEN:
            continue
        text = document.paragraphs[sentence.paragraph].text[sentence.start : sentence.end]
        for start, end in sorted(marks.get(sentence.paragraph, ()), reverse=True):
            at, until = start - sentence.start, end - sentence.start
            if 0 <= at < until <= len(text):
                text = text[:at] + text[until:]
        text = as_said(tidy(text), language)
        if text:
            yield Spoken(text, locator_for(document, row), sentence.kind, sentence.paragraph)


def as_said(text: str, language: str) -> str:
    """A sentence as it is said: abbreviations in full, citations and leaders left out.

    "" for what cannot be said: rules, formulas, numbers alone.
    """
    text = " ".join(_LEADERS.sub(" ", _CITED.sub("", text)).split())
    if sum(c.isalpha() for c in text) < _MOSTLY_SIGNS * max(len(text.replace(" ", "")), 1):
        return ""
    for short, full in _SAID.get(language, {}).items():
        number = r"(?=\s*(?:\d|[IVXLivxl]+\b))" if short in _BEFORE_NUMBER else ""
        text = re.sub(rf"(?<!\w){re.escape(short)}{number}", full, text)
    return text
