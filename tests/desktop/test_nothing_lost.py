"""What is typed, kept or being written survives other windows, new versions and closing."""

import subprocess
import sys
import threading
import time
from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from tests.making import PATIENT, make_pdf, plain_pages
from wide_margin.core.margin import (
    Anchor,
    EntryKind,
    NoteBody,
    Origin,
    State,
    Store,
    TranslationBody,
    new_entry,
    open_store,
)
from wide_margin.core.services import Settings, SettingsKeeper
from wide_margin.core.services.stand_in import StandIn
from wide_margin.core.translate import Pair
from wide_margin.desktop import handover, service_writing
from wide_margin.desktop.app import Windows
from wide_margin.desktop.read_view.cards.notes import merged

WORDS = "The rope is changed every eighteen months"
QUESTION = "When is the rope changed?"


@pytest.fixture
def windows(qtbot, tmp_path):
    store = Store(tmp_path / "shared.sqlite")
    made = Windows(store, SettingsKeeper())
    yield made
    made.close()
    store.close()


@pytest.fixture
def two(qtbot, windows, small_pdf):
    """Two windows on one document, with a note that both show."""
    one, other = (Hand(qtbot, windows.add()).open(small_pdf) for _ in range(2))
    note = one.keep(WORDS, "N")
    for hand in (one, other):
        hand.wait(lambda hand=hand: hand.view.margin.card(note.id))
    return one, other, note


def field(hand, note):
    return hand.view.margin.card(note.id).field


def test_a_note_typed_in_one_window_is_not_overwritten_by_the_other(two):
    one, other, note = two
    QTest.keyClicks(field(one, note), "from the first window")
    one.wait(lambda: field(other, note).toPlainText() == "from the first window")
    other.view.margin.save_all()  # as losing focus or closing does
    QTest.qWait(50)
    assert one.reader.entries[note.id].body.text == "from the first window"


def test_where_both_windows_typed_both_texts_are_kept(two):
    one, other, note = two
    field(other, note).setPlainText("second")
    field(one, note).setPlainText("first")
    one.view.margin.save_all()
    one.wait(lambda: "first" in field(other, note).toPlainText())
    other.view.margin.save_all()
    both = {"first", "second"}  # in the order in which they were saved
    one.wait(lambda: set(one.reader.entries[note.id].body.text.split("\n\n")) == both)


@pytest.mark.parametrize(
    ("before", "ours", "theirs", "kept"),
    [("a", "a", "b", "b"), ("a", "b", "a", "b"), ("a", "b", "b", "b"), ("", "ab", "a", "ab"),
     ("", "a", "ab", "ab"), ("a", "b", "c", "b\n\nc")],
)  # fmt: skip
def test_two_texts_of_one_note_become_one(before, ours, theirs, kept):
    assert merged(before, ours, theirs) == kept


def test_a_note_typed_without_a_pause_is_on_disk_every_second(hand):
    note = hand.keep("countersigns the second run", "N")
    hand.wait(lambda: hand.view.margin.card(note.id))
    store, kept, began = Store(hand.reader.store.path), "", time.monotonic()
    while len(kept) < 4 and time.monotonic() < began + PATIENT:
        QTest.keyClicks(field(hand, note), "x")
        QTest.qWait(40)
        kept = next(
            e.body.text for e in store.entries(hand.reader.record.id).entries if e.id == note.id
        )
    store.close()
    assert len(kept) > 3


def test_closing_while_composing_keeps_what_was_written_and_offers_to_go_on(
    qtbot, make_window, handbook_path
):
    question = "How large may the closing error of a line of levels be?"
    with StandIn(delay=0.15) as slow:
        settings = Settings(model_address=slow.address)
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        entry = hand.ask(question)
        hand.view.commands.compose(entry.id)
        hand.wait(lambda: hand.reader.entries[entry.id].body.quotes
                  and hand.reader.entries[entry.id].body.origin is Origin.COMPOSED)  # fmt: skip
        hand.window.close()  # does not wait for the rest: it is broken off
        again = Hand(qtbot, make_window(settings)).open(handbook_path)
        again.wait(lambda: entry.id in again.reader.entries)  # read beside the document
        body = again.reader.entries[entry.id].body
        assert body.state is State.BROKEN_OFF
        assert body.quotes
        again.view.held.hold(entry.id)
        words = [b.text() for b in again.view.margin.held.findChildren(service_button())]
        assert "Go on" in words
        again.window.close()
    with StandIn() as quick:
        third = Hand(qtbot, make_window(Settings(model_address=quick.address))).open(handbook_path)
        third.wait(lambda: entry.id in third.reader.entries)
        third.view.commands.go_on(entry.id)
        third.wait(lambda: third.reader.entries[entry.id].body.state is State.DONE)
        third.window.close()


