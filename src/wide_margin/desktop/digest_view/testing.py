"""Testing oneself: one question at a time, its answer hidden until it is asked for."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QMenu, QVBoxLayout, QWidget

from wide_margin.core.plain import counted
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.words import Words, WrappedWords, menu_text, set_word, word_button

if TYPE_CHECKING:
    from wide_margin.core.digest import TestQuestion

WIDEST = 640
LONGEST_NAME = 40
"""Letters of a section's name that are shown."""


class Testing(QWidget):
    """The question, the answer once it is shown, and whether it was known.

    What was not known comes again after the others, and again the next time.
    """

    __test__ = False

    pointed = Signal(object)  # Locator or None
    followed = Signal(object)  # Locator
    judged = Signal(str, bool)  # question, whether it was known

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("testing")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._all: tuple[TestQuestion, ...] = ()
        self._left: list[TestQuestion] = []
        self._known: dict[str, bool] = {}
        self._section_name: Callable[[int], str] = lambda _: ""
        self.scope = word_button("All sections ▾", "Ask of one section only")
        self.scope_menu = QMenu(self.scope)
        self.scope.setMenu(self.scope_menu)
        self._only = ""
        self.count = Words("", sans_font(-0.5), role="secondary")
        self.section = Words("", sans_font(-0.5), role="secondary")
        self.question = WrappedWords("", serif_font(4))
        self.answer = WrappedWords("", serif_font(2))
        self.sentence = WrappedWords("", serif_font(0.5), role="secondary")
        self.show_button = word_button("Show the answer", "Space")
        self.place = word_button("", "Read it there")
        self.place.setProperty("role", "place")
        self.knew = word_button("Knew it", "K")
        self.not_yet = word_button("Not yet", "N: it comes again")
        self.again = word_button("All of them again")
        column = QVBoxLayout(self)
        column.setContentsMargins(28, 28, 28, 28)
        column.setSpacing(10)
        top = QHBoxLayout()
        top.addWidget(self.count)
        top.addWidget(self.scope)
        top.addStretch(1)
        column.addLayout(top)
        for widget in (self.section, self.question, self.answer, self.sentence):
            widget.setMaximumWidth(WIDEST)
            column.addWidget(widget)
        row = QHBoxLayout()
        row.setSpacing(14)
        for button in (self.show_button, self.place, self.knew, self.not_yet, self.again):
            row.addWidget(button)
        row.addStretch(1)
        column.addSpacing(6)
        column.addLayout(row)
        column.addStretch(1)
        self.show_button.clicked.connect(self.show_answer)
        self.knew.clicked.connect(lambda: self.judge(known=True))
        self.not_yet.clicked.connect(lambda: self.judge(known=False))
        self.again.clicked.connect(self._begin_again)
        self.place.clicked.connect(self._follow)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.begin((), {}, lambda _: "")

    @property
    def now(self) -> TestQuestion | None:
        """The question that is asked."""
        return self._left[0] if self._left else None

    def begin(
        self,
        questions: tuple[TestQuestion, ...],
        known: dict[str, bool],
        section_name: Callable[[int], str],
    ) -> None:
        """Ask questions; those that were known another time are not asked again."""
        self._all, self._known, self._section_name = questions, dict(known), section_name
        self._only = ""
        self._offer_sections()
        self._begin_left()

    def _offer_sections(self) -> None:
        """The parts of the document that have questions, with how many."""
        self.scope_menu.clear()
        names = Counter(self._section_name(q.section) for q in self._all)
        names.pop("", None)
        self.scope_menu.addAction("All sections", partial(self.choose_section, ""))
        for name, n in names.items():
            shown = menu_text(f"{name} ({n})")
            self.scope_menu.addAction(shown, partial(self.choose_section, name))
        self.scope.setVisible(len(names) > 1)
        set_word(self.scope, "All sections ▾")

    def choose_section(self, name: str) -> None:
        """Ask of one section only; of all where the name is empty."""
        self._only = name
        short = name if len(name) <= LONGEST_NAME else f"{name[: LONGEST_NAME - 1]}…"
        set_word(self.scope, f"{short or 'All sections'} ▾")
        self._begin_left()

    @property
    def _asked(self) -> list[TestQuestion]:
        return [q for q in self._all if self._only in ("", self._section_name(q.section))]

    def _begin_left(self) -> None:
        self._left = [q for q in self._asked if not self._known.get(q.question)]
        self._ask()

    def show_answer(self) -> None:
        """Show what the document says."""
        asked = self.now
        if asked is None:
            return
        self.answer.setText(asked.answer)
        self.sentence.setText(asked.text)
        self.place.setText(asked.locator.shown)
        self._arrange(is_shown=True)
        self.pointed.emit(asked.locator)
        self.knew.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Space shows the answer, K and N judge it."""
        key = event.key()
        if key == Qt.Key.Key_Space and self.answer.isHidden():
            self.show_answer()
        elif key in (Qt.Key.Key_K, Qt.Key.Key_N):
            self.judge(known=key == Qt.Key.Key_K)
        else:
            super().keyPressEvent(event)

    def judge(self, *, known: bool) -> None:
        """The reader knew it, or not yet."""
        asked = self.now
        if asked is None or self.answer.isHidden():
            return
        self._known[asked.question] = known
        self._left.pop(0)
        if not known:
            self._left.append(asked)
        self.judged.emit(asked.question, known)
        self._ask()

    def _begin_again(self) -> None:
        self._left = list(self._asked)
        self._ask()

    def _ask(self) -> None:
        asked = self.now
        n_known = sum(self._known.get(q.question, False) for q in self._asked)
        of = counted(len(self._asked), "question")
        self.count.setText(f"{n_known} of {of} known" if self._all else "")
        self.section.setText(self._section_name(asked.section) if asked else "")
        if asked is not None:
            self.question.setText(asked.question)
        elif self._all:
            self.question.setText("You knew them all.")
        else:
            self.question.setText("No sentence of this document makes a good question.")
        self._arrange(is_shown=False)
        self.pointed.emit(None)
        (self.show_button if asked else self.again).setFocus()

    def _arrange(self, *, is_shown: bool) -> None:
        for widget in (self.answer, self.sentence, self.place, self.knew, self.not_yet):
            widget.setVisible(is_shown)
        self.show_button.setVisible(not is_shown and self.now is not None)
        self.again.setVisible(self.now is None and bool(self._all))

    def _follow(self) -> None:
        if self.now is not None:
            self.followed.emit(self.now.locator)
