from dataclasses import replace
from itertools import pairwise

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.services.stand_in import StandIn
from wide_margin.desktop.read_view.cards import HeldAnswer, TranslationCard

LINE = "Failed lines are entered in red on Form 6 and are never erased."


def test_an_answer_is_held_and_its_first_place_is_shown(hand):
    entry = hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.margin.held)
    assert "4 mm" in " ".join(q["text"] for q in entry.body["quotes"])
    place = entry.body["quotes"][0]["places"][0]
    hand.wait(lambda: place["page"] in hand.view.pages.visible_pages())
    (laid,) = hand.view.pages.laid("evidence")
    assert laid.bar
    hand.wait(lambda: hand.view.pages.boxes_in_view(laid.spans))
    hand.wait(lambda: hand.view.leaders.shown)
    assert hand.view.spine._strokes
    assert hand.view.ask_line.field.text() == ""


def test_the_marked_words_are_the_quoted_ones(hand):
    entry = hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.pages.laid("evidence"))
    (laid,) = hand.view.pages.laid("evidence")
    hand.wait(lambda: hand.view.pages.images.layer(laid.spans[0].page))
    layer = hand.view.pages.images.layer(laid.spans[0].page)
    words = "".join(layer.page.chars[s.start : s.end] for s in laid.spans)
    assert "".join(words.split()) == "".join(entry.body["quotes"][0]["text"].split())


def test_brackets_step_through_the_places(hand):
    entry = hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.margin.held)
    n = sum(len(q["places"]) for q in entry.body["quotes"])
    hand.view.step_place(1)
    assert hand.view._held_at == 1 % n
    hand.view.step_place(-1)
    assert hand.view._held_at == 0
    hand.view.follow(entry.id, 0)
    assert hand.view.history.behind


def test_letting_go_returns_the_answer_to_its_place(hand):
    hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.margin.standing() == [] and hand.view.margin.held)
    hand.view.let_go()
    assert hand.view.margin.held is None
    assert hand.view.pages.laid("evidence") == []
    hand.wait(lambda: [s.entry.kind for s in hand.view.margin.standing()] == ["question"])


def test_a_decline_shows_the_nearest_passages(hand):
    entry = hand.ask("Which football club won the cup in 1974?")
    hand.wait(lambda: hand.view.margin.held)
    assert entry.body["quotes"] == []
    held = hand.view.margin.held
    assert isinstance(held, HeldAnswer)
    assert held._excerpts.isVisibleTo(held)
    hand.view.step_place(1)
    assert hand.view._held_at == 0


def test_asking_of_a_section_stays_until_it_is_changed(hand):
    hand.view.go_to_typed("17")
    hand.wait(lambda: hand.view.ask_line.reach_choice.menu.actions()[1:])
    hand.view.ask_line.reach_choice.menu.actions()[1].trigger()
    named = hand.view.ask_line.reach.name
    assert named == "9.1 Siting"
    hand.view.go_to_typed("30")
    assert hand.view.ask_line.reach.name == named
    entry = hand.ask("How often is the wire of the float changed?")
    assert entry.body["reach"] == named
    assert hand.view.ask_line.reach.name == named


def test_a_question_while_reading_is_kept_in_the_line(
    empty_hand, handbook_path, monkeypatch, tmp_path
):
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "nothing-read-yet"))
    empty_hand.window.open(handbook_path)
    field = empty_hand.view.ask_line.field
    field.setText("Who appoints keepers?")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert field.text() == "Who appoints keepers?"
    assert "still being read" in empty_hand.view.status.text()
    empty_hand.wait(lambda: empty_hand.reader.is_ready)


def test_an_explanation_stands_beside_its_passage(hand):
    hand.select("held in suspense under section 8.4")
    QTest.keyClick(hand.view.pages, Qt.Key.Key_E)
    hand.wait(lambda: hand.entries("explanation"))
    (entry,) = hand.entries("explanation")
    assert entry.body["meanings"][0]["term"] == "in suspense"
    hand.wait(lambda: hand.view.margin.standing())
    (standing,) = hand.view.margin.standing()
    box = hand.view.pages.boxes_in_view(entry.anchor.spans)[0]
    assert abs(standing.rect.top() - box.top()) < 30
    hand.view.follow(entry.id, 0)
    assert hand.view.pages.laid("evidence")


def test_a_translation_comes_sentence_by_sentence_and_says_it_is_simulated(hand_with_model):
    hand = hand_with_model
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_T)
    hand.wait(
        lambda: (
            hand.entries("translation") and hand.entries("translation")[0].body["state"] == "done"
        )
    )
    (entry,) = hand.entries("translation")
    assert entry.body["pairs"] == [
        [LINE, "Failed lines sind entered in rot auf Form 6 und sind nie erased.", []]
    ]
    card = hand.view.margin.card(entry.id)
    assert "simulated" in card.head.text()
    hand.view.margin.pair_entered.emit(entry.id, 0)
    assert hand.view.pages.laid("evidence")


