"""Questions put into words, from the titles, terms and sentences of a document."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterator
from functools import cached_property
from typing import TYPE_CHECKING

from wide_margin.core.answers.signs import NUMBER_WORD, ROLES
from wide_margin.core.digest.telling import THING
from wide_margin.core.later import regex
from wide_margin.core.lexicon import roman_value
from wide_margin.core.search import is_common
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

FEWEST_INITIALS = 3
"""Of a title that may have a short form."""
MOSTLY = 0.5
"""Share of a term's uses with an article from which on it is asked for with it."""
EVERYDAY = 4000
"""A single word among so many of the most frequent is no term to ask for."""
SMALL = 390
"""A single word among so many of the most frequent is nothing that something is done to."""
A_NAME = 3.0
"""So many times as often with a capital as without, a word is a name."""

_MODAL = r"(?:must|may|can|should|shall|will|could|would)"
_N = rf"(?:\d[\d.,]*|{NUMBER_WORD})"
_UNITS = r"(?:degrees|metres|meters|kilometres|miles|feet|inches|pounds|grams|kilograms|litres|seconds|minutes|hours|days|weeks|months|years|points|bytes|bits)"
_ABOUT = r"(?:(?:about|around|roughly|at (?:least|most)|up to|only|exactly|nearly)\s+)?"
_SUBJECT = rf"(?P<subject>(?:The|An?|Each|Every)\s+(?:(?!{_MODAL}\b)[^,;:()]){{3,50}}?)"
_PARTICIPLE = (
    r"(?:\w{3,}ed|built|set up|set|laid|run|cut|given|written|begun|found|founded|made|held|sold|taken"
    r"|drawn|known)"
)
_DATE = (
    r"(?:(?:on|in|since|from)\s+(?:\d{1,2}\s+)?(?:January|February|March|April|May|June|July|August"
    r"|September|October|November|December)?\s?\d{4})"
)
_WHEN = regex(rf"^{_SUBJECT}\s+(?P<be>was|were)\s+(?P<done>{_PARTICIPLE})\b[^,;:]*?\b{_DATE}")
_WHY = regex(
    rf"^{_SUBJECT}\s+(?P<be>is|are|was|were|{_MODAL})\s+(?P<rest>[^,;:()]{{4,50}}?),?\s+(?P<tie>because|so that)\s"
)
_HAS = regex(
    rf"^{_SUBJECT}\s+(?:has|have|contains?|comprises?)\s+{_ABOUT}{_N}\s+(?P<thing>(?!{_UNITS}\b)[a-z]{{4,}}s)\b"
)
_TO = regex(r"\sto$")
"""At the end of what is no subject: "the first step is to" have two."""
_LASTS = regex(
    rf"^{_SUBJECT}\s+(?P<verb>take|last)s\s+{_ABOUT}{_N}\s+(?:seconds?|minutes?|hours?|days?|weeks?|months?|years?)\b"
)
_COSTS = regex(rf"^{_SUBJECT}\s+costs\s+{_ABOUT}[$€£]?\s?{_N}\b")
_WHO = regex(
    rf"^The\s+(?P<role>{ROLES})\s+(?P<rest>(?:{_MODAL}|[a-z]{{3,}}s)\s+(?!{_MODAL}\b|are\b|were\b|that\b)[^,;:.()]{{10,60}})(?=[.,;:]|$)"
)
_SIDE = r"(?:(?:the|an?)\s+)?[\w’'-]+(?:\s+(?!(?:is|are|was|were|lies|can|that|which|in|of|for|when|on|at|by|and|as|to|with|has|have|from)\b)[\w’'-]+){0,2}"
_DIFFERENCE = regex(
    rf"\bdifferences? between (?P<one>{_SIDE}) and (?P<other>{_SIDE})"
    r"(?=[.,;:)]|\s+(?:is|are|was|were|lies|in|for|when|on|at|by)\b)",
    re.I,
)
LEANS = regex(
    r"\b(?:this|that|these|those|it|its|he|she|his|her|they|their|them|we|our|you|your|i|such|same|both"
    r"|also|other|others|another|following|above|below|latter|former|which|who|whose|where|when|here|now)\b",
    re.I,
)
IS_QUESTION = regex(
    r"^(?:what|who|whose|when|where|which|why|how|can|could|do|does|did|is|are|should|may|will|am)"
    r"(?:[’']s)?\b(?!.* \d+$).{8,}\?$", re.I
)  # fmt: skip
"""A title that asks, as in lists of questions."""
ASKS = regex(
    r"^(?:what|who|whose|when|where|which|why|how|can|could|do|does|did|is|are|should|may|will|i|my|have)"
    r"(?:[’']s|n[’']t)?\b", re.I
)  # fmt: skip
"""A title that is no name of a matter."""
LEGAL = regex(r"\b(?:licen[sc](?:es?|ing)|copy(?:right|ing)|gnu|l?gpl|fdl|legal)\b", re.I)
"""Titles of sections that say nothing of the document's matter."""
_COMPOUND = regex(
    r"^(?:operating (?:systems?|conditions?|modes?|points?|temperatures?|frequenc(?:y|ies)|instructions|procedures?)|(?:programming|scripting|modelling|modeling) (?:languages?|interfaces?)|mailing lists?"
    r"|working director(?:y|ies)|starting points?|building blocks?|reading lists?|training (?:data|sets?)|opening hours)\b", re.I
)  # fmt: skip
"""Begins with a form in -ing, and names a thing."""
_NAMED_KIND = regex(
    r"(?!(?:an?|the|your|this|these|all|any|each|every|several|multiple|another|other|some|one|no)\b)[\w.-]+(?: [\w.-]+)? "
    r"(?:command|library|package|module|program|tool|utility|function|method|interface|editor|server|client|window|menu|dialog|toolbar)"
)
"""A name and the kind of what has it, which needs an article: "service command"."""
RARER_THAN_ITS_PLURAL, EVER = 2, 1 << 30
"""Times the rank of a plural that the word for one thing has at most; of "news" there is none. And
the rank of a word that the language does not have."""
_NO_PLURALS = frozenset(["news", "means", "series", "species", "lens", "gas", "bus"])
_ORDER = regex(
    r"(?P<verb>install|configure|create|prepare|choose|enable|disable|add|remove|delete|define|specify|convert|connect|generate"
    r"|compile|modify|apply|select|insert|customi[sz]e|obtain|(?:run|use|start|open|save|edit|export|import|build|make|set up|change)"
    r"(?= (?:an?|the|your|this)\b))"
    r"\s(?P<object>(?!(?:on|in|at|of|for|with|and|or|to|it)\b)[^?!:;,.]{3,50})",
    re.I,
)
"""A title that orders what is done under it: "Prepare command files", "Run the tests"; the last
verbs are nouns as well."""
_IN_NAME, _GOES_ON = regex(r"[\w<>/\\._-]"), regex(r"[\w<>/_-]|\.\w")
"""Before and after a word that is a piece of a path or of a longer name."""
_NO_OBJECT = regex(r"(?:of|at|by|as|during|when|after|before|and|or)\b", re.I)
"""After a form in -ing, what is done to nothing: "Mapping of data types", "Beeping at startup",
"Building and installation"."""
_OF_DOING = """
    considerations issues problems examples requirements conventions guidelines information rules
    modes techniques strategies policy policies support help notes tips details overview basics
    process system model creation generation configuration operation operations function functions
    routines semantics representation interface interfaces instructions commands abbreviations
"""
_SAID_OF_DOING = frozenset(_OF_DOING.split())
"""What there is of a task: "Timing considerations" are no task."""
_HOW_TO = regex(r"^how to\s+(?P<task>.{4,60})$", re.I)
_GERUND = regex(r"^(?P<verb>[A-Za-z]{2,}ing)\s+(?P<object>\w.{2,50})$")
_FINITE = regex(r"(?:is|are|was|were|has|have|had)\b")
"""Follows what only looks like a verb: "The member procedures … are"."""
_ONLY = regex(r"\b(?:\w+ly|only|just|partly|not)$|\band (?:is|are|was|were)\b", re.I)
"""What limits a reason, or is said besides, rather than what it is the reason for."""
_PERSON = regex(
    r"\bis (?:the|an?) (?:head|chief|person|officer|official|member|man|woman|one who|author|editor)\b",
    re.I,
)
_OF_USER = regex(r"users?\b", re.I)
BREAKS = regex(r"[,;:?()\[\]“”\"]|\s/\s")
"""What a title may not hold that stands within a question."""
_AND_MORE = regex(r"\b(?:and|or) (?:\w+ )?\w+ing\b", re.I)
_NAMES_ONE = regex(
    r"^(?:the|an?|your|one|multiple|several|new|other|all|any|custom|more|its)\b", re.I
)
_DETERMINER = regex(
    r"\b(?:the|an?|your|my|this|that|each|every|one|another|any|some|no|its|their|more|all|what|which|how|only|and)\b", re.I
)  # fmt: skip
_BEFORE_PREPOSITION = regex(
    r"\s+(?:of|in|on|with|without|for|from|to|by|at|as|into|via|using|between|over|under|and|or)\s+"
)
_SAID = regex(r"[\w’'-]+")
_VOWEL = regex(r"[aeiouy]")
_INNER_CAPITAL = regex(r"[a-z][A-Z]")
"""In the name of a program, which has no article."""


