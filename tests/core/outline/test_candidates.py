"""What may be a heading, and which of it looks like one."""

from collections import Counter
from dataclasses import replace

import numpy as np
import pytest

from wide_margin.core.layout import paragraphs_of
from wide_margin.core.layout.model import Line
from wide_margin.core.outline.candidates import (
    Candidate,
    Style,
    find_candidates,
    is_label,
    unspaced,
)
from wide_margin.core.outline.heading_signs import SIGNS, signs_of
from wide_margin.core.outline.headings import _near_their_like, _recur
from wide_margin.core.outline.prominence import look_of, usual_headings

BODY = "The keeper reads the staff every morning and writes the height into the book at once."


def line(page, text, y, **changes):
    size = changes.get("size", 10.0)
    values = {"page": page, "text": text, "spans": ((0, len(text)),),
              "box": (72.0, y, 72.0 + 5 * len(text), y + size), "size": size, "is_bold": False,
              "is_italic": False, "is_fixed": False, "lead": 0, "column": 0,
              "face": "Serif"}  # fmt: skip
    return Line(**{**values, **changes})


def pages_of(headings):
    """A page for each heading, with text under it."""
    pages = []
    for page, (text, changes) in enumerate(headings):
        size = changes.get("size", 10.0)
        head = line(page, text, 80.0, **changes)
        under = [line(page, BODY, 92.0 + size + 14 * k + 20 * (k // 2)) for k in range(8)]
        pages.append([head, *under])
    return paragraphs_of(pages, 10.0, Counter())


def usual(paragraphs):
    candidates = find_candidates(paragraphs, 10.0, "Serif", frozenset())
    look = look_of(candidates, paragraphs, 10.0)
    flags = usual_headings(candidates, look, 10.0, len(paragraphs), "Serif")
    return [c.title for c, flag in zip(candidates, flags, strict=True) if flag]


@pytest.mark.parametrize(
    "changes",
    [{"size": 14.0}, {"is_bold": True}, {"size": 12.0, "is_bold": True, "face": "Sans"}],
)
def test_what_is_larger_or_heavier_looks_like_a_heading(changes):
    names = ["Wells", "Ropes", "Buckets", "Lids", "Chains"]
    assert usual(pages_of([(name, changes) for name in names])) == names


SETS_OUT = ["Wells", "Ropes", "Buckets", "Lids", "Chains"]


@pytest.mark.parametrize("also", ["oiling", "Steps to take:", "rope_of_well"])
def test_what_is_set_as_only_headings_are_is_one_whatever_its_letters(also):
    apart = {"is_bold": True, "face": "Sans"}
    pages = [(name, apart) for name in (*SETS_OUT, also)]
    assert usual(pages_of(pages)) == [*SETS_OUT, also]
    as_text = [(name, {"is_bold": True}) for name in (*SETS_OUT, also)]
    assert usual(pages_of(as_text)) == SETS_OUT
    few = [(name, apart) for name in (*SETS_OUT[:4], also)]
    assert usual(pages_of(few)) == SETS_OUT[:4]


@pytest.mark.parametrize("changes", [{"face": "Sans"}, {"is_italic": True}, {"is_caps": True}])
def test_another_face_italics_and_small_capitals_may_be_headings(changes):
    paragraphs = pages_of([(name, changes) for name in ("Wells", "Ropes", "Buckets")])
    titles = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]
    assert titles == ["Wells", "Ropes", "Buckets"]


def test_code_and_plain_text_are_no_candidates():
    paragraphs = pages_of([("print(wells)", {"is_fixed": True, "face": "Mono"}), ("ropes", {})])
    assert find_candidates(paragraphs, 10.0, "Serif", frozenset()) == []


def test_data_of_an_example_are_no_candidates():
    names = ["Wells", "AACC---TG", "Ropes - Drums", "Re-use"]
    paragraphs = pages_of([(name, {"is_bold": True}) for name in names])
    titles = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]
    assert titles == ["Wells", "Ropes - Drums", "Re-use"]


def test_entries_of_a_contents_page_are_passed_over():
    paragraphs = pages_of([("Wells", {"is_bold": True}), ("Ropes", {"is_bold": True})])
    first = next(k for k, p in enumerate(paragraphs) if p.text == "Wells")
    titles = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset({first}))]
    assert titles == ["Ropes"]


def test_a_label_on_a_line_of_its_own_is_joined_to_its_title():
    page = [line(0, "Глава 2", 60.0, size=16.0), line(0, "Ведро", 84.0, size=20.0),
            *[line(0, BODY, 120.0 + 14 * k) for k in range(5)]]  # fmt: skip
    paragraphs = paragraphs_of([page], 10.0, Counter())
    assert [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())] == [
        "Глава 2 Ведро"
    ]


