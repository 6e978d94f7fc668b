"""Marks made longer, shorter and erased in part: as sets of characters would have it."""

from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin.marking import NEXT, joined, touch, without

SPANS = st.lists(
    st.builds(
        lambda page, start, length: SpanOnPage(page, start, start + length),
        st.integers(0, 2),
        st.integers(0, 60),
        st.integers(1, 12),
    ),
    max_size=6,
)


def characters(spans):
    return {(span.page, at) for span in spans for at in range(span.start, span.end)}


@given(SPANS, SPANS)
def test_what_is_joined_holds_both_and_little_more(one, other):
    found = joined(one, other)
    both = characters(one) | characters(other)
    assert both <= characters(found)
    for page, at in characters(found) - both:  # a blank between two words
        near = {(page, at + by) for by in range(-NEXT, NEXT + 1)}
        assert near & both
    assert list(found) == sorted(found, key=lambda s: (s.page, s.start))
    for first, second in pairwise(found):
        assert first.page < second.page or first.end + NEXT < second.start


@given(SPANS, SPANS)
def test_what_is_taken_away_is_gone_and_nothing_else(spans, taken):
    left = without(spans, taken)
    assert characters(left) == characters(spans) - characters(taken)
    assert all(span.start < span.end for span in left)


@given(SPANS)
def test_a_mark_taken_from_itself_leaves_nothing(spans):
    assert without(spans, spans) == ()


@given(SPANS, SPANS)
def test_touching_is_mutual(one, other):
    assert touch(one, other) == touch(other, one)
    if characters(one) & characters(other):
        assert touch(one, other)


def test_words_a_blank_apart_touch_and_farther_ones_do_not():
    word = [SpanOnPage(0, 10, 15)]
    assert touch(word, [SpanOnPage(0, 16, 20)])
    assert not touch(word, [SpanOnPage(0, 19, 24)])
    assert not touch(word, [SpanOnPage(1, 10, 15)])
    assert not touch(word, [])
