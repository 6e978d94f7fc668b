"""The held answer in the window: asking on, striking, reach, and composing."""

from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QInputDialog, QPushButton

from tests.desktop.conftest import Hand
from wide_margin.core.margin import Before
from wide_margin.core.services import Settings
from wide_margin.core.services.stand_in import StandIn
from wide_margin.desktop import service_writing
from wide_margin.desktop.words import WrappedWords

QUESTION = "How high is the crown of the dyke at Low Fenny?"


def press(hand, words):
    """Press a button of the held answer."""
    hand.wait(lambda: hand.view.margin.held)
    for button in hand.view.margin.held.findChildren(QPushButton):
        if button.text() == words and button.isVisibleTo(hand.view.margin.held):
            QTest.mouseClick(button, Qt.MouseButton.LeftButton)
            return
    raise AssertionError(f"the held answer has no “{words}”")


def is_composed(hand, entry):
    body = hand.reader.entries[entry.id].body
    return body.origin == "composed" and body.state == "done"


def held_text(hand):
    return " ".join(quote.text for quote in hand.view.margin.held.entry.body.quotes)


def test_a_follow_up_leans_on_the_held_question(hand):
    first = hand.ask(QUESTION)
    press(hand, "Ask on from here")
    assert hand.view.ask_line.after.isVisibleTo(hand.view.ask_line)
    second = hand.ask("And at Innerby?")
    assert second.body.before == Before(first.id, QUESTION)
    assert "4.5 metres" in held_text(hand)
    assert hand.view.ask_line.before == second.id


def test_a_question_can_be_asked_again_in_another_form(hand):
    hand.ask("How does the seven-reading rule work?")
    press(hand, "Ask again")
    field = hand.view.ask_line.field
    assert field.text() == "How does the seven-reading rule work?"
    entry = hand.ask(f"{field.text()} under 20 words")
    assert sum(len(quote.text.split()) for quote in entry.body.quotes) <= 20


def test_asking_on_can_be_left_again(hand):
    hand.ask(QUESTION)
    press(hand, "Ask on from here")
    QTest.mouseClick(hand.view.ask_line.after, Qt.MouseButton.LeftButton)
    entry = hand.ask("How often is the wire of the float changed?")
    assert entry.body.before is None


def test_letting_go_ends_asking_on(hand):
    hand.ask(QUESTION)
    press(hand, "Ask on from here")
    press(hand, "Let go")
    assert hand.view.ask_line.before == ""


def test_every_place_of_an_answer_can_be_visited(hand):
    hand.ask(QUESTION)
    hand.wait(lambda: hand.view.margin.held)
    for index, place in enumerate(hand.view.margin.held.places()):
        hand.view.held.follow(hand.view.margin.held.entry.id, index)
        hand.wait(lambda page=place.page: page in hand.view.pages.visible_pages())


def test_a_struck_excerpt_is_left_out_when_asked_again(hand):
    entry = hand.ask(QUESTION)
    press(hand, f"{len(entry.body.excerpts)} excerpts")
    first = entry.body.excerpts[0]
    press(hand, "Strike")
    hand.wait(lambda: hand.reader.entries[entry.id].body.struck == (0,))
    before = set(hand.reader.entries)
    press(hand, "Ask again from what is kept")
    hand.wait(lambda: hand.view.margin.held.entry.id not in before)
    again = hand.view.margin.held.entry
    assert again.body.reach.name.endswith("kept excerpts")
    assert first.locator.spans not in [e.locator.spans for e in again.body.excerpts]


def test_pages_can_be_asked_alone(hand):
    assert hand.view.reaching.of_pages("135-140")
    entry = hand.ask("Which clothes are advised?")
    assert entry.body.reach.name == "pages 135–140"
    assert all(150 <= e.locator.page <= 155 for e in entry.body.excerpts)
    assert "pages 135–140" in hand.view.ask_line.reach_choice.button.text()


