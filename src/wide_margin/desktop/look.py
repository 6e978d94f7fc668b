"""Colours, type and the style sheet: one set for the day, one for the night."""

from dataclasses import dataclass
from functools import cache
from importlib import resources

from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PySide6.QtWidgets import QApplication, QWidget

GRID = 8
"""Distances are multiples of this many pixels, or half of it."""


@dataclass(frozen=True, slots=True)
class Colours:
    """Every colour by what it is for."""

    desk: str
    paper: str
    panel: str
    page: str
    ink: str
    secondary: str
    rule: str
    verdigris: str
    madder: str
    tint: str
    ochre: str
    selection: str
    hits: str
    chosen: str
    """Behind the chosen row of a list."""
    claim: str
    """Behind marked words, one for each ink; likewise the next five."""
    doubt: str
    procedure: str
    wording: str
    figure: str
    later: str
    is_night: bool = False


DAY = Colours(
    desk="#DCD5C6", paper="#FBF8F1", panel="#F6F2E9", page="#FFFFFF", ink="#23272B",
    secondary="#555B62", rule="#CBC1AE", verdigris="#2F6B5E", madder="#9E3B2F", tint="#F3DDD5",
    ochre="#B7862B", selection="#DCE6EE", hits="#E9E2B8", chosen="#E3DBC9",
    claim="#CFE6DD", doubt="#F3D5CC", procedure="#F2E2B6", wording="#E1E2E4", figure="#D2E0F0",
    later="#E7DAEC",
)  # fmt: skip
NIGHT = Colours(
    desk="#16181A", paper="#1E2124", panel="#1E2124", page="#121212", ink="#E4DFD3",
    secondary="#A9A596", rule="#3A3D40", verdigris="#7FC2B0", madder="#E39A8C", tint="#4A2A25",
    ochre="#C79A45", selection="#2B3A46", hits="#4A4520", chosen="#2C3034",
    claim="#1F4238", doubt="#4A2A25", procedure="#4A3D1A", wording="#35393D", figure="#223650",
    later="#3E2E47", is_night=True,
)  # fmt: skip

# Every pair of a text colour and what it is written on; a test computes their contrast.
TEXT_PAIRS = (
    ("ink", "paper"), ("ink", "panel"), ("ink", "desk"), ("ink", "chosen"), ("ink", "selection"),
    ("ink", "hits"), ("ink", "tint"), ("secondary", "paper"), ("secondary", "panel"),
    ("verdigris", "paper"), ("verdigris", "panel"), ("madder", "paper"), ("madder", "panel"),
    ("paper", "madder"), ("paper", "verdigris"),
)  # fmt: skip


def contrast(a: str, b: str) -> float:
    """Contrast of two colours, 1 to 21.

    Source:
        WCAG 2.1, relative luminance and contrast ratio.
    """

    def luminance(name: str) -> float:
        colour = QColor(name)
        parts = []
        for value in (colour.redF(), colour.greenF(), colour.blueF()):
            parts.append(value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4)
        return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]

    light, dark = sorted((luminance(a), luminance(b)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@cache
def serif_family() -> str:
    """The serif that text of the document is quoted in: the first that the machine has."""
    families = set(QFontDatabase.families())
    for name in ("Noto Serif", "Source Serif 4", "DejaVu Serif", "Liberation Serif", "FreeSerif"):
        if name in families:
            return name
    return "serif"


_LETTERS_OF = {
    "zh": QFontDatabase.WritingSystem.SimplifiedChinese, "ja": QFontDatabase.WritingSystem.Japanese,
    "ko": QFontDatabase.WritingSystem.Korean, "ar": QFontDatabase.WritingSystem.Arabic,
    "he": QFontDatabase.WritingSystem.Hebrew, "el": QFontDatabase.WritingSystem.Greek,
    "ru": QFontDatabase.WritingSystem.Cyrillic, "uk": QFontDatabase.WritingSystem.Cyrillic,
}  # fmt: skip
"""The letters of the languages that the fonts of a plain machine may lack."""


@cache
def lacks_letters_of(language: str) -> bool:
    """Whether no font of the machine has the letters that a language is written in."""
    system = _LETTERS_OF.get(language)
    return system is not None and not QFontDatabase.families(system)


def sans_font(point_delta: float = 0.0, *, bold: bool = False) -> QFont:
    """The system's own font, larger or smaller by some points."""
    font = QFont(QApplication.font())
    font.setPointSizeF(max(6.0, font.pointSizeF() + point_delta))
    font.setBold(bold)
    return font


def serif_font(point_delta: float = 0.0) -> QFont:
    """The font of quoted text."""
    font = QFont(serif_family())
    font.setPointSizeF(max(6.0, QApplication.font().pointSizeF() + point_delta))
    return font


def palette(colours: Colours) -> QPalette:
    """Qt's palette in our colours, for what the style sheet does not name."""
    made = QPalette()
    roles = {
        QPalette.ColorRole.Window: colours.panel, QPalette.ColorRole.Base: colours.paper,
        QPalette.ColorRole.AlternateBase: colours.panel, QPalette.ColorRole.Text: colours.ink,
        QPalette.ColorRole.WindowText: colours.ink, QPalette.ColorRole.Button: colours.panel,
        QPalette.ColorRole.ButtonText: colours.ink, QPalette.ColorRole.Highlight: colours.selection,
        QPalette.ColorRole.HighlightedText: colours.ink, QPalette.ColorRole.Link: colours.verdigris,
        QPalette.ColorRole.PlaceholderText: colours.secondary,
        QPalette.ColorRole.ToolTipBase: colours.paper, QPalette.ColorRole.ToolTipText: colours.ink,
    }  # fmt: skip
    for role, name in roles.items():
        made.setColor(role, QColor(name))
    return made


@cache
def style_sheet(c: Colours) -> str:
    """The style sheet of a window."""
    template = resources.files("wide_margin.data").joinpath("look.qss").read_text("utf-8")
    for name in ("desk", "paper", "panel", "ink", "secondary", "rule", "verdigris", "madder",
                 "tint", "ochre", "selection", "hits", "chosen"):  # fmt: skip
        template = template.replace(f"@{name}", getattr(c, name))
    return template


def wear(window: QWidget, colours: Colours) -> None:
    """Put a window and its dialogs into a set of colours; costs nothing where it wears them.

    The sheet is the window's and not the application's: what is made before it stands in a window
    is then looked through once, when it is put there, and not for each layout it passes through.
    """
    sheet = style_sheet(colours)
    if window.styleSheet() != sheet:  # every widget is looked through for a new one
        application = QApplication.instance()
        if isinstance(application, QApplication) and application.palette() != palette(colours):
            application.setPalette(palette(colours))
        window.setStyleSheet(sheet)
