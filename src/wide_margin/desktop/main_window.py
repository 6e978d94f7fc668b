"""The main window: the menus, the views, and what opens documents."""

from dataclasses import replace
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QKeySequence
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
    QWidget,
)

from wide_margin import __version__
from wide_margin.core.errors import WideMarginError
from wide_margin.core.margin import Store
from wide_margin.core.pages import FileFacts
from wide_margin.core.services import Settings, save_settings
from wide_margin.desktop.look import DAY, NIGHT, wear
from wide_margin.desktop.read_view import ReadView
from wide_margin.desktop.reader import Reader


class MainWindow(QMainWindow):
    """One document in one window."""

    def __init__(self, store: Store, settings: Settings) -> None:
        super().__init__()
        self.reader = Reader(store, settings, self)
        self.read_view = ReadView(self.reader)
        self.setCentralWidget(self.read_view)
        self.setWindowTitle("Wide Margin")
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self._build_menus()
        self.reader.opened.connect(self._show_title)
        self.reader.failed.connect(lambda _: self.setWindowTitle("Wide Margin"))
        self.reader.password_needed.connect(self._ask_password)
        self.read_view.asked_for_file.connect(self.choose_file)
        self._wear(night=settings.night)
        self.read_view.message.say(
            "No document is open.", "Drop a PDF on this window, or choose one.", "Choose a file…"
        )

    # --- opening

    def open(self, path: Path, *, page: str | None = None, password: str | None = None) -> None:
        """Open a document, at a page as typed."""
        self._leave()
        self.read_view.open_at(page)
        self.reader.open(path, password)

    def choose_file(self) -> None:
        """Ask for a file and open it."""
        start = str(self.reader.path.parent) if self.reader.path else str(Path.home())
        name, _ = QFileDialog.getOpenFileName(
            self, "Open a PDF", start, "PDF (*.pdf);;All files (*)"
        )
        if name:
            self.open(Path(name))

    def ask_for_password(self, message: str) -> str | None:
        """Ask the reader for the password; None when they decline."""
        text, given = QInputDialog.getText(self, "Password", message, QLineEdit.EchoMode.Password)
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

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """Take files."""
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """Open the first file that was dropped."""
        for url in event.mimeData().urls():
            if url.isLocalFile():
                self.open(Path(url.toLocalFile()))
                break

    # --- menus

    def _build_menus(self) -> None:
        bar = self.menuBar()
        view = self.read_view
        menu = bar.addMenu("&File")
        self._add(menu, "&Open…", self.choose_file, QKeySequence.StandardKey.Open)
        self._add(menu, "&Quit", self.close, QKeySequence.StandardKey.Quit)
        menu = bar.addMenu("&Go")
        self._add(menu, "&Back", view.go_back, "Alt+Left")
        self._add(menu, "&Forward", view.go_forward, "Alt+Right")
        self._add(menu, "Next place of the &answer", lambda: view.step_place(1), "Alt+PgDown", "]")
        self._add(
            menu, "Pre&vious place of the answer", lambda: view.step_place(-1), "Alt+PgUp", "["
        )
        menu.addSeparator()
        self._add(menu, "&Page…", view.place_line.page.setFocus, "Ctrl+G")
        self._add(
            menu, "Fin&d words", view.place_line.find_field.setFocus, QKeySequence.StandardKey.Find
        )
        self._add(menu, "Ne&xt hit", lambda: view.step_hit(1), "F3")
        self._add(menu, "Previous &hit", lambda: view.step_hit(-1), "Shift+F3")
        menu = bar.addMenu("&Passage")
        self._add(menu, "&Copy", view.pages.copy, QKeySequence.StandardKey.Copy)
        for name, letter in (("&Explain", "E"), ("&Translate", "T"), ("&Ask about it", "A"),
                             ("&Mark", "M"), ("&Note", "N")):  # fmt: skip
            self._add(menu, name, lambda key=letter: view.act(key))
        menu = bar.addMenu("&Ask")
        self._add(menu, "&Ask or go to a place", view.ask_line.field.setFocus, "Ctrl+L")
        self._add(menu, "&Let go of the answer", view.let_go, "Ctrl+Shift+L")
        menu = bar.addMenu("&Document")
        self.undo_action = self.reader.undo.createUndoAction(self, "&Undo:")
        self.undo_action.setShortcut(QKeySequence.StandardKey.Undo)
        self.redo_action = self.reader.undo.createRedoAction(self, "&Redo:")
        self.redo_action.setShortcut(QKeySequence.StandardKey.Redo)
        menu.addAction(self.undo_action)
        menu.addAction(self.redo_action)
        menu = bar.addMenu("&View")
        self._add(menu, "Zoom &in", lambda: view.pages.zoom(1), QKeySequence.StandardKey.ZoomIn)
        self._add(menu, "Zoom &out", lambda: view.pages.zoom(-1), QKeySequence.StandardKey.ZoomOut)
        self._add(menu, "Fit the &width", view.pages.fit_width, "Ctrl+0")
        self.contents_action = self._add(menu, "&Contents panel", self._show_contents, "F9")
        self.contents_action.setCheckable(True)
        self.contents_action.setChecked(True)
        self.night_action = self._add(menu, "&Night colours", self._toggle_night, "Ctrl+Shift+N")
        self.night_action.setCheckable(True)
        menu = bar.addMenu("&Help")
        self._add(menu, "&About Wide Margin", self._about)
        self._corner = self._views()
        bar.setCornerWidget(self._corner, Qt.Corner.TopRightCorner)

    def _views(self) -> QWidget:
        """The views as words; each appears once it works."""
        corner = QWidget()
        row = QHBoxLayout(corner)
        row.setContentsMargins(0, 0, 16, 0)
        read = QPushButton("Read")
        read.setProperty("role", "view")
        read.setCheckable(True)
        read.setChecked(True)
        read.setEnabled(True)
        read.clicked.connect(lambda: read.setChecked(True))
        row.addWidget(read)
        return corner

    def _add(
        self, menu: QMenu, name: str, slot: object, *keys: QKeySequence.StandardKey | str
    ) -> QAction:
        action = QAction(name, self)
        action.setShortcuts([QKeySequence(key) for key in keys])
        action.triggered.connect(lambda *_: slot())  # type: ignore[operator]
        menu.addAction(action)
        return action

    def _show_contents(self) -> None:
        self.read_view.contents.setVisible(self.contents_action.isChecked())

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

    def _about(self) -> None:
        QMessageBox.about(
            self,
            "About Wide Margin",
            f"Wide Margin {__version__}\n\nOne long PDF, and a wide margin beside it.\n"
            "Everything works on this machine alone. Apache License 2.0.",
        )

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
        self.reader.close()
        super().closeEvent(event)
