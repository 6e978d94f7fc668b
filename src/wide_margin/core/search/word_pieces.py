"""Words taken apart into the pieces that a sentence encoder knows.

The package tokenizers does this, too, and brings the client of a model hub with it.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence
from functools import lru_cache

from wide_margin.core.later import regex

LONGEST_WORD = 60
"""Letters; what is longer is no word."""
UNKNOWN, BEGINS, ENDS = "[UNK]", "[CLS]", "[SEP]"
"""Pieces that stand for a word without pieces, and before and after every text."""
GOES_ON = "##"
"""Before a piece that does not begin its word."""
_WORD = regex(r"[^\W_]+|[^\w\s]|_")


class WordPieces:
    """Takes texts apart, longest pieces first.

    Source:
        WordPiece (Wu et al. 2016), without case and accents as for BERT (Devlin et al. 2019).
    """

    def __init__(self, pieces: Sequence[str]) -> None:
        """Take over the pieces, which are called by their place.

        Raises:
            KeyError: UNKNOWN, BEGINS or ENDS is not among them.
        """
        self._rows = {piece: row for row, piece in enumerate(pieces)}
        self._unknown, self._begins, self._ends = (
            self._rows[piece] for piece in (UNKNOWN, BEGINS, ENDS)
        )
        self._pieces_of = lru_cache(maxsize=20_000)(self._taken_apart)

    def rows_of(self, text: str, most: int) -> list[int]:
        """The pieces of a text as their places, at most so many, BEGINS and ENDS among them."""
        rows = [self._begins]
        for word in _WORD.findall(_plain(text)):
            rows += self._pieces_of(word)
            if len(rows) >= most:
                break
        return [*rows[: most - 1], self._ends]

    def _taken_apart(self, word: str) -> tuple[int, ...]:
        if len(word) > LONGEST_WORD:
            return (self._unknown,)
        rows: list[int] = []
        start = 0
        while start < len(word):
            before = GOES_ON if start else ""
            for end in range(len(word), start, -1):
                row = self._rows.get(before + word[start:end])
                if row is not None:
                    break
            else:
                return (self._unknown,)
            rows.append(row)
            start = end
        return tuple(rows)


def _plain(text: str) -> str:
    """Small letters without accents."""
    if text.isascii():
        return text.lower()
    opened = unicodedata.normalize("NFD", text.lower())
    return "".join(letter for letter in opened if unicodedata.category(letter) != "Mn")
