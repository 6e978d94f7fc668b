"""Asked for the purpose or the role of something, what it does tells that."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, Answer
from wide_margin.core.digest import Digester
from wide_margin.core.digest.purposes import with_purpose

SAID = (
    "The winch.control file tells the keeper how many turns the rope has. It is read at dawn, and "
    "whoever reads it writes down the hour. The lid of the well is of oak."
)


@pytest.fixture(scope="module")
def winch(tmp_path_factory):
    path = tmp_path_factory.mktemp("winch") / "winch.pdf"
    make_pdf(path, [[("h1", "1 Files"), ("text", SAID)], [("h1", "2 Rain"), ("text", "It rains.")]])
    return Digester(read_document(path))


@pytest.mark.parametrize(
    "typed",
    ["What is the purpose of the winch.control file?", "What's the role of winch.control?",
     "What purpose does the winch.control file serve?", "What is winch.control good for?"],
)  # fmt: skip
def test_what_it_does_tells_a_purpose(winch, typed):
    answer = winch.answer(typed, WHOLE, None)
    assert answer.question == typed
    assert answer.quotes[0].text.startswith("The winch.control file tells")
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    "typed", ["What is the purpose of the lid?", "What is the role of the farmer?"]
)
def test_a_purpose_that_is_not_told_is_not_made_up(winch, typed):
    assert winch.answer(typed, WHOLE, None).sure < 0.65


def test_what_hardly_tells_what_it_does_leaves_the_answer_as_it_was():
    found = Answer("", "general", WHOLE, (), (), 0, 0, (), sure=0.1)
    typed = "What is the purpose of the lid?"
    assert with_purpose(typed, found, lambda *_: replace(found, sure=0.5)) is found
    told = with_purpose(typed, found, lambda asked, _: replace(found, question=asked, sure=0.7))
    assert (told.question, told.sure) == (typed, 0.7)
