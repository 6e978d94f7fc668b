"""Boosted trees: what they say is the start and the leaves reached."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.outline.heading_signs import SIGNS
from wide_margin.core.outline.headings import TREES
from wide_margin.core.outline.trees import read_trees, trees_named

TWO = {
    "signs": ["size", "bold"], "start": -1.0, "roots": [0, 3],
    "sign": [0, -1, -1, 1, -1, -1],
    "threshold": [1.125, 0, 0, 0.5, 0, 0],
    "left": [1, 0, 0, 4, 3, 3], "right": [2, 0, 0, 5, 3, 3],
    "value": [0, -0.5, 2.0, 0, -0.25, 0.75],
}  # fmt: skip


@pytest.mark.parametrize(
    ("row", "odds"),
    [((1.0, 0.0), -1.75), ((1.125, 0.0), -1.75), ((1.2, 0.0), 0.75), ((1.2, 1.0), 1.75),
     ((1.0, 1.0), -0.75)],
)  # fmt: skip
def test_leaves_are_added_to_the_start(row, odds):
    trees = read_trees(TWO)
    assert trees.log_odds(np.array([row], np.float32))[0] == pytest.approx(odds)


def test_no_rows_give_no_odds():
    assert len(read_trees(TWO).log_odds(np.zeros((0, 2), np.float32))) == 0


@given(st.lists(st.tuples(st.floats(0, 3), st.booleans()), min_size=1, max_size=40))
def test_rows_are_judged_one_by_one(rows):
    trees = read_trees(TWO)
    signs = np.array(rows, np.float32)
    together = trees.log_odds(signs)
    assert together.tolist() == [trees.log_odds(signs[k : k + 1])[0] for k in range(len(rows))]


def test_the_trees_that_ship_ask_for_the_signs_there_are():
    trees = trees_named(TREES)
    assert trees.names == SIGNS
    assert trees.sign.max() < len(SIGNS)
    nodes, children = np.arange(len(trees.sign)), trees.after.reshape(-1, 2)
    leaves = (children == nodes[:, None]).all(axis=1)
    assert (children[~leaves] > nodes[~leaves, None]).all()


def test_a_row_goes_down_every_tree_to_its_end():
    trees = trees_named(TREES)
    rows = np.random.default_rng(3).normal(0, 3, (70, len(trees.names))).astype(np.float32)
    for row, odds in zip(rows, trees.log_odds(rows), strict=True):
        expected = trees.start
        for root in trees.roots:
            at = root
            while (
                ahead := trees.after[2 * at + (row[trees.sign[at]] <= trees.threshold[at])]
            ) != at:
                at = ahead
            expected += trees.value[at]
        assert odds == expected
