"""Several documents at once: the one in front is read first, the others take what is left."""

import os
import time

import pytest

from tests.making import PATIENT, make_pdf, plain_pages
from wide_margin.core.session import Session
from wide_margin.core.session.pace import Pace, memory_of, processor_seconds
from wide_margin.core.session.reading_service import ReadingService
from wide_margin.core.session.requests import ReadRequest


@pytest.fixture
def slept(monkeypatch):
    """What would have been slept, in seconds."""
    rests = []
    monkeypatch.setattr(time, "sleep", rests.append)
    return rests


def test_at_full_speed_nobody_rests(slept):
    pace = Pace()
    for _ in range(3):
        pace()
    assert slept == []


def test_who_holds_back_rests_longer_than_it_worked(slept, monkeypatch):
    now = iter([10.0, 10.1, 10.4, 20.0, 99.0])
    monkeypatch.setattr(time, "perf_counter", lambda: next(now))
    pace = Pace()
    pace.holds_back = True
    pace()
    pace()
    assert slept == [pytest.approx(0.3), 0.5]  # three times as long, and never for long


@pytest.mark.parametrize("works", ["read", "help_read"])
def test_reading_holds_back_from_the_moment_it_is_told(tmp_path, slept, works):
    path = tmp_path / "plain.pdf"
    make_pdf(path, plain_pages(12))
    service, n_pages = ReadingService(), 0

    def send(kind, value):
        nonlocal n_pages
        if kind == "page":
            n_pages += 1
            service.hold_back(send, n_pages > 6)

    getattr(service, works)(send, ReadRequest(path, os.getpid()))
    assert n_pages == 12
    assert len(slept) == 6


def test_what_is_held_back_is_read_all_the_same(tmp_path):
    path = tmp_path / "plain.pdf"
    make_pdf(path, plain_pages(8))
    with Session(path) as session:
        session.hold_back(on=True)
        reading = session.read()
        session.hold_back(on=False)
        assert reading.result(PATIENT).n_pages == 8


def test_memory_of_processes_that_have_ended_is_none(small_pdf):
    with Session(small_pdf) as session:
        session.read().result(PATIENT)
        assert session.memory() > 1.0
    assert session.memory() == 0.0
    assert memory_of([os.getpid()]) > 10.0


def test_the_processor_time_of_a_process_is_what_it_worked():
    def worked():
        return processor_seconds(os.getpid())

    began = worked()
    until = time.process_time() + 0.3
    while time.process_time() < until:
        pass
    assert worked() - began >= 0.25
    slept_from = worked()
    time.sleep(0.3)
    assert worked() - slept_from < 0.2
    assert processor_seconds(2**22 + 1) == 0.0  # there is no such process
