"""Curves of the demo handbook, computed from tidal constituents."""

import math

from reportlab.graphics.shapes import Drawing, Line, PolyLine, String
from reportlab.lib.colors import HexColor

SPEEDS = {"M2": 28.9841042, "S2": 30.0, "N2": 28.4397295, "O1": 13.9430356}  # degrees an hour
RAVNHEAD = {"M2": (0.71, 182), "S2": (0.24, 221), "N2": (0.14, 160), "O1": (0.06, 31)}
INK = HexColor("#23272B")


def height(hours: float, constituents: dict[str, tuple[float, float]]) -> float:
    """Height above mean level in metres, arguments zero at the start."""
    return sum(
        amplitude * math.cos(math.radians(SPEEDS[name] * hours - lag))
        for name, (amplitude, lag) in constituents.items()
    )


def curve(
    n_hours: float,
    names: tuple[str, ...],
    step: float,
    unit: str,
    per_mark: float,
    size: tuple[float, float] = (340.0, 130.0),
) -> Drawing:
    """A drawing of the tide at Ravnhead over some hours."""
    (width, tall), left, low = size, 30.0, 18.0
    drawing = Drawing(width, tall)
    used = {name: RAVNHEAD[name] for name in names}
    n = int(n_hours / step)
    values = [height(k * step, used) for k in range(n + 1)]
    scale = (tall - low - 8) / 2.6
    points: list[float] = []
    for k, value in enumerate(values):
        points += [left + k * (width - left - 4) / n, low + (value + 1.3) * scale]
    drawing.add(Line(left, low, width - 4, low, strokeColor=INK, strokeWidth=0.4))
    drawing.add(Line(left, low, left, tall - 8, strokeColor=INK, strokeWidth=0.4))
    for metres in (-1, 0, 1):
        y = low + (metres + 1.3) * scale
        drawing.add(Line(left - 3, y, left, y, strokeColor=INK, strokeWidth=0.4))
        drawing.add(
            String(
                2,
                y - 3,
                f"{metres:+d} m" if metres else "0 m",
                fontName="Times-Roman",
                fontSize=7.5,
            )
        )
    for mark in range(int(n_hours / per_mark) + 1):
        x = left + mark * per_mark * (width - left - 4) / n_hours
        drawing.add(Line(x, low - 3, x, low, strokeColor=INK, strokeWidth=0.4))
        drawing.add(
            String(
                x - 4, low - 12, f"{mark * per_mark / 24:.0f}", fontName="Times-Roman", fontSize=7.5
            )
        )
    drawing.add(String(width - 40, low - 12, unit, fontName="Times-Italic", fontSize=7.5))
    drawing.add(PolyLine(points, strokeColor=INK, strokeWidth=0.8))
    return drawing


FIGURES = {
    "tide": lambda: curve(168, ("M2", "S2", "N2", "O1"), 0.25, "days", 24),
    "springs": lambda: curve(24 * 29.5, ("M2", "S2"), 0.5, "days", 24 * 3),
    "quarter": lambda: curve(24 * 90, ("M2", "S2", "N2", "O1"), 0.5, "days", 240, (490.0, 270.0)),
}
