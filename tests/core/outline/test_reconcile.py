"""Three witnesses, one outline: matching, choosing, and naming what disagrees."""

from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.outline.test_contents import CHAPTERS, PLAIN, TEXT, book
from tests.making import make_pdf, plain_pages, read_document
from wide_margin.core.answers import named_reach
from wide_margin.core.outline import WITNESSES
from wide_margin.core.outline.aligning import Named, align
from wide_margin.core.outline.candidates import Style
from wide_margin.core.outline.contents import ContentsEntry
from wide_margin.core.outline.headings import Heading
from wide_margin.core.outline.jumps import without_jumps
from wide_margin.core.outline.levels import settle_levels
from wide_margin.core.outline.model import Reading
from wide_margin.core.outline.reconcile import Record, _chosen_title
from wide_margin.core.outline.titles import alike, similarity, words_differ

MARKS = [(title, int("." in title.split()[0]), k + 1) for k, title in enumerate(CHAPTERS)]


def by_title(document):
    return {s.title: s for s in document.outline.sections}


def conflicts(document):
    return [(s.title, d.about, d.witness) for s in document.outline.sections
            for d in s.disagreements]  # fmt: skip


def test_three_witnesses_that_agree_give_one_outline(tmp_path):
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=MARKS)
    assert document.outline.sources == WITNESSES
    assert [s.title for s in document.outline.sections] == list(CHAPTERS)
    assert all(s.witnesses == WITNESSES for s in document.outline.sections)
    assert conflicts(document) == []


def test_a_wrong_page_in_the_contents_is_named_and_the_heading_used(tmp_path):
    wrong = [*PLAIN[:3], ("toc1", "1.2 Lids|5"), *PLAIN[4:]]
    document = book(tmp_path / "a.pdf", [wrong], bookmarks=MARKS)
    assert conflicts(document) == [("1.2 Lids", "page", "contents")]
    section = by_title(document)["1.2 Lids"]
    assert section.page == 3
    assert section.disagreements[0].reason == (
        "The contents page prints 5; the heading stands on printed page 3 (page 4 of the file)."
        " The heading is used."
    )


def test_a_bookmark_that_leads_elsewhere_is_named_and_the_heading_used(tmp_path):
    moved = [*MARKS[:4], ("2.1 Wood", 1, 6), MARKS[5]]
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=moved)
    assert conflicts(document) == [("2.1 Wood", "page", "bookmark")]
    assert by_title(document)["2.1 Wood"].page == 5


def test_a_reworded_bookmark_is_named_and_the_words_on_the_page_used(tmp_path):
    reworded = [*MARKS[:2], ("1.2 Covers of stone", 1, 3), *MARKS[3:]]
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=reworded)
    assert conflicts(document) == [("1.2 Lids", "title", "bookmark")]


@pytest.mark.parametrize(
    ("bookmark", "printed"),
    [("?Para que tanto esfuerzo?", "¿Para qué tanto esfuerzo?"),
     ("2 Einfuehrung in Haeuser", "2 Einführung in Häuser"), ("2 WELLKEEPLID", "2 WellKeepLid")],
)  # fmt: skip
def test_a_bookmark_without_the_accents_or_the_case_on_the_page_gets_them(bookmark, printed):
    readings = [Reading("bookmark", bookmark, 0, 0, 0.0), Reading("heading", printed, 0, 0, 0.0)]
    assert _chosen_title(readings)[0] == printed


@pytest.mark.parametrize(
    ("bookmark", "printed"),
    [("2 The finer points", "2 The finer points – a part"), ("1 Lids", "1 LIDS"),
     ("A Jak na vodu", "Příloha A Jak na vodu")],
)  # fmt: skip
def test_a_bookmark_in_other_letters_than_the_page_stays(bookmark, printed):
    readings = [Reading("bookmark", bookmark, 0, 0, 0.0), Reading("heading", printed, 0, 0, 0.0)]
    assert _chosen_title(readings)[0] == bookmark


def test_an_article_is_no_number_where_the_page_has_one():
    readings = [Reading("bookmark", "A Plain Well", 0, 0, 0.0),
                Reading("heading", "3 A Plain Well", 0, 0, 0.0)]  # fmt: skip
    assert _chosen_title(readings)[0] == "3 A Plain Well"
    readings[0] = readings[0]._replace(title="A Plain Lid")
    readings[1] = readings[1]._replace(title="A Plain Lid")
    assert _chosen_title(readings)[0] == "A Plain Lid"


