"""What stands beside, over or between the text, on pages drawn for it."""

from collections.abc import Callable
from pathlib import Path

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document, wrapped
from wide_margin.core.digest.titled import title_of
from wide_margin.core.document import find_notes, find_tables

SAYINGS = (
    "The keeper of the gauge wrote down the height of the water every hour of the day.",
    "Nobody thought much of it until the harbour was dredged and the marks were moved.",
    "Then the old books were fetched from the loft and read again from the first page.",
)
TEXT = " ".join(SAYINGS)


class Page:
    """A page of running text that more is drawn on."""

    def __init__(self, path: Path, *, n_pages: int = 1) -> None:
        self.path, self.canvas, self.n_pages = path, Canvas(str(path), invariant=1), n_pages

    def text(self, y: float, text: str = TEXT, left: float = 100, width: float = 360) -> float:
        for line in wrapped(text, "Times-Roman", 11, width):
            self.canvas.setFont("Times-Roman", 11)
            self.canvas.drawString(left, y, line)
            y -= 14
        return y

    def word(
        self, x: float, y: float, text: str, size: float = 11, face: str = "Times-Roman"
    ) -> None:
        self.canvas.setFont(face, size)
        self.canvas.drawString(x, y, text)

    def turned(
        self, degrees: float, at: tuple[float, float], x: float, text: str, size: float,
        face: str = "Times-Roman",
    ) -> None:  # fmt: skip
        """Words that run along a line of their own, which begins at a place."""
        self.canvas.saveState()
        self.canvas.translate(*at)
        self.canvas.rotate(degrees)
        self.word(x, 0, text, size, face)
        self.canvas.restoreState()

    def read(self):
        self.canvas.save()
        return read_document(self.path)


@pytest.fixture
def page(tmp_path: Path) -> Page:
    return Page(tmp_path / "page.pdf")


def said(document, *kinds: str) -> list[str]:
    return [s.text for s in document.text.sentences if s.kind in (kinds or ("body",))]


def kinds_of(document) -> dict[str, str]:
    return {p.text: p.kind for p in document.paragraphs}


def test_numbers_of_lines_are_in_no_sentence(page: Page) -> None:
    for block in range(4):
        page.text(740 - 90 * block)
    for number in range(5, 25, 5):
        page.word(80, 740 - 14 * number, str(number), 7)
    document = page.read()
    assert said(document) == [*SAYINGS] * 4


def test_the_numbers_of_a_list_are_no_numbers_of_lines(page: Page) -> None:
    for k in range(6):
        page.word(72, 700 - 42 * k, str(k + 1))
        page.text(700 - 42 * k, f"Number {k} has words of its own. " + TEXT[:90])
    assert "1" in page.read().paragraphs[0].text


def test_a_note_in_the_margin_is_a_paragraph_of_its_own(page: Page) -> None:
    for block in range(3):
        page.text(740 - 90 * block)
    page.word(475, 735, "See the older books", 8, "Times-Italic")
    page.word(475, 725, "in the loft.", 8, "Times-Italic")
    document = page.read()
    assert kinds_of(document)["See the older books in the loft."] == "side"
    assert said(document) == [*SAYINGS] * 3


def test_a_stamp_over_the_text_is_no_part_of_it(page: Page) -> None:
    for block in range(4):
        page.text(740 - 60 * block)
    page.turned(45, (300, 600), -150, "DRAFT", 90, "Helvetica-Bold")
    assert all("DRAFT" not in p.text for p in page.read().paragraphs)


def test_what_runs_up_the_margin_is_no_part_of_the_text(page: Page) -> None:
    for block in range(4):
        page.text(740 - 60 * block)
    page.turned(90, (40, 300), 0, "wells:1403.2805v1 [of.CO] 12 Mar 2014", 20)
    document = page.read()
    up = [p for p in document.paragraphs if any(word in p.text for word in ("wells:", "2014"))]
    assert [p.kind for p in up] == ["side"] * len(up) != []
    assert said(document) == [*SAYINGS] * 4
    assert document.outline.sections == ()
    assert "Mar" not in title_of(document)


