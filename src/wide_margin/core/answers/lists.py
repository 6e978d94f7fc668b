"""Lists: the items that a sentence introduces or belongs to."""

from __future__ import annotations

import re
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.answers.model import Quote
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex
from wide_margin.core.lexicon import number_words
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

LONGEST = 115
"""No answer has more words, list and all."""
MAX_LIST_WORDS = 50
"""The items that follow on a sentence are quoted up to this."""
MAX_ITEMS = 60
"""Sentences that are looked at for the items of one list."""
FEWEST_DESCRIBED = 2
"""Terms with a description each that are a list."""
FEWEST_UNMARKED, LINE_WORDS = 3, 6
"""Lines without bullets that make a list, and words that each has at most."""
MOST_COUNTED = 9
"""Things of which a sentence says how many there are, to be found as lines under it."""
SHORT_LIST = 80
"""Words of a list, at most, that is not cut."""
_TO_COME = regex(
    r"\b(?:listed|given|shown|described) below\.$|\bas follows\.$|\bthe following\.?$", re.I
)
"""Ends a sentence that leads in to what comes, without a colon."""
SHORTEST_ITEM = 8
"""Words that are left at least of an item where a long list is cut."""


MOST_BETWEEN = 3
"""Sentences that may stand between a sentence and the list that it leads in to."""


