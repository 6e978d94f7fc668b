"""A digest as JSON, Markdown, HTML or Word (Office Open XML), every line with its page."""

from __future__ import annotations

import io
import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from markupsafe import Markup, escape

from wide_margin.core.plain import counted, for_markdown, for_xml, one_line, plain

if TYPE_CHECKING:
    from wide_margin.core.digest import Digest, Facts, Field, GistLine
    from wide_margin.core.document import Locator
    from wide_margin.core.outline import Outline

NOT_STATED = "not stated"
FACT_NAMES = {
    "title": "Title", "subtitle": "Subtitle", "authors": "By", "date": "Date",
    "edition": "Edition", "place": "Published", "licence": "Licence",
}  # fmt: skip
"""What the facts are called where a reader sees them."""


@dataclass(frozen=True, slots=True)
class Block:
    """A heading (level 1 and down) or a line with a name and a place."""

    text: str
    level: int = 0
    name: str = ""
    place: str = ""


# --- JSON


def digest_as_json(digest: Digest, outline: Outline) -> dict[str, Any]:
    """The digest as plain values; pages are file pages from 1, what is not stated is null."""
    return {
        "facts": facts_as_json(digest.facts),
        "reach": digest.reach.name or None,
        "gist": [_line(line) for line in digest.gist],
        "by_kind": {f.slot.name: [_line(line) for line in f.lines] for f in digest.by_kind},
        "sections": [
            {
                "title": outline.sections[s.section].title,
                "level": outline.sections[s.section].level,
                "page": outline.sections[s.section].page + 1,
                "line": _line(s.line) if s.line else None,
            }
            for s in digest.sections
        ],
        "terms": [
            {"term": t.term, "times": t.n_times, "definition": t.definition or None}
            | _place(t.locator)
            for t in digest.terms
        ],
        "test": [
            {"question": t.question, "answer": t.answer, "shape": t.shape, "text": t.text}
            | _place(t.locator)
            for t in digest.test
        ],
    }


def facts_as_json(facts: Facts) -> dict[str, Any]:
    """What a document is; a fact has its text and its page."""
    found: dict[str, Any] = {
        "kind": str(facts.kind), "language": facts.language,
        "pages": facts.n_pages, "words": facts.n_words,
    }  # fmt: skip
    for name, values in facts.named():
        rows = [{"text": fact.text} | _place(fact.locator) for fact in values]
        found[name] = rows if name == "authors" else rows[0] if rows else None
    found["disagreements"] = list(facts.disagreements)
    return found


def fields_as_json(fields: Sequence[Field]) -> dict[str, Any]:
    """Name to value and page; a name with several values has a list of them."""
    found: dict[str, Any] = {}
    for field in fields:
        value = {"text": field.value or None}
        if field.locator is not None:
            value |= _place(field.locator)
        if field.name not in found:
            found[field.name] = value
        elif isinstance(found[field.name], list):
            found[field.name].append(value)
        else:
            found[field.name] = [found[field.name], value]
    return found


def _line(line: GistLine) -> dict[str, Any]:
    return {"text": line.text} | _place(line.locator)


def _place(locator: Locator) -> dict[str, Any]:
    return {"page": locator.page + 1, "label": locator.label, "section": list(locator.path)}


# --- for people


def export_digest(digest: Digest, outline: Outline, form: str) -> bytes:
    """A digest as a file of a format.

    Args:
        digest: As made.
        outline: The document's, for the titles of its sections.
        form: One of FORMATS.

    Raises:
        ValueError: Unknown format.
    """
    if form not in FORMATS:
        raise ValueError(f"format must be one of {', '.join(FORMATS)}, got {form}")
    return FORMATS[form](digest, outline)


