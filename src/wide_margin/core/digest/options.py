"""Which options a command line takes, and what it does with one, where a manual describes them."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.digest.gist import names_of
from wide_margin.core.digest.named import IN_WORDS, is_no_description
from wide_margin.core.digest.overview import NOT_SAID
from wide_margin.core.digest.telling import THING
from wide_margin.core.later import first_match, regex, whole_forms
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from collections.abc import Callable, Iterable, Iterator, Sequence

    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

SURE, SOMEWHERE = 0.85, 0.4
"""The chance that the options described one after the other are those that are asked for, and the
same of some in a long document under a title that says nothing of a call."""
LONG = 60
"""Pages of a document that may describe options of many things."""
FEWEST, MOST = 3, 12
"""Options that make a list, and those of it that are quoted."""
SHORT = 2
"""Signs of a short option, with its dash."""
AT_FIRST = 2
"""Options that each command has, such as that for help, are among so many."""
APART = 30
"""Sentences between two options of one list at most."""
CHIEFLY = 0.5
"""Share of all options of a document from which on a list is that of the whole."""
_WHICH = (
    r"(?:(?:what|which)\s+(?:are\s+)?(?:all\s+)?(?:of\s+)?(?:the\s+)?|(?:list|show|name|give)\s+(?:me\s+)?(?:all\s+)?(?:the\s+)?"
    r"|welche\s+|quelles?\s+(?:sont\s+(?:les\s+)?)?|qu[ée]\s+|cu[áa]les\s+son\s+las\s+|quali\s+(?:sono\s+le\s+)?|quais\s+(?:são\s+as\s+)?)"
)
_OPTIONS = (
    r"(?:(?:different|available|possible|supported|valid)\s+)?"
    r"(?:command[- ]?line\s+(?:options|switches|flags|arguments|parameters)|options|switches|flags|optionen|schalter|opciones|opzioni|opções)"
    r"(?:\s+(?:on|for|of)\s+the\s+command[- ]?line)?"
)
_THERE = (
    r"(?:are\s+there|exist|are\s+(?:available|supported|understood|accepted|possible)|can\s+be\s+(?:given|used|set|passed|specified)"
    r"|can\s+i\s+(?:use|give|set|pass|specify)|gibt\s+es|y\s+a-t-il|existent|hay|existen|ci\s+sono|existem|há)"
)
_TAKES = r"(?:have|take|know|accept|support|offer|understand|recogni[sz]e|provide)"
_ASKED = whole_forms(
    rf"{_WHICH}{_OPTIONS}(?:\s+{_THERE})?",
    rf"{_WHICH}{_OPTIONS}\s+(?:does|do|can)\s+(?P<taker>\S.*?)\s+{_TAKES}",
    rf"{_WHICH}{_OPTIONS}\s+(?:{_THERE}\s+)?(?:of|for|to|with)\s+(?P<taker>\S.*?)",
)
_COMMAND = r"[“\"‘'`]?(?P<name>[\w./+-]*\w(?:\s+--?\w[\w-]*)+)[”\"’'`]?"
_DOES = whole_forms(
    rf"what\s+(?:does|do)\s+(?:the\s+)?(?:command\s+)?{_COMMAND}\s+(?:do|mean)",
    r"(?:was\s+(?:macht|bewirkt|tut)|que\s+fait|qué\s+hace|(?:che\s+)?cosa\s+fa|o\s+que\s+faz|wat\s+doet)\s+"
    rf"(?:(?:der\s+befehl|la\s+commande|el\s+comando|il\s+comando|o\s+comando|het\s+commando)\s+)?{_COMMAND}",
)
"""Asks what a command does as it is typed with an option: "dpkg -S"."""
_WHOLE = regex(rf"(?:it|(?:this|the)\s+(?:command(?:[- ]line)?|{THING}))$", re.I)
"""What takes the options, where that is what the document is on."""
_OPTION = regex(
    r"(?:[^\w[–—-]|_){0,2}(?P<option>(?:-{1,2}|[–—])[^\W\d_][\w-]*|-[\d?#])(?=$|[\s,;|=<\[(/]|[.:](?:\s|$))"
)
"""Begins what describes an option: "-w, --wet  Wind a wet rope"."""
_NAMED_SO = regex(
    r"\b(?:options?|switches|flags|command[- ]?line|invo(?:king|cation)|usage|synopsis|using|running|calling|starting|parameters|arguments"
    r"|optionen|schalter|aufruf|utilisation|uso|opciones|opzioni|opções|parámetros?|parametri|parâmetros)\b", re.I
)  # fmt: skip
"""In the title of a section on how a command is called."""


class _Described(NamedTuple):
    """An option with the rows [row, end) that say what it does."""

    option: str
    row: int
    end: int


def answer_options(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """The options of a command line; None where none are asked for, or none are described as such.

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_ASKED, typed)
    if asked is None:
        return None
    taker = asked.groupdict("").get("taker", "").strip("“”\"‘’'`")
    lists = _lists(document, _described(document))
    if taker and not _WHOLE.match(taker):
        named = frozenset(words(taker))
        is_own = named <= {*names_of(document), "the", "command", "program"}
        lists = [
            one for one in lists
            if is_own or named <= {*words(" ".join(_titles(document, one)))}
        ]  # fmt: skip
    found = _chief(document, lists)
    if found is None:
        return None
    is_titled = any(map(_NAMED_SO.search, _titles(document, found)))
    sure = SURE if is_titled or document.facts.n_pages < LONG else SOMEWHERE
    answer = replace(search(typed), kind="list")
    told = [told_by(document, answer, one.row, one.end, sure) for one in found[:MOST]]
    n_found = len(found) if len(found) > MOST else 0
    return replace(told[0], quotes=tuple(one.quotes[0] for one in told), n_found=n_found)


