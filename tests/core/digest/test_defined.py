"""Asked what something is, the document's own definition goes first."""

from dataclasses import replace

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted, named_reach
from wide_margin.core.answers.signs import defined_term
from wide_margin.core.digest import Digester
from wide_margin.core.digest.named import rows_under
from wide_margin.core.digest.reference import row_in_short
from wide_margin.core.explain import define

PAGES = [
    [("h1", "1 Ropes"),
     ("text", "The strop is greased in April, and a strop that is worn is told to the steward. "
              "Every strop of the tower hangs beside its wheel, and no strop is lent to a farm. "
              "The Bell Ringing Society (BRS) keeps a list of them.")],
    [("h1", "2 Names of the parts"),
     ("text", "A strop is a short rope with an eye at both of its ends. It is made of hemp."),
     ("text", "Two ropes that are spliced end to end are called a long line.")],
    [("h1", "3 Keeping"),
     ("text", "A long line is never left on the floor. The steward counts the ropes in May.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def ropes(tmp_path_factory):
    path = tmp_path_factory.mktemp("ropes") / "ropes.pdf"
    make_pdf(path, PAGES)
    return read_document(path)


@pytest.fixture(scope="module")
def digester(ropes):
    return Digester(ropes)


@pytest.mark.parametrize(
    ("typed", "begins"),
    [
        ("What is a strop?", "A strop is a short rope with an eye"),
        ("What is a long line?", "Two ropes that are spliced end to end"),
        ("What does strop mean?", "A strop is a short rope"),
    ],
)
def test_the_definition_is_what_is_quoted_first(digester, typed, begins):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(begins)
    assert answer.quotes[0].locators[0].page == 1
    assert answer.sure >= 0.6


def test_an_abbreviation_is_answered_by_its_long_form(digester):
    answer = digester.answer("What does BRS stand for?", WHOLE, None)
    assert "Bell Ringing Society (BRS)" in answer.quotes[0].text


def test_what_a_name_stands_for_is_not_what_the_thing_is(tmp_path):
    made = asked_of(
        tmp_path, "QBX is a list of the ropes of a tower. It is kept by the steward in the loft."
    )
    assert made.answer("What is QBX?", WHOLE, None).sure > 0.5
    assert made.answer("What does QBX stand for?", WHOLE, None).sure <= 0.3


def test_what_some_of_a_kind_are_called_does_not_define_the_kind(tmp_path):
    made = asked_of(
        tmp_path,
        "A capstan is called idle if no rope is wound on it. A capstan with a rope on it is never "
        "left alone by the ringers. These capstans are a part of the oldest tower.",
    )
    assert made.answer("What is a capstan?", WHOLE, None).sure <= 0.3
    assert made.answer("What is an idle capstan?", WHOLE, None).quotes[0].text.startswith("A caps")
    told = asked_of(tmp_path, "A drum on an upright axle is called a capstan by all the ringers.")
    assert told.answer("What is a capstan?", WHOLE, None).sure > 0.5


def asked_of(tmp_path, *texts):
    """Asks a document of one section with some paragraphs."""
    make_pdf(tmp_path / "made.pdf", [[("h1", "1 Ropes"), *(("text", text) for text in texts)]])
    return Digester(read_document(tmp_path / "made.pdf"))


@pytest.mark.parametrize("term", ["steward", "capstan", "", "the of", "rope by the wheel in April"])
def test_what_nothing_defines_has_no_definition(ropes, term):
    assert define(ropes, term) is None


def test_other_questions_and_narrow_reaches_are_left_alone(ropes, digester):
    counted = digester.answer("When does the steward count the ropes?", WHOLE, None)
    assert "in May" in counted.quotes[0].text
    narrow = digester.answer("What is a strop?", named_reach(ropes, "section 1"), None)
    assert all(at.page == 0 for quote in narrow.quotes for at in quote.locators)


def test_a_document_without_the_word_still_declines(digester):
    assert digester.answer("What is a capstan?", WHOLE, None).declined


def test_what_is_not_there_is_named_as_it_was_typed(digester):
    answer = digester.answer("What salary does the mayor of Copenhagen receive?", WHOLE, None)
    assert answer.declined
    assert "“Copenhagen”" in answer.reason


def test_what_only_mentions_a_term_is_the_nearest_and_no_answer(digester):
    answer = digester.answer("What is a steward?", WHOLE, None)
    assert answer.declined or answer.is_perhaps


@pytest.mark.parametrize(
    ("typed", "term"),
    [("What is armel?", "armel"), ("What is an annotation?", "annotation"),
     ("What are the rules?", "rules"), ("What is anchor ice?", "anchor ice"),
     ("Was ist derivat?", "derivat"), ("Was ist die Anlage?", "Anlage")],
)  # fmt: skip
def test_an_article_is_a_word_of_its_own(typed, term):
    assert defined_term(typed) == term


COMMANDS = [
    [("h1", "1 Commands"),
     ("text", "Every command is typed at the keyboard of the mill. The tally is printed by most of "
              "the commands, and the keeper reads the tally every evening."),
     ("h1", "2 tally"),
     ("code", "tally FILE"),
     ("text", "This section is new. The number of sacks is counted, sack by sack, and shown. It is "
              "kept until the next morning."),
     ("h1", "3 Grinding by night"),
     ("text", "The wheel turns without a miller while all others sleep, at half its speed.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def commands(tmp_path_factory):
    path = tmp_path_factory.mktemp("commands") / "commands.pdf"
    make_pdf(path, COMMANDS)
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "begins"),
    [
        ("What does the tally command do?", "The number of sacks is counted"),
        ("What does tally do?", "The number of sacks is counted"),
        ("What does the tally command mean?", "The number of sacks is counted"),
        ("What is grinding by night?", "The wheel turns without a miller"),
    ],
)
def test_a_section_of_that_name_says_what_it_is_or_does(commands, typed, begins):
    answer = commands.answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(begins)
    assert not answer.is_perhaps


LABELLED = [
    [("h1", "1 Ways to mill"),
     ("text", "Way A"),
     ("text", "Slow milling. The sacks are tied as soon as the stone has stopped, and they are "
              "carried to the loft by two people in the evening of the same day."),
     ("text", "Way B"),
     ("text", "Quick milling. The sacks are tied while the stone still turns, and they stay where "
              "they are until the cart comes for them in the morning of the next day."),
     ("h1", "2 Lists"), ("text", "A list has the form:"), ("code", "( a , b )"),
     ("text", "A list may hold anything at all."),
     ("h1", "3 Arrays"), ("text", "An array has the form:"), ("code", "[ a , b ]"),
     ("text", "An array holds numbers of one kind.")],
]  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "one", "other"),
    [
        ("What is the difference between way A and way B?", "Slow milling", "Quick milling"),
        ("How do way A and B differ?", "Slow milling", "Quick milling"),
        ("What is the difference between a list and an array?", "A list may hold", "An array hold"),
    ],
)
def test_what_stands_under_two_names_is_compared(tmp_path, typed, one, other):
    path = tmp_path / "ways.pdf"
    make_pdf(path, LABELLED)
    first, second = Digester(read_document(path)).answer(typed, WHOLE, None).quotes[:2]
    assert one in first.text
    assert other in second.text


METHODS = [
    [("h1", "1 Sending"),
     ("text", "Every method of sending was once a method of keeping, and the keeper of the loft "
              "chooses the methods for sending sacks. A sack method is never mixed."),
     ("h1", "2 Ways of keeping"),
     ("text", "Grain is kept in one of two ways. Each of them needs a dry floor."),
     ("h2", "2.1 In sacks"), ("text", "Sacks hang from the beam."),
     ("h2", "2.2 In bins"), ("text", "Bins stand on the floor."),
     ("h1", "3 Costs"), ("text", "Ways of keeping grain differ in what they cost every year.")],
]  # fmt: skip


@pytest.mark.parametrize(
    "typed", ["Which ways of keeping are there?", "What ways of keeping exist?"]
)
def test_a_list_is_what_the_section_of_that_name_begins_with_and_has(tmp_path, typed):
    path = tmp_path / "methods.pdf"
    make_pdf(path, METHODS)
    said = [q.text for q in Digester(read_document(path)).answer(typed, WHOLE, None).quotes]
    assert said[0].startswith("Grain is kept in one of two ways.")
    assert said[1:] == ["2.1 In sacks", "2.2 In bins"]


DESCRIBED = [
    [("h1", "1 millscan - look through sacks for stones"),
     ("h2", "Use"),
     ("text", "The sacks are opened in the order in which they came to the mill, and each of them "
              "is closed again by hand before the next."),
     ("h1", "2 Sums"),
     ("text", "The sum of all_sacks is told whenever sum_sacks was called, and after sum_sacks the "
              "keeper goes home."),
     ("text", "int sum_sacks (int n) [Function]"),
     ("text", "    Add up what is in the first n sacks of the loft, and tell the sum to the keeper "
              "of the mill, who writes it down.")],
]  # fmt: skip


def test_a_heading_may_say_what_its_name_stands_for(tmp_path):
    path = tmp_path / "described.pdf"
    make_pdf(path, DESCRIBED)
    digester = Digester(read_document(path))
    for typed in ("What does millscan do?", "What is millscan?"):
        answer = digester.answer(typed, WHOLE, None)
        assert "look through sacks for stones" in answer.quotes[0].text
        assert not answer.is_perhaps


FUNCTIONS = [
    [("h1", "1 Functions of strings"),
     ("text", "Some have used strsieve for years, and when strsieve is called the mill stands."),
     ("code", "parts = strsieve (sack)"),
     ("said", "Part the sack at every blank and hand back its parts. Nothing is lost by it."),
     ("code", "place = find (sack)"),
     ("said", "Tell where the first stone of a sack lies, counted from its seam."),
     ("text", "One can find the keeper of the mill by asking for the keeper of the mill.")],
]  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What does strsieve do?", "Part the sack at every blank"),
     ("What does the find function do?", "Tell where the first stone")],
)  # fmt: skip
def test_what_a_function_does_is_its_description(tmp_path, typed, said):
    path = tmp_path / "functions.pdf"
    make_pdf(path, FUNCTIONS)
    answer = Digester(read_document(path)).answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text


