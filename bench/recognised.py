"""How much of pages that are only pictures is recognised.

    python bench/recognised.py PDF… [--pages N]

Pages are taken evenly from each document, drawn at 200 dots per inch into a PDF of pictures, and
recognised; their words are held against those of the text itself.
"""

import argparse
import re
import tempfile
import time
from collections import Counter
from pathlib import Path

import pypdfium2 as pdfium

from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.recognising import languages_for, recognise
from wide_margin.core.pages.text import read_text

DOTS = 200
_WORD = re.compile(r"[^\W_]+")


def words(text: str) -> Counter[str]:
    """The words of a page; a hyphen at a line end is undone as reading does."""
    plain = re.sub(r"[\ufffe\u00ad-]\s*[\r\n]+|\ufffe", "", text)
    return Counter(_WORD.findall(plain))


def measure(path: Path, n_pages: int) -> tuple[int, int, float, float]:
    """Words of the text, those of them recognised, seconds a page, mean sureness."""
    source = pdfium.PdfDocument(path)
    step = max(1, len(source) // n_pages)
    chosen = list(range(step // 2, len(source), step))[:n_pages]
    n_words = n_right = 0
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
            wanted = words(read_text(written, page).chars)
            start = time.perf_counter()
            found = recognise(pdf, k, languages)
            seconds += time.perf_counter() - start
            sure += found.sure
            n_words += sum(wanted.values())
            n_right += sum((wanted & words(found.text.chars)).values())
        written.close()
        pdf.close()
    return n_words, n_right, seconds / len(chosen), sure / len(chosen)


def main() -> None:
    """Measure each document."""
    parser = argparse.ArgumentParser()
    parser.add_argument("pdfs", nargs="+", type=Path)
    parser.add_argument("--pages", type=int, default=15)
    options = parser.parse_args()
    for path in options.pdfs:
        n, right, seconds, sure = measure(path, options.pages)
        share = right / max(n, 1)
        told = f"words right {share:.4f} of {n}  sure {sure:.3f}  {seconds:.2f} s a page"
        print(path.stem.ljust(20), told)


if __name__ == "__main__":
    main()
