"""Questions worth asking of a document that one has not read, each answered beforehand."""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from wide_margin.core.answers.model import Answer
from wide_margin.core.answers.quoted import answer_quoted
from wide_margin.core.answers.signs import NUMBER_WORD, ROLES
from wide_margin.core.document import ReadDocument
from wide_margin.core.later import regex
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.passages import Sentence
from wide_margin.core.search import is_common

N_OFFERED = 6
MOST_OF_A_SHAPE = 2
N_TRIED = 8
"""Candidates of one shape that are put to the document before the next shape."""
KINDS = ("article", "manual", "report", "statute", "script", "other")
_SHAPES = {
    "article": ("what is", "why", "how many", "where", "who", "when"),
    "manual": ("how to", "what is", "how many", "who", "why", "when"),
    "report": ("how many", "who", "when", "why", "what is", "where"),
    "statute": ("who", "what is", "when", "how many", "why", "where"),
    "script": ("who", "when", "why", "where", "what is", "how many"),
    "other": ("what is", "why", "how many", "who", "when", "how to"),
}
"""Shapes of question by kind of document, those that its readers ask most first."""
_PARTICIPLE = r"(?:\w{3,}ed|built|set up|set|laid|run|cut|given|written|begun|found|founded|made|held|sold|taken|drawn|known)"
_DATE = r"(?:(?:on|in|since|from)\s+(?:\d{1,2}\s+)?(?:January|February|March|April|May|June|July|August|September|October|November|December)?\s?\d{4})"
_SUBJECT = r"(?P<subject>(?:The|An?|Each|Every)\s+[^,;:()]{3,60}?)"
_WHEN = regex(rf"^{_SUBJECT}\s+(?P<be>was|were)\s+(?P<done>{_PARTICIPLE})\b[^,;:]*?\b{_DATE}")
_WHY = regex(
    rf"^{_SUBJECT}\s+(?P<be>is|are|was|were|must|may|can|should)\s+(?P<rest>[^,;:]{{4,60}}?),?\s+(?:because|so that|since(?!\s+(?:\d|then\b)))\s"
)
_HAS = regex(
    rf"^{_SUBJECT}\s+(?:has|have)\s+(?:at (?:least|most)\s+)?(?:\d[\d.,]*|{NUMBER_WORD})\s+(?P<thing>[a-z]{{4,}}s)\b"
)
_MODAL = r"(?:must|may|can|should|shall|will|could|would)"
_WHO = regex(
    rf"^The\s+(?P<role>{ROLES})\s+(?P<rest>(?:{_MODAL}|[a-z]{{3,}}s)\s+(?!{_MODAL}\b|are\b|were\b|that\b)[^,;:.()]{{10,90}})(?=[.,;:]|$)"
)
_DEFINED = regex(
    r"^(?:An?|The)?\s*(?P<term>[A-Za-z][\w’' -]{2,28}?)\s+(?:is|(?P<are>are)|means)\s+(?:an?|the)\s+\w+|\bis called (?:an?|the)\s+(?P<called>[\w’' -]{3,30})(?=[.,;])"
)
_STEP_TITLE = regex(r"^(?P<verb>[A-Z][a-z]{2,}ing)\s+(?P<rest>[a-z][\w’' -]{3,40})$")
_ACT = regex(r"(?:act|scene|akt|szene|acte|scène)\s+(?:[ivx]+|\d+|one|two|three)\b", re.I)
_NO_VERB = frozenset(
    [
        "string",
        "thing",
        "king",
        "spring",
        "evening",
        "morning",
        "nothing",
        "something",
        "anything",
        "being",
        "during",
        "following",
    ]
)
_PRONOUN = regex(
    r"\b(?:this|that|these|those|it|he|she|they|we|you|following|above|below|latter|former)\b", re.I
)


@dataclass(frozen=True, slots=True)
class Worth:
    """A question that the document answers well."""

    question: str
    shape: str
    """The kind of answer it wants."""
    answer: Answer


