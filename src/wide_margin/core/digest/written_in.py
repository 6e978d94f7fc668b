"""Asked in which language a program is written, or when a version came out: what says so."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.signs import has_date
from wide_margin.core.digest.gist import own_words_of
from wide_margin.core.digest.mentioned import declining
from wide_margin.core.digest.telling import THING
from wide_margin.core.later import first_match, regex, whole_forms
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from collections.abc import Callable, Set
    from re import Pattern

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE, OF_ANOTHER = 0.8, 0.3
"""The chance that what says in which language it, or the thing of the title, is written answers,
and that what says so of something else does: of seventeen manuals thirteen said it of themselves,
of fourteen others five."""
SUBJECT = 8
"""Words before what says so in which its subject is."""
ON_DATE = 0.85
"""The chance that a version and a date in one line belong together."""
NEAR = 30
"""Letters between the two at most."""
_ASKS_LANGUAGE = whole_forms(
    rf"(?:in\s+)?(?:which|what)\s+(?:programming\s+)?language\s+(?:is|was|are|were)\s+(?:it|they|(?:this|the)\s+(?:\w+\s+)?{THING}|(?P<name>[\w.+-]+))"
    r"\s+(?:(?:actually|originally)\s+)?(?:written|implemented|programmed|coded|developed)(?:\s+in)?",
    r"(?:in\s+)?(?:which|what)\s+programming\s+language\s+(?:is|was|does)\s+(?:it|they)\s+(?:use|used|using|in)",
    r"in\s+welcher\s+(?:programmier)?sprache\s+(?:ist|wurde)\s+(?:es|er|sie|das\s+\w+)\s+(?:geschrieben|programmiert)",
    r"(?:dans|en)\s+quel\s+langage\s+.{2,40}\s(?:écrite?|programmée?|développée?)",
    r"¿?en\s+qué\s+lenguaje\s+.{2,40}\s(?:escrit[oa]|programad[oa]|desarrollad[oa])",
)  # fmt: skip
_LANGUAGE = (
    r"(?:ANSI\s+C|C\+\+|C#|C|Objective-?\s?C|Java(?:Script)?|TypeScript|Python|Perl|Ruby|PHP|Fortran|FORTRAN|Pascal|Delphi|Ada|Lisp|Scheme|Clojure"
    r"|Haskell|O?Caml|OCAML|ML|Erlang|Elixir|Scala|Kotlin|Go|Rust|Swift|Lua|Tcl(?:/Tk)?|R|S|MATLAB|Matlab|Octave|Julia|Prolog|COBOL|BASIC|Basic"
    r"|Visual\s+Basic|Smalltalk|[Aa]ssembl(?:y|er)|[Ss]hell|Bash|AWK|awk|Vala|D|Eiffel|Forth|PostScript|TeX|LaTeX|MetaPost)"
)
_WRITTEN_IN = regex(
    rf"\b(?:written|implemented|programmed|coded|developed|re-?written|geschrieben|programmiert|implementiert|écrite?|programmée?|escrit[oa]|programad[oa])\b"
    rf"[^.;]{{0,30}}?\b(?:in|using|with|en)\s+(?:the\s+)?(?:[\w-]+\s+){{0,3}}?{_LANGUAGE}(?![\w+#])"
)
_IS_ONE_IN = regex(rf"\b(?:is|are|was)\s+an?\s+(?:[a-z-]+\s+){{0,2}}{_LANGUAGE}\s+{THING}\b")
"""Says what it is with the language: "Wellkeep is a Perl script"."""
_ITSELF = regex(
    rf"^\W*(?:it|(?:this|the)\s+(?:\w+\s+)?(?:{THING}|code|source\s+code|implementation))\b", re.I
)
_ASKS_RELEASE = whole_forms(
    r"when\s+(?:was|did)\s+(?:(?:the\s+)?(?:version|release)\s+)?v?(?P<version>\d+(?:\.\d+)+\w*)\s+(?:released|published|issued|made|come\s+out|appear)",
    r"(?:what|which)\s+(?:is\s+the\s+)?(?:release\s+)?date\s+(?:of|has|does)\s+(?:(?:version|release)\s+)?v?(?P<dated>\d+(?:\.\d+)+\w*)(?:\s+have)?",
)  # fmt: skip


def answer_making(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What says in which language the program is written, or when a version of it came out.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.

    Returns:
        None where neither is asked.
    """
    return _written_in(document, typed, search) or _released(document, typed, search)


def _written_in(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What says in which programming language it is written; None where that is not asked."""
    asked = first_match(_ASKS_LANGUAGE, typed)
    if asked is None:
        return None
    name = (asked.groupdict().get("name") or "").lower()
    wanted = {name} if name else own_words_of(document)
    sentences = document.text.sentences
    said = [r for r, each in enumerate(sentences) if each.kind in ("body", "item", "entry", "note")]
    rows = [row for row in said if _WRITTEN_IN.search(sentences[row].text)]
    is_one = (row for row in said if _is_of(sentences[row].text, wanted, _IS_ONE_IN))
    best = next((r for r in rows if _is_of(sentences[r].text, wanted)), next(is_one, None))
    if best is not None:
        return told_by(document, search(typed), best, best + 1, SURE)
    found = search(typed)
    if rows and not name:
        return told_by(document, found, rows[0], rows[0] + 1, OF_ANOTHER)
    return declining(found, "It does not say in which programming language it is written.")


def _is_of(text: str, wanted: Set[str], says: Pattern[str] = _WRITTEN_IN) -> bool:
    """Whether what is written in a language is what is asked about, by its name or as "it"."""
    match = says.search(text)
    if match is None:
        return False
    subject = list(words(text[: match.start()].lower()))[-SUBJECT:]
    return bool(wanted & set(subject)) or _ITSELF.match(text) is not None


def _released(document: ReadDocument, typed: str, search: Callable[[str], Answer]) -> Answer | None:
    """The line that has a version with a date: "3.0.0 (26/08/20)"; None where none is asked for."""
    asked = first_match(_ASKS_RELEASE, typed)
    if asked is None:
        return None
    groups = asked.groupdict()
    version = re.escape(groups.get("version") or groups.get("dated") or "")
    beside = re.compile(rf"(?<![\w.])v?{version}(?![\w.]*\w)(?P<after>.{{0,{NEAR}}})")
    for row, said in enumerate(document.text.sentences):
        match = beside.search(said.text)
        if match is not None and (has_date(match["after"]) or _DATE.search(match["after"])):
            found = told_by(document, search(typed), row, row + 1, ON_DATE)
            return replace(found, kind="when")
    return None


_DATE = regex(r"\b\d{1,4}[/.-]\d{1,2}[/.-]\d{2,4}\b")
