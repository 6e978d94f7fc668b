"""What the document says of the selected words."""

from functools import partial

from markupsafe import Markup

from wide_margin.core.explain import Meaning, Reference
from wide_margin.core.margin import ExplanationBody
from wide_margin.desktop.look import sans_font, serif_font
from wide_margin.desktop.read_view.cards.card import Card, shortened
from wide_margin.desktop.words import WrappedWords


class ExplanationCard(Card):
    """Terms with their definitions, references with their places."""

    def fill(self) -> None:
        """Build it."""
        body = self.entry.body
        assert isinstance(body, ExplanationBody)
        self.head.setText("Explanation · from this document")
        index = 0
        for meaning in body.meanings:
            self.column.addWidget(self.rich(serif_font(), partial(self._meaning, meaning, index)))
            index += 1
        for reference in body.references:
            at = index if reference.locator else -1
            index += at >= 0
            self.column.addWidget(
                self.rich(sans_font(-0.5), partial(self._reference, reference, at))
            )
        if not body.meanings and not body.references:
            said = "The document does not define these words or refer elsewhere in them."
            self.column.addWidget(WrappedWords(said, sans_font(-0.5)))

    def _meaning(self, meaning: Meaning, index: int) -> Markup:
        link, said = self.link(index, meaning.locator), shortened(meaning.text)
        if meaning.kind == "used":
            return Markup("used here: “{}” {}").format(said, link)
        if meaning.long_form:
            return Markup("<b>{}</b> — {}: “{}” {}").format(
                meaning.term, meaning.long_form, said, link
            )
        return Markup("<b>{}</b> — “{}” {}").format(meaning.term, said, link)

    def _reference(self, reference: Reference, index: int) -> Markup:
        if reference.locator is None:
            return Markup("{}: not found in this document").format(reference.text)
        link = self.link(index, reference.locator)
        return Markup("{} → {} {}").format(reference.text, reference.title, link)
