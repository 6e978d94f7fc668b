"""What all cards share: head, edge, locators that can be followed, height for a width."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QColor, QCursor, QEnterEvent, QFont, QFontInfo, QPainter, QPaintEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLayout, QPushButton, QVBoxLayout, QWidget

from wide_margin.core.layout import page_shown
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import WrappedWords, show_tip, word_button

if TYPE_CHECKING:
    from wide_margin.core.answers import Quote
    from wide_margin.core.document import Locator
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.look import Colours
    from wide_margin.desktop.read_view.cards.actions import EntryActions

Make = Callable[[], Markup]


class Card(QFrame):
    """One entry. Subclasses fill ``column`` under the head."""

    resized = Signal()

    def __init__(
        self, entry: Entry, actions: EntryActions, colours: Colours, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setObjectName("entry")
        self.entry, self.commands, self.colours = entry, actions, colours
        self.here = -1
        self.edge = colours.verdigris
        self._labels: list[tuple[WrappedWords, Make]] = []
        self._measured = -1, 0
        """Width and height last found."""
        self.resized.connect(self._forget_height)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(12, 2, 4, 4)
        self.column.setSpacing(4)
        self.head = WrappedWords("", sans_font(-1.5), role="secondary")
        self._delete = word_button("Delete", "Delete this entry; Ctrl+Z brings it back")
        self._delete.clicked.connect(lambda: self.commands.delete(self.entry.id))
        keep = self._delete.sizePolicy()
        keep.setRetainSizeWhenHidden(True)
        self._delete.setSizePolicy(keep)
        self._delete.hide()
        self._top = QHBoxLayout()
        self._top.setContentsMargins(0, 0, 0, 0)
        self._top.addWidget(self.head, 1)
        self._top.addWidget(self._delete, 0, Qt.AlignmentFlag.AlignTop)
        self.column.addLayout(self._top)
        self.fill()
        self._tell_if_lost()

    def fill(self) -> None:
        """Build the content."""

    def offer(self, button: QPushButton) -> None:
        """Put a word to act on beside the head."""
        self._top.insertWidget(1, button, 0, Qt.AlignmentFlag.AlignTop)

    def show_entry(self, entry: Entry) -> bool:
        """Show a changed entry; False where the card has to be made anew for it."""
        self.entry = entry
        return False

    def show_here(self, index: int) -> None:
        """Mark the locator that is being visited."""
        self.here = index
        for label, make in self._labels:
            label.setText(make())
        self._forget_height()

    def rich(self, font: QFont, make: Make) -> WrappedWords:
        """A label that is made anew when the visited place changes."""
        label = WrappedWords(make(), font)
        label.linkActivated.connect(self._follow)
        label.linkHovered.connect(self._tell_place)
        self._labels.append((label, make))
        return label

    def link(self, index: int, place: Locator) -> Markup:
        """A locator of this card, to click on."""
        return place_link(index, place, self.colours, here=index == self.here)

    def height_at(self, width: int) -> int:
        """Pixels that the card takes at a width; remembered until it says that it has changed."""
        if self._measured[0] == width and self.isVisible():
            return self._measured[1]
        for layout in self.findChildren(QLayout):
            layout.invalidate()  # what was found before the style was applied is too small
        frame = 2 * self.frameWidth()
        self._measured = width, self.column.heightForWidth(width - frame) + frame
        return self._measured[1]

    def _forget_height(self) -> None:
        self._measured = -1, 0

    def places(self) -> tuple[Locator, ...]:
        """The places this card leads to, in the order of its locators."""
        return self.entry.body.places

    def _follow(self, target: str) -> None:
        kind, _, value = target.partition(":")
        if kind == "place":
            self.commands.follow(self.entry.id, int(value))

    def _tell_place(self, target: str) -> None:
        """File page and section path of a locator under the pointer."""
        _, _, value = target.partition(":")
        places = self.places()
        said = ""
        if value.isdigit() and int(value) < len(places):
            place = places[int(value)]
            said = " · ".join(filter(None, (page_shown(None, place.page), " / ".join(place.path))))
            if place.is_lost:
                said += "\nThe file no longer has these words."
        show_tip(QCursor.pos(), said, self)

    def _tell_if_lost(self) -> None:
        anchor = self.entry.anchor
        if anchor.is_lost:
            said = f"The file no longer has its words: “{shortened(anchor.quote, 160)}”"
            self.column.insertWidget(1, WrappedWords(said, sans_font(-1), role="secondary"))

    def enterEvent(self, event: QEnterEvent) -> None:
        """Offer to delete."""
        self._delete.show()

    def leaveEvent(self, event: QEvent) -> None:
        """Stop offering."""
        self._delete.setVisible(self._delete.hasFocus())

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw the edge that tells the kind."""
        super().paintEvent(event)
        painter = QPainter(self)
        painter.fillRect(0, 0, 2, self.height(), QColor(self.edge))


def unbroken(place: Locator) -> str:
    """A locator that stays in one line: a number alone in the next is nobody's page."""
    return place.shown.replace(" ", "\u00a0")


def place_link(index: int, place: Locator, colours: Colours, *, here: bool) -> Markup:
    """A locator as rich text; the one being visited is inverted, a lost one struck through."""
    colour = colours.madder
    ground = Markup("")
    line, gap = ("line-through" if place.is_lost else "underline"), ""
    if here:
        colour, line, gap = colours.paper, "none", "\u00a0"
        ground = Markup(";background-color:{}").format(colours.madder)
    return Markup(
        '<a href="place:{index}" style="color:{colour}{ground};text-decoration:{line};'
        "font-family:'{family}';font-size:{size}pt;font-weight:600\">{gap}{shown}{gap}</a>"
    ).format(
        index=index, colour=colour, ground=ground, line=line, gap=gap,
        family=QFontInfo(sans_font()).family(), size=sans_font(-1).pointSizeF(),
        shown=unbroken(place),
    )  # fmt: skip


def statement(card: Card, quote: Quote, first: int, *, is_quoted: bool) -> Markup:
    """A statement with its locators behind it, in quotation marks where it is the document's.

    Args:
        card: Whose places they are.
        quote: The statement.
        first: Index of its first place among the card's.
        is_quoted: Whether these are the document's own words.
    """
    shown: dict[str, Markup] = {}
    for k, place in enumerate(quote.locators):
        shown.setdefault(place.shown, card.link(first + k, place))
    links = Markup(" ").join(shown.values())
    text = _emphasised(quote.text, quote.emphasis)
    if is_quoted:
        return Markup("“{}” {}").format(text, links)
    nowhere = Markup('<span style="font-size:{}pt;color:{}">no place in the document</span>')
    size = sans_font(-1.5).pointSizeF()
    return Markup("{} {}").format(text, links or nowhere.format(size, card.colours.secondary))


def _emphasised(text: str, ranges: tuple[tuple[int, int], ...]) -> Markup:
    parts, at = [], 0
    for first, last in ranges:
        parts.append(Markup("{}<b>{}</b>").format(text[at:first], text[first:last]))
        at = last
    whole = Markup("").join([*parts, Markup("{}").format(text[at:])])
    return whole.replace("\n", Markup("<br>"))


def shortened(text: str, limit: int = 320) -> str:
    """A text cut at a word, with "…" where something is left out."""
    return text if len(text) <= limit else text[:limit].rsplit(" ", 1)[0] + " …"
