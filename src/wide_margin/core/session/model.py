"""What the reading worker tells the window."""

from dataclasses import dataclass

from wide_margin.core.document import Figure
from wide_margin.core.layout import PageLabels, SpanOnPage
from wide_margin.core.outline import Outline

MOST_FOUND = 5000
"""Places that are told of words that stand everywhere."""


@dataclass(frozen=True, slots=True)
class ReadSummary:
    """What was read: small enough to keep in the window."""

    title: str
    """As the file gives it, perhaps empty."""
    n_pages: int
    labels: PageLabels
    outline: Outline
    figures: tuple[Figure, ...]
    n_sentences: int
    language: str
    without_text: tuple[int, ...]
    failed: tuple[int, ...]
    from_cache: bool
    left_out: tuple[str, ...] = ()
    """What the file says of itself that could not be had: labels, bookmarks, about."""
    recognised: tuple[tuple[int, float], ...] = ()
    """Pages whose text was recognised in a picture, with how sure the engine was, 0 to 1."""
    garbled: tuple[int, ...] = ()
    """Pages whose text is damaged."""

    @property
    def to_recognise(self) -> tuple[int, ...]:
        """Pages whose text is yet to be recognised in their pictures."""
        return tuple(sorted({*self.without_text, *self.garbled}))

    @property
    def is_readable(self) -> bool:
        """Whether any page has text that can be searched."""
        return bool(self.n_sentences) and len(self.to_recognise) < self.n_pages

    def how_sure(self, page: int) -> float | None:
        """How sure the engine was of a recognised page; None for text of the file."""
        return dict(self.recognised).get(page)


@dataclass(frozen=True, slots=True)
class FoundHit:
    """A place where the words looked for stand."""

    page: int
    spans: tuple[SpanOnPage, ...]
    line: str
    """The words around it."""
    section: str
