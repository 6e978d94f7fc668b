"""What a writing model writes into entries: composed answers."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QObject

from wide_margin.core.answers import (
    MOST_TERMS,
    Helped,
    Parts,
    budget_of,
    compose,
    find_helped,
    parts_of,
    request_for,
    vocabulary_of,
)
from wide_margin.core.margin import MAX_KEPT_EXCERPTS, Origin, QuestionBody, State
from wide_margin.core.search.analysis import Analyser
from wide_margin.core.services import WritingModel
from wide_margin.core.services.keys import model_key
from wide_margin.core.services.writing_model import first_model, is_on_this_machine

if TYPE_CHECKING:
    from wide_margin.core.answers import Budget, Excerpt, Quote
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.jobs import CancelToken
    from wide_margin.desktop.background import Job, Report
    from wide_margin.desktop.reader import Reader

NO_MODEL = (
    "No writing model is connected. Ask › Writing model… takes its address, or start with"
    " --model ADDRESS."
)

PATIENCE = 60.0
"""Seconds for the reading worker to answer another wording of a question."""
LEAST_WORDS = 200
"""Words that are sent at once at least, whatever is set."""


class ServiceWriter(QObject):
    """Jobs that fill an entry, one for each entry at most; what has come is kept at any end."""

    def __init__(self, reader: Reader) -> None:
        super().__init__(reader)
        self._reader = reader
        self._jobs: dict[str, Job] = {}

    @property
    def has_model(self) -> bool:
        """Whether a writing model is connected."""
        return bool(self._reader.settings.model_address)

    @property
    def may_send(self) -> bool:
        """Whether the model is on this machine, or sending to it was agreed to."""
        settings = self._reader.settings
        address = settings.model_address
        return is_on_this_machine(address) or address == settings.trusted_address

    def stop(self) -> None:
        """End every job, as closing the document does."""
        for job in self._jobs.values():
            job.cancel()
        self._jobs.clear()

    def _stop(self, entry_id: str) -> bool:
        job = self._jobs.pop(entry_id, None)
        if job is not None:
            job.cancel()
        return job is not None

    def _start(
        self,
        entry_id: str,
        work: Callable[[CancelToken, Report], Any],
        came: Callable[[str, Any], None],
        ended: Callable[[str, str], None],
    ) -> None:
        def over(problem: str) -> None:
            if self._jobs.pop(entry_id, None) is not None:
                ended(entry_id, problem)

        def arrived(value: Any) -> None:
            if entry_id in self._jobs:
                came(entry_id, value)

        self._jobs[entry_id] = self._reader.background.submit(
            work, done=lambda _: over(""), failed=lambda error: over(_said(error)),
            progressed=arrived,
        )  # fmt: skip

    def _model(self, token: CancelToken) -> WritingModel:
        settings = self._reader.settings
        key = model_key(settings.model_address)
        if settings.model_name:
            return WritingModel(settings.model_address, settings.model_name, key)
        return first_model(settings.model_address, key, token)


def _said(error: WideMarginError) -> str:
    return f"{error.message} {error.hint}".strip()


class Composer(ServiceWriter):
    """Composes answers from the excerpts that are kept."""

    def budget(self, entry_id: str) -> Budget:
        """What composing an answer would send, and to where."""
        body = self._body(entry_id)
        assert body is not None
        messages = request_for(_asked(body), body.kept)
        settings = self._reader.settings
        n_parts = len(parts_of(body.kept, max(settings.model_words, LEAST_WORDS)))
        n_finding = self._parts(body).n_words(body.excerpts)
        return budget_of(messages, len(body.kept), settings.model_address, n_parts, n_finding)

    def _parts(self, body: QuestionBody) -> Parts:
        """What the model does in finding: nothing where it has, or where the reader chose."""
        if body.struck or body.reach.kind == "kept" or body.n_sent:
            return Parts(restates=False, embeds=False, judges=False)
        return Parts.wanted(self._reader.settings, body.kind)

    def compose(self, entry_id: str, *, freely: bool = False, with_general: bool = False) -> None:
        """Have the writing model compose an answer from the excerpts that are kept.

        Args:
            entry_id: The question's entry.
            freely: In its own words, instead of close to the excerpts'.
            with_general: Whether general knowledge may be added, which is marked as such.
        """
        body = self._body(entry_id)
        if body is None or not body.kept or not self.has_model:
            return
        self.cancel(entry_id)
        body = self._body(entry_id) or body
        quoted = body.quoted if body.quoted is not None else body.quotes
        self._reader.keeper.change_body(
            entry_id, quoted=quoted, quotes=(), origin=Origin.COMPOSED, state=State.RUNNING,
            is_free=freely, problem="",
        )  # fmt: skip
        text, n_words = _asked(body), self.budget(entry_id).n_words
        summary = self._reader.summary
        language = summary.language if summary else "en"
        part_words = max(self._reader.settings.model_words, LEAST_WORDS)

        def work(token: CancelToken, report: Report) -> None:
            model = self._model(token)
            report(model.name)
            found = self._found(body, model, token, report)
            if not found:
                return
            report(n_words)

            def on_part(k: int, n: int) -> None:
                if n > 1:
                    report(f"{model.name}, part {k} of {n}")

            compose(
                text,
                found,
                model,
                token,
                on_statement=report,
                freely=freely,
                with_general=with_general,
                analyser=Analyser(language),
                part_words=part_words,
                on_part=on_part,
            )
            report(model.name)

        self._start(entry_id, work, self._came, self._ended)

    def _found(
        self, body: QuestionBody, model: WritingModel, token: CancelToken, report: Report
    ) -> tuple[Excerpt, ...]:
        """What to compose from: with the model's help in finding, where that is wanted.

        None where the document seemed not to say, and the model finds nothing either.
        """
        parts, reader = self._parts(body), self._reader
        session, summary = reader.session, reader.summary
        if not parts.any or session is None or summary is None:
            return body.kept
        before = body.before.question if body.before else None
        terms: tuple[str, ...] = session.query("terms", MOST_TERMS).result(PATIENCE)
        helped = find_helped(
            _asked(body), body.excerpts,
            lambda wording: session.ask(wording, body.reach, before).result(PATIENCE).excerpts,
            vocabulary_of(summary.outline, terms, body.excerpts), model, token, parts,
        )  # fmt: skip
        report(helped)
        if not (body.quotes or body.quoted or helped.n_judged):
            return ()
        return helped.excerpts[:MAX_KEPT_EXCERPTS]

    def cancel(self, entry_id: str) -> None:
        """Stop composing; the document's own words come back."""
        if self._stop(entry_id):
            self.quote_again(entry_id)

    def quote_again(self, entry_id: str, problem: str = "") -> None:
        """Go back from a composed answer to the quoted one."""
        body = self._body(entry_id)
        if body is not None and body.quoted is not None:
            self._reader.keeper.change_body(
                entry_id, quotes=body.quoted, quoted=None, origin=Origin.QUOTED, state=State.DONE,
                model="", problem=problem,
            )  # fmt: skip

    def _came(self, entry_id: str, value: Quote | Helped | int | str) -> None:
        body = self._body(entry_id)
        if body is None:
            return
        if isinstance(value, str):
            self._reader.keeper.change_body(entry_id, model=value)
        elif isinstance(value, int):
            self._reader.keeper.change_body(entry_id, n_sent=body.n_sent + value)
        elif isinstance(value, Helped):
            self._reader.keeper.change_body(
                entry_id, excerpts=value.excerpts[:MAX_KEPT_EXCERPTS], restated=value.restated,
                n_judged=value.n_judged, n_sent=body.n_sent + value.n_words,
            )  # fmt: skip
        else:
            self._reader.keeper.change_body(entry_id, quotes=(*body.quotes, value))

    def _ended(self, entry_id: str, problem: str) -> None:
        body = self._body(entry_id)
        if body is None:
            return
        if problem or not body.quotes:
            said = problem or "The writing model finds no answer in the excerpts."
            self.quote_again(entry_id, said)
        else:
            self._reader.keeper.change_body(entry_id, state=State.DONE, problem="")

    def _body(self, entry_id: str) -> QuestionBody | None:
        entry = self._reader.keeper.latest(entry_id)
        return entry.body if entry is not None and isinstance(entry.body, QuestionBody) else None


def _asked(body: QuestionBody) -> str:
    """The question with the one it leans on."""
    return f"{body.before.question} {body.question}" if body.before else body.question
