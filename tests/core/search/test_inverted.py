"""Verbs that a question takes apart or turns round are looked for as a text has them."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.search import read_terms
from wide_margin.core.search.inverted import plainly_asked


@pytest.mark.parametrize(
    ("language", "typed", "plain"),
    [
        ("fr", "Comment puis-je contribuer ?", "Comment puis contribuer ?"),
        ("fr", "Comment remplace-t-on la corde ?", "Comment remplace la corde ?"),
        ("fr", "Où est le garde-manger ?", "Où est le garde-manger ?"),
        ("de", "Wie lege ich ein neues Konto an?", "Wie anlege ich ein neues Konto?"),
        ("de", "Wann schließt man den Deckel ab?", "Wann abschließt man den Deckel?"),
        ("fr", "Où prendre rendez-vous ?", "Où prendre rendez-vous ?"),
        ("de", "Warum ist der Deckel zu?", "Warum ist der Deckel zu?"),
        ("de", "Wie alt ist das Seil?", "Wie alt ist das Seil?"),
        ("nl", "Hoe stel ik de klok in?", "Hoe instel ik de klok?"),
        ("en", "Where does it turn on?", "Where does it turn on?"),
    ],
)  # fmt: skip
def test_a_verb_is_made_whole(language, typed, plain):
    assert plainly_asked(typed, language) == plain


def test_a_parted_verb_finds_the_text_that_has_it_whole(tmp_path):
    text = "Der Wärter kann ein neues Buch anlegen, wenn das alte voll ist und im Schrank steht."
    make_pdf(tmp_path / "a.pdf", [[("text", text)], [("text", "Das Seil ist alt und aus Hanf.")]])
    index = read_document(tmp_path / "a.pdf").index
    query = read_terms("Wie lege ich ein neues Buch an?", index)
    assert [term.word for term in query.terms if term.is_exact] == ["anlege", "neues", "buch"]
    assert not [
        term.word for term in read_terms("Wie ist mein Seil?", index).terms if term.word == "mein"
    ]
