"""One line for every section: the sentence that says most of what it is about; a part by these."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.digest.gist import GistLine, choose, gist_lines
from wide_margin.core.digest.roles import OUTLINES
from wide_margin.core.explain.verbs import seems_to_have_verb
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.document import ReadDocument

FIRST, EARLY = 0.45, 0.25
"""What counts for the first sentence of a section, and for its first paragraph."""
OF_TITLE = 0.5
"""What each share of the title's words counts."""
OF_LITTLE = 0.8
"""More than the first place counts: what is taken off where a sentence sends the reader elsewhere, or
hangs on another."""
_SAYS_LITTLE = regex(
    r"(?<![\[(“\"‘<])(?:https?://|\bwww\.)|^(?:(?:otherwise|note|notice|remember|check|see|finally|secondly|thirdly|likewise|similarly)\b"
    r"|(?:in case|in particular|for (?:example|instance|more|a complete|details)|in this case|in these)\b)", re.I
)  # fmt: skip
PART_WORDS, ENOUGH = 130, 0.5
"""Words that tell a part where no length is asked for, and the share of them that is enough."""
FEWEST = 3
"""Sections, its own introduction among them, that a part is told by."""
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


def rows_of_part(
    document: ReadDocument, scored: Scored, rows: Sequence[int], *, n_words: int, n_sentences: int
) -> list[int]:
    """Rows that say most of a part: how it is introduced, what each of its sections is about, more.

    Chosen among all of them alike, most would be of whatever section has the weightiest words.

    Args:
        document: As read.
        scored: Of the whole document.
        rows: Those of the part.
        n_words: At most so many words; 0 for no limit. With neither it is as long as it needs to be.
        n_sentences: At most so many sentences; 0 for no limit.
    """
    is_free = not n_words and not n_sentences
    n_words = PART_WORDS if is_free else n_words
    intro, leads = _leads(document, scored, rows)
    if len(leads) < FEWEST:
        return choose(scored, rows, n_words=n_words, n_sentences=n_sentences)
    n_told = sum(int(scored.n_words[row]) for row in leads)
    if is_free and ENOUGH * n_words <= n_told <= n_words:
        return leads
    if (n_words and n_told > n_words) or (n_sentences and len(leads) > n_sentences):
        among, first = leads, [r for r in intro if not n_words or scored.n_words[r] <= n_words]
    else:
        said = document.text.sentences
        among, first = [r for r in rows if not _SAYS_LITTLE.search(said[r].text)], leads
    return choose(scored, among, n_words=n_words, n_sentences=n_sentences, first=first)


def _leads(
    document: ReadDocument, scored: Scored, rows: Sequence[int]
) -> tuple[list[int], list[int]]:
    """The row that says most of a part's own text; that and those of its sections, as they come."""
    sentences, parents = document.text.sentences, document.outline.parents
    is_english = document.index.language == "en"
    around: dict[int, list[int]] = {}
    for section in {sentences[row].section for row in rows}:
        chain = [section]
        while chain[-1] >= 0:
            chain.append(parents[chain[-1]])
        around[section] = chain[::-1]
    chains = list(around.values())
    shared = 0
    while all(len(chain) > shared for chain in chains) and len({c[shared] for c in chains}) == 1:
        shared += 1
    groups: dict[int, list[int]] = {}
    own = chains[0][shared - 1] if shared else -1
    for row in rows:
        chain = around[sentences[row].section]
        if not np.isfinite(scored.prior[row]):
            continue
        if not is_english or seems_to_have_verb(sentences[row].text):
            groups.setdefault(chain[min(shared, len(chain) - 1)], []).append(row)
    best = {section: _best(document, scored, some, section) for section, some in groups.items()}
    leads = sorted(row for row in best.values() if row is not None)
    return [row for row in leads if row == best.get(own)], leads


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
        value -= OF_LITTLE * bool(_SAYS_LITTLE.search(sentence.text))
        return value - 0.3 * float(scored.n_words[row] > LONG)

    return max(rows, key=lambda row: (worth(row), -row))
