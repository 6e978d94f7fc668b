"""Passages and the reader's own words, put otherwise by a writing model."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from wide_margin.core.margin import ExplanationBody, NoteBody, State
from wide_margin.core.search.analysis import Analyser
from wide_margin.desktop.service_writing import ServiceWriter

if TYPE_CHECKING:
    from wide_margin.core.explain.model import Manner
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.background import Report

MOST_DEFINITIONS = 6


class Rewriter(ServiceWriter):
    """Puts passages of explanations, and notes, in other words; undo brings a note back."""

    def n_words(self, entry_id: str, manner: Manner) -> int:
        """How many words would be sent."""
        entry = self._reader.keeper.latest(entry_id)
        if entry is None:
            return 0
        from wide_margin.core.explain.reworded import rewording_of  # once one is asked for

        messages = rewording_of(_passage(entry), manner, _definitions(entry))
        return sum(len(message["content"].split()) for message in messages)

    def put(self, entry_id: str, manner: Manner) -> None:
        """Have the passage of an explanation, or the text of a note, put otherwise."""
        entry = self._reader.keeper.latest(entry_id)
        if entry is None or not self.has_model or not _passage(entry).strip():
            return
        self._stop(entry_id)
        if isinstance(entry.body, ExplanationBody):
            self._reader.keeper.change_body(
                entry_id, manner=str(manner), plainly=(), state=State.RUNNING, problem=""
            )
        passage, definitions = _passage(entry), _definitions(entry)
        summary = self._reader.summary
        language = summary.language if summary else "en"

        def work(token: CancelToken, report: Report) -> None:
            from wide_margin.core.explain.reworded import reword

            model = self._model(token)
            report(model.name)
            report(
                reword(
                    passage, manner, model, token, definitions=definitions,
                    analyser=Analyser(language),
                )
            )  # fmt: skip

        self._start(entry_id, work, self._came, self._ended)

    def cancel(self, entry_id: str) -> None:
        """Stop; what was there before stays."""
        if self._stop(entry_id):
            self._ended(entry_id, "Stopped.")

    def _came(self, entry_id: str, value: Any) -> None:
        entry = self._reader.keeper.latest(entry_id)
        if entry is None:
            return
        if isinstance(entry.body, ExplanationBody):
            named = {"model": value} if isinstance(value, str) else {"plainly": value}
            self._reader.keeper.change_body(entry_id, **named)
        elif isinstance(entry.body, NoteBody) and not isinstance(value, str):
            text = " ".join(quote.text for quote in value)
            self._reader.keeper.change_all([entry.with_body(text=text)], "Reword")

    def _ended(self, entry_id: str, problem: str) -> None:
        entry = self._reader.keeper.latest(entry_id)
        if entry is not None and isinstance(entry.body, ExplanationBody):
            state = State.FAILED if problem else State.DONE
            self._reader.keeper.change_body(entry_id, state=state, problem=problem)
        elif problem:
            self._reader.told.emit(problem)


def _passage(entry: Entry) -> str:
    body = entry.body
    return body.text if isinstance(body, ExplanationBody | NoteBody) else ""


def _definitions(entry: Entry) -> Sequence[str]:
    """What the document says of the terms in a passage."""
    if not isinstance(entry.body, ExplanationBody):
        return ()
    return tuple(meaning.text for meaning in entry.body.meanings[:MOST_DEFINITIONS])
