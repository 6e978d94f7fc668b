"""Text of pages that are only pictures, recognised by Tesseract as a program of the system.

The engine is asked on its standard input and output alone. Where it is not installed, hangs or
ends, this is told, and nothing else suffers.
"""

from __future__ import annotations

import csv
import io
import os
import pickle
import re
import shutil
import subprocess
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.errors import PageFailedError, WideMarginError
from wide_margin.core.later import regex
from wide_margin.core.pages.model import Font, PageText
from wide_margin.core.pages.render import draw

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray
    from wide_margin.core.pages.document import PdfFile
    from wide_margin.core.pages.model import Picture

PROGRAM = "tesseract"
DOTS = 200.0
"""Dots per inch that a page is drawn at for the engine."""
SECONDS = 90.0
"""A page that takes longer is given up."""
POOR, FEW = 55.0, 4
"""Surer than this in per cent, and with so many words, a page stands upright."""
GARBLED, LEAST_LETTERS = 0.3, 60
"""Share of a page's signs without a meaning from which on its text is damaged."""
_BLANKS = (0, 2, 9, 10, 12, 13)
"""Control characters that an engine gives of sound text: what ends a line, and a hyphen there."""
_IS_CONTROL = np.array(
    [code not in _BLANKS if code < 32 else 127 <= code < 160 for code in range(161)]
)
"""Of each code; the last one stands for all above."""
CONTROL = 0.025
"""The same of control characters, of which fonts without names for their glyphs leave many: on
1,700 pages of 290 documents two whose text is damaged had 0.03 to 0.3, no other over 0.023."""
SAMPLE = 1500
"""Characters of a page whose words are looked at."""
VOWELS = 0.21
"""Share of vowels among the letters of its words, at least, in a text in Latin letters; on 591
pages of 40 documents, code and tables among them, it was never under 0.25."""
OF_HEIGHT = 1.07
"""Size of a font as a share of the height of the ink on a line of it."""
SAME_SIZE = 0.16
"""Lines whose sizes differ by less are of one size: what is measured on a picture varies."""
_LANGUAGES = {
    "en": "eng", "de": "deu", "fr": "fra", "es": "spa", "it": "ita", "nl": "nld", "pt": "por",
    "sv": "swe", "da": "dan", "no": "nor", "fi": "fin", "ru": "rus", "pl": "pol", "cs": "ces",
    "hu": "hun", "ro": "ron", "tr": "tur", "el": "ell", "ja": "jpn", "zh": "chi_sim", "ko": "kor",
    "ar": "ara", "he": "heb",
}  # fmt: skip
_ROTATE = regex(r"^Rotate:\s*(\d+)", re.M)
_WORD = regex(r"[A-Za-z]{3,}")


class NoEngineError(WideMarginError):
    """The engine is not installed."""


@dataclass(frozen=True, slots=True)
class Recognised:
    """What was recognised on a page."""

    text: PageText
    sure: float
    """How sure the engine is, mean of the words, 0 to 1."""


@lru_cache(maxsize=1)
def engine_languages(program: str = PROGRAM) -> frozenset[str]:
    """The languages that the engine has; empty where there is no engine."""
    found = shutil.which(program)
    if found is None:
        return frozenset()
    try:
        told = subprocess.run(
            [found, "--list-langs"], capture_output=True, timeout=10, check=True,
            encoding="utf-8", errors="replace",
        ).stdout  # fmt: skip
    except (OSError, subprocess.SubprocessError):
        return frozenset()
    return frozenset(line.strip() for line in told.splitlines()[1:] if line.strip())


def languages_for(language: str, program: str = PROGRAM) -> str:
    """The engine's languages for a document, as its -l takes them.

    Raises:
        NoEngineError: It has none, or is not installed.
    """
    has = engine_languages(program)
    wanted = _LANGUAGES.get(language, "")
    chosen = [name for name in dict.fromkeys((wanted, "eng")) if name in has]
    if not chosen:
        package = f"tesseract-ocr-{wanted.replace('_', '-')}" if has else "tesseract-ocr"
        raise NoEngineError(
            "The text of pictures cannot be recognised: Tesseract is not there.",
            hint=f"Install the package {package}, then try again.",
        )
    return "+".join(chosen[:2])


