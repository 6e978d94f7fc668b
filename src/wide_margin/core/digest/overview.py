"""Questions about the whole document or a part of it, answered from its structure."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Iterator, Sequence, Set
from dataclasses import replace
from itertools import islice
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers import Answer, Excerpt, Quote, section_reach
from wide_margin.core.answers.reading import paragraphs_within
from wide_margin.core.answers.within import allowed_sentences, pages_covered
from wide_margin.core.answers.within import rows_within as rows_of_spans
from wide_margin.core.digest.asked import OF_ITSELF, names_thing, own_words
from wide_margin.core.digest.authors import HELD, people_holding, row_on_authors
from wide_margin.core.digest.by_kind import (
    AUDIENCE,
    CHANGES,
    CONCLUSION,
    DATA,
    LIMITS,
    LONG,
    MANY_SENTENCES,
    NEEDS,
    NEXT,
    NEXT_TO_BEST,
    OF_DETAIL,
    OF_NO_SECTION,
    PURPOSE,
    SLOTS,
    STATED,
    WHY,
    Slot,
    fill,
    n_in_front,
    role_at,
    slot_scores,
    tells_news,
)
from wide_margin.core.digest.facts import facts_within
from wide_margin.core.digest.gist import GistLine, choose, gist_lines, names_of
from wide_margin.core.digest.on_slides import about_slides, is_talk
from wide_margin.core.digest.phrasing import LEGAL
from wide_margin.core.digest.roles import CUES, OUTLINES, Role
from wide_margin.core.digest.section_lines import PART_WORDS, rows_of_part
from wide_margin.core.digest.sentences import SPEAKS_OF_SECTION
from wide_margin.core.digest.telling import (
    OF_DOCUMENT,
    OF_READERS,
    TELLING,
    THING,
    file_as_text,
    naming,
    says_what_it_is,
    says_what_this_does,
    tells,
)
from wide_margin.core.digest.titled import KINDS as TITLED
from wide_margin.core.digest.titled import (
    begins_in,
    is_on_beginning,
    of_version,
    rows_of_version,
    rows_telling,
    sections_titled,
    title_of,
    versions_in,
    words_titling,
)
from wide_margin.core.digest.titles import UNDER_NAME
from wide_margin.core.explain.definitions import defines_term, without_notes
from wide_margin.core.explain.verbs import seems_to_have_verb
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare, words_for
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from re import Pattern

    from wide_margin.core.answers import Reach
    from wide_margin.core.digest.asked import Overview
    from wide_margin.core.digest.by_kind import Filled
    from wide_margin.core.digest.facts import Facts
    from wide_margin.core.digest.front import Fact
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.digest.telling import Naming
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.outline import Section
    from wide_margin.core.passages import Sentence

GIST_WORDS = 130
"""Length of an answer where none is asked for."""
N_TERMS, N_SLOT, N_TOLD = 8, 4, 2
BEGUN = 0.3
"""The chance that how a whole document begins says what it is about, where nothing in it does; so it
is with cards and specimens that are laid out like slides but have no first one with the title."""
OF_TALK = 0.75
"""The same of the title of a talk and its sections: of thirty-three, twenty-five tell it."""
UNTOLD = 0.5
"""The same of sentences chosen by their words alone, none of which says what it or its thing is: of
forty-nine documents half are told well by them."""
SURE, IN_ITS_PLACE = 0.9, 0.6
"""The chance that what a document's structure gives is right, and what only stands where such
things are said."""
EARLY = 10
"""The first part of so many in which a long document says what it is for."""
MID_EARLY = 3
"""The first part of so many in which one of some hundred sentences does."""
CHAPTER_LEVELS, N_FIRST = 3, 4
"""Levels of the outline whose sections speak for a long document, and how many sentences each."""
N_PURPOSE = 2
"""Sentences that say what it is, wherever they stand near the front."""
MOST_LICENCE = 80
WHOLE_LICENCE = 400
"""Words beyond which what stands under a licence is the licence itself."""
NOT_SAID = ("heading", "listing", "formula", "figure", "number", "stamp")
"""Kinds of sentences that say nothing by themselves."""
_LICENCE = regex(
    r"\b(?:under|terms of|subject to|by)\b.{0,60}\b(?:licen[sc](?:es?|ing)|gpl|lgpl|gfdl|creative commons|public domain)\b"
    r"|\blicen[sc]e (?:was|is|has been) (?:chosen|adopted|selected)\b",
    re.I,
)
"""A sentence that says under which licence something is given."""
_OF_ANY_LICENCE = regex(
    r"\b(?:an?|any|some|their|your) (?:\w+ )?(?:products?|programs?|works?|code|software|projects?|applications?) under an?\b", re.I
)  # fmt: skip
"""Speaks of licences of some sort: "to place a program under an open source licence"."""
_STEP = regex(
    r"^\W*(?:\d+[.)]|in order to\b|to \w+\b[^,]{2,60},(?!\s(?:we|i) (?:have )?(?:developed|present|introduce|propose|created|built|designed|wrote)\b)|(?:please |just |first |now |then |next,? )?(?:click|select|choose|press|use|type|enter|open|run|see|note|try|start|make sure|be sure|check|set|add"
    r"|remove|insert|copy|move|put|go|load|save|create|install|download|write|read|consider|let(?:'s| us)|remember|assume|suppose|edit|change"
    r"|replace|refer|consult|do not|don.t|keep|leave|give|specify|drag|(?:double|right)-click"
    r"|you (?:can|may|must|should|need to|have to) (?:also |then |always )?(?:press|click|double-click|type|enter|select|choose|drag)"
    r"|consultez|voir|voyez|veuillez|cliquez|utilisez|siehe|klicken|wählen|verwenden|consulte|véase|utilice|pulse|vedere|consultare|consulte|zie)\b|(?:if|when|once|after|before|unless|whenever) you\b"
    r"|(?:se|caso) (?:você|tiver|quiser|precisar|desejar|hai|vuoi|desideri|volete|avete)\b|si (?:vous|usted|tiene|desea|quiere|necesita)\b|(?:wenn|falls|sobald|bevor) sie\b)"
    r"|https?://|<\w+[>.]", re.I
)  # fmt: skip
"""One step of many, and an address: no reader asks for them first."""
_ADDRESS_ALONE = regex(r"\W*(?:<?\S+(?:://|@)\S+)?\W*")
"""Nothing but an address."""
_ADDRESS_ASIDE = regex(r"\s\((?:https?|ftp)://[^()\s]*\)")
"""Where a thing is found that a sentence tells of: "Wellkeep (https://wells.example) is"."""
_LABELLED = regex(r"^\W*\w+(?: \w+)?: ")
"""What is said of a thing named before it: "Returns: the last alert"."""
_OF_STUDIES = frozenset(["method", "result", "conclusion"])
"""What a study has: where another kind of document seems to say it, hardly any does."""
OF_STRAY, PLAIN = 0.45, 0.8
"""Of the chance that a sentence somewhere tells what the whole needs or lacks, where it is less
than the second: of fifteen such answers on manuals four were right, whose chance was told as two
thirds; in articles that say so plainly it was told as more than the second."""
_CHIEFLY = "(?:main|key|chief|central|basic|principal|fundamental|underlying|core|guiding)"
_CHIEF = regex(
    rf"\b(?:the|its) {_CHIEFLY} (?P<what>idea|point|message|argument|thesis|claim|insight|principle)\b",
    re.I,
)
N_STATED = 2
"""Sentences of what is stated in so many words."""
OF_SUBTITLE = 5
"""Words of a subtitle that says what a document is about."""
FEW_WORDS = 8
"""Words that what stands for a chapter has at least."""
LEAST_LEFT = 12
"""Words that must be left for another sentence."""
_SLOTS: dict[str, Slot] = {
    "limits": LIMITS, "conclusion": CONCLUSION, "next": NEXT, "why": WHY, "audience": AUDIENCE,
    "needs": NEEDS, "data": DATA, "purpose": PURPOSE, "new": CHANGES,
    "findings": Slot("Findings", "result", (Role.RESULTS, Role.CONCLUSION, Role.ABSTRACT), late=True),
    "method": Slot("Method", "method", (Role.METHOD, Role.ABSTRACT, Role.INTRODUCTION)),
    "begin": Slot("Where to begin", "audience", (Role.INTRODUCTION,)),
    "organised": Slot("How it is organised", "purpose", (Role.INTRODUCTION,)),
}  # fmt: skip


def answer_overview(
    document: ReadDocument, asked: Overview, scored: Scored, facts: Facts, typed: str
) -> Answer:
    """Answer a question about the whole or a part from the document's structure, or decline."""
    rows = rows_within(document, asked.reach)
    lines, sure = _lines(document, asked, scored, facts, rows)
    if not lines and asked.kind in ("section", "page", "about"):
        lines = _as_it_begins(document, rows, asked.form.max_sentences or asked.n_points or N_SLOT)
        sure = min(sure, BEGUN) if asked.reach.kind == "document" else sure
    ranked = _ranked(document, scored, asked, lines)
    excerpts = _as_excerpts(ranked) or _nearest(document, scored, rows)
    answer = answer_of_lines(document, typed, asked.kind, asked.reach, lines, sure)
    return replace(answer, excerpts=excerpts)


