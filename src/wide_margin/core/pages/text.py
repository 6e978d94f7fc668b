"""Characters of a page with their boxes, fonts and sizes."""

from __future__ import annotations

import ctypes
import re
from dataclasses import replace
from functools import lru_cache
from typing import TYPE_CHECKING, Any

import numpy as np
import pypdfium2.raw as pdfium_c

from wide_margin.core.geometry import to_page_space
from wide_margin.core.later import regex
from wide_margin.core.pages import native
from wide_margin.core.pages.document import frame_now
from wide_margin.core.pages.model import (
    LINE_END_HYPHEN,
    LOOSE_ACCENTS,
    Font,
    PageText,
    marks_called_for,
    marks_in,
)
from wide_margin.core.pages.named_codes import with_named_codes
from wide_margin.core.pages.parted import (
    SHARE,
    parted_at,
    with_letters_joined,
    with_words_joined,
    without_false_spaces,
)
from wide_margin.core.pages.repair import (
    LIGATURE_CODES,
    with_accents,
    with_cork_signs,
    with_greek_letters,
    with_hyphens,
    with_ligatures,
    with_meant_ligatures,
    with_one_alphabet,
    with_own_signs,
    with_signs,
    with_turned_letters,
)
from wide_margin.core.pages.underscores import may_draw_underscores, with_underscores
from wide_margin.core.pages.unnamed import numbered, with_weights
from wide_margin.core.pages.unsized import LEAST, measured, stand_on_line

if TYPE_CHECKING:
    from wide_margin.core.geometry import BoolArray, FloatArray, IntArray
    from wide_margin.core.pages.document import PdfFile

# TeX's Computer Modern family and the URW faces say weight and slant in letters of their own.
_BOLD = regex(
    r"bold|black|heavy|demi|blk|w[6-9](?:\b|-)|-medi|bd(?:\b|cn|ou|ita)"
    r"|(?:^|\+|-)(?:cm|sf|ec|lm|cs|hf|pl|t1x|newtx)\w*b[x\d]"
    r"|(?:^|\+)(?:cm|cs)b\d|(?:libertine|biolinum|libertinus)\w*?[tm]b[io]?(?:$|-|_)", re.I
)  # fmt: skip
_CAPS = regex(r"smallcap|csc\d|caps|smcp|(?:-|[a-z])SC(?:\b|-|\d|$)|tcsc", re.I)
_FAMILY = regex(r"^(?:[A-Za-z\d]{6}\+)?(?P<family>[^\W\d_]+)")
_ITALIC = regex(r"ital|obli|slant|(?:^|\+)(?:cm|sf|ec)(?:ti|sl|bxti|bxsl|mi|itt|sltt)|-it\b", re.I)
_FIXED = regex(
    r"mono(?!\w*prop)|monl-|courier|(?<!american)typewriter(?!\w*var)|(?:^|\+)(?:cm|sf|ec|lm|cs|t1x|newtx|newpx|tx|px)\w*tt"
    r"|consol|fixed|code", re.I
)  # fmt: skip
# Computer Modern in its first encoding: cmr10, cmbx12, cmti10, cmcsc10; not its successors.
_OLD_ENCODING = regex(
    r"(?:^|\+)cm(?:r|b|bx|ti|bxti|sl|bxsl|ss|ssi|ssbx|ssdc|csc|tt|itt|sltt|u|dunh)\d+", re.I
)
_EXTENSION = regex(r"(?:^|\+)(?:cm|lm|eu|tx|px|ntx|newtx)\w*ex[a-z]?\d*(?:-|$)", re.I)
"""TeX's fonts of large signs."""
_BRACKET_CODE, _BRACKETS = (
    regex(r"[\x10-\x15]"),
    str.maketrans(dict(zip("\x10\x11\x12\x13\x14\x15", "()()[]", strict=True))),
)
_LOOSE_ACCENT = regex("[" + "".join(LOOSE_ACCENTS) + "]")
_LOOSENED = str.maketrans(LOOSE_ACCENTS)
_FIXED_FLAG, _ITALIC_FLAG, _BOLD_FLAG = 1, 1 << 6, 1 << 18  # ISO 32000-1, table 123
_HYPHEN_CODE = 2
FIXED_LETTERS, FIXED_WORDS, FIXED_SPREAD, FIXED_SHARE = 4, 5, 0.01, 0.95
"""A font has one width where 95 per cent of its words of so many letters are as wide as that
within a hundredth, so many different ones with narrow and wide letters both."""
FIXED_LOOKED_AT = 200
NOT_FIXED_SHARE = 0.5
"""One that is said to have one width has not where fewer of its words are so."""


