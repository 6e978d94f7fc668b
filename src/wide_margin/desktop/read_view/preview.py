"""The floating preview beside the spine: a small picture of a page, its number and section."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QRect, Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QFrame, QVBoxLayout, QWidget

from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.read_view.page_images import image_from
from wide_margin.desktop.read_view.spine import WIDTH
from wide_margin.desktop.words import Words

if TYPE_CHECKING:
    from wide_margin.core.pages import Picture
    from wide_margin.desktop.look import Colours

PREVIEW_SCALE = 0.3
SIZE = QRect(0, 0, 200, 292)


class Preview(QFrame):
    """Shown while the pointer is on the spine; the newest page wins."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setObjectName("message")
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self._page = -1
        self._picture, self._words = Words(), Words("", sans_font(-1))
        self.colours: Colours = DAY
        self._picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._words.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 8, 8, 8)
        column.addWidget(self._picture, 1)
        column.addWidget(self._words)
        self.resize(SIZE.size())
        self.hide()

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours, self._page = colours, -1

    def show_page(self, page: int, words: str, top: int) -> bool:
        """Say what is there; whether its picture is wanted."""
        is_new = page != self._page
        self._page = page
        self._words.setText(words)
        if is_new:
            self._picture.clear()
        room = self.parentWidget()
        lowest = (room.height() if room else 600) - self.height() - 8
        self.move(WIDTH + 6, min(max(top - self.height() // 2, 8), lowest))
        self.show()
        self.raise_()
        return is_new

    def show_picture(self, page: int, picture: Picture) -> None:
        """Show a page's picture, if it is still the one wanted."""
        if page == self._page:
            pixmap = QPixmap.fromImage(image_from(picture, night=self.colours.is_night))
            mode = Qt.TransformationMode.SmoothTransformation
            room = self._picture.size()
            self._picture.setPixmap(pixmap.scaled(room, Qt.AspectRatioMode.KeepAspectRatio, mode))
