"""Asked where the document's thing may be had from, or in which language it is written, and when
a version came out."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."


def asked_of(path, typed, *said):
    make_pdf(path, [
        [("title", "Quorble"), ("h1", "1 Drums"), ("text", FILLER), ("text", FILLER)],
        [("h1", "2 Ropes"), *[("text", text) for text in said], ("text", FILLER)],
    ])  # fmt: skip
    return Digester(read_document(path)).answer(typed, WHOLE, None)


def quoted(answer):
    return " ".join(quote.text for quote in answer.quotes)


@pytest.mark.parametrize("typed", [
    "Where can I get it?", "Where can I download Quorble?", "How do I get hold of the program?",
    "Where is the source code available?", "Where can it be found?", "What is its home page?",
])  # fmt: skip
def test_where_it_may_be_had_from_is_told_with_an_address(tmp_path, typed):
    said = "Quorble can be downloaded from https://quorble.example/get."
    other = "Example data for Quorble are available at https://data.example."
    answer = asked_of(tmp_path / "a.pdf", typed, other, said)
    assert quoted(answer) == said
    assert answer.sure == pytest.approx(0.8)


def test_the_address_may_stand_in_the_next_line(tmp_path):
    lines = ("The Quorble program is available at:", "https://quorble.example/get")
    answer = asked_of(tmp_path / "a.pdf", "Where can I get it?", *lines)
    assert quoted(answer) == " ".join(lines)


@pytest.mark.parametrize(
    ("typed", "said"),
    [("Where can I get it?", "More information is available at https://quorble.example."),
     ("Where can I get it?", "The lamp for it is sold at https://lamps.example."),
     ("Where can I get buckets?", "Quorble is available at https://quorble.example.")],
)  # fmt: skip
def test_other_addresses_do_not_tell_it(tmp_path, typed, said):
    assert asked_of(tmp_path / "a.pdf", typed, said).kind != "overview: source"


@pytest.mark.parametrize("typed", [
    "Which language is it written in?", "In which programming language is Quorble written?",
    "What language is the program implemented in?", "In welcher Sprache ist es geschrieben?",
])  # fmt: skip
@pytest.mark.parametrize("said", [
    "It is written in modern Fortran and draws wells.", "Quorble was implemented entirely in C++.",
    "The program is coded using Python.", "Quorble is a small Ruby script and draws wells.",
])  # fmt: skip
def test_the_language_of_a_program_is_told(tmp_path, typed, said):
    answer = asked_of(tmp_path / "a.pdf", typed, "The lid was written in Perl by hand.", said)
    assert quoted(answer) == said
    assert answer.sure >= 0.8


def test_the_language_of_something_else_is_less_sure_and_none_is_declined(tmp_path):
    typed = "Which language is it written in?"
    other = asked_of(tmp_path / "a.pdf", typed, "The lid was written in Perl by hand.")
    assert other.sure == pytest.approx(0.3)
    for said in ("The label was written in ink by hand.", "The lid is a Perl script by hand."):
        none = asked_of(tmp_path / "b.pdf", typed, said)
        assert none.declined
        assert "programming language" in none.reason


@pytest.mark.parametrize(
    "typed",
    ["When was version 3.0.1 released?", "When did 3.0.1 come out?", "What is the date of 3.0.1?"],
)
def test_the_date_of_a_version_stands_beside_it(tmp_path, typed):
    lines = ("13.0.1: (01/02/18)", "3.0.1: wet ropes", "3.0.1: (26/08/20)", "3.0.10: (03/04/21)")
    answer = asked_of(tmp_path / "a.pdf", typed, *lines)
    assert quoted(answer) == "3.0.1: (26/08/20)"


def test_a_version_without_a_date_is_left_to_the_search(tmp_path):
    answer = asked_of(tmp_path / "a.pdf", "When was version 3.0.1 released?", "3.0.1: wet ropes")
    assert answer.sure < 0.8
