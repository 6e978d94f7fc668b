"""Reading a question against a document: form, reach inside the question, what it leans on."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.form import ANY_FORM, Form, take_form
from wide_margin.core.answers.model import WHOLE, Reach
from wide_margin.core.answers.question import Question, read_question
from wide_margin.core.document import figure_numbered, section_numbered, section_titled
from wide_margin.core.later import regex
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.document import Figure, ReadDocument
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.outline import Section

_PAGES = regex(
    r",?\s*\b(?:on|from|between|in)\s+(?:the\s+)?(?P<file>file\s+)?(?:pages?|pp?\.)\s*(?P<a>\d+|[ivxlc]+)"
    r"(?:\s*(?:-|–|to|and|until)\s*(?P<b>\d+|[ivxlc]+))?\b", re.I
)  # fmt: skip
_SECTION = regex(
    r",?\s*\b(?:in|of|from|within|by|under)\s+(?:the\s+)?(?P<word>section|sect?\.|chapter|part|appendix|annex|§)\s*"
    r"(?P<id>\d+(?:\.\d+)*|[IVXLC]+\b|[A-Z](?:\.\d+)*\b)", re.I
)  # fmt: skip
_TITLED = regex(
    r",?\s*\b(?:in|from) the (?:(?:section|chapter|part|appendix|annex) (?:on|about|called|named|titled) (?:the )?[“\"‘]?(?P<title>[\w’' -]{4,60}?)[”\"’]?"
    r"|(?P<named>preface|foreword|introduction|abstract|summary|executive summary|glossary|index|conclusions?|discussion|methods?"
    r"|results|epilogue|prologue|afterword|acknowledge?ments?|bibliography|references|appendix))(?=[?.,;:]|\s+and\b|$)", re.I
)  # fmt: skip
_FIGURE = regex(
    r",?\s*\b(?:in|of|from|by|to|according to)\s+(?:the\s+)?(?P<word>table|figure|fig\.|tab\.|chart|plate|map)\s*"
    r"(?P<id>[A-Z]?\d+(?:[.–-]\d+)*[a-z]?|[IVX]+)\b", re.I
)  # fmt: skip
_LEADS_ON = regex(
    r"^(?:and|but|or|also|then|so)\b|^(?:why|why not|how so|since when|by whom|how|when|where|who)\s*\?*$"
    r"|^(?:what|how) about\b|\b(?:what|anything|who|where) else\b|^(?:und|et|y)\b", re.I
)  # fmt: skip
_STANDS_IN = regex(
    r"\b(?:it|its|they|them|their|theirs|he|him|his|she|her|hers|this|these|those|that one|the latter|the former)\b", re.I
)  # fmt: skip
_APART = regex(r"[?,;:.]\s+(?:please\s+)?(?:in|with|as|under|below|at most|no more|not more|fewer|less|within|up to|about|max\w*|briefly)\b", re.I)  # fmt: skip
"""Words about form that stand apart from the question."""
_STRANDS = regex(r"^(?:what|which|whom?|where)\b", re.I)
_PREPOSITION_END = regex(r"\b(?:of|to|in|on|at|by|with|from|for)\s*\?*$", re.I)
"""Where a question may end: "what does a keeper answer for?"."""
_BROKEN_END = regex(
    r"\b(?:be|is|are|was|were|been|have|has|had|of|to|in|on|at|by|with|from|for|than|a|an|the|and|or|as|must|may|can|shall"
    r"|contain|contains|last|lasts|take|takes|use|uses|write|exceed)\s*\?*$", re.I
)  # fmt: skip
MANY_WORDS = 4
"""A question with a pronoun leans on the one before if it has at most so many words of its own."""


@dataclass(frozen=True, slots=True)
class Asked:
    """A question as it is to be answered."""

    question: Question
    """Without its words about form and reach."""
    typed: str
    form: Form = ANY_FORM
    reach: Reach = WHOLE
    before: str = ""
    """The question it leans on; "" where it stands alone."""


def read_asked(
    document: ReadDocument, typed: str, reach: Reach = WHOLE, before: str | None = None
) -> Asked:
    """Read a question for a document.

    Args:
        document: Its sections and page labels are what "in section 4.2" and "on page 12" name.
        typed: As typed.
        reach: As chosen; a reach named in the question is narrower and goes before it.
        before: The question that this one may lean on.
    """
    whole = " ".join(typed.split())
    text, form = take_form(whole)
    if form != ANY_FORM and (_is_broken(whole, text) or not _still_asks(text)):
        text, form = whole, ANY_FORM  # "must it be at most 150 words?" asks for the number itself
    question = read_question(text)
    if question.kind != "where":
        text, reach = _take_reach(document, text, reach)
        question = replace(read_question(text), text=text)
    leans_on = before if before and leans(question, document) else ""
    if leans_on and (question.kind == "general" or _is_elliptic(question.text)):
        earlier = read_question(take_form(leans_on)[0])
        question = replace(question, kind=_kind_after(question, earlier))
    if form.as_list and question.kind in ("general", "what is", "yes or no"):
        question = replace(question, kind="list")
    return Asked(question, typed, form, reach, leans_on)


def leans(question: Question, document: ReadDocument) -> bool:
    """Whether a question cannot be understood without the one before."""
    if _LEADS_ON.search(question.text):
        return True
    language = document.index.language
    content = [w for w in words(question.text) if not is_common(w, language)]
    return bool(_STANDS_IN.search(question.text)) and len(content) <= MANY_WORDS


def _is_elliptic(text: str) -> bool:
    return bool(re.match(r"(?:and|but|what about|how about)\b(?!\s+(?:who|when|why|how|what))", text, re.I))  # fmt: skip


def _kind_after(question: Question, earlier: Question) -> str:
    plain = re.sub(r"^(?:and|but|so|then|also)\s+", "", question.text, flags=re.I)
    own = read_question(plain).kind
    return own if own != "general" else earlier.kind


def _take_reach(document: ReadDocument, text: str, reach: Reach) -> tuple[str, Reach]:
    """The question without the words that narrow it, and what they narrow it to."""
    if match := _PAGES.search(text):
        pages = _pages(document, match["a"], match["b"], of_file=bool(match["file"]))
        if pages is not None and _still_asks(_cut(text, match)):
            return _cut(text, match), pages
    if (match := _SECTION.search(text)) and _is_number(match["id"]):
        section = section_numbered(document.outline, match["word"], match["id"])
        if section >= 0 and _still_asks(_cut(text, match)):
            return _cut(text, match), section_reach(document.outline.sections[section])
    if (match := _FIGURE.search(text)) and (
        figure := figure_numbered(document, match["word"], match["id"])
    ):
        return _cut(text, match), figure_reach(figure)
    if match := _TITLED.search(text):
        section = section_titled(document.outline, match["title"] or match["named"])
        rest = _cut(text, match)
        if section >= 0 and sum(not is_common(w) for w in words(rest)) > 0:
            return rest, section_reach(document.outline.sections[section])
    return text, reach


def _is_broken(whole: str, text: str) -> bool:
    """Whether a question misses its end without the words about form: they were no form."""
    if _APART.search(whole) or not _BROKEN_END.search(text):
        return False
    return not (_STRANDS.match(text) and _PREPOSITION_END.search(text))


def _is_number(identifier: str) -> bool:
    """Whether it numbers a section: "in part a duty" names no Annex A, "Annex A" does."""
    return not (len(identifier) == 1 and identifier.isalpha() and identifier.islower())


def _still_asks(text: str) -> bool:
    """Whether a question of its own is left once its words about form or reach are taken out."""
    return any(not is_common(word) for word in words(text))


def section_reach(section: Section) -> Reach:
    """The reach of one section, as it is now."""
    last_page = max(section.end_page, section.page)
    return Reach("section", section.page, last_page, section.y, section.end_y, section.title)


def paragraphs_within(document: ReadDocument, reach: Reach) -> tuple[int, int]:
    """First row and one past the last of the paragraphs that a section's reach holds."""
    first = _row_at(document, reach.first_page, reach.first_y)
    return first, max(_row_at(document, reach.last_page, reach.last_y), first + 1)


