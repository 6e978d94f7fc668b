"""The annotations that a PDF has already (ISO 32000-1, 12.5), read and never changed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, timezone
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.annotated import PREFIX
from wide_margin.core.export.pdf import frame_of
from wide_margin.core.geometry import Box, to_page_space
from wide_margin.core.later import loaded_later, regex
from wide_margin.core.plain import plain

if TYPE_CHECKING:
    import pikepdf
else:
    pikepdf = loaded_later("pikepdf")

KINDS = {
    "/Highlight": "highlight", "/Underline": "underline", "/Squiggly": "underline",
    "/StrikeOut": "strike out", "/Text": "note", "/FreeText": "note", "/Square": "region",
    "/Circle": "region", "/Ink": "drawing", "/Line": "drawing", "/Polygon": "drawing",
    "/PolyLine": "drawing", "/Stamp": "stamp", "/Caret": "note", "/FileAttachment": "attachment",
}  # fmt: skip
"""What is said of a reader's annotations; links, fields and windows of others are none."""
MAX_ANNOTATIONS = 20_000
_DATE = regex(r"D?:?(\d{4})(\d\d)?(\d\d)?(\d\d)?(\d\d)?(\d\d)?(?:Z|([+-])(\d\d)'?(\d\d)?)?")


@dataclass(frozen=True, slots=True)
class OwnAnnotation:
    """One annotation of the file."""

    page: int
    kind: str
    """One of the values of KINDS."""
    boxes: tuple[Box, ...]
    """In page space: line by line where it says so, else around it."""
    author: str = ""
    text: str = ""
    date: str = ""
    """ISO 8601, UTC; "" where it has none that can be read."""
    name: str = ""
    """Its /NM."""

    @property
    def entry_id(self) -> str:
        """The entry that it was written from; "" for one of another program."""
        if not self.name.startswith(PREFIX):
            return ""
        return self.name.removeprefix(PREFIX).split("-")[0]


def annotations_in_file(path: Path, password: str | None = None) -> list[OwnAnnotation]:
    """The annotations of a PDF that a reader made, in the order of pages.

    Raises:
        WideMarginError: The file cannot be read.
    """
    found: list[OwnAnnotation] = []
    try:
        with pikepdf.open(path, password=password or "") as pdf:
            for index, page in enumerate(pdf.pages):
                annotations = page.obj.get("/Annots")
                if not isinstance(annotations, pikepdf.Array):
                    continue
                for annotation in annotations:
                    made = _read(page, index, annotation)
                    if made is not None:
                        found.append(made)
                if len(found) >= MAX_ANNOTATIONS:
                    break
    except (pikepdf.PdfError, OSError) as error:
        raise WideMarginError(
            "The annotations of the file cannot be read.",
            hint="Its pages can be read all the same.",
        ) from error
    return found[:MAX_ANNOTATIONS]


def _read(page: pikepdf.Page, index: int, annotation: object) -> OwnAnnotation | None:
    """One annotation; None for what is no reader's, or damaged."""
    if not isinstance(annotation, pikepdf.Dictionary):
        return None
    try:
        kind = KINDS.get(str(annotation.get("/Subtype", "")))
        boxes = _boxes(page, annotation)
        text = plain(str(annotation.get("/Contents", ""))).strip()
        if kind is None or not boxes:
            return None
        date = str(annotation.get("/M", annotation.get("/CreationDate", "")))
        return OwnAnnotation(
            index, kind, boxes, plain(str(annotation.get("/T", "")), 120), text, iso_date(date),
            str(annotation.get("/NM", ""))[:200],
        )  # fmt: skip
    except (ValueError, TypeError, OverflowError):
        return None


def _boxes(page: pikepdf.Page, annotation: pikepdf.Dictionary) -> tuple[Box, ...]:
    frame, turns = frame_of(page)
    quads = [float(value) for value in annotation.get("/QuadPoints", ())]
    rows = [
        (min(q[0::2]), min(q[1::2]), max(q[0::2]), max(q[1::2]))
        for q in (quads[k : k + 8] for k in range(0, len(quads) - 7, 8))
    ]  # fmt: skip
    if not rows:
        rect = [float(value) for value in annotation.get("/Rect", ())]
        if len(rect) != 4:
            return ()
        rows = [(min(rect[::2]), min(rect[1::2]), max(rect[::2]), max(rect[1::2]))]
    moved = to_page_space(np.asarray(rows, dtype=float), frame, turns)
    return tuple((float(a), float(b), float(c), float(d)) for a, b, c, d in moved)


def iso_date(text: str) -> str:
    """A date as PDF writes it (ISO 32000-1, 7.9.4) in ISO 8601 and UTC; "" where it is none."""
    match = _DATE.match(text)
    if match is None:
        return ""
    given = zip(match.groups()[:6], (1, 1, 1, 0, 0, 0), strict=True)
    numbers = [int(part) if part else least for part, least in given]
    sign, hours, minutes = match[7], int(match[8] or 0), int(match[9] or 0)
    away = timedelta(hours=hours, minutes=minutes) * (-1 if sign == "-" else 1)
    try:
        year, month, day, hour, minute, second = numbers
        moment = datetime(year, month, day, hour, minute, second, tzinfo=timezone(away))
        return moment.astimezone(UTC).isoformat(timespec="seconds")
    except (ValueError, OverflowError):
        return ""
