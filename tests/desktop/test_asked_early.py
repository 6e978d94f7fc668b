"""A question asked in the first second is answered, and anew once all pages are read."""

import pytest

from tests.core.session.test_so_far import MILL, N_PAGES, long_pdf
from tests.desktop.conftest import Hand

__all__ = ["long_pdf"]
QUESTION = "What is the wheel of the mill greased with?"


@pytest.fixture
def fresh(qtbot, make_window, long_pdf, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "fresh"))
    return Hand(qtbot, make_window())


def test_a_question_need_not_wait_until_all_is_read(fresh, long_pdf):
    fresh.window.open(long_pdf)
    fresh.wait(lambda: fresh.reader.record is not None)
    fresh.view.commands.ask(QUESTION)
    fresh.wait(lambda: fresh.reader.entries)
    fresh.wait(lambda: fresh.reader.is_ready)
    (entry_id,) = fresh.reader.entries
    fresh.wait(lambda: fresh.reader.entries[entry_id].body.so_far == 0)
    body = fresh.reader.entries[entry_id].body
    assert body.n_searched == N_PAGES
    assert "tallow" in body.quotes[0].text
    assert MILL in body.quotes[0].text


def test_the_answer_of_the_whole_takes_the_place_of_an_early_one(fresh, long_pdf):
    hand = fresh.open(long_pdf)
    entry = hand.ask("How often is the rope of the well changed?")
    keeper = hand.reader.keeper
    keeper.change_body(entry.id, quotes=(), so_far=16)
    hand.wait(lambda: hand.reader.entries[entry.id].body.so_far == 16)
    hand.wait(lambda: "16 of 80 pages read so far" in texts(hand.view.margin.held))
    hand.reader.early.note(entry.id)
    hand.wait(lambda: hand.reader.entries[entry.id].body.so_far == 0)
    assert "eighteen months" in hand.reader.entries[entry.id].body.quotes[0].text
    hand.wait(lambda: "is answered anew" in hand.view.status.text())


def test_one_that_stays_the_same_is_not_told_of(fresh, long_pdf):
    hand = fresh.open(long_pdf)
    entry = hand.ask("How often is the rope of the well changed?")
    hand.reader.keeper.change_body(entry.id, so_far=16)
    hand.wait(lambda: hand.reader.entries[entry.id].body.so_far == 16)
    hand.reader.early.note(entry.id)
    hand.wait(lambda: hand.reader.entries[entry.id].body.so_far == 0)
    assert "anew" not in hand.view.status.text()


def test_the_contents_can_be_gone_by_before_all_is_read(fresh, long_pdf, monkeypatch):
    view = fresh.view
    monkeypatch.setattr(type(fresh.reader), "_ready", lambda self, summary: None)  # never done
    fresh.window.open(long_pdf)
    fresh.wait(lambda: view.so_far.outline.sections)
    assert not fresh.reader.is_ready
    outline = view.outline
    assert view.contents.contents.topLevelItemCount() >= 10
    view.go_to_section(8)
    assert view.here()[0] == outline.sections[8].page
    fresh.wait(lambda: view.section == 8)


def test_the_place_that_is_read_at_is_told_to_the_worker(fresh, long_pdf, monkeypatch):
    told = []
    monkeypatch.setattr(type(fresh.reader), "_ready", lambda self, summary: None)
    fresh.window.open(long_pdf)
    fresh.wait(lambda: fresh.reader.sha256 and fresh.view.pages.n_pages == N_PAGES)
    session = fresh.reader.session
    come_near = session.come_near
    monkeypatch.setattr(session, "come_near", lambda p: (told.append(p), come_near(p))[1])
    fresh.view.pages.go_to(60)
    fresh.wait(lambda: told)
    assert told[-1] in (60, 61)


def texts(widget):
    return "\n".join(label.text() for label in widget.findChildren(type(widget.head)))
