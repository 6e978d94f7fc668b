"""Made documents with known text, and how much of it reading brings back.

    python bench/made.py [--documents 100] [--seed 1] [--keep FOLDER] [--show KIND]

Each document has a page design drawn by lot (columns, type, spacing, numbered lines, notes in the
margin) and is filled with paragraphs, footnotes, tables, figures with words in them, formulas, code
and lists, whose text is known. Printed are the shares of body sentences read back exactly and in
their order, of table cells, of footnotes tied to the sentence with their mark, and of the other
pieces that kept out of the body.
"""

import argparse
import random
import tempfile
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, field
from difflib import SequenceMatcher
from pathlib import Path

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.document import ReadDocument, find_notes, find_tables, understand
from wide_margin.core.jobs import CancelToken, no_progress
from wide_margin.core.layout import lines_of, tidy
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.source import TextSource

FAMILIES = {
    "Times": ("Times-Roman", "Times-Bold", "Times-Italic"),
    "Helvetica": ("Helvetica", "Helvetica-Bold", "Helvetica-Oblique"),
}
_NOUNS = """
    harbour gauge record keeper station survey tide level instrument ledger season bridge
    channel pilot vessel lantern workshop council measure reading correction chart depth
    anchor rope committee engine boiler market harvest valley observation temperature
    pressure estimate
"""
_VERBS = """
    records shows keeps reaches carries replaces describes measures follows limits explains
    joins precedes requires supports exceeds resembles accompanies determines contradicts
"""
_ADJECTIVES = """
    northern early careful narrow steady public ordinary remarkable seasonal provisional
    older independent comparable temporary considerable well-known long-standing uncertain
"""
NOUNS, VERBS, ADJECTIVES = _NOUNS.split(), _VERBS.split(), _ADJECTIVES.split()
ENDS = (
    "in most years", "before the winter of {n}", "as the council had asked", "at {n} stations",
    "within {n} per cent", "although the figures differ", "for the whole of the coast",
    "without any further correction", "(see the earlier survey)", "over {n} days",
)  # fmt: skip


@dataclass
class Truth:
    """What a made document says."""

    sentences: list[str] = field(default_factory=list)
    """Sentences of body text, in order."""
    notes: list[tuple[str, str]] = field(default_factory=list)
    """The sentence with the mark, and the note."""
    tables: list[list[list[str]]] = field(default_factory=list)
    apart: dict[str, list[str]] = field(default_factory=dict)
    """Kind to texts that belong to no body sentence."""


class Words:
    """Sentences made by lot, no two alike."""

    def __init__(self, lot: random.Random) -> None:
        self.lot = lot

    def phrase(self) -> str:
        """A noun, often with a word before it."""
        noun = self.lot.choice(NOUNS)
        return f"{self.lot.choice(ADJECTIVES)} {noun}" if self.lot.random() < 0.6 else noun

    def sentence(self) -> str:
        """One sentence."""
        lot = self.lot
        text = f"The {self.phrase()} {lot.choice(VERBS)} the {self.phrase()}"
        if lot.random() < 0.5:
            text += f" of the {self.phrase()}"
        if lot.random() < 0.4:
            text += f", and the {self.phrase()} {lot.choice(VERBS)} a {self.phrase()}"
        text += " " + lot.choice(ENDS).format(n=lot.randint(2, 1990))
        return text + "."

    def paragraph(self) -> list[str]:
        """Sentences that belong together."""
        return [self.sentence() for _ in range(self.lot.randint(2, 6))]

    def title(self) -> str:
        """A heading."""
        return f"The {self.phrase()} and the {self.phrase()}".capitalize()


@dataclass(frozen=True)
class Look:
    """A page design."""

    size: tuple[float, float]
    faces: tuple[str, str, str]
    points: float
    leading: float
    n_columns: int
    indent: float
    """Of a paragraph's first line; 0 where a blank parts paragraphs."""
    is_justified: bool
    side_notes: bool
    numbered_lines: int
    """0, or every how many lines a number stands in the margin."""
    ruled: bool
    watermark: bool
    head: str


