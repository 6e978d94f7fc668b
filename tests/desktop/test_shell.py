import os
import subprocess
import sys
from importlib import resources
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QAction, QGuiApplication
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from tests.making import PATIENT, make_pdf
from wide_margin.core.pages import Link
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.text import read_text
from wide_margin.core.services import SettingsKeeper
from wide_margin.desktop.app import Windows
from wide_margin.desktop.properties import PropertiesDialog, plain_date, property_rows
from wide_margin.desktop.words import Words

ROOT = Path(__file__).resolve().parents[2]


# --- the start page


def test_a_window_without_a_document_shows_what_was_read_before(hand, qtbot, make_window):
    hand.view.go_to_typed("20")
    hand.wait(lambda: hand.view.pages.images.image(0) or hand.view.pages.go_to(0))
    hand.view.go_to_typed("20")
    hand.window.close()
    window = make_window()
    (tile,) = window.start_page.tiles
    assert tile.record.title.startswith("The Skerrow Sound")
    assert tile.about() == "file page 36 · no entries"
    QTest.mouseClick(tile, Qt.MouseButton.LeftButton)
    again = Hand(qtbot, window)
    again.wait(lambda: again.reader.is_ready)
    assert again.label() == "20"


def test_a_missing_file_is_shown_as_missing(qtbot, make_window, small_pdf):
    first = Hand(qtbot, make_window()).open(small_pdf)
    first.window.close()
    small_pdf.unlink()
    (tile,) = make_window().start_page.tiles
    assert tile.is_missing
    assert "missing" in tile.about()


def test_a_moved_file_keeps_its_entries(qtbot, make_window, small_pdf, tmp_path):
    first = Hand(qtbot, make_window()).open(small_pdf)
    first.ask("When is the rope changed?")
    first.window.close()
    moved = small_pdf.rename(tmp_path / "moved.pdf")
    again = Hand(qtbot, make_window()).open(moved)
    again.wait(lambda: len(again.entries("question")) == 1)


# --- windows


@pytest.fixture
def windows(qtbot, tmp_path):
    from wide_margin.core.margin import Store

    store = Store(tmp_path / "entries.sqlite")
    made = Windows(store, SettingsKeeper())
    yield made
    made.close()
    store.close()


def test_two_windows_on_one_file_share_their_entries(qtbot, windows, small_pdf):
    one, two = (Hand(qtbot, windows.add()).open(small_pdf) for _ in range(2))
    entry = one.ask("When is the rope changed?")
    two.wait(lambda: entry.id in two.reader.entries)
    two.reader.keeper.remove(entry.id)
    two.wait(lambda: entry.id not in one.reader.entries)
    two.window.menus.undo.trigger()
    two.wait(lambda: entry.id in one.reader.entries)


def test_the_window_in_front_is_read_first(windows, qtbot, monkeypatch, small_pdf):
    told = {}
    one, two = (Hand(qtbot, windows.add()).open(small_pdf) for _ in range(2))
    for name, hand in (("one", one), ("two", two)):
        monkeypatch.setattr(
            hand.reader.session, "hold_back", lambda *, on, name=name: told.update({name: on})
        )

    def in_front(hand):
        hand.window.activateWindow()
        return hand.window.isActiveWindow() and len(told) == 2

    one.wait(lambda: in_front(two) or in_front(one))
    two.wait(lambda: in_front(two) and told == {"one": True, "two": False})
    one.wait(lambda: in_front(one) and told == {"one": False, "two": True})


def test_another_window_can_be_asked_for(windows):
    first = windows.add()
    first.window_asked.emit(None)
    assert len(windows.open) == 2


def test_panels_and_contents_are_remembered(hand, make_window):
    hand.window.menus.contents.trigger()
    assert not hand.view.contents.isVisible()
    hand.window.close()
    assert not make_window().read_view.contents.isVisibleTo(make_window().read_view)


# --- the file on disk


def test_a_file_that_changes_is_offered_and_read_again_in_place(qtbot, make_window, small_pdf):
    hand = Hand(qtbot, make_window()).open(small_pdf)
    mark = hand.keep("The rope is changed every eighteen months", "M")
    text = "The rope is changed every eighteen months, whether or not it looks worn."
    make_pdf(small_pdf, [[("text", "A new first page. It is short.")], [("text", text)]])
    hand.wait(lambda: "changed on disk" in hand.view.status.text())
    hand.reader.read_again()
    hand.wait(lambda: hand.reader.is_ready and hand.reader.summary.n_pages == 2)
    hand.wait(lambda: [e.anchor.page for e in hand.entries("mark")] == [1])
    spans = hand.reader.entries[mark.id].anchor.spans
    hand.view.pages.reveal(spans)
    hand.wait(lambda: hand.view.pages.images.layer(1))
    chars = hand.view.pages.images.layer(1).page.chars
    assert chars[spans[0].start : spans[-1].end].startswith("The rope is changed")


