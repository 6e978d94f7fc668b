"""Build the demo handbook: python demo/build.py OUT.pdf. The same bytes every time.

Sources are in demo/handbook, in a small markup: "@part", "@annex", "@front", "@glossary" open
divisions; "##" a chapter, "###" a section, "####" a subsection; "Table:" and "Figure:" captions;
"|" table rows; "- " and "1. " items; "[^ … ]" a footnote; "**term**" a glossary entry;
"Equation: … | text"; "Picture: file | caption" a page that is only a picture of text;
"Wide: file | caption" a landscape page with a table; "Sideways: figure | caption" a page turned
by /Rotate. The files they name stand beside the sources, as do the terms of the index.
"""

import json
import re
import sys
from collections.abc import Iterator
from pathlib import Path

import reportlab
from PIL import Image, ImageDraw, ImageFont
from reportlab import rl_config
from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_CENTER, TA_JUSTIFY
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.utils import ImageReader
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Spacer, Table, TableStyle
from tides import FIGURES
from typeset import HEIGHT, INNER, OUTER, WIDTH, Break, Item, PageMaker, Plate

rl_config.useA85 = 0  # streams as bytes: smaller, and no wall of letters for those who grep
HERE = Path(__file__).parent
FONT = Path(reportlab.__file__).parent / "fonts" / "Vera.ttf"
TITLE = "The Skerrow Sound Tide Network: Observer’s Handbook"
INK = HexColor("#1c1c1c")
WRONG_ENTRY = "9.3 Closing error"
"""The printed contents give this section two pages too late; readers are to be told."""
NO_BOOKMARK = {"Signals and codes", "Barometers and thermometers", "Night and ice", "Repairs",
               "Mean sea level"}  # fmt: skip

BODY = ParagraphStyle("body", fontName="Times-Roman", fontSize=10, leading=12.8, alignment=TA_JUSTIFY,
                      spaceAfter=5, textColor=INK, hyphenationLang="")  # fmt: skip
STYLES = {
    "body": BODY,
    "item": ParagraphStyle("item", BODY, leftIndent=16, bulletIndent=3, spaceAfter=2.5),
    "part": ParagraphStyle("part", BODY, fontSize=22, leading=27, alignment=TA_CENTER, spaceBefore=170),
    "chapter": ParagraphStyle("chapter", BODY, fontName="Times-Bold", fontSize=16, leading=20,
                              alignment=0, spaceAfter=12, spaceBefore=18),
    "section": ParagraphStyle("section", BODY, fontName="Times-Bold", fontSize=11.5, leading=14,
                              alignment=0, spaceBefore=9, spaceAfter=4),
    "subsection": ParagraphStyle("subsection", BODY, fontName="Times-Italic", fontSize=10.5, leading=13,
                                 alignment=0, spaceBefore=6, spaceAfter=3),
    "caption": ParagraphStyle("caption", BODY, fontSize=8.8, leading=11, alignment=0, spaceBefore=4,
                              spaceAfter=5),
    "cell": ParagraphStyle("cell", BODY, fontSize=8.6, leading=10.4, alignment=0, spaceAfter=0),
    "wide": ParagraphStyle("wide", BODY, fontSize=6.8, leading=8, alignment=0, spaceAfter=0),
    "equation": ParagraphStyle("equation", BODY, fontName="Times-Italic", fontSize=11, leading=15,
                               alignment=TA_CENTER, spaceBefore=5),
    "index": ParagraphStyle("index", BODY, fontSize=8.2, leading=9.8, alignment=0, leftIndent=10,
                            firstLineIndent=-10, spaceAfter=0.5),
    "note": ParagraphStyle("note", BODY, fontSize=8, leading=9.6, spaceAfter=0),
    "head": ParagraphStyle("head", BODY, fontName="Times-Italic", fontSize=8.8),
    "title": ParagraphStyle("title", BODY, fontSize=24, leading=30, alignment=TA_CENTER, spaceBefore=120),
    "subtitle": ParagraphStyle("subtitle", BODY, fontName="Times-Italic", fontSize=13, leading=18,
                               alignment=TA_CENTER, spaceBefore=14),
    "toc0": ParagraphStyle("toc0", BODY, fontName="Times-Bold", alignment=0, spaceBefore=6, spaceAfter=1),
    "toc1": ParagraphStyle("toc1", BODY, alignment=0, leftIndent=12, spaceAfter=1),
    "toc2": ParagraphStyle("toc2", BODY, alignment=0, leftIndent=28, spaceAfter=0.5, fontSize=9.4, leading=12),
}  # fmt: skip


