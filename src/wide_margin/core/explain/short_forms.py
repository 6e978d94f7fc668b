"""Short forms that a text spells out itself: abbreviations, and symbols of quantities."""

import re
from collections.abc import Iterator
from functools import cache
from math import inf

from wide_margin.core.later import regex
from wide_margin.core.search import is_common

_IN_BRACKETS = regex(
    r"\(\s*(?:the\s+|an?\s+|hereafter\s+|abbreviated\s+(?:as\s+|to\s+)?|or\s+|called\s+)?"
    r"[“\"‘'.]?(?P<short>(?:[A-Z]\.){2,6}|[A-Za-z][A-Za-z0-9&/-]{0,9}[A-Z][A-Za-z0-9&/-]{0,6}?|[A-Z]{2,8}\d?)s?[”\"’']?\s*[),;]"
)  # fmt: skip
_SHORT_LONG = regex(
    r"(?<![\w.])(?P<short>(?:[A-Z]\.){2,6}|[A-Z][A-Za-z0-9&/-]{1,9})\s*(?:\[[\d,\s–-]+\]\s*)?"
    r"(?:\(\s*(?:short for\s+|i\.e\.,?\s+|for\s+|the\s+|that is,?\s+|which stands for\s+|an?\s+)?(?:[“\"])?(?P<long>[A-Za-z][^()]{4,70}?)[”\"]?\s*[);,]"
    r"|,?\s+(?:(?:which|that)\s+)?(?:stands?|stood|standing|(?:is )?short|(?:is )?(?:an?|the)\s+(?:abbreviation|acronym))\s+(?:for|of)\s+(?:the\s+)?[“\"]?(?P<long2>[A-Za-z][^().;:”\"]{4,70})"
    r"|\s*(?:[:—–]|\bmeans|\bdenotes|\bbedeutet)\s+(?:the\s+)?(?P<long3>[A-Za-z][^().;:=]{4,70}))"
)  # fmt: skip
_OR_SHORT = regex(
    r",?\s(?:or|abbreviated(?:\s+(?:as|to))?|known as|for short,?)\s+[“\"‘']?"
    r"(?P<short>[A-Z][A-Z0-9&-]{1,8})s?[”\"’']?(?=[\s,.;:)])"
)  # fmt: skip
_SYMBOL = r"(?P<symbol>[^\W\d_][₀-₉′″*]{0,2}|[^\W\d_]\d?|[α-ωΑ-Ω]\w?|[a-zA-Z]_\w{1,3}|[^\w\s,.;:()\[\]{}“”\"‘’'|/\\-]{1,2})"
_SYMBOL_IS = regex(
    rf"(?:(?:\b(?i:where|with|and|let|here|in which|if|that)|,)\s+){_SYMBOL}\s+"
    r"(?:is|are|be|denotes?|stands? for|represents?|means?|being|indicates?|gives)\s+(?P<meaning>(?:the|an?|any|some|its|their|one|all)\s+[^,;.()]{3,90})"
)  # fmt: skip
_SUBJECT_SYMBOL = regex(
    rf"^(?:The (?:symbol|sign|mark|letter|character)\s+)?[“\"‘'`(]?{_SYMBOL}[”\"’')]?\s+"
    r"(?P<verb>is|are|denotes?|stands? for|represents?|means?|marks?|indicates?)\s+(?P<meaning>(?:the|an?|any|that|places?|values?|its)\s+[^;.()]{3,110})"
)  # fmt: skip
_DENOTED = regex(
    r"(?P<meaning>\b(?i:the|an?)\s+[^,;.()]{3,80}?),?\s+(?:is|are|be|being|will be)?\s*(?:then\s+|often\s+|usually\s+|also\s+)?"
    rf"(?:denoted|written|marked|indicated|represented|symboli[sz]ed|given|designated)\s+(?:by|as|with)\s+(?:the\s+(?:symbol|letter|sign)\s+|an?\s+)?[“\"‘'`]?{_SYMBOL}[”\"’']?(?=[\s,.;:)]|$)"
)  # fmt: skip
_WE_WRITE = regex(
    rf"\b(?:we|us|I|let)\s+(?:write|use|denote(?: by)?|let|put|choose)\s+[“\"‘'`]?{_SYMBOL}[”\"’']?\s+(?:for|to denote|to mean|to stand for|be|denote|to represent|the)\s+(?P<meaning>[^,;.()]{{4,90}})",
    re.I,
)
_DENOTE = regex(
    rf"\b[Dd]enot(?:e|es|ing)\s+(?:by\s+{_SYMBOL}\s+(?P<meaning>(?:the|an?)\s+[^,;.()]{{3,80}}))"
)
_SAYS = regex(r",|\b(?:is|are|was|were|has|have|can|using|uses)\b", re.I)
LONGEST = 90
"""Characters before a short form in which its long form is looked for."""
_ARTICLES = ("a", "an", "the")
SMALL_BETWEEN = 4
"""Words beside those of its letters that what a short form stands for has at most."""
ITS_OWN = 1
"""The same of one whose long form begins with it: "GNU's not Unix"."""
OF_JOINED, OF_PARTED = 0.5, 0.8
"""Shares of its letters that are initials: where all words give some, and where one does not."""
MOST_WORDS = 10
"""A long form has at most so many words."""


