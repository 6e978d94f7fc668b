"""Answers to “where”: the sections that treat of something, by all that they say."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.model import Excerpt, Quote
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives
from wide_margin.core.search.ranking import title_weights

if TYPE_CHECKING:
    from wide_margin.core.answers.candidates import Candidate
    from wide_margin.core.answers.question import Question
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import FloatArray
    from wide_margin.core.search import Query, Weighed

TITLE_OF_WHERE = 3.0
"""What a section's own title counts beside its evidence, for a "where" question."""
SECTION_BEHIND = 0.5
OF_CHILD = 0.5
"""What the evidence in a section counts for the section around it."""
ALL_OF_IT = 0.97
"""The share of a question's weight in a title that says all that is asked for."""
OF_TITLE = 0.75
"""The chance at least that such a title leads to the right section: of six in the sets five did."""
_CHAPTER = regex(rf"(?<!\w){alternatives('chapter', in_text=True)}(?!\w)", re.I)
_PART = regex(rf"{alternatives('part')}\s+[\divxlc]+\b", re.I)


def rank_sections(
    document: ReadDocument,
    question: Question,
    in_title: FloatArray,
    weighed: Weighed,
    candidates: list[Candidate],
) -> list[tuple[int, Candidate, float]]:
    """Sections for a "where" question, best first: by their titles and by all that they say.

    A section that spreads the evidence over several of its own is a better place than each.

    Args:
        document: It.
        question: It.
        in_title: (k + 1,) from titles_share.
        weighed: Its sentences.
        candidates: Best first.

    Returns:
        (section, its best sentence, score); the second only where it is nearly as good.
    """
    sentences = document.text.sentences
    sections = np.array([sentences[row].section for row in weighed.sentences], dtype=np.int64)
    best: dict[int, Candidate] = {}
    for candidate in candidates:
        best.setdefault(sentences[candidate.sentence].section, candidate)
    top = float(weighed.scores.max())
    odds = np.bincount(sections[sections >= 0], np.exp(weighed.scores[sections >= 0] - top),
                       minlength=len(document.outline.sections))  # fmt: skip
    parents = document.outline.parents
    for section in range(len(odds) - 1, -1, -1):  # children before their parents
        parent = parents[section]
        if parent >= 0 and odds[section]:
            odds[parent] += OF_CHILD * odds[section]
            child = best.get(section)  # none where nothing of it may be quoted
            if child and (parent not in best or best[parent].score < child.score):
                best[parent] = child
    level = _level_asked(document, question)
    found = []
    for section, candidate in best.items():
        if section >= 0 and document.outline.sections[section].level <= level:
            score = float(np.log(odds[section])) + top
            found.append((section, candidate, score + TITLE_OF_WHERE * float(in_title[section])))
    found.sort(key=lambda row: (-row[2], row[0]))
    return [row for row in found if row[2] >= found[0][2] - SECTION_BEHIND][:3]


def _level_asked(document: ReadDocument, question: Question) -> int:
    """The deepest level that is meant: a chapter is at the first or, within parts, the second."""
    levels = [section.level for section in document.outline.sections]
    if not _CHAPTER.search(question.text) or not levels:
        return max(levels, default=0)
    tops = [s for s in document.outline.sections if s.level == min(levels)]
    within_parts = sum(bool(_PART.match(s.title)) for s in tops) > 0.3 * len(tops)
    return min(levels) + within_parts


def titles_share(document: ReadDocument, query: Query) -> FloatArray:
    """(k + 1,) share of a question's weight in the titles of each section."""
    total = sum(term.weight for term in query.terms) or 1.0
    share = np.zeros(document.index.titles.n_rows, np.float32)
    for term in query.terms:
        share += term.weight * title_weights(document.index, term) / total
    return share


def is_called_so(in_title: FloatArray, sections: list[tuple[int, Candidate, float]]) -> bool:
    """Whether the title of the best section says all that is asked for.

    Args:
        in_title: (k + 1,) from titles_share.
        sections: From rank_sections.
    """
    return bool(sections) and float(in_title[sections[0][0]]) >= ALL_OF_IT


def heading_excerpts(
    document: ReadDocument, sections: list[tuple[int, Candidate, float]]
) -> tuple[Excerpt, ...]:
    """The headings of sections as the first excerpts."""
    found = []
    for section, candidate, score in sections:
        quote = section_quote(document, section, candidate)
        found.append(Excerpt(quote.text, quote.locators[0], score))
    return tuple(found)


def section_quote(document: ReadDocument, section: int, candidate: Candidate) -> Quote:
    """A section's heading, with the place of what speaks for it."""
    place = document.outline.sections[section]
    heading = next(
        (row for row in range(candidate.sentence, -1, -1)
         if document.text.sentences[row].paragraph == place.first_paragraph),
        candidate.sentence,
    )  # fmt: skip
    return Quote(
        place.title, (locator_for(document, heading), locator_for(document, candidate.sentence))
    )
