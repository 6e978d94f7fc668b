import contextlib
import sqlite3
import subprocess
import sys
import time
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import PATIENT
from wide_margin.core.errors import EntryStoreError
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    EntryKind,
    NoteBody,
    QuestionBody,
    Store,
    new_entry,
    open_store,
)

SPANS = (SpanOnPage(3, 10, 20), SpanOnPage(4, 0, 5))


@pytest.fixture
def store(tmp_path):
    store = Store(tmp_path / "data" / "entries.sqlite")
    yield store
    store.close()


def record(store, sha="a" * 64, path="book.pdf", identity="", title="Book"):
    return store.record_for(sha, Path(path), identity, title)


def note(text="hello", page=3):
    return new_entry(EntryKind.NOTE, Anchor(page, 42.5, SPANS, "the words"), NoteBody(text))


def test_an_entry_comes_back_as_it_was(store):
    document = record(store)
    entry = note("naïve — “quoted” ‡")
    store.put(document.id, entry)
    (back,) = store.entries(document.id).entries
    assert (back.id, back.kind, back.anchor, back.body) == (
        entry.id, entry.kind, entry.anchor, entry.body
    )  # fmt: skip


def test_entries_are_there_for_the_next_opening_of_the_store(store):
    document = record(store)
    store.put(document.id, note())
    again = Store(store.path)
    assert len(again.entries(document.id).entries) == 1
    again.close()


def test_a_deleted_entry_can_be_brought_back(store):
    document = record(store)
    entry = note()
    store.put(document.id, entry)
    store.delete(entry.id)
    assert store.entries(document.id).entries == ()
    store.restore(entry.id)
    assert len(store.entries(document.id).entries) == 1


def test_a_changed_entry_replaces_the_old_one(store):
    document = record(store)
    entry = note("one")
    store.put(document.id, entry)
    store.put(document.id, entry.with_body(text="two"))
    (back,) = store.entries(document.id).entries
    assert back.body.text == "two"
    assert back.changed >= back.created


def test_the_same_content_elsewhere_is_the_same_document(store):
    assert record(store).id == record(store, path="copy.pdf").id


def test_new_content_under_the_same_path_keeps_the_entries(store):
    first = record(store)
    store.put(first.id, note())
    second = record(store, sha="b" * 64)
    assert second.id == first.id
    assert len(store.entries(second.id).entries) == 1


def test_the_same_identity_only_offers_the_other_entries(store):
    first = record(store, identity="1234")
    store.put(first.id, note())
    second = record(store, sha="b" * 64, path="moved.pdf", identity="1234")
    assert second.id != first.id
    assert second.offered == first.id
    assert store.take_entries_from(second.id, first.id) == 1
    assert len(store.entries(second.id).entries) == 1


def test_what_was_fetched_is_not_taken_for_a_new_version(store):
    first = store.record_for("a" * 64, Path("in/a.pdf"), "", "A", is_fetched=True)
    store.put(first.id, note())
    second = store.record_for("b" * 64, Path("in/a.pdf"), "", "B", is_fetched=True)
    assert second.id != first.id
    assert store.entries(second.id).entries == ()


def test_other_documents_have_their_own_entries(store):
    first, second = record(store), record(store, sha="b" * 64, path="other.pdf")
    store.put(first.id, note())
    assert store.entries(second.id).entries == ()


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


def test_a_body_of_another_kind_is_our_mistake():
    with pytest.raises(ValueError, match="body of a mark"):
        new_entry(EntryKind.MARK, Anchor(0, 0.0), NoteBody("text"))


@given(
    st.integers(0, 5000), st.floats(0, 2000), st.text(max_size=50),
    st.lists(st.tuples(st.integers(0, 9), st.integers(0, 99), st.integers(0, 99)), max_size=5),
)  # fmt: skip
def test_anchors_go_through_json_unchanged(page, y, quote, spans):
    anchor = Anchor(page, y, tuple(SpanOnPage(*s) for s in spans), quote)
    assert Anchor.from_json(anchor.as_json()) == anchor


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


