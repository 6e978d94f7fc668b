"""Whether what was found has what a question asks for: a count of it, a sum, a date, its sort."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import TYPE_CHECKING

from wide_margin.core.answers.measures import measure_asked
from wide_margin.core.answers.signs import (
    NAME,
    NUMBER_WORD,
    asked_parts,
    asked_relation,
    asked_thing,
    begins_alike,
    has_date,
    has_frequency,
    has_number,
    has_relation,
    has_role,
    without_references,
)
from wide_margin.core.later import regex
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.answers.question import Question

WANTED = (
    "counted",
    "not counted",
    "form",
    "no form",
    "thing",
    "no thing",
    "defined",
    "not defined",
)
"""Whether the things a question counts stand by a number; whether there is a sum, a date or a
person where one is asked for; whether there is the word for the sort of thing that is asked for;
whether what a term means is said where that is asked for.
Each twice, since much is asked that counts nothing and wants no form: 1 where it is there, and 1
where it is asked for and not there."""
LOOKED_AT = 3
"""So many of the best sentences are looked at."""
_COUNTED = regex(
    r"\bhow many\s+(?:(?:different\s+)?(?:kinds|sorts|types)\s+of\s+)?"
    r"(?P<things>(?:[\w’'-]+\s+){0,3}?[\w’'-]+)(?=\s+(?:of|in|on|at|for|with|to|from"
    r"|is|are|was|were|do|does|did|can|could|should|must|may|have|has|had|will|would|be|come|there)\b"
    r"|\s*[?,]|\s+\w+$)|\bnumber of\s+(?P<of>[\w’'-]+)", re.I
)  # fmt: skip
_COUNT = regex(
    rf"\b(?:\d[\d.,]*|{NUMBER_WORD}(?:-\w+)?|one|no|both|pair of|single|several)\b", re.I
)
_YEAR = regex(r"\((?:[^()]*,\s*)?(?:1[6-9]|20)\d\d[a-z]?\)")
"""That of a work which is cited."""
_LABEL = regex(r"^\W*\d+(?:\.\d+)*[.)]\s")
"""The number of a section or an item, which counts nothing."""
BEHIND, BEFORE = 4, 3
"""A counted thing stands at most so many words behind its number, or so many before it."""
OF_MONEY = regex(
    r"\b(?:costs?|prices?|priced|paid|pays?|fees?|fine|charged?|salary|wages?|budget|expensive"
    r"|cheap)\b", re.I
)  # fmt: skip
"""Words of a question for a sum."""
_MONEY = regex(
    r"[$€£¥]\s?\d|\d[\d.,]*\s?(?:[$€£¥]|dollars?|euros?|pounds?|cents?|pence|crowns?|francs?|marks?"
    r"|shillings?|guilders?|yen|USD|EUR|GBP|CHF|per\s?cent|%)(?!\w)"
    r"|\b(?:free of charge|for free|no charge|without charge|at no cost|gratis)\b", re.I
)  # fmt: skip
_PAID = r"paid|pays?|fund(?:s|ed|ing)?|financ\w+|sponsor\w*"
_WHO_PAID = regex(rf"^\W*who(?:m|se)?\b.{{0,30}}?\b(?:{_PAID})\b", re.I)
_PAYING = regex(
    rf"\b(?:{_PAID}|grants?|award(?:s|ed)?|support(?:s|ed)? (?:by|from|of)|donat\w+)\b", re.I
)
_MOMENT = regex(
    r"\b(?:when|while|after|before|until|till|once|as soon as|during|at the (?:end|beginning|start)"
    r"|\d+(?:st|nd|rd|th)|spring|summer|autumn|winter|today|yesterday|now|always|never"
    r"|(?:mon|tues|wednes|thurs|fri|satur|sun)days?|\d{1,2}[:.]\d\d|\d+0['’]?s)\b", re.I
)  # fmt: skip
_ON_CONDITION = regex(
    r"^\W*when\s+(?:may|can|could|should|shall|must|would|might|do|does|is|are|need|ought)\b", re.I
)
"""Asks for no time that was: under what condition something is done or is right."""
_CONDITION = regex(
    r"\b(?:if|unless|in case|whenever|where|wherever|as long as|provided|only|otherwise"
    r"|situations?|cases?|circumstances?|conditions?|not)\b", re.I
)  # fmt: skip


def wanted_in(question: Question, best: Sequence[str], *, is_defined: bool | None) -> list[float]:
    """(WANTED,) of the best sentences; whether they define a term is told, None without one."""
    met = (counts_them(question.text, best), has_form(question, best), has_thing(question, best),
           is_defined)  # fmt: skip
    return [float(m is wanted) for m in met for wanted in (True, False)]


def counts_them(question: str, best: Sequence[str]) -> bool | None:
    """Whether texts have a number of what a question counts; None where it counts nothing."""
    match = _COUNTED.search(question)
    if match is None:
        return None
    named = match["things"] or match["of"]
    things = [word for word in words(named) if not is_common(word, "en")]
    if not things:
        return None
    counted = things[-1:] if match["things"] else things  # "space groups" are groups
    told = [_YEAR.sub(" ", without_references(text)) for text in best]
    return any(_number_near(text, thing) for text in told for thing in counted)


def _number_near(text: str, thing: str) -> bool:
    """Whether a number stands close before a word, or close behind it."""
    said = _LABEL.sub("", text.lower()).split()
    bare = [word.strip("(“\"‘'.,;:!?”)") for word in said]
    places = [
        k for k, word in enumerate(bare)
        if begins_alike(word, thing) and not _only_tells(word, thing, bare[k + 1 : k + 2])
    ]  # fmt: skip
    return any(
        _COUNT.search(" ".join(said[max(0, k - BEHIND) : k]))
        or any(c.isdigit() for c in " ".join(said[k + 1 : k + 1 + BEFORE]))
        for k in places
    )


def _only_tells(word: str, thing: str, after: Sequence[str]) -> bool:
    """Whether a word only tells of which sort others are: of "six rope types" the types are six."""
    is_single = thing.endswith("s") and not word.endswith("s")
    return is_single and any(other.isalpha() and other.endswith("s") for other in after)


def has_form(question: Question, best: Sequence[str]) -> bool | None:
    """Whether texts have a sum, a number, a time or a person, as asked; None where none is."""
    said = " ".join(best)
    if question.kind in ("how many", "general") and OF_MONEY.search(question.text):
        return bool(_MONEY.search(said))
    if measure := measure_asked(question.text):
        return bool(measure.search(said))
    if question.kind == "how many":
        return has_number(" ".join(map(without_references, best)))
    if question.kind == "how often":
        return has_frequency(said)
    if question.kind == "when":
        if _ON_CONDITION.match(question.text) and _CONDITION.search(said):
            return True
        return has_date(said) or bool(_MOMENT.search(said))
    if question.kind == "who":
        if _WHO_PAID.search(question.text):
            return bool(_PAYING.search(said))
        return has_role(said) or _names_somebody(question.text, best)
    return None


def _names_somebody(question: str, best: Sequence[str]) -> bool:
    """Whether texts have a name that the question does not have itself."""
    asked = set(words(question))
    names = (word for text in best for name in NAME.findall(text) for word in name.split())
    return any(
        name[:1].isupper() and not name.isupper() and asked.isdisjoint(words(name))
        for name in names
    )


def has_thing(question: Question, best: Sequence[str]) -> bool | None:
    """Whether texts have the word for the sort of thing asked for; None where it is not told."""
    thing = asked_thing(question.text) if question.kind not in ("how many", "when", "where") else ""
    if not thing or is_common(thing, "en"):
        return None
    relation = asked_relation(question.text)
    if relation and any(has_relation(text, relation) for text in best):
        return True
    if (measure := measure_asked(question.text)) and any(map(measure.search, best)):
        return True  # "Python 3.5 or later" is a version without the word
    parts = asked_parts(question.text) or (thing,)
    return any(
        all(any(begins_alike(word, part) for word in said) for part in parts)
        for said in (list(words(text)) for text in best)
    )
