"""Sentences as vectors: what means the same lies near, in whatever words; English only."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.search.word_pieces import WordPieces
from wide_margin.core.shipped import arrays_of

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray, IntArray

MOST_PIECES = 48
"""Pieces of a text that are read; few sentences have more."""
N_HEADS = 4
MOST_KNOWN = 4000
"""Texts whose vectors are remembered: questions ask for the same sentences again."""
_SMALL = 1e-5


class SentenceEncoder:
    """A small transformer, run forwards.

    Source:
        Vaswani et al. 2017, normed before each part (Xiong et al. 2020), the mean of the last
        layer; its weights by bench/fit_encoder.py, which had it learn to place sentences as a
        larger encoder does (Hinton et al. 2015).
    """

    def __init__(self, weights: dict[str, FloatArray], pieces: Sequence[str]) -> None:
        """Take over what was learned.

        Args:
            weights: "embedding" (v, h) int8 with "scale" (v,), "positions" (t, h); of each of the
                L layers "mixes" (L, h, 3h), "joins" (L, h, h), "widens" (L, h, f), "narrows"
                (L, f, h) with a bias each ("mixes bias" (L, 3h) and so on); "out" (h, d).
            pieces: What the v rows stand for.
        """
        self._w = {
            name: array if name == "embedding" else array.astype(np.float32)
            for name, array in weights.items()
        }
        self._pieces = WordPieces(pieces)
        self._known: dict[str, FloatArray] = {}

    def encode(self, texts: Sequence[str]) -> FloatArray:
        """(n, d) float32, the unit vector of each text; those of late are remembered."""
        new = [text for text in dict.fromkeys(texts) if text not in self._known]
        if len(self._known) + len(new) > MOST_KNOWN:
            self._known.clear()
            new = list(dict.fromkeys(texts))
        if new:
            self._known |= zip(new, self._read(new), strict=True)
        return np.stack([self._known[text] for text in texts])

    def _read(self, texts: Sequence[str]) -> FloatArray:
        """(n, d) the unit vector of each of some texts, of which there is at least one.

        All pieces of all texts stand in one array, so that nothing is padded; only where the
        pieces of one text look at each other is each text taken by itself.
        """
        w = self._w
        rows = [self._pieces.rows_of(text, MOST_PIECES) for text in texts]
        lengths = np.array([len(each) for each in rows])
        starts = np.cumsum(lengths) - lengths
        flat = np.concatenate(rows)
        places = np.arange(len(flat)) - np.repeat(starts, lengths)
        x = w["embedding"][flat] * w["scale"][flat, None] + w["positions"][places]
        for k in range(len(w["mixes"])):
            mixed = _normed(x) @ w["mixes"][k] + w["mixes bias"][k]
            x += _attended(mixed, starts, lengths) @ w["joins"][k] + w["joins bias"][k]
            wide = _normed(x) @ w["widens"][k] + w["widens bias"][k]
            x += np.maximum(wide, 0, out=wide) @ w["narrows"][k] + w["narrows bias"][k]
        means = np.add.reduceat(_normed(x), starts, axis=0) / lengths[:, None]
        found: FloatArray = means @ w["out"] + w["out bias"]
        found /= np.linalg.norm(found, axis=1, keepdims=True)
        return found


def _normed(x: FloatArray) -> FloatArray:
    """Each row with mean 0 and variance 1."""
    apart: FloatArray = x - x.mean(axis=1, keepdims=True)
    variance = np.einsum("ij,ij->i", apart, apart)[:, None] / x.shape[1]
    apart /= np.sqrt(variance + _SMALL)
    return apart


def _attended(mixed: FloatArray, starts: IntArray, lengths: IntArray) -> FloatArray:
    """(t, h) what each piece takes over from those of its text, of queries, keys and values."""
    n_pieces, size = len(mixed), mixed.shape[1] // 3
    found = np.empty((n_pieces, size), np.float32)
    for start, n in zip(starts.tolist(), lengths.tolist(), strict=True):
        asked, keys, values = (
            mixed[start : start + n].reshape(n, 3, N_HEADS, -1).transpose(1, 2, 0, 3)
        )
        odds = asked @ keys.transpose(0, 2, 1)
        odds -= odds.max(axis=-1, keepdims=True)
        np.exp(odds, out=odds)
        odds /= odds.sum(axis=-1, keepdims=True)
        found[start : start + n] = (odds @ values).transpose(1, 0, 2).reshape(n, size)
    return found


@cache
def sentence_encoder() -> SentenceEncoder:
    """The one that ships: 5.7 MB in two files, about 70 ms, once."""
    weights = arrays_of("sentence-encoder.npz") | arrays_of("piece-vectors.npz")
    pieces = bytes(weights.pop("pieces")).decode().split("\n")
    return SentenceEncoder(weights, pieces)
