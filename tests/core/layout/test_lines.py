import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, page_texts, read_document, wrapped
from wide_margin.core.document.tables import find_tables
from wide_margin.core.layout import lines_of
from wide_margin.core.layout.columns import MIN_COLUMN, MIN_ROWS, reading_zones, rows_of


def two_columns(path, left, right):
    canvas = Canvas(str(path), pagesize=A4)
    for x, text in ((60, left), (310, right)):
        canvas.setFont("Times-Roman", 10)
        y = 740
        for line in wrapped(text, "Times-Roman", 10, 225):
            canvas.drawString(x, y, line)
            y -= 12
    canvas.save()


def test_every_inked_character_is_in_exactly_one_line(small_pdf):
    for page in page_texts(small_pdf):
        lines = lines_of(page)
        covered = [k for line in lines for first, end in line.spans for k in range(first, end)]
        assert len(covered) == len(set(covered))
        inked = {k for k, c in enumerate(page.chars) if not c.isspace()}
        assert inked <= set(covered)


def test_a_column_is_read_to_its_end_before_the_next(tmp_path):
    left = " ".join(f"left{k}" for k in range(120))
    right = " ".join(f"right{k}" for k in range(120))
    path = tmp_path / "columns.pdf"
    two_columns(path, left, right)
    words = " ".join(line.text for line in lines_of(page_texts(path)[0])).split()
    assert words == (left + " " + right).split()


@pytest.mark.parametrize(("away", "n_lines"), [(0.6, 1), (40.0, 2)])
def test_what_is_drawn_twice_on_one_place_is_read_once(tmp_path, away, n_lines):
    path = tmp_path / "shadow.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Helvetica", 18)
    for by in (away, 0.0):
        canvas.drawString(72 + by, 700 - by, "The wells of the valley")
    canvas.drawString(72, 600, "no no no")
    canvas.save()
    texts = [line.text for line in lines_of(page_texts(path)[0])]
    assert texts == [*["The wells of the valley"] * n_lines, "no no no"]


def test_cells_of_a_table_stay_in_their_row(tmp_path):
    path = tmp_path / "table.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    for k in range(12):
        canvas.drawString(72, 700 - 16 * k, f"Station {k}")
        canvas.drawString(330, 700 - 16 * k, f"{k}.5 m")
    canvas.save()
    texts = [line.text for line in lines_of(page_texts(path)[0])]
    assert texts == [f"Station {k}\t{k}.5 m" for k in range(12)]


def test_a_position_in_a_line_is_a_character_of_the_page(small_pdf):
    page = page_texts(small_pdf)[0]
    line = next(line for line in lines_of(page) if "whether" in line.text)
    at = line.text.index("whether")
    spans = line.characters(at, at + 7)
    assert "".join(page.chars[s.start : s.end] for s in spans) == "whether"


def test_the_style_of_a_line_is_that_of_most_of_it(tmp_path):
    path = tmp_path / "styles.pdf"
    make_pdf(path, [[("h2", "A bold line"), ("text", "A plain line"), ("code", "x = 1")]])
    lines = {line.text: line for line in lines_of(page_texts(path)[0])}
    assert lines["A bold line"].is_bold
    assert not lines["A plain line"].is_bold
    assert lines["x = 1"].is_fixed


def word_boxes():
    coordinates = st.tuples(
        st.floats(0, 500), st.floats(0, 700), st.floats(5, 90), st.floats(6, 14)
    )
    return st.lists(coordinates, min_size=1, max_size=60).map(
        lambda rows: np.array([(x, y, x + w, y + h) for x, y, w, h in rows])
    )


@settings(max_examples=60)
@given(word_boxes())
def test_every_segment_is_in_exactly_one_zone_and_row(boxes):
    zones = reading_zones(boxes)
    assert sorted(np.concatenate(zones).tolist()) == list(range(len(boxes)))
    for zone in zones:
        rows = rows_of(boxes, zone)
        assert sorted(item for row in rows for item in row) == sorted(zone.tolist())


@settings(max_examples=30)
@given(word_boxes(), st.floats(-50, 50), st.floats(-50, 50))
def test_moving_the_page_does_not_change_the_reading_order(boxes, dx, dy):
    # Whole points: a shift must not tip a comparison that sits on an edge.
    boxes = np.round(boxes)
    moved = boxes + np.round([dx, dy, dx, dy])
    before = [zone.tolist() for zone in reading_zones(boxes)]
    assert [zone.tolist() for zone in reading_zones(moved)] == before


def test_a_page_without_text_has_no_lines(blank_pdf):
    assert lines_of(page_texts(blank_pdf)[0]) == []