def test_an_entry_whose_passage_is_gone_is_kept_and_listed(qtbot, make_window, small_pdf):
    hand = Hand(qtbot, make_window()).open(small_pdf)
    hand.keep("The rope is changed every eighteen months", "M")
    make_pdf(small_pdf, [[("text", "Nothing is as it was. All is new.")]])
    hand.wait(lambda: "changed on disk" in hand.view.status.text())
    hand.reader.read_again()
    hand.wait(lambda: hand.entries("mark") and hand.entries("mark")[0].anchor.is_lost)
    assert "no place in this version" in hand.view.status.text()
    hand.view.contents.show_entries_list()
    rows = hand.view.contents.entries
    assert rows.topLevelItemCount() == 1
    assert "no place" in rows.topLevelItem(0).toolTip(0)


# --- arrangement, links, cutting, selection


def test_pages_can_stand_in_pairs_singly_and_turned(hand):
    pages = hand.view.pages
    hand.view.go_to_typed("10")
    page = hand.view.here()[0]
    for mode in ("facing", "single", "column"):
        pages.arrange_as("column")
        pages.go_to(page)
        pages.arrange_as(mode)
        assert page in pages.visible_pages()
    pages.fit_page()
    assert pages.page_rect(page).height() <= pages.viewport().height()
    pages.turn(1)
    rect = pages.page_rect(page)
    assert rect.width() > rect.height()


def test_text_is_selected_where_it_is_on_a_turned_page(hand):
    hand.view.pages.turn(1)
    hit = hand.reader.session.find("countersigns").result(PATIENT)[0]
    hand.view.pages.reveal(hit.spans)
    hand.wait(lambda: hand.view.pages.boxes_in_view(hit.spans))
    hand.view.pages.reveal(hit.spans)
    middle = hand.view.pages.boxes_in_view(hit.spans)[0].center().toPoint()
    QTest.mouseDClick(hand.view.pages.viewport(), Qt.MouseButton.LeftButton, pos=middle)
    assert hand.view.pages.selected_text() == "countersigns"


def test_three_clicks_take_the_sentence(hand):
    hit = hand.reader.session.find("countersigns").result(PATIENT)[0]
    hand.view.pages.reveal(hit.spans)
    hand.wait(lambda: hand.view.pages.boxes_in_view(hit.spans))
    hand.view.pages.reveal(hit.spans)
    middle = hand.view.pages.boxes_in_view(hit.spans)[0].center().toPoint()
    port, left = hand.view.pages.viewport(), Qt.MouseButton.LeftButton
    QTest.mouseDClick(port, left, pos=middle)
    QTest.mousePress(port, left, pos=middle)
    QTest.mouseRelease(port, left, pos=middle)
    text = hand.view.pages.selected_text()
    assert text.startswith("The keeper of the station countersigns")
    assert text.endswith("the state of the tide.")


def test_the_keyboard_extends_a_selection(hand):
    hand.select("never erased. The keeper of the")
    shift, control = Qt.KeyboardModifier.ShiftModifier, Qt.KeyboardModifier.ControlModifier
    QTest.keyClick(hand.view.pages, Qt.Key.Key_Right, shift | control)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_Right, shift | control)
    assert hand.view.pages.selected_text() == "never erased. The keeper of the station countersigns"
    QTest.keyClick(hand.view.pages, Qt.Key.Key_Left, shift)
    QTest.keyClick(hand.view.pages, Qt.Key.Key_Left, shift)
    assert hand.view.pages.selected_text() == "never erased. The keeper of the station countersign"
    before = len(hand.view.pages.selected_text())
    QTest.keyClick(hand.view.pages, Qt.Key.Key_Down, shift)
    assert len(hand.view.pages.selected_text()) > before + 20


def test_a_copy_can_carry_its_place(hand):
    hand.select("countersigns the second run")
    hand.view.commands.copy_with_citation()
    text = QGuiApplication.clipboard().text()
    assert text.startswith("“countersigns the second run” (The Tide Office, Hallan, The Skerrow")
    assert text.endswith("p. 18)")


