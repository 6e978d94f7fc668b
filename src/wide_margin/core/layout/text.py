"""Small changes that make extracted characters readable and comparable."""

import re
import unicodedata

from wide_margin.core.later import regex
from wide_margin.core.pages import LINE_END_HYPHEN, LOOSE_ACCENTS, OWN_LIGATURES

_INVISIBLE = "\u00ad\u200b\u200c\u200d\u2060\ufeff"
"""Soft hyphen, zero-width space and joiners: they are not part of a word."""
HYPHENS = "-\u2010\u00ad" + LINE_END_HYPHEN
"""What may part a word at the end of a line."""
_LIGATURES = {
    "\ufb00": "ff", "\ufb01": "fi", "\ufb02": "fl", "\ufb03": "ffi", "\ufb04": "ffl",
    "\ufb05": "st", "\ufb06": "st", LINE_END_HYPHEN: "-", "\ufffd": "",
    **OWN_LIGATURES,
}  # fmt: skip
UNSPACED = "\u3040-\u30ff\u3400-\u4dbf\u4e00-\u9fff\uf900-\ufaff"
"""Letters of scripts that put no blanks between words: kana and Chinese signs, for a pattern."""
BULLETS = "•‣⁃∙⋅◦▪●○■□▶►▸▷▹◆◇❖→⇒✔☐★*∗·・➢➤✓❶❷❸❹❺❻❼❽❾❿\uf0b7\uf0a7\uf0d8\uf0cf\uf076"
"""Signs that begin an item, dashes aside, for a pattern."""
ITEM = regex(
    rf"^\s*(?:[{BULLETS}\ufffd–—-][\s\t]+"
    r"|\(?(?:\d{1,3}|[a-zA-Z]|[ivx]{1,5})[.)][\s\t]+|\(\d{1,3}\)[\s\t]+|\[\d{1,3}\][\s\t]+)"
)
"""How an item of a list begins."""
STOPS = ".。．｡"
"""Full stops, also those of scripts without blanks."""
_UNSPACED = regex(f"[{UNSPACED}]")
_TRANSLATE = str.maketrans({**_LIGATURES, **dict.fromkeys(_INVISIBLE, "")})
_COMBINING = {
    "\u00a8": "\u0308", "\u00b4": "\u0301", "\u0060": "\u0300", "\u02c6": "\u0302",
    "\u02dc": "\u0303", "\u02c7": "\u030c", "\u02da": "\u030a", "\u00af": "\u0304",
}  # fmt: skip
_ACCENTS = {loose: _COMBINING[sign] for sign, loose in LOOSE_ACCENTS.items()}
_AS_SIGNS = str.maketrans({loose: sign for sign, loose in LOOSE_ACCENTS.items()})
_LOOSE = "".join(_ACCENTS)
_ACCENTED = regex(f"([{_LOOSE}]) ?([A-Za-z\u0131])")
_SPACES = regex(r"[^\S ]\s*|  \s*")
"""White space that is more, or something else, than one space."""
_NEEDS_CARE = regex("[" + "".join(_LIGATURES) + _INVISIBLE + _LOOSE + "\u0300-\u036f]")
_WORD = regex(r"\S+")
_STRAY = regex(r"(?:(?<=\s)|^)[\u0300-\u036f]+\s*")
"""An accent over nothing, as some fonts have for an opening quote."""
LEAST_TORN, LONGEST_BIT, MEAN_BIT = 4, 3, 2.5
"""Bits of a torn text: how many at least, letters of each, signs of all on average."""
LEAST_SPACED, SPACED = 6, 0.8
"""Tokens of a text set letter by letter, and the share of them that are a single sign."""


def tidy(text: str) -> str:
    """Text for reading: ligatures opened, loose accents joined to letters, spaces single."""
    if not text.isascii() and _NEEDS_CARE.search(text):
        text = _ACCENTED.sub(_compose, text.translate(_TRANSLATE)).translate(_AS_SIGNS)
        text = _STRAY.sub("", text)
    if _SPACES.search(text):
        text = _SPACES.sub(" ", text)
    return text.strip()


def _compose(match: re.Match[str]) -> str:
    accent, letter = match.groups()
    joined = unicodedata.normalize("NFC", letter.replace("\u0131", "i") + _ACCENTS[accent])
    return joined if len(joined) == 1 else match.group()


def fold(text: str) -> str:
    """Text for comparing: no case, no accents, no invisible signs, quotes and dashes made plain."""
    if text.isascii():
        return text.lower()
    text = unicodedata.normalize("NFKD", text).casefold().translate(_PLAIN)
    return "".join(c for c in text if not unicodedata.combining(c))


def is_torn(text: str) -> bool:
    """Whether a text is bits of a few signs: what is left of a font that gives no meanings."""
    tokens = text.split()
    if len(tokens) < LEAST_TORN or any(
        sum(map(str.isalpha, token)) > LONGEST_BIT for token in tokens
    ):
        return False
    n_signs = sum(map(len, tokens))
    return n_signs <= MEAN_BIT * len(tokens) and not (n_signs == len(tokens) or is_spaced(text))


def is_spaced(text: str) -> bool:
    """Whether a text is words set letter by letter: "A  R E P O R T"."""
    tokens = text.split()
    n_single = sum(len(token) == 1 for token in tokens)
    return len(tokens) >= LEAST_SPACED and n_single >= SPACED * len(tokens)


def folded_with_places(text: str) -> tuple[str, list[int]]:
    """A text folded for comparing, and for each of its characters the place it came from.

    What ``fold(tidy(text))`` holds is in it, in the same order.
    """
    if text.isascii():
        return _folded_ascii(text)
    folded: list[str] = []
    places: list[int] = []
    after_accent = False
    for place, character in enumerate(text):
        if character.isspace():
            if folded and folded[-1] != " " and not after_accent:
                folded.append(" ")
                places.append(place)
            after_accent = False
            continue
        joins = _ACCENTED.match(text, place) if character in _ACCENTS else None
        after_accent = joins is not None and _compose(joins) != joins.group()
        # One that joins no letter is read as the sign it looks like.
        shown = "" if after_accent else fold(character.translate(_AS_SIGNS))
        for part in shown:
            # An accent that stands alone is taken apart to a blank and the accent.
            if part.isspace() and folded[-1:] in ([], [" "]):
                continue
            folded.append(" " if part.isspace() else part)
            places.append(place)
    if folded and folded[-1] == " ":
        folded.pop()
        places.pop()
    return "".join(folded), places


def _folded_ascii(text: str) -> tuple[str, list[int]]:
    """The same of a text without accents and signs: only its blanks and capitals are folded."""
    words: list[str] = []
    places: list[int] = []
    blank = 0
    for match in _WORD.finditer(text):
        if words:
            places.append(blank)
        words.append(match.group())
        places.extend(range(match.start(), match.end()))
        blank = match.end()
    return " ".join(words).lower(), places


_PLAIN = str.maketrans({"’": "'", "‘": "'", "“": '"', "”": '"', "–": "-", "—": "-", "−": "-",
                        "‐": "-", "\u2011": "-", LINE_END_HYPHEN: "-", "\u0131": "i",
                        **{sign: letters.lower() for sign, letters in OWN_LIGATURES.items()},
                        **dict.fromkeys(_INVISIBLE + "\ufffd" + _LOOSE, "")})  # fmt: skip


def word_count(text: str) -> int:
    """How many words a text has; signs of a script without blanks make one in twos."""
    n_blank = len(text.split())
    return n_blank if text.isascii() else n_blank + len(_UNSPACED.findall(text)) // 2
