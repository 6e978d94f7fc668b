"""The digest of a document: everything a reader wants to know before reading on."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, partial
from types import MappingProxyType
from typing import TYPE_CHECKING

from wide_margin.core.answers import WHOLE, Quote, Reach, answer_quoted, section_reach
from wide_margin.core.answers.form import take_form
from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.spelled import as_spelled, unranked
from wide_margin.core.digest.abroad import kind_abroad
from wide_margin.core.digest.asked import (
    Overview,
    matter_summed_up,
    names_thing,
    own_words,
    read_overview,
)
from wide_margin.core.digest.by_kind import (
    CONCLUSION,
    LONG,
    MOST_LINES,
    SLOTS,
    STATED,
    Filled,
    fill,
)
from wide_margin.core.digest.called import answer_call
from wide_margin.core.digest.codes import answer_code
from wide_margin.core.digest.compared import answer_compared
from wide_margin.core.digest.counted import answer_count
from wide_margin.core.digest.decided import with_what_decides
from wide_margin.core.digest.deeds_abroad import asks_who_abroad, with_deeds_abroad
from wide_margin.core.digest.defined import (
    MENTIONED,
    asks_of_option,
    with_definition,
    without_works,
)
from wide_margin.core.digest.done_so import with_what_is_done
from wide_margin.core.digest.exemplified import answer_example
from wide_margin.core.digest.facts import Facts, find_facts
from wide_margin.core.digest.funded import answer_funding
from wide_margin.core.digest.gist import GistLine, gist_lines, names_of, score
from wide_margin.core.digest.had_from import answer_had_from
from wide_margin.core.digest.in_part import answer_in_part
from wide_margin.core.digest.kinds import DocumentKind
from wide_margin.core.digest.known_before import answer_known_before
from wide_margin.core.digest.labelled import answer_labelled
from wide_margin.core.digest.led_in import with_what_follows
from wide_margin.core.digest.listed import with_led_list
from wide_margin.core.digest.matters import matter_asked, section_on, spoken_of, with_meaning
from wide_margin.core.digest.mentioned import answer_whether
from wide_margin.core.digest.named import content_of
from wide_margin.core.digest.needed import with_needed_version
from wide_margin.core.digest.numbered import with_its_number, with_its_release
from wide_margin.core.digest.on_slides import is_talk
from wide_margin.core.digest.options import answer_command, answer_options
from wide_margin.core.digest.overview import (
    IN_ITS_PLACE,
    about,
    answer_overview,
    concluding,
    rows_within,
    telling_rows,
    without_steps,
)
from wide_margin.core.digest.phrasing import LEGAL
from wide_margin.core.digest.pictured import answer_figure
from wide_margin.core.digest.printed import answer_printed
from wide_margin.core.digest.purposes import with_purpose
from wide_margin.core.digest.roles import OUTLINES
from wide_margin.core.digest.said_of import with_what_it_is
from wide_margin.core.digest.section_lines import SectionLine, rows_of_part, section_lines
from wide_margin.core.digest.selftest import TestQuestion, self_test
from wide_margin.core.digest.subject import (
    SAID,
    TOLD,
    answer_by_title,
    answer_nearest,
    answer_subject,
    asks_of_the_thing,
    is_explained,
    might_ask,
    named_subject,
)
from wide_margin.core.digest.telling import THING
from wide_margin.core.digest.terms import N_TERMS, KeyTerm, key_terms, phrases_of
from wide_margin.core.digest.thanked import answer_thanks
from wide_margin.core.digest.titled import title_of, titled_abroad
from wide_margin.core.digest.which_name import with_its_name
from wide_margin.core.digest.who_and_when import (
    OF_MAKER,
    row_of_keeper,
    tells_maker,
    thing_made,
    with_maker,
    with_measure,
)
from wide_margin.core.digest.written_in import answer_making
from wide_margin.core.explain import define
from wide_margin.core.later import regex
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.digest.by_kind import Slot
    from wide_margin.core.digest.gist import Scored
    from wide_margin.core.digest.matters import Matter
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain.definitions import Definitions
    from wide_margin.core.outline import Outline


@dataclass(frozen=True, slots=True)
class Digest:
    """What a document is and says, each part with its places."""

    facts: Facts
    kind: DocumentKind
    """What it is read as: the kind found, or the one the reader has chosen."""
    reach: Reach
    gist: tuple[GistLine, ...]
    by_kind: tuple[Filled, ...]
    sections: tuple[SectionLine, ...]
    terms: tuple[KeyTerm, ...]
    test: tuple[TestQuestion, ...]


_MADE = ("scored", "facts", "_phrases")
"""What of a digester takes long, in the order in which it is made."""
_WHOLE = "_whole"


@dataclass(slots=True)
class _Whole:
    """What a digest tells of a whole document besides its gist, as far as it has been made."""

    outline: Outline
    """The sections that it names; with others it is made anew."""
    by_kind: tuple[Filled, ...] | None = None
    sections: tuple[SectionLine, ...] | None = None
    terms: tuple[KeyTerm, ...] | None = None
    test: tuple[TestQuestion, ...] | None = None


class Digester:
    """Makes digests of one document; what is scored once serves every length and reach.

    Nothing is scored before something is asked that needs it: a question for a fact does not.
    """

    def __init__(
        self, document: ReadDocument, pause: Callable[[], None] = lambda: None,
        made: Mapping[str, object] = MappingProxyType({}),
    ) -> None:  # fmt: skip
        """Of a document.

        Args:
            document: What is digested.
            pause: Called now and then while its sentences are scored.
            made: What a digester of this document has made before.
        """
        self._document, self._pause = document, pause
        self._last: tuple[Reach, list[int]] | None = None
        vars(self).update({name: made[name] for name in _MADE if name in made})
        told = made.get(_WHOLE)
        if not isinstance(told, _Whole) or told.outline != document.outline:
            told = _Whole(document.outline)
        self._whole: _Whole = told

    @property
    def made(self) -> Mapping[str, object] | None:
        """What takes long to make, to be given to the next digester; None before it is all made."""
        there = {name: vars(self)[name] for name in _MADE if name in vars(self)}
        return {**there, _WHOLE: self._whole} if len(there) == len(_MADE) else None

    @cached_property
    def scored(self) -> Scored:
        """Every sentence and term of the document, scored."""
        return score(self._document, self._pause)

    @cached_property
    def _names(self) -> tuple[str, ...]:
        """What the document calls what it is about; known before its sentences are scored."""
        return self.scored.names if "scored" in vars(self) else names_of(self._document)

    @cached_property
    def facts(self) -> Facts:
        """What its front says."""
        return find_facts(self._document)

    @cached_property
    def _phrases(self) -> Counter[str]:
        return phrases_of(self._document, self.scored)

    def prepare(self) -> bool:
        """Make one thing that digests need; whether there is more."""
        for name in _MADE:
            if name not in vars(self):
                getattr(self, name)
                return True
        return False

    def tell(self, definitions: Definitions, check: Callable[[], None] = lambda: None) -> bool:
        """Make one thing that is told of the whole besides its gist; whether there was one to make.

        Args:
            definitions: All of the document.
            check: Called now and then in what takes long; what it raises gives that up.
        """
        document, whole = self._document, self._whole
        if whole.by_kind is None:
            whole.by_kind = self.by_kind(self.facts.kind)
        elif whole.sections is None:
            whole.sections = section_lines(document, self.scored)
        elif whole.terms is None:
            whole.terms = self.terms(definitions)
        elif whole.test is None:
            whole.test = self_test(document, self.scored, definitions, check=check)
        else:
            return False
        return True

    def terms(self, definitions: Definitions, n: int = N_TERMS) -> tuple[KeyTerm, ...]:
        """The terms that the document works with, the most telling first."""
        return key_terms(self._document, self.scored, definitions, self._phrases, n)

    def gist(
        self, reach: Reach = WHOLE, *, n_words: int = 0, n_sentences: int = 0
    ) -> tuple[GistLine, ...]:
        """The gist of a reach, never over its length and never outside of it."""
        rows = self._rows_for_gist(reach)
        if reach.kind == "document" or (n_sentences and not n_words) or is_talk(self._document):
            # What it is about comes first: of a whole, and where so few are asked for.
            limits = {"n_words": n_words, "n_sentences": 0 if n_words else n_sentences}
            return about(self._document, self.scored, rows, limits)
        limits = {"n_words": n_words, "n_sentences": n_sentences}
        return gist_lines(self._document, rows_of_part(self._document, self.scored, rows, **limits))

    def _rows_for_gist(self, reach: Reach) -> list[int]:
        """What a gist is chosen from; kept, since its length is changed many times in a row."""
        if self._last is None or self._last[0] != reach:
            rows = rows_within(self._document, reach)
            if len(rows) > LONG and not is_talk(self._document):  # which its headings tell
                rows = telling_rows(self._document, self.scored, rows)
            elif reach.kind == "document" and not is_talk(self._document):
                rows = without_steps(self._document, rows)
            self._last = reach, rows
        return self._last[1]

    def by_kind(self, kind: DocumentKind, reach: Reach = WHOLE) -> tuple[Filled, ...]:
        """What a reader asks of a kind of document, filled where it is likely to be right."""
        rows = rows_within(self._document, reach)
        filled = (
            fill(self._document, self.scored, slot, rows, only_told=True) for slot in SLOTS[kind]
        )
        return tuple(f if f.sure >= STATED else self._by_its_place(f.slot, rows) for f in filled)

    def _by_its_place(self, slot: Slot, rows: Sequence[int]) -> Filled:
        """What no sentence says in so many words but the section does that is there for it."""
        if slot is not CONCLUSION:
            return Filled(slot, ())
        lines = concluding(self._document, self.scored, rows, MOST_LINES)
        if not lines or 2 * lines[0].locator.page < self._document.facts.n_pages:
            return Filled(slot, ())  # a summary at the front is no conclusion
        return Filled(slot, lines, IN_ITS_PLACE)

    def digest(
        self,
        definitions: Definitions,
        reach: Reach = WHOLE,
        *,
        n_words: int = 0,
        n_sentences: int = 0,
        kind: DocumentKind | None = None,
    ) -> Digest:
        """Everything at once."""
        while self.tell(definitions):
            pass
        whole, kind = self._whole, kind or self.facts.kind
        told = whole.by_kind if reach == WHOLE and kind == self.facts.kind else None
        return Digest(
            facts=self.facts,
            kind=kind,
            reach=reach,
            gist=self.gist(reach, n_words=n_words, n_sentences=n_sentences),
            by_kind=told or self.by_kind(kind, reach),
            sections=whole.sections or (),
            terms=whole.terms or (),
            test=whole.test or (),
        )

    def answer(self, typed: str, reach: Reach, before: str | None) -> Answer:
        """An answer to any question: about the whole or a part by the digest, else by search."""
        spelled = as_spelled(self._document, _with_name(self._names, " ".join(typed.split())))
        answer = _saying_something(self._answer(spelled, reach, before))
        form = take_form(spelled)[1]
        if not form.max_words and not form.max_sentences:
            answer = with_what_follows(self._document, answer)
        if spelled != typed:
            answer = replace(answer, question=typed)
        if unread := len(self._document.unread):
            answer = replace(answer, so_far=self._document.facts.n_pages - unread)
        if not self._document.recognised:
            return answer
        pages = {place.page for quote in answer.quotes for place in quote.locators}
        told = tuple((page, sure) for page, sure in self._document.recognised if page in pages)
        return replace(answer, recognised=told)

    def _answer(self, typed: str, reach: Reach, before: str | None) -> Answer:
        if asks_of_option(typed):
            return self._search(typed, reach, before)
        if reach == WHOLE and (told := self._answer_of_parts(typed)) is not None:
            return told
        if before is None and might_ask(typed):
            told = self._answer_subject(typed, reach)
            if told is not None:
                return self._with_excerpts(told)
        asked = read_overview(self._document, typed, reach)
        asked = asked or titled_abroad(self._document, typed, reach)
        if asked is not None:
            found = answer_overview(self._document, asked, self.scored, self.facts, typed)
            if found.sure < LEAST_SURE:
                found = replace(found, quotes=())
            if asked.kind == "organised" and reach == WHOLE:
                return self._as_organised(typed, found)
            has_words = not asked.is_all_known and own_words(self._document, asked.question)
            is_named = asked.kind in _NEAREST and names_thing(self._document, typed)
            is_searched = (
                asked.kind in _ELSE_SEARCHED
                or (asked.kind in _SEARCHED_TOO and has_words)
                or is_named
            )
            # Who wrote it need not look after it.
            is_other = asked.kind == "authors and date" and _LOOKS_AFTER.search(typed)
            is_of_whole = reach == WHOLE and _ITSELF.search(typed) is not None
            if asked.kind == "purpose" and is_of_whole and found.sure < SAID:
                found = self._of_its_thing(typed, found)
            if found.quotes and not is_other:
                return found
            if not is_searched:
                told = self._told_elsewhere(asked.kind, typed, reach, before)
                if told is None and is_other:
                    return self._kept_by(found)
                return found if told is None else told
            if asked.kind == "install" and reach == WHOLE:
                return with_what_is_done(self._document, self._answer_install(typed, before))
            is_of_it = asked.kind in _SEARCHED_TOO and _ITSELF.search(typed)
            if asked.kind in _NEAREST or is_of_it:
                near = _mentioned(self._search(typed, reach, before))
                return with_what_is_done(self._document, near)
        if reach == WHOLE and before is None:
            if (matter := matter_asked(take_form(typed)[0])) is not None:
                return self._answer_matter(typed, matter)
            compared = answer_compared(
                self._document, typed, self._search, self._what_is, self._chief
            )
            if compared is not None:
                return compared
            found = self._under_its_title(typed, self._search(typed, reach))
            found = with_purpose(typed, self._by_its_authors(typed, found), self._search)
            return with_what_it_is(self._document, with_what_is_done(self._document, found))
        return self._search(typed, reach, before)

    def _by_its_authors(self, typed: str, found: Answer) -> Answer:
        """Who wrote the document, where nothing says who made the thing that it is on."""
        thing = thing_made(typed) if found.sure <= MENTIONED else ""
        if not any(name in thing for name in self._names):
            return found
        if not set(words(thing)) <= set(words(title_of(self._document))):
            return found
        asked = Overview("authors and date", WHOLE, take_form(typed)[1], 0, "Who wrote it?")
        told = answer_overview(self._document, asked, self.scored, self.facts, asked.question)
        return replace(told, question=typed, sure=OF_AUTHORS) if told.quotes else found

    def _of_its_thing(self, typed: str, found: Answer) -> Answer:
        """What its own thing is, where hardly anything says what that is for."""
        told = (answer_subject(self._document, typed, WHOLE, name) for name in self._names)
        best = max(filter(None, told), key=lambda answer: answer.sure, default=found)
        return best if best.sure > found.sure else found

    def _answer_of_parts(self, typed: str) -> Answer | None:
        """What is asked of the document as a thing with parts: its figures, sections and words."""
        document, search = self._document, partial(self._search, reach=WHOLE)
        return (
            answer_figure(document, typed, search)
            or answer_in_part(document, typed, self._search)
            or answer_whether(document, typed, search)
            or answer_count(document, self.facts, typed, search)
            or answer_funding(document, typed, search)
            or answer_thanks(document, typed, search)
            or answer_had_from(document, typed, search)
            or answer_making(document, typed, search)
            or answer_known_before(document, typed, search)
            or answer_printed(document, self.facts, typed, search)
            or next(filter(None, (ask(document, typed, search) for ask in _OF_PARTS)), None)
        )

    def _as_organised(self, typed: str, found: Answer) -> Answer:
        """How the whole is organised: what says what its parts tell, else their titles."""
        if any(OUTLINES.search(quote.text) for quote in found.quotes):
            return found
        listed = self._answer_of_parts("Which chapters are there?")
        return found if listed is None else replace(listed, question=typed)

    def _answer_matter(self, typed: str, matter: Matter) -> Answer:
        """What a matter is, where that is to be explained; else its section, or where it stands."""
        section = section_on(self._document, matter)
        if section is None and not matter.is_told:
            return spoken_of(self._document, matter, self._of_matter(typed, matter))
        meaning = self._search(f"What is {matter.thing}?", WHOLE)
        is_said = bool(meaning.quotes) and meaning.sure >= IN_SO_MANY_WORDS
        if section is not None:
            form = take_form(typed)[1]
            asked = Overview("section", section_reach(section), form, 0, typed)
            told = answer_overview(self._document, asked, self.scored, self.facts, typed)
            is_short = bool(form.max_words or form.max_sentences)
            return with_meaning(told, meaning) if is_said and not is_short else told
        if is_said:
            return replace(meaning, question=typed)
        told = spoken_of(self._document, matter, self._of_matter(typed, matter))
        if not meaning.quotes or meaning.sure < told.sure:
            return told
        return with_meaning(told, meaning) if told.quotes else replace(meaning, question=typed)

    def _of_matter(self, typed: str, matter: Matter) -> Answer:
        return replace(self._search(matter.thing, WHOLE), question=typed)

    def _under_its_title(self, typed: str, found: Answer) -> Answer:
        """What is found of the whole by a single word, less sure where no section is called by it.

        "How is it configured?" is answered by some sentence with that word in every manual.
        """
        if _ITSELF.search(typed) is None or not found.quotes:
            return found
        asked = content_of(self._document, _ITSELF.sub(" ", typed))
        if len(asked) > 1:
            return found
        if asked & content_of(self._document, " ".join(found.quotes[0].locators[0].path)):
            return found
        if _ASKS_WHERE.match(typed) and any(_ADDRESS.search(q.text) for q in found.quotes):
            return found
        return _mentioned(found)

    def _told_elsewhere(
        self, kind: str, typed: str, reach: Reach, before: str | None
    ) -> Answer | None:
        """Who made the whole, or its licence, where the text says it outside its usual place."""
        if kind not in _TOLD_ELSEWHERE:
            return None
        found = self._search(_made_by_name(self._names, typed), reach, before)
        said = found.quotes[0].text if found.quotes else ""
        if kind == "licence":
            return found if LEGAL.search(said) else None
        is_told = tells_maker(self._document, found) or (
            (asks_who_abroad(typed) and found.sure >= OF_MAKER)
            or (kind_abroad(typed) and found.sure >= TOLD and _A_NAME.search(said))
        )
        return replace(found, question=typed) if is_told else None

    def _kept_by(self, found: Answer) -> Answer:
        """Who has the care of the whole; those who wrote it are at most the nearest there is."""
        row = row_of_keeper(self._document, self._names)
        if row is None:
            return _mentioned(found)
        return told_by(self._document, found, row, row + 1, OF_MAKER)

    def _answer_install(self, typed: str, before: str | None) -> Answer:
        """How the whole is installed; what tells of something else that is, is less sure."""
        found = self._search(typed, WHOLE, before)
        if _gets_another(found, title_of(self._document)):
            return _mentioned(found)
        if not self._names or _tells_how(found, self._names[0]):
            return found
        name = self._names[0]
        named = self._search(_ITSELF.sub(lambda _: name, typed, count=1), WHOLE, before)
        if _tells_how(named, name):
            return replace(named, question=found.question)
        return _mentioned(found)

    def _answer_subject(self, typed: str, reach: Reach) -> Answer | None:
        """What its own thing is; of a plain word of the title only where that is introduced."""
        document = self._document
        if name := named_subject(typed, self._names):
            told = answer_subject(document, typed, reach, name)
            if told is None:
                told = answer_by_title(document, self.facts, typed, reach, name)
            is_nowhere = told is None and not is_explained(document, name)
            if is_nowhere and not _IS_FOR.search(typed) and define(document, name) is None:
                return answer_nearest(document, self.scored, typed, reach, name)
            return told
        if asks_of_the_thing(typed):
            found = (answer_subject(document, typed, reach, n, least=SAID) for n in self._names)
            if (told := next(filter(None, found), None)) is not None:
                return told
        language = document.index.language
        title = list(words(title_of(document)))
        titled = {word for word in title if not is_common(word, language)}
        name = named_subject(typed, sorted(titled), " ".join(title).replace("/", " "))
        return answer_subject(document, typed, reach, name, least=SAID) if name else None

    def _what_is(self, typed: str, reach: Reach) -> Answer:
        """What something is that may be the document's own thing."""
        told = self._answer_subject(typed, reach)
        return told if told is not None and told.sure >= SAID else self._search(typed, reach)

    def _with_excerpts(self, answer: Answer) -> Answer:
        """An answer with the excerpts of a search after its own."""
        near = answer_quoted(self._document, answer.question, answer.reach).excerpts
        pages = {e.locator.page for e in answer.excerpts}
        others = [e for e in near if e.locator.page not in pages]
        return replace(
            answer, excerpts=(*answer.excerpts, *others)[: max(len(near), len(answer.excerpts))]
        )

    def _search(self, typed: str, reach: Reach, before: str | None = None) -> Answer:
        if matter := matter_summed_up(typed):
            # No section has its name: what is told of it is at most the nearest there is.
            found = self._search(matter, reach, before)
            return replace(found, question=typed, sure=min(found.sure, MENTIONED))
        plain = unranked(self._document, typed)
        answer = answer_quoted(self._document, plain, reach, before)
        if plain != typed:  # of which it is not said that they are the chief ones
            answer = replace(answer, question=typed, sure=min(answer.sure, MENTIONED))
        told = with_definition(self._document, self._of_its_matter(answer))
        told = without_works(self._document, told)
        told = with_deeds_abroad(self._document, with_its_number(self._document, told))
        told = with_its_release(self._document, with_maker(self._document, told))
        told = with_measure(with_needed_version(self._document, told))
        told = with_its_name(self._document, with_led_list(self._document, told))
        return with_what_decides(self._document, lambda: self._names, told)

    def _of_its_matter(self, answer: Answer) -> Answer:
        """The answer, less sure where the licence of a document on something else may give it."""
        path = answer.quotes[0].locators[0].path if answer.quotes else ()
        asks = LEGAL.search(answer.question) or _ASKS_TERMS.search(answer.question)
        is_plain = asks or answer.sure >= PLAINLY or LEGAL.search(title_of(self._document))
        if is_plain or not any(map(LEGAL.search, path)):
            return answer
        return _mentioned(answer)

    def _chief(self, reach: Reach) -> tuple[Quote, ...]:
        """What a section says in two sentences."""
        lines = self.gist(reach, n_sentences=2)
        return tuple(Quote(line.text, (line.locator,)) for line in lines)


