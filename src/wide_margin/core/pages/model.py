"""Values that pages are made of; they cross from worker processes to everyone else."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.geometry import Box, FloatArray, IntArray
from wide_margin.core.later import loaded_later, regex

if TYPE_CHECKING:
    from collections.abc import Iterator

    import numpy as np
else:
    np = loaded_later("numpy")

PageSize = tuple[float, float]
"""Width and height in points as displayed."""
USUAL_SIZE: PageSize = 612.0, 792.0
"""Of a page that does not say its own."""
LINE_END_HYPHEN = "\ufffe"
"""What PDFium puts in place of a hyphen that parts a word at a line end."""
LOOSE_ACCENTS = {
    "\u00a8": "\ue0a8", "\u00b4": "\ue0b4", "\u0060": "\ue060", "\u02c6": "\ue0c6",
    "\u02dc": "\ue0dc", "\u02c7": "\ue0c7", "\u02da": "\ue0da", "\u00af": "\ue0af",
}  # fmt: skip
"""TeX's oldest encoding draws an accent as a sign of its own, before its letter. In text of its
fonts these signs are told from those of the same look by characters for private use; everywhere
else a back-tick is a back-tick."""
OWN_LIGATURES = {
    "\ue174": "tt", "\ue175": "ti", "\ue176": "Th", "\ue177": "ft", "\ue178": "fj",
    "\ue179": "tti", "\ue17a": "tf",
}  # fmt: skip
"""Ligatures that Unicode has no sign for, as characters for private use."""
_MORE_OF_MARK = r"(?:(?<=\d)\d{0,2}|(?<!\d)[*†‡§]{0,2})"
MARK_AFTER_WORD = regex(  # begins with its own sign: the pattern is then four times quicker
    rf"[\d*†‡§](?:(?<=[^\W\d_]{{4}}.){_MORE_OF_MARK}(?!\w)"
    rf"|(?<=[.,;:!?)\]”\"’»。、].){_MORE_OF_MARK}(?:(?!\w)|(?<=\d)(?=[“\"‘(]?[A-Z]))"
    r"|(?<=\s\d)\d?(?=[A-Z][a-z]))"
)  # fmt: skip
"""Where the mark of a footnote may stand: right after a word or sign, or glued to the next word."""
_LETTER_MARK = regex(
    r"(?<=[^\W\d_]{3})[a-h](?:\s?,\s?[a-h](?!\w))*(?!\w)|(?<![\w'’.-])[a-h](?=[A-Z][a-z]{2})"
)
"""Where the letter may stand that ties an author to a place of work, which begins with it."""
_NOTE_BEGINS = regex(
    r"\n(?P<mark>\d{1,3}|[*†‡§]{1,3})(?=\s{0,3}[“\"‘(\[\\]?[^\W\d_](?:[^\W\d_]| [^\W\d_]))"
)
"""Where a line may begin a footnote, with its mark and a word."""
_BEFORE_MARK = (r"[^\W\d_]{2}", r"\d[\d.]\d", r"[^\W\d_]{2}[)\]”\"’]", r"[\w)\]][.,;:!?]")
"""What a mark follows; after a single letter, a figure or a formula in brackets it is a power."""
MOST_OF_NOTE = 40
"""Places where the mark of one note is looked for; a page with more is full of numbers."""
PARTS = ("labels", "bookmarks", "about")
"""What a file says of itself that reading can do without."""


@dataclass(frozen=True, slots=True)
class Font:
    """A face as the file names it."""

    name: str
    is_bold: bool = False
    is_italic: bool = False
    is_fixed: bool = False
    is_caps: bool = False
    """Whether it has small capitals for small letters."""
    family: str = ""
    """The name without subset, size, weight and slant, as far as the name tells them apart."""


class Frame(NamedTuple):
    """How a page of the file becomes the page as displayed."""

    box: tuple[float, float, float, float]
    """Left, bottom, right, top of the visible box, in user space."""
    turns: int
    """Quarter turns clockwise."""


@dataclass(frozen=True, slots=True)
class Bookmark:
    """One outline item of the file (ISO 32000-1, 12.3.3), flattened."""

    title: str
    level: int
    """From 0."""
    page: int | None
    """Page index, None where the destination is not in this file."""
    y: float | None
    """Points from the top of the page, None where the destination does not say."""


@dataclass(frozen=True, slots=True)
class Link:
    """A link annotation: its area, and the place in this file or the address it opens."""

    box: Box
    page: int | None = None
    y: float | None = None
    address: str = ""


@dataclass(frozen=True, slots=True, eq=False)
class PageText:
    """The text of one page, each character with its box.

    Every index into ``chars`` is a row of ``boxes``; the reading worker and the page worker
    extract the same way, so a range of characters means the same place to both.
    """

    index: int
    width: float
    height: float
    chars: str
    """n characters in the order of the content stream; lines end in CR LF."""
    boxes: FloatArray
    """(n, 4) in page space, float32; NaN for characters without a shape."""
    run_starts: IntArray
    """(r,) first character of each run of one font and size, ascending from 0."""
    run_fonts: IntArray
    """(r,) index into ``fonts``."""
    run_sizes: FloatArray
    """(r,) font size as displayed, in points."""
    fonts: tuple[Font, ...]
    frame: Frame | None = None
    parted: tuple[int, ...] = ()
    """Characters that begin a word although no space stands before them."""

    def __post_init__(self) -> None:
        """Make the arrays read-only: the value crosses threads."""
        for array in (self.boxes, self.run_starts, self.run_fonts, self.run_sizes):
            array.flags.writeable = False

    @classmethod
    def empty(cls, index: int, width: float, height: float, frame: Frame | None = None) -> PageText:
        """A page that has no text, or whose text could not be had."""
        none = np.zeros(0, dtype=np.int32)
        boxes, sizes = np.zeros((0, 4), np.float32), np.zeros(0, np.float32)
        return cls(index, width, height, "", boxes, none, none.copy(), sizes, (), frame)


@dataclass(frozen=True, slots=True)
class Picture:
    """A bitmap of a page or a part of it: rows of BGRX bytes, top row first."""

    width: int
    height: int
    stride: int
    data: bytes


@dataclass(frozen=True, slots=True, eq=False)
class FileFacts:
    """What the file says of itself before any page is read."""

    n_pages: int
    sizes: tuple[PageSize, ...]
    """Of every page."""
    labels: tuple[str | None, ...]
    """From /PageLabels; None for every page where the file has none."""
    title: str = ""
    author: str = ""
    created: str = ""
    changed: str = ""
    producer: str = ""
    identity: str = ""
    """The first half of /ID in hex, "" where there is none."""
    is_sized: bool = True
    """Whether every page was measured; otherwise the later ones are taken to be like others."""
    left_out: tuple[str, ...] = ()
    """Which of the parts of what the file says could not be had: labels, bookmarks, about."""

    @property
    def heights(self) -> list[float]:
        """Of every page, in points as displayed."""
        return [height for _, height in self.sizes]

    @property
    def is_wide(self) -> bool:
        """Whether most pages are wider than high."""
        return 2 * sum(width > height for width, height in self.sizes) > len(self.sizes)

    def with_sizes(self, sizes: tuple[PageSize, ...]) -> FileFacts:
        """The same of every page measured, or of those that are really there."""
        n = len(sizes)
        return replace(self, n_pages=n, sizes=sizes, labels=self.labels[:n], is_sized=True)


def marks_in(chars: str, page: int) -> Iterator[tuple[int, int]]:
    """Ranges [first, end) of what may be marks, by their signs; letters on the first page alone.

    Args:
        chars: Of a page.
        page: Its index.
    """
    for pattern in (MARK_AFTER_WORD, _LETTER_MARK)[: 2 if page == 0 else 1]:
        for match in pattern.finditer(chars):
            yield match.span()


class Called(NamedTuple):
    """A mark that lines of a page begin with, as its notes do."""

    notes: list[int]
    """Characters at which these lines begin."""
    places: list[tuple[int, int]]
    """Ranges [first, end) of the same sign elsewhere, that may point to them."""


def marks_called_for(chars: str) -> list[Called]:
    """What on a page may be marks of its notes, though ``marks_in`` looks for none there.

    They follow a short word or a figure, "in R1" or "in 20122", or a blank or an end of line that
    stands before what is raised. Many of these are no marks.
    """
    notes: dict[str, list[int]] = {}
    for match in _NOTE_BEGINS.finditer(chars):
        notes.setdefault(match["mark"], []).append(match.start("mark"))
    found = []
    for mark, begun in notes.items():
        places = [match.span() for match in _places_of(mark).finditer(chars)]
        if len(places) <= MOST_OF_NOTE:
            found.append(Called(begun, places))
    return found


@lru_cache(maxsize=1_024)
def _places_of(mark: str) -> re.Pattern[str]:
    """Finds where a mark may be; it begins with the mark, which is quicker than what is before."""
    sign, ends = re.escape(mark), r"(?!\w)" if mark.isdecimal() else r"(?![*†‡§])"
    glued = "|".join(rf"(?<={before}{sign})" for before in _BEFORE_MARK)
    apart = "|".join(
        rf"(?<={before}{blank}{sign})" for before in _BEFORE_MARK for blank in (" ", r"\r\n")
    )
    return re.compile(rf"{sign}(?:(?:{glued}){ends}|(?:{apart})(?=\s)(?!\s+\d+\s*\n))")
