"""Definitions that a document gives: "X is …", "X means …", "long form (LF)", glossary entries."""

import re
from collections import defaultdict
from collections.abc import Iterator
from typing import NamedTuple

from wide_margin.core.document import ReadDocument
from wide_margin.core.layout import Paragraph, tidy
from wide_margin.core.passages import Sentence
from wide_margin.core.search import Analyser, is_common
from wide_margin.core.search.analysis import words

MAX_TERM_WORDS = 5


class Definition(NamedTuple):
    """A sentence that says what a term means."""

    term: str
    """As written where it is defined."""
    sentence: int
    """Row in the document's sentences."""
    kind: str
    """glossary, defined ("is", "means", "called") or abbreviation."""
    weight: float
    """How surely this is a definition, 0 to 1."""
    long_form: str = ""
    """What an abbreviation stands for."""


Definitions = dict[tuple[str, ...], list[Definition]]
"""Definitions by the stems of their term."""

_TERM = r"(?P<term>[“\"‘']?[^\W_][\w’'/-]*(?:\s+[\w’'/-]+){0,4}?[”\"’']?)"
_IS = re.compile(
    rf"^(?:(?:An?|The|By|Each|Every|Eine?|Der|Die|Das|Une?|Les?|La|El|Los)\s+)?{_TERM}(?:\s*\((?P<abbr>[^)]{{1,30}})\))?,?\s+"
    r"(?P<verb>is defined as|are defined as|is meant|means|refers to|denotes|stands for|(?:is|are) called(?!,| by\b| from\b| up\b)|is the|are the"
    r"|are (?:those|any|kinds? of|what)|is an?|is any|bedeutet|ist ein\w*|est une?|est le|est la|désigne|es un\w*|significa)\b",
)  # fmt: skip
_CALLED = re.compile(
    r"\b(?:(?:is|are|was|were|be|being)\s+(?:called|known as|termed|named)|(?:we|which we|here)\s+call|so-called|known as)\s+"
    r"(?:an?\s+|the\s+)?[“\"‘]?(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,2})[”\"’]?",
)
_LONG_SHORT = re.compile(
    r"(?P<long>(?:[^\W_][\w’'/-]*[ -]+){1,8}?)\((?P<short>[A-Z][A-Za-z0-9&-]{1,9}?)s?\)"
)
_SHORT_LONG = re.compile(r"\b(?P<short>[A-Z][A-Z0-9&-]{1,9})\s+\((?P<long>[A-Za-z][^()]{5,60})\)")
_GLOSSARY = re.compile(
    r"\b(?:glossary|abbreviations?|acronyms|definitions?|terms|terminology|nomenclature|vocabulary|symbols"
    r"|glossar|begriffe|abkürzungen|glossaire|définitions|abréviations|glosario|definiciones)\b", re.I
)  # fmt: skip
_ENTRY = re.compile(
    r"^(?P<term>[^\W_][^:—–\t.]{0,50}?)\s*(?:[:—–]|\s-\s|\t)\s*(?P<rest>\S.{3,})$", re.S
)
_WEAK = frozenset(
    [
        "this",
        "that",
        "these",
        "those",
        "it",
        "there",
        "here",
        "what",
        "which",
        "who",
        "he",
        "she",
        "they",
        "we",
        "you",
        "i",
        "one",
        "such",
        "following",
        "example",
        "section",
        "chapter",
        "figure",
        "table",
        "result",
        "reason",
        "purpose",
        "idea",
        "case",
        "point",
        "following",
        "first",
        "second",
        "next",
        "last",
    ]
)
_JOINING = frozenset(["of", "the", "and", "in", "for", "to", "on", "by", "with"])
_STRONG_VERBS = (
    "defined",
    "means",
    "refers",
    "denotes",
    "stands",
    "meant",
    "bedeutet",
    "désigne",
    "significa",
)


def key_of(term: str, analyser: Analyser) -> tuple[str, ...]:
    """The stems a term is looked up by; small words in front are left out."""
    parts = [word for word in words(term) if not is_common(word, analyser.language)]
    return tuple(analyser.terms_of(word)[0] for word in parts if analyser.terms_of(word))


