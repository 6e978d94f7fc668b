"""Where translated paragraphs stand beside their sources."""

from hypothesis import given
from hypothesis import strategies as st

from wide_margin.desktop.read_view.facing.alignment import Extent, runs_of, tops_beside

GAP = 8


def column(heights, gaps, start=0.0):
    """Extents under each other."""
    extents, y = [], start
    for height, gap in zip(heights, gaps, strict=True):
        extents.append(Extent(y, y + height))
        y += height + gap
    return extents


columns = st.lists(
    st.tuples(st.floats(5, 300), st.floats(0, 40), st.integers(5, 500)), min_size=1, max_size=12
)


def test_paragraphs_of_one_column_are_each_a_run():
    extents = column([20, 30, 40], [10, 10, 10])
    assert [(a, b) for a, b, _ in runs_of(extents)] == [(0, 1), (1, 2), (2, 3)]


def test_columns_under_one_heading_are_one_run():
    heading, left, right = Extent(0, 20), Extent(30, 300), Extent(30, 250)
    after = Extent(320, 400)
    runs = runs_of([heading, left, right, after])
    assert runs == [(0, 1, heading), (1, 3, Extent(30, 300)), (3, 4, after)]


def test_a_column_that_goes_back_up_over_several_takes_them_all():
    extents = [*column([40, 40, 40], [10, 10, 10], 100.0), Extent(100, 240)]
    assert runs_of(extents) == [(0, 4, Extent(100, 240))]


@given(columns)
def test_runs_share_no_paragraph_and_leave_none_out(made):
    extents = column([h for h, _, _ in made], [g for _, g, _ in made])
    rows = [row for a, b, _ in runs_of(extents) for row in range(a, b)]
    assert rows == list(range(len(made)))


@given(columns, st.floats(-200, 2000))
def test_translations_never_overlap_and_keep_their_order(made, line):
    sources = column([h for h, _, _ in made], [g + GAP for _, g, _ in made])
    heights = [h for *_, h in made]
    tops = tops_beside(sources, heights, line, GAP)
    for k in range(1, len(tops)):
        assert tops[k] >= tops[k - 1] + heights[k - 1] + GAP - 1e-6


@given(columns, st.floats(0, 1), st.data())
def test_the_same_part_is_above_the_line_on_both_sides(made, part, data):
    sources = column([h for h, _, _ in made], [g + GAP for _, g, _ in made])
    heights = [h for *_, h in made]
    k = data.draw(st.integers(0, len(made) - 1))
    if heights[k] < made[k][0]:  # a shorter one stands level with the top of its source
        assert tops_beside(sources, heights, sources[k].top + 1, GAP)[k] == sources[k].top
        return
    line = sources[k].top + part * made[k][0]
    above = line - tops_beside(sources, heights, line, GAP)[k]
    assert abs(above - part * heights[k]) < 1e-6 * max(heights[k], 1) + 1e-6


@given(columns, st.floats(0, 1500))
def test_scrolling_by_a_little_moves_nothing_far(made, line):
    """A pixel of scrolling moves no translation by more than it is longer than its source."""
    sources = column([h for h, _, _ in made], [GAP for _ in made])
    heights = [h for *_, h in made]
    most = max(max(h / s, 1.0) for (s, _, h) in made)
    before = tops_beside(sources, heights, line, GAP)
    after = tops_beside(sources, heights, line + 1, GAP)
    assert all(abs(a - b) <= most + 1e-6 for a, b in zip(before, after, strict=True))