def test_links_inside_jump_and_links_outside_are_asked_about(hand, monkeypatch):
    hand.view.pages.link_clicked.emit(Link((0, 0, 1, 1), page=20, y=100.0))
    assert hand.view.here()[0] == 20
    assert hand.view.history.behind
    asked = []
    monkeypatch.setattr(hand.view, "confirm_address", lambda a: asked.append(a) or False)
    hand.view.pages.link_clicked.emit(Link((0, 0, 1, 1), address="https://example.org/"))
    assert asked == ["https://example.org/"]


def test_a_region_is_cut_out_with_its_text(hand):
    hit = hand.reader.session.find("countersigns").result(PATIENT)[0]
    hand.view.pages.reveal(hit.spans)
    hand.wait(lambda: hand.view.pages.boxes_in_view(hit.spans))
    hand.view.pages.reveal(hit.spans)
    box = hand.view.pages.boxes_in_view(hit.spans)[0].adjusted(-30, -8, 40, 8).toRect()
    port, left = hand.view.pages.viewport(), Qt.MouseButton.LeftButton
    control = Qt.KeyboardModifier.ControlModifier
    QTest.mousePress(port, left, control, box.topLeft())
    from tests.desktop.conftest import _move

    hand.view.pages.mouseMoveEvent(_move(port, QPointF(box.bottomRight())))
    QTest.mouseRelease(port, left, control, box.bottomRight())
    hand.wait(lambda: hand.entries("cutting"))
    (entry,) = hand.entries("cutting")
    assert "countersigns" in entry.anchor.quote
    assert len(entry.body.png) > 500


# --- panels


def test_the_contents_can_be_filtered(hand):
    panel = hand.view.contents
    panel.filter.setText("bench")
    rows = panel.contents
    shown = [rows.topLevelItem(k) for k in range(12) if not rows.topLevelItem(k).isHidden()]
    assert [item.text(0) for item in shown] == ["Part III Levelling"]
    panel.filter.clear()
    assert not any(rows.topLevelItem(k).isHidden() for k in range(12))


def test_hits_are_listed_and_lead_there(hand):
    hand.view.place_line.find_field.setText("paraffin")
    hand.wait(lambda: hand.view.contents.hits.topLevelItemCount())
    n = hand.view.contents.hits.topLevelItemCount()
    assert n == len(hand.view.finding.hits) > 1
    hand.view.contents.hit_chosen.emit(n - 1)
    assert hand.view.place_line.count.text() == f"{n} of {n}"
    hand.view.place_line.find_field.clear()
    assert hand.view.contents.hits.topLevelItemCount() == 0


def test_find_can_be_narrowed_to_whole_words_and_exact_forms(hand):
    def count(words):
        hand.view.place_line.find_field.setText(words)
        hand.view.finding.find_again()
        hand.wait(lambda: hand.view.finding.hits and hand.view.place_line.count.text())
        return len(hand.view.finding.hits)

    everywhere = count("tide")
    hand.view.finding.whole_words(True)
    hand.wait(lambda: 0 < len(hand.view.finding.hits) < everywhere)
    whole = len(hand.view.finding.hits)
    hand.view.finding.exactly(True)
    hand.wait(lambda: 0 < len(hand.view.finding.hits) < whole)


def test_tab_completes_a_heading_in_the_ask_line(hand):
    field = hand.view.ask_line.field
    QTest.keyClicks(field, "bench")
    assert hand.view.ask_line.offer.text() == "Tab: 9 Bench marks"
    QTest.keyClick(field, Qt.Key.Key_Tab)
    assert field.text() == "9 Bench marks"
    assert hand.view.ask_line.verdict.text() == "Go to 9 Bench marks"


def test_the_spine_shows_a_preview_and_its_strokes_can_be_clicked(hand):
    hand.view.spine.pointed.emit(0.5, 300)
    hand.wait(lambda: hand.view.preview.isVisible())
    assert "p. " in hand.view.preview._words.text()
    hand.ask("How large may the closing error of a line be?")
    hand.wait(lambda: hand.view.spine._strokes)
    places = [place for place, _ in hand.view.spine._strokes]
    y = int(hand.view.spine._y(places[-1]))
    QTest.mouseClick(hand.view.spine, Qt.MouseButton.LeftButton, pos=QPoint(15, y))
    assert hand.view.held.at >= 0


# --- help, properties, printing, the desktop


