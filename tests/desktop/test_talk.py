"""A talk edited in its window, by keyboard, and taken away."""

import io

import pytest
from pptx import Presentation
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit

from wide_margin.core.export.talk import TalkFormat


@pytest.fixture
def window(hand):
    hand.window.make_talk()
    window = hand.window.talk_window
    hand.wait(lambda: window.talk is not None)
    yield window
    window.close()


def tops(window):
    return [window.tree.topLevelItem(k).text(0) for k in range(window.tree.topLevelItemCount())]


def test_sheets_are_moved_reworded_dropped_and_added(hand, window):
    first, second = tops(window)[:2]
    window.move_by(1)
    assert tops(window)[:2] == [second, first]
    assert window.talk.course[:2] == [second, first]
    window.tree.currentItem().setText(0, "  What\nis <b>new</b> ")
    assert window.talk.sheets[1].title == "What is <b>new</b>"
    n = len(window.talk.sheets)
    window.drop()
    assert len(window.talk.sheets) == n - 1
    window.add_sheet()
    assert "A sheet" in window.talk.course
    window.tree.setCurrentItem(window.tree.topLevelItem(len(tops(window)) - 1))
    window.move_by(-1)  # the ending stays where it is
    assert tops(window)[-1] == window.talk.ending.title


def test_points_are_moved_between_sheets_and_written(hand, window):
    sheets = window.talk.sheets
    last = sheets[0].points[-1]
    window.tree.setCurrentItem(window.tree.topLevelItem(0).child(len(sheets[0].points) - 1))
    window.move_by(1)
    assert sheets[1].points[0] is last
    window.move_by(-1)
    assert sheets[0].points[-1] is last
    window.add_point()
    assert sheets[0].points[-1].text == "A point"
    assert sheets[0].points[-1].locator is None
    window.drop()
    assert sheets[0].points[-1] is last


def test_what_to_say_is_changed_and_a_point_is_read_in_its_place(hand, window):
    window.notes.setPlainText("First.\n\nThen.")
    assert window.talk.sheets[0].notes == ["First.", "Then."]
    window.tree.setCurrentItem(window.tree.topLevelItem(0).child(0))
    window.follow()
    point = window.talk.sheets[0].points[0]
    hand.wait(lambda: hand.view.here()[0] in (point.locator.page, point.locator.page - 1))


def test_it_is_saved_as_it_is_now_with_its_pictures(hand, window, tmp_path):
    window.tree.topLevelItem(0).setText(0, "My own title")
    for form in TalkFormat:
        window.save(tmp_path / f"talk.{form}", form)
        hand.wait(lambda form=form: f"talk.{form}" in window.status.text())
    made = Presentation(io.BytesIO((tmp_path / "talk.pptx").read_bytes()))
    said = [s.text_frame.text for s in made.slides[1].shapes if s.has_text_frame]
    assert "My own title" in said
    assert any(shape.shape_type == 13 for slide in made.slides for shape in slide.shapes)
    window.save(tmp_path / "no" / "talk.md", TalkFormat.MARKDOWN)
    hand.wait(lambda: "cannot be written" in window.status.text())


def test_another_length_makes_another_talk(hand, window):
    n = len(window.talk.sheets)
    window.minutes.setValue(60)
    window.make()
    hand.wait(lambda: len(window.talk.sheets) > n)


def test_points_are_composed_sheet_by_sheet_and_a_doubt_is_marked(hand_with_model, stand_in):
    hand = hand_with_model
    hand.window.make_talk()
    window = hand.window.talk_window
    hand.wait(lambda: window.talk is not None)
    assert window.composed.isVisibleTo(window)
    before = [point.text for point in window.talk.sheets[0].points]
    window.tree.topLevelItem(1).child(0).setText(0, "What I have to say of it")
    window.composed.click()
    hand.wait(lambda: not window.writer.is_writing and "checked" in window.status.text())
    first = window.talk.sheets[0].points
    assert [point.text for point in first] != before
    assert all(point.locator is not None for point in first)
    assert window.talk.sheets[1].points[-1].text == "What I have to say of it"
    first[0].doubt = "12 is not in it"
    window._show(window.talk.sheets[0])
    item = window.tree.topLevelItem(0).child(0)
    assert item.text(0).startswith("? ")
    assert "12 is not in it" in item.toolTip(0)
    item.setText(0, "In the reader's own words")
    assert (first[0].text, first[0].doubt) == ("In the reader's own words", "")
    window.close()


def test_without_a_model_nothing_is_offered_to_compose(window):
    assert not window.composed.isVisibleTo(window)


def test_composing_that_is_stopped_keeps_what_was_written(hand_with_model):
    hand = hand_with_model
    hand.window.make_talk()
    window = hand.window.talk_window
    hand.wait(lambda: window.talk is not None)
    window.composed.click()
    assert window.writer.is_writing
    window.composed.click()
    assert not window.writer.is_writing
    assert window.composed.text() == "Compose"
    assert all(sheet.points for sheet in window.talk.sheets)
    window.close()


def test_what_is_being_typed_is_not_torn_away_by_what_is_composed(hand_with_model):
    hand = hand_with_model
    hand.window.make_talk()
    window = hand.window.talk_window
    hand.wait(lambda: window.talk is not None)
    window.tree.setCurrentItem(window.tree.topLevelItem(1).child(0))
    window.tree.editItem(window.tree.currentItem())
    window.composed.click()
    hand.wait(lambda: not window.writer.is_writing)
    editor = window.tree.findChild(QLineEdit)
    editor.setText("Typed meanwhile")
    QTest.keyClick(editor, Qt.Key.Key_Return)
    own = window.talk.sheets[1]
    hand.wait(lambda: own.points[-1].text == "Typed meanwhile" and not own.points[0].is_own)
    assert window._current()[1] is own.points[-1]
    window.close()


def test_another_document_ends_the_writing(hand_with_model, small_pdf):
    hand = hand_with_model
    hand.window.make_talk()
    window = hand.window.talk_window
    hand.wait(lambda: window.talk is not None)
    window.composed.click()
    hand.window.open(small_pdf)
    hand.wait(lambda: not window.writer.is_writing)
    assert window.composed.text() == "Compose"
    window.close()
