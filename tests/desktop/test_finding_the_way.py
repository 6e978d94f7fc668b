import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.desktop.conftest import Hand


def type_page(hand, text):
    field = hand.view.place_line.page
    field.setText(text)
    QTest.keyClick(field, Qt.Key.Key_Return)


def test_opening_tells_what_was_read(hand):
    assert "189 pages" in hand.view.status.text()
    assert hand.window.windowTitle().startswith("The Skerrow Sound Tide Network")
    assert hand.view.contents.contents.topLevelItemCount() == 34


@pytest.mark.parametrize(("typed", "page"), [("9", 24), ("iv", 3), ("file 20", 19), ("p. 12", 27)])
def test_the_page_field_goes_to_a_page_as_printed(hand, typed, page):
    type_page(hand, typed)
    assert hand.view.here()[0] == page


def test_a_page_that_is_not_there_is_told(hand):
    type_page(hand, "999")
    assert "no page “999”" in hand.view.status.text()
    assert hand.view.here()[0] == 0


def test_back_and_forward_return_to_places(hand):
    type_page(hand, "9")
    type_page(hand, "20")
    hand.view.go_back()
    assert hand.label() == "9"
    hand.view.go_back()
    assert hand.view.here()[0] == 0
    assert not hand.view.place_line.back.isEnabled()
    hand.view.go_forward()
    assert hand.label() == "9"


def test_a_click_in_the_contents_goes_to_the_section(hand):
    rows = hand.view.contents.contents
    item = next(
        rows.topLevelItem(k) for k in range(12) if "Part III" in rows.topLevelItem(k).text(0)
    )
    rows.scrollToItem(item)
    point = rows.visualItemRect(item).center()
    QTest.mouseClick(rows.viewport(), Qt.MouseButton.LeftButton, pos=point)
    assert hand.label() == "14"
    hand.wait(lambda: "Part III Levelling" in hand.view.place_line.path.toolTip())


def test_the_contents_follow_what_is_read(hand):
    type_page(hand, "17")
    hand.wait(lambda: hand.view.contents.contents.currentItem())
    assert "9.1 Siting" in hand.view.contents.contents.currentItem().text(0)
    assert hand.view.place_line.place.text() == "p. 17 of 173 · file page 33 of 189"


def test_figures_are_listed_and_lead_to_their_place(hand):
    rows = hand.view.contents.figures
    titles = [rows.topLevelItem(k).text(0) for k in range(rows.topLevelItemCount())]
    assert any(title.startswith("Figure 1. A week at Ravnhead") for title in titles)
    assert any(title.startswith("Table 2.") for title in titles)
    rows.chosen.emit(rows.topLevelItem(0).data(0, Qt.ItemDataRole.UserRole))
    assert hand.view.history.behind


