"""A second place beside the first: of the same document, or of another file."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QFileDialog, QFrame, QHBoxLayout, QMenu, QVBoxLayout

from wide_margin.core.digest.sides import names_places
from wide_margin.core.errors import PasswordNeededError
from wide_margin.core.margin import Anchor, QuestionBody, question_entry
from wide_margin.core.outline import Outline
from wide_margin.core.outline.titles import squash
from wide_margin.core.plain import one_line
from wide_margin.core.session import Session
from wide_margin.desktop.read_view.ask_beside import AskBeside
from wide_margin.desktop.read_view.page_painting import Laid
from wide_margin.desktop.read_view.pages_view import PagesView
from wide_margin.desktop.words import Words, ask_text, set_tip, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import Figure, Locator
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.margin import Entry
    from wide_margin.core.pages import FileFacts
    from wide_margin.core.session import ReadSummary
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.read_view import ReadView

FREELY, BY_PAGE, BY_SECTION = "freely", "by page", "by section"
READING = 0.25
"""Where in the view is read, as a share of its height: see DeskView.reading_place."""
LEAST_WIDTH, MARGIN = 260, 300
"""Pixels of each place at least, and of the margin beside two of them."""


class Beside(QFrame):
    """Pages of their own at the right of the others; hidden until they are wanted."""

    def __init__(self, view: ReadView) -> None:
        super().__init__()
        self._view = view
        self.setObjectName("beside")
        self.setMinimumWidth(LEAST_WIDTH)
        self.together = FREELY
        self.session: Session | None = None
        """Of another file; None while it is the same document."""
        self.outline = Outline()
        self._facts: FileFacts | None = None
        self._apart = 0
        """Pages that this place is further on than the other one."""
        self._is_moving = False
        self.pages = PagesView(view.reader.background)
        self.pages.setAccessibleName("Pages beside")
        self.place = Words("", role="secondary")
        self.mode_button = word_button("", "How the two places move")
        menu = QMenu(self.mode_button)
        for mode in (FREELY, BY_PAGE, BY_SECTION):
            menu.addAction(f"scroll {mode}", partial(self.move_together, mode))
        self.mode_button.setMenu(menu)
        other = word_button("Another file…", "Show another edition beside")
        other.clicked.connect(self._ask_which)
        close = word_button("Close", "One place alone again (Ctrl+B)")
        close.clicked.connect(self.close_it)
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        row.addWidget(self.place, 1)
        for button in (self.mode_button, other, close):
            row.addWidget(button)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(row)
        column.addWidget(self.pages, 1)
        self.asking = AskBeside(view.reader.background, view.colours)
        self.asking.place_asked.connect(self._read_place)
        self.asking.answered.connect(self._keep)
        column.addWidget(self.asking)
        self.pages.place_changed.connect(self._show_place)
        self.pages.link_clicked.connect(self._follow_link)
        view.pages.place_changed.connect(self._other_moved)
        view.reader.opened.connect(lambda _: self.close_it())
        view.reader.answered.connect(self.show_compared)
        self.move_together(FREELY)
        self.hide()

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.pages.wear(colours)
        self.asking.wear(colours)

    # --- opening and closing

    def toggle(self) -> None:
        """Show the place that is read beside itself, or put it away."""
        if self.isVisible():
            self.close_it()
        else:
            self.show_place(*self._view.here())

    def show_place(self, page: int, y: float = 0.0) -> None:
        """Show a place of the same document beside the one that is read."""
        reader = self._view.reader
        if reader.session is None or reader.facts is None:
            return
        if self.session is not None or not self.isVisible():
            self._end_session()
            self.outline = reader.outline.outline
            self._open(reader.session, reader.facts)
        self.pages.go_to(page, max(y - 8, 0.0))
        self._measure()

    def show_compared(self, entry: Entry) -> None:
        """Show the second of two sections that a question compares, its words marked."""
        body = entry.body
        if not isinstance(body, QuestionBody) or not names_places(body.question):
            return
        places = [quote.locators[0] for quote in body.quotes if quote.locators]
        other = next((p for p in places if p.path != places[0].path), None)
        if other is not None and other.spans:
            self.show_place(other.page, max(other.y, 0.0))
            self.pages.lay("evidence", [Laid(other.spans, "tint", bar=True)])
            self.pages.reveal(other.spans)

    def show_section(self, index: int) -> None:
        """Show a section beside, by its place in the outline."""
        section = self._view.reader.outline.outline.sections[index]
        self.show_place(section.page, section.y)

    def show_figure(self, figure: Figure) -> None:
        """Show a figure or table beside."""
        self.show_place(figure.page, figure.box[1] - 20)

    def show_file(self, path: Path, password: str | None = None) -> None:
        """Show another file beside, at the page that is read."""
        self._end_session()
        session = self.session = Session(path)
        reader = self._view.reader

        def opened(facts: FileFacts) -> None:
            if self.session is session:
                self._open(session, facts)
                self.pages.go_to(min(self._view.here()[0], facts.n_pages - 1))
                self._measure()
                reader.background.watch(session.read(), done=read, failed=not_all)

        def read(summary: ReadSummary) -> None:
            if self.session is session:
                self.outline = summary.outline
                self.asking.serve(session)

        def not_all(error: WideMarginError) -> None:
            self._view.show_status(f"{error.message} It cannot follow by section.", for_ms=9000)

        def failed(error: WideMarginError) -> None:
            if self.session is not session:
                return
            if isinstance(error, PasswordNeededError):
                given = ask_text(self._view, "Password", error.message, is_secret=True)
                if self.session is not session:  # another file was chosen while it was asked
                    return
                if given is not None:
                    self.show_file(path, given)
                    return
            self._view.show_status(f"{error.message} {error.hint}", for_ms=12000)
            self.close_it()

        reader.background.watch(session.open(password), done=opened, failed=failed)

    def _open(self, session: Session, facts: FileFacts) -> None:
        self._facts = facts
        self.pages.show_document(session, facts)
        self.show()
        self._view.facing.close_it()
        self._view.panels.share(self, LEAST_WIDTH, MARGIN)
        QTimer.singleShot(0, self, self._fit)

    def _fit(self) -> None:
        """Both places as wide as there is room."""
        self.pages.fit_width()
        self._view.pages.fit_width()

    def close_it(self) -> None:
        """Show one place alone again."""
        was_visible = self.isVisible()
        self.hide()
        self.pages.show_document(None, None)
        self._end_session()
        if was_visible:
            self._view.pages.fit_width()

    def _end_session(self) -> None:
        session, self.session = self.session, None
        self.asking.serve(None)
        if session is not None:
            session.close()

    # --- what is asked of another file

    def _read_place(self, place: Locator) -> None:
        """Show a place that an answer names, its words marked."""
        self.pages.lay("evidence", [Laid(place.spans, "tint", bar=True)])
        if place.spans:
            self.pages.reveal(place.spans)
        else:
            self.pages.go_to(place.page, max(place.y - 8, 0.0))

    def _keep(self, answer: Answer) -> None:
        """Keep an answer with the file that gave it, as an entry of that file."""
        session, facts, reader = self.session, self._facts, self._view.reader
        if session is None or facts is None:
            return
        entry = question_entry(answer, Anchor(0, 0.0))
        title, path, store = facts.title or session.path.stem, session.path, reader.store

        def put(sha256: str) -> int:
            record = store.record_for(sha256, path, facts.identity, title)
            store.put(record.id, entry)
            return record.id

        def failed(error: WideMarginError) -> None:
            self._view.show_status(f"{error.message} {error.hint}", for_ms=9000)

        def told(record: int) -> None:
            reader.keeper.tell_others(self, record, entry)

        def known(sha256: str) -> None:
            reader.watch(store.later(put, sha256), done=told, failed=failed)

        reader.background.watch(session.fingerprint(), done=known, failed=failed)

    def _ask_which(self) -> None:
        path = self._view.reader.path
        start = str(path.parent) if path else ""
        name, _ = QFileDialog.getOpenFileName(self, "Another file beside", start, "PDF (*.pdf)")
        if name:
            self.show_file(Path(name))

    # --- moving together

    def move_together(self, mode: str) -> None:
        """Let both places move freely, by the page, or by the section."""
        self.together = mode
        set_word(self.mode_button, f"scroll {mode} ▾")
        self._measure()

    def _measure(self) -> None:
        here, there = self._view.pages.reading_place(), self.pages.reading_place()
        self._apart = there[0] - here[0] if here and there else 0

    def _other_moved(self, page: int, y: float) -> None:
        """The place that is read has moved: this one follows, if they move together."""
        if not self.isVisible() or self._is_moving or not self.pages.n_pages:
            return
        if self.together == BY_PAGE:
            wanted = min(max(page + self._apart, 0), self.pages.n_pages - 1)
            self.pages.go_to(wanted, y, view_y=READING * self.pages.viewport().height())
        elif self.together == BY_SECTION:
            self._follow_section(page, y)

    def _follow_section(self, page: int, y: float) -> None:
        """Go to the section of the same heading; where there is none, stay."""
        own = self._view.reader.outline.outline
        at = own.at_place(page, y)
        if at < 0:
            return
        wanted = squash(own.sections[at].title)
        found = next((s for s in self.outline.sections if squash(s.title) == wanted), None)
        now = self.pages.place_at(30.0)
        if found is not None and now is not None:
            here = self.outline.at_place(*now)
            if here < 0 or self.outline.sections[here] is not found:
                self.pages.go_to(found.page, max(found.y - 8, 0.0))

    def _show_place(self, page: int, y: float) -> None:
        name = self.session.path.name if self.session is not None else ""
        summary = self._view.reader.summary
        same = self.session is None and summary is not None
        shown = summary.labels.shown(page) if same and summary else f"file page {page + 1}"
        at = self.outline.at_place(page, y)
        title = self.outline.sections[at].title if at >= 0 else ""
        whole = "  ".join(part for part in (name, shown, title) if part)
        room = max(self.place.width() - 6, 60)
        elide = Qt.TextElideMode.ElideRight
        self.place.setText(self.place.fontMetrics().elidedText(one_line(whole), elide, room))
        set_tip(self.place, whole)

    def _follow_link(self, link: object) -> None:
        page = getattr(link, "page", None)
        if page is not None:
            self.pages.go_to(page, max((getattr(link, "y", 0.0) or 0.0) - 8, 0.0))
