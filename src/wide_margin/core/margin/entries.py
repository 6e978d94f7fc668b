"""Entries: questions, explanations, translations, marks and notes beside their passages."""

import uuid
from dataclasses import asdict, dataclass, field, replace
from datetime import UTC, datetime
from typing import Any

from wide_margin.core.layout import SpanOnPage

KINDS = ("question", "explanation", "translation", "mark", "note", "cutting")


@dataclass(frozen=True, slots=True)
class Anchor:
    """Where an entry stands: characters of pages, and their words for finding them again."""

    page: int
    y: float
    """Top of the passage, points from the top of the page."""
    spans: tuple[SpanOnPage, ...] = ()
    quote: str = ""

    def as_json(self) -> dict[str, Any]:
        """Plain values for the store."""
        return {"page": self.page, "y": self.y, "spans": [list(s) for s in self.spans],
                "quote": self.quote}  # fmt: skip

    @classmethod
    def from_json(cls, data: dict[str, Any]) -> "Anchor":
        """The reverse of as_json."""
        spans = tuple(SpanOnPage(*(int(n) for n in span)) for span in data.get("spans", ()))
        return cls(int(data["page"]), float(data["y"]), spans, str(data.get("quote", "")))


@dataclass(frozen=True, slots=True)
class Entry:
    """One thing kept in the margin."""

    id: str
    kind: str
    anchor: Anchor
    body: dict[str, Any]
    """By kind: text of a note; ink of a mark; an answer, explanation or translation."""
    created: str
    """ISO 8601, UTC."""
    changed: str = field(default="")

    def with_body(self, **values: Any) -> "Entry":
        """The entry with some of its body replaced, changed now."""
        return replace(self, body={**self.body, **values}, changed=_now())

    def as_json(self) -> dict[str, Any]:
        """Plain values."""
        return {**asdict(self), "anchor": self.anchor.as_json()}


def new_entry(kind: str, anchor: Anchor, body: dict[str, Any]) -> Entry:
    """An entry made now.

    Raises:
        ValueError: Unknown kind.
    """
    if kind not in KINDS:
        raise ValueError(f"kind must be one of {', '.join(KINDS)}, got {kind}")
    return Entry(uuid.uuid4().hex, kind, anchor, body, _now())


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="milliseconds")
