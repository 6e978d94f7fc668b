"""One translated paragraph: running text whose sentences can be pointed at and chosen."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from markupsafe import Markup
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QWidget

from wide_margin.core.translate import RIGHT_TO_LEFT
from wide_margin.desktop.look import serif_font
from wide_margin.desktop.words import WrappedWords

if TYPE_CHECKING:
    from wide_margin.core.translate import Pair
    from wide_margin.desktop.look import Colours

BETWEEN_SENTENCES, BETWEEN_CELLS = Markup(" "), Markup(" · ")
"""The latter in a row of a table."""


class FacingParagraph(WrappedWords):
    """Sentences as links to their pairs; one with doubts ends in the word "check"."""

    pointed = Signal(int)  # a pair of the paragraph, -1 for none
    chosen = Signal(int)

    def __init__(
        self, colours: Colours, parent: QWidget, *, is_heading: bool, is_row: bool = False
    ) -> None:
        font = serif_font()
        font.setBold(is_heading)
        super().__init__("", font)
        self.setParent(parent)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._colours = colours
        self._pairs: tuple[Pair, ...] = ()
        self._between = BETWEEN_CELLS if is_row else BETWEEN_SENTENCES
        self._marked = -1
        """Width and height last measured."""
        self.linkHovered.connect(lambda target: self.pointed.emit(int(target) if target else -1))
        self.linkActivated.connect(lambda target: self.chosen.emit(int(target)))

    def show_pairs(self, pairs: Sequence[Pair], language: str) -> None:
        """Show what there is of a paragraph's translation."""
        if tuple(pairs) == self._pairs:
            return
        self._pairs = tuple(pairs)
        to_left = language in RIGHT_TO_LEFT
        self.setLayoutDirection(
            Qt.LayoutDirection.RightToLeft if to_left else Qt.LayoutDirection.LeftToRight
        )
        self._write()

    def mark(self, row: int) -> None:
        """Mark the sentence of a pair; none for -1."""
        if row != self._marked:
            self._marked = row
            self._write()

    def _write(self) -> None:
        said = (self._sentence(k, pair) for k, pair in enumerate(self._pairs))
        self.setText(self._between.join(said))

    def _sentence(self, row: int, pair: Pair) -> Markup:
        colours = self._colours
        ground = Markup(";background-color:{}").format(colours.tint)
        here = ground if row == self._marked else Markup("")
        link = Markup(
            '<a href="{row}" style="color:{colour}{here};text-decoration:none">{text}</a>'
        )
        if not pair.target:
            return link.format(row=row, colour=colours.secondary, here=here, text="…")
        said = link.format(row=row, colour=colours.ink, here=here, text=pair.target)
        if pair.doubts and pair.origin != "glosses":
            said += Markup(" ") + link.format(
                row=row, colour=colours.madder, here="", text="[check]"
            )
        return said
