"""The reader's own fields: what is asked of every document of a kind."""

from typing import TYPE_CHECKING

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QPlainTextEdit, QVBoxLayout, QWidget

from wide_margin.core.digest import DocumentKind, Field
from wide_margin.core.digest.field_sets import FieldSets
from wide_margin.core.errors import WideMarginError
from wide_margin.desktop.digest_view.rows import FIELDS, field_rows
from wide_margin.desktop.words import Words, show_title

if TYPE_CHECKING:
    from wide_margin.desktop.digest_view.digest_view import DigestView


class FieldsDialog(QDialog):
    """A plain list of questions, one a line."""

    def __init__(self, parent: QWidget, kind: DocumentKind, text: str) -> None:
        super().__init__(parent)
        show_title(self, "What you ask")
        self.resize(560, 360)
        self.list = QPlainTextEdit(text)
        self.list.setAccessibleName("Questions, one a line")
        self.list.setPlaceholderText("Who is responsible?\nUntil when is it valid?")
        told = Words(
            "One question a line. They are put to this document, and kept for every document"
            f" that is read as {kind}."
        )
        told.setWordWrap(True)
        yes_no = QDialogButtonBox.StandardButton
        buttons = QDialogButtonBox(yes_no.Ok | yes_no.Cancel)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addWidget(told)
        column.addWidget(self.list, 1)
        column.addWidget(buttons)


class OwnFields:
    """Asks the kept questions and shows what the document says to each."""

    def __init__(self, view: "DigestView") -> None:
        """For one view."""
        self._view = view
        self._kept = FieldSets()
        self.fields: tuple[Field, ...] = ()
        """Answered; those of the document's front are not among them."""

    def forget(self) -> None:
        """Another document."""
        self.fields = ()

    @property
    def kind(self) -> DocumentKind:
        """What the document is read as."""
        digest = self._view.digest
        return digest.kind if digest is not None else DocumentKind.OTHER

    def write(self) -> None:
        """Let the reader write the list."""
        dialog = FieldsDialog(self._view, self.kind, self._kept.text_of(self.kind))
        if dialog.exec():
            self.take(dialog.list.toPlainText())

    def take(self, text: str) -> None:
        """Keep a list for the kind and ask its questions."""
        try:
            self._kept.keep(self.kind, text)
        except WideMarginError as error:
            self._view.say(f"{error.message} {error.hint}")
        self.ask()

    def ask(self) -> None:
        """Ask what is kept for this kind."""
        session = self._view.reader.session
        questions = self._kept.questions_of(self.kind)
        if session is None:
            return
        if not questions:
            self._answered(())
            return
        self._view.reader.watch(
            session.fields(questions),
            done=lambda fields: self._answered(fields[-len(questions) :]),
            failed=lambda error: self._view.say(error.message),
        )

    def _answered(self, fields: tuple[Field, ...]) -> None:
        self.fields = fields
        rows = self._view.page.lines.rows
        if rows:
            others = [row for row in rows if row.part != FIELDS]
            first = next((k for k, row in enumerate(rows) if row.part == FIELDS), len(rows))
            made = field_rows(fields, self.kind)
            self._view.page.show_rows([*others[:first], *made, *others[first:]])
