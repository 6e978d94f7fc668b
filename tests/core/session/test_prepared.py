"""What is made of a document in spare time is what would have been made when asked for."""

import os
import pickle
import threading
from dataclasses import replace
from multiprocessing import Pipe

import pytest

from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.explain import Explainer, GatheringDefinitions, find_definitions
from wide_margin.core.outline import Outline
from wide_margin.core.session import prepared
from wide_margin.core.session.prepared import Prepared
from wide_margin.core.session.reading_service import ReadingService
from wide_margin.core.session.requests import DigestRequest, ReadRequest
from wide_margin.core.session.worker import serve

WAIT = 10.0


def test_definitions_gathered_in_pieces_are_all_of_them(handbook):
    gathering, pieces = GatheringDefinitions(handbook), 0
    while (found := gathering.go_on(0.0)) is None:
        pieces += 1
    assert pieces > 20
    assert found == find_definitions(handbook)


def test_pieces_come_to_an_end_and_leave_nothing_to_gather(handbook, monkeypatch):
    monkeypatch.setattr(prepared, "PIECE", 0.0)
    made = Prepared(handbook)
    assert made.definitions_so_far == {}
    n = 0
    while made.go_on():
        n += 1
    assert n > 20
    assert made.definitions_so_far
    assert not made.explainer.prepare()
    assert made.explainer.explain("in suspense") == Explainer(handbook).explain("in suspense")


def test_asked_in_the_middle_the_rest_is_made_at_once(handbook, monkeypatch):
    monkeypatch.setattr(prepared, "PIECE", 0.0)
    made = Prepared(handbook)
    for _ in range(5):
        made.go_on()
    assert made.definitions_so_far == {}
    assert made.definitions == find_definitions(handbook)


class Shelf:
    """Keeps what was made of a document."""

    def __init__(self):
        self.kept = []

    def load(self):
        return None

    def save(self, made):
        self.kept.append(made)


def test_questions_are_given_up_when_something_is_asked_and_made_afterwards(handbook):
    shelf = Shelf()
    made = Prepared(handbook, keeping=shelf)
    while made.digester.made is None:
        assert made.go_on(lambda: True)
    assert made.go_on(lambda: True)
    assert shelf.kept == []
    while made.go_on():
        pass
    assert len(shelf.kept[0].worth) > 3


def test_what_is_told_of_the_whole_is_given_up_and_made_afterwards(handbook):
    shelf, made = Shelf(), Prepared(handbook)
    made._keeping = shelf
    while made.digester.made is None or made.digester._whole.terms is None:
        assert made.go_on(lambda: True)
    assert made.go_on(lambda: True)
    assert made.digester._whole.test is None
    assert made.go_on()
    assert made.digester._whole.test == Digester(handbook).digest(made.definitions).test


def test_sections_under_other_names_are_told_anew(handbook):
    first = Digester(handbook)
    definitions = find_definitions(handbook)
    while first.prepare() or first.tell(definitions):
        pass
    sections = handbook.outline.sections
    renamed = sections[0]._replace(title="What the keeper said")
    other = replace(handbook, outline=replace(handbook.outline, sections=(renamed, *sections[1:])))
    assert Digester(other, made=first.made)._whole.test is None
    told = Digester(handbook, made=first.made)
    assert told._whole is first._whole


def opened(path, monkeypatch, folder):
    """A service that has the document, and has used its spare time to the end."""
    monkeypatch.setenv("XDG_CACHE_HOME", str(folder))
    service = ReadingService()
    service.read(lambda kind, value: None, ReadRequest(path, os.getpid()))
    service.afterwards()
    n_pieces = 0
    while service.spare():
        n_pieces += 1
    return service, n_pieces


def test_what_was_made_once_is_there_at_the_next_opening(small_pdf, tmp_path, monkeypatch):
    first, _ = opened(small_pdf, monkeypatch, tmp_path)
    again, _ = opened(small_pdf, monkeypatch, tmp_path)
    assert again._made.before is not None
    assert first._made.before is None
    monkeypatch.setattr(GatheringDefinitions, "go_on", lambda self, seconds: 1 / 0)
    for made in ("score", "self_test", "section_lines", "key_terms", "fill"):
        monkeypatch.setattr(f"wide_margin.core.digest.digest.{made}", lambda *a, **b: 1 / 0)
    third, _ = opened(small_pdf, monkeypatch, tmp_path)
    request = DigestRequest()
    assert third.digest(print, request) == first.digest(print, request)
    assert third._made.definitions == first._made.definitions