def look_by_lot(lot: random.Random) -> Look:
    """A page design."""
    n_columns = lot.choice((1, 1, 2))
    points = lot.choice((9.0, 9.5, 10.0, 11.0)) if n_columns == 2 else lot.choice((10, 11, 12))
    side = n_columns == 1 and lot.random() < 0.3
    return Look(
        size=lot.choice((A4, LETTER)),
        faces=FAMILIES[lot.choice(list(FAMILIES))],
        points=float(points),
        leading=lot.choice((1.15, 1.2, 1.35)),
        n_columns=n_columns,
        indent=lot.choice((0.0, 14.0)),
        is_justified=lot.random() < 0.6,
        side_notes=side,
        numbered_lines=lot.choice((1, 5)) if not side and lot.random() < 0.25 else 0,
        ruled=lot.random() < 0.5,
        watermark=lot.random() < 0.15,
        head=lot.choice(("Report of the survey", "Journal of harbours, volume 7")),
    )


class Setter:
    """Sets blocks into the columns of pages, notes at their feet."""

    def __init__(self, path: Path, look: Look, lot: random.Random) -> None:
        self.canvas = Canvas(str(path), pagesize=look.size, invariant=1)
        self.look, self.lot = look, lot
        self.truth = Truth()
        self.words = Words(lot)
        width, height = look.size
        self.left = 96.0 if look.side_notes else 72.0
        self.gutter = 20.0
        inner = width - self.left - (150.0 if look.side_notes else 72.0)
        self.width = (inner - self.gutter * (look.n_columns - 1)) / look.n_columns
        self.top = height - 80.0
        self.column, self.page, self.n_notes, self.n_lines = 0, 0, 0, 0
        self.n_figures = self.n_tables = self.n_formulas = 0
        self.feet: list[tuple[int, str]] = []
        self.foot_room = 0.0
        self._open_page()

    @property
    def x(self) -> float:
        """Left edge of the column."""
        return self.left + self.column * (self.width + self.gutter)

    def _open_page(self) -> None:
        width, height = self.look.size
        self.page += 1
        canvas = self.canvas
        canvas.setFont(self.look.faces[2], 8.5)
        canvas.drawString(self.left, height - 48, self.look.head)
        canvas.drawRightString(width - 72, height - 48, str(self.page))
        if self.look.watermark:
            canvas.saveState()
            canvas.setFillGray(0.85)
            canvas.setFont("Helvetica-Bold", 80)
            canvas.translate(width / 2, height / 2)
            canvas.rotate(45)
            canvas.drawCentredString(0, 0, "DRAFT")
            canvas.restoreState()
        self.y, self.column = self.top, 0
        self.n_lines = 0

    def _next_column(self) -> None:
        self._set_feet()
        self.column += 1
        self.y = self.top
        if self.column >= self.look.n_columns:
            self.canvas.showPage()
            self._open_page()

    def _set_feet(self) -> None:
        size = self.look.points * 0.8
        y = 72.0 + self.foot_room
        if self.feet:
            self.canvas.line(self.x, y + 2, self.x + 60, y + 2)
        for number, text in self.feet:
            for k, line in enumerate(self._wrapped(text, self.look.faces[0], size, self.width - 8)):
                y -= size * 1.15
                if not k:
                    self.canvas.setFont(self.look.faces[0], size * 0.7)
                    self.canvas.drawString(self.x, y + size * 0.35, str(number))
                self.canvas.setFont(self.look.faces[0], size)
                self.canvas.drawString(self.x + 8, y, line)
        self.feet, self.foot_room = [], 0.0

    def _wrapped(self, text: str, font: str, size: float, width: float) -> list[str]:
        lines, line = [], ""
        for word in text.split():
            longer = f"{line} {word}".strip()
            if line and stringWidth(longer.replace("\x01", ""), font, size) > width:
                lines.append(line)
                line = word
            else:
                line = longer
        return [*lines, line]

    def room(self, height: float) -> None:
        """Go on in the next column where less than this is left."""
        if self.y - height < 72.0 + self.foot_room + 8:
            self._next_column()

    def heading(self, number: int) -> None:
        """Set a numbered heading."""
        text = f"{number} {self.words.title()}"
        self.room(70)
        size = self.look.points * 1.4
        for line in self._wrapped(text, self.look.faces[1], size, self.width):
            self.y -= size * 1.2
            self.canvas.setFont(self.look.faces[1], size)
            self.canvas.drawString(self.x, self.y, line)
        self.y -= 8

    def paragraph(self) -> None:
        """Set a paragraph, now and then with a footnote."""
        sentences = self.words.paragraph()
        look = self.look
        self.truth.sentences += sentences
        note = ""
        marked = list(sentences)
        if self.lot.random() < 0.35:
            which = self.lot.randrange(len(sentences))
            note = self.words.sentence()
            self.n_notes += 1
            marked[which] += f"\x01{self.n_notes}"
            self.truth.notes.append((sentences[which], note))
        lines = self._wrapped(
            ("\x02 " if look.indent else "") + " ".join(marked), look.faces[0], look.points,
            self.width,
        )  # fmt: skip
        step = look.points * look.leading
        if note:
            needed = len(self._wrapped(note, look.faces[0], look.points * 0.8, self.width - 8))
            foot = needed * look.points * 0.8 * 1.15 + 6
            self.room(len(lines) * step + foot)
            self.feet.append((self.n_notes, note))
            self.foot_room += foot
        start = self.y
        for k, line in enumerate(lines):
            self.room(step)
            self.y -= step
            self._line(line, last=k + 1 == len(lines))
        if not look.indent:
            self.y -= 0.6 * step
        if look.side_notes and self.lot.random() < 0.4 and start > self.y:
            self._side_note(start)

    def _side_note(self, y: float) -> None:
        text = self.words.sentence()
        self.truth.apart.setdefault("side", []).append(text)
        size = self.look.points * 0.8
        for line in self._wrapped(text, self.look.faces[2], size, 110):
            y -= size * 1.2
            self.canvas.setFont(self.look.faces[2], size)
            self.canvas.drawString(self.x + self.width + 18, y, line)

    def _line(self, line: str, *, last: bool) -> None:
        look, canvas = self.look, self.canvas
        font, size = look.faces[0], look.points
        x = self.x
        if line.startswith("\x02"):
            x += look.indent
            line = line[1:].strip()
        self.n_lines += 1
        if look.numbered_lines and self.column == 0 and self.n_lines % look.numbered_lines == 0:
            canvas.setFont(font, size * 0.7)
            canvas.drawRightString(self.left - 14, self.y, str(self.n_lines))
        words = line.split()
        blank = stringWidth(" ", font, size)
        if look.is_justified and not last and len(words) > 3:
            filled = sum(stringWidth(w.split("\x01")[0], font, size) for w in words)
            blank = (self.x + self.width - x - filled) / (len(words) - 1)
            blank = min(blank, size)
        for word in words:
            plain, _, mark = word.partition("\x01")
            canvas.setFont(font, size)
            canvas.drawString(x, self.y, plain)
            x += stringWidth(plain, font, size)
            if mark:
                canvas.setFont(font, size * 0.65)
                canvas.drawString(x, self.y + size * 0.35, mark)
            x += blank

    def table(self) -> None:
        """Set a table under its caption."""
        lot, look = self.lot, self.look
        n_rows, n_columns = lot.randint(3, 7), lot.randint(2, 4 if look.n_columns == 1 else 3)
        heads = [lot.choice(NOUNS).capitalize() for _ in range(n_columns)]
        cells = [heads]
        for _ in range(n_rows):
            first = self.words.phrase() if lot.random() < 0.8 else lot.choice(NOUNS)
            cells.append([first, *(f"{lot.uniform(0, 900):.1f}" for _ in range(n_columns - 1))])
        step = look.points * 1.25
        self.n_tables += 1
        caption = f"Table {self.n_tables}. {self.words.title()} by {lot.choice(NOUNS)}."
        above = self._wrapped(caption, look.faces[0], look.points * 0.9, self.width)
        self.room((n_rows + 3 + len(above)) * step)
        self.y -= 0.5 * step
        for line in above:
            self.y -= step
            self.canvas.setFont(look.faces[0], look.points * 0.9)
            self.canvas.drawString(self.x, self.y, line)
        self.truth.apart.setdefault("caption", []).append(caption)
        self.truth.tables.append(cells)
        first_width = 0.4 * self.width
        other = (self.width - first_width) / max(n_columns - 1, 1)
        right = lot.random() < 0.5
        self.y -= 6
        for k, row in enumerate(cells):
            self.y -= step
            self.canvas.setFont(look.faces[1 if not k else 0], look.points * 0.9)
            for c, cell in enumerate(row):
                if not c:
                    self.canvas.drawString(self.x + 3, self.y, cell)
                elif right:
                    x = self.x + first_width + c * other - 6
                    self.canvas.drawRightString(x, self.y, cell)
                else:
                    self.canvas.drawString(self.x + first_width + (c - 1) * other + 3, self.y, cell)
            if look.ruled or k in (0, len(cells) - 1):
                self.canvas.line(self.x, self.y - 3, self.x + self.width, self.y - 3)
        self.y -= 1.2 * step

    def figure(self) -> None:
        """Set a frame with labels in it over a caption."""
        lot, look = self.lot, self.look
        height = lot.uniform(80, 140)
        self.room(height + 50)
        self.y -= 10
        self.canvas.rect(self.x, self.y - height, self.width, height)
        labels = []
        for _ in range(lot.randint(3, 7)):
            label = self.words.phrase() if lot.random() < 0.6 else f"{lot.randint(0, 90)} m"
            size = look.points * 0.75
            x = self.x + lot.uniform(
                4, max(self.width - 10 - stringWidth(label, "Helvetica", size), 5)
            )
            self.canvas.setFont("Helvetica", size)
            self.canvas.drawString(x, self.y - lot.uniform(12, height - 4), label)
            labels.append(label)
        self.truth.apart.setdefault("figure", []).extend(labels)
        self.y -= height + 4
        self.n_figures += 1
        caption = f"Figure {self.n_figures}. {self.words.sentence()}"
        self.truth.apart.setdefault("caption", []).append(caption)
        for line in self._wrapped(caption, look.faces[0], look.points * 0.9, self.width):
            self.y -= look.points * 1.1
            self.canvas.setFont(look.faces[0], look.points * 0.9)
            self.canvas.drawString(self.x, self.y, line)
        self.y -= 14

    def formula(self) -> None:
        """Set a numbered formula."""
        lot, look = self.lot, self.look
        self.room(60)
        self.n_formulas += 1
        term = f"{lot.randint(2, 9)}{lot.choice('kmnp')}"
        text = f"{lot.choice('abuvxy')} = {term} + {lot.choice('rst')}"
        self.y -= 1.7 * look.points
        middle = self.x + self.width / 2
        self.canvas.setFont(look.faces[2], look.points)
        self.canvas.drawCentredString(middle, self.y, text)
        end = middle + stringWidth(text, look.faces[2], look.points) / 2
        self.canvas.setFont(look.faces[2], look.points * 0.7)
        self.canvas.drawString(end + 1, self.y - 2.5, str(lot.randint(0, 9)))
        self.canvas.setFont(look.faces[0], look.points)
        self.canvas.drawRightString(self.x + self.width, self.y, f"({self.n_formulas})")
        self.y -= 0.9 * look.points
        self.truth.apart.setdefault("formula", []).append(text)

    def code(self) -> None:
        """Set a few lines of code."""
        lot, look = self.lot, self.look
        self.room(80)
        self.y -= 4
        for _ in range(lot.randint(2, 5)):
            name = f"{lot.choice(NOUNS)}_{lot.choice(NOUNS)}"
            text = f"{name} = {lot.choice(NOUNS)}({lot.randint(1, 99)})"
            self.y -= look.points * 1.1
            self.canvas.setFont("Courier", look.points * 0.85)
            self.canvas.drawString(self.x + 12, self.y, text)
            self.truth.apart.setdefault("code", []).append(text)
        self.y -= 10

    def items(self) -> None:
        """Set a list."""
        look = self.look
        step = look.points * look.leading
        self.room(3 * step)
        for _ in range(self.lot.randint(2, 4)):
            text = self.words.sentence()
            self.truth.sentences.append(text)
            for k, line in enumerate(
                self._wrapped(text, look.faces[0], look.points, self.width - 16)
            ):
                self.room(step)
                self.y -= step
                self.canvas.setFont(look.faces[0], look.points)
                if not k:
                    self.canvas.drawString(self.x + 4, self.y, "•")
                self.canvas.drawString(self.x + 16, self.y, line)
        self.y -= 0.6 * step

    def close(self) -> None:
        """Write the file."""
        self._set_feet()
        self.canvas.save()


