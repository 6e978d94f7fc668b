"""The Commonplace view in the real window: marks with keys, inks, tags, filters, taking away."""

import json

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from wide_margin.core.export.annotations_in_file import annotations_in_file
from wide_margin.core.export.entries import EntriesFormat
from wide_margin.core.margin import EntryKind, Ink
from wide_margin.core.margin.gathering import GroupBy

FIRST = "Failed lines are entered in red on Form 6 and are never erased."
SECOND = "A mark is lost when it cannot be found"


@pytest.fixture
def kept(hand):
    """A window with two marks and an answered question, Commonplace shown."""
    for words, key in ((FIRST, "1"), (SECOND, "2")):
        hand.keep(words, key)
    hand.ask("How large may the closing error of a line of levels be?")
    hand.window.show_view("Commonplace")
    view = hand.window.commonplace_view
    hand.wait(lambda: len(shown(view)) == 3)
    return hand, view


def shown(view):
    return [row.entry for row in view.list.rows.rows if row.entry is not None]


def choose(view, *entries):
    ids = {entry.id for entry in entries}
    model = view.list.selectionModel()
    model.clearSelection()
    for k, row in enumerate(view.list.rows.rows):
        if row.entry is not None and row.entry.id in ids:
            model.select(view.list.rows.index(k), model.SelectionFlag.Select)


def marks_of(view):
    return [e for e in shown(view) if e.kind is EntryKind.MARK]


def test_marks_have_the_ink_of_their_key_and_change_it(kept):
    hand, view = kept
    assert sorted(str(e.body.ink) for e in marks_of(view)) == ["claim", "doubt"]
    choose(view, *marks_of(view))
    QTest.keyClick(view.list, Qt.Key.Key_3)
    hand.wait(lambda: {e.body.ink for e in marks_of(view)} == {Ink.PROCEDURE})
    hand.reader.undo.undo()
    hand.wait(lambda: {e.body.ink for e in marks_of(view)} == {Ink.CLAIM, Ink.DOUBT})


def test_a_word_that_stands_only_in_an_answer_is_found(kept):
    hand, view = kept
    view.words.setText("kilometre")
    hand.wait(lambda: [e.kind for e in shown(view)] == [EntryKind.QUESTION])
    assert view.told.text() == "1 of 3 entries"
    view.words.setText("xylophone")
    hand.wait(lambda: shown(view) == [])
    assert view.empty.isVisible()


def test_several_are_tagged_at_once_and_filtered_by_it(kept):
    hand, view = kept
    choose(view, *shown(view))
    bare = view.list.text_width()
    view.tag_field.setText("  for   later ")
    QTest.keyClick(view.tag_field, Qt.Key.Key_Return)
    hand.wait(lambda: all(e.tags == ("for later",) for e in shown(view)))
    assert view.list.text_width() < bare  # room is only taken for tags where there are some
    names = [view.facets.item(k).text() for k in range(view.facets.count())]
    view.facets.itemClicked.emit(view.facets.item(names.index("doubt")))
    hand.wait(lambda: len(shown(view)) == 1)
    hand.reader.undo.undo()
    hand.wait(lambda: all(e.tags == () for e in hand.reader.entries.values()))


@pytest.mark.parametrize("by", list(GroupBy))
def test_every_entry_stands_in_some_group(kept, by):
    _, view = kept
    view.group_by(by)
    assert {e.id for e in shown(view)} == set(view.reader.entries)


def test_enter_goes_to_the_place(kept):
    hand, view = kept
    entry = next(e for e in marks_of(view) if e.body.ink is Ink.DOUBT)
    row = next(k for k, r in enumerate(view.list.rows.rows) if r.entry and r.entry.id == entry.id)
    view.list.setCurrentIndex(view.list.rows.index(row))
    QTest.keyClick(view.list, Qt.Key.Key_Return)
    hand.wait(lambda: hand.view.isVisible() and hand.view.here()[0] == entry.anchor.page)


def test_deleting_several_is_one_undo(kept):
    hand, view = kept
    choose(view, *marks_of(view))
    QTest.keyClick(view.list, Qt.Key.Key_Delete)
    hand.wait(lambda: len(shown(view)) == 1)
    hand.reader.undo.undo()
    hand.wait(lambda: len(shown(view)) == 3)


def test_entries_are_saved_brought_in_and_written_into_a_copy(kept, tmp_path):
    hand, view = kept
    out = tmp_path / "entries.jsonld"
    view.taking.save(out, EntriesFormat.ANNOTATIONS)
    hand.wait(out.exists)
    hand.wait(lambda: out.stat().st_size > 0)
    assert json.loads(out.read_text())["total"] == 3
    table = tmp_path / "entries.csv"
    view.taking.save(table, EntriesFormat.CSV)
    hand.wait(lambda: table.exists() and "claim" in table.read_text("utf-8-sig"))
    copy = tmp_path / "copy.pdf"
    view.taking.annotate(copy)
    hand.wait(copy.exists)
    assert {one.entry_id for one in annotations_in_file(copy)} == set(view.reader.entries)
    choose(view, *shown(view))
    view.delete_chosen()
    hand.wait(lambda: shown(view) == [])
    view.taking.bring_in(out)
    hand.wait(lambda: len(shown(view)) == 3)
    assert {e.body.ink for e in marks_of(view)} >= {Ink.CLAIM, Ink.DOUBT}


def test_a_second_window_shows_the_same(kept, make_window):
    hand, view = kept
    other = make_window()
    hand.reader.hub.changed.connect(other.reader.keeper._elsewhere)  # as windows of one program
    other.open(hand.reader.path)
    hand.wait(lambda: len(other.reader.entries) == 3)
    choose(view, *shown(view))
    view.add_tag("both")
    hand.wait(lambda: all(e.tags == ("both",) for e in other.reader.entries.values()))
