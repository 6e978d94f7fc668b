"""What a question leaves open at its end, and what only asks for a description."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, answer_quoted
from wide_margin.core.answers.candidates import fitness, fitness_of, only_points
from wide_margin.core.answers.evidence import SAYS_WHAT
from wide_margin.core.answers.measures import measure_asked
from wide_margin.core.answers.question import read_question, topic_of
from wide_margin.core.answers.signs import (
    DATE,
    NAME,
    NUMBER,
    asked_parts,
    asked_relation,
    asks_of_all,
    counts_all,
    counts_it,
    has_date,
    has_number,
    has_relation,
    says_whether,
    sign_of,
)
from wide_margin.core.answers.wanted import WANTED, counts_them, has_form, wanted_in
from wide_margin.core.passages import Sentence


@pytest.mark.parametrize(
    ("question", "relation"),
    [
        ("What language is the program written in?", ("program", "written", "in")),
        ("Which metal are the lids made of?", ("lids", "made", "of")),
        ("After whom is the well named?", ("well", "named", "after")),
        ("In which language was the program written?", ("program", "written", "in")),
        ("What is the estimate based on?", ("estimate", "based", "on")),
        ("What is it used for?", ("it", "used", "for")),
        ("What language is spoken here?", None),
        ("How is it written in C?", None),
        ("Is it written in C?", None),
    ],
)
def test_what_a_question_leaves_open_is_read(question, relation):
    assert asked_relation(question) == relation


@pytest.mark.parametrize(
    ("sentence", "holds"),
    [
        ("The program is written in C.", True),
        ("It is written entirely in C.", True),
        ("The lists are written in a book.", False),
        ("The program was written by two people.", False),
        ("New programs can be loaded.", False),
    ],
)
def test_a_sentence_goes_on_where_the_question_ends(sentence, holds):
    relation = asked_relation("What language is the program written in?")
    assert has_relation(sentence, relation) is holds


def test_the_sentence_that_goes_on_is_quoted(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[
        ("h1", "1 The pump"),
        ("text", "A new language can be added to the pump by a module, and languages differ."),
        ("text", "The pump is written in assembler, which was a good choice when it was begun."),
        ("text", "Which language is chosen is kept in a file of the pump beside its settings."),
    ]])  # fmt: skip
    given = answer_quoted(
        read_document(tmp_path / "a.pdf"), "What language is the pump written in?"
    )
    assert "assembler" in given.quotes[0].text


@pytest.mark.parametrize(
    ("question", "topic"),
    [
        ("How does the annealing work?", "How does the annealing"),
        ("How does the pump actually work in winter?", "How does the pump in winter"),
        ("How do the valves operate?", "How do the valves"),
        ("How does the work begin?", "How does the work begin?"),
        ("How does work on the dam go on?", "How does work on the dam go on?"),
        ("How do I plot a function?", "How do I plot a function?"),
        ("How do I make it work?", "How do I make it work?"),
        ("How does it plot the function?", "How does it plot the function?"),
    ],
)
def test_a_verb_that_only_asks_for_a_description_is_no_topic(question, topic):
    found = topic_of(read_question(question)).replace("?", "").split()
    assert found == topic.replace("?", "").split()


@pytest.mark.parametrize(
    ("text", "is_statement"),
    [("[t, y] = pump3 (. . .) state = pump3 (. . .) pump3 (. . .)", False),
     ("The pump lifts water (...) and nothing else, whatever the keeper says.", True)],
)  # fmt: skip
def test_a_call_without_its_arguments_is_no_statement(text, is_statement):
    said = Sentence(text=text, page=0, start=0, end=len(text), paragraph=0, section=-1, kind="body")
    assert (fitness(said) == 1.0) == is_statement


def test_a_pointer_is_no_answer(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 The balance of the pump"), ("text", "See help for pump3.")],
        [("h1", "2 Other matters"),
         ("text", "The balance of the pump keeps its arm level while the bucket is empty.")],
    ])  # fmt: skip
    given = answer_quoted(read_document(tmp_path / "a.pdf"), "What is the balance of the pump?")
    assert not any("See help" in quote.text for quote in given.quotes)
    assert only_points("See help for pump3.")
    assert not only_points("See to it that the rope is dry before it is wound up.")


@pytest.mark.parametrize(
    ("sentence", "topic"),
    [
        ("Wellkeeph is the core of the program.", ("wellkeep",)),
        ("For small wells the minimum rope is a short one.", ("rope",)),
        ("The chief term with respect to the long life of the rope is the last.", ("rope",)),
        ("The rope is a good example of a bad purchase.", ("rope",)),
        ("The rope is also an instance of what wears out.", ("rope",)),
    ],
)
def test_a_sentence_on_another_thing_defines_nothing(sentence, topic):
    assert sign_of("what is", sentence, topic) < SAYS_WHAT


@pytest.mark.parametrize(
    ("sentence", "topic"),
    [
        ("Wellkeep is a program.", ("wellkeep",)), ("Ropes are long and thin.", ("rope",)),
        ("In such a shed a rope is a line that is made of hemp.", ("rope",)),
        ("The multi-state well model is a way to describe it.", ("multi-state", "model")),
    ],
)  # fmt: skip
def test_a_sentence_on_the_thing_itself_defines_it(sentence, topic):
    assert sign_of("what is", sentence, topic) >= SAYS_WHAT


@pytest.mark.parametrize(
    ("question", "sentence", "is_measured"),
    [
        ("How long does it take to wind?", "It takes 16 wall clock minutes on an old mill.", True),
        ("How long does it take to wind?", "It has 1,223 lids and 59 boards in one yard.", False),
        ("How long does it take to wind?", "The first goes on pile 4, the second on pile 3.", False),
        ("How long must the notice stay?", "It stays there for at least two years.", True),
        ("How long may a name be?", "A name has at most 25 characters.", True),
        ("How long may a name be?", "One of the names in section 3 is given up.", False),
        ("How far is the mill?", "The mill lies some 12 km from here.", True),
        ("How heavy is the lid?", "The lid is 40 cm wide.", False),
        ("How heavy is the lid?", "A lid of oak weighs 12 kg.", True),
        ("How hot may it get?", "It must stay below 60 °C at all times.", True),
        ("How fast is it?", "It rings twelve times as fast as the old one, 3 bells per second.", True),
        ("How precise is the gauge?", "The precision of the gauge is at least as good as the staff's.", True),
        ("How old is the tower?", "The tower has 4 floors.", False),
        ("What percentage of wells is dry?", "A quarter of all wells is dry.", True),
        ("What percentage of wells is dry?", "There are 12 wells, and some are dry.", False),
        ("Which Python version is needed?", "It runs with Python 3.5 or later.", True),
        ("Which version of the recorder is needed?", "A recorder is needed in each hut.", False),
        ("At what temperature does it freeze?", "It freezes at 4 °C at the latest.", True),
        ("How far is the list set in?", "Lists are set in by two spaces.", True),
        ("How far is the list set in?", "The two lists are set in at once.", False),
        ("Which Bucket versions will do?", "It takes Bucket 98, 2000 or XP.", True),
        ("Which versions of Bucket will do?", "It takes Bucket 98, 2000 or XP.", True),
        ("Which Bucket versions will do?", "A bucket of 98 pounds is too heavy.", False),
    ],
)  # fmt: skip
def test_a_measure_has_the_unit_that_is_asked_for(question, sentence, is_measured):
    measure = measure_asked(question)
    assert bool(measure.search(sentence)) is is_measured
    assert has_form(read_question(question), [sentence]) is is_measured


@pytest.mark.parametrize(
    "question",
    ["How do I wind it?", "What is long?", "How many are there?", "How deep may they be nested?"],
)
def test_no_measure_is_asked_for(question):
    assert measure_asked(question) is None


def test_the_sentence_with_the_measure_is_quoted(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[
        ("h1", "1 The pump"),
        ("text", "Winding the pump of the mill is done by 4 people who take turns at the pump."),
        ("text", "Whoever takes the handle of the pump needs 25 minutes for winding."),
        ("text", "The pump of the mill has 12 lids, and winding takes place in the yard."),
    ]])  # fmt: skip
    given = answer_quoted(read_document(tmp_path / "a.pdf"), "How long does winding the pump take?")
    assert "25 minutes" in given.quotes[0].text


@pytest.mark.parametrize(
    ("said", "is_told"),
    [("The bells were paid for by a grant of the valley.", True), ("Karl Aas mended the bells.", False)],
)  # fmt: skip
def test_who_paid_is_told_by_what_speaks_of_paying(said, is_told):
    assert has_form(read_question("Who paid for the bells?"), [said]) is is_told


@pytest.mark.parametrize(
    ("question", "parts"),
    [
        ("Which operating systems does it run on?", ("operating", "systems")),
        ("Which numerical method is it built on?", ()),
        ("What two kinds are there?", ()),
        ("Which lid is broken?", ()),
    ],
)
def test_a_thing_of_two_words_is_asked_for_with_both(question, parts):
    assert asked_parts(question) == parts


def test_one_word_of_a_thing_is_not_the_thing():
    question = read_question("Which operating systems does it run on?")
    for said, is_there in (
        ("The system of ropes is new.", 0.0),
        ("The operating system is old.", 1.0),
    ):
        told = dict(zip(WANTED, wanted_in(question, [said], is_defined=None), strict=True))
        assert told["thing"] == is_there


def test_a_version_needs_no_word_for_it():
    question = read_question("Which Python versions are supported?")
    told = wanted_in(question, ["It runs with Python 3.5 or later."], is_defined=None)
    assert dict(zip(WANTED, told, strict=True))["thing"] == 1.0


def test_the_number_of_a_heading_counts_nothing():
    assert counts_it("There are 6 documents in it.", "documents")
    assert not counts_it("6. COLLECTIONS OF DOCUMENTS", "documents")


def test_when_something_is_called_so_asks_what_it_is():
    assert read_question("When is a copy called opaque?").kind == "what is"
    assert read_question("When is the mill called?").kind == "when"
    assert read_question("When was the first of the bells rung?").kind == "when"


def test_dimensions_of_a_picture_are_no_number():
    question = read_question("How many lids are shown?")
    assert has_form(question, ["In 3D mode the lids are shown in 2-D."]) is False
    assert has_form(question, ["It shows 3 lids."]) is True


def test_the_number_of_an_item_counts_nothing():
    question = read_question("How large may a rope be?")
    assert has_form(question, ["1. The name of the rope.\n2. The rope as it hangs."]) is False
    assert has_form(question, ["1. A rope may be 30 feet."]) is True


@pytest.mark.parametrize(
    ("sentence", "is_defined"),
    [
        ("By default, the colour of each point on a staff is the colour of its keeper.", False),
        ("A chief advantage of staffs is the ease with which they are read.", False),
        ("The concept of a staff is the basis of all that is read.", False),
        ("The notion of staff is defined as the board that is read.", True),
        ("A staff acts like a ruler for the keeper.", True),
        ("A staff is used as a ruler by the keeper.", True),
        ("A staff is painted by the keeper in spring.", False),
        ("In the yard, a staff is the board that is read.", True),
    ],
)
def test_what_stands_under_another_word_is_not_what_is_defined(sentence, is_defined):
    assert (sign_of("what is", sentence, ("staff",)) >= SAYS_WHAT) is is_defined


@pytest.mark.parametrize(
    ("question", "sentence", "is_all"),
    [
        (
            "How many wells are there?",
            "The parish now has forty-eight wells on nine islands.",
            True,
        ),
        ("How many wells are there in all?", "The list names all 48 wells.", True),
        ("How many wells does the parish have?", "It consists of eleven wells.", True),
        ("How many wells are there?", "There are nine deep wells.", False),
        ("How many wells are there?", "Four wells became dry in May.", False),
        ("How many wells became dry?", "The parish has forty-eight wells.", False),
        ("How many wells are there?", "There are nine boards.", False),
    ],
)
def test_how_many_there_are_is_told_of_all(question, sentence, is_all):
    assert (asks_of_all(question) and counts_all(sentence, "wells")) is is_all


def test_the_number_of_all_is_quoted_before_that_of_some(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[
        ("h1", "1 Wells"),
        ("text", "Since the spring four wells became dry, and two wells were given up for good."),
        ("h1", "2 Deep ones"), ("text", "There are nine deep wells, each with a lid of zinc."),
        ("h1", "3 Parish"), ("text", "The parish has forty-eight wells on its nine islands now."),
    ]])  # fmt: skip
    given = answer_quoted(read_document(tmp_path / "a.pdf"), "How many wells are there?")
    assert "forty-eight wells" in given.quotes[0].text


@pytest.mark.parametrize(("said", "is_number"), [
    ("It is the same as the depth and is told in table 10.2.", False),
    ("9.1 The lid of the well", False),
    ("It is told in table 10.2 that the lid weighs 40 pounds.", True),
])  # fmt: skip
def test_the_number_of_a_part_counts_nothing(said, is_number):
    assert bool(sign_of("how many", said, ())) is is_number


@pytest.mark.parametrize(
    ("said", "is_counted"),
    [("It can hold up to 6 different rope types.", False), ("It can hold up to 6 ropes.", True),
     ("It holds six wet ropes at once.", True)],
)  # fmt: skip
def test_the_sorts_of_a_thing_are_not_counted_as_the_thing(said, is_counted):
    assert counts_it(said, "ropes") is is_counted
    assert counts_them("How many ropes can it hold?", [said]) is is_counted


@pytest.mark.parametrize(
    ("said", "is_counted"),
    [("The ropes of Miller (2004) are longer.", False), ("Ropes (see Miller, 2004b) break.", False),
     ("Ropes are told of in section 4.", False), ("There are ropes (12 of them).", True),
     ("The keeper has 12 ropes (Miller, 2004).", True)],
)  # fmt: skip
def test_years_of_works_and_numbers_of_parts_count_nothing(said, is_counted):
    assert counts_them("How many ropes are there?", [said]) is is_counted


def test_sorts_of_a_thing_are_counted_with_the_thing():
    question = "How many kinds of ropes are there?"
    assert counts_them(question, ["There are five sorts of ropes."])
    assert counts_them(question, ["There are five sorts of lids."]) is False


@pytest.mark.parametrize(
    ("question", "said", "is_told"),
    [("When may I leave the lid off?", "The lid is needed unless it rains.", True),
     ("When are wet ropes right?", "Wet ropes are right for cases of great heat.", True),
     ("When are wet ropes right?", "Wet ropes weigh 4 pounds.", False),
     ("When was the lid made?", "It was made if the keeper asked for it.", False)],
)  # fmt: skip
def test_when_something_is_right_is_told_by_a_condition(question, said, is_told):
    assert has_form(read_question(question), [said]) is is_told


@pytest.mark.parametrize(
    ("question", "topic"),
    [("What kind of rope is it?", "What rope is it?"), ("Which sorts of lids are there?", "Which sorts of lids are there?"),
     ("What is the winch also known as?", "the winch"), ("What is training good for?", "training"),
     ("What is a kind of rope?", "a kind of rope")],
)  # fmt: skip
def test_words_that_only_ask_for_a_sort_or_a_use_are_no_topic(question, topic):
    found = topic_of(read_question(question)).replace("?", "").split()
    assert found == topic.replace("?", "").split()


def test_the_number_of_a_thing_may_follow_it():
    assert counts_it("The number of ropes that hang there varies from two to ten.", "ropes")
    assert not counts_it("The number of ropes is not known.", "ropes")


@pytest.mark.parametrize(
    ("question", "said", "tells"),
    [
        ("Can I store salt in the well?", "Salt cannot be kept in a well.", True),
        ("Is it all right to draw water at night?", "Drawing water at night is discouraged.", True),
        ("May the lid be of zinc?", "No. It is made of oak.", True),
        ("Can I store salt in the well?", "Salt is a mineral.", False),
        ("Do I have to close the lid?", "The lid closes automatically.", True),
        ("Should the rope be wet?", "Ropes are of hemp.", False),
        ("Must the rope be wet?", "A rope must be dry before it is wound.", True),
    ],
)
def test_what_can_or_must_be_is_told_by_what_says_whether(question, said, tells):
    pattern = says_whether(question)
    assert pattern is not None
    assert bool(pattern.search(said)) is tells


@pytest.mark.parametrize(
    "question", ["Is the rope wet?", "Did the keeper come?", "How can I do it?"]
)
def test_what_is_so_is_not_asked_whether_it_can_be(question):
    assert says_whether(question) is None


def test_what_may_not_be_goes_before_what_is_like_the_question(tmp_path):
    like = (
        "Salt and water in a well are two things. The salt of the well is in the water, and in"
        " the well the water with salt is clear."
    )
    said = "Salt cannot be kept in a well at any time of the year."
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Salt"), ("text", f"{like} {said}")]])
    document = read_document(tmp_path / "a.pdf")
    answer = answer_quoted(document, "Can I keep salt in a well?", WHOLE)
    assert said in answer.quotes[0].text


_PIECES = st.lists(
    st.sampled_from(
        ["May", "march", "1990", "7", "Within", "the", "next", "week", "3D", "x2", "Eleven", "By", "two",
         "half", "B", "Bale", "rope", "v1.2", ".", "!", ",", "(", "%", "-", "5", "a"]
    ),
    max_size=12,
)  # fmt: skip
_JOINED = st.tuples(_PIECES, st.sampled_from([" ", "", "  "])).map(
    lambda some: some[1].join(some[0])
)


@given(_JOINED)
def test_what_is_told_quickly_is_what_is_found(text):
    assert has_date(text) == bool(DATE.search(text))
    assert has_number(text) == bool(NUMBER.search(text))
    assert (sign_of("who", text, ()) > 0) == bool(NAME.search(text))


@given(st.lists(st.text(), max_size=5))
def test_sentences_are_as_fit_together_as_alone(texts):
    said = [Sentence(text, 0, -1, 0, 0, len(text), "body") for text in texts]
    assert fitness_of(said) == [fitness(each) for each in said]
