"""The line above the digest: its parts as words, and what it is of, how long, as which kind."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QActionGroup
from PySide6.QtWidgets import QFrame, QHBoxLayout, QMenu, QPushButton, QSlider

from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import DocumentKind
from wide_margin.desktop.digest_view.rows import PARTS
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import Words, set_tip, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach

TEST = "Test yourself"
SHORTEST, LONGEST, USUAL = 20, 600, 130
"""Words of the gist."""
COMPOSED = {
    "Gist": "Summarise",
    "By kind": "Tell point by point what is said of",
    "Sections": "Tell section by section what is said in",
}
"""Parts of the digest that can be composed, and what the model is asked."""
READERS = ("newcomer", "specialist")
"""For whom a gist can be composed."""
LONGEST_NAME = 28
"""Letters of a reach that are shown."""


class DigestStrip(QFrame):
    """Tells what is wanted; the view makes it."""

    part_chosen = Signal(str)
    length_changed = Signal(int)
    kind_chosen = Signal(object)  # DocumentKind
    fields_wanted = Signal()
    save_asked = Signal()
    compose_asked = Signal(str, str)  # the part of the digest, the question for the writing model

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("placeLine")
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 4, 16, 4)
        row.setSpacing(4)
        self.parts: dict[str, QPushButton] = {}
        for name in (*PARTS, TEST):
            button = QPushButton(name)
            button.setProperty("role", "panel")
            button.setCheckable(True)
            button.setFont(sans_font(-0.5))
            button.clicked.connect(partial(self.part_chosen.emit, name))
            row.addWidget(button)
            self.parts[name] = button
        row.addStretch(1)
        self.reach = word_button("Whole document ▾", "What the gist is of")
        self.reach_menu = QMenu(self.reach)
        self.reach.setMenu(self.reach_menu)
        self.length = self._slider()
        self.length_words = Words(f"{USUAL} words", sans_font(-0.5), role="secondary")
        widest = self.length_words.fontMetrics().horizontalAdvance(f"{LONGEST} words")
        self.length_words.setFixedWidth(widest + 6)
        self.kind = word_button("Kind ▾", "Read it as another kind of document")
        self.kind_menu = self._kinds()
        self.kind.setMenu(self.kind_menu)
        self.compose = word_button(
            "Compose ▾", "Have your writing model write the gist; it is checked"
        )
        self.compose_menu = QMenu(self.compose)
        self.compose.setMenu(self.compose_menu)
        self.compose.hide()
        self.save = word_button("Save as…", "Markdown, HTML, Word or JSON")
        self.save.clicked.connect(self.save_asked)
        for widget in (
            self.reach,
            self.length,
            self.length_words,
            self.kind,
            self.compose,
            self.save,
        ):
            row.addWidget(widget)
        self.enable(on=False)

    def offer_composing(self, title: str, language: str) -> None:
        """Offer to have the gist written, also in a language; "" where no model is connected."""
        name = f"“{title}”" if title else "it"
        self.compose.setVisible(bool(language))
        self.compose_menu.clear()
        wordings = {f"For a {reader}": f"{name} for a {reader}" for reader in READERS}
        wordings[f"In {language}"] = f"{name} in {language}"
        for part, asked in COMPOSED.items():
            menu = self.compose_menu.addMenu(part)
            for shown, wanted in wordings.items():
                menu.addAction(shown, partial(self.compose_asked.emit, part, f"{asked} {wanted}."))

    def _slider(self) -> QSlider:
        slider = QSlider(Qt.Orientation.Horizontal)
        slider.setRange(SHORTEST, LONGEST)
        slider.setValue(USUAL)
        slider.setSingleStep(10)
        slider.setPageStep(50)
        slider.setFixedWidth(120)
        slider.setAccessibleName("Length of the gist in words")
        set_tip(slider, "Length of the gist")
        slider.valueChanged.connect(self._tell_length)
        return slider

    def _kinds(self) -> QMenu:
        menu, group = QMenu(self.kind), QActionGroup(self)
        for kind in DocumentKind:
            action = menu.addAction(str(kind).capitalize())
            action.setCheckable(True)
            group.addAction(action)
            action.triggered.connect(partial(self.kind_chosen.emit, kind))
        menu.addSeparator()
        menu.addAction("What you ask…", self.fields_wanted.emit)
        return menu

    def _tell_length(self, n_words: int) -> None:
        self.length_words.setText(f"{n_words} words")
        self.length_changed.emit(n_words)

    def enable(self, *, on: bool) -> None:
        """Let things be chosen, or not yet."""
        for widget in (*self.parts.values(), self.reach, self.length, self.kind, self.save):
            widget.setEnabled(on)

    def mark_part(self, part: str) -> None:
        """Mark the part that is shown."""
        for name, button in self.parts.items():
            button.setChecked(name == part)

    def show_kind(self, kind: DocumentKind) -> None:
        """Say as what the document is read."""
        shown = str(kind).capitalize()
        set_word(self.kind, f"{shown} ▾")
        for action in self.kind_menu.actions():
            action.setChecked(action.text() == shown)

    def show_reach(self, reach: Reach) -> None:
        """Say what the gist is of."""
        name = "Whole document" if reach.name in ("", WHOLE.name) else reach.name
        short = name if len(name) <= LONGEST_NAME else f"{name[: LONGEST_NAME - 1]}…"
        set_word(self.reach, f"{short} ▾")
        set_tip(self.reach, f"The gist is of: {name}")