@pytest.mark.parametrize(
    ("said", "is_one"),
    [("Copyright © 2008 Holm AB, All Rights Reserved", False), ("© 2008 Ann Bale", False),
     ("Copyright and licence", True)],
)  # fmt: skip
def test_who_holds_the_rights_is_no_heading(said, is_one):
    page = [line(0, said, 60.0, size=16.0, is_bold=True),
            *[line(0, BODY, 120.0 + 14 * k) for k in range(5)]]  # fmt: skip
    paragraphs = paragraphs_of([page], 10.0, Counter())
    found = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]
    assert found == ([said] if is_one else [])


@pytest.mark.parametrize(("x", "title"), [(520.0, "Wells"), (72.0, "17 Wells")])
def test_the_number_of_the_page_in_its_corner_is_no_part_of_a_title(x, title):
    number = line(0, "17", 40.0, size=12.0, box=(x, 40.0, x + 12, 52.0))
    under = [line(0, BODY, 120.0 + 14 * k) for k in range(5)]
    page = [number, line(0, "Wells", 70.0, size=18.0), *under]
    paragraphs = paragraphs_of([page], 10.0, Counter())
    assert [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())] == [title]


@pytest.mark.parametrize(
    ("text", "expected"),
    [("Chapter 3", True), ("Kapitel IV", True), ("Часть 2", True), ("Seven", True),
     ("Chapter 3 Wells", False), ("Wells", False), ("", False)],
)  # fmt: skip
def test_labels_of_parts_are_known_in_many_languages(text, expected):
    assert is_label(text) is expected


def test_a_title_that_begins_with_chapter_is_no_label():
    rows = [("Chapter 2", 80.0, 20.0), ("Chapter Title", 120.0, 24.0), ("2.1 Ropes", 180.0, 14.0)]
    lines = [line(0, text, y, size=size, is_bold=True) for text, y, size in rows]
    assert candidates_among(lines) == ["Chapter 2 Chapter Title", "2.1 Ropes"]


def test_letters_set_apart_are_a_word():
    assert unspaced("C O N T E N T S") == "CONTENTS"
    assert unspaced("A to Z") == "A to Z"


def test_every_sign_has_a_column_and_a_value():
    paragraphs = pages_of([("1 Wells", {"is_bold": True}), ("2 Ropes", {"is_bold": True})])
    candidates = find_candidates(paragraphs, 10.0, "Serif", frozenset())
    look = look_of(candidates, paragraphs, 10.0)
    signs = signs_of(candidates, paragraphs, 10.0, "Serif", look, frozenset({"1wells", "wells"}), 2)
    assert signs.shape == (2, len(SIGNS))
    by_name = {name: signs[:, k].tolist() for k, name in enumerate(SIGNS)}
    assert by_name["numbered"] == [1, 1]
    assert by_name["counts on"] == [1, 1]
    assert by_name["in contents"] == [1, 0]
    assert by_name["text after"] == [1, 1]
    assert by_name["bold"] == [1, 1]


def test_the_mark_of_a_footnote_is_no_part_of_a_title():
    text = "2.1 Solving of conflicts4"
    marks = ((len(text) - 1, len(text)),)
    paragraphs = pages_of([(text, {"size": 14.0, "is_bold": True, "marks": marks})])
    titles = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]
    assert titles == ["2.1 Solving of conflicts"]


@pytest.mark.parametrize(
    ("text", "title"),
    [("3.1.2 wind() Rope* Tower::wind (", "3.1.2 wind()"),
     ("3.1.2 put() [2/3] void Tower::put (int turns)", "3.1.2 put() [2/3]"),
     ("3.1.2 wind() and unwind()", "3.1.2 wind() and unwind()"),
     ("3.1.2 Calling wind() from a tower (old)", "3.1.2 Calling wind() from a tower (old)")],
)  # fmt: skip
def test_a_function_is_called_by_its_name_and_not_by_what_it_takes(text, title):
    paragraphs = pages_of([(text, {"is_bold": True})])
    assert find_candidates(paragraphs, 10.0, "Serif", frozenset())[0].title == title


def test_a_version_that_stands_out_may_be_a_title():
    for text, changes, n in (
        ("[2015/06/01 v0.1]", {"size": 12.0, "is_bold": True}, 1),
        ("[2015/06/01 v0.1]", {"is_bold": True}, 0),
        ("12 345 678", {"size": 12.0, "is_bold": True}, 0),
    ):
        paragraphs = pages_of([(text, changes)])
        assert len(find_candidates(paragraphs, 10.0, "Serif", frozenset())) == n


