"""The Read view: puts pages, spine, contents, margin and ask line together."""

from bisect import bisect_left
from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtCore import QPoint, Qt, QTimer, QUrl, Signal
from PySide6.QtGui import QDesktopServices, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QMenu, QSplitter, QVBoxLayout, QWidget

from wide_margin.core.document import Figure, Locator
from wide_margin.core.errors import WideMarginError
from wide_margin.core.layout import PageLabels, SpanOnPage
from wide_margin.core.margin import Entry, EntryKind, QuestionBody
from wide_margin.core.outline import Outline
from wide_margin.core.pages import FileFacts, Link, Picture
from wide_margin.core.plain import counted
from wide_margin.core.session import Place, ReadSummary, read_place
from wide_margin.desktop.look import DAY, Colours
from wide_margin.desktop.read_view.ask_line import AskLine
from wide_margin.desktop.read_view.commands import Commands
from wide_margin.desktop.read_view.contents_panel import PICTURE_WIDTH, ContentsPanel, Row
from wide_margin.desktop.read_view.finding import Finding
from wide_margin.desktop.read_view.held_places import HeldPlaces
from wide_margin.desktop.read_view.history import History
from wide_margin.desktop.read_view.leaders import Leader, Leaders
from wide_margin.desktop.read_view.margin_column import MarginColumn
from wide_margin.desktop.read_view.message import Message
from wide_margin.desktop.read_view.page_images import image_from
from wide_margin.desktop.read_view.pages_view import Laid, PagesView
from wide_margin.desktop.read_view.passage_pictures import PassagePictures
from wide_margin.desktop.read_view.place_line import PlaceLine
from wide_margin.desktop.read_view.preview import PREVIEW_SCALE, Preview
from wide_margin.desktop.read_view.reaching import Reaching
from wide_margin.desktop.read_view.selection_tab import COMMANDS, SelectionTab
from wide_margin.desktop.read_view.spine import Spine
from wide_margin.desktop.reader import Reader
from wide_margin.desktop.words import Words, agrees, menu_text, word_button

Act = tuple[str, Callable[[], object]]
"""A word that can be acted on, and what it does."""
_NO_OUTLINE, _NO_LABELS = Outline(), PageLabels(())


