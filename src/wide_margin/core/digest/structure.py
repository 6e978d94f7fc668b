"""The shape of a document: where terms occur, and which sections treat the same things."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from wide_margin.core.document import ReadDocument
from wide_margin.core.search import find_all, is_common

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray, IntArray
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.search import Findable

SAME_MATTER = 0.18
"""Cosine from which on two sections treat the same things."""
MOST_RELATED = 4
LEAST_OFTEN, LEAST_PARTS = 5, 2
"""A term that tells the shape of a document stands so often, in so many of its parts."""
LEAST_TERMS = 12
"""Different terms that a section must hold to be compared."""
KINDS = ("body", "item", "entry", "caption", "heading", "note", "row")


class Occurrence(NamedTuple):
    """A place where a term stands."""

    at: float
    """In pages from the start: 2.5 is the middle of the third page."""
    section: int
    """Index into the outline's sections, -1 before the first."""


def occurrences(document: ReadDocument, findable: Findable, term: str) -> tuple[Occurrence, ...]:
    """Every place where a term stands, as exact find counts them, in reading order."""
    hits = find_all(findable, document.paragraphs, term)
    return tuple(
        Occurrence(
            place_of(document, document.paragraphs[hit.paragraph], hit.start),
            document.outline.at_paragraph(hit.paragraph),
        )
        for hit in hits
    )


def place_of(document: ReadDocument, paragraph: Paragraph, at: int) -> float:
    """A character of a paragraph in pages from the start."""
    line = paragraph.pieces[0].line
    for piece in paragraph.pieces:
        if piece.at > at:
            break
        line = piece.line
    height = document.facts.sizes[line.page][1]
    return line.page + min(max(line.box[1] / max(height, 1.0), 0.0), 0.999)


MOST_TERMS, LEAST_SECTIONS, ALONG = 5, 3, 0.3
"""Words that are offered beside a term; sections that they and it stand in at least; the cosine
over the sections from which they go along with it."""


def uneven_first(document: ReadDocument, terms: Sequence[str]) -> tuple[str, ...]:
    """Terms by how unevenly they lie over the parts of a document: such tell its shape."""
    parents = document.outline.parents
    index = document.index

    def unevenness(term: str) -> float:
        stems = [stem for word in term.split() for stem in index.analyser.terms_of(word)[:1]]
        numbers = [index.term_ids[stem] for stem in stems if stem in index.term_ids]
        if not numbers:
            return 0.0
        rows = set(index.by_sentence.of(numbers[0])[0].tolist())
        for number in numbers[1:]:
            rows &= set(index.by_sentence.of(number)[0].tolist())
        parts = Counter(
            _family(parents, section)[0]
            for row in rows if (section := document.text.sentences[row].section) >= 0
        )  # fmt: skip
        n = sum(parts.values())
        if n < LEAST_OFTEN or len(parts) < LEAST_PARTS:
            return 0.0
        return sum((count / n) ** 2 for count in parts.values()) * math.log1p(n)

    return tuple(sorted(terms, key=lambda term: -unevenness(term)))


class Related(NamedTuple):
    """A section that treats the same things as another one."""

    section: int
    nearness: float
    """Cosine of their terms, 0 to 1."""