@pytest.mark.parametrize("signs", ["P P P h h T", "0 S S S S# S", "2 4 h h h h h h N"])
def test_notes_of_music_are_no_candidates(signs):
    paragraphs = pages_of([("Wells", {"size": 14.0}), (signs, {"size": 20.0, "face": "Signs"})])
    assert usual(paragraphs) == ["Wells"]


def test_a_word_whose_letters_stand_apart_is_a_candidate():
    paragraphs = pages_of([("O R G A N I Z A T I O N", {"size": 14.0})])
    assert usual(paragraphs) == ["ORGANIZATION"]


@pytest.mark.parametrize(
    ("left", "title"),
    [(300.0, "2 Functions to build and mend wells"), (80.0, "Functions to")],
)
def test_a_number_beside_the_middle_of_a_title_stands_before_all_of_it(left, title):
    def of_title(text, y, x, **more):
        return line(0, text, y, size=30.0, is_bold=True, box=(x, y, 520.0, y + 30), **more)

    cells = ((72.0, 90.0), (310.0, 520.0))
    page = [
        of_title("Functions to", 60.0, left), of_title("2\tbuild and", 96.0, 72.0, cells=cells),
        of_title("mend wells", 132.0, 320.0),
        *[line(0, BODY, 220.0 + 14 * k) for k in range(5)],
    ]  # fmt: skip
    paragraphs = paragraphs_of([page], 10.0, Counter())
    found = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]
    assert found[0] == title


def test_a_number_beside_the_third_line_of_a_title_stands_before_all_of_it():
    def of_title(text, y, x, **more):
        return line(0, text, y, size=30.0, is_bold=True, box=(x, y, 520.0, y + 30), **more)

    cells = ((72.0, 90.0), (250.0, 520.0))
    page = [
        of_title("Functions that", 60.0, 300.0), of_title("build and", 96.0, 310.0),
        of_title("2\tmend and close", 132.0, 72.0, cells=cells), of_title("wells", 168.0, 390.0),
        *[line(0, BODY, 260.0 + 14 * k) for k in range(5)],
    ]  # fmt: skip
    assert candidates_among(page)[0] == "2 Functions that build and mend and close wells"


CHINESE = (
    "井是地上的一个深洞用来储存清水夜里必须盖好盖子绳子每过十八个月更换一次无论它看上去是否已经磨损"
    * 2
)
"""A paragraph of Chinese text, without a blank in it."""


@pytest.mark.parametrize("size", [10.0, 11.5])
def test_headings_before_the_first_chinese_text_are_headings(size):
    """Its words are counted though no blanks part them, and it may be larger than much code."""
    page = [
        line(0, "水井手册", 60.0, size=24.0), line(0, "第 1 节 简介", 110.0, size=14.0),
        line(0, CHINESE, 140.0, size=size), line(0, "第 2 节 用法", 200.0, size=14.0),
        line(0, CHINESE, 230.0, size=size),
    ]  # fmt: skip
    more = [line(k, f"{BODY} {BODY}", 100.0 + 40 * j) for k in (1, 2, 3, 4, 5) for j in range(8)]
    paragraphs = paragraphs_of([page, more], 10.0, Counter())
    assert [title for title in usual(paragraphs) if title[0] == "第"] == [
        "第 1 节 简介", "第 2 节 用法"
    ]  # fmt: skip


@pytest.mark.parametrize("label", ["第 3 章", "第三章", "제 3 장", "제 II 편"])
def test_a_label_in_signs_on_a_line_of_its_own_stands_before_its_title(label):
    page = [line(0, label, 60.0, size=17.0), line(0, "水井 우물", 110.0, size=20.0),
            *[line(0, BODY, 180.0 + 14 * k) for k in range(4)]]  # fmt: skip
    assert candidates_among(page)[0] == f"{label} 水井 우물"


def candidates_among(lines):
    paragraphs = paragraphs_of([lines], 10.0, Counter())
    return [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]


def test_rows_that_count_line_by_line_are_no_headings():
    head = line(0, "1 Wells", 60.0, size=14.0)
    rows = [line(0, f"{k + 1}\tWELL HOUSE\t0.0{k}1", 100 + 12 * k) for k in range(5)]
    assert candidates_among([head, *rows]) == ["1 Wells"]
    apart = [line(0, f"{k + 1} Of Ropes", 100 + 90 * k) for k in range(3)]
    assert candidates_among([head, *apart]) == ["1 Wells", "1 Of Ropes", "2 Of Ropes", "3 Of Ropes"]


