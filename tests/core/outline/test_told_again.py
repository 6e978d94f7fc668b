"""A page that only lists headings of later pages has none of its own."""

import pytest

from tests.making import make_pdf, read_document

SAID = "The keeper reads the staff every morning and writes the height into the book of the well."
LISTED = ("3.4 Ropes", "3.5 Lids", "3.6 Drums", "4 Gates")


def titles_of(tmp_path, first, chapters=LISTED, marks=()):
    pages = [[("h1", title), ("text", SAID), ("text", SAID)] for title in chapters]
    front = [("title", "Keeping Wells"), ("text", SAID), ("text", SAID)]
    make_pdf(tmp_path / "a.pdf", [front, first, *pages], bookmarks=marks)
    outline = read_document(tmp_path / "a.pdf").outline
    return [(section.title, section.page) for section in outline.sections if section.page]


@pytest.mark.parametrize("more", [("text", "A note"), ("toc1", "4.1 Gauges|14")])
def test_headings_that_later_pages_have_again_are_listed_there(tmp_path, more):
    listed = [*(("h1", title) for title in LISTED), ("text", "A note"), more]
    expected = [(title, page) for page, title in enumerate(LISTED, start=2)]
    assert titles_of(tmp_path, listed) == expected


@pytest.mark.parametrize(
    "page",
    [
        [("h1", LISTED[0])],  # a title with a page of its own
        [("h1", LISTED[0]), ("code", "wind(rope)"), ("code", "lift(lid, 2)"), ("code", "stop()")],
    ],
)
def test_a_page_of_a_title_alone_and_one_of_code_do_not_list(tmp_path, page):
    assert (LISTED[0], 1) in titles_of(tmp_path, page)


def test_what_bookmarks_name_stays(tmp_path):
    listed = [*(("h1", title) for title in LISTED), ("text", "A note"), ("text", "A word")]
    marks = [(title, 0, page) for page in (1, 2) for title in LISTED[:1]]
    assert (LISTED[0], 1) in titles_of(tmp_path, listed, marks=marks)


@pytest.mark.parametrize(
    ("said", "numbers"),
    [
        (SAID, True),  # there is text under them
        ("A note", False),  # parts of each chapter are called alike
    ],
)
def test_headings_over_text_and_those_without_numbers_stay(tmp_path, said, numbers):
    chapters = LISTED if numbers else [title.split()[1] for title in LISTED]
    listed = [*(("h1", title) for title in chapters), ("text", said), ("text", said)]
    found = titles_of(tmp_path, listed, chapters)
    assert [title for title, page in found if page == 1] == list(chapters)