def test_a_section_says_it_in_another_language_too(tmp_path):
    path = tmp_path / "seile.pdf"
    make_pdf(path, [
        [("h1", "1 Die Seile"),
         ("text", "Jedes Seil der Mühle hängt neben seinem Rad, und der Müller zählt die Seile im "
                  "Mai, wenn das Wasser nicht mehr so hoch steht wie im Winter.")],
        [("h1", "2 Die Winde"),
         ("text", "Mit ihr zieht der Müller die Säcke auf den Boden, ohne dass jemand sie trägt.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("Was ist die Winde?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Mit ihr zieht der Müller die Säcke")


MENTIONS = [
    [("h1", "1 Working"),
     ("text", "To ask for the winch write to the tower on the hill, and report all faults to "
              "the steward of the shed by letter, in good time and with the name of the finder."),
     ("text", "> pull = crank(rope, 3)"),
     ("text", "If this takes too long, half of the turns may be left out for once.")],
    [("h1", "2 Names"), ("text", "Crank utilities"), ("text", "They are kept in the third shed."),
     *(("entry", f"{name} (env.)|Whatever stands in it is {done} before it is hung up. What is "
                 "not is left on the floor of the shed until the steward has looked at it.")
       for name, done in (("greaseline", "greased"), ("dryline", "dried"), ("wetline", "wetted")))],
]  # fmt: skip


@pytest.fixture(scope="module")
def mentions(tmp_path_factory):
    path = tmp_path_factory.mktemp("mentions") / "mentions.pdf"
    make_pdf(path, MENTIONS)
    return Digester(read_document(path))


@pytest.mark.parametrize("typed", ["What is a crank?", "What does the winch do?"])
def test_what_is_only_used_or_mentioned_is_no_sure_answer(mentions, typed):
    answer = mentions.answer(typed, WHOLE, None)
    assert answer.declined or answer.sure <= 0.3


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("The winchlist function can name the drums that are free. It is quick.", True),
        ("Of the two winchlist tells which drums are free. It is quick.", False),
        ("Sacks are sorted anew whenever the list that winchlist had is lost.", False),
        ("In the dark, the winchlist program will show drums that are free.", True),
    ],
)
def test_what_a_thing_does_is_sure_where_it_is_the_one_that_does_something(tmp_path, said, is_told):
    other = "Sacks are kept in the third shed, and nobody counts them before the winter."
    answer = asked_of(tmp_path, f"{other} {said}").answer("What does winchlist do?", WHOLE, None)
    assert (answer.sure > 0.3) == is_told


def test_what_one_of_a_kind_does_goes_before_what_only_mentions_it(tmp_path):
    digester = asked_of(
        tmp_path,
        "The pawl is greased. Oil the pawl and the drum in the spring. "
        "A pawl needs grease. A pawl firmly holds the drum at night.",
    )
    answer = digester.answer("What is a pawl?", WHOLE, None)
    assert answer.quotes[0].text == "A pawl firmly holds the drum at night."
    assert answer.is_perhaps


def test_what_an_environment_does_is_told_by_its_description(mentions):
    answer = mentions.answer("What does the greaseline environment do?", WHOLE, None)
    assert "greased before it is hung up" in answer.quotes[0].text
    assert answer.sure >= 0.6


def test_names_in_code_are_not_the_thing_and_a_command_s_title_may_say_what_it_takes(tmp_path):
    make_pdf(tmp_path / "made.pdf", [
        [("h1", "1 Tables"), ("text", "CAPSTAN_ID: integer of the list. NAME: words of the list."),
         ("text", "A capstan is turned by four of the ringers, and never by the steward.")],
        [("h1", "2 Commands"), ("h2", "\\rope { length }"),
         ("text", "Lets out as much rope as is asked for. It creaks when the drum is cold.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "made.pdf"))
    assert made.answer("What is a capstan?", WHOLE, None).sure <= 0.6
    answer = made.answer("What does the \\rope command do?", WHOLE, None)
    assert "Lets out as much rope" in answer.quotes[0].text


def test_bare_plurals_define_too(tmp_path):
    made = asked_of(
        tmp_path,
        "Capstans are upright drums of oak for the ropes of the tower. Capstans are oiled in May.",
    )
    answer = made.answer("What is a capstan?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Capstans are upright drums")
    assert answer.sure >= 0.6


@pytest.mark.parametrize("said", [
    "Pointers are essentially handles that you can use to walk over the ropes in a tower.",
    "Pointers provide a mechanism by which you can walk over the ropes in a tower.",
])  # fmt: skip
def test_plurals_are_defined_with_an_adverb_and_by_what_they_are_a_means_to(tmp_path, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", "If a tower allows twin ropes, then pointers are the easiest "
                                     "way that you can find any but the first.")],
        [("h1", "2 Lids"), ("text", f"Lids are heavy. {said}")],
        [("h1", "3 Ends"), ("text", "Pointers are described in section 2. Pointers are closed.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is a pointer?", WHOLE, None)
    assert answer.quotes[0].text == said


@pytest.mark.parametrize(("typed", "begins"), [
    ("What does re.wind do?", "re.wind() lets the drum turn back"),
    ("What does from-well.sh do?", "from-well.sh is a shell script that combines both"),
])  # fmt: skip
def test_what_begins_with_a_name_goes_before_a_section_that_only_leads_in(tmp_path, typed, begins):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Towers"), ("text", "On towers and drums."),
         ("h1", "1 re.wind(), let.go(), hold.on()"),
         ("text", "If you know all of these you will soon leave the school of keepers of wells.")],
        [("h1", "2 Drums"), ("text", "We use re.wind() since it is flexible. As a matter of fact, "
                                     "re.wind() is powerful."),
         ("h1", "3 Back"), ("text", "re.wind() lets the drum turn back and holds it at once.")],
        [("h1", "4 Scripts"),
         ("text", "from-well.sh is a shell script that combines both of them by night."),
         ("text", "To run it for a rope, simply type:"), ("code", "from-well.sh rope.seq"),
         ("text", "The script would then run the commands:"), ("code", "let.go rope")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(begins)
    assert answer.sure >= 0.6


def test_a_section_whose_title_is_the_question_answers_it(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("h1", "1 Ropes"), ("text", "If you wind, for instance, 4 ropes on a drum of 4 feet, each "
                                     "rope should always lie in its own groove of the drum.")],
        [("h1", "2 How many ropes shall I wind?"),
         ("text", "More of them wear the drum sooner. Two are enough in most towers.")],
        [("h1", "3 Greasing the drum"),
         ("text", "Warm the grease first. Then put it on with a brush.")],
        [("h1", "4 Care"), ("text", "The drum of the tower is looked at in May, and the grease is "
                                    "bought in the town. Nobody greases the wheel.")],
    ])  # fmt: skip
    made = Digester(read_document(path))
    for typed, page in [("How many ropes should I wind?", 1), ("How do I grease the drum?", 2)]:
        answer = made.answer(typed, WHOLE, None)
        assert answer.quotes[0].locators[0].page == page, typed
        assert answer.sure >= 0.6


def test_a_poor_answer_within_the_section_that_asks_gives_way_to_how_it_begins(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("h1", "1 Ropes"), ("text", "The ropes of the tower are wound in May by the steward.")],
        [("h1", "2 Why are ropes greased?"),
         ("text", "Grease keeps the wet out of the strands, and a dry strand lasts."),
         ("text", "It is bought in the town. The ropes that are greased hang in the shed, and "
                  "greased ropes are looked at there.")],
        [("h1", "3 Who Stole the Ropes?"), ("text", "The judge asked the widow of the miller."),
         ("text", "The miller, he stole those ropes and took them to the mill at night.")],
    ])  # fmt: skip
    made = Digester(read_document(path))
    told = made.answer("Why are the ropes greased?", WHOLE, None)
    assert told.quotes[0].text.startswith("Grease keeps the wet out")
    assert told.sure >= 0.6
    assert "he stole" in made.answer("Who stole the ropes?", WHOLE, None).quotes[0].text


def test_a_short_form_is_spelled_out_by_what_says_so_and_not_by_code(tmp_path):
    made = asked_of(
        tmp_path,
        "The table gives QBX and Post Mean for each rope of the tower, as is usual.",
        "The first column QBX holds the quarterly balance index of each rope in the tower.",
    )
    # The first letter of a third word need not be its own.
    assert made.answer("What does QBI stand for?", WHOLE, None).sure <= 0.3
    answer = made.answer("What does QBX stand for?", WHOLE, None)
    assert "quarterly balance index" in answer.quotes[0].text
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    "said",
    [
        "A strop (in short: ST) describes a short rope with two eyes at its ends.",
        "The strop is meant to be easy to grease for the ringers of the tower.",
        "The name of this part has caused doubt because there is a strop in the mill.",
        "Details of the strop can be found in the list of the steward of the tower.",
    ],
)
def test_what_only_looks_like_a_definition_is_none(tmp_path, said):
    made = asked_of(tmp_path, said, "A rope is hung by its middle.")
    answer = made.answer("What is a strop?", WHOLE, None)
    assert (answer.sure >= 0.6) == ("describes" in said)


def test_an_item_defines_as_a_sentence_does(tmp_path):
    made = asked_of(
        tmp_path, "Three things are on the list:",
        "• a strop is a short rope with two eyes at its ends",
        "• a drum is a round of oak on which the rope is wound",
        "A strop can be renamed at any time.",
    )  # fmt: skip
    answer = made.answer("What is a strop?", WHOLE, None)
    assert "short rope with two eyes" in answer.quotes[0].text


def test_values_given_to_several_names_describe_none(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [[
        ("h1", "1 Settings"), ("text", "The file that is read may be the following one:"),
        ("code", "rope_length 30 drum_turns 4 time_wound 100"),
        ("said", "Then the name of the file is typed in again."),
    ]])  # fmt: skip
    document = read_document(path)
    assert rows_under(document, "rope_length", is_function=True) == range(0)
    assert rows_under(document, "time_wound", is_function=True) == range(0)


def test_both_sides_only_named_in_one_sentence_are_no_sure_difference(tmp_path):
    named = "The steward can count gudgeons, trunnions, and pintles of every wheel in the tower."
    told = "Gudgeons are fixed to the wheel, whereas trunnions are fixed to the frame of the tower."
    typed = "What is the difference between gudgeons and trunnions?"
    assert asked_of(tmp_path, named).answer(typed, WHOLE, None).sure <= 0.5
    answer = asked_of(tmp_path, told).answer(typed, WHOLE, None)
    assert "whereas" in answer.quotes[0].text


@pytest.fixture(scope="module")
def winding(tmp_path_factory):
    path = tmp_path_factory.mktemp("winding") / "winding.pdf"
    make_pdf(path, [
        [("h1", "1 Use"), ("text", "Wind the rope by typing wind -d oak -f a tower, or with"),
         ("code", "wind -f b --loud tower")],
        [("h1", "2 Options"), ("text", "-d Take the drum of this name for the rope."),
         ("text", "-D Take no drum at all for the rope."),
         ("text", "-f a Wind it upwards. This is slow in winter."),
         ("text", "-f b Wind it downwards from the wheel."),
         ("code", "--loud"), ("text", "Rings the bell of the tower at each turn of the drum.")],
        [("h1", "3 Others"), ("text", "_ --slow Wind it as slowly as the drum allows."),
         ("code", "-q, --quiet Ring no bell at all -w, --wet Take wet ropes as well"),
         ("code", "--oil -o oil the drum (in winter) --fold -F fold the rope at the end")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "begins"),
    [
        ("What does -d do?", "-d Take the drum of this name"),
        ("What is -D for?", "-D Take no drum"),
        ("What does the -f a option do?", "-f a Wind it upwards"),
        ("What does the option -f b mean?", "-f b Wind it downwards"),
        ("What is the flag --loud used for?", "--loud"),
    ],
)
def test_an_option_of_a_command_is_told_by_what_begins_with_it(winding, typed, begins):
    answer = winding.answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(begins)
    assert answer.quotes[0].locators[0].page == 1
    assert "-D" not in answer.quotes[0].text or begins.startswith("-D")


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does --slow do?", "_ --slow Wind it as slowly"),  # a sign of a font before it
        ("What does --wet do?", "--wet Take wet ropes"),  # one of several, printed as typed
        ("What does -w do?", "-w, --wet Take wet ropes"),
        ("What does --fold do?", "--fold -F fold the rope"),
    ],
)
def test_options_printed_in_other_ways_are_found_too(winding, typed, said):
    answer = winding.answer(typed, WHOLE, None)
    assert said in " ".join(answer.quotes[0].text.split())
    assert answer.sure >= 0.6


