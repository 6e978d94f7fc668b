"""What can be done with an entry from its card; the Read view gives it its meaning."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtGui import QImage

if TYPE_CHECKING:
    from wide_margin.core.document import Locator
    from wide_margin.core.explain import OwnWords
    from wide_margin.core.explain.model import Manner


class EntryActions:
    """One object for all cards. Every method here does nothing: a card can stand alone."""

    def follow(self, entry_id: str, index: int) -> None:
        """Go where one of its places leads, and mark the very words."""

    def delete(self, entry_id: str) -> None:
        """Delete it; undo brings it back."""

    def hold(self, entry_id: str) -> None:
        """Hold it at the top of the margin."""

    def let_go(self) -> None:
        """Return the held answer to its place."""

    def next_place(self) -> None:
        """Visit the next place of the held answer."""

    def ask(self, question: str) -> None:
        """Ask a question that is offered."""

    def read_passage(self, locator: Locator) -> None:
        """Go to a sentence of the gist, and mark it."""

    def choose_kind(self, kind: str) -> None:
        """Look for questions worth asking of another kind of document."""

    def ask_on(self, entry_id: str) -> None:
        """Let the next question lean on this one."""

    def reword(self, entry_id: str) -> None:
        """Put the question back into the ask line."""

    def ask_from_kept(self, entry_id: str) -> None:
        """Ask again, of the excerpts alone that were not struck out."""

    def strike(self, entry_id: str, excerpt: int) -> None:
        """Strike an excerpt out, or take it back in."""

    def compose(self, entry_id: str, *, freely: bool) -> None:
        """Have the writing model compose an answer from the kept excerpts."""

    def quote_again(self, entry_id: str) -> None:
        """Show the document's own words again."""

    def copy(self, entry_id: str, form: str) -> None:
        """Put it on the clipboard in a form."""

    def cancel(self, entry_id: str) -> None:
        """Stop what a service writes."""

    def go_on(self, entry_id: str) -> None:
        """Try again, or go on where it broke off."""

    def choose_language(self, entry_id: str, code: str) -> None:
        """Translate into another language."""

    def correct_pair(self, entry_id: str, row: int, text: str) -> None:
        """Put the reader's words in place of a translation, and remember them."""

    def show_facing(self, entry_id: str) -> None:
        """Show a translation facing the pages."""

    def point_at_pair(self, entry_id: str, row: int) -> None:
        """Mark the sentence of a pair on the page; none for -1."""

    def save_text(self, entry_id: str, text: str) -> None:
        """Keep what was typed."""

    @property
    def has_model(self) -> bool:
        """Whether a writing model is connected."""
        return False

    def put_otherwise(self, entry_id: str, manner: Manner) -> None:
        """Have the writing model put a passage, or the reader's own text, into other words."""

    def check_words(self, entry_id: str, text: str, show: Callable[[OwnWords], None]) -> None:
        """Hold the reader's own words against the passage, and look for slips."""

    def explain_cutting(self, entry_id: str) -> None:
        """Explain what was cut out."""

    def change_mark(self, entry_id: str, **values: object) -> None:
        """Give a mark another ink or form."""

    def take_table(self, entry_id: str, *, to_file: bool) -> None:
        """Put the cells of a table that was cut out on the clipboard, or into a file."""

    def want_picture(self, entry_id: str, excerpt: int, show: Callable[[QImage], None]) -> None:
        """Draw a small picture of where an excerpt stands."""
