"""What "it", "they" or "the latter" stands for: named where a candidate is clearly ahead."""

import re
from collections.abc import Sequence
from typing import NamedTuple

from wide_margin.core.explain.model import StandsFor
from wide_margin.core.explain.verbs import (
    AUXILIARIES,
    DETERMINERS,
    PREPOSITIONS,
    finite_at,
    is_base,
    is_past,
)
from wide_margin.core.later import regex
from wide_margin.core.search import is_common

AHEAD = 1.0
"""A candidate this many points before the next is named alone; else the two best are."""
LEAST = 1.5
"""Points that a candidate needs to be named at all."""
_TOKEN = regex(r"[^\W_][\w’'./+-]*[\w’']|\w|[^\w\s]")
_PRONOUN = regex(
    r"\b(?P<word>it|its|itself|they|them|their|themselves|he|him|his|she|her|the latter|the former"
    r"|this|these|those|such (?P<kind>\w+))\b", re.I
)  # fmt: skip
_LITTLE = (
    r"(?:(?:\w+ly|not|also|quite|very|rather|often|still|then|thus|therefore|however|more|less|most|too|so|even"
    r"|perhaps|always|never|sometimes|just|now|again|of course),?\s+)*"
)
_EMPTY_IT = regex(
    rf"\s+{_LITTLE}(?:is|was|are|were|be|been|seems?|seemed|appears?|appeared|becomes?|became|remains?|isn[’']t|wasn[’']t"
    rf"|(?:would|will|may|might|can|could|should|must) (?:\w+ly )?be|(?:has|had|have)\s+{_LITTLE}been)\s+{_LITTLE}"
    r"(?:(?:the|a|an|no|my|our)\s+(?:\w+\s+)?\w+\s+(?:that|to|whether|how|when|why)\b"
    r"|(?:clear|best|worth|true|known|time|dark|late|early|enough)\b"
    r"|\w+\s+(?:(?:down|out|up|on|in)\s+)?(?:that|whether|how|why|what|where|when|if)\b"
    r"|(?!(?:used|made|meant|needed|set|built|said|given|taken|put|left|told|known|kept|held|run|sent|shown|done|bound"
    r"|designed|intended|supposed|expected|required|thought|believed|able|unable|ready|likely|unlikely|free|due|about"
    r"|going|subject|equal|similar|close|next|according|added|attached|applied|moved|changed)\b)"
    r"\w+\s+(?:for\s+.{1,40}?\s+)?to\s+\w+)"
    rf"|\s+{_LITTLE}(?:takes?|took|costs?|helps|suffices|pays|makes sense|follows|turns out|turned out|happens|means)\b"
    r"(?=.{0,60}?\b(?:to|that)\b)", re.I
)  # fmt: skip
"""What follows an "it" that stands for nothing: "it is quite possible to", "it is known that"."""
LABEL = regex(r"^[A-Z][A-Z /-]{2,40}:\s+(?=\S)")
"""What a text in capitals says of the sentence after it: "WARNING: The lid is hot."."""
_MANY = frozenset(
    ["people", "men", "women", "children", "data", "criteria", "media", "feet", "mice", "police"]
)
"""More than one without an s."""
_PLURAL = frozenset(["they", "them", "their", "themselves", "these", "those"])
_PERSONS = frozenset(["he", "him", "his", "she", "her"])
_PERSONAL = regex(r"(?:er|or|ist|ian|man|woman|master|boy|girl|father|mother)$")
_TIES = frozenset(
    [
        "however",
        "therefore",
        "moreover",
        "furthermore",
        "besides",
        "nevertheless",
        "nonetheless",
        "otherwise",
        "finally",
        "first",
        "second",
        "third",
        "thus",
        "hence",
        "instead",
        "meanwhile",
        "similarly",
        "likewise",
        "indeed",
        "conversely",
        "unlike",
        "consequently",
        "accordingly",
        "secondly",
        "thirdly",
    ]
)
"""Words that tie a sentence to the one before it, and name nothing."""
_NO_THINGS = _TIES | frozenset(
    [
        "day",
        "days",
        "time",
        "times",
        "year",
        "years",
        "week",
        "month",
        "hour",
        "hours",
        "case",
        "way",
        "part",
        "even",
        "perhaps",
        "moreover",
        "furthermore",
        "finally",
        "firstly",
        "secondly",
        "besides",
        "meanwhile",
        "nevertheless",
        "nonetheless",
    ]
)
"""Spans of time and the like, and words that only begin a sentence."""
_BREAKS = frozenset(
    ["and", "or", "but", "that", "which", "who", "if", "when", "because", "as", "than"]
)


class _Phrase(NamedTuple):
    text: str
    is_plural: bool
    points: float


def stands_for(sentence: str, before: Sequence[str]) -> tuple[StandsFor, ...]:
    """What the words of a sentence that point back stand for.

    Args:
        sentence: The sentence.
        before: The sentences before it in its section, the nearest last; two are enough.
    """
    sentence, before = LABEL.sub("", sentence), [LABEL.sub("", text) for text in before]
    found: list[StandsFor] = []
    seen: set[str] = set()
    for match in _PRONOUN.finditer(sentence):
        word = match["word"].lower()
        base = _FORM_OF.get(word, word)
        if base in seen:
            continue
        after = sentence[match.end() :].split()
        if word in ("this", "these", "those", "that") and after and not _is_alone(after):
            continue  # "this method" names what it means
        if word.startswith("such ") or (word == "it" and _EMPTY_IT.match(sentence, match.end())):
            continue
        seen.add(base)
        candidates = _candidates(base, sentence[: match.start()], before)
        if candidates:
            found.append(StandsFor(match["word"], candidates))
    return tuple(found)


