"""The Digest view: spine, page of the digest, and the passage that is pointed at."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QImage, QResizeEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QStackedWidget, QVBoxLayout, QWidget

from wide_margin.core.answers import WHOLE, Reach, pages_reach, section_reach
from wide_margin.core.digest import as_csv, fields_of
from wide_margin.core.export import export_digest
from wide_margin.core.export.saving import save_whole
from wide_margin.core.margin import kept_spans
from wide_margin.core.session import DigestRequest
from wide_margin.core.translate import LANGUAGES
from wide_margin.desktop.digest_view.own_fields import OwnFields
from wide_margin.desktop.digest_view.page import BESIDE_TEXT, DigestPage
from wide_margin.desktop.digest_view.rows import PARTS, excerpts_of, gist_rows, rows_of
from wide_margin.desktop.digest_view.strip import TEST, DigestStrip
from wide_margin.desktop.digest_view.testing import Testing
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.picture_frame import PictureFrame
from wide_margin.desktop.read_view.passage_pictures import PassagePictures
from wide_margin.desktop.read_view.spine import Spine
from wide_margin.desktop.status_line import StatusLine
from wide_margin.desktop.words import Words, WrappedWords, ask_text

if TYPE_CHECKING:
    from wide_margin.core.digest import Digest, DocumentKind, GistLine
    from wide_margin.core.document import Locator
    from wide_margin.core.errors import WideMarginError
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.reader import Reader

SIDE, LEAST_SIDE = 380, 240
"""Pixels of the picture of a place, and how many it has at least."""
GOOD_TEXT, LEAST_TEXT = 440, 300
"""Pixels of the text that the picture leaves to it, and those below which there is no picture."""
PASSAGE = 305.0, 330.0
"""Points of a page that are shown of a passage, at least and at most."""
_FORMATS = {
    "Markdown (*.md)": "md", "HTML (*.html)": "html", "Word (*.docx)": "docx",
    "JSON (*.json)": "json", "Facts and fields (*.csv)": "csv",
}  # fmt: skip


class _Side(QWidget):
    """The picture of a place, what is said over it and what can be done."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("digestSide")
        self.setFixedWidth(SIDE)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 24, 16, 16)
        column.setSpacing(8)
        self.where = WrappedWords("", sans_font(-0.5), role="secondary")
        self.where.setFixedHeight(3 * self.where.fontMetrics().height())
        self.picture = PictureFrame(highest=320)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignHCenter)
        self.hint = WrappedWords("", sans_font(-0.5), role="secondary")
        for part in (self.where, self.picture, self.hint):
            column.addWidget(part)
        column.addStretch(1)


