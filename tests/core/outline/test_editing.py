"""Changes to an outline: each keeps reading order and whole nesting, and none is lost."""

import json
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.outline.test_contents import PLAIN, book
from tests.core.outline.test_reconcile import MARKS
from wide_margin.core.outline import Outline, Section, close_sections
from wide_margin.core.outline.editing import (
    OutlineEditor,
    as_rows,
    carried_over,
    from_store,
)

HEIGHTS = [800.0] * 10


def outline(*rows):
    """Sections of (title, level, page); one paragraph a page."""
    sections = [Section(t, level, page, 50.0, page, 0, page, 50.0) for t, level, page in rows]
    return close_sections(sections, 10, HEIGHTS, ("heading",))


@pytest.fixture
def editor():
    return OutlineEditor(HEIGHTS)


@pytest.fixture
def wells():
    return outline(("1 Wells", 0, 0), ("1.1 Ropes", 1, 1), ("1.2 Lids", 1, 2), ("2 Wood", 0, 5))


def shown(outline):
    return [(s.title, s.level, s.page) for s in outline.sections]


def test_a_title_is_changed_and_the_old_outline_stays(editor, wells):
    edit = editor.rename(wells, 1, "  1.1  Cords and\nropes ")
    assert (edit.outline.sections[edit.at].title, edit.at) == ("1.1 Cords and ropes", 1)
    assert wells.sections[1].title == "1.1 Ropes"
    assert edit.outline.is_edited
    assert not wells.is_edited


def test_an_empty_title_changes_nothing(editor, wells):
    assert editor.rename(wells, 1, "  ").outline is wells


def test_raising_takes_what_hangs_under_along(editor):
    deep = outline(("a", 0, 0), ("b", 1, 1), ("c", 2, 2), ("d", 1, 3))
    assert shown(editor.raise_(deep, 1).outline) == [("a", 0, 0), ("b", 0, 1), ("c", 1, 2),
                                                     ("d", 1, 3)]  # fmt: skip
    assert editor.raise_(deep, 0).outline is deep


def test_lowering_hangs_a_section_under_the_one_before(editor, wells):
    assert shown(editor.lower(wells, 2).outline)[2] == ("1.2 Lids", 2, 2)
    assert editor.lower(wells, 0).outline is wells
    assert editor.lower(wells, 1).outline is wells  # it hangs under "1 Wells" already


def test_a_moved_section_stands_where_its_place_is(editor, wells):
    edit = editor.move(wells, 1, 7, 120.0)
    assert [s.title for s in edit.outline.sections] == [
        "1 Wells",
        "1.2 Lids",
        "2 Wood",
        "1.1 Ropes",
    ]
    assert edit.outline.sections[edit.at].title == "1.1 Ropes"


def test_an_added_section_takes_the_level_of_the_one_it_stands_in(editor, wells):
    edit = editor.add(wells, 3, 10.0, "1.3 Covers")
    assert shown(edit.outline)[3] == ("1.3 Covers", 1, 3)
    assert edit.outline.sections[3].readings == ()
    assert edit.outline.sections[2].end_page == 3


def test_deleting_leaves_what_hung_under_it(editor, wells):
    edit = editor.delete(wells, 0)
    assert shown(edit.outline) == [("1.1 Ropes", 0, 1), ("1.2 Lids", 0, 2), ("2 Wood", 0, 5)]
    assert edit.at == -1


def test_an_empty_outline_can_be_filled(editor):
    edit = editor.add(Outline(), 2, 0.0, "First")
    assert shown(edit.outline) == [("First", 0, 2)]
    assert (edit.outline.sections[0].end_page, edit.outline.sections[0].end_y) == (9, 800.0)


def test_taking_a_witness_settles_its_section(tmp_path):
    wrong = [*PLAIN[:3], ("toc1", "1.2 Lids|5"), *PLAIN[4:]]
    document = book(tmp_path / "a.pdf", [wrong], bookmarks=MARKS)
    editor = OutlineEditor(document.facts.heights)
    (index,) = document.outline.disputed
    taken = editor.take(document.outline, index, "contents")
    assert taken.outline.sections[taken.at].page == 5
    assert taken.outline.disputed == ()
    kept = editor.settle(document.outline, index)
    assert kept.outline.sections[kept.at].page == 3
    assert kept.outline.disputed == ()
    assert editor.take(document.outline, 1, "nobody").outline is document.outline


