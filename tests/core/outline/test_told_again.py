"""A page that only lists headings of later pages has none of its own."""

import pytest

from tests.making import make_pdf, read_document

SAID = "The keeper reads the staff every morning and writes the height into the book of the well."
LISTED = ("3.4 Ropes", "3.5 Lids", "3.6 Drums", "4 Gates")


def titles_of(tmp_path, first, chapters=LISTED):
    pages = [[("h1", title), ("text", SAID), ("text", SAID)] for title in chapters]
    front = [("title", "Keeping Wells"), ("text", SAID), ("text", SAID)]
    make_pdf(tmp_path / "a.pdf", [front, first, *pages])
    outline = read_document(tmp_path / "a.pdf").outline
    return [(section.title, section.page) for section in outline.sections if section.page]


@pytest.mark.parametrize(
    "row", [("text", "4.1 Gauges . . . . 14"), ("row", "4.1 Gauges . . . .|14")]
)
def test_headings_that_later_pages_have_again_are_listed_there(tmp_path, row):
    listed = [*(("h1", title) for title in LISTED), ("text", "A note"), ("text", row[1])]
    expected = [(title, page) for page, title in enumerate(LISTED, start=2)]
    assert titles_of(tmp_path, listed) == expected


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
