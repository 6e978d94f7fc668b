"""Questions asked while the document was being read, answered anew once all of it is."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject

from wide_margin.core.margin import Anchor, Origin, QuestionBody

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.reader import Reader


class EarlyAnswers(QObject):
    """Keeps which answers are of the pages read so far, and takes better ones in their place."""

    def __init__(self, reader: Reader) -> None:
        super().__init__(reader)
        self._reader = reader
        self._ids: list[str] = []
        reader.ready.connect(lambda _: self._ask_again())
        reader.opened.connect(lambda _: self._ids.clear())

    def note(self, entry_id: str) -> None:
        """An answer was given before all pages were read."""
        self._ids.append(entry_id)
        if self._reader.is_ready:  # the rest was read while it was on its way
            self._ask_again()

    def _ask_again(self) -> None:
        session, ids = self._reader.session, self._ids
        self._ids = []
        for entry_id in ids:
            entry = self._reader.keeper.latest(entry_id)
            if session is None or entry is None or not isinstance(entry.body, QuestionBody):
                continue
            body = entry.body
            before = body.before.question if body.before else None

            def take(answer: Answer, entry_id: str = entry_id) -> None:
                self._take(entry_id, answer)

            self._reader.watch(session.ask(body.question, body.reach, before), done=take)

    def _take(self, entry_id: str, answer: Answer) -> None:
        """Put the answer of the whole document in place of the early one, and say so."""
        entry = self._reader.keeper.latest(entry_id)
        if entry is None or not isinstance(entry.body, QuestionBody):
            return
        if entry.body.origin is not Origin.QUOTED or entry.body.quoted is not None:
            return  # a model has composed from it meanwhile
        now = QuestionBody.of(answer, entry.body.before)
        is_other = [q.text for q in now.quotes] != [q.text for q in entry.body.quotes]
        self._reader.keeper.change(_with(entry, now))
        if is_other:
            said = f"Now that all pages are read, “{entry.body.question[:80]}” is answered anew."
            self._reader.told.emit(said)


def _with(entry: Entry, body: QuestionBody) -> Entry:

    anchor = entry.anchor
    if body.quotes:
        place = body.quotes[0].locators[0]
        anchor = Anchor(place.page, -1.0, place.spans, body.quotes[0].text)
    return replace(entry.with_body(), body=body, anchor=anchor)