def kind_of_document(document: ReadDocument) -> str:
    """One of KINDS, from the titles of its sections, its length and its wording."""
    named = re.search(r"\b(?:hand ?book|manual|guide|reference)\b", document.facts.title, re.I)
    titles = " ".join(section.title.casefold() for section in document.outline.sections)
    sample = document.text.sentences[:: max(1, len(document.text.sentences) // 600)]
    text = " ".join(sentence.text for sentence in sample)
    n_words = max(len(text.split()), 1)

    def often(pattern: str) -> float:
        return 1000 * len(re.findall(pattern, text)) / n_words

    n_articles = len(re.findall(r"\b(?:article|section|§)\s*\d+", titles))
    if n_articles >= 5 and often(r"\bshall\b") > 6:
        return "statute"
    acts = sum(bool(_ACT.match(section.title)) for section in document.outline.sections)
    if acts >= 2:
        return "script"
    if re.search(r"\babstract\b", titles + text[:4000].casefold()) and (
        re.search(r"\b(?:references|bibliography)\b", titles) and document.facts.n_pages <= 60
    ):
        return "article"
    if re.search(r"\b(?:executive summary|findings|recommendations|annual report)\b", titles):
        return "report"
    n_code = sum(sentence.kind == "code" for sentence in sample)
    if named or n_code > 0.03 * len(sample) or often(r"\b(?:must|should|you)\b") > 5:
        return "manual"
    return "other"


def worth_asking(
    document: ReadDocument, kind: str = "", *, check: Callable[[], None] = lambda: None
) -> list[Worth]:
    """Questions in the document's own terms, of several shapes, that it answers where they arose.

    Args:
        document: Read.
        kind: One of KINDS; found where empty.
        check: Called between the questions that are tried; may raise to stop.
    """
    shapes = _SHAPES[kind or kind_of_document(document)]
    found: list[Worth] = []
    candidates = {shape: _spread(list(_candidates(document, shape))) for shape in shapes}
    for n_each in range(1, MOST_OF_A_SHAPE + 1):
        for shape in shapes:
            if len(found) >= N_OFFERED:
                return found
            if sum(worth.shape == shape for worth in found) >= n_each:
                continue
            for _ in range(N_TRIED):
                if not candidates[shape]:
                    break
                check()
                question, row = candidates[shape].pop(0)
                worth = _answered(document, question, shape, row)
                if worth is not None:
                    found.append(worth)
                    break
    return found


def _answered(document: ReadDocument, question: str, shape: str, row: int) -> Worth | None:
    """The question with its answer, if that stands on the page where the question arose."""
    answer = answer_quoted(document, question)
    pages = {at.page for quote in answer.quotes[:1] for at in quote.locators}
    if answer.declined or document.text.sentences[row].page not in pages:
        return None
    return Worth(question, shape, answer)


def _spread(candidates: list[tuple[str, int]]) -> list[tuple[str, int]]:
    """Candidates from all over the document first: the middle, the quarters, the eighths."""
    order: list[tuple[str, int]] = []
    left = list(candidates)
    parts = 2
    while left:
        for k in range(1, parts, 2):
            if not left:
                break
            order.append(left.pop(min(len(left) - 1, k * len(left) // parts)))
        parts *= 2
    return order


def _candidates(document: ReadDocument, shape: str) -> Iterator[tuple[str, int]]:
    """(question, row of the sentence it arose from) in reading order."""
    if shape in ("how to", "where"):
        yield from _from_titles(document, shape)
        return
    make = {"what is": _what, "why": _why, "how many": _how_many, "who": _who, "when": _when}[shape]
    for row, sentence in enumerate(document.text.sentences):
        if sentence.kind not in ("body", "item") or not 6 <= len(sentence.text.split()) <= 45:
            continue
        if question := make(sentence):
            yield question, row


def _from_titles(document: ReadDocument, shape: str) -> Iterator[tuple[str, int]]:
    rows = {s.paragraph: k for k, s in reversed(list(enumerate(document.text.sentences)))}
    for section in document.outline.sections:
        number = number_of(section.title)
        title = number.rest if number else section.title
        row = rows.get(section.first_paragraph)
        if row is None or len(title) > 50:
            continue
        if title.istitle() or sum(word[0].isupper() for word in title.split()) > 2:
            title = title[0] + title[1:].lower()
        if shape == "how to" and (match := _STEP_TITLE.match(title)):
            if match["verb"].lower() not in _NO_VERB:
                yield f"How does one go about {match['verb'].lower()} {match['rest']}?", row
        elif shape == "where" and len(title.split()) >= 2:
            yield f"Which section is about {_lowered(title)}?", row


def _what(sentence: Sentence) -> str:
    match = _DEFINED.search(sentence.text)
    if not match or sentence.text[0].islower() or (sentence.start and not match["called"]):
        return ""
    term = (match["term"] or match["called"]).strip()
    first = sentence.text.split()[0].lower()
    if _PRONOUN.search(term) or not 4 <= len(term) <= 30 or is_common(term.split()[0].lower()):
        return ""
    if match["called"] or first in ("a", "an"):
        article = "an " if term[0].lower() in "aeiou" else "a "
        return f"What is {article}{_lowered(term)}?"
    if first == "the":
        return ""
    be = "are" if match["are"] else "is"
    return f"What {be} {_lowered(term)}?"


def _why(sentence: Sentence) -> str:
    match = _WHY.match(sentence.text)
    if not match or _PRONOUN.search(match["subject"]):
        return ""
    return f"Why {match['be']} {_lowered(match['subject'])} {match['rest']}?"


def _how_many(sentence: Sentence) -> str:
    match = _HAS.match(sentence.text)
    if not match or _PRONOUN.search(match["subject"]):
        return ""
    return f"How many {match['thing']} does {_lowered(match['subject'])} have?"


def _who(sentence: Sentence) -> str:
    match = _WHO.match(sentence.text)
    if not match or _PRONOUN.search(match["rest"]):
        return ""
    return f"Who {match['rest'].rstrip('. ')}?"


def _when(sentence: Sentence) -> str:
    match = _WHEN.match(sentence.text)
    if not match or _PRONOUN.search(match["subject"]):
        return ""
    return f"When {match['be']} {_lowered(match['subject'])} {match['done']}?"


def _lowered(text: str) -> str:
    """With a small first letter, unless the first word is a name or an abbreviation."""
    first = text.split()[0]
    is_plain = (
        first.lower() in ("the", "a", "an", "each", "every") or first[1:] == first[1:].lower()
    )
    return text[0].lower() + text[1:] if is_plain else text
