"""A small page maker on reportlab: columns, footnotes, running heads, keeping with the next."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from reportlab.lib.pagesizes import A5
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Paragraph, Spacer

WIDTH, HEIGHT = A5
INNER, OUTER, TOP, BOTTOM = 50.0, 44.0, 52.0, 46.0
GUTTER = 16.0
NOTE_GAP = 8.0


@dataclass
class Item:
    """Something to set: a flowable, what goes with it, and what happens where it lands."""

    flowable: Flowable
    keep_with_next: bool = False
    notes: list[Paragraph] = field(default_factory=list)
    landed: Callable[[Canvas, int, float], None] | None = None
    """Called with the canvas, the page number from 0 and the height from the top."""


@dataclass
class Break:
    """A new page; what holds from there on."""

    columns: int = 1
    numbering: str | None = None
    """roman or arabic starts a new count; None goes on."""
    left_head: str | None = None
    right_head: str | None = None
    bare: bool = False
    """Without running head."""


@dataclass
class Plate:
    """A page drawn as a whole, set when the page before it is full."""

    draw: Callable[[Canvas, str], None]
    """Called with the canvas and the page's label."""
    size: tuple[float, float] = (WIDTH, HEIGHT)
    rotate: int = 0
    """The page's /Rotate, degrees clockwise."""


