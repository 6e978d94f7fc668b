"""Quick calls into PDFium: whole pages of characters in loops that run in C.

A ctypes call with converted arguments costs about 2 µs, which is 6 ms a page for one question
per character. ``map`` over prototypes that take plain integers costs 0.6 µs.
"""

from __future__ import annotations

import ctypes
from collections import deque
from collections.abc import Callable
from itertools import repeat
from typing import TYPE_CHECKING, Any

import numpy as np
import pypdfium2.raw as pdfium_c

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray


def _prototype(function: Any, result: Any, *arguments: Any) -> Any:
    address = ctypes.cast(function, ctypes.c_void_p).value
    assert address is not None
    return ctypes.CFUNCTYPE(result, *arguments)(address)


_HANDLE, _INT = ctypes.c_void_p, ctypes.c_int
_loose_box = _prototype(pdfium_c.FPDFText_GetLooseCharBox, _INT, _HANDLE, _INT, _HANDLE)
_tight_box = _prototype(pdfium_c.FPDFText_GetCharBox, _INT, _HANDLE, _INT, *[_HANDLE] * 4)
_code_point = _prototype(pdfium_c.FPDFText_GetUnicode, ctypes.c_uint, _HANDLE, _INT)
_text_object = _prototype(pdfium_c.FPDFText_GetTextObject, ctypes.c_size_t, _HANDLE, _INT)
_font_of = _prototype(pdfium_c.FPDFTextObj_GetFont, _HANDLE, _HANDLE)
_font_size = _prototype(pdfium_c.FPDFTextObj_GetFontSize, _INT, _HANDLE, _HANDLE)
_origin = _prototype(pdfium_c.FPDFText_GetCharOrigin, _INT, _HANDLE, _INT, _HANDLE, _HANDLE)
_text = _prototype(pdfium_c.FPDFText_GetText, _INT, _HANDLE, _INT, _INT, _HANDLE)
_matrix = _prototype(pdfium_c.FPDFText_GetMatrix, _INT, _HANDLE, _INT, _HANDLE)
_object_at = _prototype(pdfium_c.FPDFPage_GetObject, _HANDLE, _HANDLE, _INT)
_type_of = _prototype(pdfium_c.FPDFPageObj_GetType, _INT, _HANDLE)
_bounds = _prototype(pdfium_c.FPDFPageObj_GetBounds, _INT, _HANDLE, *[_HANDLE] * 4)


def address_of(handle: Any) -> int:
    """The plain integer behind a PDFium handle."""
    return ctypes.cast(handle, _HANDLE).value or 0


def loose_boxes(text_page: int, spots: IntArray) -> FloatArray:
    """(k, 4) float32 left, bottom, right, top of some characters, in user space.

    Loose boxes reach from the font's descent to its ascent, so characters of a line line up.
    """
    rects = np.zeros((len(spots), 4), dtype=np.float32)  # FS_RECTF is left, top, right, bottom
    start = rects.ctypes.data
    places = range(start, start + 16 * len(spots), 16)
    deque(map(_loose_box, repeat(text_page), spots.tolist(), places), maxlen=0)
    return rects[:, [0, 3, 2, 1]]


def heights(text_page: int, spots: list[int]) -> FloatArray:
    """(k,) how high the ink of some characters is, in points of user space."""
    edges = np.zeros((len(spots), 4), dtype=np.float64)  # left, right, bottom, top
    start = edges.ctypes.data
    places = [range(start + 8 * n, start + 8 * n + 32 * len(spots), 32) for n in range(4)]
    deque(map(_tight_box, repeat(text_page), spots, *places), maxlen=0)
    return (edges[:, 3] - edges[:, 2]).astype(np.float32)


