from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.layout import tidy
from wide_margin.core.passages import split_sentences


def parts(text):
    return [text[a:b] for a, b in split_sentences(text)]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("One ends. Two starts.", ["One ends.", "Two starts."]),
        ("It is 4.5 m high. Why? Nobody knows!", ["It is 4.5 m high.", "Why?", "Nobody knows!"]),
        ("See sect. 8.4, e.g. a table. It is.", ["See sect. 8.4, e.g. a table.", "It is."]),
        ("Dr. Holm and J. Eaton came. They left.", ["Dr. Holm and J. Eaton came.", "They left."]),
        ("He said “No.” Then he left.", ["He said “No.”", "Then he left."]),
        ("Ropes, pipes, etc. These fail.", ["Ropes, pipes, etc.", "These fail."]),
        ("Das ist z.B. so. Und so weiter.", ["Das ist z.B. so.", "Und so weiter."]),
        ("2. Read the staff. Then sign.", ["2. Read the staff.", "Then sign."]),
        ("wells. ropes go on", ["wells. ropes go on"]),
        ("   ", []),
    ],
)  # fmt: skip
def test_sentences_end_where_a_reader_would_stop(text, expected):
    assert parts(text) == expected


@given(st.text(alphabet="abAB .!?\"'()19", max_size=80))
def test_sentences_cover_everything_but_white_space(text):
    ranges = split_sentences(text)
    assert all(a < b for a, b in ranges)
    assert all(b <= c for (_, b), (c, _) in pairwise(ranges))
    assert "".join(text[a:b] for a, b in ranges).replace(" ", "") == text.replace(" ", "")


def test_every_sentence_leads_back_to_its_very_words(handbook):
    for sentence in handbook.text.sentences:
        paragraph = handbook.paragraphs[sentence.paragraph]
        assert tidy(paragraph.text[sentence.start : sentence.end]) == sentence.text
        spans = paragraph.spans(sentence.start, sentence.end)
        assert spans
        assert spans[0].page == sentence.page


def test_passages_hold_every_sentence_once_and_stay_in_their_section(handbook):
    rows = [row for p in handbook.text.passages for row in range(p.first, p.end)]
    assert rows == list(range(len(handbook.text.sentences)))
    for passage in handbook.text.passages:
        sections = {s.section for s in handbook.text.sentences[passage.first : passage.end]}
        assert sections == {passage.section}


def test_the_printed_contents_are_a_listing(handbook):
    kinds = {p.kind for p in handbook.text.passages if p.page in (1, 2, 3)}
    assert "listing" in kinds
    assert not any(p.kind == "text" for p in handbook.text.passages if p.page == 2)