def find_short_forms(text: str) -> Iterator[tuple[str, str, float]]:
    """Abbreviation, what it stands for, and how sure that is, for each that a sentence spells out.

    Only what the initials bear out is believed.
    """
    if not any(c.isupper() for c in text):
        return
    for match in _IN_BRACKETS.finditer(text) if "(" in text else ():
        before = text[max(0, match.start() - LONGEST) : match.start()]
        short = match["short"].replace(".", "")
        if _is_short(short) and (long := spelled_out(before, short)):
            yield match["short"], long, 0.95
    for match in _SHORT_LONG.finditer(text):
        long = match["long"] or match["long2"] or match["long3"] or ""
        short = match["short"].replace(".", "")
        if long.startswith(short):
            continue  # "BELL (BELLView)": a part of it
        if _is_short(short) and (found := spelled_out_front(long, short)):
            yield match["short"], found, 0.93
    for match in _OR_SHORT.finditer(text):
        before = text[max(0, match.start() - LONGEST) : match.start()]
        long = _by_initials(before, match["short"])
        if long and match["short"] not in re.split(r"\W+", long):  # "CM.make or CM"
            yield match["short"], long, 0.85


def _is_short(short: str) -> bool:
    return 2 <= len(short) <= 10 and sum(c.isupper() for c in short) >= 2


def symbols_in(text: str) -> Iterator[tuple[str, str, float]]:
    """Symbol, what it stands for, and how sure that is, for each that a sentence explains."""
    for pattern, weight in (
        (_SYMBOL_IS, 0.8), (_SUBJECT_SYMBOL, 0.7), (_DENOTED, 0.8), (_WE_WRITE, 0.8), (_DENOTE, 0.85),
    ):  # fmt: skip
        for match in pattern.finditer(text):
            symbol = match["symbol"]
            if symbol.lower() not in ("a", "i") and not (
                len(symbol) > 1 and is_common(symbol.lower())
            ):
                yield symbol, match["meaning"].strip(), weight


def _by_initials(long: str, short: str) -> str:
    """The last words whose initials are the letters one by one, small words passed over."""
    found = list(re.finditer(r"[^\W_]+", long))
    at = len(found)
    for letter in reversed(short.lower()):
        at -= 1
        while at >= 0 and found[at][0][0].lower() != letter and is_common(found[at][0].lower()):
            at -= 1
        if at < 0 or found[at][0][0].lower() != letter:
            return ""
    return long[found[at].start() : found[-1].end()]