def read_text(pdf: PdfFile, index: int, *, only_edges: bool = False) -> PageText:
    """Text of one page, each character with its box in page space.

    Args:
        pdf: The open file.
        index: Page index.
        only_edges: Box only the first and last character of each word: enough for lines, and
            a third of the work. The other rows of boxes are NaN. Where words are run together, all
            are boxed; the first pages that are read of a file tell whether they are.

    Raises:
        PageFailedError: The page cannot be loaded.
    """
    with pdf.page(index) as page:
        width, height = page.get_size()
        text_page = pdfium_c.FPDFText_LoadPage(page.raw)
        if not text_page:
            return PageText.empty(index, width, height, frame_now(page))
        try:
            if pdf.runs_together is False:
                return _read(page, text_page, index, only_edges=only_edges)
            whole = _read(page, text_page, index, only_edges=False)
            parted = _parted(pdf, whole)
            if parted is None and only_edges:
                return _read(page, text_page, index, only_edges=True)
            return parted or whole
        finally:
            pdfium_c.FPDFText_ClosePage(text_page)


def _parted(pdf: PdfFile, text: PageText) -> PageText | None:
    """A page with the words told apart that were run together; None where there are none."""
    found, touching = parted_at(text.chars, text.boxes, text.run_starts, text.run_sizes)
    n_words = len(text.chars.split())
    least = 0.0 if pdf.runs_together else SHARE * n_words
    if pdf.runs_together is None:
        pdf.tell_parted(n_words, len(found))
    if len(found) <= least:
        return None
    chars = without_false_spaces(text.chars, text.boxes, touching)
    return replace(text, chars=chars, parted=tuple(found.tolist()))


def _read(page: Any, text_page: Any, index: int, *, only_edges: bool) -> PageText:
    width, height = page.get_size()
    n_chars = pdfium_c.FPDFText_CountChars(text_page)
    if n_chars <= 0:
        return PageText.empty(index, width, height, frame_now(page))
    address = native.address_of(text_page)
    chars = with_named_codes(_characters(address, n_chars))
    chars = with_own_signs(with_meant_ligatures(with_ligatures(with_cork_signs(chars))))
    chars = with_turned_letters(with_signs(chars))
    chars = with_greek_letters(with_one_alphabet(chars))
    first, last = _word_edges(chars)
    boxed = np.flatnonzero(first | last) if only_edges else np.arange(n_chars)
    loose = native.loose_boxes(address, boxed)
    frame = frame_now(page)
    asked, marks = first, []
    called = [place for called in marks_called_for(chars) for place in called.places]
    if found := sorted({*marks_in(chars, index), *called}):
        # A mark is set in another size within its word, and is boxed for its height.
        marks = [first for first, _ in found]
        glued = [end for _, end in found if end < n_chars and not chars[end].isspace()]
        asked = first.copy()
        asked[marks + glued] = True
    if brackets := [match.start() for match in _BRACKET_CODE.finditer(chars)]:
        asked = asked.copy()
        asked[brackets] = True
    starts, fonts_of, sizes, fonts = _runs(address, np.flatnonzero(asked), chars, boxed, loose)

    def boxes_of(wanted: IntArray) -> FloatArray:
        found = native.loose_boxes(address, wanted)
        return to_page_space(found, frame.box, frame.turns)

    boxes = np.full((n_chars, 4), np.nan, dtype=np.float32)
    shapes = to_page_space(loose, frame.box, frame.turns)
    boxes[boxed] = _without_shapeless(shapes, loose, chars, boxed)
    if marks and only_edges:
        boxes[marks] = boxes_of(np.array(marks))
    chars = _with_old_codes(chars, starts, fonts_of, fonts)
    fonts = _with_fixed(chars, boxes, first, last, starts, fonts_of, fonts)
    fonts = with_weights(chars, boxes, first | last, starts, fonts_of, sizes, fonts)
    chars = with_hyphens(with_accents(chars, boxes, first, last, boxes_of), boxes_of)
    joined = with_words_joined(chars, boxes, boxes_of)
    chars = with_letters_joined(joined, boxes, first & last)
    if any(map(may_draw_underscores, fonts)):
        chars = with_underscores(page, frame, chars, boxes, first, last)
    return PageText(index, width, height, chars, boxes, starts, fonts_of, sizes, fonts, frame)


