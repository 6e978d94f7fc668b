"""Compounds: a question's word made of two that the document has, or ending others of it."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.search.compounds import ending_with, parts_of
from wide_margin.core.search.query import read_terms

SAID = (
    "Die Dicke eines Seils wird mit einem Ring gemessen. Ein Seil aus Hanf ist nach einem Jahr "
    "nicht mehr zu brauchen, und die Farbe der Trommel ist rot. Jeder Turm hat eine Glocke. "
    "Die Sprache der Glocken versteht jeder. Das Programm der Läuter ist alt. Wer eine Glocke "
    "läutet, braucht Kraft. Die Windentrommel und die Seiltrommel sind aus Eiche. "
    "Ein Windenhommel ist nichts davon."
)


@pytest.fixture(scope="module")
def tower(tmp_path_factory):
    path = tmp_path_factory.mktemp("tower") / "turm.pdf"
    rain = ("text", "Es regnet im Mai. Niemand hat etwas dagegen.")
    make_pdf(path, [[("h1", "1 Seile"), ("text", SAID)], [("h1", "2 Regen"), rain]])
    return read_document(path)


def stems(document, numbers):
    of = {number: term for term, number in document.index.term_ids.items()}
    return [of[number] for number in numbers]


@pytest.mark.parametrize(
    ("word", "parts"),
    [("seildicke", ["dick", "seil"]), ("programmsprache", ["sprach", "programm"]),
     ("glockenfarbe", ["farb", "glock"]), ("glocke", []), ("seilzug", []), ("regenschirm", [])],
)  # fmt: skip
def test_a_word_that_is_not_there_may_be_made_of_two_that_are(tower, word, parts):
    assert stems(tower, parts_of(word, tower.index)) == parts


def test_a_word_ends_compounds_of_the_document(tower):
    assert set(stems(tower, ending_with("trommel", tower.index))) == {
        "windentrommel",
        "seiltrommel",
    }
    assert ending_with("rot", tower.index) == []  # short ones end anything


def test_what_both_parts_stand_for_is_known_to_the_document(tower):
    (term,) = read_terms("Seildicke", tower.index).terms
    assert term.is_exact
    (unknown,) = read_terms("Regenschirm", tower.index).terms
    assert not unknown.is_exact


def test_a_question_with_a_compound_is_answered(tower):
    answer = Digester(tower).answer("Wie wird die Seildicke gemessen?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Die Dicke eines Seils")


def test_other_languages_are_left_alone(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Ropes"), ("text", "A rope of hemp has a ring. " * 4)]])
    index = read_document(tmp_path / "a.pdf").index
    assert parts_of("ropering", index) == []
    assert ending_with("hemprope", index) == []


def test_a_word_that_only_says_that_something_lies_somewhere_asks_for_nothing(tower):
    terms = read_terms("Wo liegen die Glocken?", tower.index).terms
    assert [term.word for term in terms] == ["glocken"]
