"""What is asked of a reading worker: a document to read, a digest to make."""

from dataclasses import dataclass
from pathlib import Path

from wide_margin.core.answers import WHOLE, Reach
from wide_margin.core.digest import DocumentKind

MIN_PAGES_FOR_TWO = 100
"""A shorter document is read before a second process has started."""


@dataclass(frozen=True, slots=True)
class ReadRequest:
    """A document to read, and what to go without."""

    path: Path
    owner: int
    """Process id of the application, which the blocks on disk belong to."""
    password: str | None = None
    skip: frozenset[int] = frozenset()
    """Page indexes that ended a worker twice."""
    without: frozenset[str] = frozenset()
    """Parts of what the file says that ended a worker: see pages.document.PARTS."""
    hide: frozenset[str] = frozenset()
    """Witnesses of the outline to go without: "bookmark", "contents"."""
    near: int = 0
    """Index of the page that somebody reads at: it is read first, with those around it."""
    recognised: frozenset[int] = frozenset()
    """Pages whose text was recognised in their pictures."""
    is_alone: bool = False
    """Whether no second process helps."""

    @property
    def variant(self) -> str:
        """What this reading differs in from a usual one, for the cache."""
        parts = [*sorted(self.hide), *(f"r{page}" for page in sorted(self.recognised))]
        return ",".join(parts)

    @property
    def is_whole(self) -> bool:
        """Whether nothing of the document is left out; only then it is kept for the next time."""
        return not self.skip and not self.without


@dataclass(frozen=True, slots=True)
class DigestRequest:
    """What a digest is wanted of, and how long its gist may be."""

    reach: Reach | str = WHOLE
    """A string such as "section 4.2" or "pages 40-60" is looked up."""
    n_words: int = 0
    n_sentences: int = 0
    """0 where there is no limit; without both the usual length."""
    kind: DocumentKind | None = None
    """As the reader has chosen it; found where None."""
