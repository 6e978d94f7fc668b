"""A sentence taken apart: its main statement first, what it hangs on each on a line of its own.

Our own rules on words that tie clauses together; no word is changed, none added. A part that
cannot be told surely stays where it is.
"""

import re
from typing import NamedTuple

from wide_margin.core.explain.model import Part
from wide_margin.core.explain.verbs import (
    finite_at,
    first_finite,
    has_clause,
    is_order,
    opens_clause,
)
from wide_margin.core.later import regex
from wide_margin.core.layout import BULLETS

MAIN, ALSO, CONTRAST, ASIDE = "main", "also", "contrast", "aside"
CONDITION, EXCEPTION, CONCESSION = "condition", "exception", "concession"
REASON, PURPOSE, RESULT, TIME = "reason", "purpose", "result", "time"

_TIES = {
    EXCEPTION: (
        "unless", "except that", "except when", "except if", "except for", "except in", "except as",
        "except where", "except to", "except", "other than", "apart from", "with the exception of",
        "excluding", "but not", "without prejudice to",
    ),
    CONDITION: (
        "only if", "only when", "only where", "if and only if", "if", "provided that", "provided",
        "providing that", "on condition that", "as long as", "so long as", "in case of", "in case",
        "in the event that", "in the event of", "assuming that", "assuming", "supposing that",
        "subject to", "given that", "whenever", "when", "where", "once", "until", "till", "whether or not",
        "in cases where", "for as long as", "to the extent that", "depending on", "in the absence of",
    ),
    CONCESSION: (
        "even though", "even if", "even when", "although", "though", "whereas", "while", "despite",
        "in spite of", "notwithstanding", "regardless of", "irrespective of", "whilst", "albeit",
    ),
    REASON: (
        "because of", "because", "since", "due to", "owing to", "in view of", "on the grounds that",
        "on account of", "now that", "as a result of", "thanks to", "in that", "for",
    ),
    PURPOSE: ("so that", "in order that", "in order to", "in order for", "so as to", "lest", "for the purpose of"),
    TIME: ("as soon as", "before", "after", "by the time", "prior to", "during", "following", "upon"),
}  # fmt: skip
_KIND_OF = {tie: kind for kind, ties in _TIES.items() for tie in ties}
_TIE = regex(
    r"(?<![\w-])(?:"
    + "|".join(sorted(map(re.escape, _KIND_OF), key=len, reverse=True))
    + r")(?![\w-])",
    re.I,
)
_NEEDS_COMMA = frozenset(
    ["since", "while", "whilst", "where", "for", "following", "during", "upon", "once", "though",
     "provided", "assuming", "given that", "in that", "excluding", "after", "before", "depending on"]
)  # fmt: skip
"""Words that tie clauses, but have other work in the middle of one; there a comma tells."""
_NEEDS_CLAUSE = frozenset(
    ["if", "unless", "when", "whenever", "where", "once", "until", "till", "although", "though",
     "whereas", "while", "whilst", "because", "since", "so that", "provided", "provided that",
     "after", "before", "as soon as", "for", "even if", "even though", "as long as", "so long as"]
)  # fmt: skip
_AWAITS_VERB = frozenset(["which", "who", "that", "and", "but"])
_GOES_ON = frozenset(["and", "or", "but", "which", "who", "if", "when", "unless"])
_BULLET = regex(rf"^(?:[{BULLETS}–—-]|\d{{1,2}}(?=\s+[A-Z]))\s+")
_SHORTENED = frozenset(["when", "if", "unless", "until"])
"""Words after which a clause may lack its subject: "if found"."""
_ONLY_AFTER_COMMA = frozenset(
    ["where", "due to", "subject to", "other than", "depending on", "thanks to", "owing to",
     "during", "but not"]
)  # fmt: skip
_ASKED = regex(
    r"\b(?:see|know|ask|asks|decide|check|checks|tell|tells|specif\w+|determine\w*|wonder|and|or|even|as|is|whether)$",
    re.I,
)
_TOKEN = regex(r"[^\W_][\w’'./-]*[\w’']|\w|[^\w\s]")
_RELATIVE = regex(
    r",\s+(?:which|who|whose|whom|where|of which|in which|for which|to which|by which|some of which|all of which)\b",
    re.I,
)
_BRACKETS = regex(r"\s*\([^()]*(?:\([^()]*\)[^()]*)*\)")
_DASHED = regex(r"\s+[–—]\s+([^–—]{3,160}?)\s+[–—](?=\s)|—([^—]{3,160}?)—")
_LEADING_ASIDE = regex(
    r"^(?:however|moreover|furthermore|therefore|thus|hence|consequently|nevertheless|nonetheless|for example"
    r"|for instance|in particular|in addition|in general|of course|note that|similarly|finally|first|second|also"
    r"|in fact|that is|as a result|in other words|on the other hand|in contrast|additionally|accordingly|besides"
    r"|in practice|in short|then|otherwise|likewise|instead|meanwhile|again),\s+", re.I
)  # fmt: skip
_JOINED = regex(
    r"(?:,|;)\s+(?P<tie>and|but|yet|so|or|nor)\s+|;\s+(?:(?P<tie2>however|therefore|thus|hence|otherwise|moreover|instead|nevertheless),?\s+)?|,\s+(?P<tie3>otherwise|therefore|hence)\s+|:\s+",
    re.I,
)
_SINCE_DATE = regex(
    r"since\s+(?:\d|version|release|then|the\s+\d|[A-Z][a-z]+\s+\d{4}|january|february|march|april|may|june|july|august|september|october|november|december)",
    re.I,
)
_RESUMED = regex(r",\s+(?:and|or|but)\s+(?:for|in|to|with|by|on|from|at|of)\s", re.I)
"""Where a statement goes on after a clause in its middle: "…, and for …"."""
_JOINED_KINDS = {"but": CONTRAST, "yet": CONTRAST, "however": CONTRAST, "nevertheless": CONTRAST,
                 "so": RESULT, "therefore": RESULT, "thus": RESULT, "hence": RESULT, "otherwise": RESULT}  # fmt: skip


