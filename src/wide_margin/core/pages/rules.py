"""The straight rules that are drawn on a page."""

from __future__ import annotations

import ctypes
from itertools import pairwise
from typing import TYPE_CHECKING, Any

import numpy as np
import pypdfium2.raw as pdfium_c

from wide_margin.core.geometry import to_page_space
from wide_margin.core.pages.document import frame_now
from wide_margin.core.pages.native import address_of, paths

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray
    from wide_margin.core.pages.document import PdfFile
    from wide_margin.core.pages.model import Frame

THICKEST, THINNEST = 2.5, 1.0
"""Points; what is thicker is a bar or a ground, and a short one a box."""
SHORTEST = 6.0
"""Points; what is shorter is a dash or a part of a sign."""
MOST_OBJECTS, MOST_POINTS = 20_000, 400
"""Of a page and of one path: more is a drawing."""


def rules_of(pdf: PdfFile, index: int) -> FloatArray:
    """Upright and level rules: drawn lines, thin boxes, and the edges of boxes.

    Args:
        pdf: The open file.
        index: Page index.

    Returns:
        (n, 4) x0, y0, x1, y1 in page space; those within form objects are left out.

    Raises:
        PageFailedError: The page cannot be loaded.
    """
    found: list[tuple[float, float, float, float]] = []
    with pdf.page(index) as page:
        objects, bounds = _paths_on(page)
        across, up = bounds[:, 2] - bounds[:, 0], bounds[:, 3] - bounds[:, 1]
        is_long = np.maximum(across, up) >= SHORTEST
        is_thin = np.minimum(across, up) <= THICKEST
        for k in np.flatnonzero(is_long & ~is_thin).tolist():
            found += _rules_in(objects[k])
        frame = frame_now(page)
    corners = np.array(found, dtype=np.float64).reshape(-1, 4)
    corners = np.concatenate([bounds[is_long & is_thin], corners])
    return to_page_space(corners, frame.box, frame.turns)


def short_rules(page: Any, frame: Frame, shortest: float, longest: float) -> FloatArray:
    """(k, 4) the level rules of a page that are so long, in page space and points.

    Args:
        page: Of PDFium.
        frame: How it lies in page space.
        shortest: The least length.
        longest: The greatest.
    """
    placed = to_page_space(_paths_on(page)[1], frame.box, frame.turns)
    across, up = placed[:, 2] - placed[:, 0], placed[:, 3] - placed[:, 1]
    return placed[(across >= shortest) & (across <= longest) & (up <= THINNEST)]


def _paths_on(page: Any) -> tuple[list[int], FloatArray]:
    n = min(pdfium_c.FPDFPage_CountObjects(page.raw), MOST_OBJECTS)
    return paths(address_of(page.raw), n)


def _rules_in(address: int) -> list[tuple[float, float, float, float]]:
    """Left, bottom, right, top of the rules of one path that is no rule itself."""
    item = ctypes.cast(address, pdfium_c.FPDF_PAGEOBJECT)
    n = pdfium_c.FPDFPath_CountSegments(item)
    return _straight(_points(item, n)) if n <= MOST_POINTS else []


def _points(item: Any, n: int) -> list[tuple[float, float, bool]]:
    """Points of a path in user space, and whether a line is drawn to each from the one before."""
    matrix = pdfium_c.FS_MATRIX()
    pdfium_c.FPDFPageObj_GetMatrix(item, matrix)
    points: list[tuple[float, float, bool]] = []
    start = 0
    for k in range(n):
        segment = pdfium_c.FPDFPath_GetPathSegment(item, k)
        x, y = ctypes.c_float(), ctypes.c_float()
        pdfium_c.FPDFPathSegment_GetPoint(segment, x, y)
        kind = pdfium_c.FPDFPathSegment_GetType(segment)
        if kind == pdfium_c.FPDF_SEGMENT_MOVETO:
            start = len(points)
        points.append((
            matrix.a * x.value + matrix.c * y.value + matrix.e,
            matrix.b * x.value + matrix.d * y.value + matrix.f,
            kind == pdfium_c.FPDF_SEGMENT_LINETO,
        ))  # fmt: skip
        if pdfium_c.FPDFPathSegment_GetClose(segment):
            points.append((*points[start][:2], True))
    return points


def _straight(
    points: list[tuple[float, float, bool]],
) -> list[tuple[float, float, float, float]]:
    found = []
    for (x0, y0, _), (x1, y1, is_drawn) in pairwise(points):
        across, up = abs(x1 - x0), abs(y1 - y0)
        if is_drawn and min(across, up) <= 0.5 and max(across, up) >= SHORTEST:
            found.append((min(x0, x1), min(y0, y1), max(x0, x1), max(y0, y1)))
    return found