class Contents:
    """What the contents page lists: found by the first run, printed by the second."""

    def __init__(self) -> None:
        self.rows: list[dict] = []

    def listing(self, labels: list[str]) -> list[Item]:
        """The rows as they are printed, one of them wrong."""
        items = []
        for row in self.rows:
            if row["level"] > 2:
                continue
            page = row["page"] + (2 if row["title"] == WRONG_ENTRY else 0)
            label = labels[page] if page < len(labels) else ""
            style = STYLES[f"toc{row['level']}"]
            *first, last = _folded(
                row["title"], style, WIDTH - INNER - OUTER - style.leftIndent - 40
            )
            for line in first:
                items.append(Item(Paragraph(line, style), keep_with_next=True))
            items.append(Item(_Leaders(last, label, style)))
        return items


def _folded(title: str, style: ParagraphStyle, width: float) -> list[str]:
    """The title in lines no wider than that."""
    lines = [""]
    for word in title.split():
        longer = f"{lines[-1]} {word}".strip()
        if stringWidth(longer, style.fontName, style.fontSize) > width:
            lines.append(word)
        else:
            lines[-1] = longer
    return lines


class _Leaders(Paragraph):
    """A contents line: title, dots, page at the right."""

    def __init__(self, title: str, label: str, style: ParagraphStyle) -> None:
        super().__init__(title, style)
        self._title, self._label = title, label

    def split(self, width: float, height: float) -> list:
        return []

    def draw(self) -> None:
        canvas, style = self.canv, self.style
        y = self.height - style.fontSize
        canvas.setFont(style.fontName, style.fontSize)
        canvas.drawString(style.leftIndent, y, self._title)
        canvas.drawRightString(self.width, y, self._label)
        start = (
            style.leftIndent + canvas.stringWidth(self._title, style.fontName, style.fontSize) + 6
        )
        end = self.width - canvas.stringWidth(self._label, style.fontName, style.fontSize) - 5
        x = end - 4
        while x > start:
            canvas.drawString(x, y, ".")
            x -= 5


