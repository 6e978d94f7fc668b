import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from tests.making import PATIENT, make_pdf
from wide_margin.core.errors import (
    NotReadyError,
    PageFailedError,
    PasswordNeededError,
    UnreadableFileError,
    WideMarginError,
)
from wide_margin.core.session import Session, cache, link
from wide_margin.core.session.blocks import BLOCK, gather_blocks, n_blocks, read_blocks
from wide_margin.core.session.link import Worker


@pytest.fixture
def session(small_pdf):
    with Session(small_pdf) as session:
        yield session


def ended(process_id):
    try:
        os.kill(process_id, 0)
    except ProcessLookupError:
        return True
    return False


def test_a_document_is_opened_drawn_and_read(session):
    assert session.open().result(PATIENT).n_pages == 3
    assert session.draw(0, 1.0).result(PATIENT).width == 596
    assert "well" in session.text(0).result(PATIENT).page.chars
    told = []
    summary = session.read(lambda done, total: told.append((done, total))).result(PATIENT)
    assert [s.title for s in summary.outline.sections] == ["1 Wells", "2 Buckets"]
    assert told[-1] == (3, 3)
    assert session.ask("How many litres does a bucket hold?").result(PATIENT).quotes
    assert [hit.page for hit in session.find("rope").result(PATIENT)] == [0]
    assert session.explain("see section 1").result(PATIENT).references[0].title == "1 Wells"


def test_a_second_reading_comes_from_the_cache(small_pdf):
    for from_cache in (False, True):
        with Session(small_pdf) as session:
            assert session.read().result(PATIENT).from_cache is from_cache
            session.find("rope").result(PATIENT)  # what was read is cached before the next is done


def test_a_cache_that_is_broken_is_made_again(small_pdf):
    with Session(small_pdf) as session:
        session.read().result(PATIENT)
        session.find("rope").result(PATIENT)
    (kept,) = cache.cache_folder().glob("*.document")
    kept.write_bytes(b"nonsense")
    with Session(small_pdf) as session:
        assert session.read().result(PATIENT).from_cache is False


def test_what_a_process_left_half_written_goes_once_it_has_ended(small_pdf):
    gone = subprocess.run([sys.executable, "-c", "import os; print(os.getpid())"],
                          capture_output=True, text=True, check=True)  # fmt: skip
    left = cache.cache_folder() / f"{'0' * 40}.{gone.stdout.strip()}"
    written = cache.cache_folder() / f"{'0' * 40}.{os.getpid()}"
    for path in (left, written):
        path.write_bytes(b"half")
    with Session(small_pdf) as session:
        session.read().result(PATIENT)
        session.find("rope").result(PATIENT)
    assert not left.exists()
    assert written.exists()


def test_asking_before_reading_says_to_wait(session):
    with pytest.raises(NotReadyError, match="still being read"):
        session.ask("Anything?").result(PATIENT)


def test_errors_of_the_file_arrive_as_they_are(tmp_path):
    with Session(tmp_path / "nothing.pdf") as session:
        with pytest.raises(UnreadableFileError, match="There is no file"):
            session.open().result(PATIENT)
        with pytest.raises(WideMarginError):
            session.read().result(PATIENT)


def test_a_password_can_be_given_at_a_second_try(tmp_path):
    from reportlab.pdfgen.canvas import Canvas

    path = tmp_path / "locked.pdf"
    canvas = Canvas(str(path), encrypt="sesame")
    canvas.drawString(72, 700, "The door is open. It is wide.")
    canvas.save()
    with Session(path) as session:
        with pytest.raises(PasswordNeededError):
            session.open().result(PATIENT)
        assert session.open("sesame").result(PATIENT).n_pages == 1
        assert session.read().result(PATIENT).n_sentences == 2


def test_a_page_that_does_not_exist_fails_alone(session):
    session.open().result(PATIENT)
    with pytest.raises(WideMarginError):
        session.draw(99, 1.0).result(PATIENT)
    assert session.draw(1, 1.0).result(PATIENT).height == 842


def test_a_page_worker_that_dies_is_replaced(session):
    session.open().result(PATIENT)
    old = session.worker_ids["page"]
    os.kill(old, signal.SIGKILL)
    assert session.draw(0, 1.0).result(PATIENT).width == 596
    assert session.worker_ids["page"] != old


