"""Translations in the margin: from the memory, a writing model, or word by word a dictionary."""

from __future__ import annotations

import locale
import threading
from collections.abc import Callable, Sequence
from contextlib import closing
from itertools import accumulate
from pathlib import Path
from typing import TYPE_CHECKING, Any

from wide_margin.core.errors import EntryStoreError, ServiceError, WideMarginError
from wide_margin.core.margin import Anchor, EntryKind, PlacedRow, State, TranslationBody, new_entry
from wide_margin.core.passages import split_sentences
from wide_margin.core.services.dictionary import Dictionary
from wide_margin.core.translate import (
    LANGUAGES,
    MEMORY,
    Kept,
    Memory,
    Pair,
    awaited,
    checked,
    from_memory,
    translate,
)
from wide_margin.core.translate.glosses import database_for, gloss_words
from wide_margin.desktop.service_writing import NO_MODEL, ServiceWriter

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.margin import Entry
    from wide_margin.core.session import ParagraphText
    from wide_margin.core.translate import TermRule
    from wide_margin.desktop.background import Report
    from wide_margin.desktop.reader import Reader

LEFT_AS_IT_IS = {"code", "formula", "figure", "number", "stamp"}
"""Kinds of paragraphs that stand facing themselves: there is nothing to translate in them."""


def _is_worded(paragraph: ParagraphText) -> bool:
    """Whether there is something to translate; rows of figures stand facing themselves."""
    return paragraph.kind not in LEFT_AS_IT_IS and any(
        not awaited(sentence).target for sentence in paragraph.sentences
    )


