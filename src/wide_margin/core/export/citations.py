"""Answers to take away: plain or Markdown text, and citations with a page locator.

BibTeX as of its manual (Patashnik 1988); RIS; CSL-JSON (schema 1.0 of the Citation Style Language).
"""

import json
import re
from collections.abc import Sequence
from dataclasses import dataclass

from wide_margin.core.plain import for_markdown, one_line

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
    year: str = ""


@dataclass(frozen=True, slots=True)
class Statement:
    """One statement of an answer."""

    text: str
    places: tuple[str, ...]
    """As shown: "p. 57"."""
    is_quoted: bool = True
    """Whether these are the document's own words."""


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


def _said(statement: Statement) -> str:
    return f"“{statement.text}”" if statement.is_quoted else statement.text


def _where(statement: Statement) -> str:
    return ", ".join(dict.fromkeys(statement.places)) or "no place in the document"


def _reference(source: Source) -> str:
    return ", ".join(part for part in (source.author, source.title, source.year) if part) + "."


def _pages(statements: Sequence[Statement]) -> str:
    labels = [re.sub(r"^(?:p\.|file page)\s*", "", place) for s in statements for place in s.places]
    return ", ".join(dict.fromkeys(labels))


def _key(source: Source) -> str:
    words = re.findall(r"[A-Za-z]+", f"{source.author} {source.title}")
    return "".join(words[:2]).lower()[:24] + source.year or "document"


def _bibtex(source: Source, pages: str, statements: Sequence[Statement]) -> str:
    def value(text: str) -> str:
        return "".join(_TEX.get(sign, sign) for sign in one_line(text))

    fields = {
        "title": value(source.title), "author": value(source.author), "year": source.year,
        "pages": pages, "note": value(" ".join(_said(s) for s in statements)),
    }  # fmt: skip
    lines = [f"  {name} = {{{text}}}" for name, text in fields.items() if text]
    return f"@misc{{{_key(source)},\n" + ",\n".join(lines) + "\n}\n"


def _ris(source: Source, pages: str, statements: Sequence[Statement]) -> str:
    fields = [("TY", "GEN"), ("TI", source.title), ("AU", source.author), ("PY", source.year),
              ("SP", pages)]  # fmt: skip
    lines = [f"{tag}  - {one_line(text)}" for tag, text in fields if text]
    lines += [f"N1  - {one_line(_said(statement))}" for statement in statements]
    return "\r\n".join([*lines, "ER  - ", ""])


def _csl(source: Source, pages: str, statements: Sequence[Statement]) -> str:
    item: dict[str, object] = {"id": _key(source), "type": "document", "title": source.title}
    if source.author:
        item["author"] = [{"literal": source.author}]
    if source.year:
        item["issued"] = {"date-parts": [[int(source.year)]]}
    item |= {"locator": pages, "label": "page", "note": " ".join(_said(s) for s in statements)}
    return json.dumps([item], ensure_ascii=False, indent=1) + "\n"


def year_of(date: str) -> str:
    """The year in a PDF date ("D:20190412…") or an ISO one, "" where there is none."""
    match = re.search(r"(?:D:)?((?:19|20)\d\d)", date)
    return match[1] if match else ""