def test_two_against_one_win_over_a_title(tmp_path):
    contents = [*PLAIN[:2], ("toc1", "1.1 Cords and chains|2"), *PLAIN[3:]]
    marks = [MARKS[0], ("1.1 Cords and chains", 1, 2), *MARKS[2:]]
    document = book(tmp_path / "a.pdf", [contents], bookmarks=marks)
    assert conflicts(document) == [("1.1 Cords and chains", "title", "heading")]


def test_flattened_bookmarks_are_named_and_the_levels_kept(tmp_path):
    flat = [(title, 0, page) for title, _, page in MARKS]
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=flat)
    assert [s.level for s in document.outline.sections] == [0, 1, 1, 0, 1, 1]
    assert {c[0] for c in conflicts(document)} == {"1.1 Ropes", "1.2 Lids", "2.1 Wood", "2.2 Iron"}
    assert {c[1:] for c in conflicts(document)} == {("level", "bookmark")}


def test_what_one_witness_leaves_out_is_silent_and_no_conflict(tmp_path):
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=[MARKS[0], MARKS[3]])
    section = by_title(document)["1.1 Ropes"]
    assert section.witnesses == ("contents", "heading")
    assert conflicts(document) == []


def test_numbered_headings_that_no_list_names_are_added(tmp_path):
    document = book(tmp_path / "a.pdf", [[*PLAIN[:3], *PLAIN[4:]]])
    assert by_title(document)["1.2 Lids"].witnesses == ("heading",)


def test_a_line_in_the_style_of_headings_is_left_out_where_the_contents_do_not_name_it(tmp_path):
    titles = ("Wells", "Ropes", "Lids", "Buckets", "Wood", "Iron")
    contents = [("h1", "Contents"), *(("toc0", f"{t}|{k + 1}") for k, t in enumerate(titles))]
    pages = [contents, *([("h1", title), TEXT, TEXT] for title in titles)]
    pages[3] = [("h1", "Lids"), TEXT, ("h1", "Attention please"), TEXT]
    make_pdf(tmp_path / "a.pdf", pages, labels=["i", *"123456"])
    assert "Attention please" not in by_title(read_document(tmp_path / "a.pdf"))


def test_what_writers_forget_to_list_is_a_section(tmp_path):
    titles = ("Wells", "Ropes", "Lids", "Buckets", "Wood", "Iron")
    contents = [("h1", "Contents"), *(("toc0", f"{t}|{k + 1}") for k, t in enumerate(titles))]
    pages = [contents, *([("h1", title), TEXT, TEXT] for title in (*titles, "Bibliography"))]
    make_pdf(tmp_path / "a.pdf", pages, labels=["i", *"1234567"])
    last = read_document(tmp_path / "a.pdf").outline.sections[-1]
    assert (last.title, last.page) == ("Bibliography", 7)


def test_an_entry_whose_words_stand_nowhere_is_kept_in_its_place(tmp_path):
    contents = [*PLAIN[:3], ("toc1", "1.1a Chains and cords|2"), *PLAIN[3:]]
    outline = book(tmp_path / "a.pdf", [contents]).outline
    names = [s.title for s in outline.sections]
    assert names.index("1.1a Chains and cords") == names.index("1.1 Ropes") + 1
    assert outline.sections[names.index("1.1a Chains and cords")].witnesses == ("contents",)


def test_without_any_witness_there_are_parts_by_pages(tmp_path):
    make_pdf(tmp_path / "a.pdf", plain_pages(12))
    outline = read_document(tmp_path / "a.pdf").outline
    assert outline.is_by_pages
    assert outline.sections[0].title.startswith("Pages 1 to 2: In May of year 0")
    assert outline.sections[-1].end_page == 11
    assert all(not s.witnesses for s in outline.sections)


def test_a_short_document_without_witnesses_is_left_whole(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[TEXT], [TEXT]])
    assert read_document(tmp_path / "a.pdf").outline.sections == ()


