"""What the thing is that a document is about: asked by its name, answered where it is introduced."""

from __future__ import annotations

from collections.abc import Mapping, Sequence, Set
from itertools import islice, pairwise, takewhile
from typing import TYPE_CHECKING

from wide_margin.core.answers.form import take_form
from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.articles import without_article
from wide_margin.core.digest.by_kind import n_in_front
from wide_margin.core.digest.defined import shows_call
from wide_margin.core.digest.gist import GistLine, gist_lines
from wide_margin.core.digest.named import SAYS_NOTHING, own_rows, rows_titled
from wide_margin.core.digest.overview import (
    about,
    answer_of_lines,
    is_step,
    rows_within,
    saying_of_this,
)
from wide_margin.core.digest.telling import ON_TERMS, THING, naming, says_what_it_is
from wide_margin.core.digest.titled import title_of
from wide_margin.core.digest.titles import COMMAND, UNDER_NAME
from wide_margin.core.explain.definitions import without_notes
from wide_margin.core.explain.subjects_abroad import subject_abroad
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import guess_language
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Reach
    from wide_margin.core.digest.facts import Facts
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.document import ReadDocument

SAID, TOLD, ASIDE, NOT_SAID = 0.9, 0.6, 0.5, 0.3
"""The chance that it answers: what says near the front what the thing is, what says there what it
does, what says somewhere else what it is, and what only the whole document is about."""
N_SAID = 3
"""Sentences of an answer: what it is, and what it does or what follows."""
MOST_LISTED = 6
"""The same where it leads in to a list."""
LEAST_SAID = 4
"""Words after a name in a title that say what the thing is."""
_DASH, _BRACKETED = regex(r"\s[–—-]+\s|:\s"), regex(r"\([^)]*\)")
_ASKED = regex(
    r"^\W*(?:(?:so|and|please|well)\W+)*(?:what(?:['’]s|\s+is|\s+are|\s+does|\s+do|\s+can|\s+exactly\s+is)"
    r"|explain|describe|define|tell\s+me\s+(?:more\s+)?about|was\s+(?:ist|macht|sind)|wozu\s+dient"
    r"|qu['’]est[\s-]ce\s+qu[e'’]|c['’]est\s+quoi|à\s+quoi\s+sert|que\s+fait|qué\s+(?:es|hace)|para\s+qué\s+sirve"
    r"|(?:che\s+)?cos['’]è|che\s+cosa\s+fa|a\s+cosa\s+serve|o\s+que\s+(?:é|faz)|para\s+que\s+serve"
    r"|wat\s+(?:is|doet)|waarvoor\s+dient|vad\s+är|hvad\s+er|hva\s+er|mikä\s+on|mi\s+az?|ce\s+este"
    r"|τι\s+(?:είναι|κάνει)(?:\s+(?:το|η|ο|τα|οι))?|co\s+to\s+jest|czym\s+jest|co\s+je|что\s+такое)\s+(?P<name>\S.*?)"
    r"(?:\s+(?:do|provide|offer|for|about|(?:be\s+)?used\s+for|good\s+for|meant\s+for|capable\s+of|able\s+to\s+do|exactly|then))*[\s?!.;\u037e]*$"
)
_ASKED_AFTER = regex(
    r"^\W*(?:什么是|什麼是)\s*(?P<name>\S.*?)[\s?？。]*$"
    r"|^(?P<named>\S.*?)\s*(?:\slà\s+gì|是什么|是什麼|とは(?:何|なん)?(?:です|でしょう)?か?|(?:이란|란|은|는)?\s?무엇\S*)[\s?？。]*$"
)
"""The same where no blanks part words, or what asks comes last."""
_TITLED = (
    "what is {}",
    "what it is",
    "what it does",
    "what {} does",
    "what does {} do",
    "about {}",
    "introduction to {}",
    "overview of {}",
)
"""Titles of sections that say what a thing of a name is."""
_NAMED = ("{}",)
"""The title of one that may."""
_KIND = regex(rf"\s+{THING}$")
_THE_KIND = regex(rf"(?:the|this) {THING}")
"""The thing that a document is on, called by its kind."""


def _thing_asked(text: str) -> str:
    """What a question in small letters asks after, where it asks what that is; else nothing."""
    if (match := _ASKED.match(text)) is not None:
        return match["name"]
    match = _ASKED_AFTER.match(text)
    return (match["name"] or match["named"]) if match is not None else ""


def named_subject(typed: str, names: Sequence[str], title: str = "") -> str:
    """Which of a document's names a question asks about, and about nothing else; "" for none.

    Args:
        typed: As typed.
        names: What the document calls what it is about, in small letters.
        title: Its words in small letters, where several of them together may be asked about.
    """
    thing = _thing_asked(" ".join(take_form(typed)[0].split()).lower())
    if not thing:
        return ""
    asked = _KIND.sub("", without_article(thing, definite=True)).strip()
    if " " in asked and f" {asked} " in f" {title} ":
        return asked
    # "Bridge sampling" is what a package called bridgesampling does.
    apart = " " in asked
    return next(
        (n for n in names if bare(n) == bare(asked) and not (apart and n.isalnum())), ""
    )  # fmt: skip


