"""A page or a section translated facing the pages, in the real window."""

import itertools

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from tests.hostile.making import MARKUP
from tests.making import PATIENT
from wide_margin.core.layout import SpanOnPage
from wide_margin.core.margin import State
from wide_margin.core.services import Settings
from wide_margin.core.translate import Pair, TermRule

ON_PAGE = "A mark is lost when it cannot be found"


@pytest.fixture
def facing(hand_with_model):
    """The page on lost marks, translated by the stand-in."""
    hand = hand_with_model
    go_to(hand, ON_PAGE)
    hand.view.commands.facing.translate_page()
    hand.wait(lambda: hand.entries("translation") and body_of(hand).state is State.DONE)
    return hand


def go_to(hand: Hand, words: str) -> None:
    hit = hand.reader.session.find(words).result(PATIENT)[0]
    hand.view.pages.go_to(hit.page, 0.0)
    hand.wait(lambda: hand.view.pages.images.layer(hit.page))


def body_of(hand: Hand):
    (entry,) = hand.entries("translation")
    return entry.body


def shown(hand: Hand):
    return [w for w in hand.view.facing._built.values() if w.isVisible()]


def test_a_page_stands_facing_paragraph_by_paragraph(facing):
    column, body = facing.view.facing, body_of(facing)
    assert column.isVisible()
    assert body.is_facing
    assert body.of == "p. 18"
    assert all(pair.target for pair in body.pairs)
    assert len(body.paragraphs) > 4
    assert [p.row for p in body.paragraphs] == sorted({p.row for p in body.paragraphs})
    facing.wait(lambda: len(shown(facing)) >= 3)
    boxes = sorted(w.geometry().getRect() for w in shown(facing))
    by_top = sorted(boxes, key=lambda box: box[1])
    assert all(a[1] + a[3] <= b[1] for a, b in itertools.pairwise(by_top))


def test_a_table_stands_facing_row_by_row(hand_with_model):
    hand = hand_with_model
    table = next(f for f in hand.reader.summary.figures if f.caption.startswith("Table 2"))
    hand.view.pages.go_to(table.page, max(table.box[1] - 20, 0.0))
    hand.wait(lambda: hand.view.pages.images.layer(table.page))
    hand.view.commands.facing.translate_page(table.page)
    hand.wait(lambda: hand.entries("translation") and body_of(hand).state is State.DONE)
    body = body_of(hand)
    rows = [k for k, paragraph in enumerate(body.paragraphs) if paragraph.is_row]
    assert len(rows) == 8
    starts = [*(p.row for p in body.paragraphs), len(body.pairs)]
    cells = [body.pairs[starts[k] : starts[k + 1]] for k in rows]
    numbers = [pair for row in cells for pair in row if not any(map(str.isalpha, pair.source))]
    assert len(numbers) >= 14
    assert all(pair.target == pair.source and not pair.origin for pair in numbers)
    hand.wait(lambda: any(" · " in w.text() for w in shown(hand)))


def test_what_is_read_stands_level_with_its_source(facing):
    view = facing.view
    facing.wait(lambda: shown(facing))
    hit = facing.reader.session.find(ON_PAGE).result(PATIENT)[0]
    key = next(
        k for k in view.facing._built if set(hit.spans) & set(view.facing.pairs.spans_of(k))
        or view.facing.pairs.spans_of(k)[0].start == hit.spans[0].start
    )  # fmt: skip
    line = view.pages.viewport().height() / 4
    for part in (0.0, 0.4, 1.0):
        extent = view.facing._extent(key)
        bar = view.pages.verticalScrollBar()
        aim = extent.top + part * (extent.bottom - extent.top)
        bar.setValue(round(bar.value() + aim - line))
        widget = view.facing._built[key]
        top = widget.mapTo(view, widget.rect().topLeft()).y()
        level = view.pages.viewport().mapTo(view, view.pages.rect().topLeft()).y() + line
        assert abs((level - top) - part * widget.height()) < 4


