import pytest
from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.errors import EntryStoreError
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import Anchor, Entry, Store, new_entry

SPANS = (SpanOnPage(3, 10, 20), SpanOnPage(4, 0, 5))


@pytest.fixture
def store(tmp_path):
    store = Store(tmp_path / "data" / "entries.sqlite")
    yield store
    store.close()


def record(store, sha="a" * 64, path="book.pdf", identity="", title="Book"):
    from pathlib import Path

    return store.record_for(sha, Path(path), identity, title)


def note(text="hello", page=3):
    return new_entry("note", Anchor(page, 42.5, SPANS, "the words"), {"text": text})


def test_an_entry_comes_back_as_it_was(store):
    document = record(store)
    entry = note("naïve — “quoted” ‡")
    store.put(document.id, entry)
    (back,) = store.entries(document.id)
    assert (back.id, back.kind, back.anchor, back.body) == (
        entry.id, entry.kind, entry.anchor, entry.body
    )  # fmt: skip


def test_entries_are_there_for_the_next_opening_of_the_store(store):
    document = record(store)
    store.put(document.id, note())
    again = Store(store.path)
    assert len(again.entries(document.id)) == 1
    again.close()


def test_a_deleted_entry_can_be_brought_back(store):
    document = record(store)
    entry = note()
    store.put(document.id, entry)
    store.delete(entry.id)
    assert store.entries(document.id) == []
    store.restore(entry.id)
    assert len(store.entries(document.id)) == 1


def test_a_changed_entry_replaces_the_old_one(store):
    document = record(store)
    entry = note("one")
    store.put(document.id, entry)
    store.put(document.id, entry.with_body(text="two"))
    (back,) = store.entries(document.id)
    assert back.body["text"] == "two"
    assert back.changed >= back.created


def test_the_same_content_elsewhere_is_the_same_document(store):
    assert record(store).id == record(store, path="copy.pdf").id


def test_new_content_under_the_same_path_keeps_the_entries(store):
    first = record(store)
    store.put(first.id, note())
    second = record(store, sha="b" * 64)
    assert second.id == first.id
    assert len(store.entries(second.id)) == 1


def test_new_content_with_the_same_identity_keeps_the_entries(store):
    first = record(store, identity="1234")
    second = record(store, sha="b" * 64, path="moved.pdf", identity="1234")
    assert second.id == first.id


def test_other_documents_have_their_own_entries(store):
    first, second = record(store), record(store, sha="b" * 64, path="other.pdf")
    store.put(first.id, note())
    assert store.entries(second.id) == []


def test_where_reading_stopped_is_remembered(store):
    document = record(store)
    store.remember_place(document.id, 17, 250.0)
    again = record(store)
    assert (again.last_page, again.last_y) == (17, 250.0)


def test_a_store_that_cannot_be_made_says_so(tmp_path):
    (tmp_path / "file").write_text("in the way", encoding="utf-8")
    with pytest.raises(EntryStoreError, match="cannot be opened"):
        Store(tmp_path / "file" / "entries.sqlite")


def test_a_store_that_cannot_be_written_says_that_nothing_was_saved(store):
    document = record(store)
    store._connection.execute("DROP TABLE entry")
    with pytest.raises(EntryStoreError, match="was not saved"):
        store.put(document.id, note())


def test_an_unknown_kind_is_our_mistake():
    with pytest.raises(ValueError, match="kind must be"):
        new_entry("poem", Anchor(0, 0.0), {})


@given(
    st.integers(0, 5000), st.floats(0, 2000), st.text(max_size=50),
    st.lists(st.tuples(st.integers(0, 9), st.integers(0, 99), st.integers(0, 99)), max_size=5),
)  # fmt: skip
def test_anchors_go_through_json_unchanged(page, y, quote, spans):
    anchor = Anchor(page, y, tuple(SpanOnPage(*s) for s in spans), quote)
    assert Anchor.from_json(anchor.as_json()) == anchor


def test_an_entry_tells_its_plain_values():
    values = note().as_json()
    assert isinstance(values["anchor"]["spans"][0], list)
    assert Entry(**{**values, "anchor": Anchor.from_json(values["anchor"])}).kind == "note"


def test_a_changed_outline_is_kept_and_dropped(store):
    document = record(store)
    assert store.outline(document.id) is None
    rows = [{"title": "Wells", "level": 0, "page": 1, "y": 20.0}]
    store.put_outline(document.id, document.sha256, rows)
    assert store.outline(document.id) == (document.sha256, rows)
    assert store.outline_of(document.sha256) == rows
    store.put_outline(document.id, document.sha256, None)
    assert store.outline(document.id) is None
    assert store.outline_of(document.sha256) is None
