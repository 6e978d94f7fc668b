"""How inks look: each has a colour, and an edge that tells it without its colour."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import QRect, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPen

from wide_margin.core.margin import Ink

if TYPE_CHECKING:
    from wide_margin.desktop.look import Colours

INK_KEYS = {str(k): ink for k, ink in enumerate(Ink, start=1)}
"""The key of each ink while a selection stands: 1 to 6."""
_LINES = {
    Ink.CLAIM: Qt.PenStyle.SolidLine, Ink.DOUBT: Qt.PenStyle.DashLine,
    Ink.PROCEDURE: Qt.PenStyle.DashDotLine, Ink.WORDING: Qt.PenStyle.DotLine,
    Ink.FIGURE: Qt.PenStyle.DashDotDotLine, Ink.LATER: Qt.PenStyle.SolidLine,
}  # fmt: skip
_BRUSHES = {
    Ink.CLAIM: Qt.BrushStyle.SolidPattern, Ink.DOUBT: Qt.BrushStyle.HorPattern,
    Ink.PROCEDURE: Qt.BrushStyle.BDiagPattern, Ink.WORDING: Qt.BrushStyle.NoBrush,
    Ink.FIGURE: Qt.BrushStyle.Dense5Pattern, Ink.LATER: Qt.BrushStyle.CrossPattern,
}  # fmt: skip


_given: dict[Ink, str] = {}
"""What the reader calls the inks, where they gave a name."""


def call_inks(names: Sequence[str]) -> None:
    """Let the inks be called so from now on, in their order; "" for the name that is given."""
    _given.clear()
    _given.update({ink: name for ink, name in zip(Ink, names, strict=False) if name})


def ink_name(ink: Ink) -> str:
    """What the reader calls an ink."""
    return _given.get(ink, str(ink))


def ink_colour(ink: Ink, colours: Colours) -> QColor:
    """The strong colour of an ink, for lines."""
    names = {
        Ink.CLAIM: colours.verdigris, Ink.DOUBT: colours.madder, Ink.PROCEDURE: colours.ochre,
        Ink.WORDING: colours.ink, Ink.FIGURE: colours.secondary, Ink.LATER: colours.ink,
    }  # fmt: skip
    return QColor(names[ink])


def ink_pen(ink: Ink, colours: Colours) -> QPen:
    """The line under marked words."""
    width = 2.5 if ink is Ink.LATER else 1.5
    return QPen(ink_colour(ink, colours), width, _LINES[ink])


def paint_ink(painter: QPainter, area: QRect, ink: Ink, colours: Colours) -> None:
    """Fill a narrow strip with the pattern of an ink."""
    colour = ink_colour(ink, colours)
    painter.fillRect(area, QBrush(colour, _BRUSHES[ink]))
    painter.setPen(QPen(colour, 1))
    if ink is not Ink.CLAIM:
        painter.drawRect(area.adjusted(0, 0, -1, -1))
