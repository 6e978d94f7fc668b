"""Characters of a page with their boxes, fonts and sizes."""

import ctypes
import re
from typing import Any

import numpy as np
import pypdfium2.raw as pdfium_c

from wide_margin.core.geometry import to_page_space
from wide_margin.core.pages import native
from wide_margin.core.pages.document import PdfFile, frame_of
from wide_margin.core.pages.model import LINE_END_HYPHEN, Font, PageText

# TeX's Computer Modern family and the URW faces say weight and slant in letters of their own.
_BOLD = re.compile(
    r"bold|black|heavy|demi|(?:^|\+|-)(?:cm|sf|ec|lm)\w*bx|-medi|bd(?:\b|cn|ou)", re.I
)
_ITALIC = re.compile(
    r"ital|obli|slant|(?:^|\+)(?:cm|sf|ec)(?:ti|sl|bxti|bxsl|mi|itt|sltt)|-it\b", re.I
)
_FIXED = re.compile(r"mono|courier|typewriter|(?:^|\+)(?:cm|sf|ec)\w*tt|consol|fixed|code", re.I)
_FIXED_FLAG, _ITALIC_FLAG, _BOLD_FLAG = 1, 1 << 6, 1 << 18  # ISO 32000-1, table 123
_WORD_EDGE = re.compile(r"\S+")
_HYPHEN_CODE = 2


def read_text(pdf: PdfFile, index: int) -> PageText:
    """Text of one page, each character with its box in page space.

    Raises:
        PageFailedError: The page cannot be loaded.
    """
    with pdf.page(index) as page:
        width, height = page.get_size()
        text_page = pdfium_c.FPDFText_LoadPage(page.raw)
        if not text_page:
            return PageText.empty(index, width, height)
        try:
            return _read(page, text_page, index)
        finally:
            pdfium_c.FPDFText_ClosePage(text_page)


def _read(page: Any, text_page: Any, index: int) -> PageText:
    width, height = page.get_size()
    n_chars = pdfium_c.FPDFText_CountChars(text_page)
    if n_chars <= 0:
        return PageText.empty(index, width, height)
    address = native.address_of(text_page)
    chars = _characters(text_page, address, n_chars)
    loose = native.loose_boxes(address, n_chars)
    boxes = to_page_space(loose, frame_of(page), page.get_rotation() // 90)
    boxes = _without_shapeless(boxes, chars)
    starts, fonts_of, sizes, fonts = _runs(address, chars)
    return PageText(index, width, height, chars, boxes, starts, fonts_of, sizes, fonts)


def _characters(text_page: Any, address: int, n_chars: int) -> str:
    text = native.utf16_text(text_page, n_chars)
    if len(text) == n_chars:
        return text
    # PDFium leaves out characters whose font gives them no meaning; keep one for each box.
    codes = native.code_points(address, n_chars)
    return "".join(map(_plain_character, codes))


def _plain_character(code: int) -> str:
    if code == _HYPHEN_CODE:
        return LINE_END_HYPHEN
    if code < 32 and code not in (9, 10, 13):
        return "\ufffd"
    if 0xD800 <= code <= 0xDFFF or code > 0x10FFFF:
        return "\ufffd"
    return chr(code)


def _without_shapeless(boxes: np.ndarray, chars: str) -> np.ndarray:
    """Put NaN where a character has no area of its own: line ends and spaces made up."""
    codes = np.frombuffer(chars.encode("utf-32-le"), dtype=np.uint32)
    bare = (codes == 10) | (codes == 13) | (boxes[:, 2] - boxes[:, 0] <= 0)
    bare |= boxes[:, 3] - boxes[:, 1] <= 0
    boxes[bare] = np.nan
    return boxes


def _runs(address: int, chars: str) -> tuple[np.ndarray, np.ndarray, np.ndarray, tuple[Font, ...]]:
    """Font and size of every word; a word with a raised mark at its end is two runs."""
    spots: list[int] = []
    for match in _WORD_EDGE.finditer(chars):
        first, last = match.start(), match.end() - 1
        spots.append(first)
        if last > first:
            spots.append(last)
    objects = native.text_objects(address, spots)
    drawn = [(spot, item) for spot, item in zip(spots, objects, strict=True) if item]
    unique = list(dict.fromkeys(item for _, item in drawn))
    handles, sizes = native.faces(unique)
    fonts = {handle: _font(handle) for handle in dict.fromkeys(handles)}
    table = tuple(dict.fromkeys(fonts.values()))
    rank = {font: n for n, font in enumerate(table)}
    face = {
        item: (rank[fonts[handle]], size)
        for item, handle, size in zip(unique, handles, sizes.tolist(), strict=True)
    }
    starts: list[int] = []
    chosen: list[tuple[int, float]] = []
    for spot, item in drawn:
        if not chosen or face[item] != chosen[-1]:
            chosen.append(face[item])
            starts.append(spot if starts else 0)
    return (
        np.array(starts, dtype=np.int32),
        np.array([font for font, _ in chosen], dtype=np.int32),
        np.array([size for _, size in chosen], dtype=np.float32),
        table,
    )


def _font(address: int | None) -> Font:
    """What the font's own name and flags say; the weight PDFium guesses is often wrong."""
    handle = ctypes.cast(address or 0, pdfium_c.FPDF_FONT)
    buffer = ctypes.create_string_buffer(256)
    n = pdfium_c.FPDFFont_GetBaseFontName(handle, buffer, 256)
    name = buffer.raw[: max(min(n, 256) - 1, 0)].decode("utf-8", "replace")
    flags = max(pdfium_c.FPDFFont_GetFlags(handle), 0)
    return Font(
        name,
        is_bold=bool(_BOLD.search(name) or flags & _BOLD_FLAG),
        is_italic=bool(_ITALIC.search(name) or flags & _ITALIC_FLAG),
        is_fixed=bool(_FIXED.search(name) or flags & _FIXED_FLAG),
    )