@dataclass(frozen=True)
class Sections:
    """The sections of a document by their terms: compared by the cosine of tf-idf.

    Source:
        Salton and Buckley 1988, with logarithmic term frequency.
    """

    document: ReadDocument

    @cached_property
    def _counts(self) -> tuple[IntArray, IntArray, FloatArray]:
        """Section, term and weight of every different term of every section, by section."""
        document = self.document
        index, n_sections = document.index, len(document.outline.sections)
        section_of = np.array([s.section for s in document.text.sentences], dtype=np.int64)
        kept = np.array([s.kind in KINDS for s in document.text.sentences], dtype=bool)
        lengths = np.diff(index.token_starts)
        owners = np.repeat(np.where(kept, section_of, -1), lengths)
        tokens = np.asarray(index.tokens, dtype=np.int64)
        telling = self._telling()[tokens] & (owners >= 0)
        n_terms = max(len(index.term_ids), 1)
        keys, counts = np.unique(owners[telling] * n_terms + tokens[telling], return_counts=True)
        sections, terms = keys // n_terms, keys % n_terms
        spread = np.bincount(terms, minlength=n_terms).astype(float)
        idf = np.log1p(n_sections / np.maximum(spread, 1.0))
        return sections, terms, (1.0 + np.log(counts)) * idf[terms]

    def _telling(self) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
        """(t,) whether a term is a word with content."""
        index = self.document.index
        return np.array(
            [form.isalpha() and len(form) > 2 and not is_common(form, index.language)
             for form in index.forms], dtype=bool,
        )  # fmt: skip

    @cached_property
    def _lengths(self) -> FloatArray:
        sections, _, weights = self._counts
        n = len(self.document.outline.sections)
        return np.sqrt(np.bincount(sections, weights=weights**2, minlength=n))

    def related(self, section: int, n: int = MOST_RELATED) -> tuple[Related, ...]:
        """The sections elsewhere that treat the same things, the nearest first.

        Sections within the same larger one as it, beside it or around it are left out: that they
        belong together is seen already.
        """
        outline = self.document.outline
        if not 0 <= section < len(outline.sections):
            return ()
        sections, terms, weights = self._counts
        own = sections == section
        if int(own.sum()) < LEAST_TERMS:
            return ()
        wanted = np.zeros(max(len(self.document.index.term_ids), 1))
        wanted[terms[own]] = weights[own]
        dots = np.bincount(
            sections, weights=weights * wanted[terms], minlength=len(outline.sections)
        )
        enough = np.bincount(sections, minlength=len(outline.sections)) >= LEAST_TERMS
        cosines = np.where(
            enough, dots / np.maximum(self._lengths * self._lengths[section], 1e-9), 0
        )
        family = _family(outline.parents, section)
        found: list[Related] = []
        for other in np.argsort(-cosines, kind="stable").tolist():
            if cosines[other] < SAME_MATTER or len(found) == n:
                break
            if _family(outline.parents, other)[0] != family[0] and other not in family:
                found.append(Related(other, float(cosines[other])))
        return tuple(found)

    def related_terms(self, term: str, n: int = MOST_TERMS) -> tuple[str, ...]:
        """Words that rise and fall with a term from section to section, the nearest first.

        None of a term that stands in too few sections to say. Words are given as the document
        writes them.
        """
        index = self.document.index
        stems = [stem for word in term.split() for stem in index.analyser.terms_of(word)[:1]]
        numbers = [index.term_ids.get(stem, -1) for stem in stems]
        if not numbers or min(numbers) < 0:
            return ()
        sections, terms, weights = self._counts
        own = np.full(len(self.document.outline.sections), np.inf)
        for number in numbers:  # of several words, what all of them do
            one = np.zeros_like(own)
            one[sections[terms == number]] = weights[terms == number]
            own = np.minimum(own, one)
        if int((own > 0).sum()) < LEAST_SECTIONS:
            return ()
        n_terms = max(len(index.term_ids), 1)
        dots = np.bincount(terms, weights=weights * own[sections], minlength=n_terms)
        sizes = np.sqrt(np.bincount(terms, weights=weights**2, minlength=n_terms))
        spread = np.bincount(terms, minlength=n_terms)
        cosines = dots / np.maximum(sizes * float(np.sqrt(own @ own)), 1e-9)
        cosines[(spread < LEAST_SECTIONS) | (cosines < ALONG)] = 0.0
        cosines[numbers] = 0.0
        order = np.argsort(-cosines, kind="stable")[:n].tolist()
        return tuple(index.forms[number] for number in order if cosines[number] > 0)


def _family(parents: tuple[int, ...], section: int) -> list[int]:
    """A section with those around it, the outermost first."""
    found = [section]
    while parents[found[0]] >= 0:
        found.insert(0, parents[found[0]])
    return found
