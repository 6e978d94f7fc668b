"""The Map view: strip, the document to scale, and the section that is pointed at."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QTimer, Signal
from PySide6.QtGui import QImage, QShowEvent
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QMenu, QScrollArea, QVBoxLayout, QWidget

from wide_margin.core.document import Locator
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.saving import save_whole
from wide_margin.core.margin import QuestionBody, Scope
from wide_margin.core.plain import counted, one_line
from wide_margin.desktop.look import DAY
from wide_margin.desktop.map_view.canvas import MapCanvas
from wide_margin.desktop.map_view.model import MOST_TERMS, MapModel, TermColumn
from wide_margin.desktop.map_view.side import MapSide, Row
from wide_margin.desktop.map_view.taking import FORMS, map_as
from wide_margin.desktop.read_view.passage_pictures import PassagePictures
from wide_margin.desktop.status_line import StatusLine
from wide_margin.desktop.words import Words, ask_text, menu_text, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.digest.structure import Occurrence, Related
    from wide_margin.core.explain import SectionExplanation
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.reader import Reader

FIRST_TERMS, OFFERED = 3, 24
PAUSE_MS = 120
"""How long a section is pointed at before it is told of."""
PASSAGE = 110.0, 150.0
ZOOMS = (1.0, 1.5, 2.0, 3.0, 4.5, 7.0, 10.0)
LONGEST_TERM = 60


class MapView(QWidget):
    """The document to scale."""

    section_followed = Signal(int)
    passage_followed = Signal(object)  # Locator
    reach_chosen = Signal(int)  # section

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self.model = MapModel()
        self._zoom = 0
        self._held: tuple[Locator, ...] = ()
        self._offered: list[str] = []
        self._related: dict[str, tuple[str, ...]] = {}
        """Words that go along with the terms drawn."""
        self._has_references = True
        self._stale = True
        self._passages = PassagePictures(reader.background, self)
        self._pause = QTimer(self)
        self._pause.setSingleShot(True)
        self._pause.setInterval(PAUSE_MS)
        self._pause.timeout.connect(self._tell)
        self._build()
        self._connect()

    # --- building

    def _build(self) -> None:
        self.told = Words("", role="secondary")
        self.levels_button = word_button("", "Choose how many levels are drawn")
        self.levels_button.setMenu(QMenu(self.levels_button))
        self.terms_row = QHBoxLayout()
        self.terms_row.setSpacing(10)
        self.add_button = word_button("+ term", "Draw where another term stands")
        self.add_menu = QMenu(self.add_button)
        self.add_button.setMenu(self.add_menu)
        self.references_button = word_button("", "Lines to the sections it refers to")
        self.references_button.clicked.connect(self.toggle_references)
        self.take_button = word_button("Take away ▾", "Save the map")
        self.take_button.setMenu(QMenu(self.take_button))
        for form, name in FORMS.items():
            self.take_button.menu().addAction(name, partial(self._ask_where, form))
        strip = QWidget()
        strip.setObjectName("strip")
        row = QHBoxLayout(strip)
        row.setContentsMargins(16, 6, 16, 6)
        row.setSpacing(16)
        row.addWidget(self.told)
        row.addWidget(self.levels_button)
        row.addLayout(self.terms_row)
        row.addWidget(self.add_button)
        row.addStretch(1)
        row.addWidget(self.references_button)
        row.addWidget(self.take_button)
        self.canvas = MapCanvas(self.model)
        self.area = QScrollArea()
        self.area.setObjectName("mapArea")
        self.area.setFrameShape(QScrollArea.Shape.NoFrame)
        self.area.setWidget(self.canvas)
        self.area.setWidgetResizable(True)
        self.side = MapSide()
        below = QHBoxLayout()
        below.setSpacing(0)
        below.addWidget(self.area, 1)
        below.addWidget(self.side)
        self.status = StatusLine()
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(strip)
        whole.addLayout(below, 1)
        whole.addWidget(self.status)
        self.setFocusProxy(self.canvas)
        self.toggle_references(keep=True)

    def _connect(self) -> None:
        reader, keeper = self.reader, self.reader.keeper
        reader.opened.connect(lambda _: self._forget())
        reader.outline.changed.connect(lambda *_: self._renew())
        reader.ready.connect(lambda _: self._renew())
        reader.reading_failed.connect(lambda _: self._renew())
        for signal in (keeper.shown, keeper.added, keeper.changed, keeper.removed):
            signal.connect(self._show_entries)
        self.canvas.pointed.connect(self._point)
        self.canvas.followed.connect(self._follow)
        self.canvas.changed.connect(self._redraw)
        self.canvas.zoomed.connect(self.zoom)
        self.side.read_asked.connect(lambda: self._follow(self.canvas.section, -1.0))
        self.side.reach_asked.connect(lambda: self.reach_chosen.emit(self.canvas.section))
        self.side.followed.connect(self._follow_row)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = self.canvas.colours = self.side.colours = colours
        self.canvas.redraw()
        self._tell()

    # --- the document

    def _forget(self) -> None:
        self.model.terms.clear()
        self._related.clear()
        self._offered, self._held = [], ()
        self._renew()

    def _renew(self) -> None:
        """Another outline, or another document: drawn when it is looked at."""
        self._stale = True
        if self.isVisible():
            self.show_document()

    def showEvent(self, event: QShowEvent) -> None:
        """Draw what has changed meanwhile."""
        super().showEvent(event)
        if self._stale:
            self.show_document()

    def show_document(self) -> None:
        """Draw the document as it was read."""
        summary, facts = self.reader.summary, self.reader.facts
        if summary is None or facts is None:
            error = self.reader.reading_error
            self.told.setText(error.message if error else "The document is being read.")
            self.side.show_section("", "")
            return
        self._stale = False
        model = self.model
        heights = facts.heights
        outline = self.reader.outline.outline
        model.show_document(outline, summary.labels, summary.n_pages, heights)
        model.figures = tuple(model.place(f.page, f.box[1]) for f in summary.figures)
        self.told.setText(f"{counted(summary.n_pages, 'page')}, to scale")
        menu = self.levels_button.menu()
        menu.clear()
        for n in range(1, model.n_levels + 1):
            menu.addAction(counted(n, "level"), partial(self.ask_for_levels, n))
        self.ask_for_levels(min(3, model.n_levels))
        self._show_entries()
        for term in model.terms:
            self._look_for(term)
        if not self._offered:
            self._ask_for_terms()
        at, self.canvas.section = self.canvas.section, -1
        self.canvas.point_at(at if 0 <= at < len(outline.sections) else model.step(-1, 0))

    def _redraw(self) -> None:
        self.canvas.redraw()

    def ask_for_levels(self, n: int) -> None:
        """Draw the sections down to a level."""
        self.model.ask_for_levels(n)
        set_word(self.levels_button, f"levels {self.model.levels} ▾")
        self._redraw()

    def zoom(self, by: int) -> None:
        """Draw it larger or smaller; at its smallest all of it is seen."""
        self._zoom = min(max(self._zoom + by, 0), len(ZOOMS) - 1)
        height = self.area.viewport().height() * ZOOMS[self._zoom]
        self.canvas.setMinimumHeight(int(height) if self._zoom else 0)

    def _show_entries(self, *_: object) -> None:
        entries = self.reader.keeper.entries.values()
        model = self.model
        model.entries = tuple(
            model.place(e.anchor.page, max(e.anchor.y, 0.0)) for e in entries
            if e.anchor.scope is not Scope.LOOSE and not e.anchor.is_lost
        )  # fmt: skip
        self._redraw()

    def show_held(self, entry: Entry | None) -> None:
        """Draw where the excerpts of the held answer lie."""
        body = entry.body if entry is not None else None
        self._held = body.places if isinstance(body, QuestionBody) else ()
        self.model.held = tuple(self.model.place(p.page, max(p.y, 0.0)) for p in self._held)
        self._redraw()

    # --- terms

    def _ask_for_terms(self) -> None:
        session = self.reader.session
        if session is not None:
            self.reader.watch(
                session.query("terms", OFFERED), done=self._offer, failed=self._failed
            )

    def _offer(self, terms: Sequence[str]) -> None:
        self._offered = list(terms)
        if not self.model.terms:
            for term in self._offered[:FIRST_TERMS]:
                self.add_term(term)
        self._fill_add_menu()

    def _fill_add_menu(self) -> None:
        self.add_menu.clear()
        self.add_menu.addAction("Another one…", self._ask_for_term)
        self.add_menu.addSeparator()
        drawn = {column.term for column in self.model.terms}
        for term in self._offered:
            if term not in drawn:
                self.add_menu.addAction(menu_text(term), partial(self.add_term, term))
        for column in self.model.terms:
            if beside := [t for t in self._related.get(column.term, ()) if t not in drawn]:
                menu = self.add_menu.addMenu(menu_text(f"Found along with “{column.term}”"))
                for term in beside:
                    menu.addAction(menu_text(term), partial(self.add_term, term))

    def _ask_for_term(self) -> None:
        typed = ask_text(self, "Another term", "Words whose places are drawn:")
        if typed and typed.strip():
            self.add_term(typed)

    def add_term(self, term: str) -> None:
        """Draw where a term stands."""
        term = one_line(term, LONGEST_TERM)
        drawn = [column.term for column in self.model.terms]
        if not term or term in drawn:
            return
        if len(drawn) == MOST_TERMS:
            self.say(f"At most {MOST_TERMS} terms are drawn; take one off first.")
            return
        self.model.terms.append(column := TermColumn(term))
        self._look_for(column)
        self._show_terms()

    def drop_term(self, term: str) -> None:
        """Draw it no more."""
        self.model.terms[:] = [column for column in self.model.terms if column.term != term]
        self._show_terms()

    def _look_for(self, column: TermColumn) -> None:
        session = self.reader.session
        if session is None:
            return

        def found(places: tuple[Occurrence, ...]) -> None:
            column.places = places
            self._redraw()
            if column in self.model.terms and not places:
                self.say(f"“{column.term}” stands nowhere in this document.")

        def related(terms: tuple[str, ...]) -> None:
            self._related[column.term] = terms
            self._fill_add_menu()

        self.reader.watch(session.query("occurrences", column.term), done=found)
        self.reader.watch(
            session.query("related_terms", column.term), done=related, failed=self._failed
        )

    def _show_terms(self) -> None:
        while (item := self.terms_row.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        for column in self.model.terms:
            button = word_button("", "Take this term off the map")
            set_word(button, f"{column.term} ×")
            button.clicked.connect(partial(self.drop_term, column.term))
            self.terms_row.addWidget(button)
        self._fill_add_menu()
        self._redraw()

    # --- the section that is pointed at

    def _point(self, section: int) -> None:
        summary = self.reader.summary
        if summary is None or not 0 <= section < len(self.model.outline.sections):
            self.side.show_section("", "")
            return
        one = self.model.outline.sections[section]
        path = " / ".join(self.model.outline.path(section)[:-1])
        start = self.model.place(one.page, one.y)
        length = self.model.place(one.end_page, one.end_y) - start
        about = f"{length:.1f} pages" if length < 10 else f"{length:.0f} pages"
        shown = summary.labels.shown(one.page)
        self.side.show_section(
            f"{one.title}  {shown}", " · ".join(part for part in (path, about) if part)
        )
        self.area.ensureVisible(0, int(self.canvas.geometry_now.y(start)), 0, 60)
        self._pause.start()

    def _tell(self) -> None:
        """Tell what the section refers to, and what belongs with it."""
        session, section = self.reader.session, self.canvas.section
        if session is None or section < 0 or not self.isVisible():
            return
        self.reader.watch(
            session.query("section_told", section), done=partial(self._told, section),
            failed=self._failed,
        )  # fmt: skip

    def _told(self, section: int, told: tuple[SectionExplanation, tuple[Related, ...]]) -> None:
        explained, related = told
        session = self.reader.session
        if section != self.canvas.section or session is None:
            return
        model, sections = self.model, self.model.outline.sections
        refers = [Row(one.text, one.locator.shown, one.locator) for one in explained.refers_to]
        again = [
            Row(one.locator.path[-1] if one.locator.path else one.text, one.locator.shown,
                one.locator) for one in explained.referred_from
        ]  # fmt: skip
        far = [
            Row(
                sections[one.section].title,
                model.labels.shown(sections[one.section].page),
                section=one.section,
            )
            for one in related
        ]
        self.side.show_lists((("Refers to", refers), ("Referred to from", again),
                              ("Belongs with, though far off", far)))  # fmt: skip
        tied = [model.outline.at_place(r.locator.page, max(r.locator.y, 0.0) + 2)
                for r in (*refers, *again) if r.locator]  # fmt: skip
        self.canvas.tied = [row for row in dict.fromkeys(tied) if row not in (-1, section)]
        if not self._has_references:
            self.canvas.tied = []
        self.canvas.update()
        begins = explained.begins.locator if explained.begins else explained.locator
        self._passages.drop()
        if begins.spans:
            self._passages.want(
                session, begins.spans, self.colours, partial(self._show_picture, section), PASSAGE
            )

    def _show_picture(self, section: int, image: QImage) -> None:
        if section == self.canvas.section:
            self.side.picture.show_image(image)

    def toggle_references(self, *_: object, keep: bool = False) -> None:
        """Draw lines to the sections that the one pointed at refers to, or do not."""
        self._has_references = self._has_references if keep else not self._has_references
        set_word(self.references_button, f"references {'on' if self._has_references else 'off'}")
        if not keep:
            self.canvas.tied = []
            self.canvas.update()
            self._tell()

    def _follow(self, section: int, place: float) -> None:
        if section >= 0:
            self.section_followed.emit(section)
        elif place >= 0 and self.model.n_pages:
            page = min(int(place), self.model.n_pages - 1)
            self.passage_followed.emit(Locator(page, self.model.labels.of(page), (), ()))

    def _follow_row(self, row: Row) -> None:
        if row.locator is not None:
            self.passage_followed.emit(row.locator)
        elif row.section >= 0:
            self.section_followed.emit(row.section)

    # --- taking away

    def _ask_where(self, form: str) -> None:
        path = self.reader.path
        start = str(path.with_name(f"{path.stem}-map.{form}")) if path else ""
        name, _ = QFileDialog.getSaveFileName(self, "Save the map", start, FORMS[form])
        if name:
            self.save(Path(name), form)

    def save(self, path: Path, form: str) -> None:
        """Save the map as it is drawn now."""
        summary = self.reader.summary
        title = (summary.title if summary else "") or path.stem
        height = max(self.canvas.height(), 1)
        try:
            save_whole(path, map_as(form, self.model, float(height), self.colours, title))
        except WideMarginError as error:
            self._failed(error)
            return
        self.say(f"The map is in {path}.")

    def _failed(self, error: WideMarginError) -> None:
        self.say(f"{error.message} {error.hint}".strip())

    def say(self, text: str) -> None:
        """Say something below for a while."""
        self.status.say(text, for_ms=8000)