def test_an_option_over_its_description_is_told_by_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"), ("text", "The winch takes some options, and all are put before."),
         ("code", "-b length of the rope"), ("said", "let out so much rope, and no more, at once."),
         ("code", "-q"), ("said", "wind without a word, and lock the drum when all is done."),
         ("text", "winch -q -b 40"), ("text", "That is all there is to say of the winch.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is -q for?", WHOLE, None)
    assert " ".join(answer.quotes[0].text.split()).startswith("-q wind without a word")
    assert answer.sure >= 0.6


def test_an_option_is_found_whose_dashes_are_printed_as_one(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"), ("text", "Take a wet rope with it, and see --wet in the book."),
         ("text", "\u2013wet Take wet ropes as well as dry ones.")],
        [("h1", "2 Others"), ("text", "There is no other one.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What does --wet do?", WHOLE, None)
    assert answer.quotes[0].text == "\u2013wet Take wet ropes as well as dry ones."
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What is the slack of a rope?", None),
     ("What is rope wear detection?", "When enabled, worn ropes are found before they part."),
     ("What does the argument rope.wear.limit do?", "rope.wear.limit ropes that are more worn"),
     ("What does rope.wear.limit do?", "rope.wear.limit ropes that are more worn")],
)  # fmt: skip
def test_what_stands_beside_or_under_a_term_is_told_though_no_gap_shows_it(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", "Rope wear detection (RWD)"),
         ("text", "When enabled, worn ropes are found before they part. This costs an hour"
          " of each day on which it is done with care.")],
        [("h1", "2 Arguments"), ("entry", "drum|the name of the drum the rope is wound on"),
         ("entry", "turns|the number of turns that the rope is given"),
         ("text", "rope.wear.limit ropes that are more worn are left out. They are told of at the"
          " end of the day, if the limit of their wear is known.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    if said is None:
        assert answer.sure < 0.5
    else:
        assert answer.quotes[0].text.startswith(said)
        assert answer.sure >= 0.6


def test_an_option_that_is_not_described_is_not_told_by_another(winding):
    assert winding.answer("What does -x do?", WHOLE, None).sure <= 0.5


def test_titles_that_name_several_and_kinds_before_names_are_found(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("h1", "1 Tower"), ("text", "The steward winds and unwinds. The tower has NDRUM drums.")],
        [("h1", "2 wind/1, unwind/1"), ("text", "Turns the drum of the tower once around.")],
        [("h1", "3 NDRUM"), ("text", "The number of the drums that are turned at once.")],
    ])  # fmt: skip
    made = Digester(read_document(path))
    winds = made.answer("What does unwind/1 do?", WHOLE, None)
    assert winds.quotes[0].text.startswith("Turns the drum")
    counts = made.answer("What does the constant NDRUM mean?", WHOLE, None)
    assert counts.quotes[0].text.startswith("The number of the drums")


