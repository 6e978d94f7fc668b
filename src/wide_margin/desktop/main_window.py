"""The main window: the views, and what opens documents."""

from __future__ import annotations

from functools import cached_property, partial
from importlib import resources
from pathlib import Path
from typing import TYPE_CHECKING, cast

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QMainWindow,
    QPushButton,
    QStackedWidget,
    QTextBrowser,
    QWidget,
)

from wide_margin import __version__
from wide_margin.core.answers import WHOLE
from wide_margin.core.errors import WideMarginError
from wide_margin.core.session.fetch import is_address, local_path
from wide_margin.desktop.fetching import Fetching
from wide_margin.desktop.ink_edges import call_inks
from wide_margin.desktop.look import DAY, NIGHT, wear
from wide_margin.desktop.menus import Menus
from wide_margin.desktop.quick_note import QuickNote, place_note
from wide_margin.desktop.reader import Reader
from wide_margin.desktop.saved_requests import Requests
from wide_margin.desktop.start_page import StartPage, keep_picture
from wide_margin.desktop.views import VIEWS
from wide_margin.desktop.window_layout import keep_layout, restore_layout
from wide_margin.desktop.words import ask_text, set_tip, show_title, tell

if TYPE_CHECKING:
    from wide_margin.core.answers import Excerpt, Reach
    from wide_margin.core.document import Locator
    from wide_margin.core.margin import DocumentRecord, Entry, Store
    from wide_margin.core.pages import FileFacts
    from wide_margin.core.services import Settings, SettingsKeeper
    from wide_margin.desktop.commonplace_view import CommonplaceView
    from wide_margin.desktop.digest_view import DigestView
    from wide_margin.desktop.entry_keeper import EntryHub
    from wide_margin.desktop.map_view import MapView
    from wide_margin.desktop.outline_view import OutlineView
    from wide_margin.desktop.printing import Printing
    from wide_margin.desktop.read_view import ReadView
    from wide_margin.desktop.views import View

_KINDS = {kind.name: kind for kind in VIEWS}


