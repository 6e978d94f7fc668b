"""Workers are forked from a process that has loaded what they need."""

import os
import signal
import socket
import subprocess
import sys
import time
from multiprocessing.connection import Connection
from pathlib import Path

import pytest

from tests.making import PATIENT
from wide_margin.core.session import Session, forking
from wide_margin.core.session.forking import FORK_SERVER, ForkServer, WorkerProcess
from wide_margin.core.session.link import Worker


@pytest.fixture
def server():
    server = ForkServer()
    yield server
    server.stop()


def forked(server, role="page"):
    ours, theirs = socket.socketpair()
    with theirs:
        process = server.fork(role, theirs, 1536)
    return process, Connection(ours.detach())


def has_ended(process_id):
    """Whether a process is gone, or waits for nothing but that somebody notes its end."""
    try:
        stat = Path(f"/proc/{process_id}/stat").read_text()
    except (FileNotFoundError, ProcessLookupError):
        return True
    return stat.rpartition(")")[2].split()[0] in "ZX"


def ends(process_id, within=PATIENT):
    until = time.monotonic() + within
    while not has_ended(process_id) and time.monotonic() < until:
        time.sleep(0.02)
    return has_ended(process_id)


def test_a_forked_worker_answers_and_ends_with_its_connection(server):
    process, connection = forked(server)
    connection.send((7, "ping", ()))
    assert connection.recv() == (7, "done", None)
    connection.close()
    process.wait()
    assert has_ended(process.process_id)


def test_killing_a_worker_that_has_ended_does_nothing(server):
    process, connection = forked(server)
    process.kill()
    process.wait()
    process.kill()
    connection.close()
    assert has_ended(process.process_id)


def test_a_process_can_be_ended_and_awaited_without_a_descriptor():
    child = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(60)"])
    process = WorkerProcess(child.pid, None)
    process.kill()
    child.wait()
    process.wait()
    process.kill()  # its number may be another's by now
    assert has_ended(child.pid)


def test_without_descriptors_of_processes_their_numbers_do(monkeypatch):
    def missing(process_id):
        raise OSError("no such call")

    monkeypatch.setattr(os, "pidfd_open", missing)
    ours, theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
    with ours, theirs:
        forking._tell(theirs, 4711)
        reply, descriptors, _, _ = socket.recv_fds(ours, 16, 1)
    assert (reply, descriptors) == (b"4711", [])


def test_the_server_is_replaced_when_it_has_ended(server):
    first, connection = forked(server)
    before = server.process_id
    os.kill(before, signal.SIGKILL)
    assert ends(first.process_id)  # nobody is left behind without the one that watches it
    first.wait()
    connection.close()
    second, connection = forked(server)
    connection.send((1, "ping", ()))
    assert connection.recv() == (1, "done", None)
    assert server.process_id != before
    connection.close()
    second.wait()


def test_a_document_is_read_although_the_server_was_killed(small_pdf):
    with Session(small_pdf) as session:
        session.open().result(PATIENT)
        ids = session.worker_ids
        os.kill(FORK_SERVER.process_id, signal.SIGKILL)
        assert all(ends(process_id) for process_id in ids.values())
        assert session.open().result(PATIENT).n_pages == 3
        assert session.read().result(PATIENT).n_pages == 3


def test_a_worker_has_the_environment_of_now(small_pdf, tmp_path, monkeypatch):
    with Session(small_pdf) as session:
        session.read().result(PATIENT)
        session.settle()
    monkeypatch.setenv("XDG_CACHE_HOME", str(tmp_path / "elsewhere"))
    with Session(small_pdf) as session:
        session.read().result(PATIENT)
        session.settle()
    assert list((tmp_path / "elsewhere").rglob("*.document"))


def test_closing_at_once_leaves_no_worker():
    worker = Worker("page")
    worker.close()
    assert has_ended(worker.process_id)


def test_the_server_ends_with_the_application():
    code = (
        "import os, signal\n"
        "from wide_margin.core.session.forking import FORK_SERVER\n"
        "FORK_SERVER.start()\n"
        "print(FORK_SERVER.process_id, flush=True)\n"
        "os.kill(os.getpid(), signal.SIGKILL)\n"
    )
    ended = subprocess.run([sys.executable, "-c", code], capture_output=True, check=False)
    assert ends(int(ended.stdout))


def test_the_start_of_a_worker_keeps_nobody_waiting():
    server = ForkServer()
    start = time.perf_counter()
    server.start()
    passed = time.perf_counter() - start
    process, connection = forked(server, "reading")
    waited = time.perf_counter() - start
    assert passed < waited / 2
    connection.close()
    process.wait()
    server.stop()


def test_what_every_worker_needs_is_made_ahead_in_pieces_that_give_way():
    code = (
        "import sys\n"
        "from wide_margin.core.session import forking\n"
        "pieces, before = [], None\n"
        "for pause in forking._made_ahead():\n"
        "    pieces.append(pause)\n"
        "    if pause: before = {m.split('.')[2] for m in sys.modules if m.count('.') > 2}\n"
        "from wide_margin.core.search import vectors\n"
        "from wide_margin.core.layout import furniture\n"
        "print('outline' in before, 'explain' in before, sum(pieces) == forking.QUIET)\n"
        "print(len(pieces) > 50, vectors._load.cache_info().currsize,"
        " furniture._FIGURES._compiled is not None, 'numpy.ma' in sys.modules)"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.split() == ["True", "False", "True", "True", "1", "True", "True"]
