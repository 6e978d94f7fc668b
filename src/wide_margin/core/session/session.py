"""An open document: its workers started, watched and replaced."""

from __future__ import annotations

import contextlib
import threading
from concurrent.futures import Future
from pathlib import Path
from typing import TYPE_CHECKING, Any

from wide_margin.core.answers import WHOLE
from wide_margin.core.errors import (
    PageFailedError,
    UnreadableFileError,
    WideMarginError,
    WorkerLostError,
)
from wide_margin.core.pages import PARTS
from wide_margin.core.pages.files import recognised_folder
from wide_margin.core.session.link import Worker, memory_for
from wide_margin.core.session.pace import memory_of
from wide_margin.core.session.readings import MAX_RESTARTS, Readings

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Reach
    from wide_margin.core.digest import Digest, Field, GistLine
    from wide_margin.core.document import ParagraphText
    from wide_margin.core.explain import Explanation, SectionExplanation
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout import PageLabels, TextLayer
    from wide_margin.core.layout.cut_table import Rows
    from wide_margin.core.margin import Entry
    from wide_margin.core.outline import Outline
    from wide_margin.core.pages import FileFacts, Link, Picture
    from wide_margin.core.pages.model import PageSize
    from wide_margin.core.session.model import FoundHit, ReadSummary
    from wide_margin.core.session.readings import PageProgress
    from wide_margin.core.session.requests import DigestRequest


RECOGNISING = 200.0
"""Seconds that the engine may take for a page before its worker is given up."""


