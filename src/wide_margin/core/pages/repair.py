"""Characters that old fonts give no sound meaning: ligatures as control codes, accents apart."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable
from string import ascii_letters, ascii_lowercase
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.later import regex
from wide_margin.core.pages.model import LOOSE_ACCENTS, OWN_LIGATURES
from wide_margin.core.pages.parted import NOTHING
from wide_margin.core.shipped import frequent_words

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray

# Where the ligatures stand in TeX's first encoding (OT1) and in the later one (T1, Cork): a font
# without a table of meanings passes these codes on as they are.
_LIGATURE = {
    0x0B: "\ufb00", 0x0C: "\ufb01", 0x0D: "\ufb02", 0x0E: "\ufb03", 0x0F: "\ufb04",
    0x1B: "\ufb00", 0x1C: "\ufb01", 0x1D: "\ufb02", 0x1E: "\ufb03", 0x1F: "\ufb04",
}  # fmt: skip
_OPENED = {
    "\ufb01": "fi", "\ufb00": "ff", "\ufb02": "fl", "\ufb03": "ffi", "\ufb04": "ffl",
    **OWN_LIGATURES,
}  # fmt: skip
_WORD = regex(r"(?:[A-Za-z\x0b\x0c\x0e\x0f\x1b-\x1f]|\x0d(?!\n))+")
LIGATURE_CODES = frozenset(_LIGATURE) - {0x0D}
_LIGATURE_CODE = regex(
    r"(?<=[^\W\d_])[\x0b\x0c\x0e\x0f\x1b-\x1f]|[\x0b\x0c\x0e\x0f\x1b-\x1f](?=[a-zß-ÿ])"
    r"|\x0d(?=[a-zß-ÿ])"
)
"""Such a code within a word. The code of "fl" is that of a line end, too, which no letter follows
at once."""
_CODES = regex(r"[\x0b-\x0c\x0e\x0f\x1b-\x1f]|\x0d(?!\n)")
_LEFT_OVER = regex(r"[\x0b\x0c\x0e\x0f\x1b-\x1f]")
_CIRCLED_C = regex(r"(?:\x0dc|c\x0d(?!\n))(?=\s+\d{4})")
"""The sign of copyright as TeX sets it: a circle at the code of "fl", and the letter in it."""
_COMBINING = {
    "\u0060": "\u0300",
    "\u00a8": "\u0308", "\u00b4": "\u0301", "\u02c6": "\u0302", "\u02dc": "\u0303",
    "\u02c7": "\u030c", "\u02da": "\u030a", "\u00af": "\u0304", "\u00b8": "\u0327",
    "\u02db": "\u0328", "\u02d8": "\u0306", "\u02dd": "\u030b", "\u02d9": "\u0307",
}  # fmt: skip
_ACCENTS = _COMBINING | {
    loose: _COMBINING.get(sign, "\u0300") for sign, loose in LOOSE_ACCENTS.items()
}
_ACCENT = regex("[" + "".join(_ACCENTS) + "]")
_BASE = regex(r"[A-Za-z\u0131]")
AS_LIGATURE, FAR_MORE = 0.3, 3
"""A code that as a ligature makes known words of fewer than this share of the words it stands in
is a letter, where one makes so many times as many."""
LEVEL = 0.5
"""Share of its height by which an accent lies in the line of its letter."""
WITHIN_WORD = 0.1
"""Distance of the letters of a word at most, as a share of their height."""
_BLANK = " "

_SOFT = regex("\u00ad(?!\\s*(?:[\\r\\n]|$))")
"""A soft hyphen within a line."""
BoxesOf = Callable[[IntArray], FloatArray]
"""Boxes of some characters in page space."""


_COMPANION = {"\x84": "†", "\x85": "‡", "\x88": "•"}
"""Signs of TeX's companion fonts (TS1), which have no letters at these codes."""
_ALONE = regex(r"(?<!\S)\x88(?=\s)|(?<=\w)[\x84\x85](?=\s|$)")


_LAWFUL = {
    "\uf8e8": "®", "\uf8e9": "©", "\uf8ea": "™", "\uf6d9": "©", "\uf6da": "®", "\uf6db": "™",
}  # fmt: skip
"""The signs of copyright, of what is registered and of trade marks, in the corporate-use codes of
Adobe's glyph list."""
_ANY_LAWFUL = regex(f"[{''.join(_LAWFUL)}]")
_OTHER_SHAPES = regex("[\uf730-\uf739\uf761-\uf77a\uf7e0-\uf7f6\uf7f8-\uf7fe]")
"""Old-style figures and small capitals in the corporate-use codes of Adobe's glyph list; a plain
sign has the same code without F7."""


