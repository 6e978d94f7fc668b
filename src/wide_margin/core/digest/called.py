"""Asked how a function or command is called: its form with its arguments, and what is said of it."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.named import without_kind
from wide_margin.core.later import first_match, regex, whole_forms

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE = 0.75
"""The chance that the first form of a call, with what is said of it, answers."""
LONGEST, LONGEST_TERM = 30, 14
"""Words of a line that is the form of a call, and of a term that is quoted with what it describes;
a longer one is text that has a call in it."""
_THINGS = r"(?:arguments?|parameters?|operands?|inputs?|options?)"
_FORM = r"(?:syntax|signature|synopsis|calling\s+(?:sequence|form|syntax)|call\s+signature|prototype|usage)"
_ASKS = whole_forms(
    rf"what(?:['’]s|\s+is|\s+are)\s+(?:the\s+)?{_FORM}\s+(?:of|for)\s+(?P<name>.+?)",
    rf"(?:which|what|how\s+many)\s+{_THINGS}\s+(?:does|do|can|must|should)\s+(?P<name>.+?)\s+(?:take|accept|have|expect|need|require|get|be\s+given)",
    rf"(?:what|which)\s+are\s+(?:the\s+)?{_THINGS}\s+(?:of|to|for)\s+(?P<name>.+?)",
    rf"(?:show|give)\s+(?:me\s+)?(?:the\s+)?{_FORM}\s+(?:of|for)\s+(?P<name>.+?)",
    r"how\s+(?:is|must|should)\s+(?P<name>\S+(?:\s+\w+)?)\s+(?:be\s+)?called",
)  # fmt: skip
MOST_OF_ARGUMENT = 3
"""Words of an argument in a form, with its type."""
_VALUE = regex(r"[\"'@#$%=;⇒|(]|&\w|(?<![\w.])-?\d|<-")
"""What values are made of: a call with these is an example."""
_CALLED_SO = regex(
    r"(?:\(\)|/\d)$|\s+(?:function|command|method|predicate|macro|procedure|routine)$", re.I
)
"""After a name: what it is, its brackets, or of how many arguments."""
_QUOTES = " `'\"“”‘’"
_BEFORE = r"(?:[\w\[\]{},\s.*&~-]+=\s*|(?:[\w*&]+\s+){1,3}\*?)?"
"""Before the name in such a form: what it gives, or the type of that."""


def answer_call(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """The form of a call, with what is said of it first; None where none is asked for or found.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_ASKS, typed)
    name = _CALLED_SO.sub("", without_kind(asked["name"]).strip(_QUOTES)) if asked else ""
    if not name or " " in name:
        return None
    row = _row_of_call(document, name)
    if row is None:
        return None
    return replace(told_by(document, search(typed), row, row + 1, SURE), kind="overview: call")


def _row_of_call(document: ReadDocument, name: str) -> int | None:
    """Row of the first sentence under a form of the call, else of such a form by itself."""
    call = re.compile(rf"^\W*{_BEFORE}(?<![\w.]){re.escape(name)}\s?[\[({{<](?P<takes>.*)", re.S)

    def is_form(text: str) -> bool:
        match = call.match(text) if name in text else None
        return match is not None and _names_arguments(match["takes"])

    sentences, terms = document.text.sentences, document.text.terms
    described = {
        k for k, term in enumerate(terms)
        if len(term.text.split()) <= LONGEST_TERM and is_form(term.text)
    }  # fmt: skip
    for row, said in enumerate(sentences):
        if said.term in described:
            return row
    for row, said in enumerate(sentences):
        is_line = said.kind not in ("listing", "works") and len(said.text.split()) <= LONGEST
        if is_line and is_form(said.text):
            return row
    return None


def _names_arguments(takes: str) -> bool:
    """Whether what stands behind the opening bracket names arguments, and gives no values."""
    within = re.split(r"[\])}>]", takes, maxsplit=1)[0]
    if _VALUE.search(within):
        return False
    return all(len(argument.split()) <= MOST_OF_ARGUMENT for argument in within.split(","))
