"""Asked whether and where a document speaks of something, and which figures and works it has."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.cli import answer_as_json, coverage_line
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."
WORKS = (
    "[1] A. Keeper. On ropes and lids. The harbour press, 1911.",
    "[2] B. Miller. Stones and sails. In Proceedings of the mills, pages 4-9, 1923.",
    "[3] C. Ringer. Bells in fog. Journal of towers, 7(2), 1931.",
)


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("mentioned") / "winch.pdf"
    make_pdf(path, [
        [("title", "On winches"), ("h1", "1 Drums"), ("text", FILLER),
         ("text", "Every window of the shed looks out on the mole and on the fog bell."),
         ("text", "Figure 1: A drum with its rope")],
        [("h1", "2 Fog bells"), ("text", FILLER),
         ("text", "A fog bell is rung by hand. The bells of the Morse Company ring by clockwork."),
         ("text", "Figure 2: A bell, seen from below")],
        [("h1", "References"), *(("text", work) for work in WORKS)],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize("typed", [
    "Does it mention fog bells?", "Where is the fog bell mentioned?", "Are fog bells discussed?",
    "Which pages mention fog bells?", "Is there anything about fog bells?",
    "Does the manual say anything about fog bells?", "Does this document cover fog bells at all?",
])  # fmt: skip
def test_the_places_that_speak_of_it_are_shown_each_on_its_page(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert sorted(quote.locators[0].page for quote in answer.quotes) == [0, 1]
    assert all("fog bell" in quote.text.lower() for quote in answer.quotes)
    assert answer.n_found == 0
    assert answer.sure >= 0.8


@pytest.mark.parametrize("typed", [
    "What are the abbreviations?", "List all acronyms", "Which abbreviations are used?",
    "Explain the abbreviations", "What do the acronyms stand for?", "List all the abbreviations",
])  # fmt: skip
def test_short_forms_are_listed_as_they_are_spelled_out(tmp_path, typed):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Drums"), ("text", FILLER),
         ("text", "The Board of Rope Makers (BRM) and the Harbour Light Office (HLO, now closed)"
                  " both keep a winch. The BRM greases it.")],
        [("h1", "2 Bells"), ("text", "The Board of Rope Makers (BRM) rings the bell.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [
        "Board of Rope Makers (BRM)", "Harbour Light Office (HLO …)",
    ]  # fmt: skip


def test_without_short_forms_none_are_listed(digester):
    answer = digester.answer("What are the abbreviations?", WHOLE, None)
    assert answer.declined
    assert answer.reason == "No short form is spelled out."


def test_how_many_places_there_are_is_told_where_not_all_are_shown(tmp_path):
    said = "The lantern is trimmed at dusk, and its glass is wiped by keeper number"
    make_pdf(tmp_path / "a.pdf", [[("text", FILLER), ("text", f"{said} {k}.")] for k in range(14)])
    digester = Digester(read_document(tmp_path / "a.pdf"))
    places = digester.answer("Which pages mention the lantern?", WHOLE, None)
    assert (len(places.quotes), places.n_found) == (12, 14)
    assert "12 of 14 shown" in coverage_line(places)
    assert answer_as_json(places)["found"] == 14
    nowhere = digester.answer("Which pages mention the anchor?", WHOLE, None)
    assert (nowhere.quotes, nowhere.n_found) == ((), 0)


@pytest.mark.parametrize(
    ("typed", "reason"),
    [
        ("Does it mention Windows?", "“Windows” is not mentioned in these words."),
        ("Does it mention batteries?", "“batteries” is not mentioned in these words."),
        ("Is there a glossary?", "No glossary was found."),
        ("List all tables", "No tables were found."),
        ("Is there a chapter about steam?",
         "No section is called “steam”, and the words stand nowhere."),
    ],
)  # fmt: skip
def test_what_is_not_there_is_said_to_be_missing(digester, typed, reason):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.declined
    assert answer.reason == reason


@pytest.mark.parametrize("typed", [
    "Wird die Morse Company erwähnt?", "Wo wird Morse erwähnt?", "Gibt es etwas über Morse?",
    "Est-ce qu'on parle de Morse ?", "¿Se menciona Morse?", "Si parla di Morse?",
])  # fmt: skip
def test_it_is_asked_in_other_languages_too(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert "Morse Company" in answer.quotes[0].text


@pytest.mark.parametrize(("typed", "is_there"), [
    ("Does it mention C++?", True), ("Is C# mentioned?", False), ("Does it mention “C++”?", True),
])  # fmt: skip
def test_signs_belong_to_a_name(tmp_path, typed, is_there):
    path = tmp_path / "lamp.pdf"
    make_pdf(
        path,
        [
            [
                ("h1", "1 Lamps"),
                ("text", FILLER),
                ("text", "The clock of the lamp is written in C++ and was never changed."),
            ]
        ],
    )
    answer = Digester(read_document(path)).answer(typed, WHOLE, None)
    assert answer.declined != is_there


def test_a_name_is_looked_for_letter_by_letter(digester):
    answer = digester.answer("Does it mention Morse?", WHOLE, None)
    assert "Morse Company" in answer.quotes[0].text


def test_words_are_found_with_other_endings(digester, tmp_path):
    answer = digester.answer("Does it mention companies?", WHOLE, None)
    assert "Morse Company" in answer.quotes[0].text
    path = tmp_path / "boote.pdf"
    said = "Die Boote liegen im Hafen, und der Wärter zählt sie, wenn die Lampe brennt."
    more = "Er schreibt auf, welches von ihnen noch auf dem Wasser ist und wer darin sitzt."
    make_pdf(path, [[("h1", "1 Hafen"), ("text", f"{said} {more}")]])
    answer = Digester(read_document(path)).answer("Werden Lampen erwähnt?", WHOLE, None)
    assert "wenn die Lampe brennt" in answer.quotes[0].text


def test_a_section_is_told_by_its_title(digester):
    answer = digester.answer("Is there a section about bells?", WHOLE, None)
    assert answer.quotes[0].text == "2 Fog bells"


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("Which figures are there?", ["Figure 1: A drum", "Figure 2: A bell"]),
        ("Which works are cited?", [work[:20] for work in WORKS]),
        ("Is there a bibliography?", ["References"]),
    ],
)
def test_figures_and_works_are_listed(digester, typed, said):
    quotes = digester.answer(typed, WHOLE, None).quotes
    assert len(quotes) == len(said)
    assert all(quote.text.startswith(begin) for quote, begin in zip(quotes, said, strict=True))


@pytest.mark.parametrize(
    "typed",
    [
        "Does it mention how the drum is greased?",
        "Does the winch cover the drum?",
        "Are drums covered?",
    ],
)
def test_other_questions_are_left_to_the_search(digester, typed):
    assert not digester.answer(typed, WHOLE, None).kind.startswith("overview: mentioned")


@pytest.mark.parametrize("typed", [
    "List the main sections", "Which chapters are there?", "Show me the table of contents",
    "What sections does it have?", "Welche Kapitel gibt es?", "Quelles sections y a-t-il ?",
])  # fmt: skip
def test_the_outermost_sections_are_listed(digester, typed):
    quotes = digester.answer(typed, WHOLE, None).quotes
    assert [quote.text for quote in quotes] == ["1 Drums", "2 Fog bells", "References"]
    assert [quote.locators[0].page for quote in quotes] == [0, 1, 2]


def test_asked_on_which_pages_more_of_them_are_shown(tmp_path):
    pages = [[("h1", f"{k} Part {k}"), ("text", f"{FILLER} A capstan was put up in 19{k:02}.")]
             for k in range(1, 10)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert len(made.answer("Which pages mention the capstan?", WHOLE, None).quotes) == 9
    assert len(made.answer("Does it mention a capstan?", WHOLE, None).quotes) == 4
