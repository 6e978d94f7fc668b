"""Explaining and translating in the real window."""

import re
import time

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel

from tests.desktop.conftest import Hand
from tests.making import PATIENT
from wide_margin.core.explain.model import Manner
from wide_margin.core.layout import boxes_of
from wide_margin.core.margin import State
from wide_margin.core.services import Settings
from wide_margin.core.services.stand_in_dictionary import DictionaryStandIn
from wide_margin.core.translate import Memory
from wide_margin.desktop.read_view.cards import TranslationCard

SENTENCE = (
    "If three successive lines fail, the primary mark is presumed to have moved and the zero of"
    " the gauge is held in suspense under section 8.4 until a transfer from a neighbouring station"
    " has been made."
)


def test_a_sentence_is_explained_and_taken_apart(hand):
    body = hand.keep(SENTENCE, "E").body
    assert "in suspense" in [m.term for m in body.meanings]
    assert body.references[0].title.startswith("8.4 ")
    (parts,) = body.parts
    assert [part.kind for part in parts] == ["main", "condition", "condition"]
    assert len(body.places) >= 4


def test_several_paragraphs_are_explained_each_beside_itself(hand):
    first, last = (
        hand.reader.session.find("Failed lines are entered").result(PATIENT)[0],
        (hand.reader.session.find("neighbouring station has been made").result(PATIENT)[0]),
    )
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.margin import Anchor

    spans = (SpanOnPage(first.page, first.spans[0].start, last.spans[-1].end),)
    hand.reader.explaining.explain(Anchor(first.page, -1.0, spans, "both paragraphs"))
    hand.wait(lambda: len(hand.entries("explanation")) == 2)
    quotes = {e.anchor.quote[:12] for e in hand.entries("explanation")}
    assert quotes == {"Failed lines", "If three suc"}


def test_a_dictionary_puts_its_senses_beside_a_word(qtbot, make_window, handbook_path):
    from tests.desktop.conftest import Hand

    with DictionaryStandIn() as server:
        settings = Settings(language="de", dictionary_address=server.address)
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        entry = hand.keep("water", "E")
        hand.wait(lambda: hand.reader.entries[entry.id].body.senses)
        assert "Stand-in" in hand.reader.entries[entry.id].body.senses[0].title


def test_without_a_model_a_dictionary_glosses_word_by_word(qtbot, make_window, handbook_path):
    from tests.desktop.conftest import Hand

    with DictionaryStandIn() as server:
        settings = Settings(language="de", dictionary_address=server.address)
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        entry = hand.keep("Failed lines are entered in red", "T")
        hand.wait(lambda: hand.reader.entries[entry.id].body.state is State.DONE)
        (pair,) = hand.reader.entries[entry.id].body.pairs
        assert pair.origin == "glosses"
        assert "red: rot" in pair.target


@pytest.fixture
def translated(hand_with_model):
    hand = hand_with_model
    entry = hand.keep("Failed lines are entered in red on Form 6 and are never erased.", "T")
    hand.wait(lambda: hand.reader.entries[entry.id].body.state is State.DONE)
    return hand, entry.id


def test_a_corrected_pair_is_used_at_once_however_slow_the_disk(translated, monkeypatch):
    hand, entry_id = translated
    keep = Memory.keep

    def keep_slowly(memory, pairs):
        time.sleep(0.5)
        return keep(memory, pairs)

    monkeypatch.setattr(Memory, "keep", keep_slowly)
    card = next(c for c in hand.view.margin.findChildren(TranslationCard) if c.entry.id == entry_id)
    box = card._pairs[0]
    box.correct.click()
    box.field.setPlainText("Verfehlte Linien werden rot in Formular 6 eingetragen und nie getilgt.")
    control = Qt.KeyboardModifier.ControlModifier
    QTest.keyClick(box.field, Qt.Key.Key_Return, control)
    hand.wait(lambda: hand.reader.entries[entry_id].body.pairs[0].origin == "corrected")
    again = hand.keep("Failed lines are entered in red on Form 6 and are never erased.", "T")
    hand.wait(lambda: hand.reader.entries[again.id].body.pairs[0].origin == "memory")
    assert "Verfehlte" in hand.reader.entries[again.id].body.pairs[0].target


def test_a_pair_that_lost_a_number_says_so(translated):
    hand, entry_id = translated
    hand.reader.translator.correct(entry_id, 0, "Verfehlte Linien werden nie getilgt.")
    hand.wait(lambda: hand.reader.entries[entry_id].body.pairs[0].doubts)
    assert "6 is missing" in hand.reader.entries[entry_id].body.pairs[0].doubts


# --- figures, and words of one's own