def test_a_line_of_a_program_is_no_heading_for_its_number():
    code = line(0, "12 draw the bucket up", 200.0, is_fixed=True, face="Mono")
    assert candidates_among([code]) == []
    deep = line(0, "1.2 draw the bucket up", 200.0, is_fixed=True, face="Mono")
    assert candidates_among([deep]) == ["1.2 draw the bucket up"]
    plain = line(0, "12 Of Ropes", 200.0, is_fixed=True)
    assert candidates_among([plain]) == ["12 Of Ropes"]  # all of the text is set so


def test_what_is_nearly_as_sure_as_most_of_its_style_is_a_heading_as_well():
    names = [f"Of the {letter} wells" for letter in "ABCDEFGHIJKL"]
    pages = pages_of([(name, {"size": 12.0, "is_italic": True}) for name in names])
    found = find_candidates(pages, 10.0, "Serif", frozenset())
    odds = np.array([-1.5] * 8 + [-2.3, -2.3, -2.9, -2.3])
    seems, least = np.array([True] * 11 + [False]), np.full(12, -2.0)
    stands = seems & (odds > least)
    near = _near_their_like(found, odds, seems, least, stands)
    assert near.tolist() == [True] * 10 + [False, False]
    few = _near_their_like(found[:5], odds[5:10], seems[:5], least[:5], stands[5:10])
    assert not few.any()


@pytest.mark.parametrize(
    ("text", "page", "is_one"),
    [("January 3, 2023", 0, False), ("3. Januar 2023", 0, False), ("January 3, 2023", 1, True),
     ("The 3 rivers, 2023", 0, True)],
)  # fmt: skip
def test_the_day_of_issue_is_no_heading(text, page, is_one):
    pages = pages_of([("Wells", {"size": 13.0}), (text, {"size": 13.0})])
    moved = [
        p if p.page == 0 else replace(p, pieces=tuple(
            piece._replace(line=piece.line._replace(page=page)) for piece in p.pieces
        )) for p in pages
    ]  # fmt: skip
    titles = [c.title for c in find_candidates(moved, 10.0, "Serif", frozenset())]
    assert (text in titles) == is_one


@pytest.mark.parametrize(
    ("titles", "is_one"),
    [(("Wells", "May 3, 2023", "1 Ropes"), False), (("May 3, 2023", "Wells", "Ropes"), True),
     (("Wells", "May 3, 2023", "June 4, 2023"), True)],
)  # fmt: skip
def test_a_bold_day_under_the_title_is_no_heading_where_it_is_the_only_one(titles, is_one):
    lines = []
    for k, title in enumerate(titles):
        lines.append(line(0, title, 80.0 + 120 * k, size=13.0, is_bold=True))
        lines += [line(0, BODY, 110.0 + 120 * k + 14 * row) for row in range(4)]
    paragraphs = paragraphs_of([lines], 10.0, Counter())
    found = [c.title for c in find_candidates(paragraphs, 10.0, "Serif", frozenset())]
    assert ("May 3, 2023" in found) == is_one


@pytest.mark.parametrize(("width", "is_one"), [(14.0, False), (60.0, True)])
def test_words_that_run_up_beside_a_chart_are_no_headings(width, is_one):
    label = line(
        0, "Increase", 100.0, size=15.0, apart="side", box=(50.0, 100.0, 50.0 + width, 160.0)
    )
    under = [line(0, BODY, 300.0 + 14 * k) for k in range(8)]
    paragraphs = paragraphs_of([[*under, label]], 10.0, Counter())
    assert any(p.kind == "side" for p in paragraphs)
    found = find_candidates(paragraphs, 10.0, "Serif", frozenset())
    assert any(c.title == "Increase" for c in found) == is_one


@pytest.mark.parametrize(("n_later", "recurs"), [(12, True), (3, False)])
def test_what_stands_under_the_title_may_be_set_like_the_headings_of_the_text(n_later, recurs):
    """A list of releases begins at once; a line of the imprint is set like no heading."""
    title, release = Style(20.0, True, False, False), Style(12.5, True, False, False)
    styles = [title, release, Style(11.0, True, False, False), *[release] * n_later]
    candidates = [
        Candidate(f"Version {row}", style, row, row // 4, 100.0, row, 100.0)
        for row, style in enumerate(styles)
    ]
    odds = np.array([2.0, 1.8, 1.3] + [2.5] * n_later)
    matter = np.arange(len(styles)) < 3
    assert _recur(candidates, odds, matter)[:3].tolist() == [False, recurs, False]


def test_a_title_set_like_the_headings_under_it_is_no_heading():
    style = Style(12.0, True, False, False)
    candidates = [
        Candidate(f"Wells {row}", style, row, row, 100.0, row, 100.0) for row in range(12)
    ]
    odds, matter = np.full(12, 2.0), np.arange(12) < 1
    assert not _recur(candidates, odds, matter)[0]
