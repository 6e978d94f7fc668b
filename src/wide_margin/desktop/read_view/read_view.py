"""The Read view: puts pages, spine, contents, margin and ask line together."""

from collections.abc import Sequence
from dataclasses import replace
from functools import partial
from typing import Any

from PySide6.QtCore import QPoint, Qt, QTimer, QUrl, Signal
from PySide6.QtGui import QDesktopServices, QGuiApplication, QImage, QResizeEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QInputDialog,
    QLabel,
    QMenu,
    QMessageBox,
    QSplitter,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.answers import Figure, Reach, figure_reach, pages_reach
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export import Source, Statement, answer_as, year_of
from wide_margin.core.geometry import Box
from wide_margin.core.layout import PageLabels, SpanOnPage
from wide_margin.core.margin import Anchor, Entry, new_entry
from wide_margin.core.outline import Outline
from wide_margin.core.pages import FileFacts, Link, Picture
from wide_margin.core.session import FoundHit, Place, ReadSummary, read_place
from wide_margin.desktop.bodies import headline, kept_excerpts, places_in, spans_of
from wide_margin.desktop.look import DAY, Colours
from wide_margin.desktop.read_view.ask_line import AskLine
from wide_margin.desktop.read_view.contents_panel import (
    PICTURE_WIDTH,
    ContentsPanel,
    Row,
)
from wide_margin.desktop.read_view.history import History
from wide_margin.desktop.read_view.leaders import Leader, Leaders
from wide_margin.desktop.read_view.margin_column import MarginColumn
from wide_margin.desktop.read_view.message import Message
from wide_margin.desktop.read_view.page_images import image_from, png_of
from wide_margin.desktop.read_view.pages_view import Laid, PagesView
from wide_margin.desktop.read_view.passage_pictures import PassagePictures
from wide_margin.desktop.read_view.place_line import PlaceLine
from wide_margin.desktop.read_view.preview import PREVIEW_SCALE, Preview
from wide_margin.desktop.read_view.selection_tab import COMMANDS, SelectionTab
from wide_margin.desktop.read_view.spine import Spine
from wide_margin.desktop.reader import Reader

FIND_DELAY_MS = 150
MAX_LISTED = 1000
CUTTING_SCALE = 2.0
"""Pixels for each point of a cutting: sharp when enlarged a little, and small on disk."""
_NO_OUTLINE, _NO_LABELS = Outline(), PageLabels(())


