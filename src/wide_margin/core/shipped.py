"""What ships with the package as data: texts, and the weights that scripts of bench/ make."""

from __future__ import annotations

import json
from functools import cache
from importlib import resources
from typing import TYPE_CHECKING, Any

from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    import numpy as np
else:
    np = loaded_later("numpy")


def text_of(name: str) -> str:
    """A text file of the package's data.

    Raises:
        FileNotFoundError: There is none of that name.
    """
    return resources.files("wide_margin.data").joinpath(name).read_text("utf-8")


@cache
def json_of(name: str) -> Any:
    """A JSON file of the package's data, read once; what comes back is not to be changed."""
    return json.loads(text_of(name))


def arrays_of(name: str) -> dict[str, np.ndarray]:
    """The arrays of an NPZ file of the package's data.

    Raises:
        FileNotFoundError: There is none of that name.
    """
    with resources.files("wide_margin.data").joinpath(name).open("rb") as file:
        return dict(np.load(file))


@cache
def frequent_words() -> dict[str, int]:
    """The most frequent words of English, small letters, each with its rank from 0."""
    with resources.files("wide_margin.data").joinpath("word-vectors.npz").open("rb") as file:
        names = bytes(np.load(file)["words"]).decode().split("\n")  # the others are not read
    return {name: rank for rank, name in enumerate(names)}
