"""Asked to tell about a matter: what it is, what its section says, or where it is spoken of."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.matters import matter_asked

FILLER = "The shed stands on the mole, and its door is shut at night when the keeper is away."


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("matters") / "winch.pdf"
    make_pdf(path, [
        [("title", "On winches"), ("h1", "1 Drums"), ("text", FILLER),
         ("text", "A drum brake is a belt of leather that is drawn tight around the drum.")],
        [("h1", "2 Ropes"), ("text", "Every rope is let out by hand. It is wetted in summer, since "
          "a dry one tears. No rope is older than nine years, whatever the keeper may think.")],
        [("h1", "3 Lamps of the mole"), ("text", FILLER),
         ("text", "Near the wall a fog bell hangs on a beam. In calm weather it is never rung.")],
        [("h1", "4 Fees"), ("text", FILLER), ("text", "The fog bell costs the parish two crowns.")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "thing", "is_told"),
    [
        ("Explain the drum brake", "the drum brake", True),
        ("Please explain to me the drum brake.", "the drum brake", True),
        ("Tell me more about ropes", "ropes", True),
        ("What does it say about fog bells?", "fog bells", False),
        ("What is said about ropes?", "ropes", False),
        ("Show me where it talks about ropes", "ropes", False),
        ("Find all passages about ropes", "ropes", False),
        ("Was steht darin über Seile?", "Seile", False),
        ("Was steht drin über Seile?", "Seile", False),
        ("Erkläre mir die Bremse", "die Bremse", True),
        ("Que dit le manuel sur les cordes ?", "les cordes", False),
        ("Explain how the drum is turned", None, None),
        ("Explain why ropes tear in summer when they are dry", None, None),
        ("Find the largest rope", None, None),
        ("What did the keeper say of the new ropes?", None, None),
    ],
)
def test_the_matter_is_told_from_the_wording(typed, thing, is_told):
    asked = matter_asked(typed)
    assert asked == ((thing, is_told) if thing else None)


def test_what_a_matter_is_explains_it(digester):
    answer = digester.answer("Explain the drum brake", WHOLE, None)
    assert answer.quotes[0].text.startswith("A drum brake is a belt of leather")
    assert answer.question == "Explain the drum brake"
    assert answer.sure >= 0.6


@pytest.mark.parametrize("typed", ["Tell me about ropes", "What does the book say about ropes?"])
def test_the_section_of_a_matter_tells_of_it(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert {quote.locators[0].page for quote in answer.quotes} == {1}
    assert answer.sure >= 0.8


def test_the_section_of_a_numbered_part_is_summed_up(handbook):
    answer = Digester(handbook).answer("What does the book say about surges?", WHOLE, None)
    assert {quote.locators[0].path[0] for quote in answer.quotes[1:]} == {"Part VI Surges"}
    assert len(answer.quotes) > 2


def test_a_wish_for_a_short_answer_is_minded(digester):
    answer = digester.answer("What does it say about ropes in one sentence?", WHOLE, None)
    assert len(answer.quotes) == 1
    assert answer.quotes[0].locators[0].page == 1


def test_a_title_may_have_a_word_more(digester):
    answer = digester.answer("Tell me about lamps", WHOLE, None)
    assert {quote.locators[0].page for quote in answer.quotes} == {2}
    assert answer.sure >= 0.8


def test_else_the_places_that_speak_of_it_are_shown(digester):
    answer = digester.answer("What is said about the fog bell?", WHOLE, None)
    said = [quote.text for quote in answer.quotes]
    assert said[0] == "The fog bell costs the parish two crowns."  # it begins with it
    assert said[1].startswith("Near the wall a fog bell")
    assert 0.35 < answer.sure < 0.8


@pytest.mark.parametrize("typed", [
    "Explain the drum brake", "Explain the steam engine", "Tell me about the shed",
    "Describe wet bells", "Explain the leather rope of the keeper",
])  # fmt: skip
def test_an_answer_has_no_reason_and_a_refusal_has_one(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert bool(answer.reason) == answer.declined
    assert answer.question == typed


def test_what_is_nowhere_spoken_of_is_said_to_be_missing(digester):
    answer = digester.answer("What does it say about steam engines?", WHOLE, None)
    assert answer.declined
    assert answer.reason == "“steam engines” is not mentioned in these words."
