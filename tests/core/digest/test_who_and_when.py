"""Asked who made something or when it was: what tells it goes first, all else is not sure."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, Quote
from wide_margin.core.digest import Digester
from wide_margin.core.digest.who_and_when import with_measure

MORE = (
    "The developers of the mill use the quorble every day, and the quorble is developed further.",
    "Those who write for the quorble are asked to wind it at the mill.",
)


def answer_of(path, typed, *said):
    told = [("text", text) for text in (*MORE, *said)]
    make_pdf(path, [[("h1", "1 Ropes"), *told, ("h1", "2 Ends"), ("text", "It is late.")]])
    return Digester(read_document(path)).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("Who wrote the quorble?", "The quorble was originally written by Marta Lindqvist."),
        ("Who developed the quorble?", "The quorble is a pump for wells, made by Aino Holm."),
        ("Who has designed the quorble?", "Marta Lindqvist and Aino Holm designed the quorble."),
        ("Who built the quorble?", "The authors of the quorble are Marta Lindqvist and A. Holm."),
        ("Who invented the quorble?", "It stands beside the quorble, invented by Karl Aas."),
        ("Who made the quorble?", "The quorble is a pump of oak. It was built at Skerrow Mill."),
        ("Who invented the quorble?", "The quorble was drawn and first built by Karl Aas in 1884."),
        ("Who wrote the quorble?", "The original author of the quorble (Karl Aas) left it to us."),
        ("Who is the author of the quorble?", "Much of it is from Quorble 2, as made by Karl Aas."),
        ("Who wrote the quorble software?", "The quorble software was written by Karl Aas."),
        ("Who made the quorble?", "The first version of the quorble was made by Karl Aas."),
        ("Who wrote quorble?", "Here quorble by Aino Holm and Karl Aas does no such thing."),
        ("Who wrote the quorble?", "The Quorble's first author Karl Aas left it at the mill."),
    ],
)
def test_what_says_by_whom_a_thing_was_made_answers(tmp_path, typed, said):
    answer = answer_of(tmp_path / "a.pdf", typed, said)
    assert said in " ".join(quote.text for quote in answer.quotes)
    assert answer.sure >= 0.7


@pytest.mark.parametrize(
    "said",
    [
        "The quorble is a successor to Windle, a pump built by Karl Aas.",
        "Karl Aas made a special version of the quorble for the mill.",
        "The quorble is kept by Karl Aas and it stands by Skerrow Mill.",
        "The quorble uses the pump written by Marta Lindqvist.",
        "The quorble is a copy of the pump which was developed by Aino Holm.",
        "It is a drum for the quorble. It was built by Karl Aas.",
        "The quorble is not written by Marta Lindqvist.",
        "The notes for use of the quorble were written by Marta Lindqvist.",
        "The quorble handbook was written by Marta Lindqvist.",
        "Files created with the quorble are kept by Aino Holm.",
        "• Quorble: Names are given by the guild. This is built by Skerrow Mill as well.",
    ],
)
def test_what_says_it_of_another_thing_is_no_sure_answer(tmp_path, said):
    assert answer_of(tmp_path / "a.pdf", "Who developed the quorble?", said).sure <= 0.5


def test_who_does_something_is_another_question(tmp_path):
    said = "The steward winds the quorble at dawn."
    answer = answer_of(tmp_path / "a.pdf", "Who winds the quorble?", said)
    assert said in answer.quotes[0].text


@pytest.mark.parametrize(
    ("said", "least", "most"),
    [
        ("The quorble was first wound in May 1884 by the smith.", 0.35, 1.0),
        ("The quorble was wound when the mill burned down.", 0.0, 1.0),
        ("The quorble was first wound by the smith of the mill.", 0.0, 0.3),
    ],
)
def test_what_tells_no_time_is_no_sure_answer_to_when(tmp_path, said, least, most):
    answer = answer_of(tmp_path / "a.pdf", "When was the quorble first wound?", said)
    assert least <= answer.sure <= most


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("The quorble has sails for a storm, and each of the sails is mended in May.", True),
        ("The quorble has sails, and the sails of the quorble are mended by the smith.", False),
        ("The quorble has as many sails as it has arms.", True),
    ],
)
def test_what_tells_no_number_is_no_sure_answer_to_how_many(tmp_path, said, is_told):
    typed = "How many sails does the quorble have?"
    answer = answer_of(tmp_path / "a.pdf", typed, "The quorble has four sails.")
    quoted = replace(answer, quotes=(Quote(said, answer.quotes[0].locators),), sure=0.8)
    assert with_measure(quoted).sure == (0.8 if is_told else 0.3)


@pytest.mark.parametrize(
    ("typed", "said", "sure"),
    [("How many sails do I need?", "Now you have two sails.", 0.3),
     ("How many sails are needed?", "You need two sails for each arm.", 0.8),
     ("How many sails are required?", "At least two sails are set.", 0.8),
     ("How many sails are there?", "Now you have two sails.", 0.8),
     ("Why are there sails?", "The Sails of the Quorble, Second Edition", 0.3),
     ("Why are there sails?", "The sails catch the wind.", 0.8)],
)  # fmt: skip
def test_what_tells_no_need_and_no_reason_is_no_sure_answer_to_these(tmp_path, typed, said, sure):
    answer = answer_of(tmp_path / "a.pdf", typed, "The quorble needs four sails, as it is heavy.")
    quoted = replace(answer, quotes=(Quote(said, answer.quotes[0].locators),), sure=0.8)
    assert with_measure(quoted).sure == sure


def test_what_names_nobody_is_no_sure_answer_to_who(tmp_path):
    typed = "Who winds the Quorble at the mill?"
    answer = answer_of(tmp_path / "a.pdf", typed, "The steward winds the Quorble at the mill.")
    at = answer.quotes[0].locators
    for said, sure in (("At dawn Karl Aas winds it.", 0.8), ("At dawn the Quorble is wound.", 0.3)):
        assert with_measure(replace(answer, quotes=(Quote(said, at),), sure=0.8)).sure == sure


@pytest.mark.parametrize(
    ("typed", "said", "sure"),
    [("Which quorble is the fastest?", "A quorble of oak is a quorble with sails.", 0.3),
     ("Which quorble is the fastest?", "A quorble of oak is faster than any other quorble.", 0.8),
     ("Which quorble works best?", "The keeper prefers a quorble of oak.", 0.8),
     ("Which quorble works best?", "Every quorble works by wind.", 0.3)],
)  # fmt: skip
def test_what_sets_nothing_above_others_is_no_sure_answer_to_which_is_best(
    tmp_path, typed, said, sure
):
    answer = answer_of(tmp_path / "a.pdf", typed, "The fastest quorble works best and is of oak.")
    quoted = replace(answer, quotes=(Quote(said, answer.quotes[0].locators),), sure=0.8)
    assert with_measure(quoted).sure == sure


def test_the_number_of_something_else_is_no_sure_answer_to_how_many(tmp_path):
    typed = "How many sails does the quorble have?"
    answer = answer_of(tmp_path / "a.pdf", typed, "The quorble has four sails.")
    for said in (
        "6. SAILS OF THE QUORBLE",
        "In 1884 the quorble lost the cloth of the sails that it has.",
    ):
        quoted = replace(answer, quotes=(Quote(said, answer.quotes[0].locators),), sure=0.8)
        assert with_measure(quoted).sure == 0.3


def test_who_wrote_what_the_manual_is_on_is_told_where_the_text_says_it(tmp_path):
    said = "The original author of Wellkeep (Karl Aas) left it to the mill in 2005."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), ("text", MORE[0])], [("h1", "1 History"), ("text", said)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Who wrote Wellkeep?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == [said]


@pytest.mark.parametrize(
    ("said", "sure"),
    [
        ("The quorble is turned by the sail cloth of the mill.", 0.8),
        ("The quorble is turned by the cloth.", 0.3),
    ],
)
def test_one_word_of_what_is_asked_for_is_no_sure_answer(tmp_path, said, sure):
    typed = "Which sail cloth does the quorble have?"
    answer = answer_of(tmp_path / "a.pdf", typed, "The quorble has sail cloth of linen.")
    quoted = replace(answer, quotes=(Quote(said, answer.quotes[0].locators),), sure=0.8)
    assert with_measure(quoted).sure == sure


def test_a_word_for_many_is_no_sum(tmp_path):
    typed = "How much does the guild charge for the plans of the quorble?"
    said = "The guild charges for the plans of the quorble an unlimited number of its members."
    assert answer_of(tmp_path / "a.pdf", typed, said).sure <= 0.3
    said = "The guild charges for the plans of the quorble an unlimited number of coins, or $20."
    assert answer_of(tmp_path / "b.pdf", typed, said).sure > 0.3


@pytest.mark.parametrize(
    ("said", "is_told"),
    [("Since then, maintenance of Wellkeep has been taken over by Ann Bale.", True),
     ("The program is now maintained by Ann Bale.", True),
     ("Maintainer: Ann Bale", True),
     ("The lids of some are maintained by Ann Bale.", False),
     ("Lids are kept in the dry.", False)],
)  # fmt: skip
def test_who_looks_after_it_may_be_told_in_the_text(tmp_path, said, is_told):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), ("text", "by Cy Dow")],
        [("h1", "1 Thanks"), ("text", "Wellkeep draws water from wells."), ("text", said)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Who maintains it?", WHOLE, None)
    assert (answer.quotes[0].text == said) == is_told
    assert (answer.sure > 0.3) == is_told


def test_titles_of_works_tell_nobody_who_made_a_thing(tmp_path):
    works = [("item", f"[{k}] Dow, C. Wellkeep, how it was developed ({1990 + k}). Well Press.")
             for k in range(1, 9)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Lids"), ("text", "Wellkeep was developed for the wells of the moor.")],
        [("h1", "References"), *works],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Who developed Wellkeep?", WHOLE, None)
    assert all(quote.locators[0].page == 0 for quote in answer.quotes)
    assert answer.sure <= 0.3


def test_a_question_that_is_declined_is_not_answered_by_what_is_near(tmp_path):
    answer = answer_of(tmp_path / "a.pdf", "Who designed the copper roof of the town hall?")
    assert answer.declined
    assert answer.quotes == ()


def test_a_thing_may_be_named_with_what_it_is_for(tmp_path):
    said = "It is done with the Quorble Winding Software developed by the Guild of Skerrow."
    answer = answer_of(tmp_path / "a.pdf", "Who developed the quorble?", said)
    assert said in answer.quotes[0].text
    assert answer.sure >= 0.7


def test_what_was_put_together_was_made(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("text", "The bones language was put together by Ann Bale of Orm."),
         ("text", "A language is a thing that keepers speak, and bones are white.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("Who wrote the bones language?", WHOLE, None)
    assert "put together by Ann Bale" in answer.quotes[0].text
    assert answer.sure >= 0.75


@pytest.mark.parametrize(
    ("typed", "is_author"),
    [("Who developed Quorble?", True), ("Who developed the drum?", False)],
)
def test_those_who_wrote_of_a_thing_are_the_nearest_to_who_made_it(tmp_path, typed, is_author):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Quorble User Guide"), ("text", "by Ann Bale"),
         ("text", "Quorble winds ropes. When Quorble was developed, the drum was too."),
         ("text", "The drum of Quorble is developed as ropes grow, and Quorble turns it daily.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert ([quote.text for quote in answer.quotes] == ["Ann Bale"]) is is_author
    assert answer.sure <= 0.5


@pytest.mark.parametrize(
    ("typed", "said", "names"),
    [
        ("Which function winds the rope?", "The rope is wound by wind_rope in the summer.", True),
        ("Which command winds the rope?", "The “wind” command winds a rope for the keeper.", True),
        ("Which option winds the rope?", "The rope is wound on its drum if that is wanted.", False),
        ("With which macro is the rope wound?", "A rope is wound on a drum by the keeper.", False),
        ("What winds the rope?", "The rope is wound on its drum by the old one.", True),
    ],
)
def test_what_names_none_is_not_sure_where_a_name_of_code_is_asked_for(
    tmp_path, typed, said, names
):
    answer = answer_of(tmp_path / "a.pdf", "How is the rope wound?", said)
    quoted = replace(answer.quotes[0], text=said)
    sure = replace(answer, question=typed, quotes=(quoted,), sure=0.8)
    assert (with_measure(sure).sure == 0.8) is names