def test_the_keys_shown_are_those_in_the_docs(hand):
    shown = resources.files("wide_margin.data").joinpath("keys.md").read_text("utf-8")
    assert shown == (ROOT / "docs" / "keys.md").read_text("utf-8")
    named = {key.toString() for a in hand.window.findChildren(QAction) for key in a.shortcuts()}
    for key in ("Ctrl+G", "Alt+Left", "F3", "Ctrl+L", "F9", "F11", "Ctrl+R", "Ctrl+9"):
        assert key in named
        assert key in shown


def test_properties_tell_the_file_and_what_was_read(hand):
    rows = dict(property_rows("/x.pdf", hand.reader.facts, hand.reader.summary))
    assert rows["Pages"] == "189"
    assert rows["Author"] == "The Tide Office, Hallan"
    assert rows["First page"] == "148 × 210 mm"
    assert rows["Without text"] == "file page 119"
    assert "Memory" not in rows
    known = property_rows("/x.pdf", hand.reader.facts, None, hand.reader.session.memory())
    assert dict(known)["Memory"].endswith(" MB")
    assert plain_date("D:20260315101500Z") == "2026-03-15 10:15"
    assert plain_date("yesterday") == "yesterday"


def test_properties_are_shown_once_the_memory_is_known(hand):
    hand.window.show_properties()
    hand.wait(lambda: hand.window.findChildren(PropertiesDialog))
    (dialog,) = hand.window.findChildren(PropertiesDialog)
    said = [label.text() for label in dialog.findChildren(Words)]
    assert "Memory" in said
    assert any(text.endswith(" MB") for text in said)
    dialog.close()


def test_printing_keeps_the_range_and_the_scale(hand, tmp_path):
    printer = QPrinter()
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "out.pdf"))
    printer.setFromTo(3, 5)
    hand.window.printing.print_to(printer)
    hand.wait(lambda: "3 pages were printed" in hand.view.status.text())
    printed = PdfFile(tmp_path / "out.pdf")
    assert printed.n_pages == 3
    assert printed.facts().sizes[0] == pytest.approx([419.5, 595.3], abs=1.5)
    printed.close()


def test_a_page_is_printed_with_its_margin_beside_it(hand, tmp_path):
    entry = hand.keep("Failed lines are entered in red on Form 6", "1")
    hand.view.commands.save_text(entry.id, "A comment <b>of mine</b>")
    hand.wait(lambda: hand.reader.entries[entry.id].body.text)
    printer = QPrinter()
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "out.pdf"))
    page = entry.anchor.page + 1
    printer.setFromTo(page, page)
    hand.window.printing.print_to(printer, with_margin=True)
    hand.wait(lambda: "1 page was printed" in hand.view.status.text())
    printed = PdfFile(tmp_path / "out.pdf")
    width, height = printed.facts().sizes[0]
    assert width == pytest.approx(419.5 + 230, abs=1.5)
    assert height == pytest.approx(595.3, abs=1.5)
    text = read_text(printed, 0)
    at = text.chars.index("A comment <b>of mine</b>")
    x, y = text.boxes[at][:2]
    assert x > 419.5
    (box,) = hand.view.pages.boxes_in_view(entry.anchor.spans)
    passage = hand.view.pages.place_at(box.center().y())
    assert y == pytest.approx(passage[1], abs=40)
    printed.close()


def test_the_desktop_entry_is_installed_and_taken_out(tmp_path):
    environment = {**os.environ, "XDG_DATA_HOME": str(tmp_path)}
    command = [sys.executable, str(ROOT / "tools" / "install_desktop.py")]
    subprocess.run(command, check=True, env=environment, capture_output=True)
    entry = (tmp_path / "applications" / "wide-margin.desktop").read_text("utf-8")
    assert "MimeType=application/pdf;" in entry
    assert f"{Path(sys.executable).parent}" in entry
    subprocess.run([*command, "--undo"], check=True, env=environment, capture_output=True)
    assert not [path for path in tmp_path.rglob("*") if path.is_file()]


def test_an_address_is_fetched_and_opened(empty_hand, small_pdf):
    empty_hand.window.open_text(small_pdf.as_uri())
    empty_hand.wait(lambda: empty_hand.reader.is_ready)
    assert empty_hand.reader.path == small_pdf
    empty_hand.window.open_text("http://127.0.0.1:9/none.pdf")
    empty_hand.wait(lambda: "cannot be reached" in empty_hand.view.message.text)
