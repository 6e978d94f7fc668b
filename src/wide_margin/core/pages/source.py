"""Where the text of a page comes from: the file itself, or a layer laid over it."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import TYPE_CHECKING, NamedTuple, Protocol

from wide_margin.core.pages.model import PageText
from wide_margin.core.pages.recognising import is_garbled
from wide_margin.core.pages.rules import rules_of
from wide_margin.core.pages.text import read_text

if TYPE_CHECKING:
    from collections.abc import Callable

    from wide_margin.core.geometry import FloatArray
    from wide_margin.core.pages.document import PdfFile


class TextLayerOver(Protocol):
    """Text for pages that have none of their own, such as what was recognised in a picture."""

    def page(self, index: int) -> PageText | None:
        """The text of a page in page space, None where this layer has none for it."""
        ...


class Told(NamedTuple):
    """The text of a page, and what is known of it."""

    text: PageText
    is_over: bool = False
    """Whether it comes from a layer over the file's own."""
    is_garbled: bool = False
    """Whether it is damaged, and no layer has another one."""
    rules: Callable[[], FloatArray] | None = None
    """Gives (n, 4) the straight rules drawn on the page; None for text that a layer has."""


class TextSource:
    """The one source of text for whoever reads a document.

    The page worker and the reading worker both ask here, so that a character has the same index
    in either, whatever it comes from.
    """

    def __init__(self, pdf: PdfFile, over: Sequence[TextLayerOver] = ()) -> None:
        """Text of an open file.

        Args:
            pdf: The file.
            over: Layers, the first that has a page goes before the others. They are asked only
                for pages on which the file has no text, or only damaged text.
        """
        self._pdf = pdf
        self._over = tuple(over)

    def page(self, index: int, *, only_edges: bool = False) -> PageText:
        """Text of one page, each character with its box; arguments and errors as read_text."""
        return self.told(index, only_edges=only_edges).text

    def told(self, index: int, *, only_edges: bool = False) -> Told:
        """The same, with where it comes from and whether it is damaged."""
        text = read_text(self._pdf, index, only_edges=only_edges)
        rules = partial(rules_of, self._pdf, index)
        garbled = is_garbled(text.chars)
        if text.chars.strip() and not garbled:
            return Told(text, rules=rules)
        for layer in self._over:
            found = layer.page(index)
            if found is not None:
                return Told(found, is_over=True)
        return Told(text, is_garbled=garbled, rules=rules)