def with_signs(chars: str) -> str:
    """The text with bullets and the marks of footnotes in place of their codes in old fonts.

    Old-style figures and small capitals with codes of their own become the plain ones.
    """
    if chars.isascii():
        return chars
    chars = _ANY_LAWFUL.sub(lambda match: _LAWFUL[match[0]], chars)
    if _OTHER_SHAPES.search(chars):
        chars = _OTHER_SHAPES.sub(lambda match: chr(ord(match[0]) - 0xF700), chars)
    if not any(code in chars for code in _COMPANION):
        return chars
    return _ALONE.sub(lambda match: _COMPANION[match.group()], chars)


def with_hyphens(chars: str, boxes_of: BoxesOf) -> str:
    """The text with hyphens in place of soft ones that are printed within a line.

    Some fonts have the one in place of the other: "\u00adf a" is an option, "best\u00adscoring" has
    a hyphen. One that takes no room is none.
    """
    found = [match.start() for match in _SOFT.finditer(chars)]
    if not found:
        return chars
    boxes, made = boxes_of(np.array(found)), list(chars)
    for at, width in zip(found, (boxes[:, 2] - boxes[:, 0]).tolist(), strict=True):
        if width > 0:
            made[at] = "-"
    return "".join(made)


_CYRILLIC = regex(r"[\u0400-\u04ff]")
_MIXED = regex(
    r"\b(?=\w*[\u0400-\u04ff])(?=\w*[A-Za-z])[\w’'-]+\b|(?<=[\u0400-\u04ff]\s)i(?=\s[\u0400-\u04ff])"
)
_LATIN = regex(r"[A-Za-z]")
_ALIKE = str.maketrans("ABCEHIKMOPTXaceiopxyj", "АВСЕНІКМОРТХасеіорхуј")


def with_one_alphabet(chars: str) -> str:
    """The text with Cyrillic letters in Cyrillic words where Latin ones stand that look the same.

    Old fonts for Cyrillic text take "i" from the Latin alphabet, and no search finds the word. A
    word with other Latin letters is left as it is.
    """
    if not _CYRILLIC.search(chars):
        return chars

    def in_one(match: re.Match[str]) -> str:
        word = match.group()
        changed = word.translate(_ALIKE)
        return word if _LATIN.search(changed) else changed

    return _MIXED.sub(in_one, chars)


_GREEK = "\u0370-\u03ff\u1f00-\u1fff"
_SHARED = {
    "\uf13e": "Δ", "\uf13f": "Ω", "\uf140": "μ", "\uf147": "β", "\uf149": "θ", "\uf14a": "χ",
    "\uf166": "λ", "\uf169": "ω", "\uf17d": "γ",
}  # fmt: skip
"""Letters that Greek shares with phonetics or units, where a font has two glyphs of them."""
_ANY_SHARED = regex(f"[{''.join(_SHARED)}]")
_SHARED_IN_WORD = regex(
    rf"(?<=[{_GREEK}])[{''.join(_SHARED)}]+|[{''.join(_SHARED)}]+(?=[{_GREEK}])"
)


def with_greek_letters(chars: str) -> str:
    """The text with Greek letters in Greek words where a font has codes for private use.

    Source:
        The private codes of the Computer Modern Unicode fonts, as their tables have them.
    """
    if not _ANY_SHARED.search(chars):  # pages without any are told at once
        return chars
    return _SHARED_IN_WORD.sub(lambda match: "".join(map(_SHARED.__getitem__, match[0])), chars)


_TURNED = "".join(chr(ord(letter) << 8) for letter in ascii_letters)
_ANY_TURNED = regex(f"[{_TURNED}]")
_TURNED_IN_WORD = regex(rf"(?<=[A-Za-z])[{_TURNED}]{{2,}}|[{_TURNED}]{{2,}}(?=[A-Za-z])")
"""The letters of a ligature with their two bytes turned round, which are rare Chinese signs."""


def with_turned_letters(chars: str) -> str:
    """The text with letters in words in place of ligatures with their two bytes turned round."""
    if not _ANY_TURNED.search(chars):  # pages without any are told at once
        return chars
    return _TURNED_IN_WORD.sub(
        lambda match: "".join(chr(ord(sign) >> 8) for sign in match[0]), chars
    )


