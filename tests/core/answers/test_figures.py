import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document, wrapped
from wide_margin.core.answers import answer_quoted, named_reach
from wide_margin.core.document import ReadDocument, figure_numbered, find_figures

TEXT = ("text", "The boats are counted in spring. Each boat is counted once, at its own landing.")
ROWS = [("entry", "Place|Boats"), ("entry", "Norrey|14"), ("entry", "Innerby|31")]


@pytest.fixture(scope="module")
def counted(tmp_path_factory) -> ReadDocument:
    path = tmp_path_factory.mktemp("figures") / "boats.pdf"
    make_pdf(path, [
        [TEXT, ("text", "Table 1. Boats by place."), *ROWS, TEXT],
        [TEXT, ("text", "Table 2. Boats by place in the year before."), ("entry", "Place|Boats"),
         ("entry", "Norrey|12"), ("entry", "Innerby|29"), TEXT,
         ("text", "Figure 2. A boat at its landing."), TEXT],
    ])  # fmt: skip
    return read_document(path)


def text_of(document, figure):
    paragraphs = document.paragraphs
    inside = {(s.page, k) for s in figure.text for k in range(s.start, s.end)}
    return [
        p.text for p in paragraphs
        if all((s.page, s.start) in inside for s in p.spans(0, len(p.text)))
    ]  # fmt: skip


def test_figures_and_tables_are_found_by_their_captions(counted):
    assert [(f.name, f.page) for f in find_figures(counted)] == [
        ("Table 1", 0), ("Table 2", 1), ("Figure 2", 1)
    ]  # fmt: skip


def test_a_table_holds_its_caption_and_rows_and_no_text_around(counted):
    inside = text_of(counted, find_figures(counted)[0])
    assert inside == ["Table 1. Boats by place.", "Place\tBoats", "Norrey\t14", "Innerby\t31"]


def test_a_number_names_a_table_or_a_figure(counted):
    assert figure_numbered(counted, "table", "2").caption.startswith("Table 2.")
    assert figure_numbered(counted, "fig.", "2").caption.startswith("Figure 2.")
    assert figure_numbered(counted, "figure", "1") is None
    assert named_reach(counted, "table 1").kind == "figure"
    assert named_reach(counted, "table 7") is None


@pytest.mark.parametrize(("number", "boats"), [("1", "14"), ("2", "12")])
def test_a_question_may_name_the_table_it_is_asked_of(counted, number, boats):
    answer = answer_quoted(counted, f"How many boats has Norrey in table {number}?")
    assert answer.reach.name == f"Table {number}"
    said = " ".join(quote.text for quote in answer.quotes)
    assert f"Norrey {boats}" in said
    assert {at.page for quote in answer.quotes for at in quote.locators} == {int(number) - 1}


def test_rows_on_the_next_page_belong_to_the_table(tmp_path):
    path = tmp_path / "over.pdf"
    make_pdf(path, [[TEXT, ("text", "Table 1. Boats by place.")], [*ROWS, TEXT]])
    document = read_document(path)
    assert text_of(document, find_figures(document)[0])[-1] == "Innerby\t31"


# --- on which side of its caption it stands


def drawn(tmp_path, parts):
    """A page of captions, rows of tables, room for pictures, and running text."""
    canvas = Canvas(str(tmp_path / "sides.pdf"), invariant=1)
    y = 780
    for kind, text in parts:
        canvas.setFont("Times-Roman", 11)
        if kind == "room":
            canvas.rect(100, y - 120, 200, 110)
            y -= 140
        elif kind == "rows":
            for row in text.split("/"):
                for x, cell in zip((100, 220, 320), row.split(), strict=True):
                    canvas.drawString(x, y, cell)
                y -= 14
            y -= 8
        else:
            for line in wrapped(text, "Times-Roman", 11, 380):
                canvas.drawString(100, y, line)
                y -= 14
            y -= 10
    canvas.save()
    return read_document(tmp_path / "sides.pdf")


PROSE = ("text", "The keeper of the gauge wrote down the height of the water every hour. " * 5)
GRID = ("rows", "Gauge Zero Year/Harbour 4.12 1871/Weir 3.90 1880/Lock 11.05 1902")


@pytest.mark.parametrize(
    ("parts", "is_under"),
    [
        ([PROSE, ("text", "Table 1: The gauges of the river."), GRID, PROSE], True),
        ([PROSE, GRID, ("text", "Table 1: The gauges of the river."), PROSE], False),
        ([PROSE, ("room", ""), ("text", "Figure 1: The mill seen from the river."), PROSE], False),
        ([PROSE, ("text", "Figure 1: The mill seen from the river."), ("room", ""), PROSE], True),
    ],
)
def test_what_a_caption_names_is_found_on_its_side(tmp_path, parts, is_under):
    document = drawn(tmp_path, parts)
    (figure,) = find_figures(document)
    caption = next(p for p in document.paragraphs if p.kind == "caption")
    _, y0, _, y1 = caption.pieces[0].line.box
    above, below = y0 - figure.box[1], figure.box[3] - y1
    assert (below > 40 > above) if is_under else (above > 40 > below)
    if parts[1][0] == "rows" or parts[2][0] == "rows":
        assert any("Lock" in text for text in text_of(document, figure))
        assert not any("keeper" in text for text in text_of(document, figure))