def _mentioned(answer: Answer) -> Answer:
    """The answer, no surer than what only mentions the thing."""
    return replace(answer, sure=min(answer.sure, MENTIONED))


def _saying_something(answer: Answer) -> Answer:
    """An answer without quotes that say nothing: of signs alone, or in the words of another."""
    said: dict[str, Quote] = {}
    for quote in answer.quotes:
        if any(map(str.isalnum, quote.text)):
            said.setdefault(quote.text, quote)
    kept = tuple(said.values())
    if len(kept) == len(answer.quotes):
        return answer
    return replace(answer, quotes=kept, sure=answer.sure if kept else 0.0)


def _with_name(names: Sequence[str], asked: str) -> str:
    """A question, with the name of the document's own thing where it asks what "the name" means."""
    if not names:
        return asked
    return _ITS_NAME.sub(lambda match: f"{match['does']} {names[0]} stand for", asked)


def _made_by_name(names: Sequence[str], asked: str) -> str:
    """A question who makes the document's own thing, with its name where that is no plain word."""
    name = next((name for name in names if frequency_rank(name) is None), "")
    is_asked = name and _ASKS_MAKER.match(asked)
    return _ITSELF.sub(lambda _: name, asked, count=1) if is_asked else asked


_ASKS_MAKER = regex(
    r"\W*who\s+(?:\w+\s+)?(?:develop|ma[dk]e|creat|built|builds|program|design|invent)", re.I
)
_ITS_NAME = regex(
    r"^(?P<does>what does) (?:the|its) name (?:of (?:it|the \w+) )?(?:mean|stand for)(?=\W*$)", re.I
)
_IS_FOR = regex(r"\bfor\W*$", re.I)
_ITSELF = regex(rf"\b(?:it|(?:this|the) {THING})\b", re.I)
"""How a question calls the document's thing."""
_ASKS_WHERE = regex(r"^\W*(?:from )?where\b", re.I)
_ADDRESS = regex(r"https?://|\bwww\.|\bftp\b|\S@\S")
OF_AUTHORS = 0.5
"""The chance that those who wrote a document made the thing that it is on."""
PLAINLY = 0.7
"""The chance from which on even the licence is what is asked about."""
_ASKS_TERMS = regex(
    r"\b(?:allow\w*|permi[ts]\w*|may|charge|sell|copy|copies|distribut\w+|modif\w+|warrant\w+|liab\w+)\b", re.I
)  # fmt: skip
"""Asks for what a licence may say."""
_INSTALLS = regex(
    r"(?<!your )(?<!existing )(?<!current )\binstall|\bset(?:ting)?[ -]?up\b|\bcompil|\bbuil[dt]|\bunpack|\bdownload"
)


