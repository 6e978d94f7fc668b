"""Where sentences end."""

import re

from wide_margin.core.later import regex

_ABBREVIATIONS = frozenset(
    [
        "e.g",
        "i.e",
        "etc",
        "cf",
        "al",
        "vs",
        "viz",
        "resp",
        "appr",
        "approx",
        "fig",
        "figs",
        "eq",
        "eqs",
        "sec",
        "sect",
        "ch",
        "chap",
        "no",
        "nos",
        "vol",
        "vols",
        "pp",
        "ed",
        "eds",
        "dr",
        "mr",
        "mrs",
        "ms",
        "prof",
        "st",
        "jr",
        "sr",
        "inc",
        "ltd",
        "co",
        "corp",
        "dept",
        "est",
        "ca",
        "art",
        "para",
        "ref",
        "refs",
        "tab",
        "app",
        "jan",
        "feb",
        "mar",
        "apr",
        "jun",
        "jul",
        "aug",
        "sep",
        "sept",
        "oct",
        "nov",
        "dec",
        "mon",
        "tue",
        "wed",
        "thu",
        "fri",
        "sat",
        "sun",
        "z.b",
        "a.k.a",
        "w.r.t",
        "i.i.d",
        "p.ej",
        "ej",
        "sects",
        "d.h",
        "u.a",
        "bzw",
        "usw",
        "vgl",
        "nr",
        "abs",
        "abb",
        "bd",
        "hrsg",
        "o.ä",
        "evtl",
        "ggf",
        "inkl",
        "p.ex",
        "c.-à-d",
        "av",
        "env",
        "n°",
        "mme",
        "mlle",
        "sra",
        "dra",
        "ud",
        "uds",
        "pág",
        "núm",
    ]
)
_LETTERS = frozenset(["p", "s", "c"])
"""Page, Seite and circa before a number; otherwise a unit or a name ("it took 4 s. The next")."""
_BEFORE_LETTER = frozenset(
    ["using", "with", "from", "into", "like", "than", "objective", "visual", "turbo", "standard",
     "borland", "microsoft", "embedded", "plain", "pure", "language", "chapter", "appendix", "annex",
     "section", "part", "table", "figure", "class", "type", "vitamin", "hepatitis", "plan", "option",
     "level", "grade", "group", "point", "case", "step", "column", "phase", "model", "version",
     "protocol", "system", "programming"]
)  # fmt: skip
"""Written large before a letter that counts, or is the name of a language."""
_WORDS_TOO = frozenset(["no", "nos", "art", "sun", "sat", "app", "ed", "mon"])
"""Abbreviations before a number ("no. 5"), words before anything else ("He said no.")."""
_END = regex(
    r"[!?](?<![.!?…].)[.!?…]*[\"'”’»)\]]*(?=\s)"
    r"|[.…](?<![.!?…].)[.!?…]*[\"'”’»)\]]*(?=\s)(?!\s+[\"'“‘«(\[¿¡]*[.a-z])"
    r"|(?:[。！？｡]|．(?![\d０-９A-Za-z]))+[」』”’）〕】]*|[؟۔।](?=\s)"
    r"|[:;](?=\s+[•‣◦▪▶►▸–—]\s)|\n"
)
"""What may end a sentence. Of stops before small letters and of leaders there are many, and none
does: they are passed over here."""
_MAY_END = regex(r"[.!?…:;。！？．｡؟۔।\n]")
_LAST_WORD = regex(r"([\w.°-]+)\.+[\"'”’»)\]]*$")
_STARTS = regex(
    r"\s+(?:If|The|This|These|It|In|When|For|We|You|However|Note|There|An?|Thus|But|As|Then|Otherwise)\s"
)
"""Words that begin a sentence and are no names: "the inverse of A. If A is …"."""
_FIRST_HALF = regex(r"(?:^|[\s(])[^\W\d_]\.\s$")
_SECOND_HALF = regex(r"\s[^\W\d_]\.(?!\w)")
_STOP_APART = regex(r"[^\W\d_]{3} \.(?=\s+[^\W\d_])")
"""A full stop with a blank before it, as programs write after a link."""
_DOTS_APART = regex(r"\w\.(?:\s\.){2,3}$")
"""An ellipsis with blanks between its dots; leaders have one before them, too."""
_FACTOR = regex(r"(?:[)\]\d]|\b\w)$")
_OPENS = regex(r"\s+[\"'“‘«(\[¿¡]*(\S)")


IN_BRACKETS = 60
"""Characters that a number with a full stop may lie from the brackets around it."""


