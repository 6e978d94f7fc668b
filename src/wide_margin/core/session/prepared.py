"""What requests need of a document as a whole: made once, when it is first asked for."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from functools import cached_property
from typing import TYPE_CHECKING, Protocol

from wide_margin.core.digest import Digester, worth_asking
from wide_margin.core.digest.structure import Sections
from wide_margin.core.document import PathsAt
from wide_margin.core.explain import Explainer, GatheringDefinitions
from wide_margin.core.jobs import Cancelled
from wide_margin.core.search import make_findable
from wide_margin.core.session.made import Made

if TYPE_CHECKING:
    from wide_margin.core.digest import DocumentKind
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.explain import Definitions
    from wide_margin.core.search import Findable

PIECE = 0.04
"""Seconds of work in spare time after which it is looked whether something is asked."""


class MadeStore(Protocol):
    """Keeps what was made of one document."""

    def load(self) -> Made | None:
        """What was made before, if anything."""

    def save(self, made: Made) -> object:
        """Keep what was made."""


class Prepared:
    """Of one document, or of as much of it as has been read."""

    def __init__(
        self, document: ReadDocument, pause: Callable[[], None] = lambda: None,
        between: Callable[[], None] = lambda: None, keeping: MadeStore | None = None,
    ) -> None:  # fmt: skip
        """Nothing is made yet.

        Args:
            document: What it is made of.
            pause: Called now and then in what takes long.
            between: Called now and then where nothing is half made.
            keeping: Where what was made of the document before is found, and kept once it is
                made anew.
        """
        self._between = between
        self.document, self._pause, self._keeping = document, pause, keeping
        self._definitions: Definitions | None = None
        self._worth: tuple[str, ...] | None = None

    @cached_property
    def before(self) -> Made | None:
        """What was made of the document before."""
        return self._keeping.load() if self._keeping is not None else None

    @cached_property
    def digester(self) -> Digester:
        """What the document is and says."""
        made = self.before.digest if self.before is not None else {}
        return Digester(self.document, self._pause, made)

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
        if self._definitions is None and self.before is not None:
            self._definitions = self.before.definitions
        while self._definitions is None:
            self._definitions = self._gathering.go_on(float("inf"))
        return self._definitions

    @property
    def worth(self) -> tuple[str, ...]:
        """Questions worth asking of the document as the kind it is."""
        if self._worth is None and self.before is not None:
            self._worth = self.before.worth
        if self._worth is None:
            self._worth = self.worth_as(self.digester.facts.kind)
        return self._worth

    def worth_as(
        self, kind: DocumentKind, check: Callable[[], None] | None = None
    ) -> tuple[str, ...]:
        """Questions worth asking of the document, read as some kind.

        Args:
            kind: The kind.
            check: Called now and then, in place of ``between``.
        """
        found = worth_asking(
            self.document, self.digester, self.definitions, kind, check=check or self._between
        )
        return tuple(worth.question for worth in found)

    @property
    def definitions_so_far(self) -> Definitions:
        """Every definition where they have been gathered, else none."""
        return self._definitions or {}

    def go_on(self, is_asked: Callable[[], bool] = lambda: False) -> bool:
        """Make a piece of what explanations and digests need; whether there is more.

        What is given up because something is asked is begun anew afterwards.
        """
        if self._definitions is None and self.before is None:
            self._definitions = self._gathering.go_on(PIECE)
            return True
        if self.explainer.prepare() or self.digester.prepare() or self._tells(is_asked):
            return True
        digest = self.digester.made
        if self._keeping is None or self.before is not None or digest is None:
            return False
        if not self._has_worth(is_asked):
            return True
        self._keeping.save(Made(self.definitions, digest, self.worth))
        self._keeping = None
        return False

    def _tells(self, is_asked: Callable[[], bool]) -> bool:
        """Make a piece of what a digest tells of the whole; whether there was one to make."""
        try:
            return self.digester.tell(self.definitions, _unless(is_asked))
        except Cancelled:
            return True

    def _has_worth(self, is_asked: Callable[[], bool]) -> bool:
        """Make the questions worth asking, unless something is asked meanwhile."""
        if self._worth is None:
            with suppress(Cancelled):
                self._worth = self.worth_as(self.digester.facts.kind, _unless(is_asked))
        return self._worth is not None

    @cached_property
    def _gathering(self) -> GatheringDefinitions:
        return GatheringDefinitions(self.document)


def _unless(is_asked: Callable[[], bool]) -> Callable[[], None]:
    """What gives up, where it is called, once something is asked.

    Raises:
        Cancelled: It does, when it is called.
    """

    def check() -> None:
        if is_asked():
            raise Cancelled

    return check
