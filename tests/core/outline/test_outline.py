import pytest
from hypothesis import given
from hypothesis import strategies as st
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.outline.build import alike
from wide_margin.core.outline.numbering import number_of


def titles(document):
    return [(s.title, s.level, s.page) for s in document.outline.sections]


def book(path, *, pages=None):
    text = "It is a plain sentence of running text that goes on for some time and then it ends."
    default = [
        [("h1", "1 Wells"), ("text", text), ("h2", "1.1 Ropes"), ("text", text)],
        [("h2", "1.2 Lids"), ("text", text), ("text", text)],
        [("h1", "2 Buckets"), ("text", text), ("h2", "2.1 Wood"), ("text", text)],
    ]
    make_pdf(path, pages or default)
    return read_document(path)


def test_numbered_headings_nest_by_their_numbers(tmp_path):
    assert titles(book(tmp_path / "a.pdf")) == [
        ("1 Wells", 0, 0), ("1.1 Ropes", 1, 0), ("1.2 Lids", 1, 1),
        ("2 Buckets", 0, 2), ("2.1 Wood", 1, 2),
    ]  # fmt: skip


def test_unnumbered_headings_nest_by_their_size(tmp_path):
    text = ("text", "A plain sentence that is long enough to be running text, and no heading.")
    pages = [[("h1", "Wells"), text, text, ("h2", "Ropes"), text], [("h1", "Buckets"), text, text]]
    assert titles(book(tmp_path / "a.pdf", pages=pages)) == [
        ("Wells", 0, 0), ("Ropes", 1, 0), ("Buckets", 0, 1)
    ]  # fmt: skip


def test_a_section_ends_where_the_next_of_its_level_starts(tmp_path):
    outline = book(tmp_path / "a.pdf").outline
    wells, ropes, lids, buckets, wood = outline.sections
    assert wells.end_paragraph == buckets.first_paragraph
    assert ropes.end_paragraph == lids.first_paragraph
    assert (wells.end_page, wells.end_y) == (buckets.page, buckets.y)
    assert wood.end_paragraph == buckets.end_paragraph


def test_the_path_of_a_section_runs_from_the_outermost(tmp_path):
    outline = book(tmp_path / "a.pdf").outline
    assert outline.path(2) == ("1 Wells", "1.2 Lids")
    assert outline.path(-1) == ()


def test_the_place_on_a_page_tells_the_section(tmp_path):
    outline = book(tmp_path / "a.pdf").outline
    assert outline.at_place(0, outline.sections[1].y + 30) == 1
    assert outline.at_place(1, 790.0) == 2
    assert outline.at_place(0, 0.0) == -1


def test_sections_cover_the_document_once_and_in_order(handbook):
    starts = [s.first_paragraph for s in handbook.outline.sections]
    assert starts == sorted(starts)
    for k, section in enumerate(handbook.outline.sections):
        assert section.first_paragraph < section.end_paragraph <= len(handbook.paragraphs)
        for other in handbook.outline.sections[k + 1 :]:
            inside = other.first_paragraph < section.end_paragraph
            assert not inside or other.level > section.level
            assert not inside or other.end_paragraph <= section.end_paragraph


def test_bookmarks_are_taken_and_placed_at_their_headings(tmp_path):
    path = tmp_path / "marked.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    for k, title in enumerate(("Wells", "Buckets", "Ropes")):
        canvas.bookmarkHorizontal(f"k{k}", 0, 760)
        canvas.addOutlineEntry(title, f"k{k}")
        canvas.setFont("Times-Bold", 18)
        canvas.drawString(72, 700, f"{k + 1} {title}")
        canvas.setFont("Times-Roman", 11)
        canvas.drawString(72, 660, "A plain sentence about them.")
        canvas.showPage()
    canvas.save()
    document = read_document(path)
    assert [s.title for s in document.outline.sections] == ["1 Wells", "2 Buckets", "3 Ropes"]
    assert all("heading" in s.witnesses for s in document.outline.sections)
    assert document.outline.sections[0].y == pytest.approx(A4[1] - 700 - 14, abs=6)


