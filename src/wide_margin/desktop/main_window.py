"""The main window: the menus, the views, and what opens documents."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from importlib import resources
from pathlib import Path
from typing import cast

import platformdirs
from PySide6.QtCore import QSettings, Qt, Signal
from PySide6.QtGui import (
    QAction,
    QActionGroup,
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeySequence,
)
from PySide6.QtPrintSupport import QPrintDialog, QPrinter
from PySide6.QtWidgets import (
    QApplication,
    QFileDialog,
    QHBoxLayout,
    QInputDialog,
    QLineEdit,
    QMainWindow,
    QMenu,
    QMessageBox,
    QPushButton,
    QStackedWidget,
    QTextBrowser,
    QWidget,
)

from wide_margin import __version__
from wide_margin.core.errors import WideMarginError
from wide_margin.core.margin import DocumentRecord, Store
from wide_margin.core.pages import FileFacts
from wide_margin.core.services import Settings, save_settings
from wide_margin.core.session.fetch import fetch_pdf, is_address, local_path
from wide_margin.desktop.background import Job
from wide_margin.desktop.look import DAY, NIGHT, wear
from wide_margin.desktop.model_dialog import ModelDialog
from wide_margin.desktop.outline_view import OutlineView
from wide_margin.desktop.printing import print_pages
from wide_margin.desktop.properties import PropertiesDialog, property_rows
from wide_margin.desktop.read_view import ReadView
from wide_margin.desktop.reader import EntryHub, Reader
from wide_margin.desktop.start_page import StartPage, keep_picture

Key = QKeySequence.StandardKey | str


class MainWindow(QMainWindow):
    """One document in one window, or the start page."""

    window_asked = Signal(object)  # a path, or None for the start page

    def __init__(self, store: Store, settings: Settings, hub: EntryHub | None = None) -> None:
        super().__init__()
        self.reader = Reader(store, settings, self, hub)
        self.read_view = ReadView(self.reader)
        self.start_page = StartPage()
        self._stack = QStackedWidget()
        self._stack.addWidget(self.start_page)
        self._stack.addWidget(self.read_view)
        self.outline_view = OutlineView(self.reader)
        self._stack.addWidget(self.outline_view)
        self.setCentralWidget(self._stack)
        self.setWindowTitle("Wide Margin")
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self._fetching: Job | None = None
        self._build_menus()
        self.reader.opened.connect(self._show_title)
        self.reader.failed.connect(lambda _: self.setWindowTitle("Wide Margin"))
        self.reader.password_needed.connect(self._ask_password)
        self.read_view.asked_for_file.connect(self.choose_file)
        self.outline_view.read_asked.connect(self._read_section)
        self.read_view.pages.images.image_arrived.connect(self._keep_first_page)
        self.start_page.document_chosen.connect(lambda record: self.open(Path(record.path)))
        self.start_page.locate_asked.connect(self._locate)
        self.start_page.file_asked.connect(self.choose_file)
        self.start_page.address_asked.connect(self.give_address)
        self._restore_layout()
        self._wear(night=settings.night)
        self.show_start_page()

    # --- opening

    def show_start_page(self) -> None:
        """The documents read before."""
        try:
            records = self.reader.store.documents()
        except WideMarginError:
            records = []
        self.start_page.show_documents(records)
        self._stack.setCurrentWidget(self.start_page)
        self._mark_view("")

    def open(self, path: Path, *, page: str | None = None, password: str | None = None) -> None:
        """Open a document, at a page as typed."""
        self._leave()
        self.show_view("Read")
        self.read_view.open_at(page)
        self.reader.open(path, password)

    def open_text(self, text: str, *, page: str | None = None) -> None:
        """Open what was typed or dropped: a path or an address."""
        if not is_address(text):
            self.open(Path(text), page=page)
        elif (path := local_path(text)) is not None:
            self.open(path, page=page)
        else:
            self._fetch(text, page)

    def _fetch(self, address: str, page: str | None) -> None:
        folder = Path(platformdirs.user_data_dir("wide-margin", appauthor=False)) / "fetched"
        self.show_view("Read")
        message = self.read_view.message
        message.say("Fetching the document…", address, "Cancel")

        def told(value: object) -> None:
            done, total = cast("tuple[int, int]", value)
            of = f" of {total / 1e6:.1f}" if total else ""
            message.say(
                "Fetching the document…", f"{done / 1e6:.1f}{of} MB from {address}", "Cancel"
            )

        self._fetching = self.reader.background.submit(
            lambda token, report: fetch_pdf(
                address, folder, token, lambda done, total: report((done, total))
            ),
            done=lambda path: self._fetched(path, page),
            failed=self._not_fetched,
            progressed=told,
        )

    def _fetched(self, path: Path, page: str | None) -> None:
        self._fetching = None
        self.open(path, page=page)

    def _not_fetched(self, error: WideMarginError) -> None:
        self._fetching = None
        self.read_view.message.say(error.message, error.hint, "Choose another file…")

    def choose_file(self) -> None:
        """Ask for a file and open it; while something is fetched, cancel that."""
        if self._fetching is not None:
            self._fetching.cancel()
            self._fetching = None
            self.read_view.message.hide()
            self.show_start_page()
            return
        start = str(self.reader.path.parent) if self.reader.path else str(Path.home())
        kinds = "PDF (*.pdf);;All files (*)"
        name, _ = QFileDialog.getOpenFileName(self, "Open a PDF", start, kinds)
        if name:
            self.open(Path(name))

    def give_address(self) -> None:
        """Ask for an address and fetch what is there."""
        text, given = QInputDialog.getText(self, "Address", "Address of a PDF (http or https):")
        if given and text.strip():
            self.open_text(text.strip())

    def _locate(self, record: DocumentRecord) -> None:
        """Ask where a missing file is now."""
        title = f"Where is “{record.title}”?"
        name, _ = QFileDialog.getOpenFileName(self, title, str(Path.home()), "PDF (*.pdf)")
        if name:
            self.reader.store.relocate(record.id, Path(name))
            self.open(Path(name))

    def ask_for_password(self, message: str) -> str | None:
        """Ask the reader for the password; None when they decline."""
        mode = QLineEdit.EchoMode.Password
        text, given = QInputDialog.getText(self, "Password", message, mode)
        return text if given else None

    def _ask_password(self, message: str) -> None:
        password = self.ask_for_password(message)
        path = self.reader.path
        if password is None or path is None:
            error = WideMarginError(message, hint="Open it again to give the password.")
            self.reader.failed.emit(error)
            return
        self.reader.open(path, password)

    def _show_title(self, facts: FileFacts) -> None:
        path = self.reader.path
        name = facts.title or (path.stem if path else "")
        self.setWindowTitle(f"{name} — Wide Margin")

    def _keep_first_page(self, page: int) -> None:
        record, drawn = self.reader.record, self.read_view.pages.images.image(0)
        if page == 0 and record is not None and drawn is not None and not drawn.is_night:
            keep_picture(record.id, drawn.image)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """Take files and addresses."""
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """Open what was dropped; a second file gets a window of its own."""
        for k, url in enumerate(event.mimeData().urls()):
            if k == 0:
                self.open_text(url.toLocalFile() if url.isLocalFile() else url.toString())
            elif url.isLocalFile():
                self.window_asked.emit(Path(url.toLocalFile()))

    # --- menus

    def _build_menus(self) -> None:
        bar = self.menuBar()
        self._file_menu(bar.addMenu("&File"))
        self._go_menu(bar.addMenu("&Go"))
        view = self.read_view
        menu = bar.addMenu("&Passage")
        self._add(menu, "&Copy", view.pages.copy, QKeySequence.StandardKey.Copy)
        self._add(menu, "Copy with its &place", view.copy_with_citation, "Ctrl+Shift+C")
        menu.addSeparator()
        for name, letter in (("&Explain", "E"), ("&Translate", "T"), ("&Ask about it", "A"),
                             ("&Mark", "M"), ("&Note", "N")):  # fmt: skip
            self._add(menu, name, partial(view.act, letter))
        menu = bar.addMenu("&Ask")
        ask = self._in_read(view.ask_line.field.setFocus)
        self._add(menu, "&Ask or go to a place", ask, "Ctrl+L")
        self._add(menu, "&Let go of the answer", view.let_go, "Ctrl+Shift+L")
        menu.addSeparator()
        self._add(menu, "&Writing model…", self.show_model_settings)
        menu = bar.addMenu("&Document")
        self.undo_action = self.reader.undo.createUndoAction(self, "&Undo:")
        self.undo_action.setShortcut(QKeySequence.StandardKey.Undo)
        self.redo_action = self.reader.undo.createRedoAction(self, "&Redo:")
        self.redo_action.setShortcut(QKeySequence.StandardKey.Redo)
        menu.addActions([self.undo_action, self.redo_action])
        menu.addSeparator()
        self._outline_menu(menu)
        menu.addSeparator()
        self._add(menu, "Read it a&gain", self.reader.read_again)
        self._add(menu, "&Properties…", self.show_properties)
        self._view_menu(bar.addMenu("&View"))
        menu = bar.addMenu("&Help")
        self._add(menu, "&Keys", self.show_keys, QKeySequence.StandardKey.HelpContents)
        self._add(menu, "&About Wide Margin", self._about)
        self._corner = self._views()
        bar.setCornerWidget(self._corner, Qt.Corner.TopRightCorner)

    def _file_menu(self, menu: QMenu) -> None:
        self._add(menu, "&Open…", self.choose_file, QKeySequence.StandardKey.Open)
        self._add(menu, "Open an &address…", self.give_address)
        self._add(menu, "Another &window", partial(self.window_asked.emit, None), "Ctrl+N")
        self._add(menu, "&Same document in another window", self._same_again)
        self._add(menu, "Read &before", self._back_to_start)
        menu.addSeparator()
        self._add(menu, "&Print…", self.print_document, QKeySequence.StandardKey.Print)
        menu.addSeparator()
        self._add(menu, "&Quit", self.close, "Ctrl+Q")

    def _go_menu(self, menu: QMenu) -> None:
        view = self.read_view
        self._add(menu, "&Back", self._in_read(view.go_back), "Alt+Left")
        self._add(menu, "&Forward", self._in_read(view.go_forward), "Alt+Right")
        following, before = partial(view.step_place, 1), partial(view.step_place, -1)
        self._add(menu, "Next place of the &answer", following, "Alt+PgDown", "]")
        self._add(menu, "Pre&vious place of the answer", before, "Alt+PgUp", "[")
        menu.addSeparator()
        self._add(menu, "&Page…", self._in_read(view.place_line.page.setFocus), "Ctrl+G")
        find = self._in_read(view.place_line.find_field.setFocus)
        self._add(menu, "Fin&d words", find, QKeySequence.StandardKey.Find)
        self._add(menu, "Ne&xt hit", partial(view.step_hit, 1), "F3")
        self._add(menu, "Previous &hit", partial(view.step_hit, -1), "Shift+F3")
        for name, set_option in (("&Whole words only", view.find_whole_words),
                                 ("Capitals and accents &count", view.find_exactly)):  # fmt: skip
            action = QAction(name, self)
            action.setCheckable(True)
            action.toggled.connect(set_option)
            menu.addAction(action)

    def _outline_menu(self, menu: QMenu) -> None:
        outline = self.outline_view

        def in_outline(slot: Callable[[], object]) -> Callable[[], None]:
            def act() -> None:
                if self.reader.is_ready:
                    self.show_view("Outline")
                    slot()

            return act

        self._add(menu, "Next &disagreement", in_outline(outline.next_disagreement), "F7")
        self._add(menu, "Start a section at the selec&tion", self.read_view.start_section)
        self._add(menu, "Sa&ve the outline as…", in_outline(outline.ask_where_to_save))
        self._add(
            menu,
            "&Write the outline into a copy of the PDF…",
            in_outline(outline.ask_where_to_write),
        )
        self._add(menu, "Take an outline &from a file…", in_outline(outline.ask_which_file))
        self._add(menu, "&Outline as found", in_outline(outline.back_to_found))

    def _view_menu(self, menu: QMenu) -> None:
        pages = self.read_view.pages
        self._add(menu, "&Read", partial(self.show_view, "Read"), "Ctrl+1")
        self._add(menu, "Out&line", partial(self.show_view, "Outline"), "Ctrl+2")
        menu.addSeparator()
        self._add(menu, "Zoom &in", partial(pages.zoom, 1), QKeySequence.StandardKey.ZoomIn)
        self._add(menu, "Zoom &out", partial(pages.zoom, -1), QKeySequence.StandardKey.ZoomOut)
        self._add(menu, "Fit the &width", pages.fit_width, "Ctrl+0")
        self._add(menu, "Fit the &page", pages.fit_page, "Ctrl+9")
        menu.addSeparator()
        group = QActionGroup(self)
        for mode, name in (("column", "Pages in one &column"), ("facing", "&Facing pages"),
                           ("single", "&One page at a time")):  # fmt: skip
            action = self._add(menu, name, partial(pages.arrange_as, mode))
            action.setCheckable(True)
            action.setChecked(mode == "column")
            group.addAction(action)
        menu.addSeparator()
        self._add(menu, "Turn &right", partial(pages.turn, 1), "Ctrl+R")
        self._add(menu, "Turn &left", partial(pages.turn, -1), "Ctrl+Shift+R")
        menu.addSeparator()
        self.contents_action = self._add(menu, "Con&tents panel", self._show_contents, "F9")
        self.contents_action.setCheckable(True)
        self.contents_action.setChecked(True)
        self.night_action = self._add(menu, "&Night colours", self._toggle_night, "Ctrl+Shift+N")
        self.night_action.setCheckable(True)
        self.full_action = self._add(menu, "F&ull screen", self._toggle_full, "F11")
        self.full_action.setCheckable(True)

    def _views(self) -> QWidget:
        """The views as words; each appears once it works."""
        corner = QWidget()
        row = QHBoxLayout(corner)
        row.setContentsMargins(0, 0, 16, 0)
        row.setSpacing(0)
        self._view_buttons = {}
        for k, name in enumerate(("Read", "Outline"), start=1):
            button = QPushButton(name)
            button.setProperty("role", "view")
            button.setCheckable(True)
            button.setToolTip(f"Ctrl+{k}")
            button.clicked.connect(partial(self.show_view, name))
            row.addWidget(button)
            self._view_buttons[name] = button
        return corner

    def show_view(self, name: str) -> None:
        """Turn to the Read or the Outline view of the document."""
        if name == "Outline" and self.reader.path is None:
            self._mark_view("")
            return
        views: dict[str, QWidget] = {"Read": self.read_view, "Outline": self.outline_view}
        if name == "Outline" and self.reader.summary is not None:
            page, y = self.read_view.here()
            self.outline_view.show_section(self.reader.summary.outline.at_place(page, y + 20.0))
        self._stack.setCurrentWidget(views[name])
        self._mark_view(name)
        if name == "Read":
            self.read_view.pages.setFocus()

    def _mark_view(self, name: str) -> None:
        for button_name, button in self._view_buttons.items():
            button.setChecked(button_name == name)
            button.setEnabled(bool(name) or self.reader.path is not None)

    def _read_section(self, index: int) -> None:
        self.show_view("Read")
        self.read_view.go_to_section(index)

    def _in_read(self, slot: Callable[[], object]) -> Callable[[], None]:
        """An action of the Read view: that is turned to first."""

        def act() -> None:
            if self._stack.currentWidget() is self.outline_view:
                self.show_view("Read")
            slot()

        return act

    def _add(self, menu: QMenu, name: str, slot: Callable[[], object], *keys: Key) -> QAction:
        action = QAction(name, self)
        action.setShortcuts([QKeySequence(key) for key in keys])
        action.triggered.connect(lambda *_: slot())
        menu.addAction(action)
        return action

    # --- what the menus do

    def _same_again(self) -> None:
        if self.reader.path is not None:
            self.window_asked.emit(self.reader.path)

    def _back_to_start(self) -> None:
        self._leave()
        self.reader.close_document()
        self.setWindowTitle("Wide Margin")
        self.show_start_page()

    def show_model_settings(self) -> None:
        """Where the writing model is, and whether it works."""
        view_line = self.read_view.ask_line
        dialog = ModelDialog(self.reader.settings, self.reader.background, self)
        dialog.chosen.connect(self.reader.keep_settings)
        dialog.chosen.connect(lambda s: view_line.set_model(is_there=bool(s.model_address)))
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()

    def show_properties(self) -> None:
        """What the document says of itself."""
        if self.reader.facts is not None:
            path, summary = str(self.reader.path), self.reader.summary
            PropertiesDialog(property_rows(path, self.reader.facts, summary), self).show()

    def show_keys(self) -> None:
        """The table of keys."""
        self._keys = QTextBrowser()
        self._keys.setWindowTitle("Keys — Wide Margin")
        self._keys.resize(640, 720)
        text = resources.files("wide_margin.data").joinpath("keys.md").read_text("utf-8")
        self._keys.setMarkdown(text)
        self._keys.show()

    def print_document(self) -> None:
        """Print some pages at their true size."""
        facts, session = self.reader.facts, self.reader.session
        if facts is None or session is None:
            return
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setFromTo(1, facts.n_pages)
        dialog = QPrintDialog(printer, self)
        dialog.setOption(QPrintDialog.PrintDialogOption.PrintPageRange)
        dialog.setMinMax(1, facts.n_pages)
        if dialog.exec():
            self.print_to(printer)

    def print_to(self, printer: QPrinter) -> None:
        """Print the printer's range of pages, off the UI thread."""
        facts, session = self.reader.facts, self.reader.session
        assert facts is not None
        assert session is not None
        first, last = printer.fromPage() or 1, printer.toPage() or facts.n_pages
        pages = range(first - 1, min(last, facts.n_pages))
        self.read_view.show_status(f"Printing {len(pages)} pages…")
        self.reader.background.submit(
            lambda token, report: print_pages(
                printer, pages, facts.sizes, lambda page, scale: session.draw(page, scale).result()
            ),
            done=lambda n: self.read_view.show_status(f"{n} pages were printed.", for_ms=8000),
            failed=self.reader.problem.emit,
        )

    def _show_contents(self) -> None:
        self.read_view.contents.setVisible(self.contents_action.isChecked())

    def _toggle_full(self) -> None:
        self.setWindowState(self.windowState() ^ Qt.WindowState.WindowFullScreen)

    def _toggle_night(self) -> None:
        night = self.night_action.isChecked()
        self.reader.settings = replace(self.reader.settings, night=night)
        try:
            save_settings(self.reader.settings)
        except OSError:
            self.read_view.show_status("The settings could not be saved.", for_ms=6000)
        self._wear(night=night)

    def _wear(self, *, night: bool) -> None:
        colours = NIGHT if night else DAY
        application = QApplication.instance()
        if isinstance(application, QApplication):
            wear(application, colours)
            self._corner.adjustSize()
        self.night_action.setChecked(night)
        self.read_view.wear(colours)
        self.start_page.wear(colours)
        self.outline_view.wear(colours)

    def _about(self) -> None:
        QMessageBox.about(
            self,
            "About Wide Margin",
            f"Wide Margin {__version__}\n\nOne long PDF, and a wide margin beside it.\n"
            "Everything works on this machine alone. Apache License 2.0.",
        )

    # --- layout, remembered

    def _layout_file(self) -> QSettings:
        folder = Path(platformdirs.user_state_dir("wide-margin", appauthor=False))
        return QSettings(str(folder / "window.ini"), QSettings.Format.IniFormat)

    def _restore_layout(self) -> None:
        kept = self._layout_file()
        if geometry := kept.value("geometry"):
            self.restoreGeometry(geometry)
        if kept.contains("panels"):
            self.read_view.restore_panels(kept.value("panels"))
        shown = kept.value("contents", True, type=bool)
        self.contents_action.setChecked(bool(shown))
        self._show_contents()

    def _keep_layout(self) -> None:
        kept = self._layout_file()
        kept.setValue("geometry", self.saveGeometry())
        kept.setValue("panels", self.read_view.panels_state())
        kept.setValue("contents", self.contents_action.isChecked())

    # --- closing

    def _leave(self) -> None:
        """Keep what is being typed and where reading stopped."""
        self.read_view.margin.save_all()
        record = self.reader.record
        if record is not None and self.read_view.pages.n_pages:
            page, y = self.read_view.here()
            try:
                self.reader.store.remember_place(record.id, page, y)
            except WideMarginError as error:
                self.read_view.show_status(error.message)

    def closeEvent(self, event: QCloseEvent) -> None:
        """End every process before the window is gone."""
        self._leave()
        self._keep_layout()
        self.reader.close()
        super().closeEvent(event)
