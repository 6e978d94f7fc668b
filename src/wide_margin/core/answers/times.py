"""Times and spans of time: "in June 1987" lies within "from 1985 until 1990"."""

from __future__ import annotations

import re
from typing import NamedTuple

from wide_margin.core.answers.signs import MONTH
from wide_margin.core.later import regex

_OPEN = 10_000 * 12
"""The end of what goes on."""
_MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"]


def _point(name: str) -> str:
    """A pattern for a year, or a month or day of one; "1980s" is a decade."""
    return (
        rf"(?:(?:\d{{1,2}}(?:st|nd|rd|th)?\s+)?(?P<{name}m>{MONTH})\.?,?\s+(?:\d{{1,2}},\s+)?)?"
        rf"(?P<{name}y>(?:1[5-9]|20|21)\d\d)(?P<{name}s>s)?(?!\d)"
    )


_SPAN = regex(
    rf"\b(?:(?:from|between)\s+)?{_point('a')}\s*(?:-|–|—|\bto\b|\buntil\b|\btill\b|\bthrough\b)"
    rf"\s*{_point('b')}", re.I
)  # fmt: skip
_BETWEEN = regex(rf"\bbetween\s+{_point('a')}\s+and\s+{_point('b')}", re.I)
_SINCE = regex(rf"\b(?:since|from)\s+{_point('a')}", re.I)
_UNTIL = regex(rf"\b(?:until|till|up to)\s+{_point('a')}", re.I)
_BEFORE = regex(rf"\b(?:before|prior to|earlier than)\s+{_point('a')}", re.I)
_AFTER = regex(rf"\b(?:after|later than)\s+{_point('a')}", re.I)
_ONE = regex(rf"(?<![\w.,/-]){_point('a')}(?![-/.]\d)", re.I)
_PATTERNS = (_SPAN, _BETWEEN, _SINCE, _UNTIL, _BEFORE, _AFTER, _ONE)


class Span(NamedTuple):
    """A stretch of time in months since year 0, the end not included."""

    start: int
    end: int

    def holds(self, other: Span) -> bool:
        """Whether another one lies within."""
        return self.start <= other.start and other.end <= self.end

    def meets(self, other: Span) -> bool:
        """Whether they share a month."""
        return self.start < other.end and other.start < self.end


class AskedTime(NamedTuple):
    """The time a question asks about."""

    span: Span
    words: frozenset[str]
    """The figures and months that name it, in small letters."""
    is_wide: bool
    """Whether whatever lies in it answers ("before 1900"), and not only what covers it."""


def asked_time(question: str) -> AskedTime | None:
    """The first time that a question names, spans before single ones; None where it names none."""
    for pattern in _PATTERNS:
        for match in pattern.finditer(question):
            span = _span(pattern, match)
            if span is not None:
                named = frozenset(re.findall(r"\w+", match[0].lower()))
                is_wide = pattern is not _ONE or bool(match["as"])
                return AskedTime(span, named, is_wide)
    return None


def times_in(text: str) -> list[Span]:
    """The times that a sentence names, spans as such."""
    found: list[Span] = []
    taken: list[tuple[int, int]] = []
    for pattern in _PATTERNS:
        for match in pattern.finditer(text):
            if any(a < match.end() and match.start() < b for a, b in taken):
                continue
            span = _span(pattern, match)
            if span is not None:
                found.append(span)
                taken.append(match.span())
    return found


def fits(asked: AskedTime, text: str) -> bool:
    """Whether a sentence says something of the time that is asked about."""
    spans = times_in(text)
    if asked.is_wide:
        closed = [span for span in spans if span.start > 0 and span.end < _OPEN]
        return any(asked.span.meets(span) for span in closed)
    return any(span.holds(asked.span) for span in spans)


def conflicts(asked: AskedTime, text: str) -> bool:
    """Whether a sentence speaks of other times alone."""
    spans = times_in(text)
    return bool(spans) and not any(asked.span.meets(span) for span in spans)


def _span(pattern: re.Pattern[str], match: re.Match[str]) -> Span | None:
    """The stretch that a match names; None where it is none."""
    first = _one(match, "a")
    if first is None:
        return None
    if pattern in (_SPAN, _BETWEEN):
        last = _one(match, "b")
        return Span(first.start, last.end) if last and last.end > first.start else None
    ends = {
        _SINCE: (first.start, _OPEN), _UNTIL: (0, first.end), _BEFORE: (0, first.start),
        _AFTER: (first.end, _OPEN),
    }  # fmt: skip
    return Span(*ends.get(pattern, first))


def _one(match: re.Match[str], name: str) -> Span | None:
    year, month = int(match[f"{name}y"]), match[f"{name}m"]
    if match[f"{name}s"]:
        return Span(year * 12, (year + 10) * 12) if year % 10 == 0 else None
    if month:
        start = year * 12 + _MONTHS.index(month[:3].lower())
        return Span(start, start + 1)
    return Span(year * 12, year * 12 + 12)
