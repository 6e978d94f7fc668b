"""Which version of a thing is needed is told by what gives one and says that it must be had."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.digest import Digester
from wide_margin.core.digest.needed import with_needed_version

TEXT = (
    "Wellkeep 3.1 is told of here. Old versions of Quorble were slow, and version 1.0 had no lid. "
    "The keeper reads the version of Quorble from a plate."
)


@pytest.mark.parametrize(
    "said",
    ["This release needs at least Quorble 2.4 or a newer rope.",
     "Quorble 2.4 or later must be had.", "Wellkeep requires Quorble2.4+.",
     "It depends on Quorble version 2.4, and on a clock."],
)  # fmt: skip
@pytest.mark.parametrize(
    "typed", ["Which version of Quorble is required?", "Which Quorble version does it need?"]
)
def test_what_must_be_had_is_told_before_what_else_has_versions(tmp_path, said, typed):
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Wells"), ("text", TEXT)],
                                  [("h1", "2 Ropes"), ("text", said), ("text", TEXT)]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said[:20])
    assert answer.sure >= 0.7


def test_the_version_of_a_standard_is_told_by_what_names_it(tmp_path):
    said = "The rules for lids come from the Quorble 2.1 specification, and no other."
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Wells"), ("text", TEXT)],
                                  [("h1", "2 Ropes"), ("text", said), ("text", TEXT)]])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    for verb in ("follow", "implement", "comply with"):
        answer = digester.answer(f"Which version of Quorble does it {verb}?", WHOLE, None)
        assert answer.quotes[0].text.startswith(said)
        assert answer.sure >= 0.6


def test_a_name_of_one_letter_is_written_large_and_has_its_bound_before_it(tmp_path):
    code = 'p2 "" r ("p1", "p1 + 10") and p2dum "" r (0, 10) are given. '
    said = "R (version ≥ 3.2.0) is required for it, but nobody needs to speak it."
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Wells"), ("text", code + TEXT)],
                                  [("h1", "2 Ropes"), ("text", TEXT), ("text", said)]])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("Which version of R is required?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.7


def test_without_it_the_answer_stays_as_it_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Wells"), ("text", TEXT)], [("text", TEXT)]])
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Which version of Quorble is required?", WHOLE, None)
    assert answer.declined or answer.sure < 0.7


def test_the_version_of_something_else_is_the_nearest_there_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Winches"), ("text", "The winch does not require protocol 31 of the rope."),
         ("text", "Oak is a wood. The rope version is required to be known by the keeper.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    assert digester.answer("Which Quorble version is required?", WHOLE, None).sure <= 0.3


@pytest.mark.parametrize(
    "said",
    ["It must be had at least once by every keeper (Quorble ropes, see Section 5.17).",
     "It depends no longer on the moon (true for Quorble, but not of Quorble 4.1 and 4.2)."],
)  # fmt: skip
def test_what_needs_something_else_gives_no_version(tmp_path, said):
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Wells"), ("text", said), ("text", TEXT)]])
    document, typed = read_document(tmp_path / "a.pdf"), "Which version of Quorble is required?"
    unsure = replace(answer_quoted(document, typed), sure=0.4)
    assert with_needed_version(document, unsure).sure <= unsure.sure


def test_the_version_that_a_part_of_the_title_must_have_is_not_that_of_the_document(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Quorble Wellkeep"), ("text", "Revision: 1.26")],
        [("h1", "1 Wells"), ("text", "Wellkeep needs at least Quorble 2.4, and a rope.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which version of Quorble is needed?", WHOLE, None
    )
    assert "Quorble 2.4" in answer.quotes[0].text
