"""Signs that a sentence gives the kind of answer that is wanted."""

import re
from functools import lru_cache
from typing import NamedTuple

from wide_margin.core.answers.terms_abroad import term_abroad
from wide_margin.core.later import regex
from wide_margin.core.lexicon import number_words
from wide_margin.core.search import is_common

MONTH = (
    r"(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?"
    r"|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)"
)
NUMBER_WORD = (
    "(?:" + "|".join(word for word, value in number_words("en").items() if value > 1)
    + "|million|once|twice|half|dozen)"
)  # fmt: skip
NUMBER = regex(
    rf"(?<![\w.])(?!\d-?D\b)[±≤≥<>~]?\d[\d,.  ]*(?:\s?(?:%|°\s?C?|[a-zA-Zµ]{{1,12}}\b))?|\b{NUMBER_WORD}\b",
    re.I,
)
_DATE_IN_FIGURES = (
    rf"\b(?:\d{{1,2}}\s+)?{MONTH}\.?\s+\d{{1,4}}(?:,?\s+\d{{4}})?\b|\b(?:1[5-9]|20)\d\d\b"
)
_SPAN_OF_TIME = (
    r"\b(?:within|after|before|by|every|until|since|during)\s+(?:the\s+)?"
    rf"(?:\d+|{NUMBER_WORD}|first|last|next)\s+\w+"
)
DATE = regex(rf"{_DATE_IN_FIGURES}|{_SPAN_OF_TIME}", re.I)
_FIGURE_BEGINS = r"\d(?<![\w.]\d)(?!-?D\b)"
"""A number in figures: begun with its digit, since what may stand before it takes ten times as long."""
_FIGURE = regex(_FIGURE_BEGINS)
QUANTITY = regex(_FIGURE_BEGINS + r"[\d.,]*\s?(?:%|°|[a-zA-Zµ]{1,12}\b)")
NAME = regex(
    r"(?<![.!?]\s)(?<!^)\b[A-Z][\w’'-]+(?:\s+(?:of|the|de|van|von|and)?\s*[A-Z][\w’'.-]+)*"
)
_NAMED = regex(r"[A-Z](?<!^[A-Z])(?<!\w[A-Z])(?<![.!?]\s[A-Z])[\w’'-]")
"""The same, begun with its capital."""
ROLES = (
    r"(?:keeper|observer|officer|warden|editor|maintainer|author|manager|director|secretary|clerk|chair\w*"
    r"|president|committee|board|council|minister|administrator|developer|team|user|inspector|agent|engineer"
    r"|employer|employee|member|professor|inventor|founder)s?"
)

# Looked for in small letters, and not with re.I, which takes three times as long: each is asked of
# a thousand sentences for every question.
_DIGIT = regex(r"\d")
_NUMBER_IN_WORDS = regex(rf"\b{NUMBER_WORD}\b")
_DATE = regex(_DATE_IN_FIGURES)
_SPAN = regex(_SPAN_OF_TIME)
_ROLE = regex(rf"\b{ROLES}\b")
_FREQUENCY = regex(
    r"\b(?:how often|every|each|once|twice|daily|weekly|monthly|yearly|hourly|annually|quarterly|per|always|never|seldom)\b"
    r"|\btimes (?:an?|each|per)\b"
)  # fmt: skip
_REASON = regex(
    r"\b(?:because|since|so that|in order|therefore|thus|hence|due to|reason|avoid|prevent|otherwise"
    r"|as a result|owing to|leads? to|cause[sd]?|weil|damit|parce que|afin|porque)\b"
)  # fmt: skip
_STEP = regex(
    r"\b(?:to \w+|you (?:can|may|must|should|need)|must|should|use|set|call|type|run|press|enter|open"
    r"|choose|first|then|by \w+ing)\b"
)  # fmt: skip


def has_number(text: str) -> bool:
    """Whether a number stands in a text, in figures or in words."""
    return bool(_FIGURE.search(text) or _NUMBER_IN_WORDS.search(text.lower()))