class ReadView(QWidget):
    """Everything of reading one document. ``reader`` does the work; this shows it."""

    asked_for_file = Signal()

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self.history = History()
        self._hits: list[FoundHit] = []
        self._hit = -1
        self._wanted = ""
        self._whole_words = self._exactly = False
        self._n_figures_drawn = 0
        self._passages = PassagePictures(reader.background, self)
        self._held_places: list[dict[str, Any]] = []
        self._held_at = -1
        self._section = -1
        self._start_place: str | None = None
        self._build()
        self._connect()

    # --- building

    def _build(self) -> None:
        self.place_line = PlaceLine()
        self.spine = Spine()
        self.contents = ContentsPanel()
        self.pages = PagesView(self.reader.background)
        self.margin = MarginColumn()
        self.ask_line = AskLine()
        self.tab = SelectionTab(self)
        self.leaders = Leaders(self)
        self.message = Message(self.pages)
        self.preview = Preview(self)
        self.status = QLabel()
        self.status.setObjectName("statusLine")
        self.status.setContentsMargins(12, 2, 12, 2)
        self.status.hide()
        self._side_by_side = QSplitter(Qt.Orientation.Horizontal)
        self._side_by_side.setHandleWidth(1)
        self._side_by_side.setChildrenCollapsible(False)
        self._side_by_side.addWidget(self.pages)
        self._side_by_side.addWidget(self.margin)
        self._side_by_side.setStretchFactor(0, 1)
        self._side_by_side.setSizes([600, 400])
        right = QWidget()
        column = QVBoxLayout(right)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._side_by_side, 1)
        column.addWidget(self.status)
        column.addWidget(self.ask_line)
        self._outer = QSplitter(Qt.Orientation.Horizontal)
        self._outer.setHandleWidth(1)
        self._outer.setChildrenCollapsible(False)
        self._outer.addWidget(self.contents)
        self._outer.addWidget(right)
        self._outer.setStretchFactor(1, 1)
        self._outer.setSizes([216, 1006])
        lower = QHBoxLayout()
        lower.setSpacing(0)
        lower.addWidget(self.spine)
        lower.addWidget(self._outer, 1)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.place_line)
        whole.addLayout(lower, 1)
        self._find_timer = QTimer(self)
        self._find_timer.setSingleShot(True)
        self._find_timer.setInterval(FIND_DELAY_MS)
        self.margin.place_by(self._entry_y)
        self.leaders.raise_()
        self.tab.raise_()

    def _connect(self) -> None:
        reader, pages, margin = self.reader, self.pages, self.margin
        reader.opened.connect(self._show_document)
        reader.sized.connect(pages.measure_anew)
        reader.recorded.connect(self._show_record)
        reader.file_changed.connect(self._offer_new_version)
        reader.failed.connect(self._show_failure)
        reader.read_progress.connect(self._show_progress)
        reader.ready.connect(self._show_read)
        reader.reading_failed.connect(self._show_reading_failed)
        reader.outline.changed.connect(self._show_outline)
        reader.entry_added.connect(self._entry_added)
        reader.entry_changed.connect(self._entry_changed)
        reader.entry_removed.connect(self._entry_removed)
        reader.answered.connect(self._answered)
        reader.asking.connect(lambda question: self.show_status("Searching the document…"))
        reader.found.connect(self._show_hits)
        reader.problem.connect(self._show_problem)
        pages.scrolled.connect(self._pages_moved)
        pages.place_changed.connect(self._place_changed)
        pages.selection_changed.connect(self._move_tab)
        pages.selection_made.connect(self._move_tab)
        pages.letter_pressed.connect(self.act)
        pages.retry_asked.connect(pages.images.retry)
        pages.link_clicked.connect(self._follow_link)
        pages.region_cut.connect(self._cut)
        pages.menu_asked.connect(self._show_menu)
        margin.place_chosen.connect(self.follow)
        margin.delete_asked.connect(reader.remove)
        margin.hold_asked.connect(self.hold)
        margin.let_go.connect(self.let_go)
        margin.next_asked.connect(lambda: self.step_place(1))
        margin.text_changed.connect(self._keep_text)
        margin.language_chosen.connect(reader.choose_language)
        margin.cancel_asked.connect(reader.cancel_translation)
        margin.retry_asked.connect(reader.run_translation)
        margin.pair_entered.connect(self._mark_pair)
        margin.more_asked.connect(self.contents.show_entries_list)
        margin.moved.connect(self._draw_leaders)
        self.spine.went.connect(self._scrub)
        self.spine.pointed.connect(self._preview)
        self.spine.left.connect(self.preview.hide)
        self.spine.stroke_chosen.connect(self._follow_stroke)
        self.spine.dot_chosen.connect(self._go_to_dot)
        self.contents.section_chosen.connect(self.go_to_section)
        self.contents.figure_chosen.connect(self._go_to_figure)
        self.contents.figures_shown.connect(self._draw_next_figure)
        self.contents.entry_chosen.connect(self.go_to_entry)
        self.contents.hit_chosen.connect(self._show_hit)
        self.place_line.back_asked.connect(self.go_back)
        self.place_line.forward_asked.connect(self.go_forward)
        self.place_line.page_typed.connect(self.go_to_typed)
        self.place_line.find_typed.connect(self._find_typed)
        self.place_line.find_stepped.connect(self.step_hit)
        self.place_line.find_ended.connect(self.pages.setFocus)
        self._find_timer.timeout.connect(self._find)
        self.ask_line.asked.connect(self.ask)
        self.ask_line.pages_wanted.connect(self._ask_for_pages)
        self.ask_line.selection_wanted.connect(self.reach_selection)
        self.ask_line.figure_wanted.connect(self._ask_for_figure)
        margin = self.margin
        margin.ask_on.connect(self.ask_on)
        margin.again_asked.connect(self.ask_from_kept)
        margin.reword_asked.connect(self.reword)
        margin.compose_asked.connect(self.compose)
        margin.quote_asked.connect(self.reader.quote_again)
        margin.composing_cancelled.connect(self.reader.cancel_composing)
        margin.struck.connect(self.reader.strike)
        margin.copy_asked.connect(self.copy_answer)
        margin.picture_wanted.connect(self._draw_excerpt)
        margin.worth_asked.connect(self.ask)
        margin.kind_chosen.connect(self.reader.find_worth)
        margin.place_first_page_by(self._first_page_in_view)
        self.reader.worth_found.connect(margin.offer)
        self.ask_line.went.connect(self._go_to_place)
        self.ask_line.left.connect(self.pages.setFocus)
        self.tab.chosen.connect(self.act)
        self.message.acted.connect(self.asked_for_file)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        for part in (self.pages, self.spine, self.contents, self.margin):
            part.wear(colours)
        self._draw_leaders()

    # --- the document

    def open_at(self, typed: str | None) -> None:
        """Where to go once the document is open: a page as typed on the command line."""
        self._start_place = typed

    def _show_document(self, facts: FileFacts) -> None:
        self.message.hide()
        self.history = History()
        self._hits, self._hit, self._held_places = [], -1, []
        self.margin.hold(None)
        self.margin.offer("other", None)
        self.pages.show_document(self.reader.session, facts)
        self.pages.fit_width()
        self.contents.show_reading()
        self.margin.show_entries([])
        self.show_status("Reading the document…")
        self.pages.setFocus()
        self._place_changed(*(self.pages.reading_place() or (0, 0.0)))

    def _show_record(self) -> None:
        """The entries of the document, and the place where reading stopped."""
        self.margin.show_entries(list(self.reader.entries.values()))
        record = self.reader.record
        untouched = self.pages.verticalScrollBar().value() < 100 and not self.history.behind
        if record is not None and self._start_place is None and untouched:
            self.pages.go_to(record.last_page, record.last_y)

    def _offer_new_version(self) -> None:
        self.show_status(
            "The file was changed on disk. Document › Read it again shows it as it is now."
        )

    def _show_failure(self, error: WideMarginError) -> None:
        self.pages.show_document(None, None)
        self.margin.show_entries([])
        self.contents.show_reading()
        self.contents.show_outline(_NO_OUTLINE, _NO_LABELS)
        self.show_status("")
        self.message.say(error.message, error.hint, "Choose another file…")

    def _show_progress(self, done: int, total: int) -> None:
        self.show_status(f"Reading page {done} of {total}…")

    def _show_outline(self, outline: Outline, at: int = -1) -> None:
        """Go by an outline: as read, or as the reader has changed it."""
        summary = self.reader.summary
        if summary is None:
            return
        self.contents.show_outline(outline, summary.labels)
        self.spine.show_document(summary.n_pages, outline, summary.labels)
        self.ask_line.set_model(is_there=self.reader.has_model)
        self.ask_line.complete_with([section.title for section in outline.sections])
        self.ask_line.resolve_with(lambda text: read_place(text, summary.labels, outline))
        self._section = -2
        if place := self.pages.reading_place():
            self._place_changed(*place)

    def _show_read(self, summary: ReadSummary) -> None:
        self._show_outline(summary.outline)
        self.contents.show_figures(
            [
                Row(f.caption, summary.labels.of(f.page) or f"({f.page + 1})", f)
                for f in summary.figures
            ]
        )
        self._n_figures_drawn = 0
        self._list_entries()
        self.show_status(_read_sentence(summary), for_ms=8000)
        if self._start_place is not None:
            self.go_to_typed(self._start_place)
            self._start_place = None
        self._pages_moved()
        if not summary.n_sentences:
            self.show_status(
                "This document has no text that can be read: it can be looked at, not searched."
            )
        if self._wanted:
            self._find()

    def _show_reading_failed(self, error: WideMarginError) -> None:
        self.contents.show_outline(_NO_OUTLINE, _NO_LABELS)
        self.show_status(f"{error.message} {error.hint}")

    def show_status(self, text: str, *, for_ms: int = 0) -> None:
        """Say something quietly above the ask line, for a while or until told otherwise."""
        self.status.setText(text)
        self.status.setVisible(bool(text))
        if for_ms:
            QTimer.singleShot(for_ms, self.status, lambda: self._end_status(text))

    def _end_status(self, text: str) -> None:
        if self.status.text() == text:
            self.show_status("")

    def _show_problem(self, error: WideMarginError) -> None:
        self.show_status(f"{error.message} {error.hint}".strip(), for_ms=15000)

    # --- places

    def here(self) -> tuple[int, float]:
        """Page index and y at the top of the view."""
        return self.pages.place_at(30.0) or (0, 0.0)

    def jump(self, page: int, y: float = 0.0) -> None:
        """Go to a place; back returns."""
        self.history.leave(self.here())
        self.pages.go_to(page, y)
        self._show_history()

    def go_back(self) -> None:
        """To the place before the last jump."""
        if place := self.history.back(self.here()):
            self.pages.go_to(*place)
        self._show_history()

    def go_forward(self) -> None:
        """To the place that back left."""
        if place := self.history.forward(self.here()):
            self.pages.go_to(*place)
        self._show_history()

    def _show_history(self) -> None:
        self.place_line.back.setEnabled(bool(self.history.behind))
        self.place_line.forward.setEnabled(bool(self.history.ahead))

    def go_to_typed(self, typed: str) -> None:
        """Go to a page as people type it."""
        summary = self.reader.summary
        pages = summary.labels.find(typed) if summary else _file_page(typed, self.pages.n_pages)
        if not pages:
            last = f"file 1 to file {self.pages.n_pages}"
            self.show_status(f"There is no page “{typed}” here; the file has {last}.", for_ms=8000)
            return
        self.jump(pages[0])
        if len(pages) > 1:
            others = ", ".join(f"file {page + 1}" for page in pages[1:4])
            self.show_status(f"Other pages are numbered {typed} too: {others}.", for_ms=8000)
        self.pages.setFocus()

    def go_to_section(self, index: int) -> None:
        """Go to a section's heading."""
        if self.reader.summary:
            section = self.reader.summary.outline.sections[index]
            self.jump(section.page, max(section.y - 8, 0))

    def _go_to_place(self, place: Place) -> None:
        self.jump(place.page, max(place.y - 8, 0))
        self.pages.setFocus()

    def _go_to_figure(self, figure: Figure) -> None:
        self.history.leave(self.here())
        self.pages.go_to(figure.page, max(figure.box[1] - 30, 0.0))
        region = (figure.page, figure.box)
        self.pages.lay("evidence", [Laid(figure.spans, "tint", region=region)])
        self._show_history()

    def _draw_next_figure(self) -> None:
        """Draw the pictures of the figures list, one after the other."""
        summary, session = self.reader.summary, self.reader.session
        row = self._n_figures_drawn
        if summary is None or session is None or row >= len(summary.figures):
            return
        figure = summary.figures[row]
        scale = 2 * PICTURE_WIDTH / max(figure.box[2] - figure.box[0], 40.0)
        self._n_figures_drawn += 1
        self.reader.background.watch(
            session.draw(figure.page, scale, figure.box),
            done=partial(self._figure_drawn, summary, row),
            failed=lambda _: self._draw_next_figure(),
        )

    def _figure_drawn(self, summary: ReadSummary, row: int, picture: Picture) -> None:
        if summary is self.reader.summary:
            self.contents.show_picture(row, image_from(picture, night=self.colours.is_night))
            self._draw_next_figure()

    def _scrub(self, share: float) -> None:
        at = share * self.pages.n_pages
        page = min(int(at), max(self.pages.n_pages - 1, 0))
        if self.reader.facts is not None and self.pages.n_pages:
            height = float(self.reader.facts.sizes[page, 1])
            self.pages.go_to(page, (at - page) * height, view_y=self.pages.viewport().height() / 2)

    def _preview(self, share: float, y: int) -> None:
        """Show what is at a place of the spine: a picture, its section and page."""
        summary, session = self.reader.summary, self.reader.session
        if summary is None or session is None:
            return
        page = min(int(share * summary.n_pages), summary.n_pages - 1)
        section = summary.outline.at_place(page, 300.0)
        title = summary.outline.sections[section].title if section >= 0 else ""
        top = self.spine.mapTo(self, QPoint(0, y)).y()
        if self.preview.show_page(page, f"{summary.labels.shown(page)}  {title}", top):
            self.reader.background.watch(
                session.draw(page, PREVIEW_SCALE), done=partial(self.preview.show_picture, page)
            )

    def _follow_stroke(self, index: int) -> None:
        if self.margin.held is not None:
            self.follow(self.margin.held.entry.id, index)

    def _go_to_dot(self, index: int) -> None:
        entries = sorted(self.reader.entries.values(), key=lambda e: (e.anchor.page, e.anchor.y))
        if 0 <= index < len(entries):
            self.go_to_entry(entries[index].id)

    def _place_changed(self, page: int, y: float) -> None:
        summary = self.reader.summary
        labels = summary.labels if summary else _NO_LABELS
        last = next((x for x in reversed(labels.labels) if x), None)
        self.place_line.show_place(labels.of(page), page, self.pages.n_pages, last)
        if summary is None:
            self.place_line.path.show_path([])
            return
        section = summary.outline.at_place(page, y)
        if section != self._section:
            self._section = section
            path = list(summary.outline.path(section))
            self.place_line.path.show_path(path)
            self.contents.follow(section)
            self.ask_line.set_section(path[-1] if path else "", section)

    def _pages_moved(self) -> None:
        height = self.pages.viewport().height()
        first, last = self.pages.place_at(0.0), self.pages.place_at(float(height))
        facts = self.reader.facts
        if first and last and facts is not None:
            heights = facts.sizes[:, 1]
            self.spine.show_view(
                first[0] + first[1] / float(heights[first[0]]),
                last[0] + last[1] / float(heights[last[0]]),
            )
        self._move_tab()
        self.margin.arrange()

    def panels_state(self) -> list[int]:
        """Widths of contents, pages and margin, for the next time."""
        return [*self._outer.sizes(), *self._side_by_side.sizes()]

    def restore_panels(self, state: object) -> None:
        """Take widths that were kept."""
        try:
            widths = [int(width) for width in state]  # type: ignore[attr-defined]
        except (TypeError, ValueError):
            return
        if len(widths) == 4:
            self._outer.setSizes(widths[:2])
            self._side_by_side.setSizes(widths[2:])

    # --- finding words

    def find_whole_words(self, wanted: bool) -> None:
        """Whether parts of longer words are left out."""
        self._whole_words = wanted
        if self._wanted:
            self._find()

    def find_exactly(self, wanted: bool) -> None:
        """Whether capitals and accents count."""
        self._exactly = wanted
        if self._wanted:
            self._find()

    def _find_typed(self, text: str) -> None:
        self._wanted = text.strip()
        if not self._wanted:
            self._find_timer.stop()
            self._show_hits("", [])
            return
        self._find_timer.start()

    def _find(self) -> None:
        if not self.reader.is_ready:
            self.place_line.show_count("still reading")
            return
        self.reader.find(self._wanted, whole_words=self._whole_words, exactly=self._exactly)

    def _show_hits(self, wanted: str, hits: list[FoundHit]) -> None:
        if wanted != self._wanted:
            return  # a newer search is under way
        self._hits, self._hit = hits, -1
        self.pages.lay("hits", [Laid(hit.spans, "hits") for hit in hits])
        self.pages.lay("hit", [])
        self.spine.show_hits([hit.page + 0.5 for hit in hits])
        self._list_hits(wanted, hits)
        if not wanted:
            self.place_line.show_count("")
        elif not hits:
            self.place_line.show_count("not found")
        else:
            here = self.here()[0]
            first = next((k for k, hit in enumerate(hits) if hit.page >= here), 0)
            self._show_hit(first)

    def _list_hits(self, wanted: str, hits: list[FoundHit]) -> None:
        summary = self.reader.summary
        labels = summary.labels if summary else _NO_LABELS
        rows = [
            Row(hit.line, labels.of(hit.page) or f"({hit.page + 1})", k)
            for k, hit in enumerate(hits[:MAX_LISTED])
        ]
        self.contents.show_hits(rows, wanted)

    def step_hit(self, step: int) -> None:
        """To the next (1) or previous (-1) place where the words stand."""
        if self._hits:
            self._show_hit((self._hit + step) % len(self._hits))

    def _show_hit(self, index: int) -> None:
        self._hit = index
        hit = self._hits[index]
        self.place_line.show_count(f"{index + 1} of {len(self._hits)}")
        self.pages.lay("hit", [Laid(hit.spans, "tint", bar=True)])
        self.pages.reveal(hit.spans)

    # --- asking and following

    def ask(self, question: str) -> None:
        """Ask; the text stays in the line until the answer is there."""
        if not self.reader.is_ready:
            self.show_status(
                "The document is still being read; ask again in a moment.", for_ms=6000
            )
            return
        page, y = self.here()
        reach: Reach = self.ask_line.reach
        before = self.ask_line.before or None
        self.reader.ask(question, reach, near=Anchor(page, y), before=before)

    def ask_on(self, entry_id: str) -> None:
        """Let the next question lean on that of an entry."""
        if entry := self.reader.entries.get(entry_id):
            self.ask_line.ask_on_from(entry_id, entry.body["question"])

    def reword(self, entry_id: str) -> None:
        """Put a question back into the ask line, to change its words, form or reach."""
        if entry := self.reader.entries.get(entry_id):
            before = entry.body.get("before") or {"id": "", "question": ""}
            self.ask_line.ask_on_from(before["id"], before["question"])
            self.ask_line.field.setText(entry.body["question"])
            self.ask_line.field.setFocus()

    def compose(self, entry_id: str, freely: bool = False) -> None:
        """Have an answer composed; what is sent is said, and agreed to if it leaves the machine."""
        budget = self.reader.budget(entry_id)
        if not self.reader.may_send:
            asked = QMessageBox.question(
                self, "Send excerpts?",
                f"{budget.shown[:1].upper()}{budget.shown[1:]}, will leave this machine.\n\n"
                "Send them there, now and in future?",
            )  # fmt: skip
            if asked != QMessageBox.StandardButton.Yes:
                return
            address = self.reader.settings.model_address
            self.reader.keep_settings(replace(self.reader.settings, trusted_address=address))
        self.show_status(f"Sent: {budget.shown}.", for_ms=6000)
        self.pages.lay("evidence", [])  # the words that were marked are not those of the new answer
        general = self.ask_line.draws_on_general
        self.reader.compose(entry_id, freely=freely, with_general=general)

    def ask_from_kept(self, entry_id: str) -> None:
        """Ask again, of the excerpts alone that were not struck out."""
        entry = self.reader.entries.get(entry_id)
        if entry is None:
            return
        kept = kept_excerpts(entry.body)
        if not kept:
            self.show_status("Every excerpt is struck out; keep one to ask again.", for_ms=8000)
            return
        spans = tuple(span for excerpt in kept for span in excerpt.locator.spans)
        name = f"{len(kept)} kept excerpt{'s' * (len(kept) != 1)}"
        page, y = self.here()
        reach = Reach("kept", name=name, spans=spans)
        before = entry.body.get("before") or {}
        self.reader.ask(
            entry.body["question"], reach, near=Anchor(page, y), before=before.get("id")
        )

    def reach_pages(self, typed: str) -> bool:
        """Ask of pages from now on, typed as "40-60"; whether there are such pages."""
        summary = self.reader.summary
        if summary is None:
            return False
        reach = pages_reach(summary.labels, summary.n_pages, typed)
        if reach is None:
            self.show_status(f"There are no pages “{typed}”: type them as 40-60.", for_ms=8000)
            return False
        self._set_reach(reach)
        return True

    def reach_selection(self) -> None:
        """Ask of the selected words from now on."""
        spans = self.pages.selected_spans()
        if not spans:
            self.show_status("Select words on a page first.", for_ms=6000)
            return
        self._set_reach(Reach("selection", name="the selection", spans=tuple(spans)))

    def reach_figure(self, figure: Figure) -> None:
        """Ask of a figure or table from now on: of its caption and the words in it."""
        self._set_reach(figure_reach(figure))
        self._go_to_figure(figure)

    def _ask_for_figure(self) -> None:
        summary = self.reader.summary
        figures = [f for f in summary.figures if f.text] if summary else []
        if summary is None or not figures:
            self.show_status("No captions of figures or tables were found.", for_ms=8000)
            return
        labels = summary.labels
        rows = [f"{f.caption}  ({labels.of(f.page) or f.page + 1})" for f in figures]
        near = min(range(len(figures)), key=lambda k: abs(figures[k].page - self.here()[0]))
        dialog = QInputDialog(self)
        dialog.setWindowTitle("Ask of a figure or table")
        dialog.setLabelText("Answers then come from its caption and the words in it.")
        dialog.setOption(QInputDialog.InputDialogOption.UseListViewForComboBoxItems)
        dialog.setComboBoxItems(rows)
        dialog.setTextValue(rows[near])
        dialog.resize(640, 420)
        if dialog.exec() and dialog.textValue() in rows:
            self.reach_figure(figures[rows.index(dialog.textValue())])

    def _set_reach(self, reach: Reach) -> None:
        self.ask_line.set_reach(reach)
        summary = self.reader.summary
        path = summary.outline.path(self._section) if summary and self._section >= 0 else ()
        self.ask_line.set_section(path[-1] if path else "", self._section)

    def _ask_for_pages(self) -> None:
        typed, is_given = QInputDialog.getText(
            self, "Ask of pages", "Pages by their printed numbers, such as 40-60:"
        )
        if is_given and typed.strip():
            self.reach_pages(typed)

    def _answered(self, entry: Entry) -> None:
        self.show_status("")
        if self.ask_line.field.text().strip() == entry.body["question"]:
            self.ask_line.field.clear()
        if self.ask_line.before:
            self.ask_on(entry.id)  # a further question leans on the last one
        self.hold(entry.id)
        if entry.body["quotes"]:
            self.follow(entry.id, 0)

    def _draw_excerpt(self, k: int) -> None:
        """Draw a small picture of where an excerpt of the held answer stands."""
        held, session = self.margin.held, self.reader.session
        if held is None or session is None:
            return

        def show(image: QImage) -> None:
            if self.margin.held is held:
                held.pictures[k].show_image(image)

        place = held.entry.body["excerpts"][k]["place"]
        self._passages.want(session, spans_of(place), self.colours, show)

    def hold(self, entry_id: str) -> None:
        """Hold an answer at the top of the margin."""
        entry = self.reader.entries[entry_id]
        body = entry.body
        self._held_places = [p for quote in body["quotes"] for p in quote["places"]]
        n_quoted = len(self._held_places)
        excerpts = body["excerpts"][:3] if not n_quoted else body["excerpts"]
        self._held_places += [excerpt["place"] for excerpt in excerpts]
        self._n_steps = n_quoted or len(self._held_places)
        self._held_at = -1
        self.margin.composes = self.reader.has_model
        self._passages.drop()
        self.margin.hold(entry)
        strokes = [(self._spine_place(p), k < n_quoted) for k, p in enumerate(self._held_places)]
        self.spine.show_strokes(strokes)

    _n_steps = 0

    def let_go(self) -> None:
        """Return the held answer to its place."""
        self._held_places, self._held_at = [], -1
        self.ask_line.ask_on_from("", "")
        self.margin.hold(None)
        self.spine.show_strokes([])
        self.pages.lay("evidence", [])
        self._list_entries()

    def step_place(self, step: int) -> None:
        """Visit the next or previous place of the held answer."""
        if self.margin.held is not None and self._n_steps:
            at = self._held_at if 0 <= self._held_at < self._n_steps else (-1 if step > 0 else 0)
            self.follow(self.margin.held.entry.id, (at + step) % self._n_steps)

    def follow(self, entry_id: str, index: int) -> None:
        """Go where a locator leads and mark the very words."""
        held = self.margin.held
        if held is not None and held.entry.id == entry_id:
            places = self._held_places
            self._held_at = index
            held.show_here(index)
        else:
            entry = self.reader.entries[entry_id]
            places = places_in(entry.kind, entry.body)
            if card := self.margin.card(entry_id):
                card.show_here(index)
        if not 0 <= index < len(places):
            return
        spans = spans_of(places[index])
        self.history.leave(self.here())
        self._show_history()
        self.pages.lay("evidence", [Laid(spans, "tint", bar=True)])
        if spans:
            self.pages.reveal(spans)
        else:
            self.pages.go_to(places[index]["page"])
        self._draw_leaders()

    def _spine_place(self, place: dict[str, Any]) -> float:
        """A place in pages from the start, by where its first character lies on its page."""
        spans = spans_of(place)
        layer = self.pages.images.layer(place["page"]) if spans else None
        if layer is not None and self.reader.facts is not None:
            top = float(layer.page.boxes[spans[0].start : spans[0].end, 1].min(initial=1e9))
            if top < 1e8:
                return float(place["page"]) + top / float(self.reader.facts.sizes[place["page"], 1])
        return float(place["page"]) + 0.5

    # --- the selection and its commands

    def act(self, letter: str) -> None:
        """Explain, translate, ask, mark or note what is selected."""
        anchor = self._selected()
        if anchor is None:
            return
        if letter == "E":
            if self.reader.is_ready:
                self.reader.explain(anchor)
            else:
                self.show_status(
                    "The document is still being read; explain it in a moment.", for_ms=6000
                )
                return
        elif letter == "T":
            self.reader.translate(anchor)
        elif letter == "A":
            quote = " ".join(anchor.quote.split())
            short = quote if len(quote) <= 80 else quote[:80].rsplit(" ", 1)[0] + "…"
            self.ask_line.field.setText(f"“{short}” ")
            self.ask_line.field.setFocus()
            return
        elif letter in ("M", "N"):
            entry = new_entry("mark" if letter == "M" else "note", anchor, {"text": ""})
            if self.reader.add(entry) and letter == "N":
                QTimer.singleShot(0, self, lambda: self.margin.edit(entry.id))
        self.pages.clear_selection()

    def citation(self) -> str:
        """The selected words, with the document's title and their page."""
        text = self.pages.selected_text()
        spans, facts, summary = self.pages.selected_spans(), self.reader.facts, self.reader.summary
        if not spans or facts is None:
            return text
        name = facts.title or (self.reader.path.stem if self.reader.path else "")
        labels = summary.labels if summary else _NO_LABELS
        first, last = spans[0].page, spans[-1].page
        place = labels.shown(first) if labels.labels else f"file p. {first + 1}"
        if last != first and labels.of(last):
            place = f"pp. {labels.of(first)}–{labels.of(last)}"
        source = ", ".join(part for part in (facts.author, name, place) if part)
        return f"“{' '.join(text.split())}” ({source})"

    def copy_with_citation(self) -> None:
        """Put the selected words and where they stand on the clipboard."""
        if self.pages.has_selection:
            QGuiApplication.clipboard().setText(self.citation())

    def copy_answer(self, entry_id: str, form: str) -> None:
        """Put an answer on the clipboard in one of the forms of ANSWER_FORMS."""
        entry, facts = self.reader.entries.get(entry_id), self.reader.facts
        if entry is None or facts is None:
            return
        path = self.reader.path
        title = facts.title or (path.stem if path else "")
        source = Source(title, facts.author, year_of(facts.created))
        is_quoted = entry.body["origin"] == "quoted"
        statements = [
            Statement(quote["text"], tuple(p["shown"] for p in quote["places"]), is_quoted)
            for quote in entry.body["quotes"]
        ]
        text = answer_as(form, entry.body["question"], statements, source)
        QGuiApplication.clipboard().setText(text)
        self.show_status("The answer is on the clipboard.", for_ms=4000)

    def start_section(self) -> None:
        """A section of the reader's own at the selection, called by its words."""
        anchor = self._selected()
        if anchor is None or not self.reader.is_ready:
            return
        title = " ".join(anchor.quote.split())[:120]
        self.reader.outline.change(
            "Add section", lambda editor, outline: editor.add(outline, anchor.page, anchor.y, title)
        )
        self.show_status(f"The section “{title}” is in the outline.", for_ms=6000)

    def _selected(self) -> Anchor | None:
        """What is selected, None where nothing is."""
        spans, text = self.pages.selected_spans(), self.pages.selected_text()
        if not spans or not text.strip():
            return None
        boxes = self.pages.boxes_in_view(spans)
        y = self.pages.place_at(boxes[0].top())[1] if boxes else 0.0  # type: ignore[index]
        return Anchor(spans[0].page, y, spans, text)

    def _show_menu(self, where: QPoint) -> None:
        """What can be done with the selection, or here."""
        menu = QMenu(self)
        if self.pages.has_selection:
            menu.addAction("Copy", self.pages.copy)
            menu.addAction("Copy with its place", self.copy_with_citation)
            menu.addSeparator()
            for name, letter, _ in COMMANDS:
                menu.addAction(name, partial(self.act, letter))
            menu.addSeparator()
            menu.addAction("Start a section here", self.start_section)
        else:
            menu.addAction("Back", self.go_back).setEnabled(bool(self.history.behind))
            menu.addAction("Zoom in", lambda: self.pages.zoom(1))
            menu.addAction("Zoom out", lambda: self.pages.zoom(-1))
            menu.addAction("Fit the width", self.pages.fit_width)
        menu.exec(where)

    def _follow_link(self, link: Link) -> None:
        if link.page is not None:
            self.jump(link.page, max((link.y or 0.0) - 8, 0.0))
        elif link.address and self.confirm_address(link.address):
            QDesktopServices.openUrl(QUrl(link.address))

    def confirm_address(self, address: str) -> bool:
        """Show where a link leads outside of the document, and ask."""
        question = QMessageBox.question(
            self, "Leave the document?", f"Open this address?\n\n{address}"
        )
        return question == QMessageBox.StandardButton.Yes

    def _cut(self, page: int, box: Box) -> None:
        """Keep a region of a page as a picture with the text beneath it."""
        session = self.reader.session
        layer = self.pages.images.layer(page)
        if session is None:
            return
        spans = layer.spans_in(box) if layer else ()
        words = layer.words_in(box) if layer else ""
        anchor = Anchor(page, box[1], spans, words)

        def keep(picture: Picture) -> None:
            encoded = png_of(image_from(picture))
            self.reader.add(
                new_entry("cutting", anchor, {"text": "", "box": list(box), "png": encoded})
            )

        self.reader.background.watch(
            session.draw(page, CUTTING_SCALE, box), done=keep, failed=self._show_problem
        )

    def _move_tab(self) -> None:
        """Put the tab at the page's right edge, level with the selection."""
        spans = self.pages.selected_spans() if self.pages.has_selection else ()
        boxes = self.pages.boxes_in_view(spans)
        view = self.pages.viewport()
        visible = [box for box in boxes if box.bottom() > 0 and box.top() < view.height()]
        if not visible:
            self.tab.hide()
            self.margin.keep_free(None)
            return
        self.tab.adjustSize()
        corner = self.pages.mapTo(self, QPoint(0, 0))
        edge = self.pages.page_rect(spans[0].page).right()
        x = corner.x() + min(int(edge) + 1, self.pages.width() - 24)
        lowest = corner.y() + view.height() - self.tab.height() - 4
        y = min(max(corner.y() + int(visible[0].top()) - 4, corner.y() + 4), lowest)
        self.tab.move(x, y)
        self.tab.show()
        self.tab.raise_()
        top = y - self.margin.mapTo(self, QPoint(0, 0)).y()
        self.margin.keep_free((top - 4, top + self.tab.height() + 4))

    # --- entries

    def _entry_y(self, entry: Entry) -> float | None:
        """Height of an entry's passage in the viewport, None where it is out of view."""
        anchor = entry.anchor
        if not self.pages.n_pages or anchor.page >= self.pages.n_pages:
            return None
        boxes = self.pages.boxes_in_view(anchor.spans)
        if boxes:
            y = boxes[0].top()
        elif anchor.spans and anchor.page in self.pages.visible_pages():
            return None  # until the page's text has come
        else:
            y = self.pages.y_in_view(anchor.page, max(anchor.y, 0.0))
        return y if -30 < y < self.pages.viewport().height() - 10 else None

    def _first_page_in_view(self) -> float | None:
        """Where the first page begins in the viewport, None where it is out of view."""
        if 0 not in self.pages.visible_pages():
            return None
        return self.pages.y_in_view(0, 0.0)

    def _entry_added(self, entry: Entry) -> None:
        self.margin.put(entry)
        self._list_entries()

    def _entry_changed(self, entry: Entry) -> None:
        self.margin.put(entry)
        if self.margin.held is not None and self.margin.held.entry.id == entry.id:
            self.hold(entry.id)
        self._list_entries()

    def _entry_removed(self, entry_id: str) -> None:
        if self.margin.held is not None and self.margin.held.entry.id == entry_id:
            self.let_go()
        self.margin.take(entry_id)
        self._list_entries()
        self.show_status("Deleted. Ctrl+Z brings it back.", for_ms=8000)

    def _list_entries(self) -> None:
        summary = self.reader.summary
        labels = summary.labels if summary else _NO_LABELS
        entries = sorted(self.reader.entries.values(), key=lambda e: (e.anchor.page, e.anchor.y))
        rows = []
        for entry in entries:
            title = headline(entry.kind, entry.body, entry.anchor.quote) or entry.kind
            label = labels.of(entry.anchor.page) or f"({entry.anchor.page + 1})"
            rows.append(Row(f"{entry.kind.capitalize()}: {title}", label, entry.id))
        self.contents.show_entries(rows)
        self.spine.show_dots([entry.anchor.page + 0.5 for entry in entries])
        marks = [e for e in entries if e.kind in ("mark", "note")]
        self.pages.lay("marks", [Laid(e.anchor.spans, "hits") for e in marks if e.kind == "mark"])

    def go_to_entry(self, entry_id: str) -> None:
        """Go where an entry stands; an answer is held."""
        entry = self.reader.entries.get(entry_id)
        if entry is None:
            return
        if entry.kind == "question":
            self.hold(entry_id)
            self.follow(entry_id, 0)
            return
        self.history.leave(self.here())
        self._show_history()
        if entry.anchor.spans:
            self.pages.reveal(entry.anchor.spans)
        else:
            self.pages.go_to(entry.anchor.page, max(entry.anchor.y, 0.0))

    def _keep_text(self, entry_id: str, text: str) -> None:
        if entry := self.reader.entries.get(entry_id):
            self.reader.change(entry.with_body(text=text))

    def _mark_pair(self, entry_id: str, row: int) -> None:
        """Mark the source sentence of a pair on the page while the pointer is on it."""
        entry = self.reader.entries.get(entry_id)
        spans: tuple[SpanOnPage, ...] = ()
        if entry is not None and 0 <= row < len(entry.body["pairs"]):
            spans = self._part_of(entry.anchor.spans, entry.body["pairs"][row][0])
        self.pages.lay("evidence", [Laid(spans, "tint")] if spans else [])

    def _part_of(self, spans: Sequence[SpanOnPage], sentence: str) -> tuple[SpanOnPage, ...]:
        """The characters of a passage that make up one of its sentences."""
        letters: list[tuple[str, SpanOnPage]] = []
        for span in spans:
            layer = self.pages.images.layer(span.page)
            if layer is None:
                return ()
            for k in range(span.start, span.end):
                if layer.page.chars[k].isalnum():
                    letters.append((layer.page.chars[k], SpanOnPage(span.page, k, k + 1)))
        whole = "".join(letter for letter, _ in letters)
        wanted = "".join(c for c in sentence if c.isalnum())
        at = whole.find(wanted)
        if at < 0 or not wanted:
            return ()
        chosen = [span for _, span in letters[at : at + len(wanted)]]
        joined: list[SpanOnPage] = []
        for span in chosen:
            if joined and joined[-1].page == span.page and span.start - joined[-1].end <= 3:
                joined[-1] = SpanOnPage(span.page, joined[-1].start, span.end)
            else:
                joined.append(span)
        return tuple(joined)

    # --- leaders

    def _draw_leaders(self) -> None:
        view, margin = self.pages.viewport(), self.margin
        origin = view.mapTo(self, QPoint(0, 0))
        left = margin.mapTo(self, QPoint(0, 0))
        drawn: list[Leader] = []

        def join(spans: Sequence[SpanOnPage], end: QPoint, colour: str) -> None:
            start = self.pages.right_of(spans)
            if start is None or not 0 <= start.y() <= view.height() or start.x() > view.width():
                return
            page_edge = int(self.pages.page_rect(spans[0].page).right())
            turn = origin.x() + min(page_edge + 6, view.width() - 4) + 5 * (len(drawn) % 3)
            drawn.append(Leader(start + origin, end, colour, turn))

        if margin.held is not None and 0 <= self._held_at < len(self._held_places):
            spans = spans_of(self._held_places[self._held_at])
            if spans:
                join(spans, QPoint(left.x() + 16, left.y() + 40), self.colours.madder)
        for standing in margin.standing():
            if standing.entry.anchor.spans:
                end = QPoint(left.x() + standing.rect.left(), left.y() + standing.rect.top() + 10)
                join(standing.entry.anchor.spans, end, standing.edge)
        self.leaders.show_leaders(drawn)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The leaders lie over everything."""
        super().resizeEvent(event)
        self.leaders.setGeometry(self.rect())
        self._move_tab()


def _read_sentence(summary: ReadSummary) -> str:
    """What was read, in one sentence."""
    n = len(summary.outline.sections)
    one, many = (
        ("part by pages", "parts by pages")
        if summary.outline.is_by_pages
        else ("section", "sections")
    )
    parts = [f"{summary.n_pages} pages", f"{n} {one if n == 1 else many}"]
    if summary.without_text:
        k = len(summary.without_text)
        parts.append(f"{k} page{'s' if k != 1 else ''} without text")
    if summary.failed:
        parts.append(f"{len(summary.failed)} that could not be read")
    return f"Read: {', '.join(parts)}."


def _file_page(typed: str, n_pages: int) -> list[int]:
    digits = typed.lower().removeprefix("file").strip()
    return [int(digits) - 1] if digits.isdigit() and 0 < int(digits) <= n_pages else []