def asks_of_the_thing(typed: str) -> bool:
    """Whether a question asks what the thing is or does, by its kind: "What is the library for?"."""
    thing = _thing_asked(" ".join(take_form(typed)[0].split()).lower())
    return _THE_KIND.fullmatch(thing) is not None


def might_ask(typed: str) -> bool:
    """Whether a question has the form of one for what something is or does."""
    return bool(_thing_asked(" ".join(typed.split()).lower()))


def introduced(document: ReadDocument, rows: Sequence[int], name: str) -> tuple[list[int], float]:
    """Rows of the sentences that say what a name stands for and go on with it, and how surely."""
    found, sentences = naming((name, *_longer(document, name))), document.text.sentences
    if found is None:
        return [], 0.0
    n_early = n_in_front(len(rows))
    within = set(rows)
    whole, *parts = document.index.analyser.terms(name) or ("",)
    written = {
        row: without_notes(sentences[row].text) for row in rows_with(document, parts or [whole])
        if row in within and sentences[row].kind not in SAYS_NOTHING
        and not (ON_TERMS.search(sentences[row].text) or _NOTE.match(sentences[row].text))
    }  # fmt: skip
    text = {row: said.lower() for row, said in written.items()}
    first = set(rows[:n_early])
    language = document.index.language
    is_a = [
        row for row, said in text.items()
        if says_what_it_is(found, said) or _is_subject(written[row], language, name)
    ]  # fmt: skip
    beside = [row for row, said in text.items() if row in first and found.beside.match(said)]
    does = [
        row for row, said in text.items()
        if row in first and found.works.match(said) and not said.endswith(":")
    ]  # fmt: skip
    if language == "en":
        is_a, does = _in_english(written, is_a), _in_english(written, does)

    def called(titles: Sequence[str]) -> list[int]:
        rows_called = _rows_called(document, name, titles)
        return [r for r in rows_called if r in within and sentences[r].kind not in SAYS_NOTHING]

    if command := [row for row in _of_command(document, name) if row in within]:
        return _with_what_it_does(command, does or list(first.intersection(text)), text, name), SAID
    told = (
        ([row for row in is_a if row in first], SAID),
        (beside, SAID),
        (called(_TITLED), TOLD),
        (is_a, ASIDE),
        (does, TOLD),
        (saying_of_this(document, rows, (name,)), TOLD),
        ([row for row in called(_NAMED) if _may_say(sentences[row].text)], ASIDE),
    )
    chief, sure = next(((some[0], sure) for some, sure in told if some), (-1, 0.0))
    if chief < 0:
        return [], 0.0
    paragraph, section = sentences[chief].paragraph, sentences[chief].section
    after = [
        row for row in document.rows_of(paragraph, paragraph + 1)
        if row > chief and row in within and not is_step(sentences[row].text)
    ]  # fmt: skip
    if listed := _listed_after(document, chief, within):
        return [chief, *listed], sure
    others = [row for row in does if sentences[row].section == section and row != chief]
    more = [
        row for row in (*after, *others)
        if not (sentences[row].text.endswith(":") or _POINTS.match(sentences[row].text))
    ]  # fmt: skip
    return sorted({chief, *more[: N_SAID - 1]}), sure


def _with_what_it_does(
    command: Sequence[int], rows: Sequence[int], text: Mapping[int, str], name: str
) -> list[int]:
    """Rows of what stands under a name, with the first of some that begin with it and tell more."""
    begin = f"{name.lower()} "
    more = (r for r in sorted(rows) if text[r].startswith(begin) and text[r].endswith("."))
    return [*command, *islice((r for r in more if r not in command), N_SAID - 1)]


def _of_command(document: ReadDocument, name: str) -> list[int]:
    """The row under "NAME" on the page of a command that is called so: "ls - list files"."""
    if not (first := document.outline.sections[:1]) or bare(first[0].title) not in UNDER_NAME:
        return []
    said = (row for row in own_rows(document, 0) if document.text.sentences[row].kind == "body")
    return [
        row for row in islice(said, 1)
        if (match := COMMAND.match(document.text.sentences[row].text))
        and bare(match["name"]) == bare(name)
    ]  # fmt: skip


_NOTE = regex(r"\d{1,2}[^\W\d_]")
"""A footnote with its mark: "1Technically, a jib is"."""
_POINTS = regex(r"\W*(?:(?i:the )?(?i:section|chapter|part|appendix|table|figure))s? [\dA-Z]")
"""Says what another place tells."""


def _listed_after(document: ReadDocument, chief: int, within: Set[int]) -> list[int]:
    """The items that a sentence without an end leads in to: "It is a tool that has"."""
    sentences = document.text.sentences
    if sentences[chief].text[-1:] in ".!?…:":
        return []
    after = range(chief + 1, min(chief + MOST_LISTED, len(sentences)))
    return [row for row in takewhile(lambda r: sentences[r].kind == "item", after) if row in within]


