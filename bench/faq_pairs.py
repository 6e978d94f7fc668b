"""Questions that people really ask, with the pages that answer them: from documented FAQs.

    python bench/faq_pairs.py FOLDER

Gets perl-doc with apt-get, and sets each of its nine FAQs as a PDF without the questions that head
its entries: FOLDER/faq-perlN.pdf, and FOLDER/faq-perlN.jsonl with the questions and the pages of
their entries. `make fit` takes them from there; nothing of them is kept in the project.
"""

import json
import re
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

_MARKUP = re.compile(r"[BCFILX]<+\s?(?:[^<>|]*\|)?([^<>]*?)\s?>+")
_LEFT, _TOP, _LOW, _WIDTH = 72.0, 760.0, 72.0, 450.0
FEWEST_LETTERS = 80
"""An entry with less text answers nothing."""


def plain(text: str) -> str:
    """Plain Old Documentation without its markup."""
    for _ in range(2):
        text = _MARKUP.sub(r"\1", text)
    text = text.replace("E<lt>", "<").replace("E<gt>", ">")
    return text.encode("latin-1", "replace").decode("latin-1")


def entries(source: str) -> Iterator[tuple[str, list[str]]]:
    """Question and paragraphs of each entry; an indented paragraph is code."""
    for part in re.split(r"^=head2 ", source, flags=re.M)[1:]:
        question, _, body = part.partition("\n")
        body = re.split(r"^=head1 ", body, flags=re.M)[0]
        paragraphs = [p for p in re.split(r"\n\s*\n", body) if p.strip() and p[0] != "="]
        yield plain(question).strip(), paragraphs


def lines(paragraph: str) -> Iterator[tuple[str, str]]:
    """Font and text of the lines of a paragraph."""
    if paragraph[0] in " \t":
        for line in paragraph.splitlines():
            yield "Courier", line.expandtabs()[:90]
        return
    line = ""
    for word in plain(paragraph).split():
        longer = f"{line} {word}".strip()
        if line and stringWidth(longer, "Times-Roman", 10) > _WIDTH:
            yield "Times-Roman", line
            longer = word
        line = longer
    yield "Times-Roman", line


def typeset(source: str, path: Path) -> list[dict[str, object]]:
    """Set a FAQ without its questions; the questions with the pages of their entries."""
    canvas, y, page, items = Canvas(str(path), pagesize=A4, invariant=1), _TOP, 1, []
    for question, paragraphs in entries(source):
        first = page
        for paragraph in paragraphs:
            for font, line in lines(paragraph):
                if y < _LOW:
                    canvas.showPage()
                    page, y = page + 1, _TOP
                canvas.setFont(font, 9 if font == "Courier" else 10)
                canvas.drawString(_LEFT, y, line.encode("latin-1", "replace").decode("latin-1"))
                y -= 13
            y -= 6
        said = sum(len(p) for p in paragraphs if p[0] not in " \t")
        if said >= FEWEST_LETTERS and "?" in question:
            items.append({"id": f"{path.stem}-{len(items) + 1:03}", "kind": "asked",
                          "question": question, "pages": list(range(first, page + 1)),
                          "quotes": [], "answers": []})  # fmt: skip
    canvas.save()
    return items


def main() -> None:
    """Get, set, write."""
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as scratch:
        subprocess.run(["apt-get", "download", "perl-doc"], cwd=scratch, check=True)
        (package,) = Path(scratch).glob("*.deb")
        subprocess.run(["dpkg-deb", "-x", str(package), f"{scratch}/x"], check=True)
        for pod in sorted(Path(scratch).rglob("pod/perlfaq[1-9].pod")):
            path = folder / f"{pod.stem.replace('perlfaq', 'faq-perl')}.pdf"
            items = typeset(pod.read_text("utf-8", "replace"), path)
            text = "".join(json.dumps(item) + "\n" for item in items)
            path.with_suffix(".jsonl").write_text(text, encoding="utf-8")
            print(f"{path.stem}: {len(items)} questions")


if __name__ == "__main__":
    main()