def test_a_function_is_what_takes_something_and_a_shell_s_line_is_no_term(tmp_path):
    path = tmp_path / "made.pdf"
    wheel = (
        "The wheel that is there if no other one has been hung up by the ringers of the tower in "
        "the night before the feast."
    )
    hangs = (
        "Hangs up the wheel that is used from then on where none is told, by the ringers and by "
        "the steward of the tower alike."
    )
    make_pdf(path, [[
        ("h1", "1 Parts"), ("text", "standard"), ("said", wheel),
        ("text", "standard(wheel, rope)"), ("said", hangs),
        ("text", "% wheelwork"), ("said", wheel),
    ]])  # fmt: skip
    document = read_document(path)
    answer = Digester(document).answer("What does the standard function do?", WHOLE, None)
    assert "Hangs up the wheel" in answer.quotes[0].text
    assert define(document, "wheelwork") is None


@pytest.mark.parametrize(
    ("typed", "sure", "most"),
    [
        ("Which system of drums is there?", 0.6, 0.3),
        ("Which system of drums is there?", 0.8, 0.8),
        ("Who may run the system of drums?", 0.6, 0.6),
        ("Which ropes are greased?", 0.6, 0.6),
    ],
)
def test_what_a_licence_says_is_no_sure_answer_about_something_else(tmp_path, typed, sure, most):
    path = tmp_path / "made.pdf"
    said = "The system of drums may be run by whoever has been given the wheel with this notice."
    make_pdf(path, [
        [("title", "The Tower"), ("h1", "1 Ropes"), ("text", "Ropes are of hemp and are greased.")],
        [("h1", "2 General Public License"), ("text", said)],
    ])  # fmt: skip
    document = read_document(path)
    answer = replace(answer_quoted(document, typed), sure=sure)
    assert answer.quotes
    assert Digester(document)._of_its_matter(answer).sure == most


def test_a_section_of_its_own_says_it_before_what_only_mentions_it(tmp_path):
    pages = [
        [("h1", "1 Changes"), ("text", "The rope of the watch line means that nobody is on guard."),
         ("text", "Watch line, in the third year: a chapter was added that explains it to all.")],
        [("h1", "2 WL - Watch Line"), ("text", "The WL holds the boats of the mole in a storm."),
         ("text", "It is drawn in at dawn.")],
        [("h1", "3 The log board"), ("text", "The Log Board tells the height of every tide.")],
        [("h1", "4 Signs"), ("text", "A star on the log board means that the tide was missed.")],
    ]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    digester = Digester(read_document(tmp_path / "a.pdf"))
    told = digester.answer("What is the WL?", WHOLE, None)
    assert told.quotes[-1].text.startswith("The WL holds the boats")
    told = digester.answer("What is the log board?", WHOLE, None)
    assert told.quotes[0].text.startswith("The Log Board tells the height")


@pytest.mark.parametrize(
    ("typed", "begins"),
    [
        ("How do I splice a torn rope?", "The strands are laid"),  # one more word in the title
        ("How do I drain the well?", "Drain it with: > pump --all"),  # nothing but a command
    ],
)
def test_a_title_that_begins_with_what_is_to_be_done_tells_how(tmp_path, typed, begins):
    pages = [
        [("h1", "1 Ropes"), ("text", "A torn rope that one may splice is kept apart from others, "
                                     "and how a torn rope is to be spliced is told further on.")],
        [("h1", "2 Splicing a torn rope by hand"),
         ("text", "The strands are laid over each other and bound with twine.")],
        [("h1", "3 Drain the well"), ("text", "Drain it with:"), ("code", "> pump --all")],
        [("h1", "4 Wells"), ("text", "A well that one has to drain is covered first, as all are.")],
    ]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    told = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert " ".join(told.quotes[0].text.split()).startswith(begins)


def test_the_name_of_a_file_does_not_define_what_it_begins_with(tmp_path):
    made = asked_of(tmp_path, "On other systems the file of wellkeep lies in the shed of "
                              "the mill and is called wellkeep.ini by all who wind.")  # fmt: skip
    assert made.answer("What is wellkeep?", WHOLE, None).sure <= 0.5


def test_what_a_thing_calls_another_does_not_define_it(tmp_path):
    calls = "Wellkeep refers to the deepest of all wells as a shaft."
    defines = "Wellkeep refers to the keeping of all wells of a parish."
    for said, is_one in ((calls, False), (defines, True)):
        make_pdf(tmp_path / "a.pdf", [[("h1", "1 Ropes"), ("text", said)]])
        found = define(read_document(tmp_path / "a.pdf"), "wellkeep")
        assert (found is not None) == is_one