def _row_at(document: ReadDocument, page: int, y: float) -> int:
    """Row of the first paragraph at or after a place.

    Where a section starts there, its own first paragraph: on a page with columns what stands
    lower may come earlier.
    """
    for section in document.outline.sections:
        if section.page == page and abs(section.y - y) < 1.0:
            return section.first_paragraph
    for row, paragraph in enumerate(document.paragraphs):
        line = paragraph.pieces[0].line
        if (line.page, (line.box[1] + line.box[3]) / 2) >= (page, y):
            return row
    return len(document.paragraphs)


def figure_reach(figure: Figure) -> Reach:
    """The reach of a figure or table: its caption and the words in it."""
    page = figure.page
    return Reach("figure", first_page=page, last_page=page, name=figure.name, spans=figure.text)


def named_reach(document: ReadDocument, text: str) -> Reach | None:
    """The reach that a text such as "section 4.2", "pages 40-60", "table 2" or a heading names.

    Returns:
        None where the document has no such place.
    """
    plain = " ".join(text.split())
    if match := re.fullmatch(
        r"(?:pages?|pp?\.)?\s*(\d+|[ivxlc]+)\s*(?:-|–|to the end|on)", plain, re.I
    ):
        return _to_the_end(document, match[1])
    if match := _PAGES.match(f"on {plain}"):
        return _pages(document, match["a"], match["b"], of_file=bool(match["file"]))
    if match := re.fullmatch(r"(\d+|[ivxlc]+)\s*(?:-|–|to)\s*(\d+|[ivxlc]+)", plain, re.I):
        return _pages(document, match[1], match[2], of_file=False)
    if (match := _FIGURE.match(f"in {plain}")) and (
        figure := figure_numbered(document, match["word"], match["id"])
    ):
        return figure_reach(figure)
    section = -1
    if match := _SECTION.match(f"in {plain}"):
        section = section_numbered(document.outline, match["word"], match["id"])
    elif re.fullmatch(r"\d+(?:\.\d+)*|[A-Z](?:\.\d+)+", plain):
        section = section_numbered(document.outline, "", plain)
    if section < 0:
        section = section_titled(document.outline, plain)
    return section_reach(document.outline.sections[section]) if section >= 0 else None


