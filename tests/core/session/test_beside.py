"""What a copy of this process makes is what this one would have made, whatever becomes of it."""

import os
import signal
from pathlib import Path

import pytest

from tests.making import make_pdf
from wide_margin.core.document import understand
from wide_margin.core.jobs import CancelToken, here, no_progress
from wide_margin.core.layout import lines_of
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.text import read_text
from wide_margin.core.session import beside as module
from wide_margin.core.session.beside import beside


def children():
    task = Path(f"/proc/{os.getpid()}/task/{os.getpid()}/children")
    return set(task.read_text(encoding="ascii").split())


def n_open():
    return len(list(Path("/proc/self/fd").iterdir()))


@pytest.fixture(autouse=True)
def none_left():
    """Every copy has ended and been waited for, and every pipe is closed."""
    before, n_before = children(), n_open()
    yield
    assert children() <= before
    assert n_open() <= n_before  # what an earlier test left may be closed meanwhile


def test_it_is_made_by_another_process():
    made = beside(os.getpid)
    assert made() != os.getpid()


def test_more_than_a_pipe_holds_comes_whole():
    assert beside(lambda: list(range(300_000)))() == list(range(300_000))


def test_a_copy_that_is_killed_is_done_without(caplog):
    own = os.getpid()

    def make():
        if os.getpid() != own:
            os.kill(os.getpid(), signal.SIGKILL)
        return "made here"

    assert beside(make)() == "made here"
    assert "could not be taken" in caplog.text


def test_what_cannot_be_sent_is_made_here():
    made = beside(lambda: lambda: 5)
    assert made()() == 5


def test_an_error_is_raised_where_it_is_waited_for():
    def make():
        raise KeyError("nothing there")

    made = beside(make)
    with pytest.raises(KeyError):
        made()


def test_where_no_process_can_be_started_it_is_made_here(monkeypatch):
    def refuse():
        raise BlockingIOError

    monkeypatch.setattr(module.os, "fork", refuse)
    assert beside(os.getpid)() == os.getpid()


def test_a_document_understood_by_two_is_that_understood_by_one(tmp_path):
    path = tmp_path / "many.pdf"
    make_pdf(path, [
        [("head", "A book of wells"), ("h1", f"{k} Wells of the parish {k}"),
         ("text", f"The well {k} holds water. It must be cov-ered at night, see section {k}. "
                  "The keeper signs for every bucket, and for the rope."),
         ("text", f"Rope {k % 7} is changed every {k} months.")]
        for k in range(1, 25)
    ])  # fmt: skip
    pdf = PdfFile(path)
    facts = pdf.facts()
    lines = [lines_of(read_text(pdf, page)) for page in range(pdf.n_pages)]
    pdf.close()
    one, two = (
        understand(facts, [], lines, [], CancelToken(), no_progress, aside=aside)
        for aside in (here, beside)
    )
    assert two.paragraphs == one.paragraphs
    assert two.text == one.text
    assert two.outline == one.outline
    assert two.index.term_ids == one.index.term_ids
    assert two.index.tokens.tolist() == one.index.tokens.tolist()
    assert two.index.token_starts.tolist() == one.index.token_starts.tolist()
