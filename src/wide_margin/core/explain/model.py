"""What an explanation tells, without how it is found: entries keep it, the window shows it."""

from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

from wide_margin.core.document import Locator
from wide_margin.core.plain import counted

WHICH = ", which one: "
"""Between the pieces of a chain of nouns."""


class Part(NamedTuple):
    """A piece of a sentence in its own words."""

    kind: str
    """main, also (a further statement), contrast, condition, exception, concession, reason,
    purpose, result, time, aside."""
    tie: str
    """The word that ties it on, as written: "if", "unless"; "" for none."""
    text: str


class NounChain(NamedTuple):
    """A chain of nouns, and what it is put together of."""

    text: str
    """As written."""
    parts: tuple[str, ...]
    """Its pieces: first what it is a kind of, then what tells which one, and of that which one."""

    @property
    def said(self) -> str:
        """The pieces in words."""
        return WHICH.join(f"“{part}”" for part in self.parts)


class Measure(NamedTuple):
    """A quantity as written, and the same in another unit."""

    written: str
    other: str


class StandsFor(NamedTuple):
    """A word that points back, and what it points to."""

    word: str
    candidates: tuple[str, ...]
    """One where it is clear, two where it is not; as written in the document."""


class Reference(NamedTuple):
    """A reference in a text and the place it leads to."""

    text: str
    """As written: "section 8.4"."""
    title: str
    """What is there: the section's title, the caption, or "page 12"."""
    locator: Locator | None
    """None where no such place was found."""


class Leaning(NamedTuple):
    """A passage that a selection leans on, or where its subject is taken up again."""

    about: str
    """The word that it introduces; "" where it is about the same as the whole."""
    text: str
    locator: Locator


class Often(NamedTuple):
    """How often some words stand in a document, and the section that has most of them."""

    n_times: int
    n_sections: int
    section: str
    """Its title; "" where the words stand in no section."""
    n_there: int
    locator: Locator
    """Of the first place there."""
    about: str = ""
    """The words, where they are one of several in a selection."""

    @property
    def said(self) -> str:
        """In a sentence without its stop."""
        stands = f"“{self.about}” stands" if self.about else "Stands"
        there = f"in “{self.section}”" if self.section else "there"
        if self.n_times == 1:
            return f"{stands} once in the document, {there}"
        times = f"{stands} {self.n_times:,} times"
        if self.n_there == self.n_times:
            return f"{times}, all {there}"
        places = f"{times} in {counted(self.n_sections, 'section')}"
        if self.n_there == 1:
            return f"{places}; first {there}"
        return f"{places}; most often {there} ({self.n_there:,})"


class Meaning(NamedTuple):
    """A term of the selection and what the document says of it."""

    term: str
    text: str
    """The defining sentence, verbatim; for an abbreviation with its long form there."""
    kind: str
    """glossary, entry, defined, section, abbreviation, symbol, or used (no definition: its first
    telling use)."""
    locator: Locator
    long_form: str = ""
    """What an abbreviation or a symbol stands for."""


@dataclass(frozen=True, slots=True)
class Explanation:
    """What the document itself says about a selection, and how its sentences are built."""

    text: str
    meanings: tuple[Meaning, ...]
    references: tuple[Reference, ...]
    parts: tuple[tuple[Part, ...], ...] = ()
    """Each sentence taken apart; a sentence without parts is left out."""
    stands_for: tuple[StandsFor, ...] = ()
    leans_on: tuple[Leaning, ...] = ()
    later: tuple[Leaning, ...] = ()
    """Where the subject is taken up again."""
    measures: tuple[Measure, ...] = ()
    chains: tuple[NounChain, ...] = ()
    """Long chains of nouns, parted."""
    often: Often | None = None
    """Where a word or term stands most; of a sentence of which little else is told, one of its
    words."""

    @property
    def is_empty(self) -> bool:
        """Whether the document says nothing about the selection's terms."""
        told = self.meanings or self.references or self.leans_on or self.later
        return not (told or self.often)

    @property
    def n_told(self) -> int:
        """How many things it tells."""
        told = (self.meanings, self.references, self.parts, self.stands_for, self.leans_on,
                self.later, self.measures, self.chains)  # fmt: skip
        return sum(map(len, told)) + (self.often is not None)


class Column(NamedTuple):
    """A column of a table."""

    name: str
    unit: str
    """As its head gives it in brackets; "" where it gives none."""
    n: int
    """How many of its cells hold something."""
    least: str
    """The least and the greatest number in it, as printed; "" where it has none."""
    greatest: str


class FigureExplanation(NamedTuple):
    """What the document tells of one of its figures or tables."""

    caption: str
    locator: Locator
    columns: tuple[Column, ...]
    """Of a table."""
    n_rows: int
    spoken_of: tuple[Leaning, ...]
    """Sentences that speak of it, those near it first."""


class Manner(StrEnum):
    """How a passage is put."""

    PLAIN = "in plain words"
    NEWCOMER = "for a newcomer"
    SPECIALIST = "for a specialist"
    SHORTER = "shorter"
    FORMAL = "more formal"