def test_a_mode_is_told_by_the_section_of_its_name(tmp_path):
    pages = [
        [("h1", "1 Winding"), ("text", "Quiet mode and loud mode are ways to wind a rope.")],
        [("h1", "2 Loud"), ("text", "The bell rings at each turn of the drum until noon.")],
    ]
    make_pdf(tmp_path / "a.pdf", pages)
    told = Digester(read_document(tmp_path / "a.pdf")).answer("What is loud mode?", WHOLE, None)
    assert told.quotes[0].text.startswith("The bell rings")


def test_the_mark_of_a_footnote_is_no_part_of_a_term(tmp_path):
    pages = [[("h1", "1 Jibs"), ("text", "JIBE* is a sail for boats that go out in a storm."),
              ("text", "The A* is a search that takes the shortest way first.")]]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    found = define(document, "JIBE")
    assert found is not None
    assert document.text.sentences[found.sentence].text.startswith("JIBE* is a sail")


def test_what_an_argument_is_tells_not_what_the_thing_is(tmp_path):
    made = asked_of(
        tmp_path,
        "SetPulley may be used to give a pulley its first turn. Here, pulley is an "
        "iron pulley, turn is a number and both of them are kept.",
    )
    assert made.answer("What is a pulley?", WHOLE, None).sure <= 0.3


@pytest.mark.parametrize("work", ["[Lindqvist and Ek 1998a]", "(Lindqvist, 1998)", "[3, 4]"])
def test_a_work_that_is_cited_beside_it_is_no_part_of_a_term(tmp_path, work):
    said = f"Jibers {work} is a sail for boats that go out in a storm."
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Sails"), ("text", said)]])
    document = read_document(tmp_path / "a.pdf")
    found = define(document, "Jibers")
    assert found is not None
    assert document.text.sentences[found.sentence].text == said


def test_a_section_does_not_begin_with_the_heading_of_another(tmp_path):
    pages = [[("h1", "1 Wells"), ("text", "The gate is opened at dawn by the keeper.")],
             [("h1", "2 Gates"), ("h2", "2.1 Introduction"),
              ("text", "where the first of all is meant, as told above."),
              ("text", "Gates are opened at dawn and closed at dusk by the keeper.")]]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    told = Digester(read_document(tmp_path / "a.pdf")).answer("What is a gate?", WHOLE, None)
    assert told.quotes[0].text.startswith("Gates are opened at dawn")


def test_what_something_is_of_another_does_not_say_what_it_is(tmp_path):
    made = asked_of(tmp_path, "There is no other tower whose tide table is the one of the mole.")
    assert made.answer("What is a tide table?", WHOLE, None).sure <= 0.5


def test_a_slide_says_in_its_points_what_its_title_is(tmp_path):
    canvas = Canvas(str(tmp_path / "deck.pdf"), pagesize=(720, 540))
    for title in ("Wells", "Deep wells", "Ropes", "Lids", "Locks", "Keys", "Staves", "Hoops"):
        canvas.setFont("Helvetica", 30)
        canvas.drawString(20, 480, title)
        canvas.setFont("Helvetica", 20)
        points = (f"Are made of {title[-4:]} and stone.", "Are kept by one who has learned it.",
                  "Last for a hundred years.", "Cost a crown.")  # fmt: skip
        for row, point in enumerate(points):
            canvas.drawString(60, 400 - row * 40, f"\u2022 {point}")
        canvas.showPage()
    canvas.save()
    answer = Digester(read_document(tmp_path / "deck.pdf")).answer(
        "What is a deep well?", WHOLE, None
    )
    assert [line.lstrip("\u2022 ") for line in answer.quotes[0].text.split("\n")] == [
        "Are made of ells and stone.", "Are kept by one who has learned it.",
        "Last for a hundred years.",
    ]  # fmt: skip


def test_a_subroutine_is_told_by_what_stands_under_its_name(tmp_path):
    make_pdf(
        tmp_path / "a.pdf",
        [[("h1", "1 ropewind (Source File: ropewind.f90)"), ("bold", "INTERFACE:"),
          ("code", "subroutine ropewind"), ("bold", "DESCRIPTION:"),
          ("text", "Computes the turns of the drum that lay the rope down. It is wet or dry.")],
         [("h1", "2 Ropes"), ("text", "The subroutine of the ropewind is called for each drum.")]],
    )  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does the subroutine ropewind do?", WHOLE, None
    )
    assert answer.quotes[-1].text.startswith("Computes the turns")


def test_the_name_of_a_section_defines_nothing(tmp_path):
    said = "Those who open the file of the section called \u201cRope winding\u201d, see a drum."
    make_pdf(tmp_path / "made.pdf", [[("h1", "1 Ropes"), ("text", said)]])
    assert define(read_document(tmp_path / "made.pdf"), "rope winding") is None


@pytest.mark.parametrize("typed", ["What does the WIND command do?", "What does WIND do?"])
def test_a_list_of_commands_says_what_each_is_for(tmp_path, typed):
    said = "WIND n, s ... A command used to lay a rope on the drum."
    others = "The wind of the north turns the drum. Wind is what a mill is for, and does its work."
    answer = asked_of(tmp_path, others, said, "LIFT n A command used to lift a lid.").answer(
        typed, WHOLE, None
    )
    assert answer.quotes[0].text.startswith("WIND n, s")