def paths(page: int, n_objects: int) -> tuple[list[int], FloatArray]:
    """Addresses of the paths among the first objects of a page, and what each takes up.

    Returns:
        k addresses, and (k, 4) left, bottom, right, top in user space; 0 where it has none.
    """
    objects = [found for found in map(_object_at, repeat(page), range(n_objects)) if found]
    is_path = pdfium_c.FPDF_PAGEOBJ_PATH
    of_paths = [
        o for o, kind in zip(objects, map(_type_of, objects), strict=True) if kind == is_path
    ]
    edges = np.zeros((len(of_paths), 4), dtype=np.float32)
    start = edges.ctypes.data
    places = [range(start + 4 * n, start + 4 * n + 16 * len(of_paths), 16) for n in range(4)]
    deque(map(_bounds, of_paths, *places), maxlen=0)
    return of_paths, edges


def code_points(text_page: int, n_chars: int) -> list[int]:
    """Unicode of every character, one each; 0 where the font does not say."""
    return list(map(_code_point, repeat(text_page), range(n_chars)))


def text_objects(text_page: int, indexes: IntArray) -> IntArray:
    """(k,) address of the page object that draws each of these characters; 0 for made-up ones."""
    found = map(_text_object, repeat(text_page), indexes.tolist())
    return np.fromiter(found, dtype=np.uint64, count=len(indexes))


def faces(
    text_page: int, objects: list[int], spots: list[int]
) -> tuple[list[int | None], FloatArray]:
    """Font address and displayed size of text objects.

    Args:
        text_page: The page's address.
        objects: Addresses of text objects.
        spots: A character that each of them draws.

    Returns:
        One font address each, and (n,) float32 sizes in points: the nominal font size times
        the vertical scale of the character's matrix, in which that of a form around it counts.
    """
    n = len(objects)
    sizes = np.zeros(n, dtype=np.float32)
    matrices = np.zeros((n, 6), dtype=np.float32)  # FS_MATRIX is a b c d e f
    start = sizes.ctypes.data
    deque(map(_font_size, objects, range(start, start + 4 * n, 4)), maxlen=0)
    start = matrices.ctypes.data
    places = range(start, start + 24 * n, 24)
    deque(map(_matrix, repeat(text_page), spots, places), maxlen=0)
    scale = np.hypot(matrices[:, 2], matrices[:, 3])
    return list(map(_font_of, objects)), np.round(sizes * np.where(scale > 0, scale, 1), 2)


def baselines(text_page: int, spots: list[int]) -> tuple[FloatArray, BoolArray]:
    """(k,) height of the line of writing in user space, and (k,) whether letters are upright."""
    n = len(spots)
    at = np.zeros((n, 2), dtype=np.float64)
    matrices = np.zeros((n, 6), dtype=np.float32)
    start = at.ctypes.data
    across, up = range(start, start + 16 * n, 16), range(start + 8, start + 8 + 16 * n, 16)
    deque(map(_origin, repeat(text_page), spots, across, up), maxlen=0)
    start = matrices.ctypes.data
    deque(map(_matrix, repeat(text_page), spots, range(start, start + 24 * n, 24)), maxlen=0)
    return at[:, 1].astype(np.float32), np.abs(matrices[:, 2]) < np.abs(matrices[:, 3])


def utf16_text(text_page: int, n_chars: int) -> str:
    """All text of a page in one call; may leave out characters without a meaning.

    Args:
        text_page: The page's address.
        n_chars: How many characters it has.
    """
    units = np.zeros(n_chars + 1, dtype="<u2")
    n = _text(text_page, 0, n_chars, units.ctypes.data)
    return units[: max(n - 1, 0)].tobytes().decode("utf-16-le", "replace")


def utf16_result(call: Callable[[Any, int], Any]) -> str:
    """Run a PDFium function that fills a UTF-16 buffer: once for the size, once for the text."""
    n = call(None, 0)
    if n <= 2:
        return ""
    buffer = ctypes.create_string_buffer(n)
    call(buffer, n)
    return buffer.raw[: n - 2].decode("utf-16-le", "replace")