def make(path: Path, seed: int) -> tuple[Look, Truth]:
    """Write a made document and tell what it says."""
    lot = random.Random(seed)
    look = look_by_lot(lot)
    setter = Setter(path, look, lot)
    others = [setter.table, setter.figure, setter.formula, setter.code, setter.items]
    for section in range(1, lot.randint(3, 6)):
        setter.heading(section)
        for _ in range(lot.randint(4, 8)):
            setter.paragraph()
            if lot.random() < 0.5:
                lot.choice(others)()
                setter.paragraph()
    setter.close()
    return look, setter.truth


def read(path: Path) -> ReadDocument:
    """Read a PDF in this process."""
    pdf = PdfFile(path)
    try:
        pages = map(TextSource(pdf).told, range(pdf.n_pages))
        lines = [lines_of(page.text, page.rules) for page in pages]
        return understand(pdf.facts(), [], lines, [], CancelToken(), no_progress)
    finally:
        pdf.close()


BODY = ("body", "item")


def score(truth: Truth, document: ReadDocument) -> Iterator[tuple[str, int, int, list[str]]]:
    """Kind, how many were read back, of how many, and what was not."""
    body = [s.text.lstrip("• ") for s in document.text.sentences if s.kind in BODY]
    order = SequenceMatcher(None, truth.sentences, body, autojunk=False)
    kept = {a + k for a, _, n in order.get_matching_blocks() for k in range(n)}
    lost = [t for k, t in enumerate(truth.sentences) if k not in kept]
    yield "sentences", len(kept), len(truth.sentences), lost
    known = Counter(truth.sentences)
    stray = [s for s in body if s not in known]
    yield "body without strays", len(body) - len(stray), len(body), stray
    strays = "\n".join(stray)
    for kind, texts in truth.apart.items():
        found = [t for t in texts if tidy(t) not in strays]
        yield f"{kind} kept apart", len(found), len(texts), [t for t in texts if t not in found]
    yield from _notes(truth, document)
    yield from _cells(truth, document)


