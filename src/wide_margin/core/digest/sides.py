"""The two sides of a question that compares, told from its words alone."""

import re

from wide_margin.core.digest.articles import without_article
from wide_margin.core.later import regex

LONGEST_SIDE = 9
"""Words."""
_SIDES = tuple(
    regex(pattern, re.I)
    for pattern in (
        r"\b(?:difference|distinction|differences|contrast)s?\s+between\s+(?P<one>.+?)\s+and\s+(?P<other>.+?)\s*\??$",
        r"\bcompare\s+(?P<one>.+?)\s+(?:and|with|to|against)\s+(?P<other>.+?)\s*[.?]?$",
        r"\bhow\s+(?:do|does|did|are|is)\s+(?P<one>.+?)\s+(?:differ|different)\s+from\s+(?P<other>.+?)\s*\??$",
        r"\bhow\s+(?:do|does|did)\s+(?P<one>.+?)\s+and\s+(?P<other>.+?)\s+(?:differ|compare)\s*\??$",
        r"\bhow\s+(?:do|does|did)\s+(?P<one>.+?)\s+compare\s+(?:to|with)\s+(?P<other>.+?)\s*\??$",
        r"^(?P<one>[^,?]+?)\s+(?:vs\.?|versus|compared (?:to|with))\s+(?P<other>[^,?]+?)\s*\??$",
        r"\bunterschied\w*\s+zwischen\s+(?P<one>.+?)\s+und\s+(?P<other>.+?)\s*\??$",
        r"\bdiff[ée]rence\s+entre\s+(?P<one>.+?)\s+et\s+(?P<other>.+?)\s*\??$",
        r"\b(?:diferencia|diferença)s?\s+(?:\w+\s+)?entre\s+(?P<one>.+?)\s+[ye]\s+(?P<other>.+?)\s*\??$",
        r"\bdifferenz[ae]\s+(?:\S+\s+)?(?:tra|fra)\s+(?P<one>.+?)\s+ed?\s+(?P<other>.+?)\s*\??$",
        r"\b(?:worin|wie|wodurch)\s+unterscheide[nt]\s+sich\s+(?P<one>.+?)\s+(?:und|von)\s+(?P<other>.+?)\s*\??$",
        r"\b(?:qu[’']est-ce qui |en quoi )(?:distingue|diffère)\w*\s+(?P<one>.+?)\s+d(?:e\s+|u\s+|es\s+|[’'])(?P<other>.+?)\s*\??$",
        r"\bskillnad\w*\s+(?:mellan|på)\s+(?P<one>.+?)\s+och\s+(?P<other>.+?)\s*\??$",
        r"\bforsk(?:jell|el)\w*\s+(?:mellom|mellem|på)\s+(?P<one>.+?)\s+og\s+(?P<other>.+?)\s*\??$",
        r"\b(?:różnic\w+|czym różni się)\s+(?:między|pomiędzy\s+)?(?P<one>.+?)\s+(?:a|od)\s+(?P<other>.+?)\s*\??$",
        r"\brozdíl\w*\s+mezi\s+(?P<one>.+?)\s+a\s+(?P<other>.+?)\s*\??$",
        r"\b(?:разниц\w+|отличи\w+|различи\w+)\s+между\s+(?P<one>.+?)\s+и\s+(?P<other>.+?)\s*\??$",
        r"\bчем\s+(?P<one>.+?)\s+отлича\w+\s+от\s+(?P<other>.+?)\s*\??$",
        r"\bчем\s+отлича\w+\s+(?P<one>.+?)\s+от\s+(?P<other>.+?)\s*\??$",
        r"\bчим\s+(?:від|роз)різня\w+\s+(?P<one>.+?)\s+від\s+(?P<other>.+?)\s*\??$",
        r"\b(?:різниц\w+|відмінн\w+)\s+між\s+(?P<one>.+?)\s+(?:і|та|й)\s+(?P<other>.+?)\s*\??$",
        r"\bdiferenț\w*\s+(?:dintre|între)\s+(?P<one>.+?)\s+și\s+(?P<other>.+?)\s*\??$",
        r"\bδιαφορά\s+(?:μεταξύ|ανάμεσα σε)\s+(?P<one>.+?)\s+και\s+(?P<other>.+?)[\s;?]*$",
        r"^(?P<one>\S.*?)と(?P<other>.+?)の(?:違い|差|相違)\S*$",
        r"^(?P<one>\S.*?)(?:和|与|與|跟)(?P<other>.+?)(?:有什么|有什麼|有何|有哪些|的|之间的|之間的)(?:区别|區別|差别|差異|不同)\S*$",
        r"^(?P<one>\S.*?)と(?P<other>.+?)は(?:どう|どのように|何が)違\S*$",
        r"^(?P<one>\S.*?)(?:와|과)\s+(?P<other>.+?)의\s+(?:차이|다른 점)\S*(?:\s.*)?$",
        r"\bwas\s+unterscheidet\s+(?P<one>.+?)\s+von\s+(?P<other>.+?)\s*\??$",
        r"\ben\s+qué\s+se\s+diferencian?\s+(?P<one>.+?)\s+(?:de|y|del)\s+(?P<other>.+?)\s*\??$",
        r"\bem\s+que\s+(?:se\s+)?difere[mn]?(?:ciam?)?\s+(?P<one>.+?)\s+(?:de|da|do|e)\s+(?P<other>.+?)\s*\??$",
        r"\bin\s+(?:che\s+)?cosa\s+differi\w+\s+(?P<one>.+?)\s+(?:da|dal|dalla|e)\s+(?P<other>.+?)\s*\??$",
        r"\b(?:waarin|hoe)\s+verschil\w+\s+(?P<one>.+?)\s+(?:van|en)\s+(?P<other>.+?)\s*\??$",
        r"\bhur\s+skiljer\s+sig\s+(?P<one>.+?)\s+(?:från|och)\s+(?P<other>.+?)\s*\??$",
        r"\bhvordan\s+(?:ad)?skiller\s+(?P<one>.+?)\s+(?:seg|sig)\s+(?:fra|og)\s+(?P<other>.+?)\s*\??$",
        r"\bczym\s+się\s+różni\w*\s+(?P<one>.+?)\s+(?:od|i)\s+(?P<other>.+?)\s*\??$",
        r"\bčím\s+se\s+liší\s+(?P<one>.+?)\s+(?:od|a)\s+(?P<other>.+?)\s*\??$",
        r"\bverschil\w*\s+tussen\s+(?P<one>.+?)\s+en\s+(?P<other>.+?)\s*\??$",
    )
)  # fmt: skip
PLACE = regex(r"^(?:sections?|chapters?|parts?|appendix|annex|tables?|figures?)\b", re.I)
"""Begins the name of a section, or of another place."""


def sides_of(question: str) -> tuple[str, str] | None:
    """The two things that a question compares; None where it compares none."""
    text = " ".join(question.split())
    for pattern in _SIDES:
        match = pattern.search(text)
        if match is None:
            continue
        one, other = (without_article(match[name]).strip(" “”\"'.") for name in ("one", "other"))
        if one and other and max(len(one.split()), len(other.split())) <= LONGEST_SIDE:
            return one, other
    return None


def names_places(question: str) -> bool:
    """Whether a question compares two sections, or other places, by their names."""
    sides = sides_of(question)
    return sides is not None and PLACE.match(sides[0]) is not None
