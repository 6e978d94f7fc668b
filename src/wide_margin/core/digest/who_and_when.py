"""Asked who made something, when it was or how many there are: what tells that, or less surely."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers import read_question
from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.signs import asked_parts
from wide_margin.core.answers.wanted import OF_MONEY, counts_them, has_form, has_thing
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.defined import MENTIONED, not_of_works
from wide_margin.core.digest.named import SAYS_NOTHING, content_of
from wide_margin.core.digest.telling import THING
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

OF_MAKER = 0.75
"""The chance that what says by whom a thing was made answers: of fourteen such answers on a hundred
manuals all but one did; anything else hardly ever has anybody in it."""
_BOTH = """
    developed implemented created designed made built invented programmed devised conceived
    introduced started founded produced
"""
_DONE_WORDS = (*_BOTH.split(), "written", "authored", "coded", "maintained")
_DID_WORDS = (*_BOTH.split(), "wrote")
_MAKERS = ("author", "developer", "creator", "inventor", "designer", "programmer")
_OF_MAKING = frozenset([*_DONE_WORDS, *_DID_WORDS, *_MAKERS])
"""Words of which one stands in every sentence that tells who made something."""
_DONE, _DID = (f"(?:{'|'.join(said)}|put\\s+together)" for said in (_DONE_WORDS, _DID_WORDS))
_ASKS = regex(
    r"^\W*who\s+(?:is|are|was|were)\s+(?:the\s+)?(?:(?:original|first|main|chief|present)\s+)?"
    rf"(?:{'|'.join(_MAKERS)})s?\s+of\s+(?P<of>\S.*?)\W*$"
    rf"|^\W*who\s+(?:(?:has|had|have|originally|first|actually)\s+)*(?:{_DID}|{_DONE}|maintains|develops|looks\s+after)\s+(?P<name>\S.*?)\W*$", re.I
)  # fmt: skip
_ONE = r"(?:the\s+|dr\.?\s+|prof\w*\.?\s+|(?:its|their)\s+(?:present\s+)?authors?,?\s+)?(?-i:[A-Z][\w.’'-]*\s?[A-Z]?)"
"""Somebody: a name has a capital."""
_BY = rf"(?P<between>[^.;:]{{0,60}}?)\b(?:by|at)\s+{_ONE}"
_WAS = regex(
    r"^(?P<thing>.{0,80}?)\b(?:is|are|was|were|(?:has|have|had)\s+been)\s+(?:\w+ly\s+)?(?:first\s+)?"
    rf"(?:\w+(?:ed|[ew]n|[ln]t)(?:,\s+|\s+and\s+)(?:\w+ly\s+)?(?:first\s+)?){{0,2}}{_DONE}\b{_BY}", re.I
)  # fmt: skip
"""It was made by somebody."""
_IS_ONE = regex(
    rf"^(?P<thing>.{{0,60}}?)\b(?:is|are|was|were)\s+(?:an?|the|one)\s(?P<what>.{{3,140}}?)\b{_DONE}\s+(?:\w+\s+){{0,3}}?(?:by|at)\s+{_ONE}", re.I
)  # fmt: skip
"""It is such a thing, made by somebody."""
_NEXT_TO = regex(rf"(?:\bas\s+)?\b{_DONE}\s+(?:by|at)\s+{_ONE}", re.I)
_ANOTHER = regex(
    r"\b(?:which|that|who|whose|us(?:es|ed|ing)|based|(?:prede|suc)cessor|alternative|similar|fork|clone|port|companion|replacement|via|through|with|from|of\s+the|calls?|adds?|contains?|includ\w+)\b", re.I
)  # fmt: skip
"""Leads to another thing, of which it is said by whom that was made."""
_OF_ITS = regex(r"\b(?:of|for|in|under|on|at|to|about|behind|from|with)\b", re.I)
_EDITION_OF = regex(
    r"\b(?:version|release|edition|implementation|design|idea|concept|algorithm|prototype)s?\s+(?:of|for|behind)(?:\s+the)?$", re.I
)  # fmt: skip
"""Before the name of a thing: who made that made the thing."""
_THING, _BETWEEN = regex(rf"\s+(?:{THING}|version|\d[\w.]*)$", re.I), " ,()“”\"'’‘"
"""What may stand between a name and what says by whom it was made."""
OBJECT = 6
"""Words after "wrote" that name what, and at the beginning of a sentence that another goes on."""
_FIRST_OF = regex(
    r"^(?:the|an?)\s+(?:very\s+)?(?:first|original|initial|earliest)\s+\w+\s+of\s+", re.I
)
"""Who made that made the thing; who made "a special version of" it did not."""
_MAKES = regex(
    rf"(?-i:[A-Z][\w.’'-]+(?:\s+(?:and\s+)?[A-Z][\w.’'-]*)+)\s+(?:\w+ly\s+)?{_DID}\b", re.I
)
_NAME = r"(?-i:[A-Z][\w’'-]+(?:\s+[A-Z][\w.’'-]*)+)"
_BY_SOMEBODY = regex(
    rf"\s+by\s+{_NAME}(?:,\s+{_NAME})*(?:,?\s+(?:and|&)\s+{_NAME})?(?=\s*(?:[a-z(),.;]|$))"
)
"""A thing by somebody: "quorble by Ann Bale and Cy Dow draws wells"."""
_MAKER = f"(?:{'|'.join(_MAKERS)})s?"
_IS_MAKER = regex(
    rf"\b{_MAKER}\s+of\b[^.;:()]{{2,50}}?(?:\b(?:is|are|was|were)\s+|\(|,\s+(?!(?-i:The\b)))(?:mainly\s+)?{_ONE}"
    rf"|(?-i:[\w-]*[A-Z][\w-]*)['’]s\s+(?:(?:\w+ly|original|first|main|present|sole|chief)\s+){{0,2}}{_MAKER}\s*[,(:]?\s*{_ONE}",
    re.I,
)
_LEANS = regex(rf"\W*(?:it|(?:this|the)\s+{THING})\b", re.I)
_KEEPS = regex(
    rf"\b(?:maintained|looked\s+after|(?:maintenance|care)\s+of\b[^.;]{{0,60}}\btaken\s+over)\s+by\s+{_ONE}"
    rf"|\bmaintainers?(?:\s+of\b[^.;]{{2,50}}?)?(?:\s+(?:is|are)|:)\s+{_ONE}|{_NAME}\s+(?:now\s+)?maintains\b", re.I
)  # fmt: skip
"""Somebody has the care of something."""
_BEFORE_ONE = regex(r"\s(?:by|is|are|maintains)\s|:")
"""Parts what is cared for from who does."""
_CARE = ("maintained", "maintains", "maintainer", "maintenance", "looked")
"""Words of which one stands in every sentence that says so."""
_ITSELF = regex(
    rf"^\W*(?:it|(?:since then|now|today|currently)\b|(?:the\s+|this\s+)?(?:{THING}\b|maintainers?\s*(?:is|are|:)))",
    re.I,
)
"""Begins what is said of the whole document's own thing."""
_ASKS_WHEN = regex(
    r"^\W*(?:when\s+(?:was|were|did|had|has|have|will)|(?:until|since|by|from)\s+when)\b", re.I
)
"""Asks for a time that is past or to come: what is done at one may be told in many ways."""
_ASKS_NAME = regex(
    r"^\W*(?:with |by |in )?(?:which|what)\s(?!(?:do|does|did|is|are|was|were|can|will|has|have)\b)(?:\w+\s){0,2}?"
    r"(?:functions?|(?:sub)?commands?|options?|macros?|(?:sub)?routines?|switch(?:es)?"
    r"|flags?|keywords?|directives?|environment variables?)\s(?!is it\b)\S", re.I
)  # fmt: skip
"""Asks for a name of code."""
_ASKS_MOST = regex(
    r"^\W*(?:which|what|who)\b.{0,60}?\b(?:is|are|was|were|works?|gives?|has|have|does|did)\s+(?:the\s+)?(?:\w{3,}est|best|worst|(?:most|least)\s+\w+)\W*$", re.I
)  # fmt: skip
"""Asks which of several is the fastest, the best, the most common."""
_WEIGHS = regex(
    r"\b(?:\w{3,}(?:est|ier)|best|worst|most|least|better|worse|more|less|\w{3,}er\s+than|prefer\w*|recommend\w*|superior|inferior"
    r"|outperform\w*|optimal|maximum|minimum|highest|lowest|top|leading|main|chief|first|only)\b", re.I
)  # fmt: skip
"""Sets one thing above others."""
_NAME_OF_CODE = regex(
    r"\w\(|\w_\w|[\\$@%]\w|(?<!\w)--?\w|\b[a-z]+[A-Z]|\w\.\w|\w\s?=|\b[a-z]+\d|[“‘\"'`]\w|\b[A-Z]{2,}"
)
"""What may be one: with signs in it, written large within, or between marks."""
_SOME_NUMBER = regex(
    r"\b(?:several|many|few|no|none|both|single|unlimited|arbitrar\w+|infinite\w*|enough|free|each)\b",
    re.I,
)
"""Words that stand for a number."""