@pytest.mark.parametrize("gap", [1, 30])
def test_a_wide_gap_is_a_tab_and_a_narrow_one_a_space(tmp_path, gap):
    path = tmp_path / "gap.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Courier", 10)
    canvas.drawString(72, 700, "left")
    canvas.drawString(72 + 24 + 6 * gap, 700, "right")
    canvas.save()
    assert lines_of(page_texts(path)[0])[0].text == ("left right" if gap == 1 else "left\tright")


def test_text_as_wide_as_two_columns_and_no_wider_is_one():
    boxes = np.array([[60.0, 20.0 * row, 60.0 + 2 * MIN_COLUMN, 20.0 * row + 10]
                      for row in range(2 * MIN_ROWS)], dtype=np.float32)  # fmt: skip
    assert [list(zone) for zone in reading_zones(boxes)] == [list(range(2 * MIN_ROWS))]


def drawn_below_a_table(path, *, n_rows=10):
    """A page whose table of three columns runs across; below it stand two columns of text."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Times-Roman", 10)
    for row in range(n_rows):
        y = 760 - 12 * row
        canvas.drawString(60, y, f"load{row}")
        canvas.drawString(140, y, f"every keeper reads the staff at the well number {row} by day")
        canvas.drawString(460, y, f"rows{row}")
    for x, name in ((60, "left"), (310, "right")):
        words = " ".join(f"{name}{k}" for k in range(150))
        for k, line in enumerate(wrapped(words, "Times-Roman", 10, 225)):
            canvas.drawString(x, 760 - 12 * (n_rows + 2 + k), line)
    canvas.save()


def test_columns_below_a_wide_table_are_read_one_after_the_other(tmp_path):
    path = tmp_path / "below.pdf"
    drawn_below_a_table(path)
    lines = [line.text for line in lines_of(page_texts(path)[0])]
    assert lines[3].split("\t")[0] == "load3"
    assert lines[3].split("\t")[-1] == "rows3"
    words = " ".join(lines[10:]).split()
    assert words == [f"{name}{k}" for name in ("left", "right") for k in range(150)]


def test_lines_across_two_columns_are_one_zone():
    across = [[60.0, 12.0 * k, 500.0, 12.0 * k + 10] for k in range(3)]
    left, right = (
        [[x, 50 + 12.0 * k, x + 200, 60 + 12.0 * k] for k in range(8)] for x in (60.0, 300.0)
    )
    zones = reading_zones(np.array([*across, *left, *right], dtype=np.float32))
    assert [list(zone) for zone in zones] == [[0, 1, 2], [*range(3, 11)], [*range(11, 19)]]


@pytest.mark.parametrize(("number", "title"), [("4.4.", "Lids"), ("12.10.3", "Ropes")])
def test_a_title_is_set_as_its_words_are_and_not_as_its_number(tmp_path, number, title):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    canvas.setFont("Times-Roman", 10)
    canvas.drawString(72, 700, number)
    canvas.setFont("Helvetica-Bold", 10)
    canvas.drawString(72 + canvas.stringWidth(number + " ", "Times-Roman", 10), 700, title)
    canvas.save()
    (line,) = lines_of(page_texts(tmp_path / "a.pdf")[0])
    assert line.text == f"{number} {title}"
    assert line.is_bold
    assert line.face.startswith("Helvetica")


def test_a_title_at_the_right_is_read_before_a_heading_under_it_at_the_left():
    """Text runs across further down, so that a strip beside both is empty above it."""
    heading, title = (72.0, 232.0, 284.0, 245.0), (344.0, 168.0, 540.0, 181.0)
    columns = [(x, 260.0 + 14 * k, x + 200.0, 270.0 + 14 * k) for x in (72, 340) for k in range(14)]
    across = [(72.0, 250.0, 540.0, 259.0)]
    boxes = np.array([heading, title, *across, *columns], dtype=np.float32)
    order = [int(row) for zone in reading_zones(boxes) for row in zone]
    assert order.index(1) < order.index(0)


def test_a_few_lines_in_two_columns_far_over_the_foot_are_read_one_after_the_other():
    left = [[52.0, 80.0 + 12 * k, 294.0, 90.0 + 12 * k] for k in range(8)]
    right = [[318.0, 80.0 + 12 * k, 560.0, 90.0 + 12 * k] for k in range(7)]
    foot = [[52.0, 740.0, 273.0, 748.0]]
    zones = reading_zones(np.array([*left, *right, *foot]))
    assert [k for zone in zones for k in zone.tolist()][:8] == list(range(8))
    rows = [one for pair in zip(left, right, strict=False) for one in pair]
    in_turn = reading_zones(np.array([*rows, *foot]))  # a table, row by row
    assert len(in_turn) == 1


def set_cells(path, rows, font="Times-Roman"):
    """Texts of the lines of rows, each as (left edge, text) of its cells, 14 points apart."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont(font, 10)
    for k, row in enumerate(rows):
        for left, text in row:
            canvas.drawString(left, 740 - 14 * k, text)
    canvas.save()
    return [line.text for line in lines_of(page_texts(path)[0])]


