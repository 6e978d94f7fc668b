"""Rows of tables between drawn rules, cell by cell."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document

SIZE, STEP = 10, 12.0
LEFT, MIDDLE, RIGHT = 80.0, 220.0, 520.0
ROWS = [
    (["Part"], ["What it is for"]),
    (["wind --turns", "number_of_turns"], ["Winds the rope"]),
    (["lift"], ["Lifts the bucket out of the well by as many turns of the drum", "as the rope is"]),
    (["lay down"], ["Lays the rope down"]),
    (["paint --colour", "name_of_a_colour"], ["Paints the lid"]),
]  # fmt: skip
"""Of a table of two columns: the lines of each cell."""


def drawn(path, rows, *, upright=True, between=True, above=""):
    """A page with a table, cells at half the height of their rows, rules where they are wanted."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setFont("Times-Roman", SIZE)
    if above:
        canvas.drawString(LEFT, 780, above)
    y = top = 740.0
    canvas.line(LEFT, y, RIGHT, y)
    for k, cells in enumerate(rows):
        n = max(map(len, cells))
        for x, lines in zip((LEFT + 4, MIDDLE + 4), cells, strict=True):
            down = (n - len(lines)) / 2
            for j, line in enumerate(lines):
                canvas.drawString(x, y - STEP * (j + 1 + down) + 2, line)
        y -= STEP * n + 1
        if between or k in (0, len(rows) - 1):
            canvas.line(LEFT, y, RIGHT, y)
    if upright:
        for x in (LEFT, MIDDLE, RIGHT):
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


def test_rows_without_a_rule_between_them_stay_rows(tmp_path):
    names = ["oak", "zinc", "hemp", "sisal"]
    rows = [(["Sort"], ["Price"]), (names, ["two crowns", "three", "one", "one and a half"]),
            (["brass"], ["nine crowns"])]  # fmt: skip
    found = told(drawn(tmp_path / "a.pdf", rows))
    assert "zinc\tthree" in found
    assert "sisal\tone and a half" in found


def test_labels_of_rows_of_text_are_not_put_together(tmp_path):
    rows = [
        (["Year"], ["What was done"]),
        (["March 1884", "", "", "June 1885"],
         ["The well was dug by hand, and its walls were laid of the stones", "of the old mole",
          "that had been kept for it", "The lid was made"]),
        (["May 1886"], ["The rope was wound"]), (["May 1887"], ["The drum was painted"]),
    ]  # fmt: skip
    found = " ".join(told(drawn(tmp_path / "a.pdf", rows)))
    assert "1884 June" not in found


def test_text_between_framed_code_is_no_row(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    y = 760.0
    for k in range(3):
        for font, lines in (
            ("Courier", [f"well({k})   depth({k})", "## [1] 12   14", "## [2]      15"]),
            ("Times-Roman", [f"6.{k}       Counting", "         The rope is counted by hand,",
                             "         and the lid is closed."]),
        ):  # fmt: skip
            canvas.line(LEFT, y, RIGHT, y)
            canvas.setFont(font, SIZE)
            for line in lines:
                y -= STEP
                canvas.drawString(LEFT + 4, y + 2, line)
            y -= 2
            canvas.line(LEFT, y, RIGHT, y)
    canvas.save()
    lines = [p.line for q in read_document(tmp_path / "a.pdf").paragraphs for p in q.pieces]
    assert lines
    assert not any(line.table_row for line in lines)


def test_a_table_of_three_rules_alone_keeps_its_lines(tmp_path):
    rows = [(["Sort"], ["Price"]), (["rope of hemp"], ["two crowns"]), (["rope"], ["one"]),
            (["rope of"], ["nine crowns"]), (["brass wire"], ["ten crowns"])]  # fmt: skip
    found = told(drawn(tmp_path / "a.pdf", rows, upright=False, between=False))
    assert "rope of\tnine crowns" in found
    assert "brass wire\tten crowns" in found
