"""Questions that compare are answered for both sides."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.compared import ONE_SIDE, sides_of
from wide_margin.core.digest.defined import MENTIONED


@pytest.fixture(scope="module")
def digester(handbook):
    return Digester(handbook)


@pytest.mark.parametrize(
    ("question", "sides"),
    [
        ("What is the difference between a staff gauge and the float gauge?",
         ("staff gauge", "float gauge")),
        ("Compare Depends with Recommends.", ("Depends", "Recommends")),
        ("How does a list differ from a tuple?", ("list", "tuple")),
        ("How do lists and tuples differ?", ("lists", "tuples")),
        ("interactive versus login shells", ("interactive", "login shells")),
        ("Was ist der Unterschied zwischen einem Pegel und einer Latte?", ("Pegel", "Latte")),
        ("Quelle est la différence entre une marée et une vague ?", ("marée", "vague")),
        ("How do the first and the second edition differ on lost marks?", None),
        ("What is a tide?", None),
        ("Is there any difference?", None),
        ("What is compared at the yearly inspection?", None),
    ],
)  # fmt: skip
def test_the_sides_of_a_question(question, sides):
    assert sides_of(question) == sides


def test_two_terms_are_quoted_with_a_place_each(digester):
    answer = digester.answer(
        "What is the difference between station zero and Sound datum?", WHOLE, None
    )
    assert answer.kind == "compare"
    assert len(answer.quotes) == 2
    first, second = answer.quotes
    assert "station zero" in first.text.lower()
    assert "datum" in second.text.lower()
    assert first.locators[0] != second.locators[0]
    assert answer.sure <= 0.6  # what each is is told, not how they differ


def test_two_sections_are_told_by_their_own_sentences(digester):
    answer = digester.answer("Compare sections 9.3 and 9.4", WHOLE, None)
    paths = [quote.locators[0].path[-1] for quote in answer.quotes]
    assert sorted(set(paths)) == ["9.3 Closing error", "9.4 Lost marks"]
    assert paths == sorted(paths)


def test_a_side_that_the_document_does_not_have_is_no_side_of_an_answer(digester):
    answer = digester.answer(
        "What is the difference between station zero and a zeppelin?", WHOLE, None
    )
    assert all("zeppelin" not in quote.text for quote in answer.quotes)
    if answer.quotes and answer.kind == "compare":
        assert answer.missing == ("zeppelin",)
        assert answer.sure <= 0.5


def test_a_question_that_compares_on_a_point_is_asked_as_it_stands(digester):
    question = "How do the first and the second edition differ on lost marks?"
    answer = digester.answer(question, WHOLE, None)
    assert any("second edition allowed" in quote.text for quote in answer.quotes)


def test_entries_of_two_lists_need_not_be_of_one_kind(tmp_path):
    said = "Whatever stands in it is {} before it is hung up in the shed by the steward."
    lists = [
        [("h1", f"{k} {title}"), ("text", "They are kept in the third shed."), *(
            ("entry", f"{name}|{said.format(done)}") for name, done in entries
        )] for k, (title, entries) in enumerate([
            ("Lines", [("greaseline", "greased"), ("dryline", "dried"), ("wetline", "wetted")]),
            ("Sheds", [("farshed", "counted")]), ("Boats", [("longboat", "caulked")]),
            ("Tools", [("handsaw", "oiled"), ("augerbit", "ground"), ("whetstone", "washed")]),
        ], start=1)
    ]  # fmt: skip
    path = tmp_path / "lists.pdf"
    make_pdf(path, lists)
    digester = Digester(read_document(path))
    near = digester.answer("What is the difference between greaseline and dryline?", WHOLE, None)
    far = digester.answer("What is the difference between greaseline and handsaw?", WHOLE, None)
    assert near.kind == far.kind == "compare"
    assert far.sure <= 0.3 < near.sure


def test_what_speaks_of_neither_side_is_no_sure_answer(tmp_path):
    path = tmp_path / "made.pdf"
    plain = "The difference of two times is told by the method, which gives back a new time."
    rest = "A gauge is read at dawn. The keeper writes the height into the book at once."
    make_pdf(path, [[("h1", "1 Times"), ("text", plain)], [("h1", "2 Gauges"), ("text", rest)]])
    made = Digester(read_document(path))
    answer = made.answer("What is the difference between let and let*?", WHOLE, None)
    assert answer.sure <= MENTIONED


@pytest.mark.parametrize(
    ("typed", "sides"),
    [
        ("Che differenza c'è tra una corda e un secchio?", ("corda", "secchio")),
        ("Qual è la differenza fra una corda e un secchio?", ("corda", "secchio")),
        ("Wat is het verschil tussen een touw en een emmer?", ("touw", "emmer")),
        ("Qual é a diferença entre a corda e o balde?", ("corda", "balde")),
    ],
)
def test_the_sides_are_told_in_other_languages(typed, sides):
    assert sides_of(typed) == sides


def test_the_document_s_own_thing_is_told_by_what_it_is(tmp_path):
    said = "This manual describes Wellkeep, a program that keeps the water of wells."
    other = "Bucket is a tool that lifts the water of wells by hand."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep 2"), ("text", said), ("text", "Wellkeep and Bucket are of oak.")],
        [("h1", "1 Bucket"), ("text", other), ("text", "Wellkeep opens the gate by night.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What is the difference between Wellkeep and Bucket?", WHOLE, None
    )
    assert [quote.text for quote in answer.quotes] == [said, other]


@pytest.mark.parametrize("typed", [
    "How is Wellkeep different from Lidkeep?",
    "What is the difference between Wellkeep and Lidkeep?",
])  # fmt: skip
def test_what_sets_both_against_each_other_goes_before_what_names_both(tmp_path, typed):
    said = "Whereas Lidkeep required a book of ropes, Wellkeep keeps none between two runs."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), ("h1", "1 Wells"), ("text", f"Ropes are long. {said} It is safe.")],
        [("h1", "2 Differences"), ("text", "The different needs of Wellkeep come of that Lidkeep, "
                                           "the one before Wellkeep, came from another town.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert answer.sure >= 0.5


@pytest.mark.parametrize(
    ("title", "is_told"),
    [
        ("2 Comparison to Make", True),
        ("2 Make versus Wellkeep", True),
        ("2 On making ropes", False),
    ],
)
def test_a_section_that_compares_with_what_the_whole_is_on_is_quoted(tmp_path, title, is_told):
    said = "Wellkeep is nearest in spirit to Make. It has no rules of its own, and it never sleeps."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Wellkeep Manual"), ("h1", "1 Use"),
         ("text", "Make ropes by hand and keep them dry, for Wellkeep wants them dry in winter.")],
        [("h1", title), ("text", said)],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What is the difference between Wellkeep and Make?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]
    assert (answer.sure == ONE_SIDE) == is_told


def test_what_each_does_is_a_difference_where_each_is_named(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Views"), ("text", "There are two of them in the tower of the bell ringers.")],
        [("h1", "2 List view"), ("text", "The list view shows all ropes, one rope per row.")],
        [("h1", "3 Polar view"),
         ("text", "The polar view (also called round view) shows the drums from above.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer(
        "What is the difference between a list view and a polar view?", WHOLE, None
    )
    assert [quote.text[:8] for quote in answer.quotes] == ["The list", "The pola"]
    assert answer.sure == 0.6
