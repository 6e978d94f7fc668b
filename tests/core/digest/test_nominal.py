"""What may be a term: words that name things, as their neighbours show."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.digest import Digester
from wide_margin.core.digest.nominal import Nominal
from wide_margin.core.explain.definitions import find_definitions

TEXT = (
    "The keeper filters the water. The filter is of sand. You filter it twice. A filter of wool "
    "is not enough. Wellkeep provides a filter. The mapping of the wells is old, and this mapping "
    "is kept. By mapping a well you find its mouth. We install the pump, then install the lid, "
    "and the pump of iron is heavy. To install it is slow work, hard work although it is short, "
    "and done via ropes via wheels. The lid is available. The available water is linear water. A "
    "linear scale is a scale of linear marks; linear scales are read by the keeper. Usually the "
    "water is specified, and the specified water is drunk."
)


@pytest.fixture(scope="module")
def nominal():
    return Nominal([f"{part}." for part in TEXT.split(". ")])


@pytest.mark.parametrize(
    "phrase", ["filter", "water", "pump", "lid", "mapping", "linear scale", "scale", "wellkeep"]
)
def test_what_stands_where_names_stand_may_be_a_term(nominal, phrase):
    assert nominal.is_term(phrase)


@pytest.mark.parametrize(
    "phrase",
    ["install", "provides", "wellkeep provides", "specified", "available", "linear", "usually",
     "although", "via",
     "following filter", "two pumps", "install pump", "example", "the water usually"],
)  # fmt: skip
def test_deeds_states_and_words_of_every_text_are_none(nominal, phrase):
    assert not nominal.is_term(phrase)


def test_pieces_of_names_in_code_are_no_terms(tmp_path):
    texts = [
        "The drum is turned by turn_drum_twice(). The drum of a well holds its rope.",
        "void turn_drum_back(const drum_t drum, int n) Turns the drum back. A drum has a handle.",
        "Call turn_drum_twice() for a long rope. The handle of a drum is not oiled.",
    ] * 3  # fmt: skip
    make_pdf(tmp_path / "code.pdf", [[("h1", "1 Drums"), *(("text", text) for text in texts)]])
    document = read_document(tmp_path / "code.pdf")
    terms = {term.term for term in Digester(document).terms(find_definitions(document))}
    assert "drum" in terms
    assert not {"turn", "turn drum", "const drum", "void turn", "const"} & terms
