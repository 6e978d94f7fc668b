"""Hostile files through the code of the command line: one sentence each, no hang, no orphan."""

import itertools
import os

import pypdfium2
import pytest

from tests.hostile.making import HEAVY, mutants, small_pdfs
from tests.making import PATIENT
from wide_margin.core.errors import WideMarginError, WorkerLostError
from wide_margin.core.session import Session, link
from wide_margin.core.session.link import Worker
from wide_margin.core.session.requests import ReadRequest

N_MUTANTS = 200
LONGEST = 20.0
"""Seconds that one small file may take."""


def test_no_mutant_ends_the_reading_or_brings_a_traceback(tmp_path, caplog):
    files = mutants(small_pdfs(tmp_path / "small"), N_MUTANTS, tmp_path)
    worker, outcomes, told = Worker("reading", patience=LONGEST), [], []
    for path in files:
        try:
            summary = worker.call("read", ReadRequest(path, os.getpid())).result(PATIENT)
            outcomes.append("read")
            assert summary.n_pages < 100
        except WorkerLostError:
            outcomes.append("lost")
            worker.close()
            worker = Worker("reading", patience=LONGEST)
        except WideMarginError as error:
            outcomes.append("told")
            told.append(f"{path.name}: {error.message}")
    worker.close()
    assert all(message.endswith(".") for message in told)
    assert not [message for message in told if "Something went wrong" in message]
    assert len(outcomes) == N_MUTANTS
    assert outcomes.count("read") > N_MUTANTS / 3  # most harm is repaired by the engine
    assert outcomes.count("told") > 5
    assert outcomes.count("lost") < 3


@pytest.mark.parametrize("name", [name for name in HEAVY if name != "doubling forms"])
def test_a_heavy_file_is_read_without_what_is_heavy(name, tmp_path):
    path = tmp_path / "heavy.pdf"
    HEAVY[name](path)
    with Session(path) as session:
        facts = session.open().result(PATIENT)
        summary = session.read().result(PATIENT)
        picture = session.draw(0, 0.5).result(PATIENT)
    assert facts.n_pages == summary.n_pages == 2
    assert summary.n_sentences > 2
    assert picture.width > 0
    assert all(len(label or "") <= 60 for label in summary.labels.labels)
    assert len(summary.outline.sections) <= 20_000


def test_the_file_called_a_million_says_a_million(tmp_path):
    path = tmp_path / "heavy.pdf"
    HEAVY["a page called a million"](path)
    pdf = pypdfium2.PdfDocument(path)
    assert len(pdf) == 1_000_000
    pdf.close()


def test_labels_that_end_a_worker_are_done_without_and_told(tmp_path):
    path = tmp_path / "heavy.pdf"
    HEAVY["labels that loop"](path)
    with Session(path) as session:
        assert session.read().result(PATIENT).left_out == ("labels",)


def test_a_page_that_outgrows_the_memory_is_skipped_and_the_next_are_read(tmp_path, monkeypatch):
    monkeypatch.setattr(link, "MEMORY_MB", 700)
    path = tmp_path / "heavy.pdf"
    HEAVY["doubling forms"](path)
    with Session(path) as session:
        session.open().result(PATIENT)
        summary = session.read().result(PATIENT)
        assert summary.failed == (0,)
        assert summary.n_sentences > 2
        with pytest.raises(WideMarginError, match="stopped the PDF engine"):
            session.draw(0, 1.0).result(PATIENT)
        assert session.draw(1, 0.5).result(PATIENT).width > 0


@pytest.mark.parametrize("kind", ["a pipe", "a device", "a folder", "a name with a null"])
def test_what_is_no_file_is_told_at_once(kind, tmp_path):
    path = tmp_path / "odd.pdf"
    if kind == "a pipe":
        os.mkfifo(path)
    elif kind == "a device":
        path.symlink_to("/dev/zero")
    elif kind == "a folder":
        path.mkdir()
    else:
        path = tmp_path / "odd\0.pdf"
    with Session(path) as session, pytest.raises(WideMarginError) as told:
        session.open().result(PATIENT)
    assert told.value.message.endswith(".")


def test_making_mutants_again_makes_the_same(tmp_path):
    sources = small_pdfs(tmp_path / "small")[:1]
    folders = tmp_path / "a", tmp_path / "b"
    for folder in folders:
        folder.mkdir()
    made = [mutants(sources, 5, folder) for folder in folders]
    for one, two in itertools.zip_longest(*made):
        assert one.read_bytes() == two.read_bytes()
