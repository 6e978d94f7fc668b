"""Small changes that make extracted characters readable and comparable."""

import re
import unicodedata

from wide_margin.core.pages import LINE_END_HYPHEN

_LIGATURES = {
    "\ufb00": "ff", "\ufb01": "fi", "\ufb02": "fl", "\ufb03": "ffi", "\ufb04": "ffl",
    "\ufb05": "st", "\ufb06": "st", "\u00ad": "", LINE_END_HYPHEN: "-", "\ufffd": "",
    "\u200b": "", "\ufeff": "",
}  # fmt: skip
_TRANSLATE = str.maketrans(_LIGATURES)
# TeX's oldest encoding draws an accent as a character of its own, before its letter.
_ACCENTS = {
    "\u00a8": "\u0308", "\u00b4": "\u0301", "\u0060": "\u0300", "\u02c6": "\u0302",
    "\u02dc": "\u0303", "\u02c7": "\u030c", "\u02da": "\u030a", "\u00af": "\u0304",
}  # fmt: skip
_ACCENTED = re.compile("([" + "".join(_ACCENTS) + r"]) ?([A-Za-z\u0131])")
_SPACES = re.compile(r"[^\S ]\s*|  \s*")
"""White space that is more, or something else, than one space."""
_NEEDS_CARE = re.compile("[" + "".join(_LIGATURES) + "".join(_ACCENTS) + "\u0131]")


def tidy(text: str) -> str:
    """Text for reading: ligatures opened, accents joined to letters, spaces single."""
    if not (text.isascii() and "`" not in text) and _NEEDS_CARE.search(text):
        text = _ACCENTED.sub(_compose, text.translate(_TRANSLATE))
    if _SPACES.search(text):
        text = _SPACES.sub(" ", text)
    return text.strip()


def _compose(match: re.Match[str]) -> str:
    accent, letter = match.groups()
    joined = unicodedata.normalize("NFC", letter.replace("\u0131", "i") + _ACCENTS[accent])
    return joined if len(joined) == 1 else match.group()


def fold(text: str) -> str:
    """Text for comparing: no case, no accents, typographic quotes and dashes made plain."""
    if text.isascii():
        return text.lower()
    text = unicodedata.normalize("NFKD", text).casefold().translate(_PLAIN)
    return "".join(c for c in text if not unicodedata.combining(c))


_PLAIN = str.maketrans({"’": "'", "‘": "'", "“": '"', "”": '"', "–": "-", "—": "-", "−": "-",
                        "‐": "-", "\u2011": "-", LINE_END_HYPHEN: "-"})  # fmt: skip
