"""Entries as contents pages set them: ragged, in one paragraph, above the page's foot."""

import pytest

from wide_margin.core.layout.model import Line
from wide_margin.core.outline.contents import find_contents
from wide_margin.core.outline.contents_rows import rows_of
from wide_margin.core.outline.listings import is_listing
from wide_margin.core.pages.model import LINE_END_HYPHEN


def line(text, y, x=72.0, right=None, size=10.0):
    box = (x, y, right or x + 5 * len(text), y + size)
    return Line(0, text, ((0, len(text)),), box, size, False, False, False, 0, 0)


RAGGED = [
    line("Preface v", 100, x=90), line("1 Wells and what they are good for 1", 114),
    line("1.1 Ropes 2", 128), line("1.2 Lids of wood 3", 142),
    line("2 Buckets of all the sorts that are 14", 156), line("3 Lists 15", 170),
]  # fmt: skip


def told(lines):
    return [(row.text, row.printed) for row in rows_of(lines)]


def test_numbers_may_follow_their_titles_wherever_these_end():
    assert told(RAGGED) == [
        ("Preface", "v"), ("1 Wells and what they are good for", "1"), ("1.1 Ropes", "2"),
        ("1.2 Lids of wood", "3"), ("2 Buckets of all the sorts that are", "14"),
        ("3 Lists", "15"),
    ]  # fmt: skip


def test_lines_of_text_that_end_in_a_number_are_no_entries():
    text = [line("The keeper reads the staff and writes the height into the book", 100 + 14 * k)
            for k in range(4)]  # fmt: skip
    printed = [row.printed for row in rows_of([*text, line("in the year 1907", 156)])]
    assert printed == [""] * 5


def test_entries_that_run_on_in_one_paragraph_are_told_apart():
    lines = [
        *RAGGED[1:4],
        line(f"Of iron 4 • Of brass 5 • Of the woo{LINE_END_HYPHEN}", 156, x=95, size=9.0),
        line("den sort 6 • And others 7", 168, x=95, size=9.0),
        line("2 Buckets of all the sorts that are 14", 182),
    ]
    assert told(lines)[3:] == [
        ("Of iron", "4"), ("Of brass", "5"), ("Of the wooden sort", "6"), ("And others", "7"),
        ("2 Buckets of all the sorts that are", "14"),
    ]  # fmt: skip
    found = find_contents([[line("Contents", 60, size=18.0), *lines]], frozenset([0]))
    assert [(e.title, e.level) for e in found.entries][3:6] == [
        ("Of iron", 2), ("Of brass", 2), ("Of the wooden sort", 2),
    ]  # fmt: skip


def test_nothing_but_a_blank_may_stand_between_entries_that_run_on():
    lines = [
        line("1 Wells\t1", 114, right=500.0), line("1.1 Ropes . . . . . . . . . 2", 128),
        line(f"Of hemp 2 Of si{LINE_END_HYPHEN}", 142, x=95, size=9.0),
        line("sal 3 And others", 154, x=95, size=9.0), line("4", 166, x=95, size=9.0),
        line("2 Buckets\t14", 182, right=500.0),
    ]  # fmt: skip
    assert told(lines) == [
        ("1 Wells", "1"), ("1.1 Ropes", "2"), ("Of hemp", "2"), ("Of sisal", "3"),
        ("And others", "4"), ("2 Buckets", "14"),
    ]  # fmt: skip


@pytest.mark.parametrize(
    "text", ["A pump of 6 men and a boy", "Wells of 40 m and more, with lids 3"]
)
def test_a_figure_in_a_title_is_no_page(text):
    """It falls below the page before, or above the one after."""
    lines = [line("1 Ropes\t12", 114, right=500.0), line(text, 128, x=90),
             line("2 Buckets\t14", 182, right=500.0)]  # fmt: skip
    assert [row.text for row in rows_of(lines)][1].startswith(text[:20])


def test_the_foot_of_a_contents_page_is_no_entry():
    listed = (("1 Wells", 2), ("2 Ropes", 5), ("3 Lids", 9))
    led = [line(f"{title} {'.' * 40} {page}", 100 + 14 * k, right=500)
           for k, (title, page) in enumerate(listed)]  # fmt: skip
    foot = line("Made at the keepers' press\t1", 760, right=500)
    pages = [[line("Contents", 60, size=18.0), *led, foot]]
    titles = [e.title for e in find_contents(pages, frozenset([0])).entries]
    assert titles == ["1 Wells", "2 Ropes", "3 Lids"]
    near = line("4 Errata\t1", 142, right=500)
    pages[0][-1] = near
    assert len(find_contents(pages, frozenset([0])).entries) == 4


