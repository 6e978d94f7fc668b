"""Asked how something is done: what says "To do this, do that" is quoted before what is like it."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

LIKE = (
    "The Load menu looks like the Save menu. To restore a saved game, choose the saved game. Saving"
    " the game often is wise, and a game that is saved can be played on."
)


def asked(tmp_path, said, typed="How do I save the game?"):
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Wells"), ("h1", "1 Loading and saving the game"), ("text", LIKE)],
         [("h1", "2 Slots"), ("text", f"Slots are few. {said} It is kept.")]],
    )  # fmt: skip
    return Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("said", "typed"),
    [("To save the game, press Esc and choose a slot.", "How do I save the game?"),
     ("To save games in a slot, press Esc and choose it.", "How can you save a game?"),
     ("To save an extra game, press Esc twice.", "How do I save an extra game?"),
     ("If you want to save your game, press Esc and choose a slot.", "How to save the game?"),
     ("If you want to run Wells all the time, press Esc.", "How do I run Wells all the time?")],
)  # fmt: skip
def test_what_says_what_is_done_to_do_it_is_quoted(tmp_path, said, typed):
    answer = asked(tmp_path, said, typed)
    assert answer.quotes[0].text.startswith(said)
    assert answer.sure > 0.8


@pytest.mark.parametrize(
    "said",
    ["To save the game of another, ask him.", "To save the game is to keep it.",
     "To save the gamebook, press Esc and choose a slot."],
)  # fmt: skip
def test_what_is_done_to_do_something_else_is_not(tmp_path, said):
    assert not asked(tmp_path, said).quotes[0].text.startswith(said)


def test_a_section_that_says_how_is_told_from_its_beginning(tmp_path):
    begins = "To request the game, issue the command wells from the shell."
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Wells"), ("h1", "1 Starting up the game"), ("text", begins),
          ("text", "A log is written where a file is named. Otherwise no file is written at all."),
          ("text", "The keeper asks how long you would like to play. Short is the usual reply."
                   " Long is fair, too."),
          ("text", "You should start out with a short game and work up, but if you want to see how"
                   " a game starts that nobody wins, start the game with a long one.")],
         [("h1", "2 Ropes"), ("text", "Ropes are long.")]],
    )  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "How do I start up the game?", WHOLE, None
    )
    assert answer.quotes[0].text.startswith(begins)
