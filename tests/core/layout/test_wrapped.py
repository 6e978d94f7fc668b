"""Rows of tables whose cells are several lines long are read cell by cell."""

from itertools import accumulate

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from tests.making import page_texts, read_document, wrapped
from wide_margin.core.document.tables import find_tables
from wide_margin.core.layout import lines_of

FONT, SIZE, STEP = "Times-Roman", 10, 12
ROWS = [
    ("any depth of the well may be chosen by the keeper",
     "the depth is limited by what the rope of the well can reach on a dry day",
     "a rope of forty feet reaches the water of every well in the village"),
    ("is ready at once since the buckets need no further work",
     "needs more time (two days at least) so that the wood of the bucket can soak",
     "the keeper signs for it and for the lid of the well on the same morning"),
    ("can be made for wells that are there already",
     "only before a well is dug since the ring must be laid in the ground with the first stones",
     "rings that are laid later move with the ground in the first winter"),
]  # fmt: skip


def draw_table(
    path, rows, lefts, widths, *, between=0.0, cell_by_cell=True, justified=False, at_half=False
):
    """A table on a page; every cell as many lines long as its text needs."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont(FONT, SIZE)
    y = 720.0
    for row in rows:
        cells = [wrapped(text, FONT, SIZE, width)
                 for text, width in zip(row, widths, strict=False)]  # fmt: skip
        drawn = [(k, n) for k, cell in enumerate(cells) for n in range(len(cell))]
        for k, n in drawn if cell_by_cell else sorted(drawn, key=lambda each: each[1]):
            text, is_last = cells[k][n], n + 1 == len(cells[k])
            free = widths[k] - stringWidth(text, FONT, SIZE)
            blank = free / max(text.count(" "), 1) if justified and not is_last else 0.0
            words = text.split(" ")
            steps = [stringWidth(f"{word} ", FONT, SIZE) + blank for word in words]
            down = STEP * (n + at_half * (max(map(len, cells)) - len(cells[k])) / 2)
            if blank:
                for x, word in zip(accumulate([lefts[k], *steps[:-1]]), words, strict=True):
                    canvas.drawString(x, y - down, word)
            else:
                canvas.drawString(lefts[k], y - down, text)
        y -= STEP * max(map(len, cells)) + between
    canvas.save()


def cells_read(path):
    (table,) = find_tables(read_document(path).paragraphs)
    return [tuple(cell.text for cell in row) for row in table.rows]


@pytest.mark.parametrize("cell_by_cell", [True, False])
@pytest.mark.parametrize(("between", "lefts"), [(0.0, (70, 192, 344)), (6.0, (70, 210, 370))])
def test_cells_of_several_lines_are_read_one_after_the_other(
    tmp_path, between, lefts, cell_by_cell
):
    path = tmp_path / "table.pdf"
    draw_table(path, ROWS, lefts, (110, 140, 150), between=between, cell_by_cell=cell_by_cell)
    assert cells_read(path) == ROWS


AT_HALF = [
    ("rope", "any", "thirty fathoms of hemp that are to be looked at before they are let down"),
    ("lid of the dry well", "oak", "four boards with a ring of iron, which two keepers can lift"),
    ("bucket", "elm", "holds as much as one keeper carries up the hill in a day without a stop"),
    ("lamp", "tin", "burns for a night"),
]  # fmt: skip


def test_cells_may_stand_at_half_the_height_of_their_row(tmp_path):
    path = tmp_path / "table.pdf"
    draw_table(path, AT_HALF, (70, 130, 200), (50, 50, 150), between=4.0, at_half=True)
    assert cells_read(path) == AT_HALF


def test_names_beside_a_label_at_their_half_are_rows(tmp_path):
    path = tmp_path / "table.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont(FONT, SIZE)
    for k, (kind, name) in enumerate([("long rope", "hemp"), ("short rope", "flax"),
                                      ("wide lid", "oak"), ("narrow lid", "elm")]):  # fmt: skip
        canvas.drawString(200, 720 - 16 * k, kind)
        canvas.drawString(320, 720 - 16 * k, name)
    for k, label in enumerate(["ropes of wells", "lids of wells"]):
        canvas.drawString(70, 712 - 32 * k, label)
        canvas.drawString(150, 712 - 32 * k, "all")
    canvas.save()
    lines = lines_of(page_texts(path)[0])
    assert {"long rope\themp", "short rope\tflax"} <= {line.text for line in lines}


def test_a_line_stretched_to_the_width_of_its_cell_ends_there(tmp_path):
    path = tmp_path / "table.pdf"
    draw_table(path, ROWS, (70, 180, 340), (100, 150, 150), justified=True)
    assert cells_read(path) == ROWS


def test_sentences_of_two_cells_are_not_mixed(tmp_path):
    path = tmp_path / "table.pdf"
    rows = [row[:2] for row in ROWS]
    draw_table(path, rows, (70, 200), (118, 280), between=3.0)
    text = " ".join(s.text for s in read_document(path).text.sentences)
    for row in rows:
        for cell in row:
            assert cell in text


def test_the_place_of_a_cell_leads_back_to_its_characters(tmp_path):
    path = tmp_path / "table.pdf"
    draw_table(path, ROWS, (70, 192, 344), (110, 140, 150))
    page = page_texts(path)[0]
    (table,) = find_tables(read_document(path).paragraphs)
    there = [
        tuple(" ".join(page.chars[s.start : s.end].strip() for s in cell.spans) for cell in row)
        for row in table.rows
    ]
    assert there == ROWS


@pytest.mark.parametrize(
    "rows",
    [
        [("keeper", "the man who looks after the wells", "signs"),
         ("weir", "a wall across the river there", "holds"),
         ("sluice", "a gate that lets water out of it", "drops")],
        [("well one", "is dug in the first year", "dry"),
         ("well two", "is dug in the next year", "wet"),
         ("well three", "is dug in the last year", "wet")],
        [("lid of oak", "four marks and a day of work", "Anna"),
         ("lid of elm", "three marks and a day of work", "Berta"),
         ("lid of fir", "two marks and half a day", "Clara")],
    ],
)  # fmt: skip
@pytest.mark.parametrize("between", [0.0, 3.0])
def test_rows_of_one_line_each_stay_rows(tmp_path, rows, between):
    path = tmp_path / "table.pdf"
    draw_table(path, rows, (70, 160, 330), (80, 160, 100), between=between)
    assert cells_read(path) == rows


def test_titles_and_their_pages_are_no_cells_that_go_on(tmp_path):
    path = tmp_path / "contents.pdf"
    titles = ["how the wells of the village are kept", "of ropes that are worn at the drum",
              "whose lid it is and who lifts it", "on the days when nobody draws"]  # fmt: skip
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont(FONT, SIZE)
    for k, title in enumerate(titles):
        dots = " . " * int((388 - stringWidth(title, FONT, SIZE)) / stringWidth(" . ", FONT, SIZE))
        canvas.drawString(72, 720 - STEP * k, title + dots)
        canvas.drawRightString(480, 720 - STEP * k, str(7 + k))
    canvas.save()
    assert not any(line.table_row for line in lines_of(page_texts(path)[0]))
