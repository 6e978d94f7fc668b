"""A worker at a long request: what can be answered at once is, the rest waits its turn."""

import threading
from multiprocessing import Pipe

import pytest

from wide_margin.core.errors import WideMarginError
from wide_margin.core.session.worker import NO_REQUEST, serve

WAIT = 10.0


class Service:
    """Long work that gives way when it is told to."""

    EARLY = frozenset(["early", "broken"])
    CHANGING = frozenset(["change"])

    def __init__(self):
        self.asked_in_between = threading.Event()
        self.is_at_it = threading.Event()
        self.order = []
        self.n_afterwards = 0
        self.give_way = self.give_way_to_any = lambda: None
        self.is_asked = lambda: False

    def long(self, send):
        send("page", 1)
        self.is_at_it.set()
        assert self.asked_in_between.wait(WAIT)
        self.give_way()
        self.order.append("long")
        return "long"

    def open_long(self, send):
        self.is_at_it.set()
        assert self.asked_in_between.wait(WAIT)
        self.order.append(f"asked: {self.is_asked()}")
        self.give_way_to_any()
        self.order.append("long")
        return "long"

    def early(self, send, value):
        self.order.append("early")
        return value

    def broken(self, send):
        raise WideMarginError("It is broken.", hint="Mend it.")

    def change(self, send):
        self.order.append("change")

    def late(self, send):
        self.order.append("late")
        return "late"

    def afterwards(self):
        self.n_afterwards += 1

    def close(self):
        self.order.append("closed")


@pytest.fixture
def worker():
    ours, theirs = Pipe()
    service = Service()
    thread = threading.Thread(target=serve, args=(theirs, service))
    thread.start()
    yield ours, service
    ours.close()
    thread.join(WAIT)
    theirs.close()
    assert service.order[-1] == "closed"


def answers(connection, n):
    found = []
    while len(found) < n:
        assert connection.poll(WAIT)
        found.append(connection.recv())
    return found


def test_an_early_request_is_answered_before_the_long_one(worker):
    connection, service = worker
    connection.send((1, "long", ()))
    assert service.is_at_it.wait(WAIT)
    connection.send((2, "late", ()))
    connection.send((3, "early", ("so",)))
    service.asked_in_between.set()
    got = answers(connection, 4)
    assert got == [(1, "page", 1), (3, "done", "so"), (1, "done", "long"), (2, "done", "late")]
    assert service.order == ["early", "long", "late"]


def test_one_that_fails_early_fails_alone(worker):
    connection, service = worker
    connection.send((1, "long", ()))
    assert service.is_at_it.wait(WAIT)
    connection.send((2, "broken", ()))
    service.asked_in_between.set()
    _, (number, kind, error), (last, done, value) = answers(connection, 3)
    assert (number, kind, error.message) == (2, "failed", "It is broken.")
    assert (last, done, value) == (1, "done", "long")


def test_what_is_early_is_answered_in_its_turn_where_nothing_is_long(worker):
    connection, service = worker
    for number in range(3):
        connection.send((number, "early", (number,)))
    assert answers(connection, 3) == [(k, "done", k) for k in range(3)]
    assert service.n_afterwards >= 2


def test_an_unknown_request_is_no_end(worker):
    connection, _ = worker
    connection.send((1, "nothing_such", ()))
    (answer,) = answers(connection, 1)
    assert answer[:2] == (1, "failed")
    connection.send((2, "early", ("still here",)))
    assert answers(connection, 1) == [(2, "done", "still here")]


def test_what_is_asked_after_a_change_is_answered_after_it(worker):
    connection, service = worker
    connection.send((1, "long", ()))
    assert service.is_at_it.wait(WAIT)
    connection.send((2, "early", ("before",)))
    connection.send((3, "change", ()))
    connection.send((4, "early", ("after",)))
    service.asked_in_between.set()
    answers(connection, 5)
    assert service.order == ["early", "long", "change", "early"]


def test_where_nothing_is_half_made_any_request_is_answered_in_between(worker):
    connection, service = worker
    connection.send((1, "open_long", ()))
    assert service.is_at_it.wait(WAIT)
    connection.send((2, "late", ()))
    connection.send((3, "change", ()))
    connection.send((4, "late", ()))
    service.asked_in_between.set()
    answers(connection, 4)
    assert service.order == ["asked: True", "late", "long", "change", "late"]


def test_one_that_gives_way_for_long_says_that_it_is_alive(worker, monkeypatch):
    monkeypatch.setattr("wide_margin.core.session.worker.SIGN", 0.0)
    connection, service = worker
    connection.send((1, "long", ()))
    service.asked_in_between.set()
    assert answers(connection, 3) == [
        (1, "page", 1), (NO_REQUEST, "alive", None), (1, "done", "long"),
    ]  # fmt: skip