def recognise(
    pdf: PdfFile, index: int, languages: str, *, program: str = PROGRAM, seconds: float = SECONDS
) -> Recognised:
    """Recognise the text of one page; one that stands on its side or its head is turned first.

    Args:
        pdf: The open file.
        index: Page index.
        languages: From languages_for.
        program: The engine.
        seconds: How long it may take.

    Raises:
        PageFailedError: The page cannot be drawn, or the engine fails on it.
    """
    picture = grey(draw(pdf, index, DOTS / 72.0))
    with pdf.page(index) as page:
        width, height = page.get_size()
    rows = _asked(picture, languages, index, program, seconds)
    turns = 0
    if _sure(rows) < POOR or len(rows) < FEW:
        turns = _turns_to_upright(picture, program, seconds)
        if turns:
            turned = _asked(np.rot90(picture, -turns), languages, index, program, seconds)
            rows, turns = (turned, turns) if _sure(turned) > _sure(rows) else (rows, 0)
    scale = width / picture.shape[1]
    text = _page_text(rows, index, (width, height), scale, turns, picture.shape)
    return Recognised(text, _sure(rows) / 100.0)


def grey(picture: Picture) -> np.ndarray[tuple[int, int], np.dtype[np.uint8]]:
    """(height, width) lightness of a bitmap."""
    rows = np.frombuffer(picture.data, np.uint8).reshape(picture.height, picture.stride)
    pixels = rows[:, : 4 * picture.width].reshape(picture.height, picture.width, 4)[:, :, :3]
    return np.ascontiguousarray(pixels.mean(axis=2).astype(np.uint8))


@dataclass(frozen=True, slots=True)
class _Row:
    """A word as the engine gives it, in pixels."""

    line: tuple[int, int, int]
    box: tuple[float, float, float, float]
    line_height: float
    sure: float
    text: str


def _run(program: str, arguments: Sequence[str], data: bytes, seconds: float) -> str:
    environment = os.environ | {"OMP_THREAD_LIMIT": "1"}  # one core: the window needs the other
    done = subprocess.run(
        [program, "stdin", "stdout", *arguments], input=data, capture_output=True,
        timeout=seconds, check=True, env=environment,
    )  # fmt: skip
    return done.stdout.decode("utf-8", "replace")


def _pgm(picture: np.ndarray[tuple[int, int], np.dtype[np.uint8]]) -> bytes:
    height, width = picture.shape
    return b"P5\n%d %d\n255\n" % (width, height) + np.ascontiguousarray(picture).tobytes()


def _asked(
    picture: np.ndarray[tuple[int, int], np.dtype[np.uint8]], languages: str, index: int,
    program: str, seconds: float,
) -> list[_Row]:  # fmt: skip
    arguments = ["-l", languages, "--dpi", f"{DOTS:.0f}", "--psm", "3", "tsv"]
    try:
        told = _run(program, arguments, _pgm(picture), seconds)
    except FileNotFoundError as error:
        raise NoEngineError(
            "The text of pictures cannot be recognised: Tesseract is not there.",
            hint="Install the package tesseract-ocr, then try again.",
        ) from error
    except (OSError, subprocess.SubprocessError) as error:
        slow = isinstance(error, subprocess.TimeoutExpired)
        raise PageFailedError(
            f"The text of page {index + 1} of the file could not be recognised.",
            hint="It took too long." if slow else "The engine ended over it; the others can be.",
        ) from error
    return _rows(told)


def _rows(told: str) -> list[_Row]:
    """The words in the engine's table; lines that are no such are passed over."""
    found: list[_Row] = []
    heights: dict[tuple[int, int, int], float] = {}
    for row in csv.DictReader(io.StringIO(told), delimiter="\t", quoting=csv.QUOTE_NONE):
        try:
            level, sure = int(row["level"]), float(row["conf"])
            line = int(row["block_num"]), int(row["par_num"]), int(row["line_num"])
            x, y, w, h = (float(row[name]) for name in ("left", "top", "width", "height"))
            text = (row["text"] or "").strip()
        except (KeyError, TypeError, ValueError):
            continue
        if level == 4:
            heights[line] = h
        elif level == 5 and text and sure >= 0:
            found.append(_Row(line, (x, y, x + w, y + h), heights.get(line, h), sure, text))
    return found


def _sure(rows: Sequence[_Row]) -> float:
    weights = [len(row.text) for row in rows]
    return float(np.average([row.sure for row in rows], weights=weights)) if rows else 0.0


def _turns_to_upright(
    picture: np.ndarray[tuple[int, int], np.dtype[np.uint8]], program: str, seconds: float
) -> int:
    """Quarter turns clockwise that set a page upright; 0 where the engine cannot tell."""
    if "osd" not in engine_languages(program):
        return 0
    try:
        told = _run(program, ["--dpi", f"{DOTS:.0f}", "--psm", "0"], _pgm(picture), seconds)
    except (OSError, subprocess.SubprocessError):
        return 0  # too few letters to tell
    match = _ROTATE.search(told)
    return int(match[1]) // 90 % 4 if match else 0