def answer_of_lines(
    document: ReadDocument,
    typed: str,
    kind: str,
    reach: Reach,
    lines: Sequence[GistLine],
    sure: float,
) -> Answer:
    """An answer that quotes some lines and has them as its excerpts; it declines without any."""
    n_searched, n_pages, without = pages_covered(document, reach)
    return Answer(
        question=typed.strip(), kind=f"overview: {kind}", reach=reach,
        quotes=tuple(Quote(line.text, (line.locator,)) for line in lines),
        excerpts=_as_excerpts(lines), n_searched=n_searched, n_pages=n_pages,
        without_text=without, sure=sure if lines else 0.0,
    )  # fmt: skip


def _as_excerpts(lines: Sequence[GistLine]) -> tuple[Excerpt, ...]:
    return tuple(Excerpt(line.text, line.locator, 1.0) for line in lines)


def _ranked(
    document: ReadDocument, scored: Scored, asked: Overview, lines: Sequence[GistLine]
) -> list[GistLine]:
    """The lines of an answer, the one first that says most surely what is asked for."""
    rows = [line.sentence for line in lines]
    said = [row for row in rows if row >= 0]
    slot = _SLOTS.get(asked.kind, PURPOSE if asked.kind == "about" else None)
    found = slot_scores(document, scored, slot, said)[0] if slot else np.zeros(len(said))
    score = {row: float(scored.prior[row] + s) for row, s in zip(said, found, strict=True)}
    return sorted(lines, key=lambda line: -score.get(line.sentence, np.inf))


def rows_within(document: ReadDocument, reach: Reach) -> list[int]:
    """Rows of the sentences of a reach."""
    sentences = document.text.sentences
    if reach.kind == "pages":
        return [k for k, s in enumerate(sentences) if reach.first_page <= s.page <= reach.last_page]
    if reach.kind == "section":
        return list(document.rows_of(*paragraphs_within(document, reach)))
    if reach.spans:
        return rows_of_spans(document, reach.spans)
    said = np.flatnonzero(allowed_sentences(document, reach)).tolist()
    return said or list(range(len(sentences)))


def _nearest(document: ReadDocument, scored: Scored, rows: Sequence[int]) -> tuple[Excerpt, ...]:
    found = gist_lines(document, choose(scored, rows, n_sentences=3))
    return tuple(Excerpt(line.text, line.locator, 0.2) for line in found)


def _as_it_begins(document: ReadDocument, rows: Sequence[int], most: int) -> tuple[GistLine, ...]:
    """The first sentences of a reach, as they are, where none of them can stand for the others.

    A list, a table, a few words under a heading: what is there can still be shown.
    """
    sentences = document.text.sentences
    said = [
        r for r in rows
        if sentences[r].kind not in NOT_SAID and not _ADDRESS_ALONE.fullmatch(sentences[r].text)
    ]  # fmt: skip
    first = said or [r for r in rows if sentences[r].kind == "heading"][1:]
    return gist_lines(document, first[:most])


