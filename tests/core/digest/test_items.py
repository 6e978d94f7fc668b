"""What an item of a list says of the name that begins it."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = ("text", "The drum stands in the loft over the well and is turned by two keepers in the "
                  "morning and by one of them at night, when the wheel goes slowly.")  # fmt: skip
MENU = [("h1", "1 The menu of the winch"), FILLER,
        ("text", "With the entries of the menu the keeper chooses what the drum is like:"),
        ("item", "• Wind Faster (key F). The drum goes round more often."),
        ("item", "• Wind Slower (key S). The brake goes on. Each turn of the drum takes longer."),
        ("item", "• Gateway: iron, oak, stone"), FILLER]  # fmt: skip
WHEELS = [
    ("h1", "2 Wheels"),
    FILLER,
    ("text", "Whoever chooses Wind Slower or passes the gateway has read this before."),
]
LOCK = [("h1", "3 Lock"), ("text", "The lock holds the drum while nobody is there to hold it."),
        ("item", "• Lock: see the list of keys")]  # fmt: skip


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("items") / "a.pdf"
    make_pdf(path, [MENU, WHEELS, LOCK])
    return Digester(read_document(path))


@pytest.mark.parametrize(
    "typed", ["What does Wind Slower do?", "What does the Wind Slower entry do?"]
)
def test_an_item_says_all_of_it_what_the_name_before_it_does(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [MENU[4][1]]
    assert answer.sure > 0.5


def test_an_everyday_word_before_an_item_does_nothing(digester):
    answer = digester.answer("What does gateway do?", WHOLE, None)
    assert answer.sure < 0.5


def test_a_section_of_a_name_goes_before_an_item(digester):
    answer = digester.answer("What does the lock do?", WHOLE, None)
    assert answer.quotes[0].text.startswith("The lock holds the drum")


@pytest.mark.parametrize(("typed", "said"), [
    ("What does rope.wind do?", "The even ropes are compared with those of other wells."),
    ("What does NOLIDS do?", "If this is set the lids are open."),
])  # fmt: skip
def test_a_name_of_code_may_begin_the_paragraph_that_describes_it(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Names"), ("text", "The names are these."),
         ("h2", "1.1 One"),
         ("text", "rope.wind The even ropes are compared with those of other wells."),
         ("h2", "1.2 Two"), ("text", "NOLIDS If this is set the lids are open.")],
        [("h1", "2 Ropes"), ("text", "It is good to compare rope.wind with NOLIDS by day.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.endswith(said)
    assert answer.sure >= 0.6