def test_pages_that_are_not_there_are_told(hand):
    assert not hand.view.reaching.of_pages("900-910")
    assert "no pages “900-910”" in hand.view.status.text()
    assert hand.view.ask_line.reach.kind == "document"


def test_the_selection_can_be_asked_alone(hand):
    hand.select("countersigns the second run within fourteen days")
    hand.view.reaching.of_selection()
    entry = hand.ask("When must the second run be countersigned?")
    assert entry.body.reach.name == "the selection"
    assert {e.locator.page for e in entry.body.excerpts} == {33}
    assert "fourteen days" in held_text(hand)


def test_an_answer_is_composed_checked_and_quoted_again(hand_with_model):
    hand = hand_with_model
    entry = hand.ask("How large may the closing error of a line of levels be?")
    quoted = entry.body.quotes
    press(hand, "Compose")
    hand.wait(lambda: is_composed(hand, entry))
    body = hand.reader.entries[entry.id].body
    assert body.origin == "composed"
    assert all(quote.locators for quote in body.quotes)
    assert "composed, simulated" in hand.view.margin.held.head.text()
    press(hand, "Quote again")
    hand.wait(lambda: hand.reader.entries[entry.id].body.quotes == quoted)


@pytest.mark.parametrize(
    ("misbehave", "told"), [("breaks", "broke off"), ("refuses", "asked too often")]
)
def test_a_model_that_fails_leaves_the_quotes(
    qtbot, make_window, handbook_path, misbehave, told, monkeypatch
):
    monkeypatch.setattr("wide_margin.core.services.writing_model.LONGEST_WAIT", 0.0)
    with StandIn(misbehave=misbehave) as server:
        settings = Settings(model_address=server.address, language="de")
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        entry = hand.ask("How large may the closing error of a line of levels be?")
        press(hand, "Compose")
        hand.wait(lambda: hand.reader.entries[entry.id].body.problem)
        body = hand.reader.entries[entry.id].body
        assert told in body.problem
        assert body.quotes == entry.body.quotes
        hand.window.close()


def test_places_that_a_model_invents_are_not_shown(qtbot, make_window, handbook_path):
    with StandIn(misbehave="invents") as server:
        settings = Settings(model_address=server.address, language="de")
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        entry = hand.ask("How large may the closing error of a line of levels be?")
        press(hand, "Compose")
        hand.wait(lambda: is_composed(hand, entry))
        quotes = hand.reader.entries[entry.id].body.quotes
        assert all(not quote.locators for quote in quotes)
        assert all("does not exist" in " ".join(quote.notes) for quote in quotes)
        hand.window.close()


def test_composing_can_be_cancelled(qtbot, make_window, handbook_path):
    with StandIn(delay=0.2) as slow:
        settings = Settings(model_address=slow.address, language="de")
        hand = Hand(qtbot, make_window(settings)).open(handbook_path)
        entry = hand.ask("How large may the closing error of a line of levels be?")
        press(hand, "Compose")
        hand.wait(lambda: hand.reader.entries[entry.id].body.model)
        press(hand, "Cancel")
        hand.wait(lambda: hand.reader.entries[entry.id].body.origin == "quoted")
        assert hand.reader.entries[entry.id].body.quotes == entry.body.quotes
        hand.window.close()


def test_an_answer_can_be_composed_freely_and_closely_again(hand_with_model, monkeypatch):
    hand, manners = hand_with_model, []
    composed = service_writing.compose

    def compose(*arguments, freely, **others):
        manners.append(freely)
        return composed(*arguments, freely=freely, **others)

    monkeypatch.setattr(service_writing, "compose", compose)
    entry = hand.ask(QUESTION)
    for n, words in enumerate(("Compose", "Compose freely", "Compose closely"), start=1):
        press(hand, words)
        hand.wait(lambda n=n: len(manners) == n and is_composed(hand, entry))
    assert manners == [False, True, False]
    assert hand.reader.entries[entry.id].body.origin == "composed"


