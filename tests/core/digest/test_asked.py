"""Questions about the whole and about parts, told from those for a fact."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, Reach
from wide_margin.core.digest import Digester, read_overview
from wide_margin.core.document import section_numbered
from wide_margin.core.outline import Outline, Section

ABOUT = {
    "about": [
        "What is this about?", "What is this document about?", "what is it about", "tl;dr",
        "TL;DR please",
        "Give me the gist.", "Summarise this.", "Summarize the document",
        "Summarise it in three sentences.",
        "What are the main points?", "Main points please", "Give me five points.",
        "Sum it up in one sentence.", "What does it say?", "What does this book say?",
        "In a nutshell?",
        "Explain simply what this is.", "What is this?", "What is it?",
        "What does the manual cover?",
        "What topics are covered?", "Key points", "What is the main idea?", "Give a short summary.",
        "What is this paper about?", "Tell me briefly what it is about.",
        "Condense this to 50 words.",
        "What are the key ideas?", "The main message?", "Recap please.",
    ],
    "purpose": [
        "What is the aim?", "What is the goal of this paper?", "What is this paper trying to do?",
        "What is the purpose of this document?", "What do the authors set out to do?",
        "What is the point of this?", "What are its objectives?",
    ],
    "why": ["Why was it written?", "Why was this made?", "What motivated the authors?",
            "Why does this exist?", "What problem does it want to solve?"],
    "limits": ["Any drawbacks?", "What are its weak points?",
               "What is it not good at?", "What are the limitations?", "What are its limits?",
               "Are there any weaknesses?", "Any caveats?", "What can it not do?",
               "Known problems?",
               "What are the shortcomings of this approach?"],
    "conclusion": ["What does it conclude?", "What is the conclusion?", "What are the conclusions?",
                   "Bottom line?", "What are the takeaways?"],
    "next": ["What comes next?", "What future work is planned?", "What is left for the future?",
             "Any open questions?"],
    "audience": ["Who is this for?", "Who should read it?", "What audience is it meant for?",
                 "For whom was this written?"],
    "needs": ["What do I need to know first?", "What are the requirements?", "Any prerequisites?",
              "What do I need to get started?", "What are the system requirements?"],
    "authors and date": ["Who wrote it?", "Who wrote this and when?", "When was it published?",
                         "Which version is this?", "Who are the authors?", "Who made this?",
                         "What edition is this?", "When was this written?", "Name the authors."],
    "licence": ["Which licence is it under?", "What licence?", "May I copy it?", "Is it licensed?"],
    "new": ["What's new in this edition?", "What has changed?", "What is new in this version?"],
    "terms": ["Key terms", "What are the key terms?", "Which terms are important?"],
    "organised": ["How is it organised?", "How is the document structured?",
    "How is this divided?"],
    "begin": ["Where should I begin?", "How do I get started?", "How do I start using it?"],
    "install": ["How do I install it?", "How can this be installed?", "Installation",
                "How do I set it up?", "Installation instructions", "How to install this?"],
    "run": ["How do I run it?", "How do I use this?", "How is it used?", "How to launch it?",
            "How can I start the program?"],
    "cite": ["How do I cite it?", "How should I cite this?", "How is it to be cited?", "Citation"],
    "bugs": ["Where do I report bugs?", "How can I report a problem?", "Where do I get help?",
             "Where should I send a bug report?", "Whom can I contact?"],
    "findings": ["What did they find?", "What are the results?", "What are the main findings?"],
    "method": ["What method do they use?", "Which approach does it take?", "How did they do it?"],
    "data": ["What data do they use?", "Which data is it based on?"],
}  # fmt: skip
FACTS = [
    "What is the abstract class?", "What are the summary statistics of the rainfall?",
    "How high is the tide gauge at Sandvik?", "Who founded the Tide Office?",
    "When was the surge of 1953?", "Why is the staff painted white?",
    "What is the purpose of the stilling well?", "What is a closing error?",
    "How many stations are there?", "Who wrote the exercise book of the schoolmaster?",
    "Where is the bench mark of Corn Stairs?", "What is the aim of the harmonic method by Kelvin?",
    "What happens when the paper sheet of the recorder runs out?", "Which fee does the diver get?",
    "What are the limits of the tidal range at Innerby?",
    "How is the staff divided into centimetres?",
    "What does the keeper do at noon with the clock?", "What is the key of the recorder hut for?",
    "Who looks after the staff?", "Who looks after the recorder hut?",
    "Which version of the recorder is needed?", "Which version of gaugelib do I need?",
    "May I use it for a chart?",
    "In what year was the first of these gauges made?", "What limit of the float got in the way?",
    "Which was the worst weakness in the recorder?",
    "How do I install the float of a gauge?", "How is the recorder installed at Innerby?",
    "How do I install it from CD?", "How do I use the gauge on ice?", "How is the ferry run?",
    "How do I cite the surge of 1953?", "Where do I report a lost mark?",
    "How do I start the clock?", "How can I change the paper?", "Can I use it in winter?",
    "How can I visualise the results?", "How do I save the outcome?",
    "How is the recorder hut structured?",
    "How can I share a boat?",
    "What is a tide gauge good for?", "What data format is needed?", "How do I run only one of it?",
    "How do I start a new one?",
    "Who should be told of a surge warning?", "What is the main shaft of the float gauge made of?",
]  # fmt: skip
PARTS = [
    "section 3", "Section 3?", "Summarise section 3", "Summarise section 3 in three sentences.",
    "tl;dr of section 3", "What does section 3 say?", "What is section 3 about?",
    "the gist of section 3", "sum up section three", "Tell me about the third section.",
    "What are the main points of section 3?", "§ 3", "section 3, please", "the section on ropes",
    "What does the part on ropes say?", "Summarise the section about ropes.",
]  # fmt: skip


def test_the_table_is_long_enough():
    assert sum(map(len, ABOUT.values())) + len(FACTS) + len(PARTS) >= 120


@pytest.mark.parametrize(
    ("kind", "question"), [(kind, q) for kind, asked in ABOUT.items() for q in asked]
)
def test_questions_about_the_whole(handbook, kind, question):
    found = read_overview(handbook, question, Reach())
    assert found is not None
    assert found.kind == kind


@pytest.mark.parametrize("question", FACTS)
def test_questions_that_only_look_like_it(handbook, question):
    assert read_overview(handbook, question, Reach()) is None


@pytest.fixture(scope="module")
def wells(tmp_path_factory):
    path = tmp_path_factory.mktemp("wells") / "wells.pdf"
    pages = []
    for number, (title, about, extra) in enumerate(
        [
            ("Wells", "well", "Stones for the lining come from the northern quarry by cart."),
            ("Buckets", "bucket", "Oak planks are bent over steam and bound with iron hoops."),
            ("Ropes", "rope", "Hemp is twisted in the long shed behind the church in April."),
            ("Winter", "lid", "Straw is laid around the shaft before the first frost arrives."),
        ],
        start=1,
    ):
        pages.append([
            ("h1", f"{number} {title}"),
            ("text", f"Every {about} is looked at once a week by the keeper of the village."
                     f" A good {about} lasts for {number + 10} years."),
            ("text", f"{extra} Nobody may sell a {about} without the consent of the council."),
        ])  # fmt: skip
    make_pdf(path, pages)
    return Digester(read_document(path))


@pytest.mark.parametrize("question", PARTS)
def test_section_three_in_many_wordings(wells, question):
    answer = wells.answer(question, Reach(), None)
    assert answer.kind == "overview: section"
    assert "Ropes" in answer.reach.name
    assert answer.quotes
    assert all(q.locators[0].page == 2 for q in answer.quotes)


@pytest.mark.parametrize(
    "question", ["page 2", "Summarise page 2", "What does page 2 say?", "tl;dr of p. 2"]
)
def test_a_page_can_be_asked_about(wells, question):
    answer = wells.answer(question, Reach(), None)
    assert answer.kind == "overview: page"
    assert {q.locators[0].page for q in answer.quotes} == {1}


def test_the_form_asked_for_is_kept(wells):
    assert len(wells.answer("Summarise it in two sentences", Reach(), None).quotes) == 2
    assert len(wells.answer("Give me three points.", Reach(), None).quotes) == 3


def test_the_reach_of_the_ask_line_counts(wells):
    reach = Reach("pages", first_page=3, last_page=3, name="page 4")
    answer = wells.answer("What is this about?", reach, None)
    assert {q.locators[0].page for q in answer.quotes} == {3}


def test_what_a_document_does_not_say_of_itself_is_declined(wells):
    for question in ("Who wrote it?", "Which licence is it under?", "When was it published?"):
        answer = wells.answer(question, Reach(), None)
        assert answer.declined, question
        assert answer.sure == 0


def test_a_question_for_a_fact_goes_to_the_search(wells):
    answer = wells.answer("How many years does a good rope last?", Reach(), None)
    assert not answer.kind.startswith("overview")
    assert "13 years" in answer.quotes[0].text


def test_the_second_section_is_counted_without_what_comes_before_the_text(tmp_path):
    path = tmp_path / "unnumbered.pdf"
    said = "The rope of the well is changed every eighteen months by the keeper of the gate."
    make_pdf(path, [
        [("h1", title), ("text", said), ("text", said.replace("rope", "lid"))]
        for title in ("License", "Preface", "Wells", "Buckets", "Gates")
    ])  # fmt: skip
    document = read_document(path)
    asked = read_overview(document, "Summarise section 2", WHOLE)
    assert asked.reach.name == "Buckets"


def test_of_two_sections_with_a_number_the_outermost_is_meant():
    sections = [
        Section(title, level, page, 0.0, page, page + 1, page + 1, 0.0)
        for page, (title, level) in enumerate(
            [("Preface", 0), ("2. We need your help", 1), ("Chapter 2. Wells", 0)]
        )
    ]
    assert section_numbered(Outline(tuple(sections)), "section", "2") == 2


def test_who_made_what_the_thing_is_called_after_is_not_who_wrote_it(tmp_path):
    said = "Bucket reads the gauges. Bucket writes them down. Bucket never sleeps."
    title = ("title", "RopeBucket: Ropes with Bucket's Speed")
    make_pdf(tmp_path / "a.pdf", [[title, ("text", "Marta Lindqvist"), ("h1", "1 Use"),
                                   ("text", said)]])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert read_overview(document, "Who created Bucket?", WHOLE) is None
    assert read_overview(document, "Who created RopeBucket?", WHOLE) is not None


@pytest.mark.parametrize(
    ("title", "asked", "is_of_document"),
    [("A Short Introduction to Wellkeep", "Who wrote Wellkeep?", False),
     ("A Short Introduction to Wellkeep", "Who wrote this guide?", True),
     ("The Interface to wellkeep in package gauges", "Who wrote wellkeep?", False),
     ("wellkeep, a first try at a port of drawpond", "Who wrote drawpond?", False),
     ("wellkeep, a first try at a port of drawpond", "Who wrote wellkeep?", True),
     ("Quick lookups in drawpond with wellkeep", "Who wrote Wellkeep?", True),
     ("A Guide to Wellkeep", "Who wrote Wellkeep?", False),
     ("Wells by Wellkeep", "Who wrote the original ROPE book?", False),
     ("Wells by Wellkeep", "Who wrote the Wellkeep manual?", True),
     ("User Guide for Wellkeep", "Who wrote Wellkeep?", True),
     ("Wellkeep Manual", "Who wrote Wellkeep?", True)],
)  # fmt: skip
def test_who_made_what_a_guide_is_on_is_not_who_wrote_the_guide(
    tmp_path, title, asked, is_of_document
):
    path = tmp_path / "guide.pdf"
    said = "Wellkeep reads the gauges. Wellkeep writes them down. Wellkeep never sleeps."
    make_pdf(path, [[("title", title), ("text", "Marta Lindqvist"), ("h1", "1 Use"),
                     ("text", said)]])  # fmt: skip
    found = read_overview(read_document(path), asked, WHOLE)
    assert (found is not None) == is_of_document


@pytest.mark.parametrize(
    ("said", "is_whole"),
    [("The game is played on a board.", True), ("The mill has a wheel.", False)],
)
def test_the_kind_of_thing_a_document_is_on_stands_for_it(tmp_path, said, is_whole):
    pages = [[("h1", f"{k} Rules"), ("text", said), ("text", "It is done again.")]
             for k in range(1, 6)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [[("title", "Ten Thousand Wells")], *pages])
    found = read_overview(
        read_document(tmp_path / "a.pdf"), "What is the aim of the game?", Reach()
    )
    assert (found is not None and found.kind == "purpose") is is_whole


@pytest.mark.parametrize(
    ("typed", "kind"),
    [("Which month is this issue from?", "authors and date"),
     ("When was it last updated?", "authors and date"),
     ("Who is the publisher?", "authors and date"),
     ("In which journal was it published?", "authors and date"),
     ("What is the version number?", "authors and date"),
     ("What is the latest version?", "authors and date"),
     ("What's the current edition?", "authors and date"),
     ("What is this newsletter mainly about?", "about"),
     ("What is the research question?", "purpose"),
     ("What is this guide meant to achieve?", "purpose")],
)  # fmt: skip
def test_more_questions_about_the_whole(handbook, typed, kind):
    asked = read_overview(handbook, typed, WHOLE)
    assert asked is not None
    assert asked.kind == kind


def test_who_published_it_is_not_who_wrote_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Keeping a Village Well"), ("text", "Aino Perälä"),
         ("text", "Published by Holm Press")],
        [("h1", "1 Use"), ("text", "The lid is closed at night by the keeper of the well.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    told = digester.answer("Who is the publisher?", WHOLE, None).quotes
    assert [quote.text for quote in told] == ["Published by Holm Press"]
    assert digester.answer("Who wrote it?", WHOLE, None).quotes[0].text == "Aino Perälä"


def test_which_licence_others_should_take_is_another_question(handbook):
    assert read_overview(handbook, "Which licence should be used?", WHOLE) is None
    asked = read_overview(handbook, "Which licence is it under?", WHOLE)
    assert asked is not None
    assert asked.kind == "licence"


def test_which_of_several_has_a_named_thing_is_asked_of_the_text(tmp_path):
    said = "The quorble stands in the third table. The data of the second are those of the moor."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Tables of Wells")],
        [("h1", "1 Data"), ("text", said), ("text", "They were read by hand in the spring.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert read_overview(document, "Which data set has the quorble variables?", WHOLE) is None
    assert read_overview(document, "Which data set is used?", WHOLE).kind == "data"


@pytest.mark.parametrize(
    ("typed", "is_whole"),
    [("How do I install Wellkeep?", True), ("How do I install Wellkeep-mode?", False),
     ("Who wrote the specification?", True)],
)  # fmt: skip
def test_a_part_is_not_the_whole_that_it_is_called_after(tmp_path, typed, is_whole):
    pages = [[("h1", f"{k} Gates"), ("text", f"Wellkeep opens gate {k}. Wellkeep-mode shows it."),
              ("text", "The lid is closed by hand at night.")] for k in range(1, 3)]  # fmt: skip
    more = [[("h1", f"{k} Lids"), ("text", "Wellkeep closes the lid. The rope is wet.")]
            for k in range(3, 12)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [[("title", "Wellkeep")], *pages, *more])
    found = read_overview(read_document(tmp_path / "a.pdf"), typed, WHOLE)
    assert (found is not None) is is_whole


@pytest.mark.parametrize(
    ("typed", "kind"),
    [
        ("What are the parts of this manual?", "organised"),
        ("What are the parts of the winch?", ""),
        ("Can I use it without paying?", "licence"),
        ("Can I use it without installing?", ""),
    ],
)
def test_parts_and_use_of_something_in_it_are_no_questions_of_the_whole(handbook, typed, kind):
    asked = read_overview(handbook, typed, WHOLE)
    assert (asked.kind if asked else "") == kind


def test_limits_that_a_sentence_has_beside_a_name_are_asked_of_that(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), ("h1", "1 Winding"),
         ("text", "Wellkeep winds ropes. However, step winding has three major limitations.")],
        [("h1", "2 Lids"), ("text", "Wellkeep closes lids. Step winding is slow.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert read_overview(document, "Which limitations does step winding have?", WHOLE) is None
    assert read_overview(document, "What are the limitations?", WHOLE).kind == "limits"


@pytest.mark.parametrize(
    ("typed", "is_of_whole"),
    [("How do I use Wellkeep?", True), ("How do I use my own Wellkeep?", False)],
)
def test_the_reader_s_own_thing_is_not_the_document_s(tmp_path, typed, is_of_whole):
    said = "Wellkeep reads the gauges. Wellkeep writes them down. Wellkeep never sleeps."
    make_pdf(tmp_path / "a.pdf", [[("title", "Wellkeep"), ("h1", "1 Use"), ("text", said)]])
    found = read_overview(read_document(tmp_path / "a.pdf"), typed, WHOLE)
    assert (found is not None) is is_of_whole


def test_a_count_of_some_people_is_a_fact_and_no_question_of_the_data(handbook):
    assert read_overview(handbook, "How many participants took part?", WHOLE) is None