def _word_edges(chars: str) -> tuple[BoolArray, BoolArray]:
    """Which characters are the first, and the last, of a word."""
    codes = np.frombuffer(chars.encode("utf-32-le"), dtype=np.uint32)
    inked = (codes > 32) & (codes != 0xA0)
    # A hyphen at a line end is followed by the next line without a line break between.
    hyphen = codes == ord(LINE_END_HYPHEN)
    first, last = inked.copy(), inked.copy()
    first[1:] &= ~inked[:-1] | hyphen[:-1]
    last[:-1] &= ~inked[1:] | hyphen[:-1]
    return first, last


def _characters(address: int, n_chars: int) -> str:
    text = native.utf16_text(address, n_chars)
    if len(text) == n_chars:
        return text
    # PDFium leaves out characters whose font gives them no meaning; keep one for each box.
    codes = native.code_points(address, n_chars)
    return "".join(map(_plain_character, codes))


def _plain_character(code: int) -> str:
    if code == _HYPHEN_CODE:
        return LINE_END_HYPHEN
    if code < 32 and code not in LIGATURE_CODES and code not in (9, 10, 13):
        return "\ufffd"
    if 0xD800 <= code <= 0xDFFF or code > 0x10FFFF:
        return "\ufffd"
    return chr(code)


def _with_old_codes(
    chars: str, starts: IntArray, fonts_of: IntArray, fonts: tuple[Font, ...]
) -> str:
    """Tell the accents of TeX's oldest encoding from signs of the same look, and name brackets."""
    tables: list[dict[int, str] | None] = [None] * len(fonts)
    if _LOOSE_ACCENT.search(chars):
        tables = [_LOOSENED if _OLD_ENCODING.search(font.name) else None for font in fonts]
    if _BRACKET_CODE.search(chars):
        large = (_EXTENSION.search(font.name) for font in fonts)
        tables = [
            _BRACKETS if is_large else table for is_large, table in zip(large, tables, strict=True)
        ]
    if not any(tables):
        return chars
    edges = [*starts.tolist(), len(chars)]
    parts = [chars[: edges[0]]]
    for run, font in enumerate(fonts_of.tolist()):
        part = chars[edges[run] : edges[run + 1]]
        parts.append(part.translate(table) if (table := tables[font]) else part)
    return "".join(parts)


