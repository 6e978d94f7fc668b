"""Fixtures every test may use: folders of its own, made PDFs, the demo handbook read once."""

from __future__ import annotations

import os
import time
from collections.abc import Iterator
from dataclasses import dataclass
from importlib import resources
from pathlib import Path

import pytest
from hypothesis import HealthCheck, settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from tests.making import PATIENT, make_pdf, read_document
from wide_margin.core.document import ReadDocument
from wide_margin.core.session.reading_service import ReadingService
from wide_margin.core.session.requests import ReadRequest

# How long an example takes says more of the machine than of the code.
settings.register_profile(
    "any machine", deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("any machine")

HANDBOOK = resources.files("wide_margin.data") / "handbook.pdf"


@pytest.fixture(autouse=True)
def own_folders(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """No test touches the user's settings, entries or cache."""
    for name in ("XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_STATE_HOME"):
        monkeypatch.setenv(name, str(tmp_path / name.lower()))


@pytest.fixture
def shared_cache(own_folders: None, read: Read, monkeypatch: pytest.MonkeyPatch) -> None:
    """The handbook has been read, and what explanations and digests need of it is made."""
    monkeypatch.setenv("XDG_CACHE_HOME", str(read.cache))


@pytest.fixture(scope="session")
def qapp_cls() -> type:
    """The application as the window's own code sets it up."""
    from wide_margin.desktop.app import make_application

    return lambda arguments: make_application()  # type: ignore[return-value]


@pytest.fixture(scope="session")
def handbook_path() -> Path:
    return Path(str(HANDBOOK))


@dataclass(frozen=True)
class Read:
    """The handbook, read once for all tests of a process."""

    service: ReadingService
    cache: Path
    """Where it is kept, with what was made of it."""


@pytest.fixture(scope="session")
def read(tmp_path_factory: pytest.TempPathFactory, handbook_path: Path) -> Read:
    cache, service = tmp_path_factory.mktemp("shared-cache"), ReadingService()
    with pytest.MonkeyPatch.context() as patch:
        patch.setenv("XDG_CACHE_HOME", str(cache))
        service.read(lambda kind, value: None, ReadRequest(handbook_path, os.getpid()))
        service.afterwards()
        while service.spare():
            pass
    return Read(service, cache)


@pytest.fixture(scope="session")
def reading(read: Read) -> ReadingService:
    """A reading service that has read the handbook, in this process."""
    return read.service


@pytest.fixture(scope="session")
def handbook(reading: ReadingService) -> ReadDocument:
    assert reading._document is not None
    return reading._document


@pytest.fixture
def small_pdf(tmp_path: Path) -> Path:
    """Three pages with two numbered sections and a running head."""
    path = tmp_path / "small.pdf"
    make_pdf(
        path,
        [
            [("head", "A small book"), ("h1", "1 Wells"),
             ("text", "A well is a hole in the ground that holds water. "
                      "It must be covered at night."),
             ("text", "The rope is changed every eighteen months, whether or not it looks worn.")],
            [("head", "A small book"), ("h1", "2 Buckets"),
             ("text", "A bucket holds 12 litres. "
                      "The keeper of the well signs for every bucket."),
             ("text", "Wooden buckets are soaked for two days before they are used, "
                      "see section 1.")],
            [("head", "A small book"),
             ("text", "Iron buckets rust. They are painted red in April and in October.")],
        ],
    )  # fmt: skip
    return path


@pytest.fixture
def small(small_pdf: Path) -> ReadDocument:
    return read_document(small_pdf)


@pytest.fixture
def blank_pdf(tmp_path: Path) -> Path:
    path = tmp_path / "blank.pdf"
    make_pdf(path, [[], []])
    return path


@pytest.fixture(autouse=True)
def no_worker_left() -> Iterator[None]:
    """A test that leaves a worker process running fails."""
    yield
    from wide_margin.core.session.forking import FORK_SERVER

    if FORK_SERVER.process_id is None:
        return
    tasks = Path(f"/proc/{FORK_SERVER.process_id}/task/{FORK_SERVER.process_id}/children")
    until = time.monotonic() + PATIENT
    while tasks.read_text() and time.monotonic() < until:  # one that was ended takes a moment
        time.sleep(0.02)
    assert not tasks.read_text(), f"workers left running: {tasks.read_text()}"
