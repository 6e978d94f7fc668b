"""What the document says of the selected words, and how their sentences are built."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtWidgets import QMenu, QPushButton

from wide_margin.core.explain.model import WHICH, Manner
from wide_margin.core.margin import ExplanationBody
from wide_margin.core.plain import counted
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.backed import Backed
from wide_margin.desktop.read_view.cards.card import Card, shortened
from wide_margin.desktop.words import WrappedWords, word_button

if TYPE_CHECKING:
    from wide_margin.core.explain import (
        Column,
        Leaning,
        Meaning,
        Measure,
        NounChain,
        Often,
        Part,
        Reference,
        StandsFor,
    )
    from wide_margin.core.services.dictionary import Sense
    from wide_margin.desktop.read_view.cards.card import Make

_KINDS = {
    "main": "says", "also": "and", "contrast": "but", "condition": "if", "exception": "unless",
    "concession": "although", "reason": "because", "purpose": "so that", "result": "so",
    "time": "when", "aside": "aside",
}  # fmt: skip
"""What is written before a part that no word ties on."""
SHORTER = 200
"""Characters of a passage around the selection that are shown."""


class ExplanationCard(Card):
    """Terms with their definitions, references with their places, sentences taken apart."""

    def fill(self) -> None:
        """Build it."""
        body = self.entry.body
        assert isinstance(body, ExplanationBody)
        self.head.setText("Explanation · from this document")
        if self.commands.has_model and body.text.strip():
            self.offer(self._otherwise())
        self._next = 0
        self._rows("", (partial(self._meaning, m, self._index()) for m in body.meanings))
        apart = [part for parts in body.parts for part in parts]
        self._rows("Taken apart, by rule", (partial(self._part, part) for part in apart))
        self._rows("", (partial(self._stands, found) for found in body.stands_for), sans=True)
        self._rows("", (partial(self._chain, chain) for chain in body.chains), sans=True)
        self._rows(
            "Refers to",
            (
                partial(self._reference, r, self._index() if r.locator else -1)
                for r in body.references
            ),
            sans=True,
        )
        self._rows(
            "Leans on", (partial(self._leaning, found, self._index()) for found in body.leans_on)
        )
        self._rows(
            "Taken up again", (partial(self._leaning, found, self._index()) for found in body.later)
        )
        if body.columns:
            named = f"{counted(body.n_rows, 'row')}, {counted(len(body.columns), 'column')}"
            self._rows(named, (partial(self._column, c) for c in body.columns), sans=True)
        self._rows(
            "Spoken of",
            (partial(self._leaning, found, self._index()) for found in body.spoken_of),
        )
        often = [body.often] if body.often else []
        self._rows("", (partial(self._often, o, self._index()) for o in often), sans=True)
        self._rows("", (partial(self._measure, m) for m in body.measures), sans=True)
        self._rows("From a dictionary", (partial(self._sense, s) for s in body.senses))
        self._show_plainly(body)
        if not self._labels and not body.manner:
            said = "The document says nothing else of these words, and no rule takes them apart."
            self.column.addWidget(WrappedWords(said, sans_font(-0.5)))

    def _otherwise(self) -> QPushButton:
        button = word_button("Plainly put ▾", "Have the writing model put it into other words")
        menu = QMenu(button)
        for manner in Manner:
            put = partial(self.commands.put_otherwise, self.entry.id, manner)
            menu.addAction(str(manner), put)
        button.setMenu(menu)
        return button

    def _show_plainly(self, body: ExplanationBody) -> None:
        """The passage in other words: composed, so in sans, each sentence with its bar."""
        if not body.manner:
            return
        under_way = " · being written" if body.state.is_under_way else ""
        by = f" · {body.model}" if body.model else ""
        said = f"Put {body.manner}{by}{under_way}"
        self.column.addWidget(WrappedWords(said, sans_font(-1.5), role="secondary"))
        for quote in body.plainly:
            self.column.addWidget(Backed(quote, self.colours))
        if body.problem:
            self.column.addWidget(WrappedWords(body.problem, sans_font(-1), role="secondary"))

    def _column(self, column: Column) -> Markup:
        unit = f" in {column.unit}" if column.unit else ""
        reach = f": {column.least} to {column.greatest}" if column.least else ""
        return Markup("<b>{}</b>{}{}").format(column.name or "(no head)", unit, reach)

    def _index(self) -> int:
        self._next += 1
        return self._next - 1

    def _rows(self, title: str, makes: Iterable[Make], *, sans: bool = False) -> None:
        for row, make in enumerate(makes):
            if title and not row:
                self.column.addWidget(WrappedWords(title, sans_font(-1.5), role="secondary"))
            self.column.addWidget(self.rich(sans_font(-0.5) if sans else serif_font(), make))

    def _meaning(self, meaning: Meaning, index: int) -> Markup:
        link, said = self.link(index, meaning.locator), shortened(meaning.text)
        if meaning.kind == "used":
            return Markup("<b>{}</b> is not defined here; first used: “{}” {}").format(
                meaning.term, said, link
            )
        if meaning.kind == "section":
            return Markup("<b>{}</b> has a section of its own: “{}” {}").format(
                meaning.term, said, link
            )
        if meaning.long_form:
            return Markup("<b>{}</b> — {}: “{}” {}").format(
                meaning.term, meaning.long_form, said, link
            )
        return Markup("<b>{}</b> — “{}” {}").format(meaning.term, said, link)

    def _often(self, often: Often, index: int) -> Markup:
        return Markup("{} {}").format(often.said, self.link(index, often.locator))

    def _part(self, part: Part) -> Markup:
        if part.kind == "main":
            return Markup("{}").format(part.text)
        tie = Markup('<span style="color:{}">{}</span>').format(
            self.colours.verdigris, part.tie.lower() or _KINDS[part.kind]
        )
        return Markup("&nbsp;&nbsp;· {} {}").format(tie, part.text)

    def _stands(self, found: StandsFor) -> Markup:
        named = Markup(" or ").join(Markup("<i>{}</i>").format(c) for c in found.candidates)
        perhaps = "" if len(found.candidates) == 1 else "perhaps "
        return Markup("“{}” stands for {}{}").format(found.word, perhaps, named)

    def _chain(self, chain: NounChain) -> Markup:
        parts = Markup("{}").format(WHICH).join(Markup("<i>{}</i>").format(p) for p in chain.parts)
        return Markup("“{}” is put together: {}").format(chain.text, parts)

    def _reference(self, reference: Reference, index: int) -> Markup:
        if reference.locator is None:
            return Markup("{}: not found in this document").format(reference.text)
        link = self.link(index, reference.locator)
        return Markup("{} → {} {}").format(reference.text, reference.title, link)

    def _leaning(self, found: Leaning, index: int) -> Markup:
        link, said = self.link(index, found.locator), shortened(found.text, SHORTER)
        about = Markup("<b>{}</b>: ").format(found.about) if found.about else ""
        return Markup("{}“{}” {}").format(about, said, link)

    def _sense(self, sense: Sense) -> Markup:
        lines = [line.strip() for line in sense.text.splitlines() if line.strip()]
        said = shortened(" ".join(lines), SHORTER)
        return Markup("{} <i>{}</i>").format(said, sense.title)

    def _measure(self, measure: Measure) -> Markup:
        return Markup("{} is {}").format(measure.written, measure.other)
