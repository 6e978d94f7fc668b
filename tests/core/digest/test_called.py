"""Asked how a function is called: the form of the call, not an example of one."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("called") / "winch.pdf"
    make_pdf(path, [
        [("h1", "1 Winding"), ("text", FILLER), ("text", "A rope is let out at once by this:"),
         ("code", "letrope (\"hemp\", 12)"), ("text", FILLER)],
        [("h1", "2 Reference"), ("text", FILLER),
         ("code", "n = letrope (rope, length)"), ("said", "Lets a rope out and counts its turns."),
         ("code", "int wind_drum(Drum *drum, int turns)"), ("said", "Winds the drum."),
         ("text", "The bell is rung with ring_bell (\"loud\") at noon.")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "form"),
    [
        ("What is the syntax of letrope?", "n = letrope (rope, length)"),
        ("What arguments does letrope take?", "n = letrope (rope, length)"),
        ("Which parameters does the function letrope() need?", "n = letrope (rope, length)"),
        ("What are the arguments of letrope?", "n = letrope (rope, length)"),
        ("What is the prototype of wind_drum?", "int wind_drum(Drum *drum, int turns)"),
        ("How is wind_drum called?", "int wind_drum(Drum *drum, int turns)"),
    ],
)
def test_the_form_of_a_call_is_quoted(digester, typed, form):
    answer = digester.answer(typed, WHOLE, None)
    assert form in answer.quotes[0].text
    assert "hemp" not in answer.quotes[0].text
    assert answer.sure >= 0.7


@pytest.mark.parametrize("typed", [
    "What is the syntax of ring_bell?", "What is the syntax of anchor?",
    "What are the arguments of the keepers against steam?",
])  # fmt: skip
def test_without_a_form_it_is_searched_for(digester, typed):
    assert digester.answer(typed, WHOLE, None).kind != "overview: call"