def has_date(text: str) -> bool:
    """Whether a text has a date, a year or a span of time."""
    small = text.lower()
    has_digit = _DIGIT.search(small) is not None
    return bool((has_digit and _DATE.search(small)) or _SPAN.search(small))


def has_frequency(text: str) -> bool:
    """Whether a text says how often something is."""
    return _FREQUENCY.search(text.lower()) is not None


def has_role(text: str) -> bool:
    """Whether a text speaks of somebody by what he does: "the keeper"."""
    return _ROLE.search(text.lower()) is not None


_YEAR = regex(r"(?:1[5-9]|20)\d\d(?:\s+[a-z]+)?$")
_COUNTED = regex(r"\bhow (?:many|much)\s+(?:more\s+|different\s+)?(\w+)", re.I)


def counted_thing(question: str) -> str:
    """What a "how many …" question counts, "" where it does not say."""
    match = _COUNTED.search(question)
    return match[1].lower() if match else ""


_AUXILIARY = r"(?:is|are|was|were|do|does|did|can|should|must|may|has|have|had|will|would|be)"
_THING = regex(rf"\b(?:which|what)\s+((?:[\w’'-]+\s+){{0,4}}?){_AUXILIARY}\b", re.I)
_THING_FIRST = regex(rf"\b(?:which|what)\s+(?!{_AUXILIARY}\b)([\w-]+)\s+\w+", re.I)


def asked_thing(question: str) -> str:
    """The kind of thing that a "which …" question asks for: "method" of "which method is used"."""
    match = _THING.search(question)
    if match and match[1].strip():
        return match[1].split()[-1].lower()
    match = _THING_FIRST.search(question)
    return match[1].lower() if match else ""


def asked_parts(question: str) -> tuple[str, ...]:
    """The two words of that kind of thing: "operating", "systems"; () where it has but one."""
    match = _THING.search(question)
    named = match[1].lower().split()[-2:] if match else []
    if len(named) < 2 or is_common(named[0], "en") or _TELLS_MORE.fullmatch(named[0]):
        return ()
    return named[0], named[1]


_TELLS_MORE = regex(
    rf"\w+(?:al|ic|ive|ous|able|ible|ful|less|ed|ary|ar|ent|ant|est|er)|[\w-]+-(?:\w+)|{NUMBER_WORD}|\d+"
    r"|kinds?|sorts?|types?|basic|new|old|main|chief|free|good|well|big|large|small|single"
)
"""What only tells more of a thing, and makes no other one of it: "numerical" of a method."""


_RELATION = regex(
    r"^(?:in |on |by |from |of |for |to |with )?(?:what|which|who|whom)\b.*?\s(?:is|are|was|were|be|been|being)\s+"
    r"(?P<subject>.*?)\s*\b(?P<verb>made|[a-z]{2,}(?:ed|en|wn|pt|ght|nt|lt|ld|ne))"
    r"\s+(?P<tie>in|of|on|from|by|with|for|to|as|into|under|at|after)\W*$", re.I
)  # fmt: skip
_RELATION_AHEAD = regex(
    r"^(?P<tie>in|on|by|from|of|for|to|with|after|under|at|into|as)\s+(?:what|which|whom?)\b.*?\b(?:is|are|was|were)\s+"
    r"(?P<subject>.*?)\s*\b(?P<verb>made|[a-z]{2,}(?:ed|en|wn|pt|ght|nt|lt|ld|ne))\W*$", re.I
)  # fmt: skip
"""The same with what ties the two in front: "After whom is the well named?"."""
_PRONOUN = regex(r"\b(?:it|this|they|these|he|she|which|that|who)\b", re.I)


class Relation(NamedTuple):
    """What a question leaves open at its end: "What language is the program written in?"."""

    subject: str
    """The last word of what it is asked of: "program"; "" where there is none."""
    verb: str
    tie: str