@pytest.mark.parametrize(
    "traps",
    [
        [("text", "Table 1. The forms of the network")],
        [("code", "def ropes(wells):")],
        [("text", "2. the second of several things to do before the lid is closed")],
    ],
)
def test_captions_code_and_items_are_no_headings(tmp_path, traps):
    text = ("text", "A plain sentence that is long enough to be running text, and no heading.")
    pages = [[("h1", "Wells"), text, *traps, text, text], [("h1", "Lids"), text, *traps, text]]
    document = book(tmp_path / "a.pdf", pages=pages)
    assert [s.title for s in document.outline.sections] == ["Wells", "Lids"]


@pytest.mark.parametrize(
    ("title", "scheme", "identifier", "rest"),
    [
        ("2.1.4 Running the line", "decimal", "2.1.4", "Running the line"),
        ("3 Signals", "decimal", "3", "Signals"),
        ("Chapter 12 The sea", "chapter", "12", "The sea"),
        ("Appendix B: Tables", "appendix", "B", "Tables"),
        ("Kapitel 4 Wasser", "kapitel", "4", "Wasser"),
        ("Annexe C Mesures", "annexe", "C", "Mesures"),
        ("IV. Ice", "roman", "IV", "Ice"),
        ("§ 14 Fristen", "paragraph", "14", "Fristen"),
        ("A.2 Words", "lettered", "A.2", "Words"),
        ("B Words", "letter", "B", "Words"),
        ("A 附录", "letter", "A", "附录"),
    ],
)
def test_numbers_are_taken_off_titles(title, scheme, identifier, rest):
    number = number_of(title)
    assert (number.scheme, number.identifier, number.rest) == (scheme, identifier, rest)


@pytest.mark.parametrize("title", ["Introduction", "The sea", "1953", "Ice and night"])
def test_titles_without_a_number_have_none(title):
    assert number_of(title) is None


@given(st.text(min_size=1, max_size=40))
def test_a_title_is_like_itself_in_capitals(title):
    plain = "".join(c for c in title if c.isascii())
    assert not any(c.isalnum() for c in plain) or alike(plain, plain.upper())


def test_titles_are_alike_but_for_their_numbers():
    assert alike("9.3 Closing error", "Closing Error")
    assert not alike("9.3 Closing error", "9.4 Lost marks")


TEXT = (
    "text",
    "A plain sentence that is long enough to be running text, and no heading at all, since it goes"
    " on and on until the line is full and another one has to be begun.",
)


def test_title_and_authors_are_no_sections(tmp_path):
    title = [
        ("h1", "On Wells"),
        ("h2", "Anna Brook"),
        ("h2", "Institute of Water"),
        ("h2", "Abstract"),
    ]
    pages = [[*title, TEXT, ("h2", "Methods"), TEXT], [("h2", "Results"), TEXT, TEXT]]
    document = book(tmp_path / "a.pdf", pages=pages)
    assert [s.title for s in document.outline.sections] == ["Abstract", "Methods", "Results"]


def test_a_label_is_joined_to_its_title(tmp_path):
    pages = [
        [("h1", "Chapter 1"), ("h1", "Wells"), TEXT, TEXT],
        [("h1", "CHAPTER TWO"), ("h1", "BUCKETS"), TEXT, TEXT],
        [("h1", "Appendix A"), ("h1", "Ropes"), TEXT, TEXT],
    ]
    document = book(tmp_path / "a.pdf", pages=pages)
    titles = [s.title for s in document.outline.sections]
    assert titles == ["Chapter 1 Wells", "BUCKETS", "Appendix A Ropes"]


def test_plain_numbered_headings_count_when_they_count_on(tmp_path):
    pages = [
        [
            ("h1", "1 Wells"),
            TEXT,
            ("text", "1.1 the rope"),
            TEXT,
            ("text", "4.7 per cent of all"),
            TEXT,
        ],
        [("text", "1.2 the lid"), TEXT, ("h1", "2 Buckets"), TEXT, ("text", "2.1 wood"), TEXT],
    ]
    document = book(tmp_path / "a.pdf", pages=pages)
    assert [(s.title, s.level) for s in document.outline.sections] == [
        ("1 Wells", 0), ("1.1 the rope", 1), ("1.2 the lid", 1), ("2 Buckets", 0), ("2.1 wood", 1)
    ]  # fmt: skip


