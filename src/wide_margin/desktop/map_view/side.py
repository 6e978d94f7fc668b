"""Beside the map: the section that is pointed at, what it refers to, and what belongs with it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from wide_margin.core.document import Locator
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.picture_frame import PictureFrame
from wide_margin.desktop.words import WrappedWords, word_button

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours

WIDTH = 350
MOST_ROWS = 6


@dataclass(frozen=True, slots=True)
class Row:
    """A place that leads somewhere."""

    title: str
    shown: str
    """Its page, as written."""
    locator: Locator | None = None
    section: int = -1


class MapSide(QWidget):
    """A column of its own; every row leads to its place."""

    read_asked = Signal()
    reach_asked = Signal()
    followed = Signal(object)  # Row

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setObjectName("digestSide")
        self.setFixedWidth(WIDTH)
        self.colours: Colours = DAY
        self._rows: list[Row] = []
        self.title = WrappedWords("", sans_font(0.5, bold=True))
        self.about = WrappedWords("", sans_font(-1), role="secondary")
        self.picture = PictureFrame(highest=150)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignHCenter)
        self.read_button = word_button("Read it there", "Go to the section in Read (Return)")
        self.read_button.clicked.connect(self.read_asked)
        self.reach_button = word_button("Ask of this section", "Take it as reach of the ask line")
        self.reach_button.clicked.connect(self.reach_asked)
        words = QHBoxLayout()
        words.setSpacing(12)
        words.addWidget(self.read_button)
        words.addWidget(self.reach_button)
        words.addStretch(1)
        self._lists = QVBoxLayout()
        self._lists.setSpacing(4)
        inner = QWidget()
        inner.setObjectName("digestSide")
        column = QVBoxLayout(inner)
        column.setContentsMargins(20, 16, 20, 16)
        column.setSpacing(6)
        for widget in (self.title, self.about, self.picture):
            column.addWidget(widget)
        column.addLayout(words)
        column.addLayout(self._lists)
        column.addStretch(1)
        area = QScrollArea()
        area.setObjectName("digestSide")
        area.setWidget(inner)
        area.setWidgetResizable(True)
        area.setFrameShape(QScrollArea.Shape.NoFrame)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(area)

    def show_section(self, title: str, about: str) -> None:
        """Show another section; what is told of it follows."""
        self.title.setText(title)
        self.about.setText(about)
        self.picture.wait_for(title)
        self.show_lists(())
        for widget in (self.picture, self.read_button, self.reach_button):
            widget.setVisible(bool(title))

    def show_lists(self, lists: Sequence[tuple[str, Sequence[Row]]]) -> None:
        """Show lists of places under their names; empty ones are left out."""
        while (item := self._lists.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self._rows = []
        for name, rows in lists:
            if not rows:
                continue
            self._lists.addSpacing(10)
            self._lists.addWidget(WrappedWords(name, sans_font(-0.5, bold=True)))
            for row in rows[:MOST_ROWS]:
                self._rows.append(row)
                self._lists.addWidget(self._row(len(self._rows) - 1, row))

    def _row(self, index: int, row: Row) -> WrappedWords:
        text = Markup('{} <a href="row:{}" style="color:{};font-weight:600">{}</a>').format(
            row.title, index, self.colours.madder, row.shown.replace(" ", "\u00a0")
        )
        shown = WrappedWords(text, sans_font(-0.5))
        shown.linkActivated.connect(self._follow)
        return shown

    def _follow(self, target: str) -> None:
        self.followed.emit(self._rows[int(target.partition(":")[2])])
