"""Asked which things there are: a section of that name, or a sentence that names some."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

PAGES = [
    [("h1", "1 Mills"),
     ("text", "The mill takes grain of any sort, and whichever grains are used, they are weighed "
              "by the keeper, who is paid for it, fed and housed."),
     ("text", "Grains that are wet, mouldy and sprouted are not supported by the mill."),
     ("text", "The mill supports rye, oats and barley grains, whatever their size."),
     ("text", "Every stone of the mill is turned by hand in a dry summer.")],
    [("h1", "2 Sieves"),
     ("text", "At present the following sieves are supported:"),
     ("item", "• the round one;"), ("item", "• the square one."),
     ("text", "Each filter has two parts that may accept, change and drop a sieve.")],
    [("h1", "3 File formats"), ("h2", "3.1 Of the scales"), ("text", "The scales write a list."),
     ("h2", "3.2 Of the gate"), ("text", "The file formats that are accepted there are:"),
     ("text", "plain (usual)"), ("text", "packed"), ("text", "striped"),
     ("text", "The gate is shut at night, when the keeper has gone home and nobody is left on the "
              "bank who could see to it that the boards are in their places and the water does "
              "not rise over the lowest of them, as it does in spring.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("listed") / "listed.pdf"
    make_pdf(path, PAGES)
    return Digester(read_document(path))


def test_a_sentence_that_names_them_answers(digester):
    answer = digester.answer("Which grains are supported?", WHOLE, None)
    assert answer.quotes[0].text.startswith("The mill supports rye, oats and barley grains")


def test_what_leads_in_to_them_comes_with_them(digester):
    quotes = digester.answer("Which sieves are supported?", WHOLE, None).quotes
    assert "following sieves are supported" in quotes[0].text
    said = " ".join(q.text for q in quotes)
    assert "the round one" in said
    assert "the square one" in said


@pytest.mark.parametrize(
    "typed", ["Which stones are supported?", "Which ropes are available?", "Who grinds the oats?"]
)
def test_where_nothing_names_them_the_search_answers(digester, typed):
    said = " ".join(q.text for q in digester.answer(typed, WHOLE, None).quotes)
    assert "the round one" not in said
    assert "accept, change and drop" not in said


def test_lines_without_bullets_under_a_colon_are_a_list(digester):
    quotes = digester.answer("Which file formats are accepted?", WHOLE, None).quotes
    assert [q.text for q in quotes[1:]] == ["plain (usual)", "packed", "striped"]


def test_a_section_that_has_only_sections_leaves_it_to_what_names_them(digester):
    quotes = digester.answer("What file formats are supported?", WHOLE, None).quotes
    assert not any(q.text.startswith("3.1") for q in quotes)
