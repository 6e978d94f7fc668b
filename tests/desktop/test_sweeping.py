"""Memory is swept while nobody waits for the window."""

import gc
import weakref

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication

from tests.making import PATIENT
from wide_margin.desktop import sweeping
from wide_margin.desktop.sweeping import MANY, SOME, Sweeper


class Ring:
    """Refers to itself."""

    def __init__(self):
        self.itself = self


@pytest.fixture
def sweeper(qapp):
    gc.collect()
    gc.freeze()
    made = Sweeper(qapp)
    yield made
    made.setParent(None)
    made.deleteLater()
    gc.unfreeze()
    gc.enable()


def ring_among(n):
    """A reference to a ring that nothing else refers to, and so many objects made with it."""
    ring = weakref.ref(Ring())
    return ring, [[] for _ in range(n)]


def test_nothing_is_looked_through_by_itself(sweeper):
    ring, _kept = ring_among(50_000)
    assert ring() is not None
    sweeper.sweep()
    assert ring() is None


def test_what_is_new_is_looked_through(sweeper):
    ring, _kept = ring_among(SOME + 100)
    sweeper.look()
    assert ring() is None


def test_a_few_objects_and_very_many_wait_for_a_sweep(sweeper):
    ring, _kept = ring_among(10)
    sweeper.look()
    assert ring() is not None
    other, _more = ring_among(MANY + 100)
    sweeper.look()
    assert other() is not None
    assert gc.get_count()[0] < SOME
    sweeper.sweep()
    assert ring() is None
    assert other() is None


def test_a_window_that_is_left_is_swept(sweeper, qtbot, monkeypatch):
    monkeypatch.setattr(sweeping, "EVERY_MS", 1)
    monkeypatch.setattr(
        sweeping.QGuiApplication, "applicationState",
        staticmethod(lambda: Qt.ApplicationState.ApplicationInactive),
    )  # fmt: skip
    ring, _kept = ring_among(10)
    QApplication.instance().applicationStateChanged.emit(Qt.ApplicationState.ApplicationInactive)
    qtbot.waitUntil(lambda: ring() is None, timeout=int(PATIENT * 1000))


def test_all_is_swept_at_last_in_a_window_that_is_never_left(sweeper, monkeypatch):
    ring, _kept = ring_among(10)
    monkeypatch.setattr(sweeping, "LONGEST_S", -1.0)
    monkeypatch.setattr(sweeping, "STILL_S", -1.0)
    sweeper.look()
    assert ring() is None


def test_a_window_that_is_closed_is_swept(sweeper, qtbot, monkeypatch):
    monkeypatch.setattr(sweeping, "EVERY_MS", 1)
    ring, _kept = ring_among(10)
    sweeper.sweep_soon()
    qtbot.waitUntil(lambda: ring() is None, timeout=int(PATIENT * 1000))
