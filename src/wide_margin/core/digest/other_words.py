"""Asked how something is done: the section whose title says it otherwise, or with those over it."""

from __future__ import annotations

import re
from functools import cache
from typing import TYPE_CHECKING

from wide_margin.core.digest.named import STEM, content_of, own_rows
from wide_margin.core.later import regex
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

_SAME = (
    "create add make define insert",
    "remove delete uninstall erase drop discard",
    "change edit modify alter customize customise adjust",
    "show display view list print see",
    "start run launch begin execute invoke",
    "stop quit exit end terminate kill close leave",
    "get obtain download fetch retrieve acquire",
    "install deploy",
    "update upgrade",
    "save store keep export",
    "load open import read",
    "find search locate",
    "copy duplicate clone",
    "undo revert reverse",
    "build compile make",
    "test check verify validate",
    "send submit post",
    "join merge combine",
    "fix solve repair correct troubleshoot handle",
    "use apply employ",
    "set configure specify",
    "connect attach link",
    "disconnect detach",
    "enable activate",
    "disable deactivate",
    "write compose",
    "choose select pick",
    "draw plot",
)
"""Verbs that say nearly the same of what is done with a thing."""
_PHRASES = {
    "get rid of": "remove", "take away": "remove", "take out": "remove", "throw away": "remove",
    "set up": "configure", "turn on": "enable", "switch on": "enable", "turn off": "disable",
    "switch off": "disable", "look at": "view", "look for": "find", "look up": "find",
    "put together": "combine", "put in": "insert", "shut down": "stop",
}  # fmt: skip
ASKS_HOW = regex(
    r"^\W*how\s+(?:(?:do|can|should|would|could|must)\s+(?:i|you|we|one|users?)|to)\s+(?:\w+ly\s+)?"
    rf"(?P<verb>{'|'.join(_PHRASES)}|[^\W\d_]+)\s+(?P<thing>[^?,;:]+?)\W*$", re.I
)  # fmt: skip
_HOW_TO = regex(r"^\W*how\s+to\s+", re.I)
_LIGHT = regex(r"\b(?:new|another|own|other|single|certain|given|existing|whole)\s+", re.I)
"""What tells nothing of a thing by which its section would be called otherwise."""


def rows_otherwise(document: ReadDocument, question: str) -> range:
    """Rows of the section whose title says with another verb what is asked how to do.

    "Deleting packages" of "How do I remove a package?"; none where no title does.
    """
    asked = ASKS_HOW.match(question)
    if asked is None:
        return range(0)
    thing = content_of(document, _LIGHT.sub("", asked["thing"]))
    stem_of = document.index.analyser.terms_of
    same = {term for word in like(asked["verb"].lower()) for term in stem_of(word)[:1]}
    outline = document.outline
    sections = outline.sections if thing and same else ()
    for row in sorted(range(len(sections)), key=outline.depths.__getitem__):
        title = _HOW_TO.sub("", unnumbered(sections[row].title))
        first, _, rest = title.partition(" ")
        if not same.isdisjoint(stem_of(first.lower())) and content_of(document, rest) == thing:
            return own_rows(document, row)
    return range(0)


@cache
def like(verb: str) -> frozenset[str]:
    """Verbs that say nearly the same as one or as a phrase ("turn off"), itself among them."""
    verb = _PHRASES.get(verb, verb)
    groups = [frozenset(group.split()) for group in _SAME]
    return frozenset([verb]).union(*(group for group in groups if verb in group))


LEAST_ON_PATH = 2
"""Words of a question that must stand in a title and in those over it."""


def rows_by_path(document: ReadDocument, question: str) -> range:
    """Rows of the section whose title and those over it have all that is asked how to do.

    "Fedora" under "Installing Wellkeep" of "How do I install Wellkeep on Fedora?"; none where no
    title does, or one alone.
    """
    asked = ASKS_HOW.match(question)
    wanted = content_of(document, f"{asked['verb']} {asked['thing']}") if asked else frozenset()
    if len(wanted) < LEAST_ON_PATH:
        return range(0)
    begins = [term[:STEM] for term in wanted]
    outline = document.outline
    said = [section.title.lower() for section in outline.sections]
    for row, parent in enumerate(outline.parents):
        if parent < 0 or not any(begin in said[row] for begin in begins):
            continue
        over = " ".join(outline.path(parent)).lower()
        if all(begin in said[row] or begin in over for begin in begins):
            own = content_of(document, outline.sections[row].title) & wanted
            above = content_of(document, over) & wanted
            if own | above == wanted and wanted not in (own, above):
                return own_rows(document, row)
    return range(0)
