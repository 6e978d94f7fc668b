"""Asked for a short form: what is said of the thing that it stands for."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The keeper goes round the wells at dawn and looks into each of them with a lamp."


def answer_of(path, typed, *blocks):
    make_pdf(path, [
        [("title", "Wells"), ("h1", "1 Water"), ("text", FILLER),
         ("text", "The lamp shows whether the well water depth (WWD) is as it was.")],
        [("h1", "2 Depths"), *blocks, ("text", FILLER)],
    ])  # fmt: skip
    return Digester(read_document(path)).answer(typed, WHOLE, None)


@pytest.mark.parametrize("said", [
    "Well water depth is the way from the lid to the water.",
    "The well water depth (WWD) tells how much water is left.",
])  # fmt: skip
def test_what_begins_with_the_long_form_goes_before_what_only_spells_it_out(tmp_path, said):
    answer = answer_of(tmp_path / "a.pdf", "What is WWD?", ("text", said))
    assert [quote.text for quote in answer.quotes] == [said]
    assert answer.sure >= 0.75


def test_what_stands_under_the_long_form_is_told(tmp_path):
    said = "Where it is known, the WWD is written on the lid."
    blocks = ("h2", "Well water depth (WWD)"), ("text", said)
    answer = answer_of(tmp_path / "a.pdf", "What is WWD?", *blocks)
    assert answer.quotes[0].text.startswith(said)


@pytest.mark.parametrize(
    "under", ["The rope is changed in May.", "Is well water depth measured by night?"]
)
def test_what_does_not_speak_of_it_is_not_told(tmp_path, under):
    answer = answer_of(tmp_path / "a.pdf", "What is WWD?", ("text", under))
    assert under not in answer.quotes[0].text
    assert "(WWD)" in answer.quotes[0].text


def test_asked_what_it_stands_for_what_spells_it_out_is_told(tmp_path):
    said = ("text", "Well water depth is measured with a rope and a stone.")
    answer = answer_of(tmp_path / "a.pdf", "What does WWD stand for?", said)
    assert "(WWD)" in answer.quotes[0].text


def test_a_sentence_that_spells_it_out_and_defines_it_stays(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("text", FILLER),
         ("text", "The keeper's well day count (or WDC) is a number that tells how old a well is."),
         ("text", "Well day count makes keepers proud of their wells.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is WDC?", WHOLE, None)
    assert "is a number that tells" in answer.quotes[0].text


def listed(path, *blocks):
    make_pdf(path, [
        [("title", "Wells"), ("h1", "1 Abbreviations"), ("text", FILLER),
         ("entry", "WWD|Well Water Depth"), ("entry", "LKB|Lid Keeper’s Book"),
         ("entry", "RLT|The longest rope that is lent")],
        [("h1", "2 Depths"), *blocks, ("text", FILLER)],
    ])  # fmt: skip
    return Digester(read_document(path))


def test_a_list_of_short_forms_tells_no_more_than_what_they_stand_for(tmp_path):
    said = "The LKB is a book with a page for every lid of the village."
    used = "WWD is used by the keeper to tell whether a rope is long enough."
    digester = listed(tmp_path / "a.pdf", ("text", FILLER), ("text", said), ("text", used))
    assert digester.answer("What is the LKB?", WHOLE, None).quotes[0].text == said
    assert digester.answer("What is the WWD used for?", WHOLE, None).quotes[0].text == used
    for typed in ("What does LKB stand for?", "What is the RLT?"):
        quote = digester.answer(typed, WHOLE, None).quotes[0]
        assert ("Keeper’s Book" if "LKB" in typed else "longest rope") in quote.text
