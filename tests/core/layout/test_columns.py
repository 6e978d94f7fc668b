"""Columns that take a part of a page, between lines of full width."""

import numpy as np
import pytest

from wide_margin.core.layout.columns import reading_zones

ABOVE = [(72.0, 100.0 + 14 * k, 500.0, 110.0 + 14 * k) for k in range(6)]
BELOW = [(72.0, 400.0 + 14 * k, 500.0, 410.0 + 14 * k) for k in range(6)]


def column(left, *, top=220.0, n=5, width=120.0):
    """Entries of a list, each drawn as a title and a page number at its end."""
    rows = []
    for k in range(n):
        y = top + 14 * k
        rows += [(left, y, left + width - 20, y + 10), (left + width - 6, y, left + width, y + 10)]
    return rows


def zones(*parts):
    boxes = np.array([box for part in parts for box in part], dtype=np.float32)
    ends = np.cumsum([len(part) for part in parts])
    return [sorted(set(np.searchsorted(ends, zone, side="right"))) for zone in reading_zones(boxes)]


@pytest.mark.parametrize("lefts", [(72.0, 205.0), (72.0, 205.0, 338.0)])
def test_a_list_in_columns_is_read_column_by_column(lefts):
    columns = [column(left) for left in lefts]
    found = zones(ABOVE, *columns, BELOW)
    assert found == [[k] for k in range(len(lefts) + 2)]


def test_a_shorter_last_column_and_another_height_of_rows_make_no_difference():
    assert zones(ABOVE, column(72.0, n=7), column(205.0, top=223.0, n=4)) == [[0], [1], [2]]


def test_two_rows_beside_two_others_are_no_columns():
    assert zones(ABOVE, column(72.0, n=2), column(205.0, n=2), BELOW) == [[0, 1, 2, 3]]


def test_text_level_with_both_tells_that_they_are_no_columns():
    aside = [(420.0, 225.0, 500.0, 235.0)]
    assert zones(aside, ABOVE, column(72.0), column(205.0)) == [[0, 1, 2, 3]]


def test_cells_of_a_table_stay_in_their_row():
    head = [(72.0, 200.0, 130.0, 210.0), (205.0, 200.0, 260.0, 210.0)]
    assert zones(ABOVE, head, column(72.0), column(205.0), BELOW) == [[0, 1, 2, 3, 4]]


def labelled(left, *, n_lines, width=260.0, n=6, goes_up=False):
    """Labels, each with text of some lines at its right, drawn in turn or after all labels."""
    labels, texts = [], []
    for k in range(n):
        y = 100.0 + 14 * n_lines * k
        labels.append((left, y, left + 25 + 15 * (k % 3), y + 10))
        texts.append(
            [(left + 100, y + 14 * j, left + 100 + width, y + 14 * j + 10) for j in range(n_lines)]
        )
    if goes_up:
        return [labels, [line for text in texts for line in text]]
    return [[box for label, text in zip(labels, texts, strict=True) for box in (label, *text)]]


@pytest.mark.parametrize("n_lines", [9, 20])
def test_labels_with_long_texts_are_no_column(n_lines):
    assert zones(*labelled(72.0, n_lines=n_lines)) == [[0]]
    assert zones(*labelled(72.0, n_lines=n_lines, goes_up=True)) == [[0], [1]]


def test_a_table_beside_a_figure_has_no_labels():
    (drawn,) = labelled(72.0, n_lines=20, width=20.0)
    title = (172.0, 1800.0, 432.0, 1810.0)
    assert len(reading_zones(np.array([*drawn, title], dtype=np.float32))) > 1