def find_definitions(document: ReadDocument) -> Definitions:
    """Every definition in a document, the surest first for each term."""
    found: Definitions = defaultdict(list)
    analyser = document.index.analyser
    for definition in _all(document):
        key = key_of(definition.term, analyser)
        if 0 < len(key) <= MAX_TERM_WORDS:
            found[key].append(definition)
    for definitions in found.values():
        definitions.sort(key=lambda d: (-d.weight, d.sentence))
    return dict(found)


def _all(document: ReadDocument) -> Iterator[Definition]:
    sections = document.outline.sections
    in_glossary = [
        any(_GLOSSARY.search(title) for title in document.path_at(k)) for k in range(len(sections))
    ]
    last_paragraph = -1
    for row, sentence in enumerate(document.text.sentences):
        if sentence.kind in ("listing", "heading"):
            continue
        starts_paragraph = sentence.paragraph != last_paragraph
        last_paragraph = sentence.paragraph
        glossary = sentence.section >= 0 and in_glossary[sentence.section]
        if glossary and starts_paragraph:
            yield from _glossary_entry(document.paragraphs[sentence.paragraph], row)
        yield from _in_sentence(sentence, row)


def _glossary_entry(paragraph: Paragraph, row: int) -> Iterator[Definition]:
    first = paragraph.pieces[0].line
    if first.lead and 1 < first.lead < len(paragraph.text) - 5:
        term = tidy(paragraph.text[: first.lead]).rstrip(" .:—–-")
        if len(term.split()) <= MAX_TERM_WORDS:
            yield Definition(term, row, "glossary", 1.0)
            return
    if match := _ENTRY.match(paragraph.text):
        term = tidy(match["term"])
        if len(term.split()) <= MAX_TERM_WORDS:
            yield Definition(term, row, "glossary", 0.95)


def _in_sentence(sentence: Sentence, row: int) -> Iterator[Definition]:
    text = sentence.text
    if match := _IS.match(text):
        term = match["term"].strip("“”\"‘’'")
        if _is_term(term):
            strong = any(verb in match["verb"] for verb in _STRONG_VERBS)
            quoted = match["term"][0] in '“"‘'
            weight = 0.9 if strong else 0.6
            yield Definition(term, row, "defined", min(1.0, weight + 0.1 * quoted))
    for match in _CALLED.finditer(text):
        term = match["term"]
        if _is_term(_until_small_word(term)):
            yield Definition(_until_small_word(term), row, "defined", 0.7)
    for match in _LONG_SHORT.finditer(text):
        if long := _spelled_out(match["long"], match["short"]):
            yield Definition(match["short"], row, "abbreviation", 0.95, long)
    for match in _SHORT_LONG.finditer(text):
        if long := _spelled_out(match["long"], match["short"]):
            yield Definition(match["short"], row, "abbreviation", 0.9, long)


def _is_term(term: str) -> bool:
    """Whether some words can be the name of a thing: no pronouns, no clauses."""
    parts = term.lower().split()
    if not parts or not parts[0][0].isalpha() or parts[0] in _WEAK:
        return False
    return (
        all(part in _JOINING or not is_common(part) for part in parts) and parts[-1] not in _JOINING
    )


def _until_small_word(term: str) -> str:
    kept: list[str] = []
    for word in term.split():
        if kept and is_common(word.lower()):
            break
        kept.append(word)
    return " ".join(kept)


def _spelled_out(long: str, short: str) -> str:
    """The words at the end of ``long`` whose initials give the abbreviation, "" if none do.

    Source:
        The backward match of Schwartz and Hearst, "A simple algorithm for identifying
        abbreviation definitions in biomedical text", 2003.
    """
    letters = [c.lower() for c in short if c.isalnum()]
    text = long.rstrip()
    at = len(text)
    for position, letter in enumerate(reversed(letters)):
        first = position == len(letters) - 1
        at -= 1
        while at >= 0 and not (
            text[at].lower() == letter and (not first or at == 0 or not text[at - 1].isalnum())
        ):
            at -= 1
        if at < 0:
            return ""
    found = text[at:]
    return found if len(found.split()) <= 2 * len(letters) and len(found) > len(short) else ""
