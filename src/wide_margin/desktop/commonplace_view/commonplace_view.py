"""The Commonplace view: strip, sorts, entries in groups, and the passage of the one pointed at."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import TYPE_CHECKING, TypeVar

from PySide6.QtCore import QStringListModel, Qt, QTimer, Signal
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QCompleter, QHBoxLayout, QLineEdit, QMenu, QVBoxLayout, QWidget

from wide_margin.core.export.entries import said_in
from wide_margin.core.margin import Ink, MarkBody, Scope
from wide_margin.core.margin.gathering import GroupBy, count, gather_ordered, in_order, ink_of
from wide_margin.core.plain import counted
from wide_margin.desktop.commonplace_view.everywhere import Everywhere
from wide_margin.desktop.commonplace_view.facets import Facets
from wide_margin.desktop.commonplace_view.in_file import InFile
from wide_margin.desktop.commonplace_view.rows import EntryList
from wide_margin.desktop.commonplace_view.taking import Taking
from wide_margin.desktop.ink_edges import ink_name
from wide_margin.desktop.look import DAY, sans_font, style_sheet
from wide_margin.desktop.picture_frame import PictureFrame
from wide_margin.desktop.read_view.passage_pictures import PassagePictures
from wide_margin.desktop.status_line import StatusLine
from wide_margin.desktop.words import Words, WrappedWords, menu_text, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.margin import Entry
    from wide_margin.core.margin.gathering import Counts, Ordered
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.reader import Reader

SIDE = 394
PASSAGE = 150.0, 250.0
"""Points of a page that are shown of a passage, at least and at most."""
Result = TypeVar("Result")
SEARCH_MS = 120


class CommonplaceView(QWidget):
    """All entries of the document."""

    followed = Signal(object)  # Entry
    elsewhere_followed = Signal(object, object)  # DocumentRecord, Entry

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self.by = GroupBy.SECTION
        self._paths: dict[str, tuple[str, ...]] = {}
        """The section that each entry stands in, by its id."""
        self._ordered: Ordered | None = None
        """All entries with their groups, until either changes."""
        self._counts: Counts | None = None
        self._passages = PassagePictures(reader.background, self)
        self._late = QTimer(self)
        self._late.setSingleShot(True)
        self._late.timeout.connect(self.show_all)
        self.taking, self.everywhere = Taking(self), Everywhere(self)
        self.in_file = InFile(self)
        self._build()
        self._connect()

    # --- building

    def _build(self) -> None:
        self.group_button = word_button("", "Choose what entries are put together by")
        menu = QMenu(self.group_button)
        for by in GroupBy:
            menu.addAction(f"by {by}", partial(self.group_by, by))
        self.group_button.setMenu(menu)
        self.words = QLineEdit()
        self.words.setPlaceholderText("Words in entries, answers and excerpts")
        self.words.setAccessibleName("Words in entries")
        self.words.setClearButtonEnabled(True)
        self.words.setFixedWidth(300)
        self.told = Words("", role="secondary")
        self.take_button = word_button("Take away ▾", "Save the entries that are shown or chosen")
        taking = QMenu(self.take_button)
        taking.addAction("Save the entries shown…", partial(self.taking.ask_where, False))
        taking.addAction("Save the chosen entries…", partial(self.taking.ask_where, True))
        taking.addAction("Annotated copy of the PDF…", self.taking.ask_where_to_annotate)
        taking.addSeparator()
        taking.addAction("Bring in annotations…", self.taking.ask_what_to_bring)
        self.take_button.setMenu(taking)
        strip = QWidget()
        strip.setObjectName("strip")
        row = QHBoxLayout(strip)
        row.setContentsMargins(16, 6, 16, 6)
        row.setSpacing(16)
        for widget in (self.everywhere.button, self.group_button, self.words, self.told):
            row.addWidget(widget)
        row.addStretch(1)
        row.addWidget(self.in_file.button)
        row.addWidget(self.take_button)
        self.facets, self.list = Facets(), EntryList()
        self.empty = Words("", role="secondary")
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.empty.setWordWrap(True)
        middle = QVBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.addWidget(self.empty, 1)
        middle.addWidget(self.list, 1)
        below = QHBoxLayout()
        below.setSpacing(0)
        below.addWidget(self.facets)
        below.addLayout(middle, 1)
        below.addWidget(self._side())
        self.status = StatusLine()
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(strip)
        whole.addLayout(below, 1)
        whole.addWidget(self.status)

    def _side(self) -> QWidget:
        side = QWidget()
        side.setObjectName("digestSide")
        side.setFixedWidth(SIDE)
        column = QVBoxLayout(side)
        column.setContentsMargins(20, 16, 24, 16)
        column.setSpacing(8)
        self.where = WrappedWords("", sans_font(0, bold=True))
        self.picture = PictureFrame(highest=250)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignHCenter)
        self.read_button = word_button("Read it there", "Go to its place in Read (Enter)")
        self.ink_button = word_button("", "Choose another ink (1 to 6)")
        inks = QMenu(self.ink_button)
        for ink in Ink:
            inks.addAction(menu_text(ink_name(ink)), partial(self.change_ink, ink))
        self.ink_button.setMenu(inks)
        row = QHBoxLayout()
        row.addWidget(self.read_button)
        row.addWidget(self.ink_button)
        row.addStretch(1)
        self.about = WrappedWords("", sans_font(-1))
        self.said = WrappedWords("", sans_font())
        self.tags = QHBoxLayout()
        self.tags.setSpacing(8)
        self.tag_field = QLineEdit()
        self.tag_field.setPlaceholderText("Add a tag")
        self.tag_field.setAccessibleName("Add a tag to the chosen entries")
        self.known_tags = QStringListModel(self)
        completer = QCompleter(self.known_tags, self)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.tag_field.setCompleter(completer)
        self._wear_tags()
        for widget in (self.where, self.picture):
            column.addWidget(widget)
        column.addLayout(row)
        column.addWidget(self.about)
        column.addWidget(self.said)
        column.addLayout(self.tags)
        column.addWidget(self.tag_field)
        column.addStretch(1)
        return side

    def _connect(self) -> None:
        keeper = self.reader.keeper
        for signal in (keeper.shown, keeper.added, keeper.changed, keeper.removed):
            signal.connect(self.forget_counts)
        for signal in (keeper.added, keeper.changed, keeper.removed):
            signal.connect(lambda _: self.show_soon())
        keeper.shown.connect(self.show_all)
        self.reader.ready.connect(lambda _: self._forget_sections())
        self.facets.chosen.connect(self.show_all)
        self.words.textChanged.connect(lambda _: self._late.start(SEARCH_MS))
        self.list.pointed.connect(self.show_entry)
        self.list.followed.connect(self._go_to)
        self.list.delete_asked.connect(self.delete_chosen)
        self.list.ink_asked.connect(self.change_ink)
        self.list.tag_asked.connect(self.tag_field.setFocus)
        self.tag_field.returnPressed.connect(self._add_tag)
        self.read_button.clicked.connect(self._follow)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = self.facets.colours = self.list.colours = colours
        self._wear_tags()
        self.facets.viewport().update()
        self.list.viewport().update()
        self.show_entry(self.list.current())

    def _wear_tags(self) -> None:
        """What completes a tag is a window of its own, to which no sheet comes down."""
        if (popup := self.tag_field.completer().popup()) is not None:
            popup.setStyleSheet(style_sheet(self.colours))

    # --- showing

    @property
    def entries(self) -> list[Entry]:
        """Those of the document, or of all documents."""
        if self.everywhere.is_on:
            return self.everywhere.entries
        return list(self.reader.keeper.entries.values())

    def section_of(self, entry: Entry) -> tuple[str, ...]:
        """The section path at an entry's place."""
        if (record := self.everywhere.record_of(entry)) is not None:
            return (record.title,)
        if (known := self._paths.get(entry.id)) is not None:
            return known
        summary = self.reader.summary
        if summary is None:
            return ()
        return summary.outline.path_at(entry.anchor.page, entry.anchor.y)

    def show_soon(self) -> None:
        """Show the entries anew once, however much changes at the same time."""
        self._late.start(0)

    def forget_counts(self, *_: object) -> None:
        """The entries are others now."""
        self._counts = self._ordered = None

    def _forget_sections(self) -> None:
        self._paths.clear()
        self._ordered = None
        self.show_all()

    def _look_for_sections(self, entries: Sequence[Entry]) -> None:
        """Have the sections of entries found by their very words, then show them there."""
        session = self.reader.session
        own = self.reader.keeper.entries
        unknown = [
            e for e in entries if e.anchor.spans and e.id not in self._paths and e.id in own
        ]  # fmt: skip
        if session is None or self.reader.summary is None or not unknown:
            return
        for entry in unknown:
            self._paths[entry.id] = self.section_of(entry)
        places = tuple((e.anchor.spans[0].page, e.anchor.spans[0].start) for e in unknown)

        def found(paths: list[tuple[str, ...]]) -> None:
            self._paths |= {e.id: tuple(p) for e, p in zip(unknown, paths, strict=True)}
            self._ordered = None
            self.show_all()
            self.show_entry(self.list.current())

        self.reader.watch(session.query("paths_of", places), done=found)

    def place_of(self, entry: Entry) -> str:
        """Its page, as it is written."""
        if entry.anchor.scope in (Scope.LOOSE, Scope.DOCUMENT):
            return str(entry.anchor.scope)
        summary = self.reader.summary
        if summary is None or self.everywhere.record_of(entry) is not None:
            return f"file page {entry.anchor.page + 1}"
        return summary.labels.shown(entry.anchor.page)

    def group_by(self, by: GroupBy) -> None:
        """Put the entries together by something else."""
        self.by, self._ordered = by, None
        self.show_all()

    def show_all(self) -> None:
        """Show the entries anew."""
        if not self.isVisible():
            return
        entries, words = self.entries, self.words.text()
        if self._ordered is None:
            self._look_for_sections(entries)
        if self._counts is None:
            self._counts = count(entries)
            self.facets.show_counts(self._counts)
            self.known_tags.setStringList(sorted(self._counts.tags))
        counts = self._counts
        wanted = self.facets.wanted(words)
        if self._ordered is None:
            self._ordered = in_order(entries, self.by, self.section_of, ink_name)
        groups = gather_ordered(self._ordered, wanted, self.by, ink_name)
        self.list.show(groups, self.place_of, words)
        n = len({entry.id for group in groups for entry in group.entries})
        shown = counted(counts.n_all, "entry", "entries")
        self.told.setText(shown if n == counts.n_all else f"{n} of {shown}")
        set_word(self.group_button, f"by {self.by} ▾")
        self.list.setVisible(bool(groups))
        self.empty.setVisible(not groups)
        self.empty.setText(
            "Nothing was kept yet.\nWhat you ask, mark and note in Read is here."
            if not entries else "No entry is of all these sorts and has these words."
        )  # fmt: skip

    def showEvent(self, event: object) -> None:
        """Show what was kept meanwhile."""
        super().showEvent(event)  # type: ignore[arg-type]
        self.in_file.look()
        self.show_all()

    def name_inks(self) -> None:
        """Show the inks by other names."""
        for action, ink in zip(self.ink_button.menu().actions(), Ink, strict=True):
            action.setText(menu_text(ink_name(ink)))
        self.forget_counts()
        self.show_all()

    def show_entry(self, entry: Entry | None) -> None:
        """Show the passage and the words of an entry at the right."""
        parts = (self.where, self.picture, self.read_button, self.about, self.said, self.tag_field)
        for widget in parts:
            widget.setVisible(entry is not None)
        self._show_tags(entry)
        self.ink_button.setVisible(entry is not None and ink_of(entry) is not None)
        if entry is None:
            return
        path = self.section_of(entry)
        self.where.setText(f"{path[-1]}  {self.place_of(entry)}" if path else self.place_of(entry))
        parts_of = [str(entry.kind).capitalize(), entry.created[:10]]
        self.about.setText(" · ".join(parts_of))
        self.said.setText("\n".join(said_in(entry)[:6]))
        ink = ink_of(entry)
        set_word(self.ink_button, f"{ink_name(ink)} ▾" if ink is not None else "")
        self._show_passage(entry)

    def _show_passage(self, entry: Entry) -> None:
        session = self.reader.session
        self.picture.wait_for(" ".join(entry.anchor.quote.split())[:200])
        self._passages.drop()
        self.picture.setVisible(bool(entry.anchor.spans))
        if session is None or not entry.anchor.spans or self.everywhere.record_of(entry):
            self.picture.hide()
            return

        def shown(image: QImage) -> None:
            current = self.list.current()
            if current is not None and current.id == entry.id:
                self.picture.show_image(image)

        self._passages.want(session, entry.anchor.spans, self.colours, shown, PASSAGE)

    def _show_tags(self, entry: Entry | None) -> None:
        while (item := self.tags.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        if entry is None:
            return
        for tag in entry.tags[:8]:
            button = word_button("", "Take this tag off")
            set_word(button, f"{tag} ×")
            button.clicked.connect(partial(self._drop_tag, entry.id, tag))
            self.tags.addWidget(button)
        self.tags.addStretch(1)

    # --- changing

    def _follow(self) -> None:
        if (entry := self.list.current()) is not None:
            self._go_to(entry)

    def _go_to(self, entry: Entry) -> None:
        if (record := self.everywhere.record_of(entry)) is not None:
            self.elsewhere_followed.emit(record, entry)
        else:
            self.followed.emit(entry)

    def delete_chosen(self) -> None:
        """Delete the chosen entries; one undo brings them back."""
        self.reader.keeper.remove_all([entry.id for entry in self.list.chosen()])

    def change_ink(self, ink: Ink) -> None:
        """Give the chosen marks another ink."""
        marks = [entry for entry in self.list.chosen() if isinstance(entry.body, MarkBody)]
        self.reader.keeper.change_all([m.with_body(ink=ink) for m in marks], f"Ink {ink_name(ink)}")

    def add_tag(self, tag: str) -> None:
        """Put a tag on the chosen entries."""
        chosen = self.list.chosen() or [e for e in [self.list.current()] if e is not None]
        changed = [entry.with_tags([*entry.tags, tag]) for entry in chosen]
        self.reader.keeper.change_all(changed, f"Tag “{tag}”")

    def _add_tag(self) -> None:
        tag = " ".join(self.tag_field.text().split())
        if tag:
            self.tag_field.clear()
            self.add_tag(tag)

    def _drop_tag(self, entry_id: str, tag: str) -> None:
        entry = self.reader.keeper.latest(entry_id)
        if entry is not None:
            changed = entry.with_tags(t for t in entry.tags if t != tag)
            self.reader.keeper.change_all([changed], f"Untag “{tag}”")

    def say(self, text: str) -> None:
        """Say something below for a while."""
        self.status.say(text, for_ms=8000)