def blocks_of(digest: Digest, outline: Outline) -> Iterator[Block]:
    """A digest as headings and lines, in the order it is read."""
    facts = digest.facts
    yield Block(facts.title.text if facts.title else "Digest", level=1)
    yield Block(
        f"{facts.kind}, {counted(facts.n_pages, 'page')}, {counted(facts.n_words, 'word')}",
        name="What it is",
    )
    for name, values in facts.named():
        if name == "title":
            continue
        for fact in values:
            yield Block(fact.text, name=FACT_NAMES[name], place=fact.locator.shown)
        if not values and name != "subtitle":
            yield Block(NOT_STATED, name=FACT_NAMES[name])
    for told in facts.disagreements:
        yield Block(told, name="Differs")
    yield Block(f"Gist of {digest.reach.name}" if digest.reach.name else "Gist", level=2)
    for line in digest.gist:
        yield Block(line.text, place=line.locator.shown)
    yield Block(f"As {digest.kind.with_article}", level=2)
    for filled in digest.by_kind:
        if not filled.lines:
            yield Block(NOT_STATED, name=filled.slot.name)
        for line in filled.lines:
            yield Block(line.text, name=filled.slot.name, place=line.locator.shown)
    yield Block("Section by section", level=2)
    for row in digest.sections:
        section = outline.sections[row.section]
        yield Block(
            row.line.text if row.line else "", name=section.title,
            place=row.line.locator.shown if row.line else "",
        )  # fmt: skip
    yield Block("Terms", level=2)
    for term in digest.terms:
        yield Block(
            term.definition or counted(term.n_times, "time"), name=term.term,
            place=term.locator.shown,
        )  # fmt: skip


def _json(digest: Digest, outline: Outline) -> bytes:
    values = digest_as_json(digest, outline)
    return (json.dumps(values, ensure_ascii=False, indent=1) + "\n").encode()


def _markdown(digest: Digest, outline: Outline) -> bytes:
    lines: list[str] = []
    for block in blocks_of(digest, outline):
        text = for_markdown(one_line(block.text))
        if block.level:
            lines += [*([""] if lines else []), f"{'#' * block.level} {text}", ""]
            continue
        name = f"**{for_markdown(one_line(block.name))}** " if block.name else ""
        place = f" ({for_markdown(block.place)})" if block.place else ""
        lines.append(f"- {name}{text}{place}")
    return ("\n".join(lines) + "\n").encode()


_PAGE = Markup(
    '<!doctype html>\n<html lang="{language}">\n<meta charset="utf-8">\n<title>{title}</title>\n'
    "<style>body{{max-width:44em;margin:3em auto;font-family:serif;line-height:1.45}}"
    "p{{margin:.35em 0 .35em 1.2em;text-indent:-1.2em}}i{{color:#555}}</style>\n{body}\n</html>\n"
)


def _html(digest: Digest, outline: Outline) -> bytes:
    parts: list[Markup] = []
    for block in blocks_of(digest, outline):
        text = escape(plain(block.text))
        if block.level:
            parts.append(Markup("<h{0}>{1}</h{0}>").format(block.level, text))
            continue
        name = Markup("<b>{}</b> ").format(plain(block.name)) if block.name else Markup()
        place = Markup(" <i>{}</i>").format(plain(block.place)) if block.place else Markup()
        parts.append(Markup("<p>{}{}{}</p>").format(name, text, place))
    title = digest.facts.title.text if digest.facts.title else "Digest"
    page = _PAGE.format(
        language=digest.facts.language, title=plain(title), body=Markup("\n").join(parts)
    )
    return str(page).encode()


def _docx(digest: Digest, outline: Outline) -> bytes:
    from docx import Document as WordDocument  # large, and rarely needed

    document = WordDocument()
    for block in blocks_of(digest, outline):
        text = for_xml(block.text)
        if block.level:
            document.add_heading(text, block.level)
            continue
        paragraph = document.add_paragraph()
        if block.name:
            paragraph.add_run(for_xml(block.name)).bold = True
            paragraph.add_run("  ")
        paragraph.add_run(text)
        if block.place:
            paragraph.add_run(f"  {for_xml(block.place)}").italic = True
    written = io.BytesIO()
    document.save(written)
    return written.getvalue()


FORMATS = {"json": _json, "md": _markdown, "html": _html, "docx": _docx}
