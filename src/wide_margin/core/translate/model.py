"""A sentence and its translation, as entries keep them."""

from typing import NamedTuple


class Pair(NamedTuple):
    """A sentence and its translation."""

    source: str
    target: str
    """"" while it is awaited."""
    doubts: tuple[str, ...] = ()
    """What the checks find wrong with it."""
    origin: str = ""
    """Where it comes from: "" from the writing model, "memory", "corrected" by the reader,
    "glosses" from a dictionary, which are no translation."""
    near: str = ""
    """What the memory has for a sentence like it, with the difference."""
