"""Asked who paid for a work: what says by whom it was supported."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."


def asked_of(path, typed, *said, title="Thanks"):
    make_pdf(path, [
        [("title", "On winches"), ("h1", "1 Drums"), ("text", FILLER), ("text", FILLER)],
        [("h1", title), *[("text", text) for text in said]],
    ])  # fmt: skip
    return Digester(read_document(path)).answer(typed, WHOLE, None)


@pytest.mark.parametrize("typed", [
    "Who funded the work?", "Who paid for this research?", "Was it funded by anyone?",
    "Who is the sponsor?", "What is the source of funding?", "How was the study financed?",
    "Which organisation funded it?", "Where did the money come from?", "Funding",
    "Wer hat die Arbeit finanziert?", "Qui a financé ce travail ?", "Who sponsored winches?",
])  # fmt: skip
def test_who_paid_is_told_among_the_thanks(tmp_path, typed):
    said = "This work was supported in part by the Council for Ropes under grant 17."
    answer = asked_of(tmp_path / "a.pdf", typed, "We thank the keepers.", said)
    assert [quote.text for quote in answer.quotes] == [said]
    assert answer.sure >= 0.8


@pytest.mark.parametrize(
    "said",
    [
        "The work of B. Miller was financed by the Harbour Foundation.",
        "We are grateful for the financial support of the project provided by the Rope Fund.",
        "The development of winches was funded by the EU project ROPES.",
        "Die Arbeit wurde durch die Seilerstiftung gefördert.",
        "Ce travail a été financé par la Fondation du port.",
    ],
)
def test_it_is_said_in_many_ways(tmp_path, said):
    assert asked_of(tmp_path / "a.pdf", "Who funded the work?", said).quotes[0].text == said


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("Who funded the work?", "Keepers may request funding from the Council for Ropes."),
        ("Who funded the work?", "The drum is supported by a beam of the old centre."),
        ("Who paid for the rope?", "This work was supported by the Council for Ropes."),
    ],
)
def test_money_for_others_and_beams_do_not_answer(tmp_path, typed, said):
    answer = asked_of(tmp_path / "a.pdf", typed, said)
    assert answer.kind != "overview: funding"
    assert answer.sure <= 0.3 or "rope" in typed
