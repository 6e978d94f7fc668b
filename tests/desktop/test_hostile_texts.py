"""What a document, a file name, a server or a reader says is text in every widget."""

import time

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import Qt as QtText
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QLabel, QTreeWidget, QWidget

from tests.desktop.conftest import Hand
from tests.hostile.making import MARKUP, OVERRIDE, markup_label, mutants, small_pdfs
from tests.making import PATIENT
from wide_margin.core.answers import Excerpt, Quote, Reach
from wide_margin.core.document import Locator
from wide_margin.core.errors import WideMarginError
from wide_margin.core.explain import Meaning, Reference
from wide_margin.core.margin import (
    Anchor,
    Before,
    EntryKind,
    ExplanationBody,
    NoteBody,
    QuestionBody,
    State,
    TranslationBody,
    new_entry,
)
from wide_margin.core.translate import Pair
from wide_margin.desktop import words
from wide_margin.desktop.model_dialog import ModelDialog
from wide_margin.desktop.properties import PropertiesDialog, property_rows

N_MUTANTS = 40
LONGEST_GAP = 20.0
"""Seconds that the window may stand still while hostile files are opened one after the other."""


def harmful(widget: QWidget) -> list[str]:
    """What of a widget Qt would take for markup that is not ours."""
    found = []
    if isinstance(widget, QLabel):
        if widget.textFormat() == Qt.TextFormat.AutoText and widget.text():
            found.append(f"automatic format: {widget.text()!r}")
        if widget.textFormat() == Qt.TextFormat.RichText and "<img" in widget.text():
            found.append(f"markup: {widget.text()!r}")
    for said in [widget.toolTip(), *_tips_of_rows(widget)]:
        if QtText.mightBeRichText(said) and ("<img" in said or "<b>" in said):
            found.append(f"tooltip: {said!r}")
    shown = widget.text() if isinstance(widget, QLabel | QAbstractButton) else ""
    if any(sign in text for sign in "\u202e\u2066" for text in (shown, widget.toolTip())):
        found.append(f"direction override: {shown!r}")
    return found


def _tips_of_rows(widget: QWidget) -> list[str]:
    if not isinstance(widget, QTreeWidget):
        return []
    rows = [widget.topLevelItem(k) for k in range(min(widget.topLevelItemCount(), 50))]
    return [row.toolTip(column) for row in rows if row for column in range(widget.columnCount())]


def all_harm() -> list[str]:
    return [
        f"{type(widget).__name__}: {harm}"
        for top in QApplication.topLevelWidgets()
        for widget in [top, *top.findChildren(QWidget)]
        for harm in harmful(widget)
    ]


TEXT = f"{MARKUP} {OVERRIDE}"
PLACE = Locator(0, TEXT, (), (TEXT, TEXT), TEXT)


def entries():
    """One of every kind, with harm in every text."""
    quote = Quote(TEXT, (PLACE,), emphasis=((0, 4),), notes=(TEXT,))
    lost = Anchor(0, 40.0, (), TEXT, is_lost=True)
    question = QuestionBody(
        TEXT, "what is", Reach("pages", name=TEXT), (quote,), (Excerpt(TEXT, PLACE, 1.0),), 2, 2,
        (0,), (TEXT,), problem=TEXT, model=TEXT, before=Before("x", TEXT),
    )  # fmt: skip
    explanation = ExplanationBody(
        TEXT, (Meaning(TEXT, TEXT, "defined", PLACE, TEXT),), (Reference(TEXT, TEXT, PLACE),)
    )
    translation = TranslationBody("de", (Pair(TEXT, TEXT, (TEXT,)),), State.FAILED, TEXT, TEXT)
    for kind, body in (
        (EntryKind.QUESTION, question), (EntryKind.EXPLANATION, explanation),
        (EntryKind.TRANSLATION, translation), (EntryKind.NOTE, NoteBody(TEXT)),
    ):  # fmt: skip
        yield new_entry(kind, lost, body)


@pytest.fixture
def hostile(qtbot, make_window, tmp_path):
    path = tmp_path / "<b>name<img src=x>.pdf"
    markup_label(path, TEXT)
    return Hand(qtbot, make_window()).open(path)


def test_no_view_takes_a_documents_words_for_markup(hostile):
    hand = hostile
    for entry in entries():
        hand.reader.keeper.add(entry)
    hand.wait(lambda: len(hand.reader.entries) == 4)
    hand.view.contents.show_entries_list()
    (question,) = hand.entries("question")
    hand.view.held.hold(question.id)
    hand.view.margin.held.excerpts_button.click()
    hand.view.show_status(TEXT, act=(TEXT, lambda: None))
    hand.view.message.say(TEXT, TEXT, TEXT)
    hand.view.ask_line.ask_on_from("x", TEXT)
    hand.view.ask_line.set_reach(Reach("pages", name=TEXT))
    hand.view.along_spine.preview(0.2, 100)
    hand.window.show_view("Outline")
    hand.wait(lambda: hand.window.outline_view.tree.topLevelItemCount())
    hand.window.outline_view.say(TEXT)
    hand.window.show_view("Read")
    hand.reader.problem.emit(WideMarginError(TEXT, hint=TEXT))
    assert all_harm() == []
    assert MARKUP[:20] in hand.window.windowTitle()
    hand.window.back_to_start()
    assert hand.window.start_page.tiles
    assert all_harm() == []


def test_no_dialog_takes_a_text_for_markup(hostile):
    hand = hostile
    rows = property_rows(str(hand.reader.path), hand.reader.facts, hand.reader.summary)
    dialog = PropertiesDialog(rows, hand.window)
    model = ModelDialog(hand.reader.settings, hand.reader.background, hand.window)
    model.verdict.setText(TEXT)
    box = words._message(hand.window, TEXT, TEXT)
    asking = words._input(hand.window, TEXT, TEXT)
    for shown in (dialog, model, box, asking):
        shown.show()
    assert any(MARKUP[:20] in label.text() for label in box.findChildren(QLabel))
    assert all_harm() == []
    for shown in (dialog, model, box, asking):
        shown.close()


def test_the_words_are_shown_as_they_stand(hostile):
    assert hostile.view.place_line.place.text().startswith(f"p. {MARKUP[:20]}")
    assert hostile.label().startswith(MARKUP[:20])


def test_hostile_files_leave_the_window_working(qtbot, make_window, tmp_path, handbook_path):
    hand = Hand(qtbot, make_window())
    files = mutants(small_pdfs(tmp_path / "small"), N_MUTANTS, tmp_path, seed=7)
    largest = 0.0
    for path in files:
        ended = []
        hand.reader.failed.connect(ended.append)
        hand.reader.ready.connect(ended.append)
        hand.reader.reading_failed.connect(ended.append)
        hand.window.open(path)
        until = time.monotonic() + PATIENT
        while not ended:
            assert time.monotonic() < until, f"{path.name}: neither opened nor refused"
            began = time.perf_counter()
            QTest.qWait(5)
            largest = max(largest, time.perf_counter() - began)
        for signal in (hand.reader.failed, hand.reader.ready, hand.reader.reading_failed):
            signal.disconnect(ended.append)
        if isinstance(ended[0], WideMarginError):
            assert "Something went wrong" not in ended[0].message
    assert largest < LONGEST_GAP, f"the window stood still for {largest:.2f} s"
    hand.open(handbook_path)
    assert hand.ask("How large may the closing error of a line be?").body.quotes
