"""Answers and explanations as the plain values that entries keep, and places in them."""

from typing import Any

from wide_margin.core.answers import Answer, Excerpt, Locator, Quote
from wide_margin.core.explain import Explanation
from wide_margin.core.layout import SpanOnPage

MAX_KEPT_EXCERPTS = 8


def locator_body(locator: Locator) -> dict[str, Any]:
    """A locator as plain values."""
    return {
        "page": locator.page,
        "label": locator.label,
        "shown": locator.shown,
        "spans": [list(span) for span in locator.spans],
        "path": list(locator.path),
    }


def spans_of(place: dict[str, Any]) -> tuple[SpanOnPage, ...]:
    """The character ranges of a kept locator."""
    return tuple(SpanOnPage(*span) for span in place.get("spans", ()))


def quote_body(quote: Quote) -> dict[str, Any]:
    """A statement as plain values."""
    return {
        "text": quote.text,
        "backing": quote.backing,
        "emphasis": [list(span) for span in quote.emphasis],
        "places": [locator_body(locator) for locator in quote.locators],
        "notes": list(quote.notes),
    }


def kept_excerpts(body: dict[str, Any]) -> list[Excerpt]:
    """The excerpts of a kept answer that were not struck out."""
    struck = set(body.get("struck", ()))
    found = []
    for k, excerpt in enumerate(body["excerpts"]):
        if k not in struck:
            place = excerpt["place"]
            locator = Locator(
                place["page"], place["label"], spans_of(place), tuple(place.get("path", ()))
            )
            found.append(Excerpt(excerpt["text"], locator, 0.0))
    return found


def answer_body(answer: Answer) -> dict[str, Any]:
    """An answer as plain values."""
    return {
        "question": answer.question,
        "kind": answer.kind,
        "reach": answer.reach.name,
        "origin": "quoted",
        "before": None,
        "struck": [],
        "quotes": [quote_body(quote) for quote in answer.quotes],
        "excerpts": [
            {"text": excerpt.text, "place": locator_body(excerpt.locator)}
            for excerpt in answer.excerpts[:MAX_KEPT_EXCERPTS]
        ],
        "n_searched": answer.n_searched,
        "n_pages": answer.n_pages,
        "without_text": list(answer.without_text),
        "missing": list(answer.missing),
    }


def explanation_body(explanation: Explanation) -> dict[str, Any]:
    """An explanation as plain values."""
    return {
        "text": explanation.text,
        "meanings": [
            {
                "term": meaning.term,
                "text": meaning.text,
                "kind": meaning.kind,
                "long_form": meaning.long_form,
                "place": locator_body(meaning.locator),
            }
            for meaning in explanation.meanings
        ],
        "references": [
            {
                "text": reference.text,
                "title": reference.title,
                "place": locator_body(reference.locator) if reference.locator else None,
            }
            for reference in explanation.references
        ],
    }


def coverage_text(body: dict[str, Any]) -> str:
    """The line under an answer: pages searched out of pages there are."""
    empty = body["without_text"]
    line = f"{body['n_searched']} of {body['n_pages']} pages searched"
    if len(empty) == 1:
        line += f" · file page {empty[0] + 1} has no text"
    elif empty:
        line += f" · {len(empty)} pages have no text"
    return line


def places_in(kind: str, body: dict[str, Any]) -> list[dict[str, Any]]:
    """Every place an entry leads to, in the order it names them."""
    if kind == "question":
        places = [place for quote in body["quotes"] for place in quote["places"]]
        return places or [excerpt["place"] for excerpt in body["excerpts"]]
    if kind == "explanation":
        found = [meaning["place"] for meaning in body["meanings"]]
        return found + [r["place"] for r in body["references"] if r["place"]]
    return []


def headline(kind: str, body: dict[str, Any], quote: str) -> str:
    """An entry in one line."""
    text = {
        "question": lambda: str(body.get("question", "")),
        "note": lambda: str(body.get("text", "")) or quote,
        "mark": lambda: str(body.get("text", "")) or quote,
    }.get(kind, lambda: quote)()
    return " ".join(text.split())
