"""Answers to take away: plain or Markdown text, and citations with a page locator.

BibTeX as of its manual (Patashnik 1988); RIS; CSL-JSON (schema 1.0 of the Citation Style Language).
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from wide_margin.core.plain import for_markdown, one_line

if TYPE_CHECKING:
    from wide_margin.core.digest import Field

_TEX = {
    **{sign: f"\\{sign}" for sign in "&%$#_{}"},
    "\\": r"\textbackslash{}", "~": r"\textasciitilde{}", "^": r"\textasciicircum{}",
}  # fmt: skip
ANSWER_FORMS = {
    "plain": "Words alone",
    "cited": "Words with pages",
    "markdown": "Markdown with pages",
    "bibtex": "BibTeX with pages",
    "ris": "RIS with pages",
    "csl-json": "CSL-JSON with pages",
}
"""Form to what it is called."""


@dataclass(frozen=True, slots=True)
class Source:
    """The document that is cited."""

    title: str
    author: str = ""
    """Several are parted by semicolons."""
    year: str = ""
    publisher: str = ""
    edition: str = ""
    part: int = 0
    """Number of a passage of it that has a record of its own; 0 for the document."""


@dataclass(frozen=True, slots=True)
class Statement:
    """One statement of an answer."""

    text: str
    places: tuple[str, ...]
    """As shown: "p. 57"."""
    is_quoted: bool = True
    """Whether these are the document's own words."""


def source_from(fields: Iterable[Field], title: str) -> Source:
    """The document as it is cited, from what its front says.

    Args:
        fields: Of the digest.
        title: To use where none is printed.
    """
    said: dict[str, list[str]] = {}
    for field in fields:
        said.setdefault(field.name, []).append(field.value)

    def one(name: str) -> str:
        return next(iter(said.get(name, ())), "")

    return Source(
        one("title") or title, "; ".join(filter(None, said.get("authors", ()))),
        year_of(one("date")), one("place"), one("edition"),
    )  # fmt: skip


def answer_as(form: str, question: str, statements: Sequence[Statement], source: Source) -> str:
    """An answer in one of ANSWER_FORMS."""
    if form == "plain":
        return "\n".join(statement.text for statement in statements) + "\n"
    if form == "cited":
        lines = [f"{_said(s)} ({_where(s)})" if s.places else _said(s) for s in statements]
        return "\n".join([question, "", *lines, "", _reference(source)]) + "\n"
    if form == "markdown":
        lines = [f"> {for_markdown(_said(s))} ({_where(s)})\n" for s in statements]
        return (
            "\n".join(
                [f"**{for_markdown(question)}**\n", *lines, f"*{for_markdown(source.title)}*"]
            )
            + "\n"
        )
    pages = _pages(statements)
    if form == "bibtex":
        return _bibtex(source, pages, statements)
    if form == "ris":
        return _ris(source, pages, statements)
    return _csl(source, pages, statements)


def cited(form: str, source: Source, statements: Sequence[Statement]) -> str:
    """The document itself as a record, and one more with its pages for each statement.

    Args:
        form: "bibtex", "ris" or "csl-json".
        source: The document.
        statements: What is cited of it, each with its own places.
    """
    whole = answer_as(form, "", (), source)
    parts = [answer_as(form, "", (s,), replace(source, part=k))
             for k, s in enumerate(statements, start=1)]  # fmt: skip
    if form == "csl-json":
        items = [item for text in (whole, *parts) for item in json.loads(text)]
        return json.dumps(items, ensure_ascii=False, indent=1) + "\n"
    return ("\n" if form == "bibtex" else "").join([whole, *parts])


def _said(statement: Statement) -> str:
    return f"“{statement.text}”" if statement.is_quoted else statement.text


def _where(statement: Statement) -> str:
    return ", ".join(dict.fromkeys(statement.places)) or "no place in the document"


def _reference(source: Source) -> str:
    return ", ".join(part for part in (source.author, source.title, source.year) if part) + "."


def _pages(statements: Sequence[Statement]) -> str:
    labels = [re.sub(r"^(?:p\.|file page)\s*", "", place) for s in statements for place in s.places]
    return ", ".join(dict.fromkeys(labels))


def _authors(source: Source) -> list[str]:
    return [name.strip() for name in source.author.split(";") if name.strip()]


def _key(source: Source) -> str:
    words = re.findall(r"[A-Za-z]+", f"{source.author} {source.title}")
    key = "".join(words[:2]).lower()[:24] + source.year or "document"
    return f"{key}-{source.part}" if source.part else key


def _bibtex(source: Source, pages: str, statements: Sequence[Statement]) -> str:
    def value(text: str) -> str:
        return "".join(_TEX.get(sign, sign) for sign in one_line(text))

    fields = {
        "title": value(source.title), "author": value(" and ".join(_authors(source))),
        "year": source.year,
        "publisher": value(source.publisher), "edition": value(source.edition),
        "pages": pages, "note": value(" ".join(_said(s) for s in statements)),
    }  # fmt: skip
    lines = [f"  {name} = {{{text}}}" for name, text in fields.items() if text]
    return f"@misc{{{_key(source)},\n" + ",\n".join(lines) + "\n}\n"


def _ris(source: Source, pages: str, statements: Sequence[Statement]) -> str:
    fields = [("TY", "GEN"), ("TI", source.title)]
    fields += [("AU", name) for name in _authors(source)]
    fields += [("PY", source.year), ("PB", source.publisher), ("ET", source.edition), ("SP", pages)]
    lines = [f"{tag}  - {one_line(text)}" for tag, text in fields if text]
    lines += [f"N1  - {one_line(_said(statement))}" for statement in statements]
    return "\r\n".join([*lines, "ER  - ", ""])


def _csl(source: Source, pages: str, statements: Sequence[Statement]) -> str:
    item: dict[str, object] = {"id": _key(source), "type": "document", "title": source.title}
    if source.author:
        item["author"] = [{"literal": name} for name in _authors(source)]
    if source.year:
        item["issued"] = {"date-parts": [[int(source.year)]]}
    more = {"publisher": source.publisher, "edition": source.edition}
    item |= {name: text for name, text in more.items() if text}
    if statements:
        item |= {"locator": pages, "label": "page", "note": " ".join(_said(s) for s in statements)}
    return json.dumps([item], ensure_ascii=False, indent=1) + "\n"


def year_of(date: str) -> str:
    """The year in a PDF date ("D:20190412…") or an ISO one, "" where there is none."""
    match = re.search(r"(?:D:)?((?:19|20)\d\d)", date)
    return match[1] if match else ""
