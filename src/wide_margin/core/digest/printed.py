"""Asked for what is printed about a document: addresses, keywords, numbers, where its authors work."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers import Quote
from wide_margin.core.digest.front import begins_abstract, front_lines, line_locator, running_lines
from wide_margin.core.digest.gist import printed_title
from wide_margin.core.digest.mentioned import A_DOCUMENT, IT, declining, with_quotes
from wide_margin.core.digest.sentences import KEYWORDS
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex
from wide_margin.core.translate.languages import LANGUAGES

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.answers import Answer
    from wide_margin.core.digest.facts import Facts
    from wide_margin.core.digest.front import FrontLine
    from wide_margin.core.document import ReadDocument

    Found = Iterator[Quote]

SURE, IN_TEXT = 0.9, 0.45
"""The chance that what is printed for it is what is asked for, and that an address in the text is."""
MOST = 6
"""So many lines are quoted at most."""
NUMBER_PAGES, WORD_PAGES = 6, 3
"""Pages on which the numbers of a book, and the keywords of a paper, are printed."""
LONGEST_LINE = 22
"""Words of a line that says where somebody works; a longer one is text."""
_WHOSE = r"(?:(?:the\s+)?(?:first\s+|corresponding\s+|main\s+)?(?:authors?(?:['’]s?)?|writers?(?:['’]s?)?|maintainers?(?:['’]s?)?)|his|her|their|its)"
_WHO = r"(?:(?:the\s+)?(?:first\s+|corresponding\s+|main\s+)?(?:authors?|writers?|maintainers?|developers?)|him|her|them)"
_GIVE = r"(?:what(?:['’]s|\s+is|\s+are|\s+was)|which\s+(?:is|are)|give\s+me|show(?:\s+me)?|tell\s+me|list|is\s+there|are\s+there|does\s+it\s+(?:have|give))"
_OF = rf"(?:\s+(?:of|for|in)\s+(?:{IT}|{_WHO}))?"
_IN_WHICH = regex(
    rf"^\W*(?:in\s+)?(?:what|which)\s+language\s+is\s+(?:it\s+in|{A_DOCUMENT}\s+(?:(?:written\s+)?in|written))\W*$", re.I
)  # fmt: skip
"""Asks in which language the text is; "What language is it written in?" may be asked of a program."""
_MAIL = regex(
    r"(?<![/\w.])[\w.+-]+@[\w-]+(?:\.[\w-]+)+|[\w.+-]+\s?(?:\(at\)|\[at\])\s?[\w-]+(?:\s?(?:\.|\(dot\)|\[dot\])\s?[\w-]+)+"
    r"|[\w.+-]+\sat\s(?:[\w-]+\sdot\s)+[\w-]+", re.I
)  # fmt: skip
_ON_PEOPLE = regex(r"\b(?:authors?|contact|maintain\w*|correspond\w*|bugs?|reports?|mail)\b", re.I)
"""Spoken of with an address, it is likely that of somebody who looks after the document's thing."""
_KEYWORDS = regex(KEYWORDS, re.I)
"""Begins the keywords of a paper."""
_WORK = regex(
    r"\b(?:universit\w*|institut\w*|departments?|dept\.?|faculty|colleges?|laborator\w+|labs?|cent(?:re|er)\s+(?:for|of)|hochschule|fakultät|école"
    r"|universidade?|università|academy|hospital|foundation|corporation|research\s+group|gmbh|inc|ltd|school\s+of)\b", re.I
)  # fmt: skip
"""Words in the name of a place of work, and what such names stand with elsewhere."""
_NO_WORK = regex(
    r"©|\b(?:copyright|trade-?marks?|licen[cs]e\w*|versions?|published|supported|grants?|thanks?|invariant)\b", re.I
)  # fmt: skip


class _Detail(NamedTuple):
    """Something that may be printed about a document."""

    missing: str
    """What is said where nothing is printed of it."""
    asks: re.Pattern[str]
    find: Callable[[ReadDocument], Found]
    """What is printed of it."""
    find_near: Callable[[ReadDocument], Found] | None = None
    """What comes near to that in the text."""