def spelled_out(long: str, short: str) -> str:
    """The words at the end of ``long`` whose initials give the abbreviation, "" if none do.

    Source:
        The backward match of Schwartz and Hearst, "A simple algorithm for identifying
        abbreviation definitions in biomedical text", 2003.
    """
    letters = [c.lower() for c in short if c.isalnum()]
    text = long.rstrip(" (“\"‘'")
    at = len(text)
    for position, letter in enumerate(reversed(letters)):
        first = position == len(letters) - 1
        at -= 1
        while at >= 0 and not (
            text[at].lower() == letter and (not first or at == 0 or not text[at - 1].isalnum())
        ):
            at -= 1
        if at < 0:
            return ""
    found = text[at:]
    if re.search(r"[:;!?]|\.\s", found) or re.match(rf"{re.escape(short)}\b", found):
        return ""
    n_words = len(found.replace("-", " ").split())
    if n_words > len(letters) and _SAYS.search(found):
        return ""  # letters of a whole clause give any short form
    return (
        found
        if n_words <= min(len(letters) + 5, 2 * len(letters)) and len(found) > len(short)
        else ""
    )


def spelled_out_front(long: str, short: str) -> str:
    """The words at the start of ``long`` whose initials give the abbreviation, "" if none do."""
    letters = [c.lower() for c in short if c.isalnum()]
    parts = re.findall(r"[^\W_]+", long)
    at, used = 0, 0
    for part in parts[:MOST_WORDS]:
        if at < len(letters) and part[0].lower() == letters[at]:
            at += 1
            inner = 1  # "hypertext" may give two letters
            while (
                part.lower() != short.lower()  # "SAX (using SAX)" stands for nothing
                and at < len(letters)
                and len(parts) < len(letters)
                and letters[at] in part[inner:].lower()
            ):
                inner = part.lower().index(letters[at], inner) + 1
                at += 1
        elif not is_common(part.lower()):
            return ""
        used += 1
        if at == len(letters):
            break
    if at < len(letters):
        return ""
    end = [m.end() for m in re.finditer(r"[^\W_]+", long)][used - 1]
    return long[:end]


def may_spell_out(text: str, short: str) -> bool:
    """Whether words of a text that follow each other may be what a short form stands for.

    They begin with its first letter, have its letters in order, and half of these as initials.
    """
    letters = [c for c in short.lower() if c.isalnum()]
    parts = [part.lower() for part in re.findall(r"[^\W_]+", text)]
    starts = [k for k, part in enumerate(parts) if letters and part[0] == letters[0]]

    def between(k: int) -> int:
        """Its own long form may begin with it, and then has hardly another word."""
        return ITS_OWN if parts[k] == "".join(letters) else SMALL_BETWEEN

    return len(letters) > 1 and any(
        _has_letters(parts[k : k + len(letters) + between(k)], letters) for k in starts
    )


def _has_letters(parts: list[str], letters: list[str]) -> bool:
    """Whether words give the letters in order, enough of them as initials.

    With a word between that gives none more are, and articles give none: "incoming mail received
    from a POP server" is not what IMAP stands for.
    """
    return _most_initials(parts, letters, is_parted=False) >= OF_JOINED * len(letters) or (
        _most_initials(parts, letters, is_parted=True) >= OF_PARTED * len(letters)
    )


def _most_initials(parts: list[str], letters: list[str], *, is_parted: bool) -> float:
    """How many letters may be initials of words that give all in order; none where they cannot."""
    short = "".join(letters)

    @cache
    def most(part: int, at: int, n_between: int) -> float:
        """How many of the letters from one on may be initials of the words from one on."""
        if at == len(letters):
            return 0.0
        if part == len(parts):
            return -inf
        word = parts[part]
        found = -inf
        if is_common(word) or n_between:
            found = most(part + 1, at, n_between - (not is_common(word)))
        if is_parted and word in _ARTICLES:
            return found
        is_initial = word[0] == letters[at]
        for sign in word[:1] if word == short else word:  # "GNU's not …" begins with it
            if at < len(letters) and sign == letters[at]:
                at += 1
                found = max(found, is_initial + most(part + 1, at, n_between))
        return found

    return most(0, 0, int(is_parted))
