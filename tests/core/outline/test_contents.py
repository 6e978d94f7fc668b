"""The printed contents page: found, parsed, and mapped to pages of the file."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.outline.build import _is_listed
from wide_margin.core.outline.candidates import Style
from wide_margin.core.outline.contents import Contents, ContentsEntry, _entries_of
from wide_margin.core.outline.contents_rows import Row
from wide_margin.core.outline.headings import Heading
from wide_margin.core.outline.reconcile import Record

TEXT = (
    "text",
    "A plain sentence that is long enough to be running text, and no heading at all, since it goes"
    " on and on until the line is full and another one has to be begun.",
)
CHAPTERS = ("1 Wells", "1.1 Ropes", "1.2 Lids", "2 Buckets", "2.1 Wood", "2.2 Iron")
PLAIN = [
    ("h1", "Contents"), ("toc0", "1 Wells|1"), ("toc1", "1.1 Ropes|2"), ("toc1", "1.2 Lids|3"),
    ("toc0", "2 Buckets|4"), ("toc1", "2.1 Wood|5"), ("toc1", "2.2 Iron|6"),
]  # fmt: skip


def chapter(title):
    return [("h1" if " " in title and "." not in title.split()[0] else "h2", title), TEXT, TEXT]


def book(path, contents, *, titles=CHAPTERS, front=1, labels=True, bookmarks=()):
    """Contents pages in front (roman numbers), then one page for each title (arabic)."""
    pages = [*contents, *(chapter(title) for title in titles)]
    front = len(contents)
    romans = ("i", "ii", "iii", "iv")
    printed = [*romans[:front], *(str(k + 1) for k in range(len(titles)))]
    make_pdf(path, pages, numbers=labels, labels=printed, bookmarks=bookmarks)
    return read_document(path)


def entries(document):
    return [(e.title, e.level, e.printed, e.page) for e in document.contents.entries]


def test_entries_have_levels_numbers_and_pages(tmp_path):
    document = book(tmp_path / "a.pdf", [PLAIN])
    assert entries(document) == [
        ("1 Wells", 0, "1", 1), ("1.1 Ropes", 1, "2", 2), ("1.2 Lids", 1, "3", 3),
        ("2 Buckets", 0, "4", 4), ("2.1 Wood", 1, "5", 5), ("2.2 Iron", 1, "6", 6),
    ]  # fmt: skip
    assert document.contents.pages == {0}


def test_a_contents_page_needs_no_leaders(tmp_path):
    bare = [(style, text.replace("|", "||")) for style, text in PLAIN]
    document = book(tmp_path / "a.pdf", [bare])
    assert [row[:3] for row in entries(document)] == [
        ("1 Wells", 0, "1"), ("1.1 Ropes", 1, "2"), ("1.2 Lids", 1, "3"),
        ("2 Buckets", 0, "4"), ("2.1 Wood", 1, "5"), ("2.2 Iron", 1, "6"),
    ]  # fmt: skip


@pytest.mark.parametrize("title", ["Table of Contents", "Inhaltsverzeichnis", "Sommaire",
                                   "Table des matières", "Índice general"])  # fmt: skip
def test_a_contents_page_is_known_by_its_title_in_several_languages(tmp_path, title):
    document = book(tmp_path / "a.pdf", [[("h1", title), *PLAIN[1:4]]], titles=CHAPTERS[:3])
    assert [e.title for e in document.contents.entries] == ["1 Wells", "1.1 Ropes", "1.2 Lids"]


def test_contents_go_on_over_several_pages(tmp_path):
    document = book(tmp_path / "a.pdf", [PLAIN[:4], PLAIN[4:]])
    assert [e.title for e in document.contents.entries] == list(CHAPTERS)
    assert document.contents.pages == {0, 1}
    assert [e.page for e in document.contents.entries] == [2, 3, 4, 5, 6, 7]


def test_contents_go_on_under_their_title_as_running_head(tmp_path):
    head = [("toc0", "Contents|ii")]
    document = book(tmp_path / "a.pdf", [PLAIN[:4], [*head, *PLAIN[4:]]])
    assert [e.title for e in document.contents.entries] == list(CHAPTERS)


def test_a_title_over_two_lines_is_one_entry(tmp_path):
    contents = [*PLAIN[:2], ("toc1", "1.1 Ropes and what they are/made of in these islands|2"),
                *PLAIN[3:]]  # fmt: skip
    titles = list(CHAPTERS)
    titles[1] = "1.1 Ropes and what they are made of in these islands"
    document = book(tmp_path / "a.pdf", [contents], titles=titles)
    assert document.contents.entries[1].title == titles[1]
    assert document.outline.sections[1].witnesses == ("contents", "heading")


def test_indentation_tells_levels_where_numbers_do_not(tmp_path):
    names = ("Wells", "Ropes", "Lids", "Buckets", "Wood", "Iron")
    contents = [("h1", "Contents")]
    for k, (name, level) in enumerate(zip(names, (0, 1, 1, 0, 1, 2), strict=True)):
        contents.append((f"toc{level}", f"{name}|{k + 1}"))
    document = book(tmp_path / "a.pdf", [contents], titles=names)
    assert [e.level for e in document.contents.entries] == [0, 1, 1, 0, 1, 2]


def test_a_part_without_a_number_starts_with_its_first_chapter(tmp_path):
    contents = [("h1", "Contents"), ("toc0", "Part I Water"), *PLAIN[1:]]
    document = book(tmp_path / "a.pdf", [contents])
    part = document.contents.entries[0]
    assert (part.title, part.printed, part.page) == ("Part I Water", "", 1)


def test_roman_and_arabic_numbers_go_to_their_own_pages(tmp_path):
    pages = [
        [("h1", "Contents"), ("toc0", "Preface|ii"), ("toc0", "1 Wells|1"), ("toc0", "2 Lids|2"),
         ("toc0", "3 Ropes|3")],
        [("h1", "Preface"), TEXT, TEXT], [("h1", "1 Wells"), TEXT, TEXT],
        [("h1", "2 Lids"), TEXT, TEXT], [("h1", "3 Ropes"), TEXT, TEXT],
    ]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages, labels=["i", "ii", "1", "2", "3"])
    document = read_document(tmp_path / "a.pdf")
    assert [e.page for e in document.contents.entries] == [1, 2, 3, 4]
    assert not document.outline.disputed


def test_printed_numbers_lead_to_pages_where_no_page_has_a_label(tmp_path):
    document = book(tmp_path / "a.pdf", [PLAIN], labels=False)
    assert not any(document.labels.labels)
    assert [e.page for e in document.contents.entries] == [1, 2, 3, 4, 5, 6]


def test_lists_of_figures_are_kept_apart(tmp_path):
    figures = [("h1", "List of Figures"), ("toc0", "1 A well seen from above|1"),
               ("toc0", "2 A bucket|4")]  # fmt: skip
    document = book(tmp_path / "a.pdf", [[*PLAIN, *figures]])
    assert [e.title for e in document.contents.entries] == list(CHAPTERS)
    assert [(e.title, e.page) for e in document.contents.figures] == [
        ("1 A well seen from above", 1), ("2 A bucket", 4)
    ]  # fmt: skip


def test_of_a_short_and_a_full_table_the_full_one_counts(tmp_path):
    short = [("h1", "Brief Contents"), ("toc0", "1 Wells|1"), ("toc0", "2 Buckets|4"),
             ("toc0", "Index|9")]  # fmt: skip
    document = book(tmp_path / "a.pdf", [short, PLAIN])
    assert [e.title for e in document.contents.entries] == list(CHAPTERS)


def test_an_index_is_no_contents_page(tmp_path):
    words = ["anchor", "bucket", "chain", "drum", "eel", "float", "gauge", "hook"]
    index = [("h1", "Index"), *(("toc0", f"{word}||{n}") for word, n in
                                zip(words, (5, 2, 6, 1, 3, 6, 2, 4), strict=True))]  # fmt: skip
    pages = [*(chapter(title) for title in CHAPTERS), index]
    make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    assert document.contents.entries == ()
    assert [s.title for s in document.outline.sections][:6] == list(CHAPTERS)


def test_running_text_that_ends_in_numbers_is_no_contents_page(tmp_path):
    rows = [("text", f"In {year} the well was cleaned and the rope renewed in May {day}")
            for year, day in ((1951, 4), (1952, 9), (1953, 2))]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Wells"), *rows, TEXT, TEXT], chapter("2 Lids")])
    assert read_document(tmp_path / "a.pdf").contents.entries == ()


def test_the_handbook_s_contents_are_read_with_the_wrong_entry(handbook):
    by_title = {e.title: e for e in handbook.contents.entries}
    wrong = by_title["9.3 Closing error"]
    assert handbook.labels.find(wrong.printed)[0] == wrong.page
    assert len(handbook.contents.entries) > 100


@pytest.mark.parametrize(("size", "is_bold"), [(14.3, False), (10.9, True)])
def test_the_second_line_of_a_title_may_look_other_for_its_leaders(size, is_bold):
    rows = [
        Row("4 Applying the rope to lift buckets and", "", 0, (90, 100, 440, 100 + size), 0.0, size,
            is_bold, False),
        Row("barrels", "5", 0, (120, 103 + size, 470, 114 + size), 30.0, 10.9, False, True),
        Row("5 Lids", "6", 0, (90, 140, 470, 151), 0.0, 10.9, False, True),
    ]  # fmt: skip
    found = [(entry.title, entry.printed) for entry in _entries_of(rows)]
    assert found == [("4 Applying the rope to lift buckets and barrels", "5"), ("5 Lids", "6")]


@pytest.mark.parametrize(("top", "is_bold"), [(105.0, False), (113.0, True)])
def test_neither_an_accent_nor_bold_leaders_part_a_title(top, is_bold):
    rows = [
        Row("4 What is meant by a rope that holds, lifts,", "", 0, (90, 100, 440, 111), 0.0, 10.9,
            False, False),
        Row("Lowers or turns a bucket", "5", 0, (120, top, 470, 124), 30.0, 10.9, is_bold, True),
        Row("5 Lids", "6", 0, (90, 140, 470, 151), 0.0, 10.9, False, True),
    ]  # fmt: skip
    found = [(entry.title, entry.printed) for entry in _entries_of(rows)]
    title = "4 What is meant by a rope that holds, lifts, Lowers or turns a bucket"
    assert found == [(title, "5"), ("5 Lids", "6")]


def test_a_number_after_a_hyphen_goes_on_with_the_title():
    rows = [
        Row("5.1 Load the ropes that were found in MCF-", "", 0, (90, 100, 440, 111), 0.0, 11.0,
            False, False),
        Row("7 wells", "4", 0, (120, 113, 470, 124), 30.0, 11.0, False, True),
        Row("5.2 Lids", "5", 0, (90, 130, 470, 141), 0.0, 11.0, False, True),
    ]  # fmt: skip
    found = [(entry.title, entry.printed) for entry in _entries_of(rows)]
    assert found == [("5.1 Load the ropes that were found in MCF-7 wells", "4"), ("5.2 Lids", "5")]


def test_the_first_section_may_begin_on_the_page_of_its_contents(tmp_path):
    rows = [("text", f"{title} . . . . . . . . . . . {page}") for title, page in (
        ("1 What wells do", 1), ("2 Ropes", 2), ("2.1 Ropes of hemp", 2), ("2.2 Drums", 3),
        ("3 Lids of zinc", 3), ("3.1 Keepers", 4))]  # fmt: skip
    said = ("text", "Wells are kept by a guild of keepers, and by nobody else in the valley.")
    make_pdf(tmp_path / "a.pdf", [
        [("title", "A Guild"), ("h2", "Contents"), *rows, ("h1", "1 What wells do"), said],
        [("h1", "2 Ropes"), said, ("h2", "2.1 Ropes of hemp"), said],
        [("h2", "2.2 Drums"), said, ("h1", "3 Lids of zinc"), said],
        [("h2", "3.1 Keepers"), said],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    first = next(s for s in document.outline.sections if s.title == "1 What wells do")
    assert "heading" in first.witnesses
    kinds = {s.text: s.kind for s in document.text.sentences if s.page == 0}
    assert kinds[said[1]] == "body"


def test_the_first_section_begins_below_the_last_contents_page(tmp_path):
    more = [("toc0", f"{k} Part {k}|{k + 4}") for k in range(3, 9)]
    begins = [("h1", "1 Wells"), ("text", "A well is a hole in the ground that holds water.")]
    titles = (*CHAPTERS[1:], *(title.partition("|")[0] for _, title in more))
    marks = [("Wells", 0, 1), *((title, int("." in title), k) for k, title in enumerate(titles, 2))]
    document = book(
        tmp_path / "a.pdf", [PLAIN, [*more, *begins]], labels=False, titles=titles, bookmarks=marks
    )
    assert [title for title, *_ in entries(document)].count("1 Wells") == 1
    first, second = document.outline.sections[:2]
    assert (first.title, first.page, second.title) == ("1 Wells", 1, "1.1 Ropes")
    assert first.y > 150  # below the list


@pytest.mark.parametrize(
    ("page", "y", "is_listed"), [(0, 400.0, False), (0, 90.0, True), (1, 90.0, False)]
)
def test_what_stands_below_the_last_entry_is_none(page, y, is_listed):
    entries = tuple(
        ContentsEntry(f"{k} Wells", 0, str(k), None, 0, (72.0, 60.0 + 20 * k, 500.0, 70.0 + 20 * k))
        for k in range(1, 8)
    )
    style = Style(14.0, True, False, False)
    heading = Heading("1 Wells", 0, page, y, 7, (72.0, y, 300.0, y + 14), style)
    record = Record(heading=heading)
    assert _is_listed(record, Contents(entries, (), frozenset([0]))) is is_listed