def test_a_click_on_the_spine_goes_there(hand):
    spine = hand.view.spine
    QTest.mouseClick(spine, Qt.MouseButton.LeftButton, pos=QPoint(30, spine.height() // 2))
    assert 85 <= hand.view.here()[0] <= 101


def test_the_spine_can_be_used_by_keyboard(hand):
    before = hand.view.here()[0]
    QTest.keyClick(hand.view.spine, Qt.Key.Key_PageDown)
    assert hand.view.here()[0] > before


@pytest.mark.parametrize(
    ("typed", "says"),
    [
        ("9", "Go to p. 9"),
        ("iii", "Go to p. iii"),
        ("Annex B", "Go to Annex B Constituents"),
        ("glossary", "Go to Glossary"),
        ("How large is the closing error?", "Ask"),
        ("closing", "Ask"),
    ],
)
def test_the_ask_line_says_beforehand_what_it_will_do(hand, typed, says):
    hand.view.ask_line.field.setText(typed)
    assert hand.view.ask_line.verdict.text() == says


def test_the_ask_line_goes_to_a_place(hand):
    hand.view.ask_line.field.setText("glossary")
    QTest.keyClick(hand.view.ask_line.field, Qt.Key.Key_Return)
    assert hand.label() == "167"
    assert not hand.entries("question")


def test_ctrl_return_always_asks(hand):
    hand.view.ask_line.field.setText("glossary")
    QTest.keyClick(hand.view.ask_line.field, Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    hand.wait(lambda: hand.entries("question"))


def find(hand, words):
    hand.view.place_line.find_field.setText(words)
    hand.wait(lambda: hand.view.place_line.count.text() not in ("", "still reading"))


def test_found_words_are_counted_marked_and_stepped_through(hand):
    find(hand, "suspense")
    first = hand.view.place_line.count.text()
    n = int(first.split(" of ")[1])
    assert len(hand.view.pages.laid("hits")) == n > 5
    places = []
    for _ in range(n):
        QTest.keyClick(hand.view.place_line.find_field, Qt.Key.Key_Return)
        places.append(hand.view.finding.at)
    assert sorted(places) == list(range(n))
    assert hand.view.place_line.count.text() == first  # round once
    hand.view.finding.step(-1)
    assert hand.view.finding.at == places[-2]


def test_words_that_are_not_there_are_not_found(hand):
    find(hand, "xylophone")
    assert hand.view.place_line.count.text() == "not found"


def test_words_that_stand_everywhere_are_found_from_here_on(hand):
    type_page(hand, "60")
    here = hand.view.here()[0]
    find(hand, "e")
    assert hand.view.place_line.count.text() == "1 of 5,000 and more"
    assert hand.view.finding.hits[0].page == here


def test_a_newer_search_replaces_an_older_one(hand):
    hand.view.place_line.find_field.setText("keeper")
    hand.view.finding.find_again()
    hand.view.place_line.find_field.setText("paraffin")
    hand.wait(lambda: hand.view.place_line.count.text())
    assert all("paraffin" in hit.line.lower() for hit in hand.view.finding.hits)


def test_escape_ends_a_search(hand):
    find(hand, "suspense")
    QTest.keyClick(hand.view.place_line.find_field, Qt.Key.Key_Escape)
    assert hand.view.pages.laid("hits") == []
    assert hand.view.place_line.count.text() == ""


def test_zooming_keeps_the_place(hand):
    type_page(hand, "20")
    before, scale = hand.view.pages.place_at(300), hand.view.pages.scale
    hand.view.pages.zoom(2)
    after = hand.view.pages.place_at(300)
    assert hand.view.pages.scale > scale * 1.2
    assert after[0] == before[0]
    hand.view.pages.fit_width()
    assert hand.view.pages.scale == pytest.approx(scale, rel=0.01)


def test_pages_are_drawn_sharp_and_near_ones_first(hand):
    type_page(hand, "30")
    page = hand.view.here()[0]
    hand.wait(lambda: hand.view.pages.images.image(page))
    image = hand.view.pages.images.image(page)
    ratio = hand.view.pages.devicePixelRatioF()
    assert image.image.width() == pytest.approx(419.5 * hand.view.pages.scale * ratio, abs=2)


def test_a_document_opens_where_it_was_left(hand, qtbot, make_window, handbook_path):
    type_page(hand, "30")
    hand.window.close()
    from tests.desktop.conftest import Hand

    again = Hand(qtbot, make_window()).open(handbook_path)
    assert again.label() == "30"


def test_a_page_can_be_given_when_opening(qtbot, make_window, handbook_path):
    from tests.desktop.conftest import Hand

    again = Hand(qtbot, make_window()).open(handbook_path, page="12")
    assert again.label() == "12"


def test_a_page_too_large_to_draw_whole_is_sharp_where_it_is_seen(hand):
    hand.view.go_to_typed("18")
    pages = hand.view.pages
    pages.set_scale(5.9)
    page = hand.view.here()[0]
    hand.wait(lambda: pages.images.detail(page))
    detail, whole = pages.images.detail(page), pages.images.image(page)
    assert detail.scale == pytest.approx(5.9)
    assert whole.scale < detail.scale
    assert whole.image.width() * whole.image.height() < 9_000_000
    x0, y0, x1, y1 = detail.clip
    assert detail.image.width() == pytest.approx((x1 - x0) * detail.scale, abs=3)
    assert (y1 - y0) < 595


def test_figures_show_small_pictures(hand):
    panel = hand.view.contents
    panel._buttons[1].click()
    last = panel.figures.topLevelItem(panel.figures.topLevelItemCount() - 1)
    hand.wait(lambda: last.data(0, Qt.ItemDataRole.UserRole + 3) is not None)
    assert last.data(0, Qt.ItemDataRole.UserRole + 3).width() > 100


def test_a_chapter_that_begins_low_on_its_page_is_where_one_is(qtbot, make_window, tmp_path):
    path = tmp_path / "low.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    places = [(f"{k} Winches of part {k}", 380 if k == 11 else 780) for k in range(1, 13)]
    for title, y in places:
        canvas.setFont("Helvetica-Bold", 20)
        canvas.drawString(72, y, title)
        canvas.setFont("Helvetica", 11)
        for k in range(12):
            canvas.drawString(
                72, y - 40 - 14 * k, "A winch has three parts that are taken off by hand."
            )
        canvas.showPage()
    canvas.save()
    hand = Hand(qtbot, make_window()).open(path)
    titles = [section.title for section in hand.view.outline.sections]
    assert titles == [title for title, _ in places]
    type_page(hand, "11")
    hand.wait(lambda: hand.view.section == 10)
    assert hand.view.pages.reading_place()[1] < hand.view.outline.sections[10].y
