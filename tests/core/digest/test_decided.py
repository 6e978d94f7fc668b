"""Asked whether a thing is so: what says in the same words that it is, or is not, is quoted."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.digest import Digester
from wide_margin.core.digest.decided import with_what_decides

FULL = (
    "A relational table keeps the levels of many wells, and a relational table of lids is kept"
    " beside it. Relational tables are compared with Wellkeep tables in every chapter. "
)
OTHERS = "Wellkeep measures water. Wellkeep is sold with a rope. Wellkeep has a lid. "


def asked(tmp_path, said, typed):
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Gauge Wellkeep"), ("h1", "1 Wells"), ("text", FULL), ("text", OTHERS)],
         [("h1", "2 Ropes"), ("text", f"Ropes are long. {said} They are wound by hand.")],
         [("h1", "3 Tables"), ("text", FULL)]],
    )  # fmt: skip
    return Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("said", "typed"),
    [("It matters that Wellkeep is not a relational table.", "Is Wellkeep a relational table?"),
     ("It matters that Wellkeep is no longer a relational table.", "Is it a relational table?"),
     ("It matters that Wellkeep is not a relational table.",
      "Is Gauge Wellkeep a relational table?"),
     ("It matters that extra lids are no longer a relational table.",
      "Are extra lids a relational table?"),
     ("Lids of oak are essentially relational tables.", "Are lids relational tables?")],
)  # fmt: skip
def test_what_says_that_it_is_so_or_not_is_quoted(tmp_path, said, typed):
    answer = asked(tmp_path, said, typed)
    assert said in answer.quotes[0].text
    assert answer.sure > 0.8


@pytest.mark.parametrize(
    "said",
    ["If Wellkeep is a relational table, a lid is missing.",
     "Many ask whether Wellkeep is a relational table.",
     "Wellkeeps are relational tables of another sort."],
)  # fmt: skip
def test_a_condition_decides_nothing(tmp_path, said):
    assert asked(tmp_path, said, "Is Wellkeep a relational table?").sure < 0.8


def test_without_a_name_nothing_is_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("text", "The water is clear. The rope is a wet rope.")]])
    document = read_document(tmp_path / "a.pdf")
    unsure = replace(answer_quoted(document, "Is it a wet rope?"), sure=0.4)
    assert with_what_decides(document, tuple, unsure) == unsure
    assert with_what_decides(document, lambda: ["the rope"], unsure).sure > 0.8
