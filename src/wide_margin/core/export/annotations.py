"""Web Annotation (W3C Recommendation, 2017) as JSON-LD, out and in."""

from __future__ import annotations

import json
import uuid
from collections.abc import Collection, Iterable, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import TYPE_CHECKING, Any

from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.entries import said_in
from wide_margin.core.layout import fold
from wide_margin.core.margin import (
    Anchor,
    EntryKind,
    Ink,
    Letters,
    MarkBody,
    MarkForm,
    NoteBody,
    anchored_again,
    new_entry,
)
from wide_margin.core.margin.gathering import ink_of
from wide_margin.core.plain import plain

if TYPE_CHECKING:
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.margin import Entry

CONTEXT = "http://www.w3.org/ns/anno.jsonld"
MAX_ANNOTATIONS = 50_000
_BROUGHT = uuid.UUID("6f0f6f0a-5d0e-4b53-9a75-1f6f3a0b7c42")
"""Namespace of the names of entries that were brought in (RFC 4122, 4.3)."""
AROUND = 32
"""Letters before and after a quote that tell it from the same words elsewhere."""
_MOTIVATION = {
    EntryKind.QUESTION: "questioning", EntryKind.EXPLANATION: "describing",
    EntryKind.TRANSLATION: "describing", EntryKind.MARK: "highlighting",
    EntryKind.NOTE: "commenting", EntryKind.CUTTING: "commenting",
}  # fmt: skip


def as_annotations(
    entries: Iterable[Entry], source: str, paragraphs: Sequence[Paragraph] = ()
) -> str:
    """Entries as an annotation collection in JSON-LD.

    Args:
        entries: In their order.
        source: IRI or name of the document.
        paragraphs: The document's: what stands before and after each quote is taken along.
    """
    around = _Around(paragraphs)
    items = [_annotation(entry, source, around) for entry in entries]
    name = uuid.uuid5(_BROUGHT, f"{source} {' '.join(item['id'] for item in items)}").urn
    page = {"id": f"{name}#1", "type": "AnnotationPage", "partOf": name, "startIndex": 0,
            "items": items}  # fmt: skip
    values = {
        "@context": CONTEXT, "id": name, "type": "AnnotationCollection", "total": len(items),
        "first": page,
    }  # fmt: skip
    return json.dumps(values, ensure_ascii=False, indent=1) + "\n"


class _Around:
    """What stands around a quote in the document's text."""

    def __init__(self, paragraphs: Sequence[Paragraph]) -> None:
        self._by_page: dict[int, str] = {}
        for paragraph in paragraphs:
            text = self._by_page.get(paragraph.page, "")
            self._by_page[paragraph.page] = f"{text} {' '.join(paragraph.text.split())}".strip()

    def of(self, page: int, quote: str) -> tuple[str, str]:
        text = self._by_page.get(page, "")
        at = text.find(quote)
        if at < 0:
            return "", ""
        end = at + len(quote)
        return text[max(0, at - AROUND) : at], text[end : end + AROUND]


def _annotation(entry: Entry, source: str, around: _Around) -> dict[str, Any]:
    quote = " ".join(entry.anchor.quote.split())
    selectors: list[dict[str, Any]] = [{
        "type": "FragmentSelector", "conformsTo": "http://tools.ietf.org/rfc/rfc8118",
        "value": f"page={entry.anchor.page + 1}",
    }]  # fmt: skip
    if quote:
        before, after = around.of(entry.anchor.page, quote)
        exact = {"type": "TextQuoteSelector", "exact": plain(quote)}
        selectors.append(exact | ({"prefix": before, "suffix": after} if before or after else {}))
    bodies: list[dict[str, Any]] = [
        {"type": "TextualBody", "value": plain(line), "format": "text/plain",
         "purpose": "commenting"} for line in said_in(entry)
    ]  # fmt: skip
    tags = [*entry.tags, *([f"ink: {ink}"] if (ink := ink_of(entry)) else [])]
    if isinstance(entry.body, MarkBody) and entry.body.form is not MarkForm.HIGHLIGHT:
        tags.append(f"form: {entry.body.form}")
    bodies += [{"type": "TextualBody", "value": plain(tag), "purpose": "tagging"} for tag in tags]
    values = {
        "id": f"urn:uuid:{_uuid(entry.id)}", "type": "Annotation",
        "motivation": _MOTIVATION[entry.kind], "created": entry.created,
        "target": {"source": source, "selector": selectors},
    }  # fmt: skip
    return values | ({"body": bodies} if bodies else {})


def _uuid(name: str) -> str:
    plain_name = (name + "0" * 32)[:32]
    cuts = (0, 8, 12, 16, 20, 32)
    return "-".join(plain_name[a:b] for a, b in pairwise(cuts))


