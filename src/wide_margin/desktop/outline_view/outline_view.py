"""The Outline view: the sections, how they are known, and putting them right."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QSplitter, QVBoxLayout, QWidget

from wide_margin.core.layout import page_shown
from wide_margin.core.outline import Outline
from wide_margin.core.outline.editing import Edit, OutlineEditor
from wide_margin.core.plain import counted
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.outline_view.evidence import SCALE, Evidence
from wide_margin.desktop.outline_view.outline_files import OutlineFiles
from wide_margin.desktop.outline_view.tree import SectionTree
from wide_margin.desktop.status_line import StatusLine
from wide_margin.desktop.words import RichWords, Words, ask_text, word_button

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.outline import Section
    from wide_margin.core.pages import Picture
    from wide_margin.core.session import ReadSummary
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.reader import Reader

Make = Callable[[OutlineEditor, Outline], Edit]


class OutlineView(QWidget):
    """Tree at the left, evidence at the right, counts and actions above."""

    read_asked = Signal(int)  # index of the section to read

    def __init__(self, reader: Reader, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.reader = reader
        self.colours: Colours = DAY
        self._is_stale = True
        self.files = OutlineFiles(self)
        self._build()
        self._connect()
        self._forget()
        if reader.reading_error is not None:
            self._say_empty(reader.reading_error.message)

    def _build(self) -> None:
        self.counts = RichWords()
        self.tree, self.evidence = SectionTree(), Evidence()
        self.next_button = word_button("Next disagreement", "F7")
        self.raise_button = word_button("Raise <", "One level out (<)")
        self.lower_button = word_button("Lower >", "Under the section before it (>)")
        self.add_button = word_button("Add…", "A section at a page (Insert)")
        self.save_button = word_button("Save as…", "Markdown, OPML, JSON, CSV or HTML")
        self.write_button = word_button(
            "Write into a copy of the PDF…", "The copy has this outline as its bookmarks"
        )
        strip = QFrame()
        strip.setObjectName("placeLine")
        row = QHBoxLayout(strip)
        row.setContentsMargins(16, 4, 16, 4)
        row.setSpacing(10)
        row.addWidget(self.counts, 1)
        for button in (self.next_button, self.raise_button, self.lower_button, self.add_button,
                       self.save_button, self.write_button):  # fmt: skip
            button.setFont(sans_font(-0.5))
            row.addWidget(button)
        self.empty = Words("Reading the document…", role="secondary")
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.empty.setWordWrap(True)
        left = QWidget()
        column = QVBoxLayout(left)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.empty, 1)
        column.addWidget(self.tree, 1)
        self.split = QSplitter(Qt.Orientation.Horizontal)
        self.split.setHandleWidth(1)
        self.split.setChildrenCollapsible(False)
        self.split.addWidget(left)
        self.split.addWidget(self.evidence)
        self.split.setStretchFactor(0, 2)
        self.split.setStretchFactor(1, 1)
        self.split.setSizes([812, 468])
        self.status = StatusLine()
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(strip)
        whole.addWidget(self.split, 1)
        whole.addWidget(self.status)
        self.tree.hide()

    def _connect(self) -> None:
        reader, tree, evidence = self.reader, self.tree, self.evidence
        reader.opened.connect(lambda _: self._forget())
        reader.ready.connect(self._take_in)
        reader.outline.changed.connect(self._show_changed)
        reader.reading_failed.connect(lambda error: self._say_empty(error.message))
        tree.chosen.connect(self._show_evidence)
        tree.opened.connect(self.read_asked)
        tree.renamed.connect(self.rename)
        tree.key_pressed.connect(self._key)
        evidence.picture_wanted.connect(self._draw)
        evidence.taken.connect(self.take)
        evidence.settled.connect(self.settle)
        evidence.read_asked.connect(lambda: self.read_asked.emit(tree.current()))
        evidence.rename_asked.connect(tree.edit_title)
        evidence.move_asked.connect(self.ask_where)
        evidence.delete_asked.connect(self.delete)
        self.next_button.clicked.connect(self.next_disagreement)
        self.raise_button.clicked.connect(self.raise_section)
        self.lower_button.clicked.connect(self.lower_section)
        self.add_button.clicked.connect(self.ask_for_section)
        self.save_button.clicked.connect(self.files.ask_where_to_save)
        self.write_button.clicked.connect(self.files.ask_where_to_write)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = self.tree.colours = colours
        self.evidence.wear(colours)
        self.tree.viewport().update()
        self._count()
        self._show_evidence(self.tree.current())

    # --- showing

    def showEvent(self, event: object) -> None:
        """The tree is filled when it is first seen: long outlines take a moment."""
        if self._is_stale:
            self._fill()
        self.tree.setFocus()

    @property
    def outline(self) -> Outline:
        """The outline that counts."""
        return self.reader.outline.outline

    def show_section(self, index: int) -> None:
        """Choose a section."""
        if self._is_stale:
            self._fill()
        self.tree.choose(index)

    def _forget(self) -> None:
        self._is_stale = True
        self._say_empty("Reading the document…")
        self.evidence.show_section(None, "", ())

    def _say_empty(self, text: str) -> None:
        self.counts.setText("")
        self.empty.setText(text)
        self.empty.show()
        self.tree.hide()
        self._enable(on=False)

    def _enable(self, *, on: bool) -> None:
        for button in (self.next_button, self.raise_button, self.lower_button, self.save_button,
                       self.write_button):  # fmt: skip
            button.setEnabled(on)
        self.add_button.setEnabled(self.reader.is_ready)
        if on:
            self.next_button.setEnabled(bool(self.outline.disputed))

    def _take_in(self, summary: ReadSummary) -> None:
        self._is_stale = True
        if self.isVisible():
            self._fill()

    def _show_changed(self, outline: Outline, at: int) -> None:
        if self.isVisible():
            self._fill(at)
        else:
            self._is_stale = True

    def _fill(self, at: int = -1) -> None:
        summary = self.reader.summary
        if summary is None:
            return
        self._is_stale = False
        if self.reader.facts is not None:
            self.evidence.sizes = self.reader.facts.sizes
        self.tree.show_outline(summary.outline, summary.labels, self.reader.outline.heights, at)
        if not summary.outline.sections:
            self._say_empty(
                "No sections were found. Add one at a page, or read an outline from a file."
            )
            self.evidence.show_section(None, "", ())
            return
        self.empty.hide()
        self.tree.show()
        self._enable(on=True)
        self._count()

    def _count(self) -> None:
        outline = self.outline
        if not outline.sections:
            return
        secondary, madder = self.colours.secondary, self.colours.madder
        n = len(outline.sections)
        if outline.is_by_pages:
            none = "no bookmarks, contents page or headings were found"
            self.counts.setText(
                Markup("<b>{}</b>&nbsp;&nbsp; <span style='color:{}'>{}</span>").format(
                    counted(n, "part by pages", "parts by pages"), secondary, none
                )
            )
            return
        levels = counted(outline.n_levels, "level")
        parts = [Markup("<b>{}</b>, {}").format(counted(n, "section"), levels)]
        of = len(outline.sources)
        n_full = sum(len(s.readings) == of and not s.disagreements for s in outline.sections)
        n_disputed = len(outline.disputed)
        n_own = sum(not s.readings for s in outline.sections)
        n_less = n - n_full - n_disputed - n_own
        coloured = Markup("<span style='color:{}'>{}</span>")
        if of > 1:
            parts.append(
                coloured.format(secondary, f"{n_full} in {'all three' if of == 3 else 'both'}")
            )
            if n_less:
                parts.append(
                    coloured.format(secondary, f"{n_less} in {'two or one' if of == 3 else 'one'}")
                )
        if n_disputed:
            parts.append(coloured.format(madder, f"{n_disputed} in dispute"))
        if outline.is_edited:
            own = f"{n_own} your own" if n_own else "changed by you"
            parts.append(coloured.format(secondary, own))
        self.counts.setText(Markup("&nbsp;&nbsp;&nbsp; ").join(parts))

    def _show_evidence(self, index: int) -> None:
        outline = self.outline
        if not 0 <= index < len(outline.sections):
            return
        section = outline.sections[index]
        self.evidence.show_section(section, self._bookmark_path(index), outline.sources)
        self.raise_button.setEnabled(section.level > 0)
        above = outline.sections[index - 1] if index else None
        self.lower_button.setEnabled(above is not None and above.level >= section.level)

    def _bookmark_path(self, index: int) -> str:
        """The bookmark with the bookmarks it hangs under, and where it leads."""
        sections = self.outline.sections
        reading = sections[index].reading("bookmark")
        if reading is None or reading.page is None:
            return ""
        titles = [reading.title]
        level = reading.level or 0
        for section in reversed(sections[:index]):
            above = section.reading("bookmark")
            if above is not None and above.level is not None and above.level < level:
                titles.append(above.title)
                level = above.level
        return f"{' › '.join(reversed(titles))} → {page_shown(None, reading.page)}"

    def _draw(self, witness: str, page: int, box: Box) -> None:
        session = self.reader.session
        if session is not None:
            self.reader.watch(
                session.draw(page, SCALE, box),
                done=partial(self._drawn, witness, page, box),
                failed=lambda error: self.say(error.message),
            )

    def _drawn(self, witness: str, page: int, box: Box, picture: Picture) -> None:
        self.evidence.show_picture(witness, page, box, picture)

    def say(self, text: str, *, for_ms: int = 8000) -> None:
        """Say something quietly under the outline, for a while."""
        self.status.say(text, for_ms=for_ms)

    # --- changing

    def next_disagreement(self) -> None:
        """Go to the next section that the witnesses disagree about, round and round."""
        disputed = self.outline.disputed
        if not disputed:
            self.say("The witnesses agree, or you have settled it.")
            return
        here = self.tree.current()
        self.tree.choose(next((k for k in disputed if k > here), disputed[0]))
        self.tree.setFocus()

    def rename(self, index: int, title: str) -> None:
        """Give a section another title."""
        if title.strip() != self.outline.sections[index].title:
            self._change("Rename section", lambda e, o: e.rename(o, index, title))

    def raise_section(self) -> None:
        """One level out."""
        self._change_here("Raise section", lambda e, o, k: e.raise_(o, k))

    def lower_section(self) -> None:
        """Under the section before it."""
        self._change_here("Lower section", lambda e, o, k: e.lower(o, k))

    def delete(self) -> None:
        """Take the section out of the outline."""
        self._change_here("Delete section", lambda e, o, k: e.delete(o, k))

    def take(self, witness: str) -> None:
        """Use what a witness says of the section."""
        self._change_here(f"Take the {witness}", lambda e, o, k: e.take(o, k, witness))

    def settle(self) -> None:
        """Leave the section as it is and settle its disagreements."""
        self._change_here("Keep section", lambda e, o, k: e.settle(o, k))

    def move_to(self, typed: str) -> None:
        """Let the section start at a page as typed."""
        page = self._page_of(typed)
        if page is not None:
            self._change_here("Move section", lambda e, o, k: e.move(o, k, page, 0.0))

    def add(self, typed: str, title: str) -> None:
        """A section of the reader's own at the top of a page as typed."""
        page = self._page_of(typed)
        if page is not None and title.strip():
            self._change("Add section", lambda e, o: e.add(o, page, 0.0, title))

    def back_to_found(self) -> None:
        """Drop all changes, which undo brings back."""
        found = self.reader.outline.found
        if self.outline is not found:
            self._change("Outline as found", lambda e, o: Edit(found, -1))

    def _page_of(self, typed: str) -> int | None:
        summary = self.reader.summary
        pages = summary.labels.find(typed) if summary else []
        if not pages:
            self.say(f"There is no page “{typed}” here.")
            return None
        return pages[0]

    def _change(self, what: str, make: Make) -> None:
        self.reader.outline.change(what, make)

    def _change_here(self, what: str, make: Callable[[OutlineEditor, Outline, int], Edit]) -> None:
        index = self.tree.current()
        if index >= 0:
            self._change(what, lambda editor, outline: make(editor, outline, index))

    def _key(self, key: str) -> None:
        {"<": self.raise_section, ">": self.lower_section, "Delete": self.delete,
         "Insert": self.ask_for_section}[key]()  # fmt: skip

    # --- asking

    def ask_where(self) -> None:
        """Ask at which page the section starts."""
        section = self._current()
        if section is None or self.reader.summary is None:
            return
        typed = ask_text(
            self, "Move section",
            f"Page where “{section.title[:60]}” starts (or “file page 12”):",
            text=self.reader.summary.labels.of(section.page) or page_shown(None, section.page),
        )  # fmt: skip
        if typed and typed.strip():
            self.move_to(typed.strip())

    def ask_for_section(self) -> None:
        """Ask for the title and page of a new section."""
        title = ask_text(self, "Add a section", "Title of the section:")
        if not title or not title.strip():
            return
        page = ask_text(self, "Add a section", "Page where it starts:")
        if page and page.strip():
            self.add(page.strip(), title)

    def _current(self) -> Section | None:
        index = self.tree.current()
        return self.outline.sections[index] if index >= 0 else None
