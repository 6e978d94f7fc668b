"""What a reference says that its functions and commands do: under a head, or in a line."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.named import content_of
from wide_margin.core.explain.verbs import is_base
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

MOST_TAKEN = 16
"""Sentences under the head of a function that tell what it takes and gives."""
LEAST_DONE, MOST_IN_SHORT, STEM = 2, 24, 5
"""Words of a task and of a line that says in short what does it, and letters that tell a stem."""
_IN_SHORT = regex(
    r"\W*(?:NAME\s+)?[\w*.:+-]{2,}(?:\s?\(\d?\))?\s+[—–-]{1,2}\s*>?\s*(?!(?:an?|for|from|how|in|of|on|the|to|with)\b)[A-Za-z][a-z]+\s+[a-z]"
)
"""What a thing does, after its name and a dash: not what it is for, or of."""
_HEAD = regex(r"\W*[\w:]+\s?\([^()]*\)\s*(?:->|→)")
"""Begins the head of a function."""
_SORTS = (
    "functions?|macro|command|variable|option|method|procedure|form|syntax|directive|constant|operator|statement|constructor"
    "|primitive|subroutine|operation|attribute|property|category|filter"
)
_SORT = rf"(?i:\[[^\[\]]*\b(?:{_SORTS})\b[^\[\]]*\]|\((?:[a-z]+\s)?(?:{_SORTS})\))"
"""What is declared, as it stands at the right of the line that declares it: "[Library Function]"."""
_REST_OF_TAKEN = r"[\w\s*&,\[\]]{1,120}\)"
"""What a function takes that stands on the next line, behind what was declared."""
_DECLARES = regex(rf"[^.!?]{{1,300}}?{_SORT}\W*(?:\([^()]*\)\W*|{_REST_OF_TAKEN}\W*)?$", re.S)
_TELLS = regex(r"(?!\w+:\s)\S+(?:\s\S+){3}|\w+:\s[a-z][^.]*\s[A-Z][a-z]+\s")
"""A sentence that does not only say of an argument what it is, or goes on after that."""
FEWEST_SAID, UNDER, BETWEEN = 3, 3, 1
"""Words behind a line that declares something, which then says what that does; and sentences under
such a line among which one does; others declared with it that are quoted before that."""
_BEGINS_WITH_VERB = regex(r"\W*(?:this\s+\w+\s+)?(?P<verb>[a-z]{2,}s)\s+\w", re.I)
"""May begin with what something does: "winds the rope", "This function winds it"."""
_BEGINS_WITH_BASE = regex(r"\W*(?P<verb>[A-Z][a-z]+)\s(?:an?|the|all|each|this|its|whether)\b")
_SAYS_DOES = regex(
    r"(?:This function\s+)?(?P<verb>[A-Z]?[a-z]+s)\s+(?!(?:is|are|of|for|can|may|must|in|which|that)\b)[a-z]\w*(?:\s+\S+){2}"
)
"""Says what a function does: "Cancels an asynchronous request"."""


def row_in_short(document: ReadDocument, asked: str) -> int | None:
    """Row of the line of a reference that says in short what is asked to be done.

    "connect — create a connection to a database" tells how one connects to one.
    """
    wanted = content_of(document, asked)
    if len(wanted) < LEAST_DONE:
        return None
    sentences = document.text.sentences
    for row in rows_with(document, [max(sorted(wanted), key=len)]):
        said = sentences[row].text
        if sentences[row].kind in ("listing", "works") or not _IN_SHORT.match(said):
            continue
        told = said.lower()
        if len(told.split()) <= MOST_IN_SHORT and all(
            re.search(rf"\b{re.escape(stem[:STEM])}", told) for stem in wanted
        ):
            return row
    return None


def row_under_head(document: ReadDocument, name: str) -> int | None:
    """Row of what says what a function does: not at once under its head, but after what it takes."""
    sentences = document.text.sentences
    heads = re.compile(rf"\W*{re.escape(name)}\s?\(.*\)\W*(?:->|→|\bTypes\b|[A-Z]\w*:)")
    for head in rows_with(document, document.index.analyser.terms(name)):
        if not heads.match(sentences[head].text):
            continue
        for row in range(head + 1, min(head + MOST_TAKEN, len(sentences))):
            said = sentences[row]
            if _HEAD.match(said.text) and not heads.match(said.text):
                break
            does = _SAYS_DOES.match(said.text) if said.kind == "body" else None
            if does and (is_base(does["verb"].lower()[:-1]) or is_base(does["verb"].lower()[:-2])):
                return row
    return None


def rows_declared(document: ReadDocument, name: str) -> range:
    """Rows of the line that declares a name, and of what stands first under it.

    "void wind (ROPE r)  [Function]", "wind :: Rope -> Int"; where more than two are declared
    in a row, of the latter alone.
    """
    thing, sentences = re.escape(name), document.text.sentences
    plainly = re.compile(rf"\W{{0,3}}(?:[\w*<>\[\]]+\s\*{{0,2}}){{1,4}}{thing}\s?\([^()]*\)[\s:;]*")
    declares = re.compile(
        rf"\W{{0,3}}(?:(?:[\w*&<>:=,\[\]]+\s){{1,6}}\*{{0,2}}{thing}\s?(?=[(\[])|{thing}(?=[\s(\[]))[^\n]{{0,300}}?{_SORT}"
    )
    typed = re.compile(
        rf"(?:^|\s)\(?{thing}\)?\s::\s|\W?(?:data|newtype|class|type)\s(?:\([^()]*\)\s=>\s)?{thing}\b"
    )
    for row in rows_with(document, document.index.analyser.terms(name)):
        said = sentences[row]
        if said.kind in ("listing", "works"):
            continue
        if said.kind == "code" and typed.search(said.text):
            following = sentences[row + 1] if row + 1 < len(sentences) else said
            if following.kind == "body" and following.section == said.section:
                return range(row, row + 2)
        if (declared := declares.match(said.text)) is not None:
            rest = said.text[declared.end() :]
            if len(rest.split()) >= FEWEST_SAID and not _DECLARES.match(rest):
                return range(row, row + 1)
            if found := _under_declared(document, row):
                return found
        elif (declared := plainly.match(said.text)) is not None:
            rest = said.text[declared.end() :]
            if _does(rest):
                return range(row, row + 1)
            if not rest and row + 1 < len(sentences) and _does(sentences[row + 1].text):
                return range(row, row + 2)
    return range(0)


def _under_declared(document: ReadDocument, row: int) -> range:
    """Rows of a line that declares something, and of what stands first under it."""
    sentences = document.text.sentences
    first, end = row + 1, min(row + MOST_TAKEN, len(sentences))
    while first < end and _DECLARES.match(sentences[first].text):
        first += 1
    said = [k for k in range(first, end) if sentences[k].kind in ("body", "item", "entry")]
    if not said or said[0] != first:
        return range(0)
    told = next((k for k in said[:UNDER] if _TELLS.match(sentences[k].text)), first)
    return range(row if told <= row + BETWEEN + 1 else told, told + 1)


def _does(said: str) -> bool:
    """Whether a text begins with what something does: "winds the rope", "Wind the rope"."""
    base = _BEGINS_WITH_BASE.match(said)
    if base is not None and is_base(base["verb"].lower()):
        return True
    verb = _BEGINS_WITH_VERB.match(said)
    return verb is not None and any(is_base(verb["verb"].lower()[:-n]) for n in (1, 2))
