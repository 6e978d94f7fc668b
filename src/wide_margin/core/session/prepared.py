"""What requests need of a document as a whole: made once, when it is first asked for."""

from collections.abc import Callable
from functools import cached_property

from wide_margin.core.digest import Digester
from wide_margin.core.digest.structure import Sections
from wide_margin.core.document import PathsAt, ReadDocument
from wide_margin.core.explain import Definitions, Explainer, GatheringDefinitions
from wide_margin.core.search import Findable, make_findable

PIECE = 0.04
"""Seconds of work in spare time after which it is looked whether something is asked."""


class Prepared:
    """Of one document, or of as much of it as has been read."""

    def __init__(self, document: ReadDocument, pause: Callable[[], None] = lambda: None) -> None:
        """Nothing is made yet; ``pause`` is called now and then in what takes long."""
        self.document, self._pause = document, pause
        self._definitions: Definitions | None = None

    @cached_property
    def digester(self) -> Digester:
        """What the document is and says."""
        return Digester(self.document, self._pause)

    @cached_property
    def findable(self) -> Findable:
        """The text as words are looked for in it."""
        return make_findable(self.document.paragraphs)

    @cached_property
    def sections(self) -> Sections:
        """Which sections belong together."""
        return Sections(self.document)

    @cached_property
    def paths(self) -> PathsAt:
        """The section path at any place."""
        return PathsAt(self.document)

    @cached_property
    def explainer(self) -> Explainer:
        """What explanations rest on."""
        return Explainer(self.document, self.definitions)

    @property
    def definitions(self) -> Definitions:
        """Every definition of the document."""
        while self._definitions is None:
            self._definitions = self._gathering.go_on(float("inf"))
        return self._definitions

    @property
    def definitions_so_far(self) -> Definitions:
        """Every definition where they have been gathered, else none."""
        return self._definitions or {}

    def go_on(self) -> bool:
        """Make a piece of what explanations and digests need; whether there is more."""
        if self._definitions is None:
            self._definitions = self._gathering.go_on(PIECE)
            return True
        return self.explainer.prepare() or self.digester.prepare()

    @cached_property
    def _gathering(self) -> GatheringDefinitions:
        return GatheringDefinitions(self.document)
