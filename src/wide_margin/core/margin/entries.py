"""Entries: questions, explanations, translations, marks and notes beside their passages."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import TYPE_CHECKING, Any

import msgspec

from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin.bodies import BODIES, Body, QuestionBody, body_to_json
from wide_margin.core.margin.kinds import EntryKind, Scope

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.margin.bodies import Before


@dataclass(frozen=True, slots=True)
class Anchor:
    """Where an entry stands: characters of pages, and their words for finding them again."""

    page: int
    y: float
    """Top of the passage, points from the top of the page; -1 where its characters tell."""
    spans: tuple[SpanOnPage, ...] = ()
    quote: str = ""
    is_lost: bool = False
    """Whether the file that is open no longer has these words."""
    scope: Scope = Scope.PASSAGE
    """What it belongs to; of a section its start is the place, and its heading the quote."""

    @property
    def has_place(self) -> bool:
        """Whether it stands somewhere in the document."""
        return self.scope is not Scope.LOOSE and not self.is_lost

    def as_json(self) -> dict[str, Any]:
        """Plain values."""
        values: dict[str, Any] = msgspec.to_builtins(self)
        return values

    @classmethod
    def from_json(cls, data: dict[str, Any]) -> Anchor:
        """The reverse of as_json.

        Raises:
            ValueError: It is not an anchor.
        """
        return msgspec.convert(data, cls)


@dataclass(frozen=True, slots=True)
class Entry:
    """One thing kept in the margin."""

    id: str
    kind: EntryKind
    anchor: Anchor
    body: Body
    created: str
    """ISO 8601, UTC."""
    changed: str = ""
    tags: tuple[str, ...] = ()
    """Free words of the reader."""

    def with_body(self, **values: Any) -> Entry:
        """The entry with some of its body replaced, changed now."""
        return replace(self, body=replace(self.body, **values), changed=_now())

    def with_tags(self, tags: Iterable[str]) -> Entry:
        """The entry with other tags, changed now; each once, without blanks at its ends."""
        kept = dict.fromkeys(" ".join(tag.split()) for tag in tags)
        return replace(self, tags=tuple(tag for tag in kept if tag), changed=_now())

    @property
    def headline(self) -> str:
        """In one line: what it says, else the words it stands beside, else its kind."""
        return " ".join((self.body.headline or self.anchor.quote or self.kind).split())

    @property
    def words(self) -> str:
        """Everything of it that can be searched."""
        return "\n".join((self.body.words, self.anchor.quote, *self.tags))

    def as_json(self) -> dict[str, Any]:
        """Plain values, the body in the store's format."""
        body = msgspec.json.decode(body_to_json(self.body))
        return {"id": self.id, "kind": str(self.kind), "anchor": self.anchor.as_json(),
                "body": body, "created": self.created, "changed": self.changed,
                "tags": list(self.tags)}  # fmt: skip


def question_entry(answer: Answer, here: Anchor, before: Before | None = None) -> Entry:
    """The entry of an answer: at its first place, else where it was asked."""
    anchor = here
    if answer.quotes:
        place = answer.quotes[0].locators[0]
        anchor = Anchor(place.page, -1.0, place.spans, answer.quotes[0].text)
    return new_entry(EntryKind.QUESTION, anchor, QuestionBody.of(answer, before))


def kept_spans(entries: Iterable[Entry]) -> tuple[SpanOnPage, ...]:
    """The passages that a reader has kept: marked, noted at, and quoted in answers, in order.

    What a question was asked of is not kept by asking; what answers it is.
    """
    spans: set[SpanOnPage] = set()
    for entry in entries:
        if entry.anchor.is_lost or entry.anchor.scope is not Scope.PASSAGE:
            continue
        if entry.kind is EntryKind.QUESTION:
            n_quoted = getattr(entry.body, "n_quoted", 0)
            spans.update(span for place in entry.body.places[:n_quoted] for span in place.spans)
        else:
            spans.update(entry.anchor.spans)
    return tuple(sorted(spans, key=lambda span: (span.page, span.start, span.end)))


def new_entry(kind: EntryKind, anchor: Anchor, body: Body) -> Entry:
    """An entry made now.

    Raises:
        ValueError: The body is not one of this kind.
    """
    if type(body) is not BODIES[kind]:
        raise ValueError(f"the body of a {kind} is no {type(body).__name__}")
    return Entry(uuid.uuid4().hex, kind, anchor, body, _now())


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="milliseconds")
