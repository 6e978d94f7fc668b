"""Which options a command line takes, by where a manual describes them."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.options import answer_command, answer_options

FILLING = ("text", "Gates are of oak. The keeper paints them in the spring. Lids are of zinc.")
WINCH = [
    ("entry", "-w, --wet|Wind a wet rope and let it drip."),
    ("entry", "--turns=N|Wind so many turns on the drum."),
    ("code", "-q"), ("said", "be quiet about all that is wound."),
    ("entry", "-w, --wet|Wind a wet rope once more."),
]  # fmt: skip


def asked(path, pages, typed):
    make_pdf(path, pages)
    return Digester(read_document(path)).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    "typed",
    [
        "Which options are there?", "What are the command-line options?",
        "What command line options are there?", "Which switches does it know?",
        "What options does the command have?", "List all options of the winch",
        "What flags can I use?", "Welche Optionen gibt es?", "Quelles sont les options ?",
    ],
)  # fmt: skip
def test_options_that_are_described_are_listed_each_once(tmp_path, typed):
    pages = [[("title", "The Winch"), FILLING], [("h1", "1 Calling the winch"), *WINCH, FILLING]]
    answer = asked(tmp_path / "a.pdf", pages, typed)
    assert [quote.text.split()[0].rstrip(",") for quote in answer.quotes] == [
        "-w",
        "--turns=N",
        "-q",
    ]
    assert "let it drip" in answer.quotes[0].text
    assert "quiet" in answer.quotes[2].text
    assert answer.sure >= 0.8
    assert answer.n_found == 0


def test_of_many_the_first_are_quoted_and_all_are_counted(tmp_path):
    many = [
        ("entry", f"--rope{letter}|Wind the rope of that letter.") for letter in "abcdefghijklmn"
    ]
    pages = [[("title", "The Winch"), FILLING], [("h1", "1 Options"), *many]]
    answer = asked(tmp_path / "a.pdf", pages, "Which options are there?")
    assert (len(answer.quotes), answer.n_found) == (12, 14)


def test_of_several_commands_the_one_that_is_named_tells_its_own(tmp_path):
    lift = [("entry", "-w, --wet|Lift a wet bucket."), ("entry", "--slow|Lift it with great care."),
            ("entry", "-n|Lift nothing and tell what would be lifted.")]  # fmt: skip
    pages = [
        [("title", "Tools of a Well"), FILLING], [("h1", "1 wind"), *WINCH],
        [("h1", "2 lift"), *lift, FILLING],
    ]  # fmt: skip
    answer = asked(tmp_path / "a.pdf", pages, "Which options does lift take?")
    assert [quote.text.split()[0].rstrip(",") for quote in answer.quotes] == ["-w", "--slow", "-n"]
    assert "bucket" in answer.quotes[0].text


@pytest.mark.parametrize(
    "rows",
    [
        ["-Rope Money|Paid for all the ropes.", "-Lid Money|Paid for all the lids.",
         "-Gate Money|Paid for all the gates."],
        ["-1|The rope is too short for it.", "-2|The drum is not of oak.", "-3|The lid is on."],
        ["-w|Wind a wet rope and let it drip.", "-q|Be quiet about all that."],
    ],
)  # fmt: skip
def test_what_only_begins_with_a_dash_is_no_list_of_options(tmp_path, rows):
    pages = [[("title", "The Winch"), FILLING],
             [("h1", "1 Options"), *(("entry", row) for row in rows), FILLING]]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    assert answer_options(document, "Which options are there?", pytest.fail) is None


def test_options_somewhere_in_a_long_document_are_perhaps_those_of_something_else(tmp_path):
    pages = [[("title", "Wells"), FILLING], *([FILLING] for _ in range(60)),
             [("h1", "1 Conditions"), *WINCH, FILLING]]  # fmt: skip
    assert asked(tmp_path / "a.pdf", pages, "Which options are there?").sure < 0.5


@pytest.fixture(scope="module")
def commands(tmp_path_factory):
    path = tmp_path_factory.mktemp("commands") / "a.pdf"
    make_pdf(path, [
        [("title", "The Winch"), ("h1", "1 Commands"), ("code", "winch -L rope winch -l drum -w"),
         ("entry", "winch -l drum|List all ropes that are on the drum."),
         ("entry", "winch -L rope|Lay the rope down in the yard.")],
        [("h1", "2 More"), ("text", "• Paint the drum of the winch in red: winch --paint drum"),
         FILLING],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What does winch -l do?", "List all ropes"), ("What does winch -L do?", "Lay the rope"),
     ("What does the command “winch --paint” do?", "Paint the drum"),
     ("Was macht der Befehl winch -L?", "Lay the rope")],
)  # fmt: skip
def test_a_command_with_an_option_is_told_by_its_row(commands, typed, said):
    answer = commands.answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert answer.sure >= 0.8


def test_a_command_that_no_row_has_is_looked_for_as_before(commands):
    assert answer_command(commands._document, "What does winch -q do?", pytest.fail) is None
