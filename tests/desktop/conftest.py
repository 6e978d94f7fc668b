"""A real main window on the demo handbook, with a store of its own."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Iterator
from dataclasses import asdict
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from pytestqt.exceptions import TimeoutError
from reportlab.pdfgen.canvas import Canvas

from tests.making import PATIENT
from wide_margin.core.margin import Entry, Store
from wide_margin.core.services import Settings, SettingsKeeper
from wide_margin.core.services.stand_in import StandIn
from wide_margin.desktop.main_window import MainWindow


@pytest.fixture(autouse=True)
def handbook_read_once(shared_cache: None) -> None:
    """Windows find the handbook read."""


@pytest.fixture
def make_window(qtbot, tmp_path: Path) -> Iterator[Callable[..., MainWindow]]:
    """Make windows that share one store; all are closed at the end."""
    store_path = tmp_path / "entries.sqlite"
    windows = []

    stores = []

    def make(settings: Settings | None = None) -> MainWindow:
        keeper = SettingsKeeper()
        keeper.hold_for_now(**asdict(settings or Settings(language="de")))
        stores.append(Store(store_path))
        window = MainWindow(stores[-1], keeper)
        qtbot.addWidget(window)
        window.show()
        windows.append(window)
        return window

    yield make
    for window in windows:
        window.close()
    for store in stores:
        store.close()


@pytest.fixture
def stand_in() -> Iterator[StandIn]:
    with StandIn() as server:
        yield server


class Hand:
    """What a reader does with the window, and waiting for what comes of it."""

    def __init__(self, qtbot, window: MainWindow) -> None:
        self.bot, self.window, self.view = qtbot, window, window.read_view
        self.reader = window.reader

    def wait(self, holds: Callable[[], object]) -> None:
        """Wait until something holds; where it never does, say what stood there."""
        try:
            self.bot.waitUntil(lambda: bool(holds()), timeout=int(PATIENT * 1000))
        except TimeoutError as error:
            waited_for = " ".join(inspect.getsource(holds).split())
            kinds = [str(entry.kind) for entry in self.reader.entries.values()]
            raise AssertionError(
                f"waited in vain for: {waited_for}\nit gives: {holds()!r}\n"
                f"status: {self.view.status.text()!r}, message: {self.view.message.text!r}, "
                f"entries: {kinds}"
            ) from error

    def keep(self, words: str, letter: str) -> Entry:
        """Select words and press a letter; the entry that comes of it."""
        before = set(self.reader.entries)
        self.select(words)
        QTest.keyClicks(self.view.pages, letter.lower())
        self.wait(lambda: set(self.reader.entries) - before)
        (entry_id,) = set(self.reader.entries) - before
        return self.reader.entries[entry_id]

    def open(self, path: Path, **options: str) -> Hand:
        self.window.open(path, **options)
        self.wait(lambda: self.reader.is_ready)
        page = self.view.here()[0]
        self.wait(lambda: self.view.pages.images.layer(page))
        return self

    def label(self) -> str | None:
        return self.reader.summary.labels.of(self.view.here()[0])

    def select(self, words: str) -> None:
        """Find words and drag over them with the mouse."""
        hit = self.reader.session.find(words).result(PATIENT)[0]
        pages = self.view.pages
        pages.reveal(hit.spans)
        self.wait(lambda: pages.images.layer(hit.page))
        pages.reveal(hit.spans)
        boxes = pages.boxes_in_view(hit.spans)
        first, last = boxes[0], boxes[-1]
        start = QPoint(int(first.left()) + 1, int(first.center().y()))
        end = QPoint(int(last.right()) + 1, int(last.center().y()))
        port, left = pages.viewport(), Qt.MouseButton.LeftButton
        QTest.mousePress(port, left, Qt.KeyboardModifier.NoModifier, start)
        for step in range(1, 6):
            QTest.mouseMove(port, start + (end - start) * step / 5)
            event = _move(port, start + (end - start) * step / 5)
            pages.mouseMoveEvent(event)
        QTest.mouseRelease(port, left, Qt.KeyboardModifier.NoModifier, end)

    def entries(self, kind: str) -> list[Entry]:
        return [e for e in self.reader.entries.values() if e.kind == kind]

    def ask(self, question: str) -> Entry:
        before = set(self.reader.entries)
        field = self.view.ask_line.field
        field.clear()
        QTest.keyClicks(field, question)
        QTest.keyClick(field, Qt.Key.Key_Return)
        self.wait(lambda: set(self.reader.entries) - before)
        (entry_id,) = set(self.reader.entries) - before
        entry = self.reader.entries[entry_id]
        self.wait(lambda: self.view.margin.held and self.view.margin.held.entry.id == entry_id)
        return entry


def _move(port, point):
    from PySide6.QtCore import QEvent, QPointF
    from PySide6.QtGui import QMouseEvent

    left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    where = QPointF(point)
    return QMouseEvent(QEvent.Type.MouseMove, where, port.mapToGlobal(where), left, left, none)


@pytest.fixture
def hand(qtbot, make_window, handbook_path) -> Hand:
    """A window with the handbook open and read."""
    return Hand(qtbot, make_window()).open(handbook_path)


@pytest.fixture
def hand_with_model(qtbot, make_window, handbook_path, stand_in) -> Hand:
    settings = Settings(model_address=stand_in.address, language="de")
    return Hand(qtbot, make_window(settings)).open(handbook_path)


@pytest.fixture
def empty_hand(qtbot, make_window) -> Hand:
    """A window without a document."""
    return Hand(qtbot, make_window())


@pytest.fixture
def locked_pdf(tmp_path: Path) -> Path:
    """A file that opens with the password "sesame"."""
    path = tmp_path / "locked.pdf"
    canvas = Canvas(str(path), encrypt="sesame")
    canvas.drawString(72, 700, "The door is open.")
    canvas.save()
    return path
