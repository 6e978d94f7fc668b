"""What a question leaves open at its end, and what only asks for a description."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.answers.candidates import fitness, only_points
from wide_margin.core.answers.evidence import SAYS_WHAT
from wide_margin.core.answers.question import read_question, topic_of
from wide_margin.core.answers.signs import asked_relation, has_relation, sign_of
from wide_margin.core.passages import Sentence


@pytest.mark.parametrize(
    ("question", "relation"),
    [
        ("What language is the program written in?", ("program", "written", "in")),
        ("Which metal are the lids made of?", ("lids", "made", "of")),
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
