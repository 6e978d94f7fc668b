"""Requests that are used again: written in their window, run by name and several at once."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from wide_margin.core.margin import EntryKind, Origin
from wide_margin.core.services.saved_requests import SavedRequest, Whereof, load_requests

ERROR = SavedRequest("Closing", "How large may the closing error of a line be?")
ERASED = SavedRequest("Erased", "What is never erased?", Whereof.SECTION)


@pytest.fixture
def ready(hand):
    hand.window.requests.keep((ERROR, ERASED))
    return hand


def questions(hand):
    return [e.body.question for e in hand.reader.entries.values() if e.kind is EntryKind.QUESTION]


def test_a_request_is_written_kept_and_run_by_its_name(hand):
    hand.window.requests.show()
    dialog = hand.window.requests.dialog
    dialog.add()
    QTest.keyClicks(dialog.name, "Closing")
    QTest.keyClicks(dialog.ask, ERROR.ask)
    dialog.accept()
    assert load_requests() == (ERROR,)
    line = hand.view.ask_line
    QTest.keyClicks(line.field, "clo")
    assert line.field.completion == "Closing"
    QTest.keyClick(line.field, Qt.Key.Key_Tab)
    assert line.verdict.text() == "Run it"
    QTest.keyClick(line.field, Qt.Key.Key_Return)
    hand.wait(lambda: questions(hand) == [ERROR.ask])


def test_several_are_run_one_after_the_other(ready):
    ready.view.go_to_typed("18")
    ready.window.requests.show()
    dialog = ready.window.requests.dialog
    dialog.list.selectAll()
    dialog.run_button.click()
    ready.wait(lambda: questions(ready) == [ERROR.ask, ERASED.ask])
    _, second = ready.reader.entries.values()
    assert second.body.reach.kind == "section"


def test_where_there_is_no_selection_this_is_told_and_nothing_is_run(ready):
    both = [SavedRequest("Words", "x", Whereof.SELECTION), ERROR]
    ready.view.commands.run(both)
    assert "“Words” is asked of the selection" in ready.view.status.text()
    ready.view.commands.run(both[1:])
    ready.wait(lambda: questions(ready) == [ERROR.ask])


def test_one_that_is_composed_is(hand_with_model):
    hand = hand_with_model
    asked = SavedRequest("Plain", ERROR.ask, composed=True)
    hand.view.commands.run([asked, SavedRequest("B", "What is never erased?", composed=True)])
    hand.wait(lambda: len(questions(hand)) == 2)
    hand.wait(lambda: {e.body.origin for e in hand.reader.entries.values()} == {Origin.COMPOSED})


def test_without_a_model_its_quotes_are_the_answer(ready):
    ready.view.commands.run([SavedRequest("Plain", ERROR.ask, composed=True)])
    ready.wait(lambda: questions(ready) == [ERROR.ask])
    (entry,) = ready.reader.entries.values()
    assert entry.body.origin is Origin.QUOTED


def test_requests_of_another_kind_of_document_are_not_offered(ready):
    keeper = ready.window.requests
    keeper.keep((SavedRequest("Theses", "x?", kind="thesis"), ERROR))
    keeper._offer("manual")
    assert [r.name for r in ready.view.ask_line._requests] == ["Closing"]
    keeper._offer("thesis")
    assert len(ready.view.ask_line._requests) == 2


def test_they_go_to_a_file_and_come_from_one(ready, tmp_path):
    ready.window.requests.show()
    dialog = ready.window.requests.dialog
    path = tmp_path / "mine.toml"
    dialog.save(path)
    dialog.list.selectAll()
    dialog.delete()
    assert dialog.requests() == ()
    dialog.take(tmp_path / "none.toml")
    assert "cannot be read" in dialog.told.text()
    (tmp_path / "other.toml").write_text("<b>no</b>")
    dialog.take(tmp_path / "other.toml")
    assert "no saved requests" in dialog.told.text()
    dialog.take(path)
    assert dialog.requests() == (ERROR, ERASED)


def test_a_damaged_file_is_told_and_left_as_it_is(hand):
    from wide_margin.core.services.saved_requests import requests_path

    requests_path().parent.mkdir(parents=True, exist_ok=True)
    requests_path().write_text("[[[")
    hand.window.requests._load()
    assert "no saved requests" in hand.view.status.text()
    assert requests_path().read_text() == "[[["