class Session:
    """A document open in worker processes.

    Every request returns a future; its callbacks run in a listening thread, not in the
    window's. Closing ends all processes at once.

        with Session(Path("handbook.pdf")) as session:
            facts = session.open().result()
            summary = session.read().result()
            answer = session.ask("Who signs a failed line?").result()
    """

    def __init__(self, path: Path, *, two_readers: bool = True, patience: float = 30.0) -> None:
        """Start the processes; nothing is opened yet.

        Args:
            path: The PDF.
            two_readers: Whether a second process helps to read a long document.
            patience: Seconds a page may take.
        """
        self.path = path
        self._password: str | None = None
        self._patience = patience
        self._is_closed = False
        self._lock = threading.RLock()
        self._page = self._new_page_worker()
        self._readings = Readings(path, two_readers=two_readers, patience=patience)
        self._without: frozenset[str] = frozenset()
        self._n_page_restarts = 0
        self._recogniser: Worker | None = None

    def __enter__(self) -> Session:
        """For use in a with statement."""
        return self

    def __exit__(self, *_: object) -> None:
        """Close."""
        self.close()

    @property
    def password(self) -> str | None:
        """The password the file was opened with."""
        return self._password

    @property
    def worker_ids(self) -> dict[str, int]:
        """Process ids by role."""
        return {"page": self._page.process_id, **self._readings.worker_ids}

    def settle(self, patience: float = 30.0) -> None:
        """Wait until what was read is kept for the next time, as the command line does."""
        with contextlib.suppress(WideMarginError, TimeoutError):
            self._readings.ping().result(patience)

    def close(self) -> None:
        """End every process."""
        with self._lock:
            self._is_closed = True
            page = self._page
        self.stop_recognising()
        page.close()
        self._readings.close()

    def open(self, password: str | None = None) -> Future[FileFacts]:
        """Open the file in the page worker; can be called again with another password.

        Where that ends the worker it is tried once more, without what the file says of itself.
        """
        self._password = password
        outcome: Future[FileFacts] = Future()
        outcome.set_running_or_notify_cancel()

        def ask(*, is_last: bool) -> None:
            worker = self._page
            future = worker.call("open", self.path, password, self._without)
            future.add_done_callback(lambda f: arrived(f, worker, is_last=is_last))

        def arrived(future: Future[FileFacts], worker: Worker, *, is_last: bool) -> None:
            error = future.exception()
            if error is None:
                outcome.set_result(future.result())
            elif not isinstance(error, WorkerLostError) or self._is_closed:
                outcome.set_exception(error)
            elif not self._replace_page_worker(worker, opens=False) or is_last:
                outcome.set_exception(_file_ended_worker(self.path))
            else:
                self._without = frozenset(PARTS)
                ask(is_last=True)

        ask(is_last=False)
        return outcome

    def sizes(self) -> Future[tuple[PageSize, ...]]:
        """(n_pages, 2) the size of every page; fewer than the facts say where the file lied."""
        return self._on_file("sizes")

    def fingerprint(self) -> Future[str]:
        """The file's SHA-256."""
        return self._on_file("fingerprint")

    def wait_for_workers(self) -> None:
        """Return once the processes are there; the bench starts its clock then."""
        self._page.call("ping").result()
        self._readings.ping().result()

    def draw(self, page: int, scale: float, clip: Box | None = None) -> Future[Picture]:
        """A bitmap of a page, or of a part of it in page space; scale pixels a point."""
        return self._on_page(page, "draw", scale, clip)

    def text(self, page: int) -> Future[TextLayer]:
        """Characters, boxes and lines of a page."""
        return self._on_page(page, "text")

    def cells(self, page: int, box: Box) -> Future[Rows]:
        """The cells of a region of a page, row by row; none where it is no table."""
        return self._on_page(page, "cells", box)

    def links(self, page: int) -> Future[tuple[Link, ...]]:
        """Link areas of a page."""
        return self._on_page(page, "links")

    def read(
        self,
        progress: PageProgress | None = None,
        *,
        hide: frozenset[str] = frozenset(),
        near: int = 0,
    ) -> Future[ReadSummary]:
        """Read the whole document; progress gets (pages read, pages).

        Args:
            progress: Told how far it is.
            hide: Witnesses of the outline to go without: "bookmark", "contents".
            near: Index of the page to begin near.
        """
        return self._readings.read(self._password, hide, progress, near)

    def hold_back(self, *, on: bool) -> None:
        """Let another window's document be read first, or read on at full speed."""
        self._readings.hold_back(on=on)

    def memory(self) -> float:
        """Megabytes that the processes of this document take; what they share counts once."""
        return memory_of(self.worker_ids.values())

    def come_near(self, page: int) -> Future[None]:
        """The reader is at a page: while reading goes on, the pages around it come next."""
        return self.query("come_near", page)

    def listed_so_far(self) -> Future[tuple[Outline, PageLabels] | None]:
        """The sections as far as they are known while reading goes on; None where none are."""
        return self.query("listed_so_far")

    def recognise(
        self, sha256: str, pages: tuple[int, ...], language: str,
        progress: PageProgress | None = None,
    ) -> Future[tuple[int, ...]]:  # fmt: skip
        """Recognise the text of pages that are only pictures; those on which the engine failed.

        What is recognised is kept, and is there after the document is read again. Fails with
        NoEngineError where Tesseract is not installed. ``stop_recognising`` ends it.
        """
        self.stop_recognising()
        worker = self._recogniser = Worker(
            "recognise", patience=RECOGNISING, memory_mb=memory_for(self.path)
        )

        def report(kind: str, value: tuple[int, int]) -> None:
            if progress is not None:
                progress(*value)

        folder = recognised_folder(sha256)
        future = worker.call(
            "recognise", self.path, self._password, folder, pages, language, report=report
        )
        future.add_done_callback(
            lambda _: threading.Thread(target=worker.close, daemon=True).start()
        )
        return future

    def stop_recognising(self) -> None:
        """End the recognising worker; the pages that it has done are kept."""
        worker, self._recogniser = self._recogniser, None
        if worker is not None:
            worker.close()

    def ask(
        self, question: str, reach: Reach | str = WHOLE, before: str | None = None
    ) -> Future[Answer]:
        """A quoted answer; fails with NotReadyError while the document is being read.

        Args:
            question: As typed.
            reach: Where to look; a string such as "section 4.2" or "pages 40-60" is looked up.
            before: The question that this one may lean on.
        """
        return self.query("ask", question, reach, before)

    def digest(self, request: DigestRequest) -> Future[Digest]:
        """Everything a reader wants to know before reading on."""
        return self.query("digest", request)

    def gist(self, request: DigestRequest) -> Future[tuple[GistLine, ...]]:
        """The gist alone, in another length."""
        return self.query("gist", request)

    def fields(self, questions: tuple[str, ...]) -> Future[tuple[Field, ...]]:
        """What the front of the document says, and answers to questions, as names and values."""
        return self.query("fields", questions)

    def worth(self, kind: str = "") -> Future[tuple[str, list[str]]]:
        """The kind of the document, found where it is not given, and what is worth asking."""
        return self.query("worth", kind)

    def find(
        self, wanted: str, *, whole_words: bool = False, exactly: bool = False, near: int = 0
    ) -> Future[list[FoundHit]]:
        """Every place where some words stand; where they are too many, those from a page on."""
        return self.query("find", wanted, whole_words, exactly, near)

    def explain(self, text: str, page: int = -1) -> Future[Explanation]:
        """What the document says about a selection on a page."""
        return self.query("explain", text, page)

    def explain_section(self, name: str) -> Future[SectionExplanation]:
        """What can be told of a section, named by its number or heading."""
        return self.query("explain_section", name)

    def paragraphs(self, reach: Reach | str) -> Future[tuple[ParagraphText, ...]]:
        """The text of a reach by paragraphs, each with its sentences and its place."""
        return self.query("paragraphs", reach)

    def use_outline(self, outline: Outline) -> Future[None]:
        """Go by an outline that the reader has changed."""
        return self._readings.use_outline(outline)

    def anchor_again(self, entries: tuple[Entry, ...]) -> Future[tuple[Entry, ...]]:
        """Entries of an older version of the file, each place where its words stand now."""
        return self.query("anchor_again", entries)

    def query(self, name: str, *arguments: object) -> Future[Any]:
        """Ask the reading worker; see ReadingService for what it knows."""
        return self._readings.query(name, *arguments)

    def _on_page(self, page: int, name: str, *arguments: object) -> Future[Any]:
        """Ask the page worker something of a page."""
        return self._asked_again(_page_ended_worker(page), name, page, *arguments)

    def _on_file(self, name: str) -> Future[Any]:
        """Ask the page worker something of the whole file."""
        return self._asked_again(_file_ended_worker(self.path), name)

    def _asked_again(self, lost: WideMarginError, name: str, *arguments: object) -> Future[Any]:
        """Ask the page worker; where it ends, start another one and ask that, once."""
        outcome: Future[Any] = Future()
        outcome.set_running_or_notify_cancel()

        def ask(attempt: int) -> None:
            worker = self._page
            worker.call(name, *arguments).add_done_callback(lambda f: arrived(f, worker, attempt))

        def arrived(future: Future[Any], worker: Worker, attempt: int) -> None:
            error = future.exception()
            if error is None:
                outcome.set_result(future.result())
            elif isinstance(error, WorkerLostError) and not self._is_closed:
                self._replace_page_worker(worker)
                if attempt == 0 and self._n_page_restarts <= MAX_RESTARTS:
                    ask(1)  # it may have been the request before this one
                else:
                    outcome.set_exception(lost)
            else:
                outcome.set_exception(error)

        ask(0)
        return outcome

    def _replace_page_worker(self, lost: Worker, *, opens: bool = True) -> bool:
        """Start another page worker; whether there is one now."""
        with self._lock:
            if self._is_closed:
                return False
            if self._page is lost:
                self._n_page_restarts += 1
                self._page = self._new_page_worker()
                if opens:
                    self._page.call("open", self.path, self._password, self._without)
        threading.Thread(target=lost.close, daemon=True).start()
        return True

    def _new_page_worker(self) -> Worker:
        memory = memory_for(self.path)
        return Worker("page", patience=self._patience, memory_mb=memory)


def _page_ended_worker(page: int) -> PageFailedError:
    return PageFailedError(
        f"Page {page + 1} of the file stopped the PDF engine.",
        hint="The other pages can be read; this one can be tried again.",
    )


def _file_ended_worker(path: Path) -> UnreadableFileError:
    return UnreadableFileError(
        f"“{path.name}” stopped the PDF engine while it was opened.",
        hint="The file is damaged, or larger than this machine can hold.",
    )
