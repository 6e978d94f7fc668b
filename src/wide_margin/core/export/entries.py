"""Entries taken away: Markdown, HTML, CSV, JSON and Word, with their pages and sections."""

import csv
import io
import json
from collections.abc import Callable, Sequence
from enum import StrEnum

from docx import Document
from docx.shared import Pt
from markupsafe import Markup

from wide_margin.core.layout import PageLabels
from wide_margin.core.margin import (
    Entry,
    ExplanationBody,
    QuestionBody,
    TranslationBody,
)
from wide_margin.core.margin.gathering import Group, ink_of
from wide_margin.core.plain import plain

Path = tuple[str, ...]
COLUMNS = ("kind", "page", "section", "passage", "words", "ink", "tags", "created")
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""A spreadsheet would compute a field that begins so."""
_MARKDOWN = str.maketrans({c: f"\\{c}" for c in "\\`*_{}[]<>#|"})


class EntriesFormat(StrEnum):
    """Formats that entries are taken away in."""

    MARKDOWN = "md"
    HTML = "html"
    CSV = "csv"
    JSON = "json"
    WORD = "docx"
    ANNOTATIONS = "jsonld"


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
) -> bytes:
    """Entries as the bytes of a file.

    Args:
        groups: From gather.
        labels: Of the document's pages.
        section_of: The section path at an entry's place.
        form: Of the file; annotations have a module of their own.
        title: Of the document.
        with_passages: Whether the words that an entry stands beside are taken along.
    """
    match form:
        case EntriesFormat.MARKDOWN:
            return _markdown(groups, labels, title, with_passages).encode()
        case EntriesFormat.HTML:
            return _html(groups, labels, title, with_passages).encode()
        case EntriesFormat.CSV:
            return _csv(groups, labels, section_of).encode("utf-8-sig")
        case EntriesFormat.JSON:
            rows = [entry.as_json() for group in groups for entry in group.entries]
            values = {"title": title, "entries": rows}
            return (json.dumps(values, ensure_ascii=False, indent=1) + "\n").encode()
        case EntriesFormat.WORD:
            return _word(groups, labels, title, with_passages)
        case _:
            raise ValueError(f"{form} is not written here")


def _where(entry: Entry, labels: PageLabels) -> str:
    return labels.shown(entry.anchor.page) if entry.anchor.page >= 0 else "no place"


def _about(entry: Entry, labels: PageLabels) -> str:
    parts = [_where(entry, labels), str(ink_of(entry) or entry.kind), *entry.tags]
    return " · ".join(plain(part) for part in parts)


def _quote(entry: Entry) -> str:
    return plain(" ".join(entry.anchor.quote.split()))


def _markdown(groups: Sequence[Group], labels: PageLabels, title: str, passages: bool) -> str:
    def safe(text: str) -> str:
        return plain(text).translate(_MARKDOWN)

    lines = [f"# {safe(title)}", ""]
    for group in groups:
        lines += [f"## {safe(group.name)}", ""]
        for entry in group.entries:
            lines.append(f"- {safe(_about(entry, labels))}")
            if passages and entry.anchor.quote:
                lines.append(f"  > {safe(_quote(entry))}")
            lines += [f"  {safe(line)}" for line in said_in(entry)]
        lines.append("")
    return "\n".join(lines)


def _html(groups: Sequence[Group], labels: PageLabels, title: str, passages: bool) -> str:
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
            parts.append(Markup('<article><p class="about">{}</p>').format(_about(entry, labels)))
            if passages and entry.anchor.quote:
                parts.append(Markup("<blockquote>{}</blockquote>").format(_quote(entry)))
            parts += [Markup("<p>{}</p>").format(plain(line)) for line in said_in(entry)]
            parts.append(Markup("</article>\n"))
    return str(Markup("").join([*parts, Markup("</body></html>\n")]))


def _csv(groups: Sequence[Group], labels: PageLabels, section_of: Callable[[Entry], Path]) -> str:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    seen: set[str] = set()
    for entry in (entry for group in groups for entry in group.entries):
        if entry.id in seen:  # one with two tags stands in two groups
            continue
        seen.add(entry.id)
        row = (
            str(entry.kind), _where(entry, labels), " / ".join(section_of(entry)), _quote(entry),
            "\n".join(said_in(entry)), str(ink_of(entry) or ""), ", ".join(entry.tags),
            entry.created,
        )  # fmt: skip
        writer.writerow([_harmless(plain(value)) for value in row])
    return out.getvalue()


def _harmless(value: str) -> str:
    return f"'{value}" if value.startswith(_FORMULA) else value


def _word(groups: Sequence[Group], labels: PageLabels, title: str, passages: bool) -> bytes:
    document = Document()
    document.add_heading(plain(title), 0)
    for group in groups:
        document.add_heading(plain(group.name), 1)
        for entry in group.entries:
            about = document.add_paragraph().add_run(_about(entry, labels))
            about.font.size = Pt(9)
            if passages and entry.anchor.quote:
                document.add_paragraph(_quote(entry), style="Quote")
            for line in said_in(entry):
                document.add_paragraph(plain(line))
    out = io.BytesIO()
    document.save(out)
    return out.getvalue()