@pytest.mark.parametrize("run_in", ["1.1.1 Siting", "1.1.2 Depth"])
@pytest.mark.parametrize("gap", [0, 14])
def test_numbered_run_in_headings_count_on(tmp_path, run_in, gap):
    """Each ends in a full stop; or its number stands off its title, which ends with its face."""
    from reportlab.lib.pagesizes import A4
    from reportlab.pdfgen.canvas import Canvas

    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)

    def write(y, pieces):
        x = 72
        for font, size, words in pieces:
            canvas.setFont(font, size)
            canvas.drawString(x, y, words)
            x += canvas.stringWidth(words + " ", font, size)

    body = "The well stands where the ground is firm and no cattle come to it at night."
    write(760, [("Times-Bold", 18, "1 Wells")])
    write(740, [("Times-Roman", 11, body)])
    write(727, [("Times-Roman", 11, body)])
    write(700, [("Times-Bold", 14, "1.1 Building one")])
    for k, (number, name) in enumerate((("1.1.1", "Siting"), ("1.1.2", "Depth"))):
        off = " " * (gap // 3) if gap else ""
        title = f"{off}{name}" if gap else f"{name}."
        said = [("Times-Bold", 11, number), ("Times-Bold", 11, title), ("Times-Roman", 11, body)]
        write(660 - 60 * k, said)
        write(646 - 60 * k, [("Times-Roman", 11, f"so late, {body}")])
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    section = by_title(document)[run_in]
    assert section.level == 2
    paragraph = document.paragraphs[section.first_paragraph]
    assert paragraph.kind == "body"
    assert "at night. so late" in paragraph.text


def test_headings_in_two_columns_are_found_in_their_order(tmp_path):
    from reportlab.lib.pagesizes import A4
    from reportlab.pdfgen.canvas import Canvas

    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4)
    body = "The well stands where the ground is firm"
    names = ["1 Wells", "2 Ropes", "3 Lids", "4 Wood"]
    for k, x in enumerate((60, 320)):
        for part in range(2):
            top = 760 - 300 * part
            canvas.setFont("Times-Bold", 14)
            canvas.drawString(x, top, names[2 * k + part])
            canvas.setFont("Times-Roman", 10)
            for line in range(16):
                canvas.drawString(x, top - 20 - 13 * line, body)
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    assert [s.title for s in document.outline.sections] == names


# --- matching titles


def test_titles_that_differ_in_their_figures_are_others():
    assert not alike("22.27 Version 3.9.1", "Version 3.9.4")
    assert similarity("Version 3.9.4", "22.26 Version 3.9.4") == 1.0


@pytest.mark.parametrize(
    ("a", "b", "differ"),
    [
        ("9.3 Closing error", "Closing Error", False),
        ("Closing error", "Closing mistake", True),
        ("Package fields: Depends, Recommends", "Package fields", False),
        ("T h e well", "The well", False),
        ("Wells & buckets", "Wells and buckets", False),
        ("The well", "The bucket", True),
    ],
)
def test_wordings_differ_when_they_say_something_else(a, b, differ):
    assert words_differ(a, b) is differ
    assert words_differ(b, a) is differ


def test_lists_are_matched_in_order_across_moved_and_reworded_titles():
    first = [Named("Wells", 1), Named("Examples", 2), Named("Lids", 9), Named("Examples", 4),
             Named("Cords", 5, 100.0)]  # fmt: skip
    second = [Named("Wells", 1), Named("Examples", 2), Named("Lids", 3), Named("Examples", 4),
              Named("Ropes", 5, 104.0), Named("Wood", 6)]  # fmt: skip
    assert align(first, second) == [(0, 0), (1, 1), (2, 2), (3, 3), (4, 4)]


@settings(max_examples=60)
@given(st.lists(st.sampled_from("abcdefgh"), max_size=14), st.data())
def test_a_list_is_matched_whole_with_itself_and_in_order_with_parts_of_it(names, data):
    items = [Named(f"Section on {name * 3}", k) for k, name in enumerate(names)]
    assert align(items, items) == [(k, k) for k in range(len(items))]
    kept = sorted(data.draw(st.sets(st.integers(0, max(len(items) - 1, 0)), max_size=8)))
    part = [items[k] for k in kept if k < len(items)]
    pairs = align(part, items)
    assert pairs == sorted(pairs)
    assert len({a for a, _ in pairs}) == len({b for _, b in pairs}) == len(pairs)
    assert all(similarity(part[a].title, items[b].title) == 1.0 for a, b in pairs)


