"""The menus of the main window."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtGui import QAction, QActionGroup, QKeySequence
from PySide6.QtWidgets import QMenu

from wide_margin.desktop.read_view.marking import MORE_COMMANDS
from wide_margin.desktop.read_view.selection_tab import COMMANDS
from wide_margin.desktop.views import VIEWS

if TYPE_CHECKING:
    from wide_margin.desktop.main_window import MainWindow
    from wide_margin.desktop.outline_view import OutlineView

Key = QKeySequence.StandardKey | str
_MNEMONICS = {"Ask": "&Ask about it"}


class Menus:
    """Builds the menus of a window, and keeps the actions that show a state."""

    def __init__(self, window: MainWindow) -> None:
        """Fill the menu bar."""
        self._window = window
        bar = window.menuBar()
        self._fill_file(bar.addMenu("&File"))
        self._fill_go(bar.addMenu("&Go"))
        self._fill_passage(bar.addMenu("&Passage"))
        self._fill_listen(bar.addMenu("&Listen"))
        self._fill_ask(bar.addMenu("&Ask"))
        self._fill_document(bar.addMenu("&Document"))
        self._fill_view(bar.addMenu("&View"))
        menu = bar.addMenu("&Help")
        self._add(menu, "&Keys", window.show_keys, QKeySequence.StandardKey.HelpContents)
        self._add(menu, "&About Wide Margin", window.show_about)

    def _add(self, menu: QMenu, name: str, slot: Callable[[], object], *keys: Key) -> QAction:
        action = QAction(name, self._window)
        action.setShortcuts([QKeySequence(key) for key in keys])
        action.triggered.connect(lambda *_: slot())
        menu.addAction(action)
        return action

    def _in_read(self, slot: Callable[[], object]) -> Callable[[], None]:
        """An action of the Read view: that is turned to first."""

        def act() -> None:
            if self._window.shown_view not in ("", "Read"):
                self._window.show_view("Read")
            slot()

        return act

    def _in_outline(self, do: Callable[[OutlineView], object]) -> Callable[[], None]:
        def act() -> None:
            if self._window.reader.is_ready:
                self._window.show_view("Outline")
                do(self._window.outline_view)

        return act

    def _fill_file(self, menu: QMenu) -> None:
        window = self._window
        self._add(menu, "&Open…", window.choose_file, QKeySequence.StandardKey.Open)
        self._add(menu, "Open an &address…", window.give_address)
        self._add(menu, "Another &window", partial(window.window_asked.emit, None), "Ctrl+N")
        self._add(menu, "&Same document in another window", window.open_again)
        self._add(menu, "Read &before", window.back_to_start)
        menu.addSeparator()
        self._add(menu, "&Print…", lambda: window.printing.ask(), QKeySequence.StandardKey.Print)
        self._add(menu, "Print with the &margin…", lambda: window.printing.ask(with_margin=True))
        menu.addSeparator()
        self._add(menu, "&Quit", window.close, "Ctrl+Q")

    def _fill_go(self, menu: QMenu) -> None:
        view = self._window.read_view
        self._add(menu, "&Back", self._in_read(view.go_back), "Alt+Left")
        self._add(menu, "&Forward", self._in_read(view.go_forward), "Alt+Right")
        following, before = partial(view.held.step, 1), partial(view.held.step, -1)
        self._add(menu, "Next place of the &answer", following, "Alt+PgDown", "]")
        self._add(menu, "Pre&vious place of the answer", before, "Alt+PgUp", "[")
        menu.addSeparator()
        self._add(menu, "&Page…", self._in_read(view.place_line.page.setFocus), "Ctrl+G")
        find = self._in_read(view.place_line.find_field.setFocus)
        self._add(menu, "Fin&d words", find, QKeySequence.StandardKey.Find)
        self._add(menu, "Ne&xt hit", partial(view.finding.step, 1), "F3")
        self._add(menu, "Previous &hit", partial(view.finding.step, -1), "Shift+F3")
        options = {
            "&Whole words only": view.finding.whole_words,
            "Capitals and accents &count": view.finding.exactly,
        }
        for name, set_option in options.items():
            action = QAction(name, self._window)
            action.setCheckable(True)
            action.toggled.connect(set_option)
            menu.addAction(action)

    def _fill_passage(self, menu: QMenu) -> None:
        view = self._window.read_view
        self._add(menu, "&Copy", view.pages.copy, QKeySequence.StandardKey.Copy)
        copy = view.commands.copy_with_citation
        self._add(menu, "Copy with its &place", copy, "Ctrl+Shift+C")
        menu.addSeparator()
        for name, letter, _ in COMMANDS:
            shown = _MNEMONICS.get(name, f"&{name}")
            self._add(menu, shown, partial(view.commands.act, letter))
        menu.addSeparator()
        for name, letter in MORE_COMMANDS:
            self._add(menu, name, partial(view.commands.act, letter))
        menu.addSeparator()
        page = self._in_read(view.commands.facing.translate_page)
        self._add(menu, "Translate this &page, facing it", page, "Ctrl+T")
        section = self._in_read(view.commands.facing.translate_section)
        self._add(menu, "Translate this se&ction, facing it", section, "Ctrl+Shift+T")
        self._add(menu, "Terms in t&ranslations…", self._in_read(view.commands.facing.list_terms))
        menu.addSeparator()
        self._add(menu, "&Quick note", self._window.quick_note.write, "F4")
        self._add(menu, "Names of the &inks…", self._window.name_inks)

    def _fill_listen(self, menu: QMenu) -> None:
        listening = self._window.read_view.listening
        self._add(menu, "Read aloud from &here", self._in_read(listening.from_here), "Ctrl+F8")
        section = self._in_read(listening.section)
        self._add(menu, "Read this &section aloud", section)
        menu.addSeparator()
        self._add(menu, "&Pause, or go on", listening.pause, "F8")
        self._add(menu, "&Back a sentence", partial(listening.step, -1), "Shift+F8")
        self._add(menu, "Next &paragraph", listening.next_paragraph, "Alt+F8")
        self._add(menu, "&Faster", partial(listening.faster, 1), "Ctrl+Alt+Up")
        self._add(menu, "S&lower", partial(listening.faster, -1), "Ctrl+Alt+Down")
        self._add(menu, "&Stop", listening.stop)

    def _fill_ask(self, menu: QMenu) -> None:
        view = self._window.read_view
        ask = self._in_read(view.ask_line.field.setFocus)
        self._add(menu, "&Ask or go to a place", ask, "Ctrl+L")
        self._add(menu, "&Let go of the answer", view.held.let_go, "Ctrl+Shift+L")
        menu.addSeparator()
        self._add(menu, "Saved &requests…", self._window.requests.show, "F6")
        self._add(menu, "&Writing model…", self._window.show_model_settings)

    def _fill_document(self, menu: QMenu) -> None:
        window, reader = self._window, self._window.reader
        self.undo = reader.undo.createUndoAction(window, "&Undo:")
        self.undo.setShortcut(QKeySequence.StandardKey.Undo)
        self.redo = reader.undo.createRedoAction(window, "&Redo:")
        self.redo.setShortcut(QKeySequence.StandardKey.Redo)
        menu.addActions([self.undo, self.redo])
        menu.addSeparator()
        inside = self._in_outline
        self._add(menu, "Next &disagreement", inside(lambda it: it.next_disagreement()), "F7")
        start = window.read_view.commands.start_section
        self._add(menu, "Start a section at the selec&tion", start)
        save = inside(lambda it: it.files.ask_where_to_save())
        self._add(menu, "Sa&ve the outline as…", save)
        write = inside(lambda it: it.files.ask_where_to_write())
        self._add(menu, "&Write the outline into a copy of the PDF…", write)
        take = inside(lambda it: it.files.ask_which_file())
        self._add(menu, "Take an outline &from a file…", take)
        self._add(menu, "&Outline as found", inside(lambda it: it.back_to_found()))
        menu.addSeparator()
        self._add(menu, "A ta&lk…", window.make_talk)
        self._add(menu, "Re&cognise pages that are pictures", reader.recognising.start)
        self._add(menu, "Read it a&gain", reader.read_again)
        self._add(menu, "&Properties…", window.show_properties)

    def _fill_view(self, menu: QMenu) -> None:
        window, pages = self._window, self._window.read_view.pages
        for k, kind in enumerate(VIEWS, start=1):
            self._add(menu, kind.menu, partial(window.show_view, kind.name), f"Ctrl+{k}")
        menu.addSeparator()
        self._add(menu, "Zoom &in", partial(pages.zoom, 1), QKeySequence.StandardKey.ZoomIn)
        self._add(menu, "Zoom &out", partial(pages.zoom, -1), QKeySequence.StandardKey.ZoomOut)
        self._add(menu, "Fit the &width", pages.fit_width, "Ctrl+0")
        self._add(menu, "Fit the &page", pages.fit_page, "Ctrl+9")
        menu.addSeparator()
        group = QActionGroup(window)
        for mode, name in (("column", "Pages in one &column"), ("facing", "&Facing pages"),
                           ("single", "&One page at a time")):  # fmt: skip
            action = self._add(menu, name, partial(pages.arrange_as, mode))
            action.setCheckable(True)
            action.setChecked(mode == "column")
            group.addAction(action)
        menu.addSeparator()
        beside = self._window.read_view.beside
        self._add(menu, "Another place &beside", self._in_read(beside.toggle), "Ctrl+B")
        menu.addSeparator()
        self._add(menu, "Turn &right", partial(pages.turn, 1), "Ctrl+R")
        self._add(menu, "Turn &left", partial(pages.turn, -1), "Ctrl+Shift+R")
        menu.addSeparator()
        self.contents = self._add(menu, "Con&tents panel", window.show_contents, "F9")
        self.night = self._add(menu, "&Night colours", window.toggle_night, "Ctrl+Shift+N")
        self.full = self._add(menu, "F&ull screen", window.toggle_full, "F11")
        for action in (self.contents, self.night, self.full):
            action.setCheckable(True)
        self.contents.setChecked(True)
