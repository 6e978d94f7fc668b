"""Answers from the cells of tables: by row and column, and the largest or smallest of a column."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Set
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers.model import Quote
from wide_margin.core.document import Locator, Table, find_tables
from wide_margin.core.document.tables import VALUE
from wide_margin.core.later import regex
from wide_margin.core.layout import tidy
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.document import Cell, ReadDocument
    from wide_margin.core.search import Query

COVERED = 0.75
"""Share of the question's weight that row, column and caption must hold for a cell to answer."""
MOST_CELLS = 2
LEAST_VALUES = 3
"""So many cells have the largest or smallest of them worth telling."""
_MOST = regex(
    r"\b(?:largest|highest|greatest|biggest|longest|most|maximum|best|tallest|deepest)\b", re.I
)
_LEAST = regex(r"\b(?:smallest|lowest|least|shortest|fewest|minimum|worst|shallowest)\b", re.I)
_SORT = regex(r"\b(?:which|what)\s+(?:of\s+the\s+)?([^\W\d_]{3,})", re.I)
"""What sort of thing is asked for."""
_COUNTED = regex(r"\bhow many\b|\bnumber of\b", re.I)
_COUNTS = ("number", "count", "no", "quantity")
"""Words of a head or a label that "how many" asks for."""
_HOLDERS = frozenset(["data", "dataset", "set", "table", "column", "row", "line", "entry"])
"""What a question may call that of which a head or a label tells: "the depth of the wet data"."""
_TIMES = {"k": 1e3, "K": 1e3, "M": 1e6, "bn": 1e9}
"""What a letter behind a number makes of it; "m" is the metre."""
_TOTALS = squashed("total")


_Value = tuple[float, int]
"""A number, and the row that it stands in."""


@dataclass(frozen=True, slots=True)
class _Found:
    """A cell with what speaks for it."""

    covered: float
    table: Table
    row: int
    column: int
    key: int = 0
    """The column of the row by which the question names it."""


def answer_from_cells(document: ReadDocument, text: str, query: Query) -> tuple[Quote, ...]:
    """The cells that a question names by their row and column; none where it names none clearly.

    Args:
        document: Where the tables are.
        text: The question.
        query: Its terms.
    """
    extreme = max if _MOST.search(text) else min if _LEAST.search(text) else None
    told = {found[0].lower() for found in (*_MOST.finditer(text), *_LEAST.finditer(text))}
    asked = {t.word: t.weight for t in query.terms if not t.is_aside and t.word not in told}
    if len(others := {w: weight for w, weight in asked.items() if w not in _HOLDERS}) > 1:
        asked = others
    if not asked or not any(c.isalpha() for c in text):
        return ()
    stems = {_stem(document, word): weight for word, weight in asked.items()}
    total = sum(stems.values())
    sorted_by = _SORT.search(text) if extreme is not None else None
    sort = sorted_by[1].lower() if sorted_by else ""
    free = {_stem(document, word) for word in _COUNTS} if _COUNTED.search(text) else set()
    found: list[_Found] = []
    for table, around, heads, labels in _worded(document):
        if extreme is not None:
            # "Which station": what is compared need not be named in the table.
            near = around | ({_stem(document, sort)} if sort else set())
            found += _extremes(table, heads, near, stems, total, extreme)
            found += _extremes_across(table, labels, heads[0] | near, stems, total, extreme)
            continue
        keys = _keys(table, text)
        for k, row in enumerate(table.rows[table.n_head :], start=table.n_head):
            if keys:
                found += _by_keys(table, k, keys, heads, around, stems)
                continue
            label = labels[k] - free
            if not label or not label <= set(stems):
                continue
            for column in range(1, len(row)):
                own = heads[column] & set(stems) - label
                if not row[column].text or not (own or len(row) == 2):
                    continue
                held = sum(stems[s] for s in (label | own | heads[0] | around) & set(stems))
                found.append(_Found(held / total, table, k, column))
    best = max((f.covered for f in found), default=0.0)
    chosen = [f for f in found if f.covered >= COVERED and f.covered > best - 1e-6]
    typed = {word.strip(".,;:?!()“”\"'") for word in text.split()}
    chosen = [
        f for f in chosen if f.table.rows[f.row][f.key].text in typed
    ] or chosen  # "-1", not "1"
    if not chosen or len(chosen) > MOST_CELLS:
        return ()
    return tuple(_quote(document, f) for f in chosen)


def compares(text: str) -> bool:
    """Whether a question asks for the largest or the smallest of something."""
    return _MOST.search(text) is not None or _LEAST.search(text) is not None


def _keys(table: Table, text: str) -> dict[int, str]:
    """The columns by whose head a question names a number, and that: "at quality 9"."""
    found = {}
    for column, head in enumerate(table.heads):
        either = "|".join(re.escape(word) for word in words(head) if not is_common(word, "en"))
        named = (
            re.search(rf"\b(?:{either})\s+(?:of\s+)?(\d{{1,6}})\b", text, re.I) if either else None
        )
        if named and any(_has_number(row[column].text, named[1]) for row in table.rows):
            found[column] = named[1]
    return found


