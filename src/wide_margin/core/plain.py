"""Text from outside made harmless: what a document, a file name or a server says is only text.

Control characters and marks that turn the direction of what follows have no place in a label, a
terminal or a file of ours: they can make a line read as something that it does not say (Unicode
Technical Report 36, 2.7).
"""

import re

from wide_margin.core.later import regex

LABEL_LENGTH = 60
"""Characters of a page label; the longest in use have under twenty."""
FACT_LENGTH = 500
"""Characters of a title, an author or another thing that a file says of itself."""

_CONTROLS = regex("[\x00-\x08\x0b-\x1f\x7f-\x9f]")
_TURNS = regex("[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069\ufff9-\ufffb]")
_NOT_XML = regex("[^\t\n\r\x20-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
_SURROGATES = regex("[\ud800-\udfff]")


def plain(text: str, limit: int = 0) -> str:
    """A text without control characters and direction overrides, shortened where too long.

    Args:
        text: As it came.
        limit: Characters kept; 0 for all.
    """
    if not text.isascii():
        text = _SURROGATES.sub("\ufffd", _TURNS.sub("", text))
    text = _CONTROLS.sub(" ", text)
    if limit and len(text) > limit:
        text = text[: limit - 1].rstrip() + "…"
    return text


def one_line(text: str, limit: int = 0) -> str:
    """The same in one line, spaces single."""
    if limit:
        text = text[: 8 * limit]  # a text of a megabyte is not worth splitting
    return plain(" ".join(plain(text).split()), limit)


def for_xml(text: str) -> str:
    """A text without what XML 1.0 cannot hold (2.2), such as U+FFFE."""
    return _NOT_XML.sub("\ufffd", text)


def for_json_on_screen(text: str) -> str:
    """JSON whose direction marks are written as escapes: the same value, safe to look at."""
    return _TURNS.sub(lambda match: f"\\u{ord(match[0]):04x}", text)


def for_cell(text: str) -> str:
    """A cell of a CSV file that a spreadsheet does not take for a formula.

    A quotation mark goes before what starts like one; ``from_cell`` takes it off again.

    Source:
        OWASP, CSV injection: cells that begin with = + - @, tab or carriage return.
    """
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r", "'") else text


def from_cell(text: str) -> str:
    """The reverse of for_cell."""
    return text[1:] if text[:1] == "'" else text


_MARKDOWN = regex(r"([\\`*_{}\[\]<>#|~!]|&(?=#?\w+;))")


def for_markdown(text: str) -> str:
    """A text whose every sign stands for itself in Markdown: no tags, links or emphasis."""
    escaped = _MARKDOWN.sub(r"\\\1", text)
    # A number with a dot, a plus or a minus starts a list only at the start of a line.
    return re.sub(r"(?m)^(\s*)(\d+)([.)])|^(\s*)([-+])(?=\s)", _no_list, escaped)


def _no_list(match: re.Match[str]) -> str:
    if match[2]:
        return f"{match[1]}{match[2]}\\{match[3]}"
    return f"{match[4]}\\{match[5]}"


def counted(n: int, one: str, many: str = "") -> str:
    """A number with its noun: "1 page", "2 pages"."""
    return f"{n:,} {one if n == 1 else many or one + 's'}"
