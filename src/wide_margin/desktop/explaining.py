"""Explanations in the margin: of a selection, by paragraphs, with what a dictionary says."""

from __future__ import annotations

import logging
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from wide_margin.core.answers import Reach
from wide_margin.core.margin import Anchor, EntryKind, ExplanationBody, new_entry
from wide_margin.core.services.dictionary import Dictionary

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.explain import Explanation, FigureExplanation
    from wide_margin.core.geometry import Box
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.margin import Entry
    from wide_margin.core.services.dictionary import Sense
    from wide_margin.core.session import ParagraphText
    from wide_margin.desktop.background import Report
    from wide_margin.desktop.reader import Reader

log = logging.getLogger(__name__)
MOST_PARAGRAPHS = 12
"""Paragraphs of a selection that are explained, each beside itself."""
LOOKED_UP = 3
"""A selection of so many words is looked up in a dictionary."""
MOST_SENSES = 3


class Explaining(QObject):
    """Has selections explained; each explanation arrives as an entry."""

    explained = Signal(object)  # Entry

    def __init__(self, reader: Reader) -> None:
        super().__init__(reader)
        self._reader = reader

    def explain(self, anchor: Anchor) -> None:
        """Explain a selection; of several paragraphs each by itself."""
        session = self._reader.session
        if session is None:
            return
        reach = Reach("selection", name="the selection", spans=anchor.spans)
        self._reader.watch(
            session.paragraphs(reach), done=lambda paragraphs: self._each(anchor, paragraphs)
        )

    def explain_region(self, anchor: Anchor, box: Box) -> None:
        """Explain the figure or table in a region of a page, else the text there."""
        session = self._reader.session
        if session is None:
            return

        def keep(told: FigureExplanation) -> None:
            place = told.locator
            where = Anchor(place.page, place.y, place.spans, told.caption)
            body = ExplanationBody.of_figure(told)
            self._reader.keeper.add(
                new_entry(EntryKind.EXPLANATION, where, body), self.explained.emit
            )

        def no_figure(error: WideMarginError) -> None:
            if anchor.quote.strip():
                self.explain(anchor)
            else:
                self._reader.problem.emit(error)

        wanted = anchor.page, box
        self._reader.watch(session.query("explain_figure", wanted), done=keep, failed=no_figure)

    def _each(self, anchor: Anchor, paragraphs: tuple[ParagraphText, ...]) -> None:
        """An explanation for each paragraph, beside it; for one, of just the selected words."""
        whole = [p for p in paragraphs if p.kind not in ("heading", "figure", "code", "row")]
        if len(whole) < 2:
            self._one(anchor)
            return
        for paragraph in whole[:MOST_PARAGRAPHS]:
            place = paragraph.locator
            quote = " ".join(paragraph.sentences)
            self._one(Anchor(place.page, place.y, place.spans, quote))

    def _one(self, anchor: Anchor) -> None:
        session = self._reader.session
        assert session is not None

        def keep(explanation: Explanation) -> None:
            body = ExplanationBody.of(explanation)
            self._reader.keeper.add(new_entry(EntryKind.EXPLANATION, anchor, body), kept)

        def kept(entry: Entry) -> None:
            self.explained.emit(entry)
            if len(anchor.quote.split()) <= LOOKED_UP:
                self._look_up(entry.id, anchor.quote)

        self._reader.watch(session.explain(anchor.quote, anchor.page), done=keep)

    def _look_up(self, entry_id: str, words: str) -> None:
        """Put beside an explanation what a dictionary says; without a service nothing is said."""
        address = self._reader.settings.dictionary_address
        if not address:
            return

        def work(token: CancelToken, report: Report) -> tuple[Sense, ...]:
            with Dictionary(address) as dictionary:
                return dictionary.define(words.strip(" .,;:!?()“”\"'"))[:MOST_SENSES]

        def found(senses: tuple[Sense, ...]) -> None:
            if senses:
                self._reader.keeper.change_body(entry_id, senses=senses)

        self._reader.background.submit(
            work, done=found, failed=lambda error: log.info("no dictionary: %s", error.message)
        )
