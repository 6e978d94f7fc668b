"""The Digest view in the real window: read, follow, change length and kind, test oneself."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from wide_margin.core.answers import WHOLE, pages_reach, parts_of
from wide_margin.core.digest import DocumentKind
from wide_margin.core.digest.field_sets import FieldSets
from wide_margin.core.errors import WideMarginError
from wide_margin.core.services import Settings
from wide_margin.desktop.digest_view import digest_view
from wide_margin.desktop.digest_view.rows import FIELDS, PARTS, Shape
from wide_margin.desktop.views import VIEWS

TEST = digest_view.TEST


@pytest.fixture
def digest(hand):
    """The Digest view with the handbook's digest made."""
    hand.window.show_view("Digest")
    view = hand.window.digest_view
    hand.wait(lambda: view.digest is not None and hand.reader.record is not None)
    return view


def rows(view, part):
    return [row for row in view.page.lines.rows if row.part == part]


def lines(view):
    return [row.text for row in rows(view, "Gist") if row.shape is Shape.LINE]


def test_it_stands_second_among_the_views():
    assert [kind.name for kind in VIEWS] == ["Read", "Digest", "Outline", "Map", "Commonplace"]


def test_what_it_is_stands_first(digest):
    first = rows(digest, "What it is")
    assert first[0].shape is Shape.TITLE
    assert first[0].text == "The Skerrow Sound Tide Network"
    named = {row.name: row for row in first}
    assert named["Edition"].place == "p. i"
    assert named["Date"].shape is Shape.NONE
    assert [part for part in PARTS if rows(digest, part)] == list(PARTS)


def test_the_picture_gives_way_to_the_text_in_a_narrow_window(hand, digest):
    for width, picture in ((1280, 380), (960, 240), (860, 0)):
        hand.window.resize(width, 700)
        hand.wait(lambda width=width: digest.width() == width)
        assert digest.side.isVisible() == bool(picture)
        assert not picture or digest.side.width() == picture
        hand.wait(lambda: digest.page.text_width() >= 300)


def test_the_length_changes_the_gist(hand, digest):
    before = lines(digest)
    digest.strip.length.setValue(30)
    assert digest.strip.length_words.text() == "30 words"
    hand.wait(lambda: lines(digest) != before)
    hand.wait(lambda: sum(len(text.split()) for text in lines(digest)) <= 30)
    others = [row for row in digest.page.lines.rows if row.part != "Gist"]
    assert {row.part for row in others} == set(PARTS) - {"Gist"}


def test_dragging_the_length_ends_at_the_last_one(hand, digest):
    for n_words in range(40, 400, 20):
        digest.strip.length.setValue(n_words)
    digest.strip.length.setValue(25)
    hand.wait(lambda: not digest._is_gist_coming and not digest._is_gist_wanted)
    assert 0 < sum(len(text.split()) for text in lines(digest)) <= 25


def test_pointing_shows_the_passage_in_its_place(hand, digest):
    digest.go_to_part("Gist")
    row = digest.page.current()
    assert row.part == "Gist"
    assert row.locator is not None
    hand.wait(lambda: digest.picture.has_image)
    assert row.place in digest.where.text()
    place = digest.picture.geometry()
    QTest.keyClick(digest.page, Qt.Key.Key_Down)
    assert digest.page.current() != row
    assert digest.picture.geometry() == place


def test_a_test_that_begins_unseen_clears_nothing(hand, digest):
    digest.go_to_part("Gist")
    hand.wait(lambda: digest.picture.has_image)
    digest.testing.begin(digest.digest.test, {}, lambda _: "")
    assert digest.picture.has_image
    assert digest.where.text()


def test_return_reads_it_there_and_back_returns(hand, digest):
    digest.go_to_part("Gist")
    row = digest.page.current()
    QTest.keyClick(digest.page, Qt.Key.Key_Return)
    assert hand.window.shown_view == "Read"
    hand.wait(lambda: row.locator.page in hand.view.pages.visible_pages())
    assert hand.view.pages.laid("evidence")[0].spans == row.locator.spans
    hand.window.show_view("Digest")
    assert digest.page.current() == row


def test_a_click_reads_it_there(hand, digest):
    digest.go_to_part("Terms")
    index = digest.page.currentIndex()
    where = digest.page.visualRect(index).center()
    row = digest.page.current()
    QTest.mouseClick(digest.page.viewport(), Qt.MouseButton.LeftButton, pos=where)
    assert hand.window.shown_view == "Read"
    hand.wait(lambda: row.locator.page in hand.view.pages.visible_pages())


