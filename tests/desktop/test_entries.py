from itertools import pairwise

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.core.layout.test_wrapped import ROWS, draw_table
from tests.desktop.conftest import Hand
from tests.making import PATIENT
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.margin import Anchor, EntryKind, NoteBody, new_entry
from wide_margin.core.services.stand_in import StandIn
from wide_margin.core.translate import Pair
from wide_margin.desktop.read_view.cards import HeldAnswer, TranslationCard

LINE = "Failed lines are entered in red on Form 6 and are never erased."


def test_an_answer_is_held_and_its_first_place_is_shown(hand):
    entry = hand.ask("How large may the closing error of a line of levels be?")
    hand.wait(lambda: hand.view.margin.held)
    assert "4 mm" in " ".join(q.text for q in entry.body.quotes)
    place = entry.body.quotes[0].locators[0]
    hand.wait(lambda: place.page in hand.view.pages.visible_pages())
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
    assert "".join(words.split()) == "".join(entry.body.quotes[0].text.split())


def test_brackets_step_through_the_places(hand):
    entry = hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.margin.held)
    n = sum(len(q.locators) for q in entry.body.quotes)
    hand.view.held.step(1)
    assert hand.view.held.at == 1 % n
    hand.view.held.step(-1)
    assert hand.view.held.at == 0
    hand.view.held.follow(entry.id, 0)
    assert hand.view.history.behind


def test_letting_go_returns_the_answer_to_its_place(hand):
    hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.margin.standing() == [] and hand.view.margin.held)
    hand.view.held.let_go()
    assert hand.view.margin.held is None
    assert hand.view.pages.laid("evidence") == []
    hand.wait(lambda: [s.entry.kind for s in hand.view.margin.standing()] == ["question"])


def test_a_decline_shows_the_nearest_passages(hand):
    entry = hand.ask("Which football club won the cup in 1974?")
    hand.wait(lambda: hand.view.margin.held)
    assert entry.body.quotes == ()
    held = hand.view.margin.held
    assert isinstance(held, HeldAnswer)
    assert held._excerpts.isVisibleTo(held)
    hand.view.held.step(1)
    assert hand.view.held.at == 0


def test_asking_of_a_section_stays_until_it_is_changed(hand):
    hand.view.go_to_typed("17")
    hand.wait(lambda: hand.view.ask_line.reach_choice.menu.actions()[1:])
    hand.view.ask_line.reach_choice.menu.actions()[1].trigger()
    named = hand.view.ask_line.reach.name
    assert named == "9.1 Siting"
    hand.view.go_to_typed("30")
    assert hand.view.ask_line.reach.name == named
    entry = hand.ask("How often is the wire of the float changed?")
    assert entry.body.reach.name == named
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
    empty_hand.wait(lambda: empty_hand.reader.entries)  # from what is read so far, or from all
    empty_hand.wait(lambda: field.text() == "")
    empty_hand.wait(lambda: empty_hand.reader.is_ready)
    (entry_id,) = empty_hand.reader.entries
    empty_hand.wait(lambda: empty_hand.reader.entries[entry_id].body.so_far == 0)


def test_an_explanation_stands_beside_its_passage(hand):
    entry = hand.keep("held in suspense under section 8.4", "E")
    assert entry.body.meanings[0].term == "in suspense"
    hand.wait(lambda: hand.view.margin.standing())
    (standing,) = hand.view.margin.standing()
    box = hand.view.pages.boxes_in_view(entry.anchor.spans)[0]
    assert abs(standing.rect.top() - box.top()) < 30
    hand.view.held.follow(entry.id, 0)
    assert hand.view.pages.laid("evidence")


def test_a_translation_comes_sentence_by_sentence_and_says_it_is_simulated(hand_with_model):
    hand = hand_with_model
    hand.keep(LINE, "T")
    hand.wait(
        lambda: hand.entries("translation") and hand.entries("translation")[0].body.state == "done"
    )
    (entry,) = hand.entries("translation")
    translated = "Failed lines sind entered in rot auf Form 6 und sind nie erased."
    assert entry.body.pairs == (Pair(LINE, translated),)
    card = hand.view.margin.card(entry.id)
    assert "simulated" in card.head.text()
    hand.view.commands.point_at_pair(entry.id, 0)
    assert hand.view.pages.laid("evidence")


def test_the_chosen_language_is_remembered(hand_with_model):
    from wide_margin.core.services import load_settings

    hand = hand_with_model
    entry = hand.keep(LINE, "T")
    card = hand.view.margin.card(entry.id)
    assert isinstance(card, TranslationCard)
    card.commands.choose_language(entry.id, "fr")
    hand.wait(lambda: hand.reader.entries[entry.id].body.state == "done"
              and "rouge" in hand.reader.entries[entry.id].body.pairs[0][1])  # fmt: skip
    assert load_settings().language == "fr"
    assert hand.reader.translator.target == "fr"


def test_without_a_model_a_clear_sentence_says_how_to_connect_one(hand):
    hand.keep(LINE, "T")
    hand.wait(lambda: hand.entries("translation")[0].body.state == "failed")
    assert "--model ADDRESS" in hand.entries("translation")[0].body.problem