def test_a_function_among_several_heads_is_told_by_what_stands_under_them(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"))
    canvas.setFont("Courier", 10)
    for k, name in enumerate(("lift", "drop", "swap")):
        canvas.drawString(72, 700 - 13 * k, f"int rope_{name} (rope_t r, int n)")
        canvas.drawRightString(520, 700 - 13 * k, "[Function]")
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(
        86, 655, "Move the rope by n turns of the drum, upwards or downwards, and wait"
    )
    canvas.drawString(
        86, 642, "until it hangs still. In winter rope_drop waits longer than rope_lift does."
    )
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    assert not rows_under(document, "rope_dip")  # it is only called
    under = [document.text.sentences[row].text for row in rows_under(document, "rope_drop")]
    assert under[0].startswith("Move the rope by n turns")
    answer = Digester(document).answer("What does rope_drop do?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Move the rope by n turns")
    assert answer.sure >= 0.6


def test_a_glossary_says_more_of_a_short_form_than_what_it_stands_for(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Wells"),
         ("text", "The list comes from the Bell Ringing Society (BRS) in May and in June.")],
        [("h1", "2 Terms and abbreviations"),
         ("text", "BRS: Bell Ringing Society, a club of stewards who ring the bells at dawn.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is the BRS?", WHOLE, None)
    assert "a club of stewards" in answer.quotes[0].text


def test_an_item_that_points_elsewhere_does_not_define_its_term(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Geräte"), ("item", "• Quorbel. Siehe Abschnitt 3.2."),
         ("item", "• Hammer. Siehe Abschnitt 3.4.")],
        [("h1", "2 Arbeit"),
         ("text", "Jeder Wärter lässt Quorbel und Hammer am Mittag in dem alten Turm liegen."),
         ("text", "Ohne Quorbel geht im Winter niemand zu dem Brunnen des oberen Dorfes.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Was ist Quorbel?", WHOLE, None)
    assert answer.sure < 0.6


WAYS = {
    "Rope splicing": "Quick rope splicing way. Two ropes are laid side by side at noon, and both"
    " are turned by the keeper until they hold each other firmly.",
    "Knots": "A knot of any sort is tied at the end of both ropes, and the keeper pulls them until"
    " they hold each other.",
    "Rings": "An iron ring is laid between both ropes at the rim, and the keeper bends it until it"
    " holds them.",
}


@pytest.mark.parametrize(
    ("title", "says"),
    [("1 Rope splicing", "The rope splicing procedure"), ("1 Ropes", "Two ropes are laid")],
)
def test_an_entry_that_only_repeats_its_term_does_not_define_it(tmp_path, title, says):
    ways = [block for term, told in WAYS.items() for block in (("text", term), ("said", told))]
    make_pdf(tmp_path / "a.pdf", [
        [("h1", title), ("text", "The rope splicing procedure is a slow, careful way in which two"
                                 " ropes become one so that neither is thicker there.")],
        [("h1", "2 Ways"), ("text", "The keeper has these ways, of which one is chosen."), *ways],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What is rope splicing?", WHOLE, None
    )
    assert says in answer.quotes[0].text


def test_what_begins_with_a_thing_and_has_it_do_something_says_what_it_does(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Start"), ("text", "Now wind the rope as before, then use the wind command."),
         ("code", "Tower > wind 40"), ("text", "In the table the depth is told for each of them.")],
        [("h1", "2 Ropes"),
         ("text", "The wind command writes, among others, the length of the rope and its age.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does the wind command do?", WHOLE, None
    )
    assert answer.quotes[0].text.startswith("The wind command writes")


def test_a_name_in_quotation_marks_is_given_to_what_was_spoken_of(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[
        ("h1", "1 Water"), ("text", "The water rises from 2 m to 9 m in the first days of spring."
         " This is the “soak-in” phase and nothing is counted in it. It ends with the last frost."),
    ]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is soak-in?", WHOLE, None)
    assert answer.quotes[0].text.startswith("The water rises from 2 m")
    assert answer.sure > 0.6


def test_what_a_name_stands_for_may_stand_on_a_line_of_its_own(tmp_path):
    more = "The wells stand for the keepers in the yard, and what the wells stand for is known."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Names"), ("text", "The acronym wells can be expanded to"),
         ("text", "Water Entry List of Lesser Streams.")],
        [("h1", "2 Use"), ("text", more), ("text", "The wells are cleaned in May by the keepers.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What does wells stand for?", WHOLE, None)
    assert "Water Entry List of Lesser Streams" in answer.quotes[0].text


def test_what_a_name_stands_for_goes_before_what_the_thing_is(tmp_path):
    filling = [("text", "The keeper goes to the mill and counts what is there in the morning.")] * 3
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Wells"), *filling,
         ("text", "The height of the water is read from a WRS (Water Record Sheet) in May.")],
        [("h1", "2 Mills"), *filling,
         ("text", "A WRS is defined as a wide roll of slats, on which the keepers write it.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What does WRS stand for?", WHOLE, None)
    assert "Water Record Sheet" in answer.quotes[0].text
    assert answer.sure >= 0.6
    assert "defined as" in made.answer("What is a WRS?", WHOLE, None).quotes[0].text


def test_the_first_word_of_a_quoted_name_is_not_what_is_named(tmp_path):
    for name, is_defined in (("Strop 'additions'", False), ("'Strop additions'", True)):
        said = f"All further ropes of the tower in the loft are called {name} there."
        make_pdf(tmp_path / "a.pdf", [[("h1", "1 Ropes"), ("text", said)]])
        document = read_document(tmp_path / "a.pdf")
        assert define(document, "Strop") is None
        assert (define(document, "Strop additions") is not None) == is_defined


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What is splicing?", "In rope making, splicing is the joining of two ropes end to end."),
        (
            "What is rtk?",
            "The lists are made by rtk — the Rope Tree Keeper — that reads each rope.",
        ),
    ],
)
def test_a_definition_may_stand_within_a_sentence(tmp_path, typed, said):
    answer = asked_of(tmp_path, f"All ropes are greased. {said}").answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert answer.sure >= 0.6


def test_a_plain_word_between_dashes_is_not_defined(tmp_path):
    made = asked_of(tmp_path, "The ropes hang in the loft — the driest of the rooms — until May.")
    assert made.answer("What is a loft?", WHOLE, None).sure <= 0.3


def test_what_a_thing_is_used_for_is_what_it_does(tmp_path):
    filling = "The keeper goes to the mill in the morning and counts what is there. " * 3
    made = asked_of(
        tmp_path,
        "As one does in the tower, what rtk does is not told by rtk, since rtk can be used to do "
        f"both. {filling}",
        f"rtk is usually introduced to make the lists of ropes shorter. {filling}",
    )
    answer = made.answer("What does rtk do?", WHOLE, None)
    assert "make the lists of ropes shorter" in answer.quotes[0].text


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does contribution mean?",
         "1. The term 'contribution' means any rope, wheel or lid that is given to the tower."),
        ("What does drum mean?",
         "In this list I use the word DRUM to refer to a wheel, and SPOOL to refer to the rope."),
        ("What does spool mean?",
         "In this list I use the word DRUM to refer to a wheel, and SPOOL to refer to the rope."),
    ],
)  # fmt: skip
def test_how_a_word_is_used_is_what_it_means(tmp_path, typed, said):
    filling = [("text", "The keeper goes to the mill and counts what is there in the morning.")] * 3
    kind = "item" if said[0].isdigit() else "text"
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Ropes"), *filling, (kind, said), *filling]])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert answer.sure >= 0.8


def test_what_holds_the_short_form_itself_does_not_spell_it_out(tmp_path):
    made = asked_of(tmp_path, "You can enter SAL mode from XLISP by typing (SAL) in the tower.")
    assert made.answer("What does SAL stand for?", WHOLE, None).sure <= 0.3


def test_the_section_of_a_variable_is_called_after_its_type(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("h2", "1.1 integer :: n_turns"),
         ("text", "Number of turns to be made."),
         ("h2", "1.2 character(len=20) :: restart"),
         ("text", "If it is given the drum begins anew.")],
        [("h1", "2 Lids"), ("text", "n_turns : 4"), ("text", "Lids are closed at night by hand.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    said = made.answer("What does n_turns mean?", WHOLE, None)
    assert [quote.text for quote in said.quotes][-1] == "Number of turns to be made."
    said = made.answer("What does the keyword restart do?", WHOLE, None)
    assert said.quotes[-1].text == "If it is given the drum begins anew."


@pytest.mark.parametrize("said", [
    "The slack is understood to be the length of rope that hangs down.",
    "The slack is taken to mean the length of rope that hangs down.",
])  # fmt: skip
def test_what_a_word_is_understood_to_be_is_what_it_is(tmp_path, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", "If the slack is large the rope is slow.")],
        [("h1", "2 Lids"), ("text", said)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is the slack?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


def test_plurals_are_defined_by_what_they_are_made_of(tmp_path):
    said = "Rope covariates are numbers computed directly from the wear of many ropes."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", "We use rope covariates in each table.")],
        [("h1", "2 Lids"), ("text", said)],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What is a rope covariate?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


def test_two_things_that_are_named_in_order_are_both_defined(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Closing"),
         ("text", "A barrel is closed in two ways, from above and from the side."
          " These are called overlids and sidebungs, respectively.")],
        [("h1", "2 Oak"), ("text", "Of oak are overlids and sidebungs.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What are sidebungs?", WHOLE, None)
    assert answer.quotes[0].text.startswith("A barrel is closed in two ways")
    assert answer.sure >= 0.6


def test_what_a_function_does_may_stand_after_what_it_takes(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Exports"), ("text", "lower_rope(Drum) -> ok Types: Drum = any() A name of one."),
         ("text", "Lowers the rope of a drum that is told of by name. It is slow in winter."),
         ("text", "lift_rope(Drum) -> ok | {error, Why} Types: Drum = any() A name of one."),
         ("text", "Drum = any() A drum as it is told of by lower_rope and by others."),
         ("text", "Lifts ropes to be used for wells. It is slow in winter, too.")],
        [("h1", "2 Uses"), ("text", "The keeper calls lift_rope and lower_rope every day.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does lift_rope do?", WHOLE, None
    )
    assert answer.quotes[0].text == "Lifts ropes to be used for wells."
    assert answer.sure >= 0.6


def test_what_only_leads_in_to_something_is_no_sure_answer(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 wind-up"), ("text", "To make ropes of the hemp that is dry already:"),
         ("code", "wind-up -d hemp"), ("text", "To make them anew:"), ("code", "wind-up -n")],
        [("h1", "2 Lids"), ("text", "A script called wind-up makes the ropes of the wells.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is wind-up?", WHOLE, None)
    assert not answer.quotes[0].text.endswith(":") or answer.sure <= 0.3


def test_how_a_command_is_called_does_not_say_what_something_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Rope winding"), ("text", "Rope winding: wind (--up | --down) rope (--drum |"
                                            " --wheel | --hand) file [options]")],
        [("h1", "2 Lids"), ("text", "Rope winding is done by hand in winter.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What is rope winding?", WHOLE, None)
    assert "--drum" not in answer.quotes[0].text or answer.sure <= 0.3


def test_the_title_of_a_work_does_not_define_what_it_is_on(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Lids"), ("text", "The keeper uses Quorble in winter and in spring.")],
        [("h1", "2 More"), ("text", "A. Bale and C. Dow (2008) Quorble: ways to lift the rope of a"
                                    " deep well. Well Research, 18: 821-829.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is Quorble?", WHOLE, None)
    assert answer.sure <= 0.3


def test_the_line_of_an_option_may_be_drawn_between_two_words(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"), ("text", "\u2212wet rope Take wet ropes as well as dry ones.")],
        [("h1", "2 Others"), ("text", "There is no other one.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What does the -wet_rope option do?", WHOLE, None)
    assert answer.quotes[0].text == "\u2212wet rope Take wet ropes as well as dry ones."


def test_titles_of_works_answer_only_what_asks_for_works(tmp_path):
    works = [("item", f"[{k}] Bale, A. Copper ropes used in old wells ({1990 + k}). Well Press.")
             for k in range(1, 9)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Lids"), ("text", "A lid is closed at night. The ropes are kept in the dry.")],
        [("h1", "References"), *works],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Which copper ropes are used?", WHOLE, None)
    assert all(quote.locators[0].page == 0 for quote in answer.quotes)
    asked = made.answer("Which papers are on copper ropes?", WHOLE, None)
    assert asked.declined or any(quote.locators[0].page == 1 for quote in asked.quotes)


def test_a_section_that_does_not_name_its_thing_is_less_sure(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Quorbles"), ("text", "This scheme, with the way ropes are kept here, does not"
                                        " allow for drums that are wound by hand.")],
        [("h1", "2 Lids"), ("text", "Lids are closed at night by hand.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is a quorble?", WHOLE, None)
    assert answer.sure < 0.5


@pytest.mark.parametrize("said", [
    "Oak is the right choice for those who want a lid that lasts.",
    "Oak is a good option when the winter is long and wet.",
])  # fmt: skip
def test_how_good_a_thing_is_does_not_say_what_it_is(tmp_path, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Lids"), ("text", said)], [("h1", "2 Ropes"), ("text", "Ropes are wound.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is oak?", WHOLE, None)
    assert answer.declined or answer.sure <= 0.3


def test_the_first_of_a_list_of_options_is_no_head_of_the_others(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"), ("entry", "-addrope|- Add a rope to the drum"),
         ("entry", "-b++|- Take barrels as well"), ("entry", "-co oak|- Take oak for it")],
        [("h1", "2 Others"), ("text", "There is no other one.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What does the -b++ option do?", WHOLE, None)
    assert answer.quotes[0].text.startswith("-b++")
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("typed", "said"),
    [("How do I connect a rope to a drum?", "CONNECT — make a connection of a rope to a drum."),
     ("How can I drop a lid?", "drop_lid — Drop the lid of a well."),
     ("How do I oil a drum?", None), ("How do I do it?", None)],
)  # fmt: skip
def test_how_something_is_done_is_told_by_the_line_of_a_reference(tmp_path, typed, said):
    more = ("text", "A rope is held by hand when the drum is oiled, and lids are open then.")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Reference"), ("text", "CONNECT — make a connection of a rope to a drum."), more],
        [("h1", "2 Lids"), ("text", "drop_lid — Drop the lid of a well."), more],
        [("h1", "3 Uses"), more, ("text", "The keeper connects ropes every day, drum by drum.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    row = row_in_short(document, typed)
    assert (row is None) == (said is None)
    if said is not None:
        answer = Digester(document).answer(typed, WHOLE, None)
        assert said in answer.quotes[0].text
        assert answer.sure >= 0.6


REFERENCE = [
    [("h1", "1 Scripts"),
     ("text", "A short script called quorble draws the rope from the drum. It is run at night."),
     ("text", "The keeper of quorble oils it in May, and whoever runs quorble notes the hour.")],
    [("h1", "2 Functions"),
     ("text", "2.1.1 windrope(n, {turns}). Winds the rope up, turn by turn. If there is no drum, "
              "it returns the number of turns left over."),
     ("text", "2.1.2 lowerlid(x). Lowers the lid of the well x by hand."),
     ("text", "? windrope(2) Nobody calls windrope without a drum of oak in the shed.")],
]  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "begins"),
    [("What does quorble do?", "A short script called quorble draws"),
     ("What does windrope do?", "Winds the rope up"),
     ("What does the function lowerlid do?", "Lowers the lid"),
     ("What does windrope return?", "Winds the rope up, turn by turn. If there is no")],
)  # fmt: skip
def test_what_a_script_or_function_does_is_told_where_it_gets_its_name(tmp_path, typed, begins):
    make_pdf(tmp_path / "a.pdf", REFERENCE)
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert begins in answer.quotes[-1].text
    assert answer.sure >= 0.6


def test_an_option_is_described_under_its_other_form(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"), ("entry", "-c, --chrope=name|Change the rope to that name."),
         ("entry", "-d|Keep the lid closed all night.")],
        [("h1", "2 Others"), ("text", "There is no other one.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What does the --chrope option do?", WHOLE, None)
    assert answer.quotes[0].text.startswith("-c, --chrope")
    assert answer.sure >= 0.8


@pytest.mark.parametrize("typed", ["What is windup?", "What does windup do?"])
def test_a_section_on_calling_a_command_says_what_it_is(tmp_path, typed):
    said = "Tool to make and draw the ropes of hemp for wells."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Ropes of Hallan"), ("h1", "1 Examples"),
         ("text", "windup Examples"), ("text", "The ropes are drawn by windup and by hand.")],
        [("h1", "2 Invoking windup"), ("text", f"{said} It is used at night.")],
        [("h1", "3 Invoking unwind"), ("text", "Tool to lay the ropes down again by night.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said)


def test_the_sort_of_thing_that_a_name_is_is_no_sure_answer(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"), ("text", "This is the “lid depth” option. It takes a number."),
         ("text", "The gate is opened by night. The rope of hemp is drawn in the morning.")],
        [("h1", "2 Gates"), ("text", "Gates are of oak. The keeper paints them in the spring.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("What is a lid depth?", WHOLE, None).sure <= 0.3


def test_a_sentence_may_say_what_sort_of_thing_it_is_that_does_it(tmp_path):
    said = "Function rmix makes it easy to draw ropes of hemp from mixtures of straw and flax."
    filling = ("text", "Gates are of oak. The keeper paints them in the spring. Lids are of zinc.")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), filling, ("text", said), filling],
        [("h1", "2 Gates"), filling, ("text", "Of rcomp and rmix, what does it do? It draws.")],
        [("h1", "3 Lids"), filling, ("text", "Keepers may do it with rmix, and do it by night.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What does rmix do?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What does the -q option do?", "There is a -q flag that stops the drum at once."),
        ("What does --loud do?", "Use --loud to hear the drum from the house."),
        ("What is -k for?", "The option -k keeps the rope dry."),
        ("What is the switch -z for?", "The -z (or -zinc) flag is required so that lids stay on."),
    ],
)
def test_what_an_option_does_may_be_told_in_the_text(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winding"), ("text", "The winch is wound with -q and -k on a wet day."),
         ("text", "Pass --loud to the drum and -q to the brake.")],
        [("h1", "2 More"), ("text", "There is a -q flag that stops the drum at once."),
         ("text", "Use --loud to hear the drum from the house."),
         ("text", "The option -k keeps the rope dry."),
         ("text", "The -z (or -zinc) flag is required so that lids stay on.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]
    assert answer.sure >= 0.6


def test_what_is_said_of_a_setting_goes_on_to_its_values(tmp_path):
    said = "WELL_LOCK tells what is done at night. If it is 1, the lid is locked by the keeper."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Settings"), ("text", "The keeper may make some settings:"),
         ("item", f"\u2022 {said}")],
        [("h1", "2 Others"), ("text", "There is no other one.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does WELL_LOCK do?", WHOLE, None
    )
    assert answer.quotes[0].text.endswith(said)


def test_a_thing_made_for_this_purpose_brings_the_purpose(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Depths"), ("text", "One would like to know how deep the well is at any hour."
          " The tower has a board known as a quorbel for this purpose."),
         ("text", "A quorbel is looked at from the house.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is a quorbel?", WHOLE, None)
    assert "how deep the well is" in answer.quotes[0].text


@pytest.mark.parametrize(
    ("form", "said", "is_told"),
    [
        ("\\windup{<turns>}", "Winds the rope up, and locks the drum.", True),
        ("\\windup", "The \\windup command winds the rope up.", True),
        ("\\windup{40}", "Then it is time to go home.", False),
    ],
)
def test_a_command_with_a_backslash_is_told_by_what_stands_under_its_form(
    tmp_path, form, said, is_told
):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winding"), ("text", "There are two ways to wind a rope, and both are slow."),
         ("code", form), ("said", said)],
        [("h1", "2 Others"), ("text", "Whoever winds ropes by hand knows \\windup and its use."),
         ("text", "With \\windup behind it the drum is kept dry, and \\windup is all there is.")],
    ])  # fmt: skip
    asked = "What does \\windup do?"
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(asked, WHOLE, None)
    is_said = bool(answer.quotes) and said in answer.quotes[0].text
    assert (is_said and answer.sure >= 0.6) is is_told


def test_a_section_that_has_pictures_alone_is_pointed_to(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winding"), ("text", "A rope is wound by hand, and hung on a nail of oak.")],
        [("h1", "2 How to turn the key of the drum")],
        [("h1", "3 Others"), ("text", "A key of the guild opens the doors of all houses.")],
    ])  # fmt: skip
    asked = "How do I turn the key of the drum?"
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(asked, WHOLE, None)
    assert answer.quotes[0].text == "2 How to turn the key of the drum"
    assert answer.quotes[0].locators[0].page == 1
    assert answer.sure < 0.6


def test_a_name_with_its_sort_before_it_may_be_what_does_it(tmp_path):
    said = "A real-time program WELLNAV inputs raw depths and draws them."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Towers"), ("h1", "1 Depths"), ("text", f"Depths are read by day. {said}")],
        [("h1", "2 Streams"), ("text", "The keeper sees the streams of WELLNAV by day, and by night"
                                       " WELLNAV is seen as it was.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does WELLNAV do?", WHOLE, None
    )
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


@pytest.fixture(scope="module")
def functions(tmp_path_factory):
    path = tmp_path_factory.mktemp("functions") / "a.pdf"
    make_pdf(path, [
        [("title", "Functions of a well"), ("h1", "1 Overview"),
         ("text", "• rope.turns: the count of all turns that a drum makes in the course of a day"),
         ("text", "• rope.length: the length of a rope in metres, wet ones shortened by a tenth")],
        [("h1", "2 Examples"),
         ("text", "Below is an example of running rope.turns with a dry rope in the summer."),
         ("text", "We wrote rope.length with a focus on short ropes, and kept rope.length so.")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize("typed", ["What is rope.turns?", "What is the function rope.turns()?"])
def test_a_name_of_code_is_what_it_is_labelled_with(functions, typed):
    assert "count of all turns" in functions.answer(typed, WHOLE, None).quotes[0].text


def test_two_names_of_code_differ_in_what_they_are_labelled_with(functions):
    typed = "What is the difference between rope.turns and rope.length?"
    told = " ".join(quote.text for quote in functions.answer(typed, WHOLE, None).quotes)
    assert "count of all turns" in told
    assert "length of a rope" in told


@pytest.mark.parametrize(
    ("typed", "title"),
    [("What does the wind command do?", "3 wind—Put the rope on the drum"),
     ("What does wellkeep wind do?", "3 wind—Put the rope on the drum"),
     ("What does wellkeep oil do?", "4 oil—Which lids are dry?")],
)  # fmt: skip
def test_a_command_is_told_by_the_title_of_its_section(tmp_path, typed, title):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Wellkeep Manual"), ("text", "Wellkeep keeps all wells in order.")],
        [("h1", "2 Use"), ("text", "The keeper runs wellkeep wind in May, wellkeep oil in June.")],
        [("h1", "3 wind—Put the rope on the drum"),
         ("text", "Whoever has a rope in the loft can bring it back to the tower with it.")],
        [("h1", "4 oil—Which lids are dry?"),
         ("text", "For each lid in the loft, it prints how dry that is. Oil drums stand there.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text == title
    assert answer.sure >= 0.6


def test_two_functions_declared_over_one_description_are_told_by_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Functions"),
         ("text", "void set_rope (struct drum *d, size_t length, const [Function] uint8_t *key)"),
         ("text", "void set_lid (struct drum *d, size_t length, const [Function] uint8_t *key)"),
         ("text", "Makes the drum ready for a rope or a lid, respectively."),
         ("text", "Whoever has a rope in the loft can bring it back to the tower.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does set_rope do?", WHOLE, None
    )
    assert answer.quotes[0].text.startswith("void set_rope")
    assert "Makes the drum ready" in answer.quotes[0].text


def test_an_option_in_quotation_marks_is_told_by_what_follows(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Options"),
         ("text", "‘--adopt’ Warning! Takes over whatever is in the tower already."),
         ("text", "‘--oil’ Oils the drum that is in the loft.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What does --adopt do?", WHOLE, None
    )
    assert "Takes over" in answer.quotes[0].text
    assert answer.sure == 0.8
