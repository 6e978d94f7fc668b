"""Marks in several forms, made longer and shorter; notes with and without a place; cut tables."""

import pikepdf
import pytest
from PySide6.QtCore import QByteArray, QMimeData, QPoint, QPointF, Qt
from PySide6.QtGui import QDropEvent, QGuiApplication
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.desktop.conftest import Hand
from tests.making import PATIENT
from wide_margin.core.margin import CuttingBody, EntryKind, Ink, MarkForm, Scope
from wide_margin.desktop.ink_edges import ink_name
from wide_margin.desktop.ink_names import InkNames
from wide_margin.desktop.read_view.cards import CuttingCard, MarkCard
from wide_margin.desktop.read_view.pages_view import ENTRY_MIME

LINE = "Failed lines are entered in red on Form 6 and are never erased."
PART = "Failed lines are entered"
REST = "in red on Form 6"


def letters(text):
    return "".join(text.split())


@pytest.mark.parametrize(
    ("key", "form"), [("u", MarkForm.UNDERLINE), ("s", MarkForm.STRIKE), ("m", MarkForm.HIGHLIGHT)]
)
def test_a_letter_marks_in_a_form(hand, key, form):
    entry = hand.keep(LINE, key)
    assert (entry.kind, entry.body.form) == (EntryKind.MARK, form)
    (laid,) = hand.view.pages.laid("marks")
    assert (laid.form, laid.key) == (form, entry.id)


def test_the_drawn_forms_differ(hand):
    """An underline leaves the ground of the words as it is, and all three look different."""
    seen = set()
    entry = hand.keep(LINE, "m")
    hand.wait(lambda: hand.view.pages.boxes_in_view(entry.anchor.spans))
    area = hand.view.pages.boxes_in_view(entry.anchor.spans)[0].toRect().adjusted(-2, -2, 2, 3)
    for form in MarkForm:
        hand.view.commands.change_mark(entry.id, form=form)
        hand.wait(lambda form=form: hand.view.pages.laid("marks")[0].form is form)
        image = hand.view.pages.viewport().grab(area).toImage()
        seen.add(bytes(image.constBits()))
    assert len(seen) == 3


def test_ink_and_form_are_changed_on_the_card_and_back_again(hand):
    entry = hand.keep(LINE, "1")
    hand.wait(lambda: isinstance(hand.view.margin._cards.get(entry.id), MarkCard))
    hand.view.commands.change_mark(entry.id, ink=Ink.DOUBT, form=MarkForm.UNDERLINE)
    hand.wait(lambda: hand.reader.entries[entry.id].body.ink is Ink.DOUBT)
    assert hand.reader.entries[entry.id].body.form is MarkForm.UNDERLINE
    hand.reader.undo.undo()
    hand.wait(lambda: hand.reader.entries[entry.id].body.ink is Ink.CLAIM)
    assert hand.reader.entries[entry.id].body.form is MarkForm.HIGHLIGHT


def test_a_mark_is_made_longer_and_erased_in_part(hand):
    entry = hand.keep(PART, "1")
    hand.select(REST)
    QTest.keyClicks(hand.view.pages, "+")
    hand.wait(lambda: letters(REST) in letters(hand.reader.entries[entry.id].anchor.quote))
    assert letters(hand.reader.entries[entry.id].anchor.quote) == letters(f"{PART} {REST}")
    hand.select("lines are")
    QTest.keyClicks(hand.view.pages, "-")
    hand.wait(lambda: "lines" not in hand.reader.entries[entry.id].anchor.quote)
    left = hand.reader.entries[entry.id].anchor
    assert letters(left.quote) == letters(f"Failed entered {REST}")
    assert len(left.spans) == 2
    hand.reader.undo.undo()
    hand.wait(lambda: "lines" in hand.reader.entries[entry.id].anchor.quote)
    hand.select(f"{PART} {REST}")
    QTest.keyClicks(hand.view.pages, "-")
    hand.wait(lambda: entry.id not in hand.reader.entries)


