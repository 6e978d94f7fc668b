"""What a number stands for in a list of them: "exit status 2", "error code 13", "signal 9"."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.named import content_of
from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives

if TYPE_CHECKING:
    from collections.abc import Callable, Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

LISTED = 0.85
"""The chance that what a number has beside it, in a list that is called as the question calls it,
is what it means."""
NEAR, FEWEST = 4, 3
"""Rows up and down among which others are numbered, and how many numbers make a list."""
MOST_LISTED = 40
"""Rows of such a list that are looked over for its beginning and its end."""
BESIDE = 3
"""Rows before and after it among which its heads and its caption are."""
OF_THING = 0.6
"""Share of the words for the thing asked about that the list is called by at least."""
_PART = alternatives(
    "section", "chapter", "part", "appendix", "figure", "table", "listing", in_text=True
)
_ASKED = regex(
    r"^\W*(?:what\s+(?:does|do|is)|was\s+(?:bedeutet|heißt)|que\s+(?:signifie|veut\s+dire)|qué\s+significa|(?:che\s+)?cosa\s+significa|o\s+que\s+significa)\s+"
    rf"(?:(?:an?|the|der|die|das|ein|une?|le|la|el|il|lo|o|a)\s+)?(?P<thing>(?:(?!{_PART}\b)[^\W\d][\w’'-]*\s+){{1,4}}?)(?:(?:number|no\.?|of|nummer|numéro|número|numero)\s+)?"
    r"[“\"'#]?(?P<code>-?\d{1,5})[”\"']?(?:\s+(?:mean|stand\s+for|indicate|signify|say|denote|represent)s?)?\W*$", re.I
)  # fmt: skip
_LABEL = regex(r"\W*?(?P<code>-?\d{1,5})(?:\s+[=:–—-]?\s*|\s*[=:–—]\s*)(?=\S*[^\W\d])")
"""Begins what a list has of a number; "3." and "3)" only count on."""


def answer_code(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What a number means, by the list that a question names; else None.

    Args:
        document: It.
        typed: The question.
        search: Answers a question in the usual way, for its excerpts.
    """
    asked = _ASKED.match(typed)
    thing = content_of(document, asked["thing"]) if asked else frozenset()
    if asked is None or not thing:
        return None
    held = [
        (_share_said(document, row, thing), row)
        for row, code in _labelled(document)
        if code == int(asked["code"]) and _is_listed(document, row, code)
    ]
    best = max(held, default=(0.0, -1))
    if best[0] < OF_THING or sum(share == best[0] for share, _ in held) > 1:
        return None
    return told_by(document, search(typed), best[1], best[1] + 1, LISTED)


def _labelled(document: ReadDocument) -> list[tuple[int, int]]:
    """Rows that begin with a number, and it."""
    return [
        (row, code) for row in range(len(document.text.sentences))
        if (code := _code_of(document, row)) is not None
    ]  # fmt: skip


def _code_of(document: ReadDocument, row: int) -> int | None:
    said = document.text.sentences[row]
    if said.kind not in ("row", "entry", "item"):
        return None
    match = _LABEL.match(said.text)
    return int(match["code"]) if match else None


def _is_listed(document: ReadDocument, row: int, code: int) -> bool:
    """Whether rows near by, of the same section, have numbers that come before and after."""
    n = len(document.text.sentences)
    section = document.text.sentences[row].section
    near = [k for k in range(max(row - NEAR, 0), min(row + NEAR + 1, n))
            if document.text.sentences[k].section == section]  # fmt: skip
    codes = [(k, found) for k in near if (found := _code_of(document, k)) is not None]
    in_order = all((k < row) == (found < code) for k, found in codes if k != row)
    return len(codes) >= FEWEST and in_order


def _share_said(document: ReadDocument, row: int, thing: frozenset[str]) -> float:
    """The share of a thing's words that stand in what a list is called by."""
    first, end = _list_around(document, row)
    sentences = document.text.sentences
    beside = [*range(max(first - BESIDE, 0), first), *range(end, min(end + BESIDE, len(sentences)))]
    titles = _titles(document, row)
    section = sentences[row].section
    said = [
        sentences[k].text for k in beside
        if sentences[k].section == section
        and (k == first - 1 or sentences[k].kind == "caption" or (k < first and sentences[k].kind == "row"))
    ]  # fmt: skip
    found = content_of(document, " ".join([*titles, *said]))
    return len(thing & found) / len(thing)


def _list_around(document: ReadDocument, row: int) -> tuple[int, int]:
    """The rows [first, end) from the first of the numbered ones to the last."""
    first = last = row
    sentences = document.text.sentences
    for k in range(row - 1, max(row - MOST_LISTED, -1), -1):
        if sentences[k].section != sentences[row].section or first - k > NEAR:
            break
        first = k if _code_of(document, k) is not None else first
    for k in range(row + 1, min(row + MOST_LISTED, len(sentences))):
        if sentences[k].section != sentences[row].section or k - last > NEAR:
            break
        last = k if _code_of(document, k) is not None else last
    return first, last + 1


def _titles(document: ReadDocument, row: int) -> Sequence[str]:
    """The title of the section that a row stands in."""
    section = document.text.sentences[row].section
    return [document.outline.sections[section].title] if section >= 0 else []