def test_a_mark_across_every_page_is_in_no_title_and_no_sentence(page: Page) -> None:
    chapters = ("On wells", "On ropes", "On lids", "On nets")
    for number, chapter in enumerate(chapters, 1):
        page.word(100, 560, f"{number} {chapter}", 20, "Times-Bold")
        for block in range(4):
            page.text(520 - 60 * block)
        page.turned(-53, (150, 700), 0, "Copyright 2031 The harbour school", 24, "Helvetica")
        page.canvas.showPage()
    document = page.read()
    assert [s.title[2:] for s in document.outline.sections] == [*chapters]
    assert said(document) == [*SAYINGS] * 4 * len(chapters)
    assert "school" not in title_of(document)


def test_labels_that_climb_under_a_chart_are_beside_the_text(page: Page) -> None:
    y = page.text(page.text(740))
    for k, label in enumerate(("Monday", "Tuesday", "Wednesday", "Thursday")):
        page.turned(45, (120 + 60 * k, y - 60), 0, label, 9)
    page.text(y - 90)
    document = page.read()
    assert said(document) == [*SAYINGS] * 3
    assert {p.kind for p in document.paragraphs if "day" in p.text and len(p.text) < 60} == {"side"}


def test_labels_over_the_caption_of_a_figure_stand_inside_of_it(page: Page) -> None:
    y = page.text(740)
    page.word(150, y - 30, "old gauge", 8)
    page.word(320, y - 55, "new gauge", 8)
    page.word(100, y - 90, "Figure 1. Where the gauges stood.", 10)
    page.text(y - 130)
    kinds = kinds_of(page.read())
    assert kinds["old gauge"] == kinds["new gauge"] == "figure"
    assert kinds["Figure 1. Where the gauges stood."] == "caption"


@pytest.mark.parametrize(
    ("formula", "kind"),
    [
        ("h = 2k + r", "formula"),
        ("a + b ≤ c", "formula"),
        ("The height = twice the reading of the gauge at noon", "body"),
        ("Plainly nothing", "body"),
    ],
)
def test_a_formula_has_signs_and_hardly_a_word(page: Page, formula: str, kind: str) -> None:
    formula = formula.replace("≤", "<")
    y = page.text(740)
    page.word(230, y - 14, formula)
    page.text(y - 48)
    assert kinds_of(page.read())[formula] == kind


def test_a_sentence_goes_on_over_a_table_at_the_top_of_the_next_page(page: Page) -> None:
    page.text(100, SAYINGS[0] + " Nobody thought much of it until", width=340)
    page.canvas.showPage()
    page.word(100, 740, "Table 1. Readings by station.", 10)
    for k, row in enumerate((("Mill", "3.1"), ("Quay", "4.7"), ("Ford", "2.2"))):
        page.word(100, 720 - 14 * k, row[0])
        page.word(300, 720 - 14 * k, row[1])
    page.text(650, "the harbour was dredged and the marks were moved. " + SAYINGS[2])
    assert said(page.read()) == [*SAYINGS]


def test_a_number_that_ends_a_sentence_at_the_start_of_a_line_begins_no_item(page: Page) -> None:
    page.text(740, width=320)
    page.word(100, 697, "The keeper then wrote down how many weights there were in it: n =")
    page.word(100, 683, "6. The weights were all given in the units of that time, as before.")
    document = page.read()
    assert "item" not in {p.kind for p in document.paragraphs}
    assert any(text.endswith("in it: n = 6.") for text in said(document))


@pytest.mark.parametrize(
    ("first", "second", "joined"),
    [
        ("The keeper of the hut was then asked to write to the clerk J. B. and",
         "J. Holm, who had left the station long before, in the year of the ice.",
         "J. B. and J. Holm, who had left"),
        ("The keeper of the hut was then told to hang all of the ropes up again (z.",
         "B. for a later use of them), and to write down how many there were.",
         "again (z. B. for a later use"),
    ],
)  # fmt: skip
def test_initials_and_half_an_abbreviation_begin_no_item(
    page: Page, first: str, second: str, joined: str
) -> None:
    page.text(740, width=320)
    page.word(100, 697, first)
    page.word(100, 683, second)
    document = page.read()
    assert "item" not in {p.kind for p in document.paragraphs}
    assert any(joined in text for text in said(document))


