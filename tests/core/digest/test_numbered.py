"""Asked of one of several that a number tells apart, what is said of another is no answer."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.digest import Digester
from wide_margin.core.digest.numbered import with_its_number

PAGES = [
    [("h1", "1 Leave"),
     ("text", "The guild gives leave to build gates after the plan, and to sell each gate that is "
              "built so. The agreement covers the gates that are built after Plan 3, and the sale "
              "of the gates."),
     ("text", "Nobody has to pay for a gate of wood.")],
    [("h1", "2 Other plans"),
     ("text", "It neither covers the building nor the sale of gates after Plan 2 of the guild."),
     ("text", "The mill stands on the bank, and its wheel turns in spring.")],
    [("h1", "3 Drawings"), ("text", "There is a Plan 7 as well, of which only drawings are left."),
     ("text", "They hang in the loft of the mill.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("numbered") / "numbered.pdf"
    make_pdf(path, PAGES)
    return Digester(read_document(path))


@pytest.mark.parametrize(("number", "said"), [("2", "neither covers"), ("3", "agreement covers")])
def test_the_one_that_is_meant_answers(digester, number, said):
    answer = digester.answer(
        f"Does the agreement cover the sale of Plan {number} gates?", WHOLE, None
    )
    assert said in answer.quotes[0].text


def test_what_is_not_said_of_it_is_not_sure(digester):
    answer = digester.answer("May I sell the gates of Plan 7?", WHOLE, None)
    assert answer.sure <= 0.3


def test_a_number_that_the_document_does_not_have_changes_nothing(digester):
    other = digester.answer("Does the agreement cover Plan 12 gates?", WHOLE, None)
    assert "neither covers" not in (other.quotes[0].text if other.quotes else "")


def test_a_month_with_its_year_tells_nothing_apart(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Keepers"), ("text", "Aino Holm held the post of keeper from 1985 until 1990."),
         ("text", "Karl Aas held the post of keeper from 1991 until 1999.")],
        [("h1", "2 Floods"), ("text", "In June 1987 the post of the keeper was under water.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    answer = answer_quoted(document, "Who held the post of keeper from 1985 until 1990?")
    assert "Aino Holm" in answer.quotes[0].text
    asked = replace(answer, question="Who held the post of keeper in June 1987?")
    assert with_its_number(document, asked) == asked


@pytest.mark.parametrize(
    ("typed", "said"),
    [("When was version 5.000 released?", "27 Oct 2014 (Guild of Wells) Wellkeep version 5.000"),
     ("Who made version 4.106?", "5 May 2009 (Ann Bale) Wellkeep version 4.106")],
)  # fmt: skip
def test_when_a_version_came_out_is_told_by_its_heading(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h2", "27 Oct 2014 (Guild of Wells) Wellkeep version 5.000"),
         ("text", "The lids of version 5.000 are of oak, and are closed at night by hand.")],
        [("h2", "5 May 2009 (Ann Bale) Wellkeep version 4.106"),
         ("text", "Ropes are longer. Version 4.106 was made in a hurry and without a drum.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.7