def test_taking_flattened_bookmarks_takes_their_level(tmp_path):
    flat = [(title, 0, page) for title, _, page in MARKS]
    document = book(tmp_path / "a.pdf", [PLAIN], bookmarks=flat)
    editor = OutlineEditor(document.facts.heights)
    index = document.outline.disputed[0]
    assert document.outline.sections[index].level == 1
    edit = editor.take(document.outline, index, "bookmark")
    assert edit.outline.sections[edit.at].level == 0


EDITS = st.lists(
    st.tuples(
        st.sampled_from(["rename", "raise", "lower", "move", "add", "delete", "settle"]),
        st.integers(0, 30), st.integers(0, 9), st.floats(0, 800, allow_nan=False),
    ),
    max_size=25,
)  # fmt: skip


@settings(max_examples=80)
@given(EDITS)
def test_any_edits_leave_sections_that_nest_and_cover_in_order(edits):
    editor = OutlineEditor(HEIGHTS)
    now = outline(("a", 0, 0), ("b", 1, 1), ("c", 2, 2), ("d", 0, 5), ("e", 1, 6))
    for name, k, page, y in edits:
        n = len(now.sections)
        if name == "add":
            now = editor.add(now, page, y, f"new {k}").outline
        elif n:
            k %= n
            now = {
                "rename": lambda o, k=k: editor.rename(o, k, "other"),
                "raise": lambda o, k=k: editor.raise_(o, k),
                "lower": lambda o, k=k: editor.lower(o, k),
                "move": lambda o, k=k, page=page, y=y: editor.move(o, k, page, y),
                "delete": lambda o, k=k: editor.delete(o, k),
                "settle": lambda o, k=k: editor.settle(o, k),
            }[name](now).outline
    places = [(s.page, s.y) for s in now.sections]
    assert places == sorted(places)
    assert all(b.level <= a.level + 1 for a, b in pairwise(now.sections))
    for a, b in pairwise(now.sections):
        if b.level <= a.level:
            assert (a.end_page, a.end_y) == (b.page, b.y)
        else:
            assert (a.end_page, a.end_y) >= (b.end_page, b.end_y)
    stored = json.loads(json.dumps(as_rows(now)))
    assert shown(from_store(stored, now, HEIGHTS)) == shown(now)


def test_what_is_stored_comes_back_with_its_witnesses(tmp_path):
    wrong = [*PLAIN[:3], ("toc1", "1.2 Lids|5"), *PLAIN[4:]]
    document = book(tmp_path / "a.pdf", [wrong], bookmarks=MARKS)
    heights = document.facts.heights
    stored = json.loads(json.dumps(as_rows(document.outline)))
    back = from_store(stored, document.outline, heights)
    for a, b in zip(back.sections, document.outline.sections, strict=True):
        assert (a.title, a.readings, a.disagreements) == (b.title, b.readings, b.disagreements)


def test_edits_follow_their_titles_to_a_new_version(editor, wells):
    edited = editor.add(editor.rename(wells, 3, "2 Timber").outline, 6, 0.0, "My own").outline
    longer = outline(("1 Wells", 0, 1), ("1.1 Ropes", 1, 3), ("1.2 Lids", 1, 4), ("3 Iron", 0, 8))
    carried = carried_over(edited, longer, HEIGHTS)
    assert shown(carried)[:3] == [("1 Wells", 0, 1), ("1.1 Ropes", 1, 3), ("1.2 Lids", 1, 4)]
    assert {s.title for s in carried.sections} == {"1 Wells", "1.1 Ropes", "1.2 Lids", "2 Timber",
                                                   "My own"}  # fmt: skip


def test_an_outline_from_rows_finds_the_places_that_rows_leave_out(editor, wells):
    rows = [{"title": "Wells", "level": 0, "page": None, "y": None},
            {"title": "Lids", "level": 1, "page": None, "y": None},
            {"title": "Nowhere", "level": 1, "page": None, "y": None},
            {"title": "Wood", "level": 0, "page": 6, "y": 30.0}]  # fmt: skip
    made = editor.from_rows(wells, rows)
    assert shown(made) == [("Wells", 0, 0), ("Lids", 1, 2), ("Nowhere", 1, 2), ("Wood", 0, 6)]
