"""Sentences taken apart: which part is which, and that no word is lost."""

import re

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from wide_margin.core.explain import other_units, stands_for, take_apart


@pytest.mark.parametrize(
    ("sentence", "main", "others"),
    [
        (
            "If the file is missing, the server writes a warning to the log and stops.",
            "the server writes a warning to the log and stops",
            [("condition", "If", "the file is missing")],
        ),
        (
            "The keeper reads the gauge every hour, unless the harbour is frozen.",
            "The keeper reads the gauge every hour",
            [("exception", "unless", "the harbour is frozen")],
        ),
        (
            "Although the sample is small, the estimate is stable because each station was read twice.",
            "the estimate is stable",
            [("concession", "Although", "the sample is small"),
             ("reason", "because", "each station was read twice")],
        ),
        (
            "The gauge, if it is running, removes the lock (which must be empty) so that the next run succeeds.",
            "The gauge … removes the lock",
            [("condition", "if", "it is running"), ("purpose", "so that", "the next run succeeds"),
             ("aside", "", "which must be empty")],
        ),
        (
            "If A, B and C are set, the result is zero.",
            "the result is zero",
            [("condition", "If", "A, B and C are set")],
        ),
        (
            "The keeper, who lives at the mill, reads the gauge, but he does not write on Sundays.",
            "The keeper … reads the gauge",
            [("aside", "", "who lives at the mill"),
             ("contrast", "but", "he does not write on Sundays")],
        ),
        (
            "You can also use the command when the system is offline, provided that the cache is full.",
            "You can also use the command",
            [("condition", "when", "the system is offline"),
             ("condition", "provided that", "the cache is full")],
        ),
        (
            "Colours are taken over by the branches, so when we colour the root, it turns grey.",
            "Colours are taken over by the branches",
            [("result", "so", "it turns grey"), ("condition", "when", "we colour the root")],
        ),
        (
            "Packages produce a result which, though even, is hard to understand.",
            "Packages produce a result which … is hard to understand",
            [("concession", "though", "even")],
        ),
    ],
)  # fmt: skip
def test_the_main_statement_comes_first_and_the_rest_by_its_tie(sentence, main, others):
    first, *rest = take_apart(sentence)
    assert (first.kind, first.text) == ("main", main)
    assert [tuple(part) for part in rest] == others


@pytest.mark.parametrize(
    "sentence",
    [
        "The default is to print the name of the file that is being read.",
        "It has been available since version 2.1.",
        "Check whether the mark has moved.",
        "The aspects that we wanted are described in the list of all the parts.",
        "The temperature is most likely due to the wind from the north.",
        "A file, a folder and a link are all the same to it.",
    ],
)
def test_what_cannot_be_told_surely_stays_whole(sentence):
    (only,) = take_apart(sentence)
    assert (only.kind, only.text.rstrip(".")) == ("main", sentence.rstrip("."))


WORDS = st.lists(
    st.sampled_from(
        ["the", "keeper", "gauge", "reads", "writes", "if", "unless", "because", "when", ",", "and", "but", "which", "is", "not", "although", "harbour", "(", ")", ":", ";", "so", "that", "it", "runs", "while", "old"]
    ),
    min_size=3, max_size=24,
)  # fmt: skip


@given(WORDS)
@example(words=[",", "which", "the"])
@example(words=[",", "if", "reads", ",", "the", ":", "keeper", "reads"])
def test_every_word_is_in_some_part(words):
    sentence = " ".join(words).replace(" ,", ",") + "."
    kept = " ".join(f"{p.tie} {p.text}" for p in take_apart(sentence))
    wanted = sorted(re.findall(r"\w+", sentence.lower()))
    assert sorted(re.findall(r"\w+", kept.lower())) == wanted


def test_a_word_that_points_back_is_named_or_two_are():
    before = ["The control book is kept by the office.", "The installer copies the control book."]
    (found,) = stands_for("They say that it must be written anew.", before)[-1:]
    assert found.word == "it"
    assert 1 <= len(found.candidates) <= 2
    assert "control book" in " ".join(found.candidates).lower()


def test_the_latter_is_the_second_of_two():
    (found,) = stands_for("The latter is better.", ["There are two forms, the long list and the short list."])  # fmt: skip
    assert found.candidates == ("the short list",)


@pytest.mark.parametrize("sentence", ["It is possible to read it by night.", "It seems clear."])
def test_it_that_stands_for_nothing_is_left_alone(sentence):
    assert all(s.word != "It" for s in stands_for(sentence, ["The gauge stood at the mill."]))


@pytest.mark.parametrize(
    ("text", "other"),
    [("12 feet", "3.7 m"), ("20 °C", "68 °F"), ("3,500 m", "11,480 ft"), ("5.25 inches", "13.3 cm"),
     ("2 nautical miles", "3.7 km")],
)  # fmt: skip
def test_quantities_are_given_in_the_other_unit(text, other):
    (measure,) = other_units(f"It was {text} away.")
    assert (measure.written, measure.other) == (text, other)


def test_a_number_without_a_plain_unit_is_left_alone():
    assert other_units("In 1999 m/s was used, 12 men came, and 3 m² were left.") == ()


def test_a_verb_or_an_address_is_nothing_that_a_word_stands_for():
    before = ["Write it in English.", "The library (see http://example.org) is small."]
    (found,) = stands_for("Its validation is based on comparisons.", before)
    assert "http" not in found.candidates
    (found,) = stands_for("Say what the function does, and what it gets.", ["Please write."])
    assert "the function" in found.candidates
    assert "write" not in found.candidates


@pytest.mark.parametrize(
    "sentence",
    [
        "In such a file, it is quite possible to have two names.",
        "It is often the case that local changes are made to it by hand.",
        "It took one keeper two days to go through them.",
        "Even a weak lock helps, and it is not written down that there is one.",
        "It has always been easy to find the way.",
        "It turns out that nobody had looked.",
    ],
)
def test_an_it_that_stands_for_nothing(sentence):
    found = stands_for(sentence, ["The gauge stood at the mill for forty years."])
    assert not [s for s in found if s.word == "It"]
    assert len([s for s in found if s.word == "it"]) == sentence.endswith("by hand.")


@pytest.mark.parametrize(
    ("sentence", "stands"),
    [
        ("It is used to measure the tide.", "The gauge"),
        ("It is a tool for keepers.", "The gauge"),
        ("It was moved to the mill.", "The gauge"),
    ],
)
def test_an_it_that_stands_for_something(sentence, stands):
    (found,) = stands_for(sentence, ["The gauge hangs there."])
    assert found.candidates[0] == stands


def test_more_than_one_may_have_no_s_and_a_name_may_end_in_one():
    said = "The strength of a tool like cvs is that people use it, and that they like it."
    they = next(s for s in stands_for(said, []) if s.word == "they")
    assert they.candidates == ("people",)


def test_a_label_before_a_sentence_is_no_part_of_it():
    text = "WORST CASE: A keeper leaves the hut before he locks its door."
    assert take_apart(text)[0].text.startswith("WORST CASE: A keeper")
    assert all("CASE" not in c for s in stands_for(text, []) for c in s.candidates)


def test_a_word_that_ties_sentences_stands_for_nothing():
    before = ["The valve has a spring.", "However, the spring is weak and so is its seat."]
    for found in stands_for("The lid shuts by itself when the pump stops.", before):
        assert "However" not in found.candidates
