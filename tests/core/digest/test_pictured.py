"""Asked what a figure shows, how many there are, and what the last chapter is about."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = "The winch is wound by hand in calm weather, and its drum is greased in the spring."


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("pictured") / "winch.pdf"
    make_pdf(path, [
        [("title", "On winches"), ("h1", "1 Drums"), ("text", FILLER),
         ("text", "The drum of a winch is turned by two men, as can be seen in Figure 1."),
         ("text", "Figure 1: A drum with its rope, seen from above")],
        [("h1", "2 Ropes"), ("text", FILLER),
         ("text", "Table 1: Lengths of rope by year"),
         ("text", "Most ropes last nine years, and Figure 7 is left for the reader."),
         ("text", "Figure 2: The rope locker")],
        [("h1", "3 Lockers"), ("text", FILLER),
         ("text", "Ropes are hung up in the locker to dry, never in the sun.")],
        [("h1", "References"), ("text", "[1] A keeper. On ropes. The harbour press, 1911.")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize("typed", [
    "What does figure 1 show?", "What is Figure 1 about?", "Describe fig. 1",
    "What can I see in figure 1?", "What is shown in figure 1?", "Explain the figure 1",
    "Was zeigt Abbildung 1?",
])  # fmt: skip
def test_a_figure_is_told_by_its_caption_and_by_what_is_said_of_it(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith("Figure 1: A drum with its rope")
    assert "turned by two men" in answer.quotes[1].text
    assert answer.sure >= 0.8
    assert answer.excerpts[0].locator.page == 0


def test_a_figure_that_is_not_there_is_declined(digester):
    answer = digester.answer("What does table 4 show?", WHOLE, None)
    assert answer.declined
    assert answer.reason == "No table 4 was found."


def test_a_figure_that_the_text_alone_speaks_of_is_searched_for(digester):
    answer = digester.answer("What does figure 7 show?", WHOLE, None)
    assert answer.reason != "No figure 7 was found."


def test_what_else_is_asked_of_a_figure_is_no_question_for_its_caption(digester):
    answer = digester.answer("How many men turn the drum in figure 1?", WHOLE, None)
    assert not answer.kind.startswith("overview")


@pytest.mark.parametrize(
    ("typed", "told"),
    [
        ("How many pages does it have?", "Counted: 4 pages."),
        ("How many figures are there in this document?", "Counted: 2 figures."),
        ("How many tables are there?", "Counted: 1 table."),
        ("What language is it in?", "Its text is in English."),
        ("In which language is this manual written?", "Its text is in English."),
        ("How many chapters does the book have?", "Counted: 3 chapters."),
        ("Wie viele Kapitel hat das Buch?", "Counted: 3 chapters."),
        ("Combien de figures y a-t-il ?", "Counted: 2 figures."),
        ("¿Cuántas páginas tiene el libro?", "Counted: 4 pages."),
    ],
)
def test_what_the_document_does_not_say_is_counted(digester, typed, told):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.declined
    assert answer.reason == told


def test_the_documents_own_count_goes_first(tmp_path):
    path = tmp_path / "winch.pdf"
    said = "This book has nine chapters, of which six were lost when the harbour was flooded."
    make_pdf(path, [[("h1", "1 Drums"), ("text", said)], [("h1", "2 Ropes"), ("text", FILLER)]])
    answer = Digester(read_document(path)).answer("How many chapters are there?", WHOLE, None)
    assert "This book has nine chapters" in answer.quotes[0].text


def test_the_last_chapter_is_no_list_of_works(digester):
    answer = digester.answer("What is the last chapter about?", WHOLE, None)
    assert {at.page for quote in answer.quotes for at in quote.locators} == {2}