_STRANDED = regex(r"[,;]\s+(?:and|but|so|yet|or|nor)$", re.I)
"""A statement that ends so has lost what it was to be joined to."""


class _Piece(NamedTuple):
    start: int
    end: int
    kind: str
    tie: str


def take_apart(sentence: str) -> tuple[Part, ...]:
    """The parts of an English sentence, the main statement first.

    Returns:
        Only the main statement where the sentence has no part that can be told surely. Together
        the parts have every word of the sentence.
    """
    text = _BULLET.sub("", " ".join(sentence.split()))
    asides = _asides(text)
    masked = _masked(text, asides)
    statements = _statements(masked)
    parts: list[Part] = []
    for n, (start, end, kind, tie) in enumerate(statements):
        pieces = _hanging(masked, start, end)
        cut = [(p.start, p.end) for p in pieces] + asides
        said = _without(text, start, end, cut)
        if said:
            parts.append(Part(MAIN if not n else kind, tie if n else "", said.rstrip(".:")))
        for piece in pieces:
            words = _without(text, piece.start, piece.end, asides)
            after_tie = words[len(piece.tie) :].strip(" ,;") if piece.tie else words.strip(" ,;")
            if not after_tie and piece.tie:
                parts.append(Part(ASIDE, "", piece.tie))
            if after_tie:
                parts.append(Part(piece.kind, piece.tie, after_tie.rstrip(".")))
    for start, end in asides:
        aside = text[start:end].strip(" ,;–—")
        aside = aside[1:-1].strip() if aside.startswith("(") else aside
        if len(aside) > 1:
            parts.append(Part(ASIDE, "", aside))
    is_whole = _n_words(" ".join(f"{p.tie} {p.text}" for p in parts)) == _n_words(text)
    stranded = parts and _STRANDED.search(parts[0].text)
    if not parts or parts[0].kind != MAIN or not is_whole or stranded:
        return (Part(MAIN, "", text),)
    return tuple(parts)


def _n_words(text: str) -> int:
    return len(re.findall(r"\w+", text))


def _asides(text: str) -> list[tuple[int, int]]:
    """Ranges in brackets or between dashes; short ones such as "(s)" stay where they are."""
    found = [
        m.span() for m in _BRACKETS.finditer(text)
        if len(m[0].split()) >= 2 and m.start() and m[0][0] == " "
    ]  # fmt: skip
    for match in _DASHED.finditer(text):
        if not any(a < match.end() and match.start() < b for a, b in found):
            found.append(match.span())
    return sorted(found)


def _masked(text: str, ranges: list[tuple[int, int]]) -> str:
    """The text with blanks in place of some ranges: places stay the same."""
    for start, end in ranges:
        text = text[:start] + " " * (end - start) + text[end:]
    return text


