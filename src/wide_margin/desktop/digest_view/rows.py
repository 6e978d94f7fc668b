"""The lines of the digest, from its title down to its terms; no widgets here."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import TYPE_CHECKING

from wide_margin.core.answers import Excerpt
from wide_margin.core.document import Locator
from wide_margin.core.export import FACT_NAMES, NOT_STATED
from wide_margin.core.plain import counted

if TYPE_CHECKING:
    from wide_margin.core.digest import Digest, DocumentKind, Field, GistLine, KeyTerm
    from wide_margin.core.layout import PageLabels
    from wide_margin.core.outline import Outline


class Shape(StrEnum):
    """How a line is set."""

    TITLE = "title"
    HEAD = "head"
    LINE = "line"
    NONE = "none"
    """Nothing is stated."""
    SECTION = "section"
    TERM = "term"


@dataclass(frozen=True, slots=True)
class DigestRow:
    """One line: its name in the left margin, its text, its place in the right margin."""

    shape: Shape
    text: str
    name: str = ""
    locator: Locator | None = None
    place: str = ""
    """As shown: "p. 57"."""
    part: str = ""
    """The part of the digest that it belongs to: one of PARTS."""
    section: int = -1
    depth: int = 0
    has_deeper: bool = False
    is_open: bool = False
    spread: tuple[float, ...] = ()

    @property
    def said(self) -> str:
        """The whole line, for those who hear it."""
        return ", ".join(part for part in (self.name, self.text, self.place) if part)


FIELDS = "Fields"
PARTS = ("What it is", "Gist", "By kind", FIELDS, "Sections", "Terms")
"""In the order they are read."""


def rows_of(
    digest: Digest,
    outline: Outline,
    labels: PageLabels,
    opened: frozenset[int],
    fields: Sequence[Field] = (),
) -> list[DigestRow]:
    """All lines, with the sections below those that are opened, and the reader's own fields."""
    return [
        *_facts(digest), *gist_rows(digest.gist, digest.reach.name), *_by_kind(digest),
        *field_rows(fields, digest.kind), *_sections(digest, outline, labels, opened),
        *_terms(digest),
    ]  # fmt: skip


def gist_rows(gist: Sequence[GistLine], reach: str) -> list[DigestRow]:
    """The gist, which changes with its length."""
    head = "Gist" if reach in ("", "whole document") else f"Gist of {reach}"
    rows = [DigestRow(Shape.HEAD, head, part="Gist")]
    for line in gist:
        at = line.locator
        rows.append(DigestRow(Shape.LINE, line.text, locator=at, place=at.shown, part="Gist"))
    if not gist:
        rows.append(DigestRow(Shape.NONE, "Nothing here stands as a sentence.", part="Gist"))
    return rows


def field_rows(fields: Sequence[Field], kind: DocumentKind) -> list[DigestRow]:
    """What the document says to the questions that the reader has for its kind."""
    rows = [DigestRow(Shape.HEAD, f"What you ask of {kind.with_article}", part=FIELDS)]
    for field in fields:
        at = field.locator
        if field.value and at is not None:
            row = DigestRow(Shape.LINE, field.value, field.name, at, at.shown, FIELDS)
        else:
            row = DigestRow(Shape.NONE, NOT_STATED, field.name, part=FIELDS)
        rows.append(row)
    if not fields:
        told = "Nothing yet. “What you ask…” in the menu of kinds above keeps your questions."
        rows.append(DigestRow(Shape.NONE, told, part=FIELDS))
    return rows


MOST_LINES = 60
"""Section lines that are composed from; of a long document those of its upper levels."""


def excerpts_of(digest: Digest, outline: Outline, part: str) -> list[Excerpt]:
    """The lines of "By kind" or "Sections" as excerpts, each said once, in order."""
    lines = [line for filled in digest.by_kind for line in filled.lines]
    if part == "Sections":
        depths = outline.depths
        rows = [row for row in digest.sections if row.line is not None]
        depth = max(depths, default=0)
        while depth > 0 and sum(depths[row.section] <= depth for row in rows) > MOST_LINES:
            depth -= 1
        upper = [row.line for row in rows if depths[row.section] <= depth and row.line is not None]
        lines = upper[:MOST_LINES]
    once = {line.sentence: line for line in lines}
    return [Excerpt(line.text, line.locator, 1.0) for line in once.values()]