def asked_relation(question: str) -> Relation | None:
    """The relation whose other end is asked for; None where the question does not end so."""
    match = _RELATION.match(question) or _RELATION_AHEAD.match(question)
    if match is None:
        return None
    named = [word for word in match["subject"].lower().split() if word.isalnum()]
    return Relation(named[-1] if named else "", match["verb"].lower(), match["tie"].lower())


@lru_cache(maxsize=8)
def _goes_on(verb: str, tie: str) -> re.Pattern[str]:
    return re.compile(rf"\b{verb}\s+(?:\w+ly\s+)?{tie}\s+\w", re.I)


def has_relation(sentence: str, relation: Relation) -> bool:
    """Whether a sentence goes on where a question ends, of the same thing or of an "it"."""
    match = _goes_on(relation.verb, relation.tie).search(sentence)
    if match is None:
        return False
    before = sentence[: match.start()].lower()
    of_it = not relation.subject or relation.subject[:5] in before
    return bool(of_it or _PRONOUN.search(before))


_A_NUMBER = r"(?:\d+(?:[.,]\d+)*|" + NUMBER_WORD + r"(?:-\w+)?)"
_OF_ALL = (
    r"(?:there (?:are|were|exist)|has|have|had|having|(?:consists?|composed) of|comprises?|contains?|includes?|counts|numbers?"
    r"|(?:a|the) total of|all(?: of)?(?: the)?|all in all|in all|altogether|with)"
    r"\s+(?:(?:now|about|some|currently|exactly|only|over|at\s+(?:most|least))\s+){0,2}"
)
"""Before the number of all there are."""
_ASKS_ALL = regex(
    r"\bhow many\b.*\b(?:(?:are|were) there\b|exist\b|in (?:all|total)\b|altogether\b|make up\b"
    r"|(?:does|do|did) (?:\w+ ){1,3}(?:have|contain|comprise|include|consist)\b)", re.I
)  # fmt: skip


def asks_of_all(question: str) -> bool:
    """Whether a question asks how many there are of all, and not how many of them did something."""
    return _ASKS_ALL.search(question) is not None


def counts_it(sentence: str, thing: str) -> bool:
    """Whether a number stands in front of the thing, as in "eleven people"."""
    return _stem_of(thing) in sentence.lower() and bool(_counted(thing)[0].search(sentence))


def counts_all(sentence: str, thing: str) -> bool:
    """Whether a sentence says how many there are: "It has eleven wells"; "eleven deep wells" are some."""
    return bool(_counted(thing)[1].search(sentence))


def _stem_of(thing: str) -> str:
    """A word in small letters without its ending."""
    return thing[: max(4, len(thing) - 2)].lower()


@lru_cache(maxsize=8)
def _counted(thing: str) -> tuple[re.Pattern[str], re.Pattern[str]]:
    """A number of things, some of them or all, and a number of all of them.

    "Six rope types" are no ropes: what is counted stands in the plural where it has one.
    """
    stem, is_plural = _stem_of(thing), thing.lower().endswith("s")
    counted = re.escape(stem.removesuffix("s")) + r"\w*s\b" if is_plural else re.escape(stem)
    of_some = (
        rf"\b{_A_NUMBER}\s+(?:[\w-]+\s+){{0,2}}{counted}"
        rf"|\bnumber\s+of\s+(?:[\w-]+\s+){{0,2}}{counted}\w*\b[^.;]{{0,60}}?\b(?:is|are|was|were|to|up\s+to|most|least|exceed|equals?)\s+(?:\w+\s+)?{_A_NUMBER}\b"
    )
    of_all = rf"\b{_OF_ALL}{_A_NUMBER}\s+{counted}"
    return re.compile(of_some, re.I), re.compile(of_all, re.I)


_REFERENCE = regex(
    r"\b(?:table|section|figure|fig\.|chapter|equation|eq\.|page|pp?\.|appendix|example|listing|footnote|step|part|annex|volume|version)s?"
    r"\s+\(?\d[\d.]*(?:[–-]\d[\d.]*)?\)?|^\W*\d+(?:\.\d+)+\.?\s(?=[A-Z])"
    r"|(?:^|\n)\W*\d{1,2}[.)]\s(?=\S)", re.I
)  # fmt: skip
"""A number by which a part of a text or an item is called: it counts nothing."""


