import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.search.abbreviations import find_abbreviations, other_forms


@pytest.mark.parametrize(
    ("text", "short", "long"),
    [
        ("The closing error (CE) is small.", "CE", ("closing", "error")),
        ("It is a CE (closing error) of note.", "CE", ("closing", "error")),
        ("CE closing error levelling books", "CE", ("closing", "error")),
        ("HWS high water at springs tables", "HWS", ("high", "water", "at", "springs")),
        ("the Office of Tides (OT) at Hallan", "OT", ("office", "of", "tides")),
    ],
)
def test_an_abbreviation_is_found_with_its_words(text, short, long):
    assert find_abbreviations([text]) == {short: long}


@pytest.mark.parametrize(
    "text", ["The pump (new) is blue.", "The red pump (AB) is blue.", "A4 paper is white."]
)
def test_what_only_looks_like_one_is_left(text):
    assert find_abbreviations([text]) == {}


def test_either_form_brings_the_other():
    known = {"CE": ("closing", "error")}
    assert other_forms(["large", "ce"], known) == {"ce": ("closing", "error")}
    assert other_forms(["the", "closing", "error"], known) == {"error": ("ce",)}


def test_a_question_with_the_short_form_finds_the_long_one(tmp_path):
    path = tmp_path / "short.pdf"
    filler = "The harbour is wide and quiet in the evening of the year."
    make_pdf(path, [
        [("text", f"A mean sea level (MSL) is given for each year. {filler}")],
        [("text", f"{filler} {filler}")],
        [("text", f"{filler} The mean sea level has risen by nine millimetres. {filler}")],
    ])  # fmt: skip
    answer = answer_quoted(read_document(path), "By how much has the MSL risen?")
    assert "nine millimetres" in " ".join(quote.text for quote in answer.quotes)
