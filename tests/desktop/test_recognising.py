"""Pages that are only pictures, recognised in the real window and asked like others."""

import shutil
import stat

import pikepdf
import pytest

from tests.desktop.conftest import Hand

CANDLES = "How many candles are issued for a month?"
needs_engine = pytest.mark.skipif(not shutil.which("tesseract"), reason="no engine here")


@pytest.fixture
def own_cache(tmp_path, monkeypatch):
    """What is recognised here is not there for other tests."""
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "cache"))


@pytest.fixture(scope="session")
def few_pages(handbook_path, tmp_path_factory):
    """A few pages of the handbook, one of which is only a picture."""
    path = tmp_path_factory.mktemp("few") / "few.pdf"
    with pikepdf.open(handbook_path) as handbook, pikepdf.new() as made:
        made.pages.extend([*handbook.pages[30:36], *handbook.pages[117:120]])
        made.save(path)
    return path


@pytest.fixture
def hand(qtbot, make_window, few_pages):
    return Hand(qtbot, make_window()).open(few_pages)


def engine(folder, monkeypatch, script):
    """A program of that name, found before the real one."""
    folder.mkdir(exist_ok=True)
    path = folder / "tesseract"
    path.write_text(f"#!/bin/sh\n{script}\n")
    path.chmod(path.stat().st_mode | stat.S_IXUSR)
    monkeypatch.setenv("PATH", f"{folder}:/usr/bin:/bin")


@needs_engine
def test_a_picture_page_is_recognised_asked_and_marked(own_cache, hand):
    assert len(hand.reader.summary.without_text) == 1
    (page,) = hand.reader.summary.without_text
    assert hand.view.status.act.text() == "Recognise their text"
    hand.view.status.act.click()
    hand.wait(lambda: hand.reader.summary and not hand.reader.summary.without_text)
    assert hand.reader.summary.how_sure(page) > 0.9
    entry = hand.ask(CANDLES)
    assert "Five candles" in entry.body.quotes[0].text
    assert entry.body.quotes[0].locators[0].page == page
    hand.wait(lambda: page in hand.view.pages.visible_pages())
    assert "recognised in its picture" in " ".join(
        label.text()
        for label in hand.view.margin.held.findChildren(type(hand.view.margin.held.head))
    )
    hand.wait(lambda: "text recognised" in hand.view.place_line.place.text())
    hand.view.held.let_go()
    mark = hand.keep("Five candles are issued", "1")
    assert mark.anchor.page == page
    assert hand.view.pages.boxes_in_view(mark.anchor.spans)


@needs_engine
def test_what_was_recognised_is_there_the_next_time(own_cache, hand, make_window, few_pages, qtbot):
    hand.reader.recognising.start()
    hand.wait(lambda: hand.reader.summary and not hand.reader.summary.without_text)
    again = Hand(qtbot, make_window()).open(few_pages)
    assert again.reader.summary.without_text == ()
    assert "Five candles" in again.ask(CANDLES).body.quotes[0].text


def test_no_engine_is_told_with_what_to_install(tmp_path, monkeypatch, own_cache, hand):
    engine(tmp_path / "bin", monkeypatch, "exit 127")
    hand.reader.recognising.start()
    hand.wait(lambda: "tesseract-ocr" in hand.view.status.text())
    assert not hand.reader.recognising.is_running
    hand.ask("How large may the closing error of a line be?")  # all else goes on


def test_recognising_is_stopped_and_nothing_else_is(tmp_path, monkeypatch, own_cache, hand):
    script = 'case "$1" in --list-langs) printf "List:\\neng\\n";; *) exec sleep 30;; esac'
    engine(tmp_path / "bin", monkeypatch, script)
    hand.reader.recognising.start()
    hand.wait(lambda: "Recognising text" in hand.view.status.text())
    assert hand.view.status.act.text() == "Stop"
    hand.view.status.act.click()
    hand.wait(lambda: not hand.reader.recognising.is_running)
    hand.wait(lambda: hand.reader.is_ready)
    assert len(hand.reader.summary.without_text) == 1
    hand.ask("How large may the closing error of a line be?")


def test_an_engine_that_dies_over_a_page_leaves_it_as_it_was(
    tmp_path, monkeypatch, own_cache, hand
):
    script = 'case "$1" in --list-langs) printf "List:\\neng\\n";; *) kill -9 $$;; esac'
    engine(tmp_path / "bin", monkeypatch, script)
    hand.reader.recognising.start()
    hand.wait(lambda: "1 page could not be recognised" in hand.view.status.text())
    hand.wait(lambda: not hand.reader.recognising.is_running)
    assert len(hand.reader.summary.without_text) == 1


def test_a_document_with_text_on_every_page_has_nothing_to_recognise(qtbot, make_window, small_pdf):
    hand = Hand(qtbot, make_window()).open(small_pdf)
    assert not hand.view.status.act.isVisibleTo(hand.view)
    hand.reader.recognising.start()
    assert "Every page has text" in hand.view.status.text()


@needs_engine
def test_pages_that_fail_are_told_after_the_others_are_read(
    tmp_path, monkeypatch, own_cache, qtbot, make_window, handbook_path
):
    with pikepdf.open(handbook_path) as handbook, pikepdf.new() as made:
        made.pages.extend([handbook.pages[31], handbook.pages[118], handbook.pages[118]])
        made.save(tmp_path / "two.pdf")
    real = shutil.which("tesseract")
    calls = tmp_path / "calls"
    script = (f'case "$1" in --list-langs) exec {real} "$@";; *) echo x >> {calls}; '
              f'test $(wc -l < {calls}) -gt 1 && kill -9 $$; exec {real} "$@";; esac')  # fmt: skip
    engine(tmp_path / "bin", monkeypatch, script)
    hand = Hand(qtbot, make_window()).open(tmp_path / "two.pdf")
    assert len(hand.reader.summary.without_text) == 2
    hand.reader.recognising.start()
    hand.wait(lambda: hand.reader.is_ready and len(hand.reader.summary.without_text) == 1)
    hand.wait(lambda: "1 page could not be recognised" in hand.view.status.text())