_CORK = regex(r"[\x10-\x17]")
"""Codes of quotation marks and dashes in TeX's later encoding (T1)."""
_BEFORE_WORD = r"(?<![^\s(\[{/–—-])"
_AFTER_WORD = r"(?<=[^\W_]|[.,;:!?)\]}>+*%#$&'’…])"
_STOPPED = r"(?=[\s.,;:!?)\]}/–—-]|[’']s|$)"
_MARKS = (("\x12", "\x10", "„", "“"), ("\x10", "\x11", "“", "”"), ("\x13", "\x14", "«", "»"))
"""Codes of what opens and of what closes, and the signs; large brackets of formulas have the same
codes in another font, and stand apart or within a word."""
_PAIRS = tuple(
    (
        regex(rf"{_BEFORE_WORD}{opens}(?=[^\W_\u200b]|[\x1b-\x1f<&\\(\[.$%#'‘*+~-])"), first,
        regex(rf"{_AFTER_WORD}{closes}{_STOPPED}"), last,
    )
    for opens, closes, first, last in _MARKS
)  # fmt: skip
_ANY_OPENING = regex(rf"{_BEFORE_WORD}\x10(?=\S)")
_ANY_CLOSING = regex(rf"(?<=\S)\x11|{_BEFORE_WORD}\x11(?=[^\W_])")
"""Beside signs too, on a page that has such marks; one that closes may be typed before a word."""
_CORK_LIGATURE, _OT_LIGATURE = regex(r"[\x1b-\x1f](?=[a-z])"), regex(r"[\x0b\x0c\x0e\x0f]")
"""Codes of ligatures in that encoding and in the first one, which has accents at those codes."""
_EN_DASH = regex(r"(?<=\w)\x15(?=\w)|(?<=\s)\x15(?=\s)")
_EM_DASH = regex(r"(?<=[\w\s,.)”])\x16(?=[\w\s“])")
_WORD_MARK = regex(r"(?<=([<>,`'-]))\x17(?=\1)")
"""Keeps two signs from becoming a ligature, and shows nothing."""


def with_cork_signs(chars: str) -> str:
    """The text with quotation marks and dashes in place of their codes in old fonts.

    A font without a table of meanings passes the codes of TeX's later encoding on as they are.

    Source:
        The Cork encoding (T1), TUGboat 11 (1990), 514.
    """
    if not _CORK.search(chars):
        return chars
    chars = _WORD_MARK.sub(NOTHING, chars)
    is_cork = bool(_CORK_LIGATURE.search(chars)) and not _OT_LIGATURE.search(chars)
    for opens, first, closes, last in _PAIRS:
        if first == "«" and not is_cork:
            continue
        if opens.search(chars) and closes.search(chars):
            chars = closes.sub(last, opens.sub(first, chars))
            is_cork = True
    if is_cork:
        chars = _ANY_CLOSING.sub("”", _ANY_OPENING.sub("“", chars))
        chars = _EM_DASH.sub("—", _EN_DASH.sub("–", chars))
    return chars


def with_ligatures(chars: str) -> str:
    """The text with ligatures in place of the codes that stand for them in old fonts.

    A code means what it does in TeX's encodings, unless another ligature makes known words of
    more of the page's words: some fonts number their signs as they please. Where they put a plain
    letter at such a code, that letter makes words of far more of them.
    """
    if not _CODES.search(chars):
        return chars
    chars = _CIRCLED_C.sub("© ", chars)
    meant: dict[str, str] = {}
    for code in set(_LIGATURE_CODE.findall(chars)):
        usual = _LIGATURE[ord(code)]
        words = {word for word in _WORD.findall(chars) if set(_CODES.findall(word)) == {code}}
        meant[code] = max(_OPENED, key=lambda sign: _speaks_for(sign, words, code, usual))
        n_known = _n_known(words, code, _OPENED[meant[code]])
        if n_known < AS_LIGATURE * len(words):
            letter = max(ascii_lowercase, key=lambda letter: _n_known(words, code, letter))
            as_letter = _n_known(words, code, letter)
            is_in_all = n_known == 0 and as_letter == len(words) > 1
            if is_in_all or as_letter >= FAR_MORE * max(n_known, 1):
                chars = re.sub(rf"{code}(?!\n)", letter, chars)
                del meant[code]
    opened = _LIGATURE_CODE.sub(lambda match: meant.get(match.group(), match.group()), chars)
    return _LEFT_OVER.sub("\ufffd", opened)


