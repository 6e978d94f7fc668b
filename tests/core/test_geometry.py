import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.geometry import line_boxes, to_page_space, union

FRAME = (10.0, 20.0, 210.0, 320.0)  # 200 wide, 300 high


@pytest.mark.parametrize(
    ("turns", "expected"),
    [
        (0, (0, 290, 20, 300)),  # the lower left corner of the page, unturned
        (1, (0, 0, 10, 20)),  # a quarter clockwise: it is at the top left
        (2, (180, 0, 200, 10)),
        (3, (290, 180, 300, 200)),
    ],
)
def test_a_box_in_the_lower_left_corner_turns_with_the_page(turns, expected):
    box = np.array([[10.0, 20.0, 30.0, 30.0]])
    assert to_page_space(box, FRAME, turns)[0] == pytest.approx(expected)


def test_a_rotation_that_does_not_exist_is_refused():
    with pytest.raises(ValueError, match="quarter turns"):
        to_page_space(np.zeros((1, 4)), FRAME, 4)


@given(st.integers(0, 3), st.floats(10, 200), st.floats(20, 310))
def test_every_rotation_keeps_boxes_upright_and_on_the_page(turns, x, y):
    box = to_page_space(np.array([[x, y, x + 5, y + 5]]), FRAME, turns)[0]
    assert box[0] < box[2]
    assert box[1] < box[3]
    width, height = (200, 300) if turns % 2 == 0 else (300, 200)
    assert -0.01 <= box[0] <= width
    assert -0.01 <= box[1] <= height


def test_characters_of_two_lines_make_two_boxes():
    row = [[x, 0, x + 5, 10] for x in range(0, 50, 5)] + [
        [x, 14, x + 5, 24] for x in range(0, 25, 5)
    ]
    assert line_boxes(np.array(row, dtype=float)) == [(0, 0, 50, 10), (0, 14, 25, 24)]


def test_characters_without_a_shape_are_left_out():
    row = np.array([[0, 0, 5, 10], [np.nan] * 4, [8, 0, 13, 10]])
    assert line_boxes(row) == [(0, 0, 13, 10)]
    assert line_boxes(np.full((3, 4), np.nan)) == []


def test_union_is_the_smallest_box_around_all():
    assert union(np.array([[1, 2, 3, 4], [0, 3, 2, 9]])) == (0, 2, 3, 9)