def _tokens(text: str) -> list[str]:
    return [token.lower() for token in _TOKEN.findall(text)]


def _statements(text: str) -> list[tuple[int, int, str, str]]:
    """Ranges of the statements that stand side by side, each with what joins it to the first."""
    found: list[tuple[int, int, str, str]] = []
    start, kind, tie = 0, MAIN, ""
    for match in _JOINED.finditer(text):
        after = _tokens(text[match.end() :])
        tie_here = (match["tie"] or match["tie2"] or match["tie3"] or "").lower()
        quotes = text[match.end() : match.end() + 1] in '“"‘«'
        if (
            tie_here in ("or", "nor")
            or quotes
            or (match[0].startswith(":") and not _is_whole(after))
            or text[start : match.start()].isupper()  # "WARNING: …" is no statement
        ):
            continue
        said = _after_lead(text[start : match.start()])  # "" in "If a is set, and b is not, …"
        rest = text[match.end() :]
        opens = opens_clause(after) and not _opens_with_tie(after)
        if not _is_whole(_tokens(said)) or not (opens or _states_after(rest)):
            continue
        found.append((start, match.start(), kind, tie))
        start, tie = match.end(), tie_here
        kind = _JOINED_KINDS.get(tie_here, ALSO)
    found.append((start, len(text), kind, tie))
    return found


def _is_whole(tokens: list[str]) -> bool:
    return (len(tokens) >= 3 and has_clause(tokens)) or is_order(tokens)


def _opens_with_tie(tokens: list[str]) -> bool:
    return tokens[0] in ("which", "who", "that", "if", "when", "because") if tokens else True


def _states_after(text: str) -> bool:
    """Whether a clause stands first and its statement follows: "when it is dark, it is closed"."""
    match = _TIE.match(text)
    return match is not None and _leading_end(text, match.end()) is not None


def _after_lead(text: str) -> str:
    """What follows a clause at the beginning that hangs on it; "" where that clause is all."""
    stripped = _LEADING_ASIDE.sub("", text.strip())
    match = _TIE.match(stripped)
    if match is None or match[0].lower() in ("for", "following"):
        return stripped
    end = _leading_end(stripped, match.end())
    return "" if end is None else stripped[end:]


def _hanging(text: str, first: int, last: int) -> list[_Piece]:
    """The clauses of one statement that hang on its main one."""
    pieces: list[_Piece] = []
    start = first
    lead = _LEADING_ASIDE.match(text[first:last].lstrip())
    if lead:
        start = first + (len(text[first:last]) - len(text[first:last].lstrip())) + lead.end()
    match = _TIE.match(text, start, last)
    if match and match[0].lower() != "for" and not _SINCE_DATE.match(text[start:last]):
        end = _leading_end(text[:last], match.end())
        if end is not None:
            pieces.append(_Piece(start, end, _KIND_OF[match[0].lower()], match[0]))
            start = end
    pieces += _later(text, start, last)
    return pieces


def _leading_end(text: str, after_tie: int) -> int | None:
    """Where a clause at the start of a sentence ends: at the comma that the main one follows."""
    for comma in re.finditer(r",\s", text[after_tie:]):
        at = after_tie + comma.start()
        inside, rest = _tokens(text[after_tie:at]), _tokens(text[at + 1 :])
        if (
            not inside
            or not rest
            or rest[0] in ("and", "or", "but", "which", "who", "if", "when", "unless")
        ):
            continue
        verb = first_finite(rest)
        hangs = verb > 0 and any(word in _KIND_OF for word in rest[:verb])  # "shortly before it …"
        if (has_clause(inside) or len(inside) >= 2) and opens_clause(rest) and not hangs:
            return at + comma.end() - comma.start()
    then = re.search(r"\sthen\s", text[after_tie:])
    if then and has_clause(_tokens(text[after_tie : after_tie + then.start()])):
        return after_tie + then.start() + 1
    return None


def _later(text: str, start: int, last: int) -> list[_Piece]:
    """Clauses after the beginning: by the word that ties them, or as a comma's aside."""
    pieces: list[_Piece] = []
    at = start
    while at < last:
        tie = _next_tie(text, at, start, last)
        relative = _RELATIVE.search(text, at, last)
        if tie is None and relative is None:
            break
        if relative is not None and (tie is None or relative.start() < tie.start()):
            end = _end_of(text, relative.end(), start, relative.start(), last)
            pieces.append(_Piece(relative.start(), end, ASIDE, ""))
            at = end
            continue
        assert tie is not None
        end = _end_of(text, tie.end(), start, tie.start(), last)
        pieces.append(_Piece(tie.start(), end, _KIND_OF[tie[0].lower()], tie[0]))
        at = end
    return pieces