def test_sections_open_and_close(hand, digest):
    digest.go_to_part("Sections")
    shown = len(rows(digest, "Sections"))
    part = next(k for k, row in enumerate(digest.page.lines.rows) if row.has_deeper)
    digest.page.setCurrentIndex(digest.page.lines.index(part))
    QTest.keyClick(digest.page, Qt.Key.Key_Right)
    assert len(rows(digest, "Sections")) > shown
    assert digest.page.current().is_open
    QTest.keyClick(digest.page, Qt.Key.Key_Left)
    assert len(rows(digest, "Sections")) == shown
    row = digest.page.visualRect(digest.page.lines.index(part))
    mark = QPoint(160, row.top() + 12)
    QTest.mouseClick(digest.page.viewport(), Qt.MouseButton.LeftButton, pos=mark)
    assert len(rows(digest, "Sections")) > shown
    assert hand.window.shown_view == "Digest"


def test_a_section_is_read_from_its_heading(hand, digest):
    digest.go_to_part("Sections")
    row = digest.page.current()
    QTest.keyClick(digest.page, Qt.Key.Key_Return)
    section = hand.reader.summary.outline.sections[row.section]
    assert hand.window.shown_view == "Read"
    hand.wait(lambda: section.page in hand.view.pages.visible_pages())


def test_another_kind_asks_other_things(hand, digest):
    digest.choose_kind(DocumentKind.STATUTE)
    hand.wait(lambda: "Duties" in {row.name for row in rows(digest, "By kind")})
    assert rows(digest, "By kind")[0].text == "Read as a statute"
    assert digest.strip.kind.text().startswith("Statute")


def test_another_reach(hand, digest):
    summary = hand.reader.summary
    reach = pages_reach(summary.labels, summary.n_pages, "20-30")
    digest.set_reach(reach)
    hand.wait(lambda: digest.digest.reach == reach)
    gist = [row for row in rows(digest, "Gist") if row.locator]
    assert gist
    assert all(reach.first_page <= row.locator.page <= reach.last_page for row in gist)
    assert rows(digest, "Gist")[0].text == f"Gist of {reach.name}"
    assert digest.strip.reach.text().startswith(reach.name)
    digest.set_reach(WHOLE)
    hand.wait(lambda: digest.digest.reach == WHOLE)


def test_pages_that_are_not_there_get_a_sentence(digest, monkeypatch):
    monkeypatch.setattr(digest_view, "ask_text", lambda *_, **__: "900-950")
    digest._ask_for_pages()
    assert digest.status.text().startswith("There are no pages “900-950”")


def test_strokes_stand_where_the_gist_is_from(digest):
    places = [place for place, _ in digest.spine._strokes]
    pages = [row.locator.page for row in rows(digest, "Gist") if row.locator]
    assert [int(place) for place in places] == pages


def test_testing_oneself(hand, digest):
    digest.go_to_part(TEST)
    testing = digest.testing
    first = testing.now
    assert testing.question.text()
    assert testing.answer.isHidden()
    QTest.keyClick(testing, Qt.Key.Key_K)
    assert testing.now == first, "nothing is judged before the answer is shown"
    QTest.keyClick(testing, Qt.Key.Key_Space)
    assert not testing.answer.isHidden()
    assert testing.place.text() == first.locator.shown
    hand.wait(lambda: digest.picture.has_image)
    QTest.keyClick(testing, Qt.Key.Key_N)
    second = testing.now
    assert second != first
    assert testing._left[-1] == first, "what was not known comes again"
    testing.show_answer()
    testing.knew.click()
    assert testing.count.text().startswith("1 of ")


def test_what_was_known_is_kept(hand, digest, handbook_path):
    testing = digest.testing
    digest.go_to_part(TEST)
    known = testing.now.question
    testing.show_answer()
    testing.judge(known=True)
    hand.wait(lambda: hand.reader.store.tested(hand.reader.record.id) == {known: True})
    hand.window.back_to_start()
    hand.open(handbook_path)
    hand.wait(lambda: hand.reader.is_ready)
    hand.window.show_view("Digest")
    hand.wait(lambda: digest.digest is not None and testing.now is not None)
    hand.wait(lambda: testing.count.text().startswith("1 of "))
    assert known not in {question.question for question in testing._left}


def test_all_known_can_begin_again(digest):
    testing = digest.testing
    digest.go_to_part(TEST)
    for _ in range(len(testing._left) + 1):
        if testing.now is None:
            break
        testing.show_answer()
        testing.judge(known=True)
    assert testing.question.text() == "You knew them all."
    testing.again.click()
    assert testing.now is not None


@pytest.mark.parametrize("form", ["md", "html", "docx", "json"])
def test_it_is_saved(hand, digest, tmp_path, form):
    path = tmp_path / f"made.{form}"
    digest.save(path, form)
    hand.wait(lambda: str(path) in digest.status.text())
    assert path.stat().st_size > 1000