_NAMED_PAGES = regex(r"\b(?:pages?|pp?\.)\s*(\d{1,5})(?:\s*(?:-|–|to|and)\s*(\d{1,5}))?\b", re.I)


def pages_reach(labels: PageLabels, n_pages: int, text: str) -> Reach | None:
    """The reach of pages typed as "40-60", "p. 12" or "xv"; None where there are none such."""
    plain = re.sub(r"^(?:pages?|pp?\.)\s*", "", " ".join(text.split()), flags=re.I)
    match = re.fullmatch(r"(\w+)(?:\s*(?:-|–|to)\s*(\w+))?", plain)
    return _range(labels, n_pages, match[1], match[2], of_file=False) if match else None


def pages_named(text: str, labels: PageLabels) -> list[int]:
    """Indexes of the pages that a question names by their printed numbers.

    A number that no page is known to have yet is counted on from those that are known.
    """
    found: list[int] = []
    for first, last in _NAMED_PAGES.findall(text):
        ends = [at for number in (first, last) if number for at in _pages_numbered(number, labels)]
        if ends:
            found += range(min(ends), max(ends) + 1)
    return found


def _pages_numbered(number: str, labels: PageLabels) -> list[int]:
    known = labels.find(number)
    if known and labels.of(known[0]) == number:
        return known[:1]
    offsets = Counter(
        page - int(label) for page, label in enumerate(labels.labels) if label and label.isdecimal()
    )
    if not offsets:
        return known[:1]
    page = int(number) + offsets.most_common(1)[0][0]
    return [page] if 0 <= page < len(labels.labels) else []


def _pages(document: ReadDocument, a: str, b: str | None, *, of_file: bool) -> Reach | None:
    return _range(document.labels, document.facts.n_pages, a, b, of_file=of_file)


def _to_the_end(document: ReadDocument, label: str) -> Reach | None:
    first = _pages(document, label, None, of_file=False)
    if first is None:
        return None
    return replace(first, last_page=document.facts.n_pages - 1, name=f"pages {label} to the end")


def _range(
    labels: PageLabels, n_pages: int, a: str, b: str | None, *, of_file: bool
) -> Reach | None:
    ends = []
    for label in (a, b or a):
        found = () if of_file else labels.find(label)
        if found:
            ends.append(found[0])
        elif label.isdigit() and 1 <= int(label) <= n_pages:
            ends.append(int(label) - 1)
        else:
            return None
    first, last = min(ends), max(ends)
    name = f"page {a}" if b is None else f"pages {a}–{b}"
    return Reach("pages", first_page=first, last_page=last, name=name)


def _cut(text: str, match: re.Match[str]) -> str:
    rest = " ".join(f"{text[: match.start()]} {text[match.end() :]}".split()).replace(" ?", "?")
    rest = rest.lstrip(",:; ")
    return rest[:1].upper() + rest[1:]
