"""What the reader does with a selection and with entries."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer
from PySide6.QtGui import QGuiApplication, QImage
from PySide6.QtWidgets import QFileDialog

from wide_margin.core.answers import Reach
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export import Source, Statement, answer_as, year_of
from wide_margin.core.export.entries import rows_of, table_as
from wide_margin.core.export.saving import save_whole
from wide_margin.core.layout import PageLabels, page_shown
from wide_margin.core.margin import (
    Anchor,
    CuttingBody,
    EntryKind,
    NoteBody,
    Origin,
    QuestionBody,
    TranslationBody,
    new_entry,
)
from wide_margin.core.plain import counted
from wide_margin.desktop.read_view.cards import EntryActions
from wide_margin.desktop.read_view.facing.commands import FacingCommands
from wide_margin.desktop.read_view.marking import LETTERS, Marking
from wide_margin.desktop.read_view.page_images import image_from, png_of
from wide_margin.desktop.read_view.page_painting import Laid
from wide_margin.desktop.words import agrees

if TYPE_CHECKING:
    from wide_margin.core.answers import Excerpt
    from wide_margin.core.document import Locator
    from wide_margin.core.explain import OwnWords
    from wide_margin.core.explain.model import Manner
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout import SpanOnPage
    from wide_margin.core.margin import Entry
    from wide_margin.core.pages import Picture
    from wide_margin.core.services.saved_requests import SavedRequest
    from wide_margin.desktop.read_view.read_view import ReadView

CUTTING_SCALE = 2.0
"""Pixels for each point of a cutting: sharp when enlarged a little, and small on disk."""
_NO_LABELS = PageLabels(())


class Commands(EntryActions):
    """The actions of cards, and those of a selection."""

    def __init__(self, view: ReadView) -> None:
        """Act in this view."""
        self._view, self._reader = view, view.reader
        self.marking = Marking(view)
        self._to_compose: list[str] = []
        """The questions whose answers are composed once they are here."""
        self.facing = FacingCommands(view)
        view.reader.answered.connect(self._compose_if_wanted)
        view.reader.problem.connect(self._compose_nothing)
        view.reader.opened.connect(self._compose_nothing)

    # --- what cards ask for

    def follow(self, entry_id: str, index: int) -> None:
        """Go where a locator leads and mark the very words."""
        self._view.held.follow(entry_id, index)

    def delete(self, entry_id: str) -> None:
        """Delete an entry; undo brings it back."""
        self._reader.keeper.remove(entry_id)

    def hold(self, entry_id: str) -> None:
        """Hold an answer at the top of the margin."""
        self._view.held.hold(entry_id)

    def let_go(self) -> None:
        """Return the held answer to its place."""
        self._view.held.let_go()

    def next_place(self) -> None:
        """Visit the next place of the held answer."""
        self._view.held.step(1)

    def ask(self, question: str) -> None:
        """Ask of what the ask line says; the text stays there until the answer is here."""
        view = self._view
        page, y = view.here()
        before = view.ask_line.before or None
        self._reader.ask(question, view.ask_line.reach, near=Anchor(page, y), before=before)

    def ask_composed(self, question: str, reach: Reach) -> None:
        """Ask of a reach, and have the answer composed from its excerpts once it is here."""
        page, y = self._view.here()
        self._to_compose.append(question)
        self._reader.ask(question, reach, near=Anchor(page, y))

    def compose_lines(self, question: str, kind: str, lines: list[Excerpt], reach: Reach) -> None:
        """Keep lines of the digest, and have a text composed from them."""
        self._to_compose.append(question)
        self._reader.keep_lines(question, kind, lines, reach)

    def _compose_if_wanted(self, entry: Entry) -> None:
        """Compose the answer that ask_composed waits for."""
        body = self._question(entry.id)
        if body is None or body.question not in self._to_compose:
            return
        self._to_compose.remove(body.question)
        if body.kept and self._reader.composer.has_model:
            self.compose(entry.id, freely=True)

    def _compose_nothing(self, *_: object) -> None:
        self._to_compose.clear()

    def run(self, requests: Sequence[SavedRequest]) -> None:
        """Ask saved requests, one after the other; each answer is an entry."""
        view = self._view
        if not self._reader.is_ready:
            view.show_status("The document is still being read; run it in a moment.", for_ms=6000)
            return
        page, y = view.here()
        asked = [(request, view.reaching.of_request(request.of)) for request in requests]
        if missing := [request for request, reach in asked if reach is None]:
            said = f"“{missing[0].name}” is asked of {missing[0].of}, and there is none now."
            view.show_status(f"{said} Nothing was asked.", for_ms=8000)
            return
        for request, reach in asked:
            assert reach is not None
            if request.composed and self._reader.composer.has_model:
                self.ask_composed(request.ask, reach)
            else:
                self._reader.ask(request.ask, reach, near=Anchor(page, y))

    def read_passage(self, locator: Locator) -> None:
        """Go to a sentence of the gist, and mark it."""
        self._view.go_to_passage(locator)

    def choose_kind(self, kind: str) -> None:
        """Look for questions worth asking of another kind of document."""
        self._reader.find_worth(kind)

    def ask_on(self, entry_id: str) -> None:
        """Let the next question lean on that of an entry."""
        if body := self._question(entry_id):
            self._view.ask_line.ask_on_from(entry_id, body.question)

    def reword(self, entry_id: str) -> None:
        """Put a question back into the ask line, to change its words, form or reach."""
        if body := self._question(entry_id):
            line, before = self._view.ask_line, body.before
            line.ask_on_from(before.id if before else "", before.question if before else "")
            line.field.setText(body.question)
            line.field.setFocus()

    def ask_from_kept(self, entry_id: str) -> None:
        """Ask again, of the excerpts alone that were not struck out."""
        body = self._question(entry_id)
        if body is None:
            return
        spans = tuple(span for excerpt in body.kept for span in excerpt.locator.spans)
        if not spans:
            self._view.show_status(
                "Every excerpt is struck out; keep one to ask again.", for_ms=8000
            )
            return
        page, y = self._view.here()
        reach = Reach("kept", name=counted(len(body.kept), "kept excerpt"), spans=spans)
        before = body.before.id if body.before else None
        self._reader.ask(body.question, reach, near=Anchor(page, y), before=before)

    def strike(self, entry_id: str, excerpt: int) -> None:
        """Strike an excerpt out, or take it back in."""
        self._reader.strike(entry_id, excerpt)

    def compose(self, entry_id: str, *, freely: bool = False) -> None:
        """Have an answer composed; what is sent is said, and agreed to if it leaves the machine."""
        view, composer = self._view, self._reader.composer
        if not self.may_send(composer.budget(entry_id).shown):
            return
        view.pages.lay("evidence", [])  # the words that were marked are not the new answer's
        general = view.ask_line.draws_on_general
        composer.compose(entry_id, freely=freely, with_general=general)

    def may_send(self, said: str) -> bool:
        """Say what is sent; it has to be agreed to once where it leaves the machine."""
        if not self._reader.composer.may_send:
            if not agrees(
                self._view, "Send excerpts?",
                f"{said[:1].upper()}{said[1:]}, will leave this machine.\n\n"
                "Send them there, now and in future?",
            ):  # fmt: skip
                return False
            address = self._reader.settings.model_address
            self._reader.change_settings(trusted_address=address)
        self._view.show_status(f"Sent: {said}.", for_ms=6000)
        return True

    @property
    def has_model(self) -> bool:
        """Whether a writing model is connected."""
        return self._reader.composer.has_model

    def put_otherwise(self, entry_id: str, manner: Manner) -> None:
        """Have the writing model put a passage, or the reader's own text, into other words."""
        n_words = self._reader.rewriter.n_words(entry_id, manner)
        address = self._reader.settings.model_address
        if self.may_send(f"one passage, about {n_words} words, to {address}"):
            self._reader.rewriter.put(entry_id, manner)

    def check_words(self, entry_id: str, text: str, show: Callable[[OwnWords], None]) -> None:
        """Hold the reader's own words against the passage, and look for slips."""
        entry, session = self._reader.keeper.latest(entry_id), self._reader.session
        if entry is not None and session is not None:
            self._reader.watch(session.query("own_words", text, entry.anchor.quote), done=show)

    def explain_cutting(self, entry_id: str) -> None:
        """Explain the figure or table that was cut out, else the text in the cutting."""
        entry = self._reader.keeper.latest(entry_id)
        if entry is not None and isinstance(entry.body, CuttingBody):
            self._reader.explaining.explain_region(entry.anchor, entry.body.box)

    def quote_again(self, entry_id: str) -> None:
        """Show the document's own words again."""
        self._reader.composer.quote_again(entry_id)

    def cancel(self, entry_id: str) -> None:
        """Stop what a service writes."""
        self._reader.composer.cancel(entry_id)
        self._reader.translator.cancel(entry_id)
        self._reader.rewriter.cancel(entry_id)

    def go_on(self, entry_id: str) -> None:
        """Try again, or go on where it broke off."""
        entry = self._reader.keeper.latest(entry_id)
        if entry is None:
            return
        if isinstance(entry.body, QuestionBody):
            self.compose(entry_id, freely=entry.body.is_free)
        else:
            self._reader.translator.run(entry_id)

    def choose_language(self, entry_id: str, code: str) -> None:
        """Translate into another language."""
        self._reader.translator.choose_language(entry_id, code)

    def correct_pair(self, entry_id: str, row: int, text: str) -> None:
        """Put the reader's words in place of a translation."""
        self._reader.translator.correct(entry_id, row, text)

    def save_text(self, entry_id: str, text: str) -> None:
        """Keep what was typed."""
        self._reader.keeper.change_body(entry_id, text=text)

    def want_picture(self, entry_id: str, excerpt: int, show: Callable[[QImage], None]) -> None:
        """Draw a small picture of where an excerpt stands."""
        view, session, body = self._view, self._reader.session, self._question(entry_id)
        if session is not None and body is not None:
            spans = body.excerpts[excerpt].locator.spans
            view.passages.want(session, spans, view.colours, show)

    def copy(self, entry_id: str, form: str) -> None:
        """Put an answer on the clipboard in one of the forms of ANSWER_FORMS."""
        body, facts = self._question(entry_id), self._reader.facts
        if body is None or facts is None:
            return
        source = Source(self._title(), facts.author, year_of(facts.created))
        is_quoted = body.origin is Origin.QUOTED
        statements = [
            Statement(quote.text, tuple(place.shown for place in quote.locators), is_quoted)
            for quote in body.quotes
        ]
        text = answer_as(form, body.question, statements, source)
        QGuiApplication.clipboard().setText(text)
        self._view.show_status("The answer is on the clipboard.", for_ms=4000)

    def show_facing(self, entry_id: str) -> None:
        """Show a translation facing the pages."""
        self._view.facing.show_entry(entry_id)

    def point_at_pair(self, entry_id: str, row: int) -> None:
        """Mark the source sentence of a pair on the page while the pointer is on it."""
        entry = self._reader.entries.get(entry_id)
        spans: tuple[SpanOnPage, ...] = ()
        if entry is not None and isinstance(entry.body, TranslationBody):
            pairs = entry.body.pairs
            if 0 <= row < len(pairs):
                spans = self._view.pages.part_of(entry.anchor.spans, pairs[row].source)
        self._view.pages.lay("evidence", [Laid(spans, "tint")] if spans else [])

    def _question(self, entry_id: str) -> QuestionBody | None:
        entry = self._reader.keeper.latest(entry_id)
        return entry.body if entry is not None and isinstance(entry.body, QuestionBody) else None

    # --- the selection

    def act(self, letter: str) -> None:
        """Explain, translate, ask, mark or note what is selected."""
        anchor = self.selected()
        if anchor is None:
            return
        view = self._view
        if letter == "E":
            self._reader.explaining.explain(anchor)
        elif letter == "T":
            self._reader.translator.translate(anchor)
        elif letter == "A":
            quote = " ".join(anchor.quote.split())
            short = quote if len(quote) <= 80 else quote[:80].rsplit(" ", 1)[0] + "…"
            view.ask_line.field.setText(f"“{short}” ")
            view.ask_line.field.setFocus()
            return
        elif letter in LETTERS:
            self.marking.act(letter, anchor)
        elif letter == "N":
            note = new_entry(EntryKind.NOTE, anchor, NoteBody())
            self._reader.keeper.add(note, self._edit)
        view.pages.clear_selection()

    def _edit(self, entry: Entry) -> None:
        QTimer.singleShot(0, self._view, lambda: self._view.margin.edit(entry.id))

    def selected(self) -> Anchor | None:
        """What is selected, None where nothing is."""
        pages = self._view.pages
        spans, text = pages.selected_spans(), pages.selected_text()
        if not spans or not text.strip():
            return None
        boxes = pages.boxes_in_view(spans)
        place = pages.place_at(boxes[0].top()) if boxes else None
        return Anchor(spans[0].page, place[1] if place else 0.0, spans, text)

    def cut(self, page: int, box: Box) -> None:
        """Keep a region of a page as a picture with the text beneath it."""
        session = self._reader.session
        layer = self._view.pages.images.layer(page)
        if session is None:
            return
        spans = layer.spans_in(box) if layer else ()
        words = layer.words_in(box) if layer else ""
        anchor = Anchor(page, box[1], spans, words)

        def keep(picture: Picture) -> None:
            body = CuttingBody(box=box, png=png_of(image_from(picture)))
            entry = new_entry(EntryKind.CUTTING, anchor, body)
            self._reader.keeper.add(entry, look_for_table)

        def look_for_table(entry: Entry) -> None:
            if spans:
                self._reader.watch(
                    session.cells(page, box), done=partial(self._keep_rows, entry.id)
                )

        self._reader.watch(session.draw(page, CUTTING_SCALE, box), done=keep)

    def _keep_rows(self, entry_id: str, rows: tuple[tuple[str, ...], ...]) -> None:
        if rows:
            self._reader.keeper.change_body(entry_id, rows=rows)

    def change_mark(self, entry_id: str, **values: object) -> None:
        """Give a mark another ink or form."""
        self.marking.change(entry_id, **values)

    def take_table(self, entry_id: str, *, to_file: bool) -> None:
        """Put the cells of a table that was cut out on the clipboard, or into a file."""
        entry = self._reader.keeper.latest(entry_id)
        rows = rows_of(entry) if entry is not None else ()
        if not to_file:
            QGuiApplication.clipboard().setText(table_as(rows, separator="\t"))
            self._view.show_status("The cells are on the clipboard.", for_ms=4000)
            return
        name, _ = QFileDialog.getSaveFileName(self._view, "Save the table", "", "Table (*.csv)")
        if name:
            try:
                save_whole(Path(name), table_as(rows).encode("utf-8-sig"))
            except WideMarginError as error:
                self._reader.problem.emit(error)

    def start_section(self) -> None:
        """A section of the reader's own at the selection, called by its words."""
        anchor = self.selected()
        if anchor is None or not self._reader.is_ready:
            return
        title = " ".join(anchor.quote.split())[:120]
        self._reader.outline.change(
            "Add section", lambda editor, outline: editor.add(outline, anchor.page, anchor.y, title)
        )
        self._view.show_status(f"The section “{title}” is in the outline.", for_ms=6000)

    def citation(self) -> str:
        """The selected words, with the document's title and their page."""
        pages, facts, summary = self._view.pages, self._reader.facts, self._reader.summary
        text, spans = pages.selected_text(), pages.selected_spans()
        if not spans or facts is None:
            return text
        labels = summary.labels if summary else _NO_LABELS
        first, last = spans[0].page, spans[-1].page
        place = page_shown(labels.of(first), first)
        if last != first:
            both = labels.of(first), labels.of(last)
            place = (
                f"pp. {both[0]}–{both[1]}" if all(both) else f"file pages {first + 1}–{last + 1}"
            )
        source = ", ".join(part for part in (facts.author, self._title(), place) if part)
        return f"“{' '.join(text.split())}” ({source})"

    def copy_with_citation(self) -> None:
        """Put the selected words and where they stand on the clipboard."""
        if self._view.pages.has_selection:
            QGuiApplication.clipboard().setText(self.citation())

    def _title(self) -> str:
        facts, path = self._reader.facts, self._reader.path
        return (facts.title if facts else "") or (path.stem if path else "")
