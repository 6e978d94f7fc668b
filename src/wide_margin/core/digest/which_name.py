"""Asked which option, command or function does something: the one whose description says so."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.question import read_question
from wide_margin.core.answers.quoting import quote_rows, told_by
from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.defined import with_definition
from wide_margin.core.digest.named import SAYS_NOTHING, content_of
from wide_margin.core.digest.other_words import ASKS_HOW, like
from wide_margin.core.later import regex
from wide_margin.core.outline.numbering import unnumbered

if TYPE_CHECKING:
    from collections.abc import Collection, Iterator

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_SORTS = (
    r"(?P<option>options?|flags?|switch(?:es)?)|(?:(?:sub)?commands?|functions?|macros?|(?:sub)?routines?|methods?|variables?"
    r"|parameters?|arguments?|settings?|keywords?|directives?|keys?)"
)
_ASKS = regex(
    rf"^\W*(?:with\s+|by\s+)?(?:which|what)\s+(?:[\w-]+\s+)?(?:{_SORTS})\s+"
    r"(?:(?:is|can\s+be|must\s+be|should\s+be)\s+used\s+(?:to|for)\s+|(?:do|can|should|must|would)\s+(?:I|you|one|we)\s+use\s+to\s+"
    r"|(?:lets|allows|makes|helps)\s+(?:(?:me|you|one|us)\s+)?(?:to\s+)?|is\s+for\s+|(?:will|can|may|would)\s+)?"
    r"(?P<verb>[a-z]+(?:\s(?:on|off|up|out|away))?)\s+(?P<thing>\S[^?]*?)\W*$", re.I
)  # fmt: skip
_NO_VERB = frozenset(
    ["is", "are", "was", "were", "do", "does", "did", "has", "have", "of", "for", "in", "to", "the"]
)
"""What stands where a verb is looked for and tells nothing that is done."""
_GIVES = frozenset(
    ["select", "choose", "specify", "set", "define", "give", "determine", "control", "configure"]
)
"""What one does with the thing that an option is given, said one way or the other."""
_NAME_OF = (
    r"^\W{0,2}?(?:(?P<option>[–—-]{1,2}[\w?][\w-]*(?:[=\s,|/]+(?:[–—-]{1,2}[\w-]+|[A-Z]{2,}\b|<[^>]*>|\[[^\]]*\]))*)"
    r"|\\\w+(?:\{[^}]*\}|\[[^\]]*\])*|\w[\w.:]*\s?\([^()]*\)(?!;))[\s:–—-]*"
)
_NAME = regex(_NAME_OF)
"""The name with which a description begins: of an option, a macro, a function."""
_HEAD = regex(rf"{_NAME_OF}(?:\S+\s*){{0,3}}$|^\W{{0,2}}[\w.']+\s::\s")
"""The same on a line of its own, with what it is given."""
_BARE_NAME = regex(r"\W{0,2}[\w.:/*-]+\W{0,2}(?:\s?[(\[{<=].*)?$", re.S)
"""A term that may be one: a single word, with what it is given."""
_BEFORE_VERB = regex(
    r"^\W*(?:(?:this|the)\s+(?:\w+\s+)?(?:option|flag|switch|command|function|macro|routine|method|variable|parameter|argument|setting)\s+|it\s+)?"
    r"(?:(?:(?:is|can be|may be)\s+)?used\s+(?:to|for)\s+|use\s+(?:this|it)\s+(?:\w+\s+)?to\s+|to\s+|if\s+(?:set|given|specified|present),?\s+)?"
    r"(?:\w+ly\s+)?(?P<verb>[a-z]+)(?![\w-])", re.I
)  # fmt: skip
IN_OTHER_WORDS, IN_ITS_WORDS = 0.6, 0.7
"""The chance that what is described so is what was asked for, with another verb or with its own."""
FAR, FEW, FEW_OF_ANY = 6, 4, 1
"""Words of its own that a description has at most before it is on something else, too; where it has
a single word of the question; and where that does not even ask for an option or a function."""


def with_its_name(document: ReadDocument, answer: Answer) -> Answer:
    """The answer by the name whose description says that it does what is asked.

    "-c ID  Specify the pump" of "Which option selects the pump?". What is quoted already is made
    surer; where nothing is described so, the answer stays as it is.
    """
    asked, few = _ASKS.match(answer.question), FEW
    if asked is None and answer.sure < IN_OTHER_WORDS:
        asked, few = ASKS_HOW.match(answer.question), FEW_OF_ANY
    if asked is None or answer.reach.kind != "document" or document.index.language != "en":
        return answer
    verb = asked["verb"].lower()
    wanted = content_of(document, asked["thing"])
    if verb in _NO_VERB or not wanted:
        return answer
    most = FAR if len(wanted) > 1 else few
    own = set(_stems(document, [verb]))
    bases = frozenset(_bases(verb))
    alike = bases.union(*map(like, bases), () if bases.isdisjoint(_GIVES) else _GIVES)
    same = own.union(_stems(document, alike))
    found = []
    is_option = bool(asked.groupdict().get("option"))
    for row, first, said in _described(document, wanted, is_option=is_option):
        begins = _BEFORE_VERB.match(said)
        if begins is None:
            continue
        stems = set(_stems(document, [begins["verb"].lower()]))
        done = content_of(document, said[begins.end() :])  # "This rope is …" does nothing with one
        n_more = len(done - wanted - stems)
        if wanted <= done and n_more <= most and not same.isdisjoint(stems):
            found.append((n_more, row, first, not own.isdisjoint(stems)))
    if not found and answer.sure < IN_OTHER_WORDS:
        return _called_so(document, answer, wanted, same, is_option=is_option)
    if not found:
        return answer
    _, row, first, is_own = min(found)
    sure = max(answer.sure, IN_ITS_WORDS if is_own else IN_OTHER_WORDS)
    return told_by(document, answer, first, row + 1, sure)


def _called_so(
    document: ReadDocument,
    answer: Answer,
    wanted: frozenset[str],
    verbs: set[str],
    *,
    is_option: bool,
) -> Answer:
    """The answer by the name that is made of what is asked: "rope_wind" of "winds a rope"."""
    found = []
    for section in document.outline.sections:
        name = unnumbered(section.title).strip()
        if _IS_NAME.fullmatch(name) is None or (is_option and name[:1] not in "-–"):
            continue
        name = name.partition("(")[0].strip()
        parts = _PARTS.split(name.strip("-–"))
        stems = set(_stems(document, [part.lower() for part in parts if part]))
        if len(parts) > 1 and wanted <= stems and not verbs.isdisjoint(stems):
            found.append((len(parts), name, section.first_paragraph))
    if not found:
        return answer
    _, name, head = min(found)
    told = with_definition(document, replace(answer, question=f"What does {name} do?"))
    if not told.quotes or told.sure < IN_OTHER_WORDS:  # nothing says what it does
        return answer
    rows = document.rows_of(head, head + 1)
    if rows and name.lower() not in told.quotes[0].text.lower():
        named = quote_rows(document, read_question(answer.question), rows.start, rows.stop)
        told = replace(told, quotes=(named, *told.quotes))
    return replace(told, question=answer.question, kind=answer.kind, sure=IN_OTHER_WORDS)


_IS_NAME = regex(r"[–—-]{0,2}[A-Za-z][\w.:-]*(?:\s?\([^()]*\))?")
_PARTS = regex(r"[_.:-]+|(?<=[a-z])(?=[A-Z])")
"""Between the words that a name is made of: "rope_wind", "windRope"."""


def _bases(verb: str) -> Iterator[str]:
    """What a verb in its third person may be without the ending."""
    yield verb
    first, *particle = verb.split()
    for ending, instead in (("ies", "y"), ("es", ""), ("s", "")):
        if first.endswith(ending):
            yield " ".join([first.removesuffix(ending) + instead, *particle])


def _stems(document: ReadDocument, verbs: Collection[str]) -> list[str]:
    return [stem for each in verbs for stem in document.index.analyser.terms_of(each)[:1]]


def _described(
    document: ReadDocument, wanted: frozenset[str], *, is_option: bool
) -> Iterator[tuple[int, int, str]]:
    """Rows that begin what is said of a name, with all that is wanted.

    Yields:
        The row, that of the name, and what is said of it there.
    """
    sentences, terms = document.text.sentences, document.text.terms
    for row in rows_with(document, sorted(wanted)):
        said = sentences[row]
        if said.kind in SAYS_NOTHING and said.kind != "code":
            continue
        before = sentences[row - 1] if row else None
        name = _NAME.match(said.text)
        if said.kind == "code" and (name is None or not name["option"]):
            continue
        if name is not None and (name["option"] or not is_option):
            yield row, row, said.text[name.end() :]
        elif said.term >= 0 and not (before and before.term == said.term):
            term = terms[said.term]
            is_name = term.text.lstrip().startswith(("-", "–"))
            is_name |= not is_option and _BARE_NAME.match(term.text) is not None
            if is_name and not term.is_label:
                yield row, row, said.text.removeprefix(term.text)
        elif (
            before
            and before.kind in ("code", "heading", "entry")
            and before.paragraph != said.paragraph
        ):
            headed = _HEAD.match(before.text)
            if headed is not None and (headed["option"] or not is_option):
                yield row, row - 1, said.text