def test_entries_of_an_index_are_none():
    names = ("Buckets", "Chains", "Hooks", "Lids", "Ropes", "Wells")
    index = [line(f"{name}, {k + 3}", 100 + 14 * k, right=140 + 30 * k)
             for k, name in enumerate(names)]  # fmt: skip
    assert [row.printed for row in rows_of(index)][:4] == [""] * 4


def test_sections_that_each_chapter_counts_anew_hang_under_it():
    listed = (("1 Wells", 0), ("1 Ropes", 1), ("2 Lids", 1), ("2 Buckets", 0), ("1 Wood", 1),
              ("2 Iron", 1), ("3 Brass", 1), ("3 The yard", 0), ("1 Gates", 1))  # fmt: skip
    rows = [
        line(f"{title} {'.' * 30} {k + 2}", 100 + 14 * k, x=72 + 24 * level, right=500)
        for k, (title, level) in enumerate(listed)
    ]
    found = find_contents([[line("Contents", 60, size=18.0), *rows]], frozenset([0]))
    assert [(e.title, e.level) for e in found.entries] == list(listed)


def test_a_dot_of_the_leaders_behind_the_number_is_no_part_of_it():
    dots = ". " * 20
    led = [line(f"{title} {dots}{page}{end}", 100 + 14 * k, right=500)
           for k, (title, page, end) in enumerate((("1 Wells", 2, "."), ("2 Ropes", 5, " ."),
                                                   ("3 Lids", 9, "")))]  # fmt: skip
    assert told(led) == [("1 Wells", "2"), ("2 Ropes", "5"), ("3 Lids", "9")]
    assert is_listing([*led, *led])


def test_leaders_in_a_light_face_do_not_part_a_bold_title():
    bold = line("Appendix A The Keeping", 142, size=14.0)._replace(is_bold=True)
    second = line(f"of Wells {'.' * 30} 9", 160, x=88, right=500, size=14.0)
    entries = enumerate((("1 Wells", 2), ("2 Ropes", 5), ("3 Lids", 7)))
    led = [
        line(f"{title} {'.' * 40} {page}", 100 + 14 * k, right=500, size=14.0)
        for k, (title, page) in entries
    ]
    rows = [line("Contents", 60, size=18.0), *led, bold, second]
    titles = [e.title for e in find_contents([rows], frozenset([0])).entries]
    assert titles == ["1 Wells", "2 Ropes", "3 Lids", "Appendix A The Keeping of Wells"]


@pytest.mark.parametrize(("number", "is_page"), [("5", True), ("1907", False), ("2", False)])
def test_a_title_that_fills_its_line_is_parted_from_its_page(number, is_page):
    title = "2 Buckets of all the sorts that are made of wood"
    lines = [
        line("1 Wells . . . . . . . . . 3", 100, right=500),
        line("1.1 Ropes . . . . . . . . 4", 114, right=500.4),
        line(f"{title}{number}", 128, right=499.5),
        line("3 Lids . . . . . . . . . 7", 142, right=500),
    ]
    assert told(lines)[2] == ((title, number) if is_page else (f"{title}{number}", ""))


def test_an_entry_too_long_for_its_line_does_not_move_the_others_in():
    first = [
        line("Common questions\t1", 100, right=450.0),
        *(line(f"How {k} is done . . . . {k}", 100 + 14 * k, x=87.0, right=450.0)
          for k in range(1, 6)),
        line("How a long one sticks out . . . . 7", 184, x=87.0, right=462.0),
    ]  # fmt: skip
    after = [
        line("Appendix A Lists\t9", 100, right=450.0),
        *(line(f"A.{k} Wells . . . . {9 + k}", 100 + 14 * k, x=87.0, right=450.0)
          for k in range(1, 6)),
    ]  # fmt: skip
    pages = [[line("Contents", 60, size=18.0), *first], after]
    found = find_contents(pages, frozenset([0, 1]))
    levels = {entry.title: entry.level for entry in found.entries}
    assert levels["Common questions"] == levels["Appendix A Lists"] == 0


@pytest.mark.parametrize(
    ("rows", "lists"),
    [
        ([f"{n}.{k} Of ropes and lids" for n in range(1, 5) for k in range(1, 8)], True),
        ([f"{n}.{k} Turn the crank to the left." for n in range(1, 5) for k in range(1, 8)], False),
        ([f"{n}. Ropes of the well" for n in range(1, 29)], False),
        ([f"1.{k} mm .0{k}33 1.{k} mm .0{k}53" for k in range(10, 38)], False),
        ([f"1.{k} Lids" for k in range(1, 12)], False),
    ],
)
def test_a_page_of_numbered_titles_alone_is_a_listing(rows, lists):
    assert is_listing([line(row, 60 + 14 * k) for k, row in enumerate(rows)]) is lists