def without_references(sentence: str) -> str:
    """A sentence without the numbers of sections, tables and pages it refers to."""
    return _REFERENCE.sub(" ", sentence) if _DIGIT.search(sentence) else sentence


def sign_of(kind: str, sentence: str, topic: tuple[str, ...]) -> float:
    """How far a sentence has the form of the wanted answer, 0 to 1.

    Args:
        kind: From read_question.
        sentence: A candidate.
        topic: The question's content words; for "what is" the thing defined is among them.
    """
    if kind == "how many":
        said = without_references(sentence)
        if QUANTITY.search(said):
            return 1.0
        return 0.5 if has_number(said) else 0.0
    if kind == "how often":
        return 1.0 if has_frequency(sentence) else 0.0
    if kind == "when":
        return 1.0 if has_date(sentence) else 0.0
    if kind == "who":
        return 1.0 if has_role(sentence) else (0.7 if _NAMED.search(sentence) else 0.0)
    if kind == "why":
        return 1.0 if _REASON.search(sentence.lower()) else 0.0
    if kind == "how to":
        return 0.6 if _STEP.search(sentence.lower()) else 0.0
    if kind == "what is":
        return _defines(sentence, topic)
    if kind == "list":
        return _enumerates(sentence, topic)
    return 0.0


_ENUMERATION = regex(
    r"\(1\).{3,200}\(2\)|\((?:a|i)\).{3,200}\((?:b|ii)\)|:\s*[^,.:]{2,40},\s.{2,80}?\b(?:and|or)\b"
    r"|\b(?:consists? of|comprises?|divided into|namely|falls? into)\b"
)  # fmt: skip


def _enumerates(sentence: str, topic: tuple[str, ...]) -> float:
    """Whether a sentence counts up things of the kind asked for: "five queues: (1) …, (2) …"."""
    if not _ENUMERATION.search(sentence.lower()):
        return 0.0
    return 1.0 if any(counts_it(sentence, word) for word in topic if len(word) > 3) else 0.3


