"""Running heads that name sections, and headings that stand where running heads might."""

import pytest

from wide_margin.core.layout import find_furniture
from wide_margin.core.layout.model import Line

HEIGHT = 842.0
NAMES = [f"The {letter}{letter.lower()} well" for letter in "ABCDEFGHIJKLMNOPQRST"]


def line(page, text, y, size=10.0):
    box = (72.0, y, 72.0 + 5 * len(text), y + size)
    return Line(page, text, ((0, len(text)),), box, size, False, False, False, 0, 0)


def texts_left(pages):
    furniture = find_furniture(pages, [HEIGHT] * len(pages))
    return [[each.text for each in furniture.text_lines(k, lines)] for k, lines in enumerate(pages)]


def test_headings_of_one_name_at_the_top_of_pages_are_no_running_heads():
    pages = [
        [line(k, "A manual", 36), line(k, f"2.{k + 1}.2 Procedure", 74, 12.0),
         line(k, f"Text {'abcdefgh'[k]} that goes on.", 120), line(k, str(k + 1), 800)]
        for k in range(8)
    ]  # fmt: skip
    left = texts_left(pages)
    assert all(f"2.{k + 1}.2 Procedure" in on_page for k, on_page in enumerate(left))
    assert all("A manual" not in on_page and str(k + 1) not in on_page
               for k, on_page in enumerate(left))  # fmt: skip


def test_a_running_head_with_the_number_of_its_section_is_set_aside():
    heads = ["1.1 Wells"] * 4 + ["1.2 Buckets"] * 4
    pages = [[line(k, head, 36), line(k, "Text that goes on.", 120)]
             for k, head in enumerate(heads)]  # fmt: skip
    assert all(left == ["Text that goes on."] for left in texts_left(pages))


def test_the_large_title_of_a_chapter_at_the_top_is_text():
    pages = [
        [line(k, f"{k + 1} Chapter", 36, 25.0) if k % 3 == 0 else line(k, f"{k + 1} A manual", 36),
         line(k, "Text that goes on.", 120)]
        for k in range(12)
    ]  # fmt: skip
    left = texts_left(pages)
    assert all(f"{k + 1} Chapter" in left[k] for k in range(0, 12, 3))
    assert all(f"{k + 1} A manual" not in left[k] for k in range(12) if k % 3)


def test_what_now_and_then_repeats_at_a_height_of_headings_makes_them_no_running_heads():
    pages = [
        [line(k, "A manual", 36),
         line(k, "(continued from the page before)" if k % 5 == 0 else f"3.{k} {NAMES[k]}", 76),
         line(k, "Text that goes on.", 120)]
        for k in range(20)
    ]  # fmt: skip
    left = texts_left(pages)
    assert all(f"3.{k} {NAMES[k]}" in left[k] for k in range(20) if k % 5)


@pytest.mark.parametrize("right", [540.0, 306.0])
def test_a_running_head_may_take_two_lines(right):
    def ending_at(page, text, y):
        width = 5 * len(text)
        left = right - width if right > 306 else right - width / 2
        return line(page, text, y)._replace(box=(left, y, left + width, y + 10))

    long = "How to keep the rope dry in the well, and the"
    pages = [
        [ending_at(k, f"{long} {k}" if k % 3 else ("A manual", "Wells")[k % 2], 36),
         *([ending_at(k, f"{NAMES[k]} clean", 48)] if k % 3 else []),
         *(line(k, f"Text {NAMES[k]} goes on {row}.", 80 + 12 * row) for row in range(8))]
        for k in range(20)
    ]  # fmt: skip
    assert all(len(left) == 8 for left in texts_left(pages))


def test_two_lines_of_text_at_the_height_of_running_heads_stay():
    pages = [
        [*([line(k, ("A manual", "Wells")[k % 2], 36)] if k % 4 else
           [line(k, f"{NAMES[k]} has a rope that is wound about the drum", 36),
            line(k, f"until the keeper of {NAMES[k]} goes home.", 48)]),
         *(line(k, f"Text {NAMES[k]} goes on {row}.", 80 + 12 * row) for row in range(8))]
        for k in range(20)
    ]  # fmt: skip
    left = texts_left(pages)
    assert all(len(left[k]) == (8 if k % 4 else 10) for k in range(20))


def test_the_number_of_a_page_is_set_aside_where_the_paper_is_larger_than_the_layout():
    pages = [
        [line(k, "Text that goes on to the end of the page", 640), line(k, str(k + 1), 690)]
        for k in (0, 2, 4, 6)
    ]  # fmt: skip
    assert all(left == ["Text that goes on to the end of the page"] for left in texts_left(pages))


def test_a_number_in_the_middle_of_a_page_is_text():
    pages = [[line(k, str(k + 1), 400), line(k, "Text that goes on.", 420)] for k in range(6)]
    assert all(
        left == [str(k + 1), "Text that goes on."] for k, left in enumerate(texts_left(pages))
    )


def test_a_chapter_beside_ever_new_sections_is_a_running_head():
    pages = [[line(k, f"WELLS AND ROPES\t1.{k + 1} {NAMES[k].upper()}", 36),
              line(k, "Text that goes on.", 120)] for k in range(6)]  # fmt: skip
    assert all(left == ["Text that goes on."] for left in texts_left(pages))


