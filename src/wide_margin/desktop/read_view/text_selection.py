"""What text is selected: from a place to a place in reading order, perhaps over pages."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from wide_margin.core.passages import split_sentences
from wide_margin.desktop.read_view.page_images import PageImages

if TYPE_CHECKING:
    from wide_margin.core.layout import SpanOnPage, TextLayer

Position = tuple[int, int]
"""Page index, and position in the page's text layer."""


@dataclass(slots=True)
class TextSelection:
    """A fixed end and a moving end; nothing is selected where they are the same."""

    images: PageImages
    fixed: Position | None = None
    moving: Position | None = None

    def clear(self) -> None:
        """Select nothing; where the hand last was stays known."""
        self.moving = self.fixed

    def set(self, fixed: Position, moving: Position) -> None:
        """Select from one position to another."""
        self.fixed, self.moving = fixed, moving

    def ends(self) -> tuple[Position, Position] | None:
        """First and last position, None where nothing is selected."""
        if self.fixed is None or self.moving is None or self.fixed == self.moving:
            return None
        first, last = sorted((self.fixed, self.moving))
        return first, last

    def ranges(self) -> list[tuple[TextLayer, int, int]]:
        """The selected positions, page by page; pages whose text has not come are left out."""
        ends = self.ends()
        if ends is None:
            return []
        (first_page, first), (last_page, last) = ends
        found = []
        for page in range(first_page, last_page + 1):
            layer = self.images.layer(page)
            if layer is None:
                continue
            start = first if page == first_page else 0
            end = last if page == last_page else layer.n
            if start < end:
                found.append((layer, start, end))
        return found

    def spans(self) -> tuple[SpanOnPage, ...]:
        """The selected characters."""
        return tuple(span for layer, a, b in self.ranges() for span in layer.spans(a, b))

    def text(self) -> str:
        """The selected words, hyphenation and ligatures undone."""
        return "\n".join(layer.text(a, b) for layer, a, b in self.ranges())

    def select_word(self, at: Position) -> None:
        """Select the word at a position."""
        if layer := self.images.layer(at[0]):
            first, last = layer.word_at(at[1])
            self.set((at[0], first), (at[0], last))

    def select_sentence(self, at: Position) -> None:
        """Select the sentence at a position, within its page."""
        layer = self.images.layer(at[0])
        if layer is None or not layer.n:
            return
        text, positions = layer.running_text()
        wanted = min(at[1], layer.n - 1)
        for first, last in split_sentences(text):
            start, end = positions[first], positions[last - 1] + 1
            if start <= wanted < end:
                self.set((at[0], start), (at[0], end))
                return

    def step(self, start: Position, amount: str, direction: int) -> None:
        """Move the moving end by a character, word or line, from the keyboard."""
        if self.fixed is None or self.moving is None:
            self.set(start, start)
        assert self.moving is not None
        page, position = self.moving
        layer = self.images.layer(page)
        if layer is None:
            return
        moved = _stepped(layer, position, amount, direction)
        if moved < 0 and page > 0 and (before := self.images.layer(page - 1)):
            self.moving = page - 1, before.n
        elif moved > layer.n and self.images.layer(page + 1):
            self.moving = page + 1, 0
        else:
            self.moving = page, min(max(moved, 0), layer.n)


def _stepped(layer: TextLayer, position: int, amount: str, direction: int) -> int:
    if amount == "character":
        return position + direction
    if amount == "word":
        starts = layer.word_starts()
        if direction > 0:
            return next((k for k in starts if k > position), layer.n + 1)
        return next((k for k in reversed(starts) if k < position), -1)
    row = layer.line_at(position) + direction
    if not 0 <= row < len(layer.lines):
        return -1 if direction < 0 else layer.n + 1
    x = layer.x_of(position)
    box = layer.lines[row].box
    return layer.position_at(min(max(x, box[0]), box[2]), (box[1] + box[3]) / 2)