def raised(page: Page, x: float, y: float, mark: str, after: str) -> None:
    page.word(x, y + 4, mark, 7)
    page.word(x + 5 * len(mark), y, after)


def test_footnotes_are_tied_to_their_marks(page: Page) -> None:
    page.word(100, 740, "The gauge stood at the mill.")
    raised(page, 100 + 131, 740, "1", "Then it was moved to the quay.")
    page.word(100, 724, "Nobody wrote down the day on which that was done")
    raised(page, 100 + 226, 724, "2", "and nobody asked.")
    for block in range(6):
        page.text(700 - 90 * block)
    page.word(100, 110, "1 The mill burnt down in a later year.", 8)
    page.word(100, 100, "2 It must have been a Tuesday.", 8)
    document = page.read()
    tied = {
        document.paragraphs[t.paragraph].text[t.start : t.end]: document.paragraphs[t.note].text
        for t in find_notes(document.paragraphs)
    }
    assert tied == {
        "1": "1 The mill burnt down in a later year.",
        "2": "2 It must have been a Tuesday.",
    }
    assert "The gauge stood at the mill." in said(document)


def grid(page: Page, rows: list[list[str]], y: float, xs: tuple[float, ...]) -> float:
    for row in rows:
        for x, cell in zip(xs, row, strict=False):
            if cell:
                page.word(x, y, cell, 10)
        y -= 13
    return y


def test_a_table_is_rows_of_cells(page: Page) -> None:
    page.text(740)
    page.word(100, 665, "Table 1. Readings by station.", 10)
    rows = [
        ["Station", "Low", "High"],
        ["Mill", "3.1", "4.4"],
        ["Quay", "", "4.7"],
        ["Ford", "2.2", ""],
    ]
    grid(page, rows, 648, (100, 250, 350))
    page.text(560)
    document = page.read()
    (table,) = find_tables(document.paragraphs)
    assert [[cell.text for cell in row] for row in table.rows] == rows
    assert table.heads == ("Station", "Low", "High")
    assert table.caption is not None
    assert document.paragraphs[table.caption].text == "Table 1. Readings by station."
    assert all(cell.spans for row in table.rows for cell in row if cell.text)


def test_a_cell_of_two_lines_is_one_cell(page: Page) -> None:
    rows = [["Mill", "by the old", "3.1"], ["", "bridge", ""], ["Quay", "west side", "4.7"],
            ["Ford", "north", "2.2"]]  # fmt: skip
    y = 700.0
    for row, step in zip(rows, (11, 20, 20, 20), strict=True):
        grid(page, [row], y, (100, 250, 350))
        y -= step
    (table,) = find_tables(page.read().paragraphs)
    assert [cell.text for cell in table.rows[0]] == ["Mill", "by the old bridge", "3.1"]
    assert len(table.rows) == 3


def test_a_row_that_begins_like_a_caption_stays_a_row(page: Page) -> None:
    grid(page, [["Station", "Low"], ["chart", "54.1"], ["figure", "9"]], 700, (100, 250))
    (table,) = find_tables(page.read().paragraphs)
    assert [row[0].text for row in table.rows] == ["Station", "chart", "figure"]


def test_type_in_a_scaled_form_has_the_size_it_is_seen_at(page: Page) -> None:
    canvas = page.canvas
    canvas.beginForm("form")
    page.word(1000, 6000, "Set large and drawn small", 110)
    canvas.endForm()
    canvas.saveState()
    canvas.scale(0.1, 0.1)
    canvas.doForm("form")
    canvas.restoreState()
    page.text(740)
    (line,) = [
        piece.line for p in page.read().paragraphs for piece in p.pieces
        if piece.line.text.startswith("Set large")
    ]  # fmt: skip
    assert line.size == pytest.approx(11, abs=0.1)


