"""Fields: the facts of a document, and answers to a plain list of questions, as names and values."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.document import Locator
from wide_margin.core.plain import for_cell, one_line

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.digest.facts import Facts


@dataclass(frozen=True, slots=True)
class Field:
    """A name, its value and where it stands; without a value where the document does not state it."""

    name: str
    value: str
    locator: Locator | None


def fields_of(facts: Facts) -> list[Field]:
    """What the front of a document says, as fields."""
    found = [Field("kind", str(facts.kind), None), Field("language", facts.language, None),
             Field("pages", str(facts.n_pages), None), Field("words", str(facts.n_words), None)]  # fmt: skip
    for name, values in facts.named():
        if not values:
            found.append(Field(name, "", None))
        found += [Field(name, fact.text, fact.locator) for fact in values]
    return found


def field_of(question: str, answer: Answer) -> Field:
    """An answer as a field; its first statement is the value."""
    if not answer.quotes:
        return Field(question, "", None)
    quote = answer.quotes[0]
    return Field(question, one_line(quote.text), quote.locators[0] if quote.locators else None)


def as_csv(fields: Sequence[Field]) -> str:
    """Name, value and file page, no cell a formula."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\n")
    writer.writerow(["name", "value", "page"])
    for field in fields:
        page = field.locator.page + 1 if field.locator else ""
        writer.writerow([for_cell(field.name), for_cell(field.value), page])
    return text.getvalue()


def questions_in(text: str) -> list[str]:
    """The questions of a plain list, one a line; lines that begin with # are passed over."""
    lines = (one_line(line, 300) for line in text.splitlines())
    return [line for line in lines if line and not line.startswith("#")]
