"""Asked what the thing is that the document is about, it says where that is introduced."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.gist import names_of
from wide_margin.core.digest.subject import named_subject
from wide_margin.core.digest.telling import naming, says_what_it_is, says_what_this_does

FILLING = [
    ("text", f"The gate {k} is opened in the {k}th week. Nobody tells Wellkeep of it.")
    for k in range(1, 9)
]


def digester_of(path, *introduction):
    make_pdf(path, [
        [("title", "The Wellkeep Manual"), *[("text", text) for text in introduction]],
        [("h1", "1 Building"),
         ("text", "wellkeep Build the tool. Wellkeep needs a clock."), *FILLING],
        [("h1", "2 Gates"), *FILLING],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.fixture(scope="module")
def introduced(tmp_path_factory):
    return digester_of(
        tmp_path_factory.mktemp("subject") / "wells.pdf",
        "This manual was last printed in May.",
        "Wellkeep is a program that keeps the water of a well at one height. It runs by day and by "
        "night. See https://wells.example for more.",
    )


@pytest.mark.parametrize("typed", [
    "What is Wellkeep?", "what's wellkeep", "What is Wellkeep for?", "What does Wellkeep do?",
    "What is the Wellkeep program?", "Tell me about Wellkeep", "What can Wellkeep do?",
    "What can Wellkeep be used for?",
    "Was ist Wellkeep?", "Wozu dient Wellkeep?", "Qu'est-ce que Wellkeep ?", "¿Qué es Wellkeep?",
    "Che cos'è Wellkeep?", "O que é Wellkeep?", "Wat is Wellkeep?", "Что такое Wellkeep?",
])  # fmt: skip
def test_it_is_told_where_it_is_introduced(introduced, typed):
    answer = introduced.answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith("Wellkeep is a program")
    assert answer.quotes[1].text == "It runs by day and by night."
    assert "https" not in " ".join(quote.text for quote in answer.quotes)
    assert answer.sure >= 0.8


@pytest.mark.parametrize("thing", ["program", "script", "tool"])
def test_it_may_be_called_by_its_kind(tmp_path, thing):
    said = "Wellkeep is a {} that keeps the water of a well at one height."
    other = f"The {thing} does what the keeper does at night, and the {thing} does it alone."
    digester = digester_of(tmp_path / "a.pdf", "It is from May.", said.format(thing), other)
    answer = digester.answer(f"What does the {thing} do?", WHOLE, None)
    assert answer.quotes[0].text == said.format(thing)
    assert answer.sure >= 0.8


def test_a_limit_of_words_is_kept(introduced):
    answer = introduced.answer("What is Wellkeep, in under 15 words?", WHOLE, None)
    assert sum(len(quote.text.split()) for quote in answer.quotes) <= 15
    assert answer.quotes[0].text.startswith("Wellkeep is a program")


def test_nothing_says_what_it_is_so_the_nearest_is_shown(tmp_path):
    digester = digester_of(tmp_path / "wells.pdf", "Water stands in every well of the parish.")
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert answer.is_perhaps
    assert not answer.quotes[0].text.startswith("wellkeep Build")


@pytest.mark.parametrize("said", [
    "This is the blue manual, describing the use of Wellkeep, a tool for keeping water.",
    "This manual describes Wellkeep version 2.1 (May), a program that keeps water.",
    "This manual is on a new make of Wellkeep, the “Keeper of Wells” for deep water.",
    "This manual describes a small program for the water of wells: Wellkeep.",
    "This manual is on our package for wells and their water, called “Wellkeep”.",
])  # fmt: skip
def test_it_is_told_beside_its_name(tmp_path, said):
    would = "Wellkeep is a large tool that would fill a book. First we turn to its lids."
    digester = digester_of(tmp_path / "wells.pdf", said, would)
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.8


def test_a_gist_begins_with_what_it_is_though_a_work_is_cited_there(tmp_path):
    said = "Wellkeep [Lindqvist and Ek 1998a] is a program that keeps the water at one height."
    after = "Wellkeep is a new lid for wells and needs no clock that has been wound."
    digester = digester_of(tmp_path / "wells.pdf", said, after)
    gist = digester.gist()
    assert gist[0].text == said.replace("[Lindqvist and Ek 1998a]", "…")
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert "is a program that keeps" in answer.quotes[0].text


def test_what_says_it_by_itself_comes_first(tmp_path):
    beside = "This manual describes Wellkeep, a program that keeps water."
    digester = digester_of(tmp_path / "wells.pdf", beside, "Wellkeep is a keeper of wells.")
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == "Wellkeep is a keeper of wells."


@pytest.mark.parametrize("typed", [
    "What does Wellkeep need?", "What is the height that Wellkeep writes?", "Who wrote Wellkeep?",
    "What is a gate?", "How is Wellkeep built?", "",
])  # fmt: skip
def test_other_questions_ask_for_more_than_the_name(typed):
    assert named_subject(typed, ("wellkeep",)) == ""


def test_names_are_known_however_they_are_joined():
    assert named_subject("What is Well Keep NG?", ("well-keep-ng",)) == "well-keep-ng"
    found = naming(("well-keep-ng",))
    assert says_what_it_is(found, "well keep ng is a program.")
    assert says_what_it_is(found, "the keeper of wells and ropes (well-keep-ng) is a program.")
    assert not says_what_it_is(found, "the rope of the well-keep-ng is a long one.")


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("This is the documentation of the Wellkeep program for keepers of wells.", True),
        ("The main purpose of the Wellkeep program is to keep the water at one height.", True),
        ("The keeper’s own well watch (Wellkeep) is a program for the water of wells.", True),
        ("Technically speaking, Wellkeep is a front-end to a clock.", True),
        ("In short, Wellkeep is a clock.", True),
        ("Wellkeep is, first and foremost, a clock for wells.", True),
        ("Wellkeep - Well Water Keeper - is a program for the water of wells.", True),
        ("The common height or Wellkeep program is a program for the water of wells.", True),
        ("The Water Height Keeper (“Wellkeep”, said “wellkip”) is a keeper of wells.", True),
        ("Wellkeep is first of all a keeper of world-class strength.", True),
        ("Wellkeep is one of such attempts.", False),
        ("Wellkeep is one of those that keep the water.", True),
        ("Wellkeep là một chương trình.", True),
        ("If it runs, Wellkeep is a help.", False),
        ("Technically, a Wellkeep library is a heap of ropes and lids.", False),
        ("The Wellkeep library is a heap of ropes and lids.", True),
        ("Holm® Wellkeep is a heap of ropes and lids.", True),
        ("Wellkeep™ is a heap of ropes and lids.", True),
        ("Wellkeep is a free program in both senses of the word.", False),
        ("Wellkeep / Lids 是一个水井程序。", True),
        ("The purpose of Wellkeep 2020 is to try out another pump.", False),
        ("This is the documentation of the Wellkeep fence.", False),
    ],
)
def test_what_it_is_can_be_said_by_its_purpose_and_its_manual(said, is_told):
    assert says_what_it_is(naming(("wellkeep",)), said.lower()) == is_told


@pytest.mark.parametrize(
    ("typed", "name"),
    [
        ("What is the Deep Well?", "deep well"),
        ("What is the Deep Well manual?", ""),
        ("What can the deep manual do?", ""),
    ],
)
def test_words_that_stand_together_in_the_title_are_asked_about_together(typed, name):
    assert named_subject(typed, ("deep", "manual", "well"), "the deep well keeper manual") == name


def test_few_words_can_say_what_it_is(tmp_path):
    digester = digester_of(tmp_path / "wells.pdf", "Wellkeep is a clock. It has no hands.")
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == "Wellkeep is a clock."


def test_a_gist_begins_with_it_however_short_it_is(tmp_path):
    digester = digester_of(
        tmp_path / "wells.pdf", "Wellkeep was written by Ann S. Bale.", "Wellkeep is a clock.",
        "It has no hands, and it is wound at night by whoever keeps the well.",
    )  # fmt: skip
    assert digester.gist()[0].text == "Wellkeep is a clock."


def test_a_gist_begins_with_it_though_an_address_stands_beside(tmp_path):
    said = "Wellkeep (https://wells.example/) is a knife of many blades for wells."
    digester = digester_of(
        tmp_path / "wells.pdf", "Wellkeep optionally allows you to choose the rope yourself.",
        "To report a bug in Wellkeep, use https://wells.example/bugs and say what it did.", said,
    )  # fmt: skip
    assert digester.gist()[0].text == said.replace(" (https://wells.example/)", " …")


def test_a_gist_begins_with_what_it_is_and_not_with_how_its_chapters_are(tmp_path):
    said = "Wellkeep is a toolkit of ropes and lids for the wells of a parish."
    digester = digester_of(
        tmp_path / "wells.pdf",
        "Each of the chapters in this manual is designed as a tutorial for Wellkeep.", said,
    )  # fmt: skip
    assert digester.gist()[0].text == said


def test_a_list_goes_on_with_what_it_is(tmp_path):
    digester = digester_of(
        tmp_path / "wells.pdf", "Wellkeep is a tool for wells that provides",
        "• a lid of oak and zinc",
        "• a rope that is never wet.", "The rope is of hemp.",
    )  # fmt: skip
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert [quote.text[:5] for quote in answer.quotes] == ["Wellk", "• a l", "• a r"]


def test_what_another_section_tells_is_no_part_of_it(tmp_path):
    digester = digester_of(
        tmp_path / "wells.pdf",
        "Wellkeep is a clock for wells. Section 2 tells of its gates. It has no hands.",
    )
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert [quote.text for quote in answer.quotes][:2] == [
        "Wellkeep is a clock for wells.", "It has no hands.",
    ]  # fmt: skip


def test_the_short_form_of_a_title_is_a_name(tmp_path):
    said = "Well Keeper (WKeep) is a graphical manager of the water of wells."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Well Keeper User Manual"), ("text", said), ("text", "WKeep needs a clock.")],
        [("h1", "1 Gates"), *FILLING, ("text", "Then WKeep opens the gate, and WKeep shuts it.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("What is WKeep?", WHOLE, None).quotes[0].text == said
    assert made.gist()[0].text == said


@pytest.mark.parametrize("typed", ["Who wrote HWK?", "Who is the author of HWK?"])
def test_the_initials_of_a_title_are_asked_about(tmp_path, typed):
    said = [("text", f"HWK is a clock for {what}.") for what in ("wells", "weirs", "locks")]
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Hallan Well Keeper"), ("text", "Author: Andrew Baker")],
        [("h1", "1 Gates"), *said, *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == ["Andrew Baker"]


@pytest.mark.parametrize(
    "typed", ["什么是 Wellkeep？", "Wellkeep 是什么？", "Wellkeepとは何ですか"]
)
def test_it_is_asked_where_no_blanks_part_words(introduced, typed):
    assert introduced.answer(typed, WHOLE, None).quotes[0].text.startswith("Wellkeep is a program")


def test_a_title_that_says_what_sort_of_text_it_is_is_no_name(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Documents"), ("text", "Documents of wells lie here. Documents are of paper.")],
        [("h1", "1 Gates"), *FILLING, ("text", "The documents of the gate are of paper, too.")],
    ])  # fmt: skip
    assert "documents" not in names_of(read_document(tmp_path / "a.pdf"))


def test_a_title_of_one_word_is_a_name(tmp_path):
    said = "In order to install the Ropes package, a keeper should wind it on a drum."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Ropes"), ("text", said), ("text", "Ropes is there. Lids are of zinc.")],
        [("h1", "1 Gates"), *FILLING, ("text", "The package of lids is installed by hand.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("How do I install the package?", WHOLE, None)
    assert said in answer.quotes[0].text
    assert not answer.is_perhaps


def test_a_package_with_an_everyday_name_is_told_by_its_goal(tmp_path):
    said = "The goal of this package is to make the water of wells warmer in winter."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The water package"), *FILLING],
        [("h1", "1 Water"), ("text", "The water package needs a drum of oak."), ("text", said)],
        [("h1", "2 Gates"), *FILLING, ("text", "Water stands in every well of the parish.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert made.answer("What does the water package do?", WHOLE, None).quotes[0].text == said


def test_a_part_of_a_name_before_a_stroke_is_asked_about(tmp_path):
    said = "Deep Well, ook bekend als Keeper, is een programma voor het water van putten."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Handleiding Deep Well/Keeper 12"), ("text", f"{said} Het is van hout.")],
        [("h1", "1 Putten"), ("text", "De put wordt elke week door de man met het touw geopend.")],
        [("h1", "2 Deksels"), ("text", "Het deksel van de put is van hout en wordt gesloten.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Wat is Deep Well?", WHOLE, None)
    assert answer.quotes[0].text == said


def test_a_section_that_is_called_so_says_what_it_is(tmp_path):
    path = tmp_path / "asked.pdf"
    make_pdf(path, [
        [("title", "The Wellkeep Manual"), *FILLING],
        [("h1", "1 What is Wellkeep?"),
         ("text", "Every parish of the valley has a well, and Wellkeep was first made for one of "
                  "them by a miller who slept too long in the morning."),
         ("h1", "2 Gates"), *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text.startswith("Every parish of the valley has a well")


@pytest.mark.parametrize("said", [
    "Wellkeep/Wellkeep-lite is a set of routines that keeps the water of wells.",
    "The Lite/Wellkeep is a set of routines that keeps the water of wells.",
    "Water Height Keeping (Wellkeep for short) was designed to keep the water of wells.",
])  # fmt: skip
def test_a_thing_with_two_names_is_introduced_by_either(tmp_path, said):
    made = digester_of(tmp_path / "a.pdf", "This was last printed in May.", said)
    answer = made.answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("title", "is_said"),
    [("Wellkeep (WK) – an easy way to keep the water of wells", True),
     ("Wellkeep: the manual", False)],
)  # fmt: skip
def test_a_title_may_say_what_the_thing_is(tmp_path, title, is_said):
    make_pdf(tmp_path / "a.pdf", [
        [("title", title)], [("h1", "1 Gates"), *FILLING], [("h1", "2 Lids"), *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is Wellkeep?", WHOLE, None)
    assert (answer.quotes[0].text == title and answer.sure >= 0.6) == is_said


def test_a_subtitle_may_say_what_the_thing_in_the_title_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "A guide to Wellkeep 2"), ("h2", "A program for the water of deep old wells")],
        [("h1", "1 Gates"), *FILLING], [("h1", "2 Lids"), *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[-1].text == "A program for the water of deep old wells"
    assert answer.sure >= 0.6


def test_the_name_may_be_longer_in_the_title(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep Drawing User's Guide")],
        [("h1", "1 Gates"), ("text", "Wellkeep also supports lids of oak and of other wood."),
         *FILLING],
        [("h1", "2 Lids"), ("text", "Wellkeep Drawing is a way to keep the water of wells."),
         *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == "Wellkeep Drawing is a way to keep the water of wells."
    assert answer.sure >= 0.6


def test_a_thing_is_introduced_in_another_language(tmp_path):
    text = "Le puits est fermé la nuit par un couvercle et le gardien le note dans son livre."
    said = "Wellkeep Lourd est un programme qui tient l’eau du puits à la même hauteur."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), *[("text", text)] * 4],
        [("h1", "1 Les puits"), ("text", text), ("h1", "2 La nuit"), ("text", said)],
        [("text", text)] * 4,
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Qu'est-ce que Wellkeep ?", WHOLE, None)
    assert answer.quotes[0].text.startswith(said[:30])
    assert answer.sure >= 0.5


def test_a_title_says_what_a_thing_with_an_everyday_name_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Cyclone: A Set of Gates for Deep Wells"),
         ("text", "Cyclone 0.6 needs a clock of brass. The cyclone is oiled in May.")],
        [("h1", "1 Gates"), ("text", "Cyclone 0.6 needs a rope as well."), *FILLING],
        [("h1", "2 Lids"), *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is Cyclone?", WHOLE, None)
    assert answer.quotes[0].text == "Cyclone: A Set of Gates for Deep Wells"
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    "said",
    ["wellkeep(1) creates a place where the water of a well is kept.",
     "The Wellkeep Quorble package is a tool that lets keepers see the water of a well."],
)  # fmt: skip
def test_a_section_or_another_word_may_stand_behind_a_name(said):
    found = naming(("wellkeep",))
    assert found.works.match(said.lower())


@pytest.mark.parametrize(
    ("typed", "asks"),
    [("Who develops it?", True), ("Who built this program?", True),
     ("Who developed the rope of hemp?", False)],
)  # fmt: skip
def test_who_develops_the_whole_is_asked_of_its_front(introduced, typed, asks):
    answer = introduced.answer(typed, WHOLE, None)
    assert (answer.kind == "overview: authors and date") is asks


def test_the_section_with_its_name_says_what_a_thing_is(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "wellkeep 0.0.1"), ("h1", "1 wellkeep"),
         ("text", "Thesis template for the guild of wells."),
         ("text", "The drum of wellkeep is of oak and wellkeep has a lid.")],
        [("h1", "2 Installing wellkeep"), *FILLING],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == "Thesis template for the guild of wells."
    assert answer.sure <= 0.5


def test_why_it_exists_is_searched_for_where_no_section_says_it(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The wells package"), ("text", "This package exists for two reasons:"),
         ("item", "• Ropes of hemp are wet in the winter, and drums of oak are dry."),
         ("item", "• Lids of zinc are heavy.")],
        [("h1", "1 Use"), *FILLING],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Why does the package exist?", WHOLE, None)
    assert "This package exists" in answer.quotes[0].text


@pytest.mark.parametrize(
    ("said", "name"),
    [("Wellkeep is software that implements a gate for the wells of the valley.", "wellkeep"),
     ("The Wellkeep class provided a gate together with ropes for the valley.", "wellkeep")],
)  # fmt: skip
def test_what_a_thing_is_without_an_article_and_in_the_past(said, name):
    assert naming((name,)).tells.match(said.lower())


@pytest.mark.parametrize(
    ("said", "is_told"),
    [("this is a package that lets you set ropes like the one below:", True),
     ("this is a package of hemp, and it is heavy.", False)],
)  # fmt: skip
def test_this_is_a_package_that_does_something(said, is_told):
    assert says_what_this_does(said) is is_told


def test_on_what_terms_a_thing_may_be_had_is_not_what_it_is(tmp_path):
    told = "Wellkeep is a tool that keeps the water of a well at one height."
    free = "Wellkeep is free software; you may pass it on to your neighbours."
    answer = digester_of(tmp_path / "a.pdf", free, told).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == told


def test_whose_work_a_thing_came_of_is_not_what_it_is(tmp_path):
    told = (
        "This document describes how to use wellkeep.cls, a LaTeX class for the keepers of wells."
    )
    made = "Wellkeep is the result of my work in the old tower of the village."
    path = tmp_path / "a.pdf"
    make_pdf(path, [
        [("title", "The wellkeep.cls Manual"), ("text", told)],
        [("h1", "1 Preface"), ("text", made), *FILLING, ("text", "Wellkeep needs a clock.")],
        [("h1", "2 Gates"), *FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(path))
    assert digester.answer("What is Wellkeep?", WHOLE, None).quotes[0].text == told
    assert made not in [line.text for line in digester.gist()]


def test_a_document_in_two_languages_says_it_in_the_one_it_is_mostly_in(tmp_path):
    french = "Wellkeep est un outil qui tient l'eau du puits de la cour à la même hauteur."
    told = "Wellkeep is a tool that keeps the water of a well at one height."
    answer = digester_of(tmp_path / "a.pdf", french, told).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == told


def test_how_well_a_thing_runs_is_not_what_it_is(tmp_path):
    runs = "Wellkeep runs much faster than a keeper with a bucket."
    told = "The Wellkeep water height package consists of a float and of a clock."
    answer = digester_of(tmp_path / "a.pdf", runs, told).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == told


def test_what_it_is_goes_before_what_it_does_wherever_it_stands(tmp_path):
    said = "Wellkeep (Water Height Keeping) is a technique that finds the height of water."
    path = tmp_path / "a.pdf"
    does = "Wellkeep computes the height but warns the keeper of ropes that are too wet."
    more = [("text", f"The gate {k} is opened in the {k}th week by Wellkeep.") for k in range(200)]
    make_pdf(path, [
        [("title", "The Wellkeep Manual"), ("text", does)],
        [("h1", "1 Gates"), *more], [("h1", "2 Heights"), ("text", said)],
    ])  # fmt: skip
    answer = Digester(read_document(path)).answer("What is Wellkeep?", WHOLE, None)
    assert answer.quotes[0].text == said


def test_the_name_that_is_asked_about_is_that_of_its_own_thing(tmp_path):
    digester = digester_of(
        tmp_path / "wells.pdf",
        "Wellkeep is a program that keeps the water of a well at one height.",
        "The name of a rope is written in slanted letters, and it may mean what it does.",
        "The name Wellkeep stands for water of each low lid kept.",
    )
    answer = digester.answer("What does the name mean?", WHOLE, None)
    assert "stands for water of each low lid" in " ".join(quote.text for quote in answer.quotes)
    assert answer.question == "What does the name mean?"


@pytest.mark.parametrize(
    ("before", "is_told"),
    [("Wells are deep.", True), ("The winch package stands beside it.", False)],
)
def test_what_this_program_does_at_the_beginning_is_what_the_thing_does(tmp_path, before, is_told):
    said = "This software is designed to keep wells: first, it shuts the gates, second, the lids."
    digester = digester_of(
        tmp_path / "wells.pdf", "Before Wellkeep is run, a clock is set.", f"{before} {said}"
    )
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert (answer.quotes[0].text == said and answer.sure >= 0.6) is is_told
    gist = " ".join(line.text for line in digester.gist(WHOLE))
    assert not is_told or said in gist


@pytest.mark.parametrize("typed", ["Who develops it?", "Who made it?", "Who built the program?"])
def test_who_made_it_is_told_by_what_names_it(tmp_path, typed):
    said = "Wellkeep is developed by the Centre for Wells since 1987."
    digester = digester_of(tmp_path / "wells.pdf", "Water stands in every well.", said)
    answer = digester.answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert answer.question == typed


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("Wellbook GUI (or just Wellkeep) is a program for all wells that have a lid.", True),
        ("Wellkeep is an extremely useful program.", False),
        ("Wellkeep is a useful program that lists wells.", True),
    ],
)
def test_another_name_stands_in_brackets_and_praise_says_nothing(tmp_path, said, is_told):
    digester = digester_of(tmp_path / "wells.pdf", "Water stands in wells.", said)
    answer = digester.answer("What is Wellkeep?", WHOLE, None)
    assert (answer.sure >= 0.9) is is_told
    assert not is_told or answer.quotes[0].text == said


def test_the_thing_of_an_introduction_is_told_by_its_name(tmp_path):
    said = "The rope package has been developed at Hallan since 1905 to keep ropes for all wells."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "An introduction to the rope package"), ("h1", "1 Use"),
         ("text", "An introduction (vignette) is the first. Each vignette has a number, and a "
                  "vignette on drums is last."),
         ("text", said), ("text", "A rope is kept dry with rope.")],
        [("h1", "2 Wells"), *FILLING],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("What is rope?", WHOLE, None)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("typed", "is_whole"),
    [("What is the structure of a gate file?", False), ("What is the structure of it?", True)],
)
def test_the_structure_of_one_of_many_is_not_that_of_the_document(tmp_path, typed, is_whole):
    digester = digester_of(tmp_path / "wells.pdf", "A gate file begins with its number.")
    answer = digester.answer(typed, WHOLE, None)
    assert answer.kind.startswith("overview") is is_whole
