"""Postings: in which rows each term stands, and how often or how much."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray


@dataclass(frozen=True, slots=True, eq=False)
class Postings:
    """For t terms over r rows (sentences, passages or sections)."""

    n_rows: int
    starts: IntArray
    """(t + 1,) where the postings of each term start."""
    rows: IntArray
    """Rows, ascending for each term."""
    values: FloatArray
    """Counts or weights, beside the rows."""

    @classmethod
    def count(cls, terms: IntArray, rows: IntArray, n_terms: int, n_rows: int) -> Postings:
        """Count how often each term stands in each row; terms and rows are (n,) pairs."""
        keys = terms.astype(np.int64) * max(n_rows, 1) + rows
        unique, counts = np.unique(keys, return_counts=True)
        return cls._of(unique, counts.astype(np.float32), n_terms, n_rows)

    @classmethod
    def weigh(
        cls, terms: IntArray, rows: IntArray, weights: FloatArray, n_terms: int, n_rows: int
    ) -> Postings:
        """Postings with a given weight; no pair of term and row may come twice."""
        keys = terms.astype(np.int64) * max(n_rows, 1) + rows
        order = np.argsort(keys, kind="stable")
        return cls._of(keys[order], weights[order].astype(np.float32), n_terms, n_rows)

    @classmethod
    def _of(cls, keys: IntArray, values: FloatArray, n_terms: int, n_rows: int) -> Postings:
        width = max(n_rows, 1)
        starts = np.searchsorted(keys, np.arange(n_terms + 1, dtype=np.int64) * width)
        return cls(n_rows, starts, (keys % width).astype(np.int32), values)

    def of(self, term: int) -> tuple[IntArray, FloatArray]:
        """Rows that hold a term, and its values there."""
        start, end = self.starts[term], self.starts[term + 1]
        return self.rows[start:end], self.values[start:end]

    def held_by(self, term: int, rows: IntArray) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
        """(n,) whether each of some rows holds a term."""
        holding, _ = self.of(term)
        if not len(holding):
            return np.zeros(len(rows), dtype=bool)
        at = np.minimum(np.searchsorted(holding, rows), len(holding) - 1)
        result: np.ndarray[tuple[int], np.dtype[np.bool_]] = holding[at] == rows
        return result

    def counts_of(self, term: int, rows: IntArray) -> FloatArray:
        """(n,) the value of a term in each of some rows, 0 where they lack it."""
        holding, values = self.of(term)
        if not len(holding):
            return np.zeros(len(rows), np.float32)
        at = np.minimum(np.searchsorted(holding, rows), len(holding) - 1)
        return np.where(holding[at] == rows, values[at], 0.0).astype(np.float32)

    def document_frequency(self) -> IntArray:
        """(t,) how many rows hold each term."""
        return np.diff(self.starts)
