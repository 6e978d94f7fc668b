"""Questions put into the words of the document."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.digest.phrasing import IS_QUESTION, Wording, defines, question_from


@pytest.mark.parametrize(
    ("shape", "sentence", "question"),
    [
        ("why", "The rope is kept dry because wet rope rots.", "Why is the rope kept dry?"),
        ("why", "The lamp must be lit at dusk so that boats find the mole.",
         "Why must the lamp be lit at dusk?"),
        ("why", "The rope is kept merely because nobody asked.", ""),
        ("why", "This is done because it helps.", ""),
        ("why", "The word is ignored and is part of the text so that nothing breaks.", ""),
        ("number", "The ladder has at least twelve rungs of oak.",
         "How many rungs does the ladder have?"),
        ("number", "The crossing takes about 40 minutes in calm water.",
         "How long does the crossing take?"),
        ("number", "A season ticket costs £42 and is not transferable.",
         "How much does a season ticket cost?"),
        ("why", "A trim of the boat is a shift of the load so that both ends are level.", ""),
        ("number", "The water has nine degrees in summer and two in winter.", ""),
        ("number", "The list should have two ends in any case.", ""),
        ("number", "The first step to make a knot is to have two ropes at hand.", ""),
        ("who", "The keeper signs for every bucket of the yard.",
         "Who signs for every bucket of the yard?"),
        ("who", "The user signs for every bucket of the yard.", ""),
        ("who", "The member buckets of the yard are seen as a whole.", ""),
        ("when", "The east mole was built in 1884 by the county.", "When was the east mole built?"),
        ("difference", "The difference between spring tide and neap tide is two metres.",
         "What is the difference between spring tide and neap tide?"),
        ("difference", "The difference between the purchase and selling prices is taxed.", ""),
        ("difference", "The difference between this and that is small.", ""),
    ],
)  # fmt: skip
def test_a_sentence_gives_the_question_that_it_answers(shape, sentence, question):
    assert question_from(sentence, shape) == question


@pytest.fixture(scope="module")
def wording(tmp_path_factory):
    path = tmp_path_factory.mktemp("made") / "tides.pdf"
    text = (
        "The tide gauge stands on the mole. A tide gauge has a float. Tide gauges are read daily. "
        "A gauge plate is made of brass. Gauge plates last long. "
        "The readings of the Skerrow Office go to the office of Skerrow. "
        "Building blocks are stacked here. The building blocks are made of stone. "
        "Brackish water stays in the well, and so brackish water is drawn. "
        "Skerrow Plus is the new gauge of the mole, and at dawn Skerrow Plus is read. "
        "WellKeepB is as the old one. "
        "See “Moving Existing gauges” on this page. "
        "Here Quorble reads /etc/quorble/quorble.ini and <quorble/well.h> or quorble-ng at dawn. "
        "For winding ropes there is a drum. "
        "The main rule of all is a tally, and many a list is one. "
        "Painted signs are set here, and a sign of brass there. "
        "Tide matrices are kept, and every tide matrix has a lid. "
        "Two posts are known as the bollards. "
        "The daily winding plan is on a wall, and a drum hangs there. "
        "Of exceptions nobody speaks. Next to it stands a TTB of oak. "
        "Drum Plan Mole is what a boat shows."
    )
    make_pdf(path, [[("h1", "1 Gauges"), ("text", text)]])
    return Wording(read_document(path))


@pytest.mark.parametrize(
    ("term", "question"),
    [
        ("tide gauges", "What are tide gauges?"),
        ("gauge plate", "What is a gauge plate?"),
        ("skerrow office", "What is the Skerrow Office?"),
        ("brackish water", "What is brackish water?"),
        ("Skerrow Plus", "What is Skerrow Plus?"),
        ("WellKeepB", "What is WellKeepB?"),
        ("quorble", "What is Quorble?"),  # in paths it is written otherwise
        ("winding ropes", ""),
        ("painted signs", "What are painted signs?"),  # one alone stands nowhere
        ("tide matrix", "What is a tide matrix?"),
        ("tide matrices", "What are tide matrices?"),
        ("exceptions", ""),  # as everyday as one exception
        ("Drum Plan Mole", "What is drum plan mole?"),  # only where a sentence begins
        ("water", ""),
        ("anchor chain", ""),
        ("this gauge", ""),
    ],
)
def test_a_term_is_asked_for_with_the_article_it_has(wording, term, question):
    assert wording.what_is(term) == question


def test_several_that_are_called_something_are_asked_for_as_several(wording):
    said = "Two posts are known as the bollards."
    assert wording.what_is("bollards", said) == "What are the bollards?"


def test_one_who_is_somebody_is_asked_for_with_who(wording):
    said = "The Skerrow Office is the head of all offices."
    assert wording.what_is("skerrow office", said) == "Who is the Skerrow Office?"


@pytest.mark.parametrize(
    ("title", "question"),
    [
        ("Reading Tide Gauges", "How do I read tide gauges?"),
        ("Copying files", "How do I copy files?"),
        ("Running a gauge", "How do I run a gauge?"),
        ("Using your gauge", "How do I use my gauge?"),
        ("How to reach the office", "How do I reach the office?"),
        ("Building blocks", ""),
        ("Turning Tide Boards", ""),  # which the text has as TTB
        ("Turning Tide Wheels", "How do I turn tide wheels?"),
        ("Reading the book of tides [Aas09]", ""),
        ("Tide gauges", ""),
        ("Evening", ""),
        ("Reading and writing files", ""),
        ("Reading files, or not", ""),
        ("Messing around", ""),
        ("Mapping of data types", ""),
        ("Beeping at startup", ""),
        ("Building and Installation", ""),
        ("Timing considerations", ""),
        ("Debugging gauge entry creation", ""),
        ("String gauges of brass", ""),
        ("Moving Existing gauges slowly", "How do I move existing gauges slowly?"),
        ("Using winch command", "How do I use the winch command?"),
        ("Prepare Tide Gauges", "How do I prepare tide gauges?"),
        ("Run the gauges", "How do I run the gauges?"),
        ("Run gauges", ""),
        ("DELETE GAUGES", ""),
        ("Install drum", ""),
    ],
)
def test_a_title_gives_the_task_that_it_names(wording, title, question):
    assert wording.how_to(title) == question


def test_a_title_is_written_as_the_text_writes_it(wording):
    assert wording.in_sentence("Gauge Plates of Skerrow") == "gauge plates of Skerrow"
    assert wording.in_sentence("GAUGE PLATES OF SKERROW") == "gauge plates of Skerrow"


@pytest.mark.parametrize(
    ("title", "is_one"),
    [
        ("What’s this about stale data?", True), ("Why is the list ignoring me?", True),
        ("How do I reload the file?", True), ("What is it", False), ("Wells?", False),
        ("Reading files", False), ("Questions and answers", False), ("Why?", False),
    ],
)  # fmt: skip
def test_a_title_can_be_a_question_itself(title, is_one):
    assert bool(IS_QUESTION.match(title)) is is_one


def test_the_article_of_a_definition_is_that_of_the_question(wording):
    said = "The tide gauge is a drum of copper in a well."
    assert wording.what_is("tide gauge", said) == "What is the tide gauge?"


def test_a_name_that_looks_like_several_is_asked_for_as_one(wording):
    said = "Tide Gauges is a suite of routines for harbours."
    assert wording.what_is("tide gauges", said) == "What is tide gauges?"


def test_the_article_before_a_name_may_be_that_of_its_sort(wording):
    said = "The Skerrow Plus package is a gauge in a box."
    assert wording.what_is("skerrow plus", said) == "What is Skerrow Plus?"


def test_a_definition_of_something_tells_its_article_where_it_ends_in_it(wording):
    assert wording.what_is("tally", "The main rule of all is a tally.") == "What is a tally?"


@pytest.mark.parametrize(
    ("sentence", "term", "is_one"),
    [
        ("A well is a hole in the ground.", "well", True),
        ("Wells, then, are holes in the ground.", "well", True),
        ("A hole in the ground is called a well.", "well", True),
        ("The well was covered at night.", "well", False),
        ("Well The place where water is kept.", "well", False),
        ("If it were called well.example.org, nobody would come.", "well", False),
    ],
)
def test_a_definition_says_what_its_term_is(sentence, term, is_one):
    assert defines(sentence, term) is is_one


@pytest.mark.parametrize(
    "title",
    ["Operating Systems", "Operating conditions of drums", "Mailing lists", "Working directory",
     "Winding plan", "Hanging drum without lids", "Using drums / hints", "Running instructions"],
)  # fmt: skip
def test_what_only_begins_like_a_task_is_none(wording, title):
    assert wording.how_to(title) == ""
