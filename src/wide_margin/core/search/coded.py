"""Texts as numbers: the words of many texts, each known by where it stands in a list of words."""

from __future__ import annotations

from array import array
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import count

import numpy as np

from wide_margin.core.geometry import IntArray
from wide_margin.core.search.analysis import find_words


@dataclass(frozen=True, slots=True, eq=False)
class Coded:
    """The words of t texts, in small letters."""

    texts: tuple[str, ...]
    words: tuple[str, ...]
    """Each once, in the order in which they first stand."""
    numbers: IntArray
    """Words of all texts, one after the other, by their places in ``words``."""
    starts: IntArray
    """(t + 1,) where each text starts in numbers."""


def code(texts: Sequence[str]) -> Coded:
    """Number the words of some texts."""
    known = defaultdict[str, int](count().__next__)
    numbers, starts = array("i"), array("i", [0])
    for text in texts:
        numbers.extend([known[word] for word in find_words(text.lower())])
        starts.append(len(numbers))
    return Coded(tuple(texts), tuple(known), as_array(numbers), as_array(starts))


def code_all(texts: Sequence[str], before: Coded | None) -> Coded:
    """Number the words of some texts, of which some have been before.

    Args:
        texts: t texts.
        before: Some of them, and others; None where none has been.

    Returns:
        What ``code`` gives of the texts alone.
    """
    if before is None:
        return code(texts)
    at = {text: k for k, text in enumerate(before.texts)}
    rest = code([text for text in texts if text not in at])
    n_rest = len(rest.words)
    known = defaultdict(count(n_rest).__next__, zip(rest.words, range(n_rest), strict=True))
    renumbered = np.array([known[word] for word in before.words], dtype=np.int32)
    pool = np.concatenate((rest.numbers, renumbered[before.numbers]))
    lengths = np.concatenate((np.diff(rest.starts), np.diff(before.starts)))
    starts = np.concatenate((rest.starts[:-1], before.starts[:-1] + len(rest.numbers)))
    new = iter(range(len(rest.texts)))
    rows = np.array(
        [len(rest.texts) + at[text] if text in at else next(new) for text in texts], dtype=np.int64
    )
    numbers = pool[places(starts[rows], lengths[rows])]
    ends = np.concatenate(([0], np.cumsum(lengths[rows]))).astype(np.int32)
    return _in_order(Coded(tuple(texts), tuple(known), numbers, ends))


def _in_order(coded: Coded) -> Coded:
    """The same with the words in the order in which they first stand, and none that does not."""
    n = len(coded.numbers)
    first = np.full(len(coded.words), n)
    first[coded.numbers[::-1]] = np.arange(n)[::-1]  # of several the last one, here the first
    order = np.argsort(first, kind="stable")[: np.count_nonzero(first < n)]
    place = np.zeros(len(coded.words), dtype=np.int32)
    place[order] = np.arange(len(order))
    words = tuple(coded.words[k] for k in order.tolist())
    return Coded(coded.texts, words, place[coded.numbers], coded.starts)


def as_array(numbers: array[int]) -> IntArray:
    """(n,) int32 of an array of C integers, sharing its memory."""
    return np.frombuffer(numbers, dtype=np.int32) if numbers else np.zeros(0, np.int32)


def places(starts: IntArray, lengths: IntArray) -> IntArray:
    """All places of some ranges, one range after the other.

    Args:
        starts: (k,) where they begin.
        lengths: (k,) how long they are.
    """
    before = np.cumsum(lengths) - lengths
    found: IntArray = np.arange(int(lengths.sum())) + np.repeat(starts - before, lengths)
    return found