def with_maker(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with what tells who made the thing asked about, where something does.

    Asked so, what does not tell it is at most the nearest there is.
    """
    match = _ASKS.match(answer.question)
    if match is None or answer.reach.kind != "document":
        return answer
    wanted = sorted(content_of(document, match["name"] or match["of"]))
    if tells_maker(document, answer):
        return replace(answer, sure=max(answer.sure, OF_MAKER))
    naming = rows_with(document, wanted)
    near = sorted({row for k in naming for row in (k, k + 1)} & _making(document))
    row = next((k for k in near if _tells(document, k, wanted)), None)
    if row is None:  # "by Ann Bale" needs no word of making
        row = next((k for k in naming if _tells(document, k, wanted)), None)
    if row is None:
        quotes = not_of_works(document, answer)
        return replace(answer, quotes=quotes, sure=min(answer.sure, MENTIONED))
    first = row - 1 if _leans(document, row) else row
    return told_by(document, answer, first, row + 1, OF_MAKER)


def thing_made(question: str) -> str:
    """What a question asks of who made it, in small letters; "" for another question."""
    match = _ASKS.match(question)
    return (match["name"] or match["of"]).lower() if match is not None else ""


def row_of_keeper(document: ReadDocument, names: Sequence[str]) -> int | None:
    """Row of the first sentence that says who has the care of the document's own thing."""
    terms, sentences = document.index.analyser.terms, document.text.sentences
    rows = {row for word in _CARE for row in rows_with(document, terms(word))}
    for row in sorted(rows):
        said = sentences[row].text
        match = _KEEPS.search(said)
        if match is None or sentences[row].kind in SAYS_NOTHING:
            continue
        thing = said[: match.start()] + _BEFORE_ONE.split(match[0], maxsplit=1)[0]
        spoken_of = content_of(document, thing)
        if _ITSELF.match(said) or any(content_of(document, name) <= spoken_of for name in names):
            return row
    return None


def tells_maker(document: ReadDocument, answer: Answer) -> bool:
    """Whether what is quoted first says who made the thing that its question asks about."""
    match = _ASKS.match(answer.question)
    if match is None or not answer.quotes:
        return False
    wanted = sorted(content_of(document, match["name"] or match["of"]))
    told = rows_within(document, answer.quotes[0].locators[0].spans)
    return bool(wanted) and any(_tells(document, row, wanted) for row in told)


def _making(document: ReadDocument) -> set[int]:
    """Rows of the sentences with a word of making."""
    index = document.index
    stems = {stem for word in _OF_MAKING for stem in index.analyser.terms_of(word)[:1]}
    known = [index.term_ids[stem] for stem in stems if stem in index.term_ids]
    return {row for k in known for row in index.by_sentence.of(k)[0].tolist()}


_ASKS_NEED = regex(r"\b(?:need|needed|required?|necessary)\b", re.I)
_NEEDS = regex(
    r"\b(?:needs?|needed|requir\w+|necessary|must|at least|minimum|enough|suffic\w+|should|recommend\w*|takes?)\b|[≥⩾]", re.I
)  # fmt: skip
"""Asks how many must be had, and what says so."""
_ENDED = (".", "!", ";", ":", ")", "”", '"', "…", "。")
SEVERAL = 3
"""Quotes that list what is asked for, whatever they are called."""


def with_measure(answer: Answer) -> Answer:
    """The answer, less sure where nothing quoted tells the time, number, person or name asked for."""
    question = read_question(answer.question)
    said = [quote.text for quote in answer.quotes]
    is_number = question.kind == "how many"
    is_past = _ASKS_WHEN.match(question.text) is not None
    is_told = has_form(question, said) if is_number or is_past or question.kind == "who" else None
    if is_number and counts_them(question.text, said) is False:
        is_told = False
    titled = [title for q in answer.quotes for place in q.locators[:1] for title in place.path[-1:]]
    if asked_parts(question.text) and has_thing(question, [*said, *titled]) is False:
        is_told = False
    if is_number and _ASKS_NEED.search(question.text):
        is_told = is_told if said and _NEEDS.search(said[0]) else False
        if is_told is False:
            return replace(answer, sure=min(answer.sure, MENTIONED))
    if question.kind == "why" and not any(text.endswith(_ENDED) for text in said):
        is_told = False  # a title gives no reason
    is_listed = question.kind == "list" and len(said) >= SEVERAL
    if _ASKS_MOST.search(question.text) and not any(map(_WEIGHS.search, said)):
        is_told = False
    asks_name = _ASKS_NAME.match(question.text) and not is_listed
    if asks_name and not any(map(_NAME_OF_CODE.search, said)):
        is_told = False
    may_be_word = is_number and not OF_MONEY.search(question.text)
    if is_told is not False or (may_be_word and any(map(_SOME_NUMBER.search, said))):
        return answer
    return replace(answer, sure=min(answer.sure, MENTIONED))


def _tells(document: ReadDocument, row: int, wanted: list[str]) -> bool:
    """Whether a sentence says by whom the thing of some terms was made, or goes on to say it."""
    sentences = document.text.sentences
    if row >= len(sentences) or sentences[row].kind in SAYS_NOTHING:
        return False
    if _tells_of(document, sentences[row].text, wanted):
        return True
    if not _leans(document, row):
        return False
    before, match = sentences[row - 1].text, _WAS.match(sentences[row].text)
    is_it = match is not None and len(match["thing"].split()) <= 2  # "It was written by …"
    begins = " ".join(before.split()[:OBJECT])
    return is_it and not _LEANS.match(before) and set(wanted) <= content_of(document, begins)


def _leans(document: ReadDocument, row: int) -> bool:
    """Whether a sentence goes on about what the one before it in its paragraph names."""
    sentences = document.text.sentences
    is_next = row > 0 and sentences[row].paragraph == sentences[row - 1].paragraph
    return is_next and _LEANS.match(sentences[row].text) is not None


def _tells_of(document: ReadDocument, said: str, wanted: list[str]) -> bool:
    """Whether a sentence says of the thing, and not of another in it, by whom it was made."""
    asked = set(wanted)

    def names(text: str) -> bool:
        return asked <= content_of(document, text)

    if match := _IS_MAKER.search(said):
        return names(match[0])

    def begins_with_it(text: str) -> bool:
        """Whether the subject is the thing, and nothing of it: "the manual of the quorble"."""
        subject = text.rpartition(", ")[2].rstrip(_BETWEEN)
        for said in (subject.split(), _THING.sub("", subject).split()):
            before = " ".join(said[: -len(wanted)])
            is_of_it = _OF_ITS.search(before) is None or _EDITION_OF.search(before) is not None
            if is_of_it and names(" ".join(said[-len(wanted) :])):
                return True
        return False

    if (match := _WAS.match(said)) and begins_with_it(match["thing"]):
        return _ANOTHER.search(match["between"]) is None
    if (match := _IS_ONE.match(said)) and begins_with_it(match["thing"]):
        return _ANOTHER.search(match["what"]) is None
    if match := _NEXT_TO.search(said):
        whole = said[: match.start()].rstrip(_BETWEEN)
        before = _THING.sub("", whole)
        n_words = len(wanted) + (before != whole)  # "the Quorble drawing software"
        return names(" ".join(before.split()[-n_words:]))
    for by in _BY_SOMEBODY.finditer(said):
        thing = _THING.sub("", said[: by.start()].rstrip(_BETWEEN)).split()
        if len(wanted) <= len(thing) and names(" ".join(thing[-len(wanted) :])):
            return True
    if match := _MAKES.search(said):
        made = _FIRST_OF.sub("", said[match.end() :].strip())
        return names(" ".join(_OF_ITS.split(made, maxsplit=1)[0].split()[:OBJECT]))
    return False