def test_the_excerpts_show_small_pictures_of_their_places(hand):
    entry = hand.ask(QUESTION)
    held = hand.view.margin.held
    assert not any(picture.has_image for picture in held.pictures)
    press(hand, f"{len(entry.body.excerpts)} excerpts")
    hand.wait(lambda: all(picture.has_image for picture in held.pictures))
    assert len(held.pictures) == len(entry.body.excerpts)
    second = entry.body.excerpts[1].locator.page
    held.pictures[1].clicked.emit()
    hand.wait(lambda: second in hand.view.pages.visible_pages())


@pytest.mark.parametrize("width", [1280, 1000])
def test_no_word_of_the_held_answer_is_cut(hand, width):
    hand.window.resize(width, 800)
    entry = hand.ask(QUESTION)
    press(hand, f"{len(entry.body.excerpts)} excerpts")
    hand.wait(lambda: hand.view.margin.held)
    QTest.qWait(100)  # sizes are found once the style is applied
    held = hand.view.margin.held
    for label in held.findChildren(WrappedWords):
        if label.isVisibleTo(held):
            assert label.height() >= label.heightForWidth(label.width()), label.text()
    for button in held.findChildren(QPushButton):
        if button.isVisibleTo(held):
            assert button.width() >= button.sizeHint().width(), button.text()


def test_a_table_can_be_asked_alone(hand):
    figure = next(f for f in hand.reader.summary.figures if f.name == "Table 2")
    hand.view.reaching.of_figure(figure)
    entry = hand.ask("How high was the surge of 3 November 1911?")
    assert entry.body.reach.name == "Table 2"
    assert "1.21" in held_text(hand)
    assert {e.locator.page for e in entry.body.excerpts} == {figure.page}


def test_a_figure_is_chosen_from_a_list(hand, monkeypatch):
    def choose(dialog):
        rows = dialog.comboBoxItems()
        dialog.setTextValue(next(row for row in rows if row.startswith("Table 3.")))
        return 1

    monkeypatch.setattr(QInputDialog, "exec", choose)
    hand.view.ask_line.figure_wanted.emit()
    assert hand.view.ask_line.reach.name == "Table 3"
    assert hand.view.ask_line.reach.kind == "figure"


def test_general_knowledge_needs_a_model_and_is_passed_on(hand_with_model, monkeypatch):
    hand, asked = hand_with_model, []
    monkeypatch.setattr(
        hand.reader.composer, "compose",
        lambda entry, *, freely, with_general: asked.append(with_general),
    )  # fmt: skip
    line = hand.view.ask_line
    entry = hand.ask(QUESTION)
    hand.view.commands.compose(entry.id)
    general = line.draw_on.menu.actions()[1]
    assert general.isEnabled()
    general.trigger()
    assert "general" in line.draw_on.button.text()
    hand.view.commands.compose(entry.id)
    assert asked == [False, True]
    line.set_model(is_there=False)
    assert not line.draws_on_general


def test_without_a_model_there_is_nothing_to_compose_with(hand):
    hand.ask(QUESTION)
    with pytest.raises(AssertionError, match="no “Compose”"):
        press(hand, "Compose")


def test_a_composed_answer_is_there_after_reopening(hand_with_model, make_window, handbook_path):
    hand = hand_with_model
    entry = hand.ask("How large may the closing error of a line of levels be?")
    press(hand, "Compose")
    hand.wait(lambda: is_composed(hand, entry))
    composed = hand.reader.entries[entry.id].body.quotes
    hand.window.close()
    again = Hand(hand.bot, make_window(replace(hand.reader.settings))).open(handbook_path)
    assert again.reader.entries[entry.id].body.quotes == composed


def test_an_answer_is_copied_with_its_pages(hand):
    entry = hand.ask("How large may the closing error of a line of levels be?")
    hand.wait(lambda: hand.view.margin.held)
    hand.view.margin.held.commands.copy(entry.id, "cited")
    text = QGuiApplication.clipboard().text()
    assert "4 mm for each kilometre" in text
    assert "(p. 17)" in text
    assert "The Skerrow Sound Tide Network" in text