class ReadView(QWidget):
    """Everything of reading one document. ``reader`` does the work; this shows it."""

    asked_for_file = Signal()

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self.history = History()
        self.passages = PassagePictures(reader.background, self)
        self.commands = Commands(self)
        self.section = -1
        """Index of the section that is being read."""
        self._n_figures_drawn = 0
        self._start_place: str | None = None
        self._order: list[tuple[int, float, str]] = []
        self._build()
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
        self.tab = SelectionTab(self)
        self.leaders = Leaders(self)
        self.message = Message(self.pages)
        self.preview = Preview(self)
        self._side_by_side = QSplitter(Qt.Orientation.Horizontal)
        self._side_by_side.addWidget(self.pages)
        self._side_by_side.addWidget(self.margin)
        self._side_by_side.setStretchFactor(0, 1)
        self._side_by_side.setSizes([600, 400])
        right = QWidget()
        column = QVBoxLayout(right)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._side_by_side, 1)
        column.addWidget(self._status_line())
        column.addWidget(self.ask_line)
        self._outer = QSplitter(Qt.Orientation.Horizontal)
        self._outer.addWidget(self.contents)
        self._outer.addWidget(right)
        self._outer.setStretchFactor(1, 1)
        self._outer.setSizes([216, 1006])
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
        self.margin.place_by(self._entry_y, self.pages.visible_pages)
        self.margin.place_first_page_by(self._first_page_in_view)
        self.leaders.raise_()
        self.tab.raise_()

    def _status_line(self) -> QWidget:
        """A quiet line above the ask line, with a word to act on where there is something to do."""
        self.status = Words()
        self.status.setContentsMargins(12, 2, 12, 2)
        self._status_word = word_button("")
        self._status_word.hide()
        self._status_row = QWidget()
        self._status_row.setObjectName("statusLine")
        row = QHBoxLayout(self._status_row)
        row.setContentsMargins(0, 0, 12, 0)
        row.addWidget(self.status, 1)
        row.addWidget(self._status_word)
        self._status_row.hide()
        self._status_word.clicked.connect(self._do_offered)
        self._offered: Callable[[], object] = lambda: None
        return self._status_row

    def _connect_reader(self) -> None:
        reader, keeper = self.reader, self.reader.keeper
        reader.opened.connect(self._show_document)
        reader.sized.connect(self.pages.measure_anew)
        reader.sized.connect(self._measure_spine)
        reader.recorded.connect(self._show_place_kept)
        reader.entries_offered.connect(self._offer_entries)
        reader.file_changed.connect(self._offer_new_version)
        reader.failed.connect(self._show_failure)
        reader.read_progress.connect(self._show_progress)
        reader.ready.connect(self._show_read)
        reader.reading_failed.connect(self._show_reading_failed)
        reader.outline.changed.connect(self._show_outline)
        reader.answered.connect(self._answered)
        reader.explained.connect(lambda entry: self.margin.put(entry, is_fresh=True))
        reader.asking.connect(lambda question: self.show_status("Searching the document…"))
        reader.found.connect(self.finding.show)
        reader.problem.connect(self._show_problem)
        reader.told.connect(lambda text: self.show_status(text, for_ms=20000))
        reader.worth_found.connect(self.margin.offer)
        reader.gist_found.connect(self.margin.show_gist)
        reader.worth_unwanted.connect(self.margin.stop_offering)
        keeper.shown.connect(self._show_entries)
        keeper.added.connect(self._entry_added)
        keeper.changed.connect(self._entry_changed)
        keeper.removed.connect(self._entry_removed)

    def _connect_parts(self) -> None:
        pages, contents, place_line, ask_line = (
            self.pages, self.contents, self.place_line, self.ask_line,
        )  # fmt: skip
        pages.scrolled.connect(self._pages_moved)
        pages.scrolled_by_hand.connect(self.margin.see_no_more)
        pages.place_changed.connect(self._place_changed)
        pages.selection_changed.connect(self._move_tab)
        pages.selection_made.connect(self._move_tab)
        pages.letter_pressed.connect(self.commands.act)
        pages.retry_asked.connect(pages.images.retry)
        pages.link_clicked.connect(self._follow_link)
        pages.region_cut.connect(self.commands.cut)
        pages.menu_asked.connect(self._show_menu)
        self.margin.more_asked.connect(contents.show_entries_list)
        self.margin.moved.connect(self.draw_leaders)
        self.spine.went.connect(self._scrub)
        self.spine.pointed.connect(self._preview)
        self.spine.left.connect(self.preview.hide)
        self.spine.stroke_chosen.connect(self.held.follow_stroke)
        self.spine.dot_chosen.connect(self._go_to_dot)
        contents.section_chosen.connect(self.go_to_section)
        contents.figure_chosen.connect(self.go_to_figure)
        contents.figures_shown.connect(self._draw_next_figure)
        contents.entry_chosen.connect(self.go_to_entry)
        contents.hit_chosen.connect(self.finding.go_to)
        place_line.back_asked.connect(self.go_back)
        place_line.forward_asked.connect(self.go_forward)
        place_line.page_typed.connect(self.go_to_typed)
        place_line.find_typed.connect(self.finding.type)
        place_line.find_stepped.connect(self.finding.step)
        place_line.find_ended.connect(pages.setFocus)
        ask_line.asked.connect(self.commands.ask)
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
        for part in (self.pages, self.spine, self.contents, self.margin, self.preview):
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
        self._show_entries()
        self.show_status("Reading the document…")
        self.pages.setFocus()
        self._place_changed(*(self.pages.reading_place() or (0, 0.0)))

    def _show_place_kept(self) -> None:
        """Go where reading stopped, unless the reader has gone somewhere already."""
        record = self.reader.record
        untouched = self.pages.verticalScrollBar().value() < 100 and not self.history.behind
        if record is not None and self._start_place is None and untouched:
            self.pages.go_to(record.last_page, record.last_y)

    def _offer_new_version(self) -> None:
        self.show_status(
            "The file was changed on disk.", act=("Read it again", self.reader.read_again)
        )

    def _offer_entries(self, n_entries: int) -> None:
        said = f"Another version of this document has {counted(n_entries, 'entry', 'entries')}."
        self.show_status(said, act=("Take them over", self.reader.take_offered))

    def _show_failure(self, error: WideMarginError) -> None:
        self.pages.show_document(None, None)
        self.margin.show_entries([])
        self.margin.stop_offering()
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
        self._show_dots()
        self.ask_line.set_model(is_there=self.reader.composer.has_model)
        self.ask_line.complete_with([section.title for section in outline.sections])
        self.ask_line.resolve_with(lambda text: read_place(text, summary.labels, outline))
        self.section = -2
        if place := self.pages.reading_place():
            self._place_changed(*place)

    def _show_read(self, summary: ReadSummary) -> None:
        self._measure_spine(self.reader.facts)
        self._show_outline(summary.outline)
        labels = summary.labels
        self.contents.show_figures(
            [Row(f.caption, labels.listed(f.page), f) for f in summary.figures]
        )
        self._n_figures_drawn = 0
        self._show_entries()
        self.show_status(_read_sentence(summary), for_ms=8000)
        if self._start_place is not None:
            self.go_to_typed(self._start_place)
            self._start_place = None
        self._pages_moved()
        if not summary.n_sentences:
            self.margin.stop_offering()
            self.show_status(
                "This document has no text that can be read: it can be looked at, not searched."
            )
        self.finding.find_again()

    def _show_reading_failed(self, error: WideMarginError) -> None:
        self.contents.show_outline(_NO_OUTLINE, _NO_LABELS)
        self.margin.stop_offering()
        self.show_status(f"{error.message} {error.hint}")

    def show_status(self, text: str, *, for_ms: int = 0, act: Act | None = None) -> None:
        """Say something quietly above the ask line, for a while or until told otherwise.

        Args:
            text: What is said; nothing hides the line.
            for_ms: Milliseconds; 0 until something else is said.
            act: A word, and what it does, where something can be done about it.
        """
        self.status.setText(text)
        self._status_row.setVisible(bool(text))
        self._status_word.setVisible(act is not None)
        if act is not None:
            self._status_word.setText(menu_text(act[0]))
            self._offered = act[1]
        if for_ms:
            QTimer.singleShot(for_ms, self.status, lambda: self._end_status(text))

    def _do_offered(self) -> None:
        self.show_status("")
        self._offered()

    def _end_status(self, text: str) -> None:
        if self.status.text() == text:
            self.show_status("")

    def _show_problem(self, error: WideMarginError) -> None:
        self.show_status(f"{error.message} {error.hint}".strip(), for_ms=15000)

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
        pages = summary.labels.find(typed) if summary else _file_page(typed, self.pages.n_pages)
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
        if self.reader.summary:
            section = self.reader.summary.outline.sections[index]
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

    def _draw_next_figure(self) -> None:
        """Draw the pictures of the figures list, one after the other."""
        summary, session = self.reader.summary, self.reader.session
        row = self._n_figures_drawn
        if summary is None or session is None or row >= len(summary.figures):
            return
        figure = summary.figures[row]
        scale = 2 * PICTURE_WIDTH / max(figure.box[2] - figure.box[0], 40.0)
        self._n_figures_drawn += 1
        self.reader.watch(
            session.draw(figure.page, scale, figure.box),
            done=partial(self._figure_drawn, summary, row),
            failed=lambda _: self._draw_next_figure(),
        )

    def _figure_drawn(self, summary: ReadSummary, row: int, picture: Picture) -> None:
        now = self.reader.summary
        if now is not None and summary.figures is now.figures:
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
            self.reader.watch(
                session.draw(page, PREVIEW_SCALE),
                done=partial(self.preview.show_picture, page),
                failed=lambda _: None,  # the page itself tells why it cannot be drawn
            )

    def _go_to_dot(self, index: int) -> None:
        if 0 <= index < len(self._order):
            self.go_to_entry(self._order[index][2])

    def _place_changed(self, page: int, y: float) -> None:
        summary = self.reader.summary
        labels = summary.labels if summary else _NO_LABELS
        last = next((x for x in reversed(labels.labels) if x), None)
        self.place_line.show_place(labels.of(page), page, self.pages.n_pages, last)
        if summary is None:
            self.place_line.path.show_path([])
            return
        section = summary.outline.at_place(page, y)
        if section != self.section:
            self.section = section
            self.place_line.path.show_path(list(summary.outline.path(section)))
            self.contents.follow(section)
            self.reaching.offer_section()

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

    def _measure_spine(self, facts: FileFacts | None) -> None:
        if facts is not None:
            self.spine.measure([float(height) for height in facts.sizes[:, 1]])

    def spine_place(self, place: Locator) -> float:
        """A place in pages from the start, by where its first character lies on its page."""
        layer = self.pages.images.layer(place.page) if place.spans else None
        if layer is not None and self.reader.facts is not None:
            span = place.spans[0]
            top = float(layer.page.boxes[span.start : span.end, 1].min(initial=1e9))
            if top < 1e8:
                return float(place.page) + top / float(self.reader.facts.sizes[place.page, 1])
        return float(place.page) + 0.5

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

    # --- the selection, links and the menu

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

    def _show_menu(self, where: QPoint) -> None:
        """What can be done with the selection, or here."""
        menu = QMenu(self)
        if self.pages.has_selection:
            menu.addAction("Copy", self.pages.copy)
            menu.addAction("Copy with its place", self.commands.copy_with_citation)
            menu.addSeparator()
            for name, letter, _ in COMMANDS:
                menu.addAction(name, partial(self.commands.act, letter))
            menu.addSeparator()
            menu.addAction("Start a section here", self.commands.start_section)
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
        return agrees(self, "Leave the document?", f"Open this address?\n\n{address}")

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

    def _entry_added(self, entry: Entry) -> None:
        self.margin.put(entry, is_fresh=entry.kind is not EntryKind.QUESTION)
        at = bisect_left(self._order, place := _place_of(entry))
        self._order.insert(at, place)
        self.contents.put_entry(at, self._entry_row(entry))
        self._show_dots()
        if entry.kind is EntryKind.MARK:
            self._lay_marks()

    def _entry_changed(self, entry: Entry) -> None:
        self.margin.put(entry)
        self.held.show_changed(entry)
        at = next((k for k, (_, _, known) in enumerate(self._order) if known == entry.id), -1)
        if at < 0 or self._order[at] != _place_of(entry):
            self._list_entries()
        else:
            self.contents.change_entry(at, self._entry_row(entry))

    def _entry_removed(self, entry_id: str) -> None:
        if self.margin.held is not None and self.margin.held.entry.id == entry_id:
            self.held.let_go()
        self.margin.take(entry_id)
        at = next((k for k, (_, _, known) in enumerate(self._order) if known == entry_id), -1)
        if at >= 0:
            del self._order[at]
            self.contents.take_entry(at)
        self._show_dots()
        self._lay_marks()
        self.show_status("Deleted. Ctrl+Z brings it back.", for_ms=8000)

    def _show_entries(self) -> None:
        """All entries, as they are now."""
        self.margin.show_entries(list(self.reader.entries.values()))
        self._list_entries()

    def _list_entries(self) -> None:
        entries = self.reader.entries
        self._order = sorted(map(_place_of, entries.values()))
        self.contents.show_entries([self._entry_row(entries[key]) for *_, key in self._order])
        self._show_dots()
        self._lay_marks()

    def _entry_row(self, entry: Entry) -> Row:
        summary = self.reader.summary
        labels = summary.labels if summary else _NO_LABELS
        title = f"{entry.kind.capitalize()}: {entry.headline}"
        if entry.anchor.is_lost:
            return Row(title, "no place", entry.id)
        return Row(title, labels.listed(entry.anchor.page), entry.id)

    def _show_dots(self) -> None:
        self.spine.show_dots([page + 0.5 for page, _, _ in self._order])

    def _lay_marks(self) -> None:
        marks = (e for e in self.reader.entries.values() if e.kind is EntryKind.MARK)
        self.pages.lay("marks", [Laid(mark.anchor.spans, "hits") for mark in marks])

    def go_to_entry(self, entry_id: str) -> None:
        """Go where an entry stands; an answer is held."""
        entry = self.reader.entries.get(entry_id)
        if entry is None:
            return
        if entry.kind is EntryKind.QUESTION:
            self.held.hold(entry_id)
            self.held.follow(entry_id, 0)
            return
        self.leave_place()
        self.margin.put(entry, is_fresh=True)
        if entry.anchor.spans:
            self.pages.reveal(entry.anchor.spans)
        else:
            self.pages.go_to(entry.anchor.page, max(entry.anchor.y, 0.0))

    # --- leaders

    def draw_leaders(self) -> None:
        """Join the cards in view to their passages."""
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

        if (here := self.held.here) is not None and here.spans:
            join(here.spans, QPoint(left.x() + 16, left.y() + 40), self.colours.madder)
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