class Book:
    """Reads the sources and makes items of them."""

    def __init__(self, contents: Contents) -> None:
        self.items: list[Item | Break | Plate] = []
        self._contents = contents
        self._chapter = self._section = self._table = self._figure = self._n_notes = 0
        self._equation = 0
        self._prefix = ""

    def read(self, path: Path) -> None:
        """Add one source file."""
        blocks = re.split(r"\n\s*\n", path.read_text(encoding="utf-8").strip())
        for block in blocks:
            for part in self._split(block):
                self._block(part)

    def _split(self, block: str) -> list[str]:
        """A heading line, or a list of items, apart from the text right under it."""
        parts: list[str] = []
        for line in block.split("\n"):
            starts = re.match(r"(@|#|\d+\. |- )", line) or (parts and re.match(r"(@|#)", parts[-1]))
            if parts and not starts:
                parts[-1] += "\n" + line
            else:
                parts.append(line)
        return parts

    def _block(self, text: str) -> None:
        if text.startswith("@"):
            self._division(text)
        elif match := re.match(r"(#+) (.+)", text):
            self._heading(len(match[1]), match[2].strip())
        elif text.startswith("Table:"):
            self._table_block(text)
        elif text.startswith("Figure:"):
            self._figure_block(text)
        elif text.startswith("Equation:"):
            self._equation_block(text)
        elif match := re.match(r"(Picture|Wide|Sideways):", text):
            self._plate_block(match[1], text[match.end() :])
        elif match := re.match(r"(\d+\.|-) (.*)", text, re.S):
            bullet = "•" if match[1] == "-" else match[1]
            self._add(Paragraph(_markup(match[2]), STYLES["item"], bulletText=bullet))
        else:
            body, notes = self._take_notes(text)
            self.items.append(Item(Paragraph(_markup(body), BODY), notes=notes))

    def _division(self, text: str) -> None:
        word, _, rest = text[1:].partition(" ")
        if word == "front":
            self._prefix = "front"
            return
        number, _, name = rest.partition(" ")
        if word == "part":
            title = f"Part {number} {name}"
            first = {"numbering": "arabic"} if number == "I" else {}
            self.items.append(Break(bare=True, left_head=title, right_head=title, **first))
            self._add(
                Paragraph(f"Part {number}<br/>{name}", STYLES["part"]), self._landing(title, 0)
            )
            self._prefix = "part"
            return
        title = f"Annex {number} {name}" if word == "annex" else rest
        columns = 2 if word == "glossary" else 1
        self.items.append(
            Break(columns=columns, left_head=title, right_head=title, bare=columns == 1)
        )
        self._add(Paragraph(title, STYLES["chapter"]), self._landing(title, 0), keep=True)
        self._prefix = word

    def _heading(self, depth: int, name: str) -> None:
        if depth == 1:  # in the front matter
            self.items.append(Break(left_head=name, right_head=name, bare=True))
            self._add(Paragraph(name, STYLES["chapter"]), self._landing(name, 0), keep=True)
        elif depth == 2:
            self._chapter += 1
            self._section = 0
            title = f"{self._chapter} {name}"
            self.items.append(Break(right_head=title, bare=True))
            self._add(Paragraph(title, STYLES["chapter"]), self._landing(title, 1), keep=True)
        elif depth == 3 and self._prefix == "part":
            self._section += 1
            title = f"{self._chapter}.{self._section} {name}"
            self._add(Paragraph(title, STYLES["section"]), self._landing(title, 2), keep=True)
        else:
            level = 1 if self._prefix == "annex" else 3
            style = STYLES["section" if level == 1 else "subsection"]
            self._add(Paragraph(name, style), self._landing(name, level), keep=True)

    def _landing(self, title: str, level: int):
        rows = self._contents.rows

        def landed(canvas: Canvas, page: int, y: float) -> None:
            rows.append({"title": title, "level": level, "page": page, "y": round(y / HEIGHT, 4)})
            name = re.sub(r"^[\d.]+ ", "", title)
            if level < 2 and name not in NO_BOOKMARK:
                key = f"place-{len(rows)}"
                canvas.bookmarkHorizontal(key, 0, HEIGHT - y + 4)
                canvas.addOutlineEntry(title, key, level=level)

        return landed

    def _add(self, flowable, landed=None, *, keep: bool = False) -> None:
        self.items.append(Item(flowable, keep_with_next=keep, landed=landed))

    def _take_notes(self, text: str) -> tuple[str, list[Paragraph]]:
        notes: list[Paragraph] = []

        def mark(match: re.Match) -> str:
            self._n_notes += 1
            notes.append(
                Paragraph(f"<super>{self._n_notes}</super> {_markup(match[1])}", STYLES["note"])
            )
            return f"<super>{self._n_notes}</super>"

        return re.sub(r"\s*\[\^\s*(.+?)\s*\]", mark, text, flags=re.S), notes

    def _table_block(self, text: str) -> None:
        caption, *rows = text.split("\n")
        self._table += 1
        title = f"Table {self._table}. {caption[6:].strip()}"
        self._add(Paragraph(_markup(title), STYLES["caption"]), keep=True)
        cells = [[cell.strip() for cell in row.strip().strip("|").split("|")] for row in rows]
        self._add(_table(cells, STYLES["cell"], WIDTH - INNER - OUTER))
        self._add(Spacer(1, 10))

    def _equation_block(self, text: str) -> None:
        formula, _, said = text[9:].partition("|")
        self._equation += 1
        formula = re.sub(r"\bh(\d)", r"h<sub>\1</sub>", _markup(formula.strip()))
        formula = re.sub(r"\^([\d.]+)", r"<super>\1</super>", formula)
        formula = formula.replace("Σ", '<font face="Symbol">S</font>')
        line = f"{formula} &nbsp;&nbsp;&nbsp; ({self._equation})"
        self._add(Paragraph(line, STYLES["equation"]), keep=True)
        self._add(Paragraph(_markup(said.strip()), BODY))

    def _plate_block(self, kind: str, text: str) -> None:
        name, _, caption = (part.strip() for part in text.partition("|"))
        if kind == "Picture":
            said = f"Plate, next page. {caption}"
            self._add(Paragraph(_markup(said), STYLES["caption"]))
            self.items.append(Plate(_card(HERE / "handbook" / name)))
        elif kind == "Wide":
            self._table += 1
            title = Paragraph(_markup(f"Table {self._table}. {caption}"), STYLES["caption"])
            rows = (HERE / "handbook" / name).read_text(encoding="utf-8").strip().split("\n")
            cells = [[cell.strip() for cell in row.strip("|").split("|")] for row in rows]
            table = _table(cells, STYLES["wide"], HEIGHT - 72)
            self.items.append(Plate(_broadside([title, table]), size=(HEIGHT, WIDTH)))
        else:
            self._figure += 1
            title = Paragraph(_markup(f"Figure {self._figure}. {caption}"), STYLES["caption"])
            self.items.append(Plate(_broadside([FIGURES[name](), title], turned=True), rotate=90))

    def add_index(self, texts: list[str], labels: list[str]) -> None:
        """The index, from what stood on the pages of the run before."""
        title = "Index"
        self.items.append(Break(columns=2, left_head=title, right_head=title))
        self._add(Paragraph(title, STYLES["chapter"]), self._landing(title, 0), keep=True)
        initial = ""
        for entry, rest in index_rows(texts, labels):
            if entry[0].upper() != initial:
                initial = entry[0].upper()
                self._add(Paragraph(f"<b>{initial}</b>", STYLES["index"]), keep=True)
            self._add(Paragraph(_markup(entry) + rest, STYLES["index"]))

    def _figure_block(self, text: str) -> None:
        name, _, caption = text[7:].partition("|")
        self._figure += 1
        self._add(FIGURES[name.strip()](), keep=True)
        self._add(
            Paragraph(_markup(f"Figure {self._figure}. {caption.strip()}"), STYLES["caption"])
        )


