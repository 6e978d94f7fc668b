"""The line under an answer: what was searched, how sure it is, what was recognised."""

from dataclasses import replace

import pytest

from wide_margin.core.answers import Quote, Reach
from wide_margin.core.document import Locator
from wide_margin.core.margin import Origin, QuestionBody
from wide_margin.desktop.read_view.cards.held import coverage

PLACE = Locator(4, "5", (), ())
BODY = QuestionBody(
    "Who?", "who", Reach(), (Quote("She.", (PLACE,)),), n_searched=1188, n_pages=1189,
    without_text=(118,), sure=0.72,
)  # fmt: skip


def test_what_was_searched_and_how_sure_it_is():
    assert coverage(BODY) == (
        "1,188 of 1,189 pages searched · file page 119 has no readable text"
        " · such answers are right 7 times in 10"
    )


@pytest.mark.parametrize(
    ("changed", "said", "not_said"),
    [
        ({"so_far": 187}, "187 of 1,189 pages read so far", "searched"),
        ({"n_found": 1037}, "1 of 1,037 shown · 1,188", "read so far"),
        ({"n_found": 1037, "origin": Origin.COMPOSED}, "searched", "shown"),
        ({"sure": 0.01}, "right 1 times in 10", "0 times"),
        ({"sure": 1.0}, "searched", "times in 10"),
        ({"quotes": ()}, "searched", "times in 10"),
        ({"origin": Origin.COMPOSED}, "searched", "times in 10"),
        ({"without_text": (1, 2, 3)}, "3 pages have no readable text", "file page 2"),
        (
            {"recognised": ((118, 0.934),)},
            "file page 119 recognised in its picture, 93% sure",
            "0 of 0",
        ),
    ],
)
def test_each_thing_is_told_where_it_holds(changed, said, not_said):
    line = coverage(replace(BODY, **changed))
    assert said in line
    assert not_said not in line
