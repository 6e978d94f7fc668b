"""A talk as PPTX (Office Open XML, by python-pptx)."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import TYPE_CHECKING

from pptx import Presentation
from pptx.dml.color import RGBColor
from pptx.presentation import Presentation as PptxPresentation
from pptx.slide import Slide
from pptx.util import Emu, Inches, Pt

from wide_margin.core.export.looks import sheets_of
from wide_margin.core.plain import one_line, plain

if TYPE_CHECKING:
    from wide_margin.core.digest.talk import Sheet, Talk
    from wide_margin.core.export.looks import Look, PictureOf

WIDTH, HEIGHT = Inches(13.333), Inches(7.5)
SIDE, TOP = Inches(0.8), Inches(1.7)
POINT_SIZES = (26, 24, 22, 20, 18, 16, 14)
"""Of the type of points, the first that fits its sheet."""
LETTER, LINE = 0.52, 1.35
"""Width of a letter and distance of lines, as shares of the size of the type."""
AFTER_POINT = 0.55
"""Room after a point, as a share of the size of the type."""


def slides_of(talk: Talk, look: Look, night: bool, picture_of: PictureOf) -> bytes:
    """A talk as the bytes of a PPTX file; see talk_as."""
    made = Presentation()
    made.slide_width, made.slide_height = WIDTH, HEIGHT
    drawer = _Drawer(made, look, night)
    drawer.first(talk)
    for number, sheet in enumerate(sheets_of(talk), start=2):
        drawer.sheet(sheet, number, picture_of(sheet))
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


class _Drawer:
    """Puts sheets into a presentation, on its empty layout."""

    def __init__(self, made: PptxPresentation, look: Look, night: bool) -> None:
        self._made = made
        self._empty = made.slide_layouts[6]
        colours = look.colours(night=night)
        self._ground, self._ink, self._quiet, self._edge = map(RGBColor.from_string, colours)
        self._face = "Georgia" if look.is_serif else "Calibri"

    def first(self, talk: Talk) -> None:
        """The title, and the course."""
        slide = self._slide()
        self._text(slide, SIDE, Inches(1.4), WIDTH - 2 * SIDE, Inches(1.6),
                   [one_line(talk.title, 160)], 36, self._ink)  # fmt: skip
        self._text(slide, SIDE, Inches(3.0), WIDTH - 2 * SIDE, Inches(0.7),
                   [one_line(talk.subtitle, 160)], 18, self._quiet)  # fmt: skip
        course = [one_line(title, 90) for title in talk.course]
        room = HEIGHT - Inches(4.4)
        size = fitting_size(course, WIDTH - 2 * SIDE, room)
        self._text(slide, SIDE, Inches(3.9), WIDTH - 2 * SIDE, room, course, size, self._ink)

    def sheet(self, sheet: Sheet, number: int, picture: bytes | None) -> None:
        """A title, its points, a picture at the right where there is one, what to say as notes."""
        slide = self._slide()
        self._text(slide, SIDE, Inches(0.55), WIDTH - 2 * SIDE, Inches(0.9),
                   [one_line(sheet.title, 110)], 28, self._ink)  # fmt: skip
        room = HEIGHT - TOP - Inches(0.8)
        width = WIDTH - 2 * SIDE
        if picture is not None:
            width = Emu(int(width * 0.54))
            self._picture(slide, picture, Emu(SIDE + width + Inches(0.3)), room)
        points = [one_line(point.shown, 400) for point in sheet.points]
        size = fitting_size(points, width, room)
        self._text(slide, SIDE, TOP, width, room, points, size, self._ink)
        self._text(slide, WIDTH - SIDE - Inches(0.6), HEIGHT - Inches(0.55), Inches(0.6),
                   Inches(0.35), [str(number)], 12, self._quiet)  # fmt: skip
        if sheet.notes:
            frame = slide.notes_slide.notes_text_frame
            assert frame is not None
            frame.text = plain("\n\n".join(sheet.notes))

    def _slide(self) -> Slide:
        slide = self._made.slides.add_slide(self._empty)
        slide.background.fill.solid()
        slide.background.fill.fore_color.rgb = self._ground
        edge = slide.shapes.add_shape(1, Emu(0), Inches(0.6), Inches(0.14), Inches(0.8))
        edge.fill.solid()
        edge.fill.fore_color.rgb = self._edge
        edge.line.fill.background()
        made: Slide = slide
        return made

    def _text(
        self, slide: Slide, x: int, y: int, width: int, height: int, lines: Sequence[str],
        size: int, colour: RGBColor,
    ) -> None:  # fmt: skip
        frame = slide.shapes.add_textbox(Emu(x), Emu(y), Emu(width), Emu(height)).text_frame
        frame.word_wrap = True
        for k, line in enumerate(line for line in lines if line):
            paragraph = frame.paragraphs[0] if not k else frame.add_paragraph()
            paragraph.space_after = Pt(AFTER_POINT * size)
            run = paragraph.add_run()
            run.text = plain(line)
            run.font.size, run.font.name = Pt(size), self._face
            run.font.color.rgb = colour

    def _picture(self, slide: Slide, data: bytes, x: int, room: int) -> None:
        width = WIDTH - SIDE - x
        shape = slide.shapes.add_picture(io.BytesIO(data), Emu(x), TOP, width=Emu(width))
        if shape.height > room:
            shape.width, shape.height = Emu(int(shape.width * room / shape.height)), Emu(room)


def fitting_size(points: list[str], width: int, height: int) -> int:
    """The first of POINT_SIZES in which all points fit a frame of so many EMU; else the last."""
    return next((s for s in POINT_SIZES if height_of(points, width, s) <= height), POINT_SIZES[-1])


def height_of(points: list[str], width: int, size: int) -> float:
    """EMU that points take in a size of type, reckoned from their letters."""
    letters = max((width - Inches(0.2)) / (LETTER * Pt(size)), 8.0)
    lines = sum(max(1, -(-len(point) // int(letters))) for point in points)
    return lines * LINE * Pt(size) + len(points) * AFTER_POINT * Pt(size)
