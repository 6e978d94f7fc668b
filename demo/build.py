"""Build the demo handbook: python demo/build.py OUT.pdf. The same bytes every time.

Sources are in demo/handbook, in a small markup: "@part", "@annex", "@front", "@glossary" open
divisions; "##" a chapter, "###" a section, "####" a subsection; "Table:" and "Figure:" captions;
"|" table rows; "- " and "1. " items; "[^ … ]" a footnote; "**term**" a glossary entry.
"""

import json
import re
import sys
from pathlib import Path

from reportlab import rl_config
from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_CENTER, TA_JUSTIFY
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Spacer, Table, TableStyle
from tides import FIGURES
from typeset import HEIGHT, WIDTH, Break, Item, PageMaker

rl_config.useA85 = 0  # streams as bytes: smaller, and no wall of letters for those who grep
HERE = Path(__file__).parent
TITLE = "The Skerrow Sound Tide Network: Observer’s Handbook"
INK = HexColor("#1c1c1c")
WRONG_ENTRY = "9.3 Closing error"
"""The printed contents give this section two pages too late; readers are to be told."""
NO_BOOKMARK = {"Signals and codes", "Barometers and thermometers", "Night and ice", "Repairs",
               "Mean sea level"}  # fmt: skip

BODY = ParagraphStyle("body", fontName="Times-Roman", fontSize=10, leading=13.2, alignment=TA_JUSTIFY,
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
            items.append(Item(_Leaders(row["title"], label, STYLES[f"toc{row['level']}"])))
        return items


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
        self.items: list[Item | Break] = []
        self._contents = contents
        self._chapter = self._section = self._table = self._figure = self._n_notes = 0
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
        made = [[Paragraph(_markup(cell), STYLES["cell"]) for cell in row] for row in cells]
        longest = [max(len(row[k]) for row in cells) + 3 for k in range(len(cells[0]))]
        room = WIDTH - 104
        widths = [room * n / sum(longest) for n in longest]
        table = Table(made, colWidths=widths, repeatRows=1)
        table.setStyle(TableStyle([
            ("LINEABOVE", (0, 0), (-1, 0), 0.8, INK), ("LINEBELOW", (0, 0), (-1, 0), 0.4, INK),
            ("LINEBELOW", (0, -1), (-1, -1), 0.8, INK), ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
            ("LEFTPADDING", (0, 0), (-1, -1), 2), ("RIGHTPADDING", (0, 0), (-1, -1), 4),
        ]))  # fmt: skip
        self._add(table)
        self._add(Spacer(1, 10))

    def _figure_block(self, text: str) -> None:
        name, _, caption = text[7:].partition("|")
        self._figure += 1
        self._add(FIGURES[name.strip()](), keep=True)
        self._add(
            Paragraph(_markup(f"Figure {self._figure}. {caption.strip()}"), STYLES["caption"])
        )


def _markup(text: str) -> str:
    text = text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\n", " ")
    text = text.replace("&lt;super&gt;", "<super>").replace("&lt;/super&gt;", "</super>")
    text = re.sub(r"\*\*(.+?)\*\*", r"<b>\1</b>", text)
    text = text.replace("ω", '<font face="Symbol">w</font>').replace("−", "-")
    return re.sub(r"(?<!\w)_(.+?)_(?!\w)", r"<i>\1</i>", text)


def set_book(target: str, contents: Contents, old: Contents, labels: list[str]) -> list[str]:
    """One run; the labels of its pages."""
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
    maker.set_all(book.items)
    canvas.save()
    return maker.labels


def main() -> None:
    """Build the PDF, and beside the sources its true outline."""
    target = sys.argv[1]
    contents, labels = Contents(), []
    for _ in range(4):  # until the contents page has its final length
        old, contents = contents, Contents()
        labels = set_book(target, contents, old, labels)
        if [r["page"] for r in old.rows] == [r["page"] for r in contents.rows]:
            break
    outline = [{**row, "page": row["page"] + 1} for row in contents.rows]
    (HERE / "outline.json").write_text(
        json.dumps(outline, ensure_ascii=False, indent=1) + "\n", encoding="utf-8"
    )
    print(f"{len(labels)} pages in {target}")


if __name__ == "__main__":
    main()