_TERM_ASKED = tuple(
    regex(pattern, re.I)
    for pattern in (
        r"what (?:is|was|are|were) (?:meant|understood) by (?:the term |an? |the )?(?P<term>.+?)(?: (?:in|under|by|for|within) .*)?\??$",
        r"what (?:do|does|did) .*?\b(?:mean|understand) by (?:the term |an? |the )?(?P<term>.+?)(?: (?:in|under|for|within) .*)?\??$",
        r"what does (?:it mean (?:for .+? to be|to be|when .+? is) )(?P<term>.+?)\??$",
        r"what (?:does|did) (?:the (?:term|word|abbreviation) |an? )?(?P<term>.+?) (?:mean|stand for|denote|refer to)\b.*$",
        r"when (?:is|are|was|were) .+? (?:called|termed|known as|said to be) (?:an? |the )?(?P<term>.+?)\??$",
        r"(?:define|explain the term) (?:an? |the )?(?P<term>.+?)\??$",
        r"what(?:'s|’s| is| are| was| were) (?:(?:an?|the) )?(?P<term>[^,]+?)(?<!used)(?: for)?\??$",
        r"was (?:ist|sind|bedeutet) (?:(?:eine?|der|die|das) )?(?P<term>[^,]+?)\??$",
    )
)  # fmt: skip
_ONE_CASE = r"(?:is|are|was|were) (?:\w+ )?(?:an?|one|another|the) (?:[\w-]+ )?(?:examples?|instances?|cases?) (?:of|for|in|where)\b"
"""Says of what a thing is an example, and not what it is."""
_SAYS_IS = regex(
    rf"(?:\([^)]*\)\s*)?(?:of (?:the|an?) \w+\s+)?,?\s*(?!{_ONE_CASE})(?:is|are|was|were|means?|refers? to|denotes?|stands? for|consists? of|(?:acts?|serves?|works?|behaves?) (?:as|like)|represents?|ist|sind|bedeutet"
    r"|est|sont|désigne|signifie|es|son|significa|è|sono|é|são|zijn|betekent|är|er|betyder|jest|oznacza|je|este|это|является"
    r"|(?:can|may) be (?:thought of|viewed|regarded|seen|described|defined|understood) as)\b", re.I
)  # fmt: skip
_SAYS_IS_THE = regex(
    rf"(?:\([^)]*\)\s*)?,?\s*(?!{_ONE_CASE})(?:(?:is|are) (?:defined|the|an?|any|that)\b|means\b|refers to\b|stands for\b)", re.I
)  # fmt: skip
_IS_DONE = regex(
    r"(?:is|are|was|were)\s+(?:\w+ly\s+)?(?:\w{2,}ed|made|given|set|written|shown|found|kept|held|put|read|run|done|taken|built|sent)\b"
    r"(?!\s+(?:as|to|by which|for|of|from)\b)(?<!called)(?<!named)(?<!termed)(?<!defined)(?<!designed)(?<!intended)(?<!composed)(?<!based)"
    r"|(?:es|son|están?|estão|est|sont|è|sono|é|são)\s+(?:(?:muy|más|très|plus|molto|più|muito|mais|\w{3,}ment[eo]?)\s+)?"
    r"(?!(?:llamad|conocid|denominad|definid|appelé|nommé|connu|défini|chiamat|conosciut|chamad))"
    r"\w{2,}(?:[aiu]bles?|ibles?|[aiu]bil[ei]|[áíúe]ve(?:l|is)|ad[oa]s?|id[oa]s?|at[oaie]|[iu]t[oaie]|ée?s?)\b"
    r"(?!\s+(?:como|comme|come)\b)", re.I
)  # fmt: skip
"""Says what is done with a thing, or can be, or how it is, which need not tell what it is."""
IS_DONE = 0.5
"""What that counts as a definition."""
_CALLED = regex(
    r"\b(?:called|known as|termed|named|referred to as|defined as|we say|genannt)(?: an?| the)?$", re.I
)  # fmt: skip
_IN_NAME = regex(r"\w[.:]\w")
"""Joins the parts of a name in code, at either end of a word."""
_GIVES_VALUE = regex(r":\s+[~<>≈±+-]?\s?\d")
"""Gives a number for a thing, and says nothing of what it is: "winch: 15 %"."""
_NO_ENDING = "bcfghjkpqvwxz0123456789"
"""Letters that are no ending of a word by themselves, in the languages with endings."""
SHORTENED = 0.6
"""What a definition of the first word of a term counts for the whole term."""
_SOME = frozenset(["these", "those", "such", "some", "other", "another", "both", "many", "most"])
"""Before a term they speak of some of its kind: "these diagrams are a subset"."""
_WORD_IN_TEXT = regex(r"[\w’'-]+")


_BEGIN = frozenset(
    ["", "a", "an", "the", "by", "each", "every", "ein", "eine", "der", "die", "das", "un", "une", "le", "la", "les", "l",
     "una", "el", "los", "las", "uno", "il", "lo", "i", "gli", "um", "uma", "o", "os", "as", "een", "het", "de", "en", "ett",
     "et", "ei"]
)  # fmt: skip
"""What stands before a term at the beginning of a sentence."""


def defined_term(question: str) -> str:
    """What a "what is …" question wants defined, "" where it does not say."""
    for pattern in _TERM_ASKED:
        if match := pattern.match(question):
            return match["term"].strip(" “”\"‘’'")
    return term_abroad(question)


