"""Asked which things there are: what the section of that name begins with, or what names them."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import partial
from itertools import chain
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers.lists import MAX_LIST_WORDS, items_after, labels_after, list_after
from wide_margin.core.answers.quoting import quote_rows
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.named import SAYS_NOTHING, content_of
from wide_margin.core.digest.roles import Role, role_of_title
from wide_margin.core.digest.titled import title_of
from wide_margin.core.later import regex
from wide_margin.core.layout import BULLETS
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Question, Quote
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.outline import Outline, Section

    Says = Callable[[str, Sequence[str]], bool]

TELLING_WORDS, MOST_LISTED, MOST_NAMED = 2, 5, 24
"""So many words of their own a question and a title have in common at least; and sentences that are
quoted of a section, and headings of those in it."""
OF_SECTION, OF_NAMES = 0.6, 0.45
"""The chance that the section of that name tells which there are, and that what names some does: of
some forty such answers on ninety documents half did."""
_ASKS_LIST = regex(
    r"^\W*(?:(?:what|who)\s+(?:\w+\s+){0,5}?(?:are|exists?|available|supported)|what\s+(?:kinds?|sorts?|types?)|which|list|name|welche|quel(?:le)?s|cuáles"
    r"|quali|quais|welke)\b", re.I
)  # fmt: skip
_ASKS_WHICH = regex(
    r"\b(?:available|supported|possible|different|various|existing|exists?|offered|provided|used|kinds?|sorts?|types?"
    r"|list|name|disponibili|disponibles|verfügbar\w*|unterstützt\w*|mögliche?)\b", re.I
)  # fmt: skip
"""Words with which a list is asked for, and by which no section is called."""
_ASKS_SUPPORTED = regex(
    r"^\W*(?:which|what)\s+(?P<things>\S.*?)\s+(?:are|is|does\s+it|can\s+be|do(?:es)?\s+\S+)\s+"
    r"(?:currently\s+|officially\s+)?(?:supported?|available|offered?|provided?|accepted?|handled?|recogni[sz]ed?|used|implemented)\b"
    r"(?!\s+(?:by|for|in|when|if|to|from|as|with|on|at|under)\b)[^?]{0,12}\??$", re.I
)  # fmt: skip
"""Asks which things the whole can do with, and not which of them something in it."""
_ASKS_PASSIVE = regex(
    r"^\W*(?:which|what)\s+(?P<things>\S.*?)\s+(?:are|is|can\s+be)\s+(?:currently\s+|officially\s+)?"
    r"(?P<done>supported|provided|offered|accepted|handled|implemented|used)\b", re.I
)  # fmt: skip
"""Asks what is done with things."""
_ASKS_CHIEF = regex(
    r"^\W*what\s+are\s+(?:the|its|their)\s+(?:(?:main|key|chief|most\s+important|principal|major)\s+(?P<things>features|benefits|advantages"
    r"|strengths|capabilities|characteristics)\b|(?P<worth>(?:dis)?advantages|benefits|drawbacks|strengths|weaknesses|merits|pros|cons|risks)\W*$)", re.I
)  # fmt: skip
"""Asks for the chief ones of what the whole has, or for what speaks for or against it."""
_TAKEN = r"(?<!take )(?<!full )(?<!takes )(?<!taking )"
_OF_WHAT = r"(?:of|with|to|in|for|over)\s(?P<what>(?:[\w-]+\s?){1,5})"
"""Tells whose they are: "advantages of the lid"."""
_DOES_SO = r"(?:support|provide|offer|accept|handle|implement|use)s?"
OF_TURNED = 0.3
"""The chance that what things do says which of them something is done with."""
_ASKS_THERE = regex(
    r"^\W*(?:which|what)\s+(?P<things>\S.*?)\s+(?:are\s+there|exist|do(?:es)?\s+(?:it|they)\s+have)\b[^?]{0,12}\??$", re.I
)  # fmt: skip
"""Asks which things of a kind there are."""
_ASKS_FOR = regex(
    r"^\W*(?:which|what)\s+(?P<things>\S.*?)\s+(?:(?:can|could|may)\s+(?:be\s+used|I\s+use)|are\s+(?:there|available|used|offered"
    r"|supported|provided|implemented))\s+(?:for|to)\s+(?P<what>\S.{2,60}?)\W*$", re.I
)  # fmt: skip
"""Asks which things of a kind there are for something."""
_THERE_ARE = regex(
    r"\bthere\s+(?:are|exist|were)\b|\b(?:two|three|four|five|six|seven|eight|nine|ten|several|various|the\s+following|[2-9]|1\d)\b",
    re.I,
)
"""Says that there are some, or how many; their name stands after it."""
_SUPPORT = regex(r"\bsupport(?:ed)?\b", re.I)
"""In a title, says that what its other words name is supported."""
_NAMES_BOTH = regex(r":\s\S.*\s(?:and|or)\s|,\s[A-Z][\w-]*(?:\s\S+){0,3}\s(?:and|or)\s[A-Z]")
"""Names two things after a colon, or after a comma where they are written large."""
_SUPPORTS = regex(
    r"\b(?:supports?|supported|provides?|offers?|accepts?|accepted|handles?|understands?|recogni[sz]es?|available"
    r"|implements?|implemented|following)\b", re.I
)  # fmt: skip
_NAMES_SOME = regex(
    r"[\w)”\"'’*+#-]+,\s(?:[\w(“\"'‘*+#./-]+\s){0,4}?[\w(“\"'‘*+#./-]+,?\s(?:and|or|as\s+well\s+as)\s+\S"
)
"""Names three things or more."""
FEWEST_KINDS = 2
"""So many sections within one that is called after a single word say by their titles that they are
of its kinds: "Wells" with "Deep wells" and "Dry wells"."""
MANY_SORTS = 8
"""So many sections within one that is called after a single word are of its kinds, whatever they
are called, where none of them leads in to the others."""
_OF_ONE_TEXT = frozenset([Role.ABSTRACT, Role.INTRODUCTION, Role.DISCUSSION, Role.CONCLUSION])
"""A section of these beside others says that they are parts of one text, and no list."""
_DOING = regex(r"[^\W\d_]+ing\b")
"""Begins the title of what is done."""
_LABEL = regex(r"([^\W\d_][\w -]{1,30}):\s+\S|<?[\w.:-]*[\w>]\s+([^\W\d_]{4,})\W*$")
FEWEST_LABELLED, OF_LABELLED = 3, 0.8
"""So many headings that begin with the same label say which there are, and the chance that all such
are among them."""
LONGEST_LABEL, MOST_DESCRIBED = 5, 12
"""Words of a name that is set off before its description, which has more; and so many are quoted."""
FEWEST_SORTS = 3
"""So many sections within one that is called by one word more: "Deep well sorts" with each."""
LED = 0.8
"""The chance that a list answers whose first line has all that is asked."""
_OF_CODE = regex(
    r"\b(?:command|option|function|macro|line|example|file|syntax|setting|variable|parameter|argument|package|class|statement"
    r"|instruction|flag|value|call|code|name|keyword|step)(?:s|es)?\b", re.I
)  # fmt: skip
"""Of what a list may stand in lines of code."""
_LEADS_IN = regex(rf"(?P<lead>[^:.;\n]{{8,90}}):\s*(?:\n|[{BULLETS}]|$)")
STEM, NEAR, SOON, NEAR_COUNT = 5, 3, 10, 6
"""Letters by which a word is known again, how many words before and after it is said of them, and
how many after it is told how many there are."""
_NEGATED = regex(r"\b(?:not|no|never|without|cannot|only if|unless|if)\b|n[’']t\b", re.I)


def with_listed(document: ReadDocument, question: Question, answer: Answer) -> Answer:
    """The answer with what tells which things there are, where something clearly does.

    "Which upload methods are there?" asks for what stands under "Upload methods"; "Which loaders
    are supported?" for a sentence that says that some are and names them.
    """
    if question.kind not in ("list", "general", "who") or not _ASKS_LIST.match(question.text):
        return answer
    listing = _of_section(document, question, is_poor=answer.sure < OF_SECTION)
    names, sure, n_left = listing.names, listing.sure, listing.n_left
    is_plain = bool(listing.begins) or n_left > 0
    if (not is_plain or sure < OF_SECTION) and (named := _of_names(document, question)):
        quotes, sure, n_left = named, OF_NAMES, 0  # a section may only go on to its own sections
    else:
        quotes = (*listing.begins, *names)
    if not quotes:
        return _not_said(document, question, _turned(question, answer))
    rows = rows_within(document, quotes[0].locators[0].spans)
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    is_same = told[:1] == rows[:1]
    has_names = {name.text for name in names} <= {quote.text for quote in answer.quotes}
    if is_same and has_names and len(told) >= len(rows) and len(answer.quotes) >= len(quotes):
        return _turned(question, answer)
    sure = max(answer.sure, sure) if is_same else sure
    told_of = replace(answer, quotes=quotes, missing=(), reason="", sure=sure)
    n_found = len(quotes) + n_left if n_left else 0
    return _turned(question, replace(told_of, n_found=n_found))


def with_led_list(document: ReadDocument, answer: Answer) -> Answer:
    """The answer, surer where it is a list whose first line says that it lists what is asked for."""
    if _only_leads_to_code(document, answer):
        return replace(answer, sure=min(answer.sure, OF_TURNED))
    lead = _LEADS_IN.match(answer.quotes[0].text) if answer.quotes else None
    if lead is None or answer.sure >= LED or answer.kind in ("who", "when", "how many"):
        return answer
    wanted = content_of(document, answer.question)
    is_led = len(wanted) > 1 and wanted <= content_of(document, lead["lead"])
    return replace(answer, sure=LED) if is_led else answer


def _only_leads_to_code(document: ReadDocument, answer: Answer) -> bool:
    """Whether it is asked which things there are, and what is quoted goes on to a line of code.

    "To turn it, we call the winder:" names none of several.
    """
    is_list = _ASKS_LIST.match(answer.question) and not _OF_CODE.search(answer.question)
    said = answer.quotes[0].text if answer.quotes and is_list else ""
    if not said or _NAMES_SOME.search(said) or _NAMES_BOTH.search(said):
        return False
    sentences = document.text.sentences
    return any(
        sentences[row].text.endswith(":") and sentences[row + 1].kind == "code"
        for row in rows_within(document, answer.quotes[0].locators[0].spans)
        if row + 1 < len(sentences)
    )


def _turned(question: Question, answer: Answer) -> Answer:
    """The answer, less sure where it says what the things do and not what is done with them.

    "Several loaders support wet ropes" does not say which loaders are supported.
    """
    asked = _ASKS_PASSIVE.match(question.text)
    if asked is None or not answer.quotes:
        return answer
    if any(map(_SUPPORT.search, answer.quotes[0].locators[0].path[-1:])):
        return answer  # it stands under "Supported loaders"
    said, thing = answer.quotes[0].text, re.escape(asked["things"].split()[-1].rstrip("s"))
    does = re.search(rf"\b{thing}\w*\b[^.;:]{{0,60}}?\s{_DOES_SO}\s+\w", said, re.I)
    if does is None or asked["done"].lower() in said.lower():
        return answer
    return replace(answer, sure=min(answer.sure, OF_TURNED))


def _not_said(document: ReadDocument, question: Question, answer: Answer) -> Answer:
    """The answer, less sure where nothing quoted says that any of the things are supported.

    So is what is to tell the chief features and is not said to be one.
    """
    match = _ASKS_SUPPORTED.match(question.text) or _ASKS_CHIEF.match(question.text)
    if match is None or not answer.quotes:
        return answer
    worth = match.groupdict().get("worth")
    wanted = content_of(document, worth or match["things"])
    titled = content_of(document, " ".join(answer.quotes[0].locators[0].path))
    said = (quote.text.lower() for quote in answer.quotes)
    tells = partial(_of_whole, document) if worth else _supports_them
    if titled & wanted or any(tells(text, sorted(wanted)) for text in said):
        return answer
    return replace(answer, sure=min(answer.sure, OF_TURNED))


class _Listing(NamedTuple):
    """A section that lists things."""

    begins: tuple[Quote, ...] = ()
    names: tuple[Quote, ...] = ()
    """The headings in it."""
    sure: float = 0.0
    n_left: int = 0
    """Headings that are left out."""


def _of_section(document: ReadDocument, question: Question, *, is_poor: bool) -> _Listing:
    """How the section begins that is called by all that is asked for, and the headings in it.

    A section that is a list and no more does where the answer is poor.
    """
    asked = content_of(document, _ASKS_WHICH.sub(" ", question.text))
    is_of_whole = len(asked) < TELLING_WORDS
    is_there = _ASKS_THERE.match(question.text) is not None
    if not asked or (is_of_whole and not (is_there or _ASKS_SUPPORTED.match(question.text))):
        return _Listing()
    outline, whole = document.outline, content_of(document, title_of(document))
    titles = [section.title for section in outline.sections]
    asks_supported = _ASKS_SUPPORTED.match(question.text) is not None
    tells_supported = [asks_supported and bool(_SUPPORT.search(title)) for title in titles]
    titled = [
        content_of(document, _SUPPORT.sub(" ", unnumbered(title))) if is_so
        else content_of(document, _ASKS_WHICH.sub(" ", unnumbered(title))) - whole if is_of_whole
        else content_of(document, title) for title, is_so in zip(titles, tells_supported, strict=True)
    ]  # fmt: skip

    def above(row: int) -> frozenset[str]:
        """What the titles of the sections around one say: "Keepers" of "Present"."""
        return content_of(document, " ".join(outline.path(row)[:-1])) - whole

    def is_called(row: int) -> bool:
        said = titled[row]
        return said == asked or bool(said and said < asked <= said | above(row))

    rows = range(len(titles))
    of_sort = (row for row in rows if _is_of_sort(document, titles[row], titled[row], asked))
    for row in chain(filter(is_called, rows), of_sort):
        inner = [k for k, parent in enumerate(outline.parents) if parent == row]
        if not is_called(row) and len(inner) < FEWEST_SORTS:
            continue
        if not inner and (named := _described(document, question, outline.sections[row])).begins:
            return named
        of_kind = sum(asked <= content_of(document, titles[k]) for k in inner)
        is_told = not is_of_whole or (is_there and of_kind >= FEWEST_KINDS)
        is_told |= tells_supported[row]
        section = outline.sections[row]
        is_list = is_poor and is_there and not inner and _lists_at_once(document, section)
        few = len(inner) < MANY_SORTS or _has_lead(outline, inner)
        if not is_told and few and not is_list:
            continue
        end = outline.sections[inner[0]].first_paragraph if inner else section.end_paragraph
        begins = _beginning(document, question, document.under_heading(section), end)
        names = [_heading(document, question, k) for k in inner[:MOST_NAMED]]
        headings = tuple(name for name in names if name is not None)
        if begins or headings:
            is_long = len(inner) >= 2 * MANY_SORTS
            sure = OF_SECTION if is_told or is_long else OF_NAMES
            return _Listing(begins, headings, sure, max(len(inner) - MOST_NAMED, 0))
    return _labelled(document, question, asked)


def _labelled(document: ReadDocument, question: Question, asked: frozenset[str]) -> _Listing:
    """The headings that say what each is: "Event: dry", "Event: frost"; "LidColour directive"."""
    rows = [
        row for row, section in enumerate(document.outline.sections)
        if (label := _LABEL.match(unnumbered(section.title)))
        and content_of(document, label[1] or label[2]) == asked
    ]  # fmt: skip
    if len(rows) < FEWEST_LABELLED:
        return _Listing()
    names = [_heading(document, question, row) for row in rows[:MOST_NAMED]]
    found = tuple({name.text: name for name in names if name is not None}.values())
    return _Listing((), found, OF_LABELLED, max(len(rows) - MOST_NAMED, 0))


def _described(document: ReadDocument, question: Question, section: Section) -> _Listing:
    """What a section describes one by one, each with its name set off before: "Oak  It is hard"."""
    rows = range(document.under_heading(section), section.end_paragraph)
    paragraphs = [document.paragraphs[k] for k in rows]
    labels = [_label_of(paragraph) for paragraph in paragraphs]
    named = [k for k, label in zip(rows, labels, strict=True) if label]
    n_text = sum(paragraph.kind in ("body", "entry", "item") for paragraph in paragraphs)
    is_each_once = len({label for label in labels if label}) == len(named)
    if len(named) < FEWEST_SORTS or not is_each_once or 2 * len(named) < n_text:
        return _Listing()
    said = [document.rows_of(k, k + 1) for k in named[:MOST_DESCRIBED]]
    quotes = [quote_rows(document, question, at.start, at.start + 1) for at in said if at]
    n_left = max(len(named) - MOST_DESCRIBED, 0)
    return _Listing(tuple(quotes), (), OF_LABELLED, n_left)


def _label_of(paragraph: Paragraph) -> str:
    """The few words that are set off before the text of a paragraph, in small letters."""
    if paragraph.kind == "entry":
        label, _, said = paragraph.text.partition("\t")
    else:
        lead = paragraph.pieces[0].line.lead if paragraph.kind in ("body", "item") else 0
        label, said = paragraph.text[:lead], paragraph.text[lead:]
    is_name = 0 < len(label.split()) <= LONGEST_LABEL and len(said.split()) > LONGEST_LABEL
    return label.strip(" .:•–-").lower() if is_name else ""


def _lists_at_once(document: ReadDocument, section: Section) -> bool:
    """Whether a section is a list and little else: its items follow its heading, or one sentence."""
    rows = document.rows_of(document.under_heading(section), section.end_paragraph)
    kinds = [document.text.sentences[row].kind for row in rows]
    return kinds[:1] != ["code"] and kinds[:4].count("item") >= FEWEST_SORTS


def _has_lead(outline: Outline, inner: Sequence[int]) -> bool:
    """Whether sections begin with one that says what they are about, as parts of one text do."""
    return any(role_of_title(outline.sections[k].title) in _OF_ONE_TEXT for k in inner)


def _is_of_sort(
    document: ReadDocument, title: str, titled: frozenset[str], asked: frozenset[str]
) -> bool:
    """Whether a title is what is asked for with one word before it: "Deep well sorts".

    "Digging well sorts" tells how something is done.
    """
    if not asked < titled or len(titled) > len(asked) + 1 or _DOING.match(unnumbered(title)):
        return False
    return bool(content_of(document, title.split()[-1]) & asked)


def _beginning(
    document: ReadDocument, question: Question, first: int, end: int
) -> tuple[Quote, ...]:
    """What some paragraphs say first, with the items that follow; nothing where they say nothing."""
    sentences, rows = document.text.sentences, document.rows_of(first, end)
    begin = next((row for row in rows if sentences[row].kind not in SAYS_NOTHING), None)
    if begin is None:
        return ()
    kind, last = sentences[begin].kind, begin + 1
    most = 1 if kind == "item" else MOST_LISTED  # each item is quoted by itself
    while last < min(rows.stop, begin + most) and sentences[last].kind == kind:
        if sentences[last - 1].text.endswith(":") or labels_after(document, last - 1):
            break
        last += 1
    quote = quote_rows(document, question, begin, last)
    return (quote, *items_after(document, last - 1, set(), MAX_LIST_WORDS))


def _heading(document: ReadDocument, question: Question, section: int) -> Quote | None:
    """A section's heading."""
    first = document.outline.sections[section].first_paragraph
    rows = document.rows_of(first, first + 1)
    return quote_rows(document, question, rows.start, rows.stop) if rows else None


