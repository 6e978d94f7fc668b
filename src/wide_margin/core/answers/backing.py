"""Checking a sentence against the excerpts it is said to rest on."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import TYPE_CHECKING

from wide_margin.core.answers.model import Verdict
from wide_margin.core.later import loaded_later, regex
from wide_margin.core.lexicon import number_in
from wide_margin.core.search.analysis import Analyser, is_common
from wide_margin.core.search.vectors import frequency_rank, said_rarely, vectors_of

if TYPE_CHECKING:
    import numpy as np
else:
    np = loaded_later("numpy")


BACKED, HALF, SOME = 0.72, 0.5, 0.4
"""Share of a sentence's words that its excerpt must hold to be backed, and to be partly so; every
clause of a backed sentence must hold the second."""
NEAR, CLOSE = 0.42, 0.55
"""Cosine from which a word of the excerpt stands for one of the sentence, and stands for it well."""
SAME_MATTER = 0.75
"""Share of a sentence's words that one clause must hold for their negations to be compared."""
COPIED = 0.6
"""From this share of words in common order a sentence is a copy, and a changed word a change."""

_TOKEN = regex(r"\d+(?:[.,]\d+)*|[^\W\d_]+(?:[’'-][^\W\d_]+)*|%|°")
_NEGATION = regex(
    r"\b(?:not|never|no|none|nobody|nothing|neither|nor|without|cannot|unless|except"
    r"|forbid\w*|prohibit\w*|banned|refus\w*|kein\w*|nicht|niemals|ne|jamais|sans|no|nunca)\b|n[’']t\b",
    re.I,
)
_NOT_NEGATION = regex(
    r"\b(?:no|not) (?:more|less|fewer|later|earlier|longer|shorter|closer) than\b|\bnot only\b|\bno doubt\b"
    r"|\bwhether or not\b|\bno longer than\b", re.I
)  # fmt: skip
_CLAUSE = regex(
    r";\s+|,\s+(?:and|but|so|while|whereas|which|who|where)\s+|\s+(?:and|but|while|whereas)\s+",
    re.I,
)
_SENTENCE = regex(r"(?<=[.!?])\s+")
_OTHER_NUMBERS = {"once": 1, "twice": 2, "dozen": 12}
_NO_QUANTITIES = ("zeroth", "first", "second", "third")
"""They put sentences in order, and a second is a unit."""
_UNITS = {
    "length": "mm millimetre millimeter cm centimetre centimeter m metre meter km kilometre kilometer"
    " inch inches foot feet mile yard",
    "weight": "mg milligram g gram kg kilogram t tonne ton pound lb ounce",
    "time": "ms millisecond s sec second min minute h hour day week fortnight month quarter year decade century",
    "money": "crown øre dollar cent euro pound franc mark shilling penny pence",
    "rate": "hz hertz khz kilohertz mhz megahertz ghz gigahertz knot",
    "pressure": "pa pascal hpa hectopascal kpa kilopascal bar",
    "size": "bit byte kb kilobyte mb megabyte gb gigabyte kib mib gib",
    "other": "% percent per ° degree litre liter volt ampere watt",
}  # fmt: skip
_SAME = {
    "millimeter": "mm", "millimetre": "mm", "centimetre": "cm", "centimeter": "cm", "metre": "m",
    "meter": "m", "kilometre": "km", "kilometer": "km", "gram": "g", "kilogram": "kg", "second": "s",
    "sec": "s", "minute": "min", "hour": "h", "hertz": "hz", "kilohertz": "khz", "megahertz": "mhz",
    "gigahertz": "ghz", "pascal": "pa", "hectopascal": "hpa", "kilopascal": "kpa", "percent": "%",
    "degree": "°", "foot": "feet", "inch": "inches", "millisecond": "ms", "byte": "byte",
    "kilobyte": "kb", "megabyte": "mb", "gigabyte": "gb", "liter": "litre",
}  # fmt: skip
_KIND_OF_UNIT = {unit: kind for kind, names in _UNITS.items() for unit in names.split()}
_CALENDAR = {
    ("quarter", 1): (3, "month"), ("year", 1): (12, "month"), ("week", 1): (7, "day"),
    ("fortnight", 1): (2, "week"), ("decade", 1): (10, "year"), ("century", 1): (100, "year"),
    ("min", 1): (60, "s"), ("h", 1): (60, "min"), ("day", 1): (24, "h"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Backing:
    """What a check found."""

    verdict: Verdict
    reasons: tuple[str, ...] = ()
    """What is not backed, each in a few words to be shown."""
    share: float = 0.0
    """Share of the sentence's words that the excerpt holds."""


@dataclass(frozen=True, slots=True)
class _Amount:
    value: float
    unit: str
    """As in _SAME, or the word that is counted; "" where none follows."""
    shown: str
    is_smaller: bool = False
    """Whether it is another amount once more, in a smaller unit."""


class _Text:
    """A text with what the check asks of it."""

    def __init__(self, text: str, analyser: Analyser) -> None:
        self.text = text
        self.tokens = _TOKEN.findall(text)
        self.lower = [token.lower().replace("’", "'").removesuffix("'s") for token in self.tokens]
        self.stems = [(analyser.terms_of(word) or (word,))[0] for word in self.lower]
        self.amounts = _amounts(self.lower, self.tokens)
        self.values = {amount.value for amount in self.amounts}


def check_backing(
    sentence: str, excerpts: Sequence[str], analyser: Analyser | None = None
) -> Backing:
    """Whether the excerpts back a sentence.

    A number, a unit, a name or a negation that is otherwise in the excerpts unbacks it at once;
    so does a word that was put in place of another in what is else a copy. Apart from these it
    is the share of words that the excerpts hold, in the same or in near words, clause by clause.

    Args:
        sentence: One statement.
        excerpts: What it is said to rest on.
        analyser: The document's; English where None.
    """
    analyser = analyser or Analyser("en")
    source = _Text(" ".join(excerpts), analyser)
    said = _Text(sentence, analyser)
    support = _support(said, source, analyser.language)
    reasons = [
        *_changed_amounts(said, source, support),
        *_changed_names(said, source),
        *_changed_negation(said, source, analyser),
    ]
    if not reasons:
        reasons = _changed_words(said, excerpts, support, analyser)
    share = _share(support)
    if reasons:
        return Backing(Verdict.UNBACKED, tuple(reasons), share)
    clauses = [_share(part) for part in _clauses(sentence, said, support)]
    held = [clause >= BACKED for clause in clauses if clause >= 0]
    if share >= BACKED and all(clause >= HALF for clause in clauses if clause >= 0):
        return Backing(Verdict.BACKED, (), share)
    unheld = tuple(dict.fromkeys(f"“{word}”" for word, worth in support if worth == 0.0))[:4]
    said_to = f"not in the excerpt: {', '.join(unheld)}" if unheld else "said otherwise"
    if any(held) or share >= SOME:
        return Backing(Verdict.PARTLY, (said_to,), share)
    return Backing(Verdict.UNBACKED, (said_to,), share)


def _support(said: _Text, source: _Text, language: str) -> list[tuple[str, float]]:
    """The content words of a sentence, each with how far the source holds it, 0 to 1."""
    held = set(source.stems)
    words = [w for w in dict.fromkeys(source.lower) if w.isalpha() and not is_common(w, language)]
    vectors, _ = vectors_of(words) if language == "en" else (np.zeros((0, 96), np.float32), [])
    found = []
    for token, word, stem in zip(said.tokens, said.lower, said.stems, strict=True):
        if is_common(word, language) or _value(word) is not None or not word[0].isalpha():
            continue
        if word in _KIND_OF_UNIT or word.removesuffix("s") in _KIND_OF_UNIT:
            continue
        found.append((token, 1.0 if stem in held else _nearness(word, stem, held, vectors)))
    return found


def _nearness(word: str, stem: str, held: set[str], vectors: np.ndarray) -> float:
    if len(stem) >= 5 and any(other[:5] == stem[:5] for other in held):
        return 0.8
    if any(_is_within(stem, other) or _is_within(other, stem) for other in held):
        return 0.8
    vector, found = vectors_of([word])
    if not found or not len(vectors):
        return 0.0
    best = float((vectors @ vector[0]).max())
    if best >= CLOSE:
        return 0.8
    return 0.6 if best >= NEAR else 0.0


def _is_within(stem: str, other: str) -> bool:
    """Whether a stem is another one with a syllable in front: "partition", "repartition"."""
    return len(stem) >= 5 and len(other) > len(stem) and other.endswith(stem)


def _share(support: Sequence[tuple[str, float]]) -> float:
    """Mean support, words of everyday speech weighing less; -1 where there are no words."""
    if not support:
        return -1.0
    weights = [said_rarely(token.lower()) for token, _ in support]
    return sum(w * worth for w, (_, worth) in zip(weights, support, strict=True)) / sum(weights)


def _clauses(
    sentence: str, said: _Text, support: list[tuple[str, float]]
) -> list[list[tuple[str, float]]]:
    worth = dict(support)
    return [
        [(token, worth[token]) for token in _TOKEN.findall(part) if token in worth]
        for part in _CLAUSE.split(sentence)
    ]


# --- numbers and units


def _value(word: str) -> float | None:
    if word[0].isdigit():
        plain = word.replace(",", "") if re.fullmatch(r"\d{1,3}(?:,\d{3})+", word) else word
        try:
            return float(plain.replace(",", "."))
        except ValueError:
            return None
    number = _OTHER_NUMBERS.get(word, number_in(word, "en"))
    return None if number is None or word in _NO_QUANTITIES else float(number)


def _unit_of(word: str) -> str:
    for form in (word, word.removesuffix("s"), word.removesuffix("es")):
        if form in _KIND_OF_UNIT:
            return _SAME.get(form, form)
    return ""


def _amounts(lower: list[str], tokens: list[str]) -> list[_Amount]:
    """The numbers of a text, each with the unit after it or the word it counts."""
    found = []
    for k, word in enumerate(lower):
        value = _value(word)
        if value is None:
            if (
                (unit := _unit_of(word))
                and k
                and lower[k - 1] in ("a", "an", "every", "each", "per", "one")
            ):
                found.extend(_with_smaller(_Amount(1.0, unit, tokens[k])))
            continue
        if word == "one" and (k + 1 >= len(lower) or not _unit_of(lower[k + 1])):
            continue  # "the one that"
        after = lower[k + 1] if k + 1 < len(lower) else ""
        found.extend(_with_smaller(_Amount(value, _unit_of(after) or after, tokens[k])))
    return found


def _with_smaller(amount: _Amount) -> list[_Amount]:
    """An amount, and the same of the calendar's next smaller unit: a year and twelve months."""
    if amount.value != 1.0 or (amount.unit, 1) not in _CALENDAR:
        return [amount]
    more, smaller = _CALENDAR[amount.unit, 1]
    return [amount, _Amount(float(more), smaller, amount.shown, is_smaller=True)]


def _changed_amounts(said: _Text, source: _Text, support: list[tuple[str, float]]) -> list[str]:
    reasons = []
    worth = {token.lower(): value for token, value in support}
    share = _share(support)
    for amount in said.amounts:
        if amount.is_smaller:
            continue  # judged with the larger one
        if amount.value == 1.0 and (amount.unit, 1) in _CALENDAR:
            if _is_other_length(amount, source, is_same_matter=share >= HALF):
                reasons.append(f"the number {amount.shown} is not in the excerpt")
            continue
        if amount.value not in source.values:
            if amount.value == 1.0 or share < HALF:
                continue  # another matter, and counted as such by its words
            reasons.append(f"the number {amount.shown} is not in the excerpt")
            continue
        if _kind(amount.unit) == "":
            if amount.unit and worth.get(amount.unit, 1.0) == 0.0 and _is_thing(amount.unit):
                reasons.append(f"“{amount.shown} {amount.unit}” is not in the excerpt")
            continue
        units = {other.unit for other in source.amounts if other.value == amount.value}
        measured = {unit for unit in units if _kind(unit)}
        if measured and amount.unit not in measured:
            reasons.append(f"the excerpt gives {amount.shown} in another unit")
        elif not measured and amount.value != 1.0 and len(units) == 1 and "" not in units:
            reasons.append(f"the excerpt gives {amount.shown} without that unit")
    return list(dict.fromkeys(reasons))


def _is_other_length(amount: _Amount, source: _Text, *, is_same_matter: bool) -> bool:
    """Whether the source does not give a length of time: one year, one quarter and so on.

    Args:
        amount: One of a unit of time.
        source: What it is said to rest on.
        is_same_matter: Whether most of the sentence is in the source; if not, only one of
            another unit speaks against it ("every week" for "every month").
    """
    more, smaller = _CALENDAR[amount.unit, 1]
    same = {(1.0, amount.unit), (float(more), smaller)}
    if any((other.value, other.unit) in same for other in source.amounts):
        return False
    times = [other for other in source.amounts if _kind(other.unit) == "time"]
    return is_same_matter or any(other.value == 1.0 for other in times)


def _kind(unit: str) -> str:
    return _KIND_OF_UNIT.get(unit, "")


def _is_thing(word: str) -> bool:
    return word.isalpha() and not is_common(word) and len(word) > 2


# --- names, negation, changed words


def _changed_names(said: _Text, source: _Text) -> list[str]:
    """Names of the sentence that the source does not have."""
    held = set(source.stems)
    reasons = []
    for k, (token, stem) in enumerate(zip(said.tokens, said.stems, strict=True)):
        if not token[0].isupper() or stem in held or is_common(token.lower()):
            continue
        rank = frequency_rank(token.lower())
        if k == 0 and rank is not None:
            continue  # an ordinary word that begins the sentence
        reasons.append(f"“{token}” is not in the excerpt")
    return reasons


def _changed_negation(said: _Text, source: _Text, analyser: Analyser) -> list[str]:
    """Whether the sentence denies what its nearest sentence in the source affirms, or the reverse."""
    content = {s for s, w in zip(said.stems, said.lower, strict=True) if not is_common(w)}
    best, best_share = "", 0.0
    for part in _parts(source.text):
        stems = {(analyser.terms_of(w.lower()) or (w,))[0] for w in _TOKEN.findall(part)}
        share = len(content & stems) / max(len(content), 1)
        if share > best_share:
            best, best_share = part, share
    if best_share < SAME_MATTER:
        return []  # too far from it to tell: "unless" may have become "only if"
    if _denies(said.text) != _denies(best):
        return [
            "it denies what the excerpt says" if _denies(said.text) else "the excerpt denies it"
        ]
    return []


def _parts(text: str) -> list[str]:
    """Sentences and their clauses."""
    sentences = _SENTENCE.split(text)
    return [part for s in sentences for part in (*_CLAUSE.split(s), s) if part.strip()]


def _denies(text: str) -> bool:
    plain = _NOT_NEGATION.sub(" ", text)
    return len(_NEGATION.findall(plain)) % 2 == 1


def _changed_words(
    said: _Text, excerpts: Sequence[str], support: list[tuple[str, float]], analyser: Analyser
) -> list[str]:
    """A word put in place of another in what is else a copy of a sentence of the source."""
    unheld = {token for token, worth in support if worth < 0.5}
    if not unheld:
        return []
    for excerpt in excerpts:
        for sentence in _SENTENCE.split(excerpt):
            source = _Text(sentence, analyser)
            matcher = SequenceMatcher(None, said.stems, source.stems, autojunk=False)
            blocks = matcher.get_opcodes()
            copied = sum(b - a for tag, a, b, _, _ in blocks if tag == "equal")
            if copied < COPIED * len(said.stems):
                continue
            for tag, a, b, c, d in blocks:
                put_in = [token for token in said.tokens[a:b] if token in unheld]
                put_out = [word for word in source.lower[c:d] if not is_common(word)]
                is_tail = b == len(said.tokens) and b - a > 3
                if tag == "replace" and put_in and put_out and d - c == b - a and not is_tail:
                    return [
                        f"“{put_in[0]}” stands where the excerpt has “{' '.join(source.tokens[c:d])}”"
                    ]
    return []