def _table(cells: list[list[str]], style: ParagraphStyle, width: float) -> Table:
    made = [[Paragraph(_markup(cell), style) for cell in row] for row in cells]
    measured = cells[1:] if width > WIDTH else cells  # a broad table's heads may fold
    longest = [max(len(row[k]) for row in measured) + 3 for k in range(len(cells[0]))]
    widths = [width * n / sum(longest) for n in longest]
    table = Table(made, colWidths=widths, repeatRows=1)
    table.setStyle(TableStyle([
        ("LINEABOVE", (0, 0), (-1, 0), 0.8, INK), ("LINEBELOW", (0, 0), (-1, 0), 0.4, INK),
        ("LINEBELOW", (0, -1), (-1, -1), 0.8, INK), ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
        ("LEFTPADDING", (0, 0), (-1, -1), 2), ("RIGHTPADDING", (0, 0), (-1, -1), 4),
    ]))  # fmt: skip
    return table


def _broadside(flowables: list, *, turned: bool = False):
    """Draws a page wider than it is tall; turned, on an upright page that /Rotate lays down."""

    def draw(canvas: Canvas, label: str) -> None:
        canvas.saveState()
        if turned:
            canvas.translate(WIDTH, 0)
            canvas.rotate(90)
        y = WIDTH - 36.0
        for flowable in flowables:
            _, height = flowable.wrap(HEIGHT - 72, WIDTH)
            y -= height
            flowable.drawOn(canvas, 36, y)
            y -= 8
        canvas.setFont("Times-Italic", 8.8)
        canvas.drawCentredString(HEIGHT / 2, 26, label)
        canvas.restoreState()

    return draw


def _card(path: Path):
    """Draws a page that holds nothing but a picture of the file's text, a little askew."""
    paper, ink, size = 232, 45, (940, 1330)
    image = Image.new("L", size, paper)
    font = ImageFont.truetype(str(FONT), 27)
    draw_on = ImageDraw.Draw(image)
    draw_on.rectangle((44, 44, size[0] - 44, size[1] - 44), outline=ink, width=3)
    y = 96.0
    for line in path.read_text(encoding="utf-8").rstrip().split("\n"):
        draw_on.text((92, y), line, fill=ink, font=font)
        y += 38
    image = image.rotate(0.7, resample=Image.Resampling.BICUBIC, fillcolor=paper)

    def draw(canvas: Canvas, label: str) -> None:
        canvas.drawImage(ImageReader(image), 0, 0, WIDTH, HEIGHT)

    return draw