def _of_names(document: ReadDocument, question: Question) -> tuple[Quote, ...]:
    """A sentence that says that such things are supported and names them, or leads in to them."""
    says = _supports_them
    match = _ASKS_SUPPORTED.match(question.text)
    if match is None:
        says, match = _has_them, _ASKS_THERE.match(question.text)
    wanted = content_of(document, match["things"]) if match else frozenset()
    row = _naming(document, sorted(wanted), says) if wanted else -1
    if row < 0 and (match := _ASKS_FOR.match(question.text)):
        things = content_of(document, match["things"])
        wanted = things | content_of(document, match["what"])
        says = partial(_has_things, sorted(things))
        row = _naming(document, sorted(wanted), says) if things and len(wanted) > 1 else -1
    if row < 0:
        return ()
    said = quote_rows(document, question, row, row + 1)
    return (said, *items_after(document, row, set(), MAX_LIST_WORDS))


def _naming(document: ReadDocument, wanted: Sequence[str], says: Says) -> int:
    """The first row of a sentence that says that there are all wanted things and names them, or -1."""
    sentences = document.text.sentences
    for row in rows_with(document, wanted):
        said = sentences[row]
        if said.kind in SAYS_NOTHING or _NEGATED.search(said.text):
            continue
        if not says(said.text.lower(), wanted):
            continue
        leads_in = said.text.endswith(":") and len(list_after(document, row)) > 1
        if leads_in or _NAMES_SOME.search(said.text) or _NAMES_BOTH.search(said.text):
            return row
    return -1