def test_a_model_that_went_away_is_told_and_can_be_tried_again(hand_with_model, stand_in):
    hand = hand_with_model
    stand_in.close()
    hand.keep(LINE, "T")
    hand.wait(lambda: hand.entries("translation")[0].body.state == "failed")
    with StandIn() as other:
        hand.reader.settings_keeper.hold_for_now(model_address=other.address)
        (entry,) = hand.entries("translation")
        hand.view.margin.card(entry.id).commands.go_on(entry.id)
        hand.wait(lambda: hand.reader.entries[entry.id].body.state == "done")


def test_a_translation_can_be_cancelled(qtbot, make_window, handbook_path):
    from wide_margin.core.services import Settings

    with StandIn(delay=0.3) as slow:
        settings = Settings(model_address=slow.address, language="de")
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        hand.keep(LINE, "T")
        hand.wait(lambda: hand.entries("translation")[0].body.state == "running")
        (entry,) = hand.entries("translation")
        hand.wait(lambda: hand.view.margin.card(entry.id))
        hand.view.margin.card(entry.id).action.click()
        hand.wait(lambda: hand.reader.entries[entry.id].body.problem == "Cancelled.")
        hand.window.close()


def test_a_note_is_kept_while_it_is_typed(hand, qtbot, make_window, handbook_path):
    entry = hand.keep(LINE, "N")
    QTest.keyClicks(hand.view.margin.card(entry.id).field, "see Form 6")
    hand.window.close()  # before the pause after typing is over
    again = Hand(qtbot, make_window()).open(handbook_path)
    again.wait(lambda: again.entries("note"))
    assert again.entries("note")[0].body.text == "see Form 6"


def test_entries_are_there_when_the_document_is_opened_again(
    hand, qtbot, make_window, handbook_path
):
    hand.ask("How large may the closing error of a line be?")
    hand.keep(LINE, "M")
    before = {(e.id, e.kind) for e in hand.reader.entries.values()}
    hand.window.close()
    again = Hand(qtbot, make_window()).open(handbook_path)
    assert {(e.id, e.kind) for e in again.reader.entries.values()} == before
    again.view.contents.show_entries_list()
    rows = again.view.contents.entries
    assert rows.topLevelItemCount() == 2
    again.view.go_to_entry(again.entries("question")[0].id)
    assert again.view.margin.held is not None


def test_a_deleted_entry_comes_back_with_undo(hand):
    entry = hand.keep(LINE, "M")
    hand.wait(lambda: hand.view.margin.card(entry.id))
    hand.view.margin.card(entry.id).commands.delete(entry.id)
    hand.wait(lambda: not hand.reader.entries)
    assert "Ctrl+Z" in hand.view.status.text()
    hand.window.menus.undo.trigger()
    hand.wait(lambda: set(hand.reader.entries) == {entry.id})
    hand.window.menus.redo.trigger()
    hand.wait(lambda: not hand.reader.entries)


def test_what_cannot_be_saved_is_not_shown_as_kept(hand, monkeypatch):
    def fail(*_):
        raise EntryStoreError("This entry was not saved.", hint="Is the disk full?")

    monkeypatch.setattr(hand.reader.store, "put", fail)
    hand.select(LINE)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_M)
    hand.wait(lambda: "was not saved" in hand.view.status.text())
    assert not hand.reader.entries


@pytest.mark.parametrize("n", [200])
def test_many_entries_at_one_place_do_not_overlap(hand, n):
    hit = hand.reader.session.find(LINE).result(PATIENT)[0]
    hand.view.pages.reveal(hit.spans)
    hand.wait(lambda: hand.view.pages.boxes_in_view(hit.spans))
    for k in range(n):
        anchor = Anchor(hit.page, 0.0, hit.spans, LINE)
        hand.reader.keeper.add(new_entry(EntryKind.NOTE, anchor, NoteBody(f"{k}")))
    hand.wait(lambda: len(hand.reader.entries) == n)
    standing = hand.view.margin.standing()
    for above, below in pairwise(standing):
        assert above.rect.bottom() < below.rect.top()
    assert "more here" in hand.view.margin._more.text()
    hand.view.contents.show_entries_list()
    assert hand.view.contents.entries.topLevelItemCount() == n


def test_no_leader_runs_through_the_cells_beside_a_passage(empty_hand, tmp_path):
    path = tmp_path / "table.pdf"
    draw_table(path, ROWS, (70, 192, 344), (110, 140, 150))
    hand = empty_hand.open(path)
    pages = hand.view.pages
    hit = hand.reader.session.find("any depth of the well").result(PATIENT)[0]
    pages.reveal(hit.spans)
    hand.wait(lambda: pages.images.layer(0))
    cells = [line for line in pages.images.layer(0).lines if line.table_row == 1]
    right = max(pages.to_view(0, line.box).right() for line in cells)
    assert pages.right_of(hit.spans).x() >= int(right)