def _lines(
    document: ReadDocument, asked: Overview, scored: Scored, facts: Facts, rows: Sequence[int]
) -> tuple[tuple[GistLine, ...], float]:
    """What answers, and the chance that it does."""
    kind, form = asked.kind, asked.form
    if asked.reach.kind != "document":
        pages = [document.text.sentences[row].page for row in rows]
        facts = facts_within(facts, min(pages, default=0), max(pages, default=-1))
    limits = {"n_words": form.max_words, "n_sentences": form.max_sentences or asked.n_points}
    if kind in ("section", "page"):
        return _of_part(document, scored, rows, limits), SURE
    if kind == "about":
        return _about_asked(document, asked, scored, facts, rows)
    if kind == "licence":
        return _licence_asked(document, asked, scored, facts, rows)
    if kind == "authors and date":
        return _made_by_and_when(document, asked, facts)
    if kind == "organised":
        outlined = [r for r in rows if OUTLINES.search(document.text.sentences[r].text)]
        if outlined:
            return gist_lines(document, outlined[:6]), SURE
    if kind == "terms":
        return _terms(document, asked, scored, rows)
    if _TAKEN_AWAY.search(asked.question) and not _is_usual(CONCLUSION, facts):
        return _about_asked(document, asked, scored, facts, rows)
    most = form.max_sentences or asked.n_points or N_SLOT
    if kind in TITLED and (titled := _as_titled(document, asked, rows, most)):
        return titled, _sure_by_title(kind, titled[0])
    if kind == "limits" and (listed := _led_in(document, rows)):
        return gist_lines(document, listed), SURE
    if kind in TITLED and kind not in _SLOTS:
        said = rows_telling(document, kind, rows)[:N_TOLD]
        return gist_lines(document, said), IN_ITS_PLACE
    rows = _of_versions(document, asked, rows)
    slot = _SLOTS.get(kind, PURPOSE)
    if kind == "purpose" and len(rows) > LONG:
        rows = _early(rows)
    of_thing = names_thing(document, asked.question) if kind == "purpose" else frozenset()
    if of_thing and (told := _of_thing(document, scored, rows, of_thing, most)):
        return told, IN_ITS_PLACE
    said_so = rows_telling(document, kind, rows)[:1]
    told_so = gist_lines(document, said_so), IN_ITS_PLACE if said_so else 0.0
    if kind in ("conclusion", "next") and not _has_end(scored):
        return told_so
    # The weaker signs are English: in another language what does not say it plainly is left.
    is_foreign = document.index.language != "en"
    filled = fill(document, scored, slot, rows, most=most, only_told=is_foreign)
    if kind == "purpose" and (said := _purpose(document, asked, filled, rows)):
        return gist_lines(document, said[:most]), IN_ITS_PLACE
    if filled.lines:
        sure = _sure_of(filled, asked, slot, facts, len(rows))
        return filled.lines, min(sure, IN_ITS_PLACE) if of_thing else sure
    if kind in ("conclusion", "findings"):
        return concluding(document, scored, rows, most), IN_ITS_PLACE
    if kind in ("purpose", "organised", "begin"):
        return about(document, scored, rows, limits), IN_ITS_PLACE
    return told_so


def _of_part(
    document: ReadDocument, scored: Scored, rows: Sequence[int], limits: dict[str, int]
) -> tuple[GistLine, ...]:
    """What a section or page says: its chief sentences, or the titles of the slides in it."""
    if is_talk(document):
        limits = limits if any(limits.values()) else {"n_words": PART_WORDS, "n_sentences": 0}
        return about_slides(document, rows, limits)
    return gist_lines(document, rows_of_part(document, scored, rows, **limits))


def _of_versions(document: ReadDocument, asked: Overview, rows: Sequence[int]) -> Sequence[int]:
    """The rows that name the version whose changes are asked for; all where none is."""
    versions = versions_in(asked.question) if asked.kind == "new" else frozenset()
    sentences = document.text.sentences
    return [r for r in rows if versions_in(sentences[r].text) & versions] if versions else rows


