"""Entries taken away: Markdown, HTML, CSV, JSON and Word, with their pages and sections."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import TYPE_CHECKING

from markupsafe import Markup

from wide_margin.core.export.citations import Source, Statement, cited
from wide_margin.core.later import regex
from wide_margin.core.layout import PageLabels
from wide_margin.core.margin import (
    CuttingBody,
    ExplanationBody,
    QuestionBody,
    Scope,
    TranslationBody,
)
from wide_margin.core.margin.gathering import InkName, ink_of
from wide_margin.core.plain import for_cell, plain

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry
    from wide_margin.core.margin.gathering import Group

Path = tuple[str, ...]
COLUMNS = ("kind", "page", "section", "passage", "words", "ink", "tags", "created")
_NUMBER = regex(r"[-+−]?\d[\d.,  ]*%?")
_MARKDOWN = str.maketrans({c: f"\\{c}" for c in "\\`*_{}[]<>#|"})


class EntriesFormat(StrEnum):
    """Formats that entries are taken away in."""

    MARKDOWN = "md"
    HTML = "html"
    CSV = "csv"
    JSON = "json"
    WORD = "docx"
    ANNOTATIONS = "jsonld"
    BIBTEX = "bib"
    RIS = "ris"
    CSL = "csl"


_CITED = {
    EntriesFormat.BIBTEX: "bibtex", EntriesFormat.RIS: "ris", EntriesFormat.CSL: "csl-json",
}  # fmt: skip


def said_in(entry: Entry) -> list[str]:
    """What an entry says, line by line, without its passage."""
    body = entry.body
    if isinstance(body, QuestionBody):
        quotes = [
            f"“{q.text}” ({', '.join(dict.fromkeys(at.shown for at in q.locators))})"
            for q in body.quotes
        ]
        return [body.question, *(quotes or ["The document does not say."])]
    if isinstance(body, ExplanationBody):
        told = [f"{m.term}: {m.long_form or m.text} ({m.locator.shown})" for m in body.meanings]
        return told + [f"{r.text}: {r.title}" for r in body.references if r.title]
    if isinstance(body, TranslationBody):
        return [pair.target for pair in body.pairs if pair.target]
    return [line for line in body.text.splitlines() if line.strip()]


def export_entries(
    groups: Sequence[Group],
    labels: PageLabels,
    section_of: Callable[[Entry], Path],
    form: EntriesFormat,
    *,
    title: str,
    with_passages: bool = True,
    ink_name: InkName = str,
    source: Source | None = None,
) -> bytes:
    """Entries as the bytes of a file.

    Args:
        groups: From gather.
        labels: Of the document's pages.
        section_of: The section path at an entry's place.
        form: Of the file; annotations have a module of their own.
        title: Of the document.
        with_passages: Whether the words that an entry stands beside are taken along.
        ink_name: What the reader calls an ink.
        source: The document as it is cited; by its title alone where None.
    """
    told = _Told(labels, ink_name)
    match form:
        case EntriesFormat.MARKDOWN:
            return _markdown(groups, told, title, with_passages).encode()
        case EntriesFormat.HTML:
            return _html(groups, told, title, with_passages).encode()
        case EntriesFormat.CSV:
            return _csv(groups, told, section_of).encode("utf-8-sig")
        case EntriesFormat.JSON:
            rows = [entry.as_json() for group in groups for entry in group.entries]
            values = {"title": title, "entries": rows}
            return (json.dumps(values, ensure_ascii=False, indent=1) + "\n").encode()
        case EntriesFormat.WORD:
            return _word(groups, told, title, with_passages)
        case EntriesFormat.BIBTEX | EntriesFormat.RIS | EntriesFormat.CSL:
            cited_from = source or Source(title)
            return cited(_CITED[form], cited_from, _statements(groups, told)).encode()
        case _:
            raise ValueError(f"{form} is not written here")


@dataclass(frozen=True, slots=True)
class _Told:
    """How places and inks are written."""

    labels: PageLabels
    ink_name: InkName

    def where(self, entry: Entry) -> str:
        """Its page, or what else it belongs to."""
        anchor = entry.anchor
        if anchor.scope is Scope.DOCUMENT:
            return "whole document"
        if anchor.is_lost:
            return "no place"
        return self.labels.shown(anchor.page) if anchor.has_place else str(Scope.LOOSE)

    def ink(self, entry: Entry) -> str:
        """Its ink, "" for none."""
        ink = ink_of(entry)
        return self.ink_name(ink) if ink is not None else ""

    def about(self, entry: Entry) -> str:
        """Place, sort and tags in one line."""
        parts = [self.where(entry), self.ink(entry) or str(entry.kind), *entry.tags]
        return " · ".join(plain(part) for part in parts)


def _statements(groups: Sequence[Group], told: _Told) -> list[Statement]:
    """What is cited of each entry, each once: the words of an answer, else its passage."""
    found: dict[str, Statement] = {}
    for entry in (entry for group in groups for entry in group.entries):
        body = entry.body
        if isinstance(body, QuestionBody):
            words = " ".join(quote.text for quote in body.quotes)
            places = tuple(place.shown for quote in body.quotes for place in quote.locators)
        else:
            words, places = _quote(entry), (told.where(entry),)
        if words and entry.anchor.has_place:
            found[entry.id] = Statement(plain(words), places)
    return list(found.values())


def _quote(entry: Entry) -> str:
    return plain(" ".join(entry.anchor.quote.split()))


def _markdown(groups: Sequence[Group], told: _Told, title: str, passages: bool) -> str:
    def safe(text: str) -> str:
        return plain(text).translate(_MARKDOWN)

    lines = [f"# {safe(title)}", ""]
    for group in groups:
        lines += [f"## {safe(group.name)}", ""]
        for entry in group.entries:
            lines.append(f"- {safe(told.about(entry))}")
            if passages and entry.anchor.quote:
                lines.append(f"  > {safe(_quote(entry))}")
            lines += [f"  {safe(line)}" for line in said_in(entry)]
            lines += [f"  | {' | '.join(map(safe, row))} |" for row in _with_rule(rows_of(entry))]
        lines.append("")
    return "\n".join(lines)


def _html(groups: Sequence[Group], told: _Told, title: str, passages: bool) -> str:
    parts = [
        Markup('<!DOCTYPE html>\n<html><head><meta charset="utf-8">'),
        Markup("<title>{}</title>\n").format(title),
        Markup(
            "<style>body{font-family:serif;max-width:46em;margin:2em auto}.about{color:#555b62;"
            "font:.85em sans-serif}blockquote{margin:.3em 0 .3em 1em;border-left:3px solid #cbc1ae;"
            "padding-left:.8em}article{margin:1em 0}</style></head><body>\n"
        ),
        Markup("<h1>{}</h1>\n").format(title),
    ]  # fmt: skip
    for group in groups:
        parts.append(Markup("<h2>{}</h2>\n").format(group.name))
        for entry in group.entries:
            parts.append(Markup('<article><p class="about">{}</p>').format(told.about(entry)))
            if passages and entry.anchor.quote:
                parts.append(Markup("<blockquote>{}</blockquote>").format(_quote(entry)))
            parts += [Markup("<p>{}</p>").format(plain(line)) for line in said_in(entry)]
            parts.append(_html_table(rows_of(entry)))
            parts.append(Markup("</article>\n"))
    return str(Markup("").join([*parts, Markup("</body></html>\n")]))


def rows_of(entry: Entry) -> tuple[tuple[str, ...], ...]:
    """The cells of a table that was cut out; none for anything else."""
    return entry.body.rows if isinstance(entry.body, CuttingBody) else ()


def table_as(rows: Sequence[Sequence[str]], *, separator: str = ",") -> str:
    """Cells as CSV, or as TSV with a tab as separator; none is a formula."""
    out = io.StringIO()
    writer = csv.writer(out, delimiter=separator, lineterminator="\n")
    writer.writerows([[_cell(cell) for cell in row] for row in rows])
    return out.getvalue()


def _cell(text: str) -> str:
    """A cell; a number with a sign before it is no formula."""
    return text if _NUMBER.fullmatch(text) else for_cell(plain(text))


def _with_rule(rows: Sequence[Sequence[str]]) -> list[Sequence[str]]:
    """The rows of a Markdown table: the first is its head, as Markdown has it."""
    return [rows[0], ["-"] * len(rows[0]), *rows[1:]] if rows else []


def _html_table(rows: Sequence[Sequence[str]]) -> Markup:
    lines = [
        Markup("<tr>{}</tr>\n").format(
            Markup("").join(Markup("<td>{}</td>").format(plain(cell)) for cell in row)
        )
        for row in rows
    ]
    return Markup("<table>\n{}</table>\n").format(Markup("").join(lines)) if rows else Markup("")


def _csv(groups: Sequence[Group], told: _Told, section_of: Callable[[Entry], Path]) -> str:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    seen: set[str] = set()
    for entry in (entry for group in groups for entry in group.entries):
        if entry.id in seen:  # one with two tags stands in two groups
            continue
        seen.add(entry.id)
        row = (
            str(entry.kind), told.where(entry), " / ".join(section_of(entry)), _quote(entry),
            "\n".join(said_in(entry)), told.ink(entry), ", ".join(entry.tags),
            entry.created,
        )  # fmt: skip
        writer.writerow([for_cell(plain(value)) for value in row])
    return out.getvalue()


def _word(groups: Sequence[Group], told: _Told, title: str, passages: bool) -> bytes:
    from docx import Document  # large, and rarely needed
    from docx.shared import Pt

    document = Document()
    document.add_heading(plain(title), 0)
    for group in groups:
        document.add_heading(plain(group.name), 1)
        for entry in group.entries:
            about = document.add_paragraph().add_run(told.about(entry))
            about.font.size = Pt(9)
            if passages and entry.anchor.quote:
                document.add_paragraph(_quote(entry), style="Quote")
            for line in said_in(entry):
                document.add_paragraph(plain(line))
            if rows := rows_of(entry):
                table = document.add_table(len(rows), len(rows[0]), style="Table Grid")
                for cells, row in zip(table.rows, rows, strict=True):
                    for cell, text in zip(cells.cells, row, strict=False):
                        cell.text = plain(text)
    out = io.BytesIO()
    document.save(out)
    return out.getvalue()
