"""Questions that a cell of a table answers, how sure an answer is, and why one is declined."""

from pathlib import Path

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document, wrapped
from wide_margin.core.answers import PERHAPS, answer_quoted
from wide_margin.core.answers.evidence import Judged

ROWS = [
    ["Station", "Low water", "High water"], ["Mill", "3.1", "14.4"], ["Quay", "2.7", "4.7"],
    ["Ford", "2.2", "6.9"],
]  # fmt: skip
TEXT = (
    "The gauges were read every hour of the day and night. Nobody thought much of it until the"
    " harbour was dredged. Then the old books were fetched from the loft and read again."
)


@pytest.fixture(scope="module")
def document(tmp_path_factory: pytest.TempPathFactory):
    path: Path = tmp_path_factory.mktemp("cells") / "table.pdf"
    canvas = Canvas(str(path), invariant=1)
    canvas.setFont("Times-Roman", 11)
    y = 760
    for line in wrapped(TEXT, "Times-Roman", 11, 400):
        canvas.drawString(72, y, line)
        y -= 14
    canvas.drawString(72, y - 20, "Table 1. Mean heights by station in metres.")
    for k, row in enumerate(ROWS):
        for x, cell in zip((72, 200, 320), row, strict=True):
            canvas.drawString(x, y - 40 - 14 * k, cell)
    canvas.showPage()
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(72, 760, "The keeper of the mill was paid forty crowns for the whole year.")
    canvas.save()
    return read_document(path)


def test_a_cell_is_found_by_its_row_and_column(document):
    answer = answer_quoted(document, "What is the high water at the quay?")
    assert answer.quotes[0].text.startswith("Quay — High water: 4.7")
    first, last = answer.quotes[0].emphasis[0]
    assert answer.quotes[0].text[first:last] == "4.7"
    assert answer.quotes[0].locators[0].page == 0


@pytest.mark.parametrize(
    ("question", "row"),
    [
        ("Which station has the highest high water?", "Mill"),
        ("Which station has the lowest low water?", "Ford"),
    ],
)
def test_the_largest_and_the_smallest_of_a_column_are_found(document, question, row):
    assert answer_quoted(document, question).quotes[0].text.startswith(f"{row} — ")


MACHINES = [
    ["", "KX-1", "KX-4", "KX-7"], ["First ship", "Nov 1960", "Jul 1962", "Dec 1964"],
    ["Number built", "50", "45", "120"], ["Base price", "$120K", "$65.5K", "$45.2K"],
]  # fmt: skip
HEIGHTS = [
    ["Gauge", "Height"], ["Mill", "3.1 m"], ["Quay", "90"], ["Ford", "2.2K"],
]  # fmt: skip
CHANGES = [
    ["", "# Changed", "# Lines"], ["Month", "Files", "Added"], ["April", "87", "3,619"],
    ["June", "39", "4,324"], ["July", "73", "1,578"], ["Total", "199", "9,521"],
]  # fmt: skip
CODES = [
    ["Value", "Code", "Days"], ["1", "WHOLE", "30"], ["-1", "TORN", "12"], ["2", "WET", "7"],
]  # fmt: skip
GRADES = [
    ["Well", "Grade", "Depth", "Age"], ["2", "1", "12", "9"], ["3", "3-4", "19", "4"],
    ["4", "5", "23", "31"], ["9", "9", "77", "40"],
]  # fmt: skip


def drawn(path: Path, rows: list[list[str]]) -> None:
    """A page with some text and a table."""
    canvas = Canvas(str(path), invariant=1)
    canvas.setFont("Times-Roman", 11)
    for k, line in enumerate(wrapped(TEXT, "Times-Roman", 11, 400)):
        canvas.drawString(72, 760 - 14 * k, line)
    for k, row in enumerate(rows):
        for x, cell in zip((72, 180, 280, 380), row, strict=False):
            canvas.drawString(x, 660 - 14 * k, cell)
    canvas.save()


