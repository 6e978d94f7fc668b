"""The Map view in the real window: pointed at by keyboard, terms, references, taking away."""

from xml.etree import ElementTree

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest

from tests.making import PATIENT
from wide_margin.core.export import read_outline
from wide_margin.desktop.map_view.drawing import AXIS, HEAD
from wide_margin.desktop.map_view.model import MOST_TERMS

ERROR = "9.3 Closing error"


@pytest.fixture
def view(hand):
    hand.window.show_view("Map")
    view = hand.window.map_view
    hand.wait(lambda: view.model.n_pages and view.canvas.section >= 0)
    return view


def row_of(view, title):
    return next(k for k, s in enumerate(view.model.outline.sections) if s.title == title)


def key(view, *keys):
    for one in keys:
        QTest.keyClick(view.canvas, one)


def test_a_section_is_pointed_at_told_of_and_read_by_keyboard_alone(hand, view):
    view.canvas.point_at(row_of(view, ERROR) - 1)
    key(view, Qt.Key.Key_Down)
    assert view.model.outline.sections[view.canvas.section].title == ERROR
    assert view.side.title.text().startswith(ERROR)
    hand.wait(lambda: any(row.title.startswith("8.4 ") for row in view.side._rows))
    hand.wait(lambda: any(row.title.startswith("38.3 ") for row in view.side._rows))
    hand.wait(lambda: view.side.picture.has_image)
    assert view.canvas.tied
    key(view, Qt.Key.Key_Return)
    hand.wait(lambda: hand.window.shown_view == "Read")
    section = view.model.outline.sections[row_of(view, ERROR)]
    hand.wait(lambda: hand.view.here()[0] == section.page)


def test_sections_are_closed_and_opened_with_left_and_right(view):
    view.ask_for_levels(2)
    part = row_of(view, "Part III Levelling")
    view.canvas.point_at(part)
    before = len(view.model.bars())
    key(view, Qt.Key.Key_Left)
    assert len(view.model.bars()) < before
    key(view, Qt.Key.Key_Right)
    assert len(view.model.bars()) == before
    key(view, Qt.Key.Key_Right)
    assert view.model.parent(view.canvas.section) == part
    key(view, Qt.Key.Key_Left, Qt.Key.Key_Left)
    assert view.canvas.section == part


def test_pointing_with_the_mouse_names_what_lies_there(view):
    geometry = view.canvas.geometry_now
    bar = next(b for b in view.model.bars() if b.column == 0 and b.end - b.start > 5)
    point = QPointF(AXIS + 20, geometry.y((bar.start + bar.end) / 2))
    assert view.canvas._under(point) == bar.section
    assert view.canvas._under(QPointF(AXIS + 20, HEAD - 10)) == -1
    QTest.mouseClick(view.canvas, Qt.MouseButton.LeftButton, pos=point.toPoint())
    assert view.canvas.section == bar.section


def test_a_term_stands_where_find_says(hand, view):
    hand.wait(lambda: len(view.model.terms) == 3)  # the terms that tell its shape
    view.add_term("in suspense")
    column = view.model.terms[-1]
    hand.wait(lambda: column.places)
    hits = hand.reader.session.find("in suspense").result(PATIENT)
    assert len(column.places) == len(hits)
    assert [int(place.at) for place in column.places] == [hit.page for hit in hits]
    view.drop_term("in suspense")
    assert column not in view.model.terms


def test_a_term_that_stands_nowhere_and_one_too_many_are_told(hand, view):
    hand.wait(lambda: len(view.model.terms) == 3)
    view.add_term("<b>zeppelin</b>")
    hand.wait(lambda: "stands nowhere" in view.status.text())
    for term in ("one", "two", "three"):
        view.add_term(term)
    assert len(view.model.terms) == MOST_TERMS
    assert "At most" in view.status.text()


def test_entries_and_the_held_answer_are_drawn(hand, view):
    assert view.model.entries == ()
    hand.window.show_view("Read")
    mark = hand.keep("Failed lines are entered in red on Form 6", "1")
    hand.ask("How large may the closing error of a line be?")
    hand.window.show_view("Map")
    assert [int(place) for place in view.model.entries].count(mark.anchor.page) >= 1
    assert len(view.model.held) == len(hand.view.margin.held.entry.body.places)


def test_a_section_is_taken_as_reach(hand, view):
    view.canvas.point_at(row_of(view, ERROR))
    view.side.reach_button.click()
    assert hand.window.shown_view == "Read"
    assert hand.view.ask_line.reach.name == ERROR


def test_lines_to_references_are_drawn_on_demand(hand, view):
    view.canvas.point_at(row_of(view, ERROR))
    hand.wait(lambda: view.canvas.tied)
    view.references_button.click()
    assert not view.canvas.tied
    assert view.references_button.text() == "references off"
    view.references_button.click()
    hand.wait(lambda: view.canvas.tied)


def test_it_is_drawn_larger_and_all_of_it_again(view):
    before = view.canvas.height()
    key(view, Qt.Key.Key_Plus, Qt.Key.Key_Plus)
    assert view.canvas.minimumHeight() >= 1.9 * view.area.viewport().height()
    key(view, Qt.Key.Key_Minus, Qt.Key.Key_Minus)
    assert view.canvas.minimumHeight() == 0
    assert before > 100


def test_it_is_taken_away_as_drawing_picture_and_outline(hand, view, tmp_path):
    hand.wait(lambda: len(view.model.terms) == 3 and all(t.places for t in view.model.terms))
    view.ask_for_levels(1)
    for form in ("svg", "png", "md", "opml"):
        view.save(tmp_path / f"map.{form}", form)
        assert f"map.{form}" in view.status.text()
    root = ElementTree.parse(tmp_path / "map.svg").getroot()
    said = " ".join(root.itertext())
    assert "Part III Levelling" in said
    assert view.model.terms[0].term in said
    picture = QImage(str(tmp_path / "map.png"))
    assert picture.width() > 1000
    n = len(view.model.bars())
    assert (tmp_path / "map.md").read_text().count("\n- ") == n
    text = (tmp_path / "map.opml").read_text()
    assert text.count("<outline ") == n
    assert len(read_outline(tmp_path / "map.opml")) == n


def test_a_folder_that_is_not_there_is_told(view, tmp_path):
    view.save(tmp_path / "no" / "map.svg", "svg")
    assert "cannot be written" in view.status.text()


def test_night_colours_are_worn(hand, view):
    day = view.canvas.grab().toImage().pixelColor(int(AXIS) + 60, 5)
    hand.reader.change_settings(night=True)
    night = view.canvas.grab().toImage().pixelColor(int(AXIS) + 60, 5)
    assert day.lightness() > 200
    assert night.lightness() < 80


def test_terms_that_go_along_with_those_drawn_are_offered(hand, view):
    hand.wait(lambda: view.model.terms)
    for column in list(view.model.terms):
        view.drop_term(column.term)
    view.add_term("surge")
    hand.wait(lambda: view._related.get("surge"))
    (menu,) = [a.menu() for a in view.add_menu.actions() if a.menu() is not None]
    assert "surge" in menu.title()
    offered = menu.actions()[0]
    offered.trigger()
    drawn = [column.term for column in view.model.terms]
    assert drawn == ["surge", offered.text()]
    again = [a.text() for m in view.add_menu.actions() if m.menu() for a in m.menu().actions()]
    assert offered.text() not in again