def test_a_raised_mark_in_the_middle_of_a_line_does_not_make_the_line_small(page: Page) -> None:
    page.word(100, 740, "It stood there.")
    raised(page, 167, 740, "1", "And then not.")
    (line,) = [piece.line for p in page.read().paragraphs for piece in p.pieces]
    assert line.size == pytest.approx(11, abs=0.1)


def test_words_meet_where_no_blanks_part_them() -> None:
    from wide_margin.core.search.analysis import guess_language, words

    assert "文書" in set(words("この文書を読む"))
    assert set(words("文書")) <= set(words("この文書を読む"))
    assert guess_language("この文書を読む") == "ja"
    assert guess_language("维护者指南") == "zh"


@pytest.mark.parametrize(
    ("text", "sentences"),
    [
        ("これは文です。次の文。", ["これは文です。", "次の文。"]),
        ("「はい。」と言った。", ["「はい。」と言った。"]),
        ("这是一句！这是两句吗？", ["这是一句！", "这是两句吗？"]),
        ("これは井戸です．深さは３．５ｍである．", ["これは井戸です．", "深さは３．５ｍである．"]),
    ],
)
def test_sentences_end_without_a_blank(text: str, sentences: list[str]) -> None:
    from wide_margin.core.passages import split_sentences

    assert [text[a:b] for a, b in split_sentences(text)] == sentences


Maker = Callable[[Path, int], object]


@pytest.fixture(scope="module")
def made(tmp_path_factory: pytest.TempPathFactory):
    """Documents by lot, with what they say."""
    import made as generator

    folder = tmp_path_factory.mktemp("made")
    documents = []
    for seed in range(501, 509):
        path = folder / f"{seed}.pdf"
        _, truth = generator.make(path, seed)
        documents.append((truth, generator.read(path)))
    return generator, documents


def test_made_documents_come_back_as_they_were_written(made) -> None:
    generator, documents = made
    right: dict[str, int] = {}
    whole: dict[str, int] = {}
    for truth, document in documents:
        for kind, n, of, _ in generator.score(truth, document):
            right[kind] = right.get(kind, 0) + n
            whole[kind] = whole.get(kind, 0) + of
    shares = {kind: right[kind] / of for kind, of in whole.items() if of}
    assert shares["sentences"] >= 0.98
    assert shares["table cells"] >= 0.95
    assert shares["footnotes tied"] >= 0.95


def test_every_character_is_in_exactly_one_line_and_paragraph(made) -> None:
    _, documents = made
    for _, document in documents:
        spans = [
            (span.page, at)
            for p in document.paragraphs
            for span in p.spans(0, len(p.text))
            for at in range(span.start, span.end)
        ]
        assert len(spans) == len(set(spans))


def test_no_running_head_is_in_a_sentence(made) -> None:
    _, documents = made
    for _, document in documents:
        assert not any("Journal of harbours" in text for text in said(document))


SHEETS = ("Wells are dug", "Ropes are spun", "Lids are sawn", "Nets are tied")
PARTS = ("A book", "Wells", "Ropes", "Lids", "Nets")


@pytest.mark.parametrize(("x", "left"), [(10, 90), (320, 20)])
def test_the_contents_beside_a_slide_are_in_no_sentence_of_it(
    tmp_path: Path, x: float, left: float
) -> None:
    page = Page(tmp_path / "slides.pdf")
    page.canvas.setPageSize((363, 272))
    for sheet in SHEETS:
        page.text(220, sheet, left, 200)
        page.text(200, TEXT, left, 220)
        for k, part in enumerate(PARTS):
            page.word(x, 217 - 14 * k, part, size=5)
        page.canvas.showPage()
    document = page.read()
    assert not any(part == p.text for p in document.paragraphs for part in PARTS)
    assert [s for s in said(document) if s in SAYINGS] == list(SAYINGS) * len(SHEETS)
    assert not any("\t" in p.text for p in document.paragraphs)


def test_small_words_in_a_column_of_a_table_stay_in_it(page: Page) -> None:
    for k in range(12):
        page.word(100, 700 - 20 * k, f"The rope of well {k}")
        page.word(300, 700 - 20 * k, f"sound {k}", size=8)
    rows = [p.text for p in page.read().paragraphs if p.kind == "row"]
    assert len(rows) == 12
