"""Tables cut out of drawn pages: ruled, with white between columns, with cells of several lines."""

import pytest
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.layout import TextLayer, lines_of
from wide_margin.core.layout.cut_table import cells_of
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.rules import rules_of
from wide_margin.core.pages.source import TextSource

GAUGES = [
    ["Gauge", "Zero", "Keeper"],
    ["Harbour", "4.12", "J. Aas"],
    ["Mill weir", "3.90", "none since the flood"],
    ["Lock", "11.05", "the lock keeper"],
]


class Drawn:
    """A page 400 by 300 points that a table is drawn on, cells 14 points high."""

    def __init__(self, path):
        self.path = path
        self.canvas = Canvas(str(path), pagesize=(400, 300), invariant=1)

    def row(self, y, cells, at=(50, 130, 190), size=10):
        for x, text in zip(at, cells, strict=False):
            self.canvas.setFont("Helvetica", size)
            self.canvas.drawString(x, 300 - y, text)

    def rule(self, x0, y0, x1, y1):
        self.canvas.line(x0, 300 - y0, x1, 300 - y1)

    def turn(self):
        self.canvas.setPageRotation(90)

    def cells(self, box=(40, 40, 360, 260)):
        self.canvas.save()
        pdf = PdfFile(self.path, None)
        try:
            page = TextSource(pdf, []).page(0)
            layer = TextLayer(page, tuple(lines_of(page)))
            return [list(row) for row in cells_of(layer, box, rules_of(pdf, 0))]
        finally:
            pdf.close()


@pytest.fixture
def page(tmp_path):
    return Drawn(tmp_path / "page.pdf")


def gauges(page, start=80):
    for k, cells in enumerate(GAUGES):
        page.row(start + 14 * k, cells)


def test_white_parts_columns(page):
    gauges(page)
    assert page.cells() == GAUGES


def test_rules_part_columns_that_stand_close(page):
    rows = [["1 a", "2 b"], ["3 c", "4 d"], ["5 e", "6 f"]]
    for k, cells in enumerate(rows):
        page.row(80 + 14 * k, cells, at=(50, 68))
    for x in (47, 66.5, 90):
        page.rule(x, 66, x, 112)
    assert page.cells() == rows


def test_one_rule_beside_the_labels_leaves_the_white_between_the_others(page):
    gauges(page)
    page.rule(120, 66, 120, 126)
    assert page.cells() == GAUGES


def test_a_line_that_goes_on_belongs_to_its_cell(page):
    gauges(page)
    page.row(80 + 14 * 4, ["", "", "and his wife"])
    page.row(80 + 14 * 5, ["Quay", "2.20", "nobody"])
    assert page.cells() == [
        *GAUGES[:3], ["Lock", "11.05", "the lock keeper and his wife"], ["Quay", "2.20", "nobody"],
    ]  # fmt: skip


def test_rules_between_all_rows_hold_cells_of_several_lines_together(page):
    for k, y in enumerate((66, 82, 112, 142)):
        page.rule(45, y, 330, y)
        if k < 3:
            page.row(y + 12, [["Gauge", "Zero"], ["Har-", "see the"], ["Lock", "low"]][k])
    for x in (45, 120, 330):
        page.rule(x, 66, x, 142)
    page.row(82 + 26, ["bour", "book"])
    page.row(112 + 26, ["", "tide"])
    assert page.cells() == [["Gauge", "Zero"], ["Harbour", "see the book"], ["Lock", "low tide"]]


def test_two_rules_under_a_head_do_not_join_the_rows_below(page):
    gauges(page)
    for y in (68, 84, 128):
        page.rule(45, y, 330, y)
    assert page.cells() == GAUGES


@pytest.mark.parametrize("start", [62, 150])
def test_a_caption_is_left_out(page, start):
    gauges(page)
    page.row(start, ["Table 3: The gauges of the lower river and who keeps them"])
    assert page.cells() == GAUGES


def test_a_head_over_two_columns_stands_in_one_of_them(page):
    page.row(66, ["", "set and watched"], at=(50, 150))
    gauges(page)
    first, *others = page.cells()
    assert others == GAUGES
    assert [cell for cell in first if cell] == ["set", "and watched"] or "set and watched" in first


def test_running_text_is_no_table(page):
    for k in range(6):
        page.row(80 + 14 * k, ["The keeper of the gauge wrote down the height of the water daily"])
    assert page.cells() == []


def test_only_what_was_cut_is_kept(page):
    gauges(page)
    assert page.cells(box=(40, 86, 180, 260)) == [row[:2] for row in GAUGES[1:]]


def test_a_single_line_is_no_table(page):
    page.row(80, GAUGES[0])
    assert page.cells() == []


def test_rules_of_a_turned_page_lie_where_it_is_seen(page):
    page.rule(45, 66, 330, 66)
    page.turn()
    page.canvas.save()
    pdf = PdfFile(page.path, None)
    (rule,) = rules_of(pdf, 0)
    pdf.close()
    x0, y0, x1, y1 = rule
    assert x1 - x0 <= 2.5
    assert y1 - y0 == pytest.approx(285, abs=2.5)


def test_edges_of_a_box_are_rules_and_those_of_a_drawing_are_not(page):
    page.canvas.rect(50, 50, 100, 60)
    path = page.canvas.beginPath()
    path.moveTo(200, 100)
    path.curveTo(220, 140, 260, 140, 300, 100)
    page.canvas.drawPath(path)
    page.canvas.save()
    pdf = PdfFile(page.path, None)
    rules = rules_of(pdf, 0)
    pdf.close()
    assert len(rules) == 4
    assert all(box[2] <= 151 for box in rules)
