"""Asked for an address, keywords, numbers or the place of work: what is printed of them."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."
TEXT = [("h1", "1 Drums"), *[("text", FILLER)] * 3]


@pytest.fixture(scope="module")
def paper(tmp_path_factory):
    path = tmp_path_factory.mktemp("printed") / "paper.pdf"
    make_pdf(path, [
        [("title", "On the winches of mills"), ("text", "Aino Perälä"),
         ("text", "University of Hallan"), ("text", "aino.perala@hallan.example"),
         ("h2", "Abstract"), ("text", f"{FILLER} It was drawn at the Institute of Ropes by hand."),
         ("text", "Keywords: winches, ropes, grease."), *TEXT,
         ("h1", "2 Notes"), ("text", "doi: 10.1234/winch.2021.17")],
        [("text", "Write to keeper@mill.example if a rope tears."), *TEXT],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What is the author's e-mail address?", ["aino.perala@hallan.example"]),
        ("How can I contact the authors?", ["aino.perala@hallan.example"]),
        ("Wie lautet die E-Mail-Adresse der Autorin?", ["aino.perala@hallan.example"]),
        ("What are the keywords?", ["Keywords: winches, ropes, grease."]),
        ("Quels sont les mots-clés ?", ["Keywords: winches, ropes, grease."]),
        ("What is the DOI of this paper?", ["doi: 10.1234/winch.2021.17"]),
        ("Where does the author work?", ["University of Hallan"]),
        ("Which university are the authors from?", ["University of Hallan"]),
    ],
)
def test_what_is_printed_is_told(paper, typed, said):
    answer = paper.answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == said
    assert answer.sure >= 0.8
    assert {quote.locators[0].page for quote in answer.quotes} == {0}


def test_what_is_not_printed_is_said_to_be_missing(tmp_path, paper):
    assert paper.answer("What is the ISBN?", WHOLE, None).reason == "No ISBN is given."
    make_pdf(tmp_path / "a.pdf", [[("title", "On winches"), *TEXT]])
    plain = Digester(read_document(tmp_path / "a.pdf"))
    for typed, reason in (
        ("What are the keywords?", "No keywords are given."),
        ("What is the e-mail address of the author?", "No e-mail address is given."),
        ("Where do the authors work?", "No place of work is given."),
    ):
        answer = plain.answer(typed, WHOLE, None)
        assert answer.declined
        assert answer.reason == reason


def test_an_address_in_the_text_is_at_most_the_nearest(tmp_path):
    said = "Please report a torn rope to keeper@mill.example at once."
    make_pdf(tmp_path / "a.pdf", [[("title", "On winches"), *TEXT], *[TEXT] * 5,
                                  [("h1", "2 Ropes"), ("text", said)]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "How do I contact the author?", WHOLE, None
    )
    assert answer.quotes[0].text == said
    assert answer.sure < 0.5


def test_blanks_in_a_question_do_not_matter_and_stay_as_they_are_typed(paper):
    typed = "What are" + " " * 3000 + "the\nkeywords? "
    answer = paper.answer(typed, WHOLE, None)
    assert answer.quotes[0].text == "Keywords: winches, ropes, grease."
    assert answer.question == typed


def test_keywords_of_another_kind_are_searched_for(paper):
    answer = paper.answer("Which keywords does the winch command accept?", WHOLE, None)
    assert answer.kind != "overview: printed"