def test_a_folder_that_cannot_be_written_gets_a_sentence(hand, digest, tmp_path):
    digest.save(tmp_path / "no" / "such" / "made.md", "md")
    hand.wait(lambda: "made.md” cannot be written. Is its folder" in digest.status.text())


def test_it_waits_for_the_document(hand, small_pdf):
    hand.open(small_pdf)
    hand.window.show_view("Digest")
    view = hand.window.digest_view
    hand.wait(lambda: view.digest is not None)
    assert view.middle.currentWidget() is view.page
    assert view.strip.length.isEnabled()


def test_the_next_document_gets_its_own(hand, digest, small_pdf):
    hand.open(small_pdf)
    hand.window.show_view("Digest")
    hand.wait(lambda: digest.digest is not None and digest.digest.facts.n_pages == 3)
    assert "Skerrow" not in " ".join(row.text for row in digest.page.lines.rows)


def test_the_gist_stands_beside_page_one(hand, handbook_path):
    hand.open(handbook_path)
    hand.wait(lambda: hand.view.margin.worth is not None and hand.view.margin.worth.gist)
    shown = hand.view.margin.worth.gist
    assert "This handbook is for the people" in shown[0].text()
    shown[0].linkActivated.emit("read:")
    hand.wait(lambda: 14 in hand.view.pages.visible_pages())


def test_what_is_this_about_is_answered_in_read(hand, handbook_path):
    hand.open(handbook_path)
    hand.wait(lambda: hand.reader.is_ready)
    hand.view.commands.ask("What is this about?")
    hand.wait(lambda: hand.view.margin.held is not None)
    entry = hand.view.margin.held.entry
    assert "This handbook is for the people" in entry.body.quotes[0].text


def test_two_hundred_and_more_rows_by_night(hand, digest):
    hand.window.menus.night.trigger()
    digest._opened = frozenset(range(len(hand.reader.summary.outline.sections)))
    digest._show()
    assert len(digest.page.lines.rows) > 400
    picture = hand.window.grab()
    assert not picture.isNull()
    hand.window.menus.night.trigger()


def test_a_gist_is_composed_and_checked(make_window, stand_in, qtbot, handbook_path):
    settings = Settings(model_address=stand_in.address, language="de")
    hand = Hand(qtbot, make_window(settings)).open(handbook_path)
    hand.window.show_view("Digest")
    view = hand.window.digest_view
    hand.wait(lambda: view.digest is not None)
    names = [action.text() for action in view.strip.compose_menu.actions()]
    assert names == ["Gist", "By kind", "Sections"]
    wordings = view.strip.compose_menu.actions()[0].menu().actions()
    assert [a.text() for a in wordings] == ["For a newcomer", "For a specialist", "In German"]
    assert view.strip.compose.isVisible()
    wordings[0].trigger()
    assert hand.window.shown_view == "Read"
    hand.wait(lambda: hand.view.margin.held is not None)
    hand.wait(lambda: hand.view.margin.held.entry.body.model)
    hand.wait(lambda: hand.view.margin.held.entry.body.state == "done")
    body = hand.view.margin.held.entry.body
    assert body.origin == "composed"
    assert body.quotes
    assert all(quote.backing for quote in body.quotes)


def test_without_a_model_nothing_is_offered_to_be_composed(digest):
    assert not digest.strip.compose.isVisible()


def test_only_the_answer_waited_for_is_composed(make_window, stand_in, qtbot, handbook_path):
    settings = Settings(model_address=stand_in.address, language="de")
    hand = Hand(qtbot, make_window(settings)).open(handbook_path)
    hand.view.commands.ask_composed("What is a tide staff?", WHOLE)
    hand.reader.problem.emit(WideMarginError("It could not be asked."))
    hand.wait(lambda: hand.view.margin.held is not None)
    assert hand.view.margin.held.entry.body.origin == "quoted"


def test_what_was_kept_is_a_reach_of_its_own(hand, handbook_path):
    hand.open(handbook_path)
    entry = hand.keep("levelling", "M")
    hand.window.show_view("Digest")
    view = hand.window.digest_view
    hand.wait(lambda: view.digest is not None)
    view._offer_reaches()
    action = next(a for a in view.strip.reach_menu.actions() if a.text() == "What was kept")
    action.trigger()
    hand.wait(lambda: view.reach.kind == "kept" and view.digest.reach == view.reach)
    pages = {row.locator.page for row in rows(view, "Gist") if row.locator}
    assert pages <= {entry.anchor.page}