def _next_tie(text: str, at: int, start: int, last: int) -> re.Match[str] | None:
    for match in _TIE.finditer(text, at, last):
        before = text[start : match.start()].rstrip()
        if before and match.start() != start and _ties(match, before, text[match.end() : last]):
            return match
    return None


def _ties(match: re.Match[str], before: str, after: str) -> bool:
    """Whether a word that can tie a clause on does so here, by what stands around it."""
    word, tokens, main = match[0].lower(), _tokens(after), _tokens(before)
    has_comma = before.endswith((",", ";"))
    if len(tokens) < 1 + (word not in ("due to", "because of", "unless", "except")):
        return False
    if tokens[0] in ("and", "or", "but"):  # "read as before, but …"
        return False
    tells_itself = word in ("after", "before", "once") and _has_subject(tokens)
    if word in _NEEDS_COMMA and not has_comma and not tells_itself:
        return False
    if word in _NEEDS_CLAUSE and word not in _SHORTENED and not _has_subject(tokens):
        return False
    if word in ("when", "where", "if") and not has_comma and _ASKED.search(before):
        return False  # what is known or checked is part of the statement
    if word in _ONLY_AFTER_COMMA and not has_comma:
        return False  # "is most likely due to" cannot be parted
    if word == "since" and _SINCE_DATE.match(match[0] + after):
        return False
    # Without a verb before there is nothing to hang on yet.
    return has_comma or has_clause(main) or opens_clause(main)


def _has_subject(tokens: list[str]) -> bool:
    """Whether words hold a clause with a subject before its verb, and no other tie between."""
    verb = first_finite(tokens[:20])
    return verb > 0 and not any(word in _KIND_OF for word in tokens[:verb])


def _end_of(text: str, after_tie: int, start: int, begin: int, last: int) -> int:
    """Where a clause in the middle or at the end of a statement ends."""
    main = _tokens(text[start:begin])
    awaits = (
        len(main) > 1 and main[-1] == "," and main[-2] in ("which", "who", "that", "and", "but")
    )
    if not awaits and (has_clause(main) or opens_clause(main)):
        following = _next_in_clause(text, after_tie, last)
        return following if following is not None else last
    # The statement's own verb is still to come: after the comma that closes the aside.
    for comma in re.finditer(r",\s", text[after_tie:last]):
        rest = _tokens(text[after_tie + comma.end() : last])
        with_subject = ["x", *rest[:4]]
        carries = (finite_at(with_subject, k) for k in (1, 2) if k < len(with_subject))
        if rest and (is_order(rest) or any(carries)):
            return after_tie + comma.start() + 1
    return last


def _next_in_clause(text: str, at: int, last: int) -> int | None:
    """The next tie after a comma: it hangs on the main statement again."""
    resumed = _RESUMED.search(text, at, last)
    if resumed and has_clause(_tokens(text[at : resumed.start()])):
        last = resumed.start() + 1
        return _next_in_clause(text, at, last - 1) or last
    for match in _TIE.finditer(text, at, last):
        inside = text[at : match.start()].rstrip()
        if inside.endswith(",") and match[0].lower() != "for" and has_clause(_tokens(inside)):
            return match.start()
    return None


def _rest(text: str, at: int, end: int, cut: list[tuple[int, int]]) -> str:
    """What is left of a range after a place and outside of the ranges that are cut."""
    for first, last in cut:
        if first < end and last > at:
            text = text[:first] + " " * (last - first) + text[last:]
    return text[at:end].strip(" .,;:")


def _without(text: str, start: int, end: int, cut: list[tuple[int, int]]) -> str:
    """A range of the text without some ranges inside; "…" where something was cut in the middle."""
    said, at = "", start
    for first, last in sorted(cut):
        if last <= start or first >= end or (first <= start and last >= end):
            continue
        if first > at:
            said += text[at : max(first, at)]
        if said.strip() and _rest(text, last, end, cut):
            said = said.rstrip(" ,;") + " … "
        at = max(at, last)
    said += text[at:end]
    said = re.sub(r"\s+([,.;:])(?=\s|$)", r"\1", " ".join(said.split()))
    said = re.sub(r"…\s*,\s*", "… ", said)
    return said.strip(" ,;")
