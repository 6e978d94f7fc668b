"""Sentences and passages, each with its page and section."""

from dataclasses import dataclass
from typing import NamedTuple

from wide_margin.core.passages.entries import Term


class Sentence(NamedTuple):
    """A sentence, a list item, a table row or a caption: the smallest thing that is quoted."""

    text: str
    """Tidied: hyphenation and ligatures undone."""
    page: int
    """Page index where it starts."""
    section: int
    """Index into the outline's sections, -1 before the first."""
    paragraph: int
    """Row in the document's paragraphs."""
    start: int
    """First character in the paragraph's text; with ``end`` the way back to the page."""
    end: int
    kind: str
    """The paragraph's kind, or "heading", "listing" (contents, index), "works" (bibliography)."""
    term: int = -1
    """Index into the text's terms: what it describes, -1 for none."""


class Said(NamedTuple):
    """A sentence as it stands in its paragraph."""

    text: str
    page: int
    start: int
    end: int


class Passage(NamedTuple):
    """Consecutive sentences of one section, about a hundred words."""

    first: int
    """Row of its first sentence."""
    end: int
    """One past its last sentence."""
    section: int
    page: int
    kind: str


@dataclass(frozen=True, slots=True)
class Text:
    """All sentences and passages of a document, in reading order."""

    sentences: tuple[Sentence, ...]
    passages: tuple[Passage, ...]
    terms: tuple[Term, ...] = ()
    """What its entries describe."""

    def words_of(self, passage: Passage) -> str:
        """The passage as one text."""
        return " ".join(s.text for s in self.sentences[passage.first : passage.end])
