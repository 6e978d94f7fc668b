"""What each kind of entry holds, and its format in the store.

The format is JSON with a version. Reading it never trusts it: a value of the wrong type or a
missing one is a damaged entry, which is told and set aside by the store.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

import msgspec

from wide_margin.core.answers import PERHAPS, Excerpt, Quote, Reach
from wide_margin.core.document import Locator
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.explain import (
    Column,
    Leaning,
    Meaning,
    Measure,
    NounChain,
    Often,
    Part,
    Reference,
    StandsFor,
)
from wide_margin.core.geometry import Box
from wide_margin.core.margin.kinds import EntryKind, Ink, MarkForm, Origin, State
from wide_margin.core.services.dictionary import Sense
from wide_margin.core.translate import Pair

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.explain import Explanation, FigureExplanation

VERSION = 1
"""Of the format; raised when what is written here changes its meaning."""
MAX_KEPT_EXCERPTS = 8
ToPlace = Callable[[Locator], Locator]


@dataclass(frozen=True, slots=True)
class Before:
    """The question that another one leans on."""

    id: str
    """Of its entry."""
    question: str


@dataclass(frozen=True, slots=True)
class QuestionBody:
    """A question and its answer."""

    question: str
    kind: str
    reach: Reach
    quotes: tuple[Quote, ...] = ()
    """The statements that are shown; none where the document does not say."""
    excerpts: tuple[Excerpt, ...] = ()
    n_searched: int = 0
    n_pages: int = 0
    without_text: tuple[int, ...] = ()
    missing: tuple[str, ...] = ()
    origin: Origin = Origin.QUOTED
    quoted: tuple[Quote, ...] | None = None
    """The document's own words, while composed ones are shown."""
    state: State = State.DONE
    problem: str = ""
    model: str = ""
    is_free: bool = False
    """Whether it was composed in the model's own words."""
    struck: tuple[int, ...] = ()
    """Indexes of the excerpts that the reader has struck out."""
    before: Before | None = None
    sure: float = 1.0
    """The chance that the quoted statements answer."""
    reason: str = ""
    """Why it was declined."""
    restated: tuple[str, ...] = ()
    """In which other words it was looked for, as the model put it."""
    n_judged: int = 0
    """So many of the first excerpts answer, in the model's judgement."""
    n_sent: int = 0
    """Words that were sent to the model for it."""
    so_far: int = 0
    """Pages that had been read when it was asked while reading went on; 0 once all were."""
    recognised: tuple[tuple[int, float], ...] = ()
    """Pages it leads to whose text was recognised in a picture, with how sure the engine was."""
    n_found: int = 0
    """How many places or things there are, where not all of them are quoted; else 0."""

    @classmethod
    def of(cls, answer: Answer, before: Before | None = None) -> QuestionBody:
        """The body of an answer."""
        return cls(
            answer.question, answer.kind, answer.reach, answer.quotes,
            answer.excerpts[:MAX_KEPT_EXCERPTS], answer.n_searched, answer.n_pages,
            answer.without_text, answer.missing, before=before, sure=answer.sure,
            reason=answer.reason, recognised=answer.recognised, so_far=answer.so_far,
            n_found=answer.n_found,
        )  # fmt: skip

    @property
    def is_perhaps(self) -> bool:
        """Whether what is quoted is the nearest there is rather than a sure answer."""
        return self.origin is Origin.QUOTED and bool(self.quotes) and self.sure < PERHAPS

    @property
    def is_declined(self) -> bool:
        """Whether the document does not say."""
        return not self.quotes and not self.state.is_under_way

    @property
    def kept(self) -> tuple[Excerpt, ...]:
        """The excerpts that were not struck out."""
        return tuple(e for k, e in enumerate(self.excerpts) if k not in self.struck)

    @property
    def places(self) -> tuple[Locator, ...]:
        """Where it leads: what is quoted, then the excerpts."""
        quoted = [place for quote in self.quotes for place in quote.locators]
        return (*quoted, *(excerpt.locator for excerpt in self.excerpts))

    @property
    def n_quoted(self) -> int:
        """How many of its places are those of its statements."""
        return sum(len(quote.locators) for quote in self.quotes)

    def with_places(self, place: ToPlace) -> QuestionBody:
        """The same, every locator put through a function."""
        return replace(
            self,
            quotes=_quotes_at(self.quotes, place),
            quoted=None if self.quoted is None else _quotes_at(self.quoted, place),
            excerpts=tuple(replace(e, locator=place(e.locator)) for e in self.excerpts),
        )

    @property
    def headline(self) -> str:
        """In one line."""
        return self.question

    @property
    def words(self) -> str:
        """Everything that can be searched."""
        said = [quote.text for quote in self.quotes] + [e.text for e in self.excerpts]
        return "\n".join([self.question, *said])