def _led_in(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """Rows of a list of limits of the whole, with the line that leads in to it."""
    sentences = document.text.sentences
    for row in rows:
        if not _LEADS_TO_LIMITS.match(sentences[row].text) or own_words(
            document, sentences[row].text
        ):
            continue
        after = range(row + 1, min(row + N_SLOT + 2, len(sentences)))
        last = max((k for k in after if sentences[k].kind == "item"), default=row)
        if last > row:
            return [row, *range(row + 1, last + 1)]
    return []


def _terms(
    document: ReadDocument, asked: Overview, scored: Scored, rows: Sequence[int]
) -> tuple[tuple[GistLine, ...], float]:
    """The terms that it gives a meaning to: its section on them, else what clearly defines one."""
    if titled := _as_titled(document, asked, rows, N_TERMS):
        return titled, SURE
    slot = Slot("Terms", "definition", (Role.INTRODUCTION,))
    cue, sentences = CUES[slot.cue], document.text.sentences
    may = (row for row in rows if cue.search(sentences[row].text.lower()))
    said = [row for row in may if defines_term(document, row)]
    return fill(document, scored, slot, said, most=N_SLOT).lines, OF_NO_SECTION


def _about_asked(
    document: ReadDocument, asked: Overview, scored: Scored, facts: Facts, rows: Sequence[int]
) -> tuple[tuple[GistLine, ...], float]:
    """What the whole or a part is about, and the chance that it answers."""
    form = asked.form
    if stated := _stated(document, asked.question, rows):
        return gist_lines(document, stated[: form.max_sentences or N_STATED]), IN_ITS_PLACE
    limits = {"n_words": form.max_words, "n_sentences": form.max_sentences or asked.n_points}
    lines = _chief_first(document, scored, about(document, scored, rows, limits), rows)
    if asked.reach.kind != "document":
        return lines, SURE
    titled = _under_its_title(document, scored, facts, lines)
    if titled != lines or _is_told(document, scored, lines):
        return titled, SURE
    if not is_talk(document):
        return titled, UNTOLD
    first = bare(lines[0].text) if lines else ""
    is_titled = bool(first) and facts.title is not None and first in bare(facts.title.text)
    return titled, OF_TALK if is_titled else BEGUN


def _is_told(document: ReadDocument, scored: Scored, lines: Sequence[GistLine]) -> bool:
    """Whether some of the lines says what the document is about in words that hardly err.

    It says what the thing is, or what the document does or is for, or stands in its abstract.
    """
    rows = [line.sentence for line in lines if line.sentence >= 0]
    sentences = document.text.sentences
    said = [sentences[row].text.lower() for row in rows]
    return (
        any(slot_scores(document, scored, PURPOSE, rows)[1])
        or any(_saying_what_it_is(document, scored, rows))
        or any(OF_DOCUMENT.match(t) and not OF_READERS.match(t) for t in said)
        or any(
            scored.roles[k] is Role.ABSTRACT for k in {sentences[r].section for r in rows} if k >= 0
        )
    )


def _sure_by_title(kind: str, first: GistLine) -> float:
    """The chance that a section called after what is asked answers that.

    How something is run is told somewhere under "Getting started", if it is.
    """
    title = " / ".join(first.locator.path[-2:])
    return IN_ITS_PLACE if kind == "run" and is_on_beginning(title) else SURE


def _sure_of(filled: Filled, asked: Overview, slot: Slot, facts: Facts, n_rows: int) -> float:
    """The chance that what fills a slot answers, less where it hardly can."""
    # No section is about it; some sentence somewhere is, and not in plain words.
    is_stray = asked.kind in TITLED and n_rows > MANY_SENTENCES and filled.sure < PLAIN
    sure = filled.sure * (OF_STRAY if is_stray else 1.0)
    return min(sure, OF_DETAIL if slot.cue in _OF_STUDIES and not _is_usual(slot, facts) else SURE)


def _is_usual(slot: Slot, facts: Facts) -> bool:
    """Whether documents of a kind usually tell what fills a slot."""
    return slot.cue in {own.cue for own in SLOTS[facts.kind]}


def _stated(document: ReadDocument, question: str, rows: Sequence[int]) -> list[int]:
    """Rows that say what an idea or a point is in the words of a question for it, and the next."""
    asked = _CHIEF.search(question)
    if asked is None:
        return []
    sentences = document.text.sentences
    stated = re.compile(
        rf"\b(?:the|our|its|my) {_CHIEFLY} {asked['what']}\b[^.;]{{0,60}}?\s(?:is|was)\b", re.I
    )
    said = {r for r in rows if sentences[r].kind in ("body", "item")}
    found = next((r for r in rows if r in said and stated.search(sentences[r].text)), -1)
    if found < 0:
        return []
    is_same = found + 1 in said and sentences[found + 1].paragraph == sentences[found].paragraph
    return [found, found + 1] if is_same else [found]


def _of_this(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """Rows near the front that say what "this program" is or does."""
    early = rows[: n_in_front(len(rows))]
    return [r for r in early if says_what_this_does(document.text.sentences[r].text.lower())]


BEGINNING = 60
"""Sentences at the beginning, in which "this program" is what the title names."""
_A_THING = regex(
    r"\b(?!the\b|this\b|our\b)[\w.-]+\s(?:program|package|library|tool|software)\b|^Package\s", re.I
)
"""Names a thing, or the section of a reference on one."""
_OF_NO_PART = regex(
    r"\W*(?:\w+\s){0,3}?this\s+(?:program|software|package|library|tool|system|application|document|is)\b",
    re.I,
)
"""Says it of the whole, and not of a class or a daemon in it."""


def saying_of_this(
    document: ReadDocument, rows: Sequence[int], names: Collection[str]
) -> list[int]:
    """Rows at the beginning that say what "this program" is or does."""
    sentences = document.text.sentences
    first = islice((row for row in rows if sentences[row].kind == "body"), BEGINNING)
    return [
        row for row in first
        if _OF_NO_PART.match(sentences[row].text)
        and says_what_this_does(sentences[row].text.lower())
        and not _is_on_another(document, row, names)
    ]  # fmt: skip


def _is_on_another(document: ReadDocument, row: int, names: Collection[str]) -> bool:
    """Whether a sentence goes on about another thing: "The pump program" in its title or before."""
    before, said = document.text.sentences[max(row - 1, 0)], document.text.sentences[row]
    title = document.outline.sections[said.section].title if said.section >= 0 else ""
    texts = [title, before.text if before.paragraph == said.paragraph else ""]
    return any(
        _A_THING.search(text) and not any(name in text.lower() for name in names) for text in texts
    )


_OF_DOCUMENT = regex(
    r"\bthis (?:document|manual|file|text|guide|paper|report|book|handbook|tutorial|essay)\b", re.I
)
"""Asks for the purpose of the document, and of nothing that it is on."""


_OF_WRITER = regex(r"\b(?:we|our|us|i|my|this)\b", re.I)
"""Speaks for those who wrote the document, or of it."""
FIRST_SAID = 60
"""Sentences at the front in which "this file" is the document."""


def _purpose(
    document: ReadDocument, asked: Overview, filled: Filled, rows: Sequence[int]
) -> list[int]:
    """Rows that say more plainly than others what a document, or its thing, is for."""
    if filled.sure < STATED and (said := _of_this(document, rows)):
        return said
    is_asked = _OF_DOCUMENT.search(asked.question) is not None
    is_own = any(_OF_WRITER.search(line.text) for line in filled.lines)
    return _of_document(document, rows) if is_asked and not is_own else []


def _of_document(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """Rows near the front that say of the document itself what it is for or holds."""
    sentences, telling = document.text.sentences, TELLING["purpose"]
    found = []
    for at, row in enumerate(rows[: n_in_front(len(rows))]):
        said = sentences[row].text.lower()
        if at < FIRST_SAID:  # further on it may be any file
            said = file_as_text(said)
        tells = OF_DOCUMENT.match(said) and telling.search(said)
        if tells and sentences[row].kind == "body":
            found.append(row)
    return found


def _of_thing(
    document: ReadDocument, scored: Scored, rows: Sequence[int], names: Set[str], most: int
) -> tuple[GistLine, ...]:
    """What says what the thing is for that a document is on, and not what the document is for."""
    said = {row: document.text.sentences[row].text.lower() for row in rows}
    among = [r for r, t in said.items() if not OF_DOCUMENT.match(t) and names & set(words(t))]
    return fill(document, scored, PURPOSE, among, most=most).lines if among else ()


def about(
    document: ReadDocument, scored: Scored, rows: Sequence[int], limits: dict[str, int]
) -> tuple[GistLine, ...]:
    """What it is about: what its opening says of it first, then the gist, in reading order.

    A long document says what it is in its preface or introduction; what its many sections say
    would drown that.
    """
    n_words, n_sentences = limits["n_words"], limits["n_sentences"]
    if not n_words and not n_sentences:
        n_words = GIST_WORDS
    if is_talk(document):
        return about_slides(document, rows, {"n_words": n_words, "n_sentences": n_sentences})
    aside = tells_news(document)
    rows = [r for r in rows if document.text.sentences[r].section not in aside] or rows
    # What a long document is for is said near its front, if at all.
    early = _early(rows) if len(rows) > LONG else rows
    scores, telling = slot_scores(document, scored, PURPOSE, early)
    scores[len(_early(rows)) :] = 0.0
    is_told = {row for row, tells in zip(early, telling, strict=True) if tells}
    order = sorted(range(len(early)), key=lambda k: -scores[k])[: 1 if n_sentences == 1 else 2]
    least = max(NEXT_TO_BEST * float(scores.max(initial=0.0)), 1e-9)
    first = [
        early[k]
        for k in order
        if scores[k] >= least and (n_sentences or scored.n_words[early[k]] < n_words)
    ]
    first = _with_what_it_is(document, scored, early, _each_once(document, first))
    if n_sentences:
        first = first[: (n_sentences + 1) // 2]
        n_left = n_sentences - len(first)
        rest = (
            choose(scored, [r for r in rows if r not in first], n_sentences=n_left)
            if n_left
            else ()
        )
    else:
        opening = _opening(document, scored, rows)
        left = n_words - sum(int(scored.n_words[r]) for r in first)
        if len(rows) > LONG and np.isfinite(scored.prior[opening]).any():
            # Asked in a question, and in no gist, which is of its chapters too.
            rows = opening = without_steps(document, opening)
        said = {document.text.sentences[r].text for r in first}
        among = [r for r in rows if document.text.sentences[r].text not in said]
        if left <= LEAST_LEFT:
            rest = []
        elif len(scored.prior) > LONG and rows is not opening:
            rest = _of_long(document, scored, among, left)
        else:
            rest = choose(scored, among, n_words=left)
    chosen = {*first, *(int(r) for r in rest)}
    lead = _leading(document, scored, first, is_told)
    return gist_lines(document, [*lead, *sorted(chosen.difference(lead))])


def _early(rows: Sequence[int]) -> Sequence[int]:
    """The rows near the front; deep in it, "this article" is one of several in the document."""
    if len(rows) > LONG:
        return rows[: max(len(rows) // EARLY, LONG // 4)]
    return rows[: max(len(rows) // MID_EARLY, MANY_SENTENCES)]


HEAD = 8
"""Sentences of an introduction among which one says what the thing does that it introduces."""


def _with_what_it_is(
    document: ReadDocument, scored: Scored, early: Sequence[int], first: list[int]
) -> list[int]:
    """The first sentence near the front that says what the thing is, where ``first`` tells nothing.

    It takes the place of the last of them.
    """
    names, sentences = naming(scored.names), document.text.sentences
    if names is None or any(names.tells.match(sentences[row].text.lower()) for row in first):
        return first
    near = (r for r in early[: n_in_front(len(sentences))] if sentences[r].kind == "body")
    found = list(islice(_saying_what_it_is(document, scored, near), 1))
    found = found or _introducing(document, scored, names)
    if not any(OF_DOCUMENT.match(sentences[row].text.lower()) for row in first):
        found = found or saying_of_this(document, early, scored.names)[:1]
    return [*found, *first[: len(first) - len(found)]]


def _introducing(document: ReadDocument, scored: Scored, names: Naming) -> list[int]:
    """The sentence at the head of an introduction that says what the named thing does."""
    sentences = document.text.sentences
    for section, role in zip(document.outline.sections, scored.roles, strict=True):
        if role is Role.INTRODUCTION:
            rows = document.rows_of(document.under_heading(section), section.end_paragraph)
            body = [r for r in rows[:HEAD] if sentences[r].kind == "body"]
            said = (r for r in body if np.isfinite(scored.prior[r]))
            return list(
                islice((r for r in said if names.works.match(sentences[r].text.lower())), 1)
            )
    return []


def _saying_what_it_is(
    document: ReadDocument, scored: Scored, rows: Iterable[int]
) -> Iterator[int]:
    """The rows that say what the thing is that a document is about: "Wellkeep is a …"."""
    names, sentences = naming(scored.names), document.text.sentences
    return (r for r in rows if says_what_it_is(names, without_notes(sentences[r].text.lower())))


def _leading(
    document: ReadDocument, scored: Scored, first: Sequence[int], is_told: Set[int]
) -> list[int]:
    """The first of what tells what a document is about; what says what its thing is goes before."""
    told = list(_saying_what_it_is(document, scored, first))
    told = told or [row for row in first if row in is_told]
    return sorted(told)[:1]


def _each_once(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """Rows without those whose very words another one has: abstract and introduction begin alike."""
    by_words: dict[str, int] = {}
    for row in rows:
        by_words.setdefault(document.text.sentences[row].text, row)
    return list(by_words.values())


def _of_long(
    document: ReadDocument, scored: Scored, rows: Sequence[int], n_words: int
) -> list[int]:
    """What a long document is about: how it opens, then what its chapters are about, each once.

    Chosen among all of them alike, it would be whatever a few of its many sections go on about.
    """
    sentences = document.text.sentences
    opens = [r for r in _opening(document, scored, rows) if not is_step(sentences[r].text)]
    opening = choose(scored, opens, n_words=n_words // 2)
    left = n_words - int(scored.n_words[opening].sum())
    chapters = _one_of_each(document, scored, [r for r in rows if r not in opening])
    return opening + (choose(scored, chapters, n_words=left) if left > LEAST_LEFT else [])


def _one_of_each(document: ReadDocument, scored: Scored, rows: Sequence[int]) -> list[int]:
    """The row of each chapter that says most; nothing of appendices, thanks and licences."""
    sentences, parents = document.text.sentences, document.outline.parents
    chapters: list[int] = []  # the outermost section around each, or -1 where none of them tells
    for section, parent in enumerate(parents):
        outer = chapters[parent] if parent >= 0 else section
        chapters.append(-1 if is_untold(document, section, scored.roles, parent) else outer)
    is_english = document.index.language == "en"
    best: dict[int, int] = {}
    for row in rows:
        section, text = sentences[row].section, sentences[row].text
        chapter = chapters[section] if section >= 0 else -1
        if chapter < 0 or not np.isfinite(scored.prior[row]):
            continue
        if _LABELLED.match(text) or text.endswith("?"):
            continue
        if is_english and not seems_to_have_verb(text):
            continue
        if scored.n_words[row] < FEW_WORDS:
            continue
        if chapter not in best or scored.prior[row] > scored.prior[best[chapter]]:
            best[chapter] = row
    return sorted(best.values())


def is_untold(document: ReadDocument, section: int, roles: Sequence[Role], parent: int) -> bool:
    """Whether a section does not speak for its document: an appendix, thanks, a licence."""
    if roles[section] in (Role.LEGAL, Role.THANKS, Role.APPENDIX):
        return True
    if parent >= 0:
        return False
    number = number_of(document.outline.sections[section].title)
    return number is not None and number.scheme in ("letter", *words_for("appendix"))


def is_step(text: str) -> bool:
    """Whether a sentence only tells the reader to do something, as one step of many."""
    return _STEP.search(_ADDRESS_ASIDE.sub("", text)) is not None


def _chief_first(
    document: ReadDocument, scored: Scored, lines: Sequence[GistLine], rows: Sequence[int]
) -> tuple[GistLine, ...]:
    """The line first that says near the front what the document is; the others as they come."""
    said, early = [line.sentence for line in lines], set(_early(rows))
    scores, telling = slot_scores(document, scored, PURPOSE, said)
    telling &= np.array([row in early for row in said], dtype=bool)
    if not telling.any():
        return tuple(lines)
    chief = int(np.argmax(np.where(telling, scores, -1.0)))
    return (lines[chief], *lines[:chief], *lines[chief + 1 :])


def _under_its_title(
    document: ReadDocument, scored: Scored, facts: Facts, lines: Sequence[GistLine]
) -> tuple[GistLine, ...]:
    """The lines after the subtitle, where none says what it is and the subtitle is long enough.

    On the page of a command what stands under its name says it in any case.
    """
    said, first = facts.subtitle, document.outline.sections[:1]
    if said is not None and first and bare(first[0].title) in UNDER_NAME:
        return (GistLine(said.text, said.locator, -1), *lines)
    if said is None or len(said.text.split()) < OF_SUBTITLE:
        return tuple(lines)
    _, telling = slot_scores(document, scored, PURPOSE, [line.sentence for line in lines])
    if telling.any():
        return tuple(lines)
    return (GistLine(said.text, said.locator, -1), *lines)


def without_steps(document: ReadDocument, rows: Sequence[int]) -> list[int]:
    """The rows without what only tells the reader to do something, where others are left."""
    sentences = document.text.sentences
    kept = [row for row in rows if not is_step(sentences[row].text)]
    return kept if 2 * len(kept) >= len(rows) else list(rows)


def telling_rows(document: ReadDocument, scored: Scored, rows: Sequence[int]) -> list[int]:
    """Rows of a long reach that speak for it: its opening, and how its chapters begin.

    Among thousands of sentences some odd ones always score well; where a document says what a
    part of it is about, at its beginning, there are none.
    """
    sentences = document.text.sentences
    opening = _opening(document, scored, rows)
    wanted = {row for row in opening if not is_step(sentences[row].text)}
    levels = sorted({s.level for s in document.outline.sections})[:CHAPTER_LEVELS]
    spoken: dict[int, int] = {}
    for row in rows:
        section = sentences[row].section
        if section < 0 or scored.roles[section] in (Role.LEGAL, Role.THANKS, Role.APPENDIX):
            continue
        if document.outline.sections[section].level in levels and np.isfinite(scored.prior[row]):
            spoken[section] = spoken.get(section, 0) + 1
            if spoken[section] <= N_FIRST and not is_step(sentences[row].text):
                wanted.add(row)
    # Some say what they are before their first section.
    front = rows[: len(rows) // EARLY]
    scores, telling = slot_scores(document, scored, PURPOSE, front)
    best = sorted(np.flatnonzero(telling).tolist(), key=lambda k: -scores[k])[:N_PURPOSE]
    wanted.update(front[k] for k in best)
    return sorted(wanted) if len(wanted) >= N_FIRST * 2 else list(rows)


def _opening(document: ReadDocument, scored: Scored, rows: Sequence[int]) -> list[int]:
    """Rows of the preface, abstract and introduction near the front."""
    sentences = document.text.sentences
    front = rows[: max(len(rows) // 20, 100)]
    return [
        r for r in front
        if 0 <= sentences[r].section < len(scored.roles)
        and scored.roles[sentences[r].section] in (Role.ABSTRACT, Role.INTRODUCTION)
    ]  # fmt: skip


def concluding(
    document: ReadDocument, scored: Scored, rows: Sequence[int], most: int
) -> tuple[GistLine, ...]:
    """The chief sentences of the section that concludes: the last of its kind, not of a chapter."""
    sections = document.outline.sections
    ends = [k for k, role in enumerate(scored.roles) if role is Role.CONCLUSION]
    if not ends:
        return ()
    level = min(sections[k].level for k in ends)
    last = sections[max(k for k in ends if sections[k].level == level)]
    inside = document.rows_of(last.first_paragraph, last.end_paragraph)
    within = [row for row in rows if row in inside]
    return gist_lines(document, choose(scored, within, n_sentences=most)) if within else ()


def _as_titled(
    document: ReadDocument, asked: Overview, rows: Sequence[int], most: int
) -> tuple[GistLine, ...]:
    """How the section begins that is called after what is asked for, in the words it is asked."""
    within, sentences = set(rows), document.text.sentences
    is_of_itself = asked.kind in OF_ITSELF or asked.kind == "terms"
    named = words_titling(asked.kind, asked.question)
    own = [] if is_of_itself else [bare(w) for w in own_words(document, named)]
    sections: Sequence[Section] = list(sections_titled(document, asked.kind))
    of_it: Sequence[Section] = ()
    if asked.kind == "new":
        own = [word for word in own if not word[:1].isdigit()]  # a version is told within
        of_it = of_version(document, sections, asked.question)
        sections = [*of_it, *(s for s in sections if s not in of_it)]
    if asked.kind == "bugs":  # "Getting help" tells it where nothing is called after bugs
        for_help = bool(_FOR_HELP.search(asked.question))
        sections = sorted(sections, key=lambda s: bool(_FOR_HELP.search(s.title)) != for_help)
    if asked.kind == "needs":  # "Hardware requirements" under "Requirements", where hardware is
        wanted = set(words(asked.question))
        own = [word for word in own if word not in _SORTS_OF_NEEDS]
        sections = [_part_called(document, each, wanted & _SORTS_OF_NEEDS) for each in sections]
        sections = sorted(sections, key=lambda s: -len(wanted.intersection(words(s.title))))
    for section in sections:
        title = bare(section.title)
        if not all(word in title for word in own):
            continue
        begins = begins_in(document, section, asked.kind)
        said = [
            row for row in rows_within(document, section_reach(begins))
            if row in within and bare(sentences[row].text) not in title
            and sentences[row].kind != "note"
        ]  # fmt: skip
        if asked.kind in _DONE_BY_STEPS and "where" not in words(asked.question.lower()):
            said = list(_after_openers(document, said)) or said
        elif asked.kind == "next":  # what has been reached often stands before it
            told = (k for k, row in enumerate(said)
                    if tells("next", sentences[row].text.lower(), is_front=False))  # fmt: skip
            said = said[next(told, 0) :]
        elif asked.kind == "new":
            led_in = rows_of_version(document, said, asked.question)
            said = led_in or (said if section in of_it else [])
        elif asked.kind == "bugs" and _REPORTS.search(asked.question):
            said = rows_telling(document, "bugs", said) or said
        if begun := _as_it_begins(document, said, most):
            return begun
    return ()


def _after_openers(document: ReadDocument, rows: Sequence[int]) -> Sequence[int]:
    """Rows after those that only speak of their section: "This chapter tells how to …"."""
    sentences, first = document.text.sentences, 0
    for k, row in enumerate(rows):
        said = sentences[row].text
        opens = SPEAKS_OF_SECTION.match(said) or _OPENS.match(said)
        if opens or (first and _GOES_ON_WITH_IT.match(said)):
            first = k + 1
        elif sentences[row].kind not in NOT_SAID:
            break
    return rows[first:]


_OPENS = regex(
    r"\W*(?:the (?:goal|purpose|aim|intention) of this (?:section|chapter)|(?:section|chapter) \d[\d.]* \w+s)\b", re.I
)  # fmt: skip
"""The same of the section, or of a part of it."""
_GOES_ON_WITH_IT = regex(r"\W*(?:\w+, )?it (?:is|also|does|will|can|should)\b", re.I)
"""Goes on about the section, after a sentence that speaks of it."""
_DONE_BY_STEPS = frozenset(["install", "run", "begin"])
_SORTS_OF_NEEDS = frozenset(["minimum", "minimal", "recommended", "basic", "system"])
"""Words with which requirements are asked for, whatever their section is called."""


def _part_called(document: ReadDocument, section: Section, wanted: Set[str]) -> Section:
    """The section within one whose title has a word of some; the one itself where none has."""
    outline = document.outline
    inner = (
        part for part, parent in zip(outline.sections, outline.parents, strict=True)
        if parent >= 0 and outline.sections[parent] is section
    )  # fmt: skip
    return next(
        (part for part in inner if not wanted.isdisjoint(words(part.title.lower()))), section
    )


_LEADS_TO_LIMITS = regex(
    r"\W*(?:the |known |main |current )*(?:limitations|drawbacks|disadvantages|shortcomings|restrictions|caveats)\b[^.;:]{0,60}:\W*$", re.I
)  # fmt: skip
_FOR_HELP = regex(r"\b(?:help|support)\b", re.I)
_REPORTS = regex(r"\b(?:report|file|send|submit)", re.I)
"""Asks where to, in a section that may begin with what is known to be wrong."""
_TAKEN_AWAY = regex(r"\btake-?aways?\b", re.I)
"""Asks for what is worth keeping in mind, concluded from anything or not."""


def _has_end(scored: Scored) -> bool:
    """Whether a document has a section where it concludes, or is short enough to do without."""
    ends = {Role.CONCLUSION, Role.DISCUSSION, Role.ABSTRACT}
    return len(scored.prior) < LONG or bool(ends & set(scored.roles))


_OF_THE_THING = regex(r"\bthis (?:software|program|package|library|system|work)\b", re.I)
"""Speaks of what the document is on."""
_WORD_LICENCE = regex(r"\blicen[sc]\w+\b", re.I)
"""What is asked for; a licence may be a document as well."""
_OF_PROGRAM = regex(rf"\b(?:{THING}|code)s?\b(?! foundation)", re.I)
"""Speaks of a program, and not of the Free Software Foundation."""


def _licence(
    document: ReadDocument, scored: Scored, facts: Facts, rows: Sequence[int]
) -> tuple[GistLine, ...]:
    """The printed notice, and sentences that name a licence by its name.

    Beside the notice only those count that name the thing: the text of a licence speaks of others.
    """
    fact = _of_facts(document, [facts.licence])
    sentences = document.text.sentences
    named = [
        r
        for r in rows
        if _LICENCE.search(sentences[r].text)
        and scored.n_words[r] < MOST_LICENCE
        and not _OF_ANY_LICENCE.search(sentences[r].text)
    ]
    title = {w.casefold() for w in document.facts.title.split() if len(w) > 3}
    of_it = [
        r for r in named if title & {w.casefold() for w in sentences[r].text.split()}
        or _OF_THE_THING.search(sentences[r].text)
    ]  # fmt: skip
    if facts.licence is not None:
        of_it = [r for r in of_it if sentences[r].text != facts.licence.text]
        return (*fact, *gist_lines(document, of_it[:2]))
    if not of_it and (stated := _under_licence(document, scored, rows)):
        return gist_lines(document, stated)
    others = [r for r in named if r not in of_it]
    return gist_lines(document, sorted([*of_it, *others][:3]))


def _licence_asked(
    document: ReadDocument, asked: Overview, scored: Scored, facts: Facts, rows: Sequence[int]
) -> tuple[tuple[GistLine, ...], float]:
    """The licence, less surely where only that of the document is known and its thing is named."""
    lines, said = _licence(document, scored, facts, rows), facts.licence
    named = names_thing(document, _WORD_LICENCE.sub(" ", asked.question))
    if said is None or len(lines) != 1 or not named:
        return lines, SURE
    is_of_copy = _OF_DOCUMENT.search(said.text) and not _OF_PROGRAM.search(said.text)
    return lines, IN_ITS_PLACE if is_of_copy else SURE


def _under_licence(document: ReadDocument, scored: Scored, rows: Sequence[int]) -> list[int]:
    """The first sentences of a section on the licence that is too short to be one."""
    sentences = document.text.sentences
    under = [r for r in rows if role_at(scored, sentences[r].section) is Role.LEGAL]
    said = [r for r in under if sentences[r].kind not in NOT_SAID]
    if not said or sum(int(scored.n_words[r]) for r in said) > WHOLE_LICENCE:
        return []
    return [r for r in said if LEGAL.search(sentences[r].text)][:N_TOLD]


def _of_facts(document: ReadDocument, facts: Sequence[Fact | None]) -> tuple[GistLine, ...]:
    said = {fact.locator: fact.locator.quote or fact.text for fact in facts if fact}
    return tuple(GistLine(text, place, -1) for place, text in said.items())


_WHO_WROTE = regex(r"\bwho|author|wrote|written by", re.I)
_WHO_PUBLISHED = regex(r"^(?!.*(?:author|wrote|written)).*\bpublish", re.I)
"""Asks for those who wrote it."""


def _on_authors(document: ReadDocument, asked: Overview) -> tuple[tuple[GistLine, ...], float]:
    """What the text says of the authors where the front names none, and the chance that it answers.

    What the section on them begins with, or who it says wrote it, or made the program that it is
    on, or only holds the copyright.
    """
    if not _WHO_WROTE.search(asked.question):
        return (), 0.0
    sentences = document.text.sentences
    front = n_in_front(len(sentences))
    row, sure = row_on_authors(document), SURE
    if row is None:
        row = _first_saying(sentences[:front], _IT_WAS_WRITTEN)
    if row is None:
        row, sure = _first_saying(sentences, _MADE_BY), IN_ITS_PLACE
    if row is None and (names := "|".join(map(re.escape, names_of(document)))):
        row = _first_saying(sentences, re.compile(rf"^\W*(?:the\s+)?(?:{names}){_MADE}", re.I))
    if row is None:
        row, sure = _first_saying(sentences[:front], HELD), OF_DETAIL
    row = _held_under_title(document) if row is None else row
    return gist_lines(document, [row] if row is not None else []), sure


def _held_under_title(document: ReadDocument) -> int | None:
    """The row of the first sentence under a title of licences that names the holders alone."""
    sections = document.outline.sections
    rows = (
        row for section in sections if _LEGAL_TITLE.match(section.title)
        for row in document.rows_of(document.under_heading(section), section.end_paragraph)
    )  # fmt: skip
    return next((r for r in rows if people_holding(document.text.sentences[r].text)), None)


_LEGAL_TITLE = regex(r"^\W*(?:[\d.]+\s+)?(?:copyright|copying|licen[sc]e|legal)\b", re.I)


def _made_by_and_when(
    document: ReadDocument, asked: Overview, facts: Facts
) -> tuple[tuple[GistLine, ...], float]:
    """Who wrote it and when, from its front or its text, and the chance that it answers."""
    told, sure = _authors_and_date(document, asked, facts), SURE
    if not told:
        told, sure = _on_authors(document, asked)
    return told, OF_DETAIL if _is_on_anothers(document, asked) else sure


def _first_saying(sentences: Sequence[Sentence], says: Pattern[str]) -> int | None:
    """The row of the first sentence in which something is said."""
    return next((r for r, said in enumerate(sentences) if says.search(said.text)), None)


_IT_WAS_WRITTEN = regex(
    r"\b(?:it|(?:this|the) (?:whole )?(?:manual|document(?:ation)?|guide|book|handbook|text|tutorial|report))"
    r" (?:was|is|has been) (?:\w+ly )?(?:written|edited|compiled) by (?-i:[A-ZÀ-Þ])", re.I
)  # fmt: skip
"""Says in the text who wrote a document that names nobody on its front."""
_MADE = (
    r" (?:was|is|has been) (?:\w+ly )?(?:first )?(?:written|made|developed|created|designed|programmed)"
    r" (?:and \w+ )?by (?-i:[A-ZÀ-Þ])"
)
_MADE_BY = regex(rf"(?:^|[;:,] |\b(?:and|but) )\W*(?:this|the) {THING}{_MADE}", re.I)
"""Says so of the program that a document is on."""


_ON_A_THING = regex(
    r"\b(?:beginners?|introduc\w+|tutorial|getting started|learning|primer|course|essential|crash|cheat|quick ?start|faq"
    r"|(?:(?<!user )(?<!user['’]s )(?<!users['’] )(?<!users )(?<!reference )guide|notes?|hints|tips) (?:to|on|for)|in \d+ minutes|for \w+graduates|einführung|einstieg|initiation|introducción"
    r"|introduzione|introdução|guía|guida)\b", re.I
)  # fmt: skip
"""In the title of what others than its makers write on a thing."""


def _is_on_anothers(document: ReadDocument, asked: Overview) -> bool:
    """Whether it is asked who wrote the thing that a document for beginners is on."""
    asks = _WHO_WROTE.search(asked.question) and _ON_A_THING.search(title_of(document))
    return bool(asks) and bool(names_thing(document, asked.question))


def _authors_and_date(
    document: ReadDocument, asked: Overview, facts: Facts
) -> tuple[GistLine, ...]:
    """The facts that are asked for, each as it is printed."""
    text = asked.question.casefold()
    wanted: list[Fact | None] = [facts.title] if re.search(r"\btitle\b", text) else []
    asks_when = bool(re.search(r"\bwhen\b|\b(?:what|which) (?:date|year)\b", text))
    asks_who = _WHO_WROTE.search(text) and not _WHO_PUBLISHED.search(text)
    if asks_who or ("written" in text and not asks_when):
        wanted += facts.authors
    asks_edition = bool(re.search(r"version|edition|release", text))
    if asks_edition:
        wanted.append(facts.edition)
    if re.search(r"\bwhen\b|\bdate|\byear|\bmonth|\bold\b", text) or (
        asks_edition and facts.edition
    ):
        wanted.append(facts.date)
    if re.search(
        r"where|publish|journal|magazine|proceedings|conference|earlier|original|come out", text
    ):
        wanted += [facts.place]
    return _of_facts(document, wanted)
