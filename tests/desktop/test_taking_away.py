"""Entries taken away and brought in through the real window, read back by other programs."""

import csv
import io
import json
from html.parser import HTMLParser

import docx
import pikepdf
import pytest
from PySide6.QtWidgets import QFileDialog

from tests.desktop.conftest import Hand
from wide_margin.core.export.entries import EntriesFormat
from wide_margin.core.margin import EntryKind

FIRST = "Failed lines are entered in red on Form 6 and are never erased."
SECOND = "A mark is lost when it cannot be found"
HARM = "<script>alert(1)</script> & \\input{x} =cmd|' /C'!A0"


class Words(HTMLParser):
    """The words of a page, and the elements it has."""

    def __init__(self):
        super().__init__()
        self.said, self.elements = [], []

    def handle_starttag(self, tag, attrs):
        self.elements.append(tag)

    def handle_data(self, data):
        self.said.append(data)


@pytest.fixture
def kept(hand):
    """A window with two marks, one of them tagged with harm, in the Commonplace view."""
    for words, key in ((FIRST, "1"), (SECOND, "2")):
        hand.keep(words, key)
    hand.window.show_view("Commonplace")
    view = hand.window.commonplace_view
    hand.wait(lambda: len(view.entries) == 2)
    choose(view, one_with(view, FIRST))
    view.add_tag(HARM)
    hand.wait(lambda: any(entry.tags for entry in view.entries))
    return hand, view


@pytest.fixture
def small(qtbot, make_window, small_pdf):
    """A window with a file of its own, with a mark, in the Commonplace view."""
    hand = Hand(qtbot, make_window()).open(small_pdf)
    hand.keep("A well is a hole in the ground", "1")
    hand.window.show_view("Commonplace")
    hand.wait(lambda: len(hand.window.commonplace_view.entries) == 1)
    return hand, hand.window.commonplace_view


def one_with(view, words):
    return next(e for e in view.entries if words[:30] in e.anchor.quote)


def choose(view, entry):
    model = view.list.selectionModel()
    model.clearSelection()
    for k, row in enumerate(view.list.rows.rows):
        if row.entry is not None and row.entry.id == entry.id:
            model.select(view.list.rows.index(k), model.SelectionFlag.Select)


def saved(hand, view, path, form, **asked):
    view.taking.save(path, form, **asked)
    hand.wait(lambda: path.name in view.status.text())
    return path.read_bytes()


def test_html_has_the_words_and_nothing_that_runs(kept, tmp_path):
    hand, view = kept
    page = Words()
    page.feed(saved(hand, view, tmp_path / "e.html", EntriesFormat.HTML).decode())
    assert "script" not in page.elements
    said = " ".join(" ".join(page.said).split())
    assert FIRST in said
    assert SECOND in said


def test_word_is_opened_by_its_library(kept, tmp_path):
    hand, view = kept
    data = saved(hand, view, tmp_path / "e.docx", EntriesFormat.WORD)
    made = docx.Document(io.BytesIO(data))
    assert any(FIRST in paragraph.text for paragraph in made.paragraphs)


def test_a_table_has_a_row_an_entry_and_no_formula(kept, tmp_path):
    hand, view = kept
    text = saved(hand, view, tmp_path / "e.csv", EntriesFormat.CSV).decode("utf-8-sig")
    rows = list(csv.DictReader(io.StringIO(text)))
    assert {row["ink"] for row in rows} == {"claim", "doubt"}
    assert all(not cell.startswith(("=", "+", "@")) for row in rows for cell in row.values())
    assert all(row["page"] and row["section"] for row in rows)


def test_json_has_the_tag_as_it_was_typed(kept, tmp_path):
    hand, view = kept
    data = json.loads(saved(hand, view, tmp_path / "e.json", EntriesFormat.JSON))
    assert " ".join(HARM.split()) in json.dumps(data).encode().decode("unicode_escape")


@pytest.mark.parametrize(
    ("form", "first"),
    [(EntriesFormat.BIBTEX, "@"), (EntriesFormat.RIS, "TY  - "), (EntriesFormat.CSL, "[")],
)
def test_citing_formats_name_the_document_and_the_pages(kept, tmp_path, form, first):
    hand, view = kept
    text = saved(hand, view, tmp_path / f"e.{form}", form).decode().lstrip()
    assert text.startswith(first)
    assert "Failed lines are entered in red" in text
    if form is EntriesFormat.CSL:
        assert len(json.loads(text)) == 3  # the document, and its two passages


