"""Where the writing model is: address, name, key, and a button that tries it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from wide_margin.core.errors import ServiceError
from wide_margin.core.services import WritingModel
from wide_margin.core.services.keys import KEY_VARIABLE, keep_model_key, model_key
from wide_margin.core.services.writing_model import list_models
from wide_margin.desktop.look import sans_font
from wide_margin.desktop.words import Words, menu_text, show_title

if TYPE_CHECKING:
    from wide_margin.core.errors import WideMarginError
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.services import Settings
    from wide_margin.desktop.background import Background, Report

_EXAMPLE = "http://127.0.0.1:8080/v1"


PARTS = {
    "model_restates": "it puts the question into the document’s words as well",
    "model_embeds": "its embeddings join in ranking, where it has them",
    "model_judges": "it is asked which excerpts answer",
}
"""What it does before it composes, by the settings that switch it on and off."""


def _check(label: str, *, is_on: bool) -> QCheckBox:
    box = QCheckBox(menu_text(label))
    box.setChecked(is_on)
    return box


class ModelDialog(QDialog):
    """Set once; nothing is sent before it is asked for."""

    chosen = Signal(dict)  # settings and their new values

    def __init__(self, settings: Settings, background: Background, parent: QWidget) -> None:
        super().__init__(parent)
        self._settings, self._background = settings, background
        show_title(self, "Writing model")
        self.setMinimumWidth(560)
        self.address = QLineEdit(settings.model_address)
        self.address.setPlaceholderText(_EXAMPLE)
        self.name = QComboBox()
        self.name.setEditable(True)
        self.name.setEditText(settings.model_name)
        line = self.name.lineEdit()
        assert line is not None
        line.setPlaceholderText("the first one that the service lists")
        self.key = QLineEdit()
        self.key.setEchoMode(QLineEdit.EchoMode.Password)
        self.key.setPlaceholderText("unchanged")
        self.verdict = Words("Nothing is sent before you ask for it.")
        self.verdict.setWordWrap(True)
        self.verdict.setMinimumHeight(2 * self.fontMetrics().lineSpacing() + 4)
        self.verdict.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.try_button = QPushButton("Try it")
        self.try_button.clicked.connect(self.try_it)
        about = Words(
            "A service that speaks chat completions over HTTP. Excerpts of the document are sent"
            " there when an answer is composed, and sentences when they are translated; how many"
            " words were sent stands under each answer. The key is"
            f" kept by the desktop’s secret store, or read from {KEY_VARIABLE}."
        )
        about.setWordWrap(True)
        about.setProperty("role", "secondary")
        about.setFont(sans_font(-1))
        self.parts = {
            name: _check(label, is_on=bool(getattr(settings, name)))
            for name, label in PARTS.items()
        }
        form = QFormLayout()
        form.setHorizontalSpacing(20)
        form.setVerticalSpacing(10)
        form.addRow(Words("Address"), self.address)
        form.addRow(Words("Model"), self.name)
        form.addRow(Words("Key"), self.key)
        for k, box in enumerate(self.parts.values()):
            form.addRow(Words("" if k else "In finding"), box)
        trying = QHBoxLayout()
        trying.setSpacing(14)
        trying.addWidget(self.try_button, 0, Qt.AlignmentFlag.AlignTop)
        trying.addWidget(self.verdict, 1)
        self.buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Save | QDialogButtonBox.StandardButton.Cancel, self
        )
        self.buttons.accepted.connect(self.save)
        self.buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.setContentsMargins(24, 20, 24, 16)
        column.setSpacing(16)
        column.addWidget(about)
        column.addLayout(form)
        column.addLayout(trying)
        column.addWidget(self.buttons)

    def try_it(self) -> None:
        """Ask the service for its models and for one word, and say how it went."""
        address, name = self.address.text().strip(), self.name.currentText().strip()
        typed = self.key.text()
        if not address:
            self.verdict.setText(f"Give an address first, such as {_EXAMPLE}.")
            return
        self.try_button.setEnabled(False)
        self.verdict.setText("Trying…")

        def work(token: CancelToken, report: Report) -> str:
            key = typed or model_key(address)
            names = list_models(address, key, token)
            report(names)
            model = WritingModel(address, name or names[0], key, patience=30.0, pauses=())
            messages = [{"role": "user", "content": "Answer with the word: ready"}]
            if not "".join(model.stream(messages, token)).strip():
                raise ServiceError("The writing model answered with nothing.", hint="Try another.")
            return model.name

        self._background.submit(
            work, done=self._worked, failed=self._failed, progressed=self._list_names
        )

    def _list_names(self, names: list[str]) -> None:
        typed = self.name.currentText()
        self.name.clear()
        self.name.addItems(names)
        self.name.setEditText(typed)

    def _worked(self, name: str) -> None:
        self.try_button.setEnabled(True)
        simulated = (
            " It is the stand-in: what it writes is simulated." if "stand-in" in name else ""
        )
        self.verdict.setText(f"It works: “{name}” answered.{simulated}")

    def _failed(self, error: WideMarginError) -> None:
        self.try_button.setEnabled(True)
        self.verdict.setText(f"{error.message} {error.hint}".strip())

    def save(self) -> None:
        """Keep what was typed; the dialog stays open where the key cannot be kept."""
        address = self.address.text().strip()
        changed: dict[str, object] = {
            "model_address": address, "model_name": self.name.currentText().strip(),
            **{name: box.isChecked() for name, box in self.parts.items()},
        }  # fmt: skip
        typed = self.key.text()
        if not typed:
            self._keep(changed)
            return
        self._background.submit(
            lambda token, report: keep_model_key(address, typed),
            done=lambda _: self._keep(changed),
            failed=self._failed,
        )

    def _keep(self, changed: dict[str, object]) -> None:
        self.chosen.emit(changed)
        self.accept()