def test_a_pair_is_marked_on_both_sides(facing):
    view = facing.view
    facing.wait(lambda: shown(facing))
    row = next(k for k, p in enumerate(body_of(facing).pairs) if p.source.startswith(ON_PAGE))
    (entry,) = facing.entries("translation")
    spans = view.facing._spans_of((entry.id, row))
    page, character = spans[0].page, spans[0].start + 2
    view.pages.text_pointed.emit(page, character)
    assert view.pages.laid("evidence")[0].spans == spans
    marked = [w for w in shown(facing) if w._marked >= 0]
    assert len(marked) == 1
    assert "background-color" in marked[0].text()
    view.pages.text_pointed.emit(page, -1)
    assert not view.pages.laid("evidence")
    assert all(w._marked < 0 for w in shown(facing))


def test_the_pointer_over_the_page_tells_its_sentence(facing):
    view = facing.view
    hit = facing.reader.session.find(ON_PAGE).result(PATIENT)[0]
    box = view.pages.boxes_in_view(hit.spans)[0]
    told = []
    view.pages.text_pointed.connect(lambda page, character: told.append((page, character)))
    view.pages.tell_pointed(QPointF(box.center()))
    ((page, character),) = told
    span = hit.spans[0]
    assert page == span.page
    assert span.start <= character < span.end
    view.pages.tell_pointed(QPointF(2.0, box.center().y()))
    assert told[-1][1] == -1


