"""Page space: PDF points, origin at the top left of the page as displayed, y down."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from wide_margin.core.later import loaded_later

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    FloatArray = npt.NDArray[np.floating]
    IntArray = npt.NDArray[np.integer]
    BoolArray = npt.NDArray[np.bool_]
else:  # the window shows a first page without any array
    np = loaded_later("numpy")
    FloatArray = IntArray = BoolArray = Any
Box = tuple[float, float, float, float]
"""x0, y0, x1, y1 in page space."""


def to_page_space(
    boxes: FloatArray, frame: tuple[float, float, float, float], rotation: int
) -> FloatArray:
    """Move boxes from PDF user space to page space.

    Args:
        boxes: (n, 4) left, bottom, right, top in user space (y up).
        frame: The visible page box in user space: left, bottom, right, top.
        rotation: Quarter turns clockwise that /Rotate asks for, 0 to 3.

    Returns:
        (n, 4) x0, y0, x1, y1 in page space, same dtype.

    Source:
        ISO 32000-1, 7.7.3.3 (/Rotate) and 14.11.2 (page boundaries).
    """
    left, bottom, right, top = frame
    x0, y0, x1, y1 = boxes[:, 0], boxes[:, 1], boxes[:, 2], boxes[:, 3]
    if rotation == 0:
        corners = (x0 - left, top - y1, x1 - left, top - y0)
    elif rotation == 1:
        corners = (y0 - bottom, x0 - left, y1 - bottom, x1 - left)
    elif rotation == 2:
        corners = (right - x1, y0 - bottom, right - x0, y1 - bottom)
    elif rotation == 3:
        corners = (top - y1, right - x1, top - y0, right - x0)
    else:
        raise ValueError(f"rotation must be 0 to 3 quarter turns, got {rotation}")
    return np.stack(corners, axis=1).astype(boxes.dtype)


def to_user_space(
    x: float, y: float, frame: tuple[float, float, float, float], rotation: int
) -> tuple[float, float]:
    """The reverse of to_page_space for one point.

    Args:
        x: Points from the left of the page as displayed.
        y: Points from its top.
        frame: The visible page box in user space: left, bottom, right, top.
        rotation: Quarter turns clockwise that /Rotate asks for, 0 to 3.
    """
    left, bottom, right, top = frame
    if rotation == 0:
        return left + x, top - y
    if rotation == 1:
        return left + y, bottom + x
    if rotation == 2:
        return right - x, bottom + y
    if rotation == 3:
        return right - y, top - x
    raise ValueError(f"rotation must be 0 to 3 quarter turns, got {rotation}")


def union(boxes: FloatArray) -> Box:
    """Smallest box around all rows of an (n, 4) array with n at least 1."""
    low, high = boxes[:, :2].min(axis=0), boxes[:, 2:].max(axis=0)
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])


def middle(values: FloatArray) -> float:
    """The median of (n,) numbers, at least one and none of them NaN.

    As ``numpy.median`` gives it, which takes 50 µs for the rows of a page; this takes 4.
    """
    ordered, half = np.sort(values), len(values) // 2
    return float(ordered[half] if len(values) % 2 else (ordered[half - 1] + ordered[half]) / 2)


def line_boxes(boxes: FloatArray) -> list[Box]:
    """Join the boxes of characters, in reading order, to one box per line.

    Args:
        boxes: (n, 4) character boxes in page space; rows with NaN (spaces that PDFium
            made up) are left out.

    Returns:
        One box per line. A new line starts where a character no longer overlaps the
        line so far by half of its own height, or jumps back or far to the right.
    """
    kept = boxes[~np.isnan(boxes[:, 0])]
    if not len(kept):
        return []
    heights = kept[:, 3] - kept[:, 1]
    overlap = np.minimum(kept[1:, 3], kept[:-1, 3]) - np.maximum(kept[1:, 1], kept[:-1, 1])
    apart = overlap < 0.4 * np.minimum(heights[1:], heights[:-1])
    height = middle(heights)
    back = kept[1:, 0] < kept[:-1, 0] - height
    far = kept[1:, 0] > kept[:-1, 2] + 4 * height
    return [union(part) for part in np.split(kept, np.flatnonzero(apart | back | far) + 1)]


def contains(box: Box, x: float, y: float) -> bool:
    """Whether a point lies in a box, edges included."""
    return box[0] <= x <= box[2] and box[1] <= y <= box[3]


def around(boxes: Sequence[Box]) -> Box:
    """Smallest box around at least one box."""
    return union(np.asarray(boxes, dtype=float))
