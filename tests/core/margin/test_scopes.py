"""What an entry belongs to: kept in the store, grouped, and left in place in a new version."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    CuttingBody,
    EntryKind,
    Ink,
    Letters,
    MarkBody,
    MarkForm,
    NoteBody,
    Scope,
    Store,
    anchored_again,
    kept_spans,
    new_entry,
)
from wide_margin.core.margin.bodies import body_from_json, body_to_json
from wide_margin.core.margin.gathering import GroupBy, Wanted, gather

SPAN = SpanOnPage(3, 10, 20)


def note(scope, *, page=0, quote=""):
    return new_entry(EntryKind.NOTE, Anchor(page, 0.0, quote=quote, scope=scope), NoteBody("Hm."))


@pytest.fixture
def store(tmp_path):
    store = Store(tmp_path / "entries.sqlite")
    yield store
    store.close()


@pytest.mark.parametrize("scope", list(Scope))
def test_a_scope_is_kept(store, tmp_path, scope):
    record = store.record_for("a" * 64, tmp_path / "a.pdf", "", "A")
    entry = note(scope)
    store.put(record.id, entry)
    (kept,) = store.entries(record.id).entries
    assert (kept.anchor, kept.body) == (entry.anchor, entry.body)
    assert kept.anchor.has_place is (scope is not Scope.LOOSE)


def test_an_anchor_from_before_there_were_scopes_is_of_a_passage():
    old = {"page": 3, "y": 10.0, "spans": [], "quote": "x", "is_lost": False}
    assert Anchor.from_json(old).scope is Scope.PASSAGE


@pytest.mark.parametrize("form", list(MarkForm))
def test_the_form_of_a_mark_goes_there_and_back(form):
    body = MarkBody("so", ink=Ink.DOUBT, form=form)
    assert body_from_json(EntryKind.MARK, body_to_json(body)) == body


def test_a_mark_from_before_there_were_forms_is_a_highlight():
    body = body_from_json(EntryKind.MARK, '{"version": 1, "text": "so", "ink": "doubt"}')
    assert body.form is MarkForm.HIGHLIGHT


def test_the_cells_of_a_cutting_go_there_and_back_and_are_searched():
    body = CuttingBody("mine", box=(1.0, 2.0, 3.0, 4.0), rows=(("Näs", "3.2"), ("Oss", "4")))
    assert body_from_json(EntryKind.CUTTING, body_to_json(body)) == body
    assert "Näs 3.2" in body.words


def test_each_scope_has_its_group_and_no_place_comes_last():
    entries = [note(Scope.LOOSE), note(Scope.SECTION, page=2), note(Scope.DOCUMENT),
               note(Scope.PASSAGE, page=1)]  # fmt: skip
    groups = gather(entries, Wanted(), GroupBy.SECTION, lambda e: (f"S{e.anchor.page}",))
    assert [group.name for group in groups] == ["The whole document", "S1", "S2", "No place"]


def test_what_is_kept_of_a_document_is_its_passages_alone():
    mark = new_entry(EntryKind.MARK, Anchor(3, -1.0, (SPAN,), "words"), MarkBody())
    section = new_entry(
        EntryKind.NOTE, Anchor(3, 0.0, (SPAN,), "9.3 Error", scope=Scope.SECTION), NoteBody("x")
    )
    assert kept_spans([section]) == ()
    assert kept_spans([mark, section]) == (SPAN,)


@pytest.fixture(scope="module")
def letters(tmp_path_factory):
    path = tmp_path_factory.mktemp("scopes") / "new.pdf"
    make_pdf(path, [[("text", "Something new stands here.")], [("h1", "9.3 Closing error")]])
    return Letters(read_document(path).paragraphs)


def test_a_note_on_a_section_goes_with_its_heading(letters):
    entry = note(Scope.SECTION, page=0, quote="9.3 Closing error")
    moved = anchored_again(entry, letters, lambda page: str(page + 1))
    assert (moved.anchor.page, moved.anchor.scope) == (1, Scope.SECTION)
    assert not moved.anchor.is_lost


@pytest.mark.parametrize("scope", [Scope.LOOSE, Scope.DOCUMENT])
def test_a_note_without_words_stays_what_it_is(letters, scope):
    entry = note(scope)
    assert anchored_again(entry, letters, lambda page: None).anchor == entry.anchor
