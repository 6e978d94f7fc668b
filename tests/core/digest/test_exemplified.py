"""Asked for an example of something: the code or the sentence that gives one."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."
LEAD = "For example, the rope is let out by half its length:"
CODE = ("begin winding the drum", "turn it = 2", "stop")


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("examples") / "winch.pdf"
    make_pdf(path, [
        [("h1", "1 Letting out"), ("text", "Letting out is done from the deck, and never alone."),
         ("text", FILLER), ("text", LEAD), *[("code", line) for line in CODE],
         ("text", FILLER)],
        [("h1", "2 Winding"), ("text", "Winding is done by two, as shown in Example 3."),
         ("text", FILLER), ("text", "Example 3: Winding the drum."), ("code", "wind drum --two"),
         ("text", FILLER)],
        [("h1", "3 Care"), ("text", "Grease is taken from a tin, for example the red one."),
         ("text", "The bell has no clapper."), ("text", FILLER),
         ("code", "ring(bell, times)")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize("typed", [
    "Give me an example of letting out", "Show me an example of how to use letting out",
    "Is there an example of letting out?", "Show me the code for letting out",
    "Gib mir ein Beispiel für letting out",
])  # fmt: skip
def test_the_code_that_an_example_leads_in_to_is_quoted_with_it(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert LEAD in answer.quotes[0].text
    assert "\n".join(CODE) in answer.quotes[0].text
    assert answer.sure >= 0.75


def test_an_example_that_is_named_by_its_number_is_found(digester):
    answer = digester.answer("Give an example of winding", WHOLE, None)
    assert answer.quotes[0].text.startswith("Example 3: Winding the drum.")
    assert "wind drum --two" in answer.quotes[0].text


def test_an_example_in_words_is_less_sure(digester):
    answer = digester.answer("Give an example of grease", WHOLE, None)
    assert answer.quotes[0].text == "Grease is taken from a tin, for example the red one."
    assert answer.sure < 0.6


@pytest.mark.parametrize("typed", ["Give an example of a bell", "Give an example of an anchor"])
def test_what_only_names_a_thing_is_at_most_the_nearest(digester, typed):
    assert digester.answer(typed, WHOLE, None).sure <= 0.3


def test_a_question_on_examples_is_none_for_one(digester):
    answer = digester.answer("Why are examples of ropes kept in the shed?", WHOLE, None)
    assert answer.kind != "overview: example"
