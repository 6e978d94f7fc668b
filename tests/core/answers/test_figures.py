import pytest

from tests.making import make_pdf, read_document
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
