"""Asked which option or function does something: the one whose description says so."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.digest import Digester
from wide_margin.core.digest.which_name import with_its_name

MORE = ("text", "The winch is of oak. Its drum, its rope and its pawl are looked after in spring.")
PAGES = [
    [("title", "The Winch of Hallan"), ("h1", "1 Options"), MORE,
     ("text", "The rope and the drum are chosen by the keeper, who sets all that there is to set."),
     ("text", "-r ROPE Specify the rope to be wound."),
     ("text", "-d, --drum Use the drum of the other rope and specify nothing else of it at all, "
              "neither pawl nor crank nor hook nor lid, which stay as they were in the summer."),
     ("code", "-q"), ("said", "Disable the bell that rings at every turn.")],
    [("h1", "2 Functions"), MORE,
     ("entry", "wind_rope(turns)|Removes the slack of a rope before it is wound."),
     ("entry", "dry_mode(on)|This pawl can be set to either on or off by the keeper."),
     ("entry", "rope_length(rope)|Returns the length of a rope in turns of the drum."), MORE,
     ("code", "oilHook :: Winch -> Oil ()"), ("text", "Grease the hook."),
     ("code", "data RopeSling a"), ("text", "A value of type RopeSling holds a load."), MORE],
    [("h1", "3 The bell"), MORE, ("text", "The bell rings. How the bell is kept is told there.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path = tmp_path_factory.mktemp("names") / "a.pdf"
    make_pdf(path, PAGES)
    return read_document(path)


@pytest.fixture(scope="module")
def winch(document):
    return Digester(document)


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("Which option specifies the rope?", "-r ROPE Specify the rope"),
        ("Which option selects the rope?", "-r ROPE Specify the rope"),  # in another word
        ("What option is used to set the rope?", "-r ROPE Specify the rope"),
        ("Which switch turns off the bell?", "-q Disable the bell"),  # named on its own line
        ("Which function deletes the slack of a rope?", "wind_rope(turns) Removes the slack"),
        ("Which command can I use to remove the slack?", "wind_rope(turns) Removes the slack"),
        ("Which function greases the hook?", "oilHook :: Winch -> Oil () Grease the hook."),
        ("What does oilHook do?", "oilHook :: Winch -> Oil () Grease the hook."),
        ("What is a RopeSling?", "A value of type RopeSling holds a load"),
        ("How do I discard the slack of a rope?", "wind_rope(turns) Removes the slack"),
    ],
)
def test_it_is_the_one_described_so(winch, typed, said):
    answer = winch.answer(typed, WHOLE, None)
    assert said in " ".join(answer.quotes[0].text.split())
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    "typed",
    [
        "Which option hides the rope?",  # another deed
        "Which option removes the slack of a rope?",  # done by no option
        "How do I set a pawl?",  # something is done with it
        "Which rope is wound?",
    ],
)
def test_what_does_something_else_is_not(document, typed):
    unsure = replace(answer_quoted(document, typed), sure=0.4)
    assert with_its_name(document, unsure) == unsure


CALLED = [
    [("title", "The Library of Winches"), ("h1", "1 Drums"), MORE,
     ("h2", "1.1 winch_draw_rope()"), ("code", "int winch_draw_rope (Winch w, int turns)"),
     ("text", "Turn the drum of a winch. Functions such as winch_oil() use the same drum."),
     ("text", "This function never fails."),
     ("bold", "Returns"), ("text", "The turns that are left, or nothing."), MORE],
    [("h2", "1.2 winch_draw_rope_slowly()"), ("code", "int winch_draw_rope_slowly (Winch w)"),
     ("text", "Turn it at night. This function returns the turns of that night."), MORE,
     ("h2", "1.3 winch_oil()"), ("text", "This function never fails."),
     ("bold", "Parameters"), ("text", "w The winch that stands in the tower."), MORE],
]  # fmt: skip


@pytest.fixture(scope="module")
def called(tmp_path_factory):
    path = tmp_path_factory.mktemp("called") / "a.pdf"
    make_pdf(path, CALLED)
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("Which function draws a rope?", "Turn the drum of a winch."),  # by the words of its name
        ("What does winch_draw_rope do?", "Turn the drum of a winch."),  # names another one
        ("What does winch_draw_rope return?", "The turns that are left, or nothing."),
        ("What does winch_draw_rope_slowly return?", "This function returns the turns"),
    ],
)
def test_a_name_tells_by_its_words_what_it_does(called, typed, said):
    answer = called.answer(typed, WHOLE, None)
    assert said in answer.quotes[-1].text
    assert answer.sure >= 0.6
    assert answer.question == typed


def test_what_a_function_takes_does_not_say_what_it_does(called):
    answer = called.answer("What does winch_oil do?", WHOLE, None)
    assert answer.sure < 0.6


def test_a_name_under_which_nothing_is_said_is_not_given_as_sure(called):
    answer = called.answer("Which function oils a winch?", WHOLE, None)
    assert answer.sure < 0.6


def test_a_call_is_no_description(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Winches"), ("h1", "1 Loops"),
         ("text", "wait_rope(KEY); /* Refresh the board */"), MORE],
        [("h1", "2 Boards"), MORE],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which function refreshes the board?", WHOLE, None
    )
    assert answer.sure < 0.75