class DigestView(QWidget):
    """Made when it is first turned to, and again when reach or kind change."""

    followed = Signal(object)  # Locator
    section_followed = Signal(int)
    compose_asked = Signal(str, object)  # question, Reach
    lines_to_compose = Signal(str, str, object, object)  # question, part, excerpts, Reach

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self.digest: Digest | None = None
        self.reach = WHOLE
        self.kind: DocumentKind | None = None
        """As the reader has chosen it."""
        self.selection: Reach | None = None
        self.section = -1
        """Where the reader is in Read: what "this section" means."""
        self._opened: frozenset[int] = frozenset()
        self._is_wanted = self._is_gist_wanted = self._is_gist_coming = False
        self.own_fields = OwnFields(self)
        self._passages = PassagePictures(reader.background, self)
        self._build()
        self._connect()
        self._forget()
        if reader.reading_error is not None:
            self._say_empty(reader.reading_error.message)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """The picture gives way to the text in a narrow window, and goes where there is no room."""
        room = self.width() - self.spine.width() - BESIDE_TEXT
        self.side.setVisible(room >= LEAST_TEXT + LEAST_SIDE)
        self.side.setFixedWidth(max(min(room - GOOD_TEXT, SIDE), LEAST_SIDE))
        super().resizeEvent(event)

    # --- building

    def _build(self) -> None:
        self.spine = Spine()
        self.page, self.testing = DigestPage(), Testing()
        self.strip = DigestStrip()
        self.empty = Words("Reading the document…", role="secondary")
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.empty.setWordWrap(True)
        self.middle = QStackedWidget()
        for part in (self.empty, self.page, self.testing):
            self.middle.addWidget(part)
        self.side = _Side()
        self.where, self.picture, self.hint = self.side.where, self.side.picture, self.side.hint
        below = QHBoxLayout()
        below.setSpacing(0)
        below.addWidget(self.spine)
        below.addWidget(self.middle, 1)
        below.addWidget(self.side)
        self.status = StatusLine()
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.strip)
        whole.addLayout(below, 1)
        whole.addWidget(self.status)

    def _connect(self) -> None:
        reader = self.reader
        reader.opened.connect(lambda _: self._forget())
        reader.ready.connect(lambda _: self._make_if_seen())
        reader.recorded.connect(self._begin_test)
        reader.reading_failed.connect(lambda error: self._say_empty(error.message))
        self.page.pointed.connect(self.point_at)
        self.testing.pointed.connect(self._point_at_answer)
        for part in (self.page, self.testing):
            part.followed.connect(self.followed)
        self.page.section_followed.connect(self.section_followed)
        self.page.toggled.connect(self.toggle_section)
        self.testing.judged.connect(self._keep_judged)
        strip = self.strip
        strip.part_chosen.connect(self.go_to_part)
        strip.length_changed.connect(self._length_changed)
        strip.kind_chosen.connect(self.choose_kind)
        strip.fields_wanted.connect(self.own_fields.write)
        strip.compose_asked.connect(self._compose)
        strip.save_asked.connect(self.ask_where_to_save)
        strip.reach_menu.aboutToShow.connect(self._offer_reaches)
        self.spine.stroke_chosen.connect(self._choose_stroke)
        self.spine.went.connect(self._go_to_share)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        self.spine.wear(colours)
        self.page.wear(colours)
        current = self.page.current()
        self.point_at(current.locator if current else None)

    # --- making it

    def showEvent(self, event: object) -> None:
        """It is made when it is first seen."""
        self._offer_composing()
        self._make_if_seen()
        (self.testing if self.middle.currentWidget() is self.testing else self.page).setFocus()

    def _offer_composing(self) -> None:
        reader, title = self.reader, self.digest.facts.title if self.digest else None
        language = LANGUAGES[reader.translator.target] if reader.composer.has_model else ""
        self.strip.offer_composing(title.text if title else "", language)

    def _compose(self, part: str, question: str) -> None:
        """Have a part of the digest written by the model."""
        summary = self.reader.summary
        if part == "Gist" or self.digest is None or summary is None:
            self.compose_asked.emit(question, self.reach)
        else:
            lines = excerpts_of(self.digest, summary.outline, part)
            if not lines:
                self.say(f"“{part}” has no lines to compose from.")
                return
            self.lines_to_compose.emit(question, part, lines, self.reach)

    def _forget(self) -> None:
        self.digest, self.reach, self.kind = None, WHOLE, None
        self.selection, self.section, self._opened = None, -1, frozenset()
        self._is_gist_coming = self._is_gist_wanted = False
        self.own_fields.forget()
        self._passages.drop()
        self.point_at(None)
        self.testing.begin((), {}, lambda _: "")
        self._say_empty("Reading the document…")

    def _say_empty(self, text: str) -> None:
        self.empty.setText(text)
        self.middle.setCurrentWidget(self.empty)
        self.strip.enable(on=False)

    def _make_if_seen(self) -> None:
        if self.isVisible() and self.digest is None and self.reader.is_ready:
            self.make()

    def make(self) -> None:
        """Make the digest of the reach, read as the kind."""
        session = self.reader.session
        if session is None or not self.reader.is_ready:
            return
        if self.digest is None:
            self._say_empty("The digest is being made…")
        request = DigestRequest(self.reach, self.strip.length.value(), kind=self.kind)
        self.reader.watch(session.digest(request), done=self._made, failed=self._not_made)

    def _made(self, digest: Digest) -> None:
        is_first = self.digest is None
        self.digest = digest
        summary, facts = self.reader.summary, self.reader.facts
        assert summary is not None
        assert facts is not None
        self.page.n_pages = summary.n_pages
        self.spine.show_document(summary.n_pages, summary.outline, summary.labels)
        self.spine.measure(facts.heights)
        self.strip.show_kind(digest.kind)
        self.strip.show_reach(self.reach)
        self._offer_composing()
        self._show()
        self.own_fields.ask()
        if is_first:
            self._begin_test()
            self.strip.enable(on=True)
            self.middle.setCurrentWidget(self.page)
            self.page.setFocus()
            self.strip.mark_part(PARTS[0])

    def _not_made(self, error: WideMarginError) -> None:
        if self.digest is None:
            self._say_empty(f"{error.message} {error.hint}".strip())
        else:
            self.say(error.message)

    def _show(self) -> None:
        summary = self.reader.summary
        if self.digest is None or summary is None:
            return
        self.page.show_rows(rows_of(
            self.digest, summary.outline, summary.labels, self._opened, self.own_fields.fields
        ))  # fmt: skip
        self.spine.show_strokes([(self._place(line.locator), True) for line in self.digest.gist])

    def _place(self, at: Locator) -> float:
        """Pages from the start, as the spine counts them."""
        facts = self.reader.facts
        if facts is None or at.y < 0:
            return at.page + 0.5
        return at.page + at.y / facts.sizes[at.page][1]

    # --- length, reach, kind

    def _length_changed(self) -> None:
        self._is_gist_wanted = True
        self._ask_for_gist()

    def _ask_for_gist(self) -> None:
        """One gist is on its way at a time; the last length that was chosen comes next."""
        session = self.reader.session
        if session is None or self.digest is None or self._is_gist_coming:
            return
        self._is_gist_wanted, self._is_gist_coming = False, True
        request = DigestRequest(self.reach, self.strip.length.value(), kind=self.kind)
        self.reader.watch(session.gist(request), done=self._gist_made, failed=self._gist_failed)

    def _gist_made(self, gist: tuple[GistLine, ...]) -> None:
        self._is_gist_coming = False
        if self.digest is not None:
            rows = self.page.lines.rows
            others = [row for row in rows if row.part != "Gist"]
            first = next(k for k, row in enumerate(rows) if row.part == "Gist")
            made = gist_rows(gist, self.reach.name)
            self.page.show_rows([*others[:first], *made, *others[first:]])
            self.spine.show_strokes([(self._place(line.locator), True) for line in gist])
        if self._is_gist_wanted:
            self._ask_for_gist()

    def _gist_failed(self, error: WideMarginError) -> None:
        self._is_gist_coming = False
        self.say(error.message)

    def _offer_reaches(self) -> None:
        menu, summary = self.strip.reach_menu, self.reader.summary
        menu.clear()
        menu.addAction("Whole document", partial(self.set_reach, WHOLE))
        if summary is not None and 0 <= self.section < len(summary.outline.sections):
            here = section_reach(summary.outline.sections[self.section])
            menu.addAction("The section you are in", partial(self.set_reach, here))
        row = self.page.current()
        if summary is not None and row is not None and row.section >= 0:
            chosen = section_reach(summary.outline.sections[row.section])
            menu.addAction("The section chosen below", partial(self.set_reach, chosen))
        if self.selection is not None:
            menu.addAction("The selection", partial(self.set_reach, self.selection))
        if kept := kept_spans(self.reader.entries.values()):
            reach = Reach("kept", name="what was kept", spans=kept)
            menu.addAction("What was kept", partial(self.set_reach, reach))
        menu.addAction("Pages…", self._ask_for_pages)

    def _ask_for_pages(self) -> None:
        summary = self.reader.summary
        typed = ask_text(self, "Gist of pages", "Pages by their printed numbers, such as 40-60:")
        if summary is None or not typed or not typed.strip():
            return
        reach = pages_reach(summary.labels, summary.n_pages, typed)
        if reach is None:
            self.say(f"There are no pages “{typed}”: type them as 40-60.")
        else:
            self.set_reach(reach)

    def set_reach(self, reach: Reach) -> None:
        """Make the gist and the parts by kind of another reach."""
        self.reach = reach
        self.make()

    def choose_kind(self, kind: DocumentKind) -> None:
        """Read it as another kind of document."""
        self.kind = kind
        self.make()

    # --- moving about

    def go_to_part(self, part: str) -> None:
        """Show a part of the digest."""
        self.strip.mark_part(part)
        if part == TEST:
            self.middle.setCurrentWidget(self.testing)
            self.testing.pointed.emit(None)
            self.testing.setFocus()
            return
        self.middle.setCurrentWidget(self.page)
        self.page.go_to_part(part)
        self.page.setFocus()

    def toggle_section(self, section: int) -> None:
        """Open a section or close it."""
        self._opened = self._opened ^ {section}
        self._show()

    def point_at(self, locator: Locator | None) -> None:
        """Show a passage in the fixed place at the right."""
        session = self.reader.session
        self._passages.drop()
        if locator is None or session is None:
            self.where.setText("")
            self.picture.wait_for("Passage")
            self.hint.setText("What is pointed at shows here as it is printed.")
            return
        path = " / ".join(locator.path)
        place = self._place(locator)
        self.spine.show_view(place, place)
        self.where.setText(f"{locator.shown}\n{path}" if path else locator.shown)
        self.hint.setText("Return or a click reads it there.")

        def show(image: QImage) -> None:
            self.picture.show_image(image)

        self._passages.want(session, locator.spans, self.colours, show, PASSAGE)

    def _point_at_answer(self, locator: Locator | None) -> None:
        """Show where an answer stands; a test that begins unseen clears nothing."""
        if self.middle.currentWidget() is self.testing:
            self.point_at(locator)

    def _choose_stroke(self, index: int) -> None:
        strokes = [
            row.locator for row in self.page.lines.rows if row.part == "Gist" and row.locator
        ]
        if 0 <= index < len(strokes):
            self.middle.setCurrentWidget(self.page)
            self.page.choose(strokes[index])

    def _go_to_share(self, share: float) -> None:
        """A press on the spine chooses the section there."""
        summary = self.reader.summary
        if summary is None or self.digest is None:
            return
        place = share * summary.n_pages
        page = min(int(place), summary.n_pages - 1)
        section = summary.outline.at_place(page, 1e6)
        for k, row in enumerate(self.page.lines.rows):
            if row.section == section >= 0:
                self.page.setCurrentIndex(self.page.lines.index(k))
                return

    # --- testing oneself

    def _begin_test(self) -> None:
        record, digest = self.reader.record, self.digest
        if record is None or digest is None:
            return
        store, outline = self.reader.store, self.reader.outline.found

        def name(section: int) -> str:
            """The chapter it stands in."""
            path = outline.path(section) if 0 <= section < len(outline.sections) else ()
            return path[0] if path else ""

        self.reader.watch(
            store.later(store.tested, record.id),
            done=lambda known: self.testing.begin(digest.test, known, name),
            failed=lambda _: self.testing.begin(digest.test, {}, name),
        )

    def _keep_judged(self, question: str, known: bool) -> None:
        record, store = self.reader.record, self.reader.store
        if record is not None:
            self.reader.watch(
                store.later(store.keep_tested, record.id, question, known=known),
                done=lambda _: None, failed=lambda error: self.say(error.message),
            )  # fmt: skip

    # --- saving

    def ask_where_to_save(self) -> None:
        """Ask for a name, then write."""
        path = self.reader.path
        start = str(path.with_suffix(".digest.md")) if path else ""
        name, kind = QFileDialog.getSaveFileName(
            self, "Save the digest", start, ";;".join(_FORMATS)
        )
        if name:
            suffix = Path(name).suffix.lstrip(".").lower()
            form = suffix if suffix in _FORMATS.values() else _FORMATS.get(kind, "md")
            self.save(Path(name), form)

    def save(self, path: Path, form: str) -> None:
        """Write the digest in a format, off the UI thread."""
        digest, summary, fields = self.digest, self.reader.summary, self.own_fields.fields
        if digest is None or summary is None:
            return

        def write(*_: object) -> None:
            if form == "csv":
                made = as_csv([*fields_of(digest.facts), *fields]).encode()
            else:
                made = export_digest(digest, summary.outline, form)
            save_whole(path, made)

        self.reader.background.submit(
            write,
            done=lambda _: self.say(f"The digest is in {path}."),
            failed=lambda error: self.say(f"{error.message} {error.hint}".strip()),
        )

    def say(self, text: str) -> None:
        """Say something below for a while."""
        self.status.say(text, for_ms=8000)