class MainWindow(QMainWindow):
    """One document in one window, or the start page."""

    window_asked = Signal(object)  # a path, or None for the start page
    closed = Signal()

    def __init__(self, store: Store, settings: SettingsKeeper, hub: EntryHub | None = None) -> None:
        super().__init__()
        self.reader = Reader(store, settings, self, hub)
        self.start_page = StartPage()
        self._stack = QStackedWidget()
        self._stack.addWidget(self.start_page)
        self.views: dict[str, QWidget] = {}
        """Those that were turned to, by their names."""
        self.read_view = cast("ReadView", self.view("Read"))
        self.shown_view = ""
        """The name of the view that is shown; "" for the start page."""
        self.setCentralWidget(self._stack)
        show_title(self, "Wide Margin")
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.fetching = Fetching(self.reader.background, self.read_view.message, self)
        self.quick_note, self.requests = QuickNote(self), Requests(self)
        self.menus = Menus(self)
        self._corner = self._view_words()
        self.menuBar().setCornerWidget(self._corner, Qt.Corner.TopRightCorner)
        self._connect()
        self._leave_settings = settings.watch(self._use_settings)
        restore_layout(self)
        self._wear(night=settings.now.night)
        call_inks(settings.now.ink_names)
        self.show_start_page()

    def _connect(self) -> None:
        reader = self.reader
        reader.opened.connect(self._show_title)
        reader.failed.connect(lambda _: show_title(self, "Wide Margin"))
        reader.password_needed.connect(self._ask_password)
        self.read_view.asked_for_file.connect(self._act_on_message)
        self.read_view.loose_asked.connect(self.quick_note.edit)
        self.read_view.pages.entry_dropped.connect(partial(place_note, self))
        self.read_view.pages.images.image_arrived.connect(self._keep_first_page)
        self.start_page.document_chosen.connect(lambda record: self.open(Path(record.path)))
        self.start_page.locate_asked.connect(self._locate)
        self.start_page.file_asked.connect(self.choose_file)
        self.start_page.address_asked.connect(self.give_address)

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
        self.fetching.stop()
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
            self.show_view("Read")
            self.fetching.start(text, lambda path: self.open(path, page=page))

    def _act_on_message(self) -> None:
        """The one thing to do about a message: stop fetching, else another file."""
        if self.fetching.is_under_way:
            self.fetching.stop()
            if self.reader.path is None:
                self.show_start_page()
        else:
            self.choose_file()

    def choose_file(self) -> None:
        """Ask for a file and open it."""
        start = str(self.reader.path.parent) if self.reader.path else str(Path.home())
        kinds = "PDF (*.pdf);;All files (*)"
        name, _ = QFileDialog.getOpenFileName(self, "Open a PDF", start, kinds)
        if name:
            self.open(Path(name))

    def give_address(self) -> None:
        """Ask for an address and fetch what is there."""
        text = ask_text(self, "Address", "Address of a PDF (http or https):")
        if text and text.strip():
            self.open_text(text.strip())

    def _locate(self, record: DocumentRecord) -> None:
        """Ask where a missing file is now."""
        title = f"Where is “{record.title[:80]}”?"
        name, _ = QFileDialog.getOpenFileName(self, title, str(Path.home()), "PDF (*.pdf)")
        if name:
            store = self.reader.store
            store.later(store.relocate, record.id, Path(name))
            self.open(Path(name))

    def ask_for_password(self, message: str) -> str | None:
        """Ask the reader for the password; None when they decline."""
        return ask_text(self, "Password", message, is_secret=True)

    def _ask_password(self, message: str) -> None:
        path = self.reader.path
        password = self.ask_for_password(message)
        if password is None or path is None:
            error = WideMarginError(message, hint="Open it again to give the password.")
            self.reader.failed.emit(error)
            return
        self.reader.open(path, password)

    def _show_title(self, facts: FileFacts) -> None:
        path = self.reader.path
        name = facts.title or (path.stem if path else "")
        show_title(self, f"{name} — Wide Margin")

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

    # --- views

    def _view_words(self) -> QWidget:
        """The views as words; each appears once it works."""
        corner = QWidget()
        row = QHBoxLayout(corner)
        row.setContentsMargins(0, 0, 16, 0)
        row.setSpacing(0)
        self._view_buttons = {}
        for k, kind in enumerate(VIEWS, start=1):
            button = QPushButton(kind.name)
            button.setProperty("role", "view")
            button.setCheckable(True)
            set_tip(button, f"Ctrl+{k}")
            button.clicked.connect(partial(self.show_view, kind.name))
            row.addWidget(button)
            self._view_buttons[kind.name] = button
        return corner

    def view(self, name: str) -> QWidget:
        """A view by its name; made when it is first asked for."""
        if (view := self.views.get(name)) is None:
            view = _KINDS[name].make(self)
            self.views[name] = view
            self._stack.addWidget(view)
            if self.start_page.colours is not DAY:
                cast("View", view).wear(self.start_page.colours)
        return view

    @property
    def digest_view(self) -> DigestView:
        """The view of that name."""
        return cast("DigestView", self.view("Digest"))

    @property
    def outline_view(self) -> OutlineView:
        """The view of that name."""
        return cast("OutlineView", self.view("Outline"))

    @property
    def map_view(self) -> MapView:
        """The view of that name."""
        return cast("MapView", self.view("Map"))

    @property
    def commonplace_view(self) -> CommonplaceView:
        """The view of that name."""
        return cast("CommonplaceView", self.view("Commonplace"))

    def show_view(self, name: str) -> None:
        """Turn to a view of the document."""
        if name != "Read" and self.reader.path is None:
            self._mark_view("")
            return
        _KINDS[name].turn_to(self)
        self._stack.setCurrentWidget(self.view(name))
        self._mark_view(name)

    def _mark_view(self, name: str) -> None:
        self.shown_view = name
        for button_name, button in self._view_buttons.items():
            button.setChecked(button_name == name)
            button.setEnabled(bool(name) or self.reader.path is not None)

    def read_section(self, index: int) -> None:
        """Show a section in Read."""
        self.show_view("Read")
        self.read_view.go_to_section(index)

    def ask_of_section(self, section: int) -> None:
        """Take a section as reach, and go to the ask line."""
        self.read_section(section)
        self.read_view.reaching.of_section(section)
        self.read_view.ask_line.field.setFocus()

    def read_passage(self, locator: Locator) -> None:
        """Show a passage in Read."""
        self.show_view("Read")
        self.read_view.go_to_passage(locator)

    def read_entry(self, entry: Entry) -> None:
        """Show an entry in Read."""
        self.show_view("Read")
        self.read_view.go_to_entry(entry.id)

    def read_elsewhere(self, record: DocumentRecord, entry: Entry) -> None:
        """Open another document where one of its entries stands."""
        self.open(Path(record.path), page=f"file {entry.anchor.page + 1}")

    def compose_lines(self, question: str, part: str, lines: list[Excerpt], reach: Reach) -> None:
        """Show in Read what is composed from lines of the digest."""
        self.show_view("Read")
        self.read_view.commands.compose_lines(question, f"overview: {part}", lines, reach)

    def compose_gist(self, question: str, reach: Reach) -> None:
        """Show in Read the gist as the model composes it."""
        self.show_view("Read")
        self.read_view.commands.ask_composed(question, reach)

    # --- what the menus do; what most readers never ask for is loaded with it

    @cached_property
    def printing(self) -> Printing:
        """What prints pages, with what stands beside them."""
        from wide_margin.desktop.printing import Printing

        return Printing(self)

    def open_again(self) -> None:
        """The same document in another window."""
        if self.reader.path is not None:
            self.window_asked.emit(self.reader.path)

    def back_to_start(self) -> None:
        """Leave the document for the start page."""
        self.fetching.stop()
        self._leave()
        self.reader.close_document()
        self.reader.path = None
        show_title(self, "Wide Margin")
        self.show_start_page()

    def show_model_settings(self) -> None:
        """Where the writing model is, and whether it works."""
        from wide_margin.desktop.model_dialog import ModelDialog

        dialog = ModelDialog(self.reader.settings, self.reader.background, self)
        dialog.chosen.connect(lambda changed: self.reader.change_settings(**changed))
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()

    def make_talk(self) -> None:
        """A talk of the document, or of the section that is taken as reach, to be edited."""
        if self.reader.path is None:
            return
        from wide_margin.desktop.talk_window import TalkWindow

        reach = self.read_view.ask_line.reach
        self.talk_window = TalkWindow(self, reach if reach.kind == "section" else WHOLE)
        self.talk_window.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.talk_window.show()

    def name_inks(self) -> None:
        """Let the reader say what the inks of marks mean."""
        from wide_margin.desktop.ink_names import InkNames

        dialog = InkNames(self.read_view.colours, self)
        dialog.accepted.connect(lambda: self.reader.change_settings(ink_names=dialog.names()))
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()

    def _show_ink_names(self, settings: Settings) -> None:
        call_inks(settings.ink_names)
        self.read_view.listed.show_all()
        if "Commonplace" in self.views:
            self.commonplace_view.name_inks()

    def show_properties(self) -> None:
        """What the document says of itself."""
        facts, session = self.reader.facts, self.reader.session
        if facts is None or session is None:
            return
        from wide_margin.desktop.properties import PropertiesDialog, property_rows

        path, summary = str(self.reader.path), self.reader.summary

        def show(memory: float = 0.0) -> None:
            dialog = PropertiesDialog(property_rows(path, facts, summary, memory), self)
            dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
            dialog.show()

        self.reader.background.submit(
            lambda token, report: session.memory(), done=show, failed=lambda error: show()
        )

    def show_keys(self) -> None:
        """The table of keys."""
        self._keys = QTextBrowser()
        show_title(self._keys, "Keys — Wide Margin")
        self._keys.resize(640, 720)
        text = resources.files("wide_margin.data").joinpath("keys.md").read_text("utf-8")
        self._keys.setMarkdown(text)
        self._keys.show()

    def show_about(self) -> None:
        """What this is."""
        tell(
            self, "About Wide Margin",
            f"Wide Margin {__version__}\n\nOne long PDF, and a wide margin beside it.\n"
            "Everything works on this machine alone. Apache License 2.0.",
        )  # fmt: skip

    def show_contents(self) -> None:
        """Show the contents panel, or put it away."""
        self.read_view.contents.setVisible(self.menus.contents.isChecked())

    def toggle_full(self) -> None:
        """Fill the screen, or stop that."""
        self.setWindowState(self.windowState() ^ Qt.WindowState.WindowFullScreen)

    def toggle_night(self) -> None:
        """Change to night colours or back, in every window."""
        self.reader.change_settings(night=self.menus.night.isChecked())

    def _use_settings(self, settings: Settings) -> None:
        self._wear(night=settings.night)
        self._show_ink_names(settings)
        self.read_view.ask_line.set_model(is_there=bool(settings.model_address))

    def _wear(self, *, night: bool) -> None:
        colours = NIGHT if night else DAY
        wear(self, colours)
        self._corner.adjustSize()
        self.menus.night.setChecked(night)
        if self.start_page.colours is not colours:
            self.start_page.wear(colours)
            for view in self.views.values():
                cast("View", view).wear(colours)

    # --- closing

    def _leave(self) -> None:
        """Keep what is being typed and where reading stopped."""
        self.read_view.beside.close_it()
        self.read_view.margin.save_all()
        record = self.reader.record
        if record is not None and self.read_view.pages.n_pages:
            page, y = self.read_view.here()
            store = self.reader.store
            store.later(store.remember_place, record.id, page, y)

    def closeEvent(self, event: QCloseEvent) -> None:
        """End every process before the window is gone."""
        self.fetching.stop()
        self._leave()
        keep_layout(self)
        self._leave_settings()
        self.reader.close()
        super().closeEvent(event)
        self.closed.emit()
