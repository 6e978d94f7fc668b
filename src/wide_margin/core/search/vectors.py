"""Word vectors that bridge the reader's words and the author's; English only."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from functools import cache
from typing import TYPE_CHECKING

from wide_margin.core import shipped
from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    import numpy as np

    from wide_margin.core.geometry import FloatArray
else:
    np = loaded_later("numpy")

WIDTH = 96
"""Numbers of a vector."""
EVERYDAY, EVERYDAY_RANK, RARE_RANK = 0.6, 500, 10_000
"""What a word counts that is among the most frequent ones of English, and where that ends:
"bigger" or "worth" may be rare in a manual and still say little of what is asked."""


@cache
def _load() -> tuple[dict[str, int], FloatArray]:
    """Row of each word, and (n, 96) float16 unit vectors. About 50 ms, once."""
    data = shipped.arrays_of("word-vectors.npz")
    vectors = data["vectors"].astype(np.float32) * data["scale"].astype(np.float32)[:, None]
    vectors /= np.maximum(np.linalg.norm(vectors, axis=1, keepdims=True), 1e-6)
    return shipped.frequent_words(), vectors.astype(np.float16)


def vectors_of(wanted: Sequence[str]) -> tuple[FloatArray, list[int]]:
    """Unit vectors of the words that have one.

    Returns:
        (k, 96) float32, and for each row its position in wanted.
    """
    if not wanted:
        return np.zeros((0, WIDTH), np.float32), []
    rows, vectors = _load()
    found = [(k, rows[word]) for k, word in enumerate(wanted) if word in rows]
    chosen = vectors[[row for _, row in found]] if found else vectors[:0]
    return chosen.astype(np.float32), [k for k, _ in found]


def frequent_words() -> Iterable[str]:
    """The words that have a vector, the most frequent first."""
    return shipped.frequent_words()


def frequency_rank(word: str) -> int | None:
    """Position of a word among the most frequent English words, None where it is not known."""
    return shipped.frequent_words().get(word)


def said_rarely(word: str) -> float:
    """EVERYDAY to 1, by how rare a word is in English; 1 for words that are not known."""
    rank = frequency_rank(word)
    if rank is None or rank >= RARE_RANK:
        return 1.0
    rarity = np.log((rank + 1) / EVERYDAY_RANK) / np.log(RARE_RANK / EVERYDAY_RANK)
    return EVERYDAY + (1 - EVERYDAY) * float(np.clip(rarity, 0.0, 1.0))
