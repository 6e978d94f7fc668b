"""Comparing titles: the same, the same but for wording, or others."""

from difflib import SequenceMatcher
from functools import lru_cache

from wide_margin.core.later import regex
from wide_margin.core.layout import fold
from wide_margin.core.outline.numbering import number_of, unnumbered

ALIKE = 0.85
"""Titles with at least this similarity (difflib ratio over letters and digits) are the same."""


_DIGITS = regex(r"\d+")
_SIGNS = regex(r"[\W_]+")


def letters_of(text: str) -> str:
    """Letters and digits of a text alone."""
    return _SIGNS.sub("", fold(text))


@lru_cache(maxsize=100_000)
def squash(title: str) -> str:
    """Letters and digits alone, for comparing titles: the same ones come again and again."""
    return letters_of(title)


def alike(a: str, b: str) -> bool:
    """Whether two titles are the same but for numbers in front, spelling and spaces."""
    return similarity(a, b) >= ALIKE


def similarity(a: str, b: str) -> float:
    """Likeness of two titles, 0 to 1; 0 where it is less than ALIKE."""
    forms_a, forms_b = forms_of(a), forms_of(b)
    if forms_a & forms_b - {""}:
        return 1.0
    figures_a, figures_b = _figures(a), _figures(b)
    if figures_a and figures_b and figures_a != figures_b:
        return 0.0  # "Version 3.9.4" is not "Version 3.9.1"
    return max(
        (
            _ratio(x, y)
            for x in forms_a for y in forms_b
            if x and y and 2 * min(len(x), len(y)) >= ALIKE * (len(x) + len(y))
        ),
        default=0.0,
    )  # fmt: skip


@lru_cache(maxsize=100_000)
def _figures(title: str) -> tuple[str, ...]:
    """The numbers within a title, the one in front left out."""
    return tuple(_DIGITS.findall(unnumbered(title)))


def _ratio(a: str, b: str) -> float:
    matcher = SequenceMatcher(None, a, b, autojunk=False)
    return matcher.ratio() if matcher.quick_ratio() >= ALIKE else 0.0


@lru_cache(maxsize=100_000)
def forms_of(title: str) -> frozenset[str]:
    """A title squashed, with and without its number."""
    number = number_of(title)
    return frozenset({squash(title), squash(number.rest) if number else squash(title)})


def bare(title: str) -> str:
    """A title squashed without its number, or whole where nothing else is left."""
    number = number_of(title)
    return (squash(number.rest) if number else "") or squash(title)


def words_differ(a: str, b: str) -> bool:
    """Whether two wordings of one title say something else.

    Broken words, punctuation, capitals and numbers in front do not count; a word of three
    letters or more that the other one lacks does. A title cut short is the same title.
    """
    if forms_of(a) & forms_of(b) - {""}:
        return False
    flat_a, flat_b = squash(a), squash(b)
    if is_called(a, unnumbered(b)) or is_called(b, unnumbered(a)):
        return False
    if holds(flat_a, flat_b) or holds(flat_b, flat_a):
        return False  # a shorter wording, or the first line of a longer one

    def lacking(title: str, other: str) -> list[str]:
        words = fold(unnumbered(title)).split()
        return [w for word in words if len(w := squash(word)) >= 3 and w not in other]

    missing_a, missing_b = lacking(a, flat_b), lacking(b, flat_a)
    if missing_a and missing_b:
        return True
    return bool(missing_a or missing_b) and not alike(a, b)


def is_called(signature: str, name: str) -> bool:
    """Whether a text declares what has a name: "int getName ( int rank )" does "getName"."""
    if not name or " " in name or "(" in name or not ("(" in signature or "::" in signature):
        return False
    before = signature.partition("(")[0].rstrip()
    return before.endswith(name) and not (before[: -len(name)] or " ")[-1].isalnum()


def holds(longer: str, shorter: str) -> bool:
    """Whether a squashed title starts or ends with another one."""
    return len(shorter) >= 5 and (longer.startswith(shorter) or longer.endswith(shorter))