def test_a_page_that_ends_the_worker_twice_is_named(session, monkeypatch):
    session.open().result(PATIENT)
    real = Worker.call

    def deadly(self, name, *arguments, report=None):
        if name == "draw":
            os.kill(self.process_id, signal.SIGKILL)
        return real(self, name, *arguments, report=report)

    monkeypatch.setattr(Worker, "call", deadly)
    with pytest.raises(PageFailedError, match="Page 2 of the file stopped"):
        session.draw(1, 1.0).result(PATIENT)
    monkeypatch.setattr(Worker, "call", real)
    assert session.draw(0, 1.0).result(PATIENT).width == 596


def test_a_reading_worker_that_dies_goes_on_where_it_was(tmp_path):
    path = tmp_path / "long.pdf"
    make_pdf(
        path, [[("text", f"This is page {k} of a long book. It ends here.")] for k in range(400)]
    )
    with Session(path, two_readers=False) as session:
        first = session.worker_ids["reading"]
        killed = []

        def kill_once(done, total):
            if done > 100 and not killed:
                killed.append(done)
                os.kill(first, signal.SIGKILL)

        summary = session.read(kill_once).result(PATIENT)
        assert killed
        assert summary.n_pages == 400
        assert len(summary.failed) <= 1  # the page it was at is skipped and named
        assert session.worker_ids["reading"] != first


def test_closing_ends_every_process_at_once(tmp_path):
    path = tmp_path / "long.pdf"
    make_pdf(path, [[("text", f"Page {k}. It ends.")] for k in range(300)])
    session = Session(path)
    session.open().result(PATIENT)
    future = session.read()
    ids = session.worker_ids
    started = time.monotonic()
    session.close()
    assert time.monotonic() - started < 10
    assert all(ended(process_id) for process_id in ids.values())
    with pytest.raises(WideMarginError):
        future.result(10)


def test_a_worker_that_hangs_is_ended(small_pdf):
    worker = Worker("page", patience=1.0)
    os.kill(worker.process_id, signal.SIGSTOP)
    with pytest.raises(WideMarginError, match="ended"):
        worker.call("open", small_pdf, None).result(PATIENT)
    worker.close()


@pytest.mark.parametrize(("busy", "given"), [(True, 1.0), (False, 3.0)], ids=["busy", "starved"])
def test_a_worker_that_hardly_got_the_processor_is_given_more_time(busy, given, monkeypatch):
    monkeypatch.setattr(link, "processor_seconds", lambda _: time.monotonic() if busy else 0.0)
    monkeypatch.setattr(link, "STARVED", 60 if busy else 3)
    worker = Worker("page", patience=1.0)
    os.kill(worker.process_id, signal.SIGSTOP)
    started, future = time.monotonic(), worker.call("ping")
    with pytest.raises(WideMarginError, match="ended"):
        future.result(PATIENT)
    assert given <= time.monotonic() - started < 30
    worker.close()


def test_a_worker_between_steps_is_given_more_time():
    worker = Worker("page", patience=1.0)
    os.kill(worker.process_id, signal.SIGSTOP)
    future = worker.call("open", Path("none.pdf"), None)
    worker._at_steps = 0
    with pytest.raises(TimeoutError):
        future.result(3)
    worker._at_steps = None
    with pytest.raises(WideMarginError, match="ended"):
        future.result(PATIENT)
    worker.close()


def test_blocks_hold_every_page_once(tmp_path, small_pdf):
    from wide_margin.core.pages.document import PdfFile

    pdf = PdfFile(small_pdf)
    seen = []
    note = lambda p, n: seen.append(p)  # noqa: E731
    kept = read_blocks(pdf, tmp_path, range(n_blocks(3)), frozenset({1}), note)
    assert kept == {}
    pdf.close()
    done = gather_blocks(pdf, tmp_path, kept, frozenset({1}), note)
    assert seen == [0, 1, 2]
    assert done.failed == [1]
    assert done.lines[1] == []
    assert done.words["rope"] == 1
    assert any("Wells" in line.text for line in done.lines[0])
    assert n_blocks(BLOCK + 1) == 2