@given(st.lists(st.integers(-3, 9), max_size=30))
def test_levels_never_jump_down_by_more_than_one(ranks):
    levels = without_jumps(ranks)
    assert all(level >= 0 for level in levels)
    assert all(b <= a + 1 for a, b in pairwise(levels))
    assert levels[:1] in ([], [0])


def test_letters_without_meaning_give_way_to_the_bookmark():
    readings = [Reading("bookmark", "Kinds of rope", 0, 1, 0.0),
                Reading("heading", "p MH g 1H", 0, 1, 0.0)]  # fmt: skip
    title, why = _chosen_title(readings)
    assert title == "Kinds of rope"
    assert "no meaning" in why
    assert _chosen_title(
        [readings[0], Reading("heading", "Sorts of cord", 0, 1, 0.0)]
    )[0] == "Sorts of cord"  # fmt: skip


def test_a_bookmark_without_a_height_stands_where_a_paragraph_begins_with_it(tmp_path):
    path = tmp_path / "a.pdf"
    plain = "The keeper reads the staff every morning and writes the height into the book."
    page = [("h1", "1 Wells"), ("text", plain), ("h1", "2 Ropes"), ("text", plain),
            ("text", f"Hemp {plain}"), ("text", plain)]  # fmt: skip
    marks = [("1 Wells", 0, 0), ("2 Ropes", 0, 0), ("Hemp", 1, 0), ("Of flax", 1, 0)]
    make_pdf(path, [page, [("h1", "3 Lids"), ("text", plain)]], bookmarks=marks)
    document = read_document(path)
    found = [(s.title, s.level) for s in document.outline.sections]
    assert found == [("1 Wells", 0), ("2 Ropes", 0), ("Hemp", 1), ("Of flax", 1), ("3 Lids", 0)]
    hemp = by_title(document)["Hemp"]
    assert document.paragraphs[hemp.first_paragraph].text.startswith("Hemp The keeper")


EVERYWHERE = (0.0, 0.0, 1.0, 1.0)


def record(title, heading, listed):
    """What headings and, unless None, a contents page say of a section: its levels."""
    style = Style(12.0, True, False, False)
    return Record(
        heading=Heading(title, heading, 0, 0.0, 0, EVERYWHERE, style),
        contents=None if listed is None else ContentsEntry(title, listed, "", None, 0, EVERYWHERE),
    )


def test_a_contents_page_of_sections_tells_the_levels_of_what_is_set_alike():
    """It names less than half of all; what it leaves out are the parts of what it has."""
    functions = [
        record(title, *levels)
        for name in ("wind", "lift", "drop", "close", "oil", "haul")
        for title, levels in ((name, (1, 2)), ("Usage", (2, None)), ("Remarks", (2, None)))
    ]
    records = [record("1 Wells", 0, 0), record("1.1 Lids", 1, 1), record("1.2 Use", 1, 1)]
    last = [record("1.3 Examples", 2, 1)]  # its type misleads
    levels = settle_levels([*records, *functions, *last])
    assert levels == [0, 1, 1, *[2, 3, 3] * 6, 1]


def test_a_contents_page_that_leaves_out_sections_does_not_tell_their_levels():
    listed = [record(f"{n} Wells", 0, n % 2) for n in range(1, 6)]
    others = [record(f"Rope of {name}", 0, None) for name in "abcdefghij"]
    assert settle_levels([*listed, *others]) == [0] * 15


def test_a_chapter_whose_number_is_a_word_on_its_page_has_that_of_the_contents(tmp_path):
    contents = [("h1", "Contents"), ("toc0", "1 Wells|2"), ("toc0", "2 Buckets|3"),
                ("toc0", "3 Ropes|4")]  # fmt: skip
    titles = ("Wells", "Buckets", "Ropes")
    pages = [
        [("h1", number), ("h1", title.upper()), *plain_pages(1)[0]]
        for number, title in zip(("ONE", "TWO", "THREE"), titles, strict=True)
    ]
    make_pdf(tmp_path / "a.pdf", [contents, *pages], bookmarks=[
        (title, 0, page) for page, title in enumerate(titles, start=1)
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert [s.title for s in document.outline.sections] == ["1 Wells", "2 Buckets", "3 Ropes"]
    assert named_reach(document, "chapter 2").first_page == 2
