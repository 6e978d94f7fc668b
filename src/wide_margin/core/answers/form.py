"""The form that a question asks its answer to have: so many words or sentences, or a list."""

import re
from dataclasses import dataclass
from functools import cache

from wide_margin.core.later import regex
from wide_margin.core.lexicon import number_words


@cache
def _numbers() -> dict[str, int]:
    return {"a": 1} | number_words("en")


def _number() -> str:
    return r"(\d+|" + "|".join(sorted(_numbers(), key=len, reverse=True)) + ")"


_WORDS = regex(
    lambda: (
        rf",?\s*\b(?:in |with )?(?:under|below|at most|no more than|not more than|fewer than|less than|within|up to|about|max(?:imum)?)\s+{_number()}\s+words?\b"
    ),
    re.I,
)
_SENTENCES = regex(
    lambda: rf",?\s*\b(?:in|with)\s+(?:(?:at most|no more than|only|just)\s+)?{_number()}\s+(?:short\s+)?sentences?\b(?!\s+of\b)", re.I
)  # fmt: skip
_LIST = regex(r",?\s*\b(?:as|in) an? (?:bullet(?:ed)? |numbered )?list\b", re.I)
_SHORT = regex(r",?\s*\b(?:briefly|in short|in brief|in a few words)\b", re.I)
BRIEF_WORDS = 25


@dataclass(frozen=True, slots=True)
class Form:
    """Limits on an answer; 0 and False where there is none."""

    max_words: int = 0
    max_sentences: int = 0
    as_list: bool = False

    @property
    def shown(self) -> str:
        """As it is said: "under 50 words", "" where nothing is asked for."""
        parts = []
        if self.max_words:
            parts.append(f"under {self.max_words} words")
        if self.max_sentences:
            parts.append(f"in {self.max_sentences} sentence{'s' * (self.max_sentences > 1)}")
        if self.as_list:
            parts.append("as a list")
        return ", ".join(parts)


ANY_FORM = Form()


def take_form(text: str) -> tuple[str, Form]:
    """The question without its words about form, and the form they ask for."""
    max_words = max_sentences = 0
    if match := _WORDS.search(text):
        max_words = _value(match[1])
        text = _without(text, match)
    if match := _SENTENCES.search(text):
        max_sentences = _value(match[1])
        text = _without(text, match)
    if match := _SHORT.search(text):
        max_words = max_words or BRIEF_WORDS
        text = _without(text, match)
    as_list = False
    if match := _LIST.search(text):
        as_list = True
        text = _without(text, match)
    return text.strip(), Form(max_words, max_sentences, as_list)


def _value(word: str) -> int:
    return int(word) if word.isdigit() else _numbers()[word.lower()]


def _without(text: str, match: re.Match[str]) -> str:
    rest = f"{text[: match.start()]} {text[match.end() :]}"
    rest = " ".join(rest.split()).replace(" ?", "?").lstrip(",:; ")
    return rest[:1].upper() + rest[1:]
