"""The start page: documents read before, and the ways to open another."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

import platformdirs
from PySide6.QtCore import QRect, QSize, Qt, Signal
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from wide_margin.core.layout import page_shown
from wide_margin.core.plain import counted, one_line
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.words import Words, set_tip, word_button

if TYPE_CHECKING:
    from wide_margin.core.margin import DocumentRecord
    from wide_margin.desktop.look import Colours

TILE = QSize(190, 292)
PICTURE = QSize(158, 206)


def picture_path(record_id: int) -> Path:
    """Where the picture of a document's first page is kept."""
    folder = Path(platformdirs.user_cache_dir("wide-margin", appauthor=False)) / "first-pages"
    return folder / f"{record_id}.png"


def keep_picture(record_id: int, image: QImage) -> None:
    """Keep a small picture of a first page for the start page."""
    path = picture_path(record_id)
    try:
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    except OSError:
        return  # the start page shows an empty page instead
    mode = Qt.TransformationMode.SmoothTransformation
    image.scaled(PICTURE * 2, Qt.AspectRatioMode.KeepAspectRatio, mode).save(str(path))


def _is_file(path: str) -> bool:
    try:
        return Path(path).is_file()
    except (OSError, ValueError):
        return False


class Tile(QWidget):
    """One document: first page, title, where reading stopped, entries."""

    chosen = Signal(object)
    locate_asked = Signal(object)

    def __init__(self, record: DocumentRecord, colours: Colours) -> None:
        super().__init__()
        self.record, self._colours = record, colours
        self.is_missing = not _is_file(record.path)
        self._image = QImage(str(picture_path(record.id)))
        self.setFixedSize(TILE)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"{record.title}. {self.about()}")
        set_tip(self, record.path)

    def about(self) -> str:
        """Where reading stopped and what is kept, or that the file is gone."""
        if self.is_missing:
            return "The file is missing. Locate it…"
        n = self.record.n_entries
        entries = counted(n, "entry", "entries") if n else "no entries"
        return f"{page_shown(None, self.record.last_page)} · {entries}"

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the page and the words under it."""
        painter = QPainter(self)
        c = self._colours
        left = (TILE.width() - PICTURE.width()) // 2
        frame = QRect(left, 8, PICTURE.width(), PICTURE.height())
        if not self._image.isNull():
            size = self._image.size().scaled(PICTURE, Qt.AspectRatioMode.KeepAspectRatio)
            frame = QRect(left, 8 + PICTURE.height() - size.height(), size.width(), size.height())
            frame.moveLeft((TILE.width() - size.width()) // 2)
        painter.fillRect(frame.adjusted(1, 2, 2, 3), QColor(0, 0, 0, 30))
        painter.fillRect(frame, QColor(c.page))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if not self._image.isNull():
            painter.setOpacity(0.35 if self.is_missing else 1.0)
            painter.drawImage(frame, self._image)
            painter.setOpacity(1.0)
        if self.hasFocus():
            painter.setPen(QColor(c.verdigris))
            painter.drawRect(frame.adjusted(-2, -2, 1, 1))
        self._paint_words(painter, 8 + PICTURE.height() + 8)

    def _paint_words(self, painter: QPainter, top: int) -> None:
        c = self._colours
        painter.setPen(QColor(c.ink))
        painter.setFont(sans_font(-0.5, bold=True))
        flags = Qt.AlignmentFlag.AlignHCenter | Qt.TextFlag.TextWordWrap
        room = QRect(8, top, TILE.width() - 16, 36)
        metrics = painter.fontMetrics()
        title = metrics.elidedText(
            one_line(self.record.title, 200), Qt.TextElideMode.ElideRight, int(1.75 * room.width())
        )
        painter.drawText(room, flags, title)
        painter.setFont(sans_font(-1.5))
        painter.drawText(QRect(8, top + 38, TILE.width() - 16, 32), flags, self.about())

    def _choose(self) -> None:
        (self.locate_asked if self.is_missing else self.chosen).emit(self.record)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Open it."""
        self._choose()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Return opens it."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self._choose()
        else:
            super().keyPressEvent(event)


class StartPage(QScrollArea):
    """What a window shows before a document is open in it."""

    document_chosen = Signal(object)
    locate_asked = Signal(object)
    file_asked = Signal()
    address_asked = Signal()

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.colours: Colours = DAY
        self.tiles: list[Tile] = []
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setObjectName("startPage")
        inside = QWidget()
        inside.setObjectName("startInside")
        column = QVBoxLayout(inside)
        column.setContentsMargins(48, 32, 48, 32)
        column.setSpacing(16)
        head = QHBoxLayout()
        self._title = Words("", sans_font(4, bold=True))
        head.addWidget(self._title)
        head.addStretch(1)
        for text, signal, tip in (
            ("Choose a file…", self.file_asked, "Open a PDF (Ctrl+O)"),
            ("Give an address…", self.address_asked, "Fetch a PDF from an address"),
        ):
            button = word_button(text, tip)
            button.setFont(sans_font())
            button.clicked.connect(signal)
            head.addWidget(button)
        column.addLayout(head)
        self._hint = Words()
        column.addWidget(self._hint)
        self._grid = QGridLayout()
        self._grid.setSpacing(8)
        self._grid.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        column.addLayout(self._grid)
        column.addStretch(1)
        self.setWidget(inside)

    def show_documents(self, records: list[DocumentRecord]) -> None:
        """Show documents, the one read last first."""
        for tile in self.tiles:
            self._grid.removeWidget(tile)
            tile.hide()
            tile.deleteLater()
        self.tiles = []
        self._title.setText("Read before" if records else "Nothing read yet")
        self._hint.setText(
            "Drop a PDF anywhere on this window to read it."
            if records else "Drop a PDF on this window, choose a file, or give an address."
        )  # fmt: skip
        for record in records:
            tile = Tile(record, self.colours)
            tile.chosen.connect(self.document_chosen)
            tile.locate_asked.connect(self.locate_asked)
            self.tiles.append(tile)
        self._lay()

    def say(self, text: str) -> None:
        """Say something that is to be known before reading."""
        self._hint.setText(text)

    def _lay(self) -> None:
        across = max(1, (self.viewport().width() - 96) // (TILE.width() + 8))
        for k, tile in enumerate(self.tiles):
            self._grid.addWidget(tile, k // across, k % across)

    def resizeEvent(self, event: object) -> None:
        """As many tiles across as there is room for."""
        super().resizeEvent(event)  # type: ignore[arg-type]
        self._lay()

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours
        self.show_documents([tile.record for tile in self.tiles])