def _place_of(entry: Entry) -> tuple[int, float, str]:
    """Where an entry comes in the order of places."""
    return entry.anchor.page, entry.anchor.y, entry.id


_PARTS_NAMED = {"labels": "page labels", "bookmarks": "bookmarks", "about": "title and author"}


def _read_sentence(summary: ReadSummary) -> str:
    """What was read, in one sentence."""
    n = len(summary.outline.sections)
    parts = [counted(summary.n_pages, "page")]
    parts.append(
        counted(n, "part by pages", "parts by pages")
        if summary.outline.is_by_pages
        else counted(n, "section")
    )
    if summary.without_text:
        parts.append(f"{counted(len(summary.without_text), 'page')} without text")
    if summary.failed:
        parts.append(f"{len(summary.failed)} that could not be read")
    said = f"Read: {', '.join(parts)}."
    if summary.left_out:
        names = ", ".join(_PARTS_NAMED.get(part, part) for part in summary.left_out)
        said += f" The file’s {names} could not be read and are left out."
    return said


def _file_page(typed: str, n_pages: int) -> list[int]:
    digits = typed.lower().removeprefix("file").strip().removeprefix("page").strip()
    is_number = digits.isascii() and digits.isdigit() and len(digits) < 9
    return [int(digits) - 1] if is_number and 0 < int(digits) <= n_pages else []
