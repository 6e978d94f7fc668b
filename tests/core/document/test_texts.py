"""The text of a reach by paragraphs, tables by rows and cells."""

from pathlib import Path

import numpy as np
import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document
from wide_margin.core.document import find_tables, texts_of

ROWS = [
    [("Form",), ("Use",), ("Kept",)],
    [("Bill",), ("Sent to whoever", "hires the hall"), ("7",)],
    [("Chit",), ("Given for a coat",), ("1",)],
    [("Note",), ("Left at the door", "for the keeper"), ("12",)],
]
LEFT = (72, 180, 360)


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path: Path = tmp_path_factory.mktemp("texts") / "forms.pdf"
    canvas = Canvas(str(path), invariant=1)
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(72, 760, "The hall has three forms. They lie in the drawer by the door.")
    canvas.drawString(72, 730, "Table 1. The forms of the hall.")
    y = 700
    for row in ROWS:
        for k in range(max(map(len, row))):
            for x, cell in zip(LEFT, row, strict=True):
                if k < len(cell):
                    canvas.drawString(x, y, cell[k])
            y -= 14
    canvas.drawString(72, y - 20, "Nobody may take a form home. The keeper counts them.")
    canvas.save()
    return read_document(path)


def whole(document) -> np.ndarray:
    return np.ones(len(document.text.sentences), dtype=bool)


def test_the_lines_of_a_wrapped_cell_are_one_row(document):
    (table,) = find_tables(document.paragraphs)
    assert [[cell.text for cell in row] for row in table.rows] == [
        [" ".join(cell) for cell in row] for row in ROWS
    ]


def test_a_table_is_told_row_by_row_in_its_place(document):
    told = texts_of(document, whole(document))
    assert [t.kind for t in told] == ["body", "caption", *["row"] * 4, "body"]
    assert told[3].sentences == ("Bill", "Sent to whoever hires the hall", "7")
    tops = [t.locator.y for t in told]
    assert tops == sorted(tops)
    page = document.facts.n_pages
    assert {t.locator.page for t in told} == set(range(page))


def test_only_the_rows_of_the_reach_are_told(document):
    allowed = np.array([s.text.startswith("Chit") for s in document.text.sentences])
    (told,) = texts_of(document, allowed)
    assert told.sentences == ("Chit", "Given for a coat", "1")


def test_an_empty_reach_has_no_text(document):
    assert texts_of(document, ~whole(document)) == ()
