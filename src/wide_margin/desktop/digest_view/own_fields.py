"""The reader's own fields: what is asked of every document of a kind."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QPlainTextEdit, QVBoxLayout, QWidget

from wide_margin.core.digest import DocumentKind, questions_in
from wide_margin.core.digest.field_sets import FieldSets
from wide_margin.desktop.digest_view.rows import FIELDS, field_rows
from wide_margin.desktop.words import Words, show_title

if TYPE_CHECKING:
    from wide_margin.core.digest import Field
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
        buttons = QDialogButtonBox(yes_no.Ok | yes_no.Cancel, self)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addWidget(told)
        column.addWidget(self.list, 1)
        column.addWidget(buttons)


class OwnFields:
    """Asks the kept questions and shows what the document says to each."""

    def __init__(self, view: DigestView) -> None:
        """For one view."""
        self._view = view
        self._kept = FieldSets()
        self._typed: dict[DocumentKind, str] = {}
        """What was written since; it is not lost where it cannot be kept."""
        self._asked: tuple[DocumentKind, tuple[str, ...]] | None = None
        self.fields: tuple[Field, ...] = ()
        """Answered; those of the document's front are not among them."""

    def forget(self) -> None:
        """Another document."""
        self.fields, self._asked = (), None

    @property
    def kind(self) -> DocumentKind:
        """What the document is read as."""
        digest = self._view.digest
        return digest.kind if digest is not None else DocumentKind.OTHER

    def text(self) -> str:
        """The list for the kind."""
        return self._typed.get(self.kind) or self._kept.text_of(self.kind)

    def write(self) -> None:
        """Let the reader write the list."""
        dialog = FieldsDialog(self._view, self.kind, self.text())
        if dialog.exec():
            self.take(dialog.list.toPlainText())

    def take(self, text: str) -> None:
        """Ask the questions of a list, and keep it for the kind off the UI thread."""
        kind = self.kind
        self._typed[kind] = text
        self._view.reader.background.submit(
            lambda token, report: self._kept.keep(kind, text),
            done=lambda _: self._was_kept(kind, text),
            failed=lambda error: self._view.say(f"{error.message} {error.hint}".strip()),
        )
        self._ask(tuple(questions_in(text)))

    def _was_kept(self, kind: DocumentKind, text: str) -> None:
        if self._typed.get(kind) == text:  # else it was written anew meanwhile
            del self._typed[kind]

    def ask(self) -> None:
        """Ask what is kept for this kind, unless that is what was asked last."""
        self._ask(tuple(questions_in(self.text())))

    def _ask(self, questions: tuple[str, ...]) -> None:
        session = self._view.reader.session
        if session is None or self._asked == (self.kind, questions):
            return
        self._asked = asked = self.kind, questions
        self._show(())
        if questions:
            self._view.reader.watch(
                session.fields(questions),
                done=lambda fields: self._answered(asked, fields[-len(questions) :]),
                failed=lambda error: self._view.say(error.message),
            )

    def _answered(self, asked: object, fields: tuple[Field, ...]) -> None:
        if asked == self._asked:  # else another list was asked meanwhile
            self._show(fields)

    def _show(self, fields: tuple[Field, ...]) -> None:
        self.fields = fields
        rows = self._view.page.lines.rows
        if rows:
            others = [row for row in rows if row.part != FIELDS]
            first = next((k for k, row in enumerate(rows) if row.part == FIELDS), len(rows))
            made = field_rows(fields, self.kind)
            self._view.page.show_rows([*others[:first], *made, *others[first:]])
