"""A section explained: how it begins, what terms it brings, what it rests on, who refers to it."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.document import Locator, locator_for
from wide_margin.core.explain.model import Leaning
from wide_margin.core.explain.references import find_references
from wide_margin.core.later import regex
from wide_margin.core.outline.numbering import number_of

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain.definitions import Definition
    from wide_margin.core.explain.explanation import Explainer

MAX_TERMS = 8
MAX_PLACES = 12
LEAST_WORDS = 6
SURE = 0.66
"""A definition of at least this weight brings a term."""

_TOLD_FROM_HERE = regex(
    r"(?:this|the|an?|page|p\.|pp\.|see|described|stated|shown|given|listed|mentioned|discussed)\b",
    re.I,
)
"""References that say nothing once they are read apart from their place."""


@dataclass(frozen=True, slots=True)
class SectionExplanation:
    """What can be told of a section from the document itself."""

    title: str
    locator: Locator
    n_words: int
    begins: Leaning | None
    """Its first sentence of text."""
    terms: tuple[Leaning, ...]
    """Terms that are defined in it, with their definitions."""
    refers_to: tuple[Leaning, ...]
    """Sections, figures and works that it refers to."""
    referred_from: tuple[Leaning, ...]
    """Sentences elsewhere that refer to it."""


def explain_section(document: ReadDocument, explainer: Explainer, row: int) -> SectionExplanation:
    """Explain a section, subsections included.

    Args:
        document: The document.
        explainer: Of the document.
        row: Of the section in its outline.
    """
    section = document.outline.sections[row]
    sentences = document.text.sentences
    inside = list(document.rows_of(section.first_paragraph, section.end_paragraph))
    said = [k for k in inside if sentences[k].kind in ("body", "item", "entry")]
    first = next((k for k in said if len(sentences[k].text.split()) >= LEAST_WORDS), None)
    heading = document.paragraphs[section.first_paragraph]
    path = document.path_at(row)
    locator = Locator(
        section.page, document.labels.of(section.page), heading.spans(0, len(heading.text)), path,
        y=section.y,
    )  # fmt: skip
    begins = None
    if first is not None:
        begins = Leaning("", sentences[first].text, locator_for(document, first))
    return SectionExplanation(
        section.title, locator, sum(len(sentences[k].text.split()) for k in inside), begins,
        tuple(_terms(document, explainer, inside))[:MAX_TERMS],
        tuple(_refers_to(document, explainer, said))[:MAX_PLACES],
        tuple(_referred_from(document, explainer, row, frozenset(inside)))[:MAX_PLACES],
    )  # fmt: skip


def _terms(document: ReadDocument, explainer: Explainer, rows: list[int]) -> Iterator[Leaning]:
    wanted = frozenset(rows)
    found: dict[int, Definition] = {}
    for definitions in explainer.definitions.values():
        best = definitions[0]
        if (
            best.sentence in wanted
            and best.weight >= SURE
            and best.kind not in ("symbol", "section")
        ):
            found.setdefault(best.sentence, best)
    for row, definition in sorted(found.items()):
        text = definition.long_form or document.text.sentences[row].text
        yield Leaning(definition.term, text, locator_for(document, row))


def _refers_to(document: ReadDocument, explainer: Explainer, rows: list[int]) -> Iterator[Leaning]:
    seen = set()
    for row in rows:
        text = document.text.sentences[row].text
        for reference in find_references(document, text, explainer.targets, row):
            near = _TOLD_FROM_HERE.match(reference.text)
            if reference.locator is not None and reference.title not in seen and not near:
                seen.add(reference.title)
                yield Leaning(reference.text, reference.title, reference.locator)


def _referred_from(
    document: ReadDocument, explainer: Explainer, row: int, inside: frozenset[int]
) -> Iterator[Leaning]:
    """Sentences outside of a section with its number or title, that do lead to it."""
    section = document.outline.sections[row]
    number = number_of(section.title)
    words = [number.identifier] if number else []
    words.append(number.rest if number else section.title)
    pattern = re.compile("|".join(rf"(?<![\w.]){re.escape(w)}(?![\w]|\.\d)" for w in words if w))
    for k, sentence in enumerate(document.text.sentences):
        if (
            k in inside
            or sentence.kind in ("listing", "heading")
            or not pattern.search(sentence.text)
        ):
            continue
        for reference in find_references(document, sentence.text, explainer.targets, k):
            if reference.locator is not None and reference.title == section.title:
                yield Leaning(reference.text, sentence.text, locator_for(document, k))
                break
