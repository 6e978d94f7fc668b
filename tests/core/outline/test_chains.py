"""Headings that the numbers of others ask for, and what hangs under what."""

from collections import Counter

import numpy as np
import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.layout import paragraphs_of
from wide_margin.core.layout.model import Line
from wide_margin.core.outline.candidates import Candidate, Style, style_of
from wide_margin.core.outline.chains import ASKED_FOR, ASKED_FOR_ALIKE, completed, unlinked
from wide_margin.core.outline.type_levels import levels_of

LARGE, PLAIN = Style(14.0, True, False, False), Style(10.0, True, False, False)
BETWEEN = (ASKED_FOR + ASKED_FOR_ALIKE) / 2


def candidates(*rows):
    return [Candidate(title, style, k, k, 80.0, k, 80.0) for k, (title, style) in enumerate(rows)]


def titles(rows, kept, odds):
    found = candidates(*rows)
    return [found[k].title for k in completed(found, kept, np.array(odds, float))]


@pytest.mark.parametrize("style", [LARGE, PLAIN])
def test_what_stands_between_two_numbers_is_asked_for(style):
    rows = [("4.1 Lids", PLAIN), ("4.2 Ropes", style), ("4.3 Chains", PLAIN)]
    assert titles(rows, [0, 2], [3, ASKED_FOR + 0.5, 3]) == [t for t, _ in rows]
    alike = [t for t, s in rows if s is PLAIN]
    assert titles(rows, [0, 2], [3, BETWEEN, 3]) == alike


def test_the_chapter_above_a_section_is_asked_for_and_those_before_it():
    rows = [("1 Wells", LARGE), ("2 Ropes", LARGE), ("2.1 Of hemp", PLAIN)]
    assert titles(rows, [2], [BETWEEN, BETWEEN, 3]) == ["1 Wells", "2 Ropes", "2.1 Of hemp"]


def test_what_stands_elsewhere_is_not_asked_for():
    rows = [("2 Take a bucket", PLAIN), ("1 Wells", LARGE), ("1.1 Deep", PLAIN), ("3 Lids", LARGE)]
    assert "2 Take a bucket" not in titles(rows, [1, 2, 3], [-1, 3, 3, 3])


@pytest.mark.parametrize("chapter", ["Chapter 1. Wells", "Kapitel 1: Brunnen", "Wells"])
def test_sections_of_a_named_chapter_ask_for_none_above_them(chapter):
    rows = [(chapter, LARGE), ("1.1 Lids", PLAIN), ("1 Add a lid", PLAIN), ("1.2 Ropes", PLAIN)]
    asked_for = "1 Add a lid" in titles(rows, [0, 1, 3], [3, 3, -1, 3])
    assert asked_for == (chapter == "Wells")


@pytest.mark.parametrize("title", ["2.2 int lift(void)", "Ropes", "2.4 Chains"])
def test_code_and_what_no_number_asks_for_are_left(title):
    rows = [("2 Wells", LARGE), ("2.1 Lids", PLAIN), (title, PLAIN), ("2.3 Ends", PLAIN)]
    assert title not in titles(rows, [0, 1, 3], [3, 3, 0, 3])


@pytest.mark.parametrize("name", ["integer :: n_turns", "real(kind=dp) :: slack", "wind_up()"])
def test_names_under_numbers_of_their_chain_are_asked_for(name):
    rows = [("2 Wells", LARGE), ("2.1 Lids", PLAIN), (f"2.2 {name}", PLAIN), ("2.3 Ends", PLAIN)]
    assert f"2.2 {name}" in titles(rows, [0, 1, 3], [3, 3, BETWEEN, 3])


def levels(*rows):
    return levels_of(candidates(*rows))


TITLE = Style(20.0, True, False, False)


@pytest.mark.parametrize("name", ["A manual of wells", "Kim Moore"])
def test_chapters_do_not_hang_under_a_title_or_a_name(name):
    rows = [("1 Wells", LARGE), (name, TITLE), ("2 Ropes", LARGE), ("3 Lids", LARGE)]
    assert levels(*rows) == [0, 0, 0, 0]
    assert levels(*rows[1:]) == [0, 0, 0]


@pytest.mark.parametrize("name", ["Contents", "List of Tables", "Abstract"])
def test_nothing_hangs_under_a_list(name):
    assert levels((name, TITLE), ("Wells", LARGE), ("Ropes", LARGE)) == [0, 0, 0]


def test_a_chapter_on_contents_has_sections():
    rows = [("Contents", TITLE), ("Wells", LARGE), ("Contents", LARGE), ("Lids", PLAIN)]
    assert levels(*rows) == [0, 0, 0, 1]


def test_chapters_hang_under_parts_that_come_again():
    rows = [("On the land", TITLE), ("1 Wells", LARGE), ("2 Ropes", LARGE),
            ("At sea", TITLE), ("3 Lids", LARGE), ("4 Chains", LARGE)]  # fmt: skip
    assert levels(*rows) == [0, 1, 1, 0, 1, 1]


