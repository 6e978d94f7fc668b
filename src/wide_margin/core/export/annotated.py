"""A copy of a PDF with entries as its annotations (ISO 32000-1, 12.5); the original is not touched.

Every annotation has an appearance of its own, so that each viewer shows it alike, and a name
(/NM) by which its entry is found again.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING

from wide_margin.core.export.entries import said_in
from wide_margin.core.export.pdf import copy_of, frame_of
from wide_margin.core.geometry import Box, to_user_space
from wide_margin.core.later import loaded_later
from wide_margin.core.margin import CuttingBody, Entry, EntryKind, Ink, MarkBody, MarkForm
from wide_margin.core.margin.gathering import ink_of
from wide_margin.core.plain import plain

if TYPE_CHECKING:
    import pikepdf
else:
    pikepdf = loaded_later("pikepdf")

PREFIX = "wide-margin-"
"""Of the names of our annotations."""
COLOURS = {
    Ink.CLAIM: (0.55, 0.78, 0.72),
    Ink.DOUBT: (0.90, 0.62, 0.56),
    Ink.PROCEDURE: (0.90, 0.76, 0.45),
    Ink.WORDING: (0.74, 0.76, 0.80),
    Ink.FIGURE: (0.66, 0.76, 0.88),
    Ink.LATER: (0.80, 0.70, 0.84),
}
_NOTE = (0.72, 0.53, 0.17)
ICON = 18.0
"""Points that the sign of a note takes."""


@dataclass(frozen=True, slots=True)
class Placed:
    """An entry and the boxes of its passage, in page space, line by line."""

    entry: Entry
    boxes: tuple[tuple[int, Box], ...]
    """(page index, box)."""


def write_annotated(
    source: Path,
    target: Path,
    placed: Sequence[Placed],
    *,
    author: str = "",
    password: str | None = None,
) -> int:
    """Write a copy of a PDF that has entries as annotations.

    Marks become highlights, underlines or struck out text as their form is; notes and what was
    asked or explained become text notes, and cuttings squares.

    Args:
        source: The PDF.
        target: The copy; it is there whole or not at all.
        placed: Entries with their boxes; those without a box get a note at the top of their page.
        author: Whose annotations these are said to be.
        password: That opens the source.

    Returns:
        How many annotations were written.

    Raises:
        WideMarginError: The copy would replace the original, or cannot be written.
    """
    n = 0
    with copy_of(source, target, password) as pdf:
        for item in placed:
            for page, made in _annotations(pdf, item, author):
                annotations = page.obj.get("/Annots")
                if not isinstance(annotations, pikepdf.Array):
                    page.obj["/Annots"] = annotations = pikepdf.Array()
                annotations.append(pdf.make_indirect(made))
                n += 1
    return n


def _annotations(
    pdf: pikepdf.Pdf, item: Placed, author: str
) -> Iterable[tuple[pikepdf.Page, pikepdf.Dictionary]]:
    """Annotations of an entry: of a passage over several pages one on each."""
    entry = item.entry
    by_page: dict[int, list[Box]] = {}
    for index, box in item.boxes:
        by_page.setdefault(index, []).append(box)
    if not by_page:
        y = max(entry.anchor.y, 12.0)
        by_page[entry.anchor.page] = [(12.0, y, 12.0 + ICON, y + ICON)]
    for part, (index, boxes) in enumerate(by_page.items()):
        if not 0 <= index < len(pdf.pages):
            continue
        page = pdf.pages[index]
        frame, turns = frame_of(page)
        quads = [_quad(box, frame, turns) for box in boxes]
        made = _common(entry, author, part)
        if entry.kind is EntryKind.MARK and item.boxes:
            colour = COLOURS[ink_of(entry) or Ink.CLAIM]
            form = entry.body.form if isinstance(entry.body, MarkBody) else MarkForm.HIGHLIGHT
            made |= _mark(pdf, quads, colour, form)
        elif isinstance(entry.body, CuttingBody):
            made |= _square(pdf, quads[0])
        else:
            made |= _note(pdf, quads[0], turns)
        yield page, pikepdf.Dictionary(made)


Quad = tuple[tuple[float, float], ...]
"""Corners in user space as displayed: upper left, upper right, lower left, lower right."""


def _quad(box: Box, frame: tuple[float, float, float, float], turns: int) -> Quad:
    x0, y0, x1, y1 = box
    corners = ((x0, y0), (x1, y0), (x0, y1), (x1, y1))
    return tuple(to_user_space(x, y, frame, turns) for x, y in corners)


def _common(entry: Entry, author: str, part: int) -> dict[str, object]:
    values: dict[str, object] = {
        "/Type": pikepdf.Name.Annot,
        "/NM": pikepdf.String(f"{PREFIX}{entry.id}" + (f"-{part}" if part else "")),
        "/Contents": pikepdf.String(plain("\n".join(said_in(entry)))),
        "/M": pikepdf.String(_date(entry.changed or entry.created)),
        "/CreationDate": pikepdf.String(_date(entry.created)),
        "/F": 4,  # printed
        "/Subj": pikepdf.String(plain(", ".join([str(ink_of(entry) or entry.kind), *entry.tags]))),
    }
    return values | ({"/T": pikepdf.String(plain(author))} if author else {})


def _date(iso: str) -> str:
    """A date as PDF writes it (ISO 32000-1, 7.9.4)."""
    try:
        return datetime.fromisoformat(iso).strftime("D:%Y%m%d%H%M%SZ")
    except ValueError:
        return ""


def _around(quads: Sequence[Quad], by: float = 0.0) -> tuple[float, float, float, float]:
    xs = [x for quad in quads for x, _ in quad]
    ys = [y for quad in quads for _, y in quad]
    return min(xs) - by, min(ys) - by, max(xs) + by, max(ys) + by


_SUBTYPES = {
    MarkForm.HIGHLIGHT: "/Highlight",
    MarkForm.UNDERLINE: "/Underline",
    MarkForm.STRIKE: "/StrikeOut",
}
_DARKER = 0.72
"""A line is drawn so much darker than a ground of the same ink."""


def _mark(
    pdf: pikepdf.Pdf, quads: Sequence[Quad], colour: tuple[float, float, float], form: MarkForm
) -> Mapping[str, object]:
    if form is not MarkForm.HIGHLIGHT:
        colour = colour[0] * _DARKER, colour[1] * _DARKER, colour[2] * _DARKER
    shown = f"{colour[0]:.3f} {colour[1]:.3f} {colour[2]:.3f}"
    drawn = [f"{shown} rg {shown} RG 1.2 w /M gs"]
    for (ax, ay), (bx, by), (cx, cy), (dx, dy) in quads:
        if form is MarkForm.HIGHLIGHT:
            path = f"{ax:.2f} {ay:.2f} m {bx:.2f} {by:.2f} l {dx:.2f} {dy:.2f} l"
            drawn.append(f"{path} {cx:.2f} {cy:.2f} l h f")
            continue
        up = 0.06 if form is MarkForm.UNDERLINE else 0.5  # of the height, from the lower edge
        x0, y0 = cx + (ax - cx) * up, cy + (ay - cy) * up
        x1, y1 = dx + (bx - dx) * up, dy + (by - dy) * up
        drawn.append(f"{x0:.2f} {y0:.2f} m {x1:.2f} {y1:.2f} l S")
    rect = _around(quads, 0.0 if form is MarkForm.HIGHLIGHT else 1.0)
    state = pikepdf.Dictionary(
        M=pikepdf.Dictionary(Type=pikepdf.Name.ExtGState, BM=pikepdf.Name.Multiply)
    )
    return {
        "/Subtype": pikepdf.Name(_SUBTYPES[form]),
        "/C": pikepdf.Array(list(colour)),
        "/Rect": pikepdf.Array(list(rect)),
        "/QuadPoints": pikepdf.Array(
            [round(v, 2) for quad in quads for corner in quad for v in corner]
        ),
        "/AP": pikepdf.Dictionary(
            N=_form(pdf, rect, " ".join(drawn), pikepdf.Dictionary(ExtGState=state))
        ),
    }


def _square(pdf: pikepdf.Pdf, quad: Quad) -> Mapping[str, object]:
    x0, y0, x1, y1 = _around([quad])
    drawn = (
        f"0.62 0.23 0.18 RG 1 w {x0 + 1:.2f} {y0 + 1:.2f} {x1 - x0 - 2:.2f} {y1 - y0 - 2:.2f} re S"
    )
    return {
        "/Subtype": pikepdf.Name.Square,
        "/C": pikepdf.Array([0.62, 0.23, 0.18]),
        "/Rect": pikepdf.Array([x0, y0, x1, y1]),
        "/AP": pikepdf.Dictionary(N=_form(pdf, (x0, y0, x1, y1), drawn, pikepdf.Dictionary())),
    }


def _note(pdf: pikepdf.Pdf, quad: Quad, turns: int) -> Mapping[str, object]:
    """A small sheet beside the first line, at its left as the page is seen."""
    (ax, ay), (bx, by), (cx, cy), _ = quad
    along = ((bx - ax), (by - ay))
    length = max((along[0] ** 2 + along[1] ** 2) ** 0.5, 1e-6)
    x, y = ax - along[0] / length * ICON, ay - along[1] / length * ICON
    x0, y0 = min(x, ax, x - 0.0), min(y, ay)
    down = ((cx - ax), (cy - ay))
    x0, y0 = min(x0, x0 + (down[0] < 0) * -ICON), min(y0, y0 + (down[1] < 0) * -ICON)
    rect = x0, y0, x0 + ICON, y0 + ICON
    r, g, b = _NOTE
    drawn = (
        f"1 0.98 0.92 rg {r} {g} {b} RG 1 w {x0 + 2:.2f} {y0 + 2:.2f} {ICON - 4} {ICON - 4} re B "
        f"{x0 + 5:.2f} {y0 + 11:.2f} m {x0 + 13:.2f} {y0 + 11:.2f} l "
        f"{x0 + 5:.2f} {y0 + 7:.2f} m {x0 + 11:.2f} {y0 + 7:.2f} l S"
    )
    return {
        "/Subtype": pikepdf.Name.Text,
        "/Name": pikepdf.Name.Note,
        "/C": pikepdf.Array(list(_NOTE)),
        "/Open": False,
        "/Rect": pikepdf.Array(list(rect)),
        "/AP": pikepdf.Dictionary(N=_form(pdf, rect, drawn, pikepdf.Dictionary())),
    }


def _form(
    pdf: pikepdf.Pdf,
    rect: tuple[float, float, float, float],
    drawn: str,
    resources: pikepdf.Dictionary,
) -> pikepdf.Object:
    """An appearance in the page's own coordinates."""
    form = pikepdf.Stream(pdf, drawn.encode())
    form["/Type"], form["/Subtype"] = pikepdf.Name.XObject, pikepdf.Name.Form
    form["/BBox"] = pikepdf.Array([round(v, 2) for v in rect])
    form["/Resources"] = resources
    return pdf.make_indirect(form)
