"""What the inks of marks mean: the reader names them."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QSize
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QGridLayout, QLineEdit, QWidget

from wide_margin.core.plain import one_line
from wide_margin.desktop.ink_edges import INK_KEYS, ink_name, paint_ink
from wide_margin.desktop.words import Words, show_title

if TYPE_CHECKING:
    from wide_margin.core.margin import Ink
    from wide_margin.desktop.look import Colours

LONGEST = 24


class InkNames(QDialog):
    """A field for each ink, beside its edge and its key."""

    def __init__(self, colours: Colours, parent: QWidget) -> None:
        super().__init__(parent)
        show_title(self, "Names of the inks")
        grid = QGridLayout(self)
        grid.setContentsMargins(24, 16, 24, 16)
        grid.setHorizontalSpacing(12)
        self.fields: dict[Ink, QLineEdit] = {}
        for row, (key, ink) in enumerate(INK_KEYS.items()):
            field = QLineEdit(ink_name(ink))
            field.setMaxLength(LONGEST)
            field.setPlaceholderText(str(ink))
            field.setAccessibleName(f"Name of ink {key}")
            field.setMinimumWidth(220)
            grid.addWidget(_Edge(ink, colours), row, 0)
            grid.addWidget(Words(key, role="secondary"), row, 1)
            grid.addWidget(field, row, 2)
            self.fields[ink] = field
        buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel, self
        )
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        grid.addWidget(buttons, len(self.fields), 0, 1, 3)

    def names(self) -> tuple[str, ...]:
        """As typed; "" for an ink that keeps the name it was given."""
        typed = {ink: one_line(field.text()).strip() for ink, field in self.fields.items()}
        return tuple("" if name == str(ink) else name for ink, name in typed.items())


class _Edge(QWidget):
    """The edge of an ink."""

    def __init__(self, ink: Ink, colours: Colours) -> None:
        super().__init__()
        self._ink, self._colours = ink, colours
        self.setFixedSize(QSize(8, 22))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draw it."""
        paint_ink(QPainter(self), self.rect(), self._ink, self._colours)