def test_the_chosen_language_is_remembered(hand_with_model):
    from wide_margin.core.services import load_settings

    hand = hand_with_model
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_T)
    hand.wait(lambda: hand.entries("translation"))
    (entry,) = hand.entries("translation")
    card = hand.view.margin.card(entry.id)
    assert isinstance(card, TranslationCard)
    card.language_chosen.emit(entry.id, "fr")
    hand.wait(lambda: hand.reader.entries[entry.id].body["state"] == "done"
              and "rouge" in hand.reader.entries[entry.id].body["pairs"][0][1])  # fmt: skip
    assert load_settings().language == "fr"
    assert hand.reader.target_language == "fr"


def test_without_a_model_a_clear_sentence_says_how_to_connect_one(hand):
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_T)
    hand.wait(lambda: hand.entries("translation")[0].body["state"] == "failed")
    assert "--model ADDRESS" in hand.entries("translation")[0].body["problem"]


def test_a_model_that_went_away_is_told_and_can_be_tried_again(hand_with_model, stand_in):
    hand = hand_with_model
    stand_in.close()
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_T)
    hand.wait(lambda: hand.entries("translation")[0].body["state"] == "failed")
    with StandIn() as other:
        hand.reader.settings = replace(hand.reader.settings, model_address=other.address)
        (entry,) = hand.entries("translation")
        hand.view.margin.card(entry.id).retry_asked.emit(entry.id)
        hand.wait(lambda: hand.reader.entries[entry.id].body["state"] == "done")


def test_a_translation_can_be_cancelled(qtbot, make_window, handbook_path):
    from wide_margin.core.services import Settings

    with StandIn(delay=0.3) as slow:
        settings = Settings(model_address=slow.address, language="de")
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        hand.select(LINE)
        QTest.keyClick(hand.view.pages, Qt.Key.Key_T)
        hand.wait(lambda: hand.entries("translation")[0].body["state"] == "running")
        (entry,) = hand.entries("translation")
        hand.view.margin.card(entry.id).action.click()
        assert hand.reader.entries[entry.id].body["problem"] == "Cancelled."
        hand.window.close()


def test_a_note_is_kept_while_it_is_typed(hand, qtbot, make_window, handbook_path):
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_N)
    hand.wait(lambda: hand.view.margin.standing())
    (entry,) = hand.entries("note")
    QTest.keyClicks(hand.view.margin.card(entry.id).field, "see Form 6")
    hand.window.close()  # before the pause after typing is over
    again = Hand(qtbot, make_window()).open(handbook_path)
    assert again.entries("note")[0].body["text"] == "see Form 6"


def test_entries_are_there_when_the_document_is_opened_again(
    hand, qtbot, make_window, handbook_path
):
    hand.ask("How large may the closing error of a line be?")
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_M)
    before = {(e.id, e.kind) for e in hand.reader.entries.values()}
    hand.window.close()
    again = Hand(qtbot, make_window()).open(handbook_path)
    assert {(e.id, e.kind) for e in again.reader.entries.values()} == before
    rows = again.view.contents.entries
    assert rows.topLevelItemCount() == 2
    again.view.go_to_entry(again.entries("question")[0].id)
    assert again.view.margin.held is not None


def test_a_deleted_entry_comes_back_with_undo(hand):
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_M)
    (entry,) = hand.entries("mark")
    hand.wait(lambda: hand.view.margin.card(entry.id))
    hand.view.margin.card(entry.id).delete_asked.emit(entry.id)
    assert not hand.reader.entries
    assert "Ctrl+Z" in hand.view.status.text()
    hand.window.undo_action.trigger()
    assert set(hand.reader.entries) == {entry.id}
    hand.window.redo_action.trigger()
    assert not hand.reader.entries


def test_what_cannot_be_saved_is_not_shown_as_kept(hand, monkeypatch):
    def fail(*_):
        raise EntryStoreError("This entry was not saved.", hint="Is the disk full?")

    monkeypatch.setattr(hand.reader.store, "put", fail)
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_M)
    assert not hand.reader.entries
    assert "was not saved" in hand.view.status.text()


@pytest.mark.parametrize("n", [200])
def test_many_entries_at_one_place_do_not_overlap(hand, n):
    from wide_margin.core.margin import Anchor, new_entry

    hit = hand.reader.session.find(LINE).result(30)[0]
    hand.view.pages.reveal(hit.spans)
    hand.wait(lambda: hand.view.pages.boxes_in_view(hit.spans))
    for k in range(n):
        hand.reader.add(new_entry("note", Anchor(hit.page, 0.0, hit.spans, LINE), {"text": f"{k}"}))
    standing = hand.view.margin.standing()
    for above, below in pairwise(standing):
        assert above.rect.bottom() < below.rect.top()
    assert "more here" in hand.view.margin._more.text()
    assert hand.view.contents.entries.topLevelItemCount() == n