def test_only_those_chosen_are_saved(kept, tmp_path):
    hand, view = kept
    choose(view, one_with(view, SECOND))
    text = saved(hand, view, tmp_path / "e.md", EntriesFormat.MARKDOWN, only_chosen=True).decode()
    assert SECOND in text
    assert "Failed lines" not in text
    assert view.status.text().startswith("1 entry ")


def test_the_format_is_that_of_the_name_that_was_typed(kept, tmp_path, monkeypatch):
    hand, view = kept
    path = tmp_path / "mine.csl"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(path), "Markdown (*.md)"))
    view.taking.ask_where(only_chosen=False)
    hand.wait(path.exists)
    hand.wait(lambda: "mine.csl" in view.status.text())
    assert isinstance(json.loads(path.read_text()), list)


def test_a_dialog_that_is_left_saves_nothing(kept, monkeypatch):
    _, view = kept
    for name in ("getSaveFileName", "getOpenFileName"):
        monkeypatch.setattr(QFileDialog, name, lambda *_: ("", ""))
    before = dict(view.reader.entries)
    told = view.status.text()
    view.taking.ask_where(only_chosen=True)
    view.taking.ask_where_to_annotate()
    view.taking.ask_what_to_bring()
    assert view.status.text() == told
    assert view.reader.entries == before


def test_where_nothing_can_be_written_it_is_told_and_nothing_is_left(kept, tmp_path):
    hand, view = kept
    view.taking.save(tmp_path / "no such folder" / "e.md", EntriesFormat.MARKDOWN)
    hand.wait(lambda: "no such folder" in view.status.text() or "e.md" in view.status.text())
    assert "Traceback" not in view.status.text()
    assert not list(tmp_path.rglob("*.md"))


def test_a_copy_over_the_document_itself_leaves_the_document_whole(small):
    hand, view = small
    before = hand.reader.path.read_bytes()
    view.taking.annotate(hand.reader.path)
    hand.wait(lambda: view.status.text() != "")
    assert hand.reader.path.read_bytes() == before


@pytest.mark.parametrize("data", [b"\xff\xfe\x00", b"{", b"[1, 2]", b'{"type": "Nothing"}'])
def test_what_is_no_annotations_is_told_and_changes_nothing(kept, tmp_path, data):
    hand, view = kept
    path = tmp_path / "odd.jsonld"
    path.write_bytes(data)
    before, told = dict(view.reader.entries), view.status.text()
    view.taking.bring_in(path)
    hand.wait(lambda: view.status.text() not in ("", told))
    assert "Traceback" not in view.status.text()
    assert view.reader.entries == before


def test_bringing_in_the_same_twice_gives_each_once(kept, tmp_path):
    hand, view = kept
    path = tmp_path / "e.jsonld"
    saved(hand, view, path, EntriesFormat.ANNOTATIONS)
    for _ in range(2):
        view.say("")
        view.taking.bring_in(path)
        hand.wait(lambda: "brought in" in view.status.text())
    assert len(view.entries) == 2
    assert one_with(view, FIRST).tags == (" ".join(HARM.split()),)


def test_annotations_of_a_file_that_is_gone_are_told(small):
    hand, view = small
    hand.reader.path.unlink()
    view.in_file._forget()
    view.in_file.look()
    hand.wait(lambda: "annotations of the file cannot be read" in view.status.text())
    assert not view.in_file.button.isVisible()


def test_the_annotated_copy_is_whole_for_another_library(kept, tmp_path):
    hand, view = kept
    copy = tmp_path / "copy.pdf"
    view.taking.annotate(copy)
    hand.wait(lambda: "copy.pdf" in view.status.text())
    with pikepdf.open(copy) as made, pikepdf.open(view.reader.path) as own:
        assert len(made.pages) == len(own.pages)
        kinds = [
            str(annotation.Subtype)
            for page in made.pages
            for annotation in page.get("/Annots", [])
            if "/Contents" in annotation or str(annotation.Subtype) == "/Highlight"
        ]
    assert kinds.count("/Highlight") == sum(e.kind is EntryKind.MARK for e in view.entries)
