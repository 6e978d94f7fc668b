"""What is drawn over every page at one place belongs to no line of text."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document
from wide_margin.core.layout.model import Line
from wide_margin.core.layout.overlaid import without_overlaid

NAMES = ("Wells", "Ropes", "Lids", "Buckets", "Keys")
SAID = "The keeper looks after it in spring, and mends it before the first frost of the year"


def printed(path, *, over, at=lambda k: 300):
    """Pages that begin with a title, and have something drawn into its line at last."""
    canvas = Canvas(str(path), pagesize=A4, invariant=1)
    for k, name in enumerate(NAMES):
        canvas.setFont("Times-Bold", 15)
        canvas.drawString(72, 760, f"{k + 1} {name} of the harbour")
        canvas.setFont("Times-Roman", 11)
        for row in range(12):
            canvas.drawString(72, 735 - 14 * row, f"{SAID} {name.lower()} {row}.")
        canvas.drawString(at(k), 760, over(k))
        canvas.showPage()
    canvas.save()
    return read_document(path)


def test_a_button_on_every_page_is_no_part_of_any_title(tmp_path):
    document = printed(tmp_path / "a.pdf", over=lambda _: "Download the book")
    assert [section.title for section in document.outline.sections] == [
        f"{k + 1} {name} of the harbour" for k, name in enumerate(NAMES)
    ]
    assert not any("Download" in sentence.text for sentence in document.text.sentences)


@pytest.mark.parametrize("over", [lambda k: f"Download book {k * 7 + 3}th", lambda k: "Book"])
def test_what_differs_from_page_to_page_or_is_short_stays(tmp_path, over):
    document = printed(tmp_path / "a.pdf", over=over)
    assert sum("ook" in p.text for p in document.paragraphs) >= len(NAMES)


@pytest.mark.parametrize(
    ("text", "spans", "marks"),
    [
        ("Wells1 Book here", ((0, 6), (90, 99)), ((5, 6),)),
        ("Book here Wells1", ((90, 99), (0, 6)), ()),
    ],
)
def test_marks_of_footnotes_stay_where_only_the_end_is_cut(text, spans, marks):
    at = text.index("1")
    line = Line(0, text, spans, (72.0, 30.0, 200.0, 42.0), 11.0, False, False, False, 0, 0,
                marks=((at, at + 1),))  # fmt: skip
    cut = without_overlaid(line, {"Book here": 30.0})
    assert (cut.text, cut.spans, cut.marks) == ("Wells1", ((0, 6),), marks)
    assert without_overlaid(line, {"Book here": 90.0}) == line
