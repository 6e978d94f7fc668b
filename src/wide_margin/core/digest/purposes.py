"""Asked for the purpose or the role of something: what says what it does tells that."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers import WHOLE
from wide_margin.core.digest.defined import OF_SECTION
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer, Reach

_WHAT_FOR = r"(?:purpose|role|function|job|task|use|point|aim)"
_ASKS = regex(
    rf"^\W*what(?:['’]s|\s+(?:is|are))\s+the\s+(?:main\s+|chief\s+)?{_WHAT_FOR}\s+of\s+(?P<thing>[^?,;:]+?)\W*$"
    rf"|^\W*what\s+{_WHAT_FOR}\s+(?:does|do)\s+(?P<serves>[^?,;:]+?)\s+(?:serve|play|have|fulfil)\W*$"
    r"|^\W*what(?:['’]s|\s+(?:is|are))\s+(?P<good>[^?,;:]+?)\s+(?:(?:good|useful|there|used|needed)\s+)?for\W*$", re.I
)  # fmt: skip


def with_purpose(typed: str, found: Answer, search: Callable[[str, Reach], Answer]) -> Answer:
    """The answer with what the thing does whose purpose is asked for, where nothing else tells it.

    Args:
        typed: The question.
        found: What its own words found.
        search: Answers a question about a reach.
    """
    asked = _ASKS.match(typed) if found.sure < OF_SECTION else None
    if asked is None:
        return found
    told = search(f"What does {asked['thing'] or asked['serves'] or asked['good']} do?", WHOLE)
    return replace(told, question=typed) if told.sure >= OF_SECTION else found
