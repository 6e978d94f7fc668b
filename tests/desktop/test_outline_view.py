"""The Outline view as a reader uses it."""

import json

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QFontMetrics, QTextDocument
from PySide6.QtTest import QTest

from tests.desktop.conftest import Hand
from tests.making import make_pdf, plain_pages
from wide_margin.core.pages.document import PdfFile
from wide_margin.desktop.words import WrappedWords

WRONG = "9.3 Closing error"

PADDING = 24
"""Pixels beside the words, as the style sheet has them."""


def text_height(label):
    """Pixels that a label's text takes at the width there is for it."""
    document = QTextDocument()
    document.setDefaultFont(label.font())
    document.setDocumentMargin(0)
    document.setHtml(label.text())
    document.setTextWidth(label.contentsRect().width())
    return document.size().height()


@pytest.fixture
def outline(hand):
    """The handbook's Outline view, shown."""
    hand.window.show_view("Outline")
    hand.wait(lambda: hand.window.outline_view.tree.topLevelItemCount())
    return hand.window.outline_view


def chosen(outline):
    return outline.outline.sections[outline.tree.current()]


def titles(outline):
    return [s.title for s in outline.outline.sections]


def choose(outline, title):
    outline.tree.choose(titles(outline).index(title))


def test_the_bookmark_of_a_section_is_shown_with_what_it_hangs_under(hand, outline):
    sections = outline.outline.sections
    deep = next(k for k, s in enumerate(sections) if s.level and "bookmark" in s.witnesses)
    outline.tree.choose(deep)
    label = outline.evidence.findChild(WrappedWords, "evidenceBookmark")
    hand.wait(lambda: sections[deep].title in label.text())
    assert "›" in label.text()
    assert "→" in label.text()
    hand.wait(lambda: label.contentsRect().height() >= text_height(label))


def test_the_view_counts_what_the_witnesses_say(hand, outline):
    text = outline.counts.text()
    assert f"{len(outline.outline.sections)} sections" in text
    assert "1 in dispute" in text


def test_it_opens_at_the_section_that_is_being_read(hand):
    view = hand.view
    view.go_to_section(titles(hand.window.outline_view).index("8 Datums"))
    hand.window.show_view("Outline")
    assert chosen(hand.window.outline_view).title == "8 Datums"


def test_a_disagreement_is_found_taken_and_undone(hand, outline):
    QTest.mouseClick(outline.next_button, Qt.MouseButton.LeftButton)
    assert chosen(outline).title == WRONG
    assert "prints" in outline.evidence.says
    hand.wait(lambda: outline.evidence.picture_of("contents").has_image)
    assert outline.evidence.picture_of("heading").has_image
    before = chosen(outline).page
    QTest.mouseClick(outline.evidence.take_button("contents"), Qt.MouseButton.LeftButton)
    assert chosen(outline).title == WRONG
    assert chosen(outline).page == chosen(outline).reading("contents").page != before
    assert outline.outline.disputed == ()
    hand.window.menus.undo.trigger()
    assert outline.outline.disputed
    assert not outline.outline.is_edited
    hand.window.menus.redo.trigger()
    assert outline.outline.disputed == ()


def test_keys_change_levels_titles_and_delete(hand, outline):
    choose(outline, "9.4 Lost marks")
    n = len(outline.outline.sections)
    QTest.keyClicks(outline.tree, "<")
    assert chosen(outline).level == 1
    QTest.keyClicks(outline.tree, ">")
    assert chosen(outline).level == 2
    QTest.keyClick(outline.tree, Qt.Key.Key_F2)
    editor = hand.window.focusWidget()
    editor.selectAll()
    QTest.keyClicks(editor, "9.4 Marks that are lost")
    QTest.keyClick(editor, Qt.Key.Key_Return)
    hand.wait(lambda: "9.4 Marks that are lost" in titles(outline))
    QTest.keyClick(outline.tree, Qt.Key.Key_Delete)
    assert len(outline.outline.sections) == n - 1
    for _ in range(4):
        hand.window.menus.undo.trigger()
    assert "9.4 Lost marks" in titles(outline)
    assert not outline.outline.is_edited


def test_other_views_go_by_the_changed_outline(hand, outline):
    index = titles(outline).index("8 Datums")
    outline.rename(index, "8 Levels to count from")
    hand.window.show_view("Read")
    hand.view.go_to_section(index)
    hand.wait(lambda: "Levels to count from" in hand.view.place_line.path.toolTip())
    contents = hand.view.contents.contents
    assert contents.findItems("8 Levels to count from", Qt.MatchFlag.MatchRecursive)
    hand.wait(lambda: not outline.reader.outline._tell_timer.isActive())
    answer = hand.ask("What is sound datum?")
    paths = [excerpt.locator.path for excerpt in answer.body.excerpts]
    assert any("8 Levels to count from" in path for path in paths)


def test_changes_are_there_at_the_next_opening(hand, outline, qtbot, make_window, handbook_path):
    outline.rename(0, "What comes first")
    outline.add("19", "A section of my own")
    hand.window.close()
    again = Hand(qtbot, make_window()).open(handbook_path)
    again.wait(lambda: titles(again.window.outline_view)[0] == "What comes first")
    names = titles(again.window.outline_view)
    assert "A section of my own" in names
    again.window.outline_view.back_to_found()
    assert titles(again.window.outline_view)[0] != "What comes first"


def test_a_second_window_shows_the_same_changes(hand, outline, qtbot, make_window, handbook_path):
    other = make_window()
    other.reader.hub = hand.reader.hub
    hand.reader.hub.changed.connect(other.reader.outline._elsewhere)
    second = Hand(qtbot, other).open(handbook_path)
    outline.rename(0, "What comes first")
    second.wait(lambda: titles(other.outline_view)[0] == "What comes first")


