import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.answers import Excerpt, Quote, Reach, Verdict
from wide_margin.core.document import Locator
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.explain import Meaning, Reference
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Before,
    CuttingBody,
    EntryKind,
    ExplanationBody,
    MarkBody,
    NoteBody,
    Origin,
    PlacedRow,
    QuestionBody,
    State,
    TranslationBody,
)
from wide_margin.core.margin.bodies import VERSION, body_from_json, body_to_json
from wide_margin.core.translate import Pair

texts = st.text(st.characters(blacklist_categories=("Cs",)), max_size=30)
spans = st.builds(SpanOnPage, st.integers(0, 99), st.integers(0, 9999), st.integers(0, 9999))
places = st.builds(
    Locator, st.integers(0, 999), st.none() | texts, st.lists(spans, max_size=3).map(tuple),
    st.lists(texts, max_size=3).map(tuple), texts, st.booleans(),
)  # fmt: skip
some_places = st.lists(places, max_size=2).map(tuple)
quotes = st.lists(
    st.builds(Quote, texts, some_places, st.sampled_from(Verdict),
              notes=st.lists(texts, max_size=2).map(tuple)), max_size=2,
).map(tuple)  # fmt: skip
excerpts = st.lists(st.builds(Excerpt, texts, places, st.floats(0, 9)), max_size=2).map(tuple)
reaches = st.builds(Reach, st.sampled_from(("document", "section")), name=texts)
questions = st.builds(
    QuestionBody, texts, texts, reaches, quotes, excerpts, st.integers(0, 99), st.integers(0, 99),
    origin=st.sampled_from(Origin), quoted=st.none() | quotes, state=st.sampled_from(State),
    problem=texts, model=texts, struck=st.lists(st.integers(0, 9), max_size=2).map(tuple),
    before=st.none() | st.builds(Before, texts, texts),
)  # fmt: skip
meanings = st.builds(Meaning, texts, texts, texts, places, texts)
references = st.builds(Reference, texts, texts, st.none() | places)
BODIES = {
    EntryKind.QUESTION: questions,
    EntryKind.EXPLANATION: st.builds(
        ExplanationBody, texts, st.lists(meanings, max_size=2).map(tuple),
        st.lists(references, max_size=2).map(tuple),
    ),
    EntryKind.TRANSLATION: st.builds(
        TranslationBody, texts,
        st.lists(st.builds(Pair, texts, texts, st.just(("4",))), max_size=3).map(tuple),
        st.sampled_from(State), texts, texts,
        st.lists(st.builds(PlacedRow, st.integers(0, 9), places), max_size=2).map(tuple), texts,
    ),
    EntryKind.NOTE: st.builds(NoteBody, texts),
    EntryKind.MARK: st.builds(MarkBody, texts),
    EntryKind.CUTTING: st.builds(CuttingBody, texts, st.just((1.0, 2.0, 3.5, 4.0)), texts),
}  # fmt: skip


@pytest.mark.parametrize("kind", EntryKind)
@given(data=st.data())
def test_a_body_comes_back_from_its_format_as_it_was(kind, data):
    body = data.draw(BODIES[kind])
    assert body_from_json(kind, body_to_json(body)) == body


@pytest.mark.parametrize("kind", EntryKind)
@given(data=st.data())
def test_places_are_put_through_one_by_one(kind, data):
    body = data.draw(BODIES[kind])
    moved = body.with_places(lambda place: Locator(7, None, (), (), place.quote))
    assert [place.quote for place in moved.places] == [place.quote for place in body.places]
    assert all(p.place.page == 7 for p in getattr(moved, "paragraphs", ()))
    assert all(place.page == 7 for place in moved.places)
    assert isinstance(body.headline, str)
    assert isinstance(body.words, str)


@pytest.mark.parametrize(
    "text", ["", "{", "[]", "null", '{"version": 1, "text": 7}', f'{{"version": {VERSION + 1}}}',
             '{"version": "x"}', "[" * 100_000]
)  # fmt: skip
def test_a_damaged_body_is_told(text):
    with pytest.raises(EntryStoreError, match="damaged"):
        body_from_json(EntryKind.NOTE, text)


def test_what_a_later_version_adds_to_the_same_format_is_passed_over():
    text = body_to_json(NoteBody("hello")).replace("{", '{"later": [1, 2],', 1)
    assert body_from_json(EntryKind.NOTE, text) == NoteBody("hello")
