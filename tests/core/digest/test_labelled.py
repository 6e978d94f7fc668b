"""Labels under a thing's heading tell what is asked of it: its default, where it may stand."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.labelled import LABELLED

THINGS = {
    "RopeLength Directive": ["Description: Longest rope that is drawn up",
                             "Syntax: RopeLength metres",
                             "Default: RopeLength 12", "Context: well, harbour"],
    "<LidColour> Directive": ["Description: Colour of the lid in winter", "Default: green",
                              "Context: lid"],
    "Buckets": ["Note: they are of oak.", "Description: what holds water"],
}  # fmt: skip
ALONE = {
    "drain": ["Use:", "To empty a well that has been fouled.", "Effect:",
              "The water runs off by the lower pipe. Nobody may draw any meanwhile.",
              "Value:", "Hours, twelve at most.", "Since (year):", "1987"],
    "tilt": ["Use:", "Value:", "Effect:", "Since (year):"],
}  # fmt: skip
SAID = "When it is set, the keeper minds it before the lid is opened, and nobody else does so."


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("labels") / "a.pdf"
    pages = [[("h1", title), *[("text", label) for label in labels], ("text", SAID)]
             for title, labels in THINGS.items()]  # fmt: skip
    pages += [
        [("h1", title), *[("text" if label.endswith(":") else "said", label) for label in labels]]
        for title, labels in ALONE.items()
    ]
    make_pdf(path, [[("title", "The Well Manual")], *pages])
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does RopeLength do?", "Description: Longest rope that is drawn up"),
        ("What is RopeLength?", "Description: Longest rope that is drawn up"),
        ("What is the default of RopeLength?", "Default: RopeLength 12"),
        ("In which contexts may RopeLength be used?", "Context: well, harbour"),
        ("What is the syntax of RopeLength?", "Syntax: RopeLength metres"),
        ("What does LidColour do?", "Description: Colour of the lid in winter"),
        ("Was macht RopeLength?", "Description: Longest rope that is drawn up"),
        ("what does ropelength do", "Description: Longest rope that is drawn up"),
    ],
)
def test_a_label_answers(digester, typed, said):
    answer = digester.answer(typed, WHOLE, None)
    assert [quote.text.split("\n")[0] for quote in answer.quotes] == [said]
    assert answer.sure == LABELLED


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does the drain setting do?",
         "Effect: The water runs off by the lower pipe. Nobody may draw any meanwhile."),
        ("What does drain do?",
         "Effect: The water runs off by the lower pipe. Nobody may draw any meanwhile."),
        ("What is the value of drain?", "Value: Hours, twelve at most."),
    ],
)  # fmt: skip
def test_a_label_on_a_line_of_its_own_answers_with_what_is_under_it(digester, typed, said):
    answer = digester.answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]
    assert answer.sure == LABELLED


@pytest.mark.parametrize(
    "typed",
    [
        "What does tilt do?",  # nothing is under its labels
        "What do Buckets do?",  # too few labels
        "What is the default context of RopeLength?",  # which of the two is not told
        "What does BucketSize do?",
        "Who minds RopeLength?",
    ],
)
def test_other_questions_go_their_usual_way(digester, typed):
    assert digester.answer(typed, WHOLE, None).sure != LABELLED
