"""Workers that end, caches that cannot be used: reading goes on, and answers come."""

import os
import signal
import subprocess
import sys
import threading
import time
from dataclasses import replace
from multiprocessing.connection import Connection
from pathlib import Path

import pytest

from tests.making import PATIENT, make_pdf
from wide_margin.core.answers import WHOLE
from wide_margin.core.errors import WideMarginError, WorkerLostError
from wide_margin.core.outline import Outline
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.files import sha256_of
from wide_margin.core.session import Session, blocks, cache, readings
from wide_margin.core.session.blocks import gather_blocks, n_blocks, read_blocks
from wide_margin.core.session.forking import FORK_SERVER
from wide_margin.core.session.link import Worker
from wide_margin.core.session.reading_service import ReadingService
from wide_margin.core.session.requests import ReadRequest

QUESTION = "When is the rope changed?"


@pytest.fixture
def session(small_pdf):
    with Session(small_pdf, patience=20.0) as opened:
        yield opened


def kill(session, role):
    process = session.worker_ids[role]
    os.kill(process, signal.SIGKILL)
    return process


def test_a_reading_worker_that_ends_after_reading_is_replaced_and_answers(session):
    session.read().result(PATIENT)
    before = session.ask(QUESTION).result(PATIENT)
    old = kill(session, "reading")
    assert session.ask(QUESTION).result(PATIENT).quotes == before.quotes
    assert session.worker_ids["reading"] != old


def test_several_requests_that_find_it_ended_share_one_successor(session, monkeypatch):
    session.read().result(PATIENT)
    session.settle()
    started = []
    real = readings.Readings._new_worker
    monkeypatch.setattr(
        readings.Readings, "_new_worker", lambda self: started.append(1) or real(self)
    )
    kill(session, "reading")
    futures = [session.ask(QUESTION) for _ in range(3)]
    assert all(future.result(PATIENT).quotes for future in futures)
    assert len(started) == 1


def test_the_successor_goes_by_the_changed_outline(session):
    summary = session.read().result(PATIENT)
    changed = Outline(
        (summary.outline.sections[0]._replace(title="Of wells"),), ("heading",), is_edited=True
    )
    session.use_outline(changed).result(PATIENT)
    kill(session, "reading")
    path = session.ask(QUESTION).result(PATIENT).quotes[0].locators[0].path
    assert path == ("Of wells",)


def test_a_page_worker_that_ends_while_opening_is_started_again(session, monkeypatch):
    real, killed = Worker.call, []

    def deadly(self, name, *arguments, report=None):
        if name == "open" and not killed:
            killed.append(self.process_id)
            os.kill(self.process_id, signal.SIGKILL)
        return real(self, name, *arguments, report=report)

    monkeypatch.setattr(Worker, "call", deadly)
    assert session.open().result(PATIENT).n_pages == 3
    assert session.draw(0, 0.5).result(PATIENT).width > 0


def test_a_file_that_ends_the_worker_at_every_opening_is_told(session, monkeypatch):
    real = Worker.call

    def deadly(self, name, *arguments, report=None):
        if name == "open":
            os.kill(self.process_id, signal.SIGKILL)
        return real(self, name, *arguments, report=report)

    monkeypatch.setattr(Worker, "call", deadly)
    with pytest.raises(WideMarginError, match="stopped the PDF engine while it was opened"):
        session.open().result(PATIENT)
    monkeypatch.setattr(Worker, "call", real)
    assert session.open().result(PATIENT).n_pages == 3


@pytest.mark.parametrize("asked", ["fingerprint", "sizes"])
def test_what_is_asked_of_the_file_outlives_a_page_that_ends_the_worker(
    session, monkeypatch, asked
):
    session.open().result(PATIENT)
    expected = getattr(session, asked)().result(PATIENT)
    real, killed = Worker.call, []

    def deadly(self, name, *arguments, report=None):
        if name == asked and not killed:
            killed.append(kill(session, "page"))
        return real(self, name, *arguments, report=report)

    monkeypatch.setattr(Worker, "call", deadly)
    assert getattr(session, asked)().result(PATIENT) == expected
    assert killed


