"""Chains of nouns, parted as the document uses their pieces."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.explain import Explainer, noun_chains

TEXT = """
The kiln has a gauge. A kiln gauge reads the heat. The kiln gauge is made of brass. A repair
log is a book. The repair log lies on the shelf, and every repair log has a number. The kiln is
hot. A log of the day is kept. The repair is done by hand. The gauge of the tank is new. The book
is old. The heat is high. An account of the work is given, and the work is paid. The empty shelf
is long. The shelf is of oak. We keep the shelf for the repair.
"""


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path = tmp_path_factory.mktemp("chains") / "kiln.pdf"
    sentence = "Each morning the kiln gauge repair log is signed by the master."
    make_pdf(path, [[("text", " ".join(TEXT.split())), ("text", sentence)]])
    return read_document(path)


@pytest.mark.parametrize(
    ("text", "parts"),
    [
        ("The kiln gauge repair log is signed.", ("repair log", "kiln gauge")),
        ("Write it in the kiln gauge book.", ("book", "kiln gauge")),
        ("It lies on the empty shelf repair log.", ("repair log", "shelf")),
    ],
)
def test_a_chain_is_parted_where_the_document_uses_its_pieces(document, text, parts):
    (chain,) = noun_chains(document, text)
    assert chain.parts == parts
    assert chain.text in text
    assert sorted(" ".join(parts).split()) == sorted(chain.text.split())


@pytest.mark.parametrize(
    "text",
    [
        "The kiln gauge is made of brass.",  # two nouns are no chain
        "The heat account shelf is new.",  # no two of these stand together anywhere
        "The kiln, gauge, repair log are new.",  # a list
        "Every zebra crossing warden waits.",  # words that the document does not have
        "The kiln and gauge of repair.",
    ],
)
def test_what_the_document_does_not_show_stays_whole(document, text):
    assert noun_chains(document, text) == ()


def test_chains_of_another_language_are_left_alone(document, monkeypatch):
    monkeypatch.setattr(document.index.analyser, "language", "de")
    monkeypatch.setattr(type(document.index), "language", "de", raising=False)
    assert noun_chains(document, "The kiln gauge repair log is signed.") == ()


def test_an_explanation_tells_its_chains(document):
    told = Explainer(document).explain("the kiln gauge repair log is signed by the master", 0)
    assert [c.said for c in told.chains] == ["“repair log”, which one: “kiln gauge”"]
    assert told.n_told >= 1
