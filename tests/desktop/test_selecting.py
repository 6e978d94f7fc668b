import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtTest import QTest

from tests.making import PATIENT

WORDS = "The keeper of the station countersigns the second run within fourteen days"


def test_a_drag_selects_and_copies_the_very_words(hand):
    hand.select(WORDS)
    assert hand.view.pages.selected_text() == WORDS
    hand.view.pages.copy()
    assert QGuiApplication.clipboard().text() == WORDS


def test_a_drag_over_two_lines_joins_them_with_a_space(hand):
    words = (
        "If three successive lines fail, the primary mark is presumed to have moved and the zero"
    )
    hand.select(words)
    assert hand.view.pages.selected_text() == words


def test_a_double_click_selects_a_word(hand):
    hit = hand.reader.session.find("countersigns").result(PATIENT)[0]
    hand.view.pages.reveal(hit.spans)
    hand.wait(lambda: hand.view.pages.boxes_in_view(hit.spans))
    hand.view.pages.reveal(hit.spans)
    middle = hand.view.pages.boxes_in_view(hit.spans)[0].center().toPoint()
    QTest.mouseDClick(hand.view.pages.viewport(), Qt.MouseButton.LeftButton, pos=middle)
    assert hand.view.pages.selected_text() == "countersigns"


def test_a_selection_brings_the_tab_level_with_it(hand):
    assert not hand.view.tab.isVisible()
    hand.select(WORDS)
    tab, pages = hand.view.tab, hand.view.pages
    assert tab.isVisible()
    box = pages.boxes_in_view(pages.selected_spans())[0]
    top = pages.mapTo(hand.view, QPoint(0, int(box.top()))).y()
    assert abs(tab.y() - top) < 10
    QTest.keyClick(pages, Qt.Key.Key_Escape)
    assert not tab.isVisible()


def test_letters_act_only_on_a_selection(hand):
    for key in (Qt.Key.Key_E, Qt.Key.Key_M, Qt.Key.Key_N):
        QTest.keyClick(hand.view.pages, key)
    assert not hand.reader.entries
    hand.keep(WORDS, "M")
    assert len(hand.entries("mark")) == 1


def test_letters_typed_elsewhere_do_not_act(hand):
    hand.select(WORDS)
    QTest.keyClicks(hand.view.ask_line.field, "mane")
    assert not hand.reader.entries
    assert hand.view.ask_line.field.text() == "mane"


@pytest.mark.parametrize("word", ["Explain", "Mark", "Note"])
def test_the_words_of_the_tab_act(hand, word):
    from PySide6.QtWidgets import QPushButton

    hand.select(WORDS)
    button = next(b for b in hand.view.tab.findChildren(QPushButton) if b.text() == word)
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    kind = {"Explain": "explanation", "Mark": "mark", "Note": "note"}[word]
    hand.wait(lambda: hand.entries(kind))
    assert hand.entries(kind)[0].anchor.quote == WORDS


def test_asking_about_a_selection_puts_it_into_the_ask_line(hand):
    hand.select("the primary mark is presumed")
    QTest.keyClick(hand.view.pages, Qt.Key.Key_A)
    assert hand.view.ask_line.field.text() == "“the primary mark is presumed” "
    assert hand.view.ask_line.field.hasFocus() or not hand.window.isActiveWindow()
