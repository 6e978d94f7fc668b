import os
import signal

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent

from tests.making import make_pdf, plain_pages
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.session.link import Worker


@pytest.fixture
def bad_files(tmp_path, small_pdf):
    empty, text, cut = (tmp_path / name for name in ("empty.pdf", "text.pdf", "cut.pdf"))
    empty.touch()
    text.write_text("Dear reader", encoding="utf-8")
    cut.write_bytes(small_pdf.read_bytes()[:300])
    return {"missing": tmp_path / "none.pdf", "folder": tmp_path, "empty": empty, "text": text,
            "cut": cut}  # fmt: skip


@pytest.mark.parametrize(
    ("which", "said"),
    [
        ("missing", "There is no file"),
        ("folder", "is a folder"),
        ("empty", "is empty"),
        ("text", "is not a PDF"),
        ("cut", "is damaged"),
    ],
)
def test_a_file_that_cannot_be_opened_leaves_a_message(empty_hand, bad_files, which, said):
    empty_hand.window.open(bad_files[which])
    message = empty_hand.view.message
    empty_hand.wait(lambda: said in message.text)
    assert message.isVisible()
    assert empty_hand.window.isVisible()


def test_after_a_bad_file_a_good_one_opens(empty_hand, bad_files, small_pdf):
    empty_hand.window.open(bad_files["text"])
    empty_hand.wait(lambda: "is not a PDF" in empty_hand.view.message.text)
    empty_hand.open(small_pdf)
    assert not empty_hand.view.message.isVisible()


def test_a_file_that_ends_its_process_while_it_is_told_apart_leaves_a_message(
    empty_hand, small_pdf, monkeypatch
):
    real = Worker.call

    def deadly(self, name, *arguments, report=None):
        if name == "fingerprint":
            os.kill(self.process_id, signal.SIGKILL)
        return real(self, name, *arguments, report=report)

    monkeypatch.setattr(Worker, "call", deadly)
    empty_hand.window.open(small_pdf)
    empty_hand.wait(lambda: empty_hand.reader.reading_error is not None)
    assert "stopped the PDF engine" in empty_hand.view.status.text()
    monkeypatch.undo()
    empty_hand.open(small_pdf)


def test_a_bad_file_does_not_touch_the_entries_of_a_good_one(hand, bad_files, handbook_path):
    hand.ask("Who appoints keepers?")
    hand.window.open(bad_files["cut"])
    hand.wait(lambda: "is damaged" in hand.view.message.text)
    hand.open(handbook_path)
    assert len(hand.entries("question")) == 1


def test_a_password_is_asked_for_until_it_fits(empty_hand, locked_pdf, monkeypatch):
    given = iter(["wrong", "sesame"])
    asked = []

    def answer(message):
        asked.append(message)
        return next(given)

    monkeypatch.setattr(empty_hand.window, "ask_for_password", answer)
    empty_hand.open(locked_pdf)
    assert "protected by a password" in asked[0]
    assert "does not open the file" in asked[1]


def test_declining_to_give_a_password_leaves_a_message(empty_hand, locked_pdf, monkeypatch):
    monkeypatch.setattr(empty_hand.window, "ask_for_password", lambda message: None)
    empty_hand.window.open(locked_pdf)
    empty_hand.wait(lambda: "password" in empty_hand.view.message.text)


def test_a_document_without_text_can_be_looked_at(empty_hand, blank_pdf):
    empty_hand.window.open(blank_pdf)
    empty_hand.wait(lambda: empty_hand.reader.is_ready)
    assert "no text that can be read" in empty_hand.view.status.text()
    empty_hand.wait(lambda: empty_hand.view.pages.images.image(0))
    entry = empty_hand.ask("What is this about?")
    assert entry.body.quotes == ()


def test_a_page_worker_that_dies_leaves_the_window_working(hand):
    os.kill(hand.reader.session.worker_ids["page"], signal.SIGKILL)
    hand.view.go_to_typed("40")
    page = hand.view.here()[0]
    hand.wait(lambda: hand.view.pages.images.image(page))


def test_a_page_that_fails_says_so_and_can_be_tried_again(hand):
    from wide_margin.core.errors import PageFailedError

    images = hand.view.pages.images
    images.failures[5] = PageFailedError("Page 6 of the file cannot be drawn.")
    hand.view.pages.go_to(5)
    images.retry(5)
    hand.wait(lambda: images.image(5))
    assert 5 not in images.failures


def test_pages_that_a_large_file_only_says_it_has_are_gone_once_they_are_counted(
    empty_hand, tmp_path
):
    path = tmp_path / "boasts.pdf"
    make_pdf(path, plain_pages(30))
    filled = path.read_bytes().replace(b"/Count 30", b"/Count 90")
    path.write_bytes(b"%PDF-1.4\n%" + b"x" * 40_000 + b"\n" + filled)  # room for ninety
    assert PdfFile(path, at_once=True).n_pages == 90
    hand = empty_hand.open(path)
    hand.wait(lambda: hand.reader.facts.is_sized)
    assert hand.reader.facts.n_pages == len(hand.reader.facts.sizes) == 30
    assert hand.view.pages.n_pages == hand.reader.summary.n_pages == 30
    hand.view.pages.go_to(29, 0.0)
    hand.wait(lambda: hand.view.pages.images.layer(29))


def test_dropping_a_file_opens_it(empty_hand, small_pdf):
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(small_pdf))])
    event = QDropEvent(
        QPointF(100, 100), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )  # fmt: skip
    empty_hand.window.dropEvent(event)
    empty_hand.wait(lambda: empty_hand.reader.is_ready)
    assert empty_hand.reader.path == small_pdf


def test_closing_while_reading_ends_the_processes(empty_hand, tmp_path):
    path = tmp_path / "long.pdf"
    make_pdf(path, [[("text", f"Page {k} of many. It ends here.")] for k in range(500)])
    empty_hand.window.open(path)
    empty_hand.wait(lambda: "Reading page" in empty_hand.view.status.text())
    ids = list(empty_hand.reader.session.worker_ids.values())
    empty_hand.window.close()
    for process_id in ids:
        with pytest.raises(ProcessLookupError):
            os.kill(process_id, 0)
