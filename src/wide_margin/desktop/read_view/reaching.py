"""Choosing what a question is asked of: pages, the selection, a figure or table."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QSize

from wide_margin.core.answers import WHOLE, Reach, figure_reach, pages_reach, section_reach
from wide_margin.core.services.saved_requests import Whereof
from wide_margin.desktop.words import ask_row, ask_text

if TYPE_CHECKING:
    from wide_margin.core.document import Figure
    from wide_margin.desktop.read_view.read_view import ReadView


class Reaching(QObject):
    """Puts a reach into the ask line; it stays there until it is changed."""

    def __init__(self, view: ReadView) -> None:
        super().__init__(view)
        self._view = view

    def of_pages(self, typed: str) -> bool:
        """Ask of pages from now on, typed as "40-60"; whether there are such pages."""
        summary = self._view.reader.summary
        if summary is None:
            return False
        reach = pages_reach(summary.labels, summary.n_pages, typed)
        if reach is None:
            self._view.show_status(
                f"There are no pages “{typed}”: type them as 40-60.", for_ms=8000
            )
            return False
        self._set(reach)
        return True

    def ask_for_pages(self) -> None:
        """Let the reader type them."""
        label = "Pages by their printed numbers, such as 40-60:"
        typed = ask_text(self._view, "Ask of pages", label)
        if typed and typed.strip():
            self.of_pages(typed)

    def of_selection(self) -> None:
        """Ask of the selected words from now on."""
        spans = self._view.pages.selected_spans()
        if not spans:
            self._view.show_status("Select words on a page first.", for_ms=6000)
            return
        self._set(Reach("selection", name="the selection", spans=tuple(spans)))

    def of_request(self, whereof: Whereof) -> Reach | None:
        """What a saved request is asked of, as things are now; None where there is none."""
        view, summary = self._view, self._view.reader.summary
        if whereof is Whereof.WHOLE:
            return WHOLE
        if whereof is Whereof.SECTION:
            is_in_one = summary is not None and view.section >= 0
            section = summary.outline.sections[view.section] if summary and is_in_one else None
            return section_reach(section) if section else None
        spans = view.pages.selected_spans()
        return Reach("selection", name="the selection", spans=tuple(spans)) if spans else None

    def section_here(self) -> Reach | None:
        """The section that is being read."""
        return self.of_request(Whereof.SECTION)

    def of_section(self, section: int) -> None:
        """Ask of a section from now on."""
        self._set(section_reach(self._view.reader.outline.outline.sections[section]))

    def of_figure(self, figure: Figure) -> None:
        """Ask of a figure or table from now on: of its caption and the words in it."""
        self._set(figure_reach(figure))
        self._view.go_to_figure(figure)

    def ask_for_figure(self) -> None:
        """Let the reader choose one."""
        view, summary = self._view, self._view.reader.summary
        figures = [f for f in summary.figures if f.text] if summary else []
        if summary is None or not figures:
            view.show_status("No captions of figures or tables were found.", for_ms=8000)
            return
        rows = [f"{f.caption}  ({summary.labels.shown(f.page)})" for f in figures]
        near = min(range(len(figures)), key=lambda k: abs(figures[k].page - view.here()[0]))
        label = "Answers then come from its caption and the words in it."
        size = QSize(640, 420)
        row = ask_row(view, "Ask of a figure or table", label, rows, near, size)
        if row >= 0:
            self.of_figure(figures[row])

    def _set(self, reach: Reach) -> None:
        self._view.ask_line.set_reach(reach)
        self.offer_section()

    def offer_section(self) -> None:
        """Offer the section that is being read."""
        view, summary = self._view, self._view.reader.summary
        section = view.section
        here = summary.outline.sections[section] if summary and section >= 0 else None
        view.ask_line.offer_section(section_reach(here) if here else None)