@pytest.mark.parametrize(
    ("rows", "expected"),
    [
        (
            ["Chapter 1. Wells", "1. Lids", "2. Ropes", "Chapter 2. Boats", "1. Oars"],
            [0, 1, 1, 0, 1],
        ),
        (["Chapter 1. Wells", "2. Ropes", "Chapter 3. Boats", "4. Oars"], [0, 0, 0, 0]),
    ],
)
def test_sections_whose_numbers_begin_anew_hang_under_chapters_set_alike(rows, expected):
    assert levels(*[(title, PLAIN) for title in rows]) == expected


def test_chapters_that_count_on_stay_level_however_each_is_set():
    slender = Style(14.0, False, False, False)
    rows = [("1 Wells", slender), ("2 Ropes", LARGE), ("3 Lids", LARGE), ("4 Drums", slender)]
    assert levels(*rows) == [0, 0, 0, 0]


def test_a_number_in_no_chain_is_told():
    rows = [("4.7 per cent of all", PLAIN), ("1 Wells", LARGE), ("1.1 Lids", PLAIN),
            ("2.4 Ropes", PLAIN), ("2.5 Chains", PLAIN), ("Ends", PLAIN)]  # fmt: skip
    assert unlinked(candidates(*rows)).tolist() == [True, False, False, False, False, False]


def test_a_document_whose_contents_name_no_heading_has_an_outline(tmp_path):
    listed = [("h2", "Contents"), ("toc0", "Ropes|2"), ("toc0", "Buckets|3"), ("toc0", "Lids|4")]
    text = [("text", "A sentence that goes on and on until it has filled the line it stands in.")]
    make_pdf(tmp_path / "a.pdf", [listed, text, text, text])
    sections = read_document(tmp_path / "a.pdf").outline.sections
    assert sections
    assert all(section.title.startswith("Pages ") for section in sections)


def test_chapters_that_are_set_as_the_parts_are_hang_under_them():
    rows = [("Chapter 1 Wells", LARGE), ("Part I On the land", LARGE), ("Chapter 2 Ropes", LARGE),
            ("2.1 Of hemp", PLAIN), ("Part II At sea", LARGE), ("Chapter 3 Lids", LARGE),
            ("References", LARGE), ("Appendix A Chains", LARGE), ("A.1 Links", PLAIN)]  # fmt: skip
    assert levels(*rows) == [0, 0, 1, 2, 0, 1, 0, 0, 1]
    one_part = [row for row in rows if not row[0].startswith("Part II")]
    assert levels(*one_part)[:3] == [0, 0, 0]


def test_a_bold_title_that_speaks_of_code_is_asked_for():
    title = "2.2 How can I get lift() and wind() to work?"
    rows = [("2 Wells", LARGE), ("2.1 Lids", PLAIN), (title, PLAIN), ("2.3 Ends", PLAIN)]
    assert title in titles(rows, [0, 1, 3], [3, 3, BETWEEN, 3])


LARGER = Style(18.0, True, False, False)
UPRIGHT, SLANTED = Style(14.0, True, False, False), Style(14.0, True, True, False)
SHOUTED = Style(14.0, True, False, True)


def test_of_two_styles_of_one_size_that_is_above_which_comes_first():
    rows = []
    for k in range(3):
        rows += [(f"Wells {k}", LARGER), (f"Lids {k}", SLANTED), (f"Oak {k}", UPRIGHT)]
    assert levels(*rows) == [0, 1, 2] * 3
    swapped = {SLANTED: UPRIGHT, UPRIGHT: SLANTED}
    assert levels(*((title, swapped.get(style, style)) for title, style in rows)) == [0, 1, 2] * 3


def test_one_that_comes_first_only_now_and_then_is_above_by_its_look():
    pair = [("Lids", UPRIGHT), ("Oak", SLANTED)]
    rows = [("Wells", LARGER), *pair, ("Ropes", LARGER), *pair[::-1], ("Chains", LARGER), *pair]
    assert levels(*rows) == [0, 1, 2, 0, 1, 1, 0, 1, 2]


def test_a_few_titles_in_capitals_are_on_the_level_of_their_style():
    rows = [("Wells", LARGER), ("GNU GPL", SHOUTED), *[(f"Lids {k}", UPRIGHT) for k in range(6)],
            ("Ropes", LARGER), ("Oak", SLANTED)]  # fmt: skip
    assert levels(*rows) == [0, *[1] * 7, 0, 1]


def test_chapters_in_capitals_are_above_many_sections_of_their_size():
    part = [(f"Lids {n}", UPRIGHT) for n in range(6)]
    rows = [("WELLS", SHOUTED), *part, ("ROPES", SHOUTED), *part, ("CHAINS", SHOUTED), *part]
    assert levels(*rows) == [0, *[1] * 6] * 3


def test_many_in_capitals_are_above_the_others_of_their_size():
    rows = [row for k in range(3) for row in ((f"WELLS {k}", SHOUTED), (f"Lids {k}", UPRIGHT))]
    assert levels(*rows) == [0, 1] * 3


@pytest.mark.parametrize(("text", "capital"), [("CPU の部品を買う", False), ("CPU BOARDS", True)])
def test_signs_without_case_are_no_capitals(text, capital):
    line = Line(0, text, ((0, len(text)),), (0, 0, 90, 12), 12.0, True, False, False, 0, 0)
    (paragraph,) = paragraphs_of([[line]], 12.0, Counter())
    assert style_of(paragraph).is_capital == capital
