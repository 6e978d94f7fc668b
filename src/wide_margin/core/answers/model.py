"""What an answer is made of."""

from dataclasses import dataclass
from enum import StrEnum

from wide_margin.core.document import Locator
from wide_margin.core.layout import SpanOnPage


@dataclass(frozen=True, slots=True)
class Reach:
    """What a question is asked of. Chosen once; it does not wander as one scrolls."""

    kind: str = "document"
    """document, section, pages, figure (or table), selection or kept (excerpts)."""
    first_page: int = 0
    last_page: int = -1
    """Page indexes, both included, for kinds pages and section."""
    first_y: float = 0.0
    last_y: float = -1.0
    """For kind section: where on its first and last page it starts and ends, in points. A section
    is meant as it was when it was chosen; changing the outline does not move what is asked of."""
    name: str = "whole document"
    """How it is shown."""
    spans: tuple[SpanOnPage, ...] = ()
    """Character ranges, for kinds figure, selection and kept."""


WHOLE = Reach()
PERHAPS = 0.35
"""An answer less sure than this is shown as the nearest sentences."""


class Verdict(StrEnum):
    """Whether a composed sentence stands in the excerpt it cites."""

    BACKED = "backed"
    PARTLY = "partly"
    UNBACKED = "unbacked"


@dataclass(frozen=True, slots=True)
class Quote:
    """One statement of an answer: the document's own words, or composed from them."""

    text: str
    locators: tuple[Locator, ...]
    backing: Verdict = Verdict.BACKED
    emphasis: tuple[tuple[int, int], ...] = ()
    """Ranges of the text that answer most directly: a number, a name, a date."""
    notes: tuple[str, ...] = ()
    """Why it is not backed, and what was dropped from it."""


@dataclass(frozen=True, slots=True)
class Excerpt:
    """A stretch of the document that bears on a question."""

    text: str
    locator: Locator
    score: float


@dataclass(frozen=True, slots=True)
class Answer:
    """What the document says to a question, or that it does not say."""

    question: str
    kind: str
    """What kind of answer was wanted: who, when, how many, …"""
    reach: Reach
    quotes: tuple[Quote, ...]
    """Empty where declined."""
    excerpts: tuple[Excerpt, ...]
    """Best first; where declined, the nearest passages."""
    n_searched: int
    n_pages: int
    without_text: tuple[int, ...]
    """Page indexes within reach that have no text or could not be read."""
    model: str = ""
    """The name of the model that composed the statements; "" where they are quoted."""
    missing: tuple[str, ...] = ()
    """Words of the question that the quotes do not cover."""
    sure: float = 1.0
    """The chance that it is right, 0 to 1; where declined, that the nearest sentences answer."""
    reason: str = ""
    """Why it was declined, in a sentence."""
    so_far: int = 0
    """Pages that had been read when it was asked while reading went on; 0 once all were."""
    recognised: tuple[tuple[int, float], ...] = ()
    """Pages it leads to whose text was recognised in a picture, with how sure the engine was."""
    n_found: int = 0
    """How many places or things there are, where not all of them are quoted; else 0."""

    @property
    def is_perhaps(self) -> bool:
        """Whether what is quoted is the nearest there is rather than a sure answer."""
        return bool(self.quotes) and self.sure < PERHAPS

    @property
    def declined(self) -> bool:
        """Whether the document does not say."""
        return not self.quotes
