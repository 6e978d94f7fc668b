"""Asked of one of several that a number tells apart, what is said of another is no answer."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

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
