"""One line for every section: the sentence that says most of what it is about."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.digest.gist import GistLine, gist_lines
from wide_margin.core.digest.roles import OUTLINES

if TYPE_CHECKING:
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.document import ReadDocument

FIRST, EARLY = 0.45, 0.25
"""What counts for the first sentence of a section, and for its first paragraph."""
OF_TITLE = 0.5
"""What each share of the title's words counts."""
LONG = 45
"""Words from which on a line is too long for a list."""


@dataclass(frozen=True, slots=True)
class SectionLine:
    """A section and the line that stands for it; None where it has no sentence of its own."""

    section: int
    line: GistLine | None


def section_lines(document: ReadDocument, scored: Scored) -> tuple[SectionLine, ...]:
    """A line for every section of the outline, parts and chapters from what stands in them."""
    sentences = document.text.sentences
    own: list[list[int]] = [[] for _ in document.outline.sections]
    for row, sentence in enumerate(sentences):
        if sentence.section >= 0 and np.isfinite(scored.prior[row]):
            own[sentence.section].append(row)
    children: list[list[int]] = [[] for _ in own]
    for section, parent in enumerate(document.outline.parents):
        if parent >= 0:
            children[parent].append(section)
    best = [_best(document, scored, rows, k) for k, rows in enumerate(own)]
    for section in range(len(own) - 1, -1, -1):
        if best[section] is None:  # a part without text of its own speaks through its chapters
            below = [best[child] for child in children[section] if best[child] is not None]
            rows = [row for row in below if row is not None]
            best[section] = _best(document, scored, rows, section)
    return tuple(
        SectionLine(k, gist_lines(document, [row])[0] if row is not None else None)
        for k, row in enumerate(best)
    )


def _best(document: ReadDocument, scored: Scored, rows: Sequence[int], section: int) -> int | None:
    if not rows:
        return None
    index = document.index
    title = {
        number for word in index.analyser.terms(document.outline.sections[section].title)
        if (number := index.term_ids.get(word)) is not None
    }  # fmt: skip
    first = rows[0]
    paragraph = document.text.sentences[first].paragraph

    def worth(row: int) -> float:
        sentence = document.text.sentences[row]
        terms = set(scored.terms[row].tolist())
        value = float(scored.prior[row]) + FIRST * (row == first)
        value += EARLY * (sentence.paragraph == paragraph)
        value += OF_TITLE * len(terms & title) / max(len(title), 1)
        value += 0.2 * bool(OUTLINES.search(sentence.text))
        return value - 0.3 * float(scored.n_words[row] > LONG)

    return max(rows, key=lambda row: (worth(row), -row))