def service_button():
    from PySide6.QtWidgets import QPushButton

    return QPushButton


def test_a_translation_that_broke_off_goes_on_where_it_stopped(qtbot, make_window, small_pdf):
    with StandIn() as server:
        hand = Hand(qtbot, make_window(Settings(model_address=server.address))).open(small_pdf)
        pairs = (Pair("The water is high.", "Schon da."), Pair("The water is low.", ""))
        body = TranslationBody("de", pairs, State.BROKEN_OFF)
        hand.reader.keeper.add(new_entry(EntryKind.TRANSLATION, Anchor(0, 50.0), body))
        hand.wait(lambda: hand.entries("translation"))
        (entry,) = hand.entries("translation")
        hand.wait(lambda: hand.view.margin.card(entry.id))
        assert hand.view.margin.card(entry.id).action.text() == "Go on"
        hand.view.commands.go_on(entry.id)
        hand.wait(lambda: hand.reader.entries[entry.id].body.state is State.DONE)
        first, second = hand.reader.entries[entry.id].body.pairs
        assert first.target == "Schon da."
        assert second.target
        assert "high" not in str(server.asked[-1])
        hand.window.close()


def test_places_inside_answers_move_with_a_new_version(qtbot, make_window, small_pdf):
    hand = Hand(qtbot, make_window()).open(small_pdf)
    entry = hand.ask(QUESTION)
    text = "The rope is changed every eighteen months, whether or not it looks worn."
    make_pdf(small_pdf, [[("text", "A new first page. It is short.")], [("text", text)]])
    hand.reader.read_again()
    hand.wait(lambda: hand.reader.is_ready and hand.reader.summary.n_pages == 2)
    hand.wait(lambda: entry.id in hand.reader.entries)
    hand.wait(lambda: hand.reader.entries[entry.id].anchor.page == 1)
    quote = hand.reader.entries[entry.id].body.quotes[0]
    assert quote.locators[0].page == 1


def test_a_place_that_is_gone_is_told_and_leads_nowhere(hand):
    entry = hand.ask("How large may the closing error of a line be?")
    gone = entry.body.with_places(lambda place: replace(place, spans=(), is_lost=True))
    hand.reader.keeper.change(replace(entry, body=gone))
    hand.wait(lambda: hand.view.held.places and hand.view.held.places[0].is_lost)
    before = hand.view.here()
    hand.view.held.follow(entry.id, 0)
    assert "no longer has these words" in hand.view.status.text()
    assert hand.view.here() == before


def test_a_failure_of_the_file_before_does_not_reach_the_next(
    qtbot, make_window, small_pdf, tmp_path
):
    broken, long = tmp_path / "broken.pdf", tmp_path / "long.pdf"
    broken.write_bytes(b"%PDF-1.7 and nothing else")
    make_pdf(long, plain_pages(200))
    hand = Hand(qtbot, make_window())
    for path in (long, broken, long, broken):
        hand.window.open(path)
    hand.open(small_pdf)
    QTest.qWait(800)
    assert hand.reader.summary.n_pages == 3
    assert not hand.view.message.isVisible()
    assert hand.view.contents.contents.topLevelItemCount() == 2


def test_a_fetch_that_is_overtaken_replaces_nothing(qtbot, make_window, small_pdf):
    release = threading.Event()
    hand = Hand(qtbot, make_window())

    def slow(address, folder, token, progress):
        release.wait(20)
        token.check()
        return small_pdf.with_name("other.pdf")

    from wide_margin.desktop import fetching

    original = fetching.fetch_pdf
    fetching.fetch_pdf = slow
    try:
        hand.window.open_text("http://127.0.0.1:9/other.pdf")
        hand.open(small_pdf)
        release.set()
        QTest.qWait(300)
        assert hand.reader.path == small_pdf
    finally:
        fetching.fetch_pdf = original


def test_a_store_that_is_locked_is_told_and_the_answer_kept_once_it_is_free(hand, monkeypatch):
    from wide_margin.core.errors import EntryStoreError

    record, put = hand.reader.record, hand.reader.store.record_for
    hand.reader.record = None

    def locked(*arguments, **options):
        raise EntryStoreError("This entry was not saved.", hint="Is the store in use?")

    monkeypatch.setattr(hand.reader.store, "record_for", locked)
    field = hand.view.ask_line.field
    field.setText("How often is the wire of the float changed?")
    QTest.keyClick(field, Qt.Key.Key_Return)
    hand.wait(lambda: "was not saved" in hand.view.status.text())
    assert field.text().startswith("How often")  # it can be asked again
    monkeypatch.setattr(hand.reader.store, "record_for", put)
    hand.ask("How often is the wire of the float changed?")
    assert hand.reader.record.id == record.id


