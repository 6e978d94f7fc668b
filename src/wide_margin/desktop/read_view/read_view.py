"""The Read view: puts pages, spine, contents, margin and ask line together."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QSplitter, QVBoxLayout, QWidget

from wide_margin.core.layout import PageLabels
from wide_margin.core.margin import EntryKind, QuestionBody, Scope
from wide_margin.core.outline import Outline
from wide_margin.desktop.listening import Listening
from wide_margin.desktop.look import DAY
from wide_margin.desktop.read_view.along_spine import AlongSpine
from wide_margin.desktop.read_view.ask_line import AskLine
from wide_margin.desktop.read_view.at_hand import AtHand
from wide_margin.desktop.read_view.beside import Beside
from wide_margin.desktop.read_view.commands import Commands
from wide_margin.desktop.read_view.contents_panel import ContentsPanel, Row
from wide_margin.desktop.read_view.contents_so_far import ContentsSoFar
from wide_margin.desktop.read_view.facing import FacingColumn
from wide_margin.desktop.read_view.figure_pictures import FigurePictures
from wide_margin.desktop.read_view.finding import Finding
from wide_margin.desktop.read_view.held_places import HeldPlaces
from wide_margin.desktop.read_view.history import History
from wide_margin.desktop.read_view.leaders import Leaders, leaders_of
from wide_margin.desktop.read_view.listed_entries import ListedEntries
from wide_margin.desktop.read_view.margin_column import MarginColumn
from wide_margin.desktop.read_view.message import Message
from wide_margin.desktop.read_view.page_painting import Laid
from wide_margin.desktop.read_view.pages_view import PagesView
from wide_margin.desktop.read_view.panel_widths import PanelWidths
from wide_margin.desktop.read_view.passage_pictures import PassagePictures
from wide_margin.desktop.read_view.place_line import PlaceLine
from wide_margin.desktop.read_view.preview import Preview
from wide_margin.desktop.read_view.quiet_words import QuietWords
from wide_margin.desktop.read_view.reaching import Reaching
from wide_margin.desktop.read_view.reading_told import file_page, read_sentence, told_for_ms
from wide_margin.desktop.read_view.selection_tab import SelectionTab
from wide_margin.desktop.read_view.spine import Spine
from wide_margin.desktop.status_line import StatusLine
from wide_margin.desktop.words import agrees

if TYPE_CHECKING:
    from wide_margin.core.document import Figure, Locator
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.margin import Entry
    from wide_margin.core.pages import FileFacts
    from wide_margin.core.session import Place, ReadSummary
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.reader import Reader
    from wide_margin.desktop.status_line import Act

_NO_OUTLINE, _NO_LABELS = Outline(), PageLabels(())


class ReadView(QWidget):
    """Everything of reading one document. ``reader`` does the work; this shows it."""

    asked_for_file = Signal()
    loose_asked = Signal(object)  # an entry that has no place yet

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self.history = History()
        self.passages = PassagePictures(reader.background, self)
        self.commands = Commands(self)
        self.section = -1
        """Index of the section that is being read."""
        self.figure_pictures = FigurePictures(self)
        self.along_spine = AlongSpine(self)
        self.at_hand = AtHand(self)
        self._start_place: str | None = None
        self.listed = ListedEntries(self)
        self._build()
        self.listening, self.so_far = Listening(self), ContentsSoFar(self)
        self.finding, self.held, self.reaching = Finding(self), HeldPlaces(self), Reaching(self)
        self._connect_reader()
        self._connect_parts()

    # --- building

    def _build(self) -> None:
        self.place_line = PlaceLine()
        self.spine = Spine()
        self.contents = ContentsPanel()
        self.pages = PagesView(self.reader.background)
        self.margin = MarginColumn(self.commands)
        self.ask_line = AskLine()
        self.status = StatusLine()
        self.tab = SelectionTab(self)
        self.leaders = Leaders(self)
        self.message = Message(self.pages)
        self.preview = Preview(self)
        self._side_by_side = QSplitter(Qt.Orientation.Horizontal)
        self._side_by_side.addWidget(self.pages)
        self.beside = Beside(self)
        self._side_by_side.addWidget(self.beside)
        self.facing = FacingColumn(self)
        self._side_by_side.addWidget(self.facing)
        self._side_by_side.addWidget(self.margin)
        self._side_by_side.setStretchFactor(0, 1)
        self._side_by_side.setSizes([600, 0, 0, 400])
        right = QWidget()
        column = QVBoxLayout(right)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._side_by_side, 1)
        column.addWidget(self.status)
        column.addWidget(self.ask_line)
        self._outer = QSplitter(Qt.Orientation.Horizontal)
        self._outer.addWidget(self.contents)
        self._outer.addWidget(right)
        self._outer.setStretchFactor(1, 1)
        self._outer.setSizes([216, 1006])
        self.panels = PanelWidths(self._outer, self._side_by_side)
        for splitter in (self._side_by_side, self._outer):
            splitter.setHandleWidth(1)
            splitter.setChildrenCollapsible(False)
        lower = QHBoxLayout()
        lower.setSpacing(0)
        lower.addWidget(self.spine)
        lower.addWidget(self._outer, 1)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.place_line)
        whole.addLayout(lower, 1)
        self.margin.place_by(self.listed.height_of, self.pages.visible_pages)
        self.margin.place_first_page_by(self.listed.first_page_top)
        self.leaders.raise_()
        self.tab.raise_()

    def _connect_reader(self) -> None:
        reader, keeper = self.reader, self.reader.keeper
        self.quiet_words = QuietWords(self)
        reader.opened.connect(self._show_document)
        reader.sized.connect(self.pages.measure_anew)
        reader.sized.connect(self.along_spine.measure)
        reader.recorded.connect(self._show_place_kept)
        reader.failed.connect(self._show_failure)
        reader.ready.connect(self._show_read)
        reader.reading_failed.connect(self._show_reading_failed)
        reader.outline.changed.connect(self._show_outline)
        reader.answered.connect(self._answered)
        reader.explaining.explained.connect(lambda entry: self.margin.put(entry, is_fresh=True))
        reader.recognising.done.connect(self.pages.images.forget_text)
        reader.worth_found.connect(self.margin.offer)
        reader.gist_found.connect(self.margin.show_gist)
        reader.worth_unwanted.connect(self.margin.stop_offering)
        keeper.shown.connect(self.listed.show_all)
        keeper.added.connect(self.listed.added)
        keeper.changed.connect(self.listed.changed)
        keeper.removed.connect(self.listed.removed)

    def _connect_parts(self) -> None:
        pages, contents, place_line, ask_line = (
            self.pages, self.contents, self.place_line, self.ask_line,
        )  # fmt: skip
        pages.scrolled.connect(self._pages_moved)
        pages.scrolled_by_hand.connect(self.margin.see_no_more)
        pages.place_changed.connect(self._place_changed)
        pages.selection_changed.connect(self.at_hand.move_tab)
        pages.selection_made.connect(self.at_hand.move_tab)
        pages.letter_pressed.connect(self.commands.act)
        pages.retry_asked.connect(pages.images.retry)
        pages.link_clicked.connect(self.at_hand.follow_link)
        pages.region_cut.connect(self.commands.cut)
        pages.mark_dragged.connect(self.commands.marking.reshape)
        pages.menu_asked.connect(self.at_hand.show_menu)
        self.margin.more_asked.connect(contents.show_entries_list)
        self.margin.moved.connect(self.draw_leaders)
        self.spine.went.connect(self.along_spine.scrub)
        self.spine.pointed.connect(self.along_spine.preview)
        self.spine.left.connect(self.preview.hide)
        self.spine.stroke_chosen.connect(self.held.follow_stroke)
        self.spine.dot_chosen.connect(self.listed.go_to)
        contents.section_chosen.connect(self.go_to_section)
        contents.figure_chosen.connect(self.go_to_figure)
        contents.figures_shown.connect(self.figure_pictures.draw_next)
        contents.contents.beside.connect(self.beside.show_section)
        contents.figures.beside.connect(self.beside.show_figure)
        contents.entry_chosen.connect(self.go_to_entry)
        contents.hit_chosen.connect(self.finding.go_to)
        place_line.back_asked.connect(self.go_back)
        place_line.forward_asked.connect(self.go_forward)
        place_line.page_typed.connect(self.go_to_typed)
        place_line.find_typed.connect(self.finding.type)
        place_line.find_stepped.connect(self.finding.step)
        place_line.find_ended.connect(pages.setFocus)
        ask_line.asked.connect(self.commands.ask)
        ask_line.request_named.connect(lambda request: self.commands.run([request]))
        ask_line.pages_wanted.connect(self.reaching.ask_for_pages)
        ask_line.selection_wanted.connect(self.reaching.of_selection)
        ask_line.figure_wanted.connect(self.reaching.ask_for_figure)
        ask_line.went.connect(self._go_to_place)
        ask_line.left.connect(pages.setFocus)
        self.tab.chosen.connect(self.commands.act)
        self.message.acted.connect(self.asked_for_file)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        for part in (
            self.pages, self.beside, self.facing, self.spine, self.contents, self.margin,
            self.preview,
        ):  # fmt: skip
            part.wear(colours)
        self.draw_leaders()

    # --- the document

    def open_at(self, typed: str | None) -> None:
        """Where to go once the document is open: a page as typed on the command line."""
        self._start_place = typed

    def _show_document(self, facts: FileFacts) -> None:
        self.message.hide()
        self.history = History()
        self.finding.forget()
        self.held.forget()
        self.margin.hold(None)
        self.margin.show_gist(())
        self.margin.offer("other", None)
        self.pages.show_document(self.reader.session, facts)
        self.pages.fit_width()
        self.contents.show_reading()
        self.listed.show_all()
        self.show_status("Reading the document…")
        self.pages.setFocus()
        self._place_changed(*(self.pages.place_read() or (0, 0.0)))

    def _show_place_kept(self) -> None:
        """Go where reading stopped, unless the reader has gone somewhere already."""
        record = self.reader.record
        untouched = self.pages.verticalScrollBar().value() < 100 and not self.history.behind
        if record is not None and self._start_place is None and untouched:
            self.pages.go_to(record.last_page, record.last_y)

    def _show_failure(self, error: WideMarginError) -> None:
        self.pages.show_document(None, None)
        self.margin.show_entries([])
        self.margin.stop_offering()
        self.contents.show_reading()
        self.contents.show_outline(_NO_OUTLINE, _NO_LABELS)
        self.show_status("")
        self.message.say(error.message, error.hint, "Choose another file…")

    def _show_outline(self, outline: Outline, at: int = -1) -> None:
        """Go by an outline: as read, or as the reader has changed it."""
        summary = self.reader.summary
        if summary is None:
            return
        self.contents.show_outline(outline, summary.labels)
        self.spine.show_document(summary.n_pages, outline, summary.labels)
        self.listed.show_dots()
        self.ask_line.set_model(is_there=self.reader.composer.has_model)
        self.ask_line.complete_with([section.title for section in outline.sections])
        self.ask_line.resolve_with(partial(_place, summary.labels, outline))
        self.place_anew()

    def place_anew(self) -> None:
        """Tell again where one is: the sections are others now."""
        self.section = -2
        if place := self.pages.place_read():
            self._place_changed(*place)

    @property
    def outline(self) -> Outline:
        """The one to go by: while reading goes on, as far as it is known."""
        return self.reader.outline.outline if self.reader.is_ready else self.so_far.outline

    def _show_read(self, summary: ReadSummary) -> None:
        reader_of = self.reader.recognising
        self.along_spine.measure(self.reader.facts)
        self._show_outline(summary.outline)
        labels = summary.labels
        self.contents.show_figures(
            [Row(f.caption, labels.listed(f.page), f) for f in summary.figures]
        )
        self.figure_pictures.begin()
        self.listed.show_all()
        act = ("Recognise their text", reader_of.start) if summary.to_recognise else None
        self.show_status(read_sentence(summary), for_ms=told_for_ms(summary), act=act)
        if self._start_place is not None:
            self.go_to_typed(self._start_place)
            self._start_place = None
        self._pages_moved()
        if not summary.is_readable:
            self.margin.stop_offering()
            self.show_status(
                "This document has no text that can be read: it can be looked at, not searched.",
                act=act,
            )
        self.finding.find_again()

    def _show_reading_failed(self, error: WideMarginError) -> None:
        self.contents.show_outline(_NO_OUTLINE, _NO_LABELS)
        self.margin.stop_offering()
        self.show_status(f"{error.message} {error.hint}")

    def show_status(self, text: str, *, for_ms: int = 0, act: Act | None = None) -> None:
        """Say something quietly above the ask line; see StatusLine.say."""
        self.status.say(text, for_ms=for_ms, act=act)

    # --- places

    def here(self) -> tuple[int, float]:
        """Page index and y at the top of the view."""
        return self.pages.place_at(30.0) or (0, 0.0)

    def leave_place(self) -> None:
        """Remember where one is: back returns here."""
        self.history.leave(self.here())
        self._show_history()

    def jump(self, page: int, y: float = 0.0) -> None:
        """Go to a place; back returns."""
        self.margin.see_no_more()
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
        pages = summary.labels.find(typed) if summary else file_page(typed, self.pages.n_pages)
        if not pages:
            last = f"file page 1 to file page {self.pages.n_pages}"
            self.show_status(f"There is no page “{typed}” here; the file has {last}.", for_ms=8000)
            return
        self.jump(pages[0])
        if len(pages) > 1:
            others = ", ".join(f"file page {page + 1}" for page in pages[1:4])
            self.show_status(f"Other pages are numbered {typed} too: {others}.", for_ms=8000)
        self.pages.setFocus()

    def go_to_section(self, index: int) -> None:
        """Go to a section's heading."""
        section = self.outline.sections[index]
        self.jump(section.page, max(section.y - 8, 0))

    def go_to_passage(self, locator: Locator) -> None:
        """Go to words and mark them; back returns."""
        self.margin.see_no_more()
        self.leave_place()
        self.pages.lay("evidence", [Laid(locator.spans, "tint", bar=True)])
        if locator.spans:
            self.pages.reveal(locator.spans)
        else:
            self.pages.go_to(locator.page)
        self.pages.setFocus()

    def _go_to_place(self, place: Place) -> None:
        self.jump(place.page, max(place.y - 8, 0))
        self.pages.setFocus()

    def go_to_figure(self, figure: Figure) -> None:
        """Go to a figure or table, and mark it."""
        self.history.leave(self.here())
        self.pages.go_to(figure.page, max(figure.box[1] - 30, 0.0))
        region = (figure.page, figure.box)
        self.pages.lay("evidence", [Laid(figure.spans, "tint", region=region)])
        self._show_history()

    def _place_changed(self, page: int, y: float) -> None:
        summary, outline = self.reader.summary, self.outline
        labels = summary.labels if summary else self.so_far.labels
        last = next((x for x in reversed(labels.labels) if x), None)
        sure = summary.how_sure(page) if summary else None
        self.place_line.show_place(labels.of(page), page, self.pages.n_pages, last, sure)
        section = outline.at_place(page, y)
        if section != self.section:
            self.section = section
            self.place_line.path.show_path(list(outline.path(section)))
            self.contents.follow(section)
            self.reaching.offer_section()

    def _pages_moved(self) -> None:
        self.along_spine.show_view()
        self.at_hand.move_tab()
        self.margin.arrange()

    # --- the selection, links and the menu

    def confirm_address(self, address: str) -> bool:
        """Show where a link leads outside of the document, and ask."""
        return agrees(self, "Leave the document?", f"Open this address?\n\n{address}")

    # --- entries

    def _answered(self, entry: Entry) -> None:
        assert isinstance(entry.body, QuestionBody)
        self.show_status("")
        if self.ask_line.field.text().strip() == entry.body.question:
            self.ask_line.field.clear()
        if self.ask_line.before:
            self.commands.ask_on(entry.id)  # a further question leans on the last one
        self.held.hold(entry.id)
        if entry.body.quotes:
            self.held.follow(entry.id, 0)

    def go_to_entry(self, entry_id: str) -> None:
        """Go where an entry stands; an answer is held."""
        entry = self.reader.entries.get(entry_id)
        if entry is None:
            return
        if entry.kind is EntryKind.QUESTION:
            self.held.hold(entry_id)
            self.held.follow(entry_id, 0)
            return
        if entry.anchor.scope is Scope.LOOSE:
            self.loose_asked.emit(entry)
            return
        self.leave_place()
        self.margin.put(entry, is_fresh=True)
        self.pages.choose_mark(entry_id)
        if entry.anchor.spans:
            self.pages.reveal(entry.anchor.spans)
        else:
            self.pages.go_to(entry.anchor.page, max(entry.anchor.y, 0.0))

    # --- leaders

    def draw_leaders(self) -> None:
        """Join the cards in view to their passages."""
        self.leaders.show_leaders(leaders_of(self))

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The leaders lie over everything."""
        super().resizeEvent(event)
        self.leaders.setGeometry(self.rect())
        self.at_hand.move_tab()


def _place(labels: PageLabels, outline: Outline, text: str) -> Place | None:
    from wide_margin.core.session import read_place  # once one is typed

    return read_place(text, labels, outline)
