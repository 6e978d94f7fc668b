"""Entries written into a copy come home from it: to their words, however the page lies."""

import pikepdf
import pytest

from tests.making import make_pdf
from wide_margin.core.export.annotated import write_annotated
from wide_margin.core.export.annotations_in_file import annotations_in_file
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import (
    Anchor,
    EntryKind,
    Ink,
    MarkBody,
    MarkForm,
    NoteBody,
    new_entry,
)
from wide_margin.core.session import Session
from wide_margin.core.session.placing import adopted, placed

SAID = (
    "The keeper of the mill writes every height down in the red book of the station. Nobody else"
    " may write in it, and nothing in it is ever struck out by anybody at all."
)
OTHER = "Something else stands on this page, and the keeper of the mill has read it twice."
MARKED = "keeper"


@pytest.fixture
def source(tmp_path):
    path = tmp_path / "source.pdf"
    make_pdf(path, [[("h1", "1 A"), ("text", OTHER)], [("text", SAID)]])
    return path


def characters(spans):
    return {(span.page, at) for span in spans for at in range(span.start, span.end)}


def turned(path, target, turns, crop):
    with pikepdf.open(path) as opened:
        for page in opened.pages:
            page.rotate(turns, relative=False)
            if crop:
                page.cropbox = [20, 30, 560, 800]
        opened.save(target)
    return target


def opened(path):
    session = Session(path)
    session.open().result()
    session.read().result()
    return session


@pytest.mark.parametrize(("turns", "crop"), [(0, False), (0, True), (90, False), (180, True)])
@pytest.mark.parametrize("form", list(MarkForm))
def test_a_mark_comes_home_to_its_words(source, tmp_path, turns, crop, form):
    path = turned(source, tmp_path / "turned.pdf", turns, crop)
    copy = tmp_path / "copy.pdf"
    with opened(path) as session:
        chars = session.text(1).result().page.chars
        at = chars.index(MARKED)
        spans = (SpanOnPage(1, at, at + len(MARKED)),)
        anchor = Anchor(1, -1.0, spans, MARKED)
        mark = new_entry(EntryKind.MARK, anchor, MarkBody("why?", ink=Ink.DOUBT, form=form))
        write_annotated(path, copy, placed(session, [mark]), author="A reader")
    with opened(copy) as session:
        (back,) = adopted(session, annotations_in_file(copy), 1)
    assert back.kind is EntryKind.MARK
    assert back.body.form is form
    assert back.body.text == "why?"
    assert back.tags == ("A reader",)
    assert back.anchor.page == 1
    assert characters(back.anchor.spans) == characters(spans)


def test_an_entry_over_two_pages_is_one_again(source, tmp_path):
    copy = tmp_path / "copy.pdf"
    with opened(source) as session:
        first, second = session.find("keeper of the mill").result()
        anchor = Anchor(0, -1.0, (*first.spans, *second.spans), "keeper of the mill")
        mark = new_entry(EntryKind.MARK, anchor, MarkBody("both"))
        assert write_annotated(source, copy, placed(session, [mark])) == 2
    with opened(copy) as session:
        (back,) = adopted(session, annotations_in_file(copy), 1)
    assert {span.page for span in back.anchor.spans} == {0, 1}


def test_the_same_annotation_gives_the_same_entry_and_another_one_another(source, tmp_path):
    copy = tmp_path / "copy.pdf"
    with opened(source) as session:
        hits = session.find("keeper of the mill").result()
        marks = [
            new_entry(EntryKind.MARK, Anchor(h.page, -1.0, h.spans, "x"), MarkBody()) for h in hits
        ]
        write_annotated(source, copy, placed(session, marks))
    with opened(copy) as session:
        own = annotations_in_file(copy)
        once, again = adopted(session, own, 1), adopted(session, own, 1)
        elsewhere = adopted(session, own, 2)
    assert [e.id for e in once] == [e.id for e in again]
    assert len({e.id for e in [*once, *elsewhere]}) == 2 * len(marks)


def test_a_note_and_what_lies_on_no_words_become_notes(source, tmp_path):
    copy = tmp_path / "copy.pdf"
    with opened(source) as session:
        note = new_entry(EntryKind.NOTE, Anchor(1, 300.0), NoteBody("Ask Oss."))
        write_annotated(source, copy, placed(session, [note]))
    empty = "<< /Type /Annot /Subtype /Highlight /Rect [300 60 400 90] /C [1 1 0] >>"
    with pikepdf.open(copy, allow_overwriting_input=True) as pdf:
        page = pdf.pages[0]
        page.obj["/Annots"] = pikepdf.Array([pikepdf.Object.parse(empty.encode())])
        pdf.save(copy)
    with opened(copy) as session:
        found = adopted(session, annotations_in_file(copy), 1)
    assert [(e.kind, e.body.text, e.anchor.page) for e in found] == [
        (EntryKind.NOTE, "Highlight", 0), (EntryKind.NOTE, "Ask Oss.", 1),
    ]  # fmt: skip
    assert found[1].anchor.y == pytest.approx(300.0, abs=2.0)