def test_a_good_page_is_tried_again_after_its_worker_was_killed(tmp_path):
    path = tmp_path / "long.pdf"
    make_pdf(path, [[("text", f"This is page {k} of a book. It ends here.")] for k in range(300)])
    with Session(path, two_readers=False) as session:
        killed = []

        def kill_once(done, total):
            if done > 40 and not killed:
                killed.append(kill(session, "reading"))

        summary = session.read(kill_once).result(PATIENT)
        assert killed
        assert summary.failed == ()
        session.settle()
    with Session(path) as session:
        assert session.read().result(PATIENT).from_cache


@pytest.mark.parametrize("gap", [{"skip": frozenset({1})}, {"without": frozenset({"labels"})}])
def test_a_reading_with_a_gap_is_not_kept(small_pdf, gap):
    for request, is_kept in (
        (ReadRequest(small_pdf, os.getpid(), **gap), False),
        (ReadRequest(small_pdf, os.getpid()), True),
    ):
        service = ReadingService()
        summary = service.read(lambda kind, value: None, request)
        service.afterwards()
        assert summary.failed == tuple(gap.get("skip", ())) * (not is_kept)
        sha256 = sha256_of(small_pdf)
        assert (cache.load(sha256) is not None) is is_kept
        assert cache.summary_of(sha256) == (replace(summary, from_cache=True) if is_kept else None)


@pytest.mark.parametrize("end", [cache.DOCUMENT, cache.FRONT])
@pytest.mark.parametrize("how", ["cut", "changed", "gone"])
def test_a_kept_document_that_is_damaged_is_read_again(small_pdf, end, how):
    request = ReadRequest(small_pdf, os.getpid())
    service = ReadingService()
    before = service.read(lambda kind, value: None, request)
    service.afterwards()
    (path,) = cache.cache_folder().glob(f"*{end}")
    data = path.read_bytes()
    middle = len(data) // 2
    if how == "gone":
        path.unlink()
    else:
        path.write_bytes(
            data[:-9] if how == "cut" else data[:middle] + b"damage" + data[middle + 6 :]
        )
    again = ReadingService()
    assert again.read(lambda kind, value: None, request) == before
    assert again.paragraphs(lambda kind, value: None, WHOLE)


def test_a_kept_document_is_told_of_at_once_and_taken_up_when_it_is_needed(small_pdf):
    request = ReadRequest(small_pdf, os.getpid())
    service = ReadingService()
    before = service.read(lambda kind, value: None, request)
    service.afterwards()
    again = ReadingService()
    assert again.read(lambda kind, value: None, request) == replace(before, from_cache=True)
    assert again._document is None
    assert again.spare()
    assert again._document is not None
    third = ReadingService()
    third.read(lambda kind, value: None, request)
    (path,) = cache.cache_folder().glob(f"*{cache.DOCUMENT}")
    path.unlink()
    for _ in range(2):  # it stays so until the document is opened again
        with pytest.raises(WideMarginError, match="is gone") as caught:
            third.find(lambda kind, value: None, "well")
        assert "again" in caught.value.hint
    assert third.read(lambda kind, value: None, request) == before


def test_reading_works_where_the_cache_cannot_be_made(small_pdf, tmp_path, monkeypatch):
    in_the_way = tmp_path / "file"
    in_the_way.write_text("in the way", encoding="utf-8")
    monkeypatch.setenv("XDG_CACHE_HOME", str(in_the_way))
    with Session(small_pdf) as session:
        assert session.read().result(PATIENT).n_sentences > 5
        assert session.ask(QUESTION).result(PATIENT).quotes


def test_a_full_disk_costs_the_blocks_and_not_the_reading(tmp_path, small_pdf, monkeypatch):
    pdf = PdfFile(small_pdf)

    def full(self, data):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(Path, "write_bytes", full)
    nothing = lambda page, n: None  # noqa: E731
    unwritten = read_blocks(pdf, tmp_path, range(n_blocks(3)), frozenset(), nothing)
    whole = gather_blocks(pdf, tmp_path, unwritten, frozenset(), nothing)
    pdf.close()
    assert len(whole.lines) == 3
    assert cache.block_folder(1, "a" * 64) is None


