"""What a number stands for in a list that the question calls by its name."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.codes import LISTED

FILLER = "The keeper goes round the wells at dawn and looks into each of them with a lamp."
RETURNED = ["The lid was closed in time", "The rope is too short for it", "The well is dry",
            "Nobody is there to draw"]  # fmt: skip
ENDS = ["The keeper was not found", "The lamp went out on the way", "The book of lids is lost"]


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("codes") / "winch.pdf"
    make_pdf(path, [
        [("title", "The winch"), ("h1", "1 Return codes"), ("text", FILLER),
         ("entry", "Code|Explanation"),
         *(("entry", f"{k}|{said}") for k, said in enumerate(RETURNED))],
        [("h1", "2 When it ends"), ("text", "These exit codes are told where it cannot begin."),
         *(("entry", f"{k}|{said}") for k, said in enumerate(ENDS, start=1))],
        [("h1", "3 Signals of the keeper"), ("text", FILLER),
         *(("item", f"{k}. The lamp is moved {k} times, as on every day of the year.")
           for k in range(1, 5))],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does return code 2 mean?", RETURNED[2]),
        ("What is return code 0?", RETURNED[0]),
        ("What does the return code 3 stand for?", RETURNED[3]),
        ("What does exit code 2 mean?", ENDS[1]),
    ],
)
def test_a_number_is_told_from_the_list_that_is_asked_for(digester, typed, said):
    answer = digester.answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert not any(other in answer.quotes[0].text for other in (*RETURNED, *ENDS) if other != said)
    assert answer.sure == LISTED


@pytest.mark.parametrize(
    "typed",
    [
        "What does return code 9 mean?",  # there is none
        "What does code 2 mean?",  # two lists have it
        "What does signal 2 mean?",  # items only count on
        "What does the lamp 2 mean?",
        "What does section 2 say?",
    ],
)
def test_other_numbers_are_looked_for_as_usual(digester, typed):
    assert digester.answer(typed, WHOLE, None).sure != LISTED
