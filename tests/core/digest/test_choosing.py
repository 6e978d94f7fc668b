"""Choosing sentences together: within the length, without saying anything twice."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wide_margin.core.digest.gist import NEAR_COPY, Scored, choose


def scored(priors, lengths, terms, n_terms=12):
    return Scored(
        prior=np.array(priors, dtype=float),
        weight=np.linspace(1.0, 0.2, n_terms),
        n_words=np.array(lengths, dtype=np.int64),
        terms=tuple(np.array(sorted(own), dtype=np.int64) for own in terms),
        roles=(),
    )


@st.composite
def tables(draw):
    n = draw(st.integers(1, 24))
    priors = draw(
        st.lists(st.one_of(st.floats(-1, 2), st.just(float("-inf"))), min_size=n, max_size=n)
    )
    lengths = draw(st.lists(st.integers(1, 40), min_size=n, max_size=n))
    terms = draw(st.lists(st.sets(st.integers(0, 11), max_size=8), min_size=n, max_size=n))
    return scored(priors, lengths, terms)


@settings(max_examples=150, deadline=None)
@given(table=tables(), n_words=st.integers(1, 120))
def test_never_over_the_words_never_twice_always_in_order(table, n_words):
    rows = choose(table, range(len(table.prior)), n_words=n_words)
    assert int(table.n_words[rows].sum()) <= n_words
    assert rows == sorted(set(rows))
    assert all(np.isfinite(table.prior[rows]))
    for k, one in enumerate(rows):
        for other in rows[k + 1 :]:
            a, b = set(table.terms[one].tolist()), set(table.terms[other].tolist())
            assert not (a and b and len(a & b) >= NEAR_COPY * min(len(a), len(b)))


@settings(max_examples=80, deadline=None)
@given(table=tables(), n_sentences=st.integers(1, 8))
def test_never_more_sentences_than_asked_for(table, n_sentences):
    rows = choose(table, range(len(table.prior)), n_sentences=n_sentences)
    assert len(rows) <= n_sentences


def test_nothing_to_choose_from():
    assert choose(scored([-np.inf], [5], [{1}]), [0], n_words=50) == []
    assert choose(scored([1.0], [5], [{1}]), [], n_words=50) == []


def test_only_what_is_given_is_chosen():
    table = scored([2.0, 1.0, 1.0], [5, 5, 5], [{0}, {1}, {2}])
    assert choose(table, [1, 2], n_words=50) == [1, 2]


def test_a_sentence_that_says_the_same_is_left_out():
    table = scored([2.0, 1.9, 0.5], [5, 5, 5], [{0, 1, 2}, {0, 1, 2}, {5, 6}])
    assert choose(table, [0, 1, 2], n_sentences=2) == [0, 2]


@pytest.mark.parametrize("limit", [9, 10, 19])
def test_what_does_not_fit_gives_way_to_what_does(limit):
    table = scored([2.0, 0.5], [20, 9], [{0, 1, 2}, {5}])
    assert choose(table, [0, 1], n_words=limit) == [1]


def test_the_same_is_chosen_every_time():
    rng = np.random.default_rng(7)
    table = scored(
        rng.normal(size=60),
        rng.integers(5, 30, 60),
        [set(rng.integers(0, 12, 5)) for _ in range(60)],
    )
    first = choose(table, range(60), n_words=130)
    assert all(choose(table, range(60), n_words=130) == first for _ in range(3))
