"""Whether the marks of an annotated copy cover their words and no others.

    python bench/annotated.py PDF… [--marks 100] [--seed 1] [--turned] [--cropped]

Marks runs of words chosen by lot, writes the copy, and reads it back with what the product does
not use for writing: the quadrilaterals are taken from the file and the letters within them are
asked of PDFium, box by box. ``qpdf --check`` looks at each copy where it is installed.
"""

import argparse
import random
import shutil
import subprocess
import tempfile
import unicodedata
from pathlib import Path

import pikepdf
import pypdfium2
import pypdfium2.raw as pdfium_raw

from wide_margin.core.export.annotated import PREFIX, write_annotated
from wide_margin.core.margin import Anchor, Entry, EntryKind, MarkBody, new_entry
from wide_margin.core.session import Session
from wide_margin.core.session.placing import placed

LONGEST = 40
"""Words of a mark, at most."""


def main() -> None:
    """Mark, write, read back and compare, document by document."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("pdfs", nargs="+", type=Path)
    parser.add_argument("--marks", type=int, default=100)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--turned", action="store_true", help="turn every page a quarter first")
    parser.add_argument("--cropped", action="store_true", help="cut every page's crop box first")
    parser.add_argument("--verbose", action="store_true")
    parser.add_argument("--keep", type=Path, help="keep the copies in this folder")
    options = parser.parse_args()
    for pdf in options.pdfs:
        with tempfile.TemporaryDirectory() as folder:
            source = _made_worse(pdf, Path(folder), options.turned, options.cropped)
            copy = (options.keep or Path(folder)) / f"{pdf.stem}-annotated.pdf"
            kept = _mark(source, copy, options.marks, options.seed)
            right = _compare(copy, kept, options.verbose)
            print(f"{pdf.stem}: {right} of {len(kept)} marks cover their words and no other"
                  f"{_checked(copy)}")  # fmt: skip


def _made_worse(pdf: Path, folder: Path, turned: bool, cropped: bool) -> Path:
    """A copy with its pages turned or cropped; the file itself where neither is asked."""
    if not turned and not cropped:
        return pdf
    target = folder / pdf.name
    with pikepdf.open(pdf) as opened:
        for page in opened.pages:
            if turned:
                page.rotate(90, relative=True)
            if cropped:
                x0, y0, x1, y1 = (float(v) for v in page.cropbox)
                page.cropbox = [x0 + 20, y0 + 30, x1 - 10, y1 - 15]
        opened.save(target)
    return target


def _mark(source: Path, copy: Path, n: int, seed: int) -> dict[str, str]:
    """Write a copy with marks by lot; the words of each by its entry's identity."""
    lot = random.Random(seed)
    entries: list[Entry] = []
    with Session(source) as session:
        session.open().result()
        n_pages = len(session.sizes().result())
        for _ in range(20 * n):
            if len(entries) == n:
                break
            page = lot.randrange(n_pages)
            layer = session.text(page).result()
            starts = layer.word_starts()
            if len(starts) < 3:
                continue
            first = lot.randrange(len(starts))
            beyond = min(first + lot.randrange(1, LONGEST), len(starts))
            end = starts[beyond] if beyond < len(starts) else layer.n
            anchor = Anchor(
                page, 0.0, layer.spans(starts[first], end), layer.text(starts[first], end)
            )
            entries.append(new_entry(EntryKind.MARK, anchor, MarkBody()))
        write_annotated(source, copy, placed(session, entries), author="A reader")
    return {entry.id: entry.anchor.quote for entry in entries}


def _compare(copy: Path, kept: dict[str, str], verbose: bool) -> int:
    """How many marks hold the letters of their words and no others."""
    right = 0
    document = pypdfium2.PdfDocument(copy)
    with pikepdf.open(copy) as opened:
        for index, page in enumerate(opened.pages):
            annotations = page.obj.get("/Annots", [])
            marks = [a for a in annotations if str(a.get("/NM", "")).startswith(PREFIX)]
            letters = _letters(document[index]) if marks else []
            for mark in marks:
                quads = [float(v) for v in mark["/QuadPoints"]]
                boxes = [quads[k : k + 8] for k in range(0, len(quads), 8)]
                inside = "".join(c for c, x, y in letters if _in_any(x, y, boxes))
                wanted = kept[str(mark["/NM"]).removeprefix(PREFIX)]
                same = _bare(inside) == _bare(wanted)
                right += same
                if verbose and not same:
                    print(f"  p. {index + 1}: {wanted!r}\n      {inside!r}")
    return right


def _letters(page: pypdfium2.PdfPage) -> list[tuple[str, float, float]]:
    """Each letter and the middle of its box, in user space."""
    text = page.get_textpage()
    found = []
    for k in range(text.count_chars()):
        code = pdfium_raw.FPDFText_GetUnicode(text, k)
        left, bottom, right, top = text.get_charbox(k)
        if right > left and not pdfium_raw.FPDFText_IsGenerated(text, k):
            found.append((chr(code), (left + right) / 2, (bottom + top) / 2))
    return found


def _in_any(x: float, y: float, boxes: list[list[float]]) -> bool:
    return any(
        min(box[0::2]) <= x <= max(box[0::2]) and min(box[1::2]) <= y <= max(box[1::2])
        for box in boxes
    )


def _bare(text: str) -> str:
    """Letters and figures, without accents, whatever order the page draws them in."""
    return "".join(sorted(c for c in unicodedata.normalize("NFKD", text) if c.isalnum()))


def _checked(copy: Path) -> str:
    program = shutil.which("qpdf")
    if program is None:
        return ""
    done = subprocess.run([program, "--check", str(copy)], capture_output=True, check=False)
    return "; qpdf finds it sound" if done.returncode == 0 else f"; qpdf: {done.stdout[-200:]!r}"


if __name__ == "__main__":
    main()
