"""The annotations that the file has already: listed as its own, and adopted if the reader wants."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QHBoxLayout,
    QHeaderView,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.export.annotations_in_file import annotations_in_file
from wide_margin.core.plain import counted, one_line
from wide_margin.core.session.placing import adopted
from wide_margin.desktop.words import Words, set_word, show_title, word_button

if TYPE_CHECKING:
    from pathlib import Path

    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.export.annotations_in_file import OwnAnnotation
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.commonplace_view.commonplace_view import CommonplaceView

COLUMNS = ("Page", "Kind", "Author", "Date", "Text")


class InFile:
    """Reads them once for each document, when the Commonplace view is first looked at."""

    def __init__(self, view: CommonplaceView) -> None:
        """For one view."""
        self._view = view
        self._path: Path | None = None
        self.found: list[OwnAnnotation] = []
        self.dialog: InFileDialog | None = None
        self.button = word_button("", "Annotations that are in the file itself")
        self.button.clicked.connect(self.show)
        self.button.hide()
        view.reader.opened.connect(lambda _: self._forget())

    def _forget(self) -> None:
        self._path, self.found = None, []
        self.button.hide()

    def look(self) -> None:
        """Read the annotations of the file, off the UI thread."""
        reader = self._view.reader
        path, session = reader.path, reader.session
        if session is None or path is None or path == self._path:
            return
        self._path, password = path, session.password
        reader.background.submit(
            lambda token, report: annotations_in_file(path, password),
            done=lambda found: self._show_count(path, found),
            failed=self._not_read,
        )

    def _show_count(self, path: Path, found: list[OwnAnnotation]) -> None:
        if path != self._path:
            return
        self.found = found
        set_word(self.button, f"In the file: {counted(len(found), 'annotation')}")
        self.button.setVisible(bool(found))

    def _not_read(self, error: WideMarginError) -> None:
        self._view.say(f"{error.message} {error.hint}".strip())

    def show(self) -> None:
        """List them."""
        summary = self._view.reader.summary
        labels = summary.labels if summary else None
        places = [labels.shown(a.page) if labels else str(a.page + 1) for a in self.found]
        self.dialog = InFileDialog(self.found, places, self._view)
        self.dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.dialog.adopt.clicked.connect(lambda: self.adopt(self._chosen()))
        self.dialog.open()

    def _chosen(self) -> list[OwnAnnotation]:
        assert self.dialog is not None
        rows = self.dialog.chosen()
        self.dialog.close()
        return [self.found[row] for row in rows] or self.found

    def adopt(self, annotations: Sequence[OwnAnnotation]) -> None:
        """Make entries of annotations; those adopted before are entries already."""
        reader, session, record = (
            self._view.reader,
            self._view.reader.session,
            self._view.reader.record,
        )
        if session is None:
            return
        if record is None:
            reader.find_record(lambda: self.adopt(annotations))
            return

        def add(entries: list[Entry]) -> None:
            n_new = reader.keeper.add_all(entries, "Adopt annotations")
            said = f"{counted(n_new, 'annotation')} adopted as entries."
            n_before = len(entries) - n_new
            self._view.say(f"{said} {n_before} were entries already." if n_before else said)

        reader.background.submit(
            lambda token, report: adopted(session, annotations, record.id),
            done=add,
            failed=self._not_read,
        )


class InFileDialog(QDialog):
    """A table of the file's annotations."""

    def __init__(
        self, found: Sequence[OwnAnnotation], places: Sequence[str], parent: QWidget
    ) -> None:
        super().__init__(parent)
        show_title(self, "Annotations in the file")
        self.resize(760, 420)
        self.table = QTableWidget(len(found), len(COLUMNS))
        self.table.setHorizontalHeaderLabels(list(COLUMNS))
        self.table.setAccessibleName("Annotations in the file")
        self.table.verticalHeader().hide()
        self.table.setShowGrid(False)
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        for row, (annotation, place) in enumerate(zip(found, places, strict=True)):
            said = (place, annotation.kind, annotation.author, annotation.date[:10],
                    annotation.text)  # fmt: skip
            for column, text in enumerate(said):
                self.table.setItem(row, column, QTableWidgetItem(one_line(text, 200)))
        self.table.resizeColumnsToContents()
        stretch = QHeaderView.ResizeMode.Stretch
        self.table.horizontalHeader().setSectionResizeMode(len(COLUMNS) - 1, stretch)
        self.adopt = word_button("Adopt as entries", "Make entries of those chosen, else of all")
        close = word_button("Close", "Leave them in the file alone")
        close.clicked.connect(self.reject)
        row_below = QHBoxLayout()
        told = "The file stays as it is. What is adopted becomes entries of yours."
        row_below.addWidget(Words(told, role="secondary"))
        row_below.addStretch(1)
        row_below.addWidget(self.adopt)
        row_below.addWidget(close)
        column_of = QVBoxLayout(self)
        column_of.addWidget(self.table)
        column_of.addLayout(row_below)

    def chosen(self) -> list[int]:
        """The rows that are chosen."""
        return sorted({index.row() for index in self.table.selectedIndexes()})
