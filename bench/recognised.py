"""How much of pages that are only pictures is recognised.

    python bench/recognised.py PDF… [--pages N]

Pages are taken evenly from each document, drawn at 200 dots per inch into a PDF of pictures, and
recognised; their words are held against those of the text itself. Fonts that hold signs and no
words (the notes of music print as "h" and "S" in the text layer) are told apart: no engine can
read letters where there are none.
"""

import argparse
import re
import tempfile
import time
from collections import Counter
from pathlib import Path

import numpy as np
import pypdfium2 as pdfium

from wide_margin.core.pages import PageText
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.recognising import languages_for, recognise
from wide_margin.core.pages.text import read_text

DOTS = 200
FEW_WORDS, SIGNS = 5, 1.25
"""A font of signs has so many words on a page at least, with fewer letters a word than this."""
_WORD = re.compile(r"[^\W_]+")


def words(text: str) -> Counter[str]:
    """The words of a page; a hyphen at a line end is undone as reading does."""
    plain = re.sub(r"[\ufffe\u00ad-]\s*[\r\n]+|\ufffe", "", text)
    return Counter(_WORD.findall(plain))


def without_signs(page: PageText) -> str:
    """The text of a page without what is set in fonts of signs: hardly two letters together."""
    fonts = np.zeros(len(page.chars), dtype=int)
    ends = [*page.run_starts[1:].tolist(), len(page.chars)]
    for start, end, font in zip(page.run_starts, ends, page.run_fonts, strict=True):
        fonts[start:end] = font
    chars = np.array(list(page.chars))
    for font in np.unique(fonts):
        set_in = np.where(fonts == font, chars, " ")
        found = _WORD.findall("".join(set_in))
        if len(found) >= FEW_WORDS and sum(map(len, found)) < SIGNS * len(found):
            chars[fonts == font] = " "
    return "".join(chars)


def measure(path: Path, n_pages: int) -> tuple[int, int, int, int, float, float]:
    """Words of the text and those recognised, the same without signs, seconds, sureness."""
    source = pdfium.PdfDocument(path)
    step = max(1, len(source) // n_pages)
    chosen = list(range(step // 2, len(source), step))[:n_pages]
    n_words = n_right = n_true = n_read = 0
    seconds, sure = 0.0, 0.0
    with tempfile.TemporaryDirectory() as folder:
        pictures = Path(folder) / "pictures.pdf"
        drawn = [source[k].render(scale=DOTS / 72).to_pil().convert("L") for k in chosen]
        drawn[0].save(
            pictures, "PDF", resolution=float(DOTS), save_all=True, append_images=drawn[1:]
        )
        written, pdf = PdfFile(path, None), PdfFile(pictures, None)
        languages = languages_for("en")
        for k, page in enumerate(chosen):
            text = read_text(written, page)
            wanted, true = words(text.chars), words(without_signs(text))
            start = time.perf_counter()
            found = recognise(pdf, k, languages)
            seconds += time.perf_counter() - start
            sure += found.sure
            n_words += sum(wanted.values())
            read = words(found.text.chars)
            n_right += sum((wanted & read).values())
            n_true += sum(true.values())
            n_read += sum((true & read).values())
        written.close()
        pdf.close()
    return n_words, n_right, n_true, n_read, seconds / len(chosen), sure / len(chosen)


def main() -> None:
    """Measure each document."""
    parser = argparse.ArgumentParser()
    parser.add_argument("pdfs", nargs="+", type=Path)
    parser.add_argument("--pages", type=int, default=15)
    options = parser.parse_args()
    for path in options.pdfs:
        n, right, n_true, n_read, seconds, sure = measure(path, options.pages)
        told = (
            f"words right {right / max(n, 1):.4f} of {n}, without signs"
            f" {n_read / max(n_true, 1):.4f} of {n_true}  sure {sure:.3f}  {seconds:.2f} s a page"
        )
        print(path.stem.ljust(20), told)


if __name__ == "__main__":
    main()
