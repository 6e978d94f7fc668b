"""Bold lines that small letters and numerals count are headings; items of lists are not."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.outline.candidates import Candidate, Style
from wide_margin.core.outline.small_numbers import counted_small

BOLD, PLAIN = Style(10.5, True, False, False), Style(10.5, False, False, False)


def told(titles, style=BOLD, step=3):
    found = [Candidate(t, style, step * k, 0, 80.0, k, 80.0) for k, t in enumerate(titles)]
    return [c.title for c in found if c.paragraph in counted_small(found)]


@pytest.mark.parametrize(
    "titles",
    [
        ["a) Wells", "b) Ropes", "a) Lids", "b) Oars", "c) Boats"],
        ["i. Wells", "ii. Ropes", "iii. Lids", "iv. Oars", "v. Boats", "i. Keys", "ii. Doors"],
    ],
)
def test_what_counts_on_in_bold_is_a_heading(titles):
    assert told(titles) == titles
    assert told(titles, style=PLAIN) == []
    assert told(titles, step=1) == []  # a list, with nothing between its items


@pytest.mark.parametrize(
    "titles",
    [
        ["a) Wells", "b) Ropes", "c) Lids"],
        ["a) Wells", "d) Ropes", "b) Lids", "x) Oars"],
        ["a) Wells", "a) Ropes", "a) Lids", "a) Oars"],
    ],
)
def test_few_and_such_as_do_not_count_on_are_none(titles):
    assert told(titles) == []


def test_they_hang_under_the_sections_that_a_contents_page_lists(tmp_path):
    said = ("text", "The rope is drawn up by hand, and the lid is closed as soon as it is. " * 6)
    names = ["Account of ropes", "Drums", "Oiling", "Hauling"]
    parts = [
        block
        for numeral, name in zip(("i", "ii", "iii", "iv"), names, strict=True)
        for block in (("bold", f"{numeral}. {name}"), said)
    ]
    pages = [[("h1", "Contents"), ("toc0", "1. Wells|2"), ("toc0", "2. Winding|3")],
             [("h1", "1. Wells"), said, said], [("h1", "2. Winding"), said, *parts]]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    sections = [(s.title, s.level) for s in read_document(tmp_path / "a.pdf").outline.sections]
    assert sections[:2] == [("1. Wells", 0), ("2. Winding", 0)]
    assert [title for title, level in sections[2:] if level == 1] == [
        f"{numeral}. {name}" for numeral, name in zip(("i", "ii", "iii", "iv"), names, strict=True)
    ]