class Translator(ServiceWriter):
    """Translates passages sentence by sentence; what was corrected once is used again."""

    def __init__(self, reader: Reader) -> None:
        super().__init__(reader)
        self._changed = threading.Event()
        """Set once the last change of the memory is written, or could not be."""
        self._changed.set()

    @property
    def target(self) -> str:
        """The language translations start in: the last one chosen, else the desktop's."""
        settings = self._reader.settings
        if settings.language in LANGUAGES:
            return settings.language
        desktop = (locale.getlocale()[0] or "en")[:2].lower()
        if desktop in LANGUAGES and desktop != self._source:
            return desktop
        return "de" if self._source == "en" else "en"

    @property
    def _source(self) -> str:
        summary = self._reader.summary
        return summary.language if summary else "en"

    @property
    def _memory_path(self) -> Path | None:
        path = self._reader.store.path
        return path.parent / MEMORY if path is not None else None

    def translate(self, anchor: Anchor) -> None:
        """Translate a selection into the remembered language; pairs arrive in an entry."""
        text = anchor.quote.replace("\n", " ")
        pairs = tuple(awaited(text[a:b]) for a, b in split_sentences(text))
        body = TranslationBody(self.target, pairs)
        entry = new_entry(EntryKind.TRANSLATION, anchor, body)
        self._reader.keeper.add(entry, lambda added: self.run(added.id))

    def translate_facing(self, reach: Reach, show: Callable[[str], None]) -> None:
        """Translate a page, a section or more, paragraph by paragraph.

        What was begun before is gone on with. ``show`` is told the entry.
        """
        reader = self._reader
        session = reader.session
        if session is None:
            return

        def came(paragraphs: tuple[ParagraphText, ...]) -> None:
            whole = [p for p in paragraphs if _is_worded(p) and p.locator.spans]
            if not whole:
                reader.problem.emit(WideMarginError("There is no text to translate."))
                return
            if before := self._begun(whole[0].locator.spans, len(whole)):
                entry_id, begun = before
                show(entry_id)
                if begun.n_done < len(begun.pairs) and not begun.state.is_under_way:
                    self.run(entry_id)
                return
            pairs = [awaited(sentence) for p in whole for sentence in p.sentences]
            starts = [0, *accumulate(len(p.sentences) for p in whole)]
            placed = tuple(
                PlacedRow(at, p.locator, p.kind == "row")
                for at, p in zip(starts, whole, strict=False)
            )
            body = TranslationBody(
                self.target, tuple(pairs), paragraphs=placed, of=reach.name or "the whole"
            )
            first = whole[0].locator
            anchor = Anchor(first.page, first.y, first.spans, first.quote)

            def added(entry: Entry) -> None:
                show(entry.id)
                self.run(entry.id)

            reader.keeper.add(new_entry(EntryKind.TRANSLATION, anchor, body), added)

        reader.watch(session.paragraphs(reach), done=came)

    def _begun(
        self, first: tuple[SpanOnPage, ...], n_paragraphs: int
    ) -> tuple[str, TranslationBody] | None:
        """The translation of just these paragraphs into the language asked for."""
        for entry in self._reader.entries.values():
            body = entry.body
            if (
                isinstance(body, TranslationBody) and body.language == self.target
                and len(body.paragraphs) == n_paragraphs and body.paragraphs
                and body.paragraphs[0].place.spans == first
            ):  # fmt: skip
                return entry.id, body
        return None

    def choose_language(self, entry_id: str, code: str) -> None:
        """Translate an entry again into another language, which is remembered."""
        self._reader.change_settings(language=code)
        if body := self._body(entry_id):
            self._stop(entry_id)
            pairs = tuple(awaited(pair.source) for pair in body.pairs)
            self._reader.keeper.change_body(entry_id, language=code, pairs=pairs, problem="")
            self.run(entry_id)

    def run(self, entry_id: str) -> None:
        """Fill the pairs of an entry that have no translation yet.

        What the memory has comes from there; the rest is sent to the writing model, or glossed
        where none is connected.
        """
        body = self._body(entry_id)
        if body is None:
            return
        self._stop(entry_id)
        self._reader.keeper.change_body(entry_id, state=State.RUNNING, problem="")
        pairs, language, sha256 = body.pairs, body.language, self._reader.sha256
        changed = self._changed

        def work(token: CancelToken, report: Report) -> None:
            changed.wait()  # what was corrected just before is used already
            pairs_now, rules = self._remembered(pairs, language, sha256)
            for row, pair in enumerate(pairs_now):
                if pair != pairs[row]:
                    report((row, pair))
            rows = [row for row, pair in enumerate(pairs_now) if not pair.target]
            if rows and not self.has_model:
                self._gloss(pairs_now, rows, language, token, report)
            elif rows:
                model = self._model(token)
                report(("model", model.name))
                wanted = [pairs_now[row].source for row in rows]

                def tell(k: int, pair: Pair) -> None:
                    report((rows[k], pair._replace(near=pairs_now[rows[k]].near)))

                translate(wanted, language, model, token, tell, rules)

        self._start(entry_id, work, self._came, self._ended)

    def _remembered(
        self, pairs: Sequence[Pair], language: str, sha256: str
    ) -> tuple[Sequence[Pair], tuple[TermRule, ...]]:
        path = self._memory_path
        if path is None or not path.exists():
            return pairs, ()
        try:
            memory = Memory(path)
        except EntryStoreError:
            return pairs, ()  # a memory that cannot be read takes no translation away
        with closing(memory):
            rules = memory.terms(sha256, language)
            return from_memory(pairs, language, memory, rules), rules

    def _gloss(
        self,
        pairs: Sequence[Pair],
        rows: Sequence[int],
        language: str,
        token: CancelToken,
        report: Report,
    ) -> None:
        """Give word by word what a dictionary has; without one say that there is no model."""
        known: dict[str, str] = {}
        try:
            with Dictionary(self._reader.settings.dictionary_address) as dictionary:
                database = database_for(dictionary, self._source, language)
                if database is None:
                    raise WideMarginError(NO_MODEL)
                for row in rows:
                    source = pairs[row].source
                    found = gloss_words(source, self._source, database, dictionary, token, known)
                    said = " · ".join(f"{g.word}: {g.gloss}" for g in found if g.gloss)
                    report((row, pairs[row]._replace(target=said or "—", origin="glosses")))
        except ServiceError as error:
            raise WideMarginError(NO_MODEL) from error

    def correct(self, entry_id: str, row: int, text: str) -> None:
        """Put the reader's own words in place of a translation, and remember them."""
        body = self._body(entry_id)
        if body is None or not 0 <= row < len(body.pairs) or not text.strip():
            return
        pair = body.pairs[row]._replace(target=" ".join(text.split()), origin="corrected", near="")
        pairs = list(body.pairs)
        pairs[row] = checked(pair, body.language)
        self._reader.keeper.change_body(entry_id, pairs=tuple(pairs))
        kept = Kept(pair.source, pair.target, self._source, body.language)
        self._change_memory(lambda memory: memory.keep([kept]), lambda _: None)

    def _change_memory(
        self, change: Callable[[Memory], object], done: Callable[[object], None]
    ) -> None:
        """Change the memory off the UI thread, after the changes that were asked for before."""
        path, before = self._memory_path, self._changed
        changed = self._changed = threading.Event()

        def work(token: CancelToken, report: Report) -> None:
            before.wait()
            try:
                with closing(Memory(path)) as memory:
                    change(memory)
            finally:
                changed.set()

        self._reader.background.submit(work, done=done, failed=self._reader.problem.emit)

    def with_rules(self, language: str, show: Callable[[tuple[TermRule, ...]], None]) -> None:
        """How the document's terms are rendered in a language."""
        path, sha256 = self._memory_path, self._reader.sha256
        changed = self._changed

        def work(token: CancelToken, report: Report) -> tuple[TermRule, ...]:
            changed.wait()
            if path is None or not path.exists():
                return ()
            with closing(Memory(path)) as memory:
                return memory.terms(sha256, language)

        self._reader.background.submit(work, done=show, failed=self._reader.problem.emit)

    def keep_rules(self, language: str, rules: Sequence[TermRule]) -> None:
        """Render the document's terms so from now on, and others freely."""
        sha256 = self._reader.sha256
        self._change_memory(
            lambda memory: memory.set_terms(sha256, language, rules),
            lambda _: self._check_again(language, rules),
        )

    def _check_again(self, language: str, rules: Sequence[TermRule]) -> None:
        """Hold what is translated already against the terms, off the UI thread."""
        held = [
            (entry_id, body.pairs)
            for entry_id in self._reader.entries
            if (body := self._body(entry_id)) is not None
            and body.language == language and not body.state.is_under_way
        ]  # fmt: skip

        def work(token: CancelToken, report: Report) -> None:
            for entry_id, pairs in held:
                now = tuple(
                    checked(p, language, rules) if p.target and p.origin != "glosses" else p
                    for p in pairs
                )
                if now != pairs:
                    report((entry_id, pairs, now))

        def came(found: tuple[str, tuple[Pair, ...], tuple[Pair, ...]]) -> None:
            entry_id, before, now = found
            body = self._body(entry_id)
            if body is not None and body.pairs == before:  # else it was changed meanwhile
                self._reader.keeper.change_body(entry_id, pairs=now)

        self._reader.background.submit(
            work, done=lambda _: None, failed=self._reader.problem.emit, progressed=came
        )

    def cancel(self, entry_id: str) -> None:
        """Stop a translation; the pairs that are there stay."""
        if self._stop(entry_id):
            self._ended(entry_id, "Cancelled.")

    def _came(self, entry_id: str, value: tuple[Any, Any]) -> None:
        body = self._body(entry_id)
        if body is None:
            return
        row, what = value
        if isinstance(what, Pair):
            pairs = list(body.pairs)
            pairs[row] = what
            self._reader.keeper.change_body(entry_id, pairs=tuple(pairs))
        else:
            self._reader.keeper.change_body(entry_id, model=what)

    def _ended(self, entry_id: str, problem: str) -> None:
        state = State.FAILED if problem else State.DONE
        self._reader.keeper.change_body(entry_id, state=state, problem=problem)

    def _body(self, entry_id: str) -> TranslationBody | None:
        entry = self._reader.keeper.latest(entry_id)
        return entry.body if entry is not None and isinstance(entry.body, TranslationBody) else None
