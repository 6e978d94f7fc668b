"""What the witnesses say of one section: their pictures, and whose word to take."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from wide_margin.core.layout import page_shown
from wide_margin.core.outline import Reading
from wide_margin.desktop.look import DAY, sans_font
from wide_margin.desktop.picture_frame import PictureFrame
from wide_margin.desktop.read_view.page_images import image_from
from wide_margin.desktop.read_view.passage_pictures import tint_words
from wide_margin.desktop.words import WrappedWords, word_button

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.outline import Section
    from wide_margin.core.pages import Picture
    from wide_margin.core.pages.model import PageSize
    from wide_margin.desktop.look import Colours

_TAKE = {
    "heading": "Take the heading",
    "contents": "Take the contents page",
    "bookmark": "Take the bookmark",
}
AROUND = 34.0
"""Points shown above and below the words of a witness."""
SCALE = 2.0


class Evidence(QScrollArea):
    """The side of the Outline view that shows why a section is where it is."""

    picture_wanted = Signal(str, int, object)  # witness, page index, box to show
    taken = Signal(str)
    settled = Signal()
    read_asked = Signal()
    rename_asked = Signal()
    move_asked = Signal()
    delete_asked = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.colours: Colours = DAY
        self.setObjectName("evidence")
        self.setWidgetResizable(True)
        self.setMinimumWidth(300)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        inside = QWidget()
        inside.setObjectName("evidenceInside")
        self._title = WrappedWords("", sans_font(1, bold=True))
        self._reason = WrappedWords("", sans_font(-0.5))
        self._heads = {name: WrappedWords("", sans_font(-0.5)) for name in _TAKE}
        self._frames = {name: PictureFrame() for name in ("heading", "contents")}
        self._bookmark = WrappedWords("", sans_font(-0.5))
        self._bookmark.setObjectName("evidenceBookmark")
        self._take = {name: word_button(text) for name, text in _TAKE.items()}
        self._keep = word_button("Keep it as it is")
        self._read = word_button("Read it there", "Return")
        self._rename = word_button("Rename", "F2")
        self._move = word_button("Move to a page…")
        self._delete = word_button("Delete", "Delete")
        column = QVBoxLayout(inside)
        column.setContentsMargins(18, 16, 18, 16)
        column.setSpacing(6)
        column.addWidget(self._title)
        column.addWidget(self._reason)
        for name in ("heading", "contents", "bookmark"):
            column.addSpacing(6)
            column.addWidget(self._heads[name])
            column.addWidget(self._frames.get(name, self._bookmark))
        column.addSpacing(8)
        for row in ((*self._take.values(), self._keep),
                    (self._read, self._rename, self._move, self._delete)):  # fmt: skip
            line = QHBoxLayout()
            line.setSpacing(4)
            for button in row:
                button.setFont(sans_font(-0.5))
                line.addWidget(button)
            line.addStretch(1)
            column.addLayout(line)
        column.addStretch(1)
        self.setWidget(inside)
        self._inside = inside
        self.sizes: tuple[PageSize, ...] = ()
        """Of the pages, points."""
        self._says = ""
        self._marked: Box | None = None
        self._wanted: dict[str, tuple[int, Box]] = {}
        for name, button in self._take.items():
            button.clicked.connect(partial(self.taken.emit, name))
        self._keep.clicked.connect(self.settled)
        self._read.clicked.connect(self.read_asked)
        self._rename.clicked.connect(self.rename_asked)
        self._move.clicked.connect(self.move_asked)
        self._delete.clicked.connect(self.delete_asked)
        self.show_section(None, "", ())

    @property
    def says(self) -> str:
        """What it tells about the section."""
        return self._says

    def picture_of(self, witness: str) -> PictureFrame:
        """The frame of a witness's picture."""
        return self._frames[witness]

    def take_button(self, witness: str) -> QWidget:
        """The word that takes a witness's reading."""
        return self._take[witness]

    def show_section(
        self, section: Section | None, bookmark_path: str, sources: tuple[str, ...]
    ) -> None:
        """Show what is known of a section; pictures are asked for and arrive later."""
        self._inside.setVisible(section is not None)
        if section is None:
            return
        self._says = _reason(section, sources)
        self._title.setText(section.title)
        self._reason.setText(self._says)
        self._wanted = {}
        for name in _TAKE:
            reading = section.reading(name)
            self._take[name].setVisible(reading is not None and bool(section.disagreements))
            self._heads[name].setText(_head(name, section, reading, sources))
            self._heads[name].setVisible(bool(self._heads[name].text()))
        self._keep.setVisible(bool(section.disagreements))
        self._bookmark.setVisible(section.reading("bookmark") is not None)
        self._bookmark.setText(bookmark_path)
        heading = section.reading("heading")
        self._ask_for("heading", heading or section)
        self._ask_for("contents", section.reading("contents"))

    def show_picture(self, witness: str, page: int, box: Box, picture: Picture) -> None:
        """A picture that was asked for, if it is still wanted."""
        if self._wanted.get(witness) != (page, box):
            return
        image = image_from(picture, night=self.colours.is_night)
        if witness == "contents" and self._marked is not None:
            tint_words(image, [self._marked], box, SCALE, self.colours)
        self._frames[witness].show_image(image)

    def wear(self, colours: Colours) -> None:
        """Change colours."""
        self.colours = colours

    def _ask_for(self, witness: str, shown: Reading | Section | None) -> None:
        frame = self._frames[witness]
        frame.setVisible(shown is not None)
        if shown is None:
            return
        frame.wait_for(f"Picture of the {witness}")
        if isinstance(shown, Reading):
            page, (_, y0, _, y1) = shown.seen_page, shown.seen_box
        else:
            page, y0, y1 = shown.page, shown.y, shown.y + 40.0
        below = 2.2 * AROUND if witness == "heading" else AROUND * 0.8
        above = 0.5 * AROUND if witness == "heading" else AROUND * 0.8
        if not 0 <= page < len(self.sizes):
            frame.hide()
            return
        width, height = self.sizes[page]
        top = min(max(y0 - above, 0.0), height - 30.0)
        box = (0.0, top, width, min(y1 + below, height))
        if witness == "contents" and isinstance(shown, Reading):
            self._marked = shown.seen_box
        self._wanted[witness] = (page, box)
        self.picture_wanted.emit(witness, page, box)


def _head(name: str, section: Section, reading: Reading | None, sources: tuple[str, ...]) -> str:
    if name == "heading":
        words = "The heading" if reading else "Where it starts"
        return f"{words}, {page_shown(None, section.page)}"
    if name not in sources:
        return ""
    if name == "contents":
        if reading is None:
            return "The contents page does not name it."
        return f"The contents page, {page_shown(None, reading.seen_page)}"
    return "The bookmark" if reading else "No bookmark leads here."


def _reason(section: Section, sources: tuple[str, ...]) -> str:
    if section.disagreements:
        return "\n".join(d.reason for d in section.disagreements)
    if not section.readings:
        return "You added this section." if sources else "A part by pages: nothing names it."
    n, of = len(section.readings), len(sources)
    if n == of:
        return "All witnesses agree." if of > 1 else "The only witness of this document names it."
    silent = {"bookmark": "the bookmarks", "contents": "the contents page",
              "heading": "the headings"}  # fmt: skip
    missing = [silent[name] for name in sources if section.reading(name) is None]
    return f"Named by {n} of {of} witnesses; {' and '.join(missing)} leave it out."