def test_a_broken_store_does_not_keep_the_window_away(qtbot, tmp_path, small_pdf):
    path = tmp_path / "entries.sqlite"
    path.write_bytes(b"SQLite format 3\0" + b"rubbish" * 1000)
    opened = open_store(path)
    windows = Windows(opened.store, SettingsKeeper())
    hand = Hand(qtbot, windows.add()).open(small_pdf)
    assert hand.keep(WORDS, "M")
    windows.close()
    opened.store.close()


def test_night_in_one_window_is_night_in_all_and_leaves_the_model(windows):
    one, other = windows.add(), windows.add()
    one.reader.change_settings(model_address="http://127.0.0.1:1/v1")
    other.menus.night.trigger()
    assert one.menus.night.isChecked()
    assert one.read_view.colours.is_night
    assert one.reader.settings.model_address == "http://127.0.0.1:1/v1"
    other.menus.night.trigger()


def test_a_closed_window_is_forgotten(qtbot, windows):
    window = windows.add()
    windows.add()
    window.close()
    assert len(windows.open) == 1


def test_a_second_start_hands_its_file_over(qtbot, tmp_path):
    store, asked = tmp_path / "entries.sqlite", []
    assert not handover.hand_over(store, {"file": "a.pdf"})
    listening = handover.Handover(store)
    listening.asked.connect(asked.append)
    code = (
        "import sys, pathlib\n"
        "from wide_margin.desktop.handover import hand_over\n"
        "print(hand_over(pathlib.Path(sys.argv[1]), {'file': 'a.pdf', 'page': '7'}))\n"
    )
    later = subprocess.Popen(
        [sys.executable, "-c", code, str(store)], stdout=subprocess.PIPE, text=True
    )
    qtbot.waitUntil(lambda: later.poll() is not None, timeout=int(PATIENT * 1000))
    assert later.communicate()[0].strip() == "True"
    assert asked == [{"file": "a.pdf", "page": "7"}]
    listening.close()


def test_a_model_that_does_not_answer_does_not_hold_up_closing(qtbot, make_window, handbook_path):
    with StandIn(misbehave="silent") as server:
        hand = Hand(qtbot, make_window(Settings(model_address=server.address))).open(handbook_path)
        entry = hand.ask("How often is the wire of the float changed?")
        hand.view.commands.compose(entry.id)
        hand.wait(lambda: server.asked)
        began = time.monotonic()
        hand.window.close()
        assert time.monotonic() - began < 30  # the model is given a minute


def test_composing_judges_by_the_documents_language(hand_with_model, monkeypatch):
    judged, hand = [], hand_with_model
    monkeypatch.setattr(
        service_writing, "compose", lambda *a, analyser, **o: judged.append(analyser.language)
    )
    entry = hand.ask("How often is the wire of the float changed?")
    hand.reader.summary = replace(hand.reader.summary, language="de")
    hand.view.commands.compose(entry.id)
    hand.wait(lambda: judged)
    assert judged == ["de"]


def test_what_was_just_made_is_in_sight_whatever_is_held(hand):
    hand.ask("How large may the closing error of a line be?")
    hand.view.margin.held.excerpts_button.click()
    note = hand.keep("countersigns the second run within fourteen days", "N")
    hand.wait(lambda: any(s.entry.id == note.id for s in hand.view.margin.standing()))
    (standing,) = [s for s in hand.view.margin.standing() if s.entry.id == note.id]
    assert standing.rect.top() >= 0
    assert standing.rect.bottom() <= hand.view.margin.height()
    held = hand.view.margin._held_area.geometry()
    assert held.bottom() < standing.rect.top()


def test_a_long_held_answer_takes_the_room_that_no_other_card_needs(hand):
    first = hand.ask("List the sections").body.places[0]
    margin = hand.view.margin
    room = margin.height()
    hand.wait(lambda: 0.63 * room < margin._held_area.height() < room)
    note = new_entry(EntryKind.NOTE, Anchor(first.page, first.y + 40.0), NoteBody("a note"))
    hand.reader.keeper.add(note)
    hand.wait(lambda: margin._held_area.height() < 0.63 * room)
    assert [standing.entry.body.text for standing in margin.standing()] == ["a note"]


def test_a_held_answer_has_the_height_of_its_text_after_the_window_was_made_smaller(hand):
    hand.ask("How large may the closing error of a line be?")
    for width in (1280, 900, 1280):
        hand.window.resize(width, 800)
        QTest.qWait(60)
        held = hand.view.margin.held
        assert held.height() >= held.height_at(held.width())


def test_many_notes_are_laid_out_only_where_they_are_near(hand):
    for k in range(300):
        anchor = Anchor(k % 150, 30.0 * (k % 20))
        hand.reader.keeper.add(new_entry(EntryKind.NOTE, anchor, NoteBody(f"note {k}")))
    hand.wait(lambda: len(hand.reader.entries) == 300)
    assert len(hand.view.margin._cards) < 40
