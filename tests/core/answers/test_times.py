"""Times and spans of time: what lies within what, and answers that rest on it."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.answers.times import asked_time, fits, times_in

POSTS = [
    ("h1", "1 The keepers of the mill"),
    ("text", "Anna Berg was the keeper of the mill from 1985 until 1990. She had two hands."),
    ("text", "Olav Dahl was the keeper of the mill from 1991 to 2003. He wrote the red book."),
    ("text", "Since 2004 the keeper of the mill has been Siri Vik, who lives at the weir."),
    (
        "text",
        "The first wheel was built of oak in 1874. A second wheel of iron came in March 1921.",
    ),
    ("text", "Until 1931 grain was brought by boat, and the boats were tarred every spring."),
    ("h1", "2 The water"),
    ("text", "The water of the mill comes over a weir of stone which is mended in summer."),
    ("text", "In dry years the wheel stands still for weeks, and the grain is ground elsewhere."),
]


@pytest.fixture(scope="module")
def mill(tmp_path_factory):
    path = tmp_path_factory.mktemp("mill") / "mill.pdf"
    make_pdf(path, [POSTS])
    return read_document(path)


@pytest.mark.parametrize(
    ("question", "sentence", "is_so"),
    [
        ("Who was keeper in June 1987?", "She kept it from 1985 until 1990.", True),
        ("Who was keeper in June 1987?", "She kept it from 1985 until May 1987.", False),
        ("Who was keeper in June 1987?", "She kept it 1985–1990.", True),
        ("Who was keeper in June 1987?", "She kept it since 1985.", True),
        ("Who was keeper in June 1987?", "She kept it since 1988.", False),
        ("Who was keeper in June 1987?", "Until 1990 she kept it.", True),
        ("Who was keeper in June 1987?", "It was built in 1985 and sold in 1990.", False),
        ("Who was keeper in June 1987?", "In 1987 she kept it.", True),
        ("Who was keeper in 1987?", "In June 1987 she kept it.", False),
        ("Who was keeper in the 1980s?", "In June 1987 she kept it.", True),
        ("What happened before 1900?", "It was built in 1874.", True),
        ("What happened before 1900?", "It was built in 1921.", False),
        ("What happened before 1900?", "It holds 1024 litres.", False),
        ("What came between 1900 and 1930?", "A second one came in March 1921.", True),
        ("What came after 1950?", "A second one came in March 1921.", False),
    ],
)
def test_what_lies_within_what(question, sentence, is_so):
    assert fits(asked_time(question), sentence) is is_so


@pytest.mark.parametrize(
    "text", ["Who is the keeper?", "How large is file 12?", "1.1987.4", "x1987"]
)
def test_what_names_no_time(text):
    assert asked_time(text) is None
    assert times_in(text) == []


@pytest.mark.parametrize(
    ("question", "name"),
    [
        ("Who was the keeper of the mill in June 1987?", "Anna Berg"),
        ("Who was the keeper of the mill in 1995?", "Olav Dahl"),
        ("Who was the keeper of the mill in 2010?", "Siri Vik"),
    ],
)
def test_the_one_of_that_time_is_quoted(mill, question, name):
    answer = answer_quoted(mill, question)
    assert name in answer.quotes[0].text


def test_a_time_that_nothing_covers_is_not_answered_by_another_one(mill):
    answer = answer_quoted(mill, "Who was the keeper of the mill in 1950?")
    assert answer.declined or answer.is_perhaps


def test_a_question_without_a_time_is_answered_as_before(mill):
    assert "mended in summer" in answer_quoted(mill, "When is the weir mended?").quotes[0].text
