"""How the terms of a document are to be rendered in a language: a list to fill in."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QHBoxLayout,
    QHeaderView,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.plain import one_line
from wide_margin.core.translate import TermRule, language_name
from wide_margin.desktop.words import WrappedWords, show_title, word_button

TERM, RENDERING = 0, 1
SPARE = 3
"""Empty rows at the end, to write into."""


class TermList(QDialog):
    """Two columns: a term, and what it is rendered as; empty where it stays as it is."""

    def __init__(self, rules: Sequence[TermRule], language: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.language = language
        show_title(self, f"Terms into {language_name(language)}")
        self.resize(560, 460)
        said = WrappedWords(
            "Each term is always rendered so in this document; one without a rendering is kept as"
            " it is. Translations are told this, and checked for it.",
            role="secondary",
        )
        self.table = _Table(0, 2)
        self.table.setHorizontalHeaderLabels(["Term", f"In {language_name(language)}"])
        self.table.verticalHeader().hide()
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        self.table.setAccessibleName("Terms")
        self.offer = word_button("Add the document's own terms", "Those it is written around")
        self.drop = word_button("Take the chosen out", "Delete")
        self.drop.clicked.connect(self.table.take_chosen)
        row = QHBoxLayout()
        row.addWidget(self.offer)
        row.addWidget(self.drop)
        row.addStretch(1)
        buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel, self
        )
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 16, 24, 16)
        column.addWidget(said)
        column.addWidget(self.table, 1)
        column.addLayout(row)
        column.addWidget(buttons)
        self.add(rules)

    def add(self, rules: Sequence[TermRule]) -> None:
        """Put terms into the list that are not there yet."""
        rows = self.rules()
        known = {rule.term.casefold() for rule in rows}
        rows += [rule for rule in rules if rule.term.casefold() not in known]
        self.table.fill(rows)

    def rules(self) -> list[TermRule]:
        """As filled in; of a term written twice the last counts."""
        found = {}
        for row in range(self.table.rowCount()):
            term, rendering = self.table.said(row, TERM), self.table.said(row, RENDERING)
            if term:
                found[term.casefold()] = TermRule(term, "" if rendering == term else rendering)
        return list(found.values())


class _Table(QTableWidget):
    """Rows of plain text."""

    def fill(self, rules: Sequence[TermRule]) -> None:
        """Show these, and some empty rows."""
        self.setRowCount(len(rules) + SPARE)
        for row in range(self.rowCount()):
            rule = rules[row] if row < len(rules) else TermRule("", "")
            self.setItem(row, TERM, QTableWidgetItem(one_line(rule.term)))
            self.setItem(row, RENDERING, QTableWidgetItem(one_line(rule.rendering)))

    def said(self, row: int, column: int) -> str:
        """What stands in a cell."""
        item = self.item(row, column)
        return one_line(item.text()).strip() if item is not None else ""

    def take_chosen(self) -> None:
        """Take the chosen rows out."""
        for row in sorted({index.row() for index in self.selectedIndexes()}, reverse=True):
            self.removeRow(row)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Delete takes the chosen rows out."""
        if event.key() == Qt.Key.Key_Delete:
            self.take_chosen()
        else:
            super().keyPressEvent(event)