def test_words_of_entries_are_found_until_they_are_deleted(store):
    document = record(store)
    entry = note("A naïve sentence about tides")
    store.put(document.id, entry)
    assert store.search("naive tide") == [entry.id]
    assert store.search("the words") == [entry.id]  # of its passage
    assert store.search("tides", document.id + 1) == []
    store.put(document.id, entry.with_body(text="about wells"))
    assert store.search("tides") == []
    store.delete(entry.id)
    assert store.search("wells") == []
    store.restore(entry.id)
    assert store.search('we"lls') == [entry.id]


def test_a_damaged_entry_is_left_out_and_stays_in_the_store(store):
    document = record(store)
    good, bad = note("good"), note("bad")
    store.put(document.id, good, bad)
    store._connection.execute("UPDATE entry SET body = '{' WHERE id = ?", (bad.id,))
    kept = store.entries(document.id)
    assert [entry.id for entry in kept.entries] == [good.id]
    assert kept.n_damaged == 1
    assert store._connection.execute("SELECT count(*) FROM entry").fetchone() == (2,)


def test_a_broken_file_is_set_aside_under_a_name_that_is_told(tmp_path):
    path = tmp_path / "entries.sqlite"
    path.write_bytes(b"not a database at all" * 100)
    opened = open_store(path)
    assert opened.trouble is not None
    aside = next(tmp_path.glob("entries.broken-*.sqlite"))
    assert aside.name in opened.trouble.hint
    document = record(opened.store)
    opened.store.put(document.id, note())
    opened.store.close()
    assert len(Store(path).entries(document.id).entries) == 1


def test_a_newer_store_is_left_as_it_is_and_reading_goes_on(tmp_path):
    path = tmp_path / "entries.sqlite"
    Store(path).close()
    with contextlib.closing(sqlite3.connect(path)) as connection:
        connection.execute("PRAGMA user_version = 99")
    opened = open_store(path)
    assert "newer version" in opened.trouble.message
    assert opened.store.path is None
    opened.store.put(record(opened.store).id, note())
    opened.store.close()
    with contextlib.closing(sqlite3.connect(path)) as connection:
        assert connection.execute("PRAGMA user_version").fetchone() == (99,)


def test_a_store_that_cannot_be_made_keeps_entries_in_memory(tmp_path):
    (tmp_path / "file").write_text("in the way", encoding="utf-8")
    opened = open_store(tmp_path / "file" / "entries.sqlite")
    assert "until you close the window" in opened.trouble.message
    opened.store.close()


def test_the_store_is_for_the_user_only(store):
    assert store.path.stat().st_mode & 0o777 == 0o600
    assert store.path.parent.stat().st_mode & 0o777 == 0o700


def test_two_processes_that_open_a_new_file_at_once_make_one_record(tmp_path):
    code = (
        "import sys, pathlib\n"
        "from wide_margin.core.margin import Store\n"
        "store = Store(pathlib.Path(sys.argv[1]))\n"
        "sys.stdin.readline()\n"
        "print(store.record_for('c' * 64, pathlib.Path('x.pdf'), '', 'X').id)\n"
    )
    path = tmp_path / "entries.sqlite"
    command = [sys.executable, "-c", code, str(path)]
    both = [
        subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
        for _ in range(4)
    ]
    time.sleep(0.5)
    for process in both:
        process.stdin.write("go\n")
        process.stdin.flush()
    assert len({process.communicate(timeout=PATIENT)[0].strip() for process in both}) == 1


