"""Words of a question that the document does not have: misspelt, or of another matter?"""

from collections.abc import Iterable

from rapidfuzz.distance import OSA

from wide_margin.core.search.vectors import frequency_rank

SHORTEST = 6
"""Letters from which on a word may be taken for another one misspelt."""
SHORTEST_PART = 4
"""Letters of each half of a compound, at least."""


def is_unheard_of(word: str) -> bool:
    """Whether a word is no English word nor two of them joined: a name, a term, or misspelt."""
    if frequency_rank(word) is not None:
        return False
    halves = [(word[:k], word[k:]) for k in range(SHORTEST_PART, len(word) - SHORTEST_PART + 1)]
    return not any(_is_known(first) and _is_known(second) for first, second in halves)


def _is_known(word: str) -> bool:
    return any(frequency_rank(form) is not None for form in (word, word.removesuffix("s")))


def meant_by(word: str, forms: Iterable[str]) -> list[str]:
    """The forms that a misspelt word may mean: one letter off, the first one right.

    Args:
        word: In small letters; only words of letters are taken for misspelt.
        forms: Written forms, in small letters.
    """
    if len(word) < SHORTEST or not word.isalpha():
        return []
    return [
        form for form in forms
        if form[:1] == word[0] and abs(len(form) - len(word)) <= 1 and _is_one_off(word, form)
    ]  # fmt: skip


def _is_one_off(word: str, form: str) -> bool:
    """Whether one letter added, left out or changed, or two swapped, makes one of the other."""
    return form.isalpha() and OSA.distance(word, form, score_cutoff=1) == 1
