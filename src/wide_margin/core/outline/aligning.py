"""Matching two lists of titles that follow the same document in the same order."""

from __future__ import annotations

from bisect import bisect_left
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.later import loaded_later
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.outline.titles import ALIKE, bare, forms_of, similarity

if TYPE_CHECKING:
    import numpy as np
else:
    np = loaded_later("numpy")


NEAR = 4
"""Pages within which titles that are not equal letter by letter are compared."""
SAME_PLACE = 0.6
"""Worth of two different titles at one place: less than any likeness of titles, more than none."""
SAME_NUMBER = 0.7
"""Worth of two different titles with one number."""
MAX_CELLS = 2_000_000


class Named(NamedTuple):
    """A title with the place that its list gives it."""

    title: str
    page: int | None
    y: float | None = None


def align(first: Sequence[Named], second: Sequence[Named]) -> list[tuple[int, int]]:
    """Pairs of indexes (in first, in second) that name the same section, in rising order.

    Titles that stand once in either list are paired first and the longest run of pairs in
    order is kept; what lies between two of them is matched by dynamic programming over
    likeness of titles, equal numbers and equal places.

    Source:
        Anchors as in patience sorting (longest increasing subsequence); between them global
        sequence alignment (Needleman and Wunsch, 1970) without a penalty for gaps.
    """
    anchors = _anchors(first, second)
    pairs: list[tuple[int, int]] = []
    at_first = at_second = 0
    for i, j in [*anchors, (len(first), len(second))]:
        pairs += _between(first, second, range(at_first, i), range(at_second, j))
        if i < len(first):
            pairs.append((i, j))
        at_first, at_second = i + 1, j + 1
    return pairs


def _anchors(first: Sequence[Named], second: Sequence[Named]) -> list[tuple[int, int]]:
    keys_a = [_key(item.title) for item in first]
    keys_b = [_key(item.title) for item in second]
    n_a, n_b = Counter(keys_a), Counter(keys_b)
    where = {key: j for j, key in enumerate(keys_b)}
    candidates = [
        (i, where[key]) for i, key in enumerate(keys_a)
        if key and n_a[key] == 1 and n_b[key] == 1
    ]  # fmt: skip
    return _longest_rising(candidates)


def _key(title: str) -> str:
    number = number_of(title)
    return f"{number.identifier} {bare(title)}" if number else bare(title)


def _longest_rising(pairs: Sequence[tuple[int, int]]) -> list[tuple[int, int]]:
    """The longest subsequence whose second indexes rise; pairs come in order of the first."""
    tails: list[int] = []
    at_tail: list[int] = []
    before = [-1] * len(pairs)
    for k, (_, j) in enumerate(pairs):
        at = bisect_left(tails, j)
        before[k] = at_tail[at - 1] if at else -1
        if at == len(tails):
            tails.append(j)
            at_tail.append(k)
        else:
            tails[at], at_tail[at] = j, k
    chain = []
    k = at_tail[-1] if at_tail else -1
    while k >= 0:
        chain.append(pairs[k])
        k = before[k]
    return chain[::-1]


def _between(
    first: Sequence[Named], second: Sequence[Named], rows: range, columns: range
) -> list[tuple[int, int]]:
    if not rows or not columns or len(rows) * len(columns) > MAX_CELLS:
        return []
    worth = np.zeros((len(rows), len(columns)))
    by_form: dict[str, list[int]] = {}
    for b, j in enumerate(columns):
        for form in forms_of(second[j].title):
            by_form.setdefault(form, []).append(b)
    by_page: dict[int, list[int]] = {}
    by_number: dict[str, list[int]] = {}
    for b, j in enumerate(columns):
        if (page := second[j].page) is not None:
            by_page.setdefault(page, []).append(b)
        if (number := number_of(second[j].title)) is not None:
            by_number.setdefault(number.identifier, []).append(b)
    for a, i in enumerate(rows):
        item = first[i]
        near = {b for form in forms_of(item.title) for b in by_form.get(form, ())}
        if item.page is not None:
            for page in range(item.page - NEAR, item.page + NEAR + 1):
                near.update(by_page.get(page, ()))
        if (number := number_of(item.title)) is not None:
            near.update(by_number.get(number.identifier, ()))
        for b in near:
            worth[a, b] = _worth(item, second[columns[b]])
    return [(rows[a], columns[b]) for a, b in _best_path(worth)]


def _worth(a: Named, b: Named) -> float:
    """How far two items are taken for one section, 0 for not at all."""
    far = abs(a.page - b.page) if a.page is not None and b.page is not None else 1
    number_a, number_b = number_of(a.title), number_of(b.title)
    numbers_differ = (
        number_a is not None and number_b is not None
        and number_a.identifier != number_b.identifier
    )  # fmt: skip
    likeness = similarity(a.title, b.title)
    if likeness >= ALIKE:
        # Far from each other or numbered otherwise, they may be two sections of one name.
        return max(likeness - 0.02 * min(far, 10) - 0.25 * numbers_differ, 0.05)
    if numbers_differ:
        return 0.0
    if number_a is not None and number_b is not None and far <= NEAR:
        return SAME_NUMBER - 0.02 * far
    if far == 0 and a.y is not None and b.y is not None and abs(a.y - b.y) < 24.0:
        return SAME_PLACE
    return 0.0


def _best_path(worth: np.ndarray) -> list[tuple[int, int]]:
    """The pairs of a path through a matrix that adds up to the most."""
    n, m = worth.shape
    best = np.zeros((n + 1, m + 1))
    for a in range(n):
        row = np.maximum(best[a, 1:], best[a, :-1] + worth[a])
        best[a + 1, 1:] = np.maximum.accumulate(row)
    pairs = []
    a, b = n, m
    while a and b:
        if best[a, b] == best[a - 1, b]:
            a -= 1
        elif best[a, b] == best[a, b - 1]:
            b -= 1
        else:
            a, b = a - 1, b - 1
            if worth[a, b] > 0:
                pairs.append((a, b))
    return pairs[::-1]
