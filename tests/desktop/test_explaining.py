"""Explaining and translating in the real window."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from wide_margin.core.margin import State
from wide_margin.core.services import Settings
from wide_margin.core.services.stand_in_dictionary import DictionaryStandIn
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
        hand.reader.session.find("Failed lines are entered").result(30)[0],
        (hand.reader.session.find("neighbouring station has been made").result(30)[0]),
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


def test_a_corrected_pair_is_used_the_next_time(translated):
    hand, entry_id = translated
    card = next(c for c in hand.view.margin.findChildren(TranslationCard) if c.entry.id == entry_id)
    box = card._pairs[0]
    box.correct.click()
    box.field.setPlainText("Verfehlte Linien werden rot in Formular 6 eingetragen und nie getilgt.")
    control = Qt.KeyboardModifier.ControlModifier
    QTest.keyClick(box.field, Qt.Key.Key_Return, control)
    hand.wait(lambda: hand.reader.entries[entry_id].body.pairs[0].origin == "corrected")
    hand.wait(lambda: (hand.reader.store.path.parent / "translations.sqlite").exists())
    again = hand.keep("Failed lines are entered in red on Form 6 and are never erased.", "T")
    hand.wait(lambda: hand.reader.entries[again.id].body.pairs[0].origin == "memory")
    assert "Verfehlte" in hand.reader.entries[again.id].body.pairs[0].target


def test_a_pair_that_lost_a_number_says_so(translated):
    hand, entry_id = translated
    hand.reader.translator.correct(entry_id, 0, "Verfehlte Linien werden nie getilgt.")
    hand.wait(lambda: hand.reader.entries[entry_id].body.pairs[0].doubts)
    assert "6 is missing" in hand.reader.entries[entry_id].body.pairs[0].doubts
