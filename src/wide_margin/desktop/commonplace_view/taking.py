"""Taking entries away, and bringing annotations in."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, TypeVar

from PySide6.QtWidgets import QFileDialog

from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.citations import source_from
from wide_margin.core.export.entries import EntriesFormat, export_entries
from wide_margin.core.export.saving import save_whole
from wide_margin.core.margin.gathering import gather, matching
from wide_margin.core.plain import counted
from wide_margin.desktop.ink_edges import ink_name

if TYPE_CHECKING:
    from wide_margin.core.jobs import CancelToken
    from wide_margin.core.margin import Entry
    from wide_margin.desktop.background import Report
    from wide_margin.desktop.commonplace_view.commonplace_view import CommonplaceView

Result = TypeVar("Result")
_FORMATS = {
    "Markdown (*.md)": EntriesFormat.MARKDOWN,
    "HTML (*.html)": EntriesFormat.HTML,
    "Word (*.docx)": EntriesFormat.WORD,
    "Table (*.csv)": EntriesFormat.CSV,
    "JSON (*.json)": EntriesFormat.JSON,
    "Web Annotation (*.jsonld)": EntriesFormat.ANNOTATIONS,
    "BibTeX (*.bib)": EntriesFormat.BIBTEX,
    "RIS (*.ris)": EntriesFormat.RIS,
    "CSL-JSON (*.csl)": EntriesFormat.CSL,
}


class Taking:
    """Saves entries, writes annotated copies and reads annotations, off the UI thread."""

    def __init__(self, view: CommonplaceView) -> None:
        """For one view."""
        self._view = view

    def ask_where(self, only_chosen: bool) -> None:
        """Ask for a name, then save."""
        path = self._view.reader.path
        start = str(path.with_suffix(".entries.md")) if path else ""
        name, kind = QFileDialog.getSaveFileName(
            self._view, "Save entries", start, ";;".join(_FORMATS)
        )
        if name:
            suffix = Path(name).suffix.lstrip(".").lower()
            known = suffix in set(EntriesFormat)
            form = EntriesFormat(suffix) if known else _FORMATS.get(kind, EntriesFormat.MARKDOWN)
            self.save(Path(name), form, only_chosen=only_chosen)

    def save(self, path: Path, form: EntriesFormat, *, only_chosen: bool = False) -> None:
        """Save the entries that are shown, or chosen, off the UI thread."""
        summary, session, source = (
            self._view.reader.summary,
            self._view.reader.session,
            self._view.reader.path,
        )
        if summary is None or session is None or source is None:
            return
        entries: Sequence[Entry] = self._view.list.chosen() if only_chosen else self._view.entries
        wanted = self._view.facets.wanted("" if only_chosen else self._view.words.text())
        title, by = summary.title or source.stem, self._view.by
        section_of = self._view.section_of

        def write(*_: object) -> int:
            if form is EntriesFormat.ANNOTATIONS:
                chosen = tuple(matching(entries, wanted))
                iri = source.resolve().as_uri()
                data = session.query("annotations_of", chosen, iri).result().encode()
            else:
                groups = gather(entries, wanted, by, section_of, ink_name)
                cited = source_from(session.fields(()).result(), title)
                data = export_entries(
                    groups, summary.labels, section_of, form, title=title, ink_name=ink_name,
                    source=cited,
                )  # fmt: skip
            save_whole(path, data)
            return len(matching(entries, wanted))

        self.in_background(write, lambda n: f"{counted(n, 'entry', 'entries')} are in {path}.")

    def ask_where_to_annotate(self) -> None:
        """Ask for a name, then write the copy."""
        path = self._view.reader.path
        start = str(path.with_name(f"{path.stem}-annotated.pdf")) if path else ""
        name, _ = QFileDialog.getSaveFileName(self._view, "Annotated copy", start, "PDF (*.pdf)")
        if name:
            self.annotate(Path(name))

    def annotate(self, target: Path) -> None:
        """Write a copy of the PDF with the entries that are shown as annotations."""
        session, source = self._view.reader.session, self._view.reader.path
        if session is None or source is None:
            return
        entries = matching(self._view.entries, self._view.facets.wanted(self._view.words.text()))
        password = session.password

        def write(*_: object) -> int:
            from wide_margin.core.export.annotated import write_annotated
            from wide_margin.core.session.placing import placed

            return write_annotated(source, target, placed(session, entries), password=password)

        self.in_background(write, lambda n: f"{counted(n, 'annotation')} in {target}.")

    def ask_what_to_bring(self) -> None:
        """Ask for a file, then bring its annotations in."""
        name, _ = QFileDialog.getOpenFileName(
            self._view, "Bring in annotations", "", "Web Annotation (*.jsonld *.json)"
        )
        if name:
            self.bring_in(Path(name))

    def bring_in(self, path: Path) -> None:
        """Make entries of the annotations in a file."""
        reader = self._view.reader
        session, record = reader.session, reader.record
        if session is None:
            return
        if record is None:
            reader.find_record(lambda: self.bring_in(path))
            return
        known = frozenset(reader.entries)

        def read(*_: object) -> tuple[list[Entry], list[str]]:
            text = _text_of(path)
            found: tuple[list[Entry], list[str]] = session.query(
                "annotations_in", text, record.id, known
            ).result()
            return found

        def add(found: tuple[list[Entry], list[str]]) -> str:
            placed, lost = found
            n_new = reader.keeper.add_all(placed, "Bring in annotations")
            said = f"{counted(n_new, 'entry', 'entries')} brought in."
            if len(placed) > n_new:
                said += f" {len(placed) - n_new} were entries already."
            return f"{said} {len(lost)} have no place here." if lost else said

        self.in_background(read, add)

    def in_background(
        self, work: Callable[[CancelToken, Report], Result], told: Callable[[Result], str]
    ) -> None:
        """Do some work in a thread, then say what came of it."""
        self._view.reader.background.submit(
            work,
            done=lambda value: self._view.say(told(value)),
            failed=lambda error: self._view.say(f"{error.message} {error.hint}".strip()),
        )


def _text_of(path: Path) -> str:
    try:
        return path.read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise WideMarginError(
            f"“{path.name}” cannot be read.", hint="Is it there, and a text file?"
        ) from error
