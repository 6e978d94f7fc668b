import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import make_pdf, plain_pages, read_document
from wide_margin.core.answers import WHOLE, Excerpt, Quote
from wide_margin.core.document import Locator
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    EntryKind,
    Letters,
    MarkBody,
    QuestionBody,
    anchored_again,
    new_entry,
)
from wide_margin.core.margin.anchoring import letters_of

LONG = (
    "The keeper of the well writes down every bucket that is drawn, by whom and at what hour, and"
    " he signs the page before he goes home in the evening, whether or not it rains."
)


@pytest.fixture
def document(tmp_path):
    """A new version: one page more at the front, a word of the long sentence changed."""
    path = tmp_path / "new.pdf"
    make_pdf(
        path,
        [
            [("text", "A page that was not there before. It stands first.")],
            [("text", "A well is a hole in the ground. It holds water."),
             ("text", LONG.replace("evening", "late evening"))],
            [("text", "The well-known rope is changed. It is old.")],
        ],
    )  # fmt: skip
    return read_document(path)


@pytest.fixture
def letters(document):
    return Letters(document.paragraphs)


def said(document, found):
    layer = {p.pieces[0].line.page: p for p in document.paragraphs}
    assert set(layer) >= {span.page for span in found.spans}
    return found.page


def test_a_quote_is_found_where_it_stands_now(document, letters):
    assert said(document, letters.find("It holds water.", 0)) == 1


def test_hyphens_case_and_line_ends_do_not_matter(letters):
    assert letters.find("The WELL known\nrope", 1).page == 2


def test_a_mark_over_two_paragraphs_is_found(letters):
    found = letters.find("It holds water.\nThe keeper of the well", 0)
    assert found.page == 1
    assert len(found.spans) >= 2


def test_a_quote_with_cuts_is_found_part_by_part(letters):
    found = letters.find("A well … in the ground. … water.", 0)
    assert found.page == 1
    assert len(found.spans) == 3


def test_a_long_quote_with_a_changed_word_is_found_by_its_ends(letters):
    assert letters.find(LONG, 0).page == 1


def test_words_that_are_gone_are_not_found(letters):
    assert letters.find("Nothing like this was ever said.", 0) is None
    assert letters.find("It", 0) is None


def test_of_several_places_the_nearest_counts(tmp_path):
    path = tmp_path / "twice.pdf"
    pages = [[*blocks, ("text", "The rope is changed.")] for blocks in plain_pages(5)]
    make_pdf(path, pages)
    letters = Letters(read_document(path).paragraphs)
    assert [letters.find("The rope is changed.", page).page for page in range(5)] == [*range(5)]


def test_every_place_of_an_answer_moves_and_the_lost_are_told(document, letters):
    old = SpanOnPage(0, 0, 5)
    there = Locator(0, "1", (old,), ("Wells",), "It holds water.")
    gone = Locator(0, "1", (old,), (), "Nothing like this was ever said.")
    body = QuestionBody(
        "What?", "what is", WHOLE, (Quote("It holds water.", (there, gone)),),
        (Excerpt("It holds water.", there, 0.5),), quoted=(Quote("x", (there,)),),
    )  # fmt: skip
    entry = new_entry(EntryKind.QUESTION, Anchor(0, -1.0, (old,), "It holds water."), body)
    moved = anchored_again(entry, letters, document.labels.of)
    first, second, excerpt = moved.body.places
    assert (first.page, excerpt.page, moved.anchor.page) == (1, 1, 1)
    assert first.label == "2"
    assert first.spans != (old,)
    assert moved.body.quoted[0].locators[0].page == 1
    assert second.is_lost
    assert second.quote == gone.quote


def test_a_lost_mark_keeps_its_words_and_comes_back_with_them(document, letters):
    entry = new_entry(EntryKind.MARK, Anchor(1, 9.0, (), "Never said anywhere here."), MarkBody())
    lost = anchored_again(entry, letters, document.labels.of)
    assert lost.anchor.is_lost
    assert lost.anchor.quote == "Never said anywhere here."
    other = Letters(read_document_of("Never said anywhere here. It is now."))
    back = anchored_again(lost, other, lambda page: None)
    assert not back.anchor.is_lost
    assert back.anchor.spans


def read_document_of(text):
    import tempfile
    from pathlib import Path

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "one.pdf"
        make_pdf(path, [[("text", text)]])
        return read_document(path).paragraphs


@given(st.text(max_size=40))
def test_letters_lead_back_to_their_places(text):
    letters, places = letters_of(text)
    assert len(letters) == len(places)
    assert places == sorted(places)