def _facts(digest: Digest) -> Iterator[DigestRow]:
    facts, part = digest.facts, PARTS[0]
    title = facts.title
    yield DigestRow(
        Shape.TITLE, title.text if title else "No title is printed.", part=part,
        locator=title.locator if title else None, place=title.locator.shown if title else "",
    )  # fmt: skip
    size = f"{counted(facts.n_pages, 'page')}, {counted(facts.n_words, 'word')}"
    yield DigestRow(Shape.LINE, f"{facts.kind}, {size}", "Kind", part=part)
    for name, values in facts.named():
        if name == "title" or (name == "subtitle" and not values):
            continue
        shown = FACT_NAMES[name]
        for k, fact in enumerate(values):
            at = fact.locator
            yield DigestRow(
                Shape.LINE, fact.text, "" if k else shown, at, at.shown, part
            )  # fmt: skip
        if not values:
            yield DigestRow(Shape.NONE, NOT_STATED, shown, part=part)
    for told in facts.disagreements:
        yield DigestRow(Shape.LINE, told, "Differs", part=part)


def _by_kind(digest: Digest) -> Iterator[DigestRow]:
    part = PARTS[2]
    yield DigestRow(Shape.HEAD, f"Read as {digest.kind.with_article}", part=part)
    for filled in digest.by_kind:
        for k, line in enumerate(filled.lines):
            at = line.locator
            name = "" if k else filled.slot.name
            yield DigestRow(Shape.LINE, line.text, name, at, at.shown, part)
        if not filled.lines:
            yield DigestRow(Shape.NONE, NOT_STATED, filled.slot.name, part=part)


def _sections(
    digest: Digest, outline: Outline, labels: PageLabels, opened: frozenset[int]
) -> Iterator[DigestRow]:
    part = "Sections"
    yield DigestRow(Shape.HEAD, "Section by section", part=part)
    parents, depths = outline.parents, outline.depths
    has_deeper = set(parents)
    lines = {row.section: row.line for row in digest.sections}
    for k, section in enumerate(outline.sections):
        parent = parents[k]
        while parent >= 0 and parent in opened:
            parent = parents[parent]
        if parent >= 0:
            continue
        line = lines.get(k)
        if line is not None and k in opened and _is_said_below(line, k, parents, lines):
            line = None
        yield DigestRow(
            Shape.SECTION, line.text if line else "", section.title,
            line.locator if line else None, labels.shown(section.page), part, k, depths[k],
            k in has_deeper, k in opened,
        )  # fmt: skip
    if not outline.sections:
        yield DigestRow(Shape.NONE, "No sections were found.", part=part)


def _is_said_below(
    line: GistLine, section: int, parents: Sequence[int], lines: Mapping[int, GistLine | None]
) -> bool:
    """Whether the line of an open part is that of a section right below it."""
    below = range(section + 1, len(parents))
    return any(
        other is not None and other.sentence == line.sentence
        for k in below if parents[k] == section and (other := lines.get(k)) is not None
    )  # fmt: skip


def _terms(digest: Digest) -> Iterator[DigestRow]:
    part = "Terms"
    yield DigestRow(Shape.HEAD, "Terms it works with", part=part)
    for term in digest.terms:
        yield DigestRow(
            Shape.TERM, _defined(term) or counted(term.n_times, "time"), term.term, term.locator,
            term.locator.shown, part, spread=term.spread,
        )  # fmt: skip


def _defined(term: KeyTerm) -> str:
    """The definition without the term itself, where a glossary repeats it: "staff A divided…"."""
    head, rest = term.definition[: len(term.term)], term.definition[len(term.term) :].lstrip(" :–—")
    return (
        rest if head.casefold() == term.term.casefold() and rest[:1].isupper() else term.definition
    )