def begins_alike(word: str, wanted: str) -> bool:
    """Whether a word is another one but for its ending."""
    if "_" in word and "_" not in wanted:
        return False  # "centreline_id" is a name in code
    stem = wanted[: max(4, len(wanted) - 2)] if len(wanted) > 4 else wanted
    if len(word) == len(wanted) + 1 and word.startswith(wanted) and word[-1] in _NO_ENDING:
        return False  # "velvetg" is another program
    return word.startswith(stem) and len(word) <= len(wanted) + 3


def _defines(sentence: str, topic: tuple[str, ...]) -> float:
    """How far a sentence defines the last word of a term, with its other words beside it."""
    if not topic:
        return 0.0
    small = sentence.lower()
    if not any(word[: max(4, len(word) - 2)] in small for word in (topic[0], topic[-1])):
        return 0.0  # most sentences: told without taking them apart
    found = list(_WORD_IN_TEXT.finditer(sentence))
    written = [m.group().lower() for m in found]
    best = 0.0
    for k, word in enumerate(written):
        if not begins_alike(word, topic[-1]):
            continue
        first = max(0, k - len(topic) + 1)
        near = written[max(0, k - len(topic) - 1) : k + 1]
        if not all(any(begins_alike(w, part) for w in near) for part in topic):
            continue
        if _IN_NAME.search(sentence, max(found[first].start() - 2, 0), found[k].end() + 2):
            continue  # "winch.rope" is no rope
        before = sentence[: found[first].start()].strip(" “”\"‘’'•▪–—*·-").lower()
        after = sentence[found[k].end() :].lstrip(" “”\"‘’'")
        begins = before in _BEGIN
        if begins and (_SAYS_IS.match(after) or re.match(r"[:–—]\s+\w", after)):
            # "A weir is …", "• Weir: …", but not "Weirs are built by"
            return IS_DONE if _IS_DONE.match(after) else 1.0
        if _CALLED.search(before):
            best = max(best, 0.9)
        elif (
            (after.startswith(": ") and not _GIVES_VALUE.match(after))
            or (_SAYS_IS_THE.match(after) and _is_free(before, topic))
            or (before == "" and re.match(r"[—–(]|-\s|[A-Z]\w*\s+[a-z]", after))
        ):
            best = max(best, 0.8)
        elif before.endswith("declared"):
            best = max(best, 0.5)
    if len(topic) > 1 and best < SHORTENED and len(topic[0]) > 4:
        return min(SHORTENED, _defines(sentence, topic[:1]))  # "Essential is defined as …"
    return best


def _is_free(before: str, topic: tuple[str, ...]) -> bool:
    """Whether what stands before a term leaves it as it is: "the minimum" of it is another thing."""
    if _UNDER_ANOTHER.search(before):
        return False
    last = before.split()[-1] if before else ""
    if not last or not last[-1].isalnum() or any(begins_alike(last, part) for part in topic):
        return True
    return last not in _SOME and (is_common(last, "en") or is_common(last, "de"))


_UNDER_ANOTHER = regex(
    r"(?<!\w)(?:the|an?|each|every|its|their)\s+[\w-]+\s+(?:[\w-]+\s+){0,8}?(?:of|on|in|for|with|from|to|at|by)\s+(?:an?|the|each|every)$"
    r"|(?<!\w)(?:the|an?|one|another)\s+(?:\w+\s)?(?!(?:notions?|concepts?|ideas?|terms?|words?|names?|meanings?|definitions?|method"
    r"|process|task|kinds?|class)\b)[\w-]+\s+(?:of|for|with)$"
)
"""Before a term that stands under another word: "the colour of each point on a …" is its colour, "a
chief advantage of" ropes is one of their advantages."""