def _speaks_for(sign: str, words: set[str], code: str, usual: str) -> tuple[int, bool]:
    """How many words a ligature makes known in place of a code, less where it is a rare one."""
    rarity = ONE_WORD if sign in OWN_LIGATURES and sign != usual else 0
    return _n_known(words, code, _OPENED[sign]) - rarity, sign == usual


ONE_WORD = 1
"""Known words that a ligature which few fonts have needs to have more than the usual one: a name
of three letters and a code, such as "a?y", makes one by chance."""
_ODD_LETTER = regex(r"[\u014c\u0180-\u024f]")
_ODD_WORD = regex(r"\b[A-Za-z]?[a-z]*[\u014c\u0180-\u024f][a-z\u014c\u0180-\u024f]*\b")
_USUAL = {"\u019f": "ti", "\u01a9": "tt", "\u01ab": "tti", "\u019e": "tf", "\u014c": "ft"}
"""What writers of office documents mean by these letters, of no language in small letters."""
_BEGINS_NAMES = "\u014c"
"""The one of them that names begin with."""
LEAST_OF_ODD = 0.5
"""Share of a page's words with such a letter that are known with a ligature in its place."""


def with_meant_ligatures(chars: str) -> str:
    """The text with ligatures in place of rare letters that fonts give them for a meaning.

    "wri\u019fng" is "writing": letters that hardly any language has stand in words that are known
    with a ligature in their place.
    """
    if chars.isascii() or not _ODD_LETTER.search(chars):
        return chars
    words = {word for word in _ODD_WORD.findall(chars) if len(word) > 2}
    for code in set(_ODD_LETTER.findall("".join(words))):
        inside = {word for word in words if set(_ODD_LETTER.findall(word)) == {code}}
        usual = _USUAL.get(code, "")
        meant = max(_OPENED, key=lambda sign: (_n_known(inside, code, _OPENED[sign]),
                                               _OPENED[sign] == usual))  # fmt: skip
        known = _n_known(inside, code, _OPENED[meant])
        if known >= max(1, LEAST_OF_ODD * len(inside)) or (usual and _OPENED[meant] == usual):
            after = r"(?<=[A-Z])" if code in _BEGINS_NAMES else ""
            chars = re.sub(rf"(?<=[a-z]){code}|{after}{code}(?=[a-z])", meant, chars)
    return chars


_OWN = "[\ue000-\uf8ff]{1,3}"
_OWN_SIGN, _OWN_WORD = regex(_OWN), regex(rf"[A-Za-z]*{_OWN}[A-Za-z]+|[A-Za-z]+{_OWN}")
"""Signs that a font calls its own, and words with them."""
OF_LIGATURE, OF_LETTER, WORDS_OF_LETTER = 2, 3, 2
"""Other letters of such a word, where the sign is a ligature or a letter, else it may be of a
formula; and known words that the letter makes: a ligature is known by one."""


def with_own_signs(chars: str) -> str:
    """The text with letters in place of signs that only its font knows the meaning of.

    A ligature, or the letters that it was taken apart to, may stand at codes that are free for
    private use; what makes known words of most that have them is meant.
    """
    if chars.isascii() or not _OWN_SIGN.search(chars):
        return chars
    words = {word for word in _OWN_WORD.findall(chars) if _n_letters(word) >= OF_LIGATURE}
    for code in sorted(set(_OWN_SIGN.findall("".join(f"{word} " for word in words)))):
        inside = {word for word in words if set(_OWN_SIGN.findall(word)) == {code}}
        least = LEAST_OF_ODD * len(inside)
        meant = max(_OPENED, key=lambda sign: _n_known(inside, code, _OPENED[sign]))
        if _n_known(inside, code, _OPENED[meant]) < max(1, least):
            longer = {word for word in inside if _n_letters(word) >= OF_LETTER}
            meant = max(ascii_lowercase, key=lambda letter: _n_known(longer, code, letter))
            if _n_known(longer, code, meant) < max(WORDS_OF_LETTER, least):
                continue
        put = meant + NOTHING * (len(code) - 1)
        chars = re.sub(rf"(?<=[A-Za-z]){code}|{code}(?=[A-Za-z])", put, chars)
    return chars


def _n_letters(word: str) -> int:
    return sum(map(str.isalpha, word))


def _n_known(words: set[str], code: str, letters: str) -> int:
    known = frequent_words()
    return sum(word.replace(code, letters).lower() in known for word in words)