def _tells_how(answer: Answer, name: str) -> bool:
    """Whether what is quoted first speaks of installing the thing of a name, in small letters."""
    said = answer.quotes[0].text.lower() if answer.quotes else ""
    return name in said and bool(_INSTALLS.search(said))


IN_SO_MANY_WORDS = 0.75
"""The chance from which what a matter is goes before what is said of it."""
_OF_PARTS = (
    answer_example, answer_options, answer_command, answer_call, answer_labelled, answer_code,
)  # fmt: skip
"""Each answers one sort of question about a part, from the document, the question and a search."""
LEAST_SURE = 0.1
"""What answers less surely is not shown as an answer."""
_GETS = regex(
    r"\b(?:apt(?:-get)?|aptitude|dnf|yum|zypper|pip3?|brew|npm|cargo|gem)\s+install\s+(?:-\S+\s+)*(?P<what>[\w./@-]+)"
)
"""A command that installs something."""


def _gets_another(answer: Answer, title: str) -> bool:
    """Whether what is quoted first only has something else installed than what the title names."""
    got = _GETS.findall(answer.quotes[0].text) if answer.quotes else []
    named = {word for word in words(title) if len(word) > 2 and not is_common(word, "en")}
    return bool(got) and not any(named & set(words(re.sub(r"[\W_]+", " ", each))) for each in got)


_A_NAME = regex(r"(?<=\w\s)[^\W\d_a-z]\w+\s[^\W\d_a-z]\w+")
"""Somebody's name within a sentence."""
_LOOKS_AFTER = regex(
    r"^(?!.*\b(?:wrote|written|authors?)\b).*\b(?:maintains?|looks after|takes care of|keeps up)\b",
    re.I,
)
"""Asks who has the care of a thing."""
_NEAREST = frozenset(["run", "cite"])
"""Questions about the whole, by its name, of which the nearest passages are shown where no section
is on them."""
_ELSE_SEARCHED = frozenset(["install", "why"])
"""Questions about the whole that the text may answer where no section is about them."""
_TOLD_ELSEWHERE = frozenset(["licence", "authors and date"])
"""Questions about the whole that any sentence may answer which says so in plain words."""
_SEARCHED_TOO = frozenset(
    ["data", "findings", "method", "needs", "new", "why", "audience", "begin"]
)
"""Questions about the whole that may be ones for a fact as well: asked of the search where the
structure does not answer them and they have a word of their own to search for."""
