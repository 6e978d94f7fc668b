"""What a reach holds: its passages, sentences and pages."""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.reading import paragraphs_within

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wide_margin.core.answers.model import Reach
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import BoolArray, IntArray
    from wide_margin.core.layout import SpanOnPage


@lru_cache(maxsize=2)
def _evidence(document: ReadDocument) -> BoolArray:
    kinds = (p.kind not in ("listing", "heading") for p in document.text.passages)
    return np.fromiter(kinds, dtype=bool)


@lru_cache(maxsize=2)
def _unlisted(document: ReadDocument) -> BoolArray:
    return np.fromiter((s.kind != "listing" for s in document.text.sentences), dtype=bool)


@lru_cache(maxsize=2)
def _pages(document: ReadDocument) -> IntArray:
    """(s,) the page index on which each sentence starts."""
    pages = (s.page for s in document.text.sentences)
    return np.fromiter(pages, dtype=np.int32, count=len(document.text.sentences))


def allowed_passages(document: ReadDocument, reach: Reach) -> BoolArray:
    """(p,) passages that may serve as evidence."""
    passages = document.text.passages
    allowed = _evidence(document).copy()
    if reach.kind == "section":
        first, end = paragraphs_within(document, reach)
        sentences = document.text.sentences
        allowed &= np.array([first <= sentences[p.first].paragraph < end for p in passages])
    if reach.kind == "pages":
        allowed &= np.array([reach.first_page <= p.page <= reach.last_page for p in passages])
    if reach.spans:
        rows = rows_within(document, reach.spans)
        passage_of = document.index.sentence_passage
        inside = np.zeros(len(passages), dtype=bool)
        inside[passage_of[rows]] = True
        allowed &= inside
    return allowed


def allowed_sentences(document: ReadDocument, reach: Reach) -> BoolArray:
    """(s,) sentences of the text that a reach holds: no listings, no furniture."""
    sentences = document.text.sentences
    allowed = _unlisted(document).copy()
    if reach.kind == "section":
        rows = document.rows_of(*paragraphs_within(document, reach))
        allowed[: rows.start] = allowed[rows.stop :] = False
    if reach.kind == "pages":
        pages = _pages(document)
        allowed &= (reach.first_page <= pages) & (pages <= reach.last_page)
    if reach.spans:
        inside = np.zeros(len(sentences), dtype=bool)
        inside[rows_within(document, reach.spans)] = True
        allowed &= inside
    return allowed


def rows_within(document: ReadDocument, spans: tuple[SpanOnPage, ...]) -> list[int]:
    """Rows of the sentences that share a character with some spans."""
    wanted: dict[int, list[SpanOnPage]] = {}
    for span in spans:
        wanted.setdefault(span.page, []).append(span)
    rows = []
    near = [*wanted, *(page - 1 for page in wanted)]  # one may go on over a page's end
    for row in np.flatnonzero(np.isin(_pages(document), near)).tolist():
        sentence = document.text.sentences[row]
        own = document.paragraphs[sentence.paragraph].spans(sentence.start, sentence.end)
        if any(a.start < b.end and b.start < a.end for a in own for b in wanted.get(a.page, ())):
            rows.append(row)
    return rows


def pages_covered(document: ReadDocument, reach: Reach) -> tuple[int, int, tuple[int, ...]]:
    """Pages searched, pages there are within reach, and those of them without readable text."""
    pages = set(range(document.facts.n_pages))
    if reach.kind in ("pages", "section"):
        pages &= set(range(reach.first_page, reach.last_page + 1))
    if reach.spans:
        pages &= {span.page for span in reach.spans}
    n_unread = len(pages & document.unread)
    empty = {*document.to_recognise, *document.failed} - document.unread
    inside = tuple(sorted(pages & empty))
    return len(pages) - len(inside) - n_unread, len(pages), inside


def rows_with(document: ReadDocument, terms: Sequence[str]) -> list[int]:
    """Rows of the sentences that have all of some terms, in order; none for no terms."""
    index = document.index
    found = [index.term_ids.get(term) for term in terms]
    rows = [set(index.by_sentence.of(k)[0].tolist()) if k is not None else set() for k in found]
    return sorted(set.intersection(*rows)) if rows else []
