"""Numbers in front of headings: "2.1", "IV", "Appendix B", "§ 4", "Chapter 3"."""

import re
from functools import lru_cache
from typing import NamedTuple

from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives, first_word, first_words, number_words

_THINGS = ("chapter", "part", "section", "appendix", "book", "article")
_ROMAN = r"(?=[IVXLC])(?:XC|XL|L?X{0,3})(?:IX|IV|V?I{0,3})"


def _named() -> str:
    counted = "|".join(sorted((w for w in number_words() if w.isalpha()), key=len, reverse=True))
    identifier = rf"\d+(?:\.\d+)*|[IVXLC]+|[A-Z]|{counted}"
    return rf"^(?P<word>{alternatives(*_THINGS)})\s+(?P<id>{identifier})\b[\s.:–—-]*"


_NAMED = regex(_named, re.I)
_DECIMAL = regex(r"^(?P<id>\d{1,3}(?:\.\d{1,3}){0,5})\.?(?=\s)\s*(?!\d*\s*$)")
_LETTERED = regex(r"^(?P<id>[A-Z](?:\.\d{1,3}){1,5})\.?(?=\s)\s*")
_LETTER = regex(
    r"^(?P<id>[A-Z])(?:[.)]\s+|\s{1,4}(?=[A-Z\u3040-\u30ff\u4e00-\u9fff\uac00-\ud7af]))"
)
_ROMANED = regex(rf"^(?P<id>{_ROMAN})[.)]?\s+(?=\S)")
_PARAGRAPH = regex(r"^§+\s*(?P<id>\d+[a-z]?)\s*")

_CHINESE = regex(
    r"^第\s*(?P<id>\d+|[零一二三四五六七八九十百]+)\s*(?P<word>章|节|節|部分|部|篇|編|卷|条)[\s:：、.]*"
)
_KOREAN = regex(r"^제\s*(?P<id>\d+|[IVXLC]+)\s*(?P<word>장|편|부|절|조|과)(?:[\s:.]+|$)")
_CHINESE_DIGITS = {sign: value for value, sign in enumerate("一二三四五六七八九", start=1)}


class Number(NamedTuple):
    """The number of a heading."""

    scheme: str
    """The word in front ("chapter", "appendix"), or decimal, letter, roman, paragraph."""
    depth: int
    """How many parts it has: 3 for 2.1.4."""
    rest: str
    """The title after it."""
    identifier: str
    """The number as written: "2.1.4", "B"."""


def unnumbered(title: str) -> str:
    """A title without the number in front, the whole where it has none."""
    number = number_of(title)
    return number.rest if number is not None else title


@lru_cache(maxsize=100_000)
def number_of(title: str) -> Number | None:
    """Take the number off the front of a title; None where there is none."""
    if first_word(title) in first_words(*_THINGS) and (match := _NAMED.match(title)):
        identifier = match["id"]
        return Number(
            match["word"].casefold(), identifier.count(".") + 1, title[match.end() :], identifier
        )
    if title.startswith("第") and (match := _CHINESE.match(title)):
        identifier = match["id"] if match["id"].isdecimal() else str(chinese_number(match["id"]))
        return Number(match["word"], 1, title[match.end() :], identifier)
    if title.startswith("제") and (match := _KOREAN.match(title)):
        return Number(match["word"], 1, title[match.end() :], match["id"])
    for scheme, pattern in (
        ("decimal", _DECIMAL), ("lettered", _LETTERED), ("paragraph", _PARAGRAPH),
        ("roman", _ROMANED), ("letter", _LETTER),
    ):  # fmt: skip
        match = pattern.match(title)
        if match and (match["id"] or "") and title[match.end() :].strip():
            identifier = match["id"]
            return Number(scheme, identifier.count(".") + 1, title[match.end() :], identifier)
    return None


def chinese_number(written: str) -> int:
    """The value of a number below a thousand in Chinese signs: 十二 is 12, 一百零五 is 105."""
    value = digit = 0
    for sign in written:
        if sign in _CHINESE_DIGITS:
            digit = _CHINESE_DIGITS[sign]
        elif sign in "十百":
            value += (digit or 1) * (10 if sign == "十" else 100)
            digit = 0
    return value + digit


def number_before(number: Number) -> str:
    """The identifier that a number of one part counts on from, "" for a first one."""
    name = number.identifier
    if number.depth > 1 or name in ("1", "A", "I"):
        return ""
    if name.isdigit():
        return str(int(name) - 1)
    return chr(ord(name) - 1) if len(name) == 1 and "B" <= name <= "Z" else ""


def goes_on(identifier: str, seen: set[str]) -> bool:
    """Whether a number that alone sets a line off has another before it; a decimal has none."""
    parent, _, last = identifier.rpartition(".")
    if not parent:
        return True
    if not last.isdigit() or identifier in seen:
        return False
    first = last == "1" and (parent in seen or not seen or "." not in parent)
    return f"{parent}.{int(last) - 1}" in seen or first