def items_after(document: ReadDocument, row: int, used: set[int], limit: int) -> list[Quote]:
    """The items of the list that a sentence introduces or belongs to, so many words of them.

    Where all of them have more words, each is cut: a reader wants to see how many there are. A
    list of hardly more than is usual is quoted whole, since a cut item may lack the answer.

    Args:
        document: It.
        row: Of the sentence.
        used: Rows that are quoted; those of the items are added.
        limit: Words, MAX_LIST_WORDS as a rule.
    """
    sentences = document.text.sentences
    rows = list_after(document, row)
    firsts = [r for k, r in enumerate(rows) if not k or _begins_item(document, r)]
    whole = sum(len(sentences[r].text.split()) for r in rows)
    is_short = whole <= (SHORT_LIST if limit == MAX_LIST_WORDS else limit)
    shown = rows if is_short else firsts[: limit // SHORTEST_ITEM]
    most = LONGEST if is_short or not shown else max(SHORTEST_ITEM, limit // len(shown))
    used.update(shown)
    return [_item(document, r, most) for r in shown]


def list_after(document: ReadDocument, row: int) -> list[int]:
    """Rows of the items that a sentence leads in to, or that follow an item."""
    sentences = document.text.sentences
    introduces = leads_in(sentences[row].text) or _breaks_off(document, row)
    if labels := labels_after(document, row):
        return labels
    if not introduces and sentences[row].kind != "item":
        return []
    if introduces and len(unmarked := _unmarked_after(document, row)) >= FEWEST_UNMARKED:
        return unmarked
    if introduces and len(described := _described_after(document, row)) >= FEWEST_DESCRIBED:
        return described
    rows: list[int] = []
    for after in range(row + 1, min(row + MAX_ITEMS, len(sentences))):
        sentence = sentences[after]
        if sentence.section != sentences[row].section or sentence.kind == "heading":
            break
        if sentence.kind in ("item", "row", "entry"):
            rows.append(after)
        elif rows and _is_within(document, rows[0], after):
            continue
        elif rows or not introduces or sentence.kind == "code" or after - row > MOST_BETWEEN:
            break
    return rows


def leads_in(text: str) -> bool:
    """Whether a sentence says that something is to come right after it."""
    return text.endswith(":") or _TO_COME.search(text) is not None


def _breaks_off(document: ReadDocument, row: int) -> bool:
    """Whether a sentence goes on in the items after it: "The set consists of" and two of them."""
    sentences = document.text.sentences
    if row + 1 == len(sentences) or sentences[row].kind != "body":
        return False
    return sentences[row].text[-1:].isalnum() and sentences[row + 1].kind == "item"


def _is_within(document: ReadDocument, item: int, row: int) -> bool:
    """Whether what stands after an item belongs to it or to its page: set in further, or a note."""
    sentences, paragraphs = document.text.sentences, document.paragraphs
    bullet, line = (paragraphs[sentences[k].paragraph].pieces[0].line for k in (item, row))
    return sentences[row].kind == "note" or line.box[0] > bullet.box[0] + bullet.size / 2


def labels_after(document: ReadDocument, row: int) -> list[int]:
    """Rows of the short lines, each over a text of its own, of which a sentence says how many.

    "There are three grades of rope." with "Grade A", "Grade B" and "Grade C" over what each is.
    """
    sentences, paragraphs = document.text.sentences, document.paragraphs
    said = sentences[row]
    counts = _counts_in(said.text, document.index.language)
    if not counts or said.kind != "body" or not _ends_paragraph(document, row):
        return []
    rows: list[int] = []
    for after in range(row + 1, min(row + MAX_ITEMS, len(sentences))):
        line = sentences[after]
        if line.section != said.section:
            break
        if line.kind == "body" and _is_label(paragraphs[line.paragraph].text):
            rows.append(after)
        elif not rows:
            break
        if len(rows) > max(counts):
            break
    apart = all(b - a > 1 for a, b in pairwise([*rows, len(sentences)]))
    return rows if len(rows) in counts and apart else []


def _counts_in(text: str, language: str) -> frozenset[int]:
    """The numbers of a few things that a sentence has, in figures or in words of a language."""
    named = number_words(language)
    said = (int(word) if word.isdecimal() else named.get(word, 0) for word in words(text.lower()))
    return frozenset(n for n in said if FEWEST_DESCRIBED <= n <= MOST_COUNTED)


def _is_label(text: str) -> bool:
    return len(text.split()) <= LINE_WORDS and text[-1:] not in ".,;:?!" and text[:1].isupper()


def _ends_paragraph(document: ReadDocument, row: int) -> bool:
    sentences = document.text.sentences
    return row + 1 < len(sentences) and sentences[row + 1].paragraph != sentences[row].paragraph


def _described_after(document: ReadDocument, row: int) -> list[int]:
    """Rows of the terms, each on a line of its own, that are described one after the other."""
    sentences, terms = document.text.sentences, document.text.terms
    rows: list[int] = []
    for after in range(row + 1, min(row + MAX_ITEMS, len(sentences) - 1)):
        said, following = sentences[after], sentences[after + 1]
        if said.section != sentences[row].section:
            break
        if following.term >= 0 and terms[following.term].paragraph == said.paragraph:
            rows.append(after)
        elif not rows or said.term != sentences[rows[-1] + 1].term:
            break
    return rows


def _unmarked_after(document: ReadDocument, row: int) -> list[int]:
    """Rows of the short lines, each by itself, that stand under a sentence without bullets."""
    sentences = document.text.sentences
    rows: list[int] = []
    for after in range(row + 1, min(row + MAX_ITEMS, len(sentences))):
        said, before = sentences[after], sentences[after - 1]
        is_line = said.kind == "body" and said.paragraph == before.paragraph + 1
        is_line &= said.section == sentences[row].section
        if not is_line or len(said.text.split()) > LINE_WORDS or said.text[-1] in ".:?!":
            break
        rows.append(after)
    return rows


def _begins_item(document: ReadDocument, row: int) -> bool:
    """Whether a sentence is the first of its item."""
    sentences = document.text.sentences
    return sentences[row].paragraph != sentences[row - 1].paragraph


def _item(document: ReadDocument, row: int, most: int) -> Quote:
    """An item of a list, cut after so many words."""
    parts = document.text.sentences[row].text.split()
    text = " ".join(parts) if len(parts) <= most else " ".join(parts[: most - 1]) + " …"
    return Quote(text, (locator_for(document, row),))
