"""Words of texts as numbers: the same whether some of the texts were numbered before or not."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.search.analysis import find_words
from wide_margin.core.search.coded import code, code_all, places

TEXTS = st.lists(st.text("ab C.-x水 ", max_size=12), max_size=12)


def words_of(coded, k):
    return [coded.words[n] for n in coded.numbers[coded.starts[k] : coded.starts[k + 1]]]


@given(TEXTS)
def test_every_word_comes_back(texts):
    coded = code(texts)
    assert [words_of(coded, k) for k in range(len(texts))] == [
        find_words(text.lower()) for text in texts
    ]
    assert len(set(coded.words)) == len(coded.words)


@given(TEXTS, TEXTS)
def test_what_was_numbered_before_changes_nothing(texts, before):
    alone, helped = code(texts), code_all(texts, code(before))
    assert helped.words == alone.words
    assert helped.numbers.tolist() == alone.numbers.tolist()
    assert helped.starts.tolist() == alone.starts.tolist()
    assert helped.texts == alone.texts


@given(TEXTS, st.data())
def test_some_of_the_texts_before_change_nothing(texts, data):
    before = code(data.draw(st.permutations(texts))[: len(texts) // 2])
    alone, helped = code(texts), code_all(texts, before)
    assert helped.words == alone.words
    assert helped.numbers.tolist() == alone.numbers.tolist()


def test_the_places_of_ranges():
    starts, lengths = np.array([7, 3, 0]), np.array([2, 0, 3])
    assert places(starts, lengths).tolist() == [7, 8, 0, 1, 2]
    assert places(np.zeros(0, np.int64), np.zeros(0, np.int64)).tolist() == []