def _page_text(
    rows: Sequence[_Row],
    index: int,
    size: tuple[float, float],
    scale: float,
    turns: int,
    shape: tuple[int, ...],
) -> PageText:
    """The words as characters with boxes in page space; each shares the width of its word."""
    chars: list[str] = []
    boxes: list[tuple[float, float, float, float]] = []
    starts: list[int] = []
    sizes: list[float] = []
    usual = float(np.median([row.line_height for row in rows])) if rows else 1.0
    nothing = (float("nan"),) * 4
    for k, row in enumerate(rows):
        if k:
            is_new = row.line != rows[k - 1].line
            for sign in "\r\n" if is_new else " ":
                chars.append(sign)
                boxes.append(nothing)
        near = abs(row.line_height - usual) < SAME_SIZE * usual
        points = round(2 * OF_HEIGHT * (usual if near else row.line_height) * scale) / 2
        if not sizes or sizes[-1] != points:
            starts.append(len(chars) if starts else 0)
            sizes.append(points)
        x0, y0, x1, y1 = row.box
        step = (x1 - x0) / len(row.text)
        for at, sign in enumerate(row.text):
            chars.append(sign)
            boxes.append((x0 + at * step, y0, x0 + (at + 1) * step, y1))
    placed = np.array(boxes or np.zeros((0, 4)), dtype=np.float32).reshape(-1, 4)
    return PageText(
        index, *size, "".join(chars), _turned_back(placed, turns, shape) * np.float32(scale),
        np.array(starts, np.int32), np.zeros(len(starts), np.int32), np.array(sizes, np.float32),
        (Font("recognised"),) if starts else (),
    )  # fmt: skip


def _turned_back(boxes: FloatArray, turns: int, shape: tuple[int, ...]) -> FloatArray:
    """Boxes on the page as it lies, of words read on the page as it was turned upright."""
    height, width = shape[:2]
    x0, y0, x1, y1 = boxes.T
    match turns:
        case 1:  # it was turned clockwise: what was at the left edge was at the foot
            return np.stack([y0, height - x1, y1, height - x0], axis=1)
        case 2:
            return np.stack([width - x1, height - y1, width - x0, height - y0], axis=1)
        case 3:
            return np.stack([width - y1, x0, width - y0, x1], axis=1)
        case _:
            return boxes


def is_garbled(chars: str) -> bool:
    """Whether the text of a page is damaged: signs without a meaning, letters without words.

    It is asked of every page that is read: all of it runs in compiled code.
    """
    codes = np.frombuffer(chars.encode("utf-32-le", "surrogatepass"), dtype=np.uint32)
    n_signs = np.count_nonzero(codes > 32)
    if n_signs < LEAST_LETTERS:
        return False
    if np.count_nonzero(_IS_CONTROL.take(codes, mode="clip")) > CONTROL * n_signs:
        return True
    is_private = (codes >= 0xF000) & (codes <= 0xF8FF)
    n_lost = np.count_nonzero(is_private | (codes == 0xFFFD)) + 6 * chars.count("(cid:")
    if n_lost > GARBLED * n_signs:
        return True
    letters = "".join(_WORD.findall(chars[:SAMPLE]))
    if len(letters) < LEAST_LETTERS or np.count_nonzero(codes > 127) > 0.2 * n_signs:
        return False
    return sum(map(letters.count, "aeiouyAEIOUY")) < VOWELS * len(letters)


# --- what is kept


class RecognisedPages:
    """The pages of a file that were recognised, one file each."""

    def __init__(self, folder: Path) -> None:
        """Nothing is read before it is asked for."""
        self._folder = folder

    def page(self, index: int) -> PageText | None:
        """The text of a page, None where it was not recognised."""
        found = self.recognised(index)
        return found.text if found is not None else None

    def recognised(self, index: int) -> Recognised | None:
        """A page with how sure the engine was; None where there is none, or it is damaged."""
        try:
            found = pickle.loads((self._folder / f"{index}.page").read_bytes())
        except OSError:
            return None
        except Exception:  # a damaged page is as good as none
            return None
        return found if isinstance(found, Recognised) else None

    def known(self) -> frozenset[int]:
        """The pages that were recognised."""
        try:
            names = [path.stem for path in self._folder.glob("*.page")]
        except OSError:
            return frozenset()
        return frozenset(int(name) for name in names if name.isdecimal())

    def keep(self, index: int, found: Recognised) -> None:
        """Keep a page, whole or not at all.

        Raises:
            OSError: It cannot be written.
        """
        self._folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        part = self._folder / f"{index}.{os.getpid()}"
        part.write_bytes(pickle.dumps(found, protocol=5))
        part.replace(self._folder / f"{index}.page")