def test_headings_at_the_top_of_pages_are_not_running_heads(tmp_path):
    pages = [[("h1", f"Version {k}.{k + 1}"), TEXT, TEXT] for k in range(1, 8)]
    document = book(tmp_path / "a.pdf", pages=pages)
    assert len(document.outline.sections) == 7


def test_incomplete_bookmarks_are_completed_by_numbered_headings(handbook):
    by_title = {s.title: s for s in handbook.outline.sections}
    assert by_title["9 Bench marks"].witnesses == ("bookmark", "contents", "heading")
    closing = by_title["9.3 Closing error"]
    assert closing.witnesses == ("contents", "heading")
    assert handbook.outline.path(handbook.outline.sections.index(closing)) == (
        "Part III Levelling", "9 Bench marks", "9.3 Closing error"
    )  # fmt: skip
    assert "7 Barometers and thermometers" in by_title  # a chapter that has no bookmark


@pytest.mark.parametrize("use_bookmarks", [True, False])
def test_the_handbook_s_true_outline_is_found(handbook_path, use_bookmarks):
    import json
    from pathlib import Path

    truth = json.loads((Path(__file__).parents[3] / "demo" / "outline.json").read_text("utf-8"))
    document = read_document(handbook_path, use_bookmarks=use_bookmarks)
    found = {(s.title.replace(" ", "").lower(), s.page + 1) for s in document.outline.sections}
    wanted = {(row["title"].replace(" ", "").lower(), row["page"]) for row in truth}
    assert len(found & wanted) >= 0.95 * len(wanted)
    assert len(found - wanted) <= 0.05 * len(found)


@pytest.mark.parametrize(
    ("title", "identifier", "rest"),
    [("第2节 安装", "2", "安装"), ("第十二章 介绍", "12", "介绍"), ("第一百零五条", "105", ""),
     ("第 3 章：方法", "3", "方法"), ("제 2 장 우물", "2", "우물"), ("제I편 물", "I", "물")],
)  # fmt: skip
def test_chinese_numbers_are_taken_off(title, identifier, rest):
    number = number_of(title)
    assert (number.identifier, number.rest, number.depth) == (identifier, rest, 1)


def test_a_title_that_only_begins_so_has_no_number():
    assert number_of("第三者的权利") is None
    assert number_of("제3자의 권리") is None


def test_what_a_program_puts_out_is_no_heading(tmp_path):
    filling = [("text", "The rope of the well is measured in the morning and in the evening.")] * 5
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), *filling, ("h2", "[1] TRUE"), *filling, ("h2", "[1] FALSE FALSE")],
        [("h1", "2 Lids"), *filling, ("h2", "2.1 Zinc"), *filling],
    ])  # fmt: skip
    titles = [s.title for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert not [title for title in titles if title.startswith("[")]
    assert "2.1 Zinc" in titles


def test_damaged_pages_have_no_headings(small_pdf):
    assert [s.page for s in read_document(small_pdf).outline.sections] == [0, 1]
    damaged = read_document(small_pdf, damaged=(1,))
    assert [s.title for s in damaged.outline.sections] == ["1 Wells"]
    assert damaged.garbled == (1,)


def test_parts_are_not_called_after_damaged_text(tmp_path):
    said = "The keeper of the well winds the rope of bucket {} and writes it into his book."
    pages = [[("text", said.format(k)), ("text", said.format(2 * k))] for k in range(24)]
    make_pdf(tmp_path / "a.pdf", pages)
    parts = read_document(tmp_path / "a.pdf", damaged=tuple(range(12))).outline
    assert parts.is_by_pages
    assert "keeper" not in parts.sections[0].title
    assert "keeper" in parts.sections[-1].title