@dataclass(frozen=True, slots=True)
class ExplanationBody:
    """What the document says of some words."""

    text: str
    meanings: tuple[Meaning, ...] = ()
    references: tuple[Reference, ...] = ()
    parts: tuple[tuple[Part, ...], ...] = ()
    stands_for: tuple[StandsFor, ...] = ()
    leans_on: tuple[Leaning, ...] = ()
    later: tuple[Leaning, ...] = ()
    measures: tuple[Measure, ...] = ()
    often: Often | None = None
    """Where the word or term stands most."""
    chains: tuple[NounChain, ...] = ()
    """Long chains of nouns, parted."""
    senses: tuple[Sense, ...] = ()
    """What a dictionary says of a selected word."""
    columns: tuple[Column, ...] = ()
    """Of a table."""
    n_rows: int = 0
    spoken_of: tuple[Leaning, ...] = ()
    """Where a figure or table is spoken of."""
    manner: str = ""
    """How it was put in other words by a writing model; "" where it was not."""
    plainly: tuple[Quote, ...] = ()
    """The passage in other words."""
    state: State = State.DONE
    problem: str = ""
    model: str = ""

    @classmethod
    def of(cls, explanation: Explanation) -> ExplanationBody:
        """The body of an explanation."""
        return cls(
            explanation.text, explanation.meanings, explanation.references, explanation.parts,
            explanation.stands_for, explanation.leans_on, explanation.later, explanation.measures,
            explanation.often, explanation.chains,
        )  # fmt: skip

    @classmethod
    def of_figure(cls, told: FigureExplanation) -> ExplanationBody:
        """The body of the explanation of a figure or table."""
        return cls(told.caption, columns=told.columns, n_rows=told.n_rows, spoken_of=told.spoken_of)

    @property
    def places(self) -> tuple[Locator, ...]:
        """Where it leads: meanings, references that were found, and what stands around it."""
        meant = [meaning.locator for meaning in self.meanings]
        referred = [r.locator for r in self.references if r.locator is not None]
        around = [one.locator for one in (*self.leans_on, *self.later, *self.spoken_of)]
        often = [self.often.locator] if self.often else []
        return (*meant, *referred, *around, *often)

    def with_places(self, place: ToPlace) -> ExplanationBody:
        """The same, every locator put through a function."""
        return replace(
            self,
            meanings=tuple(m._replace(locator=place(m.locator)) for m in self.meanings),
            references=tuple(
                r._replace(locator=place(r.locator)) if r.locator else r for r in self.references
            ),
            leans_on=tuple(m._replace(locator=place(m.locator)) for m in self.leans_on),
            later=tuple(m._replace(locator=place(m.locator)) for m in self.later),
            spoken_of=tuple(m._replace(locator=place(m.locator)) for m in self.spoken_of),
            often=self.often and self.often._replace(locator=place(self.often.locator)),
        )

    @property
    def headline(self) -> str:
        """In one line."""
        return self.text

    @property
    def words(self) -> str:
        """Everything that can be searched."""
        around = [one.text for one in (*self.leans_on, *self.later, *self.spoken_of)]
        put = [quote.text for quote in self.plainly]
        meant = [f"{m.term} {m.text}" for m in self.meanings]
        return "\n".join([self.text, *meant, *around, *put])


@dataclass(frozen=True, slots=True)
class PlacedRow:
    """Where a paragraph of a translation begins: its first pair, and its place."""

    row: int
    place: Locator
    is_row: bool = False
    """Whether it is a row of a table, and its pairs are the cells."""


@dataclass(frozen=True, slots=True)
class TranslationBody:
    """Sentences and their translations."""

    language: str
    pairs: tuple[Pair, ...]
    state: State = State.WAITING
    problem: str = ""
    model: str = ""
    paragraphs: tuple[PlacedRow, ...] = ()
    """Of a page, a section or more, which is shown facing the pages; none of a selection."""
    of: str = ""
    """What is translated, in words, where it is shown facing."""

    @property
    def is_facing(self) -> bool:
        """Whether it is shown facing the pages, paragraph by paragraph."""
        return bool(self.paragraphs)

    @property
    def n_done(self) -> int:
        """How many of the pairs have a translation."""
        return sum(bool(pair.target) for pair in self.pairs)

    @property
    def places(self) -> tuple[Locator, ...]:
        """None: the pairs stand in the passage itself."""
        return ()

    def with_places(self, place: ToPlace) -> TranslationBody:
        """The same, the place of every paragraph put through a function."""
        paragraphs = tuple(replace(p, place=place(p.place)) for p in self.paragraphs)
        return replace(self, paragraphs=paragraphs)

    @property
    def headline(self) -> str:
        """In one line."""
        return self.of or (self.pairs[0].source if self.pairs else "")

    @property
    def words(self) -> str:
        """Everything that can be searched."""
        return "\n".join(f"{pair.source}\n{pair.target}" for pair in self.pairs)


