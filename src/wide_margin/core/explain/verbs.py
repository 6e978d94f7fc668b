"""Telling English verbs that carry a clause: enough grammar to part one clause from another."""

import tomllib
from functools import cache

from wide_margin.core.later import regex
from wide_margin.core.shipped import text_of

_WORDS: dict[str, list[str]] = {
    name: words.split() for name, words in tomllib.loads(text_of("english-grammar.toml")).items()
}
AUXILIARIES = frozenset(_WORDS["auxiliaries"])
DETERMINERS = frozenset(_WORDS["determiners"])
PRONOUNS = frozenset(_WORDS["pronouns"])
PREPOSITIONS = frozenset(_WORDS["prepositions"])
CONJUNCTIONS = frozenset(_WORDS["conjunctions"])
_ADVERBS, _ALONE = frozenset(_WORDS["adverbs"]), frozenset(_WORDS["alone"])

_VERBISH = regex(r"\b(?:is|are|was|were|has|have|had|do|can|may|must|will|should|\w+(?:s|ed))\b")
_VOWELS = "aeiou"


@cache
def _forms() -> tuple[frozenset[str], frozenset[str], frozenset[str], frozenset[str]]:
    """Base forms, forms in -s, past forms, and participles."""
    base, third, past, participle = set(), set(), set(), set()
    for entry in _WORDS["verbs"]:
        verb, *irregular = entry.split(":")
        base.add(verb)
        third.add(_third(verb))
        past.add(irregular[0] if irregular else _past(verb))
        participle.add(irregular[-1] if irregular else _past(verb))
    return frozenset(base), frozenset(third), frozenset(past), frozenset(participle)


def _third(verb: str) -> str:
    if verb.endswith("y") and verb[-2:-1] not in _VOWELS:
        return verb[:-1] + "ies"
    return verb + ("es" if verb.endswith(("s", "x", "z", "ch", "sh", "o")) else "s")


def _past(verb: str) -> str:
    if verb.endswith("e"):
        return verb + "d"
    if verb.endswith("y") and verb[-2:-1] not in _VOWELS:
        return verb[:-1] + "ied"
    closed = len(verb) > 2 and verb[-1] not in _VOWELS + "wxy" and verb[-2] in _VOWELS
    stressed = len(verb) <= 4 or verb.endswith(("mit", "fer", "cur", "pel", "rol"))
    doubles = closed and stressed and verb[-3] not in _VOWELS
    return verb + (verb[-1] if doubles else "") + "ed"


def is_base(word: str) -> bool:
    """Whether a word, in small letters, can be a verb's base form."""
    return word in _forms()[0]


def seems_to_have_verb(text: str) -> bool:
    """Whether a word of a text may be a finite verb, by its look: quick, and wrong of plurals."""
    return bool(_VERBISH.search(text))


def is_verb(word: str) -> bool:
    """Whether a word, in small letters, can be any form of a verb."""
    return any(word in forms for forms in _forms())


def is_past(word: str) -> bool:
    """Whether a word, in small letters, can be a verb's past form or participle."""
    return word in _forms()[2] or word in _forms()[3]


def finite_at(tokens: list[str], at: int) -> bool:
    """Whether the word at a place can carry a clause, judged by its neighbours.

    Args:
        tokens: Words in small letters; signs of punctuation may be among them.
        at: Index of the word.
    """
    word = tokens[at]
    before = tokens[at - 1] if at else ""
    after = tokens[at + 1] if at + 1 < len(tokens) else ""
    if word in AUXILIARIES:
        return before not in ("to",)
    base, third, past, _ = _forms()
    if before in _ADVERBS or before.endswith("ly"):
        before = tokens[at - 2] if at > 1 else ""
    if word in third:
        named = (
            (before in DETERMINERS and before not in _ALONE)
            or before in PREPOSITIONS
            or not before[:1].isalnum()
        )
        return (
            not named
            and after not in AUXILIARIES
            and (bool(after) or at > 1)
            and not (after in third and before in DETERMINERS)
        )
    if word in past:
        reduced = after in ("by",) or before in AUXILIARIES or before in DETERMINERS
        return (
            not reduced and before not in PREPOSITIONS and before not in ("", "be", "been", "being")
        )
    if word in base:
        plural = before.endswith("s") and not before.endswith("ss") and before.isalpha()
        subject = before in PRONOUNS and before not in ("this", "it", "he", "she", "one", "that")
        leads_on = (
            after in DETERMINERS or after in PREPOSITIONS or after in PRONOUNS or after == "not"
        )
        return subject or (
            plural and leads_on and before not in PREPOSITIONS and before not in DETERMINERS
        )
    return False


def has_clause(tokens: list[str]) -> bool:
    """Whether some words hold a verb that carries a clause."""
    return any(finite_at(tokens, at) for at in range(len(tokens)))


def first_finite(tokens: list[str]) -> int:
    """Index of the first verb that carries a clause, -1 where there is none."""
    return next((at for at in range(len(tokens)) if finite_at(tokens, at)), -1)


def is_order(tokens: list[str]) -> bool:
    """Whether words begin with an order: "run the script", not "test files are"."""
    if not tokens or not is_base(tokens[0]) or tokens[0] in DETERMINERS:
        return False
    after = tokens[1] if len(tokens) > 1 else ""
    leads_on = after in DETERMINERS or after in PREPOSITIONS or after in ("it", "them", "this")
    return leads_on or bool(after and not has_clause(tokens[:14]))


def opens_clause(tokens: list[str]) -> bool:
    """Whether words begin a clause of their own: a subject and its verb, or an order."""
    words = [token for token in tokens[:14] if token]
    if not words:
        return False
    if words[0] in ("then", "please", "you", "so"):
        return True
    if is_order(words):
        return True
    verbs = [at for at in range(len(words)) if finite_at(words, at)]
    if not verbs or not 0 < verbs[0] <= 12:
        return False
    described = any(word in ("that", "which", "who", "whose") for word in words[1 : verbs[0]])
    return not described or len(verbs) > 1  # "the aspects that we wanted" says nothing of them
