"""Listening in the real window: marked as it is said, paused, back, on, faster, by keyboard."""

import pytest
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtTest import QTest

from wide_margin.core.errors import ServiceError
from wide_margin.core.services.speech import SpeechDispatcher
from wide_margin.core.services.stand_in_speech import SpeechStandIn


@pytest.fixture
def speech():
    with SpeechStandIn(seconds=0.2) as server:
        yield server


@pytest.fixture
def listening(hand, speech):
    hand.view.listening.find_engine = lambda: SpeechDispatcher(speech.address)
    yield hand.view.listening
    hand.view.listening.stop()


def press(hand, keys):
    """What a shortcut of the menus does."""
    wanted = QKeySequence(keys)
    (action,) = (a for a in hand.window.findChildren(QAction) if wanted in a.shortcuts())
    action.trigger()


def test_from_a_selection_on_each_sentence_is_marked_as_it_is_said(hand, listening, speech):
    hand.select("Failed lines are entered in red on Form 6")
    press(hand, "Ctrl+F8")
    hand.wait(lambda: len(speech.said) >= 2)
    assert speech.said[0].startswith("Failed lines are entered in red on Form 6")
    assert speech.said[1].startswith("The keeper of the station countersigns")
    (laid,) = hand.view.pages.laid("evidence")
    assert laid.spans == listening.sentences[listening.at].locator.spans
    assert "Reading aloud: 9.3 Closing error" in hand.view.status.text()
    assert laid.spans[0].page in hand.view.pages.visible_pages()


def test_it_is_paused_and_goes_on_with_the_same_sentence(hand, listening, speech):
    hand.select("Failed lines are entered in red on Form 6")
    listening.from_here()
    hand.wait(lambda: speech.said)
    press(hand, "F8")
    assert listening.is_paused
    at, n = listening.at, len(speech.said)
    assert "Paused" in hand.view.status.text()
    QTest.qWait(400)
    assert (listening.at, len(speech.said)) == (at, n)
    press(hand, "F8")
    hand.wait(lambda: len(speech.said) > n)
    assert speech.said[n] == listening.sentences[at].text


def test_back_on_and_to_the_next_paragraph(hand, listening, speech):
    hand.select("Failed lines are entered in red on Form 6")
    listening.from_here()
    hand.wait(lambda: listening.is_on)
    first = listening.at
    listening.pause()
    listening.next_paragraph()
    assert listening.sentences[listening.at].text.startswith("If three successive lines fail")
    listening.pause()
    listening.step(-1)
    assert listening.at > first
    assert listening.sentences[listening.at].paragraph == listening.sentences[first].paragraph


def test_faster_and_slower_within_bounds(hand, listening, speech):
    for _ in range(20):
        listening.faster(1)
    assert listening.rate == 3.0
    listening.faster(-40)
    assert listening.rate == 0.5
    assert "0.5 times" in hand.view.status.text()


def test_a_section_is_read_to_its_end_and_no_further(hand, listening, speech):
    hand.view.go_to_typed("18")
    hand.wait(lambda: hand.view.section >= 0)
    hand.view.listening.section()
    hand.wait(lambda: listening.is_on)
    path = {sentence.locator.path[-1] for sentence in listening.sentences}
    assert len(path) == 1
    listening.step(10**6)
    hand.wait(lambda: "Read to the end" in hand.view.status.text())
    assert not listening.is_on
    assert hand.view.pages.laid("evidence") == []


def test_no_engine_is_told_with_what_to_install(hand):
    def none():
        raise ServiceError("Nothing here can read aloud.", hint="Install the package espeak-ng.")

    hand.view.listening.find_engine = none
    hand.view.listening.from_here()
    hand.wait(lambda: "espeak-ng" in hand.view.status.text())
    assert not hand.view.listening.is_on


def test_another_document_ends_it(hand, listening, speech, small_pdf):
    listening.from_here()
    hand.wait(lambda: speech.said)
    hand.window.open(small_pdf)
    hand.wait(lambda: not listening.is_on)
