"""Asked whom a work thanks: the sentences that give thanks."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."
FIRST = "I am thankful to Ann Bale for her advice on drums."
SECOND = "Cy Dow is thanked for the ropes."


def asked_of(path, typed, *said, title="Acknowledgements"):
    make_pdf(path, [
        [("title", "On winches"), ("h1", "1 Drums"), ("text", FILLER), ("text", FILLER)],
        [("h1", title), *[("text", text) for text in said]],
    ])  # fmt: skip
    return Digester(read_document(path)).answer(typed, WHOLE, None)


def quoted(answer):
    return " ".join(quote.text for quote in answer.quotes)


@pytest.mark.parametrize("typed", [
    "Whom does the author thank?", "Who do the authors acknowledge?", "Who is thanked?",
    "To whom is the author grateful?", "Who are the writers indebted to?", "Acknowledgements",
    "Wem dankt der Autor?", "Qui l'auteur remercie ?", "¿A quién agradece el autor?",
    "Chi ringrazia l'autore?",
])  # fmt: skip
def test_who_is_thanked_is_told(tmp_path, typed):
    answer = asked_of(tmp_path / "a.pdf", typed, FIRST, SECOND)
    assert quoted(answer) == f"{FIRST} {SECOND}"
    assert answer.sure >= 0.8


def test_what_for_may_be_asked(tmp_path):
    answer = asked_of(
        tmp_path / "a.pdf", "Whom does the author thank for the ropes?", FIRST, SECOND
    )
    assert quoted(answer).startswith(SECOND)


def test_names_under_a_title_of_thanks_are_less_sure(tmp_path):
    answer = asked_of(
        tmp_path / "a.pdf", "Who is thanked?", "Ann Bale", "Cy Dow", title="Thanks To"
    )
    assert "Ann Bale" in quoted(answer)
    assert answer.sure == pytest.approx(0.6)


def test_thanks_elsewhere_in_the_text_will_do(tmp_path):
    answer = asked_of(tmp_path / "a.pdf", "Whom does he thank?", FILLER, FIRST, title="2 Ropes")
    assert quoted(answer) == FIRST


def test_where_nobody_is_thanked_nothing_is_sure(tmp_path):
    answer = asked_of(tmp_path / "a.pdf", "Whom does the author thank?", FILLER, title="2 Ropes")
    assert answer.sure <= 0.3


def test_thanks_in_a_section_of_their_own_come_first(tmp_path):
    early = "We thank Di Eft for asking what a drum is."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "On winches"), ("h1", "1 Drums"), ("text", early), ("text", FILLER)],
        [("h1", "Acknowledgements"), ("text", FIRST)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Who is thanked?", WHOLE, None)
    assert quoted(answer) == FIRST
