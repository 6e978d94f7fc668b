"""Having the document read aloud: sentence by sentence, marked on the page as it is said."""

from __future__ import annotations

import threading
from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from wide_margin.core.answers import WHOLE
from wide_margin.core.errors import ServiceError
from wide_margin.core.services.speech import FASTEST, SLOWEST, find_engine
from wide_margin.desktop.read_view.page_painting import Laid

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach
    from wide_margin.core.document.spoken import Spoken
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.services.speech import Engine
    from wide_margin.desktop.background import Job, Report
    from wide_margin.desktop.read_view.read_view import ReadView

STEP = 1.2
"""Faster and slower by so much at once."""


class Listening(QObject):
    """One sentence after the other, each a job of its own, so that every word acts at once."""

    changed = Signal()

    def __init__(self, view: ReadView) -> None:
        super().__init__(view)
        self._view, self._reader = view, view.reader
        self.sentences: Sequence[Spoken] = ()
        self.at = -1
        """The sentence that is said, or was when it was paused; -1 while nothing is read."""
        self.rate = 1.0
        self.is_paused = False
        self.find_engine = find_engine
        self._engine: Engine | None = None
        self._finding = threading.Lock()
        self._job: Job | None = None
        self._turn = 0
        self._reader.opened.connect(lambda _: self.stop())

    @property
    def is_on(self) -> bool:
        """Whether something is read aloud, or paused."""
        return self.at >= 0

    # --- what the reader does

    def from_here(self) -> None:
        """Read aloud from the selection, else from the place that is read, to the end."""
        if not self._reader.is_ready or self._reader.session is None:
            self._say("The document is still being read; listen in a moment.")
            return
        spans = self._view.pages.selected_spans()
        page, y = self._view.here()
        place = (spans[0].page, -1.0, spans[0].start) if spans else (page, y, -1)
        self._begin(WHOLE, place)

    def reach(self, reach: Reach) -> None:
        """Read a section or the selection aloud."""
        self._begin(reach, None)

    def section(self) -> None:
        """Read the section aloud that is being read."""
        if reach := self._view.reaching.section_here():
            self.reach(reach)

    def _begin(self, reach: Reach, place: tuple[int, float, int] | None) -> None:
        session = self._reader.session
        if session is None:
            return
        self.stop()

        def found(sentences: tuple[Spoken, ...]) -> None:
            if not sentences:
                self._say("There is nothing to be read aloud there.")
                return
            self.sentences = sentences
            self._play(_first_at(sentences, place) if place is not None else 0)

        self._reader.watch(session.query("spoken", reach), done=found)

    def pause(self) -> None:
        """Pause, or go on with the same sentence."""
        if not self.is_on:
            self.from_here()
        elif self.is_paused:
            self._play(self.at)
        else:
            self._silence()
            self.is_paused = True
            self._tell()

    def step(self, by: int) -> None:
        """Go back a sentence, or on."""
        if self.is_on:
            self._play(min(max(self.at + by, 0), len(self.sentences) - 1))

    def next_paragraph(self) -> None:
        """Go on with the next paragraph."""
        if not self.is_on:
            return
        now = self.sentences[self.at].paragraph
        after = (k for k in range(self.at + 1, len(self.sentences))
                 if self.sentences[k].paragraph != now)  # fmt: skip
        self._play(next(after, len(self.sentences) - 1))

    def faster(self, steps: int) -> None:
        """Say it faster, or slower for a negative number."""
        self.rate = min(max(self.rate * STEP**steps, SLOWEST), FASTEST)
        if self.is_on and not self.is_paused:
            self._play(self.at)
        else:
            self._say(f"Read aloud {self.rate:.1f} times as fast as usual.")

    def stop(self) -> None:
        """Be silent."""
        self._silence()
        was_on, self.at, self.is_paused = self.is_on, -1, False
        self.sentences = ()
        if self._engine is not None:
            self._engine.close()
            self._engine = None
        if was_on:
            self._view.pages.lay("evidence", [])
            self._view.show_status("")
        self.changed.emit()

    # --- saying

    def _silence(self) -> None:
        self._turn += 1
        if self._job is not None:
            self._job.cancel()
            self._job = None

    def _play(self, at: int) -> None:
        """Say a sentence, and the one after it once it has been said."""
        self._silence()
        self.at, self.is_paused = at, False
        sentence, turn, rate = self.sentences[at], self._turn, self.rate
        summary = self._reader.summary
        language = summary.language if summary else "en"
        self._view.pages.lay("evidence", [Laid(sentence.locator.spans, "tint", bar=True)])
        self._view.pages.reveal(sentence.locator.spans)
        self._tell()

        def work(token: CancelToken, report: Report) -> None:
            self._engine_for(token).say(sentence.text, language, rate, token)

        self._job = self._reader.background.submit(
            work, done=lambda _: self._said(turn), failed=lambda error: self._failed(turn, error)
        )

    def _engine_for(self, token: CancelToken) -> Engine:
        """The engine, found when it is first needed; jobs that overlap share one."""
        with self._finding:
            token.check()
            engine = self._engine or self.find_engine()
            self._engine = engine
            if self.at < 0:  # it was stopped while the engine was found
                engine.close()
                self._engine = None
                token.check()
            return engine

    def _said(self, turn: int) -> None:
        if turn != self._turn:
            return
        if self.at + 1 < len(self.sentences):
            self._play(self.at + 1)
        else:
            self.stop()
            self._say("Read to the end.")

    def _failed(self, turn: int, error: WideMarginError) -> None:
        if turn != self._turn:
            return
        engine, self._engine = self._engine, None
        if engine is not None and isinstance(error, ServiceError) and not self.is_paused:
            engine.close()
        self.stop()
        self._say(f"{error.message} {error.hint}")

    def _tell(self) -> None:
        path = self.sentences[self.at].locator.path
        where = path[-1] if path else self.sentences[self.at].locator.shown
        said = f"{'Paused' if self.is_paused else 'Reading aloud'}: {where}"
        self._view.show_status(said, act=("Go on" if self.is_paused else "Pause", self.pause))
        self.changed.emit()

    def _say(self, text: str) -> None:
        self._view.show_status(text, for_ms=9000)


def _first_at(sentences: Sequence[Spoken], place: tuple[int, float, int]) -> int:
    """The first sentence at a place, or after it: (page, y or -1, first character or -1)."""
    page, y, start = place
    for k, sentence in enumerate(sentences):
        locator = sentence.locator
        if locator.page > page:
            return k
        if locator.page == page:
            ends = [span.end for span in locator.spans if span.page == page]
            if start >= 0 and ends and max(ends) > start:
                return k
            if start < 0 and locator.y >= y - 2:
                return k
    return len(sentences) - 1