def test_words_beside_no_mark_are_told(hand):
    hand.select(LINE)
    for key, said in (("+", "No mark"), ("-", "in no mark")):
        hand.view.commands.act(key)
        assert said in hand.view.status.text()
        hand.select(LINE)
    assert hand.reader.entries == {}


def test_the_end_of_a_mark_is_dragged(hand):
    entry = hand.keep(PART, "1")
    pages = hand.view.pages
    hand.wait(lambda: pages.boxes_in_view(entry.anchor.spans))
    hit = hand.reader.session.find(f"{PART} {REST}").result(PATIENT)[0]
    box, goal = pages.boxes_in_view(entry.anchor.spans)[0], pages.boxes_in_view(hit.spans)[-1]
    start = QPoint(int(box.right()) + 1, int(box.center().y()))
    end = QPoint(int(goal.right()) + 1, int(goal.center().y()))
    port, left = pages.viewport(), Qt.MouseButton.LeftButton
    assert pages.mark_end_at(QPointF(start)) is None  # until the mark is chosen by a click
    QTest.mouseClick(port, left, Qt.KeyboardModifier.NoModifier, box.center().toPoint())
    QTest.qWait(QApplication.doubleClickInterval() + 50)
    assert pages.mark_end_at(QPointF(start)).key == entry.id
    assert pages.mark_end_at(QPointF(box.center())) is None
    QTest.mousePress(port, left, Qt.KeyboardModifier.NoModifier, start)
    pages.extend_selection(pages.position_at(QPointF(end)))
    QTest.mouseRelease(port, left, Qt.KeyboardModifier.NoModifier, end)
    wanted = letters(f"{PART} {REST}")
    hand.wait(lambda: letters(hand.reader.entries[entry.id].anchor.quote) == wanted)
    assert not pages.has_selection


# --- notes