@pytest.mark.parametrize(
    ("rows", "question", "told"),
    [
        # Names with numbers are heads, and what is compared may stand in columns.
        (MACHINES, "How many KX-4s were built?", "Number built — KX-4: 45"),
        (MACHINES, "What is the base price of the KX-7?", "Base price — KX-7: $45.2K"),
        (MACHINES, "Which machine had the lowest base price?", "Base price — KX-7: $45.2K"),
        (MACHINES, "Which machine has the highest base price?", "Base price — KX-1: $120K"),
        # "m" is the metre, and no million.
        (HEIGHTS, "Which gauge has the highest height?", "Ford — Height: 2.2K"),
        # Two rows of heads; the sum is not the most.
        (CHANGES, "In which month were the most lines added?", "June — # Lines Added: 4,324"),
        (CHANGES, "Which month has the fewest files changed?", "June — # Changed Files: 39"),
        (CHANGES, "How many lines were added in July?", "July — # Lines Added: 1,578"),
        # A sign before a number counts.
        (CODES, "What does code -1 mean?", "Value -1 — Code: TORN"),
        (CODES, "What does code 1 mean?", "Value 1 — Code: WHOLE"),
        # A number is that of the column by which it is called, also within a span.
        (GRADES, "What is the depth at grade 4?", "Grade 3-4 — Depth: 19"),
        (GRADES, "What is the depth of well 4?", "Well 4 — Depth: 23"),
        (GRADES, "What is the age of wells of grade 9?", "Grade 9 — Age: 40"),
    ],
)
def test_tables_of_other_shapes(tmp_path, rows, question, told):
    drawn(tmp_path / "table.pdf", rows)
    answer = answer_quoted(read_document(tmp_path / "table.pdf"), question)
    assert answer.quotes[0].text == told


def test_what_a_question_calls_the_holder_of_a_cell_need_not_be_in_the_table(document):
    answer = answer_quoted(document, "What is the low water for the ford data set?")
    assert answer.quotes[0].text.startswith("Ford — Low water: 2.2")


def test_a_row_that_is_not_there_gives_no_cell(document):
    answer = answer_quoted(document, "What is the high water at the lighthouse?")
    assert not any("—" in quote.text for quote in answer.quotes)


def test_how_sure_an_answer_is_lies_between_none_and_all(document):
    told = answer_quoted(document, "How much was the keeper of the mill paid?")
    assert 0.0 < told.sure < 1.0
    assert told.is_perhaps == (bool(told.quotes) and told.sure < PERHAPS)


def test_a_question_of_another_matter_is_less_sure(document):
    sure = answer_quoted(document, "How much was the keeper of the mill paid?").sure
    strange = answer_quoted(document, "Which wizard taught Zorblax the xylophone?")
    assert strange.declined
    assert strange.sure < sure
    assert "Zorblax".lower() in strange.reason.lower()


def test_declining_does_not_change_when_other_matter_is_appended(tmp_path):
    own = [[("text", TEXT), ("text", "The keeper was paid forty crowns for the whole year.")]]
    other = [
        [("text", f"In chapter {k} the cook {verb} the {thing} of the {place} with much salt.")]
        for k, (verb, thing, place) in enumerate(
            [(v, t, p) for v in ("boils", "fries", "salts") for t in ("soup", "bread", "fish")
             for p in ("house", "ship", "inn")]
        )
    ]  # fmt: skip
    make_pdf(tmp_path / "short.pdf", own)
    make_pdf(tmp_path / "long.pdf", own + other * 4)
    short, long = (read_document(tmp_path / f"{n}.pdf") for n in ("short", "long"))
    for question in ("How many crowns was the keeper paid?", "When was the harbour dredged?",
                     "Who fetched the old books?", "What colour is the moon?"):  # fmt: skip
        assert answer_quoted(short, question).declined == answer_quoted(long, question).declined


@pytest.mark.parametrize(
    ("odds", "sure", "in_all", "in_part"),
    [(1.0, 0.5, True, True), (1.0, 0.1, False, True), (-1.0, 0.5, False, True),
     (-9.0, 0.5, False, False)],
)  # fmt: skip
def test_what_is_hardly_right_is_no_answer_of_the_whole(odds, sure, in_all, in_part):
    judged = Judged(odds, sure)
    assert judged.is_enough(narrowed=False) == in_all
    assert judged.is_enough(narrowed=True) == in_part
