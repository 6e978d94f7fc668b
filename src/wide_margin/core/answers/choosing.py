"""Choosing what is quoted: the best sentences, what they lean on, and no more than is wanted."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.candidates import LEANS, N_STATEMENTS, fitness
from wide_margin.core.answers.corrections import corrections_of, is_about_another
from wide_margin.core.answers.lists import (
    LONGEST,
    MAX_ITEMS,
    MAX_LIST_WORDS,
    items_after,
    list_after,
)
from wide_margin.core.answers.quoting import quote_rows
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers.candidates import Candidate
    from wide_margin.core.answers.model import Quote
    from wide_margin.core.answers.reading import Asked
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.search import Query

MAX_WORDS = 80
"""A quoted answer stops before this."""
FULL, FULL_LIST, FULL_BRIEF = 32, 60, 18
"""With so many words an answer has enough; one more sentence may be begun before. Sentences beside
the one that gives a number, date or name gave the answer no oftener on nineteen documents."""
BRIEF = frozenset({"who", "when", "how many", "how often"})
"""Kinds of questions that a few words answer."""
LEANING_WORDS = 60
"""A sentence that leans on the quoted one is quoted with it up to so many words."""
LONGEST_CODE = 24
"""What a sentence introduces in code is quoted up to so many words."""
NEAREST, NEAREST_WORDS, N_NEAR = 2, 110, 30
"""Where the best sentences are but perhaps the answer, as many more of their page are shown, so
many words in all, looked for among so many. On nineteen documents 27 of a thousand answers stand in
those; sentences of other pages would bring 5 more and lead astray in 24."""
FIT = 0.7
"""The least fitness, as a statement, of a further sentence."""
NOT_FAR = 6.0
"""How far behind the best a further sentence may be."""
BESIDE, OTHER_PAGE, OF_NEW = 2.0, 1.5, 8.0
"""What counts for a further sentence: standing beside, against: another page, for: new words."""
_FOLLOWS = regex(
    r"\b(?:therefore|thus|hence|consequently|accordingly|thereby|as a result|(?:that|this|which) is why"
    r"|for (?:this|that|these) reasons?|because of (?:this|that|these)|due to (?:this|that|these))\b", re.I
)  # fmt: skip
_GIVES_REASON = regex(
    r"^\W*(?:(?:the|one|a|another|its|their) (?:\w+ )?(?:reasons?|causes?|explanation)\b(?: for (?:this|that|it))? (?:is|are|was|were|lies)"
    r"|(?:this|that|it|which) (?:is|was) (?:mainly |mostly |partly |probably |simply )?(?:because|due to|caused by|since)\b|because\b"
    r"|der grund|das liegt|la raison|c['’]est (?:parce|que)|la razón|esto se debe)", re.I
)  # fmt: skip
"""Begins to say why what stands before it is so."""
SHORT_REASON = 8
"""Words; what gives a reason in fewer ("The reason is twofold.") goes on in the next sentence."""
ENDS = regex(r"[.!?][\"'”’)\]]*$")


def choose_quotes(
    document: ReadDocument,
    asked: Asked,
    query: Query,
    candidates: list[Candidate],
    *,
    unsure: bool = False,
) -> tuple[Quote, ...]:
    """The fewest sentences that answer, best first; a few more of the page where that is unsure."""
    question, form = asked.question, asked.form
    sentences = document.text.sentences
    statements = [c for c in candidates[:N_STATEMENTS] if sentences[c.sentence].kind != "heading"]
    if not statements:
        return ()
    best = statements[0]
    if question.kind == "list" or form.as_list:
        best = _introducing(document, best)
    rows = _chosen(document, asked, query, best, statements)
    if unsure and not form.max_words:
        rows = _with_nearest(document, rows, candidates)
    used = set(rows)
    corrections = corrections_of(document, best.sentence, query, used)
    corrected = [quote_rows(document, question, a, b) for a, b in _runs(sorted(corrections), -1)]
    quotes = [q for q in corrected if not is_about_another(q.text, question.text)]
    items: list[Quote] = []
    last, asks_list = max(_run_of(rows, best.sentence)), question.kind == "list" or form.as_list
    if asks_list and not list_after(document, last):
        leads = (row for row in rows if sentences[row].text.endswith(":"))
        last = next((row for row in leads if list_after(document, row)), last)
    if asks_list or question.kind == "how to" or sentences[last].text.endswith(":"):
        quoted = sum(len(sentences[row].text.split()) for row in rows)
        most = LONGEST if asks_list else MAX_LIST_WORDS
        items = items_after(document, last, used, min(most, LONGEST - quoted))
    for first, end in _runs(rows, best.sentence):
        quotes.append(quote_rows(document, question, first, end))
        if first <= last < end:
            quotes.extend(items)
    quotes += [q for q in corrected if q not in quotes]
    if form.max_words:
        return tuple(_fitted(quotes, form.max_words))
    while len(quotes) > 1 and sum(len(q.text.split()) for q in quotes) > LONGEST:
        quotes.pop()
    return tuple(quotes)


def _introducing(document: ReadDocument, item: Candidate) -> Candidate:
    """The sentence that introduces the list an item stands in; where there is none, the item."""
    sentences = document.text.sentences
    row = item.sentence
    while sentences[row].kind == "item" and row and item.sentence - row < MAX_ITEMS:
        row -= 1
        if sentences[row].section != sentences[item.sentence].section:
            return item
    if row < item.sentence and sentences[row].text.endswith(":"):
        return item._replace(sentence=row, page=sentences[row].page)
    return item


def _chosen(
    document: ReadDocument,
    asked: Asked,
    query: Query,
    best: Candidate,
    statements: list[Candidate],
) -> list[int]:
    """Rows of the sentences to quote: the best, then what goes on from it or adds to it.

    Sentences of the best page go before those of another, and one that stands beside a chosen
    one before one that does not: an answer is read in its place.
    """
    question, form = asked.question, asked.form
    sentences = document.text.sentences
    limit, most = form.max_words or MAX_WORDS, form.max_sentences or 4
    chosen = [best.sentence]
    listed = list_after(document, best.sentence)  # quoted as a list, not one by one
    if listed and (question.kind == "list" or form.as_list):
        return chosen
    if question.kind not in ("where", "who", "when", "how many"):
        chosen += _code_after(document, best.sentence)
    if most > 1:
        chosen += _leant_on(document, best.sentence, most - len(chosen), question.kind)
    left = [c for c in statements if c.sentence not in chosen and c.sentence not in listed]
    full = FULL_BRIEF if question.kind in BRIEF else FULL
    if question.kind in ("list", "how to") or form.as_list:
        full = FULL_LIST
    _add_further(document, query, best, chosen, left, full=full, limit=limit, most=most)
    after = max(_run_of(chosen, best.sentence)) + 1
    if question.kind == "why" and (reasons := _reason_after(document, after - 1)):
        chosen += reasons
    elif len(chosen) < most and after < len(sentences) and LEANS.match(sentences[after].text):
        # "They must not …" belongs to what it is about
        n_words = _words_in(document, [*chosen, after])
        fits = n_words <= min(LEANING_WORDS, limit) and after not in chosen
        if fits and _goes_with(document, after, best.sentence):
            chosen.append(after)
    return sorted(chosen)


def _with_nearest(
    document: ReadDocument, rows: list[int], candidates: list[Candidate]
) -> list[int]:
    """Sentences to quote and the next best of their pages."""
    sentences = document.text.sentences
    pages = {sentences[row].page for row in rows}
    texts = {sentences[row].text for row in rows}
    added: list[int] = []
    n_words = _words_in(document, rows)
    for candidate in candidates[:N_NEAR]:
        row = candidate.sentence
        said = sentences[row]
        if len(added) == NEAREST:
            break
        if said.page not in pages or said.text in texts or said.kind == "heading":
            continue
        length = _words_in(document, [row])
        if n_words + length <= NEAREST_WORDS and fitness(said) >= FIT:
            added.append(row)
            texts.add(said.text)
            n_words += length
    return sorted({*rows, *added})


def _reason_after(document: ReadDocument, row: int) -> list[int]:
    """The sentences after one that say why it is so."""
    sentences = document.text.sentences
    rows: list[int] = []
    for after in (row + 1, row + 2):
        if after >= len(sentences) or sentences[after].paragraph != sentences[row].paragraph:
            break
        text = sentences[after].text
        if not rows and not _GIVES_REASON.match(text):
            break
        rows.append(after)
        if len(text.split()) > SHORT_REASON:
            break
    return rows


def _leant_on(document: ReadDocument, row: int, most: int, kind: str) -> list[int]:
    """The one or two sentences before that a sentence leans on.

    Asked why, a sentence that tells what follows leans on the one that tells from what.
    """
    sentences = document.text.sentences
    rows: list[int] = []
    follows = kind == "why" and _FOLLOWS.search(sentences[row].text)
    if not (LEANS.match(sentences[row].text) or follows):
        return rows
    for before in (row - 1, row - 2):
        if before < 0 or not _goes_with(document, before, row):
            break
        rows.append(before)
        if len(rows) >= most or not LEANS.match(sentences[before].text):
            break  # what it leans on may lean itself
    return rows


def _add_further(
    document: ReadDocument,
    query: Query,
    best: Candidate,
    chosen: list[int],
    left: list[Candidate],
    *,
    full: int,
    limit: int,
    most: int,
) -> None:
    """Add sentences that hold what the chosen ones do not, until there is enough."""
    sentences = document.text.sentences
    n_words = _words_in(document, chosen)
    pages = {best.page}
    weights = np.array([term.weight for term in query.terms])
    total = float(weights.sum()) or 1.0
    covered = np.array(best.held)
    while left and len(chosen) < most and n_words < min(full, limit):
        gains = [float(weights @ np.maximum(np.array(c.held) - covered, 0)) / total for c in left]
        worths = [
            c.score
            + BESIDE * _is_beside(document, c.sentence, chosen)
            + OF_NEW * gain
            - OTHER_PAGE * (c.page not in pages)
            for c, gain in zip(left, gains, strict=True)
        ]
        candidate, worth = max(
            zip(left, worths, strict=True), key=lambda pair: (pair[1], -pair[0].sentence)
        )
        left.remove(candidate)
        length = _words_in(document, [candidate.sentence])
        if best.score - worth > NOT_FAR:
            break
        if n_words + length > min(limit, 1.8 * full):
            continue
        if fitness(sentences[candidate.sentence]) < FIT:
            continue
        chosen.append(candidate.sentence)
        covered = np.maximum(covered, candidate.held)
        pages.add(candidate.page)
        n_words += length


def _words_in(document: ReadDocument, rows: list[int]) -> int:
    return sum(len(document.text.sentences[row].text.split()) for row in rows)


def _code_after(document: ReadDocument, row: int) -> list[int]:
    """The lines of code that a sentence runs into: "They are created using", then the command."""
    sentences = document.text.sentences
    if ENDS.search(sentences[row].text):
        return []
    rows: list[int] = []
    n_words = 0
    for after in range(row + 1, min(row + 5, len(sentences))):
        n_words += len(sentences[after].text.split())
        if sentences[after].kind != "code" or n_words > LONGEST_CODE:
            break
        rows.append(after)
    return rows


def _is_beside(document: ReadDocument, row: int, chosen: list[int]) -> bool:
    """Whether a sentence follows or precedes a chosen one in the same passage."""
    return any(other in chosen and _goes_with(document, row, other) for other in (row - 1, row + 1))


def _goes_with(document: ReadDocument, row: int, other: int) -> bool:
    """Whether two sentences stand in one passage, neither a row of a table nor a footnote."""
    passage_of = document.index.sentence_passage
    kinds = {document.text.sentences[row].kind, document.text.sentences[other].kind}
    return bool(passage_of[row] == passage_of[other]) and not kinds & {"row", "note"}


def _run_of(rows: list[int], row: int) -> list[int]:
    """The consecutive rows that one of them belongs to."""
    first = end = row
    while first - 1 in rows:
        first -= 1
    while end + 1 in rows:
        end += 1
    return list(range(first, end + 1))


def _runs(rows: list[int], best: int) -> list[tuple[int, int]]:
    """Consecutive rows as [first, end), that of the best first."""
    runs: list[tuple[int, int]] = []
    for row in rows:
        if runs and runs[-1][1] == row:
            runs[-1] = runs[-1][0], row + 1
        else:
            runs.append((row, row + 1))
    return sorted(runs, key=lambda run: not run[0] <= best < run[1])


def _fitted(quotes: list[Quote], max_words: int) -> list[Quote]:
    """As many quotes as fit a number of words; the first is cut where it alone is longer."""
    kept: list[Quote] = []
    left = max_words
    for quote in quotes:
        parts = quote.text.split()
        if len(parts) <= left:
            kept.append(quote)
            left -= len(parts)
        elif not kept:
            text = " ".join(parts[: max_words - 1]) + " …"
            inside = tuple(e for e in quote.emphasis if e[1] < len(text) - 2)
            kept.append(replace(quote, text=text, emphasis=inside))
            break
    return kept