def question_from(text: str, shape: str) -> str:
    """A question that a sentence answers, "" where it has not the form for it.

    Args:
        text: A sentence.
        shape: "why", "number", "who", "when" or "difference".
    """
    make: dict[str, Callable[[str], str]] = {
        "why": _why, "number": _number, "who": _who, "when": _when, "difference": _difference
    }  # fmt: skip
    return make[shape](text)


def _why(text: str) -> str:
    match = _WHY.match(text)
    if not match or LEANS.search(match["subject"]) or LEANS.search(match["rest"]):
        return ""
    if _ONLY.search(match["rest"]):
        return ""
    if match["tie"] == "so that" and match["be"] in ("is", "are", "was", "were"):
        return ""  # "chosen so that …", "a permutation so that …"
    return f"Why {match['be']} {_lowered(match['subject'])} {match['rest']}?"


def _number(text: str) -> str:
    if (match := _HAS.match(text)) and not (
        LEANS.search(match["subject"]) or _TO.search(match["subject"])
    ):
        return f"How many {match['thing']} does {_lowered(match['subject'])} have?"
    if (match := _LASTS.match(text)) and not LEANS.search(match["subject"]):
        return f"How long does {_lowered(match['subject'])} {match['verb']}?"
    if (match := _COSTS.match(text)) and not LEANS.search(match["subject"]):
        return f"How much does {_lowered(match['subject'])} cost?"
    return ""


