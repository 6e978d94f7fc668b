"""Asked what one has to know before reading: what says what is taken for granted."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."


def answer_of(path, typed, said):
    make_pdf(path, [
        [("title", "Winches"), ("h1", "1 Preface"), ("text", FILLER), ("text", said)],
        [("h1", "2 Drums"), ("text", FILLER), ("text", "The drum needs to be known to the smith.")],
    ])  # fmt: skip
    return Digester(read_document(path)).answer(typed, WHOLE, None)


@pytest.mark.parametrize("typed", [
    "What do I need to know before I start?", "What should I know before reading this?",
    "What knowledge is assumed?", "What are the prerequisites?", "Which prior knowledge is needed?",
    "Do I need any previous knowledge?", "What is assumed of the reader?",
])  # fmt: skip
def test_what_is_taken_for_granted_is_told(tmp_path, typed):
    said = "The reader is assumed to be familiar with ropes and knots."
    answer = answer_of(tmp_path / "a.pdf", typed, said)
    assert [quote.text for quote in answer.quotes] == [said]
    assert answer.sure >= 0.75


@pytest.mark.parametrize(
    "said",
    [
        "This manual assumes that you know a little about ropes.",
        "The only prerequisite is that you have held a rope before.",
        "Prior knowledge of knots is assumed by this guide.",
        "No previous knowledge of winches is necessary.",
        "You should have a basic understanding of ropes.",
    ],
)
def test_it_may_be_said_in_other_words(tmp_path, said):
    answer = answer_of(tmp_path / "a.pdf", "What do I need to know first?", said)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.75


@pytest.mark.parametrize(
    "said",
    [
        "This chapter tells you all you need to know about ropes.",
        "The function assumes that the rope is known.",
    ],
)
def test_what_only_sounds_like_it_is_not_sure(tmp_path, said):
    answer = answer_of(tmp_path / "a.pdf", "What do I need to know first?", said)
    assert answer.sure < 0.75 or not answer.quotes or answer.quotes[0].text != said
