"""The lines of the digest, and how the page sets them."""

from dataclasses import replace
from itertools import pairwise

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from wide_margin.core.digest import Digester, Fact
from wide_margin.core.explain import find_definitions
from wide_margin.desktop.digest_view.page import DigestPage
from wide_margin.desktop.digest_view.rows import PARTS, Shape, gist_rows, rows_of
from wide_margin.desktop.digest_view.strip import DigestStrip
from wide_margin.desktop.digest_view.testing import Testing
from wide_margin.desktop.look import NIGHT

EVIL = '<img src="http://evil.example/x.png"><b>bold</b>\x00\u202e'


@pytest.fixture(scope="module")
def digest(handbook):
    return Digester(handbook).digest(find_definitions(handbook), n_words=60)


def rows(digest, handbook, opened=frozenset()):
    return rows_of(digest, handbook.outline, handbook.labels, opened)


def test_parts_follow_each_other(digest, handbook):
    parts = [row.part for row in rows(digest, handbook)]
    assert list(dict.fromkeys(parts)) == list(PARTS)
    assert parts == sorted(parts, key=PARTS.index)


def test_only_the_first_level_is_shown_until_it_is_opened(digest, handbook):
    shown = [row for row in rows(digest, handbook) if row.shape is Shape.SECTION]
    assert {row.depth for row in shown} == {0}
    part = next(row for row in shown if row.has_deeper)
    opened = [
        r for r in rows(digest, handbook, frozenset([part.section])) if r.shape is Shape.SECTION
    ]
    assert len(opened) > len(shown)
    assert {row.depth for row in opened} == {0, 1}


def test_all_can_be_open(digest, handbook):
    everything = frozenset(range(len(handbook.outline.sections)))
    shown = [row for row in rows(digest, handbook, everything) if row.shape is Shape.SECTION]
    assert [row.section for row in shown] == list(range(len(handbook.outline.sections)))


def test_an_open_part_does_not_repeat_what_stands_below_it(digest, handbook):
    everything = frozenset(range(len(handbook.outline.sections)))
    shown = [row for row in rows(digest, handbook, everything) if row.shape is Shape.SECTION]
    for row, after in pairwise(shown):
        if after.depth > row.depth and row.text:
            assert row.text != after.text


def test_what_is_not_stated_says_so(digest, handbook):
    named = {row.name: row for row in rows(digest, handbook) if row.part == "What it is"}
    assert named["By"].text == "not stated"
    assert named["By"].shape is Shape.NONE
    assert named["By"].locator is None


def test_the_gist_of_a_part_says_of_which():
    assert gist_rows((), "whole document")[0].text == "Gist"
    assert gist_rows((), "pages 3–5")[0].text == "Gist of pages 3–5"
    assert gist_rows((), "")[1].shape is Shape.NONE


def test_a_glossary_does_not_repeat_its_term(digest, handbook):
    staff = next(row for row in rows(digest, handbook) if row.name == "staff")
    assert staff.text.startswith("A divided board")


@pytest.fixture
def page(qtbot, digest, handbook):
    made = DigestPage()
    qtbot.addWidget(made)
    made.resize(900, 700)
    made.n_pages = handbook.facts.n_pages
    made.show_rows(rows(digest, handbook))
    made.show()
    return made


def test_a_heading_is_not_chosen(page):
    head = next(k for k, row in enumerate(page.lines.rows) if row.shape is Shape.HEAD)
    assert not page.lines.flags(page.lines.index(head)) & Qt.ItemFlag.ItemIsSelectable


def test_what_a_document_says_is_text(page, digest, handbook):
    at = digest.facts.title.locator
    evil = replace(digest, facts=replace(digest.facts, title=Fact(EVIL, at)))
    page.show_rows(rows(evil, handbook))
    said = page.lines.data(page.lines.index(0), int(Qt.ItemDataRole.DisplayRole))
    assert "<img" in said
    assert "\x00" not in said
    assert "\u202e" not in said
    assert not page.grab().isNull()


def test_the_same_line_stays_chosen(page, digest, handbook):
    page.go_to_part("Terms")
    chosen = page.current()
    page.show_rows(rows(digest, handbook, frozenset([2])))
    assert page.current() == chosen


def test_lines_break_anew_with_the_width(page):
    wide = page.sizeHintForIndex(page.lines.index(len(page.lines.rows) - 30)).height()
    heights = [page.sizeHintForIndex(page.lines.index(k)).height() for k in range(40)]
    page.resize(520, 700)
    narrow = [page.sizeHintForIndex(page.lines.index(k)).height() for k in range(40)]
    assert wide > 0
    assert sum(narrow) > sum(heights)
    assert page.text_width() < 300


def test_keys_move_and_follow(qtbot, page):
    page.go_to_part("Gist")
    with qtbot.waitSignal(page.pointed) as pointed:
        QTest.keyClick(page, Qt.Key.Key_Down)
    assert pointed.args[0] == page.current().locator
    with qtbot.waitSignal(page.followed) as followed:
        QTest.keyClick(page, Qt.Key.Key_Return)
    assert followed.args[0] == page.current().locator


def test_night(page):
    day = page.grab().toImage()
    page.wear(NIGHT)
    assert page.grab().toImage() != day


def test_the_strip_tells_what_is_chosen(qtbot):
    strip = DigestStrip()
    qtbot.addWidget(strip)
    assert not strip.length.isEnabled()
    strip.enable(on=True)
    with qtbot.waitSignal(strip.part_chosen) as chosen:
        strip.parts["Terms"].click()
    assert chosen.args == ["Terms"]
    strip.mark_part("Gist")
    assert [name for name, button in strip.parts.items() if button.isChecked()] == ["Gist"]
    with qtbot.waitSignal(strip.length_changed):
        strip.length.setValue(200)
    assert strip.length_words.text() == "200 words"
    with qtbot.waitSignal(strip.kind_chosen) as kind:
        strip.kind_menu.actions()[2].trigger()
    assert str(kind.args[0]) == "report"


def test_nothing_to_test_oneself_with(qtbot):
    testing = Testing()
    qtbot.addWidget(testing)
    assert testing.now is None
    assert "No sentence" in testing.question.text()
    testing.show_answer()
    testing.judge(known=True)
    assert testing.now is None


def test_known_ones_are_not_asked_again(qtbot, digest):
    testing = Testing()
    qtbot.addWidget(testing)
    known = {question.question: True for question in digest.test[1:]}
    testing.begin(digest.test, known, lambda _: "a section")
    assert testing.now == digest.test[0]
    assert testing.count.text() == f"{len(digest.test) - 1} of {len(digest.test)} questions known"
    assert testing.section.text() == "a section"