def _by_keys(
    table: Table, row: int, keys: dict[int, str], heads: list[frozenset[str]], around: Set[str],
    stems: dict[str, float],
) -> list[_Found]:  # fmt: skip
    """Cells of a row that is named by a number in one of its columns."""
    found, cells, total = [], table.rows[row], sum(stems.values())
    for key, number in keys.items():
        if not _has_number(cells[key].text, number):
            continue
        for column, other in enumerate(cells):
            own = heads[column] & set(stems) - heads[key]
            if column in (0, key) or not own or not other.text:
                continue
            held = sum(
                stems[s] for s in (heads[key] | heads[0] | own | around | {number}) & set(stems)
            )
            found.append(_Found(held / total, table, row, column, key))
    return found


def _has_number(text: str, number: str) -> bool:
    """Whether a cell holds a number, by itself or within a span: "7-8"."""
    span = _SPAN.fullmatch(text)
    if span is None:
        return text == number
    return int(span["first"]) <= int(number) <= int(span["last"])


_NUMBER = regex(r"[-−]?\d[\d,.]*(?:\s?[-–]\s?\d[\d,.]*)?")
_SPAN = regex(r"(?P<first>\d{1,6})\s?[-–]\s?(?P<last>\d{1,6})")


def _extremes(
    table: Table, heads: list[frozenset[str]], around: Set[str],
    stems: dict[str, float], total: float, extreme: Callable[[Iterable[_Value]], _Value],
) -> list[_Found]:  # fmt: skip
    found = []
    for column in range(1, len(table.heads)):
        own = heads[column] & set(stems)
        held = sum(stems[s] for s in (own | heads[0] | around) & set(stems))
        values = [
            (value, k)
            for k, row in enumerate(table.rows[table.n_head :], start=table.n_head)
            if bare(row[0].text) not in _TOTALS and (value := _value(row[column])) is not None
        ]
        if own and len(values) >= LEAST_VALUES and held / total >= COVERED:
            found.append(_Found(held / total, table, extreme(values)[1], column))
    return found


def _extremes_across(
    table: Table, labels: list[frozenset[str]], around: Set[str],
    stems: dict[str, float], total: float, extreme: Callable[[Iterable[_Value]], _Value],
) -> list[_Found]:  # fmt: skip
    """The same of a row, where the columns are what is compared."""
    found = []
    for k, row in enumerate(table.rows[table.n_head :], start=table.n_head):
        own = labels[k] & set(stems)
        held = sum(stems[s] for s in (own | around) & set(stems))
        values = [
            (value, column)
            for column, (head, cell) in enumerate(zip(table.heads, row, strict=True))
            if column and bare(head) not in _TOTALS and (value := _value(cell)) is not None
        ]
        if own and len(values) >= LEAST_VALUES and held / total >= COVERED:
            found.append(_Found(held / total, table, k, extreme(values)[1]))
    return found


def _value(cell: Cell) -> float | None:
    """The number in a cell; None where it holds something else."""
    match = VALUE.fullmatch(cell.text)
    if match is None:
        return None
    number = float(match["number"].replace(",", "").replace("−", "-"))
    return number * _TIMES.get(match["unit"], 1.0)


class _Worded(NamedTuple):
    """A table with the stems of its caption, of each head, and of the label of each row."""

    table: Table
    around: frozenset[str]
    heads: list[frozenset[str]]
    labels: list[frozenset[str]]


@lru_cache(maxsize=2)
def _worded(document: ReadDocument) -> tuple[_Worded, ...]:
    return tuple(
        _Worded(
            table, _stems(document, _caption(document, table)),
            [_stems(document, head) for head in table.heads],
            [_stems(document, row[0].text) for row in table.rows],
        )
        for table in find_tables(document.paragraphs)
        if table.n_head and len(table.rows[0]) > 1 and table.page not in document.listings
    )  # fmt: skip


def _caption(document: ReadDocument, table: Table) -> str:
    return tidy(document.paragraphs[table.caption].text) if table.caption is not None else ""


def _stem(document: ReadDocument, word: str) -> str:
    return (document.index.analyser.terms_of(word) or (word,))[0]


def _stems(document: ReadDocument, text: str) -> frozenset[str]:
    language = document.index.language
    return frozenset(_stem(document, w) for w in words(text) if not is_common(w, language))


def _quote(document: ReadDocument, found: _Found) -> Quote:
    table = found.table
    row = table.rows[found.row]
    head, cell = table.heads[found.column], row[found.column]
    key, label = table.heads[found.key], row[found.key].text
    if key and _NUMBER.fullmatch(label):
        label = f"{key} {label}"  # "Quality 9", which says more than "9"
    before = f"{label} — {head}: " if head else f"{label}: "
    text = before + cell.text
    caption = _caption(document, table)
    said = f"{text} ({caption})" if caption else text
    spans = (*row[found.key].spans, *cell.spans)
    page = spans[0].page if spans else table.page
    section = document.outline.at_paragraph(table.paragraphs[0])
    place = Locator(page, document.labels.of(page), spans, document.path_at(section), _words(row))
    return Quote(said, (place,), emphasis=((len(before), len(text)),))


def _words(row: tuple[Cell, ...]) -> str:
    return " ".join(cell.text for cell in row if cell.text)
