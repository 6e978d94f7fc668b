"""Names without the article in front, in seven languages."""

import re

from wide_margin.core.later import regex

_DEFINITE = r"the|das|der|de[mn]?|die|les?|la|el|los|las|il|lo|os?|het"
_ARTICLE = regex(
    rf"^\W*(?:(?:{_DEFINITE}|an?|eine[mnrs]?|ein|une?|una|uno|um|uma|een)\s+|l[’'](?=\w))", re.I
)
_THE = regex(rf"^\W*(?:(?:{_DEFINITE})\s+|l[’'](?=\w))", re.I)


def without_article(name: str, *, definite: bool = False) -> str:
    """A name without the article in front; ``definite`` leaves "a" and its like."""
    return (_THE if definite else _ARTICLE).sub("", name)