def test_a_damaged_file_of_what_was_made_is_made_again(small_pdf, tmp_path, monkeypatch):
    opened(small_pdf, monkeypatch, tmp_path)
    (kept,) = tmp_path.rglob("*.made")
    kept.write_bytes(kept.read_bytes()[:-20])
    again, n_pieces = opened(small_pdf, monkeypatch, tmp_path)
    assert again._made.before is None
    assert n_pieces
    assert pickle.loads(kept.read_bytes()) is not None


def test_a_changed_outline_has_its_digest_made_anew(small_pdf, tmp_path, monkeypatch):
    opened(small_pdf, monkeypatch, tmp_path)
    again, _ = opened(small_pdf, monkeypatch, tmp_path)
    outline = again._document.outline
    again.use_outline(print, Outline(outline.sections[:1], outline.sources))
    assert again._made.before is None
    assert len(again.digest(print, DigestRequest()).sections) == 1


def test_nothing_is_prepared_of_a_document_that_is_not_read():
    assert ReadingService().spare() is False


class Idle:
    """Something to do in spare time; it can fail."""

    def __init__(self, pieces, *, fails=False):
        self.pieces, self.fails = pieces, fails
        self.is_done, self.reached = threading.Event(), []
        self.was_called = threading.Event()

    def spare(self):
        self.reached.append(self.pieces)
        self.was_called.set()
        if self.fails:
            raise ValueError("it cannot be made")
        self.pieces = max(self.pieces - 1, 0)
        if not self.pieces:
            self.is_done.set()
        return self.pieces > 0

    def echo(self, send, value):
        return value, self.pieces

    def afterwards(self):
        """Nothing."""

    def close(self):
        """Nothing."""


@pytest.fixture
def served():
    ends = []

    def start(service):
        ours, theirs = Pipe()
        thread = threading.Thread(target=serve, args=(theirs, service))
        thread.start()
        ends.append((ours, thread))
        return ours

    yield start
    for ours, thread in ends:
        ours.close()
        thread.join(WAIT)
        assert not thread.is_alive()


def test_spare_time_is_used_and_requests_come_first(served):
    service = Idle(3)
    worker = served(service)
    assert service.is_done.wait(WAIT)
    worker.send((1, "echo", ("a",)))
    assert worker.recv() == (1, "done", ("a", 0))


def test_a_request_does_not_wait_for_all_of_it(served):
    service = Idle(10**9)
    worker = served(service)
    worker.send((1, "echo", ("a",)))
    assert worker.poll(WAIT)
    _, _, (value, left) = worker.recv()
    assert value == "a"
    assert left > 0


def test_a_request_heard_within_a_piece_comes_before_the_next_piece(served):
    service, asked = Idle(10**9), threading.Event()
    piece, heard = service.spare, []

    def spare():
        if not heard and asked.wait(WAIT):  # once: nobody is there to be heard at the end
            heard.append(True)
            service.give_way()  # hears the request, which is not to be answered in between
        return piece()

    service.spare = spare
    worker = served(service)
    worker.send((1, "echo", ("a",)))
    asked.set()
    assert worker.poll(WAIT)
    assert 10**9 - worker.recv()[2][1] <= 1


def test_where_preparing_fails_requests_are_answered_all_the_same(served):
    service = Idle(3, fails=True)
    worker = served(service)
    assert service.was_called.wait(WAIT)
    for number in range(3):
        worker.send((number, "echo", ("a",)))
        assert worker.recv()[0] == number
    assert len(service.reached) == 1


@pytest.mark.parametrize("long", ["worth", "gist"])
def test_a_question_is_answered_while_something_long_is_made(handbook, long):
    service, given = ReadingService(), []
    service._document = handbook

    def give_way():
        if not given:
            given.append(service.ask(None, "How often is the staff washed?", WHOLE))

    service.give_way = give_way
    if long == "worth":
        made, plain = service.worth(None, ""), ReadingService()
        plain._document = handbook
        assert made == plain.worth(None, "")
    else:
        made, plain = service.gist(None, DigestRequest(n_words=60)), ReadingService()
        plain._document = handbook
        assert made == plain.gist(None, DigestRequest(n_words=60))
    assert given[0] == plain.ask(None, "How often is the staff washed?", WHOLE)


def test_a_question_for_a_fact_needs_no_scores(handbook):
    digester = Digester(handbook)
    digester.answer("How often is the staff washed?", WHOLE, None)
    assert "scored" not in vars(digester)
