"""Questions about a made article, answered from the sections where it says so."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester, DocumentKind
from wide_margin.core.digest.overview import UNTOLD, is_step
from wide_margin.core.explain import find_definitions

PAGES = [
    [
        ("h1", "Counting Rain in Barrels"),
        ("text", "by Marta Lindqvist"),
        ("text", "14 March 2021"),
        ("h2", "Abstract"),
        ("text", "This paper describes how rain is counted in barrels. We show that a barrel of oak"
                 " loses a tenth of its water in a dry week, and we propose a lid of zinc."),
        ("h2", "1 Introduction"),
        ("text", "Rain has been counted in glass since 1850, because no other vessel was at hand."
                 " The aim of this paper is to put barrels in their place. Readers should be"
                 " familiar with the trade of the cooper."),
    ],
    [
        ("h2", "2 Method"),
        ("text", "The height of the water is computed from the weight of the barrel. Our approach"
                 " needs a beam scale and two helpers who do not drink."),
        ("h2", "3 Data"),
        ("text", "The data set has ninety barrels from twelve farms, measured for three summers."),
    ],
    [
        ("h2", "4 Results"),
        ("text", "The results show that zinc lids halve the loss. We found that birch barrels leak"
                 " twice as fast as those of oak."),
        ("h2", "5 Limitations"),
        ("text", "A drawback of the method is that frost bursts the hoops. The scale does not"
                 " handle barrels of more than two hundred litres."),
    ],
    [
        ("h2", "6 Conclusion"),
        ("text", "In conclusion, a barrel with a zinc lid counts rain as well as glass does."
                 " Future work will include barrels of stone, which are planned for the next"
                 " version of the study."),
    ],
]  # fmt: skip


@pytest.fixture(scope="module")
def rain(tmp_path_factory):
    path = tmp_path_factory.mktemp("rain") / "rain.pdf"
    make_pdf(path, PAGES)
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("question", "said"),
    [
        ("What is this about?", "how rain is counted in barrels"),
        ("tl;dr", "how rain is counted in barrels"),
        ("What is this paper trying to do?", "put barrels in their place"),
        ("Any drawbacks?", "frost bursts the hoops"),
        ("What are the limitations?", "more than two hundred litres"),
        ("What did they find?", "zinc lids halve the loss"),
        ("What are the main findings?", "zinc lids halve the loss"),
        ("What does it conclude?", "counts rain as well as glass"),
        ("What comes next?", "barrels of stone"),
        ("What method do they use?", "weight of the barrel"),
        ("What data do they use?", "ninety barrels"),
        ("Who is this for?", "trade of the cooper"),
        ("Who wrote it?", "Marta Lindqvist"),
        ("When was it written?", "14 March 2021"),
        ("Summarise section 4.", "zinc lids halve the loss"),
        ("the conclusion", "counts rain as well as glass"),
        ("the introduction", "counted in glass since 1850"),
        ("What does the part on data say?", "ninety barrels"),
    ],
)
def test_answers(rain, question, said):
    answer = rain.answer(question, WHOLE, None)
    assert said in " ".join(quote.text for quote in answer.quotes)


@pytest.mark.parametrize(
    "question",
    ["Which licence is it under?", "Which edition is this?", "What's new in this edition?"],
)
def test_what_it_does_not_say_is_declined(rain, question):
    assert rain.answer(question, WHOLE, None).declined


def test_every_quote_leads_to_its_words(rain):
    answer = rain.answer("What is this about?", WHOLE, None)
    for quote in answer.quotes:
        assert quote.locators[0].spans
        assert quote.locators[0].quote


def test_a_declined_question_has_nearest_passages(rain):
    answer = rain.answer("Which licence is it under?", WHOLE, None)
    assert answer.excerpts
    assert answer.n_searched == answer.n_pages == 4


def test_it_is_an_article_and_every_slot_is_filled(rain):
    assert rain.facts.kind is DocumentKind.ARTICLE
    filled = {f.slot.name: f.lines for f in rain.by_kind(DocumentKind.ARTICLE)}
    for name in ("Aim", "Findings", "Limits", "Conclusion", "What comes next"):
        assert filled[name], name


def test_the_facts(rain):
    facts = rain.facts
    assert facts.title.text == "Counting Rain in Barrels"
    assert [fact.text for fact in facts.authors] == ["Marta Lindqvist"]
    assert facts.date.text == "2021-03-14"
    assert facts.licence is None


def test_one_sentence_says_what_it_is(rain):
    answer = rain.answer("Sum it up in one sentence.", WHOLE, None)
    assert len(answer.quotes) == 1
    assert "barrels" in answer.quotes[0].text


@pytest.fixture(scope="module")
def of_lists(tmp_path_factory):
    """Sections of which nothing is a sentence that could stand for them."""
    path = tmp_path_factory.mktemp("lists") / "lists.pdf"
    make_pdf(path, [[
        ("h1", "Barrels"), ("h2", "1 Coopers"),
        ("text", "Marta Lindqvist, Aino Perälä"),
        ("h2", "2 Woods"), ("text", "oak"), ("text", "birch"),
    ]])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("question", "held"),
    [("Summarise section 1", "Marta Lindqvist"), ("What does section 2 say?", "oak"),
     ("What is this about?", "Marta Lindqvist")],
)  # fmt: skip
def test_a_part_without_a_telling_sentence_is_shown_as_it_begins(of_lists, question, held):
    answer = of_lists.answer(question, WHOLE, None)
    assert any(held in quote.text for quote in answer.quotes)


@pytest.fixture
def plain_manual(tmp_path):
    """A manual that opens with a notice, has what is needed in a section, and says not for whom."""
    notice = (
        "Permission is granted to make and distribute verbatim copies of this manual provided the"
        " copyright notice is preserved. Redistributions in binary form must reproduce it."
    )
    work = (
        "The lid of the barrel is lifted with both hands and laid on the grass beside it. The"
        " height of the water is read at the scale and is written into the book at once. The"
        " scale is wiped with a dry cloth after each reading, and so is the rim of the barrel."
    )
    asked = "A ladder of nine rungs and a dry cloth are asked for at every barrel of the village."
    pages = [
        [("h1", "Barrels Of The Village"), ("text", notice)],
        [("h2", "1 Reading"), ("text", work), ("text", work.replace("barrel", "cask"))],
        [("h2", "2 Requirements"), ("text", asked)],
        [("h2", "3 Frost"), *[("text", work.replace("barrel", thing)) for thing in ("tun", "vat")]],
    ] + [
        [("h2", f"{k} Barrel {k}"), ("text", work.replace("grass", place))]
        for k, place in enumerate(("stone", "floor", "wall", "bench", "road"), start=4)
    ]
    make_pdf(tmp_path / "manual.pdf", pages)
    return Digester(read_document(tmp_path / "manual.pdf"))


def test_the_notice_is_not_what_it_is_about(plain_manual):
    said = " ".join(
        quote.text for quote in plain_manual.answer("What is this about?", WHOLE, None).quotes
    )
    assert said
    assert "Permission" not in said
    assert "Redistributions" not in said


def test_how_it_is_installed_is_not_what_comes_after(tmp_path):
    said = "Put the winch on a wall of stone, and tie the rope to the drum."
    other = ("text", "A rope is wet in May, and dry in the summer.")
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The winch"), other],
        [("h1", "1 Installation"), ("h2", "1.1 The wall"), ("text", said)],
        [("h2", "1.2 The rope"), other], [("h2", "1.3 The drum"), other],
        [("h2", "1.4 Once installing is done"), ("text", "Wind the rope once by hand.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("How is it installed?", WHOLE, None).quotes[0].text == said


def test_building_the_package_is_how_it_is_installed_where_nothing_else_is(tmp_path):
    said = "Cut the wood of the winch, and put its parts together with care."
    other = ("text", "A rope is wet in May, and dry in the summer.")
    pages = [[("title", "The winch"), other], [("h1", "1 Building the package"), ("text", said)],
             [("h1", "2 Ropes"), other, ("text", "Lids are installed by hand.")]]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("How is it installed?", WHOLE, None).quotes[0].text == said


def test_what_is_needed_is_found_in_the_section_called_so(plain_manual):
    answer = plain_manual.answer("What do I need to get started?", WHOLE, None)
    assert "ladder of nine rungs" in answer.quotes[0].text


def test_a_question_without_a_word_of_its_own_is_not_searched_for(plain_manual):
    assert plain_manual.answer("Who is it for?", WHOLE, None).declined


def test_a_subtitle_says_what_it_is_where_no_sentence_does(tmp_path):
    path = tmp_path / "under.pdf"
    blank = [("text", "The rope hangs on the third nail, and the bucket stands below it.")]
    front = [("title", "Quorble"), ("h2", "A table of tides for small ports")]
    make_pdf(path, [front, blank, blank])
    answer = Digester(read_document(path)).answer("What is this about?", WHOLE, None)
    assert answer.quotes[0].text == "A table of tides for small ports"
    assert answer.quotes[0].locators[0].page == 0


# --- what sections of their own are about


def guide(tmp_path, *sections):
    path = tmp_path / "guide.pdf"
    first = [("title", "Quorble Guide"), ("h1", "1 Use"), ("text", "Quorble reads the gauges.")]
    pages = [[("h1", title), ("text", text)] for title, text in sections]
    make_pdf(path, [first, *pages, [("h1", "9 Ends"), ("text", "Nobody has read the gauge.")]])
    return Digester(read_document(path))


ITS_OWN = ("2 Compilation, Installation", "Copy the files to the harbour. Then start the clock.")
ANOTHER = ("3 Checking the installation of a foreign gauge", "A foreign gauge is looked at twice.")


def test_how_to_install_it_is_told_as_its_section_begins(tmp_path):
    answer = guide(tmp_path, ANOTHER, ITS_OWN).answer("How do I install it?", WHOLE, None)
    assert [q.text for q in answer.quotes] == [
        "Copy the files to the harbour.", "Then start the clock.",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("question", "title", "text"),
    [
        ("How do I run it?", "2 Running Quorble", "Turn the key twice."),
        ("How do I use Quorble?", "2 Usage", "Turn the key twice."),
        ("How do I use it?", "2 Quick start", "Turn the key twice."),
        ("Where should I begin?", "2 Getting started", "Turn the key twice."),
        ("How do I cite it?", "4 Citing Quorble", "Name the harbour and the year."),
        ("Where do I report bugs?", "5 Reporting bugs", "Write to the harbour master."),
        ("Where do I get help?", "5 Support", "Write to the harbour master."),
        ("Where can I ask for help?", "5 Getting more help", "Write to the harbour master."),
        ("What is planned for the future?", "7 Future work", "Lamps will be lit by the clock."),
        ("What are the system requirements?", "3 Requirements", "A pier and two clocks."),
        ("What are its limitations?", "6 Known bugs", "It stops when it is cold."),
    ],
)
def test_a_section_called_after_what_is_asked_for_answers(tmp_path, question, title, text):
    answer = guide(tmp_path, ANOTHER, (title, text)).answer(question, WHOLE, None)
    assert [q.text for q in answer.quotes] == [text]


@pytest.mark.parametrize(
    ("question", "said"),
    [
        ("Where do I report bugs?", "To the harbour master."),
        ("Where do I get help?", "On the pier."),
    ],
)
def test_help_and_bugs_are_told_apart_where_both_have_a_section(tmp_path, question, said):
    sections = (("3 Getting help", "On the pier."),
                ("4 Reporting and fixing bugs", "To the harbour master."))  # fmt: skip
    answer = guide(tmp_path, ANOTHER, *sections).answer(question, WHOLE, None)
    assert [q.text for q in answer.quotes] == [said]


@pytest.mark.parametrize(
    ("question", "title"),
    [
        ("How do I run it?", "2 Running the foreign clocks"),
        ("Where do I report bugs?", "2 Known bugs"),
        ("How do I cite it?", "2 Citing the harbour clocks"),
        ("Where do I get help?", "2 Support of foreign clocks"),
    ],
)
def test_a_section_on_something_else_does_not(tmp_path, question, title):
    assert guide(tmp_path, (title, "Nobody may.")).answer(question, WHOLE, None).declined


@pytest.mark.parametrize(
    ("question", "said"),
    [
        ("How do I run it?", "To run Quorble, turn the key twice."),
        ("How do I cite it?", "If you use it, please cite the book of the harbour."),
        ("Where do I report bugs?", "Please report bugs to master@harbour.example."),
    ],
)
def test_without_such_a_section_a_sentence_that_says_it_answers_less_surely(
    tmp_path, question, said
):
    answer = guide(tmp_path, ("2 Post", f"The box is old. {said}")).answer(question, WHOLE, None)
    assert [q.text for q in answer.quotes] == [said]
    assert answer.sure < 1.0


def test_where_no_section_is_about_that_it_is_searched_for(tmp_path):
    said = ("2 Post", "To install Quorble, put the box on the pier and turn the key twice.")
    answer = guide(tmp_path, said, ANOTHER).answer("How do I install it?", WHOLE, None)
    assert "put the box on the pier" in answer.quotes[0].text


def test_how_another_thing_is_installed_is_no_sure_answer(tmp_path):
    much = ("3 Pier", "Quorble stands on the pier. Quorble rings twice. Quorble never sleeps.")
    other = ("2 Post", "If you have not used the barrel yet, you must install the barrel first.")
    asked = "How do I install the program?"
    assert guide(tmp_path, other, much).answer(asked, WHOLE, None).sure <= 0.3
    own = ("4 Keys", "Quorble can be installed with the spanner that lies under the pier.")
    answer = guide(tmp_path, other, much, own).answer(asked, WHOLE, None)
    assert "spanner" in answer.quotes[0].text
    assert answer.question == asked


def test_the_outermost_section_tells_how_the_whole_is_installed(tmp_path):
    path = tmp_path / "outermost.pdf"
    make_pdf(path, [
        [("title", "The Wellkeep Manual"), ("h1", "1 Buckets"), ("h2", "1.1 Installation"),
         ("text", "The bucket is hung on its hook before the rope is wound on the wheel.")],
        [("h1", "2 Distribution and installation"),
         ("text", "Wellkeep is unpacked in the mill and started by the miller.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("How do I install it?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Wellkeep is unpacked")


VERSIONED = [
    [("title", "The Wellkeep Manual"), ("h1", "1 About"),
     ("text", "Wellkeep is a program that keeps the water of a well at one height."),
     ("h1", "2 What's new"),
     ("h2", "Version 1.4"),
     ("text", "The gate can now be opened by night. It creaks no more when it "
      "is opened, and the keeper of the mill sleeps on until the sun is up again."),
     ("h2", "Version 1.3"),
     ("text", "Two wells may be kept at once. Each of them has a book of its "
      "own, and what is written in the one is never written in the other by anybody."),
     ("h1", "3 Gates"), ("text", "A gate has been added to every well in version 1.4 and later.")],
]  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What is new in version 1.3?", "Two wells may be kept"),
     ("What changed in version 1.4?", "The gate can now be opened"),
     ("What is new?", "The gate can now be opened")],
)  # fmt: skip
def test_what_is_new_is_told_of_the_version_that_is_asked_about(tmp_path, typed, said):
    path = tmp_path / "versioned.pdf"
    make_pdf(path, VERSIONED)
    answer = Digester(read_document(path)).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said)


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What are the hardware requirements?", "A winch with two drums"),
     ("What are the requirements?", "Wells are kept in many ways")],
)  # fmt: skip
def test_what_is_needed_of_hardware_is_told_where_that_is_told(tmp_path, typed, said):
    make_pdf(tmp_path / "needs.pdf", [
        [("title", "The Wellkeep Manual"), ("h1", "1 Requirements"),
         ("text", "Wells are kept in many ways, and this matters for what is needed."),
         ("h2", "1.1 Hardware requirements"), ("text", "A winch with two drums is needed."),
         ("h1", "2 Lids"), ("text", "The lid opens by itself in the morning.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "needs.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said)


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What changed in 2022?", "The lid opens"), ("What was new in 2021?", "The well has a lid")],
)  # fmt: skip
def test_a_history_tells_what_was_new_in_each_year(tmp_path, typed, said):
    make_pdf(tmp_path / "years.pdf", [
        [("title", "The Wellkeep Manual"), ("h1", "1 About"),
         ("text", "In 2022 Wellkeep is a program that keeps the water of a well at one height."),
         ("h1", "2 Release history"), ("h2", "2.1 Past: 2021"),
         ("text", "The well has a lid, and the lid has a hinge."),
         ("h2", "2.2 Present: 2022"), ("text", "The lid opens by itself in the morning.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "years.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said)


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What is new in version 2.1?", "The lid opens"), ("What is new in 2.1.1?", "The lid creaks"),
     ("What changed in version 2.0?", "The well has a lid")],
)  # fmt: skip
def test_a_history_tells_what_was_new_in_each_version(tmp_path, typed, said):
    path = tmp_path / "history.pdf"
    make_pdf(path, [
        [("title", "The Wellkeep Manual"), ("h1", "1 About"),
         ("text", "Wellkeep is a program that keeps the water of a well at one height."),
         ("h1", "2 Version history"),
         ("h2", "2.1 Wellkeep 2.1.1"), ("text", "The lid creaks no more when it is opened."),
         ("h2", "2.2 Wellkeep 2.1.0"), ("text", "The lid opens by itself in the morning."),
         ("h2", "2.3 Wellkeep 2.0"), ("text", "The well has a lid, and the lid has a hinge.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said)


def test_what_a_thing_is_for_is_not_what_its_document_is_for(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "An introduction to the gaugekeep package"), ("h1", "1 Overview"),
         ("text", "This vignette is meant to give an overview of the gaugekeep package. It has "
                  "nine parts, of which the last one lists the data.")],
        [("h1", "2 Gauges"),
         ("text", "The purpose of the gaugekeep package is to read the gauges of wells.")],
    ])  # fmt: skip
    made = Digester(read_document(path))
    told = made.answer("What is the gaugekeep package for?", WHOLE, None)
    assert "read the gauges of wells" in told.quotes[0].text
    own = made.answer("What is this vignette for?", WHOLE, None)
    assert "overview of the gaugekeep package" in own.quotes[0].text


def test_where_only_the_document_is_spoken_of_that_is_less_sure(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "An introduction to the gaugekeep package"), ("h1", "1 Overview"),
         ("text", "This vignette is meant to give an overview of it. It has nine parts.")],
    ])  # fmt: skip
    made = Digester(read_document(path))
    assert made.answer("What is the gaugekeep package for?", WHOLE, None).sure <= 0.6


def test_what_is_to_be_cited_stands_after_the_colon(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "Pump Guide"), ("h1", "1 About"), ("text", "When using the pump please cite:"),
         ("text", "A. Holm: The pump, a tool for many wells of the north and of the south.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("How should it be cited?", WHOLE, None)
    assert any("Holm" in quote.text for quote in answer.quotes)


def test_requirements_are_not_how_it_is_installed(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "Pumpkeep Guide"), ("h1", "1 Installation"), ("h2", "1.1 System requirements"),
         ("text", "A pump of version 3 is required for running it, and a rope of oak.")],
        [("h2", "1.2 Pumpkeep installation"), ("text", "Unpack the archive and type make.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("How do I install Pumpkeep?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Unpack the archive")


def test_why_a_step_is_needed_is_no_question_about_the_whole(rain):
    answer = rain.answer("Why is a beam scale needed?", WHOLE, None)
    assert not answer.kind.startswith("overview")


def test_how_a_part_is_started_is_not_how_the_whole_is_run(tmp_path):
    path = tmp_path / "made.pdf"
    make_pdf(path, [
        [("title", "Quorble Guide"), ("h1", "1 Gauges"), ("text", "Quorble reads the gauges.")],
        [("h1", "2 The foreign plotter"), ("text", "It draws the gauges."), ("h2", "2.1 Starting"),
         ("text", "Turn the plotter on.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("How do I run Quorble?", WHOLE, None)
    assert answer.sure <= 0.3


@pytest.fixture(scope="module")
def without_its_name(tmp_path_factory):
    """A manual that says what "this program" does, and names its own name hardly ever."""
    path = tmp_path_factory.mktemp("made") / "made.pdf"
    steps = ("The drawing is held in a file. Each line of it sets one line of the drawing, and as "
             "in earlier books a file of instructions tells where it is kept. ")  # fmt: skip
    make_pdf(path, [
        [("title", "Drawkeep"), ("text", "by"), ("text", "Aino Perälä"),
         ("text", "This program reads the marks of a gauge and draws them as a curve of the tide."),
         ("text", steps * 2)],
        [("h1", "1 Curves"), ("text", steps * 4), ("text", "The lipkeep package draws lips.")],
        [("h1", "2 Lines"), ("text", steps * 4)],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    "typed", ["What is this program for?", "What does this program do?", "What does it do?"]
)
def test_what_this_program_is_for_is_told_without_its_name(without_its_name, typed):
    answer = without_its_name.answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith("This program reads the marks")


def test_its_title_is_told(without_its_name):
    answer = without_its_name.answer("What is the title of the manual?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == ["Drawkeep"]


def test_who_wrote_another_thing_is_not_who_wrote_the_document(without_its_name):
    own = without_its_name.answer("Who wrote it?", WHOLE, None)
    assert [quote.text for quote in own.quotes] == ["Aino Perälä"]
    other = without_its_name.answer("Who wrote lipkeep?", WHOLE, None)
    assert "Aino Perälä" not in [quote.text for quote in other.quotes]


def test_a_licence_is_told_once_and_not_by_what_is_said_of_licences(tmp_path):
    notice = "This manual is given away under the terms of the GNU General Public License."
    of_it = "This program is free software under the GNU General Public License."
    others = "By contrast, the GNU General Public License guarantees everyone's freedom."
    use = [("h1", "1 Use"), ("text", of_it), ("text", others)]
    make_pdf(tmp_path / "a.pdf", [[("title", "Village Wells"), ("text", notice)], use])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which licence is it under?", WHOLE, None
    )
    assert [quote.text for quote in answer.quotes] == [notice, of_it]


def test_a_licence_is_told_from_the_section_on_it_where_nothing_else_states_it(tmp_path):
    stated = "Whoever builds wells with it chooses one of the two licence models of the guild."
    use = [("h1", "2 Use"), ("text", "The sails are oiled in May under the licence of the smith.")]
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells"), ("h1", "1 Licensing"), ("text", stated)], use,
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Under which licence may I use it?", WHOLE, None
    )
    assert [quote.text for quote in answer.quotes] == [stated]


def test_where_bugs_are_sent_may_be_told_by_a_name(tmp_path):
    said = "All questions and bug reports on the barrels should be sent to the help desk at Hallan:"
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Keeping Barrels"), ("text", "Barrels are kept in the dry."), ("text", said),
         ("text", "https://barrels.example/desk")],
        [("h1", "Hoops"), ("text", "The hoops are sent to the cooper. A bug in oak is a beetle.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "How do I report a bug?", WHOLE, None
    )
    told = [quote.text for quote in answer.quotes]
    assert told[0] == said
    assert "https://barrels.example/desk" in told


def test_an_idea_that_is_stated_in_so_many_words_goes_before_the_gist(tmp_path):
    said = "The key idea behind barrels is that oak swells when it is wet."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Keeping Barrels"), ("text", "This manual describes how barrels are kept dry.")],
        [("h1", "Oak"), ("text", f"Nobody has asked why it holds. {said} It shrinks in summer.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What is the key idea behind barrels?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert made.answer("What are the main points?", WHOLE, None).quotes[0].text != said


@pytest.mark.parametrize(("what", "is_it"), [("elpa-barrel-mode", True), ("tellbugs", False)])
def test_a_command_that_installs_something_else_is_no_sure_answer(tmp_path, what, is_it):
    said = f"Please use the usual way to install it: $ sudo apt install {what} in the shed."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Barrel Mode"), ("text", "Barrels are kept in the dry.")],
        [("h1", "Hoops"), ("text", said)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("How do I install it?", WHOLE, None)
    assert what in answer.quotes[0].text
    assert (answer.sure > 0.3) == is_it


AFTER_WELLS = [
    [("title", "Village Wells"), ("text", "by Marta Lindqvist"), ("text", "14 March 2021"),
     ("h1", "1 Wells"), ("text", "A well is a hole that holds water. Lids are closed at night.")],
    [("h1", "2 Changes"), ("h2", "2.1 Important changes in release 60"),
     ("text", "The lid of the well is made of oak now."),
     ("h2", "2.2 Important changes in release 58"),
     ("text", "The rope no longer has to be wet.")],
    [("h1", "3 Keeping"), ("text", "Village Wells is maintained by the Guild of Skerrow.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def looked_after(tmp_path_factory):
    path = tmp_path_factory.mktemp("after") / "wells.pdf"
    make_pdf(path, AFTER_WELLS)
    return Digester(read_document(path))


def test_who_looks_after_it_need_not_have_written_it(looked_after):
    told = looked_after.answer("Who maintains Village Wells?", WHOLE, None)
    assert "Guild of Skerrow" in told.quotes[0].text
    wrote = looked_after.answer("Who wrote this?", WHOLE, None)
    assert "Marta Lindqvist" in wrote.quotes[0].text


@pytest.mark.parametrize("typed", ["When was it written?", "In which year was it written?"])
def test_when_it_was_written_does_not_ask_by_whom(looked_after, typed):
    quotes = looked_after.answer(typed, WHOLE, None).quotes
    assert [quote.text for quote in quotes] == ["14 March 2021"]


def test_releases_may_be_counted_in_whole_numbers(looked_after):
    quotes = looked_after.answer("What changed in release 58?", WHOLE, None).quotes
    assert [quote.text for quote in quotes] == ["The rope no longer has to be wet."]


def test_a_section_on_the_authors_tells_them_where_the_front_does_not(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The quorble"), ("h1", "1 Use"), ("text", "The quorble draws water.")],
        [("h1", "2 Authors"), ("text", "Implementation by Ann Bale and Cy Dow, manual by Di Eft."),
         ("h1", "3 Lids"), ("text", "Lids are closed at night by hand.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Who wrote it?", WHOLE, None)
    assert answer.quotes[0].text == "Implementation by Ann Bale and Cy Dow, manual by Di Eft."


def test_the_strengths_and_weaknesses_of_others_are_no_limits(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells"), ("text", "Wells are dug by hand and closed at night.")],
        [("h1", "1 Ropes"), ("text", "Many ropes are sold, each with its own strengths"
                                     " and weaknesses, and the keeper chooses one of them.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What are the limitations?", WHOLE, None)
    assert answer.declined or answer.sure < 0.5


@pytest.mark.parametrize("kind", ["file", "manual"])
def test_what_the_document_is_for_is_told_where_it_speaks_of_itself(tmp_path, kind):
    said = f"This {kind} contains advice for whoever keeps the lids of a village well."
    goals = ("text", "The goals of the guild are to support a wide variety of wells and ropes.")
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells"), ("text", said), ("text", "Lids are closed at night by hand.")],
        [("h1", "1 Guilds"), goals, ("text", "The guild aims to be a help to every keeper.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What is this document for?", WHOLE, None)
    assert answer.quotes[0].text == said


def test_release_notes_tell_what_is_new_of_their_latest_version(tmp_path):
    path = tmp_path / "notes.pdf"
    make_pdf(path, [
        [("title", "Wellkeep"), ("text", "Notes of the Guild of Wells.")],
        [("h1", "Release Notes of Wellkeep"),
         ("text", "Wellkeep is a program that keeps the water of a well at one height."),
         ("h2", "Version 1.3.4"), ("text", "The lid creaks no more when it is opened by night."),
         ("h2", "Version 1.5.2"), ("text", "The gate is now opened by a clock of brass.")],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("What is new in this release?", WHOLE, None)
    assert answer.quotes[0].text.startswith("The gate is now opened")


def test_what_only_may_tell_is_left_out_beside_what_does(tmp_path):
    told = "My motivation in writing the scale was to keep keepers from guessing."
    weak = "Old ropes are often wet because nobody needs them when the rain is heavy enough."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Scales of the Guild"), ("h1", "1 Introduction"), ("text", f"{weak} {told}"),
         ("text", "The rope is drawn in the morning. The drum is oiled in the evening.")],
        [("h1", "2 Use"), ("text", "The scale is hung over the well. It is read twice a day.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Why was it written?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [told]


def test_how_these_are_reached_comes_with_what_they_are(tmp_path):
    goals = "Its chief goals are dry lids and quiet drums."
    said = "This paper describes how these are reached in wells of stone."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Quiet Wells"), ("h1", "1 Introduction"),
         ("text", f"Wells are noisy in the winter months. {goals} {said}")],
        [("h1", "2 Lids"), ("text", "The lid is made of zinc. It is closed at night.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Which goals did the designers set themselves?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [goals, said]


TERMS = "This library and its drawings are hereby placed in the public domain."


@pytest.fixture(scope="module")
def library(tmp_path_factory):
    path = tmp_path_factory.mktemp("library") / "a.pdf"
    is_a = "Wellkeep is a library that provides careful gates for the keeping of water."
    call = "The call well_free frees the rope that a gate has taken, and the gate is closed."
    make_pdf(path, [
        [("title", "Wellkeep Manual"), ("text", TERMS)],
        [("h1", "1 Introduction"), ("text", f"{is_a} It needs no clock.")],
        [("h1", "2 Building"), ("text", "This will build the library and keep it in a file.")],
        [("h1", "3 Gate errors"), ("text", call),
         ("text", "Errors of a gate are told in brass letters over the lid of the well.")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    "typed", ["What is the library for?", "What does the library do?", "What does Wellkeep offer?"]
)
def test_the_thing_may_be_called_by_its_kind(library, typed):
    assert library.answer(typed, WHOLE, None).quotes[0].text.startswith("Wellkeep is a library")


@pytest.mark.parametrize(
    ("typed", "is_told"),
    [("Is it free to use?", True), ("Is Wellkeep free software?", True),
     ("Can I use it in commercial products?", True), ("May I use Wellkeep for free?", True),
     ("Is rope free?", False), ("What frees the rope?", False)],
)  # fmt: skip
def test_whether_it_is_free_is_told_by_its_licence(library, typed, is_told):
    answer = library.answer(typed, WHOLE, None)
    assert (answer.kind == "overview: licence") is is_told
    assert (TERMS in [quote.text for quote in answer.quotes]) is is_told


@pytest.mark.parametrize(
    "typed",
    ["Summarise “Gate errors”", "Summarize gate errors", "Give me a summary of the gate errors",
     "Fasse den Abschnitt „Gate errors“ zusammen", "Résume la section « Gate errors »"],
)  # fmt: skip
def test_a_part_is_told_in_short_by_its_title_alone(library, typed):
    answer = library.answer(typed, WHOLE, None)
    assert answer.kind == "overview: section"
    assert answer.reach.name == "3 Gate errors"


def test_a_matter_without_a_section_is_told_less_surely(library):
    answer = library.answer("Summarise the section on brass letters", WHOLE, None)
    assert "brass letters" in answer.quotes[0].text
    assert answer.sure <= 0.3
    assert library.answer("Summarise Wellkeep", WHOLE, None).kind == "overview: about"


def test_the_introduction_is_that_of_the_whole(tmp_path):
    said = ("text", "The lid is lifted in the morning. The rope is drawn by two keepers.")
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells")],
        [("h1", "1 Introduction to wells"), said],
        [("h1", "2 Gates"), said, ("h2", "2.1 Introduction"), said],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Summarise the introduction", WHOLE, None)
    assert answer.reach.name == "1 Introduction to wells"


@pytest.mark.parametrize(
    ("notice", "is_sure"),
    [("Permission is granted to copy this manual under the GNU Free Documentation License.", False),
     ("Permission is granted to copy this software under the GNU Public License.", True)],
)  # fmt: skip
def test_the_licence_of_the_manual_is_not_surely_that_of_what_it_is_on(tmp_path, notice, is_sure):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep Manual"), ("text", notice)],
        [("h1", "1 Gates"), ("text", "Wellkeep opens the gate. Wellkeep closes the lid.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    asked = made.answer("Which licence is Wellkeep under?", WHOLE, None)
    assert asked.quotes
    assert (asked.sure >= 0.9) is is_sure
    assert made.answer("Which licence is it under?", WHOLE, None).sure >= 0.9


def test_a_section_under_the_title_of_the_whole_is_of_the_whole(tmp_path):
    said = "There is no lid of zinc for the wells of the moor."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Wellkeep history"), ("h2", "9 Feb 2022 Wellkeep 6.101"), ("h2", "New"),
         ("text", "Ropes of hemp are drawn by two drums now.")],
        [("h2", "2 July 2021 Wellkeep 6.001"), ("h2", "Known issues"), ("text", said)],
    ], bookmarks=[
        ("Wellkeep history", 0, 0), ("9 Feb 2022 Wellkeep 6.101", 1, 0), ("New", 2, 0),
        ("2 July 2021 Wellkeep 6.001", 1, 1), ("Known issues", 2, 1),
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What are known issues?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]


def test_what_has_no_letter_is_no_answer(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Calls"), ("h2", "1.1 well_open()"), ("text", "..."),
         ("h2", "1.2 well_close()"), ("text", "...")],
        [("h1", "2 Lids"), ("text", "The lid of the well is lifted in the morning by hand.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What does well_open do?", WHOLE, None)
    assert all(any(map(str.isalnum, quote.text)) for quote in answer.quotes)


def test_the_contribution_of_a_paper_is_asked_of_the_whole(rain):
    answer = rain.answer("What is the main contribution of this paper?", WHOLE, None)
    assert answer.kind == "overview: about"
    assert answer.quotes[0].text.startswith("This paper describes how rain is counted")


@pytest.mark.parametrize(
    ("text", "is_one"),
    [
        ("You can press the red button at any time.", True),
        ("Then drag the lid to the well.", True),
        ("Double-click the lid and wait.", True),
        ("You can see the well from the road.", False),
        ("A press stands in the yard.", False),
    ],
)
def test_a_step_tells_what_to_do(text, is_one):
    assert is_step(text) is is_one


def test_the_same_words_are_quoted_once(tmp_path):
    said = [("text", "The keeper is paid."), ("item", "3. Wind up the quorble on the rope.")]
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 In spring"), *said], [("h1", "2 In autumn"), *said]])
    digester = Digester(read_document(tmp_path / "a.pdf"))
    quotes = digester.answer("How do I wind up the quorble?", WHOLE, None).quotes
    assert len(quotes) == 1
    assert "Wind up the quorble" in quotes[0].text


@pytest.mark.parametrize(
    "typed", ["What are the findings?", "What method is used?", "What data are used?"]
)
def test_what_a_manual_seems_to_find_is_the_nearest_there_is(tmp_path, typed):
    said = (
        "We found that a rope of hemp lasts two summers, and it shows in the book of the mill. We"
        " used the method of the keeper for the data of each well, which took a day. Wellkeep"
        " reads the height of the water and writes it into the book at once."
    )
    pages = [[("title", "The Wellkeep Manual"), ("h1", "Installation"), ("text", said)]] + [
        [("h1", f"Command {k}"), ("text", f"The command number {k} opens the gate of the mill.")]
        for k in range(1, 6)
    ]
    make_pdf(tmp_path / "a.pdf", pages)
    digester = Digester(read_document(tmp_path / "a.pdf"))
    assert digester.facts.kind is DocumentKind.MANUAL
    answer = digester.answer(typed, WHOLE, None)
    assert answer.declined or answer.is_perhaps


@pytest.mark.parametrize("typed", ["Why was it written?", "What do I need to run it?"])
def test_a_sentence_with_a_word_of_a_question_on_the_whole_is_the_nearest(tmp_path, typed):
    text = "The label of each lid is written by hand in ink, and boards run along the wall."
    blank = "The rope hangs on the third nail, and the bucket stands below it."
    make_pdf(tmp_path / "a.pdf", [[("title", "Of Lids"), ("h1", "1 Lids"), ("text", text)],
                                  [("h1", "2 Ropes"), ("text", blank)]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.declined or answer.is_perhaps


@pytest.mark.parametrize(
    ("title", "typed", "is_sure"),
    [
        ("Wellkeep for Beginners", "Who wrote Wellkeep?", False),
        ("Wellkeep for Beginners", "Who wrote this guide?", True),
        ("The Wellkeep Manual", "Who wrote Wellkeep?", True),
    ],
)
def test_who_writes_for_beginners_need_not_have_made_the_thing(tmp_path, title, typed, is_sure):
    text = "Wellkeep opens the gate of a well each morning and shuts it again at night."
    make_pdf(tmp_path / "a.pdf", [[("title", title), ("text", "Marta Lindqvist")],
                                  [("h1", "1 Gates"), ("text", text)]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == ["Marta Lindqvist"]
    assert answer.is_perhaps is not is_sure


@pytest.mark.parametrize(
    ("typed", "said", "title", "is_sure"),
    [
        (
            "How is it configured?",
            "Whether the hatch is configured, the tray tells.",
            "Trays",
            False,
        ),
        ("How is it configured?", "It is configured in a file of its own.", "Configuration", True),
        ("Where can I download it?", "The map is downloaded by hand.", "Maps", False),
        ("Where can I download it?", "It can be downloaded from https://w.example", "News", True),
    ],
)
def test_of_the_whole_a_word_alone_is_told_surely_by_a_section_called_so(
    tmp_path, typed, said, title, is_sure
):
    blank = "The rope hangs on the third nail, and the bucket stands below it in the shade."
    make_pdf(tmp_path / "a.pdf", [[("title", "Wellkeep"), ("h1", "1 Ropes"), ("text", blank)],
                                  [("h1", f"2 {title}"), ("text", said)]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert (bool(answer.quotes) and not answer.is_perhaps) is is_sure


def test_limits_that_were_named_before_are_not_the_ones_that_are_told(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Lidkeep Manual"), ("h1", "1 Use"),
         ("text", "A limitation of Lidkeep is that it cannot lift lids of iron."),
         ("text", "It is oiled in the spring, and its drum is turned by hand.")],
        [("h1", "2 Care"), ("text", "The drum is kept dry by the keeper, who greases it in May."),
         ("text", "The drum has similar limitations.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "What are the limitations of Lidkeep?", WHOLE, None
    )
    assert "lids of iron" in answer.quotes[0].text


@pytest.mark.parametrize("typed", ["What still needs to be done?", "What is on the to-do list?"])
def test_a_list_of_what_is_to_be_done_tells_what_comes_next(tmp_path, typed):
    said = "The table shows the todo list of the keepers, the oldest tasks first."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Lidkeep Manual"), ("h1", "1 Use"), ("text", said),
         ("text", "Lidkeep is oiled in the spring, and its drum is turned by hand.")],
        [("h1", "2 Care"), ("text", "The drum is kept dry by the keeper, who greases it in May.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text == said


def test_terms_are_told_by_the_section_called_so(tmp_path):
    terms = ["A lid is what closes a well.", "A shaft is the deep part of a well."]
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Lids"), ("text", "The lid is closed by night. It means less work for all.")],
        [("h1", "2 Definitions"), *(("text", term) for term in terms)],
        [("h1", "3 Function definitions"), ("text", "A function is drawn with a pen.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Which terms do I need to know?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == terms
    assert answer.sure >= 0.8


def test_terms_are_else_told_by_what_defines_one(tmp_path):
    defined = "A rope that has never been wet is called a maiden rope."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", f"{defined} Please refer to the book of ropes for more."),
         ("text", "The means to lift it stand in the yard, and are of oak.")],
        [("h1", "2 Lids"), ("text", "A lid is closed by night.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("What are the key terms?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [defined]


def test_how_it_is_organised_is_told_by_its_parts_where_no_sentence_tells_it(tmp_path):
    other = ("text", "The second section describes a rope by its turns, and is cut in May.")
    pages = [[("title", "The quorble"), other], [("h1", "1 Ropes"), other],
             [("h1", "2 Lids"), other], [("h1", "3 Gates"), other]]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("How is it organised?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == ["1 Ropes", "2 Lids", "3 Gates"]
    said = "Section 2 describes the lids, and section 3 the gates of the yard."
    make_pdf(tmp_path / "b.pdf", [[*pages[0], ("text", said)], *pages[1:]])
    answer = Digester(read_document(tmp_path / "b.pdf")).answer("How is it organised?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]


def test_who_wrote_it_may_be_said_in_the_text(tmp_path):
    said = "Essentially it was written by Ann Bale with help from Cy Dow."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The quorble"), ("h1", "1 Thanks"), ("text", f"Thanks are due. {said}")],
        [("h1", "2 Lids"), ("text", "Lids are closed at night by hand. The gates are of oak.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("Who wrote it?", WHOLE, None).quotes[0].text == said


def test_where_bugs_go_is_no_part_of_the_gist(tmp_path):
    told = "Use https://wells.example/issues to report bugs and ask what the quorble means."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The quorble"), ("text", told),
         ("text", "The quorble is a tool that lifts the water of wells by hand.")],
        [("h1", "1 Lids"), ("text", "Lids are closed at night by hand. The gates are of oak.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert told not in [line.text for line in made.gist()]
    assert made.answer("Where do I report bugs?", WHOLE, None).quotes[0].text == told


@pytest.mark.parametrize(
    ("typed", "said"),
    [("What are the minimum system requirements?", "64 MB"),
     ("What are the recommended hardware requirements?", "128 MB"),
     ("What are the system requirements?", "runs on any mill")],
)  # fmt: skip
def test_what_is_needed_at_least_is_told_by_the_part_on_that(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Wellkeep Manual"), ("h1", "1 Wells"), ("text", "Wells are kept by it.")],
        [("h1", "2 Resources needed"), ("text", "Wellkeep runs on any mill that has a wheel."),
         ("h2", "2.1 Minimum settings"), ("item", "\u2022 a memory of 64 MB"),
         ("item", "\u2022 a wheel of oak"),
         ("h2", "2.2 Recommended settings"), ("item", "\u2022 a memory of 128 MB"),
         ("item", "\u2022 two wheels of oak")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert said in " ".join(quote.text for quote in answer.quotes)
    assert answer.sure > 0.5


@pytest.mark.parametrize(
    ("told", "said", "sure"),
    [("This program was written by Ann Bale in her spare time.", None, 0.6),
     ("Quorble was originally written by Ann Bale.", None, 0.6),
     ("The rope of Quorble was written by Ann Bale.", "", 0.0),
     ("Quorble has a song that was written by Ann Bale.", "", 0.0),
     ("© 2019 Ann Bale and the guild of wells", None, 0.3),
     ("Ropes are kept dry by whoever has them.", "", 0.0)],
)  # fmt: skip
def test_who_made_the_program_or_holds_it_is_said_for_want_of_authors(tmp_path, told, said, sure):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The quorble"), ("text", "The quorble draws water by hand from any well."),
         ("text", told)],
        [("h1", "1 Lids"), ("text", "Lids are closed at night by hand. The gates are of oak.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Who wrote it?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == ([told] if said is None else [])
    assert answer.sure == pytest.approx(sure)


@pytest.mark.parametrize(
    ("title", "said", "is_told"),
    [("3 Copyright", "Copyright © (2017–22) Ann Bale.", True),
     ("Licence", "(c) 2019 by Ann Bale", True),
     ("Licence", "Copyright © 2007 The Guild of Wells", False),
     ("3 Gates", "Copyright © 2019 Ann Bale.", False)],
)  # fmt: skip
def test_who_holds_it_may_be_said_under_a_title_at_the_end(tmp_path, title, said, is_told):
    filler = [("text", "Lids are closed at night by hand. The gates are of oak.")] * 14
    pages = [[("h1", f"{k} Lids and gates"), *filler] for k in range(1, 8)]
    make_pdf(tmp_path / "a.pdf", [*pages, [("h1", title), ("text", said)], *pages[:2]])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Who wrote it?", WHOLE, None)
    told = said.replace("(2017–22)", "…")
    assert [quote.text for quote in answer.quotes] == [told] * is_told


@pytest.mark.parametrize("typed", ["Who takes care of it?", "Who takes care of it these days?"])
def test_who_has_the_care_of_it_is_told_by_its_name(tmp_path, typed):
    said = "Quorble is currently maintained by Ann Bale."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The quorble"), ("text", "The quorble draws water by hand."), ("text", said)],
        [("h1", "1 Lids"), ("text", "Lids are closed at night by hand. The gates are of oak.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]


@pytest.mark.parametrize(
    ("said", "is_told"),
    [("Quorble is a tool that lifts the water of any well by hand.", True),
     ("This manual describes how the water of any well is lifted by hand.", True),
     ("This is the manual of a tool that lifts the water of wells.", True),
     ("Whoever lifts the water of some well takes off its lid first.", False)],
)  # fmt: skip
def test_how_sure_it_is_what_it_is_about_hangs_on_whether_it_says_so(tmp_path, said, is_told):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Quorble"), ("text", said)],
        [("h1", "1 Lids"), ("text", "Lids of oak are closed at night by the keeper of the yard. "
                                    "Quorble stays in it until Quorble is wound up at dawn."),
         ("h1", "2 Ropes"), ("text", "Ropes of hemp are turned once a year by the people nearby.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is this about?", WHOLE, None)
    assert answer.quotes
    assert answer.sure == pytest.approx(0.9 if is_told else 0.5)


@pytest.mark.parametrize(("title", "sure"), [("Getting started", 0.6), ("Running it", 0.9)])
def test_how_it_is_run_is_less_sure_where_one_only_begins(tmp_path, title, sure):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Quorble"), ("text", "Quorble is a tool that lifts the water of any well.")],
        [("h1", f"1 {title}"), ("text", "Quorble is laid on the lid before anything else is done."),
         ("h1", "2 Ropes"), ("text", "Quorble holds a rope of hemp, and Quorble turns it.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("How do I run it?", WHOLE, None)
    assert "on the lid" in answer.quotes[0].text
    assert answer.sure == pytest.approx(sure)


@pytest.mark.parametrize(
    ("question", "begins"),
    [("How do I install it?", "Carry the winch up the stairs"),
     ("How do I get started?", "Wind the rope"),
     ("Where should I begin?", "This chapter")],
)  # fmt: skip
def test_what_only_opens_a_section_tells_no_steps(tmp_path, question, begins):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Winches"), ("text", "Winches are bolted down before a rope is wound on.")],
        [("h1", "1 Installation"),
         ("text", "This chapter tells how the winch comes into the tower. It is not meant for "
                  "those who have one. Carry the winch up the stairs and bolt it to the floor.")],
        [("h1", "2 Getting started"),
         ("text", "This chapter shows the first day. Wind the rope on the drum, turn by turn.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(question, WHOLE, None)
    assert answer.quotes[0].text.startswith(begins)
    assert answer.sure >= 0.6


def test_a_sentence_is_never_surer_than_a_section_called_so(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Winch-ng"), ("text", "Winch-ng is a winch for towers."),
         ("text", "Winch-ng requires at least version 2 of the drum, and the rope must be "
                  "installed first.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("What do I need before I start?", WHOLE, None).sure == 0.9


def test_what_is_new_does_not_say_what_a_thing_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Quorble"), ("h2", "1 Summary of Changes"),
         ("text", "Quorble computes the depth now and warns the keeper of a dry well."),
         ("h2", "2 Introduction"),
         ("text", "Quorble is a method for finding water below the ground. Every keeper has one."),
         ("h2", "3 Use"), ("text", "Lower the rod until it is wet, and read the mark at the rim.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is this about?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Quorble is a method")


def test_a_licence_at_the_end_is_not_what_a_document_is_about(tmp_path):
    rows = [("text", f"{k}.5   {k}.7   {k}.9   {k}.1") for k in range(1, 31)]
    terms = [
        "You may copy and distribute verbatim copies of the Program as you receive it.",
        "This License applies to any program which contains a notice by the copyright holder.",
        "You are not required to accept this License, since you have not signed it.",
    ]
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Depths of the Hallan Wells"), *rows],
        [("h1", "Appendix A. Licence"), *(("text", said) for said in terms)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is this about?", WHOLE, None)
    assert not any("License" in quote.text for quote in answer.quotes)


def test_what_only_an_aside_tells_that_is_cut_is_not_told(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Quorble"), ("h2", "1 Introduction"),
         ("text", "The rope is wound by the clock at noon (this is new since release 2021.03)."),
         ("text", "Every keeper of a well has a clock and a rope, and winds both by hand.")],
        [("h2", "2 Use"), ("text", "Lower the rod until it is wet, and read the mark at the rim.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    digest = Digester(document).digest(find_definitions(document), WHOLE, kind=DocumentKind.MANUAL)
    changes = next(filled for filled in digest.by_kind if filled.slot.name == "Changes")
    assert not changes.lines


def test_a_chapter_that_begins_at_once_with_another_section_tells_it_later(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Chapter 1"), ("h1", "Use"), ("text", "Quorble is a lid for wells.")],
        [("h1", "Chapter 2"), ("h1", "Installation"), ("h2", "2.1 Requirements"),
         ("text", "A rope of hemp and a ladder are needed before the lid comes."),
         ("h2", "2.2 Installing Quorble"),
         ("text", "Put the lid on the rim of the well and turn it until it sits.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("How do I install it?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Put the lid on the rim")


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("This manual assumes that you know how a rope is wound on a drum.", False),
        ("In this manual, ropes that are wound on a drum are looked after.", True),
    ],
)
def test_what_readers_are_to_know_is_not_what_it_is_about(tmp_path, said, is_told):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Ropes of the Valley"), ("text", said), ("text", "Ropes are wound by hand.")],
        [("h1", "1 Hemp"), ("text", "Hemp is wet in May. It is dried under a roof of slate.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is this about?", WHOLE, None)
    assert said in [quote.text for quote in answer.quotes]
    assert (answer.sure > UNTOLD) is is_told
