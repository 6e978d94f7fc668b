"""Why a document does not say: in a sentence that the reader can check."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

if TYPE_CHECKING:
    from wide_margin.core.answers.candidates import Candidate
    from wide_margin.core.search import Query

HEAVY = 0.5
"""A word of at least this share of the heaviest word's weight is one that the question turns on."""
HELD = 0.9
NEAREST = 6
"""Candidates looked at for what the document does speak of."""
MOST = 3
"""Words named at most."""
UNREADABLE = "None of its pages has text that can be read."
"""Why a question is declined where nothing could be searched."""


def why_not(
    text: str, query: Query, candidates: Sequence[Candidate], n_searched: int,
    without: Sequence[int],
) -> str:  # fmt: skip
    """Why a question was declined; "" where nothing plain can be said.

    Either words that it turns on do not stand in the document, or they stand apart: it speaks of
    the one and not of the other with it. They are named as the reader has typed them.

    Args:
        text: The question.
        query: Its terms.
        candidates: What was found.
        n_searched: Pages that were searched.
        without: Pages within reach whose text cannot be read.
    """
    if without and not n_searched:
        return UNREADABLE
    typed: dict[str, str] = {word.lower(): word for word in re.findall(r"\w+(?:[’'-]\w+)*", text)}

    def named(k: int) -> str:
        return typed.get(query.terms[k].word, query.terms[k].word)

    weights = [0.0 if term.is_aside else term.weight for term in query.terms]
    if not weights or not max(weights):
        return ""
    heavy = [k for k, weight in enumerate(weights) if weight >= HEAVY * max(weights)]
    unknown = [named(k) for k in heavy if not query.terms[k].variants]
    if unknown:
        return f"The document does not have {_listed(unknown)}."
    if not candidates:
        return ""
    best = max(
        (np.maximum(c.held, c.around) for c in candidates[:NEAREST]),
        key=lambda held: float(held @ np.array(weights)),
    )
    here = [named(k) for k in heavy if best[k] >= HELD]
    apart = [named(k) for k in heavy if best[k] < 0.3]
    if here and apart:
        return f"It speaks of {_listed(here)}, but not of {_listed(apart)} with it."
    return ""


def _listed(words: Sequence[str]) -> str:
    return ", ".join(f"“{word}”" for word in words[:MOST])
