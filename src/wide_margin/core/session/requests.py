"""What is asked of a reading worker when it is to read a document."""

from dataclasses import dataclass
from pathlib import Path


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

    @property
    def variant(self) -> str:
        """What this reading differs in from a usual one, for the cache."""
        return ",".join(sorted(self.hide))

    @property
    def is_whole(self) -> bool:
        """Whether nothing of the document is left out; only then it is kept for the next time."""
        return not self.skip and not self.without