def _notes(truth: Truth, document: ReadDocument) -> Iterator[tuple[str, int, int, list[str]]]:
    tied = set()
    for tie in find_notes(document.paragraphs):
        note = tidy(document.paragraphs[tie.note].text)
        for sentence in document.text.sentences:
            if sentence.paragraph == tie.paragraph and sentence.start < tie.start <= sentence.end:
                tied.add((sentence.text.lstrip("• "), note.lstrip("0123456789 ")))
    missed = [f"{s} -> {n}" for s, n in truth.notes if (s, n) not in tied]
    yield "footnotes tied", len(truth.notes) - len(missed), len(truth.notes), missed


def _cells(truth: Truth, document: ReadDocument) -> Iterator[tuple[str, int, int, list[str]]]:
    found = [
        [[cell.text for cell in row] for row in table.rows]
        for table in find_tables(document.paragraphs)
    ]
    whole, right, missed = 0, 0, []
    for cells in truth.tables:
        n_cells = sum(map(len, cells))
        best = max((_alike(cells, table) for table in found), default=0)
        whole += n_cells
        right += best
        if best < n_cells:
            missed.append(str(cells))
    yield "table cells", right, whole, missed


def _alike(cells: list[list[str]], table: list[list[str]]) -> int:
    """Cells that stand in the same row and column, rows aligned by their first cell."""
    firsts: dict[str, list[list[str]]] = {}
    for row in table:
        firsts.setdefault(row[0], []).append(row)
    n_alike = 0
    for row in cells:
        if same := firsts.get(row[0]):
            n_alike += sum(a == b for a, b in zip(row, same.pop(0), strict=False))
    return n_alike


def main() -> None:
    """Make, read, compare, print."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--documents", type=int, default=100)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--keep", type=Path)
    parser.add_argument("--show", default="")
    arguments = parser.parse_args()
    right: Counter[str] = Counter()
    whole: Counter[str] = Counter()
    with tempfile.TemporaryDirectory() as scratch:
        folder = arguments.keep or Path(scratch)
        folder.mkdir(parents=True, exist_ok=True)
        for k in range(arguments.documents):
            path = folder / f"made-{arguments.seed + k}.pdf"
            _, truth = make(path, arguments.seed + k)
            for kind, n, of, missed in score(truth, read(path)):
                right[kind] += n
                whole[kind] += of
                if arguments.show and arguments.show in kind:
                    for text in missed[:4]:
                        print(f"{path.name}  {kind}: {text}")
    for kind, of in whole.items():
        print(f"{kind:24s} {right[kind]:6d} of {of:6d}  {right[kind] / max(of, 1):.3f}")


if __name__ == "__main__":
    main()