def _of_whole(document: ReadDocument, said: str, wanted: Sequence[str]) -> bool:
    """Whether a sentence, in small letters, speaks of the whole's advantages, not of some part's."""
    whole = content_of(document, title_of(document))
    return any(
        not whole.isdisjoint(content_of(document, match["what"]))
        for term in wanted
        for match in re.finditer(rf"{_TAKEN}\b{re.escape(term[:STEM])}\w*\s{_OF_WHAT}", said)
    )


def _supports_them(said: str, wanted: Sequence[str]) -> bool:
    """Whether it is the things wanted that a sentence, in small letters, says are supported."""
    begins = tuple(term[:STEM] for term in wanted)
    for match in _SUPPORTS.finditer(said):
        near = said[: match.start()].rpartition(". ")[2].split()[-NEAR:]
        after = said[match.end() :].partition(". ")[0].split()[:SOON]
        if any(word.strip("(“\"'").startswith(begins) for word in (*near, *after)):
            return True
    return False


def _has_them(said: str, wanted: Sequence[str]) -> bool:
    """Whether a sentence, in small letters, says that there are some of the things, or how many."""
    begins = tuple(term[:STEM] for term in wanted)
    return any(
        any(word.startswith(begins) for word in said[match.end() :].split()[:NEAR_COUNT])
        for match in _THERE_ARE.finditer(said)
    )


def _has_things(things: Sequence[str], said: str, wanted: Sequence[str]) -> bool:
    """Whether a sentence says so of some of what is wanted, and has all of it."""
    return _has_them(said, things) and all(term[:STEM] in said for term in wanted)