def split_sentences(text: str) -> list[tuple[int, int]]:
    """Ranges of the sentences of a text.

    A full stop ends a sentence unless it stands after a known abbreviation, an initial or a
    number in front of small letters. White space between sentences belongs to none.

    Args:
        text: One paragraph.

    Returns:
        (start, end) pairs in order; together they cover everything but white space.
    """
    found = []
    start = 0
    if not _MAY_END.search(text):
        return [_trimmed(text, 0, len(text))] if text.strip() else []
    for match in _END.finditer(text):
        end = match.end()
        if not _ends_here(text, match.start(), end):
            continue
        if text[start:end].strip():
            found.append(_trimmed(text, start, end))
        start = end
    if text[start:].strip():
        found.append(_trimmed(text, start, len(text)))
    return found


def _ends_here(text: str, stop: int, end: int) -> bool:
    if text[stop] in "。！？":  # a quotation's own end is not the sentence's
        return text[end - 1] not in "」』”" or not text[end : end + 1].isalpha()
    closed = text[stop + 1 : end].strip()[:1] in (")", "]", "”", "’", '"', "»")
    if text[stop] in "\n؟۔।":
        return True
    after = _OPENS.match(text, end)
    if text[stop] in "!?" and not closed:  # "(n - 1)! ways": no end, but a product of numbers
        is_product = text[stop] == "!" and _FACTOR.search(text, max(stop - 2, 0), stop)
        return not (is_product and after and after[1].islower())
    if after is None:
        return True
    follows = after[1]
    if follows.islower() or follows == ".":  # an ellipsis with blanks between its dots
        return False
    if text[stop] != ".":
        return True
    if text[stop : stop + 2] == ".." or (stop and text[stop - 1] in " ."):
        if _STOP_APART.match(text, max(stop - 4, 0)) or _DOTS_APART.search(
            text, max(stop - 7, 0), end
        ):
            return follows.isupper()
        return follows.isupper() and text[stop - 1] not in " ."  # leaders, ellipses
    word = _LAST_WORD.search(text, max(0, stop - 24), end)
    if word is None:
        return True
    last = word[1].casefold().strip("(")
    if last in _WORDS_TOO:
        return not follows.isdigit()
    if last in _LETTERS and not _is_of_name(text, word):
        is_unit = text[: word.start()].rstrip()[-1:].isdigit()
        return is_unit or not follows.isdigit()
    if last in _ABBREVIATIONS:
        # "etc." and "al." may also end a sentence; the others never do.
        return last in ("etc", "al", "inc", "ltd", "co") and follows.isupper()
    if len(last) == 1 and last.isalpha() and _is_half(text, word, end):
        return False  # "(z. B. heute)", "d. h. Wasser"
    if last.isdigit() and _is_within_brackets(text, stop, end):
        return False  # "(1. bis 10. Ordnung)"
    is_initial = _are_initials(word[1]) and not _STARTS.match(text, end)
    is_listed = bool(re.fullmatch(r"(?:[\divx]{1,4}|[a-zA-Z])", word[1])) and _is_first_word(
        text, word
    )
    return not is_initial and not is_listed


def _is_of_name(text: str, word: re.Match[str]) -> bool:
    """Whether a letter is one of a name: "Anna S. Bale", and not "Visual C." or "Section P."."""
    before = text[: word.start()].split()[-1:] if word[1].isupper() else []
    if not before or not before[0].isalpha() or not before[0].istitle():
        return False
    return len(before[0]) > 2 and before[0].casefold() not in _BEFORE_LETTER


def _is_half(text: str, word: re.Match[str], end: int) -> bool:
    """Whether a letter with a stop is half of an abbreviation of two, with a blank between."""
    if _SECOND_HALF.match(text, end):
        return True
    before = text[max(0, word.start() - 4) : word.start()]
    return word[1].islower() and bool(_FIRST_HALF.search(before))


def _are_initials(word: str) -> bool:
    """Whether a word is the first letters of someone's names: "J" before a stop, or "J.A"."""
    return word.isupper() and all(len(part) == 1 for part in word.split("."))


def _is_within_brackets(text: str, stop: int, end: int) -> bool:
    """Whether a bracket that is open closes before another one opens, not far away."""
    before, after = text[max(0, stop - IN_BRACKETS) : stop], text[end : end + IN_BRACKETS]
    closes, opens = after.find(")"), after.find("(")
    return before.rfind("(") > before.rfind(")") and closes >= 0 and not 0 <= opens < closes


def _is_first_word(text: str, word: re.Match[str]) -> bool:
    return not text[: word.start()].strip(" (\t")


def _trimmed(text: str, start: int, end: int) -> tuple[int, int]:
    while start < end and text[start].isspace():
        start += 1
    while end > start and text[end - 1].isspace():
        end -= 1
    return start, end