def answer_printed(
    document: ReadDocument, facts: Facts, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What is printed of such a detail, else that nothing is; None where none is asked for.

    Args:
        document: It.
        facts: Its facts.
        typed: The question.
        search: Finds an answer to a question.
    """
    if _IN_WHICH.match(typed) and facts.language in LANGUAGES:
        return declining(search(typed), f"Its text is in {LANGUAGES[facts.language]}.")
    detail = next((each for each in _DETAILS if each.asks.match(typed)), None)
    if detail is None:
        return None
    quotes = tuple({quote.text: quote for quote in detail.find(document)}.values())[:MOST]
    found, sure = search(typed), SURE
    if not quotes and detail.find_near is not None:
        quotes, sure = tuple(detail.find_near(document)), IN_TEXT
    if not quotes:
        return declining(found, detail.missing)
    return with_quotes(found, quotes, sure, kind="printed")


def _quote(document: ReadDocument, line: FrontLine, text: str = "") -> Quote:
    said = " ".join((text or line.text).split())
    return Quote(said, (line_locator(document, [line], said),))


def _mails(document: ReadDocument) -> Found:
    """The lines with an address of mail, of the first page of the front that has any."""
    lines = [
        line for line in (*front_lines(document), *running_lines(document))
        if _MAIL.search(line.text)
    ]  # fmt: skip
    first = min((line.page for line in lines), default=0)
    yield from (_quote(document, line) for line in lines if line.page == first)


def _mail_in_text(document: ReadDocument) -> Found:
    """The first sentence that has one and speaks of those who look after the document's thing."""
    for row, sentence in enumerate(document.text.sentences):
        is_said = "@" in sentence.text and sentence.kind in ("body", "item", "entry", "note")
        if is_said and _MAIL.search(sentence.text) and _ON_PEOPLE.search(sentence.text):
            yield Quote(sentence.text, (locator_for(document, row),))
            return


def _keywords(document: ReadDocument) -> Found:
    """The paragraph of the keywords, or the one under a heading that says so."""
    sentences = document.text.sentences
    for row, sentence in enumerate(sentences):
        if sentence.page >= WORD_PAGES:
            return
        match = _KEYWORDS.match(sentence.text)
        if match is None:
            continue
        first = row if sentence.text[match.end() :].strip() else row + 1
        if first >= len(sentences):
            return
        last = first + 1
        while last < len(sentences) and sentences[last].paragraph == sentences[first].paragraph:
            last += 1
        text = " ".join(sentences[k].text for k in range(first, last))
        yield Quote(text, (locator_for(document, first, last),))
        return


def _numbers(pattern: re.Pattern[str], pages: int) -> Callable[[ReadDocument], Found]:
    """Finds a number on the first so many pages, and in their heads and feet."""

    def find(document: ReadDocument) -> Found:
        for line in (*front_lines(document), *running_lines(document)):
            if line.page < pages and (match := pattern.search(line.text)):
                yield _quote(document, line, match[0])

    return find


def _works_at(document: ReadDocument) -> Found:
    """The lines of the title page, up to the abstract, that name where somebody works."""
    lines = [line for line in front_lines(document) if not line.page]
    title = printed_title(document)
    for line in _until_abstract(lines):
        is_name = line.text in title
        names_one = _WORK.search(line.text) and not _NO_WORK.search(line.text)
        if names_one and not is_name and len(line.text.split()) <= LONGEST_LINE:
            yield _quote(document, line)


def _until_abstract(lines: Sequence[FrontLine]) -> Iterator[FrontLine]:
    """The lines up to the abstract, and those of the notes at the foot of the page."""
    is_text = False
    sizes = sorted(line.size for line in lines)
    usual = sizes[len(sizes) // 2] if sizes else 0.0
    for line in lines:
        is_text |= begins_abstract(line.text)
        if not is_text or line.size < usual:
            yield line


def _asks(*patterns: str) -> re.Pattern[str]:
    return regex(rf"^\W*(?:{'|'.join(patterns)})\W*$", re.I)


_DETAILS = (
    _Detail("No e-mail address is given.", _asks(
        rf"(?:{_GIVE}\s+)?(?:an?\s+|the\s+|any\s+)?(?:{_WHOSE}\s+)?(?:e-?mails?(?:\s+address(?:es)?)?|contact\s+(?:address|details|information))(?:\s+(?:of|for)\s+(?:{_WHO}|{IT}))?",
        rf"how\s+(?:can|do|could|should|would)\s+(?:i|we|one)\s+(?:contact|reach|write\s+to|get\s+in\s+touch\s+with|e-?mail|mail)\s+{_WHO}",
        r"(?:wie\s+(?:lautet|ist)|was\s+ist|quelle\s+est|cuál\s+es|qual\s+[èé])\s+.{0,12}(?:e-?mail|courriel|correo)\S*.{0,30}",
    ), _mails, _mail_in_text),
    _Detail("No keywords are given.", _asks(
        rf"(?:{_GIVE}\s+)?(?:the\s+|its\s+|any\s+)?(?:author\s+)?key[\s-]?words(?:\s+(?:of|for)\s+{IT})?(?:\s+given)?",
        rf"(?:which|what)\s+key[\s-]?words\s+(?:are\s+(?:given|listed|there)|does\s+{IT}\s+(?:have|give|list))",
        r"(?:was\s+sind|welche|quels\s+sont|cuáles\s+son|quali\s+sono|quais\s+são)\s+.{0,6}(?:schlüsselwörter|schlagwörter|mots[\s-]clés|palabras\s+clave"
        r"|parole\s+chiave|palavras[\s-]chave).{0,24}",
    ), _keywords),
    _Detail("No DOI is given.", _asks(
        rf"(?:{_GIVE}\s+)?(?:the\s+|its\s+|a\s+)?doi(?:\s+number)?{_OF}", rf"does\s+{IT}\s+have\s+a\s+doi",
    ), _numbers(regex(r"(?:\bdoi\s*[:.]?\s*|https?://(?:dx\.)?doi\.org/)10\.\d{4,9}/[^\s,;]+", re.I), 2)),
    _Detail("No ISBN is given.", _asks(
        rf"(?:{_GIVE}\s+)?(?:the\s+|its\s+|an?\s+)?isbn(?:\s+number)?{_OF}", rf"does\s+{IT}\s+have\s+an\s+isbn",
    ), _numbers(regex(r"\bISBN(?:-1[03])?\s*:?\s*[\dX][\dX–\s-]{8,16}[\dX]"), NUMBER_PAGES)),
    _Detail("No place of work is given.", _asks(
        rf"where\s+(?:does|do|did)\s+{_WHO}\s+work", rf"{_GIVE}\s+{_WHOSE}\s+affiliations?",
        rf"(?:which|what)\s+(?:universit(?:y|ies)|institutions?|institutes?|organi[sz]ations?|compan(?:y|ies)|departments?)\s+(?:is|are|does|do|did)\s+{_WHO}\s+(?:from|at|with|work\s+(?:at|for)|belong\s+to)",
        rf"{_GIVE}\s+the\s+affiliations?(?:\s+of\s+{_WHO})?",
    ), _works_at),
)  # fmt: skip