def _who(text: str) -> str:
    match = _WHO.match(text)
    if not match or LEANS.search(match["rest"]) or _OF_USER.match(match["role"]):
        return ""
    said = match["rest"].split()
    if said[0].endswith("s") and any(map(_FINITE.fullmatch, said[1:])):
        return ""
    if is_common(said[-1], "en"):  # "… each half hour and (at night) …"
        return ""
    return f"Who {match['rest'].rstrip('. ')}?"


def _when(text: str) -> str:
    match = _WHEN.match(text)
    if not match or LEANS.search(match["subject"]):
        return ""
    return f"When {match['be']} {_lowered(match['subject'])} {match['done']}?"


def _difference(text: str) -> str:
    match = _DIFFERENCE.search(text)
    if not match or LEANS.search(match[0]) or "not" in text.split():
        return ""
    one, other = match["one"], match["other"]
    if bool(_NAMES_ONE.match(one)) != bool(_NAMES_ONE.match(other)):
        return ""  # "the purchase and selling prices" has one noun
    if all(is_common(word, "en") for word in one.split() + other.split()):
        return ""
    return f"What is the difference between {one} and {other}?"


def _lowered(text: str) -> str:
    """With a small first letter, as within a question."""
    return text[0].lower() + text[1:]


class Wording:
    """How a document writes and uses its words, so that questions are put in the same way."""

    def __init__(self, document: ReadDocument) -> None:
        """Of a document that has been read."""
        self._document = document

    @cached_property
    def _text(self) -> str:
        """The running text in small letters, one blank between words and none of its signs."""
        said = (s.text for s in self._document.text.sentences if s.kind in ("body", "item"))
        return " " + " ".join(_SAID.findall(" ".join(said).lower())) + " "

    @cached_property
    def _as_written(self) -> Counter[str]:
        """Words of sentences but their first ones, as written."""
        counted: Counter[str] = Counter()
        for sentence in self._document.text.sentences:
            if sentence.kind in ("body", "item"):
                counted.update(_SAID.findall(sentence.text)[1:])
        return counted

    def in_sentence(self, title: str) -> str:
        """A title as it is written within a sentence: "Sparse Matrices" is "sparse matrices"."""
        parts = title.rstrip(".:?! ").split()
        if title.isupper() and len(parts) > 1:
            parts = [part if self._is_short(part) else part.capitalize() for part in parts]
        return " ".join(map(self._in_sentence, parts))

    def _is_short(self, word: str) -> bool:
        """Whether a word in capitals is written so within sentences, too."""
        return self._as_written[word] > self._as_written[word.lower()]

    def _in_sentence(self, word: str) -> str:
        small = word.lower()
        if not word[:1].isupper() or not word[1:].islower():
            return word
        small_often, often = self._as_written[small], self._as_written[word]
        if small.endswith(("ing", "ed", "ly")) and small_often * A_NAME >= often - 1:
            return small  # "Existing packages", once within a title that is quoted
        if not small_often and not often:  # only in titles: a name has no place among usual words
            parts = small.replace("’", "'").split("-")
            return small if all(frequency_rank(part) is not None for part in parts) else word
        return small if small_often * A_NAME >= often else word

    @cached_property
    def _raw(self) -> str:
        """The running text as it is written within sentences, without their first words."""
        said = (s.text for s in self._document.text.sentences if s.kind in ("body", "item"))
        return " | ".join(text.partition(" ")[2] for text in said)

    @cached_property
    def _raw_small(self) -> str:
        """The same in small letters, each in its place."""
        small = self._raw.lower()
        if len(small) == len(self._raw):
            return small
        return "".join(c.lower() if len(c.lower()) == 1 else c for c in self._raw)

    def _written(self, term: str) -> Iterator[str]:
        """A term at each place where it stands by itself, and in no path.

        Looking for it in small letters is a tenth of the work of an expression that ignores case.
        """
        small, at = term.lower(), -1
        while (at := self._raw_small.find(small, at + 1)) >= 0:
            before, after = self._raw[at - 1 : at], self._raw[at + len(small) : at + len(small) + 2]
            if not _IN_NAME.match(before) and not _GOES_ON.match(after):
                yield self._raw[at : at + len(small)]

    def _as_usual(self, term: str, definition: str) -> str:
        """A term as the text mostly writes it ("debian" is "Debian"), or as its definition does."""
        if written := Counter(self._written(term)):
            return written.most_common(1)[0][0]
        first = term.split(" ", 1)[0]  # stands nowhere but where a sentence begins
        is_known = frequency_rank(first.lower()) is not None or bool(
            re.match(rf"\W*{re.escape(term)}\s+are\b", definition)
        )
        is_word = first[1:].islower() and is_known
        if is_word and not term[len(first) :].islower() and " " in term:
            return self.in_sentence(term)  # "Real Time Input", only where a sentence begins
        return _lowered(term) if is_word else term

    def what_is(self, term: str, definition: str = "") -> str:
        """The question what a term is, with the article that the document gives it.

        One whom the definition calls somebody is asked for with "who".
        """
        question = self._what_is(term, definition)
        if question.startswith("What is the ") and _PERSON.search(definition):
            return f"Who is {question.removeprefix('What is ')}"
        return question

    def _what_is(self, term: str, definition: str) -> str:
        term = self._as_usual(term, definition)
        said = " ".join(_SAID.findall(term.lower()))
        whole = self._text.count(f" {said} ")
        if not said or not whole or LEANS.search(term) or roman_value(said):
            return ""
        first, _, rest = said.partition(" ")
        if rest and _verb_of(first) and first.endswith("ing") and not self._is_noun(first, rest):
            return ""  # "Running it is …"
        if self._is_plural(said) and not re.match(
            rf"\W*{re.escape(term)}\s+is\b", definition, re.I
        ):
            if (frequency_rank(said.removesuffix("s")) or EVERYDAY) < EVERYDAY:
                return ""
            return f"What are {term}?"
        if said.count(" ") == 0 and (frequency_rank(said) or EVERYDAY) < EVERYDAY:
            return ""
        named = re.search(
            rf"\bare (?:called|known as|termed|named) (the )?{re.escape(term)}\b", definition, re.I
        )
        if named and said.endswith("s") and not said.endswith(("ss", "us", "is")):
            return f"What are {named[1] or ''}{term}?"
        of_thing = rf"\b(?!\s+{THING}\b)"  # "the Wellkeep package" is Wellkeep
        if match := re.match(rf"(an?|the)\s+{re.escape(term)}{of_thing}", definition, re.I):
            return f"What is {match[1].lower()} {term}?"
        if match := re.search(rf"\b(an?)\s+(?:so-called\s+)?{re.escape(term)}\b", definition, re.I):
            return f"What is {match[1].lower()} {term}?"
        article = "an" if said[0] in "aeiou" else "a"
        n_with, n_the = self._text.count(f" {article} {said} "), self._text.count(f" the {said} ")
        if _INNER_CAPITAL.search(term):
            return f"What is {term}?"
        if term[0].isupper():
            n_the -= len(re.findall(rf" the {re.escape(said)} {THING} ", self._text))
            return f"What is the {term}?" if n_the >= MOSTLY * whole else f"What is {term}?"
        if n_the >= MOSTLY * whole and n_the > n_with:
            return f"What is the {term}?"
        plurals = [_plural_of(said)]
        if said.endswith(("ix", "ex")):
            plurals.append(f"{said[:-2]}ices")
        if n_with >= MOSTLY * whole or any(f" {plural} " in self._text for plural in plurals):
            return f"What is {article} {term}?"
        return f"What is {term}?"

    def _is_plural(self, said: str) -> bool:
        if said.endswith(("ss", "us", "is")) or not said.endswith("s"):
            return False
        if said.endswith("ices") and any(
            f" {said[:-4]}{end} " in self._text for end in ("ex", "ix")
        ):
            return True
        singulars = [
            one for one in (said[:-1], said[:-2], f"{said[:-3]}y") if _plural_of(one) == said
        ]
        rarest = RARER_THAN_ITS_PLURAL * (frequency_rank(said) or 0)
        if said not in _NO_PLURALS and any(
            (frequency_rank(o) or EVER) <= rarest for o in singulars
        ):
            return True  # "exceptions", though one alone stands nowhere here
        return any(
            f" {one if ' of ' in one else one.rpartition(' ')[2]} " in self._text
            for one in singulars
        )

    def how_to(self, title: str) -> str:
        """The question how to do what a title names ("Copying files"), "" where it names no task."""
        if self._document.index.language != "en":
            return ""
        if match := _HOW_TO.match(title):
            return f"How do I {_mine(self.in_sentence(match['task']))}?"
        if (told := _ORDER.fullmatch(title)) and not told["verb"].isupper():
            task = self.in_sentence(told["object"])
            is_clear = not BREAKS.search(title) and not self._lacks_article(task)
            return _how(told["verb"].lower(), task) if is_clear else ""
        match = _GERUND.match(title)
        if not match:
            return ""
        task, verb = self.in_sentence(match["object"]), _verb_of(match["verb"].lower())
        if (
            not verb
            or _NO_OBJECT.match(task)
            or task.split()[-1].lower() in _SAID_OF_DOING
            or (frequency_rank(task.lower()) or SMALL) < SMALL  # "Messing around"
            or _AND_MORE.search(task)
            or BREAKS.search(task)
            or _COMPOUND.match(title)
            or self._has_short_form(title)
            or (not _NAMES_ONE.match(task) and self._is_noun(match["verb"].lower(), task))
            or self._lacks_article(task)
        ):
            return ""
        return _how(verb, task)

    def _has_short_form(self, title: str) -> bool:
        """Whether the text has the initials of a title in capitals: what has them is a thing."""
        initials = "".join(word[0] for word in title.split())
        is_one = len(initials) >= FEWEST_INITIALS and initials.isupper() and initials.isalpha()
        return is_one and re.search(rf"\b{initials}\b", self._raw) is not None

    def _lacks_article(self, task: str) -> bool:
        """Whether what is done something to is a single thing and named without its article.

        "Packaging workflow" names a workflow, and no task.
        """
        named = _BEFORE_PREPOSITION.split(task, maxsplit=1)[0].split()
        head = named[-1] if named else ""
        is_single = head.isalpha() and head.islower() and not head.endswith("s")
        if not is_single or _DETERMINER.search(task):
            return False
        # "A data set" does not tell that there is one data.
        one = re.search(rf" (?:an?|each|every) {head} (?P<next>\w+) ", self._text)
        return one is not None and is_common(one["next"], "en")

    def _is_noun(self, gerund: str, rest: str) -> bool:
        """Whether both are one thing, as "building blocks": it has an article, or is of another."""
        first = rest.split()[0].lower()
        single = rf" (?:the|an?|this|our|your) (?:\w+ )?{re.escape(gerund)} {re.escape(first)} "
        if not first.endswith("s") and re.search(single, self._text):
            return True  # "the daily winding plan"
        return any(
            f" {before} {gerund} {one} " in self._text
            for before in ("the", "a", "an", "these", "some", "any", "many", "most", "each")
            for one in (first, first.removesuffix("s"))
        )


