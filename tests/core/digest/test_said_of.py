"""Asked what the something of a thing is: what says so in these words is quoted."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.digest import Digester
from wide_margin.core.digest.said_of import with_what_it_is

LIKE = (
    "The last date of the rope of a lid is not noted, but the last rope of the well has a date."
    " Ropes of the last date are kept, and the date of the last rope is told by its keeper."
)


def made(tmp_path, said):
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Wells"), ("h1", "1 Ropes and their dates"), ("text", LIKE)],
         [("h1", "2 Lids"), ("text", f"Lids are few. {said} They are made of oak.")]],
    )  # fmt: skip
    return read_document(tmp_path / "a.pdf")


def asked(tmp_path, said, typed):
    return Digester(made(tmp_path, said)).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("said", "typed"),
    [("At the time of writing, the last date of the rope was 3 May.",
      "What is the last date of the rope?"),
     ("The last date of a rope (if kept) is 3 May.", "What was the last date of the rope?")],
)  # fmt: skip
def test_what_says_so_in_these_words_is_quoted(tmp_path, said, typed):
    answer = asked(tmp_path, said, typed)
    assert answer.quotes[0].text.startswith(said)
    assert answer.sure > 0.8


@pytest.mark.parametrize(
    "said",
    ["When the last date of the rope is 3 May, it is burnt.",
     "The last date of the rope is not 3 May.", "Nobody says the last date of the rope."],
)  # fmt: skip
def test_what_says_it_under_a_condition_or_denies_it_makes_nothing_surer(tmp_path, said):
    document = made(tmp_path, said)
    unsure = replace(answer_quoted(document, "What is the last date of the rope?"), sure=0.4)
    assert with_what_it_is(document, unsure) == unsure


def test_the_latest_version_is_a_fact_and_no_news(tmp_path):
    said = "At the time of writing, the latest version of Wellkeep was 3.2."
    answer = asked(tmp_path, said, "What is the latest version of Wellkeep?")
    assert answer.quotes[0].text.startswith(said)