def test_a_numbered_head_far_from_the_edge_and_close_to_the_text_is_a_running_head():
    heads = [f"{k + 1}\tWELLS AND ROPES" if k % 2 else f"{NAMES[k].upper()}\t{k + 1}"
             for k in range(8)]  # fmt: skip
    pages = [[line(k, head, 0.15 * HEIGHT), line(k, "Text that goes on.", 0.15 * HEIGHT + 18)]
             for k, head in enumerate(heads)]  # fmt: skip
    assert all(left == ["Text that goes on."] for left in texts_left(pages))


def test_rows_of_a_table_at_the_top_of_pages_stay():
    pages = [[line(k, f"Item {k}\t{NAMES[k]}", 76), line(k, "Text that goes on.", 120)]
             for k in range(6)]  # fmt: skip
    assert all(f"Item {k}\t{NAMES[k]}" in left for k, left in enumerate(texts_left(pages)))


def test_heads_of_descriptions_of_one_kind_at_the_top_of_pages_stay():
    pages = [[line(k, f"{NAMES[k].replace(' ', '-')} depth\t[Procedure]", 76),
              line(k, f"{NAMES[k]} is lowered so far.", 90)] for k in range(8)]  # fmt: skip
    assert all(len(left) == 2 for left in texts_left(pages))


def test_a_running_head_larger_than_much_small_print_is_set_aside():
    pages = [
        [line(k, f"{k + 2}\tOn wells" if k % 2 else f"A keeper\t{k + 2}", 36, 12.0),
         *(line(k, "Small print that goes on.", 120 + 12 * n, 9.0) for n in range(5))]
        for k in range(8)
    ]  # fmt: skip
    assert all(set(left) == {"Small print that goes on."} for left in texts_left(pages))


def test_a_running_head_of_three_parts_is_known_by_one_of_them():
    pages = [
        [line(k, f"The book of wells\t{k + 2}\t{NAMES[k]}", 36, 11.5),
         line(k, "Text that goes on.", 120)]
        for k in range(8)
    ]  # fmt: skip
    assert all(left == ["Text that goes on."] for left in texts_left(pages))


def test_what_stands_on_a_page_that_comes_again_is_no_running_head():
    agenda = [("Wells of stone", 36), ("Ropes of hemp", 80), ("Buckets of oak", 124), ("9", 800)]
    pages = [
        [line(k, text, y) for text, y in agenda] if k % 2
        else [line(k, "A talk", 20), line(k, f"Said {'abcdefgh'[k]}", 120), line(k, str(k), 800)]
        for k in range(8)
    ]  # fmt: skip
    left = texts_left(pages)
    assert left[1::2] == [["Wells of stone", "Ropes of hemp", "Buckets of oak"]] * 4
    assert not any("A talk" in on_page for on_page in left)


def test_titles_that_begin_alike_are_no_running_heads():
    pages = [
        [line(k, "Functions to", 60, 36.0), line(k, f"Said {'abcdefghijklmnopqrst'[k]}", 200)]
        if k in (2, 9, 15) else [line(k, f"Text {'abcdefghijklmnopqrst'[k]}", 60)]
        for k in range(20)
    ]  # fmt: skip
    left = texts_left(pages)
    assert all("Functions to" in left[k] for k in (2, 9, 15))
    slides = [[line(k, "The talk", 60, 36.0), line(k, "a b c"[k % 5], 200)] for k in range(8)]
    assert not any("The talk" in on_page for on_page in texts_left(slides))


def test_heads_that_change_with_each_entry_are_running_heads_where_all_are_set_alike():
    heads = ["A manual"] * 4 + [name for name in NAMES[:8] for _ in range(2)]
    pages = [
        [
            line(k, head, 36),
            line(k, f"Text {head.lower()} of it.", 120),
            line(k, "More of it.", 132),
        ]
        for k, head in enumerate(heads)
    ]
    assert not any(head in left for head, left in zip(heads, texts_left(pages), strict=True))
    # Set in another way each time, or with the text close below, they are of the text.
    others = [
        [line(k, head, 36, 10.0 + k % 3), line(k, "It goes on.", 120), line(k, "More.", 132)]
        for k, head in enumerate(heads)
    ]
    near = [
        [line(k, head, 36), line(k, "It goes on.", 48), line(k, "More of it.", 60)]
        for k, head in enumerate(heads)
    ]
    for pages in (others, near):
        left = texts_left(pages)
        assert all(heads[k] in left[k] for k in range(4, 20))


@pytest.mark.parametrize(
    ("gap", "n_left"),
    [("\t", [1, 1, 1, 1, 1, 1, 1, 1]), (" ", [1, 2, 2, 1, 1, 1, 1, 1])],
)
def test_a_head_parted_from_the_page_s_number_is_one_on_two_pages_already(gap, n_left):
    """ "Step 2" and "Step 3" may be titles; a gap before the number tells it to be the page's."""
    pages = [[line(k, f"Text of {NAMES[k]} that goes on.", 60)] for k in range(8)]
    for k in (1, 2):
        pages[k].insert(0, line(k, f"2 Ropes{gap}{k + 1}", 36))
    assert [len(texts) for texts in texts_left(pages)] == n_left
