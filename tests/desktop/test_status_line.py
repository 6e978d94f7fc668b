"""What is said quietly under a view: long sentences, and letters that no font has."""

from dataclasses import replace

import pytest

from wide_margin.desktop import look
from wide_margin.desktop.read_view import reading_told
from wide_margin.desktop.status_line import StatusLine

LONG = "Nobody draws a bucket from the well of the guild after dark. " * 8


def test_a_long_sentence_makes_no_window_wider(qtbot):
    line = StatusLine()
    qtbot.addWidget(line)
    line.resize(400, 40)
    line.say(LONG, act=("Draw one", lambda: None))
    line.show()
    assert line.minimumSizeHint().width() < 600
    assert line.words.heightForWidth(300) > 3 * line.words.fontMetrics().height()


@pytest.mark.parametrize(("language", "lacks"), [("zh", True), ("en", False), ("xx", False)])
def test_fonts_are_asked_for_letters_that_some_machines_lack(monkeypatch, language, lacks):
    monkeypatch.setattr(look.QFontDatabase, "families", lambda system: [])
    look.lacks_letters_of.cache_clear()
    assert look.lacks_letters_of(language) is lacks
    look.lacks_letters_of.cache_clear()


@pytest.mark.parametrize("lacks", [True, False])
def test_letters_that_no_font_has_are_told(hand, monkeypatch, lacks):
    summary = hand.reader.summary
    monkeypatch.setattr(reading_told, "lacks_letters_of", lambda language: lacks)
    assert ("letters of English" in reading_told.read_sentence(summary)) is lacks
    shown = replace(summary, without_text=())
    assert (reading_told.told_for_ms(shown) > 8000) is lacks


def test_pages_whose_text_is_damaged_are_told_and_not_searched(hand):
    summary = replace(hand.reader.summary, garbled=(3, 4), without_text=())
    assert "2 pages with damaged text" in reading_told.read_sentence(summary)
    damaged = tuple(range(summary.n_pages))
    hand.view._show_read(replace(summary, garbled=damaged))
    assert "looked at, not searched" in hand.view.status.text()
    assert hand.view.status.act.text() == "Recognise their text"


def test_nothing_is_offered_where_nothing_can_be_read(hand, monkeypatch):
    reader, unwanted, sought = hand.reader, [], []
    reader.worth_unwanted.connect(lambda: unwanted.append(True))
    monkeypatch.setattr(reader, "find_worth", lambda: sought.append(True))
    reader._use_what_was_kept()
    assert (unwanted, sought) == ([], [True])
    reader.summary = replace(reader.summary, garbled=tuple(range(reader.summary.n_pages)))
    reader._use_what_was_kept()
    assert (unwanted, sought) == ([True], [True])