def test_a_section_is_moved_and_added_at_a_page(hand, outline):
    choose(outline, "9.4 Lost marks")
    outline.move_to("21")
    assert hand.reader.summary.labels.of(chosen(outline).page) == "21"
    outline.move_to("no such page")
    assert "There is no page" in outline.status.text()
    n = len(outline.outline.sections)
    outline.add("21", "")
    assert len(outline.outline.sections) == n


def test_a_selection_becomes_a_section(hand):
    hand.select("shall not exceed 4 mm")
    hand.view.commands.start_section()
    names = titles(hand.window.outline_view)
    assert "shall not exceed 4 mm" in names
    section = hand.window.outline_view.outline.sections[names.index("shall not exceed 4 mm")]
    assert names[names.index(section.title) - 1] == WRONG


def test_the_outline_is_saved_and_read_back(hand, outline, tmp_path):
    outline.rename(0, "What comes first")
    for suffix in ("md", "opml", "json", "csv", "html"):
        outline.files.save(tmp_path / f"out.{suffix}")
        assert "What comes first" in (tmp_path / f"out.{suffix}").read_text("utf-8")
    outline.back_to_found()
    outline.files.take_from_file(tmp_path / "out.json")
    assert titles(outline)[0] == "What comes first"
    assert len(titles(outline)) == len(json.loads((tmp_path / "out.json").read_text("utf-8")))


def test_a_file_that_is_no_outline_changes_nothing(hand, outline, tmp_path):
    (tmp_path / "a.json").write_text("nothing", "utf-8")
    before = titles(outline)
    outline.files.take_from_file(tmp_path / "a.json")
    assert "is not an outline" in outline.status.text()
    assert titles(outline) == before


def test_a_copy_with_bookmarks_is_written_and_opened(hand, outline, tmp_path):
    outline.rename(0, "What comes first")
    target = tmp_path / "copy.pdf"
    outline.files.write_copy(target)
    hand.wait(lambda: "bookmarks" in outline.status.text())
    pdf = PdfFile(target)
    marks = list(pdf.bookmarks())
    pdf.close()
    assert marks[0].title == "What comes first"
    assert len(marks) == len(outline.outline.sections)


def test_a_folder_that_is_not_there_is_told(hand, outline, tmp_path):
    outline.files.save(tmp_path / "none" / "a.md")
    assert "could not be written" in outline.status.text()
    outline.files.write_copy(tmp_path / "none" / "a.pdf")
    hand.wait(lambda: "could not be written" in outline.status.text())


def test_return_reads_the_section_there(hand, outline):
    choose(outline, WRONG)
    QTest.keyClick(outline.tree, Qt.Key.Key_Return)
    assert hand.window._stack.currentWidget() is hand.view
    assert hand.view.here()[0] == outline.outline.sections[titles(outline).index(WRONG)].page


def test_closed_branches_stay_closed_over_a_change(hand, outline):
    tree = outline.tree
    item = tree.topLevelItem(2)
    item.setExpanded(False)
    title = item.text(0)
    choose(outline, titles(outline)[0])
    outline.rename(0, "What comes first")
    assert tree.topLevelItem(2).text(0) == title
    assert not tree.topLevelItem(2).isExpanded()


def test_a_document_without_witnesses_shows_parts_and_says_so(qtbot, make_window, tmp_path):
    path = tmp_path / "a.pdf"
    make_pdf(path, plain_pages(6))
    hand = Hand(qtbot, make_window()).open(path)
    hand.window.show_view("Outline")
    assert "parts by pages" in hand.window.outline_view.counts.text()
    hand.window.outline_view.add("3", "The middle")
    assert "parts by pages" not in hand.window.outline_view.counts.text()


def test_the_view_waits_for_a_document(empty_hand):
    empty_hand.window.show_view("Outline")
    assert empty_hand.window._stack.currentWidget() is empty_hand.window.start_page


def test_two_hundred_changes_can_all_be_undone(empty_hand, tmp_path):
    said = ("text", "The keeper writes down how high the water stands, each morning.")
    make_pdf(tmp_path / "wells.pdf", [[("h1", f"{k} Wells"), said, said] for k in range(1, 7)])
    hand = empty_hand.open(tmp_path / "wells.pdf")
    hand.window.show_view("Outline")
    outline = hand.window.outline_view
    for k in range(200):
        outline.rename(3, f"Title {k}")
    assert outline.outline.sections[3].title == "Title 199"
    for _ in range(200):
        hand.window.menus.undo.trigger()
    assert not outline.outline.is_edited


@pytest.mark.parametrize("width", [900, 700, 480, 300])
def test_titles_have_room_however_narrow_the_tree_is(hand, outline, width):
    tree = outline.tree
    tree.resize(width, 400)
    assert tree.columnWidth(0) >= min(220, width - 165)
    assert tree.isColumnHidden(4) == (width < 500)
    assert ("contents" in tree.headerItem().text(1)) == (width > 630)
    tree.resize(900, 400)
    assert not any(map(tree.isColumnHidden, range(5)))


def test_the_words_above_the_columns_fit_them(hand):
    hand.window.show_view("Outline")
    header, item = (
        hand.window.outline_view.tree.header(),
        hand.window.outline_view.tree.headerItem(),
    )
    for column in range(1, item.columnCount()):
        metrics = QFontMetrics(item.font(column))
        widest = max(metrics.horizontalAdvance(line) for line in item.text(column).split("\n"))
        assert widest + PADDING <= header.sectionSize(column)
