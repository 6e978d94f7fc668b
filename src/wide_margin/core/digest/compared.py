"""Questions that compare: both sides are answered, each with its own place."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import replace
from itertools import takewhile
from typing import TYPE_CHECKING

from wide_margin.core.answers import WHOLE, Answer, Reach
from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.reading import named_reach
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.defined import MENTIONED, OF_UNNAMED
from wide_margin.core.digest.named import SAYS_NOTHING, content_of, own_rows, rows_under
from wide_margin.core.digest.overview import SURE
from wide_margin.core.digest.sides import PLACE, sides_of
from wide_margin.core.digest.titled import title_of
from wide_margin.core.explain import define
from wide_margin.core.later import regex
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.answers import Excerpt, Quote
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.passages import Sentence

Ask = Callable[[str, Reach], Answer]
OF_SECTION = 2
"""Statements that are quoted of each of two sections."""
ONE_SIDE = 0.8
"""What an answer for one side alone is worth."""
OF_ONE = 0.5
"""The chance that it tells how they differ, at most."""
OF_EACH = 0.6
"""The chance at most where what each is is told, and not how they differ."""
SURE_OF_BOTH = 0.5
"""The chance that a statement on both sides tells how they differ, where it only names them."""
_CONTRASTS = regex(
    r"\b(?:whereas|while|unlike|differ\w*|distin\w+|but|instead|rather|than|contrast|only|opposed|however|wohingegen|während|anders"
    r"|tandis|alors que|mientras|mentre|enquanto|terwijl)\b", re.I
)  # fmt: skip
_SETS_AGAINST = regex(
    r"\b(?:whereas|unlike|in contrast|by contrast|as opposed to|on the other hand|differs? from|different from|(?:main |only |major )?difference between"
    r"|(?:more|less|\w{2,}er)\s(?:\S+\s){0,3}than)\b", re.I
)  # fmt: skip
"""Sets one thing against another, whatever else is said of both."""
_COMPARES = regex(r"\b(?:compar(?:ison|isons|ed|ing)|differences?|vs\.?|versus|unlike)\b", re.I)
"""In a title, says that it sets things side by side."""
OF_TITLED = 4
"""Statements that are quoted of a section that compares."""
OF_CONTRAST = 0.6
"""The chance that what sets both against each other tells how they differ."""
SHORT = 3
"""Letters under which a second side is a number or a letter that tells it from the first."""


def answer_compared(
    document: ReadDocument, typed: str, ask: Ask, ask_what: Ask,
    gist: Callable[[Reach], tuple[Quote, ...]],
) -> Answer | None:  # fmt: skip
    """An answer with both sides of a comparison, None where the question has none or nothing fits.

    Sentences that speak of both go first; else what the document says of each.

    Args:
        document: That is asked.
        typed: The question.
        ask: Answers a question about a reach.
        ask_what: Answers one for what something is.
        gist: The chief statements of a reach.
    """
    sides = sides_of(typed)
    if sides is None:
        return None
    reaches = _places(document, *sides)
    if reaches is not None:
        quotes = tuple(quote for reach in reaches for quote in gist(reach)[:OF_SECTION])
        base = ask(typed, WHOLE)
        return replace(base, kind="compare", quotes=quotes, missing=(), reason="", sure=SURE)
    whole = ask(typed, WHOLE)
    if said := _titled(document, *sides):
        return replace(told_by(document, whole, said[0], said[-1] + 1, ONE_SIDE), kind="compare")
    completed = _completed(*sides)
    defined = all(
        define(document, side) is not None or rows_under(document, side) for side in completed
    )
    whole = _contrasting(document, sides, whole)
    tells_both = whole.quotes and all(_speaks_of(document, whole.quotes[0], s) for s in sides)
    if tells_both and not defined:
        if _CONTRASTS.search(whole.quotes[0].text):
            return whole
        return replace(whole, sure=min(whole.sure, SURE_OF_BOTH))
    each = [ask_what(f"What is {side}?", WHOLE) for side in completed]
    found = [
        answer if answer.quotes and _is_of(document, answer.quotes[0], side, full) else None
        for side, full, answer in zip(sides, completed, each, strict=True)
    ]
    kept = [answer for answer in found if answer is not None]
    if len(kept) > 1 and _begin_alike(document, kept):
        kept = kept[:1]  # it says what one of them is
    sure = min((answer.sure for answer in kept), default=0.0)
    sure = min(sure, OF_EACH) if len(kept) > 1 else min(ONE_SIDE * sure, OF_ONE)
    is_of_sides = not whole.quotes or _speaks_of_any(document, whole.quotes[0], sides)
    if not kept:
        return None if is_of_sides else replace(whole, sure=min(whole.sure, MENTIONED))
    if sure <= whole.sure and len(kept) < 2 and is_of_sides:
        return None
    quotes = tuple(dict.fromkeys(answer.quotes[0] for answer in kept))
    if sure <= OF_UNNAMED or (len(quotes) > 1 and _are_of_two_lists(document, quotes)):
        sure = min(sure, MENTIONED)
    return replace(
        whole, kind="compare", quotes=quotes, sure=sure, reason="",
        excerpts=_excerpts_for(quotes, each)[: len(whole.excerpts) or 12],
        missing=tuple(side for side, answer in zip(sides, found, strict=True) if answer is None),
    )  # fmt: skip


def _excerpts_for(quotes: Sequence[Quote], each: Sequence[Answer]) -> tuple[Excerpt, ...]:
    """The excerpts of both answers in turns, those on the pages of what is quoted first."""
    told = {place.page for quote in quotes for place in quote.locators}
    excerpts = [e for pair in zip(*(a.excerpts for a in each), strict=False) for e in pair]
    first = [e for e in excerpts if e.locator.page in told]
    return tuple(dict.fromkeys([*first, *excerpts]))


def _titled(document: ReadDocument, one: str, other: str) -> Sequence[int]:
    """Rows with which the section begins whose title says that it compares two sides.

    One of them may be what the whole is on.
    """
    sentences = document.text.sentences
    told = [
        content_of(document, side) or frozenset(words(side.casefold())) for side in (one, other)
    ]
    whole = [side <= _written(document, title_of(document)) for side in told]
    for row, section in enumerate(document.outline.sections):
        if not _COMPARES.search(section.title):
            continue
        named = [side <= _written(document, section.title) for side in told]
        if any(named) and all(n or w for n, w in zip(named, whole, strict=True)):
            rows = own_rows(document, row)
            first = next((r for r in rows if sentences[r].kind in ("body", "item")), rows.stop)
            return _of_one_kind(sentences, range(first, rows.stop)[:OF_TITLED])
    return []


def _of_one_kind(sentences: Sequence[Sentence], rows: Sequence[int]) -> Sequence[int]:
    """The rows up to the first of another kind than they begin with: points, or text."""
    kinds = {sentences[row].kind for row in rows[:1]}
    return list(takewhile(lambda row: sentences[row].kind in kinds, rows))


def _written(document: ReadDocument, text: str) -> frozenset[str]:
    """The terms of a text and its words as they are, for names such as "Make" are common words."""
    return content_of(document, text).union(words(text.casefold()))


def _contrasting(document: ReadDocument, sides: Sequence[str], whole: Answer) -> Answer:
    """The answer from the first sentences that set both sides against each other, where some do."""
    told = rows_within(document, whole.quotes[0].locators[0].spans) if whole.quotes else []
    sentences, terms = document.text.sentences, document.index.analyser.terms
    wanted = [term for side in sides for term in terms(side)]
    rows = [
        row for row in rows_with(document, wanted)
        if sentences[row].kind not in SAYS_NOTHING and _SETS_AGAINST.search(sentences[row].text)
    ]  # fmt: skip
    if not rows or set(rows) & set(told):
        return whole
    return told_by(document, whole, rows[0], rows[0] + 1, max(whole.sure, OF_CONTRAST))


def _begin_alike(document: ReadDocument, answers: Sequence[Answer]) -> bool:
    """Whether some answers begin with the same sentence."""
    told = (rows_within(document, a.quotes[0].locators[0].spans)[:1] for a in answers)
    return len({tuple(rows) for rows in told}) == 1


def _speaks_of_any(document: ReadDocument, quote: Quote, sides: Sequence[str]) -> bool:
    return any(_speaks_of(document, quote, side) for side in sides)


def _are_of_two_lists(document: ReadDocument, quotes: Sequence[Quote]) -> bool:
    """Whether both describe entries, each of a list of its own: they need not be of one kind."""
    places = [quote.locators[0] for quote in quotes]
    kinds = {
        document.text.sentences[row].kind
        for at in places
        for row in rows_within(document, at.spans)
    }
    near = places[0].path == places[1].path or abs(places[0].page - places[1].page) <= 1
    return kinds == {"entry"} and not near


def _completed(one: str, other: str) -> tuple[str, str]:
    """Both with their noun: "first" of "the first and the second edition" is an edition."""
    if len(one.split()) == 1 and len(other.split()) == 2:
        return f"{one} {other.split()[-1]}", other
    if len(other.split()) == 1 and len(one.split()) == 2:  # "protocol A and C"
        return one, f"{one.split()[0]} {other}" if len(other) < SHORT else other
    return one, other


def _places(document: ReadDocument, one: str, other: str) -> tuple[Reach, Reach] | None:
    """The sections that two sides name, such as "section 2" and "5"."""
    word = PLACE.match(one)
    if word is None:
        return None
    kind = re.sub(r"(?<=[^i])s$", "", word[0])  # "sections 2 and 5"
    named = f"{kind} {one[len(word[0]) :].strip()}"
    second = other if PLACE.match(other) else f"{kind} {other}"
    found = named_reach(document, named), named_reach(document, second)
    return (found[0], found[1]) if found[0] is not None and found[1] is not None else None


def _is_of(document: ReadDocument, quote: Quote, side: str, completed: str) -> bool:
    """Whether a statement speaks of a side, or stands under its name in full."""
    if _speaks_of(document, quote, side):
        return True
    under = rows_under(document, completed)
    return any(row in under for row in rows_within(document, quote.locators[0].spans))


def _speaks_of(document: ReadDocument, quote: Quote, side: str) -> bool:
    """Whether a statement, or the heading over it, has the words that tell a side."""
    analyser = document.index.analyser
    text = " ".join([quote.text, *(place.path[-1] for place in quote.locators if place.path)])
    spoken = set(words(text.casefold()))
    held = spoken.union(*(analyser.terms_of(word) for word in spoken))
    telling = [w for w in words(side) if not is_common(w, analyser.language)] or words(side)
    # What is too common to be a term counts as it is written.
    return all(set(analyser.terms_of(word) or [word.casefold()]) <= held for word in telling)
