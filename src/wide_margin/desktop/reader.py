"""One document as the window knows it: its session, what was read, its entries."""

import locale
import logging
import time
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Any

from PySide6.QtCore import QFileSystemWatcher, QObject, QTimer, Signal
from PySide6.QtGui import QUndoCommand, QUndoStack

from wide_margin.core.answers import (
    WHOLE,
    Answer,
    Budget,
    Quote,
    Reach,
    budget_of,
    compose,
    request_for,
)
from wide_margin.core.errors import PasswordNeededError, WideMarginError
from wide_margin.core.explain import Explanation
from wide_margin.core.geometry import FloatArray
from wide_margin.core.jobs import CancelToken
from wide_margin.core.margin import Anchor, DocumentRecord, Entry, Store, new_entry
from wide_margin.core.outline import Outline
from wide_margin.core.pages import FileFacts
from wide_margin.core.passages import split_sentences
from wide_margin.core.services import Settings, WritingModel, save_settings
from wide_margin.core.services.keys import model_key
from wide_margin.core.services.writing_model import first_model, is_on_this_machine
from wide_margin.core.session import FoundHit, ReadSummary, Session
from wide_margin.core.translate import LANGUAGES, Pair, translate
from wide_margin.desktop.background import Background, Job, Report
from wide_margin.desktop.bodies import answer_body, explanation_body, kept_excerpts, quote_body
from wide_margin.desktop.outline_keeper import OutlineKeeper

log = logging.getLogger(__name__)


class EntryHub(QObject):
    """Tells every window about entries, so that two windows on one document share them."""

    changed = Signal(object, int, str, object)  # who, document record, what, entry or its id


