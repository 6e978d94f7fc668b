"""The list with rows of many heights, by itself: made words in a real widget."""

import pytest
from PySide6.QtCore import QModelIndex, QSize, QStringListModel, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QStyledItemDelegate

from tests.making import PATIENT
from wide_margin.desktop.tall_rows import GUESSED, TallRows


class Heads(QStringListModel):
    """Words, of which those that begin with # cannot be chosen."""

    def flags(self, index):
        if index.data().startswith("#"):
            return Qt.ItemFlag.NoItemFlags
        return Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable


class AsTallAsSaid(QStyledItemDelegate):
    """A row is as high as the number it ends with; narrower, and twice as high."""

    def __init__(self, parent):
        super().__init__(parent)
        self.asked = []

    def sizeHint(self, option, index):
        self.asked.append(index.row())
        height = int(index.data().split()[-1])
        return QSize(100, height if self.parent().viewport().width() > 250 else 2 * height)


def height_of(row):
    return 20 + 17 * (row % 5)


@pytest.fixture
def rows(qtbot):
    view = TallRows()
    qtbot.addWidget(view)
    view.setItemDelegate(AsTallAsSaid(view))
    view.setSelectionMode(TallRows.SelectionMode.ExtendedSelection)
    view.setModel(Heads([f"{'#' if k % 10 == 0 else 'row'} {height_of(k)}" for k in range(3000)]))
    view.resize(300, 400)
    view.show()
    qtbot.waitExposed(view)
    return view


def go(view, row):
    view.setCurrentIndex(view.model().index(row))


def test_the_last_row_is_shown_without_measuring_those_before(rows):
    rows.itemDelegate().asked.clear()
    go(rows, 2999)
    area = rows.visualRect(rows.model().index(2999))
    assert area.bottom() <= rows.viewport().height()
    assert area.height() == height_of(2999)
    assert len(set(rows.itemDelegate().asked)) < 100


def test_what_is_seen_stays_while_the_rest_is_measured(rows, qtbot):
    go(rows, 1501)
    index = rows.model().index(1501)
    before = rows.visualRect(index)
    qtbot.waitUntil(lambda: not rows._idle.isActive(), timeout=int(PATIENT * 1000))
    assert rows.visualRect(index) == before
    whole = sum(map(height_of, range(3000)))
    assert rows.verticalScrollBar().maximum() == whole - rows.viewport().height()
    assert whole != 3000 * GUESSED


def test_a_point_is_the_row_that_stands_there(rows):
    go(rows, 705)
    for row in range(701, 706):
        area = rows.visualRect(rows.model().index(row))
        assert area.height() == height_of(row)
        assert rows.indexAt(area.center()).row() == row
        assert rows.visualRect(rows.model().index(row + 1)).top() == area.bottom() + 1
    assert not rows.indexAt(rows.viewport().rect().bottomRight() * 1000).isValid()


@pytest.mark.parametrize(
    ("start", "key", "end"),
    [
        (9, Qt.Key.Key_Down, 11),
        (11, Qt.Key.Key_Up, 9),
        (500, Qt.Key.Key_Home, 1),
        (500, Qt.Key.Key_End, 2999),
        (1, Qt.Key.Key_Up, 1),
        (2999, Qt.Key.Key_Down, 2999),
    ],
)
def test_keys_pass_over_what_cannot_be_chosen(rows, start, key, end):
    go(rows, start)
    QTest.keyClick(rows, key)
    assert rows.currentIndex().row() == end


def test_a_page_down_and_up_again_comes_back_near(rows):
    go(rows, 101)
    QTest.keyClick(rows, Qt.Key.Key_PageDown)
    there = rows.currentIndex().row()
    assert 105 < there < 115
    QTest.keyClick(rows, Qt.Key.Key_PageUp)
    assert abs(rows.currentIndex().row() - 101) <= 2


def test_several_are_chosen_by_click_and_shift(rows):
    go(rows, 203)
    first, last = (rows.visualRect(rows.model().index(k)).center() for k in (201, 203))
    QTest.mouseClick(rows.viewport(), Qt.MouseButton.LeftButton, pos=first)
    shift = Qt.KeyboardModifier.ShiftModifier
    QTest.mouseClick(rows.viewport(), Qt.MouseButton.LeftButton, shift, last)
    assert sorted(index.row() for index in rows.selectedIndexes()) == [201, 202, 203]


def test_another_width_measures_anew_and_keeps_the_top_row(rows, qtbot):
    rows.scrollTo(rows.model().index(1000), TallRows.ScrollHint.PositionAtTop)
    rows.resize(200, 400)
    qtbot.waitUntil(lambda: rows.viewport().width() < 250, timeout=int(PATIENT * 1000))
    area = rows.visualRect(rows.model().index(1000))
    assert (area.top(), area.height()) == (0, 2 * height_of(1000))


def test_other_rows_begin_at_the_top_and_none_leave_nothing(rows, qtbot):
    go(rows, 2001)
    rows.model().setStringList(["row 30"] * 50)
    assert rows.verticalOffset() == 0
    qtbot.waitUntil(lambda: not rows._idle.isActive(), timeout=int(PATIENT * 1000))
    assert rows.visualRect(rows.model().index(49)).bottom() + 1 == 1500
    rows.model().setStringList([])
    assert not rows.indexAt(rows.viewport().rect().center()).isValid()
    assert rows.visualRect(QModelIndex()).isEmpty()
    QTest.keyClick(rows, Qt.Key.Key_End)
    assert rows.selectedIndexes() == []
