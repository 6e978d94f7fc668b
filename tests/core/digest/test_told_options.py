"""What options, functions and terms are told by where a document prints them in its own way."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.defined import _begins_doing, _tells
from wide_margin.core.passages import Sentence

FILLING = ("text", "Gates are of oak. The keeper paints them in the spring. Lids are of zinc.")
PAGES = [
    [("title", "The Winch of Hallan"), ("h1", "1 Options"),
     ("text", "-w [DRUM] \u2013wind[=DRUM] Wind the rope on a drum of oak."),
     ("text", "--dry, --wet. See §14. --fold. This folds the rope."), FILLING,
     ("code", "--ropeLength"), ("said", "default: 40 turns of the drum in a dry summer"), FILLING],
    [("h1", "2 Ropes"), ("text", "--dry. This makes the winch take dry ropes alone."), FILLING,
     ("text", "winch [rope [turns]] options"), FILLING],
    [("h1", "2.1 More"), ("code", "‘-f, --full, %option full’"),
     ("said", "wind a full rope on the drum, and no half one at any time."), FILLING,
     ("code", "--reelhook"), ("said", "if unset, leave the hook of the reel where it is."),
     ("text", "If reelhook() returns false, the reel is taken for empty.")],
    [("text", "-p rope.txt -d drum.txt -p hook.txt -o all.txt"), FILLING,
     ("text", "-p PLACE Tell the winch where the rope lies."), FILLING],
    [("h1", "3 unreel"), ("text", "unreel [rope [turns]] options"),
     ("text", "The unreel program lays a rope down again, however wet it is."), FILLING],
]  # fmt: skip


@pytest.fixture(scope="module")
def winding(tmp_path_factory):
    path = tmp_path_factory.mktemp("options") / "a.pdf"
    make_pdf(path, PAGES)
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does --wind do?", "Wind the rope on a drum"),  # after its short form and a blank
        ("What does --dry do?", "makes the winch take dry ropes"),  # and not where it points on
        ("What does -f do?", "wind a full rope"),  # over it, with its other forms
        ("What does ropeLength do?", "--ropeLength"),  # asked without its dashes
        ("What does -p do?", "Tell the winch where"),  # and not where it is typed with others
        ("What does unreel do?", "lays a rope down again"),  # and not how it is called
    ],
)
def test_it_is_told_by_its_description(winding, typed, said):
    answer = winding.answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert answer.sure >= 0.6


def test_a_term_is_not_told_by_what_another_function_takes(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Functions"),
         ("entry", "int ropeg_examine (const ROPEG DRUM * drum|Gives the size of the drum."),
         ("code", "#ifdef ROPEG"), ("text", "This makes the drum go round. It is slow.")],
        [("h1", "2 Others"), FILLING, ("text", "Keepers use ropeg in the winter of a wet year.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is ropeg?", WHOLE, None)
    assert "examine" not in answer.quotes[0].text
    assert answer.is_perhaps


def test_words_of_a_longer_term_are_not_told_by_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Arguments"), ("entry", "lid|The lid of the well."),
         ("text", "warm start desc OUT A place for what is read."), FILLING],
        [("h1", "2 Others"), FILLING, ("text", "A day in May may do with a warm start.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What is a warm start?", WHOLE, None
    )
    assert answer.is_perhaps


@pytest.mark.parametrize(
    ("typed", "first", "second"),
    [
        ("What is a hemp basis?",
         "If we turn to the well, we are looking for a hemp basis of the drum in the yard.",
         "As the lids for hemp are the same as for straw, we can use one of them."),
        ("What is the posterior hemp basis?",
         "For instance, one could define a prior hemp basis of only a yard for the winch.",
         "Such a prior is the one that may be submitted to the winch by the hemp size."),
        ("What is a drum?",
         "The same rope may have another length by the choice of its drum.",
         "The change from one to the other drum is known as a drum shift in the trade."),
    ],
)  # fmt: skip
def test_half_of_a_term_is_not_defined_with_it(tmp_path, typed, first, second):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winding"), FILLING, ("text", f"{first} {second}")], [("h1", "2 Lids"), FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.is_perhaps or answer.declined


def test_a_title_with_a_hyphen_asks_what_is_asked_without(tmp_path):
    said = "The map and the land are laid over each other at two wells."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Cross-referencing a map"), ("text", said)],
        [("h1", "2 News"), ("text", "New: lids cross-reference wells as well as maps."), FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "How do I crossreference a map?", WHOLE, None
    )
    assert answer.quotes[0].text.startswith(said)


def test_a_thing_may_have_a_kind_for_its_first_word(tmp_path):
    said = "A filter element holds back what is in the water of the well."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 Filter element"), ("text", said)],
        [("h1", "2 Others"), FILLING, ("text", "The element gives a rope to the drum.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does the filter element do?", WHOLE, None
    )
    assert answer.quotes[0].text == said


def test_what_a_section_says_of_a_term_need_not_define_it(tmp_path):
    said = "In order to compute the hemp basis, we run the winch by hand."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 The hemp basis"), ("text", said)],
        [("h1", "2 Others"), FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What is a hemp basis?", WHOLE, None
    )
    assert answer.sure < 0.5


def test_a_function_of_a_class_is_told_within_its_class(tmp_path):
    said = "As long as any rope is wet this waits, and gives it a turn."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 Drum Class Reference"),
         ("h2", "1.1 wind()"), ("text", "Winds the rope on the drum until it is full.")],
        [("h1", "2 Well Class Reference"), ("h2", "2.1 wind()"), ("text", said)],
        [("h1", "3 Others"), FILLING, ("text", "To wind is to use Well::wind() by day.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does Well::wind do?", WHOLE, None
    )
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


@pytest.mark.parametrize("asked", ["wells:wind", "wells:wind/2"])
def test_a_function_of_a_module_is_told_under_its_name_and_how_many_it_takes(tmp_path, asked):
    said = "As long as any rope is wet this waits, and gives it a turn."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 drums"), ("h2", "wind/1"),
         ("text", "Winds the rope on the drum until it is full.")],
        [("h1", "2 wells"), ("h2", "wind/1"), ("h2", "wind/2"), ("text", said)],
        [("h1", "3 Others"), FILLING,
         ("text", "To wind is to use wells:wind/2 by day, and wells:wind/2 needs a rope.")],
    ], bookmarks=[("1 drums", 0, 0), ("wind/1", 1, 0), ("2 wells", 0, 1), ("wind/1", 1, 1),
                  ("wind/2", 1, 1), ("3 Others", 0, 2)])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        f"What does {asked} do?", WHOLE, None
    )
    assert answer.quotes[0].text == said


def test_an_option_that_is_only_given_a_number_beside_others_is_not_described_there(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 First"), ("text", "For example, if you set"),
         ("code", "--turns=1.0 --wet=0.5"),
         ("text", "Winch will favour dry ropes over wet ones when winding."), FILLING],
        [("h1", "2 Options"), ("code", "--turns=TURNS"),
         ("said", "Set the number of turns that the drum is wound by the keeper."), FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does --turns do?", WHOLE, None
    )
    assert "Set the number of turns" in answer.quotes[0].text


def test_a_question_that_a_title_asks_is_answered_surely_there(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "How many turns shall I use?"),
         ("text", "Wet ropes: choose the number of turns so that each holds about 3,000 ells."),
         FILLING],
        [("h1", "Drums"), ("text", "Turns of the drum are told by the keeper."), FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("How many turns should I use?", WHOLE, None)
    assert "3,000" in answer.quotes[0].text
    assert answer.sure >= 0.6


def test_what_a_function_gives_is_told_by_the_part_that_says_so(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 wind_rope"),
         ("text", "The function wind_rope winds the rope on the drum and gives the keeper a rest."),
         ("text", "It is wound in the order of age, and no half one is wound at any time."),
         ("text", "Return value: the number of turns, or a negative code.")],
        [("h1", "2 Ropes"), FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("What does wind_rope return?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Return value: the number of turns")


@pytest.mark.parametrize(
    ("text", "says"),
    [("rope_kind ROPE_WET [Kind of rope]", False), ("ROPE_WET This winds the wet rope.", True)],
)
def test_an_entry_of_names_alone_says_nothing_of_them(winding, text, says):
    said = Sentence(text, 0, -1, 0, 0, len(text), "entry", -1)
    assert _tells(winding._document, said) is says


def test_works_are_known_by_initials_without_stops(tmp_path):
    works = ["Bale A, Dow CE (2009). “Ropes of Wells.” Rope Review, 51(4), 661–703.",
             "Efron BA, Tibs RJ (1993). An Introduction to Ropes, volume 57. Chapman.",
             "Keller EF (2005). “Revisiting Ropes.” BioRope, 27(10), 1060–1068."]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Ropes"), FILLING],
        [("h1", "References"), *(("text", work) for work in works)],
    ])  # fmt: skip
    said = read_document(tmp_path / "a.pdf").text.sentences
    assert {s.kind for s in said if s.page == 1 and s.kind != "heading"} == {"works"}


def test_the_head_of_a_page_says_what_the_function_on_it_does(tmp_path):
    said = "WinchOpen—Open an existing well."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("text", f"{said}"), ("text", "rope The rope of the well to open."),
         ("text", "kind The kind of well that WinchOpen opens, which the keeper knows."), FILLING],
        [("h1", "2 Ropes"), ("text", "WinchOpen is named after a winch that opens."), FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("What does WinchOpen do?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


def test_an_option_with_only_a_place_in_brackets_is_described_elsewhere(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Logs"),
         ("item", "• --dump-rope (see Section 8.1.5 [Ropes and Drums], page 228)"), FILLING],
        [("h1", "2 Options"), ("code", "--dump-rope"),
         ("said", "Print the rope that the keeper has wound on the drum, and stop."), FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("What does --dump-rope do?", WHOLE, None)
    assert "Print the rope that" in answer.quotes[0].text


DECLARED = [
    [("title", "The Winch of Hallan"), ("h1", "1 Functions"), FILLING,
     ("code", "void wind_rope (ROPE r, int turns) [Function]"),
     ("text", "Lay a rope on the drum, turn by turn, until it is full."), FILLING,
     ("code", "int rope_size (ROPE r) [Library Function]"),
     ("code", "int rope_depth (ROPE r) [Library Function]"),
     ("text", "Return how much of the rope hangs in the well."), FILLING],
    [("h1", "2 Commands"), FILLING, ("code", "rope-hide-all n [Command]"),
     ("text", "Hide the first ropes of the list, whatever they are called."),
     ("code", "const char * rope_name (ROPE r) [Function]"),
     ("text", "r: the rope asked for"), ("text", "Tell the name of a rope as it was given."),
     ("text", "You must not call wind_rope with a rope that is not dry."),
     ("item", "\u2022 void dry_rope(ROPE r)"),
     ("text", "hangs a rope (wet or not) over the beam of the loft."), FILLING,
     ("item", "\u2022 Rope_cut(r) (function) Returns: two ropes Cuts a rope in its middle."),
     ("item", "\u2022 \\setrope{8} will change the length of a rope."), FILLING,
     ("item", "\u2022 extern int fill_drum (ROPE r, int) Fill a drum with the rope that is given."),
     ("code", "flatten rope [Function]"), ("text", "Walks the rope in order, and lays it flat."),
     ("code", "rope-let ropes [Macro]"), ("text", "Binds ropes where all of them are dry."),
     ("code", "wheel-let wheels [Macro]"), ("text", "Binds wheels as soon as one turns."),
     ("text", "ROPE_END is never returned."), ("text", "Dry ROPE_END at once. Ropes are long.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def declared(tmp_path_factory):
    path = tmp_path_factory.mktemp("declared") / "a.pdf"
    make_pdf(path, DECLARED)
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does wind_rope do?", "Lay a rope on the drum"),
        ("What does rope_size do?", "Return how much"),  # declared with another
        ("What does rope-hide-all do?", "Hide the first ropes"),
        ("What does rope_name do?", "Tell the name"),  # and not what it takes
        ("What does dry_rope do?", "hangs a rope"),
        ("What does Rope_cut do?", "Cuts a rope in its middle"),
        ("What does fill_drum do?", "Fill a drum with the rope"),
        ("What does flatten do?", "Walks the rope in order"),  # an everyday word
    ],
)
def test_what_is_declared_is_told_by_what_stands_under_it(declared, typed, said):
    answer = declared.answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert "not dry" not in answer.quotes[0].text
    assert answer.sure >= 0.7


def test_what_an_option_is_given_is_not_described_with_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 Options"), FILLING,
         ("entry", "-x <crank>|Wind the rope by the crank that is named, and by no other one."),
         ("entry", "-y <drum>|Lay the rope on this drum.")],
        [("h1", "2 Others"), FILLING, ("text", "A wet crank is dried before it is put in.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    assert digester.answer("What is a crank?", WHOLE, None).sure <= 0.3
    assert digester.answer("What does -x do?", WHOLE, None).sure >= 0.7


def test_a_synopsis_does_not_describe_its_options(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 Synopsis"),
         ("text", "[-D tag ...] rope.txt [-U tag ...] drum.txt"), FILLING],
        [("h1", "2 Options"), ("entry", "-D|Mark the ropes that have a tag of their own.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does the -D option do?", WHOLE, None
    )
    assert "Mark the ropes" in answer.quotes[0].text
    assert "rope.txt" not in answer.quotes[0].text


def test_lines_of_output_under_a_label_do_not_define_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 Output"), FILLING, ("code", "Second ropes:"),
         ("said", "hemp turns as dry, agree=0.962, wet=0.914, (6 turns)"),
         ("said", "straw turns as wet, agree=0.614, wet=0.190, (1 turn)")],
        [("h1", "2 Others"), FILLING, ("text", "The second rope is wound after the first.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What is a second rope?", WHOLE, None
    )
    assert answer.sure <= 0.3


def test_where_the_source_has_it_says_nothing(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Winch of Hallan"), ("h1", "1 rope_cut()"),
         ("text", "Definition at line 36 of file rope_cut.h."),
         ("text", "References drum, rope_dry, and rope_wet.")],
        [("h1", "2 Others"), ("text", "SetRopeTime= seconds \u2014 Interval between turns.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    assert digester.answer("What does rope_cut do?", WHOLE, None).sure <= 0.3
    answer = digester.answer("What does SetRopeTime do?", WHOLE, None)
    assert "Interval between turns" in answer.quotes[0].text


def test_two_that_are_declared_are_compared_by_what_stands_under_each(declared):
    typed = "What is the difference between rope-let and wheel-let?"
    answer = declared.answer(typed, WHOLE, None)
    told = "".join(quote.text for quote in answer.quotes)
    assert "Binds ropes" in told
    assert "Binds wheels" in told
    assert "ROPE_END" not in told


def test_a_command_is_told_with_what_it_takes(declared):
    answer = declared.answer("What does \\setrope do?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [
        "• \\setrope{8} will change the length of a rope."
    ]
    assert answer.sure >= 0.6


def test_what_this_function_does_goes_before_what_names_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Winches"), ("h1", "1 Words"), FILLING],
        [("h1", "2 Drumcounts"), ("text", "This directive specifies that drums are to be counted. "
          "Note: a drum at the beginning is left out. The drumcounts directive passes over lids.")],
        [("h1", "3 Lids"), FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does the drumcounts directive do?", WHOLE, None
    )
    assert answer.quotes[0].text.startswith("This directive specifies that")
    assert answer.sure >= 0.6


def test_that_a_value_is_never_given_does_not_say_what_it_means(declared):
    answer = declared.answer("What does ROPE_END mean?", WHOLE, None)
    assert answer.sure < 0.6


def test_a_description_may_be_set_as_its_option_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Options"), FILLING, ("code", "--rope-file name, -r name"),
         ("code", "   Specify the name of the rope. If it is wet, the well stays shut."), FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("What does --rope-file do?", WHOLE, None)
    assert "Specify the name of the rope" in answer.quotes[0].text
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("said", "is_doing"),
    [("Print ropes to a board.", True), ("Draw a rope.", True), ("This macro winds it.", True),
     ("version is set to be 2", False), ("rope has been wound", False)],
)  # fmt: skip
def test_how_a_description_begins(said, is_doing):
    assert _begins_doing(said) is is_doing