class Reader(QObject):
    """Opens a document, asks its session, and keeps its entries.

    Entries are in the store before any signal about them is sent.
    """

    opened = Signal(object)  # FileFacts: the first page can be shown
    sized = Signal(object)  # FileFacts, every page measured
    file_changed = Signal()  # it is another now than what is shown
    recorded = Signal()  # its record and entries are there
    password_needed = Signal(str)
    failed = Signal(object)  # WideMarginError: the document cannot be opened
    read_progress = Signal(int, int)
    ready = Signal(object)  # ReadSummary
    reading_failed = Signal(object)  # WideMarginError: it can be looked at, not searched
    entry_added = Signal(object)
    entry_changed = Signal(object)
    entry_removed = Signal(str)
    asking = Signal(str)
    worth_found = Signal(str, list)  # kind of document, questions
    answered = Signal(object)  # Entry
    found = Signal(str, object)  # the words, list of FoundHit
    problem = Signal(object)  # WideMarginError: one request failed

    _progress_arrived = Signal(int, int)

    def __init__(
        self,
        store: Store,
        settings: Settings,
        parent: QObject | None = None,
        hub: EntryHub | None = None,
    ) -> None:
        super().__init__(parent)
        self.store, self.settings = store, settings
        self.hub = hub or EntryHub(self)
        self.hub.changed.connect(self._elsewhere)
        self._watcher = QFileSystemWatcher(self)
        self._watcher.fileChanged.connect(self._file_touched)
        self._settled = QTimer(self)
        self._settled.setSingleShot(True)
        self._settled.setInterval(700)
        self._settled.timeout.connect(self._look_again)
        self._sha256 = ""
        self.background = Background(self)
        self.undo = QUndoStack(self)
        self.session: Session | None = None
        self.path: Path | None = None
        self.facts: FileFacts | None = None
        self.summary: ReadSummary | None = None
        self.record: DocumentRecord | None = None
        self.entries: dict[str, Entry] = {}
        self._translating: dict[str, Job] = {}
        self._composing: dict[str, Job] = {}
        self._n_pages_told, self._told_at = 0, 0.0
        self._progress_arrived.connect(self._tell_progress)
        self.outline = OutlineKeeper(self)

    def open(self, path: Path, password: str | None = None) -> None:
        """Open a document; opened, password_needed or failed tells how it went."""
        if self.session is None or self.path != path:
            self.close_document()
            self.path = path
            self.session = Session(path)
        self._password = password
        self.background.watch(
            self.session.open(password), done=self._opened, failed=self._not_opened
        )

    def close_document(self) -> None:
        """End the session's processes; entries are on disk already."""
        if self.session is not None:
            self.session.close()
        self.session = self.facts = self.summary = self.record = None
        if watched := self._watcher.files():
            self._watcher.removePaths(watched)
        self.entries = {}
        self.undo.clear()

    def close(self) -> None:
        """End everything."""
        for job in [*self._translating.values(), *self._composing.values()]:
            job.cancel()
        self.close_document()
        self.background.close()

    def read(self) -> None:
        """Read the whole document; ready or reading_failed tells how it went."""
        assert self.session is not None
        self._n_pages_told = 0
        future = self.session.read(self._progress_arrived.emit)
        self.background.watch(future, done=self._ready, failed=self.reading_failed.emit)

    @property
    def is_ready(self) -> bool:
        """Whether the document can be asked."""
        return self.summary is not None

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
        earlier = self.entries.get(before or "")
        asked_before = str(earlier.body["question"]) if earlier else None
        self.background.watch(
            self.session.ask(question, reach, asked_before),
            done=lambda answer: self._keep_answer(answer, here, earlier),
            failed=self.problem.emit,
        )

    def strike(self, entry_id: str, excerpt: int) -> None:
        """Strike an excerpt of an answer out, or take it back in."""
        if entry := self.entries.get(entry_id):
            struck = set(entry.body.get("struck", ())) ^ {excerpt}
            self.change(entry.with_body(struck=sorted(struck)))

    def keep_settings(self, settings: Settings) -> None:
        """Go by changed settings, and save them."""
        self.settings = settings
        try:
            save_settings(settings)
        except OSError:
            log.warning("the settings could not be saved", exc_info=True)

    # --- composing

    def budget(self, entry_id: str) -> Budget:
        """What composing an answer would send, and to where."""
        body = self.entries[entry_id].body
        excerpts = kept_excerpts(body)
        messages = request_for(body["question"], excerpts)
        return budget_of(messages, len(excerpts), self.settings.model_address)

    @property
    def may_send(self) -> bool:
        """Whether the model is on this machine, or sending to it was agreed to."""
        address = self.settings.model_address
        return is_on_this_machine(address) or address == self.settings.trusted_address

    @property
    def has_model(self) -> bool:
        """Whether a writing model is connected."""
        return bool(self.settings.model_address)

    def compose(self, entry_id: str, *, freely: bool = False, with_general: bool = False) -> None:
        """Have the writing model compose an answer from the excerpts that are kept.

        Args:
            entry_id: The question's entry.
            freely: In its own words, instead of close to the excerpts'.
            with_general: Whether general knowledge may be added, which is marked as such.
        """
        entry = self.entries[entry_id]
        excerpts = kept_excerpts(entry.body)
        if not excerpts or not self.has_model:
            return
        self.cancel_composing(entry_id)
        quoted = entry.body.get("quoted") or entry.body["quotes"]
        self.change(
            entry.with_body(
                quoted=quoted, quotes=[], origin="composed", state="running", freely=freely
            )
        )
        question, before = entry.body["question"], entry.body.get("before")
        text = f"{before['question']} {question}" if before else question

        def work(token: CancelToken, report: Report) -> None:
            model = self._model()
            report(model.name)
            compose(
                text, excerpts, model, token,
                on_statement=report, freely=freely, with_general=with_general,
            )  # fmt: skip

        self._composing[entry_id] = self.background.submit(
            work,
            done=lambda _: self._composed(entry_id, ""),
            failed=lambda e: self._composed(entry_id, f"{e.message} {e.hint}".strip()),
            progressed=lambda value: self._statement_came(entry_id, value),
        )

    def cancel_composing(self, entry_id: str) -> None:
        """Stop composing; the document's own words come back."""
        if job := self._composing.pop(entry_id, None):
            job.cancel()
            self.quote_again(entry_id)

    def quote_again(self, entry_id: str) -> None:
        """Go back from a composed answer to the quoted one."""
        entry = self.entries.get(entry_id)
        if entry is not None and "quoted" in entry.body:
            self.change(
                entry.with_body(
                    quotes=entry.body["quoted"], origin="quoted", state="done", problem=""
                )
            )

    def _statement_came(self, entry_id: str, value: Quote | str) -> None:
        entry = self.entries.get(entry_id)
        if entry is None or entry_id not in self._composing:
            return
        if isinstance(value, str):
            self.change(entry.with_body(model=value))
        else:
            self.change(entry.with_body(quotes=[*entry.body["quotes"], quote_body(value)]))

    def _composed(self, entry_id: str, problem: str) -> None:
        self._composing.pop(entry_id, None)
        entry = self.entries.get(entry_id)
        if entry is None:
            return
        if problem or not entry.body["quotes"]:
            said = problem or "The writing model finds no answer in the excerpts."
            self.quote_again(entry_id)
            self.change(self.entries[entry_id].with_body(problem=said))
        else:
            self.change(entry.with_body(state="done", problem=""))

    def find_worth(self, kind: str = "") -> None:
        """Look for questions worth asking, for a document of a kind; found where empty."""
        if self.session is not None and self.is_ready:
            self.background.watch(
                self.session.worth(kind), done=lambda found: self.worth_found.emit(*found)
            )

    def find(self, wanted: str, *, whole_words: bool = False, exactly: bool = False) -> None:
        """Find words; found tells the hits together with the words."""
        if self.session is None:
            return
        self.background.watch(
            self.session.find(wanted, whole_words=whole_words, exactly=exactly),
            done=lambda hits: self.found.emit(wanted, hits),
            failed=self.problem.emit,
        )

    def explain(self, anchor: Anchor) -> None:
        """Explain a selection; the explanation arrives as an entry."""
        if self.session is None:
            return

        def keep(explanation: Explanation) -> None:
            self.add(new_entry("explanation", anchor, explanation_body(explanation)))

        self.background.watch(
            self.session.explain(anchor.quote), done=keep, failed=self.problem.emit
        )

    # --- translating

    def translate(self, anchor: Anchor) -> None:
        """Translate a selection into the remembered language; pairs arrive in an entry."""
        sentences = [anchor.quote[a:b] for a, b in split_sentences(anchor.quote.replace("\n", " "))]
        body = {"language": self.target_language, "pairs": [[s, "", []] for s in sentences],
                "model": "", "state": "waiting"}  # fmt: skip
        entry = new_entry("translation", anchor, body)
        self.add(entry)
        self.run_translation(entry.id)

    @property
    def target_language(self) -> str:
        """The language translations start in: the last one chosen, else the desktop's."""
        if self.settings.language:
            return self.settings.language
        desktop = (locale.getlocale()[0] or "en")[:2].lower()
        source = self.summary.language if self.summary else "en"
        if desktop in LANGUAGES and desktop != source:
            return desktop
        return "de" if source == "en" else "en"

    def choose_language(self, entry_id: str, code: str) -> None:
        """Translate an entry again into another language, which is remembered."""
        self.keep_settings(replace(self.settings, language=code))
        entry = self.entries.get(entry_id)
        if entry is None:
            return
        pairs = [[source, "", []] for source, *_ in entry.body["pairs"]]
        self.change(entry.with_body(language=code, pairs=pairs, state="waiting", problem=""))
        self.run_translation(entry_id)

    def run_translation(self, entry_id: str) -> None:
        """Send an entry's sentences to the writing model."""
        entry = self.entries[entry_id]
        if running := self._translating.pop(entry_id, None):
            running.cancel()
        if not self.settings.model_address:
            problem = (
                "No writing model is connected. Put its address under [writing_model] in"
                " settings.toml, or start with --model ADDRESS."
            )
            self.change(entry.with_body(state="failed", problem=problem))
            return
        sentences = [pair[0] for pair in entry.body["pairs"]]
        language = entry.body["language"]
        self.change(entry.with_body(state="running", problem=""))

        def work(token: CancelToken, report: Report) -> None:
            model = self._model()
            report(("model", model.name))
            translate(sentences, language, model, token, lambda row, pair: report((row, pair)))

        self._translating[entry_id] = self.background.submit(
            work,
            done=lambda _: self._translation_ended(entry_id, "done", ""),
            failed=lambda e: self._translation_ended(entry_id, "failed", f"{e.message} {e.hint}"),
            progressed=lambda value: self._translation_moved(entry_id, value),
        )

    def cancel_translation(self, entry_id: str) -> None:
        """Stop a translation; the pairs that are there stay."""
        if job := self._translating.pop(entry_id, None):
            job.cancel()
            self._translation_ended(entry_id, "failed", "Cancelled.")

    def _model(self) -> WritingModel:
        address, name = self.settings.model_address, self.settings.model_name
        found = WritingModel(address, name) if name else first_model(address)
        return replace(found, key=model_key(address))

    def _translation_moved(self, entry_id: str, value: tuple[Any, Any]) -> None:
        entry = self.entries.get(entry_id)
        if entry is None:
            return
        row, what = value
        if row == "model":
            self.change(entry.with_body(model=what))
        elif isinstance(what, Pair):
            pairs = [list(pair) for pair in entry.body["pairs"]]
            pairs[row] = [what.source, what.target, list(what.doubts)]
            self.change(entry.with_body(pairs=pairs))

    def _translation_ended(self, entry_id: str, state: str, problem: str) -> None:
        self._translating.pop(entry_id, None)
        if entry := self.entries.get(entry_id):
            self.change(entry.with_body(state=state, problem=problem.strip()))

    # --- entries

    def add(self, entry: Entry) -> bool:
        """Keep an entry: on disk first, then on screen. Whether it was saved."""
        if not self._saved(entry):
            return False
        self._tell("added", entry)
        return True

    def change(self, entry: Entry) -> None:
        """Keep a changed entry."""
        if entry.id in self.entries and self._saved(entry):
            self._tell("changed", entry)

    def remove(self, entry_id: str) -> None:
        """Delete an entry; undo brings it back."""
        if entry_id in self.entries:
            self.undo.push(_Removal(self, self.entries[entry_id]))

    def tell_removed(self, entry_id: str) -> None:
        """An entry was deleted from the store."""
        self.entries.pop(entry_id, None)
        self.entry_removed.emit(entry_id)
        if self.record is not None:
            self.hub.changed.emit(self, self.record.id, "removed", entry_id)

    def tell_restored(self, entry: Entry) -> None:
        """A deleted entry is back in the store."""
        self._tell("added", entry)

    def _tell(self, what: str, entry: Entry) -> None:
        self._take(what, entry)
        if self.record is not None:
            self.hub.changed.emit(self, self.record.id, what, entry)

    def _take(self, what: str, entry: Entry) -> None:
        self.entries[entry.id] = entry
        (self.entry_added if what == "added" else self.entry_changed).emit(entry)

    def _elsewhere(
        self, who: "Reader", record: int, what: str, value: Entry | Outline | str
    ) -> None:
        """Another window changed an entry or the outline of the same document."""
        if who is self or self.record is None or self.record.id != record:
            return
        if isinstance(value, Outline):
            self.outline.show(value)
        elif isinstance(value, str):
            self.entries.pop(value, None)
            self.entry_removed.emit(value)
        else:
            self._take(what, value)

    def _saved(self, entry: Entry) -> bool:
        if self.record is None:
            return False
        try:
            self.store.put(self.record.id, entry)
        except WideMarginError as error:
            self.problem.emit(error)
            return False
        return True

    def _keep_answer(self, answer: Answer, here: Anchor, earlier: Entry | None) -> None:
        anchor = here
        if answer.quotes:
            locator = answer.quotes[0].locators[0]
            anchor = Anchor(locator.page, -1.0, locator.spans, answer.quotes[0].text)
        entry = new_entry("question", anchor, answer_body(answer))
        if earlier is not None:
            before = {"id": earlier.id, "question": earlier.body["question"]}
            entry = entry.with_body(before=before)
        if self.add(entry):
            self.answered.emit(entry)

    # --- opening and reading

    def _opened(self, facts: FileFacts) -> None:
        assert self.session is not None
        self.facts = facts
        self.opened.emit(facts)
        if not facts.is_sized:
            self.background.watch(self.session.sizes(), done=self._sized)
        self.background.watch(
            self.session.fingerprint(), done=self._recorded, failed=self.problem.emit
        )

    def _sized(self, sizes: FloatArray) -> None:
        if self.facts is not None and len(sizes) == self.facts.n_pages:
            self.facts = replace(self.facts, sizes=sizes, is_sized=True)
            self.sized.emit(self.facts)

    def _recorded(self, sha256: str) -> None:
        """The file is known: its entries can be shown, and it can be read."""
        if self.facts is None or self.path is None:
            return
        try:
            title = self.facts.title or self.path.stem
            self.record = self.store.record_for(sha256, self.path, self.facts.identity, title)
            self.entries = {entry.id: entry for entry in self.store.entries(self.record.id)}
        except WideMarginError as error:
            self.problem.emit(error)
        self._sha256 = sha256
        self._watcher.addPath(str(self.path))
        self.recorded.emit()
        self.read()

    # --- the file on disk

    def read_again(self) -> None:
        """Read the file anew, in place."""
        if self.path is None:
            return
        path, password = self.path, self._password
        self.close_document()
        self.open(path, password)

    def _file_touched(self, path: str) -> None:
        self._settled.start()  # whoever writes it may not have finished

    def _look_again(self) -> None:
        if self.path is None or self.session is None:
            return
        if not self.path.exists():
            return
        self._watcher.addPath(str(self.path))
        self.background.watch(self.session.fingerprint(), done=self._compare)

    def _compare(self, sha256: str) -> None:
        if self._sha256 and sha256 != self._sha256:
            self.file_changed.emit()

    def _anchor_again(self) -> None:
        """After a new version: find the passages of entries by their words."""
        assert self.session is not None
        for entry in list(self.entries.values()):
            words = " ".join(entry.anchor.quote.split())[:160]
            if words:
                self.background.watch(
                    self.session.find(words), done=partial(self._anchored, entry.id)
                )

    def _anchored(self, entry_id: str, hits: list[FoundHit]) -> None:
        entry = self.entries.get(entry_id)
        if entry is None:
            return
        if not hits:
            self.change(replace(entry.with_body(lost=True), anchor=replace(entry.anchor, spans=())))
            return
        hit = min(hits, key=lambda h: abs(h.page - entry.anchor.page))
        anchor = replace(entry.anchor, page=hit.page, spans=hit.spans, y=-1.0)
        self.change(replace(entry.with_body(lost=False), anchor=anchor))

    def _not_opened(self, error: WideMarginError) -> None:
        if isinstance(error, PasswordNeededError):
            self.password_needed.emit(error.message)
        else:
            self.failed.emit(error)

    def _ready(self, summary: ReadSummary) -> None:
        self.summary = self.outline.take_in(summary)
        self.ready.emit(self.summary)
        if not any(entry.kind == "question" for entry in self.entries.values()):
            self.find_worth()
        if self.record is not None and self.record.is_new_version:
            self._anchor_again()

    def _tell_progress(self, done: int, total: int) -> None:
        # Two workers count at once: never go back; and ten times a second is often enough.
        now = time.monotonic()
        if done > self._n_pages_told and (done == total or now - self._told_at > 0.1):
            self._n_pages_told, self._told_at = done, now
            self.read_progress.emit(done, total)


class _Removal(QUndoCommand):
    """Deleting an entry, undone by bringing it back."""

    def __init__(self, reader: Reader, entry: Entry) -> None:
        super().__init__(f"Delete {entry.kind}")
        self._reader, self._entry = reader, entry

    def redo(self) -> None:
        reader = self._reader
        try:
            reader.store.delete(self._entry.id)
        except WideMarginError as error:
            reader.problem.emit(error)
            return
        self._entry = reader.entries.get(self._entry.id, self._entry)
        reader.tell_removed(self._entry.id)

    def undo(self) -> None:
        reader = self._reader
        try:
            reader.store.restore(self._entry.id)
        except WideMarginError as error:
            reader.problem.emit(error)
            return
        reader.tell_restored(self._entry)