def defines(sentence: str, term: str) -> bool:
    """Whether a sentence says outright what a term is: "X is a …", "… is called X"."""
    said = rf"{re.escape(term)}s?(?![\w.-]*\w)"
    return bool(
        re.search(rf"\b{said}\W+(?:\w+\W+){{0,3}}?(?:is|are|means?|refers? to|stands? for)\b", sentence, re.I)
        or re.search(rf"\b(?:called|named|known as|termed)\W+(?:(?:an?|the)\W+)?{said}", sentence, re.I)
    )  # fmt: skip


def _how(verb: str, task: str) -> str:
    """The question how to do something; a name with its kind gets an article."""
    return f"How do I {verb} {'the ' if _NAMED_KIND.fullmatch(task) else ''}{_mine(task)}?"


def _mine(task: str) -> str:
    """A task in the words of one who asks."""
    return re.sub(r"\byour\b", "my", task)


def _plural_of(said: str) -> str:
    """The regular plural of the last word of a term."""
    if said.endswith("y") and said[-2:-1] not in "aeiou":
        return f"{said[:-1]}ies"
    return f"{said}es" if said.endswith(("s", "x", "ch", "sh")) else f"{said}s"


def _verb_of(gerund: str) -> str:
    """The verb that a form in -ing belongs to, "" where none is known: "running" is of "run"."""
    stem = gerund.removesuffix("ing")
    forms = [stem, stem + "e"]
    if len(stem) > 2 and stem[-1] == stem[-2]:
        forms.insert(0, stem[:-1])
    if not _VOWEL.search(stem):  # "string", "thing", "spring"
        return ""
    known = [(rank, form) for form in forms if len(form) > 1 and (rank := frequency_rank(form))]
    return min(known)[1] if known else ""
