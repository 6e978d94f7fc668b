"""Words for parts and numbers, in many languages."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.lexicon import (
    alternatives,
    bare,
    number_in,
    ordinal_words,
    roman,
    roman_value,
    squashed,
    thing_of,
    words_for,
)
from wide_margin.core.outline.numbering import number_of


@given(st.integers(1, 3999))
def test_roman_numerals_go_there_and_back(value):
    assert roman_value(roman(value)) == value


@pytest.mark.parametrize("text", ["", "iiii", "vx", "abc", "ic", "12", "mmmm"])
def test_what_is_no_roman_numeral_has_no_value(text):
    assert roman_value(text) == 0


@pytest.mark.parametrize(
    ("text", "value"),
    [("12", 12), ("twelve", 12), ("Twenty-one", 21), ("third", 3), ("drei", 3), ("dix", 10),
     ("ninety", 90), ("twelve-one", None), ("none", None)],
)  # fmt: skip
def test_numbers_in_words(text, value):
    assert number_in(text) == value


def test_every_word_of_a_thing_is_matched_whole_and_the_longer_one_first():
    for thing in ("chapter", "section", "appendix", "figure", "contents"):
        pattern = re.compile(alternatives(thing), re.I)
        for word in words_for(thing):
            assert pattern.match(word.upper()) or pattern.match(word)
            assert pattern.match(word)[0] == word


def test_words_with_another_sense_are_left_out_of_running_text():
    assert re.fullmatch(alternatives("part"), "del")
    assert not re.fullmatch(alternatives("part", in_text=True), "del")


@pytest.mark.parametrize(
    "title",
    [
        "Table of Contents",
        "Inhaltsverzeichnis",
        "TABLE DES MATIÈRES",
        "Оглавление",
        "目 次",
        "Tartalom­jegyzék",
    ],
)
def test_titles_of_contents_pages_are_known_in_many_languages(title):
    assert bare(title.replace("­", "")) in squashed("contents")


@pytest.mark.parametrize(
    ("word", "thing"),
    [("Kapitel", "chapter"), ("chap.", "chapter"), ("Глава", "chapter"), ("Anhang", "appendix"),
     ("Sect.", "section"), ("Tabelle", "table"), ("anywhere", "")],
)  # fmt: skip
def test_what_a_word_before_a_number_means(word, thing):
    assert thing_of(word) == thing


@pytest.mark.parametrize(
    ("title", "identifier", "rest"),
    [("Глава 2. Начало", "2", "Начало"), ("Kapitel 3 Werkzeug", "3", "Werkzeug"),
     ("Część II Pomiary", "II", "Pomiary"), ("Rozdział 4: Lasy", "4", "Lasy"),
     ("Κεφάλαιο 5 Θάλασσα", "5", "Θάλασσα")],
)  # fmt: skip
def test_numbers_after_words_of_other_languages(title, identifier, rest):
    number = number_of(title)
    assert (number.identifier, number.rest) == (identifier, rest)


def test_first_is_one():
    assert ordinal_words("en")["first"] == 1