def _in_english(written: Mapping[int, str], rows: list[int]) -> list[int]:
    """The rows that say it in English, of a document in two languages; all where none does."""
    return [row for row in rows if guess_language(written[row]) == "en"] or rows


def _may_say(text: str) -> bool:
    """Whether what stands first under a name may say what it is: no step, and more than a label."""
    is_said = len(text.split()) >= LEAST_SAID and not _LABELLED.match(text)
    return is_said and not (is_step(text) or text.endswith(":") or shows_call(text))


_LABELLED = regex(r"[^\w\s]\W*\w+(?: \w+)?:\s")
"""An item that fills in a form: "• Files: the lids and the ropes"."""


def _longer(document: ReadDocument, name: str) -> tuple[str, ...]:
    """What stands for the name in the title: "Wellkeep Scheme", the file "wellkeep.cls"."""
    parts = title_of(document).lower().split()
    files = tuple(part for part in parts if part.rpartition(".")[0] == name)
    after = dict(pairwise(parts)).get(name, "")
    is_word = after.isalpha() and not is_common(after, "en")
    return (*files, f"{name} {after}") if is_word else files


def _is_subject(said: str, language: str, name: str) -> bool:
    """Whether a sentence in another language than English defines what begins with a name."""
    subject = subject_abroad(said, language) if language != "en" else None
    return subject is not None and f"{subject[0].lower()} ".startswith((f"{name} ", f"{name}-"))


def _rows_called(document: ReadDocument, name: str, titles: Sequence[str]) -> Sequence[int]:
    """Rows of the section that is called by what a thing is: "What is Wellkeep?"."""
    wanted = {bare(title.format(name)) for title in titles}
    for row, section in enumerate(document.outline.sections):
        if bare(unnumbered(section.title)) in wanted:
            return own_rows(document, row)
    return ()


def answer_subject(
    document: ReadDocument, typed: str, reach: Reach, name: str, *, least: float = 0.0
) -> Answer | None:
    """What a document says that a thing is; None where it does not, or less surely.

    Args:
        document: It.
        typed: The question.
        reach: Where it may say so.
        name: What it calls the thing, in small letters.
        least: The chance that it must have at least.
    """
    form = take_form(typed)[1]
    found, sure = introduced(document, rows_within(document, reach), name)
    lengths = [len(document.text.sentences[row].text.split()) for row in found]
    while form.max_words and sum(lengths[: len(found)]) > form.max_words:
        found = found[:-1]
    if not found or sure < least:
        return None
    lines = gist_lines(document, found[: form.max_sentences or None])
    return answer_of_lines(document, typed, "subject", reach, lines, sure)


def answer_by_title(
    document: ReadDocument, facts: Facts, typed: str, reach: Reach, name: str
) -> Answer | None:
    """The title, where it says what the thing is: "Wellkeep – an easy way to keep wells"."""
    said = _said_by_title(facts, name)
    return answer_of_lines(document, typed, "subject", reach, said, TOLD) if said else None


def answer_nearest(
    document: ReadDocument, scored: Scored, typed: str, reach: Reach, name: str
) -> Answer:
    """What a document is about, where it does not say what its thing is: the nearest there is."""
    form = take_form(typed)[1]
    limits = {"n_words": form.max_words, "n_sentences": form.max_sentences}
    lines = about(document, scored, rows_within(document, reach), limits)
    return answer_of_lines(
        document, typed, "subject", reach, lines[: form.max_sentences or N_SAID], NOT_SAID
    )


def _said_by_title(facts: Facts, name: str) -> tuple[GistLine, ...]:
    """The title that goes on with what the thing is, or the title and a subtitle that does."""
    title, more = facts.title, facts.subtitle
    if title is None:
        return ()
    parts = _DASH.split(title.text, maxsplit=1)
    is_of_it = bare(_BRACKETED.sub("", parts[0])) == bare(name)
    if is_of_it and len(parts) > 1 and len(parts[1].split()) >= LEAST_SAID:
        return (GistLine(title.text, title.locator, -1),)
    if more is None or len(more.text.split()) < LEAST_SAID:
        return ()
    said = more.text.lower()
    names_it = f" {bare(name)} " in f" {' '.join(map(bare, title.text.split()))} "
    is_a = without_article(said) != said  # "Guide to Wellkeep: A program that …"
    if is_of_it or (names_it and is_a):
        return GistLine(title.text, title.locator, -1), GistLine(more.text, more.locator, -1)
    return ()


def is_explained(document: ReadDocument, name: str) -> bool:
    """Whether the text may say what a name is though it does not introduce it.

    It is a word of the language, or has a section of its own.
    """
    is_word = document.index.language == "en" and frequency_rank(name) is not None
    return is_word or bool(rows_titled(document, name))