class PageMaker:
    """Sets items one after the other. Run it twice: the first run finds the page numbers."""

    def __init__(self, canvas: Canvas, head_style, note_style) -> None:
        self.canvas, self._head, self._note = canvas, head_style, note_style
        self.page = -1
        self.labels: list[str] = []
        self.texts: list[str] = []
        """What stands in the items of each page, for the index."""
        self._plates: list[Plate] = []
        self._columns, self._column = 1, 0
        self._left_head = self._right_head = ""
        self._numbering, self._count = "roman", 0
        self._bare = False
        self._notes: list[Paragraph] = []
        self._y = 0.0
        self._open = False

    # --- pages

    def start_page(self) -> None:
        """Begin a page."""
        if self._open:
            self._finish_page()
        self._count_page()
        self._column, self._y = 0, HEIGHT - TOP
        self._open = True

    def _count_page(self) -> None:
        self.page += 1
        self._count += 1
        self.labels.append(self._label())
        self.texts.append("")

    def _set_plates(self) -> None:
        canvas = self.canvas
        for plate in self._plates:
            self._count_page()
            canvas.setPageSize(plate.size)
            canvas.setPageRotation(plate.rotate)
            plate.draw(canvas, self.labels[-1])
            canvas.showPage()
            canvas.setPageSize((WIDTH, HEIGHT))
            canvas.setPageRotation(0)
        self._plates = []

    def _label(self) -> str:
        if self._numbering == "arabic":
            return str(self._count)
        value, written = self._count, ""
        for worth, letters in ((10, "x"), (9, "ix"), (5, "v"), (4, "iv"), (1, "i")):
            written += letters * (value // worth)
            value %= worth
        return written

    def _finish_page(self) -> None:
        canvas = self.canvas
        self._draw_notes()
        label = self.labels[-1]
        is_left = self.page % 2 == 1
        canvas.setFont(self._head.fontName, self._head.fontSize)
        if not self._bare:
            text = self._left_head if is_left else self._right_head
            y = HEIGHT - TOP + 20
            left, right = self._edges()
            if is_left:
                canvas.drawString(left, y, label)
                canvas.drawRightString(right, y, text)
            else:
                canvas.drawString(left, y, text)
                canvas.drawRightString(right, y, label)
            canvas.setLineWidth(0.4)
            canvas.line(left, y - 5, right, y - 5)
        else:
            canvas.drawCentredString(WIDTH / 2, BOTTOM - 24, label)
        canvas.showPage()
        self._bare = False
        self._open = False
        self._set_plates()

    def _edges(self) -> tuple[float, float]:
        if self.page % 2 == 1:
            return OUTER, WIDTH - INNER
        return INNER, WIDTH - OUTER

    def _frame(self) -> tuple[float, float]:
        left, right = self._edges()
        width = (right - left - GUTTER * (self._columns - 1)) / self._columns
        return left + self._column * (width + GUTTER), width

    def _next_frame(self) -> None:
        if self._column + 1 < self._columns:
            self._column += 1
            self._y = HEIGHT - TOP
        else:
            self.start_page()

    # --- notes

    def _notes_height(self, more: list[Paragraph]) -> float:
        notes = self._notes + more
        if not notes:
            return 0.0
        left, right = self._edges()
        return NOTE_GAP + sum(note.wrap(right - left, HEIGHT)[1] for note in notes)

    def _draw_notes(self) -> None:
        if not self._notes:
            return
        left, right = self._edges()
        y = BOTTOM + self._notes_height([])
        self.canvas.setLineWidth(0.4)
        self.canvas.line(left, y - 2, left + 60, y - 2)
        y -= NOTE_GAP
        for note in self._notes:
            _, height = note.wrap(right - left, HEIGHT)
            y -= height
            note.drawOn(self.canvas, left, y)
        self._notes = []

    # --- items

    def set_all(self, items: list[Item | Break | Plate]) -> None:
        """Set everything and close the last page."""
        waiting = list(items)
        while waiting:
            item = waiting.pop(0)
            if isinstance(item, Break):
                self._turn(item)
                continue
            if isinstance(item, Plate):
                self._plates.append(item)
                continue
            self._set(item, waiting)
        if self._open:
            self._finish_page()

    def _turn(self, turn: Break) -> None:
        if self._open:
            self._finish_page()
        self._columns = turn.columns
        if turn.numbering is not None:
            self._numbering, self._count = turn.numbering, 0
        if turn.left_head is not None:
            self._left_head = turn.left_head
        if turn.right_head is not None:
            self._right_head = turn.right_head
        self.start_page()
        self._bare = turn.bare

    def _room(self, notes: list[Paragraph]) -> float:
        return self._y - BOTTOM - self._notes_height(notes)

    def _set(self, item: Item, waiting: list[Item | Break | Plate]) -> None:
        if not self._open:
            self.start_page()
        _, width = self._frame()
        flowable = item.flowable
        at_top = self._y >= HEIGHT - TOP - 1
        before = 0.0 if at_top else flowable.getSpaceBefore()
        if at_top and isinstance(flowable, Spacer):
            return
        _, height = flowable.wrap(width, HEIGHT)
        wanted = height + before
        if item.keep_with_next and waiting and isinstance(waiting[0], Item):
            following = waiting[0].flowable
            _, next_height = following.wrap(width, HEIGHT)
            wanted += following.getSpaceBefore() + min(next_height, 30.0)
            if waiting[0].keep_with_next:
                wanted += 30.0
        room = self._room(item.notes)
        if wanted <= room:
            self._place(item, before, height)
            return
        if isinstance(flowable, Paragraph) and not item.keep_with_next:
            parts = flowable.split(width, max(room - before, 0))
            if len(parts) == 2:
                _, first_height = parts[0].wrap(width, HEIGHT)
                self._place(Item(parts[0], landed=item.landed), before, first_height)
                waiting.insert(0, Item(parts[1], notes=item.notes))
                self._next_frame()
                return
        if isinstance(flowable, Spacer):
            return  # no page is begun for the sake of white space
        if at_top:
            raise ValueError("an item is taller than a page")
        self._next_frame()
        waiting.insert(0, item)

    def _place(self, item: Item, before: float, height: float) -> None:
        left, _ = self._frame()
        self._y -= before
        if item.landed is not None:
            item.landed(self.canvas, self.page, HEIGHT - self._y)
        self._notes.extend(item.notes)
        self.texts[-1] += _plain(item.flowable) + "\n"
        item.flowable.drawOn(self.canvas, left, self._y - height)
        self._y -= height + item.flowable.getSpaceAfter()


def _plain(flowable: Flowable) -> str:
    if isinstance(flowable, Paragraph):
        return flowable.getPlainText(identify=False)
    rows = getattr(flowable, "_cellvalues", [])
    return "\n".join(_plain(cell) for row in rows for cell in row if isinstance(cell, Paragraph))
