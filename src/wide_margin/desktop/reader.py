"""One document as the window knows it: its session, what was read, and what is asked of it."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable, Sequence
from concurrent.futures import Future
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QFileSystemWatcher, QObject, QTimer, Signal
from PySide6.QtGui import QUndoStack

from wide_margin.core.answers import WHOLE, Quote
from wide_margin.core.errors import NotReadyError, PasswordNeededError, WideMarginError
from wide_margin.core.margin import (
    Anchor,
    Before,
    EntryKind,
    QuestionBody,
    new_entry,
    question_entry,
)
from wide_margin.core.plain import counted
from wide_margin.core.session import DigestRequest, Session
from wide_margin.core.session.fetch import fetched_folder
from wide_margin.desktop.background import Background
from wide_margin.desktop.early_answers import EarlyAnswers
from wide_margin.desktop.entry_keeper import EntryHub, EntryKeeper
from wide_margin.desktop.explaining import Explaining
from wide_margin.desktop.outline_keeper import OutlineKeeper
from wide_margin.desktop.recognising import Recognising
from wide_margin.desktop.rewording import Rewriter
from wide_margin.desktop.service_writing import Composer
from wide_margin.desktop.translating import Translator

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Excerpt, Reach
    from wide_margin.core.margin import DocumentRecord, Entry, Store
    from wide_margin.core.pages import FileFacts
    from wide_margin.core.pages.model import PageSize
    from wide_margin.core.services import Settings, SettingsKeeper
    from wide_margin.core.session import ReadSummary
    from wide_margin.desktop.background import Job

log = logging.getLogger(__name__)

FIRST_GIST = 55
"""Words of the gist beside the first page."""
NOT_READY_MS = 250
SETTLED_MS = 700
"""A file that is being written changes many times; it is looked at once it rests."""
MISSING_MS = 2000
"""A file that is gone for the moment is looked for again after so long."""


class Reader(QObject):
    """Opens a document, asks its session, and keeps what comes of it.

    Every result carries the opening it belongs to: what was asked of a document that is no
    longer open reaches nobody.
    """

    opened = Signal(object)  # FileFacts: the first page can be shown
    sized = Signal(object)  # FileFacts, every page measured
    file_changed = Signal()  # it is another now than what is shown
    recorded = Signal()  # its record and entries are there
    entries_offered = Signal(int)  # how many another record of the same /ID has
    password_needed = Signal(str)
    failed = Signal(object)  # WideMarginError: the document cannot be opened
    read_progress = Signal(int, int)
    ready = Signal(object)  # ReadSummary
    reading_failed = Signal(object)  # WideMarginError: it can be looked at, not searched
    asking = Signal(str)
    worth_found = Signal(str, list)  # kind of document, questions
    gist_found = Signal(object)  # the first lines of its digest
    worth_unwanted = Signal()  # the document was asked before
    answered = Signal(object)  # Entry
    problem = Signal(object)  # WideMarginError: one request failed
    told = Signal(str)  # something to know

    _progress_arrived = Signal(object, int, int)

    def __init__(
        self,
        store: Store,
        settings: SettingsKeeper,
        parent: QObject | None = None,
        hub: EntryHub | None = None,
    ) -> None:
        super().__init__(parent)
        self.store, self.settings_keeper = store, settings
        self.hub = hub or EntryHub(self)
        self._settled = QTimer(self)
        self._settled.setSingleShot(True)
        self._watcher = QFileSystemWatcher(self)
        self._watcher.fileChanged.connect(lambda _: self._settled.start(SETTLED_MS))
        self._settled.timeout.connect(self._look_again)
        self._sha256 = ""
        self._password: str | None = None
        self._holds_back = False
        self.background = Background(self)
        self.undo = QUndoStack(self)
        self.session: Session | None = None
        self.path: Path | None = None
        self.facts: FileFacts | None = None
        self.summary: ReadSummary | None = None
        self.reading_error: WideMarginError | None = None
        """Why the document could not be read, where it could not."""
        self.record: DocumentRecord | None = None
        self.keeper = EntryKeeper(self, self.hub)
        self.composer, self.translator = Composer(self), Translator(self)
        self.rewriter = Rewriter(self)
        self.recognising, self.early = Recognising(self), EarlyAnswers(self)
        self.explaining = Explaining(self)
        self._n_pages_told, self._told_at = 0, 0.0
        self._progress_arrived.connect(self._tell_progress)
        self.outline = OutlineKeeper(self)

    @property
    def entries(self) -> dict[str, Entry]:
        """The entries on screen, by their ids."""
        return self.keeper.entries

    @property
    def sha256(self) -> str:
        """Checksum of the file that is open; "" until it is known."""
        return self._sha256

    @property
    def settings(self) -> Settings:
        """The settings that hold now."""
        return self.settings_keeper.now

    def change_settings(self, **values: object) -> None:
        """Change some settings, for every window and the next time."""
        try:
            self.settings_keeper.change(**values)
        except WideMarginError as error:
            self.problem.emit(error)

    def watch(
        self,
        future: Future[Any],
        *,
        done: Callable[[Any], None],
        failed: Callable[[WideMarginError], None] | None = None,
    ) -> Job:
        """Tell when a future is there, unless another document is open by then."""
        session = self.session
        tell = failed or self.problem.emit

        def still(callback: Callable[[Any], None], value: Any) -> None:
            if self.session is session:
                callback(value)

        return self.background.watch(
            future, done=lambda value: still(done, value), failed=lambda error: still(tell, error)
        )

    # --- opening and closing

    def open(self, path: Path, password: str | None = None) -> None:
        """Open a document; opened, password_needed or failed tells how it went."""
        if self.session is None or self.path != path:
            self.close_document()
            self.path = path
            self.session = Session(path)
            self.session.hold_back(on=self._holds_back)
        self._password = password
        self.watch(self.session.open(password), done=self._opened, failed=self._not_opened)

    def close_document(self) -> None:
        """End the session's processes; entries are on disk already, or on their way."""
        self.composer.stop()
        self.translator.stop()
        self.rewriter.stop()
        self.recognising.stop()
        if self.session is not None:
            self.session.close()
        self.session = self.facts = self.summary = self.record = self.reading_error = None
        self._sha256 = ""
        self._settled.stop()
        if watched := self._watcher.files():
            self._watcher.removePaths(watched)
        self.keeper.forget()
        self.undo.clear()

    def hold_back(self, *, on: bool) -> None:
        """Let the document of another window be read first, or no longer."""
        self._holds_back = on
        if self.session is not None:
            self.session.hold_back(on=on)

    def close(self) -> None:
        """End everything; what is on its way to the disk arrives there first."""
        self.close_document()
        self.background.close()
        self.store.later(lambda: None).result(30)

    def read_again(self) -> None:
        """Read the file anew, in place."""
        if self.path is not None:
            path, password = self.path, self._password
            self.close_document()
            self.open(path, password)

    def _opened(self, facts: FileFacts) -> None:
        assert self.session is not None
        self.facts = facts
        self.opened.emit(facts)
        if not facts.is_sized:
            self.watch(self.session.sizes(), done=self._sized)
        self.watch(self.session.fingerprint(), done=self._identified, failed=self._not_read)

    def _not_opened(self, error: WideMarginError) -> None:
        if isinstance(error, PasswordNeededError):
            self.password_needed.emit(error.message)
        else:
            self.failed.emit(error)

    def _sized(self, sizes: tuple[PageSize, ...]) -> None:
        if self.facts is not None and len(sizes) <= self.facts.n_pages:
            told = self.sized if len(sizes) == self.facts.n_pages else self.opened
            self.facts = self.facts.with_sizes(sizes)
            told.emit(self.facts)

    def _identified(self, sha256: str) -> None:
        """The file is known: its entries can be shown, and it can be read."""
        self._sha256 = sha256
        self._watcher.addPath(str(self.path))
        self.find_record()
        self.read()

    # --- its record and entries

    def find_record(self, then: Callable[[], None] | None = None) -> None:
        """Find the record of the document in the store; ``then`` is called once it is there.

        Where the store cannot be read this is told, and tried again with the next entry.
        """
        if self.facts is None or self.path is None or not self._sha256:
            return
        facts, path = self.facts, self.path
        title = facts.title or path.stem
        is_fetched = fetched_folder() in path.parents
        store, sha256 = self.store, self._sha256

        def find() -> tuple[DocumentRecord, Any]:
            record = store.record_for(sha256, path, facts.identity, title, is_fetched=is_fetched)
            return record, store.entries(record.id)

        def found(both: tuple[DocumentRecord, Any]) -> None:
            self.record, kept = both
            self.keeper.load(kept)
            self.recorded.emit()
            if self.record.offered:
                self._offer(self.record.offered)
            if self.summary is not None:
                self._use_what_was_kept()
            if then is not None:
                then()

        def not_found(error: WideMarginError) -> None:
            self.problem.emit(error)
            if self.summary is not None:
                self._use_what_was_kept()

        self.watch(store.later(find), done=found, failed=not_found)

    def _offer(self, other: int) -> None:
        self.watch(
            self.store.later(self.store.entries, other),
            done=lambda kept: self.entries_offered.emit(len(kept.entries)),
        )

    def take_offered(self) -> None:
        """Take the entries over that another version of this document has."""
        record = self.record
        if record is None or not record.offered:
            return
        store = self.store
        self.watch(
            store.later(store.take_entries_from, record.id, record.offered),
            done=lambda _: self.find_record(),
        )

    def _use_what_was_kept(self) -> None:
        """Both are there, what was read and the record, or it is known that there is none."""
        is_asked = any(entry.kind is EntryKind.QUESTION for entry in self.entries.values())
        if is_asked or (self.summary is not None and not self.summary.is_readable):
            self.worth_unwanted.emit()
        else:
            self.find_worth()
            self._find_gist()
        self.outline.take_up()
        if self.record is not None and self.record.is_new_version:
            self._anchor_again(self.record)

    def _anchor_again(self, record: DocumentRecord) -> None:
        """After a new version: find everything that has a place by its words."""
        assert self.session is not None
        sha256 = self._sha256

        def moved(entries: tuple[Entry, ...]) -> None:
            for entry in entries:
                if entry != self.keeper.latest(entry.id):
                    self.keeper.change(entry)
            n_lost = sum(entry.anchor.is_lost for entry in entries)
            if n_lost:
                have = "has" if n_lost == 1 else "have"
                self.told.emit(
                    f"{counted(n_lost, 'entry', 'entries')} {have} no place in this version of the"
                    " file; they are listed under Entries."
                )
            self.store.later(self.store.note_anchored, record.id, sha256)

        self.watch(self.session.anchor_again(tuple(self.entries.values())), done=moved)

    # --- reading

    def read(self) -> None:
        """Read the whole document; ready or reading_failed tells how it went."""
        assert self.session is not None
        session = self.session
        self._n_pages_told, self.reading_error = 0, None
        future = session.read(
            lambda done, of: self._progress_arrived.emit(session, done, of),
            near=self.record.last_page if self.record is not None else 0,
        )
        self.watch(future, done=self._ready, failed=self._not_read)

    @property
    def is_ready(self) -> bool:
        """Whether the document can be asked."""
        return self.summary is not None

    def _not_read(self, error: WideMarginError) -> None:
        self.reading_error = error
        self.reading_failed.emit(error)

    def _ready(self, summary: ReadSummary) -> None:
        self.summary = summary
        self.outline.found = summary.outline
        self.ready.emit(self.summary)
        if self.record is not None:
            self._use_what_was_kept()

    def _tell_progress(self, session: Session, done: int, total: int) -> None:
        # Two workers count at once: never go back; and ten times a second is often enough.
        now = time.monotonic()
        is_late = session is not self.session or done <= self._n_pages_told
        if not is_late and (done == total or now - self._told_at > 0.1):
            self._n_pages_told, self._told_at = done, now
            self.read_progress.emit(done, total)

    # --- the file on disk

    def _look_again(self) -> None:
        if self.path is None or self.session is None:
            return
        if not self.path.exists():
            self._settled.start(MISSING_MS)  # a program may replace it in several steps
            return
        self._watcher.addPath(str(self.path))
        self.watch(self.session.fingerprint(), done=self._compare)

    def _compare(self, sha256: str) -> None:
        if self._sha256 and sha256 != self._sha256:
            self.file_changed.emit()

    # --- asking

    def ask(
        self,
        question: str,
        reach: Reach = WHOLE,
        *,
        near: Anchor | None = None,
        before: str | None = None,
    ) -> None:
        """Ask; the answer arrives as an entry through answered.

        Args:
            question: As typed.
            reach: Where to look.
            near: Where the answer stands if it has no place of its own.
            before: The entry of the question that this one may lean on.
        """
        if self.session is None:
            return
        self.asking.emit(question)
        here = near or Anchor(0, 0.0)
        earlier = self.keeper.latest(before or "")
        leaned_on = None
        if earlier is not None and isinstance(earlier.body, QuestionBody):
            leaned_on = Before(earlier.id, earlier.body.question)
        self._ask(question, reach, here, leaned_on)

    def _ask(self, question: str, reach: Reach, here: Anchor, before: Before | None) -> None:
        """Ask; where not a page is read yet, ask again in a moment."""

        def failed(error: WideMarginError) -> None:
            if isinstance(error, NotReadyError):
                again = partial(self._ask, question, reach, here, before)
                QTimer.singleShot(NOT_READY_MS, self, again)
            else:
                self.problem.emit(error)

        if self.session is not None:
            self.watch(
                self.session.ask(question, reach, before.question if before else None),
                done=lambda answer: self._keep_answer(answer, here, before), failed=failed,
            )  # fmt: skip

    def _keep_answer(self, answer: Answer, here: Anchor, before: Before | None) -> None:
        entry = question_entry(answer, here, before)
        if answer.so_far:
            self.early.note(entry.id)
        self.keeper.add(entry, self.answered.emit)

    def keep_lines(self, question: str, kind: str, lines: Sequence[Excerpt], reach: Reach) -> None:
        """Keep lines of the digest as the answer to a question, all of them to compose from."""
        if not lines:
            return
        n_pages = self.facts.n_pages if self.facts else 0
        without = self.summary.to_recognise if self.summary else ()
        body = QuestionBody(
            question, kind, reach, tuple(Quote(line.text, (line.locator,)) for line in lines),
            tuple(lines), n_pages - len(without), n_pages, without,
        )  # fmt: skip
        anchor = Anchor(lines[0].locator.page, -1.0, lines[0].locator.spans, lines[0].text)
        self.keeper.add(new_entry(EntryKind.QUESTION, anchor, body), self.answered.emit)

    def strike(self, entry_id: str, excerpt: int) -> None:
        """Strike an excerpt of an answer out, or take it back in."""
        entry = self.keeper.latest(entry_id)
        if entry is not None and isinstance(entry.body, QuestionBody):
            struck = tuple(sorted(set(entry.body.struck) ^ {excerpt}))
            self.keeper.change_body(entry_id, struck=struck)

    def find_worth(self, kind: str = "") -> None:
        """Look for questions worth asking, for a document of a kind; found where empty."""
        if self.session is not None and self.is_ready:
            self.watch(
                self.session.worth(kind), done=lambda found: self.worth_found.emit(*found),
                failed=lambda error: log.info("no questions worth asking: %s", error.message),
            )  # fmt: skip

    def _find_gist(self) -> None:
        """Look for what the document says in short, for one not read before."""
        if self.session is not None:
            self.watch(
                self.session.gist(DigestRequest(n_words=FIRST_GIST)), done=self.gist_found.emit,
                failed=lambda error: log.info("no gist: %s", error.message),
            )  # fmt: skip
