"""Where entries lie on their pages, box by box, and what lies on the words of a page as entries."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.errors import PageFailedError
from wide_margin.core.export.annotated import Placed
from wide_margin.core.layout import boxes_of
from wide_margin.core.margin import (
    Anchor,
    CuttingBody,
    EntryKind,
    MarkBody,
    MarkForm,
    NoteBody,
    new_entry,
)

if TYPE_CHECKING:
    from wide_margin.core.export.annotations_in_file import OwnAnnotation
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout import SpanOnPage, TextLayer
    from wide_margin.core.margin import Body, Entry
    from wide_margin.core.session.session import Session

_ADOPTED = uuid.UUID("5c5b0c5e-4a0e-4f6e-9b0b-9f6d1c0a7e11")
"""Name space of the ids of adopted annotations."""


def placed(session: Session, entries: Sequence[Entry]) -> list[Placed]:
    """Entries with the boxes of their passages; waits for the pages that they stand on."""
    layers: dict[int, TextLayer | None] = {}
    found = []
    for entry in entries:
        boxes: list[tuple[int, Box]] = []
        if isinstance(entry.body, CuttingBody):
            found.append(Placed(entry, ((entry.anchor.page, entry.body.box),)))
            continue
        for page in dict.fromkeys(span.page for span in entry.anchor.spans):
            layer = _layer(session, page, layers)
            if layer is not None:
                boxes += [(page, box) for box in boxes_of(layer.page, entry.anchor.spans)]
        found.append(Placed(entry, tuple(boxes)))
    return found


_MARKS = {form.value: form for form in MarkForm}


def adopted(session: Session, annotations: Sequence[OwnAnnotation], record: int) -> list[Entry]:
    """Annotations of the file as entries, at the words that they lie on.

    The same annotation gives an entry of the same id each time, in one document. One that was
    written by us over several pages becomes one entry again.

    Args:
        session: With the document open.
        annotations: Those to adopt.
        record: Id of the document's record.
    """
    layers: dict[int, TextLayer | None] = {}
    parts: dict[str, list[OwnAnnotation]] = {}
    for annotation in annotations:
        said = f"{annotation.page}{annotation.kind}{annotation.boxes}{annotation.text}"
        parts.setdefault(annotation.entry_id or said, []).append(annotation)
    return [_adopted(session, f"{record} {key}", made, layers) for key, made in parts.items()]


def _adopted(
    session: Session, key: str, made: Sequence[OwnAnnotation], layers: dict[int, TextLayer | None]
) -> Entry:
    first = made[0]
    spans: list[SpanOnPage] = []
    words: list[str] = []
    for part in made if first.kind in _MARKS else ():
        layer = _layer(session, part.page, layers)
        for box in part.boxes if layer is not None else ():
            assert layer is not None
            spans += layer.spans_in(box)
            words.append(layer.words_in(box))
    anchor = Anchor(first.page, first.boxes[0][1], tuple(spans), " ".join(" ".join(words).split()))
    if spans:
        body: Body = MarkBody(first.text, form=_MARKS[first.kind])
        entry = new_entry(EntryKind.MARK, anchor, body)
    else:
        entry = new_entry(EntryKind.NOTE, anchor, NoteBody(first.text or first.kind.capitalize()))
    entry = entry.with_tags(filter(None, [first.author]))
    return replace(
        entry, id=uuid.uuid5(_ADOPTED, key).hex,
        created=first.date or entry.created,
    )  # fmt: skip


def _layer(session: Session, page: int, layers: dict[int, TextLayer | None]) -> TextLayer | None:
    if page not in layers:
        try:
            layers[page] = session.text(page).result()
        except PageFailedError:
            layers[page] = None
    return layers[page]
