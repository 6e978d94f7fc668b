"""Rows of tables between drawn rules, cell by cell."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document

SIZE, STEP = 10, 12.0
LEFT, MIDDLE, RIGHT = 80.0, 220.0, 505.0
ROWS = [
    (["Part"], ["What it is for"]),
    (["wind --turns", "number_of_turns"], ["Winds the rope"]),
    (["lift"], ["Lifts the bucket out of the well by as many turns of the drum", "as the rope is"]),
    (["lay down"], ["Lays the rope down"]),
    (["paint --colour", "name_of_a_colour"], ["Paints the lid"]),
]  # fmt: skip
"""Of a table of two columns: the lines of each cell."""


def drawn(path, rows, *, middle=MIDDLE, upright=True, between=True):
    """A page with a table, cells at half the height of their rows, rules where they are wanted."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Times-Roman", SIZE)
    y = top = 740.0
    canvas.line(LEFT, y, RIGHT, y)
    for k, cells in enumerate(rows):
        n = max(map(len, cells))
        for x, lines in zip((LEFT + 4, middle + 4), cells, strict=True):
            down = (n - len(lines)) / 2
            for j, line in enumerate(lines):
                canvas.drawString(x, y - STEP * (j + 1 + down) + 2, line)
        y -= STEP * n + 1
        if between or k in (0, len(rows) - 1):
            canvas.line(LEFT, y, RIGHT, y)
    if upright:
        for x in (LEFT, middle, RIGHT):
            canvas.line(x, top, x, y)
    canvas.drawString(
        LEFT, y - 40, "The keeper closes the lid of the well at night, and goes home."
    )
    canvas.save()
    return read_document(path)


def told(document):
    return [paragraph.text for paragraph in document.paragraphs if paragraph.kind == "row"]


@pytest.mark.parametrize("upright", [True, False])
def test_what_lies_between_two_rules_is_one_row(tmp_path, upright):
    rows = told(drawn(tmp_path / "a.pdf", ROWS, upright=upright))
    assert rows == [
        "Part\tWhat it is for",
        "wind --turns number_of_turns\tWinds the rope",
        "lift\tLifts the bucket out of the well by as many turns of the drum as the rope is",
        "lay down\tLays the rope down",
        "paint --colour name_of_a_colour\tPaints the lid",
    ]


def test_every_character_of_such_a_table_is_still_there(tmp_path):
    document = drawn(tmp_path / "a.pdf", ROWS)
    said = "".join("".join(p.text.split()) for p in document.paragraphs)
    assert sorted(said) == sorted(
        "".join(line for cells in ROWS for lines in cells for line in lines).replace(" ", "")
        + "Thekeeperclosesthelidofthewellatnight,andgoeshome."
    )


@pytest.mark.parametrize("names", [["oak", "zinc", "hemp"], ["oak lid", "zinc lid", "hemp lid"]])
def test_rows_without_a_rule_between_them_stay_rows(tmp_path, names):
    rows = [(["Sort"], ["Price"]), (names, ["two crowns", "three", "one and a half"]),
            (["brass wire", "number_of_turns_of_it"], ["nine crowns"])]  # fmt: skip
    found = told(drawn(tmp_path / "a.pdf", rows))
    assert f"{names[1]}\tthree" in found
    assert f"{names[2]}\tone and a half" in found
    assert "brass wire number_of_turns_of_it\tnine crowns" in found


LONG = [
    "The well was dug by hand, and its walls were laid of the stones of the old mole that had",
    "been kept for it, by the people of the yard and of the mill, who were paid in rope for it",
    "and in oak, as the book of that year has it on the page on which the money is counted up",
    "The lid was made by whoever had the time for it, and was painted by the keeper in spring",
]
"""Lines that fill the second column."""


def test_labels_of_rows_of_text_are_not_put_together(tmp_path):
    rows = [
        (["Year"], ["What was done"]), (["March 1884", "", "", "June 1885"], LONG),
        (["May 1886"], ["The rope was wound"]), (["May 1887"], ["The drum was painted"]),
    ]  # fmt: skip
    document = drawn(tmp_path / "a.pdf", rows, middle=140.0)
    lines = [piece.line for paragraph in document.paragraphs for piece in paragraph.pieces]
    assert any("March 1884" in line.text for line in lines)
    assert not any(line.table_row for line in lines)


def test_text_between_framed_code_is_no_row(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    y = 760.0
    for k in range(3):
        for font, lines in (
            ("Courier", [("well(7)", ""), ("## [1] 12", "")]),
            ("Times-Roman", [(f"6.{k}", "Counting the ropes"), ("", "The rope is counted by hand."),
                             ("", "The lid is closed after that.")]),
        ):  # fmt: skip
            canvas.line(LEFT, y, RIGHT, y)
            canvas.setFont(font, SIZE)
            for label, said in lines:
                y -= STEP
                canvas.drawString(LEFT + 4, y + 2, label)
                canvas.drawString(LEFT + 44, y + 2, said)
            y -= 2
            canvas.line(LEFT, y, RIGHT, y)
    canvas.save()
    lines = [p.line for q in read_document(tmp_path / "a.pdf").paragraphs for p in q.pieces]
    assert lines
    assert not any(line.table_row for line in lines)


def test_a_table_of_three_rules_alone_keeps_its_lines(tmp_path):
    rows = [(["Sort"], ["What for"]), (["rope of hemp"], LONG[:1]), (["rope of sisal"], LONG[1:2]),
            (["rope of brass"], [""]), (["rope of straw"], LONG[2:3])]  # fmt: skip
    document = drawn(tmp_path / "a.pdf", rows, middle=146.0, upright=False, between=False)
    lines = [piece.line for paragraph in document.paragraphs for piece in paragraph.pieces]
    assert not any(line.table_row for line in lines)