def index_rows(texts: list[str], labels: list[str]) -> Iterator[tuple[str, str]]:
    """Entries of the index with the pages that say most of each.

    A line of the terms is "entry", "entry = phrase; phrase" or "entry > see another entry".
    """
    lines = (HERE / "handbook" / "index-terms.txt").read_text(encoding="utf-8").split("\n")
    gazetteer = (HERE / "handbook" / "08-annex.md").read_text(encoding="utf-8")
    lines += [f"{m[2]} ({m[1]}) = {m[2]}" for m in re.finditer(r"### ([A-Z]{3}) (.+)", gazetteer)]
    for line in sorted(filter(str.strip, lines), key=str.casefold):
        if ">" in line:
            entry, _, other = line.partition(">")
            yield entry.strip(), f", <i>see</i> {other.strip()}"
            continue
        entry, _, phrases = line.partition("=")
        wanted = [phrase.strip() for phrase in (phrases or entry).split(";")]
        pattern = re.compile(r"\b(" + "|".join(map(re.escape, wanted)) + ")", re.I)
        counts = [(len(pattern.findall(text)), page) for page, text in enumerate(texts)]
        best = sorted((c for c in counts if c[0]), key=lambda c: (-c[0], c[1]))[:7]
        rest = _runs(sorted(page for _, page in best), labels)
        if rest or not texts:
            yield entry.strip(), rest


def _runs(pages: list[int], labels: list[str]) -> str:
    """ ", 3, 7–9" for neighbouring pages."""
    runs: list[list[int]] = []
    for page in pages:
        if runs and page == runs[-1][-1] + 1:
            runs[-1].append(page)
        else:
            runs.append([page])
    said = [
        labels[run[0]] if len(run) == 1 else f"{labels[run[0]]}–{labels[run[-1]]}" for run in runs
    ]
    return "".join(f", {one}" for one in said)


def _markup(text: str) -> str:
    text = text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\n", " ")
    text = text.replace("&lt;super&gt;", "<super>").replace("&lt;/super&gt;", "</super>")
    text = re.sub(r"\*\*(.+?)\*\*", r"<b>\1</b>", text)
    text = text.replace("ω", '<font face="Symbol">w</font>').replace("−", "-")
    return re.sub(r"(?<!\w)_(.+?)_(?!\w)", r"<i>\1</i>", text)


def set_book(target: str, contents: Contents, old: Contents, before: PageMaker | None) -> PageMaker:
    """One run, with what the run before found."""
    labels, texts = (before.labels, before.texts) if before else ([], [])
    canvas = Canvas(target, pagesize=(WIDTH, HEIGHT), invariant=1, pageCompression=1)
    canvas.setTitle(TITLE)
    canvas.setAuthor("The Tide Office, Hallan")
    canvas.setSubject("A made-up handbook of an invented tide network")
    maker = PageMaker(canvas, STYLES["head"], STYLES["note"])
    book = Book(contents)
    book.items.append(Break(numbering="roman", bare=True))
    book.items.append(Item(Paragraph("The Skerrow Sound Tide Network", STYLES["title"])))
    book.items.append(Item(Paragraph("Observer’s Handbook", STYLES["subtitle"])))
    book.items.append(Item(Paragraph("Third edition", STYLES["subtitle"])))
    book.items.append(Break(left_head="Contents", right_head="Contents", bare=True))
    book.items.append(Item(Paragraph("Contents", STYLES["chapter"]), keep_with_next=True))
    book.items.extend(old.listing(labels))
    for path in sorted((HERE / "handbook").glob("*.md")):
        book.read(path)
    n_body = next((row["page"] for row in old.rows if row["title"] == "Index"), len(texts))
    n_front = labels.index("1") if "1" in labels else 0
    served = [text if n_front <= page < n_body else "" for page, text in enumerate(texts)]
    book.add_index(served, labels)
    maker.set_all(book.items)
    canvas.save()
    return maker


def main() -> None:
    """Build the PDF, and beside the sources its true outline."""
    target = sys.argv[1]
    contents, maker = Contents(), None
    for _ in range(6):  # until contents and index have their final length
        old, contents, before = contents, Contents(), maker
        maker = set_book(target, contents, old, before)
        if before and before.texts == maker.texts and old.rows == contents.rows:
            break
    else:
        raise RuntimeError("the pages do not come to rest")
    outline = [{**row, "page": row["page"] + 1} for row in contents.rows]
    (HERE / "outline.json").write_text(
        json.dumps(outline, ensure_ascii=False, indent=1) + "\n", encoding="utf-8"
    )
    print(f"{len(maker.labels)} pages in {target}")


if __name__ == "__main__":
    main()