_ASKS_WHETHER = {
    "can": regex(
        r"^(?:.*[,;] )?(?:(?:can|could|may|might|would)\b"
        r"|is it (?:at all )?(?:possible|all right|okay|ok|fine|safe|legal|allowed|permitted|forbidden)\b"
        r"|(?:am|are|is) \S+(?: \S+){0,4}? (?:allowed|able|free|permitted|forbidden)\b)", re.I
    ),
    "must": regex(
        r"^(?:.*[,;] )?(?:(?:must|should)\b|is it (?:\w+ )?(?:necessary|required|mandatory|recommended|advisable|good)\b"
        r"|(?:do|does|did) \S+(?: \S+){0,4}? (?:have to|need|ought)\b"
        r"|(?:am|are|is) \S+(?: \S+){0,4}? (?:required|needed|obliged|necessary)\b)", re.I
    ),
}  # fmt: skip
"""Questions whether something can or may be done, and whether it must or should."""
_SAYS_WHETHER = {
    "can": regex(
        r"\b(?:can(?:not|[’']t)?|may|(?:must|should|shall) not|(?:must|should)n[’']t|(?:im)?possible|no way|(?:un)?able to"
        r"|(?:dis)?allow(?:ed|s)?|permit(?:ted|s)?|forbidden|forbids|prohibit(?:ed|s)|discouraged?|refuse[sd]?|reject(?:ed|s)?"
        r"|free to|never|no longer|support(?:ed|s)|(?:is|are|was|were|do|does|did|will) not|(?:is|are|was|were|do|does|did|wo)n[’']t)\b"
        r"|^(?:yes|no)\b", re.I
    ),
    "must": regex(
        r"\b(?:must|should|shall|needs?|have to|has to|ought|require[sd]?|requirements?|mandatory|(?:un)?necessary|optional"
        r"|recommended|obliged|without|automatically|(?:is|are|was|were|do|does|did) not|(?:is|are|was|were|do|does|did)n[’']t)\b"
        r"|^(?:yes|no)\b", re.I
    ),
}  # fmt: skip


def says_whether(question: str) -> re.Pattern[str] | None:
    """What a sentence says that tells whether something can, or must, be done; None if not asked."""
    asked = (how for how, asks in _ASKS_WHETHER.items() if asks.match(question))
    return next((_SAYS_WHETHER[how] for how in asked), None)


def emphasis_for(kind: str, sentence: str, asked: str = "") -> tuple[tuple[int, int], ...]:
    """Ranges of a sentence that answer most directly.

    Args:
        kind: From read_question.
        sentence: What is quoted.
        asked: The question. Of several numbers those count that are numbers of what it names:
            the "eight" of "two switches; up to eight boards" where boards are asked for.
    """
    pattern = {"how many": NUMBER, "when": DATE, "who": NAME}.get(kind)
    if pattern is None:
        return ()
    found = [m.span() for m in pattern.finditer(sentence) if not _GLUED.match(sentence, m.start())]
    if kind == "how many" and (of_it := [span for span in found if _counts(sentence, span, asked)]):
        found = of_it
    figures = [(a, b) for a, b in found if any(c.isdigit() for c in sentence[a:b])]
    if kind == "how many" and figures:
        found = figures  # "4 mm" answers; the "two" of "the two heights" does not
        found = [(a, b) for a, b in found if not _YEAR.match(sentence[a:b])] or found
    return tuple(_trimmed(sentence, a, b) for a, b in found if b > a)[:3]


_GLUED = regex(r"\d+[x×]\d", re.I)
"""A figure that is part of a name or of a size: "1x4"."""
_PART_ENDS = regex(r"[,;:()](?=\s)|\.\s")
COUNTS_WITHIN = 4
"""Words after a number among which stands what it counts."""


def _counts(sentence: str, span: tuple[int, int], asked: str) -> bool:
    """Whether a number in a sentence is one of a thing that a question names."""
    wanted = [w.lower() for w in _WORD_IN_TEXT.findall(asked) if len(w) > 3 and not is_common(w)]
    said = _PART_ENDS.split(sentence[span[0] :], maxsplit=1)[0]
    after = _WORD_IN_TEXT.findall(said)[:COUNTS_WITHIN]
    return any(begins_alike(word.lower(), one) for word in after for one in wanted)


def _trimmed(text: str, start: int, end: int) -> tuple[int, int]:
    while end > start and text[end - 1] in " ,.":
        end -= 1
    return start, end
