import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.desktop.read_view.arrangement import GAP, MODES, Arrangement

SIZES = [(400.0, 600.0), (400.0, 600.0), (600.0, 400.0), (400.0, 600.0), (400.0, 600.0)]


def arranged(**changes):
    return Arrangement(SIZES, **{"scale": 1.0, "view": (900.0, 700.0), **changes})


def test_a_column_has_one_page_a_row():
    pages = arranged()
    assert pages.rows == [(0,), (1,), (2,), (3,), (4,)]
    assert pages.tops[1] == GAP + 600 + GAP


def test_facing_pages_stand_in_pairs_after_the_first():
    pages = arranged(mode="facing")
    assert pages.rows == [(0,), (1, 2), (3, 4)]
    (left, top), (right, other) = pages.corner(3), pages.corner(4)
    assert top == other
    assert left + 400 + GAP == right
    assert pages.corner(0)[0] == right  # the first page is a right-hand page


def test_single_pages_have_the_view_to_themselves():
    pages = arranged(mode="single")
    for row in range(5):
        bottom = pages.tops[row] + 650
        assert len(pages.pages_between(pages.tops[row], bottom)) == 1


def test_a_turned_page_is_as_wide_as_it_was_high():
    assert arranged(turns=1).page_size(0) == (600, 400)
    assert arranged(turns=2).page_size(0) == (400, 600)


@given(
    st.sampled_from(MODES), st.integers(0, 3), st.floats(0.3, 4), st.integers(0, 4),
    st.floats(1, 300), st.floats(1, 300),
)  # fmt: skip
def test_a_point_of_a_page_goes_to_the_desk_and_back(mode, turns, scale, page, x, y):
    pages = arranged(mode=mode, turns=turns, scale=scale)
    u, v, _, _ = pages.to_desk(page, (x, y, x, y))
    assert pages.to_page(page, u, v) == pytest.approx((x, y), abs=1e-6)
    assert pages.page_at(u, v) == page


@given(st.sampled_from(MODES), st.integers(0, 3), st.floats(0.3, 4))
def test_no_two_pages_overlap(mode, turns, scale):
    pages = arranged(mode=mode, turns=turns, scale=scale)
    boxes = [pages.to_desk(k, (0.0, 0.0, *SIZES[k])) for k in range(5)]
    for k, a in enumerate(boxes):
        for b in boxes[k + 1 :]:
            apart = a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1]
            assert apart


def test_no_pages_take_no_room():
    empty = Arrangement([], 1.0)
    assert empty.pages_between(0, 500) == []
    assert empty.height == GAP
