"""What is translated to be read facing the pages, and how terms are rendered in it."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt

from wide_margin.core.answers import Reach
from wide_margin.core.translate import TermRule
from wide_margin.desktop.term_list import TermList

if TYPE_CHECKING:
    from wide_margin.desktop.read_view.read_view import ReadView

N_TERMS = 20
"""Terms of the document that are offered to be rendered in one way."""


class FacingCommands:
    """The commands of the Passage menu about pages and sections as a whole."""

    def __init__(self, view: ReadView) -> None:
        """Act in this view."""
        self._view, self._reader = view, view.reader
        self.term_list: TermList | None = None

    def translate(self, reach: Reach) -> None:
        """Translate a page, a section or more, to be read facing the pages."""
        self._reader.translator.translate_facing(reach, self._view.facing.show_entry)

    def translate_page(self, page: int = -1) -> None:
        """Translate a page, by its index; the one that is read for -1."""
        summary, place = self._reader.summary, self._view.pages.reading_place()
        if summary is None or place is None:
            self._view.show_status("The document is still being read.", for_ms=6000)
            return
        page = place[0] if page < 0 else page
        self.translate(Reach("pages", page, page, name=summary.labels.shown(page)))

    def translate_section(self) -> None:
        """Translate the section that is read."""
        reach = self._view.reaching.section_here()
        if reach is None:
            self._view.show_status("No section is read here: translate the page.", for_ms=6000)
        else:
            self.translate(reach)

    def list_terms(self, language: str = "") -> None:
        """Let the reader say how terms are rendered; what is translated is checked for it."""
        translator, session = self._reader.translator, self._reader.session
        if session is None:
            return
        language = language or translator.target

        def show(rules: tuple[TermRule, ...]) -> None:
            listed = self.term_list = TermList(rules, language, self._view)
            listed.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
            listed.accepted.connect(lambda: translator.keep_rules(language, listed.rules()))
            listed.offer.clicked.connect(lambda: self._offer_terms(listed))
            listed.open()

        translator.with_rules(language, show)

    def _offer_terms(self, listed: TermList) -> None:
        session = self._reader.session
        if session is not None:
            self._reader.watch(
                session.query("terms", N_TERMS),
                done=lambda terms: listed.add([TermRule(term, "") for term in terms]),
            )