def test_keys_go_along_the_sentences_and_correct_one(facing):
    column = facing.view.facing
    facing.wait(lambda: shown(facing))
    column.setFocus()
    QTest.keyClick(column, Qt.Key.Key_Down)
    first = column.chosen
    QTest.keyClick(column, Qt.Key.Key_Down)
    assert column.chosen == (first[0], first[1] + 1)
    QTest.keyClick(column, Qt.Key.Key_Up)
    assert column.chosen == first
    assert column.foot.isVisible()
    QTest.keyClick(column, Qt.Key.Key_Return)
    field = column.foot.field
    field.setPlainText("Meine eigenen Worte.")
    QTest.keyClick(field, Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    facing.wait(lambda: body_of(facing).pairs[first[1]].origin == "corrected")
    facing.wait(lambda: any("Meine eigenen Worte." in w.text() for w in shown(facing)))
    QTest.keyClick(column, Qt.Key.Key_Escape)
    assert column.chosen is None
    assert not column.foot.isVisible()


def test_asked_again_it_is_shown_and_not_translated_twice(facing):
    view = facing.view
    view.facing.close_it()
    assert not view.facing.isVisible()
    view.commands.facing.translate_page()
    facing.wait(lambda: view.facing.isVisible())
    assert len(facing.entries("translation")) == 1


def test_what_broke_off_goes_on_with_what_is_missing(facing):
    (entry,) = facing.entries("translation")
    pairs = list(entry.body.pairs)
    pairs[0] = pairs[0]._replace(target="Mein Anfang.", origin="corrected")
    pairs[-1] = Pair(pairs[-1].source, "")
    facing.reader.keeper.change_body(entry.id, pairs=tuple(pairs), state=State.BROKEN_OFF)
    facing.wait(lambda: body_of(facing).state is State.BROKEN_OFF)
    facing.wait(lambda: facing.view.facing.action.text() == "Go on")
    facing.view.facing.action.click()
    facing.wait(lambda: body_of(facing).state is State.DONE)
    assert body_of(facing).pairs[0].target == "Mein Anfang."
    assert body_of(facing).pairs[-1].target


def test_a_section_over_pages_is_translated_and_the_later_translation_counts(facing):
    view = facing.view
    outline = facing.reader.outline.outline
    index = next(k for k, s in enumerate(outline.sections) if s.title == "9.4 Lost marks")
    view.go_to_section(index)
    facing.wait(lambda: view.section == index)
    view.commands.facing.translate_section()
    facing.wait(lambda: len(facing.entries("translation")) == 2)
    later = max(facing.entries("translation"), key=lambda e: e.created)
    facing.wait(lambda: facing.reader.entries[later.id].body.state is State.DONE)
    keys = [key for keys in view.facing.pairs.on_page.values() for key in keys]
    spans = [facing.reader.entries[k.entry_id].body.paragraphs[k.number].place.spans for k in keys]
    assert len(spans) == len(set(spans))
    assert {k.entry_id for k in keys} == {e.id for e in facing.entries("translation")}


def test_a_page_without_a_translation_offers_it(facing):
    view = facing.view
    page = view.here()[0] + 2
    view.pages.go_to(page)
    facing.wait(lambda: view.facing.offer.isVisible())
    view.facing.offer.click()
    facing.wait(lambda: len(facing.entries("translation")) == 2)


def test_the_card_in_the_margin_is_short_and_brings_it_back(facing):
    view = facing.view
    (entry,) = facing.entries("translation")
    card = view.margin.card(entry.id)
    assert not card._pairs
    assert "p. 18" in card.head.text()
    view.facing.close_it()
    card.facing.click()
    assert view.facing.isVisible()


def test_deleting_it_closes_the_column(facing):
    (entry,) = facing.entries("translation")
    facing.reader.keeper.remove(entry.id)
    facing.wait(lambda: not facing.view.facing.isVisible())


def test_terms_are_kept_and_what_is_translated_is_held_against_them(facing):
    commands = facing.view.commands.facing
    commands.list_terms("de")
    facing.wait(lambda: commands.term_list is not None)
    listed = commands.term_list
    listed.offer.click()
    facing.wait(lambda: len(listed.rules()) > 5)
    n = len(listed.rules())
    listed.add([TermRule("mark", "")])
    assert len(listed.rules()) in (n, n + 1)
    listed.table.fill([TermRule("mark", "Höhenmarke"), TermRule("MARK", "Festpunkt")])
    assert listed.rules() == [TermRule("MARK", "Festpunkt")]
    listed.accept()
    facing.wait(lambda: any("Festpunkt" in " ".join(p.doubts) for p in body_of(facing).pairs))
    commands.term_list = None
    commands.list_terms("de")
    facing.wait(lambda: commands.term_list is not None)
    assert commands.term_list.rules() == [TermRule("MARK", "Festpunkt")]
    commands.term_list.reject()


def test_without_a_model_it_says_so_in_the_column(qtbot, make_window, handbook_path):
    hand = Hand(qtbot, make_window(Settings(language="de"))).open(handbook_path)
    go_to(hand, ON_PAGE)
    hand.view.commands.facing.translate_page()
    hand.wait(lambda: hand.entries("translation") and body_of(hand).state is State.FAILED)
    hand.wait(lambda: "writing model" in hand.view.facing.told.text())
    assert hand.view.facing.action.text() == "Try again"


def test_a_models_markup_is_text_in_the_column(facing):
    (entry,) = facing.entries("translation")
    pairs = (entry.body.pairs[0]._replace(target=MARKUP, doubts=(MARKUP,)), *entry.body.pairs[1:])
    facing.reader.keeper.change_body(entry.id, pairs=pairs, of=MARKUP)
    facing.wait(lambda: body_of(facing).pairs[0].target == MARKUP)
    facing.view.facing._choose((entry.id, 0))
    facing.wait(lambda: any("&lt;" in w.text() for w in facing.view.facing._built.values()))
    for widget in [*facing.view.facing._built.values(), facing.view.facing.told]:
        assert "<img" not in widget.text()


def test_what_has_just_gone_is_not_looked_for(facing, monkeypatch):
    column = facing.view.facing
    assert shown(facing)
    monkeypatch.setattr(column.pairs, "_entries", dict)
    column.align()
    assert not shown(facing)


def test_a_translation_survives_closing_the_document(facing, handbook_path):
    facing.window.back_to_start()
    facing.open(handbook_path)
    facing.wait(lambda: facing.entries("translation"))
    assert not facing.view.facing.isVisible()
    body = body_of(facing)
    assert body.is_facing
    assert isinstance(body.paragraphs[0].place.spans[0], SpanOnPage)