def _with_fixed(
    chars: str, boxes: FloatArray, first: BoolArray, last: BoolArray, starts: IntArray,
    fonts_of: IntArray, fonts: tuple[Font, ...],
) -> tuple[Font, ...]:  # fmt: skip
    """Tell fonts of one width by their words: as wide as they have letters, narrow ones too."""
    if not len(starts):
        return fonts
    begins, ends = np.flatnonzero(first), np.flatnonzero(last)
    letters = ends - begins + 1
    font_of = fonts_of[np.searchsorted(starts, begins, side="right") - 1]
    width = (boxes[ends, 2] - boxes[begins, 0]) / letters
    told = list(fonts)
    long = np.flatnonzero((letters >= FIXED_LETTERS) & (width > 0))
    n_words = np.bincount(font_of[long], minlength=len(fonts))
    for number in np.flatnonzero(n_words >= FIXED_WORDS).tolist():
        font, rows = fonts[number], long[font_of[long] == number]
        widths = np.sort(width[rows])
        usual = float(widths[len(rows) // 2] + widths[(len(rows) - 1) // 2]) / 2
        near = np.count_nonzero(np.abs(widths - usual) < FIXED_SPREAD * usual) / len(rows)
        if font.is_fixed:  # some writers set the flag on every font
            wrong = near < NOT_FIXED_SHARE and not _FIXED.search(font.name)
            told[number] = replace(font, is_fixed=not wrong)
            continue
        if near <= FIXED_SHARE:
            continue
        words = {chars[begins[row] : ends[row] + 1] for row in rows[:FIXED_LOOKED_AT].tolist()}
        if sum(map(_has_narrow, words)) >= FIXED_WORDS:
            told[number] = replace(font, is_fixed=True)
    return tuple(told)


def _has_narrow(word: str) -> bool:
    return any(letter in "ijlft" for letter in word) and any(letter in "mwMWQ@" for letter in word)


def _without_shapeless(
    boxes: FloatArray, loose: FloatArray, chars: str, boxed: IntArray
) -> FloatArray:
    """Put NaN where a character has no area of its own: line ends and spaces made up.

    Args:
        boxes: (k, 4) in page space; changed.
        loose: (k, 4) the same in user space.
        chars: n characters.
        boxed: (k,) which of them these are.
    """
    codes = np.frombuffer(chars.encode("utf-32-le"), dtype=np.uint32)[boxed]
    bare = (codes == 10) | (codes == 13) | (boxes[:, 2] - boxes[:, 0] <= 0)
    bare |= (boxes[:, 3] - boxes[:, 1] <= 0) | ~loose.any(axis=1)
    boxes[bare] = np.nan
    return boxes


def _runs(
    address: int, spots: IntArray, chars: str, boxed: IntArray, loose: FloatArray
) -> tuple[IntArray, IntArray, FloatArray, tuple[Font, ...]]:
    """Font and size, asked at the first character of every word.

    The loose boxes, of the characters ``boxed``, are mended in place where fonts do not say how
    large they are.
    """
    objects = native.text_objects(address, spots)
    seen = np.flatnonzero(objects)
    shown = objects[seen]
    changes = np.ones(len(seen), dtype=bool)
    changes[1:] = shown[1:] != shown[:-1]
    drawn = list(zip(spots[seen[changes]].tolist(), shown[changes].tolist(), strict=True))
    unique: dict[int, int] = {}
    for spot, item in drawn:
        unique.setdefault(item, spot)
    handles, sizes = native.faces(address, list(unique), list(unique.values()))
    if (sizes < LEAST).any():
        said = {
            item: (handle or 0, size)
            for item, handle, size in zip(unique, handles, sizes.tolist(), strict=True)
        }
        sizes = _true_sizes(address, said, spots, chars, boxed, loose)
    fonts = numbered({handle: _font(handle) for handle in dict.fromkeys(handles)})
    table = tuple(dict.fromkeys(fonts.values()))
    rank = {font: n for n, font in enumerate(table)}
    number = {handle: rank[font] for handle, font in fonts.items()}
    face = {
        item: (number[handle], size)
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


def _true_sizes(
    address: int, said: dict[int, tuple[int, float]], spots: IntArray, chars: str,
    boxed: IntArray, loose: FloatArray,
) -> FloatArray:  # fmt: skip
    """Sizes of text objects of which the font does not say how large they are.

    Args:
        address: The page's text.
        said: Font and size that each object says.
        spots: Characters to measure.
        chars: n characters.
        boxed: (k,) those that have been boxed.
        loose: (k, 4) their boxes in user space, mended in place.
    """
    objects = native.text_objects(address, spots).tolist()
    seen = [(spot, said[item]) for spot, item in zip(spots.tolist(), objects, strict=True)
            if item in said]  # fmt: skip
    at = [spot for spot, _ in seen]
    heights = native.heights(address, at).tolist()
    told = measured([chars[spot] for spot in at], heights, [group for _, group in seen])
    rows = np.flatnonzero(loose.any(axis=1))
    drawn = native.text_objects(address, boxed[rows]).tolist()
    groups = [said.get(item) for item in drawn]
    mended = [(row, told[group]) for row, group in zip(rows.tolist(), groups, strict=True)
              if group in told]  # fmt: skip
    if mended:
        some, sizes = map(np.array, zip(*mended, strict=True))
        stand_on_line(address, loose, some, boxed[some], sizes.astype(np.float32))
    return np.array([told.get(group, group[1]) for group in said.values()], dtype=np.float32)


def _font(address: int | None) -> Font:
    """What the font's own name and flags say; the weight PDFium guesses is often wrong."""
    handle = ctypes.cast(address or 0, pdfium_c.FPDF_FONT)
    buffer = ctypes.create_string_buffer(256)
    n = pdfium_c.FPDFFont_GetBaseFontName(handle, buffer, 256)
    name = buffer.raw[: max(min(n, 256) - 1, 0)].decode("utf-8", "replace")
    return _font_named(name, max(pdfium_c.FPDFFont_GetFlags(handle), 0))


@lru_cache(maxsize=256)
def _font_named(name: str, flags: int) -> Font:
    return Font(
        name,
        is_bold=bool(_BOLD.search(name) or flags & _BOLD_FLAG),
        is_italic=bool(_ITALIC.search(name) or flags & _ITALIC_FLAG),
        is_fixed=bool(_FIXED.search(name) or flags & _FIXED_FLAG),
        is_caps=bool(_CAPS.search(name)),
        family=match["family"] if (match := _FAMILY.match(name)) else name,
    )