_FORM_OF = {"its": "it", "itself": "it", "them": "they", "their": "they", "themselves": "they",
            "him": "he", "his": "he", "her": "she", "those": "these"}  # fmt: skip


def _is_alone(after: Sequence[str]) -> bool:
    """Whether "this" stands by itself: a verb follows it."""
    first = after[0].lower().strip(",.;")
    return (
        first in AUXILIARIES
        or (first.endswith("s") and finite_at(["it", first, "x"], 1))
        or (first.endswith("ly") and len(after) > 1)
    )


def _candidates(word: str, within: str, before: Sequence[str]) -> tuple[str, ...]:
    if word == "this":  # what the sentence before says as a whole
        return ()
    if word in ("the latter", "the former"):
        return _of_two(word, within, before)
    wants_plural = word in _PLURAL
    phrases: dict[str, _Phrase] = {}
    texts = [(within, 1.0)] if within.strip() else []
    texts += [(text, 0.6 - 0.4 * k) for k, text in enumerate(reversed(before[-2:]))]
    for text, nearness in texts:
        for phrase in _phrases(text):
            if phrase.is_plural != wants_plural:
                continue
            if word in _PERSONS and not _is_person(phrase.text.split()):
                continue
            key = phrase.text.lower()
            known = phrases.get(key)
            points = phrase.points + nearness + (1.0 if known else 0.0)
            phrases[key] = phrase._replace(points=max(points, known.points + 1.0 if known else 0.0))
    ranked = sorted(phrases.values(), key=lambda p: -p.points)
    if not ranked or ranked[0].points < LEAST:
        return ()
    if len(ranked) == 1 or ranked[0].points - ranked[1].points >= AHEAD:
        return (ranked[0].text,)
    return (ranked[0].text, ranked[1].text)


def _is_person(tokens: Sequence[str]) -> bool:
    """Whether a phrase can name a person: two names, or one who does something."""
    named = len(tokens) > 1 and all(token[:1].isupper() for token in tokens)
    return (named and tokens[0].lower() not in DETERMINERS) or bool(_PERSONAL.search(tokens[-1]))


def _of_two(word: str, within: str, before: Sequence[str]) -> tuple[str, ...]:
    for text in (within, *reversed(before[-1:])):
        named = re.findall(
            r"((?:the |an? )?[\w’'-]+(?: [\w’'-]+){0,2}?) (?:and|or|nor|from|to|with) ((?:the |an? )?[\w’'-]+(?: [\w’'-]+)?)",
            text,
        )
        if len(named) == 1:
            pair = named[0]
            return (pair[1] if word == "the latter" else pair[0],)
    return ()


def _phrases(text: str) -> list[_Phrase]:
    """Noun phrases of a sentence with what speaks for each: the subject first."""
    tokens = _TOKEN.findall(text)
    low = [token.lower() for token in tokens]
    found: list[_Phrase] = []
    at, verb_seen = 0, False
    while at < len(tokens):
        if finite_at(low, at):
            verb_seen = True
            at += 1
            continue
        end = _phrase_end(tokens, low, at)
        if end == at:
            at += 1
            continue
        start = at
        first = low[start]
        core = [t for t in tokens[start:end] if t.lower() not in DETERMINERS]
        last = core[-1] if core else ""
        tells = len(last) > 2 and last.lower() not in _NO_THINGS and last[0].isalpha()
        if (
            tells
            and not _is_bare(tokens[start:end])
            and not all(is_common(c.lower()) for c in core)
        ):
            after_preposition = start > 0 and low[start - 1] in PREPOSITIONS
            points = 0.3 if after_preposition else 1.2 if not verb_seen else 0.7
            points += 0.3 if first in ("the", "a", "an") else 0.0
            head = core[-1].lower()
            plural = _is_many(head) or first in (
                "these",
                "those",
                "many",
                "several",
                "all",
                "both",
            )
            found.append(_Phrase(" ".join(tokens[start:end]), plural, points))
        at = end
    return found


def _is_bare(tokens: list[str]) -> bool:
    """Whether one small word stands alone, which in the singular is rather a verb than a thing."""
    only = tokens[0] if len(tokens) == 1 else ""
    return only.islower() and (not _is_many(only) or "://" in only or only == "https")


def _is_many(word: str) -> bool:
    """Whether a word in small letters is one for more than one thing; "cvs" is a name."""
    ends = word.endswith("s") and not word.endswith(("ss", "us", "is"))
    return word in _MANY or (ends and any(letter in "aeiouy" for letter in word[:-1]))


def _phrase_end(tokens: list[str], low: list[str], at: int) -> int:
    """Where a noun phrase that may start here ends; the same place where none does."""
    end = at
    while end < len(tokens) and end - at < 6:
        word = low[end]
        if (
            not tokens[end][0].isalnum()
            or word in PREPOSITIONS
            or word in AUXILIARIES
            or word in _BREAKS
        ):
            break
        if word in DETERMINERS:
            if end > at:
                break
        elif is_common(word) or (end > at and finite_at(low, end)) or word.endswith("ly"):
            break
        elif end == at and is_past(word):
            return at  # "read twice"
        elif end == at and is_base(word) and at + 1 < len(low) and low[at + 1] in DETERMINERS:
            return at  # an order
        end += 1
    return end if end > at and low[end - 1] not in DETERMINERS else at