def answer_command(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """What a command does with an option, by the row that begins with both; None without one.

    An item may end with them: "Remove a package: dpkg --purge foo". Capitals count: "-l" is another
    option than "-L".

    Args:
        document: It.
        typed: The question.
        search: Finds an answer to a question.
    """
    asked = first_match(_DOES, typed)
    if asked is None:
        return None
    name = re.escape(" ".join(asked["name"].split()))
    begins = re.compile(rf"{name}(?=[\s:,—–]|$)(?P<said>.*)", re.S)
    ends = re.compile(rf".*:\s*{name}(?:\s+[\w./*-]+)?\W*$", re.S)
    for row, sentence in enumerate(document.text.sentences):
        is_row = sentence.kind in ("row", "entry")
        match = begins.match(sentence.text) if is_row else None
        is_said = match is not None and IN_WORDS.search(match["said"]) is not None
        if is_said or (sentence.kind == "item" and ends.match(sentence.text)):
            return told_by(document, search(typed), row, row + 1, SURE)
    return None


def _described(document: ReadDocument) -> Iterator[_Described]:
    """Every option where it is described, in reading order."""
    sentences = document.text.sentences
    for row, sentence in enumerate(sentences):
        match = _OPTION.match(sentence.text)
        if match is None or sentence.kind in NOT_SAID or sentence.kind == "works":
            continue
        rest = sentence.text[match.end() :]
        if is_no_description(rest):
            continue
        if IN_WORDS.search(rest):
            yield _Described(match["option"], row, row + 1)
        elif row + 1 < len(sentences) and _describes(document, row + 1):
            yield _Described(match["option"], row, row + 2)


def _describes(document: ReadDocument, row: int) -> bool:
    """Whether what follows an option on a line of its own says what it does."""
    said = document.text.sentences[row]
    return (
        said.kind in ("body", "entry", "item")
        and _OPTION.match(said.text) is None
        and IN_WORDS.search(said.text) is not None
    )


def _lists(document: ReadDocument, described: Iterable[_Described]) -> list[list[_Described]]:
    """Options that follow each other closely, each once; those of three or more.

    Where one of the first comes again in another section, those of another command begin.
    """
    sentences, lists = document.text.sentences, [list[_Described]()]
    last = -1
    for one in described:
        again = [o for o in lists[-1] if o.option == one.option]
        first = [o for o in again if o in lists[-1][:AT_FIRST]]
        begins = any(sentences[o.row].section != sentences[one.row].section for o in first)
        if begins or one.row - last > APART:
            lists.append([one])
        elif not again:
            lists[-1].append(one)
        last = one.row
    return [one for one in lists if len(one) >= FEWEST and any(map(_is_small, one))]


def _is_small(one: _Described) -> bool:
    """Whether an option is a letter, or in small ones: "-Car Loan" stands in a list of accounts."""
    name = one.option.lstrip("-–—")
    return name[:1].islower() or (name.isalpha() and len(one.option) <= SHORT)


def _chief(document: ReadDocument, lists: Sequence[list[_Described]]) -> list[_Described] | None:
    """The list that has most of the options, or else the only one under a title on calling it."""
    longest = max(lists, key=len, default=None)
    if longest is None or len(longest) >= CHIEFLY * sum(map(len, lists)):
        return longest
    called = [one for one in lists if any(map(_NAMED_SO.search, _titles(document, one)))]
    return called[0] if len(called) == 1 else None


def _titles(document: ReadDocument, options: Sequence[_Described]) -> Sequence[str]:
    """The titles of the sections around a list."""
    section = document.text.sentences[options[0].row].section
    return document.outline.path(section) if section >= 0 else ()
