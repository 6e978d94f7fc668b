"""Boosted decision trees, grown elsewhere: adding up what they say of rows of signs."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.shipped import json_of

AT_ONCE = 64
"""Rows that go down all trees together: what is known of them stays in the processor's cache."""


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
    """(t,) column; a leaf's says nothing."""
    threshold: FloatArray
    """(t,) rows at most this go left."""
    after: IntArray
    """(2 t,) for each node where a row goes on that is over the threshold, and one that is at most
    as much; from a leaf to itself."""
    depth: int
    """After so many steps every row is at a leaf."""
    value: FloatArray
    """(t,) what a leaf adds to the log odds."""

    def log_odds(self, signs: FloatArray) -> FloatArray:
        """(n,) for (n, len(names)) rows; some rows down all trees at once, a level at a time."""
        total = np.full(len(signs), self.start)
        for first in range(0, len(signs), AT_ONCE):
            self._add(signs[first : first + AT_ONCE], total[first : first + AT_ONCE])
        return total

    def _add(self, signs: FloatArray, total: FloatArray) -> None:
        """Add to (n,) totals what all trees say of (n, len(names)) rows."""
        n, width = signs.shape
        flat, before = np.ascontiguousarray(signs).ravel(), np.arange(n) * width
        at = np.repeat(self.roots[:, None], n, axis=1)
        for _ in range(self.depth):
            is_low = flat.take(before + self.sign.take(at)) <= self.threshold.take(at)
            at = self.after.take(2 * at + is_low)
        for of_tree in self.value.take(at):
            total += of_tree


def read_trees(data: Mapping[str, Any]) -> Trees:
    """Trees from what a script of bench/ writes as JSON.

    Raises:
        KeyError: A part is missing.
    """
    sign, roots = np.array(data["sign"], np.int64), np.array(data["roots"], np.int64)
    nodes = np.arange(len(sign))
    left, right = (
        np.where(sign < 0, nodes, np.array(data[side], np.int64)) for side in ("left", "right")
    )
    depth, level = 0, roots
    while (sign[level] >= 0).any():
        level = np.unique([left[level], right[level]])
        depth += 1
    return Trees(
        tuple(data["signs"]), float(data["start"]), roots, np.maximum(sign, 0),
        np.array(data["threshold"], np.float64), np.stack([right, left], axis=1).ravel(), depth,
        np.array(data["value"], np.float64),
    )  # fmt: skip


@cache
def trees_named(name: str) -> Trees:
    """The trees in a file of the package's data, such as "heading-trees.json"."""
    return read_trees(json_of(name))