def read_annotations(
    text: str, paragraphs: Sequence[Paragraph], record: int = 0, known: Collection[str] = ()
) -> tuple[list[Entry], list[str]]:
    """Annotations as entries: marks and notes, found again by their quotes.

    The same annotation gives an entry of the same id each time, in one document.

    Args:
        text: JSON-LD: one annotation, a list, a page or a collection.
        paragraphs: Of the document that is open.
        record: Id of its record.
        known: Ids of its entries; what was written of one of them has its id again.

    Returns:
        The entries that have a place now, and the quotes of those that have none.

    Raises:
        WideMarginError: It is not Web Annotation.
    """
    try:
        values = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise _not_annotations() from error
    found = list(_items(values, 0))[:MAX_ANNOTATIONS]
    if not found:
        raise _not_annotations()
    letters = Letters(paragraphs)
    placed: dict[str, Entry] = {}
    lost: dict[str, str] = {}
    for item in found:
        entry = _entry(item)
        if entry is None:
            continue
        entry = replace(entry, id=_id_of(item, record, known))
        if not entry.anchor.quote:
            placed.setdefault(entry.id, entry)
            continue
        again = anchored_again(entry, letters, lambda _: None)
        if again.anchor.is_lost or not again.anchor.spans:
            lost.setdefault(entry.id, entry.anchor.quote)
        else:
            placed.setdefault(again.id, again)
    return list(placed.values()), list(lost.values())


def _id_of(item: dict[str, Any], record: int, known: Collection[str]) -> str:
    """Id of the entry that an annotation becomes.

    Ids are unique over all documents, so one that was written of another document is not taken.
    """
    name = item.get("id", item.get("@id"))
    said = name if isinstance(name, str) and name else json.dumps(item, sort_keys=True)
    own = said.removeprefix("urn:uuid:").replace("-", "")
    return own if own in known else uuid.uuid5(_BROUGHT, f"{record} {said}").hex


def _not_annotations() -> WideMarginError:
    return WideMarginError(
        "This file holds no Web Annotations.", hint="Choose a JSON-LD file of annotations."
    )


def _items(values: Any, depth: int) -> Iterable[dict[str, Any]]:
    if depth > 4:
        return
    if isinstance(values, list):
        for value in values:
            yield from _items(value, depth + 1)
    elif isinstance(values, dict):
        types = values.get("type", values.get("@type"))
        if types == "Annotation" or (isinstance(types, list) and "Annotation" in types):
            yield values
        for key in ("first", "items"):
            yield from _items(values.get(key), depth + 1)


def _entry(item: dict[str, Any]) -> Entry | None:
    quote, page = "", 0
    target = item.get("target")
    target = target[0] if isinstance(target, list) and target else target
    selectors = target.get("selector", []) if isinstance(target, dict) else []
    for selector in selectors if isinstance(selectors, list) else [selectors]:
        if not isinstance(selector, dict):
            continue
        if selector.get("type") == "TextQuoteSelector":
            quote = plain(" ".join(str(selector.get("exact", "")).split()))
        value = str(selector.get("value", ""))
        if selector.get("type") == "FragmentSelector" and value.startswith("page="):
            number = value.removeprefix("page=").split("&")[0]
            page = int(number) - 1 if number.isdecimal() and 0 < int(number) < 10**6 else 0
    said, tags, ink, form = _bodies(item.get("body"))
    if not quote and not said:
        return None
    anchor = Anchor(max(page, 0), -1.0 if quote else 0.0, (), quote)
    if item.get("motivation") == "highlighting" or (quote and not said):
        entry = new_entry(EntryKind.MARK, anchor, MarkBody(said, ink=ink, form=form))
    else:
        entry = new_entry(EntryKind.NOTE, anchor, NoteBody(said))
    return entry.with_tags(tags)


def _bodies(values: Any) -> tuple[str, list[str], Ink, MarkForm]:
    """What the bodies of an annotation say, its tags, and how its mark is drawn."""
    lines: list[str] = []
    tags: list[str] = []
    ink, form = Ink.CLAIM, MarkForm.HIGHLIGHT
    for body in values if isinstance(values, list) else [values]:
        if isinstance(body, str):
            lines.append(plain(body))
        if not isinstance(body, dict):
            continue
        value = plain(str(body.get("value", "")))
        if body.get("purpose") != "tagging":
            lines += [value] if value else []
        elif fold(value).startswith("ink: ") and fold(value)[5:] in set(Ink):
            ink = Ink(fold(value)[5:])
        elif fold(value).startswith("form: ") and fold(value)[6:] in set(MarkForm):
            form = MarkForm(fold(value)[6:])
        elif value:
            tags.append(value)
    return "\n".join(lines), tags, ink, form