def test_questions_worth_asking_stand_beside_the_first_page(hand):
    margin = hand.view.margin
    assert "being looked for" in margin.worth.findChildren(WrappedWords)[0].text() or (
        margin.worth.lines
    )
    hand.wait(lambda: margin.worth.lines)
    assert margin.worth.isVisible()
    assert len(margin.worth.lines) == 6
    question = margin.worth.lines[0].text()
    margin.worth.lines[0].linkActivated.emit("ask:")
    hand.wait(lambda: margin.held)
    assert margin.held.entry.body.question in question
    assert not margin.worth.isVisible()
    assert margin.held.entry.body.quotes


def test_questions_worth_asking_stay_at_the_first_page(hand):
    hand.wait(lambda: hand.view.margin.worth)
    hand.view.go_to_typed("20")
    hand.wait(lambda: not hand.view.margin.worth.isVisible())
    hand.view.go_back()
    hand.wait(lambda: hand.view.margin.worth.isVisible())


def test_the_kind_of_document_can_be_changed(hand):
    margin = hand.view.margin
    hand.wait(lambda: margin.worth.lines)
    before = margin.worth
    hand.view.commands.choose_kind("statute")
    hand.wait(lambda: margin.worth is not before and "a statute" in margin.worth.kind.text())


def test_a_document_that_was_asked_before_is_not_offered_questions(
    hand, make_window, handbook_path
):
    hand.ask(QUESTION)
    hand.window.close()
    again = Hand(hand.bot, make_window()).open(handbook_path)
    again.bot.wait(600)
    assert again.view.margin.worth is None


def test_the_model_helps_in_finding_and_what_was_sent_is_said(hand_with_model):
    hand = hand_with_model
    entry = hand.ask(QUESTION)
    quotes = hand.reader.entries[entry.id].body.quotes
    press(hand, "Compose")
    hand.wait(lambda: is_composed(hand, entry))
    body = hand.reader.entries[entry.id].body
    assert body.restated
    assert body.n_judged
    assert body.n_sent > 100
    labels = hand.view.margin.held.findChildren(WrappedWords)
    said = " ".join(label.text() for label in labels)
    assert f"{body.n_sent:,} words sent to the model" in said
    assert f"looked for in {len(body.restated)} other wordings too" in said
    assert any(
        body.restated[0] in label.toolTip()
        for label in hand.view.margin.held.findChildren(WrappedWords)
    )
    press(hand, "Quote again")
    hand.wait(lambda: hand.reader.entries[entry.id].body.quotes == quotes)


def test_the_help_can_be_switched_off(qtbot, make_window, handbook_path, stand_in):
    settings = Settings(
        model_address=stand_in.address, language="de",
        model_restates=False, model_embeds=False, model_judges=False,
    )  # fmt: skip
    hand = Hand(qtbot, make_window(settings)).open(handbook_path)
    entry = hand.ask(QUESTION)
    excerpts = hand.reader.entries[entry.id].body.excerpts
    press(hand, "Compose")
    hand.wait(lambda: is_composed(hand, entry))
    body = hand.reader.entries[entry.id].body
    assert body.excerpts == excerpts
    assert not body.restated
    assert len(stand_in.asked) == 1


def test_the_model_can_look_where_the_document_seemed_not_to_say(hand_with_model):
    hand = hand_with_model
    entry = hand.ask("Who was the first emperor of Rome?")
    assert hand.reader.entries[entry.id].body.is_declined
    press(hand, "Look with the model")
    hand.wait(lambda: hand.reader.entries[entry.id].body.n_sent)
    hand.wait(lambda: not hand.reader.entries[entry.id].body.state.is_under_way)
    body = hand.reader.entries[entry.id].body
    assert body.quotes or "finds no answer" in body.problem
    assert all(quote.locators for quote in body.quotes)