def test_a_table_that_is_cut_out_is_explained(hand):
    table = next(f for f in hand.reader.summary.figures if "Table 2" in f.caption)
    hand.view.go_to_figure(table)
    hand.wait(lambda: hand.view.pages.images.layer(table.page))
    hand.view.commands.cut(table.page, table.box)
    hand.wait(lambda: hand.entries("cutting"))
    hand.view.commands.explain_cutting(hand.entries("cutting")[0].id)
    hand.wait(lambda: hand.entries("explanation"))
    (entry,) = hand.entries("explanation")
    assert [c.name for c in entry.body.columns] == ["Date", "Highest level", "Surge", "Wind"]
    hand.wait(lambda: entry.id in hand.view.margin._cards)
    shown = texts_of(hand.view.margin._cards[entry.id])
    assert "7 rows, 4 columns" in shown
    assert "in m: 3.20 to 4.12" in shown


def test_a_cutting_without_a_figure_is_explained_by_its_text(hand):
    entry = hand.keep("Failed lines are entered in red on Form 6", "m")
    layer = hand.view.pages.images.layer(entry.anchor.page)
    box = boxes_of(layer.page, entry.anchor.spans)[0]
    hand.view.commands.cut(entry.anchor.page, (20.0, box[1] - 1, 580.0, box[3] + 1))
    hand.wait(lambda: hand.entries("cutting"))
    hand.view.commands.explain_cutting(hand.entries("cutting")[0].id)
    hand.wait(lambda: hand.entries("explanation"))
    assert "Failed lines" in hand.entries("explanation")[0].body.text


def test_own_words_are_held_against_the_passage_and_mended(hand):
    entry = hand.keep("Failed lines are entered in red on Form 6 and are never erased.", "m")
    hand.view.go_to_entry(entry.id)
    hand.wait(lambda: entry.id in hand.view.margin._cards)
    card = hand.view.margin._cards[entry.id]
    assert not card._checking.isVisibleTo(card)
    QTest.keyClicks(card.field, "Faild lines are entered in red on Form 7.")
    assert card._checking.isVisibleTo(card)
    card._checking.check_button.click()
    hand.wait(lambda: card._checking.found is not None)
    shown = texts_of(card._checking)
    assert "number 7" in shown
    assert "Faild → Failed" in shown
    card._checking.mend()
    assert card.field.toPlainText().startswith("Failed lines")
    assert card._checking.found is None  # it was of the words before
    card.field.undo()
    assert card.field.toPlainText().startswith("Faild lines")


def test_a_passage_is_put_plainly_by_the_model(hand_with_model):
    hand = hand_with_model
    hand.select("Failed lines are entered in red on Form 6 and are never erased.")
    hand.view.commands.act("E")
    hand.wait(lambda: hand.entries("explanation"))
    (entry,) = hand.entries("explanation")
    hand.view.commands.put_otherwise(entry.id, Manner.NEWCOMER)
    hand.wait(lambda: hand.reader.entries[entry.id].body.plainly)
    hand.wait(lambda: hand.reader.entries[entry.id].body.state is State.DONE)
    hand.wait(lambda: entry.id in hand.view.margin._cards)
    assert "Put for a newcomer" in texts_of(hand.view.margin._cards[entry.id])
    assert hand.reader.entries[entry.id].body.plainly[0].backing == "backed"


def test_a_note_is_reworded_and_undo_brings_it_back(hand_with_model):
    hand = hand_with_model
    entry = hand.keep("Failed lines are entered in red on Form 6 and are never erased.", "m")
    hand.view.commands.save_text(entry.id, "Every line must be kept.")
    hand.wait(lambda: hand.reader.entries[entry.id].body.text)
    hand.view.commands.put_otherwise(entry.id, Manner.FORMAL)
    hand.wait(lambda: hand.reader.entries[entry.id].body.text == "Every line has to be held.")
    hand.reader.undo.undo()
    hand.wait(lambda: hand.reader.entries[entry.id].body.text == "Every line must be kept.")


def test_a_model_that_fails_says_so_in_the_entry(qtbot, make_window, handbook_path):
    settings = Settings(model_address="http://127.0.0.1:9/v1", language="de")
    hand = Hand(qtbot, make_window(settings)).open(handbook_path)
    hand.select("Failed lines are entered in red on Form 6 and are never erased.")
    hand.view.commands.act("E")
    hand.wait(lambda: hand.entries("explanation"))
    (entry,) = hand.entries("explanation")
    hand.view.commands.put_otherwise(entry.id, Manner.PLAIN)
    hand.wait(lambda: hand.reader.entries[entry.id].body.problem)
    assert hand.reader.entries[entry.id].body.state is State.FAILED


def texts_of(widget):
    return "\n".join(
        re.sub("<[^>]+>", "", label.text()) for label in widget.findChildren(QLabel)
    )  # fmt: skip
