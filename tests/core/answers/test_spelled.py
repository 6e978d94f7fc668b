"""Questions are spelled as the document spells."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.answers.spelled import as_spelled, unranked
from wide_margin.core.digest import Digester

FILLER = "The harbor is wide and quiet in the evening, and few people cross it after dark."


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path = tmp_path_factory.mktemp("spelled") / "cranes.pdf"
    make_pdf(path, [
        [("h1", "1 Cranes"), ("text", f"{FILLER} A traveling crane (one on rails, as they stand on "
          "the long quay) is a crane that moves along the ships. The color of its lamp is green.")],
        [("h1", "2 Quays"), ("text", f"{FILLER} A travelling clerk came by. The traveling crane "
          "is oiled in the spring, and traveling cranes are looked at every week.")],
    ])  # fmt: skip
    return read_document(path)


@pytest.mark.parametrize(
    ("typed", "spelled"),
    [
        ("What is a travelling crane?", "What is a traveling crane?"),
        ("Which Colour has the harbour?", "Which Color has the harbor?"),
        ("Which colours are there?", "Which colours are there?"),  # only one stands there
        ("Who came by?", "Who came by?"),
        ("What does lamp_colour set?", "What does lamp_colour set?"),
        ("What is \\colour for?", "What is \\colour for?"),
    ],
)
def test_words_take_the_spelling_that_is_usual_there(document, typed, spelled):
    assert as_spelled(document, typed) == spelled


def test_a_term_is_defined_in_whichever_spelling_it_is_asked_for(document):
    digester = Digester(document)
    typed = "What is a travelling crane?"
    answer = digester.answer(typed, WHOLE, None)
    other = digester.answer("What is a traveling crane?", WHOLE, None)
    assert answer.question == typed
    assert answer.quotes == other.quotes
    assert "is a crane that moves along the ships" in answer.quotes[0].text
    assert answer.sure == other.sure >= 0.6


def test_a_stroke_that_is_drawn_as_a_line_is_a_blank_in_the_text(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Signs"), ("text", "LID FULL means that the lid is full. lid_open opens it.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert as_spelled(document, "What does LID_FULL mean?") == "What does LID FULL mean?"
    for other in ("What does lid_open do?", "What does LID_EMPTY mean?"):
        assert as_spelled(document, other) == other


@pytest.mark.parametrize(
    ("typed", "asked"),
    [("What is the lid_open function?", "What is lid_open?"),
     ("What is the LID option?", "What is LID?"),
     ("What is the objective function?", "What is the objective function?"),
     ("Where is the lid_open function?", "Where is the lid_open function?")],
)  # fmt: skip
def test_what_sort_of_thing_a_name_is_is_not_looked_for(document, typed, asked):
    assert as_spelled(document, typed) == asked


def test_the_main_ones_are_asked_for_without_the_word_where_nothing_is_called_so(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("text", "The winch has these features: a drum and a rope. The main drums are of oak.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert unranked(document, "What are the main features?") == "What are the features?"
    assert unranked(document, "What are the main drums?") == "What are the main drums?"
    assert unranked(document, "What are the main lids?") == "What are the main lids?"


def test_a_word_may_be_written_as_two(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("text", "Lids lie in super blocks, and a rope over each. The filler is of a stone.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert as_spelled(document, "What is a superblock?") == "What is a super block?"
    assert as_spelled(document, "What is a lidrope?") == "What is a lidrope?"
    assert as_spelled(document, "What is a filler?") == "What is a filler?"


def test_two_words_may_be_written_as_one(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("text", "Two ropeways are there. A lid holder holds the lidholders of a lid holder. "
          "The side-boards are of oak. One rope goes its way. A stone lid and a rope.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    for typed, spelled in (
        ("How many rope ways are there?", "How many ropeways are there?"),
        ("What is a lid holder?", "What is a lid holder?"),  # both are there
        ("What are the side boards of?", "What are the side boards of?"),  # each is found so
        ("Where is the stone lid?", "Where is the stone lid?"),
    ):
        assert as_spelled(document, typed) == spelled


def test_a_compound_is_one_term_however_it_is_joined(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("text", "The well-filters are washed. It has a lid-holder.")]])
    analyser = read_document(tmp_path / "a.pdf").index.analyser
    assert analyser.terms_of("well-filters")[0] == analyser.terms_of("wellfilters")[0]
    assert analyser.terms_of("lid-holder")[0] == analyser.terms_of("lidholders")[0]
