"""Two places beside each other: of one document, or of two editions."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from tests.making import make_pdf
from wide_margin.desktop.read_view.beside import BY_PAGE, BY_SECTION, FREELY
from wide_margin.desktop.words import WrappedWords

FILLER = "There is a lot to be said of stones, and here it is said at some length. " * 30


@pytest.fixture
def beside(hand):
    yield hand.view.beside
    hand.view.beside.close_it()


def there(beside):
    place = beside.pages.reading_place()
    return place[0] if place else -1


def here(hand):
    return hand.view.pages.reading_place()[0]


def test_a_place_is_shown_beside_and_put_away(hand, beside):
    hand.view.go_to_typed("17")
    page = here(hand)
    beside.toggle()
    assert beside.isVisibleTo(hand.view)
    hand.wait(lambda: there(beside) == page)
    hand.wait(lambda: beside.pages.images.image(page))
    hand.view.go_to_typed("30")
    assert there(beside) == page  # freely
    assert "p. 17" in beside.place.text()
    beside.toggle()
    assert not beside.isVisibleTo(hand.view)
    assert beside.pages.n_pages == 0


def test_both_move_by_the_page(hand, beside):
    hand.view.go_to_typed("17")
    start = here(hand)
    beside.show_place(start + 5)
    hand.wait(lambda: there(beside) == start + 5)
    QTest.qWait(100)  # both are fitted to their width
    beside.show_place(here(hand) + 5)
    beside.move_together(BY_PAGE)
    hand.view.go_to_typed("20")
    hand.wait(lambda: there(beside) == here(hand) + 5)
    beside.move_together(FREELY)
    at = there(beside)
    hand.view.go_to_typed("40")
    assert there(beside) == at


def test_a_section_and_a_table_are_shown_beside_with_ctrl(hand, beside):
    contents = hand.view.contents.contents
    item = next(contents.topLevelItem(k) for k in range(contents.topLevelItemCount())
                if contents.topLevelItem(k).text(0).startswith("Part VI"))  # fmt: skip
    contents.setCurrentItem(item)
    before = hand.view.here()
    QTest.keyClick(contents, Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    section = next(s for s in hand.reader.summary.outline.sections if s.title == item.text(0))
    hand.wait(lambda: there(beside) == section.page)
    assert hand.view.here()[0] == before[0]
    table = next(f for f in hand.reader.summary.figures if "Table 2" in f.caption)
    hand.view.contents.figures.beside.emit(table)
    hand.wait(lambda: there(beside) == table.page)


@pytest.fixture
def editions(tmp_path):
    """Two editions: in the second, section 3 stands two pages later."""
    paths = []
    for name, n_new in (("first.pdf", 0), ("second.pdf", 2)):
        pages = [[("h1", "1 Wells"), ("text", FILLER)]]
        pages += [[("text", FILLER)] for _ in range(n_new)]
        pages += [[("h1", "2 Buckets"), ("text", FILLER)], [("h1", "3 Ropes"), ("text", FILLER)]]
        pages += [[("text", FILLER)] for _ in range(6)]  # so that any page can be at the top
        make_pdf(tmp_path / name, pages)
        paths.append(tmp_path / name)
    return paths


def test_two_editions_move_by_their_sections(qtbot, make_window, editions):
    first, second = editions
    hand = Hand(qtbot, make_window()).open(first)
    beside = hand.view.beside
    beside.show_file(second)
    hand.wait(lambda: beside.pages.n_pages == 11)
    hand.wait(lambda: len(beside.outline.sections) == 3)
    beside.move_together(BY_SECTION)
    hand.view.go_to_section(2)
    hand.wait(lambda: hand.view.section == 2)
    hand.wait(lambda: 4 in beside.pages.visible_pages())
    assert "second.pdf" in beside.place.toolTip()
    beside.close_it()


def test_a_file_that_cannot_be_opened_is_told(hand, beside, tmp_path):
    (tmp_path / "no.pdf").write_bytes(b"no")
    beside.show_file(tmp_path / "no.pdf")
    hand.wait(lambda: "no.pdf" in hand.view.status.text())
    assert not beside.isVisibleTo(hand.view)


def test_a_locked_file_asks_for_its_password_until_it_fits(hand, beside, locked_pdf, monkeypatch):
    given, asked = iter(["wrong", "sesame"]), []

    def answer(parent, title, message, **_):
        asked.append(message)
        return next(given)

    monkeypatch.setattr("wide_margin.desktop.read_view.beside.ask_text", answer)
    beside.show_file(locked_pdf)
    hand.wait(lambda: beside.isVisibleTo(hand.view) and beside.pages.n_pages == 1)
    assert "protected by a password" in asked[0]
    assert "does not open the file" in asked[1]


def test_a_locked_file_whose_password_is_not_given_is_put_away(
    hand, beside, locked_pdf, monkeypatch
):
    monkeypatch.setattr("wide_margin.desktop.read_view.beside.ask_text", lambda *_, **__: None)
    beside.show_file(locked_pdf)
    hand.wait(lambda: "password" in hand.view.status.text())
    assert not beside.isVisibleTo(hand.view)
    hand.view.go_to_typed("17")  # reading goes on
    assert here(hand) > 0


def test_another_document_puts_it_away(hand, beside, small_pdf):
    beside.toggle()
    hand.window.open(small_pdf)
    hand.wait(lambda: not beside.isVisibleTo(hand.view))


def test_two_sections_that_are_compared_are_opened_beside_each_other(hand):
    view = hand.view
    entry = hand.ask("Compare section 9.3 and section 8.4")
    assert entry.body.kind == "compare"
    hand.wait(lambda: view.beside.isVisible())
    paths = [quote.locators[0].path[-1] for quote in entry.body.quotes]
    assert paths[0].startswith("9.3")
    other = next(q.locators[0] for q in entry.body.quotes if q.locators[0].path[-1] != paths[0])
    assert other.path[-1].startswith("8.4")
    hand.wait(lambda: other.page in view.beside.pages.visible_pages())
    assert view.beside.pages.laid("evidence")[0].spans == other.spans
    hand.wait(lambda: entry.body.quotes[0].locators[0].page in view.pages.visible_pages())


def test_things_that_are_compared_leave_the_window_as_it_is(hand):
    hand.ask("What is the difference between a spring tide and a neap tide?")
    assert not hand.view.beside.isVisible()


@pytest.fixture
def asked(tmp_path, qtbot, make_window):
    """Two files that say different things of one matter, the second beside the first."""
    for name, colour in (("first.pdf", "red"), ("second.pdf", "green")):
        pages = [[("h1", "1 Boats"), ("text", FILLER)]] * 2
        told = f"The boats of the harbour are painted {colour} in April. " + FILLER
        make_pdf(tmp_path / name, [*pages, [("h1", "2 Paint"), ("text", told)]])
    hand = Hand(qtbot, make_window()).open(tmp_path / "first.pdf")
    hand.view.beside.show_file(tmp_path / "second.pdf")
    hand.wait(lambda: hand.view.beside.asking.isVisibleTo(hand.view))
    yield hand
    hand.view.beside.close_it()


def ask_there(hand, question):
    asking = hand.view.beside.asking
    QTest.keyClicks(asking.field, question)
    QTest.keyClick(asking.field, Qt.Key.Key_Return)

    def said():
        return " ".join(line.text() for line in asking.answer_area.findChildren(WrappedWords))

    hand.wait(lambda: asking.answer_area.isVisibleTo(hand.view) and question in said())
    return said()


def test_what_is_asked_stands_with_its_side(asked, tmp_path):
    question = "In which colour are the boats painted?"
    assert "green" in ask_there(asked, question)
    asked.wait(lambda: there(asked.view.beside) == 2)
    assert here(asked) == 0
    assert not asked.entries("question")
    entry = asked.ask(question)
    assert "red" in entry.body.quotes[0].text

    def kept():
        store = asked.reader.store
        records = {Path(record.path).name: record.id for record in store.documents()}
        if "second.pdf" not in records:
            return False
        found = store.entries(records["second.pdf"]).entries
        return [e.body.question for e in found] == [question]

    asked.wait(kept)


def test_an_answer_beside_leads_to_its_place_and_is_put_away(asked):
    ask_there(asked, "In which colour are the boats painted?")
    beside = asked.view.beside
    beside.pages.go_to(0)
    line = next(
        line for line in beside.asking.answer_area.findChildren(WrappedWords)
        if "href" in line.text()
    )  # fmt: skip
    line.linkActivated.emit("0")
    asked.wait(lambda: there(beside) == 2)
    QTest.keyClick(beside.asking.field, Qt.Key.Key_Escape)
    assert not beside.asking.answer_area.isVisibleTo(asked.view)


def test_what_the_other_file_does_not_say_is_told_there(asked):
    assert "does not say" in ask_there(asked, "Who was the first emperor of Rome?")


def test_one_document_has_one_line_to_ask_in(hand, beside):
    beside.toggle()
    assert not beside.asking.isVisibleTo(hand.view)
