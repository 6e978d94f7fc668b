"""Asked what the default of something is: what its description says of that."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_with
from wide_margin.core.later import regex
from wide_margin.core.passages.entries import names_in
from wide_margin.core.search.analysis import is_common, words

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE, ONE_OF_SEVERAL = 0.8, 0.5
"""The chance that what the description of a thing says of its default is what is asked for; less
where several things are called so."""
OF_OPTION = 0.6
"""The chance for an option of a command line: of some forty two thirds were right."""
MOST_QUOTED = 3
"""Sentences of an item, with the one on the default."""
FAR = 120
"""Letters from an option to what says its default, at most."""
MOST_BESIDE = 2
"""Words beside its name in the term that is described: what sort of value it takes, mostly."""
_KIND = (
    r"(?:options?|parameters?|arguments?|settings?|keys?|variables?|propert(?:y|ies)|attributes?|fields?|flags?"
    r"|switch(?:es)?|values?|keywords?|directives?)"
)
_ASKS = tuple(
    regex(pattern, re.I)
    for pattern in (
        rf"what(?:['’]s| is| are) the (?:default|standard|preset|factory|initial) (?:(?:values?|settings?) (?:of|for) |(?:of|for) )?(?:the )?(?P<name>.+?)(?: {_KIND})?"
        r"(?: (?:for|of|in|on|with) (?:the |an? )?(?P<of>.+?))?\s*\?*$",
        rf"what (?:is|are) (?:the )?(?P<name>.+?)(?: {_KIND})?(?: set to)? by default\s*\?*$",
        rf"what does (?:the )?(?P<name>.+?)(?: {_KIND})? default to\s*\?*$",
    )
)  # fmt: skip
_SAYS_DEFAULT = regex(
    r"\bdefaults?(?: (?:values?|settings?))?\s*[:=]|\bdefaults? to\b|\(default\b|\bdefaulted to\b"
    r"|\bdefault\b(?: [\w-]+){0,5}? (?:is|are|was)\b(?! (?:used|taken|applied|to be)\b)|\bby default\b", re.I
)  # fmt: skip
"""Says what a default is; "This is the default." and "the default handler" do not."""
_IN_CODE = regex(r"\w*(?:_\w|[a-z][A-Z])\w*|[A-Z][A-Z\d]{3,}")
"""A name that is no word of the language."""


class _Described(NamedTuple):
    """A term whose description speaks of a default."""

    n_beside: int
    """Words of the term beside the name."""
    row: int
    """Of the sentence that speaks of it."""
    first: int
    """Of the sentence from which it is quoted."""


def default_of(document: ReadDocument, question: str, answer: Answer) -> Answer | None:
    """What a description says of the default that is asked for; None where none does.

    Args:
        document: It.
        question: As typed.
        answer: What was found without looking for a description.
    """
    for pattern in _ASKS:
        if asked := pattern.match(question.strip()):
            break
    else:
        return None
    groups = asked.groupdict()
    if groups["name"].startswith("-"):
        return _of_option(document, answer, groups["name"])
    found = _described(document, groups["name"])
    of = groups.get("of") or ""
    if of:
        found = [one for one in found if _is_under(document, one.row, of)]
    if not found:
        return None
    nearest = [one for one in found if one.n_beside == found[0].n_beside]
    said = {document.text.sentences[one.row].text for one in nearest}
    sure = SURE if len(said) == 1 else ONE_OF_SEVERAL
    row, first = nearest[0].row, nearest[0].first
    first = first if row - first < MOST_QUOTED else row
    return told_by(document, answer, first, row + 1, sure)


def _of_option(document: ReadDocument, answer: Answer, name: str) -> Answer | None:
    """What is said of the default of an option of a command line: "-d  depth, default 9".

    It is the letter as it is written, and no other option stands between the two.
    """
    says = re.compile(
        rf"(?<![\w-]){re.escape(name)}(?![\w-])(?:(?!\s--?[a-zA-Z]).){{1,{FAR}}}?"
        r"(?:[(\[,;]\s?defaults?\b(?!\s(?:behavio|action|mode\b))|\bdefaults?\s?(?:[=:]|(?:is|are|to|values?)\b)|\bby default\b)"
    )
    for row, sentence in enumerate(document.text.sentences):
        if says.search(sentence.text):
            return told_by(document, answer, row, row + 1, OF_OPTION)
    return None


def _described(document: ReadDocument, name: str) -> Sequence[_Described]:
    """Terms of a name with the first sentence on a default, the nearest to the name first."""
    wanted = list(words(names_in(name)))
    terms = document.text.terms
    if not wanted:
        return ()
    beside: dict[int, int] = {}
    for k, term in enumerate(terms):
        said = term.text.lower()
        if wanted[0] not in said or wanted[-1] not in said:
            continue
        named = list(words(names_in(term.text)))
        rest = named[len(wanted) :]
        if named[: len(wanted)] == wanted and len(rest) <= MOST_BESIDE:
            beside[k] = len(rest)
    found: dict[int, _Described] = {}
    for row, sentence in enumerate(document.text.sentences if beside else ()):
        if (
            sentence.term in beside and sentence.term not in found and sentence.kind != "code"
            and _SAYS_DEFAULT.search(sentence.text)
        ):  # fmt: skip
            found[sentence.term] = _Described(beside[sentence.term], row, row)
    items = _items(document, name, wanted)
    return sorted(found.values()) or items


def _items(document: ReadDocument, written: str, wanted: Sequence[str]) -> list[_Described]:
    """The same for what is described in an item that begins with it: "• depth: … The default is 9.".

    A name that is no word of the language, as WELL_DEPTH, may begin a sentence.
    """
    stems = [term for word in wanted for term in document.index.analyser.terms_of(word)[:1]]
    name = r"[\s_-]+".join(map(re.escape, wanted))
    ends = r"(?!\w)" if _IN_CODE.fullmatch(written.strip()) else r"\s*(?:[:=–—]|-\s)"
    begins = re.compile(rf"[\W_]*{name}[\W_]*(?:\([^)]*\))?{ends}", re.I)
    found, sentences = [], document.text.sentences
    for row in rows_with(document, stems):
        if not begins.match(sentences[row].text):
            continue
        paragraph = sentences[row].paragraph
        said = (
            at for at in document.rows_of(paragraph, paragraph + 1)
            if at >= row and _SAYS_DEFAULT.search(sentences[at].text)
        )  # fmt: skip
        at = next(said, None)
        if at is not None:
            found.append(_Described(0, at, row))
    return found


def _is_under(document: ReadDocument, row: int, name: str) -> bool:
    """Whether a sentence stands in a section that is called so, or in one within it."""
    language = document.index.language
    wanted = {word for word in words(name.casefold()) if not is_common(word, language)}
    sections, parents = document.outline.sections, document.outline.parents
    at = document.text.sentences[row].section
    titles: set[str] = set()
    while at >= 0:
        titles |= set(words(sections[at].title.casefold()))
        at = parents[at]
    titles |= set(words(document.facts.title.casefold()))
    return wanted <= titles