def beside(text, gap, font="Times-Roman"):
    """Where a text begins, so that a gap in points is left before 200."""
    return 200 - gap - stringWidth(text, font, 10)


ROWS = [
    [(60, "Home"), (200, "to the first entry")],
    [(60, "End"), (200, "to the last entry")],
    [(60, "PgDn"), (200, "to the next page")],
]


@pytest.mark.parametrize(
    ("gap", "parted"),
    [(15.0, True), (7.0, True), (4.0, False)],
)
def test_a_word_right_under_the_cells_of_others_begins_a_cell(tmp_path, gap, parted):
    long = "previous-entry"
    texts = set_cells(
        tmp_path / "a.pdf", [*ROWS, [(beside(long, gap), long), (200, "to the one before")]]
    )
    assert texts[3] == f"{long}{chr(9) if parted else ' '}to the one before"


@pytest.mark.parametrize(
    "row",
    [
        [(beside("previous-entry.", 7.0), "previous-entry."), (200, "To the one before")],
        [(beside("previous-entry", 7.0), "previous-entry"), (204, "to the one before")],
        [(beside("all", 7.0), "all"), (200, "the"), (222, "pages")],  # all gaps of it are wide
    ],
)
def test_other_wide_blanks_part_nothing(tmp_path, row):
    texts = set_cells(tmp_path / "a.pdf", [*ROWS, row])
    assert "\t" not in texts[3]


def test_letters_of_one_width_stand_in_columns_anyhow(tmp_path):
    font = "Courier"
    row = [(beside("lift --all", 7.0, font), "lift --all"), (200, "# up")]
    assert "\t" not in set_cells(tmp_path / "a.pdf", [*ROWS, row], font)[3]


@pytest.mark.parametrize("mark", ["*", "-"])
def test_a_row_may_begin_with_the_mark_of_an_item(tmp_path, mark):
    rows = [[(60, "Key"), (110, "Name"), (200, "What it does")],
            [(60, "="), (110, "first"), (200, "to the first entry")],
            [(60, f"{mark} or End"), (110, "last"), (200, "to the last entry")],
            [(60, "q"), (110, "quit"), (200, "leaves it")]]  # fmt: skip
    set_cells(tmp_path / "a.pdf", rows)
    document = read_document(tmp_path / "a.pdf")
    assert [p.kind for p in document.paragraphs] == ["row"] * 4
    (table,) = find_tables(document.paragraphs)
    assert [cell.text for cell in table.rows[2]] == [f"{mark} or End", "last", "to the last entry"]


@pytest.mark.parametrize(
    ("size", "left", "right", "is_cell"),
    [(10.9, "4.22", "0.004", True), (12, "4.22", "0.004", True), (12, "4.22", "−1", True),
     (12, "4.22", "deep", False), (12, "4", "Lids", False)],
)  # fmt: skip
def test_cells_may_stand_twelve_points_apart(tmp_path, size, left, right, is_cell):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    canvas.setFont("Times-Roman", size)
    canvas.drawString(100, 700, left)
    canvas.drawString(112.01 + stringWidth(left, "Times-Roman", size), 700, right)
    canvas.save()
    (line,) = lines_of(page_texts(tmp_path / "a.pdf")[0])
    assert ("\t" in line.text) is is_cell


def test_numbers_of_code_are_no_cells_for_two_blanks(tmp_path):
    row = [(60, "10"), (82, "20"), (104, "30")]
    assert "\t" not in set_cells(tmp_path / "a.pdf", [row], "Courier")[0]
    assert set_cells(tmp_path / "a.pdf", [row])[0] == "10\t20\t30"


def test_two_lines_may_go_on_with_a_head(tmp_path):
    rows = [[(60, "Rope"), (200, "depth"), (300, "lid")], [(170, "value expressed")],
            [(180, "as told in feet")], [(150, "by the keeper")],
            [(60, "wet"), (200, "40"), (300, "2")],
            [(60, "dry"), (200, "60"), (300, "3")]]  # fmt: skip
    set_cells(tmp_path / "a.pdf", rows)
    (table,) = find_tables(read_document(tmp_path / "a.pdf").paragraphs)
    depth = "depth value expressed as told in feet by the keeper"
    assert table.heads == ("Rope", depth, "lid")