def test_a_damaged_block_is_dropped_and_read_again(tmp_path, small_pdf):
    pdf = PdfFile(small_pdf)
    nothing = lambda page, n: None  # noqa: E731
    read_blocks(pdf, tmp_path, range(n_blocks(3)), frozenset(), nothing)
    (block,) = tmp_path.glob("block-*")
    block.write_bytes(b"damaged")
    whole = gather_blocks(pdf, tmp_path, {}, frozenset(), nothing)
    pdf.close()
    assert len(whole.lines) == 3
    assert not block.exists()


def test_a_page_that_is_not_understood_costs_that_page(small_pdf, monkeypatch):
    pdf = PdfFile(small_pdf)
    lines_of = blocks.lines_of

    def odd(page, rules):
        if page.index == 1:
            raise ValueError("zero-size array")
        return lines_of(page, rules)

    monkeypatch.setattr(blocks, "lines_of", odd)
    nothing = lambda page, n: None  # noqa: E731
    unwritten = read_blocks(pdf, None, range(n_blocks(3)), frozenset(), nothing)
    whole = gather_blocks(pdf, None, unwritten, frozenset(), nothing)
    pdf.close()
    assert whole.failed == [1]
    assert [bool(lines) for lines in whole.lines] == [True, False, True]


def test_blocks_that_applications_left_behind_go(small_pdf):
    left = cache.cache_folder() / f"{'0' * 40}.99999999.blocks"
    left.mkdir()
    (left / "block-00000").write_bytes(b"x")
    with Session(small_pdf) as session:
        session.read().result(PATIENT)
        session.settle()
    assert list(cache.cache_folder().glob("*.blocks")) == []
    assert len(list(cache.cache_folder().glob("*.document"))) == 1


def test_workers_end_with_the_application(small_pdf, tmp_path):
    code = (
        "import sys, time, pathlib\n"
        "from wide_margin.core.session import Session\n"
        f"session = Session(pathlib.Path({str(small_pdf)!r}))\n"
        "session.open().result(120)\n"
        "print(*session.worker_ids.values(), flush=True)\n"
        "time.sleep(60)\n"
    )
    application = subprocess.Popen([sys.executable, "-c", code], stdout=subprocess.PIPE, text=True)
    workers = [int(word) for word in application.stdout.readline().split()]
    assert len(workers) == 2
    application.kill()
    application.wait()
    application.stdout.close()
    until = time.monotonic() + PATIENT
    while time.monotonic() < until and any(is_there(worker) for worker in workers):
        time.sleep(0.05)
    assert not any(is_there(worker) for worker in workers)


def is_there(process):
    try:
        state = Path(f"/proc/{process}/stat").read_text(encoding="utf-8").split()[2]
    except OSError:
        return False
    return state != "Z"


def test_a_large_request_to_a_busy_worker_holds_nobody_up(small_pdf):
    worker = Worker("page", patience=30.0)
    worker.call("ping").result(PATIENT)
    os.kill(worker.process_id, signal.SIGSTOP)
    began = time.monotonic()
    future = worker.call("open", small_pdf, None, frozenset({"x" * 20_000_000}))
    assert time.monotonic() - began < 10  # the worker takes nothing until it goes on
    assert threading.active_count() < 20
    os.kill(worker.process_id, signal.SIGCONT)
    assert future.result(PATIENT).n_pages == 3
    worker.close()


def test_a_report_that_nobody_can_take_does_not_stop_what_follows(session):
    def gone(done, total):
        raise RuntimeError("the window that was told is gone")

    assert session.read(gone).result(PATIENT).is_readable
    assert session.ask(QUESTION).result(PATIENT).quotes


def test_whoever_waits_hears_when_what_a_worker_sends_cannot_be_read(session, monkeypatch):
    assert session.open().result(PATIENT)

    def unreadable(self):
        real(self)
        raise ValueError("no such thing")

    real = Connection.recv
    monkeypatch.setattr(Connection, "recv", unreadable)
    future = session._page.call("ping")
    with pytest.raises(WorkerLostError):
        future.result(PATIENT)


def test_whoever_waits_hears_when_no_worker_can_be_started(small_pdf, monkeypatch):
    def refuses(*_):
        raise RuntimeError("no thread can be started")

    monkeypatch.setattr(FORK_SERVER, "fork", refuses)
    with Session(small_pdf) as session, pytest.raises(WideMarginError):
        session.open().result(PATIENT)