def test_a_store_of_the_first_kind_is_taken_over_and_a_copy_kept(tmp_path):
    path = tmp_path / "entries.sqlite"
    with contextlib.closing(sqlite3.connect(path)) as old, old:
        old.executescript(FIRST_KIND)
        for number, sha in ((1, "a"), (2, "a"), (3, "b")):
            old.execute(
                "INSERT INTO document (id, sha256, path, identity, title, opened)"
                " VALUES (?, ?, 'x.pdf', '', 'X', ?)", (number, sha * 64, f"2020-01-0{number}"),
            )  # fmt: skip
        anchor = '{"page": 2, "y": 5.0, "spans": [[2, 0, 9]], "quote": "the words"}'
        for entry_id, document, kind, body in OLD_ENTRIES:
            old.execute(
                "INSERT INTO entry VALUES (?, ?, ?, ?, ?, 'then', 'then', 0)",
                (entry_id, document, kind, anchor, body),
            )
    store = Store(path)
    kept = {e.id: e for e in store.entries(2).entries}
    assert set(kept) == {"n", "q"}  # both records of one content are one now
    assert kept["n"].body == NoteBody("hello")
    answer = kept["q"].body
    assert isinstance(answer, QuestionBody)
    assert answer.quotes[0].locators[0].shown == "p. 17"
    assert answer.reach.name == "9.1 Siting"
    assert store.search("sixty") == []  # words are found once an entry is written again
    assert [e.body.pairs[0].target for e in store.entries(3).entries] == ["Wort"]
    assert (tmp_path / "entries.before-4.sqlite").exists()
    store.close()


FIRST_KIND = """
CREATE TABLE document (
    id INTEGER PRIMARY KEY, sha256 TEXT NOT NULL, path TEXT NOT NULL, identity TEXT NOT NULL,
    title TEXT NOT NULL, last_page INTEGER NOT NULL DEFAULT 0, last_y REAL NOT NULL DEFAULT 0,
    opened TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))
);
CREATE TABLE entry (
    id TEXT PRIMARY KEY, document INTEGER NOT NULL REFERENCES document(id),
    kind TEXT NOT NULL, anchor TEXT NOT NULL, body TEXT NOT NULL,
    created TEXT NOT NULL, changed TEXT NOT NULL, deleted INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE outline (
    document INTEGER PRIMARY KEY REFERENCES document(id), sha256 TEXT NOT NULL, rows TEXT NOT NULL
);
CREATE INDEX entry_by_document ON entry (document, deleted);
"""
_PLACE = '{"page": 16, "label": "17", "shown": "p. 17", "spans": [[16, 3, 9]], "path": ["9 Wells"]}'
OLD_ENTRIES = (
    ("n", 1, "note", '{"text": "hello"}'),
    ("q", 2, "question", '{"question": "How deep?", "kind": "how much", "reach": "9.1 Siting",'
     ' "origin": "quoted", "before": null, "struck": [], "quotes": [{"text": "Sixty feet.",'
     f' "backing": "backed", "emphasis": [[0, 5]], "places": [{_PLACE}], "notes": []}}],'
     f' "excerpts": [{{"text": "Sixty feet.", "place": {_PLACE}}}], "n_searched": 9, "n_pages": 9,'
     ' "without_text": [], "missing": []}'),
    ("t", 3, "translation", '{"language": "de", "pairs": [["word", "Wort", []]], "model": "",'
     ' "state": "done"}'),
)  # fmt: skip


# --- what was known


def test_what_was_known_is_kept(tmp_path):
    store = Store(tmp_path / "entries.sqlite")
    record = store.record_for("a" * 64, tmp_path / "a.pdf", "", "A")
    store.keep_tested(record.id, "What is a well?", known=False)
    store.keep_tested(record.id, "What is a rope?", known=True)
    store.keep_tested(record.id, "What is a well?", known=True)
    assert store.tested(record.id) == {"What is a well?": True, "What is a rope?": True}
    assert store.tested(record.id + 1) == {}
    store.close()


def test_a_store_of_the_version_before_is_brought_up(tmp_path):
    path = tmp_path / "entries.sqlite"
    store = Store(path)
    record = store.record_for("a" * 64, tmp_path / "a.pdf", "", "A")
    store.close()
    with sqlite3.connect(path) as connection:
        connection.execute("DROP TABLE tested")
        connection.execute("ALTER TABLE entry DROP COLUMN tags")
        connection.execute("PRAGMA user_version = 2")
    connection.close()
    store = Store(path)
    assert store.tested(record.id) == {}
    assert [kept.id for kept in store.documents()] == [record.id]
    store.close()
    assert (tmp_path / "entries.before-4.sqlite").exists()
