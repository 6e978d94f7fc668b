"""Boosted decision trees, grown elsewhere: adding up what they say of rows of signs."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.shipped import json_of

AT_ONCE = 4096
"""Rows that are looked at together: what is known of them stays in the processor's cache."""


@dataclass(frozen=True, slots=True, eq=False)
class Trees:
    """Trees with t nodes in all; each node has a sign and a threshold, or is a leaf.

    Source:
        Friedman 2001, gradient boosting; log odds are the start plus the leaves reached.
    """

    names: tuple[str, ...]
    """Of the signs, in the order of the columns."""
    start: float
    """Log odds before any tree is asked."""
    roots: IntArray
    """(trees,) node at which each begins."""
    sign: IntArray
    """(t,) column, -1 for a leaf."""
    threshold: FloatArray
    """(t,) rows at most this go left."""
    left: IntArray
    """(t,) node that goes on where a row is at most the threshold; a leaf's says nothing."""
    right: IntArray
    """(t,) the other one."""
    value: FloatArray
    """(t,) what a leaf adds to the log odds."""

    def log_odds(self, signs: FloatArray) -> FloatArray:
        """(n,) for (n, len(names)) rows; tree by tree, some rows a level at a time."""
        total = np.full(len(signs), self.start)
        for first in range(0, len(signs), AT_ONCE):
            self._add(signs[first : first + AT_ONCE], total[first : first + AT_ONCE])
        return total

    def _add(self, signs: FloatArray, total: FloatArray) -> None:
        """Add to (n,) totals what all trees say of (n, len(names)) rows."""
        n, width = signs.shape
        flat, before = np.ascontiguousarray(signs).ravel(), np.arange(n) * width
        column = np.maximum(self.sign, 0)
        is_inner = self.sign >= 0
        for root in self.roots:
            at = np.full(n, root)
            while (inner := is_inner.take(at)).any():
                goes_left = flat.take(before + column.take(at)) <= self.threshold.take(at)
                after = np.where(goes_left, self.left.take(at), self.right.take(at))
                at = np.where(inner, after, at)
            total += self.value.take(at)


def read_trees(data: Mapping[str, Any]) -> Trees:
    """Trees from what a script of bench/ writes as JSON.

    Raises:
        KeyError: A part is missing.
    """
    return Trees(
        tuple(data["signs"]), float(data["start"]), np.array(data["roots"], np.int64),
        np.array(data["sign"], np.int64), np.array(data["threshold"], np.float64),
        np.array(data["left"], np.int64), np.array(data["right"], np.int64),
        np.array(data["value"], np.float64),
    )  # fmt: skip


@cache
def trees_named(name: str) -> Trees:
    """The trees in a file of the package's data, such as "heading-trees.json"."""
    return read_trees(json_of(name))