@dataclass(frozen=True, slots=True)
class NoteBody:
    """The reader's own words."""

    text: str = ""

    @property
    def places(self) -> tuple[Locator, ...]:
        """None but its passage."""
        return ()

    def with_places(self, place: ToPlace) -> NoteBody:
        """The same."""
        return self

    @property
    def headline(self) -> str:
        """In one line."""
        return self.text

    @property
    def words(self) -> str:
        """Everything that can be searched."""
        return self.text


@dataclass(frozen=True, slots=True)
class MarkBody(NoteBody):
    """A highlighted passage, perhaps with a comment."""

    ink: Ink = Ink.CLAIM
    form: MarkForm = MarkForm.HIGHLIGHT


@dataclass(frozen=True, slots=True)
class CuttingBody(NoteBody):
    """A region of a page as a picture, perhaps with a comment."""

    box: Box = (0.0, 0.0, 0.0, 0.0)
    png: str = ""
    """In base 64."""
    rows: tuple[tuple[str, ...], ...] = ()
    """The cells of the table that was cut out; none where it is no table."""

    @property
    def words(self) -> str:
        """Everything that can be searched."""
        return "\n".join((self.text, *(" ".join(row) for row in self.rows)))


Body = QuestionBody | ExplanationBody | TranslationBody | NoteBody | MarkBody | CuttingBody

BODIES: dict[EntryKind, type[Any]] = {
    EntryKind.QUESTION: QuestionBody,
    EntryKind.EXPLANATION: ExplanationBody,
    EntryKind.TRANSLATION: TranslationBody,
    EntryKind.MARK: MarkBody,
    EntryKind.NOTE: NoteBody,
    EntryKind.CUTTING: CuttingBody,
}


def body_to_json(body: Body) -> str:
    """A body in the store's format."""
    values = msgspec.to_builtins(body)
    return msgspec.json.encode({"version": VERSION, **values}).decode()


def body_from_json(kind: EntryKind, text: str) -> Body:
    """The reverse of body_to_json; formats of older versions are understood.

    Raises:
        EntryStoreError: It is damaged, or of a newer version than this one knows.
    """
    try:
        values = msgspec.json.decode(text)
        version = values.pop("version", 0)
        if version == 0:
            values = upgraded(kind, values)
        elif version > VERSION:
            raise ValueError(f"version {version}")
        body: Body = msgspec.convert(values, BODIES[kind])
    except (ValueError, TypeError, AttributeError, LookupError, RecursionError) as error:
        raise EntryStoreError(
            f"An entry ({kind}) in the store is damaged and is left out.",
            hint="It stays in the store as it is.",
        ) from error
    return body


def upgraded(kind: EntryKind, values: dict[str, Any]) -> dict[str, Any]:
    """A body of the first format, which had no version, in the present one."""
    if kind is EntryKind.QUESTION:
        return {
            **values,
            "reach": {"kind": "document", "name": values.get("reach", "whole document")},
            "quotes": [_old_quote(quote) for quote in values.get("quotes", ())],
            "quoted": [_old_quote(quote) for quote in values["quoted"]]
            if values.get("quoted")
            else None,
            "excerpts": [
                {"text": e["text"], "locator": _old_place(e["place"]), "score": 0.0}
                for e in values.get("excerpts", ())
            ],
            "is_free": bool(values.get("freely", False)),
        }
    if kind is EntryKind.EXPLANATION:
        return {
            "text": values.get("text", ""),
            "meanings": [
                [m["term"], m["text"], m["kind"], _old_place(m["place"]), m["long_form"]]
                for m in values.get("meanings", ())
            ],
            "references": [
                [r["text"], r["title"], _old_place(r["place"]) if r.get("place") else None]
                for r in values.get("references", ())
            ],
        }
    return values


def _old_quote(quote: dict[str, Any]) -> dict[str, Any]:
    locators = [_old_place(place, quote["text"]) for place in quote["places"]]
    return {**quote, "locators": locators}


def _old_place(place: dict[str, Any], quote: str = "") -> dict[str, Any]:
    return {**place, "quote": quote}


def _quotes_at(quotes: tuple[Quote, ...], place: ToPlace) -> tuple[Quote, ...]:
    return tuple(replace(q, locators=tuple(map(place, q.locators))) for q in quotes)