def with_accents(
    chars: str, boxes: FloatArray, first: BoolArray, last: BoolArray, boxes_of: BoxesOf
) -> str:
    """The text with accents joined to the letters that they are drawn over.

    An accent that is a sign of its own comes anywhere in the order of the page: before its
    letter, or after the line. What lies over a letter belongs to it. In its place stands a blank,
    or nothing within a word; its box is taken away.

    Args:
        chars: Of the page.
        boxes: (n, 4) in page space, of the first and last characters of words at least; changed.
        first: (n,) which characters are the first of a word.
        last: (n,) which are the last.
        boxes_of: Gives the boxes of other characters.
    """
    found = np.array([match.start() for match in _ACCENT.finditer(chars)], dtype=np.int64)
    if not len(found):
        return chars
    made, own = list(chars), boxes_of(found)
    before_letter = np.array([bool(_BASE.match(chars, at + 1)) for at in found.tolist()])
    their = np.full_like(own, np.nan)
    if before_letter.any():
        their[before_letter] = boxes_of(found[before_letter] + 1)
    middle = (own[:, 0] + own[:, 2]) / 2
    with np.errstate(invalid="ignore"):
        is_next = (their[:, 0] <= middle) & (middle <= their[:, 2])
    starts, ends = np.flatnonzero(first), np.flatnonzero(last)
    letters: list[int] = []
    for at, box, over, follows in zip(found.tolist(), own, their, is_next.tolist(), strict=True):
        if follows:
            joined = _joined(chars[at + 1], chars[at])
            if joined:
                made[at], made[at + 1] = joined, NOTHING
                if np.isfinite(boxes[at, 0]):
                    boxes[at] = over
                letters.append(at)
            continue
        letter = _letter_under(chars, at, box, boxes, starts, ends, boxes_of)
        joined = _joined(chars[letter], chars[at]) if letter is not None else ""
        if letter is not None and joined and made[letter] == chars[letter]:
            made[letter] = joined
            alone = _is_blank(chars, at - 1) and _is_blank(chars, at + 1)
            made[at] = _BLANK if alone else NOTHING
            boxes[at] = np.nan if alone else boxes_of(np.array([letter]))[0]
            letters.append(letter)
    for letter in letters:
        _close_up(chars, made, letter, boxes_of)
    return "".join(made)


def _joined(letter: str, accent: str) -> str:
    """A letter with an accent as one character; "" where there is none such."""
    joined = unicodedata.normalize("NFC", letter.replace("\u0131", "i") + _ACCENTS[accent])
    return joined if len(joined) == 1 else ""


def _letter_under(
    chars: str, at: int, box: FloatArray, boxes: FloatArray, starts: IntArray, ends: IntArray,
    boxes_of: BoxesOf,
) -> int | None:  # fmt: skip
    """The letter that an accent is drawn over, where it is not the next in order anyway."""
    middle, height = (box[0] + box[2]) / 2, max(float(box[3] - box[1]), 1e-3)
    if not np.isfinite(middle):
        return None
    with np.errstate(invalid="ignore"):
        over = (boxes[starts, 0] <= middle) & (boxes[ends, 2] >= middle)
        low = np.minimum(boxes[starts, 3], box[3])
        high = np.maximum(boxes[starts, 1], box[1])
        over &= low - high >= LEVEL * height
    for word in np.flatnonzero(over).tolist():
        inside = np.arange(starts[word], ends[word] + 1)
        their = boxes_of(inside)
        hit = inside[(their[:, 0] <= middle) & (their[:, 2] >= middle) & (inside != at)]
        for letter in hit.tolist():
            if _BASE.match(chars[letter]):
                return int(letter)
    return None


def _close_up(chars: str, made: list[str], letter: int, boxes_of: BoxesOf) -> None:
    """Take out blanks that accents have brought into the middle of a word: "f" and "ür"."""
    before = letter - 1
    while before >= 0 and made[before] in (_BLANK, NOTHING):
        before -= 1
    between = range(before + 1, letter)
    if before < 0 or not chars[before].isalpha() or not any(chars[k] != _BLANK for k in between):
        return
    left, right = boxes_of(np.array([before, letter]))
    if abs(float(right[0] - left[2])) < WITHIN_WORD * float(right[3] - right[1]):
        for k in between:
            made[k] = NOTHING


def _is_blank(chars: str, at: int) -> bool:
    return not 0 <= at < len(chars) or chars[at].isspace()