def note(hand, text, scope):
    """Write a quick note, as with the keyboard."""
    sheet = hand.window.quick_note

    def is_in_front():  # keys go to the window that is in front
        hand.window.activateWindow()
        return hand.window.isActiveWindow()

    hand.wait(is_in_front)
    sheet.write()
    assert sheet.isVisible()
    sheet.scopes[scope].setChecked(True)
    before = set(hand.reader.entries)
    QTest.keyClicks(sheet.field, text)
    QTest.keyClick(sheet.field, Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    hand.wait(lambda: set(hand.reader.entries) - before)
    (found,) = set(hand.reader.entries) - before
    return hand.reader.entries[found]


def test_a_quick_note_leaves_the_page_where_it_is(hand):
    hand.view.go_to_typed("17")
    here, value = hand.view.here(), hand.view.pages.verticalScrollBar().value()
    made = note(hand, "Ask Oss.", Scope.PASSAGE)
    assert (made.anchor.page, made.body.text) == (here[0], "Ask Oss.")
    assert hand.view.pages.verticalScrollBar().value() == value
    assert not hand.window.quick_note.isVisible()


def test_a_note_on_a_section_stands_at_its_heading(hand):
    hand.view.go_to_typed("17")
    made = note(hand, "Compare with 9.3.", Scope.SECTION)
    section = hand.reader.summary.outline.sections[hand.view.section]
    assert (made.anchor.page, made.anchor.quote) == (section.page, section.title)
    hand.view.go_to_entry(made.id)
    hand.wait(lambda: made.id in hand.view.margin._cards)
    assert section.title in hand.view.margin._cards[made.id].head.text()


def test_a_note_without_a_place_is_listed_and_dragged_to_one(hand):
    made = note(hand, "Find out later.", Scope.LOOSE)
    assert [row.label for row in hand.view.contents._entry_rows] == ["no place yet"]
    assert made.id not in hand.view.margin._cards
    assert hand.view.spine._dots == []
    hand.view.go_to_entry(made.id)  # opens the sheet with it
    sheet = hand.window.quick_note
    assert sheet.field.toPlainText() == "Find out later."
    QTest.keyClick(sheet, Qt.Key.Key_Escape)
    hand.wait(lambda: not sheet.isVisible())
    hand.view.go_to_typed("17")
    data = QMimeData()
    data.setData(ENTRY_MIME, QByteArray(made.id.encode()))
    where = QPointF(hand.view.pages.page_rect(hand.view.here()[0]).center())
    none = Qt.KeyboardModifier.NoModifier
    move, left = Qt.DropAction.MoveAction, Qt.MouseButton.LeftButton
    hand.view.pages.dropEvent(QDropEvent(where, move, data, left, none))
    hand.wait(lambda: hand.reader.entries[made.id].anchor.scope is Scope.PASSAGE)
    page, y = hand.view.pages.place_at(where.y())
    placed = hand.reader.entries[made.id].anchor
    assert placed.page == page
    assert placed.y == pytest.approx(y, abs=2)
    hand.reader.undo.undo()
    hand.wait(lambda: hand.reader.entries[made.id].anchor.scope is Scope.LOOSE)


def test_what_was_written_is_kept_however_the_sheet_is_closed(hand):
    sheet = hand.window.quick_note
    sheet.write()
    QTest.keyClicks(sheet.field, "Half a thou")
    QTest.keyClick(sheet, Qt.Key.Key_Escape)
    hand.wait(lambda: [e.body.text for e in hand.entries("note")] == ["Half a thou"])
    sheet.write()
    sheet.throw_away()
    sheet.write()
    QTest.keyClicks(sheet.field, "   ")
    sheet.keep()
    assert len(hand.reader.entries) == 1


def test_without_a_document_there_is_no_quick_note(empty_hand):
    empty_hand.window.quick_note.write()
    assert not empty_hand.window.quick_note.isVisible()


def test_inks_are_called_as_the_reader_says_everywhere(hand):
    entry = hand.keep(LINE, "1")
    dialog = InkNames(hand.view.colours, hand.window)
    dialog.fields[Ink.CLAIM].setText("  Thesis <b>A&B</b> ")
    hand.reader.change_settings(ink_names=dialog.names())
    assert ink_name(Ink.CLAIM) == "Thesis <b>A&B</b>"
    assert dialog.names()[1:] == ("",) * 5
    hand.view.go_to_entry(entry.id)
    hand.wait(lambda: isinstance(hand.view.margin._cards.get(entry.id), MarkCard))
    hand.window.show_view("Commonplace")
    facets = hand.window.commonplace_view.facets
    hand.wait(lambda: facets.count() > 3)
    assert "Thesis <b>A&B</b>" in [facets.item(k).text() for k in range(facets.count())]
    hand.reader.change_settings(ink_names=())
    assert ink_name(Ink.CLAIM) == "claim"


# --- cuttings


def test_a_table_that_is_cut_out_is_kept_as_rows(hand, tmp_path):
    table = next(f for f in hand.reader.summary.figures if "Table 2" in f.caption)
    hand.view.go_to_figure(table)
    hand.wait(lambda: hand.view.pages.images.layer(table.page))
    hand.view.commands.cut(table.page, table.box)
    hand.wait(lambda: any(isinstance(e.body, CuttingBody) and e.body.rows
                          for e in hand.reader.entries.values()))  # fmt: skip
    (entry,) = hand.entries("cutting")
    rows = entry.body.rows
    assert len({len(row) for row in rows}) == 1
    assert len(rows) > 2
    beneath = letters(entry.anchor.quote)
    assert all(letters(cell) in beneath for row in rows for cell in row if " " not in cell)
    hand.view.go_to_entry(entry.id)
    hand.wait(lambda: isinstance(hand.view.margin._cards.get(entry.id), CuttingCard))
    hand.view.commands.take_table(entry.id, to_file=False)
    copied = QGuiApplication.clipboard().text().splitlines()
    assert [len(line.split("\t")) for line in copied] == [len(row) for row in rows]


# --- the file's own annotations, and all documents


@pytest.fixture
def annotated(handbook_path, tmp_path):
    """The handbook with annotations of another program."""
    path = tmp_path / "annotated.pdf"
    made = (
        "<< /Type /Annot /Subtype /Text /Rect [90 700 108 718] /Contents (<b>Is this so?</b>)"
        " /T (A. Reader) /M (D:20240229120000Z) >>"
    )
    with pikepdf.open(handbook_path) as opened:
        opened.pages[20].obj["/Annots"] = pikepdf.Array([pikepdf.Object.parse(made.encode())])
        opened.save(path)
    return path


def test_annotations_of_the_file_are_listed_and_adopted_once(qtbot, make_window, annotated):
    hand = Hand(qtbot, make_window()).open(annotated)
    before = annotated.read_bytes()
    hand.window.show_view("Commonplace")
    view = hand.window.commonplace_view
    hand.wait(lambda: view.in_file.button.isVisible())
    assert view.in_file.button.text() == "In the file: 1 annotation"
    view.in_file.show()
    texts = [view.in_file.dialog.table.item(0, k).text() for k in range(5)]
    assert texts[1:] == ["note", "A. Reader", "2024-02-29", "<b>Is this so?</b>"]
    view.in_file.dialog.adopt.click()
    hand.wait(lambda: len(hand.reader.entries) == 1)
    (entry,) = hand.reader.entries.values()
    assert (entry.anchor.page, entry.body.text, entry.tags) == (
        20, "<b>Is this so?</b>", ("A. Reader",),
    )  # fmt: skip
    assert entry.created.startswith("2024-02-29T12:00")
    view.in_file.adopt(view.in_file.found)
    hand.wait(lambda: "were entries already" in view.status.text())
    assert len(hand.reader.entries) == 1
    hand.reader.undo.undo()
    hand.wait(lambda: hand.reader.entries == {})
    assert annotated.read_bytes() == before


def test_a_file_without_annotations_says_nothing_of_them(hand):
    hand.window.show_view("Commonplace")
    hand.wait(lambda: hand.reader.background.n_running == 0)
    assert not hand.window.commonplace_view.in_file.button.isVisible()


def test_entries_of_all_documents_are_shown_and_changed_where_they_are(
    qtbot, make_window, annotated, hand
):
    own = hand.keep(LINE, "1")
    other = Hand(qtbot, make_window()).open(annotated)
    theirs = note(other, "Of the other file", Scope.DOCUMENT)
    hand.window.show_view("Commonplace")
    view = hand.window.commonplace_view
    for one, two in ((hand, other), (other, hand)):  # as windows of one program
        one.reader.hub.changed.connect(two.reader.keeper._elsewhere)
    view.everywhere.turn(True)
    hand.wait(lambda: {e.id for e in view.entries} == {own.id, theirs.id})
    assert view.everywhere.button.text() == "All documents ▾"
    rows = view.list.rows.rows
    at = next(k for k, r in enumerate(rows) if r.entry and r.entry.id == theirs.id)
    view.list.setCurrentIndex(view.list.rows.index(at))
    view.list.selectionModel().select(
        view.list.rows.index(at), view.list.selectionModel().SelectionFlag.ClearAndSelect
    )
    view.add_tag("from afar")
    hand.wait(lambda: other.reader.entries[theirs.id].tags == ("from afar",))
    hand.wait(lambda: any(e.tags == ("from afar",) for e in view.entries))
    hand.reader.undo.undo()
    hand.wait(lambda: other.reader.entries[theirs.id].tags == ())
    view.delete_chosen()
    hand.wait(lambda: theirs.id not in other.reader.entries)
    hand.wait(lambda: {e.id for e in view.entries} == {own.id})
    view.everywhere.turn(False)
    hand.reader.undo.undo()
    hand.wait(lambda: theirs.id in other.reader.entries)
    assert own.id not in other.reader.entries
    late = note(other, "Added meanwhile", Scope.DOCUMENT)
    view.everywhere.turn(True)
    hand.wait(lambda: {e.id for e in view.entries} == {own.id, theirs.id, late.id})
    rows = view.list.rows.rows
    at = next(k for k, r in enumerate(rows) if r.entry and r.entry.id == theirs.id)
    view.list.setCurrentIndex(view.list.rows.index(at))
    QTest.keyClick(view.list, Qt.Key.Key_Return)
    hand.wait(lambda: hand.reader.path == annotated and hand.reader.record is not None)
    hand.wait(lambda: theirs.id in hand.reader.entries)
    assert not view.everywhere.is_on