def test_ones_own_questions_are_asked_and_kept_for_the_next_of_its_kind(hand, digest):
    hand.wait(lambda: [r.text for r in rows(digest, FIELDS)][1:])
    assert rows(digest, FIELDS)[1].shape is Shape.NONE
    digest.own_fields.take("# mine\nWho publishes it?\nWhat does the clerk do?\n")
    hand.wait(lambda: len(digest.own_fields.fields) == 2)
    named = [row.name for row in rows(digest, FIELDS)]
    assert named[1:] == ["Who publishes it?", "What does the clerk do?"]
    answered = rows(digest, FIELDS)[2]
    assert answered.shape is Shape.LINE
    assert answered.place.startswith("p. ")
    hand.wait(lambda: FieldSets().questions_of(digest.digest.kind) == tuple(named[1:]))


def test_facts_and_fields_are_saved_as_a_table(hand, digest, tmp_path):
    digest.own_fields.take("What does the clerk do?")
    hand.wait(lambda: digest.own_fields.fields)
    target = tmp_path / "fields.csv"
    digest.save(target, "csv")
    hand.wait(target.exists)
    lines = target.read_text(encoding="utf-8").splitlines()
    assert lines[0] == "name,value,page"
    assert any(line.startswith("What does the clerk do?") for line in lines)


def test_one_can_be_tested_on_one_part(hand, digest):
    testing = digest.testing
    hand.wait(lambda: testing.now is not None)
    names = [action.text() for action in testing.scope_menu.actions()]
    assert names[0] == "All sections"
    assert len(names) > 2
    chosen = testing._section_name(testing._all[-1].section)
    testing.choose_section(chosen)
    assert testing.now is not None
    asked = {testing._section_name(q.section) for q in testing._left}
    assert asked == {chosen}
    assert f"of {len(testing._left)} question" in testing.count.text()
    testing.choose_section("")
    assert len(testing._left) == len(testing._all)


@pytest.mark.parametrize("part", ["By kind", "Sections"])
def test_other_parts_are_composed_within_what_the_model_takes(
    make_window, stand_in, qtbot, handbook_path, part
):
    settings = Settings(model_address=stand_in.address, language="de", model_words=300)
    hand = Hand(qtbot, make_window(settings)).open(handbook_path)
    hand.window.show_view("Digest")
    view = hand.window.digest_view
    hand.wait(lambda: view.digest is not None)
    menu = next(a for a in view.strip.compose_menu.actions() if a.text() == part).menu()
    menu.actions()[1].trigger()
    hand.wait(lambda: hand.view.margin.held is not None)
    excerpts = hand.view.margin.held.entry.body.excerpts
    n_parts = len(parts_of(excerpts, 300))
    if part == "Sections":
        assert n_parts > 1
    hand.wait(lambda: hand.view.margin.held.entry.body.model)
    hand.wait(lambda: hand.view.margin.held.entry.body.state == "done")
    held = hand.view.margin.held
    body = held.entry.body
    assert body.problem == ""
    assert len(stand_in.asked) == n_parts
    assert f"{len(excerpts)} excerpts" in hand.reader.composer.budget(held.entry.id).shown
    assert body.origin == "composed"
    assert "part" not in body.model
    assert all(quote.backing for quote in body.quotes)


def test_a_list_that_cannot_be_kept_is_asked_and_not_lost(hand, digest, tmp_path, monkeypatch):
    blocked = tmp_path / "blocked"
    blocked.write_text("in the way")
    fields = digest.own_fields
    monkeypatch.setattr(fields, "_kept", FieldSets(blocked / "fields"))
    fields.take("What does the clerk do?")
    hand.wait(lambda: "could not be kept" in digest.status.text())
    hand.wait(lambda: fields.fields)
    assert fields.text() == "What does the clerk do?"


def test_the_same_questions_are_not_asked_again_for_another_reach(hand, digest, monkeypatch):
    digest.own_fields.take("What does the clerk do?")
    hand.wait(lambda: digest.own_fields.fields)
    asked = []
    monkeypatch.setattr(hand.reader.session, "fields", asked.append)
    summary = hand.reader.summary
    digest.set_reach(pages_reach(summary.labels, summary.n_pages, "1-9"))
    hand.wait(lambda: digest.digest.reach == digest.reach)
    assert asked == []
    assert rows(digest, FIELDS)[1].name == "What does the clerk do?"


def test_a_part_without_lines_says_so_and_stays(hand, digest, monkeypatch):
    monkeypatch.setattr(digest_view, "excerpts_of", lambda *_: [])
    digest._compose("Sections", "Tell section by section what is said in it.")
    assert "no lines to compose from" in digest.status.text()
    assert hand.window.shown_view == "Digest"
